"""What a structure makes of inputs, each through a response of its own: a factor, one degree of freedom, a table, modes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.events.response_findings import response_findings
from vivid_anvil.events.seen import ByName, seen_as
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed, shortened
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.spectra.responses.in_time import in_time
from vivid_anvil.spectra.responses.of_motion import fitting
from vivid_anvil.spectra.responses.response import ComplexArray, Response
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.units import Coherent, UnitSystem, coherent_ratio, display_unit, shown
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import put_in


@dataclass(frozen=True, eq=False)
class InputResponses(Relation):
    """Stress = Σ response × input, over frequency. An event that lacks one of the inputs has none of it; each has one at least.

    Random events and sines go through at their frequencies; a history goes through by its Fourier transform, as one that repeats.

    Parameters
    ----------
    responses : mapping of str to Response, float or str
        What each input makes of stress: a response, or a stress for an input of 1 such as "38 MPa/kN".
    offset : float or text with a unit, default 0.0
        Stress that is there without load, MPa; no load factor moves it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.spectra import OneDegreeOfFreedom
    >>> mass = OneDegreeOfFreedom(natural_frequency="95 Hz", stress_per_acceleration="4 MPa/g", damping_ratio=0.025)
    >>> str(InputResponses({"base": mass, "wind": "2 MPa/kN"}))
    'response to base + response to wind'
    """

    responses: Mapping[str, Response | float | str]
    offset: Coherent = Coherent("stress", default=0.0)
    any_of_channels: ClassVar[bool] = True  # type: ignore[misc]

    def __post_init__(self) -> None:
        where = "input responses"
        if not isinstance(self.responses, Mapping) or not self.responses:
            raise InputError(where, shortened(self.responses), "a response for one input at least")
        for name, one in self.responses.items():
            checks.text(inside(where, "an input"), name)
            if not isinstance(one, Response | str | int | float) or isinstance(one, bool):
                raise InputError(inside(where, name), shortened(one), "a response, or a stress per load")
        object.__setattr__(self, "responses", dict(self.responses))

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """The inputs."""
        return tuple(self.responses)

    def response_to(self, channel: str, dimension: str) -> Response:
        """That of an input of that dimension."""
        own = self.responses[channel]
        if isinstance(own, Response):
            return fitting(own, dimension, f"input responses, {channel}")
        return Gain(coherent_ratio(own, "stress", dimension, f"input responses, {channel}"))

    def _there(self, load: Load, event: str) -> dict[str, Response]:
        """Responses to the inputs that an event has; InputError where it has none."""
        kinds = load.dimensions
        there = [name for name in self.channels if name in kinds]
        if not there:
            hint = next((said for one in kinds if (said := did_you_mean(one, self.channels))), "")
            raise InputError(f"event {event}", f"channels {listed(kinds)}", f"one of {listed(self.channels)}", hint)
        return {name: self.response_to(name, kinds[name]) for name in there}

    def seen(self, load: Load, event: str) -> Load:
        """The load with the one channel of stress, MPa, without offset."""
        there = self._there(load, event)
        if load.gives & {"lines", "cross-spectra"}:
            return load.through(str(self), there)
        plain = all(isinstance(one, Gain) for one in there.values())
        if plain:
            return seen_as(load, str(self), tuple(there), lambda named: _summed(named, there))
        if "samples" not in load.gives or load.samples().steps != "even":
            raise InputError(
                f"input responses, {listed(there)}",
                f"a {type(load).__name__}, which says nothing of frequencies",
                "a history sampled evenly, a random event, or a sine",
                "Equal cycles at a frequency are a sine event.",
            )
        rate = load.samples().sample_rate
        return seen_as(load, str(self), tuple(there), lambda named: _filtered(named, there, rate))

    def remarks(self) -> Iterator[Finding]:
        """Of each response."""
        for name, one in self.responses.items():
            if isinstance(one, Response):
                yield from response_findings(name, one)

    @property
    def words(self) -> str:
        """Inputs with their responses."""
        parts = ((name, one.words if isinstance(one, Response) else str(one)) for name, one in self.responses.items())
        return "; ".join(f"{name}: {words}" for name, words in parts)

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The stress of the filtered inputs at that moment."""
        unit = display_unit("stress", units)
        return Nominal([], "S_n", f"{put_in(float(shown(stress, 'stress', units)))} {unit}")

    def __str__(self) -> str:
        return " + ".join(f"response to {name}" for name in self.responses)


def _summed(named: ByName, responses: Mapping[str, Any]) -> FloatArray:
    """Factor times load, summed."""
    return np.asarray(sum(one.value * named(name).values for name, one in responses.items()))


def _filtered(named: ByName, responses: Mapping[str, Response], rate: float) -> FloatArray:
    """Each input by its Fourier transform through its response, back in time, summed."""
    values = np.stack([named(name).values for name in responses])

    def rows(frequency: FloatArray) -> ComplexArray:
        return np.stack([one.at(frequency) for one in responses.values()], axis=-1)[:, None]

    return np.asarray(in_time(values, rate, rows)[0])
