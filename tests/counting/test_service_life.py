"""Histories from matrices, many repeats, fitted tails, and files larger than memory."""

import h5py
import numpy as np
import pyarrow as pa
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pyarrow import parquet
from scipy.stats import genpareto, weibull_min

from tests.counting.random_histories import histories
from tests.reference_values import summed
from tests.spots import hot_spot
from vivid_anvil.counting import ORDERS, TAILS, CycleMatrix, Cycles, cycle_matrix, fit_tail, rainflow, reconstruct
from vivid_anvil.damage import assess_life, damage_of_chunks, damage_of_samples
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, repeated_times
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory, count_chunks, count_file, stream_channel, write_history
from vivid_anvil.materials import Material, knee_curve


@pytest.mark.slow
@given(histories, st.sampled_from(sorted(ORDERS)), st.integers(0, 5))
def test_a_reconstructed_history_counts_as_its_table(history, order, seed):
    table = rainflow(history, residue="repeated")
    if not len(table):
        return
    again = reconstruct(table, order=order, seed=seed)
    found = rainflow(again, residue="repeated")
    assert np.array(summed(found)) == pytest.approx(np.array(summed(table)), abs=1e-7)


def test_a_matrix_makes_a_history_whose_matrix_it_is():
    cycles = rainflow(np.random.default_rng(6).standard_normal(20_000) * 50.0, residue="repeated")
    matrix = cycle_matrix(cycles, "maximum-minimum", classes=32)
    one, other = (reconstruct(matrix, seed=seed) for seed in (1, 2))
    assert not np.array_equal(one, other)
    for history in (one, other):
        again = cycle_matrix(rainflow(history, residue="repeated"), "maximum-minimum", row_edges=matrix.row_edges)
        off_diagonal = ~np.eye(32, dtype=bool)
        assert again.counts[off_diagonal].tolist() == matrix.counts[off_diagonal].tolist()


@pytest.mark.parametrize(
    ("table", "message"),
    [
        (Cycles([4.0], [0.0], [0.5]), "half cycles"),
        (Cycles([4.0, 3.0], [0.0, 9.0], [1.0, 1.0]), "outside of the largest, -2 to 2"),
        (Cycles([0.0], [0.0], [1.0]), "no cycle with a range"),
        (CycleMatrix("range-mean", [0.0, 1.0], [0.0, 1.0], [[0.0]]), "an empty matrix"),
    ],
)
def test_a_table_that_no_history_has_is_refused(table, message):
    with pytest.raises(InputError) as caught:
        reconstruct(table)
    assert message in str(caught.value)
    with pytest.raises(InputError, match="'random', 'nested'"):
        reconstruct(Cycles([4.0], [0.0], [1.0]), order="sorted")


@pytest.mark.slow
@given(histories, st.integers(1, 9))
def test_many_repeats_count_as_laid_end_to_end(history, times):
    load = LoadHistory("run", (Channel("force", history, "force"),), 1.0)
    found = repeated_times(load, "force", times)
    rows = [row for row in summed(found) if row[2] > 0]
    assert rows == summed(rainflow(np.tile(history, times)))


def spectrum_of(draw, size=4000):
    """Ranges whose excesses over 10 come from a known distribution, above a body of small ones."""
    excess = draw(size)
    ranges = np.concatenate([10.0 + excess, np.full(20_000, 5.0)])
    return Cycles(range=ranges, mean=np.zeros(ranges.size), count=np.ones(ranges.size))


@pytest.mark.slow
@pytest.mark.parametrize(
    ("model", "shape", "scale", "draw"),
    [
        ("weibull", 0.8, 3.0, lambda size: weibull_min.rvs(0.8, scale=3.0, size=size, random_state=1)),
        ("weibull", 2.0, 3.0, lambda size: weibull_min.rvs(2.0, scale=3.0, size=size, random_state=2)),
        ("generalised pareto", 0.2, 3.0, lambda size: genpareto.rvs(0.2, scale=3.0, size=size, random_state=3)),
        ("generalised pareto", -0.3, 3.0, lambda size: genpareto.rvs(-0.3, scale=3.0, size=size, random_state=4)),
    ],
)
def test_the_tail_finds_the_distribution_it_came_from(model, shape, scale, draw):
    cycles = spectrum_of(draw)
    fit = fit_tail(cycles, 10.0, model=model)
    assert (fit.shape, fit.scale) == (pytest.approx(shape, abs=0.06), pytest.approx(scale, rel=0.06))
    family = weibull_min if model == "weibull" else genpareto
    excess = cycles.range[cycles.range >= 10.0] - 10.0
    theirs = family.fit(np.maximum(excess, 1e-12), floc=0.0)
    assert (fit.shape, fit.scale) == (pytest.approx(theirs[0], abs=2e-3), pytest.approx(theirs[2], rel=2e-3))
    low, high = fit.limits(15.0)
    assert low < fit.passed(15.0) < high
    assert low < (cycles.range >= 15.0).sum() < high


def test_the_extended_spectrum_keeps_its_body_and_ends_where_it_should():
    fit = fit_tail(spectrum_of(lambda size: weibull_min.rvs(1.0, scale=3.0, size=size, random_state=5)), 10.0)
    long = fit.extended(1000.0)
    assert long.count[long.range == 5.0].sum() == pytest.approx(20_000 * 1000)
    assert long.total == pytest.approx(24_000 * 1000, rel=1e-6)
    assert fit.passed(fit.largest(1000.0), 1000.0) == pytest.approx(1.0)
    assert long.range.max() == pytest.approx(fit.largest(1000.0))
    capped = fit.extended(1000.0, largest=20.0)
    assert capped.range.max() == pytest.approx(20.0)
    finding = fit.findings(1000.0, 5.0)[0]
    assert finding.code == "never-measured"
    measured = fit.cycles.range.max()
    damage = long.count * long.range**5
    assert f"{damage[long.range > measured].sum() / damage.sum():.0%}" in finding.sentence
    short = fit_tail(Cycles(np.linspace(1, 9, 30), np.zeros(30), np.ones(30)), 2.0)
    assert [one.code for one in short.findings(10.0, 3.0)] == ["never-measured", "short-tail"]


def test_a_tail_from_too_few_cycles_is_refused():
    table = Cycles(np.linspace(1, 9, 30), np.zeros(30), np.ones(30))
    for threshold, model, message in (
        (8.0, "weibull", "at least 20"),
        (0.0, "weibull", "above 0"),
        (2.0, "gumbel", "one of 'weibull'"),
    ):
        with pytest.raises(InputError, match=message):
            fit_tail(table, threshold, model=model)
    with pytest.raises(InputError, match="above the threshold"):
        fit_tail(table, 2.0).extended(10.0, largest=1.0)
    assert set(TAILS) == {"weibull", "generalised pareto"}


VALUES = 1000.0 * np.cumsum(np.random.default_rng(8).standard_normal(30_000)) / 50.0


@pytest.mark.parametrize("ending", [".csv", ".parquet", ".h5", ".npy"])
@pytest.mark.parametrize("kind", ["range-mean", "maximum-minimum"])
def test_a_file_in_chunks_counts_as_in_one_piece(tmp_path, ending, kind):
    path = tmp_path / f"run{ending}"
    how = {}
    if ending == ".npy":
        np.save(path, VALUES)
        how = {"unit": "N"}
    else:
        write_history(LoadHistory("run", (Channel("force", VALUES, "force"),), 100.0), path)
    told = []
    found = count_file(path, "force", kind=kind, chunk=1000, watch=lambda *step: told.append(step), **how)
    assert (found.samples, found.minimum, found.maximum) == (VALUES.size, VALUES.min(), VALUES.max())
    edges = {"row_edges": found.matrix.row_edges, "column_edges": found.matrix.column_edges}
    whole = cycle_matrix(rainflow(VALUES), kind, **edges)
    assert found.matrix.counts.tolist() == whole.counts.tolist()
    assert found.matrix.dimension == "force"
    assert told[-1] == ("counting", VALUES.size, VALUES.size)


@given(histories, st.integers(1, 30))
def test_any_chunks_give_the_same_matrix(history, chunk):
    low, high = float(history.min()), float(history.max())
    if high > low:
        pieces = [history[i : i + chunk] for i in range(0, history.size, chunk)]
        one, other = (count_chunks(chunks, low, high, classes=5, residue="repeated") for chunks in (pieces, [history]))
        assert one.counts.tolist() == other.counts.tolist()


def test_what_cannot_be_streamed_is_refused(tmp_path):
    flat, gap = tmp_path / "flat.h5", tmp_path / "gap.parquet"
    with h5py.File(flat, "w") as file:
        file.create_dataset("force [N]", data=np.ones(10))
    with pytest.raises(InputError, match="a constant channel"):
        count_file(flat, "force [N]")
    with pytest.raises(InputError, match="Did you mean 'force"):
        count_file(flat, "force")
    parquet.write_table(pa.table({"force [N]": [1.0, float("nan"), 2.0]}), gap)
    with pytest.raises(InputError, match=r"from sample 0 on, sample 1: found nan"):
        list(stream_channel(gap, "force"))
    (tmp_path / "text.csv").write_text("force [N]\n1\n2\nx\n")
    for name, message in (("text.csv", r"line 4, column .force \[N\].: found .x."), ("none.h5", "no such file")):
        with pytest.raises(InputError, match=message):
            list(stream_channel(tmp_path / name, "force"))


def test_long_lines_of_many_channels_are_streamed(tmp_path):
    path = tmp_path / "wide.csv"
    names = [f"force {i} [kN]" for i in range(400)]
    rows = [[f"{value + i:.12f}" for i in range(400)] for value in VALUES[:50]]
    path.write_text("\n".join(",".join(row) for row in [names, *rows]))
    found = count_file(path, "force 399", classes=4, chunk=1)
    assert found.samples == 50
    assert found.maximum == pytest.approx((VALUES[:50].max() + 399.0) * 1e3, rel=1e-12)


CURVE = knee_curve(name="c", stress="range", r_ratio="any", knee_stress=50.0, knee_life=1e6, slope=3.0, slope_below=5.0)


@pytest.mark.slow
@given(histories, st.sampled_from([3.0, 5.0, np.inf]), st.sampled_from(["half cycles", "repeated"]), st.integers(1, 50))
def test_damage_in_one_pass_is_the_damage_of_the_cycles(history, below, residue, chunk):
    curve = knee_curve(
        name="c", stress="amplitude", r_ratio="any", knee_stress=3.0, knee_life=1e6, slope=3.0, slope_below=below
    )
    cycles = rainflow(history, residue=residue)
    exact = float((cycles.count / curve.life(0.5 * cycles.range)).sum())
    assert damage_of_samples(history, curve, residue=residue) == pytest.approx(exact, rel=1e-9)
    pieces = [history[i : i + chunk] for i in range(0, history.size, chunk)]
    assert damage_of_chunks(pieces, curve, residue=residue) == pytest.approx(exact, rel=1e-9)


def test_damage_in_one_pass_is_that_of_the_assessment():
    values = np.random.default_rng(9).standard_normal(100_000) * 20.0
    load = LoadHistory("run", (Channel("stress", values, "stress"),), 100.0)
    spot = hot_spot(name="s", channel="stress", stress_per_load=1.0, curve=CURVE, material=Material(name="m"))
    life = assess_life(spot, DutyCycle("run", [Event("run", load)], 1.0, "half cycles"))
    assert damage_of_samples(values, CURVE) == pytest.approx(life.damage_per_repeat, rel=1e-12)
    with pytest.raises(InputError, match="shape"):
        damage_of_samples([[1.0, 2.0]], CURVE)
    with pytest.raises(InputError, match="sample 1: found nan"):
        damage_of_samples([1.0, np.nan], CURVE)


def test_all_channels_are_counted_as_one_by_one():
    rng = np.random.default_rng(10)
    channels = [Channel(f"c{i}", rng.standard_normal(5000), "force") for i in range(5)]
    load = LoadHistory("run", channels, 100.0)
    for name, cycles in load.cycles_of_all(residue="repeated", threads=3).items():
        assert cycles.range.tolist() == load.cycles_of(name, residue="repeated").range.tolist()
    assert ConstantAmplitude.from_range("c", "3 N").in_order("c").steps[0][1] == 1.0
