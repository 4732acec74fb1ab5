"""A crack in a part k times as large: Y and the reference stress stay, K goes with √k, and so does what follows from it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.growth.plates import crack, loads
from vivid_anvil import shapes as sh
from vivid_anvil.growth import grow_crack
from vivid_anvil.materials import Material, ParisLaw

# Each kind, with all its lengths k times as large.
MADE = {
    "edge": lambda k: sh.EdgeCrack(60.0 * k, bending_share=0.4),
    "centre": lambda k: sh.CentreCrack(60.0 * k),
    "double edge": lambda k: sh.DoubleEdgeCrack(60.0 * k),
    "hole": lambda k: sh.HoleCrack(3.0 * k, 1, 60.0 * k, pin_share=0.3),
    "edge, any stress": lambda k: sh.ProfileEdgeCrack(60.0 * k, [(0.0, 1.4), (9.0 * k, 0.8), (60.0 * k, 0.3)]),
    "pipe, around": lambda k: sh.PipeCrack(100.0 * k, 12.5 * k, bending_share=0.5),
    "pipe, along": lambda k: sh.AxialPipeCrack(100.0 * k, 10.0 * k),
    "round bar": lambda k: sh.BarCrack(30.0 * k),
    "round bar, surface": lambda k: sh.BarSurfaceCrack(30.0 * k, bending_share=0.7),
    "sphere": lambda k: sh.SphereCrack(radius=500.0 * k, wall=12.0 * k),
    "table": lambda k: sh.TableCrack([(0.5 * k, 1.12), (2.0 * k, 1.2), (10.0 * k, 2.1)]),
    # Without an attachment: the magnification of a weld toe at the surface stands at a depth in mm.
    "surface": lambda k: sh.SurfaceCrack(thickness=12.0 * k, plate_width=150.0 * k, bending_share=0.3),
    "corner": lambda k: sh.CornerCrack(thickness=12.0 * k, plate_width=150.0 * k, bending_share=0.3),
    "hole, corner": lambda k: sh.HoleCornerCrack(thickness=12.0 * k, plate_width=150.0 * k, radius=8.0 * k, cracks=1),
    "embedded": lambda k: sh.EmbeddedCrack(thickness=20.0 * k, plate_width=150.0 * k, centre_depth=7.0 * k),
    "surface, any stress": lambda k: sh.ProfileSurfaceCrack(
        thickness=12.0 * k, plate_width=150.0 * k, stress_profile=[(0.0, 1.6), (2.0 * k, 1.1), (12.0 * k, 0.9)]
    ),
    "vessel, inside": lambda k: sh.VesselCrack(thickness=12.0 * k, radius=100.0 * k),
    "pipe, around, surface": lambda k: sh.PipeSurfaceCrack(radius=200.0 * k, wall=12.0 * k, bending_share=0.5),
    "cylinder, along, surface": lambda k: sh.CylinderSurfaceCrack(radius=400.0 * k, wall=12.0 * k, bending_share=0.2),
    "sphere, surface": lambda k: sh.SphereSurfaceCrack(radius=400.0 * k, wall=12.0 * k, bending_share=0.2),
    "grid": lambda k: sh.GridCrack(
        depths=[0.5 * k, 4.0 * k, 11.0 * k],
        aspects=[0.1, 0.5, 1.5],
        deep=[[1.1, 0.9, 0.7], [1.2, 1.0, 0.75], [1.5, 1.2, 0.8]],
        along=[[0.5, 0.7, 0.8], [0.6, 0.8, 0.9], [0.9, 1.0, 1.1]],
    ),
}
SHARES, SCALES = st.floats(0.05, 0.9), st.floats(0.02, 50.0)


def sizes_of(shape, share, aspect):
    deepest = shape.deepest
    first = max(share * deepest, 1.001 * shape.smallest_size)
    return (first,) if len(shape.sizes) == 1 else (first, first / aspect)


def test_every_shape_is_tried():
    assert set(MADE) == set(sh.SHAPES)


@pytest.mark.parametrize("kind", MADE)
@given(SHARES, st.floats(0.3, 1.0), SCALES)
@settings(max_examples=12, deadline=None)
def test_a_part_k_times_as_large_has_the_same_factors_and_k_of_the_root(kind, share, aspect, k):
    small, large = MADE[kind](1.0), MADE[kind](k)
    sizes = sizes_of(small, share, aspect)
    grown = tuple(k * one for one in sizes)
    assert large.deepest == pytest.approx(k * small.deepest, rel=1e-9)
    assert large.ends(*grown) == pytest.approx(small.ends(*sizes), rel=1e-6)
    assert large.scales(*grown) == pytest.approx([k**0.5 * one for one in small.scales(*sizes)], rel=1e-6)
    assert large.reference_stress(120.0, *grown) == pytest.approx(small.reference_stress(120.0, *sizes), rel=1e-6)


@pytest.mark.parametrize("kind", MADE)
@given(SHARES, st.floats(0.3, 1.0), st.floats(0.1, 10.0))
@settings(max_examples=8, deadline=None)
def test_the_section_that_is_left_bears_twice_the_stress_as_twice_the_stress(kind, share, aspect, times):
    shape = MADE[kind](1.0)
    sizes = sizes_of(shape, share, aspect)
    once = shape.reference_stress(80.0, *sizes)
    assert shape.reference_stress(80.0 * times, *sizes) == pytest.approx(times * once, rel=1e-9)
    deeper = sizes_of(shape, min(1.05 * share, 0.95), aspect)
    assert shape.reference_stress(80.0, *deeper) >= once * (1.0 - 1e-9)


@pytest.mark.parametrize("kind", [name for name in MADE if MADE[name](1.0).bends])
@given(SHARES, st.floats(0.3, 1.0), st.floats(0.0, 1.0))
@settings(max_examples=8, deadline=None)
def test_factors_of_membrane_and_bending_add_up_by_their_shares(kind, share, aspect, bent):
    shape = MADE[kind](1.0)
    sizes = sizes_of(shape, share, aspect)
    membrane, bending = shape.ends_of_parts(*sizes)
    mixed = [(1.0 - bent) * m + bent * b for m, b in zip(membrane, bending, strict=True)]
    assert shape.under(bent).ends(*sizes) == pytest.approx(mixed, rel=1e-9, abs=1e-9)


@pytest.mark.parametrize(
    "kind", ["edge", "centre", "hole", "table", "surface", "corner", "embedded", "pipe, around, surface"]
)
@given(st.floats(0.2, 5.0), st.floats(2.5, 4.0))
@settings(max_examples=5, deadline=None)
def test_a_crack_k_times_as_large_grows_by_paris_in_k_to_one_minus_half_m(kind, k, slope):
    """da/dN = C ΔK^m, and ΔK goes with √k: N goes with k^(1 - m/2), where the toughness goes with √k too."""
    small, large = (grown(kind, scale, slope) for scale in (1.0, k))
    assert large.stopped_by == small.stopped_by
    assert large.final_size == pytest.approx(k * small.final_size, rel=1e-3)
    assert large.life_repeats == pytest.approx(k ** (1.0 - slope / 2.0) * small.life_repeats, rel=1e-3)


@given(st.floats(4.0, 9.0), st.floats(0.5, 2.0), st.floats(1.0, 3.0))
@settings(max_examples=15, deadline=None)
def test_an_embedded_crack_goes_on_at_the_surface_whatever_its_aspect(centre, aspect, start):
    """It takes in the ligament; where it would be deeper than long, it is taken as longer, and that is told."""
    shape = sh.EmbeddedCrack(thickness=20.0, plate_width=150.0, centre_depth=centre)
    steel = Material(name="steel", yield_strength="355 MPa", toughness="300 MPa√m")
    law = ParisLaw(name="p", rate="5e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    result = grow_crack(
        crack(steel, shape=shape, law=law, initial_size=start, initial_half_length=start / aspect), loads()
    )
    assert result.then is not None
    a, c = result.sizes[-1], result.half_lengths[-1]
    p = centre - a
    (depth, half) = result.then.sizes[0], result.then.half_lengths[0]
    assert depth == pytest.approx(2.0 * a + p)
    assert half == pytest.approx(max(c + p, 0.5 * depth))
    told = [one for one in result.findings if one.code == "taken-longer"]
    assert bool(told) == (half > (c + p) * (1.0 + 1e-12))


def grown(kind, scale, slope):
    """A crack from a tenth of its way on, in a part of that scale."""
    shape = MADE[kind](scale)
    sizes = [scale * one for one in sizes_of(MADE[kind](1.0), 0.1, 0.8)]
    steel = Material(name="steel", yield_strength="355 MPa", toughness=f"{40.0 * scale**0.5} MPa√m")
    named = dict(zip(("initial_size", "initial_half_length"), sizes, strict=False))
    law = ParisLaw(name="p", rate="5e-13 mm/cycle at 1 MPa√mm", slope=slope)
    return grow_crack(crack(steel, shape=shape, law=law, **named), loads())
