"""Sizes at which a crack has to stop: fracture, net-section yield, limit of the stress intensity solution."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.cracks.shapes import CrackShape
from vivid_anvil.materials import Material


@dataclass(frozen=True, slots=True)
class CriticalSizes:
    """Limiting sizes, mm, under the largest stress of the duty cycle; None where a limit is not met in the valid range."""

    toughness: float | None
    net_section: float | None
    validity: float

    @property
    def limiting(self) -> float:
        """The least of them."""
        return min(size for size in (self.toughness, self.net_section, self.validity) if size is not None)

    @property
    def governed_by(self) -> str:
        """'toughness', 'net-section yield' or 'limit of the solution'."""
        if self.limiting == self.toughness:
            return "toughness"
        return "net-section yield" if self.limiting == self.net_section else "limit of the solution"


def critical_sizes(shape: CrackShape, material: Material, peak_stress: float) -> CriticalSizes:
    """Sizes, mm, at which K reaches the toughness and the net section the yield strength, at `peak_stress`, MPa.

    Found by solving; a size below 1e-6 of the width counts as that.

    >>> from vivid_anvil.cracks.shapes import CentreCrack
    >>> steel = Material(name="steel", yield_strength=450.0, toughness=1800.0)
    >>> critical_sizes(CentreCrack(100.0), steel, 150.0).governed_by
    'toughness'
    """
    toughness = material.needed("toughness", "the critical crack size")
    yielding = material.needed("yield_strength", "net-section yield")

    def k(size: float) -> float:
        return float(shape.geometry_factor(size)) * peak_stress * float(np.sqrt(np.pi * size)) - toughness

    def net(size: float) -> float:
        return float(shape.net_section_stress(size, peak_stress)) - yielding

    return CriticalSizes(_reached(k, shape.largest_size), _reached(net, shape.largest_size), shape.largest_size)


def _reached(excess: Callable[[float], float], largest: float) -> float | None:
    """The size at which `excess`, which rises, passes 0; None where that is beyond `largest`."""
    smallest = 1e-6 * largest
    if excess(largest) < 0.0:
        return None
    if excess(smallest) >= 0.0:
        return smallest
    return float(brentq(excess, smallest, largest, xtol=1e-12, rtol=1e-14))
