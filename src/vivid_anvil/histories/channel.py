"""One measured quantity with its unit, and several side by side."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, field_of, inside, listed
from vivid_anvil.units import DIMENSIONS, dimension_of, factor, in_dimension, unit_of

Steps = Literal["even", "uneven", "none"]
STEPS: tuple[str, ...] = get_args(Steps)


@dataclass(frozen=True, eq=False, repr=False)
class Channel:
    """One measured quantity: `values`, shape (n,), in the coherent unit of `dimension`.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    values : ndarray
        Samples, in the coherent unit.
    dimension : str
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> Channel.in_unit("vertical force", [3.1, 4.2, 2.9], "kN")
    <Channel vertical force: 3 samples, 2900 to 4200 N>
    """

    name: str
    values: FloatArray
    dimension: str

    def __post_init__(self) -> None:
        checks.text(field_of("Channel", "name"), self.name)
        checks.one_of(inside(f"channel {self.name}", "dimension"), self.dimension, tuple(DIMENSIONS))
        unit = DIMENSIONS[self.dimension].coherent
        values = in_dimension(self.values, self.dimension, f"channel {self.name}")
        checks.finite_samples(values, where=f"channel {self.name}", unit=unit)
        object.__setattr__(self, "values", checks.kept(np.asarray(values, dtype=np.float64)))

    @classmethod
    def in_unit(cls, name: str, values: ArrayLike, unit: str) -> Channel:
        """A channel from values in any unit of the trade; InputError where they carry another unit of their own."""
        dimension = dimension_of(unit, f"channel {name}")
        own = unit_of(values, f"channel {name}")
        if own is not None:
            if factor(own, dimension, f"channel {name}") != factor(unit, dimension, f"channel {name}"):
                raise InputError(
                    f"channel {name}", f"values in {own}", f"values in {unit}, as is said", "Say one unit."
                )
            values = getattr(values, "magnitude", getattr(values, "values", values))
        samples = checks.finite_samples(values, where=f"channel {name}", unit=unit)
        scale = 1.0 if dimension.name == "number" else factor(unit, dimension, f"channel {name}")
        return cls(name, checks.read_only(samples * scale), dimension.name)

    def __len__(self) -> int:
        return int(self.values.size)

    def __array__(self, dtype: object = None, copy: bool | None = None) -> FloatArray:
        return np.array(self.values, dtype=dtype, copy=copy)  # type: ignore[call-overload, no-any-return]

    def __repr__(self) -> str:
        unit = DIMENSIONS[self.dimension].coherent
        return f"<Channel {self.name}: {len(self)} samples, {self.values.min():.4g} to {self.values.max():.4g} {unit}>"


def check_channels(channels: Sequence[Channel], where: str) -> None:
    """InputError unless there are channels, each with a name of its own, all equally long."""
    if not channels:
        raise InputError(where, "no channel", "at least one channel")
    names = [channel.name for channel in channels]
    for name in names:
        if names.count(name) > 1:
            raise InputError(
                inside(where, f"channel {name}"), "the same name twice", "a different name for each channel"
            )
    lengths = {channel.name: len(channel) for channel in channels}
    if len(set(lengths.values())) > 1:
        raise InputError(where, f"channels of {lengths} samples", "channels of equal length")


def channel_named(channels: Sequence[Channel], name: str, where: str) -> Channel:
    """The channel of that name; InputError with the nearest one where there is none."""
    for channel in channels:
        if channel.name == name:
            return channel
    known = [channel.name for channel in channels]
    raise InputError(where, f"no channel {name!r}", f"one of {listed(known)}", did_you_mean(name, known))
