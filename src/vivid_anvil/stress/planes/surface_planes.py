"""Planes of a free surface: cracks start on those that stand across it and on those at 45 degrees to it."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.planes.resolve import checked, directions, plane_axes
from vivid_anvil.stress.planes.search import FINEST, PlaneFound, worst_plane
from vivid_anvil.units import many, opened

ACROSS, SLOPING = 90.0, 45.0  # degrees between the normals of planes and that of the surface
FIRST = 2.0  # degrees between planes of a family at first

Values = Callable[[FloatArray], FloatArray]


PLANES = ("all", "free surface")
LOADED = 0.05  # of the largest stress along the direction with least, from which on there is no free surface


def check_planes(where: str, planes: str) -> None:
    """InputError for another choice of planes."""
    one_of(inside(where, "planes"), planes, PLANES)


def surface_stated(where: str, surface_normal: object) -> tuple[float, float, float] | None:
    """The normal of the surface as it was given, of length 1, None where it was not; InputError for no direction."""
    if surface_normal is None:
        return None
    try:
        x, y, z = directions(np.asarray(surface_normal, dtype=np.float64).reshape(1, 3))[0].tolist()
    except (TypeError, ValueError, InputError):
        raise InputError(
            inside(where, "surface_normal"), shortened(surface_normal), "three numbers, such as [0, 0, 1]"
        ) from None
    return x, y, z


class FreeNormal(NamedTuple):
    """The direction along which there is least stress, and the largest traction there over the largest stress, -."""

    normal: FloatArray
    traction: float


@opened(tensors=many("stress"))
def free_normal(tensors: ArrayLike) -> FreeNormal:
    """The normal of the free surface at a place, from the stresses that it ever has, shape (samples, 6), MPa.

    Parameters
    ----------
    tensors : array_like
        Components xx, yy, zz, xy, yz, zx of each sample, MPa.

    Returns
    -------
    FreeNormal
        The normal, and how much stress is left along it: 0 on a free surface.

    Raises
    ------
    InputError
        For other shapes and values that are not finite.

    Examples
    --------
    >>> free_normal([[120.0, 40.0, 0.0, 30.0, 0.0, 0.0]])
    FreeNormal(normal=array([0., 0., 1.]), traction=0.0)
    """
    found = checked(tensors)[:, FULL]
    square = np.einsum("nij,nik->jk", found, found) / len(found)
    square += 1e-12 * float(np.trace(square)) * np.diag([2.0, 1.0, 0.0])  # of several that are free z, then y
    _, axes = np.linalg.eigh(square)
    normal = axes[:, 0]
    normal = normal if normal[int(np.abs(normal).argmax())] > 0.0 else -normal
    normal = np.where(np.abs(normal) < 1e-14, 0.0, normal)
    largest = float(np.sqrt((found**2).sum(axis=(1, 2))).max())
    left = float(np.linalg.norm(found @ normal, axis=1).max())
    share = left / largest if largest > 0.0 else 0.0
    return FreeNormal(normal / np.linalg.norm(normal), share if share > 1e-12 else 0.0)


class InSurface(NamedTuple):
    """A plane at a free surface: the surface's normal, the angle between both normals, and that between the plane's trace on the
    surface and the direction in it along which the stress is largest, degrees; nan where the plane lies in the surface.
    """

    surface: FloatArray
    tilt: float
    trace: float


def in_surface(normal: FloatArray, tensors: FloatArray) -> InSurface:
    """Where a plane lies at the surface of a place with these stresses, shape (samples, 6), MPa."""
    surface = free_normal(tensors).normal
    tilt = float(np.degrees(np.arccos(min(1.0, abs(float(normal @ surface))))))
    trace = np.cross(normal, surface)
    size = float(np.linalg.norm(trace))
    full = tensors[:, FULL]
    values = np.abs(np.linalg.eigvalsh(full)).max(axis=1)
    at = int(values.argmax())
    own, axes = np.linalg.eigh(full[at])
    largest = axes[:, int(np.abs(own).argmax())]
    largest = largest - float(largest @ surface) * surface
    length = float(np.linalg.norm(largest))
    if size < 1e-9 or length < 1e-9:
        return InSurface(surface, tilt, float("nan"))
    angle = float(np.degrees(np.arccos(min(1.0, abs(float(trace @ largest)) / (size * length)))))
    return InSurface(surface, tilt, angle)


def surface_family(surface: FloatArray, angle: float, around: FloatArray) -> FloatArray:
    """Normals of planes at an angle to the surface's normal, degrees, at places around it, degrees, shape (k, 3)."""
    normal = directions(surface)
    first, second = (axis[0] for axis in plane_axes(normal))
    turn, tilt = np.radians(around)[:, None], np.radians(angle)
    flat = np.cos(turn) * first + np.sin(turn) * second
    return np.asarray(np.sin(tilt) * flat + np.cos(tilt) * normal[0])


def worst_of_surface(values: Values, surface: FloatArray, *, second: Values | None = None) -> PlaneFound:
    """Of the planes across the surface and of those at 45 degrees to it the one where `values` is largest, to 0.01 degrees."""
    found = []
    for angle, turn in ((ACROSS, 180.0), (SLOPING, 360.0)):
        around = np.arange(0.0, turn, FIRST)
        own = np.asarray(values(surface_family(surface, angle, around)), dtype=np.float64)
        peaks = np.flatnonzero((own >= np.roll(own, 1)) & (own >= np.roll(own, -1)) & (own >= 0.9 * own.max()))[:24]
        at, reached, step = around[peaks], own[peaks], 0.5 * FIRST
        while step > FINEST:
            for side in (-step, step):
                tried = np.asarray(values(surface_family(surface, angle, at + side)), dtype=np.float64)
                better = tried > reached
                at, reached = np.where(better, at + side, at), np.where(better, tried, reached)
            step *= 0.5
        found.append(surface_family(surface, angle, at))
    return worst_plane(values, second=second, normals=np.concatenate(found))
