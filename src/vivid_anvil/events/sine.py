"""A sine event: an input that dwells at frequencies or sweeps through them, about a static mean."""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np
from scipy.optimize import minimize_scalar

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.events.equal_cycles import with_unit
from vivid_anvil.events.profile import Profile
from vivid_anvil.events.sine_course import Course, Dwells, SineRows, Sweep
from vivid_anvil.events.sine_stress import SineStress
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import read_only
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed, shortened
from vivid_anvil.histories.load import Give, Load, TensorView
from vivid_anvil.spectra.responses.component_gain import ComponentGain
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.spectra.responses.response import Response
from vivid_anvil.units import DIMENSIONS, coherent


@dataclass(frozen=True, eq=False, repr=False)
class Sine(Load):
    """A sine on one input: `Sine.dwells` and `Sine.sweep` make one of text with units.

    Parameters
    ----------
    channel : str
        The input.
    course : Course
        `Dwells` or a `Sweep`, with amplitudes in the coherent unit of `dimension`.
    dimension : str, default "acceleration"
        What the input is; a name of `DIMENSIONS`.
    mean : float, default 0.0
        Static mean of the input, in its coherent unit.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> dwell = Sine.dwells("stress", [("47.5 Hz", "88 MPa", "30 h")])
    >>> dwell, dwell.cycles_of("stress").total
    (<Sine on stress: 47.5 Hz, 5.13e+06 cycles>, 5130000.0)
    """

    channel: str
    course: Course
    dimension: str = "acceleration"
    mean: float = 0.0
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order", "lines"})

    def __post_init__(self) -> None:
        where = f"sine on {self.channel}"
        checks.text("sine, channel", self.channel)
        checks.one_of(inside(where, "dimension"), self.dimension, tuple(DIMENSIONS))
        checks.real_number(inside(where, "mean"), self.mean)
        if not isinstance(self.course, Course):
            raise InputError(inside(where, "course"), shortened(self.course), "Dwells or a Sweep")

    @classmethod
    def dwells(cls, channel: str, rows: Sequence[Any], *, mean: float | str = 0.0) -> Sine:
        """Rows of frequency, amplitude, and time or cycles, as text with units: ("30 Hz", "1.5 g", "1 h"), or "1e6 cycles"."""
        where, found = f"sine on {channel}", []
        if not isinstance(rows, Sequence) or isinstance(rows, str):
            raise InputError(where, shortened(rows), "rows of a frequency, an amplitude, and a time or cycles")
        for i, row in enumerate(rows, 1):
            place = inside(where, f"dwell {i}")
            if not isinstance(row, Sequence) or isinstance(row, str) or len(row) != 3:
                raise InputError(place, shortened(row), "a frequency, an amplitude, and a time or cycles")
            hertz = checks.positive_number(inside(place, "frequency"), coherent(row[0], "frequency", place))
            size, kind = with_unit(row[1], inside(place, "amplitude"))
            found.append((hertz, size, kind, _time(row[2], hertz, inside(place, "time"))))
        kinds = dict.fromkeys(row[2] for row in found)
        if len(kinds) != 1:
            raise InputError(
                where, f"amplitudes of {listed(kinds)}" if kinds else "no dwell", "dwells of one dimension"
            )
        kind = next(iter(kinds))
        columns = [np.array([row[i] for row in found]) for i in (0, 1, 3)]
        return cls(channel, Dwells(*columns), kind, coherent(mean, kind, inside(where, "mean")))

    @classmethod
    def sweep(
        cls,
        channel: str,
        *,
        start: float | str,
        end: float | str,
        amplitude: Any,
        rate: str,
        passes: float = 1.0,
        mean: float | str = 0.0,
    ) -> Sine:
        """A sweep with one amplitude, "1.5 g", or rows of frequency and amplitude, such as [("10 Hz", "1 g"), ("200 Hz", "2 g")].

        >>> Sine.sweep("base", start="20 Hz", end="400 Hz", amplitude="1.5 g", rate="2 octave/min")
        <Sine on base: 20 to 400 Hz at 2 octave/min, once>
        """
        where = f"sine on {channel}"
        if isinstance(amplitude, list) or (isinstance(amplitude, tuple) and not isinstance(amplitude[0], int | float)):
            profile, kind = _profile(amplitude, where)
        else:
            size, kind = with_unit(amplitude, inside(where, "amplitude"))
            profile = Profile.constant(size)
        course = Sweep(start=start, end=end, profile=profile, rate=rate, passes=passes)
        return cls(channel, course, kind, coherent(mean, kind, inside(where, "mean")))

    @property
    def dimensions(self) -> dict[str, str]:
        """The input."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """Of one occurrence, s."""
        return self.course.seconds

    def through(self, name: str, responses: Mapping[str, Response]) -> SineStress:
        """What a response makes of the input, quasi-steady."""
        for one in responses:
            self._known(one)
        response = responses[self.channel]
        rows = self.course.rows(response)
        gain, at_edges = np.abs(response.at(rows.frequency)), np.abs(response.at(rows.edges))
        stress = rows._replace(amplitude=read_only(gain * rows.amplitude), at_edges=read_only(at_edges * rows.at_edges))
        if rows.edges.size:
            peak = self._peak(stress, response)
            stress = stress._replace(at_edges=read_only(np.append(stress.at_edges, peak)))
        mean = response.static.real * self.mean if self.mean else 0.0
        return SineStress(name, stress, self.course.seconds, mean, response=response)

    def through_tensor(self, name: str, view: TensorView) -> SineStress:
        """What responses of six components make of the input, as one stress whose amplitude goes with the phases."""
        for one in view.channels:
            self._known(one)
        kinds = {self.channel: self.dimension}
        gain = ComponentGain(view.response, kinds, view.amplitude)
        through = self.through(name, {self.channel: gain})
        static = view.response.static(kinds) @ np.array([self.mean]) if self.mean else 0.0
        mean = float(view.value(np.asarray(view.constant + static))[0])
        turning = 0.0 if view.straight else gain.turning(through.rows.frequency, through.rows.amplitude)
        return dataclasses.replace(through, mean=mean, turning=turning)

    def _peak(self, stress: SineRows, response: Response) -> float:
        """The highest amplitude of a sweep, looked for between the edges around the highest that is known."""
        edges = stress.edges
        at = int(np.searchsorted(edges, stress.frequency[int(np.argmax(stress.amplitude))]))
        low, high = edges[max(at - 2, 0)], edges[min(at + 1, edges.size - 1)]

        def less(frequency: float) -> float:
            f = np.array([frequency])
            return -float(np.abs(response.at(f))[0] * self.course.amplitude_at(f)[0])

        return -float(minimize_scalar(less, bounds=(low, high), method="bounded", options={"xatol": 1e-9 * high}).fun)

    def one_channel(self, channel: str) -> SineStress:
        """The input itself."""
        self._known(channel)
        return self.alone()

    def alone(self) -> SineStress:
        """The input itself."""
        return SineStress(self.channel, self.course.rows(Gain(1.0)), self.course.seconds, self.mean, self.dimension)

    def extremes(self, channel: str) -> tuple[float, float]:
        """Mean plus and minus the largest amplitude."""
        self._known(channel)
        return self.alone().extremes(channel)

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """The cycles, with their frequencies."""
        self._known(channel)
        return self.alone().cycles_of(channel)

    def in_order(self, channel: str) -> LoadSequence:
        """One frequency after the other."""
        self._known(channel)
        return self.alone().in_order(channel)

    def _known(self, channel: str) -> None:
        if channel != self.channel:
            hint = did_you_mean(channel, [self.channel])
            raise InputError(f"sine on {self.channel}", f"no channel {channel!r}", repr(self.channel), hint)

    def __repr__(self) -> str:
        return f"<Sine on {self.channel}: {self.course.words}>"


def _profile(rows: Sequence[Any], where: str) -> tuple[Profile, str]:
    """Rows of frequency and amplitude as a profile, with the dimension of the amplitudes."""
    found = []
    for i, row in enumerate(rows, 1):
        place = inside(where, f"amplitude, row {i}")
        if isinstance(row, str) or len(row) != 2:
            raise InputError(place, shortened(row), "a frequency and an amplitude")
        found.append((coherent(row[0], "frequency", place), *with_unit(row[1], place)))
    kinds = dict.fromkeys(row[2] for row in found)
    if len(kinds) != 1:
        raise InputError(inside(where, "amplitude"), f"amplitudes of {listed(kinds)}", "amplitudes of one dimension")
    frequency, amplitude = (np.array([row[i] for row in found]) for i in (0, 1))
    return Profile(frequency, amplitude), next(iter(kinds))


def _time(value: Any, hertz: float, where: str) -> float:
    """A time in s; of a number of cycles at a frequency."""
    if isinstance(value, str) and (found := re.fullmatch(r"\s*([0-9.]+(?:[eE][+]?[0-9]+)?)\s*cycles?\s*", value)):
        return checks.positive_number(where, float(found[1])) / hertz
    if not isinstance(value, str):
        raise InputError(where, repr(value), "an exposure with its unit, such as '30 min', or '1e6 cycles'")
    return checks.positive_number(where, coherent(value, "time", where))
