"""A strain-life curve and a cyclic curve fitted to strain-controlled tests: regression of log life on the parts of the strain.

Life is the dependent variable (ASTM E739; Morrow, J. 1965): log10 2N = A + B log10 ε of each part, b or c = 1/B, the coefficient
10^(-A/B). K' and n' from log σ over log ε_p of the same loops.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.strain.cyclic_curve import CyclicCurve
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.materials.strain.strain_tests import StrainTests
from vivid_anvil.units import UnitSystem, coherent, in_unit, number, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

SMALLEST_PLASTIC = 1e-4  # plastic strain amplitude, below which it is in the noise of a gauge
LEAST, FEW = 3, 8  # specimens


class Line(NamedTuple):
    """log10 2N = intercept + slope log10 ε: exponent 1/slope, the coefficient at one reversal, scatter of log10 N, points."""

    exponent: float
    coefficient: float
    std: float
    points: int


@dataclass(frozen=True, eq=False, repr=False)
class StrainLifeFit(Result):
    """A strain-life curve through tests, with the scatter of each part and of the whole.

    Parameters
    ----------
    tests : StrainTests
        The tests.
    youngs_modulus : float
        E, MPa, with which strains were parted.
    elastic : Line
        Line of the elastic part.
    plastic : Line
        Line of the plastic part.
    std : float
        Standard deviation of log10 life about the whole curve.
    cyclic_strength_coefficient : float
        K', MPa, through the tips of the loops.
    cyclic_hardening_exponent : float
        n', -.
    cyclic_std : float
        Standard deviation of log10 stress about the cyclic curve.
    smallest_plastic_strain : float
        Plastic strain amplitude, -, below which specimens were left out of the plastic line.
    used : ndarray of bool
        Which specimens the plastic line and the cyclic curve rest on.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> fit_strain_life(read_strain_tests("pin_strain_tests.csv"), youngs_modulus="206 GPa").std.__round__(3)  # of the demo
    0.089
    """

    tests: StrainTests
    youngs_modulus: float
    elastic: Line
    plastic: Line
    std: float
    cyclic_strength_coefficient: float
    cyclic_hardening_exponent: float
    cyclic_std: float
    smallest_plastic_strain: float
    used: BoolArray

    def curve(self, *, name: str | None = None, survival_probability: float = 0.5) -> StrainLife:
        """The curve with its own K' and n', at a survival probability."""
        mean = StrainLife(
            name=name or self.tests.name,
            youngs_modulus=self.youngs_modulus,
            fatigue_strength_coefficient=self.youngs_modulus * self.elastic.coefficient,
            fatigue_strength_exponent=self.elastic.exponent,
            fatigue_ductility_coefficient=self.plastic.coefficient,
            fatigue_ductility_exponent=self.plastic.exponent,
            cyclic_strength_coefficient=self.cyclic_strength_coefficient,
            cyclic_hardening_exponent=self.cyclic_hardening_exponent,
            survival_probability=0.5,
            log_life_std=self.std or None,  # tests that lie on the line say nothing of scatter
            basis="tests",
            source=f"fitted to {len(self.tests)} tests, {self.tests.source}",
            points=tuple(zip(self.tests.strain_amplitude.tolist(), self.tests.lives.tolist(), strict=True)),
        )
        return mean if survival_probability == 0.5 else mean.at_survival(survival_probability)

    @property
    def title(self) -> str:
        """What was fitted."""
        return f"Strain-life curve from {self.tests.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""
        return gravest_first([*_findings(self), *self.curve().findings])

    @classmethod
    def overview(cls, results: Sequence[StrainLifeFit]) -> Table:
        """A row a fit: constants, scatter, points."""
        columns = (
            Column("tests", [one.tests.name for one in results]),
            Column("youngs modulus", [one.youngs_modulus for one in results], of="stress"),
            Column(
                "fatigue strength coefficient",
                [one.youngs_modulus * one.elastic.coefficient for one in results],
                of="stress",
                head="σ_f'",
            ),
            Column("fatigue strength exponent", [one.elastic.exponent for one in results], head="b"),
            Column("fatigue ductility coefficient", [one.plastic.coefficient for one in results], head="ε_f'"),
            Column("fatigue ductility exponent", [one.plastic.exponent for one in results], head="c"),
            Column(
                "cyclic strength coefficient",
                [one.cyclic_strength_coefficient for one in results],
                of="stress",
                head="K'",
            ),
            Column("cyclic hardening exponent", [one.cyclic_hardening_exponent for one in results], head="n'"),
            Column("std of log10 N", [one.std for one in results]),
            Column("std of log10 N, elastic part", [one.elastic.std for one in results], only="file"),
            Column("std of log10 N, plastic part", [one.plastic.std for one in results], only="file"),
            Column("points, elastic part", [one.elastic.points for one in results], only="file"),
            Column("points, plastic part", [one.plastic.points for one in results], only="file"),
        )
        return Table("", columns, "strain-life fits")

    def words(self, units: UnitSystem) -> Words:
        """Constants with points and scatter, the cyclic curve beside the compatible one."""
        own = self.curve()
        made = own.compatible
        strength = in_unit(own.fatigue_strength_coefficient, "stress", units)
        coefficient = in_unit(self.cyclic_strength_coefficient, "stress", units)
        return (
            (
                "Specimens",
                f"{len(self.tests)}, of which {self.tests.runouts} did not fail and {self._idle} have too little "
                "plastic strain for its line",
            ),
            (
                "Elastic part",
                f"σ_f' = {strength}, b = {number(own.fatigue_strength_exponent)}, {self._told(self.elastic)}",
            ),
            (
                "Plastic part",
                f"ε_f' = {number(own.fatigue_ductility_coefficient)}, c = "
                f"{number(own.fatigue_ductility_exponent)}, {self._told(self.plastic)}",
            ),
            (
                "Whole curve",
                f"std of log10 N about it {number(self.std)}; transition at {number(own.transition_life)} cycles",
            ),
            (
                "Cyclic curve",
                f"K' = {coefficient}, n' = {number(self.cyclic_hardening_exponent)}; of the four constants "
                f"{in_unit(made.cyclic_strength_coefficient, 'stress', units)} and {number(made.cyclic_hardening_exponent)}",
            ),
        )

    @property
    def _idle(self) -> int:
        return int((np.asarray(self.tests.failed) & ~self.used).sum())

    def _told(self, line: Line) -> str:
        return f"{line.points} points, std of log10 N {number(line.std)}"

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a specimen: strains, life, life by the curve."""
        tests, own = self.tests, self.curve()
        columns = (
            Column("strain amplitude", tests.strain_amplitude.tolist(), of="strain"),
            Column("plastic part", _plastic(tests, self.youngs_modulus).tolist(), of="strain"),
            Column("stress amplitude", tests.stress_amplitude.tolist(), of="stress"),
            Column("life [cycles]", tests.lives.tolist(), style="number"),
            Column("by the curve [cycles]", own.life(tests.strain_amplitude).tolist(), style="number"),
            Column("run-out", ["" if one else "run-out" for one in np.asarray(tests.failed)]),
        )
        return (Table("", columns, "specimens"),)

    def __repr__(self) -> str:
        return f"<StrainLifeFit {self.tests.name}: {self.curve()!r}, std of log10 N {number(self.std)}>"


@opened(youngs_modulus=one("stress", above=0.0), smallest_plastic_strain=one("strain", at_least=0.0))
def fit_strain_life(
    tests: StrainTests, *, youngs_modulus: float, smallest_plastic_strain: float = SMALLEST_PLASTIC
) -> StrainLifeFit:
    """The strain-life curve and the cyclic curve through strain-controlled tests; run-outs are left out.

    Parameters
    ----------
    tests : StrainTests
        The tests.
    youngs_modulus : float or text with a unit
        E, MPa, with which strains are parted.
    smallest_plastic_strain : float or text with a unit, default 1e-4
        Plastic strain amplitude, -, below which a specimen is left out of the plastic line and the cyclic curve.

    Returns
    -------
    StrainLifeFit
        Constants, scatter, findings.

    Raises
    ------
    InputError
        For fewer than three specimens for a line, lines that do not fall, and values of another kind, unit or range.

    Examples
    --------
    >>> fit = fit_strain_life(read_strain_tests("pin_strain_tests.csv"), youngs_modulus="206 GPa")  # of the demo
    >>> round(fit.curve().fatigue_strength_exponent, 4), fit.elastic.points, fit.plastic.points
    (-0.0848, 13, 13)
    """
    where = f"fit of {tests.name}"
    failed = np.asarray(tests.failed)
    plastic = _plastic(tests, youngs_modulus)
    used = failed & (plastic >= max(smallest_plastic_strain, 1e-300))
    _check_modulus(tests, youngs_modulus, where)
    twice = 2.0 * tests.lives
    elastic_line = _line(tests.stress_amplitude[failed] / youngs_modulus, twice[failed], f"{where}, elastic part")
    plastic_line = _line(plastic[used], twice[used], f"{where}, plastic part")
    slope, intercept = np.polyfit(np.log10(plastic[used]), np.log10(tests.stress_amplitude[used]), 1)
    off = np.log10(tests.stress_amplitude[used]) - intercept - slope * np.log10(plastic[used])
    curve = StrainLife(
        name=tests.name,
        youngs_modulus=youngs_modulus,
        fatigue_strength_coefficient=youngs_modulus * elastic_line.coefficient,
        fatigue_strength_exponent=elastic_line.exponent,
        fatigue_ductility_coefficient=plastic_line.coefficient,
        fatigue_ductility_exponent=plastic_line.exponent,
    )
    about = np.log10(tests.lives[failed]) - np.log10(curve.life(tests.strain_amplitude[failed]))
    return StrainLifeFit(
        tests=tests,
        youngs_modulus=youngs_modulus,
        elastic=elastic_line,
        plastic=plastic_line,
        std=float(np.sqrt((about**2).sum() / max(about.size - 2, 1))),
        cyclic_strength_coefficient=float(10.0**intercept),
        cyclic_hardening_exponent=float(slope),
        cyclic_std=float(np.sqrt((off**2).sum() / max(off.size - 2, 1))),
        smallest_plastic_strain=smallest_plastic_strain,
        used=checks.read_only(used),
    )


@opened()
def strain_life_through(points: Sequence[tuple[float | str, float]], cyclic: CyclicCurve, *, name: str) -> StrainLife:
    """The strain-life curve through a table of strain amplitudes and lives, parted by the cyclic curve that belongs to it.

    The stress of each point is that of the cyclic curve; elastic and plastic part are then fitted as those of tests are.

    Parameters
    ----------
    points : sequence of (float or str, float)
        Strain amplitude, -, or text such as "0.4 %", and life, cycles; three or more.
    cyclic : CyclicCurve
        E, K' and n'.
    name : str
        Of the curve.

    Returns
    -------
    StrainLife
        The curve, with K' and n' as they are given.

    Raises
    ------
    InputError
        For fewer than three points, lives that do not fall, and values of another kind, unit or range.

    Examples
    --------
    >>> steel = CyclicCurve(youngs_modulus="206 GPa", cyclic_strength_coefficient="1250 MPa", cyclic_hardening_exponent=0.14)
    >>> strain_life_through([("1 %", 820.0), ("0.4 %", 9800.0), ("0.2 %", 3e5)], steel, name="pin")
    <StrainLife pin: σ_f' 1185 MPa, b -0.08652, ε_f' 0.6831, c -0.618, transition at 4006 cycles>
    """
    where = f"strain-life curve {name}, points"
    rows = []
    for row, point in enumerate(points, 1):
        if isinstance(point, str) or len(point) != 2:
            raise InputError(f"{where}, {row}", repr(point), 'a pair, such as ("0.4 %", 1e4)')
        strain = coherent(point[0], "strain", f"{where}, {row}")
        rows.append((strain, checks.positive_number(f"{where}, {row}", point[1], "a life above 0")))
    if len(rows) < LEAST:
        raise InputError(where, f"{len(rows)} points", f"{LEAST} or more")
    strains, lives = np.array(sorted(rows)).T
    if not (np.diff(strains) > 0.0).all() or not (np.diff(lives) < 0.0).all():
        raise InputError(where, "lives that do not fall with the strain", "a shorter life at each larger strain")
    tests = StrainTests(name=name, strain_amplitude=strains, stress_amplitude=cyclic.stress(strains), lives=lives)
    fit = fit_strain_life(tests, youngs_modulus=cyclic.youngs_modulus, smallest_plastic_strain=0.0)
    return dataclasses.replace(
        fit.curve(name=name),
        cyclic_strength_coefficient=cyclic.cyclic_strength_coefficient,
        cyclic_hardening_exponent=cyclic.cyclic_hardening_exponent,
        survival_probability=None,
        log_life_std=None,
        basis="not stated",
        source=f"through a table of {len(rows)} points",
    )


def _plastic(tests: StrainTests, modulus: float) -> FloatArray:
    """Plastic strain amplitudes: as measured, else what is left of the total."""
    if tests.plastic_strain_amplitude is not None:
        return tests.plastic_strain_amplitude
    return np.asarray(tests.strain_amplitude - tests.stress_amplitude / modulus)


def _check_modulus(tests: StrainTests, modulus: float, where: str) -> None:
    """InputError where stresses over E are above the strains: E or a unit is wrong."""
    share = tests.stress_amplitude / modulus / tests.strain_amplitude
    worst = int(share.argmax())
    if share[worst] > 1.1:
        raise InputError(
            f"{where}, specimen {worst + 1}",
            f"σ / E = {tests.stress_amplitude[worst] / modulus:.4g} above the strain, {tests.strain_amplitude[worst]:.4g}",
            "an elastic part below the whole strain",
            "Check E, and the units of stress and strain: is one a range?",
        )


def _line(strains: FloatArray, twice: FloatArray, where: str) -> Line:
    if strains.size < LEAST:
        raise InputError(where, f"{strains.size} specimens", f"{LEAST} or more that failed, with strain of that part")
    if np.ptp(strains) == 0.0:
        raise InputError(where, "one level of strain", "several levels, for a line")
    x, y = np.log10(strains), np.log10(twice)
    slope, intercept = np.polyfit(x, y, 1)
    if not slope < 0.0:
        raise InputError(where, "lives that rise with the strain", "lives that fall", "Are columns exchanged?")
    off = y - intercept - slope * x
    std = float(np.sqrt((off**2).sum() / max(x.size - 2, 1)))
    return Line(float(1.0 / slope), float(10.0 ** (-intercept / slope)), std, x.size)


def _findings(fit: StrainLifeFit) -> Iterator[Finding]:
    size, lives = len(fit.tests), fit.tests.lives[np.asarray(fit.tests.failed)]
    if size < FEW:
        yield Finding(
            "warning", "few-specimens", f"{size} specimens; 8 to 12 are usual for a strain-life curve.", "Test more."
        )
    if fit.tests.runouts:
        yield Finding(
            "note",
            "run-outs-left-out",
            f"Of {size} specimens {fit.tests.runouts} did not fail: left out of the fit.",
            "The curve is on the safe side there; long lives are better taken from an S-N curve.",
        )
    transition = fit.curve().transition_life
    if not lives.min() < transition < lives.max():
        yield Finding(
            "warning",
            "one-sided-tests",
            f"The tests, of {number(float(lives.min()))} to {number(float(lives.max()))} cycles, lie on one side of the "
            f"transition at {number(transition)} cycles: one part of the strain is hardly tested.",
            "Add tests on the other side.",
        )
    measured: Any = fit.tests.plastic_strain_amplitude
    if measured is not None:
        off = measured - (fit.tests.strain_amplitude - fit.tests.stress_amplitude / fit.youngs_modulus)
        worst = float(np.abs(off / fit.tests.strain_amplitude).max())
        if worst > 0.1:
            yield Finding(
                "warning",
                "strains-disagree",
                f"Measured plastic strains and strain - σ / E differ by up to {worst:.0%} of the strain.",
                "Check E, and whether the plastic strain is an amplitude.",
            )
