"""One node of a model as a hot spot of its own: everything that a study's hot spot has, hand calculation included."""

from __future__ import annotations

import dataclasses
from typing import NamedTuple

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.model_result import NO_EVENT, ModelResult
from vivid_anvil.fields.trust import Trust, principal_direction, trust_of
from vivid_anvil.findings import Finding
from vivid_anvil.histories import Channel, Cycles, DutyCycle, Event, LoadHistory, rainflow

CHANNEL = "stress"
COARSE = 0.1  # of the largest von Mises stress


def node_life(result: ModelResult, node: int) -> LifeResult:
    """The life at a node, by its number, as that of a hot spot whose history is the counted stress at the node.

    Raises InputError for a number that no node has.
    """
    place = result.field.place_of(node)
    events = []
    for event in result.loads.events(result.duty_cycle):
        history = LoadHistory(
            event.name, (Channel(CHANNEL, node_history(result, place, event.loads), "stress"),), event.sample_rate
        )
        events.append(Event(event.name, history, event.occurrences))
    duty = DutyCycle(result.duty_cycle.repeat, tuple(events), result.duty_cycle.repeats_per_year)
    spot = dataclasses.replace(
        result.spot_at(place), name=f"node {node}", channel=CHANNEL, stress_per_load="1", offset=0.0
    )
    return assess_life(spot, duty, target=result.target_repeats)


def node_tensors(result: ModelResult, node: int) -> dict[str, FloatArray]:
    """The stress tensors at a node over each event, shape (samples, 6), MPa, without the notch factor."""
    place = result.field.place_of(node)
    unit, constant = _unit(result, place)
    return {event.name: event.loads @ unit + constant for event in result.loads.events(result.duty_cycle)}


def node_trust(result: ModelResult, node: int) -> tuple[Trust, tuple[Finding, ...]]:
    """How far one stress can stand for the tensor at a node, over all events; and what an expert says of it."""
    found = trust_of(np.concatenate(list(node_tensors(result, node).values())))
    return found, trust_findings(result, node, found)


def trust_findings(result: ModelResult, node: int, found: Trust) -> tuple[Finding, ...]:
    """What an expert says of a node whose stresses do not move in step, or whose elements disagree."""
    findings = []
    if not found.proportional:
        findings.append(
            Finding(
                "warning",
                "not-proportional",
                f"At node {node} the components of the stress do not move in step: {found.off_line:.0%} off a straight line.",
                "One stress does not tell the damage there: directions turn. Look at it by planes, or by a multiaxial criterion.",
            )
        )
    spread = result.field.spread
    apart = 0.0 if spread is None else float(spread[result.field.place_of(node)])
    if apart > COARSE:
        findings.append(
            Finding(
                "warning",
                "mesh-coarse",
                f"At node {node} the elements disagree by {apart:.0%} of the largest stress; their mean was taken.",
                "Refine the mesh there, or take the worst element.",
            )
        )
    return tuple(findings)


class WorstCycle(NamedTuple):
    """The cycle that does most damage at a node, of `event`: stresses, MPa, with the notch factor, and when it turns, s.

    `direction` is that of the principal stress of largest magnitude at the larger end: a crack opens along it.
    """

    event: str
    lowest_MPa: float
    highest_MPa: float
    from_s: float
    to_s: float
    share_of_damage: float
    direction: tuple[float, float, float]


def worst_cycle(result: ModelResult, place: int) -> WorstCycle:
    """The worst cycle of the worst event at the node that stands at `place`; without damage the one with the largest range."""
    spot, worst = result.spot_at(place), int(result.values.worst_event[place])
    events = result.loads.events(result.duty_cycle)
    counted = [(event, node_history(result, place, event.loads)) for event in events]
    if worst == NO_EVENT:
        worst = int(np.argmax([np.ptp(history) for _, history in counted]))
    event, history = counted[worst]
    found = rainflow(history, residue="repeated")
    if not len(found):
        still = spot.notch_factor * float(history[0])
        return WorstCycle(event.name, still, still, 0.0, 0.0, 0.0, (0.0, 0.0, 0.0))
    local = Cycles(range=spot.notch_factor * found.range, mean=spot.notch_factor * found.mean, count=found.count)
    spectrum = Spectrum.of_cycles(spot, local, np.full(len(found), event.occurrences))
    damage = spectrum.damage()
    at = int(damage.argmax() if damage.any() else local.range.argmax())
    ends = int(found.start[at]), int(found.end[at])
    unit, constant = _unit(result, place)
    larger = max(ends, key=lambda sample: abs(float(history[sample])))
    total = float(result.values.damage[place])
    return WorstCycle(
        event.name,
        float(local.minimum[at]),
        float(local.maximum[at]),
        ends[0] / event.sample_rate,
        ends[1] / event.sample_rate,
        float(damage[at]) / total if total > 0.0 else 0.0,
        principal_direction(event.loads[larger] @ unit + constant),
    )


def _unit(result: ModelResult, place: int) -> tuple[FloatArray, FloatArray]:
    one = result.field.part(np.array([place]))
    return result.loads.units(one)[0], result.loads.constants(one)[0]


def node_history(result: ModelResult, place: int, loads: FloatArray) -> FloatArray:
    """The counted stress, MPa, at the node that stands at `place`, without the notch factor; `loads`, shape (samples, cases)."""
    unit, constant = _unit(result, place)
    history = np.empty(loads.shape[0])
    how = result.measure_at(place)
    kernels.stress_history(how.code, how.along, unit, constant, loads, history)
    return history
