"""What holds for every public function: units at its door, nonsense refused with InputError, nouns that pickle.

A new public function that takes numbers needs an example here; the first test says which.
"""

import dataclasses
import importlib
import inspect
import math
import pickle
import re
from collections.abc import Mapping

import numpy as np
import pandas as pd
import pint
import pytest

import tests.damage.test_critical_plane as on_planes
from tests.fields.models import LOADS, duty_of, field_of, spot
from tests.spots import hot_spot
from vivid_anvil.acceptance import crack_front
from vivid_anvil.counting import Cycles, rainflow
from vivid_anvil.damage import CrackingEnergy, assess_life
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.fields import assess_model
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import growth_drive
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import (
    Material,
    ParisLaw,
    SNFamily,
    at_survival,
    curve_at_r,
    in_terms_of,
    knee_curve,
    straight_curve,
)
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.materials.plies import Ply
from vivid_anvil.materials.rubber import MooneyRivlin, PowerTearing, Rubber
from vivid_anvil.materials.strain import StrainTests
from vivid_anvil.shapes import CentreCrack, SurfaceCrack
from vivid_anvil.stress import HotSpot, RectangleSection, RoundSection
from vivid_anvil.stress.rubber import StatesInTurn, StrainLoads, StrainStates
from vivid_anvil.units import DIMENSIONS, factor

PACKAGES = (
    *("counting", "histories", "events", "shapes", "shapes.solutions", "materials"),
    *(
        "stress",
        "damage",
        "growth",
        "models",
        "fields",
        "study",
        "acceptance",
        "materials.fracture",
        "reports",
        "pages",
        "materials.strain",
        "stress.yielding",
        "materials.rubber",
        "stress.rubber",
        "materials.plies",
        "stress.laminates",
        "progress",
    ),
)
UNITS = pint.UnitRegistry()
# Another unit than the coherent one, as text and for a quantity.
OTHER = {
    "stress": ("ksi", "ksi"),
    "length": ("in", "inch"),
    "force": ("kip", "kip"),
    "moment": ("kip*in", "kip * inch"),
    "frequency": ("kHz", "kilohertz"),
    "stress intensity": ("ksi*in^0.5", "ksi * inch ** 0.5"),
    "gradient": ("1/in", "1 / inch"),
    "energy release rate": ("kJ/m^2", "kilojoule / meter ** 2"),
    "strain": ("um/m", "micrometer / meter"),
    "angle": ("deg", None),
}
FRONT = crack_front([0.0, 4.0], {"K_I": [[1010.0, 1052.0, 1049.0, 1051.0], [1105.0, 1150.0, 1152.0, 1149.0]]})
STEEL = Material(name="steel", ultimate_strength=600.0, yield_strength=400.0, toughness=2500.0, walker_exponent=0.6)
METAL = Metal(material=Material(name="plate", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
CURVE = knee_curve(
    name="c",
    stress="amplitude",
    r_ratio=-1,
    knee_stress=150.0,
    knee_life=1e6,
    slope=5,
    slope_below=9,
    log_life_std=0.2,
    survival_probability=0.5,
)
FAMILY = SNFamily(
    name="f",
    curves=[
        straight_curve(name=f"R {r}", stress="amplitude", r_ratio=r, point_stress=s, point_life=1e6, slope=8)
        for r, s in ((-1, 200.0), (0, 150.0))
    ],
)
SPOT = hot_spot(
    name="toe", channel="force", stress_per_load="10 MPa/kN", material=STEEL, curve=CURVE, mean_stress="goodman"
)
PULL = ConstantAmplitude.from_range("force", "30 kN", r_ratio=0.0, cycles=1000)
YEAR = DutyCycle("year", [Event("pull", PULL)], repeats_per_year=1)
LIFE = assess_life(SPOT, YEAR, target="20 years")
LAW = ParisLaw(name="l", rate=3e-13, slope=3.0)
DRIVE = growth_drive(SPOT.local_cycles(YEAR))
SAMPLES = [0.0, 30.0, -10.0, 20.0, 5.0, 45.0, -35.0, 0.0]
ELLIPSE = {"a": 2.0, "c": 4.0, "t": 10.0}


TEARS = PowerTearing(name="nr", rate=0.0025, at=11.0, slope=2.0)
BUSH = Rubber(name="b", law=MooneyRivlin(name="b", c10=0.3, c01=0.08), growth=TEARS, initial_flaw=0.04)
PULLED = StrainStates.of(
    [[1.3, 0.9, 0.85, 0, 0, 0], [1.6, 0.8, 0.78, 0, 0, 0]],
    "right stretch",
    StrainLoads([StatesInTurn(channel="force", cases=["a", "b"], at=["5 kN", "40 kN"])]),
)
IN_RUBBER = HotSpot(
    name="edge", relation=PULLED, material=STEEL, method=CrackingEnergy(rubber=BUSH, surface_normal=(0, 0, 1))
)


GLASS = Ply(
    name="glass",
    modulus_along=41e3,
    modulus_across=10.4e3,
    shear_modulus=4.3e3,
    poissons_ratio=0.28,
    tension_along=1050.0,
    compression_along=650.0,
    tension_across=42.0,
    compression_across=145.0,
    shear_strength=70.0,
)


def uniform(x):
    return 100.0 + 0.0 * x


SHAFT = assess_life(on_planes.spot(on_planes.method()), on_planes.duty(on_planes.turning()))
# An example of each public function that takes a value with a dimension.
EXAMPLES = {
    "normalised_energy": {"ply": GLASS, "high": [[100.0, 20.0, 10.0]], "low": [[10.0, 2.0, 1.0]]},
    "energy_range": {"ply": GLASS, "high": [[100.0, 20.0, 10.0]], "low": [[10.0, 2.0, 1.0]]},
    "lives_on_planes": {"life": SHAFT, "step_degrees": 30.0},
    "stresses_of_rosette": {"channels": ["a", "b", "c"], "youngs_modulus": 206000.0},
    "four_point": {"samples": SAMPLES, "sample_rate": 10.0},
    "rainflow": {"samples": SAMPLES, "sample_rate": 10.0},
    "time_at_level": {"samples": SAMPLES, "edges": [0.0, 20.0, 40.0], "sample_rate": 10.0},
    "principal_strains": {"a": [1e-4], "b": [2e-4], "c": [-1e-4], "rosette": "0/45/90"},
    "block_programme": {"channel": "x", "rows": {"level": [2.0], "cycles": [10]}, "unit": "kN", "frequency": 2.0},
    "thickness_factor": {"thickness": 40.0, "reference": 25.0, "exponent": 0.25},
    "effective_thickness": {"thickness": 20.0, "attachment_length": 30.0},
    "life_steps": {"curve": CURVE, "stress": 120.0},
    "family_steps": {"family": FAMILY, "amplitude": 120.0, "mean": 30.0},
    "elliptic_hole": {"across": 10.0, "along": 4.0},
    "hole_in_strip": {"diameter": 10.0, "width": 40.0},
    "notch_effect_by_gradient": {"kt": 2.5, "gradient": 1.0, "yield_strength": 355.0},
    "critical_length": {"threshold": 190.0, "fatigue_limit": 310.0},
    "short_crack_limit": {"threshold": 190.0, "fatigue_limit": 310.0, "size": [0.1, 1.0]},
    "hole_profile": {"radius": 3.0, "depth": [0.0, 1.0], "across": 100.0, "along": 20.0},
    "notch_effect_by_distance": {
        "depths": [0.0, 0.5, 2.0], "stresses": [300.0, 240.0, 150.0], "length": 0.3, "nominal_stress": 100.0
    },
    "notch_effect_by_slip": {"kt": 2.3, "gradient": 1.4, "slip_length": 0.08},
    "uniform_material_law": {"tensile_strength": 520.0, "youngs_modulus": 206e3},
    "medians_estimate": {"tensile_strength": 520.0, "youngs_modulus": 206e3},
    "hardness_estimate": {"brinell_hardness": 230.0, "youngs_modulus": 206e3},
    "universal_slopes": {"tensile_strength": 520.0, "true_fracture_strain": 0.8, "youngs_modulus": 206e3},
    "fit_strain_life": {
        "tests": StrainTests(
            name="bar",
            strain_amplitude=[0.01, 0.005, 0.003],
            stress_amplitude=[500.0, 440.0, 380.0],
            lives=[5e2, 3e3, 2e4],
        ),
        "youngs_modulus": 206e3,
        "smallest_plastic_strain": 1e-4,
    },
    "notch_effect_by_radius": {"kt": 2.5, "radius": 2.0, "ultimate_strength": 690.0},
    "plate_under_pressure": {"pressure": 0.2, "radius": 100.0, "thickness": 5.0, "edge": "clamped"},
    "plate_with_hole": {"radius": 10.0, "distance": 12.0, "angle_degrees": 30.0, "along_x": 50.0, "along_y": 10.0},
    "relative_gradient": {"depths": [0.0, 0.5, 1.0], "stresses": [300.0, 240.0, 200.0]},
    "round_groove": {"load": "tension", "larger": 60.0, "smaller": 50.0, "radius": 2.5},
    "shape_gradient": {"shape": "shoulder", "load": "bending", "larger": 60.0, "smaller": 50.0, "radius": 2.5},
    "shoulder": {"load": "bending", "larger": 60.0, "smaller": 50.0, "radius": 2.5},
    "toe_stress": {"distances": [4.8, 12.0], "stresses": [182.0, 158.0], "rule": "0.4t and 1.0t", "thickness": 12.0},
    "assessment_curve": {"load_ratio": 0.5, "yield_strength": 355.0, "ultimate_strength": 510.0, "youngs_modulus": 207e3},
    "axial_through_crack": {"size": [10.0, 50.0], "radius": 200.0, "wall": 8.0},
    "circumferential_through_crack": {"size": [10.0, 50.0], "radius": 200.0, "wall": 8.0},
    "pipe_through_crack": {"half_angle": [20.0, 80.0], "radius": 100.0, "wall": 12.5},
    "inner_axial_crack": {"a": 3.0, "c": 6.0, "wall": 12.0, "inner_radius": 100.0, "angle": 60.0},
    "centre_crack_by_weight": {"stress": uniform, "size": 4.0},
    "edge_crack_by_weight": {"stress": uniform, "size": 4.0, "width": 40.0},
    "surface_crack_by_weight": {"stress": uniform, **ELLIPSE, "half_width": 50.0},
    "surface_ends_by_weight": {"stress": uniform, **ELLIPSE, "half_width": 50.0},
    "compact_tension": {"force": 5000.0, "thickness": 12.5, "width": 50.0, "size": 25.0},
    "three_point_bend": {"force": 5000.0, "thickness": 12.5, "width": 50.0, "size": 25.0},
    "middle_tension": {"force": 5000.0, "thickness": 12.5, "width": 50.0, "size": 12.5},
    "shape_factor": {"a": 2.0, "c": 5.0},
    "surface_crack": {**ELLIPSE, "half_width": 50.0, "angle": 60.0},
    "corner_crack": {**ELLIPSE, "angle": 60.0},
    "embedded_crack": {**ELLIPSE, "half_width": 50.0, "angle": 60.0},
    "embedded_in_infinite": {"a": 2.0, "c": 4.0, "angle": 60.0},
    "hole_corner_crack": {**ELLIPSE, "radius": 10.0, "half_width": 50.0, "angle": 60.0},
    "hole_crack": {"size": [0.2, 3.0], "radius": 3.0, "width": 60.0},
    "hole_crack_biaxial": {"size": [0.2, 3.0], "radius": 3.0},
    "hole_wedge_force": {"size": [0.2, 3.0], "radius": 3.0},
    "pin_hole_crack": {"size": [0.2, 3.0], "radius": 3.0, "width": 60.0},
    "k_from_j": {"j": [20.0], "youngs_modulus": 207e3},
    "k_of_contours": {"table": [[1010.0, 1052.0, 1049.0, 1051.0]]},
    "reference_stress": {"membrane": 130.0, "bending": 60.0, "lost": 0.25},
    "through_reference_stress": {"membrane": 130.0, "bending": 60.0, "size": 35.0, "width": 200.0},
    "round_bar_surround": {"size": [1.0, 5.0], "diameter": 20.0},
    "round_bar_thumbnail": {"size": [1.0, 5.0], "diameter": 20.0},
    "surface_share": {"a": 6.0, "c": 12.0, "thickness": 20.0, "width": 300.0},
    "embedded_reference_stress": {
        "membrane": 150.0, "bending": 40.0, "a": 3.0, "c": 15.0, "thickness": 25.0, "ligament": 5.0, "width": 300.0
    },
    "crack_front": {"positions": [0.0, 4.0], "contours": {"K_I": [[1.0, 2.0, 2.0]] * 2}, "youngs_modulus": 2e5},
    "read_crack_front": None,
    "opening_area": None,
    "assess_front": {"front": FRONT, "metal": METAL, "reference_stress": 180.0, "wall": 25.0},
    "crack_of_fronts": {"sizes": [2.0, 4.0], "fronts": [FRONT, FRONT], "stress": 100.0},
    "sphere_bulging": {"size": [20.0, 60.0], "radius": 1000.0, "wall": 20.0},
    "toe_magnification": {"depth": [0.2, 3.0], "attachment_length": 15.0, "thickness": 20.0},
    "accelerated_test": {"result": LIFE, "omit_below": [10.0, 200.0]},
    "class_edges": {"largest": 87.0},
    "thickened": {"curve": CURVE, "thickness": 40.0, "reference": 25.0, "exponent": 0.25},
    "compare_rules_for_cycles": {"amplitude": 100.0, "mean": 50.0, "material": STEEL},
    "consistent_damage": {"stress": [200.0, 80.0], "per_repeat": [10.0, 1e4], "curve": CURVE},
    "cycles_of_test": {"result": LIFE, "stress": 200.0},
    "equivalent_amplitude": {"amplitude": 120.0, "mean": 50.0, "rule": "goodman", "ultimate_strength": 700.0},
    "estimated_sensitivity": {"group": "steel", "ultimate_strength": 700.0},
    "estimated_walker_exponent": {"ultimate_strength": 780.0},
    "critical_sizes": {"shape": CentreCrack(100.0), "material": STEEL, "peak_stress": 150.0, "youngs_modulus": 2e5},
    "grow_by_cycle": {"cycles": [[100.0, 0.0]], "shape": CentreCrack(100.0), "law": LAW, "start": 5.0, "stop": 20.0},
    "opening_stress": None,
    "stress_intensity": {"shape": CentreCrack(100.0), "size": 10.0, "stress": 50.0},
    "threshold_sizes": {"drive": DRIVE, "shape": CentreCrack(100.0), "law": LAW, "start": 1.0, "end": 20.0},
    "integrate_growth": {"growth": lambda a: 1e-3 * np.asarray(a), "start": 1.0, "end": 2.0},
    "rates_by_secant": {"cycles": [0.0, 1e4, 2e4], "sizes": [10.0, 10.5, 11.2]},
    "rates_by_polynomial": {"cycles": np.arange(9) * 1e4, "sizes": 10.0 + 0.3 * np.arange(9.0)},
    "growth_of_piece": {
        "cycles": np.arange(9) * 1e4, "sizes": 12.0 + 0.3 * np.arange(9.0), "piece": "compact tension",
        "force_range": 4500.0, "thickness": 12.5, "width": 50.0, "r_ratio": 0.1,
    },
    "averaged_at_nodes": {"nodes": [7, 7], "stresses": [[[120.0, 0, 0, 0, 0, 0], [80.0, 0, 0, 0, 0, 0]]]},
    "shell_faces": {"forces": [200.0, -50.0, 30.0], "moments": [400.0, 120.0, -80.0], "thickness": 10.0},
    "von_mises": {"stress": [100.0, 0.0, 0.0, 20.0, 0.0, 0.0]},
    "trust_of": {"history": [[1.0, 0, 0, 0, 0, 0], [50.0, 0, 0, 0, 0, 3.0]]},
    "half_sphere": {"step_degrees": 30.0},
    "edge_crack_energy": {"energy": 0.6, "crack": 0.5, "stretch": 1.8},
    "planar_strip_energy": {"energy": 0.6, "height": 12.0},
    "trousers_energy": {
        "force": 2.4, "thickness": 1.2, "leg_stretch": 1.1, "width": 20.0, "leg_energy": 0.05
    },
    "initial_flaws": {"law": TEARS, "energy": [0.5, 0.4], "lives": [118512.0, 2e5], "end": 1.2},
    "flaws_of_strips": None,
    "at_points": None,
    "critical_planes": None,
    "largest_lasting_size": {"life": lambda size: 1000.0 / size, "target": 400.0, "largest": 20.0, "smallest": 0.01},
    "surface_directions": None,
    "field_of_rows": None,
    "principal_stresses": None,
    "read_programme": None,
}  # fmt: skip

# Functions that convert what they take themselves, each with its own test of it, or whose numbers have no unit at all.
THEMSELVES = {
    "assess_life", "assess_model", "averaged_at_nodes", "basquin_curve", "binning_effect", "combine", "count_chunks",
    "curve_at_r", "cut", "cycle_matrix", "damage_of_chunks", "damage_of_samples", "describe", "detail_curve",
    "follow_block", "strain_life_through", "cauchy_green", "green_lagrange", "stretches", "volumes", "without_drift",
    "law_at", "fit_tearing", "initial_flaws", "joint_lives", "laminates_progress", "layup_text", "ply_failures",
    "static_reserves",
    "effective_notch_curve", "equivalent_amplitude", "estimate_curve", "estimate_psd", "fit_tail", "four_point", "gate",
    "grow_by_cycle", "grow_crack", "high_pass", "history_from_frame", "hottest_places",
    "inspection_plan", "integrate_two", "model_answer", "intercept_curve", "knee_curve",
    "level_crossings", "life_in_order", "life_working",
    "lives_over_size", "low_pass", "mean_over_amplitude", "peaks", "peaks_between_crossings", "rainflow",
    "range_pair", "read_unit_stresses", "stresses_of_rosette",
    "read_csv", "read_excel", "read_growth_tests", "read_hdf5", "read_npy", "read_parquet", "resample",
    "simple_range", "sloped_curve", "straight_curve", "stress_table", "through_thickness", "time_at_level",
    "look_at_vibration", "vibration_views", "allowable_flaws", "crack_front", "leak_before_break",
    "assess_indications", "flaw_looks",
    "stage_of_duty_cycle", "participation_along", "read_participation",
    "turning_points", "with_boxes", "worked_cycle", "worst_case_pairs", "write_results",
}  # fmt: skip
_NUMBERS = re.compile(r"\b(float|ArrayLike|FloatArray)\b")


def functions():
    """Every public function by its name."""
    for package in PACKAGES:
        module = importlib.import_module(f"vivid_anvil.{package}")
        for name in module.__all__:
            thing = getattr(module, name)
            if inspect.isfunction(thing):
                yield name, thing


FUNCTIONS = dict(functions())
DOORS = [
    pytest.param(name, argument, how, id=f"{name}, {argument}")
    for name, function in FUNCTIONS.items()
    for argument, how in getattr(function, "takes", {}).items()
    if how.dimension != "number" and EXAMPLES.get(name) is not None and argument in EXAMPLES[name]
]


@pytest.mark.parametrize("name", FUNCTIONS)
def test_every_number_of_a_public_function_passes_a_door(name):
    function = FUNCTIONS[name]
    takes = getattr(function, "takes", {})
    for argument in inspect.signature(function).parameters.values():
        words = argument.annotation if isinstance(argument.annotation, str) else ""
        if _NUMBERS.search(words) and "Callable" not in words and argument.name not in takes:
            assert name in THEMSELVES, f"{name}, {argument.name}: say what it takes by @opened"
    if any(how.dimension != "number" for how in takes.values()):
        assert name in EXAMPLES, f"{name}: an example is missing in EXAMPLES"


def same(one, other):
    """Whether two answers are the same: numbers within rounding."""
    if isinstance(one, Mapping):
        return one.keys() == other.keys() and all(same(one[key], other[key]) for key in one)
    if hasattr(one, "__dataclass_fields__"):
        return all(same(getattr(one, field.name), getattr(other, field.name)) for field in dataclasses.fields(one))
    if isinstance(one, tuple | list):
        return len(one) == len(other) and all(same(a, b) for a, b in zip(one, other, strict=True))
    if isinstance(one, str | bool | None) or callable(one):
        return True
    return np.allclose(one, other, rtol=1e-6, atol=1e-9)


def in_other_unit(value, how):
    """A coherent value as text, as a quantity, or as an array quantity and a headed column."""
    unit, name = OTHER[how.dimension]
    scale = math.radians(1.0) if how.degrees else factor(unit, DIMENSIONS[how.dimension])
    degrees = math.radians(1.0) if how.degrees else 1.0
    found = np.asarray(value, dtype=float) * degrees / scale
    if np.ndim(value) == 0:
        yield f"{float(found)!r} {unit}"
        if name is not None:
            yield UNITS.Quantity(float(found), name)
        return
    if name is not None:
        yield UNITS.Quantity(found, name)
    if np.ndim(value) == 1:
        yield [f"{float(one)!r} {unit}" for one in found]
        if name is not None:
            yield pd.Series(found, name=f"what it is [{unit}]")


@pytest.mark.parametrize(("name", "argument", "how"), DOORS)
def test_a_value_in_another_unit_gives_the_same_answer(name, argument, how):
    function, given = FUNCTIONS[name], EXAMPLES[name]
    answer = function(**given)
    for other in in_other_unit(given[argument], how):
        assert same(answer, function(**given | {argument: other})), other


NONSENSE = (True, None, "", "12", "x", "5 furlong", "3 Hz", "3 kN", math.nan, 1j, {}, object(), [[1.0], [2.0, 3.0]])


@pytest.mark.parametrize(("name", "argument", "how"), DOORS)
def test_nonsense_is_refused(name, argument, how):
    meant = {"frequency": "3 Hz", "force": "3 kN"}.get(how.dimension)
    for value in NONSENSE:
        if (value is None and how.optional) or (isinstance(value, str) and value == meant):
            continue
        try:
            FUNCTIONS[name](**EXAMPLES[name] | {argument: value})
        except InputError:
            continue
        raise AssertionError(f"{name} takes {argument} = {value!r}")


PLAIN = [
    pytest.param(name, argument, id=f"{name}, {argument}")
    for name, function in FUNCTIONS.items()
    for argument in getattr(function, "plain", {})
    if argument not in function.takes
]
NO_TEXT = (object(), 3.0, math.nan, True)  # nor a path, a function, a mapping, several of something


@pytest.mark.parametrize(("name", "argument"), PLAIN)
def test_a_text_a_path_a_function_and_a_list_are_asked_for(name, argument):
    """The door looks before it asks for the other arguments."""
    asked = inspect.signature(FUNCTIONS[name]).parameters
    needed = [one.name for one in asked.values() if one.default is one.empty] if "path" in asked else []
    numbers = {"number", "one or many", "choice"} & {*FUNCTIONS[name].plain[argument].kinds}
    for value in NO_TEXT[:1] if numbers else NO_TEXT:
        with pytest.raises(InputError, match="expected"):
            FUNCTIONS[name](**dict.fromkeys(needed) | ({"path": "lap.csv"} if needed else {}) | {argument: value})


def test_a_list_of_other_things_is_told_by_its_entry():
    history = LoadHistory("lap", [Channel.in_unit("force", SAMPLES, "kN")], 10.0)
    with pytest.raises(InputError, match=r"join, histories, entry 2: found a float, expected a LoadHistory"):
        FUNCTIONS["join"](histories=[history, 2.0], name="both")
    with pytest.raises(InputError, match="several, such as a list"):
        FUNCTIONS["stress_table"](curves="weld", lives=[1e6])


def test_no_path_is_no_file():
    for function in FUNCTIONS.values():
        first = next(iter(inspect.signature(function).parameters), "")
        if first == "path":
            for value in (object(), 3.0, None, ["lap.csv"]):
                with pytest.raises((InputError, TypeError), match=r"path|file|folder|required|missing"):
                    function(value)


KIP = UNITS.Quantity(np.array(SAMPLES), "kilonewton")
HEADED = pd.Series(SAMPLES, name="force [kN]")
# Methods and nouns: a call for a value, its dimension, a coherent value.
METHODS = {
    "curve.life": (CURVE.life, "stress", 120.0),
    "curve.life of several": (CURVE.life, "stress", [120.0, 90.0]),
    "curve.damage_of": (CURVE.damage_of, "stress", [120.0, 90.0]),
    "curve.slope_at": (CURVE.slope_at, "stress", 120.0),
    "curve.from_amplitude": (CURVE.from_amplitude, "stress", 120.0),
    "family.life": (lambda value: FAMILY.life(value, 20.0), "stress", 120.0),
    "law.growth": (LAW.growth, "stress intensity", [300.0, 400.0]),
    "law.growth of a size": (lambda value: LAW.growth(300.0, 0.1, value), "length", 2.0),
    "shape.geometry_factor": (CentreCrack(100.0).geometry_factor, "length", [10.0, 20.0]),
    "shape.net_section_stress": (lambda value: CentreCrack(100.0).net_section_stress(10.0, value), "stress", 80.0),
    "shape.factors": (lambda value: SurfaceCrack(thickness=10.0, plate_width=90.0).factors(value, 4.0), "length", 2.0),
    "section.stress": (lambda value: RoundSection(40.0).stress(force=value).axial, "force", 6e4),
    "section.pressure": (RoundSection(120.0, 100.0).pressure_stress, "stress", 10.0),
    "section.torque": (RectangleSection(10.0, 20.0).largest_shear, "moment", 5e4),
    "material": (lambda value: Material(name="m", yield_strength=value).yield_strength, "stress", 355.0),
    "channel": (lambda value: Channel("f", value, "force").values, "force", SAMPLES),
    "cycles": (lambda value: Cycles(range=value, mean=[0.0] * 3, count=[1.0] * 3).range, "stress", [1.0, 2.0, 3.0]),
    "rainflow": (lambda value: rainflow(value).range, "stress", SAMPLES),
    "measure": (lambda value: LOADS and spot() and measured(value), "stress", [[100.0, 0, 0, 0, 0, 0]]),
}  # fmt: skip


def measured(value):
    from vivid_anvil.stress import stress_measure

    return stress_measure("signed von Mises, hydrostatic").of(value)


@pytest.mark.parametrize("name", METHODS)
def test_methods_and_nouns_take_other_units_too(name):
    from vivid_anvil.units import many

    call, dimension, value = METHODS[name]
    answer = call(value)
    for other in in_other_unit(value, many(dimension)):
        if isinstance(other, list) and name in ("channel", "cycles", "rainflow"):  # samples are numbers: told so
            with pytest.raises(InputError):
                call(other)
            continue
        assert np.allclose(np.asarray(call(other), dtype=float), np.asarray(answer, dtype=float), rtol=1e-6), other
    wrong = UNITS.Quantity(np.asarray(value, dtype=float), "kilogram")
    for bad in (wrong, "12 kg", "12", True, {}):
        with pytest.raises(InputError):
            call(bad)


def test_a_load_in_kilonewton_is_not_taken_as_stress():
    """The unit of the samples says what they are; an explicit contradiction is an error."""
    for samples in (KIP, HEADED):
        cycles = rainflow(samples)
        assert (cycles.dimension, cycles.range.max()) == ("force", 80e3)
        with pytest.raises(InputError):
            rainflow(samples, dimension="stress")
        assert Channel.in_unit("f", samples, "kN").values.max() == 45e3
        with pytest.raises(InputError):
            Channel.in_unit("f", samples, "N")
        with pytest.raises(InputError):
            CURVE.damage_of(samples)


RESULT = assess_model(field_of(20), LOADS, duty_of(120), spot(), target="20 years")
NOUNS = {
    "life": LIFE,
    "model": RESULT,
    "curve at another R": curve_at_r(CURVE, 0.1, rule="walker", walker_exponent=0.6),
    "curve at another R, in ranges": in_terms_of(
        curve_at_r(CURVE, 0.1, rule="goodman", ultimate_strength=600.0), "range"
    ),
    "curve of a family": FAMILY.curve_at(-0.5),
    "curve at another survival": at_survival(CURVE, 0.9),
    "family": FAMILY,
    "law": LAW,
    "duty cycle": YEAR,
    "rubber": BUSH,
    "strain states": PULLED,
    "life of rubber": assess_life(IN_RUBBER, YEAR),
    "error": InputError("here", "this", "that", "so"),
}


@pytest.mark.slow
@pytest.mark.parametrize("noun", NOUNS.values(), ids=NOUNS)
def test_nouns_pickle_and_answer_the_same(noun):
    again = pickle.loads(pickle.dumps(noun))
    assert repr(again) == repr(noun)
    if hasattr(noun, "stress_at"):
        assert again.life([80.0, 120.0]) == pytest.approx(noun.life([80.0, 120.0]))
        assert again.stress_at(1e5) == pytest.approx(noun.stress_at(1e5))


def test_the_demo_pickles_whole(demo_result):
    again = pickle.loads(pickle.dumps(demo_result))
    assert [one.life_repeats for one in again.lives] == [one.life_repeats for one in demo_result.lives]
    assert [one.life_repeats for one in again.growths] == [one.life_repeats for one in demo_result.growths]


# Functions that take our nouns: another thing in their place is told, with what to do.
NOT_NOUNS = [
    pytest.param(name, argument.name, id=f"{name}, {argument.name}")
    for name, function in FUNCTIONS.items()
    if hasattr(function, "takes") and not function.takes
    for argument in list(inspect.signature(function).parameters.values())[:1]
    if isinstance(argument.annotation, str) and re.fullmatch(r"(?!Any$)[A-Z]\w+", argument.annotation)
]


@pytest.mark.parametrize(("name", "argument"), NOT_NOUNS)
def test_another_thing_than_the_noun_is_refused(name, argument):
    needed = [
        one.name
        for one in inspect.signature(FUNCTIONS[name]).parameters.values()
        if one.default is one.empty and one.kind not in (one.VAR_KEYWORD, one.VAR_POSITIONAL)
    ]
    if argument in ("section", "growth"):
        return
    with pytest.raises(InputError):
        FUNCTIONS[name](**dict.fromkeys(needed, object()))


def test_a_history_is_not_a_duty_cycle():
    with pytest.raises(
        InputError, match=r"found a ConstantAmplitude, expected a DutyCycle\. Put what happens into one"
    ):
        assess_life(SPOT, PULL)
    import vivid_anvil as va

    for thing in (STEEL, 3.0, "text"):
        with pytest.raises(InputError):
            va.plot(thing)
        with pytest.raises(InputError):
            va.explain(thing)


def test_a_law_without_its_numbers_or_with_those_of_another_form_is_refused():
    for given in ({}, {"rate": 3e-13}, {"slope": 3.0}, {"rate": 3e-13, "slope": 3.0, "gamma": 0.5}):
        with pytest.raises(TypeError, match=r"required|unexpected"):
            ParisLaw(name="l", **given)


@pytest.mark.parametrize(
    "call",
    [
        lambda: CURVE.damage_of([math.nan]),
        lambda: CURVE.damage_of([100.0], [-1.0]),
        lambda: CURVE.damage_of([100.0], [1.0, 2.0]),
        lambda: CURVE.life("120"),
        lambda: LAW.growth(-5.0),
        lambda: LAW.growth(math.nan),
        lambda: LAW.growth(300.0, 1.0),
        lambda: FUNCTIONS["worst_case_pairs"]([(1.0, 2.0, 3)]),
        lambda: FUNCTIONS["worst_case_pairs"]([(2.0, 1.0, -3)]),
        lambda: FUNCTIONS["worst_case_pairs"]([5.0]),
        lambda: FUNCTIONS["damage_curve"]([-0.2], [1e3]),
        lambda: FUNCTIONS["double_linear_blocks"]([1.0], [0.5]),
        lambda: FUNCTIONS["double_linear_remaining"](1.5, 1e3, 1e5),
        lambda: FUNCTIONS["through_thickness"]([0.0, 10.0], [math.nan, 1.0]),
        lambda: FUNCTIONS["toe_stress"]([-4.0, 12.0], [1.0, 2.0], "0.4t and 1.0t", 12.0),
        lambda: FUNCTIONS["through_reference_stress"](100.0, 0.0, 60.0, 100.0),
        lambda: FUNCTIONS["geometry_factor"]("centre", 1.0),
        lambda: FUNCTIONS["geometry_factor"]("no such", 0.5),
        lambda: FUNCTIONS["block_programme"]("x", {"level": 2.0, "cycles": 10, "name": "a"}, "kN"),
    ],
)
def test_what_cannot_be_meant_is_refused(call):
    with pytest.raises(InputError):
        call()


def test_one_number_holds_in_every_row_of_a_programme():
    rows = {"level": [2.0, 3.0], "cycles": 10, "r_ratio": 0.0}
    programme = FUNCTIONS["block_programme"]("x", rows, "kN")
    assert programme.cycles.tolist() == [10.0, 10.0]
    assert programme.minimum.tolist() == [0.0, 0.0]
