"""Strain-life curves: elastic and plastic amplitude over reversals, with the cyclic curve that belongs to them."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike
from scipy.special import ndtri

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.strain.cyclic_curve import CyclicCurve, check_modulus
from vivid_anvil.materials.strain.two_powers import reversals
from vivid_anvil.units import Coherent, OptionalCoherent, UnitSystem, in_unit, many, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

BASES = ("tests", "standard", "typical", "estimate", "not stated")
LARGEST_DUCTILITY = 8.0  # ε_f', beyond which it is percent
COMPATIBLE = 0.1  # share by which K' and n' may differ from those of the four constants
STEEPEST_B, STEEPEST_C = -0.35, -1.2  # beyond, exponents are exchanged or mistyped


@dataclass(frozen=True, kw_only=True, repr=False)
class StrainLife:
    """ε_a = (σ_f'/E) (2N)^b + ε_f' (2N)^c, N in cycles, fully reversed.

    Basquin, O. H. 1910; Coffin, L. F. 1954; Manson, S. S. 1953; Morrow, J. 1965. Without K' and n' the cyclic curve is the one
    that agrees with it: n' = b/c, K' = σ_f'/ε_f'^n'.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    youngs_modulus : float or text with a unit
        E, MPa.
    fatigue_strength_coefficient : float or text with a unit
        σ_f', MPa.
    fatigue_strength_exponent : float
        b, -; below 0.
    fatigue_ductility_coefficient : float or text with a unit
        ε_f', -, or text such as "45 %".
    fatigue_ductility_exponent : float
        c, -; below b.
    cyclic_strength_coefficient : float or text with a unit, optional
        K', MPa.
    cyclic_hardening_exponent : float, optional
        n', -.
    survival_probability : float, optional
        Share of parts that outlive the curve, -.
    log_life_std : float, optional
        Standard deviation of log10 of the life, -.
    basis : str, default "not stated"
        Where it comes from: "tests", "standard", "typical", "estimate" or "not stated".
    source : str, default "not stated"
        The same in words.
    points : tuple of (float, float), optional
        Tests that it rests on, to be drawn with it: strain amplitude, -, and life, cycles.
    outside_data : str, optional
        Of an estimate what it was made from, where that is outside of the data behind it, in words.

    Raises
    ------
    InputError
        For exponents that do not fall or are exchanged, K' without n', and values of another kind, unit or range.

    Examples
    --------
    >>> steel = StrainLife(
    ...     name="steel", youngs_modulus="206 GPa", fatigue_strength_coefficient="950 MPa", fatigue_strength_exponent=-0.09,
    ...     fatigue_ductility_coefficient=0.45, fatigue_ductility_exponent=-0.58,
    ... )
    >>> steel
    <StrainLife steel: σ_f' 950 MPa, b -0.09, ε_f' 0.45, c -0.58, transition at 5740 cycles>
    >>> round(float(steel.life(0.004)), 1), round(float(steel.amplitude(1e5)), 6)
    (5639.4, 0.001916)
    """

    name: str
    youngs_modulus: Coherent = Coherent("stress", above=0.0)
    fatigue_strength_coefficient: Coherent = Coherent("stress", above=0.0)
    fatigue_strength_exponent: Coherent = Coherent("number")
    fatigue_ductility_coefficient: Coherent = Coherent("strain", above=0.0)
    fatigue_ductility_exponent: Coherent = Coherent("number")
    cyclic_strength_coefficient: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    cyclic_hardening_exponent: OptionalCoherent = OptionalCoherent("number", above=0.0, below=1.0)
    survival_probability: OptionalCoherent = OptionalCoherent("number", above=0.0, below=1.0)
    log_life_std: OptionalCoherent = OptionalCoherent("number", above=0.0)
    basis: str = "not stated"
    source: str = "not stated"
    points: tuple[tuple[float, float], ...] = ()
    outside_data: str = ""

    def __post_init__(self) -> None:
        checks.text(inside("strain life", "name"), self.name)
        where = f"strain life {self.name}"
        checks.one_of(inside(where, "basis"), self.basis, BASES)
        b, c = self.fatigue_strength_exponent, self.fatigue_ductility_exponent
        for key, value, least in (
            ("fatigue_strength_exponent", b, STEEPEST_B),
            ("fatigue_ductility_exponent", c, STEEPEST_C),
        ):
            if not least < value < 0.0:
                hint = "Exponents are written with their sign." if value > 0.0 else "Is it a slope, or mistyped?"
                raise InputError(inside(where, key), f"{value:g}", f"an exponent below 0 and above {least:g}", hint)
        if self.fatigue_ductility_coefficient > LARGEST_DUCTILITY:
            raise InputError(
                inside(where, "fatigue_ductility_coefficient"),
                f"ε_f' = {self.fatigue_ductility_coefficient:g}",
                f"at most {LARGEST_DUCTILITY:g}",
                f"Is it in percent? Then write '{self.fatigue_ductility_coefficient:g} %'.",
            )
        if not c < b:
            raise InputError(
                inside(where, "fatigue_ductility_exponent"),
                f"c = {c:g} above b = {b:g}",
                "c below b",
                "Are the two exchanged?",
            )
        if self.fatigue_strength_coefficient >= self.youngs_modulus:
            raise InputError(
                inside(where, "fatigue_strength_coefficient"),
                f"σ_f' = {self.fatigue_strength_coefficient:g} MPa, E = {self.youngs_modulus:g} MPa",
                "σ_f' far below E",
                "Are the two exchanged, or is a unit wrong?",
            )
        if (self.cyclic_strength_coefficient is None) != (self.cyclic_hardening_exponent is None):
            given = "K'" if self.cyclic_hardening_exponent is None else "n'"
            raise InputError(inside(where, "cyclic curve"), f"{given} alone", "K' and n', or neither", "Give both.")
        check_modulus(where, self.youngs_modulus)

    @property
    def compatible(self) -> CyclicCurve:
        """The cyclic curve of the four constants: equal plastic strains in both."""
        exponent = self.fatigue_strength_exponent / self.fatigue_ductility_exponent
        coefficient = self.fatigue_strength_coefficient / self.fatigue_ductility_coefficient**exponent
        return CyclicCurve(
            youngs_modulus=self.youngs_modulus,
            cyclic_strength_coefficient=coefficient,
            cyclic_hardening_exponent=exponent,
        )

    @property
    def cyclic(self) -> CyclicCurve:
        """The cyclic stress-strain curve: its own, else the compatible one."""
        if self.cyclic_strength_coefficient is None or self.cyclic_hardening_exponent is None:
            return self.compatible
        return CyclicCurve(
            youngs_modulus=self.youngs_modulus,
            cyclic_strength_coefficient=self.cyclic_strength_coefficient,
            cyclic_hardening_exponent=self.cyclic_hardening_exponent,
        )

    def elastic(self, life: ArrayLike) -> FloatArray:
        """Elastic part of the strain amplitude, -, at lives in cycles."""
        twice = 2.0 * np.asarray(life, dtype=np.float64)
        return np.asarray(
            self.fatigue_strength_coefficient / self.youngs_modulus * twice**self.fatigue_strength_exponent
        )

    def plastic(self, life: ArrayLike) -> FloatArray:
        """Plastic part of the strain amplitude, -, at lives in cycles."""
        twice = 2.0 * np.asarray(life, dtype=np.float64)
        return np.asarray(self.fatigue_ductility_coefficient * twice**self.fatigue_ductility_exponent)

    @opened(life=many("number", above=0.0))
    def amplitude(self, life: ArrayLike) -> FloatArray:
        """Strain amplitude, -, at which each life, cycles, is reached.

        Parameters
        ----------
        life : array_like
            Lives in cycles, above 0.

        Returns
        -------
        ndarray
            Strain amplitude, -.

        Raises
        ------
        InputError
            For a life that is not above 0.
        """
        return np.asarray(self.elastic(life) + self.plastic(life))

    @opened(amplitude=many("strain", at_least=0.0))
    def life(self, amplitude: ArrayLike) -> FloatArray:
        """Life in cycles at each strain amplitude, -; inf at 0.

        Parameters
        ----------
        amplitude : array_like
            Strain amplitudes, -, 0 or more, or text such as "0.4 %".

        Returns
        -------
        ndarray
            Lives in cycles.

        Raises
        ------
        InputError
            For an amplitude below 0.
        """
        return np.asarray(0.5 * self.reversals_at(np.asarray(amplitude, dtype=np.float64)))

    def reversals_at(self, amplitude: FloatArray, elastic: ArrayLike = 1.0, plastic: ArrayLike = 1.0) -> FloatArray:
        """Reversals at amplitudes, with factors on the elastic and the plastic part."""
        return reversals(
            np.asarray(elastic) * self.fatigue_strength_coefficient / self.youngs_modulus,
            self.fatigue_strength_exponent,
            np.asarray(plastic) * self.fatigue_ductility_coefficient,
            self.fatigue_ductility_exponent,
            amplitude,
        )

    @property
    def transition_life(self) -> float:
        """Cycles at which elastic and plastic part are equal: 2N_t = (ε_f' E/σ_f')^(1/(b - c))."""
        ratio = self.fatigue_ductility_coefficient * self.youngs_modulus / self.fatigue_strength_coefficient
        return 0.5 * float(ratio ** (1.0 / (self.fatigue_strength_exponent - self.fatigue_ductility_exponent)))

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say of the constants."""
        return tuple(_findings(self))

    def at_survival(self, survival_probability: float) -> StrainLife:
        """The curve at another survival probability: all lives times 10^((z_old - z_new) s), z of the normal distribution."""
        wanted = checks.share_of_one(inside(f"strain life {self.name}", "survival_probability"), survival_probability)
        old, spread = self.survival_probability, self.log_life_std
        if old is None or spread is None:
            raise InputError(
                f"strain life {self.name}",
                "no survival_probability or no log_life_std",
                "both, to change the survival probability",
                "State them.",
            )
        factor = 10.0 ** ((float(ndtri(old)) - float(ndtri(wanted))) * spread)
        return dataclasses.replace(
            self,
            fatigue_strength_coefficient=self.fatigue_strength_coefficient * factor**-self.fatigue_strength_exponent,
            fatigue_ductility_coefficient=self.fatigue_ductility_coefficient * factor**-self.fatigue_ductility_exponent,
            cyclic_strength_coefficient=self.cyclic.cyclic_strength_coefficient,
            cyclic_hardening_exponent=self.cyclic.cyclic_hardening_exponent,
            survival_probability=wanted,
        )

    def compatible_steps(self) -> tuple[Step, ...]:
        """How K' and n' follow of the four constants; none where they are stated."""
        if self.cyclic_strength_coefficient is not None:
            return ()
        own, b, c = self.compatible, self.fatigue_strength_exponent, self.fatigue_ductility_exponent
        n, strength = own.cyclic_hardening_exponent, put_in(self.fatigue_strength_coefficient)
        ductility = put_in(self.fatigue_ductility_coefficient)
        return (
            Step(
                "Cyclic hardening exponent of the strain-life curve", "n' = b / c", f"{put_in(b)} / {put_in(c)}", n, ""
            ),
            Step(
                "Cyclic strength coefficient of the strain-life curve",
                "K' = σ_f' / ε_f'^n'",
                f"{strength} MPa / {ductility}^{put_in(n)}",
                own.cyclic_strength_coefficient,
                "MPa",
                "Morrow 1965",
            ),
        )

    def told(self, units: UnitSystem) -> str:
        """Its constants in a line."""
        own = self.cyclic
        strength, coefficient = (
            in_unit(one, "stress", units)
            for one in (self.fatigue_strength_coefficient, own.cyclic_strength_coefficient)
        )
        return (
            f"σ_f' {strength}, b {number(self.fatigue_strength_exponent)}, ε_f' {number(self.fatigue_ductility_coefficient)}, "
            f"c {number(self.fatigue_ductility_exponent)}, K' {coefficient}, n' {number(own.cyclic_hardening_exponent)}, "
            f"E {in_unit(self.youngs_modulus, 'stress', units)}, transition at {number(self.transition_life)} cycles"
        )

    def record(self) -> dict[str, Any]:
        """Its constants by name, units in the names; also those that follow of the others."""
        own = self.cyclic
        return {
            "name": self.name,
            "youngs modulus [MPa]": self.youngs_modulus,
            "fatigue strength coefficient [MPa]": self.fatigue_strength_coefficient,
            "fatigue strength exponent": self.fatigue_strength_exponent,
            "fatigue ductility coefficient": self.fatigue_ductility_coefficient,
            "fatigue ductility exponent": self.fatigue_ductility_exponent,
            "cyclic strength coefficient [MPa]": own.cyclic_strength_coefficient,
            "cyclic hardening exponent": own.cyclic_hardening_exponent,
            "transition life [cycles]": self.transition_life,
            "survival probability": self.survival_probability,
            "basis": self.basis,
            "source": self.source,
        }

    def steps(self, amplitude: float) -> tuple[Step, ...]:
        """The life at a strain amplitude by hand: the life that solves the curve, and both its parts put in."""
        life = float(self.life(amplitude))
        twice = 2.0 * life
        e, b, c = self.youngs_modulus, self.fatigue_strength_exponent, self.fatigue_ductility_exponent
        parts = (
            (
                "Elastic part",
                "ε_e = σ_f' / E × (2N)^b",
                self.fatigue_strength_coefficient / e,
                b,
                float(self.elastic(life)),
            ),
            ("Plastic part", "ε_p = ε_f' × (2N)^c", self.fatigue_ductility_coefficient, c, float(self.plastic(life))),
        )
        found = [
            Step(
                title,
                formula,
                f"{number(first, 7)} × {number(twice, 7)}^({number(power, 7)})",
                value,
                "",
                "Morrow 1965",
            )
            for title, formula, first, power, value in parts
        ]
        total = " + ".join(number(value, 7) for *_, value in parts)
        return (*found, Step("Both together, the amplitude asked for", "ε_a = ε_e + ε_p", total, amplitude, ""))

    def __repr__(self) -> str:
        strength = f"σ_f' {number(self.fatigue_strength_coefficient)} MPa, b {number(self.fatigue_strength_exponent)}"
        ductility = f"ε_f' {number(self.fatigue_ductility_coefficient)}, c {number(self.fatigue_ductility_exponent)}"
        return f"<StrainLife {self.name}: {strength}, {ductility}, transition at {number(self.transition_life)} cycles>"


def _findings(curve: StrainLife) -> Iterator[Finding]:
    own, made = curve.cyclic, curve.compatible
    shares: dict[str, Any] = {
        "K'": own.cyclic_strength_coefficient / made.cyclic_strength_coefficient - 1.0,
        "n'": own.cyclic_hardening_exponent / made.cyclic_hardening_exponent - 1.0,
    }
    off = {name: share for name, share in shares.items() if abs(share) > COMPATIBLE}
    if off:
        told = " and ".join(f"{name} by {share:+.0%}" for name, share in off.items())
        worst = max(abs(float(own.stress(one)) / float(made.stress(one)) - 1.0) for one in (0.002, 0.005, 0.01))
        yield Finding(
            "warning" if worst > COMPATIBLE else "note",
            "incompatible-constants",
            f"Cyclic curve and strain-life curve of {curve.name} differ: {told} from b/c and σ_f'/ε_f'^n', stresses by up to "
            f"{worst:.0%} at strains from 0.2 to 1 %.",
            "Take both from the same tests, or leave K' and n' out.",
        )
    if curve.basis == "estimate":
        yield Finding(
            "warning",
            "estimated-strain-life",
            f"The strain-life curve {curve.name} is an estimate ({curve.source}); lives scatter by a factor of 3 and more.",
            "Confirm with strain-controlled tests before anything depends on it.",
        )
    if curve.outside_data:
        yield Finding(
            "warning",
            "estimate-outside-data",
            f"The strain-life curve {curve.name} is estimated from {curve.outside_data}.",
            "Is the unit or the group of materials right? Else nothing is known of how good the estimate is: test, or take a "
            "measured curve.",
        )
    if not math.isfinite(curve.transition_life) or not 1.0 < curve.transition_life < 1e7:
        yield Finding(
            "warning",
            "odd-transition",
            f"Elastic and plastic part of {curve.name} are equal at {number(curve.transition_life)} cycles, as of no metal.",
            "Check the four constants and their units.",
        )
