"""Programmes, spectra, nested duty cycles, and what happens between events, against laying everything end to end."""

import numpy as np
import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.reference_values import summed
from vivid_anvil.counting import Cycles, gate, joined, rainflow
from vivid_anvil.events import (
    BETWEEN,
    BlockProgramme,
    ConstantAmplitude,
    DutyCycle,
    Event,
    GatedHistory,
    LoadSpectrum,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
    worst_case_pairs,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory


def history(name, values):
    return LoadHistory(name, [Channel("force", np.array(values, dtype=float), "force")], 10.0)


def together(duty):
    """All cycles of a repeat, by range and mean."""
    tables = [
        Cycles(range=one.cycles.range, mean=one.cycles.mean, count=one.cycles.count * one.occurrences)
        for one in duty.sources("force")
    ]
    return [row for row in summed(joined(tables)) if row[2] > 0.0]


pieces = st.lists(st.integers(-9, 9), min_size=2, max_size=8)
events = st.lists(st.tuples(pieces, st.integers(1, 5)), min_size=1, max_size=4)


@given(events, st.sampled_from(["repeated", "half cycles"]))
def test_the_order_given_counts_as_one_long_history(rows, residue):
    loads = [Event(f"{i}", history(f"{i}", values), times) for i, (values, times) in enumerate(rows)]
    duty = DutyCycle("block", loads, 1.0, residue, "in the order given")
    whole = np.concatenate([np.tile(values, times) for values, times in rows]).astype(float)
    assert together(duty) == summed(rainflow(whole, residue=residue))


@pytest.mark.parametrize("residue", ["repeated", "half cycles", None])
def test_a_duty_cycle_asked_for_a_residue_counts_by_it(residue):
    values = [0, 5, -3, 4, -1]
    duty = DutyCycle("week", [Event("day", DutyCycle("day", [Event("lap", history("lap", values), 3)]), 2)])
    alone = rainflow(np.array(values, dtype=float), residue=residue or "repeated")
    found = duty.cycles_of("force", residue=residue)
    assert summed(Cycles(range=found.range, mean=found.mean, count=found.per_repeat)) == [
        [size, mean, 6.0 * count] for size, mean, count in summed(alone)
    ]


@pytest.mark.slow
@given(events, events, st.integers(1, 4))
def test_a_duty_cycle_in_a_duty_cycle_counts_as_its_events(inner_rows, rows, times):
    inner = [Event(f"{i}", history(f"{i}", values), n) for i, (values, n) in enumerate(inner_rows)]
    outer = [Event(f"{i}", history(f"{i}", values), n) for i, (values, n) in enumerate(rows)]
    day = Event("day", DutyCycle("day", inner, 1.0), times)
    ordered = DutyCycle("season", [day, *outer], 1.0).counted(between="in the order given")
    whole = [np.tile(np.concatenate([np.tile(values, n) for values, n in inner_rows]), times)]
    whole += [np.tile(values, n) for values, n in rows]
    assert together(ordered) == summed(rainflow(np.concatenate(whole).astype(float), residue="repeated"))
    apart = DutyCycle("season", [day, *outer], 1.0)
    flat = DutyCycle(
        "season", [Event(f"day {one.name}", one.load, one.occurrences * times) for one in inner] + outer, 1.0
    )
    assert together(apart) == together(flat)


def test_a_million_repeats_cost_no_more_than_a_few():
    lap, stop = history("lap", [0, 3, 1, 4, 0]), history("stop", [2, -5, 2])
    million = DutyCycle(
        "life", [Event("lap", lap, 10**6), Event("stop", stop, 10)], 1.0, "repeated", "in the order given"
    )
    rows = {tuple(row[:2]): row[2] for row in together(million)}
    assert rows[(9.0, -0.5)] == 1.0  # once per repeat from the top of a lap to the bottom of a stop
    assert rows[(4.0, 2.0)] == 10**6 - 1


@pytest.mark.slow
@given(st.lists(st.tuples(pieces, st.floats(0.1, 50.0)), min_size=1, max_size=5))
def test_the_worst_case_never_does_less_than_each_by_itself(rows):
    loads = [Event(f"{i}", history(f"{i}", values), times) for i, (values, times) in enumerate(rows)]

    def sums(between):
        found = together(DutyCycle("block", loads, 1.0, "repeated", between))
        return [sum(n * size**slope for size, _, n in found) for slope in (1.0, 3.0, 5.0)]

    apart, worst = sums("each by itself"), sums("worst case")
    assert all(one >= other * (1 - 1e-9) for one, other in zip(worst, apart, strict=True))


def test_pairs_use_up_every_maximum_and_minimum():
    rows = worst_case_pairs([(90.0, -110.0, 20), (160.0, 0.0, 500), (70.0, -30.0, 2000)])
    for event, times in enumerate((20, 500, 2000)):
        assert sum(row[2] for row in rows if row[3] == event) == times
        assert sum(row[2] for row in rows if row[4] == event) == times


@pytest.mark.parametrize(
    ("values", "counted"),
    [
        ([0, 5, 0], [[5.0, 2.5, 1.0]]),
        ([0, 9.5, 0.5, 10, 5], [[10.0, 5.0, 1.0], [9.0, 5.0, 1.0]]),
        ([0, 4], [[4.0, 2.0, 1.0]]),
    ],
)
def test_an_event_alone_in_unknown_order_closes_its_halves_once(values, counted):
    duty = DutyCycle("block", [Event("lap", history("lap", values))], 1.0, "half cycles", "worst case")
    assert sorted(together(duty), reverse=True) == counted


def test_blocks_count_by_themselves_and_in_order():
    programme = block_programme("force", {"maximum": [3.0, 2.0], "minimum": [0.0, 1.0], "cycles": [10, 500]}, "kN")
    duty = DutyCycle("week", [Event("programme", programme, 2)], 52.0)
    assert together(duty) == [[3000.0, 1500.0, 20.0], [1000.0, 1500.0, 1000.0]]
    ordered = DutyCycle("week", [Event("programme", programme, 2)], 52.0, "repeated", "in the order given")
    laid = np.tile(np.concatenate([np.tile([0.0, 3000.0], 10), [0.0], np.tile([1000.0, 2000.0], 500), [1000.0]]), 2)
    assert together(ordered) == summed(rainflow(laid, residue="repeated"))
    pulse = ConstantAmplitude.from_range("force", "2 kN", r_ratio=0.0, cycles=7)
    mixed = DutyCycle(
        "week", [Event("programme", programme), Event("pulse", pulse, 3)], 52.0, "repeated", "in the order given"
    )
    laid = np.concatenate([laid[: laid.size // 2], np.tile([0.0, 2000.0], 21), [0.0]])
    assert together(mixed) == summed(rainflow(laid, residue="repeated"))
    assert programme.duration is None
    assert BlockProgramme("force", [1.0], [0.0], [50], frequency=5.0).duration == 10.0


ROWS = [["range [kN]", "cycles"], [3.0, 10], [1.0, 1000]]


@pytest.mark.parametrize("ending", ["csv", "xlsx"])
def test_tables_of_rows_are_read(tmp_path, ending):
    path = tmp_path / f"rows.{ending}"

    def write(rows):
        if ending == "csv":
            path.write_text("\n".join(",".join(map(str, row)) for row in rows))
        else:
            book = openpyxl.Workbook()
            for row in rows:
                book.active.append(row)
            book.save(path)

    write(ROWS)
    spectrum = read_spectrum(path, channel="force")
    assert (spectrum.table.range.tolist(), spectrum.table.count.tolist()) == ([3000.0, 1000.0], [10.0, 1000.0])
    write([["maximum [kN]", "minimum [kN]", "cycles", "name"], [3.0, -1.0, 10, "gust"]])
    programme = read_programme(path, channel="force", frequency=2.0)
    assert (programme.extremes("force"), programme.names, programme.duration) == ((-1000.0, 3000.0), ("gust",), 5.0)
    write([["ranges [kN]", "cycles"], [1, 2]])
    with pytest.raises(InputError, match="Did you mean 'range'"):
        read_spectrum(path, channel="force")
    write([["maximum [kN]", "minimum [N]", "cycles"], [1, 0, 2]])
    with pytest.raises(InputError, match="one unit for all loads"):
        read_programme(path, channel="force")


@pytest.mark.parametrize(
    ("make", "message"),
    [
        (
            lambda: block_programme("force", {"maximum": [1.0], "minimum": [2.0], "cycles": [1]}, "kN"),
            "row 1: found a maximum below",
        ),
        (lambda: block_programme("force", {"level": [1.0, 2.0], "cycles": [1, -5]}, "kN"), "row 2: found a count"),
        (lambda: block_programme("force", {"level": [1.0]}, "kN"), "a column 'cycles'"),
        (
            lambda: block_programme("force", {"level": [1.0], "range": [2.0], "cycles": [1]}, "kN"),
            "one of level, amplitude",
        ),
        (lambda: block_programme("force", {"level": ["a"], "cycles": [1]}, "kN"), "row 1, level: found 'a'"),
        (lambda: block_programme("force", {"level": [1.0], "cycles": [1, 2]}, "kN"), "different lengths"),
        (lambda: block_programme("force", {"level": [1.0], "cycles": [1]}, "furlong"), "unknown unit"),
        (lambda: load_spectrum("force", {"range": [1.0], "cycles": [1], "r_ratio": [1.0]}, "kN"), "r_ratio of 1"),
        (lambda: load_spectrum("force", {"range": [0.0], "cycles": [1]}, "kN"), "not above 0"),
        (lambda: load_spectrum("force", {"range": [1.0, 2.0], "exceedance": [1, 2]}, "kN"), "ranges that fall"),
        (lambda: load_spectrum("force", {"width": [1.0]}, "kN"), "the column 'width'"),
        (lambda: LoadSpectrum("force", Cycles([], [], [])), "no class"),
    ],
)
def test_rows_that_make_no_sense_are_refused(make, message):
    with pytest.raises(InputError) as caught:
        make()
    assert message in str(caught.value)


def test_what_has_no_order_is_refused_in_order():
    spectrum = load_spectrum("force", {"range": [3.0, 1.0], "cycles": [10, 1000], "r_ratio": [0.0, 0.5]}, "kN")
    assert spectrum.table.mean.tolist() == [1500.0, 1500.0]
    with pytest.raises(InputError, match="without order"):
        DutyCycle("year", [Event("spectrum", spectrum)], 1.0, "repeated", "in the order given").sources("force")
    lap = history("lap", [0, 1, 0])
    with pytest.raises(InputError, match="a whole number"):
        DutyCycle("year", [Event("lap", lap, 0.5)], 1.0, "repeated", "in the order given").sources("force")
    with pytest.raises(InputError, match="Did you mean 'in the order given'"):
        DutyCycle("year", [Event("lap", lap)], 1.0, "repeated", "in order given")


def test_an_inner_duty_cycle_makes_no_other_choice_than_the_outer():
    inner = DutyCycle("day", [Event("lap", history("lap", [0, 1, 0]), 3)], 1.0, between="worst case")
    with pytest.raises(InputError, match="one choice for all"):
        DutyCycle("year", [Event("day", inner)], 1.0)
    same = DutyCycle("year", [Event("day", inner.counted(between="each by itself"))], 1.0)
    assert same.sources("force")[0].occurrences == 3.0


def test_a_gated_history_keeps_its_samples_and_says_what_went():
    values = 100.0 * np.sin(np.arange(2000) / 40.0) + np.random.default_rng(4).normal(0.0, 1.0, 2000)
    whole = history("run", values)
    gated = GatedHistory(whole, {"force": 10.0})
    cycles = gated.cycles_of("force")
    assert np.abs(values[cycles.start] - values[cycles.end]) == pytest.approx(cycles.range)
    assert len(cycles) < 60 < len(whole.cycles_of("force"))
    source = DutyCycle("run", [Event("run", gated)], 1.0).sources("force")[0]
    assert source.gated.removed.total == gate(values, 10.0).removed.total
    ordered = DutyCycle("run", [Event("run", gated)], 1.0, "repeated", "in the order given")
    assert together(ordered) == summed(rainflow(gate(values, 10.0).values, residue="repeated"))
    assert ordered.sources("force")[0].gated is not None
    with pytest.raises(InputError, match="Did you mean 'force'"):
        GatedHistory(whole, {"farce": 1.0})


def test_the_cycles_between_events_are_named():
    duty = DutyCycle(
        "day", [Event("a", history("a", [0, 5, 0])), Event("b", history("b", [1, 9, 1]))], 1.0, between="worst case"
    )
    assert [source.name for source in duty.sources("force")] == ["a", "b", BETWEEN]
