"""What is kept of a life where many are compared: numbers only, as a thousand long spectra would fill the memory."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from vivid_anvil.damage import LifeResult
from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import Calendar, share_used
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.fields import ModelResult
from vivid_anvil.growth import Crack, grow_crack
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import Column


@dataclass(frozen=True, slots=True)
class KeptLife:
    """The life of a place by damage, with its damage per repeat; or of a crack, with its limiting size, mm, and what governs it.

    Damage is inf, and the life 0, where the place fails at once.
    """

    place: str
    life_repeats: float
    calendar: Calendar
    target_repeats: float | None
    damage_per_repeat: float | None = None
    limiting_size: float | None = None
    governed_by: str | None = None

    @property
    def life_years(self) -> float | None:
        """The life in years; None without repeats per year."""
        years: float | None = self.calendar.years(self.life_repeats)
        return years

    @property
    def reserve_on_life(self) -> float | None:
        """Life over target; None without target."""
        return None if self.target_repeats is None else self.life_repeats / self.target_repeats

    @property
    def used_at_target(self) -> float | None:
        """Share of the life that is used when the target is reached; None without target."""
        share: float | None = share_used(self.target_repeats, self.life_repeats)
        return share


class WorstNode(NamedTuple):
    """The life at the worst node of a model, in numbers, and its findings; a node that fails at once has the life 0."""

    kept: KeptLife
    findings: tuple[Finding, ...]


def kept_of(life: LifeResult, scale: float = 1.0) -> KeptLife:
    """The numbers of a life, with all its loads times `scale`."""
    damage = life.damage_per_repeat if scale == 1.0 else float(life.spectrum.damage(scale).sum())
    repeats = life.critical_sum / damage if damage > 0.0 else math.inf
    return KeptLife(life.hot_spot.name, repeats, life.duty_cycle.calendar, life.target_repeats, damage)


def kept_worst(result: ModelResult) -> KeptLife:
    """The numbers of the worst node of a model."""
    place = result.worst
    damage, critical = float(result.values.damage[place]), float(result.critical_sums[place])
    repeats = critical / damage if damage > 0.0 else math.inf
    name = f"node {int(result.field.node_ids[place])}"
    return KeptLife(name, repeats, result.duty_cycle.calendar, result.target_repeats, damage)


def kept_growth(crack: Crack, duty: DutyCycle, target: float | None) -> KeptLife:
    """The numbers of the growth of a crack to its limiting size; `target` in repeats."""
    grown = grow_crack(dataclasses.replace(crack, detectable_size=None), duty)
    size, why = grown.critical.limiting, grown.governed_by
    return KeptLife(crack.hot_spot.name, grown.life_repeats, duty.calendar, target, limiting_size=size, governed_by=why)


def kept_columns(lives: Sequence[KeptLife]) -> list[Column]:
    """Columns of kept lives: damage or limiting size, life, how much of it is used, reserve."""
    repeat = lives[0].calendar.repeat
    if any(life.damage_per_repeat is not None for life in lives):
        damage = [life.damage_per_repeat for life in lives]
        columns = [Column("damage per repeat", damage, head=f"Damage\na {repeat}", endless="at once")]
    else:
        sizes = [life.limiting_size for life in lives]
        columns = [
            Column("limiting size", sizes, of="length", head="Limiting\nsize"),
            Column("governed by", [life.governed_by for life in lives], only="file"),
        ]
    return [
        *columns,
        *life_columns([life.life_repeats for life in lives], [life.calendar for life in lives]),
        Column(
            "used at target",
            [life.used_at_target for life in lives],
            head="Used",
            style="percent",
            endless="all at once",
        ),
        Column(
            "reserve on life", [life.reserve_on_life for life in lives], head="Reserve\non life", endless="no limit"
        ),
    ]
