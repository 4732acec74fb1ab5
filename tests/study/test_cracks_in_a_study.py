"""Cracks in the study file: every shape, law, order, memory and limit reaches the crack that it describes."""

import math

import pytest

from tests.study.test_study_file import AT_LAWS, TWO_SIZES, law_key, plain_crack, study  # noqa: F401
from vivid_anvil.cracks import grow_crack
from vivid_anvil.study import read_study

PLATE = ('thickness = "12 mm"', 'plate_width = "150 mm"', 'initial_half_length = "2.5 mm"')
SHAPES = {
    "edge": ('plate_width = "60 mm"', "bending_share = 0.4"),
    "centre": ('plate_width = "60 mm"',),
    "double edge": ('plate_width = "60 mm"',),
    "hole": ('radius = "3 mm"', "cracks = 1", 'plate_width = "60 mm"'),
    "pipe, around": ('radius = "50 mm"', 'wall = "5 mm"', "bending_share = 0.5"),
    "pipe, along": ('radius = "50 mm"', 'wall = "5 mm"'),
    "round bar": ('diameter = "30 mm"',),
    "round bar, surface": ('diameter = "30 mm"', "bending_share = 0.2"),
    "table": ('points = [["0.5 mm", 1.12], ["2 mm", 1.2], ["5 mm", 1.45], ["12 mm", 2.3]]',),
    "corner": PLATE,
    "hole, corner": (*PLATE, 'radius = "8 mm"', "cracks = 1"),
    "embedded": PLATE,
    "vessel, inside": ('thickness = "12 mm"', 'radius = "100 mm"', 'initial_half_length = "2.5 mm"'),
    "pipe, around, surface": ('radius = "200 mm"', 'wall = "12 mm"', 'initial_half_length = "2.5 mm"'),
}


@pytest.mark.parametrize("shape", SHAPES)
def test_every_shape_can_be_written_and_grows(study, run, shape):  # noqa: F811
    path = study(plain_crack(shape, *SHAPES[shape]), AT_ONCE)
    made = read_study(path)
    result = grow_crack(made.cracks[0], made.duty_cycle)
    assert result.crack.shape.kind == shape
    assert 0.0 < result.life_years < math.inf
    assert (result.sizes[1:] > result.sizes[:-1]).all()
    code, out, _ = run("check", path)
    assert code == 0
    assert all(word in out for word in shape.split())


AT_ONCE = ('order = "cycle by cycle"', 'order = "per repeat"')
LAWS = {
    "walker": 'form = "walker"\nvalues = { gamma = 0.6 }',
    "two-stage": 'form = "two-stage"\nvalues = { rate_2 = "5e-13 with mm/cycle and MPa√mm", slope_2 = 2.9 }',
    "effective range": 'form = "effective range"\nvalues = { open_0 = 0.5, open_1 = 0.4, open_2 = 0.0 }',
    "threshold over R": 'threshold_model = "power of 1 - R"\nthreshold_exponent = 0.5',
    "steps": 'threshold_model = "steel, steps"\nscatter = "mean + 2 standard deviations"',
}


@pytest.mark.parametrize("form", LAWS)
def test_every_law_can_be_written_and_changes_the_rate(study, form):  # noqa: F811
    plain, law = (read_study(study(change)).cracks[0].law for change in (law_key("# as it is"), law_key(LAWS[form])))
    rates = [float(one.growth(200.0, 0.4)) for one in (plain, law)]
    assert rates[0] != rates[1] or plain.threshold_at(0.4) != law.threshold_at(0.4)
    assert 0.02 < rates[1] / rates[0] < 50.0


def test_a_law_that_is_a_table_has_no_rate_and_no_slope(study):  # noqa: F811
    start = '[growth_laws.steel_in_air]\nform = "table"\n'
    points = (
        'values = { points = [["1 MPa√m", "1e-8 mm/cycle"], ["100 MPa√m", "2e-2 mm/cycle"]] }\n[growth_laws.other]\n'
    )
    law = read_study(study((AT_LAWS, start + points))).cracks[0].law
    assert law.form == "table"
    assert float(law.growth(10.0 * 1000.0**0.5)) == pytest.approx((1e-8 * 2e-2) ** 0.5)


EDGE = 'shape = "edge"\nplate_width = "60 mm"\ninitial_size = "1 mm"\n'


def grown(study, *lines):  # noqa: F811
    made = read_study(study((TWO_SIZES, EDGE + "\n".join([*lines, ""]))))
    return grow_crack(made.cracks[0], made.duty_cycle)


@pytest.mark.parametrize(
    "memory", ['"wheeler"', '{ kind = "wheeler", exponent = 0.5, constraint = "plane stress" }', '"constant closure"']
)
def test_memory_is_asked_for_in_words_or_with_its_numbers(study, memory):  # noqa: F811
    plain, slowed = grown(study), grown(study, f"retardation = {memory}")
    assert slowed.crack.retardation.yield_strength == slowed.crack.hot_spot.material.yield_strength
    assert slowed.without_memory_repeats == pytest.approx(plain.life_repeats)
    assert slowed.life_repeats > plain.life_repeats


def test_limits_stops_and_later_laws_are_taken_from_the_file(study):  # noqa: F811
    plain = grown(study)
    chosen = grown(study, 'stop_size = "5 mm"')
    assert (chosen.governed_by, chosen.final_size) == ("chosen size", 5.0)
    assert chosen.life_repeats < plain.life_repeats
    assessed = grown(study, 'limits = "assessment curve"', 'youngs_modulus = "210 GPa"')
    assert assessed.governed_by == "assessment curve"
    assert assessed.crack.youngs_modulus == 210000.0
    fast = '[growth_laws.wet]\nrate = "3.3e-11 m/cycle at 1 MPa√m"\nslope = 3\nthreshold = "2 MPa√m"\n'
    later = 'later_law = "wet"\nlater_law_from = "2 years"\n'
    made = read_study(study((AT_LAWS, fast + AT_LAWS), (TWO_SIZES, EDGE + later), AT_ONCE))
    wet = grow_crack(made.cracks[0], made.duty_cycle)
    assert wet.life_years == pytest.approx(2.0 + 0.5 * (plain.life_years - 2.0), rel=5e-3)
