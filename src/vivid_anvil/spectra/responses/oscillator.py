"""One degree of freedom on a moving base."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import inside
from vivid_anvil.spectra.responses.damping import Damping
from vivid_anvil.spectra.responses.response import RESPONSES, ComplexArray, Resonance, Response
from vivid_anvil.units import Coherent, coherent_ratio

MOTIONS = ("absolute", "relative")


@RESPONSES.add("one degree of freedom")
@dataclass(frozen=True, kw_only=True)
class OneDegreeOfFreedom(Response):
    """Stress in proportion to the acceleration that a mass on a spring feels on a moving base.

    `motion` is what the stress goes with: the "absolute" acceleration of the mass, or its displacement "relative" to the base
    times ωn² (the force in the spring). H = (1 + 2iζr)/(1 - r² + 2iζr) or 1/(1 - r² + 2iζr), r = f/fn.

    Parameters
    ----------
    natural_frequency : float or str
        fn, Hz or text; above 0.
    stress_per_acceleration : float or str
        Stress for an acceleration of the mass, such as "6.5 MPa/g", or MPa for 1 mm/s².
    motion : str, default "absolute"
        "absolute" or "relative".
    damping_ratio, quality_factor, loss_factor : float, optional
        The damping, by one of these words; 0.02 of critical, with a finding, where none is given.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> mass = OneDegreeOfFreedom(natural_frequency="95 Hz", stress_per_acceleration="4 MPa/g", damping_ratio=0.025)
    >>> f"{abs(mass.at(np.array([95.0]))[0]) * 9806.65:.2f} MPa per g"
    '80.10 MPa per g'
    """

    natural_frequency: Coherent = Coherent("frequency", above=0.0)
    stress_per_acceleration: float | str
    motion: str = "absolute"
    damping_ratio: float | None = None
    quality_factor: float | None = None
    loss_factor: float | None = None

    def __post_init__(self) -> None:
        where = "one degree of freedom"
        checks.one_of(inside(where, "motion"), self.motion, MOTIONS)
        checks.positive_number(inside(where, "stress_per_acceleration"), abs(self.per_acceleration), "not 0")
        assert self.damping.ratio > 0.0

    @property
    def takes(self) -> str | None:
        """An acceleration of the base."""
        return "acceleration"

    @property
    def per_acceleration(self) -> float:
        """MPa for 1 mm/s²."""
        where = "one degree of freedom, stress_per_acceleration"
        return coherent_ratio(self.stress_per_acceleration, "stress", "acceleration", where)

    @property
    def damping(self) -> Damping:
        """By the word that was given."""
        return Damping.of(
            damping_ratio=self.damping_ratio,
            quality_factor=self.quality_factor,
            loss_factor=self.loss_factor,
            where="one degree of freedom",
        )

    def at(self, frequency: FloatArray) -> ComplexArray:
        """The magnification, with its phase, times the stress for an acceleration."""
        r = np.asarray(frequency, dtype=np.float64) / self.natural_frequency
        damped = 1j * self.damping.term(r)
        above = 1.0 + damped if self.motion == "absolute" else 1.0
        return np.asarray(self.per_acceleration * above / (1.0 - r**2 + damped))

    def miles_rms(self, level: float) -> float:
        """Rms stress, MPa, under an endless flat base of `level`, (mm/s²)²/Hz: √(π/2 fn Q G) (Miles 1954).

        >>> mass = OneDegreeOfFreedom(natural_frequency=90.0, stress_per_acceleration="1 MPa/g", quality_factor=10.0)
        >>> f"{mass.miles_rms(0.03 * 9806.65**2):.5f}"
        '6.51241'
        """
        checks.positive_number("one degree of freedom, level", level)
        quality = 0.5 / self.damping.ratio
        return abs(self.per_acceleration) * float(np.sqrt(0.5 * np.pi * self.natural_frequency * quality * level))

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """The one."""
        return (Resonance(self.natural_frequency, self.damping.ratio),)

    @property
    def assumed_damping(self) -> bool:
        """Whether no word for it was given."""
        return self.damping.assumed

    @property
    def words(self) -> str:
        """Frequency and damping."""
        d = self.damping
        loss = f"loss factor {2.0 * d.ratio:g}" if d.structural else f"damping ratio {d.ratio:g}"
        return f"one degree of freedom at {self.natural_frequency:g} Hz, {loss}, {self.motion}"
