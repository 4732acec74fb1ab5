"""Strengths of a material, as its certificate or the standard gives them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, field_of, inside
from vivid_anvil.units import OptionalCoherent, number, sound

GROUPS = ("steel", "cast steel", "nodular iron", "malleable iron", "grey iron", "wrought aluminium", "cast aluminium")


@sound
@dataclass(frozen=True, kw_only=True)
class Material:
    """Ultimate and yield strength, MPa, fracture toughness, MPa√mm, and what mean-stress rules need; each may be left out.

    `true_fracture_strength` and `fatigue_strength_coefficient`, MPa; `walker_exponent`, between 0 and 1, or "estimated" from the
    ultimate strength of a steel; `mean_stress_sensitivity`, or a `group` from which it is estimated ("steel", "cast steel",
    "nodular iron", "malleable iron", "grey iron", "wrought aluminium", "cast aluminium").

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    ultimate_strength : float or text with a unit, optional
        Tensile strength, MPa.
    yield_strength : float or text with a unit, optional
        Yield strength or 0.2 % proof strength, MPa.
    toughness : float or text with a unit, optional
        Fracture toughness, MPa√mm or text such as "75 MPa√m".
    true_fracture_strength : float or text with a unit, optional
        True stress at fracture, MPa; for the rule of Morrow.
    fatigue_strength_coefficient : float or text with a unit, optional
        σ_f' of the strain-life curve, MPa; for the rule of Morrow.
    walker_exponent : float or {'estimated'}, optional
        γ of Walker's rule, -; "estimated": from the strength.
    mean_stress_sensitivity : float, optional
        M of the mean-stress sensitivity, -.
    group : str, optional
        Which group of materials it belongs to: one of `GROUPS`.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = Material(name="S355", ultimate_strength="510 MPa", yield_strength="355 MPa", toughness="80 MPa√m")
    >>> round(steel.toughness, 1)
    2529.8
    """

    name: str
    ultimate_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    toughness: OptionalCoherent = OptionalCoherent("stress intensity", above=0.0)
    true_fracture_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    fatigue_strength_coefficient: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    walker_exponent: float | Literal["estimated"] | None = None
    mean_stress_sensitivity: float | None = None
    group: str | None = None
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(field_of("Material", "name"), self.name)
        ultimate, yielding = self.ultimate_strength, self.yield_strength
        if ultimate is not None and yielding is not None and yielding > ultimate:
            raise InputError(
                inside(f"material {self.name}", "yield_strength"),
                f"{number(yielding)} MPa",
                f"at most the ultimate strength, {number(ultimate)} MPa",
                "Are the two exchanged?",
            )

        exponent = self.walker_exponent
        if exponent is not None and not (isinstance(exponent, str) and exponent == "estimated"):
            self._between("walker_exponent", exponent, 0.0, 1.0, "an exponent γ above 0 and at most 1, or 'estimated'")
        if self.mean_stress_sensitivity is not None:
            self._between(
                "mean_stress_sensitivity", self.mean_stress_sensitivity, -1e-9, 1.0, "a sensitivity M from 0 to 1"
            )
        if self.group is not None:
            checks.one_of(inside(f"material {self.name}", "group"), self.group, GROUPS)

    def _between(self, field: str, value: float, low: float, high: float, expected: str) -> None:
        if not low < checks.real_number(f"material {self.name}, {field}", value, expected) <= high:
            raise InputError(f"material {self.name}, {field}", f"{value:g}", expected)

    def needed(self, field: str, purpose: str) -> float:
        """The value of `field`; InputError, which names the purpose, where the material does not have it."""
        value: float | None = getattr(self, field)
        if value is None:
            card = f" (of {self.source.partition(':')[0]})" if self.source.startswith("card ") else ""
            raise InputError(
                f"material {self.name}{card}",
                f"no {field}",
                f"a value, needed for {purpose}",
                f"Add {field} to the material.",
            )
        return value
