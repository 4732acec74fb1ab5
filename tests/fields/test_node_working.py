"""The hand calculation of a node: every printed line through a calculator, and its end is the stress that was counted."""

import dataclasses

import numpy as np
import pytest

from tests.by_hand import by_hand
from tests.fields.models import DUTIES, LOADS, PULL, duty_of, field_of, pulled, rows_of, spot
from vivid_anvil.damage import life_working
from vivid_anvil.fields import assess_model, node_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.measures import MEASURES, NormalStress, stress_measure
from vivid_anvil.units import shown


def checked(result, node, system="metric"):
    """The working of a node with every line redone."""
    working = life_working(node_life(result, node), system)
    for step in working.steps:
        assert by_hand(step.numbers) == pytest.approx(step.value, rel=1e-4, abs=2e-4), (step.title, step.numbers)
    return working


def counted(working, end):
    """The stress that is counted at an end of the cycle: the last of its steps before the notch factor."""
    return [step.value for step in working.steps if step.title.startswith(f"At the cycle's {end}: ")][-1]


@pytest.mark.slow
@pytest.mark.parametrize("measure", [*MEASURES, "along"])
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_line_can_be_redone(measure, system):
    how = NormalStress((1.0, -2.0, 0.5)) if measure == "along" else stress_measure(measure)
    result = assess_model(field_of(), LOADS, duty_of(), spot(notch_factor=1.3), measure=how)
    for node in result.field.node_ids[[0, 7, 60]].tolist():
        life = node_life(result, node)
        if life.damage_per_repeat == 0.0:
            continue
        working = checked(result, node, system)
        cycles = life.spectrum.cycles
        for end, of in (("maximum", cycles.maximum), ("minimum", cycles.minimum)):
            found = counted(working, end)
            if measure.startswith("component"):
                title = f"At the cycle's {end}: {measure.capitalize()}"
                found = next(step.value for step in working.steps if step.title == title)
            near = np.abs(np.asarray(shown(of / 1.3, "stress", system)) - found)
            assert near.min() < 1e-9 * abs(found) + 1e-9


def test_the_words_say_of_what():
    result = assess_model(rows_of(), LOADS, duty_of(), spot(notch_factor=2.0))
    text = str(checked(result, int(result.field.node_ids[result.worst])))
    assert "σ_constant" in text
    assert "K_f × (S_n + S_0)" in text
    alone = assess_model(field_of(), LOADS, only_stop(), spot())
    assert "factor of the event" in str(checked(alone, int(alone.field.node_ids[alone.worst])))
    with pytest.raises(InputError, match="a node number"):
        node_life(result, 99999)


def only_stop():
    whole = duty_of()
    return dataclasses.replace(whole, events=whole.events[1:])


@pytest.mark.parametrize("name", DUTIES)
def test_cycles_without_a_course_in_time_are_worked_too(name):
    result = assess_model(pulled(), PULL, DUTIES[name], spot(), measure="component xx")
    node = int(result.field.node_ids[result.worst])
    checked(result, node)
