"""Rubber: laws against their definition, where they are stable, fits, growth of flaws by several ways, nonsense refused."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber import (
    HYPERELASTIC,
    LOADING_MODES,
    TEARING_LAWS,
    MooneyRivlin,
    NeoHookean,
    Ogden,
    PowerTearing,
    RubberTests,
    ShiftedTearing,
    ThreeRegimes,
    Yeoh,
    edge_crack_energy,
    fit_hyperelastic,
    initial_flaws,
    read_rubber_tests,
    stretches,
    trousers_energy,
)

LAWS = {
    "neo-hookean": NeoHookean(name="n", c10=0.4),
    "mooney-rivlin": MooneyRivlin(name="m", c10=0.3, c01=0.08),
    "yeoh": Yeoh(name="y", c10=0.6, c20=-0.06, c30=0.01),
    "ogden": Ogden(name="o", terms=[(0.62, 1.3), (0.00118, 5.0), (-0.00981, -2.0)]),
}
TEARING = {
    "power": PowerTearing(name="p", rate=0.0025, at=11.0, slope=2.0, cut_off=0.06),
    "shifted power": ShiftedTearing(name="s", rate=0.003, at=10.0, slope=2.3, least=0.1),
    "three regimes": ThreeRegimes(name="t", least_rate=1e-8, least=0.05, bend=4.0, bend_rate=7.91e-6, slope=2.0),
}
moved = st.floats(0.4, 3.0)


@pytest.mark.parametrize("law", LAWS)
@settings(max_examples=25, deadline=None)
@given(one=moved, two=moved)
def test_the_stress_is_what_the_energy_gives_along_any_way_that_keeps_the_volume(law, one, two):
    assert set(LAWS) == set(HYPERELASTIC)
    own, h = LAWS[law], 1e-6
    at = np.array([one, two, 1.0 / (one * two)])
    stress = own.principal(at)
    for i, j in ((0, 2), (1, 2)):
        step = np.ones(3)
        step[i], step[j] = math.exp(h), math.exp(-h)
        slope = float(own.energy(at * step) - own.energy(at / step)) / (2.0 * h)
        assert stress[i] - stress[j] == pytest.approx(slope, rel=1e-5, abs=1e-7 * (1.0 + abs(stress).max()))
    assert float(own.energy([1.0, 1.0, 1.0])) == pytest.approx(0.0, abs=1e-12)


@pytest.mark.parametrize("law", LAWS)
def test_small_strains_are_those_of_elasticity(law):
    """Young's modulus 3 G; planar tension 4 G, equibiaxial 6 G over the strain."""
    own, tiny = LAWS[law], 1e-6
    for mode, times in (("simple", 3.0), ("planar", 4.0), ("equibiaxial", 6.0)):
        assert float(own.nominal(mode, 1.0 + tiny)) == pytest.approx(times * own.shear_modulus * tiny, rel=1e-4)
    assert set(LOADING_MODES) == {"simple", "planar", "equibiaxial"}


def test_a_law_is_stable_as_far_as_no_increment_gives_back_work():
    unstable = MooneyRivlin(name="u", c10=0.5, c01=-0.08)
    _, high = unstable.stable_between("equibiaxial")
    rng = np.random.default_rng(1)

    def least(stretch):
        at = stretches("equibiaxial", stretch)
        found = []
        for way in rng.normal(size=(400, 3)):
            step = way - way.mean()
            step /= np.linalg.norm(step)
            rise = (unstable.principal(at * np.exp(1e-5 * step)) - unstable.principal(at * np.exp(-1e-5 * step))) / 2e-5
            found.append(float(rise @ step))
        return min(found)

    assert least(high * 0.98) > 0.0
    assert least(high * 1.03) < 0.0
    assert MooneyRivlin(name="s", c10=0.3, c01=0.08).stable_between("simple") == (
        pytest.approx(0.2),
        pytest.approx(10.0),
    )


def made(law, modes=tuple(LOADING_MODES), high=2.6, points=9):
    parts = [(mode, np.linspace(1.05, high, points)) for mode in modes]
    return RubberTests(
        name="sheet",
        modes=[mode for mode, one in parts for _ in one],
        stretch=np.concatenate([one for _, one in parts]),
        nominal_stress=np.concatenate([law.nominal(mode, one) for mode, one in parts]),
    )


@pytest.mark.parametrize("form", LAWS)
def test_a_fit_finds_the_law_that_made_the_tests(form):
    fit = fit_hyperelastic(made(LAWS[form]), form=form, terms=3)
    assert max(fit.deviation(mode) for mode in LOADING_MODES) < 2e-3
    assert fit.law.shear_modulus == pytest.approx(LAWS[form].shear_modulus, rel=5e-3)
    again = fit_hyperelastic(fit.tests, form=form, terms=3)
    assert repr(again.law) == repr(fit.law)


def test_a_fit_says_what_is_wrong_with_it():
    one = fit_hyperelastic(made(LAWS["yeoh"], ("simple",)), form="neo-hookean")
    assert {"one-mode"} <= {each.code for each in one.findings}
    bent = made(MooneyRivlin(name="u", c10=0.5, c01=-0.08), ("simple",), high=4.0)
    unstable = fit_hyperelastic(bent, form="mooney-rivlin")
    assert "unstable-law" in {each.code for each in unstable.findings}
    stiff = made(LAWS["yeoh"], high=4.5)
    assert "law-misses-mode" in {each.code for each in fit_hyperelastic(stiff, form="neo-hookean").findings}
    assert fit_hyperelastic(made(LAWS["yeoh"]), form="yeoh").findings == ()
    assert "deviation" in str(fit_hyperelastic(stiff, form="yeoh").tables()[0].columns[4].name)


@pytest.mark.parametrize(
    ("strain", "stress"),
    [
        ("stretch", "nominal stress [MPa]"),
        ("engineering strain [%]", "true stress [kPa]"),
        ("true strain [-]", "nominal stress [psi]"),
    ],
)
def test_a_file_says_which_strain_and_which_stress_it_holds(tmp_path, strain, stress):
    stretch = np.array([1.2, 1.7, 2.4])
    own = LAWS["mooney-rivlin"].nominal("planar", stretch)
    strains = {
        "stretch": stretch,
        "engineering strain [%]": 100.0 * (stretch - 1.0),
        "true strain [-]": np.log(stretch),
    }[strain]
    stresses = {
        "nominal stress [MPa]": own,
        "true stress [kPa]": 1e3 * own * stretch,
        "nominal stress [psi]": own / 6.894757293168e-3,
    }
    rows = [f"planar,{a!r},{b!r}" for a, b in zip(strains.tolist(), stresses[stress].tolist(), strict=True)]
    (tmp_path / "sheet.csv").write_text("\n".join([f"mode,{strain},{stress}", *rows]))
    tests = read_rubber_tests(tmp_path / "sheet.csv")
    assert tests.stretch == pytest.approx(stretch)
    assert tests.nominal_stress == pytest.approx(own)


@pytest.mark.parametrize("name", TEARING)
@settings(max_examples=20, deadline=None)
@given(w=st.floats(0.2, 1.5), r=st.floats(0.0, 0.5), start=st.floats(0.03, 0.3), crystallises=st.booleans())
def test_a_life_is_the_integral_of_the_growth(name, w, r, start, crystallises):
    import dataclasses

    assert set(TEARING) == set(TEARING_LAWS)
    law = TEARING[name]
    if crystallises:
        law = dataclasses.replace(law, r_effect="crystallising", slope_rise=1.1)
    life = float(law.lives(w, r, start, 1.5)[0])
    if float(law.growth(2.0 * math.pi * w * start, r)) == 0.0:
        assert life == math.inf
        return

    def slow(log_size):
        size = math.exp(log_size)
        return size / float(law.growth(2.0 * math.pi * w * size, r))

    knees = [
        math.log(one) for one in law._size_at(1.0, np.array([2.0 * math.pi * w]), np.array([r])) if start < one < 1.5
    ]
    whole, _ = quad(slow, math.log(start), math.log(1.5), limit=400, points=knees or None, epsrel=1e-9)
    assert life == pytest.approx(whole, rel=2e-3)
    assert law.passes([w, w], [r, r], [1.0, 2.0], start, 1.5) == pytest.approx(life / 3.0, rel=1e-6)


def test_one_slope_makes_growth_and_the_sum_of_damage_the_same():
    law = PowerTearing(name="p", rate=0.0025, at=11.0, slope=2.0)
    w, n = np.array([0.5, 0.3, 0.8]), np.array([3.0, 20.0, 1.0])
    alone = law.lives(w, 0.0, 0.04, 1.2)
    assert law.passes(w, 0.0, n, 0.04, 1.2) == pytest.approx(1.0 / float((n / alone).sum()), rel=1e-9)


def test_a_flaw_found_from_lives_gives_them_back():
    for law in TEARING.values():
        w = np.array([0.5, 0.7, 0.9])
        lives = law.lives(w, 0.0, 0.12, 2.0)
        found = initial_flaws(law, w, lives, end=2.0)
        assert found.each == pytest.approx([0.12] * 3, rel=1e-6)
        assert found.median == pytest.approx(0.12, rel=1e-6)


@pytest.mark.parametrize(
    ("ask", "said"),
    [
        (lambda: NeoHookean(name="n", c10=-0.4), "above 0"),
        (lambda: NeoHookean(name="n", c10="400 kPa") and NeoHookean(name="n", c10=400.0), "in Pa or kPa"),
        (lambda: Ogden(name="o", terms=[(0.5, 0.0)]), "other than 0"),
        (lambda: MooneyRivlin(name="m", c10=0.3, c01=0.1, bulk_modulus="2 MPa"), "10 times"),
        (lambda: stretches("simple", [0.8, -0.2]), "above 0"),
        (lambda: PowerTearing(name="p", rate=1e-3, at=10.0, slope=2.0, slope_rise=1.0), "crystallising"),
        (lambda: PowerTearing(name="p", rate=1e-3, at=10.0, slope=2.0, r_effect="crystallising"), "slope_rise"),
        (lambda: PowerTearing(name="p", rate=1e-3, at="11 kJ/m^3", slope=2.0), "kJ/m"),
        (lambda: PowerTearing(name="p", rate=1e-3, at=1.0, slope=2.0, cut_off=2.0), "below 1 N/mm"),
        (lambda: TEARING["power"].growth(1.0, 1.0), "At R = 1 nothing moves"),
        (lambda: TEARING["power"].lives(0.5, 0.0, 1.2, 0.4), "more than the flaw"),
        (lambda: RubberTests(name="s", modes=["simple"], stretch=[120.0], nominal_stress=[1.0]), "percent"),
        (
            lambda: RubberTests(name="s", modes=["simple"], stretch=[0.3], nominal_stress=[1.0]),
            "a stretch, or a strain",
        ),
        (lambda: RubberTests(name="s", modes=["shear"], stretch=[1.3], nominal_stress=[1.0]), "simple"),
        (lambda: fit_hyperelastic(made(LAWS["yeoh"], ("simple",), points=2), form="yeoh"), "3 or more"),
        (lambda: edge_crack_energy("0.6 J/m^2", "1 mm", 1.2), "J/m"),
        (lambda: trousers_energy(2.4, 1.2, leg_stretch=1.1), "their energy density"),
        (lambda: initial_flaws(TEARING["power"], [0.5], [1e12], end=1.2), "one that a flaw"),
    ],
)
def test_nonsense_is_refused(ask, said):
    with pytest.raises(InputError, match=said):
        ask()
