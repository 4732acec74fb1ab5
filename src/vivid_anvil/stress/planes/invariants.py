"""Criteria by invariants: the amplitude of the deviator, and the hydrostatic stress beside it."""

from __future__ import annotations

import math

from numpy.typing import ArrayLike

from vivid_anvil.stress.planes.constants import LIMIT, ratio_of
from vivid_anvil.stress.planes.deviator import deviator
from vivid_anvil.stress.planes.resolve import checked
from vivid_anvil.stress.planes.smallest_ball import smallest_ball
from vivid_anvil.units import STRESSES, opened


def _parts(stress: ArrayLike) -> tuple[float, float, float]:
    """√J2,a by the smallest ball of the deviator, and largest and mean hydrostatic stress, MPa."""
    tensors = checked(stress)
    hydrostatic = tensors[:, :3].mean(axis=1)
    _, radius = smallest_ball(deviator(tensors))
    return radius / math.sqrt(2.0), float(hydrostatic.max()), float(0.5 * (hydrostatic.max() + hydrostatic.min()))


@opened(stress=STRESSES, axial_limit=LIMIT, torsion_limit=LIMIT)
def crossland(stress: ArrayLike, *, axial_limit: float, torsion_limit: float) -> float:
    """Share of the limit: (√J2,a + (3 t / s - √3) σ_h,max) / t (Crossland, B. 1956).

    Parameters
    ----------
    stress : array_like
        Components xx, yy, zz, xy, yz, zx, MPa, shape (samples, 6).
    axial_limit : float or text with a unit
        Fatigue limit in tension and compression s, amplitude, fully reversed, MPa.
    torsion_limit : float or text with a unit
        Fatigue limit in torsion t, amplitude, fully reversed, MPa.

    Returns
    -------
    float
        1 at the limit.

    Raises
    ------
    InputError
        For t / s below 1/√3 or above 1, another shape, values of another kind, unit or range.

    Examples
    --------
    >>> round(crossland([[300.0, 0, 0, 0, 0, 0], [-300.0, 0, 0, 0, 0, 0]], axial_limit=300.0, torsion_limit=180.0), 6)
    1.0
    """
    ratio = ratio_of(axial_limit, torsion_limit, 1.0 / math.sqrt(3.0), 1.0, "Crossland")
    amplitude, highest, _ = _parts(stress)
    return (amplitude + (3.0 * ratio - math.sqrt(3.0)) * highest) / torsion_limit


@opened(stress=STRESSES, repeated_limit=LIMIT, torsion_limit=LIMIT)
def sines(stress: ArrayLike, *, repeated_limit: float, torsion_limit: float) -> float:
    """Share of the limit: (√J2,a + (3 t / s_0 - √3) σ_h,mean) / t, s_0 the amplitude in repeated tension (Sines, G. 1955).

    Parameters
    ----------
    stress : array_like
        Components xx, yy, zz, xy, yz, zx, MPa, shape (samples, 6).
    repeated_limit : float or text with a unit
        Fatigue limit in repeated tension (R = 0): its amplitude s_0, MPa.
    torsion_limit : float or text with a unit
        Fatigue limit in torsion t, amplitude, fully reversed, MPa.

    Returns
    -------
    float
        1 at the limit.

    Raises
    ------
    InputError
        For constants that would reward tension, another shape, values of another kind, unit or range.

    Examples
    --------
    >>> round(sines([[400.0, 0, 0, 0, 0, 0], [0.0, 0, 0, 0, 0, 0]], repeated_limit=200.0, torsion_limit=180.0), 6)
    1.0
    """
    ratio_of(repeated_limit, torsion_limit, 1.0 / math.sqrt(3.0), 10.0, "Sines")
    amplitude, _, mean = _parts(stress)
    weight = 3.0 * torsion_limit / repeated_limit - math.sqrt(3.0)
    return (amplitude + weight * mean) / torsion_limit
