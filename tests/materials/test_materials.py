"""S-N curves, growth laws, strengths: inverses, limits, and what is refused."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material, ParisLaw, knee_curve

SETTINGS = {
    "name": "weld",
    "stress": "range",
    "r_ratio": "any",
    "knee_stress": "52 MPa",
    "knee_life": 1e7,
    "slope": 3.0,
    "slope_below": 5.0,
}

curves = st.builds(
    lambda stress, life, slope, more: knee_curve(
        **SETTINGS | {"knee_stress": stress, "knee_life": life, "slope": slope, "slope_below": slope + more}
    ),
    st.floats(1.0, 2000.0),
    st.floats(1e3, 1e8),
    st.floats(1.0, 15.0),
    st.floats(0.0, 15.0),
)


@given(curves, st.floats(0.3, 4.0))
def test_life_and_stress_are_inverses(curve, ratio):
    stress = curve.limit * ratio
    assert float(curve.stress_at(curve.life(stress))) == pytest.approx(stress, rel=1e-12)


@given(curves, st.floats(0.3, 4.0), st.floats(1.0001, 2.0))
def test_more_stress_means_less_life(curve, ratio, factor):
    stress = curve.limit * ratio
    assert curve.life(factor * stress) < curve.life(stress)


def test_a_fatigue_limit_ends_all_damage_below_it():
    curve = knee_curve(**SETTINGS | {"slope_below": math.inf})
    assert curve.life([52.0, 51.999, 0.0]).tolist() == [1e7, math.inf, math.inf]
    assert curve.stress_at([1e6, 1e7, 1e9])[1:].tolist() == [52.0, 52.0]


BAD_CURVES = [
    ({"stress": "amp"}, "one of 'range', 'amplitude'"),
    ({"slope": -0.1}, "the slope is 10"),
    ({"slope": 0.2}, "the slope is 5"),
    ({"slope": 0.0}, "slope: found 0"),
    ({"slope": math.inf}, "slope: found inf"),
    ({"slope_below": 2.0}, "at least the slope above the knee"),
    ({"knee_stress": "0 MPa"}, "knee_stress: found 0 MPa"),
    ({"knee_stress": "52 mm"}, "not one of stress"),
    ({"knee_life": 0.5}, "at least 1 cycle"),
    ({"knee_life": "many"}, "'many'"),
    ({"r_ratio": 1.0}, "below 1, or 'any'"),
    ({"r_ratio": "all"}, "R, 'any' or 'fixed mean'"),
    ({"survival_probability": 97.7}, "between 0 and 1"),
    ({"tested_from": 1e6, "tested_to": 1e5}, "a range that rises"),
    ({"name": ""}, "a name"),
]


@pytest.mark.parametrize(("change", "message"), BAD_CURVES)
def test_a_curve_that_cannot_be_meant_is_refused(change, message):
    with pytest.raises(InputError) as caught:
        knee_curve(**SETTINGS | change)
    assert message in str(caught.value)


def test_nouns_are_frozen_and_compare():
    curve = knee_curve(**SETTINGS)
    assert curve == knee_curve(**SETTINGS | {"knee_stress": 52.0})
    with pytest.raises(AttributeError):
        curve.above = 4.0
    with pytest.raises(AttributeError):
        curve.points = ()
    with pytest.raises(TypeError, match="knee_stress"):
        knee_curve(**{key: value for key, value in SETTINGS.items() if key != "knee_stress"})


def test_a_growth_law_stops_at_its_threshold():
    law = ParisLaw(name="steel", rate="1e-8 mm/cycle at 100 MPa√mm", slope=2.0, threshold="100 MPa√mm")
    assert law.growth([100.0, 200.0]) == pytest.approx([0.0, 4e-8])


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"rate": 0.0}, "rate"),
        ({"rate": "fast"}, "6.9e-12 m/cycle at 1 MPa√m"),
        ({"slope": 0.0}, "slope: found 0"),
        ({"threshold": "2 MPa"}, "not one of stress intensity"),
        ({"threshold": "-2 MPa√m"}, "at least 0"),
        ({"r_ratio": 1.5}, "below 1"),
    ],
)
def test_a_growth_law_that_cannot_be_meant_is_refused(change, message):
    with pytest.raises(InputError) as caught:
        ParisLaw(**{"name": "steel", "rate": "1e-8 mm/cycle at 100 MPa√mm", "slope": 3.0} | change)
    assert message in str(caught.value)


def test_strengths_are_checked_and_missing_ones_named():
    with pytest.raises(InputError, match="Are the two exchanged"):
        Material(name="steel", ultimate_strength="355 MPa", yield_strength="510 MPa")
    with pytest.raises(InputError, match="no toughness, expected a value, needed for the critical size"):
        Material(name="steel").needed("toughness", "the critical size")
    assert np.isclose(Material(name="steel", toughness="80 MPa√m").toughness, 80.0 * math.sqrt(1000.0))
