"""In a notebook: results show their picture and their table, tables become data frames, data frames histories, plots a place."""

import dataclasses
import io
import re

import matplotlib.image
import numpy as np
import pandas as pd
import pytest
from matplotlib.figure import Figure

import vivid_anvil as va
from tests.figures.drawn import DRAWN
from vivid_anvil.counting import cycle_matrix
from vivid_anvil.damage import compare_rules
from vivid_anvil.fields import assess_model
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import inspection_plan, lives_over_size
from vivid_anvil.study import compare_studies, what_if
from vivid_anvil.writing.result import Result

pytestmark = pytest.mark.slow

TABLES = {
    "history": lambda demo: demo.study.duty_cycle.events[2].load,
    "duty cycle": lambda demo: demo.study.duty_cycle,
    "cycles": lambda demo: demo.study.duty_cycle.events[2].load.cycles_of("vertical force"),
    "matrix": lambda demo: cycle_matrix(demo.study.duty_cycle.events[2].load.cycles_of("vertical force"), classes=8),
    "curve": lambda demo: demo.lives[0].curve,
    "tests": lambda demo: va.read_specimens(demo.study.path.parent / "tube_tests.csv"),
    "life": lambda demo: demo.lives[0],
    "study": lambda demo: demo,
    "rules": lambda demo: compare_rules(demo.lives[1]),
    "growth": lambda demo: demo.growths[0],
    "inspections": lambda demo: inspection_plan(demo.growths[0]),
    "what if": lambda demo: what_if(demo.study, "load scale", [0.9, 1.1]),
    "comparison": lambda demo: compare_studies({"one": demo, "other": demo}),
    "model": lambda demo: small_result(),
}


def small_result():
    from tests.fields.models import LOADS, duty_of, field_of, spot

    return assess_model(field_of(30), LOADS, duty_of(), spot(), target="5 years")


@pytest.mark.parametrize("name", TABLES)
def test_everything_has_a_table_and_shows_it(demo_result, name):
    thing = TABLES[name](demo_result)
    frame, shown = thing.to_frame(), thing._repr_html_()
    assert isinstance(frame, pd.DataFrame)
    assert len(frame) >= 1
    assert len(set(frame.columns)) == frame.shape[1]
    assert "<table>" in shown
    if isinstance(thing, Result):  # a page, with the words that are told of it
        assert shown.startswith("<h4>")
        assert shown.count("<tr>") <= 60
        return
    assert shown.count("<tr>") <= 14  # a screen, not a flood
    if len(frame) > 12:
        assert f"{len(frame) - 12} more rows" in shown


def test_numbers_of_the_tables_are_those_of_the_nouns(demo_result):
    cycles = TABLES["cycles"](demo_result)
    assert cycles.to_frame()["range [N]"].to_numpy() == pytest.approx(cycles.range)
    assert cycles.to_frame()["start [s]"].to_numpy() == pytest.approx(cycles.start_time)
    matrix = TABLES["matrix"](demo_result)
    assert matrix.to_frame()["count"].sum() == pytest.approx(matrix.total)
    events = TABLES["duty cycle"](demo_result).to_frame()
    assert events["times a month"].tolist() == [1667, 1250, 5]
    assert demo_result.growths[0].to_frame().iloc[-1, 0] == pytest.approx(demo_result.growths[0].final_size)


@pytest.mark.parametrize("named", ["column", "index"])
def test_a_history_from_a_data_frame_and_back(demo_result, named):
    history = TABLES["history"](demo_result)
    frame = history.to_frame()
    given = frame if named == "column" else frame.set_index("time [s]")
    again = va.history_from_frame(given, history.name)
    assert again.sample_rate == pytest.approx(history.sample_rate)
    assert np.array_equal(again["vertical force"].values, history["vertical force"].values)
    in_kn = pd.DataFrame({"vertical force [kN]": frame["vertical force [N]"] / 1e3})
    by_rate = va.history_from_frame(in_kn, "kN", sample_rate="100 Hz")
    assert by_rate["vertical force"].values == pytest.approx(history["vertical force"].values)
    with pytest.raises(InputError, match="without a unit"):
        va.history_from_frame(pd.DataFrame({"force": [1.0, 2.0]}))
    with pytest.raises(InputError, match="a dict"):
        va.history_from_frame({"force [kN]": [1.0, 2.0]})
    with pytest.raises(InputError, match=r"row 2.*an empty cell"):
        va.history_from_frame(pd.DataFrame({"force [kN]": [1.0, None, 2.0]}), sample_rate="1 Hz")
    peaks = va.history_from_frame(in_kn.iloc[:40], rows="peaks and valleys")
    assert dataclasses.replace(peaks, steps="even").cycles_of("vertical force").range == pytest.approx(
        peaks.cycles_of("vertical force").range
    )


def test_a_figure_shows_itself(demo_result):
    picture = matplotlib.image.imread(io.BytesIO(va.plot(demo_result.lives[0])._repr_png_()))
    assert picture.shape[:2] == (800, 1280)


@pytest.mark.parametrize("name", DRAWN)
def test_anything_is_drawn_in_the_place_of_a_subplot(demo_result, name):
    mine = Figure(figsize=(24, 10), layout="constrained")
    left, right = mine.subplots(1, 2)
    left.plot([0, 1], [1, 0])
    part = va.plot(DRAWN[name](demo_result), ax=right)
    assert part.figure is mine or part.get_figure(root=True) is mine
    assert left in mine.axes
    assert part.axes
    made = io.BytesIO()
    mine.savefig(made, format="png", dpi=40)
    boxes = [one.get_window_extent() for one in part.axes]
    assert min(box.x0 for box in boxes) > left.get_window_extent().x1 - 1.0


def test_a_place_that_is_none_is_refused(demo_result):
    mine = Figure()
    for place, words in ((mine, "a Figure"), (mine.add_axes((0.1, 0.1, 0.5, 0.5)), "no subplot")):
        with pytest.raises(InputError, match=words):
            va.plot(demo_result.lives[0], ax=place)
    assert re.search("Picture", type(va.plot(demo_result.lives[0])).__name__)
    assert lives_over_size(demo_result.growths[0], sizes=[1.0, 2.0]).to_frame().shape[0] == 2
