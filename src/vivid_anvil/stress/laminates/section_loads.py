"""Forces and moments per width of a laminate at a place, superposed from load cases that channels scale."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.events.seen import seen_as
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.histories.load import Load
from vivid_anvil.stress.laminates.laminate import MOMENTS, RESULTANTS
from vivid_anvil.stress.relations.case_loads import CaseLoads
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY
from vivid_anvil.units import UnitSystem, display_unit, shown, sound
from vivid_anvil.writing.working import put_in


@sound
@dataclass(frozen=True, eq=False, kw_only=True)
class SectionLoads(Relation):
    """Forces, moments and shear forces per width at a place of a laminate.

    What is counted where one value stands for all is the resultant that the cases move most: `leading`.

    Parameters
    ----------
    loads : CaseLoads
        The channel and the unit load of each case.
    unit : array_like
        Of each case at its unit load: nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm, and, where they are known, qx, qy, N/mm; shape
        (cases, 6) or (cases, 8).
    constant : array_like, default zeros
        The same of what is there all the time, shape (6,) or (8,); no load moves it.
    idle : bool, default False
        Whether a place without any load is meant, as a model has some.

    Raises
    ------
    InputError
        For other shapes, numbers that are not finite, and cases without any load.

    Examples
    --------
    >>> from vivid_anvil.stress import CaseLoad, CaseLoads
    >>> push = CaseLoads([CaseLoad(case="push", channel="force", unit_load="100 N")])
    >>> SectionLoads(loads=push, unit=[[0, 0, 0, 35.0, 0, 0]]).words
    'mx of force'
    """

    loads: CaseLoads
    unit: FloatArray
    constant: FloatArray = (0.0,) * 6  # type: ignore[assignment]
    idle: bool = False
    gives: ClassVar[str] = "section loads"

    def __post_init__(self) -> None:
        unit = _rows(self.unit, len(self.loads.moving), "unit")
        if not unit.any() and not self.idle:
            raise InputError("section loads, unit", "zeros", "a force or a moment for a load")
        object.__setattr__(self, "unit", unit)
        object.__setattr__(self, "constant", read_only(_rows(np.atleast_2d(self.constant), 1, "constant")[0]))
        object.__setattr__(self, "offset", 0.0)
        object.__setattr__(self, "dimension", dimension_of_resultant(self.leading))

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """Those of the loads."""
        return self.loads.channels

    @cached_property
    def leading(self) -> int:
        """Which of `RESULTANTS` moves most; a moment of 1 N·mm/mm counts as a force of 1 N/mm."""
        return int(np.abs(self.unit).sum(axis=0).argmax())

    @property
    def bends(self) -> bool:
        """Whether any moment is stated."""
        return bool(self.unit[:, 3:6].any() or self.constant[3:6].any())

    def course(self, loads: ArrayLike) -> FloatArray:
        """The eight resultants of loads over unit loads, shape (samples, cases)."""
        return np.asarray(np.asarray(loads, dtype=np.float64) @ self.unit + self.constant)

    def seen(self, load: Load, event: str) -> Load:
        """The load of an event as the leading resultant; InputError for a load without a course in time."""
        if load.gives & OVER_FREQUENCY:
            raise InputError(
                f"event {event}",
                "a load over frequency",
                "a history, states or cycles, for a laminate",
                "How its plies are stressed is followed in time.",
            )
        return seen_as(
            load,
            str(self),
            self.channels,
            lambda named: self.course(self.loads.over_unit_loads(event, named))[:, self.leading],
            self.dimension,
        )

    @cached_property
    def words(self) -> str:
        """Which resultants of which loads."""
        moved = [name for name, one in zip(RESULTANTS, (self.unit != 0.0).any(axis=0).tolist(), strict=True) if one]
        return f"{', '.join(moved)} of {', '.join(self.channels)}"

    def __str__(self) -> str:
        return f"{RESULTANTS[self.leading]} of {', '.join(self.channels)}"

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The resultant as it is."""
        unit = display_unit(self.dimension, units)
        value = float(shown(stress, self.dimension, units))
        return Nominal([], RESULTANTS[self.leading], f"{put_in(value)} {unit}")


def dimension_of_resultant(number: int) -> str:
    """The dimension of one of `RESULTANTS`."""
    return "moment per width" if RESULTANTS[number] in MOMENTS else "force per width"


def _rows(given: ArrayLike, size: int, what: str) -> FloatArray:
    try:
        own = np.array(given, dtype=np.float64)
    except (TypeError, ValueError):
        own = np.zeros(0)
    if own.shape not in ((size, 6), (size, 8)) or not np.isfinite(own).all():
        raise InputError(
            f"section loads, {what}",
            shortened(given),
            f"finite {', '.join(RESULTANTS)}, N/mm and N·mm/mm, shape ({size}, 8), or without qx and qy",
        )
    return read_only(np.pad(own, ((0, 0), (0, 8 - own.shape[1]))))
