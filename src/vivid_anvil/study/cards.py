"""Material cards: one TOML file a material, with strengths, S-N curves and growth laws, each with unit, scatter and source.

A set of generic cards is shipped; users keep their own in a folder that they name. A card is checked on reading.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.ground.files import read_toml
from vivid_anvil.materials import CardValue, GrowthLaw, MaterialCard, SNCurve
from vivid_anvil.materials.curves.checks import BASES
from vivid_anvil.materials.curves.section import Place, curve_of_section
from vivid_anvil.study.growth_law_keys import growth_law_keys, law_of
from vivid_anvil.study.key_errors import as_input_error
from vivid_anvil.units import coherent, split
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


def read_card(path: str | Path) -> MaterialCard:
    r"""The material card in a TOML file.

    Parameters
    ----------
    path : str or path
        The file.

    Returns
    -------
    MaterialCard
        The card.

    Raises
    ------
    InputError
        With the key for anything that cannot be meant.

    Examples
    --------
    >>> from pathlib import Path
    >>> card = 'format = 1\nname = "plate"\ngroup = "steel"\nbasis = "tests"\nsource = "own"\nyield_strength = "362 MPa"\n'
    >>> _ = Path("plate.toml").write_text(card)
    >>> read_card("plate.toml")
    <MaterialCard plate: plate, steel, tests>
    """
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
            name: _law(path, name, section, data["name"], source)
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


def _law(path: Path, key: str, section: Any, name: str, source: str) -> GrowthLaw:
    where = f"{path.name}, growth_laws, {key}"
    if not isinstance(section, dict):
        raise InputError(where, repr(section), "a table of keys")
    for kind in ("card", "fitted"):
        if kind in (section.get("kind"), *section):
            raise InputError(where, f"a law of the kind {kind!r}", "the law itself", "A card stands alone.")
    model = growth_law_keys()
    try:
        law = TypeAdapter(model).validate_python(section)
    except ValidationError as error:
        raise as_input_error(path.name, section, error, model, ("growth_laws", key)) from None
    try:
        return law_of(name, law, source=source)
    except InputError as error:
        raise InputError(f"{where}, {error.where}", error.found, error.expected, error.remedy) from None


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
    """The card of that key or name, from `folder` first, then from those shipped.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    folder : str or path, optional
        A folder with cards of your own.

    Returns
    -------
    MaterialCard
        The card.

    Raises
    ------
    InputError
        With the nearest name.

    Examples
    --------
    >>> read_card_named("structural-steel-355")
    <MaterialCard structural-steel-355: structural steel, yield strength 355 MPa, steel, typical>
    """
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
