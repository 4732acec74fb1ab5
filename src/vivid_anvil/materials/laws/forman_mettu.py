"""A power law with closure, threshold and toughness."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, cast

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.materials.laws.newman import Opening, opening
from vivid_anvil.materials.thresholds import Threshold
from vivid_anvil.units import Coherent, GrowthRate
from vivid_anvil.writing.working import Step, put_in

NO_CLOSURE = Opening(0.0, 0.0, 0.0, 0.0)


@LAWS.add("forman-mettu")
@dataclass(frozen=True, kw_only=True, repr=False)
class FormanMettuLaw(GrowthLaw):
    """da/dN = C ((1 - f) / (1 - R) ΔK)^m (1 - ΔK_th / ΔK)^p / (1 - K_max / K_c)^q (Forman and Mettu 1992).

    f is the opening share of Newman 1984 for `closure_alpha` (0 takes closure off) and `closure_peak`; `toughness` is K_c.
    `threshold` is that of a long crack at R = 0; it falls for cracks not much longer than `intrinsic_length`, mm, and over R with
    `threshold_plus` and `threshold_minus`.

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
    p : float
        Exponent at the threshold, -.
    q : float
        Exponent at the toughness, -.
    closure_alpha : float
        Constraint of the closure, from 1 (plane stress) to 3, -.
    closure_peak : float, default 0.3
        Largest stress over flow stress in the closure, -.
    intrinsic_length : float or text with a unit, default 0.0
        Length below which cracks have a lower threshold, mm.
    threshold_plus : float, default 0.0
        Constant of the threshold over R, above 0, -.
    threshold_minus : float, default 0.0
        The same below 0, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = FormanMettuLaw(name="f", rate=2e-13, slope=3.0, toughness=2500.0, p=0.0, q=0.5, closure_alpha=2.0)
    >>> f"{float(law.growth(500.0, 0.1)):.4g}"
    '1.107e-05'
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    toughness: Coherent = Coherent("stress intensity", above=0.0)
    p: Coherent = Coherent("number")
    q: Coherent = Coherent("number")
    closure_alpha: Coherent = Coherent("number")
    closure_peak: Coherent = Coherent("number", default=0.3)
    intrinsic_length: Coherent = Coherent("length", at_least=0.0, default=0.0)
    threshold_plus: Coherent = Coherent("number", default=0.0)
    threshold_minus: Coherent = Coherent("number", default=0.0)
    formula: ClassVar[str] = "da/dN = C × ((1 - f) / (1 - R) × ΔK)^m × (1 - ΔK_th / ΔK)^p / (1 - K_max / K_c)^q"
    holds: ClassVar[str] = "any R; closure f by Newman; closure_alpha = 0 takes it off"
    method: ClassVar[str] = "Forman and Mettu 1992, ASTM STP 1131; Newman 1984, Int. J. Fract. 24"

    def check(self, where: str) -> None:
        """InputError for a threshold with an R of its own: the form has one."""
        given = cast(Threshold, self.threshold)
        if given.depends_on_r or given.depends_on_size:
            expected = "a range of stress intensity: the form has its own dependence on R"
            raise InputError(inside(where, "threshold"), "a threshold with an R of its own", expected)

    @cached_property
    def opens(self) -> Opening | None:
        """Closure; None where it is off."""
        return opening(self.closure_alpha, self.closure_peak) if self.closure_alpha > 0.0 else None

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, K_c, p, q, whether it closes, a_0 to a_3."""
        closes = 0.0 if self.opens is None else 1.0
        return (self.constant, self.slope, self.toughness, self.p, self.q, closes, *(self.opens or NO_CLOSURE))

    @property
    def fracture_toughness(self) -> float | None:
        """K_c, MPa√mm."""
        return self.toughness

    @cached_property
    def limit(self) -> Threshold:
        """The threshold over R and size."""
        return ShortCrackThreshold(
            range=cast(Threshold, self.threshold).least_of_all,
            length=self.intrinsic_length,
            plus=self.threshold_plus,
            minus=self.threshold_minus,
            opens=self.opens,
        )

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        if (1.0 - r) * p[2] - dk <= 0.0:
            return math.inf
        f = r
        if p[5] > 0.0:
            f = max(r, p[6] + p[7] * r + p[8] * r * r + p[9] * r * r * r) if r >= 0.0 else p[6] + p[7] * max(r, -2.0)
        open_part = (1.0 - f) / (1.0 - r)
        peak_share = dk / ((1.0 - r) * p[2])
        above = (1.0 - threshold / dk) ** p[3]
        return p[0] * (open_part * dk) ** p[1] * above / (1.0 - peak_share) ** p[4]  # type: ignore[no-any-return]

    def more_steps(self, r: float) -> tuple[Step, ...]:
        """The opening share."""
        if self.opens is None:
            return ()
        f = self.opens.at(r)
        return (Step("Opening over maximum stress", "f = f(R, α, S_max / σ_0)", put_in(f), f, "", "Newman 1984"),)

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        f = r if self.opens is None else self.opens.at(r)
        k, m, p, q = put_in(dk), put_in(self.slope), put_in(self.p), put_in(self.q)
        opened = f"((1 - {put_in(f)}) / (1 - {put_in(r)}) × {k})^{m}"
        above = f"(1 - {put_in(threshold)} / {k})^{p}"
        peak = f"{k} / ((1 - {put_in(r)}) × {put_in(self.toughness)})"
        return f"{put_in(self.constant)} × {opened} × {above} / (1 - {peak})^{q}"


@dataclass(frozen=True, kw_only=True)
class ShortCrackThreshold(Threshold):
    """ΔK_0 √(a / (a + a_0)) / ((1 - f) / ((1 - f_0) (1 - R)))^(1 + C R): over size and R, with closure f (Forman and Mettu)."""

    range: float
    length: float
    plus: float
    minus: float
    opens: Opening | None
    formula: ClassVar[str] = "ΔK_th = ΔK_0 × √(a / (a + a_0)) / ((1 - f) / ((1 - f(0)) × (1 - R)))^(1 + C_th × R)"
    method: ClassVar[str] = "Forman and Mettu 1992"
    kind: ClassVar[str] = "closure and size"
    depends_on_size: ClassVar[bool] = True

    @property
    def row(self) -> tuple[float, ...]:
        """Range, length, both constants over R, whether it closes, a_0 to a_3."""
        closes = 0.0 if self.opens is None else 1.0
        return (self.range, self.length, self.plus, self.minus, closes, *(self.opens or NO_CLOSURE))

    def numbers_in(self, r: float, a: float) -> str:
        """The formula with R and size put in."""
        long = f"{put_in(self.range)} × √({put_in(a)} / ({put_in(a)} + {put_in(self.length)}))"
        if self.opens is None:
            return long
        f, at_0, c = put_in(self.opens.at(r)), put_in(self.opens.at(0.0)), self.plus if r >= 0.0 else self.minus
        closure = f"((1 - {f}) / ((1 - {at_0}) × (1 - {put_in(r)})))"
        return f"{long} / {closure}^(1 + {put_in(c)} × {put_in(r)})"

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        """The threshold at R and size."""
        long = p[0] * math.sqrt(a / (a + p[1]))
        if p[4] == 0.0:
            return long  # type: ignore[no-any-return]
        f = max(r, p[5] + p[6] * r + p[7] * r * r + p[8] * r * r * r) if r >= 0.0 else p[5] + p[6] * max(r, -2.0)
        power = 1.0 + (p[2] if r >= 0.0 else p[3]) * r
        return long / ((1.0 - f) / ((1.0 - p[5]) * (1.0 - r))) ** power  # type: ignore[no-any-return]
