"""What is known of a material: strengths, S-N curves and growth laws, each with unit, scatter and source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.laws.law import GrowthLaw
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.plies.ply import Ply
from vivid_anvil.materials.rubber.rubber import Rubber
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.units import in_unit


@dataclass(frozen=True)
class CardValue:
    """A value in the coherent unit of its dimension, its scatter in words (or "not stated"), and its source."""

    name: str
    value: float
    dimension: str
    scatter: str
    source: str

    @property
    def text(self) -> str:
        """The value with its unit."""
        return in_unit(self.value, self.dimension)


@dataclass(frozen=True, eq=False, repr=False)
class MaterialCard:
    """What is known of a material: `basis` says in a word where it comes from ("typical", "tests", ...).

    >>> from vivid_anvil import read_card_named
    >>> card = read_card_named("structural-steel-355")
    >>> card.material.yield_strength, card.basis
    (355.0, 'typical')
    """

    key: str
    name: str
    group: str
    basis: str
    source: str
    note: str
    values: Mapping[str, CardValue]
    curves: Mapping[str, SNCurve]
    laws: Mapping[str, GrowthLaw]
    strain_lives: Mapping[str, StrainLife]
    rubber: Rubber | None = None
    ply: Ply | None = None

    @property
    def material(self) -> Material:
        """The strengths, for a hot spot."""
        known: dict[str, Any] = {
            key: self.values[key].value
            for key in ("ultimate_strength", "yield_strength", "toughness")
            if key in self.values
        }
        return Material(name=self.name, source=f"card {self.key}: {self.source}", **known)

    def curve(self, name: str | None = None) -> SNCurve:
        """The S-N curve of that name, or the only one; InputError with the names that there are."""
        return self.curves[_the_one(self.curves, name, f"card {self.key}", "S-N curve")]

    def strain_life(self, name: str | None = None) -> StrainLife:
        """The strain-life curve of that name, or the only one."""
        return self.strain_lives[_the_one(self.strain_lives, name, f"card {self.key}", "strain-life curve")]

    def law(self, name: str | None = None) -> GrowthLaw:
        """The growth law of that name, or the only one."""
        return self.laws[_the_one(self.laws, name, f"card {self.key}", "growth law")]

    @property
    def rubber_there(self) -> Rubber:
        """The rubber; InputError where it is another material."""
        if self.rubber is None:
            raise InputError(f"card {self.key}", "no rubber", "a card with a table [rubber]")
        return self.rubber

    @property
    def ply_there(self) -> Ply:
        """The ply; InputError where it is another material."""
        if self.ply is None:
            raise InputError(f"card {self.key}", "no ply", "a card with a table [ply]")
        return self.ply

    def __repr__(self) -> str:
        return f"<MaterialCard {self.key}: {self.name}, {self.group}, {self.basis}>"


def _the_one(known: Mapping[str, Any], name: str | None, where: str, what: str) -> str:
    """The name, or the only one there is."""
    if name is None and len(known) == 1:
        return next(iter(known))
    if name is None or name not in known:
        found = f"no {what}" if not known else f"{len(known)} {what}s, and none named" if name is None else repr(name)
        expected = f"one of {listed(known)}" if known else f"a card with a {what}"
        raise InputError(where, found, expected, did_you_mean(name or "", known))
    return name
