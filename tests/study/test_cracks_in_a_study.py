"""Cracks in the study file: every shape, law, order, memory and limit reaches the crack that it describes."""

import dataclasses
import math

import pytest

from tests.study.texts import AT_LAWS, AT_ONCE, LAW, LAWS, SHAPES, TWO_SIZES, crack_key, law_key, plain_crack
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import grow_crack
from vivid_anvil.materials import fit_growth_law
from vivid_anvil.shapes import SurfaceCrack
from vivid_anvil.study import read_study, run_study

pytestmark = pytest.mark.slow


@pytest.mark.parametrize("shape", SHAPES)
def test_every_shape_can_be_written_and_grows(study, run, shape):
    path = study(plain_crack(shape, *SHAPES[shape]), AT_ONCE)
    made = read_study(path)
    result = grow_crack(made.cracks[0], made.duty_cycle)
    assert result.crack.shape.kind == shape
    assert 0.0 < result.life_years < math.inf
    assert (result.sizes[1:] > result.sizes[:-1]).all()
    assert [one.crack.shape.kind for one in result.stages] == THEN.get(shape, [shape])[: len(result.stages)]
    assert shape != "embedded" or len(result.stages) > 1
    code, out, _ = run("check", path)
    assert code == 0
    assert all(word in out for word in shape.split())


THEN = {
    "embedded": ["embedded", "surface", "centre"],
    "corner": ["corner", "edge"],
    "hole, corner": ["hole, corner", "hole"],
    "vessel, inside": ["vessel, inside", "pipe, along"],
    "pipe, around, surface": ["pipe, around, surface", "pipe, around"],
}


@pytest.mark.parametrize("form", LAWS)
def test_every_law_can_be_written_and_changes_the_rate(study, form):
    plain, law = (read_study(study(change)).cracks[0].law for change in (law_key("# as it is"), LAWS[form]))
    rates = [float(one.growth(200.0, 0.4)) for one in (plain, law)]
    assert rates[0] != rates[1] or plain.threshold_at(0.4) != law.threshold_at(0.4)
    assert 0.02 < rates[1] / rates[0] < 50.0


def test_a_law_that_is_a_table_has_no_rate_and_no_slope(study):
    start = '[growth_laws.steel_in_air]\nkind = "table"\n'
    points = 'points = [["1 MPa√m", "1e-8 mm/cycle"], ["100 MPa√m", "2e-2 mm/cycle"]]\n[growth_laws.other]\n'
    law = read_study(study((AT_LAWS, start + points))).cracks[0].law
    assert law.kind == "table"
    assert float(law.growth(10.0 * 1000.0**0.5)) == pytest.approx((1e-8 * 2e-2) ** 0.5)


EDGE = 'shape = "edge"\nplate_width = "60 mm"\ninitial_size = "1 mm"\n'


def grown(study, *lines):
    made = read_study(study((TWO_SIZES, EDGE + "\n".join([*lines, ""]))))
    return grow_crack(made.cracks[0], made.duty_cycle)


@pytest.mark.parametrize(
    "memory", ['"wheeler"', '{ kind = "wheeler", exponent = 0.5, constraint = "plane stress" }', '"constant closure"']
)
def test_memory_is_asked_for_in_words_or_with_its_numbers(study, memory):
    plain, slowed = grown(study), grown(study, f"retardation = {memory}")
    assert "closure" in memory or slowed.crack.retardation.yield_strength == 355.0  # of the material
    assert slowed.without_memory_repeats == pytest.approx(plain.life_repeats)
    assert slowed.life_repeats > plain.life_repeats


def test_limits_stops_and_later_laws_are_taken_from_the_file(study):
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


def test_points_stand_in_a_file_with_their_unit(study, tmp_path):
    """The same as in the study file itself; a column without unit is refused."""
    rows = [("0.5 mm", 1.12), ("2 mm", 1.2), ("12 mm", 2.3)]
    listed = "points = [" + ", ".join(f'["{size}", {y}]' for size, y in rows) + "]"
    in_file = tmp_path / "factors.csv"
    in_file.write_text("size [in], Y\n" + "".join(f"{float(s.split()[0]) / 25.4!r}, {y}\n" for s, y in rows))
    shapes = [
        read_study(study(plain_crack("table", keys))).cracks[0].shape for keys in (listed, 'points = "factors.csv"')
    ]
    assert shapes[1].geometry_factor([0.7, 5.0]) == pytest.approx(shapes[0].geometry_factor([0.7, 5.0]), rel=1e-12)
    for text, message in (("size, Y\n1, 1\n2, 2\n", "no unit"), ("depth [mm], Y\n1, 1\n2, 2\n", "columns 'size'")):
        in_file.write_text(text)
        with pytest.raises(InputError, match=message):
            read_study(study(plain_crack("table", 'points = "factors.csv"')))


def test_a_grid_in_a_file_is_the_grid_that_it_was_taken_from(study, tmp_path):
    known = SurfaceCrack(thickness=12.0, plate_width=150.0)
    lines = [
        f"{a}, {r}, {known.factors(a, a / r)[0]!r}, {known.factors(a, a / r)[1]!r}"
        for a in (0.5, 1.0, 2.0, 4.0, 8.0, 11.9)
        for r in (0.25, 0.3, 0.6, 1.0, 1.4)
    ]
    (tmp_path / "grid.csv").write_text(
        "depth [mm], aspect, Y at the depth, Y at the surface\n" + "\n".join(lines) + "\n"
    )
    made = read_study(study(plain_crack("grid", 'initial_half_length = "2.5 mm"', 'points = "grid.csv"'), AT_ONCE))
    crack = made.cracks[0]
    assert crack.shape.factors(2.0, 2.0 / 0.3) == pytest.approx(known.factors(2.0, 2.0 / 0.3), rel=1e-12)
    plain = dataclasses.replace(crack, shape=known, stop_size=8.0)
    lives = [grow_crack(one, made.duty_cycle).repeats[-1] for one in (dataclasses.replace(crack, stop_size=8.0), plain)]
    assert lives[0] == pytest.approx(lives[1], rel=0.03)


def test_a_later_law_may_wait_for_an_event_and_hold_cycle_by_cycle(study):
    """An event once in 40 repeats first happens in the 40th; the law then is twice as fast. In order and at once agree."""
    fast = '[growth_laws.wet]\nrate = "3.3e-11 m/cycle at 1 MPa√m"\nslope = 3\nthreshold = "2 MPa√m"\n'
    often = "occurrences = 5                        # 60 a year"
    crack = EDGE + 'later_law = "wet"\nlater_law_from = "emergency stop"\n'
    studies = [
        read_study(study((AT_LAWS, fast + AT_LAWS), (TWO_SIZES, one), (often, "occurrences = 0.025"), *order))
        for one in (crack, EDGE)
        for order in ((), (AT_ONCE,))
    ]
    grown = [grow_crack(one.cracks[0], one.duty_cycle) for one in studies]
    assert studies[0].cracks[0].later_from(studies[0].duty_cycle) == 39.0
    wet, wet_at_once, plain, at_once = grown
    assert wet.life_repeats == pytest.approx(wet_at_once.life_repeats, rel=0.01)
    assert plain.life_repeats == pytest.approx(at_once.life_repeats, rel=0.01)
    assert wet.life_repeats == pytest.approx(39.0 + 0.5 * (plain.life_repeats - 39.0), rel=0.01)
    assert wet.sizes[20] == plain.sizes[20]
    two = read_study(
        study((AT_LAWS, fast + AT_LAWS), crack_key(crack.removeprefix(EDGE)), (often, "occurrences = 0.025"))
    )
    both = grow_crack(two.cracks[0], two.duty_cycle)
    no_wet = grow_crack(dataclasses.replace(two.cracks[0], later_law=None, later_law_from=None), two.duty_cycle)
    assert both.life_repeats == pytest.approx(39.0 + 0.5 * (no_wet.life_repeats - 39.0), rel=0.01)
    at_first = read_study(study((AT_LAWS, fast + AT_LAWS), (TWO_SIZES, crack)))
    with pytest.raises(InputError, match="Make the later law the growth law"):
        grow_crack(at_first.cracks[0], at_first.duty_cycle)


TESTS = 'tests = { file = "growth_readings.csv", r_ratio = 0.1, piece = "compact tension", force_range = "4.5 kN", '
TESTS += 'thickness = "12.5 mm", width = "50 mm" }\n'


def test_a_law_may_be_fitted_to_its_tests_or_be_held_against_them(study):
    fitted = read_study(study((LAW, TESTS + 'above_mean = 2\nthreshold = "2 MPa√m"\n')))
    law, tests = fitted.cracks[0].law, fitted.growth_tests["steel_in_air"]
    mean = fit_growth_law(tests).law()
    assert law.slope == mean.slope
    assert law.constant > mean.constant
    assert (law.name, law.threshold.range) == ("steel_in_air", pytest.approx(2.0 * 1000.0**0.5))
    assert not [one for one in run_study(fitted).growths[0].findings if one.code == "law-below-tests"]
    slow = 'rate = "5e-12 m/cycle at 1 MPa√m"\nslope = 3\nthreshold = "2 MPa√m"\n'
    found = run_study(read_study(study((LAW, TESTS + slow)))).growths[0]
    assert found.tests.rates.size == tests.rates.size
    assert next(one.code for one in found.findings if one.severity == "warning") == "law-below-tests"


def test_residual_stress_of_the_weld_is_read_and_counts(study):
    """The laps are in tension throughout: what welding left in compression takes part of them out, tension hardly adds."""
    lives = []
    for stress in (-60, 0, 60):
        left = f'residual_stress = [["0 mm", "{stress} MPa"], ["3 mm", "{stress} MPa"], ["12 mm", "0 MPa"]]'
        lives.append(run_study(read_study(study(AT_ONCE, crack_key(left)))).growths[0].life_repeats)
    assert lives[0] > 1.1 * lives[1]
    assert 0.95 * lives[1] < lives[2] <= lives[1]
