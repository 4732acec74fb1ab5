"""The general curve, for continuous yielding."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from vivid_anvil.materials.fracture.assessment_curve import ASSESSMENT_CURVES, AssessmentCurve
from vivid_anvil.shapes.solutions.collapse import general_height
from vivid_anvil.writing.working import put_in


@ASSESSMENT_CURVES.add("general")
@dataclass(frozen=True, kw_only=True)
class GeneralCurve(AssessmentCurve):
    """(1 + L_r²/2)^-1/2 (0.3 + 0.7 e^(-μ L_r⁶)), μ = min(0.001 E/σ_y, 0.6); above 1 its value there times L_r^((N-1)/(2N)).

    Parameters
    ----------
    yield_strength : float or text with a unit
        Yield strength or 0.2 % proof strength, MPa.
    ultimate_strength : float or text with a unit
        Tensile strength, MPa.
    youngs_modulus : float or text with a unit, default 207000.0
        Modulus of elasticity, MPa.
    cut_off : float, optional
        Load ratio beyond which nothing is allowed, -; by default that of the flow stress.

    Raises
    ------
    InputError
        For a yield strength above the ultimate one.

    Examples
    --------
    >>> GeneralCurve(yield_strength="355 MPa", ultimate_strength="510 MPa").at([0.3, 1.0, 1.3]).round(4)
    array([0.9779, 0.564 , 0.    ])
    """

    formula: ClassVar[str] = (
        "f = (1 + L_r^2 / 2)^(-1/2) × (0.3 + 0.7 × e^(-μ × L_r^6)); above 1 f(1) × L_r^((N - 1)/(2 × N))"
    )
    source: ClassVar[str] = "BS 7910:2013, option 1; R6, option 1"

    @property
    def mu(self) -> float:
        """μ = min(0.001 E / σ_y, 0.6)."""
        return float(min(0.001 * self.youngs_modulus / self.yield_strength, 0.6))

    def height(self, load_ratio: float) -> float:
        """By the formula."""
        return general_height(load_ratio, self.yield_strength, self.ultimate_strength, self.youngs_modulus)

    def numbers(self, load_ratio: float) -> str:
        """With μ, or N."""
        x = put_in(load_ratio)
        if load_ratio <= 1.0:
            return f"(1 + {x}^2 / 2)^(-1/2) × (0.3 + 0.7 × e^(-{put_in(self.mu)} × {x}^6))"
        n = put_in(self.hardening)
        return f"{put_in(self.height(1.0))} × {x}^(({n} - 1)/(2 × {n}))"
