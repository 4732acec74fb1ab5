"""How far one stress can stand for the tensor at a node: how two-dimensional it is, and whether its components move in step."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.ground.checks import FloatArray, IntArray, places_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.measures.principal_stresses import largest_principal
from vivid_anvil.stress.planes.deviator import FULL, deviator, off_line
from vivid_anvil.units import STRESSES, opened

NOT_PROPORTIONAL = 0.1
_TOGETHER = 20_000  # nodes at once


class Trust(NamedTuple):
    """At one node: the biaxiality where the stress is largest, and how far the load path leaves a straight line (0 to 1)."""

    biaxiality: float
    off_line: float

    @property
    def proportional(self) -> bool:
        """Whether one scalar says what the tensor does."""
        return self.off_line <= NOT_PROPORTIONAL


class TrustOfNodes(NamedTuple):
    """The same for many nodes, shapes (n,); and the direction of the largest principal stress that each ever has, (n, 3)."""

    biaxiality: FloatArray
    off_line: FloatArray
    direction: FloatArray


@opened(history=STRESSES)
def trust_of(history: ArrayLike) -> Trust:
    """How well one scalar can stand for a tensor history, shape (samples, 6).

    Biaxiality: the principal of second largest magnitude over the largest, at the sample with the largest. Off the line: the
    second over the first singular value of the deviator about its mean, 0 where all components move in step, 1 where two move
    alike a quarter of a cycle apart.

    >>> trust_of([[1.0, 0, 0, 0, 0, 0], [50.0, 0, 0, 0, 0, 0], [-20.0, 0, 0, 0, 0, 0]])
    Trust(biaxiality=0.0, off_line=0.0)
    """
    tensors = np.asarray(history, dtype=np.float64)
    if tensors.ndim != 2 or tensors.shape[1] != 6 or not tensors.size:
        raise InputError("trust, history", f"shape {tensors.shape}", "tensors, shape (samples, 6)")
    principals = np.linalg.eigvalsh(tensors[:, FULL])
    at = np.unravel_index(int(np.abs(principals).argmax()), principals.shape)[0]
    sizes = np.asarray(np.linalg.svd(deviator(tensors - tensors.mean(axis=0)), compute_uv=False))
    biaxiality, _ = _largest(tensors[at : at + 1])
    return Trust(float(biaxiality[0]), float(off_line(sizes[None])[0]))


@opened()
def trust_of_nodes(result: ModelResult, places: Sequence[int] | IntArray | None = None) -> TrustOfNodes:
    """`trust_of` at many nodes, by default all, over all events, from what the loads have in common.

    The deviations of the tensors are those of the loads times the unit stresses, so one decomposition of the loads serves all
    nodes. The largest principal stress is a convex function of the loads, so it stands at a corner of their convex hull.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    places : sequence of int or ndarray of int, optional
        Rows of the nodes; all by default.

    Returns
    -------
    TrustOfNodes
        One verdict a node: how far one stress may stand for the tensor.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> trust = trust_of_nodes(model, [model.worst])  # of the demo: run_model(read_study("hanger_head.toml"))
    >>> trust.biaxiality.round(3), trust.off_line.round(3)
    (array([-0.612]), array([0.289]))
    """
    wanted = places_of("trust of nodes, places", places, result.field.size)
    if result.field.dimension == "section loads":  # forces and moments are no tensor of a place
        none = np.full(wanted.size, np.nan)
        return TrustOfNodes(none, none.copy(), np.zeros((wanted.size, 3)))
    courses = [event.loads for event in result.loads.events(result.duty_cycle) if not event.vibrates]
    if not courses:  # over frequency components are out of phase as a rule: nothing is told
        none = np.zeros(wanted.size)
        return TrustOfNodes(none, none.copy(), np.zeros((wanted.size, 3)))
    loads = np.concatenate(courses)
    triangle = np.linalg.qr(loads - loads.mean(axis=0), mode="r")
    corners = load_corners(loads)
    units, constants = result.loads.units(result.field), result.loads.constants(result.field)
    biaxiality, off, direction = np.empty(wanted.size), np.empty(wanted.size), np.empty((wanted.size, 3))
    for start in range(0, wanted.size, _TOGETHER):
        rows = slice(start, start + _TOGETHER)
        unit, constant = units[wanted[rows]], constants[wanted[rows]]
        off[rows] = off_line(np.linalg.svd(triangle @ deviator(unit), compute_uv=False))
        at = np.empty(len(unit), dtype=np.int64)
        largest_principal(unit, constant, corners, at)
        tensors = np.einsum("nk,nkc->nc", corners[at], unit) + constant
        biaxiality[rows], direction[rows] = _largest(tensors)
    return TrustOfNodes(biaxiality, off, direction)


def principal_direction(tensor: ArrayLike) -> tuple[float, float, float]:
    """Direction of the principal stress of largest magnitude of a tensor, six components; its largest part is positive.

    >>> principal_direction([0.0, -80.0, 20.0, 0.0, 0.0, 0.0])
    (0.0, 1.0, 0.0)
    """
    x, y, z = _largest(np.asarray(tensor, dtype=np.float64)[None])[1][0].tolist()
    return x, y, z


class Biaxiality(NamedTuple):
    """At each sample the smaller over the larger in-plane principal stress by magnitude, and the larger one, MPa.

    `kept` are the samples whose larger principal comes near the greatest; `mean` and `std` are those of their ratios.
    """

    ratio: FloatArray
    larger: FloatArray
    kept: FloatArray
    mean: float
    std: float


@opened(history=STRESSES)
def biaxiality_ratios(history: ArrayLike, *, gate: float = 0.35) -> Biaxiality:
    """Biaxiality of a surface, sample by sample: -1 torsion, 0 uniaxial, +1 equibiaxial; z is the normal of the surface.

    Samples whose larger principal is below `gate` times the greatest are left out of mean and standard deviation.

    >>> biaxiality_ratios([[100.0, 0, 0, 0, 0, 0], [0, 0, 0, 50.0, 0, 0]]).ratio
    array([ 0., -1.])
    """
    tensors = np.asarray(history, dtype=np.float64)
    middle, half = 0.5 * (tensors[:, 0] + tensors[:, 1]), 0.5 * (tensors[:, 0] - tensors[:, 1])
    radius = np.hypot(half, tensors[:, 3])
    both = np.stack([middle + radius, middle - radius])
    first = np.abs(both).argmax(axis=0)
    rows = np.arange(len(tensors))
    larger, smaller = both[first, rows], both[1 - first, rows]
    ratio = np.where(larger != 0.0, smaller / np.where(larger != 0.0, larger, 1.0), 0.0)
    kept = np.abs(larger) >= gate * float(np.abs(larger).max(initial=0.0))
    return Biaxiality(ratio, larger, kept, float(ratio[kept].mean()), float(ratio[kept].std()))


def _largest(tensors: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Biaxiality of tensors, and the direction of the principal stress of largest magnitude."""
    values, vectors = np.linalg.eigh(tensors[:, FULL])
    order = np.argsort(-np.abs(values), axis=1, kind="stable")
    rows = np.arange(len(tensors))
    first, second = values[rows, order[:, 0]], values[rows, order[:, 1]]
    along = vectors[rows, :, order[:, 0]]
    sign = np.sign(along[rows, np.abs(along).argmax(axis=1)])
    return np.where(first != 0.0, second / np.where(first != 0.0, first, 1.0), 0.0), along * sign[:, None] + 0.0
