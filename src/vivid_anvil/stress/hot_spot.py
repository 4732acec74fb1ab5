"""A hot spot: a place, the way loads become stress there, and the method by which stress becomes damage.

stress = notch_factor * (nominal stress of the relation). A plain relation is linear in one channel, whose cycles are counted
once and scaled; any other is counted as the stress that it gives.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, ClassVar, NamedTuple

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, field_of, inside, within
from vivid_anvil.materials import Curve, Material, SNCurve
from vivid_anvil.stress.relations import Relation
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step

METHODS: Choices[type[Method]] = Choices("method")


class PowerLoop(NamedTuple):
    """What one quick loop needs: a curve of power laws under a line to `strength`; `means` as in `MEANS`."""

    curve: SNCurve
    strength: float
    means: int


class OfMany(NamedTuple):
    """Damage of each event a repeat at many places, shape (places, events); which places were counted, not shown harmless."""

    by_event: FloatArray
    counted: BoolArray
    reached: FloatArray | None = None  # least and largest of what is counted, (places, 2), where it is not the stress


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
    hangs: bool = False  # whether a cycle needs to know on which branch of another it hangs
    tensors: bool = False  # whether it takes all components, so that what a relation counts is not what it counts
    takes: ClassVar[str] = "stresses"  # what a relation has to give
    counts: ClassVar[str] = "stress"  # dimension of what its cycles are of
    elastic: bool = True  # whether it takes stresses as elasticity gives them, so that they must not yield

    @abstractmethod
    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Each cycle in the terms of the method, MPa; inf where it fails the place at once."""

    @abstractmethod
    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """Damage of cycles that happen `per_repeat` times, in the terms of the method; inf at inf."""

    @abstractmethod
    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """From amplitude and mean of a local cycle, MPa, to its life by hand; the last step is the life, cycles."""

    def goes_with(self, duty_cycle: DutyCycle) -> None:  # noqa: B027  # most take any
        """InputError for a duty cycle that is counted in another way than the method needs."""

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """The local stress cycles of a repeat, MPa, as `terms` takes them."""
        return spot.fed.cycles(duty_cycle, spot.notch_factor)

    def again(self, spot: HotSpot, duty_cycle: DutyCycle, factor: float) -> Cycles:
        """The same with all loads times a factor. Where a method has one of its own, its cycles are not just scaled."""
        return self.cycles(spot, duty_cycle).at(factor)

    def steps_of(self, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
        """The same for a row of all cycles of a repeat."""
        return self.steps(spot, 0.5 * float(cycles.range[row]), float(cycles.mean[row]), units)

    varies: ClassVar[str] = "rule"  # what `variants` are

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """The method with each of its choices, to be held side by side, by their names; InputError where there are none."""
        raise InputError(
            f"hot spot {spot.name}",
            f"the method {self.kind!r}",
            "a method with several rules",
            "There is nothing to compare.",
        )

    @property
    def variant(self) -> str:
        """Its own choice among them."""
        return ""

    def valid(self, variant: str) -> str:
        """What a variant holds for, in words."""
        return ""

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step] | None:
        """From the loads at both ends of a cycle to what the method takes; None: to the counted stress, as of any relation."""
        return None

    def words_of(self, life: Any, units: UnitSystem) -> tuple[tuple[str, str], ...]:
        """Label and sentence of what else a reader of a life by this method is told."""
        return ()

    def jump_working(self, life: Any, ply: int | None, jump: int | None, units: UnitSystem) -> Any:
        """A part of the place in one jump of its life by hand; InputError for a method that takes none."""
        raise InputError(
            f"hot spot {life.hot_spot.name}",
            f"the method {self.kind!r}, which takes no jumps",
            "a laminate that is followed",
        )

    def at_a_place(self, life: Any, units: UnitSystem) -> list[str]:
        """What else is told of the worst place of a model, a sentence each."""
        return []

    def tables(self, life: Any, units: UnitSystem) -> tuple[Table, ...]:
        """Tables of a life by this method beside those of any."""
        return ()

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """How its own numbers came to be, before any cycle."""
        return ()

    def terms_in_words(self, spot: HotSpot) -> str:
        """What the terms are, such as "stress amplitude at R = -1"."""
        return "stress amplitude"

    def check(self, spot: HotSpot) -> None:  # noqa: B027  # most have nothing to refuse
        """InputError for what does not go together: a strength that is missing."""

    def before(self, spot: HotSpot, duty_cycle: DutyCycle) -> Iterator[Finding]:
        """What an expert would say of a place and its loads before anything is counted."""
        return iter(())

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

    def of_many(
        self,
        spot: HotSpot,
        units: FloatArray,
        constants: FloatArray,
        events: Sequence[Any],
        duty_cycle: DutyCycle | None,
    ) -> OfMany | None:
        """Many places at once, of unit stresses (places, cases, 6) and constants (places, 6), MPa; None: it takes one by one."""
        return None

    def opens_along(self, spot: HotSpot, duty_cycle: DutyCycle) -> FloatArray | None:
        """The normal of the plane on which a crack starts; None where the method knows none."""
        return None

    def loop(self, spot: HotSpot) -> PowerLoop | None:
        """How one quick loop gives the damage of many places; None: it does not."""
        return None

    @property
    def words(self) -> str:
        """How it is called in a line."""
        return self.kind


@dataclass(frozen=True, kw_only=True, repr=False, eq=False)
class HotSpot:
    """A place where life is assessed.

    Parameters
    ----------
    name : str
        The place.
    relation : Relation, optional
        How loads become nominal stress, such as `OneLoad("force", "38 MPa/kN")`. Needed but for the nodes of a model, which
        gives each its own.
    material : Material
        Its strengths.
    method : Method, optional
        How stress becomes damage, such as `StressLife(sn_curve=...)`. Needed for a life, not for crack growth.
    notch_factor : float
        Kf, on the nominal stress with its offset; at least 1.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = Material(name="S355", ultimate_strength="510 MPa")
    >>> HotSpot(name="toe", relation=OneLoad("force", "38 MPa/kN"), material=steel)
    <HotSpot toe: 38 MPa/kN on force, Kf = 1, no curve>
    """

    name: str
    relation: Relation | None = None
    material: Material
    method: Method | None = None
    notch_factor: float = 1.0

    def __post_init__(self) -> None:
        checks.text(field_of("HotSpot", "name"), self.name)
        where = f"hot spot {self.name}"
        for key, kind, example in (
            ("relation", Relation, "OneLoad('force', '38 MPa/kN')"),
            ("method", Method, "StressLife(sn_curve=...)"),
        ):
            value = getattr(self, key)
            if value is not None and not isinstance(value, kind):
                raise InputError(inside(where, f"{key}"), repr(value), f"a {key}, such as {example}")
        factor = checks.positive_number(
            inside(where, "notch_factor"), self.notch_factor, "a notch factor Kf of at least 1"
        )
        if not 1.0 <= factor < float("inf"):
            raise InputError(inside(where, "notch_factor"), f"{factor:g}", "a notch factor Kf of at least 1")
        if self.method is not None:
            if self.relation is not None and self.relation.gives != self.method.takes:
                raise InputError(
                    inside(where, "method"),
                    f"{self.method.kind!r}, which takes {self.method.takes}, beside {self.relation.gives}",
                    f"a method that takes {self.relation.gives}",
                    "Strains of rubber go with 'cracking energy', section loads with 'ply fatigue', stresses with others.",
                )
            self.method.check(self)

    @property
    def fed(self) -> Relation:
        """Its relation; InputError where only a model could give one."""
        if self.relation is None:
            raise InputError(
                f"hot spot {self.name}",
                "no relation",
                "how loads become stress there",
                "Give it relation = OneLoad(...).",
            )
        return self.relation

    @property
    def assessed_by(self) -> Method:
        """Its method; InputError where it has none."""
        if self.method is None:
            raise InputError(f"hot spot {self.name}", "no S-N curve", "a curve, needed for a life", "Give it a method.")
        return self.method

    @property
    def curve(self) -> Curve | None:
        """The S-N curve of its method, where that has one."""
        return None if self.method is None else self.method.curve

    def local_cycles(self, duty_cycle: DutyCycle) -> Cycles:
        """Local stress cycles of a repeat, with the notch factor: what a method is asked about."""
        with within(f"hot spot {self.name}"):
            return (
                self.fed.cycles(duty_cycle, self.notch_factor)
                if self.method is None
                else self.method.cycles(self, duty_cycle)
            )

    def nominal_cycles(self, duty_cycle: DutyCycle) -> Cycles:
        """Nominal stress cycles of a repeat, without it: what a crack that has left the notch is driven by."""
        with within(f"hot spot {self.name}"):
            return self.fed.cycles(duty_cycle)

    def extremes(self, duty_cycle: DutyCycle) -> tuple[float, float]:
        """Lowest and highest local stress, MPa."""
        with within(f"hot spot {self.name}"):
            low, high = self.fed.extremes(duty_cycle)
        return self.notch_factor * low, self.notch_factor * high

    def __repr__(self) -> str:
        loads = "no relation" if self.relation is None else self.relation.words
        curve = "no curve" if self.curve is None else self.curve.name
        if self.method is not None and self.curve is None:
            curve = self.method.words
        return f"<HotSpot {self.name}: {loads}, Kf = {self.notch_factor:g}, {curve}>"
