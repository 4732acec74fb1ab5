"""A laminate followed through repeats of a duty cycle: plies soften and weaken, stress moves to others, modes fail to its end.

In: a laminate, classes of cycles as loads at both ends, settings. Out: every failure with its repeats, and the course between.
Repeats are taken in jumps by the stresses of their start, middle and third quarter (Bogacki and Shampine 1989); what a way of
lower order differs by sets the next. Forces and moments are those given, however much the laminate softens.
"""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.progress import _kernels
from vivid_anvil.progress.bundles import Classes, Course, Events, State
from vivid_anvil.progress.tables import MODES, PlyTables, ProgressSettings
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.units import number, one, opened

LONGEST = 1e18  # repeats, up to which anything is followed
MOST_JUMPS = 20000
LONGER = 8.0  # times more error of a jump: twice as long, as the error of a jump goes with its cube
ENDS = {
    _kernels.OVER: "over",
    _kernels.ENDLESS: "nothing moves any more",
    _kernels.LATER: "past the limit",
    _kernels.MANY: "too many jumps",
}


class ModeFailure(NamedTuple):
    """A mode of a ply that fails: repeats, ply from the bottom, face, mode, part of the stiffness left after it, jump."""

    repeats: float
    ply: int
    face: str
    mode: str
    stiffness_left: float
    jump: int


@dataclass(frozen=True, eq=False)
class CycleEnds:
    """Classes of cycles of a repeat, as the loads at both ends.

    Parameters
    ----------
    ends : ndarray
        Loads nx .. mxy at both ends, N/mm and N·mm/mm, shape (rows, 2, 6).
    often : ndarray
        How often each happens in a repeat, shape (rows,).
    spans : ndarray of int
        First row, and row after the last, that every ply, face and component counts, shape (plies, 2, 3, 2).

    Raises
    ------
    InputError
        For other shapes, and numbers that are not finite or below 0.

    Examples
    --------
    >>> CycleEnds.of_one_row(np.zeros((3, 2, 6)), np.ones(3), 8).spans.shape
    (8, 2, 3, 2)
    """

    ends: FloatArray
    often: FloatArray
    spans: IntArray

    def __post_init__(self) -> None:
        ends, often, spans = (np.asarray(part) for part in (self.ends, self.often, self.spans))
        good = ends.ndim == 3 and ends.shape[1:] == (2, 6) and often.shape == ends.shape[:1]
        good = good and spans.ndim == 4 and spans.shape[1:] == (2, 3, 2)
        if not good or not np.isfinite(ends).all() or not (np.isfinite(often) & (often >= 0.0)).all():
            raise InputError(
                "cycle ends",
                f"shapes {ends.shape}, {often.shape}, {spans.shape}",
                "finite loads (rows, 2, 6), numbers of at least 0 (rows,), rows (plies, 2, 3, 2)",
            )
        if spans.size and not ((spans >= 0) & (spans <= len(often))).all():
            raise InputError("cycle ends, spans", "rows that are not there", f"0 to {len(often)}")

    @cached_property
    def slots(self) -> IntArray:
        """Where the classes of every ply, face and component begin, put one after the other, shape (plies, 2, 3)."""
        sizes = (self.spans[..., 1] - self.spans[..., 0]).ravel()
        found: IntArray = (np.cumsum(sizes) - sizes).reshape(self.spans.shape[:3]).astype(np.int64)
        return found

    @cached_property
    def classes(self) -> Classes:
        """What loops need of it."""
        return Classes(self.ends, self.often, self.spans, self.slots)

    @classmethod
    def of_one_row(cls, ends: FloatArray, often: FloatArray, plies: int) -> CycleEnds:
        """Cycles that all components count alike."""
        spans = np.empty((plies, 2, 3, 2), dtype=np.int64)
        spans[..., 0], spans[..., 1] = 0, len(often)
        return cls(np.ascontiguousarray(ends), np.ascontiguousarray(often), spans)


@dataclass(frozen=True, eq=False)
class LaminateProgress:
    """The life of a laminate as it goes: failures, the course, how it ended.

    Parameters
    ----------
    laminate : Laminate
        The laminate.
    settings : ProgressSettings
        How it was followed.
    failures : tuple of ModeFailure
        In their order.
    course : Course
        What stood after every jump.
    before : Course
        What stood just before each failure.
    repeats : float
        Where it was left.
    ended : str
        Why it was left there.
    errors : float
        Sum over all jumps of what both ways to take them, of third and of second order, differed by, -.
    error : float, optional
        Share of its life by which the end may be wrong for the length of the jumps, where that was looked for.

    Raises
    ------
    InputError
        Where it is asked for what no laminate has.

    Examples
    --------
    >>> ProgressSettings().jump_error
    0.0003
    """

    laminate: Laminate
    settings: ProgressSettings
    failures: tuple[ModeFailure, ...]
    course: Course
    before: Course
    repeats: float
    ended: str
    errors: float
    error: float | None = None

    @property
    def over(self) -> float:
        """Repeats to the end of the laminate; inf where nothing brings it there."""
        return self.repeats if self.ended == ENDS[_kernels.OVER] else math.inf

    def first(self, mode: str) -> float:
        """Repeats to the first failure of a mode, "fibre" or "matrix"; inf where none fails."""
        return min((one.repeats for one in self.failures if one.mode == mode), default=math.inf)

    def to_stiffness(self, left: float) -> float:
        """Repeats until only this part of the stiffness against the loads is left; inf where more stays."""
        drawn = self.drawn
        below = np.flatnonzero(drawn.stiffness <= left)
        if not below.size:
            return math.inf
        i = int(below[0])
        if i == 0 or drawn.stiffness[i - 1] <= left:
            return float(drawn.repeats[i])
        share = (drawn.stiffness[i - 1] - left) / (drawn.stiffness[i - 1] - drawn.stiffness[i])
        return float(drawn.repeats[i - 1] + share * (drawn.repeats[i] - drawn.repeats[i - 1]))

    @cached_property
    def drawn(self) -> Course:
        """The course with what stood just before each failure put in, as lines through it are drawn."""
        at = [one.jump for one in self.failures]
        first = [i for i in range(len(at)) if i == 0 or at[i] != at[i - 1]]
        jumps = [at[i] for i in first]
        pairs = zip(self.course, self.before, strict=True)
        return Course(*(np.insert(whole, jumps, own[first], axis=0) for whole, own in pairs))

    def __repr__(self) -> str:
        end = number(self.over) if math.isfinite(self.over) else "never"
        return f"<LaminateProgress of {self.laminate.name}: {len(self.failures)} failures, over after {end} repeats>"


@opened(longest=one(above=0.0))
def laminate_progress(
    laminate: Laminate, cycles: CycleEnds, settings: ProgressSettings, *, longest: float = LONGEST
) -> LaminateProgress:
    """The laminate followed to its end, or to so many repeats.

    Parameters
    ----------
    laminate : Laminate
        The laminate.
    cycles : CycleEnds
        Classes of cycles of a repeat.
    settings : ProgressSettings
        How it is followed.
    longest : float, default 1e18
        Repeats after which it is left, -.

    Returns
    -------
    LaminateProgress
        Failures and course.

    Raises
    ------
    InputError
        For a ply without what its modes need, and where jumps do not come to an end.

    Examples
    --------
    >>> from vivid_anvil.materials.plies import LargestStress, Ply
    >>> diagram = LargestStress(tension=400.0, tension_slope=8, compression=400.0, compression_slope=8)
    >>> elastic = dict(modulus_along=2.06e5, modulus_across=2.06e5, shear_modulus=79231.0, poissons_ratio=0.3)
    >>> strong = dict.fromkeys(("tension_along", "compression_along", "tension_across", "compression_across"), 400.0)
    >>> sheet = Ply(name="sheet", shear_strength=230.0, fibre_life=diagram, **elastic, **strong)
    >>> plate = Laminate(name="plate", layup=[0], ply=sheet, ply_thickness=2.0)
    >>> load = np.zeros((1, 2, 6))
    >>> load[0, 0, 0] = 400.0
    >>> found = laminate_progress(
    ...     plate, CycleEnds.of_one_row(load, np.array([1.0]), 1), ProgressSettings(modes=("fibre",))
    ... )
    >>> round(found.over, 6)
    256.0
    """
    tables = PlyTables(laminate, settings)
    count, plies = MOST_JUMPS, len(laminate.laid)
    told, failing, events = room_to_tell(plies, count), room_to_tell(plies, 2 * plies), room_for_events(plies)
    end = marched(tables, cycles.classes, sound_state(plies), longest, events, told, failing)
    if end.ended == _kernels.MANY:
        raise InputError(
            f"laminate {laminate.name}",
            f"{MOST_JUMPS} jumps that come to {number(end.repeats)} repeats",
            "an end",
            "Allow more error of a jump (jump_error), or check the decays of stiffness.",
        )
    found = tuple(
        ModeFailure(
            float(events.repeats[i]),
            int(events.rows[i, 0]),
            ("lower", "upper")[int(events.rows[i, 1])],
            MODES[int(events.rows[i, 2])],
            float(events.stiffness[i]),
            int(events.rows[i, 3]),
        )
        for i in range(end.failures)
    )
    course = Course(*(one[: end.jumps].copy() for one in told))
    before = Course(*(one[: end.failures].copy() for one in failing))
    return LaminateProgress(laminate, settings, found, course, before, end.repeats, ENDS[end.ended], end.errors)


def sound_state(plies: int) -> State:
    """What so many plies begin with: nothing lost."""
    failed = np.zeros((plies, 2), dtype=bool)
    return State(np.zeros((plies, 3)), np.zeros((plies, 2, 2)), np.zeros((plies, 2, 5)), failed)


def room_for_events(plies: int) -> Events:
    """Room for all failures there can be."""
    return Events(np.empty((2 * plies, 4), dtype=np.int64), np.empty(2 * plies), np.empty(2 * plies))


def room_to_tell(plies: int, jumps: int) -> Course:
    """Room for what so many jumps begin with."""
    n = jumps
    shapes: tuple[tuple[int, ...], ...] = ((n,), (n,), (n, plies, 3), (n, plies, 2, 2), (n, plies, 2, 5))
    return Course(*(np.empty(one) for one in (*shapes, (n, plies, 2, 3), (n, plies, 2, 3))))


@dataclass(frozen=True)
class Marched:
    """How a loop ended: failures, jumps, repeats, part of the stiffness left, errors of all jumps, one of `ENDS`."""

    failures: int
    jumps: int
    repeats: float
    stiffness: float
    errors: float
    ended: int


def marched(
    tables: PlyTables, classes: Classes, state: State, longest: float, events: Events, told: Course, failing: Course
) -> Marched:
    """The loop of one laminate from a state on, which it moves; failures go into `events`, the course into `told`, what stands
    before failures into `failing`."""
    ways = tables.ways(longest)
    return Marched(*_kernels.march(tables.bundle, classes, ways, state, events, MOST_JUMPS, told, failing))


@opened()
def converged_to(progress: LaminateProgress, cycles: CycleEnds) -> float:
    """Share of the life by which its end may be wrong: a seventh of what jumps twice as long move it by; 0 without
    an end.

    The error goes with the cube of the jumps, so that longer ones are off by eight times as much.
    """
    if not math.isfinite(progress.over) or progress.over <= 0.0:
        return 0.0
    longer = dataclasses.replace(progress.settings, jump_error=min(LONGER * progress.settings.jump_error, 0.5))
    other = laminate_progress(progress.laminate, cycles, longer)
    return abs(other.over / progress.over - 1.0) / (LONGER - 1.0)
