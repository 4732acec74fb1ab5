"""The hand calculation of a flaw's point in the diagram."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from vivid_anvil.acceptance.point import EndPoint, section_stress
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.working import Step, Working, put_in

if TYPE_CHECKING:
    from vivid_anvil.acceptance.assess_flaw import FlawAssessment


def flaw_working(found: FlawAssessment, units: UnitSystem) -> Working:
    """K primary, reference stress, L_r, K secondary, interaction, toughness, curve, reserve on load."""
    end = found.point.governing
    steps = [
        *found.metal.steps(),
        *(step for one in found.loads.primary for step in one.steps()),
        *_primary(found, end),
        *_load_ratio(found),
        *_secondary(found, end),
        *found.loads.way.steps(end.k_primary, end.k_secondary, found.point.load_ratio),
        *found.tough.steps,
        *_toughness(found),
        _fracture_ratio(found, end),
        *found.curve.steps(found.point.load_ratio),
        *_reserve(found),
    ]
    where = f"{found.flaw.shape.kind}, {found.flaw.said_in(units)}, in {found.metal.material.name}"
    opening = f"{where}; the {end.name} governs.{worked_in(units)}"
    return Working(f"Flaw {found.flaw.name}", opening, tuple(steps))


def worked_in(units: UnitSystem) -> str:
    """A sentence for readers of other units: the steps are in the units of the procedures."""
    return "" if units == "metric" else " Worked in MPa and mm; L_r, K_r and the reserve are numbers."


def _k(value: float) -> str:
    return f"{put_in(value)} MPa√mm"


def _primary(found: FlawAssessment, end: EndPoint) -> list[Step]:
    """Y at the governing end under membrane and bending, and the K of primary stress."""
    shape, sizes = found.flaw.shape, found.sizes
    unit, one = "mm", 1.0
    plain = shape.under(0.0) if shape.bends else shape
    at = shape.end_names.index(end.name)
    first = plain.steps(sizes, unit, one, at)
    own = [stress.at_crack(shape.wall_thickness) for stress in found.loads.primary]
    membrane = found.partial_factors.load * sum(stress.membrane for stress in own)
    bending = found.partial_factors.load * sum(stress.bending for stress in own)
    m = plain.scales(*sizes)[at]
    source = str(shape.source)
    numbers = f"{put_in(m / math.sqrt(math.pi * sizes[0]))} × √(π × {put_in(sizes[0])} mm)"
    rows = [Step(f"K per MPa of membrane stress at the {end.name}", "M_m = Y × √(π × a)", numbers, m, "√mm", source)]
    numbers = f"{put_in(membrane)} MPa × {put_in(m)} √mm"
    formula = "K_p = P_m × M_m"
    if bending != 0.0:
        b = shape.scales_of_bending(*sizes)[at]
        title = f"K per MPa of bending stress at the {end.name}"
        bent = shape.under(1.0).steps(sizes, unit, one, at) if shape.bends else []
        rows += [step for step in bent if step not in first]
        numbers_b = f"{put_in(b / math.sqrt(math.pi * sizes[0]))} × √(π × {put_in(sizes[0])} mm)"
        rows.append(Step(title, "M_b = Y × √(π × a)", numbers_b, b, "√mm", source))
        formula, numbers = f"{formula} + P_b × M_b", f"{numbers} + {put_in(bending)} MPa × {put_in(b)} √mm"
    rest = end.k_primary - membrane * m - (bending * shape.scales_of_bending(*sizes)[at] if bending else 0.0)
    if abs(rest) > 1e-9 * max(abs(end.k_primary), 1.0):
        formula, numbers = f"{formula} + K of the profile", f"{numbers} + {_k(rest)} (weight function)"
    return [*first, *rows, Step("K of primary stress", formula, numbers, end.k_primary, "MPa√mm")]


def _load_ratio(found: FlawAssessment) -> list[Step]:
    own, shape = section_stress(found.loads, found.flaw.shape.wall_thickness), found.flaw.shape
    factored = found.partial_factors.load
    reference, low = found.terms.reference, found.curve.yield_strength
    return [
        *shape.reference_steps(factored * own.membrane, factored * own.bending, found.sizes),
        Step(
            "Load ratio",
            "L_r = σ_ref / σ_y",
            f"{put_in(reference)} MPa / {put_in(low)} MPa",
            found.point.load_ratio,
            "",
        ),
    ]


def _secondary(found: FlawAssessment, end: EndPoint) -> list[Step]:
    if not found.loads.secondary:
        return []
    shape, reference = found.flaw.shape, found.terms.reference
    steps = [step for one in found.loads.secondary for step in one.steps(found.metal, reference, shape.wall_thickness)]
    rows = [one.stress(found.metal, reference, shape.wall_thickness) for one in found.loads.secondary]
    membrane, bending = sum(one.membrane for one in rows), sum(one.bending for one in rows)
    plain, at = (shape.under(0.0) if shape.bends else shape), shape.end_names.index(end.name)
    m = plain.scales(*found.sizes)[at]
    formula, numbers = "K_s = Q_m × M_m", f"{put_in(membrane)} MPa × {put_in(m)} √mm"
    rest = end.k_secondary - membrane * m
    if bending != 0.0:
        b = shape.scales_of_bending(*found.sizes)[at]
        formula, numbers = f"{formula} + Q_b × M_b", f"{numbers} + {put_in(bending)} MPa × {put_in(b)} √mm"
        rest -= bending * b
    if abs(rest) > 1e-9 * max(abs(end.k_secondary), 1.0):
        formula, numbers = f"{formula} + K of the profile", f"{numbers} + {_k(rest)} (weight function)"
    return [*steps, Step("K of secondary stress", formula, numbers, end.k_secondary, "MPa√mm")]


def _toughness(found: FlawAssessment) -> list[Step]:
    factored = found.partial_factors.toughness
    if factored == 1.0:
        return []
    numbers = f"{_k(found.tough.k)} / {put_in(factored)}"
    return [Step("Toughness with its partial factor", "K_mat = K / γ_K", numbers, found.toughness, "MPa√mm")]


def _fracture_ratio(found: FlawAssessment, end: EndPoint) -> Step:
    """As the interaction has it."""
    first, second, k_mat = put_in(end.k_primary), put_in(end.k_secondary), put_in(found.toughness)
    formula, numbers = "K_r = (K_p + K_s) / K_mat", f"({first} + {second}) / {k_mat}"
    if found.loads.way.symbol == "V":
        formula, numbers = "K_r = (K_p + V × K_s) / K_mat", f"({first} + {put_in(end.factor)} × {second}) / {k_mat}"
    elif found.loads.way.symbol:
        formula, numbers = f"{formula} + ρ", f"{numbers} + {put_in(end.added)}"
    return Step(f"Fracture ratio at the {end.name}", formula, numbers, end.fracture_ratio, "")


def _reserve(found: FlawAssessment) -> list[Step]:
    """Toughness that is needed, and the factor on load, which is solved for."""
    end, needed = found.point.governing, found.needed_toughness
    numbers = (
        f"({put_in(end.k_primary)} + {put_in(end.k_secondary)}) / ({put_in(found.point.allowed)} - {put_in(end.added)})"
    )
    return [
        Step("Toughness that is just needed", "K_mat = (K_p + V × K_s) / (f - ρ)", numbers, needed, "MPa√mm"),
        Step("Reserve on load", "K_r(F × P) = f(F × L_r)", "solved for F", found.reserve_on_load.factor, ""),
    ]
