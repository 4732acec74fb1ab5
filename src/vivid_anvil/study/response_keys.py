"""Responses to inputs as people write them: a stress per load, or a table that names its `kind`."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Discriminator, Field, Tag, model_validator

from vivid_anvil.ground.errors import InputError
from vivid_anvil.spectra import RESPONSES, ModalComponents, Response, ResponseTable, read_response
from vivid_anvil.study.models_of_nouns import ONE_VALUE, TAG, Section, Text, made, model_of, name_or, united

Numbers = Annotated[list[float], Field(min_length=1)]
MODES: dict[str, Any] = {
    "natural_frequency": Annotated[list[Text], Field(min_length=1)],
    "participation": Numbers,
    "modal_stress": Numbers,
    **dict.fromkeys(("damping_ratio", "quality_factor", "loss_factor"), float | Numbers),
}


class TableKeys(Section):
    """A frequency response from a file."""

    kind: Literal["table"]
    file: Text
    between: str = "real and imaginary"
    sheet: name_or(int) | None = None  # type: ignore[valid-type]


class ModesSection(Section):
    """Six stress components at a place by modes."""

    natural_frequency: Annotated[list[Text], Field(min_length=1)]
    participation: dict[Text, Numbers]
    modal_stress: Annotated[list[Annotated[list[float], Field(min_length=6, max_length=6)]], Field(min_length=1)]
    damping_ratio: float | Numbers | None = None
    quality_factor: float | Numbers | None = None
    loss_factor: float | Numbers | None = None

    def noun(self) -> ModalComponents:
        """The responses."""
        return ModalComponents(**self.given)


class ModelModesSection(Section):
    """How inputs move the modes of a model, whose stresses are modal ones."""

    inputs: dict[Text, Text | Annotated[list[float], Field(min_length=3, max_length=3)]] | None = None
    participation_file: Text | None = None
    natural_frequency: Annotated[list[Text], Field(min_length=1)] | None = None
    participation: dict[Text, Numbers] | None = None
    damping_ratio: float | Numbers | None = None
    quality_factor: float | Numbers | None = None
    loss_factor: float | Numbers | None = None

    @model_validator(mode="after")
    def _one_way(self) -> ModelModesSection:
        by_file = (self.inputs is not None, self.participation_file is not None)
        if by_file[0] != by_file[1]:
            key = "participation_file" if by_file[0] else "inputs"
            raise InputError(key, "none", "both inputs and participation_file", 'Such as inputs = { base = "z" }.')
        if by_file[0] == (self.participation is not None):
            raise InputError(
                "participation",
                "both ways" if by_file[0] else "none",
                "participation of each input, or inputs with a participation_file",
                "Modal stresses need the participation factor of the same mode, in the same order.",
            )
        return self

    @property
    def damping(self) -> dict[str, Any]:
        """The word that is stated."""
        words = ("damping_ratio", "quality_factor", "loss_factor")
        return {word: value for word in words if (value := getattr(self, word)) is not None}


class LinesSection(Section):
    """Complex stresses of a model over frequency: the input, and what it was in the run."""

    channel: Text
    per: Text
    frequency: Annotated[list[Text], Field(min_length=2)] | None = None


def response_keys() -> Any:
    """The type of the table of responses of a hot spot, by channel."""
    tagged: list[Any] = [Annotated[Text, Tag(ONE_VALUE)]]
    for kind, noun in RESPONSES.items():
        model = TableKeys if noun is ResponseTable else model_of(noun, without=(), kind=kind, instead=_instead(noun))
        tagged.append(Annotated[model, Tag(f"{TAG}{kind}")])
    one: Any = Annotated[united(tagged), Discriminator(_kind_of)]
    return dict.__class_getitem__((Text, one))


def _instead(noun: Any) -> dict[str, Any]:
    """Types of keys that a file writes as lists."""
    return {key: own for key, own in MODES.items() if key in noun.__dataclass_fields__ and noun.kind == "modes"}


def _kind_of(value: Any) -> str:
    if not isinstance(value, dict | BaseModel):
        return ONE_VALUE
    return f"{TAG}{value.get('kind', '') if isinstance(value, dict) else value.kind}"  # type: ignore[attr-defined]


def response_of(written: Any, folder: Path) -> Response | str:
    """The response of a checked key; files are looked for in `folder`."""
    if isinstance(written, str):
        return written
    if isinstance(written, TableKeys):
        sheet = 0 if written.sheet is None else written.sheet
        return read_response(folder / written.file, between=written.between, sheet=sheet)
    return made(RESPONSES, written)  # type: ignore[no-any-return]
