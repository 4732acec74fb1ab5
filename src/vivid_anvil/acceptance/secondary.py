"""Secondary stresses, which balance themselves: thermal and residual stress. They load the crack, but let no section collapse."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, NamedTuple

import numpy as np

from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import Coherent, OptionalCoherent
from vivid_anvil.writing.working import Step, put_in

SECONDARY: Choices[type[Secondary]] = Choices("secondary stress")


class Balanced(NamedTuple):
    """Membrane and bending part, MPa, and a stress over the wall where it is no straight line."""

    membrane: float = 0.0
    bending: float = 0.0
    profile: StressProfile | None = None


class Secondary(ABC):
    """A stress that is there without load; `moves` where it goes with the load of the assessment."""

    kind: ClassVar[str]
    residual: ClassVar[bool] = True

    @property
    def follows(self) -> bool:
        """Whether it is set by the load of the assessment."""
        return False

    @property
    def moves(self) -> bool:
        """Whether it is another one under every other load, also that of a reserve factor."""
        return False

    @abstractmethod
    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """What it is in that metal, where the load gives that reference stress, MPa, over a wall, mm."""

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """How it comes about."""
        return ()


@SECONDARY.add("stresses")
@dataclass(frozen=True, kw_only=True)
class SecondaryStresses(Secondary):
    """Membrane and bending stress across the wall that balance themselves, as of heat or of a fit.

    Parameters
    ----------
    membrane : float or text with a unit, default 0.0
        Q_m, MPa.
    bending : float or text with a unit, default 0.0
        Q_b, MPa; above 0 where it pulls at the face with the flaw.
    of : str, default "heat"
        What it comes from, in words: "heat", or "residual" for residual stress of a weld.

    Raises
    ------
    InputError
        For a unit of another kind.

    Examples
    --------
    >>> SecondaryStresses(membrane="80 MPa", bending="20 MPa", of="residual").stress(None, 0.0, None)[:2]
    (80.0, 20.0)
    """

    membrane: Coherent = Coherent("stress", default=0.0)
    bending: Coherent = Coherent("stress", default=0.0)
    of: str = "heat"

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """As it is."""
        return Balanced(self.membrane, self.bending)


RELAXED = {
    "no": "it stays at yield",
    "by the load": "by the load of the assessment, and then stays",
    "with the load": "by every load, also that of a reserve factor",
}


@SECONDARY.add("as welded")
@dataclass(frozen=True, kw_only=True)
class AsWelded(Secondary):
    """Residual stress of a weld as welded: uniform at yield, which the load may relax.

    Relaxed it is min(σ_y, (1.4 - σ_ref/σ_f) σ_y), not below 0, σ_f = (σ_y + σ_u)/2.

    Parameters
    ----------
    yield_strength : float or text with a unit, optional
        Of the metal that sets it, MPa; by default of the weld where it is known, else of the material.
    relaxed : str, default "no"
        Whether the load relaxes it: one of `RELAXED`.

    Raises
    ------
    InputError
        For another word.

    Examples
    --------
    >>> AsWelded(relaxed="by the load").kind
    'as welded'
    """

    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    relaxed: str = "no"

    def __post_init__(self) -> None:
        if self.relaxed not in RELAXED:
            raise InputError(
                inside("as welded", "relaxed"), repr(self.relaxed), "'no', 'by the load' or 'with the load'"
            )

    @property
    def follows(self) -> bool:
        """Where a load relaxes it."""
        return self.relaxed != "no"

    @property
    def moves(self) -> bool:
        """Where every load relaxes it."""
        return self.relaxed == "with the load"

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """At yield, or relaxed."""
        own = yield_of(metal, self.yield_strength)
        if self.relaxed == "no":
            return Balanced(own)
        low, high = metal.strengths
        return Balanced(max(0.0, min(own, (1.4 - 2.0 * reference_stress / (low + high)) * own)))

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """At yield, or relaxed."""
        own, value = yield_of(metal, self.yield_strength), self.stress(metal, reference_stress, wall).membrane
        if self.relaxed == "no":
            return (
                Step("Residual stress as welded", "Q_m = σ_y", f"{put_in(own)} MPa", value, "MPa", "BS 7910, annex Q"),
            )
        low, high = metal.strengths
        flow = 0.5 * (low + high)
        numbers = f"min({put_in(own)}, (1.4 - {put_in(reference_stress)} / {put_in(flow)}) × {put_in(own)})"
        formula = "Q_m = min(σ_y, (1.4 - σ_ref / σ_f) × σ_y), σ_f = (σ_y + σ_u) / 2"
        return (Step("Residual stress, relaxed by the load", formula, numbers, value, "MPa", "BS 7910, annex Q"),)


def yield_of(metal: Metal, stated: float | None) -> float:
    """The yield strength that sets a residual stress, MPa."""
    if stated is not None:
        return stated
    return (
        metal.weld.yield_strength
        if metal.weld is not None
        else metal.material.needed("yield_strength", "residual stress")
    )


HEAT_TREATED = {"along the weld": 0.3, "across the weld": 0.2}


@SECONDARY.add("heat treated")
@dataclass(frozen=True, kw_only=True)
class HeatTreated(Secondary):
    """What heat treatment after welding leaves: a share of yield, 30 % along the weld, 20 % across it, unless stated.

    Parameters
    ----------
    stress_acts : str
        Which stress pulls at the flaw: "along the weld" or "across the weld".
    share : float, optional
        Share of the yield strength that is left, -.
    yield_strength : float or text with a unit, optional
        Of the metal that sets it, MPa; by default of the weld where it is known, else of the material.

    Raises
    ------
    InputError
        For another direction, or a share above 1.

    Examples
    --------
    >>> HeatTreated(stress_acts="across the weld").part
    0.2
    """

    stress_acts: str
    share: OptionalCoherent = OptionalCoherent("number", at_least=0.0, below=1.0)
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)

    def __post_init__(self) -> None:
        if self.stress_acts not in HEAT_TREATED:
            raise InputError(
                inside("heat treated", "stress_acts"), repr(self.stress_acts), "'along the weld' or 'across the weld'"
            )

    @property
    def part(self) -> float:
        """Share of the yield strength, -."""
        return HEAT_TREATED[self.stress_acts] if self.share is None else self.share

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """The share of yield."""
        return Balanced(self.part * yield_of(metal, self.yield_strength))

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """The share of yield."""
        own = yield_of(metal, self.yield_strength)
        numbers = f"{put_in(self.part)} × {put_in(own)} MPa"
        value = self.part * own
        return (
            Step(
                "Residual stress after heat treatment", "Q_m = share × σ_y", numbers, value, "MPa", "BS 7910, annex Q"
            ),
        )


@SECONDARY.add("profile")
@dataclass(frozen=True, kw_only=True, eq=False)
class ProfileStress(Secondary):
    """A stress over the wall, as measured: rows of depth below the face with the flaw and stress, straight between.

    Parameters
    ----------
    points : sequence of rows
        Depth, mm, from 0, and stress, MPa, each or text with its unit.

    Raises
    ------
    InputError
        For depths that do not ascend from 0.

    Examples
    --------
    >>> own = ProfileStress(points=[(0.0, 200.0), (10.0, -50.0), (25.0, 60.0)])
    >>> float(own.stress(None, 0.0, 25.0).profile(5.0))
    75.0
    """

    points: Sequence[Any]

    def __post_init__(self) -> None:
        given: Any = self.points
        if not isinstance(given, StressProfile):
            object.__setattr__(self, "points", StressProfile(given, where=inside("secondary stress", "points")))

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """As measured."""
        own: Any = self.points
        return Balanced(profile=own)


# Stress over yield at z, the depth over the wall from the face with the weld's last pass.
WELD_PROFILES: dict[str, tuple[tuple[float, ...], str]] = {
    "butt weld, across": (
        (0.9415, -0.0319, -8.3394, 8.660),
        "SINTAP 1999; BS 7910, annex Q: plate butt weld, transverse",
    ),
    "T-butt weld, across": (
        (0.97, 2.3267, -24.125, 42.485, -21.087),
        "SINTAP 1999; BS 7910, annex Q: T-butt and fillet weld, transverse",
    ),
    "thin pipe butt weld, across": ((1.0, -2.0), "R6: walls to 15 mm, yield at the face, minus yield at the root"),
    "along the weld": ((1.0,), "yield over the whole wall"),
}


@SECONDARY.add("weld profile")
@dataclass(frozen=True, kw_only=True)
class WeldProfile(Secondary):
    """The residual stress over the wall of a common weld as welded: a polynomial of the depth times the yield strength.

    Parameters
    ----------
    weld : str
        One of `WELD_PROFILES`.
    yield_strength : float or text with a unit, optional
        Of the metal that sets it, MPa; by default of the weld where it is known, else of the material.

    Raises
    ------
    InputError
        For another weld, and at a flaw whose shape has no wall.

    Examples
    --------
    >>> WeldProfile(weld="butt weld, across").coefficients
    (0.9415, -0.0319, -8.3394, 8.66)
    """

    weld: str
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)

    def __post_init__(self) -> None:
        if self.weld not in WELD_PROFILES:
            names = ", ".join(repr(one) for one in WELD_PROFILES)
            raise InputError(inside("weld profile", "weld"), repr(self.weld), f"one of {names}")

    @property
    def coefficients(self) -> tuple[float, ...]:
        """Of 1, z, z², ... times the yield strength."""
        return WELD_PROFILES[self.weld][0]

    def stress(self, metal: Metal, reference_stress: float, wall: float | None) -> Balanced:
        """The polynomial over the wall, on fine points."""
        if wall is None:
            raise InputError("weld profile", "a flaw whose shape has no wall", "a plate, cylinder or sphere")
        own = yield_of(metal, self.yield_strength)
        if len(self.coefficients) <= 2:
            first, slope = (*self.coefficients, 0.0)[:2]
            return Balanced(own * (first + 0.5 * slope), -0.5 * own * slope)
        z = np.linspace(0.0, 1.0, 101)
        stress = own * np.polynomial.polynomial.polyval(z, self.coefficients)
        return Balanced(profile=StressProfile(np.column_stack([wall * z, stress]).tolist(), where="weld profile"))

    def steps(self, metal: Metal, reference_stress: float, wall: float | None) -> tuple[Step, ...]:
        """The stress at the face."""
        own = yield_of(metal, self.yield_strength)
        terms = " + ".join(f"{put_in(one)} × z^{i}" if i else put_in(one) for i, one in enumerate(self.coefficients))
        numbers, source = f"({terms}) × {put_in(own)} MPa", WELD_PROFILES[self.weld][1]
        title = f"Residual stress at the face (z = 0), {self.weld}"
        return (Step(title, "Q(z) = (polynomial) × σ_y", numbers, own * self.coefficients[0], "MPa", source),)
