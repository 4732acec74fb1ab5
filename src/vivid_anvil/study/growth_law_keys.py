"""Growth laws as they are written: by the fields of their form, from a card, or fitted to tests."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, create_model

from vivid_anvil.materials import LAWS, THRESHOLDS, GrowthLaw
from vivid_anvil.study.models_of_nouns import (
    TAG,
    Section,
    Text,
    from_text,
    kind_or,
    made,
    model_of,
    one_or_table,
    union_of,
    written,
)

USUAL = "paris"
Intensity = Annotated[float, from_text("stress intensity"), written("stress intensity")]
Rate = Annotated[float, from_text("growth rate"), written("growth rate")]
Points = Annotated[list[tuple[Intensity, Rate]], Field(min_length=2)]


class LawOfCard(Section):
    """The growth law of a material card, where it has several that of the name `law`."""

    kind: Literal["card"] = "card"
    card: Text
    law: Text | None = None
    tests: Text | dict[str, Any] | None = None


def law_of(name: str, section: Section, **more: Any) -> GrowthLaw:
    """The law of a checked table; what stands beside it, as its tests, is left aside."""
    values = {key: one for key, one in section.given.items() if key != "tests"}
    values |= threshold_of(section)
    return LAWS[section.kind](name=name, **(more | values))  # type: ignore[attr-defined]


def threshold_of(section: Section) -> dict[str, Any]:
    """The threshold of a checked table, where it states one."""
    given = section.given.get("threshold")
    if given is None:
        return {}
    return {"threshold": made(THRESHOLDS, given) if isinstance(given, Section) else given}


def growth_law_keys() -> Any:
    """The type of a growth law in a study file; every form in the table of laws is in it."""
    threshold = one_or_table(Intensity, THRESHOLDS)
    tests = Text | dict[str, Any]
    instead = {"threshold": threshold, "tests": tests, "points": list[list[Text]]}
    models: dict[str, type[Section]] = {}
    for kind, form in LAWS.items():
        models[kind] = model_of(form, instead=_of(form, instead), kind=kind, usual=kind == USUAL)
    keys: dict[str, Any] = {
        "kind": (Literal["fitted"], "fitted"),
        "tests": (tests, ...),
        "above_mean": (float, ...),
        "threshold": (threshold | None, None),
        "source": (Text | None, None),
    }
    models["fitted"] = create_model(
        "FittedLaw",
        __base__=Section,
        __doc__="A power law through tests, so many standard deviations above their mean.",
        **keys,
    )
    models["card"] = LawOfCard
    usual = kind_or(USUAL)

    def kind_of(value: Any) -> str:
        leading = {"card": "card", "above_mean": "fitted"}
        found = next((kind for key, kind in leading.items() if isinstance(value, dict) and key in value), None)
        return usual(value) if found is None else f"{TAG}{found}"

    return union_of(models, kind_of)


def _of(form: type, instead: Mapping[str, Any]) -> dict[str, Any]:
    """The types of those keys that the form has; tests may stand beside every law."""
    return {key: own for key, own in instead.items() if key == "tests" or key in form.__dataclass_fields__}  # type: ignore[attr-defined]
