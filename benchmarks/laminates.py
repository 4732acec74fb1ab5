"""A laminate of eight plies at many elements of a model of shells, followed through 1e7 cycles by jumps.

python benchmarks/laminates.py [elements] [cycles]

Ours: each element under its own forces and moments, the classes of cycles of a duty cycle (openings, a measured lap grouped),
plies that soften and fail, two threads, chunks.
"""

from __future__ import annotations

import dataclasses
import resource
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from vivid_anvil.demo import write_demo
from vivid_anvil.progress import CycleEnds, laminate_progress, laminates_progress
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.study import read_study

LAYUP = "[0/±45/90]s"
PER_SEASON = 2.0e5 + 60_000 * 14.0  # openings, and leanings that are more than a hand at rest


def main(elements: int, cycles: float) -> None:
    """Print what it took."""
    with TemporaryDirectory() as folder:
        study = read_study(write_demo(Path(folder)).parent / "safety_bar.toml")
    spot = study.hot_spots[0]
    method = spot.method
    sound = method.laminate  # type: ignore[union-attr]
    laminate = Laminate(name="bar", layup=LAYUP, ply=sound.laid[0].ply, ply_thickness=0.6, temperature_change=-90.0)
    other = dataclasses.replace(method, laminate=laminate)  # type: ignore[type-var]
    own = other.place(dataclasses.replace(spot, method=other), study.duty).cycle_ends  # type: ignore[union-attr]
    random = np.random.default_rng(5)
    sizes = random.uniform(0.5, 1.1, elements)[:, None, None, None] * np.ones((1, len(own.often), 2, 6))
    sizes[..., 1] = sizes[..., 1] + 0.02 * random.standard_normal((elements, 1, 1))
    loads = own.ends[None] * sizes
    loads[..., 1] = 0.1 * loads[..., 3] * random.uniform(0.0, 1.0, (elements, 1, 1))
    seasons = cycles / PER_SEASON
    settings = dataclasses.replace(other.settings, jump_error=1e-3)  # type: ignore[union-attr]
    laminates_progress(laminate, loads[:2], own.often, settings, stations=[seasons])  # compiled
    start = time.perf_counter()
    with ThreadPoolExecutor(2) as pool:
        found = laminates_progress(laminate, loads, own.often, settings, stations=[seasons], executor=pool)
    took = time.perf_counter() - start
    jumps = [
        laminate_progress(
            laminate, CycleEnds.of_one_row(loads[i], own.often, len(laminate.laid)), settings, longest=seasons
        ).course.repeats.size
        for i in range(min(20, elements))
    ]
    finer = dataclasses.replace(settings, jump_error=settings.jump_error / 8.0)  # off by the cube of their length
    some = laminates_progress(laminate, loads[:20], own.often, finer, stations=[seasons])
    both = np.isfinite(some.matrix) & np.isfinite(found.matrix[:20])
    off = np.abs(found.matrix[:20][both] / some.matrix[both] - 1.0).max(initial=0.0)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e6
    print(
        f"{elements} elements x {len(laminate.laid)} plies, {len(own.often)} classes, {cycles:g} cycles ({seasons:.2f} seasons)"
    )
    print(f"  {took:.1f} s on two threads, {1e3 * took / elements:.2f} ms an element, peak memory {peak:.2f} GB")
    print(f"  jumps an element {np.mean(jumps):.0f} (of 20); jumps half as long move the first failure by {off:.2e}")
    print(
        f"  failed between fibres {np.isfinite(found.matrix).mean():.0%}, of fibres {np.isfinite(found.fibre).mean():.0%}, ",
        end="",
    )
    print(
        f"over {np.isfinite(found.over).mean():.0%}; stiffness left {found.stiffness.min():.2f} to {found.stiffness.max():.2f}"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 10_000, float(sys.argv[2]) if len(sys.argv) > 2 else 1e7)
