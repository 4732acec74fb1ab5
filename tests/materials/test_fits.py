"""Curves fitted to tests: regression, maximum likelihood with run-outs, models compared, staircases."""

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats
from scipy.integrate import quad

from tests.reference_values import cases, series_of
from vivid_anvil.demo import write_demo
from vivid_anvil.demo.larkfell import TUBE_LEVELS, tube_tests, write_tests
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import (
    SpecimenSeries,
    compare_fits,
    fit_likelihood,
    fit_line,
    read_specimens,
    staircase,
    tolerance_of_lives,
)
from vivid_anvil.materials.fits.fit_models import Data, random_limit_likelihood

LEVELS = [320.0, 260.0, 210.0, 170.0, 140.0]


def line_tests(pieces=4, run_out=math.inf, slope=4.0, std=0.15, seed=1, levels=LEVELS):
    """Made-up tests around log10 N = 5.8 - slope log10(S / 200)."""
    rng = np.random.default_rng(seed)
    stresses = np.repeat(levels, pieces)
    lives = 10.0 ** (5.8 - slope * np.log10(stresses / 200.0) + std * rng.standard_normal(stresses.size))
    return SpecimenSeries(
        name="made up",
        stress="range",
        r_ratio=0.1,
        stresses=stresses,
        lives=np.minimum(lives, run_out),
        failed=lives < run_out,
    )


TUBE = SpecimenSeries(
    name="tube",
    stress="amplitude",
    r_ratio=-1.0,
    stresses=[row[0] for row in tube_tests()],
    lives=[row[1] for row in tube_tests()],
    failed=[not row[2] for row in tube_tests()],
)


def test_the_tests_that_are_shipped_are_those_of_the_generator(tmp_path):
    shipped = write_demo(tmp_path / "demo").parent / "tube_tests.csv"
    assert shipped.read_text() == write_tests(tmp_path).read_text()
    series = read_specimens(shipped)
    assert series.stresses.tolist() == TUBE.stresses.tolist()
    assert series.failed.tolist() == TUBE.failed.tolist()
    assert series.levels[::-1].tolist() == [level for level, _ in TUBE_LEVELS]


# ---- reading -------------------------------------------------------------------------------------------------------


def test_ranges_amplitudes_maxima_and_units_are_read_alike(tmp_path):
    rows = [(200.0, 1e5, "no"), (150.0, 1e7, "yes")]
    texts = {
        "range": "stress range [MPa],life [cycles],run-out,r_ratio\n{:g},{:g},{},0\n{:g},{:g},{},0\n",
        "amplitude": "stress amplitude [MPa],life [cycles],run-out,r_ratio\n{:g},{:g},{},0\n{:g},{:g},{},0\n",
        "maximum": "maximum stress [kN/mm^2],life [cycles],run-out,r_ratio\n{:g},{:g},{},0\n{:g},{:g},{},0\n",
    }
    found = {}
    for name, text in texts.items():
        factor = {"range": 1.0, "amplitude": 0.5, "maximum": 1e-3}[name]
        (tmp_path / "t.csv").write_text(
            text.format(*(v * factor if i % 3 == 0 else v for i, v in enumerate(sum(rows, ()))))
        )
        found[name] = read_specimens(tmp_path / "t.csv")
    assert found["range"].stress == "range"
    assert found["amplitude"].stress == found["maximum"].stress == "amplitude"
    for series in found.values():
        half = 0.5 if series.stress == "range" else 1.0
        assert half * series.stresses == pytest.approx([100.0, 75.0])
        assert series.failed.tolist() == [True, False]
        assert series.r_ratio == 0.0


def test_excel_and_a_comma_in_decimals_are_read(tmp_path):
    import pandas as pd

    frame = pd.DataFrame({"stress range [MPa]": [300.5, 200.0], "life [cycles]": [1e5, 1e6], "run-out": ["no", "yes"]})
    frame.to_excel(tmp_path / "t.xlsx", sheet_name="lab", index=False)
    series = read_specimens(tmp_path / "t.xlsx", r_ratio=0.1, sheet="lab")
    (tmp_path / "t.csv").write_text("stress range [MPa];life [cycles];run-out\n300,5;1e5;0\n200;1000000;1\n")
    other = read_specimens(tmp_path / "t.csv", r_ratio=0.1)
    assert series.stresses.tolist() == other.stresses.tolist() == [300.5, 200.0]
    assert series.failed.tolist() == other.failed.tolist() == [True, False]


HEAD = "stress range [MPa],life [cycles],run-out\n"
BAD_FILES = {
    "which stress": ("stress [MPa],life [cycles]\n1,1\n", "Say which: 'stress range [MPa]'"),
    "no unit": ("stress range,life [cycles]\n1,1\n", "found no unit"),
    "unit of force": ("stress range [kN],life [cycles]\n1,1\n", "not one of stress"),
    "no life": ("stress range [MPa]\n1\n", "and 'life [cycles]'"),
    "life in hours": ("stress range [MPa],life [h]\n1,1\n", "lives in cycles"),
    "two stresses": ("stress range [MPa],stress amplitude [MPa],life [cycles]\n2,1,1\n", "one of 'stress range'"),
    "unknown column": ("stress range [MPa],life [cycles],notes\n2,1,1\n", "one of"),
    "twice": ("stress range [MPa],life [cycles],life [cycles]\n2,1,1\n", "each column once"),
    "word": (HEAD + "300,1e5,no\n300,many,no\n", "row 2: found 'many'"),
    "gap": (HEAD + "300,,no\n", "row 1: found an empty cell"),
    "maybe": (HEAD + "300,1e5,maybe\n", "row 1, column 'run-out': found 'maybe'"),
    "zero": (HEAD + "0,1e5,no\n", "specimen 1, stress: found 0 MPa"),
    "half a cycle": (HEAD + "300,0.5,no\n", "specimen 1, life: found 0.5 cycles"),
    "two ratios": ("stress range [MPa],life [cycles],r_ratio\n300,1e5,0\n300,1e5,-1\n", "Make a file of each"),
    "other ratio": ("stress range [MPa],life [cycles],r_ratio\n300,1e5,0\n", "the R that was stated, 0.1"),
}


@pytest.mark.parametrize(("text", "message"), BAD_FILES.values(), ids=BAD_FILES)
def test_a_file_of_tests_that_cannot_be_meant_is_refused(tmp_path, text, message):
    (tmp_path / "t.csv").write_text(text)
    with pytest.raises(InputError) as caught:
        read_specimens(tmp_path / "t.csv", r_ratio=0.1)
    assert message in str(caught.value)


def test_an_r_must_be_stated_somewhere(tmp_path):
    (tmp_path / "t.csv").write_text(HEAD + "300,1e5,no\n")
    with pytest.raises(InputError, match="Add a column r_ratio, or state r_ratio"):
        read_specimens(tmp_path / "t.csv")


# ---- lines ---------------------------------------------------------------------------------------------------------


def test_without_run_outs_the_likeliest_line_is_the_regression():
    series = line_tests()
    by_squares, by_likelihood = fit_line(series), fit_likelihood(series)
    assert by_likelihood.slope == pytest.approx(by_squares.slope, rel=1e-8)
    assert by_likelihood.intercept == pytest.approx(by_squares.intercept, rel=1e-8)
    assert by_likelihood.std == pytest.approx(by_squares.std * math.sqrt(18 / 20), rel=1e-8)
    same = stats.linregress(np.log10(series.stresses), np.log10(series.lives))
    assert by_squares.slope == pytest.approx(-same.slope, rel=1e-12)
    assert by_squares.slope_test() == pytest.approx(same.pvalue, rel=1e-6)
    error = np.sqrt(by_likelihood.covariance[1, 1])  # large-sample, without n / (n - 2)
    assert error == pytest.approx(same.stderr * math.sqrt(18 / 20), rel=1e-4)


@pytest.mark.slow
@given(st.floats(0.1, 10.0), st.floats(0.1, 10.0))
@settings(max_examples=15)
def test_other_units_move_the_line_and_nothing_else(stress_factor, life_factor):
    series = line_tests(run_out=2e6)
    other = dataclasses.replace(series, stresses=series.stresses * stress_factor, lives=series.lives * life_factor)
    one, two = fit_likelihood(series), fit_likelihood(other)
    assert two.slope == pytest.approx(one.slope, rel=1e-6)
    assert two.std == pytest.approx(one.std, rel=1e-6)
    shift = math.log10(life_factor) + one.slope * math.log10(stress_factor)
    assert two.intercept == pytest.approx(one.intercept + shift, rel=1e-6)


def test_limits_of_many_tests_close_in_on_the_truth():
    series = line_tests(pieces=400)
    fit, likely = fit_line(series), fit_likelihood(series)
    true = 5.8
    for found in (fit, likely):
        assert float(np.log10(found.life(200.0, 0.95))) == pytest.approx(true - 1.6449 * 0.15, abs=0.02)
        low, high = np.log10(found.band(200.0))
        assert low < true < high < low + 0.06
    exact, large_sample = (math.log10(float(one.life(200.0, 0.95, 0.95))) for one in (fit, likely))
    assert large_sample == pytest.approx(exact, abs=0.002)


@pytest.mark.slow
@given(st.floats(140.0, 320.0), st.floats(0.55, 0.99), st.floats(0.55, 0.99))
@settings(max_examples=20)
def test_limits_are_in_their_order(stress, survival, confidence):
    for fit in (fit_line(line_tests()), fit_likelihood(line_tests(run_out=2e6))):
        assert fit.life(stress, survival, confidence) < fit.life(stress, survival) < fit.life(stress)
        lower, upper = fit.band(stress, confidence)
        assert lower < fit.life(stress) < upper


@pytest.mark.slow
def test_the_tolerance_limit_covers_as_often_as_it_says():
    rng = np.random.default_rng(5)
    limits = [
        tolerance_of_lives(10.0 ** (5.0 + 0.2 * rng.standard_normal(6)), 0.9, 0.75).life_limit for _ in range(3000)
    ]
    true = 10.0 ** (5.0 - 0.2 * stats.norm.ppf(0.9))
    assert np.mean(np.array(limits) < true) == pytest.approx(0.75, abs=0.03)


def test_the_curve_of_a_fit_is_the_fit():
    series = line_tests(run_out=2e6)
    for survival, confidence in ((0.5, None), (0.977, None), (0.95, 0.9)):
        fit = fit_likelihood(series)
        curve = fit.curve(survival_probability=survival, confidence=confidence, below="no damage")
        stresses = np.array([320.0, 200.0, 150.0, 140.0])
        assert curve.life(stresses) == pytest.approx(fit.life(stresses, survival, confidence), rel=2e-3)
        assert (curve.stress, curve.r_ratio, curve.basis) == ("range", 0.1, "tests")
        assert curve.survival_probability == survival
        assert curve.life(139.0) == math.inf


# ---- models --------------------------------------------------------------------------------------------------------


def test_the_likelihood_of_a_random_limit_is_the_integral_of_its_definition():
    theta = np.array([5.5, 1.8, math.log(0.1), -0.05, math.log(0.03)])
    data = Data(np.array([0.08, 0.0, -0.03]), np.array([5.6, 6.4, 6.7]), np.array([True, True, False]), 2.3)

    def term(u, y, failed):
        def inner(v):
            mean = 5.5 - 1.8 * math.log10(10.0**u - 10.0**v)
            z = (y - mean) / 0.1
            return stats.norm.pdf(v, -0.05, 0.03) * (stats.norm.pdf(z) / 0.1 if failed else stats.norm.cdf(z))

        value = quad(inner, -0.05 - 0.24, min(u, -0.05 + 0.24) - 1e-12, limit=400, epsabs=1e-12)[0]
        return math.log(value if failed else 1.0 - value)

    exact = sum(term(*row) for row in zip(data.u, data.y, data.failed, strict=True))
    assert random_limit_likelihood(theta, data) == pytest.approx(exact, rel=1e-7)


@pytest.mark.slow
def test_the_tube_has_a_random_limit_near_that_of_its_generator():
    fits, refused = compare_fits(TUBE)
    assert next(iter(fits)) == "random limit"
    assert refused == {}
    fit = fits["random limit"]
    assert fit.limit() == pytest.approx(199.0, rel=0.08)
    assert fit.limit(0.95) < fit.limit() < fit.limit(0.05)
    assert float(fit.life(300.0)) == pytest.approx(10 ** (7.75 - 1.25 * math.log10(300.0 - 199.0)), rel=0.2)
    # at the median limit half of the specimens never fail
    assert float(fit.life(fit.limit() * 0.999)) == math.inf
    assert fit.aic == pytest.approx(2 * 5 - 2 * fit.log_likelihood)
    for name, other in fits.items():
        assert other.curve(survival_probability=0.9).survival_probability == 0.9, name


@pytest.mark.slow
def test_the_curve_with_confidence_of_a_random_limit_lies_below_that_without():
    fit = fit_likelihood(TUBE, "random limit")
    plain, sure = (fit.curve(survival_probability=0.9, confidence=value) for value in (None, 0.9))
    assert (sure.life([280.0, 230.0, 200.0]) < plain.life([280.0, 230.0, 200.0])).all()
    assert sure.limit < plain.limit
    assert plain.life([280.0, 230.0, 200.0]) == pytest.approx(fit.life([280.0, 230.0, 200.0], 0.9), rel=0.02)
    lower, upper = fit.band(np.array([260.0, 190.0]))
    assert (lower < fit.life([260.0, 190.0])).all()
    assert (upper > fit.life([260.0, 190.0])).all()


@pytest.mark.slow
def test_two_slopes_are_found_again():
    rng = np.random.default_rng(3)
    stresses = np.repeat([300.0, 260.0, 230.0, 200.0, 180.0, 160.0, 140.0], 12)
    slopes = np.where(stresses > 205.0, 3.0, 9.0)
    lives = 10.0 ** (6.0 + slopes * np.log10(205.0 / stresses) + 0.08 * rng.standard_normal(stresses.size))
    series = SpecimenSeries(
        name="knee", stress="range", r_ratio=0.1, stresses=stresses, lives=lives, failed=np.ones(stresses.size, bool)
    )
    fit = fit_likelihood(series, "two slopes")
    found = fit.described()
    assert found["knee stress [MPa]"] == pytest.approx(205.0, rel=0.03)
    assert found["slope m"] == pytest.approx(3.0, abs=0.4)
    assert found["slope m below the knee"] == pytest.approx(9.0, abs=0.6)
    fits, _ = compare_fits(series)
    assert next(iter(fits)) == "two slopes"
    assert "not-straight" in [finding.code for finding in fit_line(series).findings]


def test_a_sharp_limit_lies_where_all_ran_out():
    series = line_tests(pieces=5, levels=[320.0, 260.0, 210.0])
    below = dataclasses.replace(
        series,
        stresses=np.append(series.stresses, [190.0] * 3),
        lives=np.append(series.lives, [1e7] * 3),
        failed=np.append(series.failed, [False] * 3),
    )
    fit = fit_likelihood(below, "sharp limit")
    assert fit.limit() == 190.0
    assert fit.slope == pytest.approx(fit_likelihood(series).slope)
    assert fit.life([189.0, 190.0])[0] == math.inf
    assert "limit-in-a-gap" in [finding.code for finding in fit.findings]
    assert fit.curve().below == "no damage"


BAD_FITS = {
    "run-outs": (lambda: fit_line(line_tests(run_out=2e6)), "model 'line'"),
    "one level": (lambda: fit_line(line_tests(levels=[200.0])), "failures at one stress only, 200 MPa"),
    "two tests": (lambda: fit_line(line_tests(pieces=1, levels=[300.0, 200.0])), "at least 3"),
    "rising": (lambda: fit_line(line_tests(slope=-4.0)), "Are the columns exchanged"),
    "rising with run-outs": (lambda: fit_likelihood(line_tests(slope=-4.0, run_out=1e25)), "lives that rise"),
    "only run-outs": (lambda: fit_likelihood(line_tests(run_out=1e2)), "0 specimens that failed"),
    "calculated": (lambda: fit_likelihood(line_tests(std=0.0)), "Are they calculated lives"),
    "model": (lambda: fit_likelihood(line_tests(), "lines"), "Did you mean 'line'"),
    "no limit": (lambda: fit_likelihood(line_tests(), "sharp limit"), "failures down to the lowest level, 140 MPa"),
    "few levels": (lambda: fit_likelihood(line_tests(levels=[300.0, 250.0, 200.0]), "two slopes"), "at least four"),
    "no random limit": (
        lambda: fit_likelihood(series_of(cases("SL-B-fit-runouts-02")[0]["inputs"]), "random limit"),
        "failures and run-outs at the same levels",
    ),
    "survival": (lambda: fit_line(line_tests()).life(200.0, 95), "Write 95 % as 0.95"),
    "confidence": (lambda: fit_line(line_tests()).life(200.0, 0.9, 0.0), "between 0 and 1"),
    "one life": (lambda: tolerance_of_lives([1e5], 0.9, 0.9), "at least two"),
    "outcomes": (lambda: dataclasses.replace(TUBE, failed=[1] * len(TUBE)), "True or False"),
    "lengths": (lambda: dataclasses.replace(TUBE, lives=[1e5]), "one of each"),
}


@pytest.mark.slow
@pytest.mark.parametrize(("make", "message"), BAD_FITS.values(), ids=BAD_FITS)
def test_what_the_tests_do_not_carry_is_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


@pytest.mark.parametrize(
    ("code", "series"),
    [
        ("few-specimens", line_tests(pieces=1)),
        ("few-levels", line_tests(levels=[300.0, 200.0])),
        ("few-replicates", line_tests(pieces=1)),
        ("no-slope", line_tests(pieces=2, slope=1.0, std=0.5, levels=[300.0, 290.0], seed=3)),
        ("low-cycle-tests", line_tests(levels=[1200.0, 900.0, 600.0])),
        ("hidden-run-outs", dataclasses.replace(TUBE, failed=np.ones(len(TUBE), bool))),
    ],
)
def test_an_expert_would_say_of_the_tests(code, series):
    assert code in [finding.code for finding in fit_line(series).findings]


def test_an_early_stop_is_found():
    early = dataclasses.replace(TUBE, lives=np.where(TUBE.failed, TUBE.lives, 1e5))
    assert "early-run-outs" in [finding.code for finding in fit_likelihood(early).findings]


# ---- staircases ----------------------------------------------------------------------------------------------------


def made_staircase(pieces, seed=2, mean=300.0, std=12.0, step=10.0):
    rng = np.random.default_rng(seed)
    stress, rows = 300.0, []
    for _ in range(pieces):
        failed = bool(stress > mean + std * rng.standard_normal())
        rows.append((stress, failed))
        stress += -step if failed else step
    return SpecimenSeries(
        name="stairs",
        stress="amplitude",
        r_ratio=-1,
        stresses=[row[0] for row in rows],
        lives=[1e6 if row[1] else 1e7 for row in rows],
        failed=[row[1] for row in rows],
    )


def test_both_evaluations_of_a_long_staircase_find_mean_and_scatter():
    result = staircase(made_staircase(400))
    assert result.dixon_mood.mean == pytest.approx(300.0, abs=2.0)
    assert result.probit.mean == pytest.approx(300.0, abs=2.0)
    assert result.dixon_mood.std == pytest.approx(12.0, rel=0.25)
    assert result.probit.std == pytest.approx(12.0, rel=0.25)
    assert result.probit.mean_error == pytest.approx(12.0 / math.sqrt(400), rel=0.5)
    assert result.probit.strength(0.9, 0.9) < result.probit.strength(0.9) < result.probit.mean
    assert result.life == 1e7
    assert result.findings == ()


@pytest.mark.slow
@given(st.integers(8, 40), st.integers(0, 50), st.floats(0.1, 10.0))
@settings(max_examples=30)
def test_a_staircase_in_other_units_is_the_same(pieces, seed, factor):
    series = made_staircase(pieces, seed)
    if not 0 < series.runouts < pieces:
        return
    one, two = staircase(series), staircase(dataclasses.replace(series, stresses=series.stresses * factor))
    assert two.dixon_mood.mean == pytest.approx(factor * one.dixon_mood.mean)
    assert two.dixon_mood.std == pytest.approx(factor * one.dixon_mood.std)
    assert (one.probit is None) == (two.probit is None)
    if one.probit is not None:
        assert two.probit.mean == pytest.approx(factor * one.probit.mean, rel=1e-5)
        assert two.probit.std == pytest.approx(factor * one.probit.std, rel=1e-4)


def test_staircases_that_tell_little_are_found():
    narrow = staircase(made_staircase(12, std=0.01, step=10.0))
    assert narrow.probit is None
    codes = [finding.code for finding in narrow.findings]
    assert {"few-specimens", "steps-too-wide", "no-overlap"} <= set(codes)
    assert "step-size" in [finding.code for finding in staircase(made_staircase(300, std=60.0)).findings]


def test_a_staircase_that_breaks_its_rule_is_refused():
    series = made_staircase(10)
    jumped = series.stresses.copy()
    jumped[4:] += 20.0
    with pytest.raises(InputError, match=r"specimen 5: found .* after a"):
        staircase(dataclasses.replace(series, stresses=jumped))
    with pytest.raises(InputError, match="one outcome only"):
        staircase(dataclasses.replace(series, failed=np.ones(10, bool)))
