"""The study file as it is written: keys, types, and units at the door. Nothing is looked up here."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, model_validator

from vivid_anvil.errors import InputError
from vivid_anvil.units import DIMENSIONS, coherent

FORMAT = 1


def _from_text(dimension: str) -> BeforeValidator:
    """Text with a unit of `dimension` -> coherent float; a bare number is refused."""
    example = DIMENSIONS[dimension].example

    def convert(value: Any) -> float:
        if not isinstance(value, str):
            raise InputError(
                "", f"{value!r} without a unit", f"text with a unit of {dimension}", f"Write for instance {example!r}."
            )
        return coherent(value, dimension, "")

    return BeforeValidator(convert)


Stress = Annotated[float, _from_text("stress")]
Length = Annotated[float, _from_text("length")]
StressIntensity = Annotated[float, _from_text("stress intensity")]
Text = Annotated[str, Field(min_length=1)]
RRatio = float | Literal["any"]


class Section(BaseModel):
    """A table of the study file: unknown keys are refused, and text is never taken for a number."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)


class EventSection(Section):
    """An event: a history in a file, cycles of constant amplitude, a block programme, a spectrum, or events of its own."""

    name: Text
    occurrences: float
    history: Text | list[Text] | None = None
    read: dict[str, Any] = Field(default_factory=dict)
    sample_rate: Text | None = None
    repairs: list[dict[str, Any]] = Field(default_factory=list)
    gate: dict[str, Text] = Field(default_factory=dict)
    programme: Text | dict[str, Any] | None = None
    spectrum: Text | dict[str, Any] | None = None
    events: list[EventSection] | None = None
    channel: Text | None = None
    range: Text | None = None
    amplitude: Text | None = None
    r_ratio: float | None = None
    cycles: float | None = None
    frequency: Text | None = None

    @model_validator(mode="after")
    def _one_kind(self) -> EventSection:
        given = [key for key in type(self).model_fields if getattr(self, key) not in (None, [], {})]
        kinds = [key for key in EVENT_KINDS if key in given]
        amplitude = [key for key in ("range", "amplitude") if key in given]
        if len(kinds) + len(amplitude) != 1:
            raise InputError(
                "",
                f"the keys {', '.join(given)}",
                "exactly one of " + ", ".join((*EVENT_KINDS, "range", "amplitude")),
                "Make an event of each.",
            )
        kind = kinds[0] if kinds else "range"
        allowed = {"name", "occurrences", kind, *amplitude, *_KEYS_OF[kind]}
        odd = [key for key in given if key not in allowed]
        missing = [key for key in _NEEDED_BY[kind] if key not in given and getattr(self, key) is None]
        if odd or missing:
            raise InputError(
                "",
                f"{amplitude[0] if amplitude else kind} "
                + (f"together with {', '.join(odd)}" if odd else f"without {', '.join(missing)}"),
                f"with it only {', '.join(_KEYS_OF[kind])}" if odd else f"the keys {', '.join(_NEEDED_BY[kind])}",
                "Make two events of it." if odd else "Add them.",
            )
        return self


# What an event may be, and the keys that go with each.
EVENT_KINDS = ("history", "programme", "spectrum", "events")
_KEYS_OF = {
    "history": ("read", "sample_rate", "repairs", "gate"),
    "programme": ("channel", "frequency"),
    "spectrum": ("channel",),
    "events": (),
    "range": ("channel", "r_ratio", "cycles", "frequency"),
}
_NEEDED_BY: dict[str, tuple[str, ...]] = {
    "history": (),
    "programme": ("channel",),
    "spectrum": ("channel",),
    "events": (),
    "range": ("channel", "r_ratio", "cycles"),
}


class DutyCycleSection(Section):
    """The events of one repeat."""

    repeat: Text
    repeats_per_year: float
    residue: str = "repeated"
    between: str = "each by itself"
    events: list[EventSection] = Field(min_length=1)


class MaterialSection(Section):
    """Strengths."""

    ultimate_strength: Stress | None = None
    yield_strength: Stress | None = None
    toughness: StressIntensity | None = None
    source: str = "not stated"


class SNCurveSection(Section):
    """An S-N curve: knee_stress, knee_life, slope and slope_below; or point_stress, point_life and slope."""

    stress: Literal["range", "amplitude"]
    r_ratio: RRatio
    slope: float
    knee_stress: Stress | None = None
    knee_life: float | None = None
    slope_below: float | None = None
    point_stress: Stress | None = None
    point_life: float | None = None
    tested_from: float | None = None
    tested_to: float | None = None
    survival_probability: float | None = None
    source: str = "not stated"

    @model_validator(mode="after")
    def _one_form(self) -> SNCurveSection:
        knee = [self.knee_stress, self.knee_life, self.slope_below]
        point = [self.point_stress, self.point_life]
        complete = None not in knee and point == [None, None]
        straight = None not in point and knee == [None, None, None]
        if not (complete or straight):
            keys = ("knee_stress", "knee_life", "slope_below", "point_stress", "point_life")
            given = [key for key in keys if getattr(self, key) is not None]
            raise InputError(
                "",
                f"the keys {', '.join(given) or 'of neither form'}",
                "knee_stress, knee_life and slope_below; or point_stress and point_life for a straight line",
                "For a fatigue limit write slope_below = inf.",
            )
        return self


class GrowthLawSection(Section):
    """A growth law."""

    rate: Text
    slope: float
    threshold: StressIntensity = 0.0
    r_ratio: float | None = None
    source: str = "not stated"


class HotSpotSection(Section):
    """A hot spot."""

    name: Text
    channel: Text
    stress_per_load: Text
    material: Text
    sn_curve: Text | None = None
    offset: Stress = 0.0
    notch_factor: float = 1.0
    mean_stress: str = "none"
    compressive_mean: str = "ignored"
    critical_sum: float = 1.0


class CrackSection(Section):
    """A crack at a hot spot."""

    hot_spot: Text
    shape: Literal["edge", "centre"]
    plate_width: Length
    initial_size: Length
    growth_law: Text
    counted_part: str = "tensile"
    detectable_size: Length | None = None
    inspection_factor: float = 3.0


class StudyFile(Section):
    """The whole file."""

    format: int
    title: Text
    target_life: Text | None = None
    duty_cycle: DutyCycleSection
    materials: dict[str, MaterialSection] = Field(min_length=1)
    sn_curves: dict[str, SNCurveSection] = Field(default_factory=dict)
    growth_laws: dict[str, GrowthLawSection] = Field(default_factory=dict)
    hot_spots: list[HotSpotSection] = Field(min_length=1)
    cracks: list[CrackSection] = Field(default_factory=list)
