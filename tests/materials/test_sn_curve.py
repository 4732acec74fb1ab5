"""S-N curves of every form: inverses, ends, conversions, export, and what is refused."""

import dataclasses
import math
import tomllib
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.by_hand import by_hand
from tests.materials.curves import POINTS, SETTINGS, curves, knees, table
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import (
    SNCurve,
    at_survival,
    basquin_curve,
    chosen_lives,
    curve_working,
    detail_curve,
    in_terms_of,
    intercept_curve,
    knee_curve,
    read_points,
    section_text,
    sloped_curve,
    straight_curve,
    stress_table,
    table_curve,
)
from vivid_anvil.study.curve_keys import Source, curve_keys, curve_of

share = st.floats(0.0, 1.0)
KEYS = TypeAdapter(curve_keys())


@given(curves, share)
def test_life_and_stress_are_inverses(curve, place):
    high, low = float(curve.point_stresses[0]), float(curve.point_stresses[-1])
    stress = low * (high / low) ** place
    assert float(curve.stress_at(curve.life(stress))) == pytest.approx(stress, rel=1e-11)
    first, last = curve.point_lives[[0, -1]]
    life = first * (last / first) ** place
    assert float(curve.life(curve.stress_at(life))) == pytest.approx(life, rel=1e-9)


@given(curves, st.floats(1e-3, 3e3), st.floats(1.0001, 3.0))
def test_a_higher_stress_never_lives_longer(curve, stress, factor):
    assert curve.life(factor * stress) <= curve.life(stress) * (1.0 + 1e-12)


@pytest.mark.slow
@given(curves, st.lists(st.floats(0.0, 2e3), min_size=1, max_size=20))
def test_many_stresses_at_once_are_as_one_by_one(curve, stresses):
    together = curve.life(np.array(stresses).reshape(-1, 1))
    assert together.ravel() == pytest.approx([float(curve.life(one)) for one in stresses], rel=1e-14)
    with np.errstate(divide="ignore"):
        exact = (1.0 / together).sum()
    assert curve.damage_of(np.array(stresses)) == pytest.approx(exact, rel=1e-12, abs=1e-300)


@given(curves, st.floats(1.0, 1e3))
def test_range_and_amplitude_are_the_same_curve(curve, stress):
    other = in_terms_of(curve, "amplitude")
    assert float(other.life(0.5 * stress)) == pytest.approx(float(curve.life(stress)), rel=1e-12)
    assert np.array(in_terms_of(other, "range").points) == pytest.approx(np.array(curve.points))


@given(curves)
def test_a_curve_written_down_reads_back_equal(curve):
    section = tomllib.loads(section_text(curve, "mine"))["sn_curves"]["mine"]
    again = curve_of("weld", KEYS.validate_python(section), Source(Path(), lambda card, name: curve))
    lives = np.geomspace(1e3, 1e9, 13)
    assert again.stress_at(lives) == pytest.approx(curve.stress_at(lives), rel=1e-12)
    for field in ("stress", "r_ratio", "tested_from", "tested_to", "above", "below", "basis", "component"):
        assert getattr(again, field) == getattr(curve, field), field


def test_what_holds_beyond_the_ends():
    held = table("hold", "hold")
    assert held.life([1000.0, 400.0, 150.0, 1.0, 0.0]).tolist() == pytest.approx([1e4, 1e4, 1e7, 1e7, math.inf])
    assert held.stress_at([1e3, 1e4, 1e7, 1e8]).tolist() == [math.inf, 400.0, 150.0, 0.0]
    limited = table("extend", "no damage")
    assert limited.life([149.999, 150.0]).tolist() == [math.inf, 1e7]
    assert limited.stress_at([1e7, 1e12, math.inf]).tolist() == [150.0, 150.0, 150.0]
    assert limited.life(500.0) == pytest.approx(1e4 * (400 / 500) ** (math.log(10) / math.log(1.6)))
    extended = table("hold", "extend", "semi-log")
    assert extended.stress_at(1e30) == 0.0
    assert knee_curve(**SETTINGS, knee_stress=52.0, knee_life=1e7, slope=3, slope_below=math.inf).has_limit


@given(knees)
def test_one_curve_by_knee_intercepts_points_and_slopes(curve):
    (stress, life), slope, below = curve.points[0], float(curve.above), float(curve.below)
    if below <= slope + 1e-6:
        return
    logs = [math.log10(life) + m * math.log10(stress / 6.894757293168361) for m in (slope, below)]
    by_intercepts = intercept_curve(**SETTINGS, log_a=logs, slopes=[slope, below], unit="ksi")
    shorter = (stress * 10.0 ** (1.0 / slope), life / 10.0)
    by_points = table_curve(**SETTINGS, points=[shorter, (stress, life)], above="extend", below=below)
    by_slopes = sloped_curve(**SETTINGS, knee_stress=stress, knee_lives=[life], slopes=[slope, below])
    asked = stress * np.array([0.4, 0.9, 1.1, 3.0])
    for other in (by_intercepts, by_points, by_slopes):
        assert other.life(asked) == pytest.approx(curve.life(asked), rel=1e-6)


def test_reversals_and_cycles_are_told_apart():
    settings = {"name": "s", "stress": "amplitude", "r_ratio": -1, "coefficient": "900 MPa", "exponent": -0.1}
    reversals, cycles = (basquin_curve(**settings, counted_in=kind) for kind in ("reversals", "cycles"))
    assert cycles.life(300.0) / reversals.life(300.0) == pytest.approx(2.0)
    assert by_hand(reversals.steps[0].numbers) == pytest.approx(reversals.steps[0].value, rel=2e-6)


@given(curves, st.floats(5.0, 1e3))
def test_the_local_slope_is_the_derivative(curve, stress):
    near = np.log(curve.life(stress * np.array([1.0 - 1e-6, 1.0 + 1e-6])))
    edges = curve.point_stresses / stress
    if np.isfinite(near).all() and (np.abs(edges - 1.0) > 1e-5).all():
        assert curve.slope_at(stress) == pytest.approx(-(near[1] - near[0]) / 2e-6, rel=1e-4, abs=1e-4)


@given(curves, st.floats(0.02, 0.98), st.floats(0.05, 0.5))
def test_survival_probability_there_and_back(curve, probability, spread):
    median = dataclasses.replace(curve, survival_probability=0.5, log_life_std=spread)
    try:
        back = at_survival(at_survival(median, probability), 0.5)
    except InputError as error:
        assert "fatigue limit below the point before it" in str(error)  # noqa: PT017
        return
    assert np.array(back.points) == pytest.approx(np.array(median.points), rel=1e-9)


def test_a_fatigue_limit_falls_with_the_survival_probability():
    limit = knee_curve(
        name="l", stress="amplitude", r_ratio=-1, knee_stress=200.0, knee_life=1e6, slope=5, slope_below=math.inf,
        survival_probability=0.5, log_life_std=0.2,
    )  # fmt: skip
    safer = at_survival(limit, 0.977)
    factor = 10 ** (-0.2 * 1.9953933101678247)  # the normal quantile of 0.977
    assert safer.limit == pytest.approx(200.0 * factor**0.2)
    assert safer.points[0][1] == 1e6
    assert safer.life(300.0) == pytest.approx(float(limit.life(300.0)) * factor)
    assert by_hand(safer.steps[0].numbers) == pytest.approx(factor, rel=1e-6)


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize(
    "curve",
    [
        table("extend", "extend"),
        table("extend", "hold", "semi-log"),
        table("hold", "no damage", "linear"),
        table("hold", "hold", "linear", points=[(400.0, 2e6), (300.0, 3e6)]),
        detail_curve("IIW steel", 90, thickness="40 mm", thickness_exponent=0.2, partial_factor=1.25),
    ],
    ids=["log-log", "semi-log", "linear", "held", "class"],
)
def test_each_line_of_a_curves_working_gives_its_printed_value(curve, units):
    working = curve_working(curve, units)
    assert working.steps
    for step in working.steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-6), step.title


BAD_FORMS = {
    "one point": (lambda: table(points=POINTS[:1]), "at least two"),
    "no points": (lambda: SNCurve(**SETTINGS, points=(), above=3, below=5), "pairs of stress and life"),
    "repeated point": (lambda: table(points=[POINTS[0], POINTS[0], POINTS[1]]), "points 1 and 2: found the same point"),
    "two lives": (lambda: table(points=[*POINTS, (150.0, 1e8)]), "points 4 and 5: found one stress with two lives"),
    "rising": (lambda: table(points=[*POINTS, (160.0, 1e8)]), "points 4 and 5: found a life that rises with stress"),
    "from low to high": (lambda: table(points=POINTS[::-1]), "points 1 and 2: found rows from low stress to high"),
    "zero stress": (lambda: table(points=[*POINTS, (0.0, 1e8)]), "point 5: found 0 MPa"),
    "negative stress": (lambda: table(points=[*POINTS, (-10.0, 1e8)]), "point 5: found -10 MPa"),
    "nan": (lambda: table(points=[*POINTS, (float("nan"), 1e8)]), "point 5"),
    "life below one": (lambda: table(points=[(500.0, 0.3), *POINTS]), "at least 1 cycle"),
    "life as logarithm": (lambda: table(points=[(500.0, 0.9), *POINTS]), "Is it the logarithm"),
    "not a pair": (lambda: table(points=[(500.0,), *POINTS]), "point 1: found (500.0,)"),
    "unknown end": (lambda: table(below="limit"), "one of 'extend', 'hold', 'no damage'"),
    "no damage above": (lambda: table(above="no damage"), "one of 'extend', 'hold'"),
    "linear extended": (lambda: table("hold", "extend", "linear"), "'hold' or 'no damage'"),
    "slope on semi-log": (lambda: table("hold", 5.0, "semi-log"), "A slope is log-log"),
    "unknown lines": (lambda: table(interpolation="cubic"), "one of 'log-log', 'semi-log', 'linear'"),
    "one point extended": (
        lambda: SNCurve(**SETTINGS, points=[(100.0, 1e6)], above="extend", below=3), "One point has no line",
    ),
    "steeper below": (lambda: table(below=1.5), "at least the slope above the knee"),
    "slopes and knees": (
        lambda: sloped_curve(**SETTINGS, knee_stress=50.0, knee_lives=[1e6], slopes=[3]), "one slope more than knees",
    ),
    "falling slopes": (
        lambda: sloped_curve(**SETTINGS, knee_stress=50.0, knee_lives=[1e6, 1e8], slopes=[5, 3, 9]), "get no smaller",
    ),
    "falling knees": (
        lambda: sloped_curve(**SETTINGS, knee_stress=50.0, knee_lives=[1e8, 1e6], slopes=[3, 5, 9]), "lives that rise",
    ),
    "exponent among slopes": (
        lambda: sloped_curve(**SETTINGS, knee_stress=50.0, knee_lives=[1e6], slopes=[-0.2, 9]), "the slope is 5",
    ),
    "intercept itself": (
        lambda: intercept_curve(**SETTINGS, log_a=[1e12], slopes=[3], unit="MPa"), "Is it A itself",
    ),
    "lines that never meet": (
        lambda: intercept_curve(**SETTINGS, log_a=[12.0, 30.0], slopes=[3, 3.1], unit="MPa"), "same unit",
    ),
    "slopes that fall": (
        lambda: intercept_curve(**SETTINGS, log_a=[12.0, 16.0], slopes=[5, 3], unit="MPa"), "slopes that rise",
    ),
    "intercept missing": (
        lambda: intercept_curve(**SETTINGS, log_a=[12.0], slopes=[3, 5], unit="MPa"), "one for each slope",
    ),
    "slope for exponent": (
        lambda: basquin_curve(**SETTINGS, coefficient=900.0, exponent=8.0, counted_in="cycles"), "exponent is -0.125",
    ),
    "exponent without sign": (
        lambda: basquin_curve(**SETTINGS, coefficient=900.0, exponent=0.1, counted_in="cycles"), "Write -0.1",
    ),
    "half cycles": (
        lambda: basquin_curve(**SETTINGS, coefficient=900.0, exponent=-0.1, counted_in="halves"), "'reversals'",
    ),
    "survival in percent": (lambda: at_survival(table(survival_probability=0.5), 97.7), "Write 97.7 % as 0.977"),
    "survival unknown": (lambda: at_survival(table(), 0.9), "no survival_probability and no log_life_std"),
    "scatter of ln": (lambda: table(log_life_std=30.0), "Is it that of the natural logarithm"),
    "mean without fixed": (lambda: table(mean_stress="100 MPa"), "for tests at one mean stress"),
    "fixed without mean": (lambda: table(r_ratio="fixed mean"), "without mean_stress"),
    "component": (lambda: table(component="bending"), "'normal', 'shear'"),
    "basis": (lambda: table(basis="guess"), "'estimate'"),
    "negative range": (lambda: table().life(-5.0), "A range or an amplitude has no sign"),
    "nan asked": (lambda: table().life([1.0, float("nan")]), "stress 1: found nan MPa"),
    "life of zero asked": (lambda: table().stress_at([1e5, 0.0]), "life 1: found 0 cycles"),
    "table of halves": (lambda: stress_table([table()], [0.5]), "at least 1 cycle"),
    "same name twice": (lambda: stress_table([table(), table()], [1e5]), "a different name for each"),
    "terms": (lambda: in_terms_of(table(), "peak"), "'range', 'amplitude'"),
}  # fmt: skip


@pytest.mark.parametrize(("make", "message"), BAD_FORMS.values(), ids=BAD_FORMS)
def test_what_cannot_be_meant_is_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


@pytest.mark.parametrize(
    ("stress", "unit"), [(52e6, "Pa"), (52e3, "kPa"), (30e3, "psi"), (0.052, "GPa"), (0.08, "GPa")]
)
def test_stresses_of_another_unit_are_found(stress, unit):
    curve = straight_curve(**SETTINGS, point_stress=stress, point_life=1e6, slope=3)
    (finding,) = curve.findings
    assert finding.code == "curve-unit"
    assert unit in finding.advice
    assert not straight_curve(**SETTINGS, point_stress=52.0, point_life=1e6, slope=3).findings


def test_a_table_to_copy_has_its_unit_and_the_lives_asked_for():
    rows = stress_table([table(), in_terms_of(detail_curve("EN 1993-1-9", 71), "amplitude")], [1e5, 2e6], "ksi").rows()
    assert list(rows[0]) == [
        "life [cycles]", "weld: stress range, any R [ksi]", "EN 1993-1-9, 71: stress amplitude, any R [ksi]",
    ]  # fmt: skip
    assert rows[0]["weld: stress range, any R [ksi]"] == pytest.approx(250.0 / 6.894757293168361)
    assert rows[1]["EN 1993-1-9, 71: stress amplitude, any R [ksi]"] == pytest.approx(35.5 / 6.894757293168361)
    assert {1e4, 1e7, 1e8} <= set(chosen_lives(table()))


@pytest.mark.parametrize("decimal", ["comma", "point"])
def test_points_come_from_a_file(tmp_path, decimal):
    path = tmp_path / "curve.csv"
    text = "stress amplitude [ksi],life [cycles]\n58.0,1e4\n36.3,1e5\n"
    path.write_text(text if decimal == "point" else text.replace(",", ";").replace(".", ","))
    stress, found, told = read_points(path)
    assert told == "curve.csv: stress amplitude [ksi], life [cycles]"
    assert stress == "amplitude"
    assert np.array(found) == pytest.approx(
        np.array([[58.0 * 6.894757293168361, 1e4], [36.3 * 6.894757293168361, 1e5]])
    )


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("stress [MPa],life [cycles]\n1,2\n", "'stress range [MPa]' (maximum - minimum)"),
        ("stress range,life [cycles]\n1,2\n", "no unit"),
        ("stress range [MPa],life [h]\n1,2\n", "lives in cycles"),
        ("stress range [MPa],life [cycles]\n400,1e4\nmany,1e5\n", "row 2"),
        ("stress range [MPa],life [cycles]\n", "at least one row"),
        ("stress range [MPa],life [cycles]\n400,1e4,3\n400\n1,2,3,4\n", "as many cells"),
    ],
)
def test_a_file_of_points_that_cannot_be_meant_is_refused(tmp_path, text, message):
    (tmp_path / "curve.csv").write_text(text)
    with pytest.raises(InputError) as caught:
        read_points(tmp_path / "curve.csv")
    assert message in str(caught.value)
