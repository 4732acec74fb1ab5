"""A straight S-N line fitted to tests that all failed: least squares of log life, with its confidence and tolerance.

In: a `SpecimenSeries` without run-outs. Out: `LineFit`. Method: ASTM E739, log10 N = A - m log10 S, life the dependent
variable, lognormal with the same scatter at all stresses; tolerance limits by the noncentral t distribution (Owen, D. B.
1968, Technometrics 10, 445-478).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from types import ModuleType

import numpy as np
from numpy.typing import ArrayLike
from scipy.special import ndtri

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.materials.fits.fit_curve import FittedCurve
from vivid_anvil.materials.fits.specimens import SpecimenSeries, series_findings
from vivid_anvil.units import UnitSystem, many, number, one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table


def _distributions() -> ModuleType:
    """scipy.stats, which takes long to import, when it is needed."""
    from scipy import stats

    return stats


@dataclass(frozen=True)
class FTest:
    """An F test: its value, the value that is passed by chance with 5 % probability, and the probability of the value."""

    value: float
    critical: float
    probability: float


@dataclass(frozen=True, eq=False, repr=False)
class LineFit(FittedCurve):
    """log10 N = intercept - slope log10 S by regression, S in MPa; `variance` of log10 N with n - 2 degrees of freedom."""

    series: SpecimenSeries
    intercept: float
    slope: float
    variance: float

    model = "regression"

    @property
    def std(self) -> float:
        """Standard deviation of log10 life."""
        return math.sqrt(self.variance)

    @property
    def _x(self) -> FloatArray:
        return np.log10(self.series.stresses)

    @property
    def degrees_of_freedom(self) -> int:
        """Specimens - 2."""
        return len(self.series) - 2

    def leverage(self, stress: ArrayLike) -> FloatArray:
        """h = 1/n + (x - mean x)² / Σ(x_i - mean x)², x = log10 S."""
        x = self._x
        away = np.log10(np.asarray(stress, dtype=np.float64)) - x.mean()
        return np.asarray(1.0 / x.size + away**2 / ((x - x.mean()) ** 2).sum())

    def log_life(self, stress: ArrayLike, survival_probability: float = 0.5) -> FloatArray:
        """log10 of the life that a share `survival_probability` reaches, by the fit as it is (no confidence)."""
        z = float(ndtri(check_share("survival_probability", survival_probability)))
        return self.intercept - self.slope * np.log10(np.asarray(stress, dtype=np.float64)) - z * self.std

    def band(self, stress: ArrayLike, confidence: float = 0.95) -> tuple[FloatArray, FloatArray]:
        """Lower and upper life, cycles, of the confidence band on the whole median line (E739, 2F)."""
        share = check_share("confidence", confidence)
        wide = math.sqrt(2.0 * float(_distributions().f.ppf(share, 2, self.degrees_of_freedom)))
        half = wide * self.std * np.sqrt(self.leverage(stress))
        return 10.0 ** (self.log_life(stress) - half), 10.0 ** (self.log_life(stress) + half)

    def tolerance_factor(self, stress: ArrayLike, survival_probability: float, confidence: float) -> FloatArray:
        """k: standard deviations below the median that a share of parts outlives, with `confidence`, at one stress."""
        z = float(ndtri(check_share("survival_probability", survival_probability)))
        root = np.sqrt(self.leverage(stress))
        share = check_share("confidence", confidence)
        return np.asarray(root * _distributions().nct.ppf(share, self.degrees_of_freedom, z / root))

    def tolerance_log_life(self, stress: ArrayLike, survival_probability: float, confidence: float) -> FloatArray:
        """log10 of the life that a share of parts reaches, with `confidence` (each stress for itself)."""
        factor = self.tolerance_factor(stress, survival_probability, confidence)
        return self.log_life(stress) - factor * self.std

    def slope_interval(self, confidence: float = 0.95) -> tuple[float, float]:
        """Limits of the slope m."""
        half = self._t(confidence) * self.std / math.sqrt(float(((self._x - self._x.mean()) ** 2).sum()))
        return self.slope - half, self.slope + half

    def intercept_interval(self, confidence: float = 0.95) -> tuple[float, float]:
        """Limits of the intercept A."""
        half = self._t(confidence) * self.std * math.sqrt(float(self.leverage(1.0)))
        return self.intercept - half, self.intercept + half

    def _t(self, confidence: float) -> float:
        share = check_share("confidence", confidence)
        return float(_distributions().t.ppf(0.5 * (1.0 + share), self.degrees_of_freedom))

    @classmethod
    def overview(cls, results: Sequence[LineFit]) -> Table:
        """A row a fit: constants of the line, scatter, degrees of freedom."""
        columns = (
            Column("tests", [result.series.name for result in results]),
            Column("model", [result.model for result in results]),
            Column("intercept A", [result.intercept for result in results]),
            Column("slope m", [result.slope for result in results]),
            Column("std of log10 N", [result.std for result in results]),
            Column("degrees of freedom", [result.degrees_of_freedom for result in results]),
            Column("replication", [result.replication for result in results]),
        )
        return Table("", columns, "fits")

    def told(self, units: UnitSystem) -> Words:
        """Constants of the line with their limits, scatter, tests of the slope and of straightness."""
        low, high = self.slope_interval()
        least, most = self.intercept_interval()
        words = (
            ("log10 N = A - m log10 S", "S in MPa, life the dependent variable, lognormal (ASTM E739)"),
            ("intercept A", f"{number(self.intercept, 6)}, 95 % limits {number(least)} and {number(most)}"),
            ("slope m", f"{number(self.slope, 5)}, 95 % limits {number(low)} and {number(high)}"),
            ("std of log10 N", f"{number(self.std)} with {self.degrees_of_freedom} degrees of freedom"),
            ("slope against none", f"{self.slope_test():.2g} is the probability of such a slope by chance"),
            ("replication", f"{self.replication:.0%}"),
        )
        linear = self.linearity()
        if linear is None:
            return (*words, ("lack of fit", "no test without replicates at three levels"))
        verdict = "straight" if linear.value <= linear.critical else "not straight"
        text = f"F = {number(linear.value)}, critical {number(linear.critical)} (5 %): {verdict}"
        return (*words, ("lack of fit", text))

    @property
    def replication(self) -> float:
        """Share of replicates: 1 - levels / specimens (E739 asks for 0.5 to 0.75 for design allowables)."""
        return 1.0 - self.series.levels.size / len(self.series)

    def linearity(self, level: float = 0.05) -> FTest | None:
        """Lack-of-fit test of the straight line (E739, 8.2); None without replicates or with two levels."""
        y, x, levels = np.log10(self.series.lives), self._x, self.series.levels
        n, groups = y.size, levels.size
        if groups < 3 or groups == n:
            return None
        members = [self.series.stresses == level for level in levels]
        pure = sum(float(((y[of] - y[of].mean()) ** 2).sum()) for of in members)
        fitted = self.intercept - self.slope * x
        lack = sum(float(of.sum() * (fitted[of][0] - y[of].mean()) ** 2) for of in members)
        value = lack / (groups - 2) / (pure / (n - groups))
        critical = float(_distributions().f.ppf(1.0 - level, groups - 2, n - groups))
        return FTest(value, critical, float(_distributions().f.sf(value, groups - 2, n - groups)))

    def slope_test(self, slope: float = 0.0) -> float:
        """Probability of a slope as far from `slope` as the fitted one, if `slope` were true (two-sided t test)."""
        error = self.std / math.sqrt(float(((self._x - self._x.mean()) ** 2).sum()))
        return float(2.0 * _distributions().t.sf(abs(self.slope - slope) / error, self.degrees_of_freedom))

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say about the tests and the line."""
        findings = list(series_findings(self.series))
        linear = self.linearity()
        if linear is not None and linear.probability < 0.05:
            findings.append(
                Finding(
                    "warning",
                    "not-straight",
                    f"The lives do not follow one line: lack of fit F = {number(linear.value)}, by chance passed with a "
                    f"probability of {linear.probability:.2%}.",
                    "Compare models with a knee, or fit the straight part alone.",
                )
            )
        if self.slope_test() > 0.05:
            low, high = self.slope_interval()
            findings.append(
                Finding(
                    "severe",
                    "no-slope",
                    f"The slope, {number(self.slope)} with limits {number(low)} and {number(high)}, cannot be told from 0.",
                    "Spread the stress levels further apart.",
                )
            )
        if self.replication < 0.33:
            findings.append(
                Finding(
                    "note",
                    "few-replicates",
                    f"{self.replication:.0%} replication; ASTM E739 asks for 33 % at least in development tests.",
                    "Repeat tests at the same levels.",
                )
            )
        return tuple(findings)

    def __repr__(self) -> str:
        return (
            f"<LineFit {self.series.name}: log10 N = {number(self.intercept, 5)} - {number(self.slope)} log10 S, "
            f"std {number(self.std, 3)}, {len(self.series)} specimens>"
        )


@opened()
def fit_line(series: SpecimenSeries) -> LineFit:
    """The regression line of log10 life on log10 stress (ASTM E739).

    Parameters
    ----------
    series : SpecimenSeries
        The tests.

    Returns
    -------
    LineFit
        The line with its scatter, limits and curve.

    Raises
    ------
    InputError
        For run-outs, fewer than three specimens, one stress level, and lives that rise with stress.

    Examples
    --------
    >>> tests = SpecimenSeries(
    ...     name="t", stress="range", r_ratio=0, stresses=[300.0, 300, 200, 200], lives=[1e5, 2e5, 8e5, 9e5], failed=[True] * 4
    ... )
    >>> fit_line(tests)
    <LineFit t: log10 N = 16.097 - 4.419 log10 S, std 0.153, 4 specimens>
    """
    where = f"tests {series.name}"
    if series.runouts:
        raise InputError(
            where,
            f"{series.runouts} run-outs",
            "tests that all failed, for a regression",
            "Fit by maximum likelihood, which takes run-outs: model 'line'.",
        )
    refuse_too_little(series, 3)
    x, y = np.log10(series.stresses), np.log10(series.lives)
    away = x - x.mean()
    slope = -float((away * (y - y.mean())).sum() / (away**2).sum())
    intercept = float(y.mean() + slope * x.mean())
    refuse_rising(series, slope)
    residual = y - (intercept - slope * x)
    return LineFit(series, intercept, slope, float((residual**2).sum()) / (x.size - 2))


def refuse_too_little(series: SpecimenSeries, least: int) -> None:
    """InputError for too few failures, or one stress level only."""
    where, failures = f"tests {series.name}", int(series.failed.sum())
    if failures < least:
        raise InputError(where, f"{failures} specimens that failed", f"at least {least}")
    if np.unique(series.stresses[series.failed]).size < 2:
        raise InputError(
            where,
            f"failures at one stress only, {number(float(series.stresses[series.failed][0]))} MPa",
            "failures at two stress levels or more",
            "One level gives no slope: its scatter alone is told by tolerance_of_lives.",
        )


def refuse_rising(series: SpecimenSeries, slope: float) -> None:
    """InputError where the fitted life does not fall with stress."""
    if not slope > 0.0:
        raise InputError(
            f"tests {series.name}",
            f"lives that rise with stress (slope m = {number(slope)})",
            "lives that fall with stress",
            "Are the columns exchanged, or does the stress column hold logarithms?",
        )


@dataclass(frozen=True)
class LivesAtOneLevel:
    """Tests at one stress: mean and standard deviation (n - 1) of log10 life, and the tolerance limit of life."""

    mean_log_life: float
    std_log_life: float
    tolerance_factor: float
    life_limit: float


@opened(lives=many(above=0.0), survival_probability=one(), confidence=one())
def tolerance_of_lives(lives: ArrayLike, survival_probability: float, confidence: float) -> LivesAtOneLevel:
    """Life, cycles, that a share of parts reaches with `confidence`, from `lives` at one stress that all failed.

    log10 N is normal; k = t(confidence; n - 1, z √n) / √n, noncentral t (Owen 1968).

    >>> found = tolerance_of_lives([88e3, 123e3, 101e3, 76e3, 140e3, 95e3], 0.9, 0.95)
    >>> round(found.tolerance_factor, 4), round(found.life_limit)
    (3.0063, 51999)
    """
    logs = np.log10(np.asarray(lives, dtype=np.float64))
    if logs.ndim != 1 or logs.size < 2 or not np.isfinite(logs).all():
        raise InputError("lives at one level", f"{logs.size} lives", "at least two, all above 0 cycles")
    z, root = float(ndtri(check_share("survival_probability", survival_probability))), math.sqrt(logs.size)
    factor = float(_distributions().nct.ppf(check_share("confidence", confidence), logs.size - 1, z * root)) / root
    mean, std = float(logs.mean()), float(logs.std(ddof=1))
    return LivesAtOneLevel(mean, std, factor, 10.0 ** (mean - factor * std))
