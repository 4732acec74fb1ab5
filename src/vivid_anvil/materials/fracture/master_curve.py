"""Toughness in the transition, by the master curve: from its reference temperature, or that of 27 J."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.toughness import ROOT_1000, TOUGHNESSES, FoundToughness, Toughness
from vivid_anvil.units import Coherent, Temperature
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

FROM_27_J = -18.0  # K, T_0 less the temperature of 27 J
FAR = (-50.0, 50.0)  # K from T_0, within which the curve was tested


def master_k(
    temperature: float, reference_temperature: float, crack_front: float, probability: float, reference: float = 25.0
) -> float:
    """K, MPa√mm, with that probability of failure at or below it; temperatures in °C, lengths in mm.

    20 + (11 + 77 e^(0.019 (T - T_0))) (B_ref/B)^1/4 (ln 1/(1 - P))^1/4 MPa√m (Wallin 1991).

    >>> round(master_k(-20.0, -60.0, 40.0, 0.05) / ROOT_1000, 4)
    94.3236
    """
    above = 11.0 + 77.0 * math.exp(0.019 * (temperature - reference_temperature))
    return float(ROOT_1000 * (20.0 + above * (reference / crack_front * -math.log1p(-probability)) ** 0.25))


@TOUGHNESSES.add("master curve")
@dataclass(frozen=True, kw_only=True)
class MasterCurve(Toughness):
    """Toughness of a ferritic steel in the transition at the temperature of the metal, at a probability of failure.

    Parameters
    ----------
    reference_temperature : float or text with a scale, optional
        T_0, °C, at which the median of 25 mm is 100 MPa√m.
    temperature_of_27_joules : float or text with a scale, optional
        °C, of Charpy-V specimens, in its place: T_0 is 18 K below it, an estimate.
    probability : float, default 0.05
        Of failure at or below the toughness, -.
    margin : float, default 0.0
        K added to T_0; 25 K is usual with the temperature of 27 J.
    reference_thickness : float or text with a unit, default 25.0
        mm; 25.4 mm in ASTM E1921.

    Raises
    ------
    InputError
        Unless one of both temperatures is given; for a probability outside 0 to 1.

    Examples
    --------
    >>> MasterCurve(reference_temperature="-60 °C").t0
    -60.0
    """

    reference_temperature: Temperature = Temperature()
    temperature_of_27_joules: Temperature = Temperature()
    probability: Coherent = Coherent("number", above=0.0, below=1.0, default=0.05)
    margin: Coherent = Coherent("number", at_least=0.0, below=100.0, default=0.0)
    reference_thickness: Coherent = Coherent("length", above=0.0, default=25.0)

    def __post_init__(self) -> None:
        if (self.reference_temperature is None) == (self.temperature_of_27_joules is None):
            both = self.reference_temperature is not None
            raise InputError(
                inside("toughness", "reference_temperature"),
                "both temperatures" if both else "none",
                "reference_temperature or temperature_of_27_joules",
                "One of both.",
            )

    @property
    def t0(self) -> float:
        """T_0 with the margin, °C."""
        own = self.reference_temperature
        if own is None:
            own = float(self.temperature_of_27_joules or 0.0) + FROM_27_J
        return own + self.margin

    @property
    def rough(self) -> bool:
        """Whether T_0 is an estimate."""
        return self.reference_temperature is None

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """At the temperature of the metal."""
        t = metal.temperature
        if t is None:
            raise InputError(
                f"metal {metal.material.name}, temperature",
                "none",
                "the temperature at which the flaw is assessed",
                "The master curve goes with it: temperature = '-10 °C'.",
            )
        k = master_k(t, self.t0, crack_front, self.probability, self.reference_thickness)
        steps = []
        if self.reference_temperature is None:
            from_27 = f"{put_in(float(self.temperature_of_27_joules or 0.0))} °C - 18 K + {put_in(self.margin)} K"
            steps.append(
                Step("Reference temperature", "T_0 = T_27J - 18 K + margin", from_27, self.t0, "°C", "BS 7910, annex J")
            )
        numbers = (
            f"20 + (11 + 77 × e^(0.019 × ({put_in(t)} - {put_in(self.t0)}))) × ({put_in(self.reference_thickness)} / "
            f"{put_in(crack_front)})^(1/4) × (ln(1 / (1 - {put_in(self.probability)})))^(1/4)"
        )
        formula = "K_mat = 20 + (11 + 77 × e^(0.019 × (T - T_0))) × (B_0 / B)^(1/4) × (ln(1/(1 - P)))^(1/4), MPa√m"
        steps.append(
            Step("Toughness by the master curve", formula, numbers, k / ROOT_1000, "MPa√m", "Wallin 1991; ASTM E1921")
        )
        return FoundToughness(k, tuple(steps), tuple(self._findings(t)), self.rough)

    def _findings(self, temperature: float) -> list[Finding]:
        low, high = FAR
        away = temperature - self.t0
        side = "above" if away > 0.0 else "below"
        if low <= away <= high:
            return []
        return [
            Finding(
                "warning",
                "master-curve-far",
                f"{temperature:g} °C lies {abs(away):.0f} K {side} T_0, where the master curve was not tested.",
                "Above it ductile tearing comes first: take the lower of this and a toughness of the upper shelf."
                if away > 0.0
                else "Take the lower shelf.",
            )
        ]
