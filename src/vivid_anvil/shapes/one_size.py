"""Through-thickness cracks in a plate of finite width: stress intensity, net section, limit of validity.

In: crack size a and plate width, mm, remote tension S, MPa. Out: geometry factor Y of K = Y S sqrt(π a), and the stress
at which the rest of the section yields.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, share_of_one
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.shapes.solutions.collapse import reference_stress, through_reference_stress
from vivid_anvil.shapes.solutions.profile import StressProfile
from vivid_anvil.shapes.solutions.through import FACTORS, geometry_factor
from vivid_anvil.shapes.solutions.weight import edge_crack_by_weight
from vivid_anvil.units import LENGTHS, STRESS, STRESSES, Coherent, inner, many, opened
from vivid_anvil.writing.working import Step, put_in

_through_reference_stress = inner(through_reference_stress)


@SHAPES.add("centre")
@dataclass(frozen=True, repr=False)
class CentreCrack(OneSizeShape):
    """Through crack of length 2a in the middle of a plate of width W under tension.

    Y = sqrt(sec(π a / W)) (Feddersen, C. E. 1966, ASTM STP 410, 77-79; also ASTM E647): within 0.9 % for 2a/W <= 0.8. Net
    section: S W / (W - 2a).

    Parameters
    ----------
    plate_width : float or text with a unit
        Width of the plate, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(CentreCrack("100 mm").geometry_factor(20.0)), 5)
    1.11179
    """

    plate_width: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "half of the crack length"
    factor_formula: ClassVar[str] = "Y = √(1 / cos(π × x))"
    source: ClassVar[str] = "Feddersen 1966"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.plate_width

    @property
    def largest_size(self) -> float:
        """0.8 of the half width, mm."""
        return 0.4 * self.plate_width

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -, at half lengths `size`, mm."""
        return np.asarray(1.0 / np.sqrt(np.cos(np.pi * np.asarray(size, dtype=np.float64) / self.plate_width)))

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S W / (W - 2a), MPa."""
        return stress / (1.0 - 2.0 * np.asarray(size, dtype=np.float64) / self.plate_width)

    def scales_of_bending(self, *sizes: float) -> tuple[float, ...]:
        """As if the stress of the outer face pulled on the whole wall: on the safe side."""
        return self.scales(*sizes)

    def reference_stress_of(self, membrane: float, bending: float, *sizes: float) -> float:
        """(P_b + √(P_b² + 9 P_m²)) / (3 (1 - 2a/W)), MPa: BS 7910, annex P."""
        (size,) = sizes
        return float(_through_reference_stress(abs(membrane), abs(bending), size, self.plate_width))

    def reference_steps(self, membrane: float, bending: float, sizes: Sequence[float]) -> list[Step]:
        """The formula with its numbers."""
        (size,) = sizes
        m, b = put_in(abs(membrane)), put_in(abs(bending))
        numbers = f"({b} + √({b}^2 + 9 × {m}^2)) / (3 × (1 - 2 × {put_in(size)} / {put_in(self.plate_width)}))"
        formula = "σ_ref = (P_b + √(P_b^2 + 9 × P_m^2)) / (3 × (1 - 2 × a / W))"
        value = self.reference_stress_of(membrane, bending, size)
        return [Step("Reference stress of the section", formula, numbers, value, "MPa", "BS 7910, annex P")]

    def factor_numbers(self, size: float) -> str:
        """The formula of Y with x = a / W put in."""
        return f"√(1 / cos(π × {put_in(size / self.plate_width)}))"

    def __repr__(self) -> str:
        return f"<CentreCrack in a plate {self.plate_width:g} mm wide>"


@SHAPES.add("edge")
@dataclass(frozen=True, repr=False)
class EdgeCrack(OneSizeShape):
    """Through crack of length a from one edge of a plate of width W under tension, its ends free to rotate.

    Y = sqrt(2/(πx) tan(πx/2)) (0.752 + 2.02 x + 0.37 (1 - sin(πx/2))^3) / cos(πx/2), x = a/W (Tada, H., Paris, P. C. and Irwin,
    G. R., The stress analysis of cracks handbook): within about 0.6 % for any x; used to x = 0.9. With a `bending_share` that
    part of the outer stress is bending in the plane; its factor is that of the same handbook. Net section: the stress at which
    the ligament collapses under the tension and the bending that its eccentricity brings, S (x + sqrt(x^2 + (1 - x)^2)) / (1 -
    x)^2 in tension (two stress blocks; form of BS 7910, annex P).

    Parameters
    ----------
    plate_width : float or text with a unit
        Width of the plate, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending, from 0 to 1, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(EdgeCrack("40 mm").geometry_factor(10.0)), 5)
    1.4941
    >>> round(float(EdgeCrack("40 mm", bending_share=1.0).geometry_factor(10.0)), 5)
    1.05818
    """

    plate_width: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "crack length from the edge"
    source: ClassVar[str] = "Tada, Paris and Irwin"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.plate_width

    weighs: ClassVar[bool] = True

    def __post_init__(self) -> None:
        share_of_one("edge crack, bending_share", self.bending_share)

    @property
    def factor_formula(self) -> str:
        """Y in symbols."""
        tension, bending = (FACTORS[f"edge, {load}"].symbols for load in ("tension", "bending"))
        return f"Y = {tension}" if self.bending_share == 0.0 else f"Y = (1 - β) × {tension} + β × {bending}"

    @property
    def largest_size(self) -> float:
        """0.9 of the width, mm."""
        return 0.9 * self.plate_width

    @property
    def weight_reach(self) -> float:
        """Half of the width, mm: as far as the weight function goes."""
        return 0.5 * self.plate_width

    def k_of_stress(self, stress: StressProfile, size: ArrayLike) -> FloatArray:
        """K, MPa√mm, of any stress across the plate, by weight function; to half of the width."""
        return edge_crack_by_weight(stress, size, self.plate_width)

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -, at lengths `size`, mm."""
        x = np.asarray(size, dtype=np.float64) / self.plate_width
        tension = geometry_factor("edge, tension", x)
        if self.bending_share == 0.0:
            return tension
        return (1.0 - self.bending_share) * tension + self.bending_share * geometry_factor("edge, bending", x)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """Collapse stress of the ligament under force and eccentricity, MPa."""
        x = np.asarray(size, dtype=np.float64) / self.plate_width
        membrane, bending = (1.0 - self.bending_share) * stress, self.bending_share * stress
        return reference_stress(membrane, bending + 3.0 * membrane * x, x)

    def factor_numbers(self, size: float) -> str:
        """The formula of Y with x = a / W put in."""
        tension, bending = (
            _with_x(FACTORS[f"edge, {load}"].symbols, size / self.plate_width) for load in ("tension", "bending")
        )
        if self.bending_share == 0.0:
            return tension
        return f"{put_in(1.0 - self.bending_share)} × {tension} + {put_in(self.bending_share)} × {bending}"

    def __repr__(self) -> str:
        return f"<EdgeCrack in a plate {self.plate_width:g} mm wide>"


def _with_x(symbols: str, x: float) -> str:
    """A formula with the number in the place of x."""
    return re.sub(r"\bx\b", put_in(x), symbols)


@opened(size=many("length"), stress=STRESSES)
def stress_intensity(shape: OneSizeShape, size: ArrayLike, stress: ArrayLike) -> FloatArray:
    """K = Y S sqrt(π a), MPa√mm (Irwin, G. R. 1957, J. Appl. Mech. 24, 361-364).

    Parameters
    ----------
    shape : OneSizeShape
        Shape of crack and part.
    size : array_like or text with a unit
        Size of the crack, mm.
    stress : array_like or text with a unit
        Nominal stress, MPa.

    Returns
    -------
    ndarray
        K, MPa√mm, of the broadcast shape.

    Raises
    ------
    InputError
        Beyond the shape's validity.

    Examples
    --------
    >>> float(stress_intensity(EdgeCrack(40.0), 10.0, 50.0)).__round__(2)
    418.72
    """
    sizes = np.asarray(size, dtype=np.float64)
    if not ((sizes > 0.0) & (sizes <= shape.largest_size)).all():
        raise InputError(
            inside(f"{shape.kind} crack", "size"),
            f"{sizes.min():g} to {sizes.max():g} mm",
            f"sizes above 0 and up to {shape.largest_size:g} mm",
            f"Beyond, the solution ({shape.source}) is not valid.",
        )
    return shape.geometry_factor(sizes) * np.asarray(stress, dtype=np.float64) * np.sqrt(np.pi * sizes)
