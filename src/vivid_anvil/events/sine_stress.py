"""Sine cycles of one channel over frequency: amplitude and number of cycles at each."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import FREQUENCY, PANEL
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.events.sine_course import SineRows
from vivid_anvil.events.stress_over_frequency_findings import beside_the_peak, turning_components
from vivid_anvil.events.stress_over_frequency_working import exposure_steps, sine_steps
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load import Ends, Give, Load, WorkedCycle
from vivid_anvil.spectra.responses.response import Response
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step


@dataclass(frozen=True, eq=False)
class SineStress(Load):
    """Amplitudes at the rows of a sine event, about a mean."""

    channel: str
    rows: SineRows
    seconds: float
    mean: float = 0.0
    dimension: str = "stress"
    response: Response | None = None
    turning: float = 0.0
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order", "lines"})

    @property
    def dimensions(self) -> dict[str, str]:
        """The one channel."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """Of one occurrence, s."""
        return self.seconds

    def extremes(self, channel: str) -> tuple[float, float]:
        """Mean plus and minus the largest amplitude."""
        largest = float(max(self.rows.amplitude.max(initial=0.0), self.rows.at_edges.max(initial=0.0)))
        return self.mean - largest, self.mean + largest

    def worked(self, cycle: WorkedCycle, units: UnitSystem) -> tuple[list[Step], list[Step]]:
        """Magnification, amplitude, cycles of a dwell; and damage a second beside damage in its time."""
        if not cycle.frequency > 0.0:
            return [], []
        after = exposure_steps(cycle.event, cycle.damage, self.seconds, cycle.critical)
        return sine_steps(self, cycle.frequency, cycle.scale, units), after

    def remarks(self, event: str) -> Iterator[Finding]:
        """Peaks that dwells and steps do not meet."""
        if (self.rows.panel < 0.0).all():
            yield from beside_the_peak(event, self)
        yield from turning_components(event, self)

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Each row as equal cycles; the column "frequency" says where."""
        ranges = 2.0 * self.rows.amplitude
        columns = {FREQUENCY: self.rows.frequency}
        if (self.rows.panel >= 0.0).any():
            columns[PANEL] = self.rows.panel
        return Cycles(
            range=ranges,
            mean=np.full(ranges.size, self.mean),
            count=self.rows.cycles,
            dimension=self.dimension,
            columns=columns,
        )

    def ends(self, channel: str) -> Ends:
        """Both ends of the cycles at each frequency."""
        both = np.column_stack([self.mean - self.rows.amplitude, self.mean + self.rows.amplitude]).ravel()
        return Ends(Channel(self.channel, both, self.dimension), self.rows.cycles)

    def in_order(self, channel: str) -> LoadSequence:
        """From one frequency to the next, in the order of the rows."""
        none = Cycles(range=np.empty(0), mean=np.empty(0), count=np.empty(0), dimension=self.dimension)
        rows = zip(self.rows.amplitude.tolist(), self.rows.cycles.tolist(), strict=True)
        low = self.mean
        return LoadSequence(none, tuple((np.array([low - a, low + a, low - a]), many) for a, many in rows))
