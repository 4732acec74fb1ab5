"""A life result as plain numbers and text, for JSON and other programs. Units stand in the names."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from vivid_anvil.events import ChannelSum
from vivid_anvil.materials import curve_record
from vivid_anvil.units import number
from vivid_anvil.writing.html import html_table
from vivid_anvil.writing.plain import finding_records, plain

if TYPE_CHECKING:
    from vivid_anvil.damage.life import LifeResult


def life_record(result: LifeResult) -> dict[str, Any]:
    """Everything the result says, in coherent units; inf is written as the text "inf"."""
    spot, curve, duty = result.hot_spot, result.curve, result.duty_cycle
    per_load = spot.stress_per_load
    record: dict[str, Any] = plain(
        {
            "hot_spot": spot.name,
            "channel": str(spot.channel),
            "stress_per_load": dict(spot.channel.parts) if isinstance(spot.channel, ChannelSum) else per_load,
            "offset_MPa": spot.offset,
            "notch_factor": spot.notch_factor,
            "sn_curve": curve_record(curve),
            "mean_stress": spot.mean_stress,
            "compressive_mean": spot.compressive_mean,
            "below_knee": spot.below_knee,
            "critical_sum": spot.critical_sum,
            "repeat": duty.repeat,
            "repeats_per_year": duty.repeats_per_year,
            "hours_per_repeat": duty.hours,
            "peak_stress_MPa": result.peak_stress,
            "lowest_stress_MPa": result.lowest_stress,
            "static_reserve_on": result.static_reserves,
            "damage_per_repeat": result.damage_per_repeat,
            "life_repeats": result.life_repeats,
            "life_hours": result.life_hours,
            "life_years": result.life_years,
            "target_repeats": result.target_repeats,
            "used_at_target": result.used_at_target,
            "reserve_on_stress": result.reserve_on_stress,
            "reserve_on_life": result.reserve_on_life,
            "verdict": result.verdict,
            "in_order": None if result.in_order is None else result.in_order.to_dict(),
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
            "stress_classes": [
                {
                    "from_MPa": one.lower,
                    "below_MPa": one.upper,
                    "cycles_per_repeat": one.cycles,
                    "damage_per_repeat": one.damage,
                    "share": one.share,
                }
                for one in result.stress_classes()
            ],
            "worst_cycles": [
                {
                    "event": one.event,
                    "range_MPa": one.range,
                    "mean_MPa": one.mean,
                    "per_repeat": one.per_repeat,
                    "damage_per_repeat": one.damage,
                    "share": one.share,
                    "start_s": one.start,
                    "end_s": one.end,
                }
                for one in result.worst_cycles()
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


def life_as_html(lives: Sequence[LifeResult], caption: str) -> str:
    """Lives as a table for a notebook, with their findings below."""
    rows = [
        {
            "Hot spot": one.hot_spot.name,
            "Peak [MPa]": number(one.peak_stress),
            f"Damage a {one.duty_cycle.repeat}": number(one.damage_per_repeat),
            "Life": "no damage" if one.damage_per_repeat == 0.0 else one.duty_cycle.calendar.text(one.life_repeats),
            "Used": "-" if one.used_at_target is None else f"{one.used_at_target:.1%}",
            "Reserve on stress": "-" if one.reserve_on_stress is None else number(one.reserve_on_stress),
            "Reserve on life": "-" if one.reserve_on_life is None else number(one.reserve_on_life),
            "Target": one.verdict,
        }
        for one in lives
    ]
    notes = [f"{finding.severity}: {finding.sentence} {finding.advice}" for one in lives for finding in one.findings]
    return html_table(caption, rows, notes)
