"""A life result as plain numbers and text, for JSON and other programs. Units stand in the names."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from vivid_anvil.records import finding_records, plain

if TYPE_CHECKING:
    from vivid_anvil.damage.life import LifeResult


def life_record(result: LifeResult) -> dict[str, Any]:
    """Everything the result says, in coherent units; inf is written as the text "inf"."""
    spot, curve, duty = result.hot_spot, result.curve, result.duty_cycle
    record: dict[str, Any] = plain(
        {
            "hot_spot": spot.name,
            "channel": spot.channel,
            "stress_per_load": spot.stress_per_load,
            "offset_MPa": spot.offset,
            "notch_factor": spot.notch_factor,
            "sn_curve": {
                "name": curve.name,
                "stress": curve.stress,
                "r_ratio": curve.r_ratio,
                "knee_stress_MPa": curve.knee_stress,
                "knee_life_cycles": curve.knee_life,
                "slope": curve.slope,
                "slope_below": curve.slope_below,
            },
            "mean_stress": spot.mean_stress,
            "critical_sum": spot.critical_sum,
            "repeat": duty.repeat,
            "repeats_per_year": duty.repeats_per_year,
            "hours_per_repeat": duty.hours,
            "peak_stress_MPa": result.peak_stress,
            "lowest_stress_MPa": result.lowest_stress,
            "damage_per_repeat": result.damage_per_repeat,
            "life_repeats": result.life_repeats,
            "life_hours": result.life_hours,
            "life_years": result.life_years,
            "target_repeats": result.target_repeats,
            "used_at_target": result.used_at_target,
            "reserve_on_stress": result.reserve_on_stress,
            "reserve_on_life": result.reserve_on_life,
            "verdict": result.verdict,
            "events": [
                {
                    "event": share.name,
                    "occurrences_per_repeat": share.occurrences,
                    "cycles_per_repeat": share.cycles,
                    "largest_range_MPa": share.largest_range,
                    "damage_per_repeat": share.damage,
                    "share": share.share,
                }
                for share in result.events
            ],
            "range_classes": [
                {
                    "from_MPa": one.lower,
                    "below_MPa": one.upper,
                    "cycles_per_repeat": one.cycles,
                    "damage_per_repeat": one.damage,
                    "share": one.share,
                }
                for one in result.range_classes()
            ],
            "repairs": {
                source.name: source.history.repairs
                for source in result.spectrum.sources
                if source.history is not None and source.history.repairs
            },
            "findings": finding_records(result.findings),
        }
    )
    return record
