"""Curved S-N lines: by their formulas, against lines through many of their points, converted, in lives and by hand."""

import pickle

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.damage.spots import STEEL, mixed, spot
from vivid_anvil.damage import life_working
from vivid_anvil.materials import (
    Palmgren,
    SNFamily,
    Stromeyer,
    at_survival,
    curve_at_r,
    curved_curve,
    in_terms_of,
    table_curve,
)
from vivid_anvil.materials.curves.below_knee import curve_below_knee
from vivid_anvil.materials.curves.written import section_text

FORMS = {
    "stromeyer": Stromeyer(endurance="80 MPa", exponent=2.5, point_stress="180 MPa", point_life=1e5),
    "palmgren": Palmgren(endurance="80 MPa", largest="480 MPa", bend=1e4, exponent=0.4),
    "power law": Stromeyer(endurance=0.0, exponent=5.0, point_stress="180 MPa", point_life=1e5),
}
COMMON = {"stress": "amplitude", "r_ratio": -1, "tested_from": 1e4, "tested_to": 1e7}
CURVES = {name: curved_curve(name=name, form=form, **COMMON) for name, form in FORMS.items()}


@given(st.sampled_from(list(CURVES)), st.floats(1e3, 1e9))
def test_life_and_stress_are_each_other_s_inverse(name, life):
    curve = CURVES[name]
    stress = float(curve.stress_at(life))
    assert float(curve.life(stress)) == pytest.approx(life, rel=1e-6)
    assert curve.slope_at(stress) == pytest.approx(
        -np.diff(np.log(curve.life(stress * np.array([0.9999, 1.0001]))))[0] / np.log(1.0001 / 0.9999), rel=1e-3
    )


def test_published_forms_by_hand():
    assert float(CURVES["stromeyer"].life(130.0)) == pytest.approx(1e5 * (100.0 / 50.0) ** 2.5)
    assert float(CURVES["palmgren"].stress_at(3e4)) == pytest.approx(80.0 + 400.0 * 4.0**-0.4)
    assert CURVES["power law"].slope_at(150.0) == pytest.approx(5.0, rel=1e-6)
    assert np.isinf(CURVES["stromeyer"].life([80.0, 40.0, 0.0])).all()
    for bad, said in ((-1.0, "0 or more"), (np.nan, "0 or more")):
        with pytest.raises(va.InputError, match=said):
            CURVES["stromeyer"].life(bad)


@pytest.mark.parametrize("name", CURVES)
def test_a_life_on_it_is_that_on_many_short_lines(name):
    curve = CURVES[name]
    lives = np.geomspace(2e2, 1e10, 3000)
    points = list(zip(curve.stress_at(lives).tolist(), lives.tolist(), strict=True))
    lines = table_curve(name="lines", stress="amplitude", r_ratio=-1, points=points, above="extend", below="no damage")
    duty = mixed(200.0, 10.0, 120.0, 1e4)
    for rule in ("none", "goodman"):
        one, other = (va.assess_life(spot(at, mean_stress=rule), duty, target=1e3) for at in (curve, lines))
        assert one.damage_per_repeat == pytest.approx(other.damage_per_repeat, rel=1e-4)
        assert one.reserve_on_stress == pytest.approx(other.reserve_on_stress, rel=2e-4)
        for step in life_working(one).steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-4), step.title


def test_conversions_stand_on_top_and_pickle():
    curve = curved_curve(name="c", form=FORMS["stromeyer"], survival_probability=0.5, log_life_std=0.2, **COMMON)
    ranges = in_terms_of(curve, "range")
    assert float(ranges.life(260.0)) == float(curve.life(130.0))
    assert ranges.limit == 160.0
    safer = at_survival(curve, 0.975)
    assert float(safer.life(130.0)) == pytest.approx(float(curve.life(130.0)) * 10 ** (-1.959964 * 0.2), rel=1e-6)
    assert safer.limit == 80.0
    pulsating = curve_at_r(curve, 0.0, rule="goodman", ultimate_strength=700.0)
    amplitude = 130.0 / (1.0 + 130.0 / 700.0)
    assert float(pulsating.life(amplitude)) == pytest.approx(float(curve.life(130.0)))
    assert pulsating.limit == pytest.approx(80.0 / (1.0 + 80.0 / 700.0))
    for one in (curve, ranges, safer, pulsating):
        assert pickle.loads(pickle.dumps(one)).life(100.0) == one.life(100.0)
        assert va.plot(one)
        assert len(one.to_frame()) > 3
    family = SNFamily(
        name="f",
        curves=[CURVES["stromeyer"], curved_curve(name="0", form=FORMS["palmgren"], **COMMON | {"r_ratio": 0})],
    )
    assert float(family.life(130.0, 0.0)) == pytest.approx(float(curve.life(130.0)))


@pytest.mark.parametrize(
    ("call", "said"),
    [
        (lambda: curve_below_knee(CURVES["stromeyer"], "continued"), "as the curve says"),
        (lambda: section_text(CURVES["stromeyer"], "c"), "a curve by a formula"),
        (lambda: Stromeyer(endurance=200.0, exponent=2.0, point_stress=100.0, point_life=1e5), "endurance"),
        (lambda: curved_curve(name="c", form=FORMS["palmgren"], **COMMON | {"tested_to": 1e3}), "above tested_from"),
        (
            lambda: va.assess_life(spot(CURVES["palmgren"], below_knee="2m-1"), mixed(200.0, 1, 100.0, 1)),
            "as the curve says",
        ),
    ],
)
def test_what_has_no_meaning_on_it_is_refused(call, said):
    with pytest.raises(va.InputError, match=said):
        call()


def test_it_may_stand_at_a_node():
    from tests.fields.models import LOADS, duty_of, field_of
    from tests.spots import hot_spot
    from vivid_anvil.fields import assess_model, node_life, reserves_on_stress

    at = hot_spot(name="m", material=STEEL, curve=CURVES["stromeyer"], mean_stress="goodman")
    whole, skipped = (
        assess_model(field_of(30), LOADS, duty_of(), at, target=10.0, skip_harmless=s) for s in ("no", "yes")
    )
    assert whole.values.damage.tolist() == skipped.values.damage.tolist()
    node = int(whole.field.node_ids[whole.worst])
    life = node_life(whole, node)
    assert life.damage_per_repeat == pytest.approx(float(whole.values.damage[whole.worst]), rel=1e-9)
    assert life.reserve_on_stress == pytest.approx(float(reserves_on_stress(whole, [whole.worst])[0]), rel=1e-9)
