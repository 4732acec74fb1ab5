"""The life of every plane at a place: a table beside that of the worst one."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.damage.life import LifeResult
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.planes import angles_of, plane_map
from vivid_anvil.units import UnitSystem, one, opened
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

ON_A_PAGE = 10


@dataclass(frozen=True, eq=False, repr=False)
class LivesOnPlanes(Result):
    """Damage a repeat on planes of a place, the worst first: normals, shape (planes, 3), and damage, (planes,)."""

    life: LifeResult
    normals: FloatArray
    damage: FloatArray

    @property
    def title(self) -> str:
        """The name of the place."""
        return f"{self.life.hot_spot.name}: life on every plane"

    @classmethod
    def overview(cls, results: Sequence[LivesOnPlanes]) -> Table:
        """Every plane of several places, one place after the other."""
        first = tuple(one.tables()[0] for one in results)
        names = [one.life.hot_spot.name for one in results for _ in range(len(one.damage))]
        columns = [Column("place", names)]
        for number, column in enumerate(first[0].columns if first else ()):
            values = [value for table in first for value in table.columns[number].values]
            columns.append(dataclasses.replace(column, values=values))
        return Table("", tuple(columns), "planes")

    def words(self, units: UnitSystem = "metric") -> Words:
        """How many planes, and of what."""
        return (("Planes", f"{len(self.damage)}, {self.life.method.words}"),)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Angles, normal, damage, life of each plane."""
        theta, phi = angles_of(self.normals)
        allowed = self.life.method.critical_sum
        lives = [allowed / one if one > 0.0 else math.inf for one in self.damage.tolist()]
        top = self.life.damage_per_repeat
        columns = (
            Column("theta", theta.round(6).tolist(), unit="degrees", head="θ from z"),
            Column("phi", phi.round(6).tolist(), unit="degrees", head="φ from x"),
            *(Column(f"normal {axis}", self.normals[:, i].tolist(), only="file") for i, axis in enumerate("xyz")),
            Column("damage per repeat", self.damage.tolist(), head="Damage a repeat", style="number"),
            Column("life", lives, unit="repeats", head="Life", style="number"),
            Column(
                "share of the worst", [one / top if top > 0.0 else 0.0 for one in self.damage.tolist()], style="share"
            ),
        )
        kept = range(ON_A_PAGE) if len(self.damage) > ON_A_PAGE else None
        return (Table("", columns, "planes", kept=kept, others=""),)


@opened(step_degrees=one("angle", degrees=True))
def lives_on_planes(life: LifeResult, *, step_degrees: float = 5.0) -> LivesOnPlanes:
    """The life of every plane of a net over the half sphere at a place that is assessed on planes, the worst first.

    Parameters
    ----------
    life : LifeResult
        A life by a method that looks at planes, also of a node of a model (`node_life`).
    step_degrees : float or text with a unit, default 5
        Distance of planes.

    Returns
    -------
    LivesOnPlanes
        Angles, normals, damage and life of each plane.

    Raises
    ------
    InputError
        For a life by a method that looks at no planes, and for an angle that no net has.

    Examples
    --------
    >>> shaft = run_study(read_study("grip_shaft.toml")).lives[0]  # of the demo
    >>> planes = lives_on_planes(shaft, step_degrees=30.0)
    >>> len(planes.damage), bool(planes.damage[0] <= shaft.damage_per_repeat)
    (23, True)
    """
    on_planes = getattr(life.method, "on_planes", None)
    if on_planes is None:
        raise InputError(
            f"lives on planes, {life.hot_spot.name}",
            f"the method {life.method.kind!r}",
            "a method that looks at planes",
            "Take the method 'critical plane' or 'strain on planes'.",
        )
    normals, damage = plane_map(on_planes(life.hot_spot, life.duty_cycle), step_degrees=step_degrees)
    order = np.argsort(-damage, kind="stable")
    return LivesOnPlanes(life, normals[order], damage[order])


def planes_of_all(lives: Sequence[LifeResult], *, step_degrees: float = 5.0) -> Table:
    """Every plane of all places that are assessed on planes; InputError where none is."""
    found = [lives_on_planes(life, step_degrees=step_degrees) for life in lives if hasattr(life.method, "on_planes")]
    if not found:
        names = ", ".join(life.hot_spot.name for life in lives)
        raise InputError(
            "lives on planes",
            f"no place among {names} that is assessed on planes",
            "one or more",
            "Give one a method of planes.",
        )
    return LivesOnPlanes.overview(found)
