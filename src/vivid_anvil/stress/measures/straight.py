"""Measures that are straight in the components: one of them, or the normal stress along a direction."""

from __future__ import annotations

import functools
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray, as_numbers, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress.measures.measure import MEASURES, Measure, length, shown_stress, stress_in
from vivid_anvil.units import UnitSystem, display_unit, sound
from vivid_anvil.writing.working import Step, put_in


@dataclass(frozen=True)
class Component(Measure):
    """One component of the tensor: "xx", "yy", "zz", "xy", "yz" or "zx".

    Parameters
    ----------
    component : str
        Which component, such as "xx".

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> Component("xy").of([100.0, 0.0, 0.0, 20.0, 0.0, 0.0])
    array([20.])
    """

    component: str

    def __post_init__(self) -> None:
        one_of("stress component", self.component, COMPONENTS)

    @property
    def kind(self) -> str:  # type: ignore[override]  # as the table calls it
        """Such as "component xx"."""
        return f"component {self.component}"

    @property
    def forms(self) -> FloatArray:
        """1 for the component."""
        return np.eye(6)[[COMPONENTS.index(self.component)]]

    def norm(self, tensors: FloatArray) -> FloatArray:
        """The length of the tensor."""
        return length(tensors)

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """None: the component is there."""
        return []


for _one in COMPONENTS:
    MEASURES.add(f"component {_one}")(functools.partial(Component, _one))


@sound
@dataclass(frozen=True)
class NormalStress(Measure):
    """The normal stress along `direction`, (x, y, z) of any length: n·σ·n.

    Parameters
    ----------
    direction : any
        Direction of the normal stress.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> NormalStress((1.0, 1.0, 0.0)).of([100.0, 0.0, 0.0, 20.0, 0.0, 0.0]).round(9)
    array([70.])
    """

    direction: Any
    kind = "normal stress along a direction"
    knows_direction: ClassVar[bool] = True

    def __post_init__(self) -> None:
        vector = as_numbers("stress measure, direction", self.direction, "three numbers, not all 0")
        if vector.shape != (3,) or not np.isfinite(vector).all() or not np.linalg.norm(vector) > 0.0:
            raise InputError("stress measure, direction", f"{self.direction!r}", "three numbers, not all 0")
        object.__setattr__(self, "direction", tuple(float(one) for one in vector))

    @property
    def label(self) -> str:
        """With the direction in it."""
        return "normal stress along ({:g}, {:g}, {:g})".format(*self.direction)

    @property
    def forms(self) -> FloatArray:
        """n·σ·n as weights of the components."""
        return normal_weights(np.asarray(self.direction))[None]

    def norm(self, tensors: FloatArray) -> FloatArray:
        """The length of the tensor."""
        return length(tensors)

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """The sum of the weighted components."""
        name = display_unit("stress", units)
        parts = zip(self.forms[0], tensor, strict=True)
        numbers = " + ".join(f"{put_in(float(weight))} × {stress_in(one, units)} {name}" for weight, one in parts)
        value = shown_stress(float(self.forms[0] @ tensor), units)
        return [Step("Normal stress along the direction n", "σ_n = n · σ · n", numbers, value, name)]


def normal_weights(direction: FloatArray) -> FloatArray:
    """Weights of the six components that give the normal stress along `direction`: n·σ·n; shape (3,) to (6,), (n, 3) to (n, 6).

    >>> normal_weights(np.array([0.0, 2.0, 0.0])).tolist()
    [0.0, 1.0, 0.0, 0.0, 0.0, 0.0]
    """
    x, y, z = np.moveaxis(direction / np.linalg.norm(direction, axis=-1, keepdims=True), -1, 0)
    return np.stack([x * x, y * y, z * z, 2.0 * x * y, 2.0 * y * z, 2.0 * z * x], axis=-1)
