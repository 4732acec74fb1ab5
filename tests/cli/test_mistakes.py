"""The usual mistakes of the trade, one test each: the product says the sentence that helps, where the user looks."""

import json
from pathlib import Path

import numpy as np
import pytest

from tests.cli.events import CHANNEL, EVENT, EVENTS, REST
from tests.study.texts import few_nodes
from vivid_anvil.models import StressField, write_field_table

pytestmark = pytest.mark.slow

SHORT = REST[: REST.index("[model]")]
LAP = EVENTS["history"]
EQUAL = EVENT.format("test", 7) + CHANNEL + 'range = "9 kN"\nr_ratio = 0.0\ncycles = 100\n'


def rest(*changes, text=SHORT):
    for old, new in changes:
        assert old in text, old
        text = text.replace(old, new, 1)
    return text


KNEE = 'knee_stress = "60 MPa"'
PER_LOAD = 'stress_per_load = "10 MPa/kN"'
BAR = SHORT[SHORT.index("[sn_curves.bar]") : SHORT.index("[growth_laws.air]")]
NO_RULE = rest(('mean_stress = "goodman"', ""))
YIELD = 'yield_strength = "355 MPa"'
TABLE = (
    '[sn_curves.bar]\nstress = "amplitude"\nr_ratio = -1\npoints = [["300 MPa", 1e4], ["55 MPa", 5e5]]\n'
    'above = "extend"\nbelow = "{}"\n\n'
)
WELD = '[sn_curves.bar]\nstress = "range"\nr_ratio = "any"\nknee_stress = "{}"\nknee_life = 5e6\nslope = 3\nslope_below = 5\n\n'

# Mistake: command, events, the rest of the study, words of the sentence.
FOUND = {
    "curve in Pa read as MPa": ("life", LAP, rest((KNEE, 'knee_stress = "60e6 MPa"')), "outside what materials bear"),
    "curve in Pa, seen by check": (
        "check",
        LAP,
        rest((KNEE, 'knee_stress = "60e6 MPa"')),
        "outside what materials bear",
    ),
    "curve in MPa read as Pa": ("life", LAP, rest((KNEE, 'knee_stress = "60 Pa"')), "outside what materials bear"),
    "load in N headed kN": ("life", EQUAL.replace("9 kN", "9000 kN"), NO_RULE, "times the ultimate strength"),
    "load in kN headed N": ("life", EQUAL.replace("9 kN", "9 N"), SHORT, "of the amplitude that first does damage"),
    "load in kN headed N, seen by check": ("check", EQUAL.replace("9 kN", "9 N"), SHORT, "first does damage"),
    "stress per load in Pa": ("life", LAP, rest((PER_LOAD, 'stress_per_load = "10 Pa/kN"')), "first does damage"),
    "kN/cm2 read as MPa": ("life", LAP, rest((KNEE, 'knee_stress = "6 MPa"')), "0.05 to 0.6 is usual"),
    "ksi read as MPa, strength": (
        "life",
        LAP,
        rest(
            ('ultimate_strength = "510 MPa"', 'ultimate_strength = "74 MPa"'),
            ('yield_strength = "355 MPa"', 'yield_strength = "51 MPa"'),
        ),
        "above the ultimate strength",
    ),
    "limit called yield": (
        "life",
        LAP,
        rest(('yield_strength = "355 MPa"', 'yield_strength = "60 MPa"')),
        "or the fatigue limit?",
    ),
    "amplitude for range": (
        "life",
        LAP,
        rest((BAR, WELD.format("600 MPa")), ('mean_stress = "goodman"', "")),
        "range or an amplitude",
    ),
    "weld class far too low": (
        "life",
        LAP,
        rest((BAR, WELD.format("5 MPa")), ('mean_stress = "goodman"', "")),
        "times the ultimate strength",
    ),
    "table end decides the damage": (
        "life",
        LAP,
        rest((BAR, TABLE.format("no damage"))),
        "only because the S-N curve ends at",
    ),
    "table end decides the reserve": (
        "life",
        EQUAL,
        rest((BAR, TABLE.format("no damage"))),
        "decided by where the table ends",
    ),
    "extension decides the reserve": (
        "life",
        EQUAL.replace("9 kN", "6 kN"),
        rest((BAR, TABLE.format("extend"))),
        "the reserve rests on its last line",
    ),
    "semi-log line to zero": (
        "life",
        EQUAL.replace("9 kN", "6 kN"),
        rest((BAR, TABLE.format("extend").replace("above =", 'interpolation = "semi-log"\nabove ='))),
        "which soon reaches 0",
    ),
    "R of the curve": ("life", LAP, rest(('mean_stress = "goodman"', "")), "no mean-stress rule is set"),
    "above yield": ("life", EQUAL.replace("9 kN", "40 kN"), SHORT, "above the yield strength"),
    "more than a year in a year": ("life", LAP.replace("300", "300000"), SHORT, "a year has 8766 h"),
    "crack in the wrong unit": (
        "grow",
        LAP,
        rest(('initial_size = "1 mm"', 'initial_size = "0.001 mm"')),
        "Is the unit right?",
    ),
    "constants of a law for metres": ("grow", LAP, rest(("1.65e-11 m/cycle", "1.65e-11 mm/cycle")), "MPa√m or MPa√mm"),
    "constants of a law, the other way": ("grow", LAP, rest(("1 MPa√m", "1 MPa√mm")), "MPa√m or MPa√mm"),
}
# Mistake: command, events, rest, words of the error.
REFUSED = {
    "load in N headed kN, with a rule": ("life", EQUAL.replace("9 kN", "9000 kN"), SHORT, "would fail statically"),
    "millipascal": ("life", LAP, rest((KNEE, 'knee_stress = "60 mPa"')), "mPa is a millipascal"),
    "no unit": ("life", LAP, rest((KNEE, "knee_stress = 60")), "without a unit"),
    "exponent for slope": ("life", LAP, rest(("slope = 5", "slope = -0.2")), "the slope is 5"),
    "exponent for slope, sign lost": ("life", LAP, rest(("slope = 5", "slope = 0.2")), "the slope is 5"),
    "logarithm of the life": ("life", LAP, rest(("knee_life = 2e6", "knee_life = 0.3")), "logarithm"),
    "both range and amplitude": (
        "life",
        EQUAL.replace('range = "9 kN"', 'range = "9 kN"\namplitude = "4 kN"'),
        SHORT,
        "exactly one of",
    ),
    "crack in metres": ("grow", LAP, rest(('initial_size = "1 mm"', 'initial_size = "1 m"')), "Is the unit right?"),
    "yield above ultimate": (
        "life",
        LAP,
        rest(('yield_strength = "355 MPa"', 'yield_strength = "655 MPa"')),
        "exchanged",
    ),
    "percent for a share": (
        "life",
        LAP,
        rest(("slope_below = 9", "slope_below = 9\nsurvival_probability = 97.7")),
        "0.977",
    ),
    "decimal comma": ("life", LAP, rest((KNEE, 'knee_stress = "60,5 MPa"')), "a decimal point"),
    "mass for force": ("life", EQUAL.replace("9 kN", "9 kg"), SHORT, "a mass"),
}


@pytest.mark.parametrize("name", FOUND)
def test_the_mistake_is_found(written, run, name):
    command, events, study, words = FOUND[name]
    code, out, err = run(command, written(events, rest=study), "--json", "a.json")
    assert code == 0, err
    assert words in " ".join(out.split())
    assert words in Path("a.json").read_text(encoding="utf-8")


@pytest.mark.parametrize("name", REFUSED)
def test_the_mistake_is_refused_with_what_was_meant(written, run, name):
    command, events, study, words = REFUSED[name]
    code, _, err = run(command, written(events, rest=study))
    assert code == 2
    assert words in " ".join(err.split())


def test_a_sound_study_gets_none_of_these(written, run):
    code, out, _ = run("check", written(LAP, rest=SHORT))
    assert code == 0
    assert "The study is sound." in " ".join(out.split())


def test_bins_too_coarse_are_found(written, run):
    written(LAP, rest=SHORT)
    code, out, _ = run("count", "lap.csv", "--matrix", "range-mean", "--classes", "4")
    assert code == 0
    assert "Use more classes" in " ".join(out.split())


def test_averaged_elements_that_disagree_are_found(written, run):
    """Two elements of one node: 60 and 20 MPa."""
    study = written(LAP)
    whole = few_nodes()
    spread = np.array([0.5, 0.5, 0.0])
    field = StressField(
        cases=whole.cases,
        node_ids=whole.node_ids,
        coordinates=whole.coordinates,
        stresses=whole.stresses,
        spread=spread,
    )
    write_field_table(field, Path("few_nodes.csv"))
    rows = Path("few_nodes.csv").read_text().splitlines()
    head = rows[0].replace("node", "node,element", 1)
    both = [head] + [
        f"{row.split(',')[0]},{element},{','.join(row.split(',')[1:])}" for row in rows[1:] for element in (1, 2)
    ]
    both[4] = both[4].replace("60", "20")
    Path("few_nodes.csv").write_text("\n".join(both) + "\n")
    code, out, err = run("model", study)
    assert code == 0, err
    assert "the elements disagree" in " ".join(out.split())


@pytest.mark.parametrize(
    "command", [("rules",), ("what-if", "load scale", "0.9"), ("solve",), ("inspections",), ("explain",), ("grow",)]
)
def test_every_answer_tells_its_gravest_finding(written, run, command):
    small = command[0] == "inspections"  # a crack far too short for its law; else a peak above yield
    force, text = ("20 kN", rest(("1 mm", "0.09 mm"))) if small else ("38 kN", SHORT)
    study = written(EQUAL.replace("9 kN", force), rest=text)
    code, out, err = run(command[0], study, *command[1:], "--json", "a.json")
    assert code == 0, err
    words = " ".join(out.split())
    assert "severe:" in words or "warning:" in words
    assert '"severity"' in json.dumps(json.loads(Path("a.json").read_text()))


def test_studies_side_by_side_tell_theirs(written, run):
    one = written(LAP, rest=SHORT)
    other = written(EQUAL.replace("9 kN", "80 kN"), rest=SHORT, name="other.toml")
    code, out, _ = run("side-by-side", one, other)
    assert code == 0
    assert "severe:" in " ".join(out.split())
