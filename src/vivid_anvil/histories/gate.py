"""A gate for small cycles: the turning points that are left, and the cycles that were taken out.

In: samples of a channel and the size of the gate, in its unit. Out: the samples that stay, and the cycles removed.
Method: closed four-point cycles with a range below the gate are taken out; the rest of the history, and so every other
cycle, is exactly as before. (A filter that looks at successive ranges only would change the cycles at both ends.)
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.checks import FloatArray, IntArray, finite_samples, positive_number
from vivid_anvil.histories.between import LoadSequence
from vivid_anvil.histories.cycles import Cycles
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.histories.rainflow import four_point, rainflow
from vivid_anvil.histories.turning_points import turning_points
from vivid_anvil.units import coherent, coherent_values, with_dimension


class Gated(NamedTuple):
    """Values and samples of the turning points that stay, and the cycles removed."""

    values: FloatArray
    samples: IntArray
    removed: Cycles

    def share_removed(self, slope: float) -> float:
        """Share of the removed cycles in Σ n ΔS^slope of the whole: their share of the damage on a curve of that slope."""
        kept = four_point(self.values)
        halves = 0.5 * float((np.abs(np.diff(kept.residue.values)) ** slope).sum())
        stays = float((kept.cycles.count * kept.cycles.range**slope).sum()) + halves
        goes = float((self.removed.count * self.removed.range**slope).sum())
        return goes / (stays + goes) if stays + goes > 0.0 else 0.0


def gate(samples: ArrayLike, size: float, *, dimension: str | None = None, sample_rate: float | None = None) -> Gated:
    """Take the closed cycles with a range below `size` out of `samples`, shape (n,), both in the coherent unit.

    Raises InputError for a size that is not above 0 and for anything but one row of finite numbers.

    >>> gated = gate([0.0, 100.0, 60.0, 61.0, 20.0, 90.0, 0.0], 5.0)
    >>> gated.values, gated.removed.range
    (array([  0., 100.,  20.,  90.,   0.]), array([1.]))
    """
    numbers, of = with_dimension(samples, dimension, "samples")
    limit = positive_number("gate", coherent_values(size, of, "gate"), "a range above 0")
    values = finite_samples(numbers, where="samples", unit="")
    closed = four_point(values, dimension=of, sample_rate=sample_rate).cycles
    small = closed.range < limit
    removed = closed.chosen(small)
    points = turning_points(values)
    stays = np.ones(values.size, dtype=bool)
    stays[removed.start] = stays[removed.end] = False
    left = points[stays[points]]
    return Gated(values[left], left, removed)


@dataclass(frozen=True, eq=False)
class GatedHistory:
    """A history whose small cycles of some channels are taken out before counting; `gates` by channel, coherent or text."""

    history: LoadHistory
    gates: Mapping[str, float]

    def __post_init__(self) -> None:
        gates = {}
        for channel, size in self.gates.items():
            found = coherent(size, self.history[channel].dimension, f"gate, {channel}")  # raises for an unknown channel
            gates[channel] = positive_number(f"gate, {channel}", found, "a range above 0")
        object.__setattr__(self, "gates", gates)

    @property
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the channels."""
        return self.history.dimensions

    @property
    def duration(self) -> float | None:
        """Time from the first to the last sample, s; None where samples have no times."""
        return self.history.duration

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest value of one channel."""
        return self.history.extremes(channel)

    def gated(self, channel: str) -> Gated | None:
        """What the gate of a channel leaves and takes out; None where it has no gate."""
        if channel not in self.gates:
            return None
        one = self.history[channel]
        return gate(one.values, self.gates[channel], dimension=one.dimension, sample_rate=self.history.counting_rate)

    def rainflow(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Cycles of what is left, with the samples of the whole history."""
        found = self.gated(channel)
        if found is None:
            return self.history.rainflow(channel, residue=residue)
        dimension = self.history[channel].dimension
        cycles = rainflow(found.values, residue=residue, dimension=dimension, sample_rate=self.history.counting_rate)
        return Cycles(
            range=cycles.range,
            mean=cycles.mean,
            count=cycles.count,
            start=found.samples[cycles.start],
            end=found.samples[cycles.end],
            dimension=cycles.dimension,
            sample_rate=cycles.sample_rate,
        )

    def sequence(self, channel: str) -> LoadSequence:
        """The closed cycles of what is left, and the residue."""
        found = self.gated(channel)
        if found is None:
            return self.history.sequence(channel)
        count = four_point(found.values, dimension=self.history[channel].dimension)
        return LoadSequence(count.cycles, ((count.residue.values, 1.0),))
