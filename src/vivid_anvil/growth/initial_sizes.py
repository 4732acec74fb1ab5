"""Initial size against life: the life from each of several sizes, and the largest size that still lasts the target."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import share_used
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.grow import life_repeats_of
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.shapes.shape import TwoSizeShape
from vivid_anvil.units import LENGTH, UnitSystem, coherent, in_unit, number, one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

SMALLEST = 0.01  # mm; below, cracks do not follow the laws of long ones
SHORT = 0.1  # mm; below, they grow faster than the laws say
_NEAR = 1e-9


@dataclass(frozen=True, eq=False, repr=False)
class SizeLives(Result):
    """Life in repeats from each initial size, mm, rising; and the largest size that lasts the target, if there is one.

    `largest_lasting` is 0 where not even `SMALLEST` lasts, None without a target. Of a crack with two sizes the aspect is kept.
    """

    crack: Crack
    duty_cycle: DutyCycle
    order: str
    sizes: FloatArray
    repeats: FloatArray
    target_repeats: float | None
    largest_lasting: float | None
    findings: tuple[Finding, ...] = ()

    @property
    def years(self) -> FloatArray | None:
        """The lives in years; None without repeats per year."""
        years: FloatArray | None = self.duty_cycle.calendar.years(self.repeats)
        return years

    @property
    def title(self) -> str:
        """What is varied."""
        return "Life from other initial sizes"

    @classmethod
    def overview(cls, results: Sequence[SizeLives]) -> Table:
        """A row a crack: the largest size that lasts the target."""
        columns = (
            Column("hot spot", [result.crack.hot_spot.name for result in results]),
            Column("largest initial size that lasts", [result.largest_lasting for result in results], of="length"),
            Column("target", [result.target_repeats for result in results], unit="repeats"),
        )
        return Table("", columns, "initial sizes")

    def words(self, units: UnitSystem) -> Words:
        """The size that just lasts the target."""
        if self.largest_lasting is None or self.target_repeats is None:
            return ()
        largest = in_unit(self.largest_lasting, "length", units)
        target = self.duty_cycle.calendar.text(self.target_repeats)
        told = f"Initial size that just lasts {target}: {largest}."
        if self.largest_lasting < SHORT:
            told += " That is below 0.1 mm, where cracks grow faster than the law says: it does not last."
        return (("", told),)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row an initial size, with its life and how much of it the target uses."""
        used = [share_used(self.target_repeats, life) for life in self.repeats.tolist()]
        columns = (
            Column("initial size", self.sizes.tolist(), of="length"),
            *life_columns(
                self.repeats.tolist(), [self.duty_cycle.calendar] * self.sizes.size, name="life to the limiting size"
            ),
            Column("used at target", used, head="Used", style="percent", endless="all at once"),
        )
        return (Table("", columns, "lives by initial size"),)

    def __repr__(self) -> str:
        return f"<SizeLives {self.crack.hot_spot.name}: {self.sizes.size} sizes, lasts from {self.largest_lasting} mm>"


def of_size(crack: Crack, size: float) -> Crack:
    """The same crack from another initial size, mm, its aspect kept; without inspection and chosen size below it."""
    changes: dict[str, Any] = {"initial_size": size, "detectable_size": None}
    if crack.initial_half_length is not None:
        changes["initial_half_length"] = crack.initial_half_length * size / crack.initial_size
    return dataclasses.replace(crack, **changes)


@opened()
def lives_over_size(
    result: GrowthResult,
    sizes: Sequence[float | str] | None = None,
    *,
    watch: Callable[[str, int, int], None] | None = None,
) -> SizeLives:
    """Life from each of `sizes` (mm, or texts with unit), by default twelve from a fifth of the initial to the limiting size.

    Without retardation all cycles of a repeat count at once, as their order within it hardly changes the life; with it each life
    is followed cycle by cycle.

    Parameters
    ----------
    result : GrowthResult
        The result that is asked.
    sizes : sequence of float or str, optional
        Initial sizes, mm or text, rising; by default twelve.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    SizeLives
        Life from each size, and the largest size that lasts the target.

    Raises
    ------
    InputError
        For sizes that do not rise or are no longer valid.

    Examples
    --------
    >>> from vivid_anvil.growth.grow import grow_crack
    >>> from vivid_anvil.shapes import CentreCrack
    >>> from vivid_anvil.events import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import Material, ParisLaw
    >>> from vivid_anvil.stress import HotSpot, OneLoad
    >>> steel = Material(name="steel", yield_strength="350 MPa", toughness="70 MPa√m")
    >>> spot = HotSpot(name="plate", relation=OneLoad("force", "1 MPa/kN"), material=steel)
    >>> law = ParisLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3)
    >>> flaw = Crack(hot_spot=spot, shape=CentreCrack("100 mm"), initial_size="3 mm", law=law)
    >>> pull = ConstantAmplitude.from_range("force", "60 kN", r_ratio=0.1, cycles=1e4)
    >>> grown = grow_crack(flaw, DutyCycle("year", [Event("pull", pull)], repeats_per_year=1), target="100 years")
    >>> found = lives_over_size(grown, ["2 mm", "3 mm", "4 mm"])
    >>> found.repeats.round(1).tolist(), round(found.largest_lasting or 0.0, 3)
    ([158.2, 116.9, 92.5], 3.644)
    """
    crack = result.crack
    if not crack.retardation.acts:
        crack = dataclasses.replace(crack, order="per repeat")
    given = _default_sizes(result) if sizes is None else [coherent(size, "length", "initial sizes") for size in sizes]
    values = np.array(given, dtype=np.float64)
    if not values.size or not (np.diff(values) > 0.0).all():
        raise InputError("lives over size, sizes", f"{values.tolist()} mm", "sizes that rise, at least one")
    done = 0

    def life(size: float) -> float:
        nonlocal done
        if watch is not None:
            watch(f"life from {number(size)} mm", min(done, values.size + 9), values.size + 10)
        done += 1
        return life_repeats_of(of_size(crack, size), result.duty_cycle, result.drive)

    lives = np.array([life(float(size)) for size in values])
    target = result.target_repeats
    lasting = (
        None
        if target is None
        else largest_lasting_size(life, target, _largest_start(result), max(SMALLEST, crack.shape.smallest_size))
    )
    return SizeLives(result.crack, result.duty_cycle, crack.order, read_only(values), read_only(lives), target, lasting)


@opened(target=one(above=0.0, may_be_infinite=True), largest=LENGTH, smallest=LENGTH)
def largest_lasting_size(
    life: Callable[[float], float], target: float, largest: float, smallest: float = SMALLEST
) -> float:
    """The size, mm, from `smallest` to `largest`, whose `life` is `target` repeats: Brent 1973, in log size; 0 where none lasts.

    Parameters
    ----------
    life : Callable[[float], float]
        Life in repeats, as a function of the size, mm.
    target : float
        Repeats that it shall last.
    largest : float
        Largest size to look at, mm.
    smallest : float, default 0.01
        Smallest size to look at, mm.

    Returns
    -------
    float
        The size, mm; 0 where none lasts.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(largest_lasting_size(lambda size: 1000.0 / size, 400.0, 20.0), 6)
    2.5
    """

    def excess(log_size: float) -> float:
        repeats = checks.real_number("largest lasting size, life", life(math.exp(log_size)))
        return 50.0 if math.isinf(repeats) else math.log(max(repeats, 1e-12) / target)

    low, high = math.log(smallest), math.log(largest)
    if excess(low) < 0.0:
        return 0.0
    if excess(high) >= 0.0:
        return largest
    return math.exp(float(brentq(excess, low, high, xtol=1e-6)))


def _largest_start(result: GrowthResult) -> float:
    """The largest size, mm, that the growth can start from."""
    crack = result.crack
    shape = crack.shape
    if not isinstance(shape, TwoSizeShape):
        return result.critical.limiting * (1.0 - _NEAR)
    a, c = crack.sizes
    chosen = math.inf if crack.stop_size is None else crack.stop_size
    return min(shape.deepest, shape.longest * a / c, chosen) * (1.0 - 1e-6)


def _default_sizes(result: GrowthResult) -> list[float]:
    end = min(0.95 * result.critical.limiting, 0.99 * _largest_start(result))
    start = min(max(0.2 * result.crack.initial_size, SMALLEST, result.crack.shape.smallest_size), 0.5 * end)
    return [float(size) for size in np.geomspace(start, end, 12)]
