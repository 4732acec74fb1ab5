"""Tests of cracks that grow in rubber: tearing energy and rate, as measured, or from what was done to a strip; their files."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials.rubber.cracked_strips import EDGE_FORMS, edge_crack_energy, planar_strip_energy
from vivid_anvil.materials.rubber.hyperelastic import HyperelasticLaw
from vivid_anvil.units import number, opened, sound
from vivid_anvil.writing.known_table import KnownTable, read_known
from vivid_anvil.writing.known_values import known_values

COLUMNS = {
    "growth rate": "growth rate",
    "tearing energy": "energy release rate",
    "stretch": "",
    "energy density": "energy density",
    "height": "length",
    "crack": "length",
    "r": "",
}
WAYS = "'tearing energy [kJ/m^2]'; or 'height [mm]' (planar strip) or 'crack [mm]' (edge crack) beside a stretch"


@sound
@dataclass(frozen=True, eq=False, repr=False)
class TearingTests:
    """Points of growth tests, shape (n,) each: largest tearing energy of the cycle, N/mm, growth, mm/cycle, R.

    Parameters
    ----------
    name : str
        What they are called in messages, tables and reports.
    energies : array_like
        Largest tearing energy of each cycle, N/mm.
    rates : array_like
        Growth, mm/cycle.
    r_ratios : array_like or float, default 0
        Least over largest tearing energy.
    source : str, default "not stated"
        Where they come from.

    Raises
    ------
    InputError
        For rows of unlike length, fewer than three points, energies or rates at or below 0, and R outside of 0 to below 1.

    Examples
    --------
    >>> TearingTests(name="strip", energies=[0.5, 1.0, 2.0], rates=[1e-5, 4e-5, 1.7e-4])
    <TearingTests strip: 3 points, 0.5 to 2 N/mm, R 0>
    """

    name: str
    energies: FloatArray
    rates: FloatArray
    r_ratios: FloatArray | float = 0.0
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(inside("tearing tests", "name"), self.name)
        where = f"tearing tests {self.name}"
        energies = checks.finite_samples(self.energies, where=inside(where, "energies"), unit="N/mm")
        rates = checks.finite_samples(self.rates, where=inside(where, "rates"), unit="mm/cycle")
        given = checks.as_numbers(inside(where, "r_ratios"), self.r_ratios)
        ratios = np.full(energies.size, float(given)) if given.ndim == 0 else given
        if not energies.size == rates.size == ratios.size or energies.size < 3:
            found = f"{energies.size} energies, {rates.size} rates, {ratios.size} of R"
            raise InputError(where, found, "as many of each, three or more")
        for key, values, unit in (("energies", energies, "N/mm"), ("rates", rates, "mm/cycle")):
            low = np.flatnonzero(~(values > 0.0))
            if low.size:
                raise InputError(
                    inside(where, f"point {low[0] + 1}, {key}"), f"{values[low[0]]:g} {unit}", "a value above 0"
                )
        bad = np.flatnonzero(~((ratios >= 0.0) & (ratios < 1.0)))
        if bad.size:
            raise InputError(inside(where, f"point {bad[0] + 1}, R"), f"{ratios[bad[0]]:g}", "0 up to below 1")
        for key, values in (("energies", energies), ("rates", rates), ("r_ratios", ratios)):
            object.__setattr__(self, key, checks.kept(np.array(values, dtype=np.float64)))

    @property
    def ratios(self) -> FloatArray:
        """R of each point."""
        return np.asarray(self.r_ratios)

    def to_frame(self) -> Any:
        """A row a point, units in the headings."""
        import pandas as pd

        return pd.DataFrame(
            {"tearing energy [N/mm]": self.energies, "growth rate [mm/cycle]": self.rates, "R": self.ratios}
        )

    def __len__(self) -> int:
        return int(self.energies.size)

    def __repr__(self) -> str:
        ratios = [number(one) for one in sorted(set(self.ratios.tolist()))]
        reach = f"{number(self.energies.min())} to {number(self.energies.max())} N/mm"
        return f"<TearingTests {self.name}: {len(self)} points, {reach}, R {', '.join(ratios)}>"


@opened()
def read_tearing_tests(
    path: str | Path,
    *,
    law: HyperelasticLaw | None = None,
    edge_form: str = "pi over root",
    name: str | None = None,
    sheet: str | int = 0,
) -> TearingTests:
    """Growth tests in a CSV or Excel file: `growth rate [mm/cycle]` beside what the crack was driven by.

    That is `tearing energy [kJ/m^2]`; or, of a planar strip, `height [mm]`; or, of a strip with an edge crack, `crack [mm]`,
    each with `stretch` and either `energy density [kJ/m^3]` or a `law` that gives it. A column `R` holds least over largest
    tearing energy, 0 where there is none.

    Parameters
    ----------
    path : str or path
        The file.
    law : HyperelasticLaw, optional
        Energy of a stretch, where the file holds none.
    edge_form : str, default "pi over root"
        One of `EDGE_FORMS`, for edge cracks.
    name : str, optional
        What they are called; by default the name of the file.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.

    Returns
    -------
    TearingTests
        The tests.

    Raises
    ------
    InputError
        With file, row and column, for what is missing or cannot be read.

    Examples
    --------
    >>> from pathlib import Path
    >>> from vivid_anvil.materials.rubber import MooneyRivlin
    >>> rows = "height [mm],stretch,growth rate [mm/cycle]", "12,1.4,2e-5", "12,1.6,5e-5", "12,1.8,1.1e-4"
    >>> _ = Path("strip.csv").write_text("\\n".join(rows))
    >>> read_tearing_tests("strip.csv", law=MooneyRivlin(name="bushing", c10=0.3, c01=0.08)).energies.round(3)
    array([2.144, 4.335, 7.062])
    """
    checks.one_of("tearing tests, edge_form", edge_form, EDGE_FORMS)
    table = read_known(path, tuple(COLUMNS), what="a file of growth tests of rubber", sheet=sheet)
    known = {head.column for head in table.headings}
    ways = known & {"tearing energy", "height", "crack"}
    if "growth rate" not in known or len(ways) != 1 or ("tearing energy" in ways) == ("stretch" in known):
        raise InputError(table.where, f"the columns {listed(known)}", f"'growth rate [mm/cycle]' and {WAYS}")
    (way,) = ways
    energies = (
        _column(table, "tearing energy") if way == "tearing energy" else _of_strips(table, known, way, law, edge_form)
    )
    ratios = _column(table, "r") if "r" in known else 0.0
    return TearingTests(
        name=name or Path(path).stem,
        energies=energies,
        rates=_column(table, "growth rate"),
        r_ratios=ratios,
        source=table.told,
    )


def _of_strips(table: KnownTable, known: set[str], way: str, law: HyperelasticLaw | None, form: str) -> FloatArray:
    """Tearing energy of each row of strips that are pulled."""
    stretch = _column(table, "stretch")
    low = np.flatnonzero(~(stretch >= 1.0))
    if low.size:
        raise InputError(
            inside(table.where, f"row {low[0] + 1}, stretch"), f"{stretch[low[0]]:g}", "1 and more", "Is it a strain?"
        )
    if "energy density" in known:
        stored = _column(table, "energy density")
    elif law is None:
        raise InputError(
            table.where,
            "a stretch, and no energy density",
            "'energy density [kJ/m^3]' beside it, or a law that gives it",
            "State law = MooneyRivlin(...).",
        )
    else:
        stored = law.energy_of("planar" if way == "height" else "simple", stretch)
    sizes = _column(table, way)
    if way == "height":
        return np.array([planar_strip_energy(w, h) for w, h in zip(stored.tolist(), sizes.tolist(), strict=True)])
    rows = zip(stored.tolist(), sizes.tolist(), stretch.tolist(), strict=True)
    return np.array([edge_crack_energy(w, c, one, form=form) for w, c, one in rows])


def _column(table: KnownTable, key: str) -> FloatArray:
    return known_values(table, key, COLUMNS[key], (), "a number: stretch, 1 where nothing is pulled, or R")
