"""Contours along a crack front: what can be trusted, the worst position, on to the diagram; mixed mode by its rules."""

import math

import numpy as np
import pandas as pd
import pytest
from scipy.optimize import minimize_scalar

from tests.acceptance.flaws import metal
from tests.by_hand import by_hand
from vivid_anvil import InputError, KToughness, assess_front, crack_front, crack_of_fronts, read_crack_front
from vivid_anvil.acceptance.fronts.mixed_mode import MIXED_MODES
from vivid_anvil.shapes import read_points

ROOT = 1000.0**0.5
PLANE_STRAIN = 207000.0 / 0.91


def front(k=(1000.0, 1100.0, 1200.0, 1100.0, 1000.0), contours=5, wobble=(), **others):
    rows = np.outer(k, np.ones(contours))
    rows[:, 0] *= 0.95
    for row, contour, factor in wobble:
        rows[row, contour] *= factor
    return crack_front(np.linspace(0.0, 20.0, len(k)), {"K_I": rows}, **others)


def codes(found):
    return {one.code for one in found.findings}


def test_the_first_contour_is_left_out_and_the_worst_is_among_the_trusted():
    found = front()
    assert found.mean("K_I") == pytest.approx([1000.0, 1100.0, 1200.0, 1100.0, 1000.0])
    assert found.worst == 2
    assert codes(found) == set()
    ends = front((2000.0, 1100.0, 1200.0, 1100.0, 1000.0))
    assert ends.worst == 2  # an end is doubtful
    off = front(wobble=[(2, 3, 1.1)])
    assert codes(off) == {"contours-disagree"}
    assert off.worst == 1
    drifting = front(wobble=[(2, i, 1.0 + 0.02 * i) for i in range(1, 5)])
    assert codes(drifting) == {"contours-drift"}
    assert front(wobble=[(0, 3, 1.1)]).findings[0].code == "front-ends"
    assert front((1000.0, -50.0, 1200.0)).findings[0].code == "front-closed"


def test_k_of_j_shows_the_constraint():
    k = np.array([[1100.0] * 4, [1200.0] * 4, [1150.0] * 4])
    strain = crack_front([0.0, 1.0, 2.0], {"K_I": k, "J": k**2 / PLANE_STRAIN})
    assert strain.k_of_j == pytest.approx(strain.mean("K_I"))
    assert codes(strain) == set()
    half = crack_front([0.0, 1.0, 2.0], {"K_I": k, "J": 0.5 * k**2 / PLANE_STRAIN})
    assert "j-against-k" in codes(half)
    alone = crack_front([0.0, 1.0, 2.0], {"J": k**2 / PLANE_STRAIN})
    assert alone.k_effective == pytest.approx(strain.k_effective)


@pytest.mark.parametrize("ratio", [0.0, 0.3, 1.0, 5.0])
@pytest.mark.parametrize("sign", [1.0, -1.0])
def test_the_largest_tangential_stress_is_the_largest_there_is(ratio, sign):
    def size(theta):
        return math.cos(theta / 2) * (math.cos(theta / 2) ** 2 - 1.5 * sign * ratio * math.sin(theta))

    best = max(
        -minimize_scalar(lambda t: -size(t), bounds=b, method="bounded").fun for b in ((-2.0, 0.01), (-0.01, 2.0))
    )
    found = MIXED_MODES["largest tangential stress"](np.array([1.0]), np.array([sign * ratio]), np.array([0.0]), 0.3)
    assert found[0] == pytest.approx(best, rel=1e-6)


def test_mixed_mode_is_told_and_goes_into_the_diagram():
    rows = {"K_I": [[900.0] * 4] * 3, "K_II": [[400.0] * 4] * 3, "K_III": [[100.0] * 4] * 3, "T": [[-20.0] * 4] * 3}
    found = crack_front([0.0, 1.0, 2.0], rows)
    assert found.k_effective == pytest.approx(np.sqrt(900.0**2 + 400.0**2 + 100.0**2 / 0.7))
    assert "mixed-mode" in codes(found)
    point = assess_front(found, metal(KToughness(k=2400.0)), "180 MPa").point
    assert point.governing.fracture_ratio == pytest.approx(found.k_effective[1] / 2400.0)
    assert point.load_ratio == pytest.approx(180.0 / 355.0)
    table = found.tables()[0].rows()
    assert table[0]["remark"] == "end of the front"
    assert found.to_dict()["positions trusted"] == 1
    assert "1 mm" in found.page("metric").words[1][1]


def written(path, head, rows):
    frame = pd.DataFrame(rows, columns=head)
    frame.to_excel(path, index=False) if path.suffix == ".xlsx" else frame.to_csv(path, index=False)
    return path


HEAD = ["node", "case", "x [mm]", "y [mm]", "z [mm]"] + [f"K_I contour {i} [MPa√m]" for i in range(1, 5)]
ROWS = [
    [11, "storm", 0, 0, 0, 29.0, 30.0, 30.1, 29.9],
    [12, "storm", 3, 4, 0, 33.0, 35.0, 35.1, 34.9],
    [13, "storm", 3, 4, 5, 30.0, 31.0, 31.1, 30.9],
    [11, "proof", 0, 0, 0, 59.0, 60.0, 60.1, 59.9],
    [12, "proof", 3, 4, 0, 63.0, 65.0, 65.1, 64.9],
    [13, "proof", 3, 4, 5, 60.0, 61.0, 61.1, 60.9],
]


@pytest.mark.parametrize("name", ["front.csv", "front.xlsx"])
def test_tables_are_read_with_their_places_and_cases(tmp_path, name):
    path = written(tmp_path / name, HEAD, ROWS)
    found = read_crack_front(path, case="storm")
    assert found.positions == pytest.approx([0.0, 5.0, 10.0])
    assert found.mean("K_I") / ROOT == pytest.approx([30.0, 35.0, 31.0])
    assert read_crack_front(path, case="proof").mean("K_I")[0] / ROOT == pytest.approx(60.0)
    with pytest.raises(InputError, match="one of them"):
        read_crack_front(path)
    with pytest.raises(InputError, match="'storm', 'proof'"):
        read_crack_front(path, case="wind")


@pytest.mark.parametrize(
    ("head", "words"),
    [
        (["K_I contour 1 [MPa√m]", "K_I contour 2 [MPa√m]", "K_I contour 4 [MPa√m]", "position [mm]"], "1, 2, 4"),
        (["K_I contour 1 [MPa√m]", "K_I contour 2 [MPa√m]", "K_I contour 3 [MPa√m]", "node"], "no position"),
        (
            ["K_I contour 1 [MPa√m]", "K_I contour 2 [MPa]", "K_I contour 3 [MPa√m]", "position [mm]"],
            "stress intensity",
        ),
        (["K_I contour 1", "K_I contour 2 [MPa√m]", "K_I contour 3 [MPa√m]", "position [mm]"], "no unit"),
        (["J contour 1 [MPa√m]", "J contour 2 [MPa√m]", "J contour 3 [MPa√m]", "position [mm]"], "1 kJ/m"),
        (["T contour 1 [MPa]", "T contour 2 [MPa]", "T contour 3 [MPa]", "position [mm]"], "K_I or J"),
        (["K_I contour 1 [MPa√m]", "K_I contour 2 [MPa√m]", "node", "position [mm]"], "three contours"),
    ],
)
def test_tables_that_cannot_be_are_told(tmp_path, head, words):
    path = written(tmp_path / "front.csv", head, [[1.0, 1.1, 1.2, 0.0], [1.0, 1.1, 1.2, 3.0]])
    with pytest.raises(InputError, match=words):
        read_crack_front(path)


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (lambda: crack_front([], {"K_I": [[1.0, 2.0, 3.0]]}), "positions"),
        (lambda: crack_front([0.0], {"K": [[1.0, 2.0, 3.0]]}), "'K_I'"),
        (lambda: crack_front([0.0], {"J": [[1.0, -2.0, 3.0]]}), "0 or more"),
        (lambda: crack_front([0.0, 1.0], {"K_I": [[1.0, 2.0, 3.0]]}), "2 positions"),
        (lambda: crack_front([0.0], {"K_I": [[1.0, 2.0, 3.0]]}, rule="hoop"), "largest tangential stress"),
    ],
)
def test_fronts_that_cannot_be_are_told(make, words):
    with pytest.raises(InputError, match=words):
        make()


def test_fronts_of_two_sizes_are_a_shape_that_gives_back_their_k(tmp_path, run):
    two, four = front((350.0, 352.0, 380.0, 352.0, 350.0)), front((560.0, 562.0, 640.0, 562.0, 560.0))
    shape = crack_of_fronts(["2 mm", "4 mm"], [two, four], "100 MPa")
    for size, one in ((2.0, two), (4.0, four)):
        assert 100.0 * shape.scales(size)[0] == pytest.approx(one.k_effective[one.worst], rel=1e-12)
    with pytest.raises(InputError, match="rise from row to row"):
        crack_of_fronts([4.0, 2.0], [two, four], 100.0)
    with pytest.raises(InputError, match="a size for each front"):
        crack_of_fronts([4.0], [two, four], 100.0)
    with pytest.raises(InputError, match="an open crack"):
        crack_of_fronts([2.0, 4.0], [front((-10.0, -20.0, -30.0, -20.0, -10.0)), four], 100.0)
    paths = []
    for name, one in (("two.csv", two), ("four.csv", four)):
        head = ["position [mm]"] + [f"K_I contour {i} [MPa√mm]" for i in range(1, 6)]
        rows = np.column_stack([one.positions, one.contours["K_I"]])
        paths.append(written(tmp_path / name, head, rows))
    sizes = ("--size", "2 mm", "--size", "4 mm", "--stress", "100 MPa")
    code, _out, err = run("front", *paths, *sizes, "--csv", tmp_path / "y.csv", "--figures", tmp_path / "drawn")
    assert code == 0, err
    found = pd.read_csv(tmp_path / "y.csv")
    assert found["Y"].tolist() == pytest.approx([y for _, y in shape.points])
    assert len(list((tmp_path / "drawn").iterdir())) == 2
    again = read_points(tmp_path / "y.csv", "table")
    assert again[1][1] == pytest.approx(shape.points[1][1])
    code, _, err = run("front", *paths, "--size", "2 mm")
    assert code == 2
    assert "--size without --stress" in err


@pytest.mark.parametrize("stress", [60.0, 250.0, 420.0])
def test_a_front_meets_the_curve_at_its_reserve(stress):
    found = assess_front(front(), metal(KToughness(k=2400.0)), stress)
    factor = found.reserve_on_load.factor
    again = assess_front(
        front(tuple(factor * k for k in (1000.0, 1100.0, 1200.0, 1100.0, 1000.0))), found.metal, factor * stress
    )
    assert again.point.room == pytest.approx(0.0, abs=1e-9)
    needed = 2400.0 / found.reserve_on_toughness.factor
    just = assess_front(front(), metal(KToughness(k=needed)), stress)
    if found.reserve_on_toughness.factor > 0.0 and np.isfinite(needed):
        assert just.point.room == pytest.approx(0.0, abs=1e-9)
    assert found.acceptable == (factor >= 1.0)
    assert ("flaw-not-acceptable" in codes(found)) == (not found.acceptable)
    assert found.facts()["verdict"] in ("acceptable", "not acceptable")


def test_the_hand_calculation_of_a_front_can_be_redone():
    found = assess_front(front(), metal(KToughness(k=2400.0)), "180 MPa")
    for step in found.working().steps:
        if "e^" not in step.numbers and (step.numbers[0].isdigit() or step.numbers.startswith("(")):
            assert by_hand(step.numbers.split(";")[0]) == pytest.approx(step.value, rel=1e-4), step
