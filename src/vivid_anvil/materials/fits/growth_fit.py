"""A growth law fitted to measured rates: log10 da/dN = log10 C + m log10 ΔK by regression, mean and upper bound."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.special import stdtrit

from vivid_anvil.ground.checks import real_number
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fits.growth_tests import GrowthTests
from vivid_anvil.materials.laws import ParisLaw, TableLaw
from vivid_anvil.units import UnitSystem, in_unit, number, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

UPPER = 2.0  # standard deviations of log10 rate above the mean
LEAST, FEW = 3, 10
CONSTANT = "mm/cycle, MPa√mm"
USUAL_SLOPES = (2.0, 5.0)
SIGNIFICANT, CURVED = 3.5, 0.05  # t of the quadratic term; its part of log10 rate at the ends


@dataclass(frozen=True, eq=False, repr=False)
class GrowthFit(Result):
    """The line log10 da/dN = log10 C + m log10 ΔK, in mm/cycle and MPa√mm, with the scatter `std` of log10 rate about it.

    `slope_interval` are the 95 % confidence limits of m; `bend` is how far, in log10 rate, a parabola through the rates
    leaves the line at its ends, 0 where that is not significant.
    """

    tests: GrowthTests
    log_constant: float
    slope: float
    std: float
    slope_interval: tuple[float, float]
    bend: float

    @property
    def constant(self) -> float:
        """C of the mean line, mm/cycle and MPa√mm."""
        return float(10.0**self.log_constant)

    def law(self, standard_deviations: float = 0.0) -> ParisLaw:
        """The law so many standard deviations of log10 rate above the mean; 2 is the usual upper bound."""
        above = real_number(inside(f"fit of {self.tests.name}", "standard_deviations"), standard_deviations)
        scatter = "mean" if above == 0.0 else f"mean {above:+g} standard deviations"
        return ParisLaw(
            name=f"{self.tests.name}, {scatter}",
            rate=float(10.0 ** (self.log_constant + above * self.std)),
            slope=self.slope,
            r_ratio=self.tests.r_ratio,
            source=f"fitted to {self.tests.how}, {self.tests.source}",
            scatter=f"{scatter}; log10 rate has a standard deviation of {number(self.std, 3)}",
        )

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""
        return gravest_first(_findings(self))

    @property
    def title(self) -> str:
        """What was fitted."""
        return f"Growth law from {self.tests.name}"

    @classmethod
    def overview(cls, results: Sequence[GrowthFit]) -> Table:
        """A row a fit: constants of the mean and of the upper bound, slope, scatter, range of the tests."""
        tests = [result.tests for result in results]
        columns = (
            Column("name", [test.name for test in tests]),
            Column("how", [test.how for test in tests]),
            Column("number of rates", [int(test.rates.size) for test in tests]),
            Column("R", [test.r_ratio for test in tests]),
            Column("constant", [result.constant for result in results], unit=CONSTANT),
            Column("upper constant", [result.law(UPPER).constant for result in results], unit=CONSTANT),
            Column("slope", [result.slope for result in results]),
            Column("slope, lower 95 %", [result.slope_interval[0] for result in results]),
            Column("slope, upper 95 %", [result.slope_interval[1] for result in results]),
            Column("std of log10 rate", [result.std for result in results]),
            Column("lowest range of K", [float(test.ranges.min()) for test in tests], of="stress intensity"),
            Column("highest range of K", [float(test.ranges.max()) for test in tests], of="stress intensity"),
        )
        return Table("", columns, "fits")

    def words(self, units: UnitSystem) -> Words:
        """Tests, slope, scatter, constants, and the lines for a study file."""
        tests, upper, (low, high) = self.tests, self.law(UPPER), self.slope_interval
        reach = [in_unit(float(one), "stress intensity", units) for one in (tests.ranges.min(), tests.ranges.max())]
        scatter = f"standard deviation {number(self.std, 3)}, a factor of {number(10.0**self.std, 3)}"
        return (
            ("Rates", f"{tests.rates.size}, {tests.how}; R = {tests.r_ratio:g}"),
            ("ΔK tested", f"{reach[0]} to {reach[1]}"),
            ("Slope m", f"{number(self.slope)} (95 % confidence {number(low)} to {number(high)})"),
            ("Scatter of log10 rate", scatter),
            ("C, mean", f"{self.constant:.5g} (mm/cycle, MPa√mm)"),
            ("C, mean + 2 standard deviations", f"{upper.constant:.5g} (mm/cycle, MPa√mm)"),
            ("", "For a study file:"),
            ("", "[growth_laws.fitted]"),
            ("", f'rate = "{upper.constant:.6g} mm/cycle at 1 MPa√mm"   # the upper bound'),
            ("", f"slope = {self.slope:.5g}"),
            ("", f"r_ratio = {tests.r_ratio:g}"),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The rates that were fitted."""
        columns = (
            Column("range of K", self.tests.ranges.tolist(), of="stress intensity"),
            Column("rate", self.tests.rates.tolist(), of="growth rate"),
        )
        return (Table("", columns, "rates", only="file"),)

    def __repr__(self) -> str:
        return f"<GrowthFit {self.tests.name}: C = {self.constant:.4g}, m = {self.slope:.4g}, std {self.std:.3g}>"


@opened(slope=one(above=0.0, optional=True))
def fit_growth_law(tests: GrowthTests, *, slope: float | None = None) -> GrowthFit:
    """The regression of log10 rate on log10 ΔK; with `slope` only C is fitted.

    Parameters
    ----------
    tests : GrowthTests
        Tests with range of K and rate.
    slope : float, optional
        Slope m, -, where it is not to be fitted.

    Returns
    -------
    GrowthFit
        The law with its scatter.

    Raises
    ------
    InputError
        For one ΔK only, and for rates that do not rise with ΔK.

    Examples
    --------
    >>> fit = fit_growth_law(GrowthTests(name="t", ranges=[300.0, 450.0, 700.0, 900.0], rates=[8e-6, 3e-5, 1.1e-4, 2.2e-4],
    ...                                  r_ratio=0.1))
    >>> fit
    <GrowthFit t: C = 2.834e-13, m = 3.015, std 0.0262>
    """
    where = f"growth tests {tests.name}"
    x, y = np.log10(tests.ranges), np.log10(tests.rates)
    away = x - x.mean()
    spread = float((away**2).sum())
    if not spread > 1e-6:
        raise InputError(where, "rates at one ΔK only", "rates at several ΔK", "One ΔK gives no slope.")
    m = float((away * y).sum() / spread) if slope is None else real_number(inside(where, "slope"), slope)
    if not m > 0.0:
        raise InputError(
            where,
            f"rates that fall with ΔK (slope m = {number(m)})",
            "rates that rise",
            "Are the columns exchanged, or is there closure after overloads?",
        )
    constant = float(y.mean() - m * x.mean())
    residual = y - constant - m * x
    freedom = x.size - (2 if slope is None else 1)
    std = math.sqrt(float((residual**2).sum()) / freedom)
    half = float(stdtrit(freedom, 0.975)) * std / math.sqrt(spread) if slope is None else 0.0
    return GrowthFit(tests, constant, m, std, (m - half, m + half), _bend(x, y))


def _bend(x: Any, y: Any) -> float:
    """How far a parabola through the logarithms bends at the ends; 0 where its t is below `SIGNIFICANT`, or points are few."""
    if x.size < 6:
        return 0.0
    z = (x - x.mean()) / x.std()
    matrix = np.column_stack([np.ones_like(z), z, z**2])
    found, *_ = np.linalg.lstsq(matrix, y, rcond=None)
    variance = float(((y - matrix @ found) ** 2).sum()) / (x.size - 3)
    error = math.sqrt(variance * float(np.linalg.inv(matrix.T @ matrix)[2, 2]))
    return 0.0 if abs(found[2]) <= SIGNIFICANT * error else float(found[2]) * (float((z**2).max()) - 1.0)


def _findings(fit: GrowthFit) -> Iterator[Finding]:
    size, span = fit.tests.rates.size, float(np.log10(fit.tests.rates.max() / fit.tests.rates.min()))
    if size < FEW:
        yield Finding("warning", "few-rates", f"{size} rates carry the fit.", f"Have {FEW} or more, from two pieces.")
    if span < 1.0:
        yield Finding(
            "warning",
            "narrow-rates",
            f"The rates span a factor of {number(10.0**span, 2)}.",
            "The slope is poorly known: test over a decade of rates, or take a usual slope and fit C alone.",
        )
    if not USUAL_SLOPES[0] <= fit.slope <= USUAL_SLOPES[1]:
        yield Finding(
            "warning",
            "unusual-slope",
            f"The slope m is {number(fit.slope, 3)}; metals have 2 to 5 in the middle of the curve.",
            "Leave out rates near the threshold and near fracture, and check the units.",
        )
    if abs(fit.bend) > CURVED:
        yield Finding(
            "warning",
            "curved-rates",
            f"The rates bend away from the line by a factor of {number(10.0 ** abs(fit.bend), 3)} at the ends.",
            "Fit two stages or leave out the ends: the line is unsafe where the rates lie above it.",
        )


@opened()
def table_law(tests: GrowthTests, name: str | None = None) -> TableLaw:
    """The tests themselves as a law: straight lines between their points in the logarithms; nothing beyond them.

    Parameters
    ----------
    tests : GrowthTests
        Tests with range of K and rate.
    name : str, optional
        What it is called in messages, tables and reports.

    Returns
    -------
    TableLaw
        The law.

    Raises
    ------
    InputError
        Where rates fall as ΔK rises: smooth or fit them.

    Examples
    --------
    >>> table_law(GrowthTests(name="t", ranges=[300.0, 500.0, 900.0], rates=[8e-6, 4e-5, 2.2e-4], r_ratio=0.1)).kind
    'table'
    """
    order = np.argsort(tests.ranges, kind="stable")
    points = [(float(tests.ranges[i]), float(tests.rates[i])) for i in order]
    return TableLaw(name=name or tests.name, points=points, r_ratio=tests.r_ratio, source=tests.source)
