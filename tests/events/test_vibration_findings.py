"""Findings on vibration: each where it belongs, none on a sound case."""

import dataclasses

import numpy as np
import pytest

from vivid_anvil import (
    PSD,
    Channel,
    Crack,
    DutyCycle,
    Event,
    HotSpot,
    InputResponses,
    LoadHistory,
    Material,
    ModalComponents,
    OneDegreeOfFreedom,
    Oscillators,
    ParisLaw,
    RandomVibration,
    ResponseTable,
    Sine,
    SNCurve,
    StressLife,
    Tone,
    VibratingComponents,
    assess_life,
    damage_spectrum,
    estimate_psd,
    grow_crack,
    psd_of_rows,
    tailored_test,
)
from vivid_anvil.damage import findings_before_counting, look_at_vibration, vibration_views
from vivid_anvil.shapes import EdgeCrack

STEEL = Material(name="steel", ultimate_strength="510 MPa", yield_strength="355 MPa", toughness="75 MPa√m")
CURVE = SNCurve(name="weld", stress="range", r_ratio="any", points=[("71 MPa", 2e6)], above=5, below=5)
MASS = OneDegreeOfFreedom(natural_frequency="70 Hz", stress_per_acceleration="4 MPa/g", damping_ratio=0.05)
FLAT = dataclasses.replace(MASS, natural_frequency="300 Hz", damping_ratio=0.5, motion="relative")
WIDE = psd_of_rows([("5 Hz", "0.01 g^2/Hz"), ("500 Hz", "0.01 g^2/Hz")])
NARROW = psd_of_rows([("66 Hz", "0.02 g^2/Hz"), ("74 Hz", "0.02 g^2/Hz")])


def table_of(mass, spacing, shift, **others):
    lines = np.arange(2.0, 700.0, spacing) + shift
    lines = np.concatenate([[1.0], lines])
    return ResponseTable(frequency=lines, values=mass.at(lines) * 9806.65, per="MPa/g", **others)


def spot(response=MASS, curve=CURVE, material=STEEL):
    method = StressLife(sn_curve=curve)
    return HotSpot(name="foot", relation=InputResponses({"base": response}), material=material, method=method)


def random(psd=WIDE, exposure="2 h", **others):
    return RandomVibration({"base": psd}, exposure, **others)


def duty(load, repeat="day", **others):
    return DutyCycle(repeat, [Event("running", load)], repeats_per_year=300, **others)


def codes(findings):
    return {one.code for one in findings}


SOUND = {"as-welded", "curve-ends-earlier"}
CASES = {
    "damping-assumed": (spot(dataclasses.replace(MASS, damping_ratio=None)), duty(random())),
    "few-lines": (spot(table_of(MASS, 17.5, 1.25)), duty(random())),
    "three-sigma-above-yield": (
        spot(dataclasses.replace(MASS, stress_per_acceleration="60 MPa/g")),
        duty(random(exposure="0.5 s")),
    ),
    "peak-beside-dwell": (spot(), duty(Sine.dwells("base", [("66 Hz", "1 g", "1 h")]))),
    "resonance-missed": (spot(), duty(Sine.dwells("base", [(f"{f} Hz", "1 g", "1 h") for f in (40, 60, 80, 100)]))),
    "narrow-band-on-wide": (spot(FLAT), duty(random(), expected_cycles="narrow band")),
    "slope-differs": (spot(), duty(random(), expected_cycles="single moment", expected_slope=3.0)),
    "not-gaussian": (spot(), duty(random(kurtosis=6.0))),
    "counted-synthesis": (spot(), duty(random(tones={"base": [Tone(150.0, 9806.65)]}))),
    "longer-than-repeat": (spot(), duty(random(exposure="30 h"))),
    "exposure-short": (spot(), duty(random(exposure="8 s"))),
}


@pytest.mark.parametrize("code", CASES)
def test_a_finding_is_there_with_its_number(code):
    found = [one for one in assess_life(*CASES[code]).findings if one.code == code]
    assert len(found) == 1, code
    assert any(letter.isdigit() for letter in found[0].sentence)


@pytest.mark.parametrize(
    "load", [random(), random(NARROW), Sine.dwells("base", [("69.8 Hz", "1 g", "1 h")]), random(exposure="24 h")]
)
def test_a_sound_case_has_none_of_them(load):
    assert codes(assess_life(spot(), duty(load)).findings) <= SOUND | {"above-yield"}


def test_a_band_that_was_cut_is_told_where_nothing_filters_it():
    stress = psd_of_rows([("5 Hz", "10 MPa^2/Hz"), ("500 Hz", "10 MPa^2/Hz")])
    place = HotSpot(
        name="foot", relation=InputResponses({"base": 1.0}), material=STEEL, method=StressLife(sn_curve=CURVE)
    )
    found = assess_life(place, duty(RandomVibration({"base": stress}, "1 h"))).findings
    assert "band-cut" in codes(found)
    assert "m2" in next(one.sentence for one in found if one.code == "band-cut")


@pytest.mark.parametrize("ask", ["life", "check", "grow"])
def test_each_question_tells_of_damping_that_is_assumed(ask):
    place, cycle = CASES["damping-assumed"]
    if ask == "life":
        found = assess_life(place, cycle).findings
    elif ask == "check":
        found = findings_before_counting(place, cycle)
    else:
        law = ParisLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3)
        crack = Crack(hot_spot=place, shape=EdgeCrack(plate_width="60 mm"), initial_size="3 mm", law=law)
        found = grow_crack(crack, cycle).findings
    assert "damping-assumed" in codes(found)


@pytest.mark.parametrize(("lines", "low"), [(0.4, (0.30, 0.40)), (4.0, (0.005, 0.015))])
def test_lines_too_far_apart_lose_as_much_as_is_said(lines, low):
    """The rms by a table against that of the response itself, with the peak halfway between two lines."""
    width = 2.0 * 0.05 * 70.0
    spacing = width / lines
    shift = (70.0 - 2.0) % spacing - 0.5 * spacing
    coarse = table_of(MASS, spacing, shift if shift > -1.0 else shift + spacing)
    flat = psd_of_rows([("10 Hz", "0.01 g^2/Hz"), ("400 Hz", "0.01 g^2/Hz")])
    rms = [InputResponses({"base": one}).seen(random(flat), "running").process.rms for one in (coarse, MASS)]
    assert low[0] < 1.0 - rms[0] / rms[1] < low[1]
    assert ("few-lines" in codes(InputResponses({"base": coarse}).remarks())) == (lines < 4.0)
    fit = dataclasses.replace(coarse, between="rational")
    assert InputResponses({"base": fit}).seen(random(flat), "running").process.rms == pytest.approx(rms[1], rel=1e-6)
    assert not codes(InputResponses({"base": fit}).remarks())


def test_a_psd_of_few_averages_and_one_with_a_tone_in_it_are_told():
    rng = np.random.default_rng(2)
    noise, clock = rng.standard_normal(8000), np.arange(8000) / 400.0
    plain = LoadHistory("h", [Channel("z", noise, "force")], 400.0)
    with_tone = LoadHistory("h", [Channel("z", noise + 2.0 * np.sin(2.0 * np.pi * 50.0 * clock), "force")], 400.0)
    assert codes(estimate_psd(plain, "z", segment="1 s").findings) == set()
    few = estimate_psd(plain, "z", segment="8 s")
    assert "few-averages" in codes(few.findings)
    low, high = few.confidence()
    assert low < 0.7
    assert high > 1.6
    found = estimate_psd(with_tone, "z", segment="1 s").findings
    assert codes(found) == {"tone-in-psd"}
    assert "At 50 Hz" in found[0].sentence
    assert "a sine of 0.00199 kN" in found[0].sentence


def test_a_test_that_is_too_short_and_a_curve_whose_end_decides_are_told():
    some = Oscillators.spaced("20 Hz", "200 Hz", slope=5.0, per_octave=3)
    service = damage_spectrum(WIDE, some, exposure="2000 h")
    assert "test-shortened" in codes(tailored_test(service, "1 h").findings)
    assert "test-shortened" not in codes(tailored_test(service, "1500 h").findings)
    ends = SNCurve(
        name="ends",
        stress="range",
        r_ratio="any",
        points=[("200 MPa", 1e5), ("71 MPa", 2e6)],
        above=3,
        below="no damage",
    )
    told = {one.code: one for one in assess_life(spot(curve=ends), duty(random())).findings}
    assert "continued they would add" in told["limit-fades"].sentence


def test_a_von_mises_process_and_tones_beside_a_view_are_told():
    modes = ModalComponents(
        natural_frequency=[70.0],
        participation={"base": [0.1]},
        modal_stress=[[90.0, 20, 0, 9.0, 0, 0]],
        damping_ratio=0.02,
    )
    method = StressLife(sn_curve=CURVE)
    tensor = HotSpot(name="foot", relation=VibratingComponents(response=modes), material=STEEL, method=method)
    assert "von-mises-process" in codes(assess_life(tensor, duty(random())).findings)
    with_tone = duty(random(tones={"base": [Tone(150.0, 981.0)]}))
    (view,) = vibration_views(assess_life(spot(), with_tone))
    assert "tones-beside" in codes(view.findings)


def test_formulas_that_lie_far_apart_are_told_with_how_far():
    two_bands = PSD([10.0, 12.0, 12.1, 299.0, 300.0, 302.0], [50.0, 50.0, 1e-6, 1e-6, 20.0, 20.0], "stress")
    apart = look_at_vibration(two_bands, name="two bands", slope=8.0)
    assert apart.spread > 1.5
    assert "formulas-differ" in codes(apart.findings)
    one_band = PSD([48.0, 52.0], [4.0, 4.0], "stress")
    assert codes(look_at_vibration(one_band, slope=3.0).findings) == set()
