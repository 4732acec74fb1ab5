"""References of our own for whole models, notches and sections."""

from __future__ import annotations

import math
from importlib.resources import files
from pathlib import Path

import numpy as np

from tests.fields.models import LOADS, duty_of, field_of, model_with, spot
from tests.own_references import Reference
from tests.stress.membrane import membrane_shear
from vivid_anvil.damage import CriticalPlane, WeldOfTwo, assess_life
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.fields import (
    CaseLoad,
    CaseLoads,
    ThroughPath,
    assess_model,
    node_life,
    structural_field,
    trust_of_nodes,
)
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import Material, knee_curve
from vivid_anvil.materials.strain import uniform_material_law
from vivid_anvil.models import at_points, read_frd
from vivid_anvil.stress import (
    HotSpot,
    RectangleSection,
    UnitStresses,
    hole_in_strip,
    plate_under_pressure,
    plate_with_hole,
    relative_gradient,
    round_groove,
    shoulder,
    through_thickness,
)
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.yielding import Yielding

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


STEEL = uniform_material_law("520 MPa")


def _neuber_of_equivalents() -> tuple[float, float]:
    """σ ε of the local equivalents at a biaxial notch, by the incremental rule, over that of the elastic ones."""
    tensors = np.array([[600.0, 200.0, 0, 0, 0, 0], [-600.0, -200.0, 0, 0, 0, 0]])
    path = Yielding(cyclic=STEEL.cyclic, plasticity="incremental").local(tensors, surface_normal=(0.0, 0.0, 1.0))
    one, two = path.stress[0, :2]
    q = math.sqrt(one**2 - one * two + two**2)
    return (600.0**2 - 600.0 * 200.0 + 200.0**2) / STEEL.youngs_modulus, q * float(STEEL.cyclic.strain(q))


def _whole_path() -> tuple[float, float]:
    """Damage of the worst node of a model on its worst plane, over all planes of a fine net around it."""
    method = CriticalPlane(sn_curve=spot().curve, k=0.3, shear_amplitude="circle")
    model = assess_model(
        field_of(40), LOADS, duty_of(80), HotSpot(name="model", material=spot().material, method=method)
    )
    place = model.worst
    life = node_life(model, int(model.field.node_ids[place]))
    fine = method.on_planes(life.hot_spot, life.duty_cycle)(half_sphere(1.0))
    return float(fine.max()), float(model.damage_per_repeat[place])


def _weld() -> tuple[float, float]:
    """The life by the sum of squares, over the sum of squares of constant ranges at that life, to 0.5."""
    curves = [
        knee_curve(
            name=name,
            stress="range",
            r_ratio="any",
            knee_stress=80.0,
            knee_life=2e6,
            slope=slope,
            slope_below=slope,
            component=name,
        )
        for name, slope in (("normal", 3), ("shear", 5))
    ]
    weld = WeldOfTwo(sn_curve=curves[0], shear_curve=curves[1])
    x = 2.0 * math.pi * np.arange(180) / 180
    channels = (Channel("a", np.sin(x), "force"), Channel("b", np.cos(x), "force"))
    duty = DutyCycle("lap", (Event("lap", LoadHistory("lap", channels, 100.0)),), 1.0)
    loads = CaseLoads([CaseLoad(case=name, channel=name, unit_load=1.0) for name in "ab"])
    relation = UnitStresses(loads=loads, unit=[[90.0, 0, 0, 0, 0, 0], [0, 0, 0, 70.0, 0, 0]])
    life = assess_life(HotSpot(name="toe", relation=relation, material=Material(name="steel"), method=weld), duty)
    n = weld.both(life).repeats
    return 0.5, (180.0 / (80.0 * (2e6 / n) ** (1 / 3))) ** 2 + (140.0 / (80.0 * (2e6 / n) ** (1 / 5))) ** 2


FIELD_REFERENCES = [
    Reference(
        "Local stress and strain of several stresses, any path",
        "Neuber of equivalents, in step",
        1e-3,
        _neuber_of_equivalents,
    ),
    Reference("Whole paths on planes, worst node of a model", "all planes of a net of 1 degree", 2e-2, _whole_path),
    Reference("Weld under two stresses, sum of squares", "constant ranges over strengths at that life", 2e-3, _weld),
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
