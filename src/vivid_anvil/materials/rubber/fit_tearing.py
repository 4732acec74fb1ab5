"""A tearing law through growth tests: least squares on the logarithm of the rate, all values of R together."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from scipy.optimize import least_squares

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber.power_tearing import PowerTearing
from vivid_anvil.materials.rubber.shifted_tearing import ShiftedTearing
from vivid_anvil.materials.rubber.tearing_law import R_EFFECTS, TEARING_LAWS, TearingLaw
from vivid_anvil.materials.rubber.tearing_tests import TearingTests
from vivid_anvil.materials.rubber.three_regimes import ThreeRegimes
from vivid_anvil.units import UnitSystem, number, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

TINY, FAR = 1e-300, 1e3
FEW, NARROW, WIDE = 8, 10.0, 0.2  # points; largest over least energy; standard deviation of log10 of the rate
RELAXES = 0.02  # R, up to which a cycle relaxes


class _Form(NamedTuple):
    """Parameters from which it is looked, and how a law comes of them; `ends` are least and largest equivalent energy."""

    starts: Callable[[float, float, float, float], list[list[float]]]
    make: Callable[[FloatArray, tuple[float, float]], dict[str, Any]]


def _power(p: FloatArray, ends: tuple[float, float]) -> dict[str, Any]:
    return {"rate": float(np.exp(p[0])), "at": ends[1], "slope": float(np.exp(p[1]))}


def _below(x: float, top: float) -> float:
    """A value between 0 and `top`, of any number."""
    return top / (1.0 + float(np.exp(-x)))


def _shifted(p: FloatArray, ends: tuple[float, float]) -> dict[str, Any]:
    return {**_power(p, ends), "least": max(_below(float(p[2]), ends[0]), TINY)}


def _regimes(p: FloatArray, ends: tuple[float, float]) -> dict[str, Any]:
    bend = ends[0] + _below(float(p[4]), ends[1] - ends[0])
    least_rate = float(np.exp(p[0]))
    return {
        "least_rate": least_rate,
        "least": max(_below(float(p[1]), bend), TINY),
        "bend_rate": least_rate + float(np.exp(p[2])) * bend,
        "bend": bend,
        "slope": float(np.exp(p[3])),
    }


FORMS = {
    "power": _Form(lambda rate, slope, low, grown: [[rate, slope]], _power),
    "shifted power": _Form(lambda rate, slope, low, grown: [[rate, slope, x] for x in (-3.0, 0.0, 2.0)], _shifted),
    "three regimes": _Form(
        lambda rate, slope, low, grown: [[low - 1.0, x, grown, slope, y] for x in (-2.0, 1.0) for y in (-1.0, 1.0)],
        _regimes,
    ),
}
NOUNS: dict[str, type[TearingLaw]] = {
    "power": PowerTearing,
    "shifted power": ShiftedTearing,
    "three regimes": ThreeRegimes,
}


@dataclass(frozen=True, eq=False, repr=False)
class TearingFit(Result):
    """A tearing law through tests.

    Parameters
    ----------
    tests : TearingTests
        The tests.
    law : TearingLaw
        What was fitted.

    Raises
    ------
    InputError
        For an argument of another kind; the message says which.

    Examples
    --------
    >>> tests = TearingTests(name="strip", energies=[0.5, 1.0, 2.0], rates=[1e-5, 4e-5, 1.7e-4])
    >>> fit_tearing(tests)
    <TearingFit power of strip: log10 of the rate ±0.01>
    """

    tests: TearingTests
    law: TearingLaw

    @property
    def title(self) -> str:
        """What was fitted."""
        return f"Tearing law from {self.tests.name}"

    @property
    def log_rate_std(self) -> float:
        """Standard deviation of log10 of the rate about the law, -."""
        off = np.log10(self.tests.rates / np.maximum(self.law.growth(self.tests.energies, self.tests.ratios), TINY))
        return float(np.sqrt(np.mean(off**2)))

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""
        return gravest_first(list(_findings(self)))

    @classmethod
    def overview(cls, results: Sequence[TearingFit]) -> Table:
        """A row a fit."""
        columns = (
            Column("tests", [one.tests.name for one in results]),
            Column("form", [one.law.kind for one in results]),
            Column("points", [len(one.tests) for one in results]),
            Column("slope", [one.law.anchor[1] for one in results], style="number"),
            Column("log10 of the rate ±", [one.log_rate_std for one in results], style="number"),
        )
        return Table("", columns, "fits")

    def words(self, units: UnitSystem = "metric") -> Words:
        """The law and where it comes from."""
        return (("Law", f"{self.law.kind}: {self.law.formula}"), ("Tests", self.tests.source))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Each point beside the law."""
        grown = self.law.growth(self.tests.energies, self.tests.ratios)
        columns = (
            Column("tearing energy", self.tests.energies.tolist(), of="energy release rate"),
            Column("R", self.tests.ratios.tolist(), style="number"),
            Column("growth rate", self.tests.rates.tolist(), of="growth rate"),
            Column("by the law", grown.tolist(), of="growth rate"),
            Column("measured over law", (self.tests.rates / np.maximum(grown, TINY)).tolist(), style="number"),
        )
        return (Table("Points", columns, "points"),)

    def __repr__(self) -> str:
        return f"<TearingFit {self.law.kind} of {self.tests.name}: log10 of the rate ±{number(self.log_rate_std, 2)}>"


@opened()
def fit_tearing(
    tests: TearingTests,
    *,
    form: str = "power",
    r_effect: str = "range",
    slope_rise: float | None = None,
    name: str | None = None,
    temperature: float | str | None = None,
) -> TearingFit:
    """The tearing law of a form that is nearest to tests, in the logarithm of the rate.

    Parameters
    ----------
    tests : TearingTests
        The tests.
    form : str, default "power"
        One of `TEARING_LAWS`.
    r_effect : str, default "range"
        One of `R_EFFECTS`.
    slope_rise : float, optional
        F4 of rubber that crystallises; without it the tests have to be at several R.
    name : str, optional
        Of the law; by default that of the tests.
    temperature : float or text with a scale, optional
        Of the tests, °C.

    Returns
    -------
    TearingFit
        The law, its scatter, findings.

    Raises
    ------
    InputError
        For fewer points than the law has constants, and rubber that crystallises with tests at one R and no `slope_rise`.

    Examples
    --------
    >>> import numpy as np
    >>> law = PowerTearing(name="nr", rate=0.0025, at=11.0, slope=2.5)
    >>> t = np.geomspace(0.3, 6.0, 12)
    >>> fit_tearing(TearingTests(name="strip", energies=t, rates=law.growth(t))).law.slope.__round__(6)
    2.5
    """
    one_of("fit of a tearing law, form", form, tuple(TEARING_LAWS))
    one_of("fit of a tearing law, r_effect", r_effect, tuple(R_EFFECTS))
    if form not in FORMS:
        raise InputError("fit of a tearing law, form", repr(form), f"one of {', '.join(FORMS)}")
    crystallises = r_effect == "crystallising"
    solves_rise = crystallises and slope_rise is None
    if solves_rise and np.ptp(tests.ratios) < RELAXES:
        raise InputError(
            f"tearing tests {tests.name}",
            f"one R, {number(float(tests.ratios[0]))}",
            "tests at several R, or slope_rise stated, for rubber that crystallises",
        )
    how = FORMS[form]
    given: dict[str, Any] = {
        "name": name or tests.name,
        "r_effect": r_effect,
        "temperature": temperature,
        "r_ratios_tested": (float(tests.ratios.min()), float(tests.ratios.max())),
        "source": f"fitted to {tests.source}",
    }
    ratios = tests.ratios
    equal = tests.energies * (1.0 if crystallises else 1.0 - ratios)
    ends = float(equal.min()) * (1.0 - 1e-12), float(equal.max())

    def law_of(p: FloatArray) -> TearingLaw:
        more: dict[str, Any] = {}
        if crystallises:
            # the tearing energy at which R does nothing is looked for as well
            more = {"slope_rise": float(np.exp(p[-2])) if solves_rise else slope_rise}
            return NOUNS[form](
                **given, **more, **how.make(p[: -2 if solves_rise else -1], (ends[0], float(np.exp(p[-1]))))
            )
        return NOUNS[form](**given, **how.make(p, ends))

    log_rate = np.log(tests.rates)

    def off(p: FloatArray) -> FloatArray:
        try:
            law = law_of(p)
        except InputError:  # constants that no law has
            return np.full(log_rate.size, FAR)
        with np.errstate(over="ignore", invalid="ignore"):
            grown = np.log(np.maximum(law.growth(tests.energies, ratios), TINY))
        return np.asarray(np.nan_to_num(grown - log_rate, nan=FAR, posinf=FAR, neginf=-FAR))

    slope, level = np.polyfit(np.log(equal), log_rate, 1)
    rate, rise = level + slope * np.log(ends[1]), float(np.median(tests.rates / equal))
    starts = how.starts(float(rate), float(np.log(max(slope, 0.1))), float(log_rate.min()), float(np.log(rise)))
    tails = [[]] if not crystallises else [([np.log(2.0)] if solves_rise else []) + [np.log(3.0 * ends[1])]]
    if len(tests) < len(starts[0]) + len(tails[0]):
        raise InputError(
            f"tearing tests {tests.name}",
            f"{len(tests)} points",
            f"{len(starts[0]) + len(tails[0])} and more for the form {form!r}",
        )
    found = [
        least_squares(off, [*start, *tail], xtol=1e-14, ftol=1e-14, gtol=1e-14) for start in starts for tail in tails
    ]
    best = min(found, key=lambda one: float(one.cost))
    return TearingFit(tests, law_of(best.x))


def _findings(fit: TearingFit) -> Iterator[Finding]:
    tests = fit.tests
    reach = float(tests.energies.max() / tests.energies.min())
    if len(tests) < FEW or reach < NARROW:
        yield Finding(
            "warning",
            "few-growth-points",
            f"{len(tests)} points over a factor of {number(reach, 2)} in tearing energy.",
            "A flaw grows through more than a decade of tearing energy: test over as much.",
        )
    if fit.log_rate_std > WIDE:
        yield Finding(
            "warning",
            "law-misses-growth",
            f"Rates scatter by a factor of {number(10.0**fit.log_rate_std, 2)} about the law (one standard deviation).",
            "Take another form, or look for tests of another rubber among these.",
        )
    if float(tests.ratios.min()) > RELAXES:
        yield Finding(
            "note",
            "tested-non-relaxing",
            f"All tests are at R of {number(float(tests.ratios.min()))} and more: none relaxed fully.",
            "Where the part relaxes cracks grow faster in rubber that crystallises.",
        )
