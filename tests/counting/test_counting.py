"""Counting: invariants over any history, and the one-pass kernel against the rule applied by hand."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from tests.counting.random_histories import histories, variation
from tests.reference_values import summed
from vivid_anvil.counting import (
    RESIDUES,
    Cycles,
    RainflowCounter,
    _kernels,
    four_point,
    joined,
    rainflow,
    turning_points,
)
from vivid_anvil.ground.errors import InputError


def three_point(values):
    """ASTM E1049-85, 5.4.4, step by step on a list of turning points: rows of range, mean, count."""
    left, rows = [], []
    for value in values:
        left.append(value)
        while len(left) >= 3:
            newest, before = abs(left[-1] - left[-2]), abs(left[-2] - left[-3])
            if newest < before:
                break
            pair = (before, 0.5 * (left[-2] + left[-3]))
            if len(left) == 3:
                rows.append((*pair, 0.5))
                left.pop(0)
            else:
                rows.append((*pair, 1.0))
                del left[-3:-1]
    rows += [(abs(b - a), 0.5 * (a + b), 0.5) for a, b in itertools.pairwise(left)]
    return Cycles(*np.array(rows).T) if rows else Cycles([], [], [])


@pytest.mark.slow
@given(histories)
def test_rainflow_is_the_three_point_rule_of_the_standard(history):
    by_hand = three_point(history[turning_points(history)].tolist())
    assert np.array(summed(rainflow(history))) == pytest.approx(np.array(summed(by_hand)))


@given(histories)
def test_each_counted_cycle_takes_twice_its_range_off_the_variation(history):
    half, repeated = rainflow(history), rainflow(history, residue="repeated")
    assert (2 * half.range * half.count).sum() == pytest.approx(variation(history), abs=1e-9)
    assert (2 * repeated.range * repeated.count).sum() == pytest.approx(variation([*history, history[0]]), abs=1e-9)
    assert repeated.range.max(initial=0.0) == pytest.approx(np.ptp(history), abs=1e-12)


@given(histories, st.integers(0, 79))
def test_a_repeated_history_may_start_anywhere(history, shift):
    started_later = np.roll(history, shift)
    assert summed(rainflow(started_later, residue="repeated")) == summed(rainflow(history, residue="repeated"))


@pytest.mark.slow
@given(histories, st.floats(0.1, 10.0), st.floats(-100.0, 100.0))
def test_scaling_the_load_scales_the_cycles(history, factor, offset):
    scaled = rainflow(factor * history + offset)
    linear = rainflow(history).linear(factor, offset, "stress")
    assert np.sort(scaled.range) == pytest.approx(np.sort(linear.range), abs=1e-6)
    mirrored = rainflow(-history)
    assert np.array(summed(mirrored.linear(-1.0, 0.0, "stress"))) == pytest.approx(np.array(summed(rainflow(history))))


@given(histories)
def test_start_and_end_are_the_samples_of_the_turning_points(history):
    for residue in ("half cycles", "repeated"):
        cycles = rainflow(history, residue=residue)
        assert np.abs(history[cycles.start] - history[cycles.end]) == pytest.approx(cycles.range)
        assert 0.5 * (history[cycles.start] + history[cycles.end]) == pytest.approx(cycles.mean)
    timed = rainflow(history, sample_rate=4.0)
    assert timed.start_time.tolist() == (timed.start / 4.0).tolist()
    assert timed.end_time.tolist() == (timed.end / 4.0).tolist()


@given(histories)
def test_turning_points_of_turning_points_are_the_same(history):
    points = history[turning_points(history)]
    assert points[turning_points(points)].tolist() == points.tolist()
    assert variation(points) == pytest.approx(variation(history))


@pytest.mark.slow
@given(histories)
def test_the_compiled_kernels_are_the_plain_ones(history):
    def run(kernel):
        size = history.size + 2
        floats, places = np.zeros((3, size)), np.zeros((3, size), np.int64)
        state = np.array([0, 0, _kernels.NOWHERE, 0])
        done = kernel(history, 7, 0.0, state, floats[0], places[0], floats[1], floats[2], places[1], places[2])
        return [*done, state.tolist(), floats.tolist(), places.tolist()]

    assert run(_kernels.rainflow) == run(_kernels.rainflow.py_func)
    index = np.zeros((2, history.size), np.int64)
    assert _kernels.turning_points(history, index[0]) == _kernels.turning_points.py_func(history, index[1])
    assert index[0].tolist() == index[1].tolist()


@given(histories, st.lists(st.integers(0, 80), max_size=6), st.sampled_from(sorted(RESIDUES)))
def test_counting_in_chunks_is_counting_in_one_piece(history, cuts, residue):
    whole = rainflow(history, residue=residue)
    counter = RainflowCounter()
    pieces = [piece for piece in np.split(history, sorted({min(cut, history.size) for cut in cuts})) if piece.size]
    in_chunks = joined([*(counter.feed(piece) for piece in pieces), counter.finish(residue)])
    for column in ("range", "mean", "count", "start", "end"):
        assert getattr(in_chunks, column).tolist() == getattr(whole, column).tolist()


@pytest.mark.slow
@given(histories)
def test_the_residue_apart_and_the_closed_cycles_make_the_half_cycle_count(history):
    cycles, residue = four_point(history)
    halves = np.abs(np.diff(residue.values))
    assert history[residue.samples].tolist() == residue.values.tolist()
    assert sorted([*cycles.range, *halves]) == pytest.approx(sorted(rainflow(history).range))


def test_two_values_are_half_a_cycle_or_one():
    assert summed(rainflow([1.0, 3.0])) == [[2.0, 2.0, 0.5]]
    assert summed(rainflow([1.0, 3.0], residue="repeated")) == [[2.0, 2.0, 1.0]]


@pytest.mark.parametrize("history", [[5.0], [5.0, 5.0, 5.0]])
def test_a_constant_history_has_no_cycle(history):
    for residue in ("half cycles", "repeated"):
        assert len(rainflow(history, residue=residue)) == 0


@pytest.mark.parametrize(
    ("samples", "found"),
    [
        ([1.0, np.nan, 2.0], "sample 1: found nan"),
        ([1.0, np.inf], "sample 1: found inf"),
        ([], "shape (0,)"),
        ([[1.0, 2.0]], "shape (1, 2)"),
        ([1 + 2j, 0], "complex"),
        (["a", "b"], "type <U1"),
        (np.array([1.0, None], dtype=object), "type object"),
    ],
)
def test_what_is_no_row_of_finite_numbers_is_refused(samples, found):
    with pytest.raises(InputError) as caught:
        rainflow(samples)
    assert found in str(caught.value)


def test_an_unknown_residue_names_the_known_ones():
    with pytest.raises(InputError, match="Did you mean 'repeated'"):
        rainflow([0.0, 1.0], residue="repeat")


def test_cycles_keep_what_they_are_given_and_refuse_nonsense():
    source = np.array([3.0, 1.0])
    cycles = Cycles(range=source, mean=[0.0, 0.0], count=[1.0, 0.5])
    source[0] = 99.0
    assert cycles.range.tolist() == [3.0, 1.0]
    with pytest.raises(ValueError, match="read-only"):
        cycles.range[0] = 1.0
    for bad in ({"range": [-1.0]}, {"count": [np.nan]}, {"mean": [np.inf]}, {"mean": [0.0, 1.0]}, {"start": [1, 2]}):
        with pytest.raises(InputError, match="Cycles"):
            Cycles(**({"range": [1.0], "mean": [0.0], "count": [1.0]} | bad))


@pytest.mark.slow
@given(histories, st.sampled_from([np.nan, np.inf, -np.inf]), st.integers(0, 80))
def test_a_refused_piece_leaves_the_count_as_it_was(history, bad, place):
    spoiled = np.insert(history, min(place, history.size), bad)
    counter = RainflowCounter()
    before = counter.feed(history)
    with pytest.raises(InputError, match="from"):
        counter.feed(spoiled)
    with pytest.raises(InputError, match=f"sample {min(place, history.size)}: found"):
        rainflow(spoiled)
    table = joined([before, counter.finish()])
    assert summed(table) == summed(rainflow(history))


def test_values_beyond_half_of_the_largest_number_have_a_mean_but_perhaps_no_range():
    assert set(rainflow([1.5e308, 1.7e308, 1.5e308, 1.7e308]).mean.tolist()) == {1.6e308}
    with pytest.raises(InputError, match="a range beyond the largest number"):
        rainflow([0.0, 1.7e308, -1.7e308, 1.7e308])


@pytest.mark.slow
@given(
    arrays(np.float64, st.integers(1, 5000), elements=st.integers(-3, 3).map(float)),
    st.lists(st.integers(0, 5000), max_size=6),
)
def test_histories_longer_than_a_block_count_by_the_rule_whole_and_in_pieces_of_any_length(samples, cuts):
    counter = RainflowCounter()
    pieces = np.split(samples, sorted(min(cut, samples.size) for cut in cuts))
    found = joined([*(counter.feed(piece) for piece in pieces if piece.size), counter.finish()])
    whole = rainflow(samples)
    for name in ("range", "mean", "count", "start", "end"):
        assert np.array_equal(getattr(found, name), getattr(whole, name))
    assert summed(whole) == summed(three_point(samples[turning_points(samples)].tolist()))
