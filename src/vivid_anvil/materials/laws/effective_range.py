"""A power of the part of the range in which the crack is open."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw, Separate, separated
from vivid_anvil.units import Coherent, GrowthRate
from vivid_anvil.writing.working import put_in


@LAWS.add("effective range")
@dataclass(frozen=True, kw_only=True, repr=False)
class EffectiveRangeLaw(GrowthLaw):
    """da/dN = C (U ΔK)^m with the open part U = u_0 + u_1 R + u_2 R^2: 0.5 + 0.4 R by Elber, with others by Schijve.

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
    open_0 : float, default 0.5
        u_0 of the open part U = u_0 + u_1 R + u_2 R², -.
    open_1 : float, default 0.4
        u_1, -.
    open_2 : float, default 0.0
        u_2, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = EffectiveRangeLaw(name="closure", rate=3e-13, slope=3.0)
    >>> [f"{rate:.4g}" for rate in law.growth([200.0, 200.0], r_ratio=[0.0, 0.5])]
    ['3e-07', '8.232e-07']
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    open_0: Coherent = Coherent("number", default=0.5)
    open_1: Coherent = Coherent("number", default=0.4)
    open_2: Coherent = Coherent("number", default=0.0)
    form_separable: ClassVar[bool] = True
    formula: ClassVar[str] = "da/dN = C × (U × ΔK)^m, U = u_0 + u_1 × R + u_2 × R^2"
    holds: ClassVar[str] = "R of the tests of U: -0.1 to 0.7 (Elber), -1 to 0.54 (Schijve)"
    method: ClassVar[str] = "Elber 1971, ASTM STP 486; Schijve 1981"
    tested_r: ClassVar[tuple[float, float]] = (-0.1, 0.7)

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, u_0, u_1, u_2."""
        return (self.constant, self.slope, self.open_0, self.open_1, self.open_2)

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        return p[0] * (max(p[2] + p[3] * r + p[4] * r * r, 0.0) * dk) ** p[1]  # type: ignore[no-any-return]

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        first, second, third = (put_in(one) for one in (self.open_0, self.open_1, self.open_2))
        opened = f"({first} + {second} × {put_in(r)} + {third} × {put_in(r)}^2)"
        return f"{put_in(self.constant)} × ({opened} × {put_in(dk)})^{put_in(self.slope)}"

    def separate(self, span: FloatArray, r: FloatArray) -> Separate | None:
        """The open part of the range to the power m."""
        part = np.maximum(self.open_0 + self.open_1 * r + self.open_2 * r * r, 0.0)
        return separated(self, part * span, span, r)
