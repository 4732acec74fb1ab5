"""The life of a hot spot when the order of the loads counts, with the order said in words.

In: a linear life. Out: repeats until failure by the damage curve, the double linear rule or the power rule (see
`nonlinear`), beside the linear life. Order: events one after another as the duty cycle lists them, each with all its
occurrences; in an event the classes of equivalent stress from high to low. Failure is at 1, as the rules are published.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from vivid_anvil.damage.life_numbers import Life, class_edges
from vivid_anvil.damage.nonlinear import ORDER_RULES, damage_curve_blocks, double_linear_blocks, power_rule_blocks
from vivid_anvil.ground.checks import positive_number
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import opened

_AS_LISTED = "events as listed, each with all its occurrences, in each the stress classes from high to low"
_MIXED = "all classes finely mixed"


@dataclass(frozen=True, slots=True)
class Level:
    """Cycles of one event in one class of equivalent stress: how many per repeat, and the life at their mean damage."""

    event: str
    stress: float
    cycles: float
    life: float


@dataclass(frozen=True)
class LifeInOrder:
    """Repeats until failure by a rule that knows the order, the linear life beside it, and the order that was used."""

    hot_spot: str
    rule: str
    repeat: str
    order: str
    life_repeats: float
    linear_repeats: float
    levels: tuple[Level, ...]


@opened()
def life_in_order(result: Life, rule: str, exponents: Mapping[str, float] | None = None) -> LifeInOrder:
    """The life of `result` by one of `ORDER_RULES`; the power rule needs an exponent for each event that does damage.

    Raises InputError for an unknown rule, and for exponents that are missing or belong to no event.

    >>> from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
    >>> from vivid_anvil.materials import Material, knee_curve
    >>> from vivid_anvil.damage.assess import assess_life
    >>> from vivid_anvil.damage.methods import StressLife
    >>> from vivid_anvil.stress import HotSpot, OneLoad
    >>> high, low = (
    ...     Event(name, ConstantAmplitude.from_amplitude("stress", size, r_ratio=-1.0, cycles=times))
    ...     for name, size, times in (("start", "400 MPa", 1), ("run", "200 MPa", 100))
    ... )
    >>> curve = knee_curve(
    ...     name="bar", stress="amplitude", r_ratio=-1, knee_stress=400.0, knee_life=1e4, slope=8, slope_below=8
    ... )
    >>> bar = HotSpot(
    ...     name="bar",
    ...     relation=OneLoad("stress", 1.0),
    ...     material=Material(name="steel"),
    ...     method=StressLife(sn_curve=curve),
    ... )
    >>> found = life_in_order(assess_life(bar, DutyCycle("day", [high, low], 250)), "double linear")
    >>> round(found.linear_repeats), round(found.life_repeats)
    (7191, 3698)
    """
    where = f"hot spot {result.hot_spot.name}, order_rule"
    if rule not in ORDER_RULES:
        raise InputError(where, repr(rule), f"one of {listed(ORDER_RULES)}", did_you_mean(rule, ORDER_RULES))
    levels = _levels(result)
    powers = _powers(where, rule, levels, [event.name for event in result.events], exponents)
    cycles, lives = [level.cycles for level in levels], [level.life for level in levels]
    if not levels:
        repeats = math.inf
    elif rule == "damage curve":
        repeats = damage_curve_blocks(cycles, lives)
    elif rule == "double linear":
        repeats = double_linear_blocks(cycles, lives)
    else:
        repeats = power_rule_blocks(cycles, lives, powers)
    total = result.damage_per_repeat
    return LifeInOrder(
        result.hot_spot.name,
        rule,
        result.duty_cycle.repeat,
        _MIXED if rule == "double linear" else _AS_LISTED,
        repeats,
        1.0 / total if total > 0.0 else math.inf,
        levels,
    )


def _levels(result: Life) -> tuple[Level, ...]:
    """Event by event, from the highest class to the lowest, those that do damage."""
    stresses, damage = result.equivalent_stress, result.damage
    edges = class_edges(float(stresses.max(initial=0.0)), about=20)
    place = np.clip(np.searchsorted(edges, stresses, side="right") - 1, 0, edges.size - 2)
    levels = []
    for i, source in enumerate(result.spectrum.sources):
        for j in range(edges.size - 2, -1, -1):
            here = (result.spectrum.event == i) & (place == j) & (damage > 0.0)
            if here.any():
                cycles = float(result.spectrum.per_repeat[here].sum())
                levels.append(
                    Level(source.name, float(stresses[here].max()), cycles, cycles / float(damage[here].sum()))
                )
    return tuple(levels)


def _powers(
    where: str, rule: str, levels: tuple[Level, ...], events: list[str], exponents: Mapping[str, float] | None
) -> list[float]:
    """The exponent of each level, by its event; empty for rules without."""
    given = dict(exponents or {})
    if rule != "power rule":
        if given:
            raise InputError(where, f"exponents for the {rule} rule", "exponents with the power rule only")
        return []
    if odd := [name for name in given if name not in events]:
        raise InputError(
            where, f"an exponent for {odd[0]!r}", f"events among {listed(events)}", did_you_mean(odd[0], events)
        )
    if missing := [level.event for level in levels if level.event not in given]:
        raise InputError(where, f"no exponent for {missing[0]!r}", "an exponent for each event that does damage")
    return [positive_number(where, given[level.event], "exponents above 0") for level in levels]
