"""Fatigue tests: specimens with the stress they ran at, their life, and whether they failed or ran out.

In: a CSV or Excel file with columns such as `stress amplitude [MPa],life [cycles],run-out`. Out: `SpecimenSeries`.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, field_of, inside, listed
from vivid_anvil.materials.curves.curve import ANY_R, RRatio, StressKind
from vivid_anvil.units import DIMENSIONS, factor, number, opened, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.html import html_frame
from vivid_anvil.writing.known_table import KnownTable, read_known
from vivid_anvil.writing.read_table import column_numbers
from vivid_anvil.writing.table import Column, Table

STRESS_COLUMNS = ("stress range", "stress amplitude", "maximum stress")
OTHER_COLUMNS = ("life", "run-out", "r_ratio", "specimen", "remark")
_WHICH_STRESS = (
    "Say which: 'stress range [MPa]' (maximum - minimum) or 'stress amplitude [MPa]' (half of it); or state stress."
)
STRESS_HINTS = dict.fromkeys(("stress", "s", "σ", "sigma"), _WHICH_STRESS)
_YES = {"yes", "true", "1", "1.0", "run-out", "runout", "y"}
_NO = {"no", "false", "0", "0.0", "failed", "failure", "n", ""}


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class SpecimenSeries:
    """Specimens of one series: `stresses`, MPa (range or amplitude as `stress` says), `lives`, cycles, and `failed`.

    All three have shape (n,), in the order of the tests. Levels are the distinct stresses.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : StressKind
        Whether the stresses are ranges or amplitudes.
    r_ratio : RRatio
        Ratio of the smallest to the largest stress, R, -.
    stresses : ndarray
        Stress of each test, MPa.
    lives : ndarray
        Cycles of each test.
    failed : any
        Which of the tests failed; the others are run-outs.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> SpecimenSeries(
    ...     name="coupons", stress="amplitude", r_ratio=-1, stresses=[300.0, 250.0], lives=[1e5, 2e6], failed=[True, False]
    ... )
    <SpecimenSeries coupons: 2 specimens, 1 run-out, 2 levels from 250 to 300 MPa stress amplitude, R = -1>
    """

    name: str
    stress: StressKind
    r_ratio: RRatio
    stresses: FloatArray
    lives: FloatArray
    failed: Any
    source: str = "not stated"

    def __post_init__(self) -> None:
        where = f"tests {self.name}"
        checks.text(field_of("SpecimenSeries", "name"), self.name)
        checks.one_of(inside(where, "stress"), self.stress, ("range", "amplitude"))
        if (
            not (isinstance(self.r_ratio, str) and self.r_ratio == ANY_R)
            and not checks.real_number(inside(where, "r_ratio"), self.r_ratio, "R or 'any'") < 1.0
        ):
            raise InputError(inside(where, "r_ratio"), f"{self.r_ratio}", "minimum / maximum below 1, or 'any'")
        stresses = checks.finite_samples(
            checks.as_numbers(inside(where, "stress"), self.stresses), where=inside(where, "stress"), unit="MPa"
        )
        lives = checks.finite_samples(
            checks.as_numbers(inside(where, "life"), self.lives), where=inside(where, "life"), unit="cycles"
        )
        failed = np.asarray(self.failed)
        if failed.dtype != bool:
            raise InputError(inside(where, "failed"), f"values of type {failed.dtype}", "True or False")
        if not stresses.size == lives.size == failed.size:
            found = f"{stresses.size} stresses, {lives.size} lives, {failed.size} outcomes"
            raise InputError(where, found, "one of each for every specimen")
        for i in range(stresses.size):
            if not stresses[i] > 0.0:
                raise InputError(
                    inside(where, f"specimen {i + 1}, stress"), f"{stresses[i]:g} MPa", "a stress above 0 MPa"
                )
            if not lives[i] >= 1.0:
                raise InputError(inside(where, f"specimen {i + 1}, life"), f"{lives[i]:g} cycles", "at least 1 cycle")
        for field, values in (("stresses", stresses), ("lives", lives), ("failed", failed)):
            object.__setattr__(self, field, checks.kept(np.array(values)))

    @property
    def levels(self) -> FloatArray:
        """The distinct stresses, MPa, rising."""
        return np.unique(self.stresses)

    @property
    def runouts(self) -> int:
        """How many specimens did not fail."""
        return int((~self.failed).sum())

    def __len__(self) -> int:
        return int(self.stresses.size)

    @property
    def summary(self) -> str:
        """Specimens, run-outs and levels in words."""
        ratio = "any R" if self.r_ratio == ANY_R else f"R = {self.r_ratio:g}"
        runouts = f"{self.runouts} run-out" + ("" if self.runouts == 1 else "s")
        return (
            f"{len(self)} specimens, {runouts}, {self.levels.size} levels from "
            f"{number(self.levels[0])} to {number(self.levels[-1])} MPa stress {self.stress}, {ratio}"
        )

    def levels_tested(self) -> Table:
        """A row a stress level, the highest first: tests, run-outs, shortest and longest life."""
        of = [self.stresses == level for level in self.levels[::-1]]
        columns = (
            Column(f"stress {self.stress}", self.levels[::-1].tolist(), of="stress"),
            Column("tests", [int(one.sum()) for one in of]),
            Column("run-outs", [int((one & ~self.failed).sum()) for one in of]),
            Column(
                "shortest life", [float(self.lives[one].min()) for one in of], unit="cycles", bare=True, style="number"
            ),
            Column(
                "longest life", [float(self.lives[one].max()) for one in of], unit="cycles", bare=True, style="number"
            ),
        )
        return Table("", columns, "levels tested")

    def to_frame(self) -> Any:
        """A row a specimen, in the order of the tests: stress, life and whether it ran out, units in the headings."""
        import pandas as pd

        return pd.DataFrame(
            {f"stress {self.stress} [MPa]": self.stresses, "life [cycles]": self.lives, "run-out": ~self.failed}
        )

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        return f"<SpecimenSeries {self.name}: {self.summary}>"


@opened()
def read_specimens(
    path: str | Path,
    *,
    r_ratio: RRatio | None = None,
    name: str | None = None,
    sheet: str | int = 0,
    block: int | str | None = None,
    stress: str | None = None,
) -> SpecimenSeries:
    """The fatigue tests in a CSV or Excel file.

    A column `stress range [..]`, `stress amplitude [..]` or `maximum stress [..]`, one `life [cycles]`, and `run-out` (yes or
    no). R is a column `r_ratio`, the same in all rows, or given.

    Headings may be as people write them (`N`, `Amplitude (MPa)`; `S (MPa)` with `stress`, "range" or "amplitude"), titles may
    stand above; `block` chooses one of several blocks of columns side by side. `source` tells how they were understood.

    Parameters
    ----------
    path : str or path
        The file.
    r_ratio : RRatio, optional
        Ratio of the smallest to the largest stress, R, -.
    name : str, optional
        What it is called in messages, tables and reports.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    block : int or str, optional
        Which of several blocks of columns side by side, from 1.
    stress : str, optional
        Whether the stresses are a "range" or an "amplitude", where no heading says it.

    Returns
    -------
    SpecimenSeries
        The tests.

    Raises
    ------
    InputError
        With file, row and column, for anything that is missing or cannot be read.

    Examples
    --------
    >>> read_specimens("tube_tests.csv")  # in the folder of `vivid-anvil demo`
    <SpecimenSeries tube_tests: 34 specimens, 9 run-outs, 7 levels from 185 to 300 MPa stress amplitude, R = -1>
    """
    known = (*STRESS_COLUMNS, *OTHER_COLUMNS, "stress") if stress is not None else (*STRESS_COLUMNS, *OTHER_COLUMNS)
    table = read_known(path, known, what="a file of tests", sheet=sheet, block=block, hints=STRESS_HINTS)
    frame, where = table.frame, table.where
    stress_name, column = _stress_column(table, stress)
    ratio = _ratio(table, r_ratio)
    one = factor(table.unit(column), DIMENSIONS["stress"], inside(where, f"column {column!r}"))
    stresses = one * column_numbers(frame[column], inside(where, f"column {column!r}"))
    if stress_name == "maximum stress":
        if ratio == ANY_R:
            raise InputError(where, "maximum stresses without an R", "r_ratio of the tests", "State it.")
        stresses = 0.5 * stresses * (1.0 - float(ratio))
    return SpecimenSeries(
        name=name or Path(path).stem,
        stress="range" if stress_name == "stress range" else "amplitude",
        r_ratio=ratio,
        stresses=stresses,
        lives=column_numbers(frame["life"], inside(where, "column 'life'")),
        failed=~runouts_in(table),
        source=table.told,
    )


def _stress_column(table: KnownTable, stated: str | None) -> tuple[str, str]:
    """What kind of stress there is, and in which column; InputError without one, or where it has no unit."""
    if stated is not None:
        checks.one_of(inside(f"{table.where}", "stress"), stated, ("range", "amplitude"))
    found = [name for name in (*STRESS_COLUMNS, "stress") if name in table]
    if len(found) != 1 or "life" not in table:
        expected = f"one of {listed(STRESS_COLUMNS)}, each with its unit, and 'life [cycles]'"
        raise InputError(table.where, f"the columns {', '.join(heading.cell for heading in table.headings)}", expected)
    kind = f"stress {stated}" if found[0] == "stress" else found[0]
    if stated is not None and kind != f"stress {stated}":
        raise InputError(inside(f"{table.where}", "stress"), repr(stated), f"a {kind}, as the file is headed")
    if not table.unit(found[0]):
        cell = next(heading.cell for heading in table.headings if heading.column == found[0])
        raise InputError(
            f"{table.where}, column {cell!r}", "no unit", "a unit of stress", f"Head it {cell + ' [MPa]'!r}."
        )
    if table.unit("life") not in ("", "cycle", "cycles", "1", "-"):
        raise InputError(f"{table.where}, column 'life'", repr(table.unit("life")), "lives in cycles")
    return kind, found[0]


def _ratio(table: KnownTable, given: RRatio | None) -> RRatio:
    where = table.where
    if "r_ratio" not in table:
        if given is None:
            raise InputError(
                where, "no R of the tests", "minimum / maximum of the load", "Add a column r_ratio, or state r_ratio."
            )
        return given
    values = np.unique(column_numbers(table.frame["r_ratio"], inside(where, "column 'r_ratio'")))
    if values.size > 1:
        found = ", ".join(f"{value:g}" for value in values)
        raise InputError(inside(where, "column 'r_ratio'"), f"the values {found}", "one R", "Make a file of each.")
    if given is not None and (np.ndim(given) or given != values[0]):
        raise InputError(inside(where, "column 'r_ratio'"), f"{values[0]:g}", f"the R that was stated, {given}")
    return float(values[0])


def runouts_in(table: KnownTable) -> Any:
    """Which rows of a table of tests are run-outs, by their column "run-out"; none without it."""
    if "run-out" not in table:
        return np.zeros(len(table.frame), dtype=bool)
    runouts = []
    for row, cell in enumerate(table.frame["run-out"].tolist(), start=1):
        text = "" if cell is None or cell != cell else str(cell).strip().lower()  # an empty cell is not equal to itself
        if text not in _YES | _NO:
            raise InputError(f"{table.where}, row {row}, column 'run-out'", repr(cell), "yes or no")
        runouts.append(text in _YES)
    return np.array(runouts, dtype=bool)


def series_findings(series: SpecimenSeries) -> Iterator[Finding]:
    """What an expert would say about the tests before any fit."""
    size, levels = len(series), series.levels.size
    if size < 12:
        yield Finding(
            "warning" if size < 6 else "note",
            "few-specimens",
            f"{size} specimens; ASTM E739 asks for 6 to 12 in preliminary tests, 12 to 24 for design allowables.",
            "Test more, or take the tolerance limit of these, not the median.",
        )
    if levels < 4:
        yield Finding(
            "warning" if levels < 3 else "note",
            "few-levels",
            f"{levels} stress levels: whether the line is straight can hardly be told.",
            "Spread the tests over four levels or more.",
        )
    failed = series.lives[series.failed]
    if failed.size and float(failed.min()) < 1e3:
        yield Finding(
            "warning",
            "low-cycle-tests",
            f"The shortest life is {number(float(failed.min()))} cycles.",
            "Below about 1000 cycles the specimen yields: leave such tests to a local-strain curve.",
        )
    longest = float(series.lives.max())
    at_the_end = int(((series.lives == longest) & series.failed).sum())
    if at_the_end > 1 and not series.runouts:
        yield Finding(
            "warning",
            "hidden-run-outs",
            f"{at_the_end} specimens failed at exactly the longest life, {number(longest)} cycles.",
            "Did they run out? Then mark them in the column 'run-out'.",
        )
    short = series.lives[~series.failed]
    if short.size and failed.size and float(short.min()) < 0.5 * float(failed.max()):
        yield Finding(
            "note",
            "early-run-outs",
            f"A test was stopped at {number(float(short.min()))} cycles, while others failed at up to "
            f"{number(float(failed.max()))} cycles.",
            "It tells little; run such specimens longer.",
        )
