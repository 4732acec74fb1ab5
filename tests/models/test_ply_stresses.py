"""Stresses of plies of a model: the forces and moments that they are the stresses of."""

import numpy as np
import pandas as pd
import pytest

import vivid_anvil as va

HEADS = [
    "load case",
    "element",
    "node",
    "x [mm]",
    "y [mm]",
    "z [mm]",
    "ply",
    "face",
    "s1 [MPa]",
    "s2 [MPa]",
    "t12 [MPa]",
]
PLY = va.read_card_named("glass-epoxy-ply").ply_there


def laminate(layup="[0/±45/90_2/30]"):
    return va.Laminate(name="shell", layup=layup, ply=PLY, ply_thickness=0.4, temperature_change=-80.0)


def rows_of(loads, own=None, faces=None):
    """Rows of all plies, or of some faces, of loads of two cases at two nodes of two elements."""
    own, rows = own or laminate(), []
    per_load = own.full.per_load  # of the load alone
    for case in range(2):
        for place, (element, node) in enumerate([(1, 10), (1, 11), (2, 11)]):
            stresses = per_load @ loads[case, place]
            for ply, face in faces or [(p, f) for p in range(len(own.laid)) for f in range(2)]:
                where = [f"case {case}", element, node, 5.0 * node, 0.0, 1.0]
                rows.append([*where, ply + 1, ("lower", "upper")[face], *stresses[ply, face]])
    return pd.DataFrame(rows, columns=HEADS)


LOADS = np.random.default_rng(3).normal(0.0, 50.0, (2, 3, 6))


@pytest.mark.parametrize("faces", [None, [(0, 0), (5, 1)], [(5, 1), (2, 0), (0, 0), (2, 1)]])
def test_the_loads_come_back_whatever_faces_are_told(tmp_path, faces):
    table = rows_of(LOADS, faces=faces).sample(frac=1.0, random_state=1)
    table.to_csv(tmp_path / "plies.csv", index=False)
    field = va.read_ply_stresses(tmp_path / "plies.csv", laminate())
    assert field.dimension == "section loads"
    assert sorted(field.cases) == ["case 0", "case 1"]
    for case in range(2):
        found = {
            (int(element), int(field.node_ids[owner])): row
            for element, owner, row in zip(
                field.rows.elements, field.owners, field.assessed(f"case {case}"), strict=True
            )
        }
        for place, key in enumerate([(1, 10), (1, 11), (2, 11)]):
            assert found[key] == pytest.approx(LOADS[case, place], rel=1e-9, abs=1e-9)


def test_units_of_the_heads_are_read_and_small_noise_is_borne(tmp_path):
    table = rows_of(LOADS)
    table[HEADS[8:]] *= 1.0 + 1e-4 * np.random.default_rng(1).normal(size=(len(table), 3))
    table[HEADS[8:]] /= 6.894757293168361
    table = table.rename(columns={one: one.replace("MPa", "ksi") for one in HEADS[8:]})
    table.to_csv(tmp_path / "plies.csv", index=False)
    field = va.read_ply_stresses(tmp_path / "plies.csv", laminate())
    assert field.assessed("case 0")[0] == pytest.approx(LOADS[0, 0], rel=2e-2, abs=0.5)


def changed(**columns):
    return lambda table: table.assign(**columns)


SLIPS = {
    "another layup": (lambda table: rows_of(LOADS, laminate("[90/±45/0_2/30]")), "off those of any straight strains"),
    "plies from the top": (lambda table: table.assign(ply=7 - table["ply"]), "order of the plies"),
    "a ply too many": (changed(ply=7), "a ply from 1 at the bottom to 6"),
    "a face of another name": (changed(face="top"), "'lower', 'upper'"),
    "one height": (lambda table: table[(table.ply == 1) & (table.face == "upper")], "two heights at least"),
    "one height of two plies": (
        lambda table: table[
            ((table.ply == 1) & (table.face == "upper")) | ((table.ply == 2) & (table.face == "lower"))
        ],
        "two heights at least",
    ),
    "a face twice": (lambda table: pd.concat([table, table.iloc[:1]]), "each face once"),
    "no unit": (lambda table: table.rename(columns={"s2 [MPa]": "s2"}), "no unit"),
    "a unit of strain": (lambda table: table.rename(columns={"s1 [MPa]": "s1 [mm]"}), "column 's1 \\[mm\\]'"),
    "no ply": (lambda table: table.drop(columns="ply"), "no column 'ply'"),
    "no coordinates": (lambda table: table.drop(columns="y [mm]"), "no column 'y'"),
}


@pytest.mark.parametrize("slip", SLIPS)
def test_a_slip_is_named(tmp_path, slip):
    change, message = SLIPS[slip]
    change(rows_of(LOADS)).to_csv(tmp_path / "plies.csv", index=False)
    with pytest.raises(va.InputError, match=message):
        va.read_ply_stresses(tmp_path / "plies.csv", laminate())


def test_a_laminate_is_asked_for(tmp_path):
    rows_of(LOADS).to_csv(tmp_path / "plies.csv", index=False)
    with pytest.raises(va.InputError, match="a Laminate"):
        va.read_ply_stresses(tmp_path / "plies.csv", "[0/90]s")


STUDY = """
[plies.glass]
card = "glass-epoxy-ply"

[laminates.shell]
layup = "[0/±45/90_2/30]"
ply = "glass"
ply_thickness = "0.4 mm"
temperature_change = "-80 K"

[methods.plies]
kind = "ply fatigue"
laminate = "shell"

[duty_cycle]
repeat = "shift"

[[duty_cycle.events]]
name = "pull"
channel = "force"
range = "8 kN"
r_ratio = 0.1
cycles = 100

[model]
method = "plies"
FILE
load_cases = [{ case = "case 0", channel = "force", unit_load = "10 kN" }]
ignore_cases = ["case 1"]
"""


def written(folder, line):
    path = folder / "study.toml"
    path.write_text('format = 2\ntitle = "shell"\n' + STUDY.replace("FILE", line))
    return path


def test_a_study_of_stresses_of_plies_is_that_of_their_loads(tmp_path):
    table = rows_of(LOADS)
    table.to_csv(tmp_path / "plies.csv", index=False)
    kept = table.drop_duplicates(HEADS[:3])[HEADS[:6]].reset_index(drop=True)
    heads = ["nx [N/mm]", "ny [N/mm]", "nxy [N/mm]", "mx [N*mm/mm]", "my [N*mm/mm]", "mxy [N*mm/mm]"]
    pd.concat([kept, pd.DataFrame(LOADS.reshape(-1, 6), columns=heads)], axis=1).to_csv(
        tmp_path / "loads.csv", index=False
    )
    one = va.run_model(va.read_study(written(tmp_path, 'section_loads = "loads.csv"')))
    other = va.run_model(va.read_study(written(tmp_path, 'ply_stresses = "plies.csv"')))
    assert other.damage_per_repeat.max() > 0.0
    assert other.damage_per_repeat == pytest.approx(one.damage_per_repeat, rel=1e-7)
