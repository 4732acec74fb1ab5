"""Staircase tests: the stress that half of the parts survive to a given life, and its scatter.

In: a `SpecimenSeries` in the order of the tests, each one step down after a failure and one step up after a run-out.
Out: `Staircase`. Methods: Dixon, W. J. and Mood, A. M. (1948), J. Amer. Statist. Assoc. 43, 109-126; and maximum likelihood
(probit: Finney, D. J. 1971, Probit analysis), normal strength.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import log_ndtr, ndtri

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.materials.fits.specimens import SpecimenSeries
from vivid_anvil.materials.search import derivatives, highest, is_top
from vivid_anvil.units import UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

STEP_TOLERANCE = 1e-6


@dataclass(frozen=True)
class DixonMood:
    """Mean and standard deviation of strength, MPa, by Dixon and Mood, with the sums that lead there.

    `event` is the less frequent outcome; level i = 0 is its lowest level; F = Σ n_i, A = Σ i n_i, B = Σ i² n_i.
    """

    event: str
    lowest: float
    step: float
    counts: tuple[int, ...]
    F: int
    A: int
    B: int
    spread: float
    mean: float
    std: float


@dataclass(frozen=True, eq=False)
class Probit:
    """Mean and standard deviation of strength, MPa, by maximum likelihood, and their standard errors."""

    mean: float
    std: float
    mean_error: float
    std_error: float
    covariance: FloatArray  # of mean and ln std

    def strength(self, survival_probability: float, confidence: float | None = None) -> float:
        """Stress, MPa, that a share of parts survives; with `confidence`, its lower limit (large-sample)."""
        z = float(ndtri(check_share("survival_probability", survival_probability)))
        value = self.mean - z * self.std
        if confidence is None:
            return value
        gradient = np.array([1.0, -z * self.std])
        error = math.sqrt(float(gradient @ self.covariance @ gradient))
        return value - float(ndtri(check_share("confidence", confidence))) * error


@dataclass(frozen=True, eq=False, repr=False)
class Staircase(Result):
    """A staircase test: its steps, both evaluations (`probit` is None where the levels do not overlap), findings."""

    series: SpecimenSeries
    dixon_mood: DixonMood
    probit: Probit | None
    findings: tuple[Finding, ...]

    @property
    def life(self) -> float:
        """Cycles at which a specimen counts as run out."""
        return float(self.series.lives[~self.series.failed].min())

    @property
    def title(self) -> str:
        """What was evaluated."""
        return f"Staircase {self.series.name} at {number(self.life)} cycles (Dixon and Mood 1948)"

    @classmethod
    def overview(cls, results: Sequence[Staircase]) -> Table:
        """A row a staircase: the sums of Dixon and Mood, mean and deviation by them and by likelihood."""
        sums, probits = [result.dixon_mood for result in results], [result.probit for result in results]
        columns = (
            Column("tests", [result.series.name for result in results]),
            Column("life", [result.life for result in results], unit="cycles"),
            Column("event", [one.event for one in sums]),
            Column("F", [one.F for one in sums]),
            Column("A", [one.A for one in sums]),
            Column("B", [one.B for one in sums]),
            Column("spread", [one.spread for one in sums]),
            Column("mean", [one.mean for one in sums], of="stress"),
            Column("std", [one.std for one in sums], of="stress"),
            Column("likelihood mean", [one and one.mean for one in probits], of="stress"),
            Column("likelihood std", [one and one.std for one in probits], of="stress"),
        )
        return Table("", columns, "staircases")

    def words(self, units: UnitSystem) -> Words:
        """Mean and deviation by Dixon and Mood with the numbers put in, and by likelihood."""
        return staircase_words(self, units, 0.95, 0.75)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The levels of the less frequent outcome, with their sums."""
        found = self.dixon_mood
        places = range(len(found.counts))
        columns = (
            Column(f"level of the {found.event}", [found.lowest + i * found.step for i in places], of="stress"),
            Column("i", list(places), rest="sum"),
            Column("n", list(found.counts), rest="sum"),
            Column("i n", [i * n for i, n in enumerate(found.counts)], rest="sum"),
            Column("i² n", [i * i * n for i, n in enumerate(found.counts)], rest="sum"),
        )
        return (Table("", columns, "levels", note=f"Sums: F = {found.F}, A = {found.A}, B = {found.B}."),)

    def __repr__(self) -> str:
        found = self.dixon_mood
        return (
            f"<Staircase {self.series.name}: stress {self.series.stress} {number(found.mean)} MPa, "
            f"std {number(found.std)} MPa at {number(self.life)} cycles, {len(self.series)} specimens>"
        )


def staircase_words(result: Staircase, units: UnitSystem, survival: float, confidence: float) -> Words:
    """Both evaluations, with the stress that a share of parts survives with that confidence."""
    found, probit = result.dixon_mood, result.probit

    def stress(value: float) -> str:
        return in_unit(value, "stress", units)

    sign = "-" if found.event == "failures" else "+"
    mean = f"{stress(found.lowest)} + {stress(found.step)} × ({found.A} / {found.F} {sign} 1/2) = {stress(found.mean)}"
    spread = f"({found.F} × {found.B} - {found.A}²) / {found.F}² = {number(found.spread)}"
    rule = "1.62 d (spread + 0.029)" if found.spread >= 0.3 else "0.53 d, as the spread is below 0.3"
    words = (
        ("Mean", f"S_0 + d (A / F {sign} 1/2) = {mean}"),
        ("Spread", f"(F B - A²) / F² = {spread}"),
        ("Standard deviation", f"{rule} = {stress(found.std)}"),
    )
    if probit is None:
        return words
    limit, survived = stress(probit.strength(survival, confidence)), stress(probit.strength(survival))
    return (
        *words,
        ("Likelihood: mean", f"{stress(probit.mean)}, standard error {stress(probit.mean_error)}"),
        ("Likelihood: deviation", f"{stress(probit.std)}, standard error {stress(probit.std_error)}"),
        (f"Survived by {survival:.1%}", f"{survived}; with {confidence:.0%} confidence {limit}"),
    )


@opened()
def staircase(series: SpecimenSeries) -> Staircase:
    """Evaluate a staircase test.

    Parameters
    ----------
    series : SpecimenSeries
        The tests.

    Returns
    -------
    Staircase
        Mean and standard deviation of the fatigue limit, with the steps.

    Raises
    ------
    InputError
        Where a step does not follow the rule, or all specimens had the same outcome.

    Examples
    --------
    >>> series = SpecimenSeries(
    ...     name="pins", stress="amplitude", r_ratio=-1, lives=[1e7, 4e6, 1e7, 5e6, 2e6], stresses=[180.0, 190, 180, 190, 180],
    ...     failed=[False, True, False, True, True],
    ... )
    >>> staircase(series).dixon_mood.mean
    185.0
    """
    step = _step(series)
    failures = int(series.failed.sum())
    event_failed = failures <= series.runouts  # the less frequent; either will do where they are equal
    chosen = series.stresses[series.failed == event_failed]
    lowest = float(chosen.min())
    level = np.rint((chosen - lowest) / step).astype(int)
    counts = np.bincount(level)
    places = np.arange(counts.size)
    f, a, b = int(counts.sum()), int((places * counts).sum()), int((places**2 * counts).sum())
    spread = (f * b - a * a) / (f * f)
    mean = lowest + step * (a / f + (-0.5 if event_failed else 0.5))
    std = 1.62 * step * (spread + 0.029) if spread >= 0.3 else 0.53 * step
    event = "failures" if event_failed else "run-outs"
    found = DixonMood(event, lowest, step, tuple(counts.tolist()), f, a, b, spread, mean, std)
    probit = _probit(series, mean, std)
    return Staircase(series, found, probit, _findings(series, found, probit))


def _step(series: SpecimenSeries) -> float:
    """The step of the levels; InputError for a test that does not follow the rule."""
    where = f"staircase {series.name}"
    if not 0 < series.runouts < len(series):
        raise InputError(where, "one outcome only", "failures and run-outs", "Move the levels up or down.")
    moves = np.diff(series.stresses)
    step = float(np.abs(moves).min())
    for i, move in enumerate(moves, start=1):
        wanted = -step if series.failed[i - 1] else step
        if not abs(move - wanted) <= STEP_TOLERANCE * step:
            outcome = "failure" if series.failed[i - 1] else "run-out"
            raise InputError(
                inside(where, f"specimen {i + 1}"),
                f"{number(float(series.stresses[i]))} MPa after a {outcome} at {number(float(series.stresses[i - 1]))} MPa",
                f"{number(float(series.stresses[i - 1]) + wanted)} MPa, one step {'down' if wanted < 0 else 'up'}",
                "The specimens stand in the order of the tests, on levels of equal steps.",
            )
    return step


def _probit(series: SpecimenSeries, mean: float, std: float) -> Probit | None:
    """Maximum likelihood; None where no failure lies below a run-out, and the scatter cannot be told."""
    stress, sign = series.stresses, np.where(series.failed, 1.0, -1.0)
    if float(stress[series.failed].min()) >= float(stress[~series.failed].max()):
        return None

    def likelihood(theta: FloatArray) -> float:
        return float(log_ndtr(sign * (stress - mean - std * theta[0]) / (std * math.exp(theta[1]))).sum())

    theta = highest(likelihood, np.zeros(2))  # in standard deviations by Dixon and Mood
    _, curvature = derivatives(likelihood, theta)
    if not is_top(curvature):
        return None
    scale = std * math.exp(theta[1])
    in_stress = np.diag([std, 1.0])
    covariance = in_stress @ np.linalg.inv(-curvature) @ in_stress
    errors = np.sqrt(np.diag(covariance))
    return Probit(mean + std * float(theta[0]), scale, float(errors[0]), float(scale * errors[1]), covariance)


def _findings(series: SpecimenSeries, found: DixonMood, probit: Probit | None) -> tuple[Finding, ...]:
    remarks = []
    if len(series) < 15:
        remarks.append(
            Finding(
                "warning",
                "few-specimens",
                f"{len(series)} specimens: the mean is fair, the standard deviation is hardly known.",
                "Take 15 or more for a mean, 30 or more for a scatter.",
            )
        )
    if found.spread < 0.3:
        remarks.append(
            Finding(
                "warning",
                "steps-too-wide",
                f"The outcomes overlap too little (spread {number(found.spread, 3)}, below 0.3): the standard deviation, "
                f"{number(found.std)} MPa, is 0.53 of the step, not a measurement.",
                "Choose a smaller step: 0.5 to 2 standard deviations.",
            )
        )
    elif not 0.5 <= found.step / found.std <= 2.0:
        remarks.append(
            Finding(
                "note",
                "step-size",
                f"The step is {number(found.step / found.std, 3)} standard deviations; 0.5 to 2 is advised.",
                "Choose the step accordingly next time.",
            )
        )
    if probit is None:
        remarks.append(
            Finding(
                "warning",
                "no-overlap",
                "All failures lie above all run-outs: the likelihood knows no scatter.",
                "Test more specimens at the two levels around the mean.",
            )
        )
    return tuple(remarks)
