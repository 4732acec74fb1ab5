"""Membrane and bending that do not move in step: K of a cycle is the sum of both, at each size."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass

import numpy as np
import pytest

from tests.growth.plain_loops import LAWS
from vivid_anvil.counting import Cycles
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import (
    Crack,
    Wheeler,
    grow_by_cycle,
    grow_crack,
    growth_drive,
    growth_per_repeat,
    limits_over_load,
)
from vivid_anvil.growth.driving_cycles import BENDING
from vivid_anvil.materials import Material
from vivid_anvil.shapes import EdgeCrack, HoleCrack, SurfaceCrack
from vivid_anvil.stress import HotSpot, OneLoad

PLATE = EdgeCrack(60.0)
SURFACE = SurfaceCrack(thickness=12.0, plate_width=150.0)
STARTS = {"one size": (PLATE, (3.0,), {}), "two sizes": (SURFACE, (1.5, 3.0), {"initial_half_length": 3.0})}
STEEL = Material(name="steel", yield_strength=420.0, toughness=3000.0)
# Largest and smallest membrane stress, count, bending stress at both, MPa: in step, against it, alone, and with the sign turned.
ROWS = np.array(
    [
        [90.0, 10.0, 1.0, 60.0, 5.0],
        [90.0, 10.0, 1.0, -30.0, 40.0],
        [70.0, 0.0, 1.0, 0.0, 0.0],
        [20.0, 5.0, 1.0, 0.0, 90.0],
    ]
)


def k_ends(shape, sizes, row):
    """K at both ends of a cycle, at each end of the crack, written out."""
    root = math.sqrt(math.pi * sizes[0])
    pure, bent = shape.under(0.0).ends(*sizes), shape.under(1.0).ends(*sizes)
    return [
        (root * (m * row[0] + b * row[3]), root * (m * row[1] + b * row[4])) for m, b in zip(pure, bent, strict=True)
    ]


def grown(shape, law, sizes, row):
    found = []
    for one, other in k_ends(shape, sizes, row):
        high, low = max(one, other), max(min(one, other), 0.0)
        found.append(float(law.growth(high - low, low / high)) if high > low else 0.0)
    return found


@pytest.mark.parametrize("kind", STARTS)
@pytest.mark.parametrize("law", ["paris", "walker", "two-stage"])
def test_each_cycle_grows_the_crack_by_the_sum_of_both(kind, law):
    shape, start, _ = STARTS[kind]
    sizes = list(start)
    for _ in range(50):
        for row in ROWS:
            sizes = [size + more for size, more in zip(sizes, grown(shape, LAWS[law], sizes, row), strict=True)]
    found = grow_by_cycle(ROWS, shape, LAWS[law], start, passes=50)
    assert found.sizes[-1] - start == pytest.approx(np.array(sizes) - start, rel=1e-4)


def test_bending_in_a_fixed_share_is_the_crack_with_that_share():
    """With and without memory: 30 % of the outer stress is bending."""
    share = 0.3
    plain = np.column_stack([ROWS[:, :2], np.ones(4)])
    split = np.column_stack([(1.0 - share) * plain[:, :2], np.ones(4), share * plain[:, :2]])
    for kind in STARTS:
        shape, start, _ = STARTS[kind]
        for memory in (None, Wheeler(yield_strength=350.0, exponent=1.0)):
            rest = (LAWS["walker"], start)
            whole = grow_by_cycle(plain, shape.under(share), *rest, passes=40, retardation=memory)
            apart = grow_by_cycle(split, shape, *rest, passes=40, retardation=memory)
            assert apart.sizes[-1] - start == pytest.approx(whole.sizes[-1] - start, rel=1e-6)


@dataclass(frozen=True, repr=False)
class TwoStresses(OneLoad):
    """One channel gives membrane stress, and bending of `bending_ratio` times as much, which a rail turns over in every cycle."""

    bending_ratio: float = 0.0
    turned: bool = False

    def cycles(self, duty_cycle, notch_factor=1.0):
        found = super().cycles(duty_cycle, notch_factor)
        ends = (found.maximum, found.minimum)[:: -1 if self.turned else 1]
        added = dict(zip(BENDING, (self.bending_ratio * one for one in ends), strict=True))
        return dataclasses.replace(found, columns=added)


def crack_of(kind, ratio, *, turned=False, **more):
    shape, (first, *_), half = STARTS[kind]
    relation = TwoStresses("force", "1 MPa/kN", bending_ratio=ratio, turned=turned)
    spot = HotSpot(name="rail", relation=relation, material=STEEL)
    given = {"hot_spot": spot, "shape": shape, "initial_size": first, "law": LAWS["walker"], **half, **more}
    return Crack(**given)


PULL = DutyCycle("day", [Event("pull", ConstantAmplitude.from_range("force", "90 kN", r_ratio=0.1, cycles=50))])


@pytest.mark.parametrize("kind", STARTS)
def test_a_crack_takes_both_from_the_cycles_of_its_hot_spot(kind):
    """In step the life, limits and numbers are those of the share; turned over they are others, and the hand formula's."""
    ratio = 0.5
    found = grow_crack(crack_of(kind, ratio), PULL)
    shape, (first, *_), half = STARTS[kind]
    spot = HotSpot(name="rail", relation=OneLoad("force", f"{1.0 + ratio} MPa/kN"), material=STEEL)
    share = ratio / (1.0 + ratio)
    same = grow_crack(
        Crack(hot_spot=spot, shape=shape.under(share), initial_size=first, law=LAWS["walker"], **half), PULL
    )
    assert found.repeats[-1] == pytest.approx(same.repeats[-1], rel=2e-4)
    assert found.critical.limiting == pytest.approx(same.critical.limiting, rel=1e-6)
    assert found.start_peak_k == pytest.approx(same.start_peak_k, rel=1e-9)
    assert found.start_range_k == pytest.approx(same.start_range_k, rel=1e-9)
    assert limits_over_load(found)[-1].size == pytest.approx(limits_over_load(same)[-1].size, rel=1e-3)
    turned = grow_crack(crack_of(kind, ratio, turned=True), PULL)
    assert turned.repeats[-1] > 1.3 * found.repeats[-1]
    row = [100.0, 10.0, 1.0, ratio * 10.0, ratio * 100.0]
    by_hand = 50.0 * grown(shape, LAWS["walker"], turned.crack.sizes, row)[0]
    assert turned.growth_at(first) == pytest.approx(by_hand, rel=1e-9)


def test_what_has_no_answer_is_refused():
    with pytest.raises(InputError, match="cycle by cycle, with a second stress"):
        grow_crack(crack_of("one size", 0.5, order="cycle by cycle"), PULL)
    drive = growth_drive(Cycles([90.0], [50.0], [1.0], columns={one: np.array([9.0]) for one in BENDING}))
    with pytest.raises(InputError, match=r"hole crack, bending stress.*membrane and bending apart"):
        growth_per_repeat(drive, HoleCrack(radius=5.0, cracks=2), LAWS["paris"])(3.0)
    with pytest.raises(InputError, match="no column bending at the smallest"):
        growth_drive(Cycles([90.0], [50.0], [1.0], columns={BENDING[0]: np.array([9.0])}))
    with pytest.raises(InputError, match=r"shape \(1, 4\)"):
        grow_by_cycle([[90.0, 0.0, 1.0, 5.0]], PLATE, LAWS["paris"], 5.0)
