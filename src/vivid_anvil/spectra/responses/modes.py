"""Modes of a structure on a moving base, or under a force: the stress at a place as their sum.

q̈_r + 2 ζ_r ω_r q̇_r + ω_r² q_r = -Γ_r a(t) on a base, +φ_r F(t) under a force; stress = Σ s_r q_r.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.spectra.responses.damping import Damping, dampings
from vivid_anvil.spectra.responses.response import RESPONSES, ComplexArray, Resonance, Response
from vivid_anvil.units import coherent_values

INPUTS = {"base acceleration": -1.0, "force": 1.0}


def modal_coordinates(
    frequency: FloatArray, natural_frequency: FloatArray, damping: tuple[Damping, ...]
) -> ComplexArray:
    """1/(ω_r² - ω² + 2iζ_r ω_r ω), s², for each frequency and mode: shape (frequencies, modes).

    >>> quiet = modal_coordinates(np.array([0.0]), np.array([10.0]), (Damping(0.02),))
    >>> f"{1.0 / quiet[0, 0].real:.1f}"
    '3947.8'
    """
    f = np.asarray(frequency, dtype=np.float64)[..., None]
    found = [
        1.0 / ((2.0 * np.pi * own) ** 2 * (1.0 - (f[..., 0] / own) ** 2 + 1j * one.term(f[..., 0] / own)))
        for own, one in zip(natural_frequency, damping, strict=True)
    ]
    return np.stack(found, axis=-1)


@RESPONSES.add("modes")
@dataclass(frozen=True, kw_only=True, eq=False)
class ModalResponse(Response):
    """Stress at a place by the modes of a structure: natural frequencies, damping, participation factors, modal stresses.

    Participation factors and modal stresses go with one normalisation of the modes: that to a modal mass of 1 t. Phases between
    modes count, so that close modes may add up or cancel.

    Parameters
    ----------
    natural_frequency : ndarray or sequence of float or str, shape (modes,)
        Hz; above 0.
    participation : ndarray, shape (modes,)
        Participation factor of each, √t; under a force the deflection of each there, 1/√t.
    modal_stress : ndarray, shape (modes,)
        Stress for a modal coordinate of 1, MPa/(mm √t).
    damping_ratio, quality_factor, loss_factor : float or sequence of float, optional
        One for all modes, or one each, by one of these words; 0.02 of critical, with a finding, where none is given.
    input : str, default "base acceleration"
        "base acceleration", or "force".
    static_residual : float, default 0.0
        What the modes left out give to a slow input, MPa for 1 mm/s² (or 1 N).

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> bracket = ModalResponse(
    ...     natural_frequency=[45.0, 130.0], participation=[1.8, -0.9], modal_stress=[15.0, 48.0], damping_ratio=0.02
    ... )
    >>> f"{abs(bracket.at(np.array([45.0]))[0]) * 9806.65:.1f} MPa per g"
    '82.8 MPa per g'
    """

    natural_frequency: FloatArray
    participation: FloatArray
    modal_stress: FloatArray
    damping_ratio: float | tuple[float, ...] | None = None
    quality_factor: float | tuple[float, ...] | None = None
    loss_factor: float | tuple[float, ...] | None = None
    input: str = "base acceleration"
    static_residual: float = 0.0

    def __post_init__(self) -> None:
        where = "modes"
        checks.one_of(inside(where, "input"), self.input, tuple(INPUTS))
        checks.real_number(inside(where, "static_residual"), self.static_residual)
        for name, unit in (("natural_frequency", "Hz"), ("participation", "√t"), ("modal_stress", "MPa/(mm √t)")):
            own: Any = getattr(self, name)
            if name == "natural_frequency":
                own = np.atleast_1d(coherent_values(own, "frequency", inside(where, name)))
            row = checks.finite_samples(own, where=inside(where, name), unit=unit)
            object.__setattr__(self, name, read_only(np.array(row)))
        modes = self.natural_frequency.size
        for name in ("participation", "modal_stress"):
            if getattr(self, name).size != modes:
                raise InputError(
                    inside(where, name),
                    f"{getattr(self, name).size} values for {modes} natural frequencies",
                    "one for each mode",
                    "Modal stresses need the participation factor of the same mode, in the same order.",
                )
        if not (self.natural_frequency > 0.0).all():
            raise InputError(
                inside(where, "natural_frequency"),
                f"{self.natural_frequency.min():g} Hz",
                "frequencies above 0",
                "A rigid-body mode has no stress: leave it out.",
            )
        assert len(self.damping) == modes

    @property
    def takes(self) -> str | None:
        """An acceleration of the base, or a force."""
        return "force" if self.input == "force" else "acceleration"

    @property
    def damping(self) -> tuple[Damping, ...]:
        """Of each mode."""
        words = (self.damping_ratio, self.quality_factor, self.loss_factor)
        return dampings(*words, modes=self.natural_frequency.size)

    @property
    def gains(self) -> FloatArray:
        """Modal stress times participation, with the sign of the input, shape (modes,): MPa/(mm √t) √t."""
        return np.asarray(INPUTS[self.input] * self.modal_stress * self.participation)

    def at(self, frequency: FloatArray) -> ComplexArray:
        """The sum over modes, and what the others give statically."""
        each = modal_coordinates(frequency, self.natural_frequency, self.damping)
        return np.asarray(each @ self.gains + INPUTS[self.input] * self.static_residual)

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """One a mode."""
        rows = zip(self.natural_frequency.tolist(), self.damping, strict=True)
        return tuple(Resonance(own, one.ratio) for own, one in rows)

    @property
    def assumed_damping(self) -> bool:
        """Whether no word for it was given."""
        return any(one.assumed for one in self.damping)

    @property
    def words(self) -> str:
        """How many, from where to where."""
        low, high = float(self.natural_frequency.min()), float(self.natural_frequency.max())
        many = self.natural_frequency.size
        return f"{many} modes, {low:g} to {high:g} Hz" if many > 1 else f"one mode at {low:g} Hz"
