"""What holds for every spectrum: scales, exposures, halves, inputs, resonances, tests that are made of a service."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from vivid_anvil.spectra import EXPECTED_CYCLES, PSD, expected_ranges
from vivid_anvil.spectra.response_density import ResponseDensity
from vivid_anvil.spectra.responses.gain import Gain

LEVELS = st.lists(st.floats(0.01, 100.0), min_size=3, max_size=8)
SLOPES = st.floats(3.0, 9.0)


def psd_of(levels, low=10.0, high=400.0):
    return PSD(np.geomspace(low, high, len(levels)), levels, "stress")


def damage(process, formula, slope):
    asked = slope if EXPECTED_CYCLES[formula].one_slope else None
    return expected_ranges(process, formula, slope=asked).moment(slope)


@given(LEVELS, SLOPES, st.floats(0.1, 30.0))
@settings(max_examples=30, deadline=None)
def test_a_stress_k_times_as_large_does_k_to_the_slope_times_the_damage(levels, slope, factor):
    process = psd_of(levels)
    for formula in EXPECTED_CYCLES:
        once = damage(process, formula, slope)
        assert damage(process.times(factor), formula, slope) == pytest.approx(factor**slope * once, rel=1e-9)


@given(LEVELS, st.floats(11.0, 390.0))
@settings(max_examples=30, deadline=None)
def test_a_point_more_on_the_line_changes_nothing(levels, place):
    process = psd_of(levels)
    f = np.unique(np.append(process.frequency, place))
    finer = PSD(f, process.at(f), "stress")
    for order in (0.0, 0.75, 1.0, 2.0, 4.0):
        assert finer.moment(order) == pytest.approx(process.moment(order), rel=1e-9)
    parts = process.part(10.0, place) + process.part(place, 401.0)
    assert parts == pytest.approx(process.moment(0.0), rel=0.2)


@given(LEVELS, SLOPES)
@settings(max_examples=30, deadline=None)
def test_no_formula_of_a_wide_band_does_more_than_the_narrow_band(levels, slope):
    process = psd_of(levels)
    narrow = damage(process, "narrow band", slope)
    for formula in ("tovo-benasciutti", "wirsching-light"):
        assert damage(process, formula, slope) <= narrow * (1.0 + 1e-9)


@given(st.floats(20.0, 300.0), st.floats(0.005, 0.2), st.floats(-3.0, 3.0), st.floats(0.0, 1.0))
@settings(max_examples=20, deadline=None)
def test_a_delay_of_all_inputs_and_the_order_of_two_change_nothing(own, ratio, phase, coherence):
    mass = va.OneDegreeOfFreedom(natural_frequency=own, stress_per_acceleration="2 MPa/g", damping_ratio=ratio)
    base = PSD([10.0, 400.0], [1e6, 2e6])
    one = va.PSDs({"x": base, "y": base}, {("x", "y"): va.Together(coherence=coherence, phase=phase)})
    other = va.PSDs({"y": base, "x": base}, {("y", "x"): va.Together(coherence=coherence, phase=-phase)})
    both = {"x": mass, "y": Gain(3e-4)}
    sizes = [ResponseDensity(each, both).rms for each in (one, other)]
    assert sizes[0] == pytest.approx(sizes[1], rel=1e-9)


@given(st.floats(1.0, 1000.0), st.floats(2.0, 50.0))
@settings(max_examples=10, deadline=None)
def test_a_longer_exposure_does_more_damage_and_leaves_the_life_in_hours_alone(hours, times):
    curve = va.SNCurve(name="c", stress="range", r_ratio="any", points=[("52 MPa", 1e7)], above=3, below=5)
    spot = va.HotSpot(
        name="s",
        relation=va.OneLoad("stress", "1"),
        material=va.Material(name="m"),
        method=va.StressLife(sn_curve=curve),
    )
    lives = []
    for exposure in (hours, times * hours):
        load = va.RandomVibration({"stress": psd_of([1.0, 8.0, 2.0])}, 3600.0 * exposure)
        lives.append(va.assess_life(spot, va.DutyCycle("test", [va.Event("e", load)])))
    assert lives[1].damage_per_repeat == pytest.approx(times * lives[0].damage_per_repeat, rel=1e-9)
    assert lives[1].life_hours == pytest.approx(lives[0].life_hours, rel=1e-9)


def test_random_dwell_and_history_through_a_response_and_a_factor_agree():
    """A dwell by its amplitude and the same sine as a history, through a resonance."""
    mass = va.OneDegreeOfFreedom(natural_frequency="50 Hz", stress_per_acceleration="2 MPa/g", damping_ratio=0.03)
    relation = va.InputResponses({"base": mass})
    dwell = relation.seen(va.Sine.dwells("base", [("48 Hz", "1 g", "10 s")]), "d").cycles_of("s")
    values = 9806.65 * np.sin(2.0 * np.pi * 48.0 * np.arange(48_000) / 4800.0)
    history = va.LoadHistory("h", [va.Channel("base", values, "acceleration")], 4800.0)
    counted = relation.seen(history, "h").cycles_of(str(relation), residue="repeated")
    assert counted.total == pytest.approx(dwell.total)
    assert counted.range.max() == pytest.approx(dwell.range[0], rel=3e-3)


@given(st.floats(4.0, 9.0), st.floats(2.0, 200.0))
@settings(max_examples=6, deadline=None)
def test_a_tailored_test_does_what_the_service_does(slope, shorter):
    some = va.Oscillators.spaced(20.0, 200.0, slope=slope, per_octave=3)
    rope = va.PSD([10.0, 60.0, 400.0], [1e6, 9e6, 2e6])
    service = va.damage_spectrum(rope, some, exposure=3600.0 * shorter)
    test = va.tailored_test(service, 3600.0)
    assert test.damage_ratio == pytest.approx(np.ones(some.natural_frequency.size), rel=2e-3)
    assert va.coverage(service, test.spectrum.times(1.01)).covers
    assert not va.coverage(service, test.spectrum.times(0.9)).covers
    assert test.extreme_ratio > 1.0
    same = dataclasses.replace(service, name="again")
    assert va.coverage(service, same).covers


@pytest.mark.parametrize("kind", ["velocity", "length"])
def test_a_motion_is_the_same_whether_it_is_said_as_acceleration_velocity_or_displacement(kind):
    mass = va.OneDegreeOfFreedom(natural_frequency="50 Hz", stress_per_acceleration="2 MPa/g", damping_ratio=0.03)
    modes = va.ModalComponents(
        natural_frequency=[50.0],
        participation={"base": [0.1]},
        modal_stress=[[90.0, 0, 0, 9.0, 0, 0]],
        damping_ratio=0.03,
    )
    base = va.PSD([10.0, 60.0, 400.0], [1e6, 9e6, 2e6])
    for relation in (va.InputResponses({"base": mass}), va.VibratingComponents(response=modes, measure="component xy")):
        both = [
            relation.seen(va.RandomVibration({"base": one}, "1 h"), "e").process.rms
            for one in (base, base.in_motion(kind))
        ]
        assert both[1] == pytest.approx(both[0], rel=1e-6)
        omega = 2.0 * np.pi * 45.0
        size = {"velocity": f"{1e3 / omega} mm/s", "length": f"{1e3 / omega**2} mm"}[kind]
        sines = [
            relation.seen(va.Sine.dwells("base", [("45 Hz", one, "1 min")]), "e").cycles_of(str(relation)).range[0]
            for one in ("1000 mm/s^2", size)
        ]
        assert sines[1] == pytest.approx(sines[0], rel=1e-9)


def test_a_response_to_a_force_is_none_to_a_motion():
    force = va.ModalResponse(
        natural_frequency=[50.0], participation=[0.1], modal_stress=[9.0], damping_ratio=0.02, input="force"
    )
    base = va.RandomVibration({"base": va.PSD([10.0, 90.0], [1.0, 1.0])}, "1 h")
    with pytest.raises(va.InputError, match="one of force"):
        va.InputResponses({"base": force}).seen(base, "e")
