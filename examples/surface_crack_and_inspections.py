"""A surface crack at a weld toe: its growth in the real order of the loads, an inspection plan, and what else is asked.

python examples/surface_crack_and_inspections.py [folder for figures]
"""

import dataclasses
import sys
import tempfile
from pathlib import Path

import vivid_anvil as va
from vivid_anvil import growth, materials
from vivid_anvil.demo import write_demo
from vivid_anvil.figures import plot, save_figure
from vivid_anvil.shapes import solutions

folder = Path(sys.argv[1]) if len(sys.argv) > 1 else None
demo = Path(tempfile.mkdtemp()) / "demo"
study = va.read_study(write_demo(demo))
crack = study.cracks[0]

grown = growth.grow_crack(crack, study.duty, target=study.target_life)
print(grown)
print(f"It stops in {grown.stopped_in}, after {grown.cycles:.3g} cycles, {grown.half_lengths[-1]:.1f} mm half length.")

at_once = growth.grow_crack(dataclasses.replace(crack, order="per repeat"), study.duty)
print(f"All cycles of a month at once: {at_once.life_repeats:.2f} months; the order matters little here.")

plan = growth.inspection_plan(grown, every="1 year")
for row in plan.rows():
    seen = "found" if row["can be found"] else "too small"
    print(f"  year {row['time [years]']:.0f}: {row['expected size [mm]']:.2f} mm deep, {seen}")

# The same crack with the law that a test piece gave, at its upper bound.
tests = materials.read_growth_tests(
    demo / "growth_readings.csv",
    r_ratio=0.1,
    piece="compact tension",
    force_range="4.5 kN",
    thickness="12.5 mm",
    width="50 mm",
)
fit = materials.fit_growth_law(tests)
law = dataclasses.replace(fit.law(2.0), threshold="2 MPa√m")
measured = growth.grow_crack(dataclasses.replace(crack, law=law), study.duty)
print(f"With the law of the test piece, {fit}: {measured.life_years:.2f} years.")

# What welding left: the crack opens only above it, and its K moves R of every cycle.
for words, surface in (("80 MPa of tension", "80 MPa"), ("60 MPa of compression", "-60 MPa")):
    left = solutions.StressProfile([("0 mm", surface), ("6 mm", "0 MPa"), ("12 mm", "0 MPa")])
    welded = growth.grow_crack(dataclasses.replace(crack, order="per repeat", residual_stress=left), study.duty)
    print(f"With {words} at the surface: {welded.life_years:.2f} years.")

# Slowed after each large cycle, at both ends of the front; shown beside the life without.
slow = growth.Wheeler(exponent=0.2)
slowed = growth.grow_crack(dataclasses.replace(crack, retardation=slow, detectable_size=None), study.duty)
print(f"With Wheeler's factor: {slowed.life_repeats:.1f} months, without {slowed.without_memory_repeats:.1f}.")

for one in growth.limits_over_load(grown, [0.8, 1.0, 1.25]):
    print(f"  loads times {one.scale:g}: limiting depth {one.size:.2f} mm, {one.governed_by}")

if folder is not None:
    folder.mkdir(parents=True, exist_ok=True)
    save_figure(plot(plan), folder / "inspections.png")
    save_figure(plot(growth.crack_course(grown)), folder / "course.png")
    save_figure(plot(fit), folder / "tests.png")
