"""Layups read and written, laminates against plates of metal and turned ones, plies that fail under a rising load."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.materials.test_plies import GLASS
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies import Ply
from vivid_anvil.stress import CaseLoad, CaseLoads
from vivid_anvil.stress.laminates import (
    LaidPly,
    Laminate,
    SectionLoads,
    angles_of,
    layup_text,
    ply_failures,
    static_reserves,
)

METAL = Ply(
    name="metal",
    modulus_along=206e3,
    modulus_across=206e3,
    shear_modulus=206e3 / 2.6,
    poissons_ratio=0.3,
    expansion_along=12e-6,
    expansion_across=12e-6,
    tension_along=400.0,
    compression_along=400.0,
    tension_across=400.0,
    compression_across=400.0,
    shear_strength=230.0,
)
angle = st.sampled_from([0.0, 15.0, 30.0, 45.0, -45.0, 60.0, 90.0, -30.0, 22.5])
load = st.lists(st.floats(-200.0, 200.0), min_size=6, max_size=6)


def laminate(layup="[0/±45/90]s", ply=GLASS, **more):
    return Laminate(name="plate", layup=layup, ply=ply, ply_thickness=0.25, **more)


@settings(deadline=None)
@given(st.lists(angle, min_size=1, max_size=24))
def test_what_is_written_is_read_back(angles):
    assert list(angles_of(layup_text(angles))) == angles
    mirrored = angles + angles[::-1]
    text = layup_text(mirrored)
    assert list(angles_of(text)) == mirrored
    assert text.endswith("s")


@pytest.mark.parametrize(
    ("text", "angles"),
    [
        ("[0/90]2s", (0, 90, 0, 90, 90, 0, 90, 0)),
        ("[0_2/+-45]", (0, 0, 45, -45)),
        ("[0₂/∓45]T", (0, 0, -45, 45)),
        ("[(0/±30)2, 90~]S", (0, 30, -30, 0, 30, -30, 90, -30, 30, 0, -30, 30, 0)),
        (" [ 0° / 22.5 / -7 ] ", (0, 22.5, -7)),
    ],
)
def test_the_usual_notation_is_read(text, angles):
    assert angles_of(text) == tuple(float(one) for one in angles)


def test_too_many_plies_and_text_that_is_none():
    with pytest.raises(InputError, match="at most 2000"):
        angles_of("[0_5000]")
    with pytest.raises(InputError, match="text such as"):
        angles_of(3)
    with pytest.raises(InputError, match="angles below 360"):
        layup_text([])


@settings(max_examples=30, deadline=None)
@given(angles=st.lists(angle, min_size=1, max_size=8), loads=load)
def test_a_laminate_of_metal_is_a_plate(angles, loads):
    plate = laminate(angles, METAL).full
    h, e, nu = plate.laminate.thickness, 206e3, 0.3
    strains = plate.strains(loads)
    n, m = np.array(loads[:3]), np.array(loads[3:])
    compliance = np.array([[1, -nu, 0], [-nu, 1, 0], [0, 0, 2 * (1 + nu)]]) / e
    assert strains[:3] == pytest.approx(compliance @ n / h, abs=1e-9)
    assert strains[3:] == pytest.approx(compliance @ m * 12.0 / h**3, abs=1e-7)
    assert not plate.laminate.couples


@settings(max_examples=30, deadline=None)
@given(angles=st.lists(angle, min_size=1, max_size=6), loads=load, turn=st.floats(-80.0, 80.0))
def test_turning_laminate_and_load_together_changes_no_ply(angles, loads, turn):
    one = laminate(angles, temperature_change=-60.0)
    other = laminate([each + turn for each in angles], temperature_change=-60.0)
    c, s = np.cos(np.radians(turn)), np.sin(np.radians(turn))
    to = np.array([[c * c, s * s, -2 * s * c], [s * s, c * c, 2 * s * c], [s * c, -s * c, c * c - s * s]])
    turned = np.concatenate([to @ np.array(loads[:3]), to @ np.array(loads[3:])])
    assert np.allclose(one.full.stresses(loads), other.full.stresses(turned), atol=1e-7 * (1.0 + np.abs(loads).max()))


@settings(max_examples=30, deadline=None)
@given(angles=st.lists(angle, min_size=2, max_size=6), loads=load)
def test_stresses_of_plies_balance_the_loads(angles, loads):
    state = laminate(angles).full
    own, z = state.stresses(loads), state.laminate.edges
    total = np.zeros(6)
    for ply, turn in enumerate(np.radians(state.laminate.angles)):
        c, s = np.cos(turn), np.sin(turn)
        back = np.array([[c * c, s * s, -2 * s * c], [s * s, c * c, 2 * s * c], [s * c, -s * c, c * c - s * s]])
        low, high = (back @ own[ply, face] for face in (0, 1))
        thick = z[ply + 1] - z[ply]
        total[:3] += 0.5 * thick * (low + high)
        slope = (high - low) / thick
        total[3:] += (low - slope * z[ply]) * (z[ply + 1] ** 2 - z[ply] ** 2) / 2 + slope * (
            z[ply + 1] ** 3 - z[ply] ** 3
        ) / 3
    assert total == pytest.approx(np.array(loads), abs=1e-8 * (1.0 + np.abs(loads).max()))


def test_an_even_change_of_temperature_does_nothing_to_metal_and_balances_in_plies():
    assert np.abs(laminate("[0/45/90]", METAL, temperature_change=80.0).full.thermal_stresses).max() < 1e-9
    warm = dataclasses.replace(GLASS, expansion_along=7e-6, expansion_across=27e-6)
    own = laminate("[0/90]s", warm, temperature_change=-100.0).full
    assert own.thermal_stresses[:, :, 1].min() > 0.0  # cooling pulls across the fibres
    mean = own.thermal_stresses.mean(axis=1)
    assert mean[0, 0] + mean[1, 1] == pytest.approx(0.0, abs=1e-9)


def test_shear_between_plies_is_that_of_a_plate_and_nothing_at_the_faces():
    state = laminate([0.0] * 8, METAL).full
    shear = state.shear_per_load[:, 0, 0]
    assert np.abs(shear[[0, -1]]).max() < 1e-12
    assert shear[4] == pytest.approx(1.5 / state.laminate.thickness)  # 3 Q / 2 h
    assert np.abs(state.shear_per_load[:, 1, 0]).max() < 1e-12


def test_plies_that_differ_are_laid_one_by_one():
    mixed = Laminate(name="m", plies=[(GLASS, 0.0, "0.3 mm"), LaidPly(METAL, 90.0, 1.0)])
    assert mixed.layup == "[0/90]"
    assert mixed.thickness == pytest.approx(1.3)
    assert mixed.couples
    with pytest.raises(InputError, match="beside plies"):
        Laminate(name="m", layup=[0], plies=[(GLASS, 0.0, 0.3)])
    with pytest.raises(InputError, match="ply 1"):
        Laminate(name="m", plies=[(GLASS, 0.0)])


def test_less_stiffness_is_a_part_of_each_modulus():
    own = laminate("[0/90]s", dataclasses.replace(GLASS, poissons_ratio=0.0))
    left = np.ones((4, 3))
    left[1:3, 1] = 0.5
    sound, soft = own.constants, own.with_left(left).constants
    assert soft.modulus_x == pytest.approx(sound.modulus_x - 0.25 * GLASS.modulus_across)
    with pytest.raises(InputError, match="parts above 0"):
        own.with_left(np.zeros((4, 3)))


def test_loads_may_be_text_with_units_and_nothing_else():
    own = laminate()
    told = ["60 N/mm", "10 kN/m", "0 N/mm", "12 N*mm/mm", "0 N", "2 N*m/m"]
    assert np.allclose(own.full.strains(told), own.full.strains([60.0, 10.0, 0.0, 12.0, 0.0, 2.0]))
    with pytest.raises(InputError, match=r"loads, nx.*not one of force per width"):
        static_reserves(own, ["60 MPa", "0 N/mm", "0 N/mm", "0 N", "0 N", "0 N"])
    with pytest.raises(InputError, match="finite loads"):
        own.full.strains([1.0, 2.0])


def test_the_first_failure_is_the_least_reserve_and_the_last_comes_after_it():
    own, pull = laminate("[0/90]s"), [100.0, 0, 0, 0, 0, 0]
    for criterion in ("largest stress", "largest strain", "Tsai-Wu", "Hashin", "Puck"):
        reserves, found = (look(own, pull, criterion=criterion) for look in (static_reserves, ply_failures))
        assert found.first == pytest.approx(reserves.first.factor)
        assert found.last >= found.first
        assert [one.factor for one in found.failures] == sorted(one.factor for one in found.failures)
        assert all(
            b.stiffness_left <= a.stiffness_left + 1e-12
            for a, b in zip(found.failures, found.failures[1:], strict=False)
        )
    last = ply_failures(own, pull, criterion="largest stress").last
    alone = GLASS.tension_along * 0.5 / 100.0  # two of four plies of 0.25 mm carry at the end
    assert last == pytest.approx(alone, rel=0.12)
    with pytest.raises(InputError, match="Did you mean 'Puck'"):
        ply_failures(own, pull, criterion="Pucks")


def test_section_loads_say_what_they_are():
    cases = CaseLoads([CaseLoad(case="push", channel="force", unit_load="100 N")])
    own = SectionLoads(loads=cases, unit=[[1.0, 0, 0, 35.0, 0, 0, 1.6, 0]], constant=[2.0, 0, 0, 0, 0, 0])
    assert own.words == "nx, mx, qx of force"
    assert own.bends
    assert own.dimension == "moment per width"
    assert own.course([[2.0]]).tolist() == [[4.0, 0, 0, 70.0, 0, 0, 3.2, 0]]
    for wrong in ([[0.0] * 6], [[1.0] * 5], [["a"] * 6]):
        with pytest.raises(InputError, match="section loads"):
            SectionLoads(loads=cases, unit=wrong)
