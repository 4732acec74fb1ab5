"""The rule of the mean-stress sensitivity, in four regions of R."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, mean_ratio, numbers_of
from vivid_anvil.materials.mean_stress.sensitivity import estimated_sensitivity

# The four regions of the sensitivity rule: up to which mean / amplitude, at which R, formula, numbers; and the same at R.
REGIONS = (
    (-1.0, "R > 1", "S_a × (1 - M)", "{a} × (1 - {v})", "S_ar / (1 - M)", "{a} / (1 - {v})"),
    (1.0, "R <= 0", "S_a + M × S_m", "{a} + {v} × {m}", "S_ar / (1 + M × k)", "{a} / (1 + {v} × {k})"),
    (
        3.0,
        "0 < R < 0.5",
        "(1 + M) × (S_a + M / 3 × S_m) / (1 + M / 3)",
        "(1 + {v}) × ({a} + {v} / 3 × {m}) / (1 + {v} / 3)",
        "S_ar × (1 + M / 3) / ((1 + M) × (1 + M / 3 × k))",
        "{a} × (1 + {v} / 3) / ((1 + {v}) × (1 + {v} / 3 × {k}))",
    ),
    (
        float("inf"),
        "R >= 0.5",
        "3 × S_a × (1 + M)^2 / (3 + M)",
        "3 × {a} × (1 + {v})^2 / (3 + {v})",
        "S_ar × (3 + M) / (3 × (1 + M)^2)",
        "{a} × (3 + {v}) / (3 × (1 + {v})^2)",
    ),
)


@MEAN_STRESS_RULES.add("sensitivity")
class Sensitivity(MeanStressRule):
    """S_ar by the mean-stress sensitivity M (FKM guideline, 4.4.2; Schütz, W. 1967, Z. Flugwiss. 15, 407-419)."""

    needs: ClassVar[str | None] = "mean_stress_sensitivity"
    validity: ClassVar[str] = (
        "four regions of R, flat for R > 1 and R >= 0.5; machined and cast parts of steel, iron and aluminium"
    )
    source: ClassVar[str] = "FKM guideline, 4.4.2; Schütz 1967"
    formula: ClassVar[str] = "S_ar = S_a × f(S_m / S_a, M), four regions of R"

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """S_ar by the mean-stress sensitivity M (Schütz, W. 1967, Z. Flugwiss. 15, 407-419) in four regions of R.

        R > 1: S_a (1 - M); R <= 0: S_a + M S_m; 0 < R < 0.5: (1 + M) (S_a + M/3 S_m) / (1 + M/3);
        R >= 0.5: 3 S_a (1 + M)² / (3 + M)
        (FKM guideline, Analytical strength assessment of components, 4.4.2).

        >>> Sensitivity.to_reversed([120.0, 120.0, 120.0], [-200.0, 60.0, 500.0], 0.145).round(3)
        array([102.6 , 128.7 , 150.07])
        """
        size, middle = np.broadcast_arrays(*numbers_of(amplitude, mean))
        m = value
        found = size + m * middle  # R <= 0
        found = np.where(middle < -size, size * (1.0 - m), found)
        found = np.where(middle > size, (1.0 + m) * (size + m / 3.0 * middle) / (1.0 + m / 3.0), found)
        return np.where(middle >= 3.0 * size, 3.0 * size * (1.0 + m) ** 2 / (3.0 + m), found)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same at an R: in each region the reversed amplitude is a constant times the amplitude.

        >>> round(float(Sensitivity.at_r(102.6, 5.0, 0.145)), 6)
        120.0
        """
        (size,) = numbers_of(reversed_amplitude)
        ratio = -np.inf if r_ratio > 1.0 else mean_ratio(r_ratio)
        one = Sensitivity.to_reversed(1.0, max(ratio, -2.0), value)
        return size / float(one)

    @classmethod
    def value_of(cls, material: Material, where: str) -> float:
        """M of the material, or estimated from its group and strength."""
        if material.mean_stress_sensitivity is None and material.group is not None:
            purpose = f"the mean-stress rule {cls.kind} of {where}"
            return estimated_sensitivity(material.group, material.needed("ultimate_strength", purpose))
        return super().value_of(material, where)

    @classmethod
    def formulas(cls, amplitude: float, mean: float) -> tuple[str, str]:
        """Those of the region of the cycle."""
        place = mean / amplitude if amplitude else 0.0
        region = next(one for one in REGIONS if place < one[0] or (one[0] == 1.0 and place <= 1.0))
        return f"S_ar = {region[2]}, {region[1]}", region[3]

    @classmethod
    def formulas_at(cls, r_ratio: float) -> tuple[str, str]:
        """Those of the region of R."""
        region = next(one for one in REGIONS if mean_ratio(r_ratio) < one[0] or (one[0] == 1.0 and r_ratio <= 0.0))
        return f"S_aR = {region[4]}, {region[1]}, k = (1 + R) / (1 - R)", region[5]
