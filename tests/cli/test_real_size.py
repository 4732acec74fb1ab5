"""Studies of real size: many hot spots, many events, long names; what is said stays short, and the worst comes first."""

import json
import re

import pytest
from rich.cells import cell_len

from vivid_anvil.study import read_study, run_study

pytestmark = pytest.mark.slow

SPOTS, EVENTS = 25, 40
HEAD = """format = 2
title = "Larkfell chairlift, return station, all welded details of the support frame"
target_life = "25 years"
[materials.plate]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"
toughness = "80 MPa√m"
[sn_curves.toe]
stress = "range"
r_ratio = "any"
point_stress = "80 MPa"
point_life = 2e6
slope = 3
[growth_laws.air]
rate = "5.21e-13 mm/cycle at 1 MPa√mm"
slope = 3
[duty_cycle]
repeat = "day"
repeats_per_year = 180
"""
EVENT = """[[duty_cycle.events]]
name = "crossing of a loaded carrier at wind class {0} with the brake of station {1}"
channel = "frame force"
range = "{2} kN"
r_ratio = 0.1
cycles = {3}
"""
SPOT = """[[hot_spots]]
name = "bracing node {0}, weld toe at the transverse stiffener of bay {0}"
channel = "frame force"
stress_per_load = "{1:.3f} MPa/kN"
material = "plate"
sn_curve = "toe"
"""
CRACK = """[[cracks]]
hot_spot = "bracing node {0}, weld toe at the transverse stiffener of bay {0}"
shape = "centre"
plate_width = "200 mm"
initial_size = "2 mm"
detectable_size = "4 mm"
law = "air"
"""


@pytest.fixture(scope="module")
def large(tmp_path_factory):
    events = [EVENT.format(i, i % 3, 10 + i, max(1, int(4000 / (1 + i) ** 1.8))) for i in range(EVENTS)]
    spots = [SPOT.format(i, 0.5 + 2.5 * ((7 * i) % SPOTS) / SPOTS) for i in range(SPOTS)]
    cracks = [CRACK.format(i) for i in range(0, 12, 2)]
    path = tmp_path_factory.mktemp("large") / "large.toml"
    path.write_text(HEAD + "".join(events + spots + cracks))
    return path


@pytest.mark.parametrize("columns", [80, 160])
def test_lives_come_worst_first_and_stay_short(run, large, columns, tmp_path, monkeypatch):
    monkeypatch.setenv("COLUMNS", str(columns))
    code, out, _ = run("life", large, "--figures", tmp_path / "f", "--json", tmp_path / "all.json")
    lines = [line for line in out.splitlines() if not line.startswith("Written")]
    assert code == 0
    assert len(lines) < (320 if columns == 80 else 160)
    assert max(map(cell_len, lines)) <= columns
    lives = sorted(run_study(read_study(large)).lives, key=lambda one: one.life_repeats)
    order = [f"bay {one.hot_spot.name.rpartition(' ')[2]}" for one in lives]
    table = " ".join(out.partition("\n\nbracing node")[0].split())
    places = [re.search(rf"{bay}\b", table).start() for bay in order] if columns == 160 else [0]
    assert places == sorted(places)
    assert f"{EVENTS} events, {EVENTS} in all" in out
    assert f"{SPOTS - 3} hot spots are not told in full" in out
    assert len(list((tmp_path / "f").iterdir())) == 3
    assert len(json.loads((tmp_path / "all.json").read_text())["lives"]) == SPOTS


def test_the_events_that_matter_are_told_and_all_others_summed(run, large, monkeypatch):
    monkeypatch.setenv("COLUMNS", "160")
    life = min(run_study(read_study(large)).lives, key=lambda one: one.life_repeats)
    out = run("life", large, "--spot", life.hot_spot.name)[1]
    told = re.findall(r"^crossing of .* (\S+)% $", out, re.MULTILINE)
    rest = float(re.search(r"^all others \(32\) .* (\S+)% $", out, re.MULTILINE)[1])
    assert len(told) == 8
    assert [float(one) for one in told] == sorted(map(float, told), reverse=True)
    assert sum(map(float, told)) + rest == pytest.approx(100.0, abs=0.5)


def test_more_or_one_on_request(run, large, tmp_path):
    code, out, _ = run("life", large, "--details", 5, "--figures", tmp_path / "f")
    assert (code, out.count("local peak"), len(list((tmp_path / "f").iterdir()))) == (0, 5, 5)
    assert run("life", large, "--details", 0)[1].count("local peak") == 0
    assert "not told in full" not in run("life", large, "--details", SPOTS)[1]


def test_the_other_commands_stay_short_too(run, large, tmp_path):
    for words, most in (
        (["what-if", large, "load scale", "0.9", "1.1"], 110),
        (["check", large], 420),
        (["grow", large, "--figures", tmp_path / "g"], 200),
        (["inspections", large], 100),
    ):
        code, out, err = run(*words)
        lines = [line for line in out.splitlines() if not line.startswith("Written")]
        assert code == 0, err
        assert len(lines) <= most, words
        assert max(map(cell_len, lines)) <= 80, words
    out = run("what-if", large, "load scale", "1.1")[1]
    assert f"{SPOTS - 6} more hot spots live longer" in " ".join(out.split())
    grown = run("grow", large)[1]
    assert "3 of 6 cracks are not told in full" in grown
    assert len(list((tmp_path / "g").iterdir())) == 9
