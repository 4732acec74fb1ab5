"""Hand calculation from a tensor to the one stress that is counted."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.measures import StressMeasure, normal_weights
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in


def measure_steps(measure: StressMeasure, tensor: FloatArray, system: UnitSystem = "metric") -> list[Step]:
    """Steps from a tensor, six components, MPa, to the stress that is counted.

    >>> pure_shear = np.array([0.0, 0.0, 0.0, 50.0, 0.0, 0.0])
    >>> measure_steps(StressMeasure("signed von Mises, hydrostatic"), pure_shear)[-1].value.__round__(4)
    86.6025
    """
    name = display_unit("stress", system)
    s = [stress_in(one, system) for one in tensor]
    if measure.direction is not None:
        weights = normal_weights(np.asarray(measure.direction, dtype=np.float64))
        numbers = " + ".join(f"{put_in(float(w))} × {one} {name}" for w, one in zip(weights, s, strict=True))
        value = shown_stress(float(weights @ tensor), system)
        return [Step("Normal stress along the direction n", "σ_n = n · σ · n", numbers, value, name)]
    if measure.code == kernels.ALONG:
        return []
    if measure.code in (kernels.MISES_HYDROSTATIC, kernels.MISES_PRINCIPAL):
        return _von_mises_steps(measure, tensor, system)
    return _principal_steps(measure, tensor, system)


def _von_mises_steps(measure: StressMeasure, tensor: FloatArray, system: UnitSystem) -> list[Step]:
    name = display_unit("stress", system)
    xx, yy, zz, xy, yz, zx = (stress_in(one, system) for one in tensor)
    value = float(measure.of(tensor)[0])
    steps = [
        Step(
            "Von Mises stress",
            "σ_v = √(½ ((σ_xx - σ_yy)² + (σ_yy - σ_zz)² + (σ_zz - σ_xx)²) + 3 (σ_xy² + σ_yz² + σ_zx²))",
            f"√(0.5 × (({xx} - {yy})^2 + ({yy} - {zz})^2 + ({zz} - {xx})^2) + 3 × ({xy}^2 + {yz}^2 + {zx}^2))",
            shown_stress(abs(value), system),
            name,
            "von Mises 1913",
        )
    ]
    if measure.code == kernels.MISES_HYDROSTATIC:
        trace = float(tensor[:3].sum())
        steps.append(
            Step(
                "Its sign is that of the trace",
                "tr = σ_xx + σ_yy + σ_zz",
                f"{xx} + {yy} + {zz}",
                shown_stress(trace, system),
                name,
            )
        )
    else:
        steps += _extreme_steps(tensor, system)
    steps.append(
        Step("Counted stress", "S = ±σ_v", put_in(shown_stress(value, system)), shown_stress(value, system), name)
    )
    return steps


def _principal_steps(measure: StressMeasure, tensor: FloatArray, system: UnitSystem) -> list[Step]:
    name = display_unit("stress", system)
    value = shown_stress(float(measure.of(tensor)[0]), system)
    steps = _extreme_steps(tensor, system)
    high, low = put_in(steps[-2].value), put_in(steps[-1].value)
    if measure.code == kernels.TRESCA:
        sign = "" if value >= 0.0 else "-"
        steps.append(
            Step(
                "Counted stress: their difference, with the sign of the larger",
                "S = ±(σ_1 - σ_3)",
                f"{sign}({high} - {low})",
                value,
                name,
            )
        )
    else:
        steps.append(
            Step("Counted stress: the larger of both in magnitude", "S = σ_1 or σ_3", put_in(value), value, name)
        )
    return steps


def _extreme_steps(tensor: FloatArray, system: UnitSystem) -> list[Step]:
    """Largest and smallest principal stress, by the angle of the cubic (Smith 1961)."""
    name = display_unit("stress", system)
    xx, yy, zz, xy, yz, zx = (float(one) for one in np.asarray(shown(tensor, "stress", system)))
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


def shown_stress(value: float, system: UnitSystem) -> float:
    """A stress, MPa, in the unit that is shown."""
    return float(shown(value, "stress", system))


def stress_in(value: float, system: UnitSystem) -> str:
    """The same as it is put into a formula."""
    return put_in(shown_stress(float(value), system))
