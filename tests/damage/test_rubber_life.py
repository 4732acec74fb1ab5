"""Life of rubber: limits that a hand calculation knows, invariance, the search for planes, models beside places, findings."""

import dataclasses
import itertools
import math
import re
from concurrent.futures import ProcessPoolExecutor

import meshio
import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from tests.by_hand import by_hand
from vivid_anvil.damage import CrackingEnergy, StressLife, assess_life, compare_rules
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, LoadStates
from vivid_anvil.fields import assess_model, free_surface_normals, model_answer, node_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material, knee_curve
from vivid_anvil.materials.rubber import (
    MooneyRivlin,
    PowerTearing,
    Rubber,
    ShiftedTearing,
    TearingTests,
    ThreeRegimes,
    fit_tearing,
    law_at,
    read_tearing_tests,
)
from vivid_anvil.models import (
    Elements,
    Rows,
    StressField,
    field_of_rows,
    read_strain_field,
    write_field_hdf5,
    write_field_table,
)
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.rubber import (
    StatesInTurn,
    StrainFields,
    StrainLoads,
    StrainStates,
    cauchy_green,
    joined_states,
    read_strain_states,
)
from vivid_anvil.stress.rubber import _life_kernels as kernels
from vivid_anvil.stress.rubber.flaw_growth import law_for_loops
from vivid_anvil.stress.rubber.flaws_of_places import FlawsOfPlaces

LAW = MooneyRivlin(name="bush", c10=0.3, c01=0.08)
GROWTH = PowerTearing(name="bush", rate=0.0025, at=11.0, slope=2.2)
RUBBER = Rubber(name="bush", law=LAW, growth=GROWTH, initial_flaw=0.04, end_flaw=1.2)
SHEET = (0.0, 0.0, 1.0)
STEEL = Material(name="rubber")
GROWTHS = {
    "power": GROWTH,
    "cut off": dataclasses.replace(GROWTH, cut_off=0.05),
    "crystallising": dataclasses.replace(GROWTH, r_effect="crystallising", slope_rise=1.3),
    "terms": dataclasses.replace(GROWTH, r_effect="crystallising", slope_terms=(1.0, 0.2, 0.3)),
    "shifted": ShiftedTearing(name="s", rate=0.003, at=10.0, slope=2.1, least=0.05),
    "regimes": ThreeRegimes(name="r", least_rate=1e-8, least=0.08, bend=3.0, bend_rate=6e-6, slope=2.5),
    "regimes, crystallising": ThreeRegimes(
        name="r",
        least_rate=1e-8,
        least=0.08,
        bend=3.0,
        bend_rate=6e-6,
        slope=2.5,
        r_effect="crystallising",
        slope_rise=0.8,
    ),
}


def with_growth(name):
    return dataclasses.replace(RUBBER, growth=GROWTHS[name])


def stretched(one, two, turn=0.0):
    """Rows of the right stretch of a sheet, turned by degrees."""
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    return [c * c * one + s * s * two, s * s * one + c * c * two, 1.0 / (one * two), c * s * (one - two), 0.0, 0.0]


def pulled(stretch, kind="simple"):
    return stretched(stretch, stretch**-0.5 if kind == "simple" else stretch if kind == "equibiaxial" else 1.0)


def spot_of(states, method=None, rubber=RUBBER, event=None, name="edge"):
    """A place whose states are numbered, all of them repeated."""
    turn = StatesInTurn(
        channel="state", cases=[f"{event} {i}" for i in range(len(states))], events=[event] if event else []
    )
    relation = StrainStates.of(states, "right stretch", StrainLoads([turn]))
    return HotSpot(
        name=name,
        relation=relation,
        material=STEEL,
        method=method or CrackingEnergy(rubber=rubber, surface_normal=SHEET),
    )


def lap(many, cycles=1.0, first=1):
    return LoadStates.of({"state": list(range(first, many + 1))}, cycles=cycles)


def life_of(states, cycles=1.0, first=1, **more):
    spot = spot_of(states, **more)
    return assess_life(spot, DutyCycle("lap", [Event("lap", lap(len(states), cycles, first))]))


def ramp(top, many=30, kind="simple", low=1.0):
    up = np.linspace(low, top, many)
    return [pulled(one, kind) for one in (*up, *up[-2:0:-1])]


def test_one_block_of_equal_cycles_has_the_life_of_the_closed_integral():
    life = life_of(ramp(1.8), cycles=40.0)
    energy = float(LAW.energy_of("simple", 1.8))
    per = 2.0 * math.pi * energy / GROWTH.at
    power = 1.0 - GROWTH.slope
    cycles = (1.2**power - 0.04**power) / (power * GROWTH.rate * per**GROWTH.slope)
    assert life.life_repeats == pytest.approx(cycles / 40.0, rel=1e-5)
    assert life.method.passes(life) == pytest.approx(life.life_repeats, rel=1e-9)
    assert life.working().steps[-1].value == pytest.approx(life.life_repeats)
    normal = life.method.opens_along(life.hot_spot, life.duty_cycle)
    assert abs(normal[0]) == pytest.approx(1.0, abs=1e-5)


def test_equibiaxial_tension_makes_all_planes_across_the_sheet_alike_and_compression_does_nothing():
    both = life_of(ramp(1.5, kind="equibiaxial"))
    place = both.method.place(both.hot_spot, both.duty_cycle)
    assert abs(place.worst.normal[2]) < 1e-3
    assert len(place.ties) > 3
    assert "planes-tie" in {one.code for one in both.findings}
    around = np.column_stack([np.cos(np.arange(9) / 3), np.sin(np.arange(9) / 3), np.zeros(9)])
    assert place.flaw.damage(around) == pytest.approx(both.damage_per_repeat, rel=1e-6)
    pressed = life_of([pulled(one, "planar") for one in (1.0, 0.9, 0.8, 0.9)])
    squeezed = life_of([stretched(one, one) for one in (1.0, 0.95, 0.9, 0.95)])
    assert squeezed.life_repeats == math.inf
    assert {one.code for one in squeezed.findings} >= {"compression-only"}
    assert pressed.life_repeats > 0.0


@settings(max_examples=8, deadline=None)
@given(seed=st.integers(0, 200))
def test_turning_the_whole_history_changes_no_life(seed):
    turn = np.linspace(0.0, 2.0 * np.pi, 24, endpoint=False)
    states = [stretched(1.4 + 0.2 * np.cos(t), 1.1 + 0.1 * np.sin(t), 25.0 * np.sin(t)) for t in turn]
    about = Rotation.random(random_state=seed).as_matrix()
    full = np.array(states)[:, [[0, 3, 5], [3, 1, 4], [5, 4, 2]]]
    other = np.einsum("ai,nij,bj->nab", about, full, about)
    rows = [[one[i, j] for i, j in ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))] for one in other]
    method = CrackingEnergy(rubber=RUBBER, surface_normal=tuple((about @ np.array(SHEET)).tolist()))
    assert life_of(rows, method=method).life_repeats == pytest.approx(life_of(states).life_repeats, rel=1e-3)


def wandering(seed, many=60):
    """A course of strains in a sheet that turns and swings."""
    rng = np.random.default_rng(seed)
    t = np.linspace(0.0, 2.0 * np.pi, many, endpoint=False)
    one = 1.3 + rng.uniform(0.05, 0.3) * np.sin(t + rng.uniform(0, 6)) + 0.05 * np.sin(5 * t)
    two = 1.0 + rng.uniform(0.05, 0.2) * np.sin(2 * t + rng.uniform(0, 6))
    turn = rng.uniform(0, 50) * np.sin(t + rng.uniform(0, 6))
    return [stretched(a, b, c) for a, b, c in zip(one, two, turn, strict=True)]


@pytest.mark.parametrize("growth", GROWTHS)
def test_no_plane_of_a_finer_net_is_damaged_more_and_bounds_hold(growth):
    rubber = with_growth(growth)
    rng = np.random.default_rng(11)
    for seed in range(3):
        life = life_of(wandering(seed), rubber=rubber)
        place = life.method.place(life.hot_spot, life.duty_cycle)
        normals = rng.normal(size=(1500, 3))
        near = place.worst.normal + 0.05 * rng.normal(size=(500, 3))
        found = place.flaw.damage(np.concatenate([normals, near]) / 1.0)
        assert found.max() <= life.damage_per_repeat * (1.0 + 1e-3)
        assert life.damage_per_repeat == pytest.approx(float(place.flaw.damage(place.worst.normal[None])[0]), rel=1e-9)
        ways = tuple(place.flaw.ways)
        own, every = (
            FlawsOfPlaces(rubber, ways, pruned=pruned).at(place.strains, np.array(SHEET)) for pruned in (True, False)
        )
        assert own.by_way == pytest.approx(every.by_way, rel=1e-12)
        assert own.counted <= every.counted


@pytest.mark.parametrize("growth", GROWTHS)
def test_the_loop_gives_the_lives_of_the_law(growth):
    rubber = with_growth(growth)
    rng = np.random.default_rng(2)
    energy, r = 10.0 ** rng.uniform(-2.0, 0.3, 60), rng.uniform(0.0, 0.9, 60)
    law = law_for_loops(rubber)
    found = [kernels.life(*law, one, two) for one, two in zip(energy, r, strict=True)]
    assert found == pytest.approx(rubber.tearing.lives(energy, r, 0.04, 1.2), rel=1e-12)


def test_blocks_add_and_the_way_in_is_not_repeated():
    small, large = ramp(1.5), ramp(1.9)
    alone = [life_of(states, cycles=times).damage_per_repeat for states, times in ((small, 100.0), (large, 3.0))]
    spots = [spot_of(states, event=name) for states, name in ((small, "lap"), (large, "stop"))]
    both = joined_states([spot.relation for spot in spots])
    events = [Event("lap", lap(len(small), 100.0)), Event("stop", lap(len(large), 3.0))]
    life = assess_life(dataclasses.replace(spots[0], relation=both), DutyCycle("month", events))
    assert life.damage_per_repeat == pytest.approx(sum(alone), rel=1e-4)
    assert [one.damage for one in life.events] == pytest.approx(alone, rel=1e-4)
    # a cycle from 1.5 to 1.9 that never relaxes: the way to 1.5 is gone once
    held = life_of([pulled(1.2), pulled(1.35), *ramp(1.9, low=1.5)], first=3)
    ratio = float(LAW.energy_of("simple", 1.5) / LAW.energy_of("simple", 1.9))
    cycle = held.spectrum.cycles
    assert (cycle.minimum / cycle.maximum)[0] == pytest.approx(ratio, rel=1e-4)
    crystals = life_of([pulled(1.2), pulled(1.35), *ramp(1.9, low=1.5)], first=3, rubber=with_growth("crystallising"))
    assert crystals.life_repeats > held.life_repeats


def test_states_at_loads_are_passed_on_the_way_of_any_load():
    turn = StatesInTurn(channel="sink", cases=["a", "b", "c"], at=["2 mm", "4 mm", "6 mm"])
    assert turn.places.tolist() == [0.0, 2.0, 4.0, 6.0]
    assert turn.weights(np.array([0.0, 1.0, 5.0, 7.0])).tolist() == [
        [0, 0, 0],
        [0.5, 0, 0],
        [0, 0.5, 0.5],
        [0, -0.5, 1.5],
    ]
    rows, numbers = turn.through(np.array([1.0, 5.0, 3.0]))
    assert rows.tolist() == [1.0, 2.0, 4.0, 5.0, 4.0, 3.0]
    assert numbers.tolist() == [0, -1, -1, 1, -1, 2]
    assert turn.way_in(5.0).tolist() == [0.0, 2.0, 4.0]
    assert turn.beyond(np.array([7.2])) == pytest.approx(0.2)
    states = [pulled(one) for one in (1.2, 1.5, 1.8)]
    relation = StrainStates.of(states, "right stretch", StrainLoads([turn]))
    spot = dataclasses.replace(spot_of(states), relation=relation)
    by_cycles = ConstantAmplitude.from_maximum("sink", "6 mm", minimum="0 mm", cycles=5)
    by_states = LoadStates.of({"sink": ["0 mm", "6 mm"]}, cycles=5)
    lives = [assess_life(spot, DutyCycle("lap", [Event("lap", load)])) for load in (by_cycles, by_states)]
    assert lives[0].life_repeats == pytest.approx(lives[1].life_repeats, rel=1e-12)
    assert lives[0].life_repeats == pytest.approx(life_of(ramp(1.8), cycles=5).life_repeats, rel=0.02)
    more = dataclasses.replace(spot, relation=dataclasses.replace(relation, loads=StrainLoads([turn], 1.1)))
    found = assess_life(more, lives[0].duty_cycle)
    assert "beyond-computed" in {one.code for one in found.findings}
    assert found.damage_per_repeat == pytest.approx(float(lives[0].spectrum.damage(1.1).sum()), rel=1e-3)


def test_other_energies_stand_beside():
    life = life_of(ramp(1.8))
    lives = {name: one.life_repeats for name, one in compare_rules(life).lives.items()}
    assert lives == pytest.approx(dict.fromkeys(lives, life.life_repeats), rel=1e-3)  # simple tension: all the same
    both = life_of(ramp(1.5, kind="equibiaxial"))
    other = {name: one.life_repeats for name, one in compare_rules(both).lives.items()}
    assert other["energy density"] == pytest.approx(both.life_repeats / 2.0**GROWTH.slope, rel=1e-3)


def cube(strains, cases):
    """A brick of eight nodes with the same strains at all, or each its own."""
    corners = np.array(list(itertools.product([0.0, 10.0], repeat=3)))[[0, 4, 6, 2, 1, 5, 7, 3]]
    brick = Elements("hexahedron", np.arange(8)[None], np.array([1]))
    return StressField(
        cases=cases,
        node_ids=np.arange(1, 9),
        coordinates=corners,
        stresses=strains,
        elements=[brick],
        node_sets={"top": np.flatnonzero(corners[:, 2] == 10.0)},
        dimension="strain",
    )


def test_a_model_has_the_life_of_the_place_at_each_node():
    states = wandering(4, 24)
    cases = [f"step {i}" for i in range(len(states))]
    strains = 0.5 * (cauchy_green(states, "right stretch") - np.array([1, 1, 1, 0, 0, 0]))
    shares = np.linspace(0.3, 1.0, 8)
    field = cube(shares[None, :, None] * strains[:, None, :], cases)
    turn = StatesInTurn(channel="state", cases=cases)
    normals = free_surface_normals(field, "top")
    assert {tuple(round(part, 9) for part in one) for one in normals.values()} == {SHEET}
    firm = dataclasses.replace(RUBBER, law=dataclasses.replace(LAW, bulk_modulus=1500.0))
    spot = HotSpot(name="bush", material=STEEL, method=CrackingEnergy(rubber=firm))
    duty = DutyCycle("lap", [Event("lap", lap(len(states)))])
    out = [int(node) for node in field.node_ids if int(node) not in normals]
    loads = StrainFields(StrainLoads([turn]), normals)
    model = assess_model(field, loads, duty, spot, leave_out=out)
    node = int(field.node_ids[model.worst])
    assert node == max(normals)
    life = node_life(model, node)
    assert life.damage_per_repeat == pytest.approx(float(model.values.damage[model.worst]), rel=1e-9)
    own = dataclasses.replace(spot, method=dataclasses.replace(spot.method, surface_normal=SHEET))
    relation = StrainStates(loads=StrainLoads([turn]), strains=strains)
    assert assess_life(dataclasses.replace(own, relation=relation), duty).damage_per_repeat == pytest.approx(
        life.damage_per_repeat, rel=1e-9
    )
    for chunk in (1, 3):
        again = assess_model(field, loads, duty, spot, leave_out=out, chunk=chunk)
        assert again.values.damage.tolist() == model.values.damage.tolist()


def test_membranes_have_the_normal_of_their_faces_and_processes_give_the_same(tmp_path):
    states = np.array(wandering(6, 12))
    nominal = np.array([np.array(one) - [1, 1, 1, 0, 0, 0] for one in states])
    places = [[0.0, 0, 0], [5, 0, 0], [5, 5, 0], [0, 5, 0]]
    data = {f"state {i}": np.tile(one, (4, 1)) * np.linspace(0.4, 1.0, 4)[:, None] for i, one in enumerate(nominal)}
    meshio.Mesh(places, [("quad", [[0, 1, 2, 3]])], data).write(tmp_path / "sheet.vtu")
    field = read_strain_field(
        tmp_path / "sheet.vtu", measure="nominal", strain_unit="mm/mm", length_unit="mm", cases=list(data)
    )
    normals = free_surface_normals(field)
    assert {abs(round(one[2], 9)) for one in normals.values()} == {1.0}
    loads = StrainFields(StrainLoads([StatesInTurn(channel="state", cases=list(data))]), normals)
    spot = HotSpot(name="sheet", material=STEEL, method=CrackingEnergy(rubber=RUBBER))
    duty = DutyCycle("lap", [Event("lap", lap(len(states)))])
    here = assess_model(field, loads, duty, spot)
    with ProcessPoolExecutor(1) as pool:
        there = assess_model(field, loads, duty, spot, executor=pool, chunk=2)
    assert there.values.damage.tolist() == here.values.damage.tolist()
    assert here.worst == 3
    with pytest.raises(InputError, match="bulk modulus"):
        assess_model(field, StrainFields(loads.states), duty, spot)
    with pytest.raises(InputError, match="a field of strains"):
        assess_model(dataclasses.replace(field, dimension="stress"), loads, duty, spot)


def test_deformation_gradients_of_meshes_and_tables_are_the_strains_of_the_same_body(tmp_path):
    turn = Rotation.from_euler("zx", [0.7, 0.3]).as_matrix()
    gradient = turn @ np.array([[1.4, 0.3, 0.0], [0.0, 0.9, 0.1], [0.0, 0.0, 1.0 / 1.26]])
    expected = 0.5 * (gradient.T @ gradient - np.eye(3))[[0, 1, 2, 0, 1, 2], [0, 1, 2, 1, 2, 0]]
    places = [[0.0, 0, 0], [5, 0, 0], [0, 5, 0]]
    data = {"F": np.tile(gradient.ravel(), (3, 1))}
    meshio.Mesh(places, [("triangle", [[0, 1, 2]])], data).write(tmp_path / "sheet.vtu")
    how = {"measure": "deformation gradient", "strain_unit": "mm/mm", "length_unit": "mm", "cases": ["F"]}
    assert np.asarray(read_strain_field(tmp_path / "sheet.vtu", **how).stresses)[0, 1] == pytest.approx(expected)
    nine = [f"{a}{b} [-]" for a in "xyz" for b in "xyz"]
    rows = [[1, 0.0, 0.0, 0.0, *gradient.ravel()], [2, 5.0, 0.0, 0.0, *np.eye(3).ravel()]]
    pd.DataFrame(rows, columns=["node", "x [mm]", "y [mm]", "z [mm]", *nine]).to_csv(
        tmp_path / "sheet.csv", index=False
    )
    found = read_strain_field(tmp_path / "sheet.csv", measure="deformation gradient")
    assert np.asarray(found.stresses)[0] == pytest.approx(np.array([expected, np.zeros(6)]), abs=1e-12)
    state = pd.DataFrame([[1, *gradient.ravel()]], columns=["state", *nine])
    state.to_csv(tmp_path / "edge.csv", index=False)
    edge = read_strain_states(tmp_path / "edge.csv", measure="deformation gradient")
    assert edge.strains[0] == pytest.approx(expected)
    heads = ["node", "x [mm]", "y [mm]", "z [mm]", *nine]
    pd.DataFrame(rows, columns=heads).drop(columns="zz [-]").to_csv(tmp_path / "less.csv", index=False)
    with pytest.raises(InputError, match="'zz'"):
        read_strain_field(tmp_path / "less.csv", measure="deformation gradient")


@pytest.mark.parametrize("ending", ["csv", "h5", "parquet"])
def test_strain_fields_come_back_from_files(tmp_path, ending):
    rows = np.array([pulled(one) for one in (1.2, 1.6)])
    nominal = rows - np.array([1, 1, 1, 0, 0, 0])
    field = cube(np.repeat(nominal[:, None], 8, axis=1), ["a", "b"])
    path = tmp_path / f"bush.{ending}"
    (write_field_hdf5 if ending == "h5" else write_field_table)(field, path)
    back = read_strain_field(path, measure="nominal")
    expected = 0.5 * (cauchy_green(rows, "right stretch") - np.array([1, 1, 1, 0, 0, 0]))
    assert np.asarray(back.stresses)[:, 3] == pytest.approx(expected)
    with pytest.raises(InputError, match="one of"):
        read_strain_field(path, measure="engineering")


def test_a_measure_that_was_not_meant_is_told(tmp_path):
    states = np.array([pulled(one) for one in np.linspace(1.0, 1.8, 9)])
    principal = np.column_stack([np.log(states[:, :3]), np.zeros((9, 3))])  # true strains
    heads = ["state", *(f"{one} [-]" for one in ("xx", "yy", "zz", "xy", "yz", "zx"))]
    frame = pd.DataFrame(np.column_stack([np.arange(1, 10), principal]), columns=heads)
    frame.to_csv(tmp_path / "edge.csv", index=False)
    duty = DutyCycle("lap", [Event("lap", lap(9))])
    codes = {}
    for measure in ("logarithmic", "nominal"):
        relation = read_strain_states(tmp_path / "edge.csv", measure=measure)
        spot = dataclasses.replace(spot_of(states.tolist()), relation=relation)
        codes[measure] = {one.code: one.sentence for one in assess_life(spot, duty).findings}
    assert not {"strain-measure", "volume-changes"} & set(codes["logarithmic"])
    assert "as logarithmic strains it would stay" in codes["nominal"]["strain-measure"]


def test_findings_of_law_tests_threshold_and_ratio():
    def codes(states, first=1, **changes):
        growth = changes.pop("growth", GROWTH)
        law = dataclasses.replace(LAW, **changes)
        return {
            one.code
            for one in life_of(states, first=first, rubber=dataclasses.replace(RUBBER, law=law, growth=growth)).findings
        }

    assert "strain-beyond-tests" in codes(ramp(1.8), stretches_tested=(0.7, 1.5))
    assert "strain-beyond-tests" not in codes(ramp(1.8), stretches_tested=(0.7, 1.9))
    assert "unstable-law" in codes(ramp(2.0, kind="equibiaxial"), c10=0.5, c01=-0.08)
    assert "below-threshold" in codes(ramp(1.1), growth=dataclasses.replace(GROWTH, cut_off=0.5))
    relaxes = dataclasses.replace(GROWTHS["crystallising"], r_ratios_tested=(0.1, 0.4))
    assert "relaxes-untested" in codes(ramp(1.8), growth=relaxes)
    assert "r-beyond-tests" in codes([pulled(1.3), *ramp(1.9, low=1.6)], first=2, growth=relaxes)
    assert "tears-before-end" in codes(ramp(1.8), growth=dataclasses.replace(GROWTH, at=2.0))
    both = life_of(wandering(1, 40), rubber=with_growth("regimes"))
    assert both.method.passes(both) > 0.0
    turning = [
        stretched(*pair)
        for pair in ((1, 1), (1.3, 1), (1.6, 1), (1.6, 1.2), (1.6, 1.4), (1.3, 1.4), (1, 1.4), (1, 1.2))
    ]
    assert "energy-drifts" in {one.code for one in life_of(turning).findings}


SAID = re.compile(r"MJ/m\^3|in\*lbf/in\^3|N/mm|lbf/in|mm/cycle|in/cycle")


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("growth", GROWTHS)
def test_every_line_of_the_working_can_be_redone(growth, units):
    life = life_of([pulled(1.2), *ramp(1.8, low=1.4)], first=2, rubber=with_growth(growth))
    working = life.working(units)
    redone = 0
    for step in working.steps:
        if step.numbers.startswith(("at ", "growth ")):  # a rate of a law, told with its formula
            continue
        text = SAID.sub("", step.numbers).replace("e^(", "exp(").replace("[", "(").replace("]", ")")
        for sign, power in (("²", "**2"), ("³", "**3")):
            text = text.replace(sign, power)
        assert by_hand(text) == pytest.approx(step.value, rel=2e-4, abs=1e-12), step
        redone += 1
    assert redone >= len(working.steps) - 2 - 6
    assert working.steps[-1].value == pytest.approx(life.life_repeats)


def test_elements_that_disagree_and_events_that_never_happen_are_told():
    strains = 0.5 * (cauchy_green([pulled(1.2), pulled(1.7)], "right stretch") - np.array([1, 1, 1, 0, 0, 0]))
    nodes = np.array([0, 1, 1, 2])
    rows = Rows(
        nodes, strains[:, None] * np.array([1.0, 0.6, 1.0, 0.8])[None, :, None], elements=np.array([1, 1, 2, 2])
    )
    field = field_of_rows(["a", "b"], np.array([1, 2, 3]), np.diag([0.0, 9.0, 20.0]), rows, dimension="strain")
    loads = StrainFields(StrainLoads([StatesInTurn(channel="state", cases=["a", "b"])]))
    method = CrackingEnergy(rubber=RUBBER, surface_normal=SHEET)
    duty = DutyCycle("lap", [Event("lap", lap(2))])
    answer = model_answer(assess_model(field, loads, duty, HotSpot(name="b", material=STEEL, method=method)), "bush")
    told = {one.code: one.sentence for one in answer.findings}
    assert "of the largest strain" in told["mesh-coarse"]
    assert not {"stress-small", "model-above-yield", "beyond-strength"} & set(told)
    assert answer.result.chosen[1] == "element 2"
    with pytest.raises(InputError, match="never happens"):
        Event("stop", lap(2), occurrences=0)
    with pytest.raises(InputError, match="above 0"):
        lap(2, cycles=0)
    with pytest.raises(InputError, match="At R = 1 nothing moves"):
        GROWTH.growth(1.0, 1.0)
    curve = knee_curve(
        name="c", stress="amplitude", r_ratio=-1, knee_stress=150.0, knee_life=1e6, slope=5, slope_below=9
    )
    with pytest.raises(InputError, match="which takes stresses"):
        dataclasses.replace(spot_of([pulled(1.2)]), method=StressLife(sn_curve=curve))


def test_laws_at_temperatures_and_through_tests(tmp_path):
    cold = dataclasses.replace(GROWTH, temperature="20 °C")
    warm = dataclasses.replace(GROWTH, rate=0.01, at=22.0, slope=3.0, temperature="80 °C")
    between = law_at([warm, cold], 50.0)
    for energy in (0.1, 1.0, 30.0):
        one, other = float(cold.growth(energy)), float(warm.growth(energy))
        assert float(between.growth(energy)) == pytest.approx(math.sqrt(one * other), rel=1e-12)
    with pytest.raises(InputError, match="20 to 80 °C"):
        law_at([cold, warm], 90.0)
    with pytest.raises(InputError, match="one form"):
        law_at([cold, dataclasses.replace(GROWTHS["shifted"], temperature=60.0)], 30.0)
    energies = np.geomspace(0.06, 8.0, 25)
    for name in ("power", "shifted", "regimes"):
        law = GROWTHS[name]
        found = fit_tearing(TearingTests(name="t", energies=energies, rates=law.growth(energies)), form=law.kind)
        assert found.law.growth(energies) == pytest.approx(law.growth(energies), rel=1e-6)
    ratios = np.tile([0.0, 0.1, 0.3, 0.45, 0.2], 5)
    law = GROWTHS["crystallising"]
    tests = TearingTests(name="t", energies=energies, rates=law.growth(energies, ratios), r_ratios=ratios)
    found = fit_tearing(tests, r_effect="crystallising").law
    assert (found.slope, found.slope_rise) == pytest.approx((2.2, 1.3), rel=1e-6)
    few = fit_tearing(TearingTests(name="t", energies=[1.0, 2.0, 4.0], rates=[1e-5, 9e-5, 1e-4], r_ratios=0.1))
    assert {one.code for one in few.findings} >= {"few-growth-points", "tested-non-relaxing"}
    (tmp_path / "edge.csv").write_text(
        "crack [mm],stretch,growth rate [mm/cycle]\n1,1.4,2e-5\n2,1.4,5e-5\n3,1.4,1e-4\n"
    )
    read = read_tearing_tests(tmp_path / "edge.csv", law=LAW)
    stored = float(LAW.energy_of("simple", 1.4))
    assert read.energies == pytest.approx(2.0 * math.pi / math.sqrt(1.4) * stored * np.array([1.0, 2.0, 3.0]))
    with pytest.raises(InputError, match="a law that gives it"):
        read_tearing_tests(tmp_path / "edge.csv")


def test_one_flaw_under_very_many_cycles_is_grown_on_even_pieces(monkeypatch):
    rng = np.random.default_rng(3)
    energy, r, often = 10.0 ** rng.uniform(-2.0, 0.2, 90), rng.uniform(0.0, 0.5, 90), rng.uniform(1.0, 9.0, 90)
    law = GROWTHS["regimes"]
    quick = law.passes(energy, r, often, 0.04, 1.2)
    monkeypatch.setattr("vivid_anvil.materials.rubber.tearing_law.MOST_MARKS", 10**9)
    assert quick == pytest.approx(law.passes(energy, r, often, 0.04, 1.2), rel=1e-7)
