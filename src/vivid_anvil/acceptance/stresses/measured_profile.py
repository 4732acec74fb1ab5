"""A residual stress over the wall as it was measured."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.acceptance.stresses.secondary import SECONDARY, Balanced, Secondary
from vivid_anvil.ground.errors import inside
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import sound


@sound
@SECONDARY.add("profile")
@dataclass(frozen=True, kw_only=True, eq=False)
class ProfileStress(Secondary):
    """A stress over the wall, as measured: rows of depth below the face with the flaw and stress, straight between.

    Parameters
    ----------
    points : sequence of rows
        Depth, mm, from 0, and stress, MPa, each or text with its unit.

    Raises
    ------
    InputError
        For depths that do not ascend from 0.

    Examples
    --------
    >>> own = ProfileStress(points=[(0.0, 200.0), (10.0, -50.0), (25.0, 60.0)])
    >>> float(own.stress(None, 0.0, 25.0).profile(5.0))
    75.0
    """

    points: Sequence[Any]

    def __post_init__(self) -> None:
        given: Any = self.points
        if not isinstance(given, StressProfile):
            object.__setattr__(self, "points", StressProfile(given, where=inside("secondary stress", "points")))

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """As measured."""
        own: Any = self.points
        return Balanced(profile=own)
