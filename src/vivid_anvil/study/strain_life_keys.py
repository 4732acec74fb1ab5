"""Strain-life curves as they are written: by their constants, from a card, estimated, or fitted to tests."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, WithJsonSchema

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.materials.strain import (
    CyclicCurve,
    StrainLife,
    fit_strain_life,
    hardness_estimate,
    medians_estimate,
    read_strain_tests,
    strain_life_through,
    uniform_material_law,
    universal_slopes,
)
from vivid_anvil.study.models_of_nouns import (
    TAG,
    Section,
    Text,
    from_text,
    kind_or,
    model_of,
    rows_with_units,
    union_of,
    written,
)
from vivid_anvil.units import coherent

Stress = Annotated[float, from_text("stress"), written("stress")]
Strain = Annotated[float, from_text("strain"), written("strain")]


def _ductility(value: Any) -> Any:
    """A plain number, as ε_f' is written everywhere, or text with a unit of strain."""
    return coherent(value, "strain", "") if isinstance(value, str) else value


Ductility = Annotated[float, BeforeValidator(_ductility), WithJsonSchema({"type": ["number", "string"]})]
USUAL = "constants"
CYCLIC = ("youngs_modulus", "cyclic_strength_coefficient", "cyclic_hardening_exponent")
LEADING = {"card": "card", "estimate": "estimate", "tests": "tests", "points": "points"}  # key that says the kind


@dataclass(frozen=True)
class Source:
    """Where a section stands: the files that it names are in `folder`; how a card's curve is looked up."""

    folder: Path
    card_curve: Callable[[str, str | None], StrainLife]


class _Later(Section):
    """What may follow every way to write a curve."""

    at_survival: float | None = None


class StrainLifeOfCard(_Later):
    """The strain-life curve of a material card, where it has several that of the name `curve`."""

    kind: Literal["card"] = "card"
    card: Text
    curve: Text | None = None


class EstimatedStrainLife(_Later):
    """A strain-life curve estimated from strength or hardness."""

    kind: Literal["estimate"] = "estimate"
    estimate: Text
    ultimate_strength: Stress | None = None
    group: Text | None = None
    brinell_hardness: float | None = None
    true_fracture_strain: Strain | None = None
    form: Text | None = None
    youngs_modulus: Stress | None = None


class FittedStrainLife(_Later):
    """A strain-life curve fitted to strain-controlled tests."""

    kind: Literal["tests"] = "tests"
    tests: Text
    youngs_modulus: Stress
    sheet: Text | int | None = None
    smallest_plastic_strain: Strain | None = None
    survival_probability: float | None = None


class TableOfStrainLife(_Later):
    """A strain-life curve through a table of strain amplitudes and lives."""

    kind: Literal["points"] = "points"
    points: Annotated[list[list[Any]], rows_with_units("strain")]
    youngs_modulus: Stress
    cyclic_strength_coefficient: Stress
    cyclic_hardening_exponent: float
    survival_probability: float | None = None
    log_life_std: float | None = None
    basis: Text | None = None
    source: Text | None = None


def strain_life_keys() -> Any:
    """The type of a strain-life curve in a file."""
    own = {"at_survival": float, "fatigue_ductility_coefficient": Ductility}
    constants = model_of(StrainLife, without=("name", "points", "outside_data"), instead=own, kind=USUAL, usual=True)
    models: dict[str, type[Section]] = {
        USUAL: constants,
        "card": StrainLifeOfCard,
        "estimate": EstimatedStrainLife,
        "tests": FittedStrainLife,
        "points": TableOfStrainLife,
    }

    plain = kind_or(USUAL)

    def kind_of(value: Any) -> str:
        found = next((kind for key, kind in LEADING.items() if isinstance(value, dict) and key in value), None)
        return plain(value) if found is None else f"{TAG}{found}"

    return union_of(models, kind_of)


def _uniform(name: str, given: dict[str, Any]) -> StrainLife:
    return uniform_material_law(given.pop("ultimate_strength"), name=name, **given)


def _medians(name: str, given: dict[str, Any]) -> StrainLife:
    return medians_estimate(given.pop("ultimate_strength"), name=name, **given)


def _slopes(name: str, given: dict[str, Any]) -> StrainLife:
    return universal_slopes(given.pop("ultimate_strength"), name=name, **given)


def _hardness(name: str, given: dict[str, Any]) -> StrainLife:
    return hardness_estimate(given.pop("brinell_hardness"), name=name, **given)


@dataclass(frozen=True)
class Estimate:
    """What an estimate needs, what it may have, and what makes the curve."""

    needs: tuple[str, ...]
    may: tuple[str, ...]
    make: Callable[[str, dict[str, Any]], StrainLife]


ESTIMATES = {
    "uniform material law": Estimate(("ultimate_strength",), ("group", "youngs_modulus"), _uniform),
    "medians": Estimate(("ultimate_strength",), ("group", "youngs_modulus"), _medians),
    "hardness": Estimate(("brinell_hardness",), ("youngs_modulus",), _hardness),
    "universal slopes": Estimate(("ultimate_strength", "true_fracture_strain"), ("form", "youngs_modulus"), _slopes),
}


def estimated(name: str, given: dict[str, Any]) -> StrainLife:
    """An estimate by its keys; InputError for one that it lacks, or does not take."""
    kind = given.pop("estimate")
    one_of("estimate", kind, tuple(ESTIMATES))
    how = ESTIMATES[kind]
    missing = [key for key in how.needs if key not in given]
    if missing:
        raise InputError(missing[0], "nothing", f"{listed(missing)}, which the estimate {kind!r} goes by")
    for key in given:
        if key not in (*how.needs, *how.may):
            raise InputError(key, f"{key} with the estimate {kind!r}", f"{listed((*how.needs, *how.may))} only")
    return how.make(name, given)


def strain_life_of(name: str, section: Section, place: Source, **usual: Any) -> StrainLife:
    """The strain-life curve of a checked section; `usual` holds where a curve by constants does not say otherwise."""
    kind: str = section.kind  # type: ignore[attr-defined]
    given = section.given
    survival = given.pop("at_survival", None)
    if kind == "card":
        curve = dataclasses.replace(place.card_curve(given["card"], given.get("curve")), name=name)
    elif kind == "estimate":
        curve = estimated(name, given)
    elif kind == "tests":
        file = place.folder / given.pop("tests")
        modulus, wanted = given.pop("youngs_modulus"), given.pop("survival_probability", 0.5)
        least = (
            {"smallest_plastic_strain": given.pop("smallest_plastic_strain")}
            if "smallest_plastic_strain" in given
            else {}
        )
        fit = fit_strain_life(read_strain_tests(file, **given), youngs_modulus=modulus, **least)
        curve = fit.curve(name=name, survival_probability=wanted)
    elif kind == "points":
        cyclic = CyclicCurve(**{key: given.pop(key) for key in CYCLIC})
        curve = dataclasses.replace(strain_life_through(given.pop("points"), cyclic, name=name), **(usual | given))
    else:
        curve = StrainLife(name=name, **(usual | given))
    return curve if survival is None else curve.at_survival(survival)
