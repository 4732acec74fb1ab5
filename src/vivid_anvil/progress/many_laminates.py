"""A laminate at many places of a model, each followed by itself, or with loads that move to stiffer places between stations.

In: loads at both ends of classes of cycles at every place. Out: repeats to the first failures and to the end of each place, what
is left there. Without a call-back each place keeps its loads; with one, a model may give new ones for the stiffness that is left.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from concurrent.futures import Executor
from dataclasses import dataclass
from functools import partial
from itertools import pairwise

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.progress import _kernels
from vivid_anvil.progress.bundles import State
from vivid_anvil.progress.laminate_progress import (
    LONGEST,
    CycleEnds,
    marched,
    room_for_events,
    room_to_tell,
    sound_state,
)
from vivid_anvil.progress.tables import MODES, PlyTables, ProgressSettings
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.units import opened

CHUNK = 250  # places handed to a worker at once
Moved = Callable[[FloatArray], ArrayLike]


@dataclass(frozen=True, eq=False)
class ManyLaminates:
    """What places have come to: repeats to the first failure between fibres, of fibres, and to the end, (places,); inf: none.

    `stiffness`, (places,), is the part against its own loads that is left at the last station, `left`, (places, plies, 3), the
    parts of moduli.
    """

    matrix: FloatArray
    fibre: FloatArray
    over: FloatArray
    stiffness: FloatArray
    left: FloatArray
    stations: tuple[float, ...]


@opened()
def laminates_progress(
    laminate: Laminate,
    ends: ArrayLike,
    often: ArrayLike,
    settings: ProgressSettings,
    *,
    stations: Sequence[float],
    moved: Moved | None = None,
    executor: Executor | None = None,
) -> ManyLaminates:
    """The laminate followed at many places through all stations, which are repeats from the start.

    Parameters
    ----------
    laminate : Laminate
        The laminate of all places.
    ends : array_like
        Loads nx .. mxy at both ends of every class of cycles, N/mm and N·mm/mm, shape (places, rows, 2, 6).
    often : array_like
        How often each class happens in a repeat, shape (rows,).
    settings : ProgressSettings
        How they are followed.
    stations : sequence of float
        Rising repeats at which all places stop; the last is the end. Between two of them loads stay.
    moved : callable, optional
        Called at every station but the last with the stiffness [[A, B], [B, D]] of every place, (places, 6, 6); returns new
        `ends`. Without it each place keeps its loads.
    executor : Executor, optional
        Any of `concurrent.futures`; None: one place after the other.

    Returns
    -------
    ManyLaminates
        Repeats and what is left, a place each.

    Raises
    ------
    InputError
        For other shapes, numbers that are not finite, stations that do not rise, and a ply without what its modes need.

    Examples
    --------
    >>> from vivid_anvil.materials.plies import LargestStress, Ply
    >>> diagram = LargestStress(tension=400.0, tension_slope=8, compression=400.0, compression_slope=8)
    >>> elastic = dict(modulus_along=2.06e5, modulus_across=2.06e5, shear_modulus=79231.0, poissons_ratio=0.3)
    >>> strong = dict.fromkeys(("tension_along", "compression_along", "tension_across", "compression_across"), 400.0)
    >>> sheet = Ply(name="sheet", shear_strength=230.0, fibre_life=diagram, **elastic, **strong)
    >>> plate = Laminate(name="plate", layup=[0], ply=sheet, ply_thickness=2.0)
    >>> pull = np.zeros((2, 1, 2, 6))
    >>> pull[:, 0, 0, 0] = 400.0, 200.0
    >>> how = ProgressSettings(modes=("fibre",))
    >>> laminates_progress(plate, pull, [1.0], how, stations=[1e6]).over.round(3).tolist()
    [256.0, 65536.0]
    """
    loads, counts = _checked(ends, often)
    at = _stations(stations)
    tables, plies = PlyTables(laminate, settings), len(laminate.laid)
    size = len(loads)
    spans = CycleEnds.of_one_row(loads[0], counts, plies).spans
    states = [sound_state(plies) for _ in range(size)]
    found = np.full((3, size), math.inf)
    stiffness, before = np.ones(size), 0.0
    for number, station in enumerate(at):
        if number and moved is not None:
            left = 1.0 - np.array([state.lost for state in states])
            loads = _again(moved(np.array([laminate.with_left(one).abd for one in left])), loads.shape)
        work = partial(_part, tables, counts, spans, states, loads, station - before, found[2] < math.inf)
        chunks = [range(start, min(start + CHUNK, size)) for start in range(0, size, CHUNK)]
        done = map(work, chunks) if executor is None else executor.map(work, chunks)
        for chunk, (events, own) in zip(chunks, done, strict=True):
            rows = np.array(chunk)
            alive = ~np.isnan(own)
            stiffness[rows[alive]] = own[alive]
            found[:, rows] = np.minimum(found[:, rows], before + events)
        before = station
    lefts = 1.0 - np.array([state.lost for state in states])
    return ManyLaminates(found[0], found[1], found[2], stiffness, lefts, at)


def _part(
    tables: PlyTables,
    often: FloatArray,
    spans: IntArray,
    states: list[State],
    loads: FloatArray,
    repeats: float,
    over: FloatArray,
    chunk: range,
) -> tuple[FloatArray, FloatArray]:
    """Repeats to the first failures of some places, and their stiffness; nan of those that were over before."""
    plies = len(tables.laminate.laid)
    events, told = room_for_events(plies), room_to_tell(plies, 0)
    found, stiffness = np.full((3, len(chunk)), math.inf), np.full(len(chunk), math.nan)
    for i, place in enumerate(chunk):
        if over[place]:
            continue
        cycles = CycleEnds(loads[place], often, spans)
        end = marched(tables, cycles.classes, states[place], repeats, events, told, told)
        stiffness[i] = end.stiffness
        for k in range(end.failures):
            at = 1 if MODES[int(events.rows[k, 2])] == "fibre" else 0
            found[at, i] = min(found[at, i], events.repeats[k])
        if end.ended == _kernels.OVER:
            found[2, i] = end.repeats
        if end.ended == _kernels.MANY:
            raise InputError(
                f"place {place + 1}", "too many jumps", "an end", "Allow more error of a jump (jump_error)."
            )
    return found, stiffness


def _checked(ends: ArrayLike, often: ArrayLike) -> tuple[FloatArray, FloatArray]:
    loads, counts = checks.as_numbers("laminates, ends", ends), checks.as_numbers("laminates, often", often)
    good = loads.ndim == 4 and loads.shape[2:] == (2, 6) and counts.shape == loads.shape[1:2] and loads.size > 0
    if not good or not np.isfinite(loads).all() or not (np.isfinite(counts) & (counts >= 0.0)).all():
        raise InputError(
            "laminates, ends",
            f"shapes {loads.shape} and {counts.shape}",
            "finite loads (places, rows, 2, 6), counts (rows,)",
        )
    return np.ascontiguousarray(loads), np.ascontiguousarray(counts)


def _again(ends: ArrayLike, shape: tuple[int, ...]) -> FloatArray:
    loads = np.ascontiguousarray(np.asarray(ends, dtype=np.float64))
    if loads.shape != shape or not np.isfinite(loads).all():
        raise InputError("laminates, moved", f"shape {loads.shape}", f"finite loads as before, {shape}")
    return loads


def _stations(given: Sequence[float]) -> tuple[float, ...]:
    where = "laminates, stations"
    if np.ndim(given) != 1 or not len(given):
        raise InputError(where, shortened(given), "rising repeats, one at least")
    at = tuple(checks.positive_number(inside(where, f"{i}"), one) for i, one in enumerate(given, 1))
    if any(b <= a for a, b in pairwise(at)):
        raise InputError(where, shortened(given), "rising repeats")
    return tuple(min(one, LONGEST) for one in at)
