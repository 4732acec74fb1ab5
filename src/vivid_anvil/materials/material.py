"""Strengths of a material, as its certificate or the standard gives them."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil import checks
from vivid_anvil.errors import InputError
from vivid_anvil.units import OptionalCoherent, number


@dataclass(frozen=True, kw_only=True)
class Material:
    """Ultimate and yield strength, MPa, and fracture toughness, MPa√mm; each may be left out (None).

    >>> steel = Material(name="S355", ultimate_strength="510 MPa", yield_strength="355 MPa", toughness="80 MPa√m")
    >>> round(steel.toughness, 1)
    2529.8
    """

    name: str
    ultimate_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    toughness: OptionalCoherent = OptionalCoherent("stress intensity", above=0.0)
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text("Material.name", self.name)
        ultimate, yielding = self.ultimate_strength, self.yield_strength
        if ultimate is not None and yielding is not None and yielding > ultimate:
            raise InputError(
                f"material {self.name}, yield_strength",
                f"{number(yielding)} MPa",
                f"at most the ultimate strength, {number(ultimate)} MPa",
                "Are the two exchanged?",
            )

    def needed(self, field: str, purpose: str) -> float:
        """The value of `field`; InputError, which names the purpose, where the material does not have it."""
        value: float | None = getattr(self, field)
        if value is None:
            raise InputError(
                f"material {self.name}",
                f"no {field}",
                f"a value, needed for {purpose}",
                f"Add {field} to the material.",
            )
        return value
