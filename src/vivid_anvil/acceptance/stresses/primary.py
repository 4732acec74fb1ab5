"""Primary stresses, which a section has to carry: they make it collapse, and load the crack.

The load of the assessment (a proof load, the largest of a hundred years), apart from the ranges of fatigue.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar, NamedTuple

from vivid_anvil.ground.choices import Choices
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
