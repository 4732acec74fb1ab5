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
    """An event: a history in a file, or cycles of constant amplitude."""

    name: Text
    occurrences: float
    history: Text | None = None
    sample_rate: Text | None = None
    channel: Text | None = None
    range: Text | None = None
    amplitude: Text | None = None
    r_ratio: float | None = None
    cycles: float | None = None
    frequency: Text | None = None

    @model_validator(mode="after")
    def _one_kind(self) -> EventSection:
        block = {
            "channel": self.channel,
            "range": self.range,
            "amplitude": self.amplitude,
            "cycles": self.cycles,
            "r_ratio": self.r_ratio,
            "frequency": self.frequency,
        }
        given = [key for key, value in block.items() if value is not None]
        if self.history is not None:
            if given:
                raise InputError(
                    "",
                    f"history together with {', '.join(given)}",
                    "either a history or a constant amplitude",
                    "Make two events of it.",
                )
            return self
        missing = [key for key in ("channel", "cycles", "r_ratio") if block[key] is None]
        if missing or (self.range is None) == (self.amplitude is None):
            wanted = 'history = "file.csv"; or channel, cycles, r_ratio and one of range and amplitude'
            raise InputError("", f"the keys {', '.join(['name', 'occurrences', *given])}", wanted)
        return self


class DutyCycleSection(Section):
    """The events of one repeat."""

    repeat: Text
    repeats_per_year: float
    residue: str = "repeated"
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
