"""Life at every node of a field: loads superposed, one stress counted, damage summed, in chunks on any executor.

Chunks are of nodes, or of rows where a node has several stresses (of its elements, of both faces of a shell).
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import (
    FIRST_COMPLETED,
    BrokenExecutor,
    CancelledError,
    Executor,
    Future,
    ProcessPoolExecutor,
    ThreadPoolExecutor,
    wait,
)
from dataclasses import replace
from pathlib import Path

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vivid_anvil.events import DutyCycle
from vivid_anvil.fields.chunk_values import Task, acts_together, values_of
from vivid_anvil.fields.kept_chunks import KeptChunks
from vivid_anvil.fields.model_result import ModelResult, NodeValues, sources_of
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.laminates import SectionFields
from vivid_anvil.stress.measures import Measure, NormalStress, stress_measure
from vivid_anvil.stress.relations import CaseLoads, LineLoads, ModeLoads
from vivid_anvil.stress.rubber import StrainFields
from vivid_anvil.units import opened

CHUNK = 2000  # nodes handed to a worker at once
FAR_CHUNK = 5000  # to one that is no pool of this machine: each hand-over costs tens of milliseconds of work
AHEAD = 256  # chunks handed out and not yet back: what waits costs memory

Watch = Callable[[str, int, int], None]


@opened()
def assess_model(
    field: StressField,
    loads: CaseLoads | ModeLoads | LineLoads | StrainFields | SectionFields,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    *,
    measure: Measure | str = "signed von Mises, hydrostatic",
    directions: ArrayLike | None = None,
    regions: Mapping[str, HotSpot] | None = None,
    leave_out: Sequence[str | int] = (),
    target: float | str | None = None,
    executor: Executor | None = None,
    chunk: int | None = None,
    skip_harmless: str = "yes",
    keep_in: str | Path | None = None,
    watch: Watch | None = None,
) -> ModelResult:
    """Damage at every node of `field` under `loads`; `spot` gives curve, material, notch factor and mean-stress rule.

    With `directions`, shape (n, 3), the normal stress along that of each node counts instead of `measure`. `regions` are hot
    spots for the nodes of some sets, by the name of the set; where sets overlap the first named holds. Stresses of an element
    belong to the set of elements of that name, where there is one. `leave_out` are nodes, by their numbers or by the names of
    sets, that are not assessed: supports, places where a load is put on. `executor` is any of `concurrent.futures` (None: one
    after the other here); the result does not depend on it, nor on `chunk`, the nodes handed over at once: 2000, or 5000 to an
    executor that is no pool of this machine, unless stated. With `keep_in`, a folder, finished chunks are kept, and an
    interrupted run goes on from there. `skip_harmless` is "yes" or "no". `watch(label, done, of)` is told how many nodes are
    done.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    loads : CaseLoads
        How the loads of the duty cycle act on the load cases.
    duty_cycle : DutyCycle
        The events of one repeat.
    spot : HotSpot
        The place: material, method and notch factor.
    measure : Measure or str, default "signed von Mises, hydrostatic"
        The stress that is counted: one of `MEASURES`, or its name.
    directions : array_like, optional
        Unit vectors, shape (n, 3).
    regions : mapping of str to HotSpot, optional
        Hot spots for the nodes of some sets, by the name of the set; the first named holds.
    leave_out : sequence of str or int, optional
        Nodes, by their numbers or by the names of sets, that are not assessed.
    target : float or str, optional
        How long it shall last: repeats, or text such as "30 years".
    executor : Executor, optional
        Any of `concurrent.futures`, or of a cluster; None: threads of this process.
    chunk : int, optional
        Nodes at a time.
    skip_harmless : str, default "yes"
        "yes" leaves out nodes that a bound shows to be harmless; "no" counts all.
    keep_in : str or path, optional
        A folder; an interrupted run goes on from its last finished chunk there.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    ModelResult
        Damage, life and findings at every node.

    Raises
    ------
    InputError
        For loads that do not fit the field, and for what a hot spot refuses.

    Examples
    --------
    >>> assess_model(model.field, model.loads, model.duty_cycle, model.spot)  # with what the model of the demo has
    <ModelResult 7522 nodes: 3.778 years at node 2688>
    """
    own = None if directions is None else _directions(directions, field.size)
    how = stress_measure(measure) if own is None else NormalStress(own[0])  # one of its kind
    checks.one_of("whole model, skip_harmless", skip_harmless, ("yes", "no"))
    together = _usual_chunk(executor, keep_in) if chunk is None else checks.real_number("whole model, chunk", chunk)
    if not together >= 1:
        raise InputError("whole model, chunk", f"{chunk}", "one node or more")
    named = dict(regions or {})
    for one in (spot, *named.values()):
        one.assessed_by.check(one)
    loads.check(field)
    units, constants, owners = loads.units(field), loads.constants(field), field.owners
    events, skip = tuple(loads.events(duty_cycle)), skip_harmless == "yes"
    region_of = regions_of(field, list(named))
    spots = (spot, *named.values())
    out = left_out(field, leave_out)
    chunks = _chunks(region_of, int(together), None if out is None else out[owners])
    bare = replace(duty_cycle)  # without what it has counted so far
    by_row = None if own is None else own[owners]
    depends_on = (units, constants, loads, by_row, region_of, out, chunk, events, spots, how, skip, bare)
    kept = None if keep_in is None else KeptChunks(Path(keep_in), depends_on)

    def task(number: int) -> Task:
        rows = chunks[number]
        at = spots[int(region_of[rows[0]]) + 1]
        whole = bare if acts_together(at, bare) else None
        along = None if by_row is None else by_row[rows]
        return Task(units[rows], constants[rows], loads, events, at, how, skip, along, whole)

    found = NodeValues.empty(owners.size, len(sources_of(duty_cycle)))
    done, whole = 0, sum(rows.size for rows in chunks)
    for number, values in _in_turn(len(chunks), task, kept, executor):
        found.put(chunks[number], values)
        done += chunks[number].size
        if watch is not None:
            watch("stresses of elements" if owners.size > field.size else "nodes", done, whole)
    repeats = None if target is None else duty_cycle.repeats_in(target)
    rest = (loads, duty_cycle, spot, how)
    kinds = tuple(named.items())
    if field.rows is None:
        known = region_of if named else None
        return ModelResult(field, *rest, found.frozen(), repeats, own, kinds, known, left_out=out)
    worst = worst_rows(owners, found)
    chosen = tuple(field.rows.label(int(row)) for row in worst)
    plain = replace(field, stresses=field.rows.stresses[:, worst], rows=None)
    known = region_of[worst] if named else None
    return ModelResult(plain, *rest, found.of(worst).frozen(), repeats, own, kinds, known, chosen, out)


@opened()
def regions_of(field: StressField, names: list[str]) -> IntArray:
    """Which of the sets `names` each stress that is assessed belongs to, the first one of several, -1 for none."""
    found = np.full(field.owners.size, -1)
    elements = None if field.rows is None else field.rows.elements
    for number in reversed(range(len(names))):
        name = names[number]
        if elements is not None and name in field.element_sets:
            inside = np.isin(elements, field.element_sets[name])
        else:
            inside = np.isin(field.owners, field.places_of(name))
        if not inside.any():
            raise InputError(f"region {name}", "no stresses of its elements", "a set with elements that have stresses")
        found[inside] = number
    return found


def worst_rows(owners: IntArray, values: NodeValues) -> IntArray:
    """For each node its row with the largest damage; among equals the one with the largest stress, then the first."""
    peak = np.maximum(values.highest, -values.lowest)
    order = np.lexsort((np.arange(owners.size), -peak, -values.damage, owners))
    _, first = np.unique(owners[order], return_index=True)
    return np.asarray(order[first])


@opened()
def left_out(field: StressField, names: Sequence[str | int]) -> NDArray[np.bool_] | None:
    """Which nodes are not assessed, shape (n,), from numbers of nodes and names of sets; None where all are.

    Raises InputError for a set or a node that is not there, and where nothing would be left.
    """
    if isinstance(names, str) or not names:
        if names:
            raise InputError("whole model, leave_out", repr(names), "a list of sets or nodes")
        return None
    found = np.zeros(field.size, dtype=bool)
    for name in names:
        try:
            found[field.places_of(name) if isinstance(name, str) else field.place_of(name)] = True
        except InputError as error:
            where = f"{error.where}, leave_out"
            raise InputError(where, error.found, error.expected, error.remedy) from None
    if found.all():
        raise InputError("whole model, leave_out", "every node", "some that are assessed")
    return checks.read_only(found)


def _usual_chunk(executor: Executor | None, keep_in: str | Path | None) -> int:
    """How many nodes go over at once; where chunks are kept as many for every executor, so that another one may go on."""
    near = executor is None or isinstance(executor, (ThreadPoolExecutor, ProcessPoolExecutor))
    return CHUNK if near or keep_in is not None else FAR_CHUNK


def _chunks(region_of: IntArray, chunk: int, without: NDArray[np.bool_] | None) -> list[IntArray]:
    """Rows that go to a worker together: as many as `chunk`, all of one region, those left out in none."""
    chunks = []
    for number in np.unique(region_of):
        chosen = region_of == number
        rows = np.flatnonzero(chosen if without is None else chosen & ~without)
        chunks += [rows[i : i + chunk] for i in range(0, rows.size, chunk)]
    return chunks


def _directions(given: ArrayLike, size: int) -> FloatArray:
    found = checks.as_numbers("whole model, directions", given)
    if found.shape != (size, 3) or not (np.linalg.norm(found, axis=1) > 0.0).all():
        raise InputError("whole model, directions", f"shape {found.shape}", f"({size}, 3), none of length 0")
    return read_only(found)


def _in_turn(
    size: int, task: Callable[[int], Task], kept: KeptChunks | None, executor: Executor | None
) -> Iterator[tuple[int, NodeValues]]:
    """Chunks as they are finished; those kept from before first."""
    left = []
    for number in range(size):
        known = None if kept is None else kept.read(number)
        if known is None:
            left.append(number)
        else:
            yield number, NodeValues(**known)
    for number, values in _computed(left, task, executor):
        if kept is not None:
            kept.write(number, vars(values))
        yield number, values


def _computed(
    numbers: list[int], task: Callable[[int], Task], executor: Executor | None
) -> Iterator[tuple[int, NodeValues]]:
    if executor is None:
        for number in numbers:
            yield number, values_of(task(number))
        return
    waiting: dict[Future[NodeValues], int] = {}
    left = iter(numbers)
    while True:
        for number in itertools.islice(left, AHEAD - len(waiting)):
            waiting[executor.submit(values_of, task(number))] = number
        if not waiting:
            return
        finished, _ = wait(waiting, return_when=FIRST_COMPLETED)
        for future in finished:
            number = waiting.pop(future)
            yield number, _answer(future, task, number)


def _answer(future: Future[NodeValues], task: Callable[[int], Task], number: int) -> NodeValues:
    """The values of a chunk; computed here where the executor failed on its way, as with a worker lost while it answers."""
    try:
        return future.result()
    except (InputError, BrokenExecutor, CancelledError):
        raise
    except Exception:
        return values_of(task(number))
