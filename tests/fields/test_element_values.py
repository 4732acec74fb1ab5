"""Nodes with several stresses, sets with materials of their own, fields that follow each other."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.fields.models import CASES, LOADS, duty_of, field_of, limited, rows_of, spot
from tests.spots import changed
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.fields import (
    CaseLoad,
    CaseLoads,
    StepLoad,
    assess_model,
    critical_planes,
    hottest_places,
    node_life,
    reserves_on_stress,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.models import Rows, StressField, averaged, field_of_rows, joined_cases, of_face


def plain(field, stresses):
    return StressField(cases=CASES, node_ids=field.node_ids, coordinates=field.coordinates, stresses=stresses)


@settings(max_examples=10, deadline=None)
@given(st.integers(1, 300), st.integers(1, 4))
def test_the_worst_element_and_face_is_the_node(chunk, each):
    """Damage of every element and face by itself as a field of its own; the largest of each node is the node's."""
    field = rows_of(each=each)
    found = assess_model(field, LOADS, duty_of(), spot(), chunk=chunk)
    largest = np.zeros(field.size)
    for element in np.unique(field.rows.elements):
        for face in ("top", "bottom"):
            here = np.flatnonzero((field.rows.elements == element) & (field.rows.faces == face))
            here = here[np.argsort(field.rows.nodes[here])]
            alone = assess_model(plain(field, field.rows.stresses[:, here]), LOADS, duty_of(), spot())
            for place in np.flatnonzero(alone.damage_per_repeat > largest):
                largest[place] = alone.damage_per_repeat[place]
    assert (found.damage_per_repeat == largest).all()
    node = int(found.field.node_ids[found.worst])
    assert node_life(found, node).damage_per_repeat == pytest.approx(largest.max(), rel=1e-11)
    assert found.chosen[found.worst].startswith("element ")
    assert found.to_frame()["worst of"][found.worst].endswith(" face")


def test_averaging_is_a_choice_and_its_difference_is_known():
    field = rows_of()
    mean = averaged(field)
    assert set(mean.rows.faces) == {"top", "bottom"}
    assert mean.rows.elements is None
    top = of_face(mean, "top")
    assert top.rows is None
    here = (field.rows.nodes == 7) & (field.rows.faces == "top")
    assert top.stresses[:, 7] == pytest.approx(field.rows.stresses[:, here].mean(axis=1))
    apart = assess_model(field, LOADS, duty_of(), spot()).damage_per_repeat
    together = assess_model(mean, LOADS, duty_of(), spot()).damage_per_repeat
    one_face = assess_model(top, LOADS, duty_of(), spot()).damage_per_repeat
    assert (apart >= together * (1 - 1e-12)).all()
    assert (together >= one_face).all()
    assert (apart > 1.2 * together).sum() > 20
    assert field.spread == pytest.approx(mean.spread)
    assert averaged(mean) is mean
    both = of_face(field, "both")
    assert assess_model(both, LOADS, duty_of(), spot()).damage_per_repeat == pytest.approx(apart)


def test_rows_of_single_cases_are_joined_in_any_order():
    field = rows_of(12)
    rng = np.random.default_rng(9)
    parts = []
    for i, case in enumerate(CASES):
        mixed = rng.permutation(field.rows.nodes.size)
        rows = field.rows.take(mixed, np.arange(field.size))
        rows = dataclasses.replace(rows, stresses=rows.stresses[i : i + 1])
        parts.append(field_of_rows([case], field.node_ids, field.coordinates, rows))
    joined = joined_cases(parts)
    expected = assess_model(field, LOADS, duty_of(), spot()).damage_per_repeat
    assert (assess_model(joined, LOADS, duty_of(), spot()).damage_per_repeat == expected).all()
    few = assess_model(field.part(np.array([3, 7])), LOADS, duty_of(), spot())
    assert (few.damage_per_repeat == expected[[3, 7]]).all()
    with pytest.raises(InputError, match="the same in every load case"):
        joined_cases([parts[0], of_face(parts[1], "top")])
    with pytest.raises(InputError, match="each element's, as in the others"):
        joined_cases([parts[0], dataclasses.replace(parts[1], rows=None)])


@pytest.mark.parametrize(
    ("change", "message"),
    [
        (lambda rows: Rows(rows.nodes, rows.stresses[:, :-1], rows.elements), "one of each other"),
        (lambda rows: Rows(np.where(rows.nodes == 3, 2, rows.nodes), rows.stresses, rows.elements), "no stress"),
        (lambda rows: Rows(rows.nodes, rows.stresses, np.ones_like(rows.elements)), "an element twice at a node"),
    ],
)
def test_rows_that_do_not_fit_are_named(change, message):
    field = of_face(rows_of(6), "top")
    with pytest.raises(InputError, match=message):
        dataclasses.replace(field, rows=change(field.rows))


def test_a_face_that_is_not_there_is_named():
    field = rows_of(6)
    with pytest.raises(InputError, match="found 'middle', expected 'bottom', 'top'"):
        of_face(field, "middle")
    with pytest.raises(InputError, match="none: it has no faces"):
        of_face(field_of(5), "top")
    with pytest.raises(InputError, match="one: average, or take one face"):
        critical_planes(field, LOADS, duty_of(), spot())


def test_every_set_has_its_own_material():
    """Each node as in a model that is all of its material; where sets overlap the first named holds."""
    weld = spot(notch_factor=1.4)
    cast = changed(spot(), curve=limited(), mean_stress="none")
    sets = {"weld": np.arange(40, 90), "casting": np.arange(80, 200), "rest": np.arange(0, 3)}
    field = dataclasses.replace(field_of(), node_sets=sets)
    found = assess_model(
        field, LOADS, duty_of(), spot(), regions={"weld": weld, "casting": cast}, chunk=70, target=400.0
    )
    for at, places in ((weld, np.arange(40, 90)), (cast, np.arange(90, 200)), (spot(), np.arange(200, 300))):
        alone = assess_model(field, LOADS, duty_of(), at, target=400.0)
        assert (found.damage_per_repeat[places] == alone.damage_per_repeat[places]).all()
        assert (found.life_years[places] == alone.life_years[places]).all()
        few = places[:4]
        assert reserves_on_stress(found, few) == pytest.approx(reserves_on_stress(alone, few), rel=1e-9)
        node = int(field.node_ids[places[0]])
        assert node_life(found, node).damage_per_repeat == pytest.approx(alone.damage_per_repeat[places[0]], rel=1e-11)
    assert found.region_at(85) == "weld"
    assert list(found.to_frame()["region"][[50, 150, 250]]) == ["weld", "casting", ""]
    assert hottest_places(found, 1, node_set="weld")[0].region == "weld"
    with pytest.raises(InputError, match="Did you mean 'weld'"):
        assess_model(field, LOADS, duty_of(), spot(), regions={"wled": weld})


def test_an_element_belongs_to_its_own_set_where_materials_meet():
    field = dataclasses.replace(rows_of(faces=("",)), element_sets={"hard": np.array([2])})
    hard = spot(notch_factor=3.0)
    found = assess_model(field, LOADS, duty_of(), spot(), regions={"hard": hard})
    assert all(one == "element 2" for one in found.chosen)
    assert set(found.region_of) == {0}
    empty = dataclasses.replace(field, element_sets={"hard": np.array([99])})
    with pytest.raises(InputError, match="no stresses of its elements"):
        assess_model(empty, LOADS, duty_of(), spot(), regions={"hard": hard})


def steps_event(name, steps, often=1.0):
    channels = (Channel("step", np.array(steps), "number"), Channel.in_unit("force", np.ones(len(steps)), "kN"))
    return Event(name, LoadHistory(name, channels, "1 Hz"), often)


def test_fields_that_follow_each_other_are_the_history():
    field = field_of(60)
    duty = DutyCycle("day", (steps_event("warm-up", [1.0, 1.5, 3.0, 2.0, 2.75], 3.0),), 300.0)
    loads = CaseLoads([], sequences=[StepLoad(channel="step", cases=CASES)])
    found = assess_model(field, loads, duty, spot(), measure="component xx")
    one, two, three = (field.of_case(name)[:, 0] for name in CASES)
    by_hand = np.array([one, 0.5 * (one + two), three, two, 0.25 * two + 0.75 * three])
    assert found.values.highest == pytest.approx(by_hand.max(axis=0))
    assert found.values.lowest == pytest.approx(by_hand.min(axis=0))
    node = int(field.node_ids[4])
    assert node_life(found, node).damage_per_repeat == pytest.approx(found.damage_per_repeat[4])
    together = CaseLoads(
        [CaseLoad(case="weight", channel="force", unit_load="1 kN")],
        sequences=[StepLoad(channel="step", cases=("vertical", "lateral"))],
    )
    both = DutyCycle("day", (steps_event("warm-up", [1.0, 2.0, 1.2]),), 300.0)
    top = assess_model(field, together, both, spot(), measure="component xx").values.highest
    assert top == pytest.approx(np.max([three + one, three + two], axis=0))


@pytest.mark.parametrize(
    ("loads", "steps", "message"),
    [
        (
            CaseLoads([], sequences=[StepLoad(channel="step", cases=CASES)]),
            [1.0, 3.5],
            "sample 1: found step 3.5, expected steps",
        ),
        (CaseLoads([], sequences=[StepLoad(channel="force", cases=CASES)]), [1.0], "a number of a step"),
        (CaseLoads([], {"vertical": 1.0, "lateral": 1.0, "weight": 1.0}), [1.0], "no load case with a history"),
        (CaseLoads([], sequences=[StepLoad(channel="step", cases=(*CASES, "weight"))]), [1.0], "two loads"),
    ],
)
def test_sequences_that_do_not_fit_are_named(loads, steps, message):
    duty = DutyCycle("day", (steps_event("warm-up", steps),), 300.0)
    with pytest.raises(InputError, match=message):
        assess_model(field_of(5), loads, duty, spot())
