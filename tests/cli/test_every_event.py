"""Each command with each kind of event: it answers, or says in one sentence why this event gives it nothing."""

import json
from pathlib import Path

import numpy as np
import openpyxl
import pandas as pd
import pytest

from tests.study.test_study_file import few_nodes
from vivid_anvil.fields import write_field_table

HEAD = """format = 1
title = "Bracket"
target_life = "20 years"

[duty_cycle]
repeat = "week"
repeats_per_year = 50
"""
REST = """
[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"
toughness = "75 MPa√m"

[sn_curves.bar]
stress = "amplitude"
r_ratio = -1
knee_stress = "60 MPa"
knee_life = 2e6
slope = 5
slope_below = 9

[growth_laws.air]
rate = "1.65e-11 m/cycle at 1 MPa√m"
slope = 3
threshold = "2 MPa√m"

[[hot_spots]]
name = "toe"
channel = "force"
stress_per_load = "10 MPa/kN"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"

[[cracks]]
hot_spot = "toe"
shape = "edge"
plate_width = "60 mm"
initial_size = "1 mm"
growth_law = "air"
detectable_size = "3 mm"

[model]
stresses = "few_nodes.csv"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"
load_cases = [{ case = "pull", channel = "force", unit_load = "10 kN" }]
"""
EVENT = '[[duty_cycle.events]]\nname = "{}"\noccurrences = {}\n'
CHANNEL = 'channel = "force"\n'
LAP_EVENT = EVENT.format("lap", 300) + 'history = "lap.csv"\n'
EVENTS = {
    "history": EVENT.format("lap", 300) + 'history = "lap.csv"\n',
    "two histories in turn": EVENT.format("laps", 300) + 'history = ["lap.csv", "lap.csv"]\n',
    "gated history": EVENT.format("lap", 300) + 'history = "lap.csv"\ngate = { force = "1 kN" }\n',
    "equal cycles": EVENT.format("test", 7) + CHANNEL + 'range = "9 kN"\nr_ratio = 0.0\ncycles = 100\n',
    "equal cycles with a frequency": EVENT.format("test", 7)
    + CHANNEL
    + 'amplitude = "4 kN"\nr_ratio = -1\ncycles = 100\nfrequency = "2 Hz"\n',
    "equal cycles by maximum and minimum": EVENT.format("test", 7)
    + CHANNEL
    + 'maximum = "0 kN"\nminimum = "-9 kN"\ncycles = 100\n'
    + EVENT.format("pull", 2)
    + CHANNEL
    + 'maximum = "9 kN"\nr_ratio = 0.1\ncycles = 10\n',
    "programme": EVENT.format("blocks", 2)
    + CHANNEL
    + 'programme = { unit = "kN", maximum = [9, 5], minimum = [0, 1], cycles = [10, 900] }\n',
    "spectrum": EVENT.format("classes", 2)
    + CHANNEL
    + 'spectrum = { unit = "kN", range = [9, 4], cycles = [10, 900], r_ratio = [0.0, 0.2] }\n',
    "states": EVENT.format("table", 2) + 'states = { force = ["0 kN", "9 kN", "3 kN", "5 kN"] }\ncycles = 100\n',
    "peaks and valleys": EVENT.format("strokes", 300)
    + 'history = "strokes.csv"\nread = { rows = "peaks and valleys" }\nduration = "20 s"\n',
    "programme on a sheet": EVENT.format("blocks", 2)
    + CHANNEL
    + 'programme = "blocks.xlsx"\nsheet = "bench"\nblock = 2\n',
    "once in ten weeks": EVENT.format("lap", 300)
    + 'history = "lap.csv"\n'
    + EVENT.format("stop", 0.1)
    + CHANNEL
    + 'range = "14 kN"\nr_ratio = -0.2\ncycles = 1\n',
    "day of its own": '[[duty_cycle.events]]\nname = "day"\noccurrences = 5\n'
    + 'events = [{ name = "lap", history = "lap.csv", occurrences = 60 }, '
    + '{ name = "start", occurrences = 2, channel = "force", range = "9 kN", r_ratio = 0.0, cycles = 1 }]\n',
}
COMMANDS = {
    "check": (),
    "life": ("--spot", "toe"),
    "rules": (),
    "what-if": ("load scale", "0.9", "1.1"),
    "solve": (),
    "grow": ("--after-damage",),
    "inspections": ("--every", "1 year"),
    "explain": (),
    "model": ("--node", "2", "--nodes", "nodes.vtu"),
}
FIGURES = ("life", "rules", "what-if", "grow", "inspections", "model")
DRAWN = (
    "history",
    "gated history",
    "equal cycles",
    "programme",
    "spectrum",
    "states",
    "peaks and valleys",
    "day of its own",
)


@pytest.fixture
def written(tmp_path, monkeypatch):
    """A function: the study with these events, in the working folder."""
    monkeypatch.chdir(tmp_path)
    t = np.arange(400) / 20.0
    force = 5.0 + 4.0 * np.sin(2.0 * t) * np.cos(0.31 * t) + np.where(np.arange(400) == 77, 3.0, 0.0)
    pd.DataFrame({"time [s]": t, "force [kN]": force.round(4)}).to_csv(tmp_path / "lap.csv", index=False)
    write_field_table(few_nodes(), tmp_path / "few_nodes.csv")
    pd.DataFrame({"force [kN]": [1, 9, 3, 8, 0, 12, 2]}).to_csv(tmp_path / "strokes.csv", index=False)
    book = openpyxl.Workbook()
    bench = book.create_sheet("bench")
    for row in [("max (kN)", "min (kN)", "cycles") * 2, (3, 0, 5, 9, 0, 10), (2, 0, 50, 5, 1, 900)]:
        bench.append(row)
    book.save(tmp_path / "blocks.xlsx")

    def write(events, head=HEAD, name="study.toml", rest=REST):
        (tmp_path / name).write_text(head + events + rest)
        return tmp_path / name

    return write


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("command", COMMANDS)
def test_each_command_takes_each_kind_of_event(written, run, command, event):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    if command in FIGURES and event in DRAWN:
        options += ["--figures", "figures"]
    gated = event == "gated history"  # a model takes no gate: told in one sentence
    study = written(EVENTS[event], rest=REST[: REST.index("[model]")] if gated and command != "model" else REST)
    code, out, err = run(command, study, *options)
    if gated and command == "model":
        assert code == 2, out
        assert "found a gate" in " ".join(err.split())
        return
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())
    assert "None" not in out


@pytest.mark.parametrize("event", EVENTS)
def test_studies_side_by_side_take_each_kind_of_event(written, run, event):
    rest = REST[: REST.index("[model]")]
    one = written(EVENTS[event], rest=rest)
    other = written(EVENTS["history"], name="other.toml", rest=rest)
    code, _, err = run("side-by-side", one, other, "--json", "a.json")
    assert code == 0, err


TWO = (
    EVENT.format("up", "{1}")
    + CHANNEL
    + 'range = "10 kN"\nr_ratio = 0.0\ncycles = {0}\n'
    + EVENT.format("down", "{1}")
    + CHANNEL
    + 'programme = {{ unit = "kN", maximum = [0], minimum = [-10], cycles = [{0}] }}\n'
)


def test_the_worst_case_pairs_cycles_however_they_are_written(written, run):
    """A thousand cycles are a thousand maxima and minima: in one occurrence, in a thousand, or in a spectrum."""
    head = HEAD + 'between = "worst case"\n'
    lives = []
    for cycles, often in ((1000, 1), (1, 1000), (10, 100)):
        code, out, err = run("life", written(TWO.format(cycles, often), head), "--json", "a.json")
        assert code == 0, err
        assert "never changes" not in out
        lives.append(json.loads(Path("a.json").read_text())["lives"][0]["life_repeats"])
    assert lives == pytest.approx([lives[0]] * 3)
    apart = run("life", written(TWO.format(1000, 1)), "--json", "a.json")
    assert apart[0] == 0
    alone = json.loads(Path("a.json").read_text())["lives"][0]["life_repeats"]
    assert alone > 5.0 * lives[0]  # a thousand swings of 200 MPa where there were two thousand of 100


def test_a_load_that_never_changes_is_found_by_its_load(written, run):
    still = (
        EVENT.format("still", 3) + CHANNEL + 'programme = { unit = "kN", maximum = [5], minimum = [5], cycles = [9] }\n'
    )
    code, out, _ = run("life", written(EVENTS["history"] + still, HEAD + 'between = "worst case"\n'))
    assert code == 0
    words = " ".join(out.split())
    assert "The load of still never changes" in words
    assert "The load of lap never changes" not in words
