"""The study file as it is written: keys, types, and units at the door. Nothing is looked up here."""

from __future__ import annotations

import datetime
import functools
import inspect
from dataclasses import fields
from typing import Annotated, Any, Literal, get_type_hints

from pydantic import Field, TypeAdapter, create_model, model_validator

from vivid_anvil.acceptance import PRIMARY, SECONDARY
from vivid_anvil.events import DutyCycle
from vivid_anvil.fields import ThroughPath, ToePath
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.growth import RETARDATIONS, Crack
from vivid_anvil.histories.load import LOADS
from vivid_anvil.materials import LAWS, THRESHOLDS, Material, SNFamily
from vivid_anvil.materials.curves.curved import CURVED_FORMS
from vivid_anvil.materials.fracture import TOUGHNESSES
from vivid_anvil.materials.plies import LIFE_DIAGRAMS, STIFFNESS_DECAYS, STRENGTH_DECAYS
from vivid_anvil.materials.rubber import HYPERELASTIC, TEARING_LAWS
from vivid_anvil.shapes import SHAPES, keys_of_shape
from vivid_anvil.spectra import RESPONSES
from vivid_anvil.stress import METHODS, CaseLoad, StepLoad
from vivid_anvil.study.curve_keys import curve_keys
from vivid_anvil.study.event_keys import event_keys
from vivid_anvil.study.flaw_keys import flaw_keys
from vivid_anvil.study.growth_law_keys import growth_law_keys
from vivid_anvil.study.hot_spot_keys import HotSpotSection, MethodKeys
from vivid_anvil.study.method_keys import method_keys
from vivid_anvil.study.models_of_nouns import (
    Section,
    Text,
    from_text,
    key_of,
    model_of,
    name_or,
    one_or_table,
    rows_with_units,
    written,
)
from vivid_anvil.study.ply_keys import laminate_keys, ply_keys
from vivid_anvil.study.report_settings import ReportSettings
from vivid_anvil.study.response_keys import LinesSection, ModelModesSection, response_keys
from vivid_anvil.study.rubber_keys import rubber_keys
from vivid_anvil.study.strain_life_keys import strain_life_keys

FORMAT = 2


Length = Annotated[float, from_text("length"), written("length")]
StressIntensity = Annotated[float, from_text("stress intensity"), written("stress intensity")]


MaterialSection = model_of(Material, instead={"card": Text})
SNFamilySection = model_of(SNFamily, instead={"curves": Annotated[list[Text], Field(min_length=2)]})
DutyCycleSection = model_of(DutyCycle, without=(), instead={"events": list[Any], "repeat_duration": Text})
ROWS_OF_STRESS: Any = Annotated[list[list[Any]], rows_with_units("length")]
CrackSection = model_of(
    Crack,
    without=(),
    instead={
        **dict.fromkeys(("hot_spot", "law", "later_law", "later_law_from"), Text),
        "shape": str,
        "residual_stress": Annotated[list[list[Any]], rows_with_units("length", "stress")],
        "retardation": Any,
    },
)
_LoadCaseKeys = model_of(
    CaseLoad,
    without=(),
    instead={
        **dict.fromkeys(("case", "channel", "unit_load"), Text),
        "event_factors": dict[Text, float],
        "constant": float,
    },
    all_optional=True,
)


class LoadCaseSection(_LoadCaseKeys):  # type: ignore[misc, valid-type]
    """A load case of a model: scaled by a channel, or there all the time."""

    case: Text

    @model_validator(mode="after")
    def _one_way(self) -> LoadCaseSection:
        moving = self.channel is not None and self.unit_load is not None
        either = self.channel is not None or self.unit_load is not None or bool(self.event_factors)
        if moving == (self.constant is not None) or (self.constant is not None and either):
            raise InputError(
                "",
                f"the load case {self.case!r} without one way to be loaded",
                "channel and unit_load; or constant",
                "A constant case takes a factor, such as constant = 1.0.",
            )
        return self


class BoxSection(Section):
    """Nodes between two places along some axes, the first below the second."""

    x: list[Length] | None = Field(default=None, min_length=2, max_length=2)
    y: list[Length] | None = Field(default=None, min_length=2, max_length=2)
    z: list[Length] | None = Field(default=None, min_length=2, max_length=2)


class RegionSection(MethodKeys):
    """A set of nodes or elements with a material or a method of its own; what it does not say is as in the model."""

    set: Text
    material: Text | None = None
    notch_factor: float | None = None


SequenceSection = model_of(
    StepLoad, without=(), instead={"channel": Text, "cases": Annotated[list[Text], Field(min_length=1)]}
)
Corner = Annotated[list[Length], Field(min_length=3, max_length=3)]
Direction = Annotated[list[float], Field(min_length=3, max_length=3)]
_PathKeys = model_of(
    ToePath,
    instead={"thickness": Length, "along": Direction, "nodes": list[int]}
    | dict.fromkeys(("toe", *(field.name for field in fields(ThroughPath) if field.name != "name")), Corner),
    all_optional=True,
)


class PathSection(MethodKeys, _PathKeys):  # type: ignore[misc, valid-type]
    """Where a structural stress is taken: a path on the surface from a weld toe, marked nodes, or a line through the plate."""

    name: Text
    material: Text | None = None

    @model_validator(mode="after")
    def _one_way(self) -> PathSection:
        through = self.surface is not None and self.other is not None
        on_surface = self.rule is not None and (bool(self.nodes) != (self.toe is not None and self.along is not None))
        beside = any(one is not None for one in (self.rule, self.thickness, self.toe, self.along)) or bool(self.nodes)
        if through == on_surface or (through and beside) or (on_surface and (self.surface or self.other)):
            raise InputError(
                "",
                f"the path {self.name!r} without one way to find it",
                "rule with toe and along, or with nodes; or surface and other",
                'toe = ["0 mm", "10 mm", "4 mm"] is a place, along = [1, 0, 0] a direction.',
            )
        return self


class FieldOfStrainsSection(Section):
    """Computed states of strain of a model, from a file: what measure it holds, and what goes through them."""

    file: Text
    measure: Text
    channel: Text
    shear: Text = "tensor"
    at: list[Text] | None = None
    events: list[Text] = Field(default_factory=list)
    strain_unit: Text | None = None
    length_unit: Text | None = None
    cases: list[Text] | dict[Text, Text] | None = None
    component_order: str | None = None
    element_values: str = "each element"


OF_STRESSES = (
    "stress_unit",
    "length_unit",
    "cases",
    "component_order",
    "element_values",
    "face",
    "modes",
    "steady_state",
    "load_cases",
    "sequences",
    "measure",
    "direction",
    "ignore_cases",
    "paths",
)  # keys that say something of stresses


OF_LAMINATES = ("section_loads", "ply_stresses")
NOT_OF_SECTIONS = tuple(
    key for key in OF_STRESSES if key not in ("element_values", "load_cases", "sequences", "ignore_cases")
)  # of these, what section loads have no use for


class ModelSection(MethodKeys):
    """Stresses of a finite-element model, or strains of rubber, and how they are assessed at every node."""

    stresses: Text | None = None
    strain_states: list[FieldOfStrainsSection] | None = Field(default=None, min_length=1)
    free_surface: Text | None = None
    section_loads: Text | None = None
    ply_stresses: Text | None = None
    stress_unit: Text | None = None
    length_unit: Text | None = None
    cases: list[Text] | dict[Text, Text | dict[Text, Text]] | None = None
    component_order: str | None = None
    element_values: str = "each element"
    face: str = "both"
    sets_from: Text | None = None
    modes: ModelModesSection | None = None
    steady_state: LinesSection | None = None
    load_cases: list[LoadCaseSection] = Field(default_factory=list)
    sequences: list[SequenceSection] = Field(default_factory=list)  # type: ignore[valid-type]
    material: Text | None = None
    measure: str = "signed von Mises, hydrostatic"
    direction: Direction | None = None
    notch_factor: float = 1.0
    apart: Length | None = None
    up: Literal["x", "y", "z"] = "y"
    sets: dict[Text, BoxSection] = Field(default_factory=dict)
    leave_out: list[Text | int] = Field(default_factory=list)
    ignore_cases: list[Text] = Field(default_factory=list)
    regions: list[RegionSection] = Field(default_factory=list)
    paths: list[PathSection] = Field(default_factory=list)

    @model_validator(mode="after")
    def _stresses_or_strains(self) -> ModelSection:
        there = [key for key in ("stresses", "strain_states", *OF_LAMINATES) if getattr(self, key) is not None]
        if len(there) != 1:
            found = listed(there) if there else "none of them"
            raise InputError(
                "stresses",
                found,
                "stresses, strain_states of a model of rubber, or section_loads or ply_stresses of one of laminates",
            )
        if self.material is None and there[0] not in OF_LAMINATES:
            raise InputError(
                "material", "no such key", "the key 'material'", "Add it: the name of one of the materials."
            )
        for key in NOT_OF_SECTIONS if there[0] in OF_LAMINATES else ():
            if key in self.model_fields_set:
                raise InputError(key, f"{key} beside {there[0]}", "none", "They say themselves what they are.")
        if self.strain_states is None and self.free_surface is not None:
            raise InputError("free_surface", f"beside {there[0]}", "strain_states beside it", "Others need none.")
        for key in OF_STRESSES if self.strain_states is not None else ():
            if key in self.model_fields_set:
                raise InputError(
                    key,
                    f"{key} beside strain_states",
                    "none",
                    "Strains of rubber have their own keys in strain_states.",
                )
        return self


ReportSection = model_of(
    ReportSettings, without=(), instead={"sections": list[Text], "leave_out": list[Text], "date": datetime.date}
)


class StudyFile(Section):
    """The whole file."""

    format: int
    title: Text
    target_life: float | Text | None = None
    duty_cycle: DutyCycleSection | None = None  # type: ignore[valid-type]
    materials: dict[str, MaterialSection] = Field(default_factory=dict)  # type: ignore[valid-type]
    cards: Text | None = None
    sn_curves: dict[str, Any] = Field(default_factory=dict)
    sn_families: dict[str, SNFamilySection] = Field(default_factory=dict)  # type: ignore[valid-type]
    strain_life_curves: dict[str, Any] = Field(default_factory=dict)
    rubbers: dict[str, Any] = Field(default_factory=dict)
    plies: dict[str, Any] = Field(default_factory=dict)
    laminates: dict[str, Any] = Field(default_factory=dict)
    growth_laws: dict[str, Any] = Field(default_factory=dict)
    methods: dict[str, Any] = Field(default_factory=dict)
    hot_spots: list[HotSpotSection] = Field(default_factory=list)
    cracks: list[CrackSection] = Field(default_factory=list)  # type: ignore[valid-type]
    model: ModelSection | None = None
    flaws: Any = None
    report: ReportSection | None = None  # type: ignore[valid-type]

    @model_validator(mode="after")
    def _something_to_assess(self) -> StudyFile:
        if not self.hot_spots and self.model is None and self.flaws is None:
            raise InputError("hot_spots", "none", "at least one hot spot, or a table [model] or [flaws]")
        if self.duty_cycle is None:
            for key, value in (("hot_spots", self.hot_spots), ("model", self.model), ("target_life", self.target_life)):
                if value:
                    raise InputError(
                        "duty_cycle", f"none, with {key}", "a table [duty_cycle]: what the part goes through"
                    )
        return self


def shape_keys() -> dict[str, Any]:
    """The keys of all shapes with their types: fields of the shapes, each once."""
    return _keys_of(tuple(SHAPES))


@functools.lru_cache(maxsize=4)
def _keys_of(shapes: tuple[str, ...]) -> dict[str, Any]:
    keys: dict[str, Any] = {}
    rows = {"points": Annotated[Text | list[list[Any]], rows_with_units("length")], "stress_profile": ROWS_OF_STRESS}
    for made_by in map(SHAPES.get, shapes):
        hints = get_type_hints(made_by)
        for key in keys_of_shape(made_by):
            keys.setdefault(key, rows.get(key) or key_of(inspect.getattr_static(made_by, key, None), hints[key]))
    return keys


@functools.lru_cache(maxsize=64)
def table_type(file: type[StudyFile], table: str) -> TypeAdapter[Any]:
    """The type of one table of the file; KeyError for a table that it has not."""
    field = file.model_fields[table]
    own: Any = Annotated[(field.annotation, *field.metadata)] if field.metadata else field.annotation
    return TypeAdapter(own)


def study_file() -> type[StudyFile]:
    """The model of the whole file with all that the tables of choices have by now."""
    of_flaws = (PRIMARY, SECONDARY, TOUGHNESSES)
    choices = (
        CURVED_FORMS,
        LAWS,
        THRESHOLDS,
        HYPERELASTIC,
        TEARING_LAWS,
        LIFE_DIAGRAMS,
        STRENGTH_DECAYS,
        STIFFNESS_DECAYS,
        RETARDATIONS,
        METHODS,
        LOADS,
        SHAPES,
        RESPONSES,
        *of_flaws,
    )
    return _with_choices(tuple(name for one in choices for name in one))


@functools.lru_cache(maxsize=4)
def _with_choices(names: tuple[str, ...]) -> type[StudyFile]:  # noqa: ARG001
    laws: Any = dict.__class_getitem__((str, growth_law_keys()))
    curves: Any = dict.__class_getitem__((str, curve_keys()))
    strain_curves: Any = dict.__class_getitem__((str, strain_life_keys()))
    rubbers: Any = dict.__class_getitem__((str, rubber_keys()))
    plies: Any = dict.__class_getitem__((str, ply_keys()))
    laminates: Any = dict.__class_getitem__((str, laminate_keys()))
    memory = one_or_table(Text, RETARDATIONS)
    method = method_keys()
    methods: Any = dict.__class_getitem__((str, method))
    named = name_or(method)

    def with_method(section: type[Section], **more: Any) -> Any:
        return create_model(section.__name__, __base__=section, method=(named | None, None), **more)

    def many(one: Any) -> Any:
        return (list.__class_getitem__(one), Field(default_factory=list))

    events: Any = list.__class_getitem__(event_keys())
    duty: Any = create_model("DutyCycleSection", __base__=DutyCycleSection, events=(events, Field(min_length=1)))
    of_shapes: dict[str, Any] = {key: (own | None, None) for key, own in shape_keys().items()}
    crack: Any = create_model("CrackSection", __base__=CrackSection, retardation=(memory | None, None), **of_shapes)
    parts = {"regions": many(with_method(RegionSection)), "paths": many(with_method(PathSection))}
    return create_model(
        "StudyFile",
        __base__=StudyFile,
        duty_cycle=(duty | None, None),
        sn_curves=(curves, Field(default_factory=dict)),
        strain_life_curves=(strain_curves, Field(default_factory=dict)),
        rubbers=(rubbers, Field(default_factory=dict)),
        plies=(plies, Field(default_factory=dict)),
        laminates=(laminates, Field(default_factory=dict)),
        growth_laws=(laws, Field(default_factory=dict)),
        methods=(methods, Field(default_factory=dict)),
        hot_spots=many(with_method(HotSpotSection, responses=(response_keys() | None, None))),
        cracks=many(crack),
        model=(with_method(ModelSection, **parts) | None, None),
        flaws=(flaw_keys() | None, None),
    )
