"""Primary stresses, which a section has to carry: they make it collapse, and load the crack.

The load of the assessment (a proof load, the largest of a hundred years), apart from the ranges of fatigue.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, NamedTuple

from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import Step, put_in

PRIMARY: Choices[type[Primary]] = Choices("primary stress")


class Outer(NamedTuple):
    """Membrane and bending stress over the wall, MPa; bending above 0 pulls at the face with the flaw; or a profile."""

    membrane: float
    bending: float
    profile: StressProfile | None = None


class Primary(ABC):
    """Stresses of a load."""

    kind: ClassVar[str]

    @abstractmethod
    def at_crack(self, wall: float | None) -> Outer:
        """Stresses that the K is of, with concentration and misalignment, over a wall, mm."""

    @abstractmethod
    def at_section(self, wall: float | None) -> Outer:
        """Membrane and bending stress that the collapse of the section is of."""

    @abstractmethod
    def steps(self) -> tuple[Step, ...]:
        """How they come about."""


@PRIMARY.add("stresses")
@dataclass(frozen=True, kw_only=True)
class PrimaryStresses(Primary):
    """Membrane and bending stress across the wall, as calculated without the flaw.

    Parameters
    ----------
    membrane : float or text with a unit, default 0.0
        P_m, MPa.
    bending : float or text with a unit, default 0.0
        P_b, MPa; above 0 where it pulls at the face with the flaw.
    misalignment_factor : float, default 1.0
        k_m of welds that are not in line: (k_m - 1) P_m is added to the bending stress, -.
    membrane_concentration : float, default 1.0
        Factor on the membrane stress at the crack, for a stress raiser that the calculation left out; it does not count for
        the collapse of the section, -.
    bending_concentration : float, default 1.0
        The same on the bending stress, -.

    Raises
    ------
    InputError
        For factors below 1.

    Examples
    --------
    >>> PrimaryStresses(membrane="150 MPa", bending="20 MPa", misalignment_factor=1.2).at_section()[:2]
    (150.0, 50.0)
    """

    membrane: Coherent = Coherent("stress", default=0.0)
    bending: Coherent = Coherent("stress", default=0.0)
    misalignment_factor: Coherent = Coherent("number", at_least=1.0, below=5.0, default=1.0)
    membrane_concentration: Coherent = Coherent("number", at_least=1.0, below=20.0, default=1.0)
    bending_concentration: Coherent = Coherent("number", at_least=1.0, below=20.0, default=1.0)

    def at_section(self, wall: float | None = None) -> Outer:
        """P_m, and P_b with the misalignment."""
        return Outer(self.membrane, self.bending + (self.misalignment_factor - 1.0) * self.membrane)

    def at_crack(self, wall: float | None = None) -> Outer:
        """k_tm P_m, and k_tb (P_b + (k_m - 1) P_m)."""
        own = self.at_section()
        return Outer(self.membrane_concentration * own.membrane, self.bending_concentration * own.bending)

    def steps(self) -> tuple[Step, ...]:
        """Misalignment, where there is some."""
        if self.misalignment_factor == 1.0:
            return ()
        numbers = f"{put_in(self.bending)} MPa + ({put_in(self.misalignment_factor)} - 1) × {put_in(self.membrane)} MPa"
        value = self.at_section().bending
        return (
            Step(
                "Bending with misalignment", "P_b = P_b0 + (k_m - 1) × P_m", numbers, value, "MPa", "BS 7910, annex D"
            ),
        )


DIRECTIONS = {"around": "hoop stress of a cylinder", "along": "axial stress of a closed cylinder", "sphere": "sphere"}


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


@PRIMARY.add("profile")
@dataclass(frozen=True, kw_only=True, eq=False)
class PrimaryProfile(Primary):
    """A stress over the wall, as of a finite-element model without the flaw: K by weight functions, collapse by its linear part.

    Parameters
    ----------
    points : sequence of rows
        Depth below the face with the flaw, mm, from 0, and stress, MPa, each or text with its unit.

    Raises
    ------
    InputError
        For depths that do not ascend from 0, and rows that end within the wall.

    Examples
    --------
    >>> own = PrimaryProfile(points=[(0.0, 200.0), (20.0, 100.0)])
    >>> [round(one, 9) for one in own.at_section(20.0)[:2]]
    [150.0, 50.0]
    """

    points: Sequence[Any]

    def __post_init__(self) -> None:
        if not isinstance(self.points, StressProfile):
            object.__setattr__(self, "points", StressProfile(self.points, where=inside("primary stress", "points")))

    def at_section(self, wall: float | None) -> Outer:
        """Mean and linear part over the wall."""
        own: Any = self.points
        if wall is None:
            found = "a flaw whose shape has no wall"
            raise InputError(
                "primary stress, points", found, "a plate, cylinder or sphere", "State membrane and bending."
            )
        if own.reach < wall * (1.0 - 1e-9):
            found = f"points to {own.reach:g} mm"
            raise InputError(
                "primary stress, points", found, f"points to {wall:g} mm, the wall", "Nothing is extrapolated."
            )
        return Outer(*own.means(wall))

    def at_crack(self, wall: float | None) -> Outer:
        """As it is."""
        own: Any = self.points
        return Outer(0.0, 0.0, own)

    def steps(self) -> tuple[Step, ...]:
        """None: its means stand beside the reference stress."""
        return ()
