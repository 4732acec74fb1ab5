"""Residual stress of a weld as welded: at yield, which the load may relax."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.acceptance.stresses.secondary import SECONDARY, Balanced, Secondary, yield_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.units import OptionalCoherent, sound
from vivid_anvil.writing.working import Step, put_in

RELAXED = {
    "no": "it stays at yield",
    "by the load": "by the load of the assessment, and then stays",
    "with the load": "by every load, also that of a reserve factor",
}


@sound
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
