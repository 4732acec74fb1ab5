"""Toughness stated as a crack tip opening displacement."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.toughness import (
    TOUGHNESSES,
    FoundToughness,
    Toughness,
    at_front,
    refuse_large,
    thinner,
)
from vivid_anvil.units import Coherent, OptionalCoherent
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

LEAST, LARGEST = 0.001, 5.0  # mm
RATIOS = (0.3, 0.98)  # of yield to ultimate strength, within which m is estimated


@TOUGHNESSES.add("CTOD")
@dataclass(frozen=True, kw_only=True)
class CTODToughness(Toughness):
    """A toughness stated as CTOD: K = √(m σ_y δ E / (1 - ν²)), m = 1.517 (σ_y/σ_u)^-0.3188 unless stated.

    Parameters
    ----------
    ctod : float or text with a unit
        δ, mm, or text such as "0.15 mm".
    m : float, optional
        Factor between CTOD and J, -; by default estimated from the strengths, for 0.3 < σ_y/σ_u < 0.98.
    specimen_thickness : float or text with a unit, optional
        Of the tests, mm: the toughness is then carried to the crack front of the flaw.

    Raises
    ------
    InputError
        For a δ of less than a micrometre or more than 5 mm.

    Examples
    --------
    >>> CTODToughness(ctod="0.15 mm").ctod
    0.15
    """

    ctod: Coherent = Coherent("length", above=0.0)
    m: OptionalCoherent = OptionalCoherent("number", above=0.5, below=4.0)
    specimen_thickness: OptionalCoherent = OptionalCoherent("length", above=0.0)

    def __post_init__(self) -> None:
        if self.ctod < LEAST:
            found = f"{self.ctod:g} mm"
            raise InputError(inside("toughness", "ctod"), found, "0.001 mm or more", "Is it in m? State its unit.")
        refuse_large("toughness", "ctod", self.ctod, LARGEST, "mm", "Is it in µm? State its unit.")

    def factor(self, metal: Metal) -> float:
        """m, as stated or estimated."""
        if self.m is not None:
            return self.m
        low, high = metal.strengths
        if not RATIOS[0] < low / high < RATIOS[1]:
            raise InputError(
                inside("toughness", "m"),
                f"none for σ_y/σ_u = {low / high:.3g}",
                "m stated outside 0.3 to 0.98, where it is not estimated",
            )
        return 1.517 * float((low / high) ** -0.3188)

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """By the strengths and the stiffness of the metal."""
        m, low = self.factor(metal), metal.strengths[0]
        k = float((m * low * self.ctod * metal.stiffness) ** 0.5)
        steps = []
        if self.m is None:
            ratio = f"1.517 × ({put_in(low)} / {put_in(metal.strengths[1])})^(-0.3188)"
            steps.append(
                Step("Factor from CTOD to J", "m = 1.517 × (σ_y / σ_u)^(-0.3188)", ratio, m, "", "BS 7910:2013")
            )
        numbers = f"√({put_in(m)} × {put_in(low)} MPa × {put_in(self.ctod)} mm × {put_in(metal.stiffness)} MPa)"
        steps.append(
            Step("Toughness from CTOD", "K_mat = √(m × σ_y × δ × E / (1 - ν^2))", numbers, k, "MPa√mm", "BS 7910:2013")
        )
        own, carried = at_front(k, self.specimen_thickness, crack_front)
        return FoundToughness(own, (*steps, *carried), thinner(self.specimen_thickness, crack_front))
