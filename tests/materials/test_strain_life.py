"""Strain-life curves: limits, estimates against their sources, findings, and what is refused."""

import dataclasses
import json

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from tests.reference_values import FOLDER
from tests.strain_values import hardness, strain_life, uniform
from vivid_anvil.materials.strain import (
    STRAIN_MEANS,
    CyclicCurve,
    StrainLife,
    StrainTests,
    fit_strain_life,
    hardness_estimate,
    medians_estimate,
    strain_life_through,
    uniform_material_law,
    universal_slopes,
)

STEEL = strain_life(
    {"E_MPa": 206e3, "sigma_f_MPa": 950.0, "b": -0.09, "eps_f": 0.45, "c": -0.58, "K_MPa": 1080.0, "n": 0.155}
)
CASES = {case["id"]: case for case in json.loads((FOLDER / "strain_life.json").read_text())["cases"]}
GIVEN = {field.name: getattr(STEEL, field.name) for field in dataclasses.fields(STEEL)}


@pytest.mark.parametrize(("name", "rows"), [("uniform-material-law", uniform), ("hardness", hardness)])
def test_an_estimate_is_that_of_its_source(name, rows):
    found = rows(CASES[name])
    assert found
    for wanted, own in found:
        for key, value in own.items():
            assert value == pytest.approx(wanted[key], rel=1e-9), key


@settings(max_examples=60, deadline=None)
@given(logs=st.floats(0.0, 12.0))
def test_life_and_amplitude_are_each_other(logs):
    life = 10.0**logs
    assert float(STEEL.life(STEEL.amplitude(life))) == pytest.approx(life, rel=1e-9)


@settings(max_examples=60, deadline=None)
@given(strain=st.floats(1e-9, 0.5))
def test_stress_and_strain_are_each_other(strain):
    assert float(STEEL.cyclic.strain(STEEL.cyclic.stress(strain))) == pytest.approx(strain, rel=1e-11)
    assert float(STEEL.cyclic.stress(-strain)) == -float(STEEL.cyclic.stress(strain))


def test_a_mean_of_nothing_changes_no_life():
    amplitude = np.array([0.01, 0.004, 0.002])
    stress = STEEL.compatible.stress(amplitude)
    plain = STRAIN_MEANS["none"].life(STEEL, amplitude, stress, -stress, np.nan)
    for name, form in STRAIN_MEANS.items():
        life = form.life(dataclasses.replace(STEEL, **COMPATIBLE), amplitude, stress, -stress, 0.6)
        assert life == pytest.approx(plain, rel=1e-9), (
            name
        )  # with the compatible curve the product of SWT is the same too


COMPATIBLE = {
    "cyclic_strength_coefficient": STEEL.compatible.cyclic_strength_coefficient,
    "cyclic_hardening_exponent": STEEL.compatible.cyclic_hardening_exponent,
}


def test_tensile_means_shorten_and_compressive_ones_lengthen_lives():
    amplitude = np.array([0.002])
    for name, form in STRAIN_MEANS.items():
        lives = [
            float(form.life(STEEL, amplitude, np.array([300.0 + m]), np.array([-300.0 + m]), 0.6)[0])
            for m in (-200.0, 0.0, 200.0)
        ]
        assert lives == sorted(lives, reverse=True), name
        assert name == "none" or lives[0] > lives[2]


def test_loops_that_stay_in_compression_or_reach_the_strength():
    amplitude = np.array([0.002, 0.002])
    high, low = np.array([-10.0, 2000.0]), np.array([-500.0, 1500.0])
    assert np.isinf(STRAIN_MEANS["smith-watson-topper"].life(STEEL, amplitude, high, low, np.nan)[0])
    assert STRAIN_MEANS["morrow"].life(STEEL, amplitude, high, low, np.nan)[1] == 0.0
    assert STRAIN_MEANS["manson-halford"].life(STEEL, amplitude, high, low, np.nan)[1] == 0.0


def test_walker_asks_for_its_exponent():
    with pytest.raises(va.InputError, match="no walker_exponent"):
        STRAIN_MEANS["walker"].value_of(va.Material(name="steel"), "toe")


def test_another_survival_probability_moves_all_lives_and_no_stress():
    known = dataclasses.replace(STEEL, survival_probability=0.5, log_life_std=0.2)
    safer = known.at_survival(0.97725)
    amplitude = np.array([0.01, 0.003, 0.0015])
    assert safer.life(amplitude) == pytest.approx(known.life(amplitude) * 10.0 ** (-2.0 * 0.2), rel=1e-4)
    assert safer.cyclic == known.cyclic
    with pytest.raises(va.InputError, match="log_life_std"):
        STEEL.at_survival(0.9)


def test_steps_add_up_to_the_amplitude():
    elastic, plastic, both = STEEL.steps(0.004)
    assert elastic.value + plastic.value == pytest.approx(0.004, rel=1e-9)
    assert both.value == 0.004


def test_findings_say_what_does_not_fit():
    assert STEEL.findings == ()
    odd = dataclasses.replace(STEEL, cyclic_strength_coefficient=1500.0, cyclic_hardening_exponent=0.1)
    assert [one.code for one in odd.findings] == ["incompatible-constants"]
    assert odd.findings[0].severity == "warning"
    assert [one.code for one in uniform_material_law("700 MPa").findings] == ["estimated-strain-life"]
    for far in (
        uniform_material_law("250 MPa"),
        uniform_material_law("1 GPa", group="aluminium"),
        medians_estimate("2600 MPa"),
        universal_slopes("300 MPa", true_fracture_strain=0.8),
    ):
        assert {"estimated-strain-life", "estimate-outside-data"} <= {one.code for one in far.findings}
    assert "odd-transition" in [
        one.code for one in dataclasses.replace(STEEL, fatigue_ductility_coefficient=1e-4).findings
    ]


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({"fatigue_strength_exponent": 0.09}, "with their sign"),
        ({"fatigue_ductility_exponent": 0.58}, "with their sign"),
        ({"fatigue_strength_exponent": -11.0}, "a slope"),
        ({"fatigue_strength_exponent": -0.3, "fatigue_ductility_exponent": -0.1}, "exchanged"),
        ({"youngs_modulus": "950 MPa", "fatigue_strength_coefficient": "206 GPa"}, "exchanged"),
        ({"youngs_modulus": "206 Pa"}, "far below E"),
        ({"cyclic_hardening_exponent": None}, "K' alone"),
        ({"cyclic_strength_coefficient": None}, "n' alone"),
        ({"cyclic_hardening_exponent": 1.5}, "cyclic_hardening_exponent"),
        ({"fatigue_ductility_coefficient": "45 MPa"}, "strain"),
        ({"basis": "guess"}, "basis"),
        ({"survival_probability": 1.0}, "survival_probability"),
    ],
)
def test_constants_that_cannot_be_are_refused(changes, said):
    with pytest.raises(va.InputError, match=said):
        StrainLife(**{**GIVEN, **changes})


def test_units_come_in_by_the_door():
    percent = StrainLife(**{**GIVEN, "fatigue_ductility_coefficient": "45 %", "youngs_modulus": "206 GPa"})
    assert percent == STEEL
    assert float(STEEL.life("0.4 %")) == float(STEEL.life(0.004))
    assert float(STEEL.cyclic.stress("4000 um/m")) == pytest.approx(float(STEEL.cyclic.stress(0.004)))
    with pytest.raises(va.InputError):
        STEEL.life("0.4 MPa")
    with pytest.raises(va.InputError):
        STEEL.amplitude(-1.0)


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (lambda: uniform_material_law("520 GPa"), "unit"),
        (lambda: uniform_material_law("520 MPa", group="copper"), "group"),
        (lambda: hardness_estimate(80), "150 to 700"),
        (lambda: universal_slopes("980 MPa", true_fracture_strain=0.8, form="newest"), "form"),
        (
            lambda: CyclicCurve(youngs_modulus=900.0, cyclic_strength_coefficient=206e3, cyclic_hardening_exponent=0.1),
            "exchanged",
        ),
    ],
)
def test_estimates_refuse_nonsense(make, said):
    with pytest.raises(va.InputError, match=said):
        make()


AMPLITUDES = np.array([0.012, 0.008, 0.005, 0.003, 0.002, 0.0015])


def specimens(curve, **changed):
    """Tests that lie on a curve."""
    lives = curve.life(AMPLITUDES)
    given_ = {
        "name": "bar",
        "strain_amplitude": AMPLITUDES,
        "stress_amplitude": curve.youngs_modulus * curve.elastic(lives),
        "lives": lives,
    }
    return StrainTests(**(given_ | changed))


@settings(max_examples=40, deadline=None)
@given(
    strength=st.floats(400.0, 2000.0),
    b=st.floats(-0.13, -0.05),
    ductility=st.floats(0.1, 1.2),
    c=st.floats(-0.8, -0.45),
)
def test_a_fit_finds_the_curve_that_tests_lie_on(strength, b, ductility, c):
    curve = StrainLife(
        name="true",
        youngs_modulus=206e3,
        fatigue_strength_coefficient=strength,
        fatigue_strength_exponent=b,
        fatigue_ductility_coefficient=ductility,
        fatigue_ductility_exponent=c,
    )
    assume(curve.plastic(curve.life(AMPLITUDES)).min() > 1e-8)  # a difference of strains that has digits
    found = fit_strain_life(specimens(curve), youngs_modulus=206e3, smallest_plastic_strain=0.0)
    assert found.curve().life(AMPLITUDES) == pytest.approx(curve.life(AMPLITUDES), rel=1e-6)
    assert found.std < 1e-6
    assert found.cyclic_hardening_exponent == pytest.approx(b / c, rel=1e-6)
    through = strain_life_through(
        list(zip(AMPLITUDES, curve.life(AMPLITUDES), strict=True)), curve.cyclic, name="table"
    )
    assert through.life(AMPLITUDES) == pytest.approx(curve.life(AMPLITUDES), rel=1e-6)


def test_run_outs_and_specimens_without_plastic_strain_are_left_out_and_told():
    steel = uniform_material_law(520.0)
    failed = np.array([True] * 5 + [False])
    fit = fit_strain_life(specimens(steel, failed=failed), youngs_modulus=206e3)
    assert (fit.elastic.points, fit.plastic.points) == (5, 5)
    assert {"run-outs-left-out", "few-specimens"} <= {one.code for one in fit.findings}
    coarse = fit_strain_life(specimens(steel), youngs_modulus=206e3, smallest_plastic_strain="0.2 %")
    assert coarse.plastic.points < 6 == coarse.elastic.points
    measured = specimens(steel, plastic_strain_amplitude=0.5 * steel.plastic(steel.life(AMPLITUDES)))
    assert "strains-disagree" in {one.code for one in fit_strain_life(measured, youngs_modulus=206e3).findings}
    strains = np.array([0.0015, 0.0016, 0.0018, 0.002])
    lives = steel.life(strains)
    stresses = steel.youngs_modulus * steel.elastic(lives)
    short = StrainTests(name="long lives", strain_amplitude=strains, stress_amplitude=stresses, lives=lives)
    assert "one-sided-tests" in {one.code for one in fit_strain_life(short, youngs_modulus=206e3).findings}


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda steel: specimens(steel, strain_amplitude=100.0 * AMPLITUDES), "Is it in percent"),
        (lambda steel: specimens(steel, lives=np.zeros(6)), "a value above 0"),
        (lambda steel: specimens(steel, lives=np.ones(5)), "one of each for every specimen"),
        (lambda steel: specimens(steel, failed=[1, 0, 1, 0, 1, 0]), "True or False"),
        (lambda steel: specimens(steel, name=""), "name"),
        (lambda steel: fit_strain_life(specimens(steel), youngs_modulus=20e3), "is one a range"),
        (
            lambda steel: fit_strain_life(specimens(steel, lives=range(6, 0, -1)), youngs_modulus=206e3),
            "columns exchanged",
        ),
        (lambda steel: strain_life_through([("1 %", 100.0), ("0.5 %", 900.0)], steel.cyclic, name="t"), "3 or more"),
        (
            lambda steel: strain_life_through([("1 %", 9.0), ("0.5 %", 9.0), ("0.2 %", 99.0)], steel.cyclic, name="t"),
            "fall",
        ),
        (lambda steel: strain_life_through(["1 %", 9.0, 3.0], steel.cyclic, name="t"), "a pair"),
    ],
)
def test_tests_that_cannot_be_meant_are_refused(ask, said):
    with pytest.raises(va.InputError, match=said):
        ask(uniform_material_law(520.0))
