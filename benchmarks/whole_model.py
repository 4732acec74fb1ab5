"""Damage at every node of a model against the superposition of its stresses alone.

python benchmarks/whole_model.py [nodes] [samples]

Other: NumPy with BLAS, σ(t) = Σ unit stress × load(t), then signed von Mises, in chunks of nodes, on two threads. Ours: the same
stresses, their rainflow cycles, Goodman and a curve of two slopes, two threads, nothing skipped.
"""

from __future__ import annotations

import sys
from concurrent.futures import ThreadPoolExecutor

import numpy as np
from run import in_turn, report

from vivid_anvil.fields import CaseLoad, FieldLoads, StressField, assess_model
from vivid_anvil.histories import Channel, DutyCycle, Event, LoadHistory
from vivid_anvil.materials import Material, knee_curve
from vivid_anvil.stress import HotSpot

CHUNK = 100
CASES = ("one", "two", "three")
STEEL = Material(name="steel", ultimate_strength=900.0)
CURVE = knee_curve(
    name="two slopes", stress="amplitude", r_ratio=-1, knee_stress=180.0, knee_life=2e6, slope=5, slope_below=9
)
SPOT = HotSpot(name="model", channel="stress", stress_per_load="1", material=STEEL, curve=CURVE, mean_stress="goodman")


def model(nodes: int, samples: int) -> tuple[StressField, FieldLoads, DutyCycle]:
    random = np.random.default_rng(2)
    stresses = random.normal(0.0, 30.0, (3, nodes, 6)) * np.geomspace(1.0, 0.1, nodes)[None, :, None]
    field = StressField(
        cases=CASES, node_ids=np.arange(nodes) + 1, coordinates=random.uniform(0.0, 99.0, (nodes, 3)), stresses=stresses
    )
    channels = tuple(Channel(name, random.normal(0.0, 1.0, samples), "force") for name in CASES)
    duty = DutyCycle("lap", (Event("lap", LoadHistory("lap", channels, 100.0)),), 1.0)
    return field, FieldLoads([CaseLoad(case=name, channel=name, unit_load=1.0) for name in CASES]), duty


def superposed(field: StressField, loads: np.ndarray, start: int) -> float:
    """Signed von Mises stress of every node and sample of a chunk; the largest."""
    units = np.ascontiguousarray(field.stresses[:, start : start + CHUNK].reshape(3, -1).T)
    xx, yy, zz, xy, yz, zx = np.moveaxis((units @ loads).reshape(-1, 6, loads.shape[1]), 1, 0)
    square = 0.5 * ((xx - yy) ** 2 + (yy - zz) ** 2 + (zz - xx) ** 2) + 3.0 * (xy**2 + yz**2 + zx**2)
    return float((np.sqrt(square) * np.where(xx + yy + zz >= 0.0, 1.0, -1.0)).max())


def main(nodes: int, samples: int) -> None:
    field, given, duty = model(nodes, samples)
    loads = np.ascontiguousarray(given.events(duty)[0].loads.T)
    print(f"{'':<52}{'ours':>10}{'other':>10}{'ratio':>8}   aim")
    with ThreadPoolExecutor(2) as pool:

        def ours() -> float:
            found = assess_model(field, given, duty, SPOT, executor=pool, skip_harmless="no")
            return float(found.values.highest.max())

        def other() -> float:
            return max(pool.map(lambda start: superposed(field, loads, start), range(0, nodes, CHUNK)))

        assert np.isclose(ours(), other(), rtol=1e-9)
        report(f"{nodes} nodes, {samples} samples / NumPy stresses alone", *in_turn(ours, other), "1.5")


if __name__ == "__main__":
    main(*(int(float(one)) for one in (sys.argv[1:] or (20_000, 5_000))))
