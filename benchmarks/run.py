"""Counting against plain C loops and one reader against another, as ratios measured in the same run.

python benchmarks/run.py [samples]          the ratios
python benchmarks/run.py --memory [samples] peak memory of counting a file larger than that (HDF5 and Parquet)

Each pair is timed in turn, several times, after a first call of both; the ratio is that of the medians. Both sides give
the same answer, which is checked. The C loops are compiled on the spot with cc -O3 -march=native.
"""

from __future__ import annotations

import ctypes
import dataclasses
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

import numpy as np

from vivid_anvil.counting import rainflow
from vivid_anvil.damage import StressLife, assess_life, damage_of_samples
from vivid_anvil.demo import write_demo
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.histories import Channel, LoadHistory, count_chunks, count_file, read_csv
from vivid_anvil.materials import Material, knee_curve, table_curve
from vivid_anvil.stress import HotSpot, OneLoad
from vivid_anvil.study import Study, read_study, what_if

ROUNDS = 7
CLASSES = 64
SOURCE = Path(__file__).with_name("rainflow_loop.c")
CURVE = knee_curve(name="-", stress="range", r_ratio="any", knee_stress=2.0, knee_life=5e6, slope=3.0, slope_below=5.0)


class Table(ctypes.Structure):
    """The table of the C loop."""

    _fields_ = [
        *((name, ctypes.c_void_p) for name in ("range", "mean", "count", "start", "end")),
        ("cycles", ctypes.c_int64),
    ]


class Loops:
    """The C loops, compiled."""

    def __init__(self, folder: str) -> None:
        library = Path(folder) / "rainflow_loop.so"
        subprocess.run(["cc", "-O3", "-march=native", "-shared", "-fPIC", "-o", library, SOURCE, "-lm"], check=True)
        self.library = ctypes.CDLL(str(library))
        self.library.rainflow.restype = ctypes.c_int64
        self.library.damage.restype = ctypes.c_double

    def table(self, samples: np.ndarray) -> int:
        table = Table()
        rows = self.library.rainflow(_pointer(samples), ctypes.c_int64(samples.size), ctypes.byref(table))
        self.library.free_table(ctypes.byref(table))
        return int(rows)

    def damage(self, samples: np.ndarray) -> float:
        values = [ctypes.c_double(one) for one in (*CURVE.points[0], float(CURVE.above), float(CURVE.below))]
        return float(self.library.damage(_pointer(samples), ctypes.c_int64(samples.size), *values))

    def matrix(self, samples: np.ndarray) -> np.ndarray:
        cells = np.zeros((CLASSES, CLASSES))
        low, high = float(samples.min()), float(samples.max())
        span = ctypes.c_double((high - low) * (1.0 + 1e-12))
        size = ctypes.c_int64(samples.size)
        self.library.matrix(
            _pointer(samples), size, ctypes.c_double(low), span, ctypes.c_int64(CLASSES), _pointer(cells)
        )
        return cells


def _pointer(array: np.ndarray) -> ctypes.c_void_p:
    return array.ctypes.data_as(ctypes.c_void_p)


def white_noise(size: int) -> np.ndarray:
    return np.random.default_rng(1).standard_normal(size)


def random_walk(size: int) -> np.ndarray:
    return np.cumsum(np.random.default_rng(1).standard_normal(size))


def narrow_band(size: int) -> np.ndarray:
    """A sine of slowly wandering phase and amplitude, about 90 samples a cycle."""
    time_s = np.arange(size) / 100.0
    phase = 2.0 * np.pi * 1.1 * time_s + np.cumsum(np.random.default_rng(2).standard_normal(size)) * 0.02
    return np.sin(phase) * (1.0 + 0.4 * np.sin(0.013 * time_s))


def in_turn(ours: Callable[[], object], theirs: Callable[[], object], rounds: int = ROUNDS) -> tuple[float, float]:
    """Median seconds of each, timed alternately after one call of both."""
    ours(), theirs()
    seconds: tuple[list[float], list[float]] = ([], [])
    for _ in range(rounds):
        for call, into in zip((ours, theirs), seconds, strict=True):
            begun = time.perf_counter()
            call()
            into.append(time.perf_counter() - begun)
    return statistics.median(seconds[0]), statistics.median(seconds[1])


def report(what: str, ours: float, theirs: float, aim: str) -> None:
    print(f"{what:<52}{ours:>10.4f}{theirs:>10.4f}{ours / theirs:>8.2f}   {aim}", flush=True)


def pieces(samples: np.ndarray, size: int = 1 << 18) -> list[np.ndarray]:
    return [samples[i : i + size] for i in range(0, samples.size, size)]


def main(size: int) -> None:
    print(f"{size:.0e} samples, median of {ROUNDS} rounds in turn, seconds")
    print(f"{'':<52}{'ours':>10}{'other':>10}{'ratio':>8}   aim")
    with tempfile.TemporaryDirectory() as folder:
        loops = Loops(folder)
        for name, signal in (
            ("white noise", white_noise(size)),
            ("random walk", random_walk(size)),
            ("narrow band", narrow_band(size)),
        ):
            assert len(rainflow(signal)) == loops.table(signal)
            report(
                f"{name}: table of cycles / C", *in_turn(partial(rainflow, signal), partial(loops.table, signal)), "1.0"
            )
            assert np.isclose(damage_of_samples(signal, CURVE), loops.damage(signal), rtol=1e-9)
            pair = in_turn(partial(damage_of_samples, signal, CURVE), partial(loops.damage, signal))
            report(f"{name}: damage in one pass / C", *pair, "1.0")

            def binned(s: np.ndarray = signal) -> np.ndarray:
                return count_chunks(pieces(s), float(s.min()), float(s.max()), classes=CLASSES).counts

            assert np.array_equal(binned(), loops.matrix(signal))
            report(f"{name}: {CLASSES} x {CLASSES} matrix / C", *in_turn(binned, partial(loops.matrix, signal)), "1.3")
        looking_up(size)
        varying()
        many_spots()
        channels(size // 4)
        reading(folder, size)


def looking_up(size: int) -> None:
    """Lives for stresses, and stresses for lives, against numpy.interp on the same points and the same values."""
    points = [(400.0, 1e4), (250.0, 1e5), (180.0, 1e6), (150.0, 1e7)]
    asked = np.random.default_rng(5).uniform(150.0, 400.0, size)
    stresses, lives = np.array(points)[::-1].T
    for form in ("log-log", "semi-log", "linear"):
        curve = table_curve(
            name="-", stress="range", r_ratio=0, points=points, above="hold", below="no damage", interpolation=form
        )
        known = curve.life(asked)
        pair = in_turn(partial(curve.life, asked), partial(np.interp, asked, stresses, lives))
        report(f"S-N curve, {form}: lives / numpy.interp", *pair, "3.0")
        back = in_turn(partial(curve.stress_at, known), partial(np.interp, known, lives[::-1], stresses[::-1]))
        report(f"S-N curve, {form}: stresses / numpy.interp", *back, "3.0")


def varying(variants: int = 1000) -> None:
    """A what-if of many values on the demo's weld, against counting and as many vectorised damage sums in plain NumPy."""
    with tempfile.TemporaryDirectory() as folder:
        _varying(read_study(write_demo(folder)), variants)


def _varying(study: Study, variants: int) -> None:
    spot = "weld toe at the grip head"
    values = [f"{20.0 + 0.01 * i:.2f} MPa/kN" for i in range(variants)]
    loads = [(event.load.samples().channel("vertical force").values, event.occurrences) for event in study.duty.events]

    def by_hand() -> list[float]:
        counted = [rainflow(samples, residue="repeated") for samples, _ in loads]
        ranges = np.concatenate([one.range for one in counted])
        often = np.concatenate([one.count * times for one, (_, times) in zip(counted, loads, strict=True)])
        found = []
        for value in values:
            stress = ranges * (1e-3 * float(value.split()[0]))
            first, second = (stress / 52.31324728) ** 3 / 5e6, (stress / 52.31324728) ** 5 / 5e6
            share = np.where(stress >= 52.31324728, first, np.where(stress >= 28.73463467, second, 0.0))
            found.append(float(share @ often))
        return found

    def ours() -> list[float]:
        fresh = dataclasses.replace(study, duty_cycle=dataclasses.replace(study.duty))
        result = what_if(fresh, f"hot_spots/{spot}/stress_per_load", values, spot=spot)
        return [one.lives[spot].damage_per_repeat or 0.0 for one in result.variants if not one.is_base]

    found = dict(zip(values, by_hand(), strict=True))
    known = [value for value in values if value != "24.50 MPa/kN"]
    assert len(ours()) >= len(known)
    assert np.allclose(sorted(found.values())[:50], sorted(ours())[:50], rtol=1e-6)
    report(f"{variants} variants / counting and NumPy sums", *in_turn(ours, by_hand, 3), "3.0")


def many_spots(spots: int = 50, size: int = 1_000_000) -> None:
    """Fifty hot spots on one channel: counted once and scaled, against one hot spot."""
    curve = CURVE
    signal = 20.0 * white_noise(size)

    def lives(count: int) -> list[float]:
        history = LoadHistory("lap", (Channel("force", signal, "force"),), 100.0)
        duty = DutyCycle("day", (Event("lap", history, 100),), 250)
        places = [
            HotSpot(
                name=f"spot {i}",
                relation=OneLoad("force", 0.5 + 0.01 * i),
                method=StressLife(sn_curve=curve),
                material=Material(name="steel"),
            )
            for i in range(count)
        ]
        return [assess_life(one, duty).life_repeats for one in places]

    ours, one = in_turn(lambda: lives(spots), lambda: lives(1), 3)
    report(
        f"{spots} hot spots on one channel / 1 spot",
        ours,
        one,
        f"counted once; {(ours - one) / (spots - 1):.4f} s each",
    )


def channels(size: int) -> None:
    """Eight channels side by side on two threads, against one after the other."""
    rng = np.random.default_rng(3)
    history = LoadHistory("eight", tuple(Channel(f"c{i}", rng.standard_normal(size), "force") for i in range(8)), 100.0)
    pair = in_turn(lambda: history.cycles_of_all(threads=2), lambda: history.cycles_of_all(threads=1))
    report(f"8 channels of {size:.0e}: 2 threads / 1", *pair, f"faster by {pair[1] / pair[0]:.2f}, aim 1.7")


def reading(folder: str, size: int) -> None:
    """A CSV file against Arrow's reader of the same columns; memory against the size of the file."""
    from pyarrow import csv

    path = Path(folder) / "large.csv"
    values = white_noise(size)
    with path.open("w") as file:
        file.write("time [s],force [kN]\n")
        for start in range(0, size, 100_000):
            rows = enumerate(values[start : start + 100_000], start=start)
            file.write("".join(f"{i / 100:.2f},{value:.5f}\n" for i, value in rows))
    report(
        f"CSV of {size:.0e} rows: read_csv / pyarrow",
        *in_turn(lambda: read_csv(path), lambda: csv.read_csv(path), 5),
        "1.2",
    )
    code = (
        f"from vivid_anvil.histories import read_csv; read_csv({str(path)!r}); print(open('/proc/self/status').read())"
    )
    peak = peak_memory(subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout)
    mega = path.stat().st_size
    what = "   peak memory of the process / size of the file"
    print(f"{what:<52}{peak / 1e6:>8.0f}MB{mega / 1e6:>8.0f}MB{peak / mega:>8.2f}   3.0")


def peak_memory(status: str) -> float:
    """Peak resident memory, bytes, from the status of a process (Linux)."""
    return 1024.0 * float(status.split("VmHWM:")[1].split()[0])


def memory(size: int) -> None:
    """Peak resident memory of counting a file of `size` samples into a matrix."""
    with tempfile.TemporaryDirectory() as folder:
        for ending in ("h5", "parquet"):
            path = Path(folder) / f"large.{ending}"
            child = subprocess.run([sys.executable, __file__, "--write", str(path), str(size)], check=True)
            assert child.returncode == 0
            done = subprocess.run(
                [sys.executable, __file__, "--count", str(path)], capture_output=True, text=True, check=True
            )
            print(
                f"{ending}: {size:.0e} samples, {path.stat().st_size / 1e9:.1f} GB; {done.stdout.strip()}", flush=True
            )
            path.unlink()


def write(path: Path, size: int) -> None:
    """Write `size` samples of white noise piece by piece."""
    import h5py
    import pyarrow as pa
    from pyarrow import parquet

    rng, step = np.random.default_rng(4), 10_000_000
    sizes = [min(step, size - start) for start in range(0, size, step)]
    if path.suffix == ".h5":
        with h5py.File(path, "w") as file:
            data = file.create_dataset("force", (size,), dtype="f8", chunks=(1 << 20,))
            data.attrs["unit"] = "N"
            start = 0
            for one in sizes:
                data[start : start + one] = rng.standard_normal(one)
                start += one
        return
    schema = pa.schema([("force [N]", pa.float64())])
    with parquet.ParquetWriter(path, schema, use_dictionary=False, compression="none") as file:
        for one in sizes:
            file.write_table(pa.table({"force [N]": rng.standard_normal(one)}, schema=schema), row_group_size=1 << 20)


def count(path: Path) -> None:
    begun = time.perf_counter()
    found = count_file(path, "force")
    peak = peak_memory(Path("/proc/self/status").read_text()) / 1e6
    seconds = time.perf_counter() - begun
    print(f"{found.matrix.total:.0f} cycles in {seconds:.0f} s (two passes), peak memory {peak:.0f} MB (aim 400)")


if __name__ == "__main__":
    words = sys.argv[1:]
    if words[:1] == ["--memory"]:
        memory(int(float(words[1])) if len(words) > 1 else 100_000_000)
    elif words[:1] == ["--write"]:
        write(Path(words[1]), int(words[2]))
    elif words[:1] == ["--count"]:
        count(Path(words[1]))
    else:
        main(int(float(words[0])) if words else 10_000_000)
