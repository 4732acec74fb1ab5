"""One node of a model as a hot spot of its own: everything that a study's hot spot has, hand calculation included."""

from __future__ import annotations

import dataclasses

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.measures import Trust, trust_of
from vivid_anvil.fields.whole_model import ModelResult
from vivid_anvil.findings import Finding
from vivid_anvil.histories import Channel, DutyCycle, Event, LoadHistory

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
    spot = dataclasses.replace(result.spot, name=f"node {node}", channel=CHANNEL, stress_per_load="1", offset=0.0)
    return assess_life(spot, duty, target=result.target_repeats)


def node_tensors(result: ModelResult, node: int) -> dict[str, FloatArray]:
    """The stress tensors at a node over each event, shape (samples, 6), MPa, without the notch factor."""
    place = result.field.place_of(node)
    unit, constant = _unit(result, place)
    return {event.name: event.loads @ unit + constant for event in result.loads.events(result.duty_cycle)}


def node_trust(result: ModelResult, node: int) -> tuple[Trust, tuple[Finding, ...]]:
    """How far one stress can stand for the tensor at a node, over all events; and what an expert says of it."""
    found = trust_of(np.concatenate(list(node_tensors(result, node).values())))
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
    return found, tuple(findings)


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
