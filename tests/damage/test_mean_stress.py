"""Mean-stress rules: what holds for all of them, where they meet, their working, and what is refused."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.damage.spots import CURVE, SMOOTH, STEEL, needed_by, one_block, spot
from vivid_anvil.damage import assess_life, life_working
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import (
    MEAN_STRESS_RULES,
    SENSITIVITIES,
    Material,
    equivalent_amplitude,
    estimated_sensitivity,
    estimated_walker_exponent,
    knee_curve,
)
from vivid_anvil.materials.material import GROUPS

rules = st.sampled_from(sorted(MEAN_STRESS_RULES))
IN_COMPRESSION = sorted(name for name, rule in MEAN_STRESS_RULES.items() if rule.in_compression)


def equivalent(amplitude, mean, rule, **settings):
    return equivalent_amplitude(amplitude, mean, rule=rule, **needed_by(rule) | settings)


@given(rules, st.floats(1.0, 150.0), st.floats(0.0, 300.0), st.floats(-0.95, 0.6))
def test_there_and_back_at_any_r(rule, amplitude, mean, r_ratio):
    reversed_amplitude = equivalent(amplitude, mean, rule)
    there = equivalent(amplitude, mean, rule, r_ratio=r_ratio)
    back = equivalent(there, there * (1.0 + r_ratio) / (1.0 - r_ratio), rule)
    assert float(back) == pytest.approx(float(reversed_amplitude), rel=1e-9)


@given(rules, st.floats(1.0, 150.0), st.floats(0.0, 300.0), st.floats(1.0, 50.0))
def test_more_tension_never_does_less_damage(rule, amplitude, mean, more):
    assert equivalent(amplitude, mean + more, rule) >= equivalent(amplitude, mean, rule) * (1.0 - 1e-12)


@given(st.sampled_from(IN_COMPRESSION), st.floats(1.0, 150.0), st.floats(0.0, 400.0))
def test_compression_helps_as_far_as_it_is_let(rule, amplitude, mean):
    ignored, capped, credited = (
        float(equivalent(amplitude, -mean, rule, compressive=choice)) for choice in ("ignored", "capped", "credited")
    )
    assert credited <= capped * (1.0 + 1e-12)
    assert capped <= ignored * (1.0 + 1e-12)
    assert ignored == pytest.approx(amplitude, rel=1e-12)
    if mean <= amplitude:
        assert capped == pytest.approx(credited, rel=1e-12)


@given(st.floats(1.0, 150.0), st.floats(1.0, 300.0))
def test_the_textbook_rules_stand_in_their_order(amplitude, mean):
    found = {name: float(equivalent(amplitude, mean, name)) for name in MEAN_STRESS_RULES}
    assert found["none"] <= found["gerber"] <= found["goodman"] <= found["soderberg"]
    assert found["elliptic"] <= found["soderberg"]
    assert found["morrow"] <= found["goodman"]
    assert found["walker"] <= found["smith-watson-topper"]


@pytest.mark.parametrize("place", [-1.0, 1.0, 3.0])
def test_the_regions_of_the_sensitivity_meet(place):
    sides = [
        float(equivalent(100.0, 100.0 * place * (1.0 + step), "sensitivity", compressive="credited"))
        for step in (-1e-9, 1e-9)
    ]
    assert sides[0] == pytest.approx(sides[1], rel=1e-6)


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("r_ratio", [-1.0, 0.1, 0.6])
@pytest.mark.parametrize("rule", sorted(set(MEAN_STRESS_RULES) - {"none"}))
def test_each_rule_is_worked_by_hand(rule, r_ratio, units):
    curve = knee_curve(**SMOOTH | {"r_ratio": r_ratio})
    choice = "credited" if MEAN_STRESS_RULES[rule].in_compression else "ignored"
    for amplitude, mean in ((120.0, 90.0), (60.0, 150.0), (30.0, 200.0), (150.0, -60.0), (100.0, -180.0)):
        life = assess_life(spot(curve, mean_stress=rule, compressive_mean=choice), one_block(amplitude, mean))
        if life.damage_per_repeat == 0.0:
            assert amplitude + mean <= 0.0
            continue
        steps = life_working(life, units).steps
        assert any(f"rule {rule}" in step.title for step in steps)
        for step in steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-5), (step.title, step.numbers)


@given(rules, st.floats(20.0, 150.0), st.floats(0.0, 250.0))
def test_a_hot_spot_gives_the_life_of_the_rule(rule, amplitude, mean):
    life = assess_life(spot(mean_stress=rule), one_block(amplitude, mean))
    assert life.damage_per_repeat == pytest.approx(1e4 / float(CURVE.life(equivalent(amplitude, mean, rule))), rel=1e-9)


def test_values_may_be_estimated_from_the_strength():
    steel = Material(name="s", ultimate_strength=780.0, group="steel", walker_exponent="estimated")
    by_group = assess_life(spot(material=steel, mean_stress="sensitivity"), one_block(120.0, 60.0))
    m = 0.35e-3 * 780.0 - 0.10
    assert float(by_group.equivalent_stress[0]) == pytest.approx(120.0 + m * 60.0)
    by_walker = assess_life(spot(material=steel, mean_stress="walker"), one_block(120.0, 60.0))
    gamma = 0.8818 - 0.0002 * 780.0
    assert float(by_walker.equivalent_stress[0]) == pytest.approx(180.0 ** (1 - gamma) * 120.0**gamma)
    assert set(SENSITIVITIES) == set(GROUPS)


BAD = {
    "unknown rule": (lambda: equivalent(1.0, 1.0, "good man"), "Did you mean 'goodman'"),
    "unknown choice": (
        lambda: equivalent(1.0, 1.0, "goodman", compressive="halved"),
        "'ignored', 'capped', 'credited'",
    ),
    "parabola": (lambda: equivalent(1.0, -1.0, "gerber", compressive="credited"), "Its curve is symmetric"),
    "ellipse": (lambda: equivalent(1.0, -1.0, "elliptic", compressive="capped"), "Its curve is symmetric"),
    "no value": (lambda: equivalent_amplitude(1.0, 1.0, rule="soderberg"), "yield_strength"),
    "at the strength": (lambda: equivalent([1.0, 50.0], [1.0, 420.0], "soderberg"), "cycle 1: found a mean of 420 MPa"),
    "hot spot": (
        lambda: assess_life(spot(mean_stress="soderberg"), one_block(50.0, 430.0)),
        "a mean below the yield strength, 420 MPa",
    ),
    "missing in material": (
        lambda: assess_life(spot(material=Material(name="bare"), mean_stress="morrow"), one_block(50.0, 0.0)),
        "material bare: found no true_fracture_strength, expected a value, needed for the mean-stress rule morrow",
    ),
    "compression of a hot spot": (
        lambda: assess_life(spot(mean_stress="gerber", compressive_mean="credited"), one_block(50.0, 0.0)),
        "stress life, compressive_mean",
    ),
    "misspelt": (lambda: equivalent(1.0, 1.0, "goodman", yeld_strength=355.0), "an unknown keyword"),
    "a swallowed R": (lambda: equivalent(1.0, 1.0, "goodman", R=0.5), "an unknown keyword"),
    "another rule's value": (lambda: equivalent(1.0, 1.0, "goodman", yield_strength=355.0), "the rule does not use"),
    "a negative strength": (lambda: equivalent(1.0, 1.0, "goodman", ultimate_strength=-700.0), "above 0 MPa"),
    "Walker's exponent": (lambda: equivalent(1.0, 1.0, "walker", walker_exponent=5.0), "of at most 1"),
    "sensitivity in percent": (lambda: equivalent(1.0, 1.0, "sensitivity", mean_stress_sensitivity=30.0), "at most 1"),
    "R of 1": (lambda: equivalent(1.0, 1.0, "goodman", r_ratio=1.0), "other than 1"),
    "R above 1": (lambda: equivalent(1.0, 1.0, "walker", r_ratio=2.0), "below 1 with the rule 'walker'"),
    "a negative amplitude": (lambda: equivalent(-1.0, 1.0, "goodman"), "of at least 0 MPa"),
    "no amplitude": (lambda: equivalent(float("nan"), 1.0, "goodman"), "found nan MPa"),
    "group": (lambda: estimated_sensitivity("bronze", 300.0), "one of 'steel'"),
    "weak steel": (lambda: estimated_sensitivity("steel", 200.0), "state mean_stress_sensitivity"),
    "soft steel": (lambda: estimated_walker_exponent(50.0), "200 to 2500 MPa"),
    "exponent": (lambda: Material(name="m", walker_exponent=1.5), "γ above 0 and at most 1"),
    "sensitivity": (lambda: Material(name="m", mean_stress_sensitivity=30.0), "M from 0 to 1"),
    "group of material": (lambda: Material(name="m", group="wood"), "'grey iron'"),
}


@pytest.mark.parametrize(("make", "message"), BAD.values(), ids=BAD)
def test_what_a_rule_cannot_do_is_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


def test_no_rule_is_needed_where_the_load_is_fully_reversed():
    lives = {
        name: assess_life(spot(mean_stress=name), one_block(120.0, 0.0)).life_repeats for name in MEAN_STRESS_RULES
    }
    assert np.ptp(list(lives.values())) == pytest.approx(0.0, abs=1e-6 * lives["none"])
    assert STEEL.needed("walker_exponent", "a test") == 0.65
