"""What loads by coordinates over frequency share: unit stresses, events, a place's relation."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.components import SuperposedComponents
from vivid_anvil.spectra.responses.coordinates import Coordinates
from vivid_anvil.spectra.responses.in_time import in_time
from vivid_anvil.stress.relations.case_loads import EventLoads, StressesByCase
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY, VibratingEvent


def units_of(stresses: StressesByCase, moving: tuple[str, ...]) -> FloatArray:
    """Stresses of the cases that move, shape (rows, cases, 6); those of a large model as they stand, not twice."""
    whole: FloatArray | None = getattr(stresses, "stresses", None)
    if whole is not None and getattr(stresses, "rows", None) is None and moving == tuple(stresses.cases):
        return np.moveaxis(whole, 0, 1)
    return np.moveaxis(np.array([stresses.assessed(name) for name in moving]), 0, 1)


def constants_of(stresses: StressesByCase, constant: Mapping[str, float]) -> FloatArray:
    """What is there all the time, shape (rows, 6), MPa."""
    total = np.zeros((stresses.owners.size, 6))
    for name, factor in constant.items():
        total += float(factor) * stresses.assessed(name)
    return total


def events_of(source: Coordinates, duty_cycle: DutyCycle) -> list[Any]:
    """Every event of the duty cycle: coordinates in time, or over frequency."""
    how = duty_cycle.expected_cycles, duty_cycle.expected_slope
    found: list[Any] = []
    for event, often in duty_cycle.flat():
        load = event.load.in_time()
        if not set(source.channels) & set(load.dimensions):
            there = f"channels {listed(load.dimensions)}"
            raise InputError(f"event {event.name}", there, f"one of {listed(source.channels)}")
        if load.gives & OVER_FREQUENCY:
            found.append(VibratingEvent(event.name, often, load, source, *how))
        else:
            found.append(_of_history(source, event.name, load, often))
    return found


def _of_history(source: Coordinates, name: str, load: Load, often: float) -> EventLoads:
    """Coordinates of a history, by its Fourier transform, as one that repeats."""
    kinds = load.dimensions
    inputs = {one: kinds[one] for one in source.channels if one in kinds}
    if "samples" not in load.gives or load.samples().steps != "even":
        raise InputError(
            inside(f"event {name}", "load"),
            f"a {type(load).__name__}, which says nothing of frequencies",
            "a history sampled evenly, a random event, or a sine",
        )
    course = load.samples()
    values = np.stack([course.channel(one).values for one in inputs])
    through = in_time(values, course.sample_rate, lambda frequency: source.coordinates(frequency, inputs))
    loads = np.ascontiguousarray(through.T)
    return EventLoads(name, often, loads, course.sample_rate, steps=course.steps, passes=course.passes)


def place_of(source: Coordinates, unit: FloatArray, constant: FloatArray, measure: Any) -> VibratingComponents:
    """How the inputs become the counted stress at a place with these unit stresses and constant ones."""
    return VibratingComponents(response=SuperposedComponents(source, unit), constant=constant, measure=measure)
