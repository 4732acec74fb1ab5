"""The generalised Willenborg model: a residual stress intensity within the zone of the largest cycle lowers K."""

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


@RETARDATIONS.add("willenborg")
@dataclass(frozen=True, kw_only=True)
class Willenborg(Retardation):
    """K falls by φ (K_ol √(1 - (a - a_ol) / r_ol) - K_max), φ = (1 - `threshold_maximum` / K_max) / (`shut_off` - 1).

    `threshold_maximum`, MPa√mm, is the largest K at the threshold. Zones as Wheeler's. Willenborg, J. et al. (1971), AFFDL-
    TM-71-1-FBR, in the general form of Gallagher, J. P. and Hughes, T. F. (1974), AFFDL-TR-74-27.

    Parameters
    ----------
    shut_off : float, default 3.0
        Ratio of overload at which the crack stops, -.
    threshold_maximum : float or text with a unit, default 0.0
        Largest K at the threshold, MPa√mm.
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
    >>> Willenborg(yield_strength="350 MPa", shut_off=2.5).zone_words(700.0)
    '0.4244 mm at the start, plane strain, yield 350 MPa'
    """

    shut_off: Coherent = Coherent("number", above=1.0, default=3.0)
    threshold_maximum: Coherent = Coherent("stress intensity", at_least=0.0, default=0.0)
    constraint: str = "plane strain"
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    has_zones: ClassVar[bool] = True
    method: ClassVar[str] = "Willenborg 1971; Gallagher and Hughes 1974"
    slows_the_rate: ClassVar[bool] = False

    def __post_init__(self) -> None:
        check_zone(self)

    @property
    def row(self) -> tuple[float, ...]:
        """β, yield strength, shut-off ratio, largest K at the threshold."""
        return (ZONES[self.constraint], needed_strength(self), self.shut_off, self.threshold_maximum)

    @staticmethod
    def slowed(q: Any, kept: Any, k_max: float, k_min: float, a: float, out: Any) -> int:
        """Keeps K, size and zone of the last cycle that was the largest."""
        zone = q[0] * (k_max / q[1]) ** 2
        if not a + zone < kept[1] + kept[2]:
            kept[0] = k_max
            kept[1] = a
            kept[2] = zone
            return 0
        left = 1.0 - (a - kept[1]) / kept[2]
        residual = (1.0 - q[3] / k_max) / (q[2] - 1.0) * (kept[0] * left**0.5 - k_max)
        if residual <= 0.0:
            return 0
        out[0] = k_max - residual
        out[1] = max(k_min - residual, 0.0)
        return 2

    def zone_words(self, k_max: float, units: UnitSystem = "metric") -> str:
        """The plastic zone at `k_max`, MPa√mm, and what it was reckoned with."""
        return zone_in_words(self, k_max, units)
