"""Tables of the study file made of the nouns themselves: their fields are the keys, their descriptors the units.

A noun is a frozen dataclass. Each becomes a model that refuses unknown keys and takes no text for a number; a table of choices
becomes the union of its nouns, told apart by `kind`. Made when first needed: a noun that a script adds is there as well.
"""

from __future__ import annotations

import dataclasses
import inspect
from collections.abc import Callable, Iterable, Mapping
from typing import Annotated, Any, Literal, Union, get_type_hints

from pydantic import BaseModel, BeforeValidator, ConfigDict, Discriminator, Field, Tag, WithJsonSchema, create_model

from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study.said import said_of_fields
from vivid_anvil.units import DIMENSIONS, Coherent, GrowthRate, OptionalCoherent, Temperature, coherent

Text = Annotated[str, Field(min_length=1)]
TAG = "of the kind "  # before the kind that was chosen, in the places of faults
WITH_UNIT = "with its unit, such as"
ONE_VALUE = f"{TAG}a value that stands alone"


class Section(BaseModel):
    """A table of the study file: unknown keys are refused, and text is never taken for a number."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)

    @property
    def given(self) -> dict[str, Any]:
        """The keys that the file states, `kind` aside."""
        return {key: getattr(self, key) for key in self.model_fields_set if key != "kind"}


def from_text(dimension: str) -> BeforeValidator:
    """Text with a unit of `dimension` -> coherent float; a bare number is refused."""
    example = DIMENSIONS[dimension].example

    def convert(value: Any) -> float:
        if not isinstance(value, str):
            raise InputError(
                "", f"{value!r} without a unit", f"text with a unit of {dimension}", f"Write for instance {example!r}."
            )
        return coherent(value, dimension, "")

    return BeforeValidator(convert)


def rows_with_units(*dimensions: str) -> BeforeValidator:
    """Rows whose first cells are text with units of `dimensions`, the rest plain numbers; the name of a file stays."""

    def convert(value: Any) -> Any:
        if not isinstance(value, list):
            return value
        for i, row in enumerate(value, 1):
            for cell, dimension in zip(row if isinstance(row, list) else [row], dimensions, strict=False):
                if not isinstance(cell, str):
                    example = DIMENSIONS[dimension].example
                    raise InputError(
                        "",
                        f"{cell!r} without a unit in row {i}",
                        f"text with a unit of {dimension}",
                        f"Write for instance {example!r}.",
                    )
        return value

    return BeforeValidator(convert)


def written(dimension: str) -> WithJsonSchema:
    """What stands in the file is text with a unit."""
    example = DIMENSIONS[dimension].example
    return WithJsonSchema({"type": "string", "description": f"{dimension} {WITH_UNIT} '{example}'"})


def key_of(field: Any, annotation: Any) -> Any:
    """The type of a key for the field of a noun: by its descriptor, else its annotation."""
    if isinstance(field, Coherent):
        plain = field.dimension == "number"
        one = float if plain else Annotated[float, from_text(field.dimension), written(field.dimension)]
        return one | None if isinstance(field, OptionalCoherent) else one
    if isinstance(field, GrowthRate):
        return Text
    if isinstance(field, Temperature):
        return Text | None
    return _simple(annotation)


def _simple(annotation: Any) -> Any:
    """A type as TOML writes it: pairs as lists."""
    if annotation is str:
        return Text
    if getattr(annotation, "__origin__", None) is tuple and annotation.__args__[-1] is ...:
        return list.__class_getitem__(_simple(annotation.__args__[0]))
    if getattr(annotation, "__origin__", None) is tuple:
        return Annotated[
            list.__class_getitem__(_simple(annotation.__args__[0])),
            Field(min_length=len(annotation.__args__), max_length=len(annotation.__args__)),
        ]
    arguments = getattr(annotation, "__args__", ())
    if type(None) in arguments:
        others = [_simple(one) for one in arguments if one is not type(None)]
        return Union[(*others, None)]
    return annotation


def model_of(
    noun: type,
    *,
    without: Iterable[str] = ("name",),
    instead: Mapping[str, Any] | None = None,
    kind: str | None = None,
    usual: bool = False,
    all_optional: bool = False,
) -> type[Section]:
    """The model of one noun; `instead` are types of keys that are not those of its fields, `without` is not in the file.

    One of a table of choices has the key `kind`, which only the `usual` one may leave out;
    `all_optional` is for keys beside others.
    """
    known, hints, said = dict(instead or {}), get_type_hints(noun), said_of_fields(noun)
    keys: dict[str, Any] = {} if kind is None else {"kind": (Literal[kind], kind if usual else ...)}
    for field in dataclasses.fields(noun):
        if field.name in without or not field.init:
            continue
        own = known.pop(field.name, None) or key_of(inspect.getattr_static(noun, field.name, None), hints[field.name])
        bare = field.default is dataclasses.MISSING and field.default_factory is dataclasses.MISSING
        needed = bare and not all_optional
        about = Field(... if needed else None, description=said.get(field.name))
        keys[field.name] = (own if needed else own | None, about)
    keys |= {name: (own | None, None) for name, own in known.items()}
    made: type[Section] = create_model(noun.__name__, __base__=Section, __doc__=noun.__doc__, **keys)
    return made


def union_of(models: Mapping[str, type[Section]], kind_of: Callable[[Any], str]) -> Any:
    """The models told apart by the word that `kind_of` finds in what is written."""
    tagged = [Annotated[model, Tag(f"{TAG}{kind}")] for kind, model in models.items()]
    return Annotated[Union[tuple(tagged)], Discriminator(kind_of)]  # noqa: UP007


def united(types: Iterable[Any]) -> Any:
    """One of several types."""
    return Union[tuple(types)]  # noqa: UP007


def tables_by_kind(choices: Choices[Any], *, instead: Mapping[str, Any] | None = None) -> Any:
    """The type of a key that is a table which names its `kind`, one of a table of choices; `instead` by kind and key."""
    others: dict[str, dict[str, Any]] = {name: {} for name in choices}
    for path, own in (instead or {}).items():
        kind, _, key = path.partition("/")
        others[kind][key] = own
    models = {name: model_of(noun, without=(), kind=name, instead=others[name]) for name, noun in choices.items()}
    return union_of(models, kind_or(""))


def kind_or(usual: str) -> Callable[[Any], str]:
    """What a table says as its `kind`, else the usual one; anything that is no table as it is."""

    def kind(value: Any) -> str:
        if isinstance(value, dict):
            return f"{TAG}{value.get('kind', usual)}"
        return f"{TAG}{getattr(value, 'kind', usual)}"

    return kind


def one_or_table(
    word: Any, choices: Choices[Any], *, usual: str | None = None, instead: Mapping[str, Any] | None = None
) -> Any:
    """The type of a key that is one value, of the type `word`, or a table that names its `kind`."""
    models = {name: model_of(noun, without=(), instead=instead, kind=name) for name, noun in choices.items()}
    tables = kind_or(usual or "")
    tagged = [Annotated[word, Tag(ONE_VALUE)]]
    tagged += [Annotated[one, Tag(f"{TAG}{kind}")] for kind, one in models.items()]

    def kind_of(value: Any) -> str:
        return tables(value) if isinstance(value, dict | BaseModel) else ONE_VALUE

    return Annotated[Union[tuple(tagged)], Discriminator(kind_of)]  # noqa: UP007


def one_value_or(section: type[Section], word: Any) -> Any:
    """The type of a key that is one value, of the type `word`, or a table of a model."""
    other = f"{TAG}what is written out"

    def which(value: Any) -> str:
        return other if isinstance(value, dict | BaseModel) else ONE_VALUE

    return Annotated[Union[Annotated[word, Tag(ONE_VALUE)], Annotated[section, Tag(other)]], Discriminator(which)]  # noqa: UP007


def name_or(written_out: Any) -> Any:
    """The type of a key that is a name, or what the name would stand for."""
    other = f"{TAG}what is written out"

    def which(value: Any) -> str:
        return other if isinstance(value, dict | list | BaseModel) else ONE_VALUE

    return Annotated[Union[Annotated[Text, Tag(ONE_VALUE)], Annotated[written_out, Tag(other)]], Discriminator(which)]  # noqa: UP007


def made(choices: Choices[Any], section: Section, **more: Any) -> Any:
    """The noun of a checked table: that of its `kind` with the keys that the file states."""
    noun = choices[section.kind]  # type: ignore[attr-defined]
    return noun(**section.given, **more)
