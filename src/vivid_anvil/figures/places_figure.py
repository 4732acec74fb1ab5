"""All places of a study: how much each uses of what it may, what moves the worst lives most, lives by survival probability."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, GREEN, INK, LINES, ORANGE, PALE, RED, new_figure, note, plain_log_ticks
from vivid_anvil.figures.tidy import FIXED, shortened_name
from vivid_anvil.study import AllPlaces
from vivid_anvil.study.all_places import Place
from vivid_anvil.study.levers import CHANGE, Lever
from vivid_anvil.units import UnitSystem, number

MOST_BARS, MOST_MOVED, LONGEST = 16, 3, 2.0  # bars; places whose levers are drawn; share at which a bar is cut
FEWEST_ROWS, NEAR = 7, 30.0  # room of bars; how far the line of 100 % may be off to be shown
LESS_AND_MORE = {f"{CHANGE:.0%} less": BLUE, f"{CHANGE:.0%} more": ORANGE}


def places_figure(found: AllPlaces, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001 (shares and times)
    """The figure of all places."""
    figure = new_figure(found.title)
    moved = found.moved[:MOST_MOVED]
    rows = len(moved) + bool(found.survivals)
    if not rows:
        _bars(figure.subplots(), found)
        return figure
    grid = figure.add_gridspec(rows, 2, width_ratios=(1.25, 1.0))
    _bars(figure.add_subplot(grid[:, 0]), found)
    for i, (name, kind) in enumerate(moved):
        tornado(figure.add_subplot(grid[i, 1]), found, name, kind, with_legend=i == 0)
    if found.survivals:
        _survival(figure.add_subplot(grid[-1, 1]), found)
    return figure


def label_of(place: Place) -> str:
    """How a place is called beside its bar."""
    return place.name if place.kind == "flaw" else f"{place.name}, {place.kind}"


def colour_of(place: Place) -> str:
    """Of its bar: whether it uses more than it may."""
    return PALE if place.used is None else RED if place.bad else GREEN


def said_used(used: float | None) -> str:
    """The share in words."""
    return "no target" if used is None else "all at once" if math.isinf(used) else f"{number(100.0 * used, 3)} %"


def end_of_bars(places: Sequence[Place]) -> float:
    """The share up to which bars are drawn; longer ones are cut there."""
    known = [place.used for place in places if place.used is not None and math.isfinite(place.used)]
    return min(LONGEST, max(1.2, 1.05 * max(known, default=1.0)))


def _bars(axes: Axes, found: AllPlaces) -> None:
    shown = found.places[:MOST_BARS]
    end = end_of_bars(shown)
    for i, place in enumerate(shown):
        length = 0.0 if place.used is None else min(place.used, end)
        axes.barh(i, 100.0 * length, height=0.62, color=colour_of(place))
        cut = place.used is not None and place.used > end
        words = said_used(place.used) + (" >" if cut else "")
        inside = length > 0.6 * end
        axes.text(
            100.0 * (length - 0.015 * end if inside else length + 0.015 * end),
            i,
            words,
            va="center",
            ha="right" if inside else "left",
            color="white" if inside and place.used is not None else INK,
            fontsize=11,
            gid=FIXED,
        )
    axes.axvline(100.0, color=INK, lw=1.2)
    axes.set_yticks(
        range(len(shown)), [f"{shortened_name(label_of(p), 34)}\n{shortened_name(p.governed_by, 38)}" for p in shown]
    )
    axes.tick_params(axis="y", labelsize=10)
    axes.set_ylim(max(len(shown), FEWEST_ROWS) - 0.4, -0.6)
    axes.set_xlim(0.0, 100.0 * end)
    axes.grid(visible=False, axis="y")
    axes.set_xlabel("Used of what it may [%]")
    more = len(found.places) - len(shown)
    axes.set_title(
        f"The {len(shown)} most used of {len(found.places)} places" if more else "All places, the most used first"
    )


def tornado(axes: Axes, found: AllPlaces, name: str, kind: str, *, with_legend: bool = True) -> None:
    """Each value of a place a tenth lower and higher, the one that moves it most on top."""
    levers = found.levers_of(name, kind)
    by_share = all(one.used is not None for one in levers)
    axes.set_xscale("log")
    seen = []
    for i, one in enumerate(levers):
        base = base_of(one, by_share)
        for end, (label, colour) in zip(ends_of(one, by_share), LESS_AND_MORE.items(), strict=True):
            if end is not None and 0.0 < end < math.inf and 0.0 < base < math.inf:
                axes.barh(
                    i, end - base, left=base, height=0.6, color=colour, label=label if label not in seen else None
                )
                seen.append(label)
    base = base_of(levers[0], by_share)
    axes.set_title(f"{kind.capitalize()} of {shortened_name(name, 40)}", fontsize=12)
    axes.set_yticks(range(len(levers)), [one.lever for one in levers])
    axes.tick_params(axis="y", labelsize=11)
    axes.set_ylim(len(levers) - 0.4, -0.6)
    axes.grid(visible=False, axis="y")
    axes.set_xlabel("Used at the target [%]" if by_share else f"Life [{found.result.study.duty.calendar.repeats}]")
    if not 0.0 < base < math.inf or not seen:
        note(axes, "No damage: nothing to move" if base in (0.0, math.inf) else "Nothing moves it")
        return
    axes.axvline(base, color=INK, lw=1.2)
    if by_share and base / NEAR < 100.0 < base * NEAR:
        axes.axvline(100.0, color=RED, lw=1.2, ls="--")
    axes.margins(x=0.08)
    plain_log_ticks(axes.xaxis)
    if with_legend:
        axes.legend(loc="lower right", fontsize=10)


def base_of(one: Lever, by_share: bool) -> float:
    """Where the bars of a lever start: the share that is used, %, or the life in repeats."""
    return 100.0 * (one.used or 0.0) if by_share else one.life


def ends_of(one: Lever, by_share: bool) -> tuple[float | None, float | None]:
    """Where they end, with less and with more of it."""
    if not by_share:
        return one.life_low, one.life_high
    low, high = one.used_low, one.used_high
    return None if low is None else 100.0 * low, None if high is None else 100.0 * high


def _survival(axes: Axes, found: AllPlaces) -> None:
    """Life over the share of parts that survive it; the point that the study states is marked."""
    assert found.calendar is not None
    for colour, one in zip(LINES, found.survivals, strict=False):
        lives = np.asarray(found.calendar.life_in(found.unit_of_life, one.repeats))
        axes.plot(100.0 * one.shares, lives, color=colour, lw=2.0, label=shortened_name(one.place, 30))
        stated = one.shares == one.stated
        axes.plot(100.0 * one.shares[stated], lives[stated], "o", ms=8, color=colour)
    axes.set_yscale("log")
    axes.set_xlabel("Survival probability [%]")
    axes.set_ylabel(f"Life [{found.unit_of_life}]")
    axes.set_title("Life by survival probability (dot: as stated)", fontsize=12)
    axes.legend(loc="upper right", fontsize=10)
