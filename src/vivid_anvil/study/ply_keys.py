"""Plies and laminates as they are written: constants and strengths, lives and decays by their kind, layups, or a card."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from typing import Annotated, Any, Union

from pydantic import BeforeValidator, Discriminator, Field, Tag

from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside, within
from vivid_anvil.materials.plies import LIFE_DIAGRAMS, STIFFNESS_DECAYS, STRENGTH_DECAYS, EnergyLife, Ply
from vivid_anvil.materials.plies.ply import LIVES, STIFFNESS_DECAYS_OF, STRENGTH_DECAYS_OF
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.study.models_of_nouns import (
    ONE_VALUE,
    TAG,
    Section,
    Text,
    from_text,
    kind_or,
    model_of,
    union_of,
    written,
)

Length = Annotated[float, from_text("length"), written("length")]
NEEDED = ("modulus_along", "modulus_across", "shear_modulus", "poissons_ratio")
BY_KIND: Mapping[str, Choices[Any]] = {
    **dict.fromkeys(LIVES, LIFE_DIAGRAMS),
    **dict.fromkeys(STRENGTH_DECAYS_OF, STRENGTH_DECAYS),
    **dict.fromkeys(STIFFNESS_DECAYS_OF, STIFFNESS_DECAYS),
}


def _rows_of_rays(value: Any) -> Any:
    """Rows of R, amplitude as text with a unit, exponent."""
    for i, row in enumerate(value if isinstance(value, list) else [], 1):
        if isinstance(row, list) and len(row) > 1 and not isinstance(row[1], str):
            raise InputError(
                "",
                f"{row[1]!r} without a unit in row {i}",
                "text with a unit of stress",
                "Write for instance '480 MPa'.",
            )
    return value


ROWS = Annotated[list[list[Any]], BeforeValidator(_rows_of_rays), Field(min_length=1)]


class LaidPlySection(Section):
    """One ply of a laminate, from the bottom to the top."""

    ply: Text
    angle: float
    thickness: Length


def _of_kinds(choices: Choices[Any]) -> Any:
    models: dict[str, type[Section]] = {}
    for kind, noun in choices.items():
        instead: dict[str, Any] = {"rows": ROWS} if kind == "rays" else {}
        models[kind] = model_of(noun, without=(), instead=instead, kind=kind)
    return union_of(models, kind_or(""))


def ply_keys() -> type[Section]:
    """The model of a ply in a study file."""
    of_kinds = {id(choices): _of_kinds(choices) for choices in BY_KIND.values()}
    instead: dict[str, Any] = {key: of_kinds[id(choices)] for key, choices in BY_KIND.items()}
    return model_of(
        Ply, instead={**instead, "energy_life": model_of(EnergyLife, without=()), "card": Text}, all_optional=True
    )


def laminate_keys() -> type[Section]:
    """The model of a laminate in a study file."""
    many = f"{TAG}angles in a list"

    def which(value: Any) -> str:
        return many if isinstance(value, list) else ONE_VALUE

    layup = Annotated[
        Union[Annotated[Text, Tag(ONE_VALUE)], Annotated[list[float], Field(min_length=1), Tag(many)]],  # noqa: UP007
        Discriminator(which),
    ]
    plies = Annotated[list[LaidPlySection], Field(min_length=1)]
    return model_of(Laminate, instead={"layup": layup, "ply": Text, "plies": plies}, all_optional=True)


def ply_of(name: str, section: Section, card_ply: Callable[[str], Ply], **usual: Any) -> Ply:
    """The ply of a checked section; what it says beside a card stands instead of what the card says."""
    given = section.given
    card = given.pop("card", None)
    base = None if card is None else card_ply(card)
    if base is None:
        missing = [key for key in NEEDED if key not in given]
        if missing:
            raise InputError(missing[0], "nothing", "the moduli and ν12 of the ply, or a card")
    for key, choices in BY_KIND.items():
        if key in given:
            with within(key):
                given[key] = choices[given[key].kind](**_as_tuples(given[key].given))
    if "energy_life" in given:
        with within("energy_life"):
            given["energy_life"] = EnergyLife(**given["energy_life"].given)
    new = {**usual, **given, "name": name}
    return Ply(**new) if base is None else dataclasses.replace(base, **new)


def _as_tuples(given: dict[str, Any]) -> dict[str, Any]:
    if "r_ratios_tested" in given:
        given["r_ratios_tested"] = tuple(given["r_ratios_tested"])
    return given


def laminate_of(name: str, section: Section, ply_named: Callable[[str, str], Ply]) -> Laminate:
    """The laminate of a checked section; `ply_named` gives a ply by its name, and the key that it stands at."""
    given = section.given
    if "ply" in given:
        given["ply"] = ply_named(given["ply"], "ply")
    if "plies" in given:
        given["plies"] = tuple(
            (ply_named(one.ply, inside("plies", f"entry {i}, ply")), one.angle, one.thickness)
            for i, one in enumerate(given["plies"], 1)
        )
    return Laminate(name=name, **given)
