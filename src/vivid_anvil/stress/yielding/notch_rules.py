"""From the stress at a notch as elasticity gives it to stress and strain where the metal yields.

The rules have one form: σ²/E + q σ ε_p(σ) = V, with ε_p the plastic strain of the cyclic curve and V from the elastic stress.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import ClassVar, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.writing.working import put_in

NOTCH_RULES: Choices[type[NotchRule]] = Choices("notch rule")
ROUNDS = 60  # of Newton's method, which stops long before


Shown = Callable[[float], float]  # MPa as it is shown
Side = tuple[str, str, float]  # formula, numbers, value


class Sides(NamedTuple):
    """A side of what is given and one of what is found; `of` what they are, "stress" or "number"."""

    given: Side
    found: Side
    of: str


class NotchRule(ABC):
    """A rule; it has no values of its own, so the class itself is used.

    A drive is what the rule is given: the elastic notch stress, MPa, or a strain.
    """

    kind: ClassVar[str]
    formula: ClassVar[str]
    source: ClassVar[str]
    drive: ClassVar[str] = "stress"  # the dimension of what it is given

    @classmethod
    @abstractmethod
    def local(
        cls, curve: CyclicCurve, drive: ArrayLike, plastic_limit_ratio: float | None = None
    ) -> tuple[FloatArray, FloatArray]:
        """Stress, MPa, and strain, -, on the cyclic curve at drives of any sign."""

    @classmethod
    @abstractmethod
    def slope(
        cls, curve: CyclicCurve, drive: FloatArray, stress: FloatArray, plastic_limit_ratio: float | None = None
    ) -> FloatArray:
        """How fast the stress rises with the drive, at drives of 0 or more where the stress is known."""

    @classmethod
    @abstractmethod
    def sides(
        cls, curve: CyclicCurve, drive: float, stress: float, plastic_limit_ratio: float | None, shown: Shown
    ) -> Sides:
        """Both sides of the rule at an elastic stress, MPa, of 0 or more, with the stress that solves it, as they are worked."""


def stiffness(curve: CyclicCurve, stress: FloatArray) -> FloatArray:
    """How fast the strain rises with the stress, 1/MPa, at stresses of 0 or more."""
    with np.errstate(divide="ignore", invalid="ignore"):
        plastic = np.where(stress > 0.0, curve.plastic(stress) / (curve.cyclic_hardening_exponent * stress), 0.0)
    return np.asarray(1.0 / curve.youngs_modulus + plastic)


def _solved(curve: CyclicCurve, weight: float, value: FloatArray) -> FloatArray:
    """σ of σ²/E + weight σ ε_p(σ) = value: Newton's method from above, where the convex function is gone down."""
    modulus, exponent = curve.youngs_modulus, curve.cyclic_hardening_exponent
    coefficient = curve.cyclic_strength_coefficient
    power = 1.0 / exponent
    first = np.minimum(
        np.sqrt(value * modulus),
        (value / weight) ** (exponent / (1.0 + exponent)) * coefficient ** (1.0 / (1.0 + exponent)),
    )
    found = first
    for _ in range(ROUNDS):
        plastic = curve.plastic(found)
        over = found * found / modulus + weight * found * plastic - value
        slope = 2.0 * found / modulus + weight * (1.0 + power) * plastic
        with np.errstate(divide="ignore", invalid="ignore"):
            after = np.where(slope > 0.0, np.maximum(found - over / slope, 0.0), 0.0)
        done = np.abs(after - found) <= 1e-15 * first
        found = after
        if done.all():
            break
    return np.asarray(found)


class _WeightedRule(NotchRule):
    """The common form; `weight` is q."""

    @classmethod
    @abstractmethod
    def weight(cls, curve: CyclicCurve) -> float:
        """q of the plastic part."""

    @classmethod
    def local(
        cls, curve: CyclicCurve, drive: ArrayLike, plastic_limit_ratio: float | None = None
    ) -> tuple[FloatArray, FloatArray]:
        """Stress, MPa, and strain, -, on the cyclic curve; with the plastic limit ratio the section around yields too."""
        given = np.asarray(drive, dtype=np.float64)
        size, weight = np.abs(given), cls.weight(curve)
        value = size**2 / curve.youngs_modulus
        if plastic_limit_ratio is not None:
            ratio = _checked(plastic_limit_ratio)
            value = value + ratio * weight * size * curve.plastic(size / ratio)
        stress = _solved(curve, weight, value)
        strain = stress / curve.youngs_modulus + curve.plastic(stress)
        return np.asarray(np.sign(given) * stress), np.asarray(np.sign(given) * strain)

    @classmethod
    def slope(
        cls, curve: CyclicCurve, drive: FloatArray, stress: FloatArray, plastic_limit_ratio: float | None = None
    ) -> FloatArray:
        """From the form itself, both sides by the drive."""
        power, weight = 1.0 + 1.0 / curve.cyclic_hardening_exponent, cls.weight(curve)
        given = 2.0 * drive / curve.youngs_modulus
        if plastic_limit_ratio is not None:
            ratio = _checked(plastic_limit_ratio)
            given = given + ratio * weight * power * curve.plastic(drive / ratio)
        found = 2.0 * stress / curve.youngs_modulus + weight * power * curve.plastic(stress)
        return np.asarray(np.where(stress > 0.0, given / np.where(stress > 0.0, found, 1.0), 1.0))

    symbol: ClassVar[str]

    @classmethod
    def sides(
        cls, curve: CyclicCurve, drive: float, stress: float, plastic_limit_ratio: float | None, shown: Shown
    ) -> Sides:
        """S²/E of the elastic stress, with what the yielding section adds; σ²/E + q σ ε_p of the local one."""
        weight, n = cls.weight(curve), put_in(curve.cyclic_hardening_exponent)
        e, k, s, sigma = (
            put_in(shown(one)) for one in (curve.youngs_modulus, curve.cyclic_strength_coefficient, drive, stress)
        )
        q, before = cls.symbol, "" if cls.symbol == "" else f"{put_in(weight)} × "
        plastic = float(curve.plastic(np.asarray(stress)))
        right = shown(stress * stress / curve.youngs_modulus + weight * stress * plastic)
        found = (
            f"V = σ^2 / E + {q}σ × (σ / K')^(1 / n')",
            f"{sigma}^2 / {e} + {before}{sigma} × ({sigma} / {k})^(1 / {n})",
            right,
        )
        given = ("V = S_e^2 / E", f"{s}^2 / {e}", shown(drive * drive / curve.youngs_modulus))
        if plastic_limit_ratio is not None:
            p = put_in(plastic_limit_ratio)
            around = float(curve.plastic(np.asarray(drive / plastic_limit_ratio)))
            given = (
                f"V = S_e^2 / E + {q}p × S_e × (S_e / (p × K'))^(1 / n')",
                f"{s}^2 / {e} + {before}{p} × {s} × ({s} / ({p} × {k}))^(1 / {n})",
                given[2] + shown(plastic_limit_ratio * weight * drive * around),
            )
        return Sides(given, found, "stress")


def _checked(plastic_limit_ratio: float) -> float:
    if not plastic_limit_ratio >= 1.0:
        raise InputError("notch rule, plastic_limit_ratio", f"{plastic_limit_ratio:g}", "1 or more")
    return plastic_limit_ratio


@NOTCH_RULES.add("neuber")
class Neuber(_WeightedRule):
    """The product of stress and strain is that of elasticity."""

    symbol: ClassVar[str] = ""
    formula: ClassVar[str] = "σ × ε = S_e^2 / E"
    source: ClassVar[str] = "Neuber 1961; limit of the section by Seeger and Heuler 1980"

    @classmethod
    def weight(cls, curve: CyclicCurve) -> float:
        """1: σ ε = σ²/E + σ ε_p."""
        return 1.0


@NOTCH_RULES.add("energy density")
class EnergyDensity(_WeightedRule):
    """The strain energy density is that of elasticity."""

    symbol: ClassVar[str] = "2 / (n' + 1) × "
    formula: ClassVar[str] = "σ^2 / (2 E) + σ / (n' + 1) × (σ / K')^(1/n') = S_e^2 / (2 E)"
    source: ClassVar[str] = "Molski and Glinka 1981"

    @classmethod
    def weight(cls, curve: CyclicCurve) -> float:
        """2 / (n' + 1): twice the energy density below the curve."""
        return 2.0 / (curve.cyclic_hardening_exponent + 1.0)


@NOTCH_RULES.add("none")
class AsMeasured(NotchRule):
    """Strains that were measured or computed with plasticity: the stress is that of the cyclic curve."""

    formula: ClassVar[str] = "ε = σ / E + (σ / K')^(1/n')"
    source: ClassVar[str] = "Ramberg and Osgood 1943"
    drive: ClassVar[str] = "strain"

    @classmethod
    def local(
        cls, curve: CyclicCurve, drive: ArrayLike, plastic_limit_ratio: float | None = None
    ) -> tuple[FloatArray, FloatArray]:
        """Stress, MPa, at strains, and these."""
        if plastic_limit_ratio is not None:
            raise InputError(
                "notch rule, plastic_limit_ratio", "one for strains as measured", "none with the rule 'none'"
            )
        given = np.asarray(drive, dtype=np.float64)
        return curve.stress(given), given

    @classmethod
    def slope(
        cls, curve: CyclicCurve, drive: FloatArray, stress: FloatArray, plastic_limit_ratio: float | None = None
    ) -> FloatArray:
        """MPa a unit of strain."""
        return np.asarray(1.0 / stiffness(curve, stress))

    @classmethod
    def sides(
        cls, curve: CyclicCurve, drive: float, stress: float, plastic_limit_ratio: float | None, shown: Shown
    ) -> Sides:
        """The strain itself, and that of the cyclic curve."""
        e, k, s, sigma = (
            put_in(shown(one)) for one in (curve.youngs_modulus, curve.cyclic_strength_coefficient, drive, stress)
        )
        value = float(curve.strain(stress))
        return Sides(
            ("ε = S_e / E", f"{s} / {e}", drive / curve.youngs_modulus),
            (
                "ε = σ / E + (σ / K')^(1 / n')",
                f"{sigma} / {e} + ({sigma} / {k})^(1 / {put_in(curve.cyclic_hardening_exponent)})",
                value,
            ),
            "number",
        )
