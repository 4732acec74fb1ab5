"""Hand calculation of a growth law that is not one power: the cycle that grows the crack most at the start."""

from __future__ import annotations

import math

from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.units import number
from vivid_anvil.writing.working import Step, put_in

K = "MPa√mm"
_SHUT = Step(
    "R of the cycle that grows it most: it stays in compression, and the law does not ask for R", "R = 0", "0", 0.0, ""
)


def law_steps(result: Growth, worst: int) -> list[Step]:
    """Steps from the cycle at place `worst` of the drive to its growth, and to that of a repeat; metric units."""
    drive, crack, law = result.drive, result.crack, result.crack.law
    size, repeat = crack.initial_size, result.duty_cycle.repeat
    delta_k, r = (float(one[worst]) for one in result.depth_cycles(size))
    threshold = float(law.threshold_at(r, size))
    rate = float(law.growth(delta_k, r, size))
    often, total = float(drive.per_repeat[worst]), result.growth_at(size)
    return [
        *(_range_steps(result, worst) if crack.always is None else _shifted_steps(result, worst)),
        Step(
            f"Threshold at this R, {law.limit.kind}",
            law.limit.formula,
            f"{law.limit.numbers_in(r, size)} {K}",
            threshold,
            K,
            law.limit.method,
        ),
        *law.more_steps(r),
        Step(
            "Growth of one such cycle", law.formula, law.numbers_in(delta_k, r, threshold), rate, "mm/cycle", law.method
        ),
        Step(
            f"All such cycles of one {repeat} as a share of its growth of {number(total)} mm",
            "p = n × da/dN / G",
            f"{put_in(often)} × {put_in(rate)} mm/cycle / {put_in(total)} mm",
            often * rate / total if total > 0.0 else math.nan,
            "",
        ),
    ]


def _range_steps(result: Growth, worst: int) -> list[Step]:
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
        )
        if high > 0.0
        else _SHUT,
        Step(
            "Its range of stress intensity",
            "ΔK = Y × ΔS × √(π × a)",
            f"{put_in(y)} × {put_in(stress)} MPa × √(π × {put_in(size)} mm)",
            result.depth_scale(size) * stress,
            K,
            "Irwin 1957",
        ),
    ]


def _shifted_steps(result: Growth, worst: int) -> list[Step]:
    """The same where residual stress moves largest and smallest K alike."""
    drive, crack, size = result.drive, result.crack, result.crack.initial_size
    there = crack.always_at(*crack.sizes)[0]
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
        Step("R of what counts", "R = K_min / K_max", f"{put_in(counted)} {K} / {put_in(top)} {K}", r, "")
        if top > 0.0
        else _SHUT,
    ]
