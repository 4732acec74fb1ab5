"""Counting against a plain C loop, as ratios measured in the same run: python benchmarks/run.py [samples]

Each pair is timed in turn, several times, after a first call of both; the ratio is that of the medians. Both give the
same whole table of cycles (range, mean, count, start, end). The C loop is compiled on the spot with cc -O3.
"""

from __future__ import annotations

import ctypes
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np

from vivid_anvil import rainflow

ROUNDS = 7
SOURCE = Path(__file__).with_name("rainflow_loop.c")


class Table(ctypes.Structure):
    """The table of the C loop."""

    _fields_ = [
        *((name, ctypes.c_void_p) for name in ("range", "mean", "count", "start", "end")),
        ("cycles", ctypes.c_int64),
    ]


def c_loop(folder: str) -> Callable[[np.ndarray], int]:
    """Compile the C loop; a function from samples to the number of rows of its table."""
    library = Path(folder) / "rainflow_loop.so"
    subprocess.run(["cc", "-O3", "-shared", "-fPIC", "-o", library, SOURCE, "-lm"], check=True)
    loaded = ctypes.CDLL(str(library))
    loaded.rainflow.restype = ctypes.c_int64

    def count(samples: np.ndarray) -> int:
        table = Table()
        rows = loaded.rainflow(
            samples.ctypes.data_as(ctypes.c_void_p), ctypes.c_int64(samples.size), ctypes.byref(table)
        )
        loaded.free_table(ctypes.byref(table))
        return int(rows)

    return count


def white_noise(size: int) -> np.ndarray:
    return np.random.default_rng(1).standard_normal(size)


def narrow_band(size: int) -> np.ndarray:
    """A sine of slowly wandering phase and amplitude, about 90 samples a cycle."""
    time_s = np.arange(size) / 100.0
    phase = 2.0 * np.pi * 1.1 * time_s + np.cumsum(np.random.default_rng(2).standard_normal(size)) * 0.02
    return np.sin(phase) * (1.0 + 0.4 * np.sin(0.013 * time_s))


def in_turn(ours: Callable[[], object], theirs: Callable[[], object]) -> tuple[float, float]:
    """Median seconds of each, timed alternately after one call of both."""
    ours(), theirs()
    seconds: tuple[list[float], list[float]] = ([], [])
    for _ in range(ROUNDS):
        for call, into in zip((ours, theirs), seconds, strict=True):
            begun = time.perf_counter()
            call()
            into.append(time.perf_counter() - begun)
    return statistics.median(seconds[0]), statistics.median(seconds[1])


def main() -> None:
    size = int(float(sys.argv[1])) if len(sys.argv) > 1 else 10_000_000
    with tempfile.TemporaryDirectory() as folder:
        loop = c_loop(folder)
        print(f"{size:.0e} samples, median of {ROUNDS} rounds in turn")
        print(f"{'signal':<14}{'cycles':>12}{'ours [s]':>12}{'C -O3 [s]':>12}{'ratio':>8}   aim 1.2 or less")
        for name, signal in (("white noise", white_noise(size)), ("narrow band", narrow_band(size))):
            cycles = rainflow(signal)
            assert len(cycles) == loop(signal), "the two do not count alike"
            ours, theirs = in_turn(lambda s=signal: rainflow(s), lambda s=signal: loop(s))
            print(f"{name:<14}{cycles.total:>12.0f}{ours:>12.4f}{theirs:>12.4f}{ours / theirs:>8.2f}")


if __name__ == "__main__":
    main()
