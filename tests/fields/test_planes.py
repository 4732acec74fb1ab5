"""Normal stress on planes: directions found are those that hand calculation gives."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.fields.models import LOADS, boxes, duty_of, field_of, spot
from vivid_anvil.fields import (
    assess_model,
    critical_planes,
    half_sphere,
    node_life,
    surface_directions,
    surface_normals,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import Elements
from vivid_anvil.stress.measures import NormalStress


@given(st.floats(4.0, 45.0))
def test_directions_of_the_half_sphere_stand_for_all_planes(step):
    """No two of them are nearly the same plane, and no plane is farther from one than a step."""
    found = half_sphere(step)
    assert np.linalg.norm(found, axis=1) == pytest.approx(1.0)
    rng = np.random.default_rng(1)
    any_plane = rng.normal(size=(200, 3))
    any_plane /= np.linalg.norm(any_plane, axis=1)[:, None]
    nearest = np.degrees(np.arccos(np.minimum(np.abs(any_plane @ found.T).max(axis=1), 1.0)))
    assert nearest.max() < step
    apart = np.abs(found @ found.T) - np.eye(len(found))
    assert math.degrees(math.acos(min(1.0, apart.max()))) > 0.3 * step


def test_the_critical_plane_is_never_better_than_any_plane_and_is_that_of_a_hot_spot():
    field = field_of(30)
    model = critical_planes(field, LOADS, duty_of(120), spot(), step_degrees=30.0)
    for direction in half_sphere(30.0)[::5]:
        how = NormalStress(tuple(direction))
        one = assess_model(field, LOADS, duty_of(120), spot(), measure=how)
        assert (model.damage_per_repeat >= one.damage_per_repeat).all()
    for node in field.node_ids[:10].tolist():
        at = field.place_of(node)
        assert node_life(model, node).damage_per_repeat == pytest.approx(model.damage_per_repeat[at], rel=1e-11)
    along_x = np.zeros((3, 30, 6))
    along_x[:2, :, 0] = 50.0
    pulled = critical_planes(field_of(30, stresses=along_x), LOADS, duty_of(120), spot(), step_degrees=30.0)
    assert np.abs(pulled.directions) == pytest.approx(np.tile([1.0, 0.0, 0.0], (30, 1)), abs=1e-12)


def test_normals_of_a_box_and_the_direction_of_largest_variation_on_it():
    points, cells = boxes()
    inside = field_of(12, coordinates=points, elements=[Elements("hexahedron", cells, np.array([1, 2]))])
    normals = surface_normals(inside)
    assert np.linalg.norm(normals, axis=1) == pytest.approx(1.0)
    outward = points - points.mean(axis=0)
    assert ((normals * outward).sum(axis=1) > 0.0).all()
    directions, places = surface_directions(inside, LOADS, duty_of(120), step_degrees=1.0)
    assert (places == np.arange(12)).all()
    assert np.abs(directions).min(axis=1).max() < 1e-12  # in one of the sides of the box
    units, loads = LOADS.units(inside), LOADS.events(duty_of(120))
    for i in (0, 5, 11):  # against a brute search over all directions of the sides that meet there
        sides = np.eye(3)[np.abs(normals[i]) > 0.1]
        best = max(np.ptp(_along(units[i], event.loads, side, 720), axis=0).max() for event in loads for side in sides)
        own = max(np.ptp(NormalStress(tuple(directions[i])).of(event.loads @ units[i])) for event in loads)
        assert own == pytest.approx(best, rel=2e-3)
    model = assess_model(inside, LOADS, duty_of(120), spot(), directions=directions)
    assert node_life(model, int(inside.node_ids[3])).damage_per_repeat == pytest.approx(
        model.damage_per_repeat[3], rel=1e-11
    )


def _along(unit, loads, normal, many):
    """Normal stress histories along `many` directions across the normal, written with full tensors."""
    first = np.linalg.svd(normal[None])[2][1]
    second = np.cross(normal, first)
    tensors = (loads @ unit)[:, [0, 3, 5, 3, 1, 4, 5, 4, 2]].reshape(-1, 3, 3)
    turns = np.linspace(0.0, math.pi, many, endpoint=False)
    looked = np.cos(turns)[:, None] * first + np.sin(turns)[:, None] * second
    return np.einsum("ki,nij,kj->nk", looked, tensors, looked)


def test_planes_that_cannot_be_meant_are_refused():
    for step in (0.0, 90.0):
        with pytest.raises(InputError, match="45 degrees"):
            half_sphere(step)
    for wrong in (np.zeros((20, 3)), np.ones((19, 3))):
        with pytest.raises(InputError, match="none of length 0"):
            assess_model(field_of(20), LOADS, duty_of(60), spot(), directions=wrong)
