"""Criteria for endless life at many places: how much of the fatigue limits each path uses, without counting.

In: loads of paths, unit stresses of places, fatigue limits. Out: of each criterion that these limits are enough for, its share.
What each looks at is a convex function of the loads, so the corners of their hull are enough.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import knee_curve
from vivid_anvil.stress.planes.constants import dang_van_constants, findley_constant, ratio_of
from vivid_anvil.stress.planes.criteria import CRITERIA
from vivid_anvil.stress.planes.deviator import FULL, TWICE, deviator
from vivid_anvil.stress.planes.path_places import Asking, PathLoads
from vivid_anvil.stress.planes.smallest_ball import balls_of_places

TOGETHER = 500_000  # tensors at once
FEW = 4  # places for which no loop over places is compiled


class FatigueLimits(NamedTuple):
    """Amplitudes, MPa, in tension and compression, in torsion, both fully reversed, and in repeated tension (R = 0), or None."""

    axial: float | None = None
    torsion: float | None = None
    repeated: float | None = None

    @property
    def criteria(self) -> tuple[str, ...]:
        """Those that can be said something of: the limits are known, and their ratio is one that the criterion takes."""
        return tuple(name for name in USED if _constants(name, self) is not None)

    @property
    def refused(self) -> tuple[str, ...]:
        """Those whose limits are known, in a ratio that the criterion does not take."""
        known = {"sines": self.repeated}
        given = [name for name in USED if self.torsion is not None and known.get(name, self.axial) is not None]
        return tuple(name for name in given if name not in self.criteria)


class Places(NamedTuple):
    """A path at many places: deviators about the centre of their smallest ball, its radius, and the hydrostatic stress, MPa.

    Shapes (places, corners, 6), (places,), (places, corners).
    """

    loads: PathLoads
    units: FloatArray
    constants: FloatArray
    grains: FloatArray
    radii: FloatArray
    hydrostatic: FloatArray


def limits_used(
    loads: PathLoads,
    units: FloatArray,
    constants: FloatArray,
    limits: FatigueLimits,
    names: Sequence[str] | None = None,
) -> dict[str, FloatArray]:
    """Share of its limit that each path uses at each place, shape (places, paths), by each criterion, or those named.

    >>> swing = type("Event", (), {"loads": np.array([[1.0], [-1.0]]), "counts": None, "often": 1.0})()
    >>> unit = np.array([[[300.0, 0, 0, 0, 0, 0]]])
    >>> used = limits_used(PathLoads.of([swing]), unit, np.zeros((1, 6)), FatigueLimits(300.0, 180.0))
    >>> {name: round(float(one[0, 0]), 4) for name, one in used.items()}
    {'dang van': 1.0, 'crossland': 1.0, 'findley': 1.0}
    """
    wanted = [name for name in limits.criteria if names is None or name in names]
    found = {name: np.empty((len(units), loads.ends.size)) for name in wanted}
    for number, path in enumerate(_paths(loads)):
        many = max(1, TOGETHER // len(path.corners))
        for start in range(0, len(units), many):
            rows = slice(start, start + many)
            here = _places(path, units[rows], constants[rows])
            for name in wanted:
                how = _constants(name, limits)
                assert how is not None
                found[name][rows, number] = USED[name](here, *how)
    return found


def _paths(loads: PathLoads) -> Iterator[PathLoads]:
    """Each path by itself, gone through once."""
    first = 0
    for number, end in enumerate(loads.ends.tolist()):
        corners = loads.corners[first:end]
        yield PathLoads(
            corners, np.array([end - first]), np.zeros(1, np.int64), np.ones(1), loads.scatter[number : number + 1]
        )
        first = end


def _places(path: PathLoads, units: FloatArray, constants: FloatArray) -> Places:
    apart = deviator(units)
    centres, radii = balls_of_places(path.corners, apart)
    grains = np.einsum("ik,pkc->pic", path.corners, apart, optimize=True) - centres[:, None]
    each = units[..., :3].mean(axis=-1)
    hydrostatic = each @ path.corners.T + constants[:, :3].mean(axis=-1)[:, None]
    return Places(path, units, constants, grains, radii, hydrostatic)


def _dang_van(here: Places, a: float, b: float) -> FloatArray:
    sizes = np.linalg.eigvalsh((here.grains / TWICE)[..., FULL])
    shear = 0.5 * (sizes[..., 2] - sizes[..., 0])
    return np.asarray((shear + a * here.hydrostatic).max(axis=1) / b)


def _crossland(here: Places, weight: float, torsion: float) -> FloatArray:
    return np.asarray((here.radii / math.sqrt(2.0) + weight * here.hydrostatic.max(axis=1)) / torsion)


def _sines(here: Places, weight: float, torsion: float) -> FloatArray:
    mean = 0.5 * (here.hydrostatic.max(axis=1) + here.hydrostatic.min(axis=1))
    return np.asarray((here.radii / math.sqrt(2.0) + weight * mean) / torsion)


def _findley(here: Places, k: float, limit: float) -> FloatArray:
    if len(here.units) <= FEW:
        tensors = [
            here.loads.corners @ unit + constant for unit, constant in zip(here.units, here.constants, strict=True)
        ]
        return np.array([CRITERIA["findley"](k=k).worst(one)[1] / limit for one in tensors])  # type: ignore[call-arg]
    one = knee_curve(
        name="parameter", stress="amplitude", r_ratio=-1, knee_stress=1.0, knee_life=1.0, slope=1.0, slope_below=1.0
    )
    asking = Asking(1.0, k, False, one, False)  # on this curve the damage is the parameter, MPa
    worst = here.loads.worst_of(here.units, here.constants, "circle", asking)
    return np.asarray(worst.damage[:, 0] / limit)


USED: dict[str, Callable[..., FloatArray]] = {
    "dang van": _dang_van,
    "crossland": _crossland,
    "sines": _sines,
    "findley": _findley,
}


def _constants(name: str, limits: FatigueLimits) -> tuple[float, float] | None:
    """The two constants of a criterion; None where limits are missing, or have a ratio that it does not take."""
    axial, torsion, repeated = limits
    if torsion is None or (repeated if name == "sines" else axial) is None:
        return None
    try:
        if name == "sines":
            assert repeated is not None
            ratio_of(repeated, torsion, 1.0 / math.sqrt(3.0), 10.0, "Sines")
            return 3.0 * torsion / repeated - math.sqrt(3.0), torsion
        assert axial is not None
        if name == "crossland":
            ratio = ratio_of(axial, torsion, 1.0 / math.sqrt(3.0), 1.0, "Crossland")
            return 3.0 * ratio - math.sqrt(3.0), torsion
        return (dang_van_constants if name == "dang van" else findley_constant)(axial, torsion)
    except InputError:
        return None


__all__ = ["USED", "FatigueLimits", "limits_used"]
