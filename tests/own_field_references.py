"""References of our own for whole models, notches and sections."""

from __future__ import annotations

import math
from importlib.resources import files
from pathlib import Path

import numpy as np

from tests.fields.models import LOADS, duty_of, field_of, model_with, spot
from tests.own_references import Reference
from tests.stress.membrane import membrane_shear
from vivid_anvil.fields import ThroughPath, assess_model, node_life, structural_field, trust_of_nodes
from vivid_anvil.models import at_points, read_frd
from vivid_anvil.stress import (
    RectangleSection,
    hole_in_strip,
    plate_under_pressure,
    plate_with_hole,
    relative_gradient,
    round_groove,
    shoulder,
    through_thickness,
)

PLATE = Path(__file__).parent / "models" / "data" / "bore_in_wide_plate.frd"
BORE, TENSION, WIDTH = 14.0, 50.0, 320.0


def _bore() -> tuple[float, float]:
    """Mean through the thickness beside the bore, of the section with the hole at its gross stress."""
    plate = read_frd(PLATE, stress_unit="MPa", length_unit="mm", cases=["pull"])
    depths = np.linspace(0.0, 4.0, 41)
    along = at_points(plate, np.column_stack([np.full(41, BORE), np.zeros(41), depths])).stresses[0, :, 1]
    exact = hole_in_strip(2.0 * BORE, WIDTH) * TENSION / (1.0 - 2.0 * BORE / WIDTH)
    return exact, through_thickness(depths, along).membrane


def _shank(case: int) -> tuple[float, float]:
    demo = Path(str(files("vivid_anvil.demo") / "data"))
    head = read_frd(demo / "hanger_head.frd", stress_unit="MPa", length_unit="mm")
    path = ThroughPath(name="shank", surface=(-18.0, -80.0, 0.0), other=(18.0, -80.0, 0.0))
    by_hand = (10e3 / (8.0 * 36.0), 6.0 * 2e3 * 80.0 / (8.0 * 36.0**2))
    return by_hand[case], float(structural_field(head, [path]).stresses[case, 0, 1])


def _node() -> tuple[float, float]:
    model = assess_model(field_of(), LOADS, duty_of(), spot(notch_factor=1.2))
    worst = int(model.field.node_ids[model.worst])
    return node_life(model, worst).damage_per_repeat, float(model.damage_per_repeat[model.worst])


def _deviator(tensor: np.ndarray) -> np.ndarray:
    """A deviator as a vector of its length."""
    return (tensor - tensor[:3].mean() * np.array([1, 1, 1, 0, 0, 0])) * np.sqrt([1, 1, 1, 2, 2, 2])


def _circle() -> tuple[float, float]:
    turn = np.linspace(0.0, 2.0 * math.pi, 360, endpoint=False)
    result = model_with([np.sin(turn), np.cos(turn)])
    first, second = (_deviator(np.asarray(one)) for one in result.field.stresses[:, 0])
    angle = float(first @ second) / float(np.linalg.norm(first) * np.linalg.norm(second))
    a, b = float(first @ first), float(second @ second)
    root = math.sqrt((a - b) ** 2 + 4.0 * a * b * angle**2)  # axes of the ellipse that the tensor runs through
    return math.sqrt((a + b - root) / (a + b + root)), float(trust_of_nodes(result).off_line[0])


def _gradient() -> tuple[float, float]:
    depths = np.array([0.0, 0.01, 0.02])
    along = [plate_with_hole(8.0, 8.0 + depth, 90.0, 40.0)[0] for depth in depths]
    return 7.0 / 3.0 / 8.0, relative_gradient(depths, along)


def _shoulder() -> tuple[float, float]:
    narrow, ratio = 4.0 / 50.0, 4.0 / 10.0
    root = 0.62 * ratio + 2.0 * 5.8 * narrow * (1.0 + 2.0 * narrow) ** 2 + 0.2 * ratio**3 * 50.0 / 70.0
    return 1.0 + 1.0 / math.sqrt(root), shoulder("bending", 70.0, 50.0, 4.0, form="Peterson")


def _plate() -> tuple[float, float]:
    """Equilibrium of a supported round plate: m_r' + (m_r - m_t) / r = -p r / 2 at half of its radius."""
    found, step = plate_under_pressure(0.3, 120.0, 6.0, "supported"), 1e-3
    centre, radial, around = (one * 6.0 for one in found)  # moments: stress times t² / 6

    def moment(edge: float, r: float) -> float:
        return centre + (edge - centre) * (r / 120.0) ** 2

    slope = (moment(radial, 60.0 + step) - moment(radial, 60.0 - step)) / (2.0 * step)
    return -0.3 * 60.0 / 2.0, slope + (moment(radial, 60.0) - moment(around, 60.0)) / 60.0


FIELD_REFERENCES = [
    Reference("Bore of the demo in a wide plate, finite elements", "strip with a hole (Howland 1930)", 0.02, _bore),
    Reference("Shank of the demo's model, pull through its width", "force over section", 1e-3, lambda: _shank(0)),
    Reference("Shank of the demo's model, bending through its width", "beam", 1e-3, lambda: _shank(1)),
    Reference("Worst node of a whole model", "the same as a hot spot", 1e-11, _node),
    Reference("Load path off a straight line", "axes of the ellipse of two loads out of step", 1e-9, _circle),
    Reference("Stress gradient at a hole", "7 / (3 r) (Kirsch 1898)", 1e-4, _gradient),
    Reference(
        "Hole in a strip, Kt", "2 + (1 - d/W)³ (Heywood)", 0.03, lambda: (2.0 + 0.75**3, hole_in_strip(10.0, 40.0))
    ),
    Reference(
        "Round groove, Kt",
        "shallow: 1 + 2 √(t/r) (Inglis 1913)",
        0.1,
        lambda: (1.0 + 2.0 * math.sqrt(5.0), round_groove("tension", 1000.0, 999.0, 0.1)),
    ),
    Reference("Round plate under pressure", "equilibrium of its moments", 1e-6, _plate),
    Reference("Shoulder in bending, Kt by the charts", "DIN 743-2:2012, 4.2.1", 0.05, _shoulder),
    Reference(
        "Torsion of a rectangle, 20 mm by 50 mm",
        "Prandtl's membrane on a grid",
        2e-3,
        lambda: (membrane_shear(20.0, 50.0)[1], RectangleSection(20.0, 50.0).largest_shear(1.0)),
    ),
]
