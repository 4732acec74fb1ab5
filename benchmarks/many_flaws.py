"""Ten thousand indications in one run: verdict, reserves, remaining life, next look.

python benchmarks/many_flaws.py [how many]
"""

import sys
import time
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context

import numpy as np

import vivid_anvil as va

MANY = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
random = np.random.default_rng(7)
steel = va.Material(name="S355", yield_strength="355 MPa", ultimate_strength="510 MPa", toughness="110 MPa√m")
law = va.ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
ranges = va.RangesPerYear([("40 MPa", "8 MPa", 1e5), ("20 MPa", "4 MPa", 6e5)])
place = va.PlaceOfFlaws(
    part=va.Part(form="plate", wall="25 mm", width="400 mm"),
    metal=va.Metal(material=steel),
    stages=[va.Stage("service", law, ranges)],
)
storm = va.FractureLoads(
    [va.PrimaryStresses(membrane="140 MPa", bending="20 MPa")], [va.AsWelded(relaxed="by the load")]
)
depths = random.uniform(1.0, 9.0, MANY)
rows = [
    va.Indication(name=f"N{i}", kind="surface", length=2.0 * a / r, height=a)
    for i, (a, r) in enumerate(zip(depths, random.uniform(0.2, 0.9, MANY), strict=True))
]


def main() -> None:
    """With two processes, which are started and have read the package before."""
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        va.assess_indications(rows[:200], {"wall": place}, {"storm": storm}, executor=pool)
        began = time.perf_counter()
        found = va.assess_indications(rows, {"wall": place}, {"storm": storm}, executor=pool)
        table = found.tables()[0]
        took = time.perf_counter() - began
    print(f"{found}: {took:.1f} s, {1e3 * took / MANY:.2f} ms each, {len(table)} rows")


if __name__ == "__main__":
    main()
