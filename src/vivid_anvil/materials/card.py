"""Material cards: one TOML file a material, with strengths, S-N curves and growth laws, each with unit, scatter and source.

A set of generic cards is shipped; users keep their own in a folder that they name. A card is checked on reading.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.ground.files import read_toml
from vivid_anvil.materials.curves.checks import BASES
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.curves.section import Place, curve_of_section
from vivid_anvil.materials.laws.law import GrowthLaw
from vivid_anvil.materials.material import Material
from vivid_anvil.units import coherent, in_unit, split
from vivid_anvil.units.sections import checked

FORMAT = 1
GROUPS = ("steel", "cast iron", "aluminium", "titanium", "rubber", "other")
# What a card may hold, and its dimension.
VALUES = {
    "ultimate_strength": "stress",
    "yield_strength": "stress",
    "elastic_modulus": "stress",
    "toughness": "stress intensity",
    "brinell_hardness": "number",
    "shore_a_hardness": "number",
    "poisson_ratio": "number",
}
_KEYS = {
    "format": "a number",
    "name": "text",
    "group": "text",
    "basis": "text",
    "source": "text",
    "note": "text",
    **dict.fromkeys(VALUES, "anything"),
    "sn_curves": "table",
    "growth_laws": "table",
}
_VALUE_KEYS = {"value": "anything", "scatter": "text", "source": "text"}
_LAW_KEYS = {
    "rate": "text",
    "slope": "a number",
    "threshold": "stress intensity",
    "r_ratio": "a number",
    "scatter": "text",
    "source": "text",
    "form": "text",
    "values": "table",
    "threshold_model": "text",
    "threshold_exponent": "a number",
}


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

    def law(self, name: str | None = None) -> GrowthLaw:
        """The growth law of that name, or the only one."""
        return self.laws[_the_one(self.laws, name, f"card {self.key}", "growth law")]

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


def read_card(path: str | Path) -> MaterialCard:
    """The material card in a TOML file; InputError with the key for anything that cannot be meant."""
    path = Path(path)
    data = checked(read_toml(path, "a material card"), _KEYS, path.name, ("format", "name", "group", "basis", "source"))
    if data["format"] != FORMAT:
        raise InputError(
            f"{path.name}, format", f"{data['format']:g}", f"format = {FORMAT}", "It is of another version."
        )
    checks.one_of(f"{path.name}, group", data["group"], GROUPS)
    checks.one_of(f"{path.name}, basis", data["basis"], BASES)
    source = data["source"]
    return MaterialCard(
        key=path.stem,
        name=data["name"],
        group=data["group"],
        basis=data["basis"],
        source=source,
        note=data.get("note", ""),
        values={key: _value(data[key], key, f"{path.name}, {key}", source) for key in VALUES if key in data},
        curves={name: _curve(path, name, section, data) for name, section in data.get("sn_curves", {}).items()},
        laws={
            name: _law(section, data["name"], f"{path.name}, growth_laws, {name}", source)
            for name, section in data.get("growth_laws", {}).items()
        },
    )


def _value(given: Any, key: str, where: str, source: str) -> CardValue:
    """A value: text with its unit, or a table of value, scatter and source."""
    parts = checked(given, _VALUE_KEYS, where, ("value",)) if isinstance(given, dict) else {"value": given}
    dimension, value = VALUES[key], parts["value"]
    if dimension == "number":
        number = checks.positive_number(where, value)
    else:
        if not isinstance(value, str):
            split(str(value), where, "", dimension)  # refuses the bare number in the words of the door
        number = coherent(value, dimension, where)
        if not number > 0.0:
            raise InputError(where, repr(value), "a value above 0")
    return CardValue(key, number, dimension, parts.get("scatter", "not stated"), parts.get("source", source))


def _curve(path: Path, name: str, section: Any, data: Mapping[str, Any]) -> SNCurve:
    where = f"{path.name}, sn_curves, {name}"
    if not isinstance(section, dict):
        raise InputError(where, repr(section), "a table of keys")

    def no_card(card: str, curve: str | None) -> SNCurve:  # noqa: ARG001
        raise InputError(where, "a curve of another card", "the curve itself", "A card stands alone.")

    full = {"basis": data["basis"], "source": data["source"], **section} if "stress" in section else section
    return curve_of_section(f"{path.stem}, {name}", full, Place(where, path.parent, no_card))


def _law(section: Any, name: str, where: str, source: str) -> GrowthLaw:
    if not isinstance(section, dict):
        raise InputError(where, repr(section), "a table of keys")
    values = checked(section, _LAW_KEYS, where, () if section.get("form") == "table" else ("rate", "slope"))
    return GrowthLaw(name=name, **{"source": source, **values})


@lru_cache(maxsize=1)
def shipped_cards() -> dict[str, MaterialCard]:
    """The generic cards that come with the package, by key."""
    return cards_in(Path(str(files("vivid_anvil.materials") / "data" / "cards")))


def cards_in(folder: str | Path) -> dict[str, MaterialCard]:
    """All cards of a folder, by key (the file's name without its ending), each checked."""
    place = Path(folder)
    if not place.is_dir():
        raise InputError(str(place), "no such folder", "a folder of material cards")
    return {path.stem: read_card(path) for path in sorted(place.glob("*.toml"))}


def read_card_named(name: str, folder: str | Path | None = None) -> MaterialCard:
    """The card of that key or name, from `folder` first, then from those shipped; InputError with the nearest name."""
    known = {**shipped_cards(), **({} if folder is None else cards_in(folder))}
    for key, card in known.items():
        if name.lower() in (key.lower(), card.name.lower()):
            return card
    hint = did_you_mean(name, [*known, *(card.name for card in known.values())])
    raise InputError("card", repr(name), f"one of {listed(known)}", hint)


def find_cards(words: str = "", folder: str | Path | None = None) -> list[MaterialCard]:
    """The cards in whose key, name, group or note all `words` stand; all cards for no words."""
    known = {**shipped_cards(), **({} if folder is None else cards_in(folder))}
    wanted = words.lower().split()

    def text(card: MaterialCard) -> str:
        return " ".join((card.key, card.name, card.group, card.note)).lower()

    return [card for card in known.values() if all(word in text(card) for word in wanted)]
