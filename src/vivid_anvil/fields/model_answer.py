"""What a model answers: its worst places with their reserves, its paths, findings; and what is told of them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.damage import LifeResult
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.fields.endless_nodes import EndlessNodes, endless_life_of_nodes
from vivid_anvil.fields.hottest import HotPlace, hottest_places, neighbours_within
from vivid_anvil.fields.model_findings import model_findings
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import WorstCycle, node_life
from vivid_anvil.fields.places_tables import RESERVES, doings_table, paths_table, places_table
from vivid_anvil.fields.reserves import reserves_on_stress
from vivid_anvil.ground.checks import one_of
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import UnitSystem, coherent, in_unit, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Working

MOST_CASES = 8  # told by their names


@dataclass(frozen=True, eq=False, repr=False)
class ModelAnswer(Result):
    """The worst places of an assessed model, the worst first, each with its reserve; `paths` is the answer at its paths.

    `apart`, mm, is how far places are apart; `reserve_on` is "stress", "life" or "none". `life` is that of the worst place
    that does not fail at once, as of a hot spot.
    """

    name: str
    result: ModelResult
    measure: str
    places: tuple[HotPlace, ...]
    reserves: tuple[float | None, ...]
    reserve_on: str
    apart: float
    findings: tuple[Finding, ...]
    life: LifeResult | None = None
    paths: ModelAnswer | None = None
    endless: EndlessNodes | None = None

    @property
    def counts(self) -> str:
        """What its cycles are of: stress, or the energy density of rubber."""
        return self.result.spot.assessed_by.counts

    @property
    def title(self) -> str:
        """The name of the study."""
        return self.name

    @classmethod
    def overview(cls, results: Sequence[ModelAnswer]) -> Table:
        """A row a model: nodes, measure, the shortest life of its nodes."""
        models = [result.result for result in results]
        lives = [float(model.life_repeats[model.worst]) for model in models]
        columns = (
            Column("title", [result.name for result in results]),
            Column("nodes", [model.field.size for model in models]),
            Column("nodes counted", [int(model.values.counted.sum()) for model in models]),
            Column("measure", [result.measure for result in results]),
            Column("worst node", [int(model.field.node_ids[model.worst]) for model in models]),
            *life_columns(lives, [model.duty_cycle.calendar for model in models], name="shortest life"),
        )
        return Table("", columns, "models")

    def words(self, units: UnitSystem) -> Words:
        """What was assessed, and the worst cycle of the worst place."""
        told = [*_facts(self.result, self.measure)]
        if not self.places:
            told.append("No place is as bad as asked for.")
        else:
            told += worst_cycle_words(self.places[0], units, self.counts)
        if self.life is not None:
            told += self.life.method.at_a_place(self.life, units)
        return tuple(("", line) for line in told)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The worst places, what happens there, criteria for endless life, the paths."""
        calendar = self.result.duty_cycle.calendar
        tables = [places_table(self.places, self.reserves, self.reserve_on, calendar, units, self.counts)]
        if self.places:
            tables.append(doings_table(self.places, self.apart, units, self.counts))
        if self.endless is not None:
            tables.append(self.endless.table)
        if self.paths is not None:
            tables.append(paths_table(self.paths.places, self.paths.reserves, self.reserve_on, calendar))
        return tuple(tables)

    def working(self, units: UnitSystem = "metric") -> Working:
        """The life of the worst place that does not fail at once."""
        return super().working(units) if self.life is None else self.life.working(units)

    def __repr__(self) -> str:
        return f"<ModelAnswer {self.name}: {len(self.places)} places, {self.result!r}>"


@opened()
def model_answer(
    result: ModelResult,
    name: str = "model",
    *,
    measure: str | None = None,
    most: int = 8,
    apart: float | str | None = None,
    reserve_on: str = "stress",
    paths: ModelResult | None = None,
    **chosen: Any,
) -> ModelAnswer:
    """The `most` worst places of `result`, with reserves and findings; `chosen` goes to `hottest_places`.

    `measure` says what was counted where that is not the measure of the result, as for planes. `paths` is the result at the paths
    of the study, all of which are told.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    name : str, default "model"
        What it is called in messages, tables and reports.
    measure : str, optional
        The stress that is counted: one of `MEASURES`, or its name.
    most : int, default 8
        How many at most.
    apart : float or str, optional
        Nodes nearer than this to a worse one belong to its place, mm; by default by the mesh.
    reserve_on : str, default "stress"
        What the reserve factors are on: one of `RESERVES`.
    paths : ModelResult, optional
        Where a structural stress is taken.
    **chosen : any
        Further settings of `hottest_places`.

    Returns
    -------
    ModelAnswer
        Tables, reserves and findings of the worst places.

    Raises
    ------
    InputError
        For an unknown kind of reserve.

    Examples
    --------
    >>> model_answer(model, most=3)  # of the demo: run_model(read_study("hanger_head.toml"))
    <ModelAnswer model: 3 places, <ModelResult 7522 nodes: 17.78 years at node 2613>>
    """
    one_of("model answer, reserve_on", reserve_on, tuple(RESERVES))
    distance = neighbours_within(result.field) if apart is None else coherent(apart, "length", "model answer, apart")
    places = hottest_places(result, most, apart=distance, **chosen)
    findings = model_findings(result, places)
    lasting = next(
        (place for place in places if place.life_repeats > 0.0), None
    )  # one that fails at once has no working
    life = None if lasting is None else node_life(result, lasting.node)
    if life is not None:
        findings = gravest_first((*findings, *life.findings))
    at_paths = None
    if paths is not None:
        found = hottest_places(paths, paths.field.size, apart=0.0)
        kept = _reserves(paths, found, reserve_on)
        at_paths = ModelAnswer(name, paths, paths.measure.label, tuple(found), kept, reserve_on, 0.0, ())
    reserves = _reserves(result, places, reserve_on)
    counted = result.measure.label if measure is None else measure
    return ModelAnswer(
        name,
        result,
        counted,
        tuple(places),
        reserves,
        reserve_on,
        distance,
        tuple(findings),
        life,
        at_paths,
        endless_life_of_nodes(result),
    )


def _reserves(result: ModelResult, places: Sequence[HotPlace], kind: str) -> tuple[float | None, ...]:
    if result.target_repeats is None or kind == "none":
        return (None,) * len(places)
    if kind == "life":
        return tuple(place.life_repeats / result.target_repeats for place in places)
    at = [result.field.place_of(place.node) for place in places]
    return tuple(reserves_on_stress(result, at).tolist()) if at else ()


def _facts(result: ModelResult, measure: str) -> list[str]:
    """What was assessed."""
    field, spot = result.field, result.spot
    counted = int(result.values.counted.sum()) + (0 if result.left_out is None else int(result.left_out.sum()))
    told = "" if spot.assessed_by.tensors else f"; measure: {measure}"
    lines = [
        f"{field.size} nodes of {field.source}; {_cases(field)}{told}.",
        f"{_notch(spot)}{spot.assessed_by.words}. {field.size - counted} nodes shown to be harmless without counting.",
    ]
    for number_of, (name, own) in enumerate(result.regions):
        many = 0 if result.region_of is None else int((result.region_of == number_of).sum())
        lines.append(f"{many} nodes of {name}: {_notch(own)}{own.assessed_by.words}.")
    if result.left_out is not None:
        lines.append(f"{int(result.left_out.sum())} nodes are left out of the assessment, as the study says.")
    if result.chosen is not None:
        lines.append("Of the stresses at a node the one with the largest damage counts.")
    return lines


def _cases(field: StressField) -> str:
    """The load cases by their names, of many how many."""
    if field.dimension == "strain":
        return f"{len(field.cases)} states of strain"
    told = ", ".join(field.cases[:MOST_CASES])
    more = len(field.cases) - MOST_CASES
    return f"load cases {told}" + (f" and {more} more" if more > 0 else "")


def _notch(spot: HotSpot) -> str:
    """The notch factor, where the method takes one."""
    return f"Kf = {spot.notch_factor:g}, " if spot.assessed_by.takes == "stresses" else ""


def worst_cycle_words(place: HotPlace, units: UnitSystem, of: str = "stress") -> list[str]:
    """The worst cycle of a place, in words."""
    cycle = place.worst_cycle
    low, high = (in_unit(value, of, units) for value in (cycle.lowest_MPa, cycle.highest_MPa))
    x, y, z = (one + 0.0 for one in cycle.direction)
    share = f", {cycle.share_of_damage:.1%} of the damage" if cycle.share_of_damage > 0.0 else ""
    if cycle.on_plane:
        return [
            f"Worst cycle at node {place.node}: in {cycle.event}{_when(cycle)}{share}, on the plane whose normal is "
            f"({x:.2f}, {y:.2f}, {z:.2f}). Biaxiality {place.biaxiality:.2f}."
        ]
    head = f"Worst cycle at node {place.node}: {low} to {high} in {cycle.event}{_when(cycle)}{share}."
    if math.isnan(place.biaxiality):  # no stresses of the part
        return [head]
    return [
        head,
        f"Its principal stress lies along ({x:.2f}, {y:.2f}, {z:.2f}): a crack opens that way. "
        f"Biaxiality {place.biaxiality:.2f}.",
    ]


def _when(cycle: WorstCycle) -> str:
    """When the cycle turns, where its load has a course in time."""
    if cycle.from_s is None or cycle.to_s is None or math.isnan(cycle.from_s):
        return ""
    return f", turns at {cycle.from_s:.6g} s and {cycle.to_s:.6g} s"
