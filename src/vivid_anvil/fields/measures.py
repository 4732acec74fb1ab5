"""The one stress that stands for a tensor when cycles are counted."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.models.stress_field import COMPONENTS
from vivid_anvil.units import coherent_values

# What may be counted; the codes are those of the loops.
MEASURES = {
    "absolute maximum principal": kernels.PRINCIPAL,
    "signed von Mises, hydrostatic": kernels.MISES_HYDROSTATIC,
    "signed von Mises, principal": kernels.MISES_PRINCIPAL,
    "signed Tresca": kernels.TRESCA,
    **dict.fromkeys((f"component {one}" for one in COMPONENTS), kernels.ALONG),
}


@dataclass(frozen=True)
class StressMeasure:
    """One of `MEASURES`, or with `direction`, (x, y, z), the normal stress along it.

    >>> StressMeasure("signed von Mises, hydrostatic").of([[100.0, 0, 0, 0, 0, 0], [-80.0, 0, 0, 0, 0, 0]])
    array([100., -80.])
    >>> StressMeasure(direction=(1.0, 1.0, 0.0)).of([100.0, 0.0, 0.0, 20.0, 0.0, 0.0]).round(9)
    array([70.])
    """

    name: str = "signed von Mises, hydrostatic"
    direction: tuple[float, float, float] | None = None

    def __post_init__(self) -> None:
        if self.direction is not None:
            vector = np.asarray(self.direction, dtype=np.float64)
            if vector.shape != (3,) or not np.isfinite(vector).all() or not np.linalg.norm(vector) > 0.0:
                raise InputError("stress measure, direction", f"{self.direction!r}", "three numbers, not all 0")
        elif self.name not in MEASURES:
            hint = did_you_mean(self.name, list(MEASURES))
            raise InputError("stress measure", repr(self.name), f"one of {listed(MEASURES)}", hint)

    @property
    def label(self) -> str:
        """Its name, or the direction in words."""
        if self.direction is None:
            return self.name
        return "normal stress along ({:g}, {:g}, {:g})".format(*self.direction)

    @property
    def code(self) -> int:
        """The code of the loops."""
        return kernels.ALONG if self.direction is not None else MEASURES[self.name]

    @property
    def along(self) -> FloatArray:
        """Weights of the six components, for what is linear in them."""
        if self.direction is not None:
            return normal_weights(np.asarray(self.direction, dtype=np.float64))
        weights = np.zeros(6)
        if self.code == kernels.ALONG:
            weights[COMPONENTS.index(self.name.removeprefix("component "))] = 1.0
        return weights

    def of(self, stress: ArrayLike) -> FloatArray:
        """The measure of tensors, shape (n, 6) or (6,), MPa; shape (n,). InputError for another shape."""
        tensors = np.atleast_2d(np.asarray(coherent_values(stress, "stress", "stress measure"), dtype=np.float64))
        if tensors.ndim != 2 or tensors.shape[1] != 6 or not np.isfinite(tensors).all():
            raise InputError(
                "stress measure", f"shape {np.shape(stress)}", f"finite tensors, (n, 6), as {', '.join(COMPONENTS)}"
            )
        out = np.empty(tensors.shape[0])
        unit, loads = np.zeros((1, 6)), np.zeros((1, 1))
        for i, tensor in enumerate(tensors):
            kernels.stress_history(self.code, self.along, unit, np.ascontiguousarray(tensor), loads, out[i : i + 1])
        return out


def normal_weights(direction: FloatArray) -> FloatArray:
    """Weights of the six components that give the normal stress along `direction`: n·σ·n.

    >>> normal_weights(np.array([0.0, 2.0, 0.0])).tolist()
    [0.0, 1.0, 0.0, 0.0, 0.0, 0.0]
    """
    x, y, z = direction / np.linalg.norm(direction)
    return np.array([x * x, y * y, z * z, 2.0 * x * y, 2.0 * y * z, 2.0 * z * x])
