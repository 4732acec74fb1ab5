"""Kf by the theory of critical distances: the stress at a distance from the root, or averaged over one.

Taylor, D. (1999), Int. J. Fatigue 21, 413-420; El Haddad, M. H., Smith, K. N. and Topper, T. H. (1979), J. Eng. Mater. Technol.
101, 42-46; the round hole by Kirsch, E. G. (1898), VDI-Z. 42, 797-807.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.notch_effect import NotchEffect
from vivid_anvil.units import LENGTH, LENGTHS, STRESS, STRESSES, many, one, opened

DISTANCES = ("point", "line")


@opened(
    threshold=one("stress intensity", above=0.0), fatigue_limit=one("stress", above=0.0), geometry_factor=one(above=0.0)
)
def critical_length(threshold: float, fatigue_limit: float, geometry_factor: float = 1.0) -> float:
    """L = (ΔK_th / (Y Δσ_0))² / π, mm, both ranges at one R; with the Y of a short crack it is El Haddad's a_0.

    Parameters
    ----------
    threshold : float or text with a unit
        Threshold range of long cracks, MPa√mm, or text such as "6 MPa√m".
    fatigue_limit : float or text with a unit
        Range of stress at the fatigue limit of a smooth specimen, MPa, at the same R.
    geometry_factor : float, default 1.0
        Y, -.

    Returns
    -------
    float
        The length, mm.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> round(critical_length("190 MPa√mm", "310 MPa"), 4)
    0.1196
    """
    return float((threshold / (geometry_factor * fatigue_limit)) ** 2 / math.pi)


@opened(
    threshold=one("stress intensity", above=0.0),
    fatigue_limit=one("stress", above=0.0),
    size=LENGTHS,
    geometry_factor=one(above=0.0),
)
def short_crack_limit(
    threshold: float, fatigue_limit: float, size: ArrayLike, geometry_factor: float = 1.0
) -> FloatArray:
    """Range of stress, MPa, below which a crack of each size does not grow: ΔK_th / (Y √(π (a + a_0))) (El Haddad 1979).

    Parameters
    ----------
    threshold : float or text with a unit
        Threshold range of long cracks, MPa√mm.
    fatigue_limit : float or text with a unit
        Range of stress at the fatigue limit of a smooth specimen, MPa, at the same R.
    size : array_like
        Crack sizes, mm.
    geometry_factor : float, default 1.0
        Y, -.

    Returns
    -------
    ndarray
        Ranges of stress, MPa.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> short_crack_limit("190 MPa√mm", "310 MPa", [0.02, 1.0], 1.12).round(2)
    array([281.84,  91.45])
    """
    own = critical_length(threshold, fatigue_limit, geometry_factor)
    return np.asarray(threshold / (geometry_factor * np.sqrt(math.pi * (np.asarray(size) + own))))


@opened(depths=many("length", at_least=0.0), stresses=STRESSES, length=LENGTH, nominal_stress=STRESS)
def notch_effect_by_distance(
    depths: ArrayLike, stresses: ArrayLike, length: float, nominal_stress: float, method: str = "point"
) -> NotchEffect:
    """Kf of a stress profile from the root: the stress at L / 2 ("point"), or its mean over 2 L ("line"), over the nominal one.

    Between its points the profile is straight, so that they should lie close at the root.

    Parameters
    ----------
    depths : array_like
        Distances from the root, mm; the first 0, rising.
    stresses : array_like
        Elastic stress there, MPa.
    length : float or text with a unit
        L of `critical_length`, mm.
    nominal_stress : float or text with a unit
        Stress that Kf is to be on, MPa.
    method : str, default "point"
        One of `DISTANCES`.

    Returns
    -------
    NotchEffect
        Kt and Kf.

    Raises
    ------
    InputError
        For a profile that ends before the distance, and values of another kind, unit or range.

    Examples
    --------
    >>> depth = np.linspace(0.0, 1.0, 2001)
    >>> stress = hole_profile(3.0, depth)
    >>> round(notch_effect_by_distance(depth, stress, 0.1196, 1.0).kf, 3)
    2.867
    """
    one_of("notch effect, method", method, DISTANCES)
    x, s = np.asarray(depths, dtype=np.float64), np.asarray(stresses, dtype=np.float64)
    if x.ndim != 1 or x.size < 2 or x.shape != s.shape or x[0] != 0.0 or not (np.diff(x) > 0.0).all():
        raise InputError(
            "notch effect, depths", f"{x.size} depths", "two or more that start at 0 and rise, one a stress"
        )
    reach = 0.5 * length if method == "point" else 2.0 * length
    if x[-1] < reach:
        raise InputError("notch effect, depths", f"a profile up to {x[-1]:g} mm", f"one that reaches {reach:.4g} mm")
    if not nominal_stress > 0.0 or not s[0] > 0.0:
        raise InputError("notch effect, stresses", f"{s[0]:g} MPa at the root", "tension, on a nominal stress above 0")
    at = float(np.interp(reach, x, s))
    if method == "line":
        inner = x < reach
        points, values = np.append(x[inner], reach), np.append(s[inner], at)
        at = float(np.trapezoid(values, points)) / reach
    return NotchEffect(float(s[0]) / nominal_stress, at / nominal_stress)


@opened(radius=LENGTH, depth=many("length", at_least=0.0), across=STRESS, along=STRESS)
def hole_profile(radius: float, depth: ArrayLike, across: float = 1.0, along: float = 0.0) -> FloatArray:
    """Hoop stress, MPa, beside a round hole in a wide plate, on the line across the first stress (Kirsch 1898).

    Parameters
    ----------
    radius : float or text with a unit
        Radius of the hole, mm.
    depth : array_like
        Distances from the rim, mm, of 0 or more.
    across : float or text with a unit, default 1.0
        Remote stress across the line, MPa.
    along : float or text with a unit, default 0.0
        Remote stress along the line, MPa.

    Returns
    -------
    ndarray
        Hoop stress, MPa.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> hole_profile(3.0, [0.0, 3.0], 100.0).round(2)
    array([300.  , 121.88])
    """
    share = radius / (radius + np.asarray(depth, dtype=np.float64))
    own = across * (1.0 + 0.5 * share**2 + 1.5 * share**4)
    other = along * (0.5 * share**2 - 1.5 * share**4)
    return np.asarray(own + other)
