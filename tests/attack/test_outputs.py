"""Outputs: never over an input, all or none, names as they are, also where nothing can be written or nobody reads."""

import csv
import json
import os
import subprocess
import sys
from pathlib import Path

import matplotlib.figure
import pytest

from tests.cli.events import EVENTS, HEAD, REST
from vivid_anvil import figures
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import all_or_none
from vivid_anvil.histories import read_csv
from vivid_anvil.units import coherent

pytestmark = pytest.mark.slow

SHORT = REST[: REST.index("[model]")]
COMMAND = [str(Path(sys.executable).with_name("vivid-anvil"))]


def words(text):
    return " ".join(text.split())


@pytest.fixture
def study(written):
    return written(EVENTS["history"])


@pytest.mark.parametrize(
    "arguments",
    [
        ("count", "lap.csv", "--csv", "lap.csv"),
        ("count", "lap.csv", "--json", "linked.csv"),
        ("life", "study.toml", "--json", "study.toml"),
        ("life", "study.toml", "--csv", "lap.csv"),
        ("life", "study.toml", "--parquet", "./sub/../lap.csv"),
        ("model", "study.toml", "--nodes", "few_nodes.csv"),
        ("grow", "study.toml", "--csv", "study.toml"),
        ("what-if", "study.toml", "load scale", "0.9", "--json", "lap.csv"),
        ("curve", "study.toml", "--toml", "study.toml"),
    ],
)
def test_an_input_is_never_overwritten(study, run, arguments):
    (study.parent / "sub").mkdir()
    (study.parent / "linked.csv").symlink_to("lap.csv")
    before = {path: path.read_bytes() for path in study.parent.iterdir() if path.is_file()}
    code, out, err = run(*arguments)
    assert (code, out) == (2, "")
    assert "an input that is an output too" in words(err)
    assert before == {path: path.read_bytes() for path in study.parent.iterdir() if path.is_file()}


def test_two_outputs_are_two_files(study, run):
    code, _, err = run("life", study, "--json", "a", "--csv", "./a")
    assert code == 2
    assert "the name of two outputs" in err
    assert not Path("a").exists()


def test_all_outputs_or_none(study, run, monkeypatch):
    monkeypatch.setattr(
        matplotlib.figure.Figure, "savefig", lambda *_, **__: (_ for _ in ()).throw(OSError(28, "No space left"))
    )
    before = sorted(study.parent.iterdir())
    code, _, err = run("life", study, "--json", "a.json", "--csv", "a.csv", "--figures", "new/figures")
    assert code == 2
    assert "No space left" in err
    assert sorted(study.parent.iterdir()) == before


def test_names_of_files_that_are_none(study, run, tmp_path):
    for bad in ("a\0b.json", str(tmp_path), "no/such/folder/a.json", "x" * 5000):
        code, _, err = run("life", study, "--json", bad)
        assert code == 2, bad
        assert len(err) < 1000
    code, _, err = run("life", study, "--figures", "lap.csv")
    assert (code, "a folder for figures" in words(err)) == (2, True)
    code, _, err = run("model", study, "--keep", "lap.csv")
    assert code == 2
    assert "a folder for finished work" in words(err)


def test_links_are_replaced_and_not_followed(tmp_path):
    (tmp_path / "precious").write_text("keep")
    (tmp_path / "out").symlink_to("precious")
    with all_or_none() as stage:
        stage(tmp_path / "out").write_text("new")
    assert (tmp_path / "precious").read_text() == "keep"
    assert (tmp_path / "out").read_text() == "new"
    assert [path.name for path in tmp_path.iterdir() if path.name.startswith(".")] == []


NAMES = ("toe [left]", "toe [/b]", "toe $x^2$ [right]", "=cmd()|A1")


@pytest.fixture
def named(written):
    """The study with hot spots that look like markup, formulas and commands of a spreadsheet."""
    spot = SHORT[SHORT.index("[[hot_spots]]") : SHORT.index("[[cracks]]")]
    spots = "".join(spot.replace('"toe"', f'"{name}"') for name in NAMES)
    rest = SHORT.replace(spot, spots).replace('hot_spot = "toe"', 'hot_spot = "toe [left]"')
    return written(EVENTS["history"], rest=rest)


@pytest.mark.parametrize(
    "command", [("check",), ("life",), ("rules",), ("what-if", "load scale", "0.9"), ("grow",), ("explain",)]
)
def test_names_are_text_everywhere(named, run, command):
    code, out, err = (
        run(command[0], named, *command[1:], "--figures", "f")
        if command[0] not in ("check", "explain")
        else run(*command, named)
    )
    assert code == 0, err
    for name in NAMES[:2] if command[0] in ("check", "life", "rules", "what-if") else NAMES[:1]:
        assert name in words(out)


def test_figures_and_rows_of_names_alike_stay_apart(named, run):
    code, _, _ = run("life", named, "--figures", "f", "--csv", "a.csv", "--details", len(NAMES))
    assert code == 0
    assert len(list(Path("f").glob("life*.png"))) == len(NAMES)
    assert len(list(Path("f").glob("damage-over-time*.png"))) == len(NAMES)
    rows = list(csv.DictReader(Path("a.csv").read_text().splitlines()))
    assert [row["hot spot"] for row in rows] == [*NAMES[:3], "'=cmd()|A1"]


def test_a_dollar_in_a_name_is_a_dollar(tmp_path):
    history = read_csv(_csv(tmp_path), name="price $a_b$ and $")
    figure = figures.plot(history)
    assert not any(text.get_parse_math() for text in figure.findobj(matplotlib.text.Text) if "$a_b" in text.get_text())
    figures.save_figure(figure, tmp_path / "a.png")


def _csv(folder):
    (folder / "lap.csv").write_text("time [s],force [kN]\n0,1\n1,2\n2,1\n3,4\n")
    return folder / "lap.csv"


def test_json_says_what_it_is_and_where_it_comes_from(study, run):
    code, _, _ = run("life", study, "--json", "a.json")
    assert code == 0
    record = json.loads(Path("a.json").read_text(), parse_constant=lambda word: pytest.fail(word))
    assert record["format"] == 2
    assert record["written_by"].startswith("vivid-anvil ")
    assert [one["name"] for one in record["inputs"]] == ["study.toml", "lap.csv", "few_nodes.csv"]
    assert all(len(one["sha256"]) == 64 and one["bytes"] > 0 for one in record["inputs"])


def test_pipes_and_devices_are_no_inputs(tmp_path, run):
    os.mkfifo(tmp_path / "pipe.csv")
    for path in (tmp_path / "pipe.csv", "/dev/zero", "a\0b.csv"):
        code, _, err = run("count", path)
        assert code == 2
        assert "a pipe or a device" in words(err) or "no such file" in words(err) or "null byte" in words(err)
    for path in (tmp_path / "pipe.csv", "/dev/zero"):
        assert run("life", path)[0] == 2


def call(*arguments, folder, **settings):
    return subprocess.run([*COMMAND, *arguments], cwd=folder, text=True, capture_output=True, timeout=120, **settings)


def test_where_nothing_can_be_written_the_answer_comes_all_the_same(study):
    nowhere = dict.fromkeys(
        ("HOME", "NUMBA_CACHE_DIR", "MPLCONFIGDIR", "XDG_CACHE_HOME", "XDG_CONFIG_HOME"), "/proc/nowhere"
    )
    done = call("life", "study.toml", "--figures", "f", folder=study.parent, env=os.environ | nowhere)
    assert done.returncode == 0, done.stderr
    assert "Traceback" not in done.stderr
    assert len(done.stderr.strip().splitlines()) <= 2


def test_a_reader_that_has_enough_and_a_full_disk(study):
    shell = f"{COMMAND[0]} life study.toml | head -1; echo ${{PIPESTATUS[0]}}; {COMMAND[0]} life study.toml > /dev/full; echo $?"
    done = subprocess.run(["bash", "-c", shell], cwd=study.parent, text=True, capture_output=True, timeout=120)
    assert done.stdout.split()[-2:] == ["0", "2"], done
    assert "Traceback" not in done.stderr
    assert "cannot be written" in done.stderr


@pytest.mark.parametrize(
    "unit", ["MPa**9**9**9", "MPa*" * 60 + "mm", "(((MPa)))", "MPa//mm", "MPa**", "1e9 MPa", "MPa**99"]
)
def test_a_unit_is_a_closed_grammar(unit, tmp_path, run):
    with pytest.raises(InputError):
        coherent(f"5 {unit}", "stress", "here")
    (tmp_path / "lap.csv").write_text(f"time [s],stress [{unit}]\n0,1\n1,2\n")
    code, _, err = run("count", tmp_path / "lap.csv")
    assert code == 2
    assert len(err) < 1500


@pytest.mark.parametrize("value", ["1e999 MPa", "9" * 5000 + " MPa", "1e308 MPa", "nan MPa", "inf MPa"])
def test_numbers_too_large_are_no_numbers(value):
    with pytest.raises(InputError):
        coherent(value, "stress", "here")


@pytest.mark.parametrize(
    "text",
    ["a = " + "9" * 5000, "a = " + "[" * 3000 + "]" * 3000, "a = \x00", "a" * 100_000, "\ufeffa = 1\n[a]\n"],
    ids=["digits", "depth", "null", "long", "twice"],
)
def test_toml_that_is_no_study(text, tmp_path, run):
    (tmp_path / "s.toml").write_text(text)
    code, _, err = run("life", tmp_path / "s.toml")
    assert code == 2
    assert len(err) < 2000


def test_includes_without_end(tmp_path, run):
    for i in range(1200):
        (tmp_path / f"{i}.toml").write_text(f'include = "{i + 1}.toml"\n')
    code, _, err = run("life", tmp_path / "0.toml")
    assert code == 2
    assert len(err) < 2000


def test_options_that_cannot_be_meant(study, run):
    assert study.is_file()
    for arguments in (
        ("count", "lap.csv", "--rate", "0 Hz"),
        ("count", "lap.csv", "--matrix", "from-to", "--classes", "1000000000000"),
        ("count", "lap.csv", "--matrix", "from-to", "--classes", "-3"),
        ("model", "study.toml", "--node", "-1"),
        ("life", "study.toml", "--spot", ""),
        ("inspections", "study.toml", "--every", "0 years"),
    ):
        code, _, err = run(*arguments)
        assert code == 2, arguments
        assert "Traceback" not in err


def test_a_list_where_one_value_stands(written, run):
    rows = (
        'programme = { unit = "kN", maximum = [[9], 5], minimum = [0, 1], cycles = [10, 900] }',
        'programme = { unit = ["kN"], maximum = [9, 5], minimum = [0, 1], cycles = [10, 900] }',
        'spectrum = { unit = "kN", range = [9, 4], cycles = [[10], 900] }',
        'spectrum = { unit = "kN", range = {}, cycles = [10, 900] }',
        'spectrum = { unit = "kN", range = [9, 4], cycles = [10, 900], name = "x" }',
    )
    for row in rows:
        event = f'[[duty_cycle.events]]\nname = "e"\noccurrences = 1\nchannel = "force"\n{row}\n'
        code, _, err = run("life", written(event, HEAD, rest=SHORT))
        assert code == 2, row
        assert "Traceback" not in err


def test_a_long_line_gives_a_short_message(tmp_path, run):
    (tmp_path / "lap.csv").write_text("time [s],force [kN]\n0," + "x" * 5_000_000 + "\n")
    code, _, err = run("count", tmp_path / "lap.csv")
    assert code == 2
    assert len(err) < 1000
    heads = ",".join(f"force {i} [kN]" for i in range(10_000))
    (tmp_path / "wide.csv").write_text(
        f"time [s],{heads}\n" + "".join(f"{i}," + ",".join("1" * 10_000) + "\n" for i in range(3))
    )
    code, _, err = run("count", tmp_path / "wide.csv", "--rate", "1 Hz")
    assert code == 2
    assert len(err) < 3000


def test_declared_sizes_are_held_against_the_memory(tmp_path, run):
    import h5py
    import numpy as np

    with h5py.File(tmp_path / "lap.h5", "w") as file:
        file.create_dataset("force", (10**13,), dtype="f8", chunks=(10**6,)).attrs["unit"] = "kN"
        file.attrs["sample_rate"] = "20 Hz"
    code, _, err = run("count", tmp_path / "lap.h5")
    assert (code, "of data declared" in words(err)) == (2, True)
    with (tmp_path / "lap.npy").open("wb") as file:
        np.lib.format.write_array_header_1_0(file, {"descr": "<f8", "fortran_order": False, "shape": (10**13,)})
    code, _, err = run("count", tmp_path / "lap.npy", "--read", "unit=kN", "--rate", "5 Hz")
    assert (code, "of data declared" in words(err)) == (2, True)


def test_two_runs_into_one_folder_are_each_complete(study):
    runs = [
        subprocess.Popen(
            [*COMMAND, "life", "study.toml", "--json", "a.json", "--figures", "f"],
            cwd=study.parent,
            stdout=-3,
            stderr=-3,
        )
        for _ in range(3)
    ]
    assert [one.wait(120) for one in runs] == [0, 0, 0]
    assert json.loads((study.parent / "a.json").read_text())["lives"]
    names = sorted(path.name for path in (study.parent / "f").iterdir())
    assert names == ["damage-over-time-toe.png", "life-toe.png"]
