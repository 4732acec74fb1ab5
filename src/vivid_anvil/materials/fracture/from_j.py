"""Toughness stated as J."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from vivid_anvil.materials.fracture.toughness import (
    TOUGHNESSES,
    FoundToughness,
    Toughness,
    at_front,
    k_of_j,
    refuse_large,
    thinner,
)
from vivid_anvil.units import Coherent, OptionalCoherent

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

LARGEST = 5000.0  # N/mm
SAME = "1 kJ/m^2 is 1 N/mm; 1 MPa m is 1000 N/mm. Which one was meant?"


@TOUGHNESSES.add("J")
@dataclass(frozen=True, kw_only=True)
class JToughness(Toughness):
    """A toughness stated as J: K = √(J E / (1 - ν²)).

    Parameters
    ----------
    j : float or text with a unit
        J, N/mm, or text such as "120 kJ/m^2" (1 kJ/m² = 1 N/mm).
    specimen_thickness : float or text with a unit, optional
        Of the tests, mm: the toughness is then carried to the crack front of the flaw.

    Raises
    ------
    InputError
        For a J that is not above 0, or above 5000 N/mm.

    Examples
    --------
    >>> JToughness(j="150 kJ/m^2").j
    150.0
    """

    j: Coherent = Coherent("energy release rate", above=0.0)
    specimen_thickness: OptionalCoherent = OptionalCoherent("length", above=0.0)

    def __post_init__(self) -> None:
        refuse_large("toughness", "j", self.j, LARGEST, "N/mm", SAME)

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """By the stiffness of the metal in plane strain."""
        k, step = k_of_j(self.j, metal)
        own, carried = at_front(k, self.specimen_thickness, crack_front)
        return FoundToughness(own, (step, *carried), thinner(self.specimen_thickness, crack_front))
