"""Growth: why it stops, convergence, limits, findings, and the working redone line by line."""

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.growth.plates import LAW, STEEL, codes, crack, loads
from tests.reference_values import repeat_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import (
    grow_crack,
    growth_drive,
    growth_per_repeat,
    growth_working,
    integrate_growth,
    size_after,
    threshold_sizes,
)
from vivid_anvil.materials import ParisLaw
from vivid_anvil.shapes import CentreCrack, EdgeCrack, stress_intensity

STOPS = [
    ("toughness", crack(dataclasses.replace(STEEL, toughness="30 MPa√m")), loads(), None),
    ("net-section yield", crack(dataclasses.replace(STEEL, toughness="300 MPa√m")), loads(), None),
    (
        "limit of the solution",
        crack(dataclasses.replace(STEEL, toughness="9000 MPa√m", yield_strength="90 GPa")),
        loads(),
        None,
    ),
    ("no growth", crack(), loads(30.0, 10.0), None),
    ("target life", crack(), loads(), "2 years"),
]


@pytest.mark.parametrize(("why", "flaw", "duty", "target"), STOPS, ids=[row[0] for row in STOPS])
def test_growth_stops_and_says_why(why, flaw, duty, target):
    result = grow_crack(flaw, duty, target=target)
    assert result.stopped_by == why
    if why == "no growth":
        assert (result.life_repeats, result.sizes.tolist()) == (math.inf, [1.0])
        assert "no-growth" in codes(result)
    elif why == "target life":
        assert result.repeats[-1] == 104.0
        assert result.life_repeats > 104.0
        assert result.final_size < result.critical.limiting
    else:
        assert result.final_size == result.critical.limiting
        assert result.life_repeats == result.repeats[-1]


def test_at_the_limiting_size_the_limit_is_just_met():
    tough = grow_crack(STOPS[0][1], loads()).critical
    assert float(stress_intensity(EdgeCrack(60.0), tough.toughness, 120.0)) == pytest.approx(30 * math.sqrt(1000))
    net = grow_crack(STOPS[1][1], loads()).critical
    assert float(EdgeCrack(60.0).net_section_stress(net.net_section, 120.0)) == pytest.approx(355.0)


@pytest.mark.slow
@given(
    st.lists(st.tuples(st.floats(1.0, 1e4), st.floats(20.0, 150.0), st.floats(-80.0, 15.0)), min_size=1, max_size=30),
    st.floats(0.0, 200.0),
    st.sampled_from(["tensile", "full"]),
)
def test_halving_every_step_changes_next_to_nothing(rows, threshold, part):
    law = dataclasses.replace(LAW, threshold=threshold)
    shape, drive = CentreCrack(100.0), growth_drive(repeat_of(rows), part)
    growth = growth_per_repeat(drive, shape, law)
    if float(growth(2.0)) > 0.0:
        table = integrate_growth(growth, 2.0, 35.0, threshold_sizes(drive, shape, law, 2.0, 35.0))
        assert table.halving_change < 1e-6
        assert (np.diff(table.repeats) > 0).all()
        half = 0.5 * table.repeats[-1]
        there = size_after(table, growth, half)
        onwards = integrate_growth(growth, there, 35.0, threshold_sizes(drive, shape, law, there, 35.0))
        assert onwards.repeats[-1] == pytest.approx(half, rel=1e-6)


def test_thresholds_that_rounding_alone_parts_are_one():
    law, shape = dataclasses.replace(LAW, threshold=155.0), CentreCrack(100.0)
    drive = growth_drive(repeat_of([(1.0, 20.0, 0.0), (1.0, 62.0, 0.0), (1.0, 20.000000000000004, 0.0)]), "tensile")
    growth = growth_per_repeat(drive, shape, law)
    table = integrate_growth(growth, 2.0, 35.0, threshold_sizes(drive, shape, law, 2.0, 35.0))
    assert (np.diff(table.repeats) > 0).all()


def test_growth_is_the_sum_over_all_cycles_one_by_one():
    rng = np.random.default_rng(5)
    rows = np.column_stack([np.ones(500), rng.uniform(20, 160, 500), rng.uniform(-60, 15, 500)])
    shape, drive = CentreCrack(100.0), growth_drive(repeat_of(rows.tolist()))
    ranges = rows[:, 1] - np.maximum(rows[:, 2], 0.0)
    one_by_one = LAW.growth(stress_intensity(shape, 7.0, ranges)).sum()
    assert float(growth_per_repeat(drive, shape, LAW)(7.0)) == pytest.approx(one_by_one, rel=1e-12)


def test_a_small_crack_in_a_wide_plate_is_that_of_the_infinite_plate():
    assert float(CentreCrack(1e6).geometry_factor(1.0)) == pytest.approx(1.0, abs=1e-9)
    # 1.1215 is exact for the half plane; the handbook form claims 0.6 %.
    assert float(EdgeCrack(1e6).geometry_factor(1.0)) == pytest.approx(1.1215, rel=2e-3)


def test_the_inspection_interval_is_the_life_from_the_detectable_size():
    result = grow_crack(crack(detectable_size="3 mm", inspection_factor=4), loads())
    from_there = grow_crack(crack(initial_size="3 mm"), loads())
    assert result.interval_repeats == pytest.approx(from_there.life_repeats / 4, rel=1e-9)
    assert result.interval_years == pytest.approx(result.interval_repeats / 52)
    assert grow_crack(crack(detectable_size="3 mm"), loads(20.0, 10.0)).interval_repeats == math.inf


REFUSED = [
    ({"initial_size": "0 mm"}, "above 0"),
    ({"initial_size": "-1 mm"}, "above 0"),
    ({"initial_size": "1"}, "without a unit"),
    ({"initial_size": "58 mm"}, "below 54 mm"),
    ({"detectable_size": "1 m"}, "Is the unit right"),
    ({"inspection_factor": 0.5}, "at least 1"),
    ({"counted_part": "half"}, "one of 'tensile', 'full'"),
]


@pytest.mark.parametrize(("change", "message"), REFUSED)
def test_a_crack_that_cannot_be_meant_is_refused(change, message):
    with pytest.raises(InputError) as caught:
        crack(**change)
    assert message in str(caught.value)


@pytest.mark.parametrize("missing", ["toughness", "yield_strength"])
def test_missing_strengths_are_named(missing):
    with pytest.raises(InputError, match=f"no {missing}"):
        grow_crack(crack(dataclasses.replace(STEEL, **{missing: None})), loads())


def test_no_stress_intensity_beyond_the_validity():
    with pytest.raises(InputError, match="up to 54 mm"):
        stress_intensity(EdgeCrack(60.0), [10.0, 55.0], 100.0)


FINDINGS = [
    ("critical-at-start", crack(initial_size="40 mm"), loads()),
    ("found-too-late", crack(detectable_size="40 mm"), loads()),
    ("interval-short", crack(detectable_size="15 mm"), loads(cycles=1e6)),
    ("few-repeats", crack(), loads(cycles=1e5)),
    ("growth-r-differs", crack(law=dataclasses.replace(LAW, r_ratio=0.0)), loads(200.0, 100.0)),
    ("growth-constants", crack(law=ParisLaw(name="slip", rate="5.21e-13 m/cycle at 1 MPa√m", slope=3.0)), loads()),
    ("short-crack", crack(initial_size="0.05 mm", law=dataclasses.replace(LAW, threshold=0.0)), loads()),
    ("notch-left-out", crack(notch_factor=2.0), loads()),
    ("solution-ends", STOPS[2][1], loads()),
]


@pytest.mark.parametrize(("code", "flaw", "duty"), FINDINGS, ids=[row[0] for row in FINDINGS])
def test_an_expert_would_say(code, flaw, duty):
    assert code in codes(grow_crack(flaw, duty))


def test_a_crack_critical_from_the_start_has_no_life():
    result = grow_crack(crack(initial_size="40 mm"), loads())
    assert (result.life_repeats, result.findings[0].severity) == (0.0, "severe")
    assert not growth_working(result).steps


@pytest.mark.slow
@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("shape", [None, EdgeCrack(60.0), CentreCrack(60.0)])
def test_each_line_of_working_gives_its_printed_value(demo_result, shape, units):
    given = demo_result.growths[0].crack
    given = dataclasses.replace(given, order="per repeat")
    flaw = given if shape is None else dataclasses.replace(given, shape=shape, initial_half_length=None)
    result = grow_crack(flaw, demo_result.study.duty_cycle)
    steps = growth_working(result, units).steps
    skipped = [step for step in steps if "Σ" in step.formula and "Σ n × da/dN" not in step.formula]
    for step in steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-6), step.title
    assert len(skipped) == 1  # its sum over the spectrum is put in as a number


@pytest.mark.slow
def test_the_first_step_worked_by_hand_is_a_step_of_the_growth_curve(demo_result):
    flaw = dataclasses.replace(demo_result.growths[0].crack, order="per repeat")  # the order within it moves it
    result = grow_crack(flaw, demo_result.study.duty_cycle)
    first = growth_working(result).steps[-1].value
    at = np.interp(1.01, result.sizes, result.repeats)
    assert first == pytest.approx(at, rel=2e-2)  # the hand takes a trapezium over the kinks


# ---- what must hold ------------------------------------------------------------------------------------------------


@given(st.floats(1.05, 3.0), st.floats(2.0, 5.0))
def test_without_threshold_life_falls_with_the_load_to_the_power_m(factor, slope):
    law = ParisLaw(name="power", rate=1e-12, slope=slope)
    lives = []
    for load in (50.0, 50.0 * factor):
        growth = growth_per_repeat(growth_drive(repeat_of([[10.0, load, 0.0]])), EdgeCrack(60.0), law)
        lives.append(integrate_growth(growth, 1.0, 15.0).repeats[-1])
    assert lives[0] / lives[1] == pytest.approx(factor**slope, rel=1e-7)


@given(st.floats(1.1, 9.0))
def test_lives_of_two_parts_of_the_way_add_up(between):
    growth = growth_per_repeat(growth_drive(repeat_of([[10.0, 120.0, 0.0]])), EdgeCrack(60.0), LAW)
    whole = integrate_growth(growth, 1.0, 10.0).repeats[-1]
    parts = integrate_growth(growth, 1.0, between).repeats[-1] + integrate_growth(growth, between, 10.0).repeats[-1]
    assert parts == pytest.approx(whole, rel=1e-7)


@pytest.mark.slow
def test_growth_agrees_with_stepping_through_every_single_cycle():
    """Cycle by cycle in plain Python: the size after each cycle feeds the next."""
    rows, shape = [(150.0, 10.0), (90.0, 20.0), (200.0, -50.0)], EdgeCrack(60.0)
    law = ParisLaw(name="fast", rate=2e-12, slope=3.0, threshold=100.0)
    size, repeats = 2.0, 0
    while size < 6.0:
        repeats += 1
        for high, low in rows:
            y = float(shape.geometry_factor(size))
            k = y * (high - max(low, 0.0)) * math.sqrt(math.pi * size)
            size += 2e-12 * k**3 if k > 100.0 else 0.0
    drive = growth_drive(repeat_of([[1.0, *row] for row in rows]))
    growth = growth_per_repeat(drive, shape, law)
    table = integrate_growth(growth, 2.0, 30.0, threshold_sizes(drive, shape, law, 2.0, 30.0))
    assert size_after(table, growth, repeats) == pytest.approx(size, rel=1e-3)


def test_only_the_tensile_part_grows_a_crack_unless_all_counts():
    tensile, full = (
        grow_crack(crack(counted_part=part), loads(120.0, -120.0)).life_repeats for part in ("tensile", "full")
    )
    assert tensile / full == pytest.approx(8.0, rel=0.05)  # twice the range, slope 3; the threshold moves it a little
