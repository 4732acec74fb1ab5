"""Figures of data not ours: long names, many channels and events, one cycle, tiny and huge values; every text can be read."""

import dataclasses
import itertools

import numpy as np
import pytest

import vivid_anvil as va
from tests.figures.drawn import DRAWN
from tests.spots import changed, hot_spot
from vivid_anvil import growth as gr
from vivid_anvil import shapes as sh
from vivid_anvil.counting import cycle_matrix
from vivid_anvil.damage import compare_rules
from vivid_anvil.events import ConstantAmplitude, GatedHistory
from vivid_anvil.figures.style import FIXED
from vivid_anvil.figures.tidy import covered, folded, obstacles, shortened_name
from vivid_anvil.study import what_if

pytestmark = pytest.mark.slow

LONG = "bracing of the return station, weld toe at the transverse stiffener 14"
assert len(LONG) == 70
STEEL = va.Material(name=LONG, ultimate_strength=510.0, yield_strength=355.0, toughness=2500.0)


def history(channels=1, size=2000, scale=1.0, name=LONG):
    time = np.arange(size) / 50.0
    waves = [np.sin((1 + i) * time) + 0.3 * np.sin(17.0 * time + i) for i in range(channels)]
    return va.LoadHistory(
        name, [va.Channel(f"{LONG}, {i}", scale * wave, "stress") for i, wave in enumerate(waves)], 50.0
    )


def noisy(scale=1.0):
    rng = np.random.default_rng(5)
    return va.LoadHistory(LONG, [va.Channel(LONG, scale * np.cumsum(rng.normal(size=30_000)), "stress")], 100.0)


def curve(scale=1.0, **changes):
    given = {
        "name": LONG,
        "stress": "range",
        "r_ratio": "any",
        "point_stress": 80.0 * scale,
        "point_life": 2e6,
        "slope": 3,
    }
    return va.straight_curve(**(given | changes))


def life(scale=1.0, events=3, cycles=1000.0, sizes=None, **changes):
    ranges = np.geomspace(20.0, 200.0, events) if sizes is None else sizes
    loads = [
        va.Event(
            f"{LONG} {i}",
            ConstantAmplitude.from_range(LONG, f"{float(one * scale)!r} MPa", r_ratio=0.1, cycles=cycles),
            2,
        )
        for i, one in enumerate(ranges)
    ]
    given = {"name": LONG, "channel": LONG, "stress_per_load": "1", "material": STEEL, "curve": curve(scale)}
    return va.assess_life(hot_spot(**(given | changes)), va.DutyCycle("week", loads, 50), target="30 years")


def reversed_curve():
    return curve(stress="amplitude", r_ratio=-1, point_stress=120.0, slope=7)


def high_limit():
    given = {"knee_stress": 900.0, "knee_life": 2e6, "slope": 3, "slope_below": np.inf}
    return va.knee_curve(name=LONG, stress="range", r_ratio="any", **given)


def specimens():
    given = {"stresses": [300.0, 250, 200, 150], "lives": [1e4, 1e5, 1e6, 1e7], "failed": [True, True, True, False]}
    return va.SpecimenSeries(name=LONG, stress="range", r_ratio=0.1, **given)


AWKWARD = {
    **{f"{n} channels": (lambda n=n: history(n)) for n in (1, 2, 3, 4, 7, 12)},
    "noise": noisy,
    "tiny values": lambda: history(2, scale=1e-6),
    "huge values": lambda: history(2, scale=1e9),
    "three samples": lambda: history(1, size=3),
    "gated": lambda: GatedHistory(history(2), {f"{LONG}, 0": 0.5}),
    "several": lambda: [history(name=f"{LONG} {i}") for i in range(6)],
    "cycles of noise": lambda: noisy().cycles_of(LONG),
    "one cycle": lambda: va.rainflow([0.0, 1e9, 0.0]),
    "tiny cycles": lambda: noisy(1e-6).cycles_of(LONG),
    "huge cycles": lambda: noisy(1e9).cycles_of(LONG),
    "matrix": lambda: cycle_matrix(noisy(1e9).cycles_of(LONG), classes=16),
    "life": life,
    "life of 40 events": lambda: life(events=40),
    "life of one cycle": lambda: life(sizes=[150.0], cycles=1.0),
    "all damage in one class": lambda: life(sizes=[150.0]),
    "a tenth of a percent each": lambda: life(sizes=np.linspace(10.0, 200.0, 60)),
    "no damage at all": lambda: life(curve=high_limit()),
    "life of huge stresses": lambda: life(1e6, material=va.Material(name=LONG)),
    "life of tiny stresses": lambda: life(1e-6),
    "without target": lambda: dataclasses.replace(life(), target_repeats=None),
    "a curve": curve,
    "curve in amplitudes": reversed_curve,
    "seven curves": lambda: [curve(name=f"{LONG} {i}", point_stress=40.0 + 9.0 * i) for i in range(7)],
    "ranges and amplitudes": lambda: [curve(), reversed_curve(), curve(name=f"{LONG} 2", r_ratio=0)],
    "curves a millionth apart": lambda: [curve(1e-6), curve(1e-6, name=f"{LONG} 2", slope=3.0001)],
    "rules": lambda: compare_rules(life(curve=reversed_curve())),
    "rules of 40 events": lambda: compare_rules(life(curve=reversed_curve(), events=40)),
    "damage matrix": lambda: life(events=40).damage_matrix(),
    "tests": lambda: [specimens()],
    "growth law": lambda: va.ParisLaw(name=LONG, rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3, threshold="2 MPa√m"),
    "shape": lambda: sh.CentreCrack("100 mm"),
}


def of_demo(demo, change):
    """The demo's results under long names."""
    spot = changed(demo.growths[0].crack.hot_spot, name=LONG)
    flaw = dataclasses.replace(demo.growths[0].crack, hot_spot=spot)
    return change(dataclasses.replace(demo.growths[0], crack=flaw), demo)


NAMED = {
    "growth": lambda one, _: one,
    "visited": lambda one, _: gr.visited_law(one),
    "course": lambda one, _: gr.crack_course(one),
    "plan": lambda one, _: gr.inspection_plan(one, every="4 months"),
    "sizes": lambda one, _: gr.lives_over_size(one, ["0.5 mm", "1 mm", "4 mm"]),
    "what if": lambda _, demo: what_if(demo.study, "load scale", list(np.linspace(0.5, 1.5, 15))),
    "over time": lambda _, demo: demo.lives[1].damage_over_time("emergency stop"),
}


def texts_of(figure):
    """Every text that stands in a figure with its box; tick labels of an axis as one."""
    found = [("headline", figure._suptitle)]
    for i, axes in enumerate(figure.axes):
        if not axes.get_visible():
            continue
        named = [axes._left_title, axes.title]
        if axes.axison:
            named += [axes.xaxis.label, axes.yaxis.label]
        legend = axes.get_legend()
        found += [(f"axes {i}", text) for text in named]
        found += [(f"axes {i} label", text) for text in axes.texts]
        found += [(f"axes {i} legend", text) for text in (() if legend is None else legend.get_texts())]
    shown = [
        (where, text) for where, text in found if text is not None and text.get_visible() and text.get_text().strip()
    ]
    return [(where, text, text.get_window_extent()) for where, text in shown]


def faults(figure):
    """What cannot be read: texts outside of the picture, on each other, labels and legends on lines."""
    figure.draw_without_rendering()
    texts, told = texts_of(figure), []
    frame = figure.bbox
    for where, text, box in texts:
        if box.x0 < frame.x0 - 1 or box.x1 > frame.x1 + 1 or box.y0 < frame.y0 - 1 or box.y1 > frame.y1 + 1:
            told.append(f"{where}: {text.get_text()!r} leaves the picture, {box.extents.round()}")
    for (where, one, box), (there, other, second) in itertools.combinations(texts, 2):
        if box.padded(-1.0).overlaps(second.padded(-1.0)):
            told.append(f"{where}: {one.get_text()!r} lies on {there}: {other.get_text()!r}")
    for i, axes in enumerate(figure.axes):
        points = obstacles(axes)
        for text in axes.texts:
            if (
                text.get_text().strip()
                and text.get_gid() != FIXED
                and covered(text.get_window_extent().padded(-2.0), points)
            ):
                told.append(f"axes {i}: {text.get_text()!r} lies on a line")
        legend = axes.get_legend()
        if legend is not None and covered(legend.get_window_extent().padded(-4.0), points) > 0:
            told.append(f"axes {i}: the legend lies on a line")
    return told


@pytest.mark.parametrize("name", AWKWARD)
def test_whatever_is_drawn_can_be_read(name, tmp_path):
    figure = va.plot(AWKWARD[name]())
    assert faults(figure) == []
    va.save_figure(figure, tmp_path / "figure.png")


@pytest.mark.parametrize("name", NAMED)
def test_cracks_and_variants_under_long_names_can_be_read(demo_result, name):
    assert faults(va.plot(of_demo(demo_result, NAMED[name]))) == []


@pytest.mark.parametrize("name", DRAWN)
def test_all_that_the_demo_draws_can_be_read(demo_result, name):
    assert faults(va.plot(DRAWN[name](demo_result))) == []


def test_names_keep_both_ends():
    assert shortened_name(LONG, 30).startswith("bracing of the")
    assert shortened_name(LONG, 30).endswith("14")
    assert len(shortened_name(LONG, 30)) == 30
    assert max(map(len, folded(LONG, 20, 2).split("\n"))) <= 20
