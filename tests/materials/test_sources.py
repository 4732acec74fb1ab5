"""Where curves come from: classes of standards, estimates from strength, material cards."""

import numpy as np
import pytest

from tests.by_hand import by_hand
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import (
    curve_working,
    detail_curve,
    effective_thickness,
    estimate_curve,
    read_standard,
    shipped_standards,
)
from vivid_anvil.study import cards_in, find_cards, read_card, read_card_named, shipped_cards

# ---- classes -------------------------------------------------------------------------------------------------------

EVERY_CLASS = [
    (table.name, one.component, one.loading, name)
    for table in shipped_standards().values()
    for one in table.curves
    for name in one.classes
]


@pytest.mark.parametrize(("standard", "component", "loading", "name"), EVERY_CLASS)
def test_each_class_has_its_stress_at_two_million_cycles(standard, component, loading, name):
    curve = detail_curve(standard, name, component=component, loading=loading)
    assert float(curve.stress_at(2e6)) == pytest.approx(float(name), rel=1e-12)
    assert curve.stress == "range"
    assert curve.r_ratio == "any"
    assert curve.component == component


def test_thickness_environment_and_partial_factor_lower_the_curve():
    plain = detail_curve("IIW steel", 90)
    thick = detail_curve("IIW steel", 90, thickness="40 mm", thickness_exponent="transverse butt weld, as welded")
    assert thick.points[0][0] == pytest.approx(plain.points[0][0] * (25 / 40) ** 0.2)
    thin = detail_curve("IIW steel", 90, thickness="12 mm", thickness_exponent=0.3)
    assert thin.points == plain.points
    sea = detail_curve("IIW steel", 90, environment="sea water, free corrosion")
    assert sea.stress_at([1e6, 1e9]) == pytest.approx([0.7 * 90 * 2 ** (1 / 3), 0.7 * 90 * (2e6 / 1e9) ** (1 / 3)])
    safe = detail_curve("EN 1993-1-9", 71, partial_factor=1.35)
    assert safe.stress_at(2e6) == pytest.approx(71 / 1.35)
    short = detail_curve("IIW steel", 90, thickness="80 mm", attachment_length="60 mm", thickness_exponent=0.3)
    assert short.points[0][0] == pytest.approx(plain.points[0][0] * (25 / 30) ** 0.3)
    long = detail_curve("IIW steel", 90, thickness="40 mm", attachment_length="100 mm", thickness_exponent=0.3)
    assert long.points[0][0] == pytest.approx(plain.points[0][0] * (25 / 40) ** 0.3)
    assert [effective_thickness(40.0, length) for length in (50.0, 80.0, 100.0)] == [25.0, 40.0, 40.0]
    for curve in (thick, thin, short, long, sea, safe):
        for step in curve_working(curve).steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-6), step.title


OWN = """
format = 1
standard = "house rules"
stress = "range"
r_ratio = "any"
survival_probability = 0.977
log_life_std = 0.2

[[curves]]
component = "normal"
intercept_unit = "MPa"
reference_thickness = "25 mm"
rows = [
  { class = "D", log_a = [12.164, 15.606], slopes = [3, 5], thickness_exponent = 0.2 },
  { class = "F", log_a = [11.855], slopes = [3], ends_at = 1e7 },
]
"""


def test_the_table_of_another_standard_is_a_file_of_the_same_form(tmp_path):
    path = tmp_path / "house.toml"
    path.write_text(OWN)
    house = read_standard(path)
    curve = detail_curve(house, "D", thickness="50 mm")
    log_stress = (15.606 - 12.164) / 2.0  # where 12.164 - 3 x = 15.606 - 5 x
    assert curve.points[0] == pytest.approx((10**log_stress * 0.5**0.2, 10 ** (12.164 - 3 * log_stress)))
    assert detail_curve(house, "F").limit == pytest.approx(10 ** ((11.855 - 7.0) / 3.0))
    with pytest.raises(InputError, match="one of D, F"):
        detail_curve(house, "G")


BAD_CLASSES = {
    "standard": (lambda: detail_curve("EN 1993", 71), "Did you mean 'EN 1993-1-9'"),
    "class": (lambda: detail_curve("EN 1993-1-9", 75), "no class 75, expected one of 160, 140"),
    "shear class": (lambda: detail_curve("EN 1993-1-9", 71, component="shear"), "one of 100, 80"),
    "component": (lambda: detail_curve("EN 1993-1-9", 71, component="bending"), "'normal', 'shear'"),
    "loading": (lambda: detail_curve("EN 1993-1-9", 71, loading="random"), "'variable', 'constant'"),
    "environment": (lambda: detail_curve("IIW steel", 71, environment="sea"), "Did you mean 'sea water"),
    "environment of EN": (lambda: detail_curve("EN 1993-1-9", 71, environment="sea water"), "one of 'air'"),
    "exponent missing": (lambda: detail_curve("IIW steel", 71, thickness="40 mm"), "transverse butt weld"),
    "exponent unknown": (
        lambda: detail_curve("IIW steel", 71, thickness="40 mm", thickness_exponent="butt weld"), "Did you mean",
    ),
    "exponent alone": (lambda: detail_curve("IIW steel", 71, thickness_exponent=0.2), "State the thickness"),
    "attachment alone": (lambda: detail_curve("IIW steel", 71, attachment_length="50 mm"), "State the thickness"),
    "attachment in kN": (
        lambda: detail_curve("IIW steel", 71, thickness="40 mm", attachment_length="50 kN"), "not one of length",
    ),
    "thickness of shear": (
        lambda: detail_curve("IIW steel", 80, component="shear", thickness="40 mm"), "no thickness correction here",
    ),
    "thickness in MPa": (lambda: detail_curve("IIW steel", 71, thickness="40 MPa"), "not one of length"),
    "partial factor": (lambda: detail_curve("EN 1993-1-9", 71, partial_factor=13.5), "usually 1.0 to 1.35"),
    "no attachment": (lambda: effective_thickness(20.0, 0.0), "above 0 mm"),
}  # fmt: skip


@pytest.mark.parametrize(("make", "message"), BAD_CLASSES.values(), ids=BAD_CLASSES)
def test_what_a_standard_does_not_have_is_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


@pytest.mark.parametrize(
    ("old", "new", "message"),
    [
        ("slopes = [3, 5]", "slope = [3, 5]", "rows, entry 1, slope: found an unknown key"),
        ("log_a = [11.855]", "log_a = 11.855", "rows, entry 2, log_a"),
        ('component = "normal"', "", "curves, entry 1: found no such key, expected the key 'component'"),
        ('"25 mm"', "25", "curves, entry 1, reference_thickness: found 25 without a unit"),
        ("[[curves]]", "[curves]", "curves: found"),
        ("format = 1", "format = ", "text that is not TOML"),
    ],
)
def test_a_file_of_classes_that_cannot_be_meant_is_refused(tmp_path, old, new, message):
    path = tmp_path / "house.toml"
    path.write_text(OWN.replace(old, new))
    with pytest.raises(InputError) as caught:
        detail_curve(read_standard(path), "D")
    assert message in str(caught.value)
    assert "house.toml" in str(caught.value)


# ---- estimates -----------------------------------------------------------------------------------------------------


def estimate(group="steel", **settings):
    return estimate_curve(group, **{"ultimate_strength": "690 MPa", "surface": "ground", "loading": "axial"} | settings)


def test_cast_iron_and_aluminium_start_from_their_own_limits():
    iron = estimate("cast iron", ultimate_strength="300 MPa")
    assert iron.limit == pytest.approx(0.85 * 0.4 * 300.0)  # axial, no surface factor
    assert iron.strength_at_1e3 == pytest.approx(0.75 * 300.0)
    strong = estimate("cast iron", ultimate_strength="500 MPa", loading="bending", size="20 mm")
    assert strong.limit == pytest.approx(160.0 * 1.24 * 20.0**-0.107)
    aluminium = estimate("aluminium", ultimate_strength="300 MPa", surface="polished")
    assert aluminium.limit == pytest.approx(0.85 * 120.0)
    assert aluminium.curve.points[1][1] == 5e8
    assert aluminium.curve.below == "extend"


def test_hardness_sections_and_own_factors():
    assert estimate(ultimate_strength=None, brinell_hardness=200).ultimate_strength == pytest.approx(680.0)
    assert estimate("cast iron", ultimate_strength=None, brinell_hardness=200).ultimate_strength == pytest.approx(230.0)
    flat = estimate(loading="bending", size=("20 mm", "8 mm"), section="rectangle")
    assert flat.factors["size"] == pytest.approx(1.24 * (0.808 * 160.0**0.5) ** -0.107)
    still = estimate(loading="bending", size="30 mm", section="round")
    assert still.factors["size"] == pytest.approx(1.24 * 11.1**-0.107)
    own = estimate(own_factors={"surface": 0.6, "temperature": 0.9}, temperature="900 °C")
    assert own.limit == pytest.approx(345.0 * 0.85 * 0.6 * 0.9)
    hot = [estimate(temperature=value).limit for value in ("500 °F", 260.0, "533.15 K")]
    assert hot == pytest.approx([hot[0]] * 3)


def test_an_estimate_is_marked_and_each_factor_can_be_redone():
    made = estimate(loading="torsion", size="60 mm", temperature="325 °C", survival_probability=0.9)
    assert made.curve.basis == "estimate"
    assert made.curve.component == "shear"
    assert [finding.code for finding in made.curve.findings] == ["estimated-curve"]
    for step in made.curve.steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-6), step.title
        assert step.source or step.title.startswith(("Strength at", "Slope"))
    assert estimate("aluminium", ultimate_strength="300 MPa").curve.findings[1].code == "surface-of-steel"


BAD_ESTIMATES = {
    "group": ({"group": "bronze"}, "'steel', 'cast iron', 'aluminium'"),
    "both": ({"brinell_hardness": 200}, "one of ultimate_strength and brinell_hardness"),
    "neither": ({"ultimate_strength": None}, "one of ultimate_strength and brinell_hardness"),
    "unit": ({"ultimate_strength": "690 Pa"}, "Check the unit"),
    "vickers": ({"ultimate_strength": None, "brinell_hardness": 620}, "Vickers"),
    "hard aluminium": ({"group": "aluminium", "ultimate_strength": None, "brinell_hardness": 90}, "tells too little"),
    "surface": ({"surface": "shiny"}, "one of 'polished'"),
    "no surface": ({"surface": None}, "surface: found none"),
    "loading": ({"loading": "shear"}, "'bending', 'axial', 'torsion'"),
    "no size": ({"loading": "bending"}, "size: found none"),
    "small": ({"loading": "bending", "size": "1 mm"}, "own_factors = { size"),
    "two sizes": ({"loading": "bending", "size": ("9 mm", "8 mm")}, "one diameter"),
    "one size": ({"loading": "bending", "size": "9 mm", "section": "rectangle"}, "width and height"),
    "section": ({"loading": "bending", "size": "9 mm", "section": "tube"}, "'rotating round'"),
    "hot": ({"temperature": "700 °C"}, "creep"),
    "cold": ({"temperature": "-40 °C"}, "brittle"),
    "scale": ({"temperature": "300"}, "a temperature with its scale"),
    "below zero": ({"temperature": "-300 °C"}, "absolute zero"),
    "hot iron": ({"group": "cast iron", "temperature": "200 °C"}, "is for steel"),
    "twisted iron": ({"group": "cast iron", "loading": "torsion", "size": "20 mm"}, "own_factors = { load"),
    "rule": ({"temperature_rule": "line"}, "'table', 'polynomial'"),
    "percent": ({"survival_probability": 90}, "Write 90 % as 0.9"),
    "fraction": ({"fraction_at_1e3": 90}, "0.3 to 1"),
    "factor": ({"own_factors": {"shape": 0.9}}, "one of 'surface'"),
    "large factor": ({"own_factors": {"size": 85}}, "a factor of 2 at most"),
    "upside down": ({"fraction_at_1e3": 0.3, "own_factors": {"size": 2.0}}, "above the strength at 1e3"),
}


@pytest.mark.parametrize(("change", "message"), BAD_ESTIMATES.values(), ids=BAD_ESTIMATES)
def test_an_estimate_outside_the_textbook_is_refused(change, message):
    with pytest.raises(InputError) as caught:
        estimate(**change)
    assert message in str(caught.value)


# ---- cards ---------------------------------------------------------------------------------------------------------


MATERIALS = {key: card for key, card in shipped_cards().items() if card.basis == "typical"}
PROCEDURES = read_card_named("welded-steel-procedures")


@pytest.mark.parametrize("name", [name for name in PROCEDURES.laws if not name.startswith("simple")])
def test_both_lines_of_a_law_of_the_procedures_cross_at_its_transition(name):
    law = PROCEDURES.laws[name]
    low, high = (float(law.growth(at, 0.0)) for at in (law.transition * (1.0 - 1e-9), law.transition * (1.0 + 1e-9)))
    assert high == pytest.approx(low, rel=0.02)  # the tables round their numbers
    assert "mean" in PROCEDURES.laws[name].source or law.slope > law.slope_2


def test_upper_laws_of_the_procedures_grow_faster_than_mean_ones():
    for name, law in PROCEDURES.laws.items():
        if "mean" in name:
            upper = PROCEDURES.laws[name.replace("mean", "upper")]
            for k in (200.0, 400.0, 800.0, 1500.0):
                assert float(upper.growth(k, 0.0)) > float(law.growth(k, 0.0)), name


def of_group(group):
    """Typical cards of rubbers, of plies, or of metals."""
    met = {key: card for key, card in MATERIALS.items() if group == (card.group if card.group in CARDS_OF else "metal")}
    return pytest.mark.parametrize("card", met.values(), ids=met)


CARDS_OF = ("rubber", "fibre composite")  # groups that have no S-N curve of a metal


@pytest.mark.parametrize("card", MATERIALS.values(), ids=MATERIALS)
def test_a_shipped_card_is_typical_and_says_so(card):
    assert card.basis == "typical"
    assert "not for design" in card.source
    assert not (card.group in CARDS_OF and card.curves)
    for value in card.values.values():
        assert value.scatter != "not stated"
        assert any(sign.isdigit() for sign in value.text)


@of_group("rubber")
def test_a_shipped_rubber_is_sound(card):
    rubber = card.rubber_there
    assert rubber.law.youngs_modulus == pytest.approx(card.values["elastic_modulus"].value, rel=0.05)
    assert 0.02 <= rubber.initial_flaw <= 0.06
    rates = [float(law.growth(1.0)) for law in rubber.laws]
    assert rates == sorted(rates)  # warmer rubber tears faster
    life = rubber.tearing.lives(float(rubber.law.energy_of("simple", 1.6)), 0.0, rubber.initial_flaw, rubber.end_flaw)
    assert 1e4 < life[0] < 1e6


@of_group("fibre composite")
def test_a_shipped_ply_is_sound(card):
    ply = card.ply_there
    assert ply.modulus_along > 3.0 * ply.modulus_across > 3.0 * ply.shear_modulus > 0.0
    assert ply.tension_along > ply.compression_along > ply.compression_across > ply.tension_across
    for diagram, strength in (
        (ply.fibre_life, ply.tension_along),
        (ply.across_life, ply.tension_across),
        (ply.shear_life, ply.shear_strength),
    ):
        assert diagram.tension == strength
        largest = strength * np.array([0.3, 0.5, 0.7])  # R = 0.1
        lives = diagram.lives(0.45 * largest, 0.55 * largest).tolist()
        assert lives == sorted(lives, reverse=True)
        assert 10.0 < lives[2] < 1e5 < lives[0]


@of_group("metal")
def test_a_shipped_metal_is_sound(card):
    curve = card.curve()
    assert curve.log_life_std
    assert [finding.code for finding in curve.findings] == ["typical-curve"]
    assert 0.15 < float(curve.stress_at(1e6)) / card.material.ultimate_strength < 0.7
    assert curve.stress_at(curve.tested_from) < card.material.ultimate_strength
    source = "Barsom and Rolfe" if card.group == "steel" else card.source
    assert source in card.law("air").source
    for law in card.laws.values():
        assert 1e-6 < float(law.growth(1000.0, 0.1)) < 5e-2, law
        assert law.scatter != "not stated"


def test_cards_are_found_by_words_and_by_name():
    assert [card.key for card in find_cards("aluminium cast")] == ["aluminium-casting-t6"]
    assert len(find_cards()) == len(shipped_cards())
    assert {card.group for card in find_cards()} >= {"steel", "aluminium", "titanium", "cast iron", "rubber"}
    assert read_card_named("Structural steel, yield strength 355 MPa").key == "structural-steel-355"
    with pytest.raises(InputError, match="Did you mean 'titanium-6al-4v'"):
        read_card_named("titanium-6-4")


CARD = """
format = 1
name = "our plate"
group = "steel"
basis = "tests"
source = "report 12"
ultimate_strength = { value = "74 ksi", scatter = "2 ksi", source = "certificate" }
yield_strength = "355 MPa"

[sn_curves.butt]
class = 90
standard = "EN 1993-1-9"

[sn_curves.plate]
stress = "range"
r_ratio = 0.1
table = "plate.csv"
above = "hold"
below = "extend"
"""


def test_a_card_of_ones_own_may_use_every_form_of_curve(tmp_path):
    (tmp_path / "plate.csv").write_text("stress range [MPa],life [cycles]\n400,1e4\n250,1e5\n")
    (tmp_path / "plate.toml").write_text(CARD)
    card = read_card_named("plate", tmp_path)
    assert card.material.ultimate_strength == pytest.approx(74 * 6.894757293168361)
    assert (card.values["ultimate_strength"].source, card.values["yield_strength"].source) == (
        "certificate",
        "report 12",
    )
    assert card.curve("plate").basis == "tests"
    assert card.curve("butt").basis == "standard"
    assert list(cards_in(tmp_path)) == ["plate"]
    with pytest.raises(InputError, match="2 S-N curves, and none named"):
        card.curve()
    with pytest.raises(InputError, match="no growth law"):
        card.law()


@pytest.mark.parametrize(
    ("old", "new", "message"),
    [
        ("format = 1", "format = 2", "format = 1"),
        ('group = "steel"', 'group = "bronze"', "one of 'steel'"),
        ('basis = "tests"', 'basis = "guess"', "basis"),
        ('"355 MPa"', "355", "yield_strength"),
        ('"355 MPa"', '"355 mPa"', "millipascal"),
        ('"74 ksi"', '"74 mm"', "ultimate_strength: found the unit 'mm'"),
        ("scatter", "spread", "Did you mean"),
        ("yield_strength", "yeild_strength", "Did you mean 'yield_strength'"),
        ('name = "our plate"', "", "the key 'name'"),
        ('standard = "EN 1993-1-9"', 'card = "other"', "two ways to write a curve"),
        ('class = 90\nstandard = "EN 1993-1-9"', 'card = "other"', "A card stands alone"),
        ('table = "plate.csv"', 'table = "none.csv"', "no such file"),
    ],
)
def test_a_card_that_cannot_be_meant_is_refused(tmp_path, old, new, message):
    (tmp_path / "plate.csv").write_text("stress range [MPa],life [cycles]\n400,1e4\n250,1e5\n")
    (tmp_path / "plate.toml").write_text(CARD.replace(old, new))
    with pytest.raises(InputError) as caught:
        read_card(tmp_path / "plate.toml")
    assert message in str(caught.value)


def test_a_folder_that_is_not_there_is_named(tmp_path):
    with pytest.raises(InputError, match="no such folder"):
        cards_in(tmp_path / "none")
