"""Residual stiffness of a ply: how a modulus goes down over cycles, as the part of it that is left.

In: part e that is left before, cycles n of a largest stress s whose life is N. Out: part after them. As with strength the cycles
start where the stiffness stands, as if it had come there under that stress alone.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, number

STIFFNESS_DECAYS: Choices[type[StiffnessDecay]] = Choices("stiffness decay")


@dataclass(frozen=True, kw_only=True, repr=False)
class StiffnessDecay(ABC):
    """A decay of stiffness. Forms: see `STIFFNESS_DECAYS`.

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> loss = PowerStiffness(end=110 / 140, exponent=0.4)
    >>> round(140000.0 * loss.left(1.0, cycles=5e4, life=1e5, modulus=140000.0, stress=900.0, strength=1500.0), 2)
    117264.25
    """

    source: str = "not stated"

    kind: ClassVar[str]
    formula: ClassVar[str]
    origin: ClassVar[str]
    by_sum: ClassVar[bool] = False  # whether the sum of n / N of all cycles says it all, whatever their stress

    def __post_init__(self) -> None:
        checks.text(f"stiffness decay, {self.kind}, source", self.source)

    @property
    @abstractmethod
    def numbers(self) -> FloatArray:
        """Those of the form, as `after` takes them."""

    @staticmethod
    @abstractmethod
    def after(
        numbers: FloatArray, lost: float, cycles: float, life: float, modulus: float, stress: float, strength: float
    ) -> float:
        """Part that is lost after cycles more, of what was lost before: what is handed to loops, as with strength."""

    def left(
        self, before: float, *, cycles: float, life: float, modulus: float, stress: float, strength: float
    ) -> float:
        """Part of the modulus, MPa, left after `cycles` of a largest stress with that life; `strength` is the static one."""
        where = f"stiffness decay, {self.kind}"
        for name, value in (("life", life), ("modulus", modulus), ("stress", stress), ("strength", strength)):
            checks.positive_number(inside(where, name), value)
        if not 0.0 < checks.real_number(inside(where, "before"), before) <= 1.0:
            raise InputError(inside(where, "before"), number(before), "a part above 0, up to 1")
        if not checks.real_number(inside(where, "cycles"), cycles) >= 0.0:
            raise InputError(inside(where, "cycles"), number(cycles), "a number of at least 0")
        given = (float(one) for one in (1.0 - before, cycles, life, modulus, stress, strength))
        return float(1.0 - self.after(self.numbers, *given))


@STIFFNESS_DECAYS.add("power")
@dataclass(frozen=True, kw_only=True, repr=False)
class PowerStiffness(StiffnessDecay):
    """E = E_0 - (E_0 - E_f) (n / N)^b.

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.
    end : float
        E_f / E_0, what is left when the life is over, -.
    exponent : float
        b: below 1 most is lost early, -.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> PowerStiffness(end=0.5, exponent=1.0).left(1.0, cycles=5, life=10, modulus=1.0, stress=1.0, strength=2.0)
    0.75
    """

    end: Coherent = Coherent("number", above=0.0, below=1.0)
    exponent: Coherent = Coherent("number", above=0.0)
    formula: ClassVar[str] = "E = E_0 - (E_0 - E_f) (n / N)^b"
    origin: ClassVar[str] = "power law of degradation"
    by_sum: ClassVar[bool] = True

    @property
    def numbers(self) -> FloatArray:
        """E_f / E_0, b."""
        return np.array([self.end, self.exponent])

    @staticmethod
    def after(
        numbers: FloatArray, lost: float, cycles: float, life: float, modulus: float, stress: float, strength: float
    ) -> float:
        """From its equivalent cycles on; beyond the life it stays."""
        used = min(max(lost / (1.0 - numbers[0]), 0.0) ** (1.0 / numbers[1]) + cycles / life, 1.0)
        return float(max(lost, (1.0 - numbers[0]) * used ** numbers[1]))

    def __repr__(self) -> str:
        return f"<stiffness decay, power: to {number(self.end)}, b = {number(self.exponent)}>"


@STIFFNESS_DECAYS.add("normalised")
@dataclass(frozen=True, kw_only=True, repr=False)
class NormalisedStiffness(StiffnessDecay):
    """E = (1 - L^λ)^(1/γ) (E_0 - s / ε_f) + s / ε_f with L = (log n - log 0.25) / (log N - log 0.25).

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.
    power : float
        λ, -.
    root : float
        γ, -.
    failure_strain : float or text with a unit
        ε_f: the strain at which it breaks, whatever the cycles, mm/mm.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> loss = NormalisedStiffness(power=14.57, root=0.3024, failure_strain=0.0136)
    >>> round(140000.0 * loss.left(1.0, cycles=30000, life=1e5, modulus=140000.0, stress=400.0, strength=1500.0), 1)
    74060.3
    """

    power: Coherent = Coherent("number", above=0.0)
    root: Coherent = Coherent("number", above=0.0)
    failure_strain: Coherent = Coherent("strain", above=0.0)
    formula: ClassVar[str] = "E = (1 - L^λ)^(1/γ) (E_0 - s / ε_f) + s / ε_f, L = log(n / 0.25) / log(N / 0.25)"
    origin: ClassVar[str] = "Shokrieh and Lessard 2000"

    @property
    def numbers(self) -> FloatArray:
        """λ, γ, ε_f."""
        return np.array([self.power, self.root, self.failure_strain])

    @staticmethod
    def after(
        numbers: FloatArray, lost: float, cycles: float, life: float, modulus: float, stress: float, strength: float
    ) -> float:
        """From its equivalent cycles on."""
        end = stress / numbers[2] / modulus
        if life <= 0.25 or end >= 1.0:
            return lost
        span = math.log(life / 0.25)
        part = min(max(lost / (1.0 - end), 0.0), 1.0)
        if part >= 1.0:
            return lost
        gone = -math.expm1(numbers[1] * math.log1p(-part))
        total = cycles + (0.25 * math.exp(gone ** (1.0 / numbers[0]) * span) if gone > 0.0 else 0.0)
        if total <= 0.25:
            return lost
        way = math.log(total / 0.25) / span
        if way >= 1.0:
            return float(max(lost, 1.0 - end))
        return float(max(lost, -(1.0 - end) * math.expm1(math.log1p(-(way ** numbers[0])) / numbers[1])))

    def __repr__(self) -> str:
        return f"<stiffness decay, normalised: λ = {number(self.power)}, γ = {number(self.root)}>"


@STIFFNESS_DECAYS.add("rate")
@dataclass(frozen=True, kw_only=True, repr=False)
class StiffnessRate(StiffnessDecay):
    """dD/dn = A (s / X)^p of the part D that is lost; X is the static strength. It needs no life.

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.
    rate : float
        A, loss per cycle at the static strength, 1/cycle.
    exponent : float
        p, -.
    most : float, default 0.99
        Part D that is lost at most, -.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> loss = StiffnessRate(rate=2e-5, exponent=4.0)
    >>> loss.left(1.0, cycles=1e4, life=1e6, modulus=9000.0, stress=22.5, strength=45.0)
    0.9875
    """

    rate: Coherent = Coherent("number", above=0.0)
    exponent: Coherent = Coherent("number", above=0.0)
    most: Coherent = Coherent("number", above=0.0, below=1.0, default=0.99)
    formula: ClassVar[str] = "dD/dn = A (s / X)^p"
    origin: ClassVar[str] = "rate of cracking by the stress that is left: Ogin, Smith and Beaumont 1985"

    @property
    def numbers(self) -> FloatArray:
        """A, p, 1 - D at most."""
        return np.array([self.rate, self.exponent, 1.0 - self.most])

    @staticmethod
    def after(
        numbers: FloatArray, lost: float, cycles: float, life: float, modulus: float, stress: float, strength: float
    ) -> float:
        """At the rate of the stress."""
        found = lost + numbers[0] * cycles * (stress / strength) ** numbers[1]
        return float(max(lost, min(found, 1.0 - numbers[2])))

    def __repr__(self) -> str:
        return f"<stiffness decay, rate: A = {number(self.rate)} per cycle, p = {number(self.exponent)}>"
