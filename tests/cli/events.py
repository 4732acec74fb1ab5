"""A small study with each kind of event, the files it names, and each command with its options."""

import numpy as np
import openpyxl
import pandas as pd
import pytest

from tests.study.texts import few_nodes
from vivid_anvil.models import write_field_table

HEAD = """format = 2
title = "Bracket"
target_life = "20 years"

[duty_cycle]
repeat = "week"
repeats_per_year = 50
"""
REST = """
[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"
toughness = "75 MPa√m"

[sn_curves.bar]
stress = "amplitude"
r_ratio = -1
knee_stress = "60 MPa"
knee_life = 2e6
slope = 5
slope_below = 9

[growth_laws.air]
rate = "1.65e-11 m/cycle at 1 MPa√m"
slope = 3
threshold = "2 MPa√m"

[[hot_spots]]
name = "toe"
channel = "force"
stress_per_load = "10 MPa/kN"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"

[[cracks]]
hot_spot = "toe"
shape = "edge"
plate_width = "60 mm"
initial_size = "1 mm"
law = "air"
detectable_size = "3 mm"

[model]
stresses = "few_nodes.csv"
material = "steel"
sn_curve = "bar"
mean_stress = "goodman"
load_cases = [{ case = "pull", channel = "force", unit_load = "10 kN" }]
"""
# The same places by local strain, so sharp that they yield.
YIELDING = REST.replace(
    "[sn_curves.bar]",
    """[strain_life_curves.bar]
estimate = "uniform material law"
ultimate_strength = "510 MPa"

[methods.yields]
kind = "local strain"
strain_life = "bar"

[sn_curves.bar]""",
).replace('sn_curve = "bar"\nmean_stress = "goodman"\n', 'notch_factor = 5.0\nmethod = "yields"\n')
# The same places by planes.
ON_PLANES = (
    REST.replace(
        "[growth_laws.air]",
        """[methods.planes]
kind = "critical plane"
sn_curve = "bar"
k = 0.3

[growth_laws.air]""",
    )
    .replace('sn_curve = "bar"\nmean_stress = "goodman"\n', 'method = "planes"\n')
    .replace(
        'channel = "force"\nstress_per_load = "10 MPa/kN"\n',
        'unit_stresses = [{ channel = "force", unit_load = "1 kN", xx = "8 MPa", xy = "5 MPa" }]\n',
    )
)
OTHER_PLANES = {
    "whole paths": ON_PLANES.replace("k = 0.3\n", 'k = 0.3\nshear_amplitude = "circle"\n'),
    "two limits": ON_PLANES.replace(
        "k = 0.3\n",
        'axial_limit = "300 MPa"\ntorsion_limit = "180 MPa"\nrepeated_limit = "240 MPa"\nshear_amplitude = "circle"\n',
    ),
    "free surface": ON_PLANES.replace("k = 0.3\n", 'k = 0.3\nplanes = "free surface"\n'),
}
WELDED = ON_PLANES.replace(
    'kind = "critical plane"\nsn_curve = "bar"\nk = 0.3\n',
    """kind = "weld of two stresses"
sn_curve = "across"
shear_curve = "along"

[sn_curves.across]
standard = "EN 1993-1-9"
class = 80

[sn_curves.along]
standard = "EN 1993-1-9"
class = 80
component = "shear"
""",
)
STRAINS_ON_PLANES = {
    rule: ON_PLANES.replace('kind = "critical plane"\nsn_curve = "bar"\nk = 0.3\n', text).replace(
        "[growth_laws.air]",
        """[strain_life_curves.bar]
estimate = "uniform material law"
group = "steel"
ultimate_strength = "510 MPa"

[growth_laws.air]""",
    )
    for rule, text in (
        ("proportional", 'kind = "strain on planes"\nstrain_life = "bar"\nk = 0.5\n'),
        (
            "incremental",
            'kind = "strain on planes"\nstrain_life = "bar"\ncriterion = "brown-miller"\nplasticity = "incremental"\n',
        ),
    )
}
# The same place and nodes of rubber, whose strains were computed at forces.
IN_RUBBER = """
[materials.steel]
card = "bushing-rubber-60"

[rubbers.bush]
card = "bushing-rubber-60"
temperature = "40 °C"

[methods.tears]
kind = "cracking energy"
rubber = "bush"
surface_normal = [0, 0, 1]

[[hot_spots]]
name = "toe"
material = "steel"
method = "tears"
strain_states = [{ file = "edge.csv", measure = "right stretch" }]

[model]
material = "steel"
method = "tears"
strain_states = [{ file = "rubber.csv", measure = "nominal", channel = "force", at = ["-4 kN", "4 kN", "12 kN"] }]
"""
# The same place and nodes of a laminate, whose forces and moments per width were computed at a force.
IN_PLIES = """
[plies.glass]
card = "glass-epoxy-ply"

[laminates.plate]
layup = "[0/90]s"
ply = "glass"
ply_thickness = "0.5 mm"
temperature_change = "-20 K"

[methods.plies]
kind = "ply fatigue"
laminate = "plate"
jump_error = 0.01

[[hot_spots]]
name = "toe"
method = "plies"
section_loads = [{ channel = "force", unit_load = "10 kN", nx = "70 N/mm", mx = "12 N*mm/mm", qx = "1 N/mm" }]

[model]
section_loads = "shells.csv"
method = "plies"
load_cases = [{ case = "pull", channel = "force", unit_load = "10 kN" }]
"""
EVENT = '[[duty_cycle.events]]\nname = "{}"\noccurrences = {}\n'
CHANNEL = 'channel = "force"\n'
LAP_EVENT = EVENT.format("lap", 300) + 'history = "lap.csv"\n'
EVENTS = {
    "history": EVENT.format("lap", 300) + 'history = "lap.csv"\n',
    "two histories in turn": EVENT.format("laps", 300) + 'history = ["lap.csv", "lap.csv"]\n',
    "gated history": EVENT.format("lap", 300) + 'history = "lap.csv"\ngate = { force = "1 kN" }\n',
    "equal cycles": EVENT.format("test", 7) + CHANNEL + 'range = "9 kN"\nr_ratio = 0.0\ncycles = 100\n',
    "equal cycles with a frequency": EVENT.format("test", 7)
    + CHANNEL
    + 'amplitude = "4 kN"\nr_ratio = -1\ncycles = 100\nfrequency = "2 Hz"\n',
    "equal cycles by maximum and minimum": EVENT.format("test", 7)
    + CHANNEL
    + 'maximum = "0 kN"\nminimum = "-9 kN"\ncycles = 100\n'
    + EVENT.format("pull", 2)
    + CHANNEL
    + 'maximum = "9 kN"\nr_ratio = 0.1\ncycles = 10\n',
    "programme": EVENT.format("blocks", 2)
    + CHANNEL
    + 'programme = { unit = "kN", maximum = [9, 5], minimum = [0, 1], cycles = [10, 900] }\n',
    "spectrum": EVENT.format("classes", 2)
    + CHANNEL
    + 'spectrum = { unit = "kN", range = [9, 4], cycles = [10, 900], r_ratio = [0.0, 0.2] }\n',
    "states": EVENT.format("table", 2) + 'states = { force = ["0 kN", "9 kN", "3 kN", "5 kN"] }\ncycles = 100\n',
    "peaks and valleys": EVENT.format("strokes", 300)
    + 'history = "strokes.csv"\nread = { rows = "peaks and valleys" }\nduration = "20 s"\n',
    "programme on a sheet": EVENT.format("blocks", 2)
    + CHANNEL
    + 'programme = "blocks.xlsx"\nsheet = "bench"\nblock = 2\n',
    "once in ten weeks": EVENT.format("lap", 300)
    + 'history = "lap.csv"\n'
    + EVENT.format("stop", 0.1)
    + CHANNEL
    + 'range = "14 kN"\nr_ratio = -0.2\ncycles = 1\n',
    "random by a PSD": EVENT.format("shaking", 2)
    + CHANNEL
    + 'psd = [["5 Hz", "40000 N^2/Hz"], ["40 Hz", "40000 N^2/Hz"]]\nexposure = "2 h"\nmean = "1 kN"\n',
    "random with a tone": EVENT.format("shaking", 2)
    + CHANNEL
    + 'psd = [["5 Hz", "4e4 N^2/Hz"], ["20 Hz", "4e4 N^2/Hz"]]\nexposure = "20 min"\ntones = [["12 Hz", "1 kN"]]\n',
    "not Gaussian": EVENT.format("shaking", 2)
    + CHANNEL
    + 'psd = [["5 Hz", "4e4 N^2/Hz"], ["20 Hz", "4e4 N^2/Hz"]]\nexposure = "20 min"\nkurtosis = 4.5\n',
    "dwells": EVENT.format("dwells", 2)
    + CHANNEL
    + 'dwells = [["12 Hz", "4 kN", "30 min"], ["30 Hz", "2 kN", "1e4 cycles"]]\n',
    "sweep": EVENT.format("sweep", 2)
    + CHANNEL
    + 'sweep = ["5 Hz", "40 Hz"]\nprofile = [["5 Hz", "4 kN"], ["40 Hz", "2 kN"]]\nrate = "1 octave/min"\npasses = 2\n',
    "day of its own": '[[duty_cycle.events]]\nname = "day"\noccurrences = 5\n'
    + 'events = [{ name = "lap", history = "lap.csv", occurrences = 60 }, '
    + '{ name = "start", occurrences = 2, channel = "force", range = "9 kN", r_ratio = 0.0, cycles = 1 }]\n',
}
COMMANDS = {
    "check": (),
    "life": ("--spot", "toe"),
    "places": (),
    "rules": (),
    "what-if": ("load scale", "0.9", "1.1"),
    "solve": (),
    "grow": ("--after-damage",),
    "inspections": ("--every", "1 year"),
    "explain": (),
    "model": ("--node", "2", "--nodes", "nodes.vtu"),
}
FIGURES = ("life", "places", "rules", "what-if", "grow", "inspections", "model")
DRAWN = (
    "history",
    "gated history",
    "equal cycles",
    "programme",
    "spectrum",
    "states",
    "peaks and valleys",
    "day of its own",
)


def lay_files(folder):
    """The files that the events and the model name."""
    t = np.arange(400) / 20.0
    force = 5.0 + 4.0 * np.sin(2.0 * t) * np.cos(0.31 * t) + np.where(np.arange(400) == 77, 3.0, 0.0)
    pd.DataFrame({"time [s]": t, "force [kN]": force.round(4)}).to_csv(folder / "lap.csv", index=False)
    write_field_table(few_nodes(), folder / "few_nodes.csv")
    lay_strains(folder)
    pd.DataFrame({"force [kN]": [1, 9, 3, 8, 0, 12, 2]}).to_csv(folder / "strokes.csv", index=False)
    book = openpyxl.Workbook()
    bench = book.create_sheet("bench")
    for row in [("max (kN)", "min (kN)", "cycles") * 2, (3, 0, 5, 9, 0, 10), (2, 0, 50, 5, 1, 900)]:
        bench.append(row)
    book.save(folder / "blocks.xlsx")


def lay_strains(folder):
    """Strains of a sheet of rubber at forces, at one place and at two nodes."""
    force, stretch = np.array([-10.0, -4.0, 4.0, 12.0]), np.array([0.8, 0.93, 1.2, 1.6])
    across = 0.97 - 0.05 * (stretch - 1.0)
    rows = {"force [kN]": force, "xx [-]": stretch, "yy [-]": across, "zz [-]": 1.0 / (stretch * across)}
    pd.DataFrame(rows | dict.fromkeys(("xy [-]", "yz [-]", "zx [-]"), 0.0)).to_csv(folder / "edge.csv", index=False)
    nodes = []
    for state, (one, two) in enumerate(zip(stretch[1:], across[1:], strict=True)):
        for node, share in ((1, 0.7), (2, 1.0)):
            own = 1.0 + share * (one - 1.0)
            strains = [own - 1.0, two - 1.0, 1.0 / (own * two) - 1.0, 0.0, 0.0, 0.0]
            nodes.append([node, 10.0 * node, 0.0, 0.0, *strains, f"state {state}"])
    heads = [
        "node",
        "x [mm]",
        "y [mm]",
        "z [mm]",
        "xx [-]",
        "yy [-]",
        "zz [-]",
        "xy [-]",
        "yz [-]",
        "zx [-]",
        "load case",
    ]
    pd.DataFrame(nodes, columns=heads).to_csv(folder / "rubber.csv", index=False)
    (folder / "shells.csv").write_text(
        "node,x [mm],y [mm],z [mm],nx [N/mm],ny [N/mm],nxy [N/mm],mx [N*mm/mm],my [N*mm/mm],mxy [N*mm/mm],load case\n"
        "1,0,0,0,60,2,1,12,0,1,pull\n2,10,0,0,40,0,0,6,0,0,pull\n"
    )


@pytest.fixture
def written(tmp_path, monkeypatch):
    """A function: the study with these events, in the working folder."""
    monkeypatch.chdir(tmp_path)
    lay_files(tmp_path)

    def write(events, head=HEAD, name="study.toml", rest=REST):
        (tmp_path / name).write_text(head + events + rest)
        return tmp_path / name

    return write


SHORT = REST[: REST.index("[model]")]
