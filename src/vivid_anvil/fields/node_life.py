"""One node of a model as a hot spot of its own: everything that a study's hot spot has, hand calculation included."""

from __future__ import annotations

import dataclasses
import math
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.damage.spectrum import spectrum
from vivid_anvil.events import DutyCycle
from vivid_anvil.fields.model_result import NO_EVENT, ModelResult
from vivid_anvil.fields.proportionality import principal_direction
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress import HotSpot, Relation
from vivid_anvil.units import opened


@opened()
def node_life(result: ModelResult, node: int) -> LifeResult:
    """The life at a node, by its number, as that of a hot spot whose history is the counted stress at the node.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    node : int
        Number of the node.

    Returns
    -------
    LifeResult
        The life with its findings, working, tables.

    Raises
    ------
    InputError
        For a number that no node has.

    Examples
    --------
    >>> node_life(model, 2613)  # of the demo: run_model(read_study("hanger_head.toml"))
    <LifeResult node 2613: life 355603 laps = 17.78 years, fails the target, 2 findings>
    """
    place = result.field.place_of(node)
    return assess_life(spot_there(result, place, f"node {node}"), result.duty_cycle, target=result.target_repeats)


def spot_there(result: ModelResult, place: int, name: str) -> HotSpot:
    """The hot spot at the node that stands at `place`, under a name: the model's, with the relation of the node."""
    unit, constant = node_stresses(result, place)
    return dataclasses.replace(result.spot_at(place), name=name, relation=relation_at(result, place, unit, constant))


def relation_at(result: ModelResult, place: int, unit: FloatArray, constant: FloatArray) -> Relation:
    """How loads become the counted stress at the node that stands at `place`."""
    found: Relation = result.loads.relation_at(unit, constant, result.measure_at(place))
    return found


@opened()
def node_tensors(result: ModelResult, node: int) -> dict[str, FloatArray]:
    """The stress tensors at a node over each event, shape (samples, 6), MPa, without the notch factor.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    node : int
        Number of the node.

    Returns
    -------
    dict[str, ndarray]
        Tensors, MPa, shape (samples, 6), by the name of the event.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> tensors = node_tensors(model, 2613)  # of the demo: run_model(read_study("hanger_head.toml"))
    >>> {event: values.shape for event, values in tensors.items()}
    {'lap': (12000, 6)}
    """
    place = result.field.place_of(node)
    unit, constant = node_stresses(result, place)
    return {event.name: event.loads @ unit + constant for event in in_time(result)}


class WorstCycle(NamedTuple):
    """The cycle that does most damage at a node: stresses, MPa, with the notch factor, and when it turns, s, if that is known.

    `direction` is that of the principal stress of largest magnitude at the larger end, along which a crack opens; where
    planes are looked at the normal of the worst one, and then `on_plane` is True.
    """

    event: str
    lowest_MPa: float
    highest_MPa: float
    from_s: float | None
    to_s: float | None
    share_of_damage: float
    direction: tuple[float, float, float]
    on_plane: bool = False


@opened()
def worst_cycle(result: ModelResult, place: int) -> WorstCycle:
    """The worst cycle of the worst event at the node that stands at `place`; without damage the one with the largest range."""
    spot, duty = spot_there(result, place, "a node"), dataclasses.replace(result.duty_cycle)
    cycles = spectrum(spot, duty)
    worst = int(result.values.worst_event[place])
    damage = cycles.damage()
    weight = damage if worst != NO_EVENT else cycles.cycles.range
    among = np.flatnonzero(cycles.event == worst) if worst != NO_EVENT else np.arange(len(cycles.cycles))
    if not among.size:
        still = result.spot_at(place).notch_factor * float(node_history(result, place, _loads(result)[:1])[0])
        return WorstCycle("none", still, still, None, None, 0.0, (0.0, 0.0, 0.0))
    at = int(among[weight[among].argmax()])
    source = cycles.sources[int(cycles.event[at])]
    low, high = float(cycles.cycles.minimum[at]), float(cycles.cycles.maximum[at])
    rate = source.cycles.sample_rate
    first, last = (int(ends[at]) for ends in (cycles.cycles.start, cycles.cycles.end))
    timed = rate is not None and first >= 0 and last >= 0
    opening = _opening(spot, duty)
    return WorstCycle(
        source.name,
        low,
        high,
        first / rate if timed and rate else None,
        last / rate if timed and rate else None,
        _share(damage, at),
        opening or _direction(result, place, max(low, high, key=abs) / spot.notch_factor),
        opening is not None,
    )


def _share(damage: FloatArray, at: int) -> float:
    """The share of one cycle; of those that fail the part at once each the same."""
    total, mine = float(damage.sum()), float(damage[at])
    if math.isinf(total):
        return 1.0 / int(np.isinf(damage).sum()) if math.isinf(mine) else 0.0
    return mine / total if total > 0.0 else 0.0


def _opening(spot: HotSpot, duty_cycle: DutyCycle) -> tuple[float, float, float] | None:
    """The normal of the plane that the method finds worst, its largest part positive; None where it knows none."""
    normal = spot.assessed_by.opens_along(spot, duty_cycle)
    if normal is None:
        return None
    x, y, z = (normal if normal[int(np.abs(normal).argmax())] > 0.0 else -normal).tolist()
    return x, y, z


def _direction(result: ModelResult, place: int, stress: float) -> tuple[float, float, float]:
    """The principal direction where the counted stress at a node comes nearest to `stress`; none without a course in time."""
    if not in_time(result) or result.field.dimension == "section loads":  # no tensor of a place
        return (0.0, 0.0, 0.0)
    loads = _loads(result)
    unit, constant = node_stresses(result, place)
    nearest = int(np.abs(node_history(result, place, loads) - stress).argmin())
    return principal_direction(loads[nearest] @ unit + constant)


def _loads(result: ModelResult) -> FloatArray:
    return np.concatenate([event.loads for event in in_time(result)])


def in_time(result: ModelResult) -> list[Any]:
    """The events that have a course in time."""
    return [event for event in result.loads.events(result.duty_cycle) if not event.vibrates]


def node_stresses(result: ModelResult, place: int) -> tuple[FloatArray, FloatArray]:
    """Unit stresses of the cases that change, shape (cases, 6), and what is always there, (6,), at the node at `place`, MPa."""
    one = result.field.bare_part(np.array([place]))
    return result.loads.units(one)[0], result.loads.constants(one)[0]


def node_history(result: ModelResult, place: int, loads: FloatArray) -> FloatArray:
    """The counted stress, MPa, at the node that stands at `place`, without the notch factor; `loads`, shape (samples, cases)."""
    unit, constant = node_stresses(result, place)
    return result.measure_at(place).history(unit, constant, loads)
