"""The oscillators that a test and a service are compared by, and the damage that each input does to them.

An oscillator of natural frequency fn and quality factor Q = 1/(2ζ) stands on the base that shakes; the stress in it goes with its
relative displacement, amplitude K z, under N S^b = C. So only ratios of damage mean something, and K and C are 1 unless stated.
Lalanne (2002), Mechanical Vibration and Shock, vol. 5.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.special import gamma

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import coherent_values

USUAL_Q = 10.0


@dataclass(frozen=True, eq=False)
class Oscillators:
    """Oscillators of many natural frequencies, with one quality factor and one slope.

    Parameters
    ----------
    natural_frequency : ndarray or sequence of float or str, shape (n,)
        Hz; above 0, ascending.
    slope : float
        b of N S^b = C: that of the S-N curve of what is tested.
    quality_factor : float, default 10.0
        Q = 1/(2ζ) of all.
    stress_per_displacement : float, default 1.0
        K, MPa/mm: only where damage itself, and not a ratio of two, is wanted.
    constant : float, default 1.0
        C, for amplitudes in MPa: likewise.

    Raises
    ------
    InputError
        For frequencies that do not ascend, and values that are not above 0.

    Examples
    --------
    >>> Oscillators.spaced("5 Hz", "500 Hz", slope=8.0, per_octave=3).natural_frequency.size
    21
    """

    natural_frequency: FloatArray
    slope: float
    quality_factor: float = USUAL_Q
    stress_per_displacement: float = 1.0
    constant: float = 1.0

    def __post_init__(self) -> None:
        where = "oscillators"
        given = np.atleast_1d(coherent_values(self.natural_frequency, "frequency", inside(where, "natural_frequency")))
        row = checks.finite_samples(given, where=inside(where, "natural_frequency"), unit="Hz")
        if not row[0] > 0.0 or (np.diff(row) <= 0.0).any():
            raise InputError(
                inside(where, "natural_frequency"), checks.reach(row) + " Hz", "ascending frequencies above 0"
            )
        object.__setattr__(self, "natural_frequency", read_only(np.array(row)))
        for name in ("slope", "quality_factor", "stress_per_displacement", "constant"):
            checks.positive_number(inside(where, name), getattr(self, name))
        if not self.quality_factor > 0.5:
            raise InputError(
                inside(where, "quality_factor"),
                f"{self.quality_factor:g}",
                "a Q above 0.5",
                "Q is 1/(2ζ): 10 for ζ = 0.05.",
            )

    @classmethod
    def spaced(
        cls, low: float | str, high: float | str, *, slope: float, per_octave: int = 12, quality_factor: float = USUAL_Q
    ) -> Oscillators:
        """Evenly spaced over the logarithm of the frequency, from `low` to `high`, Hz or text.

        >>> Oscillators.spaced(10.0, 40.0, slope=5.0, per_octave=2).natural_frequency.round(2)
        array([10.  , 14.14, 20.  , 28.28, 40.  ])
        """
        first, last = (
            checks.positive_number("oscillators", float(coherent_values(one, "frequency", "oscillators")))
            for one in (low, high)
        )
        if not first < last:
            raise InputError("oscillators", f"{first:g} to {last:g} Hz", "a lower and a higher frequency")
        many = max(
            2, round(checks.positive_number("oscillators, per_octave", per_octave) * math.log2(last / first)) + 1
        )
        return cls(first * (last / first) ** (np.arange(many) / (many - 1)), slope, quality_factor)

    @property
    def omega(self) -> FloatArray:
        """2π fn, rad/s."""
        return np.asarray(2.0 * np.pi * self.natural_frequency)

    @property
    def damping_ratio(self) -> float:
        """ζ."""
        return 0.5 / self.quality_factor

    def damage_of_sums(self, sums: FloatArray) -> FloatArray:
        """Damage for Σ amplitude^b of the relative displacement, mm^b."""
        return np.asarray(self.stress_per_displacement**self.slope / self.constant * sums)

    def sums_of_narrow_band(self, rms: FloatArray, cycles: FloatArray) -> FloatArray:
        """Σ amplitude^b of so many Rayleigh amplitudes: n (√2 rms)^b Γ(1 + b/2)."""
        b = self.slope
        return np.asarray(cycles * (math.sqrt(2.0) * rms) ** b * gamma(1.0 + 0.5 * b))

    def level_for(self, damage: FloatArray, time: float) -> FloatArray:
        """The flat PSD, (mm/s²)²/Hz, under which each oscillator has the damage in `time`, s.

        G = 2ω³/Q [D C/(K^b fn T Γ(1 + b/2))]^(2/b), from z_rms² = Q G/(4ω³) and ν0 = fn.
        """
        b, omega = self.slope, self.omega
        each = damage * self.constant / (self.stress_per_displacement**b * self.natural_frequency * time)
        return np.asarray(2.0 * omega**3 / self.quality_factor * (each / gamma(1.0 + 0.5 * b)) ** (2.0 / b))

    def steps(self, interval: float) -> FloatArray:
        """The exact step of each over `interval`, s, for a base acceleration that runs straight: shape (n, 8).

        (z, z') after it from (z, z', a at its start, a at its end). Nigam & Jennings (1969), Bulletin of the Seismological
        Society of America 59, 909-922.
        """
        w, zeta = self.omega, self.damping_ratio
        damped = w * math.sqrt(1.0 - zeta**2)
        decay, s, c = np.exp(-zeta * w * interval), np.sin(damped * interval), np.cos(damped * interval)
        a11, a12 = decay * (c + zeta * w / damped * s), decay * s / damped
        a21, a22 = -decay * w**2 / damped * s, decay * (c - zeta * w / damped * s)
        # of a = a0 + k t a particular solution is z = -a/ω² + 2ζk/ω³, z' = -k/ω²; k is -1/interval for a0 = 1, else 1/interval
        first, lag = -1.0 / w**2, 2.0 * zeta / (w**3 * interval)
        z0, v0, end0 = first - lag, -first / interval, -lag
        z1, v1, end1 = lag, first / interval, first + lag
        b1, b2 = end0 - a11 * z0 - a12 * v0, end1 - a11 * z1 - a12 * v1
        d1, d2 = v0 - a21 * z0 - a22 * v0, v1 - a21 * z1 - a22 * v1
        return np.ascontiguousarray(np.column_stack([a11, a12, b1, b2, a21, a22, d1, d2]))
