"""A growth result as plain numbers and text, for JSON and other programs. Units stand in the names."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from vivid_anvil.writing.plain import finding_records, in_root_metres, plain

if TYPE_CHECKING:
    from vivid_anvil.growth.result import GrowthResult

ROWS = 50


def growth_record(result: GrowthResult) -> dict[str, Any]:
    """Everything the result says, in coherent units; inf is written as the text "inf"."""
    crack, law = result.crack, result.crack.law
    record: dict[str, Any] = plain(
        {
            "hot_spot": crack.hot_spot.name,
            "shape": crack.shape.kind,
            "initial_size_mm": crack.initial_size,
            "growth_law": {
                "name": law.name,
                "kind": law.kind,
                **({"constant_mm_per_cycle_MPa_sqrt_mm": law.constant} if hasattr(law, "rate") else {}),
                "slope": law.slope,
                "threshold_MPa_sqrt_m": in_root_metres(float(law.threshold_at(0.0))),
            },
            "counted_part": crack.counted_part,
            "repeat": result.duty_cycle.repeat,
            "peak_nominal_stress_MPa": result.drive.peak_stress,
            "size_at_toughness_mm": result.critical.toughness,
            "size_at_net_section_yield_mm": result.critical.net_section,
            "size_at_limit_of_solution_mm": result.critical.validity,
            "limiting_size_mm": result.critical.limiting,
            "governed_by": result.governed_by,
            "order": crack.order,
            "retardation": crack.retardation.kind,
            "life_without_retardation_repeats": result.without_memory_repeats,
            "initial_half_length_mm": crack.initial_half_length,
            "then": None if result.then is None else growth_record(result.then),
            "life_repeats": result.life_repeats,
            "life_hours": result.life_hours,
            "life_years": result.life_years,
            "target_repeats": result.target_repeats,
            "used_at_target": result.used_at_target,
            "stopped_by": result.stopped_by,
            "stopped_in": result.stopped_in,
            "cycles": result.cycles,
            "size_at_stop_mm": result.final_size,
            "detectable_size_mm": crack.detectable_size,
            "inspection_factor": crack.inspection_factor,
            "inspection_interval_repeats": result.interval_repeats,
            "inspection_interval_years": result.interval_years,
            "change_by_halving_steps": result.halving_change,
            "event_shares_at_start": result.event_shares(),
            "curve": result.rows(ROWS),
            "findings": finding_records(result.findings),
        }
    )
    return record
