"""A made-up model and its loads, for the tests of whole models."""

import numpy as np

from tests.field_values import spot_of
from vivid_anvil.fields import CaseLoad, FieldLoads, StressField
from vivid_anvil.histories import Channel, DutyCycle, Event, LoadHistory
from vivid_anvil.materials import SNCurve

SN = {"S_ref_amplitude_MPa": 120.0, "N_ref": 2e6, "m": 5.0, "tensile_strength_MPa": 900.0}
LOADS = FieldLoads(
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
