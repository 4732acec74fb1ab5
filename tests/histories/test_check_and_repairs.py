"""The check sees what was put in, and each repair does what it says, and says it."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import signal

from vivid_anvil.counting import rainflow
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import (
    REPAIRS,
    Channel,
    LoadHistory,
    check_history,
    combine,
    cut,
    high_pass,
    interpolate_spikes,
    join,
    low_pass,
    principal_strains,
    principal_stresses,
    read_csv,
    remove_drift,
    remove_offset,
    repair_step,
    resample,
    scale,
)
from vivid_anvil.histories.check_history import segment_power

RATE = 100.0
TIME = np.arange(3000) / RATE
WAVE = 100.0 * np.sin(2 * np.pi * 1.0 * TIME) + 20.0 * np.sin(2 * np.pi * 0.31 * TIME)


def history(values, name="force", **settings):
    return LoadHistory(
        "run", (Channel(name, np.asarray(values, dtype=float), "force"),), **({"sample_rate": RATE} | settings)
    )


def spoiled(change):
    values = WAVE + np.random.default_rng(1).normal(0.0, 0.5, WAVE.size)
    change(values)
    return history(values)


def clip(values):
    np.clip(values, -90.0, 90.0, out=values)


def hold(values):
    values[500:700] = values[500]


def spike(values):
    values[[250, 1700]] += 400.0


def drift(values):
    values += np.linspace(0.0, 150.0, values.size)


def constant(values):
    values[:] = 3.0


SEEN = {"clipped": clip, "flat": hold, "spikes": spike, "drift": drift, "constant": constant}


@pytest.mark.parametrize("code", SEEN)
def test_what_was_put_in_is_seen(code):
    check = check_history(spoiled(SEEN[code]))[0]
    assert [finding.code for finding in check.findings] == [code]


def test_where_it_was_put_in_is_seen():
    assert check_history(spoiled(spike))[0].spikes.tolist() == [250, 1700]
    assert check_history(spoiled(hold))[0].flat.tolist() == [[500, 699]]
    assert check_history(spoiled(drift))[0].drift == pytest.approx(150.0, rel=0.1)
    assert len(check_history(spoiled(clip))[0].clipped) >= 20


def test_a_sound_history_has_its_numbers_and_no_finding(demo_file):
    check = check_history(history(WAVE))[0]
    assert (check.minimum, check.maximum, check.mean) == (WAVE.min(), WAVE.max(), pytest.approx(WAVE.mean()))
    assert check.rms == pytest.approx(np.sqrt((100**2 + 20**2) / 2), rel=0.01)
    assert check.crest_factor == pytest.approx(np.abs(WAVE - WAVE.mean()).max() / WAVE.std())
    assert check.dominant_frequency == pytest.approx(1.0, rel=0.05)
    assert check.findings == ()
    for name in ("loaded_lap", "empty_lap", "emergency_stop"):
        assert check_history(read_csv(demo_file.parent / f"{name}.csv"))[0].findings == ()


def test_a_frequency_is_named_only_where_one_stands_out():
    rng = np.random.default_rng(11)
    noise = rng.normal(size=20_000)
    for values in (noise, np.cumsum(noise), np.linspace(0.0, 1.0, 20_000) ** 2):
        assert check_history(history(values))[0].dominant_frequency == 0.0
    buried = noise + 2.0 * np.sin(2 * np.pi * 12.5 * np.arange(20_000) / 100.0)
    assert check_history(history(buried))[0].dominant_frequency == pytest.approx(12.5, abs=0.05)


def test_turning_points_closer_than_three_samples_are_a_finding():
    rng = np.random.default_rng(12)
    hasty = check_history(history(rng.normal(size=5000)))[0]
    assert hasty.samples_per_turning_point < 3.0
    assert [one.code for one in hasty.findings] == ["few-samples-a-turn"]
    slow = np.sin(2 * np.pi * 2.0 * np.arange(5000) / 100.0)
    for values in (slow, slow + 0.001 * rng.normal(size=5000)):  # small swings are left out
        check = check_history(history(values))[0]
        assert (check.samples_per_turning_point, check.findings) == (pytest.approx(25.0, rel=0.02), ())


def test_few_samples_and_uneven_times_are_seen(tmp_path):
    assert check_history(history(np.sin(2 * np.pi * 20 * TIME)))[0].findings[0].code == "few-samples"
    times = TIME[:500] + np.random.default_rng(2).uniform(-4e-5, 4e-5, 500)
    rows = "\n".join(f"{t:.7f},{v:.4f}" for t, v in zip(times, WAVE, strict=False))
    (tmp_path / "run.csv").write_text(f"time [s],force [N]\n{rows}\n")
    assert check_history(read_csv(tmp_path / "run.csv"))[0].findings[0].code == "jitter"


def values(repaired, channel="force"):
    return repaired[channel].values


def test_cutting_keeps_the_window():
    part = cut(history(WAVE), start="1 s", end="2.5 s")
    assert values(part).tolist() == WAVE[100:251].tolist()
    assert part.repairs == ("cut to 1 s to 2.5 s",)


def test_offset_and_drift_are_removed():
    assert values(remove_offset(history(WAVE + 7.0), channel="force")).mean() == pytest.approx(0.0, abs=1e-9)
    assert values(remove_offset(history(WAVE + 7.0), channel="force", offset="7 N")) == pytest.approx(WAVE)
    line = np.linspace(-50.0, 250.0, WAVE.size)
    straightened = values(remove_drift(history(line), channel="force"))
    assert straightened == pytest.approx(np.full(WAVE.size, 100.0))


def test_marked_spikes_are_bridged_and_nothing_else():
    found = interpolate_spikes(spoiled(spike), channel="force")
    clean = values(spoiled(lambda _: None))
    assert np.delete(values(found), [250, 1700]).tolist() == np.delete(clean, [250, 1700]).tolist()
    assert values(found)[[250, 1700]] == pytest.approx(WAVE[[250, 1700]], abs=5.0)
    assert values(interpolate_spikes(history([0.0, 9.0, 2.0]), channel="force", samples=[1])).tolist() == [
        0.0,
        1.0,
        2.0,
    ]


def test_filters_take_out_one_side_without_delay():
    slow, fast = np.sin(2 * np.pi * 0.5 * TIME), np.sin(2 * np.pi * 15.0 * TIME)
    inner = slice(300, -300)
    low = values(low_pass(history(slow + fast), channel="force", frequency="4 Hz"))
    high = values(high_pass(history(slow + fast), channel="force", frequency="4 Hz"))
    assert low[inner] == pytest.approx(slow[inner], abs=0.01)
    assert high[inner] == pytest.approx(fast[inner], abs=0.01)


def test_resampling_keeps_a_slow_wave():
    doubled = resample(history(WAVE), sample_rate="250 Hz")
    assert doubled.sample_rate == 250.0
    exact = 100.0 * np.sin(2 * np.pi * np.arange(7500) / 250.0) + 20.0 * np.sin(
        2 * np.pi * 0.31 * np.arange(7500) / 250.0
    )
    assert values(doubled)[500:-500] == pytest.approx(exact[500:-500], abs=0.5)


@given(st.lists(st.integers(2, 20), min_size=1, max_size=4))
def test_joining_lays_end_to_end(sizes):
    parts = [history(np.arange(size) + 100.0 * i) for i, size in enumerate(sizes)]
    whole = join(parts, name="all")
    assert values(whole).tolist() == np.concatenate([values(part) for part in parts]).tolist()
    assert len(values(whole)) == sum(sizes)


def test_combining_adds_channels_in_their_units():
    strain = Channel("gauge", np.array([1e-3, 2e-3]), "strain")
    force = Channel("force", np.array([10.0, 20.0]), "force")
    bench = LoadHistory("bench", (strain, force), 1.0)
    both = combine(bench, name="root", unit="MPa", factors={"gauge": "210 GPa/(mm/mm)", "force": "3 MPa/kN"})
    assert values(both, "root") == pytest.approx([210.0 + 0.03, 420.0 + 0.06])
    assert values(scale(bench, channel="force", factor=-2.0)).tolist() == [-20.0, -40.0]
    with pytest.raises(InputError, match="stress per force"):
        combine(bench, name="root", unit="MPa", factors={"force": "3 MPa/mm"})


@given(st.floats(-2e-3, 2e-3), st.floats(-2e-3, 2e-3), st.floats(-1.5, 1.5), st.sampled_from(["0/45/90", "0/60/120"]))
def test_a_rosette_gives_back_the_strains_it_lies_on(one, other, direction, rosette):
    angles = np.radians([float(angle) for angle in rosette.split("/")])
    gauges = 0.5 * (one + other) + 0.5 * (one - other) * np.cos(2 * (angles - direction))
    found = principal_strains(*([gauge] for gauge in gauges), rosette)
    assert (found.larger[0], found.smaller[0]) == pytest.approx((max(one, other), min(one, other)), abs=1e-12)
    if abs(one - other) > 1e-6:
        turned = direction if one > other else direction + np.pi / 2
        assert np.cos(2 * (found.direction[0] - turned)) == pytest.approx(1.0, abs=1e-6)


def test_principal_stresses_are_those_of_hooke():
    strains = principal_strains([1e-3], [0.0], [-1e-3], "0/45/90")  # pure shear: tau = G gamma, gamma = 2e-3
    stresses = principal_stresses(strains, "210 GPa", 0.3)
    assert stresses.larger[0] == pytest.approx(210e3 / 2.6 * 2e-3)
    assert stresses.smaller[0] == pytest.approx(-stresses.larger[0])


STEPS = [
    {"step": "cut", "start": "1 s", "end": "29 s"},
    {"step": "remove_offset", "channel": "force"},
    {"step": "remove_drift", "channel": "force"},
    {"step": "interpolate_spikes", "channel": "force"},
    {"step": "low_pass", "channel": "force", "frequency": "20 Hz"},
    {"step": "high_pass", "channel": "force", "frequency": "0.1 Hz"},
    {"step": "resample", "sample_rate": "200 Hz"},
    {"step": "scale", "channel": "force", "factor": 1.1},
    {"step": "combine", "name": "stress", "unit": "MPa", "factors": {"force": "3 MPa/kN"}},
    {"step": "rosette", "gauges": ["a", "b", "c"], "layout": "0/45/90", "name": "root", "elastic_modulus": "210 GPa"},
]


def test_every_repair_is_a_step_that_leaves_its_sentence():
    assert sorted(step["step"] for step in STEPS) == sorted(REPAIRS)
    bench = spoiled(spike)
    gauges = tuple(Channel(name, np.full(TIME.size, 1e-3), "strain") for name in "abc")
    done = LoadHistory("run", (*bench.channels, *gauges), RATE)
    for i, step in enumerate(STEPS, start=1):
        done = repair_step(done, step)
        assert len(done.repairs) == i
    assert rainflow(values(done)).total > 20
    assert values(done, "root larger").mean() == pytest.approx(210e3 * 1e-3 / 0.7, rel=1e-3)


@pytest.mark.parametrize(
    ("step", "message"),
    [
        ({}, "repairs, step: found ''"),
        ({"step": "smooth"}, "one of 'cut'"),
        ({"step": "cut", "ende": "3 s"}, "Did you mean 'end'"),
        ({"step": "cut"}, "the key 'end'"),
        ({"step": "cut", "end": "3"}, "without a unit"),
        ({"step": "cut", "start": "5 s", "end": "3 s"}, "a window that rises"),
        ({"step": "cut", "end": "1 h"}, "within 0 to"),
        ({"step": "scale", "channel": "farce", "factor": 2}, "Did you mean 'force'"),
        ({"step": "scale", "channel": "force", "factor": "2"}, "'2'"),
        ({"step": "low_pass", "channel": "force", "frequency": "60 Hz"}, "below half the sample rate, 50 Hz"),
        ({"step": "low_pass", "channel": "force", "frequency": "6 Hz", "order": 40}, "1 to 12"),
        ({"step": "resample", "sample_rate": "314.159265 Hz"}, "a simple ratio"),
        ({"step": "remove_offset", "channel": "force", "offset": "3 MPa"}, "not one of force"),
        ({"step": "interpolate_spikes", "channel": "force", "samples": [99999]}, "numbers from 0 to 2999"),
        ({"step": "combine", "name": "x", "unit": "N", "factors": {}}, "at least one channel"),
        ({"step": "rosette", "name": "x", "gauges": ["force"], "layout": "0/45/90"}, "three channels of strain"),
        ({"step": "rosette", "name": "x", "gauges": ["force"] * 3, "layout": "0/45/90"}, "found a force"),
    ],
)
def test_a_step_that_cannot_be_done_is_refused(step, message):
    with pytest.raises(InputError) as caught:
        repair_step(history(WAVE), step)
    assert message in str(caught.value)


def test_histories_of_different_rates_are_not_joined():
    with pytest.raises(InputError, match="Resample it"):
        join([history(WAVE), history(WAVE, sample_rate=50.0)], name="all")
    with pytest.raises(InputError, match="no channel 'force'"):
        join([history(WAVE), history(WAVE, name="sway")], name="all")
    with pytest.raises(InputError, match="3, 2 and 3 samples"):
        principal_strains([1, 2, 3], [1, 2], [1, 2, 3], "0/45/90")


@pytest.mark.parametrize("size", [8, 1_000, 4_097, 30_001])
def test_the_power_of_lines_is_that_of_another_program(size):
    values = np.random.default_rng(size).standard_normal(size) + 0.01 * np.arange(size)
    length = min(size, 4_096)
    wanted = signal.welch(signal.detrend(values), nperseg=length, detrend=False)[1]
    found = segment_power(values, length)
    inner = slice(1, -1 if length % 2 == 0 else None)  # one-sided power is not doubled at the ends
    assert found[inner] / found[1] == pytest.approx(wanted[inner] / wanted[1], rel=1e-9)
