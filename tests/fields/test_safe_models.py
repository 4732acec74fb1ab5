"""What must not pass in silence: steps that are no load case, shells in their middle, a node that fails, supports, shear."""

import json
import pickle
import shutil
from pathlib import Path

import meshio
import numpy as np
import pytest

from tests.fields.models import LOADS, duty_of, field_of, limited, spot
from tests.spots import changed
from tests.study.texts import AT_LAWS, MODEL
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.fields import (
    CaseLoad,
    CaseLoads,
    assess_model,
    assess_planes,
    hottest_places,
    model_findings,
    reserves_on_stress,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import Elements, StressField, read_frd, shell_faces, with_sets
from vivid_anvil.stress.measures import Component, stress_measure

DATA = Path(__file__).parents[1] / "models" / "data"
UNITS = {"stress_unit": "MPa", "length_unit": "mm"}
PULL = ConstantAmplitude.from_range("force", "10 kN", r_ratio=0.0, cycles=1000)
YEAR = DutyCycle("year", [Event("pull", PULL)], repeats_per_year=1)


def codes(result, most=3):
    return {one.code: one for one in model_findings(result, hottest_places(result, most))}


@pytest.mark.parametrize(
    ("name", "words"), [("steady_state.frd", "a shape of vibration"), ("modes.frd", "a shape of vibration")]
)
def test_shapes_of_vibration_are_no_load_case(name, words):
    with pytest.raises(InputError, match=words):
        read_frd(DATA / name, **UNITS)


def test_amplitudes_with_a_phase_are_not_read_by_their_real_part(tmp_path):
    lines = (DATA / "steady_state.frd").read_text().splitlines()
    first = next(i for i, line in enumerate(lines) if line.startswith("  100CL  105"))
    nodes = next(i for i, line in enumerate(lines) if line.startswith("    1PSTEP"))
    (tmp_path / "steady.frd").write_text("\n".join([*lines[:nodes], *lines[first:]]) + "\n")
    with pytest.raises(InputError, match="imaginary parts"):
        read_frd(tmp_path / "steady.frd", **UNITS)
    assert read_frd(DATA / "static.frd", **UNITS).cases == ("step 1",)


def flat_plate(**settings):
    nodes = np.array([[0.0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0]])
    stresses = np.zeros((1, 4, 6))
    stresses[0, :, 0] = [50.0, 40.0, 45.0, 48.0]
    quad = Elements("quad", np.array([[0, 1, 2, 3]]), np.array([1]))
    return StressField(
        cases=["pull"], node_ids=[1, 2, 3, 4], coordinates=nodes, stresses=stresses, elements=[quad], **settings
    )


FORCE = CaseLoads([CaseLoad(case="pull", channel="force", unit_load="10 kN")])


def test_shells_with_one_stress_a_node_hide_their_bending():
    found = codes(assess_model(flat_plate(), FORCE, YEAR, spot()))
    assert found["shell-middle"].severity == "severe"
    assert "shell-middle" not in codes(assess_model(flat_plate(shell_face="middle"), FORCE, YEAR, spot()))


@pytest.mark.slow
def test_the_study_says_that_the_middle_surface_is_meant(study, run, tmp_path):
    plate = flat_plate()
    mesh = meshio.Mesh(plate.coordinates, [("quad", plate.elements[0].nodes)], point_data={"S": plate.stresses[0]})
    mesh.write(tmp_path / "plate.vtu")
    keys = (
        MODEL.replace("few_nodes.csv", "plate.vtu")
        + 'stress_unit = "MPa"\nlength_unit = "mm"\ncases = { pull = "S" }\n'
    )
    code, out, err = run("model", study((AT_LAWS, keys + "\n" + AT_LAWS)))
    assert code == 0, err
    assert "shell-middle" in out
    code, out, _ = run("model", study((AT_LAWS, keys + 'face = "middle"\n\n' + AT_LAWS)))
    assert (code, "shell-middle" in out) == (0, False)


@pytest.mark.slow
def test_one_node_beyond_the_strength_fails_alone_and_is_named(study, run, tmp_path):
    table = (tmp_path / "few_nodes.csv").read_text().splitlines()
    table[2] = table[2].replace("60", "4000")
    (tmp_path / "few_nodes.csv").write_text("\n".join(table) + "\n")
    keys = MODEL.replace("fillet_weld", "pin_bore") + 'mean_stress = "goodman"\n'
    path = study((AT_LAWS, keys + "\n" + AT_LAWS))
    code, out, err = run("model", path, "--json", tmp_path / "m.json", "--nodes", tmp_path / "n.vtu", "--node", 2)
    assert code == 0, err
    words = " ".join(out.split())
    assert "One node fails at once" in words
    assert "Node 2 at (4, 0, 0) mm" in words
    assert "Node 2 fails at once" in words
    code, out, err = run("places", path, "--csv", tmp_path / "p.csv", "--page", tmp_path / "p.html")
    assert code == 0, err
    first = (tmp_path / "p.csv").read_text().splitlines()[1].split(",")
    assert first[:3] == ["node 2", "node", "inf"]  # not the worst of those that live
    places = json.loads((tmp_path / "m.json").read_text())["places"]
    assert (places[0]["node"], places[0]["life [repeats]"]) == (2, 0.0)
    assert all(one["life [repeats]"] != 0.0 for one in places[1:])
    assert np.isfinite(meshio.read(tmp_path / "n.vtu").point_data["damage per repeat"]).all()
    keys += "leave_out = [2]\n"
    code, out, _ = run("model", study((AT_LAWS, keys + "\n" + AT_LAWS)))
    assert code == 0
    assert "beyond-strength" not in out
    assert "1 nodes are left out" in out
    code, _, err = run("model", study((AT_LAWS, keys.replace("[2]", '["clamp"]') + "\n" + AT_LAWS)))
    assert code == 2
    assert "leave_out" in err or "node set" in err


def test_nodes_left_out_are_left_out_of_everything():
    field, duty = field_of(60), duty_of(200)
    worst = hottest_places(assess_model(field, LOADS, duty, spot()), 3, apart=0)
    out = [one.node for one in worst[:2]]
    result = assess_model(field, LOADS, duty, spot(), leave_out=out, target="20 years")
    assert hottest_places(result, 1, apart=0)[0].node == worst[2].node
    whole = assess_model(field, LOADS, duty, spot(), target="20 years")
    kept = result.assessed
    assert result.damage_per_repeat[kept] == pytest.approx(whole.damage_per_repeat[kept], rel=1e-12)
    reserves = reserves_on_stress(result)
    assert np.isnan(reserves).sum() == 2
    assert reserves[kept] == pytest.approx(reserves_on_stress(whole)[kept])
    assert result.to_frame()["left out"].sum() == 2
    with pytest.raises(InputError, match="every node"):
        assess_model(field, LOADS, duty, spot(), leave_out=field.node_ids.tolist())
    with pytest.raises(InputError, match="Put it into a list"):
        assess_model(field, LOADS, duty, spot(), leave_out="clamp")


def test_worst_places_at_supports_beside_what_is_left_out_and_alone_are_found(tmp_path):
    shutil.copy(DATA / "static.inp", tmp_path)
    bar = with_sets(read_frd(DATA / "static.frd", **UNITS, cases=["pull"]), tmp_path / "static.inp")
    result = assess_model(bar, FORCE, YEAR, spot())
    assert codes(result)["at-support"].severity == "warning"
    less = assess_model(bar, FORCE, YEAR, spot(), leave_out=["supports"])
    found = codes(less)
    assert "edge-of-part" in found
    assert bar.node_ids[bar.node_sets["supports"][0]] not in [one.node for one in hottest_places(less, 4)]
    stresses = np.array(bar.stresses)
    stresses[0, 10, 0] = 9e3
    alone = StressField(
        cases=bar.cases, node_ids=bar.node_ids, coordinates=bar.coordinates, stresses=stresses, elements=bar.elements
    )
    assert "one-node-peak" in codes(assess_model(alone, FORCE, YEAR, spot()))


@pytest.mark.parametrize("measure", ["absolute maximum principal", "normal stress, critical plane"])
def test_shear_is_found_where_a_normal_stress_is_counted(measure):
    """Pure shear: Tresca sees twice the principal stress."""
    shear = StressField(cases=["pull"], node_ids=[1], coordinates=[[0, 0, 0]], stresses=[[[0, 0, 0, 60.0, 0, 0]]])
    if "plane" not in measure:
        result = assess_model(shear, FORCE, YEAR, spot(), measure=measure)
    else:
        result = assess_planes(measure, shear, FORCE, YEAR, spot())
    found = codes(result)["shear-dominated"]
    assert "50% of Tresca" in found.sentence
    pull = StressField(cases=["pull"], node_ids=[1], coordinates=[[0, 0, 0]], stresses=[[[60.0, 0, 0, 0, 0, 0]]])
    assert "shear-dominated" not in codes(assess_model(pull, FORCE, YEAR, spot(), measure="absolute maximum principal"))
    assert "shear-dominated" not in codes(assess_model(shear, FORCE, YEAR, spot(), measure="signed Tresca"))


def test_the_worst_plane_does_not_hang_on_the_net():
    """One cycle: the plane of the principal stress, wherever it lies between those of the net."""
    rng = np.random.default_rng(3)
    turns = np.linalg.qr(rng.normal(size=(40, 3, 3)))[0]
    tensors = turns @ np.diag([80.0, 10.0, -5.0]) @ turns.transpose(0, 2, 1)
    stresses = np.array([[t[0, 0], t[1, 1], t[2, 2], t[0, 1], t[1, 2], t[2, 0]] for t in tensors])
    field = StressField(cases=["pull"], node_ids=np.arange(40), coordinates=np.zeros((40, 3)), stresses=stresses[None])
    result = assess_planes("normal stress, critical plane", field, FORCE, YEAR, spot())
    assert result.values.highest == pytest.approx(np.full(40, 80.0), rel=1e-4)


def test_no_bound_no_skipping():
    field = field_of(20, scale=1e-6)

    class Unbounded(Component):
        def norm(self, tensors):
            return None

    at = changed(spot(), curve=limited())
    known, unknown = (assess_model(field, LOADS, duty_of(), at, measure=one("xx")) for one in (Component, Unbounded))
    assert not known.values.counted.any()
    assert unknown.values.counted.all()


@pytest.mark.parametrize(
    "call",
    [
        lambda: stress_measure("signed von Mises, hydrostatic").of([1.0, 2.0, 3.0]),
        lambda: stress_measure("signed von Mises, hydrostatic").of([[1.0, 2.0, 3.0, 0.0, 0.0, np.nan]]),
        lambda: shell_faces([1.0] * 6, [0.0] * 6, 2.0),
        lambda: shell_faces([1.0] * 3, [0.0] * 2, 2.0),
        lambda: shell_faces([1.0] * 3, [0.0] * 3, 0.0),
    ],
)
def test_tensors_of_another_shape_are_refused(call):
    with pytest.raises(InputError):
        call()


def test_a_model_and_its_result_pickle():
    result = assess_model(flat_plate(), FORCE, YEAR, spot(), leave_out=[1])
    again = pickle.loads(pickle.dumps(result))
    assert again.damage_per_repeat == pytest.approx(result.damage_per_repeat)
