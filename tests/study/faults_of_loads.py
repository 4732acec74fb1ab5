"""Slips in a study: loads, materials, curves, and what the error says."""

from tests.study.texts import (
    AT_THRESHOLD,
    LAST,
    LAW,
    ONE_SIZE,
    PLATE_KEYS,
    TWO_SIZES,
    WELD,
    crack_key,
    law_key,
    plain_crack,
)

BLOCK = """
[[duty_cycle.events]]
name = "acceptance test"
channel = "vertical force"
amplitude = "3 kN"
r_ratio = 0.0
cycles = 10
frequency = "0.2 Hz"
occurrences = 0.0833

# ---- What it is made of"""
FEATURES = """
[[duty_cycle.events]]
name = "rows"
occurrences = 2
channel = "vertical force"
programme = { unit = "kN", maximum = [3.0, 2.0], minimum = [0.0, 1.0], cycles = [10, 500] }

[[duty_cycle.events]]
name = "classes"
occurrences = 1
channel = "vertical force"
spectrum = { unit = "kN", range = [3.0, 1.0], exceedance = [10, 1000], r_ratio = [0.0, 0.5] }

[[duty_cycle.events]]
name = "day of laps"
occurrences = 20
events = [{ name = "lap", history = "empty_lap.csv", occurrences = 7 }]

# ---- What it is made of"""
UPSIDE_DOWN = 'programme = { unit = "kN", maximum = [1.0], minimum = [2.0], cycles = [1] }'
RISING = 'spectrum = { unit = "kN", range = [1.0, 2.0], exceedance = [1, 2] }'
INNER = 'events = [{ name = "lap", occurrences = 2, history = 3 }]'
BY_ONE = """channel = "vertical force"
stress_per_load = "24.5 MPa/kN"        # nominal stress beside the weld, from the drawing
"""

FAULTS_OF_LOADS = {
    "misspelt key": (
        ("notch_factor = 1.0 ", "notch_faktor = 1.0 "),
        f"{WELD}, notch_faktor",
        "Did you mean 'notch_factor'",
    ),
    "misspelt table": (
        ("[materials.pin_steel]", "[material.pin_steel]"),
        "study.toml, material",
        "Did you mean 'materials'",
    ),
    "misspelt top key": (("target_life", "target"), "study.toml, target", "Did you mean 'target_life'"),
    "no title": (('title = "Larkfell chairlift, hanger arm"', ""), "study.toml, title", "the key 'title'"),
    "old format": (("format = 2", "format = 9"), "study.toml, format", "format = 2"),
    "bare number": (('"24.5 MPa/kN"', "24.5"), f"{WELD}, stress_per_load", "text in quotes"),
    "no unit": (('"24.5 MPa/kN"', '"24.5"'), f"{WELD}, stress_per_load", "without a unit"),
    "wrong dimension": (('"24.5 MPa/kN"', '"24.5 MPa/mm"'), f"{WELD}, stress_per_load", "stress per force"),
    "bare strength": (
        ('ultimate_strength = "510 MPa"', "ultimate_strength = 510"),
        "plate_steel, ultimate_strength",
        "510 without a unit",
    ),
    "toughness as stress": (
        ('"75 MPa√m"', '"75 MPa"'),
        "materials, plate_steel, toughness",
        "not one of stress intensity",
    ),
    "yield above ultimate": (
        ('yield_strength = "355 MPa"', 'yield_strength = "3550 MPa"'),
        "plate_steel, yield_strength",
        "exchanged",
    ),
    "offset in force": (('offset = "15 MPa"', 'offset = "15 kN"'), "bend of the tube), offset", "not one of stress"),
    "text for a number": (("notch_factor = 2.2", 'notch_factor = "2.2"'), "suspension pin), notch_factor", "a number"),
    "notch below one": (("notch_factor = 2.2", "notch_factor = 0.22"), "suspension pin), notch_factor", "at least 1"),
    "unknown channel": (
        ('channel = "vertical force"\nstress', 'channel = "vertical farce"\nstress'),
        WELD,
        "Did you mean 'vertical force'",
    ),
    "unknown curve": (
        ('sn_curve = "fillet_weld"', 'sn_curve = "filet_weld"'),
        f"{WELD}, sn_curve",
        "Did you mean 'fillet_weld'",
    ),
    "unknown material": (
        ('material = "pin_steel"', 'material = "pin"'),
        "suspension pin), material",
        "Did you mean 'pin_steel'",
    ),
    "unknown rule": (
        ('mean_stress = "goodman"', 'mean_stress = "good man"'),
        "suspension pin), mean_stress",
        "Did you mean 'goodman'",
    ),
    "rule without its value": (
        ('mean_stress = "goodman"', 'mean_stress = "morrow"'),
        "suspension pin)",
        "no true_fracture_strength",
    ),
    "fracture strength bare": (
        ('yield_strength = "600 MPa"', "true_fracture_strength = 900"),
        "pin_steel, true_fracture_strength",
        "without a unit",
    ),
    "coefficient in mm": (
        ('yield_strength = "600 MPa"', 'fatigue_strength_coefficient = "900 mm"'),
        "pin_steel, fatigue_strength_coefficient",
        "not one of stress",
    ),
    "exponent of Walker": (
        ('yield_strength = "600 MPa"', "walker_exponent = 1.5"),
        "pin_steel, walker_exponent",
        "at most 1",
    ),
    "sensitivity in percent": (
        ('yield_strength = "600 MPa"', "mean_stress_sensitivity = 15"),
        "pin_steel, mean_stress_sensitivity",
        "0 to 1",
    ),
    "group of material": (('yield_strength = "600 MPa"', 'group = "wood"'), "pin_steel, group", "'grey iron'"),
    "below the knee": (
        ('mean_stress = "none"', 'mean_stress = "none"\nbelow_knee = "2m-3"'),
        f"{WELD}, below_knee",
        "one of 'as the curve says'",
    ),
    "unknown compressive": (('"ignored" ', '"ignore" '), "suspension pin), compressive_mean", "Did you mean 'ignored'"),
    "rule against curve": (
        ('mean_stress = "none"', 'mean_stress = "goodman"'),
        f"{WELD}, mean_stress",
        "holds for any R",
    ),
    "range or amplitude": (
        ('stress = "range"', 'stress = "ranges"'),
        "sn_curves, fillet_weld, stress",
        "'range', 'amplitude'",
    ),
    "R above one": (("r_ratio = -1 ", "r_ratio = 1.5 "), "sn_curves, pin_bore, r_ratio", "below 1"),
    "exponent for slope": (("slope = 7", "slope = -0.143"), "sn_curves, pin_bore, slope", "the slope is 6.993"),
    "half a curve": (("knee_life = 5e6", "#"), "sn_curves, fillet_weld", "exactly one of the keys"),
    "steeper below": (("slope_below = 13", "slope_below = 3"), "pin_bore, slope_below", "at least the slope"),
    "life below a cycle": (("knee_life = 2e6", "knee_life = 0.2"), "sn_curves, tube, knee_life", "at least 1 cycle"),
    "critical sum": (
        ('mean_stress = "none"', 'mean_stress = "none"\ncritical_sum = 0'),
        f"{WELD}, critical_sum",
        "above 0",
    ),
    "unknown rule of order": (
        ('mean_stress = "none"', 'mean_stress = "none"\norder_rule = "double line"'),
        f"{WELD}, order_rule",
        "Did you mean 'double linear'",
    ),
    "exponents without the rule": (
        ('mean_stress = "none"', 'mean_stress = "none"\norder_exponents = { "loaded lap" = 2 }'),
        f"{WELD}, order_exponents",
        "with the power rule only",
    ),
    "missing file": (('"loaded_lap.csv" ', '"lap.csv" '), "duty_cycle, events, entry 1 (loaded lap)", "no such file"),
    "target as a number": (('"30 years"', "30"), "study.toml, target_life", "without a unit"),
    "duration beside a history": (
        ("occurrences = 1667", 'occurrences = 1667\nduration = "30 s"'),
        "entry 1 (loaded lap)",
        "one of both",
    ),
    "duration without unit": (
        (LAST, BLOCK.replace('frequency = "0.2 Hz"', 'duration = "30"')),
        "entry 4 (acceptance test)",
        "without a unit",
    ),
    "zero occurrences": (
        ("occurrences = 1667", "occurrences = 0"),
        "entry 1 (loaded lap), occurrences",
        "never happens",
    ),
    "time beside known ones": (
        ("repeats_per_year = 12", 'repeats_per_year = 12\nrepeat_duration = "40"'),
        "duty_cycle",
        "repeat_duration",
    ),
    "old keys": (("format = 2", "format = 1"), "study.toml, format", "Write format = 2."),
    "no repeats": (("repeats_per_year = 12", "repeats_per_year = 0"), "duty_cycle, repeats_per_year", "above 0"),
    "unknown residue": (('residue = "repeated"', 'residue = "closed"'), "duty_cycle, residue", "one of"),
    "both kinds of event": (
        ("occurrences = 1667", 'occurrences = 1667\nrange = "3 kN"'),
        "entry 1 (loaded lap)",
        "exactly one of history",
    ),
    "neither kind of event": (('history = "loaded_lap.csv" ', "#"), "entry 1 (loaded lap)", "exactly one of history"),
    "target without unit": (('"30 years"', '"30"'), "study.toml, target_life", "without a unit"),
    "target in days": (('"30 years"', '"30 days"'), "study.toml, target_life", "'year'"),
    "target of zero": (('"30 years"', '"0 years"'), "study.toml, target_life", "above 0"),
    "rate without range": (
        ('"1.65e-11 m/cycle at 1 MPa√m"', '"1.65e-11 m/cycle"'),
        "growth_laws, steel_in_air, rate",
        "at 1 MPa√m",
    ),
    "threshold as stress": (('"2 MPa√m"', '"2 MPa"'), "growth_laws, steel_in_air, threshold", "stress intensity"),
    "growth slope": (
        ("slope = 3                              # m of da", "slope = -3 # m of da"),
        "steel_in_air, slope",
        "above 0",
    ),
    "crack nowhere": (
        ('hot_spot = "weld toe at the grip head"', 'hot_spot = "weld"'),
        "cracks, entry 1 (weld), hot_spot",
        "Did you mean",
    ),
    "crack in force": (('initial_size = "1 mm"', 'initial_size = "1 N"'), "cracks, entry 1", "not one of length"),
    "crack in metres": (
        ('initial_size = "1 mm"', 'initial_size = "1 m"'),
        "entry 1 (weld toe at the grip head), initial_size",
        "below 12 mm",
    ),
    "crack of nothing": (('initial_size = "1 mm"', 'initial_size = "0 mm"'), "initial_size", "above 0"),
    "detectable beyond": (
        ('detectable_size = "2.5 mm"', 'detectable_size = "30 cm"'),
        "detectable_size",
        "Is the unit right",
    ),
    "plate of nothing": (('plate_width = "150 mm"', 'plate_width = "0 mm"'), "width", "above 0"),
    "unknown shape": (
        ('shape = "surface"', 'shape = "edges"'),
        "cracks, entry 1 (weld toe at the grip head), shape",
        "'edge'",
    ),
    "thickness left out": (('thickness = "12 mm"\n', ""), "thickness", "which a crack of the shape 'surface' needs"),
    "key of another shape": (crack_key('radius = "3 mm"'), "radius", "does not have"),
    "a hole of nothing": (plain_crack("hole", 'radius = "0 mm"'), "radius", "above 0"),
    "three cracks at a hole": (plain_crack("hole", 'radius = "3 mm"', "cracks = 3"), "cracks", "1 or 2"),
    "a wall of nothing": (plain_crack("pipe, around", 'radius = "3 mm"', 'wall = "0 mm"'), "wall", "above 0"),
    "a bar of nothing": (plain_crack("round bar", 'diameter = "0 mm"'), "diameter", "above 0"),
    "one point": (plain_crack("table", 'points = [["1 mm", 1.1]]'), "points", "two or more rows"),
    "points that fall": (
        plain_crack("table", 'points = [["2 mm", 1.1], ["1 mm", 1.2]]'),
        "points",
        "row 2: 1 mm with Y = 1.2",
    ),
    "all bending and more": (crack_key("bending_share = 1.2"), "bending_share", "0 to 1"),
    "attachment of nothing": (
        ('attachment_length = "20 mm" ', 'attachment_length = "0 mm" #'),
        "attachment_length",
        "above 0",
    ),
    "surface factor": (crack_key("surface_factor = 0"), "surface_factor", "above 0"),
    "half length left out": (("initial_half_length = ", "#"), "initial_half_length", "half of the crack length"),
    "half length too long": (
        ('initial_half_length = "2.5 mm"', 'initial_half_length = "50 mm"'),
        "initial_half_length",
        "below 37.5 mm",
    ),
    "later law unknown": (crack_key('later_law = "steel"\nlater_law_from = "5 years"'), "later_law", "Did you mean"),
    "tests of nothing": (law_key('tests = "nothing.csv"'), "growth_laws, steel_in_air", "no such file"),
    "tests without piece": (
        (LAW, 'above_mean = 2\ntests = { file = "growth_readings.csv", r_ratio = 0.1 }\n'),
        "growth_laws, steel_in_air",
        "piece",
    ),
    "fitted and given": (
        law_key("above_mean = 2"),
        "growth_laws, steel_in_air, rate",
        "one of 'kind', 'tests', 'above_mean'",
    ),
    "unknown key of tests": (
        law_key('tests = { file = "growth_readings.csv", peice = "compact tension" }'),
        "growth_laws, steel_in_air",
        "Did you mean",
    ),
    "a pin and more": (
        plain_crack("hole", 'radius = "3 mm"', 'plate_width = "60 mm"', "pin_share = 1.5"),
        "pin_share",
        "0 to 1",
    ),
    "a pin in an endless plate": (
        plain_crack("hole", 'radius = "3 mm"', "pin_share = 1.0"),
        "pin_share",
        "plate_width",
    ),
    "centre out of the wall": (
        plain_crack("embedded", *PLATE_KEYS, 'centre_depth = "9 mm"'),
        "centre_depth",
        "from the nearer surface",
    ),
    "broken beyond": (plain_crack("embedded", *PLATE_KEYS, "broken_at = 1.1"), "broken_at", "at most 0.95"),
    "shares of stress in MPa": (
        plain_crack(
            "edge, any stress", 'plate_width = "60 mm"', 'stress_profile = [["0 mm", "2 MPa"], ["60 mm", "1 MPa"]]'
        ),
        "stress_profile",
        "number",
    ),
    "residual stress bare": (
        crack_key('residual_stress = [["0 mm", 100], ["1 mm", 0]]'),
        "residual_stress",
        "100 without a unit",
    ),
    "residual stress that ends": (
        crack_key('residual_stress = [["0 mm", "100 MPa"], ["1 mm", "0 MPa"]]'),
        "residual_stress",
        "points to 12 mm",
    ),
    "points bare of a crack": (plain_crack("table", "points = [[1, 1.1], [2, 1.2]]"), "points", "1 without a unit"),
    "gaps in a grid": (
        plain_crack("grid", 'initial_half_length = "2.5 mm"', 'points = [["1 mm", 0.2, 1, 1], ["2 mm", 0.4, 1, 1]]'),
        "points",
        "each depth once with each aspect",
    ),
    "later law from never": (crack_key('later_law = "steel_in_air"'), "later_law_from", "or neither"),
    "unknown order": (('order = "cycle by cycle"', 'order = "sorted"'), "order", "'per repeat'"),
    "retardation at once": (
        (
            f'{TWO_SIZES}law = "steel_in_air"\norder = "cycle by cycle"',
            f'{TWO_SIZES}law = "steel_in_air"\nretardation = "wheeler"',
        ),
        "retardation",
        "'cycle by cycle'",
    ),
    "unknown retardation": (
        (TWO_SIZES, ONE_SIZE.format("edge") + 'retardation = { kind = "memory" }\n'),
        "retardation",
        "one of",
    ),
    "unknown end": (crack_key('beyond_validity = "clamp"'), "beyond_validity", "'refuse'"),
    "unknown limits": (crack_key('limits = "none"'), "limits", "'assessment curve'"),
    "modulus of nothing": (crack_key('youngs_modulus = "0 GPa"'), "youngs_modulus", "above 0"),
    "stop before the start": (crack_key('stop_size = "0.5 mm"'), "stop_size", "beyond the initial 1 mm"),
    "unknown form of law": (law_key('kind = "pariss"'), "kind", "Did you mean 'paris'"),
    "form of an earlier format": (law_key('form = "walker"'), "steel_in_air, form", "Write kind in its place"),
    "value of another form": (law_key("gamma = 0.5"), "steel_in_air, gamma", "an unknown key"),
    "unknown threshold": ((AT_THRESHOLD, 'threshold = { kind = "none" }'), "threshold, kind", "one of"),
    "threshold as a number": ((AT_THRESHOLD, "threshold = 63.0"), "threshold", "63.0 without a unit"),
}  # fmt: skip
