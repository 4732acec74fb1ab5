"""The examples run as they stand, in an empty folder, and print what they promise."""

import runpy
from pathlib import Path

import pytest

EXAMPLES = sorted((Path(__file__).parents[1] / "examples").glob("*.py"))
PROMISED = {
    "from_python": ["<LifeResult toe: life ", "Life of toe, worked by hand", "Reserve factor on life"],
    "drawing_board": ["fully reversed, Kf = 1.0: ", "pulsating from zero, Kf = 1.4: life", "fails the target"],
    "from_measurement_to_service_life": [
        "gate of 0.1 kN: 149",
        "rig history: ",
        "never-measured",
        "between the events: ",
        "principal stresses [105.   0.] MPa",
    ],
    "curves_from_everywhere": [
        "<Estimate steel of 780 MPa",
        "random limit: intercept",
        "warning [estimated-curve]",
        "note [typical-curve]",
        "'IIW steel, 80: stress amplitude, any R [MPa]': 45.9",
        "R = -0.5 in between: 2",
    ],
    "surface_crack_and_inspections": [
        "It stops in month 99, loaded lap no",
        "year 5: 2.71 mm deep, found",
        "With the law of the test piece, <GrowthFit growth_readings: C = 3.018e-13",
        "With 60 MPa of compression at the surface: ",
        "With Wheeler's factor: ",
        "loads times 1: limiting depth 9.09 mm, net-section yield",
    ],
    "hanger_head_model": [
        "<StressField 7522 nodes, 2 cases (vertical, lateral), 4023 elements>",
        "  1. node ",
        "<LifeResult node ",
        "Shank under 10 kN: 34.72 MPa in the model, 34.72 MPa by hand.",
        "Shank under 2 kN sideways: 92.65 MPa in the model, 92.59 MPa by hand.",
        "not-proportional",
        "years on its worst plane",
    ],
    "crack_in_a_plate": ["<GrowthResult plate: 2 to ", "look every "],
}


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda path: path.stem)
def test_the_example_runs(example, tmp_path, monkeypatch, capsys):
    monkeypatch.chdir(tmp_path)
    runpy.run_path(str(example), run_name="__main__")
    printed = capsys.readouterr().out
    for words in PROMISED[example.stem]:
        assert words in printed
    if example.stem == "from_python":
        assert (tmp_path / "larkfell-demo" / "toe.png").stat().st_size > 10_000
