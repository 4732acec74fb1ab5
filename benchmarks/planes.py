"""A criterion on all planes of a whole model, beside the plain loop over planes: python benchmarks/planes.py [nodes] [samples]

Findley on whole paths (circle, largest normal stress), three load cases. Plain: NumPy, plane by plane of a net of 2 degrees,
all samples, half the largest range over 18 directions in place of the circle; on a few nodes, scaled to all. Ours:
`assess_model`, two threads, every node, planes refined to 0.01 degrees; beside it what bounds left out, and the peak memory.
"""

from __future__ import annotations

import resource
import sys
import time
from concurrent.futures import ThreadPoolExecutor

import numpy as np
from whole_model import CURVE, STEEL, model

from vivid_anvil.damage import CriticalPlane
from vivid_anvil.fields import assess_model
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes import plane_axes
from vivid_anvil.stress.planes.path_places import Asking, PathLoads
from vivid_anvil.stress.planes.resolve import shear_weights

NET = half_sphere(2.0)
K = 0.3
LOOKED = 4  # nodes of the plain loop
TURNS = np.array([np.cos(np.pi * np.arange(18) / 18), np.sin(np.pi * np.arange(18) / 18)])


def plainly(tensors: np.ndarray) -> float:
    """Findley's parameter by a loop over planes."""
    first, second = plane_axes(NET)
    best = 0.0
    for normal, one, other in zip(NET, first, second, strict=True):
        shear = (
            tensors
            @ np.concatenate([shear_weights(normal[None], one[None]), shear_weights(normal[None], other[None])]).T
        )
        sigma = tensors @ normal_weights(normal)
        amplitude = 0.5 * float(np.ptp(shear @ TURNS, axis=0).max())
        best = max(best, amplitude + K * float(sigma.max()))
    return best


def main(nodes: int = 20_000, samples: int = 5_000) -> None:
    """Print the figures."""
    field, loads, duty = model(nodes, samples)
    method = CriticalPlane(sn_curve=CURVE, k=K, shear_amplitude="circle")
    spot = HotSpot(name="model", material=STEEL, method=method)
    with ThreadPoolExecutor(2) as pool:
        small = model(200, 300)
        assess_model(*small, spot, executor=pool)  # compiled
        start = time.perf_counter()
        found = assess_model(field, loads, duty, spot, executor=pool)
        ours = time.perf_counter() - start
    events = loads.events(duty)
    course = events[0].loads
    places = np.linspace(0, nodes // 4, LOOKED).astype(int)
    start = time.perf_counter()
    parameters = [plainly(course @ loads.units(field)[place] + loads.constants(field)[place]) for place in places]
    plain = (time.perf_counter() - start) / LOOKED * nodes
    weights = method.constants(spot)
    some = np.arange(0, nodes, max(1, nodes // 200))
    looked = (
        PathLoads.of(events)
        .worst_of(
            loads.units(field)[some], loads.constants(field)[some], "circle", Asking(*weights, False, CURVE, False)
        )
        .looked
    )
    one = 0.5 * (np.sqrt(1.0 + K * K) + K)
    amplitudes = [float(CURVE.stress_at(1.0 / found.damage_per_repeat[place])) for place in places]
    for parameter, amplitude in zip(parameters, amplitudes, strict=True):
        print(f"parameter by the plain loop {parameter:.3f} MPa, ours {amplitude * one:.3f} MPa")
    print(f"{nodes} nodes, {samples} samples, {len(NET)} planes of a net of 2 degrees")
    print(f"ours {ours:.1f} s, plain {plain:.0f} s (from {LOOKED} nodes): {plain / ours:.0f} times as fast")
    counted = looked[looked >= 0]
    print(
        f"nodes shown harmless: {float((~found.values.counted).mean()):.1%}; planes looked at: {counted.mean():.0f} a node"
    )
    print(f"peak memory {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB")


if __name__ == "__main__":
    main(*(int(float(one)) for one in sys.argv[1:]))
