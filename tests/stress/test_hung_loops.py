"""Loops and the branches they hang on, against the whole repeat followed sample by sample; and what scaling does to them."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from vivid_anvil.counting import Cycles
from vivid_anvil.events import BETWEEN_EVENTS, BlockProgramme, ConstantAmplitude, DutyCycle, Event, GatedHistory
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding import follow_block
from vivid_anvil.stress.yielding.hung_loops import as_stress, hung_cycles
from vivid_anvil.stress.yielding.tips_of_loops import loops_of

STEEL = CyclicCurve(youngs_modulus=206e3, cyclic_strength_coefficient=1080.0, cyclic_hardening_exponent=0.155)
values = st.lists(st.integers(-40, 40), min_size=2, max_size=12).map(lambda many: 20.0 * np.array(many, dtype=float))
blocks = st.lists(st.tuples(st.integers(-40, 40), st.integers(1, 20), st.integers(1, 3)), min_size=1, max_size=3)


def history(samples):
    return va.LoadHistory("made", (va.Channel("stress", np.asarray(samples, dtype=float), "stress"),), sample_rate=10.0)


def programme(rows):
    low, size, times = (np.array(one, dtype=float) for one in zip(*rows, strict=True))
    return BlockProgramme("stress", 20.0 * (low + size), 20.0 * low, times, "stress")


events = st.lists(
    st.tuples(st.one_of(values.map(history), blocks.map(programme)), st.integers(1, 5)), min_size=1, max_size=3
)


def laid_out(duty):
    """The whole repeat, every turn of it."""
    found = []
    for event in duty.events:
        load = event.load
        if load.parts:
            one = laid_out(load)
        elif load.measured is not None:
            one = load.measured["stress"].values
        else:
            one = np.concatenate([np.tile(step, int(n)) for step, n in load.in_order("stress").steps])
        found += [one] * int(event.occurrences)
    return np.concatenate(found)


def table(ranges, means, times=None):
    """Loops by range and mean stress, with how often."""
    rows = np.round(np.column_stack([ranges, means]), 6)
    kinds, place = np.unique(rows, axis=0, return_inverse=True)
    return kinds, np.bincount(place.ravel(), weights=times, minlength=len(kinds))


def compared(duty):
    cycles = hung_cycles(duty, "stress")
    loops = loops_of(STEEL, cycles, "neuber")
    return table(cycles.range, 0.5 * (loops.highest + loops.lowest), cycles.per_repeat)


def plainly(block):
    way = follow_block(STEEL, block)
    ranges = np.abs(way.drive[way.ends[:, 0]] - way.drive[way.ends[:, 1]])
    return table(ranges, way.mean_stress, np.ones(ranges.size))


@settings(max_examples=150, deadline=None)
@given(parts=events, nested=st.booleans())
def test_a_repeat_in_the_order_given_is_followed_as_if_it_were_laid_out_sample_by_sample(parts, nested):
    made = tuple(Event(f"e{i}", load, times) for i, (load, times) in enumerate(parts))
    how = {"between": "in the order given"}
    duty = DutyCycle("day", made, **how)
    if nested:
        duty = DutyCycle("week", (Event("day", duty, 3), Event("last", history([100.0, 700.0]), 1)), **how)
    for ours, theirs in zip(compared(duty), plainly(laid_out(duty)), strict=True):
        assert ours == pytest.approx(theirs, abs=2e-6)


@settings(max_examples=100, deadline=None)
@given(block=values)
def test_a_history_by_itself_is_followed_as_a_block(block):
    duty = DutyCycle("day", (Event("one", history(block), 7.0),))
    ranges, times = compared(duty)
    theirs, once = plainly(block)
    assert ranges == pytest.approx(theirs, abs=2e-6)
    assert times == pytest.approx(7.0 * once)


@settings(max_examples=60, deadline=None)
@given(block=values, factor=st.sampled_from([-3.0, 0.5, 2.0]), offset=st.sampled_from([-90.0, 0.0, 130.0]))
def test_loops_that_were_found_once_hold_for_loads_that_are_scaled_turned_round_and_moved(block, factor, offset):
    cycles = as_stress(hung_cycles(DutyCycle("day", (Event("one", history(block)),)), "stress"), factor, offset)
    loops = loops_of(STEEL, cycles, "neuber")
    ours = table(cycles.range, 0.5 * (loops.highest + loops.lowest))
    moved = factor * block + offset
    if np.ptp(block) and abs(moved.max() + moved.min()) > 1e-9:  # else it may start at either end
        for one, other in zip(ours, plainly(moved), strict=True):
            assert one == pytest.approx(other, abs=2e-6)


@pytest.mark.parametrize("between", BETWEEN_EVENTS)
def test_the_cycles_are_those_of_rainflow(between):
    lap = history([0.0, 300.0, 100.0, 250.0, -50.0, 400.0, 0.0])
    test = ConstantAmplitude("stress", 500.0, -100.0, 20.0, "stress")
    gated = GatedHistory(history([0.0, 90.0, 80.0, 85.0, -60.0]), {"stress": "12 MPa"})
    duty = DutyCycle("day", (Event("lap", lap, 3), Event("test", test), Event("gated", gated, 2)), between=between)
    own, counted = hung_cycles(duty, "stress"), duty.cycles_of("stress")
    for ours, theirs in zip(
        table(own.range, own.mean, own.per_repeat), table(counted.range, counted.mean, counted.per_repeat), strict=True
    ):
        real = theirs > 0.0 if theirs.ndim == 1 else slice(None)
        assert ours[real] == pytest.approx(theirs[real])
    assert (own.lowest, own.highest) == (counted.lowest, counted.highest)


def test_loops_without_the_ones_that_they_hang_on_are_refused():
    cycles = hung_cycles(DutyCycle("day", (Event("one", history([0.0, 300.0, 100.0, 250.0, -50.0])),)), "stress")
    with pytest.raises(va.InputError, match="all cycles of a repeat together"):
        loops_of(STEEL, cycles.chosen(cycles.range < 200.0), "neuber")


def test_cycles_of_no_history_start_at_their_larger_end():
    loops = loops_of(STEEL, Cycles(range=[900.0], mean=[-200.0], count=[1.0]), "neuber")
    alone = follow_block(STEEL, [-650.0, 250.0])
    assert loops.lowest[0] == pytest.approx(alone.lowest_stress[0])
    assert loops.highest[0] == pytest.approx(alone.highest_stress[0])


@pytest.mark.parametrize("key", [{"residue": "half cycles"}, {"counting": "range-pair"}])
def test_other_counts_are_refused(key):
    duty = DutyCycle("day", (Event("one", history([0.0, 300.0])),), **key)
    with pytest.raises(va.InputError, match="memory of the material"):
        hung_cycles(duty, "stress")
