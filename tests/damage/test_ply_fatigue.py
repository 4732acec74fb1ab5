"""Fatigue of a laminate at a place: by hand, against its parts, what an expert says of it."""

import dataclasses
import pickle
import re

import numpy as np
import pytest

import vivid_anvil as va
from tests.by_hand import by_hand
from tests.materials.test_plies import GLASS
from tests.progress.test_laminate_progress import DECAYS, LIVES
from vivid_anvil.damage import PlyFatigue, assess_life
from vivid_anvil.damage.methods.ply_fatigue import PLY_RULES
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material
from vivid_anvil.materials.plies import EnergyLife, LargestStress, PowerStiffness
from vivid_anvil.stress import CaseLoad, CaseLoads, HotSpot, OneLoad
from vivid_anvil.stress.laminates import Laminate, SectionLoads
from vivid_anvil.units import UNIT_SYSTEMS

WARM = {"expansion_along": 7e-6, "expansion_across": 27e-6}


def spot_of(layup="[0/±45]s", unit=((20.0, 0, 0, 6.0, 0, 1.0),), ply=None, temperature=0.0, **how):
    """A place whose forces and moments go with forces."""
    own = dataclasses.replace(GLASS, **{**LIVES, **(ply or {})})
    cases = CaseLoads([CaseLoad(case=f"case {i}", channel=f"force {i}", unit_load="1 kN") for i in range(len(unit))])
    laminate = Laminate(name="plate", layup=layup, ply=own, ply_thickness=0.4, temperature_change=temperature)
    relation = SectionLoads(loads=cases, unit=np.array(unit, dtype=float))
    return HotSpot(
        name="place", relation=relation, material=Material(name="glass"), method=PlyFatigue(laminate=laminate, **how)
    )


def duty(top="2 kN", bottom="0.2 kN", times=100.0):
    load = ConstantAmplitude.from_maximum("force 0", top, minimum=bottom, cycles=times)
    return DutyCycle("day", [Event("pull", load)], repeats_per_year=250)


def two_forces(n=400):
    """Two forces that do not move in step."""
    t = np.linspace(0.0, 2.0 * np.pi, n, endpoint=False)
    history = va.LoadHistory(
        "turn",
        [
            va.Channel.in_unit("force 0", 1.2 + np.sin(3 * t), "kN"),
            va.Channel.in_unit("force 1", np.sin(2 * t + 0.7), "kN"),
        ],
        10.0,
    )
    return DutyCycle("day", [Event("turn", history, occurrences=50)], repeats_per_year=250)


def codes(life):
    return {one.code for one in life.findings}


@pytest.mark.parametrize("units", UNIT_SYSTEMS)
@pytest.mark.parametrize(("rule", "temperature"), [("together", -60.0), ("apart", 0.0), ("energy", 0.0)])
def test_every_line_of_the_working_gives_its_value(units, rule, temperature):
    ply = {**WARM, "energy_life": EnergyLife(constant=0.6, exponent=0.1)}
    life = assess_life(spot_of(ply=ply, temperature=temperature, rule=rule), duty())
    steps = life.working(units).steps
    redone = 0
    for step in steps:
        if step.formula.startswith(("u:", "u_2", "N = the one")):  # a life that is looked for
            continue
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-4, abs=1e-9), step
        redone += 1
        if "strain" in step.title or "curvature" in step.title:
            assert not re.search(r"e-(1[6-9]|[2-9]\d)", step.numbers), f"what rounding left of a zero: {step}"
    assert redone > 15
    (last,) = [one for one in steps if one.title.startswith("Life: the damage")]
    assert last.value == pytest.approx(life.life_repeats, rel=1e-9)


def test_the_life_is_that_of_the_stresses_of_the_worst_ply():
    spot = spot_of("[0/90]s", unit=((25.0, 0, 0, 0, 0, 0),))
    life = assess_life(spot, duty())
    stress = spot.method.laminate.full.per_load[1, 0, :, 0] * 25.0
    top, low = 2.0 * stress[1], 0.2 * stress[1]
    across = LIVES["across_life"]
    assert life.life_repeats == pytest.approx(
        float(across.lives((top - low) / 2, (top + low) / 2)[0]) / 100.0, rel=1e-9
    )
    assert life.spectrum.cycles.range[0] == pytest.approx(top - low)
    assert spot.method.place(spot, life.duty_cycle).lead[:2] == ("matrix", 1)


def test_one_force_counted_once_is_what_counting_each_stress_gives():
    one = spot_of()
    twice = spot_of(unit=((20.0, 0, 0, 6.0, 0, 1.0), (0.0, 0, 0, 0, 0, 0)))
    history = va.LoadHistory(
        "lap",
        [
            va.Channel.in_unit("force 0", np.random.default_rng(3).normal(1.0, 0.7, 500), "kN"),
            va.Channel.in_unit("force 1", np.zeros(500), "kN"),
        ],
        10.0,
    )
    work = DutyCycle("day", [Event("lap", history, occurrences=50)])
    lives = [assess_life(spot, work).life_repeats for spot in (one, twice)]
    assert lives[0] == pytest.approx(lives[1], rel=1e-9)


def test_together_is_no_longer_than_apart_and_all_rules_stand_side_by_side():
    spot = spot_of(ply={"energy_life": EnergyLife(constant=0.6, exponent=0.1)})
    lives = {
        rule: assess_life(dataclasses.replace(spot, method=dataclasses.replace(spot.method, rule=rule)), duty())
        for rule in PLY_RULES
    }
    assert lives["together"].life_repeats <= lives["apart"].life_repeats * (1 + 1e-9)
    assert set(spot.method.variants(spot)) == set(PLY_RULES)
    assert set(spot_of().method.variants(spot)) == {"together", "apart"}


def test_a_reserve_on_the_loads_just_meets_the_target():
    spot = spot_of()
    life = assess_life(spot, duty(), target=1000.0)
    more = float(life.reserve_on_stress)
    harder = assess_life(spot, duty(f"{2 * more} kN", f"{0.2 * more} kN"), target=1000.0)
    assert harder.life_repeats == pytest.approx(1000.0, rel=1e-6)


def test_it_is_followed_to_the_first_failure_that_is_told_where_nothing_softens():
    spot = spot_of()
    life = assess_life(spot, duty())
    progress = spot.method.progress(spot, life.duty_cycle)
    assert progress.failures[0].repeats == pytest.approx(life.life_repeats, rel=1e-9)
    assert progress.failures[0].ply == spot.method.place(spot, life.duty_cycle).lead.ply
    assert progress.over > life.life_repeats


def test_grouped_cycles_do_the_damage_of_all():
    spot = spot_of(unit=((20.0, 0, 0, 6.0, 0, 1.0), (4.0, 2.0, 3.0, 0, 1.0, 0)))
    own = two_forces()
    place = spot.method.place(spot, own)
    cycles = place.cycle_ends
    assert cycles.spans.shape == (6, 2, 3, 2)
    sums = {mode: values.max() for mode, values in place.damage.items()}
    life = assess_life(spot, own)
    followed = spot.method.progress(spot, own)
    assert followed.failures[0].repeats == pytest.approx(1.0 / max(sums.values()), rel=5e-3)
    assert "cycles-of-the-sound-laminate" in codes(life)


def test_many_places_are_what_each_is_as_a_hot_spot():
    spot, own = spot_of(), duty()
    units = np.array([[[20.0, 0, 0, 6.0, 0, 1.0]], [[30.0, 0, 0, 0, 0, 0]], [[0.0] * 6]])
    found = spot.method.of_many(spot, units, np.zeros((3, 6)), spot.relation.loads.events(own), own)
    for i in range(2):
        alone = assess_life(spot_of(unit=tuple(map(tuple, units[i].tolist()))), own)
        assert found.by_event[i].sum() == pytest.approx(alone.damage_per_repeat, rel=1e-12)
    assert found.by_event[2].sum() == 0.0


@pytest.mark.parametrize("units", UNIT_SYSTEMS)
@pytest.mark.parametrize("temperature", [0.0, -50.0])
def test_a_ply_in_one_jump_is_worked_by_hand_and_its_damage_is_that_of_the_course(units, temperature):
    softens = {**WARM, "across_stiffness_decay": PowerStiffness(end=0.7, exponent=0.5)}
    spot = spot_of(ply=softens, temperature=temperature)
    life = assess_life(spot, duty())
    course = spot.method.progress(spot, life.duty_cycle).course
    first = spot.method.progress(spot, life.duty_cycle).failures[0]
    for jump in (2, None):
        working = spot.method.jump_working(life, None, jump, units)
        for step in working.steps:
            if not step.formula.startswith(("u:", "u_2", "N = the one")):
                assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-4, abs=1e-9), step
        damage = next(step.value for step in working.steps if step.formula.startswith("ΔD ="))
        at = max(first.jump, 1) if jump is None else jump
        rise = (course.damage[at] - course.damage[at - 1])[first.ply, :, 1].max()
        assert damage == pytest.approx(rise, rel=1e-3, abs=1e-2 * spot.method.jump_error)  # kept lives
        left = [step.value for step in working.steps if step.formula.startswith("e =")]
        assert left[1] == left[2] < 1.0
    for ply, jump, message in ((99, 1, "from the bottom"), (1, 10**6, "a number from 1")):
        with pytest.raises(InputError, match=message):
            spot.method.jump_working(life, ply, jump, units)


def test_it_pickles_without_what_holds_in_one_process():
    method = spot_of().method
    copy = pickle.loads(pickle.dumps(method))
    assert copy.words == method.words
    assert copy.arrays.bundle.life_at.shape == (6, 3)


SUDDEN = {**DECAYS, "fibre_strength_decay": va.NormalisedStrength(alpha=8.0, beta=0.4)}
FINDINGS = {
    "ply-fails-statically": lambda: (
        spot_of(unit=((40.0, 0, 0, 150.0, 0, 0),), ply={"across_life": LIVES["fibre_life"]}, static="Hashin"),
        duty(),
    ),
    "layup-couples": lambda: (spot_of("[0/90]", unit=((10.0, 0, 0, 0, 0, 0),)), duty()),
    "mode-not-assessed": lambda: (spot_of(modes=("fibre",)), duty()),
    "r-outside-tests": lambda: (
        spot_of(
            ply={
                "across_life": dataclasses.replace(LIVES["across_life"], r_ratios_tested=(-1.0,)),
                "shear_life": dataclasses.replace(LIVES["shear_life"], r_ratios_tested=(-1.0,)),
            }
        ),
        duty(),
    ),
    "compression-governs": lambda: (
        spot_of("[0]", unit=((60.0, 0, 0, 0, 0, 0),), ply={"compression_supported": True}, modes=("fibre",)),
        duty("-0.2 kN", "-2 kN"),
    ),
    "interlaminar-shear": lambda: (
        spot_of(unit=((20.0, 0, 0, 6.0, 0, 1.0, 60.0, 0.0),), ply={"interlaminar_strength": 60.0}),
        duty(),
    ),
    "sums-disagree": lambda: (
        spot_of("[0]", unit=((73.0, 0, 0, 0, 0, 0),), ply=SUDDEN, modes=("fibre",)),
        two_levels(),
    ),
    "jumps-too-long": lambda: (
        spot_of("[0/90]s", unit=((25.0, 0, 0, 0, 0, 0),), ply=SUDDEN, fails_by="residual strength", jump_error=0.1),
        two_levels(),
    ),
}


def two_levels():
    """Many small cycles and few large ones."""
    events = [
        Event("large", ConstantAmplitude.from_maximum("force 0", "3.4 kN", minimum="0 kN", cycles=1.0)),
        Event("small", ConstantAmplitude.from_maximum("force 0", "2.6 kN", minimum="0 kN", cycles=15.0)),
    ]
    return DutyCycle("day", events)


@pytest.mark.parametrize("code", FINDINGS)
def test_an_expert_would_say(code):
    spot, own = FINDINGS[code]()
    found = assess_life(spot, own)
    told = {*codes(found), *(one.code for one in spot.method.before(spot, own))}
    assert code in told
    assert code not in codes(assess_life(spot_of(), duty("0.4 kN", "0.04 kN")))


def test_what_does_not_go_with_plies_is_refused():
    with pytest.raises(InputError, match="a method that takes stresses"):
        HotSpot(name="x", relation=OneLoad("force 0", "5 MPa/kN"), material=Material(name="m"), method=spot_of().method)
    with pytest.raises(InputError, match="none beside section loads"):
        dataclasses.replace(spot_of(), notch_factor=1.2)
    with pytest.raises(InputError, match="K and a of the energy"):
        spot_of(rule="energy")
    turning = spot_of(rule="energy", ply={"energy_life": EnergyLife(constant=0.6, exponent=0.1)})
    with pytest.raises(InputError, match="which turns"):
        assess_life(turning, duty("1 kN", "-1 kN"))
    with pytest.raises(InputError, match="breaks a ply at once"):
        assess_life(spot_of(), duty("60 kN", "0 kN"))
    with pytest.raises(InputError, match="a laminate"):
        PlyFatigue(laminate="bar")
    assert isinstance(LIVES["fibre_life"], LargestStress)
