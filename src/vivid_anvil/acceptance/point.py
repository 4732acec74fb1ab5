"""The point of a flaw in the assessment diagram: load ratio, and at each end of the flaw the fracture ratio."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from vivid_anvil.acceptance.stresses.interaction import INTERACTIONS, Way
from vivid_anvil.acceptance.stresses.primary import Outer, Primary
from vivid_anvil.acceptance.stresses.secondary import Balanced, Secondary
from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture import AssessmentCurve, Metal
from vivid_anvil.shapes.shape import Shape
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import number, sound


@sound
@dataclass(frozen=True, eq=False)
class FractureLoads:
    """What pulls at a flaw: primary stresses, which a section has to carry, and secondary ones, which balance themselves.

    Parameters
    ----------
    primary : sequence of Primary
        Of `PRIMARY`; they add up.
    secondary : sequence of Secondary
        Of `SECONDARY`; they add up.
    interaction : str, default "rho"
        How plasticity raises K where both act: one of `INTERACTIONS`.

    Raises
    ------
    InputError
        For a secondary stress among the primary ones, or the other way round.

    Examples
    --------
    >>> FractureLoads([PrimaryStresses(membrane="150 MPa")], [AsWelded()]).interaction
    'rho'
    """

    primary: Sequence[Primary]
    secondary: Sequence[Secondary] = ()
    interaction: str = "rho"

    def __post_init__(self) -> None:
        for key, kind in (("primary", Primary), ("secondary", Secondary)):
            given = getattr(self, key)
            rows = (given,) if isinstance(given, kind) else tuple(given)
            for one in rows:
                if not isinstance(one, kind):
                    found = f"a {type(one).__name__}"
                    raise InputError(inside("fracture loads", key), found, f"{key} stresses", "Each in its own table.")
            object.__setattr__(self, key, rows)
        if not self.primary and not self.secondary:
            raise InputError("fracture loads", "nothing", "one stress or more")
        one_of(inside("fracture loads", "interaction"), self.interaction, list(INTERACTIONS))

    @property
    def way(self) -> Way:
        """The interaction."""
        return INTERACTIONS[self.interaction]

    @property
    def moves(self) -> bool:
        """Whether a secondary stress goes with the load."""
        return any(one.moves for one in self.secondary)


class Terms(NamedTuple):
    """What a flaw of some sizes is under its loads: K, MPa√mm, at each end, and the reference stress, MPa."""

    primary: tuple[float, ...]
    secondary: tuple[float, ...]
    reference: float


class Driver:
    """What drives a flaw of a shape under its loads: what does not go with its sizes is worked out once."""

    def __init__(self, shape: Shape, loads: FractureLoads, metal: Metal) -> None:
        self.shape, self.loads, self.metal, self.wall = shape, loads, metal, shape.wall_thickness
        self.crack = _summed([one.at_crack(self.wall) for one in loads.primary])
        self.section = section_stress(loads, self.wall)
        self.held = None if any(one.follows for one in loads.secondary) else self._secondary(0.0)
        self.plain = shape.under(0.0) if shape.bends else shape
        first = self.held or self._secondary(0.0)
        self.bends = bool(self.crack[0].bending or first[0].bending)
        total = abs(self.section.membrane) + abs(self.section.bending)
        share = abs(self.section.bending) / total if total > 0.0 else 0.0
        self.shared = (shape.under(share), total) if shape.bends else None

    def _secondary(self, reference: float) -> Driven:
        return _summed([one.stress(self.metal, reference, self.wall) for one in self.loads.secondary])

    def terms(self, sizes: tuple[float, ...], factor: float = 1.0) -> Terms:
        """K of primary and secondary stress at each end, and the reference stress, with all primary loads times `factor`."""
        membrane, bending = self._scales(sizes)
        reference = factor * self.reference(sizes)
        primary = self._k(self.crack, membrane, bending, sizes)
        held = self.held or self._secondary(reference)
        secondary = self._k(held, membrane, bending, sizes)
        return Terms(tuple(factor * one for one in primary), tuple(secondary), reference)

    def _scales(self, sizes: tuple[float, ...]) -> tuple[Sequence[float], Sequence[float]]:
        """K per MPa of membrane stress and of bending at each end, √mm."""
        if not self.bends:
            found = self.plain.scales(*sizes)
            return found, (0.0,) * len(found)
        if not self.shape.bends:
            return self.plain.scales(*sizes), self.shape.scales_of_bending(*sizes)
        root = math.sqrt(math.pi * sizes[0])
        membrane, bending = self.shape.ends_of_parts(*sizes)
        return [one * root for one in membrane], [one * root for one in bending]

    def reference(self, sizes: tuple[float, ...]) -> float:
        """Stress of the section that is left, MPa."""
        m, b = self.section.membrane, self.section.bending
        if m == 0.0 and b == 0.0:
            return 0.0
        if self.shared is not None:
            shape, total = self.shared
            return shape.reference_stress(total, *sizes)
        return self.shape.reference_stress_of(m, b, *sizes)

    def _k(
        self, driven: Driven, membrane: Sequence[float], bending: Sequence[float], sizes: tuple[float, ...]
    ) -> list[float]:
        outer, profiles = driven
        found = [outer.membrane * m + outer.bending * b for m, b in zip(membrane, bending, strict=True)]
        for profile in profiles:
            if not self.shape.weighs:
                raise InputError(
                    f"{self.shape.kind} flaw, profile",
                    "a stress over the wall",
                    "a shape with a weight function: edge or surface",
                    "State its membrane and bending part.",
                )
            more = self.shape.ends_of_stress(profile, *sizes)
            found = [one + other for one, other in zip(found, more, strict=True)]
        return found


Driven = tuple[Outer, tuple[StressProfile, ...]]


def _summed(stresses: Sequence[Outer | Balanced]) -> Driven:
    """Membrane and bending stress of all, and the profiles besides."""
    membrane, bending = sum(one.membrane for one in stresses), sum(one.bending for one in stresses)
    return Outer(membrane, bending), tuple(one.profile for one in stresses if one.profile is not None)


def section_stress(loads: FractureLoads, wall: float | None) -> Outer:
    """Membrane and bending stress of all primary loads, that the section has to carry."""
    return _summed([one.at_section(wall) for one in loads.primary])[0]


class EndPoint(NamedTuple):
    """One end of a flaw: K of primary and secondary stress, MPa√mm, χ, what plasticity adds, and K_r."""

    name: str
    k_primary: float
    k_secondary: float
    chi: float
    added: float
    factor: float
    fracture_ratio: float


class Point(NamedTuple):
    """A point in the diagram: L_r, the ends, and the largest K_r that the curve allows there."""

    load_ratio: float
    ends: tuple[EndPoint, ...]
    allowed: float

    @property
    def governing(self) -> EndPoint:
        """The end with the larger K_r."""
        return max(self.ends, key=lambda end: end.fracture_ratio)

    @property
    def room(self) -> float:
        """f(L_r) less K_r: below 0 the flaw is not acceptable."""
        return self.allowed - self.governing.fracture_ratio

    @property
    def acceptable(self) -> bool:
        """Whether it lies on or under the curve."""
        return self.room >= 0.0


def point_of(terms: Terms, curve: AssessmentCurve, toughness: float, way: Way, names: Sequence[str]) -> Point:
    """Where terms lie against a curve and a toughness, MPa√mm."""
    ratio = max(terms.reference, 0.0) / curve.yield_strength
    ends = []
    for name, k_p, k_s in zip(names, terms.primary, terms.secondary, strict=True):
        own = way.added(max(k_p, 0.0), k_s, ratio)
        k_r = max(k_p + own.factor * k_s, 0.0) / toughness + own.sum
        ends.append(EndPoint(name, k_p, k_s, own.chi, own.sum, own.factor, k_r))
    return Point(ratio, tuple(ends), curve.allowed(ratio))


def said_point(point: Point) -> str:
    """L_r and K_r in a line."""
    return f"L_r = {number(point.load_ratio)}, K_r = {number(point.governing.fracture_ratio)}"
