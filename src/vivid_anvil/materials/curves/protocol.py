"""What a life asks of an S-N curve, be it one curve or a family of them."""

from __future__ import annotations

from abc import ABC, abstractmethod
from typing import TYPE_CHECKING, Any, ClassVar

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.working import Step

if TYPE_CHECKING:
    from vivid_anvil.materials.curves.curve import SNCurve


class Curve(ABC):
    """Cycles of an amplitude and a mean -> stresses on one curve, the `reference`, and with it lives."""

    name: Any
    mean_counts: ClassVar[bool] = False  # whether the mean of a cycle changes its life on the curve by itself

    @property
    @abstractmethod
    def reference(self) -> SNCurve:
        """The curve that cycles are held against."""

    @property
    @abstractmethod
    def has_means(self) -> str:
        """Why no mean-stress rule may stand beside it, in words, such as "which holds for any R"; empty where one may."""

    @abstractmethod
    def equivalent(self, amplitude: FloatArray, mean: FloatArray) -> FloatArray:
        """Cycles in the terms of the reference (range or amplitude, at its R), MPa; no rule is applied."""

    def equivalent_steps(self, amplitude: float, mean: float, units: UnitSystem) -> tuple[Step, ...]:
        """From amplitude and mean of a cycle, MPa, to its amplitude on the reference, by hand; none where it is the same."""
        return ()

    @property
    @abstractmethod
    def told(self) -> tuple[str, str]:
        """Where it comes from, and in what it counts."""

    @abstractmethod
    def lines_in(self, unit: str, one: float) -> str:
        """Its lines in words, with its stresses times `one` in `unit`."""
