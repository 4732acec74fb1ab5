"""From indications to flaws: projection, neighbours, recategorisation; the part and its shapes."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.acceptance.flaws import flaw, loads, metal
from vivid_anvil import (
    HoleCornerCrack,
    HoleCrack,
    Indication,
    InputError,
    Part,
    SurfaceCrack,
    assess_flaw,
    characterised,
)
from vivid_anvil.acceptance import FORMS, KINDS

PLATE = Part(form="plate", wall="25 mm", width="300 mm", hole_radius="20 mm")
PARTS = {
    "plate": PLATE,
    "cylinder, around": Part(form="cylinder, around", wall=20.0, radius=300.0),
    "cylinder, along": Part(form="cylinder, along", wall=20.0, radius=300.0),
    "sphere": Part(form="sphere", wall=20.0, radius=500.0),
}
OF_KIND = {
    "surface": {"length": 24.0, "height": 5.0},
    "embedded": {"length": 20.0, "height": 6.0, "ligament": 5.0},
    "through": {"length": 30.0},
    "edge": {"length": 12.0},
    "corner": {"length": 6.0, "height": 5.0},
    "hole": {"length": 7.0},
    "hole corner": {"length": 6.0, "height": 5.0},
}


def indication(name="A1", kind="surface", **others):
    return Indication(name=name, kind=kind, **{**OF_KIND[kind], **others})


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("form", FORMS)
def test_every_kind_in_every_part_is_a_flaw_or_told(form, kind):
    known = {"plate": KINDS}.get(form, ("surface", "embedded", "through"))
    if kind not in known:
        with pytest.raises(InputError, match="in a"):
            characterised(PARTS[form], [indication(kind=kind)])
        return
    (found,) = characterised(PARTS[form], [indication(kind=kind)])
    half = found.flaw.half_length
    assert found.rules == ()
    wanted = {
        "surface": (5.0, 12.0),
        "embedded": (3.0, 10.0),
        "through": (15.0,),
        "edge": (12.0,),
        "corner": (5.0, 6.0),
        "hole": (7.0,),
        "hole corner": (5.0, 6.0),
    }
    assert found.flaw.sizes == wanted[kind]
    assert half is None or half == wanted[kind][1]


@given(st.floats(1.0, 90.0))
def test_projection_is_the_sine_of_the_angle_to_the_stress(angle):
    (found,) = characterised(PLATE, [indication(angle=angle, kind="through")])
    assert found.flaw.size == pytest.approx(15.0 * math.sin(math.radians(angle)))
    assert len(found.rules) == (0 if angle == 90.0 else 1)


def test_neighbours_join_by_the_mean_of_their_lengths_and_chains_grow():
    near = [indication("A", length=20.0, position=0.0), indication("B", length=10.0, height=3.0, position=29.9)]
    assert len(characterised(PLATE, near)) == 1
    far = [near[0], indication("B", length=10.0, height=3.0, position=30.2)]
    assert len(characterised(PLATE, far)) == 2
    chain = [*far, indication("C", length=16.0, height=2.0, position=52.0)]
    joined = {one.flaw.name: one for one in characterised(PLATE, chain)}
    assert set(joined) == {"A + B + C"} or set(joined) == {"A", "B + C"}
    (both,) = characterised(PLATE, near)
    assert both.flaw.sizes == pytest.approx((5.0, 0.5 * (10.0 + 29.9 + 5.0)))
    assert "joined" in both.rules[0]
    assert both.of == ("A", "B")
    apart = [near[0], indication("B", length=10.0, position=29.9, weld="as welded")]
    assert len(characterised(PLATE, apart)) == 2
    alone = [indication("A", length=20.0), indication("B", length=10.0)]
    assert len(characterised(PLATE, alone)) == 2


def test_an_embedded_flaw_near_a_surface_and_a_deep_one_are_taken_as_worse():
    (kept,) = characterised(PLATE, [indication(kind="embedded", height=6.0, ligament=1.21)])
    assert kept.flaw.shape.kind == "embedded"
    (near,) = characterised(PLATE, [indication(kind="embedded", height=6.0, ligament=1.19)])
    assert near.flaw.shape.kind == "surface"
    assert near.flaw.sizes == pytest.approx((7.19, 0.5 * (20.0 + 2.38)))
    assert "0.4 of half its height" in near.rules[0]
    (through,) = characterised(PLATE, [indication(height=23.0, length=60.0)])
    assert through.flaw.shape.kind == "centre"
    assert through.flaw.size == pytest.approx(30.0 + 2.0)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: indication(height=None), "a height of a surface flaw"),
        (lambda: indication(height=26.0), "less than the wall"),
        (lambda: indication(height="0.2 in", length="24"), "unit"),
        (lambda: indication(kind="embedded", ligament=-1.0), "at least 0"),
        (lambda: indication(kind="embedded", ligament=12.0), "nearer surface"),
        (lambda: indication(kind="embedded", ligament=None), "a ligament of an embedded flaw"),
        (lambda: indication(ligament=3.0), "no ligament"),
        (lambda: indication(angle=0.0), "180 degrees"),
        (lambda: indication(weld="yes"), "as welded"),
        (lambda: Indication(name="A", kind="crack", length=5.0), "'surface'"),
        (lambda: [indication(), indication()], "twice"),
        (list, "one or more"),
        (lambda: indication(height=20.0, length=10.0), "half lengths"),
        (lambda: Part(form="plate", wall=25.0), "a width for a plate"),
        (lambda: Part(form="sphere", wall=25.0, width=3.0), "width"),
        (lambda: Part(form="pipe", wall=25.0), "cylinder, around"),
        (lambda: Part(form="sphere", wall=25.0, radius=300.0, attachment_length=5.0), "Only plates"),
    ],
)
def test_indications_that_cannot_be_are_told(make, words):
    def told():
        made = make()
        return characterised(PLATE, made if isinstance(made, list) else [made])

    with pytest.raises(InputError, match=words):
        told()


def test_flaws_at_a_hole_have_the_stress_intensity_of_one_crack_there():
    through, corner = characterised(PLATE, [indication("A1", "hole"), indication("A2", "hole corner")])
    found = assess_flaw(through.flaw, loads(80.0), metal())
    by_hand = 80.0 * float(HoleCrack(20.0, 1, 300.0).geometry_factor(7.0)) * math.sqrt(math.pi * 7.0)
    assert found.point.governing.k_primary == pytest.approx(by_hand)
    net = 80.0 / (1.0 - (40.0 + 7.0) / 300.0)
    assert found.terms.reference == pytest.approx(net)
    assert through.flaw.wall == 25.0
    own = assess_flaw(corner.flaw, loads(80.0), metal())
    shape = HoleCornerCrack(thickness=25.0, plate_width=300.0, radius=20.0, cracks=1)
    assert [end.k_primary for end in own.point.ends] == pytest.approx(
        [80.0 * y * math.sqrt(math.pi * 5.0) for y in shape.factors(5.0, 6.0)]
    )
    with pytest.raises(InputError, match="the radius of the hole"):
        characterised(Part(form="plate", wall=25.0, width=300.0), [indication("A1", "hole")])
    with pytest.raises(InputError, match="Only plates"):
        Part(form="sphere", wall=20.0, radius=500.0, hole_radius=10.0)


@pytest.mark.parametrize(("half_length", "told"), [(60.0, False), (66.0, False), (69.0, True), (74.0, True)])
def test_a_flaw_near_the_end_of_its_solution_is_told(half_length, told):
    shape = SurfaceCrack(thickness=25.0, plate_width=300.0)  # known to a half length of 75 mm
    found = assess_flaw(flaw(8.0, half_length, shape), loads(60.0), metal())
    assert ("section-near-end" in {finding.code for finding in found.findings}) == told
