"""Damage at every node of a model against the superposition of its stresses alone.

python benchmarks/whole_model.py [nodes] [samples]

Other: NumPy with BLAS, σ(t) = Σ unit stress × load(t), then signed von Mises, held in the cache (10 nodes at once). Ours: the
same stresses, their rainflow cycles, Goodman and a curve of two slopes, two threads, nothing skipped.
"""

from __future__ import annotations

import sys
from concurrent.futures import ThreadPoolExecutor

import numpy as np
from run import in_turn, report

from vivid_anvil.damage import StressLife
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.fields import CaseLoad, CaseLoads, assess_model
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import Material, knee_curve
from vivid_anvil.models import StressField
from vivid_anvil.stress import HotSpot

CHUNK = 10
CASES = ("one", "two", "three")
STEEL = Material(name="steel", ultimate_strength=900.0)
CURVE = knee_curve(
    name="two slopes", stress="amplitude", r_ratio=-1, knee_stress=180.0, knee_life=2e6, slope=5, slope_below=9
)
SPOT = HotSpot(name="model", material=STEEL, method=StressLife(sn_curve=CURVE, mean_stress="goodman"))


def model(nodes: int, samples: int) -> tuple[StressField, CaseLoads, DutyCycle]:
    random = np.random.default_rng(2)
    stresses = random.normal(0.0, 30.0, (3, nodes, 6)) * np.geomspace(1.0, 0.1, nodes)[None, :, None]
    field = StressField(
        cases=CASES, node_ids=np.arange(nodes) + 1, coordinates=random.uniform(0.0, 99.0, (nodes, 3)), stresses=stresses
    )
    channels = tuple(Channel(name, random.normal(0.0, 1.0, samples), "force") for name in CASES)
    duty = DutyCycle("lap", (Event("lap", LoadHistory("lap", channels, 100.0)),), 1.0)
    return field, CaseLoads([CaseLoad(case=name, channel=name, unit_load=1.0) for name in CASES]), duty


class Superposed:
    """Signed von Mises stress of every node and sample, in buffers that stay in the cache: BLAS, then NumPy in place."""

    def __init__(self, field: StressField, loads: np.ndarray) -> None:
        self.units, self.loads = field.stresses.transpose(1, 2, 0), loads  # node, component, case
        self.sums = np.empty((6, CHUNK, loads.shape[1]))
        self.rooms = np.empty((3, CHUNK, loads.shape[1]))

    def largest(self) -> float:
        return max(self._of(start) for start in range(0, len(self.units), CHUNK))

    def _of(self, start: int) -> float:
        units = np.ascontiguousarray(self.units[start : start + CHUNK].transpose(1, 0, 2))
        square, one, trace = self.rooms[:, : units.shape[1]]
        sums = self.sums[:, : units.shape[1]]
        for unit, into in zip(units, sums, strict=True):
            np.matmul(unit, self.loads, out=into)
        xx, yy, zz, xy, yz, zx = sums
        np.add(xx, yy, out=trace)
        trace += zz
        np.subtract(xx, yy, out=square)
        square *= square
        for first, second in ((yy, zz), (zz, xx)):
            np.subtract(first, second, out=one)
            one *= one
            square += one
        square *= 0.5
        for shear in (xy, yz, zx):
            shear *= shear
        xy += yz
        xy += zx
        xy *= 3.0
        square += xy
        np.sqrt(square, out=square)
        np.copysign(square, trace, out=square)
        return float(square.max())


def main(nodes: int, samples: int) -> None:
    field, given, duty = model(nodes, samples)
    loads = np.ascontiguousarray(given.events(duty)[0].loads.T)
    print(f"{'':<52}{'ours':>10}{'other':>10}{'ratio':>8}   aim")
    with ThreadPoolExecutor(2) as pool:

        def ours() -> float:
            found = assess_model(field, given, duty, SPOT, executor=pool, skip_harmless="no")
            return float(found.values.highest.max())

        other = Superposed(field, loads).largest

        assert np.isclose(ours(), other(), rtol=1e-9)
        report(f"{nodes} nodes, {samples} samples / NumPy stresses alone", *in_turn(ours, other), "0.5")


if __name__ == "__main__":
    main(*(int(float(one)) for one in (sys.argv[1:] or (20_000, 5_000))))
