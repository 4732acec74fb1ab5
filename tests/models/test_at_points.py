"""Stresses at points within a model, and structural stress from them: fields that the elements carry exactly."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.fields.models import LOADS, duty_of, spot
from vivid_anvil.fields import ThroughPath, ToePath, assess_model, structural_field
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import Elements, StressField, at_points, read_frd
from vivid_anvil.stress import toe_stress

CASES = ("vertical", "lateral", "weight")
CUBE = np.array([[x, y, z] for z in (0, 1) for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))], dtype=float)
SHAPES = {
    "hexahedron": (CUBE, [range(8)]),
    "wedge": (CUBE[[0, 1, 3, 4, 5, 7]], [range(6)]),
    "pyramid": (np.array([*CUBE[:4], [0.0, 0.0, 1.0]]), [range(5)]),
    "tetra": (CUBE[[0, 1, 3, 4]], [range(4)]),
    "quad": (CUBE[:4], [range(4)]),
    "triangle": (CUBE[[0, 1, 3]], [range(3)]),
}


def field_of_shape(kind, rule, stretch=(30.0, 20.0, 8.0)):
    """One element whose nodes carry `rule(x, y, z)`, shape (cases, n, 6)."""
    places, rows = SHAPES[kind]
    places = places * np.array(stretch)
    if kind == "tetra":  # second order
        kind, edges = "tetra10", ((0, 1), (1, 2), (0, 2), (0, 3), (1, 3), (2, 3))
        places = np.array([*places, *(0.5 * (places[i] + places[j]) for i, j in edges)])
        rows = [range(10)]
    elements = [Elements(kind, np.array([list(row) for row in rows]), np.array([1]))]
    ids = np.arange(len(places)) + 1
    return StressField(cases=CASES, node_ids=ids, coordinates=places, stresses=rule(places), elements=elements)


def straight(places):
    """Every component of every case another plane."""
    slopes = np.random.default_rng(1).normal(0.0, 2.0, (3, 6, 4))
    return np.einsum("kcd,nd->knc", slopes, np.column_stack([places, np.ones(len(places))]))


@settings(max_examples=30, deadline=None)
@given(st.sampled_from(sorted(SHAPES)), st.lists(st.floats(0.02, 0.98), min_size=3, max_size=3))
def test_a_straight_field_is_found_exactly_in_every_element(kind, shares):
    x, y, z = shares
    if kind in ("wedge", "tetra", "triangle", "pyramid"):
        total = x + y + z
        x, y, z = (one / max(total, 1.0) for one in (x, y, z))
    point = np.array([x, y, 0.0 if kind in ("quad", "triangle") else z]) * np.array([30.0, 20.0, 8.0])
    if kind == "pyramid":
        point[:2] *= 0.999
    found = at_points(field_of_shape(kind, straight), [point], names=["here"])
    assert found.stresses == pytest.approx(straight(point[None]), rel=1e-9, abs=1e-9)
    assert found.node_sets["here"].tolist() == [0]


def test_tetrahedra_of_second_order_carry_a_parabola():
    def parabola(places):
        x, y, z = places.T
        return np.stack([np.stack([x * x, y * z, x * y, z * z, x, y * y], axis=1)] * 3)

    point = np.array([[7.0, 5.0, 2.0]])
    assert at_points(field_of_shape("tetra", parabola), point).stresses == pytest.approx(parabola(point), rel=1e-9)


def test_a_point_outside_is_named():
    field = field_of_shape("hexahedron", straight)
    with pytest.raises(InputError, match=r"nearest node is 7, 5 mm away"):
        at_points(field, [[30.0, 20.0, 13.0]])
    bare = StressField(cases=CASES, node_ids=[1], coordinates=[[0, 0, 0]], stresses=np.zeros((3, 1, 6)))
    with pytest.raises(InputError, match="no elements with a shape"):
        at_points(bare, [[0.0, 0.0, 0.0]])


def test_a_toe_by_a_line_and_by_marked_nodes_is_the_rule_of_each_component():
    field = field_of_shape("hexahedron", straight)
    line = ToePath(name="a", rule="0.4t and 1.0t", thickness=8.0, toe=(1.0, 0.0, 4.0), along=(2.0, 0.0, 0.0))
    marked = ToePath(name="b", rule="5 and 15 mm", nodes=(1, 2))
    found = structural_field(field, [line, marked])
    weights = {"a": ([4.2, 9.0], [1.67, -0.67], 4.0), "b": ([5.0, 15.0], [1.5, -0.5], 0.0)}
    for i, (at, share, z) in enumerate(weights.values()):
        points = np.array([[x, 0.0, z] for x in at])
        assert found.stresses[:, i] == pytest.approx(np.einsum("n,knc->kc", share, straight(points)), rel=1e-9)
    assert found.coordinates.tolist() == [[1.0, 0.0, 4.0], [0.0, 0.0, 0.0]]
    result = assess_model(found, LOADS, duty_of(), spot())
    assert result.field.node_sets["b"].tolist() == [1]
    known = toe_stress([0.0, 30.0], field.stresses[0, [0, 1], 0], "5 and 15 mm")
    assert found.stresses[0, 1, 0] == pytest.approx(known)


def test_through_the_shank_of_the_demo_the_beam_is_found(demo_file):
    """Membrane of the pull and bending of the sideways force, by the section alone."""
    head = read_frd(
        demo_file.parent / "hanger_head.frd", stress_unit="MPa", length_unit="mm", cases=["vertical", "lateral"]
    )
    for y in (-60.0, -75.0, -85.0):
        right = ThroughPath(name="right", surface=(18.0, y, 0.0), other=(-18.0, y, 0.0))
        left = ThroughPath(name="left", surface=(-18.0, y, 0.0), other=(18.0, y, 0.0))
        along = structural_field(head, [right, left]).stresses[:, :, 1]
        bending = 2e3 * -y / (8.0 * 36.0**2 / 6.0)
        assert along[0] == pytest.approx([10e3 / (8.0 * 36.0)] * 2, rel=2e-3)
        assert along[1] == pytest.approx([-bending, bending], rel=2e-3)


LINE = {"name": "a", "rule": "4, 8 and 12 mm", "toe": (0.0, 0.0, 4.0), "along": (1.0, 0.0, 0.0)}
WRONG = {
    "no way": (lambda: ToePath(name="a", rule="5 and 15 mm"), "not one way"),
    "two ways": (lambda: ToePath(**LINE, nodes=(1, 2)), "not one way"),
    "another rule": (lambda: ToePath(**{**LINE, "rule": "0.4t"}), "Did you mean '0.4t and 1.0t'"),
    "no thickness": (lambda: ToePath(**{**LINE, "rule": "0.5t and 1.5t"}), "thickness"),
    "no direction": (lambda: ToePath(**{**LINE, "along": (0.0, 0.0, 0.0)}), "not all 0"),
    "off the model": (lambda: ToePath(**{**LINE, "along": (-1.0, 0.0, 0.0)}), "no element there"),
    "too short": (lambda: ToePath(name="a", rule="5 and 15 mm", nodes=(1, 5)), "a path from 0 to 8 mm"),
    "no length": (lambda: ThroughPath(name="a", surface=(1.0, 1.0, 1.0), other=(1.0, 1.0, 1.0)), "one place"),
}


@pytest.mark.parametrize(("path", "message"), WRONG.values(), ids=WRONG)
def test_paths_that_cannot_be_meant_are_named(path, message):
    with pytest.raises(InputError, match=message):
        structural_field(field_of_shape("hexahedron", straight), [path()])
