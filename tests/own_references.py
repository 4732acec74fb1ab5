"""References of our own for methods without a printed case: exact solutions and models written out as plain loops."""

from __future__ import annotations

import math
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import NamedTuple

import numpy as np
import pandas as pd
from scipy.integrate import quad

from tests.growth.plain_loops import LAWS, PLATE, SURFACE, by_hand, two_by_hand, wheeler, willenborg
from tests.shapes.dislocations import equal_tension, exact_k, pressed_apart, tension
from tests.spots import hot_spot
from vivid_anvil import growth as gr
from vivid_anvil import shapes as sh
from vivid_anvil.damage import CrackingEnergy, assess_life
from vivid_anvil.events import DutyCycle, Event, LoadStates
from vivid_anvil.materials import Material, Stromeyer, curved_curve, detail_curve
from vivid_anvil.materials.plies import LargestStress, Ply, PowerStiffness
from vivid_anvil.materials.rubber import (
    MooneyRivlin,
    PowerTearing,
    Rubber,
    TearingTests,
    fit_tearing,
    initial_flaws,
    law_at,
)
from vivid_anvil.models import read_ply_stresses
from vivid_anvil.progress import CycleEnds, ProgressSettings, laminate_progress
from vivid_anvil.shapes.solutions import (
    hole_crack,
    hole_crack_biaxial,
    hole_wedge_force,
    surface_crack,
    surface_ends_by_weight,
)
from vivid_anvil.stress import CaseLoad, CaseLoads, HotSpot, UnitStresses, stresses_of_rosette
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.stress.rubber import StatesInTurn, StrainLoads, StrainStates
from vivid_anvil.study import read_card_named

ROWS = np.column_stack([np.where(np.arange(400) % 50, 100.0, 190.0), np.arange(400) % 7 * 6.0])


class Reference(NamedTuple):
    """A method, what it is held against, how near it has to be; the function gives the reference and our value."""

    method: str
    against: str
    within: float
    values: Callable[[], tuple[float, float]]


def _at_hole(cracks: int, stress: Callable, factor: Callable) -> Callable[[], tuple[float, float]]:
    return lambda: (exact_k(stress, 0.5, cracks) / math.sqrt(0.5 * math.pi), float(factor(0.5, 1.0, cracks)))


def _pin(cracks: int) -> tuple[float, float]:
    length = 1.5 if cracks == 2 else 1.25 * 1.5
    return exact_k(pressed_apart, 0.5, cracks) * math.sqrt(math.pi * length), float(hole_wedge_force(0.5, 1.0, cracks))


def _remembered(kind: str, model: Callable, number: float) -> tuple[float, float]:
    memory = (
        gr.Wheeler(yield_strength=350.0, exponent=number)
        if kind == "wheeler"
        else gr.Willenborg(yield_strength=350.0, shut_off=number)
    )
    found = gr.grow_by_cycle(ROWS, PLATE, LAWS["walker"], 9.0, retardation=memory)
    return model(ROWS, LAWS["walker"], 9.0, 350.0, number) - 9.0, found.size - 9.0


def _both_ends() -> tuple[float, float]:
    memory = gr.Wheeler(yield_strength=350.0, exponent=1.2)
    table, piece = np.column_stack([ROWS, np.ones(len(ROWS))]), np.array([[0.0, len(ROWS), 1.0, 1.0]])
    found = gr.grow_by_cycle(table, SURFACE, LAWS["walker"], (2.0, 5.0), passes=1, pieces=piece, retardation=memory)
    return two_by_hand(ROWS, LAWS["walker"], 2.0, 5.0, memory)[1] - 5.0, float(found.sizes[-1, 1]) - 5.0


def _plain() -> tuple[float, float]:
    return by_hand(ROWS, LAWS["forman"], 9.0, 1) - 9.0, gr.grow_by_cycle(ROWS, PLATE, LAWS["forman"], 9.0).size - 9.0


def _two_stresses() -> tuple[float, float]:
    """K at the end of each cycle is the sum of both stresses' own: membrane and bending out of step, on an edge crack."""
    plate, law, size = sh.EdgeCrack(60.0), LAWS["walker"], 3.0
    rows = np.array([[90.0, 10.0, 1.0, -30.0, 40.0], [20.0, 5.0, 1.0, 0.0, 90.0]] * 100)
    for high, low, _, bent_high, bent_low in rows:
        root = math.sqrt(math.pi * size)
        pull, bend = (float(sh.EdgeCrack(60.0, share).geometry_factor(size)) * root for share in (0.0, 1.0))
        ends = sorted((pull * high + bend * bent_high, pull * low + bend * bent_low))
        size += float(law.growth(ends[1] - max(ends[0], 0.0), max(ends[0], 0.0) / ends[1]))
    return size - 3.0, gr.grow_by_cycle(rows, plate, law, 3.0).size - 3.0


def _surface_bending() -> tuple[float, float]:
    bent = surface_ends_by_weight(lambda x: 1.0 - 0.2 * x, 4.0, 10.0, 10.0)
    return surface_crack(4.0, 10.0, 10.0, angle=0.0).bending, bent / math.sqrt(4.0 * math.pi)


def _shallow_in_bar() -> tuple[float, float]:
    return surface_crack(1e-4, 1e-4, 20.0).tension, float(sh.BarSurfaceCrack(20.0).geometry_factor(1e-4))


def _states() -> tuple[float, float]:
    """Ranges of 85 and 48 MPa, and one below the cut-off, on class 71."""
    knee = 71.0 * (2.0 / 5.0) ** (1.0 / 3.0)
    wanted = 120 / (5e6 * (knee / 85.0) ** 3) + 300 / (5e6 * (knee / 48.0) ** 5)
    toe = hot_spot(
        name="toe",
        stress_per_load={"weight": 40.0, "passengers": 85.0, "wind": 30.0},
        material=Material(name="steel"),
        curve=detail_curve("EN 1993-1-9", 71),
    )
    loading = LoadStates.of({"weight": 1, "passengers": [0, 1]}, cycles=120)
    gusts = LoadStates.of({"weight": 1, "passengers": 0.8, "wind": [-0.6, 1.0, 0.2, 0.5]}, cycles=300)
    day = DutyCycle("day", (Event("loading", loading), Event("gusts", gusts)))
    return wanted, assess_life(toe, day).damage_per_repeat


def _pull_and_twist() -> tuple[float, float]:
    """Mohr's circle: 120 MPa of tension and 70 MPa of shear, each with its load."""
    loads = CaseLoads(
        [CaseLoad(case="pull", channel="p", unit_load=1.0), CaseLoad(case="twist", channel="t", unit_load=1.0)]
    )
    unit = np.array([[120.0, 0, 0, 0, 0, 0], [0, 0, 0, 70.0, 0, 0]])
    place = UnitStresses(loads=loads, unit=unit, measure="signed Tresca")
    return 2.0 * float(np.hypot(60.0, 70.0)), float(place.history([[1.0, 1.0]])[0])


def _strains_back() -> tuple[float, float]:
    """Hooke's law forwards: a state of stress, its strains in three directions, and back."""
    modulus, nu, wanted = 206e3, 0.3, np.array([90.0, -35.0, 48.0])
    ex, ey = (wanted[0] - nu * wanted[1]) / modulus, (wanted[1] - nu * wanted[0]) / modulus
    shear = 2.0 * (1.0 + nu) * wanted[2] / modulus
    turns = np.radians([0.0, 60.0, 120.0])
    strains = ex * np.cos(turns) ** 2 + ey * np.sin(turns) ** 2 + shear * np.sin(turns) * np.cos(turns)
    found = stresses_of_rosette(["a", "b", "c"], "0/60/120", youngs_modulus=modulus, poissons_ratio=nu)
    return float(np.linalg.norm(wanted)), float(np.linalg.norm(found.tensors(strains[None])[0, [0, 1, 3]]))


def _levelling_out() -> tuple[float, float]:
    """N (S - S_e)^m = A of two amplitudes, by hand."""
    form = Stromeyer(endurance=150.0, exponent=2.5, point_stress=300.0, point_life=1e5)
    curve = curved_curve(name="-", form=form, stress="amplitude", r_ratio=-1, tested_from=1e4, tested_to=1e7)
    constant = 1e5 * 150.0**2.5
    wanted = 10.0 * 100.0**2.5 / constant + 300.0 * 20.0**2.5 / constant
    return wanted, curve.damage_of(np.array([500.0, 340.0]), np.array([10.0, 300.0]))


def _bush() -> HotSpot:
    """A place of rubber that is pulled to 1.8 by numbers of states, 1 to 60 and back."""
    law = MooneyRivlin(name="bush", c10=0.3, c01=0.08)
    growth = PowerTearing(name="bush", rate=0.0025, at=11.0, slope=2.2)
    rubber = Rubber(name="bush", law=law, growth=growth, initial_flaw=0.04, end_flaw=1.2)
    pull = np.linspace(1.0, 1.8, 60)
    across = 1.0 / np.sqrt(pull)
    states = np.column_stack([pull, across, across, *np.zeros((3, 60))])
    turn = StatesInTurn(channel="state", cases=[f"{i}" for i in range(60)])
    relation = StrainStates.of(states, "right stretch", StrainLoads([turn]))
    method = CrackingEnergy(rubber=rubber, surface_normal=(0.0, 0.0, 1.0))
    return HotSpot(name="bush", relation=relation, material=Material(name="r"), method=method)


def _block_of_rubber() -> tuple[float, float]:
    """Equal cycles of simple tension: the closed integral over the size of the flaw."""
    energy = 0.3 * (1.8**2 + 2.0 / 1.8 - 3.0) + 0.08 * (2.0 * 1.8 + 1.8**-2 - 3.0)
    drive = 2.0 * math.pi * energy / 11.0
    wanted = (1.2**-1.2 - 0.04**-1.2) / (-1.2 * 0.0025 * drive**2.2)
    there = [*range(1, 61), *range(59, 1, -1)]
    lap = DutyCycle("lap", [Event("pull", LoadStates.of({"state": there}))])
    return wanted, assess_life(_bush(), lap).life_repeats


def _between_temperatures() -> tuple[float, float]:
    """A third of the way from 20 to 80 °C the logarithm of the rate is a third of the way."""
    cold = PowerTearing(name="r", rate=0.001, at=10.0, slope=2.0, temperature=20.0)
    warm = PowerTearing(name="r", rate=0.006, at=8.0, slope=2.6, temperature=80.0)
    wanted = (0.001 * 0.07**2.0) ** (2.0 / 3.0) * (0.006 * (0.7 / 8.0) ** 2.6) ** (1.0 / 3.0)
    return wanted, float(law_at([cold, warm], 40.0).growth(0.7))


def _through_growth_tests() -> tuple[float, float]:
    """Points on a law of three regimes, written out; the fit between two of them."""
    rise = 2e-6

    def rate(t: float) -> float:
        middle = 1e-8 + rise * max(min(t, 3.0) - 0.08, 0.0)
        return middle if t <= 3.0 else middle * (t / 3.0) ** 2.5

    energies = np.geomspace(0.05, 9.0, 25)
    tests = TearingTests(name="r", energies=energies, rates=[rate(one) for one in energies.tolist()])
    return rate(0.6), float(fit_tearing(tests, form="three regimes").law.growth(0.6))


def _flaws_behind_lives() -> tuple[float, float]:
    """The life that a flaw of 0.05 mm has by the closed integral, and the flaw back from it."""
    law = PowerTearing(name="r", rate=0.0025, at=11.0, slope=2.0)
    drive = 2.0 * math.pi * 0.5 / 11.0
    life = (1.0 / 0.05 - 1.0 / 1.5) / (0.0025 * drive**2.0)
    return 0.05, initial_flaws(law, [0.5], [life], end=1.5).median


def _softening_cross_ply() -> tuple[float, float]:
    """Cycles until the plies across a pull are full of damage, which soften with it; without contraction one integral."""
    along, across, end, slope, strength, pull = 40e3, 10e3, 0.6, 9.0, 60.0, 300.0
    life = LargestStress(tension=strength, tension_slope=slope, compression=strength, compression_slope=slope)
    ply = Ply(
        name="stiff",
        modulus_along=along,
        modulus_across=across,
        shear_modulus=4e3,
        poissons_ratio=0.0,
        tension_along=2e3,
        compression_along=2e3,
        tension_across=strength,
        compression_across=strength,
        shear_strength=strength,
        across_life=life,
        shear_life=life,
        across_stiffness_decay=PowerStiffness(end=end, exponent=1.0),
    )
    plate = Laminate(name="plate", layup="[0/90]s", ply=ply, ply_thickness=2.0)
    ends = np.zeros((1, 2, 6))
    ends[0, 0, 0] = pull
    cycles = CycleEnds.of_one_row(ends, np.ones(1), 4)
    found = laminate_progress(plate, cycles, ProgressSettings(modes=("matrix",), jump_error=1e-7))

    def cycles_per_damage(used: float) -> float:
        own = across * (1.0 - (1.0 - end) * used)
        return float((strength / (own * pull / (4.0 * along + 4.0 * own))) ** slope)

    return quad(cycles_per_damage, 0.0, 1.0, epsrel=1e-12)[0], found.failures[0].repeats


def _moment_of_faces() -> tuple[float, float]:
    """The moment of a sheet of one ply from the stresses of its faces: they are 6 m / h² apart from their mean."""
    ply = read_card_named("glass-epoxy-ply").ply_there
    sheet = Laminate(name="sheet", layup=[0], ply=ply, ply_thickness=3.0)
    heads = ["node", "x [mm]", "y [mm]", "z [mm]", "ply", "face", "s1 [MPa]", "s2 [MPa]", "t12 [MPa]"]
    with TemporaryDirectory() as folder:
        path = Path(folder) / "faces.csv"
        rows = [[1, 0, 0, 0, 1, "lower", -40.0, 0.0, 0.0], [1, 0, 0, 0, 1, "upper", 100.0, 0.0, 0.0]]
        pd.DataFrame(rows, columns=heads).to_csv(path, index=False)
        return 70.0 * 3.0**2 / 6.0, float(read_ply_stresses(path, sheet).stresses[0, 0, 3])


_LOOP = "the model as a plain loop over the cycles"
_DISLOCATIONS = "dislocations along the crack, a = 0.5 r"
REFERENCES = [
    Reference("Stress of several components at a place", "Mohr's circle, by hand", 1e-9, _pull_and_twist),
    Reference("Stress from a rosette", "Hooke's law forwards, by hand", 1e-12, _strains_back),
    Reference("Curved S-N line, Stromeyer", "damage of two amplitudes, by hand", 1e-12, _levelling_out),
    Reference("States of several loads", "ranges of the sum, EN 1993-1-9:2005, 7.1, by hand", 1e-9, _states),
    Reference("Two cracks at a hole (Newman 1971)", _DISLOCATIONS, 0.0015, _at_hole(2, tension, hole_crack)),
    Reference("One crack at a hole (Newman 1971)", _DISLOCATIONS, 0.055, _at_hole(1, tension, hole_crack)),
    Reference(
        "Two cracks at a hole, tension both ways",
        _DISLOCATIONS,
        0.02,
        _at_hole(2, equal_tension, lambda a, r, n: hole_crack_biaxial(a, r, n, along=1.0)),
    ),
    Reference("Two cracks at a hole with pins", _DISLOCATIONS, 6e-4, lambda: _pin(2)),
    Reference("One crack at a hole with pins", _DISLOCATIONS, 6e-4, lambda: _pin(1)),
    Reference("Surface crack of a bar", "shallow: half a penny at a surface (Newman and Raju)", 0.02, _shallow_in_bar),
    Reference("Weight function at the surface points", "bending (Newman and Raju)", 1e-9, _surface_bending),
    Reference("Life of rubber at a place", "closed integral over the flaw, by hand", 1e-5, _block_of_rubber),
    Reference("Tearing law between two temperatures", "log of the rate, by hand", 1e-12, _between_temperatures),
    Reference("Tearing law through growth tests", "points of a law written out", 1e-8, _through_growth_tests),
    Reference("Flaws behind lives of strips", "closed integral, by hand", 1e-9, _flaws_behind_lives),
    Reference(
        "Cross-ply that softens, to full damage", "integral over the damage, by hand", 1e-6, _softening_cross_ply
    ),
    Reference("Moment from stresses of plies", "beam of one ply, by hand", 1e-12, _moment_of_faces),
    Reference("Cycle by cycle, Forman", _LOOP, 1e-6, _plain),
    Reference("Membrane and bending out of step", _LOOP, 1e-6, _two_stresses),
    Reference("Wheeler", _LOOP, 1e-6, lambda: _remembered("wheeler", wheeler, 1.3)),
    Reference("Generalised Willenborg", _LOOP, 1e-6, lambda: _remembered("willenborg", willenborg, 2.5)),
    Reference("Wheeler at both ends of a surface crack", _LOOP, 1e-4, _both_ends),
]
