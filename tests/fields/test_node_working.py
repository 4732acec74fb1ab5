"""The hand calculation of a node: every printed line through a calculator, and its end is the stress that was counted."""

import dataclasses

import numpy as np
import pytest

from tests.by_hand import by_hand
from tests.fields.models import DUTIES, LOADS, PULL, duty_of, field_of, pulled, rows_of, spot
from vivid_anvil.fields import assess_model, node_life, stress_working
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.measures import MEASURES, NormalStress, stress_measure
from vivid_anvil.units import shown


def checked(result, node, system="metric", end="larger"):
    """The value of the last step, MPa, after redoing all."""
    working = stress_working(result, node, system, end=end)
    for step in working.steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=3e-5, abs=2e-4), (step.title, step.numbers)
    return working


@pytest.mark.slow
@pytest.mark.parametrize("measure", [*MEASURES, "along"])
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_line_can_be_redone(measure, system):
    how = NormalStress((1.0, -2.0, 0.5)) if measure == "along" else stress_measure(measure)
    result = assess_model(field_of(), LOADS, duty_of(), spot(notch_factor=1.3), measure=how)
    for node in result.field.node_ids[[0, 7, 60]].tolist():
        found = [checked(result, node, system, end).steps[-1].value for end in ("larger", "smaller")]
        if measure.startswith("component"):
            found = [
                next(one.value for one in checked(result, node, system, end).steps if one.title.lower() == measure)
                for end in ("larger", "smaller")
            ]
        cycles = node_life(result, node).spectrum.cycles
        both = np.sort(np.column_stack([cycles.minimum, cycles.maximum]) / 1.3, axis=1)
        near = np.abs(np.asarray(shown(both, "stress", system)) - np.sort(found)).max(axis=1)
        assert near.min() < 1e-9 * np.abs(found).max()


def test_the_words_say_where_and_of_what():
    result = assess_model(rows_of(), LOADS, duty_of(), spot(notch_factor=2.0))
    node = int(result.field.node_ids[result.worst])
    text = " ".join(str(checked(result, node)).split())
    for words in ("Of the stresses there that of element", "The notch factor 2 is put in below", " s. ", "σ_constant"):
        assert words in text
    alone = assess_model(field_of(), LOADS, only_stop(), spot())
    assert "factor of the event" in str(checked(alone, int(alone.field.node_ids[alone.worst])))
    with pytest.raises(InputError, match="larger"):
        stress_working(result, node, end="upper")
    with pytest.raises(InputError, match="a node number"):
        stress_working(result, 99999)


def only_stop():
    whole = duty_of()
    return dataclasses.replace(whole, events=whole.events[1:])


@pytest.mark.parametrize("name", DUTIES)
def test_cycles_without_a_course_in_time_are_worked_too(name):
    result = assess_model(pulled(), PULL, DUTIES[name], spot(), measure="component xx")
    node = int(result.field.node_ids[result.worst])
    checked(result, node)
