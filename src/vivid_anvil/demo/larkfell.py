"""The Larkfell chairlift, made up: a seeded generator of what the hanger arm of a carrier feels.

A lap takes eight minutes at 100 Hz: boarding in the lower terminal, twelve support towers, sway in the wind at about
0.25 Hz, and alighting. An emergency stop makes the carrier bounce on the rope. Forces in kN, positive in tension.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.models import Elements, StressField, write_field_hdf5
from vivid_anvil.shapes.solutions import compact_tension

RATE = 100.0  # Hz
LAP = 480.0  # s
STOP = 60.0  # s
SEED = 20260
TOWERS = 55.0 + 31.5 * np.arange(12)  # s, when the grip runs over the first sheave of each tower
EMPTY_WEIGHT = 1.62  # kN, carrier alone
PASSENGERS = 2.35  # kN
PIECE_FORCE, PIECE_THICKNESS, PIECE_WIDTH = 4500.0, 12.5, 50.0  # N (range), mm: the test piece of the growth readings


def loaded_lap(seed: int = SEED) -> FloatArray:
    """Vertical force on the hanger arm during a lap with passengers, kN, shape (48000,)."""
    return _lap(np.random.default_rng([seed, 1]), passengers=PASSENGERS, wind=0.16)


def empty_lap(seed: int = SEED) -> FloatArray:
    """The same without passengers."""
    return _lap(np.random.default_rng([seed, 2]), passengers=0.0, wind=0.07)


def emergency_stop(seed: int = SEED) -> FloatArray:
    """Vertical force during a stop of the rope with passengers, kN, shape (6000,)."""
    rng = np.random.default_rng([seed, 3])
    time = np.arange(round(STOP * RATE)) / RATE
    since = np.maximum(time - 8.0, 0.0)
    bounce = 2.9 * np.exp(-since / 7.5) * np.sin(2.0 * np.pi * 0.42 * since)
    return EMPTY_WEIGHT + PASSENGERS + bounce + _sway(time, rng, 0.12) + 0.015 * rng.standard_normal(time.size)


def _lap(rng: np.random.Generator, *, passengers: float, wind: float) -> FloatArray:
    time = np.arange(round(LAP * RATE)) / RATE
    boarded = _ramp(time, 22.0, 1.2) - _ramp(time, 452.0, 1.6)
    force = EMPTY_WEIGHT + passengers * boarded
    weight = EMPTY_WEIGHT + passengers
    for moment, sign in ((22.6, 1.0), (452.4, -1.0)):  # people sit down, and get up
        since = np.maximum(time - moment, 0.0)
        force = force + sign * 0.22 * passengers * np.exp(-since / 0.9) * np.sin(2.0 * np.pi * 1.6 * since)
    for moment in TOWERS:
        force = force + weight * _tower(time - moment, rng)
    outside = _ramp(time, 38.0, 4.0) - _ramp(time, 440.0, 4.0)
    return force + outside * _sway(time, rng, wind) + 0.012 * rng.standard_normal(time.size)


def _tower(since: FloatArray, rng: np.random.Generator) -> FloatArray:
    """Share of the weight: the arm is lifted over the sheaves, which rattle, then swings out."""
    strength = 0.235 + 0.05 * rng.standard_normal()
    on = np.maximum(since, 0.0)
    under = (since > 0.0) & (since < 1.6)
    sheaves = 0.06 * np.sin(2.0 * np.pi * 5.2 * on) * np.sin(np.pi * on / 1.6) * under
    swing = strength * np.exp(-on / 1.7) * np.sin(2.0 * np.pi * 1.15 * on)
    return np.asarray(sheaves + swing, dtype=np.float64)


def _sway(time: FloatArray, rng: np.random.Generator, size: float) -> FloatArray:
    """Swing at about 0.25 Hz whose size follows slow gusts."""
    phase = 2.0 * np.pi * 0.25 * time + 0.8 * np.sin(2.0 * np.pi * 0.013 * time + rng.uniform(0.0, 2.0 * np.pi))
    gusts = 1.0 + 0.6 * np.sin(2.0 * np.pi * 0.0071 * time + rng.uniform(0.0, 2.0 * np.pi))
    return np.asarray(size * gusts * np.sin(phase + rng.uniform(0.0, 2.0 * np.pi)), dtype=np.float64)


def _ramp(time: FloatArray, moment: float, width: float) -> FloatArray:
    """A smooth step from 0 to 1 around `moment`, s."""
    return np.asarray(0.5 * (1.0 + np.tanh((time - moment) / (0.5 * width))), dtype=np.float64)


HISTORIES: dict[str, Callable[[], FloatArray]] = {
    "loaded_lap": loaded_lap,
    "empty_lap": empty_lap,
    "emergency_stop": emergency_stop,
}


# Stress amplitudes, MPa, of fatigue tests on pieces of the bent tube, and how many at each; run out at 5 million cycles.
TUBE_LEVELS = ((300.0, 4), (260.0, 5), (235.0, 5), (220.0, 6), (208.0, 6), (198.0, 5), (185.0, 3))
RUN_OUT = 5e6


def tube_tests(seed: int = SEED) -> list[tuple[float, float, bool]]:
    """Fatigue tests of the tube, fully reversed: amplitude MPa, life in cycles, whether it ran out.

    Each piece has a fatigue limit of its own, near 200 MPa; above it the life falls with the stress above the limit.
    """
    rng = np.random.default_rng([seed, 4])
    rows = []
    for stress, pieces in TUBE_LEVELS:
        for _ in range(pieces):
            limit = 199.0 * 10.0 ** (0.017 * rng.standard_normal())
            scatter = 0.11 * rng.standard_normal()
            life = 10.0 ** (7.75 - 1.25 * np.log10(stress - limit) + scatter) if stress > limit else np.inf
            rows.append((stress, min(float(f"{life:.3g}"), RUN_OUT), life >= RUN_OUT))
    return rows


def write_tests(folder: Path) -> Path:
    """Write the tests of the tube as a CSV file into `folder`."""
    path = folder / "tube_tests.csv"
    with path.open("w", encoding="utf-8", newline="\n") as file:
        file.write("specimen,stress amplitude [MPa],life [cycles],run-out,r_ratio\n")
        for i, (stress, life, ran_out) in enumerate(tube_tests(), start=1):
            file.write(f"T{i:02d},{stress:g},{life:.0f},{'yes' if ran_out else 'no'},-1\n")
    return path


PIN_MODULUS = 206e3  # MPa
PIN_STRENGTH, PIN_B, PIN_DUCTILITY, PIN_C = (
    1185.0,
    -0.086,
    0.62,
    -0.605,
)  # σ_f', MPa, b, ε_f', c of the steel of the pin
PIN_AMPLITUDES = (0.015, 0.015, 0.01, 0.01, 0.008, 0.006, 0.006, 0.005, 0.004, 0.0035, 0.003, 0.0022, 0.0018, 0.0014)


def pin_strain_tests(seed: int = SEED) -> list[tuple[float, float, int, bool]]:
    """Strain-controlled tests of the steel of the pin: strain amplitude, stress amplitude, MPa, cycles, whether it ran out."""
    rng = np.random.default_rng([seed, 7])
    life = np.geomspace(1.0, 1e8, 4_001)
    curve = PIN_STRENGTH / PIN_MODULUS * (2.0 * life) ** PIN_B + PIN_DUCTILITY * (2.0 * life) ** PIN_C
    rows = []
    for strain in PIN_AMPLITUDES:
        mean = 10.0 ** np.interp(-np.log10(strain), -np.log10(curve), np.log10(life))
        stress = PIN_STRENGTH * (2.0 * mean) ** PIN_B * (1.0 + 0.008 * rng.standard_normal())
        reached = float(mean * 10.0 ** (0.09 * rng.standard_normal()))
        rows.append((strain, round(float(stress), 1), round(min(reached, RUN_OUT)), reached >= RUN_OUT))
    return rows


def write_strain_tests(folder: Path) -> Path:
    """Write the strain-controlled tests of the pin as a CSV file into `folder`."""
    path = folder / "pin_strain_tests.csv"
    with path.open("w", encoding="utf-8", newline="\n") as file:
        file.write("specimen,strain amplitude [%],stress amplitude [MPa],life [cycles],run-out\n")
        for i, (strain, stress, life, ran_out) in enumerate(pin_strain_tests(), start=1):
            file.write(f"P{i:02d},{100.0 * strain:g},{stress:g},{life},{'yes' if ran_out else 'no'}\n")
    return path


def growth_readings(seed: int = SEED) -> list[tuple[int, float]]:
    """Made-up readings of a crack in a compact-tension piece of the plate steel: cycles, and size, mm, read to 0.015 mm."""
    rng = np.random.default_rng([seed, 5])
    size, cycles, step, rows = 12.5, 0.0, 0.002, [(0, 12.5)]
    next_reading = size + 0.25
    while size < 33.0:
        delta_k = float(compact_tension(PIECE_FORCE, PIECE_THICKNESS, PIECE_WIDTH, size + 0.5 * step))
        cycles += step / (3.1e-13 * delta_k**2.95)
        size += step
        if size >= next_reading:
            rows.append((10 * round(cycles / 10), round(size + 0.015 * float(rng.standard_normal()), 3)))
            next_reading += 0.25
    return rows


def write_growth_readings(folder: Path) -> Path:
    """Write the readings as a CSV file into `folder`."""
    path = folder / "growth_readings.csv"
    with path.open("w", encoding="utf-8", newline="\n") as file:
        file.write("cycles,crack size [mm]\n")
        file.writelines(f"{cycles},{size:.3f}\n" for cycles, size in growth_readings())
    return path


def write_histories(folder: Path) -> list[Path]:
    """Write the three histories as CSV files into `folder`; the files that ship with the package are made by this."""
    written = []
    for name, make in HISTORIES.items():
        force = make()
        path = folder / f"{name}.csv"
        with path.open("w", encoding="utf-8", newline="\n") as file:
            file.write("time [s],vertical force [kN]\n")
            file.writelines(f"{i / RATE:.2f},{value:.4f}\n" for i, value in enumerate(force))
        written.append(path)
    return written


EVERY = 4  # of the samples of a lap are kept where both forces are written


def two_forces_lap(seed: int = SEED) -> FloatArray:
    """Vertical and lateral force at the head of the hanger during a lap with passengers, kN, at 25 Hz, shape (12000, 2)."""
    rng = np.random.default_rng([seed, 6])
    time = np.arange(round(LAP * RATE)) / RATE
    lateral = (_ramp(time, 38.0, 4.0) - _ramp(time, 440.0, 4.0)) * _sway(time, rng, 0.35)
    for moment in TOWERS:  # the grip runs askew over the sheaves, to either side
        on = np.maximum(time - moment, 0.0)
        lateral = lateral + rng.choice([-0.6, 0.6]) * np.exp(-on / 0.8) * np.sin(2.0 * np.pi * 1.9 * on)
    lateral = lateral + 0.01 * rng.standard_normal(time.size)
    return np.asarray(np.column_stack([loaded_lap(seed), lateral])[::EVERY])


def write_two_forces(folder: Path) -> Path:
    """Write the lap with both forces as a CSV file into `folder`."""
    path = folder / "two_forces_lap.csv"
    with path.open("w", encoding="utf-8", newline="\n") as file:
        file.write("time [s],vertical force [kN],lateral force [kN]\n")
        for i, (vertical, lateral) in enumerate(two_forces_lap()):
            file.write(f"{i * EVERY / RATE:.2f},{vertical:.3f},{lateral:.3f}\n")
    return path


BAR = {
    "length": 520.0,
    "width": 60.0,
    "offset": 21.0,
}  # mm: its free length, its width, how far a push stands off its middle


def write_bar_shell(folder: Path) -> Path:
    """Write forces and moments per width of the safety bar under 100 N at its end, as those of a model of shells, into `folder`.

    A cantilever of 14 by 2 shells by statics: bending to the root, twist of a push off its middle, a little bending across.
    """
    x, y = np.meshgrid(np.linspace(0.0, BAR["length"], 15), np.linspace(-0.5, 0.5, 3) * BAR["width"], indexing="ij")
    places = np.column_stack([x.ravel(), y.ravel(), 0.0 * x.ravel()])
    arm = 1.0 - places[:, 0] / BAR["length"]
    loads = np.zeros((1, len(places), 6))
    loads[0, :, 3] = 92.0 * arm + 6.0 * np.exp(-places[:, 0] / 40.0)  # the clamp adds to it
    loads[0, :, 4] = 8.0 * np.exp(-places[:, 0] / 60.0)
    loads[0, :, 5] = 9.0 * (0.8 + 0.2 * arm)
    rows = np.arange(45).reshape(15, 3)
    cells = np.stack([rows[:-1, :-1], rows[1:, :-1], rows[1:, 1:], rows[:-1, 1:]], axis=-1).reshape(-1, 4)
    field = StressField(
        cases=["bar force"],
        node_ids=np.arange(1, 46),
        coordinates=places,
        stresses=np.round(loads, 4),
        node_sets={"clamp": np.flatnonzero(places[:, 0] == 0.0)},
        elements=[Elements("quad", cells, np.arange(1, len(cells) + 1))],
        source="safety_bar_shell",
        dimension="section loads",
    )
    return write_field_hdf5(field, folder / "safety_bar_shell.h5")


LEANING_RATE = 5.0  # Hz


def leaning_lap(seed: int = SEED) -> FloatArray:
    """Force on the safety bar while passengers lean on it, N, at 5 Hz over a lap: downwards is below 0."""
    rng = np.random.default_rng([seed, 7])
    time = np.arange(round(LAP * LEANING_RATE)) / LEANING_RATE
    closed = _ramp(time, 30.0, 6.0) - _ramp(time, 450.0, 6.0)
    force = -35.0 * closed * (1.0 + 0.15 * _sway(time, rng, 1.0))  # hands at rest on it
    for start in np.sort(rng.uniform(45.0, 425.0, 14)):  # somebody leans over
        length = rng.uniform(4.0, 20.0)
        force = force - rng.uniform(90.0, 330.0) * (_ramp(time, start, 1.2) - _ramp(time, start + length, 1.6))
    for moment in TOWERS:  # and all hold on over a tower
        on = np.maximum(time - moment, 0.0)
        force = force - 55.0 * closed * np.exp(-on / 1.5) * np.sin(2.0 * np.pi * 0.8 * on) * (on > 0.0)
    return np.asarray(force + 1.5 * rng.standard_normal(time.size) * closed)


def write_leaning(folder: Path) -> Path:
    """Write that lap as a CSV file into `folder`."""
    path = folder / "leaning_lap.csv"
    with path.open("w", encoding="utf-8", newline="\n") as file:
        file.write("time [s],bar force [N]\n")
        file.writelines(f"{i / LEANING_RATE:.1f},{value:.1f}\n" for i, value in enumerate(leaning_lap()))
    return path
