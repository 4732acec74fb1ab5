"""The commands on curves, cards, classes, estimates and tests, as people run them."""

import csv
import json
import re
import tomllib

import numpy as np
import pytest

from vivid_anvil.materials import FIT_MODELS, detail_curve, fit_likelihood, read_specimens, stress_table
from vivid_anvil.study import read_study

pytestmark = pytest.mark.slow

STAIRS = "stress amplitude [MPa],life [cycles],run-out,r_ratio\n" + "".join(
    f"{stress},{1e7 if out else 1e6:g},{'yes' if out else 'no'},-1\n"
    for stress, out in [(250, 1), (260, 1), (270, 0), (260, 1), (270, 0), (260, 0), (250, 0), (240, 1), (250, 0), (240, 1),
                        (250, 1), (260, 0), (250, 0), (240, 0), (230, 1), (240, 1), (250, 1)]
)  # fmt: skip


def table(path):
    """The rows of a CSV file."""
    return list(csv.DictReader(path.read_text().splitlines()))


def flat(text):
    """Printed text on one line."""
    return " ".join(text.split())


def test_cards_are_listed_searched_and_shown(run, tmp_path):
    code, out, _ = run("cards", "--csv", tmp_path / "cards.csv", "--json", tmp_path / "cards.json")
    assert code == 0
    rows = table(tmp_path / "cards.csv")
    assert f"{len(rows)} cards" in out
    assert max(len(line) for line in out.splitlines() if not line.startswith("Written")) <= 80
    assert {row["basis"] for row in rows} == {"typical", "standard"}
    one, out, _ = run("cards", "titanium", "4v", "--units", "us", "--figures", tmp_path)
    assert one == 0
    assert "137.8 ksi" in out  # 950 MPa
    assert [path.name for path in tmp_path.glob("*.png")] == ["curve-titanium-6al-4v-smooth.png"]
    assert "Tearing law at 23 °C" in run("cards", "rubber")[1]


def test_a_folder_of_ones_own_cards_comes_first(run, tmp_path):
    (tmp_path / "ours.toml").write_text(
        'format = 1\nname = "our bar"\ngroup = "steel"\nbasis = "tests"\nsource = "report 3"\nyield_strength = "400 MPa"\n'
    )
    code, out, _ = run("cards", "our", "--cards", tmp_path)
    assert code == 0
    assert "report 3" in out


def test_classes_are_listed_and_shown(run, tmp_path):
    code, out, _ = run("classes")
    assert code == 0
    assert "EN 1993-1-9 (2005)" in out
    code, out, _ = run("classes", "IIW steel", "--csv", tmp_path / "classes.csv")
    assert code == 0
    assert "sea water" in out
    assert "0.3 cruciform" in flat(out)
    assert {row["component"] for row in table(tmp_path / "classes.csv")} == {"normal", "shear"}


def test_one_curve_is_shown_with_its_working_and_table(run, tmp_path):
    arguments = ["--at", "2e6,5e6", "--unit", "ksi", "--csv", tmp_path / "c.csv", "--toml", tmp_path / "c.toml"]
    code, out, _ = run("curve", "class:EN 1993-1-9/71", *arguments, "--json", tmp_path / "c.json")
    assert code == 0
    assert "71 MPa × (2e6 / 5e6)^(1 / 3)" in out
    (row, _) = table(tmp_path / "c.csv")
    assert float(row["EN 1993-1-9, 71: stress range, any R [ksi]"]) == pytest.approx(71 / 6.894757293168361)
    section = tomllib.loads((tmp_path / "c.toml").read_text())["sn_curves"]["en-1993-1-9-71"]
    assert section["points"][1][1] == 1e8
    assert json.loads((tmp_path / "c.json").read_text())["curves"][0]["below"] == "no damage"


def test_the_class_of_an_own_table_is_shown(run, tmp_path):
    (tmp_path / "house.toml").write_text(
        'format = 1\nstandard = "house"\nstress = "range"\nr_ratio = "any"\n[[curves]]\ncomponent = "normal"\n'
        'intercept_unit = "MPa"\nrows = [{ class = "D", log_a = [12.0, 16.0], slopes = [3, 5] }]\n'
    )
    code, out, _ = run("curve", f"class:{tmp_path}/house.toml/D")
    assert code == 0
    assert "m = 3 to 100 MPa at 1e6 cycles, m = 5 below" in flat(out)
    assert "Classes: D." in flat(run("classes", "--file", tmp_path / "house.toml")[1])


def test_a_family_of_a_study_is_drawn(run, demo_file, tmp_path):
    text = demo_file.read_text()
    family = (
        '[sn_curves.pulsating]\nstress = "amplitude"\nr_ratio = 0\npoint_stress = "120 MPa"\npoint_life = 1e6\nslope = 8\n'
        'survival_probability = 0.9\n\n[sn_families.pair]\ncurves = ["pin_bore", "pulsating"]\n\n[growth_laws'
    )
    study = demo_file.parent / "family.toml"
    study.write_text(text.replace("[growth_laws", family, 1))
    code, out, _ = run("curve", f"{study}#pair", "--figures", tmp_path)
    study.unlink()
    assert code == 0
    assert "Family pair: R = -1, R = 0" in out
    assert [path.name for path in tmp_path.iterdir()] == ["family-pair.png"]


def test_curves_of_a_study_are_compared(run, demo_file, tmp_path):
    code, out, _ = run("curve", demo_file, "class:IIW steel/71", "card:tempered-steel-800", "--figures", tmp_path / "f")
    assert code == 0
    for name in ("fillet_weld", "pin_bore", "tube", "IIW steel, 71", "tempered-steel-800, smooth"):
        assert name in out
    assert "estimated-curve" in out
    names = sorted(path.name for path in (tmp_path / "f").iterdir())
    assert "curves.png" in names
    assert len(names) == 6
    assert "pin_bore" in run("curve", f"{demo_file}#pin_bore", "--as", "range", "--units", "us")[1]


def test_a_curve_in_other_terms(run, tmp_path):
    code, _, _ = run(
        "curve", "card:structural-steel-355/smooth", "--survival", 0.977, "--r-ratio", 0, "--value", "510 MPa",
        "--as", "range", "--at", "1e6", "--csv", tmp_path / "c.csv",
    )  # fmt: skip
    assert code == 0
    ((head, value),) = [item for item in table(tmp_path / "c.csv")[0].items() if item[0] != "life [cycles]"]
    assert head.endswith("stress range, R = 0 [MPa]")
    # the knee moves from two million cycles to 634000, so that one million lies on the slope of 19
    reversed_amplitude = 205.0 * (2.0 * 10 ** (-0.25 * 1.9953933)) ** (1 / 19)
    assert float(value) == pytest.approx(2.0 * reversed_amplitude / (1.0 + reversed_amplitude / 510.0), rel=1e-6)


def test_an_estimate_lists_every_factor(run, tmp_path):
    code, out, _ = run(
        "estimate", "steel", "--strength", "690 MPa", "--surface", "machined or cold-drawn", "--size", "32 mm",
        "--below", "13", "--csv", tmp_path / "e.csv", "--json", tmp_path / "e.json", "--toml", tmp_path / "e.toml",
    )  # fmt: skip
    assert code == 0
    assert "4.51 × 690^(-0.265)" in out
    record = json.loads((tmp_path / "e.json").read_text())
    assert record["limit [MPa]"] == pytest.approx(235.54357665217336, rel=1e-9)  # reference case SL-B-steel-01
    assert record["curve"]["below"] == 13.0
    assert len(table(tmp_path / "e.csv")) == len(record["steps"])
    assert tomllib.loads((tmp_path / "e.toml").read_text())


def test_a_fit_compares_models_and_exports_the_curve(run, demo_file, tmp_path):
    tests = demo_file.parent / "tube_tests.csv"
    code, out, _ = run(
        "fit", tests, "--json", tmp_path / "f.json", "--csv", tmp_path / "f.csv", "--toml", tmp_path / "f.toml",
        "--figures", tmp_path,
    )  # fmt: skip
    assert code == 0
    assert "34 specimens, 9 run-outs" in flat(out)
    record = json.loads((tmp_path / "f.json").read_text())
    assert record["model"] == "random limit" == record["models"][0]["model"]
    assert len(table(tmp_path / "f.csv")) == 7
    assert (tmp_path / "fit-tube_tests.png").exists()
    points = tomllib.loads((tmp_path / "f.toml").read_text())["sn_curves"]["tube_tests-random-limit"]["points"]
    study = read_study(demo_file).curves["tube"]
    assert [life for _, life in points] == pytest.approx([life for _, life in study.points], rel=1e-9)
    code, out, _ = run("fit", tests, "--model", "line", "--units", "us")
    assert code == 0
    assert "slope m" in out
    assert "ksi" in out


def test_tests_that_all_failed_are_fitted_by_regression(run, tmp_path):
    rows = "".join(
        f"{s},{n}\n" for s, n in ((300, 1e5), (300, 1.4e5), (250, 3e5), (250, 2.4e5), (200, 9e5), (200, 7e5))
    )
    (tmp_path / "t.csv").write_text("stress range [MPa],life [cycles]\n" + rows)
    code, out, _ = run("fit", tmp_path / "t.csv", "--r-ratio", 0.1)
    assert code == 0
    assert "ASTM E739" in out
    assert "lack of fit" in out
    assert read_specimens(tmp_path / "t.csv", r_ratio=0.1).runouts == 0


def test_a_staircase_shows_the_sums(run, tmp_path):
    (tmp_path / "stairs.csv").write_text(STAIRS)
    code, out, _ = run("staircase", tmp_path / "stairs.csv", "--figures", tmp_path, "--json", tmp_path / "s.json")
    assert code == 0
    record = json.loads((tmp_path / "s.json").read_text())
    assert f"A = {record['A']}" in out
    assert f"{record['mean [MPa]']:.4g} MPa" in out
    assert (tmp_path / "staircase-stairs.png").exists()


BAD = {
    "no card": (["cards", "unobtainium"], "no card with 'unobtainium'"),
    "no standard": (["classes", "EN 1993"], "Did you mean 'EN 1993-1-9'"),
    "no class": (["curve", "class:EN 1993-1-9/75"], "The next lower one is 71"),
    "no slash": (["curve", "class:71"], "a standard and a class"),
    "no way": (["curve", "steel"], "'card:NAME'"),
    "no curve": (["curve", "{demo}#pin"], "Did you mean 'pin_bore'"),
    "no curve on card": (["curve", "card:bushing-rubber-60"], "no S-N curve"),
    "no curve of that name": (["curve", "card:tempered-steel-800/rough"], "one of 'smooth'"),
    "lives": (["curve", "class:EN 1993-1-9/71", "--at", "many"], "such as 1e4,1e5"),
    "unit": (["curve", "class:EN 1993-1-9/71", "--unit", "kN"], "not one of stress"),
    "terms": (["curve", "class:EN 1993-1-9/71", "--as", "peak"], "'range', 'amplitude'"),
    "scatter": (["curve", "class:EN 1993-1-9/71", "--survival", "0.5"], "no log_life_std"),
    "another R": (["curve", "card:tempered-steel-800", "--r-ratio", "0"], "such as --value"),
    "any R": (["curve", "class:EN 1993-1-9/71", "--r-ratio", "0", "--value", "510 MPa"], "tested at one R"),
    "export": (
        ["curve", "card:tempered-steel-800", "--r-ratio", "0", "--value", "510 MPa", "--toml", "{tmp}/c.toml"],
        "one of straight lines",
    ),
    "group": (["estimate", "bronze", "--strength", "300 MPa"], "'aluminium'"),
    "no strength": (["estimate", "steel", "--surface", "ground"], "one of ultimate_strength and brinell_hardness"),
    "bare strength": (["estimate", "steel", "--strength", "690"], "without a unit"),
    "no tests": (["fit", "{tmp}/none.csv"], "no such file"),
    "no R": (["fit", "{lap}"], "expected one of"),
    "model": (["fit", "{tests}", "--model", "lines"], "Did you mean 'line'"),
    "regression": (["fit", "{tests}", "--model", "regression"], "tests that all failed"),
    "no stairs": (["staircase", "{tests}"], "one step"),
    "toml nowhere": (["curve", "class:EN 1993-1-9/71", "--toml", "{tmp}/none/c.toml"], "none"),
}


@pytest.mark.parametrize(("arguments", "message"), BAD.values(), ids=BAD)
def test_bad_input_exits_2_with_a_message_and_writes_nothing(run, demo_file, tmp_path, arguments, message):
    folder = demo_file.parent
    names = {"tmp": tmp_path, "demo": demo_file, "lap": folder / "loaded_lap.csv", "tests": folder / "tube_tests.csv"}
    code, out, err = run(*(argument.format(**names) for argument in arguments))
    assert code == 2
    assert message in flat(err.replace("│", ""))
    assert "Traceback" not in err
    assert out == ""
    assert list(tmp_path.iterdir()) == []


def test_the_table_of_the_command_is_that_of_the_function(run, tmp_path):
    run("curve", "class:IIW aluminium/36", "--at", "1e5,1e7", "--csv", tmp_path / "c.csv")
    wanted = stress_table([detail_curve("IIW aluminium", 36)], [1e5, 1e7])
    assert [list(map(float, row.values())) for row in table(tmp_path / "c.csv")] == [
        list(row.values()) for row in wanted.rows()
    ]


@pytest.mark.parametrize("model", ["regression", *FIT_MODELS])
def test_the_slope_that_a_fit_prints_is_the_one_its_exported_curve_has(run, demo_file, tmp_path, model):
    """At the first and the last stress where there is life; of a straight line the median has the printed slope m too."""
    tests = tmp_path / "tests.csv"
    text = (demo_file.parent / "tube_tests.csv").read_text()
    tests.write_text(re.sub(r"^(.*),yes,", r"\1,no,", text, flags=re.MULTILINE) if model == "regression" else text)
    code, out, err = run("fit", tests, "--model", model, "--toml", tmp_path / "c.toml", "--survival", 0.9)
    assert code == 0, err
    told = re.search(r"slope of the curve +([\d.]+) at ([\d.]+) MPa, ([\d.]+) at ([\d.]+) MPa", out)
    first, _, last, lowest = (float(one) for one in told.groups())
    (section,) = tomllib.loads((tmp_path / "c.toml").read_text())["sn_curves"].values()
    pairs = [(float(stress.split()[0]), life) for stress, life in section["points"]]
    stresses, lives = zip(*pairs, strict=True)
    slopes = -np.diff(np.log(lives)) / np.diff(np.log(stresses))
    here = next(i for i, end in enumerate(stresses[1:]) if end < lowest)
    assert (first, last) == pytest.approx((slopes[0], slopes[here]), rel=1e-3)
    median = re.search(r"\n  slope m +([\d.]+)", out)
    assert bool(median) == (model != "random limit")
    if model in ("line", "sharp limit"):
        fitted = fit_likelihood(read_specimens(tests), model)
        assert float(median[1]) == pytest.approx(fitted.curve().slope_at(300.0), rel=1e-4)
        assert float(median[1]) == pytest.approx(fitted.median_slope(250.0), rel=1e-4)
