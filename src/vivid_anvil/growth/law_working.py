"""Hand calculation of a growth law that is not one power: the cycle that grows the crack most at the start."""

from __future__ import annotations

import math

from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.materials.laws import _kernels as kernels
from vivid_anvil.units import number
from vivid_anvil.writing.working import Step, put_in

K = "MPa√mm"


def law_steps(result: GrowthResult, worst: int) -> list[Step]:
    """Steps from the cycle at place `worst` of the drive to its growth, and to that of a repeat; metric units."""
    drive, crack, law = result.drive, result.crack, result.crack.law
    size, repeat = crack.initial_size, result.duty_cycle.repeat
    delta_k, r = (float(one[worst]) for one in result.depth_cycles(size))
    threshold = float(law.threshold_at(r, size)[0])
    rate = float(law.growth(delta_k, r, size))
    often, total = float(drive.per_repeat[worst]), result.growth_at(size)
    return [
        *(_range_steps(result, worst) if crack.always is None else _shifted_steps(result, worst)),
        Step(
            f"Threshold at this R, model {law.threshold_model}",
            "ΔK_th = ΔK_th(R)",
            f"{put_in(threshold)} {K}",
            threshold,
            K,
        ),
        *_closure_steps(law, r),
        Step(
            "Growth of one such cycle",
            law.formula.formula,
            rate_numbers(law, delta_k, r, threshold),
            rate,
            "mm/cycle",
            law.formula.source,
        ),
        Step(
            f"All such cycles of one {repeat} as a share of its growth of {number(total)} mm",
            "p = n × da/dN / G",
            f"{put_in(often)} × {put_in(rate)} mm/cycle / {put_in(total)} mm",
            often * rate / total if total > 0.0 else math.nan,
            "",
        ),
    ]


def _range_steps(result: GrowthResult, worst: int) -> list[Step]:
    """R and the range of K of a cycle, of its stresses alone."""
    drive, size = result.drive, result.crack.initial_size
    stress, high, r = float(drive.ranges[worst]), float(drive.maximum[worst]), float(drive.r_ratios[worst])
    y = result.depth_scale(size) / math.sqrt(math.pi * size)
    return [
        Step(
            "R of what counts of the cycle that grows it most",
            "R = (S_max - ΔS) / S_max",
            f"({put_in(high)} MPa - {put_in(stress)} MPa) / {put_in(high)} MPa",
            r,
            "",
        ),
        Step(
            "Its range of stress intensity",
            "ΔK = Y × ΔS × √(π × a)",
            f"{put_in(y)} × {put_in(stress)} MPa × √(π × {put_in(size)} mm)",
            result.depth_scale(size) * stress,
            K,
            "Irwin 1957",
        ),
    ]


def _shifted_steps(result: GrowthResult, worst: int) -> list[Step]:
    """The same where residual stress moves largest and smallest K alike."""
    drive, crack, size = result.drive, result.crack, result.crack.initial_size
    there = crack.always_at(size, crack.initial_half_length)[0]
    delta_k, r = (float(one[worst]) for one in result.depth_cycles(size))
    scale, high, low = result.depth_scale(size), float(drive.maximum[worst]), float(drive.minimum[worst])
    top, bottom = scale * high + there, scale * low + there
    counted = max(bottom, drive.lowest)
    root = f"{put_in(scale / math.sqrt(math.pi * size))} × √(π × {put_in(size)} mm)"
    formula = "K_max = Y × S_max × √(π × a) + K_res"
    taken = "" if counted == bottom else ", of which only what is above 0 counts"
    return [
        Step("K of the residual stress", "K_res = ∫ s(x) × h(x, a) dx", put_in(there), there, K, "weight function"),
        Step(
            "Largest K of the cycle that grows it most",
            formula,
            f"{root} × {put_in(high)} MPa + {put_in(there)} {K}",
            top,
            K,
            "Irwin 1957",
        ),
        Step(
            f"Its smallest K{taken}",
            formula.replace("max", "min"),
            f"{root} × {put_in(low)} MPa + {put_in(there)} {K}",
            bottom,
            K,
        ),
        Step("Range that counts", "ΔK = K_max - K_min", f"{put_in(top)} {K} - {put_in(counted)} {K}", delta_k, K),
        Step("R of what counts", "R = K_min / K_max", f"{put_in(counted)} {K} / {put_in(top)} {K}", r, ""),
    ]


def _closure_steps(law: GrowthLaw, r: float) -> list[Step]:
    if law.formula.code != kernels.FORMAN_METTU or law.packed[8] == 0.0:
        return []
    f = float(kernels.closure_of(r, law.packed[8], law.packed[9]))
    return [Step("Opening over maximum stress", "f = f(R, α, S_max / σ_0)", put_in(f), f, "", "Newman 1984")]


def rate_numbers(law: GrowthLaw, dk: float, r: float, threshold: float) -> str:
    """The formula of the law with the numbers of one cycle put in, K in MPa√mm."""
    p = law.packed
    c, m, k = put_in(float(p[0])), put_in(float(p[1])), put_in(dk)
    code = law.formula.code
    if code == kernels.WALKER:
        gamma = float(p[5] if r >= 0.0 else p[6])
        return f"{c} × ({k} / (1 - {put_in(r)})^(1 - {put_in(gamma)}))^{m}"
    if code == kernels.TWO_STAGE:
        return f"{c} × {k}^{m}" if dk < p[7] else f"{put_in(float(p[5]))} × {k}^{put_in(float(p[6]))}"
    if code == kernels.CLOSURE:
        first, second, third = (put_in(float(one)) for one in p[5:8])
        return f"{c} × (({first} + {second} × {put_in(r)} + {third} × {put_in(r)}^2) × {k})^{m}"
    if code == kernels.TABLE:
        return put_in(float(law.growth(dk, r)))
    if code == kernels.PARIS:
        return f"{c} × {k}^{m}"
    kc = put_in(float(p[5]))
    room = f"((1 - {put_in(r)}) × {kc} - {k})"
    if code == kernels.FORMAN:
        return f"{c} × {k}^{m} / {room}"
    if code == kernels.HARTMAN_SCHIJVE:
        return f"{c} × ({k} - {put_in(threshold)})^{m} / {room}"
    peak = f"{k} / ((1 - {put_in(r)}) × {kc})"
    if code == kernels.TOUGHNESS_SHAPED:
        return f"{c} × (({k} - {put_in(threshold)}) / √(1 - {peak}))^{m}"
    f = float(kernels.closure_of(r, p[8], p[9])) if p[8] > 0.0 else r
    opened = f"(1 - {put_in(f)}) / (1 - {put_in(r)}) × {k}"
    return f"{c} × ({opened})^{m} × (1 - {put_in(threshold)} / {k})^{put_in(float(p[6]))} / (1 - {peak})^{put_in(float(p[7]))}"
