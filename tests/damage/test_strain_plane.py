"""Strains on planes: uniaxial answers, rules for yielding side by side, turned axes, workings redone, findings, nonsense."""

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.damage.test_critical_plane import BEND, METAL, TWIST, duty, loads, spot, turned, turning
from vivid_anvil.damage import LocalStrain, StrainPlane
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.stress import HotSpot, OneLoad
from vivid_anvil.stress.planes.lives import shear_curve
from vivid_anvil.stress.planes.strain_parameters import STRAIN_PARAMETERS
from vivid_anvil.stress.yielding import Yielding, follow_block
from vivid_anvil.stress.yielding.local_tensors import PLASTICITY, TRANSVERSE
from vivid_anvil.stress.yielding.proportional_steps import largest_steps

STEEL = StrainLife(
    name="steel",
    youngs_modulus=206e3,
    fatigue_strength_coefficient=1100.0,
    fatigue_strength_exponent=-0.09,
    fatigue_ductility_coefficient=0.5,
    fatigue_ductility_exponent=-0.58,
)
HOW = {"fatemi-socie": {"k": 0.5}, "brown-miller": {}, "smith-watson-topper": {}}
UP = [0.0, 0.0, 1.0]
drives = st.lists(st.floats(-900.0, 900.0), min_size=3, max_size=20).filter(lambda many: np.ptp(many) > 1.0)


def method(criterion="fatemi-socie", **more):
    return StrainPlane(strain_life=STEEL, criterion=criterion, **{**HOW[criterion], **more})


def place(how, factor=2.0, unit=(BEND, TWIST), **more):
    return dataclasses.replace(spot(how, unit, **more), notch_factor=factor)


@settings(max_examples=60, deadline=None)
@given(values=drives, rule=st.sampled_from(["neuber", "energy density"]))
def test_a_uniaxial_path_is_that_of_one_stress(values, rule):
    one = follow_block(STEEL.cyclic, values, rule=rule)
    tensors = np.outer(values, [1.0, 0, 0, 0, 0, 0])
    path = Yielding(cyclic=STEEL.cyclic, notch_rule=rule).local(tensors, surface_normal=UP)
    assert path.stress[:, 0] == pytest.approx(one.stress, rel=1e-6, abs=1e-6)
    assert path.strain[:, 0] == pytest.approx(one.strain, rel=1e-6, abs=1e-12)
    any_path = Yielding(cyclic=STEEL.cyclic, notch_rule=rule, plasticity="incremental").local(
        tensors, surface_normal=UP
    )
    top, strain = np.abs(one.stress).max(), np.abs(one.strain).max()
    assert any_path.stress[one.samples, 0] == pytest.approx(one.stress, abs=0.02 * top)
    assert any_path.strain[one.samples, 0] == pytest.approx(one.strain, abs=5e-3 * strain)
    for found in (path, any_path):
        assert found.off_line == 0.0
        assert found.traction == 0.0


@settings(max_examples=60, deadline=None)
@given(
    values=drives, x=st.floats(-1.0, 1.0), y=st.floats(-1.0, 1.0), shear=st.floats(-1.0, 1.0), seed=st.integers(0, 99)
)
def test_paths_in_step_are_the_same_by_both_rules_however_the_axes_lie(values, x, y, shear, seed):
    tensor = np.array([x, y, 0.0, shear, 0.0, 0.0])
    size = math.sqrt(x * x - x * y + y * y + 3.0 * shear * shear)
    if size < 0.1:
        return
    rotation = Rotation.random(random_state=seed).as_matrix()
    own = np.outer(values, np.array(turned(tensor, rotation)) / size)
    normal = rotation @ UP
    both = [
        Yielding(cyclic=STEEL.cyclic, plasticity=rule).local(own, surface_normal=normal)
        for rule in ("proportional", "incremental")
    ]
    at = both[0].samples
    scale, strain = np.abs(both[0].stress).max(), np.abs(both[0].strain).max()
    assert both[1].stress[at] == pytest.approx(both[0].stress, abs=0.02 * scale)
    assert both[1].strain[at] == pytest.approx(both[0].strain, abs=0.01 * strain)
    for path in both:  # nothing acts along the normal
        full = path.stress[:, np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])]
        assert np.abs(full @ normal).max() < 1e-9 * max(scale, 1.0)


def test_small_stresses_stay_elastic_by_every_rule():
    x = np.linspace(0.0, 2.0 * np.pi, 61)
    tensors = np.outer(40.0 * np.sin(x), BEND) / 200.0 + np.outer(30.0 * np.cos(x), TWIST) / 150.0
    paths = {rule: Yielding(cyclic=STEEL.cyclic, plasticity=rule).local(tensors) for rule in ("elastic", "incremental")}
    assert paths["incremental"].stress == pytest.approx(paths["elastic"].stress, rel=1e-3, abs=1e-3)
    assert paths["incremental"].strain == pytest.approx(paths["elastic"].strain, rel=1e-3, abs=1e-9)


def test_the_proportional_rule_solves_hoffmann_and_seegers_equations():
    cyclic, nu = STEEL.cyclic, 0.3
    tensors = np.array([[600.0, 200.0, 0, 0, 0, 0], [-600.0, -200.0, 0, 0, 0, 0]])
    for transverse in TRANSVERSE:
        path = Yielding(cyclic=cyclic, transverse=transverse).local(tensors, surface_normal=UP)
        (one, two), (e1, e2, e3) = path.stress[0, :2], path.strain[0, :3]
        q, u = math.sqrt(one**2 - one * two + two**2), math.sqrt(600.0**2 - 600.0 * 200.0 + 200.0**2)
        strain = float(cyclic.strain(q))
        assert q * strain == pytest.approx(u**2 / 206e3, rel=1e-6)  # Neuber of the equivalents
        local = 0.5 - (0.5 - nu) * q / (206e3 * strain)
        assert e1 == pytest.approx(strain / q * (one - local * two), rel=1e-6)
        assert e3 == pytest.approx(-local * strain / q * (one + two), rel=1e-6)
        if transverse == "strain ratio":
            assert e2 / e1 == pytest.approx((200.0 - nu * 600.0) / (600.0 - nu * 200.0), rel=1e-6)
        else:
            assert two / one == pytest.approx(1.0 / 3.0, rel=1e-9)


def test_a_circular_path_yields_more_by_the_incremental_rule_and_hardens():
    x = np.linspace(0.0, 2.0 * np.pi, 361)[:-1]
    tensors = 700.0 * np.column_stack([np.sin(x), 0 * x, 0 * x, np.cos(x) / math.sqrt(3.0), 0 * x, 0 * x])
    soft = Yielding(cyclic=STEEL.cyclic, plasticity="incremental").local(tensors)
    hard = Yielding(cyclic=STEEL.cyclic, plasticity="incremental", nonproportional_hardening=0.4).local(tensors)
    assert soft.off_line == pytest.approx(1.0, abs=1e-6)
    mises = [np.sqrt(p.stress[:, 0] ** 2 + 3 * p.stress[:, 3] ** 2) for p in (soft, hard)]
    assert np.ptp(mises[0]) < 0.02 * mises[0].max()  # it goes round as the load does
    assert mises[1].max() > 1.1 * mises[0].max()
    fine = np.repeat(tensors, 2, axis=0)
    fine[1::2] = 0.5 * (tensors + np.roll(tensors, -1, axis=0))
    finer = Yielding(cyclic=STEEL.cyclic, plasticity="incremental").local(fine)
    assert finer.stress[::2] == pytest.approx(soft.stress, abs=0.01 * np.abs(soft.stress).max())


def test_smith_watson_topper_of_a_uniaxial_history_is_that_of_local_strain():
    rng = np.random.default_rng(3)
    bent = loads(0.3 + rng.normal(size=60), np.zeros(60))
    one = HotSpot(
        name="one",
        relation=OneLoad("bend", "200 MPa/kN"),
        material=METAL,
        method=LocalStrain(strain_life=STEEL),
        notch_factor=1.5,
    )
    by_one = va.assess_life(one, duty(bent)).life_repeats
    on_planes = va.assess_life(place(method("smith-watson-topper"), 1.5), duty(bent))
    assert on_planes.life_repeats == pytest.approx(by_one, rel=2e-3)
    assert abs(on_planes.method.worst(on_planes.hot_spot, on_planes.duty_cycle).found.normal[0]) == pytest.approx(
        1.0, abs=1e-4
    )


def test_fatemi_socie_in_torsion_is_the_curve_in_shear():
    shear = shear_curve(STEEL)
    twist = DutyCycle(
        "year", (Event("test", ConstantAmplitude.from_maximum("twist", "1 kN", minimum="-1 kN"), 1.0),), 1
    )
    cases = va.CaseLoads([va.CaseLoad(case="twist", channel="twist", unit_load="1 kN")])
    relation = va.UnitStresses(loads=cases, unit=[[0, 0, 0, 200.0, 0, 0]])
    alone = HotSpot(name="tube", relation=relation, material=METAL, method=method(k=0.0))
    life = va.assess_life(alone, twist)
    q = float(follow_block(STEEL.cyclic, [math.sqrt(3.0) * 200.0, -math.sqrt(3.0) * 200.0]).strain.max())
    stress = float(STEEL.cyclic.stress(q))
    gamma = stress / math.sqrt(3.0) / shear.shear_modulus + math.sqrt(3.0) * float(
        STEEL.cyclic.plastic(np.array([stress]))[0]
    )
    n = life.life_repeats
    value = (
        shear.strength / shear.shear_modulus * (2 * n) ** shear.exponent
        + shear.ductility * (2 * n) ** shear.ductility_exponent
    )
    assert value == pytest.approx(gamma, rel=1e-4)


@pytest.mark.parametrize("criterion", HOW)
@pytest.mark.parametrize("plasticity", PLASTICITY)
def test_every_line_can_be_redone_and_turned_axes_change_no_life(criterion, plasticity):
    assert set(HOW) == set(STRAIN_PARAMETERS)
    how = method(criterion, plasticity=plasticity)
    life = va.assess_life(
        place(how, constant=[10.0, 0, 0, 0, 0, 0]), duty(turning(70.0, 0.2), turning(20.0)), target=1e-3
    )
    for units, event in (("metric", None), ("us", "e0")):
        for step in va.life_working(life, units, event=event).steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-5, abs=2e-4), step.title
    rotation = Rotation.random(random_state=4).as_matrix()
    unit = (turned(BEND, rotation), turned(TWIST, rotation))
    again = va.assess_life(place(how, unit=unit, constant=turned([10.0, 0, 0, 0, 0, 0], rotation)), life.duty_cycle)
    assert again.life_repeats == pytest.approx(life.life_repeats, rel=3e-3)


def test_the_reserve_is_a_factor_on_the_loads_through_the_yielding_notch():
    how = method(plasticity="incremental")
    life = va.assess_life(place(how), duty(turning(80.0)), target=0.05)
    factor = life.reserve_on_stress
    x = 2.0 * np.pi * np.arange(180) / 180
    scaled = loads(factor * np.sin(x), factor * np.sin(x - np.radians(80.0)))
    assert va.assess_life(place(how), duty(scaled)).life_repeats == pytest.approx(0.05, rel=5e-3)


def codes(life):
    return {one.code for one in life.findings}


def test_findings_tell_which_rule_holds():
    out = duty(turning(90.0))
    assert "proportional-rule" in codes(va.assess_life(place(method()), out))
    assert "proportional-rule" not in codes(va.assess_life(place(method()), duty(turning(0.0))))
    assert "yields-unseen" in codes(va.assess_life(place(method(plasticity="elastic")), out))
    assert "hardening-by-turning" in codes(va.assess_life(place(method(plasticity="incremental")), out))
    solid = place(method(), unit=([200.0, 90.0, 80.0, 0, 0, 0], TWIST))
    assert "no-free-surface" in codes(va.assess_life(solid, out))


def test_criteria_and_rules_stand_side_by_side():
    life = va.assess_life(place(method(plasticity="incremental")), duty(turning(60.0)))
    side = va.compare_rules(life)
    assert len(side.lives) == len(STRAIN_PARAMETERS) + len(PLASTICITY) - 1


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: place(StrainPlane(strain_life=STEEL)), "k, 0.3 to 1"),
        (lambda: method("brown-miller", k=0.3), "'s' only"),
        (lambda: method("smith-watson-topper", s=0.3), "no constant only"),
        (lambda: StrainPlane(strain_life="bar"), "a strain-life curve"),
        (lambda: method(plasticity="plastic"), "one of 'proportional'"),
        (lambda: method(notch_rule="none"), "one of 'neuber'"),
        (lambda: method(poissons_ratio=0.6), "below 0.5"),
        (lambda: method(nonproportional_hardening=0.3), 'plasticity = "incremental"'),
        (lambda: method(plasticity="incremental", transverse="strain ratio"), 'plasticity = "proportional"'),
        (lambda: method(planes="some"), "one of 'all', 'free surface'"),
        (lambda: method(surface_normal=[0, 0, 0]), "three numbers"),
        (lambda: StrainPlane(strain_life=STEEL, criterion="fatemi"), "Did you mean"),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(InputError, match=said):
        ask()


@pytest.mark.parametrize("rule", ["neuber", "energy density"])
@pytest.mark.parametrize("transverse", TRANSVERSE)
@pytest.mark.parametrize("unit", [(BEND, TWIST), ([-120.0, 60.0, 0, 20.0, 0, 0], TWIST), ([0.0] * 6, TWIST)])
def test_the_proportional_rule_is_worked_where_the_path_is_largest(unit, transverse, rule):
    how = Yielding(cyclic=STEEL.cyclic, transverse=transverse, notch_rule=rule)
    x = np.sin(2.0 * np.pi * np.arange(40) / 40)
    path = 3.0 * np.outer(x, np.array(unit[0]) + np.array(unit[1]))
    worked = largest_steps(how, path, np.array(UP), "metric")
    for step in worked:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-5, abs=1e-7), step.title
    local = how.local(path, surface_normal=UP)
    at = int(np.abs(local.stress).sum(axis=1).argmax())
    stress = np.linalg.eigvalsh(local.stress[at][[[0, 3], [3, 1]]])
    strain = np.linalg.eigvalsh(local.strain[at][[[0, 3], [3, 1]]])
    first, along, across = (step.value for step in worked[-3:])
    assert np.abs(stress).max() == pytest.approx(first, rel=1e-4)
    assert sorted(np.abs(strain)) == pytest.approx(sorted(np.abs([along, across])), rel=1e-4)
    assert worked[-3].title.endswith("local first principal stress")
    assert largest_steps(how, 0.0 * path, np.array(UP), "metric") == []
