"""Magnitudes with phases as complex numbers."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.spectra.responses.response import ComplexArray


def of_phases(magnitude: FloatArray, phase_degrees: FloatArray, where: str) -> ComplexArray:
    """Complex numbers; InputError for magnitudes below 0, and for phases that never leave ±π, which look like radians.

    >>> of_phases(np.array([1.0, 2.0]), np.array([0.0, -90.0]), "table").round(12)
    array([1.+0.j, 0.-2.j])
    """
    size, phase = np.asarray(magnitude), np.asarray(phase_degrees)
    checks.finite_samples(size.ravel(), where=inside(where, "magnitude"), unit="")
    checks.finite_samples(phase.ravel(), where=inside(where, "phase"), unit="degrees")
    if (size < 0.0).any():
        raise InputError(inside(where, "magnitude"), f"{size.min():g}", "magnitudes of 0 or more, not in dB")
    if phase.size > 2 and 1.0 < float(np.abs(phase).max()) <= np.pi + 1e-9:
        raise InputError(
            inside(where, "phase"),
            f"phases from {phase.min():.4g} to {phase.max():.4g} degrees",
            "phases in degrees",
            "They look like radians: multiply them by 180/π.",
        )
    return np.asarray(size * np.exp(1j * np.radians(phase)))
