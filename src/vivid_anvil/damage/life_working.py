"""Hand calculation of a life: the cycle class that does most damage, then the sum."""

from __future__ import annotations

import dataclasses
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vivid_anvil.counting.cycles import FREQUENCY
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.load import WorkedCycle
from vivid_anvil.stress.relations import moment_of
from vivid_anvil.units import UnitSystem, coherent, display_unit, in_unit, number, opened, shown
from vivid_anvil.writing.working import Step, Working, put_in


@opened()
def life_working(
    result: Life, system: UnitSystem = "metric", *, event: str | None = None, stress: float | str | None = None
) -> Working:
    """Numbered steps for the most damaging cycle of the most damaging class, and from the sum to the life.

    With `event` only cycles of that event are looked at; with `stress`, MPa or text, in the curve's terms, the class that holds
    it.

    Parameters
    ----------
    result : Life
        The result that is asked.
    system : UnitSystem, default "metric"
        Units of the numbers shown.
    event : str, optional
        An event whose worst cycle is wanted.
    stress : float or str, optional
        A stress on the curve, MPa, in the place of the worst cycle.

    Returns
    -------
    Working
        The steps; `print` shows them.

    Raises
    ------
    InputError
        For an unknown event, and where no cycle there does damage.

    Examples
    --------
    >>> print(life_working(result.lives[0]).steps[-1])  # of the demo: run_study(read_study('larkfell.toml'))
    In years
        L_years = L / repeats per year
                = 334.3726 / 12
                = 27.864 years
    """
    spot, duty = result.hot_spot, result.duty_cycle
    title = f"Life of {spot.name}, worked by hand"
    if result.damage_per_repeat == 0.0:
        return Working(title, f"No cycle of {duty.repeat} does damage by the {result.method.words}.", ())
    edges = result.edges(system)
    cycle, members = worked_cycle(result, event, stress, system)
    cycles = result.spectrum.cycles
    to_life = result.method.steps_of(spot, cycles, cycle, system)
    by_method = result.method.load_steps(result, cycle, system)
    before, after = _over_frequency(result, cycle, system)
    steps = [
        *result.method.made(spot),
        *before,
        *(_stress_steps(result, cycle, system) if by_method is None else by_method),
        *to_life,
        *_sum_steps(result, cycle, to_life[-1].value, float(result.damage[members].sum())),
        *after,
    ]
    chosen = event is not None or stress is not None
    return Working(title, _opening(result, cycle, members, edges, system, chosen), tuple(steps), _closing(result))


@opened()
def worked_cycle(
    result: Life, event: str | None = None, stress: float | str | None = None, system: UnitSystem = "metric"
) -> tuple[int, IntArray]:
    """The cycle that is worked by hand, the one that does most in the class that does most; and all of that class."""
    edges = result.edges(system)
    looked_at = _looked_at(result, edges, event, stress, system)
    damage = np.where(looked_at, result.damage, 0.0)
    place = result.class_of(edges)
    worst_class = int(np.argmax(np.bincount(place, weights=damage, minlength=edges.size - 1)))
    members = np.flatnonzero((place == worst_class) & looked_at)
    return int(members[int(np.argmax(damage[members]))]), members


def _looked_at(
    result: Life, edges: FloatArray, event: str | None, stress: float | str | None, system: UnitSystem
) -> NDArray[np.bool_]:
    """Which cycles are to be looked at: of an event, of a class."""
    found = np.ones(len(result.spectrum.cycles), dtype=bool)
    if event is not None:
        names = [source.name for source in result.spectrum.sources]
        if event not in names:
            raise InputError("event", repr(event), f"one of {listed(names)}", did_you_mean(event, names))
        found &= result.spectrum.event == names.index(event)
    if stress is not None:
        size = coherent(stress, result.dimension, "stress")
        if not 0.0 <= size <= float(edges[-1]):
            told, largest = (in_unit(one, result.dimension, system) for one in (size, result.largest_equivalent))
            raise InputError("stress", told, f"a {result.stress_in_words}, up to {largest}")
        chosen = min(int(np.searchsorted(edges, size, side="right")) - 1, edges.size - 2)
        found &= result.class_of(edges) == chosen
    if not result.damage[found].any():
        raise InputError("explain", "no cycle there that does damage", "an event or a class with a share of the damage")
    return found


def _opening(result: Life, cycle: int, members: IntArray, edges: FloatArray, system: UnitSystem, chosen: bool) -> str:
    cycles, place = result.spectrum.cycles, int(result.class_of(edges)[cycle])
    source = result.spectrum.sources[int(result.spectrum.event[cycle])]
    at = ""
    rate = source.cycles.sample_rate
    if cycles.start[cycle] >= 0 and rate:
        times = " and ".join(f"{number(sample / rate, 6)} s" for sample in (cycles.start[cycle], cycles.end[cycle]))
        at = f", with its turning points at {times} (samples {cycles.start[cycle]} and {cycles.end[cycle]})"
    share = float(result.damage[members].sum()) / result.damage_per_repeat
    often = number(float(result.spectrum.per_repeat[members].sum()))
    low, high = (in_unit(float(edge), result.dimension, system) for edge in edges[place : place + 2])
    head = f"Of the cycles asked about most damage, {share:.1%} of all," if chosen else f"Most damage, {share:.1%},"
    return (
        f"{head} is done by the {often} cycles per {result.duty_cycle.repeat} with a {result.stress_in_words} of {low} to "
        f"{high}. "
        f"The one that does most is in the event {source.name}{at}."
    )


def _over_frequency(result: Life, cycle: int, system: UnitSystem) -> tuple[list[Step], list[Step]]:
    """What the load itself has to show: moments and rates of a random event, magnification of a sine."""
    relation, cycles, duty = result.hot_spot.fed, result.spectrum.cycles, result.duty_cycle
    flat, event = duty.flat(), int(cycles.event[cycle])
    if event >= len(flat):
        return [], []
    name = result.spectrum.sources[event].name
    own = flat[event][0].seen(relation.counted).one_channel(str(relation.counted))
    frequency = cycles.columns.get(FREQUENCY)
    worked = WorkedCycle(
        name,
        float(cycles.range[cycle]),
        float("nan") if frequency is None else float(frequency[cycle]),
        result.hot_spot.notch_factor * abs(relation.factor(duty)),
        duty.expected_cycles,
        duty.expected_slope,
        float(result.damage[result.spectrum.event == event].sum()) / flat[event][1],
        result.critical_sum,
    )
    found: tuple[list[Step], list[Step]] = own.worked(worked, system)
    return found


def _stress_steps(result: Life, cycle: int, system: UnitSystem) -> list[Step]:
    """From the loads at both ends of the cycle to the local stress amplitude and mean."""
    spot, cycles, duty = result.hot_spot, result.spectrum.cycles, result.duty_cycle
    relation, unit = spot.fed, display_unit("stress", system)
    dimension, per_load = duty.dimension_of_channel(relation.counted), relation.factor(duty)
    offset, kf = put_in(float(shown(relation.offset, "stress", system))), put_in(spot.notch_factor)
    number_of_event, ends = int(cycles.event[cycle]), [int(one[cycle]) for one in (cycles.start, cycles.end)]
    steps, stresses = [], []
    for label, stress in (("max", cycles.maximum[cycle]), ("min", cycles.minimum[cycle])):
        nominal = float(stress) / spot.notch_factor - relation.offset
        moment = partial(moment_of, relation, duty, number_of_event, ends, nominal / per_load)
        worked = relation.worked(nominal, moment, dimension, system)
        steps += [dataclasses.replace(step, title=f"At the cycle's {label}imum: {step.title}") for step in worked.steps]
        value = float(shown(stress, "stress", system))
        stresses.append(value)
        steps.append(
            Step(
                f"Local stress at the cycle's {label}imum",
                f"S_{label} = K_f × ({worked.formula} + S_0)",
                f"{kf} × ({worked.numbers} + {offset} {unit})",
                value,
                unit,
            )
        )
    high, low = (put_in(value) for value in stresses)
    amplitude, mean = 0.5 * (stresses[0] - stresses[1]), 0.5 * (stresses[0] + stresses[1])
    steps.append(Step("Amplitude", "S_a = (S_max - S_min) / 2", f"({high} {unit} - {low} {unit}) / 2", amplitude, unit))
    steps.append(Step("Mean", "S_m = (S_max + S_min) / 2", f"({high} {unit} + {low} {unit}) / 2", mean, unit))
    return steps


def _sum_steps(result: Life, cycle: int, life: float, class_damage: float) -> list[Step]:
    """Damage of the cycle, share of its class, sum, life."""
    duty = result.duty_cycle
    total, often = result.damage_per_repeat, float(result.spectrum.per_repeat[cycle])
    averaged, fade = often / life, []
    if result.method.acts_together:
        averaged = float(result.damage[cycle])
        part = averaged / (often / life)
        title = "Average over the life: part of it in which the cycle lies above the falling limit (solved)"
        fade = [
            Step(title, "D_cycle = w × n × d", f"{put_in(part)} × {put_in(often / life)}", averaged, "", "Haibach 2006")
        ]
    return [
        Step(
            "Damage of one such cycle", "d = 1 / N", f"1 / {put_in(life)}", 1.0 / life, "", "Palmgren 1924, Miner 1945"
        ),
        Step(
            f"Damage of this cycle in one {duty.repeat}, in which it happens {number(often, 6)} times",
            "D_cycle = n × d",
            f"{put_in(often)} × {put_in(1.0 / life)}",
            often / life,
            "",
        ),
        *fade,
        Step(
            f"The cycles of the class together, summed in the same way, as a share of the damage of one {duty.repeat}",
            "p = D_class / D",
            f"{put_in(class_damage)} / {put_in(total)}",
            class_damage / total,
            "",
        ),
        Step(
            f"Life: the damage of all classes of one {duty.repeat} fills the critical sum",
            "L = D_c / D",
            f"{put_in(result.critical_sum)} / {put_in(total)}",
            result.life_repeats,
            duty.calendar.repeats,
        ),
        *_in_hours(result),
        *_in_years(result),
    ]


def _in_years(result: Life) -> list[Step]:
    """Years, where the duty cycle has a calendar and a repeat is not a year itself."""
    per_year, years = result.duty_cycle.repeats_per_year, result.life_years
    if per_year is None or years is None or result.duty_cycle.repeat == "year":
        return []
    numbers = f"{put_in(result.life_repeats)} / {put_in(per_year)}"
    return [Step("In years", "L_years = L / repeats per year", numbers, years, "years")]


def _in_hours(result: Life) -> list[Step]:
    """Hours of the events, where every one knows how long it takes."""
    hours, repeat = result.duty_cycle.hours, result.duty_cycle.repeat
    if hours is None or result.life_hours is None:
        return []
    numbers = f"{put_in(result.life_repeats)} × {put_in(hours)}"
    return [Step("In hours", f"L_h = L × hours of one {repeat}", numbers, result.life_hours, "h")]


def _closing(result: Life) -> str:
    if result.target_repeats is None or result.reserve_on_stress is None:
        return ""
    moved = "the counted stress" if result.hot_spot.fed.scaled_along else "all loads"
    return (
        f"Target: {amount(result.target_repeats, result.duty_cycle.repeat)}. Reserve factor on life "
        f"{number(result.reserve_on_life or 0.0)}; {moved} times {number(result.reserve_on_stress)} would just meet it "
        "(solved with the whole spectrum)."
    )
