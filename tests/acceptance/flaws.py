"""A plate with a flaw, its metal and loads, as tests want them."""

from vivid_anvil import Flaw, FractureLoads, Material, Metal, PrimaryStresses, SurfaceCrack, assess_flaw

STEEL = Material(name="S355", yield_strength="355 MPa", ultimate_strength="510 MPa", toughness=2400.0)
PLATE = SurfaceCrack(thickness="25 mm", plate_width="300 mm")


def flaw(size=5.0, half_length=12.0, shape=PLATE, **others):
    return Flaw(name="A1", shape=shape, size=size, half_length=half_length, **others)


def metal(toughness=None, **others):
    return Metal(material=STEEL, toughness=toughness, **others)


def loads(membrane=150.0, bending=0.0, secondary=(), **others):
    return FractureLoads([PrimaryStresses(membrane=membrane, bending=bending)], secondary, **others)


def assessed(of=None, under=None, within=None, **others):
    return assess_flaw(of or flaw(), under or loads(), within or metal(), **others)
