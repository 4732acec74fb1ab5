"""An event from its keys: a history, equal cycles, a programme or spectrum, states, another kind of load, inner events."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import Any

from vivid_anvil.events import (
    BlockProgramme,
    ConstantAmplitude,
    DutyCycle,
    Event,
    GatedHistory,
    LoadSpectrum,
    LoadStates,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import LoadHistory, join, read_history, repair_step
from vivid_anvil.histories.load import LOADS
from vivid_anvil.study.models import EventSection
from vivid_anvil.study.models_of_nouns import made
from vivid_anvil.units import coherent


def event_of(section: EventSection, folder: Path, how: Mapping[str, str]) -> Event:
    """The event of a checked section; files are looked for in `folder`, and an inner duty cycle is counted as `how` says."""
    if section.history is not None:
        load: Any = _history(section, folder)
    elif section.events is not None:
        load = DutyCycle(section.name, tuple(event_of(event, folder, how) for event in section.events))
        load = load.counted(**how)
    elif section.programme is not None or section.spectrum is not None:
        load = _table_of_rows(section, folder)
    elif section.states is not None:
        load = LoadStates.of(section.states, cycles=section.cycles or 0.0, frequency=section.frequency)
    elif section.load is not None:
        load = made(LOADS, section.load)
    else:
        load = _equal_cycles(section)
    return Event(section.name, load, section.occurrences, section.duration)


def _history(section: EventSection, folder: Path) -> LoadHistory | GatedHistory:
    """The history of an event, read, repaired step by step, and gated."""
    rate = {} if section.sample_rate is None else {"sample_rate": section.sample_rate}
    files = [section.history] if isinstance(section.history, str) else list(section.history or [])
    parts = [read_history(folder / file, name=section.name, **rate, **section.read) for file in files]
    history = parts[0] if len(parts) == 1 else join(parts, name=section.name)
    for step in section.repairs:
        history = repair_step(history, step)
    if not section.gate:
        return history
    gates = {
        channel: coherent(size, history[channel].dimension, f"gate, {channel}")
        for channel, size in section.gate.items()
    }
    return GatedHistory(history, gates)


def _table_of_rows(section: EventSection, folder: Path) -> BlockProgramme | LoadSpectrum:
    """A block programme or a spectrum, from a file or from columns written in the study."""
    channel, rows = section.channel or "", section.programme if section.programme is not None else section.spectrum
    frequency = None if section.frequency is None else coherent(section.frequency, "frequency", "frequency")
    if isinstance(rows, str):
        path = folder / rows
        place: dict[str, Any] = {"sheet": section.sheet or 0, "block": section.block}
        if section.programme is not None:
            return read_programme(path, channel=channel, frequency=frequency, **place)
        return read_spectrum(path, channel=channel, **place)
    columns = dict(rows or {})
    unit = columns.pop("unit", None)
    if not isinstance(unit, str):
        raise InputError("unit", repr(unit), "the unit of the loads in the rows", 'Write for instance unit = "kN".')
    if section.programme is not None:
        return block_programme(channel, columns, unit, frequency=frequency)
    return load_spectrum(channel, columns, unit)


def _equal_cycles(section: EventSection) -> ConstantAmplitude:
    """An event of constant amplitude by the two numbers that the study gives."""
    settings: dict[str, Any] = {"r_ratio": section.r_ratio, "cycles": section.cycles, "frequency": section.frequency}
    channel = section.channel or ""
    if section.maximum is not None:
        return ConstantAmplitude.from_maximum(channel, section.maximum, minimum=section.minimum, **settings)
    if section.amplitude is not None:
        return ConstantAmplitude.from_amplitude(channel, section.amplitude, mean=section.mean, **settings)
    return ConstantAmplitude.from_range(channel, section.range or "", mean=section.mean, **settings)
