"""Read a study file: TOML, checked key by key; the files that it names are opened and checked as well."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from functools import cached_property
from pathlib import Path
from typing import Any, TypeVar
from weakref import WeakKeyDictionary

from pydantic import ValidationError

from vivid_anvil.counting import COUNTING_METHODS, RESIDUES
from vivid_anvil.damage import StressLife, stress_life
from vivid_anvil.events import BETWEEN_EVENTS, DutyCycle
from vivid_anvil.events.duty_cycle import CHOICES
from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, Place, did_you_mean, field_of, inside, listed
from vivid_anvil.growth import Crack
from vivid_anvil.materials import (
    Curve,
    GrowthLaw,
    GrowthTests,
    Material,
    MaterialCard,
    SNCurve,
    SNFamily,
    fit_growth_law,
    read_growth_tests,
)
from vivid_anvil.materials.plies import Ply
from vivid_anvil.materials.rubber import Rubber
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.shapes import read_points, shape_of_keys
from vivid_anvil.spectra import EXPECTED_CYCLES
from vivid_anvil.stress import HotSpot, Method
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.study.cards import cards_in, read_card_named
from vivid_anvil.study.curve_keys import Source, curve_of
from vivid_anvil.study.event_keys import Place as EventPlace
from vivid_anvil.study.event_keys import event_of
from vivid_anvil.study.felt_loads import load_that_nothing_feels
from vivid_anvil.study.flaw_job import FlawJob
from vivid_anvil.study.growth_law_keys import law_of, threshold_of
from vivid_anvil.study.hot_spot_keys import HotSpotSection
from vivid_anvil.study.include import with_includes
from vivid_anvil.study.key_errors import as_input_error, key_path, what_to_change
from vivid_anvil.study.method_keys import method_of
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.models import FORMAT, StudyFile, shape_keys, study_file, table_type
from vivid_anvil.study.models_of_nouns import Section
from vivid_anvil.study.ply_keys import BY_KIND, laminate_of, ply_of
from vivid_anvil.study.read_flaws import Known, flaw_job
from vivid_anvil.study.read_model import STRESSES, model_job, stresses_of
from vivid_anvil.study.relation_keys import relation_of
from vivid_anvil.study.report_settings import ReportSettings
from vivid_anvil.study.rubber_keys import Source as RubberSource
from vivid_anvil.study.rubber_keys import rubber_of
from vivid_anvil.study.settings_by_word import retardation_of, target_of
from vivid_anvil.study.strain_life_keys import Source as StrainLifeSource
from vivid_anvil.study.strain_life_keys import strain_life_of
from vivid_anvil.study.study import WORST_NODE, Study, Watch
from vivid_anvil.units import opened

T = TypeVar("T")


@opened()
def read_study(path: str | Path, *, watch: Watch | None = None) -> Study:
    """The study in the TOML file `path`, with its histories read and all of it checked; nothing is computed.

    Paths in the file are relative to it. `watch(label, done, of)` is told how far the reading is.

    Parameters
    ----------
    path : str or path
        The file.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    Study
        The study, ready to run.

    Raises
    ------
    InputError
        With the file and the path of keys, for the first fault; further ones stand in its notes.

    Examples
    --------
    >>> read_study("larkfell.toml")  # in the folder of `vivid-anvil demo`
    <Study Larkfell chairlift, hanger arm: 3 lives, 1 cracks, target 30 years>
    """
    path = Path(path)
    data = with_includes(path)
    return build_study(path, data, watch=watch)


def build_study(path: Path, data: dict[str, Any], *, like: Study | None = None, watch: Watch | None = None) -> Study:
    """The study of the tables `data`, as if they stood in the file `path`.

    Histories and curves whose sections are the same as in the study `like` are taken from it, not read or fitted again.
    """
    if data.get("format", FORMAT) != FORMAT:
        raise InputError(
            inside(f"{path.name}", "format"), repr(data["format"]), f"format = {FORMAT}", what_to_change(data, FORMAT)
        )
    file = _as_before(data, like)
    if file is None:
        try:
            file = study_file().model_validate(data)
        except ValidationError as error:
            raise as_input_error(path.name, data, error, study_file()) from None
    study = _Builder(path, data, like, file).study(watch)
    _CHECKED[study] = file
    return study


# Tables of studies as they were checked, so that of a variant only those that differ need be.
_CHECKED: WeakKeyDictionary[Study, StudyFile] = WeakKeyDictionary()


def _as_before(data: dict[str, Any], like: Study | None) -> StudyFile | None:
    """The checked file of a variant of `like`, of which only tables that differ are checked; None where that can't be."""
    known = None if like is None else _CHECKED.get(like)
    if known is None or like is None or type(known) is not study_file() or data.keys() != like.data.keys():
        return None
    changed = {table: value for table, value in data.items() if value is not like.data[table]}
    try:
        new = {table: table_type(type(known), table).validate_python(value) for table, value in changed.items()}
    except (ValidationError, KeyError):
        return None  # the whole is checked, which tells what is wrong
    return known.model_copy(update=new) if new.get("hot_spots", known.hot_spots) or known.model else None


THROUGH = (*BY_KIND, "energy_life")  # keys whose tables are nouns of their own
OF_HOT_SPOTS = (
    "duty_cycle",
    "cards",
    "materials",
    "sn_curves",
    "sn_families",
    "strain_life_curves",
    "rubbers",
    "plies",
    "laminates",
    "methods",
)  # what they rest on


def _inner_parts(place: Place) -> tuple[str, ...]:
    """The keys that an error tells inside of a table: all of them where it says which key it came through, else the last."""
    return place.parts if place.parts[0] in THROUGH else place.parts[-1:]


class _Builder:
    """Turns the sections of one file into nouns; each fault names the file and the key."""

    def __init__(self, path: Path, data: dict[str, Any], like: Study | None, file: StudyFile) -> None:
        self.path, self.data, self.like, self.file = path, data, like, file
        self.growth_tests: dict[str, GrowthTests] = {}
        self.cards: Path | None = None

    @cached_property
    def materials(self) -> dict[str, Material]:
        """By name."""
        known: dict[str, Material] = {}
        if self.like is not None and self.kept("cards", "materials"):
            known = {spot.material.name: spot.material for spot in self.like.hot_spots}
        return {name: known.get(name) or self.material(self.file, name) for name in self.file.materials}

    @cached_property
    def curves(self) -> dict[str, Curve]:
        """S-N curves and families, by name."""
        if self.like is not None and self.kept("cards", "sn_curves", "sn_families"):
            return dict(self.like.curves)
        curves = {name: self.curve(name, section) for name, section in self.file.sn_curves.items()}
        return {**curves, **{name: self.family(self.file, name, curves) for name in self.file.sn_families}}

    @cached_property
    def strain_lives(self) -> dict[str, StrainLife]:
        """Strain-life curves, by name."""
        return {name: self.strain_life(name, section) for name, section in self.file.strain_life_curves.items()}

    @cached_property
    def rubbers(self) -> dict[str, Rubber]:
        """By name."""
        return {name: self.rubber(name, section) for name, section in self.file.rubbers.items()}

    @cached_property
    def plies(self) -> dict[str, Ply]:
        """By name."""
        return {name: self.ply(name, section) for name, section in self.file.plies.items()}

    @cached_property
    def laminates(self) -> dict[str, Laminate]:
        """By name."""
        assert self.plies is not None  # a fault of a ply is told at the ply
        return {name: self.laminate(name, section) for name, section in self.file.laminates.items()}

    @cached_property
    def methods(self) -> dict[str, Method]:
        """By name."""
        return {name: self.shared_method(self.file, name) for name in self.file.methods}

    @cached_property
    def laws(self) -> dict[str, GrowthLaw]:
        """By name."""
        known: dict[str, GrowthLaw] = {}
        if self.like is not None and self.kept("cards", "growth_laws"):
            used = [law for crack in self.like.cracks for law in (crack.law, crack.later_law) if law is not None]
            known = {law.name: law for law in used}
            self.growth_tests |= self.like.growth_tests
        return {name: known.get(name) or self.law(self.file, name) for name in self.file.growth_laws}

    def kept(self, *tables: str) -> bool:
        """Whether these tables are those of the study `like`."""
        return self.like is not None and all(self.data.get(table) is self.like.data.get(table) for table in tables)

    def as_before(self, table: str, *rests_on: str) -> dict[str, Any]:
        """The nouns of `like` for entries of a list that are its own, by the place; none where what they rest on has changed."""
        if self.like is None or not self.kept(*rests_on):
            return {}
        before, now = self.like.data.get(table) or [], self.data.get(table) or []
        nouns = {id(entry): noun for entry, noun in zip(before, getattr(self.like, table), strict=False)}
        return {str(i): nouns[id(entry)] for i, entry in enumerate(now) if id(entry) in nouns}

    def study(self, watch: Watch | None) -> Study:
        file = self.file
        duty_cycle = self.like.duty_cycle if self.like and self.same("duty_cycle") else self.duty_cycle_of(file, watch)
        if file.cards is not None:
            self.cards = self.path.parent / file.cards
            with self.at(("cards",)):
                cards_in(self.cards)
        if self.like is None:  # all are made, used or not: each may have its fault
            _ = self.materials, self.curves, self.strain_lives, self.rubbers, self.laminates, self.methods, self.laws
        known = self.as_before("hot_spots", *OF_HOT_SPOTS)
        spots: dict[str, HotSpot] = {}
        for i, section in enumerate(file.hot_spots):
            if file.model is not None and section.name == WORST_NODE:
                raise self.fault(
                    ("hot_spots", i, "name"), repr(section.name), "another name: the model's own place has it"
                )
            if section.name in spots:
                raise self.fault(("hot_spots", i, "name"), "a name that another hot spot has", "a different name")
            assert duty_cycle is not None  # the file asks for one where there are hot spots
            spots[section.name] = known.get(str(i)) or self.hot_spot(i, section, duty_cycle)
        of_before = self.as_before("cracks", *OF_HOT_SPOTS, "hot_spots", "growth_laws")
        cracks = [of_before.get(str(i)) or self.crack(i, section, spots) for i, section in enumerate(file.cracks)]
        flaws, report = self.flaws(file, spots, duty_cycle), self.report(file)
        found = tuple(spots.values()), tuple(cracks)
        if duty_cycle is None:
            job = Study(file.title, None, *found, None, self.path, self.curves, self.data, self.growth_tests)
            return dataclasses.replace(job, flaws=flaws, report=report, strain_life_curves=self.strain_lives)
        with self.at(("target_life",)):
            target = target_of(file.target_life, duty_cycle)
        model = self.model(file, duty_cycle)
        channels = {channel for spot in spots.values() for channel in spot.fed.channels}
        slip = load_that_nothing_feels(self.data, channels | set(model.loads.channels if model is not None else ()))
        if slip is not None:
            raise self.fault(*slip)
        job = Study(file.title, duty_cycle, *found, target, self.path, self.curves, self.data, self.growth_tests)
        return dataclasses.replace(job, model=model, flaws=flaws, report=report, strain_life_curves=self.strain_lives)

    def report(self, file: StudyFile) -> ReportSettings | None:
        """Settings of its report, with their files beside the study."""
        section: Any = file.report
        if section is None:
            return None
        with self.at(("report",)):
            return ReportSettings(**section.given).beside(self.path.parent)

    def flaws(self, file: StudyFile, spots: dict[str, HotSpot], duty_cycle: DutyCycle | None) -> FlawJob | None:
        """Flaws, with what they name."""
        if file.flaws is None:
            return None
        tables = (*OF_HOT_SPOTS, "hot_spots", "growth_laws", "flaws")
        if self.like is not None and self.kept(*tables):
            return self.like.flaws
        known = Known(
            self.materials, self.laws, spots, duty_cycle, self.path.name, self.path.parent, self.at, self.named
        )
        return flaw_job(file.flaws, known)

    def same(self, *keys: str) -> bool:
        """Whether the study `like` has the same under these keys."""
        one: Any = self.data
        other: Any = {} if self.like is None else self.like.data
        for key in keys:
            one, other = one.get(key), None if other is None else other.get(key)
        return bool(one == other)

    def same_stresses(self) -> bool:
        """Whether the model of the study `like` has the same stresses, so that its files need not be read again."""
        return all(self.same_in("model", key) for key in STRESSES)

    def same_in(self, table: str, key: str) -> bool:
        """Whether a key of a table is the same in the study `like`, or left out in both."""
        both = (self.data, {} if self.like is None else self.like.data)
        one, other = ((data.get(table) or {}).get(key) for data in both)
        return bool(one == other)

    def duty_cycle_of(self, file: StudyFile, watch: Watch | None) -> DutyCycle | None:
        section: Any = file.duty_cycle
        if section is None:
            return None
        given, events = section.given, []
        how = {key: given.get(key, getattr(DutyCycle, key)) for key in CHOICES}
        with self.at(("duty_cycle",)):  # before histories are read, which may take long
            one_of(field_of("DutyCycle", "between"), how["between"], tuple(BETWEEN_EVENTS))
            one_of(field_of("DutyCycle", "residue"), how["residue"], tuple(RESIDUES))
            COUNTING_METHODS.get(how["counting"], field_of("DutyCycle", "counting"))
            EXPECTED_CYCLES.get(how["expected_cycles"], field_of("DutyCycle", "expected_cycles"))
        for i, event in enumerate(section.events):
            if watch is not None:
                watch(f"reading {event.name}", i, len(section.events))
            with self.at(("duty_cycle", "events", i)):
                events.append(event_of(event, EventPlace(self.path.parent, how)))
        if watch is not None:
            watch("histories", len(events), len(events))
        with self.at(("duty_cycle",)):
            return DutyCycle(**(given | {"events": tuple(events)}))

    def material(self, file: StudyFile, name: str) -> Material:
        given = file.materials[name].given  # type: ignore[attr-defined]
        with self.at(("materials", name)):
            card = given.pop("card", None)
            if card is None:
                return Material(name=name, **given)
            return dataclasses.replace(self.card(card).material, name=name, **given)

    def card(self, name: str) -> MaterialCard:
        return read_card_named(name, self.cards)

    def curve(self, name: str, section: Section) -> SNCurve:
        if self.like is not None and self.same("sn_curves", name) and self.same("cards"):
            known = self.like.curves[name]
            if isinstance(known, SNCurve):
                return known

        def of_card(card: str, curve: str | None) -> SNCurve:
            return self.card(card).curve(curve)

        with self.at(("sn_curves", name)):
            return curve_of(name, section, Source(self.path.parent, of_card))

    def strain_life(self, name: str, section: Section) -> StrainLife:
        def of_card(card: str, curve: str | None) -> StrainLife:
            return self.card(card).strain_life(curve)

        with self.at(("strain_life_curves", name)):
            return strain_life_of(name, section, StrainLifeSource(self.path.parent, of_card))

    def rubber(self, name: str, section: Section) -> Rubber:
        def of_card(card: str) -> Rubber:
            return self.card(card).rubber_there

        with self.at(("rubbers", name)):
            return rubber_of(name, section, RubberSource(self.path.parent, of_card))

    def ply(self, name: str, section: Section) -> Ply:
        with self.at(("plies", name)):
            return ply_of(name, section, lambda card: self.card(card).ply_there)

    def laminate(self, name: str, section: Section) -> Laminate:
        keys = ("laminates", name)

        def ply_named(ply: str, key: str) -> Ply:
            return self.named(self.plies, ply, (*keys, key), "plies")

        with self.at(keys):
            return laminate_of(name, section, ply_named)

    def family(self, file: StudyFile, name: str, curves: dict[str, SNCurve]) -> SNFamily:
        given = file.sn_families[name].given  # type: ignore[attr-defined]
        place = ("sn_families", name, "curves")
        members = tuple(self.named(curves, one, place, "sn_curves") for one in given["curves"])
        with self.at(("sn_families", name)):
            return SNFamily(name=name, **(given | {"curves": members}))

    def law(self, file: StudyFile, name: str) -> GrowthLaw:
        section = file.growth_laws[name]
        with self.at(("growth_laws", name)):
            if section.tests is not None:
                known = None if self.like is None else self.like.growth_tests.get(name)
                if known is None or not self.same("growth_laws", name):
                    known = self.tests(name, section.tests, section.given.get("r_ratio"))
                self.growth_tests[name] = known
            if section.kind == "card":
                return dataclasses.replace(self.card(section.card).law(section.law), name=name)
            if section.kind == "fitted":
                fitted = fit_growth_law(self.growth_tests[name]).law(section.above_mean)
                more = {"source": section.source} if section.source is not None else {}
                return dataclasses.replace(fitted, name=name, **threshold_of(section), **more)
            return law_of(name, section)

    def tests(self, name: str, keys: str | dict[str, Any], r_ratio: float | None) -> GrowthTests:
        """The tests of a growth law, kept for its figure."""
        piece = {"file": keys} if isinstance(keys, str) else dict(keys)
        known = ("file", "r_ratio", "piece", "force_range", "thickness", "width", "method")
        for key in piece:
            if key not in known:
                raise InputError(f"tests, {key}", "an unknown key", f"one of {listed(known)}", did_you_mean(key, known))
        if "file" not in piece:
            raise InputError("tests, file", "nothing", "the file of the tests")
        file = self.path.parent / str(piece.pop("file"))
        return read_growth_tests(file, name=name, **{"r_ratio": r_ratio, **piece})

    def hot_spot(self, i: int, section: HotSpotSection, duty_cycle: DutyCycle) -> HotSpot:
        place = ("hot_spots", i)
        method = self.method(section, place)
        if section.material is None:
            material = Material(name=section.name, source="its plies")
        else:
            material = self.named(self.materials, section.material, (*place, "material"), "materials")
        with self.at(place):
            relation = relation_of(section, self.path.parent)
            spot = HotSpot(
                name=section.name,
                relation=relation,
                material=material,
                method=method,
                notch_factor=section.notch_factor,
            )
            relation.goes_with(duty_cycle)
            relation.factor(duty_cycle)
            if method is not None:
                method.goes_with(duty_cycle)
            if not isinstance(relation.counted, str):
                for event, _ in duty_cycle.flat():
                    event.seen(relation.counted)
            return spot

    def method(self, section: Any, place: tuple[int | str, ...], above: Method | None = None) -> Method | None:
        """How stress becomes damage: by the name or table of a method, by keys of stress-life, else as `above`."""
        flat, asked = section.of_stress_life, section.method
        if isinstance(asked, str):
            return self.named(self.methods, asked, (*place, "method"), "methods")
        if asked is not None:
            with self.at((*place, "method")):
                return method_of(asked, self.tables((*place, "method")))
        if not flat:
            return above
        if "sn_curve" in flat:
            flat["sn_curve"] = self.curve_named(flat["sn_curve"], (*place, "sn_curve"))
        elif above is None:
            key = next(iter(flat))
            raise self.fault(
                (*place, key), f"{key} without sn_curve", "an S-N curve that it goes with", "Give it sn_curve."
            )
        with self.at(place):
            return StressLife(**flat) if above is None else dataclasses.replace(stress_life(above), **flat)

    def curve_named(self, name: str, keys: tuple[int | str, ...]) -> Curve:
        return self.named(self.curves, name, keys, "sn_curves")

    def tables(self, keys: tuple[int | str, ...]) -> dict[str, Any]:
        """What the names in the table of a method, at those keys, may refer to, by the name of the table."""
        return {
            "sn_curves": lambda name, key: self.curve_named(name, (*keys, key)),
            "strain_life_curves": lambda name, key: self.named(
                self.strain_lives, name, (*keys, key), "strain_life_curves"
            ),
            "rubbers": lambda name, key: self.named(self.rubbers, name, (*keys, key), "rubbers"),
            "laminates": lambda name, key: self.named(self.laminates, name, (*keys, key), "laminates"),
        }

    def shared_method(self, file: StudyFile, name: str) -> Method:
        keys = ("methods", name)
        with self.at(keys):
            return method_of(file.methods[name], self.tables(keys))

    def crack(self, i: int, section: Any, spots: dict[str, HotSpot]) -> Crack:
        spot = self.named(spots, section.hot_spot, ("cracks", i, "hot_spot"), "hot_spots")
        law = self.named(self.laws, section.law, ("cracks", i, "law"), "growth_laws")
        with self.at(("cracks", i, "retardation")):
            memory = retardation_of(section)
        with self.at(("cracks", i)):
            spot.material.needed("toughness", "the critical crack size")
            spot.material.needed("yield_strength", "net-section yield")
            given = section.given
            shape = {key: given.pop(key) for key in shape_keys() if key in given}
            later = None
            if section.later_law is not None:
                later = self.named(self.laws, section.later_law, ("cracks", i, "later_law"), "growth_laws")
            if isinstance(shape.get("points"), str):
                shape["points"] = read_points(self.path.parent / shape["points"], section.shape)
            of_shape: Any = shape_of_keys(section.shape, shape, "")
            nouns = {"hot_spot": spot, "shape": of_shape, "law": law, "later_law": later, "retardation": memory}
            return Crack(**(given | nouns))

    def model(self, file: StudyFile, duty_cycle: DutyCycle) -> ModelJob | None:
        """The finite-element model, its file read and its load cases held against the field and the events."""
        section = file.model
        if section is None:
            return None

        def spot_of(named: Any, place: tuple[str | int, ...], above: Method | None, factor: float) -> HotSpot:
            """Method and material: its own, or those of the model."""
            name = named.material or section.material
            if name is None:
                material = Material(name="model", source="its plies")
            else:
                material = self.named(self.materials, name, (*place, "material"), "materials")
            method = self.method(named, place, above)
            if method is None:
                raise self.fault((*place, "sn_curve"), "nothing", "an S-N curve, or a method")
            with self.at(place):
                method.goes_with(duty_cycle)
                return HotSpot(name="model", material=material, method=method, notch_factor=factor)

        spot = spot_of(section, ("model",), None, section.notch_factor)
        regions = {
            one.set: spot_of(one, ("model", "regions", i), spot.method, one.notch_factor or section.notch_factor)
            for i, one in enumerate(section.regions)
        }
        path_spots = {
            one.name: spot_of(one, ("model", "paths", i), spot.method, 1.0) for i, one in enumerate(section.paths)
        }
        with self.at(("model",)):
            known = self.like.model if self.like is not None and self.same_stresses() else None
            laminate = getattr(spot.assessed_by, "laminate", None)
            if known is not None and section.ply_stresses is not None:
                known = None if getattr(known.spot.assessed_by, "laminate", None) != laminate else known
            stresses = stresses_of(section, self.path.parent, laminate) if known is None else known.field
            return model_job(section, stresses, duty_cycle, spot, regions, path_spots, self.path.parent)

    def named(self, known: dict[str, T], name: str, keys: tuple[int | str, ...], table: str) -> T:
        if name in known:
            return known[name]
        names: Iterable[str] = known
        raise self.fault(
            keys, repr(name), f"a name under {table}: {listed(names) or 'none is there'}", did_you_mean(name, known)
        )

    def fault(self, keys: tuple[int | str, ...], found: str, expected: str, remedy: str = "") -> InputError:
        return InputError(f"{self.path.name}, {key_path(self.data, keys)}", found, expected, remedy)

    @contextmanager
    def at(self, keys: tuple[int | str, ...]) -> Iterator[None]:
        """Put the file and the keys before the place of any InputError raised inside."""
        try:
            yield
        except InputError as error:
            place = Place(self.path.name, file=self.path.name)
            where = inside(place, key_path(self.data, keys))
            if error.place.file not in ("", self.path.name):
                where = Place(f"{where}: {error.where}", where.parts, error.place.file)
            else:
                for own in _inner_parts(error.place):
                    where = where if own in where else inside(where, own)
            raise InputError(where, error.found, error.expected, error.remedy) from error
