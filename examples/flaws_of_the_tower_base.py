"""The yearly inspection of tower 7: nine indications in the welds of its base and of a hanger; which may stay, and until when.

python examples/flaws_of_the_tower_base.py [folder for tables and figures]
"""

import sys
from pathlib import Path

import vivid_anvil as va
from vivid_anvil.demo import write_demo

folder = Path(sys.argv[1] if len(sys.argv) > 1 else "flaws-of-the-tower-base")
write_demo(folder)

# What was found, as the inspection's sheet has it, and where.
indications = va.read_indications(folder / "tower_indications.csv")
steel = va.Material(name="S355", yield_strength="355 MPa", ultimate_strength="510 MPa")
base = va.Metal(
    material=steel,
    toughness=va.MasterCurve(temperature_of_27_joules="-35 °C", margin=25.0, probability=0.05),
    temperature="-15 °C",
)
hanger = va.Metal(material=steel, toughness=va.ToughnessTests(results=["96 MPa√m", "118 MPa√m", "104 MPa√m"]))

# Wind and cars, year by year: ten years with sound paint, then the weld toes lie bare.
painted = va.ParisLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, threshold="2 MPa√m")
bare = va.ParisLaw(name="steel in wet air", rate="1.3e-12 mm/cycle at 1 MPa√mm", slope=3.0)
gusts = va.RangesPerYear([("34 MPa", "4 MPa", 2.0e4), ("20 MPa", "2 MPa", 2.5e5), ("9 MPa", "1 MPa", 2.0e6)])
cars = va.RangesPerYear([("48 MPa", "12 MPa", 5.3e4), ("25 MPa", "6 MPa", 2.1e5)])
stages = [va.Stage("painted", painted, gusts, "10 years"), va.Stage("paint gone", bare, gusts)]

tower = va.Part(form="cylinder, around", wall="16 mm", radius="600 mm")
plate = va.Part(form="plate", wall="12 mm", width="150 mm", attachment_length="20 mm")
places = {
    "tower base": va.PlaceOfFlaws(part=tower, metal=base, stages=stages),
    "hanger": va.PlaceOfFlaws(part=plate, metal=hanger, stages=[va.Stage("service", bare, cars)]),
}
storm = va.FractureLoads(
    [va.PrimaryStresses(membrane="118 MPa", bending="12 MPa", misalignment_factor=1.15)],
    [va.AsWelded(relaxed="by the load")],
)
stop = va.FractureLoads(
    [va.PrimaryStresses(membrane="105 MPa", bending="30 MPa")], [va.HeatTreated(stress_acts="across the weld")]
)

found = va.assess_indications(
    indications, places, {"hundred-year storm": storm, "emergency stop": stop}, name="Tower 7", inspection_factor=2.0
)
print(found)
for flaw in found.flaws:
    life = "" if flaw.life is None else f", {flaw.life:.3g} years left"
    print(f"{flaw.name:>8}: {flaw.verdict}; reserve on load {flaw.assessment.reserve_on_load.factor:.3g}{life}")
for rule in (rule for flaw in found.flaws for rule in flaw.made.rules):
    print(f"  {rule}")
for finding in found.findings:
    print(f"  {finding.severity}: {finding.sentence}")
found.to_frame().to_csv(folder / "tower_7.csv", index=False)

# The page for the file of the worst flaw that may stay: hand calculation, what moves it, what else may be left.
kept = next(flaw for flaw in found.flaws if flaw.assessment.acceptable)
for step in kept.assessment.working().steps:
    print(step)
print(va.sensitivity(kept.assessment))
limits = va.limiting_sizes(kept.assessment)
allowed = va.allowable_flaws(kept.assessment, places[kept.place].stages, "1 year", aspects=[0.1, 0.2, 0.4, 0.7, 1.0])
grown = va.grow_flaw(kept.assessment, places[kept.place].stages)
print(grown)

for thing, name in (
    (found, "list"),
    (kept.assessment, "flaw"),
    (grown, "growth"),
    (limits, "limits"),
    (allowed, "allowed"),
):
    va.save_figure(va.plot(thing), folder / f"{name}.png")
