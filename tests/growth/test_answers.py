"""What is asked of a growing crack: when to look, how large it may start, other loads, later laws, memory, two sizes."""

import dataclasses
import json
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.growth.plates import LAW, STEEL, codes, crack, loads, programme
from tests.spots import changed
from vivid_anvil import growth as gr
from vivid_anvil import materials as mt
from vivid_anvil import shapes as sh
from vivid_anvil.damage import assess_life
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.initial_sizes import of_size
from vivid_anvil.growth.sequence import sequence, without_idle
from vivid_anvil.materials import FormanLaw, FormanMettuLaw, ParisLaw, WalkerLaw, straight_curve
from vivid_anvil.study import total_life

PLATE = sh.SurfaceCrack(thickness=12.0, plate_width=150.0)
SLOW = dataclasses.replace(LAW, threshold=0.0)


def memory_of(kind, **numbers):
    """A model of retardation, with those of the numbers that it has."""
    model = gr.RETARDATIONS[kind]
    given = {"yield_strength": 355.0, **numbers}
    return model(**{key: one for key, one in given.items() if key in model.__dataclass_fields__})


def surface(**settings):
    given = {"shape": PLATE, "initial_half_length": 2.5, "law": SLOW}
    return crack(**(given | settings))


# ---- inspections ---------------------------------------------------------------------------------------------------


def test_a_plan_looks_often_enough_and_says_what_it_sees():
    result = gr.grow_crack(crack(detectable_size="3 mm", inspection_factor=4), loads())
    plan = gr.inspection_plan(result)
    assert plan.interval_repeats == plan.allowed_repeats == result.interval_repeats
    assert plan.chances in (3, 4)
    assert plan.first_repeats <= np.interp(3.0, result.sizes, result.repeats) + plan.interval_repeats
    assert plan.at_repeats[-1] < result.life_repeats <= plan.at_repeats[-1] + plan.interval_repeats
    rows = plan.rows()
    assert [row["can be found"] for row in rows] == [row["expected size [mm]"] >= 3.0 for row in rows]
    there = np.interp(np.log([row["expected size [mm]"] for row in rows]), np.log(result.sizes), result.repeats)
    assert there == pytest.approx(plan.at_repeats, rel=1e-6)


@pytest.mark.slow
@given(st.floats(0.05, 1.0), st.floats(1.0, 8.0))
def test_the_chances_between_detectable_and_critical_are_at_least_the_whole_part_of_the_factor(share, factor):
    flaw = crack(detectable_size=1.0 + 10.0 * share, inspection_factor=factor)
    plan = gr.inspection_plan(gr.grow_crack(flaw, loads()))
    assert plan.chances >= math.floor(factor + 1e-9) - 1
    assert not plan.findings or plan.chances == 0


PLANS = [("inspections-rare", "0.02 years", 1), ("inspections-miss", "80 years", 0)]


@pytest.mark.parametrize(("code", "every", "chances"), PLANS)
def test_a_plan_that_looks_too_rarely_is_told(code, every, chances):
    result = gr.grow_crack(crack(detectable_size="8 mm"), loads(cycles=20000))
    plan = gr.inspection_plan(result, every=every)
    assert [one.code for one in plan.findings] == [code]
    assert plan.chances >= chances


NO_PLANS = {
    "no detectable size": (crack(), loads(), {}, "no detectable size"),
    "no growth": (crack(detectable_size="3 mm"), loads(20.0, 10.0), {}, "does not grow"),
    "too late": (crack(detectable_size="40 mm"), loads(), {}, "below it"),
    "interval in kN": (crack(detectable_size="3 mm"), loads(), {"every": "3 kN"}, "every: found '3 kN'"),
    "first of nothing": (crack(detectable_size="3 mm"), loads(), {"first": 0.0}, "first"),
}


@pytest.mark.parametrize(("flaw", "duty", "asked", "message"), NO_PLANS.values(), ids=NO_PLANS)
def test_a_plan_that_makes_no_sense_is_refused(flaw, duty, asked, message):
    with pytest.raises(InputError, match=message):
        gr.inspection_plan(gr.grow_crack(flaw, duty), **asked)


# ---- sizes and loads -----------------------------------------------------------------------------------------------


@pytest.mark.slow
@pytest.mark.parametrize("flaw", [crack(), surface()], ids=["edge", "surface"])
def test_the_size_that_just_lasts_lasts_just(flaw):
    result = gr.grow_crack(flaw, loads(), target="10 years")
    found = gr.lives_over_size(result, ["0.5 mm", "1 mm", "3 mm"])
    assert (np.diff(found.repeats) < 0.0).all()
    assert found.repeats[1] == pytest.approx(result.life_repeats, rel=1e-4)
    again = gr.grow_crack(of_size(flaw, found.largest_lasting), loads())
    assert again.life_years == pytest.approx(10.0, rel=1e-4)


@pytest.mark.slow
def test_sizes_stay_within_a_table_a_grid_and_a_chosen_stop():
    table = sh.TableCrack([("0.5 mm", 1.12), ("10 mm", 1.6)])
    grid = sh.GridCrack(depths=[0.5, 9.0], aspects=[0.1, 1.9], deep=[[1.2, 1.0]] * 2, along=[[1.0, 0.8]] * 2)
    for flaw in (crack(shape=table), surface(shape=grid), surface(stop_size="6 mm")):
        result = gr.grow_crack(flaw, loads(), target="0.01 years")
        found = gr.lives_over_size(result)
        assert (np.diff(found.repeats) < 0.0).all()
        assert found.sizes[-1] < found.largest_lasting < 10.0


def test_no_size_lasts_forever_and_a_still_crack_does():
    hopeless = gr.lives_over_size(gr.grow_crack(crack(law=SLOW), loads(cycles=1e9), target="100 years"), [1.0])
    assert hopeless.largest_lasting == 0.0
    still = gr.lives_over_size(gr.grow_crack(crack(), loads(12.0, 10.0), target="100 years"), [1.0, 2.0])
    assert np.isinf(still.repeats).all()
    assert still.largest_lasting > 10.0
    with pytest.raises(InputError, match="sizes that rise"):
        gr.lives_over_size(gr.grow_crack(crack(), loads()), [2.0, 1.0])


@pytest.mark.parametrize("flaw", [crack(), surface()], ids=["edge", "surface"])
def test_the_limit_shrinks_as_the_load_grows_and_is_the_limit_at_the_load_itself(flaw):
    result = gr.grow_crack(flaw, loads())
    found = gr.limits_over_load(result, [0.5, 1.0, 1.5, 2.0, 2.9])
    assert (np.diff([one.size for one in found]) <= 0.0).all()
    assert found[1].size == pytest.approx(result.critical.limiting, rel=1e-3)
    assert found[1].governed_by == result.critical.governed_by
    assert found[4].peak_stress == pytest.approx(2.9 * 120.0)
    with pytest.raises(InputError, match="above 0"):
        gr.limits_over_load(result, [0.0])


# ---- two sizes -----------------------------------------------------------------------------------------------------


@pytest.mark.slow
def test_a_surface_crack_breaks_through_and_goes_on_as_a_through_crack():
    tough = dataclasses.replace(STEEL, toughness="300 MPa√m", yield_strength="900 MPa")
    result = gr.grow_crack(surface(material=tough), loads())
    assert (result.stopped_by, result.critical.governed_by) == ("toughness", "wall") or result.then is not None
    through = result.then
    assert through.crack.shape.kind == "centre"
    assert through.crack.initial_size == result.half_lengths[-1]
    assert result.life_repeats == pytest.approx(result.repeats[-1] + through.life_repeats)
    assert result.to_dict()["then"]["governed by"] == through.governed_by
    short = gr.grow_crack(surface(material=tough), loads(), target=0.5 * result.life_repeats)
    assert short.stopped_by == "target life"


@pytest.mark.parametrize("shape", ["corner", "embedded", "pipe, around, surface", "hole, corner"])
def test_every_shape_with_two_sizes_grows_to_an_end(shape):
    keys = {"thickness": 12.0, "plate_width": 150.0}
    keys = {"radius": 200.0, "wall": 12.0} if shape.startswith("pipe") else keys
    keys |= {"radius": 8.0} if shape == "hole, corner" else {}
    result = gr.grow_crack(surface(shape=sh.shape_of_keys(shape, keys, "")), loads())
    assert 0.0 < result.life_years < 1e4
    assert (np.diff(result.sizes) > 0.0).all()
    assert (np.diff(result.half_lengths) >= 0.0).all()
    assert result.halving_change < 1e-3


def test_an_aspect_that_leaves_the_solution_ends_the_growth_and_may_be_refused():
    grid = sh.GridCrack(depths=[0.5, 9.0], aspects=[0.1, 0.6], deep=[[1.2, 1.0]] * 2, along=[[0.1, 0.1]] * 2)
    flaw = surface(shape=grid)
    result = gr.grow_crack(flaw, loads())
    assert result.governed_by == "aspect of the solution"
    assert result.sizes[-1] / result.half_lengths[-1] == pytest.approx(0.6, rel=1e-6)
    assert "solution-ends" in codes(result)
    with pytest.raises(InputError, match="ends at"):
        gr.grow_crack(dataclasses.replace(flaw, beyond_validity="refuse"), loads())


# ---- order, later law, memory --------------------------------------------------------------------------------------


@pytest.mark.slow
@settings(max_examples=15)
@given(
    st.lists(st.tuples(st.floats(60.0, 150.0), st.floats(-40.0, 30.0), st.integers(1, 400)), min_size=1, max_size=4),
    st.sampled_from(["edge", "surface"]),
    st.sampled_from(["paris", "walker"]),
)
def test_cycle_by_cycle_and_all_at_once_agree_where_a_repeat_is_short(blocks, shape, form):
    law = SLOW if form == "paris" else WalkerLaw(name="w", rate=SLOW.rate, slope=SLOW.slope, gamma=0.6)
    flaw = crack(law=law) if shape == "edge" else surface(law=law)
    lives = [
        gr.grow_crack(dataclasses.replace(flaw, order=order), programme(*blocks))
        for order in ("per repeat", "cycle by cycle")
    ]
    assert lives[1].life_repeats == pytest.approx(lives[0].life_repeats, rel=0.02, abs=1.0)
    assert lives[1].cycles > 0
    assert lives[1].stopped_in.startswith("week ")


def test_an_event_once_in_twelve_repeats_happens_in_every_twelfth():
    often = [Event("usual", ConstantAmplitude("stress", 100.0, 0.0, 100.0, "stress"))]
    rare = Event("rare", ConstantAmplitude("stress", 140.0, 0.0, 600.0, "stress"), 1.0 / 12.0)
    duty = DutyCycle("month", [*often, rare], 12.0)
    flaw = crack(law=SLOW, order="cycle by cycle")
    rows, pieces = sequence(flaw, duty)
    assert rows[:, 0].tolist() == [100.0, 140.0]
    assert pieces[1, 2:4].tolist() == [1.0 / 12.0, 600.0]
    exact, even = (
        gr.grow_crack(dataclasses.replace(flaw, order=order), duty) for order in ("cycle by cycle", "per repeat")
    )
    assert exact.life_repeats == pytest.approx(even.life_repeats, rel=5e-3)


@pytest.mark.slow
@pytest.mark.parametrize("kind", ["wheeler", "willenborg", "constant closure"])
def test_memory_lengthens_the_life_and_says_by_how_much(kind):
    memory = memory_of(kind, exponent=1.5)
    duty = programme((200.0, 0.0, 1.0), (100.0, 10.0, 2000.0))
    flaw = crack(law=SLOW, order="cycle by cycle", retardation=memory)
    result = gr.grow_crack(flaw, duty)
    plain = gr.grow_crack(dataclasses.replace(flaw, retardation=gr.NoRetardation()), duty)
    assert result.without_memory_repeats == pytest.approx(plain.life_repeats)
    assert result.life_repeats > 1.05 * plain.life_repeats
    assert {"retardation-counts", "retardation-arrest"} & set(
        codes(result)
    ) or result.life_repeats < 1.3 * plain.life_repeats


@pytest.mark.parametrize("kind", ["wheeler", "willenborg"])
def test_idle_cycles_are_remembered_though_they_are_not_gone_through(kind):
    """Cycles below the threshold with a high maximum set the zone: leaving out the others changes nothing."""
    rng = np.random.default_rng(6)
    high = rng.uniform(50.0, 180.0, 400)
    low = np.where(rng.random(400) < 0.8, high - 1.0, 0.3 * high)
    rows, pieces = (
        np.column_stack([high, low, np.ones(400)]),
        np.array([[0.0, 250.0, 2.0, 1.0], [250.0, 400.0, 1.0, 1.0]]),
    )
    memory = memory_of(kind, exponent=1.2)
    flaw = crack(law=dataclasses.replace(LAW, threshold=200.0), order="cycle by cycle", retardation=memory)
    scale = float(sh.stress_intensity(flaw.shape, 8.0, 1.0))
    few, parts = without_idle(rows, pieces, flaw, flaw.law, scale)
    assert few.shape[0] < 0.5 * rows.shape[0]
    grown = [
        gr.grow_by_cycle(table, flaw.shape, flaw.law, 6.0, passes=200, stop=8.0, pieces=those, retardation=memory)
        for table, those in ((rows, pieces), (few, parts))
    ]
    assert grown[0].size > 6.01
    assert grown[1].size == pytest.approx(grown[0].size, rel=1e-12)


@pytest.mark.slow
def test_wheeler_with_exponent_0_is_none_and_more_exponent_more_life():
    duty, lives = programme((200.0, 0.0, 1.0), (100.0, 10.0, 2000.0)), []
    for exponent in (0.0, 0.7, 1.4):
        memory = gr.Wheeler(yield_strength=355.0, exponent=exponent)
        result = gr.grow_crack(crack(law=SLOW, order="cycle by cycle", retardation=memory), duty)
        lives.append(result.life_repeats)
    assert lives[0] == pytest.approx(result.without_memory_repeats, rel=1e-12)
    assert lives[0] < lives[1] < lives[2]


def test_forman_mettu_with_closure_off_and_exponents_0_is_paris():
    values = {"p": 0.0, "q": 0.0, "toughness": 1e9, "closure_alpha": 0.0, "intrinsic_length": 0.0}
    form = FormanMettuLaw(name="no closure", rate=LAW.constant, slope=3.0, **values)
    ranges = np.geomspace(50.0, 2000.0, 20)
    assert form.growth(ranges, 0.0) == pytest.approx(SLOW.growth(ranges, 0.0), rel=1e-12)


@pytest.mark.slow
@pytest.mark.parametrize("flaw", [crack(law=SLOW), surface()], ids=["edge", "surface"])
def test_a_later_law_that_is_twice_as_fast_halves_what_is_left(flaw):
    plain = gr.grow_crack(flaw, loads())
    twice = dataclasses.replace(flaw.law, rate=2.0 * flaw.law.constant, name="wet")
    switched = 0.4 * plain.life_repeats
    result = gr.grow_crack(dataclasses.replace(flaw, later_law=twice, later_law_from=switched), loads())
    assert result.life_repeats == pytest.approx(switched + 0.5 * (plain.life_repeats - switched), rel=1e-4)
    never = dataclasses.replace(flaw, later_law=twice, later_law_from=2.0 * plain.life_repeats)
    assert gr.grow_crack(never, loads()).life_repeats == pytest.approx(plain.life_repeats, rel=1e-6)


FINDINGS = [
    (
        "growth-constants",
        crack(law=ParisLaw(name="m", rate="5e-9 m/cycle at 1 MPa√mm", slope=3.0, threshold="2 MPa√m")),
    ),
    ("growth-constants", crack(law=ParisLaw(name="atoms", rate="1e-21 mm/cycle at 1 MPa√mm", slope=3.0))),
    (
        "law-fracture-at-start",
        crack(law=FormanLaw(name="brittle", rate="5e-9 with mm/cycle and MPa√mm", slope=3.0, toughness=90.0)),
    ),
]


@pytest.mark.parametrize(("code", "flaw"), FINDINGS, ids=["too fast", "slower than atoms", "brittle law"])
def test_constants_that_cannot_be_are_severe(code, flaw):
    result = gr.grow_crack(flaw, loads())
    assert "severe" in [one.severity for one in result.findings if one.code == code]


@pytest.mark.slow
@pytest.mark.parametrize("shape", ["edge", "surface"])
@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
def test_growth_ends_where_the_law_itself_says_fracture(shape, order):
    values = {"toughness": 700.0}
    law = FormanLaw(name="brittle", rate="5e-10 with mm/cycle and MPa√mm", slope=3.0, **values)
    flaw = (crack if shape == "edge" else surface)(law=law, order=order)
    result = gr.grow_crack(flaw, loads(120.0, 0.0, 100.0))
    assert result.governed_by == "fracture by the law"
    assert result.scale(result.final_size) * 120.0 == pytest.approx(700.0, rel=1e-3)
    assert 0.0 < result.life_repeats < math.inf


# ---- the whole life ------------------------------------------------------------------------------------------------


def test_life_by_damage_and_growth_add_up_and_a_weld_is_warned_of():
    for ratio, code in ((0.0, "size-at-initiation"), ("any", "growth-counted-twice")):
        curve = straight_curve(name="c", stress="range", r_ratio=ratio, point_stress=90.0, point_life=2e6, slope=3)
        flaw = crack()
        flaw = dataclasses.replace(flaw, hot_spot=changed(flaw.hot_spot, curve=curve))
        life, growth = assess_life(flaw.hot_spot, loads()), gr.grow_crack(flaw, loads())
        whole = total_life(life, growth)
        assert whole.repeats == life.life_repeats + growth.life_repeats
        assert whole.growth_share == pytest.approx(growth.life_repeats / whole.repeats)
        assert [one.code for one in whole.findings] == [code]
        assert whole.to_dict()["whole life [years]"] == pytest.approx(whole.years)
    other = changed(flaw.hot_spot, name="elsewhere")
    with pytest.raises(InputError, match="both of one hot spot"):
        total_life(assess_life(other, loads()), growth)


# ---- laws from tests -----------------------------------------------------------------------------------------------


def readings(law, step=0.2, force=4500.0, noise=0.0):
    """Cycles and sizes of a compact-tension piece that follows `law`."""
    rng, sizes = np.random.default_rng(8), np.arange(12.5, 30.0, step / 20.0)
    k = mt.PIECES["compact tension"](force, 12.5, 50.0, sizes)
    cycles = np.concatenate([[0.0], np.cumsum(np.diff(sizes) / law.growth(0.5 * (k[1:] + k[:-1])))])
    return cycles[::20], sizes[::20] + noise * rng.standard_normal(sizes[::20].size)


PIECE = {"piece": "compact tension", "force_range": "4.5 kN", "thickness": "12.5 mm", "width": "50 mm", "r_ratio": 0.1}


@pytest.mark.parametrize("method", ["secant", "polynomial"])
@pytest.mark.parametrize("slope", [2.5, 3.6])
def test_a_law_comes_back_from_readings_made_by_it(method, slope):
    law = ParisLaw(name="truth", rate=1e-5 / 500.0**slope, slope=slope)
    fit = mt.fit_growth_law(mt.growth_of_piece(*readings(law), method=method, **PIECE))
    assert fit.slope == pytest.approx(slope, rel=0.01)
    assert float(fit.law().growth(500.0)) == pytest.approx(1e-5, rel=0.01)
    assert not [one for one in fit.findings if one.code != "curved-rates"]


def test_scatter_widens_the_band_and_the_true_slope_is_within():
    fit = mt.fit_growth_law(mt.growth_of_piece(*readings(LAW, noise=0.01), method="secant", **PIECE))
    assert fit.slope_interval[0] < 3.0 < fit.slope_interval[1]
    assert fit.law(2.0).constant == pytest.approx(fit.constant * 10.0 ** (2.0 * fit.std))
    fixed = mt.fit_growth_law(fit.tests, slope=3.0)
    assert (fixed.slope, fixed.slope_interval) == (3.0, (3.0, 3.0))
    assert fixed.constant == pytest.approx(LAW.constant, rel=0.05)


def test_rates_may_be_a_law_as_they_are():
    tests = mt.GrowthTests(name="t", ranges=[900.0, 300.0, 500.0], rates=[2e-4, 8e-6, 4e-5], r_ratio=0.1)
    law = mt.table_law(tests)
    assert law.growth([300.0, 500.0, 900.0]) == pytest.approx([8e-6, 4e-5, 2e-4])


TESTS_FINDINGS = {
    "few-rates": ([300.0, 400.0, 600.0, 900.0], [8e-6, 2e-5, 6e-5, 2e-4]),
    "narrow-rates": (np.linspace(300, 400, 12), 1e-5 * np.linspace(1, 1.3, 12) ** 3),
    "unusual-slope": (np.linspace(300, 900, 12), 1e-24 * np.linspace(300, 900, 12) ** 7),
    "curved-rates": (
        np.geomspace(200, 2000, 12),
        1e-5 * np.exp(np.linspace(-2, 2, 12) ** 2 + 3 * np.linspace(-2, 2, 12)),
    ),
}


@pytest.mark.parametrize(("code", "values"), TESTS_FINDINGS.items(), ids=TESTS_FINDINGS)
def test_an_expert_would_doubt_these_tests(code, values):
    fit = mt.fit_growth_law(mt.GrowthTests(name="t", ranges=values[0], rates=values[1], r_ratio=0.1))
    assert code in [one.code for one in fit.findings]


BAD_TESTS = {
    "two rates": (lambda: mt.GrowthTests(name="t", ranges=[1.0, 2.0], rates=[1.0, 2.0], r_ratio=0), "three or more"),
    "a rate of 0": (
        lambda: mt.GrowthTests(name="t", ranges=[1, 2, 3], rates=[1, 0, 2], r_ratio=0),
        "row 2: found a growth rate",
    ),
    "R of 1": (lambda: mt.GrowthTests(name="t", ranges=[1, 2, 3], rates=[1, 2, 3], r_ratio=1), "below 1"),
    "falling": (
        lambda: mt.fit_growth_law(mt.GrowthTests(name="t", ranges=[1, 2, 3], rates=[3, 2, 1], r_ratio=0)),
        "Are the columns exchanged",
    ),
    "one range": (
        lambda: mt.fit_growth_law(mt.GrowthTests(name="t", ranges=[2, 2, 2], rates=[3, 2, 1], r_ratio=0)),
        "one ΔK only",
    ),
    "cycles that fall": (lambda: mt.rates_by_secant([0.0, 2.0, 1.0], [1.0, 2.0, 3.0]), "cycles that rise"),
    "a crack that heals": (lambda: mt.rates_by_secant([0.0, 1.0, 2.0], [3.0, 2.0, 1.0]), "a crack that grows"),
    "six readings": (lambda: mt.rates_by_polynomial(range(6), range(1, 7)), "at least 7"),
    "another piece": (lambda: mt.growth_of_piece([0, 1], [1, 2], **(PIECE | {"piece": "ring"})), "compact tension"),
    "inches": (lambda: mt.growth_of_piece(*readings(LAW), **(PIECE | {"width": "1 in"})), "Is the width right"),
    "short notch": (
        lambda: mt.growth_of_piece(*readings(LAW), **(PIECE | {"width": "90 mm"})),
        "where the solution starts",
    ),
}


@pytest.mark.parametrize(("make", "message"), BAD_TESTS.values(), ids=BAD_TESTS)
def test_growth_tests_that_cannot_be_meant_are_refused(make, message):
    with pytest.raises(InputError, match=message):
        make()


# ---- what is drawn and written ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("flaw", [crack(law=SLOW), surface()], ids=["edge", "surface"])
def test_the_visited_part_of_the_law_and_the_course_are_those_of_the_result(flaw):
    duty = programme((120.0, 0.0, 500.0), (60.0, 20.0, 5000.0))
    result = gr.grow_crack(flaw, duty)
    visited = gr.visited_law(result)
    assert visited.shares.sum(axis=1) == pytest.approx([1.0, 1.0])
    rows = visited.table().rows()
    high = 0.9 * 120.0 * result.depth_scale(1.0) / 1000.0**0.5
    by_large = sum(row["share at start"] for row in rows if row["to [MPa√m]"] > high)
    assert by_large == pytest.approx(result.event_shares()["block 0"], rel=1e-9)
    assert by_large == pytest.approx(500.0 * 120.0**3 / (500.0 * 120.0**3 + 5000.0 * 40.0**3), rel=1e-9)
    course = gr.crack_course(result)
    assert course.depth_k[0] == pytest.approx(result.depth_scale(1.0) * 120.0)
    largest = course.depth_k if course.surface_k is None else np.maximum(course.depth_k, course.surface_k)
    assert largest[-1] == pytest.approx(result.scale(result.final_size) * 120.0, rel=1e-6)
    assert (course.aspects is None) == (result.half_lengths is None)
    assert course.aspects is None or course.aspects[0] == pytest.approx(1.0 / 2.5)


@pytest.mark.slow
def test_the_record_of_a_result_is_plain_and_complete():
    result = gr.grow_crack(surface(detectable_size="3 mm", order="cycle by cycle"), loads(), target="2 years")
    record = json.loads(json.dumps(result.to_dict()))
    assert record["order"] == "cycle by cycle"
    assert record["stopped by"] == result.stopped_by
    assert record["cycles followed"] == result.cycles
    assert record["initial half length [mm]"] == 2.5
    assert record["inspection interval [years]"] == pytest.approx(result.interval_years)
    curve = record["course"]
    assert curve[0]["size [mm]"] == 1.0
    assert curve[-1]["size [mm]"] == pytest.approx(result.final_size)
    assert [row["repeats"] for row in curve] == sorted(row["repeats"] for row in curve)
    assert [row["half length [mm]"] for row in curve] == sorted(row["half length [mm]"] for row in curve)
    still = json.loads(json.dumps(gr.grow_crack(crack(), loads(12.0, 10.0)).to_dict()))
    assert (still["life [repeats]"], still["stopped by"]) == ("inf", "no growth")


def test_the_curve_tells_time_in_all_ways_and_the_share_of_the_life():
    duty = DutyCycle(
        "hour", [Event("run", ConstantAmplitude("stress", 120.0, 20.0, 3600.0, "stress", frequency=1.0))], 4000.0
    )
    rows = gr.grow_crack(crack(), duty).rows()
    assert [row["share of the life"] for row in (rows[0], rows[-1])] == [0.0, 1.0]
    for row in rows:
        assert row["time [h]"] == pytest.approx(row["repeats"])
        assert row["time [years]"] == pytest.approx(row["repeats"] / 4000.0)


@pytest.mark.slow
@pytest.mark.parametrize("make", [crack, surface])
@pytest.mark.parametrize("kind", ["none", "wheeler"])
def test_the_interval_is_what_is_left_of_the_way_that_was_gone(make, kind):
    """With memory too: from the detectable size on the growth curve itself to its end, over the factor."""
    memory = memory_of(kind)
    flaw = make(order="cycle by cycle", retardation=memory, detectable_size=2.0, inspection_factor=3.0)
    result = gr.grow_crack(flaw, programme((120.0, 0.0, 4000), (200.0, 0.0, 20)))
    seen = float(np.interp(np.log(2.0), np.log(result.sizes), result.repeats))
    assert result.interval_repeats == pytest.approx((result.life_repeats - seen) / 3.0, rel=1e-9)


@pytest.mark.slow
@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
def test_the_life_goes_on_through_the_wall_whatever_the_target(order):
    """A target that cuts the table off before the wall moves neither the life nor what governs it."""
    shape = sh.SurfaceCrack(thickness=6.0, plate_width=400.0)
    flaw = crack(shape=shape, initial_half_length="2.5 mm", detectable_size="2 mm", order=order)
    duty = loads(60.0, 0.0, 20000.0)
    whole = gr.grow_crack(flaw, duty)
    assert [stage.crack.shape.kind for stage in whole.stages] == ["surface", "centre"]
    early = gr.grow_crack(flaw, duty, target=0.3 * whole.life_repeats)
    assert early.stopped_by == "target life"
    assert early.life_repeats == pytest.approx(whole.life_repeats, rel=1e-4)
    assert early.governed_by == whole.governed_by
    assert early.interval_repeats == pytest.approx(whole.interval_repeats, rel=1e-3)


@pytest.mark.slow
@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
@pytest.mark.parametrize("shape", [sh.EdgeCrack(60.0), sh.SurfaceCrack(thickness=12.0, plate_width=150.0)])
def test_the_interval_does_not_hang_on_a_target_before_the_detectable_size(order, shape):
    half = {"initial_half_length": "2.5 mm"} if len(shape.sizes) == 2 else {}
    flaw = crack(shape=shape, detectable_size="5 mm", order=order, **half)
    duty = loads(90.0, 0.0, 20000.0)
    whole = gr.grow_crack(flaw, duty)
    early = gr.grow_crack(flaw, duty, target=0.1 * whole.life_repeats)
    assert early.final_size < 5.0
    assert early.interval_repeats == pytest.approx(whole.interval_repeats, rel=1e-3)
