"""The order of one occurrence of a load: closed cycles, then steps of turning points with how often."""

from __future__ import annotations

from typing import NamedTuple

from vivid_anvil.checks import FloatArray
from vivid_anvil.histories.cycles import Cycles


class LoadSequence(NamedTuple):
    """A load in its order: cycles that are closed already, and steps of turning points with how often each comes."""

    closed: Cycles
    steps: tuple[tuple[FloatArray, float], ...]
