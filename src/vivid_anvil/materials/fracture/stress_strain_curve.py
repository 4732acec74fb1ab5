"""The curve of one's own metal, from its true stress and strain."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, Self

import numpy as np

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.assessment_curve import ASSESSMENT_CURVES, WHERE, AssessmentCurve, strain_points
from vivid_anvil.units import coherent, sound
from vivid_anvil.writing.working import put_in


@sound
@ASSESSMENT_CURVES.add("stress-strain")
@dataclass(frozen=True, kw_only=True, eq=False)
class StressStrainCurve(AssessmentCurve):
    """(E ε / (L_r σ_y) + L_r³ σ_y / (2 E ε))^-1/2, ε the true strain at the true stress L_r σ_y.

    Elastic up to the first point, straight between points.

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
    stress_strain : sequence of rows
        True stress, MPa or text with its unit, and true strain, -, ascending.
    measured_as : str, default "true"
        What the rows are: "true", or "engineering" up to the ultimate strength, which are then made true ones.

    Raises
    ------
    InputError
        For rows that do not ascend, strains without their elastic part, and rows that end before the cut-off.

    Examples
    --------
    >>> rows = [[280, 0.0013527], [320, 0.0021], [355, 0.00372], [380, 0.0085], [420, 0.021], [470, 0.05], [540, 0.12]]
    >>> curve = StressStrainCurve(yield_strength="355 MPa", ultimate_strength="510 MPa", stress_strain=rows)
    >>> curve.at([0.4, 1.0, 1.2]).round(4)
    array([0.9623, 0.6455, 0.2892])
    """

    stress_strain: Sequence[Any]
    measured_as: str = "true"
    formula: ClassVar[str] = "f = (E × ε / (L_r × σ_y) + L_r^3 × σ_y / (2 × E × ε))^(-1/2)"
    source: ClassVar[str] = "BS 7910:2013, option 2; R6, option 2"

    def __post_init__(self) -> None:
        super().__post_init__()
        where = inside(WHERE, "stress_strain")
        rows: Any = self.stress_strain
        if isinstance(rows, Sequence) and not isinstance(rows, str):
            rows = [self._row(row, inside(where, f"row {i}")) for i, row in enumerate(rows, 1)]
        if self.measured_as == "engineering":
            rows = [(s * (1.0 + e), math.log1p(e)) for s, e in rows]
        elif self.measured_as != "true":
            raise InputError(inside(WHERE, "measured_as"), repr(self.measured_as), "'true' or 'engineering'")
        points = strain_points(rows, self.youngs_modulus, where)
        end = self.largest_load_ratio * self.yield_strength
        if points[-1, 0] < end * (1.0 - 1e-9):
            raise InputError(
                where,
                f"points to {points[-1, 0]:.4g} MPa",
                f"points to {end:.4g} MPa, where the curve is cut off",
                "Add points, or state a lower cut_off; nothing is extrapolated.",
            )
        object.__setattr__(self, "stress_strain", tuple((float(s), float(e)) for s, e in points))
        object.__setattr__(self, "measured_as", "true")

    @staticmethod
    def _row(row: Any, where: str) -> tuple[float, float]:
        if isinstance(row, str) or not hasattr(row, "__len__") or len(row) != 2:
            raise InputError(where, repr(row), "a stress and a strain")
        return coherent(row[0], "stress", where), coherent(row[1], "strain", where)

    @property
    def kinks(self) -> tuple[float, ...]:
        """At its points."""
        ratios = [stress / self.yield_strength for stress, _ in self.stress_strain]
        return tuple(one for one in ratios if one < self.largest_load_ratio)

    def strain(self, stress: float) -> float:
        """True strain at a true stress, MPa."""
        first = self.stress_strain[0][0]
        if stress <= first:
            low = stress / self.youngs_modulus
            return low if stress < first else float(self.stress_strain[0][1])
        stresses, strains = zip(*self.stress_strain, strict=True)
        return float(np.interp(stress, stresses, strains))

    def height(self, load_ratio: float) -> float:
        """By the formula; 1 at rest."""
        if load_ratio == 0.0:
            return 1.0
        x = self.youngs_modulus * self.strain(load_ratio * self.yield_strength) / (load_ratio * self.yield_strength)
        return 1.0 / math.sqrt(x + 0.5 * load_ratio**2 / x)

    def weaker(self, factor: float) -> Self:
        """Plastic strains at stresses divided by `factor`; elastic ones by the same stiffness."""
        e = self.youngs_modulus
        rows = [(s / factor, strain - s / e + s / factor / e) for s, strain in self.stress_strain]
        return dataclasses.replace(
            self,
            yield_strength=self.yield_strength / factor,
            ultimate_strength=self.ultimate_strength / factor,
            stress_strain=rows,
        )

    def numbers(self, load_ratio: float) -> str:
        """With the strain of the points."""
        if load_ratio == 0.0:
            return "1 at rest"
        e, s = put_in(self.youngs_modulus), put_in(self.yield_strength)
        strain, x = put_in(self.strain(load_ratio * self.yield_strength)), put_in(load_ratio)
        return f"({e} × {strain} / ({x} × {s}) + {x}^3 × {s} / (2 × {e} × {strain}))^(-1/2)"
