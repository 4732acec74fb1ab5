"""Flaws that figures are drawn of: a surface flaw of a tower base under storm, with residual stress, in stages."""

import functools

import numpy as np

from tests.acceptance.flaws import assessed, flaw, loads, metal
from vivid_anvil import (
    AsWelded,
    CentreCrack,
    EmbeddedCrack,
    Flaw,
    Indication,
    KToughness,
    ParisLaw,
    Part,
    PlaceOfFlaws,
    RangesPerYear,
    ResistanceCurve,
    Stage,
    allowable_flaws,
    assess_flaw,
    assess_front,
    assess_indications,
    characterised,
    crack_front,
    flaw_looks,
    grow_flaw,
    limiting_sizes,
    sensitivity,
    tearing,
)

COATED = ParisLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
BARE = ParisLaw(name="steel in seawater", rate="2.3e-12 mm/cycle at 1 MPa√mm", slope=3.0)
RANGES = RangesPerYear([("60 MPa", "10 MPa", 1e5), ("30 MPa", "5 MPa", 6e5)])
STAGES = [Stage("coated", COATED, RANGES, "2 years"), Stage("coating gone", BARE, RANGES)]


@functools.cache
def storm():
    return assessed(
        flaw(weld="as welded"), loads(130.0, 20.0, [AsWelded(relaxed="by the load")]), metal(KToughness(k=3600.0))
    )


def listed():
    part = Part(form="plate", wall="25 mm", width="300 mm")
    rows = [Indication(name=f"W{i}", kind="surface", length=14.0 + 7.0 * i, height=1.6 + 1.9 * i) for i in range(1, 9)]
    place = PlaceOfFlaws(part=part, metal=metal(KToughness(k=4500.0)), stages=STAGES)
    return assess_indications(
        rows, {"base": place}, {"storm": loads(200.0, 20.0, [AsWelded(relaxed="by the load")])}, name="Tower base"
    )


def limits():
    own = storm()
    proof = assessed(own.flaw, loads(200.0, 20.0, [AsWelded(relaxed="by the load")]), own.metal)
    return limiting_sizes({"storm": own, "proof load": proof})


def inside():
    shape = EmbeddedCrack(thickness=25.0, plate_width=300.0, centre_depth=8.0)
    return assess_flaw(flaw(4.0, 9.0, shape), loads(150.0, 20.0), metal())


def through():
    return assess_flaw(Flaw(name="T1", shape=CentreCrack("300 mm"), size=40.0), loads(200.0), metal())


def torn():
    curve = ResistanceCurve(points=[(0.1, 60.0), (0.5, 110.0), (1.0, 135.0), (2.0, 150.0), (3.0, 155.0)])
    return tearing(assessed(flaw(8.0, 20.0), loads(200.0), metal(curve)))


def front():
    k = np.array([900.0, 1020.0, 1090.0, 1110.0, 1085.0, 1010.0, 905.0])
    rows = np.outer(k, [0.95, 1.0, 1.002, 0.999, 1.001])
    rows[4, 3] *= 1.08
    shear = np.outer(np.linspace(-200.0, 200.0, 7), np.ones(5))
    return crack_front(np.radians(np.linspace(0.0, 90.0, 7)), {"K_I": rows, "K_II": shear}, angular=True, name="corner")


def looks():
    return flaw_looks(grow_flaw(storm(), STAGES), "6 months", most=4)


def joined():
    part = Part(form="plate", wall="25 mm", width="300 mm")
    rows = [
        Indication(name="A1", kind="embedded", length=20.0, height=4.0, ligament=0.5, position=0.0),
        Indication(name="A2", kind="embedded", length=14.0, height=3.0, ligament=2.0, position=26.0, angle=60.0),
    ]
    return characterised(part, rows)[0]


FLAWS = {
    "looks": lambda _: looks(),
    "sensitivity": lambda _: sensitivity(storm()),
    "characterised": lambda _: joined(),
    "front assessed": lambda _: assess_front(front(), metal(KToughness(k=1900.0)), "210 MPa"),
    "crack front": lambda _: front(),
    "flaw": lambda _: storm(),
    "embedded flaw": lambda _: inside(),
    "through flaw": lambda _: through(),
    "flaw growth": lambda _: grow_flaw(storm(), STAGES),
    "limiting sizes": lambda _: limits(),
    "allowable flaws": lambda _: allowable_flaws(storm(), STAGES, "2 years", aspects=[0.1, 0.2, 0.4, 0.7, 1.0]),
    "flaws": lambda _: listed(),
    "tearing": lambda _: torn(),
}
