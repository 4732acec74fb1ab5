"""Hand calculation of the stress at a node: from the loads of one moment to the tensor, and to the one stress that is counted."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from vivid_anvil.damage import worked_cycle
from vivid_anvil.fields.field_loads import EventLoads
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import node_history, node_life, node_stresses
from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.stress.measures.measure import shown_stress, stress_in
from vivid_anvil.units import DIMENSIONS, UnitSystem, coherent, display_unit, opened
from vivid_anvil.writing.working import Step, Working, put_in

ENDS = ("larger", "smaller")


class _Moment(NamedTuple):
    """Loads over unit loads at one sample of an event, and the time of it where it has one."""

    event: EventLoads
    loads: FloatArray
    time_s: float | None


@opened()
def stress_working(result: ModelResult, node: int, system: UnitSystem = "metric", *, end: str = "larger") -> Working:
    """Numbered steps for the stress at one end of a cycle at a node, the "larger" end in magnitude or the "smaller".

    The cycle is the one that the hand calculation of the node's life is about. Loads over unit loads, the components that they
    sum up to, and the stress that is counted. Raises InputError for a number that no node has.
    """
    one_of("stress working, end", end, ENDS)
    place = result.field.place_of(node)
    moment = _moment(result, place, ENDS.index(end))
    unit, constant = node_stresses(result, place)
    tensor = moment.loads @ unit + constant
    steps = [*_load_steps(result, moment), *_component_steps(result, moment, unit, constant, system)]
    steps += result.measure_at(place).steps(tensor, system)
    when = "" if moment.time_s is None else f" at {moment.time_s:.6g} s"
    chosen = "" if result.chosen is None else f" Of the stresses there that of {result.chosen[place]} counts."
    opening = f"One end of the cycle that is worked below, in {moment.event.name}{when}.{chosen}"
    factor = result.spot_at(place).notch_factor
    closing = "The other end comes in the same way." + (
        f" The notch factor {factor:g} is put in below." if factor > 1.0 else ""
    )
    return Working(f"Stress at node {node}, worked by hand", opening, tuple(steps), closing)


def _moment(result: ModelResult, place: int, end: int) -> _Moment:
    """The sample of an end of the cycle; where it is not known, the one at which the stress comes nearest to it."""
    life = node_life(result, int(result.field.node_ids[place]))
    factor = result.spot_at(place).notch_factor
    events = result.loads.events(result.duty_cycle)
    cycles = life.spectrum.cycles
    if not len(cycles):
        return _Moment(events[0], events[0].loads[0], None)
    cycle, _ = worked_cycle(life)
    stress = sorted((cycles.minimum[cycle] / factor, cycles.maximum[cycle] / factor), key=abs, reverse=True)[end]
    name = life.spectrum.sources[int(life.spectrum.event[cycle])].name
    among = [one for one in events if one.name == name] or events
    ends = [int(one[cycle]) for one in (cycles.start, cycles.end)]
    if len(among) == 1 and among[0].counts is None and min(ends) >= 0:
        history = node_history(result, place, among[0].loads)
        sample = min(ends, key=lambda at: abs(float(history[at]) - stress))
        return _Moment(among[0], among[0].loads[sample], _time(among[0], sample))
    off = [np.abs(node_history(result, place, one.loads) - stress) for one in among]
    best = int(np.argmin([float(one.min()) for one in off]))
    sample = int(off[best].argmin())
    found = among[best]
    return _Moment(found, found.loads[sample], _time(found, sample))


def _time(event: EventLoads, sample: int) -> float | None:
    """When a sample is, s; None where samples have no times."""
    return sample / event.sample_rate if event.counts is None and event.steps == "even" else None


def _load_steps(result: ModelResult, moment: _Moment) -> list[Step]:
    """Loads over unit loads of the cases that a channel scales."""
    steps = []
    dimensions = result.duty_cycle.dimensions
    for one, share in zip(result.loads.cases, moment.loads, strict=False):
        dimension = dimensions[one.channel]
        unit, name = coherent(one.unit_load, dimension, one.case), DIMENSIONS[dimension].coherent
        own = one.event_factors.get(moment.event.name, 1.0)
        load = float(share) * unit / own if own != 0.0 else 0.0
        times = "" if own == 1.0 else f" × {put_in(own)}"
        steps.append(
            Step(
                f"Load over unit load of the case {one.case}",
                "f = F / F_unit" + (" × factor of the event" if times else ""),
                f"{put_in(load)} {name} / {put_in(unit)} {name}{times}",
                float(share),
                "",
            )
        )
    return steps


def _component_steps(
    result: ModelResult, moment: _Moment, unit: FloatArray, constant: FloatArray, system: UnitSystem
) -> list[Step]:
    """Each component as the sum of its cases."""
    name = display_unit("stress", system)
    steps = []
    for i, component in enumerate(COMPONENTS):
        parts = [(put_in(float(f)), stress_in(unit[k, i], system)) for k, f in enumerate(moment.loads) if f != 0.0]
        terms = [f"{f} × {one} {name}" for f, one in parts]
        if result.loads.constant:
            terms.append(f"{stress_in(constant[i], system)} {name}")
        value = float(moment.loads @ unit[:, i] + constant[i])
        formula = f"σ_{component} = Σ f × σ_unit" + (" + σ_constant" if result.loads.constant else "")
        steps.append(
            Step(f"Component {component}", formula, " + ".join(terms) or "0", shown_stress(value, system), name)
        )
    return steps
