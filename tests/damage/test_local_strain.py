"""Lives by local strain: reference histories through a whole hot spot, other ways to the same life, workings, findings."""

import dataclasses
import json
import pickle

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.reference_values import FOLDER
from tests.strain_values import FORMS, RULES, strain_life
from vivid_anvil.damage import LocalStrain, StressLife
from vivid_anvil.events import BETWEEN_EVENTS, ConstantAmplitude, DutyCycle, Event
from vivid_anvil.materials import Material, basquin_curve
from vivid_anvil.materials.strain import STRAIN_MEANS, uniform_material_law
from vivid_anvil.stress import HotSpot, OneLoad
from vivid_anvil.stress.yielding import NOTCH_RULES

CASES = {
    case["id"]: case
    for case in json.loads((FOLDER / "strain_life.json").read_text())["cases"]
    if case["id"].startswith("history")
}
STEEL = uniform_material_law("520 MPa")
METAL = Material(name="steel", yield_strength=355.0, ultimate_strength=520.0, walker_exponent=0.65)
BLOCK = [300.0, -200.0, 200.0, -100.0, 150.0, -250.0, 100.0, 0.0]


def history(values):
    return va.LoadHistory("made", (va.Channel("s", np.asarray(values, dtype=float), "stress"),), sample_rate=10.0)


def duty(*events, **how):
    """Events of (values, occurrences), in a year."""
    made = tuple(Event(f"event {i}", history(values), times) for i, (values, times) in enumerate(events))
    return DutyCycle("year", made, repeats_per_year=1, **how)


def spot(method, notch_factor=1.0, offset=0.0, material=METAL):
    return HotSpot(
        name="bore", relation=OneLoad("s", 1.0, offset), material=material, method=method, notch_factor=notch_factor
    )


@pytest.mark.parametrize("form", FORMS)
@pytest.mark.parametrize("name", CASES)
def test_a_reference_history_does_the_damage_that_it_says_at_a_hot_spot(name, form):
    inputs, wanted = CASES[name]["inputs"], CASES[name]["expected"]
    curve = strain_life(inputs["material"])
    metal = dataclasses.replace(METAL, walker_exponent=inputs["walker_gamma"])
    measured = "block_strain" in inputs
    rule = "none" if measured else RULES[inputs["rule"]]
    loads = curve.youngs_modulus * np.array(inputs["block_strain"]) if measured else inputs["block_S_MPa"]
    method = LocalStrain(strain_life=curve, notch_rule=rule, mean_stress=FORMS[form])
    life = va.assess_life(spot(method, inputs.get("Kt", 1.0), material=metal), duty((loads, 1)))
    key = form.removeprefix("N_")
    assert life.damage_per_repeat == pytest.approx(wanted[f"damage_{key}"], rel=1e-7)
    assert life.life_repeats == pytest.approx(wanted[f"repeats_{key}"], rel=1e-7)


@pytest.mark.parametrize("between", BETWEEN_EVENTS)
@pytest.mark.parametrize("form", STRAIN_MEANS)
@pytest.mark.parametrize("rule", NOTCH_RULES)
def test_every_line_of_a_loop_can_be_redone(rule, form, between):
    method = LocalStrain(strain_life=STEEL, notch_rule=rule, mean_stress=form)
    where = spot(method, 1.9, offset=20.0)
    life = va.assess_life(where, duty((BLOCK, 3), ([0.0, 400.0, -50.0], 1), between=between), target=100.0)
    for event in [None, *(one.name for one in life.events if one.damage > 0.0)]:
        for units in ("metric", "us"):
            worked = va.life_working(life, units, event=event)
            for step in worked.steps:
                assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-5, abs=1e-12), step.title
    life_step = next(step for step in worked.steps if step.title.startswith("Life: the damage"))
    assert life_step.value == pytest.approx(life.life_repeats)


def test_the_chain_of_a_loop_within_loops_is_worked_from_first_loading_on():
    life = va.assess_life(spot(LocalStrain(strain_life=STEEL), 2.6), duty((BLOCK, 1)))
    inner = int(np.argmin(life.spectrum.cycles.range))
    steps = life.method.steps_of(life.hot_spot, life.spectrum.cycles, inner, "metric")
    titles = [step.title for step in steps]
    assert titles[0].startswith("First loading")
    assert any("within it, 1" in title for title in titles)
    lives = life.method.lives(life.hot_spot, life.method.loops(life.spectrum.cycles))
    assert steps[-1].value == pytest.approx(lives[inner])
    for step in steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-5), step.title


@pytest.mark.parametrize("ratio", [1.5, 4.0])
@pytest.mark.parametrize("rule", [name for name, one in NOTCH_RULES.items() if one.drive == "stress"])
def test_a_section_that_yields_too_can_be_redone_and_shortens_the_life(rule, ratio):
    how = {"strain_life": STEEL, "notch_rule": rule}
    plain = va.assess_life(spot(LocalStrain(**how), 2.6), duty((BLOCK, 1)))
    yields = va.assess_life(spot(LocalStrain(**how, plastic_limit_ratio=ratio), 2.6), duty((BLOCK, 1)))
    assert yields.life_repeats < plain.life_repeats
    for step in va.life_working(yields).steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-5), step.title


small = st.lists(st.integers(-6, 6), min_size=2, max_size=9).filter(lambda many: len(set(many)) > 1)


@settings(max_examples=40, deadline=None)
@given(block=small, between=st.sampled_from(list(BETWEEN_EVENTS)))
def test_elastic_loads_give_the_stress_life_of_the_elastic_line(block, between):
    """Loads far below yield: the loops are the elastic cycles, and the curve is Basquin's line."""
    curve = uniform_material_law("2000 MPa", group="aluminium")
    strong = dataclasses.replace(curve, cyclic_strength_coefficient=40e3, cyclic_hardening_exponent=0.12)
    line = basquin_curve(
        name="line",
        stress="amplitude",
        r_ratio=-1,
        coefficient=curve.fatigue_strength_coefficient,
        exponent=curve.fatigue_strength_exponent,
        counted_in="reversals",
    )
    loads = duty((20.0 * np.array(block), 5), ([0.0, 90.0], 2), between=between)
    local = va.assess_life(spot(LocalStrain(strain_life=strong, mean_stress="none")), loads)
    stress = va.assess_life(spot(StressLife(sn_curve=line)), loads)
    # what is left of the plastic line at these lives, next to nothing, shortens the local life
    assert local.damage_per_repeat == pytest.approx(stress.damage_per_repeat, rel=1e-3)


@settings(max_examples=25, deadline=None)
@example(block=[0, -1], form="walker", between="worst case")  # once a loop of no range
@given(block=small, form=st.sampled_from(list(STRAIN_MEANS)), between=st.sampled_from(list(BETWEEN_EVENTS)))
def test_the_reserve_is_on_loads_through_the_whole_chain(block, form, between):
    where = spot(LocalStrain(strain_life=STEEL, mean_stress=form), 2.0, offset=25.0)
    values = 60.0 * np.array(block)
    life = va.assess_life(where, duty((values, 5), ([0.0, 300.0], 2), between=between), target=50.0)
    factor = life.reserve_on_stress
    if 0.0 < factor < 1e3:
        met = va.assess_life(where, duty((factor * values, 5), ([0.0, factor * 300.0], 2), between=between))
        assert met.life_repeats == pytest.approx(50.0, rel=1e-6)


def test_an_overload_in_tension_protects_where_the_order_is_followed():
    method = LocalStrain(strain_life=STEEL, mean_stress="morrow")
    laps = ([20.0, 160.0] * 20 + [20.0], 1000)
    alone, ordered = (
        va.assess_life(spot(method, 2.5), duty(([0.0, 420.0, 0.0], 1), laps, between=between))
        for between in ("each by itself", "in the order given")
    )
    assert ordered.life_repeats > 2.0 * alone.life_repeats
    pressed = va.assess_life(spot(method, 2.5), duty(([0.0, -420.0, 0.0], 1), laps, between="in the order given"))
    assert pressed.life_repeats < ordered.life_repeats


def findings(life):
    return {one.code for one in life.findings}


def test_findings_say_what_an_expert_would():
    method = LocalStrain(strain_life=STEEL)
    laps = ([20.0, 160.0] * 20 + [20.0], 1000)
    stop = ([0.0, 420.0, 0.0], 1)
    assert {"plastic-strain", "residual-stress-forgotten", "section-yields", "estimated-strain-life"} <= findings(
        va.assess_life(spot(method, 2.5), duty(stop, laps))
    )
    ordered = va.assess_life(spot(method, 2.5), duty(stop, laps, between="in the order given"))
    assert "residual-stress-credited" in findings(ordered)
    assert "residual-stress-forgotten" not in findings(ordered)
    assert not {"above-yield", "above-ultimate"} & findings(ordered)
    measured = dataclasses.replace(method, notch_rule="none")
    assert "section-yields" not in findings(va.assess_life(spot(measured, 2.5), duty(stop, laps)))
    mild = va.assess_life(spot(method), duty(([-150.0, 150.0], 1e6)))
    assert "stress-life-agrees" in findings(mild)
    kept = va.assess_life(spot(dataclasses.replace(method, mean_stress="morrow"), 2.5), duty(([0.0, 330.0], 10)))
    assert "mean-stress-kept" in findings(kept)
    pressed = va.assess_life(spot(method), duty(([-220.0, -20.0], 10), ([-100.0, 120.0], 1)))
    assert "compression-idle" in findings(pressed)
    assert "section-yields" not in findings(
        va.assess_life(spot(dataclasses.replace(method, plastic_limit_ratio=2.0), 2.5), duty(stop, laps))
    )


def test_the_elastic_line_beside_it_is_that_of_the_elastic_cycles():
    life = va.assess_life(spot(LocalStrain(strain_life=STEEL), 2.0), duty((BLOCK, 1)))
    beside = life.method.beside(life)
    cycles = life.spectrum.cycles
    curve = STEEL
    product = np.maximum(cycles.maximum, 0.0) * 0.5 * cycles.range  # σ_max σ_a = σ_f'² (2N)^(2b)
    power = 1.0 / (2.0 * curve.fatigue_strength_exponent)
    lives = 0.5 * (product / curve.fatigue_strength_coefficient**2) ** power
    assert beside.damage == pytest.approx(float((cycles.per_repeat / lives).sum()))
    assert beside.ratio == pytest.approx(beside.damage / life.damage_per_repeat)


def test_a_result_goes_through_pickle_files_and_pages():
    life = va.assess_life(spot(LocalStrain(strain_life=STEEL), 2.6), duty((BLOCK, 1)), target="30 years")
    again = pickle.loads(pickle.dumps(life.hot_spot))
    assert va.assess_life(again, life.duty_cycle).life_repeats == life.life_repeats
    record = life.to_dict()
    assert record["strain-life curve"]["transition life [cycles]"] == pytest.approx(STEEL.transition_life)
    assert record["loops"][0]["share"] == pytest.approx(life.damage.max() / life.damage_per_repeat)
    assert record["notch rule"] == "neuber"
    assert "local stress" in dict(life.words("metric"))["Notch"]
    assert "ksi" in dict(life.words("us"))["Notch"]


def test_nothing_that_moves_does_no_damage():
    still = ConstantAmplitude("s", 0.0, 0.0, 1.0, "stress")
    life = va.assess_life(spot(LocalStrain(strain_life=STEEL)), DutyCycle("year", (Event("still", still),)))
    assert life.damage_per_repeat == 0.0
    assert va.plot(life)


@pytest.mark.parametrize(
    ("given_", "said"),
    [
        ({"strain_life": "steel"}, "a strain-life curve"),
        ({"notch_rule": "nueber"}, "Did you mean 'neuber'"),
        ({"mean_stress": "goodman"}, "one of 'none', 'morrow'"),
        ({"critical_sum": 0.0}, "above 0"),
        ({"plastic_limit_ratio": 0.8}, "1 or more|at least 1"),
        ({"plastic_limit_ratio": 2.0, "notch_rule": "none"}, "strains are taken as they are"),
    ],
)
def test_nonsense_is_refused(given_, said):
    with pytest.raises(va.InputError, match=said):
        LocalStrain(**({"strain_life": STEEL} | given_))


def test_what_the_material_lacks_and_what_fails_at_once_is_told():
    with pytest.raises(va.InputError, match="walker"):
        spot(LocalStrain(strain_life=STEEL, mean_stress="walker"), material=Material(name="bare"))
    elastic = LocalStrain(strain_life=STEEL, mean_stress="morrow", notch_rule="none")
    with pytest.raises(va.InputError, match="mean stress reaches σ_f'"):
        va.assess_life(spot(elastic), duty(([2.0999e6, 2.1e6], 1)))
