"""Ways of a crack that are the same whatever counts its sizes: rest and a later law, K that falls, where inspections begin."""

from __future__ import annotations

import dataclasses
import math

import pytest

from tests.growth.plates import crack, loads
from vivid_anvil.growth import grow_crack
from vivid_anvil.materials import ParisLaw
from vivid_anvil.shapes import EdgeCrack, SurfaceCrack, TableCrack

SLOW = ParisLaw(name="slow", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, threshold=400.0)
FAST = dataclasses.replace(SLOW, name="fast", threshold=50.0)
FALLING = TableCrack([("0.5 mm", 3.0), ("2 mm", 1.2), ("10 mm", 0.45), ("40 mm", 0.3)], "60 mm")
SIZES = {
    "one size": {"shape": EdgeCrack(60.0), "initial_size": 1.0},
    "two sizes": {
        "shape": SurfaceCrack(thickness=12.0, plate_width=150.0), "initial_size": 1.0, "initial_half_length": 2.0
    },
}  # fmt: skip


@pytest.mark.parametrize("order", ["per repeat", "cycle by cycle"])
@pytest.mark.parametrize("kind", SIZES)
def test_a_later_law_wakes_a_crack_that_rests(kind, order):
    """The life is the wait and the life by the later law."""
    wait = {"law": SLOW, "later_law": FAST, "later_law_from": 40.0}
    resting = grow_crack(crack(**SIZES[kind], order=order, **wait), loads(100.0))
    alone = grow_crack(crack(**SIZES[kind], order=order, law=FAST), loads(100.0))
    assert math.isfinite(alone.repeats[-1])
    assert resting.repeats[-1] == pytest.approx(40.0 + alone.repeats[-1], rel=1e-6, abs=1.0)
    assert resting.critical.governed_by == alone.critical.governed_by


def test_a_crack_that_comes_to_rest_on_its_way_is_woken_where_it_rests():
    law = dataclasses.replace(SLOW, threshold=300.0)
    flaw = crack(shape=FALLING, initial_size=0.6, law=law)
    rested = grow_crack(flaw, loads(110.0))
    assert rested.stopped_by == "no growth"
    assert 0.6 < rested.final_size < 40.0
    since = 2.0 * float(rested.repeats[-1])
    woken = grow_crack(dataclasses.replace(flaw, later_law=FAST, later_law_from=since), loads(110.0))
    onwards = grow_crack(dataclasses.replace(flaw, initial_size=rested.final_size, law=FAST), loads(110.0))
    assert woken.life_repeats == pytest.approx(since + onwards.life_repeats, rel=1e-6)


@pytest.mark.slow
def test_cycles_that_count_only_where_k_is_large_are_kept_when_it_falls():
    """Cycle by cycle and all at once agree on a crack whose K falls by half on its way to a chosen size."""
    flaw = crack(shape=FALLING, initial_size=0.6, law=dataclasses.replace(SLOW, threshold=180.0), stop_size=3.0)
    at_once = grow_crack(flaw, loads(95.0))
    ordered = grow_crack(dataclasses.replace(flaw, order="cycle by cycle"), loads(95.0))
    assert ordered.life_repeats == pytest.approx(at_once.life_repeats, rel=2e-3, abs=1.0)


@pytest.mark.parametrize("kind", SIZES)
def test_inspections_of_a_crack_larger_than_detectable_count_from_its_start(kind):
    flaw = crack(**SIZES[kind], detectable_size=0.5, inspection_factor=3.0, law=FAST)
    found = grow_crack(flaw, loads(100.0))
    assert found.interval_repeats == pytest.approx(found.life_repeats / 3.0, rel=1e-9)
