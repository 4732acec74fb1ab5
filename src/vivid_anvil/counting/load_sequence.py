"""The order of one occurrence of a load: closed cycles, then steps of turning points with how often."""

from __future__ import annotations

from typing import NamedTuple

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.ground.checks import FloatArray


class LoadSequence(NamedTuple):
    """A load in its order: cycles that are closed already, and steps of turning points with how often each comes."""

    closed: Cycles
    steps: tuple[tuple[FloatArray, float], ...]
