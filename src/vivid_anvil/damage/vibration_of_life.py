"""What vibrates at a hot spot: each random event as local stress, and each dwell and sweep with its magnification."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.converged import converged
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.damage.vibration_view import VibrationView, look_at_vibration
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import Column, Table


class Seen(NamedTuple):
    """An event of a life as it is seen at the place: its name, its load with one channel, local stress over that load."""

    event: str
    load: Any
    scale: float


def seen_events(result: Life) -> Iterator[Seen]:
    """Each event of the life."""
    relation, duty = result.hot_spot.fed, result.duty_cycle
    scale = result.hot_spot.notch_factor * abs(relation.factor(duty))
    for event, _ in duty.flat():
        yield Seen(event.name, event.seen(relation.counted).one_channel(str(relation.counted)), scale)


def _damage_about(spot: HotSpot, mean: float, cycles: Cycles) -> float:
    """Damage at the place of local cycles about 0, MPa, moved to a mean."""
    local, method = converged(spot, cycles.about(mean)), spot.assessed_by
    return float(method.damage(spot, method.terms(spot, local), local.per_repeat).sum())


def _tones(one: Seen) -> Iterator[Finding]:
    """Sines that stand beside the random part that is looked at."""
    if one.load.tones:
        sizes = ", ".join(
            f"{number(one.scale * tone.amplitude)} MPa at {number(tone.frequency)} Hz" for tone in one.load.tones
        )
        yield Finding(
            "note",
            "tones-beside",
            f"Tones of {one.event} stand beside what is shown here: amplitudes of {sizes}.",
            "The life counts both together, in a seeded synthesis.",
        )


@opened()
def vibration_views(
    result: Life, *, event: str | None = None, slope: float = 5.0, synthesis: float | str | None = None, seed: int = 1
) -> tuple[VibrationView, ...]:
    """Each random event that has a PSD, as local stress at the place, with damage under its curve.

    Tones on top are left out of the view.

    Parameters
    ----------
    result : Life
        The result that is asked.
    event : str, optional
        Only this one.
    slope : float, default 5.0
        Slope m for formulas of one slope.
    synthesis : float or str, optional
        Also count a seeded history of so long, s or text.
    seed : int, default 1
        Of that history.

    Returns
    -------
    tuple[VibrationView, ...]
        A view an event.

    Raises
    ------
    InputError
        For a slope that is not above 0.

    Examples
    --------
    >>> vibration_views(result.lives[0])  # of the demo: run_study(read_study('larkfell.toml'))
    ()
    """
    found = []
    for one in seen_events(result):
        if (
            "cross-spectra" not in one.load.gives
            or not hasattr(one.load.process, "band")
            or event not in (None, one.event)
        ):
            continue
        spot = result.hot_spot
        mean = one.scale * one.load.mean + spot.notch_factor * spot.fed.offset
        process = one.load.process.times(one.scale)
        found.append(
            look_at_vibration(
                process,
                name=f"{one.event}, {spot.name}",
                slope=slope,
                exposure=one.load.exposure,
                synthesis=synthesis,
                seed=seed,
                damage_of=partial(_damage_about, spot, mean),
                findings=tuple(_tones(one)),
            )
        )
    return tuple(found)


@opened()
def sine_table(result: Life) -> Table:
    """Dwells and sweeps at the place: a row a dwell, or a resonance within a sweep and the highest stress of it.

    Parameters
    ----------
    result : Life
        The result that is asked.

    Returns
    -------
    Table
        Frequency, amplitude, range, magnification over the static stress, cycles, time there.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> len(sine_table(result.lives[0]))  # of the demo: run_study(read_study('larkfell.toml'))
    0
    """
    rows = [row for one in seen_events(result) if "lines" in one.load.gives for row in _sine_rows(one)]
    names = ("event", "what", "frequency", "amplitude", "range", "magnification", "cycles", "time")
    columns = dict(zip(names, zip(*rows, strict=True) if rows else [()] * len(names), strict=True))
    return Table(
        f"Dwells and sweeps, {result.hot_spot.name}",
        (
            Column("event", columns["event"]),
            Column("what", columns["what"]),
            Column("frequency", columns["frequency"], of="frequency"),
            Column("stress amplitude", columns["amplitude"], of="stress", head="Amplitude"),
            Column("stress range", columns["range"], of="stress", head="Range"),
            Column("magnification", columns["magnification"], head="Magnif."),
            Column("cycles", columns["cycles"], style="number"),
            Column("time", columns["time"], of="time"),
        ),
        key="sines",
        note="Cycles are frequency times time; at a resonance of a sweep those within its half-power band.",
    )


def _sine_rows(one: Seen) -> list[tuple[Any, ...]]:
    rows, response = one.load.rows, one.load.response
    static = 0.0 if response is None else abs(response.static)

    def magnification(frequency: float) -> float | None:
        here = 0.0 if response is None else float(np.abs(response.at(np.array([frequency])))[0])
        return here / static if static > 1e-9 * here else None

    def row(what: str, at: int, cycles: float, time: float) -> tuple[Any, ...]:
        frequency, amplitude = float(rows.frequency[at]), one.scale * float(rows.amplitude[at])
        return (one.event, what, frequency, amplitude, 2.0 * amplitude, magnification(frequency), cycles, time)

    if (rows.panel < 0.0).all():
        return [
            row("dwell", i, float(rows.cycles[i]), float(rows.cycles[i] / rows.frequency[i]))
            for i in range(rows.frequency.size)
        ]
    seconds = rows.cycles / rows.frequency
    found = [
        row("highest of the sweep", int(np.argmax(rows.amplitude)), float(rows.cycles.sum()), float(seconds.sum()))
    ]
    for own in () if response is None else response.resonances:
        low, high = own.half_power
        near = (rows.frequency >= low) & (rows.frequency <= high)
        if near.any():
            at = int(np.flatnonzero(near)[rows.amplitude[near].argmax()])
            found.append(row("resonance", at, float(rows.cycles[near].sum()), float(seconds[near].sum())))
    return found
