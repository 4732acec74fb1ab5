"""What time and linearity ask of spectra, responses, sines and tailored tests, whatever the formula."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from vivid_anvil.spectra import EXPECTED_CYCLES, PSD, expected_largest, expected_ranges, synthesized
from vivid_anvil.spectra.response_density import ResponseDensity

G = 9806.65  # mm/s²
LEVELS = st.lists(st.floats(0.01, 100.0), min_size=3, max_size=6)
RATIOS = st.floats(0.005, 0.2)
OWN = st.floats(20.0, 300.0)


def psd_of(levels, low=10.0, high=400.0, dimension="stress"):
    return PSD(np.geomspace(low, high, len(levels)), levels, dimension)


def mass(own=50.0, **how):
    given = how or {"damping_ratio": 0.03}
    return va.OneDegreeOfFreedom(natural_frequency=own, stress_per_acceleration="2 MPa/g", **given)


# ---- time --------------------------------------------------------------------------------------------------------------


@given(LEVELS, st.floats(0.2, 5.0), st.floats(3.0, 9.0))
@settings(max_examples=20, deadline=None)
def test_a_process_played_faster_has_the_same_ranges_more_often(levels, speed, slope):
    slow = psd_of(levels)
    fast = PSD(slow.frequency * speed, slow.values / speed, "stress")
    for order in (0.0, 1.0, 2.0, 4.0):
        assert fast.moment(order) == pytest.approx(speed**order * slow.moment(order), rel=1e-9)
    assert fast.irregularity == pytest.approx(slow.irregularity, rel=1e-9)
    for name, formula in EXPECTED_CYCLES.items():
        asked = slope if formula.one_slope else None
        once, again = (expected_ranges(one, name, slope=asked) for one in (slow, fast))
        assert again.moment(0.0) == pytest.approx(speed * once.moment(0.0), rel=1e-8), name
        assert again.moment(slope) == pytest.approx(speed * once.moment(slope), rel=1e-8), name


@given(LEVELS, st.floats(10.0, 1e5), st.floats(1.5, 100.0))
@settings(max_examples=20, deadline=None)
def test_the_largest_of_a_longer_time_is_larger_and_goes_with_the_crossings_alone(levels, seconds, longer):
    process = psd_of(levels)
    once, again = expected_largest(process, seconds), expected_largest(process, seconds * longer)
    assert again.expected > once.expected > once.most_probable > 0.0
    assert again.deviation < once.deviation
    faster = PSD(process.frequency * longer, process.values / longer, "stress")
    assert expected_largest(faster, seconds).expected == pytest.approx(again.expected, rel=1e-9)


@given(LEVELS, st.integers(1, 50))
@settings(max_examples=10, deadline=None)
def test_a_synthesis_has_the_mean_square_of_its_density_and_is_told_by_its_seed(levels, seed):
    process = psd_of(levels)
    made = synthesized(process, 40.0, seed=seed)
    assert np.mean(made.samples**2) == pytest.approx(process.rms**2, rel=0.25)
    assert np.array_equal(made.samples, synthesized(process, 40.0, seed=seed).samples)
    assert not np.array_equal(made.samples, synthesized(process, 40.0, seed=seed + 1).samples)


@given(st.integers(1, 50), st.floats(0.3, 30.0))
@settings(max_examples=8, deadline=None)
def test_what_is_estimated_from_a_history_holds_its_mean_square(seed, level):
    made = synthesized(psd_of([level, 4.0 * level, level]), 60.0, seed=seed)
    history = va.LoadHistory("h", [va.Channel("s", made.samples, "stress")], made.sample_rate)
    found = va.estimate_psd(history, "s", segment="2 s").psd
    assert found.rms == pytest.approx(float(np.std(made.samples)), rel=0.05)
    assert found.moment(2.0) ** 0.5 == pytest.approx(psd_of([level, 4.0 * level, level]).moment(2.0) ** 0.5, rel=0.15)


# ---- responses ---------------------------------------------------------------------------------------------------------


@given(OWN, RATIOS)
@settings(max_examples=20, deadline=None)
def test_damping_means_the_same_by_every_word(own, ratio):
    """Structural damping acts at the natural frequency as viscous damping of half the loss factor."""
    words = [{"damping_ratio": ratio}, {"quality_factor": 0.5 / ratio}, {"loss_factor": 2.0 * ratio}]
    sizes = [abs(mass(own, **one).at(np.array([own]))[0]) for one in words]
    assert sizes[1] == pytest.approx(sizes[0], rel=1e-9)
    relative = [
        abs(
            va.OneDegreeOfFreedom(
                natural_frequency=own, stress_per_acceleration="2 MPa/g", motion="relative", **one
            ).at(np.array([own]))[0]
        )
        for one in words
    ]
    assert relative == pytest.approx([relative[0]] * 3, rel=1e-9)


@given(OWN, RATIOS)
@settings(max_examples=20, deadline=None)
def test_far_below_its_resonance_a_mass_follows_its_base_and_far_above_it_stays(own, ratio):
    one = mass(own, damping_ratio=ratio)
    low, top, high = (abs(value) * G for value in one.at(np.array([own / 1e4, own, own * 1e4])))
    assert low == pytest.approx(2.0, rel=1e-6)
    assert top == pytest.approx(2.0 * np.sqrt(1.0 + 4.0 * ratio**2) / (2.0 * ratio), rel=1e-9)
    assert high < 1e-3


@given(OWN, RATIOS, LEVELS)
@settings(max_examples=20, deadline=None)
def test_a_table_of_a_response_answers_as_the_response(own, ratio, levels):
    one = mass(own, damping_ratio=ratio)
    width = 2.0 * ratio * own
    f = np.unique(np.concatenate([np.geomspace(9.0, 410.0, 4000), np.linspace(own - 4 * width, own + 4 * width, 800)]))
    f = f[(f >= 9.0) & (f <= 410.0)]
    table = va.ResponseTable(frequency=f, values=one.at(f) * G)
    base = psd_of(levels, dimension="acceleration")
    inputs = va.PSDs({"x": base})
    rms = [ResponseDensity(inputs, {"x": response}).rms for response in (one, table)]
    assert rms[1] == pytest.approx(rms[0], rel=2e-3)


@given(OWN, OWN, RATIOS, LEVELS)
@settings(max_examples=20, deadline=None)
def test_inputs_that_know_nothing_of_each_other_add_mean_squares_and_one_input_twice_adds_sizes(
    own, other, ratio, levels
):
    base = psd_of(levels, dimension="acceleration")
    both = {"x": mass(own, damping_ratio=ratio), "y": mass(other, damping_ratio=ratio)}
    single = [ResponseDensity(va.PSDs({name: base}), {name: both[name]}).moment(0.0) for name in "xy"]
    apart = ResponseDensity(va.PSDs({"x": base, "y": base}), both).moment(0.0)
    assert apart == pytest.approx(sum(single), rel=1e-6)
    joined = va.PSDs({"x": base, "y": base}, {("x", "y"): va.Together()})
    twice = ResponseDensity(joined, {"x": both["x"], "y": both["x"]}).rms
    assert twice == pytest.approx(2.0 * single[0] ** 0.5, rel=1e-6)
    least, most = abs(single[0] ** 0.5 - single[1] ** 0.5), single[0] ** 0.5 + single[1] ** 0.5
    assert least * (1 - 1e-6) <= ResponseDensity(joined, both).rms <= most * (1 + 1e-6)


@given(OWN, RATIOS)
@settings(max_examples=15, deadline=None)
def test_one_mode_is_a_mass_on_a_spring_seen_from_its_base(own, ratio):
    """Relative motion: the stress of a mode is its participation over ω² times the modal stress."""
    per_g = 3.0
    relative = va.OneDegreeOfFreedom(
        natural_frequency=own, stress_per_acceleration=f"{per_g} MPa/g", motion="relative", damping_ratio=ratio
    )
    modal = va.ModalResponse(
        natural_frequency=[own],
        participation=[1.0],
        modal_stress=[per_g / G * (2.0 * np.pi * own) ** 2],
        damping_ratio=ratio,
    )
    f = np.geomspace(own / 20.0, own * 20.0, 41)
    assert np.abs(modal.at(f)) == pytest.approx(np.abs(relative.at(f)), rel=1e-9)


# ---- sines -------------------------------------------------------------------------------------------------------------


@given(st.floats(5.0, 50.0), st.floats(1.5, 20.0), st.floats(0.3, 4.0))
@settings(max_examples=15, deadline=None)
def test_a_sweep_has_the_cycles_that_its_rate_gives(start, ratio, rate):
    """f grows by 2^(rate t): cycles are (f_end - f_start) / (rate ln 2); there and back are twice as many."""
    end = start * ratio
    cycles = (end - start) / (rate / 60.0 * np.log(2.0))
    for passes, edges in ((1, (start, end)), (2, (start, end)), (1, (end, start))):
        load = va.Sine.sweep(
            "b", start=f"{edges[0]} Hz", end=f"{edges[1]} Hz", amplitude="1 g", rate=f"{rate} octave/min", passes=passes
        )
        counted = load.cycles_of("b")
        assert counted.total == pytest.approx(passes * cycles, rel=1e-6)
        assert load.duration == pytest.approx(passes * 60.0 * np.log2(ratio) / rate, rel=1e-9)
        assert counted.range.max() == pytest.approx(2.0 * G, rel=1e-9)


@given(st.lists(st.tuples(st.floats(5.0, 90.0), st.floats(0.1, 9.0), st.floats(1.0, 600.0)), min_size=1, max_size=5))
@settings(max_examples=20, deadline=None)
def test_dwells_are_their_frequency_times_their_time(rows):
    load = va.Sine.dwells("b", [(f"{f} Hz", f"{a} g", f"{t} s") for f, a, t in rows])
    counted = load.cycles_of("b")
    assert counted.total == pytest.approx(sum(f * t for f, _, t in rows), rel=1e-9)
    assert load.duration == pytest.approx(sum(t for _, _, t in rows), rel=1e-9)
    power = float((counted.count * counted.range**3).sum())
    assert power == pytest.approx(sum(f * t * (2.0 * a * G) ** 3 for f, a, t in rows), rel=1e-9)


# ---- damage spectra and tailored tests ---------------------------------------------------------------------------------


def service_of(levels, slope, seconds, name="input"):
    some = va.Oscillators.spaced(20.0, 200.0, slope=slope, per_octave=3)
    return va.damage_spectrum(psd_of(levels, dimension="acceleration"), some, exposure=seconds).called(name)


@given(LEVELS, st.floats(4.0, 9.0), st.floats(0.3, 3.0))
@settings(max_examples=10, deadline=None)
def test_damage_of_oscillators_goes_with_level_time_and_parts(levels, slope, factor):
    once = service_of(levels, slope, 3600.0)
    squared = [factor**2 * one for one in levels]
    assert service_of(squared, slope, 3600.0).damage == pytest.approx(factor**slope * once.damage, rel=1e-9)
    longer = service_of(levels, slope, 7200.0)
    assert longer.damage == pytest.approx(2.0 * once.damage, rel=1e-9)
    assert (longer.extreme > once.extreme).all()
    parts = va.tailoring.together([once.called("day"), once.called("night")])
    assert parts.damage == pytest.approx(longer.damage, rel=1e-9)
    assert parts.time == pytest.approx(7200.0)


@given(st.floats(4.0, 9.0), st.floats(1.5, 20.0))
@settings(max_examples=6, deadline=None)
def test_a_test_of_less_time_is_louder_by_the_slope(slope, shorter):
    """The same damage in 1/k of the time asks for k^(1/b) times the level."""
    service = service_of([1e6, 9e6, 2e6], slope, 3600.0 * 50.0)
    long, short = va.tailored_test(service, 3600.0 * shorter), va.tailored_test(service, 3600.0)
    assert short.psd.rms / long.psd.rms == pytest.approx(shorter ** (1.0 / slope), rel=5e-3)


@given(LEVELS, st.floats(4.0, 9.0), st.floats(1.01, 3.0))
@settings(max_examples=10, deadline=None)
def test_what_covers_a_louder_service_covers_it(levels, slope, louder):
    quiet = service_of(levels, slope, 3600.0, "quiet")
    loud = service_of([louder**2 * one for one in levels], slope, 3600.0, "loud")
    assert va.coverage(quiet, loud).covers
    assert not va.coverage(loud, quiet).covers
    assert va.coverage(quiet, quiet).covers
