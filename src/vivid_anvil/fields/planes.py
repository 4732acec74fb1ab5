"""Normal stress on planes: on the surface in the direction of its largest variation, and on the plane that is damaged most."""

from __future__ import annotations

import dataclasses
import math
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.fields.model_result import ModelResult, NodeValues
from vivid_anvil.fields.whole_model import Watch, assess_model, left_out
from vivid_anvil.ground.checks import FloatArray, IntArray, one_of, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models.stress_field import Elements, StressField
from vivid_anvil.models.surface import outer_surface
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.directions import beside, half_sphere, step_of
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.relations import CaseLoads, LineLoads, ModeLoads
from vivid_anvil.units import one, opened

FINEST, AROUND = 0.5, 8  # degrees between planes in the end; planes around one that are looked at
USUAL_RANGE = 8.0  # of a vibration, in its rms: what stands beside the range of a history
SMOOTH = 0.94  # cosine of 20 degrees: faces that differ more meet at an edge


@opened()
def surface_normals(field: StressField) -> FloatArray:
    """Outward normals at the nodes of the surface, shape (n, 3), mean over its faces by area; nan inside of the model."""
    return normals_by_area(field, *faces_across(field))


def normals_by_area(field: StressField, faces: IntArray, across: FloatArray) -> FloatArray:
    """Unit normals at the nodes of faces, shape (n, 3), mean by area of what `faces_across` gives; nan at other nodes."""
    total = np.zeros((field.size, 3))
    for i in range(4):
        rows = np.ones(len(faces), dtype=bool) if i < 3 else faces[:, 2] != faces[:, 3]
        np.add.at(total, faces[rows, i], across[rows])
    length = np.linalg.norm(total, axis=1)
    return np.where(length[:, None] > 0.0, total / np.where(length > 0.0, length, 1.0)[:, None], np.nan)


def faces_across(field: StressField) -> tuple[IntArray, FloatArray]:
    """Outer faces, and the normal of each as long as twice its area."""
    faces, _ = outer_surface(field.elements)
    corners = field.coordinates[faces]
    across = np.cross(corners[:, 2] - corners[:, 0], corners[:, 3] - corners[:, 1])
    flat = faces[:, 2] == faces[:, 3]
    across[flat] = np.cross(corners[flat, 1] - corners[flat, 0], corners[flat, 2] - corners[flat, 0])
    return np.asarray(faces), np.asarray(across)


def _sides(field: StressField) -> dict[int, list[FloatArray]]:
    """Unit normals at each node of the surface: one where it is smooth, one for every side of an edge or a corner."""
    faces, across = faces_across(field)
    found: dict[int, list[FloatArray]] = {}
    order = np.argsort(-np.linalg.norm(across, axis=1), kind="stable")
    for face in order.tolist():
        for node in dict.fromkeys(faces[face].tolist()):
            sides = found.setdefault(node, [])
            for side in sides:
                if side @ across[face] > SMOOTH * np.linalg.norm(side) * np.linalg.norm(across[face]):
                    side += across[face]
                    break
            else:
                sides.append(across[face].copy())
    return {node: [side / np.linalg.norm(side) for side in sides if side.any()] for node, sides in found.items()}


@opened(step_degrees=one("angle", degrees=True))
def surface_directions(
    field: StressField, loads: CaseLoads | ModeLoads | LineLoads, duty_cycle: DutyCycle, *, step_degrees: float = 5.0
) -> tuple[FloatArray, np.ndarray]:
    """Directions in the surface along which the normal stress varies most in any event, and the places of the surface's nodes.

    Looked for every `step_degrees` around; at an edge or a corner on each of its sides. Directions have shape (m, 3).
    """
    if field.rows is not None:
        raise InputError(field.place, "several stresses at a node", "one: average, or take one face")
    sides = _sides(field)
    places = np.array(sorted(node for node, normals in sides.items() if normals))
    units = loads.units(field)[places]
    events = loads.events(duty_cycle)
    corners = [load_corners(event.loads) for event in events if not event.vibrates]  # straight: largest there
    squares = [event.mean_square for event in events if event.vibrates]
    around = np.radians(np.arange(0.0, 180.0, step_of(step_degrees)))
    found = np.empty((places.size, 3))
    for i, place in enumerate(places.tolist()):
        looked = np.concatenate([_within(normal, around) for normal in sides[place]])
        per_load = normal_weights(looked) @ units[i].T
        courses = [np.ptp(few @ per_load.T, axis=0) for few in corners]
        courses += [USUAL_RANGE * np.sqrt(np.einsum("dr,rs,ds->d", per_load, one, per_load)) for one in squares]
        ranges = np.max(courses, axis=0)
        found[i] = looked[int(ranges.argmax())]
    return read_only(found), places


def _within(normal: FloatArray, around: FloatArray) -> FloatArray:
    """Directions in the plane across `normal`, shape (k, 3)."""
    first = np.cross(normal, np.eye(3)[int(np.abs(normal).argmin())])
    first /= np.linalg.norm(first)
    second = np.cross(normal, first)
    return np.asarray(np.cos(around)[:, None] * first + np.sin(around)[:, None] * second)


@opened()
def surface_part(field: StressField) -> StressField:
    """The field at the nodes of its outer surface only: the faces there are its elements, its sets what they have there."""
    places = np.flatnonzero(np.isfinite(surface_normals(field)[:, 0]))
    new = np.full(field.size, -1)
    new[places] = np.arange(places.size)
    faces, _ = outer_surface(field.elements)
    three = faces[:, 2] == faces[:, 3]
    elements, first = [], 1
    for kind, rows in (("triangle", faces[three, :3]), ("quad", faces[~three])):
        if len(rows):
            elements.append(Elements(kind, new[rows], np.arange(first, first + len(rows))))
            first += len(rows)
    sets = {name: new[np.asarray(nodes)] for name, nodes in field.node_sets.items()}
    sets = {name: nodes[nodes >= 0] for name, nodes in sets.items()}
    return dataclasses.replace(field.part(places), node_sets=sets, elements=elements)


@opened(step_degrees=one("angle", degrees=True))
def critical_planes(
    field: StressField,
    loads: CaseLoads | ModeLoads | LineLoads,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    *,
    step_degrees: float = 15.0,
    watch: Watch | None = None,
    **settings: Any,
) -> ModelResult:
    """The model with the normal stress on the plane that is damaged most at each node.

    Planes about `step_degrees` apart first, then around the worst of each node until half a degree.

    `settings` are those of `assess_model`, `watch` is told how many planes are done. The `directions` of the result are the
    normals of those planes.
    """
    chosen = np.tile(np.array([0.0, 0.0, 1.0]), (field.size, 1))
    first, *others = half_sphere(step_degrees)

    def along(direction: FloatArray) -> ModelResult:
        every = np.tile(direction, (field.size, 1))
        return assess_model(field, loads, duty_cycle, spot, directions=every, **settings)

    if field.rows is not None:
        raise InputError(field.place, "several stresses at a node", "one: average, or take one face")
    result = along(first)
    best = result.values
    rounds = math.ceil(math.log2(step_degrees / FINEST)) if step_degrees > FINEST else 0
    of = len(others) + 1 + AROUND * rounds

    def tried(values: NodeValues, directions: FloatArray) -> None:
        nonlocal best
        more = values.damage > best.damage
        chosen[more] = directions[more]
        best = values.where(more, best)

    for number, direction in enumerate(others, 1):
        if watch is not None:
            watch("planes", number, of)
        tried(along(direction).values, np.tile(direction, (field.size, 1)))
    for turn in range(rounds):  # around the worst of each node, each time half as far
        middle = chosen.copy()
        for k in range(AROUND):
            if watch is not None:
                watch("planes", len(others) + 1 + turn * AROUND + k, of)
            near = beside(middle, step_degrees / 2.0 ** (turn + 1), 2.0 * math.pi * k / AROUND)
            tried(assess_model(field, loads, duty_cycle, spot, directions=near, **settings).values, near)
    return dataclasses.replace(result, values=best, directions=read_only(chosen))


PLANES = {
    "normal stress, surface": "along the direction in the surface in which it varies most; nodes of the surface only",
    "normal stress, critical plane": "on the plane that is damaged most, of all directions",
}


@opened()
def assess_planes(
    name: str,
    field: StressField,
    loads: CaseLoads | ModeLoads | LineLoads,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    **settings: Any,
) -> ModelResult:
    """The model with one of `PLANES`; `settings` are those of `assess_model`.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    field : StressField
        Stresses of a finite-element model.
    loads : CaseLoads
        How the loads of the duty cycle act on the load cases.
    duty_cycle : DutyCycle
        The events of one repeat.
    spot : HotSpot
        The place: material, method and notch factor.
    **settings : any
        Settings of `assess_model`.

    Returns
    -------
    ModelResult
        Damage, life and findings at every node.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> head = (model.field, model.loads, model.duty_cycle, model.spot)  # of the demo, as `model`
    >>> assess_planes("normal stress, surface", *head)
    <ModelResult 4164 nodes: 4.932 years at node 295>
    """
    one_of("stress measure", name, tuple(PLANES))
    if name == "normal stress, critical plane":
        return critical_planes(field, loads, duty_cycle, spot, **settings)
    outer = surface_part(field)
    directions, _ = surface_directions(outer, loads, duty_cycle)
    out = left_out(field, settings.pop("leave_out", ()))
    if out is not None:
        settings["leave_out"] = np.intersect1d(field.node_ids[out], outer.node_ids).tolist()
    return assess_model(outer, loads, duty_cycle, spot, directions=directions, **settings)
