"""Structural stress at weld toes: from the surface beside them, or from the stress through the thickness.

In: stresses, MPa, at distances from the toe, mm. Out: the stress that the toe would feel without its notch. Sources: Hobbacher,
A. (2016), IIW Recommendations for fatigue design of welded joints and components, 2.2.3; Niemi, E., Fricke, W. and Maddox, S. J.
(2018), Structural hot-spot stress approach. The printed two-decimal weights are used.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, given_back, positive_number
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import LENGTH_OR_NONE, STRESSES, coherent_values, many, opened


@dataclass(frozen=True)
class ToeRule:
    """Where stresses are taken, in thicknesses or in mm, and with which weights they go to the toe."""

    places: tuple[float, ...]
    weights: tuple[float, ...]
    in_thicknesses: bool
    meant_for: str


TOE_RULES = {
    "0.4t and 1.0t": ToeRule((0.4, 1.0), (1.67, -0.67), True, "toes on a plate surface (type a), fine mesh"),
    "0.5t and 1.5t": ToeRule(
        (0.5, 1.5), (1.5, -0.5), True, "toes on a plate surface (type a), coarse mesh, mid-side nodes"
    ),
    "0.4t, 0.9t and 1.4t": ToeRule((0.4, 0.9, 1.4), (2.52, -2.24, 0.72), True, "toes where the stress rises steeply"),
    "4, 8 and 12 mm": ToeRule((4.0, 8.0, 12.0), (3.0, -3.0, 1.0), False, "toes on a plate edge (type b), fine mesh"),
    "5 and 15 mm": ToeRule((5.0, 15.0), (1.5, -0.5), False, "toes on a plate edge (type b), coarse mesh"),
}


@opened(distances=many("length"), stresses=STRESSES, thickness=LENGTH_OR_NONE)
def toe_stress(distances: ArrayLike, stresses: ArrayLike, rule: str, thickness: float | None = None) -> FloatArray:
    """Structural stress at the toe, MPa: `stresses`, (..., n), at `distances` from it, mm, (n,), by one of `TOE_RULES`.

    Between the given points of the path the stress is taken as straight.

    Parameters
    ----------
    distances : array_like or text with a unit
        Distances from the toe, mm, rising.
    stresses : array_like or text with a unit
        Stress at each distance, MPa.
    rule : str
        Where the stress is read: one of `TOE_RULES`.
    thickness : float or text with a unit, optional
        Thickness, mm.

    Returns
    -------
    ndarray
        Stress at the toe, MPa, shape (...).

    Raises
    ------
    InputError
        For an unknown rule, a missing thickness, and a path that does not reach as far as the rule.

    Examples
    --------
    >>> toe_stress([4.8, 12.0], [182.0, 158.0], "0.4t and 1.0t", thickness=12.0).round(6).item()
    198.08
    """
    if rule not in TOE_RULES:
        raise InputError("toe stress, rule", repr(rule), f"one of {listed(TOE_RULES)}", did_you_mean(rule, TOE_RULES))
    how = TOE_RULES[rule]
    scale = 1.0
    if how.in_thicknesses:
        scale = positive_number("toe stress, thickness", thickness, "the thickness, mm, for this rule")
    x, s = np.asarray(distances, dtype=np.float64), np.asarray(stresses, dtype=np.float64)
    if x.ndim != 1 or s.shape[-1:] != x.shape or not (np.diff(x) > 0.0).all() or x[0] < 0.0:
        raise InputError(
            "toe stress, distances", f"{x.tolist()}", "distances of 0 or more that rise, one for every stress"
        )
    places = np.array(how.places) * scale
    if places[0] < x[0] - 1e-9 or places[-1] > x[-1] + 1e-9:
        raise InputError(
            "toe stress, distances",
            f"a path from {x[0]:g} to {x[-1]:g} mm",
            f"one that has {places[0]:g} to {places[-1]:g} mm, where the rule {rule!r} looks",
            "Give more of the path; nothing is extrapolated but by the rule.",
        )
    taken = np.array([np.interp(places, x, row) for row in s.reshape(-1, x.size)])
    return np.asarray((taken @ np.array(how.weights)).reshape(s.shape[:-1]))


class ThroughThickness(NamedTuple):
    """Parts of a stress through the thickness, MPa: even, bending (positive where the checked surface is pulled), notch peak."""

    membrane: float
    bending: float
    peak: float

    @property
    def structural(self) -> float:
        """Membrane and bending together: what the checked surface feels without the notch."""
        return self.membrane + self.bending


_GAUSS = np.polynomial.legendre.leggauss(24)


def _of_function(depths: FloatArray, stresses: Callable[[FloatArray], FloatArray]) -> ThroughThickness:
    """The parts of a stress that is a function of the depth, mm."""
    _check_depths(depths, depths)
    t, half = float(depths[-1]), 0.5 * np.diff(depths)
    x = (0.5 * (depths[1:] + depths[:-1])[:, None] + half[:, None] * _GAUSS[0]).ravel()
    weight = (half[:, None] * _GAUSS[1]).ravel()
    s, surface = (given_back("through thickness, stresses", stresses(at), at.shape) for at in (x, depths[:1]))
    membrane = float(weight @ s) / t
    bending = 6.0 * float(weight @ (s * (0.5 * t - x))) / t**2
    return ThroughThickness(membrane, bending, float(surface[0]) - membrane - bending)


def _check_depths(x: FloatArray, s: FloatArray) -> None:
    if x.ndim != 1 or x.size < 2 or x[0] != 0.0 or not (np.diff(x) > 0.0).all() or s.shape != x.shape:
        raise InputError(
            "through thickness, depths", f"{x.tolist()}", "depths that start at 0 and rise, a stress for each"
        )


@opened()
def through_thickness(depths: ArrayLike, stresses: ArrayLike | Callable[[FloatArray], FloatArray]) -> ThroughThickness:
    """Membrane, bending and peak of `stresses`, MPa, at `depths` from the checked surface, mm, the last the other surface.

    Points are joined by straight lines; a function of the depth is integrated as it is (Gauss's rule between the depths).

    Parameters
    ----------
    depths : array_like
        Depths below the surface, mm, rising, through the plate.
    stresses : array_like or Callable[[ndarray], ndarray]
        Stress at each depth, MPa.

    Returns
    -------
    ThroughThickness
        Membrane, bending and peak stress, MPa.

    Raises
    ------
    InputError
        For depths that do not start at 0 and rise.

    Examples
    --------
    >>> parts = through_thickness([0.0, 10.0], [150.0, 50.0])
    >>> [round(part, 9) for part in parts]
    [100.0, 50.0, 0.0]
    """
    x = np.asarray(coherent_values(depths, "length", "through thickness, depths"), dtype=np.float64)
    if callable(stresses):
        return _of_function(x, stresses)
    s = np.asarray(coherent_values(stresses, "stress", "through thickness, stresses"), dtype=np.float64)
    if not np.isfinite(s).all():
        raise InputError("through thickness, stresses", "a value that is not finite", "finite stresses, MPa")
    _check_depths(x, s)
    t, step = float(x[-1]), np.diff(x)
    middle = 0.5 * (s[1:] + s[:-1])
    membrane = float((step * middle).sum()) / t
    # Simpson's rule is exact for a straight stress times its lever
    lever, half = 0.5 * t - x, 0.5 * t - 0.5 * (x[1:] + x[:-1])
    moment = float((step / 6.0 * (s[:-1] * lever[:-1] + 4.0 * middle * half + s[1:] * lever[1:])).sum())
    bending = 6.0 * moment / t**2
    return ThroughThickness(membrane, bending, float(s[0]) - membrane - bending)
