"""Reserve factor on stress at nodes: the factor on the counted stress at which the target life is just met, for many at once."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from vivid_anvil.counting import joined
from vivid_anvil.damage.reserve import LARGEST, SMALLEST
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.damage.spectrum import spectrum as spectrum_of
from vivid_anvil.fields.chunk_values import Task, acts_together, cycles_side_by_side, damage_by_loop, values_of
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import relation_at
from vivid_anvil.fields.whole_model import Watch
from vivid_anvil.ground.checks import FloatArray, IntArray, places_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress import HotSpot, PowerLoop
from vivid_anvil.stress.cycles_of_places import ROOM
from vivid_anvil.units import opened

MOST_TOGETHER = 1000  # nodes whose factors are sought at once
_NEVER, _AT_ONCE = -700.0, 700.0  # logarithms that stand for no damage, and for failure at once
_CLOSE = 1e-12
USUAL_SLOPE, MOST_BRACKETS = 5.0, 60


@opened()
def reserves_on_stress(
    result: ModelResult, places: Sequence[int] | IntArray | None = None, *, watch: Watch | None = None
) -> FloatArray:
    """Factors on the counted stress, shape of `places` (by default all nodes), at which each node just meets the target.

    inf where nothing does damage however large, nan at nodes left out; solved as `damage.reserve_on_stress` does, all nodes of a
    group side by side.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    places : sequence of int or ndarray of int, optional
        Rows of the nodes; all by default.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    ndarray
        One factor a place, -.

    Raises
    ------
    InputError
        For a result without target.

    Examples
    --------
    >>> worst = [model.worst]  # of the demo: run_model(read_study("hanger_head.toml"))
    >>> reserves_on_stress(model, worst).round(3)
    array([0.84])
    """
    if result.target_repeats is None:
        raise InputError(
            "reserves on stress", "no target life", "a target, such as '30 years'", "Give assess_model one."
        )
    every = np.full(result.field.size, np.nan)
    if places is None and result.left_out is not None:
        every[result.assessed] = reserves_on_stress(result, result.assessed, watch=watch)
        return every
    wanted = places_of("reserves on stress, places", places, result.field.size)
    region = np.full(wanted.size, -1) if result.region_of is None else result.region_of[wanted]
    stress = _Stress(result)
    found = np.empty(wanted.size)
    done = 0
    for number in np.unique(region):
        alike = np.flatnonzero(region == number)
        # cycles that act on each other are those of one node
        method = result.spot_at(int(wanted[alike[0]])).assessed_by
        many = 1 if method.acts_together or method.hangs else stress.together
        for i in range(0, alike.size, many):
            group = alike[i : i + many]
            found[group] = _of_group(stress, wanted[group], result.target_repeats)
            done += group.size
            if watch is not None:
                watch("reserves", done, wanted.size)
    return found


class _Stress:
    """What all nodes share: events and unit stresses, made once."""

    def __init__(self, result: ModelResult) -> None:
        self.result, self.events = result, result.loads.events(result.duty_cycle)
        self.units, self.constants = result.loads.units(result.field), result.loads.constants(result.field)

    @property
    def together(self) -> int:
        """How many nodes at once: as many as have cycles that stay in the cache."""
        samples = sum(event.loads.shape[0] for event in self.events)
        return int(max(MOST_TOGETHER // 25, min(MOST_TOGETHER, 4 * ROOM // max(samples // 3, 1))))

    def task(self, spot: HotSpot, places: IntArray, events: tuple[Any, ...]) -> Task:
        """The nodes at those places, all with one hot spot, under these events, as work for the loops."""
        own = self.result.directions
        along = None if own is None else own[places]
        measure, loads = self.result.measure, self.result.loads
        return Task(
            self.units[places], self.constants[places], loads, events, spot, measure, skip=False, directions=along
        )

    def spectrum(self, spot: HotSpot, place: int) -> Spectrum:
        """All cycles of one repeat at a node."""
        relation = relation_at(self.result, place, self.units[place], self.constants[place])
        return spectrum_of(replace(spot, relation=relation), replace(self.result.duty_cycle))


DamageOf = Callable[
    [FloatArray, IntArray], FloatArray
]  # logarithms of factors, of which nodes -> damage per repeat at each


def _of_group(stress: _Stress, places: IntArray, target: float) -> FloatArray:
    spot = stress.result.spot_at(int(places[0]))
    allowed = spot.assessed_by.critical_sum / target
    parts = list(_parts(stress, spot, places))

    def excess(log_factors: FloatArray, which: IntArray) -> FloatArray:
        """Logarithm of damage over what is allowed, for some of the nodes."""
        total = sum((part(log_factors, which) for part in parts), np.zeros(which.size))
        return _logarithm(np.minimum(total, 1e300) / allowed)

    return _solved(excess, places.size)


def _parts(stress: _Stress, spot: HotSpot, places: IntArray) -> Iterator[DamageOf]:
    """Damage of events with a course in time, counted once, and of those over frequency."""
    if acts_together(spot, stress.result.duty_cycle):
        spectra = [stress.spectrum(spot, place) for place in places.tolist()]
        if spectra[0].again is not None:  # one node at a time
            yield lambda log_factors, which: np.array(
                [spectra[0].damage(math.exp(one)).sum() for one in log_factors[: which.size]]
            )
            return
        found = [one.cycles for one in spectra]
        node = np.repeat(np.arange(places.size), [len(one) for one in found])
        yield _counted(Spectrum(spot, joined(found)), node, places.size)
        return
    in_time = tuple(event for event in stress.events if not event.vibrates)
    shaken = tuple(event for event in stress.events if event.vibrates)
    if in_time or not shaken:
        cycles, node = cycles_side_by_side(stress.task(spot, places, in_time))
        yield _counted(Spectrum(spot, cycles), node, places.size)
    if shaken:
        yield _laid_anew(stress.task(spot, places, shaken))


def _counted(spectrum: Spectrum, node: IntArray, size: int) -> DamageOf:
    """Of cycles that are scaled as they are; each belongs to a node."""
    order = np.argsort(node, kind="stable")
    ends = np.searchsorted(node[order], np.arange(size + 1))
    how = spectrum.hot_spot.assessed_by.loop(spectrum.hot_spot)
    if how is not None:
        return _by_loop(how, spectrum, order, ends)

    def damage(log_factors: FloatArray, which: IntArray) -> FloatArray:
        part, owner = spectrum, node
        if which.size < size:
            rows = order[_runs(ends[which], ends[which + 1])]
            part, owner = (
                Spectrum(spectrum.hot_spot, spectrum.cycles.chosen(rows)),
                np.repeat(np.arange(which.size), ends[which + 1] - ends[which]),
            )
        each = part.damage_of(part.equivalent_stress(np.exp(log_factors)[owner]))
        return np.asarray(np.bincount(owner, weights=np.minimum(each, 1e300), minlength=which.size), dtype=np.float64)

    return damage


def _by_loop(how: PowerLoop, spectrum: Spectrum, order: IntArray, ends: IntArray) -> DamageOf:
    """The same where one loop gives the damage of a node."""
    sorted_cycles = spectrum.cycles.chosen(order)
    cycles = (sorted_cycles.range, sorted_cycles.mean, sorted_cycles.per_repeat, ends[1:])
    return lambda log_factors, which: damage_by_loop(how, cycles, which, np.exp(log_factors))


def _laid_anew(task: Task) -> DamageOf:
    """Of events over frequency: their expected cycles are laid anew under every factor."""

    def damage(log_factors: FloatArray, which: IntArray) -> FloatArray:
        factors = np.exp(log_factors)[:, None]
        own = None if task.directions is None else task.directions[which]
        units, constants = factors[:, :, None] * task.units[which], factors * task.constants[which]
        values = values_of(replace(task, units=units, constants=constants, directions=own))
        return np.asarray(values.damage)

    return damage


def _logarithm(ratios: FloatArray) -> FloatArray:
    with np.errstate(divide="ignore"):
        return np.clip(np.log(ratios), _NEVER, _AT_ONCE)


def _runs(starts: IntArray, ends: IntArray) -> IntArray:
    """All places from each start up to its end, one run after the other."""
    many = ends - starts
    return np.repeat(starts - np.cumsum(many) + many, many) + np.arange(int(many.sum()))


def _solved(excess: Callable[[FloatArray, IntArray], FloatArray], size: int) -> FloatArray:
    """Roots of rising functions in the logarithm of the factor, each where the target is just met.

    Brackets that grow by the slope of a usual curve, then false position with the Illinois rule (Dowell and Jarratt 1971),
    halving where a function jumps; nodes that are done are left out.
    """
    left = np.arange(size)
    low, high = np.zeros(size), np.zeros(size)
    below = above = excess(low, left)
    below, above = below.copy(), above.copy()
    step = np.clip(np.abs(below) / USUAL_SLOPE * 1.2, 0.05, 2.0)
    for _ in range(MOST_BRACKETS):
        up = (above <= 0.0) & (high < math.log(LARGEST))
        down = (below > 0.0) & (low > math.log(SMALLEST))
        left = np.flatnonzero(up | down)
        if not left.size:
            break
        rising = up[left]
        trial = np.where(rising, high[left] + step[left], low[left] - step[left])
        trial = np.clip(trial, math.log(SMALLEST), math.log(LARGEST))
        found = excess(trial, left)
        one, other = left[rising], left[~rising]
        low[one], below[one], high[one], above[one] = high[one], above[one], trial[rising], found[rising]
        high[other], above[other], low[other], below[other] = low[other], below[other], trial[~rising], found[~rising]
        step[left] *= 2.0
    endless, hopeless = above <= 0.0, below > 0.0
    _narrowed(excess, low, high, below, above, np.flatnonzero(~endless & ~hopeless))
    return np.where(endless, np.inf, np.where(hopeless, 0.0, np.exp(low)))


def _narrowed(
    excess: Callable[[FloatArray, IntArray], FloatArray],
    low: FloatArray,
    high: FloatArray,
    below: FloatArray,
    above: FloatArray,
    left: IntArray,
) -> None:
    """Narrow brackets in place until they are `_CLOSE`; at `low` the target is met."""
    last = np.zeros(low.size, dtype=np.int64)  # which end moved last: -1 low, 1 high
    for turn in range(200):
        wide = high[left] - low[left]
        left, wide = left[wide > _CLOSE], wide[wide > _CLOSE]
        if not left.size:
            return
        smooth = (below[left] > _NEVER) & (above[left] < _AT_ONCE) & (turn % 8 < 7)
        share = np.where(smooth, -below[left] / np.where(smooth, above[left] - below[left], 1.0), 0.5)
        near = np.minimum(0.25 * _CLOSE / wide, 0.5)  # a little beyond the root, so that both ends come near
        trial = low[left] + np.clip(share, near, 1.0 - near) * wide
        found = excess(trial, left)
        met = found <= 0.0
        here, there = left[met], left[~met]
        above[here] = np.where(
            last[here] == -1, 0.5 * above[here], above[here]
        )  # Illinois: the end that stays counts half
        below[there] = np.where(last[there] == 1, 0.5 * below[there], below[there])
        low[here], below[here], last[here] = trial[met], found[met], -1
        high[there], above[there], last[there] = trial[~met], found[~met], 1
