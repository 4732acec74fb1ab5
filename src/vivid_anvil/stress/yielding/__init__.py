"""Notches that yield: from the elastic stress to stress and strain, and a history followed with material memory."""

from vivid_anvil.stress.yielding.follow import Followed, follow_block
from vivid_anvil.stress.yielding.local_tensors import LocalPath, Yielding
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES, NotchRule

__all__ = ["NOTCH_RULES", "Followed", "LocalPath", "NotchRule", "Yielding", "follow_block"]
