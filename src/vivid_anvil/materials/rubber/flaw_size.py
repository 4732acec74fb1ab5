"""The size of the flaws that are there from the start, from lives of strips: what it has to be for a law to give those lives."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike
from scipy.optimize import brentq

from vivid_anvil.ground.checks import FloatArray, as_numbers, positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber.tearing_law import TearingLaw
from vivid_anvil.units import many, number, one, opened

SMALLEST = 1e-5  # mm, below which no flaw is looked for


@dataclass(frozen=True, eq=False)
class FlawSizes:
    """Size, mm, of the flaw behind each life; their median, and the standard deviation of log10 of the size."""

    each: FloatArray
    median: float
    log_std: float


@opened(energy=many("stress", above=0.0), end=one("length", above=0.0))
def initial_flaws(
    law: TearingLaw,
    energy: ArrayLike,
    lives: ArrayLike,
    *,
    end: float,
    r_ratio: float = 0.0,
    shape_factor: float = math.pi,
) -> FlawSizes:
    """The flaw at the start, mm, with which a law gives the life of each strip, in T = 2 k W c.

    Parameters
    ----------
    law : TearingLaw
        Growth of the rubber.
    energy : array_like or text with a unit
        Largest energy density of each strip, MPa.
    lives : array_like
        Cycles until it parted.
    end : float or text with a unit
        Size at the end of the life, mm, such as the thickness of the strip.
    r_ratio : float, default 0
        Least over largest energy.
    shape_factor : float, default π
        k, -.

    Returns
    -------
    FlawSizes
        A size for each strip, their median and scatter.

    Raises
    ------
    InputError
        For lives that no flaw gives, rows of unlike length, and values of another kind, unit or range.

    Examples
    --------
    >>> from vivid_anvil.materials.rubber import PowerTearing
    >>> law = PowerTearing(name="nr", rate=0.0025, at=11.0, slope=2.0)
    >>> initial_flaws(law, [0.5, 0.4], [118512.0, 200000.0], end="1.2 mm").each.round(4)
    array([0.04  , 0.0371])
    """
    w, n = (np.atleast_1d(as_numbers("initial flaws, lives", one_)) for one_ in (energy, lives))
    if w.size != n.size:
        raise InputError("initial flaws", f"{w.size} energies, {n.size} lives", "one of each for every strip")
    found = []
    for i, (each, life) in enumerate(zip(w.tolist(), n.tolist(), strict=True), 1):
        positive_number(f"initial flaws, strip {i}, life", life, "cycles above 0")

        def late(log_size: float, each: float = each, life: float = life) -> float:
            lasts = float(law.lives(each, r_ratio, math.exp(log_size), end, shape_factor)[0])
            return 700.0 if math.isinf(lasts) else math.log(max(lasts, 1e-300)) - math.log(life)

        least = max(SMALLEST, law.least_size(each, r_ratio, shape_factor) * (1.0 + 1e-9))
        if least >= end or late(math.log(least)) < 0.0:
            raise InputError(
                f"initial flaws, strip {i}",
                f"a life of {number(life)} cycles at {number(each)} MPa",
                f"one that a flaw from {number(least)} mm up to {number(end)} mm gives",
                "Is the law that of this rubber, and the energy the largest of a cycle?",
            )
        found.append(math.exp(brentq(late, math.log(least), math.log(end) - 1e-12, xtol=1e-13)))
    sizes = np.array(found)
    logs = np.log10(sizes)
    return FlawSizes(sizes, float(10.0 ** np.median(logs)), float(logs.std(ddof=1)) if sizes.size > 1 else math.nan)
