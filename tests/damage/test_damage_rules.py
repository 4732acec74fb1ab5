"""Damage below the knee, damage that depends on the order, and when in the history it is done."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.damage.spots import CURVE, SMOOTH, mixed, one_block, sampled, spot
from tests.materials.curves import table
from vivid_anvil.damage import (
    assess_life,
    damage_curve,
    damage_curve_blocks,
    double_linear_blocks,
    double_linear_phases,
    double_linear_remaining,
    life_working,
    power_rule,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import BELOW_KNEE, consistent_damage, curve_below_knee, knee_curve

LIMITED = knee_curve(**SMOOTH | {"slope_below": math.inf})


@pytest.mark.parametrize(
    ("choice", "below"),
    [("as the curve says", 11.0), ("no damage", "no damage"), ("continued", 6.0), ("2m-1", 11.0), ("2m-2", 10.0)],
)
def test_each_choice_sets_the_slope_below_the_knee(choice, below):
    assert curve_below_knee(CURVE, choice).below == below
    life = assess_life(spot(CURVE, below_knee=choice), one_block(120.0, 0.0))
    exact = 0.0 if below == "no damage" else 1e4 / 2e6 * (120.0 / 180.0) ** below
    assert life.damage_per_repeat == pytest.approx(exact, rel=1e-9)


cycles = st.lists(st.tuples(st.floats(20.0, 400.0), st.floats(1.0, 1e5)), min_size=1, max_size=8)


@pytest.mark.slow
@given(cycles)
def test_the_consistent_rule_lies_between_no_damage_and_the_slope_continued(rows):
    stress, often = (np.array(column) for column in zip(*rows, strict=True))
    least = LIMITED.damage_of(2.0 * stress, often)
    most = curve_below_knee(CURVE, "continued").damage_of(2.0 * stress, often)
    found = float(consistent_damage(stress, often, LIMITED).sum())
    if least == 0.0:
        assert found == 0.0
    else:
        assert least * (1.0 - 1e-12) <= found <= most * (1.0 + 1e-12)


@pytest.mark.slow
def test_the_consistent_rule_is_the_sum_of_small_steps():
    stress, often = np.array([250.0, 170.0, 120.0, 60.0]), np.array([100.0, 3e3, 2e4, 1e6])
    damage, repeats, step = 0.0, 0.0, 1e-5
    while damage < 1.0 - 1e-12:
        limit = 180.0 * (1.0 - damage) ** (1.0 / 5.0)  # slope 6: q = 5
        counts = stress >= limit
        rate = float((often * (stress / 180.0) ** 6 / 2e6)[counts].sum())
        damage, repeats = damage + step, repeats + step / rate
    found = 1.0 / float(consistent_damage(stress, often, LIMITED).sum())
    assert found == pytest.approx(repeats, rel=1e-3)


def test_a_hot_spot_takes_the_consistent_rule_with_reserve_and_working():
    place = spot(LIMITED, below_knee="consistent")
    duty = mixed(250.0, 100.0, 150.0, 1e5)
    life = assess_life(place, duty, target=20.0)
    used = [float(life.spectrum.damage(life.reserve_on_stress * (1 + e)).sum()) * 20.0 for e in (-1e-6, 1e-6)]
    assert used[0] <= 1.0 <= used[1]
    steps = life_working(life).steps
    assert any("falling limit" in step.title for step in steps)
    for step in steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-5), step.title
    assert "limit-fades" not in [finding.code for finding in life.findings]


def test_a_curve_without_a_straight_end_has_no_slope_to_continue():
    for curve in (table("hold", "hold", "semi-log"), table("hold", "hold", "linear")):
        with pytest.raises(InputError, match="a straight line in log S, log N"):
            curve_below_knee(curve, "2m-1")
        assert curve_below_knee(curve, "as the curve says") is curve
    with pytest.raises(InputError, match="one of 'as the curve says'"):
        assess_life(spot(below_knee="haibach"), one_block(120.0, 0.0))
    assert len(BELOW_KNEE) == 6


# ---- order ---------------------------------------------------------------------------------------------------------

fractions = st.floats(0.01, 0.9)


@given(fractions, fractions)
def test_equal_levels_give_the_linear_sum(one, two):
    assert damage_curve([one, two], [1e4, 1e4])[-1] == pytest.approx(one + two)
    assert power_rule([one, two], [1.0, 1.0])[-1] == pytest.approx(one + two)
    assert double_linear_blocks([10.0], [1e4]) == pytest.approx(1e3)


@given(fractions, st.floats(1.5, 100.0))
def test_high_before_low_leaves_less_than_the_linear_rule_and_low_before_high_more(used, ratio):
    high_first = 1.0 - damage_curve([used, 0.0], [1e3, 1e3 * ratio])[1]
    low_first = 1.0 - damage_curve([used, 0.0], [1e3 * ratio, 1e3])[1]
    assert high_first <= 1.0 - used <= low_first
    two_lines = double_linear_remaining(used, 1e3, 1e3 * ratio)
    assert two_lines <= 1.0 - used + 1e-9


@given(st.lists(st.floats(1e2, 1e7), min_size=1, max_size=5))
def test_the_two_phases_make_up_the_life(lives):
    phases = double_linear_phases(lives)
    assert phases.first + phases.second == pytest.approx(np.array(lives))
    assert (phases.first > 0.0).all()
    assert (phases.second > 0.0).all()


def test_blocks_of_the_damage_curve_end_within_a_block():
    assert damage_curve_blocks([250.0], [1e3]) == pytest.approx(4.0)
    assert damage_curve_blocks([1.0, 5.0], [math.inf, math.inf]) == math.inf
    finely = damage_curve_blocks([1.0, 100.0], [1e3, 1e5])
    by_lines = double_linear_blocks([1.0, 100.0], [1e3, 1e5])
    assert finely < 500.0  # the linear rule
    assert finely == pytest.approx(by_lines, rel=0.35)


@pytest.mark.parametrize(
    "call",
    [
        lambda: power_rule([0.1], [1.0, 2.0]),
        lambda: power_rule([0.1], [0.0]),
        lambda: damage_curve([0.1], [0.0]),
        lambda: double_linear_phases([-1.0]),
    ],
)
def test_levels_that_cannot_be_meant_are_refused(call):
    with pytest.raises(InputError, match=r"nonlinear damage|power rule|double linear|damage curve"):
        call()


# ---- when ----------------------------------------------------------------------------------------------------------


@pytest.mark.slow
def test_the_damage_over_time_ends_at_the_damage_of_the_event(demo_result):
    weld = demo_result.lives[0]
    built = weld.damage_over_time("loaded lap")
    assert built.damage[-1] == pytest.approx(weld.events[0].damage, rel=1e-9)
    assert (np.diff(built.time) >= 0.0).all()
    assert (np.diff(built.damage) >= 0.0).all()
    assert built.share_until(0.0) <= built.share_until(240.0) <= built.share_until(480.0) == 1.0
    with pytest.raises(InputError, match="Did you mean 'loaded lap'"):
        weld.damage_over_time("loaded")


def test_the_worst_cycles_have_their_times():
    life = assess_life(spot(), sampled([0.0, 200.0, -150.0, 100.0, 0.0], rate=2.0))
    worst = life.worst_cycles()
    assert worst[0].range == 350.0
    assert (worst[0].start, worst[0].end) == (0.5, 1.0)
    assert sum(one.share for one in worst) == pytest.approx(1.0)
    block = assess_life(spot(), one_block(200.0, 0.0))
    assert block.worst_cycles()[0].start is None
    with pytest.raises(InputError, match="an event with a history"):
        block.damage_over_time("block")
    assert assess_life(spot(LIMITED), one_block(100.0, 0.0)).worst_cycles() == ()


def test_static_reserves_and_the_equivalent_stress():
    life = assess_life(spot(), one_block(150.0, 60.0), target=5.0)
    assert life.static_reserves == {"yield": pytest.approx(2.0), "ultimate": pytest.approx(700.0 / 210.0)}
    assert life.damage_equivalent_stress(5e4) == pytest.approx(150.0)  # 5 repeats of 1e4 cycles
    assert assess_life(spot(LIMITED), one_block(100.0, 0.0)).damage_equivalent_stress(1e6) == 0.0
    with pytest.raises(InputError, match="cycles above 0"):
        life.damage_equivalent_stress(0.0)


def test_the_matrix_and_the_frame_hold_all_damage_and_all_cycles(demo_result):
    for life in demo_result.lives:
        matrix = life.damage_matrix(12)
        assert matrix.damage.sum() == pytest.approx(life.damage_per_repeat, rel=1e-9)
        assert matrix.cycles.sum() == pytest.approx(float(life.spectrum.per_repeat.sum()), rel=1e-9)
        frame = life.to_frame()
        assert frame["damage per repeat"].sum() == pytest.approx(life.damage_per_repeat, rel=1e-9)
        by_event = frame.groupby("event")["damage per repeat"].sum()
        assert by_event["loaded lap"] == pytest.approx(life.events[0].damage, rel=1e-9)
    lives = demo_result.to_frame()
    assert lives["life [years]"].tolist() == [one.life_years for one in demo_result.lives]
