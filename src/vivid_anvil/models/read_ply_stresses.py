"""Stresses of plies of a model of shells from a table, as the forces and moments per width that they are the stresses of."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.files import read_by_others
from vivid_anvil.models.element_values import ELEMENT_VALUES, chosen_values
from vivid_anvil.models.read_section_loads import SECTION_LOADS
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.models.tables_of_fields import field_of_frame, frame_of
from vivid_anvil.stress.laminates.laminate import Laminate
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers

STRESSES = ("s1", "s2", "t12")
FACES = ("lower", "upper")
PLACE = ("load case", "element", "node")  # rows that are alike in these are the plies of one place
OFF = 0.01  # of the largest stress of a place: by so much no ply may be off what straight strains give


@read_by_others("a table of stresses of plies")
@opened()
def read_ply_stresses(path: str | Path, laminate: Laminate, *, element_values: str = "each element") -> StressField:
    """Forces and moments per width whose stresses in the plies of a laminate a table has, at nodes or of elements at nodes.

    Columns `node`, `x [mm]`, `y`, `z`, `ply` (1 is the lowest), `face` ("lower" or "upper"), `s1 [MPa]`, `s2`, `t12` in the axes
    of the ply, and where there are several `load case`, `element`, `set`. The stresses are those of the load alone, without those
    of the temperature. Strains go straight through a laminate (Jones 1999, 4.2): three strains and three curvatures are fitted to
    all rows of a place, two heights at least, and give forces and moments by [[A, B], [B, D]].

    Parameters
    ----------
    path : str or path
        The file.
    laminate : Laminate
        The laminate of all places.
    element_values : str, default "each element"
        Stresses of elements at a node: one of `ELEMENT_VALUES`.

    Returns
    -------
    StressField
        The field, with the dimension "section loads": nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm, in the place of components.

    Raises
    ------
    InputError
        With file and column; for plies that the laminate has not, and stresses that no straight strains of it give.

    Examples
    --------
    >>> import pandas as pd
    >>> plate = Laminate(name="plate", layup="[0/90]s", ply=read_card_named("glass-epoxy-ply").ply_there, ply_thickness=0.5)
    >>> rows = [[1, 0, 0, 0, 1, "lower", 30.0, 2.0, 0.0], [1, 0, 0, 0, 1, "upper", 15.0, 1.0, 0.0]]
    >>> heads = ["node", "x [mm]", "y [mm]", "z [mm]", "ply", "face", "s1 [MPa]", "s2 [MPa]", "t12 [MPa]"]
    >>> pd.DataFrame(rows, columns=heads).to_csv("plies.csv", index=False)
    >>> found = read_ply_stresses("plies.csv", plate).stresses[0, 0]  # it is bent: no forces, moments along x and y
    >>> np.round(found, 2).tolist()
    [0.0, 0.0, 0.0, -18.13, -1.3, 0.0]
    """
    where = Path(path).name
    if not isinstance(laminate, Laminate):
        raise InputError(inside(where, "laminate"), repr(laminate), "a Laminate")
    if element_values not in ELEMENT_VALUES:
        raise InputError(inside(where, "element_values"), repr(element_values), f"one of {listed(ELEMENT_VALUES)}")
    frame, where = frame_of(path)
    heads = {name_and_unit(str(cell))[0].lower(): cell for cell in frame.columns}
    missing = [name for name in ("node", "ply", "face", *STRESSES) if name not in heads]
    if missing:
        raise InputError(where, f"no column {missing[0]!r} among {listed(heads)}", f"a column {missing[0]!r}")
    groups = frame.groupby([heads[name] for name in PLACE if name in heads], sort=False, dropna=False)
    places = groups.ngroup().to_numpy()
    own = frame[~frame.duplicated([heads[name] for name in PLACE if name in heads])]

    def name_of(place: int) -> str:
        return " ".join(f"{name} {own[heads[name]].iloc[place]}" for name in PLACE if name in heads)

    stresses = np.column_stack([_stress(frame, heads[name], where) for name in STRESSES])
    loads = _loads(laminate, _faces(frame, heads, where, laminate), stresses, places, name_of, where)
    kept = own.drop(columns=[heads[name] for name in ("ply", "face", *STRESSES)])
    kept = kept.assign(**{f"{one} [-]": loads[:, i] for i, one in enumerate(COMPONENTS)})
    return chosen_values(field_of_frame(kept.reset_index(drop=True), where, SECTION_LOADS), element_values, "both")


def _stress(frame: Any, cell: Any, where: str) -> FloatArray:
    place, unit = inside(where, f"column {str(cell)!r}"), name_and_unit(str(cell))[1]
    if not unit:
        raise InputError(place, "no unit", "a unit of stress", "Head it for instance 's1 [MPa]'.")
    return np.asarray(factor(unit, DIMENSIONS["stress"], place) * column_numbers(frame[cell], place))


def _faces(frame: Any, heads: dict[str, Any], where: str, laminate: Laminate) -> IntArray:
    """Which face of which ply each row is: twice the ply, from 0 at the bottom, and 1 more for its upper face."""
    count, place = len(laminate.laid), inside(where, "column 'ply'")
    plies = column_numbers(frame[heads["ply"]], place)
    odd = np.flatnonzero(~np.isin(plies, np.arange(1, count + 1)))
    if odd.size:
        found = f"{plies[odd[0]]:g} in row {odd[0] + 1}"
        raise InputError(place, found, f"a ply from 1 at the bottom to {count}, as {laminate.name} has")
    words = frame[heads["face"]].astype(str).str.strip()
    if not words.isin(FACES).all():
        raise InputError(inside(where, "column 'face'"), repr(words[~words.isin(FACES)].iloc[0]), f"{listed(FACES)}")
    return np.asarray(2 * (plies.astype(np.int64) - 1) + (words == "upper").to_numpy())


def _loads(
    laminate: Laminate,
    faces: IntArray,
    stresses: FloatArray,
    places: IntArray,
    name_of: Callable[[int], str],
    where: str,
) -> FloatArray:
    """nx .. mxy of every place, shape (places, 6): all places that tell the same faces at once."""
    order = np.lexsort((faces, places))
    starts = np.flatnonzero(np.diff(places[order], prepend=-1))
    alike: dict[tuple[int, ...], list[IntArray]] = {}
    for rows in np.split(order, starts[1:]):
        alike.setdefault(tuple(faces[rows].tolist()), []).append(rows)
    found = np.empty((len(starts), 6))
    half = 0.5 * laminate.thickness
    scale = np.array([1.0, 1.0, 1.0, half, half, half])  # strains of the faces in the place of curvatures
    per_strain = laminate.full.per_strain.reshape(-1, 3, 6) / scale
    for told, sets in alike.items():
        at = places[sets[0][0]]
        if len(set(told)) < len(told) or len(set((np.array(told) + 1) // 2)) < 2:
            what = [f"{FACES[one % 2]} of ply {one // 2 + 1}" for one in told]
            raise InputError(inside(where, name_of(int(at))), listed(what), "each face once, and two heights at least")
        matrix, rows = per_strain[list(told)].reshape(-1, 6), np.array(sets)
        given = stresses[rows].reshape(len(rows), -1)
        strains = given @ np.linalg.pinv(matrix).T
        largest = np.abs(given).max(axis=1)
        off = np.abs(strains @ matrix.T - given).max(axis=1)
        worst = int(np.argmax(off - OFF * largest))
        if off[worst] > OFF * largest[worst] + 1e-9 * np.abs(stresses).max():
            raise InputError(
                inside(where, name_of(int(places[rows[worst, 0]]))),
                f"stresses of plies that are {off[worst]:.3g} MPa off those of any straight strains of {laminate.name}",
                f"within {OFF:.0%} of the largest, {largest[worst]:.3g} MPa",
                "Look at the order of the plies (1 is the lowest), their angles and moduli, the axes (those of the ply), and "
                "whether stresses of the temperature are in: they belong to the laminate.",
            )
        found[places[rows[:, 0]]] = (strains / scale) @ laminate.full.abd.T
    return found
