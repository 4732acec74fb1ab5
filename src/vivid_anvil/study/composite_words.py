"""What keys of plies and laminates say that are no fields of nouns, examples of all, the choices of those that have some."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from vivid_anvil.damage.methods import ply_fatigue
from vivid_anvil.materials.plies import PLY_CRITERIA
from vivid_anvil.progress import FAILS_BY
from vivid_anvil.study.key_word import KeyWords

LOADS = {"channel": "vertical force", "unit_load": "1 kN", "mx": "35 N*mm/mm"}
RAYS = {"kind": "rays", "tension": "1050 MPa", "compression": "650 MPa", "rows": [[0.1, "440 MPa", 0.095]]}

OF_COMPOSITES: dict[str, KeyWords] = {
    "plies": KeyWords("plies by a name of your own", {"glass": {"card": "glass-epoxy-ply"}}),
    "Laminate.plies": KeyWords(
        "each ply from the bottom to the top, where they are not alike",
        [{"ply": "glass", "angle": 45.0, "thickness": "0.25 mm"}],
    ),
    "laminates": KeyWords(
        "laminates by a name of your own", {"bar": {"layup": "[±45/0]s", "ply": "glass", "ply_thickness": "0.25 mm"}}
    ),
    "laminate": KeyWords("the laminate: its plies and its layup", "bar"),
    "HotSpotSection.section_loads": KeyWords(
        "forces and moments per width of a laminate at unit loads of channels", [LOADS]
    ),
    "ModelSection.section_loads": KeyWords(
        "a table or HDF5 file of forces and moments per width of a model of laminates", "safety_bar_shell.h5"
    ),
    "ply_stresses": KeyWords(
        "a table of stresses of the plies of a model of one laminate, at unit loads, without those of the temperature",
        "ply_stresses.csv",
    ),
    "constant_section_loads": KeyWords("the same of what is always there", {"nx": "2 N/mm"}),
    "Laminate.layup": KeyWords("angles in the usual notation, or in a list", "[±45/0_2/90]s"),
    "ply": KeyWords("the ply, by its name", "glass"),
    "LaidPlySection.angle": KeyWords("from x of the laminate to its fibres, degrees", 45.0),
    "LaidPlySection.thickness": KeyWords("its thickness", "0.25 mm"),
    "SectionLoadSection.channel": KeyWords("the channel that scales them", "vertical force"),
    "SectionLoadSection.unit_load": KeyWords("the load at which they were computed", "1 kN"),
    "SectionLoadSection.event_factors": KeyWords("factors on the load in some events", {"loaded lap": 1.2}),
    "nx": KeyWords("force per width along x", "12 N/mm"),
    "ny": KeyWords("force per width along y", "12 N/mm"),
    "nxy": KeyWords("shear force per width in the plane", "4 N/mm"),
    "mx": KeyWords("moment per width that pulls the top along x", "35 N*mm/mm"),
    "my": KeyWords("moment per width that pulls the top along y", "35 N*mm/mm"),
    "mxy": KeyWords("twisting moment per width", "9 N*mm/mm"),
    "qx": KeyWords("shear force per width across the plane, for the shear between plies", "1.6 N/mm"),
    "qy": KeyWords("the same along y", "1.6 N/mm"),
    "rows": KeyWords("rays: R, the amplitude A at one cycle, b", [[0.1, "440 MPa", 0.095], [-1, "560 MPa", 0.095]]),
}

_STATIC = {
    "modulus_along": "41 GPa",
    "modulus_across": "10.4 GPa",
    "shear_modulus": "4.3 GPa",
    "Ply.poissons_ratio": 0.28,
    "tension_along": "1050 MPa",
    "compression_along": "650 MPa",
    "tension_across": "42 MPa",
    "compression_across": "145 MPa",
    "Ply.shear_strength": "70 MPa",
    "shear_across": "60 MPa",
    "interlaminar_strength": "60 MPa",
    "expansion_along": "7e-6 1/K",
    "expansion_across": "27e-6 1/K",
    "compression_supported": True,
}
EXAMPLES_OF_COMPOSITES: dict[str, Any] = {
    **_STATIC,
    **dict.fromkeys(("fibre_life", "across_life", "shear_life"), RAYS),
    **{f"{one}_strength_decay": {"kind": "power", "exponent": 3.0} for one in ("fibre", "across", "shear")},
    **{
        f"{one}_stiffness_decay": {"kind": "power", "end": 0.7, "exponent": 0.5} for one in ("fibre", "across", "shear")
    },
    "energy_life": {"constant": 0.55, "exponent": 0.09},
    "EnergyLife.constant": 0.55,
    "EnergyLife.exponent": 0.09,
    "LifeDiagram.r_ratios_tested": [0.1, -1.0],
    **{
        f"{noun}.{key}": value
        for noun in ("LargestStress", "ShiftedLinear", "Bell", "Rays")
        for key, value in {"tension": "1050 MPa", "compression": "650 MPa", "r_ratios_tested": [0.1, -1.0]}.items()
    },
    "tension_slope": 11.0,
    "compression_slope": 14.0,
    "ShiftedLinear.slope": 12.0,
    "mean_factor": 1.35,
    "amplitude_factor": 1.2,
    "Bell.height": 1.0,
    "Bell.power": 1.2,
    "power_per_decade": 0.15,
    "compression_power": 1.2,
    "compression_power_per_decade": 0.15,
    "PowerStrength.exponent": 3.0,
    "alpha": 10.0,
    "beta": 0.5,
    "PowerStiffness.end": 0.7,
    "PowerStiffness.exponent": 0.5,
    "NormalisedStiffness.power": 14.6,
    "root": 0.3,
    "failure_strain": "1.4 %",
    "StiffnessRate.rate": 2e-5,
    "StiffnessRate.exponent": 4.0,
    "most": 0.9,
    "ply_thickness": "0.25 mm",
    "temperature_change": "-90 K",
    "PlyFatigue.rule": "together",
    "PlyFatigue.modes": ["fibre", "matrix"],
    "static": "Puck",
    "fails_by": "damage sum",
    "fibre_left": 0.01,
    "matrix_left": 0.1,
    "over_below": 0.1,
    "jump_error": 3e-4,
}

CHOICES_OF_COMPOSITES: dict[str, Callable[[], Iterable[Any]]] = {
    "PlyFatigue.rule": lambda: ply_fatigue.PLY_RULES,
    "static": lambda: PLY_CRITERIA,
    "fails_by": lambda: FAILS_BY,
}
