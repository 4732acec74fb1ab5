"""The search over planes: loops in numbers say what the formulas say, and no hill is left that a search at random would find."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.damage.test_critical_plane import HOW as STRESSES
from tests.damage.test_critical_plane import duty, loads, method, spot
from tests.damage.test_strain_plane import HOW as STRAINS
from tests.damage.test_strain_plane import method as by_strains
from tests.damage.test_strain_plane import place
from vivid_anvil.damage.methods.plane_search import FLATTER
from vivid_anvil.stress.planes.fewer_samples import fewer_samples
from vivid_anvil.stress.planes.strain_parameters import StrainCycles

WAYS = {**{name: method(name) for name in STRESSES}, **{name: by_strains(name) for name in STRAINS}}
THIRD = [[30.0, 120.0, 0, 40.0, 0, 0], [0, -60.0, 80.0, 0, 50.0, 0]]  # neither in step nor along the axes


BY_SHEAR = {"matake", "mcdiarmid"}  # they count on the plane of the largest shear


def at(way, unit=THIRD):
    return place(way, unit=unit) if way.kind == "strain on planes" else spot(way, unit)


def wandering(seed, samples=400):
    rng = np.random.default_rng(seed)
    return loads(*np.cumsum(rng.normal(size=(2, samples)), axis=1) / 8.0)


@settings(max_examples=15, deadline=None)
@given(seed=st.integers(0, 10_000), name=st.sampled_from(sorted(set(WAYS) - BY_SHEAR)))
def test_the_damage_that_was_searched_for_is_that_of_the_cycles_on_the_plane(seed, name):
    way, service = WAYS[name], duty(wandering(seed), wandering(seed + 1, 90))
    life = va.assess_life(at(way), service)
    searched = way.worst(life.hot_spot, service).found.value
    assert searched ** (1.0 / FLATTER) == pytest.approx(life.damage_per_repeat, rel=1e-9)


def wiggling(seed):
    """One large turn with many small cycles all along: at large normal stress those do most of Findley's damage."""
    rng = np.random.default_rng(seed)
    x = np.linspace(0.0, 2.0 * np.pi, 3000)
    slow = np.stack([1.0 + np.sin(x), 0.3 + 0.2 * np.cos(x)])
    return loads(*(slow + 0.02 * rng.normal(size=(2, 3000))))


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_small_cycles_that_do_the_damage_are_looked_at_all_over(seed):
    way, service = method("findley"), duty(wiggling(seed))
    life = va.assess_life(at(way), service)
    looked = way.worst(life.hot_spot, service)
    stress = looked.events[0].stress
    kept = fewer_samples(stress)
    assert kept.size < 0.2 * len(stress)
    rng = np.random.default_rng(seed)
    normals = rng.normal(size=(1000, 3))
    normals[:600] = looked.found.normal + 0.2 * normals[:600]
    normals /= np.linalg.norm(normals, axis=1)[:, None]
    others = va.lives_on_planes(life, step_degrees=10.0)
    assert others.damage.max() <= life.damage_per_repeat * (1.0 + 3e-3)
    on_planes = way.on_planes(life.hot_spot, service)
    assert on_planes(normals).max() <= life.damage_per_repeat * (1.0 + 3e-3)


@settings(max_examples=50, deadline=None)
@given(
    ranges=st.floats(1e-5, 0.05), high=st.floats(-400.0, 900.0), low=st.floats(0.0, 900.0), across=st.floats(0.0, 0.02)
)
def test_the_constants_of_the_loop_are_those_of_the_formulas(ranges, high, low, across):
    one = StrainCycles(*(np.array([x]) for x in (ranges, high, high - low, across)))
    for name in STRAINS:
        form, given = WAYS[name].form, WAYS[name].given(at(WAYS[name]))
        a, b, c, f, g, s, h, t = form.terms(given)
        n = 2.0 * form.life(given, one)[0]
        parameter = 0.5 * ranges * (a + b * max(high, 0.0)) + c * across
        assert parameter == pytest.approx(form.parameter(given, one)[0], rel=1e-12)
        if 0.0 < n < np.inf:
            assert (f - g * (2.0 * high - low)) * n**s + h * n**t == pytest.approx(parameter, rel=1e-9)
