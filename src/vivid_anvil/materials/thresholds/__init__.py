"""Thresholds of crack growth: the range of stress intensity at or below which nothing grows, one form a file."""

from vivid_anvil.materials.thresholds.field import ThresholdField
from vivid_anvil.materials.thresholds.fixed import FixedThreshold
from vivid_anvil.materials.thresholds.power_of_r import PowerOfRThreshold
from vivid_anvil.materials.thresholds.steel_line import SteelLineThreshold
from vivid_anvil.materials.thresholds.steel_steps import SteelStepsThreshold
from vivid_anvil.materials.thresholds.threshold import THRESHOLDS, Threshold

__all__ = [
    "THRESHOLDS",
    "FixedThreshold",
    "PowerOfRThreshold",
    "SteelLineThreshold",
    "SteelStepsThreshold",
    "Threshold",
    "ThresholdField",
]
