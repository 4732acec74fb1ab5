"""Random stress on planes: rms of the normal stress and of shear, from the covariance of the six components.

Axes in a plane of normal (θ from z, φ from x): along growing θ, and along growing φ.
"""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.directions import beside, half_sphere
from vivid_anvil.stress.measures.straight import normal_weights

FINEST = 0.01  # degrees
AROUND = 8


def plane_normal(theta_degrees: float, phi_degrees: float) -> FloatArray:
    """The unit normal at θ from z and φ from x.

    >>> plane_normal(90.0, 0.0).round(12)
    array([1., 0., 0.])
    """
    theta, phi = math.radians(theta_degrees), math.radians(phi_degrees)
    return np.array([math.sin(theta) * math.cos(phi), math.sin(theta) * math.sin(phi), math.cos(theta)])


def plane_axes(normal: FloatArray) -> FloatArray:
    """Unit vectors in planes of these unit normals, along growing θ and along growing φ: shape (n, 2, 3)."""
    x, y, z = np.atleast_2d(normal).T
    across = np.hypot(x, y)
    c, s = (
        np.where(across > 0.0, one / np.where(across > 0.0, across, 1.0), base) for one, base in ((x, 1.0), (y, 0.0))
    )
    theta = np.stack([z * c, z * s, -across], axis=-1)
    phi = np.stack([-s, c, np.zeros_like(s)], axis=-1)
    return np.stack([theta, phi], axis=1)


def shear_weights(normal: FloatArray, along: FloatArray) -> FloatArray:
    """Weights of the six components that give the shear n·σ·d: shape (..., 6)."""
    n, d = np.moveaxis(normal, -1, 0), np.moveaxis(along, -1, 0)
    mixed = [n[i] * d[j] + n[j] * d[i] for i, j in ((0, 1), (1, 2), (2, 0))]
    return np.stack([n[0] * d[0], n[1] * d[1], n[2] * d[2], *mixed], axis=-1)


def _checked(covariance: FloatArray, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Both with the shapes that they must have; InputError else, and for a covariance that none can be."""
    own, rows = np.asarray(covariance, dtype=np.float64), np.atleast_2d(np.asarray(normals, dtype=np.float64))
    if own.shape != (6, 6) or not np.isfinite(own).all():
        raise InputError("random planes, covariance", f"shape {own.shape}", "(6, 6), finite, MPa²")
    if not np.allclose(own, own.T, rtol=1e-9, atol=0.0) or np.linalg.eigvalsh(own)[0] < -1e-9 * np.trace(own):
        found = "a matrix that is not symmetric and positive semidefinite"
        raise InputError("random planes, covariance", found, "that of six stresses")
    if rows.ndim != 2 or rows.shape[1] != 3 or not np.isfinite(rows).all() or not rows.any(axis=1).all():
        raise InputError("random planes, normals", f"shape {rows.shape}", "(n, 3), none of them 0")
    return own, rows


def normal_rms(covariance: FloatArray, normals: FloatArray) -> FloatArray:
    """Root mean square of the normal stress on planes, shape (n, 3) to (n,), MPa.

    >>> normal_rms(np.diag([900.0, 0, 0, 0, 0, 0]), np.array([[1.0, 0.0, 0.0], [1.0, 1.0, 0.0]])).round(9)
    array([30., 15.])
    """
    own, rows = _checked(covariance, normals)
    weights = normal_weights(rows)
    return np.asarray(np.sqrt(np.maximum(np.einsum("na,ab,nb->n", weights, own, weights), 0.0)))


def shear_covariance(covariance: FloatArray, normals: FloatArray) -> FloatArray:
    """Covariance, MPa², of the two shear components on planes, shape (n, 3) to (n, 2, 2)."""
    own, rows = _checked(covariance, normals)
    units = rows / np.linalg.norm(rows, axis=-1, keepdims=True)
    weights = shear_weights(units[:, None, :], plane_axes(units))
    return np.asarray(np.einsum("nia,ab,njb->nij", weights, own, weights))


def greatest_shear_rms(covariance: FloatArray, normals: FloatArray) -> FloatArray:
    """Greatest rms of the shear along one direction of each plane, MPa: the root of the greater eigenvalue."""
    return np.asarray(np.sqrt(np.maximum(np.linalg.eigvalsh(shear_covariance(covariance, normals))[:, -1], 0.0)))


def worst_plane(size_on: Callable[[FloatArray], FloatArray], *, step_degrees: float = 5.0) -> tuple[FloatArray, float]:
    """The normal at which something is largest, and how large: `size_on` takes normals (n, 3) and gives (n,).

    Looked for all over the half sphere, then around the worst ever finer, to 0.01 degrees.

    >>> normal, size = worst_plane(lambda n: normal_rms(np.diag([900.0, 400.0, 0, 0, 0, 0]), n))
    >>> abs(normal).round(3), round(size, 6)
    (array([1., 0., 0.]), 30.0)
    """
    if not 0.1 <= step_degrees <= 30.0:
        raise InputError("worst plane, step_degrees", f"{step_degrees:g} degrees", "0.1 to 30 degrees")
    every = half_sphere(step_degrees)
    found = size_on(every)
    normal, size, step = every[int(found.argmax())], float(found.max()), step_degrees
    while step > FINEST:
        near = np.concatenate([beside(normal[None], step, 2.0 * math.pi * k / AROUND) for k in range(AROUND)])
        found = size_on(near)
        if float(found.max()) > size:
            normal, size = near[int(found.argmax())], float(found.max())
        else:
            step *= 0.5
    return normal, size
