"""The command on models: what it prints and writes for the demo's hanger head, and for a model of three nodes."""

import json

import meshio
import pandas as pd
import pytest

from tests.study.test_study_file import AT_LAWS, MODEL, model, study  # noqa: F401
from vivid_anvil.fields import hottest_places
from vivid_anvil.study import read_study, run_model


@pytest.fixture(scope="module")
def asked(tmp_path_factory):
    return tmp_path_factory.mktemp("head")


def test_the_hanger_head_is_assessed_drawn_and_written(run, demo_file, asked):
    written = (
        "--json",
        asked / "m.json",
        "--csv",
        asked / "m.csv",
        "--figures",
        asked / "f",
        "--nodes",
        asked / "n.vtu",
    )
    code, out, _ = run("model", demo_file.parent / "hanger_head.toml", "--set", "free", "--most", 5, *written)
    assert code == 0
    for words in ("7522 nodes of hanger_head.frd", "absolute", "Reserve", "biaxiality", "Written: "):
        assert words in out
    record = json.loads((asked / "m.json").read_text())
    assert [one["rank"] for one in record["places"]] == [1, 2, 3, 4, 5]
    assert all(one["y_mm"] >= -95.0 and one["sets"] == "free" for one in record["places"])
    lives = [one["life_years"] for one in record["places"]]
    assert lives == sorted(lives)
    assert all((one["reserve_on_stress"] >= 1.0) == (one["life_years"] >= 30.0) for one in record["places"])
    assert len(pd.read_csv(asked / "m.csv")) == 5
    assert len(list((asked / "f").glob("*.png"))) == 4
    mesh = meshio.read(asked / "n.vtu")
    assert mesh.cells[0].type == "tetra10"
    assert len(mesh.points) == record["nodes"] == 7522
    assert 10.0 ** mesh.point_data["log10 life in years"].min() <= lives[0]


def test_a_model_of_three_nodes_without_elements_has_no_picture_of_its_surface(study, run, tmp_path):  # noqa: F811
    path = study(model())
    code, out, _ = run("model", path, "--figures", tmp_path / "f", "--nodes", tmp_path / "n.csv", "--units", "us")
    assert code == 0
    assert "[ksi]" in out
    assert "[in]" in out
    assert len(list((tmp_path / "f").glob("*.png"))) == 1
    made = read_study(path)
    found = hottest_places(run_model(made))
    assert [one.node for one in found] == [2, 1, 5]
    frame = pd.read_csv(tmp_path / "n.csv")
    assert frame["damage per repeat"].max() == pytest.approx(found[0].damage_per_repeat)


WISHES = {
    "no model": ((), (), "no model"),
    "no such set": ((model(),), ("--set", "fre"), "no set"),
    "no ending": ((model(),), ("--nodes", "nodes.doc"), "a file that ends in"),
    "no places": ((model(),), ("--most", 0), "one place or more"),
}


@pytest.mark.parametrize(("changes", "wishes", "message"), WISHES.values(), ids=WISHES)
def test_wishes_that_cannot_be_met_are_named(study, run, changes, wishes, message):  # noqa: F811
    code, out, err = run("model", study(*changes), *wishes)
    assert (code, out) == (2, "")
    assert message in " ".join(err.split())


def test_check_counts_the_nodes_of_a_model(study, run):  # noqa: F811
    code, out, _ = run("check", study(model()))
    assert code == 0
    assert "with the command model the lives of 3 nodes." in " ".join(out.split())
