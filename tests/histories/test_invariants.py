"""What holds for every repair of every history: nothing else moves, sizes do not matter, what is parted joins again."""

import inspect

import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from vivid_anvil.counting import rainflow
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import (
    REPAIRS,
    Channel,
    LoadHistory,
    check_history,
    combine,
    cut,
    estimate_psd,
    history_from_frame,
    join,
    read_history,
    remove_drift,
    remove_offset,
    repair_step,
    scale,
    write_history,
)

RATE = 100.0
STEPS = st.integers(-32000, 32000).map(lambda whole: whole / 64.0)  # differences of these are exact
VALUES = arrays(np.float64, st.integers(60, 200), elements=STEPS)
# What each repair is told, beside the channel, for a history of 60 samples or more at 100 Hz.
TOLD = {
    "cut": {"start": "0.1 s", "end": 0.45},
    "remove_offset": {"channel": "force"},
    "remove_drift": {"channel": "force"},
    "interpolate_spikes": {"channel": "force", "samples": [7, 8, 30]},
    "scale": {"channel": "force", "factor": 1.02},
    "low_pass": {"channel": "force", "frequency": "20 Hz"},
    "high_pass": {"channel": "force", "frequency": 2.0},
    "resample": {"sample_rate": "200 Hz"},
    "combine": {"name": "sum", "unit": "kN", "factors": {"force": 0.5, "other": -2.0}},
}
LINEAR = sorted(TOLD)


def of(values):
    """Two channels; the second falls as the first rises."""
    return LoadHistory("lap", (Channel("force", values, "force"), Channel("other", 3.0 - 2.0 * values, "force")), RATE)


def straight(values):
    """The same through the origin."""
    return LoadHistory("lap", (Channel("force", values, "force"), Channel("other", -2.0 * values, "force")), RATE)


def test_every_repair_of_one_history_is_tried():
    assert {*REPAIRS} - {"rosette"} == {*TOLD}  # that one asks for three strains: beside the rosettes


@pytest.mark.parametrize("name", LINEAR)
@settings(max_examples=25)
@given(values=VALUES, factor=st.sampled_from([0.001, 2.5, 1000.0, -1.0]))
def test_a_repair_does_the_same_at_any_size(name, values, factor):
    once = repair_step(straight(values), {"step": name, **TOLD[name]})
    larger = repair_step(straight(factor * values), {"step": name, **TOLD[name]})
    size = abs(factor) * (1.0 + np.abs(values).max())
    for one, other in zip(once.channels, larger.channels, strict=True):
        assert other.values == pytest.approx(
            factor * one.values, abs=1e-8 * size * (1000.0 if name == "combine" else 1.0)
        )


@pytest.mark.parametrize("name", LINEAR)
@settings(max_examples=15)
@given(values=VALUES)
def test_a_repair_touches_its_channel_only_and_says_so(name, values):
    before = of(values)
    kept = [channel.values.copy() for channel in before.channels]
    after = repair_step(before, {"step": name, **TOLD[name]})
    assert all((channel.values == old).all() for channel, old in zip(before.channels, kept, strict=True))
    assert after.name == before.name
    assert len(after.repairs) == len(before.repairs) + 1
    assert after.repairs[-1]
    if "channel" in TOLD[name]:
        assert (after["other"].values == before["other"].values).all()
        assert after.sample_rate == RATE
    assert not after.channels[0].values.flags.writeable


@pytest.mark.parametrize("name", LINEAR)
def test_a_step_of_a_study_is_the_function(name):
    history = of(np.sin(np.arange(120.0)))
    by_step = repair_step(history, {"step": name, **TOLD[name]})
    by_call = REPAIRS[name](history, **TOLD[name])
    for one, other in zip(by_step.channels, by_call.channels, strict=True):
        assert (one.values == other.values).all()
    assert by_step.repairs == by_call.repairs
    for argument in TOLD[name]:
        assert argument in inspect.signature(REPAIRS[name]).parameters
    with pytest.raises(InputError):
        repair_step(history, {"step": name, **TOLD[name], "beyond": 1.0})


@given(values=VALUES)
def test_what_is_taken_out_once_is_out(values):
    for repair in (remove_offset, remove_drift):
        once = repair(of(values), channel="force")["force"].values
        twice = repair(repair(of(values), channel="force"), channel="force")["force"].values
        assert twice == pytest.approx(once, abs=1e-9 * (1.0 + np.abs(values).max()))
    assert remove_offset(of(values), channel="force")["force"].values.mean() == pytest.approx(0.0, abs=1e-9 * 500.0)


@given(values=VALUES, at=st.floats(0.1, 0.9))
def test_two_parts_join_to_the_whole(values, at):
    whole = of(values)
    last = max(2, min(values.size - 3, round(at * values.size)))
    parts = [cut(whole, end=last / RATE), cut(whole, start=(last + 1) / RATE, end=(values.size - 1) / RATE)]
    joined = join(parts, name="lap")
    assert (joined["force"].values == whole["force"].values).all()
    assert (joined["other"].values == whole["other"].values).all()
    assert joined.sample_rate == RATE


@given(values=VALUES, first=st.floats(-3.0, 3.0), second=st.floats(-3.0, 3.0))
def test_a_combination_is_a_sum_in_any_order_and_unit(values, first, second):
    history = of(values)
    one = combine(history, name="sum", unit="kN", factors={"force": first, "other": second})
    other = combine(history, name="sum", unit="N", factors={"other": second, "force": first})
    wanted = first * history["force"].values + second * history["other"].values
    assert one["sum"].dimension == "force"
    scale_of = 1e-9 * (1.0 + np.abs(wanted).max())
    for found in (one, other):  # what is added has its own unit: that of the sum says what it is, not how large
        assert found["sum"].values == pytest.approx(wanted, abs=scale_of)


@given(values=VALUES, offset=STEPS)
def test_a_shift_moves_means_and_a_factor_everything(values, offset):
    base = rainflow(values)
    shifted = rainflow(values - offset)
    assert shifted.total == base.total
    assert np.sort(shifted.range) == pytest.approx(np.sort(base.range), abs=1e-9 * 1000.0)
    doubled = rainflow(scale(of(values), channel="force", factor=2.0)["force"].values)
    assert doubled.range == pytest.approx(2.0 * base.range)
    assert doubled.mean == pytest.approx(2.0 * base.mean)


@settings(max_examples=15, deadline=None)
@given(values=VALUES)
def test_a_frame_a_file_and_a_history_hold_the_same(values, tmp_path_factory):
    folder = tmp_path_factory.mktemp("same")
    history = of(values)
    frame = pd.DataFrame({"force [N]": values, "other [kN]": (3.0 - 2.0 * values) / 1000.0})
    of_frame = history_from_frame(frame, sample_rate=RATE)
    back = read_history(write_history(history, folder / "lap.csv"))
    for found in (of_frame, back):
        assert found["force"].values.tolist() == values.tolist()
        assert found["other"].values == pytest.approx(history["other"].values, rel=1e-14)
        assert found.sample_rate == pytest.approx(RATE)
    one, other = check_history(history), check_history(back)
    assert [check.channel for check in one] == [check.channel for check in other]
    assert [check.findings for check in one] == [check.findings for check in other]


@settings(max_examples=15)
@given(values=VALUES, factor=st.sampled_from([0.5, 3.0]))
def test_the_power_of_a_history_goes_with_its_square_and_holds_its_variance(values, factor):
    values = values + 400.0 * np.sin(2.0 * np.pi * 10.0 * np.arange(values.size) / RATE)
    one, larger = (
        estimate_psd(LoadHistory("lap", (Channel("force", k * values, "force"),), RATE), "force", segment="0.5 s")
        for k in (1.0, factor)
    )
    assert larger.psd.moment(0.0) == pytest.approx(factor**2 * one.psd.moment(0.0), rel=1e-9)
    assert one.psd.band[1] <= RATE / 2.0
