"""Each command with each kind of event: it answers, or says in one sentence why this event gives it nothing."""

import json
from pathlib import Path

import pytest

from tests.cli.events import (
    CHANNEL,
    COMMANDS,
    DRAWN,
    EVENT,
    EVENTS,
    FIGURES,
    HEAD,
    IN_PLIES,
    IN_RUBBER,
    ON_PLANES,
    OTHER_PLANES,
    REST,
    STRAINS_ON_PLANES,
    WELDED,
    YIELDING,
)

pytestmark = pytest.mark.slow


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("command", COMMANDS)
def test_each_command_takes_each_kind_of_event(written, run, command, event):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    if command in FIGURES and event in DRAWN:
        options += ["--figures", "figures", "--page", "page.html"]
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
@pytest.mark.parametrize("command", COMMANDS)
def test_each_command_takes_each_kind_of_event_at_places_that_yield(written, run, command, event):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    if command in FIGURES and event in DRAWN:
        options += ["--figures", "figures", "--page", "page.html"]
    gated = event == "gated history"
    rest = YIELDING[: YIELDING.index("[model]")] if gated or command != "model" else YIELDING
    if gated and command == "model":
        return  # a model takes no gate, whatever the method
    code, out, err = run(command, written(EVENTS[event], rest=rest), *options)
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())
    assert "None" not in out


OVER_FREQUENCY = {name for name in EVENTS if name.split(" ")[0] in ("random", "not", "dwells", "sweep")}


OTHERS = {**OTHER_PLANES, **STRAINS_ON_PLANES, "weld": WELDED}


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("way", OTHERS)
def test_each_way_to_look_at_planes_takes_each_kind_of_event(written, run, way, event):
    rest = OTHERS[way]
    path = written(EVENTS[event], rest=rest[: rest.index("[model]")])
    for command in ("life", "explain"):
        options = ["--json", "a.json"] + (["--figures", "figures"] if command == "life" and event in DRAWN else [])
        code, out, err = run(command, path, *options)
        if event in OVER_FREQUENCY or event == "gated history":
            assert code == 2, out
            assert ("found a gate" if event == "gated history" else "for the critical plane") in " ".join(err.split())
            return
        assert code == 0, err
        assert "None" not in out


@pytest.mark.parametrize("way", OTHERS)
@pytest.mark.parametrize("command", ["model", "check", "rules", "what-if", "solve", "report"])
def test_each_command_takes_each_way_to_look_at_planes(written, run, way, command):
    rest = OTHERS[way] if command == "model" else OTHERS[way][: OTHERS[way].index("[model]")]
    options = ["answer.html"] if command == "report" else [*COMMANDS[command], "--json", "a.json"]
    code, out, err = run(command, written(EVENTS["history"], rest=rest), *options)
    assert code == 0, err
    assert "None" not in out


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("command", COMMANDS)
def test_each_command_takes_each_kind_of_event_on_planes(written, run, command, event):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    if command in FIGURES and event in DRAWN:
        options += ["--figures", "figures", "--page", "page.html"]
    rest = ON_PLANES if command == "model" else ON_PLANES[: ON_PLANES.index("[model]")]
    code, out, err = run(command, written(EVENTS[event], rest=rest), *options)
    if event in OVER_FREQUENCY:
        assert code == 2, out
        assert "a course in time, for the critical plane" in " ".join(err.split())
        return
    if event == "gated history":
        assert code == 2, out
        assert "found a gate" in " ".join(err.split())
        return
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())
    assert "None" not in out


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize("command", [name for name in COMMANDS if name not in ("grow", "inspections", "solve")])
@pytest.mark.parametrize("model", [pytest.param(IN_RUBBER, id="rubber"), pytest.param(IN_PLIES, id="plies")])
def test_each_command_takes_each_kind_of_event_in_rubber_and_plies(written, run, model, command, event):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    if command in FIGURES and event in DRAWN:
        options += ["--figures", "figures", "--page", "page.html"]
    rest = model if command == "model" else model[: model.index("[model]")]
    code, out, err = run(command, written(EVENTS[event], rest=rest), *options)
    if event in OVER_FREQUENCY or event == "gated history":
        assert code == 2, out
        assert ("found a gate" if event == "gated history" else "a load over frequency") in " ".join(err.split())
        return
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())
    assert "None" not in out
    assert "nan" not in out.lower().split()


@pytest.mark.parametrize("command", [name for name in COMMANDS if name not in ("grow", "inspections", "solve")])
@pytest.mark.parametrize("model", [pytest.param(IN_RUBBER, id="rubber"), pytest.param(IN_PLIES, id="plies")])
def test_names_with_brackets_are_told_as_they_are_in_us_units(written, run, model, command):
    options = [*("[left] toe" if one == "toe" else one for one in COMMANDS[command]), "--json", "a.json"]
    rest = (model if command == "model" else model[: model.index("[model]")]).replace('"toe"', '"[left] toe"')
    event = EVENTS["history"].replace('"lap"', '"[loaded] lap"')
    code, out, err = run(command, written(event, rest=rest), *options, "--units", "us")
    assert code == 0, err
    told = out + Path("a.json").read_text()
    assert ("[loaded] lap" if command == "model" else "[left] toe") in told
    assert "MPa" not in out


def test_one_ply_in_one_jump_is_explained_and_nothing_else_beside(written, run):
    path = written(EVENTS["history"], rest=IN_PLIES[: IN_PLIES.index("[model]")])
    code, out, err = run("explain", path, "--ply", "2", "--jump", "1", "--json", "a.json")
    assert code == 0, err
    assert "Ply 2 of 4 (90°) of toe in jump 1" in out
    assert json.loads(Path("a.json").read_text())["steps"]
    code, _, err = run("explain", path, "--ply", "2", "--event", "lap")
    assert (code, "no such option for one jump" in " ".join(err.split())) == (2, True)
    code, _, err = run("explain", written(EVENTS["history"], rest=REST[: REST.index("[model]")]), "--jump", "1")
    assert (code, "takes no jumps" in " ".join(err.split())) == (2, True)


def test_one_duty_cycle_serves_steel_and_a_laminate(written, run):
    plies = IN_PLIES[: IN_PLIES.index("[model]")].replace('name = "toe"', 'name = "plate"')
    code, out, err = run(
        "life", written(EVENTS["history"], rest=REST[: REST.index("[model]")] + plies), "--json", "a.json"
    )
    assert code == 0, err
    assert "plate" in out
    assert "toe" in out


@pytest.mark.parametrize("command", ["report", "solve", "grow"])
@pytest.mark.parametrize("units", ["metric", "us"])
def test_other_commands_take_plies_or_say_why_not(written, run, command, units):
    options = ["answer.html"] if command == "report" else ["--json", "a.json"]
    rest = (
        IN_PLIES[: IN_PLIES.index("[model]")]
        .replace("plate", "plate [left]")
        .replace("laminates.plate [left]", 'laminates."plate [left]"')
    )
    code, _, err = run(command, written(EVENTS["states"], rest=rest), *options, "--units", units)
    assert "Traceback" not in err
    assert (code == 0) == (command != "grow"), err


@pytest.mark.parametrize("command", ["report", "solve", "grow"])
def test_other_commands_take_rubber_or_say_why_not(written, run, command):
    options = ["answer.html"] if command == "report" else ["--json", "a.json"]
    rest = IN_RUBBER[: IN_RUBBER.index("[model]")]  # nodes without elements cannot be drawn for a report
    code, _, err = run(command, written(EVENTS["states"], rest=rest), *options)
    assert "Traceback" not in err
    assert (code == 0) == (command != "grow"), err
    assert code == 0 or "expected at least one" in " ".join(err.split()) or "curve" in err


@pytest.mark.parametrize("event", EVENTS)
def test_studies_side_by_side_take_each_kind_of_event(written, run, event):
    rest = REST[: REST.index("[model]")]
    one = written(EVENTS[event], rest=rest)
    other = written(EVENTS["history"], name="other.toml", rest=rest)
    code, _, err = run("side-by-side", one, other, "--json", "a.json")
    assert code == 0, err


BASE = "base [head]"
ON_BASE = (
    REST[: REST.index("[[hot_spots]]")]
    + f"""[[hot_spots]]
name = "toe"
material = "steel"
sn_curve = "bar"

[hot_spots.responses."{BASE}"]
kind = "one degree of freedom"
natural_frequency = "12 Hz"
stress_per_acceleration = "3 MPa/g"
damping_ratio = 0.02
"""
)
NO_FREQUENCY = {name for name in EVENTS if name.split(" ")[0] in ("equal", "programme", "spectrum", "states", "peaks")}
STILL = NO_FREQUENCY | {"history", "two histories in turn", "gated history", "once in ten weeks", "day of its own"}


def on_base(text):
    """An event of the base's acceleration, under a name with brackets."""
    for old, new in (('"force"', f'"{BASE}"'), (" kN", " g"), ("N^2/Hz", "(m/s^2)^2/Hz"), ('"kN"', '"g"')):
        text = text.replace(old, new)
    return text.replace("force =", f'"{BASE}" =')


def accelerations(folder):
    """The files of the events with the acceleration of a base in place of a force."""
    for name in ("lap.csv", "strokes.csv"):
        text = (folder / name).read_text()
        (folder / name).write_text(text.replace("force [kN]", f"{BASE} [g]"))


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize(
    ("command", "options"),
    [
        ("vibration", ("--units", "us", "--channel", BASE)),
        ("tailor", ("--time", "2 h", "--slope", "5", "--units", "us")),
    ],
)
def test_what_shakes_is_looked_at_and_tailored_from_each_kind_of_event(written, run, tmp_path, command, options, event):
    if event == "programme on a sheet":
        return  # its sheet is of forces
    study = written(on_base(EVENTS[event]), rest=ON_BASE)
    accelerations(tmp_path)
    code, out, err = run(command, study, *options, "--json", "a.json", "--csv", "a.csv", "--figures", "figures")
    if event in NO_FREQUENCY | {"gated history"}:
        assert code == 2
        assert "says nothing of frequencies" in " ".join(err.split())
        return
    words = " ".join(err.split())
    if event == "not Gaussian" and command == "tailor":
        assert "expected a Gaussian input" in words
    elif event in ("once in ten weeks", "day of its own"):  # they hold equal cycles too
        assert "says nothing of frequencies" in words
    else:
        assert code == 0, err
        assert json.loads(Path("a.json").read_text())
        assert "None" not in out
        assert list(Path("figures").glob("*.png"))
        assert command != "tailor" or "the test covers the service" in " ".join(out.split())


@pytest.mark.parametrize("event", EVENTS)
@pytest.mark.parametrize(
    ("command", "words"), [("vibration", "nothing that vibrates"), ("tailor", "the acceleration of a base")]
)
def test_a_force_is_looked_at_where_it_vibrates_but_shakes_no_base(written, run, command, words, event):
    asked = ["--time", "2 h", "--slope", "5"] if command == "tailor" else []
    code, out, err = run(
        command, written(EVENTS[event], rest=REST[: REST.index("[model]")]), *asked, "--json", "a.json"
    )
    if command == "vibration" and event not in STILL | {"programme on a sheet"}:
        assert code == 0, err
        assert "None" not in out
        return
    assert code == 2
    assert words in " ".join(err.split())


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
