"""Flaws in a study: the demo's list, every kind of stress and toughness, every slip, and every command with them."""

import json

import pandas as pd
import pytest

import vivid_anvil as va
from tests.study.flaw_texts import CONTOURS, FAULTS_OF_FLAWS, TEXT, primary, secondary, tough
from vivid_anvil.acceptance import PRIMARY, SECONDARY
from vivid_anvil.materials.fracture import TOUGHNESSES
from vivid_anvil.study import assess_flaws, assess_fronts, check_study, read_study, run_study, study_schema


@pytest.fixture
def written(tmp_path):
    """A function: the study of flaws with texts replaced, beside a table of contours; its path."""

    def write(*replacements, name="flaws.toml", more=""):
        text = TEXT + more
        for old, new in replacements:
            assert old in text, old
            text = text.replace(old, new, 1)
        (tmp_path / "there.csv").write_text(CONTOURS)
        path = tmp_path / name
        path.write_text(text)
        return path

    return write


@pytest.mark.parametrize(("replacement", "place", "message"), FAULTS_OF_FLAWS.values(), ids=FAULTS_OF_FLAWS)
def test_a_slip_is_told_with_its_keys(written, replacement, place, message):
    with pytest.raises(va.InputError) as caught:
        check_study(read_study(written(replacement)))
    told = "\n".join([str(caught.value), *getattr(caught.value, "__notes__", [])])
    assert place in told
    assert message in told


def keys_of_flaws():
    """Every key of the tables of flaws, from the schema."""
    schema, seen, todo = study_schema(), {}, {"FlawsSection"}
    while todo:
        name = todo.pop()
        seen[name] = set(schema["$defs"][name]["properties"])
        todo |= {one.split('"')[0] for one in json.dumps(schema["$defs"][name]).split("#/$defs/")[1:]} - set(seen)
    return set().union(*seen.values())


def test_every_key_of_flaws_has_its_slip():
    tested = " ".join(f"{place} {replacement} {message}" for replacement, place, message in FAULTS_OF_FLAWS.values())
    assert [key for key in sorted(keys_of_flaws()) if key not in tested] == []


def test_the_guide_and_the_template_name_every_table_of_flaws():
    guide = (va_root() / "docs/guide/7-study-file.md").read_text()
    assert [key for key in sorted(keys_of_flaws()) if f"`{key}`" not in guide and f"{key} =" not in guide] == []


def va_root():
    from pathlib import Path

    return Path(__file__).resolve().parents[2]


SOME_PRIMARY = {
    "stresses": primary(kind="stresses", membrane="90 MPa", bending="20 MPa", misalignment_factor=1.1)[1],
    "pressure": primary(
        kind="pressure", pressure="3 MPa", inner_radius="500 mm", wall="25 mm", direction="along", flaw_inside=True
    )[1].replace("True", "true"),
    "profile": '{ kind = "profile", points = [["0 mm", "120 MPa"], ["25 mm", "60 MPa"]] }',
}
SOME_SECONDARY = {
    "stresses": secondary(kind="stresses", membrane="40 MPa", of="residual")[1],
    "as welded": secondary(kind="as welded", relaxed="by the load")[1],
    "heat treated": secondary(kind="heat treated", stress_acts="across the weld")[1],
    "profile": '{ kind = "profile", points = [["0 mm", "120 MPa"], ["12 mm", "-60 MPa"], ["25 mm", "40 MPa"]] }',
    "weld profile": secondary(kind="weld profile", weld="along the weld")[1],
}
SOME_TOUGHNESS = {
    "K": tough(kind="K", k="85 MPa√m", specimen_thickness="20 mm"),
    "J": tough(kind="J", j="60 kJ/m^2"),
    "CTOD": tough(kind="CTOD", ctod="0.15 mm"),
    "Charpy energy": tough(
        kind="Charpy energy", energy="40 J", correlation="lower shelf and transition", tested_at="-20 °C"
    ),
    "master curve": tough(kind="master curve", reference_temperature="-60 °C"),
    "tests": tough(kind="tests", results=["96 MPa√m", "118 MPa√m", "104 MPa√m"]),
    "resistance curve": (
        tough()[0],
        f'{tough()[0]}\ntoughness = {{ kind = "resistance curve", points = [["0.2 mm", "60 kJ/m^2"], ["1 mm", "135 kJ/m^2"]] }}',
    ),
}
COLD = ('material = "steel"', 'material = "steel"\ntemperature = "-20 °C"')
BY_ITSELF = ('    { name = "A2", kind = "through", length = "30 mm", place = "plate", stress = "storm" },\n', "")


@pytest.mark.parametrize("kind", PRIMARY)
@pytest.mark.parametrize("other", SECONDARY)
def test_every_kind_of_stress_may_stand_in_a_study(written, kind, other):
    study = read_study(
        written((*primary()[:1], SOME_PRIMARY[kind]), (*secondary()[:1], SOME_SECONDARY[other]), BY_ITSELF)
    )
    (flaw,) = assess_flaws(study).flaws
    loads = study.flaws.stresses["storm"]
    assert (loads.primary[0].kind, loads.secondary[0].kind) == (kind, other)
    again = va.assess_flaw(flaw.made.flaw, loads, study.flaws.places["plate"].metal)
    assert again.point == flaw.assessment.point
    assert flaw.assessment.working().steps


@pytest.mark.parametrize("kind", TOUGHNESSES)
def test_every_kind_of_toughness_may_stand_in_a_study(written, run, kind):
    path = written(SOME_TOUGHNESS[kind], COLD)
    study = read_study(path)
    assert study.flaws.places["plate"].metal.toughness.kind == kind
    found = assess_flaws(study)
    assert all(flaw.assessment.toughness > 0.0 for flaw in found.flaws)
    code, out, err = run("explain", path, "--spot", "A1")
    assert code == 0, err
    assert "K_r" in out


def test_a_study_says_the_same_as_the_nouns_it_names(written):
    study = read_study(written())
    found = run_study(study).flaws
    part = va.Part(form="plate", wall="25 mm", width="300 mm")
    metal = va.Metal(
        material=va.Material(name="steel", yield_strength="355 MPa", ultimate_strength="510 MPa", toughness="85 MPa√m")
    )
    law = va.ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    ranges = va.RangesPerYear([("60 MPa", "20 MPa", 1e4), ("30 MPa", 1e5)])
    loads = va.FractureLoads([va.PrimaryStresses(membrane="120 MPa")], [va.SecondaryStresses(membrane="40 MPa")])
    rows = [
        va.Indication(name="A1", kind="surface", length="24 mm", height="5 mm"),
        va.Indication(name="A2", kind="through", length="30 mm"),
    ]
    place = va.PlaceOfFlaws(part=part, metal=metal, stages=[va.Stage("service", law, ranges)])
    same = va.assess_indications(rows, {"plate": place}, {"storm": loads})
    for one, other in zip(found.flaws, same.flaws, strict=True):
        assert one.assessment.point == other.assessment.point
        assert one.life == other.life
    assert found.inspected.isoformat() == "2026-10-05"
    assert found.target_life == 5.0
    assert "flaws not acceptable" in run_study(study).facts()


def test_the_demo_tower_has_two_that_fail_and_one_that_asks_for_a_look_every_half_year(demo_file):
    found = assess_flaws(read_study(demo_file.parent / "tower_base.toml"))
    assert [flaw.name for flaw in found.rejected] == ["B7", "B2"]
    assert found.next_look == pytest.approx(0.5, abs=0.01)
    assert found.facts()["next look by"] == "2027-04-05"
    assert {finding.code for finding in found.findings} >= {"flaw-target-missed", "flaw-not-acceptable"}
    kept = {flaw.name: flaw.next_look for flaw in found.flaws if flaw.assessment.acceptable}
    assert min(kept, key=kept.get) == "H2"
    assert sorted(kept.values())[1] > 2.0  # only one asks for a look every half year


SPOT = """
[duty_cycle]
repeat = "week"
repeats_per_year = 52

[[duty_cycle.events]]
name = "gusts"
channel = "wind"
range = "60 kN"
r_ratio = 0.1
cycles = 200

[[hot_spots]]
name = "shell"
channel = "wind"
stress_per_load = "1 MPa/kN"
material = "steel"
"""


def test_a_hot_spot_drives_a_stage_by_the_duty_cycle(written):
    by_spot = read_study(
        written(('ranges = [["60 MPa", "20 MPa", 1e4], ["30 MPa", 1e5]]', 'hot_spot = "shell"'), more=SPOT)
    )
    by_rows = read_study(
        written(
            ('ranges = [["60 MPa", "20 MPa", 1e4], ["30 MPa", 1e5]]', 'ranges = [["60 MPa", 10400]]\nr_ratio = 0.1')
        )
    )
    for one, other in zip(assess_flaws(by_spot).flaws, assess_flaws(by_rows).flaws, strict=True):
        assert one.life == pytest.approx(other.life, rel=1e-6)
    (stage,) = by_spot.flaws.places["plate"].stages
    assert stage.shortest == pytest.approx(1.0 / 52.0)


@pytest.mark.parametrize("suffix", [".csv", ".xlsx"])
def test_ranges_of_a_stage_may_stand_in_a_sheet(written, tmp_path, suffix):
    frame = pd.DataFrame({"range [ksi]": [60.0 / 6.894757293168361, 30.0 / 6.894757293168361],
                          "bending range [MPa]": [20.0, 0.0], "cycles a year": [1e4, 1e5]})  # fmt: skip
    file = tmp_path / f"year{suffix}"
    frame.to_csv(file, index=False) if suffix == ".csv" else frame.to_excel(file, index=False, sheet_name="gusts")
    sheet = "" if suffix == ".csv" else '\nsheet = "gusts"'
    rows = 'ranges = [["60 MPa", "20 MPa", 1e4], ["30 MPa", 1e5]]'
    of_file = assess_flaws(read_study(written((rows, f'ranges = "{file.name}"{sheet}'))))
    of_rows = assess_flaws(read_study(written()))
    for one, other in zip(of_file.flaws, of_rows.flaws, strict=True):
        assert one.life == pytest.approx(other.life, rel=1e-9)


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("range,cycles a year\n60,1e4\n", "a unit in brackets"),
        ("range [MPa],cycles a year [1/s]\n60,1e4\n", "without unit"),
        ("range [MPa]\n60\n", "no column 'cycles a year'"),
        ("range [mm],cycles a year\n60,1e4\n", "stress"),
        ("rnge [MPa],cycles a year\n60,1e4\n", "no such column"),
        ("range [MPa],cycles a year\nsixty,1e4\n", "number"),
        ("range [MPa],cycles a year\n-60,1e4\n", "0 or more"),
    ],
)
def test_slips_in_a_sheet_of_ranges(tmp_path, text, message):
    (tmp_path / "year.csv").write_text(text)
    with pytest.raises(va.InputError, match=message):
        va.read_ranges(tmp_path / "year.csv")


FRONT = """
[flaws.fronts.toe]
file = "there.csv"
place = "plate"
reference_stress = "180 MPa"
"""


def test_a_front_is_held_against_the_curve_of_its_place(written, run, tmp_path):
    path = written(more=FRONT)
    study = read_study(path)
    (found,) = assess_fronts(study)
    assert found.point.load_ratio == pytest.approx(180.0 / 355.0)
    assert found.point.governing.fracture_ratio == pytest.approx(35.15 / 85.0, rel=1e-3)
    assert found.acceptable
    result = run_study(study)
    assert result.to_dict()["fronts"][0]["verdict"] == "acceptable"
    code, out, err = run(
        "flaws", path, "--details", 0, "--figures", tmp_path / "figures", "--json", tmp_path / "a.json"
    )
    assert code == 0, err
    assert "Crack front" in out
    assert (tmp_path / "figures" / "front-there.csv.png").exists()
    code, out, err = run("explain", path, "--spot", "toe")
    assert code == 0, err
    assert "mean of all contours" in out


COMMANDS = {
    "flaws": ("--flaw", "A1"),
    "check": (),
    "explain": ("--spot", "A2"),
    "grow": (),
    "inspections": ("--every", "1 year"),
    "solve": ("--spot", "A1"),
    "what-if": ("flaws/places/plate/wall", "22 mm", "28 mm"),
}
WITH_FIGURES = ("flaws", "grow", "inspections", "what-if")


@pytest.mark.parametrize("command", COMMANDS)
@pytest.mark.parametrize("units", ["metric", "us"])
def test_every_command_takes_a_study_of_flaws(written, run, tmp_path, command, units):
    path = written()
    more = ("--figures", tmp_path / "figures") if command in WITH_FIGURES else ()
    outputs = ("--json", tmp_path / "a.json", "--csv", tmp_path / "a.csv")
    code, out, err = run(command, path, *COMMANDS[command], *outputs, *more, "--units", units)
    assert code == 0, err
    assert err == ""
    assert "A" in out
    assert "nan" not in out
    assert json.loads((tmp_path / "a.json").read_text())["format"] == 2
    assert (tmp_path / "a.csv").read_text().count("\n") > 1
    if more:
        assert list((tmp_path / "figures").iterdir())
    if units == "us":
        assert (" mm" in out) == (command in ("explain", "what-if"))  # worked in mm; values as they are written


@pytest.mark.parametrize("command", ["life", "rules", "vibration", "model"])
def test_commands_of_loads_say_that_there_are_none(written, run, command):
    code, out, err = run(command, written())
    assert (code, out) == (2, "")
    assert "flaws.toml" in err or "welds of a tower" in err


def test_two_studies_of_flaws_stand_side_by_side(written, run, tmp_path):
    heavier = ('membrane = "120 MPa"', 'membrane = "140 MPa"'), ("2026-10-05", "2026-11-05")
    one, other = written(), written(*heavier, name="heavier.toml")
    outputs = ("--csv", tmp_path / "a.csv", "--json", tmp_path / "a.json")
    code, out, err = run("side-by-side", one, other, *outputs)
    assert code == 0, err
    assert "140 MPa" in out
    assert "2026-11-05" in out
    rows = pd.read_csv(tmp_path / "a.csv").set_index("flaw")
    for name, path in (("flaws", one), ("heavier", other)):
        for flaw in assess_flaws(read_study(path)).flaws:
            assert rows.loc[flaw.name, f"{name}: remaining life [years]"] == pytest.approx(flaw.life)
            assert rows.loc[flaw.name, f"{name}: reserve on load"] == pytest.approx(
                flaw.assessment.reserve_on_load.factor
            )


def test_what_if_and_solve_agree_on_what_is_just_enough(written):
    path = written()
    key = "flaws/stresses/storm/primary/1/membrane"
    enough = va.value_that_meets_target(path, key, 100.0, 350.0, "MPa", spot="A1")
    told = va.what_if_flaws(path, key, [f"{enough!r} MPa"], spot="A1")
    flaw = next(one.flaws["A1"] for one in told.variants if not one.is_base)
    assert flaw.life == pytest.approx(5.0, rel=1e-3)
    assert told.felt == ["A1"]
    with pytest.raises(va.InputError, match="Did you mean 'A1'"):
        va.what_if_flaws(path, key, ["90 MPa"], spot="A11")
    with pytest.raises(va.InputError, match="flaws/stresses"):
        va.what_if_flaws(path, "load scale", [1.1])


def test_an_answer_on_size_is_where_the_flaw_lives_the_target(written):
    answered = va.answers_of_flaw(read_study(written()), "A1")
    size = next(row[1] for row in answered.answers if "lasts" in row[0])
    grown = assess_flaws(
        read_study(written(('height = "5 mm"', f'height = "{size!r} mm"'), ('"24 mm"', f'"{size * 4.8!r} mm"')))
    )
    assert grown.flaw("A1").life == pytest.approx(5.0, rel=1e-3)
    assert answered.to_dict()["flaw"] == "A1"


def test_looks_are_planned_and_end_with_a_repair(written):
    study = read_study(written())
    flaw = assess_flaws(study).flaw("A1")
    grown = va.study.growth_of_flaw(study, flaw)
    plan = va.flaw_looks(grown, "4 years", most=40, inspected=study.flaws.inspected)
    at = plan.repair_at
    assert at.lasts < 8.0 <= at.lasts + 4.0  # the look before may leave it
    for look in plan.looks:
        assert look.may_stay == (look.sizes[0] <= look.largest[0] * (1.0 + 1e-4))
        assert look.lasts == pytest.approx(grown.life - look.years)
    assert plan.rows()[1]["on"] == "2030-10-05"


def test_the_page_of_one_flaw_holds_all_that_its_place_asks_for(written, run, tmp_path):
    asked = 'limits_under = ["proof"]\nleak_area = "20 mm^2"'
    curve = '{ kind = "resistance curve", points = [["0.2 mm", "60 kJ/m^2"], ["1 mm", "135 kJ/m^2"], ["2 mm", "160 kJ/m^2"]] }'
    path = written(
        ('material = "steel"', f'material = "steel"\ntoughness = {curve}\n{asked}'),
        more='[flaws.stresses.proof]\nprimary = [{ kind = "stresses", membrane = "180 MPa" }]\n',
    )
    study = read_study(path)
    pages = va.flaw_in_full(study, assess_flaws(study).flaw("A1"))
    titles = [type(page).__name__ for page in pages]
    assert titles == [
        *(
            "FlawAssessment",
            "Sensitivity",
            "LimitingSizes",
            "Tearing",
            "LeakBeforeBreak",
            "FlawGrowth",
            "AllowableFlaws",
        )
    ]
    limits = next(page for page in pages if type(page).__name__ == "LimitingSizes")
    assert [one.case for one in limits.curves] == ["storm", "proof"]
    both = limits.curves[0].limited
    assert both.sum() >= 2
    assert (limits.curves[1].depths < limits.curves[0].depths)[both].all()
    code, out, err = run("flaws", path, "--flaw", "A1", "--figures", tmp_path / "drawn", "--json", tmp_path / "a.json")
    assert code == 0, err
    assert "Leak before break" in out
    record = json.loads((tmp_path / "a.json").read_text())["in full"]["A1"]
    assert len(record) == len(pages)
    assert (tmp_path / "drawn" / "tearing-a1.png").exists()


def test_a_long_list_is_shared_by_processes_and_says_the_same(written, run, tmp_path):
    rows = "".join(f"N{i},surface,{10 + 0.2 * i},{1 + 0.02 * i}\n" for i in range(210))
    (tmp_path / "list.csv").write_text(f"name,kind,length [mm],height [mm]\n{rows}")
    given = TEXT[TEXT.index("indications = [") : TEXT.index("inspected")]
    stage = TEXT[TEXT.index("[[flaws.places.plate.stages]]") : TEXT.index("[flaws.stresses")]
    path = written((given, 'indications = "list.csv"\n'), (stage, ""))
    told = []
    for processes in (1, 2):
        file = tmp_path / f"{processes}.csv"
        assert run("flaws", path, "--details", 0, "--processes", processes, "--csv", file)[0] == 0
        told.append(file.read_text())
    assert told[0] == told[1]
    assert told[0].count("\n") == 211


def test_without_indications_a_study_of_fronts_can_be_run(written, run):
    rows = TEXT[TEXT.index("indications = [") : TEXT.index("inspected")]
    path = written((rows, ""), more=FRONT)
    assert run("flaws", path)[0] == 0
    assert run("check", path)[0] == 0
    assert run("explain", path)[0] == 0
    code, _, err = run("grow", path)
    assert code == 2
    assert "no flaw with stages" in " ".join(err.split())
