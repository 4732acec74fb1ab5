"""Nodal stresses of a CalculiX result file in text form (`.frd`): every step is a load case, every material a set.

The file carries no units: they are stated. Blocks are read as columns of fixed width, as they are written.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.models.read_sets import nodes_of_elements
from vivid_anvil.models.stress_field import Elements, StressField
from vivid_anvil.units import DIMENSIONS, factor, opened

# Types of elements in the file: kind, and the order of its nodes where ours differs.
KINDS: dict[int, tuple[str, tuple[int, ...] | None]] = {
    1: ("hexahedron", None),
    2: ("wedge", None),
    3: ("tetra", None),
    4: ("hexahedron20", (*range(12), *range(16, 20), *range(12, 16))),
    5: ("wedge15", (*range(9), *range(12, 15), *range(9, 12))),
    6: ("tetra10", None),
    7: ("triangle", None),
    8: ("triangle6", None),
    9: ("quad", None),
    10: ("quad8", None),
    11: ("line", None),
    12: ("line3", None),
}
_ORDER = {"stress": ("SXX", "SYY", "SZZ", "SXY", "SYZ", "SZX"), "strain": ("EXX", "EYY", "EZZ", "EXY", "EYZ", "EZX")}
BLOCKS = {"stress": ("STRESS", "S"), "strain": ("TOSTRAIN", "E")}  # name of the block, and what asks for it


@read_by_others("a .frd file in text form")
@opened()
def read_frd(
    path: str | Path, *, stress_unit: str, length_unit: str, cases: Sequence[str] | None = None
) -> StressField:
    """The nodal stresses of all steps of a `.frd` file; `cases` names them, else "step 1", "step 2", ...

    Parameters
    ----------
    path : str or path
        The file.
    stress_unit : str
        Unit of the stresses, where the file has none; else None.
    length_unit : str
        Unit of the coordinates, where the file has none; else None.
    cases : sequence of str, optional
        The load cases.

    Returns
    -------
    StressField
        The field.

    Raises
    ------
    InputError
        With file and line, for a file that is cut off, has no stresses, or holds another number of steps, and for steps
        that are no stresses under a load: shapes of vibration, of buckling, amplitudes with a phase.

    Examples
    --------
    >>> read_frd("hanger_head.frd", stress_unit="MPa", length_unit="mm")  # in the folder of `vivid-anvil demo`
    <StressField 7522 nodes, 2 cases (step 1, step 2), 4023 elements>
    """
    return field_of_steps(path, stress_unit=stress_unit, length_unit=length_unit, cases=cases, look=refuse_no_load_case)


Look = Callable[[list[bytes], int, str, int], bool]  # whether a block of stresses is wanted, by the lines over it


def field_of_steps(
    path: str | Path,
    *,
    stress_unit: str,
    length_unit: str,
    cases: Sequence[str] | None,
    look: Look,
    dimension: str = "stress",
) -> StressField:
    """The nodal tensors of all blocks; `look(lines, where a block starts, file, number)` says whether they are wanted."""
    lines = _lines(path)
    name = Path(path).name
    block, asked = BLOCKS[dimension]
    scale = factor(stress_unit, DIMENSIONS[dimension], f"{name}, {dimension}_unit")
    length = factor(length_unit, DIMENSIONS["length"], f"{name}, length_unit")
    nodes: tuple[IntArray, FloatArray] | None = None
    elements: list[Elements] = []
    materials: dict[str, IntArray] = {}
    steps: list[tuple[IntArray, FloatArray]] = []
    for start, key in _blocks(lines):
        if key == "nodes":
            nodes = _rows(lines, start + 1, 3, name)
        elif key == "elements" and nodes is not None:
            try:
                end = _end(lines, start + 1, name)
                elements, materials = _elements(lines[start + 1 : end], nodes[0])
            except (ValueError, IndexError) as error:
                raise InputError(f"{name}, elements from line {start + 2} on", str(error), "numbers of nodes") from None
        elif key == dimension and look(lines, start, name, len(steps) + 1):
            steps.append(_tensors(lines, start, name, dimension))
    if nodes is None:
        raise InputError(name, "no block of nodes", f"a result file with nodes and {block}")
    if not steps:
        kind = "stresses" if dimension == "stress" else "strains"
        raise InputError(name, f"no nodal {kind}", f"a result file with {block}", f"Ask for {asked} in *EL FILE.")
    names = [f"step {i}" for i in range(1, len(steps) + 1)] if cases is None else list(cases)
    if len(names) != len(steps):
        raise InputError(name, f"{len(steps)} steps with {block}", f"{len(names)}, as many as names of load cases")
    ids, places = nodes
    with_stress = np.isin(ids, steps[0][0])
    stresses = np.array([_in_order(ids[with_stress], step, name) for step in steps]) * scale
    field = StressField(
        cases=names,
        node_ids=ids[with_stress],
        coordinates=places[with_stress] * length,
        stresses=stresses,
        source=name,
        dimension=dimension,
    )
    return field if not elements else _with_elements(field, elements, materials, with_stress)


def _lines(path: str | Path) -> list[bytes]:
    file = existing(path, "a result file")
    data = file.read_bytes()
    if b"\x00" in data[:4096] or not data.lstrip().startswith(b"1C"):
        raise InputError(file.name, "bytes that are no such text", "a .frd file in text form", "Write it in ASCII.")
    lines = data.splitlines()
    if not lines or lines[-1].strip() != b"9999":
        raise InputError(
            f"{file.name}, line {len(lines)}", "an end in the middle", "9999 as the last line", "Was the run stopped?"
        )
    return lines


def _blocks(lines: list[bytes]) -> Iterator[tuple[int, str]]:
    for i, line in enumerate(lines):
        if line.startswith(b"    2C"):
            yield i, "nodes"
        elif line.startswith(b"    3C"):
            yield i, "elements"
        elif line.startswith((b" -4  STRESS ", b" -4  STRESSI")) or line.strip() == b"-4  STRESS":
            yield i, "stress"
        elif line.startswith(b" -4  TOSTRAIN"):
            yield i, "strain"


# What the number in the line over a block says of its step, where it is no state under a load.
_NO_LOAD_CASE = {
    2: "a shape of vibration, which has no size of its own",
    4: "a shape of buckling, which has no size of its own",
}


def refuse_no_load_case(lines: list[bytes], start: int, name: str, step: int) -> bool:
    """True; InputError for a block of stresses that are no state under a load: they must not be read as one."""
    remedy = "Write steps under static loads into a file of their own."
    if lines[start].startswith(b" -4  STRESSI"):
        raise InputError(
            f"{name}, line {start + 1}",
            "imaginary parts of stresses (steady-state vibration: amplitude and phase)",
            "stresses of static steps",
            f"The real part alone can be a small share of the amplitude. {remedy}",
        )
    head = head_over(lines, start)
    kind = head[56:58].strip()
    what = _NO_LOAD_CASE.get(int(kind)) if kind.isdigit() else None
    if what is not None:
        raise InputError(f"{name}, line {start + 1}, step {step}", what, "stresses of static steps", remedy)
    return True


def head_over(lines: list[bytes], start: int) -> bytes:
    """The line over a block that says which step it is of."""
    return next((lines[i] for i in range(start - 1, max(start - 12, -1), -1) if lines[i].startswith(b"  100C")), b"")


def _end(lines: list[bytes], start: int, name: str) -> int:
    for i in range(start, len(lines)):
        if lines[i].startswith(b" -3"):
            return i
    raise InputError(f"{name}, line {start + 1}", "a block without end", "a line with -3", "Was the run stopped?")


def _rows(lines: list[bytes], start: int, columns: int, name: str) -> tuple[IntArray, FloatArray]:
    """Node numbers and values of a block of fixed columns."""
    rows = lines[start : _end(lines, start, name)]
    width = 13 + 12 * columns
    short = next((i for i, row in enumerate(rows) if len(row) != width or not row.startswith(b" -1")), None)
    if short is not None:
        raise InputError(
            f"{name}, line {start + short + 1}", repr(rows[short][:60].decode(errors="replace")), f"{columns} values"
        )
    text = np.frombuffer(b"".join(rows), dtype=f"S{width}").view("S1").reshape(-1, width)
    try:
        ids = _cells(text, 3, 10).astype(np.int64)
        values = np.column_stack([_cells(text, 13 + 12 * i, 12).astype(np.float64) for i in range(columns)])
    except ValueError as error:
        raise InputError(f"{name}, lines {start + 1} to {start + len(rows)}", str(error), "numbers") from None
    return ids, values


def _cells(text: np.ndarray, first: int, width: int) -> np.ndarray:
    return np.ascontiguousarray(text[:, first : first + width]).view(f"S{width}").ravel()


def _tensors(lines: list[bytes], start: int, name: str, dimension: str) -> tuple[IntArray, FloatArray]:
    """Node numbers and six components of one step."""
    at = start + 1
    names = []
    while at < len(lines) and lines[at].startswith(b" -5"):
        names.append(lines[at][5:13].strip().decode())
        at += 1
    if tuple(names[:6]) != _ORDER[dimension]:
        raise InputError(
            f"{name}, line {start + 1}", f"the components {names}", f"the components {list(_ORDER[dimension])}"
        )
    return _rows(lines, at, 6, name)


def _in_order(ids: IntArray, step: tuple[IntArray, FloatArray], name: str) -> FloatArray:
    order = np.argsort(step[0])
    at = np.searchsorted(step[0][order], ids)
    if step[0].size != ids.size or not (step[0][order][np.minimum(at, ids.size - 1)] == ids).all():
        raise InputError(name, "steps with stresses at different nodes", "the same nodes in every step")
    return np.asarray(step[1][order][at])


def _elements(lines: list[bytes], ids: IntArray) -> tuple[list[Elements], dict[str, IntArray]]:
    """Elements by kind, their nodes as places among `ids`; and their numbers by material, where there are several."""
    elements: dict[int, tuple[list[int], list[list[int]]]] = {}
    materials: dict[str, list[int]] = {}
    i, end = 0, len(lines)
    while i < end:
        number, code = int(lines[i][3:13]), int(lines[i][13:18])
        materials.setdefault(lines[i][23:28].decode(errors="replace").strip(), []).append(number)
        i += 1
        nodes: list[int] = []
        while i < end and lines[i].startswith(b" -2"):
            nodes += [int(lines[i][k : k + 10]) for k in range(3, len(lines[i].rstrip()), 10)]
            i += 1
        numbers, rows = elements.setdefault(code, ([], []))
        numbers.append(number)
        rows.append(nodes)
    order = np.argsort(ids)
    kinds = []
    for code, (numbers, rows) in elements.items():
        kind, turned = KINDS.get(code, (f"type {code}", None))
        table = np.array(rows, dtype=np.int64)
        near = np.minimum(np.searchsorted(ids[order], table), ids.size - 1)
        if not (ids[order][near] == table).all():
            raise ValueError(f"elements of kind {kind} with a node that is not there")
        places = order[near]
        kinds.append(Elements(kind, places if turned is None else places[:, list(turned)], np.array(numbers)))
    named = {f"material {name}": np.array(numbers) for name, numbers in materials.items()}
    return kinds, named if len(named) > 1 else {}


def _with_elements(
    field: StressField, elements: list[Elements], materials: dict[str, IntArray], with_stress: np.ndarray
) -> StressField:
    """The field with its elements, whose nodes stand among those with stress, and the sets of their materials."""
    new = np.cumsum(with_stress) - 1
    kept = []
    for element in elements:
        whole = with_stress[element.nodes].all(axis=1)
        if whole.any():
            kept.append(Elements(element.kind, new[element.nodes[whole]], element.ids[whole]))
    made = dataclasses.replace(field, elements=kept, element_sets=materials)
    sets = {name: nodes_of_elements(made, ids) for name, ids in materials.items()}
    return dataclasses.replace(made, node_sets={name: places for name, places in sets.items() if places.size})
