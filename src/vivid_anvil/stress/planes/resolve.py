"""What a tensor does on a plane: its normal part, and the shear vector along two axes in the plane.

Tensors have the components xx, yy, zz, xy, yz, zx; strains are tensor components (ε_xy = γ_xy / 2). A plane is named by its
normal n = (sin θ cos φ, sin θ sin φ, cos θ); n and -n are one plane. The axes in it run along growing θ and along growing φ.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, as_numbers
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.units import many, one, opened

LEVEL = 2e-4  # of z, below which a normal lies in the plane of x and y, and so does its opposite


@opened(theta=one("angle", degrees=True), phi=one("angle", degrees=True))
def normal_at(theta: float, phi: float) -> FloatArray:
    """The normal of the plane at θ from z and φ from x to y, degrees or text with a unit, shape (3,).

    Parameters
    ----------
    theta : float or text with a unit
        Angle from the z axis, degrees.
    phi : float or text with a unit
        Angle from the x axis towards y, degrees.

    Returns
    -------
    ndarray
        The unit normal, shape (3,).

    Raises
    ------
    InputError
        For an angle that is no number or has another unit.

    Examples
    --------
    >>> normal_at(90.0, 0.0).round(12)
    array([1., 0., 0.])
    """
    t, p = np.radians(theta), np.radians(phi)
    return np.array([np.sin(t) * np.cos(p), np.sin(t) * np.sin(p), np.cos(t)])


def angles_of(normals: ArrayLike) -> tuple[FloatArray, FloatArray]:
    """θ and φ, degrees, of normals, shape (n, 3) or (3,): θ from 0 to 90, φ from 0 below 360, and below 180 at θ = 90."""
    n = directions(normals)
    upwards = np.where((n[:, 2] < -1e-12)[:, None], -n, n)
    theta = np.degrees(np.arccos(np.clip(upwards[:, 2], -1.0, 1.0)))
    phi = np.degrees(np.arctan2(upwards[:, 1], upwards[:, 0])) % 360.0
    phi = np.where(np.abs(upwards[:, 2]) <= LEVEL, phi % 180.0, phi)
    return theta, np.where(theta < 1e-9, 0.0, phi)


def directions(normals: ArrayLike) -> FloatArray:
    """Unit vectors of directions, shape (n, 3); InputError for others."""
    found = np.atleast_2d(as_numbers("planes, normals", normals))
    if found.ndim != 2 or found.shape[1] != 3 or not np.isfinite(found).all():
        raise InputError("planes, normals", f"shape {found.shape}", "finite directions, shape (n, 3)")
    sizes = np.linalg.norm(found, axis=1)
    if not (sizes > 0.0).all():
        raise InputError("planes, normals", "a direction of length 0", "directions")
    return np.asarray(found / sizes[:, None])


def plane_axes(normals: ArrayLike) -> tuple[FloatArray, FloatArray]:
    """Axes in each plane, along growing θ and along growing φ, shape (n, 3) each; at the pole φ is 0."""
    n = directions(normals)
    flat = np.hypot(n[:, 0], n[:, 1])
    pole = flat < 1e-12
    safe = np.where(pole, 1.0, flat)
    c, s = np.where(pole, 1.0, n[:, 0] / safe), np.where(pole, 0.0, n[:, 1] / safe)
    first = np.column_stack([n[:, 2] * c, n[:, 2] * s, -flat])
    second = np.column_stack([-s, c, np.zeros(len(n))])
    return first, second


def shear_weights(normals: FloatArray, along: FloatArray) -> FloatArray:
    """Weights, shape (n, 6), of the six components in the shear n·S·m on planes along directions m in them."""
    n, m = normals, along
    pairs = ((0, 1), (1, 2), (2, 0))
    own = [n[:, i] * m[:, i] for i in range(3)]
    mixed = [n[:, i] * m[:, j] + n[:, j] * m[:, i] for i, j in pairs]
    return np.column_stack([*own, *mixed])


@opened(tensors=many())
def normal_stress(tensors: ArrayLike, normals: ArrayLike) -> FloatArray:
    """n·S·n on each plane at each sample, shape (planes, samples), in the unit of the tensors, (samples, 6).

    Parameters
    ----------
    tensors : array_like
        Components xx, yy, zz, xy, yz, zx of each sample: stresses, or tensor strains.
    normals : array_like
        Normals of planes, shape (planes, 3).

    Returns
    -------
    ndarray
        Shape (planes, samples).

    Raises
    ------
    InputError
        For other shapes and values that are not finite.

    Examples
    --------
    >>> normal_stress([[100.0, 0, 0, 50.0, 0, 0]], [[1.0, 1.0, 0.0]]).round(9)
    array([[100.]])
    """
    return np.asarray(normal_weights(directions(normals)) @ checked(tensors).T)


@opened(tensors=many())
def shear_stress(tensors: ArrayLike, normals: ArrayLike) -> FloatArray:
    """The shear vector on each plane at each sample, along growing θ and growing φ, shape (planes, samples, 2).

    Parameters
    ----------
    tensors : array_like
        Components xx, yy, zz, xy, yz, zx of each sample: stresses, or tensor strains.
    normals : array_like
        Normals of planes, shape (planes, 3).

    Returns
    -------
    ndarray
        Shape (planes, samples, 2).

    Raises
    ------
    InputError
        For other shapes and values that are not finite.

    Examples
    --------
    >>> shear_stress([[100.0, 0, 0, 0, 0, 0]], [[1.0, 1.0, 0.0]]).round(9).tolist()
    [[[0.0, -50.0]]]
    """
    n, found = directions(normals), checked(tensors)
    parts = [shear_weights(n, axis) @ found.T for axis in plane_axes(n)]
    return np.stack(parts, axis=-1)


def checked(tensors: ArrayLike) -> FloatArray:
    """Tensors of samples, shape (samples, 6); InputError for others."""
    found = np.atleast_2d(np.asarray(tensors, dtype=np.float64))
    if found.ndim != 2 or found.shape[1] != 6 or not found.size or not np.isfinite(found).all():
        raise InputError(
            "tensors", f"shape {found.shape}", "finite components xx, yy, zz, xy, yz, zx, shape (samples, 6)"
        )
    return found
