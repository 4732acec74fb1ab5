"""Static failure of a laminate: the reserve of every ply and mode, and plies that fail one after the other under rising load.

A ply that fails keeps a part of its stiffness: of cracks between fibres of E2 and G12, of broken fibres of all three.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.materials.plies import Ply, PlyCriterion, criterion_of
from vivid_anvil.stress.laminates.laminate import Laminate, resultants
from vivid_anvil.units import number, one, opened

FACES = ("lower", "upper")


class PlyFailure(NamedTuple):
    """A ply that fails: factor on the load, ply from the bottom, face, mode, part of the stiffness left after it.

    The stiffness is that against the load itself: its work at the start over that after the failure.
    """

    factor: float
    ply: int
    face: str
    mode: str
    stiffness_left: float


@dataclass(frozen=True, eq=False)
class StaticReserves:
    """Reserves of every ply: by mode, shape (plies, 2), at its lower and upper face.

    Parameters
    ----------
    laminate : Laminate
        The laminate.
    criterion : PlyCriterion
        The criterion.
    stresses : ndarray
        s1, s2, t12 of plies at both faces, MPa, with those of the temperature, shape (plies, 2, 3).
    indices : mapping of str to ndarray
        By mode, as the criterion writes them, shape (plies, 2).
    reserves : mapping of str to ndarray
        By mode, the factor on the load at which it fails, shape (plies, 2); inf: never.

    Examples
    --------
    >>> ply = read_card_named("carbon-epoxy-ply").ply_there
    >>> plate = Laminate(name="plate", layup="[0/90]s", ply=ply, ply_thickness=0.125)
    >>> static_reserves(plate, [100.0, 0, 0, 0, 0, 0], criterion="Hashin").first
    PlyFailure(factor=2.0199..., ply=1, face='lower', mode='matrix tension', stiffness_left=1.0)
    """

    laminate: Laminate
    criterion: PlyCriterion
    stresses: FloatArray
    indices: Mapping[str, FloatArray]
    reserves: Mapping[str, FloatArray]

    @property
    def first(self) -> PlyFailure:
        """The ply and mode with the least reserve; a factor of inf where the load breaks nothing."""
        mode = min(self.reserves, key=lambda each: float(self.reserves[each].min()))
        own = self.reserves[mode]
        ply, face = np.unravel_index(int(own.argmin()), own.shape)
        return PlyFailure(float(own.min()), int(ply), FACES[int(face)], mode, 1.0)


@opened()
def static_reserves(laminate: Laminate, loads: ArrayLike, *, criterion: PlyCriterion | str = "Puck") -> StaticReserves:
    """The factor on a load at which each ply fails in each mode, with nothing failed before.

    Parameters
    ----------
    laminate : Laminate
        The laminate; stresses of its change of temperature are there at any factor.
    loads : array_like
        nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm, shape (6,).
    criterion : PlyCriterion or str, default "Puck"
        One of `PLY_CRITERIA`, or its name.

    Returns
    -------
    StaticReserves
        By ply, face and mode.

    Raises
    ------
    InputError
        For another shape of loads, an unknown criterion, and a ply without the strengths that it needs.

    Examples
    --------
    >>> steel = dict(modulus_along=2.06e5, modulus_across=2.06e5, shear_modulus=79231.0, poissons_ratio=0.3)
    >>> strong = dict(tension_along=400.0, compression_along=400.0, tension_across=400.0, compression_across=400.0)
    >>> plate = Laminate(
    ...     name="plate", layup=[0], ply=Ply(name="s", shear_strength=230.0, **steel, **strong), ply_thickness=2.0
    ... )
    >>> round(static_reserves(plate, [200, 0, 0, 0, 0, 0], criterion="largest stress").first.factor, 9)
    4.0
    """
    own = resultants(loads)
    if own.ndim != 1:
        raise InputError("loads", f"shape {own.shape}", "one load, shape (6,)")
    state, rule = laminate.full, criterion_of(criterion)
    moved = np.einsum("pfck,k->pfc", state.per_load, own)
    there = np.asarray(state.thermal_stresses)
    indices, reserves = _modes_of(laminate, rule, moved, there)
    return StaticReserves(laminate, rule, moved + there, indices, reserves)


def _modes_of(
    laminate: Laminate, rule: PlyCriterion, moved: FloatArray, there: FloatArray
) -> tuple[dict[str, FloatArray], dict[str, FloatArray]]:
    indices: dict[str, FloatArray] = {}
    reserves: dict[str, FloatArray] = {}
    shape = moved.shape[:2]
    for ply in dict.fromkeys(each.ply for each in laminate.laid):
        rows = np.array([each.ply is ply for each in laminate.laid])
        flat, fixed = moved[rows].reshape(-1, 3), there[rows].reshape(-1, 3)
        for found, by_mode, empty in (
            (indices, rule.indices(ply, flat + fixed), 0.0),
            (reserves, rule.reserves(ply, flat, fixed), np.inf),
        ):
            for mode, values in by_mode.items():
                found.setdefault(mode, np.full(shape, empty))[rows] = values.reshape(-1, 2)
    return indices, reserves


@dataclass(frozen=True, eq=False)
class PlyFailures:
    """Failures under a load that rises, in their order.

    Parameters
    ----------
    laminate : Laminate
        The laminate.
    criterion : PlyCriterion
        The criterion.
    failures : tuple of PlyFailure
        One after the other; several at one factor where a failure takes others with it.

    Examples
    --------
    >>> ply = read_card_named("carbon-epoxy-ply").ply_there
    >>> plate = Laminate(name="plate", layup="[0/90]s", ply=ply, ply_thickness=0.125)
    >>> found = ply_failures(plate, [100.0, 0, 0, 0, 0, 0], criterion="Hashin")
    >>> round(found.first, 3), round(found.last, 3), len(found.failures)
    (2.02, 4.781, 3)
    """

    laminate: Laminate
    criterion: PlyCriterion
    failures: tuple[PlyFailure, ...]

    @property
    def first(self) -> float:
        """Factor on the load at which the first ply fails; inf: never."""
        return self.failures[0].factor if self.failures else math.inf

    @property
    def last(self) -> float:
        """The largest factor that the laminate bears, with plies failed; inf: no limit."""
        return max((one.factor for one in self.failures), default=math.inf)

    def __repr__(self) -> str:
        return f"<PlyFailures of {self.laminate.name}: first at {number(self.first)}, last at {number(self.last)}>"


@opened(fibre_left=one(above=0.0, below=1.0), matrix_left=one(above=0.0, below=1.0))
def ply_failures(
    laminate: Laminate,
    loads: ArrayLike,
    *,
    criterion: PlyCriterion | str = "Puck",
    fibre_left: float = 0.01,
    matrix_left: float = 0.1,
    over_below: float = 0.1,
) -> PlyFailures:
    """Plies that fail one after the other while all loads rise together, each keeping a part of its stiffness.

    Parameters
    ----------
    laminate : Laminate
        The laminate.
    loads : array_like
        nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm, shape (6,).
    criterion : PlyCriterion or str, default "Puck"
        One of `PLY_CRITERIA`, or its name.
    fibre_left : float, default 0.01
        Part of E1, E2, G12 that a ply with broken fibres keeps, -.
    matrix_left : float, default 0.1
        Part of E2, G12 that a ply with cracks between its fibres keeps, -.
    over_below : float, default 0.1
        Part of the stiffness against the load below which the laminate has failed, -.

    Returns
    -------
    PlyFailures
        In their order.

    Raises
    ------
    InputError
        For another shape of loads, an unknown criterion, a ply without the strengths that it needs, and parts outside 0 to 1.

    Examples
    --------
    >>> steel = dict(modulus_along=2.06e5, modulus_across=2.06e5, shear_modulus=79231.0, poissons_ratio=0.3)
    >>> strong = dict(tension_along=400.0, compression_along=400.0, tension_across=400.0, compression_across=400.0)
    >>> plate = Laminate(
    ...     name="plate", layup=[0], ply=Ply(name="s", shear_strength=230.0, **steel, **strong), ply_thickness=2.0
    ... )
    >>> ply_failures(plate, [200, 0, 0, 0, 0, 0], criterion="largest stress")
    <PlyFailures of plate: first at 4, last at 4>
    """
    own, rule = resultants(loads), criterion_of(criterion)
    if own.ndim != 1:
        raise InputError("loads", shortened(loads), "one load, shape (6,)")
    left = np.ones((len(laminate.laid), 3))
    broken, cracked = (np.zeros(len(laminate.laid), dtype=bool) for _ in range(2))
    work = float(own @ laminate.full.compliance @ own)
    found: list[PlyFailure] = []
    reached = 0.0
    while not broken.all():
        state = laminate.with_left(left)
        moved = np.einsum("pfck,k->pfc", state.per_load, own)
        _, reserves = _modes_of(laminate, rule, moved, np.asarray(state.thermal_stresses))
        factor, ply, face, mode = _next(reserves, broken, cracked)
        if ply < 0:
            break
        reached = max(reached, factor)
        # of a criterion without modes: fibres, where s1 uses most of its strength
        fibre = mode.startswith("fibre") or (
            mode == "whole ply" and _by_fibres(laminate.laid[ply].ply, moved[ply, face])
        )
        broken[ply] |= fibre
        cracked[ply] = True
        left[ply] = fibre_left if fibre else [left[ply, 0], matrix_left, matrix_left]
        now = float(own @ laminate.with_left(left).compliance @ own)
        found.append(PlyFailure(reached, ply, FACES[face], mode, work / now))
        if work / now < over_below:
            break
    return PlyFailures(laminate, rule, tuple(found))


def _next(reserves: Mapping[str, FloatArray], broken: np.ndarray, cracked: np.ndarray) -> tuple[float, int, int, str]:
    """The least reserve among modes that have not failed yet: factor, ply, face, mode; ply -1 for none."""
    best: tuple[float, int, int, str] = (math.inf, -1, 0, "")
    for mode, own in reserves.items():
        done = broken if mode.startswith("fibre") else broken | cracked
        open_ = np.where(done[:, None], np.inf, own)
        ply, face = np.unravel_index(int(open_.argmin()), own.shape)
        if float(open_.min()) < best[0]:
            best = float(open_.min()), int(ply), int(face), mode
    return best


def _by_fibres(ply: Ply, stress: FloatArray) -> bool:
    xt, xc, yt, yc, s = ply.strengths("the failure of a ply").tolist()
    one, two, shear = stress.tolist()
    return bool(abs(one) / (xt if one > 0.0 else xc) > max(abs(two) / (yt if two > 0.0 else yc), abs(shear) / s))
