"""A loop by hand: first loading, the branches down to the loop, its range, its mean stress, its life."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.materials.strain.strain_mean import MeanSteps
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.yielding import NOTCH_RULES
from vivid_anvil.stress.yielding.tips_of_loops import Loops, hung, loops_of
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.local_strain import LocalStrain

MASING = "Masing 1926"
NAMES = ("min", "max")


class _Way(NamedTuple):
    """What turns drives into stress, and how stresses are shown."""

    method: LocalStrain
    units: UnitSystem
    unit: str

    def shown(self, stress: float) -> float:
        """MPa as it is shown."""
        return float(shown(stress, "stress", self.units))

    def solved(self, drive: float, stress: float, of: str) -> list[Step]:
        """The two sides of the rule at an elastic stress and the stress there."""
        method = self.method
        sides = NOTCH_RULES[method.notch_rule].sides(
            method.cyclic, drive, stress, method.plastic_limit_ratio, self.shown
        )
        return [
            Step(f"{of}: left side of the notch rule at the elastic stress", *sides.given, self._of(sides.of)),
            Step(
                f"{of}: the same right of it, with the stress that solves the rule, {put_in(self.shown(stress))} {self.unit}",
                *sides.found,
                self._of(sides.of),
                NOTCH_RULES[method.notch_rule].source,
            ),
        ]

    def _of(self, kind: str) -> str:
        return self.unit if kind == "stress" else ""

    def moved(self, tip: float, half: float, *, up: bool, title: str, symbol: str) -> Step:
        """From a tip along a branch, which is the cyclic curve doubled."""
        sign = "+" if up else "-"
        numbers = f"{put_in(self.shown(tip))} {self.unit} {sign} 2 × {put_in(self.shown(half))} {self.unit}"
        value = self.shown(tip + (2.0 * half if up else -2.0 * half))
        return Step(title, f"{symbol} = σ_tip {sign} 2 × σ", numbers, value, self.unit, MASING)


def alone_steps(method: LocalStrain, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
    """A loop that hangs on none, of an elastic amplitude and mean, MPa."""
    cycles = Cycles(range=np.array([2.0 * size]), mean=np.array([mean]), count=np.ones(1))
    return loop_steps(method, spot, cycles, 0, units)


def loop_steps(method: LocalStrain, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
    """The loop of a row, from first loading on."""
    way = _Way(method, units, display_unit("stress", units))
    loops = loops_of(method.cyclic, cycles, method.notch_rule, method.plastic_limit_ratio)
    steps: list[Step] = []
    chain = _chain(cycles, row)
    for depth, link in enumerate(chain):
        last = depth + 1 == len(chain)
        needed = None if last else chain[depth + 1].rises
        steps += _link_steps(way, cycles, loops, link, depth, needed)
    high, low, strain = (float(one[row]) for one in (loops.highest, loops.lowest, loops.amplitude))
    steps.append(_strain_step(way, 0.5 * (high - low), strain))
    value = method.form.value_of(spot.material, f"hot spot {spot.name}")
    life = float(method.lives(spot, loops)[row])
    at = MeanSteps(method.strain_life, strain, high, low, value, life, way.shown, way.unit)
    return [*steps, *method.form.steps(at)]


class _Link(NamedTuple):
    """A loop on the way: its row, that of the one it hangs on (-1: none), whether the branch that it starts on rises."""

    row: int
    on: int
    rises: bool


def _chain(cycles: Cycles, row: int) -> list[_Link]:
    """From the outermost loop to that of the row."""
    where = hung(cycles)
    place = int(np.flatnonzero(where.order == row)[0])
    found = []
    while place >= 0:
        parent = int(where.parent[place])
        on = -1 if parent < 0 else int(where.order[parent])
        found.append(_Link(int(where.order[place]), on, bool(where.rises[place])))
        place = parent
    return found[::-1]


def _link_steps(
    way: _Way, cycles: Cycles, loops: Loops, link: _Link, depth: int, needed: bool | None
) -> Iterator[Step]:
    """To the start of a loop, and to its other tip where that is needed: `needed` says which tip the next one hangs on."""
    own = float(cycles.minimum[link.row]), float(cycles.maximum[link.row])
    tips = float(loops.lowest[link.row]), float(loops.highest[link.row])
    name = "the outermost loop" if depth == 0 else f"the loop within it, {depth}"
    if link.on < 0:
        start = 1 if abs(own[1]) >= abs(own[0]) else 0
        yield from way.solved(abs(own[start]), abs(tips[start]), "First loading")
        sign = "" if tips[start] >= 0.0 else "-"
        numbers = f"{sign}1 × {put_in(way.shown(abs(tips[start])))} {way.unit}"
        yield Step(f"Stress where {name} starts", f"σ_{NAMES[start]} = ±σ", numbers, way.shown(tips[start]), way.unit)
    else:
        start = 1 if link.rises else 0
        tip = float((loops.lowest if link.rises else loops.highest)[link.on])
        far = float((cycles.minimum if link.rises else cycles.maximum)[link.on])
        half = 0.5 * abs(tips[start] - tip)
        yield from way.solved(0.5 * abs(own[start] - far), half, f"Half of the branch to where {name} starts")
        yield way.moved(tip, half, up=link.rises, title=f"Stress where {name} starts", symbol=f"σ_{NAMES[start]}")
    if needed is not None and needed == (start == 0):  # the next one hangs on the tip where this one starts
        return
    half = 0.5 * (tips[1] - tips[0])
    yield from way.solved(0.5 * (own[1] - own[0]), half, f"Half of the range of {name}")
    symbol = f"σ_{NAMES[1 - start]}"
    yield way.moved(tips[start], half, up=start == 0, title=f"Stress at the other tip of {name}", symbol=symbol)


def _strain_step(way: _Way, half: float, strain: float) -> Step:
    curve, unit = way.method.cyclic, way.unit
    e, k = (put_in(way.shown(one)) for one in (curve.youngs_modulus, curve.cyclic_strength_coefficient))
    a = put_in(way.shown(half))
    return Step(
        "Strain amplitude of the loop",
        "ε_a = σ_a / E + (σ_a / K')^(1 / n')",
        f"{a} {unit} / {e} {unit} + ({a} {unit} / {k} {unit})^(1 / {put_in(curve.cyclic_hardening_exponent)})",
        strain,
        "",
        "Ramberg and Osgood 1943",
    )
