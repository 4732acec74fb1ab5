"""Looks at a flaw, dates, embedded flaws that reach the surface, cracks through the wall with a toughness of their thickness."""

import datetime

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.acceptance.flaws import assessed, flaw, loads, metal
from vivid_anvil.acceptance.flaw_list import date_after
from vivid_anvil.acceptance.flaw_looks import stages_after

LAW = va.ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
RANGES = va.RangesPerYear([("60 MPa", "10 MPa", 1e5)])
FIRST, LAST = va.Stage("painted", LAW, RANGES, "3 years"), va.Stage("bare", LAW, RANGES)


def grown(under=150.0, **sizes):
    found = assessed(flaw(**sizes), loads(under), metal(va.KToughness(k=2400.0)))
    return va.grow_flaw(found, [FIRST, LAST])


@settings(max_examples=8, deadline=None)
@given(every=st.floats(0.4, 3.0))
def test_a_flaw_may_stay_where_it_is_no_larger_than_may_be_left(every):
    plan = va.flaw_looks(grown(), every, most=5)
    for look in plan.looks:
        if abs(look.lasts - look.needed) > 0.01 * look.needed:
            assert look.may_stay == (look.sizes[0] < look.largest[0])
    assert [look.years for look in plan.looks] == pytest.approx([i * every for i in range(len(plan.looks))])


def test_the_largest_that_may_be_left_just_lasts_what_it_has_to():
    own = grown()
    for look in va.flaw_looks(own, "1 year", most=3).looks:
        size, half = look.largest
        found = assessed(flaw(size, half), loads(150.0), metal(va.KToughness(k=2400.0)))
        left = stages_after(own.stages, look.years)
        assert va.grow_flaw(found, left).life == pytest.approx(2.0, rel=1e-3)


def test_an_interval_that_the_life_allows_leaves_it_and_a_longer_one_does_not():
    own = grown()
    assert va.flaw_looks(own, own.next_look).looks[0].may_stay
    longer = va.flaw_looks(own, 1.01 * own.next_look)
    assert [one.code for one in longer.findings] == ["interval-too-long"]
    assert longer.verdict == "may not be left today"


def test_slips_of_a_plan():
    with pytest.raises(va.InputError, match="'10 years'"):
        va.flaw_looks(grown(), "1 moon")
    with pytest.raises(va.InputError, match="1 to 40 looks"):
        va.flaw_looks(grown(), 1.0, most=0)


@pytest.mark.parametrize(
    ("day", "years", "expected"),
    [
        ((2026, 10, 5), 0.5, "2027-04-05"),
        ((2026, 10, 5), 1.0, "2027-10-05"),
        ((2028, 2, 29), 1.0, "2029-02-28"),
        ((2028, 2, 29), 4.0, "2032-02-29"),
        ((2026, 10, 5), 0.0, "2026-10-05"),
        ((2026, 10, 5), float("inf"), None),
    ],
)
def test_dates_count_whole_years_by_the_calendar(day, years, expected):
    assert date_after(datetime.date(*day), years) == expected


def test_stages_that_are_still_to_come():
    left = stages_after((FIRST, LAST), 1.0)
    assert [stage.years for stage in left] == [2.0, float("inf")]
    assert [stage.name for stage in stages_after((FIRST, LAST), 3.0)] == ["bare"]


EMBEDDED = va.EmbeddedCrack(thickness=25.0, plate_width=300.0, centre_depth=6.0)


def test_an_embedded_flaw_goes_on_as_a_surface_flaw_and_then_through_the_wall():
    tough = metal(va.MasterCurve(reference_temperature="-100 °C"), temperature="0 °C")
    found = va.assess_flaw(flaw(2.0, 6.0, EMBEDDED), loads(60.0), tough)
    own = va.grow_flaw(found, [va.Stage("service", LAW, va.RangesPerYear([("90 MPa", 1e6)]))])
    assert own.then.assessment.flaw.shape.kind == "surface"
    _shape, sizes = EMBEDDED.after(*own.legs[-1][1].last)
    assert own.then.assessment.flaw.sizes == pytest.approx(sizes)
    assert own.then.then.assessment.flaw.wall == 25.0  # what the toughness of the master curve is for
    assert own.life == pytest.approx(own.own_years + own.then.own_years + own.then.then.own_years)
    assert own.years_to_leak == pytest.approx(own.own_years + own.then.own_years)
    codes = {finding.code for finding in own.findings}
    assert codes >= {"flaw-reaches-surface", "flaw-leaks"}
    assert "flaw-solution-ends" not in codes


def test_a_crack_through_the_wall_in_a_list_has_a_toughness_of_its_thickness():
    part = va.Part(form="plate", wall="25 mm", width="300 mm")
    (made,) = va.characterised(part, [va.Indication(name="T", kind="through", length="30 mm")])
    tough = metal(va.KToughness(k=2400.0, specimen_thickness=50.0))
    found = va.assess_flaw(made.flaw, loads(100.0), tough)
    assert found.toughness == pytest.approx(tough.tough(25.0).k)
    assert found.toughness > 2400.0
