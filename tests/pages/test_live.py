"""Figures of pages hold the numbers of the result; surfaces of fewer triangles keep their worst nodes."""

import dataclasses
import json
import math
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import vivid_anvil as va
from vivid_anvil.counting import cycle_matrix, rainflow
from vivid_anvil.fields import ModelView
from vivid_anvil.models import outer_surface
from vivid_anvil.pages import live, page_text
from vivid_anvil.pages.fewer_triangles import fewer, triangles_of
from vivid_anvil.pages.growth_live import TIMES

MPA_IN_KSI = 1.0 / 6.894757293168361


def traces(one):
    """The traces of a figure by name, arrays as numbers."""
    return {trace.name: trace for trace in one.figure.data if trace.name}


def test_a_history_marks_its_ten_largest_cycles(demo_file):
    history = va.read_history(demo_file.parent / "loaded_lap.csv")
    values = history.channels[0].values
    marks = traces(live(history))["worst cycles"]
    y = np.array([one for one in marks.y if one is not None]).reshape(-1, 2) * 1e3
    found = np.abs(y[:, 0] - y[:, 1])
    assert found == pytest.approx(np.sort(rainflow(values).range)[::-1][:10], rel=1e-9)
    line = traces(live(history))[history.channels[0].name]
    assert np.asarray(line.y, float) * 1e3 == pytest.approx(values, rel=1e-6)
    assert line.dx == pytest.approx(1.0 / history.sample_rate)


def test_a_long_history_is_thinned_with_its_extremes_and_says_so(demo_file):
    history = va.read_history(demo_file.parent / "loaded_lap.csv")
    values = np.tile(history.channels[0].values, 6)
    values[100_003] = 9.9e3
    long = va.LoadHistory(name="long", channels=[va.Channel("force", values, "force")], sample_rate=100.0)
    made = live(long)
    line = traces(made)["force"]
    assert max(line.y) == pytest.approx(9.9)
    assert len(line.y) < values.size / 2
    assert any(str(values.size) in note for note in made.notes)


def test_damage_over_time_marks_the_cycles_that_do_most_of_it(demo_result):
    life = demo_result.lives[0]
    built = life.damage_over_time("loaded lap")
    marks = traces(live(built))["worst cycles"]
    x = np.array([one for one in marks.x if one is not None]).reshape(-1, 2)
    worst = [cycle for cycle in life.worst_cycles(40) if cycle.event == "loaded lap"][:10]
    assert x[0].tolist() == pytest.approx([worst[0].start, worst[0].end])
    assert [cycle.damage for cycle in built.worst] == [cycle.damage for cycle in worst]
    course = traces(live(built))["damage"]
    assert course.y[-1] == pytest.approx(100.0)
    at = np.searchsorted(built.time, 300.0)
    there = np.searchsorted(np.asarray(course.x), 300.0, side="right") - 1
    assert course.y[there] == pytest.approx(100.0 * built.damage[at - 1] / built.damage[-1], abs=0.1)


@pytest.mark.parametrize("kind", ["range-mean", "maximum-minimum"])
def test_a_matrix_tells_each_class(demo_result, kind):
    matrix = cycle_matrix(demo_result.lives[0].spectrum.cycles, kind=kind, classes=24)
    told = np.asarray(live(matrix).figure.data[0].customdata)
    assert told[..., 0] == pytest.approx(matrix.counts)
    assert told[..., 0].sum() == pytest.approx(matrix.total)
    assert told[0, 0, 1] == pytest.approx(matrix.row_edges[0])
    assert told[-1, -1, 4] == pytest.approx(matrix.column_edges[-1])


def test_a_life_stands_on_its_curve_with_its_classes(demo_result):
    life = demo_result.lives[0]
    for units, scale in (("metric", 1.0), ("us", MPA_IN_KSI)):
        made = live(life, units=units)
        curve = traces(made)[life.method.reference.name]
        at = np.flatnonzero(np.isfinite(np.asarray(curve.y, float)))[7]
        assert curve.y[at] == pytest.approx(scale * life.method.reference.stress_at(curve.x[at]))
        passed = traces(made)["exceedance in the target life"]
        assert passed.x[-1] == pytest.approx(life.spectrum.per_repeat.sum() * life.target_repeats)
        assert passed.y[0] == pytest.approx(scale * life.largest_equivalent)
        shares = [trace.x[1] for trace in made.figure.data if trace.fill == "toself"]
        assert shares == pytest.approx([100.0 * one.share for one in life.stress_classes(life.edges(units))])


def test_curves_in_ranges_and_in_amplitudes_stand_apart(demo_result):
    curves = [life.method.reference for life in demo_result.lives]
    made = live(curves)
    beside = {trace.name: trace.xaxis for trace in made.figure.data if trace.name}
    ranges = {curve.name for curve in curves if curve.stress == "range"}
    assert {beside[curve.name] for curve in curves if curve.name in ranges} == {"x"}
    assert {beside[curve.name] for curve in curves if curve.name not in ranges} == {"x2"}


def test_growth_has_a_slider_of_its_initial_size(demo_result):
    growth = demo_result.growths[0]
    made = live(growth)
    slider = made.figure.layout.sliders[0]
    assert len(slider.steps) == len(TIMES)
    assert slider.steps[slider.active].label == "1 mm"
    shown = [trace for trace in made.figure.data if trace.visible is not False and trace.name.startswith("from")]
    assert [trace.name for trace in shown] == ["from 1 mm"]
    assert shown[0].x[-1] == pytest.approx(growth.life_years)
    again = va.lives_over_size(growth, ["0.5 mm", "2 mm"])
    lines = traces(made)
    ends = [lines["from 0.5 mm"].x[-1], lines["from 2 mm"].x[-1]]
    assert ends == pytest.approx(again.years.tolist(), rel=0.02)  # there all cycles of a repeat at once
    for i, step in enumerate(slider.steps):
        assert [k for k, seen in enumerate(step.args[0]["visible"]) if seen] == [0, i + 1]


def test_flaws_stand_where_they_are_assessed(demo_file):
    result = va.run_study(va.read_study(demo_file.parent / "tower_base.toml"))
    made = live(result.flaws)
    points = {}
    for trace in made.figure.data[1:]:
        points |= {name: (x, y) for name, x, y in zip(trace.text, trace.x, trace.y, strict=True)}
    for flaw in result.flaws.flaws:
        point = flaw.assessment.point
        assert points[flaw.name] == pytest.approx((point.load_ratio, point.governing.fracture_ratio))
    growth = next(one.growth for one in result.flaws.growing if one.growth is not None and one.growth.life > 0.0)
    path = traces(live(growth))["path of the flaw"]
    assert path.y[-1] == pytest.approx(growth.path[-1][1].governing.fracture_ratio)
    one = live(result.flaws.flaws[-1].assessment)
    assert [note.split(":")[0] for note in one.notes] == [
        f"Reserve on {reserve.on}" for reserve in result.flaws.flaws[-1].assessment.reserves
    ]


@pytest.fixture(scope="module")
def head(demo_file):
    """The model of the demo, assessed, as it is seen."""
    study = va.read_study(demo_file.parent / "hanger_head.toml")
    answer = va.run_study(study).model
    return ModelView(answer.result, "corner", answer.places, study.model.up, answer.title)


def test_a_model_tells_every_node_of_its_surface(head):
    made, result = live(head), head.result
    faces = triangles_of(outer_surface(result.field.elements)[0])
    assert sum(one["triangles"] for one in made.more["sets"]) == len(faces)
    assert {number for part in made.more["nodes"] for number in part["number"]} == set(
        result.field.node_ids[np.unique(faces)].tolist()
    )
    part = made.more["nodes"][0]
    for number, life, event in list(zip(part["number"], part["life"], part["event"], strict=True))[::37]:
        place = result.field.place_of(number)
        assert float(life) == pytest.approx(result.life_years[place], rel=1e-3)
        assert result.event_names[event] == result.event_names[result.values.worst_event[place]]
    assert [(one["rank"], one["node"]) for one in made.more["places"]] == [(p.rank, p.node) for p in head.places]
    assert made.more["places"][0]["life"] == "17.78 years"
    assert all(math.isclose(np.linalg.norm(one["outwards"]), 1.0) for one in made.more["places"])


def test_sets_of_a_model_hold_the_faces_between_their_nodes(head):
    field = head.result.field
    names = [one["name"] for one in live(head).more["sets"]]
    assert names == ["all other nodes", "left out"]  # what is held is left out by the study
    whole = dataclasses.replace(head, result=dataclasses.replace(head.result, left_out=None))
    made = live(whole)
    assert [one["name"] for one in made.more["sets"]] == ["held end", "all other nodes"]
    held = set(field.node_ids[np.asarray(field.node_sets["held end"])].tolist())
    assert set(made.more["nodes"][0]["number"]) <= held


@settings(max_examples=40, deadline=None)
@given(seed=st.integers(0, 2**32 - 1), most=st.integers(20, 700))
def test_fewer_triangles_keep_the_worst_point_and_no_face_twice(seed, most):
    rng = np.random.default_rng(seed)
    x, y = np.meshgrid(np.linspace(0, 3, 25), np.linspace(0, 1, 18))
    points = np.column_stack([x.ravel(), y.ravel(), 0.1 * np.sin(3 * x.ravel())])
    corner = (np.arange(17)[:, None] * 25 + np.arange(24)).ravel()
    faces = triangles_of(np.column_stack([corner, corner + 1, corner + 26, corner + 25]))
    weight = rng.exponential(size=len(points))
    made = fewer(points, faces, weight, most)
    assert len(made) <= most
    assert np.argmax(weight) in made or len(made) < 4  # so few that hardly a face is left
    assert (np.sort(made, axis=1)[:, :-1] != np.sort(made, axis=1)[:, 1:]).all()
    assert len(np.unique(np.sort(made, axis=1), axis=0)) == len(made)
    if most >= len(faces):
        assert made is faces


def test_a_large_surface_is_thinned_with_its_worst_places_and_says_so(head, monkeypatch):
    monkeypatch.setattr("vivid_anvil.pages.model_live.MOST_TRIANGLES", 2_000)
    made = live(head)
    drawn = sum(one["triangles"] for one in made.more["sets"])
    assert 1_200 < drawn <= 2_000
    assert any(f"Drawn with {drawn} of them" in note for note in made.notes)
    numbers = {number for part in made.more["nodes"] for number in part["number"]}
    assert {place.node for place in head.places} <= numbers


def test_what_has_no_figure_to_look_around_in_stands_as_a_still_one(demo_result):
    law = demo_result.growths[0].crack.law
    assert live(law) is None
    text = page_text({"law of the weld": law, "toe": demo_result.lives[0]}, "Both")
    assert text.count('<img src="data:image/png;base64,') == 1
    assert text.count('<div class="live-row"') == 1
    assert "Law of the weld" in text


def test_a_name_cannot_end_the_script_of_a_page(demo_result):
    life = demo_result.lives[0]
    odd = dataclasses.replace(life, hot_spot=dataclasses.replace(life.hot_spot, name="toe </script><!--<script>[1]"))
    text = page_text({"toe": odd}, "Odd")
    call = text[text.rindex("show(") : text.rindex("</script>")]
    assert "<" not in call
    assert text[text.rindex("<h2>") :].startswith("<h2>Toe &lt;/script&gt;")


def test_a_page_is_whole_names_nothing_outside_and_is_the_same_again(demo_result, tmp_path):
    things = {"toe <b>": demo_result.lives[0], "cycles": demo_result.lives[0].spectrum.cycles}
    path = va.write_page(things, tmp_path / "look.html", title="A & B")
    text = path.read_text(encoding="utf-8")
    own = text[: text.index("<script>")] + text[text.rindex("</script>") :]
    assert "<title>A &amp; B</title>" in own
    assert 'src="http' not in text and 'href="http' not in own  # noqa: PT018
    assert path.stat().st_size < 8e6
    assert va.write_page(things, tmp_path / "again.html", title="A & B").read_bytes() == path.read_bytes()


@pytest.mark.parametrize(
    ("things", "name", "said"),
    [
        ({}, "a.html", "at least one"),
        ("text", "a.html", "nouns or results"),
        ([3.0], "a.html", "a float"),
        ([1, 2], "a.pdf", "ends in .html"),
    ],
)
def test_slips_at_a_page(things, name, said, tmp_path):
    with pytest.raises(va.InputError, match=said):
        va.write_page(things, tmp_path / name)
    assert not list(tmp_path.iterdir())


def test_the_command_says_what_to_install_before_it_computes(run, demo_file, monkeypatch, tmp_path):
    monkeypatch.setitem(__import__("sys").modules, "plotly", None)
    code, _, err = run("life", demo_file, "--page", tmp_path / "a.html", "--json", tmp_path / "a.json")
    assert code == 2
    assert "pip install 'vivid-anvil[pages]'" in " ".join(err.split())
    assert not list(tmp_path.iterdir())


def test_the_commands_write_pages_of_what_they_draw(run, demo_file, tmp_path):
    tests = Path(demo_file).parent
    asked = {
        "life": (["life", demo_file], 3),
        "count": (["count", tests / "loaded_lap.csv", "--matrix", "from-to"], 3),
        "model": (["model", tests / "hanger_head.toml"], 2),  # one view: it can be turned
    }
    for name, (words, figures) in asked.items():
        page = tmp_path / f"{name}.html"
        code, out, err = run(*words, "--page", page, "--json", tmp_path / f"{name}.json")
        assert code == 0, err
        assert page.name in out.replace("\n", "")
        text = page.read_text(encoding="utf-8")
        assert text.count("<section") >= figures
        assert json.loads((tmp_path / f"{name}.json").read_text(encoding="utf-8"))
