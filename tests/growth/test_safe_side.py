"""What must not pass in silence in crack growth: laws beyond their R, the cycle that breaks the crack, a size of one's own."""

import dataclasses

import numpy as np
import pytest

from tests.spots import hot_spot
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, block_programme
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import Crack, grow_crack
from vivid_anvil.growth.fracture_cycle import CyclePlace, breaking_cycle, cycles_until
from vivid_anvil.materials import EffectiveRangeLaw, Material, ParisLaw
from vivid_anvil.shapes import EdgeCrack, SurfaceCrack

STEEL = Material(name="steel", yield_strength="355 MPa", ultimate_strength="510 MPa", toughness="60 MPa√m")
SPOT = hot_spot(name="toe", channel="stress", stress_per_load=1.0, material=STEEL)
PARIS = ParisLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3.0)
ELBER = EffectiveRangeLaw(name="closure", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3.0)
EDGE = Crack(hot_spot=SPOT, shape=EdgeCrack("60 mm"), initial_size="2 mm", law=PARIS)


def equal(high, low, cycles=1000.0):
    return DutyCycle(
        "day", [Event("pull", ConstantAmplitude("stress", high, low, cycles, "stress"))], repeats_per_year=250
    )


def codes(result):
    return {one.code: one.severity for one in result.findings}


def test_a_law_of_the_effective_range_is_no_good_in_deep_compression():
    whole = dataclasses.replace(EDGE, law=ELBER, counted_part="full")
    assert codes(grow_crack(whole, equal(100.0, -100.0)))["law-beyond-r"] == "severe"
    assert "law-beyond-r" not in codes(grow_crack(whole, equal(100.0, 0.0)))
    tested = dataclasses.replace(ELBER, valid_r=(-1.0, 0.7))
    assert "law-beyond-r" not in codes(grow_crack(dataclasses.replace(whole, law=tested), equal(100.0, -100.0)))
    with pytest.raises(InputError, match="never tested"):
        grow_crack(dataclasses.replace(whole, beyond_validity="refuse"), equal(100.0, -100.0))
    for bad in ((0.5, 0.1), (0.0, 2.0), 0.3, "any"):
        with pytest.raises(InputError, match="valid_r"):
            dataclasses.replace(ELBER, valid_r=bad)


@pytest.mark.slow
@pytest.mark.parametrize("shape", [EdgeCrack("60 mm"), SurfaceCrack(thickness="20 mm", plate_width="200 mm")])
def test_the_crack_breaks_in_a_cycle_that_can_break_it(shape):
    """Four hundred small cycles to one large one, which alone reaches the toughness at the limiting size."""
    blocks = block_programme("stress", {"maximum": [80.0, 200.0], "minimum": [0.0, 0.0], "cycles": [400, 1]}, "MPa")
    small = ConstantAmplitude("stress", 80.0, 0.0, 400.0, "stress")
    large = ConstantAmplitude("stress", 200.0, 0.0, 1.0, "stress")
    half = {} if isinstance(shape, EdgeCrack) else {"initial_half_length": "5 mm"}
    crack = dataclasses.replace(EDGE, shape=shape, order="cycle by cycle", **half)
    apart = DutyCycle("day", [Event("small", small), Event("large", large)], repeats_per_year=250)
    found = grow_crack(crack, apart)
    assert found.stopped_in.split(", ")[1].startswith("large ")
    assert found.life_repeats == pytest.approx(np.ceil(found.life_repeats), abs=1e-9)  # the last cycle of its day
    together = grow_crack(crack, DutyCycle("day", [Event("block", blocks)], repeats_per_year=250))
    assert together.cycles == found.cycles
    per_repeat = grow_crack(dataclasses.replace(crack, order="per repeat"), apart)
    assert found.life_repeats == pytest.approx(per_repeat.life_repeats, abs=1.5)


def test_the_next_large_cycle_is_looked_for_in_this_pass_and_the_next():
    rows = np.array([[80.0, 0.0, 1.0], [200.0, 0.0, 1.0], [90.0, 0.0, 1.0]])
    pieces = np.array([[0.0, 3.0, 2.0, 1.0, 0.0]])
    first = CyclePlace(4, 0, 0, 0)
    assert breaking_cycle(rows, pieces, first, 200.0) == (4, 0, 0, 1)
    assert breaking_cycle(rows, pieces, CyclePlace(4, 0, 0, 2), 200.0) == (4, 0, 1, 1)
    assert breaking_cycle(rows, pieces, CyclePlace(4, 0, 1, 2), 200.0) == (5, 0, 0, 1)
    assert breaking_cycle(rows, pieces, first, 300.0) == first
    assert cycles_until(pieces, CyclePlace(4, 0, 1, 1)) == (5, 6)
    rare = np.array([[0.0, 1.0, 1.0, 1.0, 0.0], [1.0, 2.0, 0.01, 1.0, 1.0]])  # not waited for
    assert breaking_cycle(rows, rare, CyclePlace(4, 0, 0, 0), 200.0) == (4, 0, 0, 0)


@pytest.mark.slow
@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
def test_a_size_of_ones_own_holds_beyond_the_wall(order):
    plate = SurfaceCrack(thickness="6 mm", plate_width="400 mm")
    crack = dataclasses.replace(EDGE, shape=plate, initial_half_length="4 mm", order=order, stop_size="25 mm")
    tough = dataclasses.replace(
        crack, hot_spot=dataclasses.replace(SPOT, material=dataclasses.replace(STEEL, toughness=9e3))
    )
    found = grow_crack(tough, equal(60.0, 0.0, 2000.0))
    assert len(found.stages) == 2
    assert found.governed_by == "chosen size"
    assert found.stages[-1].final_size == pytest.approx(25.0, rel=1e-3)
    shorter = grow_crack(dataclasses.replace(tough, stop_size="7 mm"), equal(60.0, 0.0, 2000.0))
    assert (len(shorter.stages), shorter.stopped_by) == (1, "wall")


def test_residual_stress_under_the_assessment_curve_makes_the_crack_smaller():
    residual = [("0 mm", "150 MPa"), ("60 mm", "150 MPa")]
    crack = dataclasses.replace(EDGE, limits="assessment curve", residual_stress=residual)
    found = grow_crack(crack, equal(120.0, 0.0))
    assert codes(found)["interaction"] == "note"
    from vivid_anvil.growth import limits as critical

    kept = critical._interaction
    try:
        critical._interaction = lambda chi, ratio: 0.0
        without = grow_crack(crack, equal(120.0, 0.0))
    finally:
        critical._interaction = kept
    assert 0.85 < found.critical.limiting / without.critical.limiting < 0.97
