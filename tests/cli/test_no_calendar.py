"""A study without a calendar: lives in its repeats, in every answer; durations as stated; units of time by size."""

import json
import re
from pathlib import Path

import pytest

import vivid_anvil as va
from tests.cli.events import CHANNEL, COMMANDS, EVENT, FIGURES, HEAD, LAP_EVENT, REST
from vivid_anvil.events.calendar import Calendar, plural

pytestmark = pytest.mark.slow

NO_CALENDAR = HEAD.replace("repeats_per_year = 50\n", "").replace('"20 years"', '"50 000 passes"')
PASSES = NO_CALENDAR.replace('repeat = "week"', 'repeat = "pass"')
EQUAL = EVENT.format("pull", 7) + CHANNEL + 'range = "9 kN"\nr_ratio = 0.0\ncycles = 100\n'
ASKED = COMMANDS | {"inspections": ("--every", "40 passes"), "what-if": ("load scale", "0.9", "1.1")}


@pytest.mark.parametrize("command", ASKED)
def test_every_answer_is_in_repeats(written, run, command):
    study = written(EQUAL, head=PASSES)
    drawn = ("--figures", "figures") if command in FIGURES else ()
    code, out, err = run(command, study, *ASKED[command], "--json", "a.json", *drawn)
    assert code == 0, err
    words = " ".join(out.split())
    assert "passes" in words or command in ("solve", "model")
    assert not re.search(r"\byears?\b|passs|None", words), words
    assert re.search(r'_years": (?!null)', Path("a.json").read_text()) is None


def test_side_by_side_one_with_and_one_without(written, run):
    short = REST[: REST.index("[model]")]
    one, other = written(EQUAL, head=PASSES, rest=short), written(EQUAL, name="other.toml", rest=short)
    code, out, err = run("side-by-side", one, other)
    assert code == 0, err
    assert re.search(r"[\d.e]+ passes +[\d.e]+ years", out)


def test_the_same_life_with_and_without_a_calendar(written, run):
    run("life", written(EQUAL), "--json", "with.json")
    run("life", written(EQUAL, head=PASSES), "--json", "without.json")
    (have,), (lack,) = (json.loads(Path(f"{name}.json").read_text())["lives"] for name in ("with", "without"))
    assert have["life [repeats]"] == lack["life [repeats]"]
    assert have["life [years]"] == pytest.approx(have["life [repeats]"] / 50)
    assert lack["used at target"] == pytest.approx(50_000 / lack["life [repeats]"])


@pytest.mark.parametrize("target", ['"50_000"', '"5e4"', '"50 000 passes"', "50000", '"5e4 pass"'])
def test_a_target_in_repeats_reads_as_written_on_paper(written, run, target):
    code, out, err = run("life", written(EQUAL, head=PASSES.replace('"50 000 passes"', target)))
    assert code == 0, err
    assert "Target life  50000 passes" in out
    assert re.search(r"Target 50000 passes (met|missed): [\d.]+ % used", " ".join(out.split()))
    out = run("solve", written(EQUAL, head=PASSES.replace('"50 000 passes"', target)))[1]
    assert re.search(r"to meet 50.?000 passes|to meet 5e4 pass", out)


@pytest.mark.parametrize(
    ("target", "words"),
    [("20 years", "repeats_per_year"), ("200 h", "duration"), ("200 laps", "pass"), ("5 0 passes", "passes")],
)
def test_a_target_that_cannot_be_told_is_refused(written, run, target, words):
    code, _, err = run("life", written(EQUAL, head=PASSES.replace("50 000 passes", target)))
    assert code == 2
    assert words in err


@pytest.mark.parametrize("stated", ["of the repeat", "of the event"])
def test_a_stated_duration_gives_hours(written, run, stated):
    head = PASSES + ('repeat_duration = "30 s"\n' if stated == "of the repeat" else "")
    events = EQUAL + ("" if stated == "of the repeat" else 'duration = "0.5 min"\n')
    code, out, err = run("life", written(events, head=head), "--json", "a.json")
    assert code == 0, err
    (spot,) = json.loads(Path("a.json").read_text())["lives"]
    seconds = 30.0 if stated == "of the repeat" else 7 * 30.0
    assert spot["life [h]"] == pytest.approx(spot["life [repeats]"] * seconds / 3600.0)
    assert re.search(r"Life +[\d.e]+ passes = [\d.e]+ h\b", out)


@pytest.mark.parametrize("where", ["event", "repeat"])
def test_a_duration_beside_a_known_one_is_refused(written, run, where):
    head = PASSES + ('repeat_duration = "30 s"\n' if where == "repeat" else "")
    events = LAP_EVENT + ('duration = "30 s"\n' if where == "event" else "")
    code, _, err = run("life", written(events, head=head))
    assert code == 2
    assert "one of both" in err


def test_occurrences_are_one_where_none_are_stated(written, run):
    for name, text in (
        ("one", EVENT.format("pull", 1)),
        ("none", EVENT.format("pull", 1).replace("occurrences = 1\n", "")),
    ):
        code, _, err = run("life", written(text + EQUAL.split("\n", 3)[3], head=PASSES), "--json", f"{name}.json")
        assert code == 0, err
    one, none = (json.loads(Path(f"{name}.json").read_text())["lives"] for name in ("one", "none"))
    assert one == none


def test_a_life_of_hours_is_not_told_in_millionths_of_years():
    hours = Calendar("hour", 8766.0)
    assert hours.in_all_units(67.0, 1.0) == "67 hours = 2.792 days"
    assert Calendar("exposure", 1.0).in_all_units(68.24, 0.1) == "68.24 exposures = 6.824 h = 68.24 years"
    assert Calendar("year", 1.0).in_all_units(40.0) == "40 years"
    assert Calendar("day", 250.0).text(3.0) == "0.012 years"  # a working day is no day of the calendar
    assert Calendar("lap", None).in_all_units(1.0) == "1 lap"


def test_a_repeat_may_have_any_name(written, run):
    head = NO_CALENDAR.replace('"week"', '"block [7]"').replace('"50 000 passes"', "50000")
    out = " ".join(run("life", written(EQUAL, head=head))[1].split())
    assert "Target life 50000 block [7]s" in out


@pytest.mark.parametrize("word", ["lap", "pass", "cycles", "box", "duty", "day", "batch"])
def test_plurals_have_one_s_and_stay(word):
    many = plural(word)
    assert many.endswith("s")
    assert not many.endswith(("sss", "xs", "chs", "ys")) or word == "day"
    assert plural(many) == many


def test_python_needs_no_calendar():
    pull = va.ConstantAmplitude.from_range("force", "9 kN", r_ratio=0.0, cycles=100)
    block = va.DutyCycle("block", [va.Event("pull", pull, 7, duration="30 s")])
    assert block.hours == pytest.approx(7 / 120)
    assert block.repeats_in("5e4") == block.repeats_in("50 000 blocks") == 5e4
    assert repr(block) == "<DutyCycle: 1 event per block, 0.05833 h>"
    assert va.DutyCycle("block", [va.Event("pull", pull)], repeat_duration="1 min").hours == pytest.approx(1 / 60)
