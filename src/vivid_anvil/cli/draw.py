"""The figures that commands write: one for each thing that is told in full."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import Any

from vivid_anvil.cli.outputs import Drawing
from vivid_anvil.units import UnitSystem


def history_drawings(study: Any, units: UnitSystem) -> list[Drawing]:
    """Each measured history of a study, and the cycles of each channel that a hot spot feels."""
    drawings: list[Drawing] = []
    for i, (event, _) in enumerate(study.duty.flat()):
        if event.load.measured is not None:
            drawings.append(Drawing(f"history {event.name}", event.load, units))
            for counted, name in _counted(study).items():
                cycles = study.duty.sources(counted)[i].cycles
                drawings.append(Drawing(f"cycles {event.name} {name}", cycles, units))
    return drawings


def _counted(study: Any) -> dict[Any, str]:
    """What is counted for hot spots, each once, with its name: the channel, or the place of several loads."""
    found: dict[Any, str] = {}
    for spot in study.hot_spots:
        counted = spot.fed.counted
        found.setdefault(counted, counted if isinstance(counted, str) else spot.name)
    return found


def life_drawings(lives: Sequence[Any], units: UnitSystem) -> list[Drawing]:
    """Each life, and when its damage happens in the history that does most of it, where one does."""
    drawings: list[Drawing] = []
    for life in lives:
        drawings.append(Drawing(f"life {life.hot_spot.name}", life, units))
        if (event := life.worst_history) is not None:
            drawings.append(
                Drawing(f"damage over time {life.hot_spot.name}", partial(life.damage_over_time, event), units)
            )
    return drawings


def growth_drawings(growths: Sequence[Any], units: UnitSystem) -> list[Drawing]:
    """For each crack: its growth, the law with what the cycles visit, K along its way."""
    drawings: list[Drawing] = []
    for growth in growths:
        name = growth.crack.hot_spot.name
        drawings.append(Drawing(f"crack {name}", growth, units))
        if growth.sizes.size > 1:
            drawings.append(Drawing(f"crack law {name}", partial(_made, "visited_law", growth), units))
            drawings.append(Drawing(f"crack course {name}", partial(_made, "crack_course", growth), units))
    return drawings


def _made(maker: str, growth: Any) -> Any:
    from vivid_anvil import growth as made_of

    return getattr(made_of, maker)(growth)
