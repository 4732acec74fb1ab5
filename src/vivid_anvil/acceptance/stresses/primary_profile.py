"""A primary stress over the wall, as of a finite-element model without the flaw."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.acceptance.stresses.primary import PRIMARY, Outer, Primary
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import sound
from vivid_anvil.writing.working import Step


@sound
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
