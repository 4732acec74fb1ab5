"""Cycles of a density laid so fine that the integral of n/N is right across knees, limits and ends of the curve."""

from __future__ import annotations

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import PANEL, joined
from vivid_anvil.counting.panels import halved, panels_of
from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray
from vivid_anvil.stress import HotSpot

CLOSE = 1e-11  # of the damage: what a panel may still move
KNEES = 14  # halvings of panels with a knee, whatever moves: its place within them is then known to 1e-6
BESIDE = 0.02  # of a panel: how far its places are from its ends, and more
DEEPEST = 48  # halvings; a limit, at which the damage jumps, takes about forty


def converged(spot: HotSpot, cycles: Cycles) -> Cycles:
    """The same cycles, with panels halved where the damage of a panel is not that of its halves; single cycles stay as they are.

    Where cycles of a place act on each other, or one fails it at once, the table stays as it is.
    """
    if PANEL not in cycles.columns or spot.assessed_by.acts_together:
        return cycles
    panels = panels_of(cycles)
    whole = _damage(spot, cycles)
    if not panels.size or not np.isfinite(whole).all():
        return cycles
    each = CLOSE * np.bincount(cycles.event - cycles.event.min(), weights=whole)  # of every event by itself
    first = int(cycles.event.min())
    beside = np.ones(len(cycles), dtype=bool)
    beside[panels.ravel()] = False
    settled, active = [cycles.chosen(beside)], cycles.chosen(panels.ravel())
    for level in range(DEEPEST):
        own = panels_of(active)
        fine = halved(active, own)
        halves = panels_of(fine).reshape(len(own), -1)
        moved = np.abs(_damage(spot, fine)[halves].sum(axis=1) - _damage(spot, active)[own].sum(axis=1))
        off = moved > each[active.event[own[:, 0]] - first]
        if level < KNEES:
            off |= _at_knees(spot, active, own)
        settled.append(active.chosen(own[~off].ravel()))
        if not off.any():
            return joined(settled)
        active = fine.chosen(halves[off].ravel())
    return joined([*settled, active])


def _at_knees(spot: HotSpot, cycles: Cycles, panels: IntArray) -> BoolArray:
    """Which panels hold a point of the curve, or have one so near to an end that no place would tell."""
    curve = spot.assessed_by.reference
    found = np.zeros(len(panels), dtype=bool)
    if curve is None or not len(panels):
        return found
    terms = spot.assessed_by.terms(spot, cycles)[panels]
    low, high = terms.min(axis=1), terms.max(axis=1)
    known = np.isfinite(high) & (low > 0.0)
    beyond = np.where(known, high / np.where(known, low, 1.0), 1.0) ** BESIDE
    for knee in curve.point_stresses.tolist():
        found |= known & (low / beyond < knee) & (knee < high * beyond)
    return found


def _damage(spot: HotSpot, cycles: Cycles) -> FloatArray:
    method = spot.assessed_by
    return method.damage(spot, method.terms(spot, cycles), cycles.per_repeat)
