"""Equal cycles in every notation that a drawing or a static result gives, and load factors without unit."""

import json
import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import vivid_anvil as va
from tests.cli.events import CHANNEL, COMMANDS, EVENT, REST
from tests.spots import hot_spot
from vivid_anvil.events import ConstantAmplitude

pytestmark = pytest.mark.slow

SHORT = REST[: REST.index("[model]")]
# One cycle, from 1 to 9 kN: each pair of numbers that says so.
SAME = [
    'range = "8 kN"\nmean = "5 kN"',
    'amplitude = "4 kN"\nmean = "5 kN"',
    'range = "8 kN"\nr_ratio = 0.1111111111111111',
    'maximum = "9 kN"\nminimum = "1 kN"',
    'maximum = "9 kN"\nr_ratio = 0.1111111111111111',
    'maximum = "9000 N"\nminimum = "1 kN"',
]


def of(words):
    return EVENT.format("pull", 7) + CHANNEL + words + "\ncycles = 100\n"


def spot(run, study):
    code, _, err = run("life", study, "--json", "a.json")
    assert code == 0, err
    return json.loads(Path("a.json").read_text())["lives"][0]


def test_every_notation_of_one_cycle_gives_one_life(written, run):
    lives = [spot(run, written(of(words), rest=SHORT))["life [repeats]"] for words in SAME]
    assert lives == pytest.approx([lives[0]] * len(SAME), rel=1e-12)


def test_a_load_that_only_presses_has_r_minus_infinity(written, run):
    """0 to -9 kN, as a static result gives it, by its limits and by R."""
    by_limits = spot(run, written(of('maximum = "0 kN"\nminimum = "-9 kN"'), rest=SHORT))
    by_ratio = spot(run, written(of('range = "9 kN"\nr_ratio = -inf'), rest=SHORT))
    assert by_limits["lowest stress [MPa]"] == -90.0
    assert by_limits["peak stress [MPa]"] == 0.0
    assert by_limits["life [repeats]"] == by_ratio["life [repeats]"]


@pytest.mark.parametrize(
    ("words", "said"),
    [
        ('range = "8 kN"', "range alone"),
        ('range = "8 kN"\nmean = "5 kN"\nr_ratio = 0.1', "r_ratio and mean"),
        ('range = "8 kN"\nmean = "5 MPa"', "as the other one is"),
        ('maximum = "9 kN"', "maximum alone"),
        ('maximum = "9 kN"\nminimum = "1 kN"\nr_ratio = 0', "with one of minimum, r_ratio"),
        ('maximum = "9 kN"\nminimum = "12 kN"', "a minimum below the maximum"),
        ('maximum = "0 kN"\nr_ratio = 0', "a minimum below the maximum"),
        ('maximum = "9 kN"\nmean = "5 kN"', "It goes with another kind"),
        ('maximum = "9 kN"\nrange = "5 kN"', "exactly one of"),
        ('minimum = "9 kN"\nr_ratio = 0', "exactly one of"),
        ('range = "8"\nr_ratio = 0', "MPa/kN"),
    ],
)
def test_numbers_that_make_no_cycle_are_refused(written, run, words, said):
    code, _, err = run("life", written(of(words), rest=SHORT))
    assert code == 2
    assert said in " ".join(err.split()).replace("r_ ratio", "r_ratio"), err


@given(low=st.floats(-1e3, 1e3), size=st.floats(1e-3, 1e3))
def test_limits_mean_and_ratio_agree(low, size):
    high = low + size
    cycle = ConstantAmplitude.from_maximum("stress", (high, "MPa"), minimum=(low, "MPa"))
    other = ConstantAmplitude.from_amplitude(
        "stress", (0.5 * (cycle.maximum - cycle.minimum), "MPa"), mean=(0.5 * (cycle.maximum + cycle.minimum), "MPa")
    )
    near = pytest.approx
    assert (other.maximum, other.minimum) == (near(cycle.maximum, abs=1e-9), near(cycle.minimum, abs=1e-9))
    if abs(high) > 1e-3 and low / high not in (1.0,) and math.isfinite(low / high) and high > 0:
        ratio = ConstantAmplitude.from_maximum("stress", (high, "MPa"), r_ratio=low / high)
        assert ratio.minimum == near(cycle.minimum, abs=1e-9)


@pytest.mark.parametrize("factor", ['"1"', "1", "1.0"])
@pytest.mark.parametrize("command", COMMANDS)
def test_a_load_factor_needs_no_unit(written, run, command, factor):
    """The stress of the static result at full load, 90 MPa, times a factor from 0 to 1."""
    rest = REST.replace("10 MPa/kN", "90 MPa").replace('unit_load = "10 kN"', 'unit_load = "1"')
    study = written(
        of(f"maximum = {factor}\nminimum = 0").replace('"force"', '"factor"'), rest=rest.replace('"force"', '"factor"')
    )
    code, _, err = run(command, study, *COMMANDS[command])
    assert code == 0, err
    if command == "life":
        assert spot(run, study)["peak stress [MPa]"] == 90.0


def test_a_header_of_a_factor_is_one(written, run):
    study = written(
        EVENT.format("lap", 300) + 'history = "factor.csv"\n',
        rest=SHORT.replace("10 MPa/kN", "90 MPa").replace('"force"', '"factor"'),
    )
    Path("factor.csv").write_text("time [s],factor [1]\n0,0\n1,1\n2,0.2\n3,0.9\n4,0\n")
    assert spot(run, study)["peak stress [MPa]"] == 90.0


def test_python_takes_the_same():
    steel = va.Material(name="steel", ultimate_strength="510 MPa", yield_strength="355 MPa")
    curve = va.knee_curve(
        name="bar", stress="amplitude", r_ratio=-1, knee_stress="60 MPa", knee_life=2e6, slope=5, slope_below=9
    )
    place = hot_spot(name="toe", channel="factor", stress_per_load="90 MPa", material=steel, curve=curve)
    full = va.ConstantAmplitude.from_maximum("factor", 1, minimum=-1, cycles=100)
    life = va.assess_life(place, va.DutyCycle("block", [va.Event("full load", full)]))
    assert life.peak_stress == 90.0
    assert life.life_repeats == pytest.approx(2e6 * (60.0 / 90.0) ** 5 / 100.0, rel=1e-12)
    assert life.life_years is None
