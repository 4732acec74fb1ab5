"""Measures by the largest and the smallest principal stress.

Method: the roots of the cubic by its angle (Smith, O. K. 1961, Comm. ACM 4, 168).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.compiled import compiled
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.stress.measures.measure import MEASURES, Measure, length, shown_stress
from vivid_anvil.stress.measures.von_mises import (
    DEVIATOR_AND_TRACE,
    signed_step,
    turning_von_mises,
    von_mises,
    von_mises_step,
)
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

EVERY = np.eye(6)


@compiled(inline="always")  # type: ignore[untyped-decorator]
def principals(xx: float, yy: float, zz: float, xy: float, yz: float, zx: float) -> Any:
    """Largest and smallest principal stress of a tensor, from its cubic.

    t = cos(arccos(q) / 3) is the root of 4 t^3 - 3 t = q next to 1: a polynomial near it (off by 6e-7), then Newton twice.
    No branch and no call, so that the compiler takes several tensors at once.
    """
    mean = (xx + yy + zz) / 3.0
    a, b, c = xx - mean, yy - mean, zz - mean
    p2 = (a * a + b * b + c * c + 2.0 * (xy * xy + yz * yz + zx * zx)) / 6.0
    p = math.sqrt(p2) if p2 > 1e-200 else 0.0  # below, its cube is 0
    det = a * (b * c - yz * yz) - xy * (xy * c - yz * zx) + zx * (xy * yz - b * zx)
    r = 0.5 * det / (p2 * p if p > 0.0 else 1.0)
    q = min(abs(r), 1.0)
    t = -0.047553625888 + q * (0.021977785572 + q * (-0.009054171952 + q * 0.001981906598))
    t = 0.866025982448 + q * (0.166622563947 + q * t)
    t -= ((4.0 * t * t - 3.0) * t - q) / (12.0 * t * t - 3.0)
    t -= ((4.0 * t * t - 3.0) * t - q) / (12.0 * t * t - 3.0)
    # the root at the other end: 1 - t^2 = (1 - q) (1 + t) / (2 t + 1)^2
    far = 2.0 * p * (0.5 * t + 0.5 * math.sqrt(3.0) * math.sqrt((1.0 - q) * (1.0 + t)) / (2.0 * t + 1.0))
    near = 2.0 * p * t
    return mean + (near if r >= 0.0 else far), mean - (far if r >= 0.0 else near)


@MEASURES.add("absolute maximum principal")
@dataclass(frozen=True)
class AbsoluteMaximumPrincipal(Measure):
    """The principal stress of largest magnitude, with its sign.

    Examples
    --------
    >>> AbsoluteMaximumPrincipal().of([0.0, 0.0, 0.0, 50.0, 0.0, 0.0]).round(9)
    array([50.])
    """

    knows_direction: ClassVar[bool] = True

    @property
    def forms(self) -> FloatArray:
        """The components."""
        return EVERY

    @staticmethod
    def block(s: Any, n: int, numbers: Any, out: Any) -> None:
        """The larger of the largest and the smallest."""
        for i in range(n):
            high, low = principals(s[i], s[n + i], s[2 * n + i], s[3 * n + i], s[4 * n + i], s[5 * n + i])
            out[i] = high if high >= -low else low

    def norm(self, tensors: FloatArray) -> FloatArray:
        """The length of the tensor."""
        return length(tensors)

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """Both principal stresses, and which one counts."""
        value, name = shown_stress(float(self.of(tensor)[0]), units), display_unit("stress", units)
        last = Step("Counted stress: the larger of both in magnitude", "S = σ_1 or σ_3", put_in(value), value, name)
        return [*extreme_steps(tensor, units), last]


@MEASURES.add("signed von Mises, principal")
@dataclass(frozen=True)
class SignedVonMisesPrincipal(Measure):
    """The von Mises stress (von Mises 1913) with the sign of the principal stress of largest magnitude.

    Examples
    --------
    >>> SignedVonMisesPrincipal().of([0.0, -100.0, 20.0, 0.0, 0.0, 0.0]).round(4)
    array([-111.3553])
    """

    @property
    def forms(self) -> FloatArray:
        """The components."""
        return EVERY

    @staticmethod
    def block(s: Any, n: int, numbers: Any, out: Any) -> None:
        """The root of the square, with the sign of the larger."""
        for i in range(n):
            xx, yy, zz, xy, yz, zx = s[i], s[n + i], s[2 * n + i], s[3 * n + i], s[4 * n + i], s[5 * n + i]
            high, low = principals(xx, yy, zz, xy, yz, zx)
            square = 0.5 * ((xx - yy) ** 2 + (yy - zz) ** 2 + (zz - xx) ** 2) + 3.0 * (xy * xy + yz * yz + zx * zx)
            out[i] = math.sqrt(square) if high >= -low else -math.sqrt(square)

    @property
    def random_forms(self) -> FloatArray:
        """The deviator: the equivalent process of Preumont and Piéfort."""
        return DEVIATOR_AND_TRACE[:5]

    def amplitude(self, tensors: ComplexArray) -> FloatArray:
        """`√((sᴴs + |sᵀs|)/2)`, s the five numbers of the deviator."""
        return turning_von_mises(tensors)

    def norm(self, tensors: FloatArray) -> FloatArray:
        """The von Mises stress is a norm of the deviator."""
        return von_mises(tensors)

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """The von Mises stress, both principal stresses, the stress."""
        signed = signed_step(float(self.of(tensor)[0]), units)
        return [von_mises_step(tensor, units), *extreme_steps(tensor, units), signed]


@MEASURES.add("signed Tresca")
@dataclass(frozen=True)
class SignedTresca(Measure):
    """The difference of the principal stresses (Tresca 1864), with the sign of the one of largest magnitude.

    Examples
    --------
    >>> SignedTresca().of([0.0, 0.0, 0.0, 50.0, 0.0, 0.0]).round(9)
    array([100.])
    """

    @property
    def forms(self) -> FloatArray:
        """The components."""
        return EVERY

    @staticmethod
    def block(s: Any, n: int, numbers: Any, out: Any) -> None:
        """The difference, with the sign of the larger."""
        for i in range(n):
            high, low = principals(s[i], s[n + i], s[2 * n + i], s[3 * n + i], s[4 * n + i], s[5 * n + i])
            out[i] = high - low if high >= -low else low - high

    def norm(self, tensors: FloatArray) -> FloatArray:
        """At most 2/√3 of von Mises."""
        return von_mises(tensors) * (2.0 / math.sqrt(3.0))

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """Both principal stresses, and their difference."""
        value = shown_stress(float(self.of(tensor)[0]), units)
        steps = extreme_steps(tensor, units)
        high, low = put_in(steps[-2].value), put_in(steps[-1].value)
        words = "Counted stress: their difference, with the sign of the larger"
        sign = "" if value >= 0.0 else "-"
        last = Step(words, "S = ±(σ_1 - σ_3)", f"{sign}({high} - {low})", value, display_unit("stress", units))
        return [*steps, last]


@compiled
def largest_principal(units: Any, constants: Any, loads: Any, out: Any) -> None:
    """For each place the sample with the principal stress of largest magnitude, the first one of equals.

    `units`, (places, cases, 6), `constants`, (places, 6), MPa, `loads`, (samples, cases); `out`, (places,), int64.
    """
    for place in range(units.shape[0]):
        largest = -1.0
        for i in range(loads.shape[0]):
            s = constants[place].copy()
            for k in range(units.shape[1]):
                for c in range(6):
                    s[c] += units[place, k, c] * loads[i, k]
            high, low = principals(s[0], s[1], s[2], s[3], s[4], s[5])
            size = max(abs(high), abs(low))
            if size > largest:
                largest = size
                out[place] = i


def extreme_steps(tensor: FloatArray, units: UnitSystem) -> list[Step]:
    """Largest and smallest principal stress, by the angle of the cubic (Smith 1961)."""
    name = display_unit("stress", units)
    xx, yy, zz, xy, yz, zx = (float(one) for one in np.asarray(shown(tensor, "stress", units)))
    mean = (xx + yy + zz) / 3.0
    a, b, c = xx - mean, yy - mean, zz - mean
    size = math.sqrt((a * a + b * b + c * c + 2.0 * (xy * xy + yz * yz + zx * zx)) / 6.0)
    determinant = a * b * c + 2.0 * xy * yz * zx - a * yz * yz - b * zx * zx - c * xy * xy
    turned = max(-1.0, min(1.0, determinant / (2.0 * size**3))) if size > 0.0 else 1.0
    angle = math.acos(turned) / 3.0
    p, q, r = put_in(a), put_in(b), put_in(c)
    u, v, w = put_in(xy), put_in(yz), put_in(zx)
    m, k, t = put_in(mean), put_in(size), put_in(angle)
    first = mean + 2.0 * size * math.cos(angle)
    third = mean + 2.0 * size * math.cos(angle + 2.0 * math.pi / 3.0)
    return [
        Step(
            "Mean stress; a, b, c are the normal stresses less it",
            "σ_m = (σ_xx + σ_yy + σ_zz) / 3",
            f"({put_in(xx)} + {put_in(yy)} + {put_in(zz)}) / 3",
            mean,
            name,
        ),
        Step(
            "Size of the deviator",
            "p = √((a² + b² + c² + 2 (σ_xy² + σ_yz² + σ_zx²)) / 6)",
            f"√(({p}^2 + {q}^2 + {r}^2 + 2 × ({u}^2 + {v}^2 + {w}^2)) / 6)",
            size,
            name,
        ),
        Step(
            "Determinant of the deviator",
            "J = a b c + 2 σ_xy σ_yz σ_zx - a σ_yz² - b σ_zx² - c σ_xy²",
            f"{p} × {q} × {r} + 2 × {u} × {v} × {w} - {p} × {v}^2 - {q} × {w}^2 - {r} × {u}^2",
            determinant,
            f"{name}³",
        ),
        Step(
            "Angle of the cubic, rad",
            "φ = acos(J / (2 p³)) / 3",
            f"acos({put_in(turned)}) / 3",
            angle,
            "",
            "Smith 1961",
        ),
        Step("Largest principal stress", "σ_1 = σ_m + 2 p cos φ", f"{m} + 2 × {k} × cos({t})", first, name),
        Step(
            "Smallest principal stress",
            "σ_3 = σ_m + 2 p cos(φ + 2 π / 3)",
            f"{m} + 2 × {k} × cos({t} + 2 × π / 3)",
            third,
            name,
        ),
    ]
