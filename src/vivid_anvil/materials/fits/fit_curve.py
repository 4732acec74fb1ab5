"""What every fit of tests has in common: lives for a survival probability, with or without confidence, and the S-N curve."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.materials.curves.curve import Below, SNCurve
from vivid_anvil.materials.fits.specimens import SpecimenSeries
from vivid_anvil.units import UnitSystem, in_unit, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Page, Result, Words
from vivid_anvil.writing.table import Column, Table

Word = tuple[str, str]
_PLACES = 48  # points of a curve that is not straight


class FittedCurve(Result):
    """A fit: what its kinds must give, and the S-N curve and the page that follow."""

    series: SpecimenSeries
    model: ClassVar[str] = ""

    @property
    @abstractmethod
    def std(self) -> float:
        """Standard deviation of log10 life."""

    @property
    @abstractmethod
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""

    @abstractmethod
    def told(self, units: UnitSystem) -> Words:
        """The fitted values and tests of the line, with their labels."""

    @property
    def title(self) -> str:
        """The model and what it was fitted to."""
        return f"Fit of {self.series.name}: {self.model}"

    def words(self, units: UnitSystem) -> Words:
        """Fitted values, tests of the line, and the slope of the curve that half of the parts outlive."""
        return (*self.told(units), slope_words(self.curve(), float(self.series.levels[0]), "the median", units))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Lives at the tested levels: median with its band, and what 95 % outlive, alone and with a confidence of 75 %."""
        return (levels_table(self, 0.95, 0.75),)

    @abstractmethod
    def log_life(self, stress: ArrayLike, survival_probability: float = 0.5) -> FloatArray:
        """log10 of the life that a share of parts reaches."""

    @abstractmethod
    def tolerance_log_life(self, stress: ArrayLike, survival_probability: float, confidence: float) -> FloatArray:
        """The same with a confidence."""

    @abstractmethod
    def band(self, stress: ArrayLike, confidence: float = 0.95) -> tuple[FloatArray, FloatArray]:
        """Lower and upper life, cycles, of the confidence band on the median."""

    def limit(self, survival_probability: float = 0.5) -> float | None:
        """Stress, MPa, below which the model has no failures at that survival probability; None without such a limit."""
        return None

    def life(self, stress: ArrayLike, survival_probability: float = 0.5, confidence: float | None = None) -> FloatArray:
        """Life, cycles, that a share of parts reaches at `stress`, MPa; with `confidence`, the lower tolerance limit."""
        values = np.asarray(stress, dtype=np.float64)
        if confidence is None:
            return np.asarray(10.0 ** self.log_life(values, survival_probability))
        return np.asarray(10.0 ** self.tolerance_log_life(values, survival_probability, confidence))

    def median_slope(self, stress: float) -> float:
        """Slope m of the median curve at `stress`, MPa: what a study takes as slope there."""
        near = stress * np.array([1.0 - 1e-5, 1.0 + 1e-5])
        longer, shorter = self.log_life(near)
        return float((longer - shorter) / np.log10(near[1] / near[0]))

    def curve(
        self,
        *,
        survival_probability: float = 0.5,
        confidence: float | None = None,
        below: Below | None = None,
        name: str | None = None,
    ) -> SNCurve:
        """The S-N curve of the fit between the highest and the lowest tested stress.

        `below` says what holds under the lowest point: a slope, "extend", "hold" or "no damage"; by default what the model
        says: "no damage" below a limit, else "extend". Above, the line goes on. Raises InputError where the life at that
        confidence does not fall with stress over the tests.
        """
        share = check_share("survival_probability", survival_probability)
        stresses = self._places(share, confidence)
        lives = self.life(stresses, share, confidence)
        points = tuple(zip(stresses.tolist(), lives.tolist(), strict=True))
        if not np.isfinite(lives).all() or not (np.diff(lives) > 0.0).all():
            raise InputError(
                f"fit of {self.series.name}",
                f"lives that do not fall with stress at a confidence of {confidence}",
                "enough tests to tell the slope",
                "Test more levels, or leave the confidence out.",
            )
        said = f"survival probability {share:g}" + ("" if confidence is None else f", confidence {confidence:g}")
        return SNCurve(
            name=name or f"{self.series.name}, {self.model}",
            stress=self.series.stress,
            r_ratio=self.series.r_ratio,
            points=points,
            above="extend",
            below=("extend" if self.limit(share) is None else "no damage") if below is None else below,
            tested_from=max(1.0, float(lives[0])),
            tested_to=max(float(self.series.lives.max()), 1.01 * float(lives[0])),
            survival_probability=share,
            log_life_std=(self.std or None) if confidence is None else None,
            basis="tests",
            source=f"{self.series.source}, {len(self.series)} specimens, {self.model}, {said}",
            remarks=self.findings,
        )

    def lowest(self, survival_probability: float, confidence: float | None) -> float:
        """Stress, MPa, of the last point of the curve: the lowest tested one, or the limit."""
        return float(self.series.levels[0])

    @property
    def straight(self) -> bool:
        """Whether the median is one line in log S, log N."""
        return True

    def _places(self, survival_probability: float, confidence: float | None) -> FloatArray:
        """Stresses of the curve's points, falling: the ends, and more in between where it is not straight."""
        high, bottom = float(self.series.levels[-1]), self.lowest(survival_probability, confidence)
        if not bottom < high:
            raise InputError(
                f"fit of {self.series.name}",
                f"a limit of {number(bottom)} MPa at or above the highest tested stress, {number(high)} MPa",
                "a limit below the tests",
            )
        if self.straight and confidence is None:
            return np.array([high, bottom])
        if self.straight or self.limit(survival_probability) is None:
            return np.geomspace(high, bottom, _PLACES)
        above = (high - bottom) * np.geomspace(1.0, 1e-3, _PLACES - 1)  # closer together where the life runs away
        return np.append(bottom + above, bottom)


def slope_words(curve: SNCurve, lowest: float, which: str, units: UnitSystem) -> Word:
    """The slope of a fitted curve at its upper end and at, or beside, its lower one, from `lowest`, MPa, on."""
    high, (near, end) = float(curve.points[0][0]), (float(point[0]) for point in curve.points[-2:])
    low = max(lowest, (near * end) ** 0.5)  # the lowest tested one, or beside the end
    ends = (f"{number(curve.slope_at(one), 4)} at {in_unit(one, 'stress', units)}" for one in (high, low))
    return "slope of the curve", f"{', '.join(ends)}: {which}"


def fit_page(fit: FittedCurve, made: SNCurve, survival: float, confidence: float, units: UnitSystem) -> Page:
    """A fit with the slope of the curve that was `made` of it, and lives at the levels at its survival and confidence."""
    which = f"outlived by {survival:.1%} with {confidence:.0%}, as --toml exports it"
    words = (*fit.told(units), slope_words(made, float(fit.series.levels[0]), which, units))
    return Page(fit.title, words, (levels_table(fit, survival, confidence),), fit.findings)


def levels_table(fit: FittedCurve, survival: float, confidence: float) -> Table:
    """Lives at the tested levels, the highest stress first; nan where the tests carry no limits.

    Median with its 95 % band, the life that a share `survival` of parts reaches by the fit as it is, and with `confidence`.
    """
    levels = fit.series.levels[::-1]
    lower = upper = tolerance = np.full(levels.size, np.nan)
    try:
        with np.errstate(invalid="ignore"):
            lower, upper = fit.band(levels)
        tolerance = fit.life(levels, survival, confidence)
    except InputError:
        lower = upper = tolerance = np.full(levels.size, np.nan)
    known: dict[str, tuple[FloatArray, str]] = {
        "median life": (fit.life(levels), "Median\nlife"),
        "lower 95 % of median": (lower, "95 % limits\nof median"),
        "upper 95 % of median": (upper, ""),
        f"life at survival {survival:g}": (fit.life(levels, survival), f"Outlived by\n{survival:.1%}"),
        f"the same at confidence {confidence:g}": (tolerance, f"with {confidence:.0%}\nconfidence"),
    }
    columns = (
        Column("stress", levels.tolist(), of="stress", head="Stress\n"),
        *(
            Column(
                name,
                [None if np.isnan(life) else float(life) for life in lives],
                unit="cycles",
                head=head,
                style="number",
                endless="no failure",
                bare=True,
            )
            for name, (lives, head) in known.items()
        ),
    )
    return Table("", columns, "levels")


def models_table(fits: Mapping[str, FittedCurve], chosen: str) -> Table:
    """Candidate models by likelihood, the best first, by Akaike's criterion."""
    of: list[Any] = list(fits.values())
    best = min((fit.aic for fit in of), default=0.0)
    weights = [float(np.exp(-0.5 * (fit.aic - best))) for fit in of]
    columns = (
        Column("model", list(fits)),
        Column("parameters", [fit.parameters for fit in of]),
        Column("ln likelihood", [f"{fit.log_likelihood:.2f}" for fit in of], head="ln L", only="page", left=False),
        Column("ln likelihood", [fit.log_likelihood for fit in of], only="file"),
        Column("AIC", [fit.aic for fit in of], only="file"),
        Column("AIC", [f"{fit.aic:.2f}" for fit in of], only="page"),
        Column("more than the best", [f"{fit.aic - best:.2f}" for fit in of], head="More than\nthe best", only="page"),
        Column("weight", [one / sum(weights) for one in weights], style="share"),
        Column("shown", ["shown" if name == chosen else "" for name in fits], head="", only="page"),
    )
    return Table("Models compared (AIC: the smaller the better)", columns, "models")
