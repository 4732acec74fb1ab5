"""Whole paths as cycles: closed answers, the quick search against the slow one, bounds that hold, models, free surfaces."""

import dataclasses
import math
from concurrent.futures import ProcessPoolExecutor

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.damage.test_critical_plane import BEND, CURVE, HOW, METAL, TWIST, duty, loads, spot, turning
from tests.fields.models import LOADS, duty_of, field_of, rows_of
from vivid_anvil.damage import CriticalPlane
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.fields import assess_model, endless_life_of_nodes, node_life
from vivid_anvil.materials import table_curve
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.planes import SHEAR_AMPLITUDES, _path_kernels, worst_plane
from vivid_anvil.stress.planes.path_places import FORMS, Asking, PathLoads
from vivid_anvil.stress.planes.shear_amplitude import carriers
from vivid_anvil.stress.planes.surface_planes import free_normal, surface_family

seeds = st.integers(0, 10_000)


def whole(criterion="findley", amplitude="circle", **more):
    return CriticalPlane(sn_curve=CURVE, criterion=criterion, shear_amplitude=amplitude, **HOW[criterion], **more)


def made(seed, samples=25, cases=2):
    """Unit stresses of a place and two events with as many loads."""
    rng = np.random.default_rng(seed)
    channels = ("vertical force", "lateral force")
    events = []
    for name, often in (("lap", 1e4), ("stop", 50.0)):
        forces = tuple(va.Channel.in_unit(key, rng.normal(0.0, 8.0, samples), "kN") for key in channels)
        events.append(Event(name, va.LoadHistory(name, forces, "50 Hz"), often))
    return rng.normal(0.0, 60.0, (cases, 6)), rng.normal(0.0, 10.0, 6), DutyCycle("year", tuple(events), 1.0)


@pytest.mark.parametrize("amplitude", SHEAR_AMPLITUDES)
@pytest.mark.parametrize("criterion", HOW)
def test_a_path_that_goes_round_once_has_the_life_of_its_rainflow_cycle(criterion, amplitude):
    once = duty(turning(90.0))
    lives = [
        va.assess_life(spot(one), once).life_repeats for one in (whole(criterion, amplitude), whole(criterion, None))
    ]
    assert lives[0] == pytest.approx(lives[1], rel=2e-3)


def test_findley_out_of_phase_is_that_of_the_closed_formula():
    life = va.assess_life(spot(whole()), duty(turning()))
    assert float(life.equivalent_stress.max()) == pytest.approx(210.0 / (0.5 * (math.sqrt(1.09) + 0.3)), rel=1e-4)


@pytest.mark.parametrize("form", FORMS)
@settings(max_examples=30, deadline=None)
@given(seed=seeds)
def test_nothing_within_a_radius_is_above_its_bound(form, seed):
    unit, constant, repeat = made(seed)
    events = LOADS.events(repeat)
    of = PathLoads.of(events)
    rng = np.random.default_rng(seed)
    rates = np.empty((of.ends.size, 7))
    _path_kernels.rates_of(unit, constant, of.corners, of.ends, rates)
    normal = rng.normal(size=3)
    normal /= np.linalg.norm(normal)
    radius = float(rng.uniform(0.01, 0.4))
    place = (unit, constant, of.corners, of.ends, of.order, of.scatter, FORMS[form], rates, of.room())
    for roughly in (True, False):
        shear, sigma, most, above = np.empty((4, of.ends.size))
        _path_kernels.on_plane(normal, radius, roughly, *place, shear, sigma, most, above)
        side = rng.normal(size=(200, 3))
        side -= (side @ normal)[:, None] * normal
        side /= np.linalg.norm(side, axis=1)[:, None]
        turn = radius * np.sqrt(rng.uniform(size=(200, 1)))
        own = of.on_planes(unit, constant, np.cos(turn) * normal + np.sin(turn) * side, form)
        assert (own.shear <= most * (1 + 1e-9)).all()
        assert (own.normal <= above + 1e-9 * np.abs(above)).all()


@pytest.mark.parametrize("criterion", HOW)
@pytest.mark.parametrize("form", SHEAR_AMPLITUDES)
def test_the_quick_search_finds_what_the_slow_one_finds(criterion, form):
    method = whole(criterion, form)
    for seed in range(8):
        unit, constant, repeat = made(seed)
        of = PathLoads.of(LOADS.events(repeat))
        weights = method.form.weights(method, METAL, "here")
        asking = Asking(*weights, method.form.clamps, CURVE, method.form.on_largest_shear)
        found = of.worst_of(unit[None], constant[None], method.path_form, asking)

        def damage(normals, of=of, unit=unit, constant=constant, weights=weights):
            shear, sigma = of.on_planes(unit, constant, normals, method.path_form)
            amplitude = method.form.amplitude(*weights, shear, sigma)
            return (of.often / CURVE.life(np.maximum(amplitude, 1e-9))).sum(axis=1)

        def shear(normals, of=of, unit=unit, constant=constant):
            return of.on_planes(unit, constant, normals, method.path_form).shear.max(axis=1)

        if method.form.on_largest_shear:
            slow = worst_plane(shear, second=damage, step_degrees=3.0)
            assert shear(found.normals)[0] == pytest.approx(slow.value, rel=1e-4)
            assert shear(found.normals)[0] >= slow.value * (1 - 1e-5)
        else:
            slow = worst_plane(lambda n: damage(n) ** 0.2, step_degrees=3.0)
            assert found.damage.sum() >= slow.value**5 * (1 - 1e-3)
            assert found.damage.sum() <= damage(found.normals)[0] * (1 + 1e-9)
        assert found.looked[0] < 3_000


def head(method, **more):
    return HotSpot(name="model", material=METAL, method=method, **more)


def test_a_node_of_a_model_is_a_hot_spot_of_its_own():
    field, repeat = field_of(40), duty_of(60)
    for criterion in HOW:
        model = assess_model(field, LOADS, repeat, head(whole(criterion), notch_factor=1.3), target="10 years")
        places = np.argsort(-model.damage_per_repeat)[:4]
        for place in places.tolist():
            alone = node_life(model, int(field.node_ids[place]))
            assert alone.damage_per_repeat == pytest.approx(model.damage_per_repeat[place], rel=2e-3)
            assert alone.life_repeats < math.inf
    with ProcessPoolExecutor(1) as pool:
        far = assess_model(field, LOADS, repeat, head(whole()), executor=pool, chunk=7)
    near = assess_model(field, LOADS, repeat, head(whole()))
    assert np.array_equal(far.damage_per_repeat, near.damage_per_repeat)


def test_faces_of_shells_and_stresses_of_each_element_are_looked_at_on_planes():
    field = rows_of(10)
    for how in (whole(), CriticalPlane(sn_curve=CURVE, k=0.3)):
        model = assess_model(field, LOADS, duty_of(30), head(how))
        assert model.chosen is not None
        assert "element" in model.chosen[model.worst]
        worst = node_life(model, int(model.field.node_ids[model.worst]))
        assert worst.damage_per_repeat == pytest.approx(float(model.damage_per_repeat.max()), rel=2e-3)


def test_criteria_for_endless_life_at_nodes_are_those_of_every_sample_there():
    limits = {"axial_limit": 300.0, "torsion_limit": 180.0, "repeated_limit": 240.0}
    field, repeat = field_of(9), duty_of(40)
    method = CriticalPlane(sn_curve=CURVE, shear_amplitude="circle", **limits)
    plain = head(CriticalPlane(sn_curve=CURVE, k=0.3))
    model = assess_model(field, LOADS, repeat, head(method, notch_factor=1.3))
    every = endless_life_of_nodes(model)
    a, b = va.dang_van_constants(300.0, 180.0)
    for place in range(field.size):
        courses = [
            1.3 * (event.loads @ LOADS.units(field)[place] + LOADS.constants(field)[place])
            for event in LOADS.events(repeat)
        ]
        paths = [
            path
            for event, one in zip(LOADS.events(repeat), courses, strict=True)
            for path in ([one] if event.counts is None else one.reshape(-1, 2, 6))
        ]
        dang_van = max(va.dang_van(one, a=a, b=b).utilisation for one in paths)
        crossland = max(va.crossland(one, axial_limit=300.0, torsion_limit=180.0) for one in paths)
        sines = max(va.sines(one, repeated_limit=240.0, torsion_limit=180.0) for one in paths)
        found = [every.used[name][place] for name in ("dang van", "crossland", "sines")]
        assert found == pytest.approx([dang_van, crossland, sines], rel=1e-6)
    at = int(every.used["dang van"].argmax())
    node = int(field.node_ids[at])
    (table,) = method.tables(node_life(model, node), "metric")
    assert table.columns[2].values[:3] == pytest.approx(
        [every.used[name][at] for name in table.columns[0].values[:3]], rel=1e-6
    )
    assert every.table.columns[3].values[0] == node
    assert endless_life_of_nodes(assess_model(field, LOADS, repeat, plain)) is None


@pytest.mark.parametrize("amplitude", [None, "circle"])
def test_nodes_that_cannot_be_damaged_are_left_out_and_do_none(amplitude):
    curve = table_curve(
        name="limited",
        stress="amplitude",
        r_ratio=-1,
        points=[("300 MPa", 1e5), ("150 MPa", 1e7)],
        above="extend",
        below="no damage",
    )
    method = CriticalPlane(sn_curve=curve, k=0.3, shear_amplitude=amplitude)
    field = field_of(60)
    model = assess_model(field, LOADS, duty_of(60), head(method))
    worst = node_life(model, int(field.node_ids[model.worst]))
    assert worst.damage_per_repeat == pytest.approx(float(model.damage_per_repeat.max()), rel=2e-3)
    idle = ~model.values.counted
    assert 0 < idle.sum() < 60
    assert not model.damage_per_repeat[idle].any()
    for place in np.flatnonzero(idle)[:3].tolist():
        assert node_life(model, int(field.node_ids[place])).damage_per_repeat == 0.0


@pytest.mark.parametrize("amplitude", SHEAR_AMPLITUDES)
@pytest.mark.parametrize("criterion", HOW)
def test_every_line_can_be_redone(criterion, amplitude):
    place = dataclasses.replace(spot(whole(criterion, amplitude), constant=[10.0, 0, 0, 0, 5.0, 0]), notch_factor=1.2)
    life = va.assess_life(place, duty(turning(70.0, 0.2), turning(20.0)), target=1.0)
    for units, event in (("metric", None), ("us", "e0"), ("metric", "e1")):
        for step in va.life_working(life, units, event=event).steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-5, abs=1e-9), step.title


@settings(max_examples=100, deadline=None)
@given(
    st.lists(st.tuples(st.integers(-6, 6), st.integers(-6, 6)), min_size=1, max_size=12),
    st.sampled_from(["circle", "chord"]),
)
def test_a_path_rests_on_two_or_three_of_its_points(points, amplitude):
    path = np.array(points, dtype=float)
    own = path[carriers(path, amplitude)]
    assert 1 <= len(own) <= 3
    assert SHEAR_AMPLITUDES[amplitude](own[None])[0] == pytest.approx(
        SHEAR_AMPLITUDES[amplitude](path[None])[0], rel=1e-6, abs=1e-9
    )


def test_planes_of_a_free_surface():
    across = surface_family(np.array([0.0, 0.0, 1.0]), 90.0, np.arange(0.0, 180.0, 0.25))
    sloping = surface_family(np.array([0.0, 0.0, 1.0]), 45.0, np.arange(0.0, 360.0, 0.25))
    assert np.abs(across[:, 2]).max() == pytest.approx(0.0, abs=1e-12)
    assert sloping[:, 2] == pytest.approx(np.full(len(sloping), math.sqrt(0.5)))
    assert free_normal([BEND, TWIST]).normal == pytest.approx([0, 0, 1])
    for amplitude in (None, "circle"):
        free = whole(amplitude=amplitude, planes="free surface")
        life = va.assess_life(spot(free), duty(turning(60.0)))
        dense = free.on_planes(spot(free), duty(turning(60.0)))(np.concatenate([across, sloping]))
        assert life.damage_per_repeat == pytest.approx(dense.max(), rel=2e-3)
        assert life.damage_per_repeat >= dense.max() * (1 - 1e-9)
        stated = whole(amplitude=amplitude, planes="free surface", surface_normal=(0, 0, 2))
        assert va.assess_life(spot(stated), duty(turning(60.0))).damage_per_repeat == pytest.approx(
            life.damage_per_repeat, rel=1e-6
        )
        assert life.damage_per_repeat <= va.assess_life(
            spot(whole(amplitude=amplitude)), duty(turning(60.0))
        ).damage_per_repeat * (1 + 1e-3)


def test_findings_tell_what_a_whole_path_leaves_out_and_where_no_surface_is():
    x = np.linspace(0.0, 8.0 * np.pi, 400)
    many = loads(np.sin(x), np.cos(x))
    codes = {one.code for one in va.assess_life(spot(whole()), duty(many)).findings}
    assert "path-counts-once" in codes
    assert "path-counts-once" not in {one.code for one in va.assess_life(spot(whole()), duty(turning())).findings}
    solid = spot(whole(planes="free surface"), [[200.0, 90.0, 80.0, 0, 0, 0], TWIST])
    assert "no-free-surface" in {one.code for one in va.assess_life(solid, duty(turning())).findings}


def test_limits_of_a_region_without_nodes_say_nothing():
    method = CriticalPlane(sn_curve=CURVE, shear_amplitude="circle", axial_limit=300.0, torsion_limit=180.0)
    plain = head(CriticalPlane(sn_curve=CURVE, k=0.3, shear_amplitude="circle"))
    model = assess_model(field_of(4), LOADS, duty_of(20), plain)
    empty = dataclasses.replace(model, regions=(("edge", head(method)),), region_of=np.full(4, -1))
    assert endless_life_of_nodes(empty) is None
