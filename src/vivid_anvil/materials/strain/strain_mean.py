"""Mean stress on strain: what it does to the life of a loop, one form a class.

In: strain amplitudes, largest and smallest stress of loops, MPa. Out: lives in cycles; 0 where the mean reaches the strength.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.materials.strain.two_powers import reversals

STRAIN_MEANS: Choices[type[StrainMean]] = Choices("mean stress on strain")


class StrainMean(ABC):
    """A form; it has no values of its own, so the class itself is used. `value` is what it needs of the material, else nan."""

    kind: ClassVar[str]
    needs: ClassVar[str | None] = None
    formula: ClassVar[str]
    source: ClassVar[str]
    suits: ClassVar[str]

    @classmethod
    @abstractmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life in cycles of each loop."""

    @classmethod
    def value_of(cls, material: Material, where: str) -> float:
        """What it needs of the material; nan where it needs nothing. InputError where that is missing."""
        if cls.needs is None:
            return float("nan")
        return material.needed(cls.needs, f"the mean-stress form {cls.kind} of {where}")


def _left(curve: StrainLife, high: FloatArray, low: FloatArray) -> FloatArray:
    """(σ_f' - σ_m) / σ_f', 0 where the mean reaches the strength."""
    mean = 0.5 * (np.asarray(high) + np.asarray(low))
    return np.maximum(1.0 - mean / curve.fatigue_strength_coefficient, 0.0)


@STRAIN_MEANS.add("none")
class NoStrainMean(StrainMean):
    """The curve as it is."""

    formula: ClassVar[str] = "ε_a = σ_f'/E (2N)^b + ε_f' (2N)^c"
    source: ClassVar[str] = "Morrow 1965"
    suits: ClassVar[str] = "fully reversed strains, large plastic strains whose mean stress relaxes"

    @classmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life of each loop, cycles."""
        return np.asarray(0.5 * curve.reversals_at(np.asarray(amplitude)))


@STRAIN_MEANS.add("morrow")
class MorrowOnStrain(StrainMean):
    """The mean stress lowers the strength in the elastic term alone."""

    formula: ClassVar[str] = "ε_a = (σ_f' - σ_m)/E (2N)^b + ε_f' (2N)^c"
    source: ClassVar[str] = "Morrow 1968"
    suits: ClassVar[str] = "steels, long lives; the effect of a mean dies out where plastic strains are large"

    @classmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life of each loop, cycles."""
        left = _left(curve, high, low)
        found = 0.5 * curve.reversals_at(np.asarray(amplitude), elastic=left)
        return np.where(left > 0.0, found, 0.0)


@STRAIN_MEANS.add("manson-halford")
class MansonHalford(StrainMean):
    """Morrow's form modified: the ratio of elastic to plastic strain does not depend on the mean."""

    formula: ClassVar[str] = "ε_a = (σ_f' - σ_m)/E (2N)^b + ε_f' ((σ_f' - σ_m)/σ_f')^(c/b) (2N)^c"
    source: ClassVar[str] = "Manson and Halford 1981"
    suits: ClassVar[str] = "steels; may be too hard on short lives with a tensile mean"

    @classmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life of each loop, cycles."""
        left = _left(curve, high, low)
        power = curve.fatigue_ductility_exponent / curve.fatigue_strength_exponent
        found = 0.5 * curve.reversals_at(np.asarray(amplitude), elastic=left, plastic=left**power)
        return np.where(left > 0.0, found, 0.0)


@STRAIN_MEANS.add("smith-watson-topper")
class SmithWatsonTopperOnStrain(StrainMean):
    """The product of largest stress and strain amplitude."""

    formula: ClassVar[str] = "σ_max ε_a = σ_f'^2/E (2N)^(2b) + σ_f' ε_f' (2N)^(b + c)"
    source: ClassVar[str] = "Smith, Watson and Topper 1970"
    suits: ClassVar[str] = "aluminium and cast iron, steels too; loops whose largest stress is compressive do no damage"

    @classmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life of each loop, cycles."""
        product = np.maximum(np.asarray(high), 0.0) * np.asarray(amplitude)
        strength, b = curve.fatigue_strength_coefficient, curve.fatigue_strength_exponent
        found = reversals(
            np.asarray(strength**2 / curve.youngs_modulus),
            2.0 * b,
            np.asarray(strength * curve.fatigue_ductility_coefficient),
            b + curve.fatigue_ductility_exponent,
            product,
        )
        return np.asarray(0.5 * found)


@STRAIN_MEANS.add("walker")
class WalkerOnStrain(StrainMean):
    """q = ((1 - R)/2)^(1 - γ) on strength and, to the power c/b, on ductility; R that of the loop's stresses."""

    needs: ClassVar[str | None] = "walker_exponent"
    formula: ClassVar[str] = "ε_a = σ_f'/E q (2N)^b + ε_f' q^(c/b) (2N)^c, q = ((1 - R)/2)^(1 - γ)"
    source: ClassVar[str] = "Walker 1970; Dowling 2009"
    suits: ClassVar[str] = "all metals whose γ is known"

    @classmethod
    def life(
        cls, curve: StrainLife, amplitude: FloatArray, high: FloatArray, low: FloatArray, value: float
    ) -> FloatArray:
        """Life of each loop, cycles; inf where the largest stress is not tensile."""
        largest, smallest = (np.asarray(one, dtype=np.float64) for one in (high, low))
        tensile = largest > 0.0
        ratio = np.where(tensile, smallest / np.where(tensile, largest, 1.0), -1.0)
        factor = (0.5 * (1.0 - ratio)) ** (1.0 - value)
        found = 0.5 * curve.reversals_at(np.asarray(amplitude)) * factor ** (-1.0 / curve.fatigue_strength_exponent)
        return np.where(tensile, found, np.inf)
