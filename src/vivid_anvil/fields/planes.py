"""Normal stress on planes: on the surface in the direction of its largest variation, and on the plane that is damaged most."""

from __future__ import annotations

import dataclasses
import math
from typing import Any

import numpy as np

from vivid_anvil.checks import FloatArray, read_only, real_number
from vivid_anvil.errors import InputError
from vivid_anvil.fields.field_loads import FieldLoads
from vivid_anvil.fields.measures import normal_weights
from vivid_anvil.fields.model_result import ModelResult, NodeValues
from vivid_anvil.fields.stress_field import StressField
from vivid_anvil.fields.surface import outer_surface
from vivid_anvil.fields.whole_model import assess_model
from vivid_anvil.histories import DutyCycle
from vivid_anvil.stress import HotSpot


def surface_normals(field: StressField) -> FloatArray:
    """Outward normals at the nodes of the surface, shape (n, 3), mean over its faces by area; nan inside of the model."""
    faces, _ = outer_surface(field.elements)
    corners = field.coordinates[faces]
    across = np.cross(corners[:, 2] - corners[:, 0], corners[:, 3] - corners[:, 1])
    flat = faces[:, 2] == faces[:, 3]
    across[flat] = np.cross(corners[flat, 1] - corners[flat, 0], corners[flat, 2] - corners[flat, 0])
    total = np.zeros((field.size, 3))
    for i in range(4):
        rows = np.ones(len(faces), dtype=bool) if i < 3 else ~flat
        np.add.at(total, faces[rows, i], across[rows])
    length = np.linalg.norm(total, axis=1)
    return np.where(length[:, None] > 0.0, total / np.where(length > 0.0, length, 1.0)[:, None], np.nan)


def surface_directions(
    field: StressField, loads: FieldLoads, duty_cycle: DutyCycle, *, step_degrees: float = 5.0
) -> tuple[FloatArray, np.ndarray]:
    """Directions in the surface along which the normal stress varies most in any event, and the places of the surface's nodes.

    Looked for every `step_degrees` around. Directions have shape (m, 3), as the places.
    """
    if field.rows is not None:
        raise InputError(f"stress field {field.source}", "several stresses at a node", "one: average, or take one face")
    normals = surface_normals(field)
    places = np.flatnonzero(np.isfinite(normals[:, 0]))
    units = loads.units(field)[places]
    events = loads.events(duty_cycle)
    around = np.radians(np.arange(0.0, 180.0, _step(step_degrees)))
    found = np.empty((places.size, 3))
    for i, normal in enumerate(normals[places]):
        first = np.cross(normal, np.eye(3)[int(np.abs(normal).argmin())])
        first /= np.linalg.norm(first)
        second = np.cross(normal, first)
        looked = np.cos(around)[:, None] * first + np.sin(around)[:, None] * second
        per_load = np.array([normal_weights(one) for one in looked]) @ units[i].T
        ranges = np.max([np.ptp(event.loads @ per_load.T, axis=0) for event in events], axis=0)
        found[i] = looked[int(ranges.argmax())]
    return read_only(found), places


def half_sphere(step_degrees: float = 15.0) -> FloatArray:
    """Directions about `step_degrees` apart that stand for all planes, shape (k, 3).

    >>> half_sphere(30.0).shape
    (23, 3)
    """
    step, found = _step(step_degrees), [(0.0, 0.0, 1.0)]
    rings = max(1, round(90.0 / step))
    for ring in range(1, rings + 1):
        polar = 0.5 * math.pi * ring / rings
        whole = math.pi if ring == rings else 2.0 * math.pi  # at the equator opposite directions are the same plane
        places = max(1, round(math.degrees(whole) * math.sin(polar) / step))
        for k in range(places):
            turn = whole * k / places
            found.append((math.sin(polar) * math.cos(turn), math.sin(polar) * math.sin(turn), math.cos(polar)))
    return np.array(found)


def critical_planes(
    field: StressField,
    loads: FieldLoads,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    *,
    step_degrees: float = 15.0,
    **settings: Any,
) -> ModelResult:
    """The model with the normal stress on the plane that is damaged most at each node, planes about `step_degrees` apart.

    `settings` are those of `assess_model`. Its `directions` are the normals of those planes.
    """
    chosen = np.tile(np.array([0.0, 0.0, 1.0]), (field.size, 1))
    first, *others = half_sphere(step_degrees)

    def along(direction: FloatArray) -> ModelResult:
        every = np.tile(direction, (field.size, 1))
        return assess_model(field, loads, duty_cycle, spot, directions=every, **settings)

    if field.rows is not None:
        raise InputError(f"stress field {field.source}", "several stresses at a node", "one: average, or take one face")
    result = along(first)
    best = result.values
    for direction in others:
        values = along(direction).values
        more = values.damage > best.damage
        chosen[more] = direction
        names = [one.name for one in dataclasses.fields(NodeValues)]
        best = NodeValues(*(np.where(more, getattr(values, name), getattr(best, name)) for name in names))
    return dataclasses.replace(result, values=best, directions=read_only(chosen))


def _step(degrees: float) -> float:
    step = real_number("planes, step_degrees", degrees)
    if not 0.0 < step <= 45.0:
        raise InputError("planes, step_degrees", f"{step:g}", "an angle above 0 and up to 45 degrees")
    return step
