"""What is kept of a life where many are compared: numbers only."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, NamedTuple

from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import Calendar, share_used
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.plain import plain


@dataclass(frozen=True, slots=True)
class VariantLife:
    """What is kept of a life: numbers only, as a thousand variants of a long spectrum would fill the memory.

    Damage is inf, and the life 0, where the place fails at once.
    """

    damage_per_repeat: float
    critical_sum: float
    calendar: Calendar
    target_repeats: float | None
    place: str

    @property
    def life_repeats(self) -> float:
        """Repeats until the critical sum; inf where nothing does damage."""
        return self.critical_sum / self.damage_per_repeat if self.damage_per_repeat > 0.0 else math.inf

    @property
    def life_years(self) -> float | None:
        """The same in years; None without repeats per year."""
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

    def to_dict(self) -> dict[str, Any]:
        """The life as plain numbers and text."""
        record: dict[str, Any] = plain(
            {
                "place": self.place,
                "damage_per_repeat": self.damage_per_repeat,
                "life_repeats": self.life_repeats,
                "life_years": self.life_years,
                "used_at_target": self.used_at_target,
                "reserve_on_life": self.reserve_on_life,
            }
        )
        return record


class WorstNode(NamedTuple):
    """The life at the worst node of a model, in numbers, and its findings; a node that fails at once has the life 0."""

    kept: VariantLife
    findings: tuple[Finding, ...]


def kept_of(life: LifeResult, scale: float = 1.0) -> VariantLife:
    """The numbers of a life, with all its loads times `scale`."""
    damage = life.damage_per_repeat if scale == 1.0 else float(life.spectrum.damage(scale).sum())
    duty = life.duty_cycle
    return VariantLife(damage, life.hot_spot.critical_sum, duty.calendar, life.target_repeats, life.hot_spot.name)
