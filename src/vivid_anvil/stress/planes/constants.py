"""Constants of criteria from two fatigue limits: fully reversed, in tension and compression and in torsion."""

from __future__ import annotations

import math

from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import one, opened

LIMIT = one("stress", above=0.0)


def ratio_of(axial_limit: float, torsion_limit: float, low: float, high: float, criterion: str) -> float:
    """Torsion over axial limit; InputError outside of where a criterion holds."""
    ratio = torsion_limit / axial_limit
    if not low <= ratio <= high:
        hint = (
            "Is the torsion limit above the other by a slip?"
            if ratio > 1.0
            else "Another criterion suits such a material."
        )
        raise InputError(
            f"{criterion}, torsion_limit / axial_limit",
            f"{ratio:.4g}",
            f"{low:.4g} to {high:.4g}, where it holds",
            hint,
        )
    return ratio


@opened(axial_limit=LIMIT, torsion_limit=LIMIT)
def findley_constant(axial_limit: float, torsion_limit: float) -> tuple[float, float]:
    """k and the limit of Findley's parameter, MPa: k / √(1 + k²) = 2 t / s - 1, limit t √(1 + k²) (Findley 1959).

    Parameters
    ----------
    axial_limit : float or text with a unit
        Fatigue limit in tension and compression s, amplitude, fully reversed, MPa.
    torsion_limit : float or text with a unit
        Fatigue limit in torsion t, amplitude, fully reversed, MPa.

    Returns
    -------
    tuple of (float, float)
        The weight k, and the limit of τ_a + k σ_n,max, MPa.

    Raises
    ------
    InputError
        For t / s below 1/2 or not below 1, where no k gives both limits.

    Examples
    --------
    >>> [round(one, 4) for one in findley_constant("300 MPa", "180 MPa")]
    [0.2041, 183.7117]
    """
    ratio = ratio_of(axial_limit, torsion_limit, 0.5, 1.0 - 1e-9, "Findley")
    share = 2.0 * ratio - 1.0
    k = share / math.sqrt(1.0 - share * share)
    return k, torsion_limit * math.sqrt(1.0 + k * k)


@opened(axial_limit=LIMIT, torsion_limit=LIMIT)
def dang_van_constants(axial_limit: float, torsion_limit: float) -> tuple[float, float]:
    """a = 3 t / s - 3/2, and b = t, MPa (Dang Van 1989).

    Parameters
    ----------
    axial_limit : float or text with a unit
        Fatigue limit in tension and compression s, amplitude, fully reversed, MPa.
    torsion_limit : float or text with a unit
        Fatigue limit in torsion t, amplitude, fully reversed, MPa.

    Returns
    -------
    tuple of (float, float)
        The weight a, -, and b, MPa.

    Raises
    ------
    InputError
        For t / s below 1/2, where a would be negative, or above 1.

    Examples
    --------
    >>> [round(one, 4) for one in dang_van_constants("300 MPa", "180 MPa")]
    [0.3, 180.0]
    """
    ratio = ratio_of(axial_limit, torsion_limit, 0.5, 1.0, "Dang Van")
    return 3.0 * ratio - 1.5, torsion_limit
