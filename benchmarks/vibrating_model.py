"""A model of 100 000 nodes and 20 modes under a PSD: moments, damage by Dirlik with two slopes, against a loop over 2000 lines.

python benchmarks/vibrating_model.py [nodes]

The plain loop does what a formula says: at each frequency the stresses of every node by its modes, the von Mises PSD from them,
summed into moments; its damage by a table of ranges. It runs on a part of the lines and is scaled up to all of them.
"""

from __future__ import annotations

import resource
import sys
import time

import numpy as np

from vivid_anvil import DutyCycle, Event, HotSpot, Material, RandomVibration, SNCurve, StressLife, psd_of_rows
from vivid_anvil.fields import assess_model
from vivid_anvil.models import StressField
from vivid_anvil.stress import ModeLoads
from vivid_anvil.stress.measures.von_mises import DEVIATOR_AND_TRACE

MODES, LINES, PART = 20, 2000, 20
BAND = (5.0, 500.0)


def field_of(nodes: int) -> StressField:
    """Modal stresses that are nothing in particular."""
    rng = np.random.default_rng(1)
    stresses = rng.standard_normal((MODES, nodes, 6), dtype=np.float64)
    stresses *= 300.0
    names = [f"mode {i}" for i in range(1, MODES + 1)]
    return StressField(
        cases=names, node_ids=np.arange(1, nodes + 1), coordinates=np.zeros((nodes, 3)), stresses=stresses
    )


def loads() -> ModeLoads:
    """Natural frequencies from 20 to 400 Hz."""
    rng = np.random.default_rng(2)
    return ModeLoads(
        natural_frequency=np.sort(rng.uniform(20.0, 400.0, MODES)),
        participation={"base": rng.uniform(-0.1, 0.1, MODES)},
        damping_ratio=0.02,
    )


def spot() -> HotSpot:
    """A curve of two slopes."""
    curve = SNCurve(name="weld", stress="range", r_ratio="any", points=((52.0, 1e7),), above=3, below=5)
    return HotSpot(name="node", material=Material(name="steel"), method=StressLife(sn_curve=curve))


def plain_moments(stresses: np.ndarray, modes: ModeLoads, level: float) -> np.ndarray:
    """m0, m1, m2, m4 of the von Mises PSD by a loop over PART of the lines, scaled up in time by its caller."""
    frequency = np.linspace(*BAND, LINES)
    found = np.zeros((4, stresses.shape[1]))
    for f in frequency[:: LINES // PART]:
        q = modes.source.coordinates(np.array([f]), {"base": "acceleration"})[0, :, 0]
        tensors = np.tensordot(q, stresses, axes=(0, 0))
        deviator = tensors @ DEVIATOR_AND_TRACE[:5].T
        density = level * np.sum(np.abs(deviator) ** 2, axis=1)
        for i, n in enumerate((0, 1, 2, 4)):
            found[i] += density * f**n
    return found


def main(nodes: int) -> None:
    """Times, ratio, memory, digits."""
    field, modes = field_of(nodes), loads()
    psd = psd_of_rows([("5 Hz", "0.02 g^2/Hz"), ("500 Hz", "0.02 g^2/Hz")])
    duty = DutyCycle("day", (Event("running", RandomVibration({"base": psd}, "8 h")),), repeats_per_year=300)
    assess_model(field.part(np.arange(10)), modes, duty, spot())  # compiled before
    start = time.perf_counter()
    result = assess_model(field, modes, duty, spot(), chunk=20000)
    ours = time.perf_counter() - start
    print(
        f"{nodes} nodes: {ours:.2f} s; {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e6:.2f} GB at most; {result}"
    )
    if nodes <= 100_000:
        start = time.perf_counter()
        plain_moments(np.asarray(field.stresses), modes, float(psd.values[0]))
        plain = (time.perf_counter() - start) * LINES / PART
        print(f"plain loop over {LINES} lines: {plain:.0f} s (from {PART} of them); ratio {plain / ours:.0f}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 100_000)
