"""What the part is made of: S-N curves and where they come from, growth laws, strengths, material cards."""

from vivid_anvil.materials.card import CardValue, MaterialCard
from vivid_anvil.materials.curves.asymptotic import Palmgren, Stromeyer
from vivid_anvil.materials.curves.at_r import curve_at_r
from vivid_anvil.materials.curves.below_knee import BELOW_KNEE, consistent_damage, curve_below_knee
from vivid_anvil.materials.curves.convert import (
    at_survival,
    in_terms_of,
    thickened,
    thickness_factor,
    with_stress_factor,
)
from vivid_anvil.materials.curves.curve import ANY_R, FIXED_MEAN, Conversion, Curve, SNCurve, chosen_lives, describe
from vivid_anvil.materials.curves.curved import CURVED_FORMS, CurvedForm
from vivid_anvil.materials.curves.detail_class import detail_curve, effective_thickness
from vivid_anvil.materials.curves.effective_notch import effective_notch_curve
from vivid_anvil.materials.curves.estimate import Estimate, estimate_curve
from vivid_anvil.materials.curves.family import SNFamily, family_steps, mean_over_amplitude
from vivid_anvil.materials.curves.forms import basquin_curve, intercept_curve, knee_curve, sloped_curve, straight_curve
from vivid_anvil.materials.curves.page import curve_page, curve_record, curves_table, stress_table
from vivid_anvil.materials.curves.read_points import read_points
from vivid_anvil.materials.curves.standards import DetailStandard, read_standard, shipped_standards, standard_named
from vivid_anvil.materials.curves.working import curve_working, life_steps
from vivid_anvil.materials.curves.written import section_text
from vivid_anvil.materials.curves.written_as_points import curved_curve, table_curve
from vivid_anvil.materials.fits.compare_fits import compare_fits
from vivid_anvil.materials.fits.fit_likelihood import LikelihoodFit, fit_likelihood
from vivid_anvil.materials.fits.fit_line import LineFit, fit_line, tolerance_of_lives
from vivid_anvil.materials.fits.fit_models import FIT_MODELS
from vivid_anvil.materials.fits.growth_fit import GrowthFit, fit_growth_law, table_law
from vivid_anvil.materials.fits.growth_tests import (
    PIECES,
    GrowthTests,
    growth_of_piece,
    rates_by_polynomial,
    rates_by_secant,
    read_growth_tests,
)
from vivid_anvil.materials.fits.specimens import SpecimenSeries, read_specimens
from vivid_anvil.materials.fits.staircase import DixonMood, Probit, Staircase, staircase
from vivid_anvil.materials.laws import (
    LAWS,
    EffectiveRangeLaw,
    FormanLaw,
    FormanMettuLaw,
    GrowthLaw,
    HartmanSchijveLaw,
    KlesnilLukasLaw,
    LaterHartmanSchijveLaw,
    ParisLaw,
    TableLaw,
    TwoStageLaw,
    WalkerLaw,
    opening,
)
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import COMPRESSIVE_MEANS, equivalent_amplitude
from vivid_anvil.materials.mean_stress.sensitivity import (
    SENSITIVITIES,
    estimated_sensitivity,
    estimated_walker_exponent,
)
from vivid_anvil.materials.thresholds import (
    THRESHOLDS,
    FixedThreshold,
    PowerOfRThreshold,
    SteelLineThreshold,
    SteelStepsThreshold,
    Threshold,
)

__all__ = [
    "ANY_R",
    "BELOW_KNEE",
    "COMPRESSIVE_MEANS",
    "CURVED_FORMS",
    "FIT_MODELS",
    "FIXED_MEAN",
    "LAWS",
    "MEAN_STRESS_RULES",
    "PIECES",
    "SENSITIVITIES",
    "THRESHOLDS",
    "CardValue",
    "Conversion",
    "Curve",
    "CurvedForm",
    "DetailStandard",
    "DixonMood",
    "EffectiveRangeLaw",
    "Estimate",
    "FixedThreshold",
    "FormanLaw",
    "FormanMettuLaw",
    "GrowthFit",
    "GrowthLaw",
    "GrowthTests",
    "HartmanSchijveLaw",
    "KlesnilLukasLaw",
    "LaterHartmanSchijveLaw",
    "LikelihoodFit",
    "LineFit",
    "Material",
    "MaterialCard",
    "Palmgren",
    "ParisLaw",
    "PowerOfRThreshold",
    "Probit",
    "SNCurve",
    "SNFamily",
    "SpecimenSeries",
    "Staircase",
    "SteelLineThreshold",
    "SteelStepsThreshold",
    "Stromeyer",
    "TableLaw",
    "Threshold",
    "TwoStageLaw",
    "WalkerLaw",
    "at_survival",
    "basquin_curve",
    "chosen_lives",
    "compare_fits",
    "consistent_damage",
    "curve_at_r",
    "curve_below_knee",
    "curve_page",
    "curve_record",
    "curve_working",
    "curved_curve",
    "curves_table",
    "describe",
    "detail_curve",
    "effective_notch_curve",
    "effective_thickness",
    "equivalent_amplitude",
    "estimate_curve",
    "estimated_sensitivity",
    "estimated_walker_exponent",
    "family_steps",
    "fit_growth_law",
    "fit_likelihood",
    "fit_line",
    "growth_of_piece",
    "in_terms_of",
    "intercept_curve",
    "knee_curve",
    "life_steps",
    "mean_over_amplitude",
    "opening",
    "rates_by_polynomial",
    "rates_by_secant",
    "read_growth_tests",
    "read_points",
    "read_specimens",
    "read_standard",
    "section_text",
    "shipped_standards",
    "sloped_curve",
    "staircase",
    "standard_named",
    "straight_curve",
    "stress_table",
    "table_curve",
    "table_law",
    "thickened",
    "thickness_factor",
    "tolerance_of_lives",
    "with_stress_factor",
]
