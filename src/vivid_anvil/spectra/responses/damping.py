"""Damping of a resonance, by the word that it is stated with: a ratio, a quality factor Q, or a loss factor."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside

ASSUMED = 0.02  # of critical, where nothing is stated: a finding says so
_WORDS = ("damping_ratio", "quality_factor", "loss_factor")


@dataclass(frozen=True)
class Damping:
    """`ratio` of critical damping; `structural` is that of a loss factor η = 2 ratio, which does not rise with the frequency.

    `assumed` is true where nothing was stated.

    >>> Damping.of(quality_factor=25.0).ratio, Damping.of(loss_factor=0.04).ratio
    (0.02, 0.02)
    """

    ratio: float
    structural: bool = False
    assumed: bool = False

    @classmethod
    def of(
        cls,
        *,
        damping_ratio: float | None = None,
        quality_factor: float | None = None,
        loss_factor: float | None = None,
        where: str = "damping",
    ) -> Damping:
        """By one of the three words; 0.02 where none is given.

        InputError for two of them, a value not above 0, and a ratio of 1 or more, which is most often a percentage.
        """
        given = dict(zip(_WORDS, (damping_ratio, quality_factor, loss_factor), strict=True))
        stated = {name: value for name, value in given.items() if value is not None}
        if len(stated) > 1:
            raise InputError(where, " and ".join(stated), "one word for the damping")
        if not stated:
            return cls(ASSUMED, assumed=True)
        name, value = next(iter(stated.items()))
        number = checks.positive_number(inside(where, name), value)
        ratio = {"damping_ratio": number, "quality_factor": 0.5 / number, "loss_factor": 0.5 * number}[name]
        if not ratio < 1.0:
            raise InputError(
                inside(where, name),
                f"{number:g}",
                "a ratio of critical damping below 1, such as 0.02",
                f"If it is in percent, write {number / 100.0:g}.",
            )
        return cls(ratio, structural=name == "loss_factor")

    def term(self, ratio_of_frequencies: FloatArray) -> FloatArray:
        """The imaginary part of (1 - r²) + i ...: 2ζr, or η for a loss factor."""
        r = np.asarray(ratio_of_frequencies, dtype=np.float64)
        return np.full(r.shape, 2.0 * self.ratio) if self.structural else 2.0 * self.ratio * r


def dampings(
    damping_ratio: Any, quality_factor: Any, loss_factor: Any, *, modes: int, where: str = "modes"
) -> tuple[Damping, ...]:
    """Of each mode, by one word with one value for all or one each."""
    given = dict(zip(_WORDS, (damping_ratio, quality_factor, loss_factor), strict=True))
    words = {name: np.ravel(value).tolist() for name, value in given.items() if value is not None}
    for name, values in words.items():
        if len(values) not in (1, modes):
            raise InputError(inside(where, name), f"{len(values)} values", f"one, or one for each of {modes} modes")
    each = [{name: values[min(i, len(values) - 1)] for name, values in words.items()} for i in range(modes)]
    return tuple(Damping.of(**one, where=f"{where}, mode {i}") for i, one in enumerate(each, 1))
