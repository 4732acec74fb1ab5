"""Tables over frequency from text files and workbooks: PSDs, cross-spectra, frequency responses; responses from HDF5 too."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing
from vivid_anvil.spectra.cross_spectra import SpectralMatrix
from vivid_anvil.spectra.psd import PSD
from vivid_anvil.spectra.responses.response_table import ResponseTable
from vivid_anvil.units import DIMENSIONS, coherent, coherent_ratio, opened
from vivid_anvil.units.door import factor
from vivid_anvil.units.psd import psd_dimension, psd_of
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

FREQUENCY = "frequency"
PARTS = ("real", "imaginary")
SIZE_AND_PHASE = ("magnitude", "phase")


@opened()
def read_psd(path: str | Path, *, channel: str | None = None, between: str = "log-log", sheet: str | int = 0) -> PSD:
    r"""A PSD from a CSV file or a workbook: the column `frequency [Hz]`, and a column such as `base [g^2/Hz]`.

    Parameters
    ----------
    path : str or path
        The file.
    channel : str, optional
        Which column, where there are several.
    between : str, default "log-log"
        How it runs between its points; one of `BETWEEN_POINTS`.
    sheet : str or int, default 0
        Sheet of a workbook.

    Returns
    -------
    PSD
        Of the dimension that the heading says.

    Raises
    ------
    InputError
        With file and column.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("rope.csv").write_text("frequency [Hz],base [g^2/Hz]\n5,0.001\n50,0.02\n500,0.002\n")
    >>> read_psd("rope.csv")
    <PSD of acceleration: 3 points, 5 to 500 Hz, rms 16.22 m/s^2>
    """
    frame, where = read_frame(path, sheet, "a table of a PSD")
    frequency, others = _frequency(frame, where)
    names = [name_and_unit(cell)[0] for cell in others]
    if channel is None and len(others) != 1:
        raise InputError(where, f"columns {listed(names)}", "one PSD", "Say which: channel = ...")
    if channel is not None and channel not in names:
        raise InputError(where, f"no column {channel!r}", f"one of {listed(names)}", did_you_mean(channel, names))
    heading = others[0 if channel is None else names.index(channel)]
    place = inside(where, f"column {heading!r}")
    unit = _unit(heading, place, "base [g^2/Hz]")
    kind = psd_of(unit, place)
    values = column_numbers(frame[heading], place) * factor(unit, psd_dimension(kind), place)
    return PSD(frequency, values, kind, between)


@opened()
def read_response(path: str | Path, *, between: str = "real and imaginary", sheet: str | int = 0) -> ResponseTable:
    r"""A frequency response from a CSV file, a workbook, or HDF5: frequency, and real and imaginary part, or magnitude and phase.

    Columns are `frequency [Hz]`, then `real [MPa/g]` and `imaginary [MPa/g]`, or `magnitude [MPa/g]` and `phase [deg]`; in HDF5
    datasets of these names with the attribute `unit`.

    Parameters
    ----------
    path : str or path
        The file.
    between : str, default "real and imaginary"
        How it runs between lines; one of `BETWEEN_LINES`.
    sheet : str or int, default 0
        Sheet of a workbook.

    Returns
    -------
    ResponseTable
        The response, in the unit that the headings say.

    Raises
    ------
    InputError
        With file and column; for a phase without unit, or one that seems to be in another.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("arm.csv").write_text("frequency [Hz],magnitude [MPa/g],phase [deg]\n10,2,-5\n20,4,-90\n30,1,-170\n")
    >>> read_response("arm.csv").words
    'a table of 3 lines, 10 to 30 Hz, real and imaginary between them'
    """
    columns, where = _hdf5(path) if Path(path).suffix.lower() in (".h5", ".hdf5") else _frame_columns(path, sheet)
    names = [name for name in (*PARTS, *SIZE_AND_PHASE) if name in columns]
    if FREQUENCY not in columns or tuple(names) not in (PARTS, SIZE_AND_PHASE):
        raise InputError(
            where,
            f"columns {listed(columns)}",
            "frequency with real and imaginary, or with magnitude and phase",
            "Head them for instance 'frequency [Hz]', 'magnitude [MPa/g]', 'phase [deg]'.",
        )
    frequency = _scaled(columns, FREQUENCY, "frequency", where)
    (first, unit), (second, other) = columns[names[0]], columns[names[1]]
    common: dict[str, Any] = {"per": unit, "between": between, "input": _input_of(unit, inside(where, names[0]))}
    if tuple(names) == PARTS:
        if other != unit:
            raise InputError(where, f"parts in {unit} and {other}", "both in one unit")
        return ResponseTable(frequency=frequency, values=first + 1j * second, **common)
    degrees = second if other == "deg" else np.degrees(second * coherent(f"1 {other}", "angle", inside(where, "phase")))
    return ResponseTable.of_phases(frequency, first, degrees, **common)


def holds(path: str | Path) -> str:
    """What a file holds by its headings: "PSD", "response", or "history" where it has no frequencies.

    >>> _ = Path("lap.csv").write_text("time [s],force [kN]\\n0,1\\n")
    >>> holds("lap.csv")
    'history'
    """
    if Path(path).suffix.lower() in (".h5", ".hdf5"):
        return "response"
    if Path(path).suffix.lower() not in (".csv", ".txt", ".xlsx", ".xls", ".ods"):
        return "history"
    frame, _ = read_frame(path, 0, "a table over frequency")
    names = [name_and_unit(str(cell))[0].lower() for cell in frame.columns]
    if FREQUENCY not in names:
        return "history"
    return "response" if {*PARTS, *SIZE_AND_PHASE} & set(names) else "PSD"


@opened()
def read_cross_spectra(path: str | Path, *, conjugated: str, sheet: str | int = 0) -> SpectralMatrix:
    r"""A spectral matrix from a CSV file or a workbook: PSDs as `x [g^2/Hz]`, a pair as `x y real`, `x y imaginary`.

    Parameters
    ----------
    path : str or path
        The file.
    conjugated : str
        Which factor of a pair is the conjugate one, "first" or "second".
    sheet : str or int, default 0
        Sheet of a workbook.

    Returns
    -------
    SpectralMatrix
        Pairs without a column are independent.

    Raises
    ------
    InputError
        With file and column; for a matrix that no inputs have.

    Examples
    --------
    >>> from pathlib import Path
    >>> text = "frequency [Hz],x [g^2/Hz],y [g^2/Hz],x y real [g^2/Hz],x y imaginary [g^2/Hz]\n"
    >>> _ = Path("axes.csv").write_text(text + "10,0.02,0.03,0.01,0.005\n100,0.02,0.03,0.01,0.005\n")
    >>> read_cross_spectra("axes.csv", conjugated="second").names
    ('x', 'y')
    """
    frame, where = read_frame(path, sheet, "a table of cross-spectra")
    frequency, others = _frequency(frame, where)
    own = {heading: name_and_unit(heading)[0] for heading in others}
    pairs = {heading: name for heading, name in own.items() if name.endswith((" real", " imaginary"))}
    names = tuple(name for heading, name in own.items() if heading not in pairs)
    kinds = {}
    values = np.zeros((frequency.size, len(names), len(names)), dtype=np.complex128)
    for heading, name in own.items():
        if heading in pairs:
            continue
        place = inside(where, f"column {heading!r}")
        kinds[name] = psd_of(_unit(heading, place, "x [g^2/Hz]"), place)
        scale = factor(name_and_unit(heading)[1], psd_dimension(kinds[name]), place)
        values[:, names.index(name), names.index(name)] = scale * column_numbers(frame[heading], place)
    for heading, name in pairs.items():
        place = inside(where, f"column {heading!r}")
        j, k = _pair(name, names, place)
        unit = _unit(heading, place, "x y real [g^2/Hz]")
        kind = psd_of(unit, place)
        part = factor(unit, psd_dimension(kind), place) * column_numbers(frame[heading], place)
        both = part if name.endswith(" real") else 1j * part
        values[:, j, k] += both
        values[:, k, j] += np.conj(both)
    return SpectralMatrix(names, tuple(kinds.values()), frequency, values, conjugated)


def _pair(name: str, names: tuple[str, ...], where: str) -> tuple[int, int]:
    """Which two inputs a column such as "x y real" is of."""
    words = name.rsplit(" ", 1)[0]
    for j, one in enumerate(names):
        for k, other in enumerate(names):
            if j != k and words == f"{one} {other}":
                return j, k
    raise InputError(where, repr(words), f"two of {listed(names)}, such as 'x y real'")


def _frequency(frame: Any, where: str) -> tuple[FloatArray, list[str]]:
    """Frequencies, Hz, and the headings of the other columns."""
    cells = [str(cell) for cell in frame.columns]
    own = next((cell for cell in cells if name_and_unit(cell)[0].lower() == FREQUENCY), None)
    if own is None:
        raise InputError(where, f"columns {listed(cells)}", "a column 'frequency [Hz]'")
    place = inside(where, f"column {own!r}")
    scale = coherent(f"1 {_unit(own, place, 'frequency [Hz]')}", "frequency", place)
    return column_numbers(frame[own], place) * scale, [cell for cell in cells if cell != own]


def _unit(heading: str, where: str, example: str) -> str:
    unit = name_and_unit(heading)[1]
    if not unit:
        raise InputError(where, "no unit", f"a heading with its unit, such as {example!r}")
    return unit


def _frame_columns(path: str | Path, sheet: str | int) -> tuple[dict[str, tuple[FloatArray, str]], str]:
    """Columns by their names, with their units."""
    frame, where = read_frame(path, sheet, "a table of a frequency response")
    found = {}
    for cell in map(str, frame.columns):
        place = inside(where, f"column {cell!r}")
        found[name_and_unit(cell)[0].lower()] = (column_numbers(frame[cell], place), _unit(cell, place, "phase [deg]"))
    return found, where


def _hdf5(path: str | Path) -> tuple[dict[str, tuple[FloatArray, str]], str]:
    """Datasets by their names, with their attribute `unit`."""
    file = existing(path, "a table of a frequency response")
    needed("h5py", file.name)
    import h5py

    found = {}
    with h5py.File(file, "r") as store:
        for name, data in store.items():
            unit = data.attrs.get("unit", "")
            if not unit:
                raise InputError(
                    inside(file.name, f"dataset {name!r}"), "no attribute 'unit'", "its unit, such as 'MPa/g'"
                )
            found[name] = (np.asarray(data, dtype=np.float64), str(unit))
    return found, file.name


def _scaled(columns: dict[str, tuple[FloatArray, str]], name: str, dimension: str, where: str) -> FloatArray:
    values, unit = columns[name]
    return values * coherent(f"1 {unit}", dimension, inside(where, name))


def _input_of(unit: str, where: str) -> str:
    """What the input is by the unit of stress for it; InputError for a unit of something else."""
    for name in DIMENSIONS:
        try:
            coherent_ratio(f"1 {unit}", "stress", name, where)
        except InputError:
            continue
        return name
    raise InputError(where, f"the unit {unit!r}", "a stress for an input, such as 'MPa/g' or 'MPa/kN'")
