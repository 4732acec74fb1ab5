"""An event as people write it, in one of several forms told apart by its leading key, and what each form makes.

Equal cycles are the ways to make `ConstantAmplitude`: their keys are its arguments. Loads in the table of loads are a form too.
"""

from __future__ import annotations

import functools
import inspect
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any

from pydantic import BeforeValidator, Discriminator, Field, Tag, create_model, model_validator

from vivid_anvil.events import (
    BlockProgramme,
    ConstantAmplitude,
    DutyCycle,
    Event,
    GatedHistory,
    LoadSpectrum,
    LoadStates,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import LoadHistory, join, read_history, repair_step
from vivid_anvil.histories.load import LOADS
from vivid_anvil.study.models_of_nouns import TAG, Section, Text, made, name_or, one_value_or, tables_by_kind, united
from vivid_anvil.study.vibration_keys import (
    OF_ONE,
    SHAPING,
    CrossoverSection,
    Ends,
    EstimateSection,
    PairSection,
    Rows,
    Three,
    random_of_matrix,
    random_of_psd,
    random_of_psds,
    random_of_rms,
    sine_dwells,
    sine_sweep,
)
from vivid_anvil.units import coherent

COMMON = {"name": Text, "occurrences": float, "duration": Text}
INNER = "events"  # the leading key of an event that is a duty cycle itself


@dataclass(frozen=True)
class Place:
    """Where files of events are, and how inner duty cycles are counted."""

    folder: Path
    how: Mapping[str, str]


@dataclass(frozen=True)
class Form:
    """A way to write an event: the keys that it needs and may have, with their types, and what makes the load of them."""

    needs: Mapping[str, Any]
    may: Mapping[str, Any]
    make: Callable[[str, dict[str, Any], Place], Any]
    one_of: tuple[str, ...] = ()


def _history(name: str, values: dict[str, Any], place: Place) -> LoadHistory | GatedHistory:
    """The history of an event, read, repaired step by step, and gated."""
    files = values["history"]
    files = [files] if isinstance(files, str) else files
    rate = {key: values[key] for key in ("sample_rate",) if key in values}
    parts = [read_history(place.folder / file, name=name, **rate, **values.get("read", {})) for file in files]
    history = parts[0] if len(parts) == 1 else join(parts, name=name)
    for step in values.get("repairs", []):
        history = repair_step(history, step)
    gates = {
        channel: coherent(size, history[channel].dimension, f"gate, {channel}")
        for channel, size in values.get("gate", {}).items()
    }
    return GatedHistory(history, gates) if gates else history


def _rows_of(leading: str, columns: Callable[..., Any], read: Callable[..., Any]) -> Callable[..., Any]:
    """What makes a programme or a spectrum, from a file or from columns written in the study."""

    def make(_: str, values: dict[str, Any], place: Place) -> BlockProgramme | LoadSpectrum:
        rows, channel = values.pop(leading), values.pop("channel")
        if "frequency" in values:
            values["frequency"] = coherent(values["frequency"], "frequency", "frequency")
        if isinstance(rows, str):
            made_of: BlockProgramme | LoadSpectrum = read(place.folder / rows, channel=channel, **values)
            return made_of
        written = dict(rows)
        unit = written.pop("unit", None)
        if not isinstance(unit, str):
            raise InputError("unit", repr(unit), "the unit of the loads in the rows", 'Write for instance unit = "kN".')
        values = {key: value for key, value in values.items() if key not in ("sheet", "block")}
        made_of = columns(channel, written, unit, **values)
        return made_of  # noqa: RET504 (it has a type there)

    return make


def _inner(name: str, values: dict[str, Any], place: Place) -> Any:
    return DutyCycle(name, tuple(event_of(event, place) for event in values[INNER])).counted(**place.how)


def _equal_cycles(size: str) -> Form:
    """The arguments of `ConstantAmplitude.from_...`, of which one more number says where the cycles lie."""
    make = getattr(ConstantAmplitude, f"from_{size}")
    arguments = list(inspect.signature(make).parameters)
    seconds = tuple(name for name in arguments if name not in ("channel", size, "cycles", "frequency", "dimension"))
    load = Text | float
    types = {"r_ratio": float, **dict.fromkeys(("mean", "minimum"), load)}

    def made_of(_: str, values: dict[str, Any], __: Place) -> Any:
        return make(values.pop("channel"), values.pop(size), **values)

    return Form(
        {"channel": Text, size: load, "cycles": float},
        {**{name: types[name] for name in seconds}, "frequency": Text},
        made_of,
        seconds,
    )


_ROWS = Text | dict[str, Any]
_SHEET = {"sheet": Text | int, "block": Text | int}
SIZES = ("range", "amplitude", "maximum")  # equal cycles: how large they are
# By leading key.
EVENT_FORMS: dict[str, Form] = {
    "history": Form(
        {"history": Text | list[Text]},
        {"read": dict[str, Any], "sample_rate": Text, "repairs": list[dict[str, Any]], "gate": dict[str, Text]},
        _history,
    ),
    "programme": Form(
        {"programme": _ROWS, "channel": Text},
        {"frequency": Text, **_SHEET},
        _rows_of("programme", block_programme, read_programme),
    ),
    "spectrum": Form({"spectrum": _ROWS, "channel": Text}, _SHEET, _rows_of("spectrum", load_spectrum, read_spectrum)),
    "states": Form(
        {"states": dict[Text, Any], "cycles": float},
        {"frequency": Text},
        lambda _, values, __: LoadStates.of(values.pop("states"), **values),
    ),
    "psd": Form(
        {"psd": name_or(one_value_or(EstimateSection, Rows)), "channel": Text, "exposure": Text}, OF_ONE, random_of_psd
    ),
    "psds": Form(
        {"psds": dict.__class_getitem__((Text, name_or(Rows))), "exposure": Text},
        {"together": list[PairSection], "means": dict[Text, Text], "between_points": str, **SHAPING},
        random_of_psds,
    ),
    "cross_spectra": Form(
        {"cross_spectra": Text, "conjugated": str, "exposure": Text},
        {"means": dict[Text, Text], **SHAPING},
        random_of_matrix,
    ),
    "rms": Form(
        {"rms": Text, "upcrossing_rate": Text, "channel": Text, "exposure": Text},
        {"mean": Text, **SHAPING},
        random_of_rms,
    ),
    "dwells": Form({"dwells": Three, "channel": Text}, {"mean": Text}, sine_dwells),
    "sweep": Form(
        {"sweep": Ends, "channel": Text, "profile": name_or(one_value_or(CrossoverSection, Rows))},
        {"rate": Text, "time": Text, "scale": str, "passes": float, "mean": Text},
        sine_sweep,
    ),
    "load": Form({"load": Any}, {}, lambda _, values, __: made(LOADS, values["load"])),
    INNER: Form({INNER: Any}, {}, _inner),
    **{size: _equal_cycles(size) for size in SIZES},
}


class _WithOneSecond(Section):
    """Equal cycles have two numbers: one says how large they are, the other where they lie."""

    @model_validator(mode="after")
    def _one_second(self) -> _WithOneSecond:
        leading = leading_key(self)
        seconds, given = EVENT_FORMS[leading].one_of, self.given
        both = [key for key in seconds if key in given]
        if seconds and len(both) != 1:
            raise InputError(
                "",
                f"{leading} with {' and '.join(both)}" if both else f"{leading} alone",
                f"{leading} with one of {', '.join(seconds)}",
                "A cycle has two numbers: one says how large it is, the other where it lies.",
            )
        return self


def event_keys() -> Any:
    """The type of an event in a study file; every load in the table of loads is in it."""
    return _event_keys(tuple(LOADS))


@functools.lru_cache(maxsize=4)
def _event_keys(loads: tuple[str, ...]) -> Any:
    models: dict[str, Any] = {}
    for leading, form in EVENT_FORMS.items():
        if leading == "load" and not loads:
            continue
        types = {**COMMON, **form.needs, **form.may}
        if leading == "load":
            types["load"] = tables_by_kind(LOADS)
        needed = ("name", *form.needs)
        keys: dict[str, Any] = {key: (own, ...) if key in needed else (own | None, None) for key, own in types.items()}
        if leading == INNER:
            keys[INNER] = ("list[AnyEvent]", Field(min_length=1))
        models[leading] = create_model(f"Event_{leading}", __base__=_WithOneSecond, **keys)
    tagged = [Annotated[model, Tag(f"{TAG}{leading}")] for leading, model in models.items()]
    event: Any = Annotated[united(tagged), Discriminator(_tag_of), BeforeValidator(_with_one_leading_key)]
    models[INNER].model_rebuild(_types_namespace={"AnyEvent": event})
    return event


def leading_key(section: Section) -> str:
    """The key that says which form a checked event has."""
    return type(section).__name__.removeprefix("Event_")


def _tag_of(value: Any) -> str:
    if isinstance(value, Section):
        return TAG + leading_key(value)
    return TAG + next((key for key in EVENT_FORMS if key in value), "")


def _with_one_leading_key(value: Any) -> Any:
    """InputError unless there is exactly one leading key."""
    if not isinstance(value, dict):
        return value
    leading = [key for key in EVENT_FORMS if key in value]
    size = next((key for key in leading if key in SIZES), None)
    if len(leading) == 1:
        return value
    if size is not None and all(key in (size, *EVENT_FORMS[size].one_of) for key in leading):
        return value
    known = [key for key in EVENT_FORMS if key != "load" or len(LOADS)]
    remedy = "Make an event of each." if leading else "It says what happens."
    raise InputError("", f"the keys {', '.join(value)}", "exactly one of " + ", ".join(known), remedy)


def event_of(section: Section, place: Place) -> Event:
    """The event of a checked section."""
    values = section.given
    common = {key: values.pop(key) for key in COMMON if key in values}
    return Event(load=EVENT_FORMS[leading_key(section)].make(common["name"], values, place), **common)
