"""Fields from files and results into files: what is written reads back equal; what is damaged or does not fit is named."""

import dataclasses

import meshio
import numpy as np
import pandas as pd
import pytest

from tests.fields.models import LOADS, duty_of, field_of, spot
from vivid_anvil.errors import InputError
from vivid_anvil.fields import (
    Elements,
    assess_model,
    read_field_hdf5,
    read_field_table,
    read_frd,
    read_mesh,
    von_mises,
    write_field_hdf5,
    write_field_table,
    write_results,
)

HEAD = "hanger_head.frd"


@pytest.fixture(scope="module")
def head(demo_folder):
    return read_frd(demo_folder / HEAD, stress_unit="MPa", length_unit="mm", cases=["vertical", "lateral"])


@pytest.fixture(scope="module")
def demo_folder():
    from importlib.resources import files
    from pathlib import Path

    return Path(str(files("vivid_anvil.demo") / "data"))


def test_the_hanger_head_stands_in_its_result_file(head):
    """The pin's force goes through the shank: mean stress over its section; more than three times that beside the bore."""
    assert 3000 < head.size < 20000
    assert [one.kind for one in head.elements] == ["tetra10"]
    assert head.elements[0].nodes.max() < head.size
    middle = (np.abs(head.coordinates[:, 1] + 80.0) < 3.0).nonzero()[0]
    pulled = head.of_case("vertical")
    assert pulled[middle, 1].mean() == pytest.approx(10e3 / (36.0 * 8.0), rel=0.02)
    worst = von_mises(pulled).argmax()
    assert np.hypot(*head.coordinates[worst, :2]) == pytest.approx(14.0, abs=0.1)
    assert 3.0 < von_mises(pulled)[worst] / (10e3 / (36.0 * 8.0)) < 6.0
    bent = head.of_case("lateral")[middle]
    lever = 2e3 * 80.0 / (8.0 * 36.0**3 / 12.0)  # bending about z, at x from the middle
    x = head.coordinates[middle, 0]
    assert np.polyfit(x, bent[:, 1], 1)[0] == pytest.approx(-lever, rel=0.03)


def test_units_of_a_result_file_are_stated(demo_folder, head):
    pascal = read_frd(demo_folder / HEAD, stress_unit="kPa", length_unit="m")
    assert pascal.cases == ("step 1", "step 2")
    assert pascal.stresses == pytest.approx(head.stresses / 1000.0)
    assert pascal.coordinates == pytest.approx(head.coordinates * 1000.0)


def cut(text, where):
    return text[: text.index(where)]


FRD = {
    "cut off": (lambda text: cut(text, "9999"), "an end in the middle"),
    "cut in a block": (lambda text: text[:400_000] + "\n 9999\n", "values|without end"),
    "no stresses": (lambda text: text.replace("STRESS", "DISPLC"), "no nodal stresses"),
    "no nodes": (lambda text: cut(text, "    2C") + " 9999\n", "no block of nodes"),
    "not a number": (lambda text: text.replace(" -1         1", " -1        1x", 1), "invalid literal|numbers"),
    "another kind": (lambda _: "<xml/>", "no such text"),
}


@pytest.mark.parametrize(("change", "message"), FRD.values(), ids=FRD)
def test_a_damaged_result_file_is_named(demo_folder, tmp_path, change, message):
    path = tmp_path / "bad.frd"
    path.write_text(change((demo_folder / HEAD).read_text()))
    with pytest.raises(InputError, match=message):
        read_frd(path, stress_unit="MPa", length_unit="mm")


def test_names_of_cases_are_as_many_as_steps(demo_folder):
    with pytest.raises(InputError, match="2 steps"):
        read_frd(demo_folder / HEAD, stress_unit="MPa", length_unit="mm", cases=["a", "b", "c"])


@pytest.mark.parametrize("name", ["field.csv", "field.parquet", "field.h5"])
def test_a_field_written_reads_back_equal(tmp_path, name):
    field = field_of(40)
    write = write_field_hdf5 if name.endswith("h5") else write_field_table
    read = read_field_hdf5 if name.endswith("h5") else read_field_table
    found = read(write(field, tmp_path / name))
    assert found.cases == field.cases
    assert (found.node_ids == field.node_ids).all()
    assert found.stresses == pytest.approx(field.stresses, rel=1e-15)
    assert found.coordinates == pytest.approx(field.coordinates, rel=1e-15)


def test_a_table_in_other_units_and_order_is_the_same_field(tmp_path):
    field = field_of(15)
    frame = pd.read_csv(write_field_table(field, tmp_path / "a.csv")).sample(frac=1.0, random_state=3)
    for column in [one for one in frame if "[MPa]" in one]:
        frame[column.replace("MPa", "psi")] = frame.pop(column) / 6.894757293168361e-3
    frame.to_csv(tmp_path / "b.csv", index=False)
    found = read_field_table(tmp_path / "b.csv")
    for name in field.cases:
        own = {int(node): row for node, row in zip(found.node_ids, found.of_case(name), strict=True)}
        assert np.array([own[int(node)] for node in field.node_ids]) == pytest.approx(field.of_case(name), rel=1e-9)


TABLES = {
    "no zz": (lambda frame: frame.drop(columns="zz [MPa]"), "zeros where the stress is plane"),
    "no unit": (lambda frame: frame.rename(columns={"xx [MPa]": "xx"}), "no unit"),
    "in metres of force": (lambda frame: frame.rename(columns={"xx [MPa]": "xx [kN]"}), "kN"),
    "a hole": (lambda frame: frame.assign(**{"xy [MPa]": [None, *frame["xy [MPa]"][1:]]}), "an empty cell"),
    "other nodes": (lambda frame: frame.drop(index=3), "the same nodes"),
}


@pytest.mark.parametrize(("change", "message"), TABLES.values(), ids=TABLES)
def test_a_table_that_lacks_something_is_named(tmp_path, change, message):
    frame = pd.read_csv(write_field_table(field_of(8), tmp_path / "a.csv"))
    change(frame).to_csv(tmp_path / "b.csv", index=False)
    with pytest.raises(InputError, match=message):
        read_field_table(tmp_path / "b.csv")


def test_a_file_that_is_cut_off_is_named(tmp_path):
    for name, write, read in (
        ("a.h5", write_field_hdf5, read_field_hdf5),
        ("a.parquet", write_field_table, read_field_table),
    ):
        path = write(field_of(8), tmp_path / name)
        path.write_bytes(path.read_bytes()[:300])
        with pytest.raises(InputError, match="cannot be read"):
            read(path)


def boxes():
    """Two hexahedra side by side, twelve points."""
    points = np.array([[x, y, z] for z in (0.0, 1.0) for y in (0.0, 1.0) for x in (0.0, 1.0, 2.0)])
    cells = np.array([[0, 1, 4, 3, 6, 7, 10, 9], [1, 2, 5, 4, 7, 8, 11, 10]])
    return points, cells


@pytest.mark.parametrize("components", [6, 9])
@pytest.mark.parametrize("ending", ["vtu", "vtk"])
def test_a_mesh_gives_point_data_and_cell_data_averaged_at_nodes(tmp_path, ending, components):
    points, cells = boxes()
    rng = np.random.default_rng(4)
    six, two = rng.normal(0.0, 50.0, (12, 6)), np.array([[100.0, 0, 0, 0, 0, 0], [60.0, 0, 0, 0, 0, 0]])
    if components == 9:
        six_or_nine, cell = six[:, [0, 3, 5, 3, 1, 4, 5, 4, 2]], two[:, [0, 3, 5, 3, 1, 4, 5, 4, 2]]
    else:
        six_or_nine, cell = six, two
    path = tmp_path / f"box.{ending}"
    meshio.Mesh(points, [("hexahedron", cells)], {"pull": six_or_nine}, {"push": [cell]}).write(path)
    field = read_mesh(path, stress_unit="MPa", length_unit="m", cases={"vertical": "pull", "lateral": "push"})
    assert field.of_case("vertical") == pytest.approx(six)
    assert field.of_case("lateral")[:, 0].tolist() == [100.0, 80.0, 60.0] * 4
    assert field.spread == pytest.approx([0.0, 0.2, 0.0] * 4)
    assert field.coordinates == pytest.approx(points * 1000.0)
    assert (field.elements[0].nodes == cells).all()


def test_another_order_of_components_and_missing_data_are_told(tmp_path):
    points, cells = boxes()
    values = np.arange(72.0).reshape(12, 6)
    path = tmp_path / "box.vtu"
    data = {"pull": values, "plane": values[:, :4]}
    meshio.Mesh(points, [("hexahedron", cells)], data).write(path)
    given = {"stress_unit": "MPa", "length_unit": "mm"}
    other = read_mesh(path, cases=["pull"], order="xx, yy, zz, xy, xz, yz", **given)
    assert other.of_case("pull")[:, 4:] == pytest.approx(values[:, [5, 4]])
    for cases, message in ((["pul"], "Did you mean 'pull'"), (["plane"], "zeros for zz")):
        with pytest.raises(InputError, match=message):
            read_mesh(path, cases=cases, **given)
    path.write_bytes(path.read_bytes()[:200])
    with pytest.raises(InputError, match="cannot be read"):
        read_mesh(path, cases=["pull"], **given)
    (tmp_path / "box.xyzzy").write_text("nothing")
    with pytest.raises(InputError, match="cannot be read"):
        read_mesh(tmp_path / "box.xyzzy", cases=["pull"], **given)


@pytest.mark.parametrize("ending", ["vtu", "csv", "parquet"])
def test_results_go_back_to_a_viewer_and_into_tables(tmp_path, ending):
    points, cells = boxes()
    field = field_of(12, coordinates=points, elements=[Elements("hexahedron", cells, np.array([1, 2]))])
    result = assess_model(field, LOADS, duty_of(), spot())
    path = write_results(result, tmp_path / f"life.{ending}")
    if ending == "vtu":
        mesh = meshio.read(path)
        assert (mesh.cells[0].data == cells).all()
        assert mesh.point_data["damage per repeat"] == pytest.approx(result.damage_per_repeat)
        assert 10.0 ** mesh.point_data["log10 life in years"] == pytest.approx(result.life_years)
        bare = dataclasses.replace(result, field=dataclasses.replace(field, elements=()))
        assert meshio.read(write_results(bare, tmp_path / "points.vtu")).cells[0].type == "vertex"
    else:
        frame = pd.read_csv(path) if ending == "csv" else pd.read_parquet(path)
        assert frame["damage per repeat"].to_numpy() == pytest.approx(result.damage_per_repeat)
        assert frame["node"].tolist() == field.node_ids.tolist()
        assert set(frame["worst event"]) <= {"lap", "stop"}


def test_nothing_is_left_half_written(tmp_path):
    result = assess_model(field_of(12), LOADS, duty_of(), spot())
    for name in ("life.xls", "none/life.csv"):
        with pytest.raises(InputError):
            write_results(result, tmp_path / name)
    broken = dataclasses.replace(
        result, field=dataclasses.replace(result.field, elements=[Elements("hexahedron", None, None)])
    )
    with pytest.raises(Exception):  # noqa: B017 (whatever the writer meets)
        write_results(broken, tmp_path / "life.vtu")
    assert list(tmp_path.iterdir()) == []
