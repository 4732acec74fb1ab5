"""The flaws of a study made of their tables: metals, stages, stresses, indications and fronts, each fault at its keys."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from contextlib import AbstractContextManager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.acceptance import (
    PRIMARY,
    SECONDARY,
    CrackFront,
    FractureLoads,
    Indication,
    Part,
    PartialFactors,
    PlaceOfFlaws,
    RangesPerYear,
    Stage,
    read_crack_front,
    read_indications,
    read_ranges,
    stage_of_duty_cycle,
)
from vivid_anvil.acceptance.leak_before_break import opening
from vivid_anvil.acceptance.many_flaws import flaws_made
from vivid_anvil.acceptance.stages import years_of
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials import GrowthLaw, Material
from vivid_anvil.materials.fracture import TOUGHNESSES, Metal, Weld
from vivid_anvil.stress import HotSpot
from vivid_anvil.study.flaw_job import AskedOfPlace, FlawJob, FrontJob
from vivid_anvil.study.models_of_nouns import made
from vivid_anvil.units.temperature import celsius

Keys = tuple[str | int, ...]
WORKBOOKS = (".xlsx", ".xlsm", ".xls")
OF_PARTS = {field.name for field in dataclasses.fields(Part)}
OF_METALS = {field.name for field in dataclasses.fields(Metal)}


@dataclass(frozen=True)
class Known:
    """What tables of flaws name: the nouns of the study, `at` that puts keys before faults, and the folder of its files."""

    materials: dict[str, Material]
    laws: dict[str, GrowthLaw]
    hot_spots: dict[str, HotSpot]
    duty_cycle: DutyCycle | None
    file: str
    folder: Path
    at: Callable[[Keys], AbstractContextManager[None]]
    named: Callable[[dict[str, Any], str, Keys, str], Any]


def flaw_job(section: Any, known: Known) -> FlawJob:
    """The flaws of a checked table `flaws`."""
    places = {name: _place(one, ("flaws", "places", name), known) for name, one in section.places.items()}
    stresses = {name: _stresses(one, ("flaws", "stresses", name), known) for name, one in section.stresses.items()}
    fronts = {name: _front(one, places, ("flaws", "fronts", name), known) for name, one in section.fronts.items()}
    target = None
    with known.at(("flaws",)):
        if section.indications is None and not fronts:
            raise InputError("indications", "none", "a file or rows of indications, or fronts")
        if section.sheet is not None and not isinstance(section.indications, str):
            raise InputError("sheet", f"{section.sheet!r} without a file of indications", "a sheet of a workbook")
        if section.indications is not None and not stresses:
            raise InputError("stresses", "none", "stresses that pull at the indications")
        if not 1.0 <= section.inspection_factor < 1000.0:
            raise InputError("inspection_factor", f"{section.inspection_factor:g}", "1 or more")
        if section.target_life is not None:
            target = years_of(section.target_life, "target_life")
    rows = _indications(section, known)
    for i, row in enumerate(rows):
        at = ("flaws", "indications", *(() if isinstance(section.indications, str) else (i,)))
        for key, names in (("place", places), ("stress", stresses)):
            _refers(row, key, names, known, at)
    if rows:
        _make(rows, places, stresses, known)
    asked = {
        name: _asked(one, places[name].metal, places[name].part.wall, stresses, ("flaws", "places", name), known)
        for name, one in section.places.items()
    }
    return FlawJob(rows, places, stresses, fronts, asked, section.inspection_factor, section.inspected, target)


def _asked(
    section: Any, metal: Metal, wall: float, stresses: dict[str, FractureLoads], keys: Keys, known: Known
) -> AskedOfPlace:
    for name in section.limits_under:
        known.named(stresses, name, (*keys, "limits_under"), "flaws, stresses")
    with known.at(keys):
        at = tuple(celsius(one, "limits_at") for one in section.limits_at)
        if at and all(
            metal.at_temperature(one).tough(wall).k == metal.at_temperature(one + 1.0).tough(wall).k for one in at
        ):
            raise InputError(
                "limits_at", "a toughness that does not go with temperature", "a master curve", "Leave it out."
            )
        area = None if section.leak_area is None else opening(section.leak_area, "leak_area")
    return AskedOfPlace(at, tuple(section.limits_under), area)


def _indications(section: Any, known: Known) -> tuple[Indication, ...]:
    """Those of a file, or of rows."""
    given = section.indications
    if given is None:
        return ()
    if isinstance(given, str):
        with known.at(("flaws", "indications")):
            return read_indications(known.folder / given, sheet=_sheet(section, given))
    rows = []
    for i, row in enumerate(given):
        with known.at(("flaws", "indications", i)):
            rows.append(Indication(**{key: getattr(row, key) for key in row.model_fields_set}))
    return tuple(rows)


def _make(
    rows: tuple[Indication, ...], places: dict[str, PlaceOfFlaws], stresses: dict[str, FractureLoads], known: Known
) -> None:
    """Whether flaws can be made of all indications; a fault names the file and the indication."""
    try:
        flaws_made(rows, places, stresses)
    except InputError as error:
        where = f"{known.file}, flaws, indications: {error.where}"
        raise InputError(where, error.found, error.expected, error.remedy) from error


def _sheet(section: Any, file: str) -> str | int:
    """The sheet of a workbook, the first where none is named; a text file has none."""
    if section.sheet is None:
        return 0
    if not file.lower().endswith(WORKBOOKS):
        raise InputError("sheet", f"{section.sheet!r} of {file}", "a sheet of a workbook (xlsx)", "Leave it out.")
    sheet: str | int = section.sheet
    return sheet


def _refers(row: Indication, key: str, names: Mapping[str, Any], known: Known, at: Keys) -> None:
    """Whether an indication names something that is there; the only one need not be named."""
    given = getattr(row, key)
    if given in names or (not given and len(names) == 1):
        return
    with known.at(at):
        found = repr(given) if given else "none"
        raise InputError(f"indication {row.name}, {key}", found, f"one of {listed(names)}", did_you_mean(given, names))


def _place(section: Any, keys: Keys, known: Known) -> PlaceOfFlaws:
    material = known.named(known.materials, section.material, (*keys, "material"), "materials")
    given = section.given
    with known.at(keys):
        part = Part(**{key: given[key] for key in OF_PARTS & given.keys()})
        own = {key: given[key] for key in (OF_METALS - {"material"}) & given.keys()}
    if section.toughness is not None:
        with known.at((*keys, "toughness")):
            own["toughness"] = made(TOUGHNESSES, section.toughness)
    if section.weld is not None:
        with known.at((*keys, "weld")):
            own["weld"] = Weld(**section.weld.given)
    factors = PartialFactors()
    if section.partial_factors is not None:
        with known.at((*keys, "partial_factors")):
            factors = PartialFactors(**section.partial_factors.given)
    with known.at(keys):
        metal = Metal(material=material, **own)
        metal.tough(part.wall)
    stages = tuple(_stage(one, (*keys, "stages", i), known) for i, one in enumerate(section.stages))
    with known.at((*keys, "stages")):
        for stage in stages[:-1]:
            if stage.duration is None:
                raise InputError(f"stage {stage.name}, duration", "none", "a duration for every stage but the last")
    return PlaceOfFlaws(part=part, metal=metal, stages=stages, partial_factors=factors)


def _stage(section: Any, keys: Keys, known: Known) -> Stage:
    law = known.named(known.laws, section.law, (*keys, "law"), "growth_laws")
    with known.at(keys):
        if (section.ranges is None) == (section.hot_spot is None):
            found = "neither" if section.ranges is None else "ranges beside a hot spot"
            raise InputError("ranges", found, "ranges a year, or the hot spot whose cycles drive it")
        if section.ranges is not None:
            ratio = {} if section.r_ratio is None else {"r_ratio": section.r_ratio}
            if isinstance(section.ranges, str):
                file = known.folder / section.ranges
                own = read_ranges(file, sheet=_sheet(section, section.ranges), **ratio)
            elif section.sheet is not None:
                raise InputError("sheet", f"{section.sheet!r} without a file of ranges", "a sheet of a workbook")
            else:
                own = RangesPerYear(section.ranges, **ratio)
            return Stage(section.name, law, own, section.duration)
        if section.r_ratio is not None:
            raise InputError("r_ratio", f"{section.r_ratio:g} beside a hot spot", "none: its cycles have their own R")
    spot = known.named(known.hot_spots, section.hot_spot, (*keys, "hot_spot"), "hot_spots")
    with known.at(keys):
        assert known.duty_cycle is not None  # a study with hot spots has one
        return stage_of_duty_cycle(section.name, law, spot, known.duty_cycle, section.duration)


def _stresses(section: Any, keys: Keys, known: Known) -> FractureLoads:
    rows: dict[str, list[Any]] = {}
    for key, choices in (("primary", PRIMARY), ("secondary", SECONDARY)):
        rows[key] = []
        for i, one in enumerate(getattr(section, key)):
            with known.at((*keys, key, i)):
                rows[key].append(made(choices, one))
    with known.at(keys):
        return FractureLoads(rows["primary"], rows["secondary"], section.interaction)


def _front(section: Any, places: dict[str, PlaceOfFlaws], keys: Keys, known: Known) -> FrontJob:
    place = known.named(places, section.place, (*keys, "place"), "flaws, places")
    metal = place.metal
    with known.at(keys):
        if section.reference_stress < 0.0:
            raise InputError("reference_stress", f"{section.reference_stress:g} MPa", "0 or more")
        front: CrackFront = read_crack_front(
            known.folder / section.file,
            case=section.case,
            sheet=_sheet(section, section.file),
            youngs_modulus=metal.youngs_modulus,
            poissons_ratio=metal.poissons_ratio,
            rule=section.rule,
        )
    return FrontJob(front, section.place, section.reference_stress)
