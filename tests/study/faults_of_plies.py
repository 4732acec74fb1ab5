"""Slips in a study: plies, laminates, loads of a section, fatigue of plies."""

from tests.study.texts import AT_LAWS

PLY = """[plies.glass]
modulus_along = "41 GPa"
modulus_across = "10.4 GPa"
shear_modulus = "4.3 GPa"
poissons_ratio = 0.28
tension_along = "1050 MPa"
compression_along = "650 MPa"
tension_across = "42 MPa"
compression_across = "145 MPa"
shear_strength = "70 MPa"
fibre_life = { kind = "rays", tension = "1050 MPa", compression = "650 MPa", rows = [[0.1, "440 MPa", 0.095]] }
across_life = { kind = "shifted linear", tension = "42 MPa", compression = "145 MPa", slope = 11.0 }
shear_life = { kind = "largest stress", tension = "70 MPa", tension_slope = 11, compression = "70 MPa", compression_slope = 11 }
"""
LAMINATE = """
[laminates.bar]
layup = "[0/±45/90]s"
ply = "glass"
ply_thickness = "0.25 mm"
"""
SPOT = """
[[hot_spots]]
name = "bar"
method = { kind = "ply fatigue", laminate = "bar" }
section_loads = [{ channel = "vertical force", unit_load = "10 kN", mx = "35 N*mm/mm" }]

"""


def plies(old="", new="", *, more=""):
    """A ply, a laminate and a place put into the study, changed."""
    text = PLY + more + LAMINATE + SPOT
    assert old in text, old
    return AT_LAWS, f"{text.replace(old, new, 1)}{AT_LAWS}"


def in_ply(line):
    """A line more in the ply."""
    return plies(PLY, f"{PLY}{line}\n")


def method(line):
    """A key more in the method."""
    return plies('laminate = "bar" }', f'laminate = "bar", {line} }}')


LAYUPS = {
    f"layup {text}": (plies("[0/±45/90]s", text), "laminates, bar, layup", f"character {at}")
    for text, at in (("[0/45", 6), ("0/45]", 1), ("[0/4x]", 5), ("[0/±-45]", 5), ("[0/45]q", 7), ("[0/45~]", 6))
}
RAYS_ROWS = 'rows = [[0.1, "440 MPa", 0.095]]'
FAULTS_OF_PLIES = {
    **LAYUPS,
    "layup in numbers": (plies('"[0/±45/90]s"', "[0, 400]"), "laminates, bar", "360 degrees"),
    "a ply that is not there": (plies('ply = "glass"', 'ply = "glas"'), "laminates, bar, ply", "Did you mean 'glass'?"),
    "ply_thickness of 0": (plies("0.25 mm", "0 mm"), "ply_thickness", "above 0 mm"),
    "ply_thickness without a unit": (plies('"0.25 mm"', "0.25"), "ply_thickness", "without a unit"),
    "layup beside plies": (
        plies('ply_thickness = "0.25 mm"', 'plies = [{ ply = "glass", angle = 45, thickness = "0.25 mm" }]'),
        "laminates, bar",
        "beside plies",
    ),
    "thickness of one ply": (
        plies(
            'layup = "[0/±45/90]s"\nply = "glass"\nply_thickness = "0.25 mm"',
            'plies = [{ ply = "glass", angle = 45.0, thickness = "0 mm" }]',
        ),
        "laminates, bar",
        "thickness",
    ),
    "no layup": (plies('layup = "[0/±45/90]s"\n', ""), "layup", "layup, ply and ply_thickness"),
    "temperature_change in degrees": (
        plies('ply_thickness = "0.25 mm"', 'ply_thickness = "0.25 mm"\ntemperature_change = "-90 mm"'),
        "temperature_change",
        "temperature change",
    ),
    "no modulus_along": (plies('modulus_along = "41 GPa"\n', ""), "plies, glass", "moduli"),
    "modulus_across of 0": (plies('"10.4 GPa"', '"0 GPa"'), "modulus_across", "above 0 MPa"),
    "shear_modulus in mm": (plies('"4.3 GPa"', '"4.3 mm"'), "shear_modulus", "not one of stress"),
    "poissons_ratio too large": (plies("= 0.28", "= 2.3"), "poissons_ratio", "positive definite"),
    "tension_along below 0": (plies('"1050 MPa"\n', '"-1050 MPa"\n'), "tension_along", "above 0 MPa"),
    "compression_along below 0": (
        plies('compression_along = "650 MPa"', 'compression_along = "-650 MPa"'),
        "compression_along",
        "those of compression too",
    ),
    "no tension_across": (plies('tension_across = "42 MPa"\n', ""), "tension_across", "needs it"),
    "compression_across of 0": (plies('"145 MPa"\n', '"0 MPa"\n'), "compression_across", "above 0 MPa"),
    "shear_strength in N": (plies('shear_strength = "70 MPa"', 'shear_strength = "70 N"'), "shear_strength", "stress"),
    "shear_across of 0": (in_ply('shear_across = "0 MPa"'), "shear_across", "above 0"),
    "interlaminar_strength of 0": (in_ply('interlaminar_strength = "0 MPa"'), "interlaminar_strength", "above 0"),
    "expansion_along in percent": (in_ply('expansion_along = "7 %"'), "expansion_along", "thermal expansion"),
    "expansion_across as a number": (in_ply("expansion_across = 27e-6"), "expansion_across", "without a unit"),
    "compression_supported in words": (in_ply('compression_supported = "yes"'), "compression_supported", "true"),
    "a card that is no ply": (plies(PLY, '[plies.glass]\ncard = "structural-steel-355"\n'), "plies, glass", "no ply"),
    "fibre_life of an unknown kind": (plies('"rays"', '"ray"'), "fibre_life", "Did you mean 'rays'?"),
    "rows without a unit": (plies('[[0.1, "440 MPa", 0.095]]', "[[0.1, 440.0, 0.095]]"), "rows", "without a unit"),
    "rows at R = 1": (plies('[[0.1, "440 MPa"', '[[1.0, "440 MPa"'), "fibre_life", "something moves"),
    "rows short": (plies('"440 MPa", 0.095]]', '"440 MPa"]]'), "fibre_life", "R, A, b"),
    "no across_life": (
        plies(
            'across_life = { kind = "shifted linear", tension = "42 MPa", compression = "145 MPa", slope = 11.0 }\n', ""
        ),
        "across_life",
        "leave 'matrix' out",
    ),
    "shear_life without tension_slope": (plies(", tension_slope = 11", ""), "tension_slope", "no such key"),
    "compression_slope below 1": (
        plies("compression_slope = 11 }", "compression_slope = 0.5 }"),
        "compression_slope",
        "above 1",
    ),
    "slope of 0": (plies("slope = 11.0 }", "slope = 0.0 }"), "slope", "above 1"),
    "mean_factor of 0": (plies("slope = 11.0 }", "slope = 11.0, mean_factor = 0.0 }"), "mean_factor", "above 0"),
    "amplitude_factor of 0": (
        plies("slope = 11.0 }", "slope = 11.0, amplitude_factor = 0.0 }"),
        "amplitude_factor",
        "above 0",
    ),
    "r_ratios_tested in words": (
        plies("slope = 11.0 }", 'slope = 11.0, r_ratios_tested = ["a"] }'),
        "r_ratios_tested",
        "a number",
    ),
    **{
        f"bell, {key}": (
            plies(
                'kind = "shifted linear", tension = "42 MPa", compression = "145 MPa", slope = 11.0',
                'kind = "bell", tension = "145 MPa", compression = "42 MPa", height = 1.0, power = 1.2, power_per_decade = 0.1'
                + f", {key} = {value}" * (key not in ("height", "power", "power_per_decade", "compression"))
                if key not in ("height", "power", "power_per_decade", "compression")
                else 'kind = "bell", tension = "145 MPa", '
                + ", ".join(
                    f"{name} = {value if name == key else usual}"
                    for name, usual in (
                        ("compression", '"42 MPa"'),
                        ("height", 1.0),
                        ("power", 1.2),
                        ("power_per_decade", 0.1),
                    )
                ),
            ),
            "across_life",
            message,
        )
        for key, value, message in (
            ("height", 0.0, "above 0"),
            ("power", 0.0, "above 0"),
            ("power_per_decade", 0.0, "above 0"),
            ("compression", '"200 MPa"', "rise with life"),
            ("compression_power", 1.2, "both"),
            ("compression_power_per_decade", 0.1, "both"),
        )
    },
    "energy_life without constant": (in_ply("energy_life = { exponent = 0.09 }"), "constant", "no such key"),
    "rule energy without energy_life": (method('rule = "energy"'), "energy_life", "K and a"),
    "fibre_strength_decay of no exponent": (
        in_ply('fibre_strength_decay = { kind = "power" }'),
        "fibre_strength_decay, exponent",
        "no such key",
    ),
    "across_strength_decay, alpha": (
        in_ply('across_strength_decay = { kind = "normalised", alpha = 0.0, beta = 1.0 }'),
        "alpha",
        "above 0",
    ),
    "shear_strength_decay, beta": (
        in_ply('shear_strength_decay = { kind = "normalised", alpha = 1.0, beta = -1.0 }'),
        "beta",
        "above 0",
    ),
    "fibre_stiffness_decay, end": (
        in_ply('fibre_stiffness_decay = { kind = "power", end = 1.2, exponent = 1.0 }'),
        "end",
        "below 1",
    ),
    "across_stiffness_decay, most": (
        in_ply('across_stiffness_decay = { kind = "rate", rate = 1e-5, exponent = 4.0, most = 1.5 }'),
        "most",
        "below 1",
    ),
    "shear_stiffness_decay, failure_strain and root": (
        in_ply('shear_stiffness_decay = { kind = "normalised", power = 1.0, root = 1.0, failure_strain = 0.01 }'),
        "failure_strain",
        "without a unit",
    ),
    "fails_by without decays": (method('fails_by = "residual strength"'), "fibre_strength_decay", "goes down"),
    "fails_by an unknown way": (method('fails_by = "miner"'), "fails_by", "damage sum"),
    "an unknown rule": (method('rule = "all"'), "rule", "together"),
    "modes that are none": (method('modes = ["matix"]'), "modes", "'fibre' and 'matrix'"),
    "static by nobody": (method('static = "Pucks"'), "static", "Did you mean 'Puck'?"),
    "fibre_left of 0": (method("fibre_left = 0.0"), "fibre_left", "above 0"),
    "matrix_left of 1": (method("matrix_left = 1.0"), "matrix_left", "below 1"),
    "over_below of 0": (method("over_below = 0.0"), "over_below", "above 0"),
    "jump_error of 0": (method("jump_error = 0.0"), "jump_error", "above 0"),
    "a laminate that is not there": (
        plies('laminate = "bar"', 'laminate = "bars"'),
        "method, laminate",
        "Did you mean 'bar'?",
    ),
    **{
        f"{key} in a wrong unit": (plies('mx = "35 N*mm/mm"', f'{key} = "5 MPa"'), key, "per width")
        for key in ("nx", "ny", "nxy", "mx", "my", "mxy", "qx", "qy")
    },
    "section_loads without any load": (plies(', mx = "35 N*mm/mm"', ""), "section loads", "a force or a moment"),
    "constant_section_loads alone": (
        plies(
            'section_loads = [{ channel = "vertical force", unit_load = "10 kN", mx = "35 N*mm/mm" }]',
            'channel = "vertical force"\nstress_per_load = "5 MPa/kN"\nconstant_section_loads = { nx = "2 N/mm" }',
        ),
        "constant_section_loads",
        "section_loads beside it",
    ),
    "stresses with ply fatigue": (
        plies(
            'section_loads = [{ channel = "vertical force", unit_load = "10 kN", mx = "35 N*mm/mm" }]',
            'material = "plate_steel"\nchannel = "vertical force"\nstress_per_load = "5 MPa/kN"',
        ),
        "method",
        "section loads with 'ply fatigue'",
    ),
    "a place of steel without material": (
        plies(
            'section_loads = [{ channel = "vertical force", unit_load = "10 kN", mx = "35 N*mm/mm" }]',
            'channel = "vertical force"\nstress_per_load = "5 MPa/kN"',
        ),
        "material",
        "no such key",
    ),
    "a notch beside section_loads": (
        plies('name = "bar"\n', 'name = "bar"\nnotch_factor = 1.5\n'),
        "notch_factor",
        "none",
    ),
    "ply_stresses of no laminate": (
        (AT_LAWS, '[model]\nply_stresses = "few_nodes.csv"\nsn_curve = "tube"\nmaterial = "plate_steel"\n\n' + AT_LAWS),
        "model, method",
        "Stresses of plies are its own",
    ),
    "ply_stresses beside section_loads": (
        plies(
            SPOT,
            '\n[model]\nmethod = { kind = "ply fatigue", laminate = "bar" }\nsection_loads = "a.csv"\n'
            "ply_stresses = 'b.csv'\n\n",
        ),
        "model, stresses",
        "'section_loads', 'ply_stresses'",
    ),
    "a measure beside ply_stresses": (
        plies(
            SPOT,
            '\n[model]\nmethod = { kind = "ply fatigue", laminate = "bar" }\nply_stresses = "a.csv"\nmeasure = "shear"\n\n',
        ),
        "model, measure",
        "They say themselves",
    ),
    "a channel that is not there": (
        plies('[{ channel = "vertical force"', '[{ channel = "force"'),
        "hot_spots, entry 1 (bar), event loaded lap",
        "Did you mean 'vertical force'?",
    ),
}
