"""The demo study with texts put in, out or in place of others."""

import functools
import shutil

import pytest

from vivid_anvil.models import StressField, write_field_table

# The curves written by their numbers, in place of the demo's, which come from a class, an estimate and tests.
WRITTEN = """
[sn_curves.fillet_weld]
stress = "range"                       # the curve's stress is maximum - minimum
r_ratio = "any"
knee_stress = "52.3 MPa"
knee_life = 5e6
slope = 3
slope_below = 5                        # m below the knee
source = "made up, in the manner of a weld class"

[sn_curves.pin_bore]
stress = "amplitude"
r_ratio = -1                           # tested fully reversed
knee_stress = "300 MPa"
knee_life = 1e6
slope = 7
slope_below = 13

[sn_curves.tube]
stress = "amplitude"
r_ratio = -1
knee_stress = "190 MPa"
knee_life = 2e6
slope = 6
slope_below = inf

"""


def few_nodes():
    stresses = [[[10.0, 0, 0, 0, 0, 0], [60.0, 0, 0, 0, 0, 0], [0.0, 0, 0, 5.0, 0, 0]]]
    places = [[0.0, 0, 0], [4.0, 0, 0], [9.0, 2, 0]]
    return StressField(cases=["pull"], node_ids=[1, 2, 5], coordinates=places, stresses=stresses)


def changed_study(demo, folder, *replacements):
    """The demo study with curves by their numbers and texts replaced, written into `folder`; its path."""
    text = demo.read_text()
    start, end = text.index("[sn_curves.fillet_weld]"), text.index("[growth_laws.steel_in_air]")
    text = text[:start] + WRITTEN + text[end:]
    text = text[: text.index("[growth_laws.steel_in_air.tests]")] + text[text.index("# ---- What its hot spots feel") :]
    for old, new in replacements:
        assert old in text, old
        text = text.replace(old, new, 1)
    path = folder / "study.toml"
    path.write_text(text)
    return path


STRAIN_HEAD = ",xx [-],yy [-],zz [-],xy [-],yz [-],zx [-]\n"
STRAIN_FILES = {
    "edge.csv": "vertical force [kN]" + STRAIN_HEAD + "-9,-0.1,0.05,0.06,0,0,0\n20,0.3,-0.13,-0.11,0.02,0,0\n",
    "plane.csv": "state,xx [-],yy [-],xy [-]\n1,0.3,-0.1,0\n",
    "torn.csv": "state" + STRAIN_HEAD + "1,-1.2,0.1,0.1,0,0,0\n",
    "state.csv": "state" + STRAIN_HEAD + "1,0.3,-0.13,-0.11,0,0,0\n",
    "bare.csv": "state,xx,yy [-],zz [-],xy [-],yz [-],zx [-]\n1,0.3,-0.1,-0.1,0,0,0\n",
    "rubber.csv": "node,x [mm],y [mm],z [mm],xx [%],yy [%],zz [%],xy [%],yz [%],zx [%],load case\n"
    + "".join(f"{node},{node},0,0,{20 * node},-8,-8,0,0,0,one\n" for node in (1, 2)),
    "sheet.csv": "mode,stretch,nominal stress [MPa]\nsimple,1.2,0.38\nsimple,1.8,1.0\n",
    "strip.csv": "height [mm],stretch,growth rate [mm/cycle]\n12,1.4,2e-5\n12,1.6,5e-5\n12,1.8,1.1e-4\n",
    "lives.csv": "stretch,cycles\n1.8,2e5\n2,9e4\n",
}


@pytest.fixture
def study(demo_file, tmp_path):
    """A function: the demo study with a text replaced, in a folder of its own; its path."""
    for name in ("loaded_lap.csv", "empty_lap.csv", "emergency_stop.csv", "growth_readings.csv"):
        shutil.copy(demo_file.parent / name, tmp_path)
    write_field_table(few_nodes(), tmp_path / "few_nodes.csv")
    for name, rows in STRAIN_FILES.items():
        (tmp_path / name).write_text(rows)
    return functools.partial(changed_study, demo_file, tmp_path)


WELD = "hot_spots, entry 1 (weld toe at the grip head)"
LAST = "# ---- What it is made of"
AT_LAWS = "[growth_laws.steel_in_air]\n"
LAW = """rate = "1.65e-11 m/cycle at 1 MPa√m"   # da/dN at one stress intensity range; any pair of units
slope = 3                              # m of da/dN = C ΔK^m
threshold = "2 MPa√m"                  # no growth at or below
source = "BS 7910, simplified law for steels in air: 5.21e-13 mm/cycle at 1 MPa√mm; threshold 63 MPa√mm"
"""
TWO_SIZES = """shape = "surface"                      # half an ellipse on the surface; or "edge", "centre", "corner", "hole", ...
thickness = "12 mm"
plate_width = "150 mm"
attachment_length = "20 mm"            # grip plate with its welds: K is raised near the weld toe
initial_size = "1 mm"                  # depth that the weld inspection may have missed
initial_half_length = "2.5 mm"         # half of its length
"""
ONE_SIZE = 'shape = "{}"\nplate_width = "60 mm"\ninitial_size = "1 mm"\n'
PLATE_KEYS = ('thickness = "12 mm"', 'plate_width = "150 mm"', 'initial_half_length = "2.5 mm"')
MODEL = """[model]
stresses = "few_nodes.csv"
material = "plate_steel"
sn_curve = "fillet_weld"
load_cases = [{ case = "pull", channel = "vertical force", unit_load = "10 kN" }]
"""


def model(old="", new=""):
    """A model put into the study, changed."""
    assert old in MODEL
    return AT_LAWS, MODEL.replace(old, new, 1) + "\n" + AT_LAWS


def crack_key(text):
    """A key put into the crack of the study."""
    return TWO_SIZES, f"{TWO_SIZES}{text}\n"


def plain_crack(shape, *keys):
    """The crack of the study with another shape and its keys."""
    return TWO_SIZES, "\n".join([f'shape = "{shape}"', 'initial_size = "1 mm"', *keys, ""])


def law_key(text):
    """A key put into the growth law."""
    return AT_LAWS, f"{AT_LAWS}{text}\n"


def pair(text):
    """A family put into the study."""
    return AT_LAWS, f"[sn_families.pair]\n{text}\n\n{AT_LAWS}"


FIRST = 'name = "loaded lap"\n'
REPEATED = "repeats_per_year = 12\n"
ORDERED = 'between = "in the order given"\n[[duty_cycle.events]]\nname = "half"\nhistory = "loaded_lap.csv"\n'
ROWS = """
[[duty_cycle.events]]
name = "rows"
occurrences = 1
channel = "vertical force"
{}

# ---- What it is made of"""


PLATE = ('thickness = "12 mm"', 'plate_width = "150 mm"', 'initial_half_length = "2.5 mm"')
SHAPES = {
    "edge": ('plate_width = "60 mm"', "bending_share = 0.4"),
    "edge, any stress": ('plate_width = "60 mm"', 'stress_profile = [["0 mm", 2.1], ["4 mm", 1.0], ["60 mm", 0.9]]'),
    "surface, any stress": (*PLATE, 'stress_profile = [["0 mm", 1.5], ["12 mm", 0.5]]'),
    "grid": (
        'initial_half_length = "2.5 mm"',
        'points = [["0.5 mm", 0.1, 1.1, 0.6], ["0.5 mm", 1.2, 0.7, 0.8], ["9 mm", 0.1, 1.3, 0.8], ["9 mm", 1.2, 0.8, 0.9]]',
    ),
    "centre": ('plate_width = "60 mm"',),
    "double edge": ('plate_width = "60 mm"',),
    "hole": ('radius = "3 mm"', "cracks = 1", 'plate_width = "60 mm"', "pin_share = 0.5"),
    "pipe, around": ('radius = "50 mm"', 'wall = "5 mm"', "bending_share = 0.5"),
    "pipe, along": ('radius = "50 mm"', 'wall = "5 mm"'),
    "round bar": ('diameter = "30 mm"',),
    "round bar, surface": ('diameter = "30 mm"', "bending_share = 0.2"),
    "table": ('points = [["0.5 mm", 1.12], ["2 mm", 1.2], ["5 mm", 1.45], ["12 mm", 2.3]]',),
    "corner": PLATE,
    "hole, corner": (*PLATE, 'radius = "8 mm"', "cracks = 1"),
    "embedded": (*PLATE, 'centre_depth = "4 mm"', "broken_at = 0.7"),
    "vessel, inside": ('thickness = "12 mm"', 'radius = "100 mm"', 'initial_half_length = "2.5 mm"'),
    "pipe, around, surface": ('radius = "200 mm"', 'wall = "12 mm"', 'initial_half_length = "2.5 mm"'),
}
AT_ONCE = ('order = "cycle by cycle"', 'order = "per repeat"')
AT_THRESHOLD = 'threshold = "2 MPa√m"                  # no growth at or below'
LAWS = {
    "walker": law_key('kind = "walker"\ngamma = 0.6'),
    "two-stage": law_key('kind = "two-stage"\nrate_2 = "5e-13 with mm/cycle and MPa√mm"\nslope_2 = 2.9'),
    "effective range": law_key('kind = "effective range"\nopen_0 = 0.5\nopen_1 = 0.4\nopen_2 = 0.0'),
    "threshold over R": (AT_THRESHOLD, 'threshold = { kind = "power of 1 - R", range = "2 MPa√m", exponent = 0.5 }'),
    "steps": (AT_THRESHOLD, 'threshold = { kind = "steel, steps" }\nscatter = "mean + 2 standard deviations"'),
}
