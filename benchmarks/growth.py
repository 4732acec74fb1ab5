"""Growth cycle by cycle against a plain C loop, two sizes against one, and cycle by cycle against all of a repeat at once.

python benchmarks/growth.py [cycles]

Timed as in `run.py`: in turn, after a first call of both, the ratio that of the medians; both sides give the same answer.
"""

from __future__ import annotations

import ctypes
import dataclasses
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import numpy as np
from run import in_turn, report

from vivid_anvil.demo import write_demo
from vivid_anvil.growth import grow_by_cycle, growth_drive
from vivid_anvil.growth.cycle_by_cycle import cycle_by_cycle
from vivid_anvil.growth.per_repeat import quick_life, way_of
from vivid_anvil.materials import WalkerLaw
from vivid_anvil.shapes import CentreCrack, SurfaceCrack
from vivid_anvil.study import read_study

SOURCE = Path(__file__).with_name("growth_loop.c")
LAW = WalkerLaw(name="-", rate=2e-15, slope=3.0, threshold=60.0, gamma=0.6)
PLATE = CentreCrack(200.0)
START = 10.0


def stresses(cycles: int) -> np.ndarray:
    """Rows (largest, smallest stress) of variable amplitude; a fifth of them goes below zero."""
    random = np.random.default_rng(3)
    low = random.uniform(-20.0, 60.0, cycles)
    return np.column_stack([low + random.weibull(1.3, cycles) * 40.0 + 1.0, low])


def against_c(folder: str, cycles: int, slope: float) -> None:
    library = Path(folder) / "growth_loop.so"
    subprocess.run(["cc", "-O3", "-shared", "-fPIC", "-o", library, SOURCE, "-lm"], check=True)
    loop = ctypes.CDLL(str(library)).grow
    loop.restype = ctypes.c_double
    rows, law = stresses(cycles), dataclasses.replace(LAW, slope=slope)
    values = (START, PLATE.plate_width, law.constant, slope, 0.6, 60.0, PLATE.largest_size)

    def plain() -> float:
        pointer = rows.ctypes.data_as(ctypes.c_void_p)
        return float(loop(pointer, ctypes.c_int64(cycles), *(ctypes.c_double(one) for one in values)))

    def ours() -> float:
        return grow_by_cycle(rows, PLATE, law, START).size

    assert np.isclose(ours(), plain(), rtol=1e-8), (ours(), plain())
    report(
        f"Walker, m = {slope:g}, {cycles:.0e} cycles, {START:g} to {ours():.2f} mm / C", *in_turn(ours, plain), "1.0"
    )


def two_against_one(cycles: int) -> None:
    rows = stresses(cycles)
    shape = SurfaceCrack(thickness=100.0, plate_width=400.0)

    def two() -> float:
        return grow_by_cycle(rows, shape, LAW, (START, 20.0)).size

    def one() -> float:
        return grow_by_cycle(rows, PLATE, LAW, START).size

    report(f"two sizes, to {two():.2f} mm / one, {cycles:.0e} cycles", *in_turn(two, one), "2")


def blocks_against_cycles(folder: str) -> None:
    """The demo's crack with every cycle in its order, and with all cycles of a repeat at once; the cycles are counted before."""
    study = read_study(write_demo(Path(folder) / "demo"))
    crack, duty = dataclasses.replace(study.cracks[0], detectable_size=None), study.duty
    drive = growth_drive(crack.hot_spot.nominal_cycles(duty), crack.counted_part)
    way = way_of(crack, drive)
    cycle_by_cycle(way, duty, None, None)
    begun = time.perf_counter()
    exact = cycle_by_cycle(way_of(crack, drive), duty, None, None)
    middle = time.perf_counter()
    life, _ = quick_life(way_of(crack, drive))
    end = time.perf_counter()
    cycles = exact.cycles or 0
    difference = life / exact.life_repeats - 1.0
    report(f"cycle by cycle ({cycles:.1e}) / all at once", middle - begun, end - middle, f"50; life {difference:+.2%}")


def main(cycles: int) -> None:
    print(f"{'':<52}{'ours':>10}{'other':>10}{'ratio':>8}   aim")
    with tempfile.TemporaryDirectory() as folder:
        against_c(folder, cycles, 3.0)
        against_c(folder, cycles, 3.2)
        two_against_one(cycles // 10)
        blocks_against_cycles(folder)


if __name__ == "__main__":
    main(int(float(sys.argv[1])) if len(sys.argv) > 1 else 10_000_000)
