"""The outer surface of a model, and what the eye sees of it."""

import dataclasses
import math

import numpy as np
import pytest

from tests.field_values import model_of
from tests.fields.models import LOADS, duty_of, field_of, spot
from vivid_anvil.fields import ModelView, assess_model
from vivid_anvil.figures.banded import bands
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import Elements, outer_surface
from vivid_anvil.models.surface import MIDDLES, SOLIDS

CORNERS = {
    "tetra": [[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]],
    "hexahedron": [[0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0], [0, 0, 1], [1, 0, 1], [1, 1, 1], [0, 1, 1]],
    "wedge": [[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 0, 1], [0, 1, 1]],
    "pyramid": [[0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0], [0.5, 0.5, 1]],
}
VOLUMES = {"tetra": 1 / 6, "hexahedron": 1.0, "wedge": 0.5, "pyramid": 1 / 3}


def enclosed(points, faces):
    """Volume inside, by the faces turned outwards (Gauss): a quadrilateral as two triangles."""
    corners = points[faces]
    total = 0.0
    for a, b, c in ((0, 1, 2), (0, 2, 3)):
        across = np.cross(corners[:, b] - corners[:, a], corners[:, c] - corners[:, a])
        total += float((corners[:, a] * across).sum()) / 6.0
    return total


@pytest.mark.parametrize("kind", [*SOLIDS, *(kind for kind in MIDDLES if kind.rstrip("0123456789") in SOLIDS)])
def test_faces_of_a_solid_close_it_and_look_outwards(kind):
    points = [np.array(one, dtype=float) for one in CORNERS[kind.rstrip("0123456789")]]
    for (a, b), place in sorted(MIDDLES.get(kind, {}).items(), key=lambda item: item[1]):
        assert place == len(points)
        points.append(0.5 * (points[a] + points[b]))
    faces, closed = outer_surface([Elements(kind, np.arange(len(points))[None], np.array([1]))])
    assert closed
    assert enclosed(np.array(points), faces) == pytest.approx(VOLUMES[kind.rstrip("0123456789")])
    assert set(faces.ravel()) == set(range(len(points)))


@pytest.mark.parametrize("kind", ["tetra", "tetra10"])
def test_inner_faces_are_left_out_whatever_their_order(kind):
    """Two tetrahedra that share a face: six faces outside."""
    points = np.array([[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 1, 1]], dtype=float)
    cells = [[0, 1, 2, 3], [1, 4, 2, 3]]
    if kind == "tetra10":
        middles, more = {}, list(points)
        for cell in cells:
            for (a, b), _ in sorted(MIDDLES[kind].items(), key=lambda item: item[1]):
                edge = tuple(sorted((cell[a], cell[b])))
                if edge not in middles:
                    middles[edge] = len(more)
                    more.append(0.5 * (points[edge[0]] + points[edge[1]]))
        cells = [
            [
                *cell,
                *(middles[tuple(sorted((cell[a], cell[b])))] for a, b in sorted(MIDDLES[kind], key=MIDDLES[kind].get)),
            ]
            for cell in cells
        ]
        points = np.array(more)
    faces, _ = outer_surface([Elements(kind, np.array(cells), np.array([1, 2]))])
    assert len(faces) == (6 if kind == "tetra" else 24)
    assert enclosed(points, faces) == pytest.approx(1 / 6 + 1 / 3)


def test_shells_are_seen_from_both_sides_and_lines_cannot_be_drawn():
    quads = [
        Elements("quad8", np.arange(8)[None], np.array([1])),
        Elements("triangle", np.array([[0, 1, 2]]), np.array([2])),
    ]
    faces, closed = outer_surface(quads)
    assert not closed
    assert len(faces) == 6
    for nothing in ([], [Elements("line", np.array([[0, 1]]), np.array([1]))]):
        with pytest.raises(InputError, match="can be drawn"):
            outer_surface(nothing)


def test_what_stands_behind_another_part_is_hidden():
    box = np.array(CORNERS["hexahedron"], dtype=float)
    behind = 0.5 * box + np.array([0.25, 0.25, -3.0])
    elements = [Elements("hexahedron", np.arange(16).reshape(2, 8), np.array([1, 2]))]
    field = field_of(16, coordinates=np.concatenate([box, behind]), elements=elements)
    model = assess_model(field, LOADS, duty_of(), spot())
    front, side = ModelView(model, "front"), ModelView(model, "right")
    facing = [at for at in range(8, 16) if field.coordinates[at, 2] == behind[:, 2].max()]
    assert all(front.is_hidden(at) for at in facing)
    assert not any(side.is_hidden(at) for at in facing if field.coordinates[at, 0] > 0.5)
    assert not any(front.is_hidden(at) for at in range(8) if field.coordinates[at, 2] == 1.0)


def test_the_eye_sees_what_looks_at_it():
    """Of a box three faces at most; a node on the far side is hidden."""
    points = np.array(CORNERS["hexahedron"], dtype=float)
    field = field_of(8, coordinates=points, elements=[Elements("hexahedron", np.arange(8)[None], np.array([1]))])
    model = assess_model(field, LOADS, duty_of(), spot())
    assert len(ModelView(model, "front").faces) == 1
    corner = ModelView(model, "corner")
    assert len(corner.faces) == 3
    assert corner.is_hidden(0)
    assert not corner.is_hidden(6)
    assert corner.axes @ corner.axes.T == pytest.approx(np.eye(3), abs=1e-12)
    assert ModelView(model, "top").axes[2] == pytest.approx([0.0, 1.0, 0.0])
    for axis, up in zip(np.eye(3), "xyz", strict=True):
        assert ModelView(model, "top", up=up).axes[2] == pytest.approx(axis)
        front = ModelView(model, "front", up=up).axes
        assert front[1] == pytest.approx(axis)
        assert np.linalg.det(front) == pytest.approx(1.0)
        assert ModelView(model, (1.0, 2.0, 3.0), up=up).axes[1] @ axis > 0.5
    for wrong, message in (("fornt", "Did you mean 'front'"), ((0.0, 0.0, 0.0), "not all 0")):
        with pytest.raises(InputError, match=message):
            ModelView(model, wrong)
    bare = ModelView(dataclasses.replace(model, field=dataclasses.replace(field, elements=())), "front")
    with pytest.raises(InputError, match="Lives are there without"):
        bare.faces  # noqa: B018


@pytest.mark.parametrize(("shortest", "longest"), [(4.3, 1e6), (0.2, 0.9), (1.0, 1.0), (99.0, 101.0), (3.0, 1e12)])
def test_bands_of_life_are_round_and_hold_the_shortest_below_the_first_border(shortest, longest):
    found = bands(shortest, longest)
    assert found[0] > shortest
    assert found == sorted(set(found))
    assert len(found) <= 6
    assert all(math.isclose(round(one / 10 ** math.floor(math.log10(one) + 1e-9)) % 2, 1) for one in found)


def test_the_worst_node_beside_a_hole_stands_on_its_rim():
    from tests.reference_values import cases

    model = model_of(cases("field-hot-spots")[0]["inputs"], "signed Tresca")
    assert np.hypot(*model.field.coordinates[model.worst, :2]) == pytest.approx(10.0)
