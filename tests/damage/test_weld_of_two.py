"""A weld under two stresses: each alone is its class, both are summed, what the IIW compares is met, workings redone."""

import dataclasses

import numpy as np
import pytest

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.damage.test_critical_plane import duty, loads, spot, turning
from vivid_anvil.damage import CriticalPlane, StressLife, WeldOfTwo
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import detail_curve, knee_curve, standard_named

TOE, ROOT = detail_curve("EN 1993-1-9", 80), detail_curve("EN 1993-1-9", 80, component="shear")
ACROSS, ALONG = [90.0, 0, 0, 0, 0, 0], [0, 0, 0, 70.0, 0, 0]
NOTHING = [0.0, 0, 0, 0, 0, 1e-9]
WELD = WeldOfTwo(sn_curve=TOE, shear_curve=ROOT)


def straight(name, component, slope):
    return knee_curve(
        name=name,
        stress="range",
        r_ratio="any",
        knee_stress=80.0,
        knee_life=2e6,
        slope=slope,
        slope_below=slope,
        component=component,
    )


@pytest.mark.parametrize(("unit", "curve"), [((ACROSS, NOTHING), TOE), ((NOTHING, ALONG), ROOT)])
def test_one_stress_alone_is_its_class(unit, curve):
    rng = np.random.default_rng(1)
    course = duty(loads(rng.normal(size=300), rng.normal(size=300)))
    both = va.assess_life(spot(WELD, unit), course)
    measure = "component xx" if curve is TOE else "component xy"
    alone = va.assess_life(spot(StressLife(sn_curve=curve, mean_stress="none"), unit, measure=measure), course)
    assert both.life_repeats == pytest.approx(alone.life_repeats, rel=1e-9)


def test_both_damages_are_summed_and_the_comparison_is_met():
    course = duty(turning(90.0), turning(0.0))
    life = va.assess_life(spot(WELD, (ACROSS, ALONG)), course, target=1.0)
    parts = [
        va.assess_life(spot(WELD, unit), course).damage_per_repeat for unit in ((ACROSS, NOTHING), (NOTHING, ALONG))
    ]
    assert life.damage_per_repeat == pytest.approx(sum(parts), rel=1e-9)
    both = WELD.both(life)
    assert (both.normal, both.shear) == pytest.approx(tuple(parts), rel=1e-9)
    assert (both.repeats * both.normal) ** (2 / 3) + (both.repeats * both.shear) ** 0.4 == pytest.approx(0.5, rel=1e-9)
    assert WELD.both(va.assess_life(spot(WELD, (ACROSS, ALONG)), duty(turning(0.0)))).limit == 1.0
    assert "weld-not-in-step" in {one.code for one in life.findings}
    assert [label for label, _ in WELD.words_of(life, "metric")] == ["Weld", "IIW"]


def test_the_comparison_of_constant_ranges_is_the_sum_of_squares():
    """Straight curves of slopes 3 and 5: damages to 2/3 and 2/5 are the squares of ranges over strengths at that life."""
    weld = WeldOfTwo(sn_curve=straight("across", "normal", 3), shear_curve=straight("along", "shear", 5))
    life = va.assess_life(spot(weld, (ACROSS, ALONG)), duty(turning(90.0)))
    both = weld.both(life)
    cycles = both.repeats * 1e4
    squares = (180.0 / (80.0 * (2e6 / cycles) ** (1 / 3))) ** 2 + (140.0 / (80.0 * (2e6 / cycles) ** (1 / 5))) ** 2
    assert squares == pytest.approx(0.5, rel=2e-3)


@pytest.mark.parametrize("units", ["metric", "us"])
def test_every_line_can_be_redone(units):
    life = va.assess_life(
        spot(WELD, (ACROSS, ALONG), constant=[10.0, 0, 0, 0, 0, 0]), duty(turning(70.0, 0.2), turning(20.0)), target=1.0
    )
    for event in (None, "e0", "e1"):
        for step in va.life_working(life, units, event=event).steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-5, abs=1e-9), step.title
    factor = life.reserve_on_stress
    scaled = va.assess_life(spot(WELD, (factor * np.array(ACROSS), factor * np.array(ALONG))), life.duty_cycle)
    assert scaled.life_repeats == pytest.approx(1.0, rel=1e-6)


def test_other_components_are_told():
    life = va.assess_life(spot(WELD, ([90.0, 60.0, 0, 0, 0, 0], ALONG)), duty(turning(0.0)))
    assert "component-left-out" in {one.code for one in life.findings}


AT_0 = knee_curve(name="r0", stress="range", r_ratio=0, knee_stress=80.0, knee_life=2e6, slope=3, slope_below=5)


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: WeldOfTwo(sn_curve=ROOT, shear_curve=TOE), "Are the two exchanged"),
        (lambda: WeldOfTwo(sn_curve=AT_0, shear_curve=ROOT), "one for any R"),
        (lambda: WeldOfTwo(sn_curve="toe", shear_curve=ROOT), "one S-N curve"),
        (lambda: WeldOfTwo(sn_curve=TOE, shear_curve=ROOT, shear="xx"), "one of 'xy'"),
        (lambda: va.assess_life(spot(WELD), duty(turning(), between="worst case")), "each by itself"),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(InputError, match=said):
        ask()


@pytest.mark.parametrize("component", ["normal", "shear"])
def test_the_class_needed_is_the_lowest_of_one_stress_beside_the_other(component):
    course = duty(turning(90.0))
    life = va.assess_life(spot(WELD, (ACROSS, ALONG)), course)
    target = 0.7 * life.life_repeats
    found = va.class_needed(
        va.assess_life(spot(WELD, (ACROSS, ALONG)), course, target=target), "EN 1993-1-9", component=component
    )
    key = "sn_curve" if component == "normal" else "shear_curve"

    def reserve(name):
        weld = dataclasses.replace(WELD, **{key: detail_curve("EN 1993-1-9", name, component=component)})
        return va.assess_life(spot(weld, (ACROSS, ALONG)), course, target=target).reserve_on_life

    classes = [c for one in standard_named("EN 1993-1-9").curves if one.component == component for c in one.classes]
    assert found == min((name for name in set(classes) if reserve(name) >= 1.0), key=float)


def test_the_class_needed_by_a_plane_is_that_of_its_equivalent_stress():
    plane, course = CriticalPlane(sn_curve=TOE, criterion="normal stress"), duty(turning(0.0))
    life = va.assess_life(spot(plane, (ACROSS, NOTHING)), course, target=1.0)
    alone = va.assess_life(
        spot(StressLife(sn_curve=TOE, mean_stress="none"), (ACROSS, NOTHING), measure="component xx"),
        course,
        target=1.0,
    )
    assert va.class_needed(life, "EN 1993-1-9") == va.class_needed(alone, "EN 1993-1-9")
