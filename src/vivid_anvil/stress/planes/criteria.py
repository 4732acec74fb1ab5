"""Criteria on planes for a path that is gone round again and again: what counts on a plane, and which plane decides.

In: the paths of stress and, for some, of strain at one place. Out: values on planes, the worst plane by `worst`.
Sources stand at each class. On the plane of the largest shear amplitude planes often tie; the second quantity decides.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.planes.resolve import checked, normal_stress, shear_stress
from vivid_anvil.stress.planes.search import PlaneFound, worst_plane
from vivid_anvil.stress.planes.shear_amplitude import SHEAR_AMPLITUDES
from vivid_anvil.units import Coherent, many, opened

CRITERIA: Choices[type[Criterion]] = Choices("criterion")
TOGETHER = 2_000_000  # planes times samples that are looked at side by side


@dataclass(frozen=True, eq=False)
class Paths:
    """Stress at one place, MPa, and where it is known tensor strain, -, each sample by sample, shape (n, 6)."""

    stress: FloatArray
    strain: FloatArray | None = None

    @staticmethod
    def of(stress: ArrayLike, strain: ArrayLike | None = None) -> Paths:
        """Checked paths; InputError for other shapes, and for strains of another length."""
        own = checked(stress)
        if strain is None:
            return Paths(own)
        other = checked(strain)
        if len(other) != len(own):
            raise InputError("paths", f"{len(own)} stresses, {len(other)} strains", "one of each at every sample")
        return Paths(own, other)

    def strained(self, criterion: str) -> FloatArray:
        """The strains; InputError where there are none."""
        if self.strain is None:
            raise InputError(
                f"criterion {criterion}", "no strains", "strains at every sample", "Give strains, or elastic constants."
            )
        return self.strain


def in_parts(normals: FloatArray, samples: int, values: Callable[[FloatArray], FloatArray]) -> FloatArray:
    """Values on many planes, so many side by side as there is room for."""
    size = max(1, TOGETHER // max(samples, 1))
    return np.concatenate([values(normals[i : i + size]) for i in range(0, len(normals), size)])


def shear_amplitude(tensors: FloatArray, normals: FloatArray, amplitude: str) -> FloatArray:
    """The amplitude of the shear path on each plane, in the unit of the tensors."""
    how = SHEAR_AMPLITUDES[amplitude]
    return in_parts(normals, len(tensors), lambda some: how(shear_stress(tensors, some)))


def largest_normal(tensors: FloatArray, normals: FloatArray) -> FloatArray:
    """The largest normal part on each plane."""
    return in_parts(normals, len(tensors), lambda some: np.asarray(normal_stress(tensors, some).max(axis=1)))


def normal_range(tensors: FloatArray, normals: FloatArray) -> FloatArray:
    """Largest less smallest normal part on each plane."""
    return in_parts(normals, len(tensors), lambda some: np.asarray(np.ptp(normal_stress(tensors, some), axis=1)))


@dataclass(frozen=True, kw_only=True)
class Criterion(ABC):
    """What is looked at on planes."""

    kind: ClassVar[str]
    source: ClassVar[str]
    suits: ClassVar[str]
    formula: ClassVar[str]
    unit: ClassVar[str] = "stress"  # the dimension of its values
    strains: ClassVar[bool] = False
    by_shear: ClassVar[bool] = False  # whether it counts on the plane of the largest shear amplitude

    @abstractmethod
    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """The parameter on each plane."""

    def decides(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """What decides on the plane: by default the parameter itself."""
        return self.values(paths, normals)

    def worst(
        self, stress: ArrayLike, strain: ArrayLike | None = None, *, step_degrees: float = 5.0
    ) -> tuple[PlaneFound, float]:
        """The plane that decides, and the parameter there."""
        paths = Paths.of(stress, strain)
        if self.by_shear:
            found = worst_plane(
                lambda n: self.decides(paths, n), second=lambda n: self.values(paths, n), step_degrees=step_degrees
            )
        else:
            found = worst_plane(lambda n: self.values(paths, n), step_degrees=step_degrees)
        return found, float(self.values(paths, found.normal[None])[0])


@dataclass(frozen=True, kw_only=True)
class _ByShear(Criterion):
    """Those with the amplitude of a shear path."""

    amplitude: str = "circle"

    def __post_init__(self) -> None:
        one_of(f"criterion {self.kind}, amplitude", self.amplitude, tuple(SHEAR_AMPLITUDES))


@CRITERIA.add("findley")
@dataclass(frozen=True, kw_only=True)
class Findley(_ByShear):
    """τ_a + k σ_n,max, largest over planes."""

    k: Coherent = Coherent("number", at_least=0.0)
    formula: ClassVar[str] = "f = τ_a + k × σ_n,max"
    source: ClassVar[str] = "Findley 1959"
    suits: ClassVar[str] = "ductile metals at long lives"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """MPa."""
        return shear_amplitude(paths.stress, normals, self.amplitude) + self.k * largest_normal(paths.stress, normals)


@CRITERIA.add("matake")
@dataclass(frozen=True, kw_only=True)
class Matake(_ByShear):
    """τ_a + k σ_n,max on the plane of the largest shear amplitude."""

    k: Coherent = Coherent("number", at_least=0.0)
    by_shear: ClassVar[bool] = True
    formula: ClassVar[str] = "m = τ_a + k × σ_n,max, where τ_a is largest"
    source: ClassVar[str] = "Matake 1977"
    suits: ClassVar[str] = "ductile metals at long lives; k = 2 t / s - 1"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """MPa."""
        return shear_amplitude(paths.stress, normals, self.amplitude) + self.k * largest_normal(paths.stress, normals)

    def decides(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """Shear amplitude, MPa."""
        return shear_amplitude(paths.stress, normals, self.amplitude)


@CRITERIA.add("mcdiarmid")
@dataclass(frozen=True, kw_only=True)
class McDiarmid(_ByShear):
    """τ_a / t + σ_n,max / (2 R_m) on the plane of the largest shear amplitude; compression counts as 0."""

    torsion_limit: Coherent = Coherent("stress", above=0.0)
    ultimate_strength: Coherent = Coherent("stress", above=0.0)
    unit: ClassVar[str] = "number"
    by_shear: ClassVar[bool] = True
    formula: ClassVar[str] = "d = τ_a / t + σ_n,max / (2 × R_m), where τ_a is largest"
    source: ClassVar[str] = "McDiarmid 1991"
    suits: ClassVar[str] = "ductile metals at long lives, the strength in place of a second limit"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """1 at the limit."""
        normal = np.maximum(largest_normal(paths.stress, normals), 0.0)
        shear = shear_amplitude(paths.stress, normals, self.amplitude)
        return np.asarray(shear / self.torsion_limit + 0.5 * normal / self.ultimate_strength)

    def decides(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """Shear amplitude, MPa."""
        return shear_amplitude(paths.stress, normals, self.amplitude)


@CRITERIA.add("normal stress")
@dataclass(frozen=True, kw_only=True)
class NormalStressPlane(Criterion):
    """Half the range of the normal stress, largest over planes."""

    formula: ClassVar[str] = "σ_n,a = Δσ_n / 2"
    source: ClassVar[str] = "Stulen and Cummings 1954"
    suits: ClassVar[str] = "brittle metals, castings, welds across which cracks open"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """MPa."""
        return 0.5 * normal_range(paths.stress, normals)


@CRITERIA.add("fatemi-socie")
@dataclass(frozen=True, kw_only=True)
class FatemiSocie(_ByShear):
    """γ_a (1 + k σ_n,max / R_e); a compressive normal stress counts as 0. Largest over planes, or where γ_a is largest."""

    k: Coherent = Coherent("number", at_least=0.0)
    yield_strength: Coherent = Coherent("stress", above=0.0)
    plane: str = "largest shear"
    unit: ClassVar[str] = "number"
    strains: ClassVar[bool] = True
    by_shear: ClassVar[bool] = True
    formula: ClassVar[str] = "p = γ_a × (1 + k × σ_n,max / R_e)"
    source: ClassVar[str] = "Fatemi and Socie 1988"
    suits: ClassVar[str] = "ductile metals in which cracks start along shear planes"

    def __post_init__(self) -> None:
        super().__post_init__()
        one_of("criterion fatemi-socie, plane", self.plane, PLANES)

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """A shear strain, -."""
        gamma = 2.0 * shear_amplitude(paths.strained(self.kind), normals, self.amplitude)
        normal = np.maximum(largest_normal(paths.stress, normals), 0.0)
        return np.asarray(gamma * (1.0 + self.k * normal / self.yield_strength))

    def decides(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """Shear strain amplitude, or the parameter, by what was chosen."""
        if self.plane == "largest parameter":
            return self.values(paths, normals)
        return 2.0 * shear_amplitude(paths.strained(self.kind), normals, self.amplitude)


PLANES = ("largest shear", "largest parameter")


@CRITERIA.add("brown-miller")
@dataclass(frozen=True, kw_only=True)
class BrownMiller(_ByShear):
    """γ_a + S Δε_n on the plane of the largest shear strain, Δε_n the range of the normal strain over the cycle."""

    s: Coherent = Coherent("number", at_least=0.0, default=0.5)
    unit: ClassVar[str] = "number"
    strains: ClassVar[bool] = True
    by_shear: ClassVar[bool] = True
    formula: ClassVar[str] = "p = γ_a + S × Δε_n, where γ_a is largest"
    source: ClassVar[str] = "Kandil, Brown and Miller 1982"
    suits: ClassVar[str] = "ductile metals, short and middle lives"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """A strain, -."""
        strains = paths.strained(self.kind)
        return 2.0 * shear_amplitude(strains, normals, self.amplitude) + self.s * normal_range(strains, normals)

    def decides(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """Shear strain amplitude, -."""
        return 2.0 * shear_amplitude(paths.strained(self.kind), normals, self.amplitude)


@CRITERIA.add("smith-watson-topper")
@dataclass(frozen=True, kw_only=True)
class SmithWatsonTopperPlane(Criterion):
    """σ_n,max ε_n,a, largest over planes; nothing where the normal stress is never tensile."""

    strains: ClassVar[bool] = True
    formula: ClassVar[str] = "p = σ_n,max × ε_n,a"
    source: ClassVar[str] = "Smith, Watson and Topper 1970; Socie 1987"
    suits: ClassVar[str] = "metals in which cracks grow across the largest normal strain: cast iron, stainless steel"

    def values(self, paths: Paths, normals: FloatArray) -> FloatArray:
        """MPa."""
        strains = paths.strained(self.kind)
        return np.asarray(np.maximum(largest_normal(paths.stress, normals), 0.0) * 0.5 * normal_range(strains, normals))


@opened(stress=many())
def elastic_strains(stress: ArrayLike, youngs_modulus: float, poissons_ratio: float) -> FloatArray:
    """Tensor strains of stresses by Hooke's law, shape (n, 6).

    >>> elastic_strains([[206.0, 0, 0, 0, 0, 0]], 206e3, 0.3).round(6).tolist()
    [[0.001, -0.0003, -0.0003, 0.0, 0.0, 0.0]]
    """
    tensors = checked(stress)
    trace = tensors[:, :3].sum(axis=1, keepdims=True)
    own = (1.0 + poissons_ratio) * tensors
    own[:, :3] -= poissons_ratio * trace
    return np.asarray(own / youngs_modulus)
