"""Following a history with the memory of the material, beside counting it: python benchmarks/local_strain.py [samples]

Prints seconds for rainflow counting alone, for following the same samples through the notch, and for a whole life by local
strain with its reserve. Asked: 1e7 samples followed within three times the time of counting.
"""

import sys
import time
from collections.abc import Callable
from typing import Any

import numpy as np

import vivid_anvil as va
from vivid_anvil.damage import LocalStrain
from vivid_anvil.materials.strain import uniform_material_law
from vivid_anvil.stress.yielding import follow_block

ROUNDS = 3


def best(call: Callable[[], Any]) -> float:
    """Least seconds of a few rounds."""
    found = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        call()
        found.append(time.perf_counter() - start)
    return min(found)


def main(samples: int = 10_000_000) -> None:
    """Print the figures."""
    steel = uniform_material_law(520.0)
    values = 150.0 * np.random.default_rng(1).standard_normal(samples)
    history = va.LoadHistory("made", (va.Channel("s", values, "stress"),), sample_rate=100.0)
    spot = va.HotSpot(
        name="notch",
        relation=va.OneLoad("s", 1.0),
        material=va.Material(name="steel"),
        method=LocalStrain(strain_life=steel),
        notch_factor=1.5,
    )

    def life(load: Any, target: float | None = None) -> va.LifeResult:
        duty = va.DutyCycle("year", (va.Event("made", load),), repeats_per_year=1)
        return va.assess_life(spot, duty, target=target)

    few = va.LoadHistory("few", (va.Channel("s", values[:5_000], "stress"),), sample_rate=100.0)
    follow_block(steel.cyclic, values[:5_000])
    va.rainflow(values[:5_000], residue="repeated")
    _ = life(few, 10.0).reserve_on_stress  # loops are compiled
    counted = best(lambda: va.rainflow(values, residue="repeated"))
    followed = best(lambda: follow_block(steel.cyclic, values))
    whole = best(lambda: life(history).damage_per_repeat)
    reserve = best(lambda: life(few, 10.0).reserve_on_stress)
    print(f"{samples:.0e} samples: rainflow {counted:.2f} s, followed {followed:.2f} s, {followed / counted:.1f} times")
    print(f"life by local strain {whole:.2f} s; with its reserve, of 5000 samples {reserve:.3f} s")


if __name__ == "__main__":
    main(*(int(float(one)) for one in sys.argv[1:2]))
