"""Figures: everything that can be drawn is, 1280x800, with a unit on every axis that has a dimension."""

import matplotlib.image
import numpy as np
import pytest

import vivid_anvil as va
from tests.figures.drawn import DRAWN
from vivid_anvil.figures.style import thinned

pytestmark = pytest.mark.slow


def overlapping(figure):
    """Pairs of annotations and axis labels whose boxes overlap."""
    figure.draw_without_rendering()
    texts = [
        text
        for axes in figure.axes
        for text in (*axes.texts, axes.title, axes.xaxis.label, axes.yaxis.label, axes._left_title)
    ]
    boxes = [(text.get_text(), text.get_window_extent()) for text in texts if text.get_text() and text.get_visible()]
    return [(a[0], b[0]) for i, a in enumerate(boxes) for b in boxes[i + 1 :] if a[1].overlaps(b[1])]


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("thing", DRAWN.values(), ids=DRAWN)
def test_a_figure_is_readable(demo_result, tmp_path, thing, units):
    figure = va.plot(thing(demo_result), units=units)
    assert overlapping(figure) == []
    for axes in figure.axes:
        if not axes.axison or axes.get_label() == "<colorbar>" or not axes.xaxis.get_ticklabels():
            continue
        assert axes.get_xlabel() or axes.get_shared_x_axes().get_siblings(axes)[1:]
        dimensional = [
            label
            for label in (axes.get_xlabel(), axes.get_ylabel())
            if label and not any(word in label for word in ("ycles", "rossings", "Specimen"))
        ]
        assert all("[" in label for label in dimensional), dimensional
    if units == "us":
        assert not any("MPa" in axes.get_ylabel() or "mm" in axes.get_ylabel() for axes in figure.axes)
    path = va.save_figure(figure, tmp_path / "figure.png")
    assert matplotlib.image.imread(path).shape[:2] == (800, 1280)
    assert [item.name for item in tmp_path.iterdir()] == ["figure.png"]


def test_thinning_keeps_every_extreme():
    time, values = np.arange(100_000.0), np.random.default_rng(1).standard_normal(100_000)
    x, y = thinned(time, values)
    assert (y.max(), y.min()) == (values.max(), values.min())
    assert x.size < 10_000
    assert (np.diff(x) >= 0).all()


def test_what_has_no_figure_is_refused(demo_result, tmp_path):
    with pytest.raises(va.InputError, match="plot one of its lives"):
        va.plot(demo_result)
    for things, message in (
        ([], "no history"),
        ([DRAWN["several"](demo_result)[0], DRAWN["two channels"](demo_result)], "common"),
    ):
        with pytest.raises(va.InputError, match=message):
            va.plot(things)
    with pytest.raises(va.InputError, match="can be written"):
        va.save_figure(va.plot(demo_result.lives[1].curve), tmp_path / "none" / "figure.png")


def test_labels_of_places_do_not_cover_each_other():
    from vivid_anvil.figures.model_figure import LABEL_GAP, label_places

    rng = np.random.default_rng(3)
    points = np.column_stack([rng.uniform(-5.0, 5.0, 12), rng.uniform(0.0, 3.0, 12)])
    labels = label_places(points, np.zeros(2), 10.0)
    for side in (labels[:, 0] > points[:, 0], labels[:, 0] < points[:, 0]):
        heights = np.sort(labels[side, 1])
        assert np.diff(heights).min() > LABEL_GAP * 10.0 * (1.0 - 1e-9)
        order = np.argsort(points[side, 1])
        assert (np.diff(labels[side, 1][order]) > 0.0).all()  # lines to them do not cross
        assert labels[side, 1].mean() == pytest.approx(points[side, 1].mean())


@pytest.mark.parametrize("name", ["lap", "lap.xyz", ".png"])
def test_a_picture_without_its_kind_is_refused_and_leaves_nothing(tmp_path, name):
    figure = va.plot(va.LoadHistory("lap", (va.Channel("force", [1.0, 4.0, 2.0, 5.0, 1.0], "force"),), 10.0))
    for save in (va.save_figure, va.figures.draw_into):
        with pytest.raises(va.InputError, match=r"found '.*', expected a name that ends in .png"):
            save(figure, tmp_path / name)
    assert not list(tmp_path.iterdir())
    assert va.save_figure(figure, tmp_path / "lap.SVG").read_text().startswith("<?xml")
