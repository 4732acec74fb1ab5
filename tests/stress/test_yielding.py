"""Notches that yield and histories followed with memory: limits, other ways to the same answer, nonsense refused."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq

import vivid_anvil as va
from vivid_anvil.counting import rainflow
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding import NOTCH_RULES, follow_block

STEEL = CyclicCurve(youngs_modulus=206e3, cyclic_strength_coefficient=1080.0, cyclic_hardening_exponent=0.155)
BY_STRESS = [name for name, rule in NOTCH_RULES.items() if rule.drive == "stress"]
blocks = st.lists(st.integers(-40, 40), min_size=2, max_size=60).map(
    lambda values: 20.0 * np.array(values, dtype=float)
)


@pytest.mark.parametrize("rule", BY_STRESS)
def test_where_nothing_yields_the_stress_is_the_elastic_one(rule):
    drives = np.array([-40.0, -1.0, 0.0, 1e-3, 30.0])
    stress, strain = NOTCH_RULES[rule].local(STEEL, drives)
    assert stress == pytest.approx(drives, rel=1e-4)
    assert strain == pytest.approx(drives / 206e3, rel=1e-4)


@pytest.mark.parametrize("ratio", [None, 1.3, 3.0])
@pytest.mark.parametrize("rule", BY_STRESS)
def test_a_rule_is_met_as_another_solver_finds_it(rule, ratio):
    drive = 700.0
    plastic = lambda stress: (stress / 1080.0) ** (1.0 / 0.155)  # noqa: E731
    around = drive / (ratio or 1.0)
    if rule == "neuber":
        nominal = around / 206e3 + (plastic(around) if ratio else 0.0)
        wanted = (ratio or 1.0) ** 2 * around * nominal
        left = lambda stress: stress * (stress / 206e3 + plastic(stress))  # noqa: E731
    else:  # the energies below both curves, by the trapezoidal rule
        energy = lambda stress: stress**2 / 412e3 + stress / 1.155 * plastic(stress)  # noqa: E731
        wanted = (ratio or 1.0) ** 2 * (energy(around) if ratio else around**2 / 412e3)
        left = energy
    found = brentq(lambda stress: left(stress) - wanted, 1.0, 700.0, xtol=1e-12)
    stress, strain = NOTCH_RULES[rule].local(STEEL, drive, ratio)
    assert float(stress) == pytest.approx(found, rel=1e-9)
    assert float(strain) == pytest.approx(found / 206e3 + plastic(found), rel=1e-9)


@pytest.mark.parametrize("rule", NOTCH_RULES)
def test_the_slope_of_a_rule_is_that_of_its_numbers(rule):
    drives = np.array([100.0, 300.0, 600.0]) * (1e-5 if NOTCH_RULES[rule].drive == "strain" else 1.0)
    step = 1e-5 * drives
    ahead, behind = (NOTCH_RULES[rule].local(STEEL, drives + sign * step)[0] for sign in (1.0, -1.0))
    stress = NOTCH_RULES[rule].local(STEEL, drives)[0]
    assert NOTCH_RULES[rule].slope(STEEL, drives, stress) == pytest.approx((ahead - behind) / (2.0 * step), rel=1e-6)


def sliders(drive, rows=4_000):
    """Stress at each drive by springs with sliders side by side, whose first loading is the cyclic curve: Masing's own model."""
    largest = float(np.abs(drive).max()) or 1.0
    ends = np.linspace(0.0, largest, rows)
    first = NOTCH_RULES["neuber"].local(STEEL, ends)[0]
    slopes = np.append(np.diff(first) / np.diff(ends), 0.0)
    stiffness = slopes[:-1] - slopes[1:]  # of the slider that slips at the end of each piece
    slips = ends[1:]
    at, found = np.zeros(rows - 1), []
    for x in drive:
        held = np.clip(x - at, -slips, slips)
        at = x - held
        found.append(float(stiffness @ held))
    return np.array(found)


@settings(max_examples=40, deadline=None)
@given(block=blocks)
def test_the_way_is_that_of_springs_with_sliders(block):
    way = follow_block(STEEL, block, repeated=False)
    assert way.stress == pytest.approx(sliders(way.drive), abs=0.05)


@settings(max_examples=60, deadline=None)
@given(block=blocks)
def test_loops_are_the_rainflow_cycles_of_the_repeated_block(block):
    way = follow_block(STEEL, block)
    ranges = np.sort(np.abs(way.drive[way.ends[:, 0]] - way.drive[way.ends[:, 1]]))
    counted = rainflow(block, residue="repeated")
    assert ranges == pytest.approx(np.sort(np.repeat(counted.range, counted.count.astype(int))))
    assert way.stress[0] == way.stress[-1]  # it ends where it began
    assert (way.highest_stress >= way.lowest_stress).all()


@settings(max_examples=30, deadline=None)
@given(block=blocks, first=st.integers(0, 59))
def test_a_repeated_block_may_begin_anywhere(block, first):
    sizes = [np.sort(follow_block(STEEL, one).amplitude) for one in (block, np.roll(block, first))]
    largest = np.abs(block).max()
    if (np.abs(block) == largest).sum() == 1:  # else it may be turned to either
        assert sizes[0] == pytest.approx(sizes[1])


def test_an_overload_leaves_a_residual_stress_of_the_other_sign():
    way = follow_block(STEEL, [900.0, 0.0, 200.0, 0.0, 200.0, 0.0], repeated=False)
    assert way.stress[1] < -100.0
    alone = follow_block(STEEL, [200.0, 0.0, 200.0, 0.0], repeated=False)
    assert (way.mean_stress < alone.mean_stress[0] - 100.0).all()


def test_strains_as_measured_are_followed_as_they_are():
    way = follow_block(STEEL, [0.01, -0.006, 0.004], rule="none")
    assert way.strain == pytest.approx(way.drive)


@pytest.mark.parametrize(
    ("given_", "said"),
    [
        ({"drive": []}, "one row of samples"),
        ({"drive": [1.0, np.nan]}, "finite|number"),
        ({"drive": [[1.0, 2.0]]}, "row"),
        ({"drive": [1.0, 2.0], "rule": "nueber"}, "Did you mean 'neuber'"),
        ({"drive": [1.0, 2.0], "plastic_limit_ratio": 0.5}, "1 or more"),
        ({"drive": [1.0, 2.0], "plastic_limit_ratio": 1.5, "rule": "none"}, "rule 'none'"),
    ],
)
def test_nonsense_is_refused(given_, said):
    with pytest.raises(va.InputError, match=said):
        follow_block(STEEL, **given_)
