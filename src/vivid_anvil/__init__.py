"""Fatigue life and crack growth from load histories, with every number open to a hand check.

>>> import vivid_anvil as va
>>> cycles = va.rainflow([0.0, 120.0, 20.0, 80.0, 0.0])
>>> cycles
<Cycles: 2 cycles, largest range 120 MPa>

Names are loaded when they are first used, so that importing the package, and the command's help, answer at once. What is not here
stands in the packages: `va.counting`, `va.materials`, ...

Examples in docstrings know these names as they are, and run in the folder of `vivid-anvil demo`. There `study` is
`read_study("larkfell.toml")`, `result` is `run_study(study)`, `history` is `read_history("loaded_lap.csv")`, `field` is what
`hanger_head.frd` holds, and `model` is `run_model(read_study("hanger_head.toml"))`.
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from vivid_anvil.acceptance.allowable_flaws import AllowableFlaws, allowable_flaws
    from vivid_anvil.acceptance.assess_flaw import FlawAssessment, assess_flaw
    from vivid_anvil.acceptance.flaw import Flaw
    from vivid_anvil.acceptance.flaw_list import FlawList, ListedFlaw
    from vivid_anvil.acceptance.flaw_looks import FlawLooks, Look, flaw_looks
    from vivid_anvil.acceptance.fronts.assess_front import FrontAssessment, assess_front
    from vivid_anvil.acceptance.fronts.crack_front import CrackFront, crack_front
    from vivid_anvil.acceptance.fronts.crack_of_fronts import crack_of_fronts
    from vivid_anvil.acceptance.fronts.read_crack_front import read_crack_front
    from vivid_anvil.acceptance.grow_flaw import FlawGrowth, grow_flaw
    from vivid_anvil.acceptance.indication import Characterised, Indication, characterised
    from vivid_anvil.acceptance.leak_before_break import LeakBeforeBreak, leak_before_break, opening_area
    from vivid_anvil.acceptance.limiting_sizes import LimitingCurve, LimitingSizes, limiting_sizes
    from vivid_anvil.acceptance.many_flaws import PlaceOfFlaws, assess_indications
    from vivid_anvil.acceptance.part import Part
    from vivid_anvil.acceptance.partial_factors import PartialFactors
    from vivid_anvil.acceptance.point import FractureLoads
    from vivid_anvil.acceptance.read_indications import read_indications
    from vivid_anvil.acceptance.read_ranges import read_ranges
    from vivid_anvil.acceptance.sensitivity import Moved, Sensitivity, sensitivity
    from vivid_anvil.acceptance.stages import RangesPerYear, Stage, stage_of_duty_cycle
    from vivid_anvil.acceptance.stresses.as_welded import AsWelded
    from vivid_anvil.acceptance.stresses.heat_treated import HeatTreated
    from vivid_anvil.acceptance.stresses.measured_profile import ProfileStress
    from vivid_anvil.acceptance.stresses.pressure import PressureStress
    from vivid_anvil.acceptance.stresses.primary import PrimaryStresses
    from vivid_anvil.acceptance.stresses.primary_profile import PrimaryProfile
    from vivid_anvil.acceptance.stresses.secondary import SecondaryStresses
    from vivid_anvil.acceptance.stresses.weld_profile import WeldProfile
    from vivid_anvil.acceptance.tearing import Tearing, tearing
    from vivid_anvil.counting.counter import RainflowCounter
    from vivid_anvil.counting.cycles import Cycles
    from vivid_anvil.counting.exceedance import exceedance
    from vivid_anvil.counting.gate import gate
    from vivid_anvil.counting.matrix import CycleMatrix, cycle_matrix
    from vivid_anvil.counting.other_counts import level_crossings, range_pair, simple_range
    from vivid_anvil.counting.rainflow import four_point, rainflow
    from vivid_anvil.counting.reconstruct import reconstruct
    from vivid_anvil.counting.tail import fit_tail
    from vivid_anvil.counting.turning_points import turning_points
    from vivid_anvil.damage.assess import assess_life
    from vivid_anvil.damage.inverse import accelerated_test, class_needed
    from vivid_anvil.damage.life import LifeResult
    from vivid_anvil.damage.life_working import life_working
    from vivid_anvil.damage.lives_on_planes import lives_on_planes
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane
    from vivid_anvil.damage.methods.local_strain import LocalStrain
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue
    from vivid_anvil.damage.methods.strain_plane import StrainPlane
    from vivid_anvil.damage.methods.stress_life import StressLife
    from vivid_anvil.damage.methods.weld_of_two import WeldOfTwo
    from vivid_anvil.damage.over_time import damage_over_time, worst_cycles
    from vivid_anvil.damage.rule_comparison import compare_rules, compare_rules_for_cycles
    from vivid_anvil.damage.stream import damage_of_chunks, damage_of_samples
    from vivid_anvil.events.duty_cycle import DutyCycle
    from vivid_anvil.events.equal_cycles import ConstantAmplitude
    from vivid_anvil.events.event import Event
    from vivid_anvil.events.gated import GatedHistory
    from vivid_anvil.events.load_states import LoadStates
    from vivid_anvil.events.profile import Profile
    from vivid_anvil.events.programmes import block_programme, load_spectrum, read_programme, read_spectrum
    from vivid_anvil.events.random_vibration import RandomVibration
    from vivid_anvil.events.repeated_times import repeated_times
    from vivid_anvil.events.sine import Sine
    from vivid_anvil.events.sine_course import Dwells, Sweep
    from vivid_anvil.fields.endless_nodes import endless_life_of_nodes
    from vivid_anvil.fields.free_surface import free_surface_normals
    from vivid_anvil.fields.hottest import hottest_places
    from vivid_anvil.fields.model_answer import model_answer
    from vivid_anvil.fields.model_result import ModelResult
    from vivid_anvil.fields.node_life import node_life, node_tensors
    from vivid_anvil.fields.planes import assess_planes
    from vivid_anvil.fields.proportionality import trust_of_nodes
    from vivid_anvil.fields.reserves import reserves_on_stress
    from vivid_anvil.fields.structural_field import structural_field
    from vivid_anvil.fields.whole_model import assess_model
    from vivid_anvil.fields.write_results import write_results
    from vivid_anvil.figures.plot import plot
    from vivid_anvil.figures.style import draw_into, save_figure
    from vivid_anvil.ground.errors import InputError
    from vivid_anvil.growth.course import crack_course
    from vivid_anvil.growth.crack import Crack
    from vivid_anvil.growth.grow import grow_crack
    from vivid_anvil.growth.initial_sizes import largest_lasting_size, lives_over_size
    from vivid_anvil.growth.inspection import InspectionPlan, inspection_plan
    from vivid_anvil.growth.load_limits import limits_over_load
    from vivid_anvil.growth.memories.constant_closure import ConstantClosure
    from vivid_anvil.growth.memories.wheeler import Wheeler
    from vivid_anvil.growth.memories.willenborg import Willenborg
    from vivid_anvil.growth.result import GrowthResult
    from vivid_anvil.growth.working import growth_working
    from vivid_anvil.histories.channel import Channel
    from vivid_anvil.histories.check_history import check_history
    from vivid_anvil.histories.filters import high_pass, low_pass, resample
    from vivid_anvil.histories.from_frame import history_from_frame
    from vivid_anvil.histories.load_history import LoadHistory
    from vivid_anvil.histories.psd_estimate import PSDEstimate, estimate_psd
    from vivid_anvil.histories.read_csv import read_csv
    from vivid_anvil.histories.read_history import read_history
    from vivid_anvil.histories.read_tables import read_excel, read_hdf5, read_mdf, read_npy, read_parquet
    from vivid_anvil.histories.repairs import combine, cut, interpolate_spikes, join, remove_drift, remove_offset, scale
    from vivid_anvil.histories.stream import count_chunks, count_file
    from vivid_anvil.histories.write_history import write_history
    from vivid_anvil.materials.curves.asymptotic import Palmgren, Stromeyer
    from vivid_anvil.materials.curves.at_r import curve_at_r
    from vivid_anvil.materials.curves.convert import at_survival, in_terms_of
    from vivid_anvil.materials.curves.curve import SNCurve
    from vivid_anvil.materials.curves.detail_class import detail_curve
    from vivid_anvil.materials.curves.effective_notch import effective_notch_curve
    from vivid_anvil.materials.curves.estimate import estimate_curve
    from vivid_anvil.materials.curves.family import SNFamily
    from vivid_anvil.materials.curves.forms import (
        basquin_curve,
        intercept_curve,
        knee_curve,
        sloped_curve,
        straight_curve,
    )
    from vivid_anvil.materials.curves.page import stress_table
    from vivid_anvil.materials.curves.written_as_points import curved_curve, table_curve
    from vivid_anvil.materials.fits.compare_fits import compare_fits
    from vivid_anvil.materials.fits.fit_likelihood import fit_likelihood
    from vivid_anvil.materials.fits.fit_line import fit_line
    from vivid_anvil.materials.fits.growth_fit import fit_growth_law, table_law
    from vivid_anvil.materials.fits.growth_tests import read_growth_tests
    from vivid_anvil.materials.fits.specimens import SpecimenSeries, read_specimens
    from vivid_anvil.materials.fits.staircase import staircase
    from vivid_anvil.materials.fracture.from_charpy import CharpyToughness
    from vivid_anvil.materials.fracture.from_ctod import CTODToughness
    from vivid_anvil.materials.fracture.from_j import JToughness
    from vivid_anvil.materials.fracture.general_curve import GeneralCurve
    from vivid_anvil.materials.fracture.master_curve import MasterCurve
    from vivid_anvil.materials.fracture.metal import Metal, Weld
    from vivid_anvil.materials.fracture.older_curve import OlderCurve
    from vivid_anvil.materials.fracture.plateau_curve import PlateauCurve
    from vivid_anvil.materials.fracture.resistance_curve import ResistanceCurve
    from vivid_anvil.materials.fracture.stress_strain_curve import StressStrainCurve
    from vivid_anvil.materials.fracture.toughness import KToughness
    from vivid_anvil.materials.fracture.toughness_tests import ToughnessTests
    from vivid_anvil.materials.laws.effective_range import EffectiveRangeLaw
    from vivid_anvil.materials.laws.forman import FormanLaw
    from vivid_anvil.materials.laws.forman_mettu import FormanMettuLaw
    from vivid_anvil.materials.laws.hartman_schijve import HartmanSchijveLaw
    from vivid_anvil.materials.laws.klesnil_lukas import KlesnilLukasLaw
    from vivid_anvil.materials.laws.law import GrowthLaw
    from vivid_anvil.materials.laws.paris import ParisLaw
    from vivid_anvil.materials.laws.table import TableLaw
    from vivid_anvil.materials.laws.two_stage import TwoStageLaw
    from vivid_anvil.materials.laws.walker import WalkerLaw
    from vivid_anvil.materials.material import Material
    from vivid_anvil.materials.mean_stress.apply import equivalent_amplitude
    from vivid_anvil.materials.plies.bell import Bell
    from vivid_anvil.materials.plies.criteria import Hashin, LargestPlyStrain, LargestPlyStress, Puck, TsaiWu
    from vivid_anvil.materials.plies.energy_life import EnergyLife, energy_range, normalised_energy
    from vivid_anvil.materials.plies.largest_stress import LargestStress
    from vivid_anvil.materials.plies.life_diagram import joint_lives
    from vivid_anvil.materials.plies.ply import Ply
    from vivid_anvil.materials.plies.rays import Rays
    from vivid_anvil.materials.plies.shifted_linear import ShiftedLinear
    from vivid_anvil.materials.plies.stiffness_decay import NormalisedStiffness, PowerStiffness, StiffnessRate
    from vivid_anvil.materials.plies.strength_decay import NormalisedStrength, PowerStrength
    from vivid_anvil.materials.rubber.at_temperature import law_at
    from vivid_anvil.materials.rubber.fit_hyperelastic import fit_hyperelastic
    from vivid_anvil.materials.rubber.fit_tearing import fit_tearing
    from vivid_anvil.materials.rubber.flaw_size import initial_flaws
    from vivid_anvil.materials.rubber.hyperelastic import MooneyRivlin, NeoHookean, Ogden, Yeoh
    from vivid_anvil.materials.rubber.power_tearing import PowerTearing
    from vivid_anvil.materials.rubber.rubber import Rubber
    from vivid_anvil.materials.rubber.rubber_tests import RubberTests, read_rubber_tests
    from vivid_anvil.materials.rubber.shifted_tearing import ShiftedTearing
    from vivid_anvil.materials.rubber.strip_lives import flaws_of_strips
    from vivid_anvil.materials.rubber.tearing_tests import TearingTests, read_tearing_tests
    from vivid_anvil.materials.rubber.three_regimes import ThreeRegimes
    from vivid_anvil.materials.strain.cyclic_curve import CyclicCurve
    from vivid_anvil.materials.strain.estimate_strain_life import (
        hardness_estimate,
        medians_estimate,
        uniform_material_law,
        universal_slopes,
    )
    from vivid_anvil.materials.strain.fit_strain_life import StrainLifeFit, fit_strain_life, strain_life_through
    from vivid_anvil.materials.strain.strain_life import StrainLife
    from vivid_anvil.materials.strain.strain_tests import StrainTests, read_strain_tests
    from vivid_anvil.materials.thresholds.power_of_r import PowerOfRThreshold
    from vivid_anvil.models.at_points import at_points
    from vivid_anvil.models.element_values import averaged, of_face
    from vivid_anvil.models.read_field import read_field
    from vivid_anvil.models.read_frd import read_frd
    from vivid_anvil.models.read_mesh import read_mesh
    from vivid_anvil.models.read_ply_stresses import read_ply_stresses
    from vivid_anvil.models.read_section_loads import read_section_loads
    from vivid_anvil.models.read_sets import with_sets
    from vivid_anvil.models.read_strain_field import read_strain_field
    from vivid_anvil.models.stress_field import StressField, with_boxes, without_cases
    from vivid_anvil.models.tables_of_fields import read_field_table, write_field_table
    from vivid_anvil.pages.page import write_page
    from vivid_anvil.progress.laminate_progress import CycleEnds, LaminateProgress, laminate_progress
    from vivid_anvil.progress.tables import ProgressSettings
    from vivid_anvil.reports.build import build_report
    from vivid_anvil.reports.write_report import write_report
    from vivid_anvil.shapes.bars import BarCrack, BarSurfaceCrack
    from vivid_anvil.shapes.corner import CornerCrack, HoleCornerCrack
    from vivid_anvil.shapes.cylinders import PipeSurfaceCrack, VesselCrack
    from vivid_anvil.shapes.embedded import EmbeddedCrack
    from vivid_anvil.shapes.grid import GridCrack
    from vivid_anvil.shapes.hole import DoubleEdgeCrack, HoleCrack
    from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack, stress_intensity
    from vivid_anvil.shapes.pipes import AxialPipeCrack, PipeCrack
    from vivid_anvil.shapes.points import grid_of_rows
    from vivid_anvil.shapes.profiles import ProfileEdgeCrack, ProfileSurfaceCrack
    from vivid_anvil.shapes.shells import CylinderSurfaceCrack, SphereCrack, SphereSurfaceCrack
    from vivid_anvil.shapes.surface import SurfaceCrack
    from vivid_anvil.shapes.table import TableCrack
    from vivid_anvil.spectra.cross_spectra import PSDs, SpectralMatrix, Together
    from vivid_anvil.spectra.largest import expected_largest
    from vivid_anvil.spectra.methods.expected_cycles import expected_ranges
    from vivid_anvil.spectra.moments import StatedMoments
    from vivid_anvil.spectra.non_gaussian import hermite_form
    from vivid_anvil.spectra.psd import PSD, psd_of_slopes
    from vivid_anvil.spectra.read_spectra import read_cross_spectra, read_psd, read_response
    from vivid_anvil.spectra.responses.components import ComponentTables
    from vivid_anvil.spectra.responses.modal_components import ModalComponents
    from vivid_anvil.spectra.responses.modes import ModalResponse
    from vivid_anvil.spectra.responses.oscillator import OneDegreeOfFreedom
    from vivid_anvil.spectra.responses.response_table import ResponseTable
    from vivid_anvil.spectra.rows_of_psd import psd_of_rows
    from vivid_anvil.spectra.synthesis import Tone, counted_synthesis, synthesized
    from vivid_anvil.spectra.tensor_spectra import TensorSpectra
    from vivid_anvil.stress.critical_distance import (
        critical_length,
        hole_profile,
        notch_effect_by_distance,
        short_crack_limit,
    )
    from vivid_anvil.stress.hot_spot import HotSpot
    from vivid_anvil.stress.laminates.laminate import LaidPly, Laminate
    from vivid_anvil.stress.laminates.layup import angles_of, layup_text
    from vivid_anvil.stress.laminates.section_fields import SectionFields
    from vivid_anvil.stress.laminates.section_loads import SectionLoads
    from vivid_anvil.stress.laminates.static_failure import ply_failures, static_reserves
    from vivid_anvil.stress.measures.measure import stress_measure
    from vivid_anvil.stress.measures.principal_stresses import (
        AbsoluteMaximumPrincipal,
        SignedTresca,
        SignedVonMisesPrincipal,
    )
    from vivid_anvil.stress.measures.straight import Component, NormalStress
    from vivid_anvil.stress.measures.von_mises import SignedVonMisesHydrostatic
    from vivid_anvil.stress.notch_effect import notch_effect_by_gradient, notch_effect_by_radius, notch_effect_by_slip
    from vivid_anvil.stress.notches import elliptic_hole, hole_in_strip, round_groove, shoulder
    from vivid_anvil.stress.planes.constants import dang_van_constants, findley_constant
    from vivid_anvil.stress.planes.criteria import CRITERIA
    from vivid_anvil.stress.planes.dang_van import dang_van
    from vivid_anvil.stress.planes.invariants import crossland, sines
    from vivid_anvil.stress.planes.resolve import normal_at, normal_stress, shear_stress
    from vivid_anvil.stress.planes.search import plane_map, worst_plane
    from vivid_anvil.stress.planes.shear_amplitude import smallest_circle
    from vivid_anvil.stress.planes.surface_planes import free_normal
    from vivid_anvil.stress.relations.case_loads import CaseLoad, CaseLoads, StepLoad
    from vivid_anvil.stress.relations.input_responses import InputResponses
    from vivid_anvil.stress.relations.one_load import OneLoad
    from vivid_anvil.stress.relations.read_unit_stresses import read_unit_stresses
    from vivid_anvil.stress.relations.rosette import stresses_of_rosette
    from vivid_anvil.stress.relations.several_loads import SeveralLoads
    from vivid_anvil.stress.relations.unit_stresses import UnitStresses
    from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
    from vivid_anvil.stress.rubber.cracking_energy import StrainPath
    from vivid_anvil.stress.rubber.read_strain_states import read_strain_states
    from vivid_anvil.stress.rubber.states_in_turn import StatesInTurn
    from vivid_anvil.stress.rubber.strain_fields import StrainFields
    from vivid_anvil.stress.rubber.strain_loads import StrainLoads
    from vivid_anvil.stress.rubber.strain_measures import cauchy_green
    from vivid_anvil.stress.rubber.strain_states import StrainStates, joined_states
    from vivid_anvil.stress.sections import RectangleSection, RoundSection, plate_under_pressure, plate_with_hole
    from vivid_anvil.stress.structural import through_thickness, toe_stress
    from vivid_anvil.stress.yielding.follow import follow_block
    from vivid_anvil.stress.yielding.local_tensors import Yielding
    from vivid_anvil.study.all_places import AllPlaces, all_places
    from vivid_anvil.study.answers import answers, answers_of_flaw
    from vivid_anvil.study.cards import read_card, read_card_named
    from vivid_anvil.study.check_study import check_study
    from vivid_anvil.study.compare import compare_studies
    from vivid_anvil.study.explain import explain
    from vivid_anvil.study.flaw_answers import FlawAnswers
    from vivid_anvil.study.flaw_in_full import flaw_in_full, growth_of_flaw
    from vivid_anvil.study.model_run import run_model
    from vivid_anvil.study.read_study import read_study
    from vivid_anvil.study.report_settings import ReportSettings
    from vivid_anvil.study.run import run_study
    from vivid_anvil.study.run_flaws import assess_flaws, assess_fronts
    from vivid_anvil.study.schema import study_schema, write_template
    from vivid_anvil.study.study import Study
    from vivid_anvil.study.study_result import StudyResult
    from vivid_anvil.study.total_life import TotalLife, total_life
    from vivid_anvil.study.what_if import WhatIf, value_that_meets_target, what_if, what_if_flaws
    from vivid_anvil.study.what_if_flaws import FlawsWhatIf
    from vivid_anvil.tailoring.coverage import Coverage, coverage
    from vivid_anvil.tailoring.damage_spectrum import DamageSpectrum, damage_spectrum
    from vivid_anvil.tailoring.oscillators import Oscillators
    from vivid_anvil.tailoring.tailored_test import TailoredTest, tailored_test
    from vivid_anvil.writing.finding import Finding
    from vivid_anvil.writing.latex import working_in_latex
    from vivid_anvil.writing.meanings import Meaning, meaning_of
    from vivid_anvil.writing.working import Step, Working

__all__ = [
    "CRITERIA",
    "PSD",
    "AbsoluteMaximumPrincipal",
    "AllPlaces",
    "AllowableFlaws",
    "AsWelded",
    "AxialPipeCrack",
    "BarCrack",
    "BarSurfaceCrack",
    "Bell",
    "CTODToughness",
    "CaseLoad",
    "CaseLoads",
    "CentreCrack",
    "Channel",
    "Characterised",
    "CharpyToughness",
    "Component",
    "ComponentTables",
    "ConstantAmplitude",
    "ConstantClosure",
    "CornerCrack",
    "Coverage",
    "Crack",
    "CrackFront",
    "CrackingEnergy",
    "CriticalPlane",
    "CycleEnds",
    "CycleMatrix",
    "Cycles",
    "CyclicCurve",
    "CylinderSurfaceCrack",
    "DamageSpectrum",
    "DoubleEdgeCrack",
    "DutyCycle",
    "Dwells",
    "EdgeCrack",
    "EffectiveRangeLaw",
    "EmbeddedCrack",
    "EnergyLife",
    "Event",
    "Finding",
    "Flaw",
    "FlawAnswers",
    "FlawAssessment",
    "FlawGrowth",
    "FlawList",
    "FlawLooks",
    "FlawsWhatIf",
    "FormanLaw",
    "FormanMettuLaw",
    "FractureLoads",
    "FrontAssessment",
    "GatedHistory",
    "GeneralCurve",
    "GridCrack",
    "GrowthLaw",
    "GrowthResult",
    "HartmanSchijveLaw",
    "Hashin",
    "HeatTreated",
    "HoleCornerCrack",
    "HoleCrack",
    "HotSpot",
    "Indication",
    "InputError",
    "InputResponses",
    "InspectionPlan",
    "JToughness",
    "KToughness",
    "KlesnilLukasLaw",
    "LaidPly",
    "Laminate",
    "LaminateProgress",
    "LargestPlyStrain",
    "LargestPlyStress",
    "LargestStress",
    "LeakBeforeBreak",
    "LifeResult",
    "LimitingCurve",
    "LimitingSizes",
    "ListedFlaw",
    "LoadHistory",
    "LoadStates",
    "LocalStrain",
    "Look",
    "MasterCurve",
    "Material",
    "Meaning",
    "Metal",
    "ModalComponents",
    "ModalResponse",
    "ModelResult",
    "MooneyRivlin",
    "Moved",
    "NeoHookean",
    "NormalStress",
    "NormalisedStiffness",
    "NormalisedStrength",
    "Ogden",
    "OlderCurve",
    "OneDegreeOfFreedom",
    "OneLoad",
    "Oscillators",
    "PSDEstimate",
    "PSDs",
    "Palmgren",
    "ParisLaw",
    "Part",
    "PartialFactors",
    "PipeCrack",
    "PipeSurfaceCrack",
    "PlaceOfFlaws",
    "PlateauCurve",
    "Ply",
    "PlyFatigue",
    "PowerOfRThreshold",
    "PowerStiffness",
    "PowerStrength",
    "PowerTearing",
    "PressureStress",
    "PrimaryProfile",
    "PrimaryStresses",
    "Profile",
    "ProfileEdgeCrack",
    "ProfileStress",
    "ProfileSurfaceCrack",
    "ProgressSettings",
    "Puck",
    "RainflowCounter",
    "RandomVibration",
    "RangesPerYear",
    "Rays",
    "RectangleSection",
    "ReportSettings",
    "ResistanceCurve",
    "ResponseTable",
    "RoundSection",
    "Rubber",
    "RubberTests",
    "SNCurve",
    "SNFamily",
    "SecondaryStresses",
    "SectionFields",
    "SectionLoads",
    "Sensitivity",
    "SeveralLoads",
    "ShiftedLinear",
    "ShiftedTearing",
    "SignedTresca",
    "SignedVonMisesHydrostatic",
    "SignedVonMisesPrincipal",
    "Sine",
    "SpecimenSeries",
    "SpectralMatrix",
    "SphereCrack",
    "SphereSurfaceCrack",
    "Stage",
    "StatedMoments",
    "StatesInTurn",
    "Step",
    "StepLoad",
    "StiffnessRate",
    "StrainFields",
    "StrainLife",
    "StrainLifeFit",
    "StrainLoads",
    "StrainPath",
    "StrainPlane",
    "StrainStates",
    "StrainTests",
    "StressField",
    "StressLife",
    "StressStrainCurve",
    "Stromeyer",
    "Study",
    "StudyResult",
    "SurfaceCrack",
    "Sweep",
    "TableCrack",
    "TableLaw",
    "TailoredTest",
    "Tearing",
    "TearingTests",
    "TensorSpectra",
    "ThreeRegimes",
    "Together",
    "Tone",
    "TotalLife",
    "ToughnessTests",
    "TsaiWu",
    "TwoStageLaw",
    "UnitStresses",
    "VesselCrack",
    "VibratingComponents",
    "WalkerLaw",
    "Weld",
    "WeldOfTwo",
    "WeldProfile",
    "WhatIf",
    "Wheeler",
    "Willenborg",
    "Working",
    "Yeoh",
    "Yielding",
    "__version__",
    "accelerated_test",
    "all_places",
    "allowable_flaws",
    "angles_of",
    "answers",
    "answers_of_flaw",
    "assess_flaw",
    "assess_flaws",
    "assess_front",
    "assess_fronts",
    "assess_indications",
    "assess_life",
    "assess_model",
    "assess_planes",
    "at_points",
    "at_survival",
    "averaged",
    "basquin_curve",
    "block_programme",
    "build_report",
    "cauchy_green",
    "characterised",
    "check_history",
    "check_study",
    "class_needed",
    "combine",
    "compare_fits",
    "compare_rules",
    "compare_rules_for_cycles",
    "compare_studies",
    "count_chunks",
    "count_file",
    "counted_synthesis",
    "coverage",
    "crack_course",
    "crack_front",
    "crack_of_fronts",
    "critical_length",
    "crossland",
    "curve_at_r",
    "curved_curve",
    "cut",
    "cycle_matrix",
    "damage_of_chunks",
    "damage_of_samples",
    "damage_over_time",
    "damage_spectrum",
    "dang_van",
    "dang_van_constants",
    "detail_curve",
    "draw_into",
    "effective_notch_curve",
    "elliptic_hole",
    "endless_life_of_nodes",
    "energy_range",
    "equivalent_amplitude",
    "estimate_curve",
    "estimate_psd",
    "exceedance",
    "expected_largest",
    "expected_ranges",
    "explain",
    "findley_constant",
    "fit_growth_law",
    "fit_hyperelastic",
    "fit_likelihood",
    "fit_line",
    "fit_strain_life",
    "fit_tail",
    "fit_tearing",
    "flaw_in_full",
    "flaw_looks",
    "flaws_of_strips",
    "follow_block",
    "four_point",
    "free_normal",
    "free_surface_normals",
    "gate",
    "grid_of_rows",
    "grow_crack",
    "grow_flaw",
    "growth_of_flaw",
    "growth_working",
    "hardness_estimate",
    "hermite_form",
    "high_pass",
    "history_from_frame",
    "hole_in_strip",
    "hole_profile",
    "hottest_places",
    "in_terms_of",
    "initial_flaws",
    "inspection_plan",
    "intercept_curve",
    "interpolate_spikes",
    "join",
    "joined_states",
    "joint_lives",
    "knee_curve",
    "laminate_progress",
    "largest_lasting_size",
    "law_at",
    "layup_text",
    "leak_before_break",
    "level_crossings",
    "life_working",
    "limiting_sizes",
    "limits_over_load",
    "lives_on_planes",
    "lives_over_size",
    "load_spectrum",
    "low_pass",
    "meaning_of",
    "medians_estimate",
    "model_answer",
    "node_life",
    "node_tensors",
    "normal_at",
    "normal_stress",
    "normalised_energy",
    "notch_effect_by_distance",
    "notch_effect_by_gradient",
    "notch_effect_by_radius",
    "notch_effect_by_slip",
    "of_face",
    "opening_area",
    "plane_map",
    "plate_under_pressure",
    "plate_with_hole",
    "plot",
    "ply_failures",
    "psd_of_rows",
    "psd_of_slopes",
    "rainflow",
    "range_pair",
    "read_card",
    "read_card_named",
    "read_crack_front",
    "read_cross_spectra",
    "read_csv",
    "read_excel",
    "read_field",
    "read_field_table",
    "read_frd",
    "read_growth_tests",
    "read_hdf5",
    "read_history",
    "read_indications",
    "read_mdf",
    "read_mesh",
    "read_npy",
    "read_parquet",
    "read_ply_stresses",
    "read_programme",
    "read_psd",
    "read_ranges",
    "read_response",
    "read_rubber_tests",
    "read_section_loads",
    "read_specimens",
    "read_spectrum",
    "read_strain_field",
    "read_strain_states",
    "read_strain_tests",
    "read_study",
    "read_tearing_tests",
    "read_unit_stresses",
    "reconstruct",
    "remove_drift",
    "remove_offset",
    "repeated_times",
    "resample",
    "reserves_on_stress",
    "round_groove",
    "run_model",
    "run_study",
    "save_figure",
    "scale",
    "sensitivity",
    "shear_stress",
    "short_crack_limit",
    "shoulder",
    "simple_range",
    "sines",
    "sloped_curve",
    "smallest_circle",
    "stage_of_duty_cycle",
    "staircase",
    "static_reserves",
    "straight_curve",
    "strain_life_through",
    "stress_intensity",
    "stress_measure",
    "stress_table",
    "stresses_of_rosette",
    "structural_field",
    "study_schema",
    "synthesized",
    "table_curve",
    "table_law",
    "tailored_test",
    "tearing",
    "through_thickness",
    "toe_stress",
    "total_life",
    "trust_of_nodes",
    "turning_points",
    "uniform_material_law",
    "universal_slopes",
    "value_that_meets_target",
    "what_if",
    "what_if_flaws",
    "with_boxes",
    "with_sets",
    "without_cases",
    "working_in_latex",
    "worst_cycles",
    "worst_plane",
    "write_field_table",
    "write_history",
    "write_page",
    "write_report",
    "write_results",
    "write_template",
]
# Where each name is.
_HOMES = {
    "vivid_anvil.ground.errors": ["InputError"],
    "vivid_anvil.writing.finding": ["Finding"],
    "vivid_anvil.writing.latex": ["working_in_latex"],
    "vivid_anvil.writing.meanings": ["Meaning", "meaning_of"],
    "vivid_anvil.writing.working": ["Step", "Working"],
    "vivid_anvil.spectra": [
        "PSD",
        "ComponentTables",
        "ModalComponents",
        "ModalResponse",
        "OneDegreeOfFreedom",
        "PSDs",
        "ResponseTable",
        "SpectralMatrix",
        "StatedMoments",
        "TensorSpectra",
        "Together",
        "Tone",
        "counted_synthesis",
        "expected_largest",
        "expected_ranges",
        "hermite_form",
        "psd_of_rows",
        "psd_of_slopes",
        "read_cross_spectra",
        "read_psd",
        "read_response",
        "synthesized",
    ],
    "vivid_anvil.tailoring": [
        "Coverage",
        "DamageSpectrum",
        "Oscillators",
        "TailoredTest",
        "coverage",
        "damage_spectrum",
        "tailored_test",
    ],
    "vivid_anvil.acceptance": [
        "AllowableFlaws",
        "AsWelded",
        "Characterised",
        "CrackFront",
        "Flaw",
        "FlawAssessment",
        "FlawGrowth",
        "FlawList",
        "FlawLooks",
        "FractureLoads",
        "FrontAssessment",
        "HeatTreated",
        "Indication",
        "LeakBeforeBreak",
        "LimitingCurve",
        "LimitingSizes",
        "ListedFlaw",
        "Look",
        "Moved",
        "Part",
        "PartialFactors",
        "PlaceOfFlaws",
        "PressureStress",
        "PrimaryProfile",
        "PrimaryStresses",
        "ProfileStress",
        "RangesPerYear",
        "SecondaryStresses",
        "Sensitivity",
        "Stage",
        "Tearing",
        "WeldProfile",
        "allowable_flaws",
        "assess_flaw",
        "assess_front",
        "assess_indications",
        "characterised",
        "crack_front",
        "crack_of_fronts",
        "flaw_looks",
        "grow_flaw",
        "leak_before_break",
        "limiting_sizes",
        "opening_area",
        "read_crack_front",
        "read_indications",
        "read_ranges",
        "sensitivity",
        "stage_of_duty_cycle",
        "tearing",
    ],
    "vivid_anvil.pages": ["write_page"],
    "vivid_anvil.reports": ["build_report", "write_report"],
    "vivid_anvil.materials.strain": [
        "CyclicCurve",
        "StrainLife",
        "StrainLifeFit",
        "StrainTests",
        "fit_strain_life",
        "hardness_estimate",
        "medians_estimate",
        "read_strain_tests",
        "strain_life_through",
        "uniform_material_law",
        "universal_slopes",
    ],
    "vivid_anvil.stress.yielding": ["follow_block", "Yielding"],
    "vivid_anvil.materials.rubber": [
        "MooneyRivlin",
        "NeoHookean",
        "Ogden",
        "Yeoh",
        "PowerTearing",
        "ShiftedTearing",
        "ThreeRegimes",
        "Rubber",
        "RubberTests",
        "read_rubber_tests",
        "fit_hyperelastic",
        "TearingTests",
        "read_tearing_tests",
        "fit_tearing",
        "initial_flaws",
        "flaws_of_strips",
        "law_at",
    ],
    "vivid_anvil.materials.plies": [
        "Ply",
        "Bell",
        "Rays",
        "LargestStress",
        "ShiftedLinear",
        "EnergyLife",
        "joint_lives",
        "PowerStrength",
        "NormalisedStrength",
        "PowerStiffness",
        "NormalisedStiffness",
        "StiffnessRate",
        "Hashin",
        "Puck",
        "TsaiWu",
        "LargestPlyStress",
        "LargestPlyStrain",
        "energy_range",
        "normalised_energy",
    ],
    "vivid_anvil.stress.laminates": [
        "Laminate",
        "LaidPly",
        "SectionLoads",
        "angles_of",
        "layup_text",
        "ply_failures",
        "static_reserves",
        "SectionFields",
    ],
    "vivid_anvil.progress": ["laminate_progress", "CycleEnds", "LaminateProgress", "ProgressSettings"],
    "vivid_anvil.stress.rubber": [
        "StatesInTurn",
        "StrainLoads",
        "StrainStates",
        "joined_states",
        "StrainFields",
        "read_strain_states",
        "StrainPath",
        "cauchy_green",
    ],
    "vivid_anvil.stress.planes": [
        "CRITERIA",
        "crossland",
        "dang_van",
        "dang_van_constants",
        "findley_constant",
        "normal_at",
        "normal_stress",
        "plane_map",
        "shear_stress",
        "sines",
        "smallest_circle",
        "worst_plane",
        "free_normal",
    ],
    "vivid_anvil.histories": [
        "Channel",
        "LoadHistory",
        "PSDEstimate",
        "check_history",
        "combine",
        "count_chunks",
        "count_file",
        "cut",
        "estimate_psd",
        "high_pass",
        "history_from_frame",
        "interpolate_spikes",
        "join",
        "low_pass",
        "read_csv",
        "read_excel",
        "read_hdf5",
        "read_history",
        "read_mdf",
        "read_npy",
        "read_parquet",
        "remove_drift",
        "remove_offset",
        "resample",
        "scale",
        "write_history",
    ],
    "vivid_anvil.counting": [
        "CycleMatrix",
        "Cycles",
        "RainflowCounter",
        "cycle_matrix",
        "exceedance",
        "fit_tail",
        "four_point",
        "gate",
        "level_crossings",
        "rainflow",
        "range_pair",
        "reconstruct",
        "simple_range",
        "turning_points",
    ],
    "vivid_anvil.events": [
        "ConstantAmplitude",
        "DutyCycle",
        "Dwells",
        "Event",
        "GatedHistory",
        "LoadStates",
        "Profile",
        "RandomVibration",
        "Sine",
        "Sweep",
        "block_programme",
        "load_spectrum",
        "read_programme",
        "read_spectrum",
        "repeated_times",
    ],
    "vivid_anvil.materials": [
        "EffectiveRangeLaw",
        "FormanLaw",
        "FormanMettuLaw",
        "GrowthLaw",
        "HartmanSchijveLaw",
        "KlesnilLukasLaw",
        "Material",
        "Palmgren",
        "ParisLaw",
        "PowerOfRThreshold",
        "SNCurve",
        "SNFamily",
        "SpecimenSeries",
        "Stromeyer",
        "TableLaw",
        "TwoStageLaw",
        "WalkerLaw",
        "at_survival",
        "basquin_curve",
        "compare_fits",
        "curve_at_r",
        "curved_curve",
        "detail_curve",
        "effective_notch_curve",
        "equivalent_amplitude",
        "estimate_curve",
        "fit_growth_law",
        "fit_likelihood",
        "fit_line",
        "in_terms_of",
        "intercept_curve",
        "knee_curve",
        "read_growth_tests",
        "read_specimens",
        "sloped_curve",
        "staircase",
        "straight_curve",
        "stress_table",
        "table_curve",
        "table_law",
    ],
    "vivid_anvil.materials.fracture": [
        "CTODToughness",
        "CharpyToughness",
        "GeneralCurve",
        "JToughness",
        "KToughness",
        "MasterCurve",
        "Metal",
        "OlderCurve",
        "PlateauCurve",
        "ResistanceCurve",
        "StressStrainCurve",
        "ToughnessTests",
        "Weld",
    ],
    "vivid_anvil.shapes": [
        "AxialPipeCrack",
        "BarCrack",
        "BarSurfaceCrack",
        "CentreCrack",
        "CornerCrack",
        "CylinderSurfaceCrack",
        "DoubleEdgeCrack",
        "EdgeCrack",
        "EmbeddedCrack",
        "GridCrack",
        "HoleCornerCrack",
        "HoleCrack",
        "PipeCrack",
        "PipeSurfaceCrack",
        "ProfileEdgeCrack",
        "ProfileSurfaceCrack",
        "SphereCrack",
        "SphereSurfaceCrack",
        "SurfaceCrack",
        "TableCrack",
        "VesselCrack",
        "grid_of_rows",
        "stress_intensity",
    ],
    "vivid_anvil.stress": [
        "AbsoluteMaximumPrincipal",
        "CaseLoad",
        "CaseLoads",
        "Component",
        "HotSpot",
        "InputResponses",
        "NormalStress",
        "OneLoad",
        "RectangleSection",
        "RoundSection",
        "SeveralLoads",
        "SignedTresca",
        "SignedVonMisesHydrostatic",
        "SignedVonMisesPrincipal",
        "StepLoad",
        "UnitStresses",
        "VibratingComponents",
        "critical_length",
        "elliptic_hole",
        "hole_in_strip",
        "hole_profile",
        "notch_effect_by_distance",
        "notch_effect_by_gradient",
        "notch_effect_by_radius",
        "notch_effect_by_slip",
        "plate_under_pressure",
        "plate_with_hole",
        "read_unit_stresses",
        "round_groove",
        "short_crack_limit",
        "shoulder",
        "stress_measure",
        "stresses_of_rosette",
        "through_thickness",
        "toe_stress",
    ],
    "vivid_anvil.damage": [
        "CriticalPlane",
        "LifeResult",
        "LocalStrain",
        "StressLife",
        "accelerated_test",
        "assess_life",
        "class_needed",
        "compare_rules",
        "compare_rules_for_cycles",
        "damage_of_chunks",
        "damage_of_samples",
        "damage_over_time",
        "life_working",
        "worst_cycles",
        "StrainPlane",
        "WeldOfTwo",
        "lives_on_planes",
        "CrackingEnergy",
        "PlyFatigue",
    ],
    "vivid_anvil.growth": [
        "ConstantClosure",
        "Crack",
        "GrowthResult",
        "InspectionPlan",
        "Wheeler",
        "Willenborg",
        "crack_course",
        "grow_crack",
        "growth_working",
        "inspection_plan",
        "largest_lasting_size",
        "limits_over_load",
        "lives_over_size",
    ],
    "vivid_anvil.models": [
        "StressField",
        "at_points",
        "averaged",
        "of_face",
        "read_field",
        "read_field_table",
        "read_frd",
        "read_mesh",
        "with_boxes",
        "with_sets",
        "without_cases",
        "write_field_table",
        "read_strain_field",
        "read_section_loads",
        "read_ply_stresses",
    ],
    "vivid_anvil.fields": [
        "ModelResult",
        "assess_model",
        "assess_planes",
        "hottest_places",
        "model_answer",
        "node_life",
        "node_tensors",
        "reserves_on_stress",
        "structural_field",
        "trust_of_nodes",
        "write_results",
        "endless_life_of_nodes",
        "free_surface_normals",
    ],
    "vivid_anvil.study": [
        "AllPlaces",
        "all_places",
        "FlawAnswers",
        "FlawsWhatIf",
        "ReportSettings",
        "Study",
        "StudyResult",
        "TotalLife",
        "WhatIf",
        "answers",
        "answers_of_flaw",
        "assess_flaws",
        "assess_fronts",
        "check_study",
        "compare_studies",
        "explain",
        "flaw_in_full",
        "growth_of_flaw",
        "read_card",
        "read_card_named",
        "read_study",
        "run_model",
        "run_study",
        "study_schema",
        "total_life",
        "value_that_meets_target",
        "what_if",
        "what_if_flaws",
        "write_template",
    ],
    "vivid_anvil.figures": ["draw_into", "plot", "save_figure"],
}
_PACKAGES = (
    *("ground", "units", "writing", "counting", "spectra", "histories", "events", "tailoring", "shapes", "materials"),
    *("stress", "damage", "growth", "models", "fields", "study", "figures"),
)
_HOME_OF = {name: home for home, names in _HOMES.items() for name in names}


def __getattr__(name: str) -> Any:
    if name == "__version__":
        from importlib.metadata import version  # takes as long as all of the rest

        return version("vivid-anvil")
    if name in _PACKAGES:
        return importlib.import_module(f"vivid_anvil.{name}")
    if name not in _HOME_OF:
        raise AttributeError(f"module 'vivid_anvil' has no attribute {name!r}")
    value = getattr(importlib.import_module(_HOME_OF[name]), name)
    globals()[name] = value
    return value


def __dir__() -> list[str]:
    return sorted([*_PACKAGES, *__all__])
