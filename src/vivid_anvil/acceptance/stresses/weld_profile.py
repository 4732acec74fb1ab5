"""Residual stress over the wall of common welds as welded, by polynomials."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.acceptance.stresses.secondary import SECONDARY, Balanced, Secondary, yield_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.shapes.solutions import StressProfile
from vivid_anvil.units import OptionalCoherent, sound
from vivid_anvil.writing.working import Step, put_in

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


@sound
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
