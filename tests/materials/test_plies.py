"""Plies: criteria against limits and closed forms, diagrams on their rays, decays that start where the last level left off."""

import dataclasses
import math
import pickle

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies import (
    LIFE_DIAGRAMS,
    PLY_CRITERIA,
    STIFFNESS_DECAYS,
    STRENGTH_DECAYS,
    Bell,
    EnergyLife,
    Hashin,
    LargestStress,
    NormalisedStiffness,
    NormalisedStrength,
    Ply,
    PowerStiffness,
    PowerStrength,
    Puck,
    Rays,
    ShiftedLinear,
    StiffnessRate,
    TsaiWu,
    joint_lives,
    normalised_energy,
)
from vivid_anvil.units import UNIT_SYSTEMS

GLASS = Ply(
    name="glass",
    modulus_along=41e3,
    modulus_across=10.4e3,
    shear_modulus=4.3e3,
    poissons_ratio=0.28,
    tension_along=1050.0,
    compression_along=650.0,
    tension_across=42.0,
    compression_across=145.0,
    shear_strength=70.0,
)
DIAGRAMS = {
    "largest stress": LargestStress(tension=1050.0, tension_slope=11.0, compression=650.0, compression_slope=14.0),
    "shifted linear": ShiftedLinear(
        tension=1050.0, compression=650.0, slope=10.0, mean_factor=1.1, amplitude_factor=1.2
    ),
    "bell": Bell(tension=1050.0, compression=650.0, height=1.0, power=1.2, power_per_decade=0.15),
    "rays": Rays(
        tension=1050.0, compression=650.0, rows=[(10, "265 MPa", 0.06), (0.1, 440.0, 0.095), (-1, 560.0, 0.095)]
    ),
}
STRENGTHS = {"power": PowerStrength(exponent=3.0), "normalised": NormalisedStrength(alpha=10.0, beta=0.5)}
STIFFNESSES = {
    "power": PowerStiffness(end=0.6, exponent=0.5),
    "normalised": NormalisedStiffness(power=14.6, root=0.3, failure_strain=0.03),
    "rate": StiffnessRate(rate=1e-5, exponent=4.0),
}
amplitudes, means = st.floats(5.0, 250.0), st.floats(-350.0, 350.0)


def test_every_choice_is_looked_at_here():
    assert set(DIAGRAMS) == set(LIFE_DIAGRAMS)
    assert set(STRENGTHS) == set(STRENGTH_DECAYS)
    assert set(STIFFNESSES) == set(STIFFNESS_DECAYS)


@pytest.mark.parametrize("kind", PLY_CRITERIA)
@pytest.mark.parametrize(
    ("key", "stress"),
    [
        ("tension_along", (1.0, 0, 0)),
        ("compression_along", (-1.0, 0, 0)),
        ("tension_across", (0, 1.0, 0)),
        ("compression_across", (0, -1.0, 0)),
        ("shear_strength", (0, 0, 1.0)),
        ("shear_strength", (0, 0, -1.0)),
    ],
)
def test_one_stress_alone_breaks_the_ply_at_its_strength(kind, key, stress):
    reserves = PLY_CRITERIA[kind]().reserves(GLASS, [stress])
    found = [float(one[0]) for one in reserves.values()]
    wanted = pytest.approx(getattr(GLASS, key), rel=1e-12)
    # by strains the narrowing across may come first
    assert wanted in found if kind == "largest strain" else min(found) == wanted


@pytest.mark.parametrize("kind", PLY_CRITERIA)
@settings(max_examples=25, deadline=None)
@given(s1=st.floats(-600, 900), s2=st.floats(-140, 40), t=st.floats(-65, 65))
@example(s1=0.0, s2=-3.25, t=-55.0)  # mode A breaks just before s2 is pressed
def test_at_its_reserve_a_mode_just_breaks_and_stresses_that_stay_count(kind, s1, s2, t):
    rule, moved, there = PLY_CRITERIA[kind](), np.array([s1, s2, t]), np.array([20.0, 4.0, -3.0])
    factor = min(float(one[0]) for one in rule.reserves(GLASS, [moved], [there]).values())
    if 0.0 < factor < 1e6:
        just = rule.indices(GLASS, [there + factor * moved])
        assert max(float(one[0]) for one in just.values()) == pytest.approx(1.0, abs=1e-6)


def test_pucks_modes_meet_where_they_border():
    rule, corner = Puck(), 1e-7
    shear = np.array([[0.0, corner, 40.0], [0.0, -corner, 40.0]])
    found = rule.indices(GLASS, shear)
    assert found["between fibres A"][0] == pytest.approx(found["between fibres B"][1], rel=1e-6)
    steps = np.column_stack([np.zeros(4000), -np.linspace(1.0, 140.0, 4000), np.full(4000, 50.0)])
    efforts = np.sum([one for mode, one in rule.indices(GLASS, steps).items() if mode.startswith("between")], axis=0)
    assert np.abs(np.diff(efforts)).max() < 2e-3  # no leap from B to C


def test_interaction_of_tsai_and_wu_closes_the_surface():
    assert (
        TsaiWu(interaction=0.0).indices(GLASS, [100.0, 10.0, 5.0])["whole ply"]
        > TsaiWu().indices(GLASS, [100.0, 10.0, 5.0])["whole ply"]
    )
    with pytest.raises(InputError, match="below 1"):
        TsaiWu(interaction=1.0)


def test_hashin_goes_by_the_shear_strength_across_where_it_is_stated():
    other = dataclasses.replace(GLASS, shear_across=60.0)
    pushed = [-100.0, -100.0, 20.0]
    one, two = (Hashin().indices(ply, pushed)["matrix compression"][0] for ply in (GLASS, other))
    assert one != pytest.approx(two, rel=1e-3)


@pytest.mark.parametrize("kind", DIAGRAMS)
@settings(max_examples=40, deadline=None)
@given(size=amplitudes, mean=means)
def test_what_a_cycle_uses_at_its_own_life_is_all(kind, size, mean):
    diagram = DIAGRAMS[kind]
    life = float(diagram.lives(size, mean)[0])
    if not 1e-3 < life < 1e60:
        return
    used = float(diagram.used(life, size, mean)[0])
    assert used == pytest.approx(1.0, rel=1e-7)
    assert float(diagram.lives(1.05 * size, mean)[0]) < life
    assert float(diagram.used(10.0 * life, size, mean)[0]) > 1.0


@pytest.mark.parametrize("kind", DIAGRAMS)
@pytest.mark.parametrize("r", [-1.0, 0.1, 0.5, 10.0])
def test_amplitudes_at_an_r_are_those_of_its_lives(kind, r):
    diagram = DIAGRAMS[kind]
    sizes = diagram.amplitude_at([1e4, 1e6], r)
    assert np.allclose(diagram.lives(sizes, sizes * (1.0 + r) / (1.0 - r)), [1e4, 1e6], rtol=1e-7)
    with pytest.raises(InputError, match="something moves"):
        diagram.amplitude_at(1e4, 1.0)


@pytest.mark.parametrize("kind", DIAGRAMS)
@pytest.mark.parametrize("units", UNIT_SYSTEMS)
def test_the_working_of_a_life_ends_at_it(kind, units):
    diagram = DIAGRAMS[kind]
    for mean in (60.0, -80.0, 0.0):
        steps = diagram.steps("s1", 120.0, mean, units)
        assert steps[-1].value == pytest.approx(float(diagram.lives(120.0, mean)[0]), rel=1e-9)
        assert steps[-1].unit == "cycles"


def test_a_cycle_that_does_not_move_and_one_that_breaks():
    for diagram in DIAGRAMS.values():
        assert diagram.lives(0.0, 100.0)[0] == math.inf
        assert diagram.lives(50.0, 2000.0)[0] < 1.0
        assert pickle.loads(pickle.dumps(diagram)).lives(100.0, 50.0) == diagram.lives(100.0, 50.0)
    with pytest.raises(InputError, match="finite amplitudes"):
        DIAGRAMS["rays"].lives(-1.0, 0.0)
    with pytest.raises(InputError, match="finite numbers above 0"):
        DIAGRAMS["rays"].used(0.0, 1.0, 0.0)


def test_rays_stand_in_the_order_of_their_means_and_say_what_was_tested():
    rays = DIAGRAMS["rays"]
    assert [row[0] for row in rays.rows] == [0.1, -1.0, 10.0]
    assert rays.r_ratios_tested == (0.1, -1.0, 10.0)
    on_ray = rays.lives(440.0 * 1e5**-0.095, 440.0 * 1e5**-0.095 * 1.1 / 0.9)
    assert on_ray[0] == pytest.approx(1e5, rel=1e-9)


@settings(max_examples=30, deadline=None)
@given(two=st.floats(1.0, 15.0), shear=st.floats(1.0, 25.0), mean=st.floats(-5.0, 10.0))
def test_two_stresses_together_use_all_by_their_squares(two, shear, mean):
    across = ShiftedLinear(tension=42.0, compression=145.0, slope=11.0)
    along = LargestStress(tension=70.0, tension_slope=12.0, compression=70.0, compression_slope=12.0)
    life = float(joint_lives(across, along, (two, mean), (shear, 0.0))[0])
    squares = across.used(life, two, mean) ** 2 + along.used(life, shear, 0.0) ** 2
    assert float(squares[0]) == pytest.approx(1.0, rel=1e-8)
    assert life <= min(float(across.lives(two, mean)[0]), float(along.lives(shear, 0.0)[0]))
    alone = joint_lives(across, along, (two, mean), (0.0, 0.0))
    assert alone[0] == across.lives(two, mean)[0]


@pytest.mark.parametrize("kind", STRENGTHS)
@settings(max_examples=30, deadline=None)
@given(first=st.floats(1.0, 4e4), second=st.floats(1.0, 4e4), stress=st.floats(300.0, 900.0))
def test_a_decay_of_one_level_is_the_same_in_one_part_and_in_two(kind, first, second, stress):
    decay, how = STRENGTHS[kind], {"life": 1e5, "start": 1050.0, "stress": stress}
    halfway = decay.strength(1050.0, cycles=first, **how)
    whole = decay.strength(1050.0, cycles=first + second, **how)
    if not stress < halfway < 1050.0:
        return
    assert decay.strength(halfway, cycles=second, **how) == pytest.approx(whole, rel=1e-6)
    assert decay.equivalent_cycles(halfway, **how) == pytest.approx(
        first, rel=1e-3, abs=50.0
    )  # as the strength is rounded


@pytest.mark.parametrize("exponent", [3.0, 12.0])
def test_losses_that_are_smaller_than_rounding_are_not_lost(exponent):
    decay, lost = PowerStrength(exponent=exponent), 0.0
    for _ in range(1000):
        lost = decay.after(decay.numbers, lost, 100.0, 1e5, 1050.0, 500.0)
    assert lost == pytest.approx(550.0, rel=1e-9)


@pytest.mark.parametrize("kind", STRENGTHS)
def test_at_its_life_the_strength_is_the_stress(kind):
    how = {"life": 1e5, "start": 1050.0, "stress": 500.0}
    assert STRENGTHS[kind].strength(1050.0, cycles=1e5, **how) == pytest.approx(500.0)
    with pytest.raises(InputError, match="less than the strength"):
        STRENGTHS[kind].strength(1050.0, cycles=1.0, life=1e5, start=1050.0, stress=1100.0)
    with pytest.raises(InputError, match="between"):
        STRENGTHS[kind].strength(400.0, cycles=1.0, **how)


@pytest.mark.parametrize("kind", STIFFNESSES)
def test_stiffness_only_falls_and_in_two_parts_as_in_one(kind):
    how = {"life": 1e5, "modulus": 41e3, "stress": 300.0, "strength": 1050.0}
    decay = STIFFNESSES[kind]
    course = [decay.left(1.0, cycles=n, **how) for n in (0.0, 1e2, 1e4, 9e4, 1e6)]
    assert course[0] == 1.0
    assert (np.diff(course) <= 0.0).all()
    one = decay.left(1.0, cycles=1e4, **how)
    assert decay.left(one, cycles=3e4, **how) == pytest.approx(decay.left(1.0, cycles=4e4, **how), rel=1e-9)
    with pytest.raises(InputError, match="a part above 0"):
        decay.left(0.0, cycles=1.0, **how)


def test_energy_is_refused_where_a_stress_turns():
    with pytest.raises(InputError, match="which turns"):
        normalised_energy(GLASS, [10.0, 1.0, 5.0], [-10.0, 0.0, 0.0])
    lives = EnergyLife(constant=0.55, exponent=0.09).lives(GLASS, [[0.0, 0.0, 0.0]], [[0.0, 0.0, 0.0]])
    assert lives[0] == math.inf


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"poissons_ratio": 2.5}, "positive definite"),
        ({"compression_along": -650.0}, "those of compression too"),
        ({"fibre_life": 3.0}, "a life diagram"),
        ({"across_strength_decay": PowerStiffness(end=0.5, exponent=1.0)}, "a strength decay"),
        ({"compression_supported": "yes"}, "true or false"),
        ({"name": ""}, "ply, name"),
    ],
)
def test_a_ply_that_no_one_has_is_refused(change, message):
    with pytest.raises(InputError, match=message):
        dataclasses.replace(GLASS, **change)


def test_a_strength_that_is_missing_is_asked_for_with_its_reason():
    with pytest.raises(InputError, match="the criterion of Puck needs it"):
        Puck().indices(dataclasses.replace(GLASS, tension_across=None), [1.0, 1.0, 1.0])
