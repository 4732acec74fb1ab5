"""S-N curve of two straight lines in log-log, which meet at the knee.

In: stress (MPa) that the curve SAYS to be a range or an amplitude, and the R it was tested at. Out: life, cycles.
Method: N = N_knee (S_knee / S)^slope (Basquin, O. H. 1910, Proc. ASTM 10, 625-630), with another slope below the knee.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil import checks
from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.units import Coherent, number

ANY_R = "any"


@dataclass(frozen=True, kw_only=True, repr=False)
class SNCurve:
    """life = knee_life * (knee_stress / stress)**slope at and above the knee, with `slope_below` under it.

    Parameters
    ----------
    name : str
    stress : "range" or "amplitude"
        What the curve's stress is.
    r_ratio : float or "any"
        Minimum / maximum of the tests, below 1; "any" where the curve holds for every R (welds as welded).
    knee_stress : float or text, MPa
    knee_life : float, cycles
    slope : float
        Positive exponent m of N S^m = constant, at and above the knee.
    slope_below : float
        Below the knee: the same as `slope` for a straight line, larger for a second line, inf for a fatigue limit.
    tested_from, tested_to : float, cycles
        The lives between which tests support the curve; beyond them a finding says so.
    survival_probability : float, optional
        Share of parts that outlive the curve, between 0 and 1.
    source : str
        Where the numbers come from.

    Examples
    --------
    >>> weld = SNCurve(name="toe", stress="range", r_ratio="any", knee_stress="52 MPa", knee_life=1e7, slope=3,
    ...                slope_below=5)
    >>> weld.life([200.0, 52.0, 45.0]).round()
    array([  175760., 10000000., 20604124.])
    >>> round(float(weld.stress_at(2e6)), 1)
    88.9
    """

    name: str
    stress: Literal["range", "amplitude"]
    r_ratio: float | Literal["any"]
    knee_stress: Coherent = Coherent("stress", above=0.0)
    knee_life: float
    slope: float
    slope_below: float
    tested_from: float = 1.0e3
    tested_to: float = math.inf
    survival_probability: float | None = None
    source: str = "not stated"

    def __post_init__(self) -> None:
        where = f"S-N curve {self.name}"
        checks.text("SNCurve.name", self.name)
        checks.one_of(f"{where}, stress", self.stress, ("range", "amplitude"))
        if self.r_ratio != ANY_R and not checks.real_number(f"{where}, r_ratio", self.r_ratio, "R or 'any'") < 1.0:
            raise InputError(f"{where}, r_ratio", f"{self.r_ratio:g}", "minimum / maximum below 1, or 'any'")
        for field, unit in (("knee_life", "cycles"), ("slope", ""), ("slope_below", "")):
            value = checks.real_number(f"{where}, {field}", getattr(self, field))
            if field != "knee_life" and value < 0.0:
                raise InputError(
                    f"{where}, {field}",
                    f"{value:g}",
                    "a slope m above 0 (N S^m = constant)",
                    f"If {value:g} is the exponent b of S = S_f' (2N)^b, the slope is {number(-1.0 / value)}.",
                )
            if not value > 0.0 or (field != "slope_below" and math.isinf(value)):
                raise InputError(f"{where}, {field}", f"{value:g} {unit}".strip(), "a finite value above 0")
        if 0.0 < self.slope < 1.0:
            raise InputError(
                f"{where}, slope",
                f"{self.slope:g}",
                "a slope m of 1 or more (N S^m = constant)",
                f"If {self.slope:g} is an exponent b without its sign, the slope is {number(1.0 / self.slope)}.",
            )
        if self.knee_life < 1.0:
            raise InputError(f"{where}, knee_life", f"{self.knee_life:g} cycles", "at least 1 cycle")
        if self.slope_below < self.slope:
            raise InputError(
                f"{where}, slope_below",
                f"{self.slope_below:g}",
                f"at least the slope above the knee, {self.slope:g}",
                "Below the knee the curve gets flatter: a larger m. For no damage there, write inf.",
            )
        if not 0.0 < self.tested_from < self.tested_to:
            raise InputError(
                f"{where}, tested lives", f"{self.tested_from:g} to {self.tested_to:g} cycles", "a range that rises"
            )
        p = self.survival_probability
        if p is not None and not 0.0 < p < 1.0:
            raise InputError(f"{where}, survival_probability", f"{p:g}", "a share between 0 and 1, such as 0.977")

    @classmethod
    def straight(
        cls,
        *,
        name: str,
        stress: Literal["range", "amplitude"],
        r_ratio: float | Literal["any"],
        point_stress: float | str,
        point_life: float,
        slope: float,
        source: str = "not stated",
    ) -> SNCurve:
        """A curve of one slope through a point.

        >>> line = SNCurve.straight(
        ...     name="line", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3
        ... )
        >>> float(line.life(150.0))
        432000.0
        """
        return cls(
            name=name,
            stress=stress,
            r_ratio=r_ratio,
            knee_stress=point_stress,
            knee_life=point_life,
            slope=slope,
            slope_below=slope,
            source=source,
        )

    @property
    def has_limit(self) -> bool:
        """Whether stresses below the knee do no damage."""
        return math.isinf(self.slope_below)

    def life(self, stress: ArrayLike) -> FloatArray:
        """Life, cycles, at `stress`, MPa, in the curve's own terms (range or amplitude, at the curve's R); inf at 0."""
        ratio = np.asarray(stress, dtype=np.float64) / self.knee_stress
        with np.errstate(divide="ignore", over="ignore"):
            above = self.knee_life * ratio**-self.slope
            below = np.full_like(ratio, np.inf) if self.has_limit else self.knee_life * ratio**-self.slope_below
        return np.where(ratio >= 1.0, above, below)

    def damage_of(self, ranges: FloatArray, count: FloatArray | None = None) -> float:
        """Σ n / N of stress ranges, MPa, at the curve's R; each counts once where no `count` is given."""
        ratio = ranges * ((1.0 if self.stress == "range" else 0.5) / self.knee_stress)
        exponent: float | FloatArray = self.slope
        if self.slope_below != self.slope:
            exponent = np.where(ratio >= 1.0, self.slope, 0.0 if self.has_limit else self.slope_below)
        share = ratio**exponent
        if self.has_limit:
            share[ratio < 1.0] = 0.0
        return float(share.sum() if count is None else share @ count) / self.knee_life

    def stress_at(self, life: ArrayLike) -> FloatArray:
        """Stress, MPa, in the curve's own terms, at which `life`, cycles, is reached: the inverse of `life`."""
        ratio = np.asarray(life, dtype=np.float64) / self.knee_life
        below = 0.0 if self.has_limit else 1.0 / self.slope_below
        return self.knee_stress * np.where(ratio <= 1.0, ratio ** (-1.0 / self.slope), ratio**-below)

    def from_amplitude(self, amplitude: ArrayLike) -> FloatArray:
        """An amplitude in the curve's own terms: doubled where the curve is in ranges."""
        return np.asarray(amplitude, dtype=np.float64) * (2.0 if self.stress == "range" else 1.0)

    @property
    def at_r(self) -> str:
        """The R of the curve in words: 'R = -1' or 'any R'."""
        return "any R" if self.r_ratio == ANY_R else f"R = {self.r_ratio:g}"

    def __repr__(self) -> str:
        below = "no damage below" if self.has_limit else f"m = {self.slope_below:g} below"
        return (
            f"<SNCurve {self.name}: stress {self.stress}, {self.at_r}, m = {self.slope:g} to the knee at "
            f"{number(self.knee_stress)} MPa and {number(self.knee_life)} cycles, {below}>"
        )
