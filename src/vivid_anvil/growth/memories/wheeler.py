"""Wheeler's model: the rate falls within the plastic zone of the largest cycle so far."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.growth.memories.retardation import (
    RETARDATIONS,
    ZONES,
    Retardation,
    check_zone,
    needed_strength,
    zone_in_words,
)
from vivid_anvil.units import Coherent, OptionalCoherent, UnitSystem


@RETARDATIONS.add("wheeler")
@dataclass(frozen=True, kw_only=True)
class Wheeler(Retardation):
    """The rate times (r_p / (X - a))^`exponent` while the zone r_p stays within X, the farthest that one has reached.

    Zones r_p = β (K_max / `yield_strength`)², β by `constraint`; the yield strength, MPa, is that of the material unless stated.
    Wheeler, O. E. (1972), J. Basic Eng. 94, 181-186.

    Parameters
    ----------
    exponent : float, default 1.0
        Exponent of the share of the zone, -.
    constraint : str, default "plane strain"
        Of the plastic zones: one of `ZONES`.
    yield_strength : float or text with a unit, optional
        Yield strength or 0.2 % proof strength, MPa.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> Wheeler(yield_strength="350 MPa", exponent=1.3).zone_words(700.0)
    '0.4244 mm at the start, plane strain, yield 350 MPa'
    """

    exponent: Coherent = Coherent("number", at_least=0.0, default=1.0)
    constraint: str = "plane strain"
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    has_zones: ClassVar[bool] = True
    method: ClassVar[str] = "Wheeler 1972"

    def __post_init__(self) -> None:
        check_zone(self)

    @property
    def row(self) -> tuple[float, ...]:
        """β, yield strength, exponent."""
        return (ZONES[self.constraint], needed_strength(self), self.exponent)

    @staticmethod
    def slowed(q: Any, kept: Any, k_max: float, k_min: float, a: float, out: Any) -> int:
        """Keeps how far the farthest zone reaches."""
        zone = q[0] * (k_max / q[1]) ** 2
        if a + zone < kept[0]:
            out[0] = (zone / (kept[0] - a)) ** q[2]
            return 1
        kept[0] = a + zone
        return 0

    def zone_words(self, k_max: float, units: UnitSystem = "metric") -> str:
        """The plastic zone at `k_max`, MPa√mm, and what it was reckoned with."""
        return zone_in_words(self, k_max, units)
