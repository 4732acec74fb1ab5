"""What one stress is worth at each node, and what is known of the worst places: held against the tensor histories."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.fields.models import LOADS, duty_of, field_of, model_with, spot
from vivid_anvil.fields import (
    assess_model,
    hottest_places,
    model_answer,
    node_life,
    node_tensors,
    trust_of,
    trust_of_nodes,
)


@pytest.mark.slow
@settings(max_examples=40, deadline=None)
@given(st.integers(1, 5), st.integers(1, 40), st.integers(0, 99), st.sampled_from(["free", "in step", "still"]))
def test_the_trust_of_all_nodes_is_that_of_each(cases, samples, seed, path):
    loads = np.random.default_rng(seed).normal(0.3, 1.0, (cases, samples))
    if path == "in step":
        loads = np.outer(np.arange(1, cases + 1), loads[0])
    if path == "still":
        loads = np.tile(loads[:, :1], (1, samples))
    result = model_with(loads)
    found = trust_of_nodes(result)
    for place, node in enumerate(result.field.node_ids.tolist()):
        tensors = node_tensors(result, node)["lap"]
        known = trust_of(tensors)
        assert found.biaxiality[place] == pytest.approx(known.biaxiality, rel=1e-6, abs=1e-9)
        if path == "free":
            assert found.off_line[place] == pytest.approx(known.off_line, rel=1e-6, abs=1e-9)
        else:
            assert found.off_line[place] == 0.0
        normal = found.direction[place]
        full = tensors[:, [0, 3, 5, 3, 1, 4, 5, 4, 2]].reshape(-1, 3, 3)
        along = np.abs(np.einsum("i,sij,j->s", normal, full, normal)).max()
        assert along == pytest.approx(np.abs(np.linalg.eigvalsh(full)).max(), rel=1e-9)


def test_two_loads_out_of_step_are_seen():
    turn = np.linspace(0.0, 2.0 * math.pi, 200, endpoint=False)
    result = model_with([np.sin(turn), np.cos(turn)])
    assert (trust_of_nodes(result).off_line > 0.1).all()
    places = hottest_places(result, 3)
    assert [one.off_straight_line for one in places] == [
        pytest.approx(trust_of_nodes(result).off_line[result.field.place_of(one.node)]) for one in places
    ]


def test_the_worst_cycle_is_that_of_the_hot_spot():
    result = assess_model(field_of(), LOADS, duty_of(), spot(notch_factor=1.3))
    for one in hottest_places(result, 6):
        life, cycle = node_life(result, one.node), one.worst_cycle
        damage = life.spectrum.damage()
        at = int(damage.argmax())
        assert cycle.highest_MPa == pytest.approx(life.spectrum.cycles.maximum[at], rel=1e-12)
        assert cycle.lowest_MPa == pytest.approx(life.spectrum.cycles.minimum[at], rel=1e-12)
        assert cycle.share_of_damage == pytest.approx(damage[at] / damage.sum(), rel=1e-9)
        assert cycle.event == one.worst_event
        event = next(e for e in result.duty_cycle.events if e.name == cycle.event)
        ends = [round(t * event.load.sample_rate) for t in (cycle.from_s, cycle.to_s)]
        history = 1.3 * result.measure_at(0).of(node_tensors(result, one.node)[cycle.event])
        assert sorted(history[ends]) == pytest.approx([cycle.lowest_MPa, cycle.highest_MPa])
        assert np.linalg.norm(cycle.direction) == pytest.approx(1.0)
        row = next(row for row in model_answer(result, most=300, apart=0).rows() if row["node"] == one.node)
        assert row["worst cycle: direction x"] == cycle.direction[0]


def test_places_above_a_level_only():
    result = assess_model(field_of(), LOADS, duty_of(), spot(), target="10 years")
    every = hottest_places(result, 300)
    limit = every[40].life_years
    few = hottest_places(result, 300, life_below=f"{limit!r} years")
    assert [one.node for one in few] == [one.node for one in every[:40]]
    assert hottest_places(result, 5, life_below=1e-9) == []


def test_a_stress_that_never_changes_has_no_cycle():
    result = model_with([np.ones(5), np.full(5, 2.0)])
    place = hottest_places(result, 1)[0]
    assert math.isinf(place.life_years)
    assert place.worst_cycle.lowest_MPa == place.worst_cycle.highest_MPa != 0.0
    assert place.off_straight_line == 0.0
