"""Several channels that act together at a place: stress = Σ stress per load × load, one load as the duty cycle sees it.

In: the stress that a load of 1 makes on each channel ("3 MPa/kN", for a load factor "40 MPa"). Out: any load seen as that stress.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.units import coherent_ratio, number


@dataclass(frozen=True)
class ChannelSum:
    """Channels with the stress that a load of 1 makes on each; stands where a channel's name may stand.

    >>> from vivid_anvil.events import LoadStates
    >>> both = ChannelSum((("weight", "40 MPa"), ("wind", "30 MPa")))
    >>> str(both)
    '40 MPa × weight + 30 MPa × wind'
    >>> both.seen(LoadStates.of({"weight": 1, "wind": [-0.5, 1]})).extremes(str(both))
    (25.0, 70.0)
    """

    parts: tuple[tuple[str, float | str], ...]

    def __post_init__(self) -> None:
        if not self.parts:
            raise InputError("stress per load", "no channel", "at least one, with the stress that a load of 1 makes")
        for name, _ in self.parts:
            checks.text("channel of a sum", name)
        object.__setattr__(self, "parts", tuple((name, _written(name, per_load)) for name, per_load in self.parts))

    @classmethod
    def of(cls, per_load: Mapping[str, float | str]) -> ChannelSum:
        """From a mapping of channels to stresses per load."""
        return cls(tuple(per_load.items()))

    @property
    def channels(self) -> tuple[str, ...]:
        """Names of the channels."""
        return tuple(name for name, _ in self.parts)

    def factors(self, dimensions: Mapping[str, str], where: str) -> FloatArray:
        """MPa per coherent unit of each channel; InputError for a channel that is not there."""
        for name in self.channels:
            if name not in dimensions:
                raise InputError(
                    where,
                    f"no channel {name!r}",
                    f"one of {listed(dimensions)}",
                    did_you_mean(name, dimensions)
                    or "Every event must say what each of the loads is: several together in a history, or in states.",
                )
        each = [
            coherent_ratio(per, "stress", dimensions[name], f"stress per load of {name}") for name, per in self.parts
        ]
        if not any(each):
            raise InputError(where, f"no stress: {self}", "a stress for a load", "Leave out a spot that feels no load.")
        return np.array(each)

    def seen(self, load: Load) -> Load:
        """The same load with the one channel, named as this sum, MPa; InputError where loads do not go together."""
        factors = self.factors(load.dimensions, f"loads that act together, {self}")
        return load.combined(str(self), dict(zip(self.channels, factors.tolist(), strict=True)))

    def __str__(self) -> str:
        each = (per if isinstance(per, str) else f"{number(per)} MPa" for _, per in self.parts)
        return " + ".join(f"{per} × {name}" for per, name in zip(each, self.channels, strict=True))


def _written(name: str, per_load: Any) -> float | str:
    """A stress per load as text or number, a quantity as text with its unit; InputError for anything else."""
    if isinstance(per_load, str):
        return per_load
    if hasattr(per_load, "magnitude") and hasattr(per_load, "units"):
        return f"{float(per_load.magnitude)!r} {per_load.units:~C}"
    return checks.real_number(f"stress per load of {name}", per_load, "a stress per load, such as '38 MPa/kN'")
