"""Flaws over the years: against closed forms and the growth of cracks, stages, through the wall, what may be left."""

import dataclasses
import math

import numpy as np
import pytest

import vivid_anvil as va
from tests.acceptance.flaws import PLATE, STEEL, assessed, flaw, loads, metal
from vivid_anvil import (
    CentreCrack,
    ConstantAmplitude,
    Crack,
    DutyCycle,
    Event,
    Flaw,
    HotSpot,
    InputError,
    KToughness,
    OneLoad,
    ParisLaw,
    PrimaryProfile,
    RangesPerYear,
    Stage,
    SurfaceCrack,
    allowable_flaws,
    assess_flaw,
    grow_crack,
    grow_flaw,
    stage_of_duty_cycle,
)
from vivid_anvil.acceptance import FractureLoads
from vivid_anvil.acceptance.flaw_legs import EVEN, QUICK
from vivid_anvil.acceptance.grow_flaw import grown
from vivid_anvil.acceptance.limiting_sizes import limit_of
from vivid_anvil.acceptance.stages import years_of
from vivid_anvil.growth.integrate_two import FINE

AIR = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
SEA = ParisLaw(name="seawater", rate="2.3e-12 mm/cycle at 1 MPa√mm", slope=3.0)
QUIET = ParisLaw(name="quiet", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, threshold="2 MPa√m")
RANGES = RangesPerYear([("60 MPa", "10 MPa", 1e5), (30.0, 5.0, 3e5)])


def stages(*rows):
    return [Stage(name, law, ranges, years) for name, law, ranges, years in rows]


ONE = stages(("service", AIR, RANGES, None))


def test_a_through_crack_lives_as_the_closed_form_says():
    """In a plate so wide that Y is 1: N = (a0^(1-m/2) - a1^(1-m/2)) / ((m/2-1) C (ΔS √π)^m)."""
    found = assess_flaw(
        Flaw(name="T", shape=CentreCrack("1000 m"), size=5.0), loads(150.0), metal(KToughness(k=3000.0))
    )
    end = limit_of(found, found.sizes)
    whole = grow_flaw(found, stages(("a", AIR, RangesPerYear([(60.0, 1e5)]), None)))
    rate = 5.21e-13 * (60.0 * math.sqrt(math.pi)) ** 3 * 1e5
    assert whole.life == pytest.approx((5.0**-0.5 - end**-0.5) / (0.5 * rate), rel=1e-6)
    assert whole.governed_by == "assessment curve"
    assert whole.legs[-1][1].last[0] == pytest.approx(end)
    assert abs(whole.path[-1][1].room) < 1e-6


def test_growth_is_that_of_a_crack_at_a_hot_spot():
    spot = HotSpot(name="plate", relation=OneLoad("force", "1 MPa/kN"), material=STEEL)
    pull = ConstantAmplitude.from_range("force", "60 kN", r_ratio=0.2, cycles=2e3)
    duty = DutyCycle("week", [Event("pull", pull)], repeats_per_year=50)
    crack = Crack(
        hot_spot=spot, shape=PLATE, initial_size=5.0, initial_half_length=12.0, law=AIR, limits="assessment curve"
    )
    known = grow_crack(crack, duty)
    own = grow_flaw(assessed(under=loads(75.0)), [stage_of_duty_cycle("service", AIR, spot, duty)])
    assert own.life == pytest.approx(known.life_repeats / 50.0, rel=1e-5)
    assert own.course[1][-1] == pytest.approx([known.sizes[-1], known.half_lengths[-1]], rel=1e-4)
    with pytest.raises(InputError, match="repeats per year"):
        stage_of_duty_cycle("service", AIR, spot, dataclasses.replace(duty, repeats_per_year=None))


def test_a_stage_cut_in_two_changes_nothing():
    found = assessed(under=loads(150.0, 30.0))
    whole = grow_flaw(found, ONE)
    cut = grow_flaw(
        found, stages(("a", AIR, RANGES, "2 years"), ("b", AIR, RANGES, "6 months"), ("c", AIR, RANGES, None))
    )
    assert cut.life == pytest.approx(whole.life, rel=1e-7)
    assert cut.course[2][0] == "a"
    assert cut.course[2][-1] == "c"
    wet = grow_flaw(found, stages(("dry", AIR, RANGES, "2 years"), ("wet", SEA, RANGES, None)))
    assert 2.0 < wet.life < whole.life
    assert wet.sizes_at(2.0) == pytest.approx(cut.sizes_at(2.0), rel=1e-6)
    done = grow_flaw(found, ONE, target=1.5)
    assert math.isinf(done.life)
    assert done.course[0][-1] == pytest.approx(1.5)
    with pytest.raises(InputError, match=r"0 to 1\.5 years"):
        done.sizes_at(2.0)


def test_the_quick_pace_of_lists_is_near_the_fine_one():
    for law in (AIR, QUIET):
        own = tuple(stages(("a", law, RANGES, None)))
        found = assessed(under=loads(150.0, 30.0))
        fine = grown(found, own, pace=FINE).life
        assert grown(found, own, pace=EVEN).life == pytest.approx(fine, rel=1e-5)
        assert grown(found, own, pace=QUICK).life == pytest.approx(fine, rel=1e-3)


def test_what_does_not_grow_lives_without_end():
    small = assessed(flaw(0.3, 0.8), loads(40.0))
    still = grow_flaw(small, stages(("a", QUIET, RangesPerYear([(10.0, 1e6)]), None)))
    assert math.isinf(still.life)
    assert still.governed_by == "no growth"
    later = grow_flaw(small, stages(("a", QUIET, RangesPerYear([(10.0, 1e6)]), "3 years"), ("b", AIR, RANGES, None)))
    assert later.life > 3.0
    through = Flaw(name="T", shape=CentreCrack("1 m"), size=0.3)
    at_rest = assess_flaw(through, loads(40.0), metal())
    assert math.isinf(grow_flaw(at_rest, stages(("a", QUIET, RangesPerYear([(10.0, 1e6)]), None))).life)


def test_a_flaw_that_is_not_acceptable_has_no_life():
    found = grow_flaw(assessed(flaw(12.0, 30.0), loads(260.0, 30.0)), ONE)
    assert found.life == 0.0
    assert found.next_look == 0.0


def test_a_tough_flaw_breaks_through_and_goes_on():
    found = assessed(flaw(10.0, 12.0), loads(60.0), metal(KToughness(k=9000.0)))
    whole = grow_flaw(found, ONE)
    assert whole.then is not None
    assert whole.years_to_leak == pytest.approx(whole.own_years)
    assert whole.life > whole.years_to_leak
    assert whole.then.assessment.flaw.shape.kind == "centre"
    assert "flaw-leaks" in {one.code for one in whole.findings}
    ends = grow_flaw(found, stages(("a", AIR, RANGES, whole.own_years + 0.5)))
    assert math.isinf(ends.life)
    assert ends.then.course[0][-1] == pytest.approx(0.5)
    # a stress over the wall is not known to a crack through it: the life ends at the wall, said
    rows = [(0.0, 60.0), (25.0, 60.0)]
    profile = assess_flaw(flaw(10.0, 12.0), FractureLoads([PrimaryProfile(points=rows)]), metal(KToughness(k=9000.0)))
    stopped = grow_flaw(profile, ONE)
    assert stopped.then is None
    assert "flaw-solution-ends" in {one.code for one in stopped.findings}


def test_every_output_of_growth():
    found = grow_flaw(
        assessed(under=loads(150.0, 30.0)), stages(("a", AIR, RANGES, "1 year"), ("b", SEA, RANGES, None))
    )
    table = found.tables()[0].rows()
    assert table[0]["stage"] == "a"
    assert table[-1]["K_r"] == pytest.approx(table[-1]["largest K_r"], abs=1e-6)
    assert found.to_dict()["remaining life [years]"] == found.life
    assert "Next look" in found._repr_html_()
    assert found.page("us").words
    short = dataclasses.replace(ONE[0], duration=0.01, shortest=0.02)
    assert "stage-short" in {one.code for one in grow_flaw(assessed(), [short]).findings}


def test_what_may_be_left_just_lives_the_target_and_tends_to_the_edge_crack():
    found = assessed(under=loads(180.0, 30.0), within=metal(KToughness(k=1900.0)))
    own = allowable_flaws(found, ONE, "3 years", aspects=[0.05, 0.1, 0.3, 1.0])
    assert own.lives == pytest.approx(np.full(4, 3.0), rel=1e-4)
    assert (np.diff(own.depths) > 0.0).all()  # the longer a flaw, the shallower
    wide = SurfaceCrack(thickness=25.0, plate_width=300000.0)
    long = assess_flaw(flaw(1.0, 100.0, wide), loads(180.0), metal(KToughness(k=1900.0)))
    plain = stages(("a", AIR, RangesPerYear([(60.0, 1e5)]), None))
    depths = allowable_flaws(long, plain, 3.0, aspects=[0.0004, 0.0002]).depths
    assert depths[1] == pytest.approx(depths[0], rel=0.01)  # it no longer goes with the length
    kept = allowable_flaws(found, ONE, 3.0, aspects=[0.3], aspect="kept")
    assert kept.depths[0] < own.depths[2]  # shape held fixed allows less
    assert own.tables()[0].rows()[1]["depth [mm]"] == pytest.approx(own.depths[1])
    none = allowable_flaws(found, ONE, "400 years", aspects=[0.3])
    assert none.depths[0] < 0.2
    with pytest.raises(InputError, match="two sizes"):
        allowable_flaws(assess_flaw(Flaw(name="T", shape=CentreCrack("1 m"), size=5.0), loads(), metal()), ONE, 1.0)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: RangesPerYear([]), "rows of ranges"),
        (lambda: RangesPerYear([("60", 1e5)]), "unit"),
        (lambda: RangesPerYear([(60.0, -1e5)]), "0 or more"),
        (lambda: RangesPerYear([(60.0, 1.0, 1e5, 3.0)]), "row 1"),
        (lambda: RangesPerYear([(60.0, 1e5)], r_ratio=1.0), "below 1"),
        (lambda: Stage("a", AIR, RANGES, "ten years"), "such as '10 years'"),
        (lambda: Stage("a", AIR, RANGES, -1.0), "above 0"),
        (lambda: Stage("a", None, RANGES), "growth law"),
        (lambda: Stage("a", AIR, [(60.0, 1e5)]), "RangesPerYear"),
        (lambda: grow_flaw(assessed(), []), "one Stage or more"),
        (lambda: grow_flaw(assessed(), [ONE[0], ONE[0]]), "every stage but the last"),
        (lambda: grow_flaw(assessed(), ONE, aspect="fixed"), "free"),
        (lambda: grow_flaw(assessed(), ONE, inspection_factor=0.5), "at least 1"),
    ],
)
def test_stages_that_cannot_be_are_told(make, words):
    with pytest.raises(InputError, match=words):
        make()


def test_times_in_words():
    assert [years_of(one, "t") for one in ("10 years", "1 year", "6 months", 2.5)] == [10.0, 1.0, 0.5, 2.5]
    assert years_of("365.25 days", "t") == pytest.approx(1.0)


@pytest.mark.parametrize(("half_length", "longer"), [(0.75, True), (6.0, False)])
def test_an_embedded_flaw_that_would_be_deeper_than_long_at_the_surface_goes_on_as_long_as_deep(half_length, longer):
    shape = va.EmbeddedCrack(thickness="20 mm", plate_width="150 mm", centre_depth="7 mm")
    one = va.Flaw(name="E1", shape=shape, size=0.6, half_length=half_length)
    found = va.assess_flaw(one, loads(100.0), metal(va.KToughness(k="300 MPa√m")))
    growth = va.grow_flaw(found, [va.Stage("service", AIR, RangesPerYear([("100 MPa", 1e6)]))])
    depth, half = growth.then.assessment.flaw.sizes
    assert half >= 0.5 * depth * (1.0 - 1e-12)
    (told,) = [finding for finding in growth.findings if finding.code == "flaw-reaches-surface"]
    assert ("as long as it is deep" in told.advice) == longer == (half == pytest.approx(0.5 * depth, rel=1e-9))
