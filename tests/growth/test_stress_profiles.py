"""Cracks under any stress across the section, and residual stress: limits that hold for any good solution."""

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.growth.plates import STEEL, crack, loads, programme
from tests.spots import changed
from vivid_anvil import growth as gr
from vivid_anvil import shapes as sh
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import ParisLaw, WalkerLaw
from vivid_anvil.shapes import solutions
from vivid_anvil.shapes.solutions import (
    edge_crack_by_weight,
    surface_crack,
    surface_crack_by_weight,
    surface_ends_by_weight,
)

pytestmark = pytest.mark.slow

WALKER = WalkerLaw(name="w", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, gamma=0.5)
WIDE = sh.SurfaceCrack(thickness=30.0, plate_width=400.0)


@settings(max_examples=40)
@given(st.floats(0.05, 0.95), st.floats(0.2, 1.0), st.floats(-1.0, 1.0))
def test_weight_functions_give_back_tension_and_bending(depth, aspect, bent):
    """The two from which they are made, mixed in any way, at both points of the front."""
    t, a = 10.0, 10.0 * depth
    profile = solutions.StressProfile([(0.0, 100.0), (t, 100.0 * (1.0 - 2.0 * bent))])
    ends = [surface_crack(a, a / aspect, t, 1e4, angle) for angle in (90.0, 0.0)]
    known = [100.0 * ((1.0 - bent) * one.tension + bent * one.bending) * math.sqrt(math.pi * a) for one in ends]
    deep = surface_crack_by_weight(profile, a, a / aspect, t, 1e4).k
    assert deep == pytest.approx(known[0], rel=1e-9, abs=1e-6)
    assert surface_ends_by_weight(profile, a, a / aspect, t, 1e4) == pytest.approx(known[1], rel=1e-9, abs=1e-6)


@given(st.lists(st.floats(-200.0, 300.0), min_size=4, max_size=4), st.floats(0.5, 9.0))
def test_a_profile_is_integrated_exactly_from_kink_to_kink(values, size):
    """Against the trapezium rule in the depth from the tip, fine enough; and the sum of two profiles has the sum of their K."""
    profile = solutions.StressProfile(list(zip((0.0, 1.0, 4.0, 20.0), values, strict=True)))
    flat, rest = 30.0, solutions.StressProfile([(d, s - 30.0) for d, s in profile.points])
    k = float(edge_crack_by_weight(profile, size, 20.0))
    parts = float(edge_crack_by_weight(lambda x: flat + 0.0 * x, size, 20.0) + edge_crack_by_weight(rest, size, 20.0))
    assert k == pytest.approx(parts, rel=1e-9, abs=1e-7)
    u = (np.arange(200_000) + 0.5) / 200_000
    y = size / 20.0
    m1, m2 = 0.6147 + 17.1844 * y**2 + 8.7822 * y**6, 0.2502 + 3.2889 * y**2 + 70.0444 * y**6
    slow = (
        np.sqrt(2.0 / np.pi) * 2.0 * np.sqrt(size) * (profile(size * (1 - u**2)) * (1 + m1 * u**2 + m2 * u**4)).mean()
    )
    assert k == pytest.approx(float(slow), rel=1e-6, abs=1e-4)


@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
def test_even_residual_stress_is_a_stress_that_is_always_there(order):
    """K of an even profile is that of the offset of a hot spot, which knows nothing of weight functions; yield apart."""
    strong = dataclasses.replace(STEEL, yield_strength="3 GPa")
    shape = {"shape": WIDE, "initial_half_length": 4.0, "law": WALKER, "material": strong, "stop_size": 20.0}
    there = crack(**shape, residual_stress=[(0.0, 40.0), (30.0, 40.0)], order=order)
    moved = crack(**shape, order=order)
    moved = dataclasses.replace(moved, hot_spot=changed(moved.hot_spot, offset=40.0))
    duty = programme((60.0, -90.0, 3000), (100.0, -30.0, 2000))
    ways = [gr.grow_crack(one, duty) for one in (there, moved)]
    assert ways[0].life_repeats == pytest.approx(ways[1].life_repeats, rel=2e-6)
    assert ways[0].half_lengths[-1] == pytest.approx(ways[1].half_lengths[-1], rel=2e-6)
    assert ways[0].start_peak_k == pytest.approx(ways[1].start_peak_k, rel=1e-9)
    assert ways[0].event_shares() == pytest.approx(ways[1].event_shares())


@pytest.mark.parametrize(
    "shape", [{"shape": sh.EdgeCrack(60.0)}, {"shape": WIDE, "initial_half_length": 4.0, "stop_size": 4.0}]
)
def test_tension_left_by_welding_shortens_the_life_and_compression_lengthens_it(shape):
    left = {"tension": 80.0, "none": 0.0, "compression": -30.0}
    lives = {}
    for name, stress in left.items():
        flaw = crack(law=WALKER, residual_stress=[(0.0, stress), (60.0, stress)], **shape)
        by_cycle = dataclasses.replace(flaw, order="cycle by cycle")
        duty = programme((120.0, -60.0, 2000))
        grown = [gr.grow_crack(one, duty) for one in (flaw, by_cycle)]
        assert grown[0].life_repeats == pytest.approx(grown[1].life_repeats, rel=2e-3)
        lives[name] = grown[0].life_repeats
    assert lives["tension"] < 0.7 * lives["none"]
    assert lives["compression"] > 1.3 * lives["none"]


def test_residual_stress_counts_for_fracture_and_not_for_yield():
    tough = dataclasses.replace(STEEL, toughness="40 MPa√m", yield_strength="1 GPa")
    plain, left = (
        gr.grow_crack(crack(tough, residual_stress=stress), loads()) for stress in (None, [(0.0, 60.0), (60.0, 60.0)])
    )
    assert left.critical.toughness < plain.critical.toughness
    assert left.critical.net_section is None or left.critical.net_section == plain.critical.net_section
    assert left.peak_k(left.critical.toughness) == pytest.approx(tough.toughness, rel=1e-9)
    loaded = gr.limits_over_load(left, [0.8, 1.0, 1.5])
    assert [one.size for one in loaded] == sorted((one.size for one in loaded), reverse=True)
    assert loaded[1].size == pytest.approx(left.critical.limiting)


@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
def test_every_line_of_a_step_with_residual_stress_is_what_its_numbers_give(order):
    flaw = crack(
        shape=WIDE, initial_half_length=4.0, law=WALKER, residual_stress=[(0.0, 90.0), (30.0, -90.0)], order=order
    )
    result = gr.grow_crack(flaw, programme((80.0, -60.0, 4000), (120.0, 50.0, 500)))
    steps = gr.growth_working(result).steps
    assert [step for step in steps if step.title == "K of the residual stress"]
    for step in steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-4), step.title
    course = gr.crack_course(result)
    assert course.depth_k[0] == pytest.approx(result.depth_scale(1.0) * 120.0 + flaw.always_at(1.0, 4.0)[0])


def test_a_profile_of_shares_drives_both_ends_and_the_net_section():
    even = sh.ProfileSurfaceCrack(thickness=30.0, plate_width=400.0, stress_profile=[(0.0, 1.0), (30.0, 1.0)])
    notch = sh.ProfileSurfaceCrack(
        thickness=30.0, plate_width=400.0, stress_profile=[(0.0, 2.0), (3.0, 1.0), (30.0, 0.9)]
    )
    assert even.factors(3.0, 6.0) == pytest.approx(WIDE.factors(3.0, 6.0), rel=1e-9)
    assert even.collapse_stress(3.0, 6.0, 100.0) == pytest.approx(WIDE.collapse_stress(3.0, 6.0, 100.0))
    assert even.after(30.0, 40.0)[0].kind == "centre"
    assert notch.after(30.0, 40.0) is None
    deep, along = (y / plain for y, plain in zip(notch.factors(3.0, 6.0), WIDE.factors(3.0, 6.0), strict=True))
    assert 1.0 < deep < along < 2.0  # the surface points stand where the stress is raised
    edge = sh.ProfileEdgeCrack(60.0, [(0.0, 1.0), (60.0, 1.0)])
    sizes = np.array([0.5, 5.0, 20.0, 30.0])
    assert edge.geometry_factor(sizes) == pytest.approx(sh.EdgeCrack(60.0).geometry_factor(sizes), rel=0.012)
    assert edge.net_section_stress(sizes, 50.0) == pytest.approx(sh.EdgeCrack(60.0).net_section_stress(sizes, 50.0))


BAD = {
    "too short": (lambda: crack(residual_stress=[(0.0, 10.0), (5.0, 0.0)]), "points to 30 mm"),
    "no weight function": (
        lambda: crack(shape=sh.CentreCrack(60.0), residual_stress=[(0.0, 1.0), (60.0, 0.0)]),
        "weight function",
    ),
    "below the surface": (lambda: solutions.StressProfile([("1 mm", 1.0), ("2 mm", 1.0)]), "start at 0 mm"),
    "back and forth": (lambda: solutions.StressProfile([(0.0, 1.0), (3.0, 1.0), (2.0, 1.0)]), "rise from row to row"),
    "one row": (lambda: solutions.StressProfile([(0.0, 1.0)]), "two or more rows"),
    "share in MPa": (lambda: sh.ProfileEdgeCrack(60.0, [(0.0, "1 MPa"), (60.0, 1.0)]), "number"),
    "beyond the profile": (lambda: solutions.StressProfile([(0.0, 1.0), (2.0, 1.0)])(3.0), "nothing is extrapolated"),
    "shares to the middle": (lambda: sh.ProfileEdgeCrack(60.0, [(0.0, 1.0), (30.0, 1.0)]), "through the section"),
    "deeper than long": (
        lambda: crack(shape=WIDE, initial_size=5.0, initial_half_length=4.0, residual_stress=[(0.0, 1.0), (30.0, 1.0)]),
        "no deeper than half as long",
    ),
    "with closure": (
        lambda: crack(
            residual_stress=[(0.0, 1.0), (60.0, 1.0)], order="cycle by cycle", retardation=gr.ConstantClosure()
        ),
        "either of them",
    ),
}


@pytest.mark.parametrize(("make", "message"), BAD.values(), ids=BAD)
def test_a_profile_that_cannot_be_meant_is_refused(make, message):
    with pytest.raises(InputError, match=message):
        make()


def test_a_crack_that_grows_out_of_the_tension_comes_to_rest():
    """Under a pin K falls with the size; compression below the surface closes it: both stop where ΔK is the threshold."""
    law = ParisLaw(name="p", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, threshold=120.0)
    pin = crack(shape=sh.HoleCrack(5.0, 2, 200.0, pin_share=1.0), law=law)
    closed = crack(shape=sh.EdgeCrack(60.0), law=law, residual_stress=[(0.0, 0.0), (6.0, -250.0), (60.0, -100.0)])
    for flaw, stress in ((pin, 6.5), (closed, 120.0)):
        duty = loads(stress, 0.0)
        found = gr.grow_crack(dataclasses.replace(flaw, detectable_size=1.2), duty)
        assert (found.stopped_by, found.life_repeats, found.interval_repeats) == ("no growth", math.inf, math.inf)
        assert 1.0 < found.final_size < found.critical.limiting
        assert float(found.depth_cycles(found.final_size)[0].max()) == pytest.approx(120.0, rel=1e-6)
        assert found.repeats[-1] < math.inf
