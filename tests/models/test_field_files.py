"""Fields from files and results into files: what is written reads back equal; what is damaged or does not fit is named."""

import dataclasses

import meshio
import numpy as np
import pandas as pd
import pytest

from tests.fields.models import LOADS, boxes, duty_of, field_of, rows_of, spot
from vivid_anvil.fields import assess_model, write_results
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import (
    Elements,
    averaged,
    of_face,
    read_field,
    read_field_hdf5,
    read_field_table,
    read_frd,
    read_mesh,
    von_mises,
    with_sets,
    write_field_hdf5,
    write_field_table,
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


@pytest.mark.slow
def test_units_of_a_result_file_are_stated(demo_folder, head):
    pascal = read_frd(demo_folder / HEAD, stress_unit="kPa", length_unit="m")
    assert pascal.cases == ("step 1", "step 2")
    assert pascal.stresses == pytest.approx(head.stresses / 1000.0)
    assert pascal.coordinates == pytest.approx(head.coordinates * 1000.0)


def test_materials_of_a_result_file_make_sets(demo_folder, tmp_path):
    lines = (demo_folder / HEAD).read_text().splitlines()
    start = next(i for i, line in enumerate(lines) if line.startswith("    3C"))
    for i in (start + 1, start + 3):  # a line of the element, one of its nodes
        assert lines[i].startswith(" -1")
        lines[i] = lines[i][:23] + "    2" + lines[i][28:]
    (tmp_path / "two.frd").write_text("\n".join(lines) + "\n")
    found = read_frd(tmp_path / "two.frd", stress_unit="MPa", length_unit="mm")
    names = sorted(found.element_sets)
    assert len(names) == 2
    assert found.element_sets["material 2"].tolist() == [int(lines[i][3:13]) for i in (start + 1, start + 3)]
    assert 10 < found.node_sets["material 2"].size <= 20
    assert found.node_sets[names[0]].size > 7000


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
    given = {"stress_unit": "MPa", "length_unit": "m"}
    field = read_mesh(path, cases={"vertical": "pull"}, **given)
    assert field.of_case("vertical") == pytest.approx(six)
    assert field.rows is None
    assert field.coordinates == pytest.approx(points * 1000.0)
    assert (field.elements[0].nodes == cells).all()
    each = read_mesh(path, cases={"lateral": "push"}, **given)
    assert sorted(each.assessed("lateral")[:, 0]) == [60.0] * 8 + [100.0] * 8
    for mean in (averaged(each), read_field(path, cases=["push"], element_values="averaged", **given)):
        assert mean.stresses[0, :, 0].tolist() == [100.0, 80.0, 60.0] * 4
        assert mean.spread == pytest.approx([0.0, 0.2, 0.0] * 4)
        assert mean.rows is None
    assert read_field(path, cases=["push"], **given).rows.elements.max() == 2
    with pytest.raises(InputError, match="the same in all"):
        read_mesh(path, cases=["pull", "push"], **given)


def test_faces_of_shells_and_sets_of_a_mesh(tmp_path):
    points, cells = boxes()
    rng = np.random.default_rng(4)
    top, bottom = rng.normal(0.0, 50.0, (2, 12, 6))
    path, given = tmp_path / "shell.vtu", {"stress_unit": "MPa", "length_unit": "mm"}
    data, numbers = {"S top": top, "S bottom": bottom}, {"material": [np.array([4, 7])]}
    meshio.Mesh(points, [("hexahedron", cells)], data, numbers).write(path)
    cases = {"pull": {"top": "S top", "bottom": "S bottom"}}
    both = read_field(path, cases=cases, **given)
    assert sorted(both.node_sets) == ["material 4", "material 7"]
    assert both.element_sets["material 7"].tolist() == [2]
    assert both.node_sets["material 4"].tolist() == sorted(cells[0])
    assert read_field(path, cases=cases, face="bottom", **given).of_case("pull") == pytest.approx(bottom)
    for wrong, message in (({"pull": {"tops": "S top"}}, "Did you mean 'top'"), ({"pull": {}}, "no faces")):
        with pytest.raises(InputError, match=message):
            read_field(path, cases=wrong, **given)
    with pytest.raises(InputError, match="'middle', expected 'bottom', 'top'"):
        read_field(path, cases=cases, face="middle", **given)


@pytest.mark.parametrize("of", ["points", "cells"])
def test_a_shell_of_a_mesh_comes_as_forces_and_moments(tmp_path, of):
    points, _ = boxes()
    quads = np.array([[0, 1, 4, 3], [1, 2, 5, 4]])
    size = len(points) if of == "points" else 2
    rng = np.random.default_rng(4)
    forces, moments, thickness = rng.normal(0, 200, (size, 3)), rng.normal(0, 300, (size, 3)), rng.uniform(4, 9, size)
    data = {"N": forces, "M": moments, "t": thickness / 25.4}
    cell = {name: [values] for name, values in data.items()} if of == "cells" else {}
    path, given = tmp_path / "shell.vtu", {"stress_unit": "MPa", "length_unit": "mm"}
    meshio.Mesh(points, [("quad", quads)], data if of == "points" else {}, cell).write(path)
    names = {"forces": "N [kN/m]", "moments": "M [N]", "thickness": "t [in]"}
    top = read_field(path, cases={"pull": names}, element_values="each element", face="top", **given)
    by_hand = forces / thickness[:, None] + 6.0 * moments / thickness[:, None] ** 2
    found = top.assessed("pull")[:, [0, 1, 3]]
    if of == "points":
        assert found == pytest.approx(by_hand)
    else:
        assert found == pytest.approx(by_hand[top.rows.elements - 1])
        assert top.size == 6
    for change, message in (
        ({"forces": "N"}, "a unit beside the name"),
        ({"forces": "N [MPa]"}, "force per length"),
        ({"forces": "t [N/mm]"}, "1 components, expected 3: xx, yy, xy"),
        ({"moments": "Q [N]"}, "'M'"),
    ):
        with pytest.raises(InputError, match=message):
            read_field(path, cases={"pull": {**names, **change}}, **given)
    with pytest.raises(InputError, match="all of 'forces', 'moments', 'thickness'"):
        read_field(path, cases={"pull": {"forces": "N [N/mm]"}}, **given)


DECK = """*NODE, NSET=ALL
11, 0., 0., 0.
12, 1., 0., 0.
** a comment
*ELEMENT, TYPE=C3D20, ELSET=Upper
1, 11, 12, 13, 14, 15,
16, 17, 18
*NSET, NSET=toe
11, 13
*Nset, nset=TOE
15,
*NSET, NSET=row, GENERATE
12, 18, 2
*NSET, NSET=both
toe, 12
*ELSET, ELSET=hard
2,
*STEP
"""


def test_sets_of_elements_of_a_deck_hold_for_a_field_without_elements(tmp_path):
    """Stresses from a table: the deck itself says which nodes its elements have."""
    elements = "7, 10, 11, 12, 13,\n14, 15, 16, 17\n8, 18, 19, 20, 21, 22, 23, 24, 25\n"
    deck = f"*NODE\n1, 0, 0, 0\n*ELEMENT, TYPE=C3D8, ELSET=plate\n{elements}*ELSET, ELSET=seam\n8\n"
    (tmp_path / "part.inp").write_text(deck)
    field = field_of(30, node_ids=np.arange(30) + 5)
    made = with_sets(field, tmp_path / "part.inp")
    assert made.node_ids[made.node_sets["seam"]].tolist() == list(range(18, 26))
    assert made.node_ids[made.node_sets["plate"]].tolist() == list(range(10, 26))
    few = made.part(np.array([0, 7, 15, 16]))
    assert few.node_ids[few.node_sets["seam"]].tolist() == [20, 21]
    assert set(made.part(np.array([0, 7])).node_sets) == {"plate"}  # a set without nodes there is none


def test_sets_come_from_the_deck_or_a_table(tmp_path):
    points, cells = boxes()
    elements = [Elements("hexahedron", cells, np.array([1, 2]))]
    field = field_of(12, node_ids=np.arange(12) + 11, coordinates=points, elements=elements)
    (tmp_path / "head.inp").write_text(DECK)
    found = with_sets(field, tmp_path / "head.inp")
    names = {name: (found.node_ids[places]).tolist() for name, places in found.node_sets.items()}
    assert names["ALL"] == [11, 12]
    assert names["toe"] == [11, 13, 15]
    assert names["row"] == [12, 14, 16, 18]
    assert names["both"] == [11, 12, 13, 15]
    assert names["hard"] == sorted(cells[1] + 11)
    assert found.element_sets["Upper"].tolist() == [1]
    (tmp_path / "sets.csv").write_text("node,set\n11,weld\n13,weld\n20,edge\n")
    by_table = with_sets(field, tmp_path / "sets.csv")
    assert by_table.node_sets["weld"].tolist() == [0, 2]
    for text, message in (
        (DECK.replace("toe, 12", "toes, 12"), "line 15"),
        ("*STEP\n", "no sets"),
        ("*NSET, NSET=far\n99,\n", "no node of arrays"),
    ):
        (tmp_path / "wrong.inp").write_text(text)
        with pytest.raises(InputError, match=message):
            with_sets(field, tmp_path / "wrong.inp")
    with pytest.raises(InputError, match="there already"):
        with_sets(found, tmp_path / "head.inp")
    (tmp_path / "sets.csv").write_text("nodes,set\n11,weld\n13,weld\n")
    with pytest.raises(InputError, match="node or element, and set"):
        with_sets(field, tmp_path / "sets.csv")


@pytest.mark.parametrize("ending", ["csv", "parquet", "h5"])
def test_elements_and_faces_are_written_and_read_back(tmp_path, ending):
    field = rows_of(9)
    field = dataclasses.replace(field, element_sets={"hard": np.array([2])})
    path = tmp_path / f"rows.{ending}"
    (write_field_hdf5 if ending == "h5" else write_field_table)(field, path)
    back = read_field(path, stress_unit=None, length_unit=None, element_values="each element")
    ours, theirs = (assess_model(one, LOADS, duty_of(), spot()) for one in (field, back))
    assert ours.damage_per_repeat == pytest.approx(theirs.damage_per_repeat, rel=1e-12)
    assert ours.chosen == theirs.chosen
    if ending == "h5":
        assert back.element_sets["hard"].tolist() == [2]
        assert back.node_sets["all of them"].tolist() == list(range(9))


def test_a_shell_comes_as_forces_and_moments(tmp_path):
    rows = "7,0,0,0,10,200,-50,30,400,120,-80,edge\n8,5,0,0,5,100,0,0,0,0,0,\n"
    heads = (
        "node,x [mm],y [mm],z [mm],thickness [mm],nxx [N/mm],nyy [N/mm],nxy [N/mm],mxx [N],myy [N*mm/mm],mxy [N],set\n"
    )
    (tmp_path / "shell.csv").write_text(heads + rows)
    field = read_field_table(tmp_path / "shell.csv")
    assert of_face(field, "top").stresses[0, 0].tolist() == pytest.approx([44.0, 2.2, 0.0, -1.8, 0.0, 0.0])
    assert of_face(field, "bottom").stresses[0, 0].tolist() == pytest.approx([-4.0, -12.2, 0.0, 7.8, 0.0, 0.0])
    assert field.node_sets["edge"].tolist() == [0]
    (tmp_path / "shell.csv").write_text((heads + rows).replace("nxx [N/mm]", "nxx [N]"))
    with pytest.raises(InputError, match="nxx"):
        read_field_table(tmp_path / "shell.csv")


TABLE = "node,x [mm],y [mm],z [mm],xx [MPa],yy [MPa],zz [MPa],xy [MPa],yz [MPa],zx [MPa],element,face,load case\n"
ROWS = "1,0,0,0,9,0,0,0,0,0,1,top,a\n1,0,0,0,8,0,0,0,0,0,1,bottom,a\n"
TABLES = {
    "half an element": (ROWS.replace(",1,top", ",1.5,top"), "a whole number"),
    "another face": (ROWS.replace("bottom", "below"), "'below'"),
    "an element twice": (ROWS.replace("bottom", "top"), "an element twice"),
    "a node at two places": (ROWS.replace("1,0,0,0,8", "1,3,0,0,8"), "two places"),
    "a case elsewhere": (ROWS + ROWS.replace(",a", ",b").replace("1,0,0,0", "1,0,4,0"), "4 mm from its place"),
}


@pytest.mark.parametrize(("rows", "message"), TABLES.values(), ids=TABLES)
def test_a_table_that_contradicts_itself_is_named(tmp_path, rows, message):
    (tmp_path / "table.csv").write_text(TABLE + rows)
    with pytest.raises(InputError, match=message):
        read_field_table(tmp_path / "table.csv")


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
        assert 10.0 ** mesh.point_data["log10 life [years]"] == pytest.approx(result.life_years)
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
    with pytest.raises(Exception):  # noqa: B017
        write_results(broken, tmp_path / "life.vtu")
    assert list(tmp_path.iterdir()) == []
