"""A bell over the mean: amplitudes at a life from the strengths and two powers that move with its logarithm."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies.life_diagram import LIFE_DIAGRAMS, LifeDiagram
from vivid_anvil.units import Coherent, OptionalCoherent, UnitSystem, display_unit, number, shown
from vivid_anvil.writing.working import Step, put_in


@LIFE_DIAGRAMS.add("bell")
@dataclass(frozen=True, kw_only=True, repr=False)
class Bell(LifeDiagram):
    """S_a / X_t = f (1 - m)^u (c + m)^v with m = S_m / X_t, c = X_c / X_t, u = A + B log10 N, and v the same unless stated.

    Parameters
    ----------
    r_ratios_tested : sequence of float, optional
        R of the tests behind it.
    source : str, default "not stated"
        Where the numbers come from, in words.
    tension : float or text with a unit
        Strength in tension X_t, MPa.
    compression : float or text with a unit
        Strength in compression X_c, a positive number below X_t, MPa.
    height : float
        f, -.
    power : float
        A of u at one cycle, -.
    power_per_decade : float
        B: what u gains in ten times the cycles, -.
    compression_power : float, optional
        A of v, -; without it v is u.
    compression_power_per_decade : float, optional
        B of v, -.

    Raises
    ------
    InputError
        For a compression strength at or above that of tension, with which bells would rise with life, one number of v without
        the other, and values of another kind, unit or range.

    Examples
    --------
    >>> bell = Bell(tension=1500.0, compression=1000.0, height=1.0, power=1.2, power_per_decade=0.15)
    >>> bell.lives([700.0, 720.0], [250.0, 0.0]).round(1)
    array([858994.7,  11693.3])
    """

    tension: Coherent = Coherent("stress", above=0.0)
    compression: Coherent = Coherent("stress", above=0.0)
    height: Coherent = Coherent("number", above=0.0)
    power: Coherent = Coherent("number", above=0.0)
    power_per_decade: Coherent = Coherent("number", above=0.0)
    compression_power: OptionalCoherent = OptionalCoherent("number", above=0.0)
    compression_power_per_decade: OptionalCoherent = OptionalCoherent("number", above=0.0)
    formula: ClassVar[str] = "S_a / X_t = f (1 - m)^u (c + m)^v"
    origin: ClassVar[str] = "Gathercole, Reiter, Adam and Harris 1994"

    def check(self, where: str) -> None:
        """A bell that falls with life, and v whole."""
        if not self.compression < self.tension:
            raise InputError(
                f"{where}, compression",
                f"{number(self.compression)} MPa",
                f"less than that in tension, {number(self.tension)} MPa",
                "With X_c at or above X_t amplitudes would rise with life.",
            )
        if (self.compression_power is None) != (self.compression_power_per_decade is None):
            raise InputError(
                f"{where}, compression_power", "one number of v", "both, compression_power and ..._per_decade, or none"
            )

    @property
    def numbers(self) -> FloatArray:
        """X_t, c, f, A and B of u, A and B of v."""
        v = self.compression_power, self.compression_power_per_decade
        a, b = (self.power, self.power_per_decade) if v[0] is None or v[1] is None else (v[0], v[1])
        return np.array(
            [self.tension, self.compression / self.tension, self.height, self.power, self.power_per_decade, a, b]
        )

    @property
    def static(self) -> tuple[float, float]:
        """X_t, X_c."""
        return self.tension, self.compression

    @staticmethod
    def use(numbers: FloatArray, log_life: float, amplitude: float, mean: float) -> float:
        """Where the ray of the cycle meets the bell, looked for between 0 and the strength by halving."""
        c = numbers[1]
        size, m = amplitude / numbers[0], mean / numbers[0]
        if size <= 0.0:
            return float(max(m, -m / c))
        u = numbers[3] + numbers[4] * log_life
        v = numbers[5] + numbers[6] * log_life
        high = 1e6 / size
        if m > 0.0:
            high = 1.0 / m
        elif m < 0.0:
            high = -c / m
        if m == 0.0:
            return float(size / (numbers[2] * c**v))
        high = min(high, numbers[2] * (1.0 + c) ** (u + v) / size)  # no bell is higher
        low = 0.0
        for _ in range(100):
            middle = 0.5 * (low + high)
            if middle * size < numbers[2] * (1.0 - middle * m) ** u * (c + middle * m) ** v:
                low = middle
            else:
                high = middle
            if high - low <= 1e-15 * high:
                break
        return float(1.0 / high)

    @staticmethod
    def log_life(numbers: FloatArray, amplitude: float, mean: float) -> float:
        """By the formula, which is straight in log N; at and beyond a strength the ply fails at once."""
        m, c = mean / numbers[0], numbers[1]
        if m >= 1.0 or m <= -c:
            return -400.0
        if amplitude <= 0.0:
            return 400.0
        one, two = math.log(1.0 - m), math.log(c + m)
        slope = numbers[4] * one + numbers[6] * two
        at_once = math.log(numbers[2]) + numbers[3] * one + numbers[5] * two
        gap = math.log(amplitude / numbers[0]) - at_once
        if slope >= 0.0:  # of a bell so lopsided that it rises there: no life can be told
            return math.nan
        return float(gap / slope)

    def steps(self, symbol: str, amplitude: float, mean: float, units: UnitSystem) -> list[Step]:
        """Mean over strength, and the logarithm of the life."""
        unit, given = display_unit("stress", units), self.numbers
        xt, sa, sm = (float(shown(one, "stress", units)) for one in (self.tension, amplitude, mean))
        m, c = sm / xt, float(given[1])
        f, au, bu, av, bv = (float(one) for one in given[2:])
        log = self.log_life(given, amplitude, mean)
        upper = f"ln({put_in(sa)} {unit} / ({put_in(f)} × {put_in(xt)} {unit})) - {put_in(au)} × ln(1 - {put_in(m)})"
        upper += f" - {put_in(av)} × ln({put_in(c)} + {put_in(m)})"
        lower = f"{put_in(bu)} × ln(1 - {put_in(m)}) + {put_in(bv)} × ln({put_in(c)} + {put_in(m)})"
        return [
            Step(
                f"Mean of {symbol} over the strength",
                "m = S_m / X_t",
                f"{put_in(sm)} {unit} / {put_in(xt)} {unit}",
                m,
                "",
            ),
            Step(
                f"Logarithm of the life under {symbol}",
                "log N = [ln(S_a / (f X_t)) - A_u ln(1 - m) - A_v ln(c + m)] / [B_u ln(1 - m) + B_v ln(c + m)]",
                f"[{upper}] / [{lower}]",
                log,
                "",
                source=self.origin,
            ),
            Step(f"Life under {symbol}", "N = 10^(log N)", f"10^{put_in(log)}", 10.0**log, "cycles"),
        ]

    @property
    def words(self) -> str:
        """Strengths and powers."""
        return (
            f"{number(self.tension)} MPa to -{number(self.compression)} MPa, f = {number(self.height)}, "
            f"u = {number(self.power)} + {number(self.power_per_decade)} log N"
        )
