"""Growth of a crack per cycle: the Paris law with a threshold.

In: range of the stress intensity factor, MPa√mm. Out: growth per cycle, mm/cycle.
Method: da/dN = C ΔK^m (Paris, P. and Erdogan, F. 1963, J. Basic Eng. 85, 528-533); no growth at or below the threshold.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil import checks
from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.units import Coherent, growth_constant


@dataclass(frozen=True, kw_only=True, repr=False)
class GrowthLaw:
    """da/dN = constant * ΔK**slope above the threshold, 0 at or below it.

    `rate` is the constant as text such as "6.9e-12 m/cycle at 1 MPa√m", or C itself for mm/cycle and MPa√mm.
    `r_ratio` is that of the tests, or None where the law is meant as an upper bound for every R.

    >>> law = GrowthLaw(name="ferritic steel", rate="6.9e-12 m/cycle at 1 MPa√m", slope=3.0, threshold="2 MPa√m")
    >>> [f"{rate:.4g}" for rate in law.growth([60.0, 300.0])]
    ['0', '5.891e-06']
    """

    name: str
    rate: str | float
    slope: float
    threshold: Coherent = Coherent("stress intensity", at_least=0.0, default=0.0)
    r_ratio: float | None = None
    source: str = "not stated"

    def __post_init__(self) -> None:
        where = f"growth law {self.name}"
        checks.text("GrowthLaw.name", self.name)
        slope = checks.real_number(f"{where}, slope", self.slope)
        if not 0.0 < slope < math.inf:
            raise InputError(f"{where}, slope", f"{slope:g}", "a finite exponent above 0 (da/dN = C ΔK^m)")
        growth_constant(self.rate, slope, f"{where}, rate")
        if self.r_ratio is not None and not checks.real_number(f"{where}, r_ratio", self.r_ratio) < 1.0:
            raise InputError(f"{where}, r_ratio", f"{self.r_ratio:g}", "minimum / maximum below 1")

    @property
    def constant(self) -> float:
        """C of da/dN = C ΔK^slope, in mm/cycle and MPa√mm."""
        return growth_constant(self.rate, self.slope, f"growth law {self.name}, rate")

    def growth(self, delta_k: ArrayLike) -> FloatArray:
        """Growth per cycle, mm/cycle, at ranges of stress intensity `delta_k`, MPa√mm."""
        ranges = np.asarray(delta_k, dtype=np.float64)
        return np.where(ranges > self.threshold, self.constant * ranges**self.slope, 0.0)

    def __repr__(self) -> str:
        law = f"C = {self.constant:.4g}, m = {self.slope:g}, threshold {self.threshold:.4g} MPa√mm"
        return f"<GrowthLaw {self.name}: {law}>"
