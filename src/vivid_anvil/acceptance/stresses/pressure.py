"""The stress of an internal pressure across a flaw."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.acceptance.stresses.primary import PRIMARY, Outer, Primary
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, sound
from vivid_anvil.writing.working import Step, put_in

DIRECTIONS = {"around": "hoop stress of a cylinder", "along": "axial stress of a closed cylinder", "sphere": "sphere"}


@sound
@PRIMARY.add("pressure")
@dataclass(frozen=True, kw_only=True)
class PressureStress(Primary):
    """Stress of an internal pressure across a flaw, linear over the wall (Lamé), and on the crack faces if it lies inside.

    Parameters
    ----------
    pressure : float or text with a unit
        Internal pressure, MPa.
    inner_radius : float or text with a unit
        mm.
    wall : float or text with a unit
        mm.
    direction : str
        Which stress pulls at the flaw: one of `DIRECTIONS`.
    flaw_inside : bool, default False
        Whether the flaw lies on the inner face, where the pressure acts in it too.

    Raises
    ------
    InputError
        For another direction.

    Examples
    --------
    >>> own = PressureStress(pressure="10 MPa", inner_radius="500 mm", wall="25 mm", direction="around").at_section()
    >>> round(own.membrane, 6), round(own.bending, 3)
    (200.0, -5.0)
    """

    pressure: Coherent = Coherent("stress", above=0.0)
    inner_radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    direction: str
    flaw_inside: bool = False

    def __post_init__(self) -> None:
        if self.direction not in DIRECTIONS:
            raise InputError(
                inside("primary stress", "direction"), repr(self.direction), "'around', 'along' or 'sphere'"
            )

    @property
    def _faces(self) -> tuple[float, float]:
        """Stress at the inner and outer face, MPa."""
        p, r, outer = self.pressure, self.inner_radius, self.inner_radius + self.wall
        if self.direction == "along":
            both = p * r**2 / (outer**2 - r**2)
            return both, both
        if self.direction == "around":
            base = p * r**2 / (outer**2 - r**2)
            return base * (1.0 + (outer / r) ** 2), 2.0 * base
        base = p * r**3 / (outer**3 - r**3)
        return base * (1.0 + 0.5 * (outer / r) ** 3), 1.5 * base

    def at_section(self, wall: float | None = None) -> Outer:
        """Mean over the wall as the equilibrium has it, and half of the difference between both faces."""
        p, r, t = self.pressure, self.inner_radius, self.wall
        mean = {
            "around": p * r / t,
            "along": p * r**2 / ((r + t) ** 2 - r**2),
            "sphere": p * r**2 / ((r + t) ** 2 - r**2),
        }[self.direction]
        inner, outer = self._faces
        half = 0.5 * (inner - outer)
        return Outer(mean, half if self.flaw_inside else -half)

    def at_crack(self, wall: float | None = None) -> Outer:
        """The same, with the pressure on the crack faces where the flaw lies inside."""
        own = self.at_section()
        return Outer(own.membrane + (self.pressure if self.flaw_inside else 0.0), own.bending)

    def steps(self) -> tuple[Step, ...]:
        """The mean stress."""
        p, r, t = put_in(self.pressure), put_in(self.inner_radius), put_in(self.wall)
        formula = "P_m = p × R_i^2 / ((R_i + t)^2 - R_i^2)", f"{p} MPa × {r}^2 / (({r} + {t})^2 - {r}^2)"
        if self.direction == "around":
            formula = "P_m = p × R_i / t", f"{p} MPa × {r} / {t}"
        title = f"Membrane stress of the pressure, {DIRECTIONS[self.direction]}"
        return (Step(title, *formula, self.at_section().membrane, "MPa", "equilibrium"),)
