"""Measures of large strain, and the right Cauchy-Green tensor of each: which one a file holds is stated, never guessed.

In: six components xx, yy, zz, xy, yz, zx, or the nine of a deformation gradient, at each sample. Out: C, shape (samples, 6).
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, as_numbers, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.units import opened

PLACES = ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))
SHEARS = {"tensor": "half of the engineering shear", "engineering": "twice the tensor shear"}
SAID = {
    "green-lagrange": "E = (C - 1) / 2, as solvers give it in large deformation",
    "nominal": "U - 1: of each principal stretch λ - 1, the engineering strain",
    "logarithmic": "ln U: true strain",
    "right stretch": "U, 1 where nothing is pulled",
    "deformation gradient": "F, nine components: xx xy xz yx yy yz zx zy zz, rows of F",
}


@opened()
def cauchy_green(values: ArrayLike, measure: str, *, shear: str = "tensor") -> FloatArray:
    """Right Cauchy-Green tensors C = FᵀF, shape (samples, 6), of strains in one of `STRAIN_MEASURES`.

    Parameters
    ----------
    values : array_like
        Six components xx, yy, zz, xy, yz, zx, or nine of a deformation gradient, shape (samples, 6 or 9).
    measure : str
        Which measure it is: one of `STRAIN_MEASURES`.
    shear : str, default "tensor"
        What the shear components are: one of `SHEARS`.

    Returns
    -------
    ndarray
        C, -.

    Raises
    ------
    InputError
        For an unknown measure, a missing component, values that are not finite, and a stretch at or below 0.

    Examples
    --------
    >>> pulled = [[0.5, -0.184, -0.184, 0, 0, 0]]
    >>> cauchy_green(pulled, "nominal").round(3).tolist()
    [[2.25, 0.666, 0.666, 0.0, 0.0, 0.0]]
    """
    one_of("strains, measure", measure, tuple(STRAIN_MEASURES))
    one_of("strains, shear", shear, tuple(SHEARS))
    size = 9 if measure == "deformation gradient" else 6
    own = as_numbers("strains", values)
    if own.ndim != 2 or own.shape[1] != size or not len(own):
        expected = (
            f"shape (samples, {size}): {SAID[measure]}" if size == 9 else "shape (samples, 6): xx, yy, zz, xy, yz, zx"
        )
        raise InputError("strains", f"shape {own.shape}", expected)
    if not np.isfinite(own).all():
        row = int(np.flatnonzero(~np.isfinite(own).all(axis=1))[0])
        raise InputError(f"strains, sample {row}", "a value that is not finite", "numbers")
    if size == 6 and shear == "engineering":
        own = own * np.array([1.0, 1.0, 1.0, 0.5, 0.5, 0.5])
    return STRAIN_MEASURES[measure](own)


def _of_gradient(own: FloatArray) -> FloatArray:
    full = own.reshape(-1, 3, 3)
    volume = np.linalg.det(full)
    if (volume <= 0.0).any():
        row = int(np.flatnonzero(volume <= 0.0)[0])
        raise InputError(
            f"deformation gradient, sample {row}",
            f"a determinant of {volume[row]:.4g}",
            "one above 0",
            "Is the order that of rows?",
        )
    return _six(np.einsum("nki,nkj->nij", full, full))


def _of_green(own: FloatArray) -> FloatArray:
    found = 2.0 * own
    found[:, :3] += 1.0
    sizes = np.linalg.eigvalsh(found[:, FULL])
    _refused(np.where(sizes > 0.0, np.sqrt(np.maximum(sizes, 0.0)), sizes))
    return np.asarray(found)


def _of_stretches(turned: Callable[[FloatArray], FloatArray]) -> Callable[[FloatArray], FloatArray]:
    def of(own: FloatArray) -> FloatArray:
        sizes, axes = np.linalg.eigh(own[:, FULL])
        stretch = turned(sizes)
        _refused(stretch)
        return _six(np.einsum("nik,nk,njk->nij", axes, stretch**2, axes))

    return of


def _refused(stretch: FloatArray) -> None:
    if (stretch <= 0.0).any():
        row = int(np.flatnonzero((stretch <= 0.0).any(axis=1))[0])
        raise InputError(
            f"strains, sample {row}",
            f"a stretch of {stretch[row].min():.4g}",
            "stretches above 0",
            "Is it another measure, or in percent?",
        )


def _six(full: FloatArray) -> FloatArray:
    return np.ascontiguousarray(np.column_stack([full[:, i, j] for i, j in PLACES]))


STRAIN_MEASURES: dict[str, Callable[[FloatArray], FloatArray]] = {
    "green-lagrange": _of_green,
    "nominal": _of_stretches(lambda strain: 1.0 + strain),
    "logarithmic": _of_stretches(np.exp),
    "right stretch": _of_stretches(lambda stretch: stretch),
    "deformation gradient": _of_gradient,
}


@opened()
def volumes(cauchy_greens: FloatArray) -> FloatArray:
    """J, the volume over that of the undeformed body, at each sample.

    >>> volumes(cauchy_green([[1.21, 1.0, 1.0, 0, 0, 0]], "right stretch")).round(6).tolist()
    [1.21]
    """
    if cauchy_greens.ndim != 2 or cauchy_greens.shape[1] != 6:
        raise InputError("volumes, cauchy_greens", f"shape {cauchy_greens.shape}", "tensors, shape (samples, 6)")
    return np.asarray(np.sqrt(np.linalg.det(cauchy_greens[:, FULL])))
