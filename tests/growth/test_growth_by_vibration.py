"""Cracks that grow by vibration: per repeat by expected cycles, cycle by cycle by a seeded history; both together agree."""

import dataclasses

import pytest

import vivid_anvil as va

MASS = va.OneDegreeOfFreedom(natural_frequency="70 Hz", stress_per_acceleration="5 MPa/g", damping_ratio=0.02)
PSD = va.psd_of_rows([("5 Hz", "0.002 g^2/Hz"), ("300 Hz", "0.004 g^2/Hz")])
EVENTS = {
    "random": va.RandomVibration({"base": PSD}, "400 s"),
    "sweep": va.Sine.sweep("base", start="60 Hz", end="90 Hz", amplitude="0.2 g", rate="1 Hz/s"),
    "dwell": va.Sine.dwells("base", [("69 Hz", "0.2 g", "20 s")]),
}


def crack(**others):
    steel = va.Material(name="steel", yield_strength="355 MPa", toughness="75 MPa√m")
    spot = va.HotSpot(name="foot", relation=va.InputResponses({"base": MASS}), material=steel)
    law = va.ParisLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3)
    edge = va.EdgeCrack(plate_width="60 mm")
    return va.Crack(hot_spot=spot, shape=edge, initial_size="3 mm", law=law, stop_size="3.05 mm", **others)


def duty(name):
    return va.DutyCycle("day", [va.Event(name, EVENTS[name], 5)], repeats_per_year=300)


@pytest.mark.slow
@pytest.mark.parametrize("name", EVENTS)
def test_growth_cycle_by_cycle_is_that_of_expected_cycles(name):
    per_repeat = va.grow_crack(crack(), duty(name)).life_repeats
    by_cycle = va.grow_crack(crack(order="cycle by cycle"), duty(name)).life_repeats
    assert by_cycle == pytest.approx(per_repeat, rel=0.1 if name == "random" else 0.01)


@pytest.mark.slow
def test_larger_cycles_of_random_vibration_retard_the_crack():
    plain = va.grow_crack(crack(order="cycle by cycle"), duty("random")).life_repeats
    held = crack(order="cycle by cycle", retardation=va.Wheeler(exponent=1.3))
    assert va.grow_crack(held, duty("random")).life_repeats > 1.05 * plain


def test_a_threshold_stops_what_is_too_small_for_it():
    still = crack()
    law = va.ParisLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3, threshold="40 MPa√m")
    assert va.grow_crack(dataclasses.replace(still, law=law), duty("dwell")).life_repeats == float("inf")
    some = va.ParisLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3, threshold="3 MPa√m")
    random = va.grow_crack(dataclasses.replace(still, law=some), duty("random")).life_repeats
    assert va.grow_crack(still, duty("random")).life_repeats < random < float("inf")


@pytest.mark.slow
@pytest.mark.parametrize("between", ["in the order given", "worst case"])
def test_random_events_have_an_order_too(between):
    curve = va.SNCurve(name="weld", stress="range", r_ratio="any", points=[("52 MPa", 1e7)], above=5, below=5)
    spot = dataclasses.replace(crack().hot_spot, method=va.StressLife(sn_curve=curve))
    one = va.assess_life(spot, duty("random"))
    other = va.assess_life(spot, duty("random").counted(between=between))
    assert other.damage_per_repeat == pytest.approx(one.damage_per_repeat, rel=0.15)
    assert other.peak_stress == pytest.approx(one.peak_stress, rel=0.25)
