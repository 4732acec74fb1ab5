"""Tests of sheets of rubber: stretch and force over undeformed area in simple, planar and equibiaxial tension; their files."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials.rubber.loading_modes import LOADING_MODES
from vivid_anvil.units import number, opened, sound
from vivid_anvil.writing.known_table import KnownTable, read_known
from vivid_anvil.writing.known_values import known_values

COLUMNS = {
    "mode": "",
    "stretch": "",
    "engineering strain": "strain",
    "true strain": "strain",
    "nominal stress": "stress",
    "true stress": "stress",
}
STRAINS, STRESSES = ("stretch", "engineering strain", "true strain"), ("nominal stress", "true stress")
LARGEST = 12.0  # stretch, beyond which a strain is percent


@sound
@dataclass(frozen=True, eq=False, repr=False)
class RubberTests:
    """Points of tests of sheets, shape (n,) each: mode, stretch, -, nominal stress, MPa.

    Parameters
    ----------
    name : str
        What they are called in messages, tables and reports.
    modes : sequence of str
        One of `LOADING_MODES` for each point.
    stretch : ndarray
        Stretches along the pull, -.
    nominal_stress : ndarray
        Force over undeformed area, MPa.
    source : str, default "not stated"
        Where they come from.

    Raises
    ------
    InputError
        For rows of unlike length, unknown modes, stretches at or below 0, and strains that look like percent.

    Examples
    --------
    >>> RubberTests(name="sheet", modes=["simple"] * 2, stretch=[1.2, 1.8], nominal_stress=[0.38, 1.0])
    <RubberTests sheet: 2 points, simple from 1.2 to 1.8>
    """

    name: str
    modes: tuple[str, ...]
    stretch: FloatArray
    nominal_stress: FloatArray
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(inside("rubber tests", "name"), self.name)
        where = f"rubber tests {self.name}"
        given: Any = self.modes
        if isinstance(given, str) or not isinstance(given, Sequence | np.ndarray):
            raise InputError(inside(where, "modes"), repr(given), "one mode for every point")
        modes = tuple(str(one) for one in given)
        for i, one in enumerate(modes, 1):
            checks.one_of(inside(where, f"point {i}, mode"), one, tuple(LOADING_MODES))
        object.__setattr__(self, "modes", modes)
        for key, unit in (("stretch", ""), ("nominal_stress", "MPa")):
            found = checks.finite_samples(
                checks.as_numbers(inside(where, key), getattr(self, key)), where=inside(where, key), unit=unit
            )
            if found.size != len(modes):
                raise InputError(inside(where, key), f"{found.size} values", f"{len(modes)}, one for every mode")
            object.__setattr__(self, key, checks.kept(found))
        bad = np.flatnonzero((self.stretch <= 0.0) | (self.stretch > LARGEST))
        if bad.size:
            raise InputError(
                inside(where, f"point {bad[0] + 1}, stretch"),
                f"{self.stretch[bad[0]]:g}",
                f"above 0 and up to {LARGEST:g}",
                "Is it a strain in percent? Say 'engineering strain [%]'.",
            )
        wrong = np.flatnonzero((self.stretch - 1.0) * self.nominal_stress < 0.0)
        if wrong.size:
            raise InputError(
                inside(where, f"point {wrong[0] + 1}"),
                f"{self.nominal_stress[wrong[0]]:g} MPa at a stretch of {self.stretch[wrong[0]]:g}",
                "tension where it is longer, compression where it is shorter",
                "Is it a stretch, or a strain?",
            )

    def of(self, mode: str) -> tuple[FloatArray, FloatArray]:
        """Stretch and nominal stress of the points of one mode, by stretch."""
        rows = np.flatnonzero(np.array(self.modes) == mode)
        rows = rows[np.argsort(self.stretch[rows], kind="stable")]
        return self.stretch[rows], self.nominal_stress[rows]

    @property
    def tested(self) -> tuple[str, ...]:
        """The modes that were tested, in the order of the table of modes."""
        return tuple(mode for mode in LOADING_MODES if mode in self.modes)

    def __len__(self) -> int:
        return len(self.modes)

    def to_frame(self) -> Any:
        """A row a point, units in the headings."""
        import pandas as pd

        return pd.DataFrame(
            {"mode": list(self.modes), "stretch": self.stretch, "nominal stress [MPa]": self.nominal_stress}
        )

    def __repr__(self) -> str:
        ranges = ", ".join(
            f"{mode} from {number(self.of(mode)[0][0])} to {number(self.of(mode)[0][-1])}" for mode in self.tested
        )
        return f"<RubberTests {self.name}: {len(self)} points, {ranges}>"


@opened()
def read_rubber_tests(
    path: str | Path, *, name: str | None = None, sheet: str | int = 0, block: int | str | None = None
) -> RubberTests:
    """The tests of sheets in a CSV or Excel file.

    Columns `mode`; `stretch`, `engineering strain [..]` or `true strain [..]`; `nominal stress [..]` or `true stress [..]`: what

    Parameters
    ----------
    path : str or path
        The file.
    name : str, optional
        What they are called; by default the name of the file.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    block : int or str, optional
        Which of several blocks of columns side by side, from 1.

    Returns
    -------
    RubberTests
        The tests.

    Raises
    ------
    InputError
        With file, row and column, for what is missing or cannot be read.

    Examples
    --------
    >>> from pathlib import Path
    >>> lines = "mode,engineering strain [%],nominal stress [MPa]", "simple,20,0.38", "simple,80,1.0"
    >>> Path("sheet.csv").write_text("\\n".join(lines)).__bool__()
    True
    >>> read_rubber_tests("sheet.csv")
    <RubberTests sheet: 2 points, simple from 1.2 to 1.8>
    """
    table = read_known(path, tuple(COLUMNS), what="a file of tests of rubber sheets", sheet=sheet, block=block)
    where, known = table.where, {head.column for head in table.headings}
    if "mode" not in known or len(known & set(STRAINS)) != 1 or len(known & set(STRESSES)) != 1:
        expected = (
            "'mode', one of 'stretch', 'engineering strain [%]', 'true strain [%]', and 'nominal stress [MPa]' or "
            "'true stress [MPa]'"
        )
        raise InputError(where, f"the columns {listed(known)}", expected)
    (strain,), (stress,) = known & set(STRAINS), known & set(STRESSES)
    own = _values(table, strain)
    stretch = own if strain == "stretch" else 1.0 + own if strain == "engineering strain" else np.exp(own)
    force = _values(table, stress)
    return RubberTests(
        name=name or Path(path).stem,
        modes=tuple(str(one).strip() for one in table.frame["mode"]),
        stretch=stretch,
        nominal_stress=force if stress == "nominal stress" else force / stretch,
        source=table.told,
    )


def _values(table: KnownTable, key: str) -> FloatArray:
    said = "a stretch, which is a number: 1 where nothing is pulled"
    return known_values(table, key, COLUMNS[key], ("mm/mm",), said)
