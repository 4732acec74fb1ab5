"""The command as people run it: what it prints, writes and returns."""

import csv
import json
import os
import re
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from matplotlib.mathtext import MathTextParser
from pyarrow import parquet

import vivid_anvil as va

pytestmark = pytest.mark.slow


def table(path):
    """The rows of a CSV file."""
    return list(csv.DictReader(path.read_text().splitlines()))


def test_the_demo_writes_runs_and_draws_everything(run, tmp_path):
    code, out, _ = run("demo", tmp_path / "demo", "--json", tmp_path / "all.json", "--csv", tmp_path / "lives.csv")
    assert code == 0
    assert max(map(len, out.splitlines())) <= 80 or "Written" in out
    for words in (
        "weld toe at the grip head",
        "missed",
        "no cycle does damage",
        "net-section yield",
        "every 1.",
        "Worst cycle at node",
        "8, of which 2 not acceptable",
    ):
        assert words in out
    figures = sorted(path.name for path in (tmp_path / "demo" / "figures").iterdir())
    assert len(figures) == 17
    assert "flaws.png" in figures
    assert "crack-weld-toe-at-the-grip-head.png" in figures
    record = json.loads((tmp_path / "all.json").read_text())
    assert [life["verdict"] for life in record["lives"]] == ["fails the target", "meets the target", "no damage"]
    rows = table(tmp_path / "lives.csv")
    assert float(rows[0]["life [years]"]) == record["lives"][0]["life [years]"]
    again = run("demo", tmp_path / "demo")
    assert again[0] == 0


def test_a_changed_demo_is_never_overwritten(run, tmp_path):
    (tmp_path / "larkfell.toml").write_text("mine")
    code, _, err = run("demo", tmp_path)
    assert code == 2
    assert "It may hold your changes" in " ".join(err.split())
    assert [path.name for path in tmp_path.iterdir()] == ["larkfell.toml"]


def test_check_says_what_would_be_computed(run, demo_file):
    code, out, _ = run("check", demo_file)
    assert code == 0
    assert "3 lives and 1 crack" in " ".join(out.split())
    assert "24.5 MPa/kN" in out


def test_life_of_one_spot_in_us_units(run, demo_file, tmp_path):
    code, out, _ = run(
        "life",
        demo_file,
        "--spot",
        "bore of the suspension pin",
        "--units",
        "us",
        "--figures",
        tmp_path / "new" / "figures",
    )
    assert code == 0
    assert "[ksi]" in out
    assert "weld toe" not in out
    names = sorted(path.name for path in (tmp_path / "new" / "figures").iterdir())
    assert names == [f"{kind}-bore-of-the-suspension-pin.png" for kind in ("damage-over-time", "life")]


def test_grow_writes_the_curve(run, demo_file, tmp_path):
    code, out, _ = run("grow", demo_file, "--csv", tmp_path / "curve.csv", "--json", tmp_path / "curve.json")
    assert code == 0
    rows = table(tmp_path / "curve.csv")
    record = json.loads((tmp_path / "curve.json").read_text())["cracks"][0]
    assert float(rows[-1]["size [mm]"]) == pytest.approx(record["limiting size [mm]"])
    assert float(rows[-1]["time [years]"]) == pytest.approx(record["life [years]"])
    assert f"{record['life [years]']:.2f}" in out


def test_explain_prints_and_writes_the_steps(run, demo_file, tmp_path):
    code, out, _ = run("explain", demo_file, "--csv", tmp_path / "steps.csv")
    assert code == 0
    assert "Life of weld toe at the grip head, worked by hand" in out
    assert "Growth of the crack at weld toe at the grip head" in out
    assert max(len(line) for line in out.splitlines() if not line.startswith("Written: ")) <= 80
    steps = table(tmp_path / "steps.csv")
    assert {"formula", "numbers", "value", "unit", "source"} <= set(steps[0])


def test_explain_takes_an_event_and_a_range(run, demo_file):
    code, out, _ = run("explain", demo_file, "--event", "emergency stop", "--stress", "105 MPa")
    assert code == 0
    assert "in the event emergency stop" in out
    assert "stress range at any R of 100 MPa to 120 MPa" in " ".join(out.split())


@pytest.mark.parametrize("units", ["metric", "us"])
def test_table_figure_and_explanation_name_the_same_classes(run, demo_file, units):
    bore = va.run_study(va.read_study(demo_file)).life_of("bore of the suspension pin")
    worst = max(bore.stress_classes(bore.edges(units)), key=lambda one: one.share)
    per = 1.0 if units == "metric" else 6.894757293168361
    low, high = (f"{edge / per:.4g}" for edge in (worst.lower, worst.upper))
    out = run("life", demo_file, "--spot", "bore of the suspension pin", "--units", units)[1]
    assert "Stress amplitude at R = -1" in out
    assert re.search(rf"^{low} to {high} .*{worst.share:.1%}", out, re.MULTILINE)
    said = " ".join(run("explain", demo_file, "--spot", "bore of the suspension pin", "--units", units)[1].split())
    unit = "MPa" if units == "metric" else "ksi"
    assert f"stress amplitude at R = -1 of {low} {unit} to {high} {unit}" in said
    bars = va.plot(bore, units=units).axes[1].patches
    tallest = max(bars, key=lambda bar: bar.get_width())
    assert (tallest.get_y(), tallest.get_y() + tallest.get_height()) == pytest.approx(
        (worst.lower / per, worst.upper / per)
    )


def test_every_table_of_lives_has_the_used_share(run, demo_file):
    used = 100.0 * va.run_study(va.read_study(demo_file)).lives[0].used_at_target
    toe, key = f"{used:.4g}", "hot_spots/weld toe at the grip head/notch_factor"
    for words in (
        ["life", demo_file],
        ["what-if", demo_file, key, "1.1"],
        ["what-if", demo_file, "cracks/weld toe at the grip head/initial_size", "1.1 mm"],
        ["rules", demo_file],
        ["grow", demo_file, "--after-damage"],
        ["inspections", demo_file],
    ):
        code, out, _ = run(*words)
        assert code == 0, words
        assert re.search(r"\[%\]|% used|used at the target", out), words
        assert max(map(len, out.splitlines()[:-2])) <= 80, words
    assert toe in run("life", demo_file)[1]
    other = demo_file.with_name("other.toml")
    other.write_text(demo_file.read_text().replace("notch_factor = 2.2", "notch_factor = 2.4"))
    assert re.search(rf"\({toe} %\)", run("side-by-side", demo_file, other)[1])


def aligned(text):
    """The equations of a working in LaTeX, each set by a reader of formulas."""
    lines = re.findall(r"^    (.*&=.*?)(?: \\\\)?$", text, re.MULTILINE)
    parser = MathTextParser("path")
    for line in lines:
        parser.parse(f"${line.replace('&', '')}$")
    return lines


def test_explain_in_latex_is_set_without_error(run, demo_file):
    code, out, _ = run("explain", demo_file, "--spot", "bore of the suspension pin", "--latex")
    more = run("explain", demo_file, "--latex")[1]
    assert code == 0
    assert len(aligned(out + more)) > 60
    assert r"(\sigma" not in out
    assert r"S_{ar} &= S_{a} / (1 - S_{m} / R_{m})" in out
    assert r"\sqrt{\pi  \times  a}" in more


OTHER_STUDIES = (
    "hanger_head",
    "grip_shaft",
    "safety_bar",
    "sensor_bracket",
    "suspension_bush",
    "suspension_pin",
    "tower_base",
)


@pytest.mark.parametrize("study", OTHER_STUDIES)
def test_every_study_of_the_demo_is_explained_in_latex(run, demo_file, study):
    code, out, err = run("explain", demo_file.parent / f"{study}.toml", "--latex")
    assert code == 0, err
    assert len(aligned(out)) > 30
    assert out.isascii()


@pytest.mark.parametrize("place", range(3))
def test_all_of_a_spot_fits_a_terminal_of_80_by_41(run, demo_file, demo_result, place):
    life = demo_result.lives[place]
    code, out, _ = run("life", demo_file, "--spot", life.hot_spot.name)
    lines = out.splitlines()
    assert code == 0
    assert (max(map(len, lines)), len(lines)) <= (80, 41)
    assert ("From [s]" in out) == (life.damage_per_repeat > 0.0)


def test_explain_by_another_rule(run, demo_file):
    code, out, _ = run("explain", demo_file, "--spot", "bore of the suspension pin", "--rule", "gerber")
    assert code == 0
    assert "S_ar = S_a / (1 - (S_m / R_m)^2)" in out


def test_solve_answers_the_other_way_round(run, demo_file, demo_result, tmp_path):
    key = "hot_spots/weld toe at the grip head/stress_per_load"
    asked = ["--key", key, "--between", "15..30 MPa/kN", "--test-cycles", "1e6", "--leave-out", "30 MPa"]
    code, out, _ = run("solve", demo_file, *asked, "--test-stress", "150 MPa", "--json", tmp_path / "s.json")
    assert code == 0
    answers = {row["question"]: row["answer"] for row in json.loads((tmp_path / "s.json").read_text())["answers"]}
    life = demo_result.lives[0]
    assert answers["all loads times"] == pytest.approx(life.reserve_on_stress)
    assert answers[key] == pytest.approx(24.5 * life.reserve_on_stress, rel=1e-6)
    assert answers["class of EN 1993-1-9 needed"] == 80
    assert answers["test of 1e6 cycles: stress range at any R"] == pytest.approx(life.damage_equivalent_stress(1e6))
    assert "97.3% of the" in out


def test_solve_says_in_which_terms_and_when_a_part_cannot_bear_it(run, demo_file, tmp_path):
    def told(*asked):
        assert run("solve", demo_file, "--spot", *asked, "--json", tmp_path / "s.json")[0] == 0
        return {row["question"]: row["in words"] for row in json.loads((tmp_path / "s.json").read_text())["answers"]}

    bore = told("bore of the suspension pin", "--test-cycles", "10", "--test-stress", "90 MPa")
    assert (
        bore["all loads times"] == "1.077; its peak of 640.8 MPa is above the yield strength, 600 MPa"
    )  # 594.8 x 1.077
    assert "above" not in bore["constant stress amplitude at R = -1 that does the same in 2e6 cycles"]
    assert "above the ultimate strength, 780 MPa" in bore["test of 10 cycles: stress amplitude at R = -1"]
    assert "test at a stress amplitude at R = -1 of 90 MPa: cycles" in bore
    assert (
        told("bend of the tube")["constant stress amplitude at R = -1 that does the same in 2e6 cycles"]
        == "any below 166.1 MPa"
    )


def test_life_writes_every_cycle_with_its_damage(run, demo_file, demo_result, tmp_path):
    code, _, _ = run("life", demo_file, "--parquet", tmp_path / "cycles.parquet")
    frame = parquet.read_table(tmp_path / "cycles.parquet").to_pandas()
    assert code == 0
    sums = frame.groupby("hot spot")["damage per repeat"].sum()
    for one in demo_result.lives:
        assert sums[one.hot_spot.name] == pytest.approx(one.damage_per_repeat)


def test_count_prints_the_largest_cycles_with_their_times(run, demo_file, tmp_path):
    code, out, _ = run(
        "count", demo_file.parent / "loaded_lap.csv", "--csv", tmp_path / "cycles.csv", "--figures", tmp_path
    )
    assert code == 0
    assert "48000 samples, 480 s at 100 Hz" in out
    rows = table(tmp_path / "cycles.csv")
    assert f"{float(max(rows, key=lambda row: float(row['range [N]']))['range [N]']) / 1000:.3f}" in out
    assert len(list(tmp_path.glob("*.png"))) == 2


@pytest.mark.parametrize("values", ["1\n1\n1\n", "0\n2\n"])
def test_count_of_short_and_constant_channels(run, tmp_path, values):
    (tmp_path / "short.csv").write_text("force [kN]\n" + values)
    code, out, _ = run("count", tmp_path / "short.csv", "--rate", "10 Hz", "--residue", "repeated")
    assert code == 0
    assert ("never changes" if values[0] == "1" else "1 cycles") in out


def test_count_checks_gates_bins_and_writes(run, demo_file, tmp_path):
    lap = demo_file.parent / "loaded_lap.csv"
    settings = ["--gate", "0.1 kN", "--matrix", "from-to", "--classes", "24", "--residue", "repeated", "--units", "us"]
    code, out, _ = run(
        "count",
        lap,
        *settings,
        "--json",
        tmp_path / "a.json",
        "--parquet",
        tmp_path / "a.parquet",
        "--figures",
        tmp_path,
    )
    assert code == 0
    assert "crest factor" in out
    assert "binning to middle values moves the damage by" in " ".join(out.split())
    record = json.loads((tmp_path / "a.json").read_text())
    assert f"took out {record['removed by gate']:.0f}" in " ".join(out.split())
    cycles = parquet.read_table(tmp_path / "a.parquet")
    assert sum(cycles["count"].to_pylist()) == record["cycles"] == sum(map(sum, record["matrix"]["counts"]))
    assert len(list(tmp_path.glob("*.png"))) == 3


@pytest.mark.parametrize("method", ["range-pair", "simple-range"])
def test_count_by_other_methods(run, demo_file, method):
    code, out, _ = run("count", demo_file.parent / "emergency_stop.csv", "--method", method)
    assert code == 0
    assert f"cycles by {method} counting" in out


def test_count_in_chunks_gives_the_matrix_of_the_whole(run, demo_file, tmp_path):
    lap = demo_file.parent / "loaded_lap.csv"
    code, out, _ = run(
        "count", lap, "--chunked", "--channel", "vertical force", "--json", tmp_path / "c.json", "--figures", tmp_path
    )
    assert code == 0
    assert "48000 samples; 15144 cycles" in out
    assert sum(map(sum, json.loads((tmp_path / "c.json").read_text())["matrix"]["counts"])) == 15144
    assert len(list(tmp_path.glob("*.png"))) == 1


def test_count_reads_any_file_with_its_settings(run, tmp_path):
    np.save(tmp_path / "run.npy", np.array([0.0, 3.0, 1.0, 2.0, 0.0]))
    code, out, _ = run("count", tmp_path / "run.npy", "--read", "unit=kN", "--rate", "10 Hz")
    assert code == 0
    assert "2 cycles by rainflow counting" in out


BAD = {
    "no study": (["life", "{tmp}/none.toml"], "no such file"),
    "no history": (["count", "{tmp}/none.csv"], "no such file"),
    "unknown spot": (["life", "{demo}", "--spot", "weld"], "Did you mean 'weld toe at the grip head'"),
    "unknown crack": (["grow", "{demo}", "--spot", "bend"], "--spot"),
    "unknown spot to explain": (["explain", "{demo}", "--spot", "bend of tube"], "Did you mean 'bend of the tube'"),
    "unknown event to explain": (["explain", "{demo}", "--event", "empty lab"], "Did you mean 'empty lap'"),
    "a stress nobody has": (["explain", "{demo}", "--stress", "900 MPa"], "a stress range at any R, up to"),
    "a stress without damage": (["explain", "{demo}", "--stress", "1 MPa"], "no cycle there that does damage"),
    "solve without a range": (["solve", "{demo}", "--key", "target_life"], "two values"),
    "solve for words": (["solve", "{demo}", "--key", "target_life", "--between", "a..b"], "two numbers"),
    "solve a spot nobody has": (["solve", "{demo}", "--spot", "weld"], "Did you mean"),
    "unknown residue": (["count", "{lap}", "--residue", "half"], "Did you mean 'half cycles'"),
    "unknown channel": (["count", "{lap}", "--channel", "sway"], "no channel 'sway'"),
    "wrong rate": (["count", "{lap}", "--rate", "10 s"], "not one of frequency"),
    "unknown method": (["count", "{lap}", "--method", "rain"], "Did you mean 'rainflow'"),
    "unknown matrix": (["count", "{lap}", "--matrix", "range"], "Did you mean 'range-mean'"),
    "no classes": (["count", "{lap}", "--matrix", "range-mean", "--classes", "0"], "1 to 4096"),
    "gate without unit": (["count", "{lap}", "--gate", "0.1"], "without a unit"),
    "gate with pairs": (["count", "{lap}", "--gate", "0.1 kN", "--method", "range-pair"], "rainflow counting"),
    "setting without value": (["count", "{lap}", "--read", "sheet"], "a key and a value"),
    "setting of another reader": (["count", "{lap}", "--read", "sheet=a"], "text files do not have"),
    "chunks of no channel": (["count", "{lap}", "--chunked"], "Add --channel"),
    "chunks of a wrong channel": (["count", "{lap}", "--chunked", "--channel", "farce"], "no channel 'farce'"),
    "parquet nowhere": (["count", "{lap}", "--parquet", "{tmp}/none/c.parquet"], "cannot be written"),
    "json into a folder": (["life", "{demo}", "--json", "{tmp}"], "a folder"),
    "csv nowhere": (["life", "{demo}", "--csv", "{tmp}/none/life.csv"], "cannot be written"),
    "figures into a file": (["life", "{demo}", "--figures", "{demo}/figures"], "cannot be written"),
    "demo into a file": (["demo", "{demo}"], "larkfell.toml"),
    "unknown command": (["fly"], "fly"),
    "unknown units": (["life", "{demo}", "--units", "imperial"], "imperial"),
}


@pytest.mark.parametrize(("arguments", "message"), BAD.values(), ids=BAD)
def test_bad_input_exits_2_with_a_message_and_writes_nothing(run, demo_file, tmp_path, arguments, message):
    names = {"tmp": tmp_path, "demo": demo_file, "lap": demo_file.parent / "loaded_lap.csv"}
    before = sorted(demo_file.parent.iterdir())
    code, out, err = run(*(argument.format(**names) for argument in arguments))
    assert code == 2
    assert message in " ".join(err.replace("│", "").split())
    assert "Traceback" not in err
    assert out == ""
    assert list(tmp_path.iterdir()) == []
    assert sorted(demo_file.parent.iterdir()) == before


def test_a_late_fault_leaves_no_file_behind(run, demo_file, tmp_path):
    """A mean beyond the ultimate strength shows only in the calculation, after the outputs were checked."""
    study = tmp_path / "study.toml"
    text = demo_file.read_text().replace('stress_per_load = "41 MPa/kN"', 'stress_per_load = "410 MPa/kN"')
    for key in ("history", "tests", "file"):
        text = text.replace(f'{key} = "', f'{key} = "{demo_file.parent}/')
    study.write_text(text)
    code, _, err = run("life", study, "--json", tmp_path / "out.json", "--figures", tmp_path / "figures")
    assert code == 2
    assert "bore of the suspension pin, event" in " ".join(err.split())
    assert [path.name for path in tmp_path.iterdir()] == ["study.toml"]


def installed(*arguments, **environment):
    return subprocess.run(
        [sys.executable, "-c", "from vivid_anvil.cli import main; main()", *arguments],
        capture_output=True,
        env={**os.environ, **environment},
        check=False,
    )


def test_help_loads_nothing_heavy():
    done = subprocess.run(
        [sys.executable, "-X", "importtime", "-c", "from vivid_anvil.cli import main; main()", "--help"],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0
    assert "Check one channel of a file" in done.stdout
    for heavy in ("numpy", "numba", "scipy", "pandas", "matplotlib", "pint", "pydantic"):
        assert f" {heavy}\n" not in done.stderr


def test_a_pipe_that_knows_no_special_signs_still_gets_the_answer(demo_file):
    done = installed("grow", str(demo_file), PYTHONIOENCODING="ascii")
    assert done.returncode == 0
    assert b"net-section yield" in done.stdout


def test_the_version_is_that_of_the_project():
    pyproject = (Path(__file__).parents[2] / "pyproject.toml").read_text()
    version = installed("--version").stdout.decode().split()[1]
    assert f'version = "{version}"' in pyproject
