"""Two powers of the range of stress intensity, one below and one above a transition."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.units import Coherent, GrowthRate, OptionalCoherent, growth_constant, sound
from vivid_anvil.writing.working import put_in


@sound
@LAWS.add("two-stage")
@dataclass(frozen=True, kw_only=True, repr=False)
class TwoStageLaw(GrowthLaw):
    """da/dN = C ΔK^m below the `transition`, C_2 ΔK^m_2 from it on (BS 7910); by default the transition is where both meet.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    threshold : ThresholdField, default 0.0
        Range of K at or below which nothing grows, MPa√mm or text; or a form of `THRESHOLDS`.
    r_ratio : float, optional
        Ratio of the smallest to the largest stress, R, -.
    valid_r : tuple[float, float], optional
        Lowest and highest R, -, of the tests; by default those of the form.
    scatter : str, default "not stated"
        Where in the scatter of the tests it lies: "mean", "upper bound", or in words.
    source : str, default "not stated"
        Where the numbers come from, in words.
    rate : text or float
        Growth at a range of K, such as "6.9e-12 m/cycle at 1 MPa√m"; or C in mm/cycle and MPa√mm.
    slope : float
        Slope m, -.
    rate_2 : text or float
        Growth in the second stage, as `rate`.
    slope_2 : float
        Slope of the second stage, -.
    transition : float or text with a unit, optional
        Range of K from which the second stage holds, MPa√mm; by default where both meet.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = TwoStageLaw(name="steel", rate=1e-17, slope=5.0, rate_2=2e-12, slope_2=3.0)
    >>> round(law.change, 3), f"{float(law.growth(100.0)):.3g}", f"{float(law.growth(1000.0)):.3g}"
    (447.214, '1e-07', '0.002')
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    rate_2: GrowthRate = GrowthRate()
    slope_2: Coherent = Coherent("number", above=0.0, below=math.inf)
    transition: OptionalCoherent = OptionalCoherent("stress intensity", above=0.0)
    formula: ClassVar[str] = "da/dN = C × ΔK^m below the transition, C_2 × ΔK^m_2 above"
    holds: ClassVar[str] = "the R of the tests"
    method: ClassVar[str] = "BS 7910, two-stage law"
    form_knows_r: ClassVar[bool] = False

    @property
    def one_power(self) -> bool:
        """It is two."""
        return False

    @cached_property
    def second(self) -> float:
        """C_2, mm/cycle and MPa√mm."""
        return growth_constant(self.rate_2, self.slope_2, inside(f"growth law {self.name}", "rate_2"))

    @property
    def change(self) -> float:
        """The range, MPa√mm, from which the second power holds."""
        if self.transition is not None:
            return self.transition
        if self.slope == self.slope_2:
            where = inside(f"growth law {self.name}", "slope_2")
            raise InputError(
                where, f"{self.slope_2:g}, as slope", "another slope", "Lines of one slope never meet: a ParisLaw."
            )
        return float((self.constant / self.second) ** (1.0 / (self.slope_2 - self.slope)))

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, C_2, m_2, the transition."""
        return (self.constant, self.slope, self.second, self.slope_2, self.change)

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        return p[0] * dk ** p[1] if dk < p[4] else p[2] * dk ** p[3]  # type: ignore[no-any-return]

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        c, m = (self.constant, self.slope) if dk < self.change else (self.second, self.slope_2)
        return f"{put_in(c)} × {put_in(dk)}^{put_in(m)}"
