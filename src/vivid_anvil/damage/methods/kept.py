"""What a method found for a place and a duty cycle, looked for once: kept as long as the place is."""

from __future__ import annotations

import weakref
from collections.abc import Callable
from typing import Generic, TypeVar
from weakref import WeakKeyDictionary

from vivid_anvil.events import DutyCycle
from vivid_anvil.stress import HotSpot

Found = TypeVar("Found")


class Kept(Generic[Found]):
    """By place, of its latest duty cycle."""

    def __init__(self) -> None:
        self._known: WeakKeyDictionary[HotSpot, tuple[weakref.ref[DutyCycle], Found]] = WeakKeyDictionary()

    def of(self, spot: HotSpot, duty_cycle: DutyCycle, look: Callable[[], Found]) -> Found:
        """What is known, else what `look` finds."""
        known = self._known.get(spot)
        if known is not None and known[0]() is duty_cycle:
            return known[1]
        found = look()
        self._known[spot] = weakref.ref(duty_cycle), found
        return found
