"""The command on strain-life curves: stated, on cards, estimated, fitted; what it writes, and what it refuses."""

import json
from pathlib import Path

import pytest

from tests.by_hand import by_hand

pytestmark = pytest.mark.slow

WAYS = {
    "study": ("suspension_pin.toml",),
    "curve of a study": ("suspension_pin.toml#pin",),
    "card": ("card:titanium-6al-4v",),
    "curve of a card": ("card:structural-steel-355/smooth",),
    "tests": ("pin_strain_tests.csv", "--youngs-modulus", "206 GPa"),
    "uniform material law": ("estimate:uniform material law", "--strength", "780 MPa", "--group", "aluminium"),
    "medians": ("estimate:medians", "--strength", "780 MPa"),
    "hardness": ("estimate:hardness", "--hardness", "230", "--youngs-modulus", "206 GPa"),
    "universal slopes": (
        *("estimate:universal slopes", "--strength", "780 MPa", "--fracture-strain", "85 %", "--form", "modified"),
    ),
    "several": ("card:structural-steel-355", "card:tempered-steel-800"),
}


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("way", WAYS)
def test_a_curve_is_shown_and_written_however_it_is_named(demo_file, run, tmp_path, monkeypatch, way, units):
    monkeypatch.chdir(demo_file.parent)
    files = ["--json", tmp_path / "a.json", "--csv", tmp_path / "a.csv", "--figures", tmp_path / "figures"]
    code, out, err = run("strain-life", *WAYS[way], *files, "--units", units)
    assert code == 0, err
    assert "Transition" in out
    assert "None" not in out
    record = json.loads((tmp_path / "a.json").read_text())
    assert record["curves"][0]["transition life [cycles]"] > 0.0
    assert (tmp_path / "a.csv").read_text().count("\n") == 1 + 7 * len(record["curves"])
    assert len(list((tmp_path / "figures").glob("*.png"))) == len(record["curves"]) + len(record["fits"])


def test_one_amplitude_is_worked_out_and_every_line_can_be_redone(demo_file, run, monkeypatch):
    monkeypatch.chdir(demo_file.parent)
    code, out, err = run("strain-life", "card:structural-steel-355", "--at", "0.3 %")
    assert code == 0, err
    assert "n' = b / c" in out
    lines = [line.strip().removeprefix("= ") for line in out.split("1. Cyclic hardening")[1].splitlines()]
    numbers = [one for one in lines if one[:1].isdigit() or one.startswith("(-")]
    values = [by_hand(one.replace("MPa", "").strip()) for one in numbers if ". " not in one]
    pairs = list(zip(values[0::2], values[1::2], strict=True))
    assert len(pairs) == 5
    for put_in, value in pairs:
        assert put_in == pytest.approx(value, rel=1e-4)


def test_another_survival_shortens_all_lives(demo_file, run, tmp_path, monkeypatch):
    monkeypatch.chdir(demo_file.parent)
    lives = []
    for survival in ("0.5", "0.99"):
        asked = ("card:structural-steel-355", "--at", "0.3 %", "--survival", survival, "--json", tmp_path / "a.json")
        assert run("strain-life", *asked)[0] == 0
        lives.append(json.loads((tmp_path / "a.json").read_text())["strain lives"][0]["life [cycles]"])
    assert lives[1] < 0.5 * lives[0]


@pytest.mark.parametrize(
    ("asked", "said"),
    [
        (("pin_strain_tests.csv",), "--youngs-modulus: found nothing"),
        (("pin_strain_tests.csv", "--youngs-modulus", "206"), "without a unit"),
        (("pin_strain_tests.csv", "--youngs-modulus", "20 GPa"), "Check E"),
        (("tube_tests.csv", "--youngs-modulus", "206 GPa"), "strain amplitude"),
        (("estimate:median", "--strength", "780 MPa"), "one of 'uniform material law'"),
        (("estimate:medians",), "ultimate_strength: found nothing"),
        (("card:grey-iron-250",), "no strain-life curve"),
        (("larkfell.toml",), "at least one under strain_life_curves"),
        (("suspension_pin.toml#pim",), "Did you mean 'pin'"),
        (("pin",), "or a file of tests"),
        (("card:structural-steel-355", "--at", "0.3"), "without a unit"),
        (("card:structural-steel-355", "--at", "-0.3 %"), "above 0"),
    ],
)
def test_slips_are_told(demo_file, run, monkeypatch, asked, said):
    monkeypatch.chdir(demo_file.parent)
    code, out, err = run("strain-life", *asked)
    assert (code, out) == (2, "")
    assert said in " ".join(err.split())


def test_a_demo_study_that_yields_is_answered_by_every_command(demo_file, run, tmp_path, monkeypatch):
    monkeypatch.chdir(demo_file.parent)
    study = "suspension_pin.toml"
    hole = "grease hole in the bore"
    for command, *more in (
        ["check"],
        ["life", "--figures", tmp_path / "life", "--page", tmp_path / "a.html"],
        ["explain", "--spot", hole],
        ["solve", "--spot", hole],
        ["places", "--figures", tmp_path / "places"],
        ["what-if", "methods/where_it_yields/notch_rule", "energy density"],
        ["what-if", "duty_cycle/between", "each by itself"],
        ["report", tmp_path / "pin.html"],
    ):
        code, _, err = run(command, study, *more)
        assert code == 0, (command, err)
    assert "local strain" in Path(tmp_path / "pin.html").read_text()
