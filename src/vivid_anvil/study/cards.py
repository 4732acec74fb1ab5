"""Material cards: one TOML file a material, with strengths, S-N curves and growth laws, each with unit, scatter and source.

A set of generic cards is shipped; users keep their own in a folder that they name. A card is checked on reading.
"""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from pydantic import Field, ValidationError, create_model

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed, within
from vivid_anvil.ground.files import read_toml
from vivid_anvil.materials import LAWS, CardValue, GrowthLaw, MaterialCard, SNCurve
from vivid_anvil.materials.curves.checks import BASES
from vivid_anvil.materials.curves.curved import CURVED_FORMS
from vivid_anvil.materials.plies import LIFE_DIAGRAMS, STIFFNESS_DECAYS, STRENGTH_DECAYS, Ply
from vivid_anvil.materials.rubber import HYPERELASTIC, TEARING_LAWS, Rubber
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.study.curve_keys import Source, curve_keys, curve_of, leading_key
from vivid_anvil.study.growth_law_keys import growth_law_keys, law_of
from vivid_anvil.study.key_errors import as_input_error
from vivid_anvil.study.models_of_nouns import Section, Text, one_value_or
from vivid_anvil.study.ply_keys import ply_keys, ply_of
from vivid_anvil.study.rubber_keys import Source as RubberSource
from vivid_anvil.study.rubber_keys import rubber_keys, rubber_of
from vivid_anvil.study.strain_life_keys import Source as StrainLifeSource
from vivid_anvil.study.strain_life_keys import strain_life_keys, strain_life_of
from vivid_anvil.units import coherent, opened, split

FORMAT = 1
GROUPS = ("steel", "cast iron", "aluminium", "titanium", "rubber", "fibre composite", "other")
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


class ValueKeys(Section):
    """A value with its scatter and source."""

    value: Text | float
    scatter: Text = "not stated"
    source: Text | None = None


class CardFile(Section):
    """A whole card; curves and laws by the names that they have on it."""

    format: int
    name: Text
    group: Text
    basis: Text
    source: Text
    note: str = ""
    sn_curves: dict[str, Any] = Field(default_factory=dict)
    strain_life_curves: dict[str, Any] = Field(default_factory=dict)
    growth_laws: dict[str, Any] = Field(default_factory=dict)
    rubber: Any = None
    ply: Any = None


@lru_cache(maxsize=4)
def _card_file(names: tuple[str, ...]) -> type[CardFile]:  # noqa: ARG001 (what is kept depends on them)
    value = one_value_or(ValueKeys, Text | float)
    curves: Any = dict.__class_getitem__((str, curve_keys()))
    laws: Any = dict.__class_getitem__((str, growth_law_keys()))
    strain_curves: Any = dict.__class_getitem__((str, strain_life_keys()))
    own: dict[str, Any] = dict.fromkeys(VALUES, (value | None, None))
    rubber: Any = rubber_keys()
    ply: Any = ply_keys()
    return create_model(
        "CardFile",
        __base__=CardFile,
        sn_curves=(curves, Field(default_factory=dict)),
        strain_life_curves=(strain_curves, Field(default_factory=dict)),
        growth_laws=(laws, Field(default_factory=dict)),
        rubber=(rubber | None, None),
        ply=(ply | None, None),
        **own,
    )


@opened()
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
    data = read_toml(path, "a material card")
    model = _card_file(
        (*CURVED_FORMS, *LAWS, *HYPERELASTIC, *TEARING_LAWS, *LIFE_DIAGRAMS, *STRENGTH_DECAYS, *STIFFNESS_DECAYS)
    )
    try:
        file = model.model_validate(data)
    except ValidationError as error:
        raise as_input_error(path.name, data, error, model) from None
    if file.format != FORMAT:
        raise InputError(
            inside(f"{path.name}", "format"), f"{file.format:g}", f"format = {FORMAT}", "It is of another version."
        )
    checks.one_of(inside(f"{path.name}", "group"), file.group, GROUPS)
    checks.one_of(inside(f"{path.name}", "basis"), file.basis, BASES)
    values = {key: getattr(file, key) for key in VALUES if getattr(file, key) is not None}
    return MaterialCard(
        key=path.stem,
        name=file.name,
        group=file.group,
        basis=file.basis,
        source=file.source,
        note=file.note,
        values={key: _value(one, key, f"{path.name}, {key}", file.source) for key, one in values.items()},
        curves={name: _curve(path, name, section, file) for name, section in file.sn_curves.items()},
        strain_lives={
            name: _strain_life(path, name, section, file) for name, section in file.strain_life_curves.items()
        },
        rubber=None if file.rubber is None else _rubber(path, file),
        ply=None if file.ply is None else _ply(path, file),
        laws={name: _law(path, name, section, file) for name, section in file.growth_laws.items()},
    )


def _value(given: Any, key: str, where: str, source: str) -> CardValue:
    """A value: text with its unit, or a table of value, scatter and source."""
    parts = given if isinstance(given, ValueKeys) else ValueKeys(value=given)
    dimension, value = VALUES[key], parts.value
    if dimension == "number":
        number = checks.positive_number(where, value)
    else:
        if not isinstance(value, str):
            split(str(value), where, "", dimension)  # refuses the bare number in the words of the door
        number = coherent(value, dimension, where)
        if not number > 0.0:
            raise InputError(where, repr(value), "a value above 0")
    return CardValue(key, number, dimension, parts.scatter, source if parts.source is None else parts.source)


def _curve(path: Path, name: str, section: Section, file: CardFile) -> SNCurve:
    where = f"{path.name}, sn_curves, {name}"
    if leading_key(section) == "card":
        raise InputError(where, "a curve of another card", "the curve itself", "A card stands alone.")

    def no_card(card: str, curve: str | None) -> SNCurve:
        raise NotImplementedError

    with within(where):
        return curve_of(
            f"{path.stem}, {name}", section, Source(path.parent, no_card), basis=file.basis, source=file.source
        )


def _strain_life(path: Path, name: str, section: Any, file: CardFile) -> StrainLife:
    where = f"{path.name}, strain_life_curves, {name}"
    if section.kind == "card":
        raise InputError(where, "a curve of another card", "the curve itself", "A card stands alone.")

    def no_card(card: str, curve: str | None) -> StrainLife:
        raise NotImplementedError

    with within(where):
        place = StrainLifeSource(path.parent, no_card)
        return strain_life_of(f"{path.stem}, {name}", section, place, basis=file.basis, source=file.source)


def _law(path: Path, key: str, section: Any, file: CardFile) -> GrowthLaw:
    where = f"{path.name}, growth_laws, {key}"
    if section.kind in ("card", "fitted"):
        raise InputError(where, f"a law of the kind {section.kind!r}", "the law itself", "A card stands alone.")
    with within(where):
        return law_of(file.name, section, source=file.source)


def _rubber(path: Path, file: CardFile) -> Rubber:
    where = f"{path.name}, rubber"
    if "card" in file.rubber.given:
        raise InputError(where, "a rubber of another card", "the rubber itself", "A card stands alone.")

    def no_card(card: str) -> Rubber:
        raise NotImplementedError

    with within(where):
        return rubber_of(path.stem, file.rubber, RubberSource(path.parent, no_card), source=file.source)


def _ply(path: Path, file: CardFile) -> Ply:
    where = f"{path.name}, ply"
    if "card" in file.ply.given:
        raise InputError(where, "a ply of another card", "the ply itself", "A card stands alone.")

    def no_card(card: str) -> Ply:
        raise NotImplementedError

    with within(where):
        return ply_of(path.stem, file.ply, no_card, source=file.source)


@lru_cache(maxsize=1)
def shipped_cards() -> dict[str, MaterialCard]:
    """The generic cards that come with the package, by key."""
    return cards_in(Path(str(files("vivid_anvil.materials") / "data" / "cards")))


@opened()
def cards_in(folder: str | Path) -> dict[str, MaterialCard]:
    """All cards of a folder, by key (the file's name without its ending), each checked."""
    place = Path(folder)
    if not place.is_dir():
        raise InputError(str(place), "no such folder", "a folder of material cards")
    return {path.stem: read_card(path) for path in sorted(place.glob("*.toml"))}


@opened()
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


@opened()
def find_cards(words: str = "", folder: str | Path | None = None) -> list[MaterialCard]:
    """The cards in whose key, name, group or note all `words` stand; all cards for no words."""
    known = {**shipped_cards(), **({} if folder is None else cards_in(folder))}
    wanted = words.lower().split()

    def text(card: MaterialCard) -> str:
        return " ".join((card.key, card.name, card.group, card.note)).lower()

    return [card for card in known.values() if all(word in text(card) for word in wanted)]
