"""Criteria as a hot spot takes them: of shear amplitude and normal stress of a cycle the uniaxial amplitude that is as bad.

Each has weights w of the shear amplitude and v of the normal stress, so that a fully reversed uniaxial stress S gives S.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.materials import Material
from vivid_anvil.stress.planes.constants import findley_constant, ratio_of
from vivid_anvil.writing.working import Step, put_in

SHEAR_PARAMETERS: Choices[type[ShearParameter]] = Choices("criterion")


class ShearParameter(ABC):
    """A criterion; it has no values of its own, so the class itself is used.

    `how` has the constants: k, axial_limit, torsion_limit, each a number or None.
    """

    kind: ClassVar[str]
    takes: ClassVar[tuple[str, ...]]
    formula: ClassVar[str]
    source: ClassVar[str]
    suits: ClassVar[str]
    by_shear: ClassVar[bool] = True
    on_largest_shear: ClassVar[bool] = (
        False  # whether the plane is that of the largest shear amplitude, not of most damage
    )
    clamps: ClassVar[bool] = False  # whether a compressive normal stress counts as 0

    @classmethod
    @abstractmethod
    def weights(cls, how: Any, material: Material, where: str) -> tuple[float, float]:
        """Weights of shear amplitude and normal stress; InputError for a constant that is missing."""

    @classmethod
    def check_constants(cls, how: Any, where: str) -> None:
        """InputError for a constant that the criterion does not take."""
        for key in ("k", "axial_limit", "torsion_limit"):
            if getattr(how, key) is not None and key not in cls.takes:
                raise InputError(
                    inside(where, key),
                    f"{key} with the criterion {cls.kind!r}",
                    f"{listed(cls.takes) or 'no constant'} only",
                )

    @classmethod
    def amplitude(cls, shear: float, normal: float, amplitudes: FloatArray, normals: FloatArray) -> FloatArray:
        """Equivalent amplitudes, MPa, never below 0."""
        own = np.maximum(normals, 0.0) if cls.clamps else normals
        return np.maximum(shear * amplitudes + normal * own, 0.0)

    @classmethod
    def constant_steps(cls, how: Any, material: Material) -> list[Step]:
        """How its constants came to be, where they follow of fatigue limits."""
        return []


def _missing(cls: type[ShearParameter], where: str, needs: str) -> InputError:
    return InputError(
        f"{where}, criterion {cls.kind}",
        "no constant",
        needs,
        "Two fatigue limits, in tension and compression and in torsion, give it.",
    )


def _weight_k(cls: type[ShearParameter], how: Any, where: str) -> float:
    """k as it is stated, else of the two limits."""
    if how.k is not None:
        if how.axial_limit is not None or how.torsion_limit is not None:
            raise InputError(f"{where}, criterion {cls.kind}", "k beside fatigue limits", "one of both")
        return float(how.k)
    if how.axial_limit is None or how.torsion_limit is None:
        raise _missing(cls, where, "k, or axial_limit and torsion_limit")
    if cls.kind == "matake":
        return 2.0 * ratio_of(how.axial_limit, how.torsion_limit, 0.5, 1.0, "Matake") - 1.0
    return findley_constant(how.axial_limit, how.torsion_limit)[0]


@SHEAR_PARAMETERS.add("findley")
class FindleyParameter(ShearParameter):
    """τ_a + k σ_n,max, on the plane where it does most damage."""

    takes: ClassVar[tuple[str, ...]] = ("k", "axial_limit", "torsion_limit")
    formula: ClassVar[str] = "f = τ_a + k × σ_n,max"
    source: ClassVar[str] = "Findley 1959"
    suits: ClassVar[str] = "ductile metals at long lives"

    @classmethod
    def weights(cls, how: Any, material: Material, where: str) -> tuple[float, float]:
        """A uniaxial S has f = S (√(1 + k²) + k) / 2."""
        k = _weight_k(cls, how, where)
        one = 2.0 / (math.sqrt(1.0 + k * k) + k)
        return one, one * k

    @classmethod
    def constant_steps(cls, how: Any, material: Material) -> list[Step]:
        """k of the two limits."""
        if how.k is not None:
            return []
        share = 2.0 * how.torsion_limit / how.axial_limit - 1.0
        numbers = f"2 × {put_in(how.torsion_limit)} MPa / {put_in(how.axial_limit)} MPa - 1"
        k = share / math.sqrt(1.0 - share * share)
        return [
            Step("Share of the two fatigue limits", "q = 2 × t / s - 1", numbers, share, ""),
            Step(
                "Weight of the normal stress",
                "k = q / √(1 - q^2)",
                f"{put_in(share)} / √(1 - {put_in(share)}^2)",
                k,
                "",
                cls.source,
            ),
        ]


@SHEAR_PARAMETERS.add("matake")
class MatakeParameter(ShearParameter):
    """τ_a + k σ_n,max with k = 2 t / s - 1, on the plane of the largest shear amplitude."""

    on_largest_shear: ClassVar[bool] = True
    takes: ClassVar[tuple[str, ...]] = ("k", "axial_limit", "torsion_limit")
    formula: ClassVar[str] = "m = τ_a + k × σ_n,max"
    source: ClassVar[str] = "Matake 1977"
    suits: ClassVar[str] = "ductile metals at long lives"

    @classmethod
    def weights(cls, how: Any, material: Material, where: str) -> tuple[float, float]:
        """A uniaxial S has S/2 of both on its plane of largest shear."""
        k = _weight_k(cls, how, where)
        one = 2.0 / (1.0 + k)
        return one, one * k


@SHEAR_PARAMETERS.add("mcdiarmid")
class McDiarmidParameter(ShearParameter):
    """τ_a / t + σ_n,max / (2 R_m) on the plane of the largest shear amplitude; a compressive normal stress counts as 0."""

    on_largest_shear: ClassVar[bool] = True
    takes: ClassVar[tuple[str, ...]] = ("torsion_limit",)
    clamps: ClassVar[bool] = True
    formula: ClassVar[str] = "d = τ_a / t + σ_n,max / (2 × R_m)"
    source: ClassVar[str] = "McDiarmid 1991"
    suits: ClassVar[str] = "ductile metals at long lives, where one limit and the tensile strength are known"

    @classmethod
    def weights(cls, how: Any, material: Material, where: str) -> tuple[float, float]:
        """A uniaxial S has d = S / (2 t) + S / (4 R_m)."""
        if how.torsion_limit is None:
            raise _missing(cls, where, "torsion_limit")
        strength = material.needed("ultimate_strength", f"the criterion {cls.kind} of {where}")
        shear, normal = 1.0 / how.torsion_limit, 0.5 / strength
        one = 2.0 / (shear + normal)
        return one * shear, one * normal


@SHEAR_PARAMETERS.add("normal stress")
class NormalParameter(ShearParameter):
    """Half of the range of the normal stress on the plane."""

    takes: ClassVar[tuple[str, ...]] = ()
    by_shear: ClassVar[bool] = False
    formula: ClassVar[str] = "σ_n,a = Δσ_n / 2"
    source: ClassVar[str] = "Stulen and Cummings 1954"
    suits: ClassVar[str] = "brittle metals, castings"

    @classmethod
    def weights(cls, how: Any, material: Material, where: str) -> tuple[float, float]:
        """The amplitude itself."""
        return 1.0, 0.0
