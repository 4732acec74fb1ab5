"""Stresses of elements at a node as one value: averaged or the worst; how far elements disagree; faces of shells."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import LENGTHS, STRESSES, many, opened


class NodeMeans(NamedTuple):
    """Nodes, their mean tensors, shape (cases, n, 6), and the share by which elements disagree there, shape (n,)."""

    nodes: IntArray
    stresses: FloatArray
    spread: FloatArray


@opened(stress=STRESSES)
def von_mises(stress: ArrayLike) -> FloatArray:
    """Von Mises stress of tensors, shape (..., 6), components xx, yy, zz, xy, yz, zx (von Mises 1913).

    >>> float(von_mises([100.0, 0.0, 0.0, 0.0, 0.0, 0.0])), round(float(von_mises([0, 0, 0, 50.0, 0, 0])), 4)
    (100.0, 86.6025)
    """
    tensors = np.asarray(stress, dtype=np.float64)
    if tensors.shape[-1:] != (6,):
        raise InputError("von Mises stress", f"shape {tensors.shape}", "(..., 6), as xx, yy, zz, xy, yz, zx")
    xx, yy, zz, xy, yz, zx = np.moveaxis(tensors, -1, 0)
    normal = 0.5 * ((xx - yy) ** 2 + (yy - zz) ** 2 + (zz - xx) ** 2)
    return np.asarray(np.sqrt(normal + 3.0 * (xy**2 + yz**2 + zx**2)))


@opened(stresses=STRESSES)
def averaged_at_nodes(nodes: ArrayLike, stresses: ArrayLike) -> NodeMeans:
    """Mean of the components over the elements at each node; `nodes`, shape (r,), and `stresses`, shape (cases, r, 6), by row.

    The spread is the largest von Mises stress of (element - mean) at a node, over the largest von Mises stress of that load
    case anywhere: what averaging hides, as a measure of the mesh.

    >>> means = averaged_at_nodes([7, 7, 9], [[[120, 0, 0, 0, 0, 0], [80, 0, 0, 0, 0, 0], [50, 0, 0, 0, 0, 0]]])
    >>> means.nodes, means.stresses[0, :, 0], means.spread.round(3)
    (array([7, 9]), array([100.,  50.]), array([0.167, 0.   ]))
    """
    given, values = np.asarray(nodes), np.asarray(stresses, dtype=np.float64)
    if values.ndim != 3 or values.shape[1:] != (given.size, 6):
        raise InputError(
            "averaging", f"stresses of shape {values.shape}", f"(cases, {given.size}, 6), a row an element"
        )
    ids, back = np.unique(given, return_inverse=True)
    counts = np.bincount(back)
    means = np.zeros((values.shape[0], ids.size, 6))
    for case in range(values.shape[0]):
        for component in range(6):
            means[case, :, component] = np.bincount(back, weights=values[case, :, component]) / counts
    off = von_mises(values - means[:, back])
    peak = von_mises(values).max(axis=1, initial=0.0)
    share = (off / np.where(peak > 0.0, peak, 1.0)[:, None]).max(axis=0)
    spread = np.zeros(ids.size)
    np.maximum.at(spread, back, share)
    return NodeMeans(ids, means, spread)


class ShellFaces(NamedTuple):
    """Stresses at the top face, the bottom face and in the middle, shape (..., 6), MPa."""

    top: FloatArray
    bottom: FloatArray
    membrane: FloatArray


@opened(forces=many("energy release rate"), moments=many("force"), thickness=LENGTHS)
def shell_faces(forces: ArrayLike, moments: ArrayLike, thickness: ArrayLike) -> ShellFaces:
    """Stresses of a shell from N, N/mm, and M, N mm/mm, each (..., 3) as xx, yy, xy: N / t ± 6 M / t².

    A positive moment pulls the top face.

    >>> faces = shell_faces([200.0, -50.0, 30.0], [400.0, 120.0, -80.0], 10.0)
    >>> faces.top.tolist()
    [44.0, 2.2, 0.0, -1.8, 0.0, 0.0]
    """
    n, m = (np.asarray(one, dtype=np.float64) for one in (forces, moments))
    if n.shape[-1:] != (3,) or m.shape != n.shape:
        raise InputError(
            "shell faces", f"forces of shape {n.shape}, moments of shape {m.shape}", "(..., 3) each, as xx, yy, xy"
        )
    t = np.asarray(thickness, dtype=np.float64)[..., None]
    if t.size > 1 and t.shape[:-1] != n.shape[:-1]:
        raise InputError("shell faces, thickness", f"shape {t.shape[:-1]}", f"one, or {n.shape[:-1]}")
    even, bent = n / t, 6.0 * m / t**2
    return ShellFaces(*(_plane(one) for one in (even + bent, even - bent, even)))


def _plane(values: FloatArray) -> FloatArray:
    full = np.zeros((*values.shape[:-1], 6))
    full[..., 0], full[..., 1], full[..., 3] = values[..., 0], values[..., 1], values[..., 2]
    return full
