"""What a sheet gives: headings as people write them, titles above, blocks side by side, rows in any order, peaks and valleys."""

import dataclasses
import re

import numpy as np
import openpyxl
import pandas as pd
import pytest

from tests.cli.events import EVENTS, SHORT
from tests.spots import changed
from vivid_anvil.damage import assess_life
from vivid_anvil.events import DutyCycle, Event, read_programme, read_spectrum
from vivid_anvil.figures import plot, save_figure
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import LoadHistory, check_history, cut, join, low_pass, read_history, write_history
from vivid_anvil.materials import read_growth_tests, read_points, read_specimens
from vivid_anvil.models import read_field_table
from vivid_anvil.shapes.points import read_points as read_factors

pytestmark = pytest.mark.slow

POINTS = [(250.0, 1e5), (125.0, 1e6), (90.0, 5e6)]


@pytest.fixture(params=["text", "workbook"])
def sheet(request, tmp_path):
    """Writes rows as a text file, or on a sheet."""

    def write(rows):
        if request.param == "text":
            path = tmp_path / "table.csv"
            path.write_text(
                "\n".join(";".join("" if cell is None else str(cell) for cell in row) for row in rows) + "\n"
            )
            return path
        book = openpyxl.Workbook()
        for row in rows:
            book.active.append(list(row))
        book.save(tmp_path / "table.xlsx")
        return tmp_path / "table.xlsx"

    return write


def lines(points):
    return [[stress, life] for stress, life in points]


@pytest.mark.parametrize(
    ("heads", "stated"),
    [
        (["Stress range (MPa)", "Cycles"], None),
        (["Δσ [MPa]", "N"], None),
        (["S (MPa)", "N"], "range"),
        (["Stress (MPa)", "Cycles to failure"], "range"),
        (["RANGE [MPa]", " life  (cycles)"], None),
    ],
)
def test_headings_of_curves_are_understood_and_told_back(sheet, heads, stated):
    kind, points, told = read_points(sheet([heads, *lines(POINTS)]), stress=stated)
    assert (kind, points) == ("range", POINTS)
    assert all(head.strip().split()[0] in told for head in heads)
    assert "life" in told


def test_a_title_a_knee_twice_and_rows_in_any_order(sheet):
    rows = [["Plate 8 mm, tested in air", None], [], ["S (MPa)", "N"], *lines(reversed(POINTS)), *lines(POINTS[1:2])]
    assert read_points(sheet(rows), stress="amplitude")[:2] == ("amplitude", POINTS)


def test_blocks_side_by_side_are_chosen_or_put_together(sheet):
    other = [(200.0, 2e5), (100.0, 2e6)]
    beside = [[*left, None, *right] for left, right in zip(lines(POINTS), [*lines(other), [None, None]], strict=True)]
    path = sheet([["R = -1", None, None, "R = 0.1", None], ["Sa (MPa)", "N", None, "Sa (MPa)", "N"], *beside])
    with pytest.raises(InputError, match=r"2 blocks of columns side by side.*block = 1"):
        read_points(path)
    assert read_points(path, block=1)[1] == POINTS
    assert read_points(path, block=2)[1] == other
    assert read_points(path, block="all")[1] == sorted([*POINTS, *other], reverse=True)
    with pytest.raises(InputError, match="block 3"):
        read_points(path, block=3)


@pytest.mark.parametrize(
    ("heads", "words"),
    [
        (["S (MPa)", "N"], "Say which"),
        (["Stress range", "N"], "no unit"),
        (["Stress range (left)", "N"], "Stress range"),
        (["Width (mm)", "N"], "column 1"),
        (["Sa (MPa)", "N", "n"], "second column"),
    ],
)
def test_what_is_not_understood_is_said(sheet, heads, words):
    with pytest.raises(InputError, match=words):
        read_points(sheet([heads, *[[1.0] * len(heads)] * 2]))


def test_tests_blocks_and_growth_are_understood_alike(sheet):
    tests = read_specimens(
        sheet([["Series A"], ["S (MPa)", "N", "Runout", "R"], [300, 1e5, "no", 0.1], [250, 2e6, "yes", 0.1]]),
        stress="range",
    )
    assert (tests.stress, tests.r_ratio, tests.failed.tolist()) == ("range", 0.1, [True, False])
    assert "'S (MPa)' as stress [MPa]" in tests.source
    blocks = read_programme(sheet([["Max (kN)", "Min (kN)", "N"], [8, 1, 10], [5, -2, 300]]), channel="force")
    assert blocks.maximum.tolist() == [8000.0, 5000.0]
    assert blocks.cycles.tolist() == [10.0, 300.0]
    classes = read_spectrum(sheet([["Range (kN)", "Count"], [8, 10], [5, 300]]), channel="force")
    assert classes.table.count.tolist() == [10.0, 300.0]
    rates = read_growth_tests(
        sheet([["ΔK (MPa√m)", "da/dN (mm/cycle)"], *[[10 + i, 1e-5 * (i + 1)] for i in range(6)]]), r_ratio=0.1
    )
    assert rates.ranges[0] == pytest.approx(10 * np.sqrt(1000.0))


@pytest.mark.parametrize("head", ["Zeit [s]", "t (ms)", "temps [min]", "time [s]"])
def test_a_first_column_in_units_of_time_is_the_time(sheet, head):
    history = read_history(sheet([[head, "Kraft (links) [kN]"], *[[0.01 * i, i % 3] for i in range(12)]]))
    assert [one.name for one in history.channels] == ["Kraft (links)"]
    one = {"s": 1.0, "ms": 1e-3, "min": 60.0}[head.strip("])").rpartition("[")[2].rpartition("(")[2]]
    assert history.sample_rate == pytest.approx(100.0 / one)


PEAKS = [0.0, 8.0, -3.0, 6.0, 1.0, 7.5, -4.0, 2.0]


@pytest.mark.parametrize("times", ["uneven", "none"])
def test_peaks_and_valleys_count_as_samples_at_even_steps_do(sheet, times, tmp_path):
    at = np.cumsum([0.0, 1.0, 0.3, 5.0, 2.0, 0.1, 0.7, 9.0])
    rows = [["time [s]", "force [kN]"], *map(list, zip(at, PEAKS, strict=True))]
    path = sheet(rows if times == "uneven" else [row[1:] for row in rows])
    with pytest.raises(InputError, match="peaks and valleys"):
        read_history(path)
    found = read_history(path, rows="peaks and valleys")
    even = LoadHistory("even", found.channels, "1 Hz")
    assert found.duration == (pytest.approx(at[-1]) if times == "uneven" else None)
    assert "8 peaks and valleys" in repr(found)
    for residue in ("half cycles", "repeated"):
        one, other = (history.cycles_of("force", residue=residue) for history in (found, even))
        assert one.range.tolist() == other.range.tolist()
        assert one.sample_rate is None
    check = check_history(found)[0]
    assert (check.dominant_frequency, check.findings) == (0.0, ())
    for repair in (
        lambda: cut(found, end="3 s"),
        lambda: low_pass(found, channel="force", frequency="0.1 Hz"),
        lambda: found.time,
    ):
        with pytest.raises(InputError, match="without even times"):
            repair()
    with pytest.raises(InputError, match="without even times"):
        write_history(found, tmp_path / "out.csv")
    both = join([found, found], name="twice")
    assert (both.steps, both.duration is None) == (found.steps, times == "none")
    with pytest.raises(InputError, match="even steps"):
        join([found, even], name="mixed")


def test_times_of_peaks_must_rise(sheet):
    path = sheet([["time [s]", "force [kN]"], [0.0, 1.0], [2.0, 3.0], [1.0, 2.0]])
    with pytest.raises(InputError, match="time that rises"):
        read_history(path, rows="peaks and valleys")


def test_peaks_and_valleys_go_through_study_and_commands(written, run, tmp_path):
    study = written(EVENTS["history"], rest=SHORT)
    text = study.read_text()
    name = text.partition('history = "')[2].partition('"')[0]
    whole = read_history(study.parent / name)
    rows = [f"{value / 1e3:.17g}" for value in whole.channels[0].values]
    (study.parent / "peaks.csv").write_text("\n".join([f"{whole.channels[0].name} [kN]", *rows]) + "\n")
    study.write_text(
        text.replace(f'history = "{name}"', 'history = "peaks.csv"\nread = { rows = "peaks and valleys" }')
    )
    for words in (["life", study], ["check", study], ["explain", study], ["life", study, "--spot", "toe"]):
        code, out, err = run(*words, *(["--figures", tmp_path / "f"] if words[0] == "life" else []))
        assert code == 0, err
        assert "few-samples" not in out
    code, out, err = run(
        "count", study.parent / "peaks.csv", "--read", "rows=peaks and valleys", "--figures", tmp_path / "g"
    )
    assert code == 0, err
    assert "From row" in out
    assert "Dominant" not in out


def test_damage_does_not_depend_on_the_times_of_peaks(sheet):
    from tests.fields.models import spot

    history = read_history(sheet([["force [kN]"], *[[one] for one in PEAKS]]), rows="peaks and valleys")
    even = dataclasses.replace(history, steps="even")
    where = changed(spot(), channel="force", stress_per_load="20 MPa/kN")
    lives = [assess_life(where, DutyCycle("day", [Event("lap", one, 100)])) for one in (history, even)]
    assert lives[0].damage_per_repeat == lives[1].damage_per_repeat > 0.0
    assert lives[0].duty_cycle.hours is None
    assert lives[0].worst_cycles()[0].start is None


def test_count_draws_one_channel_and_shows_the_matrix(run, demo_file, tmp_path):
    asked = ("--channel", "lateral force", "--matrix", "range-mean", "--classes", 16, "--figures", tmp_path / "f")
    code, out, err = run("count", demo_file.parent / "two_forces_lap.csv", *asked)
    assert code == 0, err
    rows = re.findall(
        r"^\S+ to \S+ {2,}(.*)$", out.partition("down, and mean")[2].partition("largest")[0], re.MULTILINE
    )
    assert len(rows) == 8
    total = sum(float(cell) for row in rows for cell in row.split())
    assert total == pytest.approx(2300.5, rel=0.01)
    history = read_history(demo_file.parent / "two_forces_lap.csv")
    alone = dataclasses.replace(history, channels=(history["lateral force"],))
    save_figure(plot(alone), tmp_path / "alone.png")
    drawn = (tmp_path / "f" / "history-two_forces_lap.png").read_bytes()
    assert drawn == (tmp_path / "alone.png").read_bytes()


def test_units_in_round_brackets_are_units_in_every_table(tmp_path):
    """Stresses of a model, geometry factors of a shape, chosen columns of a workbook."""
    field = tmp_path / "field.csv"
    heads = ["node", "x (mm)", "y (mm)", "z (mm)", *(f"{name} (ksi)" for name in ("xx", "yy", "zz", "xy", "yz", "zx"))]
    field.write_text(",".join([*heads, "load case"]) + "\n1,0,0,0,10,0,0,0,0,0,pull\n2,1,0,0,20,0,0,0,0,0,pull\n")
    found = read_field_table(field)
    assert found.stresses[0, :, 0] == pytest.approx([68.94757, 137.89515], rel=1e-6)
    factors = tmp_path / "factors.csv"
    factors.write_text("size (cm),Y\n0.1,1.1\n0.4,1.3\n")
    assert read_factors(factors, "table") == [[1.0, 1.1], [4.0, 1.3]]
    lap = pd.DataFrame(
        {"time (s)": np.arange(20) / 10, "force (kN)": np.arange(20) % 3, "side (kN)": np.arange(20) % 5}
    )
    lap.to_parquet(tmp_path / "lap.parquet")
    assert read_history(tmp_path / "lap.parquet", columns=["time", "force"]).dimensions == {"force": "force"}
