"""The study file: what it says is what is computed, and each fault is named by its keys."""

import pytest

from tests.study.faults_of_loads import FAULTS_OF_LOADS
from tests.study.faults_of_places import FAULTS_OF_PLACES
from tests.study.faults_of_plies import FAULTS_OF_PLIES
from tests.study.faults_of_rubber import FAULTS_OF_RUBBER
from tests.study.faults_of_strain import FAULTS_OF_STRAIN
from tests.study.texts import FIRST, LAST, LAW, ONE_SIZE, REPEATED, TWO_SIZES, WRITTEN, pair
from vivid_anvil.damage import assess_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study import read_study, run_study
from vivid_anvil.study.models import StudyFile


@pytest.mark.slow
def test_the_demo_tells_its_story(demo_result):
    weld, pin, bend = (
        demo_result.life_of(name)
        for name in ("weld toe at the grip head", "bore of the suspension pin", "bend of the tube")
    )
    assert weld.verdict == "fails the target"
    assert 0.8 < weld.reserve_on_life < 1.0
    assert pin.verdict == "meets the target"
    assert 2.0 < pin.reserve_on_life < 20.0
    assert bend.verdict == "no damage"
    assert bend.reserve_on_stress > 1.3
    growth = demo_result.growth_at("weld toe at the grip head")
    assert 4.0 < growth.life_years < 20.0
    assert growth.halving_change < 1e-3
    assert growth.interval_years < growth.life_years
    assert demo_result.worst is weld


def test_a_study_read_from_elsewhere_finds_its_files(study, monkeypatch, tmp_path_factory):
    path = study()
    monkeypatch.chdir(tmp_path_factory.mktemp("elsewhere"))
    assert len(read_study(path).duty_cycle.events) == 3


@pytest.mark.slow
def test_the_file_and_the_nouns_give_the_same(study):
    result = read_study(study())
    direct = assess_life(result.hot_spots[0], result.duty_cycle, target="30 years")
    assert run_study(result).lives[0].life_repeats == direct.life_repeats


BLOCK = """
[[duty_cycle.events]]
name = "acceptance test"
channel = "vertical force"
amplitude = "3 kN"
r_ratio = 0.0
cycles = 10
frequency = "0.2 Hz"
occurrences = 0.0833

# ---- What it is made of"""


@pytest.mark.slow
def test_a_block_of_constant_amplitude_joins_the_histories(study):
    result = run_study(read_study(study(("# ---- What it is made of", BLOCK))))
    test = result.lives[0].events[-1]
    assert test.largest_range == pytest.approx(24.5 * 6)
    assert test.cycles == pytest.approx(0.833)
    assert result.study.duty_cycle.hours == pytest.approx(389.0 + 0.0833 * 50 / 3600, rel=1e-4)


FEATURES = """
[[duty_cycle.events]]
name = "rows"
occurrences = 2
channel = "vertical force"
programme = { unit = "kN", maximum = [3.0, 2.0], minimum = [0.0, 1.0], cycles = [10, 500] }

[[duty_cycle.events]]
name = "classes"
occurrences = 1
channel = "vertical force"
spectrum = { unit = "kN", range = [3.0, 1.0], exceedance = [10, 1000], r_ratio = [0.0, 0.5] }

[[duty_cycle.events]]
name = "day of laps"
occurrences = 20
events = [{ name = "lap", history = "empty_lap.csv", occurrences = 7 }]

# ---- What it is made of"""


@pytest.mark.slow
def test_programmes_spectra_inner_duty_cycles_repairs_and_gates_are_written_in_the_study(study):
    changed = (
        FIRST + 'gate = { "vertical force" = "0.1 kN" }\nrepairs = [{ step = "cut", start = "10 s", end = "470 s" }]\n'
    )
    path = study((FIRST, changed), (LAST, FEATURES), (REPEATED, REPEATED + 'between = "worst case"\n'))
    result = run_study(read_study(path))
    names = [share.name for share in result.lives[0].events]
    assert names[3:] == ["rows", "classes", "day of laps: lap", "between the events"]
    shares = {share.name: share for share in result.lives[0].events}
    alone = assess_life(
        result.lives[0].hot_spot, result.study.duty_cycle.counted(between="each by itself"), target="30 years"
    )
    assert sum(one.cycles for one in shares.values()) == pytest.approx(sum(one.cycles for one in alone.events))
    assert shares["rows"].cycles <= 2 * 510
    assert shares["day of laps: lap"].occurrences == 140
    assert "gated-cycles" in [finding.code for finding in result.lives[0].findings]
    lap = result.study.duty_cycle.events[0].load.history
    assert lap.repairs == ("cut to 10 s to 470 s",)


def test_check_shows_inner_events_with_their_occurrences(study, run):
    code, out, _ = run("check", study((LAST, FEATURES)))
    assert code == 0
    assert "day of laps" in " ".join(out.split())
    assert " 140 " in out


@pytest.mark.slow
def test_files_may_be_joined_and_repairs_are_in_the_answer(study):
    repairs = 'repairs = [{ step = "cut", start = "1 s", end = "900 s" }]'
    path = study(('history = "loaded_lap.csv" ', f'history = ["loaded_lap.csv", "loaded_lap.csv"]\n{repairs} #'))
    life = run_study(read_study(path)).lives[0]
    assert life.to_dict()["repairs"]["loaded lap"][-1] == "cut to 1 s to 900 s"
    assert "joined of" in life.to_dict()["repairs"]["loaded lap"][0]


@pytest.mark.slow
def test_the_order_given_and_each_by_itself_differ(study):
    lives = []
    for between in ("each by itself", "in the order given", "worst case"):
        path = study((REPEATED, REPEATED + f'between = "{between}"\n'))
        lives.append(run_study(read_study(path)).lives[0].life_repeats)
    assert lives[0] > lives[1] > lives[2]


def test_a_straight_curve_and_a_centre_crack_can_be_written(study):
    path = study(
        ('knee_stress = "52.3 MPa"', 'point_stress = "71 MPa"'),
        ("knee_life = 5e6", "point_life = 2e6"),
        ("slope_below = 5 ", "#"),
        (TWO_SIZES, ONE_SIZE.format("centre")),
    )
    result = run_study(read_study(path))
    assert result.lives[0].curve.below == 3
    assert result.lives[0].curve.points == ((71.0, 2e6),)
    assert result.growths[0].crack.shape.kind == "centre"


UPSIDE_DOWN = 'programme = { unit = "kN", maximum = [1.0], minimum = [2.0], cycles = [1] }'
RISING = 'spectrum = { unit = "kN", range = [1.0, 2.0], exceedance = [1, 2] }'
INNER = 'events = [{ name = "lap", occurrences = 2, history = 3 }]'
BY_ONE = """channel = "vertical force"
stress_per_load = "24.5 MPa/kN"        # nominal stress beside the weld, from the drawing
"""
FAULTS = FAULTS_OF_LOADS | FAULTS_OF_PLACES | FAULTS_OF_PLIES | FAULTS_OF_RUBBER | FAULTS_OF_STRAIN


@pytest.mark.slow
@pytest.mark.parametrize(("replacement", "place", "message"), FAULTS.values(), ids=FAULTS)
def test_a_fault_is_named_by_file_and_keys(study, run, tmp_path, replacement, place, message):
    path = study(*(replacement if isinstance(replacement[0], tuple) else (replacement,)))
    with pytest.raises(InputError) as caught:
        read_study(path)
    assert caught.value.where.startswith("study.toml")
    assert place in caught.value.where
    assert message in str(caught.value)
    before = sorted(tmp_path.iterdir())
    code, out, err = run("life", path, "--json", tmp_path / "life.json", "--figures", tmp_path / "figures")
    assert (code, out) == (2, "")
    assert message in " ".join(err.split())
    assert sorted(tmp_path.iterdir()) == before


def test_every_key_has_its_fault():
    sections = StudyFile.model_json_schema()["$defs"].values()
    keys = {key for section in sections for key in section["properties"]} - {"events"}
    tested = " ".join(f"{place} {replacement}" for replacement, place, _ in FAULTS.values())
    assert [key for key in sorted(keys) if key not in tested] == []


def test_a_file_of_the_first_format_is_told_what_to_change_and_where(study):
    old = (
        ("format = 2", "format = 1"),
        ('repeat = "month"', 'repeat = "month"\nduration = "700 h"'),
        ('law = "steel_in_air"', 'growth_law = "steel_in_air"'),
    )
    with pytest.raises(InputError) as caught:
        read_study(study(*old))
    told = "Write format = 2; law in place of growth_law at cracks, entry 1 (weld toe at the grip head); "
    assert caught.value.remedy == f"{told}repeat_duration in place of duration at duty_cycle."


def test_all_faults_of_the_keys_are_told_at_once(study):
    with pytest.raises(InputError) as caught:
        read_study(study(("title", "titel"), ("slope = 7", 'slope = "7"')))
    told = [str(caught.value), *caught.value.__notes__]
    assert len(told) == 3
    assert any("pin_bore, slope" in line for line in told)


def test_a_fault_in_a_history_names_study_and_file(study, tmp_path):
    path = study()
    lap = tmp_path / "empty_lap.csv"
    lap.write_text(lap.read_text().replace("vertical force [kN]", "vertical force"))
    with pytest.raises(InputError, match=r"study.toml, .*entry 2 \(empty lap\).*: empty_lap.csv, line 1, column 2"):
        read_study(path)


def test_missing_and_unreadable_studies_are_named(tmp_path):
    (tmp_path / "latin.toml").write_bytes(b'title = "\xe4"')
    for path, message in (
        (tmp_path / "none.toml", "no such file"),
        (tmp_path / "latin.toml", "UTF-8"),
        (tmp_path, "a folder"),
    ):
        with pytest.raises(InputError, match=message):
            read_study(path)


def test_an_unknown_spot_of_a_result_suggests_the_nearest(demo_result):
    with pytest.raises(InputError, match="Did you mean 'bend of the tube'"):
        demo_result.life_of("bend of tube")


@pytest.mark.slow
def test_strengths_laws_and_curves_of_a_card_and_a_family_can_be_used(study):
    path = study(
        ('ultimate_strength = "780 MPa"', 'card = "tempered-steel-800"'),
        ('yield_strength = "600 MPa"', 'toughness = "90 MPa√m"'),
        (LAW, 'card = "structural-steel-355"\nlaw = "air"\n'),
        pair('curves = ["tube", "pulsating"]\nbeyond_lowest = "hold"\nbeyond_highest = "hold"'),
        (
            "[sn_curves.tube]",
            '[sn_curves.pulsating]\nstress = "amplitude"\nr_ratio = 0\npoint_stress = "160 MPa"\npoint_life = 1e6\n'
            "slope = 8\n\n[sn_curves.tube]",
        ),
        ('sn_curve = "tube"\nmean_stress = "goodman"', 'sn_curve = "pair"'),
        ('sn_curve = "pin_bore"', 'sn_curve = "smooth"'),
        ("[sn_curves.pin_bore]", '[sn_curves.smooth]\ncard = "tempered-steel-800"\n\n[sn_curves.pin_bore]'),
    )
    result = run_study(read_study(path))
    pin, tube = result.lives[1], result.lives[2]
    assert pin.hot_spot.material.ultimate_strength == 800.0
    assert pin.hot_spot.material.toughness == pytest.approx(90.0 * 1000**0.5)
    assert pin.curve.name == "smooth"
    assert "typical-curve" in [finding.code for finding in pin.findings]
    assert tube.hot_spot.curve.curves[1].name == "pulsating"
    assert result.growths[0].crack.law.threshold.range == pytest.approx(5.0 * 1000**0.5)


FORMS_WRITTEN = {
    "knees": 'stress = "range"\nr_ratio = "any"\nknee_stress = "52 MPa"\nknee_lives = [5e6, 1e8]\nslopes = [3, 5, inf]',
    "intercepts": 'stress = "range"\nr_ratio = "any"\nlog_a = [12.0, 16.0]\nslopes = [3, 5]\n'
    'intercept_unit = "MPa"\nends_at = 1e8',
    "basquin": 'stress = "amplitude"\nr_ratio = -1\ncoefficient = "900 MPa"\nexponent = -0.1\n'
    'counted_in = "reversals"\nknee_life = 2e6',
    "points": 'stress = "range"\nr_ratio = "any"\npoints = [["400 MPa", 1e4], ["30 MPa", 1e7]]\n'
    'above = "hold"\nbelow = "no damage"',
    "class": 'standard = "IIW steel"\nclass = 71\nloading = "constant"\nthickness = "40 mm"\nthickness_exponent = 0.2',
    "estimate": 'estimate = "steel"\nultimate_strength = "510 MPa"\nsurface = "ground"\nloading = "axial"',
    "card": 'card = "structural-steel-355"\ncurve = "smooth"\nat_survival = 0.977',
    "thick": 'stress = "range"\nr_ratio = "any"\npoint_stress = "71 MPa"\npoint_life = 2e6\nslope = 3\nthickness = "50 mm"\n'
    'reference_thickness = "25 mm"\nthickness_exponent = 0.25',
}


@pytest.mark.parametrize("text", FORMS_WRITTEN.values(), ids=FORMS_WRITTEN)
def test_a_curve_may_be_written_in_every_form(study, text):
    start = WRITTEN.index("[sn_curves.fillet_weld]")
    end = WRITTEN.index("[sn_curves.pin_bore]")
    path = study((WRITTEN[start:end], f"[sn_curves.fillet_weld]\n{text}\n\n"))
    life = assess_life(read_study(path).hot_spots[0], read_study(path).duty_cycle)
    assert life.curve.name.startswith("fillet_weld")
    assert (life.damage_per_repeat > 0.0) == ("estimate" not in text)


BAD_FORMS = {
    "nothing": ("", "an empty table"),
    "class alone": ("class = 71", "standard"),
    "points bare": ('stress = "range"\nr_ratio = 0\npoints = [[400, 1e4]]\nabove = "hold"\nbelow = "hold"', "point 1: found 400"),
    "end missing": ('stress = "range"\nr_ratio = 0\npoints = [["40 MPa", 1e4], ["3 MPa", 1e6]]\nabove = "hold"', "'below'"),
    "thickness alone": (FORMS_WRITTEN["thick"].replace('reference_thickness = "25 mm"', ""), "no reference_thickness"),
    "size": (FORMS_WRITTEN["estimate"].replace('"axial"', '"bending"\nsize = 40'), "a diameter such as"),
    "unit of intercepts": (FORMS_WRITTEN["intercepts"].replace('"MPa"', '"kN"'), "not one of stress"),
    "file of the other kind": (
        'table = "plate.csv"\nstress = "range"\nr_ratio = 0\nabove = "hold"\nbelow = "hold"', "as the file"
    ),
    "tests of another model": ('tests = "plate.csv"\nmodel = "lines"', "Did you mean 'line'"),
    "slopes as text": (FORMS_WRITTEN["knees"].replace("[3, 5, inf]", '"3, 5"'), "a list of numbers"),
    "factor without table": (FORMS_WRITTEN["estimate"] + "\nown_factors = 0.9", "a table of keys"),
}  # fmt: skip


@pytest.mark.parametrize(("text", "message"), BAD_FORMS.values(), ids=BAD_FORMS)
def test_a_form_of_curve_that_cannot_be_meant_is_named(study, tmp_path, text, message):
    (tmp_path / "plate.csv").write_text("stress amplitude [MPa],life [cycles]\n400,1e4\n250,1e5\n")
    start = WRITTEN.index("[sn_curves.fillet_weld]")
    path = study((WRITTEN[start : WRITTEN.index("[sn_curves.pin_bore]")], f"[sn_curves.fillet_weld]\n{text}\n\n"))
    with pytest.raises(InputError) as caught:
        read_study(path)
    assert "sn_curves, fillet_weld" in caught.value.where
    assert message in str(caught.value)
