"""Settings of a study that become a noun by a word: memory of a crack, target life."""

from __future__ import annotations

from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.growth import RETARDATIONS, NoRetardation, Retardation
from vivid_anvil.study.models_of_nouns import Section, made


def retardation_of(section: Any) -> Retardation:
    """How larger cycles are remembered: a word, or a table with its numbers."""
    given = section.retardation
    if given is None:
        return NoRetardation()
    if isinstance(given, Section):
        return made(RETARDATIONS, given)  # type: ignore[no-any-return]
    return RETARDATIONS.get(given, "retardation")()


def target_of(stated: float | str | None, duty_cycle: DutyCycle) -> str | None:
    """The target life as every answer tells it: a bare number gets the name of the repeat."""
    if stated is None:
        return None
    text = str(stated)
    repeats = duty_cycle.repeats_in(text)
    return (
        text
        if text.strip()[-1].isalpha() or text.strip().endswith(duty_cycle.repeat)
        else (f"{repeats:.15g} {duty_cycle.calendar.repeats}")
    )
