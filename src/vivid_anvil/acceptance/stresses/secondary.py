"""Secondary stresses, which balance themselves: thermal and residual stress. They load the crack, but let no section collapse."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar, NamedTuple

from vivid_anvil.ground.choices import Choices
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import Step

SECONDARY: Choices[type[Secondary]] = Choices("secondary stress")


class Balanced(NamedTuple):
    """Membrane and bending part, MPa, and a stress over the wall where it is no straight line."""

    membrane: float = 0.0
    bending: float = 0.0
    profile: StressProfile | None = None


class Secondary(ABC):
    """A stress that is there without load; `moves` where it goes with the load of the assessment."""

    kind: ClassVar[str]
    residual: ClassVar[bool] = True

    @property
    def follows(self) -> bool:
        """Whether it is set by the load of the assessment."""
        return False

    @property
    def moves(self) -> bool:
        """Whether it is another one under every other load, also that of a reserve factor."""
        return False

    @abstractmethod
    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """What it is in that metal, where the load gives that reference stress, MPa, over a wall, mm."""

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """How it comes about."""
        return ()


@SECONDARY.add("stresses")
@dataclass(frozen=True, kw_only=True)
class SecondaryStresses(Secondary):
    """Membrane and bending stress across the wall that balance themselves, as of heat or of a fit.

    Parameters
    ----------
    membrane : float or text with a unit, default 0.0
        Q_m, MPa.
    bending : float or text with a unit, default 0.0
        Q_b, MPa; above 0 where it pulls at the face with the flaw.
    of : str, default "heat"
        What it comes from, in words: "heat", or "residual" for residual stress of a weld.

    Raises
    ------
    InputError
        For a unit of another kind.

    Examples
    --------
    >>> SecondaryStresses(membrane="80 MPa", bending="20 MPa", of="residual").stress(None, 0.0, None)[:2]
    (80.0, 20.0)
    """

    membrane: Coherent = Coherent("stress", default=0.0)
    bending: Coherent = Coherent("stress", default=0.0)
    of: str = "heat"

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """As it is."""
        return Balanced(self.membrane, self.bending)


def yield_of(metal: Metal, stated: float | None) -> float:
    """The yield strength that sets a residual stress, MPa."""
    if stated is not None:
        return stated
    return (
        metal.weld.yield_strength
        if metal.weld is not None
        else metal.material.needed("yield_strength", "residual stress")
    )
