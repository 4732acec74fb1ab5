"""The job written down: the study file, read, checked and run."""

from vivid_anvil.study.all_places import AllPlaces, all_places
from vivid_anvil.study.answers import Answer, Answers, Questions, answers, answers_of_flaw, asks_for_a_flaw
from vivid_anvil.study.cards import cards_in, find_cards, read_card, read_card_named, shipped_cards
from vivid_anvil.study.check_study import StudyCheck, check_study
from vivid_anvil.study.compare import StudyComparison, compare_studies
from vivid_anvil.study.explain import explain
from vivid_anvil.study.flaw_answers import FlawAnswers
from vivid_anvil.study.flaw_in_full import flaw_in_full, growth_of_flaw
from vivid_anvil.study.flaw_job import FlawJob, FrontJob
from vivid_anvil.study.kept_life import KeptLife, WorstNode
from vivid_anvil.study.key_paths import number_and_unit
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.model_run import answer_model, run_model, run_paths, worst_node, worst_node_life
from vivid_anvil.study.read_study import read_study
from vivid_anvil.study.report_settings import ReportSettings
from vivid_anvil.study.run import assess_lives, grow_cracks, lives_of_places, place_names, run_study
from vivid_anvil.study.run_flaws import assess_flaws, assess_fronts, flaws_of
from vivid_anvil.study.schema import study_schema, write_template
from vivid_anvil.study.shaken_parts import ShakenParts, shaken_parts
from vivid_anvil.study.study import WORST_NODE, Study
from vivid_anvil.study.study_result import StudyResult, worst_first
from vivid_anvil.study.total_life import TotalLife, total_life
from vivid_anvil.study.what_if import Variant, WhatIf, of_flaws, value_that_meets_target, what_if, what_if_flaws
from vivid_anvil.study.what_if_flaws import FlawsWhatIf, FlawVariant, KeptFlaw

__all__ = [
    "WORST_NODE",
    "AllPlaces",
    "Answer",
    "Answers",
    "FlawAnswers",
    "FlawJob",
    "FlawVariant",
    "FlawsWhatIf",
    "FrontJob",
    "KeptFlaw",
    "KeptLife",
    "ModelJob",
    "Questions",
    "ReportSettings",
    "ShakenParts",
    "Study",
    "StudyCheck",
    "StudyComparison",
    "StudyResult",
    "TotalLife",
    "Variant",
    "WhatIf",
    "WorstNode",
    "all_places",
    "answer_model",
    "answers",
    "answers_of_flaw",
    "asks_for_a_flaw",
    "assess_flaws",
    "assess_fronts",
    "assess_lives",
    "cards_in",
    "check_study",
    "compare_studies",
    "explain",
    "find_cards",
    "flaw_in_full",
    "flaws_of",
    "grow_cracks",
    "growth_of_flaw",
    "lives_of_places",
    "number_and_unit",
    "of_flaws",
    "place_names",
    "read_card",
    "read_card_named",
    "read_study",
    "run_model",
    "run_paths",
    "run_study",
    "shaken_parts",
    "shipped_cards",
    "study_schema",
    "total_life",
    "value_that_meets_target",
    "what_if",
    "what_if_flaws",
    "worst_first",
    "worst_node",
    "worst_node_life",
    "write_template",
]
