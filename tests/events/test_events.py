"""Events of constant amplitude, and the duty cycle."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory


@given(st.floats(0.01, 1e4), st.floats(-50.0, 0.99) | st.floats(1.01, 50.0))
def test_amplitude_and_range_and_r_mean_what_they_say(amplitude, r_ratio):
    event = ConstantAmplitude.from_amplitude("force", (amplitude, "N"), r_ratio=r_ratio, cycles=7)
    same = ConstantAmplitude.from_range("force", (2.0 * amplitude, "N"), r_ratio=r_ratio, cycles=7)
    assert (event.maximum, event.minimum) == pytest.approx((same.maximum, same.minimum))
    assert event.maximum - event.minimum == pytest.approx(2.0 * amplitude)
    assert event.minimum == pytest.approx(r_ratio * event.maximum, abs=1e-9 * amplitude)
    cycles = event.cycles_of("force")
    assert (cycles.range[0], cycles.total) == (pytest.approx(2.0 * amplitude), 7.0)


@pytest.mark.parametrize(
    ("settings", "found"),
    [
        ({"range": "-3"}, "-3"),
        ({"range": "-3 kN"}, "-3000"),
        ({"range": "3 kN", "r_ratio": 1.0}, "r_ratio: found 1"),
        ({"range": "3 kN", "cycles": 0}, "cycles: found 0"),
        ({"range": "3 kN", "cycles": "many"}, "'many'"),
        ({"range": "3 kN", "frequency": "2 s"}, "not one of frequency"),
    ],
)
def test_an_impossible_block_is_refused(settings, found):
    with pytest.raises(InputError) as caught:
        ConstantAmplitude.from_range("force", **settings)
    assert found in str(caught.value)


def history(name="lap", rate=10.0, values=(0.0, 3.0, 1.0, 2.0, 0.0)):
    return LoadHistory(name, [Channel.in_unit("force", values, "kN")], rate)


def test_a_duty_cycle_knows_its_hours_and_repeats():
    stroke = ConstantAmplitude.from_range("force", "2 kN", cycles=3600, frequency="1 Hz")
    duty = DutyCycle("shift", [Event("stroke", stroke, 2), Event("lap", history(), 9000)], repeats_per_year=100)
    assert duty.hours == pytest.approx(2.0 + 9000 * 0.4 / 3600)
    assert duty.repeats_in("3 years") == 300
    assert duty.repeats_in("12 h") == pytest.approx(4.0)
    assert duty.repeats_in("5 shifts") == duty.repeats_in("5 shift") == duty.repeats_in(5) == 5
    assert duty.sources("force") is duty.sources("force")


def test_hours_need_the_frequency_of_every_event():
    duty = DutyCycle("shift", [Event("stroke", ConstantAmplitude.from_range("force", "2 kN"))], repeats_per_year=100)
    assert duty.hours is None
    with pytest.raises(InputError, match="duration of a repeat, or of each event"):
        duty.repeats_in("12 h")


@pytest.mark.parametrize(
    ("settings", "found"),
    [
        ({"events": []}, "no event"),
        ({"events": [Event("a", history()), Event("a", history())]}, "the same name twice"),
        ({"repeats_per_year": 0}, "repeats_per_year: found 0"),
        ({"repeats_per_year": float("nan")}, "nan"),
        ({"residue": "none"}, "residue"),
        ({"repeat": " "}, "repeat"),
    ],
)
def test_an_impossible_duty_cycle_is_refused(settings, found):
    with pytest.raises(InputError) as caught:
        DutyCycle(**({"repeat": "lap", "events": [Event("a", history())], "repeats_per_year": 1.0} | settings))
    assert found in str(caught.value)


@pytest.mark.parametrize("value", ["30", "30 days", "0 years", "-1 years", "soon", 0, float("nan")])
def test_a_life_without_meaning_is_refused(value):
    duty = DutyCycle("lap", [Event("a", history())], repeats_per_year=1.0)
    with pytest.raises(InputError, match="target life"):
        duty.repeats_in(value)


@pytest.mark.parametrize("occurrences", [0, -1, float("inf"), float("nan"), "3"])
def test_occurrences_are_a_number_above_zero(occurrences):
    with pytest.raises(InputError, match="event a, occurrences"):
        Event("a", history(), occurrences)


def test_channels_of_a_history_belong_together():
    force, short = Channel.in_unit("force", [1, 2, 3], "kN"), Channel.in_unit("sway", [1, 2], "deg")
    with pytest.raises(InputError, match="equal length"):
        LoadHistory("lap", [force, short], 10.0)
    with pytest.raises(InputError, match="same name twice"):
        LoadHistory("lap", [force, force], 10.0)
    with pytest.raises(InputError, match="sample_rate"):
        LoadHistory("lap", [force], 0.0)
    with pytest.raises(InputError, match="no channel"):
        LoadHistory("lap", [], 10.0)


def test_a_channel_that_differs_between_events_is_refused():
    other = LoadHistory("bench", [Channel.in_unit("force", [1, 2, 1], "MPa")], 10.0)
    duty = DutyCycle("lap", [Event("a", history()), Event("b", other)], repeats_per_year=1.0)
    with pytest.raises(InputError, match="different dimensions"):
        duty.dimension_of_channel("force")
