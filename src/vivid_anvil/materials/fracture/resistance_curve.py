"""Toughness that rises with stable tearing: a J-R curve."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture.from_j import LARGEST, SAME
from vivid_anvil.materials.fracture.toughness import TOUGHNESSES, FoundToughness, Toughness, k_of_j, refuse_large
from vivid_anvil.units import Coherent, OptionalCoherent, coherent
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal


@TOUGHNESSES.add("resistance curve")
@dataclass(frozen=True, kw_only=True)
class ResistanceCurve(Toughness):
    """J over stable tearing: rows, straight between, or J = C (Δa / 1 mm)^n. A flaw is held against J at the `initiation`.

    Parameters
    ----------
    points : sequence of rows, optional
        Tearing Δa, mm, and J, N/mm, both ascending.
    j_at_1_mm : float or text with a unit, optional
        C, N/mm, in place of points.
    exponent : float, optional
        n, -, beside it; below 1.
    largest_tearing : float or text with a unit, optional
        Up to which C and n hold, mm; of points the last.
    initiation : float or text with a unit, default 0.2
        Tearing at which a flaw counts as starting to tear, mm.

    Raises
    ------
    InputError
        For points that do not ascend, or an initiation outside of them.

    Examples
    --------
    >>> curve = ResistanceCurve(j_at_1_mm="300 kJ/m^2", exponent=0.6, largest_tearing="2 mm")
    >>> round(curve.j(0.2), 2)
    114.22
    """

    points: Sequence[Any] | None = None
    j_at_1_mm: OptionalCoherent = OptionalCoherent("energy release rate", above=0.0)
    exponent: OptionalCoherent = OptionalCoherent("number", above=0.0, below=1.0)
    largest_tearing: OptionalCoherent = OptionalCoherent("length", above=0.0)
    initiation: Coherent = Coherent("length", above=0.0, default=0.2)

    def __post_init__(self) -> None:
        where = inside("toughness", "points")
        power = (self.j_at_1_mm, self.exponent, self.largest_tearing)
        if (self.points is None) == (self.j_at_1_mm is None) or (self.points is None and None in power):
            raise InputError(where, "both or neither", "points, or j_at_1_mm with exponent and largest_tearing")
        if self.points is not None:
            if any(one is not None for one in power):
                raise InputError(where, "points beside a power", "one of both")
            object.__setattr__(self, "points", self._rows(where))
            refuse_large("toughness", "points", self.points[-1][1], LARGEST, "N/mm", SAME)
        else:
            refuse_large("toughness", "j_at_1_mm", self.j_at_1_mm or 0.0, LARGEST, "N/mm", SAME)
        low, high = self.reach
        if not low <= self.initiation <= high:
            found = f"{self.initiation:g} mm"
            raise InputError(inside("toughness", "initiation"), found, f"a tearing from {low:g} to {high:g} mm")

    def _rows(self, where: str) -> tuple[tuple[float, float], ...]:
        given: Any = self.points
        if isinstance(given, str) or len(given) < 2 or any(isinstance(row, str) or len(row) != 2 for row in given):
            raise InputError(where, f"{given!r}"[:60], "two rows or more of tearing and J")
        rows = tuple(
            (
                coherent(row[0], "length", inside(where, f"row {i}")),
                coherent(row[1], "energy release rate", inside(where, f"row {i}")),
            )
            for i, row in enumerate(given, 1)
        )
        falls = np.flatnonzero((np.diff(np.array(rows), axis=0) <= 0.0).any(axis=1))
        if falls.size or rows[0][0] < 0.0 or rows[0][1] <= 0.0:
            row = f"row {int(falls[0]) + 2}" if falls.size else "row 1"
            raise InputError(inside(where, row), "a row that does not ascend", "tearing and J that ascend, J above 0")
        return rows

    @property
    def reach(self) -> tuple[float, float]:
        """Least and largest tearing, mm."""
        if self.points is not None:
            return float(self.points[0][0]), float(self.points[-1][0])
        return 0.0, float(self.largest_tearing or 0.0)

    def j(self, tearing: float) -> float:
        """J, N/mm, at a tearing, mm, within its reach."""
        if self.points is not None:
            steps, values = zip(*self.points, strict=True)
            return float(np.interp(tearing, steps, values))
        return float((self.j_at_1_mm or 0.0) * tearing ** (self.exponent or 0.0))

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """At the initiation of tearing."""
        j = self.j(self.initiation)
        k, step = k_of_j(j, metal)
        first = Step("J at the initiation of tearing", "J = J_R(Δa)", f"J_R({put_in(self.initiation)} mm)", j, "N/mm")
        return FoundToughness(k, (first, step))
