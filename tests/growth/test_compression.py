"""Cycles that stay in compression where the whole range counts: as others at R = 0, or, where the law asks for R, not at all."""

import dataclasses
from functools import partial

import pytest

from tests.by_hand import by_hand
from tests.growth.plain_loops import LAWS
from tests.growth.test_safe_side import EDGE
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.growth import grow_crack, growth_per_repeat, growth_working
from vivid_anvil.materials import TableLaw
from vivid_anvil.shapes import SurfaceCrack

ALL = {**LAWS, "table": TableLaw(name="t", points=[(50.0, 1e-7), (500.0, 1e-4), (40000.0, 1e-1)])}
TWO = dataclasses.replace(
    EDGE, shape=SurfaceCrack(thickness="20 mm", plate_width="200 mm"), initial_half_length="5 mm", detectable_size=None
)
CRACKS = {"one size": EDGE, "two sizes": TWO}


def days(*rows):
    """Days of constant amplitudes (largest, smallest, cycles), MPa."""
    loads = [Event(f"load {i}", ConstantAmplitude("stress", *row, "stress")) for i, row in enumerate(rows)]
    return DutyCycle("day", loads, repeats_per_year=250)


def cracked(size, law, **changes):
    return dataclasses.replace(CRACKS[size], law=ALL[law], counted_part="full", **changes)


@pytest.mark.slow
@pytest.mark.parametrize("law", ALL)
@pytest.mark.parametrize("size", CRACKS)
def test_compression_counts_the_same_in_both_orders(size, law):
    both, open_alone = days((100.0, 0.0, 20.0), (-20.0, -120.0, 20.0)), days((100.0, 0.0, 20.0))
    expected = days((100.0, 0.0, 40.0)) if not ALL[law].form_knows_r else open_alone
    flaw = cracked(size, law)
    found = grow_crack(flaw, both)
    assert found.life_repeats == pytest.approx(grow_crack(flaw, expected).life_repeats, rel=1e-9)
    assert found.growth_at(2.5) == pytest.approx(grow_crack(flaw, expected).growth_at(2.5), rel=1e-9)
    ordered = grow_crack(dataclasses.replace(flaw, order="cycle by cycle"), both)
    assert ordered.life_repeats == pytest.approx(found.life_repeats, rel=2e-4, abs=1.0)
    told = {one.code: one.severity for one in found.findings}
    assert told.get("compression-left-out") == ("severe" if ALL[law].form_knows_r else None)
    tensile = dataclasses.replace(flaw, counted_part="tensile")
    plain = grow_crack(tensile, open_alone).life_repeats
    assert grow_crack(tensile, both).life_repeats == pytest.approx(plain, rel=1e-9)


@pytest.mark.parametrize("law", ["paris", "two-stage", "table"])
def test_compression_by_residual_stress_counts_the_same_in_both_orders(law):
    flaw = cracked("one size", law, residual_stress=[(0.0, -120.0), (60.0, -120.0)])
    found = grow_crack(flaw, days((100.0, 0.0, 40.0)))
    free = dataclasses.replace(flaw, residual_stress=None)
    assert found.growth_at(2.5) == pytest.approx(grow_crack(free, days((100.0, 0.0, 40.0))).growth_at(2.5), rel=1e-9)
    ordered = grow_crack(dataclasses.replace(flaw, order="cycle by cycle"), days((100.0, 0.0, 40.0)))
    assert ordered.life_repeats == pytest.approx(found.life_repeats, rel=2e-4, abs=1.0)
    there = partial(flaw.shape.k_of_stress, flaw.residual_stress)
    assert float(growth_per_repeat(found.drive, flaw.shape, flaw.law, there)(2.5)) == pytest.approx(
        found.growth_at(2.5), rel=1e-9
    )


@pytest.mark.parametrize("law", ["two-stage", "table", "threshold over R"])
@pytest.mark.parametrize("residual", [None, [(0.0, -50.0), (60.0, -50.0)]])
def test_the_working_of_a_cycle_in_compression_is_redone_by_hand(law, residual):
    result = grow_crack(
        cracked("one size", law, residual_stress=residual), days((-20.0, -150.0, 20.0), (90.0, 80.0, 1.0))
    )
    steps = growth_working(result).steps
    assert any("stays in compression" in step.title for step in steps)
    for step in steps:
        if "Σ" not in step.formula or "Σ n × da/dN" in step.formula:
            assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-6), step.title
