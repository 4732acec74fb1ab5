"""A laminate at a place under a duty cycle: cycles of every component of every ply, and the damage of every mode.

In: section loads that channels scale, a laminate, a duty cycle. Out: of each ply and face the stresses at both ends of the cycles
of s1, s2 and t12, each counted by rainflow, with what the others are at the same moments.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.materials.plies import joint_lives
from vivid_anvil.materials.plies.ply import LIVES
from vivid_anvil.progress import CycleEnds
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.laminates import SectionLoads, StaticReserves, ply_failures, static_reserves
from vivid_anvil.stress.planes.plane_cycles import counted

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue

LITTLE = 1e-9  # of the largest stress, below which a component does nothing
MODE, PLY, COUNTED = "mode", "ply", "component"  # columns of cycles: the same in all of a table
BESIDE_HIGH, BESIDE_LOW = "beside at maximum", "beside at minimum"
CLOSE, FEWEST = 1e-3, 48  # share of damage that grouped cycles may move; rows up to which nothing is grouped
SEEN = 0.01  # of the largest damage, from which on a mode must be met


class PlyEvent(NamedTuple):
    """An event: how often, the six resultants at its samples, (n, 6), what scales them all, (n,), if one thing does."""

    name: str
    often: float
    course: FloatArray
    along: FloatArray | None
    counts: FloatArray | None
    sample_rate: float | None
    history: Any


@dataclass(frozen=True, eq=False)
class EndTable:
    """Cycles that were counted together: loads at both ends, (k, 2, 6), how often a repeat, event, samples of the ends."""

    ends: FloatArray
    often: FloatArray
    event: IntArray
    start: IntArray
    end: IntArray


class Lead(NamedTuple):
    """What is damaged most: mode, ply from the bottom, face, and the component (0, 1, 2) whose cycles are counted."""

    mode: str
    ply: int
    face: int
    component: int


@dataclass(frozen=True, eq=False)
class PlaceInLaminate:
    """The place: its events, with all loads times a factor."""

    method: PlyFatigue
    events: tuple[PlyEvent, ...]

    @cached_property
    def tables(self) -> tuple[tuple[EndTable, ...], IntArray]:
        """Tables of counted cycles, and which one each ply, face and component has, shape (plies, 2, 3)."""
        plies = len(self.method.laminate.laid)
        if all(event.along is not None for event in self.events):
            table = self._table([event.along for event in self.events])  # type: ignore[misc]
            return (table,), np.zeros((plies, 2, 3), dtype=np.int64)
        found: list[EndTable] = []
        which = np.zeros((plies, 2, 3), dtype=np.int64)
        for p, f, c in np.ndindex(plies, 2, 3):
            which[p, f, c] = len(found)
            courses = [self._stress_of(event.course, p, f, c) for event in self.events]
            moved = max(float(np.ptp(one)) for one in courses)
            still = [np.zeros(len(one)) for one in courses]
            found.append(self._table(courses if moved > LITTLE * self.largest else still))
        return tuple(found), which

    def _table(self, courses: list[FloatArray]) -> EndTable:
        parts: list[tuple[Any, ...]] = []
        for number, (event, course) in enumerate(zip(self.events, courses, strict=True)):
            own = counted(event, course, course)  # type: ignore[arg-type]  # what it asks of an event is here too
            if event.counts is not None:
                pairs = event.course.reshape(-1, 2, 6)
            else:
                pairs = np.stack([event.course[own.start], event.course[own.end]], axis=1)
            keep = own.ranges > 0.0
            event_number = np.full(int(keep.sum()), number)
            parts.append((pairs[keep], own.per_repeat[keep], event_number, own.start[keep], own.end[keep]))
        ends, often, event_of, start, end = (np.concatenate(many) for many in zip(*parts, strict=True))
        return EndTable(ends, often, event_of, start, end)

    def _stress_of(self, loads: FloatArray, ply: int, face: int, component: int) -> FloatArray:
        state = self.method.laminate.full
        return np.asarray(loads @ state.per_load[ply, face, component] + state.thermal_stresses[ply, face, component])

    @cached_property
    def largest(self) -> float:
        """Largest stress of any ply, MPa."""
        return max(float(np.abs(one).max()) for one in self.extremes)

    @cached_property
    def extremes(self) -> tuple[FloatArray, FloatArray]:
        """Lowest and highest stresses of every ply, face and component, MPa, shape (plies, 2, 3) each."""
        state = self.method.laminate.full
        lows, highs = [], []
        for event in self.events:
            stresses = np.einsum("pfck,nk->npfc", state.per_load, event.course) + state.thermal_stresses
            lows.append(stresses.min(axis=0))
            highs.append(stresses.max(axis=0))
        return np.min(lows, axis=0), np.max(highs, axis=0)

    @cached_property
    def extreme_loads(self) -> FloatArray:
        """Loads at which any component of any ply is largest or least, shape (k, 6)."""
        state, found = self.method.laminate.full, []
        for event in self.events:
            if event.along is not None:
                rows = {int(event.along.argmin()), int(event.along.argmax())}
            else:
                stresses = np.einsum("pfck,nk->npfc", state.per_load, event.course).reshape(len(event.course), -1)
                rows = {*stresses.argmin(axis=0).tolist(), *stresses.argmax(axis=0).tolist()}
            found.append(event.course[sorted(rows)])
        return np.unique(np.concatenate(found), axis=0)

    @cached_property
    def static_reserves(self) -> tuple[StaticReserves, ...]:
        """Static reserves under each of these loads."""
        method = self.method
        return tuple(static_reserves(method.laminate, load, criterion=method.static) for load in self.extreme_loads)

    @cached_property
    def last_failure(self) -> float:
        """The largest factor on the load that breaks a ply first, up to which the laminate bears it with plies failed."""
        method, reserves = self.method, [one.first.factor for one in self.static_reserves]
        load = self.extreme_loads[int(np.argmin(reserves))]
        how = {"fibre_left": method.fibre_left, "matrix_left": method.matrix_left, "over_below": method.over_below}
        return ply_failures(method.laminate, load, criterion=method.static, **how).last

    def table_of(self, ply: int, face: int, component: int) -> EndTable:
        """The cycles that a component counts."""
        tables, which = self.tables
        return tables[int(which[ply, face, component])]

    def stresses(self, table: EndTable, ply: int, face: int, component: int) -> FloatArray:
        """A component at both ends of cycles, MPa, shape (k, 2); still where it hardly moves."""
        found = self._stress_of(table.ends, ply, face, component)
        still = np.abs(found[:, 0] - found[:, 1]) <= LITTLE * self.largest
        found[still] = found[still].mean(axis=1, keepdims=True)
        return found

    def lives(self, mode: str, ply: int, face: int, component: int) -> FloatArray:
        """Cycles of each row of the table of a component, by a mode."""
        table = self.table_of(ply, face, component)
        own = self.stresses(table, ply, face, component)
        if mode == "energy":
            three = [self.stresses(table, ply, face, c) for c in range(3)]
            high, low = (np.stack([one[:, e] for one in three], axis=1) for e in range(2))
            return self.method.energy_lives(ply, high, low)
        laid = self.method.laminate.laid[ply].ply
        diagram = getattr(laid, LIVES[component])
        size, mean = _amplitude_and_mean(own)
        if mode != "matrix":
            return np.asarray(diagram.lives(size, mean))
        other = 3 - component
        beside = _amplitude_and_mean(self.stresses(table, ply, face, other))
        return joint_lives(diagram, getattr(laid, LIVES[other]), (size, mean), beside)

    @cached_property
    def damage(self) -> dict[str, FloatArray]:
        """Damage a repeat of every mode, shape (plies, 2, 3): by the component whose cycles are counted; 0 where none is."""
        plies = len(self.method.laminate.laid)
        found = {}
        for mode, components in self.method.components.items():
            own = np.zeros((plies, 2, 3))
            for p, f in np.ndindex(plies, 2):
                for c in components:
                    if c == 2 and components == (1, 2) and self.table_of(p, f, 1) is self.table_of(p, f, 2):
                        own[p, f, 2] = own[p, f, 1]  # counted once for both
                        continue
                    with np.errstate(divide="ignore"):  # of what breaks at once
                        own[p, f, c] = float((self.table_of(p, f, c).often / self.lives(mode, p, f, c)).sum())
            found[mode] = own
        return found

    @cached_property
    def lead(self) -> Lead:
        """The mode that is damaged most; without damage the one with the largest range over its strength."""
        best = max(self.damage, key=lambda mode: float(self.damage[mode].max()))
        own = self.damage[best]
        if not own.any():
            low, high = self.extremes
            strength = self.method.arrays.bundle.static[:, None, [0, 2, 4]]
            allowed = np.zeros(3, dtype=bool)
            for components in self.method.components.values():
                allowed[list(components)] = True
            moved = np.where(allowed, (high - low) / strength, -1.0)
            p, f, c = (int(one) for one in np.unravel_index(int(moved.argmax()), moved.shape))
            best = next(mode for mode, components in self.method.components.items() if c in components)
            return Lead(best, p, f, c)
        p, f, c = (int(one) for one in np.unravel_index(int(own.argmax()), own.shape))
        if (
            best == "matrix" and own[p, f, 1] == own[p, f, 2]
        ):  # counted alike: by the one that moves more of its strength
            static, table = self.method.arrays.bundle.static[p], self.table_of(p, f, 1)
            moves = [np.ptp(self.stresses(table, p, f, k), axis=1).max(initial=0.0) / static[2 * k] for k in (1, 2)]
            c = 1 + int(moves[1] > moves[0])
        return Lead(best, p, f, c)

    def cycles_of(self, lead: Lead) -> Cycles:
        """The cycles of a mode, with what stands beside as columns."""
        table = self.table_of(lead.ply, lead.face, lead.component)
        own = self.stresses(table, lead.ply, lead.face, lead.component)
        other = self.stresses(table, lead.ply, lead.face, 3 - lead.component if lead.component else 0)
        up = own[:, 0] >= own[:, 1]
        modes = list(self.method.components)
        columns = {
            MODE: np.full(len(own), float(modes.index(lead.mode))),
            PLY: np.full(len(own), float(lead.ply)),
            COUNTED: np.full(len(own), float(lead.component)),
            BESIDE_HIGH: np.where(up, other[:, 0], other[:, 1]),
            BESIDE_LOW: np.where(up, other[:, 1], other[:, 0]),
        }
        if lead.mode == "energy":
            for c in range(3):
                one = self.stresses(table, lead.ply, lead.face, c)
                columns[f"s{c} at maximum"] = np.where(up, one[:, 0], one[:, 1])
                columns[f"s{c} at minimum"] = np.where(up, one[:, 1], one[:, 0])
        sources = []
        for number, event in enumerate(self.events):
            of = table.event == number
            often = table.often[of]
            made = Cycles(
                range=np.abs(own[of, 0] - own[of, 1]),
                mean=0.5 * (own[of, 0] + own[of, 1]),
                count=often / event.often if event.often else often,
                start=table.start[of],
                end=table.end[of],
                sample_rate=event.sample_rate,
                columns={name: one[of] for name, one in columns.items()},
            )
            sources.append(Source(event.name, event.often, made, event.history))
        low, high = (float(one[lead.ply, lead.face, lead.component]) for one in self.extremes)
        return of_a_repeat(sources, (low, high))

    @cached_property
    def cycle_ends(self) -> CycleEnds:
        """Classes of cycles for a laminate that is followed; near ones grouped, each group by the one that does most."""
        tables, which = self.tables
        classes, starts = [], []
        row = 0
        for number, table in enumerate(tables):
            kept = self._grouped(table, number)
            classes.append(kept)
            starts.append((row, row + len(kept[1])))
            row += len(kept[1])
        ends = np.concatenate([one[0] for one in classes]) if row else np.zeros((0, 2, 6))
        often = np.concatenate([one[1] for one in classes]) if row else np.zeros(0)
        spans = np.array(starts, dtype=np.int64)[which]
        return CycleEnds(np.ascontiguousarray(ends), np.ascontiguousarray(often), np.ascontiguousarray(spans))

    def _grouped(self, table: EndTable, number: int) -> tuple[FloatArray, FloatArray]:
        """Rows of a table put together: equal ones, then near ones until damage would move by more than `CLOSE`."""
        flat = table.ends.reshape(-1, 12)
        scale = np.abs(flat).max(initial=0.0) or 1.0
        _, first, inverse = np.unique(np.round(flat / scale, 12), axis=0, return_index=True, return_inverse=True)
        order = np.argsort(first, kind="stable")  # in the order in which they come
        rank: IntArray = np.empty(order.size, dtype=np.int64)
        rank[order] = np.arange(order.size)
        often = np.bincount(rank[inverse.ravel()], weights=table.often, minlength=order.size).astype(np.float64)
        ends = table.ends[first[order]]
        if order.size <= FEWEST:
            return ends, often
        one = EndTable(ends, often, *(np.zeros(often.size, dtype=np.int64),) * 3)
        by_mode = self._damage_by_row(one, number)
        goal, lead = by_mode.sum(axis=1), int(by_mode.sum(axis=1).argmax())
        own = by_mode[lead]
        met = goal >= SEEN * goal.max(initial=0.0)
        size = np.linalg.norm(ends[:, 0] - ends[:, 1], axis=1)
        sums = ends.sum(axis=1)
        along = sums @ sums[int(np.linalg.norm(sums, axis=1).argmax())]
        many = 16
        while True:
            bins = [np.floor(many * _to_one(part)).astype(np.int64) for part in (size, along)]
            key = bins[0] * (4 * many) + bins[1]
            _, group = np.unique(key, return_inverse=True)
            chosen = np.array(
                [np.flatnonzero(group == g)[own[group == g].argmax()] for g in range(int(group.max()) + 1)]
            )
            total = np.bincount(group, weights=own)
            with np.errstate(invalid="ignore", divide="ignore"):
                times = np.where(own[chosen] > 0.0, total / own[chosen], 0.0)
            now = (by_mode[:, chosen] * times).sum(axis=1)
            off = np.abs(now[met] / goal[met] - 1.0).max(initial=0.0)
            if off <= CLOSE or chosen.size > 0.7 * often.size:
                break
            many *= 2
        if off > CLOSE:
            return ends, often
        keep = times > 0.0
        kept = np.sort(chosen[keep])
        places = {int(row): float(often[row] * value) for row, value in zip(chosen, times, strict=True)}
        return ends[kept], np.array([places[int(row)] for row in kept])

    def _damage_by_row(self, table: EndTable, number: int) -> FloatArray:
        """Damage of each row of a table in every mode that counts by it, shape (modes of faces, rows)."""
        _, which = self.tables
        found = []
        for mode, components in self.method.components.items():
            for p, f in np.ndindex(*which.shape[:2]):
                for c in components[:1] if (which == number).all() else components:
                    if which[p, f, c] == number:
                        part = dataclass_of(self, table, number)
                        with np.errstate(divide="ignore"):
                            found.append(table.often / part.lives(mode, p, f, c))
        return np.array(found)


def dataclass_of(place: PlaceInLaminate, table: EndTable, number: int) -> PlaceInLaminate:
    """The same place with another table in the stead of one of its own."""
    made = PlaceInLaminate(place.method, place.events)
    tables, which = place.tables
    made.__dict__["tables"] = (tuple(table if i == number else one for i, one in enumerate(tables)), which)
    made.__dict__["largest"] = place.largest
    return made


def _amplitude_and_mean(ends: FloatArray) -> tuple[FloatArray, FloatArray]:
    return 0.5 * np.abs(ends[:, 0] - ends[:, 1]), 0.5 * (ends[:, 0] + ends[:, 1])


def _to_one(values: FloatArray) -> FloatArray:
    low, high = float(values.min()), float(values.max())
    return np.asarray((values - low) / (high - low) if high > low else np.zeros(values.size))


def place_in_laminate(method: PlyFatigue, spot: HotSpot, duty_cycle: DutyCycle, factor: float = 1.0) -> PlaceInLaminate:
    """The place with all loads times a factor."""
    relation = spot.fed
    assert isinstance(relation, SectionLoads)
    found = []
    for event, (own, _) in zip(relation.loads.events(duty_cycle), duty_cycle.flat(), strict=True):
        history = own.seen(relation.counted).measured
        rate = None if history is None else history.counting_rate
        found.append(_event(event, relation.unit[:, :6], relation.constant[:6], factor, rate, history))
    return PlaceInLaminate(method, tuple(found))


def _event(
    event: Any, unit: FloatArray, constant: FloatArray, factor: float, rate: float | None = None, history: Any = None
) -> PlyEvent:
    course = factor * (event.loads @ unit) + constant
    along = np.ascontiguousarray(event.loads[:, 0]) if event.loads.shape[1] == 1 else None
    return PlyEvent(event.name, event.often, course, along, event.counts, rate, history)


def place_of_rows(method: PlyFatigue, unit: FloatArray, constant: FloatArray, events: Any) -> PlaceInLaminate:
    """The same of a row of a model: resultants of the cases, (cases, 6), and those that are always there, (6,)."""
    return PlaceInLaminate(method, tuple(_event(event, unit, constant, 1.0) for event in events))
