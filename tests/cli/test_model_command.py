"""The command on models: what it prints and writes for the demo's hanger head, and for a model of three nodes."""

import json

import meshio
import numpy as np
import pandas as pd
import pytest

from tests.study.texts import AT_LAWS, model
from vivid_anvil.fields import hottest_places
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study import read_study, run_model

pytestmark = pytest.mark.slow


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
    code, out, _ = run("model", demo_file.parent / "hanger_head.toml", "--most", 5, *written)
    assert code == 0
    for words in (
        "7522 nodes of hanger_head.frd",
        "absolute",
        "Reserve",
        "Biaxiality",
        "Worst cycle at node",
        "not-proportional",
        "Written: ",
    ):
        assert words in out
    record = json.loads((asked / "m.json").read_text())
    assert [one["rank"] for one in record["places"]] == [1, 2, 3, 4, 5]
    assert all(one["y [mm]"] > -88.0 and not one["sets"] for one in record["places"])
    lives = [one["life [years]"] for one in record["places"]]
    assert lives == sorted(lives)
    assert all((one["reserve on stress"] >= 1.0) == (one["life [years]"] >= 30.0) for one in record["places"])
    assert len(pd.read_csv(asked / "m.csv")) == 5
    assert len(list((asked / "f").glob("*.png"))) == 4
    mesh = meshio.read(asked / "n.vtu")
    assert mesh.cells[0].type == "tetra10"
    assert len(mesh.points) == record["nodes"] == 7522
    assert 10.0 ** mesh.point_data["log10 life [years]"].min() == pytest.approx(lives[0])
    assert mesh.point_data["damage of lap"] == pytest.approx(mesh.point_data["damage per repeat"])
    assert max(map(len, out.splitlines()[:-6])) <= 80
    for words in ("a lap", "[years]", "Used", "on stress", "lap 100.0%", "within 12 mm"):
        assert words in out
    at = mesh.point_data["node"] == record["places"][0]["node"]
    reserve = mesh.point_data["reserve on stress"][at]
    assert reserve == pytest.approx(record["places"][0]["reserve on stress"], rel=1e-9)
    assert next(one for one in record["places"] if one["node"] == 2072)["worst cycle: direction y"] > 0.99
    shank = record["paths"][0]
    assert shank["path"] == "shank, right edge"
    assert shank["worst cycle: highest stress [MPa]"] == pytest.approx(shank["highest stress [MPa]"])


def test_a_model_of_three_nodes_without_elements_has_no_picture_of_its_surface(study, run, tmp_path):
    path = study(model())
    code, out, _ = run("model", path, "--figures", tmp_path / "f", "--nodes", tmp_path / "n.csv", "--units", "us")
    assert code == 0
    assert "[ksi]" in out
    assert "[in]" in out
    assert len(list((tmp_path / "f").glob("*.png"))) == 1
    made = read_study(path)
    found = hottest_places(run_model(made), apart=0)
    assert [one.node for one in found] == [2, 1, 5]
    frame = pd.read_csv(tmp_path / "n.csv")
    assert frame["damage per repeat"].max() == pytest.approx(found[0].damage_per_repeat)


BAR = """[model]
stresses = "bar.vtu"
stress_unit = "MPa"
length_unit = "mm"
cases = { pull = "S" }
element_values = "each element"
sets_from = "ends.csv"
material = "plate_steel"
sn_curve = "fillet_weld"
notch_factor = 1.1
measure = "component xx"
load_cases = [{ case = "pull", channel = "vertical force", unit_load = "10 kN" }]
regions = [{ set = "material 2", sn_curve = "pin_bore", mean_stress = "goodman" }]
paths = [
    { name = "toe", rule = "5 and 15 mm", toe = ["0 mm", "0 mm", "0 mm"], along = [1, 0, 0] },
    { name = "through", surface = ["15 mm", "5 mm", "0 mm"], other = ["15 mm", "5 mm", "10 mm"], sn_curve = "pin_bore" },
]
"""


@pytest.fixture
def bar(study, tmp_path):
    """A study of two blocks, 20 mm long, of two materials, and a line, with the stresses of each."""
    grid = [[x, y, z] for x in (0.0, 10.0, 20.0) for y in (0.0, 10.0) for z in (0.0, 10.0)]
    block = np.array([0, 4, 6, 2, 1, 5, 7, 3])
    cells = [("hexahedron", np.array([block, block + 4])), ("line", np.array([[0, 11]]))]
    stresses = [np.array([[60.0, 0, 0, 0, 0, 0], [45.0, 0, 0, 0, 0, 0]]), np.array([[5.0, 0, 0, 0, 0, 0]])]
    data = {"S": stresses, "material": [np.array([1, 2]), np.array([3])]}
    meshio.Mesh(np.array(grid), cells, cell_data=data).write(tmp_path / "bar.vtu")
    (tmp_path / "ends.csv").write_text("node,set\n1,left end\n2,left end\n12,right end\n")

    def changed(*changes, text=BAR):
        for old, new in changes:
            assert old in text
            text = text.replace(old, new)
        return study((AT_LAWS, text + "\n" + AT_LAWS))

    return changed


def test_elements_regions_and_paths_of_a_study(bar, run, tmp_path):
    """Each material by its own curve, also where both meet; the line is assessed and not drawn."""
    path = bar()
    figures = ("--figures", tmp_path / "f", "--seen-from", "1,0.5,2", "--seen-from", "top")
    code, out, err = run("model", path, "--json", tmp_path / "m.json", *figures)
    assert code == 0, err
    for words in ("nodes of material 2: Kf = 1.1, S-N curve pin_bore", "not-drawn", "Path", "toe", "through"):
        assert words in out
    assert sorted(one.name for one in (tmp_path / "f").glob("model*.png")) == ["model-1-0.5-2.png", "model-top.png"]
    record = json.loads((tmp_path / "m.json").read_text())
    by_node = {one["node"]: one for one in record["places"]}
    assert by_node[1]["worst of"] == "element 1"
    assert by_node[1]["sets"] == "material 1, material 3, left end"
    at_path = {one["path"]: one for one in record["paths"]}
    load = by_node[1]["highest stress [MPa]"] / (1.1 * 60.0)  # element 1 feels 60 MPa, with the notch factor
    at_toe = 1.5 * 0.5 * (32.5 + 52.5) - 0.5 * 0.5 * (
        52.5 + 45.0
    )  # means of elements at the nodes, the line's 5 MPa too
    assert at_path["toe"]["highest stress [MPa]"] == pytest.approx(at_toe * load)
    assert at_path["through"]["life [years]"] > at_path["toe"]["life [years]"]
    made = read_study(path)
    assert [spot.curve.name for spot in made.model.path_spots.values()] == ["fillet_weld", "pin_bore"]
    mean = read_study(bar(("each element", "averaged")))
    assert mean.model.field.of_case("pull")[4:8, 0] == pytest.approx(52.5)
    assert mean.model.field.of_case("pull")[0, 0] == pytest.approx(32.5)
    code, out, _ = run("model", bar(("each element", "averaged")))
    assert code == 0
    assert "mesh-coarse" in out
    turned = bar(('cases = { pull = "S" }', 'cases = { pull = "S" }\ncomponent_order = "xx, yy, zz, xz"'))
    code, _, err = run("model", turned)
    assert code == 2
    assert "Did you mean 'xx, yy, zz, xy, yz, zx'" in " ".join(err.split())


def test_every_stress_of_an_element_is_written_as_its_node(bar, run, tmp_path):
    path = bar(("component xx", "signed von Mises, hydrostatic"))
    for name in ("n.csv", "n.vtu"):
        code, _, err = run("model", path, "--nodes", tmp_path / name, "--node", 8, "--units", "us")
        assert code == 0, err
    frame, mesh = pd.read_csv(tmp_path / "n.csv"), meshio.read(tmp_path / "n.vtu")
    # at the last node the line's 5 MPa on the weld's curve do more than the block's 45 MPa on the bore's
    assert frame["worst of"].tolist() == ["element 1"] * 8 + ["element 2"] * 3 + ["element 3"]
    assert frame["region"].fillna("").tolist() == [""] * 8 + ["material 2"] * 3 + [""]
    assert mesh.point_data["region"].tolist() == [-1] * 8 + [0] * 3 + [-1]
    assert mesh.point_data["reserve on stress"] == pytest.approx(frame["reserve on stress"].to_numpy())
    assert {cell.type for cell in mesh.cells} == {"hexahedron", "line"}


@pytest.mark.parametrize("measure", ["normal stress, surface", "normal stress, critical plane"])
def test_planes_are_a_measure_of_a_study(bar, run, measure):
    path = bar(("component xx", measure), ("each element", "averaged"))
    code, out, err = run("model", path, "--most", 3)
    assert code == 0, err
    assert measure in " ".join(out.split())
    planes = run_model(read_study(path))
    plain = run_model(read_study(bar(("each element", "averaged"))))
    assert planes.damage_per_repeat.max() == pytest.approx(plain.damage_per_repeat.max(), rel=0.1)
    assert abs(planes.directions[planes.worst][0]) > 0.9


def test_only_places_as_bad_as_asked_for_and_work_that_is_kept(bar, run, tmp_path):
    path, kept = bar(), tmp_path / "kept"
    code, whole, _ = run("model", path, "--keep", kept)
    assert code == 0
    assert len(list(kept.glob("*.npz"))) == 2  # a chunk of each region
    assert run("model", path, "--keep", kept)[1] == whole
    worst = run_model(read_study(path)).life_years.min()
    code, out, _ = run("model", path, "--life-below", f"{worst * 0.9:.3g} years")
    assert (code, "No place is as bad as asked for." in out) == (0, True)
    run("model", path, "--share", 0.99, "--json", tmp_path / "m.json")
    assert [one["node"] for one in json.loads((tmp_path / "m.json").read_text())["places"]] == [1, 2, 3, 4, 5, 6, 7, 8]


WISHES = {
    "another view": ((model(),), ("--seen-from", "corners"), "Did you mean 'corner'"),
    "half a view": ((model(),), ("--seen-from", "1,0"), "three numbers"),
    "no cluster": ((model(),), ("--cluster", "tcp://127.0.0.1:9"), "a running scheduler"),
    "no share": ((model(),), ("--share", 3), "share"),
    "no model": ((), (), "no model"),
    "no such set": ((model(),), ("--set", "fre"), "no set"),
    "no ending": ((model(),), ("--nodes", "nodes.doc"), "a file that ends in"),
    "no places": ((model(),), ("--most", 0), "one place or more"),
}


@pytest.mark.parametrize(("changes", "wishes", "message"), WISHES.values(), ids=WISHES)
def test_wishes_that_cannot_be_met_are_named(study, run, changes, wishes, message):
    code, out, err = run("model", study(*changes), *wishes)
    assert (code, out) == (2, "")
    assert message in " ".join(err.split())


def test_check_counts_the_nodes_of_a_model(study, run):
    code, out, _ = run("check", study(model()))
    assert code == 0
    assert "with the command model the lives of 3 nodes." in " ".join(out.split())


def test_reserve_neighbours_and_up_are_as_chosen(run, study, tmp_path):
    path = study(model())
    result = run_model(read_study(path))
    by_mesh = hottest_places(result)
    for kind in ("stress", "life", "none"):
        code, out, _ = run("model", path, "--reserve", kind, "--json", tmp_path / f"{kind}.json")
        places = json.loads((tmp_path / f"{kind}.json").read_text())["places"]
        assert code == 0
        assert [one["node"] for one in places] == [one.node for one in by_mesh]
        assert (f"on {kind}" in out) == (kind != "none")
        assert [key for key in places[0] if key.startswith("reserve")] == (
            [] if kind == "none" else [f"reserve on {kind}"]
        )
    assert json.loads((tmp_path / "life.json").read_text())["places"][0]["reserve on life"] == pytest.approx(
        1.0 / by_mesh[0].used_at_target
    )
    code, _, errors = run("model", path, "--reserve", "load")
    assert (code, "'load'" in errors) == (2, True)
    lying = study(model("material", 'up = "z"\nmaterial'))
    assert read_study(lying).model.up == "z"
    with pytest.raises(InputError, match="up"):
        read_study(study(model("material", 'up = "w"\nmaterial')))
