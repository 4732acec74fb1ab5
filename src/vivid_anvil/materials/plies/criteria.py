"""Static criteria of a ply in plane stress: how near each mode is to breaking it.

In: s1, s2, t12, shape (n, 3), MPa. Out: by mode an index that is 1 where the ply breaks (as its author writes it: of some the
square of the stress), and the reserve, the factor on the stress that moves with the load by which it would break.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies.ply import Ply
from vivid_anvil.units import Coherent, opened

PLY_CRITERIA: Choices[type[PlyCriterion]] = Choices("ply criterion")
FIBRE_TENSION, FIBRE_COMPRESSION = "fibre tension", "fibre compression"
MATRIX_TENSION, MATRIX_COMPRESSION, SHEAR, WHOLE = "matrix tension", "matrix compression", "shear", "whole ply"
FACTORS = np.geomspace(1e-6, 1e9, 301)  # a reserve beyond is none: nothing of the load reaches this mode
HALVINGS = 52
BESIDE = 1e-9  # of a border, to both sides of it


def stresses_of_plies(given: ArrayLike, where: str = "stresses") -> FloatArray:
    """Finite stresses s1, s2, t12, shape (n, 3); InputError for another shape."""
    found = np.atleast_2d(np.asarray(given, dtype=np.float64))
    if found.ndim != 2 or found.shape[1] != 3 or not np.isfinite(found).all():
        raise InputError(where, f"shape {found.shape}", "finite stresses s1, s2, t12, MPa, shape (n, 3)")
    return found


@dataclass(frozen=True, kw_only=True)
class PlyCriterion(ABC):
    """A criterion. Forms: see `PLY_CRITERIA`.

    Examples
    --------
    >>> ply = read_card_named("carbon-epoxy-ply").ply_there
    >>> {mode: round(float(one[0]), 4) for mode, one in Hashin().indices(ply, [900.0, 20.0, 30.0]).items() if one[0] > 0}
    {'fibre tension': 0.3489, 'matrix tension': 0.2846}
    """

    kind: ClassVar[str]
    origin: ClassVar[str]
    squared: ClassVar[bool] = False  # whether the index goes with the square of the stress

    @abstractmethod
    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """The index of each mode, -, shape (n,): 0 where the stress has not its sign, 1 where the ply breaks."""

    def reserves(
        self, ply: Ply, stresses: ArrayLike, constant: ArrayLike = (0.0, 0.0, 0.0)
    ) -> Mapping[str, FloatArray]:
        """Factor on `stresses` at which each mode breaks beside stresses that are always there, shape (n,); inf: never.

        0 where those break the ply alone.
        """
        moved = stresses_of_plies(stresses)
        there = np.broadcast_to(stresses_of_plies(constant, "constant stresses"), moved.shape)
        grid = _with_borders(self.borders(ply, moved, there))
        rows = there[None] + grid[:, :, None] * moved[None]
        by_mode = self.indices(ply, rows.reshape(-1, 3))
        return {
            mode: self._first(ply, mode, moved, there, grid, values.reshape(grid.shape) >= 1.0)
            for mode, values in by_mode.items()
        }

    def borders(self, ply: Ply, moved: FloatArray, there: FloatArray) -> FloatArray:
        """Factors at which a mode begins or ends, shape (n, borders): where s1 or s2 change their sign; nan or inf: nowhere.

        Between them each index is convex over the factor, so that what breaks between two factors breaks at one of them.
        """
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            return -there[:, :2] / moved[:, :2]

    def _first(
        self, ply: Ply, mode: str, moved: FloatArray, there: FloatArray, grid: FloatArray, breaks: BoolArray
    ) -> FloatArray:
        """The first factor that breaks, between two of a coarse row of factors, by halving its logarithm."""
        reserve = np.where(breaks[0], 0.0, np.inf)
        at = np.flatnonzero(~breaks[0] & breaks.any(axis=0))
        if not at.size:
            return reserve
        place = breaks[:, at].argmax(axis=0)
        low, high = np.log(np.maximum(grid[place - 1, at], 1e-12)), np.log(grid[place, at])
        for _ in range(HALVINGS):
            middle = 0.5 * (low + high)
            over = self.indices(ply, there[at] + np.exp(middle)[:, None] * moved[at])[mode] >= 1.0
            high, low = np.where(over, middle, high), np.where(over, low, middle)
        reserve[at] = np.exp(0.5 * (low + high))
        return reserve


def _with_borders(borders: FloatArray) -> FloatArray:
    """Rising factors for each of n stresses, shape (m, n): a coarse row, and both sides of each border."""
    sides = np.concatenate([borders * (1.0 - BESIDE), borders * (1.0 + BESIDE)], axis=1).T
    known = (sides > FACTORS[0]) & (sides < FACTORS[-1])
    coarse = np.concatenate([[0.0], FACTORS])[:, None]
    return np.sort(
        np.vstack([np.broadcast_to(coarse, (coarse.size, len(borders))), np.where(known, sides, FACTORS[-1])]), axis=0
    )


@PLY_CRITERIA.add("largest stress")
@dataclass(frozen=True, kw_only=True)
class LargestPlyStress(PlyCriterion):
    """Each component over its strength.

    Examples
    --------
    >>> sorted(LargestPlyStress().modes)
    ['fibre compression', 'fibre tension', 'matrix compression', 'matrix tension', 'shear']
    """

    origin: ClassVar[str] = "Jones, Mechanics of Composite Materials"
    modes: ClassVar[tuple[str, ...]] = (FIBRE_TENSION, FIBRE_COMPRESSION, MATRIX_TENSION, MATRIX_COMPRESSION, SHEAR)

    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """s / X of each."""
        return _by_side(stresses_of_plies(stresses), ply.strengths("the criterion of the largest stress"))


@PLY_CRITERIA.add("largest strain")
@dataclass(frozen=True, kw_only=True)
class LargestPlyStrain(PlyCriterion):
    """Each strain over that at which the strength of its component alone is reached: X_t / E1, ...

    Examples
    --------
    >>> LargestPlyStrain().kind
    'largest strain'
    """

    origin: ClassVar[str] = "Jones, Mechanics of Composite Materials"

    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """e / e_X of each."""
        xt, xc, yt, yc, s = ply.strengths("the criterion of the largest strain").tolist()
        strains = stresses_of_plies(stresses) @ np.linalg.inv(ply.stiffness)
        e1, e2, g = ply.modulus_along, ply.modulus_across, ply.shear_modulus
        return _by_side(strains, np.array([xt / e1, xc / e1, yt / e2, yc / e2, s / g]))


@PLY_CRITERIA.add("Tsai-Wu")
@dataclass(frozen=True, kw_only=True)
class TsaiWu(PlyCriterion):
    """One surface of second order for all modes; `interaction` is F12 / √(F11 F22).

    Parameters
    ----------
    interaction : float, default -0.5
        Of s1 with s2, above -1 and below 1, -.

    Raises
    ------
    InputError
        For an interaction with which the surface is open.

    Examples
    --------
    >>> TsaiWu(interaction=0.0)
    TsaiWu(interaction=0.0)
    """

    interaction: Coherent = Coherent("number", above=-1.0, below=1.0, default=-0.5)
    origin: ClassVar[str] = "Tsai and Wu 1971"
    squared: ClassVar[bool] = True

    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """F_i s_i + F_ij s_i s_j."""
        one, two, shear = stresses_of_plies(stresses).T
        xt, xc, yt, yc, s = ply.strengths("the criterion of Tsai and Wu").tolist()
        f11, f22 = 1.0 / (xt * xc), 1.0 / (yt * yc)
        straight = (1.0 / xt - 1.0 / xc) * one + (1.0 / yt - 1.0 / yc) * two
        squares = f11 * one**2 + f22 * two**2 + (shear / s) ** 2
        return {WHOLE: straight + squares + 2.0 * self.interaction * math.sqrt(f11 * f22) * one * two}


@PLY_CRITERIA.add("Hashin")
@dataclass(frozen=True, kw_only=True)
class Hashin(PlyCriterion):
    """Fibres and matrix, in tension and compression, each with its own sum of squares.

    Examples
    --------
    >>> Hashin().squared
    True
    """

    origin: ClassVar[str] = "Hashin 1980"
    squared: ClassVar[bool] = True

    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """Of plane stress."""
        one, two, shear = stresses_of_plies(stresses).T
        xt, xc, yt, yc, s = ply.strengths("the criterion of Hashin").tolist()
        st = 0.5 * yc if ply.shear_across is None else ply.shear_across
        sheared = (shear / s) ** 2
        pushed = (two / (2.0 * st)) ** 2 + ((yc / (2.0 * st)) ** 2 - 1.0) * two / yc + sheared
        return {
            FIBRE_TENSION: np.where(one >= 0.0, (one / xt) ** 2 + sheared, 0.0),
            FIBRE_COMPRESSION: np.where(one < 0.0, (one / xc) ** 2, 0.0),
            MATRIX_TENSION: np.where(two >= 0.0, (two / yt) ** 2 + sheared, 0.0),
            MATRIX_COMPRESSION: np.where(two < 0.0, np.maximum(pushed, 0.0), 0.0),
        }


@PLY_CRITERIA.add("Puck")
@dataclass(frozen=True, kw_only=True)
class Puck(PlyCriterion):
    """Fibres by their stress; cracks between fibres by their plane: modes A (pulled), B (pressed, straight), C (slanted).

    Parameters
    ----------
    tension_slope : float, default 0.3
        p of the surface at s2 = 0 on the side of tension; about 0.3 of glass, 0.35 of carbon, -.
    compression_slope : float, default 0.25
        p on the side of compression; about 0.25 of glass, 0.3 of carbon, -.

    Raises
    ------
    InputError
        For slopes outside 0 to 0.5.

    Examples
    --------
    >>> Puck(tension_slope=0.35, compression_slope=0.3)
    Puck(tension_slope=0.35, compression_slope=0.3)
    """

    tension_slope: Coherent = Coherent("number", above=0.0, below=0.5, default=0.3)
    compression_slope: Coherent = Coherent("number", above=0.0, below=0.5, default=0.25)
    origin: ClassVar[str] = "Puck and Schürmann 1998; VDI 2014, part 3"

    def _corner(self, ply: Ply) -> tuple[float, float, float]:
        """R_A of the plane of action, its slope, and the shear where B becomes C, MPa."""
        yc, s = ply.strengths("the criterion of Puck").tolist()[3:]
        pc = self.compression_slope
        across = s / (2.0 * pc) * (math.sqrt(1.0 + 2.0 * pc * yc / s) - 1.0)
        p_across = pc * across / s
        return across, p_across, s * math.sqrt(1.0 + 2.0 * p_across)

    def borders(self, ply: Ply, moved: FloatArray, there: FloatArray) -> FloatArray:
        """Those of the signs, and where B becomes C."""
        across, _, corner = self._corner(ply)
        both = [corner * moved[:, 1] + side * across * moved[:, 2] for side in (-1.0, 1.0)]
        fixed = [corner * there[:, 1] + side * across * there[:, 2] for side in (-1.0, 1.0)]
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            turned = -np.column_stack(fixed) / np.column_stack(both)
        return np.hstack([super().borders(ply, moved, there), turned])

    def indices(self, ply: Ply, stresses: ArrayLike) -> Mapping[str, FloatArray]:
        """Effort of each mode."""
        one, two, shear = stresses_of_plies(stresses).T
        xt, xc, yt, yc, s = ply.strengths("the criterion of Puck").tolist()
        pt, pc = self.tension_slope, self.compression_slope
        across, p_across, corner = self._corner(ply)
        size = np.abs(shear)
        a = np.sqrt((shear / s) ** 2 + (1.0 - pt * yt / s) ** 2 * (two / yt) ** 2) + pt * two / s
        b = (np.sqrt(shear**2 + (pc * two) ** 2) + pc * two) / s
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            c = ((shear / (2.0 * (1.0 + p_across) * s)) ** 2 + (two / yc) ** 2) * yc / -two
        straight = np.abs(two) * corner <= size * across
        return {
            FIBRE_TENSION: np.maximum(one / xt, 0.0),
            FIBRE_COMPRESSION: np.maximum(-one / xc, 0.0),
            "between fibres A": np.where(two >= 0.0, a, 0.0),
            "between fibres B": np.where((two < 0.0) & straight, b, 0.0),
            "between fibres C": np.where((two < 0.0) & ~straight, c, 0.0),
        }


def _by_side(values: FloatArray, limits: FloatArray) -> Mapping[str, FloatArray]:
    one, two, shear = values.T
    xt, xc, yt, yc, s = limits.tolist()
    return {
        FIBRE_TENSION: np.maximum(one / xt, 0.0),
        FIBRE_COMPRESSION: np.maximum(-one / xc, 0.0),
        MATRIX_TENSION: np.maximum(two / yt, 0.0),
        MATRIX_COMPRESSION: np.maximum(-two / yc, 0.0),
        SHEAR: np.abs(shear) / s,
    }


@opened()
def criterion_of(given: PlyCriterion | str, where: str = "criterion") -> PlyCriterion:
    """A criterion by itself or by its name, with its usual numbers."""
    if isinstance(given, PlyCriterion):
        return given
    return PLY_CRITERIA.get(given, where)()


__all__ = [
    "PLY_CRITERIA",
    "Hashin",
    "LargestPlyStrain",
    "LargestPlyStress",
    "PlyCriterion",
    "Puck",
    "TsaiWu",
    "criterion_of",
]
