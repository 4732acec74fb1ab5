"""An event of constant amplitude: equal cycles of a load, given by amplitude, by range or by maximum."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting.counter import RESIDUES
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, field_of, inside
from vivid_anvil.histories.load import Give, Load
from vivid_anvil.units import coherent, dimension_of, sound, split


@sound
@dataclass(frozen=True, repr=False)
class ConstantAmplitude(Load):
    """`cycles` equal cycles of a load between `minimum` and `maximum`, in the coherent unit of `dimension`.

    Made by `from_amplitude`, `from_range` or `from_maximum`, so that they cannot be mixed up.

    Parameters
    ----------
    channel : str
        The channel, by its name.
    maximum : float
        Upper load of the cycles.
    minimum : float
        Lower load of the cycles.
    cycles : float
        How many cycles in one occurrence.
    dimension : str
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    frequency : float, optional
        How often a second, Hz or text.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> ConstantAmplitude.from_range("force", "12 kN", r_ratio=0.1, cycles=1e6)
    <ConstantAmplitude force: 1e+06 cycles, 1333.33 to 13333.3>
    """

    channel: str
    maximum: float
    minimum: float
    cycles: float
    dimension: str
    frequency: float | None = None
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order"})

    def __post_init__(self) -> None:
        where = f"constant amplitude of {self.channel}"
        checks.text(field_of("ConstantAmplitude", "channel"), self.channel)
        checks.positive_number(inside(where, "cycles"), self.cycles)
        if not (math.isfinite(self.maximum) and math.isfinite(self.minimum) and self.maximum >= self.minimum):
            raise InputError(where, f"maximum {self.maximum}, minimum {self.minimum}", "finite limits, maximum above")
        if self.frequency is not None:
            checks.positive_number(inside(where, "frequency"), self.frequency)

    @classmethod
    def from_amplitude(
        cls,
        channel: str,
        amplitude: str | float | tuple[float, str],
        *,
        r_ratio: float | None = None,
        mean: str | float | tuple[float, str] | None = None,
        cycles: float = 1.0,
        frequency: float | str | None = None,
    ) -> ConstantAmplitude:
        """Cycles of an amplitude (half of the range): text such as "1.2 kN", a pair (1.2, "kN"), or a plain load factor.

        `r_ratio` = minimum / maximum: -1, the default, is fully reversed, 0 pulsates from zero, -inf to it; not 1. Or the `mean`.

        >>> event = ConstantAmplitude.from_amplitude("vertical force", "1.5 kN", r_ratio=0.0, cycles=100)
        >>> event.maximum, event.minimum
        (3000.0, 0.0)
        >>> ConstantAmplitude.from_amplitude("stress", "50 MPa", mean="-50 MPa").minimum
        -100.0
        """
        where = f"constant amplitude of {channel}"
        value, dimension = with_unit(amplitude, inside(where, "amplitude"))
        ends = _ends(value, dimension, r_ratio, mean, where)
        return cls(channel, *ends, cycles, dimension, _hertz(frequency, where))

    @classmethod
    def from_range(
        cls,
        channel: str,
        range: str | float | tuple[float, str],  # the trade's word
        *,
        r_ratio: float | None = None,
        mean: str | float | tuple[float, str] | None = None,
        cycles: float = 1.0,
        frequency: float | str | None = None,
    ) -> ConstantAmplitude:
        """Cycles of a range (maximum - minimum): text such as "2.4 kN", a pair (2.4, "kN"), or a plain load factor.

        `r_ratio` or `mean` as for an amplitude.

        >>> ConstantAmplitude.from_range("stress", "90 MPa", r_ratio=0.1, cycles=2e6).maximum
        100.0
        """
        where = f"constant amplitude of {channel}"
        value, dimension = with_unit(range, inside(where, "range"))
        ends = _ends(0.5 * value, dimension, r_ratio, mean, where)
        return cls(channel, *ends, cycles, dimension, _hertz(frequency, where))

    @classmethod
    def from_maximum(
        cls,
        channel: str,
        maximum: str | float | tuple[float, str],
        *,
        minimum: str | float | tuple[float, str] | None = None,
        r_ratio: float | None = None,
        cycles: float = 1.0,
        frequency: float | str | None = None,
    ) -> ConstantAmplitude:
        """Cycles up to a maximum, from a `minimum` or with `r_ratio` = minimum / maximum: one of both.

        >>> ConstantAmplitude.from_maximum("stress", "0 MPa", minimum="-100 MPa").minimum
        -100.0
        >>> ConstantAmplitude.from_maximum("load factor", 1, r_ratio=0.1).dimension
        'number'
        """
        where = f"constant amplitude of {channel}"
        top, dimension = signed(maximum, inside(where, "maximum"))
        if (minimum is None) == (r_ratio is None):
            found = "neither" if minimum is None else "both"
            raise InputError(where, f"{found} of minimum and r_ratio beside a maximum", "one of both")
        if minimum is not None:
            bottom = _like(minimum, dimension, inside(where, "minimum"))
        else:
            bottom = top * checks.real_number(inside(where, "r_ratio"), r_ratio)
        if not bottom < top:
            given = f"minimum {minimum}" if minimum is not None else f"r_ratio {r_ratio:g}"
            raise InputError(
                where, f"maximum {maximum} with {given}", "a minimum below the maximum", "State both by their values."
            )
        return cls(channel, top, bottom, cycles, dimension, _hertz(frequency, where))

    @property
    def duration(self) -> float | None:
        """Time that the cycles take, s; None where no frequency is stated."""
        return None if self.frequency is None else self.cycles / self.frequency

    @property
    def dimensions(self) -> dict[str, str]:
        """The channel and its dimension."""
        return {self.channel: self.dimension}

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest load."""
        return self.minimum, self.maximum

    def in_order(self, channel: str) -> LoadSequence:
        """From the minimum to the maximum and back, as often as there are cycles."""
        none = self.cycles_of(channel).chosen(np.zeros(1, dtype=bool))
        return LoadSequence(none, ((np.array([self.minimum, self.maximum, self.minimum]), self.cycles),))

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """The cycles as a table of one entry; the residue is that of any whole number of equal cycles: none."""
        checks.one_of("residue", residue, tuple(RESIDUES))
        if channel != self.channel:
            raise InputError(
                f"constant amplitude of {self.channel}",
                f"no channel {channel!r}",
                repr(self.channel),
                did_you_mean(channel, [self.channel]),
            )
        extremes = np.array([self.maximum, self.minimum])
        return Cycles(
            range=np.array([extremes[0] - extremes[1]]),
            mean=np.array([0.5 * extremes.sum()]),
            count=np.array([float(self.cycles)]),
            dimension=self.dimension,
        )

    def __repr__(self) -> str:
        return f"<ConstantAmplitude {self.channel}: {self.cycles:g} cycles, {self.minimum:g} to {self.maximum:g}>"


def with_unit(value: Any, where: str) -> tuple[float, str]:
    """A size in the coherent unit, above 0, and its dimension."""
    found, dimension = signed(value, where)
    return checks.positive_number(where, found), dimension


def signed(value: Any, where: str) -> tuple[float, str]:
    """Value in the coherent unit, and its dimension, from text, a pair (number, unit), or a plain number: a load factor."""
    if isinstance(value, tuple):
        amount, unit = value
    else:
        amount, unit = split(str(value), where, "1.2 kN", "number")
    dimension = dimension_of(unit, where)
    return coherent(f"{amount!r} {unit}", dimension.name, where), dimension.name


def _like(value: Any, dimension: str, where: str) -> float:
    """A value of the same dimension as its fellow, in the coherent unit."""
    found, own = signed(value, where)
    if own != dimension and found != 0.0:
        raise InputError(where, f"{value}, of {own}", f"a value of {dimension}, as the other one is")
    return found


def _ends(amplitude: float, dimension: str, r_ratio: float | None, mean: Any, where: str) -> tuple[float, float]:
    """Maximum and minimum from amplitude and R, or amplitude and mean."""
    if mean is None:
        return limits(amplitude, -1.0 if r_ratio is None else r_ratio, where)
    if r_ratio is not None:
        raise InputError(where, f"mean {mean} and r_ratio {r_ratio}", "one of both")
    middle = _like(mean, dimension, inside(where, "mean"))
    return middle + amplitude, middle - amplitude


def limits(amplitude: float, r_ratio: float, where: str) -> tuple[float, float]:
    """Maximum and minimum from amplitude and R; R above 1 (both negative) is meaningful, as is -inf (from 0 down), 1 is not."""
    if r_ratio == -math.inf:
        return 0.0, -2.0 * amplitude
    r = checks.real_number(inside(where, "r_ratio"), r_ratio)
    if r == 1.0 or not math.isfinite(r):
        raise InputError(inside(where, "r_ratio"), f"{r:g}", "minimum / maximum, other than 1")
    maximum = 2.0 * amplitude / (1.0 - r)
    return maximum, maximum - 2.0 * amplitude


def _hertz(frequency: float | str | None, where: str) -> float | None:
    return None if frequency is None else coherent(frequency, "frequency", inside(where, "frequency"))
