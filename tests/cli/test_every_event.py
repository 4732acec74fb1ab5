"""Each command with each kind of event: it answers, or says in one sentence why this event gives it nothing."""

import json
from pathlib import Path

import pytest

from tests.cli.events import CHANNEL, COMMANDS, DRAWN, EVENT, EVENTS, FIGURES, HEAD, REST

pytestmark = pytest.mark.slow


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
        lives.append(json.loads(Path("a.json").read_text())["lives"][0]["life [repeats]"])
    assert lives == pytest.approx([lives[0]] * 3)
    apart = run("life", written(TWO.format(1000, 1)), "--json", "a.json")
    assert apart[0] == 0
    alone = json.loads(Path("a.json").read_text())["lives"][0]["life [repeats]"]
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
