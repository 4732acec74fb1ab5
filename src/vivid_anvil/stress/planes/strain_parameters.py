"""Criteria on strain as a hot spot takes them: of strains and normal stresses of a cycle on a plane its life.

Each cycle has the range of the strain that is counted (engineering shear, or normal), the largest and smallest normal stress
while it lasts, and how far the normal strain goes meanwhile.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from typing import Any, ClassVar, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials import Material
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.stress.planes.lives import (
    POISSON,
    brown_miller_life,
    fatemi_socie_life,
    shear_curve,
    smith_watson_topper_life,
)
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

STRAIN_PARAMETERS: Choices[type[StrainParameter]] = Choices("criterion")
CONSTANTS = ("k", "s")
S_USUAL = 0.5


class StrainCycles(NamedTuple):
    """Cycles on a plane: range of the counted strain, largest and smallest normal stress, MPa, range of the normal strain."""

    ranges: FloatArray
    highest: FloatArray
    lowest: FloatArray
    across: FloatArray


class Given(NamedTuple):
    """What a criterion needs beside cycles: curve, yield strength, MPa (nan where it needs none), k or S, Poisson's ratio."""

    curve: StrainLife
    yield_strength: float
    weight: float
    poissons_ratio: float


class Terms(NamedTuple):
    """The same in numbers: parameter = Δ/2 (a + b <σ_max>) + c Δε_n = (f - g (σ_max + σ_min)) (2 N)^s + h (2 N)^t."""

    a: float
    b: float
    c: float
    f: float
    g: float
    s: float
    h: float
    t: float


class StrainParameter(ABC):
    """A criterion; it has no values of its own, so the class itself is used."""

    kind: ClassVar[str]
    takes: ClassVar[tuple[str, ...]] = ()
    by_shear: ClassVar[bool] = True  # whether the shear strain is counted, else the normal strain
    on_largest_shear: ClassVar[bool] = False  # all count where they do most damage
    by_range: ClassVar[bool] = (
        False  # whether it looks at ranges of normal stress and strain, not at the largest stress alone
    )
    formula: ClassVar[str]
    life_formula: ClassVar[str]
    unit: ClassVar[str] = "number"  # of its parameter
    source: ClassVar[str]
    suits: ClassVar[str]

    @classmethod
    def given(cls, how: Any, material: Material, where: str) -> Given:
        """Its constants; InputError for one that is missing."""
        return Given(how.strain_life, np.nan, 0.0, how.poissons_ratio)

    @classmethod
    def check_constants(cls, how: Any, where: str) -> None:
        """InputError for a constant that the criterion does not take."""
        for key in CONSTANTS:
            if getattr(how, key) is not None and key not in cls.takes:
                expected = f"{listed(cls.takes) or 'no constant'} only"
                raise InputError(inside(where, key), f"{key} with the criterion {cls.kind!r}", expected)

    @classmethod
    @abstractmethod
    def parameter(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """The parameter of each cycle."""

    @classmethod
    @abstractmethod
    def life(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """Life of each cycle, cycles; inf where it does no damage, 0 where its mean fails the place at once."""

    @classmethod
    @abstractmethod
    def terms(cls, given: Given) -> Terms:
        """The constants of both."""

    @classmethod
    @abstractmethod
    def steps(cls, given: Given, one: StrainCycles, units: UnitSystem) -> list[Step]:
        """From one cycle, arrays of one value, to its parameter, and that at the life that was found."""


def _life_steps(
    title: str, formula: str, numbers: str, value: float, unit: str, life: float, source: str
) -> list[Step]:
    """The life solves its equation: the right side at it is the parameter."""
    found = Step(f"{title}, at the life that solves it", formula, numbers, value, unit, source)
    return [found, Step("Life", "N", f"{put_in(life)} cycles", life, "cycles")]


@STRAIN_PARAMETERS.add("fatemi-socie")
class FatemiSocieParameter(StrainParameter):
    """γ_a (1 + k σ_n,max / R_e) on the plane where it does most damage; a compressive normal stress counts as 0."""

    takes: ClassVar[tuple[str, ...]] = ("k",)
    formula: ClassVar[str] = "p = γ_a × (1 + k × σ_n,max / R_e)"
    life_formula: ClassVar[str] = "p = τ_f' / G × (2 × N)^b + γ_f' × (2 × N)^c"
    source: ClassVar[str] = "Fatemi and Socie 1988"
    suits: ClassVar[str] = "ductile metals in which cracks start along shear planes"

    @classmethod
    def given(cls, how: Any, material: Material, where: str) -> Given:
        """k, and the yield strength of the material."""
        if how.k is None:
            raise InputError(
                f"{where}, criterion {cls.kind}",
                "no constant",
                "k, 0.3 to 1 for most steels",
                "Tests in torsion and tension give it.",
            )
        strength = material.needed("yield_strength", f"the criterion {cls.kind} of {where}")
        return Given(how.strain_life, strength, float(how.k), how.poissons_ratio)

    @classmethod
    def parameter(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """A shear strain, -."""
        normal = np.maximum(cycles.highest, 0.0)
        return np.asarray(0.5 * cycles.ranges * (1.0 + given.weight * normal / given.yield_strength))

    @classmethod
    def life(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """By the curve in shear."""
        return fatemi_socie_life(cls.parameter(given, cycles), shear_curve(given.curve, given.poissons_ratio))

    @classmethod
    def terms(cls, given: Given) -> Terms:
        """By the curve in shear."""
        own = shear_curve(given.curve, given.poissons_ratio)
        powers = (own.strength / own.shear_modulus, 0.0, own.exponent, own.ductility, own.ductility_exponent)
        return Terms(1.0, given.weight / given.yield_strength, 0.0, *powers)

    @classmethod
    def steps(cls, given: Given, one: StrainCycles, units: UnitSystem) -> list[Step]:
        """Parameter, curve in shear, life."""
        unit = display_unit("stress", units)
        normal, strength = (
            put_in(float(shown(x, "stress", units))) for x in (max(float(one.highest[0]), 0.0), given.yield_strength)
        )
        amplitude, value, life = (
            float(x) for x in (0.5 * one.ranges[0], cls.parameter(given, one)[0], cls.life(given, one)[0])
        )
        shear = shear_curve(given.curve, given.poissons_ratio)
        f, g = (float(shown(x, "stress", units)) for x in (shear.strength, shear.shear_modulus))
        numbers = f"{put_in(amplitude)} × (1 + {put_in(given.weight)} × {normal} {unit} / {strength} {unit})"
        steps = [Step("Parameter on the plane", cls.formula, numbers, value, "", cls.source)]
        if not np.isfinite(life):
            return [*steps, Step("No damage", "p = 0", "0", 0.0, "")]
        own = given.curve
        s, e = (
            put_in(float(shown(x, "stress", units))) for x in (own.fatigue_strength_coefficient, own.youngs_modulus)
        )
        nu = put_in(given.poissons_ratio)
        ductility = put_in(own.fatigue_ductility_coefficient)
        steps += [
            Step("Strength coefficient in shear", "τ_f' = σ_f' / √3", f"{s} {unit} / √(3)", f, unit, "von Mises 1913"),
            Step("Ductility coefficient in shear", "γ_f' = √3 × ε_f'", f"√(3) × {ductility}", shear.ductility, ""),
            Step("Shear modulus", "G = E / (2 × (1 + ν))", f"{e} {unit} / (2 × (1 + {nu}))", g, unit),
        ]
        n = put_in(life)
        numbers = (
            f"{put_in(f)} {unit} / {put_in(g)} {unit} × (2 × {n})^{put_in(shear.exponent)} + "
            f"{put_in(shear.ductility)} × (2 × {n})^{put_in(shear.ductility_exponent)}"
        )
        return [*steps, *_life_steps("The curve in shear", cls.life_formula, numbers, value, "", life, cls.source)]


@STRAIN_PARAMETERS.add("brown-miller")
class BrownMillerParameter(StrainParameter):
    """γ_a + S Δε_n, Δε_n the range of the normal strain while the cycle lasts; a mean normal stress takes from σ_f'."""

    takes: ClassVar[tuple[str, ...]] = ("s",)
    by_range: ClassVar[bool] = True
    formula: ClassVar[str] = "p = γ_a + S × Δε_n"
    life_formula: ClassVar[str] = "p = A × (σ_f' - 2 × σ_n,mean) / E × (2 × N)^b + B × ε_f' × (2 × N)^c"
    source: ClassVar[str] = "Kandil, Brown and Miller 1982; Wang and Brown 1993"
    suits: ClassVar[str] = "ductile metals, short and middle lives"

    @classmethod
    def given(cls, how: Any, material: Material, where: str) -> Given:
        """S, 0.5 unless stated."""
        return Given(how.strain_life, np.nan, S_USUAL if how.s is None else float(how.s), how.poissons_ratio)

    @classmethod
    def parameter(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """A strain, -."""
        return np.asarray(0.5 * cycles.ranges + given.weight * cycles.across)

    @classmethod
    def life(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """By the uniaxial curve with the factors of Poisson's ratios."""
        mean = 0.5 * (cycles.highest + cycles.lowest)
        return brown_miller_life(
            cls.parameter(given, cycles), mean, given.curve, given.weight, (given.poissons_ratio, POISSON[1])
        )

    @classmethod
    def terms(cls, given: Given) -> Terms:
        """By the uniaxial curve with the factors of Poisson's ratios."""
        own = given.curve
        a, b = (1.0 + x + given.weight * (1.0 - x) for x in (given.poissons_ratio, POISSON[1]))
        first = a / own.youngs_modulus
        return Terms(
            1.0,
            0.0,
            given.weight,
            first * own.fatigue_strength_coefficient,
            first,
            own.fatigue_strength_exponent,
            b * own.fatigue_ductility_coefficient,
            own.fatigue_ductility_exponent,
        )

    @classmethod
    def steps(cls, given: Given, one: StrainCycles, units: UnitSystem) -> list[Step]:
        """Parameter, mean, factors, life."""
        unit = display_unit("stress", units)
        value, life = float(cls.parameter(given, one)[0]), float(cls.life(given, one)[0])
        high, low = (float(shown(float(x[0]), "stress", units)) for x in (one.highest, one.lowest))
        mean = 0.5 * (high + low)
        s, nu = put_in(given.weight), put_in(given.poissons_ratio)
        a, b = (1.0 + x + given.weight * (1.0 - x) for x in (given.poissons_ratio, POISSON[1]))
        own = given.curve
        f, e = (
            put_in(float(shown(x, "stress", units))) for x in (own.fatigue_strength_coefficient, own.youngs_modulus)
        )
        numbers = f"{put_in(0.5 * float(one.ranges[0]))} + {s} × {put_in(float(one.across[0]))}"
        steps = [
            Step("Parameter on the plane", cls.formula, numbers, value, "", cls.source),
            Step(
                "Mean normal stress",
                "σ_n,mean = (σ_n,max + σ_n,min) / 2",
                f"({put_in(high)} {unit} + {put_in(low)} {unit}) / 2",
                mean,
                unit,
            ),
            Step("Factor of the elastic part", "A = 1 + ν_e + S × (1 - ν_e)", f"1 + {nu} + {s} × (1 - {nu})", a, ""),
            Step("Factor of the plastic part", "B = 1 + ν_p + S × (1 - ν_p)", f"1 + 0.5 + {s} × (1 - 0.5)", b, ""),
        ]
        if not 0.0 < life < np.inf:
            return [*steps, Step("No life of it", "N", f"{put_in(life)}", life, "cycles")]
        n, exponent = put_in(life), put_in(own.fatigue_strength_exponent)
        numbers = (
            f"{put_in(a)} × ({f} {unit} - 2 × {put_in(mean)} {unit}) / {e} {unit} × (2 × {n})^{exponent} + "
            f"{put_in(b)} × {put_in(own.fatigue_ductility_coefficient)} × (2 × {n})^{put_in(own.fatigue_ductility_exponent)}"
        )
        return [*steps, *_life_steps("The strain-life curve", cls.life_formula, numbers, value, "", life, cls.source)]


@STRAIN_PARAMETERS.add("smith-watson-topper")
class SmithWatsonTopperParameter(StrainParameter):
    """σ_n,max ε_n,a, the normal strain counted; nothing where the normal stress is never tensile."""

    by_shear: ClassVar[bool] = False
    unit: ClassVar[str] = "stress"
    formula: ClassVar[str] = "p = σ_n,max × ε_n,a"
    life_formula: ClassVar[str] = "p = σ_f'^2 / E × (2 × N)^(2 × b) + σ_f' × ε_f' × (2 × N)^(b + c)"
    source: ClassVar[str] = "Smith, Watson and Topper 1970; Socie 1987"
    suits: ClassVar[str] = "metals in which cracks grow across the largest normal strain: cast iron, stainless steel"

    @classmethod
    def parameter(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """MPa."""
        return np.asarray(np.maximum(cycles.highest, 0.0) * 0.5 * cycles.ranges)

    @classmethod
    def life(cls, given: Given, cycles: StrainCycles) -> FloatArray:
        """By the uniaxial curve."""
        return smith_watson_topper_life(cls.parameter(given, cycles), given.curve)

    @classmethod
    def terms(cls, given: Given) -> Terms:
        """By the uniaxial curve."""
        own, strength = given.curve, given.curve.fatigue_strength_coefficient
        b, c = own.fatigue_strength_exponent, own.fatigue_ductility_exponent
        return Terms(
            0.0,
            1.0,
            0.0,
            strength**2 / own.youngs_modulus,
            0.0,
            2.0 * b,
            strength * own.fatigue_ductility_coefficient,
            b + c,
        )

    @classmethod
    def steps(cls, given: Given, one: StrainCycles, units: UnitSystem) -> list[Step]:
        """Parameter, life."""
        unit = display_unit("stress", units)
        normal = float(shown(max(float(one.highest[0]), 0.0), "stress", units))
        amplitude, life = 0.5 * float(one.ranges[0]), float(cls.life(given, one)[0])
        value = normal * amplitude
        steps = [
            Step(
                "Parameter on the plane",
                cls.formula,
                f"{put_in(normal)} {unit} × {put_in(amplitude)}",
                value,
                unit,
                cls.source,
            )
        ]
        if not np.isfinite(life):
            return [*steps, Step("No damage without tension", "p = 0", "0", 0.0, unit)]
        own, n = given.curve, put_in(life)
        f, e = (
            put_in(float(shown(x, "stress", units))) for x in (own.fatigue_strength_coefficient, own.youngs_modulus)
        )
        b, c = put_in(own.fatigue_strength_exponent), put_in(own.fatigue_ductility_exponent)
        numbers = (
            f"({f} {unit})^2 / ({e} {unit}) × (2 × {n})^(2 × {b}) + "
            f"{f} {unit} × {put_in(own.fatigue_ductility_coefficient)} × (2 × {n})^({b} + {c})"
        )
        return [*steps, *_life_steps("The strain-life curve", cls.life_formula, numbers, value, unit, life, cls.source)]
