"""Slips in a study: places, cracks, models, and what the error says."""

from tests.study.texts import (
    AT_LAWS,
    AT_THRESHOLD,
    FIRST,
    LAST,
    LAW,
    ORDERED,
    REPEATED,
    ROWS,
    WELD,
    law_key,
    model,
    pair,
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
INNER_EVENT = '[[duty_cycle.events]]\nname = "loaded lap"'
ESTIMATED = (
    'name = "rope"\nchannel = "vertical force"\nexposure = "1 h"\npsd = { history = "loaded_lap.csv", segment = "20 s"'
)
BY_ONE = """channel = "vertical force"
stress_per_load = "24.5 MPa/kN"        # nominal stress beside the weld, from the drawing
"""


def report(text):
    """A table of the report at the end of the file's head."""
    return "# ---- What it is made of", f"[report]\n{text}\n\n# ---- What it is made of"


FAULTS_OF_PLACES = {
    "threshold exponent": (
        (AT_THRESHOLD, 'threshold = { kind = "power of 1 - R", range = "2 MPa√m", exponent = nan }'),
        "exponent",
        "a number",
    ),
    "scatter of nothing": (law_key('scatter = ""'), "scatter", "text with something in it"),
    "unknown law": (
        ('law = "steel_in_air"', 'law = "steel"'),
        "entry 1 (weld toe at the grip head), law",
        "Did you mean",
    ),
    "stresses nowhere": (model("few_nodes.csv", "none.csv"), "model", "no such file"),
    "stress unit twice": (model("[model]", '[model]\nstress_unit = "MPa"'), "stress_unit", "the file says it itself"),
    "length unit twice": (model("[model]", '[model]\nlength_unit = "mm"'), "length_unit", "the file says it itself"),
    "cases twice": (model("[model]", '[model]\ncases = ["pull"]'), "cases", "the file says it itself"),
    "unknown measure": (model("[model]", '[model]\nmeasure = "signed Treska"'), "model", "Did you mean"),
    "cases ignored": (model("[model]", '[model]\nignore_cases = ["push"]'), "ignore_cases", "no load case 'push'"),
    "left out": (model("[model]", '[model]\nleave_out = ["no set"]'), "leave_out", "none: this field has no set"),
    "R of the tests": (law_key("valid_r = [0.5, 0.1]"), "valid_r", "a lower and a higher R"),
    "apart bare": (model("[model]", "[model]\napart = 5"), "apart", "without a unit"),
    "unknown case": (model('"pull"', '"pul"'), "model", "Did you mean 'pull'"),
    "no load cases": (
        model('{ case = "pull", channel = "vertical force", unit_load = "10 kN" }', ""),
        "model, loads",
        "no load case with a history",
    ),
    "unit load in MPa": (model("10 kN", "10 MPa"), "model", "force"),
    "case loaded twice": (model('"10 kN"', '"10 kN", constant = 1.0'), "load_cases", "or constant"),
    "factor of no event": (model('"10 kN"', '"10 kN", event_factors = { lap = 2.0 }'), "model", "an event"),
    "empty box": (
        model("[model]", '[model]\nsets = { tip = { x = ["50 mm", "60 mm"] } }'),
        "model",
        "no nodes in the box",
    ),
    "box upside down": (
        model("[model]", '[model]\nsets = { tip = { y = ["5 mm", "1 mm"] } }'),
        "model",
        "lower to a higher",
    ),
    "half a box": (model("[model]", '[model]\nsets = { tip = { z = ["5 mm"] } }'), "z", "at least 2"),
    "worst of elements": (model("[model]", '[model]\nelement_values = "worst"'), "element_values", "'each element'"),
    "order of a table": (
        model("[model]", '[model]\ncomponent_order = "xx, yy, zz, xy, xz, yz"'),
        "component_order",
        "the file says it itself",
    ),
    "no face": (model("[model]", '[model]\nface = "top"'), "model: stress field", "it has no faces"),
    "modes without a file of factors": (
        model("[model]", '[model]\nmodes = { inputs = { base = "z" }, damping_ratio = 0.02 }'),
        "model, modes, participation_file",
        "both inputs and participation_file",
    ),
    "modes both ways": (
        model("[model]", '[model]\nmodes = { inputs = { base = "z" }, participation_file = "a", participation = { b = [1] } }'),
        "model, modes, participation",
        "both ways",
    ),
    "steady state without lines": (
        model("[model]", '[model]\nsteady_state = { channel = "base", per = "1 g" }'),
        "model",
        "constant cases only",
    ),
    "modes and steady state": (
        model(
            "[model]",
            '[model]\nsteady_state = { channel = "base", per = "1 g" }\n'
            'modes = { natural_frequency = ["9 Hz"], participation = { base = [1] } }',
        ),
        "steady_state",
        "one of both",
    ),
    "a channel beside modes": (
        model("[model]", '[model]\nmodes = { natural_frequency = ["9 Hz"], participation = { base = [1] } }'),
        "model",
        "constant cases only",
    ),
    "no deck": (model("[model]", '[model]\nsets_from = "none.inp"'), "model", "no such file"),
    "unknown region": (
        model("[model]", '[model]\nregions = [{ set = "tip", sn_curve = "pin_bore" }]'),
        "model: stress field few_nodes.csv, node set",
        "no set",
    ),
    "region of a rule": (
        model("[model]", '[model]\nregions = [{ set = "tip", mean_stress = "goodmen" }]'),
        "model, regions, entry 1",
        "Did you mean 'goodman'",
    ),
    "region twice": (
        model("[model]", '[model]\nregions = [{ set = "tip" }, { set = "tip" }]'),
        "model, regions",
        "a name twice",
    ),
    "sequence of forces": (
        model("[model]", '[model]\nsequences = [{ channel = "vertical force", cases = ["pull"] }]'),
        "model, load case pull",
        "two loads",
    ),
    "sequence of nothing": (
        model("[model]", '[model]\nsequences = [{ channel = "step", cases = [] }]'),
        "sequences",
        "at least one",
    ),
    "flat direction": (model("[model]", "[model]\ndirection = [1, 0]"), "direction", "at least 3"),
    "path of two kinds": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", surface = ["0 mm", "0 mm", "0 mm"], other = ["1 mm", "0 mm", "0 mm"], nodes = [1]}]',
        ),
        "paths, entry 1",
        "one way to find it",
    ),
    "path of no kind": (model("[model]", '[model]\npaths = [{ name = "a" }]'), "paths, entry 1", "one way to find it"),
    "bare toe": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", rule = "5 and 15 mm", toe = [0, 0, 0], along = [1, 0, 0], thickness = "8 mm" }]',
        ),
        "toe",
        "without a unit",
    ),
    "path in no model": (
        model(
            "[model]",
            '[model]\npaths = [{ name = "a", rule = "5 and 15 mm", toe = ["0 mm", "0 mm", "0 mm"], along = [1, 0, 0] }]',
        ),
        "model: stress field few_nodes.csv",
        "no elements with a shape",
    ),
    "unknown part": (('counted_part = "tensile"', 'counted_part = "open"'), "counted_part", "'full'"),
    "inspection factor": (("inspection_factor = 3", "inspection_factor = 0.3"), "inspection_factor", "at least 1"),
    "no toughness": (('toughness = "75 MPa√m"', "#"), "cracks, entry 1", "no toughness"),
    "same spot twice": (
        ('name = "bend of the tube"', 'name = "weld toe at the grip head"'),
        "entry 3",
        "a different name",
    ),
    "same event twice": (('name = "empty lap"', 'name = "loaded lap"'), "duty_cycle", "the same name twice"),
    "repeat without a name": (('repeat = "month"', 'repeat = ""'), "duty_cycle, repeat", "text with something in it"),
    "event without a name": (('name = "empty lap"', 'name = ""'), "duty_cycle, events, entry 2, name", "text with"),
    "rate in seconds": (
        (FIRST, FIRST + 'sample_rate = "0.01 s"\n'),
        "(loaded lap): loaded_lap.csv, sample rate",
        "not one of frequency",
    ),
    "rate against time": (
        (FIRST, FIRST + 'sample_rate = "50 Hz"\n'),
        "(loaded lap): loaded_lap.csv",
        "stated sample rate",
    ),
    "block in MPa": ((LAST, BLOCK.replace("3 kN", "3 MPa")), "hot_spots, entry 1", "different dimensions"),
    "block without unit": ((LAST, BLOCK.replace("3 kN", "3")), "channel vertical force", "a load without a unit"),
    "block with both": (
        (LAST, BLOCK.replace("cycles", 'range = "6 kN"\ncycles')),
        "entry 4 (acceptance test)",
        "exactly one of history",
    ),
    "block without range": (
        (LAST, BLOCK.replace("amplitude", "#")),
        "entry 4 (acceptance test)",
        "exactly one of history",
    ),
    "block of range 0": (
        (LAST, BLOCK.replace("amplitude", "range").replace("3 kN", "0 kN")),
        "acceptance test), range",
        "above 0",
    ),
    "block at R = 1": ((LAST, BLOCK.replace("= 0.0\n", "= 1.0\n")), "acceptance test), r_ratio", "other than 1"),
    "block without cycles": ((LAST, BLOCK.replace("cycles = 10", "cycles = 0")), "acceptance test), cycles", "above 0"),
    "block in seconds": ((LAST, BLOCK.replace("0.2 Hz", "5 s")), "acceptance test), frequency", "not one of frequency"),
    "block elsewhere": (
        (LAST, BLOCK.replace("vertical force", "sway")),
        "event acceptance test",
        "what the load on this channel is",
    ),
    "source as number": (
        ('source = "made up, in', "source = 5 # "),
        "sn_curves, fillet_weld, source",
        "text in quotes",
    ),
    "knee in force": (
        ('knee_stress = "52.3 MPa"', 'knee_stress = "52.3 N"'),
        "fillet_weld, knee_stress",
        "not one of stress",
    ),
    "knee as number": (
        ('knee_stress = "52.3 MPa"', "knee_stress = 52.3"),
        "fillet_weld, knee_stress",
        "without a unit",
    ),
    "knee life as text": (("knee_life = 5e6", 'knee_life = "5e6"'), "fillet_weld, knee_life", "a number"),
    "unknown card": (('ultimate_strength = "780 MPa"', 'card = "tempered-800"'), "pin_steel", "Did you mean"),
    "folder of cards": (('target_life = "30 years"', 'cards = "nowhere"'), "cards", "no such folder"),
    "card and numbers": (
        ('threshold = "2 MPa√m"', 'card = "structural-steel-355"'),
        "growth_laws, steel_in_air, rate",
        "one of 'kind', 'card'",
    ),
    "law of a card": ((LAW, 'card = "structural-steel-355"\nlaw = "sea"'), "growth_laws, steel_in_air", "one of 'air'"),
    "family of one": (pair('curves = ["tube"]'), "sn_families, pair, curves", "at least"),
    "family of strangers": (pair('curves = ["tube", "tubes"]'), "sn_families, pair, curves", "Did you mean 'tube'"),
    "family beyond": (
        pair('curves = ["tube", "pin_bore"]\nbeyond_highest = "extend"\nbeyond_lowest = "hold"'),
        "sn_families, pair, beyond_highest",
        "'refuse', 'hold'",
    ),
    "family of one R": (pair('curves = ["tube", "pin_bore"]'), "sn_families, pair", "two curves at R = -1"),
    "two forms of a curve": (("knee_life = 5e6", 'knee_life = 5e6\ncard = "steel"'), "fillet_weld", "keep one"),
    "tests upside down": (
        ("knee_life = 5e6", "knee_life = 5e6\ntested_from = 1e6\ntested_to = 1e5"),
        "tested",
        "that rises",
    ),
    "survival in percent": (
        ("knee_life = 5e6", "knee_life = 5e6\nsurvival_probability = 97.7"),
        "survival_probab",
        "between 0",
    ),
    "law at R = 1": (('threshold = "2 MPa√m"', "r_ratio = 1.0 #"), "growth_laws, steel_in_air, r_ratio", "below 1"),
    "unknown order of events": (
        (REPEATED, REPEATED + 'between = "in order"\n'),
        "duty_cycle, between",
        "'in the order given'",
    ),
    "order of part events": ((REPEATED, REPEATED + ORDERED + "occurrences = 0.5\n#"), "duty_cycle", "a whole number"),
    "history with cycles": ((FIRST, FIRST + "cycles = 3\n"), "(loaded lap)", "goes with another kind"),
    "block of a history": ((FIRST, FIRST + "block = 2\n"), "(loaded lap)", "goes with another kind"),
    "reader without setting": (
        (FIRST, FIRST + 'read = { sheet = "a" }\n'),
        "(loaded lap): loaded_lap.csv",
        "text files do not have",
    ),
    "repair unknown": (
        (FIRST, FIRST + 'repairs = [{ step = "smooth" }]\n'),
        "(loaded lap), repairs, step",
        "one of 'cut'",
    ),
    "repair misspelt": (
        (FIRST, FIRST + 'repairs = [{ step = "cut", ende = "3 s" }]\n'),
        "(loaded lap), repairs, cut, ende",
        "Did you mean 'end'",
    ),
    "gate without unit": (
        (FIRST, FIRST + 'gate = { "vertical force" = "0.05" }\n'),
        "(loaded lap), gate, vertical force",
        "without a unit",
    ),
    "gate elsewhere": ((FIRST, FIRST + 'gate = { "sway" = "0.05 kN" }\n'), "(loaded lap)", "no channel 'sway'"),
    "programme nowhere": ((LAST, ROWS.format('programme = "none.csv"')), "(rows): ", "no such file"),
    "programme without unit": (
        (LAST, ROWS.format("programme = { level = [3.0], cycles = [1] }")),
        "(rows), unit",
        'unit = "kN"',
    ),
    "programme upside down": ((LAST, ROWS.format(UPSIDE_DOWN)), "(rows), row 1", "a maximum below the minimum"),
    "spectrum out of order": ((LAST, ROWS.format(RISING)), "(rows), row 2", "ranges that fall"),
    "spectrum of gaps": (
        (LAST, ROWS.format('spectrum = { unit = "kN", range = [3.0] }')),
        "(rows)",
        "a column 'cycles'",
    ),
    "states nobody feels": (
        (LAST, ROWS.format("states = { wind = [0, 1] }\ncycles = 3").replace('channel = "vertical force"\n', "")),
        "event rows",
        "no channel 'vertical force'",
    ),
    "programme without channel": (
        (LAST, ROWS.replace("channel", "#").format('programme = "x.csv"')),
        "(rows)",
        "the key 'channel'",
    ),
    "an empty inner duty cycle": (
        (LAST, ROWS.replace("channel", "#").format("events = []")),
        "entry 4 (rows)",
        "at least one",
    ),
    "a fault in an inner event": (
        (LAST, ROWS.replace("channel", "#").format(INNER)),
        "events, entry 1 (lap), history",
        "text in quotes",
    ),
    "no way for loads": (
        (BY_ONE, ""),
        f"{WELD}, stress_per_load",
        "one of 'stress_per_load', 'unit_stresses', 'rosette'",
    ),
    "a channel that is in the tensor": (
        (BY_ONE, 'channel = "torque"\nunit_stresses = []\n'),
        f"{WELD}, channel",
        "unit_stresses alone",
    ),
    "a component in force": (
        (BY_ONE, 'unit_stresses = [{ channel = "vertical force", unit_load = "1 kN", xx = "3 kN" }]\n'),
        f"{WELD}, unit_stresses, entry 1, xx",
        "not one of stress",
    ),
    "misspelt component": (
        (BY_ONE, 'unit_stresses = [{ channel = "vertical force", unit_load = "1 kN", xz = "3 MPa", zx = "1 MPa" }]\n'),
        f"{WELD}, unit_stresses, entry 1, xz",
        "an unknown key",
    ),
    "constant stress alone": (
        (BY_ONE, f'{BY_ONE}constant_stress = {{ xx = "3 MPa" }}\n'),
        f"{WELD}, constant_stress",
        "unit_stresses beside it",
    ),
    "a measure of one stress": ((BY_ONE, f'{BY_ONE}measure = "signed Tresca"\n'), f"{WELD}, measure", "a rosette"),
    "two channels of a rosette": (
        (BY_ONE, 'rosette = { channels = ["a", "b"], youngs_modulus = "206 GPa" }\n'),
        f"{WELD}, rosette, channels",
        "3",
    ),
    "directions of a rosette": (
        (BY_ONE, 'rosette = { channels = ["a", "b", "c"], directions = "0/90", youngs_modulus = "206 GPa" }\n'),
        WELD,
        "0/60/120",
    ),
    "poissons_ratio in percent": (
        (BY_ONE, 'rosette = { channels = ["a", "b", "c"], youngs_modulus = "206 GPa", poissons_ratio = 30.0 }\n'),
        WELD,
        "at most 0.5",
    ),
    "a method that is not there": (
        ('sn_curve = "fillet_weld"\nmean', 'method = "welds"\nmean'),
        f"{WELD}, mean_stress",
        "beside",
    ),
    "an unknown method": (
        ('sn_curve = "fillet_weld"\nmean_stress = "none"\n', 'method = "welds"\n'),
        f"{WELD}, method",
        "a name under methods",
    ),
    "a method without curve": (
        (AT_LAWS, f'[methods.welds]\nmean_stress = "none"\n\n{AT_LAWS}'),
        "methods, welds, sn_curve",
        "the key",
    ),
    "a method of an unknown kind": (
        (AT_LAWS, f'[methods.welds]\nkind = "stress live"\nsn_curve = "tube"\n\n{AT_LAWS}'),
        "methods, welds, kind",
        "Did you mean 'stress life'",
    ),
    "an unknown count": (
        ('residue = "repeated"', 'residue = "repeated"\ncounting = "rainflo"'),
        "duty_cycle, counting",
        "Did you mean 'rainflow'",
    ),
    "an unknown formula": (
        ('residue = "repeated"', 'residue = "repeated"\nexpected_cycles = "dirlick"'),
        "duty_cycle, expected_cycles",
        "Did you mean 'dirlik'",
    ),
    "a slope that is not asked for": (
        ('residue = "repeated"', 'residue = "repeated"\nexpected_slope = 3'),
        "duty_cycle, expected_slope",
        "no slope",
    ),
    "responses beside a stress per load": (
        ("notch_factor = 1.0 ", 'responses = { "vertical force" = "3 MPa/kN" }\nnotch_factor = 1.0 '),
        f"{WELD}, responses",
        "one of",
    ),
    "a PSD of a history with an unknown window": (
        (INNER_EVENT, f'[[duty_cycle.events]]\n{ESTIMATED}, window = "hanning" }}\n{INNER_EVENT}'),
        "window",
        "Did you mean 'hann'",
    ),
    "a PSD of a history with an overlap of all": (
        (INNER_EVENT, f"[[duty_cycle.events]]\n{ESTIMATED}, overlap = 1.0 }}\n{INNER_EVENT}"),
        "overlap",
        "from 0 to below 1",
    ),
    "modes with five components": (
        (BY_ONE, 'modes = { natural_frequency = ["70 Hz"], participation = { base = [1] }, modal_stress = [[1, 2, 3, 4, 5]] }\n'),
        "modes, modal_stress",
        "at least 6",
    ),
    "modes without participation": (
        (BY_ONE, 'modes = { natural_frequency = ["70 Hz"], modal_stress = [[1, 2, 3, 4, 5, 6]] }\n'),
        "modes, participation",
        "the key",
    ),
    "two words for the damping of modes": (
        (
            BY_ONE,
            'modes = { natural_frequency = ["70 Hz"], participation = { base = [1] }, '
            "modal_stress = [[1, 2, 3, 4, 5, 6]], quality_factor = 25, loss_factor = 0.04 }\n",
        ),
        "modes",
        "one word for the damping",
    ),
    "a participation too few": (
        (
            BY_ONE,
            'modes = { natural_frequency = ["70 Hz", "90 Hz"], participation = { base = [1] }, '
            'modal_stress = [[1, 2, 3, 4, 5, 6], [1, 2, 3, 4, 5, 6]], damping_ratio = 0.02 }\n',
        ),
        "participation, base",
        "one for each mode",
    ),
    "a report in no language": (report('language = "xx"'), "report, language", "one of"),
    "a report with an unknown section": (report('sections = ["answr"]'), "report, sections", "Did you mean 'answer'"),
    "a report without any section": (report('sections = []'), "report, leave_out", "one section that stays"),
    "a report that leaves out what it chooses": (
        report('sections = ["answer"]\nleave_out = ["findings"]'),
        "report, leave_out",
        "one of both",
    ),
    "a logo that is not there": (report('logo = "none.png"'), "report, logo", "a file that is there"),
    "a template that is not there": (report('html_template = "none.html"'), "report, html_template", "a file that is there"),
    "pictures that move": (report('pictures = "moving"'), "report, pictures", "one of"),
    "a document that is not there": (report('word_template = "none.docx"'), "report, word_template", "a file that is there"),
    "a date of a report as a word": (report('date = "soon"'), "report, date", "date"),
    "a project by its number": (report("project = 7"), "report, project", "text"),
    "a number of a report as a number": (report("number = 31"), "report, number", "text"),
    "a revision as a number": (report("revision = 2"), "report, revision", "text"),
    "an author as a list": (report('author = ["a"]'), "report, author", "text"),
    "a checker as a list": (report('checker = ["a"]'), "report, checker", "text"),
    "not TOML": (("format = 2", "format: 2"), "study.toml", "not TOML"),
}  # fmt: skip
