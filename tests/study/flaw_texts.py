"""A study of flaws alone, small enough to be run often, with texts put in place of others; its slips and what is said of them."""

TEXT = """
format = 2
title = "welds of a tower"

[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"
toughness = "85 MPa√m"

[growth_laws.air]
rate = "5.21e-13 mm/cycle at 1 MPa√mm"
slope = 3.0

[flaws]
indications = [
    { name = "A1", kind = "surface", length = "24 mm", height = "5 mm", place = "plate", stress = "storm" },
    { name = "A2", kind = "through", length = "30 mm", place = "plate", stress = "storm" },
]
inspected = 2026-10-05
inspection_factor = 2
target_life = "5 years"

[flaws.places.plate]
form = "plate"
wall = "25 mm"
width = "300 mm"
material = "steel"

[[flaws.places.plate.stages]]
name = "service"
law = "air"
ranges = [["60 MPa", "20 MPa", 1e4], ["30 MPa", 1e5]]

[flaws.stresses.storm]
primary = [{ kind = "stresses", membrane = "120 MPa" }]
secondary = [{ kind = "stresses", membrane = "40 MPa" }]
"""
CONTOURS = (
    "angle [deg],"
    + ",".join(f"K_I contour {i} [MPa√m]" for i in (1, 2, 3))
    + ("\n0,30,33.2,33.3\n45,31,35.1,35.2\n90,30,32.0,32.1\n")
)
ROWS = TEXT[TEXT.index("indications = [") : TEXT.index("inspected")]
STAGE = 'ranges = [["60 MPa", "20 MPa", 1e4], ["30 MPa", 1e5]]'
MATERIAL = 'width = "300 mm"\nmaterial = "steel"'
PRIMARY = '{ kind = "stresses", membrane = "120 MPa" }'
SECONDARY = '{ kind = "stresses", membrane = "40 MPa" }'
FRONT = "[flaws.stresses.storm]"
PLACE = "flaws, places, plate"


def row(**changes):
    """The first indication with keys changed; None takes one out."""
    keys = {"name": "A1", "kind": "surface", "length": "24 mm", "height": "5 mm", "place": "plate", "stress": "storm"}
    kept = {key: value for key, value in (keys | changes).items() if value is not None}
    told = ", ".join(
        f"{key} = {value if not isinstance(value, str) else chr(34) + value + chr(34)}" for key, value in kept.items()
    )
    return ROWS, f"indications = [{{ {told} }}]\n"


def tough(**keys):
    """A toughness in a place."""
    told = ", ".join(
        f"{key} = {value if not isinstance(value, str) else chr(34) + value + chr(34)}" for key, value in keys.items()
    )
    return MATERIAL, f"{MATERIAL}\ntoughness = {{ {told} }}"


def primary(**keys):
    told = ", ".join(
        f"{key} = {value if not isinstance(value, str) else chr(34) + value + chr(34)}" for key, value in keys.items()
    )
    return PRIMARY, f"{{ {told} }}"


def secondary(**keys):
    return SECONDARY, primary(**keys)[1]


def place(text):
    return MATERIAL, f"{MATERIAL}\n{text}"


def front(**changes):
    keys = {"file": "front.csv", "place": "plate", "reference_stress": "180 MPa"} | changes
    told = "\n".join(
        f"{key} = {value if not isinstance(value, str) else chr(34) + value + chr(34)}" for key, value in keys.items()
    )
    return FRONT, f"[flaws.fronts.toe]\n{told}\n\n{FRONT}"


HEAT = {"kind": "heat treated", "stress_acts": "across the weld"}
MASTER = {"kind": "master curve", "reference_temperature": "-60 °C"}
CURVE = {"kind": "resistance curve", "j_at_1_mm": "135 kJ/m^2", "exponent": 0.4, "largest_tearing": "2 mm"}
PRESSURE = {"kind": "pressure", "pressure": "2 MPa", "inner_radius": "500 mm", "wall": "25 mm", "direction": "around"}
OF_ALL = {"kind": "stresses", "membrane": "118 MPa"}

# What is replaced by what, where the fault is, what is said of it.
FAULTS_OF_FLAWS = {
    "no indications": ((ROWS, ""), "flaws, indications", "a file or rows"),
    "a list that is not there": ((ROWS, 'indications = "none.csv"\n'), "flaws, indications", "no such file"),
    "a sheet of rows": ((ROWS, f'{ROWS}sheet = "run 1"\n'), "flaws, sheet", "without a file"),
    "a factor below 1": (("inspection_factor = 2", "inspection_factor = 0.5"), "flaws, inspection_factor", "1 or more"),
    "a date as text": (("2026-10-05", '"last week"'), "flaws, inspected", "date"),
    "a target in months of Sundays": (("5 years", "5 moons"), "flaws, target_life", "'10 years'"),
    "no stresses": ((TEXT[TEXT.index("[flaws.stresses") :], ""), "flaws, stresses", "none"),
    "no places": (
        (TEXT[TEXT.index("[flaws.places") : TEXT.index("[flaws.stresses")], "[flaws.places]\n"),
        "flaws, places",
        "at least one",
    ),
    "no name": (row(name=None), "flaws, indications", "the key"),
    "an unknown kind": (row(kind="surfase"), "indications", "Did you mean 'surface'"),
    "a length without unit": (row(length=24.0), "length", "without a unit"),
    "a height above the wall": (row(height="26 mm"), "A1", "less than the wall"),
    "a surface flaw without height": (row(height=None), "height", "a height of a surface flaw"),
    "a ligament of a surface flaw": (row(ligament="2 mm"), "ligament", "no ligament"),
    "a negative ligament": (row(kind="embedded", ligament="-2 mm"), "ligament", "at least 0 mm"),
    "an angle along the stress": (row(angle=180.0), "angle", "between 0 and 180"),
    "a position without unit": (row(position=120.0), "position", "without a unit"),
    "an unknown weld": (row(weld="as wlded"), "weld", "Did you mean 'as welded'"),
    "a place that is not there": (row(place="plaet"), "place", "Did you mean 'plate'"),
    "stresses that are not there": (row(stress="strom"), "stress", "Did you mean 'storm'"),
    "two of one name": ((ROWS, ROWS.replace('"A2"', '"A1"')), "indications, name", "twice"),
    "another form": (('form = "plate"', 'form = "sheet"'), f"{PLACE}, form", "one of"),
    "a wall in kilograms": (("25 mm", "25 kg"), f"{PLACE}, wall", "unknown unit"),
    "a plate without width": (('width = "300 mm"\n', ""), f"{PLACE}, width", "a width"),
    "a radius of a plate": (place('radius = "2 m"'), f"{PLACE}, radius", "no radius"),
    "an attachment without length": (place('attachment_length = "0 mm"'), f"{PLACE}, attachment_length", "above 0"),
    "a hole in no plate": (
        ('wall = "25 mm"', 'wall = "25 mm"\nhole_radius = "0 mm"'),
        f"{PLACE}, hole_radius",
        "above 0",
    ),
    "a flaw at a hole that is not there": (row(kind="hole", height=None), "indication A1", "the radius of the hole"),
    "another material": (('material = "steel"', 'material = "steal"'), f"{PLACE}, material", "Did you mean 'steel'"),
    "no toughness": (('toughness = "85 MPa√m"\n', ""), PLACE, "toughness"),
    "stiffness as text without unit": (place('youngs_modulus = "210000"'), f"{PLACE}, youngs_modulus", "unit"),
    "a ratio above a half": (place("poissons_ratio = 0.6"), f"{PLACE}, poissons_ratio", "below 0.5"),
    "another curve": (place('curve = "generall"'), f"{PLACE}, curve", "Did you mean 'general'"),
    "a cut-off of 0": (place("cut_off = 0"), f"{PLACE}, cut_off", "above 0"),
    "strains of a general curve": (
        place('stress_strain = [["300 MPa", "0.2 %"], ["520 MPa", "8 %"]]'),
        f"{PLACE}, stress_strain",
        "none here",
    ),
    "engineering strains of a general curve": (place('measured_as = "true"'), f"{PLACE}, measured_as", "none here"),
    "a plateau of a general curve": (place('plateau_strain = "1.5 %"'), f"{PLACE}, plateau_strain", "none here"),
    "a temperature without scale": (place('temperature = "-15"'), f"{PLACE}, temperature", "scale"),
    "a weld weaker than itself": (
        place('weld = { yield_strength = "560 MPa", ultimate_strength = "460 MPa" }'),
        PLACE,
        "above the ultimate strength",
    ),
    "a yield load ratio of nothing": (
        place('weld = { yield_strength = "460 MPa", ultimate_strength = "560 MPa", yield_load_ratio = 3.0 }'),
        PLACE,
        "yield of weld over plates",
    ),
    "a partial factor that helps": (
        place("partial_factors = { load = 0.9 }"),
        f"{PLACE}, partial_factors, load",
        "at least 1",
    ),
    "a factor on size of nothing": (place("partial_factors = { size = 0.0 }"), "partial_factors, size", "at least 1"),
    "a factor on toughness as text": (place('partial_factors = { toughness = "1" }'), "toughness", "number"),
    "a factor on strength of 20": (place("partial_factors = { strength = 20.0 }"), "strength", "below 10"),
    "limits at a temperature that does nothing": (
        place('limits_at = ["-20 °C"]'),
        f"{PLACE}, limits_at",
        "go with temperature",
    ),
    "limits under unknown stresses": (place('limits_under = ["proof"]'), f"{PLACE}, limits_under", "storm"),
    "a leak in mm": (place('leak_area = "20 mm"'), f"{PLACE}, leak_area", "mm^2"),
    "another law": (('law = "air"', 'law = "sea"'), f"{PLACE}, stages", "a name under growth_laws"),
    "no ranges": ((STAGE, ""), f"{PLACE}, stages", "ranges a year"),
    "ranges and a hot spot": ((STAGE, f'{STAGE}\nhot_spot = "toe"'), f"{PLACE}, stages", "ranges beside a hot spot"),
    "a hot spot that is not there": ((STAGE, 'hot_spot = "toe"'), f"{PLACE}, stages", "hot_spots"),
    "a range without unit": ((STAGE, "ranges = [[60, 1e4]]"), "ranges", "without a unit"),
    "a file of ranges that is not there": ((STAGE, 'ranges = "year.csv"'), "stages", "no such file"),
    "a sheet of rows of ranges": ((STAGE, f'{STAGE}\nsheet = "run 1"'), "sheet", "without a file of ranges"),
    "an R of 1": ((STAGE, f"{STAGE}\nr_ratio = 1.0"), "r_ratio", "below 1"),
    "an endless stage before another": (
        (STAGE, f'{STAGE}\n\n[[flaws.places.plate.stages]]\nname = "next"\nlaw = "air"\n{STAGE}'),
        f"{PLACE}, stages",
        "a duration for every stage but the last",
    ),
    "a stage of no time": ((STAGE, f'{STAGE}\nduration = "0 years"'), "duration", "above 0"),
    "no primary stress": (
        (f"primary = [{PRIMARY}]", "primary = []"),
        "flaws, stresses, storm, primary",
        "at least one",
    ),
    "a secondary stress among the primary ones": (primary(kind="as welded"), "primary", "one of"),
    "another interaction": ((SECONDARY, f'{SECONDARY}]\ninteraction = "phi"\nx = ['), "storm", "x"),
    "an unknown interaction": (
        (f"secondary = [{SECONDARY}]", f'secondary = [{SECONDARY}]\ninteraction = "R"'),
        "flaws, stresses, storm",
        "interaction",
    ),
    "a membrane stress without unit": (primary(kind="stresses", membrane=120), "membrane", "without a unit"),
    "a bending stress in mm": (primary(kind="stresses", bending="12 mm"), "bending", "stress"),
    "misalignment below 1": (primary(**OF_ALL, misalignment_factor=0.9), "misalignment_factor", "at least 1"),
    "a concentration below 1": (primary(**OF_ALL, membrane_concentration=0.9), "membrane_concentration", "at least 1"),
    "a concentration of bending of 50": (
        primary(**OF_ALL, bending_concentration=50.0),
        "bending_concentration",
        "below 20",
    ),
    "no pressure": (primary(**PRESSURE | {"pressure": "0 MPa"}), "pressure", "above 0"),
    "a radius of nothing": (primary(**PRESSURE | {"inner_radius": "0 mm"}), "inner_radius", "above 0"),
    "pressure in another direction": (primary(**PRESSURE | {"direction": "up"}), "direction", "'around'"),
    "a flaw inside as text": (primary(**PRESSURE, flaw_inside="yes"), "flaw_inside", "true or false"),
    "a profile that begins inside": (
        (PRIMARY, '{ kind = "profile", points = [["1 mm", "200 MPa"], ["25 mm", "100 MPa"]] }'),
        "points",
        "start at 0 mm",
    ),
    "a profile without units": (
        (PRIMARY, '{ kind = "profile", points = [[0, 200], [25, 100]] }'),
        "points",
        "without a unit",
    ),
    "residual stress of a guess": (secondary(kind="as welded", relaxed="maybe"), "relaxed", "'by the load'"),
    "residual stress of no strength": (
        secondary(kind="as welded", yield_strength="0 MPa"),
        "yield_strength",
        "above 0",
    ),
    "heat treatment in no direction": (secondary(**HEAT | {"stress_acts": "up"}), "stress_acts", "'along the weld'"),
    "heat treatment that leaves more": (secondary(**HEAT, share=1.5), "share", "1"),
    "a weld of no form": (secondary(kind="weld profile", weld="tee"), "weld", "one of"),
    "a secondary stress of another kind": (secondary(kind="stresses", of=3), "of", "text"),
    "toughness of no kind": (tough(kind="KIC"), f"{PLACE}, toughness", "one of"),
    "K of 0": (tough(kind="K", k="0 MPa√m"), f"{PLACE}, toughness, k", "above 0"),
    "J in MPa√m": (tough(kind="J", j="120 MPa√m"), f"{PLACE}, toughness, j", "energy"),
    "CTOD in metres": (tough(kind="CTOD", ctod="0.15 m"), f"{PLACE}, toughness, ctod", "at most 5 mm"),
    "a factor m of 9": (tough(kind="CTOD", ctod="0.15 mm", m=0.0), f"{PLACE}, toughness", "m"),
    "a specimen of no thickness": (
        tough(kind="K", k="80 MPa√m", specimen_thickness="0 mm"),
        "specimen_thickness",
        "above 0",
    ),
    "energy without temperature": (
        tough(kind="Charpy energy", energy="40 J", correlation="upper shelf", tested_at="-20 °C"),
        PLACE,
        "temperature",
    ),
    "energy by another correlation": (
        tough(kind="Charpy energy", energy="40 J", correlation="mine"),
        "correlation",
        "upper shelf",
    ),
    "energy tested at no scale": (
        tough(kind="Charpy energy", energy="40 J", correlation="upper shelf", tested_at="20"),
        "tested_at",
        "scale",
    ),
    "a master curve without temperature": (tough(**MASTER), PLACE, "temperature"),
    "two reference temperatures": (tough(**MASTER, temperature_of_27_joules="-40 °C"), "toughness", "One of both"),
    "a probability of 1": (tough(**MASTER, probability=1.0), "probability", "below"),
    "a margin below 0": (tough(**MASTER, margin=-5.0), "margin", "at least 0"),
    "a reference of no thickness": (tough(**MASTER, reference_thickness="0 mm"), "reference_thickness", "above 0"),
    "no results": (tough(kind="tests", results=[]), "toughness", "results"),
    "an unknown rule for results": (tough(kind="tests", results=["80 MPa√m"], rule="mean"), "rule", "one of"),
    "a curve by both": (
        tough(**CURVE, points=[["0.2 mm", "60 kJ/m^2"], ["1 mm", "135 kJ/m^2"]]),
        "toughness",
        "both or neither",
    ),
    "a curve without exponent": (tough(kind="resistance curve", j_at_1_mm="135 kJ/m^2"), "toughness", "exponent"),
    "an exponent of 1": (tough(**CURVE | {"exponent": 1.0}), "exponent", "below 1"),
    "no tearing": (tough(**CURVE | {"largest_tearing": "0 mm"}), "largest_tearing", "above 0"),
    "initiation beyond the curve": (tough(**CURVE, initiation="3 mm"), "initiation", "a tearing from"),
    "a front that is not there": (front(), "flaws, fronts, toe", "no such file"),
    "a front in no place": (front(place="plaet"), "flaws, fronts, toe, place", "Did you mean 'plate'"),
    "a front without stress": (front(reference_stress="-5 MPa"), "flaws, fronts, toe, reference_stress", "0 or more"),
    "a front by no rule": (front(rule="mine", file="there.csv"), "flaws, fronts, toe", "one of"),
    "a front of no case": (front(case="storm", file="there.csv"), "flaws, fronts, toe", "case"),
    "a sheet of a text file": (front(sheet="run 1", file="there.csv"), "flaws, fronts, toe, sheet", "workbook"),
    "a duty cycle that is missing": (("[flaws]", 'target_life = "30 years"\n\n[flaws]'), "law", "target_life"),
}
