"""What to take where a node has a stress of each element, or of each face: all apart, their mean, one face."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray, one_of
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.models.averaging import NodeMeans, averaged_at_nodes
from vivid_anvil.models.rows import FACES, Rows
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.units import many, opened

ELEMENT_VALUES = ("averaged", "each element")
FACE_CHOICES = ("both", *FACES)


@opened(coordinates=many("length"))
def field_of_rows(
    cases: Sequence[str], node_ids: IntArray, coordinates: FloatArray, rows: Rows, **others: Any
) -> StressField:
    """A field whose nodes have several stresses each. Every one of them is assessed, and the worst is the node's.

    `others` are sets, elements and source as those of `StressField`; spread is the disagreement of the elements of a face.

    >>> rows = Rows(np.array([0, 0, 1]), np.array([[[90.0, 0, 0, 0, 0, 0], [70.0, 0, 0, 0, 0, 0], [10.0, 0, 0, 0, 0, 0]]]),
    ...             elements=np.array([1, 2, 2]))
    >>> field = field_of_rows(["pull"], np.array([4, 5]), np.zeros((2, 3)), rows)
    >>> field.stresses[0, :, 0], field.spread.round(3)
    (array([80., 10.]), array([0.111, 0.   ]))
    """
    if np.ndim(node_ids) != 1 or not len(node_ids) or int(np.max(rows.nodes, initial=-1)) >= len(node_ids):
        found = f"shape {np.shape(node_ids)} for rows of {int(np.max(rows.nodes, initial=-1)) + 1} nodes"
        raise InputError("stress field, node_ids", found, "the number of each node, shape (nodes,)")
    stresses = np.asarray(rows.stresses, dtype=np.float64)
    means, first = _of_faces(rows)
    spread = np.zeros(len(node_ids))
    np.maximum.at(spread, rows.nodes[first], means.spread)
    whole = averaged_at_nodes(rows.nodes, stresses)
    mean = np.full((len(cases), len(node_ids), 6), np.nan)
    mean[:, whole.nodes] = whole.stresses
    if whole.nodes.size < len(node_ids):
        rows.check(f"stress field {others.get('source', 'arrays')}", len(cases), np.asarray(node_ids))
    kept = rows if rows.elements is not None or rows.faces is not None else None
    return StressField(
        cases=cases, node_ids=node_ids, coordinates=coordinates, stresses=mean, spread=spread, rows=kept, **others
    )


def _of_faces(rows: Rows) -> tuple[NodeMeans, IntArray]:
    """Means over the elements of each node, or of each of its faces, and the first row of each."""
    keys = rows.keys(with_elements="no")
    _, first = np.unique(keys, return_index=True)
    return averaged_at_nodes(keys, rows.stresses), first


@opened()
def averaged(field: StressField) -> StressField:
    """The field with the mean tensor of the elements at each node (of each face at each node of a shell); `spread` is kept.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.

    Returns
    -------
    StressField
        The field with one stress a node, or one a face.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> averaged(field)  # of the demo: read_field("hanger_head.frd", stress_unit="MPa", length_unit="mm")
    <StressField 7522 nodes, 2 cases (step 1, step 2), 4023 elements>
    """
    rows = field.rows
    if rows is None or rows.elements is None:
        return field
    means, first = _of_faces(rows)
    faces = None if rows.faces is None else rows.faces[first]
    if faces is None or first.size == field.size:
        stresses = np.empty_like(field.stresses)
        stresses[:, rows.nodes[first]] = means.stresses
        return dataclasses.replace(field, stresses=stresses, rows=None)
    return dataclasses.replace(field, rows=Rows(rows.nodes[first], means.stresses, None, faces))


@opened()
def of_face(field: StressField, face: str) -> StressField:
    r"""The field with one face of its shells only, "top", "middle" or "bottom", or "both" for top and bottom.

    Rows that belong to no face, such as those of solids, stay.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    face : str
        Which face: "top", "middle" or "bottom".

    Returns
    -------
    StressField
        The field with those stresses.

    Raises
    ------
    InputError
        For a field without that face.

    Examples
    --------
    >>> from pathlib import Path
    >>> head = "node,x [mm],y [mm],z [mm],xx [MPa],yy [MPa],zz [MPa],xy [MPa],yz [MPa],zx [MPa],load case,face\n"
    >>> faces = "1,0,0,0,80,0,0,0,0,0,pull,top\n1,0,0,0,60,0,0,0,0,0,pull,bottom\n"
    >>> _ = Path("shell.csv").write_text(head + faces)
    >>> of_face(read_field_table("shell.csv"), "top").stresses[0, 0].tolist()
    [80.0, 0.0, 0.0, 0.0, 0.0, 0.0]
    """
    one_of(inside(field.place, "face"), face, FACE_CHOICES)
    rows = field.rows
    wanted = ("top", "bottom") if face == "both" else (face,)
    if rows is None or rows.faces is None or not np.isin(rows.faces, wanted).any():
        there = [] if rows is None or rows.faces is None else sorted({str(face) for face in rows.faces} - {""})
        raise InputError(inside(field.place, "face"), repr(face), listed(there) or "none: it has no faces of shells")
    chosen = np.flatnonzero(np.isin(rows.faces, (*wanted, "")))
    kept = rows.take(chosen, np.arange(field.size))
    made = field_of_rows(
        field.cases,
        field.node_ids,
        field.coordinates,
        kept,
        node_sets=field.node_sets,
        element_sets=field.element_sets,
        elements=field.elements,
        source=field.source,
    )
    if face != "both":
        made = dataclasses.replace(made, shell_face=face)
    return made if face == "both" or kept.elements is not None else dataclasses.replace(made, rows=None)


@opened()
def chosen_values(field: StressField, element_values: str, face: str) -> StressField:
    """The field with what is assessed of its elements, one of `ELEMENT_VALUES`, and of its shells, one of `FACE_CHOICES`."""
    one_of(inside(field.place, "element_values"), element_values, ELEMENT_VALUES)
    faces = field.rows is not None and field.rows.faces is not None
    if face == "middle" and not faces and field.elements:  # one stress a node: what it is of is said here
        field = dataclasses.replace(field, shell_face=face)
    elif face != "both" or faces:
        field = of_face(field, face)
    return averaged(field) if element_values == "averaged" else field
