"""Flaws as they are written: places with metal and stages, stresses by name, indications in a file or in rows, crack fronts."""

from __future__ import annotations

import datetime
from typing import Annotated, Any

from pydantic import BeforeValidator, Field, create_model

from vivid_anvil.acceptance import PRIMARY, SECONDARY, Indication, Part, PartialFactors
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.fracture import TOUGHNESSES, Metal, Weld
from vivid_anvil.study.models_of_nouns import (
    Section,
    Text,
    from_text,
    model_of,
    name_or,
    rows_with_units,
    tables_by_kind,
    written,
)

Stress = Annotated[float, from_text("stress"), written("stress")]
Rows = list[list[Any]]
STRESS_OVER_DEPTH: Any = Annotated[Rows, rows_with_units("length", "stress"), Field(min_length=2)]
OF_TOUGHNESS: dict[str, Any] = {
    "tests/results": list[Text],
    "resistance curve/points": Annotated[Rows, rows_with_units("length", "energy release rate"), Field(min_length=2)],
}


def _ranges(rows: Any) -> Any:
    """Every cell but the last of a row is text with a unit of stress."""
    for i, row in enumerate(rows if isinstance(rows, list) else [], 1):
        for cell in row[:-1] if isinstance(row, list) else []:
            if not isinstance(cell, str):
                expected = "ranges as text with a unit, and cycles a year, such as ['60 MPa', '20 MPa', 2e4]"
                raise InputError("", f"{cell!r} without a unit in row {i}", expected)
    return rows


RangesKeys: Any = name_or(Annotated[Rows, BeforeValidator(_ranges), Field(min_length=1)])


class StageSection(Section):
    """A part of the time: a growth law, ranges a year or the cycles of a hot spot, and how long."""

    name: Text
    law: Text
    ranges: RangesKeys | None = None
    sheet: Text | int | None = None
    r_ratio: float | None = None
    hot_spot: Text | None = None
    duration: Text | None = None


class FrontSection(Section):
    """A crack of a finite-element model: its table of contours, and the stress that collapse is of."""

    file: Text
    place: Text
    reference_stress: Stress
    case: Text | None = None
    sheet: Text | int | None = None
    rule: str = "energy release rate"


class StressesSection(Section):
    """Primary and secondary stresses under one name."""

    primary: list[Any] = Field(default_factory=list)
    secondary: list[Any] = Field(default_factory=list)
    interaction: str = "rho"


IndicationSection = model_of(Indication, without=())
PartialFactorsSection = model_of(PartialFactors, without=())


def flaw_keys() -> Any:
    """The type of the table of flaws, with all kinds of stress and toughness that there are by now."""
    metal = model_of(
        Metal,
        without=("material",),
        instead={
            "toughness": tables_by_kind(TOUGHNESSES, instead=OF_TOUGHNESS),
            "weld": model_of(Weld, without=()),
            "stress_strain": Annotated[Rows, rows_with_units("stress", "strain")],
        },
        all_optional=True,
    )
    factors: Any = PartialFactorsSection | None
    place = create_model(
        "PlaceSection",
        __base__=(model_of(Part, without=()), metal),
        material=(Text, ...),
        stages=(list[StageSection], Field(default_factory=list)),
        partial_factors=(factors, None),
        limits_at=(list[Text], Field(default_factory=list)),
        limits_under=(list[Text], Field(default_factory=list)),
        leak_area=(Text | None, None),
    )
    primary: Any = list.__class_getitem__(tables_by_kind(PRIMARY, instead={"profile/points": STRESS_OVER_DEPTH}))
    secondary: Any = list.__class_getitem__(tables_by_kind(SECONDARY, instead={"profile/points": STRESS_OVER_DEPTH}))
    stresses = create_model(
        "StressesSection",
        __base__=StressesSection,
        primary=(Annotated[primary, Field(min_length=1)], ...),
        secondary=(secondary, Field(default_factory=list)),
    )
    rows: Any = name_or(list.__class_getitem__(IndicationSection))
    of_places: Any = dict.__class_getitem__((str, place))
    of_stresses: Any = dict.__class_getitem__((str, stresses))
    return create_model(
        "FlawsSection",
        __base__=Section,
        indications=(rows | None, None),
        sheet=(Text | int | None, None),
        inspected=(datetime.date | None, None),
        inspection_factor=(float, 2.0),
        target_life=(Text | None, None),
        places=(of_places, Field(min_length=1)),
        stresses=(of_stresses, Field(default_factory=dict)),
        fronts=(dict[str, FrontSection], Field(default_factory=dict)),
    )
