"""How fast the life is used up: mean stress, cumulative damage, life, reserve factors."""

from vivid_anvil.damage.assess import assess_life
from vivid_anvil.damage.between_effect import between_effect
from vivid_anvil.damage.critical_sums import CRITICAL_SUMS, CriticalSum
from vivid_anvil.damage.in_order import Level, LifeInOrder, life_in_order
from vivid_anvil.damage.input_findings import findings_before_counting
from vivid_anvil.damage.inverse import AcceleratedTest, accelerated_test, class_needed, cycles_of_test
from vivid_anvil.damage.life import LifeResult
from vivid_anvil.damage.life_numbers import DamageMatrix, EventShare, Life, StressClass, class_edges
from vivid_anvil.damage.life_working import life_working, worked_cycle
from vivid_anvil.damage.lives_on_planes import LivesOnPlanes, lives_on_planes
from vivid_anvil.damage.methods import (
    CrackingEnergy,
    CriticalPlane,
    LocalStrain,
    PlyFatigue,
    StrainPlane,
    StressLife,
    WeldOfTwo,
    stress_life,
    stress_life_of,
)
from vivid_anvil.damage.nonlinear import (
    ORDER_RULES,
    Phases,
    damage_curve,
    damage_curve_blocks,
    double_linear_blocks,
    double_linear_phases,
    double_linear_remaining,
    power_rule,
    power_rule_blocks,
)
from vivid_anvil.damage.over_time import (
    DamageOverTime,
    FailureMoment,
    WorstCycle,
    damage_over_time,
    failure_moment,
    worst_cycles,
)
from vivid_anvil.damage.reserve import reserve_on_stress
from vivid_anvil.damage.response_view import ResponseView, look_at_response
from vivid_anvil.damage.rule_comparison import RuleComparison, RulesForCycles, compare_rules, compare_rules_for_cycles
from vivid_anvil.damage.spectrum import Spectrum, spectrum
from vivid_anvil.damage.stream import damage_of_chunks, damage_of_samples
from vivid_anvil.damage.vibration_of_life import sine_table, vibration_views
from vivid_anvil.damage.vibration_view import FormulaDamage, VibrationView, look_at_vibration

__all__ = [
    "CRITICAL_SUMS",
    "ORDER_RULES",
    "AcceleratedTest",
    "CrackingEnergy",
    "CriticalPlane",
    "CriticalSum",
    "DamageMatrix",
    "DamageOverTime",
    "EventShare",
    "FailureMoment",
    "FormulaDamage",
    "Level",
    "Life",
    "LifeInOrder",
    "LifeResult",
    "LivesOnPlanes",
    "LocalStrain",
    "Phases",
    "PlyFatigue",
    "ResponseView",
    "RuleComparison",
    "RulesForCycles",
    "Spectrum",
    "StrainPlane",
    "StressClass",
    "StressLife",
    "VibrationView",
    "WeldOfTwo",
    "WorstCycle",
    "accelerated_test",
    "assess_life",
    "between_effect",
    "class_edges",
    "class_needed",
    "compare_rules",
    "compare_rules_for_cycles",
    "cycles_of_test",
    "damage_curve",
    "damage_curve_blocks",
    "damage_of_chunks",
    "damage_of_samples",
    "damage_over_time",
    "double_linear_blocks",
    "double_linear_phases",
    "double_linear_remaining",
    "failure_moment",
    "findings_before_counting",
    "life_in_order",
    "life_working",
    "lives_on_planes",
    "look_at_response",
    "look_at_vibration",
    "power_rule",
    "power_rule_blocks",
    "reserve_on_stress",
    "sine_table",
    "spectrum",
    "stress_life",
    "stress_life_of",
    "vibration_views",
    "worked_cycle",
    "worst_cycles",
]
