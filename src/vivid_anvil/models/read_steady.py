"""Complex stresses of a model over frequency, as a steady-state step gives them: a result file, a table, or HDF5.

Two load cases a line, the real and the imaginary part; the stress is the real part of (real + i imaginary) e^(i 2π f t).
"""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.models.hdf5_of_fields import field_of_arrays
from vivid_anvil.models.read_frd import field_of_steps, head_over
from vivid_anvil.models.read_modes import VIBRATION
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.models.tables_of_fields import field_of_frame, frame_of
from vivid_anvil.spectra.responses.polar import of_phases
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers

CARTESIAN, POLAR = ("real", "imaginary"), ("amplitude", "phase")
HDF5 = (".h5", ".hdf5", ".hdf")


@dataclass(frozen=True, eq=False)
class SteadyModel:
    """Complex stresses of a model over frequency: a case for the real and for the imaginary part at each line.

    Parameters
    ----------
    field : StressField
        Cases "20 Hz, real", "20 Hz, imaginary", ..., MPa for the input of the run.
    frequency : ndarray, shape (lines,)
        Hz, ascending.

    Raises
    ------
    InputError
        By what reads one.

    Examples
    --------
    >>> from vivid_anvil.models import StressField
    >>> two = StressField(
    ...     cases=["20 Hz, real", "20 Hz, imaginary"], node_ids=[1], coordinates=[[0, 0, 0]], stresses=[[[1.0] * 6]] * 2
    ... )
    >>> SteadyModel(two, np.array([20.0])).frequency
    array([20.])
    """

    field: StressField
    frequency: FloatArray


@read_by_others("a file of complex stresses")
@opened()
def read_steady(path: str | Path, *, stress_unit: str | None = None, length_unit: str | None = None) -> SteadyModel:
    r"""The complex stresses of a steady-state step, from a `.frd` file, a table (CSV, workbook, Parquet) or HDF5.

    A table has a row for each node and frequency: `node`, `x [mm]`, `y`, `z`, `frequency [Hz]`, and for each component, `xx` to
    `zx`, either `xx real [MPa]` and `xx imaginary [MPa]`, or `xx amplitude [MPa]` and `xx phase [deg]`; `element` and `face` as
    in a table of load cases. HDF5 has what a field has there, with `frequency` (attribute unit) and either complex `stresses` of
    shape (lines, n, 6), or amplitudes there beside `phases` (attribute unit) of the same shape.

    Parameters
    ----------
    path : str or path
        The file.
    stress_unit : str, optional
        Unit of the stresses of a `.frd` file, which has none.
    length_unit : str, optional
        Unit of its coordinates.

    Returns
    -------
    SteadyModel
        Two cases a line, and the frequencies; shapes of vibration in the same file are left out.

    Raises
    ------
    InputError
        With file and line or column: units missing or stated twice, one part without the other, phases that look like radians.

    Examples
    --------
    >>> parts = [f"{name} amplitude [MPa],{name} phase [deg]" for name in ("xx", "yy", "zz", "xy", "yz", "zx")]
    >>> rows = ["1,0,0,0,20,4,-30" + ",0,0" * 5, "1,0,0,0,40,9,-90" + ",0,0" * 5]
    >>> head = "node,x [mm],y [mm],z [mm],frequency [Hz]," + ",".join(parts)
    >>> _ = Path("shaken.csv").write_text("\n".join([head, *rows]))
    >>> found = read_steady("shaken.csv")
    >>> found.frequency, found.field.stresses[:, 0, 0].round(3)
    (array([20., 40.]), array([ 3.464, -2.   ,  0.   , -9.   ]))
    """
    file = existing(path, "complex stresses")
    ending = file.suffix.lower()
    units = {"stress_unit": stress_unit, "length_unit": length_unit}
    if ending == ".frd":
        for key, unit in units.items():
            if unit is None:
                raise InputError(
                    inside(file.name, key), "nothing", "a unit, as the file carries none", "Such as 'MPa'."
                )
        return _of_frd(file, str(stress_unit), str(length_unit))
    for key, unit in units.items():
        if unit is not None:
            raise InputError(inside(file.name, key), f"{unit!r}", "none: the file says it itself")
    return _of_hdf5(file) if ending in HDF5 else _of_table(file)


def _of_frd(path: Path, stress_unit: str, length_unit: str) -> SteadyModel:
    real: list[float] = []
    imaginary: list[float] = []

    def look(lines: list[bytes], start: int, name: str, step: int) -> bool:
        head = head_over(lines, start)
        kind = head[56:58].strip()
        if kind.isdigit() and int(kind) == VIBRATION:
            return False
        second = lines[start].startswith(b" -4  STRESSI")
        (imaginary if second else real).append(float(head[12:24]))
        if not 0 <= len(real) - len(imaginary) <= 1:
            found = f"a real part without imaginary one, block {step}"
            raise InputError(f"{name}, line {start + 1}", found, "a steady-state step alone")
        return True

    field = field_of_steps(path, stress_unit=stress_unit, length_unit=length_unit, cases=None, look=look)
    if len(real) != len(imaginary):
        raise InputError(path.name, "a real part without imaginary one", "a steady-state step alone")
    order = np.argsort(real, kind="stable")
    rows = np.array([2 * i + j for i in order for j in (0, 1)])
    frequency = np.array(real)[order]
    own = {"cases": _names(frequency), "stresses": field.stresses[rows]}
    return SteadyModel(dataclasses.replace(field, **own), read_only(frequency))


def _names(frequency: FloatArray) -> list[str]:
    return [f"{one:.12g} Hz, {part}" for one in frequency for part in CARTESIAN]


# ---- tables ------------------------------------------------------------------------------------------------------


def _of_table(path: Path) -> SteadyModel:
    import pandas as pd

    frame, where = frame_of(path)
    headings = {name_and_unit(str(cell))[0].lower(): str(cell) for cell in frame.columns}
    if "frequency" not in headings:
        raise InputError(where, f"no column 'frequency' among {listed(headings)}", "'frequency [Hz]'")
    if "load case" in headings:
        raise InputError(inside(where, "column 'load case'"), "load cases beside frequencies", "one of both")
    lines = _column(frame, headings["frequency"], where, "frequency")
    pair = CARTESIAN if "xx real" in headings else POLAR
    parts = {one: [f"{one} {part}" for part in pair] for one in COMPONENTS}
    for name in (name for both in parts.values() for name in both):
        if name not in headings:
            wanted = "'xx real [MPa]' and 'xx imaginary [MPa]', or 'xx amplitude [MPa]' and 'xx phase [deg]', to zx"
            raise InputError(where, f"no column {name!r} among {listed(headings)}", wanted)
    second = "stress" if pair == CARTESIAN else "angle"
    first, other = (
        np.array([_column(frame, headings[names[i]], where, ("stress", second)[i]) for names in parts.values()])
        for i in (0, 1)
    )
    values = dict(zip(COMPONENTS, _complex(first, other, pair, where), strict=True))
    own = {headings[name]: frame[headings[name]] for name in headings if name.split(" ")[0] not in values}
    del own[headings["frequency"]]
    frequency = np.unique(lines)
    both = [
        pd.DataFrame(own | {f"{one} [MPa]": getattr(value, part) for one, value in values.items()}).assign(
            **{"load case": [f"{line:.12g} Hz, {name}" for line in lines]}
        )
        for part, name in (("real", "real"), ("imag", "imaginary"))
    ]
    field = field_of_frame(pd.concat(both, ignore_index=True), where)
    return SteadyModel(_in_order(field, frequency), read_only(frequency))


def _column(frame: Any, cell: str, where: str, dimension: str) -> FloatArray:
    place = inside(where, f"column {cell!r}")
    unit = name_and_unit(cell)[1]
    if not unit:
        example = DIMENSIONS[dimension].example.split(" ")[1]
        raise InputError(place, "no unit", f"a unit in brackets, such as '{cell} [{example}]'")
    return np.asarray(column_numbers(frame[cell], place) * factor(unit, DIMENSIONS[dimension], place))


def _complex(first: FloatArray, second: FloatArray, pair: tuple[str, str], where: str) -> ComplexArray:
    """Real and imaginary part, or amplitude and phase in radians, as one number."""
    return np.asarray(first + 1j * second) if pair == CARTESIAN else of_phases(first, np.degrees(second), where)


def _in_order(field: StressField, frequency: FloatArray) -> StressField:
    """Its cases line by line, the real part first."""
    names = _names(frequency)
    rows = np.array([field.cases.index(name) for name in names])
    own: dict[str, Any] = {"cases": names, "stresses": field.stresses[rows]}
    if field.rows is not None:
        own["rows"] = dataclasses.replace(field.rows, stresses=field.rows.stresses[rows])
    return dataclasses.replace(field, **own)


# ---- HDF5 --------------------------------------------------------------------------------------------------------


def _of_hdf5(path: Path) -> SteadyModel:
    needed("h5py", path.name)
    import h5py

    try:
        with h5py.File(path, "r") as file:
            return _of_group(file, path.name)
    except OSError as error:
        raise InputError(path.name, f"a file that cannot be read ({error})", "a whole HDF5 file") from None


def _of_group(file: Any, where: str) -> SteadyModel:
    missing = [name for name in ("frequency", "stresses") if name not in file]
    if missing:
        raise InputError(where, f"no data set {missing[0]!r}", "frequency and stresses")
    frequency = file["frequency"][:] * _unit(file["frequency"], "frequency", where)
    given = file["stresses"][:]
    if frequency.ndim != 1 or (np.diff(frequency) <= 0.0).any() or given.shape[:1] != frequency.shape:
        found = f"{frequency.size} frequencies and stresses of shape {given.shape}"
        raise InputError(where, found, "ascending frequencies, and stresses for each, shape (lines, n, 6)")
    if "phases" in file:
        phases = file["phases"][:]
        if np.iscomplexobj(given) or phases.shape != given.shape:
            raise InputError(inside(where, "phases"), f"shape {phases.shape}", f"one for each amplitude, {given.shape}")
        given = _complex(given, phases * _unit(file["phases"], "angle", where), POLAR, where)
    elif not np.iscomplexobj(given):
        raise InputError(inside(where, "stresses"), "real numbers alone", "complex ones, or amplitudes with phases")
    both = np.stack([given.real, given.imag], axis=1).reshape(-1, *given.shape[1:])
    return SteadyModel(field_of_arrays(file, _names(frequency), both, where), read_only(frequency))


def _unit(data: Any, dimension: str, where: str) -> float:
    """What its numbers are multiplied by."""
    unit = data.attrs.get("unit")
    place = inside(where, data.name.lstrip("/"))
    if unit is None:
        raise InputError(place, "no unit", "an attribute unit")
    return factor(str(unit), DIMENSIONS[dimension], place)
