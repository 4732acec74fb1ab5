"""Counting methods by name: how samples of a channel become cycles."""

from __future__ import annotations

from abc import ABC, abstractmethod
from typing import ClassVar

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.other_counts import range_pair, simple_range
from vivid_anvil.counting.rainflow import rainflow
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices

COUNTING_METHODS: Choices[type[CountingMethod]] = Choices("counting method")


class CountingMethod(ABC):
    """A way to count. It has no values of its own, so the class itself is used; `misses` says what it does not see."""

    kind: ClassVar[str]
    misses: ClassVar[str] = ""

    @staticmethod
    @abstractmethod
    def cycles(values: FloatArray, *, dimension: str, sample_rate: float | None, residue: str) -> Cycles:
        """Cycles of a row of samples; `residue` as of `rainflow`, for a method that knows it."""


@COUNTING_METHODS.add("rainflow")
class Rainflow(CountingMethod):
    """Rainflow, ASTM E1049-85, 5.4.4: the method of choice."""

    @staticmethod
    def cycles(values: FloatArray, *, dimension: str, sample_rate: float | None, residue: str) -> Cycles:
        """By the four-point rule."""
        return rainflow(values, residue=residue, dimension=dimension, sample_rate=sample_rate)


@COUNTING_METHODS.add("range-pair")
class RangePair(CountingMethod):
    """Range pairs, ASTM E1049-85, 5.4.3."""

    misses: ClassVar[str] = "the means of pairs depend on which end of the history comes first"

    @staticmethod
    def cycles(values: FloatArray, *, dimension: str, sample_rate: float | None, residue: str) -> Cycles:
        """Forwards, then backwards."""
        return range_pair(values, dimension=dimension, sample_rate=sample_rate)


@COUNTING_METHODS.add("simple-range")
class SimpleRange(CountingMethod):
    """Simple ranges, ASTM E1049-85, 5.3.1."""

    misses: ClassVar[str] = "a large swing that small ones interrupt is never seen as one"

    @staticmethod
    def cycles(values: FloatArray, *, dimension: str, sample_rate: float | None, residue: str) -> Cycles:
        """Each range half a cycle."""
        return simple_range(values, dimension=dimension, sample_rate=sample_rate)
