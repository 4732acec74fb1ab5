"""Slips in a study: strain-life curves, and places by local strain."""

from tests.study.texts import AT_LAWS

STATED = """youngs_modulus = "206 GPa"
fatigue_strength_coefficient = "950 MPa"
fatigue_strength_exponent = -0.09
fatigue_ductility_coefficient = 0.45
fatigue_ductility_exponent = -0.58
"""
CYCLIC = 'cyclic_strength_coefficient = "1080 MPa"\ncyclic_hardening_exponent = 0.155\n'
POINTS = 'points = [["1 %", 820], ["0.4 %", 9800], ["0.2 %", 3e5]]\nyoungs_modulus = "206 GPa"\n' + CYCLIC
BORE = 'sn_curve = "pin_bore"\nmean_stress = "goodman"\ncompressive_mean = "ignored"           # or "credited"\n'


def strain(old="", new="", *, text=STATED):
    """A strain-life curve put into the study, changed."""
    assert old in text
    return AT_LAWS, f"[strain_life_curves.bar]\n{text.replace(old, new, 1)}\n{AT_LAWS}"


def estimate(text):
    """An estimated strain-life curve put into the study."""
    return strain(text=f"estimate = {text}\n")


def local(keys, kind="local strain"):
    """The bore by local strain; its method has these keys."""
    method = f'kind = "{kind}", ' + keys
    return BORE, f"method = {{ {method} }}\n"


FAULTS_OF_STRAIN = {
    "b positive": (strain("-0.09", "0.09"), "bar, fatigue_strength_exponent", "written with their sign"),
    "c positive": (strain("-0.58", "0.58"), "bar, fatigue_ductility_exponent", "written with their sign"),
    "exponents exchanged": (
        strain(text=STATED.replace("-0.09", "-0.3").replace("-0.58", "-0.09")),
        "fatigue_ductility_exponent",
        "Are the two exchanged?",
    ),
    "ductility in percent": (
        strain("0.45", "45"),
        "fatigue_ductility_coefficient",
        "Is it in percent? Then write '45 %'",
    ),
    "ductility as text": (strain("0.45", '"45 MPa"'), "fatigue_ductility_coefficient", "not one of strain"),
    "modulus in Pa": (strain("206 GPa", "206e9 MPa"), "youngs_modulus", "Is it in Pa?"),
    "modulus in GPa": (strain("206 GPa", "206 MPa"), "fatigue_strength_coefficient", "Are the two exchanged"),
    "strength bare": (strain('"950 MPa"', "950"), "fatigue_strength_coefficient", "without a unit"),
    "K alone": (strain(text=STATED + CYCLIC.splitlines()[0] + "\n"), "cyclic curve", "K' and n', or neither"),
    "n above 1": (strain("0.155", "1.55", text=STATED + CYCLIC), "cyclic_hardening_exponent", "below 1"),
    "no scatter": (strain(text=STATED + "at_survival = 0.9\n"), "bar", "no survival_probability or no log_life_std"),
    "an unknown key": (strain(text=STATED + "sigma = 3\n"), "bar, sigma", "an unknown key"),
    "an unknown estimate": (estimate('"uniform law"'), "estimate", "one of 'uniform material law'"),
    "an estimate of nothing": (estimate('"medians"'), "ultimate_strength", "which the estimate 'medians' goes by"),
    "an estimate of too much": (
        estimate('"medians"\nultimate_strength = "500 MPa"\nbrinell_hardness = 180'),
        "brinell_hardness",
        "with the estimate 'medians'",
    ),
    "hardness beyond": (estimate('"hardness"\nbrinell_hardness = 90'), "brinell_hardness", "150 to 700 HB"),
    "fracture strain bare": (
        estimate('"universal slopes"\nultimate_strength = "500 MPa"\ntrue_fracture_strain = 0.8'),
        "true_fracture_strain",
        "without a unit",
    ),
    "no tests": (strain(text='tests = "none.csv"\nyoungs_modulus = "206 GPa"\n'), "bar", "no such file"),
    "tests of a lap": (
        strain(text='tests = "loaded_lap.csv"\nyoungs_modulus = "206 GPa"\n'),
        "bar",
        "strain amplitude",
    ),
    "no curve on the card": (strain(text='card = "welded-steel-procedures"\n'), "bar", "no strain-life curve"),
    "points bare": (strain('"1 %"', "0.01", text=POINTS), "points", "without a unit in row 1"),
    "two points": (strain('["0.4 %", 9800], ', "", text=POINTS), "points", "3 or more"),
    "lives that rise": (strain("9800", "98", text=POINTS), "bar", "lives"),
    "an unknown curve": (local('strain_life = "bare"'), "strain_life", "a name under strain_life_curves"),
    "no strain-life curve": (local('notch_rule = "neuber"'), "strain_life", "no such key"),
    "an unknown notch rule": (
        ((AT_LAWS, strain()[1].replace(AT_LAWS, "") + AT_LAWS), local('strain_life = "bar", notch_rule = "nueber"')),
        "notch_rule",
        "Did you mean 'neuber'",
    ),
    "a rule of stress-life": (
        (strain(), local('strain_life = "bar", mean_stress = "goodman"')),
        "mean_stress",
        "one of 'none', 'morrow'",
    ),
    "a limit below 1": (
        (strain(), local('strain_life = "bar", plastic_limit_ratio = 0.7')),
        "plastic_limit_ratio",
        "at least 1",
    ),
    "K below yield": (
        (strain("1080 MPa", "580 MPa", text=STATED + CYCLIC), local('strain_life = "bar"')),
        "cyclic_strength_coefficient",
        "below the yield strength",
    ),
    "two methods": (
        (strain(), ('sn_curve = "pin_bore"\n', local('strain_life = "bar"')[1] + 'sn_curve = "pin_bore"\n')),
        "entry 2 (bore of the suspension pin)",
        "beside a method",
    ),
    "another count": (
        (strain(), local('strain_life = "bar"'), ('residue = "repeated"  ', 'residue = "half cycles"  ')),
        "residue",
        "memory of the material",
    ),
    "planes of one stress": (local('sn_curve = "tube", k = 0.3', kind="critical plane"), "entry 2", "six components"),
    "planes without a weight": (
        local('sn_curve = "tube"', kind="critical plane"),
        "criterion findley",
        "k, or axial_limit and torsion_limit",
    ),
    "a torsion limit above the other": (
        local('sn_curve = "tube", axial_limit = "180 MPa", torsion_limit = "300 MPa"', kind="critical plane"),
        "torsion_limit / axial_limit",
        "above the other",
    ),
    "a repeated limit alone": (
        local('sn_curve = "tube", k = 0.3, repeated_limit = "240 MPa"', kind="critical plane"),
        "repeated_limit",
        "torsion_limit beside it",
    ),
    "strains on planes of one stress": (
        (strain(), local('strain_life = "bar", k = 0.5', kind="strain on planes")),
        "entry 2",
        "six components",
    ),
    "strains on planes without a weight": (
        (strain(), local('strain_life = "bar"', kind="strain on planes")),
        "criterion fatemi-socie",
        "k, 0.3 to 1",
    ),
    "a weight that is not taken": (
        (strain(), local('strain_life = "bar", criterion = "brown-miller", k = 0.5', kind="strain on planes")),
        "k",
        "'s' only",
    ),
    "another rule for yielding": (
        (strain(), local('strain_life = "bar", k = 0.5, plasticity = "plastic"', kind="strain on planes")),
        "plasticity",
        "one of 'proportional'",
    ),
    "hardening in step": (
        (strain(), local('strain_life = "bar", k = 0.5, nonproportional_hardening = 0.2', kind="strain on planes")),
        "nonproportional_hardening",
        'plasticity = "incremental"',
    ),
    "strains as they are on planes": (
        (strain(), local('strain_life = "bar", k = 0.5, notch_rule = "none"', kind="strain on planes")),
        "notch_rule",
        "one of 'neuber'",
    ),
    "a weld by a curve at one R": (
        local('sn_curve = "tube", shear_curve = "tube"', kind="weld of two stresses"),
        "sn_curve",
        "one for any R",
    ),
    "an unknown amplitude": (
        local('sn_curve = "tube", k = 0.3, shear_amplitude = "ball"', kind="critical plane"),
        "shear_amplitude",
        "one of 'circle', 'chord', 'variance'",
    ),
    "a normal of no surface": (
        local('sn_curve = "tube", k = 0.3, surface_normal = [0, 0, 1]', kind="critical plane"),
        "surface_normal",
        'planes = "free surface"',
    ),
    "a normal of no length": (
        local('sn_curve = "tube", k = 0.3, planes = "free surface", surface_normal = [0, 0, 0]', kind="critical plane"),
        "surface_normal",
        "three numbers",
    ),
    "planes of no kind": (
        local('sn_curve = "tube", k = 0.3, planes = "some"', kind="critical plane"),
        "planes",
        "one of 'all', 'free surface'",
    ),
    "an unknown criterion": (
        local('sn_curve = "tube", criterion = "findly", k = 0.3', kind="critical plane"),
        "criterion",
        "Did you mean 'findley'",
    ),
}
