"""Life of a ply by its strain energy: one law for all angles between load and fibres.

In: stresses s1, s2, t12 at both ends of cycles, MPa. Energy by Ellyin and El-Kadi, each component over its static strength by
Shokrieh and Taheri-Behrooz: ΔW* = Σ (s_max² - s_min²) / X², N = (K / ΔW*)^(1/a). For cycles that stay on one side of 0.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import STRESSES, Coherent, number, opened

if TYPE_CHECKING:
    from vivid_anvil.materials.plies.ply import Ply


@dataclass(frozen=True, kw_only=True, repr=False)
class EnergyLife:
    """ΔW* = K N^(-a) of the energy of a cycle over that which breaks the ply.

    Parameters
    ----------
    constant : float
        K, -.
    exponent : float
        a, -.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> EnergyLife(constant=0.55, exponent=0.09)
    <EnergyLife: ΔW* = 0.55 N^(-0.09)>
    """

    constant: Coherent = Coherent("number", above=0.0)
    exponent: Coherent = Coherent("number", above=0.0)
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text("energy life, source", self.source)

    def lives(self, ply: Ply, high: ArrayLike, low: ArrayLike) -> FloatArray:
        """Cycles, shape (n,), of stresses s1, s2, t12 at both ends, shape (n, 3), MPa."""
        work = normalised_energy(ply, high, low)
        with np.errstate(divide="ignore"):
            return np.asarray((self.constant / work) ** (1.0 / self.exponent))

    def __repr__(self) -> str:
        return f"<EnergyLife: ΔW* = {number(self.constant)} N^(-{number(self.exponent)})>"


@opened(high=STRESSES, low=STRESSES)
def normalised_energy(ply: Ply, high: ArrayLike, low: ArrayLike) -> FloatArray:
    """Energy of cycles over that which breaks the ply: ΔW* = Σ (s_max² - s_min²) / X² over s1, s2, t12, X by the sign.

    Parameters
    ----------
    ply : Ply
        The ply, with its strengths.
    high : array_like
        Stresses s1, s2, t12 at the maximum, MPa, shape (n, 3).
    low : array_like
        The same at the minimum.

    Returns
    -------
    ndarray
        ΔW*, -, shape (n,).

    Raises
    ------
    InputError
        For another shape, and a component that turns.

    References
    ----------
    Shokrieh, M. M., Taheri-Behrooz, F. (2006), Composite Structures 75, 444-450.

    Examples
    --------
    >>> strong = dict(tension_along=1500.0, compression_along=1200.0, tension_across=45.0, compression_across=180.0)
    >>> moduli = dict(modulus_along=138000.0, modulus_across=9000.0, shear_modulus=5200.0, poissons_ratio=0.3)
    >>> ply = Ply(name="p", shear_strength=75.0, **moduli, **strong)
    >>> normalised_energy(ply, [0.0, 18.0, 0.0], [0.0, 0.0, 0.0]).round(6)
    array([0.16])
    """
    upper, lower = _ends(high, low)
    xt, xc, yt, yc, s = ply.strengths("the energy of a cycle").tolist()
    strength = np.where(upper + lower >= 0.0, [xt, yt, s], [xc, yc, s])
    return np.asarray(np.sum(np.abs(upper**2 - lower**2) / strength**2, axis=1))


@opened(high=STRESSES, low=STRESSES)
def energy_range(ply: Ply, high: ArrayLike, low: ArrayLike) -> FloatArray:
    """Strain energy density between both ends of cycles: ΔW = (s·e at the maximum - s·e at the minimum) / 2.

    Parameters
    ----------
    ply : Ply
        The ply.
    high : array_like
        Stresses s1, s2, t12 at the maximum, MPa, shape (n, 3).
    low : array_like
        The same at the minimum.

    Returns
    -------
    ndarray
        ΔW, MPa (= MJ/m³), shape (n,).

    Raises
    ------
    InputError
        For another shape, and a component that turns.

    References
    ----------
    Ellyin, F., El-Kadi, H. (1990), Composite Structures 15, 61-74.

    Examples
    --------
    >>> moduli = dict(modulus_along=138000.0, modulus_across=9000.0, shear_modulus=5200.0, poissons_ratio=0.3)
    >>> energy_range(Ply(name="p", **moduli), [0.0, 18.0, 0.0], [0.0, 0.0, 0.0])
    array([0.018])
    """
    upper, lower = _ends(high, low)
    compliance = np.linalg.inv(ply.stiffness)
    return np.asarray(
        0.5 * (np.einsum("ni,ij,nj->n", upper, compliance, upper) - np.einsum("ni,ij,nj->n", lower, compliance, lower))
    )


def _ends(high: ArrayLike, low: ArrayLike) -> tuple[FloatArray, FloatArray]:
    upper, lower = (np.atleast_2d(np.asarray(one, dtype=np.float64)) for one in (high, low))
    if upper.shape != lower.shape or upper.ndim != 2 or upper.shape[1] != 3:
        raise InputError("stresses at both ends", f"shapes {upper.shape} and {lower.shape}", "(n, 3) each: s1, s2, t12")
    if not (np.isfinite(upper).all() and np.isfinite(lower).all()):
        raise InputError("stresses at both ends", "a number that is not finite", "finite stresses, MPa")
    if (upper * lower < 0.0).any():
        row, column = np.argwhere(upper * lower < 0.0)[0]
        raise InputError(
            f"stresses at both ends, cycle {row + 1}, {('s1', 's2', 't12')[column]}",
            f"{number(float(lower[row, column]))} to {number(float(upper[row, column]))} MPa, which turns",
            "cycles on one side of 0: 0 ≤ R < 1, or compression alone",
            "The energy of this rule vanishes at R = -1: take life diagrams by mode there.",
        )
    return upper, lower
