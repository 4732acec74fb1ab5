"""S-N curves fitted to tests with run-outs by maximum likelihood, and the comparison of models.

In: a `SpecimenSeries`. Out: `LikelihoodFit`. Method: lognormal life, run-outs as censored (Nelson, W. 1990, Accelerated
testing, ch. 5); limits from the curvature of the likelihood; comparison by Akaike's criterion (Akaike, H. 1974, IEEE Trans.
Autom. Control 19, 716-723). The models are in `fit_models`.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike
from scipy.special import ndtr, ndtri

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.materials.fits.fit_curve import FittedCurve
from vivid_anvil.materials.fits.fit_line import fit_line, refuse_rising, refuse_too_little
from vivid_anvil.materials.fits.fit_models import FIT_MODELS, Data, Model, random_limit_scores
from vivid_anvil.materials.fits.specimens import SpecimenSeries, series_findings
from vivid_anvil.materials.search import derivatives, highest, is_top, simplex
from vivid_anvil.units import UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table

STEEPEST = 50.0  # a slope below the knee beyond this is a limit
LONG_LIFE = 1e9  # where the curve of a random limit ends
FARTHEST = 7.0  # normal quantiles beyond which no share is known
LONGEST_LOG = 14.0
HALVINGS = 36  # from a factor of ten to ten digits
SMALLEST_STD = 1e-3  # a scatter of log10 life below this is none


@dataclass(frozen=True, eq=False, repr=False)
class LikelihoodFit(FittedCurve):
    """A model at its most likely parameters, `theta` (see `fit_models`), with their `covariance`, None where unknown.

    `sharp_limit`, MPa, is the limit of the model "sharp limit", on the safe side of the gap in which the tests place it.
    """

    series: SpecimenSeries
    form: Model
    theta: FloatArray
    center: float
    log_likelihood: float
    covariance: FloatArray | None
    sharp_limit: float | None = None
    remarks: tuple[Finding, ...] = ()

    @property
    def model(self) -> str:  # type: ignore[override]
        """Name of the model."""
        return self.form.name

    @property
    def parameters(self) -> int:
        """How many parameters were fitted."""
        return self.theta.size + (self.sharp_limit is not None)

    @property
    def aic(self) -> float:
        """Akaike's criterion, 2 k - 2 ln L: the smaller, the better the model."""
        return 2.0 * self.parameters - 2.0 * self.log_likelihood

    @property
    def slope(self) -> float:
        """The slope m (above the knee; of stress above the limit in the model "random limit")."""
        return float(self.theta[1])

    @property
    def std(self) -> float:
        """Standard deviation of log10 life, the maximum-likelihood value."""
        return math.exp(self.theta[4 if self.model == "two slopes" else 2])

    @property
    def intercept(self) -> float:
        """A of log10 N = A - m log10 S (S in MPa; above the knee; S - limit in the model "random limit")."""
        middle = self.center + (float(self.theta[3]) if self.model == "two slopes" else 0.0)
        return float(self.theta[0]) + self.slope * middle

    def limit(self, survival_probability: float = 0.5) -> float | None:
        """Stress, MPa, below which no more than the other share of parts ever fails; None where the model has no limit."""
        if self.model == "random limit":
            z = float(ndtri(check_share("survival_probability", survival_probability)))
            return float(10.0 ** (self.center + self.theta[3] - z * math.exp(self.theta[4])))
        return self.sharp_limit

    def _u(self, stress: ArrayLike) -> FloatArray:
        return np.log10(np.asarray(stress, dtype=np.float64)) - self.center

    def log_life(self, stress: ArrayLike, survival_probability: float = 0.5) -> FloatArray:
        """log10 of the life that a share of parts reaches; inf below a limit."""
        share = check_share("survival_probability", survival_probability)
        lives = self.form.quantile(self.theta, self._u(stress), share)
        if self.sharp_limit is None:
            return lives
        return np.where(np.asarray(stress) < self.sharp_limit, np.inf, lives)

    def tolerance_log_life(self, stress: ArrayLike, survival_probability: float, confidence: float) -> FloatArray:
        """log10 of the life that a share of parts reaches, with `confidence`: large-sample limit (delta method).

        With a random limit the share that has failed is limited, not the life, which has no bounds near the limit.
        """
        z = float(ndtri(check_share("confidence", confidence)))
        if self.model == "random limit":
            wanted = float(ndtri(1.0 - check_share("survival_probability", survival_probability)))
            u = np.ravel(self._u(stress))
            found = [self._life_with_confidence(float(one), wanted, z) for one in u]
            return np.array(found).reshape(np.shape(stress))
        return self.log_life(stress, survival_probability) - z * self._error(stress, survival_probability)

    def band(self, stress: ArrayLike, confidence: float = 0.95) -> tuple[FloatArray, FloatArray]:
        """Lower and upper life, cycles, of the two-sided limits of the median at each stress (delta method)."""
        z = float(ndtri(0.5 * (1.0 + check_share("confidence", confidence))))
        if self.model == "random limit":
            sides = [
                [self._life_with_confidence(float(one), 0.0, a) for one in np.ravel(self._u(stress))] for a in (z, -z)
            ]
            lower, upper = (10.0 ** np.array(side).reshape(np.shape(stress)) for side in sides)
            return lower, upper
        middle, half = self.log_life(stress), z * self._error(stress, 0.5)
        return 10.0 ** (middle - half), 10.0 ** (middle + half)

    def _life_with_confidence(self, u: float, wanted: float, z: float) -> float:
        """Log life at which the limit of the failed share, `z` standard errors up, reaches `wanted`; inf if never.

        Shares are normal quantiles here; a negative z asks for the lower limit.
        """
        from scipy.optimize import brentq  # takes long to import

        covariance, count = self._covariance(), self.theta.size
        steps = np.diag(1e-5 * np.maximum(1.0, np.abs(self.theta)))
        scores = random_limit_scores(np.concatenate([[self.theta], self.theta + steps, self.theta - steps]), u)

        def excess(y: float) -> float:
            score, ahead, behind = np.split(scores(y), (1, count + 1))
            if not abs(score[0]) < FARTHEST:
                return float(score[0])
            slopes = (ahead - behind) / (2.0 * np.diag(steps))
            return float(score[0]) + z * math.sqrt(float(slopes @ covariance @ slopes)) - wanted

        plain = float(self.form.quantile(self.theta, np.array([u]), 1.0 - float(ndtr(wanted)))[0])
        near = min(plain, LONGEST_LOG)
        late = excess(near) > 0.0
        far, gap = near, 0.01
        while (excess(far) > 0.0) == late:
            far = near - gap if late else near + gap
            gap *= 2.0
            if far > LONGEST_LOG:
                return math.inf
        low, high = sorted((near, far))
        return float(brentq(lambda y: min(max(excess(y), -FARTHEST), FARTHEST), low, high, xtol=1e-8))

    def lowest(self, survival_probability: float, confidence: float | None) -> float:
        """Stress, MPa, of the last point: the limit, the lowest test, or the stress that a random limit gives to 1e9 cycles."""
        if self.model != "random limit":
            return super().lowest(survival_probability, confidence) if self.sharp_limit is None else self.sharp_limit
        low, high = 0.3 * float(self.series.levels[0]), float(self.series.levels[-1])
        for _ in range(HALVINGS):
            middle = math.sqrt(low * high)
            life = float(self.life(middle, survival_probability, confidence))
            low, high = (middle, high) if life > LONG_LIFE else (low, middle)
        return high

    @property
    def straight(self) -> bool:
        """Whether the median is one line."""
        return self.model in ("line", "sharp limit")

    def _covariance(self) -> FloatArray:
        if self.covariance is None:
            raise InputError(
                f"fit of {self.series.name}, model {self.model!r}",
                "a likelihood that is flat in some parameter",
                "tests that carry confidence limits of this model",
                "Use a simpler model, or leave the confidence out.",
            )
        return self.covariance

    def _error(self, stress: ArrayLike, survival: float) -> FloatArray:
        """Standard error of a quantile of log life, by the derivatives of the quantile to the parameters."""
        covariance = self._covariance()
        u = self._u(stress)
        slopes = []
        for i in range(self.theta.size):
            step = np.zeros(self.theta.size)
            step[i] = 1e-5 * max(1.0, abs(float(self.theta[i])))
            ahead = self.form.quantile(self.theta + step, u, survival)
            behind = self.form.quantile(self.theta - step, u, survival)
            with np.errstate(invalid="ignore"):
                slopes.append((ahead - behind) / (2.0 * step[i]))
        gradient = np.stack([np.nan_to_num(slope) for slope in slopes])
        return np.asarray(np.sqrt(np.einsum("i...,ij,j...->...", gradient, covariance, gradient)))

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say about the tests and the fit."""
        return (*series_findings(self.series), *self.remarks)

    @classmethod
    def overview(cls, results: Sequence[LikelihoodFit]) -> Table:
        """A row a fit: parameters, likelihood, criterion, and the fitted values that each has."""
        described = [result.described() for result in results]
        names = dict.fromkeys(name for one in described for name in one)
        columns = (
            Column("tests", [result.series.name for result in results]),
            Column("model", [result.model for result in results]),
            Column("parameters", [result.parameters for result in results]),
            Column("ln likelihood", [result.log_likelihood for result in results]),
            Column("AIC", [result.aic for result in results]),
            *(Column(name, [one.get(name) for one in described]) for name in names),
        )
        return Table("", columns, "fits")

    def told(self, units: UnitSystem) -> Words:
        """The fitted values, each with its unit, and the likelihood."""
        words = []
        for name, value in self.described().items():
            text = in_unit(value, "stress", units) if name.endswith("[MPa]") else number(value, 5)
            words.append((name.removesuffix(" [MPa]").removesuffix(" [cycles]"), text))
        return (*words, ("ln likelihood", f"{self.log_likelihood:.4f} with {self.parameters} parameters"))

    def described(self) -> dict[str, float]:
        """The fitted values by name, in MPa and log10 cycles."""
        slope = "exponent m of S - limit" if self.model == "random limit" else "slope m"  # no slope of a curve
        found = {"intercept A": self.intercept, slope: self.slope, "std of log10 N": self.std}
        if self.model == "two slopes":
            found["slope m below the knee"] = self.slope + math.exp(self.theta[2])
            found["knee stress [MPa]"] = float(10.0 ** (self.center + self.theta[3]))
            found["knee life [cycles]"] = float(10.0 ** self.theta[0])
        if self.model == "random limit":
            found["median limit [MPa]"] = float(self.limit() or 0.0)
            found["std of log10 limit"] = math.exp(self.theta[4])
        if self.sharp_limit is not None:
            found["limit [MPa]"] = self.sharp_limit
        return found

    def __repr__(self) -> str:
        values = ", ".join(f"{name} {number(value)}" for name, value in self.described().items())
        return f"<LikelihoodFit {self.series.name}, {self.model}: {values}, AIC {self.aic:.2f}>"


@opened()
def fit_likelihood(series: SpecimenSeries, model: str = "line") -> LikelihoodFit:
    """The most likely S-N curve of `model` (a key of `FIT_MODELS`) for tests with or without run-outs.

    Parameters
    ----------
    series : SpecimenSeries
        The tests.
    model : str, default "line"
        Which model is fitted: one of `FIT_MODELS`.

    Returns
    -------
    LikelihoodFit
        The fit with its curve, limits and scatter.

    Raises
    ------
    InputError
        For an unknown model, too few failures, one stress level, lives that rise with stress, tests without scatter, and
        tests that do not carry the model.

    Examples
    --------
    >>> tests = SpecimenSeries(
    ...     name="t", stress="range", r_ratio=0, stresses=[300.0, 300, 200, 200], lives=[1e5, 2e5, 9e5, 1e6],
    ...     failed=[True, True, True, False],
    ... )
    >>> fit_likelihood(tests)
    <LikelihoodFit t, line: intercept A 17.59, slope m 5.023, std of log10 N 0.1278, AIC 3.34>
    """
    checks.one_of("model", model, tuple(FIT_MODELS))
    refuse_too_little(series, 3)
    return _FITS[model](series)


def _data(series: SpecimenSeries) -> Data:
    x = np.log10(series.stresses)
    return Data(x - x.mean(), np.log10(series.lives), series.failed, float(x.mean()))


def _fit_line(series: SpecimenSeries) -> LikelihoodFit:
    """The line: the likelihood has one top."""
    data, form = _data(series), FIT_MODELS["line"]
    theta = highest(lambda one: form.likelihood(one, data), _start(series))
    refuse_rising(series, float(theta[1]))
    if theta[2] < math.log(SMALLEST_STD):
        raise InputError(
            f"tests {series.name}",
            "lives without scatter around the line",
            "tests that scatter",
            "Are they calculated lives?",
        )
    return _made(series, form, theta, data)


def _fit_sharp_limit(series: SpecimenSeries) -> LikelihoodFit:
    """A limit below the lowest failure: run-outs under it are certain, so the line is that of the tests above."""
    lowest_failure = float(series.stresses[series.failed].min())
    below = series.levels[series.levels < lowest_failure]
    if not below.size:
        raise InputError(
            f"tests {series.name}",
            f"failures down to the lowest level, {number(lowest_failure)} MPa",
            "a level below all failures at which every specimen ran out",
            "Use the model 'line', or test lower.",
        )
    above = series.stresses >= lowest_failure
    upper = dataclasses.replace(
        series, stresses=series.stresses[above], lives=series.lives[above], failed=series.failed[above]
    )
    refuse_too_little(upper, 3)
    line, limit = _fit_line(upper), float(below[-1])
    gap = Finding(
        "note",
        "limit-in-a-gap",
        f"The tests place the fatigue limit between {number(limit)} MPa, where all ran out, and {number(lowest_failure)} MPa, "
        "where some failed; the lower stress is used.",
        "A staircase in the gap narrows it; more specimens may still fail at the lower stress.",
    )
    return dataclasses.replace(
        line, series=series, form=FIT_MODELS["sharp limit"], sharp_limit=limit, remarks=(*line.remarks, gap)
    )


def _fit_two_slopes(series: SpecimenSeries) -> LikelihoodFit:
    """Two lines: the best knee on a grid, then everything together."""
    data, form = _data(series), FIT_MODELS["two slopes"]
    if series.levels.size < 4:
        raise InputError(f"tests {series.name}", f"{series.levels.size} levels", "at least four, for two slopes")
    line = _start(series)
    levels = np.unique(data.u)
    best = -math.inf
    theta = np.zeros(5)
    for knee in np.linspace(levels[0], levels[-1], 24)[1:-1]:

        def value(free: FloatArray, knee: float = float(knee)) -> float:
            return form.likelihood(np.array([free[0], free[1], free[2], knee, free[3]]), data)

        start = np.array([line[0] - line[1] * knee, line[1], math.log(line[1]), line[2]])
        found = simplex(value, start)
        if value(found) > best:
            best, theta = value(found), np.array([found[0], found[1], found[2], knee, found[3]])
    theta = highest(lambda one: form.likelihood(one, data), theta)
    more = math.exp(theta[2])
    if theta[1] + more > STEEPEST or more < 1e-3 or not levels[0] < theta[3] < levels[-1]:
        found_knee = "no knee between the levels" if theta[1] + more <= STEEPEST else "a level line below the knee"
        raise InputError(
            f"tests {series.name}",
            found_knee,
            "failures on both sides of a knee",
            "Use 'line', 'sharp limit' or 'random limit'.",
        )
    return _made(series, form, theta, data)


def _fit_random_limit(series: SpecimenSeries) -> LikelihoodFit:
    """A random fatigue limit: from several starts, as the likelihood may have more than one top."""
    data, form = _data(series), FIT_MODELS["random limit"]
    line, lowest = _start(series), float(data.u.min())
    theta, best = np.zeros(5), -math.inf
    for gap in (0.02, 0.1):
        for spread in (0.02, 0.06):
            excess = np.log10(-np.expm1((lowest - gap - data.u) * math.log(10.0))) + data.u
            slope, middle = np.polyfit(excess, data.y, 1)
            start = np.array([middle, max(-slope, 0.5), line[2], lowest - gap, math.log(spread)])
            found = simplex(lambda one: form.likelihood(one, data), start, 0.02)
            value = form.likelihood(found, data)
            if value > best:
                best, theta = value, found
    theta = highest(lambda one: form.likelihood(one, data), theta)
    if not math.isfinite(best) or theta[4] < -7.0 or theta[3] < lowest - 0.7:
        raise InputError(
            f"tests {series.name}",
            "a limit without scatter" if theta[4] < -7.0 else "a limit far below the tests",
            "failures and run-outs at the same levels",
            "Use 'line' or 'sharp limit'.",
        )
    return _made(series, form, theta, data)


_FITS: dict[str, Callable[[SpecimenSeries], LikelihoodFit]] = {
    "line": _fit_line,
    "sharp limit": _fit_sharp_limit,
    "two slopes": _fit_two_slopes,
    "random limit": _fit_random_limit,
}


def _start(series: SpecimenSeries) -> FloatArray:
    """A line through the failures, as a start: life at the middle of all tests, slope, ln std."""
    failures = dataclasses.replace(
        series,
        stresses=series.stresses[series.failed],
        lives=series.lives[series.failed],
        failed=series.failed[series.failed],
    )
    line = fit_line(failures)
    center = float(np.log10(series.stresses).mean())
    return np.array([line.intercept - line.slope * center, line.slope, math.log(max(line.std, 1e-4))])


def _made(series: SpecimenSeries, form: Model, theta: FloatArray, data: Data) -> LikelihoodFit:
    """The fit, with its covariance where the likelihood has a proper top."""
    _, curvature = derivatives(lambda one: form.likelihood(one, data), theta)
    remarks: tuple[Finding, ...] = ()
    covariance: FloatArray | None = None
    if is_top(curvature):
        covariance = checks.read_only(np.linalg.inv(-curvature))
    else:
        remarks = (
            Finding(
                "warning",
                "flat-likelihood",
                f"The tests do not fix all parameters of the model {form.name!r}: no confidence limits.",
                "Use a simpler model, or test more.",
            ),
        )
    kept = checks.read_only(theta)
    return LikelihoodFit(series, form, kept, data.u0, form.likelihood(theta, data), covariance, remarks=remarks)
