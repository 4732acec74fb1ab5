"""The homogeneous ways to stretch a sheet of rubber: what the other two stretches do, which faces are free of stress."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, as_numbers, one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import opened


class LoadingMode(NamedTuple):
    """Powers of the stretch λ along the three axes; axis 3 is free of stress, and what the test is."""

    powers: tuple[float, float, float]
    is_a: str


LOADING_MODES = {
    "simple": LoadingMode((1.0, -0.5, -0.5), "a strip or dumb-bell pulled along, free across"),
    "planar": LoadingMode((1.0, 0.0, -1.0), "a wide strip pulled across its width, which it keeps"),
    "equibiaxial": LoadingMode((1.0, 1.0, -2.0), "a sheet pulled alike both ways, or an inflated one"),
}


@opened()
def stretches(mode: str, stretch: ArrayLike) -> FloatArray:
    """The three principal stretches of an incompressible sheet, shape (..., 3).

    >>> stretches("planar", 2.0).tolist()
    [2.0, 1.0, 0.5]
    """
    one_of("loading mode", mode, tuple(LOADING_MODES))
    along = as_numbers("loading mode, stretch", stretch)
    if not (np.isfinite(along).all() and (along > 0.0).all()):
        worst = along[~(np.isfinite(along) & (along > 0.0))].ravel()[0]
        raise InputError(
            inside("loading mode", "stretch"),
            f"{worst:g}",
            "a stretch above 0, 1 where nothing is pulled",
            "Is it a strain? A stretch is 1 more than the engineering strain.",
        )
    return np.asarray(along[..., None] ** np.array(LOADING_MODES[mode].powers))
