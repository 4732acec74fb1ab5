"""What the part is made of: S-N curves and where they come from, growth laws, strengths, material cards."""

from vivid_anvil.materials.card import MaterialCard, cards_in, find_cards, read_card, read_card_named, shipped_cards
from vivid_anvil.materials.detail_class import (
    DetailStandard,
    detail_curve,
    effective_thickness,
    read_standard,
    shipped_standards,
    standard_named,
)
from vivid_anvil.materials.effective_notch import effective_notch_curve
from vivid_anvil.materials.estimate import Estimate, estimate_curve
from vivid_anvil.materials.fit_likelihood import LikelihoodFit, compare_fits, fit_likelihood
from vivid_anvil.materials.fit_line import LineFit, fit_line, tolerance_of_lives
from vivid_anvil.materials.fit_models import FIT_MODELS
from vivid_anvil.materials.growth_law import GrowthLaw
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.sn_convert import at_survival, in_terms_of, thickness_factor, with_stress_factor
from vivid_anvil.materials.sn_curve import ANY_R, FIXED_MEAN, Conversion, SNCurve, describe
from vivid_anvil.materials.sn_family import SNFamily, mean_over_amplitude
from vivid_anvil.materials.sn_forms import (
    basquin_curve,
    intercept_curve,
    knee_curve,
    sloped_curve,
    straight_curve,
    table_curve,
)
from vivid_anvil.materials.sn_record import chosen_lives, curve_record, stress_table
from vivid_anvil.materials.sn_section import (
    AFTERWARDS,
    FORMS,
    Place,
    checked_keys,
    curve_of_section,
    read_points,
    section_text,
)
from vivid_anvil.materials.sn_working import curve_working, family_steps, life_steps
from vivid_anvil.materials.specimens import SpecimenSeries, read_specimens
from vivid_anvil.materials.staircase import DixonMood, Probit, Staircase, staircase

__all__ = [
    "AFTERWARDS",
    "ANY_R",
    "FIT_MODELS",
    "FIXED_MEAN",
    "FORMS",
    "Conversion",
    "DetailStandard",
    "DixonMood",
    "Estimate",
    "GrowthLaw",
    "LikelihoodFit",
    "LineFit",
    "Material",
    "MaterialCard",
    "Place",
    "Probit",
    "SNCurve",
    "SNFamily",
    "SpecimenSeries",
    "Staircase",
    "at_survival",
    "basquin_curve",
    "cards_in",
    "checked_keys",
    "chosen_lives",
    "compare_fits",
    "curve_of_section",
    "curve_record",
    "curve_working",
    "describe",
    "detail_curve",
    "effective_notch_curve",
    "effective_thickness",
    "estimate_curve",
    "family_steps",
    "find_cards",
    "fit_likelihood",
    "fit_line",
    "in_terms_of",
    "intercept_curve",
    "knee_curve",
    "life_steps",
    "mean_over_amplitude",
    "read_card",
    "read_card_named",
    "read_points",
    "read_specimens",
    "read_standard",
    "section_text",
    "shipped_cards",
    "shipped_standards",
    "sloped_curve",
    "staircase",
    "standard_named",
    "straight_curve",
    "stress_table",
    "table_curve",
    "thickness_factor",
    "tolerance_of_lives",
    "with_stress_factor",
]
