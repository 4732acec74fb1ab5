"""Matrices, exceedance, gate and the other counts: what must hold for any history."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.counting.random_histories import histories, variation
from tests.reference_values import summed
from vivid_anvil.counting import (
    CLASS_VALUES,
    MATRICES,
    CycleMatrix,
    Cycles,
    binning_effect,
    binning_findings,
    classes_of_exceedance,
    cycle_matrix,
    exceedance,
    gate,
    level_crossings,
    peaks,
    rainflow,
    range_pair,
    simple_range,
    time_at_level,
)
from vivid_anvil.ground.errors import InputError


@pytest.mark.slow
@given(histories, st.sampled_from(sorted(MATRICES)), st.integers(1, 40), st.sampled_from(sorted(CLASS_VALUES)))
def test_a_matrix_keeps_every_cycle_near_its_class(history, kind, classes, class_value):
    cycles = rainflow(history)
    if not len(cycles):
        with pytest.raises(InputError, match="no cycles"):
            cycle_matrix(cycles, kind, classes=classes, samples=history)
        return
    matrix = cycle_matrix(cycles, kind, classes=classes, samples=history)
    assert matrix.total == pytest.approx(cycles.total)
    back = matrix.cycles(class_value)
    assert back.total == pytest.approx(cycles.total)
    step = float(np.diff(matrix.row_edges)[0] + np.diff(matrix.column_edges)[0])
    assert abs(back.range.max() - cycles.range.max()) <= step
    if class_value == "upper" and kind != "from-to":
        assert (back.count * back.range).sum() >= (cycles.count * cycles.range).sum() * (1 - 1e-9)


@pytest.mark.slow
@given(histories)
def test_uneven_edges_give_the_matrix_of_numpy(history):
    cycles = rainflow(history)
    edges = np.array([-2001.0, -7.3, -1.1, 0.2, 3.3, 2500.0])
    if len(cycles):
        ours = cycle_matrix(cycles, "maximum-minimum", row_edges=edges).counts
        theirs, _, _ = np.histogram2d(cycles.maximum, cycles.minimum, bins=[edges, edges], weights=cycles.count)
        assert ours.tolist() == theirs.tolist()
        even = np.linspace(-2048.0, 4096.0, 7)
        fast = cycle_matrix(cycles, "maximum-minimum", row_edges=even).counts
        theirs, _, _ = np.histogram2d(cycles.maximum, cycles.minimum, bins=[even, even], weights=cycles.count)
        assert fast.tolist() == theirs.tolist()


def test_fine_classes_hardly_move_the_damage_and_coarse_ones_are_found():
    cycles = rainflow(np.random.default_rng(3).standard_normal(20_000))
    fine, coarse = (cycle_matrix(cycles, "range-mean", classes=classes) for classes in (256, 8))
    assert abs(binning_effect(cycles, fine, 5.0)) < 0.01
    assert binning_findings(cycles, fine, 5.0) == ()
    assert binning_findings(cycles, coarse, 5.0)[0].code == "bins-too-coarse"
    assert binning_effect(cycles, coarse, 5.0, "upper") > binning_effect(cycles, coarse, 5.0) > 0.0


ONE = {"range": [1.0], "mean": [0.0], "count": [1.0]}


@pytest.mark.parametrize(
    ("call", "message"),
    [
        (lambda: cycle_matrix(Cycles(**ONE), "range-mean"), "neither edges nor"),
        (lambda: cycle_matrix(Cycles(**ONE), "range-means", classes=3), "Did you mean 'range-mean'"),
        (lambda: cycle_matrix(Cycles(**ONE), "range-mean", classes=0), "classes: found 0"),
        (lambda: cycle_matrix(Cycles(**ONE), "from-to", classes=3), "no samples"),
        (
            lambda: cycle_matrix(Cycles(**ONE), row_edges=[0, 0.5], column_edges=[-1, 1]),
            "1 of 1 cycles beyond the edges",
        ),
        (lambda: cycle_matrix(Cycles(**ONE), row_edges=[0, 2, 1], column_edges=[-1, 1]), "must not overlap"),
        (lambda: CycleMatrix("range-mean", [0, 1], [0, 1], [[-1.0]]), "counts of 0 or more"),
        (lambda: CycleMatrix("range-mean", [0, 1], [0, 1], [[1.0, 2.0]]), "shape (1, 1)"),
        (lambda: CycleMatrix("range-mean", [0, 1], [0, 1], [[0.0]]).cycles(), "an empty matrix"),
        (lambda: CycleMatrix("range-mean", [0, 1], [0, 1], [[1.0]]).cycles("lower"), "'middle', 'upper'"),
        (lambda: classes_of_exceedance([30.0, 60.0], [1.0, 2.0]), "row 2: found a range of 60"),
        (lambda: classes_of_exceedance([60.0, 30.0], [10.0, 2.0]), "row 2: found 2 cycles"),
        (lambda: classes_of_exceedance([60.0, 30.0], [-1.0, 2.0]), "row 1: found -1 cycles"),
        (lambda: level_crossings([0.0, 1.0], [0.5, 0.4]), "levels in rising order"),
        (lambda: time_at_level([0.0, 1.0], [0.5], 1.0), "two or more"),
        (lambda: gate([0.0, 1.0], 0.0), "gate: found 0"),
        (lambda: gate([0.0, np.nan], 1.0), "sample 1: found nan"),
    ],
)
def test_what_makes_no_sense_is_refused(call, message):
    with pytest.raises(InputError) as caught:
        call()
    assert message in str(caught.value)


@given(histories)
def test_exceedance_and_its_classes_are_inverse(history):
    cycles = rainflow(history)
    curve = exceedance(cycles)
    assert (np.diff(curve.ranges) <= 0).all()
    assert curve.passed[-1:].tolist() == pytest.approx([cycles.total] if len(cycles) else [])
    ranges, last = np.unique(-curve.ranges, return_index=True)
    if ranges.size:
        passed = np.append(curve.passed[last[1:] - 1], curve.passed[-1])
        table = classes_of_exceedance(-ranges, passed)
        assert (table.count * table.range).sum() == pytest.approx((cycles.count * cycles.range).sum(), abs=1e-9)


@given(histories, st.floats(0.1, 20.0))
def test_the_gate_takes_out_small_cycles_and_changes_no_other(history, size):
    gated = gate(history, size)
    whole, left = rainflow(history), rainflow(gated.values)
    assert (gated.removed.range < size).all()
    together = np.sort(np.concatenate([left.range, gated.removed.range]))
    assert together == pytest.approx(np.sort(whole.range))
    assert history[gated.samples].tolist() == gated.values.tolist()
    assert not ((left.count == 1.0) & (left.range < size)).any()
    exact = (gated.removed.range**3).sum() / max((whole.count * whole.range**3).sum(), 1e-300)
    assert gated.share_removed(3.0) == pytest.approx(exact, abs=1e-12)


@pytest.mark.slow
@given(histories)
def test_simple_ranges_and_range_pairs_keep_the_variation(history):
    simple, pairs = simple_range(history), range_pair(history)
    assert (2 * simple.range * simple.count).sum() == pytest.approx(variation(history), abs=1e-9)
    assert pairs.range.max(initial=0.0) <= np.ptp(history) + 1e-9
    full = pairs.chosen(pairs.count == 1.0)
    assert np.abs(history[full.start] - history[full.end]) == pytest.approx(full.range)


@pytest.mark.slow
@given(histories, st.lists(st.floats(-6.4, 6.4), min_size=1, max_size=6, unique=True), st.floats(-5.0, 5.0))
def test_level_crossings_count_samples_on_both_sides(history, levels, reference):
    levels = sorted(levels)
    below = history[:, None] < np.array(levels)
    rising, falling = (below[:-1] & ~below[1:]).sum(axis=0), (~below[:-1] & below[1:]).sum(axis=0)
    expected = np.where(np.array(levels) >= reference, rising, falling)
    assert level_crossings(history, levels, reference).tolist() == expected.tolist()


@pytest.mark.slow
@given(histories)
def test_peaks_and_time_at_level_count_what_is_there(history):
    found = peaks(history, reference=-1e6)
    turning = simple_range(history)
    assert found.peaks.size == max(
        int((np.diff(np.sign(np.diff(history[np.r_[turning.start, turning.end[-1:]]]))) < 0).sum()), 0
    )
    edges = [history.min(), history.max() + 1.0]
    assert time_at_level(history, edges, sample_rate=4.0).tolist() == [history.size / 4.0]


def test_counts_by_range_and_mean_are_those_of_the_cycles():
    assert summed(range_pair([0.0, 10.0, 0.0])) == [[10.0, 5.0, 1.0]]
    assert summed(range_pair([0.0, 10.0])) == [[10.0, 5.0, 0.5]]
