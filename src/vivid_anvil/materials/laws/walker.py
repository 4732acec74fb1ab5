"""A power law that knows R."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw, Separate, separated
from vivid_anvil.units import Coherent, GrowthRate, OptionalCoherent
from vivid_anvil.writing.working import put_in


@LAWS.add("walker")
@dataclass(frozen=True, kw_only=True, repr=False)
class WalkerLaw(GrowthLaw):
    """da/dN = C (ΔK / (1 - R)^(1 - γ))^m (Walker 1970); below R = 0 with a `gamma_negative` of its own, 0 for the maximum alone.

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
    gamma : float
        γ of Walker's law, -.
    gamma_negative : float, optional
        γ below R = 0, -; 0: the maximum alone counts.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> walker = WalkerLaw(name="w", rate=3e-13, slope=3.0, gamma=0.5)
    >>> [f"{rate:.4g}" for rate in walker.growth([200.0, 200.0], r_ratio=[0.0, 0.5])]
    ['2.4e-06', '6.788e-06']
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    gamma: Coherent = Coherent("number")
    gamma_negative: OptionalCoherent = OptionalCoherent("number")
    form_separable: ClassVar[bool] = True
    formula: ClassVar[str] = "da/dN = C × (ΔK / (1 - R)^(1 - γ))^m"
    holds: ClassVar[str] = "any R; below 0 with a gamma of its own, 0 for the maximum alone"
    method: ClassVar[str] = "Walker 1970, ASTM STP 462"

    @property
    def gammas(self) -> tuple[float, float]:
        """γ at R of 0 and above, and below."""
        return self.gamma, self.gamma if self.gamma_negative is None else self.gamma_negative

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, γ above and below R = 0."""
        return (self.constant, self.slope, *self.gammas)

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        m = p[1]
        gamma = p[2] if r >= 0.0 else p[3]
        x = dk / (1.0 - r) ** (1.0 - gamma)
        if m == 3.0:
            return p[0] * (x * x * x)  # type: ignore[no-any-return]
        if m == 4.0:
            return p[0] * ((x * x) * (x * x))  # type: ignore[no-any-return]
        return p[0] * x**m  # type: ignore[no-any-return]

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        gamma = self.gammas[0 if r >= 0.0 else 1]
        c, m = put_in(self.constant), put_in(self.slope)
        return f"{c} × ({put_in(dk)} / (1 - {put_in(r)})^(1 - {put_in(gamma)}))^{m}"

    def separate(self, span: FloatArray, r: FloatArray) -> Separate | None:
        """The range with its R, to the power m."""
        above, below = self.gammas
        gamma = above if above == below else np.where(r >= 0.0, above, below)
        return separated(self, span * (1.0 - r) ** (gamma - 1.0), span, r)
