"""Magnification of the stress intensity at a weld toe: M_k over the depth.

In: depth z, attachment length L with its welds, plate thickness T, mm. Out: M_k, at least 1. Source: two-dimensional form of
Maddox, S. J. and Hobbacher, A. (1992), as in PD 6493:1991 and BS 7910; the small steps between branches are the source's.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, reach, refuse_unless
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import LENGTH, LENGTHS, inner, one, opened

LOADINGS = ("axial", "bending")


def _inside(depth: ArrayLike, thickness: float, **_: object) -> None:
    fits = np.asarray(depth) <= thickness * (1.0 + 1e-9)
    refuse_unless(fits, "toe magnification, depth", f"{reach(depth)} mm", f"up to the thickness, {thickness:g} mm")


@opened(_inside, depth=LENGTHS, attachment_length=LENGTH, thickness=LENGTH)
def toe_magnification(
    depth: ArrayLike, attachment_length: float, thickness: float, loading: str = "axial"
) -> FloatArray:
    """M_k = v (z/T)^w, at least 1.

    >>> toe_magnification([0.2, 3.0], 15.0, 20.0).round(4)
    array([1.9671, 1.065 ])
    """
    z = np.asarray(depth, dtype=np.float64) / thickness
    limit, near, far = toe_branches(attachment_length / thickness, loading)
    return np.asarray(np.maximum(1.0, np.where(z <= limit, near[0] * z ** near[1], far[0] * z ** far[1])))


@opened(place=one(above=0.0, at_most=1.0), ratio=one(above=0.0))
def toe_value(place: float, ratio: float, loading: str) -> float:
    """The same for one depth z/T = `place` and L/T = `ratio`, as the growth asks for one at a time.

    >>> round(toe_value(0.01, 0.75, "axial"), 4)
    1.9671
    """
    limit, near, far = inner(toe_branches)(ratio, loading)
    v, w = near if place <= limit else far
    return float(max(1.0, v * place**w))


@opened(ratio=one(above=0.0))
def toe_branches(ratio: float, loading: str) -> tuple[float, tuple[float, float], tuple[float, float]]:
    """z/T up to which the first branch holds, and (v, w) of both, for L/T = `ratio`; `loading` is one of `LOADINGS`."""
    if loading not in LOADINGS:
        raise InputError(
            "toe magnification, loading", repr(loading), f"one of {listed(LOADINGS)}", did_you_mean(loading, LOADINGS)
        )
    if loading == "axial":
        if ratio <= 2.0:
            return 0.05 * ratio**0.55, (0.51 * ratio**0.27, -0.31), (0.83, -0.15 * ratio**0.46)
        return 0.073, (0.615, -0.31), (0.83, -0.20)
    if ratio <= 1.0:
        return 0.03 * ratio**0.55, (0.45 * ratio**0.21, -0.31), (0.68, -0.19 * ratio**0.21)
    return 0.03, (0.45, -0.31), (0.68, -0.19)
