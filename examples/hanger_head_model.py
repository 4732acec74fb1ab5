"""Where does a part fail first? The head of the hanger as a finite-element model under two forces at once.

python examples/hanger_head_model.py [folder for figures and results]

For a model of your own: read its result file (`read_frd`), mesh (`read_mesh`) or table (`read_field_table`), its sets
(`with_sets`), say which channel scales which load case and at which load its stresses were computed, and name material and curve.
"""

import math
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import numpy as np

from vivid_anvil import fields, models
from vivid_anvil.damage import StressLife, life_working
from vivid_anvil.demo import write_demo
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.figures import plot, save_figure
from vivid_anvil.histories import read_csv
from vivid_anvil.materials import Material, straight_curve
from vivid_anvil.stress import HotSpot

folder = Path(sys.argv[1]) if len(sys.argv) > 1 else None
demo = write_demo(Path(tempfile.mkdtemp()) / "demo").parent

head = models.read_frd(demo / "hanger_head.frd", stress_unit="MPa", length_unit="mm", cases=["vertical", "lateral"])
print(head)

lap = DutyCycle("lap", (Event("lap", read_csv(demo / "two_forces_lap.csv")),), 20_000)
loads = fields.CaseLoads(
    [
        fields.CaseLoad(case="vertical", channel="vertical force", unit_load="10 kN"),
        fields.CaseLoad(case="lateral", channel="lateral force", unit_load="2 kN"),
    ]
)
cut_edge = straight_curve(  # machined flame-cut edges of plate: ranges as they are, whatever the mean
    name="cut edge, 125", stress="range", r_ratio="any", point_stress="125 MPa", point_life=2e6, slope=3
)
steel = Material(name="plate steel", yield_strength="355 MPa", ultimate_strength="510 MPa")
spot = HotSpot(name="hanger head", material=steel, method=StressLife(sn_curve=cut_edge))
head = models.with_boxes(head, {"held end": {"y": [-120.0, -88.0]}})  # no part of the hanger: left out
with ThreadPoolExecutor(2) as threads:
    model = fields.assess_model(
        head,
        loads,
        lap,
        spot,
        measure="absolute maximum principal",
        leave_out=["held end"],
        target="30 years",
        executor=threads,
    )
print(model)

places = fields.hottest_places(model, 4, apart="12 mm")
for one in places:
    x, y, z = one.at_mm
    life = "no damage" if math.isinf(one.life_years) else f"{one.life_years:.3g} years"
    print(f"  {one.rank}. node {one.node} at ({x:.1f}, {y:.1f}, {z:.1f}) mm: {life}, {one.highest_stress_MPa:.0f} MPa")

for one in places[:1]:
    cycle = one.worst_cycle
    x, y, z = cycle.direction
    print(
        f"     worst cycle {cycle.lowest_MPa:.0f} to {cycle.highest_MPa:.0f} MPa, a crack opens along ({x:.2f}, {y:.2f}, {z:.2f})"
    )

worst = fields.node_life(model, places[0].node)
print(worst)
for finding in fields.model_findings(model, places):
    print(" ", finding)

# Where directions turn, the plane that is damaged most tells more than one stress: a look at the nodes that were found.
turning = [one for one in places if one.off_straight_line > 0.1]
few = head.part(np.array([head.place_of(one.node) for one in turning]))
planes = fields.critical_planes(few, loads, lap, spot, step_degrees=10.0)
for one, years in zip(turning, planes.life_years, strict=True):
    print(
        f"  node {one.node}: {one.life_years:.3g} years by the principal stress, {years:.3g} years on its worst plane"
    )

# A hand check: membrane and bending across the shank are force over section and moment over modulus.
shank = fields.ThroughPath(name="shank", surface=(-18.0, -80.0, 0.0), other=(18.0, -80.0, 0.0))
pull, bend = fields.structural_field(head, [shank]).stresses[:, 0, 1]
print(f"Shank under 10 kN: {pull:.2f} MPa in the model, {10e3 / (36.0 * 8.0):.2f} MPa by hand.")
print(f"Shank under 2 kN sideways: {bend:.2f} MPa in the model, {6.0 * 2e3 * 80.0 / (8.0 * 36.0**2):.2f} MPa by hand.")

if folder is not None:
    folder.mkdir(parents=True, exist_ok=True)
    save_figure(plot(fields.ModelView(model, "corner", places)), folder / "model.png")
    save_figure(plot(worst), folder / "worst-node.png")
    fields.write_results(model, folder / "hanger_head.vtu")
    fields.write_results(model, folder / "hanger_head.csv", reserves=fields.reserves_on_stress(model))
    (folder / "by-hand.txt").write_text(str(life_working(worst)))
