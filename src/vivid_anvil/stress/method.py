"""What a method is: how the stress cycles at a place become damage."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import TYPE_CHECKING, Any, ClassVar, NamedTuple

from vivid_anvil.counting import Cycles
from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.materials import Curve, SNCurve
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import Column
from vivid_anvil.writing.working import Step

if TYPE_CHECKING:
    from vivid_anvil.stress.hot_spot import HotSpot

METHODS: Choices[type[Method]] = Choices("method")


class PowerLoop(NamedTuple):
    """What one quick loop needs: a curve of power laws under a line to `strength`; `means` as in `MEANS`."""

    curve: SNCurve
    strength: float
    means: int


class Method(ABC):
    """How stress cycles become damage, shared by hot spots, regions and paths.

    Each cycle has a stress in the method's own `terms`, such as the equivalent range of a curve; of it comes its damage.
    """

    kind: ClassVar[str]
    critical_sum: float = 1.0
    curve: Curve | None = None  # where there is one
    reference: SNCurve | None = None  # the curve that cycles are held against: of a family that of its reference
    order_rule: str = "none"  # of a second life beside the linear one
    order_exponents: Mapping[str, float] = MappingProxyType({})
    acts_together: bool = False  # whether the cycles of a place act on each other

    @abstractmethod
    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Each cycle in the terms of the method, MPa; inf where it fails the place at once."""

    @abstractmethod
    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """Damage of cycles that happen `per_repeat` times, in the terms of the method; inf at inf."""

    @abstractmethod
    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """From amplitude and mean of a local cycle, MPa, to its life by hand; the last step is the life, cycles."""

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """How its own numbers came to be, before any cycle."""
        return ()

    def terms_in_words(self, spot: HotSpot) -> str:
        """What the terms are, such as "stress amplitude at R = -1"."""
        return "stress amplitude"

    def check(self, spot: HotSpot) -> None:  # noqa: B027  # most have nothing to refuse
        """InputError for what does not go together: a strength that is missing."""

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """Of a cycle that fails the place at once: what was found, what was expected, what to do."""
        return (
            f"a cycle of mean {mean:.4g} MPa that fails it at once",
            "stresses that the place survives once",
            "Check units.",
        )

    def findings(self, life: Any) -> Iterator[Finding]:
        """What an expert would say of a life by this method, beside what is said of any."""
        return iter(())

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Its settings, as columns of a table of lives in files."""
        return ()

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """What a file holds of it beside tables."""
        return {}

    def never(self, spot: HotSpot, bound: FloatArray) -> BoolArray | None:
        """Where a stress that stays within ±`bound`, MPa, can be shown to do no damage; None: nothing can be shown."""
        return None

    def loop(self, spot: HotSpot) -> PowerLoop | None:
        """How one quick loop gives the damage of many places; None: it does not."""
        return None

    @property
    def words(self) -> str:
        """How it is called in a line."""
        return self.kind
