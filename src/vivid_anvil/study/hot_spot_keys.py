"""A hot spot as it is written: how loads become stress there, and the method by which stress becomes damage."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, model_validator

from vivid_anvil.damage import StressLife
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.study.models_of_nouns import Section, Text, from_text, model_of, name_or, written
from vivid_anvil.study.response_keys import ModesSection

Stress = Annotated[float, from_text("stress"), written("stress")]
StressLifeKeys = model_of(StressLife, without=(), instead={"sn_curve": Text}, all_optional=True)
METHOD_KEYS = tuple(StressLifeKeys.model_fields)


class MethodKeys(StressLifeKeys):  # type: ignore[misc, valid-type]
    """How stress becomes damage: by a method of this study, a table of one, or the keys of stress-life beside the others."""

    method: Any = None

    @property
    def of_stress_life(self) -> dict[str, Any]:
        """The keys of stress-life that are stated."""
        return {key: value for key, value in self.given.items() if key in METHOD_KEYS}

    @model_validator(mode="after")
    def _one_method(self) -> MethodKeys:
        if self.method is not None and self.of_stress_life:
            key = next(iter(self.of_stress_life))
            raise InputError(
                key, f"{key} beside a method", "one of both", "Put it into the method, or leave the method out."
            )
        return self


class Components(Section):
    """A stress tensor; what is left out is 0."""

    xx: Stress = 0.0
    yy: Stress = 0.0
    zz: Stress = 0.0
    xy: Stress = 0.0
    yz: Stress = 0.0
    zx: Stress = 0.0

    @property
    def tensor(self) -> list[float]:
        """In their order."""
        return [self.xx, self.yy, self.zz, self.xy, self.yz, self.zx]


class UnitStressSection(Components):
    """Stresses of a place at the unit load of a channel."""

    channel: Text
    unit_load: Text
    event_factors: dict[Text, float] = Field(default_factory=dict)


class RosetteSection(Section):
    """Three measured strains of a place."""

    channels: Annotated[list[Text], Field(min_length=3, max_length=3)]
    directions: Text | Annotated[list[float], Field(min_length=3, max_length=3)] = "0/45/90"
    youngs_modulus: Stress
    poissons_ratio: float = 0.3


UnitStressKeys: Any = name_or(list[UnitStressSection])
WAYS = ("stress_per_load", "unit_stresses", "rosette", "responses", "modes", "strain_states", "section_loads")
Force = Annotated[float, from_text("force per width"), written("force per width")]
Moment = Annotated[float, from_text("moment per width"), written("moment per width")]


class Resultants(Section):
    """Forces and moments per width of a laminate; what is left out is 0."""

    nx: Force = 0.0
    ny: Force = 0.0
    nxy: Force = 0.0
    mx: Moment = 0.0
    my: Moment = 0.0
    mxy: Moment = 0.0
    qx: Force = 0.0
    qy: Force = 0.0

    @property
    def row(self) -> list[float]:
        """In their order."""
        return [self.nx, self.ny, self.nxy, self.mx, self.my, self.mxy, self.qx, self.qy]


class SectionLoadSection(Resultants):
    """The same at the unit load of a channel."""

    channel: Text
    unit_load: Text
    event_factors: dict[Text, float] = Field(default_factory=dict)


class StrainStatesSection(Section):
    """Computed states of strain at a place, from a file: what measure it holds, and what goes through them."""

    file: Text
    measure: Text
    shear: Text = "tensor"
    channel: Text | None = None
    events: list[Text] = Field(default_factory=list)


class HotSpotSection(MethodKeys):
    """A hot spot."""

    name: Text
    channel: Text | None = None
    stress_per_load: Text | dict[Text, Text] | None = None
    unit_stresses: UnitStressKeys | None = None
    constant_stress: Components | None = None
    rosette: RosetteSection | None = None
    responses: Any = None
    modes: ModesSection | None = None
    strain_states: list[StrainStatesSection] | None = Field(default=None, min_length=1)
    section_loads: list[SectionLoadSection] | None = Field(default=None, min_length=1)
    constant_section_loads: Resultants | None = None
    measure: str | None = None
    direction: Annotated[list[float], Field(min_length=3, max_length=3)] | None = None
    material: Text | None = None
    offset: Stress = 0.0
    notch_factor: float = 1.0

    @model_validator(mode="after")
    def _one_way(self) -> HotSpotSection:
        ways = [key for key in WAYS if getattr(self, key) is not None]
        if len(ways) != 1:
            found = f"{listed(ways)} at once" if ways else "none of them"
            raise InputError(
                ways[1] if ways else "stress_per_load",
                found,
                f"one of {listed(WAYS)}",
                'Such as channel = "force" with stress_per_load = "5 MPa/kN".',
            )
        several = isinstance(self.stress_per_load, dict)
        plain = self.stress_per_load is not None and not several
        if plain != (self.channel is not None):
            raise InputError(
                "channel",
                "none" if plain else f"{self.channel!r} beside {'stresses of several loads' if several else ways[0]}",
                "the load that acts on the place" if plain else f"{ways[0]} alone, which names its channels",
                'Or of several loads: stress_per_load = { weight = "40 MPa", wind = "30 MPa" }.'
                if plain
                else "Leave it out.",
            )
        tensor = ways[0] in ("unit_stresses", "rosette", "modes")
        for key in ("measure", "direction"):
            if getattr(self, key) is not None and not tensor:
                raise InputError(
                    key, f"{key} beside {ways[0]}", "unit_stresses, a rosette or modes", "One stress needs none."
                )
        if self.measure is not None and self.direction is not None:
            raise InputError("direction", "a direction beside a measure", "one of both")
        if self.constant_section_loads is not None and self.section_loads is None:
            raise InputError("constant_section_loads", f"beside {ways[0]}", "section_loads beside it")
        if self.material is None and self.section_loads is None:
            raise InputError(
                "material", "no such key", "the key 'material'", "Add it: the name of one of the materials."
            )
        if self.constant_stress is not None and not isinstance(self.unit_stresses, list) and self.modes is None:
            raise InputError(
                "constant_stress", "no unit_stresses in a list", "unit_stresses beside it, or a row of the file"
            )
        return self
