"""Stresses of unit load cases, or strains of states, at the nodes of a model, with places, sets and elements where known."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray, one_of, read_only
from vivid_anvil.ground.errors import InputError, Place, did_you_mean, inside, listed
from vivid_anvil.models.rows import Rows
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.units import DIMENSIONS, in_dimension, opened, plain_numbers, sound

SAME_PLACE = 1e-3  # mm: files round
# No unit load case of a part gets there, nor a modal stress for 1 mm √t.
PLAUSIBLE = {"stress": 1e7, "strain": 100.0, "section loads": 1e8}
UNITS_OF = {"stress": "MPa", "strain": "mm/mm", "section loads": "N/mm, N*mm/mm"}
SLIPS_OF = {
    "stress": "(Pa read as MPa)",
    "strain": "(percent read as plain numbers)",
    "section loads": "(N/m read as N/mm)",
}


@dataclass(frozen=True, eq=False)
class Elements:
    """Elements of one kind: `nodes`, shape (m, k), places of their nodes in the field; `kind` as "tetra", "quad", ..."""

    kind: str
    nodes: IntArray
    ids: IntArray


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class StressField:
    """Unit stresses of one or more load cases at nodes.

    Parameters
    ----------
    cases : names of the load cases, k of them
        Names of the load cases.
    node_ids : shape (n,), as in the model, none twice
        Numbers of the nodes.
    coordinates : shape (n, 3), mm
        Places of the nodes, mm, shape (n, 3).
    stresses : shape (k, n, 6), MPa, components as in `COMPONENTS`
        Stress components, MPa, shape (cases, stresses, 6).
    node_sets : places of nodes by the name of the set
        Rows of the nodes of each set.
    elements : kinds of elements, for drawing and for writing back
        Elements by their kind.
    element_sets : numbers of elements by the name of the set
        Elements of each set.
    spread : shape (n,), share by which elements disagree at a node before averaging; None where only one value was given
        How far the stresses of the elements at a node differ.
    rows : stresses of each element or face at the nodes, where a node has several; `stresses` are their means then
        Stresses of which a node has several, one an element or a face.
    source : str, default "arrays"
        Where it comes from, such as a file.
    shell_face : the face of its shells that the stresses are of, where that is stated: "top", "middle" or "bottom"
        Which face of shells the stresses are of.
    dimension : str, default "stress"
        What the tensors are: "stress", or "strain", of states of large deformation by Green and Lagrange, -, or "section loads"
        of a laminate, nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> plate = StressField(cases=["pull"], node_ids=[1, 2], coordinates=[[0, 0, 0], [5, 0, 0]],
    ...                     stresses=[[[100, 0, 0, 0, 0, 0], [80, 10, 0, 5, 0, 0]]])
    >>> plate
    <StressField 2 nodes, 1 case (pull), 0 elements>
    """

    cases: Sequence[str]
    node_ids: IntArray
    coordinates: FloatArray
    stresses: FloatArray
    node_sets: Mapping[str, IntArray] = field(default_factory=dict)
    elements: Sequence[Elements] = ()
    element_sets: Mapping[str, IntArray] = field(default_factory=dict)
    spread: FloatArray | None = None
    rows: Rows | None = None
    source: str = "arrays"
    shell_face: str = "not stated"
    dimension: str = "stress"

    @property
    def place(self) -> Place:
        """Where a fault of it stands: the field, and the file that it is from."""
        return Place(f"stress field {self.source}", file=self.source if "." in self.source else "")

    def __post_init__(self) -> None:
        where = self.place
        names = tuple(self.cases)
        ids = np.asarray(self.node_ids)
        places = _numbers(
            in_dimension(self.coordinates, "length", inside(where, "coordinates")), inside(where, "coordinates")
        )
        one_of(inside(where, "dimension"), self.dimension, tuple(PLAUSIBLE))
        given: Any = self.stresses
        if self.dimension in DIMENSIONS:  # of section loads each component has its own unit: coherent numbers
            given = in_dimension(given, self.dimension, inside(where, "stresses"))
        stresses = _numbers(given, inside(where, "stresses"))
        if ids.ndim != 1 or not ids.size or ids.dtype.kind not in "iu":
            raise InputError(
                inside(where, "node_ids"), f"shape {ids.shape} of {ids.dtype}", "whole numbers, one a node"
            )
        if not names or len(set(names)) != len(names):
            raise InputError(inside(where, "cases"), listed(names) or "none", "one or more load cases, each name once")
        if stresses.ndim == 3 and stresses.shape[2] == 3:
            raise InputError(
                where,
                "3 components (a plane state)",
                "6 components xx, yy, zz, xy, yz, zx",
                "Put 0 for zz, yz and zx where the stress is plane.",
            )
        if stresses.shape != (len(names), ids.size, 6) or places.shape != (ids.size, 3):
            raise InputError(
                where,
                f"stresses of shape {stresses.shape}, coordinates of shape {places.shape}",
                f"({len(names)}, {ids.size}, 6) and ({ids.size}, 3) for {len(names)} cases at {ids.size} nodes",
            )
        if np.unique(ids).size != ids.size:
            twice = ids[np.flatnonzero(np.diff(np.sort(ids)) == 0)[0]] if ids.size > 1 else ids[0]
            raise InputError(
                inside(where, "nodes"), f"node {np.sort(ids)[0] if ids.size < 2 else twice} twice", "each once"
            )
        _finite(where, names, ids, stresses, self.dimension)
        if self.rows is not None:
            self.rows.check(where, len(names), ids)
            _finite(where, names, ids[self.rows.nodes], self.rows.stresses, self.dimension)
        for name, value in (("node_ids", ids), ("coordinates", places), ("stresses", stresses)):
            object.__setattr__(self, name, read_only(np.ascontiguousarray(value)))
        object.__setattr__(self, "cases", names)

    @property
    def size(self) -> int:
        """How many nodes."""
        return int(self.node_ids.size)

    def of_case(self, name: str) -> FloatArray:
        """Stresses of a load case, shape (n, 6), MPa; InputError with the nearest name for another."""
        if name not in self.cases:
            raise InputError(
                inside(self.place, "load case"),
                repr(name),
                f"one of {listed(self.cases)}",
                did_you_mean(name, list(self.cases)),
            )
        return np.asarray(self.stresses[list(self.cases).index(name)])

    @property
    def owners(self) -> IntArray:
        """Place of the node of every stress that is assessed: each node's own, or those of the rows."""
        return np.arange(self.size) if self.rows is None else self.rows.nodes

    def assessed(self, name: str) -> FloatArray:
        """Stresses of a load case as they are assessed, shape (rows, 6), MPa; as `of_case` where a node has only one."""
        case = self.of_case(name)
        return case if self.rows is None else self.rows.stresses[list(self.cases).index(name)]

    def place_of(self, node: int) -> int:
        """Where the node of that number stands; InputError where there is none."""
        places = np.flatnonzero(self.node_ids == node)
        if not places.size:
            low, high = int(self.node_ids.min()), int(self.node_ids.max())
            raise InputError(inside(self.place, "node"), f"{node}", f"a node number from {low} to {high}")
        return int(places[0])

    def places_of(self, set_name: str) -> IntArray:
        """Places of the nodes of a set; InputError with the nearest name, and for an empty set."""
        if set_name not in self.node_sets:
            hint = did_you_mean(set_name, list(self.node_sets))
            known = f"one of {listed(self.node_sets)}" if self.node_sets else "none: this field has no set"
            raise InputError(inside(self.place, "node set"), repr(set_name), known, hint)
        places = np.asarray(self.node_sets[set_name])
        if not places.size:
            raise InputError(inside(self.place, f"node set {set_name}"), "no nodes", "a set with nodes")
        return places

    def part(self, places: IntArray) -> StressField:
        """The field at some nodes only, with what its sets have of them, without elements."""
        made = self.bare_part(places)
        new = np.full(self.size, -1)
        new[np.asarray(places)] = np.arange(made.size)
        found = {name: new[np.asarray(nodes)] for name, nodes in self.node_sets.items()}
        sets = {name: nodes[nodes >= 0] for name, nodes in found.items() if (nodes >= 0).any()}
        return dataclasses.replace(made, node_sets=sets, element_sets=self.element_sets)

    def bare_part(self, places: IntArray) -> StressField:
        """The same without its sets."""
        chosen = np.asarray(places)
        rows = self.rows
        if rows is not None:
            new = np.full(self.size, -1)
            new[chosen] = np.arange(chosen.size)
            rows = rows.take(np.flatnonzero(new[rows.nodes] >= 0), new)
        return StressField(
            cases=self.cases,
            node_ids=self.node_ids[places],
            coordinates=self.coordinates[places],
            stresses=self.stresses[:, places],
            spread=None if self.spread is None else self.spread[places],
            rows=rows,
            source=self.source,
            shell_face=self.shell_face,
            dimension=self.dimension,
        )

    def neighbours(self, place: int) -> IntArray:
        """Places of the nodes that share an element with the node that stands there, without itself; none without elements."""
        parts = [element.nodes[(np.asarray(element.nodes) == place).any(axis=1)].ravel() for element in self.elements]
        found = np.unique(np.concatenate(parts)) if parts else np.empty(0, dtype=np.int64)
        return np.asarray(found[found != place])

    def __repr__(self) -> str:
        cases = f"{len(self.cases)} case" + ("" if len(self.cases) == 1 else "s")
        elements = sum(element.ids.size for element in self.elements)
        return f"<StressField {self.size} nodes, {cases} ({', '.join(self.cases)}), {elements} elements>"


def _numbers(values: object, where: str) -> FloatArray:
    return plain_numbers(values, where)


def _same_rows(fields: Sequence[StressField]) -> Rows | None:
    """The rows of all load cases together; InputError unless they are of the same elements and faces."""
    if all(field.rows is None for field in fields):
        return None
    parts, first, ids = [], None, np.sort(fields[0].node_ids)
    for one in fields:
        if one.rows is None:
            raise InputError(one.place, "one stress at each node", "each element's, as in the others")
        places = np.searchsorted(ids, one.node_ids)
        here = one.rows.take(np.arange(one.rows.nodes.size), places)
        order = np.lexsort([key for key in (here.faces, here.elements, here.nodes) if key is not None])
        kept = here.take(order, np.arange(ids.size))
        first = kept if first is None else first
        for ours, others in ((kept.nodes, first.nodes), (kept.elements, first.elements), (kept.faces, first.faces)):
            if not np.array_equal(np.asarray(ours), np.asarray(others)):
                raise InputError(inside(one.place, "rows"), "other elements or faces", "the same in every load case")
        parts.append(kept.stresses)
    assert first is not None, "there is a field with rows"
    return Rows(np.argsort(fields[0].node_ids)[first.nodes], np.concatenate(parts), first.elements, first.faces)


def _finite(where: str, names: Sequence[str], ids: IntArray, stresses: FloatArray, dimension: str) -> None:
    low, high = (float(stresses.min()), float(stresses.max())) if stresses.size else (0.0, 0.0)
    unit = UNITS_OF[dimension]
    if not np.isfinite([low, high]).all():  # by the extremes: a large model has no room for a mask
        bad = np.argwhere(~np.isfinite(stresses))
        case, node, component = bad[0]
        raise InputError(
            inside(where, f"case {names[case]}, node {ids[node]}, {COMPONENTS[component]}"),
            "no number",
            f"a {dimension} in {unit}",
            "Leave out nodes without result, or repair the file.",
        )
    peak = max(high, -low)
    if peak > PLAUSIBLE[dimension]:
        case, node, component = (int(i) for i in np.unravel_index(int(np.abs(stresses).argmax()), stresses.shape))
        slip = SLIPS_OF[dimension]
        raise InputError(
            inside(where, f"case {names[case]}, node {ids[node]}, {COMPONENTS[component]}"),
            f"{peak:.4g} {unit}",
            f"{dimension if dimension == 'section loads' else dimension + 's' if dimension != 'stress' else 'stresses'} up to "
            f"{PLAUSIBLE[dimension]:g} {unit}",
            f"Is the {dimension} unit right {slip}? State it.",
        )


@opened()
def joined_cases(fields: Sequence[StressField]) -> StressField:
    """Load cases from several fields of the same nodes as one field, in the order of the first; places and sets of the first.

    Raises InputError where node numbers or places differ, and for a case twice.
    """
    first = fields[0]
    order = np.argsort(first.node_ids)
    rows, names = [], []
    for one in fields:
        own = np.argsort(one.node_ids)
        if one.size != first.size or not (one.node_ids[own] == first.node_ids[order]).all():
            odd = np.setxor1d(one.node_ids, first.node_ids)
            raise InputError(
                inside(one.place, "nodes"),
                f"{odd.size} node numbers that are not in both it and {first.source}, such as {odd[0]}",
                "the same nodes in every load case",
            )
        back = np.empty_like(own)
        back[order] = own
        moved = np.abs(one.coordinates[back] - first.coordinates).max(axis=1)
        if moved.max() > SAME_PLACE:
            at = int(moved.argmax())
            raise InputError(
                inside(one.place, f"node {first.node_ids[at]}"),
                f"{moved[at]:.4g} mm from its place in {first.source}",
                "the same places in every load case",
                "Is the length unit right?",
            )
        rows.append(one.stresses[:, back])
        names += list(one.cases)
    return StressField(
        cases=names,
        node_ids=first.node_ids,
        coordinates=first.coordinates,
        stresses=np.concatenate(rows),
        node_sets=first.node_sets,
        elements=first.elements,
        element_sets=first.element_sets,
        spread=None if first.spread is None else np.max([_spread(field, first) for field in fields], axis=0),
        rows=_same_rows(fields),
        source=first.source,
        shell_face=first.shell_face,
        dimension=first.dimension,
    )


def _spread(one: StressField, first: StressField) -> FloatArray:
    """The spread of a field in the order of nodes of another."""
    own, order = np.argsort(one.node_ids), np.argsort(first.node_ids)
    found = np.zeros(first.size)
    if one.spread is not None:
        found[order] = one.spread[own]
    return found


@opened()
def with_boxes(field: StressField, boxes: Mapping[str, Mapping[str, Sequence[float]]]) -> StressField:
    """The field with more node sets: nodes between two places, mm, along some of x, y and z.

    Parameters
    ----------
    field : StressField
        The field; it stays as it is.
    boxes : mapping of str to Mapping[str, sequence of float]
        Places between two corners, mm, by the name of the set.

    Returns
    -------
    StressField
        The field with more sets.

    Raises
    ------
    InputError
        For a set that is there already, another axis, and a box without nodes.

    Examples
    --------
    >>> line = StressField(cases=["pull"], node_ids=[1, 2, 3], coordinates=[[0, 0, 0], [5, 0, 0], [9, 0, 0]],
    ...                    stresses=np.zeros((1, 3, 6)))
    >>> with_boxes(line, {"end": {"x": [4.0, 10.0]}}).node_sets["end"]
    array([1, 2])
    """
    sets = dict(field.node_sets)
    for name, box in boxes.items():
        where = inside(field.place, f"set {name}")
        held = np.ones(field.size, dtype=bool)
        if name in sets:
            raise InputError(where, "a set of that name in the file", "another name")
        for axis, (low, high) in box.items():
            if axis not in ("x", "y", "z") or not low < high:
                raise InputError(
                    where, f"{axis} from {low:g} to {high:g} mm", "x, y or z from a lower to a higher place"
                )
            along = field.coordinates[:, "xyz".index(axis)]
            held &= (along >= low) & (along <= high)
        if not held.any():
            reach = ", ".join(
                f"{axis} {low:.5g} to {high:.5g}"
                for axis, low, high in zip(
                    "xyz", field.coordinates.min(axis=0), field.coordinates.max(axis=0), strict=True
                )
            )
            raise InputError(where, "no nodes in the box", f"a box within {reach} mm", "Are the units right?")
        sets[name] = np.flatnonzero(held)
    return dataclasses.replace(field, node_sets=sets)


@opened()
def without_cases(field: StressField, names: Sequence[str]) -> StressField:
    """The same field without some load cases.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    names : sequence of str
        Cases that are not wanted.

    Returns
    -------
    StressField
        The field with fewer cases.

    Raises
    ------
    InputError
        For a case that is not there, and where none would be left.

    Examples
    --------
    >>> plate = StressField(cases=["pull", "preload"], node_ids=[1], coordinates=[[0, 0, 0]], stresses=[[[9, 0, 0, 0, 0, 0]]] * 2)
    >>> without_cases(plate, ["preload"]).cases
    ('pull',)
    """
    for name in names:
        if name not in field.cases:
            hint = did_you_mean(name, list(field.cases))
            raise InputError("ignore_cases", f"no load case {name!r}", f"one of {listed(field.cases)}", hint)
    if not names:
        return field
    left = [i for i, name in enumerate(field.cases) if name not in names]
    if not left:
        raise InputError("ignore_cases", listed(names), "at least one load case that is left")
    rows = None if field.rows is None else dataclasses.replace(field.rows, stresses=field.rows.stresses[left])
    return dataclasses.replace(field, cases=[field.cases[i] for i in left], stresses=field.stresses[left], rows=rows)
