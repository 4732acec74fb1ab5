"""From loads to stress: superposed by hand, as at a node of a model, from a rosette, from a table; and in a study."""

import json
import pickle

import jsonschema
import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.damage.spots import CURVE, STEEL
from tests.spots import hot_spot
from tests.study.texts import AT_LAWS, MODEL
from vivid_anvil.damage import life_working
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, LoadStates, block_programme
from vivid_anvil.growth import grow_crack
from vivid_anvil.histories import history_from_frame
from vivid_anvil.histories.rosette import ROSETTES, principal_strains, principal_stresses
from vivid_anvil.stress import MEASURES, CaseLoad, CaseLoads, UnitStresses, read_unit_stresses, stresses_of_rosette
from vivid_anvil.study import read_study, run_study, study_schema

PAIR = CaseLoads(
    [
        CaseLoad(case="pull", channel="force", unit_load="10 kN", event_factors={"twice": 2.0}),
        CaseLoad(case="twist", channel="torque", unit_load="0.5 kN*m"),
    ]
)
UNIT = np.array([[120.0, 10, 0, 30, 0, 0], [0, 0, 0, 65, 0, 5]])
ALWAYS = np.array([15.0, 0, -4, 0, 0, 0])
TIME = np.arange(400) / 50.0
LAP = history_from_frame(
    pd.DataFrame(
        {"time [s]": TIME, "force [kN]": 6 + 5 * np.sin(3 * TIME), "torque [kN*m]": 0.4 * np.sin(7 * TIME + 0.3)}
    )
)
DAY = DutyCycle("day", [Event("lap", LAP, 30), Event("twice", LAP, 2)], 250)
BY_ONE = 'channel = "vertical force"\nstress_per_load = "24.5 MPa/kN"        # nominal stress beside the weld, from the drawing\n'


def place(measure="signed Tresca", **settings):
    return UnitStresses(loads=PAIR, unit=UNIT, constant=ALWAYS, measure=measure, **settings)


def tensors(event):
    """Six components at every sample, superposed by hand."""
    pull = LAP["force"].values / 10e3 * (2.0 if event == "twice" else 1.0)
    twist = LAP["torque"].values / 0.5e6
    return pull[:, None] * UNIT[0] + twist[:, None] * UNIT[1] + ALWAYS


@pytest.mark.parametrize("measure", MEASURES)
def test_a_place_of_several_components_lives_as_its_stress_by_hand(measure):
    relation = place(measure, offset="3 MPa")
    stress = {event.name: relation.measure.of(tensors(event.name)) for event in DAY.events}
    frames = {name: pd.DataFrame({"time [s]": TIME, "stress [MPa]": one}) for name, one in stress.items()}
    alone = DutyCycle(
        "day", [Event(e.name, history_from_frame(frames[e.name]), e.occurrences) for e in DAY.events], 250
    )
    how = {"material": STEEL, "curve": CURVE, "notch_factor": 1.3, "mean_stress": "goodman"}
    several = va.assess_life(hot_spot(name="lug", relation=relation, **how), DAY, target="20 years")
    one = va.assess_life(
        hot_spot(name="lug", channel="stress", stress_per_load=1.0, offset="3 MPa", **how), alone, target="20 years"
    )
    assert several.damage_per_repeat == pytest.approx(one.damage_per_repeat, rel=1e-9)
    assert several.peak_stress == pytest.approx(one.peak_stress)
    extra = {"reserve-with-constant"}  # the counted stress holds some that no load moves
    assert {finding.code for finding in several.findings} == {finding.code for finding in one.findings} | extra
    for step in life_working(several).steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-4, abs=2e-4), step.title
    assert pickle.loads(pickle.dumps(several.hot_spot)).local_cycles(DAY).range == pytest.approx(
        several.spectrum.cycles.range
    )


def test_the_largest_principal_stress_is_that_of_the_tensor():
    full = tensors("lap")[:, [[0, 3, 5], [3, 1, 4], [5, 4, 2]]]
    values = np.linalg.eigvalsh(full)
    wanted = np.where(values[:, 2] >= -values[:, 0], values[:, 2], values[:, 0])
    found = place("absolute maximum principal").seen(LAP, "lap").samples().channels[0].values
    assert found == pytest.approx(wanted, rel=1e-6, abs=1e-6)


def test_cycles_of_one_channel_are_seen_by_both_ends_in_any_duty_cycle():
    relation = UnitStresses(loads=CaseLoads(PAIR.cases[:1]), unit=UNIT[:1], measure="component xx")
    blocks = block_programme("force", {"maximum": [12, 9], "minimum": [0, 3], "cycles": [10, 500]}, "kN")
    equal = ConstantAmplitude.from_maximum("force", "5 kN", minimum="-5 kN", cycles=7)
    states = LoadStates.of({"force": ["0 kN", "8 kN", "2 kN"]}, cycles=4)
    for between in ("each by itself", "in the order given", "worst case"):
        day = DutyCycle("day", [Event("a", blocks), Event("twice", equal), Event("c", states)], between=between)
        plain = hot_spot(name="s", channel="force", stress_per_load="12 MPa/kN", material=STEEL, curve=CURVE)
        seen = hot_spot(name="s", relation=relation, material=STEEL, curve=CURVE)
        if between == "each by itself":  # the event "twice" doubles the load
            assert seen.local_cycles(day).range.max() == pytest.approx(240.0)
        day = DutyCycle("day", [Event("a", blocks), Event("b", equal), Event("c", states)], between=between)
        lives = [va.assess_life(one, day) for one in (plain, seen)]
        assert lives[0].damage_per_repeat == pytest.approx(lives[1].damage_per_repeat, rel=1e-9)
        assert str(va.explain(lives[1]))


def test_what_cannot_be_is_refused(tmp_path):
    pull = Event("pull", ConstantAmplitude.from_range("force", "9 kN", cycles=3))
    for call, said in (
        (lambda: UnitStresses(loads=PAIR, unit=UNIT[:1]), "(2, 6)"),
        (lambda: UnitStresses(loads=PAIR, unit=UNIT * np.nan), "finite"),
        (lambda: UnitStresses(loads=PAIR, unit=UNIT, measure="tresca"), "signed Tresca"),
        (lambda: place().cycles(DutyCycle("day", [pull])), "no channel 'torque'"),
        (lambda: stresses_of_rosette(["a", "b"], youngs_modulus=2e5), "three channels"),
        (lambda: stresses_of_rosette(["a", "b", "c"], (0, 45, 180), youngs_modulus=2e5), "three different directions"),
        (lambda: stresses_of_rosette(["a", "b", "c"], "0/45", youngs_modulus=2e5), "0/60/120"),
        (lambda: _table(tmp_path, "channel,unit load,xz [MPa]\nforce,1 kN,3\n"), "Did you mean"),
        (lambda: _table(tmp_path, "channel,xx [MPa]\nforce,3\n"), "no column 'unit load'"),
        (lambda: _table(tmp_path, "channel,unit load,xx\nforce,1 kN,3\n"), "no unit"),
        (lambda: _table(tmp_path, "channel,unit load,xx [MPa]\n,,3\n"), "no channel"),
    ):
        with pytest.raises(va.InputError) as caught:
            call()
        assert said in str(caught.value)


def _table(folder, text):
    path = folder / "lug.csv"
    path.write_text(text)
    return read_unit_stresses(path)


def test_a_table_says_the_same_as_the_arguments(tmp_path):
    rows = "channel,unit load,xx [ksi],yy [ksi],zz [ksi],xy [ksi],zx [ksi]\n"
    for (channel, load), stress in zip(
        (("force", "10 kN"), ("torque", "0.5 kN*m"), ("", "")), (*UNIT, ALWAYS), strict=True
    ):
        rows += (
            ",".join([channel, load, *(repr(float(one) / 6.894757293168361) for one in np.delete(stress, 4))]) + "\n"
        )
    found = _table(tmp_path, rows)
    assert found.unit == pytest.approx(UNIT)
    assert found.constant == pytest.approx(ALWAYS)
    assert found.seen(LAP, "lap").extremes(str(found)) == pytest.approx(
        place("signed von Mises, hydrostatic").seen(LAP, "lap").extremes(str(place("signed von Mises, hydrostatic")))
    )


@settings(max_examples=60)
@given(st.lists(st.floats(-2e-3, 2e-3), min_size=3, max_size=3), st.sampled_from(ROSETTES), st.floats(0.0, 0.45))
def test_a_rosette_gives_the_principal_stresses_of_its_strains(strains, kind, nu):
    relation = stresses_of_rosette(["a", "b", "c"], kind, youngs_modulus="206 GPa", poissons_ratio=nu)
    found = principal_strains(*([one] for one in strains), kind)
    wanted = principal_stresses(found, "206 GPa", nu)
    (tensor,) = relation.tensors(np.array([strains]))
    plane = np.linalg.eigvalsh([[tensor[0], tensor[3]], [tensor[3], tensor[1]]])
    assert plane == pytest.approx([wanted.smaller[0], wanted.larger[0]], abs=1e-6)
    degrees = tuple(float(one) for one in kind.split("/"))
    turned = stresses_of_rosette(["a", "b", "c"], degrees, youngs_modulus="206 GPa", poissons_ratio=nu)
    assert turned.unit == pytest.approx(relation.unit, abs=1e-9)


@pytest.fixture
def multiaxial(study):
    """The demo's weld toe with two components, and a way to change its keys."""

    def made(*more, keys='measure = "signed Tresca"'):
        rows = '[{ channel = "vertical force", unit_load = "10 kN", xx = "245 MPa", xy = "40 MPa" }]'
        return study((BY_ONE, f"unit_stresses = {rows}\n{keys}\n"), *more)

    return made


@pytest.mark.slow
def test_a_place_of_several_components_goes_through_every_command(multiaxial, run):
    path = multiaxial(keys='measure = "signed Tresca"\nconstant_stress = { yy = "-20 MPa" }')
    study = read_study(path)
    jsonschema.validate(json.loads(json.dumps(study.data)), study_schema())
    high = max(event.extremes("vertical force")[1] for event, _ in study.duty_cycle.flat()) / 1e3
    life = run_study(study).lives[0]
    assert life.peak_stress == pytest.approx(2.0 * np.hypot((24.5 * high + 20.0) / 2.0, 4.0 * high), rel=1e-9)
    weld = "weld toe at the grip head"
    for command in (
        ["check", path],
        ["life", path, "--spot", weld],
        ["explain", path, "--spot", weld],
        ["grow", path],
        ["solve", path],
        ["inspections", path],
    ):
        code, out, err = run(*command)
        assert code == 0, err
    code, out, err = run("explain", path, "--spot", weld)
    assert "Component xy" in out
    assert "Largest principal stress" in out
    assert grow_crack(study.cracks[0], study.duty_cycle).life_repeats > 0.0


@pytest.mark.slow
def test_a_rosette_and_a_table_in_a_study(study, tmp_path):
    (tmp_path / "lug.csv").write_text("channel,unit load,xx [MPa]\nvertical force,1 kN,24.5\n")
    keys = 'unit_stresses = "lug.csv"\ndirection = [1, 0, 0]\n'
    plain, table = (run_study(read_study(study(*more))).lives[0] for more in ([], [(BY_ONE, keys)]))
    assert table.life_repeats == pytest.approx(plain.life_repeats, rel=1e-12)
    strains = pd.DataFrame(
        {"time [s]": TIME} | {f"{name} [um/m]": 900 * np.sin(TIME + i) for i, name in enumerate("abc")}
    )
    strains.to_csv(tmp_path / "strains.csv", index=False)
    path = tmp_path / "gauges.toml"
    path.write_text(ROSETTE)
    (life,) = run_study(read_study(path)).lives
    history = va.read_csv(tmp_path / "strains.csv")
    a, b, c = (history[name].values for name in "abc")
    both = principal_stresses(principal_strains(a, b, c, "0/45/90"), "206 GPa", 0.3)
    largest = np.maximum(both.larger, 0.0).max()
    assert life.peak_stress == pytest.approx(largest, rel=1e-6)


ROSETTE = """format = 2
title = "a rosette"
[duty_cycle]
repeat = "lap"
[[duty_cycle.events]]
name = "lap"
history = "strains.csv"
[materials.steel]
ultimate_strength = "510 MPa"
[sn_curves.weld]
standard = "EN 1993-1-9"
class = 80
[[hot_spots]]
name = "gauge"
rosette = { channels = ["a", "b", "c"], youngs_modulus = "206 GPa" }
measure = "absolute maximum principal"
material = "steel"
sn_curve = "weld"
"""


@pytest.mark.slow
def test_a_method_is_shared_by_hot_spots_regions_and_paths(study, run):
    flat = 'sn_curve = "pin_bore"\nmean_stress = "goodman"\ncompressive_mean = "ignored"           # or "credited"\n'
    table = '[methods.pins]\nsn_curve = "pin_bore"\nmean_stress = "goodman"\ncritical_sum = 0.5\n\n'
    at_model = (AT_LAWS, f"{MODEL.replace('sn_curve = ', 'method = ').replace('fillet_weld', 'pins')}\n{AT_LAWS}")
    named = study((flat, 'method = "pins"\n'), at_model, (AT_LAWS, table + AT_LAWS))
    result = run_study(read_study(named))
    code, out, err = run("model", named)
    assert code == 0, err
    assert "pin_bore" in out
    inline = 'method = { sn_curve = "pin_bore", mean_stress = "goodman", critical_sum = 0.5 }\n'
    lives = [run_study(read_study(study(*more))).lives[1].life_repeats for more in ([(flat, inline)], [])]
    assert result.lives[1].life_repeats == lives[0]
    assert lives[0] == pytest.approx(0.5 * lives[1])
    assert result.study.model.spot.method is result.lives[1].hot_spot.method
    assert result.model.result.critical_sums.tolist() == [0.5, 0.5, 0.5]
    jsonschema.validate(json.loads(json.dumps(result.study.data)), study_schema())
