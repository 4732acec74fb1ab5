"""What keys of the study file say that are no fields of nouns, an example of every key, and the choices of those that have some.

Schema, template and guide tell from here; the choices are those of the checks themselves.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from vivid_anvil import counting, damage, events, fields, growth, materials, models, shapes, spectra, stress
from vivid_anvil.events import sine_course
from vivid_anvil.growth import crack
from vivid_anvil.growth.memories.retardation import ZONES
from vivid_anvil.histories import psd_estimate
from vivid_anvil.materials import FIT_MODELS, material
from vivid_anvil.materials.curves import checks as sn_checks
from vivid_anvil.materials.curves import estimate_factors
from vivid_anvil.materials.curves import family as sn_family
from vivid_anvil.materials.curves import forms as sn_forms
from vivid_anvil.models import mesh_data
from vivid_anvil.spectra import between_points, cross_spectra, non_gaussian
from vivid_anvil.spectra.responses import modes, oscillator, response_table
from vivid_anvil.study import curve_keys, report_settings, strain_life_keys
from vivid_anvil.study.flaw_words import CHOICES_OF_FLAWS, EXAMPLES_OF_FLAWS, OF_FLAWS
from vivid_anvil.study.key_word import KeyWords

# By key; "Section.key" where a key says something else in that section, or refers to something by its name.
KEYS: dict[str, KeyWords] = {
    "format": KeyWords("number of the file format", 1),
    "include": KeyWords("a study file to start from; what stands here changes it", "base.toml"),
    "title": KeyWords("what the study is about", "hanger arm"),
    "target_life": KeyWords("how long it shall live: years, hours, or repeats", "30 years"),
    "cards": KeyWords("a folder of material cards of your own", "my_cards"),
    "duty_cycle": KeyWords(
        "what the part goes through in one repeat",
        {"repeat": "month", "repeats_per_year": 12, "events": [{"name": "lap", "history": "lap.csv"}]},
    ),
    "materials": KeyWords("strengths, by a name of your own", {"plate": {"yield_strength": "355 MPa"}}),
    "sn_curves": KeyWords("S-N curves by a name of your own", {"toe": {"standard": "EN 1993-1-9", "class": 80}}),
    "sn_families": KeyWords("several S-N curves at different R or means as one", {"all": {"curves": ["low", "high"]}}),
    "strain_life_curves": KeyWords(
        "strain-life curves with cyclic curves, by a name of your own",
        {"pin": {"estimate": "uniform material law", "ultimate_strength": "780 MPa"}},
    ),
    "growth_laws": KeyWords("crack growth laws by a name of your own", {"air": {"card": "structural-steel-355"}}),
    "methods": KeyWords("how stress becomes damage, by a name of your own", {"welds": {"sn_curve": "toe"}}),
    "hot_spots": KeyWords("places that are assessed", []),
    "StudyFile.cracks": KeyWords("cracks at hot spots", []),
    "StudyFile.model": KeyWords(
        "a finite-element model, assessed at every node",
        {"stresses": "arm.frd", "material": "plate", "sn_curve": "toe"},
    ),
    # duty cycle and events
    "duration": KeyWords("how long it lasts, where no rate and no frequency says so", "30 s"),
    "events": KeyWords("events of one repeat", [{"name": "lap", "history": "lap.csv"}]),
    "name": KeyWords("a name of your own", "loaded lap"),
    "occurrences": KeyWords("how often in one repeat", 5),
    "history": KeyWords("a file with a load history, or several to join", "lap.csv"),
    "read": KeyWords("settings of the reader of the file", {"sheet": "run 1"}),
    "sample_rate": KeyWords("samples a second, where the file has no time column", "100 Hz"),
    "repairs": KeyWords("steps that repair the history, in order", [{"step": "cut", "end": "40 s"}]),
    "gate": KeyWords("closed cycles smaller than this are taken out, by channel", {"force": "0.2 kN"}),
    "programme": KeyWords(
        "a block programme: a file, or columns with a unit", {"unit": "kN", "level": [8], "cycles": [100]}
    ),
    "spectrum": KeyWords(
        "a load spectrum: a file, or columns with a unit", {"unit": "kN", "range": [3], "cycles": [100]}
    ),
    "Event.load": KeyWords("a load of a kind that was added, with its keys", None),
    "states": KeyWords(
        "values that several loads go through together; a load factor has no unit", {"weight": 1, "wind": [-0.6, 1.0]}
    ),
    "sheet": KeyWords("sheet of the workbook, by name or number from 0", "measured"),
    "block": KeyWords('which block of columns side by side, from 1; or "all" of them', 1),
    "channel": KeyWords("the load, by the name of its column", "vertical force"),
    "range": KeyWords("maximum - minimum of equal cycles; a load factor has no unit", "12 kN"),
    "amplitude": KeyWords("half of the range of equal cycles", "6 kN"),
    "maximum": KeyWords("upper load of equal cycles", "14 kN"),
    "minimum": KeyWords("lower load of equal cycles", "2 kN"),
    "mean": KeyWords("mean load of equal cycles", "8 kN"),
    "r_ratio": KeyWords("minimum / maximum", -1),
    "cycles": KeyWords("cycles in one occurrence", 1000),
    "frequency": KeyWords("cycles a second", "2 Hz"),
    # vibration
    "psd": KeyWords(
        "one-sided PSD of the input: a file, or rows of frequency and level",
        [["10 Hz", "0.01 g^2/Hz"], ["200 Hz", "0.01 g^2/Hz"]],
    ),
    "segment": KeyWords("length of the segments that are averaged", "2 s"),
    "overlap": KeyWords("share by which segments overlap", 0.5),
    "window": KeyWords("of each segment", "hann"),
    "psds": KeyWords("PSDs of several inputs, by channel: files, or rows", {"x": "x.csv", "y": "y.csv"}),
    "cross_spectra": KeyWords("a file with a matrix of spectra of several inputs", "matrix.csv"),
    "conjugated": KeyWords("which factor of a pair is the conjugate one in the file", "first"),
    "exposure": KeyWords("how long one occurrence takes", "8 h"),
    "means": KeyWords("static means, by channel", {"x": "1 g"}),
    "tones": KeyWords("sines on top: frequency and amplitude", [["62 Hz", "0.4 g"]]),
    "between_points": KeyWords("how a PSD runs between its rows", "log-log"),
    "together": KeyWords(
        "how pairs of inputs go together; the others are independent",
        [{"first": "x", "second": "y", "coherence": 0.5, "phase": "40 deg"}],
    ),
    "first": KeyWords("the first input of the pair", "x"),
    "second": KeyWords("the second input of the pair", "y"),
    "coherence": KeyWords("0: independent, 1: fully correlated", 0.5),
    "phase": KeyWords("phase of the first less that of the second", "40 deg"),
    "delay": KeyWords("time by which the second comes later", "12 ms"),
    "crest_factor": KeyWords("values are held at this many rms", 3.0),
    "kurtosis": KeyWords("of the stress; 3 for Gauss", 4.5),
    "skewness": KeyWords("of the stress; 0 for Gauss", 0.1),
    "coefficients": KeyWords("of the Hermite form: those that meet the kurtosis, or Winterstein's usual ones", "exact"),
    "seed": KeyWords("of histories that are made of the event", 1),
    "rms": KeyWords("rms of a narrow band of stress", "20 MPa"),
    "upcrossing_rate": KeyWords("upcrossings of the mean in a second", "45 Hz"),
    "dwells": KeyWords("rows of frequency, amplitude, and time or cycles", [["62 Hz", "1 g", "30 min"]]),
    "sweep": KeyWords("from and to", ["10 Hz", "200 Hz"]),
    "profile": KeyWords(
        "amplitude of the sweep: one, rows of frequency and amplitude, or a displacement with an acceleration", "0.5 g"
    ),
    "displacement": KeyWords("amplitude of the displacement, at low frequencies", "1.5 mm"),
    "acceleration": KeyWords("amplitude of the acceleration, at high frequencies", "2 g"),
    "Event.rate": KeyWords("octaves in a time: logarithmic; Hz in a time: linear", "1 octave/min"),
    "Event.time": KeyWords("time of one pass, with scale, in place of a rate", "10 min"),
    "Event.scale": KeyWords("how the frequency moves in that time", "logarithmic"),
    "passes": KeyWords("passes, up and down in turn", 2),
    "responses": KeyWords(
        "what each input makes of stress, by channel: a stress per load, or a table with its kind",
        {"base": {"kind": "one degree of freedom", "natural_frequency": "70 Hz", "stress_per_acceleration": "3 MPa/g"}},
    ),
    "steady_state": KeyWords(
        "its stresses are complex, two cases a line: the input, and how large it was in the run",
        {"channel": "base", "per": "1 g"},
    ),
    "per": KeyWords("the input that the stresses were computed for", "1 g"),
    "LinesSection.frequency": KeyWords("of each line, where the file of stresses does not say", ["20 Hz", "40 Hz"]),
    "ModelSection.modes": KeyWords(
        "its stresses are modal ones: how inputs move the modes",
        {"inputs": {"base": "z"}, "participation_file": "bracket.dat", "damping_ratio": 0.02},
    ),
    "inputs": KeyWords(
        "the direction along which each input shakes the base: an axis, or three numbers", {"base": "z"}
    ),
    "participation_file": KeyWords("the file of a frequency step with participation factors", "bracket.dat"),
    "ModelModesSection.natural_frequency": KeyWords("of each mode, where the file of stresses does not say", ["70 Hz"]),
    "ModelModesSection.participation": KeyWords("of each input: a factor for each mode, √t", {"base": [0.011, 0.004]}),
    "modes": KeyWords(
        "six stress components by modes, normalised to a modal mass of 1 t",
        {
            "natural_frequency": ["70 Hz"],
            "participation": {"base": [0.011]},
            "modal_stress": [[320, 60, 0, 110, 0, 20]],
        },
    ),
    "ModesSection.natural_frequency": KeyWords("of each mode", ["70 Hz", "180 Hz"]),
    "ModesSection.participation": KeyWords("of each input: a factor for each mode, √t", {"base": [0.011, 0.004]}),
    "ModesSection.modal_stress": KeyWords(
        "of each mode xx, yy, zz, xy, yz, zx, MPa/(mm √t)", [[320, 60, 0, 110, 0, 20], [-650, 500, 90, 240, 60, 0]]
    ),
    "TableKeys.file": KeyWords("a file with the frequency response", "response.csv"),
    "TableKeys.between": KeyWords("how it runs between its lines", "rational"),
    # strain-life curves
    "EstimatedStrainLife.estimate": KeyWords("how the constants are estimated", "uniform material law"),
    "EstimatedStrainLife.group": KeyWords("group of metals", "steel"),
    "EstimatedStrainLife.form": KeyWords("which form of the universal slopes", "modified"),
    "true_fracture_strain": KeyWords("ln(1 / (1 - Z)) of the reduction of area Z", "85 %"),
    "smallest_plastic_strain": KeyWords("plastic strain below which a test is left out of the plastic line", "100 ue"),
    "TableOfStrainLife.points": KeyWords(
        "strain amplitudes and lives in cycles", [["1 %", 820], ["0.4 %", 9800], ["0.2 %", 3e5]]
    ),
    "StrainLifeOfCard.curve": KeyWords("which strain-life curve of the card", "bar"),
    "FittedStrainLife.tests": KeyWords("a file of strain-controlled tests", "pin_strain_tests.csv"),
    "strain_life": KeyWords("the strain-life curve", "pin"),
    # materials
    "card": KeyWords("a material card by its name", "structural-steel-355"),
    "ultimate_strength": KeyWords("tensile strength", "510 MPa"),
    "toughness": KeyWords("fracture toughness", "75 MPa√m"),
    "source": KeyWords("where the numbers come from", "test report of the plate"),
    # S-N curves
    "stress": KeyWords("what the stress of the curve is", "range"),
    "knee_stress": KeyWords("stress at the knee", "190 MPa"),
    "knee_life": KeyWords("cycles at the knee", 2e6),
    "knee_lives": KeyWords("cycles at each knee", [5e6, 1e8]),
    "slope": KeyWords("m of N S^m = constant (of growth laws: of the rate over ΔK)", 3),
    "slopes": KeyWords("m of each line", [3, 5]),
    "slope_below": KeyWords("m below the knee; inf: no damage", 5),
    "point_stress": KeyWords("stress of a point on the curve", "80 MPa"),
    "point_life": KeyWords("cycles at that point", 2e6),
    "log_a": KeyWords("log10 of a in N = a / S^m, of each line", [12.164, 15.606]),
    "intercept_unit": KeyWords("unit of the stress in log_a", "MPa"),
    "ends_at": KeyWords("cycles beyond which there is no damage", 1e8),
    "coefficient": KeyWords("stress of Basquin's line at one cycle or reversal", "980 MPa"),
    "exponent": KeyWords("b of Basquin's line, negative", -0.085),
    "counted_in": KeyWords("what Basquin's line counts", "reversals"),
    "table": KeyWords("a file with points of the curve", "curve.csv"),
    "above": KeyWords("what holds above the first point: a slope, or a word", "extend"),
    "below": KeyWords("what holds below the last point: a slope, or a word", "no damage"),
    "form": KeyWords(
        "a formula of a curved line: its kind and values",
        {"kind": "stromeyer", "endurance": "80 MPa", "exponent": 3.0, "point_stress": "180 MPa", "point_life": 1e5},
    ),
    "interpolation": KeyWords("between points", "log-log"),
    "class": KeyWords("detail class of the standard", 80),
    "standard": KeyWords("which standard", "EN 1993-1-9"),
    "standard_file": KeyWords("a file with the classes of another standard", "my_standard.toml"),
    "component": KeyWords("stress that the class is for", "normal"),
    "loading": KeyWords("how it is loaded", "bending"),
    "environment": KeyWords("in what it works, by the standard", "air"),
    "partial_factor": KeyWords("γ_Mf, which the class is divided by", 1.35),
    "attachment_length": KeyWords("length of the attachment along the stress, at a weld toe", "100 mm"),
    "curve": KeyWords("which curve of the card", "butt weld"),
    "estimate": KeyWords("group of materials that the curve is estimated for", "steel"),
    "brinell_hardness": KeyWords("Brinell hardness, in the place of the strength", 180),
    "surface": KeyWords("how the surface is made", "ground"),
    "size": KeyWords('a diameter, or both sides of a rectangle, ["20 mm", "8 mm"]', "32 mm"),
    "section": KeyWords("which section the size is of", "round"),
    "temperature": KeyWords("at which it works", "120 °C"),
    "temperature_rule": KeyWords("where the factor of temperature comes from", "table"),
    "fraction_at_1e3": KeyWords("strength at 1000 cycles as a share of the ultimate strength", 0.9),
    "own_factors": KeyWords("factors of your own in the place of those estimated", {"surface": 0.8}),
    "tests": KeyWords("a file of tests", "tests.csv"),
    "SNCurve.model": KeyWords("how the tests are fitted", "line"),
    "confidence": KeyWords("how sure the survival probability is", 0.9),
    "survival_probability": KeyWords("share of parts that outlive the curve", 0.95),
    "at_survival": KeyWords("turns the curve to this survival probability", 0.99),
    "log_life_std": KeyWords("standard deviation of log10 life", 0.2),
    "thickness": KeyWords("thickness of the plate, or of the wall", "25 mm"),
    "reference_thickness": KeyWords("thickness that the curve holds for", "25 mm"),
    "thickness_exponent": KeyWords("k of (t_ref / t)^k", 0.2),
    "tested_from": KeyWords("fewest cycles that were tested", 1e4),
    "tested_to": KeyWords("most cycles that were tested", 1e7),
    "basis": KeyWords("what the curve stands on", "tests"),
    "SNCurve.mean_stress": KeyWords("mean stress of the tests, where it was the same in all", "100 MPa"),
    "SNCurve.points": KeyWords("stress and cycles of each point", [["400 MPa", 1e4], ["100 MPa", 1e6]]),
    "curves": KeyWords("names of S-N curves of this study", ["r_minus_1", "r_0"]),
    # growth laws
    "law": KeyWords("which growth law of the card", "air"),
    "rate": KeyWords("growth rate at a range of K", "6.9e-12 m/cycle at 1 MPa√m"),
    "threshold": KeyWords("range of K below which nothing grows", "2 MPa√m"),
    "kind": KeyWords("which form it is", "walker"),
    "FixedThreshold.range": KeyWords("threshold at every R", "2 MPa√m"),
    "scatter": KeyWords("where in the scatter of the tests it lies", "upper bound"),
    "above_mean": KeyWords("standard deviations above the mean of the tests", 2.0),
    # hot spots
    "stress_per_load": KeyWords(
        "nominal stress for the load, of a load factor: at full load; several loads together: of each, without channel",
        "5.5 MPa/kN",
    ),
    "unit_stresses": KeyWords(
        "stresses of several components at unit loads: a file, or a table for each load",
        [{"channel": "force", "unit_load": "10 kN", "xx": "120 MPa", "xy": "30 MPa"}],
    ),
    "constant_stress": KeyWords("components that are there all the time", {"xx": "15 MPa"}),
    "rosette": KeyWords(
        "three measured strains of a place", {"channels": ["a", "b", "c"], "youngs_modulus": "206 GPa"}
    ),
    "channels": KeyWords("channels of the gauges a, b, c", ["a", "b", "c"]),
    "directions": KeyWords("of the gauges: 0/45/90, 0/60/120, or three angles in degrees from gauge a", "0/45/90"),
    "poissons_ratio": KeyWords("Poisson's ratio", 0.3),
    **{one: KeyWords(f"stress component {one}", "120 MPa") for one in stress.measures.COMPONENTS},
    "method": KeyWords("a method of this study, or its table, in place of sn_curve and its like", {"sn_curve": "toe"}),
    "offset": KeyWords("nominal stress that is there without load", "20 MPa"),
    "notch_factor": KeyWords("K_f on the nominal stress", 2.2),
    "material": KeyWords("a material of this study", "plate"),
    "sn_curve": KeyWords("an S-N curve or family of this study", "toe"),
    # cracks
    "hot_spot": KeyWords("the hot spot that the crack is at", "toe"),
    "plate_width": KeyWords("width of the plate", "60 mm"),
    "radius": KeyWords("radius of hole, rod or pipe", "10 mm"),
    "wall": KeyWords("thickness of the wall", "12 mm"),
    "diameter": KeyWords("diameter of the rod", "30 mm"),
    "CrackSection.cracks": KeyWords("how many cracks at the hole, 1 or 2", 1),
    "pin_share": KeyWords("share of the force that a pin brings into the hole", 1.0),
    "points": KeyWords("geometry factors: a file, or rows of size and factor", [["1 mm", 1.12], ["5 mm", 1.4]]),
    "stress_profile": KeyWords("stress over the depth, for a nominal stress of 1", [["0 mm", 1.0], ["10 mm", 0.2]]),
    "centre_depth": KeyWords("how deep the middle of an embedded crack lies", "8 mm"),
    "broken_at": KeyWords("share of the ligament at which it breaks", 0.9),
    "bending_share": KeyWords("share of bending in the nominal stress", 0.3),
    "surface_factor": KeyWords("factor on the growth along the surface", 0.9),
    "CrackSection.law": KeyWords("a growth law of this study", "air"),
    "later_law": KeyWords("the law that takes over later", "sea water"),
    "retardation": KeyWords("memory of larger cycles", "none"),
    "youngs_modulus": KeyWords("modulus of elasticity", "206 GPa"),
    # models
    "stresses": KeyWords("a file with stresses: results, mesh or table", "arm.frd"),
    "stress_unit": KeyWords("unit of the stresses in the file", "MPa"),
    "length_unit": KeyWords("unit of the coordinates in the file", "mm"),
    "ModelSection.cases": KeyWords("names of the steps, or load cases by their data", ["vertical", "lateral"]),
    "component_order": KeyWords("order of the six components in the file", "xx, yy, zz, xy, yz, zx"),
    "element_values": KeyWords("stresses of elements at a node", "averaged"),
    "face": KeyWords("which face of a shell", "both"),
    "sets_from": KeyWords("a file with sets of nodes", "sets.csv"),
    "load_cases": KeyWords("which channel scales which load case", []),
    "sequences": KeyWords("load cases that follow each other", []),
    "measure": KeyWords("the stress that is counted", "absolute maximum principal"),
    "direction": KeyWords("the normal stress along this direction is counted", [1, 0, 0]),
    "apart": KeyWords("nodes nearer to a worse one belong to its place; left out: by the mesh", "12 mm"),
    "up": KeyWords("the axis that points upwards in pictures", "z"),
    "sets": KeyWords("sets of nodes between two places", {"held end": {"y": ["-120 mm", "-88 mm"]}}),
    "ignore_cases": KeyWords("load cases of the file that are not wanted", ["bolt preload"]),
    "leave_out": KeyWords("sets or nodes that are not assessed", ["held end"]),
    "regions": KeyWords("sets with a material or curve of their own", []),
    "paths": KeyWords("where a structural stress is taken", []),
    "case": KeyWords("name of the load case", "vertical"),
    "cases": KeyWords("load cases in the order in which they follow", ["cold", "warm", "hot"]),
    "unit_load": KeyWords("the load at which the stresses were computed", "10 kN"),
    "event_factors": KeyWords("factors on the load in some events", {"emergency stop": 1.5}),
    "constant": KeyWords("factor of a case that is there all the time", 1.0),
    "x": KeyWords("from and to along x", ["0 mm", "10 mm"]),
    "y": KeyWords("from and to along y", ["0 mm", "10 mm"]),
    "z": KeyWords("from and to along z", ["0 mm", "10 mm"]),
    "set": KeyWords("name of the set", "casting"),
    "rule": KeyWords("where along a path the stress is read", "0.4t and 1.0t"),
    "toe": KeyWords("place of the weld toe", ["0 mm", "10 mm", "4 mm"]),
    "along": KeyWords("direction away from the weld", [1, 0, 0]),
    "nodes": KeyWords("nodes of the path, from the toe on", [17, 18, 19]),
    "PathSection.surface": KeyWords(
        "place on the surface where a line through the plate begins", ["0 mm", "0 mm", "4 mm"]
    ),
    "other": KeyWords("place on the other side where it ends", ["0 mm", "0 mm", "-4 mm"]),
    **OF_FLAWS,
    "StudyFile.report": KeyWords(
        "title block and sections of its report", {"project": "Larkfell", "author": "M. Quill"}
    ),
}

# Of keys that are fields of nouns, whose docstrings say what they are.
EXAMPLES: dict[str, Any] = {
    "endurance": "80 MPa",
    "largest": "600 MPa",
    "bend": 1e4,
    "repeat": "month",
    "repeats_per_year": 12,
    "repeat_duration": "40 h",
    "residue": "repeated",
    "counting": "rainflow",
    "between": "each by itself",
    "yield_strength": "355 MPa",
    "true_fracture_strength": "900 MPa",
    "fatigue_strength_coefficient": "980 MPa",
    "walker_exponent": 0.65,
    "mean_stress_sensitivity": 0.3,
    "group": "steel",
    "beyond_lowest": "refuse",
    "beyond_highest": "hold",
    "rate_2": "3.98e-13 with mm/cycle and MPa√mm",
    "slope_2": 2.88,
    "transition": "363 MPa√mm",
    "gamma": 0.6,
    "gamma_negative": 0.0,
    "open_0": 0.5,
    "open_1": 0.4,
    "open_2": 0.0,
    "p": 0.5,
    "q": 0.5,
    "closure_alpha": 2.0,
    "closure_peak": 0.3,
    "intrinsic_length": "0.0381 mm",
    "threshold_plus": 1.5,
    "threshold_minus": 0.1,
    "TableLaw.points": [["10 MPa√m", "1e-5 mm/cycle"], ["20 MPa√m", "1e-4 mm/cycle"]],
    "PowerOfRThreshold.range": "5 MPa√m",
    "PowerOfRThreshold.exponent": 0.5,
    "Wheeler.exponent": 1.3,
    "constraint": "plane strain",
    "shut_off": 3.0,
    "threshold_maximum": "5 MPa√m",
    "valid_r": [0.0, 0.5],
    "mean_stress": "goodman",
    "LocalStrain.mean_stress": "smith-watson-topper",
    "notch_rule": "neuber",
    "criterion": "findley",
    "CriticalPlane.k": 0.3,
    "axial_limit": "300 MPa",
    "torsion_limit": "180 MPa",
    "plastic_limit_ratio": 1.8,
    "fatigue_strength_exponent": -0.09,
    "fatigue_ductility_coefficient": 0.45,
    "fatigue_ductility_exponent": -0.58,
    "cyclic_strength_coefficient": "1080 MPa",
    "cyclic_hardening_exponent": 0.155,
    "compressive_mean": "ignored",
    "below_knee": "as the curve says",
    "critical_sum": 1.0,
    "order_rule": "none",
    "order_exponents": {"q": 0.6},
    "shape": "edge",
    "initial_size": "1 mm",
    "initial_half_length": "2.5 mm",
    "later_law_from": "15 years",
    "residual_stress": [["0 mm", "100 MPa"]],
    "counted_part": "tensile",
    "order": "per repeat",
    "limits": "toughness and yield",
    "stop_size": "20 mm",
    "detectable_size": "3 mm",
    "inspection_factor": 3,
    "beyond_validity": "stop",
    "expected_cycles": "dirlik",
    "expected_slope": 5.0,
    "OneDegreeOfFreedom.natural_frequency": "70 Hz",
    "ModalResponse.natural_frequency": ["70 Hz", "180 Hz"],
    "stress_per_acceleration": "3 MPa/g",
    "motion": "absolute",
    "ModesSection.damping_ratio": [0.02, 0.03],
    "damping_ratio": 0.02,
    "quality_factor": 25,
    "loss_factor": 0.04,
    "participation": [0.011, 0.004],
    "modal_stress": [2.1e4, -3.3e4],
    "input": "base acceleration",
    "static_residual": 1e-4,
    **EXAMPLES_OF_FLAWS,
    "project": "Larkfell chairlift",
    "number": "LF-7-031",
    "revision": "A",
    "author": "M. Quill",
    "checker": "T. Fenn",
    "ReportSettings.date": "2026-10-05",
    "logo": "logo.png",
    "language": "en",
    "sections": ["answer", "findings"],
    "ReportSettings.leave_out": ["appendix"],
    "pictures": "interactive",
    "html_template": "report.html",
    "word_template": "company.docx",
}

# In the file the name of something that stands elsewhere in it.
BY_NAME = (
    "sn_curve",
    "strain_life",
    "hot_spot",
    "curves",
    "CrackSection.law",
    "StageSection.law",
    "FrontSection.place",
    "later_law",
    "StepLoad.cases",
    "material",
    "method",
)

CHOICES: dict[str, Callable[[], Iterable[Any]]] = {
    "residue": lambda: counting.RESIDUES,
    "counting": lambda: counting.COUNTING_METHODS,
    "between": lambda: events.BETWEEN_EVENTS,
    "expected_cycles": lambda: spectra.EXPECTED_CYCLES,
    "between_points": lambda: between_points.BETWEEN_POINTS,
    "TableKeys.between": lambda: response_table.BETWEEN_LINES,
    "conjugated": lambda: cross_spectra.CONJUGATED,
    "coefficients": lambda: non_gaussian.COEFFICIENTS,
    "window": lambda: psd_estimate.WINDOWS,
    "motion": lambda: oscillator.MOTIONS,
    "input": lambda: modes.INPUTS,
    "Event.scale": lambda: sine_course.SCALES,
    "Material.group": lambda: material.GROUPS,
    "mean_stress": lambda: materials.MEAN_STRESS_RULES,
    "LocalStrain.mean_stress": lambda: materials.strain.STRAIN_MEANS,
    "criterion": lambda: stress.planes.shear_parameters.SHEAR_PARAMETERS,
    "notch_rule": lambda: stress.yielding.NOTCH_RULES,
    "TableOfStrainLife.basis": lambda: materials.strain.strain_life.BASES,
    "StrainLife.basis": lambda: materials.strain.strain_life.BASES,
    "EstimatedStrainLife.estimate": lambda: strain_life_keys.ESTIMATES,
    "EstimatedStrainLife.group": lambda: materials.strain.estimate_strain_life.MODULI,
    "EstimatedStrainLife.form": lambda: materials.strain.estimate_strain_life.FORMS,
    "compressive_mean": lambda: materials.COMPRESSIVE_MEANS,
    "below_knee": lambda: materials.BELOW_KNEE,
    "order_rule": lambda: ("none", *damage.ORDER_RULES),
    "shape": lambda: shapes.SHAPES,
    "counted_part": lambda: growth.COUNTED_PARTS,
    "order": lambda: crack.ORDERS,
    "limits": lambda: crack.LIMITS,
    "beyond_validity": lambda: crack.BEYOND,
    "constraint": lambda: ZONES,
    "beyond_lowest": lambda: sn_family.BEYOND,
    "beyond_highest": lambda: sn_family.BEYOND,
    "element_values": lambda: models.ELEMENT_VALUES,
    "face": lambda: models.FACE_CHOICES,
    "component_order": lambda: mesh_data.ORDERS,
    "measure": lambda: stress.MEASURES,
    "ModelSection.measure": lambda: (*stress.MEASURES, *fields.PLANES),
    "rule": lambda: stress.TOE_RULES,
    "stress": lambda: ("range", "amplitude"),
    "counted_in": lambda: sn_forms.COUNTED_IN,
    "interpolation": lambda: sn_checks.INTERPOLATIONS,
    "basis": lambda: sn_checks.BASES,
    "estimate": lambda: estimate_factors.GROUPS,
    "SNCurve.surface": lambda: estimate_factors.SURFACES,
    "section": lambda: estimate_factors.SECTIONS,
    "temperature_rule": lambda: estimate_factors.TEMPERATURE_RULES,
    "SNCurve.model": lambda: (curve_keys.REGRESSION, *FIT_MODELS),
    **CHOICES_OF_FLAWS,
    "language": lambda: report_settings.LANGUAGES,
    "pictures": lambda: report_settings.PICTURES,
}
_NOT_A_CHOICE = ("SNCurve.mean_stress", "PathSection.surface", "Indication.stress", "PressureStress.wall")


def words_of(section: str, key: str) -> KeyWords:
    """What a key says in a section, empty where the noun behind it says so, and an example; of one that was added its name."""
    found = KEYS.get(f"{section}.{key}")
    if found is not None:
        return found
    for name in (f"{section}.{key}", key):
        if name in EXAMPLES:
            return KeyWords("", EXAMPLES[name])
    return KEYS.get(key) or KeyWords("", None)


def choices_of(section: str, key: str) -> list[Any] | None:
    """The choices of a key in a section; None where anything may stand."""
    if f"{section}.{key}" in _NOT_A_CHOICE:
        return None
    found = CHOICES.get(f"{section}.{key}") or CHOICES.get(key)
    return None if found is None else list(found())
