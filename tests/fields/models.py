"""A made-up model and its loads, for the tests of whole models."""

import numpy as np

from tests.field_values import spot_of
from vivid_anvil.events import BlockProgramme, ConstantAmplitude, DutyCycle, Event, load_spectrum
from vivid_anvil.fields import CaseLoad, CaseLoads, assess_model
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import SNCurve
from vivid_anvil.models import Rows, StressField, field_of_rows

SN = {"S_ref_amplitude_MPa": 120.0, "N_ref": 2e6, "m": 5.0, "tensile_strength_MPa": 900.0}
LOADS = CaseLoads(
    [
        CaseLoad(case="vertical", channel="vertical force", unit_load="10 kN"),
        CaseLoad(case="lateral", channel="lateral force", unit_load="2 kN", event_factors={"stop": 1.5}),
    ],
    {"weight": 1.0},
)


def field_of(nodes=300, seed=5, scale=40.0, **settings):
    """Random unit stresses that fall along the nodes, three cases."""
    rng = np.random.default_rng(seed)
    falling = np.geomspace(1.0, 0.02, nodes)[None, :, None]
    stresses = rng.normal(0.0, scale, (3, nodes, 6)) * falling
    stresses[2] *= 0.2
    given = {"node_ids": rng.permutation(nodes) + 10, "coordinates": rng.uniform(0.0, 50.0, (nodes, 3))}
    return StressField(cases=["vertical", "lateral", "weight"], **({**given, "stresses": stresses} | settings))


def duty_of(samples=400, seed=7, often=4.0, **settings):
    """Two events with both forces, kN."""
    rng = np.random.default_rng(seed)
    events = []
    for name, times, size in (("lap", 1000.0, samples), ("stop", often, samples // 3)):
        forces = {"vertical force": 12.0 + rng.normal(0.0, 6.0, size), "lateral force": rng.normal(0.0, 2.0, size)}
        channels = tuple(Channel.in_unit(key, values, "kN") for key, values in forces.items())
        events.append(Event(name, LoadHistory(name, channels, "50 Hz"), times))
    return DutyCycle("month", tuple(events), 12.0, **settings)


def spot(**settings):
    """Goodman on one slope; with a fatigue limit on request."""
    return spot_of(SN, **settings)


def limited(stress="amplitude", limit=60.0):
    """A curve with a fatigue limit, MPa in its own terms."""
    return SNCurve(
        name="limited",
        stress=stress,
        r_ratio=-1,
        points=((2.0 * limit, 1e5), (limit, 1e7)),
        above="extend",
        below="no damage",
    )


def boxes():
    """Two hexahedra side by side, twelve points."""
    points = np.array([[x, y, z] for z in (0.0, 1.0) for y in (0.0, 1.0) for x in (0.0, 1.0, 2.0)])
    cells = np.array([[0, 1, 4, 3, 6, 7, 10, 9], [1, 2, 5, 4, 7, 8, 11, 10]])
    return points, cells


CASES = ("vertical", "lateral", "weight")


def rows_of(nodes=40, each=3, seed=3, faces=("top", "bottom")):
    """A field of shells: `each` elements at a node, two faces, that disagree."""
    rng = np.random.default_rng(seed)
    base = field_of(nodes).stresses
    owner = np.repeat(np.arange(nodes), each * len(faces))
    element = np.tile(np.repeat(np.arange(each), len(faces)), nodes) + 1
    face = np.tile(np.array(faces), nodes * each)
    stresses = base[:, owner] * rng.uniform(0.6, 1.4, owner.size)[None, :, None]
    mixed = rng.permutation(owner.size)
    rows = Rows(owner[mixed], stresses[:, mixed], element[mixed], face[mixed])
    sets = {"all of them": np.arange(nodes)}
    return field_of_rows(CASES, np.arange(nodes) + 5, np.zeros((nodes, 3)), rows, node_sets=sets)


CHANNEL = "vertical force"
PULL = CaseLoads([CaseLoad(case="vertical", channel=CHANNEL, unit_load="10 kN")])
STEADY = ConstantAmplitude.from_range(CHANNEL, "24 kN", r_ratio=-0.2, cycles=300)
BLOCKS = BlockProgramme(CHANNEL, [20e3, 12e3, 9e3], [-8e3, 2e3, -9e3], [10.0, 500.0, 40.0], "force")
SPECTRUM = load_spectrum(CHANNEL, {"range": [30.0, 18.0], "cycles": [3, 900], "mean": [1.0, 4.0]}, "kN")
HISTORIES = duty_of(200).events


def duty(*loads, often=(3.0, 7.0, 2.0), **settings):
    events = [Event(f"event {i}", load, often[i]) for i, load in enumerate(loads)]
    return DutyCycle("month", tuple(events), 12.0, **settings)


DUTIES = {
    "equal cycles": duty(STEADY),
    "blocks and a history": duty(BLOCKS, HISTORIES[0].load),
    "spectrum": duty(SPECTRUM, STEADY, BLOCKS),
    "half cycles": duty(HISTORIES[0].load, HISTORIES[1].load, residue="half cycles"),
    "worst case between events": duty(HISTORIES[0].load, STEADY, between="worst case"),
    "in the order given": duty(HISTORIES[0].load, BLOCKS, HISTORIES[1].load, between="in the order given"),
    "days within a month": duty(
        duty(HISTORIES[0].load, BLOCKS, between="worst case"), HISTORIES[1].load, between="worst case"
    ),
}


def pulled(nodes=12):
    """One case; every node another stress along x."""
    whole = field_of(nodes)
    return StressField(
        cases=["vertical"], node_ids=whole.node_ids, coordinates=whole.coordinates, stresses=whole.stresses[:1]
    )


def model_with(channels, nodes=12, seed=2):
    """A model whose cases are each scaled by one of `channels`."""
    names = [f"case {i}" for i in range(len(channels))]
    stresses = np.random.default_rng(seed).normal(0.0, 2.0, (len(names), nodes, 6))
    field = StressField(cases=names, node_ids=np.arange(nodes), coordinates=np.zeros((nodes, 3)), stresses=stresses)
    forces = tuple(Channel(name, np.array(values), "force") for name, values in zip(names, channels, strict=True))
    history = LoadHistory("lap", forces, "10 Hz")
    duty = DutyCycle("lap", (Event("lap", history),), 1.0)
    return assess_model(field, CaseLoads([CaseLoad(case=n, channel=n, unit_load=1.0) for n in names]), duty, spot())
