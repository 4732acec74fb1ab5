"""Leak before break: openings by hand, the three lengths, verdicts and their findings."""

import math

import pytest

from tests.acceptance.flaws import assessed, flaw, loads, metal
from vivid_anvil import (
    AxialPipeCrack,
    CentreCrack,
    EdgeCrack,
    Flaw,
    InputError,
    KToughness,
    ParisLaw,
    Part,
    RangesPerYear,
    Stage,
    assess_flaw,
    leak_before_break,
    opening_area,
)
from vivid_anvil.acceptance.limiting_sizes import limit_of

VESSEL = Part(form="cylinder, along", wall=12.0, radius=300.0)
LAW = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
STAGES = [Stage("service", LAW, RangesPerYear([(60.0, 1e5)]))]


def held(size=5.0, half=15.0, stress=100.0, k=4000.0):
    return assess_flaw(flaw(size, half, VESSEL.shape_of("surface")), loads(stress), metal(KToughness(k=k)))


def codes(found):
    return {one.code for one in found.findings}


def test_the_opening_of_a_crack_in_a_wide_plate_is_the_ellipse():
    wide = assess_flaw(Flaw(name="T", shape=CentreCrack("1000 m"), size=10.0), loads(100.0), metal())
    for c in (5.0, 20.0):
        assert opening_area(wide, c) == pytest.approx(2.0 * math.pi * 100.0 * c**2 / 207000.0, rel=1e-6)
    shell = assess_flaw(Flaw(name="T", shape=AxialPipeCrack(300.0, 12.0), size=10.0), loads(100.0), metal())
    assert opening_area(shell, 40.0) > 2.0 * math.pi * 100.0 * 40.0**2 / 207000.0  # a shell bulges
    with pytest.raises(InputError, match="through the wall"):
        opening_area(held(), 10.0)


def test_lengths_and_verdict():
    found = leak_before_break(held(), "8 mm²")
    assert found.breaks_through_at == pytest.approx(12.0 * 15.0 / 5.0)
    assert opening_area(found.through, found.detectable) == pytest.approx(8.0)
    assert found.limiting == pytest.approx(limit_of(found.through, (1.0,)))
    assert found.shown
    assert math.isinf(found.years_to_find)
    grown = leak_before_break(held(), 8.0, STAGES)
    assert grown.years_until_then > 0.0
    assert grown.breaks_through_at < found.breaks_through_at  # it gets rounder on its way
    assert 0.0 < grown.years_to_find < math.inf
    record = grown.to_dict()
    assert record["shown"] is True
    assert record["limiting half length [mm]"] == grown.limiting
    assert dict(grown.words("us"))["Verdict"] == "leak before break is shown"


def test_findings_of_leaks():
    assert "break-before-leak" in codes(leak_before_break(held(3.0, 60.0, 180.0, 2500.0), 1.0))
    assert "leak-found-late" in codes(leak_before_break(held(5.0, 15.0, 180.0, 2500.0), 400.0))
    assert "leak-margin-thin" in codes(leak_before_break(held(), 0.6 * opening_area(*_at_limit())))
    tough = leak_before_break(held(stress=20.0, k=1e6), 1.0)
    assert "leak-not-limited" in codes(tough)
    assert not tough.shown


def _at_limit():
    found = leak_before_break(held(), 8.0)
    return found.through, found.limiting


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: leak_before_break(held(), "20"), "20 mm"),
        (lambda: leak_before_break(held(), "20 cm^2"), "mm"),
        (lambda: leak_before_break(held(), -1.0), "above 0"),
        (
            lambda: leak_before_break(assess_flaw(flaw(6.0, None, EdgeCrack("60 mm")), loads(), metal()), 8.0),
            "part of the wall",
        ),
        (lambda: leak_before_break(assessed(), 0.0), "above 0"),
    ],
)
def test_what_cannot_leak_is_told(make, words):
    with pytest.raises(InputError, match=words):
        make()
