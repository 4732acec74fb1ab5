"""The older curve without a material in it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

from vivid_anvil.materials.fracture.assessment_curve import ASSESSMENT_CURVES, AssessmentCurve
from vivid_anvil.writing.working import put_in


@ASSESSMENT_CURVES.add("older")
@dataclass(frozen=True, kw_only=True)
class OlderCurve(AssessmentCurve):
    """(1 - 0.14 L_r²) (0.3 + 0.7 e^(-0.65 L_r⁶)), as in reports of earlier editions.

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
    >>> OlderCurve(yield_strength="355 MPa", ultimate_strength="510 MPa").at([0.3, 1.0, 1.3]).round(4)
    array([0.9871, 0.5723, 0.    ])
    """

    formula: ClassVar[str] = "f = (1 - 0.14 × L_r^2) × (0.3 + 0.7 × e^(-0.65 × L_r^6))"
    source: ClassVar[str] = "BS 7910:1999, level 2A; R6 revision 3, option 1"

    @property
    def kinks(self) -> tuple[float, ...]:
        """None."""
        return ()

    def height(self, load_ratio: float) -> float:
        """By the formula."""
        return (1.0 - 0.14 * load_ratio**2) * (0.3 + 0.7 * math.exp(-0.65 * load_ratio**6))

    def numbers(self, load_ratio: float) -> str:
        """With L_r put in."""
        x = put_in(load_ratio)
        return f"(1 - 0.14 × {x}^2) × (0.3 + 0.7 × e^(-0.65 × {x}^6))"
