"""Mean-stress rules, one a file, and the values that they need."""

from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule

from vivid_anvil.materials.mean_stress.none import NoRule  # isort: skip
from vivid_anvil.materials.mean_stress.goodman import Goodman  # isort: skip
from vivid_anvil.materials.mean_stress.gerber import Gerber  # isort: skip
from vivid_anvil.materials.mean_stress.soderberg import Soderberg  # isort: skip
from vivid_anvil.materials.mean_stress.elliptic import Elliptic  # isort: skip
from vivid_anvil.materials.mean_stress.morrow import Morrow, MorrowCoefficient  # isort: skip
from vivid_anvil.materials.mean_stress.smith_watson_topper import SmithWatsonTopper  # isort: skip
from vivid_anvil.materials.mean_stress.walker import Walker  # isort: skip
from vivid_anvil.materials.mean_stress.by_sensitivity import Sensitivity  # isort: skip

__all__ = [
    "MEAN_STRESS_RULES",
    "Elliptic",
    "Gerber",
    "Goodman",
    "MeanStressRule",
    "Morrow",
    "MorrowCoefficient",
    "NoRule",
    "Sensitivity",
    "SmithWatsonTopper",
    "Soderberg",
    "Walker",
]
