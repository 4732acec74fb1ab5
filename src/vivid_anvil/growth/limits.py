"""Sizes at which a crack has to stop: fracture, net-section yield, assessment curve, a chosen size, the end of the solution."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.ground.checks import given_back
from vivid_anvil.materials import Material
from vivid_anvil.shapes.shape import Margin, OneSizeShape, Shape
from vivid_anvil.shapes.solutions import assessment_curve, plasticity_interaction
from vivid_anvil.units import LENGTH_OR_NONE, STRENGTH, STRESS, inner, opened

ENDS_OF_SOLUTION = ("limit of the solution", "length of the solution", "aspect of the solution")


@dataclass(frozen=True, slots=True)
class CriticalSizes:
    """Limiting sizes, mm, under the largest stress of the duty cycle; None where a limit is not met in the valid range.

    `wall` is the depth at which a crack with two sizes breaks through; `length` and `aspect`, its depth
    when its length or its aspect ends the solution; `law`, the size at which the growth law itself says fracture.
    """

    toughness: float | None
    net_section: float | None
    validity: float
    assessment: float | None = None
    chosen: float | None = None
    wall: float | None = None
    length: float | None = None
    aspect: float | None = None
    law: float | None = None

    @property
    def _named(self) -> dict[str, float]:
        all_of_them = {
            "chosen size": self.chosen,
            "toughness": self.toughness,
            "net-section yield": self.net_section,
            "assessment curve": self.assessment,
            "wall": self.wall,
            "length of the solution": self.length,
            "aspect of the solution": self.aspect,
            "fracture by the law": self.law,
            "limit of the solution": self.validity,
        }
        return {name: size for name, size in all_of_them.items() if size is not None}

    @property
    def limiting(self) -> float:
        """The least of them."""
        return min(self._named.values())

    @property
    def governed_by(self) -> str:
        """'toughness', 'net-section yield', 'assessment curve', 'chosen size', 'wall' or 'limit of the solution'."""
        return min(self._named, key=lambda name: self._named[name])


@opened(peak_stress=STRESS, chosen=LENGTH_OR_NONE, youngs_modulus=STRENGTH, largest=LENGTH_OR_NONE)
def critical_sizes(
    shape: OneSizeShape,
    material: Material,
    peak_stress: float,
    *,
    chosen: float | None = None,
    limits: str = "toughness and yield",
    youngs_modulus: float = 207000.0,
    always: Callable[..., Any] | None = None,
    largest: float | None = None,
) -> CriticalSizes:
    """Sizes, mm, at which K reaches the toughness and the net section the yield strength, at `peak_stress`, MPa.

    Found by solving; a size below 1e-6 of the width counts as that. With `limits` "assessment curve" the size at which
    K_r = f(L_r) takes the place of both. `always` is the K of residual stress, MPa√mm: it counts for fracture (with ρ), not for
    yield; `largest`, mm, is where the solution ends, by default that of the shape.

    >>> from vivid_anvil.shapes.one_size import CentreCrack
    >>> steel = Material(name="steel", yield_strength=450.0, toughness=1800.0)
    >>> critical_sizes(CentreCrack(100.0), steel, 150.0).governed_by
    'toughness'
    """
    margins = margins_of(shape, material, peak_stress, limits, youngs_modulus, always)
    smallest = shape.smallest_size
    end = shape.largest_size if largest is None else largest
    sizes = {name: _reached(margin, end, smallest) for name, margin in margins.items()}
    return CriticalSizes(
        sizes.get("toughness"), sizes.get("net-section yield"), end, sizes.get("assessment curve"), chosen
    )


def margins_of(
    shape: Shape,
    material: Material,
    peak_stress: float,
    limits: str,
    youngs_modulus: float,
    always: Callable[..., Any] | None = None,
) -> dict[str, Margin]:
    """What is left at the sizes, mm, by the name of each limit of the material; 0 where the limit is reached."""
    limit = _limit_values(material, limits)

    def ends(sizes: tuple[float, ...]) -> list[tuple[float, float]]:
        """Primary and secondary K at each end."""
        root = peak_stress * math.sqrt(math.pi * sizes[0])
        there = (0.0,) * len(sizes) if always is None else given_back("always", always(*sizes), (len(sizes),))
        return [(y * root, float(k)) for y, k in zip(shape.ends(*sizes), there, strict=True)]

    def net(sizes: tuple[float, ...]) -> float:
        return shape.reference_stress(peak_stress, *sizes)

    if limits == "assessment curve":
        return {limits: lambda *at: min(_room(*end, net(at), limit, youngs_modulus) for end in ends(at))}
    return {
        "toughness": lambda *at: limit["toughness"] - max(sum(end) for end in ends(at)),
        "net-section yield": lambda *at: limit["yield"] - net(at),
    }


def all_margins(shape: Shape, margins: dict[str, Margin], chosen: float | None, *, weighed: bool) -> dict[str, Margin]:
    """With what is left to a size of one's own, mm, and to the ends of the solution; the first at 0 ends the growth."""
    found = dict(margins)
    if chosen is not None and chosen < shape.deepest:
        found["chosen size"] = lambda a, *_: chosen - a
    return found | shape.rooms(weighed=weighed)


def critical_depth(margins: dict[str, Margin], deepest: float, aspect: float) -> tuple[float, str]:
    """Smallest depth, mm, at which one of `margins` is used up while the aspect a/c stays, and which."""
    found = {
        name: _reached(lambda a, margin=margin: margin(a, a / aspect), deepest)  # type: ignore[misc]
        for name, margin in margins.items()
    }
    reached = {name: depth for name, depth in found.items() if depth is not None}
    first = min(reached, key=lambda name: reached[name])
    return reached[first], first


def _limit_values(material: Material, limits: str) -> dict[str, float]:
    values = {
        "toughness": material.needed("toughness", "the critical crack size"),
        "yield": material.needed("yield_strength", "net-section yield"),
    }
    if limits == "assessment curve":
        values["ultimate"] = material.needed("ultimate_strength", "the failure assessment curve")
    return values


def _room(primary: float, secondary: float, net: float, limit: dict[str, float], youngs_modulus: float) -> float:
    """What is left of K_r under the assessment curve, with the interaction of primary and secondary stress."""
    ratio = max(net, 0.0) / limit["yield"]
    largest = float(_curve(ratio, limit["yield"], limit["ultimate"], youngs_modulus))
    needed = (primary + secondary) / limit["toughness"]
    if secondary > 0.0:
        needed += float(_interaction(secondary * ratio / max(primary, 1e-9 * secondary), ratio))
    return largest - needed


_curve, _interaction = inner(assessment_curve), inner(plasticity_interaction)


def _reached(margin: Callable[[float], float], largest: float, smallest: float = 0.0) -> float | None:
    """The size at which `margin`, which falls, passes 0; None where that is beyond `largest`."""
    start = max(1e-6 * largest, smallest)
    if margin(largest) > 0.0:
        return None
    if margin(start) <= 0.0:
        return start
    sizes = np.linspace(start, largest, 65)  # the first crossing, where a margin does not fall all the way
    left = next(i for i in range(1, sizes.size) if margin(float(sizes[i])) <= 0.0)
    return float(brentq(margin, float(sizes[left - 1]), float(sizes[left]), xtol=1e-12, rtol=1e-14))
