"""Standards as data files (TOML): classes, slopes, knees, thickness, environments."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.files import read_toml
from vivid_anvil.units import opened
from vivid_anvil.units.sections import checked

_CURVE_KEYS = {
    "component": "text",
    "loading": "text",
    "what": "text",
    "classes": "anything",
    "class_life": "a number",
    "slopes": "numbers",
    "knee_lives": "numbers",
    "ends_at": "a number",
    "rows": "anything",
    "intercept_unit": "text",
    "reference_thickness": "length",
    "thickness_exponents": "table",
    "environments": "table",
    "source": "text",
}
_ENVIRONMENT_KEYS = {"stress_factor": "a number", "knees": "text", "source": "text"}
_FILE_KEYS = {
    "format": "a number",
    "standard": "text",
    "edition": "text",
    "title": "text",
    "stress": "text",
    "r_ratio": "number or text",
    "survival_probability": "a number",
    "log_life_std": "a number",
    "validity": "text",
    "note": "text",
    "source": "text",
    "curves": "anything",
}
_ROW_KEYS = {
    "class": "text",
    "log_a": "numbers",
    "slopes": "numbers",
    "ends_at": "a number",
    "thickness_exponent": "a number",
    "environment": "text",
}


@dataclass(frozen=True)
class DetailCurves:
    """Curves of one component and loading: for classes by number, or rows with intercepts by name."""

    component: str
    loading: str
    what: str
    class_life: float
    slopes: tuple[float, ...]
    knee_lives: tuple[float, ...]
    ends_at: float | None
    classes: tuple[str, ...]
    rows: Mapping[str, Mapping[str, Any]]
    intercept_unit: str
    reference_thickness: float | None
    thickness_exponents: Mapping[str, float]
    environments: Mapping[str, Mapping[str, Any]]
    source: str


@dataclass(frozen=True, eq=False)
class DetailStandard:
    """The classes of a standard, as its data file has them."""

    name: str
    edition: str
    title: str
    stress: Any
    r_ratio: Any
    survival_probability: float | None
    log_life_std: float | None
    validity: str
    note: str
    curves: tuple[DetailCurves, ...]

    @property
    def components(self) -> tuple[str, ...]:
        """The components that it has: "normal", "shear"."""
        return tuple(dict.fromkeys(curve.component for curve in self.curves))

    def find(self, class_name: str, component: str, loading: str | None) -> DetailCurves:
        """The curves that hold for a class; InputError with the classes that there are."""
        where = f"{self.name}, class {class_name}"
        checks.one_of(inside(where, "component"), component, self.components)
        of_component = [curve for curve in self.curves if curve.component == component]
        loadings = tuple(dict.fromkeys(one.loading for one in of_component))
        if loading is None:
            loading = "variable" if "variable" in loadings else loadings[0]
        checks.one_of(inside(where, "loading"), loading, loadings)
        found = [one for one in of_component if one.loading == loading]
        for one in found:
            if class_name in one.classes:
                return one
        known = [name for one in found for name in one.classes]
        nearest = did_you_mean(class_name, known) if not is_number(class_name) else nearest_class(class_name, known)
        raise InputError(
            f"{self.name}, {component} stress", f"no class {class_name}", f"one of {', '.join(known)}", nearest
        )


@opened()
def read_standard(path: str | Path) -> DetailStandard:
    """The classes in a data file; InputError with the key for anything that cannot be meant."""
    path = Path(path)
    data = checked(
        read_toml(path, "a file of detail classes"), _FILE_KEYS, path.name, ("standard", "stress", "r_ratio", "curves")
    )
    if not isinstance(data["curves"], list) or not data["curves"]:
        raise InputError(inside(f"{path.name}", "curves"), repr(data["curves"]), "tables written [[curves]]")
    curves = tuple(
        _read_curves(section, f"{path.name}, curves, entry {i}", data.get("source", data["standard"]))
        for i, section in enumerate(data["curves"], start=1)
    )
    return DetailStandard(
        name=data["standard"],
        edition=data.get("edition", ""),
        title=data.get("title", ""),
        stress=data["stress"],
        r_ratio=data["r_ratio"],
        survival_probability=data.get("survival_probability"),
        log_life_std=data.get("log_life_std"),
        validity=data.get("validity", ""),
        note=data.get("note", ""),
        curves=curves,
    )


def _read_curves(section: Any, where: str, source: str) -> DetailCurves:
    if not isinstance(section, dict):
        raise InputError(where, repr(section), "a table of keys")
    by_rows = "rows" in section
    needed = ("rows", "intercept_unit") if by_rows else ("classes", "class_life", "slopes", "knee_lives")
    data = checked(section, _CURVE_KEYS, where, ("component", *needed))
    rows = {}
    for i, row in enumerate(data.get("rows", []), start=1):
        one = checked(row, _ROW_KEYS, inside(where, f"rows, entry {i}"), ("class", "log_a", "slopes"))
        rows[one["class"]] = one
    classes = tuple(rows) if by_rows else tuple(class_text(one) for one in data["classes"])
    return DetailCurves(
        component=data["component"],
        loading=data.get("loading", "variable"),
        what=data.get("what", ""),
        class_life=data.get("class_life", math.nan),
        slopes=tuple(data.get("slopes", ())),
        knee_lives=tuple(data.get("knee_lives", ())),
        ends_at=data.get("ends_at"),
        classes=classes,
        rows=rows,
        intercept_unit=data.get("intercept_unit", "MPa"),
        reference_thickness=data.get("reference_thickness"),
        thickness_exponents=data.get("thickness_exponents", {}),
        environments={
            name: checked(one, _ENVIRONMENT_KEYS, inside(where, f"environments, {name}"), ("stress_factor",))
            for name, one in data.get("environments", {}).items()
        },
        source=data.get("source", source),
    )


@lru_cache(maxsize=1)
def shipped_standards() -> dict[str, DetailStandard]:
    """The standards whose classes come with the package, by name."""
    folder = files("vivid_anvil.materials") / "data" / "details"
    standards = [read_standard(Path(str(item))) for item in folder.iterdir() if item.name.endswith(".toml")]
    return {one.name: one for one in sorted(standards, key=lambda one: one.name)}


@opened()
def standard_named(name: str, file: str | Path | None = None) -> DetailStandard:
    """The standard of that name, or that in `file`; InputError with the names that there are."""
    if file is not None:
        return read_standard(file)
    known = shipped_standards()
    if name not in known:
        remedy = (
            did_you_mean(name, known) or "For another standard, write its classes into a data file and name the file."
        )
        raise InputError("standard", repr(name), f"one of {listed(known)}", remedy)
    return known[name]


def class_text(value: Any) -> str:
    """A class as text: 71, 71.0 and "71" are the same."""
    if isinstance(value, str):
        return value.strip()
    return f"{checks.real_number('detail class', value, 'a class such as 71'):g}"


def is_number(text: str) -> bool:
    """Whether a class is named by a number."""
    return text.replace(".", "", 1).isdigit()


def nearest_class(text: str, known: Sequence[str]) -> str:
    """A sentence with the next lower class; empty without."""
    numbers = [name for name in known if is_number(name) and float(name) <= float(text)]
    return f"The next lower one is {max(numbers, key=float)}." if numbers else ""
