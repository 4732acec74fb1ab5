"""The examples run as they stand, in an empty folder, and print what they promise."""

import runpy
import sys
from pathlib import Path

import pytest

pytestmark = pytest.mark.slow

EXAMPLES = sorted((Path(__file__).parents[1] / "examples").glob("*.py"))
PROMISED = {
    "rubber_that_never_relaxes": [
        "0 mm to 2 mm: 3.67 years; if it did not crystallise 3.67 years",
        "1 mm to 2 mm: 52.1 years; if it did not crystallise 5.86 years",
        "a first flaw of 0.06 mm: 3.94 years",
    ],
    "which_layup": [
        "[±45/0_3/90/0]s: 21 years",
        "between fibres in ply 6 of 14 (90°)",
        "fails in between fibres A at 3.1 times the loads",
    ],
    "laminate_with_a_solver": [
        "from the flexibility.",
        "6 elements have cracked with moments kept, 5 with moments that move",
        "left of the stiffness beside the root: 69.2%",
    ],
    "flaws_of_the_tower_base": (
        "8 flaws, 2 not acceptable",
        "H2: look within 0.5009 years",
        "B5 and B6 joined",
        "B4 taken as a surface flaw",
        "toughness moves it most",
    ),
    "hand_it_over": [
        "weld toe at the grip head (crack): 364 % used",
        "  load 10% more: 155.5 % used",
        "larkfell.html: ",
        "the first: Question and answer",
    ],
    "from_python": ["<LifeResult toe: life ", "Life of toe, worked by hand", "Reserve factor on life"],
    "static_load_cases": [
        "life 61.51 years, meets the target",
        "carrier passes in wind: 42.3% of the damage",
        "22 MPa × 1 + 61 MPa × 1 + 34 MPa × 0",
    ],
    "where_a_notch_yields": [
        "Elastic 1460 MPa are 674 MPa; back at 200 MPa the notch is at -326 MPa.",
        "each by itself: <LifeResult grease hole: life 41.52 years",
        "in the order given: <LifeResult grease hole: life 3703 years",
        "residual-stress-credited",
    ],
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
        "It stops in month 99, emergency stop no",
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
    "your_own_model": [
        "from (-32, -110, -4) mm to (32, 32, 4) mm",
        "4023 elements of the kind tetra10",
        "step 1: up to 141.6 MPa (von Mises) at node 2694",
        "averaged by the program that wrote it",
    ],
    "bracket_on_a_shaker": [
        "56 independent averages",
        "1 resonance, at most 40.02 MPa/g",
        "counted synthesis",
        "rms for 8 h",
        "does not cover the service",
        "not covered, damage from 0.29 times",
    ],
    "crack_in_a_plate": ["<GrowthResult plate: 2 to ", "look every "],
}


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda path: path.stem)
def test_the_example_runs(example, tmp_path, monkeypatch, capsys):
    monkeypatch.chdir(tmp_path)
    monkeypatch.setattr(sys, "argv", [str(example)])
    runpy.run_path(str(example), run_name="__main__")
    printed = capsys.readouterr().out
    for words in PROMISED[example.stem]:
        assert words in printed
    if example.stem == "from_python":
        assert (tmp_path / "larkfell-demo" / "toe.png").stat().st_size > 10_000


def test_the_example_reads_a_model_of_your_own(tmp_path, monkeypatch, capsys):
    """Two elements that disagree, with a set from a table."""
    rows = "node,x [mm],y [mm],z [mm],xx [MPa],yy [MPa],zz [MPa],xy [MPa],yz [MPa],zx [MPa],element\n"
    rows += "1,0,0,0,100,0,0,0,0,0,1\n1,0,0,0,50,0,0,0,0,0,2\n2,9,0,0,50,0,0,0,0,0,2\n"
    (tmp_path / "two.csv").write_text(rows)
    (tmp_path / "sets.csv").write_text("node,set\n1,toe\n")
    monkeypatch.chdir(tmp_path)
    monkeypatch.setattr(sys, "argv", ["your_own_model.py", "two.csv", "--sets", "sets.csv"])
    runpy.run_path(str(EXAMPLES[0].parent / "your_own_model.py"), run_name="__main__")
    printed = capsys.readouterr().out
    for words in ("set toe: 1 nodes", "up to 75 MPa (von Mises) at node 1", "disagree by up to 25% of the largest"):
        assert words in printed
