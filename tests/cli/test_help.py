"""Help and the ways to call: brackets are text, short and module calls, groups, silence, negative values, ranges with units."""

import re
import subprocess
import sys
from pathlib import Path

import pytest
import typer

import vivid_anvil as va
from tests.cli.events import EVENTS, SHORT
from tests.study.flaw_texts import CONTOURS, TEXT
from vivid_anvil.cli.app import app

pytestmark = pytest.mark.slow

GROUP = typer.main.get_command(app)
COMMANDS = sorted(GROUP.commands)


def flat(text):
    """Help without its frame, as one line."""
    return " ".join(re.sub(r"[│╭╮╰╯─]", " ", text).split())


@pytest.mark.parametrize("command", COMMANDS)
@pytest.mark.parametrize("flag", ["-h", "--help"])
def test_help_shows_every_word_of_every_option(run, command, flag):
    code, out, _ = run(command, flag)
    assert code == 0
    shown = flat(out)
    for parameter in GROUP.commands[command].params:
        for word in (getattr(parameter, "help", None) or "").replace("\\[", "[").split():
            assert word in shown, (parameter.name, word)


def test_units_in_brackets_are_text(run):
    assert "[kN]" in flat(run("count", "-h")[1])
    growth = flat(run("growth-tests", "-h")[1])
    assert "[MPa√m]" in growth
    assert "run-out" not in growth
    assert "stress amplitude [MPa]" in flat(run("fit", "-h")[1])


def test_commands_stand_in_the_order_of_the_work(run):
    out = run("-h")[1]
    groups = re.findall(r"╭─ ([\w -]+?) ─+╮", out)
    assert groups == [
        "Options",
        "Start",
        "Loads",
        "S-N and strain-life curves",
        "Life",
        "Whole models",
        "Cracks and flaws",
        "Hand over and look up",
    ]
    assert all(re.search(rf"│ {re.escape(name)} ", out) for name in COMMANDS)
    assert all(GROUP.commands[name].rich_help_panel in groups for name in COMMANDS)


def test_version_is_the_same_wherever_it_is_asked(run):
    said = subprocess.run(
        [sys.executable, "-m", "vivid_anvil", "--version"], capture_output=True, text=True, check=True
    )
    assert said.stdout.split() == ["vivid-anvil", va.__version__]
    assert run("--version")[1] == said.stdout


def test_completion_can_be_installed(run):
    assert "--install-completion" in run("-h")[1]


TESTS = "stress amplitude [MPa],life [cycles],run-out\n" + "".join(
    f"{stress},{int(1e5 * (300 / stress) ** 5 * scatter)},no\n"
    for stress in (300, 250, 200)
    for scatter in (0.8, 1.0, 1.3)
)
STEPS = "stress amplitude [MPa],life [cycles],run-out\n" + "".join(
    f"{stress},{life},{out}\n"
    for stress, life, out in [(200, 10**7, "yes"), (210, 10**6, "no"), (200, 10**6, "no"), (190, 10**7, "yes")] * 4
)
PSD = "frequency [Hz],base [g^2/Hz]\n10,0.01\n100,0.01\n"
RATES = "stress intensity range [MPa√m],rate [mm/cycle]\n" + "".join(f"{k},{1e-9 * k**3}\n" for k in (10, 15, 20, 30))
# What each command is asked; one that is not here fails the test.
ASKED = {
    "cards": ("--json", "a.json"),
    "check": ("study.toml", "--json", "a.json"),
    "classes": ("--json", "a.json"),
    "count": ("lap.csv", "--json", "a.json"),
    "curve": ("class:EN 1993-1-9/71", "--json", "a.json"),
    "demo": ("a.json",),
    "estimate": ("steel", "--strength", "690 MPa", "--surface", "ground", "--size", "32 mm", "--json", "a.json"),
    "explain": ("study.toml", "--json", "a.json"),
    "flaws": ("flaws.toml", "--json", "a.json"),
    "front": ("front.csv", "--json", "a.json"),
    "fit": ("tests.csv", "--r-ratio", "-1", "--json", "a.json"),
    "grow": ("study.toml", "--json", "a.json"),
    "growth-tests": ("rates.csv", "--r-ratio", "0.1", "--json", "a.json"),
    "inspections": ("study.toml", "--json", "a.json"),
    "life": ("study.toml", "--json", "a.json"),
    "meaning": ("few-samples", "--json", "a.json"),
    "model": ("model.toml", "--json", "a.json"),
    "places": ("study.toml", "--json", "a.json"),
    "rules": ("study.toml", "--json", "a.json"),
    "report": ("flaws.toml", "a.pdf"),
    "schema": ("--json", "a.json"),
    "side-by-side": ("study.toml", "model.toml", "--json", "a.json"),
    "strain-life": ("estimate:medians", "--strength", "780 MPa", "--json", "a.json"),
    "solve": ("study.toml", "--json", "a.json"),
    "staircase": ("steps.csv", "--r-ratio", "-1", "--json", "a.json"),
    "tailor": (
        *("psd.csv", "--exposure", "20 h", "--time", "2 h", "--slope", "5", "--from", "20 Hz", "--to", "80 Hz"),
        *("--json", "a.json"),
    ),
    "template": ("a.json",),
    "vibration": ("psd.csv", "--json", "a.json"),
    "what-if": ("study.toml", "load scale", "0.9", "--json", "a.json"),
}


@pytest.mark.parametrize("command", COMMANDS)
def test_quiet_says_nothing_and_writes_all(written, run, command):
    written(EVENTS["history"], rest=SHORT)
    written(EVENTS["history"], name="model.toml")
    Path("flaws.toml").write_text(TEXT)
    for name, text in (
        ("front.csv", CONTOURS),
        ("tests.csv", TESTS),
        ("steps.csv", STEPS),
        ("rates.csv", RATES),
        ("psd.csv", PSD),
    ):
        Path(name).write_text(text)
    code, out, err = run("--quiet", command, *ASKED[command])
    assert (code, out, err) == (0, "", "")
    assert Path("a.pdf" if command == "report" else "a.json").stat().st_size > 100


def test_quiet_still_says_errors(run):
    code, out, err = run("--quiet", "life", "none.toml")
    assert (code, out) == (2, "")
    assert "none.toml" in err


def test_negative_values_are_values(written, run):
    study = written(
        EVENTS["history"], rest=SHORT.replace('material = "steel"\n', 'material = "steel"\noffset = "5 MPa"\n')
    )
    code, out, err = run("what-if", study, "hot_spots/toe/offset", "-5 MPa", "-2.5 MPa", "--csv", "a.csv")
    assert code == 0, err
    assert "-5 MPa" in out
    lives = [float(line.split(",")[-3]) for line in Path("a.csv").read_text().splitlines()[1:]]
    assert lives == sorted(
        lives, reverse=True
    )  # values stand in their order, and a larger mean stress shortens the life
    assert len(lives) == 3
    assert run("what-if", study, "hot_spots/toe/offset", "--cvs", "a.csv")[0] == 2


def test_a_range_of_values_may_have_a_unit(written, run):
    study = written(EVENTS["history"], rest=SHORT)
    key = "sn_curves/bar/knee_stress"
    for text in ("50 MPa..80 MPa/4", "50..80 MPa/4", "50 MPa..80/4"):
        code, out, err = run("what-if", study, key, text)
        assert code == 0, err
        assert re.findall(r"(\d+) MPa +toe", out) == ["50", "60", "70", "80"]
    for text, words in (
        ("50 MPa..80 ksi/4", "one unit"),
        ("80 MPa..50 MPa/4", "rises"),
        ("a..80 MPa/4", "range such as"),
    ):
        code, _, err = run("what-if", study, key, text)
        assert code == 2
        assert words in " ".join(err.split())
