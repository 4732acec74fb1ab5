"""A hyperelastic law fitted to tests of sheets in all modes together, and how far it is stable over what was tested."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber.hyperelastic import HYPERELASTIC, HyperelasticLaw, Ogden
from vivid_anvil.materials.rubber.loading_modes import LOADING_MODES, stretches
from vivid_anvil.materials.rubber.rubber_tests import RubberTests
from vivid_anvil.units import UnitSystem, number, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

CONSTANTS = {"neo-hookean": ("c10",), "mooney-rivlin": ("c10", "c01"), "yeoh": ("c10", "c20", "c30")}
SMALL = 0.05  # of the largest stress of a mode, below which deviations are weighed as there
STARTS = ((1.3, 5.0, -2.0), (2.0, -2.0, 4.0), (1.5, -1.0, 8.0))  # exponents of Ogden's terms, from which it is looked
POOR = 0.1  # relative deviation, rms, from which on a mode is not met
AROUND = (0.3, 10.0)  # stretches at which stability is looked at


@dataclass(frozen=True, eq=False, repr=False)
class HyperelasticFit(Result):
    """A law through tests, with its deviation in each mode.

    Parameters
    ----------
    tests : RubberTests
        The tests.
    law : HyperelasticLaw
        What was fitted.

    Raises
    ------
    InputError
        For an argument of another kind; the message says which.

    Examples
    --------
    >>> import numpy as np
    >>> gum = HYPERELASTIC["mooney-rivlin"](name="gum", c10=0.3, c01=0.08)
    >>> stretch = np.array([1.2, 1.6, 2.0, 2.5])
    >>> sheet = RubberTests(name="sheet", modes=["simple"] * 4, stretch=stretch, nominal_stress=gum.nominal("simple", stretch))
    >>> fit_hyperelastic(sheet, form="mooney-rivlin").law
    <HyperelasticLaw sheet: mooney-rivlin, shear modulus 0.76 MPa>
    """

    tests: RubberTests
    law: HyperelasticLaw

    @property
    def title(self) -> str:
        """What was fitted."""
        return f"Hyperelastic law from {self.tests.name}"

    def deviation(self, mode: str) -> float:
        """Root mean square of the relative deviations of the nominal stress in a mode, -."""
        stretch, stress = self.tests.of(mode)
        return float(np.sqrt(np.mean(_relative(self.law.nominal(mode, stretch), stress) ** 2)))

    def stable(self, mode: str) -> tuple[float, float]:
        """Stretches about 1 between which it is stable in a mode."""
        return self.law.stable_between(mode, *AROUND)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""
        return gravest_first(list(_findings(self)))

    @classmethod
    def overview(cls, results: Sequence[HyperelasticFit]) -> Table:
        """A row a fit."""
        columns = (
            Column("tests", [one.tests.name for one in results]),
            Column("form", [one.law.kind for one in results]),
            Column("shear modulus", [one.law.shear_modulus for one in results], of="stress"),
            Column(
                "largest deviation",
                [max(one.deviation(mode) for mode in one.tests.tested) for one in results],
                style="percent",
            ),
        )
        return Table("", columns, "fits")

    def words(self, units: UnitSystem = "metric") -> Words:
        """The law and its constants."""
        told = ", ".join(f"{key} {value}" for key, value in constants_of(self.law))
        return (("Law", f"{self.law.kind}: {self.law.formula}"), ("Constants", told), ("Tests", self.tests.source))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Deviation and stability by mode."""
        modes = tuple(LOADING_MODES)
        tested = [self.tests.of(mode)[0] for mode in modes]
        columns = (
            Column("mode", list(modes)),
            Column("points", [one.size for one in tested]),
            Column("least stretch", [float(one[0]) if one.size else None for one in tested], style="number"),
            Column("largest stretch", [float(one[-1]) if one.size else None for one in tested], style="number"),
            Column(
                "deviation",
                [self.deviation(mode) if one.size else None for mode, one in zip(modes, tested, strict=True)],
                style="percent",
            ),
            Column("stable from", [self.stable(mode)[0] for mode in modes], style="number"),
            Column("stable to", [self.stable(mode)[1] for mode in modes], style="number"),
        )
        return (Table("By mode", columns, "modes"),)

    def __repr__(self) -> str:
        worst = max(self.deviation(mode) for mode in self.tests.tested)
        return f"<HyperelasticFit {self.law.kind} of {self.tests.name}: deviation up to {worst:.1%}>"


@opened()
def constants_of(law: HyperelasticLaw) -> tuple[tuple[str, str], ...]:
    """Names and values of the constants, with their unit."""
    if isinstance(law, Ogden):
        return tuple(
            (f"μ_{i}, α_{i}", f"{number(mu)} MPa, {number(alpha)}") for i, (mu, alpha) in enumerate(law.terms, 1)
        )
    return tuple((key, f"{number(getattr(law, key))} MPa") for key in CONSTANTS.get(law.kind, ()))


@opened()
def fit_hyperelastic(
    tests: RubberTests, *, form: str = "mooney-rivlin", terms: int = 2, name: str | None = None
) -> HyperelasticFit:
    """The law of a form that meets tests in all modes best: least squares of relative deviations of the nominal stress.

    Parameters
    ----------
    tests : RubberTests
        Simple, planar, equibiaxial tension, or some of them.
    form : str, default "mooney-rivlin"
        One of `HYPERELASTIC`.
    terms : int, default 2
        Terms of Ogden's law, 1 to 3.
    name : str, optional
        Of the law; by default that of the tests.

    Returns
    -------
    HyperelasticFit
        The law, deviations by mode, how far it is stable.

    Raises
    ------
    InputError
        For an unknown form, fewer points than constants, and a form that these tests do not take.

    Examples
    --------
    >>> import numpy as np
    >>> gum = HYPERELASTIC["ogden"](name="gum", terms=[(0.5, 1.5), (-0.02, -2.0)])
    >>> stretch = np.linspace(1.1, 3.0, 9)
    >>> sheet = RubberTests(name="sheet", modes=["planar"] * 9, stretch=stretch, nominal_stress=gum.nominal("planar", stretch))
    >>> fit_hyperelastic(sheet, form="ogden").deviation("planar") < 1e-3
    True
    """
    one_of("fit, form", form, tuple(HYPERELASTIC))
    if terms not in (1, 2, 3):
        raise InputError("fit, terms", repr(terms), "1, 2 or 3")
    many = 2 * terms if form == "ogden" else len(CONSTANTS[form])
    if len(tests) < many:
        raise InputError(
            f"fit to {tests.name}", f"{len(tests)} points", f"{many} or more, as {form} has so many constants"
        )
    more = {
        "name": name or tests.name,
        "source": f"fitted to {len(tests)} points, {tests.source}",
        "stretches_tested": (min(1.0 - 1e-9, float(tests.stretch.min())), max(1.0 + 1e-9, float(tests.stretch.max()))),
    }
    if form == "ogden":
        return HyperelasticFit(tests, Ogden(terms=_ogden_terms(tests, terms), **more))  # type: ignore[arg-type]
    keys = CONSTANTS[form]
    columns, wanted = [], np.concatenate([tests.of(mode)[1] / _scale(tests.of(mode)[1]) for mode in tests.tested])
    for key in keys:  # the stress is linear in the constants
        parts = [_part(key, mode, tests.of(mode)[0]) / _scale(tests.of(mode)[1]) for mode in tests.tested]
        columns.append(np.concatenate(parts))
    found, *_ = np.linalg.lstsq(np.column_stack(columns), wanted, rcond=None)
    values = dict(zip(keys, found.tolist(), strict=True))
    return HyperelasticFit(tests, HYPERELASTIC[form](**values, **more))  # type: ignore[arg-type]


def _part(key: str, mode: str, stretch: FloatArray) -> FloatArray:
    """Nominal stress over a constant of a law of invariants: 2 times its part of ∂W/∂I1, or of ∂W/∂I2, times the squares."""
    square = stretches(mode, stretch) ** 2
    x = square.sum(axis=1) - 3.0
    first, third = (1.0 / square[:, 2], 1.0 / square[:, 0]) if key == "c01" else (square[:, 0], square[:, 2])
    times = {"c20": 2.0 * x, "c30": 3.0 * x**2}.get(key, 1.0)
    return np.asarray(2.0 * times * (first - third) / stretch)


def _scale(stress: FloatArray) -> FloatArray:
    return np.maximum(np.abs(stress), SMALL * float(np.abs(stress).max(initial=1e-300)))


def _relative(found: FloatArray, stress: FloatArray) -> FloatArray:
    return np.asarray((found - stress) / _scale(stress))


def _ogden_terms(tests: RubberTests, many: int) -> list[tuple[float, float]]:
    """Exponents by search, from several starts; the moduli of given exponents are linear."""
    modes = [(mode, *tests.of(mode)) for mode in tests.tested]
    wanted = np.concatenate([stress / _scale(stress) for _, _, stress in modes])

    def parts(exponents: FloatArray) -> FloatArray:
        columns = []
        for alpha in exponents:
            own = []
            for mode, stretch, stress in modes:
                first, _, third = LOADING_MODES[mode].powers
                own.append((stretch ** (first * alpha) - stretch ** (third * alpha)) / stretch / _scale(stress))
            columns.append(np.concatenate(own))
        return np.column_stack(columns)

    def left(exponents: FloatArray) -> FloatArray:
        columns = parts(exponents)
        moduli, *_ = np.linalg.lstsq(columns, wanted, rcond=1e-10)
        return np.asarray(columns @ moduli - wanted)

    best = min((least_squares(left, start[:many], x_scale=1.0) for start in STARTS), key=lambda one: float(one.cost))
    moduli, *_ = np.linalg.lstsq(parts(best.x), wanted, rcond=1e-10)
    return [(float(mu), float(alpha)) for mu, alpha in zip(moduli, best.x, strict=True)]


def _findings(fit: HyperelasticFit) -> Iterator[Finding]:
    tests, law = fit.tests, fit.law
    if len(tests.tested) == 1:
        yield Finding(
            "warning",
            "one-mode",
            f"The law rests on {tests.tested[0]} tension alone: in another mode it may be wrong by a factor.",
            "Test planar and equibiaxial tension too, which parts of a bushing see.",
        )
    for mode in LOADING_MODES:
        low, high = fit.stable(mode)
        least, largest = law.stretches_tested or (1.0, 1.0)
        if high < largest * (1.0 - 1e-9) or low > least * (1.0 + 1e-9):
            end = high if high < largest else low
            yield Finding(
                "severe" if mode in tests.tested else "warning",
                "unstable-law",
                f"In {mode} tension the law is stable up to a stretch of {number(end)} only, within what was tested.",
                "Take another form, or fewer terms.",
            )
    for mode in tests.tested:
        off = fit.deviation(mode)
        if off > POOR:
            yield Finding(
                "warning",
                "law-misses-mode",
                f"In {mode} tension the law is off by {off:.0%} (rms).",
                "Take another form, or fit it to the range of stretch that the part sees.",
            )
