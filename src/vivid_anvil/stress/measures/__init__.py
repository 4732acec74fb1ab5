"""Measures of a tensor: the one stress that is counted for it, a file each kind."""

from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress.measures.measure import MEASURES, Measure, stress_measure
from vivid_anvil.stress.measures.principal_stresses import (
    AbsoluteMaximumPrincipal,
    SignedTresca,
    SignedVonMisesPrincipal,
)
from vivid_anvil.stress.measures.straight import Component, NormalStress
from vivid_anvil.stress.measures.von_mises import SignedVonMisesHydrostatic

__all__ = [
    "COMPONENTS",
    "MEASURES",
    "AbsoluteMaximumPrincipal",
    "Component",
    "Measure",
    "NormalStress",
    "SignedTresca",
    "SignedVonMisesHydrostatic",
    "SignedVonMisesPrincipal",
    "stress_measure",
]
