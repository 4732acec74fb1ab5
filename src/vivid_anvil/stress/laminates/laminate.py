"""A laminate by classical lamination theory: from forces and moments per width to the stresses in each ply.

Plies stand from the bottom (z < 0) to the top; z runs from the middle of the thickness. Forces nx, ny, nxy, N/mm; moments mx, my,
mxy, N·mm/mm, positive where they pull the top (z > 0); shear forces qx, qy, N/mm, across the plane. Engineering shear strain.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.plies.ply import Ply, ply_stiffness, to_ply, turned
from vivid_anvil.stress.laminates.layup import angles_of, layup_text
from vivid_anvil.units import Coherent, OptionalCoherent, coherent, number, sound

FORCES, MOMENTS, SHEARS = ("nx", "ny", "nxy"), ("mx", "my", "mxy"), ("qx", "qy")
RESULTANTS = (*FORCES, *MOMENTS, *SHEARS)
ALIKE = 1e-9  # of a stiffness, below which it counts as 0


class LaidPly(NamedTuple):
    """A ply as it lies in a laminate.

    Parameters
    ----------
    ply : Ply
        The ply.
    angle : float
        From x of the laminate to its fibres, degrees.
    thickness : float
        Its own, mm.

    Raises
    ------
    InputError
        In the laminate that it is put into, for values that cannot be meant.

    Examples
    --------
    >>> LaidPly(None, 45.0, 0.125).angle
    45.0
    """

    ply: Ply
    angle: float
    thickness: float


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Laminate:
    """A laminate.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    layup : str or sequence of float, optional
        Angles in the usual notation, or in degrees from the bottom to the top; with `ply` and `ply_thickness`.
    ply : Ply, optional
        The ply that all of it is made of.
    ply_thickness : float or text with a unit, optional
        Of one ply, mm.
    plies : sequence of (Ply, angle, thickness), optional
        Instead: each ply from the bottom to the top, where they are not alike.
    temperature_change : float or text with a unit, default 0
        From where the laminate is free of stress to where it works, K; below 0 after hot curing.

    Raises
    ------
    InputError
        For a layup that cannot be read, a thickness that is not above 0, and values of another kind, unit or range.

    Examples
    --------
    >>> carbon = Ply(
    ...     name="carbon", modulus_along="138 GPa", modulus_across="9 GPa", shear_modulus="5.2 GPa", poissons_ratio=0.3
    ... )
    >>> plate = Laminate(name="plate", layup="[0/90]s", ply=carbon, ply_thickness="0.125 mm")
    >>> plate.constants
    Constants(modulus_x=73834.19..., modulus_y=73834.19..., shear_modulus=5200.0, poissons_ratio=0.03673...)
    """

    name: str
    layup: str | Sequence[float] | None = None
    ply: Ply | None = None
    ply_thickness: OptionalCoherent = OptionalCoherent("length", above=0.0)
    plies: Sequence[tuple[Ply, float, float]] | None = None
    temperature_change: Coherent = Coherent("temperature change", default=0.0)

    def __post_init__(self) -> None:
        checks.text(inside("laminate", "name"), self.name)
        where = f"laminate {self.name}"
        one = [key for key in ("layup", "ply", "ply_thickness") if getattr(self, key) is not None]
        if self.plies is not None:
            if one:
                raise InputError(
                    inside(where, one[0]), f"{one[0]} beside plies", "plies alone, or layup, ply and ply_thickness"
                )
            object.__setattr__(self, "plies", _laid(inside(where, "plies"), self.plies))
            object.__setattr__(self, "layup", layup_text([each.angle for each in self.laid]))
            return
        missing = [key for key in ("layup", "ply", "ply_thickness") if key not in one]
        if missing:
            raise InputError(inside(where, missing[0]), "nothing", "layup, ply and ply_thickness, or plies")
        if not isinstance(self.ply, Ply):
            raise InputError(inside(where, "ply"), shortened(self.ply), "a ply")
        try:
            angles = (
                angles_of(self.layup)
                if isinstance(self.layup, str)
                else angles_of(layup_text(() if self.layup is None else self.layup))
            )
        except InputError as error:
            raise InputError(inside(where, error.where), error.found, error.expected, error.remedy) from None
        assert self.ply_thickness is not None
        object.__setattr__(self, "plies", tuple(LaidPly(self.ply, angle, self.ply_thickness) for angle in angles))
        object.__setattr__(self, "layup", layup_text(angles))

    @property
    def laid(self) -> tuple[LaidPly, ...]:
        """Its plies from the bottom to the top."""
        found: Any = self.plies
        return found  # type: ignore[no-any-return]

    @cached_property
    def angles(self) -> FloatArray:
        """Degrees, shape (plies,)."""
        return read_only(np.array([one.angle for one in self.laid]))

    @cached_property
    def edges(self) -> FloatArray:
        """z of the faces of plies, mm, shape (plies + 1,)."""
        thick = np.array([one.thickness for one in self.laid])
        return read_only(np.concatenate([[0.0], np.cumsum(thick)]) - 0.5 * thick.sum())

    @property
    def thickness(self) -> float:
        """Of all plies, mm."""
        return float(self.edges[-1] - self.edges[0])

    @cached_property
    def moduli(self) -> FloatArray:
        """E1, E2, G12, MPa, and ν12 of each ply, shape (plies, 4)."""
        rows = [(p.modulus_along, p.modulus_across, p.shear_modulus, p.poissons_ratio) for p, _, _ in self.laid]
        return read_only(np.array(rows))

    @cached_property
    def full(self) -> LaminateState:
        """With nothing lost."""
        return self.with_left(np.ones((len(self.laid), 3)))

    def with_left(self, left: ArrayLike) -> LaminateState:
        """With the parts of E1, E2 and G12 that are left of each ply, shape (plies, 3); ν12 stays as it is."""
        parts = np.asarray(left, dtype=np.float64)
        if parts.shape != (len(self.laid), 3) or not ((parts > 0.0) & (parts <= 1.0)).all():
            raise InputError(
                inside(f"laminate {self.name}", "left"),
                f"shape {parts.shape}",
                "parts above 0, up to 1, of shape (plies, 3)",
            )
        return LaminateState(self, read_only(parts))

    @property
    def constants(self) -> Constants:
        """Those of the whole under forces."""
        return self.full.constants

    @property
    def couples(self) -> bool:
        """Whether forces bend it: a layup that is not symmetric."""
        b = self.full.abd[:3, 3:]
        return bool(np.abs(b).max() > ALIKE * np.abs(self.full.abd[:3, :3]).max() * self.thickness)

    def label(self, ply: int) -> str:
        """A ply by its number from the bottom and its angle."""
        return f"ply {ply + 1} of {len(self.laid)} ({number(float(self.angles[ply]))}°)"

    def __repr__(self) -> str:
        names = ", ".join(dict.fromkeys(one.ply.name for one in self.laid))
        return f"<Laminate {self.name}: {self.layup} of {names}, {number(self.thickness)} mm>"


class Constants(NamedTuple):
    """Constants of a whole laminate under forces, free to bend: E_x, E_y, G_xy, MPa, ν_xy."""

    modulus_x: float
    modulus_y: float
    shear_modulus: float
    poissons_ratio: float


@dataclass(frozen=True, eq=False)
class LaminateState:
    """A laminate with what is left of its moduli: the matrices, and stresses of loads."""

    laminate: Laminate
    left: FloatArray

    @cached_property
    def stiffnesses(self) -> FloatArray:
        """Q of each ply in its axes, MPa, shape (plies, 3, 3)."""
        rows = self.laminate.moduli.copy()
        rows[:, :3] *= self.left
        return read_only(np.array([ply_stiffness(*row) for row in rows.tolist()]))

    @cached_property
    def turned(self) -> FloatArray:
        """Q of each ply in the axes of the laminate, MPa, shape (plies, 3, 3)."""
        return read_only(turned(self.stiffnesses, self.laminate.angles))

    @cached_property
    def abd(self) -> FloatArray:
        """[[A, B], [B, D]]: N/mm, N, N·mm, shape (6, 6)."""
        z = self.laminate.edges
        a, b, d = (np.einsum("kij,k->ij", self.turned, np.diff(z**n) / n) for n in (1, 2, 3))
        b = np.where(np.abs(b) < 1e-14 * np.abs(a).max() * self.laminate.thickness, 0.0, b)  # what rounding leaves
        return read_only(np.block([[a, b], [b, d]]))

    @cached_property
    def compliance(self) -> FloatArray:
        """Its inverse, shape (6, 6)."""
        return read_only(np.linalg.inv(self.abd))

    @property
    def constants(self) -> Constants:
        """Of the whole."""
        h, a = self.laminate.thickness, self.compliance
        return Constants(
            float(1.0 / (h * a[0, 0])),
            float(1.0 / (h * a[1, 1])),
            float(1.0 / (h * a[2, 2])),
            float(-a[0, 1] / a[0, 0]),
        )

    @cached_property
    def per_strain(self) -> FloatArray:
        """Stresses s1, s2, t12 of plies at their lower and upper face of a unit of strain or curvature: (plies, 2, 3, 6)."""
        own = self.stiffnesses @ to_ply(self.laminate.angles, engineering=True)
        z = np.stack([self.laminate.edges[:-1], self.laminate.edges[1:]], axis=1)
        return read_only(
            np.concatenate([np.repeat(own[:, None], 2, axis=1), own[:, None] * z[:, :, None, None]], axis=3)
        )

    @cached_property
    def per_load(self) -> FloatArray:
        """Stresses s1, s2, t12, MPa, of plies at their lower and upper face of a unit of nx .. mxy: (plies, 2, 3, 6)."""
        found = self.per_strain @ self.compliance
        return read_only(np.where(np.abs(found) < 1e-14 * np.abs(found).max(axis=(0, 1, 2)), 0.0, found))

    @cached_property
    def thermal_load(self) -> FloatArray:
        """Forces and moments that would hold the laminate against its change of temperature, shape (6,)."""
        z, laid = self.laminate.edges, self.laminate.laid
        stress = np.einsum("kij,kj->ki", self.turned, self._free_strains()) if len(laid) else np.zeros((0, 3))
        parts = (np.diff(z**n) / n for n in (1, 2))
        return read_only(np.concatenate([np.einsum("ki,k->i", stress, part) for part in parts]))

    def _free_strains(self) -> FloatArray:
        """Thermal strains of free plies in the axes of the laminate, shape (plies, 3)."""
        turn = to_ply(-self.laminate.angles, engineering=True)
        own = np.array([one.ply.expansion for one in self.laminate.laid]) * self.laminate.temperature_change
        return np.asarray(np.einsum("kij,kj->ki", turn, own))

    @cached_property
    def thermal_strain(self) -> FloatArray:
        """Strain and curvature of the change of temperature alone, shape (6,)."""
        return read_only(self.compliance @ self.thermal_load)

    @cached_property
    def thermal_stresses(self) -> FloatArray:
        """Stresses of plies of the change of temperature alone, MPa, shape (plies, 2, 3)."""
        own = np.array([one.ply.expansion for one in self.laminate.laid]) * self.laminate.temperature_change
        held = np.einsum("kij,kj->ki", self.stiffnesses, own)
        return read_only(self.per_strain @ self.thermal_strain - held[:, None])

    def strains(self, loads: ArrayLike) -> FloatArray:
        """Strains xx, yy, xy of the middle and curvatures, 1/mm, of loads nx .. mxy, shape (..., 6), temperature apart."""
        return np.asarray(resultants(loads) @ self.compliance.T)

    def stresses(self, loads: ArrayLike) -> FloatArray:
        """Stresses s1, s2, t12 of plies at both faces, MPa, of loads nx .. mxy and of temperature, shape (..., plies, 2, 3)."""
        return np.asarray(np.einsum("pfck,...k->...pfc", self.per_load, resultants(loads)) + self.thermal_stresses)

    @cached_property
    def shear_per_load(self) -> FloatArray:
        """Shear xz and yz, MPa, at the faces of plies of a unit of qx, qy, N/mm: (plies + 1, 2, 2).

        By equilibrium of stresses of bending that change along x (mx' = qx) or y (my' = qy) alone.
        """
        z = self.laminate.edges
        found = np.zeros((len(z), 2, 2))
        for axis, moment in ((0, 3), (1, 4)):
            change = self.compliance[:, moment]
            membrane = np.einsum("kij,j->ki", self.turned, change[:3])[:, axis]
            bending = np.einsum("kij,j->ki", self.turned, change[3:])[:, axis]
            steps = membrane * np.diff(z) + bending * np.diff(z**2) / 2.0
            found[1:, axis, axis] = -np.cumsum(steps)
        return read_only(found)


def resultants(given: ArrayLike) -> FloatArray:
    """Loads nx, ny, nxy, mx, my, mxy, shape (..., 6), or six texts with units; InputError for another shape."""
    own: Any = given
    if isinstance(own, Sequence) and any(isinstance(one, str) for one in own):
        kinds = ["force per width"] * 3 + ["moment per width"] * 3
        names = (*FORCES, *MOMENTS)
        own = [coherent(one, kind, f"loads, {name}") for one, kind, name in zip(own, kinds, names, strict=False)]
    try:
        found = np.asarray(own, dtype=np.float64)
    except (TypeError, ValueError):
        found = np.zeros(0)
    if found.ndim < 1 or found.shape[-1] != 6 or not np.isfinite(found).all():
        raise InputError(
            "loads", f"shape {found.shape}", f"finite loads {', '.join((*FORCES, *MOMENTS))}, shape (..., 6)"
        )
    return found


def _laid(where: str, given: Any) -> tuple[LaidPly, ...]:
    if not isinstance(given, Sequence) or isinstance(given, str) or not len(given):
        raise InputError(where, shortened(given), "plies from the bottom to the top: (ply, angle, thickness) each")
    found = []
    for i, row in enumerate(given, 1):
        at = inside(where, f"ply {i}")
        if not isinstance(row, Sequence) or isinstance(row, str) or len(row) != 3 or not isinstance(row[0], Ply):
            raise InputError(at, shortened(row), "a ply, its angle in degrees, its thickness in mm")
        angle = checks.real_number(inside(at, "angle"), row[1])
        if not abs(angle) < 360.0:
            raise InputError(inside(at, "angle"), number(angle), "an angle below 360 degrees")
        thick = Coherent("length", above=0.0).checked(inside(at, "thickness"), row[2])
        found.append(LaidPly(row[0], angle, thick))
    return tuple(found)
