"""Tables of contours along a crack front: CSV files and workbooks, a row a position, a column a quantity and contour."""

from __future__ import annotations

import re
from collections.abc import Mapping
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.acceptance.fronts.crack_front import QUANTITIES, CrackFront, crack_front
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.units import DIMENSIONS, POISSON, STRENGTH, dimension_of, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

PLACES = {"position": "length", "angle": "angle", "x": "length", "y": "length", "z": "length"}
_CONTOUR = re.compile(r"(K_III|K_II|K_I|J|T)\s*,?\s*(?:contour\s*)?(\d+)", re.IGNORECASE)


@read_by_others("a table of contours")
@opened(youngs_modulus=STRENGTH, poissons_ratio=POISSON)
def read_crack_front(
    path: str | Path,
    *,
    case: str | None = None,
    sheet: str | int = 0,
    youngs_modulus: float = 207000.0,
    poissons_ratio: float = 0.3,
    rule: str = "energy release rate",
) -> CrackFront:
    r"""A crack front from a CSV file or a workbook: a row a position (and case), a column a quantity and contour.

    Headings are `position [mm]`, or `angle [deg]`, or `x [mm]`, `y [mm]`, `z [mm]`; `K_I contour 1 [MPa√m]`, `K_I contour 2
    [MPa√m]` and so on, likewise `K_II`, `K_III`, `J` and `T`; `case` where there are several. Others are labels.

    Parameters
    ----------
    path : str or path
        The file.
    case : str, optional
        Which case, where there are several.
    sheet : str or int, default 0
        Of a workbook.
    youngs_modulus : float, default 207000.0
        MPa, for K of J.
    poissons_ratio : float, default 0.3
        -.
    rule : str, default "energy release rate"
        For mixed mode: one of `MIXED_MODES`.

    Returns
    -------
    CrackFront
        K along it, what of it can be trusted, the worst position.

    Raises
    ------
    InputError
        With file and column, for contours that are not numbered 1, 2, 3 ..., units of another kind, and no position.

    Examples
    --------
    >>> head = "node,angle [deg]," + ",".join(f"K_I contour {i} [MPa√m]" for i in (1, 2, 3))
    >>> _ = Path("front.csv").write_text(head + "\n17,0,30,33.2,33.3\n18,45,31,35.1,35.2\n19,90,30,32.0,32.1\n")
    >>> read_crack_front("front.csv")
    <CrackFront front.csv: 3 positions, K = 35.15 MPa√m at 45°>
    """
    frame, where = read_frame(existing(path, "a table of contours"), sheet)
    frame = _of_case(frame, case, where)
    found: dict[str, dict[int, FloatArray]] = {}
    places: dict[str, FloatArray] = {}
    for cell in map(str, frame.columns):
        name, unit = name_and_unit(cell)
        place, match = inside(where, f"column {cell!r}"), _CONTOUR.fullmatch(name.strip())
        if match is not None:
            key = next(one for one in QUANTITIES if one.lower() == match[1].lower())
            found.setdefault(key, {})[int(match[2])] = _numbers(frame, cell, unit, QUANTITIES[key], place)
        elif name.strip().lower() in PLACES:
            key = name.strip().lower()
            places[key] = _numbers(frame, cell, unit, PLACES[key], place)
    contours = {key: _in_order(rows, inside(where, key)) for key, rows in found.items()}
    positions, angular = _along(places, where)
    title = Path(path).name if case is None else f"{Path(path).name}, {case}"
    return crack_front(
        positions,
        contours,
        angular=angular,
        name=title,
        youngs_modulus=youngs_modulus,
        poissons_ratio=poissons_ratio,
        rule=rule,
    )


def _of_case(frame: Any, case: str | None, where: str) -> Any:
    heads = {str(cell).strip().lower(): cell for cell in frame.columns}
    if "case" not in heads:
        if case is not None:
            raise InputError(where, f"no column 'case' for {case!r}", "a column of cases")
        return frame
    names = [str(one) for one in dict.fromkeys(frame[heads["case"]])]
    if case is None and len(names) > 1:
        raise InputError(inside(where, "column 'case'"), listed(names), "one of them", "Say which: case = ...")
    wanted = names[0] if case is None else case
    if wanted not in names:
        raise InputError(inside(where, "column 'case'"), repr(wanted), f"one of {listed(names)}")
    return frame[frame[heads["case"]].astype(str) == wanted].reset_index(drop=True)


def _numbers(frame: Any, cell: str, unit: str, dimension: str, place: str) -> FloatArray:
    if not unit:
        raise InputError(place, "no unit", f"a unit in brackets, such as '{cell} [{DIMENSIONS[dimension].metric}]'")
    if dimension_of(unit, place).name != dimension:
        raise InputError(
            place,
            f"the unit {unit!r}",
            f"one of {dimension}",
            "1 kJ/m^2 is 1 N/mm." if dimension == "energy release rate" else "",
        )
    return np.asarray(column_numbers(frame[cell], place) * factor(unit, DIMENSIONS[dimension], place))


def _in_order(rows: Mapping[int, FloatArray], where: str) -> FloatArray:
    numbers = sorted(rows)
    if numbers != list(range(1, len(numbers) + 1)):
        raise InputError(where, f"contours {', '.join(map(str, numbers))}", "contours numbered 1, 2, 3 and so on")
    return np.column_stack([rows[i] for i in numbers])


def _along(places: Mapping[str, FloatArray], where: str) -> tuple[FloatArray, bool]:
    """Positions along the front: as stated, or the length of the way from one place to the next."""
    if "position" in places:
        return places["position"], False
    if "angle" in places:
        return places["angle"], True
    if not {"x", "y", "z"} <= places.keys():
        raise InputError(where, "no position", "'position [mm]', 'angle [deg]', or 'x [mm]', 'y [mm]', 'z [mm]'")
    ways = np.column_stack([places[axis] for axis in "xyz"])
    steps = np.linalg.norm(np.diff(ways, axis=0), axis=1)
    return np.concatenate([[0.0], np.cumsum(steps)]), False
