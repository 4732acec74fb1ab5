"""A flaw in the assessment diagram: limits by hand, reserves that meet the curve, every shape, what an expert says."""

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.acceptance.flaws import PLATE, STEEL, assessed, flaw, loads, metal
from vivid_anvil import (
    AsWelded,
    CentreCrack,
    CylinderSurfaceCrack,
    EdgeCrack,
    EmbeddedCrack,
    Flaw,
    FractureLoads,
    HeatTreated,
    InputError,
    KToughness,
    PartialFactors,
    PressureStress,
    PrimaryProfile,
    PrimaryStresses,
    ProfileStress,
    ResistanceCurve,
    SecondaryStresses,
    SphereSurfaceCrack,
    ToughnessTests,
    WeldProfile,
    assess_flaw,
    limiting_sizes,
    sensitivity,
    tearing,
)
from vivid_anvil.acceptance.limiting_sizes import limit_of
from vivid_anvil.acceptance.point import point_of
from vivid_anvil.growth import critical_sizes
from vivid_anvil.materials.fracture import ASSESSMENT_CURVES
from vivid_anvil.shapes import SHAPES
from vivid_anvil.shapes.solutions import assessment_curve
from vivid_anvil.units import UNIT_SYSTEMS

THROUGH = CentreCrack("2 m")


def through(half_length, stress, toughness, **others):
    part = Flaw(name="T", shape=THROUGH, size=half_length)
    return assess_flaw(part, loads(stress), metal(KToughness(k=toughness)), **others)


def test_a_crack_in_a_wide_plate_under_small_load_is_linear_elastic():
    found = through(10.0, 5.0, 60.0)
    k = 5.0 * math.sqrt(math.pi * 10.0)
    assert found.point.governing.fracture_ratio == pytest.approx(k / 60.0, rel=1e-4)
    assert found.reserve_on_toughness.factor == pytest.approx(60.0 / k, rel=2e-4)  # f(L_r) is 1 there
    assert found.reserve_on_load.factor == pytest.approx(60.0 / k, rel=2e-3)


def test_without_limit_of_toughness_it_is_plastic_collapse():
    found = through(200.0, 100.0, 1e9)
    flow = 0.5 * (355.0 + 510.0)
    assert found.reserve_on_load.factor == pytest.approx(flow * (1.0 - 0.2) / 100.0, rel=1e-6)
    # the strengths fall together, so that the cut-off falls with them
    assert found.reserve_on_yield.factor == pytest.approx(found.reserve_on_load.factor, rel=1e-6)


def test_the_limiting_size_of_an_assessment_is_where_growth_stops():
    shape = CentreCrack("300 mm")
    found = assess_flaw(Flaw(name="T", shape=shape, size=10.0), loads(160.0), metal(KToughness(k=3500.0)))
    steel = dataclasses.replace(STEEL, toughness=3500.0)
    stop = critical_sizes(shape, steel, 160.0, limits="assessment curve").assessment
    assert limit_of(found, found.sizes) == pytest.approx(stop, rel=1e-9)
    curve = limiting_sizes(found).curves[0]
    assert curve.depths[0] == pytest.approx(stop, rel=1e-9)


@given(
    st.floats(1.0, 14.0),
    st.floats(0.2, 1.0),
    st.floats(20.0, 300.0),
    st.floats(0.0, 100.0),
    st.floats(0.0, 300.0),
    st.floats(300.0, 9000.0),
    st.sampled_from(["rho", "V", "none"]),
    st.sampled_from(["general", "older", "yield plateau"]),
)
def test_every_reserve_meets_the_curve_and_agrees_with_the_verdict(a, aspect, m, b, q, k, way, curve):
    held = [SecondaryStresses(membrane=q, of="residual")]
    here, inside = flaw(a, a / aspect), metal(KToughness(k=k), curve=curve)
    found = assess_flaw(here, loads(m, b, held, interaction=way), inside)
    for reserve in found.reserves:
        assert found.acceptable == (reserve.factor >= 1.0) or reserve.factor == pytest.approx(1.0, abs=1e-9)
    load, tough, size, strength = (one.factor for one in found.reserves)
    near = {"abs": 2e-6}
    if 0.0 < load < math.inf:
        again = assess_flaw(here, loads(load * m, load * b, held, interaction=way), inside)
        beyond = (
            again.point.load_ratio > again.curve.largest_load_ratio * (1.0 - 1e-6) or again.point.load_ratio > 0.999
        )
        assert beyond or again.point.room == pytest.approx(0.0, **near)
    if 0.0 < tough < math.inf:
        again = assess_flaw(here, loads(m, b, held, interaction=way), metal(KToughness(k=k / tough), curve=curve))
        assert again.point.room == pytest.approx(0.0, **near)
    if 0.0 < size < math.inf:
        terms = found.terms_at(tuple(size * one for one in found.sizes))
        room = point_of(terms, found.curve, found.toughness, found.loads.way, ("a", "c")).room
        jump = terms.reference / found.curve.yield_strength > 0.999
        assert jump or room == pytest.approx(0.0, abs=1e-5)
    assert strength <= found.curve.largest_load_ratio / found.point.load_ratio * (1.0 + 1e-8)


def test_more_of_anything_bad_leaves_less_room():
    base = assessed(under=loads(150.0, 30.0, [SecondaryStresses(membrane=80.0)])).point.room
    for worse in (
        assessed(under=loads(160.0, 30.0, [SecondaryStresses(membrane=80.0)])),
        assessed(under=loads(150.0, 40.0, [SecondaryStresses(membrane=80.0)])),
        assessed(under=loads(150.0, 30.0, [SecondaryStresses(membrane=90.0)])),
        assessed(flaw(6.0), loads(150.0, 30.0, [SecondaryStresses(membrane=80.0)])),
        assessed(under=loads(150.0, 30.0, [SecondaryStresses(membrane=80.0)]), within=metal(KToughness(k=2300.0))),
        *(
            assessed(
                under=loads(150.0, 30.0, [SecondaryStresses(membrane=80.0)]), partial_factors=PartialFactors(**one)
            )
            for one in ({"load": 1.1}, {"size": 1.1}, {"toughness": 1.1}, {"strength": 1.1})
        ),
    ):
        assert worse.point.room < base


def test_partial_factors_are_the_values_that_they_make():
    all_of_them = PartialFactors(load=1.2, size=1.3, toughness=1.4, strength=1.1)
    found = assessed(under=loads(150.0, 30.0), partial_factors=all_of_them)
    weak = dataclasses.replace(STEEL, yield_strength=355.0 / 1.1, ultimate_strength=510.0 / 1.1, toughness=2400.0 / 1.4)
    by_hand = assess_flaw(flaw(6.5, 15.6), loads(180.0, 36.0), dataclasses.replace(metal(), material=weak))
    assert found.point.load_ratio == pytest.approx(by_hand.point.load_ratio)
    assert found.point.governing.fracture_ratio == pytest.approx(by_hand.point.governing.fracture_ratio)
    assert found.reserve_on_load.factor == pytest.approx(by_hand.reserve_on_load.factor)


SIZES = {"surface": (5.0, 12.0), "embedded": (3.0, 9.0)}
MADE = {
    "edge": EdgeCrack("60 mm"),
    "centre": CentreCrack("100 mm"),
    "surface": PLATE,
    "embedded": EmbeddedCrack(thickness=25.0, plate_width=300.0, centre_depth=8.0),
    "cylinder, along, surface": CylinderSurfaceCrack(radius=500.0, wall=20.0),
    "sphere, surface": SphereSurfaceCrack(radius=900.0, wall=20.0),
}


@pytest.mark.parametrize("kind", MADE)
def test_every_output_of_a_flaw_in_every_shape(kind):
    shape = MADE[kind]
    two = len(shape.sizes) == 2
    size, half = SIZES.get(kind, (4.0, 10.0)) if two else (6.0, None)
    found = assess_flaw(flaw(size, half, shape), loads(120.0, 30.0, [SecondaryStresses(bending=20.0)]), metal())
    assert len(found.point.ends) == len(shape.sizes)
    for units in UNIT_SYSTEMS:
        text = "\n".join(str(step) for step in found.working(units).steps)
        assert "L_r" in text
        assert "K_r" in text
        assert found.page(units).tables
    record = found.to_dict()
    assert record["acceptable"] is True
    assert len(record["reserves"]) == 4
    assert "A1" in found._repr_html_()


def test_the_working_gives_the_numbers_of_the_result():
    held = [AsWelded(relaxed="by the load")]
    found = assessed(under=loads(150.0, 30.0, held))
    steps = {step.title: step for step in found.working().steps}
    end = found.point.governing
    assert steps["Load ratio"].value == found.point.load_ratio
    assert steps["K of primary stress"].value == end.k_primary
    assert steps["K of secondary stress"].value == end.k_secondary
    assert steps[f"Fracture ratio at the {end.name}"].value == end.fracture_ratio
    assert steps["Interaction by plasticity"].value == end.added
    assert steps["Largest K_r"].value == found.point.allowed
    assert steps["Reserve on load"].value == found.reserve_on_load.factor
    m, b = (
        steps["K per MPa of membrane stress at the deepest point"],
        steps["K per MPa of bending stress at the deepest point"],
    )
    assert 150.0 * m.value + 30.0 * b.value == pytest.approx(end.k_primary)


def test_a_stress_over_the_wall_is_its_membrane_and_bending_where_it_is_straight():
    """By weight functions, which lie within a few per cent of the polynomial factors."""
    rows = [(0.0, 180.0), (25.0, 120.0)]
    straight = assessed(under=loads(150.0, 30.0))
    found = assess_flaw(flaw(), FractureLoads([PrimaryProfile(points=rows)]), metal())
    assert found.terms.reference == pytest.approx(straight.terms.reference)
    assert found.terms.primary == pytest.approx(straight.terms.primary, rel=0.05)
    held = assess_flaw(flaw(), loads(150.0, 0.0, [ProfileStress(points=rows)]), metal())
    assert held.terms.secondary == pytest.approx(straight.terms.primary, rel=0.05)


def test_pressure_is_in_balance_over_the_wall():
    for direction in ("around", "along", "sphere"):
        own = PressureStress(pressure=12.0, inner_radius=400.0, wall=30.0, direction=direction, flaw_inside=True)
        inner, outer = own._faces
        mean = own.at_section().membrane
        assert outer <= mean <= inner
        assert own.at_section().bending == pytest.approx(0.5 * (inner - outer))
        assert own.at_crack().membrane == pytest.approx(mean + 12.0)
    thin = PressureStress(pressure=1.0, inner_radius=1000.0, wall=1.0, direction="sphere").at_section()
    assert thin.membrane == pytest.approx(500.0, rel=1e-3)


def test_residual_stress_by_kind():
    weld = metal()
    at = {"reference_stress": 100.0, "wall": 25.0}
    assert AsWelded().stress(weld, **at).membrane == 355.0
    assert HeatTreated(stress_acts="along the weld").stress(weld, **at).membrane == pytest.approx(0.3 * 355.0)
    thin = WeldProfile(weld="thin pipe butt weld, across").stress(weld, **at)
    assert thin[:2] == pytest.approx((0.0, 355.0))  # from yield to minus yield
    butt = WeldProfile(weld="butt weld, across").stress(weld, **at).profile
    assert float(butt(0.0)) == pytest.approx(0.9415 * 355.0)
    mean, _ = butt.means(25.0)
    assert mean / 355.0 == pytest.approx(0.9415 - 0.0319 / 2 - 8.3394 / 3 + 8.660 / 4, rel=1e-3)


def test_the_general_curve_is_the_one_of_growth():
    ratios = np.linspace(0.0, 1.4, 57)
    own = metal().assessment_curve.at(ratios)
    assert own == pytest.approx(assessment_curve(ratios, 355.0, 510.0, 207000.0), rel=1e-14)


@pytest.mark.parametrize("kind", ASSESSMENT_CURVES)
def test_every_curve_falls_to_its_cut_off_and_weakens_with_the_strengths(kind):
    rows = [[300, 0.0015], [355, 0.0037], [400, 0.02], [560, 0.15]]
    curve = metal(curve=kind, **({"stress_strain": rows} if kind == "stress-strain" else {})).assessment_curve
    heights = curve.at(np.linspace(0.0, curve.largest_load_ratio, 200))
    assert heights[0] == pytest.approx(1.0)
    assert (np.diff(heights) <= 1e-12).all()
    assert curve.allowed(curve.largest_load_ratio * 1.0001) == 0.0
    weaker = curve.weaker(1.3)
    assert weaker.yield_strength == pytest.approx(355.0 / 1.3)
    assert weaker.largest_load_ratio == pytest.approx(curve.largest_load_ratio)
    for ratio in (0.3, 1.0, 1.1, 2.0):
        assert curve.steps(ratio)[-1].value == curve.allowed(ratio)


def test_sensitivity_names_what_moves_the_verdict_most():
    tough = sensitivity(assessed(under=loads(20.0), within=metal(KToughness(k=160.0))))
    assert tough.moved[0].what in ("toughness", "primary stress")
    collapse = sensitivity(assessed(under=loads(280.0), within=metal(KToughness(k=1e6))))
    assert collapse.moved[0].what in ("primary stress", "yield and ultimate strength")
    assert {row["input"] for row in tough.tables()[0].rows()} >= {
        "toughness",
        "depth of the flaw",
        "half length of the flaw",
    }


def test_tearing_carries_more_than_initiation():
    curve = ResistanceCurve(points=[(0.1, 60.0), (0.5, 140.0), (2.0, 300.0)])
    found = tearing(assessed(flaw(8.0, 20.0), loads(200.0), metal(curve)))
    assert found.largest > found.factor[0]
    assert found.toughness == pytest.approx(
        np.sqrt(np.interp(found.torn, [0.1, 0.5, 2.0], [60.0, 140.0, 300.0]) * metal().stiffness)
    )
    with pytest.raises(InputError, match="ResistanceCurve"):
        tearing(assessed())


def codes(found):
    return {one.code for one in found.findings}


def test_findings_of_flaws():
    assert codes(assessed(flaw(12.0, 30.0), loads(260.0, 30.0))) >= {"flaw-not-acceptable"}
    assert "nearly-through" in codes(assessed(flaw(22.0, 40.0), loads(30.0)))
    assert "no-residual-stress" in codes(assessed(flaw(weld="as welded")))
    assert "no-residual-stress" not in codes(assessed(flaw(weld="as welded"), loads(150.0, 0.0, [AsWelded()])))
    assert "primary-above-yield" in codes(assessed(under=loads(400.0)))
    assert "primary-small" in codes(assessed(under=loads(3.0)))
    assert "secondary-helps" in codes(assessed(under=loads(150.0, 0.0, [SecondaryStresses(membrane=-50.0)])))
    tests = ToughnessTests(results=["80 MPa√m", "91 MPa√m", "77 MPa√m"], rule="lower bound")
    assert "partial-factor-twice" in codes(assessed(within=metal(tests), partial_factors=PartialFactors(toughness=1.2)))
    assert "reserve-one-sided" in codes(
        assessed(flaw(4.0, 10.0), loads(60.0, 0.0, [AsWelded()]), metal(KToughness(k=1800.0)))
    )
    assert "size-not-limited" in codes(assessed(flaw(1.0, 2.0), loads(40.0), metal(KToughness(k=6000.0))))
    assert codes(assessed()) == set()


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: flaw(30.0), "breaks through"),
        (lambda: flaw(5.0, None), "half of its length"),
        (lambda: flaw(0.0), "above 0"),
        (lambda: flaw(5.0, 1.0), "half lengths"),
        (lambda: flaw(weld="welded"), "as welded"),
        (lambda: Flaw(name="T", shape=THROUGH, size=10.0, half_length=5.0), "no such key"),
        (lambda: FractureLoads([AsWelded()]), "primary stresses"),
        (lambda: FractureLoads([PrimaryStresses(membrane=1.0)], [PrimaryStresses(membrane=1.0)]), "secondary stresses"),
        (lambda: loads(interaction="sum"), "rho"),
        (lambda: metal(curve="generall"), "Did you mean 'general'"),
        (lambda: metal(plateau_strain=0.01), "none here"),
        (lambda: metal(cut_off=-1.0), "above 0"),
        (lambda: PartialFactors(load=0.9), "at least 1"),
        (lambda: KToughness(k="0 MPa√m"), "above 0"),
        (lambda: KToughness(k=-5.0), "above 0"),
        (lambda: PressureStress(pressure=1.0, inner_radius=1.0, wall=1.0, direction="hoop"), "around"),
        (lambda: AsWelded(relaxed="yes"), "by the load"),
        (lambda: WeldProfile(weld="fillet"), "T-butt"),
    ],
)
def test_what_cannot_be_is_told(make, words):
    with pytest.raises(InputError, match=words):
        make()


def test_stresses_that_a_shape_does_not_know_are_told():
    hole = SHAPES["hole"](radius=5.0, cracks=2, plate_width=100.0)
    part = Flaw(name="H", shape=hole, size=3.0)
    assert assess_flaw(part, loads(80.0), metal()).acceptable
    with pytest.raises(InputError, match="bending"):
        assess_flaw(part, loads(80.0, 10.0), metal())
    with pytest.raises(InputError, match="weight function"):
        assess_flaw(part, loads(80.0, 0.0, [ProfileStress(points=[(0.0, 50.0), (90.0, 50.0)])]), metal())


def test_a_toughness_that_goes_with_the_thickness_needs_one():
    thick = KToughness(k="80 MPa√m", specimen_thickness="12 mm")
    part = Flaw(name="T", shape=CentreCrack("300 mm"), size=5.0)
    with pytest.raises(InputError, match="goes with the thickness"):
        assess_flaw(part, loads(80.0), metal(thick))
    stated = assess_flaw(dataclasses.replace(part, wall="25 mm"), loads(80.0), metal(thick))
    assert stated.toughness == pytest.approx(metal(thick).tough(25.0).k)
    with pytest.raises(InputError, match="the shape has 25 mm"):
        flaw(wall="30 mm")
