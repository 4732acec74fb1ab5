"""Rubbers as they are written: laws by their constants or fitted to tests, flaws as a size or from lives of strips, or a card."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Literal, Union

from pydantic import BaseModel, Discriminator, Field, Tag

from vivid_anvil.ground.errors import InputError, within
from vivid_anvil.materials.rubber import (
    HYPERELASTIC,
    TEARING_LAWS,
    HyperelasticLaw,
    Rubber,
    TearingLaw,
    fit_hyperelastic,
    fit_tearing,
    flaws_of_strips,
    law_at,
    read_rubber_tests,
    read_tearing_tests,
)
from vivid_anvil.study.models_of_nouns import (
    ONE_VALUE,
    TAG,
    Section,
    Text,
    from_text,
    kind_or,
    model_of,
    rows_with_units,
    union_of,
    written,
)

Length = Annotated[float, from_text("length"), written("length")]
Stress = Annotated[float, from_text("stress"), written("stress")]
SEVERAL = f"{TAG}several temperatures"
NEEDED = ("law", "growth", "initial_flaw")


class FittedHyperelastic(Section):
    """A hyperelastic law fitted to tests of sheets."""

    kind: Literal["fitted"] = "fitted"
    tests: Text
    form: Text
    terms: int | None = None
    bulk_modulus: Stress | None = None


class FittedTearing(Section):
    """A tearing law fitted to growth tests."""

    kind: Literal["fitted"] = "fitted"
    tests: Text
    form: Text = "power"
    r_effect: Text = "range"
    slope_rise: float | None = None
    edge_form: Text = "pi over root"
    temperature: Text | None = None


class FlawsOfStrips(Section):
    """The median flaw behind lives of strips; `strip_end` is its size where a strip parts."""

    strips: Text
    strip_end: Length


@dataclass(frozen=True)
class Source:
    """Where a section stands: the files that it names are in `folder`; how a card is looked up."""

    folder: Path
    card_rubber: Callable[[str], Rubber]


def _one_of(choices: Any, fitted: type[Section]) -> Any:
    """One of a table of laws, or one fitted to tests."""
    models: dict[str, type[Section]] = {}
    for kind, noun in choices.items():
        instead = {"terms": Annotated[list[list[Any]], rows_with_units("stress")]} if kind == "ogden" else {}
        models[kind] = model_of(noun, instead=instead, kind=kind)
    models["fitted"] = fitted
    plain = kind_or("")

    def kind_of(value: Any) -> str:
        return f"{TAG}fitted" if isinstance(value, dict) and "tests" in value else plain(value)

    return union_of(models, kind_of)


def rubber_keys() -> type[Section]:
    """The model of a rubber in a study file."""
    one: Any = _one_of(TEARING_LAWS, FittedTearing)
    many: Any = Annotated[list.__class_getitem__(one), Field(min_length=1)]

    def of_growth(value: Any) -> str:
        return SEVERAL if isinstance(value, list | tuple) else ONE_VALUE

    def of_flaw(value: Any) -> str:
        return f"{TAG}lives of strips" if isinstance(value, dict | BaseModel) else ONE_VALUE

    growth: Any = Annotated[Annotated[one, Tag(ONE_VALUE)] | Annotated[many, Tag(SEVERAL)], Discriminator(of_growth)]
    strips = Annotated[FlawsOfStrips, Tag(f"{TAG}lives of strips")]
    flaw = Annotated[Union[Annotated[Length, Tag(ONE_VALUE)], strips], Discriminator(of_flaw)]  # noqa: UP007
    instead = {"law": _one_of(HYPERELASTIC, FittedHyperelastic), "growth": growth, "initial_flaw": flaw, "card": Text}
    return model_of(Rubber, instead=instead, all_optional=True)


def rubber_of(name: str, section: Section, place: Source, **usual: Any) -> Rubber:
    """The rubber of a checked section; what it says beside a card stands instead of what the card says."""
    given = section.given
    card = given.pop("card", None)
    base = None if card is None else place.card_rubber(card)
    if base is None:
        missing = [key for key in NEEDED if key not in given]
        if missing:
            raise InputError(missing[0], "nothing", "law, growth and initial_flaw, or a card")
    law = base.law if base is not None else None
    if "law" in given:
        with within("law"):
            law = _law(name, given.pop("law"), place)
    assert law is not None
    growth: Any = base.growth if base is not None else None
    if "growth" in given:
        stated = given.pop("growth")
        with within("growth"):
            several = isinstance(stated, list | tuple)
            growth = (
                tuple(_growth(name, one, place, law) for one in stated)
                if several
                else _growth(name, stated, place, law)
            )
    flaw = given.get("initial_flaw")
    if isinstance(flaw, FlawsOfStrips):
        with within("initial_flaw"):
            laws = growth if isinstance(growth, tuple) else (growth,)
            of = laws[0] if len(laws) == 1 else law_at(laws, given.get("temperature", laws[0].temperature))
            found = flaws_of_strips(place.folder / flaw.strips, of, law=law, end=flaw.strip_end, **_factor(given, base))
        given["initial_flaw"] = found.median
    new = {**usual, **given, "name": name, "law": law, "growth": growth}
    return Rubber(**new) if base is None else dataclasses.replace(base, **new)


def _factor(given: dict[str, Any], base: Rubber | None) -> dict[str, Any]:
    if "shape_factor" in given:
        return {"shape_factor": given["shape_factor"]}
    return {} if base is None else {"shape_factor": base.shape_factor}


def _law(name: str, section: Any, place: Source) -> HyperelasticLaw:
    if section.kind == "fitted":
        given = section.given
        more = {"terms": given["terms"]} if "terms" in given else {}
        found = fit_hyperelastic(read_rubber_tests(place.folder / given["tests"]), form=given["form"], **more).law
        bulk = {"bulk_modulus": given["bulk_modulus"]} if "bulk_modulus" in given else {}
        return dataclasses.replace(found, name=name, **bulk)
    return HYPERELASTIC[section.kind](name=name, **section.given)


def _growth(name: str, section: Any, place: Source, law: HyperelasticLaw) -> TearingLaw:
    if section.kind == "fitted":
        given = section.given
        edge = {"edge_form": given.pop("edge_form")} if "edge_form" in given else {}
        tests = read_tearing_tests(place.folder / given.pop("tests"), law=law, **edge)
        return fit_tearing(tests, name=name, **given).law
    return TEARING_LAWS[section.kind](name=name, **section.given)
