"""What-if, solve, side-by-side and rules on the model of a study: at its worst node, whichever that is then."""

import json
from pathlib import Path

import numpy as np
import pandas as pd
import pytest

from vivid_anvil.fields import node_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import StressField, write_field_table
from vivid_anvil.study import WORST_NODE, read_study, run_model, run_study, what_if, worst_node_life

pytestmark = pytest.mark.slow

STUDY = """format = 2
title = "Bracket"
target_life = "3000 laps"

[duty_cycle]
repeat = "lap"

[[duty_cycle.events]]
name = "lap"
history = "lap.csv"

[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"

[sn_curves.bar]
stress = "amplitude"
r_ratio = -1
knee_stress = "60 MPa"
knee_life = 2e6
slope = 5
slope_below = 9

[[hot_spots]]
name = "toe"
channel = "force"
stress_per_load = "10 MPa/kN"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"

[model]
stresses = "few_nodes.csv"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"
load_cases = [
    { case = "pull", channel = "force", unit_load = "10 kN" },
    { case = "preload", constant = 1.0 },
]
"""


@pytest.fixture
def study(tmp_path, monkeypatch):
    """The study, in the working folder: node 2 feels the pull most, node 5 a preload under less of it."""
    monkeypatch.chdir(tmp_path)
    t = np.arange(400) / 20.0
    force = 5.0 + 6.0 * np.sin(2.0 * t) * np.cos(0.31 * t)
    pd.DataFrame({"time [s]": t, "force [kN]": force.round(4)}).to_csv("lap.csv", index=False)
    stresses = np.zeros((2, 3, 6))
    stresses[0, :, 0] = [10.0, 160.0, 150.0]
    stresses[1, :, 0] = [0.0, 0.0, 60.0]
    places = [[0.0, 0, 0], [4.0, 0, 0], [9.0, 2, 0]]
    field = StressField(cases=["pull", "preload"], node_ids=[1, 2, 5], coordinates=places, stresses=stresses)
    write_field_table(field, tmp_path / "few_nodes.csv")
    Path("study.toml").write_text(STUDY)
    return Path("study.toml")


def test_the_worst_node_of_each_variant_is_that_of_a_study_with_the_value_in_it(study, run):
    found = what_if(study, "model/mean_stress", ["none", "gerber"])
    for one in found.variants:
        Path("other.toml").write_text(STUDY.replace('"goodman"\nload_cases', f'"{one.value}"\nload_cases'))
        result = run_model(read_study("other.toml"))
        life = one.lives[WORST_NODE]
        assert life.damage_per_repeat == pytest.approx(result.values.damage.max(), rel=1e-12)
        assert life.place == f"node {result.field.node_ids[result.values.damage.argmax()]}"
        assert "toe" in one.lives
    assert {one.lives[WORST_NODE].place for one in found.variants} == {"node 2", "node 5"}
    code, out, err = run("what-if", study, "model/mean_stress", "none")
    assert code == 0, err
    assert "The worst node: node 5 at goodman, node 2 at none." in " ".join(out.split())


def test_a_factor_on_loads_leaves_what_is_always_there(study):
    result = run_model(read_study(study))
    for scale in (0.5, 1.5):
        by_node = [float(node_life(result, node).spectrum.damage(1.0).sum()) for node in (1, 2, 5)]
        assert by_node == pytest.approx(result.values.damage.tolist(), rel=1e-12)
        text = STUDY.replace('unit_load = "10 kN"', f'unit_load = "{10.0 / scale} kN"')
        Path("scaled.toml").write_text(text)
        wanted = run_model(read_study("scaled.toml")).values.damage.max()
        life = what_if(study, "load scale", [scale], spot=WORST_NODE).variants
        found = next(one.lives[WORST_NODE] for one in life if not one.is_base)
        assert found.damage_per_repeat == pytest.approx(wanted, rel=1e-12)


def test_the_hot_spot_alone_does_not_move_the_node(study):
    found = what_if(study, "hot_spots/toe/notch_factor", [1.2])
    assert len({one.lives[WORST_NODE].damage_per_repeat for one in found.variants}) == 1
    assert len({one.lives["toe"].damage_per_repeat for one in found.variants}) == 2
    only = what_if(study, "hot_spots/toe/notch_factor", [1.2], spot=WORST_NODE)
    assert only.spots == [WORST_NODE]


def test_solve_finds_the_value_at_which_the_worst_node_just_meets_the_target(study, run):
    asked = ("--key", "model/notch_factor", "--between", "1.0..1.6", "--spot", WORST_NODE, "--json", "a.json")
    code, _, err = run("solve", study, *asked)
    assert code == 0, err
    answers = {row["question"]: row["answer"] for row in json.loads(Path("a.json").read_text())["answers"]}
    factor = answers["model/notch_factor"]
    text = STUDY.replace('"goodman"\nload_cases', f'"goodman"\nnotch_factor = {factor}\nload_cases')
    Path("other.toml").write_text(text)
    assert worst_node_life(read_study("other.toml")).life_repeats == pytest.approx(3000.0, rel=1e-6)


def test_rules_and_side_by_side_tell_the_worst_node(study, run):
    code, _, err = run("rules", study, "--spot", WORST_NODE, "--json", "a.json")
    assert code == 0, err
    rules = json.loads(Path("a.json").read_text())["comparisons"][0]["rules"]
    assert next(one["damage per repeat"] for one in rules if one["used"]) == pytest.approx(
        worst_node_life(read_study(study)).damage_per_repeat
    )
    Path("other.toml").write_text(STUDY.replace("slope_below = 9", "slope_below = 5"))
    code, out, err = run("side-by-side", study, "other.toml", "--json", "b.json")
    assert code == 0, err
    row = next(one for one in json.loads(Path("b.json").read_text())["lives"] if one["hot spot"] == WORST_NODE)
    assert row["other: life [repeats]"] == pytest.approx(worst_node_life(read_study("other.toml")).life_repeats)
    assert row["study: place"] == "node 5"
    assert "worst node" in out


@pytest.mark.usefixtures("study")
def test_a_study_of_a_model_alone_is_answered_too(run):
    Path("alone.toml").write_text(STUDY[: STUDY.index("[[hot_spots]]")] + STUDY[STUDY.index("[model]") :])
    for command, *asked in (("rules",), ("solve",), ("what-if", "load scale", "0.9")):
        code, out, err = run(command, "alone.toml", *asked)
        assert code == 0, err
        assert "node" in out


def test_no_hot_spot_beside_a_model_is_called_as_its_worst_node(study):
    study.write_text(STUDY.replace('name = "toe"', f'name = "{WORST_NODE}"'))
    with pytest.raises(InputError, match="another name"):
        read_study(study)


def test_a_node_that_fails_at_once_lives_0_and_stops_no_other_answer(study, run):
    """A mean stress beyond the ultimate strength: severe, named, and the hot spot is answered all the same."""
    Path("bad.toml").write_text(STUDY.replace('unit_load = "10 kN"', 'unit_load = "1 kN"'))
    result = run_study(read_study("bad.toml"))
    assert result.places[WORST_NODE].life_repeats == 0.0
    assert "beyond-strength" in [finding.code for finding in result.model.findings]
    code, out, err = run("what-if", "bad.toml", "load scale", "0.05", "0.9", "--json", "a.json")
    assert code == 0, err
    assert "toe" in out
    rows = json.loads(Path("a.json").read_text())["variants"]
    lives = {row["load scale"]: row["life [repeats]"] for row in rows if row["hot spot"] == WORST_NODE}
    assert lives[1.0] == lives[0.9] == 0.0
    assert lives[0.05] == "inf" or lives[0.05] > 0.0
    code, out, err = run("side-by-side", study, "bad.toml")
    assert code == 0, err
    code, out, err = run("rules", "bad.toml")
    assert code == 0, err
    assert "toe" in out
    code, out, err = run("solve", "bad.toml", "--spot", "toe")
    assert code == 0, err
