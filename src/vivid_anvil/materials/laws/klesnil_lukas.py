"""A power of the range of stress intensity less that of the threshold."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.units import Coherent, GrowthRate
from vivid_anvil.writing.working import put_in


@LAWS.add("klesnil-lukas")
@dataclass(frozen=True, kw_only=True, repr=False)
class KlesnilLukasLaw(GrowthLaw):
    """da/dN = C (ΔK^m - ΔK_th^m): growth begins with 0 at the threshold (Klesnil and Lukáš 1972).

    `rate` is the constant as text such as "6.9e-12 m/cycle at 1 MPa√m", "5e-10 with mm/cycle and MPa√mm" (as printed), or C
    itself for mm/cycle and MPa√mm; `slope` is m.

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

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = KlesnilLukasLaw(name="steel", rate=3e-13, slope=3.0, threshold="150 MPa√mm")
    >>> [f"{rate:.4g}" for rate in law.growth([150.0, 300.0])]
    ['0', '7.088e-06']
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    formula: ClassVar[str] = "da/dN = C × (ΔK^m - ΔK_th^m)"
    holds: ClassVar[str] = "the R of the tests"
    method: ClassVar[str] = "Klesnil and Lukáš 1972, Materials Science and Engineering 9, 231-240"
    form_knows_r: ClassVar[bool] = False

    @property
    def row(self) -> tuple[float, ...]:
        """C, m."""
        return (self.constant, self.slope)

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        return p[0] * (dk ** p[1] - threshold ** p[1])  # type: ignore[no-any-return]

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        m = put_in(self.slope)
        return f"{put_in(self.constant)} × ({put_in(dk)}^{m} - {put_in(threshold)}^{m})"
