"""Families of curves: constant-life lines between the tested curves, and nothing beyond them."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.reference_values import block_event
from tests.spots import hot_spot
from vivid_anvil.damage import assess_life, life_working
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material, SNFamily, curve_at_r, knee_curve, straight_curve

STEEL = Material(name="steel", ultimate_strength=700.0)


def coupon(r_ratio, knee_stress, slope, **settings):
    values = {"name": f"R {r_ratio}", "stress": "amplitude", "r_ratio": r_ratio, "slope_below": 2.0 * slope - 1.0}
    return knee_curve(**values | {"knee_stress": knee_stress, "knee_life": 2e6, "slope": slope} | settings)


def family(**settings):
    return SNFamily(
        name="coupons", curves=[coupon(0.5, 120.0, 8), coupon(-1, 210.0, 9), coupon(0, 165.0, 8.5)], **settings
    )


def by_mean(**settings):
    curves = [
        coupon("fixed mean", stress, 9, name=f"mean {mean}", mean_stress=mean)
        for mean, stress in ((-50.0, 230.0), (0.0, 210.0), (150.0, 160.0))
    ]
    return SNFamily(name="bars", curves=curves, **settings)


@pytest.mark.slow
@given(st.floats(3.0, 9.0), st.floats(0.0, 1.0), st.sampled_from([0, 1]))
def test_a_point_of_a_constant_life_line_has_that_life(log_life, share, pair):
    for group in (family(), by_mean()):
        means, amplitudes = group.constant_life(10.0**log_life)
        mean, amplitude = (one[pair] + share * (one[pair + 1] - one[pair]) for one in (means, amplitudes))
        assert float(group.life(amplitude, mean)) == pytest.approx(10.0**log_life, rel=1e-9)


@pytest.mark.slow
@given(st.floats(1e3, 1e9), st.floats(-1.0, 0.5))
def test_amplitude_and_life_are_inverses(life, r_ratio):
    amplitude = family().amplitude_at(life, r_ratio)
    mean = amplitude * (1.0 + r_ratio) / (1.0 - r_ratio)
    assert float(family().life(amplitude, mean)) == pytest.approx(life, rel=1e-9)
    at_r = family().curve_at(r_ratio)
    assert float(at_r.life(amplitude)) == pytest.approx(life, rel=1e-9)
    assert float(at_r.stress_at(life)) == pytest.approx(float(amplitude), rel=1e-9)


def test_at_a_tested_r_the_family_is_its_curve():
    for curve in family().curves:
        r = float(curve.r_ratio)
        stresses = np.array([400.0, 150.0, 60.0])
        assert family().life(stresses, stresses * (1 + r) / (1 - r)) == pytest.approx(curve.life(stresses), rel=1e-9)


def test_beyond_the_tested_curves_nothing_is_guessed():
    with pytest.raises(InputError, match=r"cycle 1: found an amplitude of 10 MPa at a mean of 100 MPa \(R = 0.818\)"):
        family().life([100.0, 10.0], [0.0, 100.0])
    with pytest.raises(InputError, match="1 of 1 cycles lie outside"):
        by_mean().life(100.0, 200.0)
    with pytest.raises(InputError, match="a cycle between the curves"):
        family().amplitude_at(1e6, 0.7)
    held = family(beyond_lowest="hold", beyond_highest="hold")
    assert held.life([100.0, 120.0], [-500.0, 1e4]) == pytest.approx([2e6 * 2.1**17, 2e6], rel=1e-9)
    assert family().life([0.0], [50.0]).tolist() == [np.inf]


def test_a_limit_of_one_curve_bends_into_that_of_the_next():
    pair = SNFamily(
        name="l", curves=[coupon(-1, 200.0, 9, slope_below=np.inf), coupon(0, 150.0, 9, slope_below=np.inf)]
    )
    means, amplitudes = pair.constant_life(1e12)
    middle = 0.5 * (amplitudes[0] + amplitudes[1]), 0.5 * (means[0] + means[1])
    assert float(pair.life(middle[0] * 0.999, middle[1] * 0.999)) == np.inf
    assert 1e6 < float(pair.life(middle[0] * 1.001, middle[1] * 1.001)) < 2e6
    equal = pair.at_reference(np.array([middle[0] * 0.9]), np.array([middle[1] * 0.9]))
    assert equal == pytest.approx([0.9 * 200.0])


def test_a_hot_spot_takes_a_family_as_its_curve():
    spot = hot_spot(name="s", channel="stress", stress_per_load="1", curve=family(), material=STEEL)
    duty = DutyCycle("block", [block_event("a", 180.0, 60.0, 1e3), block_event("b", 120.0, 300.0, 1e4)], 1.0)
    life = assess_life(spot, duty, target=10.0)
    exact = 1e3 / family().life(180.0, 60.0) + 1e4 / family().life(120.0, 300.0)
    assert life.damage_per_repeat == pytest.approx(float(exact), rel=1e-9)
    assert life.curve.r_ratio == -1
    assert "r-differs" not in [finding.code for finding in life.findings]
    for step in life_working(life).steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-5), step.title  # slopes of 17
    with pytest.raises(InputError, match="a family of curves"):
        assess_life(
            hot_spot(
                name="s", channel="stress", stress_per_load="1", curve=family(), material=STEEL, mean_stress="goodman"
            ),
            duty,
        )


BAD = {
    "alone": (lambda: SNFamily(name="f", curves=[coupon(0, 100.0, 5)]), "at least two"),
    "twice": (lambda: SNFamily(name="f", curves=[coupon(0, 100.0, 5), coupon(0, 90.0, 5)]), "two curves at R = 0"),
    "any R": (lambda: SNFamily(name="f", curves=[coupon(0, 100.0, 5), coupon("any", 90.0, 5)]), "all at an R"),
    "mixed": (
        lambda: SNFamily(name="f", curves=[coupon(0, 100.0, 5), coupon("fixed mean", 90.0, 5, mean_stress=9.0)]),
        "or all at a mean stress",
    ),
    "survival": (
        lambda: SNFamily(name="f", curves=[coupon(0, 100.0, 5), coupon(-1, 90.0, 5, survival_probability=0.9)]),
        "survival_probability of None, 0.9",
    ),
    "beyond": (lambda: family(beyond_lowest="extend"), "one of 'refuse', 'hold'"),
}


@pytest.mark.parametrize(("make", "message"), BAD.values(), ids=BAD)
def test_a_family_that_cannot_be_meant_is_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


# ---- one curve at another R by a rule ------------------------------------------------------------------------------


@given(
    st.floats(-3.0, 0.8), st.floats(20.0, 120.0), st.sampled_from([-1.0, 0.1]), st.sampled_from(["range", "amplitude"])
)
def test_a_curve_at_another_r_gives_the_life_of_the_rule(r_ratio, amplitude, tested_r, kind):
    curve = knee_curve(
        name="c", stress=kind, r_ratio=tested_r, knee_stress=300.0, knee_life=1e6, slope=6, slope_below=11
    )
    if amplitude * (1.0 + r_ratio) / (1.0 - r_ratio) > 500.0:
        return
    made = curve_at_r(curve, r_ratio, rule="goodman", ultimate_strength=700.0)
    stress = float(curve.from_amplitude(amplitude))
    spot = hot_spot(name="s", channel="stress", stress_per_load="1", curve=curve, material=STEEL, mean_stress="goodman")
    load = ConstantAmplitude.from_amplitude("stress", f"{amplitude!r} MPa", r_ratio=r_ratio, cycles=1)
    life = assess_life(spot, DutyCycle("one", [Event("one", load)], 1.0))
    assert float(made.life(stress)) == pytest.approx(life.life_repeats, rel=1e-9)
    assert float(made.stress_at(made.life(stress))) == pytest.approx(stress, rel=1e-9)
    assert made.damage_of(np.array([2.0 * amplitude])) == pytest.approx(1.0 / float(made.life(stress)), rel=1e-12)


def test_a_converted_curve_says_so_and_is_not_converted_twice():
    bar = straight_curve(name="bar", stress="amplitude", r_ratio=-1, point_stress=140.0, point_life=1e6, slope=8)
    made = curve_at_r(bar, 0.0, rule="goodman", ultimate_strength=700.0)
    assert "brought from R = -1 by the rule goodman" in made.shape
    for change, message in (
        (lambda: curve_at_r(made, -1.0, rule="goodman", ultimate_strength=700.0), "not converted before"),
        (lambda: curve_at_r(bar, 0.0, rule="goodman"), "the value that the rule"),
        (lambda: curve_at_r(bar, 1.5, rule="goodman", ultimate_strength=700.0), "below 1"),
        (lambda: curve_at_r(bar, 0.0, rule="good", ultimate_strength=700.0), "Did you mean 'goodman'"),
    ):
        with pytest.raises(InputError, match=message):
            change()
