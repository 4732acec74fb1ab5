"""Strain-controlled tests: strain and stress amplitude at half of the life, life, run-outs; and the files that hold them."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials.fits.specimens import runouts_in
from vivid_anvil.units import number, opened, sound
from vivid_anvil.writing.known_table import KnownTable, read_known
from vivid_anvil.writing.known_values import known_values

COLUMNS = {
    "specimen": "",
    "strain amplitude": "strain",
    "stress amplitude": "stress",
    "plastic strain amplitude": "strain",
    "life": "",
    "reversals": "",
    "run-out": "",
}
LARGEST = 0.2  # strain amplitude, beyond which it is percent or a mistake


@sound
@dataclass(frozen=True, eq=False, repr=False)
class StrainTests:
    """Fully reversed strain-controlled tests, shape (n,) each: strain amplitude, -, stress amplitude, MPa, life, cycles.

    Parameters
    ----------
    name : str
        What they are called in messages, tables and reports.
    strain_amplitude : ndarray
        Total strain amplitudes, -.
    stress_amplitude : ndarray
        Stress amplitudes of the stable loop, MPa.
    lives : ndarray
        Lives, cycles; of run-outs those reached.
    failed : ndarray of bool, optional
        Which specimens failed; all by default.
    plastic_strain_amplitude : ndarray, optional
        Measured plastic strain amplitudes, -; without them they are the total less the stress over E.
    source : str, default "not stated"
        Where they come from.

    Raises
    ------
    InputError
        For rows of unlike length, values that are not above 0, and strains that look like percent.

    Examples
    --------
    >>> StrainTests(name="bar", strain_amplitude=[0.01, 0.003], stress_amplitude=[500.0, 370.0], lives=[500.0, 15e3])
    <StrainTests bar: 2 specimens, 0 run-outs, strain amplitudes from 0.003 to 0.01>
    """

    name: str
    strain_amplitude: FloatArray
    stress_amplitude: FloatArray
    lives: FloatArray
    failed: BoolArray | None = None
    plastic_strain_amplitude: FloatArray | None = None
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(inside("strain tests", "name"), self.name)
        where = f"strain tests {self.name}"
        rows: dict[str, Any] = {}
        for key, unit in (("strain_amplitude", ""), ("stress_amplitude", "MPa"), ("lives", "cycles")):
            rows[key] = checks.finite_samples(
                checks.as_numbers(inside(where, key), getattr(self, key)), where=inside(where, key), unit=unit
            )
        size = rows["lives"].size
        failed = np.ones(size, dtype=bool) if self.failed is None else np.asarray(self.failed)
        if failed.dtype != bool:
            raise InputError(inside(where, "failed"), f"values of type {failed.dtype}", "True or False")
        rows["failed"] = failed
        if self.plastic_strain_amplitude is not None:
            key = "plastic_strain_amplitude"
            rows[key] = checks.finite_samples(
                checks.as_numbers(inside(where, key), self.plastic_strain_amplitude), where=inside(where, key), unit=""
            )
        sizes = {key: one.size for key, one in rows.items()}
        if len(set(sizes.values())) > 1:
            raise InputError(
                where, ", ".join(f"{n} of {key}" for key, n in sizes.items()), "one of each for every specimen"
            )
        for key in ("strain_amplitude", "stress_amplitude", "lives"):
            bad = np.flatnonzero(~(rows[key] > 0.0))
            if bad.size:
                found = f"{rows[key][bad[0]]:g}"
                raise InputError(inside(where, f"specimen {bad[0] + 1}, {key}"), found, "a value above 0")
        high = float(rows["strain_amplitude"].max())
        if high > LARGEST:
            raise InputError(
                inside(where, "strain_amplitude"),
                f"{high:g}",
                f"at most {LARGEST:g}",
                "Is it in percent? Say '%', or divide.",
            )
        for key, one in rows.items():
            object.__setattr__(self, key, checks.kept(np.array(one)))

    @property
    def runouts(self) -> int:
        """How many did not fail."""
        return int((~np.asarray(self.failed)).sum())

    def __len__(self) -> int:
        return int(self.lives.size)

    def to_frame(self) -> Any:
        """A row a specimen, units in the headings."""
        import pandas as pd

        columns = {
            "strain amplitude [-]": self.strain_amplitude,
            "stress amplitude [MPa]": self.stress_amplitude,
            "life [cycles]": self.lives,
            "run-out": ~np.asarray(self.failed),
        }
        return pd.DataFrame(columns)

    def __repr__(self) -> str:
        low, high = (number(float(one)) for one in (self.strain_amplitude.min(), self.strain_amplitude.max()))
        runouts = f"{self.runouts} run-out" + ("" if self.runouts == 1 else "s")
        return f"<StrainTests {self.name}: {len(self)} specimens, {runouts}, strain amplitudes from {low} to {high}>"


@opened()
def read_strain_tests(
    path: str | Path, *, name: str | None = None, sheet: str | int = 0, block: int | str | None = None
) -> StrainTests:
    """The strain-controlled tests in a CSV or Excel file.

    Columns `strain amplitude [..]`, `stress amplitude [..]`, `life [cycles]` or `reversals`; also, where they were measured,
    `plastic strain amplitude [..]`, and `run-out` (yes or no).

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
    StrainTests
        The tests.

    Raises
    ------
    InputError
        With file, row and column, for what is missing or cannot be read.

    Examples
    --------
    >>> read_strain_tests("pin_strain_tests.csv")  # in the folder of `vivid-anvil demo`
    <StrainTests pin_strain_tests: 14 specimens, 1 run-out, strain amplitudes from 0.0014 to 0.015>
    """
    table = read_known(path, tuple(COLUMNS), what="a file of strain-controlled tests", sheet=sheet, block=block)
    where, known = table.where, {head.column for head in table.headings}
    if not {"strain amplitude", "stress amplitude"} <= known or len(known & {"life", "reversals"}) != 1:
        expected = "'strain amplitude [%]', 'stress amplitude [MPa]', and 'life [cycles]' or 'reversals'"
        raise InputError(where, f"the columns {listed(known)}", expected)
    lives = _values(table, "life") if "life" in known else 0.5 * _values(table, "reversals")
    plastic = _values(table, "plastic strain amplitude") if "plastic strain amplitude" in known else None
    return StrainTests(
        name=name or Path(path).stem,
        strain_amplitude=_values(table, "strain amplitude"),
        stress_amplitude=_values(table, "stress amplitude"),
        lives=lives,
        failed=~runouts_in(table),
        plastic_strain_amplitude=plastic,
        source=table.told,
    )


def _values(table: KnownTable, key: str) -> FloatArray:
    return known_values(table, key, COLUMNS[key], ("cycle", "cycles", "reversals"), "lives in cycles, or reversals")
