"""Hyperelastic laws of incompressible rubber: energy of stretches, stress, and where a law is stable.

In: principal stretches, whose product is 1. Out: energy density and Cauchy stress, MPa. W is the energy per undeformed volume.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.rubber.loading_modes import LOADING_MODES, stretches
from vivid_anvil.units import Coherent, OptionalCoherent, coherent, number, sound

HYPERELASTIC: Choices[type[HyperelasticLaw]] = Choices("hyperelastic law")
SOFTEST, STIFFEST = 0.05, 50.0  # MPa, shear modulus of rubbers
LOOKED = 200  # stretches at which stability is looked at
LARGEST_STRETCH = 10.0
DIGITS = 7  # of what is put in by hand


@dataclass(frozen=True, kw_only=True, repr=False)
class HyperelasticLaw(ABC):
    """A law: energy density over principal stretches. Forms: see `HYPERELASTIC`.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    bulk_modulus : float or text with a unit, optional
        K, MPa, of U = K (J - 1)² / 2, for strains of a model whose volume changes a little; without it nothing changes volume.
    source : str, default "not stated"
        Where the numbers come from, in words.
    stretches_tested : (float, float), optional
        Least and largest stretch of the tests behind it.

    Raises
    ------
    InputError
        For constants without stiffness at small strains, and values of another kind, unit or range.

    Examples
    --------
    >>> rubber = MooneyRivlin(name="bushing", c10="0.3 MPa", c01="0.08 MPa")
    >>> round(float(rubber.stress("simple", 1.8)), 4), round(float(rubber.energy_of("simple", 1.8)), 4)
    (1.8493, 0.478)
    """

    name: str
    bulk_modulus: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    source: str = "not stated"
    stretches_tested: tuple[float, float] | None = None

    kind: ClassVar[str]
    formula: ClassVar[str]
    origin: ClassVar[str]

    def __post_init__(self) -> None:
        checks.text(inside("hyperelastic law", "name"), self.name)
        where = f"hyperelastic law {self.name}"
        checks.text(inside(where, "source"), self.source)
        if self.stretches_tested is not None:
            low, high = (checks.real_number(inside(where, "stretches_tested"), one) for one in self.stretches_tested)
            if not 0.0 < low < high:
                raise InputError(
                    inside(where, "stretches_tested"), f"{low:g} to {high:g}", "least and largest stretch, above 0"
                )
        self.check(where)
        modulus = self.shear_modulus
        if not modulus > 0.0:
            raise InputError(
                where,
                f"a shear modulus of {number(modulus)} MPa at small strains",
                "one above 0",
                "Check the signs of the constants.",
            )
        if not SOFTEST <= modulus <= STIFFEST:
            hint = "Are the constants in Pa or kPa?" if modulus > STIFFEST else "Are the constants in GPa?"
            raise InputError(
                where,
                f"a shear modulus of {number(modulus)} MPa at small strains",
                f"{SOFTEST:g} to {STIFFEST:g} MPa, as of rubber",
                hint,
            )
        if self.bulk_modulus is not None and self.bulk_modulus < 10.0 * modulus:
            raise InputError(
                inside(where, "bulk_modulus"),
                f"{number(self.bulk_modulus)} MPa, {number(self.bulk_modulus / modulus)} times the shear modulus",
                "10 times and more, as rubber hardly changes its volume",
                "A foam is no rubber of these laws.",
            )

    def check(self, where: str) -> None:  # noqa: B027
        """InputError for constants that do not go together."""

    @property
    @abstractmethod
    def shear_modulus(self) -> float:
        """At small strains, MPa."""

    @property
    def youngs_modulus(self) -> float:
        """At small strains, MPa: 3 times the shear modulus."""
        return 3.0 * self.shear_modulus

    @abstractmethod
    def energy(self, stretch: ArrayLike) -> FloatArray:
        """Energy density, MPa, of principal stretches, shape (..., 3), whose product is 1."""

    @abstractmethod
    def principal(self, stretch: ArrayLike) -> FloatArray:
        """λ ∂W/∂λ along each axis, MPa, shape (..., 3): the Cauchy stress but for a pressure."""

    @abstractmethod
    def energy_by_hand(self, stretch: FloatArray) -> str:
        """The formula of the energy with the numbers of three principal stretches put in, MPa."""

    @property
    @abstractmethod
    def row(self) -> FloatArray:
        """The law in numbers, as loops take it: c10, c20, c30, c01, then μ and α of each term."""

    def energy_of(self, mode: str, stretch: ArrayLike) -> FloatArray:
        """Energy density, MPa, of a mode of `LOADING_MODES`."""
        return self.energy(stretches(mode, stretch))

    def stress(self, mode: str, stretch: ArrayLike) -> FloatArray:
        """Cauchy stress along the stretch, MPa, in a mode of `LOADING_MODES`."""
        own = self.principal(stretches(mode, stretch))
        return np.asarray(own[..., 0] - own[..., 2])

    def nominal(self, mode: str, stretch: ArrayLike) -> FloatArray:
        """Force over undeformed area along the stretch, MPa: Cauchy stress over the stretch."""
        return self.stress(mode, stretch) / np.asarray(stretch, dtype=np.float64)

    def stable_between(self, mode: str, low: float = 0.2, high: float = LARGEST_STRETCH) -> tuple[float, float]:
        """Stretches about 1 between which the law is stable in a mode: more strain takes more stress, in any direction.

        Drucker's condition on increments of Cauchy stress and logarithmic strain: their product is positive for every increment
        that keeps the volume.

        Parameters
        ----------
        mode : str
            One of `LOADING_MODES`.
        low, high : float
            Stretches that are looked at.

        Returns
        -------
        tuple of (float, float)
            Least and largest stretch up to which it is stable.

        Raises
        ------
        InputError
            For an unknown mode, and stretches that do not lie about 1.

        Examples
        --------
        >>> MooneyRivlin(name="bushing", c10="0.5 MPa", c01="-0.08 MPa").stable_between("equibiaxial")[1].__round__(2)
        1.8
        """
        if not 0.0 < low < 1.0 < high:
            raise InputError(
                "stable_between", f"stretches from {low:g} to {high:g}", "a least one below 1 and a largest above"
            )
        found = []
        for end in (low, high):
            looked = np.exp(np.linspace(0.0, np.log(end), LOOKED))
            bad = np.flatnonzero(~self.stable_at(stretches(mode, looked)))
            found.append(float(looked[-1] if not bad.size else looked[max(bad[0] - 1, 0)]))
        return found[0], found[1]

    def stable_at(self, stretch: FloatArray) -> Any:
        """Whether dσ : dε > 0 for every increment that keeps the volume, at principal stretches, shape (n, 3)."""
        step = 1e-5
        tangent = np.empty((*stretch.shape, 3))
        for j in range(3):  # of λ ∂W/∂λ along each axis, by each logarithmic strain
            up, down = stretch.copy(), stretch.copy()
            up[:, j] *= np.exp(step)
            down[:, j] *= np.exp(-step)
            tangent[:, :, j] = (self.principal(up) - self.principal(down)) / (2.0 * step)
        basis = np.array([[1.0, -1.0, 0.0], [1.0, 1.0, -2.0]]) / np.sqrt([[2.0], [6.0]])
        sizes = np.linalg.eigvalsh(basis @ (0.5 * (tangent + tangent.transpose(0, 2, 1))) @ basis.T)
        return sizes[:, 0] > 0.0

    def __repr__(self) -> str:
        return f"<HyperelasticLaw {self.name}: {self.kind}, shear modulus {number(self.shear_modulus)} MPa>"


def _invariants(stretch: ArrayLike) -> tuple[FloatArray, FloatArray]:
    square = np.asarray(stretch, dtype=np.float64) ** 2
    return np.asarray(square.sum(axis=-1)), np.asarray((1.0 / square).sum(axis=-1))


class _OfInvariants(HyperelasticLaw):
    """W of I1 = Σ λ² and I2 = Σ 1/λ²: a polynomial of I1 - 3, and one term of I2 - 3."""

    @property
    @abstractmethod
    def constants(self) -> tuple[float, float, float, float]:
        """c10, c20, c30, c01, MPa."""

    @property
    def shear_modulus(self) -> float:
        """2 (c10 + c01), MPa."""
        c10, _, _, c01 = self.constants
        return 2.0 * (c10 + c01)

    def energy(self, stretch: ArrayLike) -> FloatArray:
        """Energy density, MPa."""
        c10, c20, c30, c01 = self.constants
        first, second = _invariants(stretch)
        x = first - 3.0
        return np.asarray(c10 * x + c20 * x**2 + c30 * x**3 + c01 * (second - 3.0))

    def principal(self, stretch: ArrayLike) -> FloatArray:
        """λ ∂W/∂λ, MPa."""
        c10, c20, c30, c01 = self.constants
        square = np.asarray(stretch, dtype=np.float64) ** 2
        x = square.sum(axis=-1, keepdims=True) - 3.0
        return np.asarray(2.0 * (c10 + 2.0 * c20 * x + 3.0 * c30 * x**2) * square - 2.0 * c01 / square)

    def energy_by_hand(self, stretch: FloatArray) -> str:
        """Constants times powers of I1 - 3 and I2 - 3."""
        first, second = (number(float(one), DIGITS) for one in _invariants(stretch))
        powers = ("", "²", "³")
        parts = [
            f"{number(c, DIGITS)} × ({first} - 3){power}"
            for c, power in zip(self.constants[:3], powers, strict=True)
            if c
        ]
        if self.constants[3]:
            parts.append(f"{number(self.constants[3], DIGITS)} × ({second} - 3)")
        return " + ".join(parts)

    @property
    def row(self) -> FloatArray:
        """c10, c20, c30, c01."""
        return np.array(self.constants)


@sound
@HYPERELASTIC.add("neo-hookean")
@dataclass(frozen=True, kw_only=True, repr=False)
class NeoHookean(_OfInvariants):
    """W = c10 (I1 - 3).

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    bulk_modulus : float or text with a unit, optional
        K, MPa, where the volume may change a little.
    source : str, default "not stated"
        Where the numbers come from, in words.
    stretches_tested : (float, float), optional
        Least and largest stretch of the tests behind it.
    c10 : float or text with a unit
        Half of the shear modulus, MPa.

    Raises
    ------
    InputError
        For constants without stiffness, and values of another kind, unit or range.

    Examples
    --------
    >>> NeoHookean(name="soft", c10="0.4 MPa")
    <HyperelasticLaw soft: neo-hookean, shear modulus 0.8 MPa>
    """

    c10: Coherent = Coherent("stress")
    formula: ClassVar[str] = "W = c10 × (I_1 - 3)"
    origin: ClassVar[str] = "Treloar 1943"

    @property
    def constants(self) -> tuple[float, float, float, float]:
        """c10 alone."""
        return self.c10, 0.0, 0.0, 0.0


@sound
@HYPERELASTIC.add("mooney-rivlin")
@dataclass(frozen=True, kw_only=True, repr=False)
class MooneyRivlin(_OfInvariants):
    """W = c10 (I1 - 3) + c01 (I2 - 3).

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    bulk_modulus : float or text with a unit, optional
        K, MPa, where the volume may change a little.
    source : str, default "not stated"
        Where the numbers come from, in words.
    stretches_tested : (float, float), optional
        Least and largest stretch of the tests behind it.
    c10 : float or text with a unit
        Of the first invariant, MPa.
    c01 : float or text with a unit
        Of the second invariant, MPa.

    Raises
    ------
    InputError
        For constants without stiffness, and values of another kind, unit or range.

    Examples
    --------
    >>> MooneyRivlin(name="bushing", c10="0.3 MPa", c01="0.08 MPa").shear_modulus
    0.76
    """

    c10: Coherent = Coherent("stress")
    c01: Coherent = Coherent("stress")
    formula: ClassVar[str] = "W = c10 × (I_1 - 3) + c01 × (I_2 - 3)"
    origin: ClassVar[str] = "Mooney 1940; Rivlin 1948"

    @property
    def constants(self) -> tuple[float, float, float, float]:
        """Both."""
        return self.c10, 0.0, 0.0, self.c01


@sound
@HYPERELASTIC.add("yeoh")
@dataclass(frozen=True, kw_only=True, repr=False)
class Yeoh(_OfInvariants):
    """W = c10 (I1 - 3) + c20 (I1 - 3)² + c30 (I1 - 3)³.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    bulk_modulus : float or text with a unit, optional
        K, MPa, where the volume may change a little.
    source : str, default "not stated"
        Where the numbers come from, in words.
    stretches_tested : (float, float), optional
        Least and largest stretch of the tests behind it.
    c10, c20, c30 : float or text with a unit
        Of the powers of the first invariant, MPa; c20 is below 0 as a rule.

    Raises
    ------
    InputError
        For constants without stiffness, and values of another kind, unit or range.

    Examples
    --------
    >>> filled = Yeoh(name="filled", c10="0.6 MPa", c20="-0.06 MPa", c30="0.01 MPa")
    >>> round(float(filled.stress("simple", 2.0)), 3)
    3.36
    """

    c10: Coherent = Coherent("stress")
    c20: Coherent = Coherent("stress")
    c30: Coherent = Coherent("stress")
    formula: ClassVar[str] = "W = c10 × (I_1 - 3) + c20 × (I_1 - 3)^2 + c30 × (I_1 - 3)^3"
    origin: ClassVar[str] = "Yeoh 1990"

    @property
    def constants(self) -> tuple[float, float, float, float]:
        """All three."""
        return self.c10, self.c20, self.c30, 0.0


@sound
@HYPERELASTIC.add("ogden")
@dataclass(frozen=True, kw_only=True, repr=False)
class Ogden(HyperelasticLaw):
    """W = Σ μ/α (λ1^α + λ2^α + λ3^α - 3), as Ogden writes it; the shear modulus is Σ μ α / 2.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    bulk_modulus : float or text with a unit, optional
        K, MPa, where the volume may change a little.
    source : str, default "not stated"
        Where the numbers come from, in words.
    stretches_tested : (float, float), optional
        Least and largest stretch of the tests behind it.
    terms : sequence of (float or text with a unit, float)
        μ, MPa, and α, -, of each term. Constants of W = Σ 2 m/α² (...), as solvers print them, are μ = 2 m / α.

    Raises
    ------
    InputError
        For no term, an exponent of 0, constants without stiffness, and values of another kind, unit or range.

    Examples
    --------
    >>> Ogden(name="gum", terms=[("0.62 MPa", 1.3), ("0.00118 MPa", 5.0), ("-0.00981 MPa", -2.0)])
    <HyperelasticLaw gum: ogden, shear modulus 0.4158 MPa>
    """

    terms: Sequence[tuple[Any, float]] = ()
    formula: ClassVar[str] = "W = Σ μ / α × (λ_1^α + λ_2^α + λ_3^α - 3)"
    origin: ClassVar[str] = "Ogden 1972"

    def check(self, where: str) -> None:
        """Terms in coherent units."""
        given: Any = self.terms
        if isinstance(given, str) or not isinstance(given, Sequence) or not len(given):
            raise InputError(inside(where, "terms"), repr(given), "rows of μ and α, such as [['0.6 MPa', 1.3]]")
        found = []
        for i, term in enumerate(given, 1):
            here = f"{where}, terms, row {i}"
            if isinstance(term, str) or not isinstance(term, Sequence) or len(term) != 2:
                raise InputError(here, repr(term), "μ with its unit, and α")
            exponent = checks.real_number(here, term[1])
            if exponent == 0.0:
                raise InputError(here, "α = 0", "an exponent other than 0")
            found.append((coherent(term[0], "stress", here), exponent))
        object.__setattr__(self, "terms", tuple(found))

    @property
    def shear_modulus(self) -> float:
        """Σ μ α / 2, MPa."""
        return 0.5 * float(sum(mu * alpha for mu, alpha in self.terms))

    def energy(self, stretch: ArrayLike) -> FloatArray:
        """Energy density, MPa."""
        own = np.asarray(stretch, dtype=np.float64)
        return np.asarray(sum(mu / alpha * ((own**alpha).sum(axis=-1) - 3.0) for mu, alpha in self.terms))

    def principal(self, stretch: ArrayLike) -> FloatArray:
        """λ ∂W/∂λ, MPa."""
        own = np.asarray(stretch, dtype=np.float64)
        return np.asarray(sum(mu * own**alpha for mu, alpha in self.terms))

    def energy_by_hand(self, stretch: FloatArray) -> str:
        """Each term with the stretches to its power."""
        one, two, three = (number(float(each), DIGITS) for each in stretch)
        return " + ".join(
            f"{number(mu, DIGITS)} / {number(alpha, DIGITS)} × ({one}^{alpha:g} + {two}^{alpha:g} + {three}^{alpha:g} - 3)"
            for mu, alpha in self.terms
        )

    @property
    def row(self) -> FloatArray:
        """Nothing of invariants, then μ and α of each term."""
        return np.array([0.0, 0.0, 0.0, 0.0, *(value for term in self.terms for value in term)])


__all__ = [
    "HYPERELASTIC",
    "LOADING_MODES",
    "HyperelasticLaw",
    "MooneyRivlin",
    "NeoHookean",
    "Ogden",
    "Yeoh",
    "stretches",
]
