"""Kt, Kf, and sections: against other sources' formulas, exact limits, and a torsion membrane solved on a grid."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.stress.membrane import membrane_shear
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import detail_curve, effective_notch_curve
from vivid_anvil.stress import (
    RectangleSection,
    elliptic_hole,
    hole_in_strip,
    notch_effect_by_gradient,
    notch_effect_by_radius,
    plate_under_pressure,
    plate_with_hole,
    relative_gradient,
    round_groove,
    shape_gradient,
    shoulder,
    through_thickness,
)
from vivid_anvil.stress.critical_distance import critical_length, hole_profile, notch_effect_by_distance

# 1 + 1 / √(A r/t + 2 B r/d (1 + 2 r/d)² + C (r/t)^z d/D), DIN 743-2, for a shoulder: another source than the charts
DIN = {"tension": (0.62, 3.5, 0.0, 0.0), "bending": (0.62, 5.8, 0.2, 3.0), "torsion": (3.4, 19.0, 1.0, 2.0)}


@given(st.sampled_from(sorted(DIN)), st.floats(1.15, 2.5), st.floats(0.3, 5.0))
def test_a_shoulder_by_the_charts_is_near_that_of_the_standard(load, larger, ratio):
    assume(load != "torsion" or ratio <= 4.0)
    depth = 50.0 * (larger - 1.0)
    radius = depth / ratio
    a, b, c, z = DIN[load]
    narrow = radius / 100.0
    root = a * radius / depth + 2.0 * b * narrow * (1.0 + 2.0 * narrow) ** 2 + c * (radius / depth) ** z / larger
    assert shoulder(load, 100.0 * larger, 100.0, radius, form="Peterson") == pytest.approx(
        1.0 + 1.0 / math.sqrt(root), rel=0.13
    )


@given(st.floats(0.001, 0.999))
def test_a_hole_in_a_strip_goes_from_three_to_two(share):
    """3 in a wide plate (Kirsch), 2 where it nearly cuts the strip; near Heywood's 2 + (1 - d/W)³ between."""
    found = hole_in_strip(100.0 * share, 100.0)
    assert found == pytest.approx(2.0 + (1.0 - share) ** 3, rel=0.03)
    assert elliptic_hole(5.0, 5.0) * 50.0 == pytest.approx(plate_with_hole(5.0, 5.0, 90.0, 50.0)[0])


def test_a_shallow_groove_is_a_semi_ellipse_at_an_edge():
    shallow = round_groove("tension", 1000.0, 999.0, 0.1)  # 1 + 2 √(t / r), within the free edge's share
    assert shallow == pytest.approx(1.0 + 2.0 * math.sqrt(0.5 / 0.1), rel=0.1)
    assert round_groove("bending", 200.0, 20.0, 2.0) < round_groove("tension", 200.0, 20.0, 2.0)


FINITE_ELEMENTS = [("tension", 4.0, 2.114), ("tension", 8.0, 1.703), ("bending", 4.0, 1.801), ("bending", 8.0, 1.478)]


@pytest.mark.parametrize(("load", "radius", "found"), FINITE_ELEMENTS)
def test_a_shoulder_is_near_that_of_finite_elements_and_nearer_than_the_older_chart(load, radius, found):
    kt = shoulder(load, 60.0, 40.0, radius)
    assert kt == pytest.approx(found, rel=0.025)
    assert abs(kt - found) < abs(shoulder(load, 60.0, 40.0, radius, form="Peterson") - found)


def test_the_profile_beside_a_hole_meets_both_ends():
    assert hole_profile(3.0, [0.0, 1e6], 100.0, -100.0) == pytest.approx([400.0, 100.0], rel=1e-6)
    assert critical_length("6 MPa√m", "310 MPa") == pytest.approx(critical_length(6.0 * 1000.0**0.5, 310.0))


def test_a_profile_that_ends_before_the_distance_is_refused():
    with pytest.raises(InputError, match="one that reaches 2 mm"):
        notch_effect_by_distance([0.0, 0.5], [300.0, 200.0], 1.0, 100.0, "line")


@pytest.mark.parametrize(
    ("effect", "limit"),
    [
        (lambda r: notch_effect_by_radius(3.0, r, 800.0), 1e4),
        (lambda r: notch_effect_by_radius(3.0, r, 800.0, "Neuber"), 1e6),
        (lambda r: notch_effect_by_gradient(3.0, 2.0 / r, 500.0), 1e6),
    ],
)
def test_large_notches_are_felt_whole_and_small_ones_hardly(effect, limit):
    assert effect(limit).kf == pytest.approx(3.0, rel=2e-3)
    found = [effect(r).kf for r in np.geomspace(0.01, limit, 30)]
    assert found == sorted(found)
    assert effect(1e-6).sensitivity < 0.05


def test_notch_sensitivity_by_hand():
    """Peterson 1959, 0.001 in at 2070 MPa; Neuber by the metric cubic in strength of machine-design textbooks."""
    for strength, radius, kt, q, kf in (
        (800.0, 1.0, 2.8, 0.876723322333, 2.5781019802),
        (1200.0, 2.5, 1.9, 0.973606466485, 1.87624581984),
    ):
        found = notch_effect_by_radius(kt, radius, strength)
        assert (found.sensitivity, found.kf) == pytest.approx((q, kf), rel=1e-9)
    alpha = 0.0254 * (2070.0 / 690.0) ** 1.8
    assert notch_effect_by_radius(2.5, 2.0, 690.0, load="torsion").sensitivity == pytest.approx(
        1.0 / (1.0 + 0.6 * alpha / 2.0)
    )
    rows = (
        (700.0, 1.5, 2.4, "axial or bending", 2.11865493617),
        (700.0, 1.5, 2.4, "torsion", 2.17323012062),
        (1000.0, 3.0, 1.7, "axial or bending", 1.63443397763),
        (1000.0, 3.0, 1.7, "torsion", 1.64523830884),
    )
    for strength, radius, kt, load, kf in rows:
        assert notch_effect_by_radius(kt, radius, strength, "Neuber", load).kf == pytest.approx(kf, rel=1e-9)
    gradient = shape_gradient("shoulder", "bending", 60.0, 50.0, 2.5)
    assert gradient == pytest.approx(2.3 * (1.0 + 1.0 / (4.0 * math.sqrt(2.0) + 2.0)) / 2.5)
    assert shape_gradient("round groove", "tension", 60.0, 30.0, 2.5) == pytest.approx(2.0 / 2.5)
    assert shape_gradient("shoulder", "torsion", 60.0, 50.0, 2.5) == pytest.approx(1.15 / 2.5)


def test_the_gradient_at_a_hole_is_that_of_kirsch():
    """-7 / 3 over the radius, at the flank of a hole under tension."""
    depths = np.array([0.0, 0.01, 0.02])
    along = [plate_with_hole(8.0, 8.0 + depth, 90.0, 40.0)[0] for depth in depths]
    assert relative_gradient(depths, along) == pytest.approx(7.0 / 3.0 / 8.0, rel=1e-4)


@pytest.mark.parametrize(("width", "height"), [(20.0, 20.0), (20.0, 50.0), (50.0, 20.0)])
def test_torsion_of_a_rectangle_is_that_of_the_membrane(width, height):
    section = RectangleSection(width, height)
    top, side = membrane_shear(width, height)
    assert section.stress(torque=1e5).torsion == pytest.approx(top * 1e5, rel=2e-3)
    assert section.largest_shear(1e5) == pytest.approx(max(top, side) * 1e5, rel=2e-3)


def test_torsion_of_a_thin_strip_and_a_square():
    thin = RectangleSection(500.0, 4.0)
    assert thin.largest_shear(1e5) == pytest.approx(3.0 * 1e5 / (500.0 * 4.0**2) / (1.0 - 0.63 * 4.0 / 500.0), rel=1e-3)
    assert RectangleSection(10.0, 10.0).largest_shear(1e3) == pytest.approx(1e3 / (0.2082 * 1e3), rel=1e-3)


@pytest.mark.parametrize("edge", ["clamped", "supported"])
def test_a_plate_under_pressure_is_in_equilibrium(edge):
    """Centre to edge the radial moment obeys m' + (m_r - m_t)/r = -p r / 2; both are parabolas in r."""
    found = plate_under_pressure(0.3, 120.0, 6.0, edge)
    modulus = 6.0**2 / 6.0
    centre, radial, around = (modulus * one for one in found)

    def m_r(r):
        return centre + (radial - centre) * (r / 120.0) ** 2

    def m_t(r):
        return centre + (around - centre) * (r / 120.0) ** 2

    for r in (30.0, 80.0, 119.0):
        slope = (m_r(r + 1e-3) - m_r(r - 1e-3)) / 2e-3
        assert slope + (m_r(r) - m_t(r)) / r == pytest.approx(-0.3 * r / 2.0, rel=1e-6)


@pytest.mark.parametrize(
    ("metal", "radius", "stress", "class_"),
    [
        ("steel", "1 mm", "principal", 225),
        ("steel", 0.05, "principal", 630),
        ("aluminium", 1.0, "principal", 71),
        ("steel", 1.0, "von Mises", 200),
        ("magnesium", 1.0, "principal", 28),
    ],
)
def test_the_class_belongs_to_metal_and_radius(metal, radius, stress, class_):
    curve = effective_notch_curve(metal, radius, stress=stress)
    assert curve.stress_at(2e6) == pytest.approx(class_)
    assert curve.life(1.2 * class_) == pytest.approx(2e6 / 1.2**3)
    assert curve.stress_at(1e8) == pytest.approx(class_ * 0.2 ** (1 / 3) * 0.1 ** (1 / 5))
    assert detail_curve("IIW effective notch", class_).life(class_) == pytest.approx(2e6)


WRONG = {
    "no chart": (lambda: shoulder("tension", 200.0, 100.0, 1.0, form="Peterson"), "where the chart ends"),
    "no fit": (lambda: shoulder("tension", 200.0, 100.0, 40.0), "r / d.*where it was fitted"),
    "an unknown form": (lambda: hole_in_strip(10.0, 40.0, "Petersen"), "Did you mean|one of"),
    "the wrong way round": (lambda: shoulder("tension", 40.0, 50.0, 2.0), "more than the smaller"),
    "another load": (lambda: round_groove("shear", 60.0, 50.0, 2.5), "tension"),
    "a dent": (lambda: round_groove("tension", 60.0, 59.0, 5.0), "Is the radius right?"),
    "a slot": (lambda: hole_in_strip(50.0, 40.0), "more than the diameter"),
    "soft steel": (lambda: notch_effect_by_radius(2.0, 1.0, 400.0), "550 MPa or more"),
    "hard steel": (lambda: notch_effect_by_radius(2.0, 1.0, 1900.0, "Neuber"), "340 to 1700 MPa"),
    "no notch": (lambda: notch_effect_by_radius(0.7, 1.0, 700.0), "net section"),
    "endless": (lambda: notch_effect_by_gradient(2.0, math.inf, 700.0), "at least 0"),
    "two points": (lambda: relative_gradient([0.0, 1.0], [3.0, 2.0]), "three or more"),
    "nothing": (lambda: relative_gradient([0.0, 1.0, 2.0], [0.0, 2.0, 1.0]), "the notch stress"),
    "a block": (lambda: plate_under_pressure(1.0, 10.0, 5.0, "clamped"), "up to 0.4"),
    "another radius": (lambda: effective_notch_curve("steel", "0.3 mm"), "0.05 mm for walls"),
    "another shape": (lambda: shape_gradient("hole", "tension", 60.0, 50.0, 2.0), "shoulder"),
}


@pytest.mark.parametrize(("ask", "message"), WRONG.values(), ids=WRONG)
def test_what_a_formula_does_not_hold_for_is_refused(ask, message):
    with pytest.raises(InputError, match=message):
        ask()


@given(st.lists(st.floats(-300.0, 300.0), min_size=1, max_size=7), st.floats(2.0, 60.0))
def test_a_function_through_the_thickness_is_integrated_as_it_is(factors, thickness):
    """A polynomial, by its own integrals; points on it joined by straight lines come near it as they grow many."""
    stress = np.polynomial.Polynomial(np.array(factors) / thickness ** np.arange(len(factors)))
    found = through_thickness([0.0, thickness], stress)
    whole, lever = stress.integ(), (stress * np.polynomial.Polynomial([0.5 * thickness, -1.0])).integ()
    assert found.membrane == pytest.approx(whole(thickness) / thickness, abs=1e-9)
    assert found.bending == pytest.approx(6.0 * lever(thickness) / thickness**2, abs=1e-9)
    assert found.membrane + found.bending + found.peak == pytest.approx(float(stress(0.0)), abs=1e-9)
    depths = np.linspace(0.0, thickness, 4001)
    assert through_thickness(depths, stress(depths)).membrane == pytest.approx(found.membrane, abs=1e-3)
    assert through_thickness([0.0, thickness], lambda x: 80.0).membrane == pytest.approx(80.0, rel=1e-12)
    for nonsense in (lambda x: "80 MPa", lambda x: x[:3], lambda x: x + np.nan):
        with pytest.raises(InputError, match="through thickness, stresses: found a function that gives"):
            through_thickness([0.0, thickness], nonsense)
