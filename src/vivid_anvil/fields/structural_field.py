"""Structural stress at weld toes of a model: of every load case, as a small field that is assessed like any other.

The rules are linear in the stress, so they are used on each component of the tensors (Hobbacher, A. 2016, IIW, 2.2.3).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray, text
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.models.at_points import at_points
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.stress import TOE_RULES, through_thickness, toe_stress
from vivid_anvil.units import opened

THROUGH_POINTS = 41

Place = tuple[float, float, float]


@dataclass(frozen=True, kw_only=True)
class ToePath:
    """A path on the surface, from a weld toe into the plate: `toe`, mm, and the direction `along`, or `nodes` in their order.

    `rule` is one of `TOE_RULES`; those in thicknesses need `thickness`, mm.
    """

    name: str
    rule: str
    thickness: float | None = None
    toe: Place | None = None
    along: Place | None = None
    nodes: Sequence[int] = ()

    def __post_init__(self) -> None:
        text("toe path, name", self.name)
        by_line = self.toe is not None and self.along is not None
        if by_line == bool(self.nodes) or (bool(self.nodes) and (self.toe or self.along)):
            raise InputError(f"toe path {self.name}", "not one way to find it", "toe and along, or nodes")


@dataclass(frozen=True, kw_only=True)
class ThroughPath:
    """A line through a plate, mm, from the checked surface to the other one: membrane and bending count, the notch peak not."""

    name: str
    surface: Place
    other: Place


@opened()
def structural_field(field: StressField, paths: Sequence[ToePath | ThroughPath]) -> StressField:
    """The structural stress of every load case at each path, as nodes 1, 2, ... with a set of each name.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    paths : sequence of Toepath or Throughpath
        Where a structural stress is taken.

    Returns
    -------
    StressField
        A field with one node a path.

    Raises
    ------
    InputError
        For a path that leaves the model, an unknown rule, a missing thickness, and a name twice.

    Examples
    --------
    >>> from vivid_anvil.fields import ToePath
    >>> plate = StressField(
    ...     cases=["pull"], node_ids=[1, 2, 3], coordinates=[[0, 0, 0], [5, 0, 0], [15, 0, 0]],
    ...     stresses=[[[sxx, 0, 0, 0, 0, 0] for sxx in (180.0, 140.0, 120.0)]],
    ... )
    >>> toe = ToePath(name="toe", rule="5 and 15 mm", nodes=(1, 2, 3))
    >>> float(structural_field(plate, [toe]).stresses[0, 0, 0])  # 1.5 * 140 - 0.5 * 120
    150.0
    """
    names = [path.name for path in paths]
    if not paths or len(set(names)) != len(names):
        raise InputError("structural stress, paths", f"{names}", "one or more, each name once")
    places, rows = [], []
    for one in paths:
        if isinstance(one, ThroughPath):
            place, stresses = _through(field, one)
        else:
            place, stresses = _of_nodes(field, one) if one.nodes else _of_line(field, one)
        places.append(place)
        rows.append(stresses)
    return StressField(
        cases=field.cases,
        node_ids=np.arange(len(paths)) + 1,
        coordinates=np.array(places),
        stresses=np.stack(rows, axis=1),
        node_sets={name: np.array([i]) for i, name in enumerate(names)},
        source=f"{field.source}, structural stress",
    )


def _of_line(field: StressField, path: ToePath) -> tuple[FloatArray, FloatArray]:
    rule = TOE_RULES.get(path.rule)
    start, along = np.asarray(path.toe, dtype=np.float64), np.asarray(path.along, dtype=np.float64)
    length = float(np.linalg.norm(along))
    if not length > 0.0:
        raise InputError(inside(f"toe path {path.name}", "along"), f"{path.along}", "a direction, not all 0")
    scale = (path.thickness or 1.0) if rule is not None and rule.in_thicknesses else 1.0
    distances = np.array(rule.places if rule is not None else (1.0,)) * scale
    points_field = at_points(field, start + distances[:, None] * along / length)
    return start, toe_stress(distances, np.moveaxis(points_field.stresses, 1, 2), path.rule, path.thickness)


def _of_nodes(field: StressField, path: ToePath) -> tuple[FloatArray, FloatArray]:
    """Along marked nodes, the first at the toe; the stress is straight between them."""
    places = np.array([field.place_of(node) for node in path.nodes])
    points = field.coordinates[places]
    distances = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(points, axis=0), axis=1))])
    return points[0], toe_stress(distances, np.moveaxis(field.stresses[:, places], 1, 2), path.rule, path.thickness)


def _through(field: StressField, path: ThroughPath) -> tuple[FloatArray, FloatArray]:
    start, end = np.asarray(path.surface, dtype=np.float64), np.asarray(path.other, dtype=np.float64)
    thickness = float(np.linalg.norm(end - start))
    if not thickness > 0.0:
        raise InputError(f"path {path.name}", "both ends at one place", "the checked surface and the other one")
    share = np.linspace(0.0, 1.0, THROUGH_POINTS)
    points_field = at_points(field, start + share[:, None] * (end - start))
    parts = [
        [through_thickness(share * thickness, points_field.stresses[case, :, i]).structural for i in range(6)]
        for case in range(len(field.cases))
    ]
    return start, np.array(parts)
