"""Residual strength of a ply: how the strength of a component goes down over cycles that do not break it yet.

In: strength X before, MPa, cycles n of a largest stress s whose life is N. Out: strength after them. The cycles start where the
strength stands, as if it had come there under the stress s alone: equivalent cycles. At N the strength is s, and the ply breaks.
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

STRENGTH_DECAYS: Choices[type[StrengthDecay]] = Choices("strength decay")
FIRST = 0.25  # cycles: a static test is a quarter of one
# Cycles within the first quarter cost nothing, but have to be remembered, or ever so many small steps would never leave it: they
# are kept as a loss, MPa, of this for each, that no strength feels.
WITHIN_FIRST = 1e-300


@dataclass(frozen=True, kw_only=True, repr=False)
class StrengthDecay(ABC):
    """A decay of strength. Forms: see `STRENGTH_DECAYS`.

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
    >>> PowerStrength(exponent=3.0).strength(1500.0, cycles=5e4, life=1e5, start=1500.0, stress=900.0)
    1425.0
    """

    source: str = "not stated"

    kind: ClassVar[str]
    formula: ClassVar[str]
    origin: ClassVar[str]

    def __post_init__(self) -> None:
        checks.text(f"strength decay, {self.kind}, source", self.source)

    @property
    @abstractmethod
    def numbers(self) -> FloatArray:
        """Those of the form, as `after` takes them."""

    @staticmethod
    @abstractmethod
    def after(numbers: FloatArray, lost: float, cycles: float, life: float, start: float, stress: float) -> float:
        """Strength that is lost after cycles more, MPa, of what was lost before: what is handed to loops.

        What is lost, not what is left: the first losses are so small that beside the strength they would be rounded away.
        """

    @staticmethod
    @abstractmethod
    def cycles_to(numbers: FloatArray, lost: float, life: float, start: float, stress: float) -> float:
        """Equivalent cycles: of that stress, from the start until so much is lost."""

    def strength(self, before: float, *, cycles: float, life: float, start: float, stress: float) -> float:
        """Strength, MPa, of one that stood at `before`, after `cycles` of a largest stress that has that life."""
        self._check(before, cycles, life, start, stress)
        given = (float(one) for one in (start - before, cycles, life, start, stress))
        return float(start - self.after(self.numbers, *given))

    def equivalent_cycles(self, strength: float, *, life: float, start: float, stress: float) -> float:
        """Cycles of a stress alone that bring the strength from its start to `strength`, MPa."""
        self._check(strength, 0.0, life, start, stress)
        return float(self.cycles_to(self.numbers, *(float(one) for one in (start - strength, life, start, stress))))

    def _check(self, before: float, cycles: float, life: float, start: float, stress: float) -> None:
        where = f"strength decay, {self.kind}"
        for name, value in (("life", life), ("start", start), ("stress", stress)):
            checks.positive_number(inside(where, name), value)
        if not checks.real_number(inside(where, "cycles"), cycles) >= 0.0:
            raise InputError(inside(where, "cycles"), number(cycles), "a number of at least 0")
        if not stress < start:
            raise InputError(
                inside(where, "stress"), f"{number(stress)} MPa", f"less than the strength, {number(start)} MPa"
            )
        if not stress <= before <= start:
            raise InputError(
                inside(where, "strength"), f"{number(before)} MPa", f"between {number(stress)} and {number(start)} MPa"
            )


@STRENGTH_DECAYS.add("power")
@dataclass(frozen=True, kw_only=True, repr=False)
class PowerStrength(StrengthDecay):
    """X = X_0 - (X_0 - s) (n / N)^ν.

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.
    exponent : float
        ν: 1 is a straight loss, large is one at the end, -.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> PowerStrength(exponent=1.0).strength(1500.0, cycles=1e4, life=1e5, start=1500.0, stress=900.0)
    1440.0
    """

    exponent: Coherent = Coherent("number", above=0.0)
    formula: ClassVar[str] = "X = X_0 - (X_0 - s) (n / N)^ν"
    origin: ClassVar[str] = "Broutman and Sahu 1972; Schaff and Davidson 1997"

    @property
    def numbers(self) -> FloatArray:
        """ν."""
        return np.array([self.exponent])

    @staticmethod
    def after(numbers: FloatArray, lost: float, cycles: float, life: float, start: float, stress: float) -> float:
        """From its equivalent cycles on."""
        if stress >= start:
            return max(lost, start - stress)
        used = max(lost / (start - stress), 0.0) ** (1.0 / numbers[0]) + cycles / life
        if used >= 1.0:
            return max(lost, start - stress)
        return float((start - stress) * used ** numbers[0])

    @staticmethod
    def cycles_to(numbers: FloatArray, lost: float, life: float, start: float, stress: float) -> float:
        """n of the formula."""
        return float(life * max(lost / (start - stress), 0.0) ** (1.0 / numbers[0]))

    def __repr__(self) -> str:
        return f"<strength decay, power: ν = {number(self.exponent)}>"


@STRENGTH_DECAYS.add("normalised")
@dataclass(frozen=True, kw_only=True, repr=False)
class NormalisedStrength(StrengthDecay):
    """X = (1 - L^β)^(1/α) (X_0 - s) + s with L = (log n - log 0.25) / (log N - log 0.25).

    Parameters
    ----------
    source : str, default "not stated"
        Where the numbers come from, in words.
    alpha : float
        α, -.
    beta : float
        β, -.

    Raises
    ------
    InputError
        For values of another kind or range.

    Examples
    --------
    >>> decay = NormalisedStrength(alpha=10.03, beta=0.473)
    >>> round(decay.strength(1500.0, cycles=1000.0, life=1e5, start=1500.0, stress=400.0), 1)
    1331.4
    """

    alpha: Coherent = Coherent("number", above=0.0)
    beta: Coherent = Coherent("number", above=0.0)
    formula: ClassVar[str] = "X = (1 - L^β)^(1/α) (X_0 - s) + s, L = log(n / 0.25) / log(N / 0.25)"
    origin: ClassVar[str] = "Shokrieh and Lessard 2000"

    @property
    def numbers(self) -> FloatArray:
        """α, β."""
        return np.array([self.alpha, self.beta])

    @staticmethod
    def after(numbers: FloatArray, lost: float, cycles: float, life: float, start: float, stress: float) -> float:
        """From its equivalent cycles on."""
        if stress >= start or life <= 0.25:
            return max(lost, start - stress)
        span = math.log(life / 0.25)
        part = min(max(lost / (start - stress), 0.0), 1.0)
        if part >= 1.0:
            return lost
        gone = -math.expm1(numbers[0] * math.log1p(-part))  # 1 - (1 - part)^α
        before = 0.25 * math.exp(gone ** (1.0 / numbers[1]) * span) if lost > WITHIN_FIRST else lost / WITHIN_FIRST
        total = before + cycles
        if total <= 0.25:
            return total * WITHIN_FIRST
        way = math.log(total / 0.25) / span
        if way >= 1.0:
            return max(lost, start - stress)
        found = -(start - stress) * math.expm1(math.log1p(-(way ** numbers[1])) / numbers[0])
        return float(max(lost, found))

    @staticmethod
    def cycles_to(numbers: FloatArray, lost: float, life: float, start: float, stress: float) -> float:
        """n of the formula; 0 where nothing is lost."""
        part = min(max(lost / (start - stress), 0.0), 1.0)
        gone = 1.0 if part >= 1.0 else -math.expm1(numbers[0] * math.log1p(-part))
        if lost <= WITHIN_FIRST:
            return lost / WITHIN_FIRST
        return 0.25 * math.exp(gone ** (1.0 / numbers[1]) * math.log(life / 0.25))

    def __repr__(self) -> str:
        return f"<strength decay, normalised: α = {number(self.alpha)}, β = {number(self.beta)}>"


__all__ = ["FIRST", "STRENGTH_DECAYS", "NormalisedStrength", "PowerStrength", "StrengthDecay"]
