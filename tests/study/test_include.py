"""Studies that include another one; several side by side; the template and the schema."""

import csv
import json
import tomllib

import jsonschema
import pytest

from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import LOADS
from vivid_anvil.study import compare_studies, read_study, run_study, study_schema, write_template
from vivid_anvil.study.curve_keys import FORMS, leading_key
from vivid_anvil.study.event_keys import EVENT_FORMS
from vivid_anvil.study.key_words import CHOICES, KEYS, choices_of
from vivid_anvil.study.models import study_file

pytestmark = pytest.mark.slow

WELD = "weld toe at the grip head"
CHANGES = """
title = "a better weld"
[sn_curves.fillet_weld]
class = 80
[[duty_cycle.events]]
name = "empty lap"
occurrences = 900
[[hot_spots]]
name = "bend of the tube"
leave_out = true
[[hot_spots]]
name = "second toe"
channel = "vertical force"
stress_per_load = "20 MPa/kN"
material = "plate_steel"
sn_curve = "fillet_weld"
"""


@pytest.fixture
def variant(demo_file, tmp_path):
    """A function: a study in a folder of its own that includes the demo."""

    def made(text=CHANGES, name="better.toml"):
        folder = tmp_path / "variants"
        folder.mkdir(exist_ok=True)
        (folder / name).write_text(f'include = "{demo_file}"\n{text}')
        return folder / name

    return made


def test_what_is_changed_is_changed_and_the_rest_is_that_of_the_other(variant, demo_result):
    study = read_study(variant())
    assert study.title == "a better weld"
    assert [spot.name for spot in study.hot_spots] == [WELD, "bore of the suspension pin", "second toe"]
    assert [event.occurrences for event in study.duty_cycle.events] == [1667, 900, 5]
    assert study.curves["fillet_weld"].stress_at(2e6) == pytest.approx(80.0)
    assert study.data["materials"] == demo_result.study.data["materials"]
    assert run_study(study).life_of(WELD).life_years > demo_result.life_of(WELD).life_years


def test_an_include_of_an_include_finds_its_files(variant, tmp_path):
    first = variant('title = "first"\n', "first.toml")
    second = tmp_path / "second.toml"
    second.write_text('include = "variants/first.toml"\ntarget_life = "25 years"\n')
    study = read_study(second)
    assert (study.title, study.target_life) == ("first", "25 years")
    assert first.exists()


BAD = {
    "missing": ('include = "none.toml"\n', "none.toml: found no such file"),
    "number": ("include = 5\n", "the name of a study file"),
    "itself": ('include = "bad.toml"\n', "a circle: bad.toml includes bad.toml"),
    "circle": ('include = "other.toml"\n', "a circle: bad.toml includes other.toml includes bad.toml"),
    "left out": ('include = "{demo}"\n[[hot_spots]]\nname = "arm"\nleave_out = true\n', "an entry to leave out"),
    "misspelt": ('include = "{demo}"\n[sn_curves.fillet_weld]\nclas = 80\n', "Did you mean 'class'"),
    "two forms": ('include = "{demo}"\n[sn_curves.fillet_weld]\nknee_life = 5e6\n', "two ways to write a curve"),
}  # fmt: skip


@pytest.mark.parametrize(("text", "message"), BAD.values(), ids=BAD)
def test_an_include_that_cannot_be_meant_is_refused(demo_file, tmp_path, text, message):
    (tmp_path / "other.toml").write_text('include = "bad.toml"\n')
    (tmp_path / "bad.toml").write_text(text.replace("{demo}", str(demo_file)))
    with pytest.raises(InputError) as caught:
        read_study(tmp_path / "bad.toml")
    assert message in str(caught.value)


def test_studies_side_by_side_show_what_differs(variant, demo_result):
    found = compare_studies({"demo": demo_result, "better": run_study(read_study(variant()))})
    assert found.differences["sn_curves/fillet_weld/class"] == (71, 80)
    assert found.differences["duty_cycle/events/empty lap/occurrences"] == (1250, 900)
    assert "materials/plate_steel/yield_strength" not in found.differences
    row = next(row for row in found.rows() if row["hot spot"] == "bend of the tube")
    assert row["better: life [years]"] is None
    assert compare_studies({"a": demo_result, "b": demo_result}).differences == {}
    with pytest.raises(InputError, match="at least two"):
        compare_studies({"a": demo_result})


def test_the_command_shows_studies_side_by_side(run, variant, demo_file, tmp_path):
    code, out, _ = run("side-by-side", demo_file, variant(), "--csv", tmp_path / "c.csv", "--json", tmp_path / "c.json")
    assert code == 0
    assert "What differs in the input" in out
    rows = list(csv.DictReader((tmp_path / "c.csv").read_text().splitlines()))
    assert [row["hot spot"] for row in rows][-1] == "second toe"
    record = json.loads((tmp_path / "c.json").read_text())
    assert record["studies"] == "larkfell, better"
    assert next(row for row in record["differences"] if row["key"] == "sn_curves/fillet_weld/class")["better"] == 80
    code, _, err = run("side-by-side", demo_file, demo_file)
    assert code == 2
    assert "the same study twice" in err


def test_the_template_is_a_sound_study(run, tmp_path):
    path = write_template(tmp_path / "mine.toml")
    result = run_study(read_study(path))
    assert result.lives[0].verdict == "meets the target"
    with pytest.raises(InputError, match="never overwritten"):
        write_template(path)
    code, out, _ = run("template", tmp_path / "other.toml")
    assert code == 0
    assert "other.toml" in out
    assert run("template", path)[0] == 2


def test_every_commented_line_of_the_template_is_valid_when_it_is_taken_in(tmp_path):
    text = write_template(tmp_path / "mine.toml").read_text()
    start = text.index("# [sn_curves.smooth]")
    lines = [line[2:] if line.startswith("# ") and "----" not in line else line for line in text[start:].splitlines()]
    data = tomllib.loads(text[:start] + "\n".join(lines))
    assert {"smooth", "guess", "tested"} <= set(data["sn_curves"])
    jsonschema.validate(json.loads(json.dumps(data, default=str)), study_schema())
    forms = [leading_key(section) for section in study_file().model_validate(data).sn_curves.values()]
    assert sorted(forms) == sorted(FORMS)  # one block a form


def block_of(text, head):
    """The commented block under a head, taken in."""
    found = text[text.index(head) :].split("\n\n")[0].splitlines()
    return "\n".join(line.removeprefix("# ") for line in found) + "\n"


def test_there_is_a_block_for_each_kind_of_event_and_each_runs(run, tmp_path):
    text = write_template(tmp_path / "mine.toml").read_text()
    assert text.startswith("#:schema ")
    (tmp_path / "run.csv").write_text("time [s],force [kN]\n" + "".join(f"{i / 10},{i % 7}\n" for i in range(50)))
    (tmp_path / "strokes.csv").write_text("force [kN]\n" + "".join(f"{i * 3 % 7}\n" for i in range(50)))
    matrix = (
        "frequency [Hz],base [g^2/Hz],side [g^2/Hz],base side real [g^2/Hz]\n10,0.01,0.02,0.005\n200,0.01,0.02,0.005\n"
    )
    (tmp_path / "matrix.csv").write_text(matrix)
    over_frequency = {"psd", "psds", "cross_spectra", "dwells", "sweep"}
    events = text[text.index("[[duty_cycle.events]]") : text.index("# ---- what it is made of")]
    blocks = [one for one in events.split("\n\n") if one.startswith("# [[duty_cycle.events]]")]
    kinds = set()
    for i, one in enumerate(blocks):
        channel = "load factor" if "load factor" in one else "force"
        taken = block_of(one, "# [[duty_cycle.events]]").replace("duty_cycle.events.events", "inner")
        data = tomllib.loads(block_of(one, "# [[duty_cycle.events]]"))["duty_cycle"]["events"][0]
        kinds |= {key for key in EVENT_FORMS if key in data}
        study = text.replace(events, block_of(one, "# [[duty_cycle.events]]") + "\n")
        if channel == "load factor":
            study = study.replace('channel = "force"', 'channel = "load factor"').replace("5.5 MPa/kN", "120 MPa")
        if over_frequency & set(data):
            study = study.replace(
                'channel = "force"\nstress_per_load', 'responses = { base = "3 MPa/g", side = "1 MPa/g" }\n#'
            )
        if "rms" in data:
            study = study.replace('channel = "force"', 'channel = "stress"').replace("5.5 MPa/kN", "1")
        if "states" in data:
            both = 'stress_per_load = { weight = "40 MPa", wind = "30 MPa" }'
            study = study.replace('channel = "force"\nstress_per_load = "5.5 MPa/kN"', both)
        (tmp_path / f"one{i}.toml").write_text(study)
        code, _, err = run("life", tmp_path / f"one{i}.toml")
        assert code == 0, (taken, err)
    stand_open = {"range", "amplitude"}  # and within; of kinds of load beside these there are none but what is added
    assert kinds | stand_open == set(EVENT_FORMS) - (set() if len(LOADS) else {"load"})


def properties(schema):
    """Every section of the schema with its keys."""
    for name, one in schema["$defs"].items():
        yield name.partition("_")[0] if name.startswith(("SNCurve_", "Event_")) else name, one["properties"]
    yield "StudyFile", schema["properties"]


def test_every_key_has_words_an_example_that_fits_and_its_choices():
    schema = study_schema()
    told, wrong = set(), []
    for section, keys in properties(schema):
        for key, one in keys.items():
            assert one["description"], (section, key)
            told |= {key, f"{section}.{key}"}
            checker = jsonschema.Draft202012Validator({**one, "$defs": schema["$defs"]})
            wrong += [(section, key, error.message[:200]) for error in checker.iter_errors(one["examples"][0])]
    assert wrong == []
    added = set() if len(LOADS) else {"Event.load"}
    assert set(KEYS) - added <= told  # and no words of keys that are gone
    assert set(CHOICES) <= told


@pytest.mark.parametrize("place", CHOICES)
def test_a_choice_that_the_schema_does_not_know_is_refused_with_those_it_knows(place):
    section, _, key = place.rpartition(".")
    for name, keys in properties(study_schema()):
        if key in keys and section in ("", name) and choices_of(name, key) is not None:
            assert json.dumps("no such") not in json.dumps(keys[key])
            with pytest.raises(jsonschema.ValidationError):
                jsonschema.validate("no such", keys[key])
            for choice in choices_of(name, key):
                jsonschema.validate(choice, keys[key])


def test_the_schema_accepts_the_demo_and_refuses_slips(run, demo_result, tmp_path):
    schema = study_schema()
    jsonschema.Draft202012Validator.check_schema(schema)
    data = json.loads(json.dumps(demo_result.study.data))
    jsonschema.validate(data, schema)
    for change in (
        {"hot_spot": []},
        {"hot_spots": [{**data["hot_spots"][0], "notch_faktor": 2}]},
        {"materials": {"m": {"ultimate_strength": 510}}},
        {"sn_curves": {"c": {"clas": 71}}},
    ):
        with pytest.raises(jsonschema.ValidationError):
            jsonschema.validate(data | change, schema)
    code, out, _ = run("schema")
    assert code == 0
    assert json.loads(out) == json.loads(json.dumps(schema))
    assert run("schema", "--json", tmp_path / "s.json")[0] == 0
    assert json.loads((tmp_path / "s.json").read_text()) == json.loads(out)
