"""What is in a result file of your own, before anything is assessed: nodes, elements, sets, peaks; can the units be right?

python examples/your_own_model.py [result file] [stress unit] [length unit] [names of data, for a mesh] [--sets deck or table]

Without a file it reads the demo's hanger head. Tables (CSV, Excel, Parquet) and HDF5 say their units themselves: leave them out.
"""

import argparse
import tempfile
from pathlib import Path

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil import models
from vivid_anvil.demo import write_demo

parser = argparse.ArgumentParser()
parser.add_argument("file", nargs="?")
parser.add_argument("stress_unit", nargs="?")
parser.add_argument("length_unit", nargs="?")
parser.add_argument("names", nargs="*")
parser.add_argument("--sets")
given = parser.parse_args()
if given.file is None:
    demo = write_demo(Path(tempfile.mkdtemp()) / "demo").parent
    given = parser.parse_args([str(demo / "hanger_head.frd"), "MPa", "mm"])

# All stresses as the file has them: of each element and each face, where there are several at a node.
whole = models.read_field(
    given.file,
    stress_unit=given.stress_unit,
    length_unit=given.length_unit,
    cases=given.names or None,
    element_values="each element",
)
if given.sets is not None:
    whole = models.with_sets(whole, given.sets)
print(whole)

low, high = whole.coordinates.min(axis=0), whole.coordinates.max(axis=0)
print("from ({:.4g}, {:.4g}, {:.4g}) mm to ({:.4g}, {:.4g}, {:.4g}) mm".format(*low, *high))
for one in whole.elements:
    print(f"  {one.ids.size} elements of the kind {one.kind}")
for name, places in whole.node_sets.items():
    print(f"  set {name}: {len(places)} nodes")

# Peaks by load case: is this what the unit load should do?
mean = models.averaged(whole)
picture = Figure(figsize=(12.8, 8.0), layout="constrained")
axes = picture.add_subplot(xlabel="von Mises stress [MPa]", ylabel="nodes above it", yscale="log")
for case in mean.cases:
    size = models.von_mises(mean.of_case(case))
    at = int(size.argmax())
    axes.plot(np.sort(size), np.arange(size.size, 0, -1), label=case)
    x, y, z = mean.coordinates[at]
    print(f"  {case}: up to {size[at]:.4g} MPa (von Mises) at node {mean.node_ids[at]}, ({x:.4g}, {y:.4g}, {z:.4g}) mm")

axes.legend()
picture.savefig("peaks.png")

# What averaging at the nodes would hide, as a measure of the mesh.
if whole.rows is None:
    print("One stress at each node: averaged by the program that wrote it.")
else:
    worst = int(np.argmax(whole.spread))
    print(
        f"Elements disagree by up to {whole.spread[worst]:.0%} of the largest stress, at node {whole.node_ids[worst]}."
    )
