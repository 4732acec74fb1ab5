"""Random vibration for a time: PSDs of one input or several, a static mean, tones on top."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.events.made_history import MOST, PER_SHORTEST, MadeHistory
from vivid_anvil.events.random_stress import FORMULA, RandomStress, Shaping
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed, shortened
from vivid_anvil.histories.load import Give, Load, TensorView
from vivid_anvil.spectra.cross_spectra import CrossSpectra, PSDs
from vivid_anvil.spectra.moments import Moments, StatedMoments
from vivid_anvil.spectra.non_gaussian import COEFFICIENTS, hermite_form
from vivid_anvil.spectra.response_density import ResponseDensity
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.spectra.responses.response import Response
from vivid_anvil.spectra.synthesis import Tone
from vivid_anvil.spectra.tensor_spectra import TensorSpectra
from vivid_anvil.units import coherent, sound


@sound
@dataclass(frozen=True, eq=False, repr=False)
class RandomVibration(Load):
    """A stationary random process for an exposure, of one input or several; its cycles are expected, not counted.

    What structures make of it is Gaussian but for a `kurtosis` or `crest_factor` stated here, which are those of the stress.

    Parameters
    ----------
    inputs : mapping of str to SpectralDensity, CrossSpectra, or StatedMoments by name
        The PSD of each input; several together as `PSDs` or a `SpectralMatrix`.
    exposure : float or str
        How long one occurrence lasts, s or text.
    means : mapping of str to float or str, optional
        Static mean of an input, in its coherent unit or text.
    tones : mapping of str to sequence of Tone, optional
        Sines on top of an input, in its coherent unit.
    crest_factor : float, optional
        Where a controller holds values: in units of the rms, such as 3.
    kurtosis : float, default 3.0
        Of the stress; 3 is Gauss.
    skewness : float, default 0.0
        Of the stress.
    coefficients : str, default "exact"
        How kurtosis and skewness are met: "exact" or "usual".
    seed : int, default 1
        Of histories that are made of it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.spectra import PSD
    >>> night = RandomVibration({"stress": PSD([48.0, 52.0], [25.0, 25.0], dimension="stress")}, "8 h")
    >>> night
    <RandomVibration stress: rms 10 MPa, 28800 s>
    >>> round(night.cycles_of("stress", method="narrow band").total)
    1440384
    """

    inputs: Any
    exposure: float | str
    means: Mapping[str, float | str] = field(default_factory=dict)
    tones: Mapping[str, tuple[Tone, ...]] = field(default_factory=dict)
    crest_factor: float = math.inf
    kurtosis: float = 3.0
    skewness: float = 0.0
    coefficients: str = "exact"
    seed: int = 1
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order", "cross-spectra"})

    def __post_init__(self) -> None:
        where = "random vibration"
        if isinstance(self.inputs, Mapping) and not any(isinstance(one, StatedMoments) for one in self.inputs.values()):
            object.__setattr__(self, "inputs", PSDs(self.inputs))
        if not isinstance(self.inputs, CrossSpectra | Mapping):
            raise InputError(inside(where, "inputs"), shortened(self.inputs), "the PSD of each input, by its name")
        exposure = coherent(self.exposure, "time", inside(where, "exposure"))
        object.__setattr__(
            self, "exposure", checks.positive_number(inside(where, "exposure"), exposure, "a time above 0")
        )
        for key in ("means", "tones"):
            if not isinstance(getattr(self, key), Mapping):
                found = shortened(getattr(self, key))
                raise InputError(inside(where, key), found, f"{key} by the name of their input")
        if not isinstance(self.seed, int) or isinstance(self.seed, bool) or self.seed < 0:
            raise InputError(inside(where, "seed"), shortened(self.seed), "a whole number of 0 or more")
        means = {}
        for name, value in self.means.items():
            self._known(name, inside(where, "means"))
            means[name] = coherent(value, self.dimensions[name], inside(where, f"mean of {name}"))
        object.__setattr__(self, "means", means)
        for name, tones in self.tones.items():
            self._known(name, inside(where, "tones"))
            if (
                isinstance(tones, Tone)
                or not isinstance(tones, Sequence)
                or not all(isinstance(t, Tone) for t in tones)
            ):
                raise InputError(inside(where, f"tones of {name}"), shortened(tones), "a list of Tone")
            for one in tones:
                checks.positive_number(inside(where, "tone, frequency"), one.frequency)
                checks.real_number(inside(where, "tone, amplitude"), one.amplitude)
        object.__setattr__(self, "tones", {name: tuple(tones) for name, tones in self.tones.items()})
        checks.positive_number(inside(where, "crest_factor"), self.crest_factor)
        checks.one_of(inside(where, "coefficients"), self.coefficients, COEFFICIENTS)
        if self.shaping.form is not None and not math.isinf(self.crest_factor):
            raise InputError(
                where,
                f"a kurtosis of {self.kurtosis:g} with a crest factor",
                "one of both",
                "They contradict each other.",
            )

    @property
    def shaping(self) -> Shaping:
        """What is not Gaussian about it."""
        gauss = self.kurtosis == 3.0 and self.skewness == 0.0
        form = None if gauss else hermite_form(self.kurtosis, self.skewness, coefficients=self.coefficients)
        return Shaping(form, self.crest_factor, self.seed)

    @property
    def dimensions(self) -> dict[str, str]:
        """Of the inputs; stated moments are of a stress."""
        if isinstance(self.inputs, CrossSpectra):
            return self.inputs.dimensions
        return dict.fromkeys(self.inputs, "stress")

    @property
    def duration(self) -> float | None:
        """The exposure, s."""
        return float(self.exposure)

    def process(self, channel: str) -> Moments:
        """The PSD of an input, or its moments."""
        self._known(channel, "random vibration")
        if not isinstance(self.inputs, CrossSpectra):
            found: Moments = self.inputs[channel]
            return found
        if isinstance(self.inputs, PSDs):
            return self.inputs.inputs[channel]
        return ResponseDensity(self.inputs, {channel: Gain(1.0)}, self.dimensions[channel])

    def alone(self, channel: str) -> RandomStress:
        """One input by itself."""
        return RandomStress(
            channel,
            self.process(channel),
            float(self.exposure),
            float(self.means.get(channel, 0.0)),
            self.dimensions[channel],
            self.shaping,
            self.tones.get(channel, ()),
        )

    def one_channel(self, channel: str) -> RandomStress:
        """One input by itself."""
        return self.alone(channel)

    def through(self, name: str, responses: Mapping[str, Response]) -> RandomStress:
        """What responses make of the inputs that they are of."""
        for channel in responses:
            self._known(channel, "random vibration")
        if not isinstance(self.inputs, CrossSpectra):
            return self._of_moments(name, responses)
        density = ResponseDensity(self.inputs, dict(responses))
        means = [responses[one].static.real * float(mean) for one, mean in self.means.items() if one in responses]
        return RandomStress(
            name, density, float(self.exposure), sum(means), "stress", self.shaping, self._tones_through(responses)
        )

    def in_time(self) -> Load:
        """As it is where formulas count its cycles at several components; with tones a made history of its one input."""
        if not any(self.tones.values()):
            return self
        names = list(self.dimensions)
        if len(names) != 1:
            raise InputError(
                f"random vibration, {listed(names)}",
                "tones on several inputs at a place with six components",
                "one input",
                "State each input as an event of its own, or the tones as dwells.",
            )
        own: Any = self.alone(names[0])
        rate = PER_SHORTEST * max([own.process.band[1], *(one.frequency for one in own.tones)])
        made = own.synthesis(min(float(self.exposure), MOST / rate), rate)
        return MadeHistory(names[0], made.samples + own.mean, own.dimension, rate, float(self.exposure))

    def through_tensor(self, name: str, view: TensorView) -> RandomStress:
        """What responses of six components make of the inputs, as one stress."""
        if not isinstance(self.inputs, CrossSpectra):
            raise InputError("random vibration", "moments without a PSD", "a PSD, which a response can be applied to")
        if view.forms is None:
            raise InputError(
                "random vibration, measure",
                view.label,
                "a component, a normal stress, or a von Mises stress",
                "No stationary process stands for another measure of random components.",
            )
        spectra = TensorSpectra(self.inputs, view.response, view.channels)
        means = np.array([float(self.means.get(one, 0.0)) for one in view.channels])
        static = view.response.static(spectra.kinds) @ means if means.any() else 0.0
        mean = float(view.value(np.asarray(view.constant + static))[0])
        return RandomStress(name, spectra.process(view.forms), float(self.exposure), mean, "stress", self.shaping)

    def _of_moments(self, name: str, responses: Mapping[str, Response]) -> RandomStress:
        """Stated moments of one input, times a factor that is the same at all frequencies."""
        (channel, response), *others = responses.items()
        own: StatedMoments = self.inputs[channel]
        if others or not isinstance(response, Gain):
            raise InputError(
                f"random vibration, {channel}", "moments without a PSD", "a PSD, which a response can be applied to"
            )
        scaled = StatedMoments({order: one * response.value**2 for order, one in own.values.items()})
        mean = response.value * float(self.means.get(channel, 0.0))
        return RandomStress(name, scaled, float(self.exposure), mean, "stress", self.shaping)

    def _tones_through(self, responses: Mapping[str, Response]) -> tuple[Tone, ...]:
        """Each tone as stress; tones of one frequency on several inputs add up with their phases."""
        found: dict[float, complex] = {}
        for channel, response in responses.items():
            for one in self.tones.get(channel, ()):
                complex_amplitude = one.amplitude * np.exp(1j * one.phase) * response.at(np.array([one.frequency]))[0]
                found[one.frequency] = found.get(one.frequency, 0.0) + complex(complex_amplitude)
        return tuple(Tone(f, abs(one), float(np.angle(one))) for f, one in found.items())

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest value expected in the exposure."""
        return self.alone(channel).extremes(channel)

    def cycles_of(
        self, channel: str, *, residue: str = "half cycles", method: str = FORMULA, slope: float | None = None
    ) -> Cycles:
        """The cycles of an input expected in the exposure."""
        return self.alone(channel).cycles_of(channel, method=method, slope=slope)

    def in_order(self, channel: str) -> LoadSequence:
        """Turning points of a seeded synthesis."""
        return self.alone(channel).in_order(channel)

    def _known(self, channel: str, where: str) -> None:
        if channel not in self.dimensions:
            raise InputError(
                where,
                f"no channel {channel!r}",
                f"one of {listed(self.dimensions)}",
                did_you_mean(channel, self.dimensions),
            )

    def __repr__(self) -> str:
        from vivid_anvil.units import in_unit

        sizes = (f"{name}: rms {in_unit(self.process(name).rms, kind)}" for name, kind in self.dimensions.items())
        return f"<RandomVibration {', '.join(sizes)}, {self.exposure:g} s>"
