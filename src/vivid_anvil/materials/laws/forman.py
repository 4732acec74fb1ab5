"""A power law that ends at the toughness."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.units import Coherent, GrowthRate
from vivid_anvil.writing.working import put_in


@LAWS.add("forman")
@dataclass(frozen=True, kw_only=True, repr=False)
class FormanLaw(GrowthLaw):
    """da/dN = C ΔK^m / ((1 - R) K_c - ΔK) (Forman, Kearney and Engle 1967); `toughness` is K_c, and the rate as printed.

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
    toughness : float or text with a unit
        Fracture toughness, MPa√mm or text such as "75 MPa√m".

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = FormanLaw(name="aluminium", rate="5e-10 with mm/cycle and MPa√mm", slope=3.0, toughness="60 MPa√m")
    >>> f"{float(law.growth(500.0, 0.1)):.4g}", float(law.growth(2000.0, 0.1))
    ('5.175e-05', inf)
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    toughness: Coherent = Coherent("stress intensity", above=0.0)
    formula: ClassVar[str] = "da/dN = C × ΔK^m / ((1 - R) × K_c - ΔK)"
    holds: ClassVar[str] = "R of 0 and above"
    method: ClassVar[str] = "Forman, Kearney and Engle 1967, J. Basic Eng. 89"
    constant_power: ClassVar[float] = -1.0
    tested_r: ClassVar[tuple[float, float]] = (0.0, 1.0)

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, K_c."""
        return (self.constant, self.slope, self.toughness)

    @property
    def fracture_toughness(self) -> float | None:
        """K_c, MPa√mm."""
        return self.toughness

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        room = (1.0 - r) * p[2] - dk
        return p[0] * dk ** p[1] / room if room > 0.0 else math.inf

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        room = f"((1 - {put_in(r)}) × {put_in(self.toughness)} - {put_in(dk)})"
        return f"{put_in(self.constant)} × {put_in(dk)}^{put_in(self.slope)} / {room}"
