"""Mean stress on strain: what it does to the life of a loop, one form a class.

In: strain amplitudes, largest and smallest stress of loops, MPa. Out: lives in cycles; 0 where the mean reaches the strength.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import ClassVar, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.materials.strain.two_powers import reversals
from vivid_anvil.writing.working import Step, put_in

STRAIN_MEANS: Choices[type[StrainMean]] = Choices("mean stress on strain")


class MeanSteps(NamedTuple):
    """A loop that is worked by hand: its strain amplitude, -, stresses, MPa, what the form needs, its life, cycles.

    `shown` turns MPa into what is shown, in `unit`.
    """

    curve: StrainLife
    amplitude: float
    high: float
    low: float
    value: float
    life: float
    shown: Callable[[float], float]
    unit: str

    def stress(self, value: float) -> str:
        """A stress as it is put into a formula, with its unit."""
        return f"{put_in(self.shown(value))} {self.unit}"

    def ratio(self, value: float) -> str:
        """A stress over Young's modulus, as it is put in."""
        return f"{self.stress(value)} / {self.stress(self.curve.youngs_modulus)}"

    def mean(self) -> Step:
        """The mean stress of the loop."""
        value = self.shown(0.5 * (self.high + self.low))
        numbers = f"({self.stress(self.high)} + {self.stress(self.low)}) / 2"
        return Step("Mean stress of the loop", "σ_m = (σ_max + σ_min) / 2", numbers, value, self.unit)

    def closing(self, formula: str, parts: tuple[tuple[str, float], tuple[str, float]], result: Result) -> list[Step]:
        """The form at the life that solves it, both parts as factor and power of 2N put in; the life."""
        twice = put_in(2.0 * self.life)
        numbers = " + ".join(f"{factor} × {twice}^{put_in(power)}" for factor, power in parts)
        return [
            Step(f"The curve at the life that solves it, 2N = {twice}", formula, numbers, *result),
            Step("Life at this loop", "N = 2N / 2", f"{twice} / 2", self.life, "cycles"),
        ]


Result = tuple[float, str, str]  # value, unit, source


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
    @abstractmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """From strain amplitude and stresses of a loop to its life by hand."""

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

    @classmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """Both parts of the curve."""
        own = at.curve
        b, c = own.fatigue_strength_exponent, own.fatigue_ductility_exponent
        parts = ((at.ratio(own.fatigue_strength_coefficient), b), (put_in(own.fatigue_ductility_coefficient), c))
        return at.closing("ε_a = σ_f' / E × (2N)^b + ε_f' × (2N)^c", parts, (at.amplitude, "", cls.source))


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

    @classmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """The mean, and the curve with the strength that it leaves."""
        own, mean = at.curve, at.mean()
        strength, modulus = at.stress(own.fatigue_strength_coefficient), at.stress(own.youngs_modulus)
        first = f"({strength} - {put_in(mean.value)} {at.unit}) / {modulus}"
        parts = (
            (first, own.fatigue_strength_exponent),
            (put_in(own.fatigue_ductility_coefficient), own.fatigue_ductility_exponent),
        )
        formula = "ε_a = (σ_f' - σ_m) / E × (2N)^b + ε_f' × (2N)^c"
        return [mean, *at.closing(formula, parts, (at.amplitude, "", cls.source))]


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

    @classmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """The mean, what it leaves, and the curve with both parts lowered."""
        own, mean = at.curve, at.mean()
        b, c = own.fatigue_strength_exponent, own.fatigue_ductility_exponent
        strength, left = (
            own.fatigue_strength_coefficient,
            1.0 - 0.5 * (at.high + at.low) / own.fatigue_strength_coefficient,
        )
        numbers = f"({at.stress(strength)} - {put_in(mean.value)} {at.unit}) / {at.stress(strength)}"
        q = put_in(left)
        parts = (
            (f"{at.ratio(strength)} × {q}", b),
            (f"{put_in(own.fatigue_ductility_coefficient)} × {q}^({put_in(c)} / {put_in(b)})", c),
        )
        formula = "ε_a = σ_f' / E × q × (2N)^b + ε_f' × q^(c / b) × (2N)^c"
        return [
            mean,
            Step("Strength that the mean leaves", "q = (σ_f' - σ_m) / σ_f'", numbers, left, ""),
            *at.closing(formula, parts, (at.amplitude, "", cls.source)),
        ]


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

    @classmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """The product, and its curve."""
        own = at.curve
        b, c = own.fatigue_strength_exponent, own.fatigue_ductility_exponent
        strength = at.stress(own.fatigue_strength_coefficient)
        value = at.shown(at.high * at.amplitude)
        parts = (
            (f"{strength}^2 / {at.stress(own.youngs_modulus)}", 2.0 * b),
            (f"{strength} × {put_in(own.fatigue_ductility_coefficient)}", b + c),
        )
        formula = "P = σ_f'^2 / E × (2N)^(2 b) + σ_f' × ε_f' × (2N)^(b + c)"
        numbers = f"{at.stress(at.high)} × {put_in(at.amplitude)}"
        return [
            Step("Damage parameter", "P = σ_max × ε_a", numbers, value, at.unit, cls.source),
            *at.closing(formula, parts, (value, at.unit, cls.source)),
        ]


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
        """Life of each loop, cycles; inf where the largest stress is not tensile, or does not change."""
        largest, smallest = (np.asarray(one, dtype=np.float64) for one in (high, low))
        tensile = largest > 0.0
        ratio = np.where(tensile, smallest / np.where(tensile, largest, 1.0), -1.0)
        moves = tensile & (ratio < 1.0)
        factor = np.where(moves, 0.5 * (1.0 - ratio), 1.0) ** (1.0 - value)
        found = 0.5 * curve.reversals_at(np.asarray(amplitude)) * factor ** (-1.0 / curve.fatigue_strength_exponent)
        return np.where(moves, found, np.inf)

    @classmethod
    def steps(cls, at: MeanSteps) -> list[Step]:
        """R, what it leaves, and the curve with both parts moved."""
        own = at.curve
        b, c = own.fatigue_strength_exponent, own.fatigue_ductility_exponent
        ratio = at.low / at.high
        left = (0.5 * (1.0 - ratio)) ** (1.0 - at.value)
        q = put_in(left)
        parts = (
            (f"{at.ratio(own.fatigue_strength_coefficient)} × {q}", b),
            (f"{put_in(own.fatigue_ductility_coefficient)} × {q}^({put_in(c)} / {put_in(b)})", c),
        )
        formula = "ε_a = σ_f' / E × q × (2N)^b + ε_f' × q^(c / b) × (2N)^c"
        return [
            Step("R of the loop", "R = σ_min / σ_max", f"{at.stress(at.low)} / {at.stress(at.high)}", ratio, ""),
            Step(
                "Walker's factor",
                "q = ((1 - R) / 2)^(1 - γ)",
                f"((1 - {put_in(ratio)}) / 2)^(1 - {put_in(at.value)})",
                left,
                "",
            ),
            *at.closing(formula, parts, (at.amplitude, "", cls.source)),
        ]
