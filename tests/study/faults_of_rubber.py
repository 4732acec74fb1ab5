"""Slips in a study: rubbers, states of strain, places and models of rubber."""

from tests.study.texts import AT_LAWS

LAW = 'law = { kind = "mooney-rivlin", c10 = "0.45 MPa", c01 = "0.08 MPa" }\n'
GROWTH = 'growth = { kind = "power", rate = "3e-3 mm/cycle", at = "10 kJ/m^2", slope = 2.0 }\n'
FLAW = 'initial_flaw = "0.04 mm"\n'
STATED = LAW + GROWTH + FLAW
AT_SPOTS = "[[hot_spots]]\nname = "
SPOT = """[[hot_spots]]
name = "bush"
material = "plate_steel"
method = { kind = "cracking energy", rubber = "bar", surface_normal = [0, 0, 1] }
strain_states = [{ file = "edge.csv", measure = "nominal" }]

"""
MODEL = """[model]
material = "plate_steel"
method = { kind = "cracking energy", rubber = "bar", surface_normal = [0, 0, 1] }
strain_states = [{ file = "rubber.csv", measure = "nominal", channel = "vertical force", at = ["20 kN"] }]

"""


def rubber(old="", new="", *, text=STATED):
    """A rubber put into the study, changed."""
    assert old in text
    return AT_LAWS, f"[rubbers.bar]\n{text.replace(old, new, 1)}\n{AT_LAWS}"


def place(old="", new="", *, text=SPOT):
    """A rubber, and a place or a model of it, changed."""
    assert old in text
    return AT_LAWS, f"[rubbers.bar]\n{STATED}\n{text.replace(old, new, 1)}{AT_LAWS}"


def model(old="", new=""):
    """A model of rubber, changed."""
    return place(old, new, text=MODEL)


FAULTS_OF_RUBBER = {
    "no law": (rubber(text=GROWTH + FLAW), "bar, law", "law, growth and initial_flaw, or a card"),
    "an unknown law": (rubber("mooney-rivlin", "mooney"), "bar, law", "mooney-rivlin"),
    "constants in Pa": (rubber("0.45 MPa", "0.45e6 MPa"), "bar, hyperelastic law", "Are the constants in Pa or kPa?"),
    "no stiffness": (rubber("0.08 MPa", "-0.5 MPa"), "bar, hyperelastic law", "one above 0"),
    "a law of volume": (rubber("c01 =", 'bulk_modulus = "2 MPa", c01 ='), "bulk_modulus", "hardly changes its volume"),
    "J/m^3 for J/m^2": (rubber("10 kJ/m^2", "10 kJ/m^3"), "bar, growth", "not one of energy release rate"),
    "growth without at": (rubber(', at = "10 kJ/m^2"', ""), "at", "no such key"),
    "an unknown effect of R": (rubber("slope = 2.0", 'slope = 2.0, r_effect = "walker"'), "r_effect", "crystallising"),
    "R of tests of 1": (
        rubber("slope = 2.0", "slope = 2.0, r_ratios_tested = [0.0, 1.0]"),
        "r_ratios_tested",
        "below 1",
    ),
    "a flaw in m": (rubber("0.04 mm", "0.04 m"), "bar, end_flaw", "more than the flaw at the start"),
    "a flaw without unit": (rubber('"0.04 mm"', "0.04"), "initial_flaw", "without a unit"),
    "a shape of 0": (rubber(text=STATED + "shape_factor = 0\n"), "shape_factor", "above 0"),
    "a temperature of no test": (
        rubber(text=STATED + 'temperature = "40 °C"\n'),
        "temperature",
        "names no temperature",
    ),
    "beyond the temperatures": (
        rubber(text='card = "bushing-rubber-60"\ntemperature = "95 °C"\n'),
        "temperature",
        "23 to 70 °C",
    ),
    "a card of steel": (rubber(text='card = "structural-steel-355"\n'), "bar", "a card with a table [rubber]"),
    "a fit of no mode": (rubber(LAW, 'law = { tests = "sheet.csv", form = "yeo" }\n'), "form", "'yeoh'"),
    "growth tests of one R": (
        rubber(GROWTH, 'growth = { tests = "strip.csv", r_effect = "crystallising" }\n'),
        "tearing tests strip",
        "tests at several R",
    ),
    "strips without their end": (
        rubber(FLAW, 'initial_flaw = { strips = "lives.csv", strip_end = 1 }\n'),
        "initial_flaw",
        "without a unit",
    ),
    "an unknown rubber": (place('rubber = "bar"', 'rubber = "bare"'), "rubber", "a name under rubbers"),
    "an unknown energy": (place('rubber = "bar"', 'rubber = "bar", energy = "all"'), "energy", "principal strain"),
    "an unknown closure": (place('rubber = "bar"', 'rubber = "bar", closure = "half"'), "closure", "traction"),
    "axes that are not square": (
        place('rubber = "bar"', 'rubber = "bar", part_axes = [[1, 0, 0], [1, 1, 0]]'),
        "part_axes",
        "90 degrees",
    ),
    "no surface and no bulk modulus": (
        place(", surface_normal = [0, 0, 1]", ""),
        "surface_normal",
        "bulk_modulus in the law",
    ),
    "a notch factor": (
        place('name = "bush"\n', 'name = "bush"\nnotch_factor = 1.5\n'),
        "notch_factor",
        "at the notch itself",
    ),
    "stresses by energy": (
        place(
            'strain_states = [{ file = "edge.csv", measure = "nominal" }]',
            'channel = "vertical force"\nstress_per_load = "2 MPa/kN"',
        ),
        "method",
        "which takes strains",
    ),
    "strains by stress life": (
        place(
            '{ kind = "cracking energy", rubber = "bar", surface_normal = [0, 0, 1] }', '{ sn_curve = "fillet_weld" }'
        ),
        "method",
        "a method that takes strains",
    ),
    "an unknown measure": (place('"nominal"', '"engineering"'), "measure", "green-lagrange"),
    "no measure": (place(', measure = "nominal"', ""), "measure", "no such key"),
    "an unknown shear": (place('"nominal" }', '"nominal", shear = "half" }'), "shear", "engineering"),
    "a missing component": (place("edge.csv", "plane.csv"), "plane.csv", "no column 'zz'"),
    "a strain without unit": (place("edge.csv", "bare.csv"), "column 'xx'", "no unit"),
    "a stretch at or below 0": (
        place('file = "edge.csv"', 'file = "torn.csv", channel = "vertical force"'),
        "sample 0",
        "stretches above 0",
    ),
    "an event that is not there": (place('"nominal" }', '"nominal", events = ["laps"] }'), "events", "an event"),
    "a force for a state": (
        place('file = "edge.csv"', 'file = "state.csv", channel = "vertical force"'),
        "channel vertical force",
        "a number of a state",
    ),
    "one file twice": (
        model(
            "strain_states = [",
            'strain_states = [{ file = "rubber.csv", measure = "nominal", channel = "vertical force", at = ["20 kN"] }, ',
        ),
        "strain_states, entry 2, file",
        "rubber.csv beside rubber.csv",
    ),
    "a model of both": (
        model("[model]\n", '[model]\nstresses = "few_nodes.csv"\n'),
        "stresses",
        "strain_states of a model of rubber",
    ),
    "a surface of stresses": (
        model(
            'strain_states = [{ file = "rubber.csv", measure = "nominal", channel = "vertical force", at = ["20 kN"] }]',
            'stresses = "few_nodes.csv"\nfree_surface = "top"',
        ),
        "free_surface",
        "Others need none",
    ),
    "a surface that is not there": (model("[model]\n", '[model]\nfree_surface = "top"\n'), "surface", "no elements"),
    "a measure of stress": (model("[model]\n", '[model]\nmeasure = "signed Tresca"\n'), "measure", "their own keys"),
    "a unit beside a table": (
        model('"nominal", ', '"nominal", strain_unit = "%", '),
        "strain_unit",
        "the file says it itself",
    ),
    "places that are not as many": (
        model('["20 kN"]', '["10 kN", "20 kN"]'),
        "strain_states, entry 1, at",
        "one for each state",
    ),
    "steel by strains": (
        model(
            '{ kind = "cracking energy", rubber = "bar", surface_normal = [0, 0, 1] }', '{ sn_curve = "fillet_weld" }'
        ),
        "method",
        "a method that takes strains",
    ),
}
