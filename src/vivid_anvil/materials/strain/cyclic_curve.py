"""The cyclic stress-strain curve: the tips of stable loops, and the branches between them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, many, opened

ROUNDS = 60  # of Newton's method, which stops long before


MODULI = (1e3, 1.2e6)  # MPa, of metals and beyond


def check_modulus(where: str, youngs_modulus: float) -> None:
    """InputError for a Young's modulus, MPa, that no metal has."""
    low, high = MODULI
    if not low <= youngs_modulus <= high:
        hint = "Is it in Pa?" if youngs_modulus > high else "Is it in GPa?"
        found = f"{youngs_modulus:g} MPa"
        raise InputError(inside(where, "youngs_modulus"), found, f"{low:g} to {high:g} MPa, as of metals", hint)


@dataclass(frozen=True, kw_only=True)
class CyclicCurve:
    """ε = σ/E + (σ/K')^(1/n'), odd in σ; a branch is the same doubled: Δε = Δσ/E + 2 (Δσ/2K')^(1/n').

    Ramberg, W. and Osgood, W. R. 1943, NACA TN 902; branches by Masing, G. 1926.

    Parameters
    ----------
    youngs_modulus : float or text with a unit
        E, MPa.
    cyclic_strength_coefficient : float or text with a unit
        K', MPa.
    cyclic_hardening_exponent : float
        n', -; above 0 and below 1.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = CyclicCurve(youngs_modulus="206 GPa", cyclic_strength_coefficient="1080 MPa", cyclic_hardening_exponent=0.155)
    >>> round(float(steel.strain("320 MPa")), 6), round(float(steel.stress(0.004)), 2)
    (0.001944, 412.15)
    """

    youngs_modulus: Coherent = Coherent("stress", above=0.0)
    cyclic_strength_coefficient: Coherent = Coherent("stress", above=0.0)
    cyclic_hardening_exponent: Coherent = Coherent("number", above=0.0, below=1.0)

    def __post_init__(self) -> None:
        if self.cyclic_strength_coefficient >= self.youngs_modulus:
            raise InputError(
                inside("cyclic curve", "cyclic_strength_coefficient"),
                f"K' = {self.cyclic_strength_coefficient:g} MPa, E = {self.youngs_modulus:g} MPa",
                "K' far below E",
                "Are the two exchanged, or is a unit wrong?",
            )
        check_modulus("cyclic curve", self.youngs_modulus)

    @opened(stress=many("stress"))
    def strain(self, stress: ArrayLike) -> FloatArray:
        """Strain, -, at each stress, MPa.

        Parameters
        ----------
        stress : array_like
            Stress, MPa, or text with its unit.

        Returns
        -------
        ndarray
            Strain, -.

        Raises
        ------
        InputError
            For a stress that is no number or has another unit.
        """
        given = np.asarray(stress, dtype=np.float64)
        return np.asarray(given / self.youngs_modulus + np.sign(given) * self.plastic(np.abs(given)))

    def plastic(self, stress: FloatArray) -> FloatArray:
        """The plastic part of the strain, -, at stresses of 0 or more, MPa."""
        return np.asarray((stress / self.cyclic_strength_coefficient) ** (1.0 / self.cyclic_hardening_exponent))

    @opened(strain=many("strain"))
    def stress(self, strain: ArrayLike) -> FloatArray:
        """Stress, MPa, at each strain, -.

        Parameters
        ----------
        strain : array_like
            Strain, -, or text with its unit, such as "0.4 %".

        Returns
        -------
        ndarray
            Stress, MPa.

        Raises
        ------
        InputError
            For a strain that is no number or has another unit.
        """
        given = np.asarray(strain, dtype=np.float64)
        size = np.abs(given)
        modulus, coefficient = self.youngs_modulus, self.cyclic_strength_coefficient
        exponent = self.cyclic_hardening_exponent
        # Both parts alone give too much; from there the convex curve is gone down without overshooting.
        first = np.minimum(modulus * size, coefficient * size**exponent)
        found = first
        for _ in range(ROUNDS):
            plastic = self.plastic(found)
            over = found / modulus + plastic - size
            with np.errstate(divide="ignore", invalid="ignore"):
                slope = 1.0 / modulus + np.where(found > 0.0, plastic / (exponent * found), 0.0)
            after = np.maximum(found - over / slope, 0.0)
            done = np.abs(after - found) <= 1e-15 * first
            found = after
            if done.all():
                break
        return np.asarray(np.sign(given) * found)

    def strain_range(self, stress_range: ArrayLike) -> FloatArray:
        """Range of strain, -, of a branch with each range of stress, MPa."""
        return np.asarray(2.0 * self.strain(0.5 * np.asarray(stress_range, dtype=np.float64)))

    def stress_range(self, strain_range: ArrayLike) -> FloatArray:
        """Range of stress, MPa, of a branch with each range of strain, -."""
        return np.asarray(2.0 * self.stress(0.5 * np.asarray(strain_range, dtype=np.float64)))

    @property
    def proof_stress(self) -> float:
        """Cyclic yield strength: the stress at 0.2 % of plastic strain, MPa."""
        return float(self.cyclic_strength_coefficient * 0.002**self.cyclic_hardening_exponent)
