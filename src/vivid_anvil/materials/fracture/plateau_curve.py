"""The curve of a steel with a yield plateau: it drops at L_r = 1."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from typing import ClassVar, Self

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.assessment_curve import (
    ASSESSMENT_CURVES,
    WHERE,
    AssessmentCurve,
    power_beyond_yield,
)
from vivid_anvil.units import OptionalCoherent
from vivid_anvil.writing.working import put_in

STRONGEST = 1000.0  # MPa, where the plateau has come to nothing


@ASSESSMENT_CURVES.add("yield plateau")
@dataclass(frozen=True, kw_only=True)
class PlateauCurve(AssessmentCurve):
    """(1 + L_r²/2)^-1/2 below 1; (λ + 1/(2λ))^-1/2 at 1, λ = 1 + E Δε / σ_y; above it times L_r^((N-1)/(2N)).

    Parameters
    ----------
    yield_strength : float or text with a unit
        Yield strength, MPa; below 1000 MPa where the plateau is estimated.
    ultimate_strength : float or text with a unit
        Tensile strength, MPa.
    youngs_modulus : float or text with a unit, default 207000.0
        Modulus of elasticity, MPa.
    cut_off : float, optional
        Load ratio beyond which nothing is allowed, -; by default that of the flow stress.
    plateau_strain : float or text with a unit, optional
        Length of the plateau, -; by default 0.0375 (1 - σ_y / 1000 MPa).

    Raises
    ------
    InputError
        For a yield strength above the ultimate one, or one without estimate of the plateau.

    Examples
    --------
    >>> PlateauCurve(yield_strength="355 MPa", ultimate_strength="510 MPa").at([0.3, 0.999, 1.0]).round(4)
    array([0.9782, 0.8168, 0.257 ])
    """

    plateau_strain: OptionalCoherent = OptionalCoherent("strain", above=0.0, below=0.2)
    formula: ClassVar[str] = (
        "f = (1 + L_r^2 / 2)^(-1/2) below 1, (λ + 1/(2 × λ))^(-1/2) at 1, above f(1) × L_r^((N - 1)/(2 × N))"
    )
    source: ClassVar[str] = "BS 7910:2013, option 1, discontinuous yielding; SINTAP 1999"

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.plateau_strain is None and self.yield_strength >= STRONGEST:
            found = f"{self.yield_strength:g} MPa"
            raise InputError(inside(WHERE, "yield_strength"), found, "below 1000 MPa", "Or state plateau_strain.")

    @property
    def plateau(self) -> float:
        """Δε, -."""
        stated = self.plateau_strain
        return float(0.0375 * (1.0 - self.yield_strength / STRONGEST) if stated is None else stated)

    @property
    def strain_ratio(self) -> float:
        """λ = 1 + E Δε / σ_y."""
        return float(1.0 + self.youngs_modulus * self.plateau / self.yield_strength)

    def weaker(self, factor: float) -> Self:
        """Strengths divided by `factor`, the plateau as long as it is."""
        return dataclasses.replace(
            self,
            yield_strength=self.yield_strength / factor,
            ultimate_strength=self.ultimate_strength / factor,
            plateau_strain=self.plateau,
        )

    def height(self, load_ratio: float) -> float:
        """By the formula; at exactly 1 the lower value."""
        if load_ratio < 1.0:
            return float(1.0 / math.sqrt(1.0 + 0.5 * load_ratio**2))
        own = 1.0 / math.sqrt(self.strain_ratio + 0.5 / self.strain_ratio)
        return own if load_ratio == 1.0 else power_beyond_yield(own, load_ratio, self.hardening)

    def numbers(self, load_ratio: float) -> str:
        """With λ, or N."""
        x = put_in(load_ratio)
        if load_ratio < 1.0:
            return f"(1 + {x}^2 / 2)^(-1/2)"
        at_one = f"({put_in(self.strain_ratio)} + 1/(2 × {put_in(self.strain_ratio)}))^(-1/2)"
        n = put_in(self.hardening)
        return at_one if load_ratio == 1.0 else f"{at_one} × {x}^(({n} - 1)/(2 × {n}))"
