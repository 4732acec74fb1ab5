"""From service to a test: damage and extremes of oscillators, the test with the same damage, and what it covers."""

from vivid_anvil.tailoring.coverage import Coverage, coverage
from vivid_anvil.tailoring.damage_spectrum import DamageSpectrum, damage_spectrum, together
from vivid_anvil.tailoring.oscillators import Oscillators
from vivid_anvil.tailoring.tailored_test import TailoredTest, tailored_test

__all__ = [
    "Coverage",
    "DamageSpectrum",
    "Oscillators",
    "TailoredTest",
    "coverage",
    "damage_spectrum",
    "tailored_test",
    "together",
]
