"""Local stress and strain where a notch yields under several stresses at once: by one rule for paths in step, and for any path.

In: elastic stresses of six components, the cyclic curve, a notch rule for the equivalent stress. Out: local stress and strain,
sample by sample, of a block that follows itself. At a free surface nothing acts along its normal, before and after yielding.
"""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray, one_of, real_number, share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.planes.criteria import elastic_strains
from vivid_anvil.stress.planes.deviator import FULL, TWICE, deviator, off_line
from vivid_anvil.stress.planes.resolve import checked
from vivid_anvil.stress.planes.surface_planes import free_normal
from vivid_anvil.stress.yielding import _kernels
from vivid_anvil.stress.yielding.follow import turned_points
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES
from vivid_anvil.units import STRESSES, opened

PLASTICITY = {
    "proportional": "components in step: the equivalent stress follows the notch rule with memory (Hoffmann and Seeger 1989)",
    "incremental": "any path: sliders in series give the strain, layers side by side the stress (Köttgen, Barkey and Socie 1995)",
    "elastic": "no yielding: Hooke's law",
}
TRANSVERSE = {
    "stress ratio": "the principal stresses in the surface keep their ratio: a uniaxial stress stays uniaxial",
    "strain ratio": "the principal strains in the surface keep their ratio: the notch holds what is across",
}
PARTS = 200  # straight pieces of the curves
ROWS = 2_048  # of tables
PASSES = 3  # through a block, until it repeats itself
COMPONENTS = ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))


@dataclass(frozen=True, eq=False)
class LocalPath:
    """Local stress, MPa, and tensor strain, -, shape (n, 6), at `samples` of what was given, in the order of a repeat.

    `off_line` says how far the elastic path leaves a line through zero, 0 to 1; `traction` what acts along the normal of the
    surface, over the largest stress; `equivalent` the largest elastic equivalent stress, MPa.
    """

    stress: FloatArray
    strain: FloatArray
    samples: IntArray
    off_line: float
    traction: float
    equivalent: float


@dataclass(frozen=True, kw_only=True, eq=False)
class Yielding:
    """How a place yields.

    Parameters
    ----------
    cyclic : CyclicCurve
        The cyclic stress-strain curve.
    plasticity : str, default "proportional"
        One of `PLASTICITY`.
    notch_rule : str, default "neuber"
        From elastic to local equivalent stress: one of `NOTCH_RULES` for stresses.
    poissons_ratio : float, default 0.3
        Elastic, -.
    transverse : str, default "stress ratio"
        What the proportional rule holds in the surface: one of `TRANSVERSE`.
    nonproportional_hardening : float, default 0.0
        α, -: K' times 1 + α F, with F how far the path leaves a line (0 to 1). For the incremental rule.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = CyclicCurve(youngs_modulus="206 GPa", cyclic_strength_coefficient="1080 MPa", cyclic_hardening_exponent=0.155)
    >>> bar = Yielding(cyclic=steel)
    >>> path = bar.local([[700.0, 0, 0, 0, 0, 0], [-700.0, 0, 0, 0, 0, 0]])
    >>> path.stress[:, 0].round(1).tolist(), path.strain[:, 0].round(6).tolist()
    ([443.5, -443.5, 443.5], [0.005363, -0.005363, 0.005363])
    """

    cyclic: CyclicCurve
    plasticity: str = "proportional"
    notch_rule: str = "neuber"
    poissons_ratio: float = 0.3
    transverse: str = "stress ratio"
    nonproportional_hardening: float = 0.0

    def __post_init__(self) -> None:
        where = "yielding"
        one_of(f"{where}, plasticity", self.plasticity, tuple(PLASTICITY))
        one_of(f"{where}, transverse", self.transverse, tuple(TRANSVERSE))
        rules = tuple(name for name, rule in NOTCH_RULES.items() if rule.drive == "stress")
        one_of(f"{where}, notch_rule", self.notch_rule, rules)
        if not 0.0 <= real_number(f"{where}, poissons_ratio", self.poissons_ratio) < 0.5:
            raise InputError(f"{where}, poissons_ratio", f"{self.poissons_ratio:g}", "0 up to below 0.5, such as 0.3")
        share_of_one(f"{where}, nonproportional_hardening", self.nonproportional_hardening)
        if self.nonproportional_hardening and self.plasticity != "incremental":
            raise InputError(
                f"{where}, nonproportional_hardening",
                f"{self.nonproportional_hardening:g} with plasticity {self.plasticity!r}",
                'plasticity = "incremental", which follows the path',
            )
        if self.transverse != "stress ratio" and self.plasticity != "proportional":
            raise InputError(
                f"{where}, transverse",
                f"{self.transverse!r} with plasticity {self.plasticity!r}",
                'plasticity = "proportional"',
            )

    @opened(elastic=STRESSES)
    def local(self, elastic: ArrayLike, *, surface_normal: ArrayLike | None = None) -> LocalPath:
        """Local stress and strain over a block of elastic stresses, shape (samples, 6), MPa, that follows itself.

        Parameters
        ----------
        elastic : array_like
            Components xx, yy, zz, xy, yz, zx of each sample, MPa, as elasticity gives them.
        surface_normal : array_like, optional
            Normal of the free surface; without it the direction along which there is least stress.

        Returns
        -------
        LocalPath
            Stress and strain in the axes of what was given.

        Raises
        ------
        InputError
            For other shapes and values that are not finite.
        """
        tensors = checked(elastic)
        normal = free_normal(tensors).normal if surface_normal is None else np.asarray(surface_normal, dtype=np.float64)
        axes, plane, traction = in_surface(tensors, normal / np.linalg.norm(normal))
        sizes = np.asarray(np.linalg.svd(deviator(plane), compute_uv=False))
        off = float(off_line(sizes[None])[0])
        way = {"proportional": self._proportional, "incremental": self._incremental, "elastic": self._elastic}
        samples, stress, strain = way[self.plasticity](plane)
        equivalent = float(np.sqrt(1.5) * np.linalg.norm(deviator(plane), axis=1).max())
        return LocalPath(_turned(stress, axes), _turned(strain, axes), samples, off, traction, equivalent)

    def _elastic(self, plane: FloatArray) -> _Found:
        strain = elastic_strains(plane, self.cyclic.youngs_modulus, self.poissons_ratio)
        return _Found(np.arange(len(plane)), plane, strain)

    def _proportional(self, plane: FloatArray) -> _Found:
        """The way of a signed equivalent stress along the line that the path comes nearest to."""
        line, drive = line_of(plane)
        samples, points = turned_points(drive)
        largest = float(np.abs(points).max())
        if largest == 0.0:
            nothing = np.zeros((points.size, 6))
            return _Found(samples, nothing, nothing)
        first, second, turn = principals(line)
        parts = _of_drive(self, first, second, largest)
        followed = _followed(points, largest, parts)
        own = np.zeros((2, points.size, 6))
        cos, sin = np.cos(turn), np.sin(turn)
        for into, (one, two) in zip(own, ((0, 1), (2, 3)), strict=True):
            a, b = followed[:, one], followed[:, two]
            into[:, 0], into[:, 1] = cos**2 * a + sin**2 * b, sin**2 * a + cos**2 * b
            into[:, 3] = cos * sin * (a - b)
        own[1][:, 2] = followed[:, 4]
        return _Found(samples, own[0], own[1])

    def _incremental(self, plane: FloatArray) -> _Found:
        """Sliders in series along the elastic stress give the strain, layers side by side under that strain the stress."""
        modulus = self.cyclic.youngs_modulus
        shear = 0.5 * modulus / (1.0 + self.poissons_ratio)
        deviators = deviator(plane)
        largest = float(np.sqrt(1.5) * np.linalg.norm(deviators, axis=1).max())
        if largest == 0.0:
            return self._elastic(plane)
        drives = largest * np.arange(PARTS + 1) / PARTS
        stress, strain = NOTCH_RULES[self.notch_rule].local(self._hardened(deviators), drives, None)
        gamma = strain - stress * (1.0 - 2.0 * self.poissons_ratio) / (3.0 * modulus)
        found, local = np.empty_like(deviators), np.empty_like(deviators)
        soft = np.diff(gamma) / np.diff(drives)
        _kernels.dragged(
            deviators, np.sqrt(2.0 / 3.0) * drives[1:-1], 1.5 * np.diff(soft), 1.5 * soft[0], PASSES, found
        )
        slopes = np.diff(stress) / np.diff(gamma)
        weights = np.append(slopes[:-1] - slopes[1:], slopes[-1]) / (3.0 * shear)
        radii = np.append(2.0 * shear * np.sqrt(1.5) * gamma[1:-1], np.inf)
        _kernels.shared(found, weights, radii, 2.0 * shear, PASSES, local)
        own, total = local / TWICE, found / TWICE
        hydrostatic = -own[:, 2]  # nothing acts along the normal
        own[:, :3] += hydrostatic[:, None]
        total[:, :3] += ((1.0 - 2.0 * self.poissons_ratio) * hydrostatic / modulus)[:, None]
        return _Found(np.arange(len(plane)), own, total)

    def _hardened(self, deviators: FloatArray) -> CyclicCurve:
        """The cyclic curve of a path that turns."""
        if not self.nonproportional_hardening:
            return self.cyclic
        sizes = np.linalg.svd(deviators - deviators.mean(axis=0), compute_uv=False)
        factor = 1.0 + self.nonproportional_hardening * float(off_line(sizes[None])[0])
        return dataclasses.replace(
            self.cyclic, cyclic_strength_coefficient=factor * self.cyclic.cyclic_strength_coefficient
        )


class _Found(NamedTuple):
    samples: IntArray
    stress: FloatArray
    strain: FloatArray


def in_surface(tensors: FloatArray, normal: FloatArray) -> tuple[FloatArray, FloatArray, float]:
    """Axes whose third is the normal, rows; the tensors there without what acts along it; that over the largest stress."""
    first = np.cross(normal, np.eye(3)[int(np.abs(normal).argmin())])
    first /= np.linalg.norm(first)
    axes = np.stack([first, np.cross(normal, first), normal])
    own = _turned(tensors, axes.T)
    largest = float(np.sqrt((tensors[:, FULL] ** 2).sum(axis=(1, 2))).max())
    left = float(np.sqrt((own[:, [2, 4, 5]] ** 2).sum(axis=1)).max())
    own[:, [2, 4, 5]] = 0.0
    return axes, own, left / largest if largest > 0.0 else 0.0


def _turned(tensors: FloatArray, axes: FloatArray) -> FloatArray:
    """Tensors whose axes are the rows of `axes`, in the axes that those rows are written in."""
    full = np.einsum("ai,nab,bj->nij", axes, tensors[:, FULL], axes, optimize=True)
    return np.ascontiguousarray(np.column_stack([full[:, i, j] for i, j in COMPONENTS]))


def line_of(plane: FloatArray) -> tuple[FloatArray, FloatArray]:
    """The tensor with an equivalent stress of 1 along whose line a path runs, and how far along it each sample is, MPa."""
    deviators = deviator(plane)
    at = int(np.linalg.norm(deviators, axis=1).argmax())
    size = float(np.linalg.norm(deviators[at]))
    if size == 0.0:
        return plane[at], np.zeros(len(plane))
    line = plane[at] / (np.sqrt(1.5) * size)
    along = deviators[at] / size
    if abs(line[0] + line[1]) > 0.0 and line[0] + line[1] < 0.0:
        line, along = -line, -along
    return line, np.sqrt(1.5) * (deviators @ along)


def principals(line: FloatArray) -> tuple[float, float, float]:
    """Principal stresses in the surface, that of larger size first, and the angle of the first from x, radians."""
    x, y, shear = float(line[0]), float(line[1]), float(line[3])
    turn = 0.5 * np.arctan2(2.0 * shear, x - y)
    radius, middle = np.hypot(0.5 * (x - y), shear), 0.5 * (x + y)
    if middle >= 0.0:
        return middle + radius, middle - radius, turn
    return middle - radius, middle + radius, turn + 0.5 * np.pi


def _of_drive(how: Yielding, first: float, second: float, largest: float) -> FloatArray:
    """Stresses and strains along both axes, and the strain along the normal, at first loading, shape (rows, 5)."""
    drives = np.linspace(0.0, largest, ROWS)
    stress, strain = NOTCH_RULES[how.notch_rule].local(how.cyclic, drives, None)
    modulus, nu = how.cyclic.youngs_modulus, how.poissons_ratio
    secant = np.divide(stress, modulus * strain, out=np.ones_like(stress), where=strain > 0.0)
    nu_local = 0.5 - (0.5 - nu) * secant
    if how.transverse == "strain ratio":
        ratio = (second - nu * first) / (first - nu * second)
        phi = (ratio + nu_local) / (1.0 + nu_local * ratio)
    else:
        phi = np.full(ROWS, second / first)
    root = np.sqrt(1.0 - phi + phi**2)
    one, other = stress / root, phi * stress / root
    along, across = strain * (1.0 - nu_local * phi) / root, strain * (phi - nu_local) / root
    return np.column_stack([one, other, along, across, -nu_local * (1.0 + phi) * strain / root])


def _followed(points: FloatArray, largest: float, parts: FloatArray) -> FloatArray:
    """Each part at the turning points of a drive, with the memory of the material, shape (points, parts)."""
    step = largest / (ROWS - 1)
    slopes = np.gradient(parts, axis=0, edge_order=2)
    rise = np.diff(parts, axis=0)
    before, after = slopes[:-1], slopes[1:]
    cubics = np.stack([parts[:-1], before, 3.0 * rise - 2.0 * before - after, before + after - 2.0 * rise], axis=2)
    found = np.empty((points.size, parts.shape[1]))
    ends, one, other = np.empty((points.size // 2 + 1, 2), dtype=np.int64), np.empty(points.size), np.empty(points.size)
    for i in range(0, parts.shape[1], 2):
        pair = (i, min(i + 1, parts.shape[1] - 1))
        table = np.ascontiguousarray(np.concatenate([cubics[:, pair[0]], cubics[:, pair[1]]], axis=1))
        _kernels.follow(points, 0.0, 1.0 / step, table, one, other, ends)
        found[:, pair[0]], found[:, pair[1]] = one, other
    return found
