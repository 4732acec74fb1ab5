"""States stepped through a duty cycle by jumps over many repeats: laminates that lose stiffness and strength."""

from vivid_anvil.progress.bundles import Course
from vivid_anvil.progress.laminate_progress import (
    CycleEnds,
    LaminateProgress,
    ModeFailure,
    converged_to,
    laminate_progress,
)
from vivid_anvil.progress.many_laminates import ManyLaminates, laminates_progress
from vivid_anvil.progress.tables import FAILS_BY, PlyTables, ProgressSettings

__all__ = [
    "FAILS_BY",
    "Course",
    "CycleEnds",
    "LaminateProgress",
    "ManyLaminates",
    "ModeFailure",
    "PlyTables",
    "ProgressSettings",
    "converged_to",
    "laminate_progress",
    "laminates_progress",
]
