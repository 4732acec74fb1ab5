"""Lives that know the order of the loads, critical sums, and answers the other way round."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.reference_values import block_event
from tests.spots import hot_spot
from vivid_anvil.damage import CRITICAL_SUMS, ORDER_RULES, assess_life, life_in_order
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material, knee_curve

CURVE = knee_curve(name="bar", stress="amplitude", r_ratio=-1, knee_stress=400.0, knee_life=1e4, slope=8, slope_below=8)


def life(rows, **settings):
    events = [block_event(f"block {i}", *row) for i, row in enumerate(rows)]
    spot = hot_spot(
        name="bar", channel="stress", stress_per_load=1.0, curve=CURVE, material=Material(name="s"), **settings
    )
    return assess_life(spot, DutyCycle("day", events, 250))


def test_high_before_low_and_finely_mixed_by_hand():
    found = life([(400.0, 0.0, 1.0), (200.0, 0.0, 100.0)])
    # N = 1e4 and 2.56e6, (N1/N2)^0.25 = 1/4: phase one takes 0.35/4 of the short and 1 - 0.65/4 of the long life.
    first, second = (875.0, 0.8375 * 2.56e6), (9125.0, 0.1625 * 2.56e6)
    blocks = sum(1.0 / (1.0 / short + 100.0 / long) for short, long in (first, second))
    assert life_in_order(found, "double linear").life_repeats == pytest.approx(blocks, rel=1e-9)
    assert [one.event for one in life_in_order(found, "damage curve").levels] == ["block 0", "block 1"]


@given(st.lists(st.tuples(st.floats(120.0, 500.0), st.just(0.0), st.floats(1.0, 50.0)), min_size=1, max_size=4))
def test_no_rule_is_longer_than_linear_by_more_than_rounding_of_blocks(rows):
    found = life(rows)
    linear = 1.0 / found.damage_per_repeat
    mixed = life_in_order(found, "double linear")
    assert mixed.life_repeats <= linear * (1.0 + 1e-9)
    assert mixed.linear_repeats == pytest.approx(linear)


@pytest.mark.slow
@given(st.floats(250.0, 500.0), st.floats(1.0, 50.0), st.floats(0.3, 4.0))
def test_one_level_and_equal_exponents_give_the_linear_life(amplitude, cycles, power):
    found = life([(amplitude, 0.0, cycles)])
    powers = {"block 0": power}
    for rule, exponents in (("damage curve", None), ("double linear", None), ("power rule", powers)):
        assert life_in_order(found, rule, exponents).life_repeats == pytest.approx(found.life_repeats, rel=1e-6)


def test_a_spot_with_a_rule_of_order_carries_its_life():
    found = life([(400.0, 0.0, 1.0), (200.0, 0.0, 100.0)], order_rule="damage curve")
    assert found.in_order == life_in_order(found, "damage curve")
    assert found.to_dict()["life in order [repeats]"] < found.life_repeats
    assert f"{found.life_years:.4g} years" in found._repr_html_()
    assert life([(1e-9, 0.0, 1.0)], order_rule="double linear").in_order.life_repeats > 1e30


@pytest.mark.parametrize(
    ("settings", "message"),
    [
        ({"order_rule": "damage curb"}, "Did you mean 'damage curve'"),
        ({"order_rule": "power rule"}, "no exponents"),
        ({"order_rule": "double linear", "order_exponents": {"block 0": 2.0}}, "power rule only"),
        ({"order_rule": "power rule", "order_exponents": {"block 0": 0.0}}, "exponent above 0"),
    ],
)
def test_rules_of_order_that_do_not_fit_are_refused(settings, message):
    with pytest.raises(InputError, match=message):
        life([(400.0, 0.0, 1.0)], **settings)


def test_exponents_belong_to_the_events():
    found = life([(400.0, 0.0, 1.0), (200.0, 0.0, 100.0)])
    for exponents, message in (({"block 7": 1.0}, "events among"), ({"block 0": 1.0}, "no exponent for 'block 1'")):
        with pytest.raises(InputError, match=message):
            life_in_order(found, "power rule", exponents)
    assert set(ORDER_RULES) == {"damage curve", "double linear", "power rule"}


def test_guidance_on_critical_sums_names_its_sources():
    assert {one.value for one in CRITICAL_SUMS} == {0.2, 0.3, 0.5, 1.0}
    assert all(one.source and math.isfinite(one.value) for one in CRITICAL_SUMS)
