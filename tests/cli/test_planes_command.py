"""Places on planes by the commands: the life on every plane as a file, the worst plane on a page and on a model."""

import dataclasses
import json
from pathlib import Path

import pandas as pd
import pytest

import vivid_anvil as va
from tests.cli.events import EVENTS, ON_PLANES, OTHER_PLANES, REST, STRAINS_ON_PLANES
from tests.fields.models import LOADS, duty_of, field_of
from tests.figures.drawn import small_model
from vivid_anvil.damage import CriticalPlane, StrainPlane
from vivid_anvil.fields import hottest_places
from vivid_anvil.fields.model_answer import worst_cycle_words
from vivid_anvil.figures.plot import plot

WAYS = {"rainflow": ON_PLANES, **OTHER_PLANES, **STRAINS_ON_PLANES}


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("way", WAYS)
def test_the_life_on_every_plane_is_written(written, run, way, units):
    rest = WAYS[way][: WAYS[way].index("[model]")].replace('"toe"', '"toe [left]"')
    path = written(EVENTS["history"], rest=rest)
    code, out, err = run("life", path, "--planes", "planes.csv", "--units", units)
    assert code == 0, err
    assert "planes.csv" in out
    table = pd.read_csv("planes.csv")
    (life,) = va.run_study(va.read_study(path)).lives
    assert set(table["place"]) == {life.hot_spot.name}
    assert table["damage per repeat"].is_monotonic_decreasing
    assert table["damage per repeat"].iloc[0] <= life.damage_per_repeat * 1.02
    assert table["damage per repeat"].iloc[0] >= 0.5 * life.damage_per_repeat
    assert table["theta [degrees]"].between(0.0, 90.0).all()


def test_where_no_place_is_on_planes_nothing_is_written(written, run, tmp_path):
    path = written(EVENTS["history"], rest=REST[: REST.index("[model]")])
    code, out, err = run("life", path, "--planes", "planes.csv", "--csv", "lives.csv")
    assert code == 2, out
    assert "assessed on planes" in " ".join(err.split())
    assert not (tmp_path / "planes.csv").exists()
    assert not (tmp_path / "lives.csv").exists()


def test_a_place_of_a_model_is_told_by_its_plane_and_drawn_with_its_trace():
    curve = va.knee_curve(
        name="bar", stress="amplitude", r_ratio=-1, knee_stress=60.0, knee_life=2e6, slope=5, slope_below=9
    )
    steel = va.Material(name="steel", ultimate_strength=900.0, yield_strength=500.0)
    strain = va.uniform_material_law("900 MPa")
    for method in (
        CriticalPlane(sn_curve=curve, k=0.3, shear_amplitude="circle"),
        StrainPlane(strain_life=strain, criterion="brown-miller"),
    ):
        spot = va.HotSpot(name="model", material=steel, method=method)
        model = va.assess_model(field_of(12), LOADS, duty_of(40), spot)
        worst, *_ = hottest_places(model, 2, apart=0.0)
        there = va.node_life(model, worst.node)
        normal = method.worst(there.hot_spot, there.duty_cycle).found.normal
        assert abs(float(normal @ worst.worst_cycle.direction)) == pytest.approx(1.0, abs=1e-4)
        assert "on the plane whose normal is" in worst_cycle_words(worst, "metric")[0]


def test_strokes_are_drawn_on_a_surface_alone():
    view = small_model("front")
    (legend,) = [axes.get_legend() for axes in plot(view).axes]
    assert "a crack starts along" in [text.get_text() for text in legend.get_texts()]
    bare = dataclasses.replace(view, places=())
    (legend,) = [axes.get_legend() for axes in plot(bare).axes]
    assert "a crack starts along" not in [text.get_text() for text in legend.get_texts()]


def test_a_model_with_two_limits_tells_criteria_for_endless_life_and_writes_them(written, run):
    path = written(EVENTS["history"], rest=OTHER_PLANES["two limits"])
    code, out, err = run("model", path, "--nodes", "nodes.csv", "--json", "a.json")
    assert code == 0, err
    assert "Endless life" in out
    assert "sines" in out
    table = pd.read_csv("nodes.csv")
    told = next(one for name, one in json.loads(Path("a.json").read_text()).items() if "endless" in name)
    for row in told:
        assert table[f"used of the limit by {row['criterion']}"].max() == pytest.approx(
            row["used of the limit"], rel=1e-6
        )
