"""The study file: what it says is what is computed, and each fault is named by its keys."""

import pytest

from tests.study.texts import (
    AT_LAWS,
    AT_THRESHOLD,
    FIRST,
    LAST,
    LAW,
    ONE_SIZE,
    ORDERED,
    PLATE_KEYS,
    REPEATED,
    ROWS,
    TWO_SIZES,
    WELD,
    WRITTEN,
    crack_key,
    law_key,
    model,
    pair,
    plain_crack,
)
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
    assert "gate" in [finding.code for finding in result.lives[0].findings]
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
FAULTS = {
    "misspelt key": (
        ("notch_factor = 1.0 ", "notch_faktor = 1.0 "),
        f"{WELD}, notch_faktor",
        "Did you mean 'notch_factor'",
    ),
    "misspelt table": (
        ("[materials.pin_steel]", "[material.pin_steel]"),
        "study.toml, material",
        "Did you mean 'materials'",
    ),
    "misspelt top key": (("target_life", "target"), "study.toml, target", "Did you mean 'target_life'"),
    "no title": (('title = "Larkfell chairlift, hanger arm"', ""), "study.toml, title", "the key 'title'"),
    "old format": (("format = 2", "format = 9"), "study.toml, format", "format = 2"),
    "bare number": (('"24.5 MPa/kN"', "24.5"), f"{WELD}, stress_per_load", "text in quotes"),
    "no unit": (('"24.5 MPa/kN"', '"24.5"'), f"{WELD}, stress_per_load", "without a unit"),
    "wrong dimension": (('"24.5 MPa/kN"', '"24.5 MPa/mm"'), f"{WELD}, stress_per_load", "stress per force"),
    "bare strength": (
        ('ultimate_strength = "510 MPa"', "ultimate_strength = 510"),
        "plate_steel, ultimate_strength",
        "510 without a unit",
    ),
    "toughness as stress": (
        ('"75 MPa√m"', '"75 MPa"'),
        "materials, plate_steel, toughness",
        "not one of stress intensity",
    ),
    "yield above ultimate": (
        ('yield_strength = "355 MPa"', 'yield_strength = "3550 MPa"'),
        "plate_steel, yield_strength",
        "exchanged",
    ),
    "offset in force": (('offset = "15 MPa"', 'offset = "15 kN"'), "bend of the tube), offset", "not one of stress"),
    "text for a number": (("notch_factor = 2.2", 'notch_factor = "2.2"'), "suspension pin), notch_factor", "a number"),
    "notch below one": (("notch_factor = 2.2", "notch_factor = 0.22"), "suspension pin), notch_factor", "at least 1"),
    "unknown channel": (
        ('channel = "vertical force"\nstress', 'channel = "vertical farce"\nstress'),
        WELD,
        "Did you mean 'vertical force'",
    ),
    "unknown curve": (
        ('sn_curve = "fillet_weld"', 'sn_curve = "filet_weld"'),
        f"{WELD}, sn_curve",
        "Did you mean 'fillet_weld'",
    ),
    "unknown material": (
        ('material = "pin_steel"', 'material = "pin"'),
        "suspension pin), material",
        "Did you mean 'pin_steel'",
    ),
    "unknown rule": (
        ('mean_stress = "goodman"', 'mean_stress = "good man"'),
        "suspension pin), mean_stress",
        "Did you mean 'goodman'",
    ),
    "rule without its value": (
        ('mean_stress = "goodman"', 'mean_stress = "morrow"'),
        "suspension pin)",
        "no true_fracture_strength",
    ),
    "fracture strength bare": (
        ('yield_strength = "600 MPa"', "true_fracture_strength = 900"),
        "pin_steel, true_fracture_strength",
        "without a unit",
    ),
    "coefficient in mm": (
        ('yield_strength = "600 MPa"', 'fatigue_strength_coefficient = "900 mm"'),
        "pin_steel, fatigue_strength_coefficient",
        "not one of stress",
    ),
    "exponent of Walker": (
        ('yield_strength = "600 MPa"', "walker_exponent = 1.5"),
        "pin_steel, walker_exponent",
        "at most 1",
    ),
    "sensitivity in percent": (
        ('yield_strength = "600 MPa"', "mean_stress_sensitivity = 15"),
        "pin_steel, mean_stress_sensitivity",
        "0 to 1",
    ),
    "group of material": (('yield_strength = "600 MPa"', 'group = "wood"'), "pin_steel, group", "'grey iron'"),
    "below the knee": (
        ('mean_stress = "none"', 'mean_stress = "none"\nbelow_knee = "2m-3"'),
        f"{WELD}, below_knee",
        "one of 'as the curve says'",
    ),
    "unknown compressive": (('"ignored" ', '"ignore" '), "suspension pin), compressive_mean", "Did you mean 'ignored'"),
    "rule against curve": (
        ('mean_stress = "none"', 'mean_stress = "goodman"'),
        f"{WELD}, mean_stress",
        "holds for any R",
    ),
    "range or amplitude": (
        ('stress = "range"', 'stress = "ranges"'),
        "sn_curves, fillet_weld, stress",
        "'range', 'amplitude'",
    ),
    "R above one": (("r_ratio = -1 ", "r_ratio = 1.5 "), "sn_curves, pin_bore, r_ratio", "below 1"),
    "exponent for slope": (("slope = 7", "slope = -0.143"), "sn_curves, pin_bore, slope", "the slope is 6.993"),
    "half a curve": (("knee_life = 5e6", "#"), "sn_curves, fillet_weld", "exactly one of the keys"),
    "steeper below": (("slope_below = 13", "slope_below = 3"), "pin_bore, slope_below", "at least the slope"),
    "life below a cycle": (("knee_life = 2e6", "knee_life = 0.2"), "sn_curves, tube, knee_life", "at least 1 cycle"),
    "critical sum": (
        ('mean_stress = "none"', 'mean_stress = "none"\ncritical_sum = 0'),
        f"{WELD}, critical_sum",
        "above 0",
    ),
    "unknown rule of order": (
        ('mean_stress = "none"', 'mean_stress = "none"\norder_rule = "double line"'),
        f"{WELD}, order_rule",
        "Did you mean 'double linear'",
    ),
    "exponents without the rule": (
        ('mean_stress = "none"', 'mean_stress = "none"\norder_exponents = { "loaded lap" = 2 }'),
        f"{WELD}, order_exponents",
        "with the power rule only",
    ),
    "missing file": (('"loaded_lap.csv" ', '"lap.csv" '), "duty_cycle, events, entry 1 (loaded lap)", "no such file"),
    "target as a number": (('"30 years"', "30"), "study.toml, target_life", "without a unit"),
    "duration beside a history": (
        ("occurrences = 1667", 'occurrences = 1667\nduration = "30 s"'),
        "entry 1 (loaded lap)",
        "one of both",
    ),
    "duration without unit": (
        (LAST, BLOCK.replace('frequency = "0.2 Hz"', 'duration = "30"')),
        "entry 4 (acceptance test)",
        "without a unit",
    ),
    "zero occurrences": (
        ("occurrences = 1667", "occurrences = 0"),
        "entry 1 (loaded lap), occurrences",
        "never happens",
    ),
    "time beside known ones": (
        ("repeats_per_year = 12", 'repeats_per_year = 12\nrepeat_duration = "40"'),
        "duty_cycle",
        "repeat_duration",
    ),
    "old keys": (("format = 2", "format = 1"), "study.toml, format", "Write format = 2."),
    "no repeats": (("repeats_per_year = 12", "repeats_per_year = 0"), "duty_cycle, repeats_per_year", "above 0"),
    "unknown residue": (('residue = "repeated"', 'residue = "closed"'), "duty_cycle, residue", "one of"),
    "both kinds of event": (
        ("occurrences = 1667", 'occurrences = 1667\nrange = "3 kN"'),
        "entry 1 (loaded lap)",
        "exactly one of history",
    ),
    "neither kind of event": (('history = "loaded_lap.csv" ', "#"), "entry 1 (loaded lap)", "exactly one of history"),
    "target without unit": (('"30 years"', '"30"'), "study.toml, target_life", "without a unit"),
    "target in days": (('"30 years"', '"30 days"'), "study.toml, target_life", "'year'"),
    "target of zero": (('"30 years"', '"0 years"'), "study.toml, target_life", "above 0"),
    "rate without range": (
        ('"1.65e-11 m/cycle at 1 MPa√m"', '"1.65e-11 m/cycle"'),
        "growth_laws, steel_in_air, rate",
        "at 1 MPa√m",
    ),
    "threshold as stress": (('"2 MPa√m"', '"2 MPa"'), "growth_laws, steel_in_air, threshold", "stress intensity"),
    "growth slope": (
        ("slope = 3                              # m of da", "slope = -3 # m of da"),
        "steel_in_air, slope",
        "above 0",
    ),
    "crack nowhere": (
        ('hot_spot = "weld toe at the grip head"', 'hot_spot = "weld"'),
        "cracks, entry 1 (weld), hot_spot",
        "Did you mean",
    ),
    "crack in force": (('initial_size = "1 mm"', 'initial_size = "1 N"'), "cracks, entry 1", "not one of length"),
    "crack in metres": (
        ('initial_size = "1 mm"', 'initial_size = "1 m"'),
        "entry 1 (weld toe at the grip head), initial_size",
        "below 12 mm",
    ),
    "crack of nothing": (('initial_size = "1 mm"', 'initial_size = "0 mm"'), "initial_size", "above 0"),
    "detectable beyond": (
        ('detectable_size = "2.5 mm"', 'detectable_size = "30 cm"'),
        "detectable_size",
        "Is the unit right",
    ),
    "plate of nothing": (('plate_width = "150 mm"', 'plate_width = "0 mm"'), "width", "above 0"),
    "unknown shape": (
        ('shape = "surface"', 'shape = "edges"'),
        "cracks, entry 1 (weld toe at the grip head), shape",
        "'edge'",
    ),
    "thickness left out": (('thickness = "12 mm"\n', ""), "thickness", "which a crack of the shape 'surface' needs"),
    "key of another shape": (crack_key('radius = "3 mm"'), "radius", "does not have"),
    "a hole of nothing": (plain_crack("hole", 'radius = "0 mm"'), "radius", "above 0"),
    "three cracks at a hole": (plain_crack("hole", 'radius = "3 mm"', "cracks = 3"), "cracks", "1 or 2"),
    "a wall of nothing": (plain_crack("pipe, around", 'radius = "3 mm"', 'wall = "0 mm"'), "wall", "above 0"),
    "a bar of nothing": (plain_crack("round bar", 'diameter = "0 mm"'), "diameter", "above 0"),
    "one point": (plain_crack("table", 'points = [["1 mm", 1.1]]'), "points", "two or more rows"),
    "points that fall": (
        plain_crack("table", 'points = [["2 mm", 1.1], ["1 mm", 1.2]]'),
        "points",
        "row 2: 1 mm with Y = 1.2",
    ),
    "all bending and more": (crack_key("bending_share = 1.2"), "bending_share", "0 to 1"),
    "attachment of nothing": (
        ('attachment_length = "20 mm" ', 'attachment_length = "0 mm" #'),
        "attachment_length",
        "above 0",
    ),
    "surface factor": (crack_key("surface_factor = 0"), "surface_factor", "above 0"),
    "half length left out": (("initial_half_length = ", "#"), "initial_half_length", "half of the crack length"),
    "half length too long": (
        ('initial_half_length = "2.5 mm"', 'initial_half_length = "50 mm"'),
        "initial_half_length",
        "below 37.5 mm",
    ),
    "later law unknown": (crack_key('later_law = "steel"\nlater_law_from = "5 years"'), "later_law", "Did you mean"),
    "tests of nothing": (law_key('tests = "nothing.csv"'), "growth_laws, steel_in_air", "no such file"),
    "tests without piece": (
        (LAW, 'above_mean = 2\ntests = { file = "growth_readings.csv", r_ratio = 0.1 }\n'),
        "growth_laws, steel_in_air",
        "piece",
    ),
    "fitted and given": (
        law_key("above_mean = 2"),
        "growth_laws, steel_in_air, rate",
        "one of 'kind', 'tests', 'above_mean'",
    ),
    "unknown key of tests": (
        law_key('tests = { file = "growth_readings.csv", peice = "compact tension" }'),
        "growth_laws, steel_in_air",
        "Did you mean",
    ),
    "a pin and more": (
        plain_crack("hole", 'radius = "3 mm"', 'plate_width = "60 mm"', "pin_share = 1.5"),
        "pin_share",
        "0 to 1",
    ),
    "a pin in an endless plate": (
        plain_crack("hole", 'radius = "3 mm"', "pin_share = 1.0"),
        "pin_share",
        "plate_width",
    ),
    "centre out of the wall": (
        plain_crack("embedded", *PLATE_KEYS, 'centre_depth = "9 mm"'),
        "centre_depth",
        "from the nearer surface",
    ),
    "broken beyond": (plain_crack("embedded", *PLATE_KEYS, "broken_at = 1.1"), "broken_at", "at most 0.95"),
    "shares of stress in MPa": (
        plain_crack(
            "edge, any stress", 'plate_width = "60 mm"', 'stress_profile = [["0 mm", "2 MPa"], ["60 mm", "1 MPa"]]'
        ),
        "stress_profile",
        "number",
    ),
    "residual stress bare": (
        crack_key('residual_stress = [["0 mm", 100], ["1 mm", 0]]'),
        "residual_stress",
        "100 without a unit",
    ),
    "residual stress that ends": (
        crack_key('residual_stress = [["0 mm", "100 MPa"], ["1 mm", "0 MPa"]]'),
        "residual_stress",
        "points to 12 mm",
    ),
    "points bare of a crack": (plain_crack("table", "points = [[1, 1.1], [2, 1.2]]"), "points", "1 without a unit"),
    "gaps in a grid": (
        plain_crack("grid", 'initial_half_length = "2.5 mm"', 'points = [["1 mm", 0.2, 1, 1], ["2 mm", 0.4, 1, 1]]'),
        "points",
        "each depth once with each aspect",
    ),
    "later law from never": (crack_key('later_law = "steel_in_air"'), "later_law_from", "or neither"),
    "unknown order": (('order = "cycle by cycle"', 'order = "sorted"'), "order", "'per repeat'"),
    "retardation at once": (
        (
            f'{TWO_SIZES}law = "steel_in_air"\norder = "cycle by cycle"',
            f'{TWO_SIZES}law = "steel_in_air"\nretardation = "wheeler"',
        ),
        "retardation",
        "'cycle by cycle'",
    ),
    "unknown retardation": (
        (TWO_SIZES, ONE_SIZE.format("edge") + 'retardation = { kind = "memory" }\n'),
        "retardation",
        "one of",
    ),
    "unknown end": (crack_key('beyond_validity = "clamp"'), "beyond_validity", "'refuse'"),
    "unknown limits": (crack_key('limits = "none"'), "limits", "'assessment curve'"),
    "modulus of nothing": (crack_key('youngs_modulus = "0 GPa"'), "youngs_modulus", "above 0"),
    "stop before the start": (crack_key('stop_size = "0.5 mm"'), "stop_size", "beyond the initial 1 mm"),
    "unknown form of law": (law_key('kind = "pariss"'), "kind", "Did you mean 'paris'"),
    "form of an earlier format": (law_key('form = "walker"'), "steel_in_air, form", "Write kind in its place"),
    "value of another form": (law_key("gamma = 0.5"), "steel_in_air, gamma", "an unknown key"),
    "unknown threshold": ((AT_THRESHOLD, 'threshold = { kind = "none" }'), "threshold, kind", "one of"),
    "threshold as a number": ((AT_THRESHOLD, "threshold = 63.0"), "threshold", "63.0 without a unit"),
    "threshold exponent": (
        (AT_THRESHOLD, 'threshold = { kind = "power of 1 - R", range = "2 MPa√m", exponent = nan }'),
        "exponent",
        "a number",
    ),
    "scatter of nothing": (law_key('scatter = ""'), "scatter", "text with something in it"),
    "unknown law": (
        ('law = "steel_in_air"', 'law = "steel"'),
        "entry 1 (weld toe at the grip head), law",
        "Did you mean",
    ),
    "stresses nowhere": (model("few_nodes.csv", "none.csv"), "model", "no such file"),
    "stress unit twice": (model("[model]", '[model]\nstress_unit = "MPa"'), "stress_unit", "the file says it itself"),
    "length unit twice": (model("[model]", '[model]\nlength_unit = "mm"'), "length_unit", "the file says it itself"),
    "cases twice": (model("[model]", '[model]\ncases = ["pull"]'), "cases", "the file says it itself"),
    "unknown measure": (model("[model]", '[model]\nmeasure = "signed Treska"'), "model", "Did you mean"),
    "cases ignored": (model("[model]", '[model]\nignore_cases = ["push"]'), "ignore_cases", "no load case 'push'"),
    "left out": (model("[model]", '[model]\nleave_out = ["no set"]'), "leave_out", "none: this field has no set"),
    "R of the tests": (law_key("valid_r = [0.5, 0.1]"), "valid_r", "a lower and a higher R"),
    "apart bare": (model("[model]", "[model]\napart = 5"), "apart", "without a unit"),
    "unknown case": (model('"pull"', '"pul"'), "model", "Did you mean 'pull'"),
    "no load cases": (
        model('{ case = "pull", channel = "vertical force", unit_load = "10 kN" }', ""),
        "model, loads",
        "no load case with a history",
    ),
    "unit load in MPa": (model("10 kN", "10 MPa"), "model", "force"),
    "case loaded twice": (model('"10 kN"', '"10 kN", constant = 1.0'), "load_cases", "or constant"),
    "factor of no event": (model('"10 kN"', '"10 kN", event_factors = { lap = 2.0 }'), "model", "an event"),
    "empty box": (
        model("[model]", '[model]\nsets = { tip = { x = ["50 mm", "60 mm"] } }'),
        "model",
        "no nodes in the box",
    ),
    "box upside down": (
        model("[model]", '[model]\nsets = { tip = { y = ["5 mm", "1 mm"] } }'),
        "model",
        "lower to a higher",
    ),
    "half a box": (model("[model]", '[model]\nsets = { tip = { z = ["5 mm"] } }'), "z", "at least 2"),
    "worst of elements": (model("[model]", '[model]\nelement_values = "worst"'), "element_values", "'each element'"),
    "order of a table": (
        model("[model]", '[model]\ncomponent_order = "xx, yy, zz, xy, xz, yz"'),
        "component_order",
        "the file says it itself",
    ),
    "no face": (model("[model]", '[model]\nface = "top"'), "model: stress field", "it has no faces"),
    "no deck": (model("[model]", '[model]\nsets_from = "none.inp"'), "model", "no such file"),
    "unknown region": (
        model("[model]", '[model]\nregions = [{ set = "tip", sn_curve = "pin_bore" }]'),
        "model: stress field few_nodes.csv, node set",
        "no set",
    ),
    "region of a rule": (
        model("[model]", '[model]\nregions = [{ set = "tip", mean_stress = "goodmen" }]'),
        "model, regions, entry 1",
        "Did you mean 'goodman'",
    ),
    "region twice": (
        model("[model]", '[model]\nregions = [{ set = "tip" }, { set = "tip" }]'),
        "model, regions",
        "a name twice",
    ),
    "sequence of forces": (
        model("[model]", '[model]\nsequences = [{ channel = "vertical force", cases = ["pull"] }]'),
        "model, load case pull",
        "two loads",
    ),
    "sequence of nothing": (
        model("[model]", '[model]\nsequences = [{ channel = "step", cases = [] }]'),
        "sequences",
        "at least one",
    ),
    "flat direction": (model("[model]", "[model]\ndirection = [1, 0]"), "direction", "at least 3"),
    "path of two kinds": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", surface = ["0 mm", "0 mm", "0 mm"], other = ["1 mm", "0 mm", "0 mm"], nodes = [1]}]',
        ),
        "paths, entry 1",
        "one way to find it",
    ),
    "path of no kind": (model("[model]", '[model]\npaths = [{ name = "a" }]'), "paths, entry 1", "one way to find it"),
    "bare toe": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", rule = "5 and 15 mm", toe = [0, 0, 0], along = [1, 0, 0], thickness = "8 mm" }]',
        ),
        "toe",
        "without a unit",
    ),
    "path in no model": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", rule = "5 and 15 mm", toe = ["0 mm", "0 mm", "0 mm"], along = [1, 0, 0] }]',
        ),
        "model: stress field few_nodes.csv",
        "no elements with a shape",
    ),
    "unknown part": (('counted_part = "tensile"', 'counted_part = "open"'), "counted_part", "'full'"),
    "inspection factor": (("inspection_factor = 3", "inspection_factor = 0.3"), "inspection_factor", "at least 1"),
    "no toughness": (('toughness = "75 MPa√m"', "#"), "cracks, entry 1", "no toughness"),
    "same spot twice": (
        ('name = "bend of the tube"', 'name = "weld toe at the grip head"'),
        "entry 3",
        "a different name",
    ),
    "same event twice": (('name = "empty lap"', 'name = "loaded lap"'), "duty_cycle", "the same name twice"),
    "repeat without a name": (('repeat = "month"', 'repeat = ""'), "duty_cycle, repeat", "text with something in it"),
    "event without a name": (('name = "empty lap"', 'name = ""'), "duty_cycle, events, entry 2, name", "text with"),
    "rate in seconds": (
        (FIRST, FIRST + 'sample_rate = "0.01 s"\n'),
        "(loaded lap): loaded_lap.csv, sample rate",
        "not one of frequency",
    ),
    "rate against time": (
        (FIRST, FIRST + 'sample_rate = "50 Hz"\n'),
        "(loaded lap): loaded_lap.csv",
        "stated sample rate",
    ),
    "block in MPa": ((LAST, BLOCK.replace("3 kN", "3 MPa")), "hot_spots, entry 1", "different dimensions"),
    "block without unit": ((LAST, BLOCK.replace("3 kN", "3")), "channel vertical force", "a load without a unit"),
    "block with both": (
        (LAST, BLOCK.replace("cycles", 'range = "6 kN"\ncycles')),
        "entry 4 (acceptance test)",
        "exactly one of history",
    ),
    "block without range": (
        (LAST, BLOCK.replace("amplitude", "#")),
        "entry 4 (acceptance test)",
        "exactly one of history",
    ),
    "block of range 0": (
        (LAST, BLOCK.replace("amplitude", "range").replace("3 kN", "0 kN")),
        "acceptance test), range",
        "above 0",
    ),
    "block at R = 1": ((LAST, BLOCK.replace("= 0.0\n", "= 1.0\n")), "acceptance test), r_ratio", "other than 1"),
    "block without cycles": ((LAST, BLOCK.replace("cycles = 10", "cycles = 0")), "acceptance test), cycles", "above 0"),
    "block in seconds": ((LAST, BLOCK.replace("0.2 Hz", "5 s")), "acceptance test), frequency", "not one of frequency"),
    "block elsewhere": (
        (LAST, BLOCK.replace("vertical force", "sway")),
        "event acceptance test",
        "what the load on this channel is",
    ),
    "source as number": (
        ('source = "made up, in', "source = 5 # "),
        "sn_curves, fillet_weld, source",
        "text in quotes",
    ),
    "knee in force": (
        ('knee_stress = "52.3 MPa"', 'knee_stress = "52.3 N"'),
        "fillet_weld, knee_stress",
        "not one of stress",
    ),
    "knee as number": (
        ('knee_stress = "52.3 MPa"', "knee_stress = 52.3"),
        "fillet_weld, knee_stress",
        "without a unit",
    ),
    "knee life as text": (("knee_life = 5e6", 'knee_life = "5e6"'), "fillet_weld, knee_life", "a number"),
    "unknown card": (('ultimate_strength = "780 MPa"', 'card = "tempered-800"'), "pin_steel", "Did you mean"),
    "folder of cards": (('target_life = "30 years"', 'cards = "nowhere"'), "cards", "no such folder"),
    "card and numbers": (
        ('threshold = "2 MPa√m"', 'card = "structural-steel-355"'),
        "growth_laws, steel_in_air, rate",
        "one of 'kind', 'card'",
    ),
    "law of a card": ((LAW, 'card = "structural-steel-355"\nlaw = "sea"'), "growth_laws, steel_in_air", "one of 'air'"),
    "family of one": (pair('curves = ["tube"]'), "sn_families, pair, curves", "at least"),
    "family of strangers": (pair('curves = ["tube", "tubes"]'), "sn_families, pair, curves", "Did you mean 'tube'"),
    "family beyond": (
        pair('curves = ["tube", "pin_bore"]\nbeyond_highest = "extend"\nbeyond_lowest = "hold"'),
        "sn_families, pair, beyond_highest",
        "'refuse', 'hold'",
    ),
    "family of one R": (pair('curves = ["tube", "pin_bore"]'), "sn_families, pair", "two curves at R = -1"),
    "two forms of a curve": (("knee_life = 5e6", 'knee_life = 5e6\ncard = "steel"'), "fillet_weld", "keep one"),
    "tests upside down": (
        ("knee_life = 5e6", "knee_life = 5e6\ntested_from = 1e6\ntested_to = 1e5"),
        "tested",
        "that rises",
    ),
    "survival in percent": (
        ("knee_life = 5e6", "knee_life = 5e6\nsurvival_probability = 97.7"),
        "survival_probab",
        "between 0",
    ),
    "law at R = 1": (('threshold = "2 MPa√m"', "r_ratio = 1.0 #"), "growth_laws, steel_in_air, r_ratio", "below 1"),
    "unknown order of events": (
        (REPEATED, REPEATED + 'between = "in order"\n'),
        "duty_cycle, between",
        "'in the order given'",
    ),
    "order of part events": ((REPEATED, REPEATED + ORDERED + "occurrences = 0.5\n#"), "duty_cycle", "a whole number"),
    "history with cycles": ((FIRST, FIRST + "cycles = 3\n"), "(loaded lap)", "goes with another kind"),
    "block of a history": ((FIRST, FIRST + "block = 2\n"), "(loaded lap)", "goes with another kind"),
    "reader without setting": (
        (FIRST, FIRST + 'read = { sheet = "a" }\n'),
        "(loaded lap): loaded_lap.csv",
        "text files do not have",
    ),
    "repair unknown": (
        (FIRST, FIRST + 'repairs = [{ step = "smooth" }]\n'),
        "(loaded lap), repairs, step",
        "one of 'cut'",
    ),
    "repair misspelt": (
        (FIRST, FIRST + 'repairs = [{ step = "cut", ende = "3 s" }]\n'),
        "(loaded lap), repairs, cut, ende",
        "Did you mean 'end'",
    ),
    "gate without unit": (
        (FIRST, FIRST + 'gate = { "vertical force" = "0.05" }\n'),
        "(loaded lap), gate, vertical force",
        "without a unit",
    ),
    "gate elsewhere": ((FIRST, FIRST + 'gate = { "sway" = "0.05 kN" }\n'), "(loaded lap)", "no channel 'sway'"),
    "programme nowhere": ((LAST, ROWS.format('programme = "none.csv"')), "(rows): ", "no such file"),
    "programme without unit": (
        (LAST, ROWS.format("programme = { level = [3.0], cycles = [1] }")),
        "(rows), unit",
        'unit = "kN"',
    ),
    "programme upside down": ((LAST, ROWS.format(UPSIDE_DOWN)), "(rows), row 1", "a maximum below the minimum"),
    "spectrum out of order": ((LAST, ROWS.format(RISING)), "(rows), row 2", "ranges that fall"),
    "spectrum of gaps": (
        (LAST, ROWS.format('spectrum = { unit = "kN", range = [3.0] }')),
        "(rows)",
        "a column 'cycles'",
    ),
    "states nobody feels": (
        (LAST, ROWS.format("states = { wind = [0, 1] }\ncycles = 3").replace('channel = "vertical force"\n', "")),
        "event rows",
        "no channel 'vertical force'",
    ),
    "programme without channel": (
        (LAST, ROWS.replace("channel", "#").format('programme = "x.csv"')),
        "(rows)",
        "the key 'channel'",
    ),
    "an empty inner duty cycle": (
        (LAST, ROWS.replace("channel", "#").format("events = []")),
        "entry 4 (rows)",
        "at least one",
    ),
    "a fault in an inner event": (
        (LAST, ROWS.replace("channel", "#").format(INNER)),
        "events, entry 1 (lap), history",
        "text in quotes",
    ),
    "no way for loads": (
        (BY_ONE, ""),
        f"{WELD}, stress_per_load",
        "one of 'stress_per_load', 'unit_stresses', 'rosette'",
    ),
    "a channel that is in the tensor": (
        (BY_ONE, 'channel = "torque"\nunit_stresses = []\n'),
        f"{WELD}, channel",
        "unit_stresses alone",
    ),
    "a component in force": (
        (BY_ONE, 'unit_stresses = [{ channel = "vertical force", unit_load = "1 kN", xx = "3 kN" }]\n'),
        f"{WELD}, unit_stresses, entry 1, xx",
        "not one of stress",
    ),
    "misspelt component": (
        (BY_ONE, 'unit_stresses = [{ channel = "vertical force", unit_load = "1 kN", xz = "3 MPa", zx = "1 MPa" }]\n'),
        f"{WELD}, unit_stresses, entry 1, xz",
        "an unknown key",
    ),
    "constant stress alone": (
        (BY_ONE, f'{BY_ONE}constant_stress = {{ xx = "3 MPa" }}\n'),
        f"{WELD}, constant_stress",
        "unit_stresses beside it",
    ),
    "a measure of one stress": ((BY_ONE, f'{BY_ONE}measure = "signed Tresca"\n'), f"{WELD}, measure", "a rosette"),
    "two channels of a rosette": (
        (BY_ONE, 'rosette = { channels = ["a", "b"], youngs_modulus = "206 GPa" }\n'),
        f"{WELD}, rosette, channels",
        "3",
    ),
    "directions of a rosette": (
        (BY_ONE, 'rosette = { channels = ["a", "b", "c"], directions = "0/90", youngs_modulus = "206 GPa" }\n'),
        WELD,
        "0/60/120",
    ),
    "poissons_ratio in percent": (
        (BY_ONE, 'rosette = { channels = ["a", "b", "c"], youngs_modulus = "206 GPa", poissons_ratio = 30.0 }\n'),
        WELD,
        "at most 0.5",
    ),
    "a method that is not there": (
        ('sn_curve = "fillet_weld"\nmean', 'method = "welds"\nmean'),
        f"{WELD}, mean_stress",
        "beside",
    ),
    "an unknown method": (
        ('sn_curve = "fillet_weld"\nmean_stress = "none"\n', 'method = "welds"\n'),
        f"{WELD}, method",
        "a name under methods",
    ),
    "a method without curve": (
        (AT_LAWS, f'[methods.welds]\nmean_stress = "none"\n\n{AT_LAWS}'),
        "methods, welds, sn_curve",
        "the key",
    ),
    "a method of an unknown kind": (
        (AT_LAWS, f'[methods.welds]\nkind = "stress live"\nsn_curve = "tube"\n\n{AT_LAWS}'),
        "methods, welds, kind",
        "Did you mean 'stress life'",
    ),
    "an unknown count": (
        ('residue = "repeated"', 'residue = "repeated"\ncounting = "rainflo"'),
        "duty_cycle, counting",
        "Did you mean 'rainflow'",
    ),
    "not TOML": (("format = 2", "format: 2"), "study.toml", "not TOML"),
}


@pytest.mark.slow
@pytest.mark.parametrize(("replacement", "place", "message"), FAULTS.values(), ids=FAULTS)
def test_a_fault_is_named_by_file_and_keys(study, run, tmp_path, replacement, place, message):
    path = study(replacement)
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
