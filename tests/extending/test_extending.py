"""Whoever adds a form writes one file: study, command, hand calculation, figure, pickle and schema know it."""

import dataclasses
import importlib
import json
import pickle
from concurrent.futures import ThreadPoolExecutor

import jsonschema
import numpy as np
import pytest

import vivid_anvil as va
from tests.study.texts import AT_LAWS, AT_ONCE, AT_THRESHOLD, LAW, MODEL, TWO_SIZES, WRITTEN
from vivid_anvil.counting import COUNTING_METHODS
from vivid_anvil.fields import assess_model, node_tensors
from vivid_anvil.growth import RETARDATIONS, grow_by_cycle, grow_crack
from vivid_anvil.histories import REPAIRS
from vivid_anvil.histories.load import LOADS
from vivid_anvil.materials import CURVED_FORMS, LAWS, MEAN_STRESS_RULES, THRESHOLDS, ParisLaw
from vivid_anvil.shapes import SHAPES, CentreCrack
from vivid_anvil.spectra import EXPECTED_CYCLES, RESPONSES
from vivid_anvil.stress import MEASURES, METHODS
from vivid_anvil.study import read_study, run_study, study_schema

pytestmark = pytest.mark.slow

SHARE = 'retardation = { kind = "share", reach = "0.01 mm", share = 0.5 }'
ADDED = {
    "growth law": (
        LAW,
        'kind = "exponential"\ngrowth_at_0 = "1e-6 mm/cycle"\nk_0 = "8 MPa√m"\nthreshold = "2 MPa√m"\n',
    ),
    "threshold": (AT_THRESHOLD, 'threshold = { kind = "straight to 1", at_0 = "4 MPa√m" }'),
    "retardation": ('law = "steel_in_air"', 'law = "steel_in_air"\n' + SHARE),
}
EDGE = (TWO_SIZES, 'shape = "edge"\nplate_width = "60 mm"\ninitial_size = "1 mm"\n')
TABLES = {
    "toy_law": LAWS,
    "toy_threshold": THRESHOLDS,
    "toy_retardation": RETARDATIONS,
    "toy_rule": MEAN_STRESS_RULES,
    "toy_measure": MEASURES,
    "toy_method": METHODS,
    "toy_load": LOADS,
    "toy_counting": COUNTING_METHODS,
    "toy_repair": REPAIRS,
    "toy_curve": CURVED_FORMS,
    "toy_shape": SHAPES,
    "toy_formula": EXPECTED_CYCLES,
    "toy_response": RESPONSES,
}


@pytest.fixture(scope="module", autouse=True)
def toys():
    """The toys by name, in their tables while these tests run, and no longer."""
    before = {name: set(table) for name, table in TABLES.items()}
    found = {}
    for name, table in TABLES.items():
        importlib.import_module(f"tests.extending.{name}")
        found |= {kind: table[kind] for kind in set(table) - before[name]}
    yield found
    for name, table in TABLES.items():
        for kind in set(table) - before[name]:
            del table._known[kind]


@pytest.mark.parametrize("part", ADDED)
def test_what_is_added_goes_through_study_command_working_figure_pickle_and_schema(study, run, part, tmp_path):
    order = [] if part == "retardation" else [AT_ONCE]
    path = study(ADDED[part], EDGE, *order)
    result = run_study(read_study(path))
    growth = result.growths[0]
    schema, data = study_schema(), json.loads(json.dumps(result.study.data))
    jsonschema.validate(data, schema)
    code, _, err = run("grow", path, "--json", tmp_path / "a.json", "--figures", tmp_path / "figures")
    assert code == 0, err
    assert json.loads((tmp_path / "a.json").read_text())
    assert run("check", path)[0] == 0
    plain = run_study(read_study(study(EDGE, *order))).growths[0]
    assert growth.life_repeats != plain.life_repeats
    back = pickle.loads(pickle.dumps(growth.crack))
    assert grow_crack(back, growth.duty_cycle).life_repeats == growth.life_repeats
    assert va.plot(growth.crack.law)
    assert "da/dN" in str(va.explain(growth))


@pytest.mark.parametrize(
    ("part", "slip", "said"),
    [
        ("growth law", ("k_0", "k_1"), "Did you mean 'k_0'"),
        ("growth law", ('"8 MPa√m"', "8.0"), "8.0 without a unit"),
        ("growth law", ('"exponential"', '"exponental"'), "Did you mean 'exponential'"),
        ("threshold", ('"4 MPa√m"', '"-4 MPa√m"'), "above 0"),
        ("threshold", ('"straight to 1"', '"straight to 2"'), "Did you mean 'straight to 1'"),
        ("retardation", ("share = 0.5", "shore = 0.5"), "Did you mean 'share'"),
        ("retardation", ('"0.01 mm"', '"0.01 MPa"'), "not one of length"),
    ],
)
def test_its_slips_are_named_as_those_of_any_other(study, part, slip, said):
    old, new = ADDED[part]
    with pytest.raises(va.InputError, match=said) as caught:
        read_study(study((old, new.replace(*slip))))
    assert "study.toml" in caught.value.where


def test_the_toys_do_what_they_say(toys):
    straight = toys["straight to 1"](at_0=100.0)
    law = toys["exponential"](name="toy", growth_at_0=1e-6, k_0=250.0, threshold=straight)
    assert law.growth([60.0, 300.0], [0.2, 0.2]) == pytest.approx([0.0, 1e-6 * np.exp(1.2)])
    assert law.threshold_at([-1.0, 0.5]) == pytest.approx([100.0, 50.0])
    rows = np.array([[200.0, 0.0], [100.0, 0.0], [100.0, 0.0]])
    steel = ParisLaw(name="p", rate=1e-12, slope=3.0)
    grown = [
        grow_by_cycle(rows, CentreCrack(100.0), steel, 5.0, retardation=one).size - 5.0
        for one in (None, toys["share"](reach=1.0, share=0.25))
    ]
    large, small = 8.0 / 10.0, 2.0 / 10.0  # of the growth of 2 + 1 + 1 cubed
    assert grown[1] / grown[0] == pytest.approx(large + 0.25 * small, rel=1e-3)
    assert dataclasses.replace(law, threshold=0.0).growth(60.0) > 0.0


def test_a_mean_stress_rule_goes_through_study_commands_working_figures_schema_and_every_node(study, run, tmp_path):
    old = 'mean_stress = "goodman"'
    pin = MODEL.replace('sn_curve = "fillet_weld"', 'sn_curve = "pin_bore"\nmean_stress = "in between"')
    path = study((old, 'mean_stress = "in between"'), (AT_LAWS, pin + "\n" + AT_LAWS))
    result = run_study(read_study(path))
    life = next(one for one in result.lives if one.method.mean_stress == "in between")
    assert "(S_m / R_m)^1.5" in str(va.explain(life))
    assert va.plot(life)
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    back = pickle.loads(pickle.dumps(life.hot_spot))
    assert va.assess_life(back, life.duty_cycle).life_repeats == life.life_repeats
    for command in ("life", "rules", "check"):
        code, _, err = run(command, path, "--json", tmp_path / f"{command}.json")
        assert code == 0, err
    assert "in between" in (tmp_path / "rules.json").read_text()
    code, _, err = run("model", path, "--json", tmp_path / "model.json")
    assert code == 0, err
    job = read_study(path).model
    asked = (job.field, job.loads, result.study.duty_cycle, job.spot)
    whole, skipped = (assess_model(*asked, measure=job.measure, skip_harmless=skip) for skip in ("no", "yes"))
    assert whole.values.damage.tolist() == skipped.values.damage.tolist()
    slip = study((old, 'mean_stress = "in betwen"'))
    with pytest.raises(va.InputError, match="Did you mean 'in between'"):
        read_study(slip)


def test_a_measure_goes_through_study_command_working_schema_pickle_and_every_node(study, run, tmp_path, toys):
    kind = "size of the normal stresses"
    path = study((AT_LAWS, f"{MODEL}measure = {json.dumps(kind)}\n\n{AT_LAWS}"))
    result = run_study(read_study(path))
    assert result.model.measure == kind
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    code, _, err = run("model", path, "--json", tmp_path / "model.json")
    assert code == 0, err
    assert kind in (tmp_path / "model.json").read_text()
    job = pickle.loads(pickle.dumps(read_study(path).model))
    asked = (job.field, job.loads, result.study.duty_cycle, job.spot)
    whole, skipped = (assess_model(*asked, measure=job.measure, skip_harmless=skip) for skip in ("no", "yes"))
    assert whole.values.damage.tolist() == skipped.values.damage.tolist()
    with ThreadPoolExecutor(2) as pool:
        again = assess_model(*asked, measure=kind, chunk=1, executor=pool)
    assert again.values.damage.tolist() == whole.values.damage.tolist()
    node = int(job.field.node_ids[whole.worst])
    code, shown, err = run("model", path, "--node", node)
    assert code == 0, err
    assert "Size of the normal stresses" in shown
    tensors = node_tensors(whole, node)
    assert toys[kind]().of([3.0, -4.0, 0.0, 9.0, 9.0, 9.0]) == pytest.approx([-5.0])
    assert max(np.linalg.norm(one[:, :3], axis=1).max() for one in tensors.values()) == pytest.approx(
        max(abs(whole.values.highest[whole.worst]), abs(whole.values.lowest[whole.worst])) / job.spot.notch_factor
    )
    with pytest.raises(va.InputError, match="Did you mean 'size of the normal stresses'"):
        read_study(study((AT_LAWS, f'{MODEL}measure = "size of normal stresses"\n\n{AT_LAWS}')))


POWER = '{ kind = "power of amplitude", at_once = "900 MPa", power = 6.0, idle = "20 MPa" }'


def test_a_method_goes_through_study_commands_working_figures_pickle_schema_and_every_node(study, run, tmp_path):
    at_model = f"{MODEL.replace('sn_curve = ', 'method = ').replace(chr(34) + 'fillet_weld' + chr(34), POWER)}\n"
    bore = ('sn_curve = "pin_bore"\nmean_stress = "goodman"', f"method = {POWER}")
    no_rule = ('compressive_mean = "ignored"', "#")
    path = study(bore, no_rule, (AT_LAWS, at_model + AT_LAWS))
    result = run_study(read_study(path))
    life = next(one for one in result.lives if one.method.kind == "power of amplitude")
    amplitude = 0.5 * life.spectrum.cycles.range
    damage = (life.spectrum.per_repeat * np.where(amplitude > 20.0, amplitude / 900.0, 0.0) ** 6).sum()
    assert life.damage_per_repeat == pytest.approx(damage)
    assert life.reserve_on_stress == pytest.approx((1.0 / damage / 360.0) ** (1 / 6), rel=0.05)
    assert "(S_1 / S_a)^p" in str(va.explain(life))
    assert va.plot(life)
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    back = pickle.loads(pickle.dumps(life.hot_spot))
    assert va.assess_life(back, life.duty_cycle).life_repeats == life.life_repeats
    spot = ["--spot", "bore of the suspension pin"]
    for command, *more in (
        ["life", *spot],
        ["explain", *spot],
        ["check"],
        ["solve", *spot],
        ["what-if", "hot_spots/bore of the suspension pin/method/power", "5", "7"],
        ["model", "--node", result.model.places[0].node],
    ):
        drawn = ["--figures", tmp_path / command] if command in ("life", "model", "what-if") else []
        code, _, err = run(command, path, *more, "--json", tmp_path / f"{command}.json", *drawn)
        assert code == 0, (command, err)
    assert "power of amplitude" in (tmp_path / "life.json").read_text()
    job = read_study(path).model
    asked = (job.field, job.loads, result.study.duty_cycle, job.spot)
    whole, skipped = (assess_model(*asked, measure=job.measure, skip_harmless=skip) for skip in ("no", "yes"))
    assert whole.values.damage.tolist() == skipped.values.damage.tolist()
    slips = (("power = 6.0", "pover = 6.0", "Did you mean 'power'"), ("900 MPa", "900 kN", "not one of stress"))
    for old, new, said in slips:
        with pytest.raises(va.InputError, match=said):
            read_study(study((bore[0], f"method = {POWER.replace(old, new)}"), no_rule))


RAMPS = """[[duty_cycle.events]]
name = "starts"
load = { kind = "ramps", channel = "vertical force", top = "8 kN", times = 40, each = "3 s" }

"""
AT_NODES = (AT_LAWS, f"{MODEL}\n{AT_LAWS}")


def answered(run, path, tmp_path, *commands):
    """Each command runs on a study, with all that it writes and draws."""
    for command in commands:
        drawn = ["--figures", tmp_path / command] if command in ("life", "grow", "model") else []
        code, _, err = run(command, path, "--json", tmp_path / f"{command}.json", *drawn)
        assert code == 0, (command, err)


@pytest.mark.parametrize("between", ["each by itself", "in the order given", "worst case"])
def test_a_kind_of_load_goes_through_study_commands_growth_and_every_node(study, run, tmp_path, between):
    first = "[[duty_cycle.events]]\n"
    kept = ('residue = "repeated"', f'residue = "repeated"\nbetween = "{between}"')
    path = study(kept, (first, RAMPS + first), AT_NODES, EDGE)
    checked = read_study(path)
    jsonschema.validate(json.loads(json.dumps(checked.data)), study_schema())
    event = checked.duty_cycle.events[0]
    assert event.lasts == 120.0
    assert pickle.loads(pickle.dumps(checked.duty_cycle)).extremes("vertical force")[1] == 8000.0
    result = run_study(checked)
    assert "starts" in [one.name for one in result.lives[0].events]
    assert result.lives[0].peak_stress == pytest.approx(24.5 * 8.0)
    assert str(va.explain(result.lives[0]))
    assert result.model.result.values.highest.max() == pytest.approx(60.0 * 0.8)
    answered(run, path, tmp_path, "check", "life", "grow", "model", "explain")
    slip = study(kept, (first, RAMPS.replace("times", "tmes") + first))
    with pytest.raises(va.InputError, match="Did you mean 'times'"):
        read_study(slip)
    inner = '[[duty_cycle.events]]\nname = "day"\n' + RAMPS.replace("duty_cycle.events", "duty_cycle.events.events")
    assert read_study(study(kept, (first, inner + first))).duty_cycle.flat()[0][0].name == "day: starts"


def test_a_counting_method_goes_through_study_commands_figures_and_every_node(study, run, tmp_path):
    counted = ('residue = "repeated"', 'residue = "repeated"\ncounting = "one swing"')
    path = study(counted, AT_NODES, EDGE)
    result = run_study(read_study(path))
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    life = result.lives[0]
    assert [one.cycles for one in life.events] == [one.occurrences for one in life.events]
    assert "not-rainflow" in [finding.code for finding in life.findings]
    assert "not-rainflow" in [finding.code for finding in result.growths[0].findings]
    assert "not-rainflow" in [finding.code for finding in result.model.findings]
    low, high = (24.5 * one / 1e3 for one in life.duty_cycle.events[0].extremes("vertical force"))
    assert life.spectrum.cycles.range[0] == pytest.approx(high - low)
    assert str(va.explain(life))
    assert va.plot(life)
    answered(run, path, tmp_path, "check", "life", "grow", "model", "explain", "rules")
    lap = path.parent / "loaded_lap.csv"
    assert "1 cycles by one swing counting" in run("count", lap, "--method", "one swing")[1]
    with pytest.raises(va.InputError, match="Did you mean 'one swing'"):
        read_study(study((counted[0], counted[1].replace("one swing", "one swng"))))
    with pytest.raises(va.InputError, match="by rainflow only"):
        read_study(study((counted[0], counted[1] + '\nbetween = "worst case"')))


SHAKEN = """[[duty_cycle.events]]
name = "shaking"
channel = "base"
psd = [["10 Hz", "0.02 g^2/Hz"], ["200 Hz", "0.02 g^2/Hz"]]
exposure = "2 h"

[materials.plate_steel]
"""
MOUNTED = """[[hot_spots]]
name = "mount"
material = "plate_steel"
sn_curve = "tube"
[hot_spots.responses]
base = { kind = "soft mount", corner = "40 Hz", below = "20 MPa/g" }
"""


def test_a_formula_and_a_response_go_through_study_commands_working_figures_pickle_and_schema(run, tmp_path):
    text = HEAD_OF_ONE + SHAKEN + STRENGTHS + MOUNTED
    path = tmp_path / "shaken.toml"
    path.write_text(text)
    result = run_study(read_study(path))
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    life = result.lives[0]
    process = life.hot_spot.fed.seen(life.duty_cycle.events[0].load, "shaking").process
    mount = life.hot_spot.fed.responses["base"]
    f = np.linspace(10.0, 200.0, 20_001)
    square = np.trapezoid(np.abs(mount.at(f)) ** 2 * 0.02 * 9806.65**2, f)
    assert process.rms == pytest.approx(np.sqrt(square), rel=1e-6)
    assert life.spectrum.cycles.range == pytest.approx([2.0 * np.sqrt(2.0) * process.rms])
    assert pickle.loads(pickle.dumps(life)).damage_per_repeat == life.damage_per_repeat
    assert "one range" in str(va.explain(life))
    assert va.plot(life)
    code, out, err = run("vibration", path, "--figures", tmp_path / "figures")
    assert code == 0, err
    assert "one range" in out
    answered(run, path, tmp_path, "check", "life", "explain")
    path.write_text(text.replace('"soft mount"', '"soft mound"'))
    with pytest.raises(va.InputError, match="Did you mean 'soft mount'"):
        read_study(path)
    path.write_text(text.replace('"one range"', '"one rang"'))
    with pytest.raises(va.InputError, match="Did you mean 'one range'"):
        read_study(path)


HEAD_OF_ONE = """format = 2
title = "mount"
target_life = "100 days"

[duty_cycle]
repeat = "day"
repeats_per_year = 300
expected_cycles = "one range"

"""
STRENGTHS = """ultimate_strength = "510 MPa"
yield_strength = "355 MPa"

[sn_curves.tube]
stress = "amplitude"
r_ratio = -1
point_stress = "90 MPa"
point_life = 1e6
slope = 5

"""


def test_a_repair_goes_through_study_and_commands(study, run, tmp_path):
    at = 'history = "loaded_lap.csv"'
    turn = at + '\nrepairs = [{ step = "turn_over", channel = "vertical force" }]'
    path = study((at, turn))
    result = run_study(read_study(path))
    assert result.study.duty_cycle.events[0].extremes("vertical force")[0] < 0.0
    assert "turned over" in (str(result.lives[0].page("metric").words))
    answered(run, path, tmp_path, "check", "life", "grow")
    with pytest.raises(va.InputError, match="Did you mean 'channel'"):
        read_study(study((at, turn.replace("channel = ", "chanel = "))))


def test_a_result_with_a_table_is_shown_written_and_explained_as_any_other(demo_result):
    from tests.extending.toy_table import Spread
    from vivid_anvil.cli import show

    made = pickle.loads(pickle.dumps(Spread(demo_result.lives)))
    console = show.console()
    with console.capture() as got:
        console.print(show.page(made.page("us"), "us"))
    text = got.get()
    assert "Lives over the shortest" in text
    assert "[ksi]" in text
    assert "no limit" in text
    record = json.loads(json.dumps(made.to_dict()))
    assert record["spread"][0]["peak [MPa]"] == pytest.approx(demo_result.lives[0].peak_stress)
    assert made.to_frame()["over the shortest"].min() == 1.0
    assert "<th>Hot spot</th>" in made._repr_html_()
    assert str(va.explain(made)) == str(va.explain(demo_result.lives[0]))


BELL = """form = { kind = "bell", longest = 1e8, scale = "70 MPa" }
stress = "range"
r_ratio = "any"
tested_from = 1e4
tested_to = 1e7
"""


def test_a_curved_line_goes_through_study_commands_figures_working_pickle_schema_and_every_node(study, run, tmp_path):
    start, end = WRITTEN.index("stress"), WRITTEN.index("[sn_curves.pin_bore]")
    weld = (WRITTEN[start:end], BELL + "\n")
    path = study(weld, AT_NODES)
    result = run_study(read_study(path))
    life = result.lives[0]
    ranges, often = life.spectrum.cycles.range, life.spectrum.per_repeat
    assert life.damage_per_repeat == pytest.approx((often / (1e8 * np.exp(-((ranges / 70.0) ** 2)))).sum())
    assert "exp(-(" in str(va.explain(life))
    assert va.plot(life.curve)
    assert va.plot(life)
    assert pickle.loads(pickle.dumps(life.curve)).life(100.0) == life.curve.life(100.0)
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    answered(run, path, tmp_path, "check", "life", "model", "explain", "solve")
    job = read_study(path).model
    asked = (job.field, job.loads, result.study.duty_cycle, job.spot)
    whole, skipped = (assess_model(*asked, measure=job.measure, skip_harmless=skip) for skip in ("no", "yes"))
    assert whole.values.damage.tolist() == skipped.values.damage.tolist()
    for old, new, said in (("scale", "skale", "Did you mean 'scale'"), ('"70 MPa"', "70.0", "70.0 without a unit")):
        with pytest.raises(va.InputError, match=said):
            read_study(study((weld[0], weld[1].replace(old, new))))


OWN_SHAPES = {
    "strip": 'shape = "strip"\nstrip_width = "80 mm"\nrise = 0.5\ninitial_size = "1 mm"\n',
    "block": 'shape = "block"\nblock_depth = "12 mm"\ninitial_size = "1 mm"\ninitial_half_length = "2 mm"\n',
}


@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
@pytest.mark.parametrize("kind", OWN_SHAPES)
def test_a_shape_goes_through_study_growth_commands_figures_working_pickle_and_schema(
    study, run, tmp_path, kind, order
):
    now = [AT_ONCE] if order == "per repeat" else []
    path = study((TWO_SIZES, OWN_SHAPES[kind]), *now)
    result = run_study(read_study(path))
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
    growth = result.growths[0]
    assert growth.crack.order == order
    back = pickle.loads(pickle.dumps(growth.crack))
    again = grow_crack(back, growth.duty_cycle, target=result.study.target_life)
    assert again.life_repeats == growth.life_repeats
    law = growth.crack.law  # by hand: repeats = ∫ da / growth, the growth of a cycle with Y at each size
    sizes = np.geomspace(1.0, growth.critical.limiting, 400)
    y = 1.0 + 0.5 * sizes / 80.0 if kind == "strip" else np.full(400, 0.7)
    ranges, often = growth.drive.ranges, growth.drive.per_repeat
    rates = np.array([(often * law.growth(ranges * k)).sum() for k in y * np.sqrt(np.pi * sizes)])
    if kind == "strip":
        assert growth.life_repeats == pytest.approx(np.trapezoid(1.0 / rates, sizes), rel=0.02)
    assert "made up" in str(va.explain(growth))
    assert va.plot(growth)
    assert va.plot(growth.crack.shape)
    if order == "per repeat":
        answered(run, path, tmp_path, "check", "grow", "inspections", "explain")
    key = "rise" if kind == "strip" else "block_depth"
    with pytest.raises(va.InputError, match=f"Did you mean '{key}'"):
        read_study(study((TWO_SIZES, OWN_SHAPES[kind].replace(key, key + "s")), *now))
