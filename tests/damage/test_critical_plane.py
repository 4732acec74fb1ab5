"""Lives on the critical plane: closed answers, turned axes, other nets, workings redone, findings, nonsense refused."""

import dataclasses
import math

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

import vivid_anvil as va
from tests.by_hand import by_hand
from vivid_anvil.damage import CriticalPlane, StressLife
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.materials import Material, knee_curve
from vivid_anvil.stress import CaseLoad, CaseLoads, HotSpot, UnitStresses, stresses_of_rosette
from vivid_anvil.stress.planes.shear_parameters import SHEAR_PARAMETERS

CURVE = knee_curve(name="bar", stress="amplitude", r_ratio=-1, knee_stress=190.0, knee_life=2e6, slope=5, slope_below=9)
METAL = Material(name="steel", ultimate_strength=850.0, yield_strength=500.0)
BEND, TWIST = [200.0, 0, 0, 0, 0, 0], [0, 0, 0, 150.0, 0, 0]
HOW = {"findley": {"k": 0.3}, "matake": {"k": 0.3}, "mcdiarmid": {"torsion_limit": 190.0}, "normal stress": {}}
FULL = np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])


def loads(bend, twist):
    channels = (va.Channel("bend", 1e3 * bend, "force"), va.Channel("twist", 1e3 * twist, "force"))
    return va.LoadHistory("made", channels, sample_rate=100.0)


def turning(phase=90.0, mean=0.0, samples=180):
    x = 2.0 * np.pi * np.arange(samples) / samples
    return loads(mean + np.sin(x), np.sin(x - np.radians(phase)))


def duty(*events, **how):
    return DutyCycle("year", tuple(Event(f"e{i}", one, 1e4) for i, one in enumerate(events)), repeats_per_year=1, **how)


def spot(method, unit=(BEND, TWIST), **more):
    cases = CaseLoads([CaseLoad(case=name, channel=name, unit_load="1 kN") for name in ("bend", "twist")])
    relation = UnitStresses(loads=cases, unit=np.array(unit, dtype=float), **more)
    return HotSpot(name="shaft", relation=relation, material=METAL, method=method)


def method(criterion="findley", curve=CURVE):
    return CriticalPlane(sn_curve=curve, criterion=criterion, **HOW[criterion])


def turned(tensor, rotation):
    full = rotation @ np.array(tensor, dtype=float)[FULL] @ rotation.T
    return [full[i, j] for i, j in ((0, 0), (1, 1), (2, 2), (0, 1), (1, 2), (2, 0))]


@pytest.mark.parametrize("criterion", HOW)
def test_fully_reversed_uniaxial_stress_gives_the_life_of_the_curve(criterion):
    assert set(HOW) == set(SHEAR_PARAMETERS)
    bent = loads(np.sin(np.linspace(0.0, 2.0 * np.pi, 73)), np.zeros(73))
    life = va.assess_life(spot(method(criterion)), duty(bent))
    assert float(life.equivalent_stress.max()) == pytest.approx(200.0, rel=2e-3)
    assert life.life_repeats == pytest.approx(float(CURVE.life(200.0)) / 1e4, rel=2e-2)


def test_out_of_phase_findley_is_that_of_the_closed_formula():
    life = va.assess_life(spot(method()), duty(turning()))
    one = 0.5 * (math.sqrt(1.09) + 0.3)  # Findley's parameter of a uniaxial stress of 1
    assert float(life.equivalent_stress.max()) == pytest.approx(210.0 / one, rel=1e-4)
    shared = va.assess_life(spot(method()), duty(turning(0.0)))
    assert shared.life_repeats != pytest.approx(life.life_repeats, rel=0.05)


@pytest.mark.parametrize("criterion", HOW)
@pytest.mark.parametrize("seed", [1, 2])
def test_turned_axes_change_no_life(criterion, seed):
    rotation = Rotation.random(random_state=seed).as_matrix()
    lives = [
        va.assess_life(spot(method(criterion), unit), duty(turning(60.0, 0.3))).life_repeats
        for unit in ((BEND, TWIST), (turned(BEND, rotation), turned(TWIST, rotation)))
    ]
    assert lives[1] == pytest.approx(lives[0], rel=1e-3)


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("criterion", HOW)
def test_every_line_can_be_redone(criterion, units):
    place = dataclasses.replace(spot(method(criterion), constant=[10.0, 0, 0, 0, 5.0, 0]), notch_factor=1.2)
    life = va.assess_life(place, duty(turning(70.0, 0.2), turning(0.0)), target=1.0)
    for event in (None, "e0"):
        worked = va.life_working(life, units, event=event)
        for step in worked.steps:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=2e-5, abs=1e-9), step.title
    assert life.reserve_on_stress is not None


def test_two_limits_give_the_weight():
    by_limits = CriticalPlane(sn_curve=CURVE, axial_limit="300 MPa", torsion_limit="180 MPa")
    stated = CriticalPlane(sn_curve=CURVE, k=0.204124145232)
    lives = [va.assess_life(spot(one), duty(turning())).life_repeats for one in (by_limits, stated)]
    assert lives[0] == pytest.approx(lives[1], rel=1e-9)
    worked = va.life_working(va.assess_life(spot(by_limits), duty(turning())))
    assert any(step.title == "Weight of the normal stress" for step in worked.steps)


def test_the_reserve_is_a_factor_on_all_loads():
    place = spot(method())
    life = va.assess_life(place, duty(turning(80.0)), target=5.0)
    factor = life.reserve_on_stress
    x = 2.0 * np.pi * np.arange(180) / 180
    scaled = loads(factor * np.sin(x), factor * np.sin(x - np.radians(80.0)))
    assert va.assess_life(place, duty(scaled)).life_repeats == pytest.approx(5.0, rel=1e-6)


def test_a_rosette_and_states_are_places_of_planes():
    strains = [va.Channel(name, 1e-3 * np.sin(np.linspace(0, 6.28, 50) + i), "strain") for i, name in enumerate("abc")]
    rosette = stresses_of_rosette(list("abc"), youngs_modulus="206 GPa")
    place = HotSpot(name="rosette", relation=rosette, material=METAL, method=method())
    year = DutyCycle("year", (Event("lap", va.LoadHistory("gauges", tuple(strains), 10.0), 1e3),), repeats_per_year=1)
    assert va.assess_life(place, year).damage_per_repeat > 0.0
    states = va.LoadStates.of({"bend": ["0 N", "1 kN", "-1 kN"], "twist": ["0 N", "1 kN", "0.5 kN"]}, cycles=10)
    life = va.assess_life(spot(method()), DutyCycle("year", (Event("states", states, 1e3),), repeats_per_year=1))
    assert life.damage_per_repeat > 0.0


@pytest.mark.parametrize(("unit", "size"), [((BEND, [0.0] * 6), 300.0), (([0.0] * 6, TWIST), 180.0)])
def test_criteria_for_endless_life_are_met_at_their_limits(unit, size):
    """Fully reversed tension at the axial limit, and torsion at the other, use all of each."""
    scale = size / max(max(unit[0]), max(unit[1]))
    own = tuple(scale * np.array(one) + 1e-12 for one in unit)
    x = np.sin(2.0 * np.pi * np.arange(72) / 72)
    both = CriticalPlane(sn_curve=CURVE, axial_limit="300 MPa", torsion_limit="180 MPa")
    life = va.assess_life(spot(both, own), duty(loads(x, x)))
    (table,) = both.tables(life, "metric")
    assert list(table.columns[0].values) == ["dang van", "crossland", "findley"]
    assert list(table.columns[2].values) == pytest.approx([1.0, 1.0, 1.0], rel=1e-5)
    assert method().tables(life, "metric") == ()
    brittle = CriticalPlane(sn_curve=CURVE, axial_limit="300 MPa", torsion_limit="160 MPa")
    told = [
        one.sentence for one in va.assess_life(spot(brittle, own), duty(loads(x, x))).findings if "ratio" in one.code
    ]
    assert len(told) == 1
    assert "crossland does not take" in told[0]
    repeated = dataclasses.replace(both, repeated_limit="240 MPa")
    x = 0.8 * (1.0 + x) if unit[0] is BEND else x  # Sines: repeated tension at that limit
    (table,) = repeated.tables(va.assess_life(spot(repeated, own), duty(loads(x, x))), "metric")
    assert dict(zip(table.columns[0].values, table.columns[2].values, strict=True))["sines"] == pytest.approx(1.0)


def test_the_page_tells_how_far_the_path_turns_beside_the_plane():
    told = dict(method().words_of(va.assess_life(spot(method()), duty(turning())), "metric"))
    off = min(200.0, math.sqrt(3.0) * 150.0) / max(200.0, math.sqrt(3.0) * 150.0)
    assert told["Path"].startswith(f"{off:.3g} off")
    assert "at 90° to the surface" in told["Surface"]
    straight = dict(method().words_of(va.assess_life(spot(method(), (BEND, [0.0] * 6)), duty(turning())), "metric"))
    assert straight["Path"].startswith("0 off a straight line (0 in step, up to 1); biaxiality 0 ")


def test_findings_say_what_planes_do():
    codes = {one.code for one in va.assess_life(spot(method("matake")), duty(turning())).findings}
    assert "planes-tie" in codes
    assert "path-in-step" in {one.code for one in va.assess_life(spot(method()), duty(turning(0.0))).findings}
    assert "path-coarse" in {
        one.code for one in va.assess_life(spot(method()), duty(turning(90.0, samples=12))).findings
    }


def test_one_stress_and_planes_side_by_side_go_through_a_figure():
    by_one = HotSpot(name="one", relation=spot(method()).relation, material=METAL, method=StressLife(sn_curve=CURVE))
    assert va.assess_life(by_one, duty(turning())).life_repeats > 0.0
    assert va.plot(va.assess_life(spot(method()), duty(turning())))
    assert va.plot(va.assess_life(spot(method()), duty(loads(np.zeros(3), np.zeros(3)))))


AT_0 = knee_curve(name="r0", stress="amplitude", r_ratio=0, knee_stress=150.0, knee_life=2e6, slope=5, slope_below=9)


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: CriticalPlane(sn_curve=AT_0, k=0.3), "R = -1"),
        (lambda: CriticalPlane(sn_curve="bar", k=0.3), "one S-N curve"),
        (lambda: CriticalPlane(sn_curve=CURVE, criterion="findly"), "Did you mean 'findley'"),
        (lambda: spot(CriticalPlane(sn_curve=CURVE)), "k, or axial_limit and torsion_limit"),
        (lambda: spot(CriticalPlane(sn_curve=CURVE, k=0.3, axial_limit=300.0)), "k beside fatigue limits"),
        (lambda: spot(CriticalPlane(sn_curve=CURVE, axial_limit=180.0, torsion_limit=300.0)), "above the other"),
        (lambda: spot(CriticalPlane(sn_curve=CURVE, criterion="mcdiarmid")), "torsion_limit"),
        (lambda: CriticalPlane(sn_curve=CURVE, criterion="normal stress", k=0.3), "no constant only"),
        (lambda: CriticalPlane(sn_curve=CURVE, k=-0.3), "0"),
        (lambda: va.assess_life(spot(method()), duty(turning(), between="in the order given")), "planes are searched"),
        (lambda: va.assess_life(spot(method()), duty(turning(), counting="range-pair")), "planes are searched"),
        (
            lambda: va.assess_life(
                HotSpot(name="p", relation=va.OneLoad("bend", "3 MPa/kN"), material=METAL, method=method()),
                duty(turning()),
            ),
            "stresses of six components",
        ),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(va.InputError, match=said):
        ask()
