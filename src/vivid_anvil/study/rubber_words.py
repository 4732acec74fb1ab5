"""What keys of rubber say that are no fields of nouns, examples of all, the choices of those that have some."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from vivid_anvil.damage.methods import cracking_energy
from vivid_anvil.materials.rubber import HYPERELASTIC, R_EFFECTS, TEARING_LAWS, cracked_strips
from vivid_anvil.stress.rubber import SHEARS, STRAIN_MEASURES
from vivid_anvil.study.key_word import KeyWords

STATES = {"file": "edge.csv", "measure": "green-lagrange", "channel": "lap state", "events": ["lap"]}
FIELDS = {**STATES, "file": "bush.frd", "strain_unit": "mm/mm", "length_unit": "mm"}
LAW = {"kind": "mooney-rivlin", "c10": "0.45 MPa", "c01": "0.08 MPa"}
GROWTH = {"kind": "power", "rate": "3e-3 mm/cycle", "at": "10 kJ/m^2", "slope": 2.0}

OF_RUBBER: dict[str, KeyWords] = {
    "rubber": KeyWords("the rubber: its laws and flaws", "bush"),
    "rubbers": KeyWords("rubbers by a name of your own", {"bush": {"card": "bushing-rubber-60"}}),
    "HotSpotSection.strain_states": KeyWords("computed states of strain at a place of rubber, a file each", [STATES]),
    "ModelSection.strain_states": KeyWords("computed states of strain of a model of rubber, a file each", [FIELDS]),
    "free_surface": KeyWords("the set of nodes on a free surface, or 'whole surface'", "free face"),
    "strain_unit": KeyWords("unit of the strains in the file", "mm/mm"),
    "shear": KeyWords("what the shear components are", "tensor"),
    "FieldOfStrainsSection.at": KeyWords("where each state was computed, rising", ["1 mm", "2 mm"]),
    "FieldOfStrainsSection.cases": KeyWords("names of the states, or the data of a mesh", ["step 1", "step 2"]),
    "strips": KeyWords("a file of lives of strips, from which the flaws are found", "strip_lives.csv"),
    "strip_end": KeyWords("size of a flaw at which a strip parts", "2 mm"),
    "FittedHyperelastic.tests": KeyWords("a file of tests of sheets", "sheets.csv"),
    "FittedHyperelastic.form": KeyWords("which law is fitted", "yeoh"),
    "FittedHyperelastic.terms": KeyWords("terms of Ogden's law", 2),
    "FittedTearing.tests": KeyWords("a file of growth tests", "strip.csv"),
    "FittedTearing.form": KeyWords("which law is fitted", "power"),
    "edge_form": KeyWords("k of an edge crack", "pi over root"),
    **{
        f"{section}.{key}": words
        for section in ("StrainStatesSection", "FieldOfStrainsSection")
        for key, words in {
            "file": KeyWords("the file", "bush.frd" if section.startswith("Field") else "edge.csv"),
            "measure": KeyWords("which measure of strain it holds", "green-lagrange"),
            "channel": KeyWords("what goes through the states: numbers of states, or a load", "lap state"),
            "events": KeyWords("the events that go through these states", ["lap"]),
        }.items()
    },
}

EXAMPLES_OF_RUBBER: dict[str, Any] = {
    "Rubber.law": LAW,
    "Rubber.growth": GROWTH,
    "initial_flaw": "0.04 mm",
    "end_flaw": "1 mm",
    "shape_factor": 3.14,
    "CrackingEnergy.energy": "cracking energy",
    "closure": "traction",
    "part_axes": [[1, 0, 0], [0, 1, 0]],
    "bulk_modulus": "2000 MPa",
    "stretches_tested": [0.6, 2.2],
    "c10": "0.45 MPa",
    "c01": "0.08 MPa",
    "c20": "-0.01 MPa",
    "c30": "0.001 MPa",
    "Ogden.terms": [["0.6 MPa", 1.3], ["0.001 MPa", 5.0]],
    "r_effect": "crystallising",
    "slope_rise": 1.5,
    "slope_terms": [1.0, 0.2, 0.3],
    "r_ratios_tested": [0.0, 0.3],
    "PowerTearing.rate": "3e-3 mm/cycle",
    "PowerTearing.at": "10 kJ/m^2",
    "PowerTearing.cut_off": "0.04 kJ/m^2",
    "ShiftedTearing.rate": "3e-3 mm/cycle",
    "ShiftedTearing.at": "10 kJ/m^2",
    "least": "0.05 kJ/m^2",
    "least_rate": "1e-8 mm/cycle",
    "ThreeRegimes.bend": "4 kJ/m^2",
    "bend_rate": "8e-6 mm/cycle",
}

CHOICES_OF_RUBBER: dict[str, Callable[[], Iterable[Any]]] = {
    "StrainStatesSection.measure": lambda: STRAIN_MEASURES,
    "FieldOfStrainsSection.measure": lambda: STRAIN_MEASURES,
    "shear": lambda: SHEARS,
    "CrackingEnergy.energy": lambda: cracking_energy.ENERGIES,
    "closure": lambda: cracking_energy.CLOSURES,
    "r_effect": lambda: R_EFFECTS,
    "FittedHyperelastic.form": lambda: HYPERELASTIC,
    "FittedTearing.form": lambda: TEARING_LAWS,
    "edge_form": lambda: cracked_strips.EDGE_FORMS,
}
