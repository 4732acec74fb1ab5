"""A crack at a hot spot: shape, starting size, growth law, where it stops, and what inspection can find."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any, cast

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.growth.driving_cycles import COUNTED_PARTS, lowest_of
from vivid_anvil.growth.memories import RETARDATIONS, NoRetardation, Retardation
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import OneSizeShape, Shape, TwoSizeShape
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import Coherent, OptionalCoherent, number, sound

ORDERS = {
    "per repeat": "all cycles of a repeat at once, as their order within it hardly counts",
    "cycle by cycle": "each cycle in its real order, from the size that the one before it left",
}
LIMITS = {
    "toughness and yield": "K_max at the toughness, or the net section at yield, whichever comes first",
    "assessment curve": "K_r = f(L_r), the general failure assessment curve; needs the ultimate strength",
}


BEYOND = {
    "stop": "the growth stops where the solution ends, with a finding",
    "refuse": "a solution that ends before the part fails is an error, and a law beyond the R of its tests",
}


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Crack:
    """Where a crack is, how large it is, how it grows, where it has to stop.

    Parameters
    ----------
    hot_spot : HotSpot
        Where it is: gives the nominal stress (without notch factor) and the material.
    shape : Shape
        Shape of crack and part.
    initial_size : float or text, mm
        Size at the start, above 0 and within the shape's validity; the depth where the shape has two sizes.
    initial_half_length : float or text, mm
        Half length along the surface at the start, for shapes with two sizes.
    law : GrowthLaw
        How fast it grows.
    later_law, later_law_from : GrowthLaw, and repeats, text such as "10 years", or the name of an event
        Another law from a time on, or from the repeat on in which an event first happens (coating gone, another temperature).
    residual_stress : StressProfile, or rows of depth and stress
        Stress that is there without load, MPa over the depth; only for shapes with `k_of_stress`. Its K is added to that of
        every cycle and so changes R and what of a cycle is open; it counts for fracture, not for yield.
    counted_part : str
        Which part of a cycle opens the crack: one of `COUNTED_PARTS`.
    order : str
        Growth from all cycles of a repeat, or one by one: one of `ORDERS`.
    retardation : Retardation, or the name of one of `RETARDATIONS`
        How larger cycles slow those after them; only cycle by cycle. None by default. With two sizes each end has its own zone.
    limits : str
        What ends the life: one of `LIMITS`.
    youngs_modulus : float or text with a unit, optional
        Modulus of elasticity, MPa, for the assessment curve.
    stop_size : float or text, mm, optional
        A size of your own at which the life ends. Of a crack with two sizes the depth; beyond the wall the size of the crack
        that it has become by then.
    detectable_size : float or text, mm, optional
        Size that an inspection finds for sure; gives the inspection interval.
    inspection_factor : float
        How many inspections fall between detectable and critical size; at least 1.
    beyond_validity : str
        What happens where the stress intensity solution ends before the part fails: one of `BEYOND`.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> growth = result.growths[0]  # of the demo: run_study(read_study('larkfell.toml'))
    >>> growth.crack
    <Crack at weld toe at the grip head: surface, from 1 mm, steel_in_air>
    """

    hot_spot: HotSpot
    shape: Shape
    initial_size: Coherent = Coherent("length", above=0.0)
    initial_half_length: OptionalCoherent = OptionalCoherent("length", above=0.0)
    law: GrowthLaw
    later_law: GrowthLaw | None = None
    later_law_from: float | str | None = None
    residual_stress: StressProfile | Sequence[Any] | None = None
    counted_part: str = "tensile"
    order: str = "per repeat"
    retardation: Retardation = NoRetardation()
    limits: str = "toughness and yield"
    youngs_modulus: Coherent = Coherent("stress", above=0.0, default=207000.0)
    stop_size: OptionalCoherent = OptionalCoherent("length", above=0.0)
    detectable_size: OptionalCoherent = OptionalCoherent("length", above=0.0)
    inspection_factor: float = 3.0
    beyond_validity: str = "stop"

    def __post_init__(self) -> None:
        where = f"crack at {self.hot_spot.name}"
        checks.one_of(inside(where, "counted_part"), self.counted_part, tuple(COUNTED_PARTS))
        checks.one_of(inside(where, "order"), self.order, tuple(ORDERS))
        checks.one_of(inside(where, "limits"), self.limits, tuple(LIMITS))
        checks.one_of(inside(where, "beyond_validity"), self.beyond_validity, tuple(BEYOND))
        factor = checks.real_number(inside(where, "inspection_factor"), self.inspection_factor)
        if not 1.0 <= factor < float("inf"):
            raise InputError(
                inside(where, "inspection_factor"),
                f"{factor:g}",
                "at least 1: one inspection between detectable and critical",
            )
        if (self.later_law is None) != (self.later_law_from is None):
            missing = "later_law" if self.later_law is None else "later_law_from"
            raise InputError(inside(where, f"{missing}"), "nothing", "both later_law and later_law_from, or neither")
        object.__setattr__(self, "retardation", self._remembered(where))
        if self.residual_stress is not None:
            self._check_residual(where)
        self._check_sizes(where)
        self._check_order(where)

    def _remembered(self, where: str) -> Retardation:
        """The model of retardation: an instance, or the name of one, with the yield strength of the material."""
        given: Any = self.retardation
        if isinstance(given, str):
            given = RETARDATIONS.get(given, inside(where, "retardation"))()
        if not isinstance(given, Retardation):
            raise InputError(inside(where, "retardation"), repr(given), "a model of retardation, or the name of one")
        found = given.of(self.hot_spot.material.yield_strength)
        found.handed  # noqa: B018
        return found

    @property
    def lowest(self) -> float:
        """The stress, MPa, below which nothing of a cycle counts: 0 where only tension does."""
        return lowest_of(self.counted_part)

    @property
    def sizes(self) -> tuple[float, ...]:
        """The sizes, mm, that it starts with: one, or depth and half length."""
        return tuple(one for one in (self.initial_size, self.initial_half_length) if one is not None)

    @property
    def deepest(self) -> float:
        """The size, mm, at which the solution ends; with residual stress where the weight function does."""
        shape = self.shape
        if self.residual_stress is None or not isinstance(shape, OneSizeShape):
            return shape.deepest
        return min(shape.deepest, shape.weight_reach)

    @property
    def always(self) -> Callable[..., tuple[float, ...]] | None:
        """The function of the sizes that gives the K, MPa√mm, of residual stress at each end; None where there is none."""
        if self.residual_stress is None:
            return None
        return partial(self.shape.ends_of_stress, self.residual_stress)

    def always_at(self, *sizes: float) -> tuple[float, ...]:
        """K of the residual stress at each end, MPa√mm; 0 without."""
        return (0.0,) * len(self.shape.sizes) if self.always is None else self.always(*sizes)

    def later_from(self, duty_cycle: DutyCycle) -> float | None:
        """Repeats after which the later law holds; None without one."""
        since, channel = self.later_law_from, self.hot_spot.fed.counted
        if since is None:
            return None
        often = {source.name: source.occurrences for source in duty_cycle.sources(channel)}
        if since not in often:
            return duty_cycle.repeats_in(since, f"crack at {self.hot_spot.name}, later_law_from")
        before = math.ceil(1.0 / often[str(since)] - 1e-9) - 1
        if before == 0:
            raise InputError(
                inside(f"crack at {self.hot_spot.name}", "later_law_from"),
                f"the event {since!r}, which happens in the first {duty_cycle.repeat}",
                "a time, or an event that first happens later",
                "Make the later law the growth law.",
            )
        return float(before)

    def _check_residual(self, where: str) -> None:
        profile = self.residual_stress
        if not isinstance(profile, StressProfile):
            profile = StressProfile(cast(Any, profile), where=inside(where, "residual_stress"))
            object.__setattr__(self, "residual_stress", profile)
        if not self.shape.weighs:
            raise InputError(
                inside(where, "residual_stress"),
                f"a {self.shape.kind} crack",
                "a shape with a weight function: edge, surface, or one of a stress across the section",
                "Or add its K to a table of your own.",
            )
        needed = self.deepest
        if profile.reach < needed * (1.0 - 1e-9):
            raise InputError(
                inside(where, "residual_stress"),
                f"points to {number(profile.reach)} mm",
                f"points to {number(needed)} mm, as deep as the crack may grow",
                "Add points; nothing is extrapolated.",
            )
        if not self.retardation.takes_residual_stress:
            raise InputError(
                inside(where, "residual_stress"),
                f"residual stress with {self.retardation.kind}",
                "either of them",
                "Take no retardation, or a law with closure.",
            )

    def _check_sizes(self, where: str) -> None:
        shape, two = self.shape, len(self.shape.sizes) == 2
        largest = self.deepest
        for field in ("initial_size", "detectable_size", "stop_size"):
            size = getattr(self, field)
            if field == "stop_size" and two:  # beyond the wall it is a size of what the crack becomes
                continue
            if size is not None and size >= largest:
                raise InputError(
                    inside(where, f"{field}"),
                    f"{number(size)} mm",
                    f"a size below {number(largest)} mm, the limit of the {self.shape.kind} crack here",
                    f"It means the {self.shape.size_means}. Is the unit right?",
                )
        smallest = self.shape.smallest_size
        if self.initial_size < smallest:
            raise InputError(
                inside(where, "initial_size"),
                f"{number(self.initial_size)} mm",
                f"at least {number(smallest)} mm, the first of the table",
            )
        if self.stop_size is not None and self.stop_size <= self.initial_size:
            raise InputError(
                inside(where, "stop_size"),
                f"{number(self.stop_size)} mm",
                f"a size beyond the initial {number(self.initial_size)} mm",
            )
        if two != (self.initial_half_length is not None):
            found = "nothing" if two else f"{number(self.initial_half_length or 0.0)} mm"
            expected = "half of the crack length, for a shape with two sizes"
            raise InputError(
                inside(where, "initial_half_length"),
                found,
                expected if two else f"no such key for a {self.shape.kind} crack",
            )
        if isinstance(shape, TwoSizeShape):
            a, c = self.sizes
            if c >= shape.longest:
                raise InputError(
                    inside(where, "initial_half_length"), f"{number(c)} mm", f"below {number(shape.longest)} mm"
                )
            shape.factors(a, c)
            if self.residual_stress is not None:
                shape.k_of_stress(self.residual_stress, a, c)

    def _check_order(self, where: str) -> None:
        if self.order == "per repeat" and self.retardation.acts:
            raise InputError(
                inside(where, "retardation"),
                f"{self.retardation.kind!r} with the order 'per repeat'",
                "the order 'cycle by cycle'",
                "Memory of larger cycles needs the real order.",
            )

    def __repr__(self) -> str:
        return f"<Crack at {self.hot_spot.name}: {self.shape.kind}, from {self.initial_size:g} mm, {self.law.name}>"
