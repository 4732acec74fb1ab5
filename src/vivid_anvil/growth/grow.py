"""Grow a crack through the repeats of a duty cycle, to the size at which it has to stop."""

from __future__ import annotations

import dataclasses
from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.cycle_by_cycle import cycle_by_cycle
from vivid_anvil.growth.driving_cycles import GrowthDrive, growth_drive
from vivid_anvil.growth.findings import growth_findings, share_outside_r
from vivid_anvil.growth.gone import WayGone
from vivid_anvil.growth.limits import ENDS_OF_SOLUTION
from vivid_anvil.growth.memories import NoRetardation
from vivid_anvil.growth.per_repeat import per_repeat, quick_life, repeats_from, way_of
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.growth.way import Way
from vivid_anvil.materials.fits.growth_tests import GrowthTests
from vivid_anvil.units import number, opened


@opened()
def grow_crack(crack: Crack, duty_cycle: DutyCycle, *, target: float | str | None = None) -> GrowthResult:
    """Growth of `crack` while `duty_cycle` is repeated, to its limiting size or to `target` ("30 years", or repeats).

    Parameters
    ----------
    crack : Crack
        The crack.
    duty_cycle : DutyCycle
        The events of one repeat.
    target : float or str, optional
        How long it shall last: repeats, or text such as "30 years".

    Returns
    -------
    GrowthResult
        The growth with its findings, working, tables.

    Raises
    ------
    InputError
        Where the material has no toughness or yield strength, for a channel that an event lacks, and where the solution
        ends before the part fails if the crack is to refuse that.

    Examples
    --------
    >>> from vivid_anvil.shapes import CentreCrack
    >>> from vivid_anvil.events import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import Material, ParisLaw
    >>> from vivid_anvil.stress import HotSpot, OneLoad
    >>> pull = ConstantAmplitude.from_range("force", "60 kN", r_ratio=0.1, cycles=1e4)
    >>> steel = Material(name="steel", yield_strength="350 MPa", toughness="70 MPa√m")
    >>> spot = HotSpot(name="plate", relation=OneLoad("force", "1 MPa/kN"), material=steel)
    >>> law = ParisLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3)
    >>> flaw = Crack(hot_spot=spot, shape=CentreCrack("100 mm"), initial_size="3 mm", law=law)
    >>> grow_crack(flaw, DutyCycle("year", [Event("pull", pull)], repeats_per_year=1))
    <GrowthResult plate: 3 to 40 mm in 116.9 years, limit of the solution>
    """
    drive = growth_drive(crack.hot_spot.nominal_cycles(duty_cycle), crack.counted_part)
    target_repeats = None if target is None else duty_cycle.repeats_in(target)
    later = crack.later_from(duty_cycle)
    way = way_of(crack, drive)
    gone = _gone(way, duty_cycle, later, target_repeats)
    then = _through(way, duty_cycle, gone, target_repeats)
    late = _after_the_target(way, duty_cycle, gone)
    result = GrowthResult(
        crack=crack,
        duty_cycle=duty_cycle,
        drive=drive,
        critical=gone.critical,
        sizes=read_only(gone.sizes[:, 0]),
        repeats=read_only(gone.repeats),
        stopped_by=gone.stopped_by if then is None else then.stopped_by,
        life_repeats=gone.life_repeats + sum(one.life_repeats for one in (then, late) if one is not None),
        ended_late_by=None if late is None else late.governed_by,
        halving_change=gone.change,
        target_repeats=target_repeats,
        interval_repeats=_inspection_interval(way, gone, then or late),
        half_lengths=read_only(gone.sizes[:, 1]) if gone.sizes.shape[1] == 2 else None,
        then=then,
        cycles=gone.cycles,
        stopped_in=gone.stopped_in if then is None else then.stopped_in,
        without_memory_repeats=_without_memory(crack, duty_cycle, drive),
    )
    if crack.beyond_validity == "refuse" and result.governed_by in ENDS_OF_SOLUTION:
        raise InputError(
            inside(f"crack at {crack.hot_spot.name}", "beyond_validity"),
            f"a solution that ends at {number(result.critical.limiting)} mm ({result.governed_by})",
            "one that goes on until the part fails",
            "Take a shape that reaches further, or beyond_validity = 'stop'.",
        )
    if crack.beyond_validity == "refuse" and share_outside_r(result) > 0.0:
        low, high = crack.law.known_r
        raise InputError(
            inside(f"crack at {crack.hot_spot.name}", "beyond_validity"),
            f"cycles at an R where the law {crack.law.name} was never tested",
            f"R from {number(low, 3)} to {number(high, 3)}",
            "Take another law, state its valid_r, or beyond_validity = 'stop'.",
        )
    return dataclasses.replace(result, findings=growth_findings(result))


@opened()
def with_tests(result: GrowthResult, tests: GrowthTests | None) -> GrowthResult:
    """The result with the tests of its law, and what they say about it."""
    if tests is None:
        return result
    known = dataclasses.replace(result, tests=tests)
    return dataclasses.replace(known, findings=growth_findings(known))


def life_repeats_of(crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive) -> float:
    """Repeats to the limiting size alone, also through the wall; `drive` is that of the hot spot under the duty cycle."""
    way = way_of(crack, drive)
    if crack.order == "per repeat" and crack.later_law is None:
        life, ended = quick_life(way)
        through = _crack_through(way, ended.sizes) if ended.by == "wall" else None
        return life + (0.0 if through is None else life_repeats_of(through, duty_cycle, drive))
    gone = _gone(way, duty_cycle, crack.later_from(duty_cycle), None)
    then = _through(way, duty_cycle, gone, None)
    return gone.life_repeats + (0.0 if then is None else then.life_repeats)


def _gone(way: Way, duty_cycle: DutyCycle, later: float | None, target: float | None) -> WayGone:
    if way.crack.order == "cycle by cycle":
        return cycle_by_cycle(way, duty_cycle, later, target)
    return per_repeat(way, later, target)


def _without_memory(crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive) -> float | None:
    """The life without retardation, beside that with it."""
    if not crack.retardation.acts:
        return None
    plain = dataclasses.replace(crack, retardation=NoRetardation())
    return life_repeats_of(plain, duty_cycle, drive)


def _through(way: Way, duty_cycle: DutyCycle, gone: WayGone, target: float | None) -> GrowthResult | None:
    """The crack through the wall that one becomes, grown on; None where it does not get there."""
    if gone.critical.governed_by != "wall" or gone.stopped_by != "wall":
        return None
    passed = float(gone.repeats[-1])
    return _grown_on(way, duty_cycle, gone.last, passed, None if target is None else target - passed)


def _after_the_target(way: Way, duty_cycle: DutyCycle, gone: WayGone) -> GrowthResult | None:
    """What a crack becomes that breaks through after the target only: the life goes on, the table does not."""
    whole = gone.uncut
    if whole is None or whole.stopped_by != "wall":
        return None
    return _grown_on(way, duty_cycle, whole.last, whole.life_repeats, None)


def _grown_on(
    way: Way, duty_cycle: DutyCycle, sizes: tuple[float, ...], passed: float, left: float | None
) -> GrowthResult | None:
    """Growth after the wall, of the sizes there, mm, `passed` repeats after the start, to `left` repeats at most."""
    onwards = _crack_through(way, sizes)
    if onwards is None:
        return None
    if onwards.later_law is not None and onwards.later_law_from is not None:
        wait = (onwards.later_from(duty_cycle) or 0.0) - passed
        no_change: dict[str, Any] = {"law": onwards.later_law, "later_law": None, "later_law_from": None}
        onwards = dataclasses.replace(onwards, **({"later_law_from": wait} if wait > 0.0 else no_change))
    return grow_crack(onwards, duty_cycle, target=left)


def _crack_through(way: Way, sizes: tuple[float, ...]) -> Crack | None:
    """The crack that one of these sizes, mm, becomes at the wall; None where no solution goes on."""
    crack = way.crack
    onwards = crack.shape.becomes(*sizes)
    if onwards is None:
        return None
    shape, (first, *others) = onwards
    rooms = shape.rooms(weighed=False)
    if any(rooms[name](first, *others) <= 0.0 for name in ENDS_OF_SOLUTION[:2] if name in rooms):
        return None
    if (crack.always is not None and not shape.weighs) or (way.drive.bending is not None and not shape.bends):
        return None
    stop = crack.stop_size
    if stop is not None and stop <= first:
        return None  # it is as large as it may get
    if stop is not None and stop >= shape.deepest:
        stop = None  # the solution ends before
    half = others[0] if others else None
    return dataclasses.replace(
        crack, shape=shape, initial_size=first, initial_half_length=half, stop_size=stop, detectable_size=None
    )


def _inspection_interval(way: Way, gone: WayGone, then: GrowthResult | None) -> float | None:
    """Repeats from detectable to limiting size / factor; 0 where it fails before it can be found, inf without growth."""
    crack = way.crack
    size = crack.detectable_size
    if size is None:
        return None
    if size >= gone.critical.limiting:
        return 0.0
    after = 0.0 if then is None else then.life_repeats
    if crack.order == "cycle by cycle" and crack.later_law is None:  # with the memory of larger cycles
        left = gone.life_repeats - gone.repeats_at(size)
    else:
        left = repeats_from(way, size, gone)
    return (left + after) / crack.inspection_factor
