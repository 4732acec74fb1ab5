"""Growth cycle by cycle against the same written down in plain Python, without grids, weights or anchors."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.growth.plain_loops import LAWS, PLATE, SURFACE, by_hand, two_by_hand, wheeler, willenborg
from vivid_anvil import growth as gr
from vivid_anvil import shapes as sh
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.memories.retardation import plastic_zone
from vivid_anvil.materials import TableLaw
from vivid_anvil.shapes import solutions

ROWS = st.lists(
    st.tuples(st.floats(40.0, 150.0), st.floats(1.0, 120.0)).map(lambda pair: (pair[0], pair[0] - pair[1])),
    min_size=1,
    max_size=12,
)


@pytest.mark.slow
@settings(max_examples=25)
@given(ROWS, st.sampled_from(list(LAWS)), st.sampled_from(["tensile", "full"]))
def test_each_cycle_grows_from_where_the_last_one_left(rows, name, counted):
    found = gr.grow_by_cycle(rows, PLATE, LAWS[name], 8.0, passes=40, counted_part=counted)
    assert found.size == pytest.approx(by_hand(rows, LAWS[name], 8.0, 40, counted), rel=1e-9)
    assert found.cycles == 40 * len(rows)
    assert found.sizes.size == 41
    assert (np.diff(found.sizes[:, 0]) >= 0.0).all()


@settings(max_examples=15)
@given(ROWS, st.sampled_from(["paris", "walker", "two-stage"]))
def test_both_sizes_grow_from_where_the_last_cycle_left_them(rows, name):
    law, a, c = LAWS[name], 2.0, 5.0
    for _ in range(40):
        for high, low in rows:
            floor = max(low, 0.0)
            ends = SURFACE.factors(a, c)
            grown = [float(law.growth(y * (high - floor) * math.sqrt(math.pi * a), floor / high)) for y in ends]
            a, c = a + grown[0], c + grown[1]
    table = np.array([[high, max(low, 0.0), 1.0] for high, low in rows])
    found = gr.grow_by_cycle(table, SURFACE, law, (2.0, 5.0), passes=40, pieces=np.array([[0.0, len(rows), 1.0, 1.0]]))
    assert tuple(found.sizes[-1]) == pytest.approx((a, c), rel=2e-6)
    assert found.cycles == 40 * len(rows)


@pytest.mark.slow
@pytest.mark.parametrize("name", ["paris", "walker"])
def test_memory_is_that_of_the_model_written_out(name):
    rng = np.random.default_rng(4)
    high = np.where(rng.random(3000) < 0.02, 190.0, rng.uniform(60.0, 110.0, 3000))
    rows = np.column_stack([high, high * rng.uniform(0.0, 0.5, 3000)])
    law = LAWS[name]
    slow = gr.Wheeler(yield_strength=350.0, exponent=1.3)
    found = gr.grow_by_cycle(rows, PLATE, law, 9.0, retardation=slow)
    assert found.size == pytest.approx(wheeler(rows, law, 9.0, 350.0, 1.3), rel=1e-7)
    lower = gr.Willenborg(yield_strength=350.0, shut_off=2.5)
    found = gr.grow_by_cycle(rows, PLATE, law, 9.0, retardation=lower)
    assert found.size == pytest.approx(willenborg(rows, law, 9.0, 350.0, 2.5), rel=1e-7)
    assert plastic_zone(slow, 700.0) == pytest.approx((700.0 / 350.0) ** 2 / (3.0 * math.pi))


@pytest.mark.parametrize("shape", [PLATE, SURFACE], ids=["one size", "two sizes"])
@pytest.mark.parametrize("how", [None, gr.Wheeler(yield_strength=350.0, exponent=1.3)], ids=["no memory", "memory"])
def test_coming_back_now_and_then_to_be_interrupted_changes_nothing(shape, how, monkeypatch):
    rows = [[150.0, 10.0, 40.0], [90.0, 0.0, 300.0]]
    start = 8.0 if shape is PLATE else (2.0, 5.0)
    found = []
    for most in (3e7, 5.0):
        monkeypatch.setattr("vivid_anvil.growth.by_cycle.MOST_AT_ONCE", most)
        found.append(gr.grow_by_cycle(rows, shape, LAWS["paris"], start, passes=200, retardation=how))
    assert np.array_equal(found[0].sizes, found[1].sizes)
    assert np.array_equal(found[0].passes, found[1].passes)
    assert (found[0].cycles, found[0].ended_by) == (found[1].cycles, found[1].ended_by)


def test_closure_of_the_spectrum_counts_what_lies_above_the_opening_stress():
    rows = np.array([[120.0, 0.0], [80.0, 5.0], [30.0, 10.0]])
    closed = gr.ConstantClosure()
    opening = closed.opening_stress(rows)
    assert 0.2 * 120.0 < opening < 0.4 * 120.0
    counted = [(max(high, opening), max(low, opening)) for high, low in rows]
    found = gr.grow_by_cycle(rows, PLATE, LAWS["paris"], 9.0, passes=30, retardation=closed)
    assert found.size == pytest.approx(by_hand(counted, LAWS["paris"], 9.0, 30), rel=1e-9)


@pytest.mark.slow
@given(st.lists(st.tuples(st.integers(1, 5), st.floats(0.05, 3.0), st.integers(1, 4)), min_size=1, max_size=4))
def test_pieces_are_the_same_as_their_rows_written_out(parts):
    rows = np.array([[100.0, 10.0], [140.0, 0.0], [70.0, -20.0], [90.0, 30.0], [120.0, 60.0]])
    pieces = [[0, last, often, times] for last, often, times in parts]
    passes, written = 12, []
    for n in range(passes):
        for _, last, often, times in pieces:
            happens = math.floor((n + 1) * often + 1e-9) - math.floor(n * often + 1e-9)
            written += rows[:last].tolist() * (happens * times)
    found = gr.grow_by_cycle(rows, PLATE, LAWS["paris"], 8.0, passes=passes, pieces=pieces)
    assert found.cycles == len(written)
    if written:
        assert found.size == pytest.approx(gr.grow_by_cycle(written, PLATE, LAWS["paris"], 8.0).size, rel=1e-12)


def test_a_count_is_as_many_cycles_at_once_and_the_stop_is_told():
    law = LAWS["paris"]
    counted = gr.grow_by_cycle([[100.0, 0.0, 5.0]], PLATE, law, 8.0)
    assert counted.size - 8.0 == pytest.approx(5.0 * (by_hand([(100.0, 0.0)], law, 8.0, 1) - 8.0), rel=1e-9)
    found = gr.grow_by_cycle([[100.0, 0.0], [150.0, 0.0]], PLATE, law, 8.0, passes=10_000, stop=8.5)
    n, _, _, row = found.stopped_at
    assert found.size == 8.5
    assert found.cycles == 2 * n + row + 1
    assert (
        by_hand([(100.0, 0.0), (150.0, 0.0)], law, 8.0, n)
        < 8.5
        <= by_hand([(100.0, 0.0), (150.0, 0.0)], law, 8.0, n + 1)
    )


BAD_ROWS = {
    "no rows": ([], "rows"),
    "one column": ([[1.0], [2.0]], "rows"),
    "upside down": ([[100.0, 0.0], [10.0, 20.0]], "row 2"),
    "not a number": ([[100.0, math.nan]], "row 1"),
    "endless": ([[math.inf, 0.0]], "row 1"),
    "endless count": ([[100.0, 0.0, math.inf]], "row 1"),
}


@pytest.mark.parametrize(("rows", "message"), BAD_ROWS.values(), ids=BAD_ROWS)
def test_rows_that_are_no_cycles_are_named(rows, message):
    with pytest.raises(InputError, match=message):
        gr.grow_by_cycle(rows, PLATE, LAWS["paris"], 8.0)


BAD_WISHES = {
    "start of 0": ({"start": 0.0}, "above 0"),
    "start beyond": ({"start": 80.0}, "below 48 mm"),
    "stop before": ({"start": 8.0, "stop": 7.0}, "below 7 mm"),
}


@pytest.mark.parametrize(("wishes", "message"), BAD_WISHES.values(), ids=BAD_WISHES)
def test_a_start_outside_the_shape_is_refused(wishes, message):
    with pytest.raises(InputError, match=message):
        gr.grow_by_cycle([[100.0, 0.0]], PLATE, LAWS["paris"], **wishes)


MEMORIES = {
    "exponent": ({"kind": "wheeler", "yield_strength": 350.0, "exponent": -1.0}, "at least 0"),
    "shut-off": ({"kind": "willenborg", "yield_strength": 350.0, "shut_off": 1.0}, "above 1"),
    "constraint": ({"kind": "wheeler", "yield_strength": 350.0, "constraint": "none"}, "plane strain"),
}


@pytest.mark.parametrize(("values", "message"), MEMORIES.values(), ids=MEMORIES)
def test_a_memory_that_makes_no_sense_is_refused(values, message):
    with pytest.raises(InputError, match=message):
        gr.RETARDATIONS[values.pop("kind")](**values)


def test_a_memory_without_a_yield_strength_is_refused_where_it_is_used():
    with pytest.raises(InputError, match="yield strength"):
        gr.grow_by_cycle([[100.0, 0.0]], PLATE, LAWS["paris"], 5.0, retardation=gr.Wheeler())
    with pytest.raises(InputError, match="Did you mean 'wheeler'"):
        gr.RETARDATIONS["wheler"]


def test_a_table_that_ends_before_the_load_is_an_error():
    law = TableLaw(name="short", points=[(100.0, 1e-6), (300.0, 1e-5)])
    with pytest.raises(InputError, match="nothing is extrapolated"):
        gr.grow_by_cycle([[100.0, 0.0]], PLATE, law, 8.0)


@pytest.mark.slow
def test_both_ends_of_a_crack_remember_larger_cycles_each_in_its_own_zone():
    rng = np.random.default_rng(8)
    high = np.where(rng.random(2500) < 0.02, 230.0, rng.uniform(90.0, 140.0, 2500))
    rows = np.column_stack([high, high * rng.uniform(0.0, 0.5, 2500)])
    memory = gr.Wheeler(yield_strength=350.0, exponent=1.2)
    table, piece = np.column_stack([rows, np.ones(2500)]), np.array([[0.0, 2500.0, 1.0, 1.0]])
    found = gr.grow_by_cycle(table, SURFACE, LAWS["walker"], (2.0, 5.0), passes=1, pieces=piece, retardation=memory)
    a, c = two_by_hand(rows, LAWS["walker"], 2.0, 5.0, memory)
    assert tuple(found.sizes[-1]) == pytest.approx((a, c), rel=3e-6)
    plain = gr.grow_by_cycle(table, SURFACE, LAWS["walker"], (2.0, 5.0), passes=1, pieces=piece)
    assert plain.size - 2.0 > 1.3 * (a - 2.0)
    assert 0.0 <= plain.error < 1e-6
    free = gr.Wheeler(yield_strength=350.0, exponent=0.0)
    none = gr.grow_by_cycle(table, SURFACE, LAWS["walker"], (2.0, 5.0), passes=1, pieces=piece, retardation=free)
    assert none.size == pytest.approx(plain.size, rel=1e-7)


@pytest.mark.parametrize("kind", ["none", "wheeler", "willenborg"])
def test_a_run_that_is_cut_in_two_goes_on_with_its_memory_and_its_rare_events(kind):
    rows = np.array([[200.0, 0.0], [100.0, 10.0], [90.0, 20.0], [120.0, 40.0]])
    pieces = [[0, 1, 0.15, 1], [1, 4, 2, 5]]
    memory = None if kind == "none" else gr.RETARDATIONS[kind](yield_strength=350.0)
    ways = {"pieces": pieces, "retardation": memory}
    whole = gr.grow_by_cycle(rows, PLATE, LAWS["paris"], 8.0, passes=200, **ways)
    first = gr.grow_by_cycle(rows, PLATE, LAWS["paris"], 8.0, passes=77, **ways)
    rest = gr.grow_by_cycle(rows, PLATE, LAWS["paris"], first.size, passes=123, begun=77, memory=first.memory, **ways)
    assert rest.size == pytest.approx(whole.size, rel=1e-9)
    assert first.cycles + rest.cycles == whole.cycles
    table, parts = np.column_stack([rows, np.ones(4)]), np.array(pieces, dtype=float)
    if kind != "none":
        go_on = {"retardation": memory}
        whole = gr.grow_by_cycle(table, SURFACE, LAWS["paris"], (2.0, 5.0), passes=200, pieces=parts, **go_on)
        first = gr.grow_by_cycle(table, SURFACE, LAWS["paris"], (2.0, 5.0), passes=77, pieces=parts, **go_on)
        go_on = {"begun": 77, "memory": first.memory, **go_on}
        rest = gr.grow_by_cycle(table, SURFACE, LAWS["paris"], first.sizes[-1], passes=123, pieces=parts, **go_on)
        assert rest.size == pytest.approx(whole.size, rel=1e-7)


def test_k_that_is_always_there_moves_both_ends_of_a_cycle():
    """Each cycle with the face of the law: K of the residual stress added to largest and smallest K."""
    profile = solutions.StressProfile([(0.0, 60.0), (20.0, -80.0), (120.0, 0.0)])
    plate, law, size = sh.EdgeCrack(120.0), LAWS["walker"], 8.0
    rows = [(110.0, -30.0), (60.0, 10.0), (90.0, 70.0)] * 40
    for high, low in rows:
        scale, there = float(sh.stress_intensity(plate, size, 1.0)), float(plate.k_of_stress(profile, size))
        top, bottom = scale * high + there, max(scale * low + there, 0.0)
        if top > bottom:
            size += float(law.growth(top - bottom, bottom / top, size))
    found = gr.grow_by_cycle(rows, plate, law, 8.0, stop=50.0, always=lambda a: plate.k_of_stress(profile, a))
    assert found.size == pytest.approx(size, rel=1e-8)
