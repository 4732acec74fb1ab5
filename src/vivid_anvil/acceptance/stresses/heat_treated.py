"""What heat treatment leaves of the residual stress of a weld."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.acceptance.stresses.secondary import SECONDARY, Balanced, Secondary, yield_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.units import OptionalCoherent, sound
from vivid_anvil.writing.working import Step, put_in

HEAT_TREATED = {"along the weld": 0.3, "across the weld": 0.2}


@sound
@SECONDARY.add("heat treated")
@dataclass(frozen=True, kw_only=True)
class HeatTreated(Secondary):
    """What heat treatment after welding leaves: a share of yield, 30 % along the weld, 20 % across it, unless stated.

    Parameters
    ----------
    stress_acts : str
        Which stress pulls at the flaw: "along the weld" or "across the weld".
    share : float, optional
        Share of the yield strength that is left, -.
    yield_strength : float or text with a unit, optional
        Of the metal that sets it, MPa; by default of the weld where it is known, else of the material.

    Raises
    ------
    InputError
        For another direction, or a share above 1.

    Examples
    --------
    >>> HeatTreated(stress_acts="across the weld").part
    0.2
    """

    stress_acts: str
    share: OptionalCoherent = OptionalCoherent("number", at_least=0.0, below=1.0)
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)

    def __post_init__(self) -> None:
        if self.stress_acts not in HEAT_TREATED:
            raise InputError(
                inside("heat treated", "stress_acts"), repr(self.stress_acts), "'along the weld' or 'across the weld'"
            )

    @property
    def part(self) -> float:
        """Share of the yield strength, -."""
        return HEAT_TREATED[self.stress_acts] if self.share is None else self.share

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """The share of yield."""
        return Balanced(self.part * yield_of(metal, self.yield_strength))

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """The share of yield."""
        own = yield_of(metal, self.yield_strength)
        numbers = f"{put_in(self.part)} × {put_in(own)} MPa"
        value = self.part * own
        return (
            Step(
                "Residual stress after heat treatment", "Q_m = share × σ_y", numbers, value, "MPa", "BS 7910, annex Q"
            ),
        )
