"""Straight lines between the R that were tested: at every life a polygon from one strength over the rays to the other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.plies.life_diagram import LIFE_DIAGRAMS, LifeDiagram
from vivid_anvil.units import Coherent, UnitSystem, coherent, display_unit, number, shown
from vivid_anvil.writing.working import Step, put_in


@LIFE_DIAGRAMS.add("rays")
@dataclass(frozen=True, kw_only=True, repr=False)
class Rays(LifeDiagram):
    """On the ray of each R the amplitude A N^(-b); between rays, and from the outer ones to the strengths, straight lines.

    Parameters
    ----------
    r_ratios_tested : sequence of float, optional
        R of the tests behind it; without it the R of the rays.
    source : str, default "not stated"
        Where the numbers come from, in words.
    tension : float or text with a unit
        Strength in tension, where all lines end at no amplitude, MPa.
    compression : float or text with a unit
        Strength in compression, a positive number, MPa.
    rows : sequence of (R, A, b)
        R of a ray; A, the amplitude at one cycle, MPa or text with a unit; b above 0, -.

    Raises
    ------
    InputError
        For no ray, an R of 1 or twice, and values of another kind, unit or range.

    Examples
    --------
    >>> rays = Rays(tension=1500.0, compression=1000.0, rows=[(0.1, 480.0, 0.06), (-1, 700.0, 0.075), (10, 330.0, 0.045)])
    >>> rays.lives([250.0, 220.0], [305.555555556, 700.0]).round(1)
    array([52685. ,  1564.3])
    """

    tension: Coherent = Coherent("stress", above=0.0)
    compression: Coherent = Coherent("stress", above=0.0)
    rows: Sequence[tuple[float, float, float]] = ()
    formula: ClassVar[str] = "S_a = A N^(-b) on each ray, straight between"
    origin: ClassVar[str] = "Philippidis and Vassilopoulos 2002"

    def check(self, where: str) -> None:
        """Rows in the order of their rays, from tension to compression."""
        place = inside(where, "rows")
        given: Any = self.rows
        if not isinstance(given, Sequence) or isinstance(given, str) or not len(given):
            raise InputError(place, shortened(given), 'rows of R, A and b, such as [[0.1, "480 MPa", 0.06]]')
        rows = []
        for i, row in enumerate(given, 1):
            at = inside(place, f"row {i}")
            if not isinstance(row, Sequence) or isinstance(row, str) or len(row) != 3:
                raise InputError(at, shortened(row), "three: R, A, b")
            r = checks.real_number(inside(at, "R"), row[0])
            if r == 1.0:
                raise InputError(inside(at, "R"), "1", "an R at which something moves")
            size = checks.positive_number(
                inside(at, "A"), coherent(row[1], "stress", inside(at, "A")), "an amplitude above 0"
            )
            rows.append((r, size, checks.positive_number(inside(at, "b"), row[2], "an exponent above 0")))
        if len({row[0] for row in rows}) < len(rows):
            raise InputError(place, "an R twice", "each R once")
        rows.sort(key=lambda row: -(1.0 + row[0]) / (1.0 - row[0]))
        object.__setattr__(self, "rows", tuple(rows))
        if self.r_ratios_tested is None:
            object.__setattr__(self, "r_ratios_tested", tuple(row[0] for row in rows))

    @property
    def numbers(self) -> FloatArray:
        """How many rays, X_t, X_c; then mean over amplitude, A, b of each, from tension to compression."""
        rays = [((1.0 + r) / (1.0 - r), size, b) for r, size, b in self.rows]
        return np.array(
            [len(rays), self.tension, self.compression, *(one for ray in rays for one in ray)], dtype=np.float64
        )

    @property
    def static(self) -> tuple[float, float]:
        """X_t, X_c."""
        return self.tension, self.compression

    @staticmethod
    def use(numbers: FloatArray, log_life: float, amplitude: float, mean: float) -> float:
        """Of the two corners that the ray of the cycle runs between: its parts of both, summed."""
        count = int(numbers[0])
        at = count
        for i in range(count):
            if mean >= amplitude * numbers[3 + 3 * i]:
                at = i
                break
        left_mean, left_size = numbers[1], 0.0
        right_mean, right_size = -numbers[2], 0.0
        natural = 2.302585092994046 * log_life
        if at > 0:
            left_size = numbers[1 + 3 * at] * math.exp(-numbers[2 + 3 * at] * natural)
            left_mean = numbers[3 * at] * left_size
        if at < count:
            right_size = numbers[4 + 3 * at] * math.exp(-numbers[5 + 3 * at] * natural)
            right_mean = numbers[3 + 3 * at] * right_size
        d = left_mean * right_size - right_mean * left_size
        one = mean * right_size - amplitude * right_mean
        two = left_mean * amplitude - left_size * mean
        return float((one + two) / d)

    @staticmethod
    def log_life(numbers: FloatArray, amplitude: float, mean: float) -> float:
        """The polygon that runs through the cycle: closed beside a strength, by Newton on its logarithm between two rays."""
        count = int(numbers[0])
        if mean >= numbers[1] or mean <= -numbers[2]:
            return -400.0
        if amplitude <= 0.0:
            return 400.0
        at = count
        for i in range(count):
            if mean >= amplitude * numbers[3 + 3 * i]:
                at = i
                break
        if at == 0 or at == count:
            own = min(at, count - 1)
            q, first, rate = numbers[3 + 3 * own], numbers[4 + 3 * own], numbers[5 + 3 * own]
            strength, arm = (numbers[1], amplitude * q - mean) if at == 0 else (numbers[2], mean - amplitude * q)
            if strength + arm <= 0.0:  # no amplitude of this ray is on a line with the strength and the cycle
                return -20.0
            found = math.log(first / (strength * amplitude / (strength + arm))) / rate
        else:
            left_q, left, left_rate = numbers[3 * at], numbers[1 + 3 * at], numbers[2 + 3 * at]
            right_q, right, right_rate = numbers[3 + 3 * at], numbers[4 + 3 * at], numbers[5 + 3 * at]
            over, under = (mean - amplitude * right_q) * right, (amplitude * left_q - mean) * left
            whole = math.log(left * right * (left_q - right_q))
            share = (mean / amplitude - right_q) / (left_q - right_q)
            found = (
                share * math.log(left / amplitude) / left_rate
                + (1.0 - share) * math.log(right / amplitude) / right_rate
            )
            for _ in range(100):  # rising and bent one way: it cannot miss
                part = over * math.exp((left_rate - right_rate) * found)
                gap = math.log(part + under) + right_rate * found - whole
                step = gap / (right_rate + (left_rate - right_rate) * part / (part + under))
                found -= step
                if abs(step) <= 1e-14 * max(1.0, abs(found)):
                    break
        return float(min(max(found / 2.302585092994046, -20.0), 299.0))

    def steps(self, symbol: str, amplitude: float, mean: float, units: UnitSystem) -> list[Step]:
        """The life at which the line between the two corners runs through the cycle, looked for; its corners there."""
        unit, given = display_unit("stress", units), self.numbers
        log = self.log_life(given, amplitude, mean)
        life = 10.0**log
        ratio = mean / amplitude
        at = next((i for i, row in enumerate(self.rows) if ratio >= (1.0 + row[0]) / (1.0 - row[0])), len(self.rows))
        corners, steps = [], []
        for i, label in ((at - 1, "upper"), (at, "lower")):
            if 0 <= i < len(self.rows):
                r, a, b = self.rows[i]
                size = a * life**-b
                corners.append(((1.0 + r) / (1.0 - r) * size, size))
                steps.append(
                    Step(
                        f"Amplitude of {symbol} borne at R = {number(r)}, the {label} of the rays beside the cycle",
                        "S_R = A N^(-b)",
                        f"{put_in(float(shown(a, 'stress', units)))} {unit} × {put_in(life)}^(-{put_in(b)})",
                        float(shown(size, "stress", units)),
                        unit,
                    )
                )
            else:
                corners.append((self.tension, 0.0) if i < 0 else (-self.compression, 0.0))
        (m1, a1), (m2, a2) = (tuple(float(shown(one, "stress", units)) for one in corner) for corner in corners)
        sm = float(shown(mean, "stress", units))
        on_line = f"{put_in(a1)} + ({put_in(a2)} - {put_in(a1)}) × ({put_in(sm)} - {put_in(m1)}) / ({put_in(m2)} - {put_in(m1)})"
        steps.append(
            Step(
                "Amplitude on the line between both corners at the mean of the cycle: its own, so that this life is the one",
                "S_a = S_1 + (S_2 - S_1) (S_m - S_m1) / (S_m2 - S_m1)",
                f"{on_line} {unit}",
                a1 + (a2 - a1) * (sm - m1) / (m2 - m1),
                unit,
                source=self.origin,
            )
        )
        steps.append(Step(f"Life under {symbol}", "N = the one looked for", put_in(life), life, "cycles"))
        return steps

    @property
    def words(self) -> str:
        """Strengths and R."""
        return (
            f"{number(self.tension)} MPa over R = {', '.join(number(row[0]) for row in self.rows)} "
            f"to -{number(self.compression)} MPa"
        )
