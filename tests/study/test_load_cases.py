"""Several loads together: a table of events and load cases with factors, in hot spots, cracks and models alike."""

import json
from pathlib import Path

import numpy as np
import pandas as pd
import pint
import pytest

from tests.spots import hot_spot
from vivid_anvil.damage import assess_life
from vivid_anvil.events import BETWEEN_EVENTS, ConstantAmplitude, DutyCycle, Event, GatedHistory, LoadStates
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory, history_from_frame
from vivid_anvil.materials import Material, detail_curve
from vivid_anvil.models import StressField, write_field_table
from vivid_anvil.stress import SeveralLoads
from vivid_anvil.study import read_study, run_model

pytestmark = pytest.mark.slow

HEAD = """format = 2
title = "Bracket, load cases of a static analysis"
target_life = "2000 days"

[duty_cycle]
repeat = "day"

[[duty_cycle.events]]
name = "passengers"
states = { weight = 1, passengers = [0, 1] }
cycles = 120

[[duty_cycle.events]]
name = "gust, loaded"
states = { weight = 1, passengers = 0.8, wind = [-0.6, 1.0, 0.2, 0.5] }
cycles = 300
"""
REST = """
[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"
toughness = "75 MPa√m"

[sn_curves.toe]
standard = "EN 1993-1-9"
class = 71

[growth_laws.air]
rate = "1.65e-11 m/cycle at 1 MPa√m"
slope = 3
threshold = "2 MPa√m"

[[hot_spots]]
name = "toe"
stress_per_load = { weight = "40 MPa", passengers = "85 MPa", wind = "30 MPa" }
material = "steel"
sn_curve = "toe"

[[cracks]]
hot_spot = "toe"
shape = "edge"
plate_width = "90 mm"
initial_size = "1 mm"
law = "air"
detectable_size = "3 mm"

[model]
stresses = "few_nodes.csv"
ignore_cases = ["preload"]
material = "steel"
sn_curve = "toe"
"""
COMMANDS = {
    "check": (),
    "life": (),
    "rules": (),
    "what-if": ("hot_spots/toe/stress_per_load/wind", "20 MPa", "60 MPa"),
    "solve": (),
    "grow": ("--after-damage",),
    "inspections": ("--every", "50 days"),
    "explain": (),
    "model": ("--node", "2", "--nodes", "nodes.vtu"),
}
FIGURES = ("life", "rules", "what-if", "grow", "inspections", "model")
CURVE, STEEL = detail_curve("EN 1993-1-9", 71), Material(name="steel", ultimate_strength=510.0)


@pytest.fixture
def written(tmp_path, monkeypatch):
    """A function: the study with texts replaced, in the working folder."""
    monkeypatch.chdir(tmp_path)
    pull = np.zeros((4, 3, 6))
    pull[:, :, 0] = [[10.0, 40.0, 1.0], [20.0, 85.0, 2.0], [5.0, 30.0, 0.0], [200.0, 300.0, 0.0]]
    pull[2, 2, 3] = 4.0
    places = [[0.0, 0, 0], [4.0, 0, 0], [9.0, 2, 0]]
    names = ["weight", "passengers", "wind", "preload"]
    field = StressField(cases=names, node_ids=[1, 2, 5], coordinates=places, stresses=pull)
    write_field_table(field, tmp_path / "few_nodes.csv")

    def write(*replacements):
        text = HEAD + REST
        for old, new in replacements:
            assert old in text, old
            text = text.replace(old, new, 1)
        (tmp_path / "study.toml").write_text(text)
        return tmp_path / "study.toml"

    return write


def by_hand():
    """Damage of a day: EN 1993-1-9, class 71: ΔS³ N = 71³ 2e6 to 5e6 cycles, then slope 5 to 1e8."""
    knee = 71.0 * (2.0 / 5.0) ** (1.0 / 3.0)
    return 120 / (5e6 * (knee / 85.0) ** 3) + 300 / (5e6 * (knee / 48.0) ** 5)  # 123 - 114 MPa is below the cut-off


def test_factors_on_load_cases_give_the_life_of_a_hand_calculation_and_say_how(written, run):
    code, out, err = run("life", written(), "--json", "a.json")
    assert code == 0, err
    life = json.loads(Path("a.json").read_text())["lives"][0]
    assert life["damage per repeat"] == pytest.approx(by_hand(), rel=1e-9)
    assert life["peak stress [MPa]"] == pytest.approx(40 + 0.8 * 85 + 30)
    assert life["loads"] == "40 MPa × weight + 85 MPa × passengers + 30 MPa × wind"
    _, out, _ = run("explain", "study.toml", "--event", "gust, loaded")
    assert "= 40 MPa × 1 + 85 MPa × 0.8 + 30 MPa × 1\n        = 138 MPa" in out
    assert "= 40 MPa × 1 + 85 MPa × 0.8 + 30 MPa × (-0.6)\n        = 90 MPa" in out


def test_a_node_with_the_same_stresses_lives_as_the_hot_spot(written, run):
    study = read_study(written())
    found = run_model(study)
    assert found.values.damage[1] == pytest.approx(by_hand(), rel=1e-9)
    code, out, err = run("model", "study.toml", "--node", "2")
    assert code == 0, err
    assert "Load over unit load of the case wind" in out


@pytest.mark.parametrize("command", COMMANDS)
def test_each_command_takes_them(written, run, command):
    options = [*COMMANDS[command], "--json", "a.json", "--csv", "a.csv"]
    code, out, err = run(command, written(), *options, *(["--figures", "f"] if command in FIGURES else []))
    assert code == 0, err
    assert json.loads(Path("a.json").read_text())
    assert "None" not in out


@pytest.mark.parametrize("between", BETWEEN_EVENTS)
def test_states_of_one_load_are_equal_cycles_whatever_happens_between_events(between):
    def life(load):
        day = DutyCycle("day", (Event("one", load, 3), Event("other", other, 2)), between=between)
        return assess_life(spot, day)

    spot = hot_spot(name="toe", channel="force", stress_per_load="10 MPa/kN", curve=CURVE, material=STEEL)
    other = ConstantAmplitude.from_range("force", "14 kN", r_ratio=-0.5, cycles=7)
    equal = ConstantAmplitude.from_maximum("force", "9 kN", minimum="-2 kN", cycles=50)
    one, same = life(equal), life(LoadStates.of({"force": ["-2 kN", "9 kN"]}, cycles=50))
    assert same.damage_per_repeat == pytest.approx(one.damage_per_repeat, rel=1e-12)


def test_channels_of_a_history_act_together_as_their_sum():
    t = np.arange(3000) / 50.0
    vertical, lateral = 9.0 + 4.0 * np.sin(2.1 * t), 2.0 * np.sin(5.3 * t + 1.0)
    lap = history_from_frame(pd.DataFrame({"time [s]": t, "vertical [kN]": vertical, "lateral [kN]": lateral}))
    summed = history_from_frame(pd.DataFrame({"time [s]": t, "stress [MPa]": 7.0 * vertical - 12.0 * lateral}))
    several = hot_spot(
        name="toe",
        stress_per_load={"vertical": "7 MPa/kN", "lateral": "-12 MPa/kN"},
        curve=CURVE,
        material=STEEL,
        notch_factor=1.2,
        offset="5 MPa",
    )
    alone = hot_spot(
        name="toe", channel="stress", stress_per_load=1.0, curve=CURVE, material=STEEL, notch_factor=1.2, offset="5 MPa"
    )
    one = assess_life(several, DutyCycle("lap", (Event("lap", lap, 5),), 100.0))
    other = assess_life(alone, DutyCycle("lap", (Event("lap", summed, 5),), 100.0))
    assert one.damage_per_repeat == pytest.approx(other.damage_per_repeat, rel=1e-9)
    assert one.lowest_stress == pytest.approx(other.lowest_stress)
    assert {finding.code for finding in one.findings} == {finding.code for finding in other.findings}


@pytest.mark.parametrize(
    ("old", "new", "said"),
    [
        ("wind = [-0.6", "wnd = [-0.6", "did you mean 'wnd'"),
        ('name = "toe"\nstress', 'name = "toe"\nchannel = "wind"\nstress', "Leave it out"),
        ('{ weight = "40 MPa", passengers = "85 MPa", wind = "30 MPa" }', '"40 MPa"', "found none"),
        ("passengers = [0, 1]", "passengers = [0, 1], wind = [0, 1, 2]", "as another load has, or one value"),
        ("passengers = [0, 1]", "passengers = 1", "two or more for at least one load"),
        ("passengers = [0, 1]", 'passengers = [0, "1 kN"]', "values of one dimension"),
        ("passengers = [0, 1]", "passengers = [0, nan]", "found 'nan'"),
        ('wind = "30 MPa"', 'wind = "30 MPa/kN"', "wind"),
        ('wind = "30 MPa" }', 'wind = "30 MPa", snow = "3 MPa" }', "no channel 'snow'"),
        ("cycles = 120", "cycles = 0", "cycles"),
        ('"preload"', '"prelod"', "preload"),
        ('ignore_cases = ["preload"]', "", "name it in ignore_cases"),
    ],
)
def test_slips_are_told(written, run, old, new, said):
    code, out, err = run("life", written((old, new)))
    assert code == 2, out
    assert said.lower() in " ".join(err.split()).lower(), err


def test_what_cannot_go_together_is_refused():
    both = SeveralLoads({"force": "3 MPa/kN", "moment": "1 MPa/kN"})
    pull = ConstantAmplitude.from_range("force", "9 kN", cycles=3)
    with pytest.raises(InputError, match="no channel 'moment'"):
        both.seen(pull, "pull")
    alone = SeveralLoads({"force": "3 MPa/kN"})
    assert alone.seen(pull, "pull").cycles_of(str(alone)).range == pytest.approx([27.0])
    lap = LoadHistory("lap", [Channel("force", np.array([0.0, 9.0, 0.0]), "force")], 1.0)
    with pytest.raises(InputError, match="a gate"):
        alone.seen(GatedHistory(lap, {"force": 2.0}), "lap")
    with pytest.raises(InputError, match="no channel"):
        SeveralLoads({})


def test_quantities_are_stresses_and_loads_in_their_unit():
    unit = pint.UnitRegistry()

    def life(per_load, states):
        spot = hot_spot(name="toe", stress_per_load={"pull": per_load}, curve=CURVE, material=STEEL)
        day = DutyCycle("day", (Event("one", LoadStates.of({"pull": states}, cycles=9)),))
        return json.dumps(assess_life(spot, day).to_dict()), assess_life(spot, day).peak_stress

    wanted = life("10 ksi/kip", ["0 kip", "2 kip"])[1]
    for states in ([0 * unit.kip, 2 * unit.kip], np.array([0.0, 2.0]) * unit.kip):
        assert life(10 * unit.ksi / unit.kip, states)[1] == pytest.approx(wanted, rel=1e-12)
    assert wanted == pytest.approx(137.8951, rel=1e-6)
    for odd in ([1, 2], None, True, float("nan")):
        with pytest.raises(InputError):
            life(odd, ["0 kip", "2 kip"])
    with pytest.raises(InputError, match="feels no load"):
        life("0 MPa/kN", ["0 kip", "2 kip"])
