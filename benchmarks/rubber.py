"""Life of rubber on all planes at many elements of a model, against plain NumPy on a few of them.

python benchmarks/rubber.py [elements] [steps]

Ours: 50 000 elements, each its own course of 200 states of large strain on a free surface, energy followed on the 826 planes of a
net of 5 degrees, the best climbed; two threads, chunks. Other: the same energies by NumPy on the net, all planes counted, of a
few elements, scaled. What bounds leave out is told.
"""

from __future__ import annotations

import resource
import sys
import time
from concurrent.futures import ThreadPoolExecutor

import numpy as np

from vivid_anvil.counting import rainflow
from vivid_anvil.damage import CrackingEnergy
from vivid_anvil.events import DutyCycle, Event, LoadStates
from vivid_anvil.fields import assess_model
from vivid_anvil.materials import Material
from vivid_anvil.materials.rubber import MooneyRivlin, PowerTearing, Rubber
from vivid_anvil.models import StressField
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.rubber import StatesInTurn, StrainFields, StrainLoads, StrainPath, without_drift
from vivid_anvil.stress.rubber.flaws_of_places import FlawsOfPlaces

LAW = MooneyRivlin(name="bush", c10=0.45, c01=0.08)
GROWTH = PowerTearing(
    name="bush", rate=3e-3, at=10.0, slope=2.0, cut_off=0.04, r_effect="crystallising", slope_rise=1.5
)
RUBBER = Rubber(name="bush", law=LAW, growth=GROWTH, initial_flaw=0.04)
METHOD = CrackingEnergy(rubber=RUBBER, surface_normal=(0.0, 0.0, 1.0))
UNDEFORMED = np.array([1.0, 1.0, 1.0, 0.0, 0.0, 0.0])
FEW = 3


def strains(elements: int, steps: int) -> np.ndarray:
    """Strains of sheets that are pulled two ways, turn and swing, E, shape (steps, elements, 6)."""
    random = np.random.default_rng(4)
    t = np.linspace(0.0, 2.0 * np.pi, steps, endpoint=False)[:, None]
    phase = random.uniform(0.0, 6.0, (4, elements))
    one = 1.25 + random.uniform(0.02, 0.3, elements) * np.sin(t + phase[0]) + 0.03 * np.sin(5.0 * t + phase[1])
    two = 1.0 + random.uniform(0.0, 0.2, elements) * np.sin(2.0 * t + phase[2])
    turn = random.uniform(0.0, 0.8, elements) * np.sin(t + phase[3])
    c, s = np.cos(turn), np.sin(turn)
    squares = np.zeros((steps, elements, 6))
    squares[..., 0] = (c * one) ** 2 + (s * two) ** 2
    squares[..., 1] = (s * one) ** 2 + (c * two) ** 2
    squares[..., 2] = 1.0 / (one * two) ** 2
    squares[..., 3] = c * s * (one**2 - two**2)
    return np.asarray(0.5 * (squares - UNDEFORMED))


def plain(field: StressField) -> float:
    """Seconds for one element by NumPy: every plane of the net, counted one after the other."""
    net, took = half_sphere(5.0), []
    for element in range(FEW):
        began = time.perf_counter()
        greens = UNDEFORMED + 2.0 * np.asarray(field.stresses)[:, element]
        path = np.concatenate([UNDEFORMED[None], greens, greens[:1]])
        energies = StrainPath(cauchy_greens=path, law=LAW, surface_normal=np.array([0.0, 0.0, 1.0])).energies(net)
        best = 0.0
        for course in without_drift(energies[:, 1:]):
            cycles = rainflow(course[:-1], residue="repeated", dimension="energy density")
            high = cycles.maximum
            ratio = np.clip(cycles.minimum / np.where(high > 0.0, high, 1.0), 0.0, 0.999)
            best = max(best, float((cycles.count / GROWTH.lives(high, ratio, 0.04, 1.0)).sum()))
        took.append(time.perf_counter() - began)
    return float(np.mean(took))


def main() -> None:
    """Measure and print."""
    elements = int(sys.argv[1]) if len(sys.argv) > 1 else 50_000
    steps = int(sys.argv[2]) if len(sys.argv) > 2 else 200
    cases = [f"state {i}" for i in range(1, steps + 1)]
    field = StressField(
        cases=cases,
        node_ids=np.arange(elements) + 1,
        coordinates=np.random.default_rng(1).uniform(0.0, 99.0, (elements, 3)),
        stresses=strains(elements, steps),
        dimension="strain",
    )
    loads = StrainFields(StrainLoads([StatesInTurn(channel="state", cases=cases)]))
    duty = DutyCycle("lap", (Event("lap", LoadStates.of({"state": f"1 to {steps}"})),))
    spot = HotSpot(name="bush", material=Material(name="rubber"), method=METHOD)
    assess_model(field.part(np.arange(4)), loads, duty, spot)  # compiles
    began = time.perf_counter()
    with ThreadPoolExecutor(2) as pool:
        result = assess_model(field, loads, duty, spot, executor=pool)
    ours = time.perf_counter() - began
    ways = loads.events(duty)[0].ways
    some = np.random.default_rng(0).choice(elements, min(200, elements), replace=False)
    places = FlawsOfPlaces(RUBBER, ways)
    counted = [places.at(np.asarray(field.stresses)[:, one], np.array([0.0, 0.0, 1.0])).counted for one in some]
    other = plain(field) * elements
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"{elements} elements x {steps} states x {len(half_sphere(5.0))} planes")
    print(f"ours, two threads: {ours:.1f} s")
    print(f"NumPy on the net, one thread, scaled from {FEW} elements: {other:.0f} s, {other / ours:.0f} times as long")
    harmless = int((~result.values.counted).sum())
    print(
        f"planes counted, of {len(half_sphere(5.0))}: {np.mean(counted):.0f} on average; elements without any: {harmless}"
    )
    print(f"memory {memory:.0f} MB, of it strains {field.stresses.nbytes / 1e6:.0f} MB")


if __name__ == "__main__":
    main()
