"""Toughness estimated from a Charpy energy: lower shelf and transition, or upper shelf."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, ClassVar

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.toughness import ROOT_1000, TOUGHNESSES, FoundToughness, Toughness, refuse_large
from vivid_anvil.units import Coherent, Temperature, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

CORRELATIONS = ("lower shelf and transition", "upper shelf")
FRONT = 25.0  # mm


@sound
@TOUGHNESSES.add("Charpy energy")
@dataclass(frozen=True, kw_only=True)
class CharpyToughness(Toughness):
    """A toughness estimated from a Charpy-V energy; always an estimate, on the safe side of tests.

    Parameters
    ----------
    energy : float or text with a unit
        J, of the full specimen of 10 mm by 10 mm, at the temperature of the flaw.
    correlation : str
        "lower shelf and transition", or "upper shelf" where all of the surface was ductile.
    tested_at : float or text with a scale
        Temperature of the Charpy tests, °C; the flaw is not colder.

    Raises
    ------
    InputError
        For another correlation, energies that no specimen has, and a flaw that is colder than the tests.

    Examples
    --------
    >>> CharpyToughness(energy="40 J", correlation="lower shelf and transition", tested_at="-20 °C").energy
    40.0
    """

    energy: Coherent = Coherent("energy", above=0.0)
    correlation: str
    tested_at: Temperature = Temperature()
    estimated: ClassVar[bool] = True

    def __post_init__(self) -> None:
        if self.correlation not in CORRELATIONS:
            raise InputError(
                inside("toughness", "correlation"),
                repr(self.correlation),
                f"{CORRELATIONS[0]!r} or {CORRELATIONS[1]!r}",
            )
        if self.energy < 3.0:
            raise InputError(
                inside("toughness", "energy"), f"{self.energy:g} J", "3 J or more", "Is it in J/cm² or kJ?"
            )
        refuse_large(
            "toughness", "energy", self.energy, 400.0, "J", "Is it in J/cm²? A specimen of 80 mm² has 0.8 of it."
        )

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """By the correlation."""
        self._warm_enough(metal)
        upper = self.correlation == CORRELATIONS[1]
        k, step = self._upper(metal) if upper else self._lower(crack_front)
        told = Finding(
            "warning",
            "toughness-estimated",
            f"The toughness, {k / ROOT_1000:.3g} MPa√m, is estimated from a Charpy energy of {self.energy:g} J.",
            "Correlations lie on the safe side of most tests: where it decides, test the fracture toughness itself.",
        )
        return FoundToughness(k, (step,), (told,), True)

    def _warm_enough(self, metal: Metal) -> None:
        if self.tested_at is None:
            raise InputError(
                inside("toughness", "tested_at"), "none", "the temperature of the Charpy tests", "Such as '-20 °C'."
            )
        t = metal.temperature
        if t is None:
            raise InputError(
                f"metal {metal.material.name}, temperature", "none", "the temperature of the flaw", "Such as '-10 °C'."
            )
        if t < self.tested_at:
            raise InputError(
                f"metal {metal.material.name}, temperature",
                f"{t:g} °C, colder than the Charpy tests at {self.tested_at:g} °C",
                "a flaw that is not colder than the tests",
                "Test at that temperature, or take the master curve from the temperature of 27 J.",
            )

    def _lower(self, crack_front: float) -> tuple[float, Step]:
        k = (12.0 * self.energy**0.5 - 20.0) * (FRONT / crack_front) ** 0.25 + 20.0
        numbers = f"(12 × √{put_in(self.energy)} - 20) × (25 / {put_in(crack_front)})^(1/4) + 20"
        formula = "K_mat = (12 × √C_v - 20) × (25 / B)^(1/4) + 20, MPa√m"
        return k * ROOT_1000, Step(
            "Toughness from the Charpy energy", formula, numbers, k, "MPa√m", "BS 7910:2013, annex J"
        )

    def _upper(self, metal: Metal) -> tuple[float, Step]:
        j = 0.53 * self.energy**1.28 * 0.2 ** (0.133 * self.energy**0.256)
        k = float((j * metal.stiffness) ** 0.5)
        energy = put_in(self.energy)
        numbers = f"√(0.53 × {energy}^1.28 × 0.2^(0.133 × {energy}^0.256) × {put_in(metal.stiffness)} MPa)"
        formula = "K_mat = √(0.53 × C_v^1.28 × 0.2^(0.133 × C_v^0.256) × E / (1 - ν^2))"
        return k, Step(
            "Toughness at 0.2 mm of tearing", formula, numbers, k, "MPa√mm", "SINTAP 1999; BS 7910:2013, annex J"
        )
