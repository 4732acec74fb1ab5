"""Dang Van: the stress at the scale of grains, about the state that they have settled to, by the smallest ball of the deviator.

Dang Van, K. 1973; Dang Van, K., Griveau, B. and Message, O. 1989, in Biaxial and multiaxial fatigue, EGF 3, 479-496.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.planes.deviator import FULL, TWICE, deviator
from vivid_anvil.stress.planes.resolve import checked
from vivid_anvil.stress.planes.smallest_ball import smallest_ball
from vivid_anvil.units import STRESSES, one, opened


class DangVanAnswer(NamedTuple):
    """Shear and hydrostatic stress of grains at each sample, MPa; the largest τ + a σ_h, its share of b, one over that."""

    shear: FloatArray
    hydrostatic: FloatArray
    largest: float
    utilisation: float
    safety_factor: float


@opened(stress=STRESSES, a=one(at_least=0.0), b=one("stress", above=0.0))
def dang_van(stress: ArrayLike, *, a: float, b: float) -> DangVanAnswer:
    """Safety against fatigue of a repeated stress history: max (τ + a σ_h) / b, with τ half of the Tresca stress of grains.

    The grains settle to a residual state, the centre of the smallest ball round the path of the deviator.

    Parameters
    ----------
    stress : array_like
        Components xx, yy, zz, xy, yz, zx, MPa, shape (samples, 6).
    a : float
        Weight of the hydrostatic stress, -; from two limits by `dang_van_constants`.
    b : float or text with a unit
        Fatigue limit in torsion, MPa.

    Returns
    -------
    DangVanAnswer
        Shear and hydrostatic stress, utilisation and safety factor.

    Raises
    ------
    InputError
        For another shape, and values of another kind, unit or range.

    Examples
    --------
    >>> swing = [[200.0, 0, 0, 0, 0, 0], [-200.0, 0, 0, 0, 0, 0]]
    >>> round(dang_van(swing, a=0.3, b="180 MPa").utilisation, 4)
    0.6667
    """
    tensors = checked(stress)
    hydrostatic = tensors[:, :3].mean(axis=1)
    own = deviator(tensors)
    centre, _ = smallest_ball(own)
    grains = np.linalg.eigvalsh(((own - centre) / TWICE)[:, FULL])
    shear = 0.5 * (grains[:, 2] - grains[:, 0])
    largest = float((shear + a * hydrostatic).max())
    used = largest / b
    return DangVanAnswer(shear, hydrostatic, largest, used, 1.0 / used if used > 0.0 else float("inf"))
