"""Growth laws: each form against its formula in plain Python, thresholds, limits between forms, units, refusals."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import LAWS, THRESHOLDS, ParisLaw, TableLaw
from vivid_anvil.study import read_card_named, shipped_cards

RATE, TOUGH = 2e-13, 2500.0


def newman(r, alpha=2.0, peak=0.3):
    """Opening over maximum stress, Newman 1984, as printed."""
    a0 = (0.825 - 0.34 * alpha + 0.05 * alpha**2) * math.cos(math.pi / 2 * peak) ** (1 / alpha)
    a1 = (0.415 - 0.071 * alpha) * peak
    a3 = 2 * a0 + a1 - 1
    a2 = 1 - a0 - a1 - a3
    return max(r, a0 + a1 * r + a2 * r**2 + a3 * r**3) if r >= 0 else a0 + a1 * r


# Each form with its keys, and the same in plain Python of (ΔK, R).
FORMS = {
    "paris": ({}, lambda k, r: RATE * k**3),
    "walker": ({"gamma": 0.6}, lambda k, r: RATE * (k / (1 - r) ** 0.4) ** 3),
    "two-stage": (
        {"rate_2": 1e-14, "slope_2": 3.5},
        lambda k, r: RATE * k**3 if k < (RATE / 1e-14) ** 2 else 1e-14 * k**3.5,
    ),
    "forman": ({"toughness": TOUGH}, lambda k, r: RATE * k**3 / ((1 - r) * TOUGH - k)),
    "forman-mettu": (
        {"toughness": TOUGH, "p": 0.0, "q": 0.5, "closure_alpha": 2.0},
        lambda k, r: RATE * ((1 - newman(r)) / (1 - r) * k) ** 3 / (1 - k / (1 - r) / TOUGH) ** 0.5,
    ),
    "hartman-schijve": ({"toughness": TOUGH}, lambda k, r: RATE * k**3 / ((1 - r) * TOUGH - k)),
    "hartman-schijve, later form": (
        {"toughness": TOUGH},
        lambda k, r: RATE * (k / (1 - k / (1 - r) / TOUGH) ** 0.5) ** 3,
    ),
    "effective range": ({}, lambda k, r: RATE * ((0.5 + 0.4 * r) * k) ** 3),
}


def law(form, **changes):
    values = FORMS[form][0]
    rate = f"{RATE!r} with mm/cycle and MPa√mm" if LAWS[form].constant_power else RATE
    return LAWS[form](**({"name": form, "rate": rate, "slope": 3.0} | values | changes))


@given(st.sampled_from(list(FORMS)), st.floats(50.0, 900.0), st.floats(0.0, 0.6))
def test_each_form_is_its_formula(form, k, r):
    assert float(law(form).growth(k, r)) == pytest.approx(FORMS[form][1](k, r), rel=1e-9)


@given(st.sampled_from(list(FORMS)), st.floats(-1.0, 0.8))
def test_growth_rises_with_the_range_up_to_fracture_and_stays_there(form, r):
    rates = law(form).growth(np.linspace(10.0, 4000.0, 300), r)
    finite = np.isfinite(rates)
    assert (np.diff(rates[finite]) > 0.0).all()
    assert (np.diff(finite.astype(int)) <= 0).all()
    assert finite.all() or law(form).fracture_toughness is not None


@given(st.floats(100.0, 1000.0), st.floats(0.0, 0.9))
def test_higher_r_grows_faster_where_the_law_knows_r(k, r):
    for form in ("walker", "forman", "forman-mettu"):
        slow, fast = law(form).growth([k, k], [r, min(r + 0.05, 0.94)])
        assert fast >= slow


def test_limits_between_the_forms():
    ranges = np.geomspace(60.0, 900.0, 30)
    paris = law("paris").growth(ranges)
    assert law("walker", gamma=1.0).growth(ranges, 0.5) == pytest.approx(paris, rel=1e-12)
    assert law("walker").growth(ranges, 0.0) == pytest.approx(paris, rel=1e-12)
    off = {"toughness": 1e12, "p": 0.0, "q": 0.0, "closure_alpha": 0.0}
    assert law("forman-mettu", **off).growth(ranges, 0.0) == pytest.approx(paris, rel=1e-12)
    same = {"rate_2": RATE, "slope_2": 3.0, "transition": 300.0}
    assert law("two-stage", **same).growth(ranges) == pytest.approx(paris, rel=1e-12)


@given(st.sampled_from(list(THRESHOLDS)), st.floats(-0.9, 0.9))
def test_at_the_threshold_nothing_grows_and_above_it_something(model, r):
    given = {
        key: one
        for key, one in (("range", "5 MPa√m"), ("exponent", 0.5))
        if key in THRESHOLDS[model].__dataclass_fields__
    }
    made = law("paris", threshold=THRESHOLDS[model](**given))
    at = float(made.threshold_at(r))
    assert float(made.growth(at, r)) == 0.0
    assert float(made.growth(1.0001 * at, r)) > 0.0
    assert float(made.threshold_at(0.9)) <= float(made.threshold_at(0.0))
    assert made.limit.least(np.array([0.9, r])) == min(made.threshold_at([0.9, r]))
    assert made.limit.least_of_all <= made.limit.least(np.array([0.9, 0.0, r]))


def test_a_law_may_be_written_in_any_units():
    texts = ("1.65e-11 m/cycle at 1 MPa√m", "1.65e-8 mm/cycle at 1 MPa√m", "5.2178e-13 with mm/cycle and MPa√mm")
    rates = [float(ParisLaw(name="t", rate=text, slope=3.0).growth(500.0)) for text in texts]
    assert rates == pytest.approx([rates[0]] * 3, rel=1e-4)
    inches = ParisLaw(name="t", rate="3.6e-10 in/cycle at 1 ksi√in", slope=3.0)
    assert float(inches.growth(34.7485)) == pytest.approx(25.4 * 3.6e-10, rel=1e-5)


OVER_R = THRESHOLDS["steel, steps"]()
REFUSED = {
    "no slope": ({"slope": 0.0}, "above 0"),
    "slope beyond all": ({"slope": 1e308, "rate": "1e-11 m/cycle at 1 MPa√m"}, "2 to 5 is usual"),
    "negative rate": ({"rate": -1e-12}, "above 0"),
    "rate without units": ({"rate": "1e-12"}, "growth rate at a stress intensity range"),
    "rate in stress": ({"rate": "1e-12 m/cycle at 1 MPa"}, "stress intensity"),
    "threshold in MPa": ({"threshold": "2 MPa"}, "stress intensity"),
    "R of 1": ({"r_ratio": 1.0}, "below 1"),
    "unknown form": ({"form": "parris"}, "Did you mean 'paris'"),
    "table of one": ({"form": "table", "points": [(300.0, 1e-5)]}, "points"),
    "table that falls": ({"form": "table", "points": [(300.0, 1e-5), (200.0, 1e-4)]}, "points"),
    "table of words": ({"form": "table", "points": "steep"}, "pairs"),
    "no threshold": ({"threshold": None}, "a range of stress intensity"),
    "threshold of its own": (
        {**FORMS["forman-mettu"][0], "form": "forman-mettu", "threshold": OVER_R},
        "own dependence",
    ),
}


@pytest.mark.parametrize(("changes", "message"), REFUSED.values(), ids=REFUSED)
def test_a_law_that_cannot_be_meant_is_refused(changes, message):
    given = {"name": "bad", "form": "paris", "rate": RATE, "slope": 3.0} | changes
    if given["form"] == "table":
        del given["rate"], given["slope"]
    with pytest.raises(InputError, match=message):
        LAWS[given.pop("form")](**given)


def test_r_of_one_and_beyond_the_table_are_errors_of_the_cycle():
    with pytest.raises(InputError, match="below 1"):
        law("walker").growth(500.0, 1.0)
    table = TableLaw(name="t", points=[(300.0, 1e-5), (600.0, 1e-4)])
    assert float(table.growth(math.sqrt(300.0 * 600.0))) == pytest.approx(math.sqrt(1e-9), rel=1e-9)
    with pytest.raises(InputError, match="nothing is extrapolated"):
        table.growth(601.0)


@pytest.mark.parametrize("r", [-0.5, 0.0, 0.3, 0.7])
@pytest.mark.parametrize("form", FORMS)
def test_the_numbers_of_a_form_and_of_its_threshold_can_be_redone(form, r):
    made = law(form, threshold=100.0)
    at = float(made.threshold_at(r, 5.0))
    assert by_hand(made.limit.numbers_in(r, 5.0)) == pytest.approx(at, rel=1e-6)
    assert by_hand(made.numbers_in(400.0, r, at)) == pytest.approx(float(made.growth(400.0, r, 5.0)), rel=3e-6)


@pytest.mark.parametrize("r", [-0.5, 0.0, 0.3, 0.7])
@pytest.mark.parametrize("kind", list(THRESHOLDS))
def test_the_numbers_of_a_threshold_can_be_redone(kind, r):
    given = {"range": 120.0, "exponent": 0.6}
    made = THRESHOLDS[kind](**{key: one for key, one in given.items() if key in THRESHOLDS[kind].__dataclass_fields__})
    assert by_hand(made.numbers_in(r, 5.0)) == pytest.approx(float(made.at(r)), rel=1e-6)


def test_every_form_and_threshold_says_its_formula_and_source():
    for name, form in (*LAWS.items(), *THRESHOLDS.items()):
        assert "=" in form.formula or name == "table"
        assert any(letter.isdigit() for letter in form.method) or form.method in ("measured", "as stated"), name


# Barsom and Rolfe 1999, ch. 9, as printed in US units: da/dN [in/cycle] = C (ΔK [ksi√in])^m; and the cards that carry each.
PRINTED = {
    "martensitic": (
        0.66e-8,
        2.25,
        ("structural-steel-690", "tempered-steel-800", "tempered-steel-1000", "spring-steel-1500"),
    ),
    "ferrite-pearlite": (3.6e-10, 3.0, ("structural-steel-235", "structural-steel-355")),
    "austenitic": (3.0e-10, 3.25, ("stainless-steel-austenitic",)),
}


@pytest.mark.parametrize("kind", PRINTED)
def test_steel_cards_carry_the_law_of_their_kind(kind):
    printed, slope, cards = PRINTED[kind]
    inch, ksi_root_inch = 25.4, 6.894757 * math.sqrt(25.4)  # mm; MPa√mm
    for name in cards:
        law = read_card_named(name).laws["air"]
        assert law.slope == slope
        assert law.constant == pytest.approx(printed * inch / ksi_root_inch**slope, rel=5e-3)
        assert kind in law.source
    assert {name for _, _, names in PRINTED.values() for name in names} == {
        name for name, card in shipped_cards().items() if card.group == "steel" and "air" in card.laws
    }
