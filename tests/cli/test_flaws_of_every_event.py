"""Flaws whose ranges come from a hot spot, beside a crack and a life, with each kind of event, and as a report."""

import json
import tomllib
from pathlib import Path

import pytest

from tests.cli.events import EVENTS, REST

pytestmark = pytest.mark.slow

FLAWS = """
[flaws]
inspected = 2026-10-05
target_life = "3 months"
indications = [
    { name = "B [1]", kind = "surface", length = "1 in", height = "0.1 in" },
    { name = "B (1)", kind = "embedded", length = "12 mm", height = "3 mm", ligament = "6 mm" },
]

[flaws.places."base [A]"]
form = "plate"
wall = "0.8 in"
width = "300 mm"
material = "steel"

[[flaws.places."base [A]".stages]]
name = "in service"
law = "air"
hot_spot = "toe"

[flaws.stresses."storm, 100 years"]
primary = [{ kind = "stresses", membrane = "17 ksi" }]
"""
MIXED = REST[: REST.index("[model]")] + FLAWS


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("units", ["metric", "us"])
def test_a_list_takes_the_cycles_of_each_kind_of_event(written, run, event, units):
    study = written(EVENTS[event], rest=MIXED)
    files = ("--json", "a.json", "--csv", "a.csv", "--figures", "figures", "--page", "page.html")
    options = ("--details", "0", *files, "--units", units)
    code, out, err = run("flaws", study, *options)
    assert code == 0, err
    assert "None" not in out
    record = json.loads(Path("a.json").read_text())
    lives = [flaw["remaining life [years]"] for flaw in record["flaws"]]
    assert all(life == "inf" or life > 0.0 for life in lives)
    assert Path("figures/flaws.png").exists()


def test_a_name_with_brackets_is_told_as_it_is(written, run):
    study = written(EVENTS["equal cycles"], rest=MIXED)
    code, out, err = run("flaws", study, "--flaw", "B [1]")
    assert code == 0, err
    assert "Flaw B [1]" in out
    worst = run("flaws", study)[1]
    assert "explain" in worst
    assert "--spot 'B " in " ".join(worst.split())


COMMANDS = {
    "check": (),
    "life": (),
    "rules": (),
    "grow": (),
    "inspections": ("--spot", "B [1]", "--every", "3 months"),
    "explain": ("--spot", "B (1)"),
    "solve": ("--spot", "B [1]"),
    "what-if": ("flaws/places/base [A]/wall", "0.7 in", "25 mm"),
}
OF_FLAWS = ("inspections", "explain", "solve", "what-if")


@pytest.mark.parametrize("command", COMMANDS)
@pytest.mark.parametrize("units", ["metric", "us"])
def test_each_command_takes_lives_cracks_and_flaws_in_one_study(written, run, command, units):
    study = written(EVENTS["history"], rest=MIXED)
    code, out, err = run(command, study, *COMMANDS[command], "--json", "a.json", "--csv", "a.csv", "--units", units)
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())["format"] == 2
    assert len(Path("a.csv").read_text().splitlines()) > 1
    assert ("B [1]" in out or "B (1)" in out) == (command in (*OF_FLAWS, "check", "grow"))


@pytest.mark.parametrize("event", EVENTS)
def test_a_report_takes_each_kind_of_event(written, run, event):
    study = written(EVENTS[event], rest=MIXED)
    code, _, err = run("report", study, "r.html", "r.docx", "r.pdf", "--date", "2026-10-05")
    assert code == 0, err
    page = Path("r.html").read_text()
    anchors = [part.partition('"')[0] for part in page.split(' id="')[1:]]
    assert len(anchors) == len(set(anchors))
    for words in ("B [1]", "B (1)", "base [A]", tomllib.loads(study.read_text())["title"]):
        assert words in page


@pytest.mark.parametrize(
    ("old", "new", "message"),
    [
        ('wall = "0.8 in"', 'wall = ["0.8 in"]', "wall"),
        ('wall = "0.8 in"', 'wall = "0.8 in"\nlimits_under = "storm, 100 years"', "limits_under"),
        ("indications = [", 'fronts = "front.csv"\nindications = [', "fronts"),
        ('primary = [{ kind = "stresses", membrane = "17 ksi" }]', 'primary = { kind = "stresses" }', "primary"),
        ('membrane = "17 ksi"', 'membrane = "17 ft"', "membrane"),
        ('length = "1 in"', 'length = "1 ksi"', "length"),
    ],
)
def test_a_scalar_for_a_list_and_another_unit_are_told(written, run, old, new, message):
    assert old in MIXED
    code, out, err = run("flaws", written(EVENTS["history"], rest=MIXED.replace(old, new, 1)))
    assert (code, out) == (2, "")
    assert message in err
    assert "Traceback" not in err
