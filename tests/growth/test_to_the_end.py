"""A crack of any shape grows to an end of its own from wherever it starts, through the wall too."""

import math

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.growth.plates import crack, loads
from tests.shapes.test_scale import MADE
from vivid_anvil import shapes as sh
from vivid_anvil.growth import grow_crack
from vivid_anvil.materials import Material, ParisLaw

LAW = ParisLaw(name="p", rate="5e-13 mm/cycle at 1 MPa√mm", slope=3.0)
ENDS = {
    "toughness",
    "net-section yield",
    "wall",
    "limit of the solution",
    "length of the solution",
    "aspect of the solution",
}


def grown(shape, share, aspect, toughness, high):
    low, most = getattr(shape, "aspect_limits", (0.0, 2.0))
    first = max(share * shape.deepest, 1.001 * shape.smallest_size)
    named = {"initial_size": first}
    if len(shape.sizes) == 2:
        half = first / min(max(aspect, 1.001 * low), 0.999 * most)
        named["initial_half_length"] = min(half, 0.95 * shape.longest)
    steel = Material(name="steel", yield_strength="500 MPa", toughness=f"{toughness} MPa√m")
    return grow_crack(crack(steel, shape=shape, law=LAW, **named), loads(high, 0.1 * high))


def legs_of(result):
    while result is not None:
        yield result
        result = result.then


@pytest.mark.slow
@pytest.mark.parametrize("kind", MADE)
@given(st.floats(0.02, 0.6), st.floats(0.1, 1.9), st.floats(15.0, 2000.0), st.floats(20.0, 200.0))
@settings(max_examples=5, deadline=None)
@example(0.1, 0.8, 1e5, 20.0)
@example(0.5, 0.125, 15.0, 20.0)
@example(0.6, 0.1, 2000.0, 20.0)
@example(0.6, 1.9, 2000.0, 200.0)
def test_a_crack_grows_to_an_end(kind, share, aspect, toughness, high):
    result = grown(MADE[kind](1.0), share, aspect, toughness, high)
    assert result.stopped_by in ENDS
    assert math.isfinite(result.life_repeats)
    assert result.life_repeats == pytest.approx(sum(one.repeats[-1] for one in legs_of(result)), rel=1e-6)
    for leg in legs_of(result):
        assert (leg.sizes[1:] >= leg.sizes[:-1]).all()
        assert (leg.repeats[1:] >= leg.repeats[:-1]).all()
    if result.life_repeats == 0.0:
        assert "critical from the start" in repr(result)
        assert "critical from the start" in result.working("metric").opening
    else:
        assert result.working("metric").steps


@given(st.floats(10.0, 500.0), st.floats(5.0, 20.0))
@settings(max_examples=50, deadline=None)
def test_around_a_pipe_of_any_radius_the_solution_goes_to_its_last_degree(radius, ratio):
    shape = sh.PipeCrack(radius, radius / ratio)
    assert shape.largest_size / radius == pytest.approx(math.radians(99.0), rel=1e-9)
    assert float(shape.geometry_factor(shape.largest_size)) > 2.0


@pytest.mark.parametrize(("ratio", "goes_on"), [(12.0, True), (19.9, True), (20.1, False), (60.0, False)])
def test_a_crack_around_a_pipe_goes_on_where_a_solution_does(ratio, goes_on):
    shape = sh.PipeSurfaceCrack(radius=12.0 * ratio, wall=12.0)
    result = grown(shape, 0.3, 0.5, 1e4, 60.0)
    assert result.then is not None if goes_on else result.stopped_by == "wall"
