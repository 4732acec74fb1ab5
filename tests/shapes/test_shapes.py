"""Shapes: limits that hold for any good solution, where each ends, and what each becomes."""

import math

import numpy as np
import pandas as pd
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.by_hand import by_hand
from tests.shapes.dislocations import equal_tension, exact_k, pressed_apart, tension
from vivid_anvil import growth as gr
from vivid_anvil import shapes as sh
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.solutions import (
    corner_crack,
    embedded_in_infinite,
    hole_corner_crack,
    hole_crack,
    hole_crack_biaxial,
    hole_wedge_force,
    k_from_j,
    k_of_contour_frame,
    k_of_contours,
    pin_hole_crack,
    round_bar_thumbnail,
    surface_crack,
)

ONE_SIZE = {
    "edge": sh.EdgeCrack(60.0),
    "edge in bending": sh.EdgeCrack(60.0, bending_share=1.0),
    "centre": sh.CentreCrack(60.0),
    "double edge": sh.DoubleEdgeCrack(60.0),
    "hole": sh.HoleCrack("3 mm", 2, "60 mm"),
    "edge, any stress": sh.ProfileEdgeCrack(60.0, [(0.0, 1.0), (60.0, 1.0)]),
    "pipe": sh.PipeCrack("100 mm", "12.5 mm"),
    "pipe, along": sh.AxialPipeCrack("100 mm", "10 mm"),
    "bar": sh.BarCrack("30 mm"),
    "bar, surface": sh.BarSurfaceCrack("30 mm"),
    "table": sh.TableCrack([("0.5 mm", 1.12), ("2 mm", 1.2), ("10 mm", 2.1)]),
}
TWO_SIZES = {
    "surface": sh.SurfaceCrack(thickness=12.0, plate_width=150.0, attachment_length=20.0),
    "surface, bending": sh.SurfaceCrack(thickness=12.0, plate_width=150.0, bending_share=0.6),
    "corner": sh.CornerCrack(thickness=12.0, plate_width=150.0),
    "hole, corner": sh.HoleCornerCrack(thickness=12.0, plate_width=150.0, radius=8.0, cracks=1),
    "embedded": sh.EmbeddedCrack(thickness=20.0, plate_width=150.0),
    "embedded, near a surface": sh.EmbeddedCrack(thickness=20.0, plate_width=150.0, centre_depth=6.0),
    "surface, any stress": sh.ProfileSurfaceCrack(
        thickness=12.0, plate_width=150.0, stress_profile=[(0.0, 1.6), (2.0, 1.1), (12.0, 0.9)]
    ),
    "vessel": sh.VesselCrack(thickness=12.0, radius=100.0),
    "pipe": sh.PipeSurfaceCrack(radius=200.0, wall=12.0),
    "grid": sh.GridCrack(
        depths=[0.5, 4.0, 11.0],
        aspects=[0.1, 0.5, 1.5],
        deep=[[1.1, 0.9, 0.7], [1.2, 1.0, 0.75], [1.5, 1.2, 0.8]],
        along=[[0.5, 0.7, 0.8], [0.6, 0.8, 0.9], [0.9, 1.0, 1.1]],
    ),
}


@pytest.mark.parametrize("shape", ONE_SIZE.values(), ids=ONE_SIZE)
def test_k_rises_to_the_limit_of_the_shape_and_ends_there(shape):
    start = max(getattr(shape, "smallest_size", 0.0), 1e-3 * shape.largest_size)
    sizes = np.linspace(start, shape.largest_size, 200)
    k = sh.stress_intensity(shape, sizes, 100.0)
    assert (np.diff(k) > 0.0).all()
    assert (np.diff(shape.net_section_stress(sizes, 100.0)) >= 0.0).all()
    assert shape.kind == "table" or shape.net_section_stress(start, 100.0) > 66.0  # bending: two thirds, fully plastic
    with pytest.raises(InputError):
        sh.stress_intensity(shape, 1.01 * shape.largest_size, 100.0)


@pytest.mark.parametrize("shape", TWO_SIZES.values(), ids=TWO_SIZES)
def test_both_ends_have_a_factor_until_the_wall_and_a_way_on(shape):
    low, high = shape.aspect_limits
    assert max(shape.factors(0.9 * shape.deepest, 1.5 * shape.deepest)) < 6.0
    assert min(shape.factors(0.1 * shape.deepest, 0.2 * shape.deepest)) > 0.3
    with pytest.raises(InputError):
        shape.factors(1.05 * high, 1.0)
    a, c = shape.within(2.0 * shape.deepest, 0.1)
    assert a == shape.deepest
    assert low <= a / c <= high
    through = shape.after(shape.deepest, 2.0 * shape.deepest)
    if through is None:
        assert shape.kind in ("grid", "surface, any stress")
    elif len(through[1]) == 1:
        assert float(through[0].geometry_factor(through[1][0])) > 0.5
    else:
        assert min(through[0].factors(*through[1])) > 0.3
    loaded = [shape.collapse_stress(a, 2.0 * a, 100.0) for a in (0.1, 0.5 * shape.deepest)]
    assert 0.0 < loaded[0] <= loaded[1]


@given(st.floats(0.2, 1.0), st.floats(0.0, 90.0))
def test_a_shallow_surface_crack_is_that_of_the_half_space(aspect, angle):
    """Far from edges only the free surface is left: 3 to 14 % above the ellipse in an infinite body at the deepest point."""
    found = surface_crack(1e-4, 1e-4 / aspect, 10.0, 1e4, angle).tension
    infinite = embedded_in_infinite(1e-4, 1e-4 / aspect, angle)
    factor = 1.13 - 0.09 * aspect if angle == 90.0 else None
    assert 1.0 < found / infinite < 1.25
    if factor is not None:
        assert found / infinite == pytest.approx(factor, rel=0.005)


def test_an_ellipse_far_from_the_walls_is_that_of_the_infinite_body():
    far = sh.EmbeddedCrack(thickness=1e5, plate_width=1e6).factors(1.0, 2.5)
    exact = [embedded_in_infinite(1.0, 2.5, angle) for angle in (90.0, 0.0)]
    assert far == pytest.approx(exact, rel=2e-3)  # the shape factor is itself a fit


@given(st.floats(0.2, 2.0))
def test_small_corner_cracks_at_a_hole_feel_three_times_the_stress(aspect):
    """Kt of a round hole is 3; the fit for shallow cracks lies up to a sixth from three times the corner crack."""
    for angle in (0.0, 45.0, 90.0):
        ratio = hole_corner_crack(1e-3, 1e-3 / aspect, 10.0, 10.0, angle=angle).tension
        ratio /= corner_crack(1e-3, 1e-3 / aspect, 10.0, angle).tension
        assert ratio == pytest.approx(3.0, rel=0.2)


def test_one_crack_at_a_hole_is_milder_than_two_and_a_deep_one_near_the_through_crack():
    one, two = (hole_corner_crack(5.0, 5.0, 10.0, 8.0, angle=30.0, cracks=n).tension for n in (1, 2))
    assert 0.85 < one / two < 1.0
    deep = hole_corner_crack(9.9, 5.0, 10.0, 8.0, angle=20.0).tension * math.sqrt(9.9)
    assert deep == pytest.approx(float(hole_crack(5.0, 8.0, 2)) * math.sqrt(5.0), rel=0.15)


def test_a_small_thumbnail_in_a_bar_is_a_half_circle_on_a_surface():
    half_circle = surface_crack(1e-4, 1e-4, 10.0).tension
    assert float(round_bar_thumbnail(1e-4, 20.0)) == pytest.approx(half_circle, rel=0.02)
    assert float(round_bar_thumbnail(1e-4, 20.0, 1.0)) == pytest.approx(half_circle, rel=0.02)


@pytest.mark.slow
def test_a_grid_of_newman_raju_values_grows_like_newman_raju():
    plate = sh.SurfaceCrack(thickness=20.0, plate_width=200.0)
    depths, aspects = np.linspace(0.8, 12.0, 40), np.linspace(0.3, 1.2, 40)
    ends = np.array([[plate.factors(a, a / x) for x in aspects] for a in depths])
    grid = sh.GridCrack(
        depths=depths.tolist(), aspects=aspects.tolist(), deep=ends[..., 0].tolist(), along=ends[..., 1].tolist()
    )
    lives = []
    for shape in (plate, grid):
        rates = lambda a, c, s=shape: tuple(1e-6 * (y * math.sqrt(a)) ** 3 for y in s.factors(a, c))  # noqa: E731
        lives.append(gr.integrate_two(rates, (1.0, 2.5), {"depth": lambda a, _: 10.0 - a}).repeats[-1])
    assert lives[1] == pytest.approx(lives[0], rel=1e-3)


BAD_SHAPES = {
    "hole too wide": (lambda: sh.HoleCrack("30 mm", 2, "60 mm"), "for this hole"),
    "thin ring": (lambda: sh.HoleCornerCrack(thickness=20.0, plate_width=150.0, radius=8.0), "r/t from 0.5 to 2"),
    "thick pipe": (lambda: sh.PipeSurfaceCrack(radius=50.0, wall=12.0), "R/t of 10 or more"),
    "thick vessel": (lambda: sh.VesselCrack(thickness=12.0, radius=20.0), "t/Ri from 0.1 to 0.25"),
    "grid that falls": (
        lambda: sh.GridCrack(depths=[2.0, 1.0], aspects=[0.2, 1.0], deep=[[1, 1], [1, 1]], along=[[1, 1], [1, 1]]),
        "that rise",
    ),
    "grid of another shape": (
        lambda: sh.GridCrack(depths=[1.0, 2.0], aspects=[0.2, 1.0], deep=[[1, 1]], along=[[1, 1], [1, 1]]),
        r"of shape \(2, 2\)",
    ),
    "outside a grid": (lambda: TWO_SIZES["grid"].factors(20.0, 40.0), "where the table has values"),
    "vessel too round": (lambda: TWO_SIZES["vessel"].factors(2.0, 1.0), "no deeper than half as long"),
    "no metres": (lambda: sh.SurfaceCrack(thickness="12", plate_width="1 m"), "without a unit"),
    "bending of 2": (lambda: sh.BarSurfaceCrack("20 mm", 2.0), "0 to 1"),
}


@pytest.mark.parametrize(("make", "message"), BAD_SHAPES.values(), ids=BAD_SHAPES)
def test_a_shape_that_cannot_be_is_refused(make, message):
    with pytest.raises(InputError, match=message):
        make()


def test_labels_are_not_contours():
    k = np.array([[900.0, 1000.0, 1001.0, 999.0], [700.0, 1000.0, 1010.0, 990.0], [800.0, 1000.0, 1000.0, 1000.0]])
    plain = k_of_contours(k)
    with pytest.raises(InputError, match="labels"):
        k_of_contours(np.column_stack([[1, 2, 3], k]))
    heads = {f"contour {i} (MPa√m)": k[:, i] / np.sqrt(1000.0) for i in range(4)}
    frame = pd.DataFrame({"node": [17, 18, 19], "angle [deg]": [0.0, 45.0, 90.0], **heads, "mean": [1.0, 1.0, 1.0]})
    assert k_of_contour_frame(frame).k == pytest.approx(plain.k)
    with pytest.raises(InputError, match="with its unit"):
        k_of_contour_frame(frame[["node", "mean"]])


def test_contours_leave_out_the_first_and_say_where_the_path_counts():
    found = k_of_contours([[900.0, 1000.0, 1001.0, 999.0], [700.0, 1000.0, 1100.0, 900.0]])
    assert found.k == pytest.approx([1000.0, 1000.0], rel=1e-3)
    assert found.path_independent.tolist() == [True, False]
    assert float(k_from_j(10.0, 207000.0, 0.3)) == pytest.approx(math.sqrt(10.0 * 207000.0 / 0.91))


WORKED = {name: shape for name, shape in ONE_SIZE.items() if name != "table"} | {
    "one crack at a hole": sh.HoleCrack("3 mm", 1),
    "edge, half in bending": sh.EdgeCrack("40 mm", bending_share=0.5),
    "pipe in bending": sh.PipeCrack("80 mm", "10 mm", bending_share=1.0),
}


@pytest.mark.parametrize("share", [0.05, 0.3, 0.8])
@pytest.mark.parametrize("shape", WORKED.values(), ids=WORKED)
def test_the_printed_numbers_of_y_give_y(shape, share):
    size = share * shape.largest_size
    assert by_hand(shape.factor_numbers(size)) == pytest.approx(float(shape.geometry_factor(size)), rel=1e-5)
    assert shape.factor_formula.startswith("Y = ")
    assert shape.source
    assert shape.size_means
    assert shape.width > 0.0


@given(st.floats(0.05, 0.7), st.floats(10.0, 200.0), st.sampled_from([1, 2]))
def test_cracks_at_a_hole_in_a_plate_have_a_factor_wherever_the_shape_holds(ratio, width, cracks):
    shape = sh.HoleCrack(0.35 * ratio * width, cracks, width)
    sizes = np.linspace(0.001, 1.0, 30) * shape.largest_size
    found = shape.geometry_factor(sizes)
    assert np.isfinite(found).all()
    assert (found >= 0.99 * hole_crack(sizes, shape.radius, cracks)).all()
    assert (2.0 * shape.radius + cracks * sizes < width).all()


@pytest.mark.parametrize("shape", TWO_SIZES.values(), ids=TWO_SIZES)
def test_k_at_both_ends_is_smooth_where_the_aspect_passes_one(shape):
    depth = 0.3 * shape.deepest
    low, high = shape.aspect_limits
    if low < 0.999 and high > 1.001:
        before, after = shape.factors(depth, depth / 0.999), shape.factors(depth, depth / 1.001)
        assert before == pytest.approx(after, rel=0.02)


# Within what their sources say: the fits for holes against dislocations along the cracks.
HOLES = [
    ("two, tension", 2, tension, lambda a: hole_crack(a, 1.0, 2), [0.01, 0.1, 0.5, 1.0, 3.0], 0.0015),
    ("one, tension", 1, tension, lambda a: hole_crack(a, 1.0, 1), [0.01, 0.1, 0.5, 1.0, 3.0, 10.0], 0.055),
    (
        "two, both ways",
        2,
        equal_tension,
        lambda a: hole_crack_biaxial(a, 1.0, 2, along=1.0),
        [0.01, 0.1, 1.0, 10.0],
        0.02,
    ),
    (
        "one, both ways",
        1,
        equal_tension,
        lambda a: hole_crack_biaxial(a, 1.0, 1, along=1.0),
        [0.01, 0.1, 1.0, 10.0],
        0.05,
    ),
]


@pytest.mark.parametrize(
    ("cracks", "stress", "factor", "sizes", "within"), [row[1:] for row in HOLES], ids=[r[0] for r in HOLES]
)
def test_cracks_at_holes_are_those_of_dislocations_along_them(cracks, stress, factor, sizes, within):
    exact = [exact_k(stress, size, cracks) / math.sqrt(math.pi * size) for size in sizes]
    assert factor(np.array(sizes)) == pytest.approx(exact, rel=within)


@pytest.mark.parametrize("cracks", [1, 2])
@pytest.mark.parametrize("size", [0.01, 0.05, 0.3, 1.0, 4.0, 10.0])
def test_two_pins_that_press_apart_are_those_of_dislocations_along_the_cracks(cracks, size):
    """The fit within 0.06 %; and it does not depend on the unit of length."""
    length = 1.0 + size if cracks == 2 else (1.0 + 0.5 * size) * (1.0 + size)
    exact = exact_k(pressed_apart, size, cracks) * math.sqrt(math.pi * length)
    assert float(hole_wedge_force(size, 1.0, cracks)) == pytest.approx(exact, rel=6e-4)
    assert float(hole_wedge_force(4.0 * size, 4.0, cracks)) == pytest.approx(exact, rel=6e-4)


@pytest.mark.slow
def test_the_pressures_of_a_pin_carry_its_force_and_long_cracks_feel_it_as_a_point():
    x = np.geomspace(1.0, 2000.0, 4001)
    across = pressed_apart(x)
    assert float(((across[1:] + across[:-1]) * 0.5 * np.diff(x)).sum()) == pytest.approx(0.5, rel=2e-3)
    assert float(hole_wedge_force(10.0, 1.0)) == pytest.approx(1.0, rel=1e-3)
    # all along a narrow ligament it no longer matters where the force comes from
    far, near = hole_crack(30.0, 5.0, 2, 100.0), pin_hole_crack(30.0, 5.0, 100.0)
    assert float(near / far) == pytest.approx(1.0, rel=0.13)


def test_a_pin_is_worse_than_load_that_passes_by_and_shares_lie_between():
    shares = [sh.HoleCrack(5.0, 2, 60.0, pin_share=share) for share in (0.0, 0.3, 1.0)]
    y = [float(shape.geometry_factor(2.0)) for shape in shares]
    assert y[0] < y[1] < y[2]
    assert y[1] == pytest.approx(0.7 * y[0] + 0.3 * y[2])
    assert by_hand(shares[1].factor_numbers(2.0)) == pytest.approx(y[1], rel=1e-5)
    with pytest.raises(InputError, match="plate_width"):
        sh.HoleCrack(5.0, 2, pin_share=0.5)


def test_an_embedded_crack_near_a_surface_breaks_through_there_and_takes_in_the_ligament():
    crack = sh.EmbeddedCrack(thickness=20.0, plate_width=200.0, centre_depth=5.0, broken_at=1.0 / 1.4)
    assert crack.deepest == pytest.approx(5.0 / 1.4)
    a = crack.deepest
    shape, (depth, along) = crack.after(a, 6.0)
    assert (shape.kind, depth, along) == ("surface", pytest.approx(5.0 + a), pytest.approx(6.0 + 5.0 - a))
    middle = sh.EmbeddedCrack(thickness=10.0, plate_width=200.0)
    assert crack.factors(2.0, 5.0) == middle.factors(2.0, 5.0)
    assert middle.after(4.5, 5.0)[0].kind == "centre"
    for wrong in ({"centre_depth": 12.0}, {"broken_at": 1.2}):
        with pytest.raises(InputError):
            sh.EmbeddedCrack(thickness=20.0, plate_width=200.0, **wrong)
