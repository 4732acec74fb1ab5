"""Every kind of event and every choice of a duty cycle on a whole model: against hot spots that the load feeds directly."""

import math

import numpy as np
import pytest

from tests.fields.models import CHANNEL, DUTIES, PULL, STEADY, duty, field_of, limited, pulled, spot
from tests.spots import changed
from vivid_anvil.damage import assess_life, reserve_on_stress
from vivid_anvil.events import BETWEEN, ConstantAmplitude
from vivid_anvil.fields import CaseLoads, assess_model, hottest_places, model_answer, node_life, reserves_on_stress
from vivid_anvil.models import StressField


@pytest.mark.slow
@pytest.mark.parametrize("name", DUTIES)
@pytest.mark.parametrize("below", ["as the curve says", "consistent"])
def test_a_node_is_the_hot_spot_that_the_load_feeds(name, below):
    field, month = pulled(), DUTIES[name]
    at = changed(spot(mean_stress="goodman", notch_factor=1.1), curve=limited(limit=20.0), below_knee=below)
    model = assess_model(field, PULL, month, at, measure="component xx", target="500 years", chunk=5)
    reserves = reserves_on_stress(model)
    for place, node in enumerate(field.node_ids.tolist()):
        per_load = f"{float(field.stresses[0, place, 0]) / 10.0!r} MPa/kN"
        direct = assess_life(changed(at, channel=CHANNEL, stress_per_load=per_load), month, target="500 years")
        assert model.damage_per_repeat[place] == pytest.approx(direct.damage_per_repeat, rel=1e-9, abs=1e-300)
        assert model.values.highest[place] == pytest.approx(direct.spectrum.highest, rel=1e-9)
        assert node_life(model, node).damage_per_repeat == pytest.approx(direct.damage_per_repeat, rel=1e-9, abs=1e-300)
        assert reserves[place] == pytest.approx(reserve_on_stress(direct.spectrum, direct.target_repeats), rel=1e-6)


def test_what_happens_between_events_may_be_the_worst():
    """Two small histories far apart: only together they do much."""
    rise = duty(
        ConstantAmplitude.from_range(CHANNEL, "1 kN", r_ratio=0.9, cycles=1),
        ConstantAmplitude.from_range(CHANNEL, "1 kN", r_ratio=-0.2, cycles=1),
        between="in the order given",
    )
    model = assess_model(pulled(), PULL, rise, spot(), measure="component xx")
    place = hottest_places(model, 1)[0]
    assert place.worst_event == BETWEEN == place.worst_cycle.event
    assert place.worst_cycle.from_s is None
    assert model.to_frame()["worst event"][model.worst] == BETWEEN
    row = model_answer(model, most=1).rows()[0]
    assert row["worst cycle: highest stress [MPa]"] - row["worst cycle: lowest stress [MPa]"] > 0.0


def test_equal_cycles_of_a_von_mises_stress_go_between_its_two_ends():
    whole = field_of(5)
    steady = {"vertical": whole.of_case("vertical"), "weight": whole.of_case("weight")}
    field = StressField(
        cases=list(steady), node_ids=whole.node_ids, coordinates=whole.coordinates, stresses=list(steady.values())
    )
    loads = CaseLoads(PULL.cases, {"weight": 1.0})
    model = assess_model(field, loads, duty(STEADY), spot())
    for place in range(5):
        ends = [load / 10e3 * steady["vertical"][place] + steady["weight"][place] for load in (20e3, -4e3)]
        high, low = sorted((model.measure.of(end).item() for end in ends), reverse=True)
        assert math.isclose(model.values.highest[place], high)
        assert math.isclose(model.values.lowest[place], low)
    assert np.isfinite(model.damage_per_repeat).all()
