"""The model of a study: its stresses read, their loads held against them and the events, its paths taken."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.fields import (
    PLANES,
    CaseLoad,
    CaseLoads,
    StepLoad,
    ThroughPath,
    ToePath,
    left_out,
    regions_of,
    structural_field,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import (
    SteadyModel,
    StressField,
    averaged,
    chosen_values,
    participation_along,
    read_field,
    read_modes,
    read_participation,
    read_ply_stresses,
    read_section_loads,
    read_steady,
    with_boxes,
    with_sets,
    without_cases,
)
from vivid_anvil.stress import HotSpot, LineLoads, ModeLoads
from vivid_anvil.stress.laminates import Laminate, SectionFields
from vivid_anvil.stress.measures import Measure, NormalStress, SignedVonMisesHydrostatic, stress_measure
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.models import ModelSection, PathSection
from vivid_anvil.study.read_strain_model import strain_job, strains_of

# Keys of the model that say what its stresses are.
STRESSES = (
    "stresses",
    "modes",
    "steady_state",
    "stress_unit",
    "length_unit",
    "cases",
    "component_order",
    "element_values",
    "face",
    "sets_from",
    "sets",
    "ignore_cases",
    "strain_states",
    "section_loads",
    "ply_stresses",
)


def stresses_of(section: ModelSection, folder: Path, laminate: Laminate | None = None) -> StressField:
    """The stresses of the model, or its strains, with its sets, read from its files; those of plies are of that laminate."""
    if section.strain_states is not None:
        return _with_all_sets(strains_of(section.strain_states, folder), section, folder)
    if section.section_loads is not None:
        loads = read_section_loads(folder / section.section_loads, element_values=section.element_values)
        return _with_all_sets(loads, section, folder)
    if section.ply_stresses is not None:
        if laminate is None:
            raise InputError(
                "method", "a method of no laminate", "one of 'ply fatigue'", "Stresses of plies are its own."
            )
        loads = read_ply_stresses(folder / section.ply_stresses, laminate, element_values=section.element_values)
        return _with_all_sets(loads, section, folder)
    _refuse_both(section)
    result_file = (section.stresses or "").lower().endswith(".frd")
    if section.modes is not None and result_file:
        _unused(section, ("stress_unit", "length_unit", "cases", "component_order", "element_values", "face"), "modes")
        return _with_all_sets(read_modes(folder / (section.stresses or "")).field, section, folder)
    if _has_lines(section):
        unused = ("cases", "component_order", *(("element_values", "face") if result_file else ()))
        _unused(section, unused, "steady_state")
        read = _steady(section, folder).field
        chosen = read if result_file else chosen_values(read, section.element_values, section.face)
        return _with_all_sets(chosen, section, folder)
    stresses = read_field(
        folder / (section.stresses or ""),
        stress_unit=section.stress_unit,
        length_unit=section.length_unit,
        cases=section.cases,
        component_order=section.component_order,
        element_values=section.element_values,
        face=section.face,
    )
    return _with_all_sets(stresses, section, folder)


def _refuse_both(section: ModelSection) -> None:
    """InputError for keys of a model over frequency that do not go together."""
    if section.modes is not None and section.steady_state is not None:
        raise InputError("steady_state", "steady_state beside modes", "one of both")
    over_frequency = section.modes is not None or section.steady_state is not None
    if over_frequency and any(case.constant is None for case in section.load_cases):
        raise InputError("load_cases", "a channel on a load case of a model over frequency", "constant cases only")


def _has_lines(section: ModelSection) -> bool:
    """Whether its file says which frequency a stress is of; else `steady_state` says it of its cases."""
    return section.steady_state is not None and section.steady_state.frequency is None


def _steady(section: ModelSection, folder: Path) -> SteadyModel:
    return read_steady(
        folder / (section.stresses or ""), stress_unit=section.stress_unit, length_unit=section.length_unit
    )


def _unused(section: ModelSection, keys: Sequence[str], beside: str) -> None:
    """InputError for a key that such a file leaves nothing to say for."""
    for key in keys:
        if key in section.model_fields_set:
            raise InputError(
                key, f"{getattr(section, key)!r}", f"none beside {beside} of such a file: it says it itself"
            )


def _with_all_sets(stresses: StressField, section: ModelSection, folder: Path) -> StressField:
    """The field with the sets that the study names, without the cases that are not wanted."""
    if section.sets_from is not None:
        stresses = with_sets(stresses, folder / section.sets_from)
    stresses = with_boxes(stresses, {name: box.model_dump(exclude_none=True) for name, box in section.sets.items()})
    return without_cases(stresses, section.ignore_cases)


def model_job(
    section: ModelSection,
    stresses: StressField,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    regions: Mapping[str, HotSpot],
    path_spots: Mapping[str, HotSpot],
    folder: Path,
) -> ModelJob:
    """The finite-element model of a study; `spot`, `regions` and `path_spots` hold curves and rules."""
    for key, names, many in (("regions", regions, section.regions), ("paths", path_spots, section.paths)):
        if len(names) < len(many):
            raise InputError(key, "a name twice", "each set or path once")
    given = "stresses"
    if section.strain_states is not None:
        given = "strains"
    elif section.section_loads is not None or section.ply_stresses is not None:
        given = "section loads"
    for one in (spot, *regions.values()):
        if one.assessed_by.takes != given:
            raise InputError(
                "method",
                f"{one.assessed_by.kind!r}, which takes {one.assessed_by.takes}",
                f"a method that takes {given}",
                "Strains of rubber go with 'cracking energy', section loads with 'ply fatigue', stresses with others.",
            )
    laminates = [getattr(one.assessed_by, "laminate", None) for one in (spot, *regions.values())]
    if section.ply_stresses is not None and any(one != laminates[0] for one in laminates):
        raise InputError("ply_stresses", "regions of another laminate", "one laminate", "Give section_loads instead.")
    if section.strain_states is not None:
        return strain_job(section, stresses, duty_cycle, spot, regions)
    loads: Any = _over_frequency(section, folder) or _loads(section, stresses.cases, duty_cycle)
    if given == "section loads":
        loads = SectionFields(loads)
    loads.check(stresses)
    loads.events(duty_cycle)
    regions_of(stresses, list(regions))
    left_out(stresses, section.leave_out)
    planes = section.measure if section.measure in PLANES else None
    measure: Measure = SignedVonMisesHydrostatic() if planes else stress_measure(section.measure)
    if section.direction is not None:
        measure, planes = NormalStress(section.direction), None
    leave_out = tuple(section.leave_out)
    job = ModelJob(
        stresses, loads, spot, measure, section.apart, dict(regions), planes, leave_out=leave_out, up=section.up
    )
    if not section.paths:
        return job
    small = structural_field(averaged(stresses), [_path(path) for path in section.paths])
    return dataclasses.replace(job, structural=small, path_spots=dict(path_spots))


def _loads(section: ModelSection, cases: Sequence[str], duty_cycle: DutyCycle) -> CaseLoads:
    """What scales each case: as the study says; else the load factor of the same name, where every event has one."""
    factors = {name for name, dimension in duty_cycle.dimensions.items() if dimension == "number"}
    told = {case.case for case in section.load_cases} | {case for one in section.sequences for case in one.cases}  # type: ignore[attr-defined]
    by_name = [CaseLoad(case=case, channel=case, unit_load=1.0) for case in cases if case in factors - told]
    moving = [
        CaseLoad(**case.given) for case in section.load_cases if case.channel is not None and case.unit_load is not None
    ]
    constant = {case.case: case.constant for case in section.load_cases if case.constant is not None}
    sequences = [StepLoad(**sequence.given) for sequence in section.sequences]  # type: ignore[attr-defined]
    return CaseLoads([*moving, *by_name], constant, sequences)


def _over_frequency(section: ModelSection, folder: Path) -> ModeLoads | LineLoads | None:
    """The loads of a model by modes or by lines over frequency; None for load cases."""
    if section.modes is None and section.steady_state is None:
        return None
    if section.modes is not None:
        return _modes(section, folder)
    lines = section.steady_state
    assert lines is not None
    frequency: Any = lines.frequency
    if frequency is None:
        frequency = _steady(section, folder).frequency
    constant = {case.case: case.constant for case in section.load_cases if case.constant is not None}
    return LineLoads(channel=lines.channel, frequency=frequency, per=lines.per, constant=constant)


def _modes(section: ModelSection, folder: Path) -> ModeLoads:
    """The inputs that move the modes: factors from a file along directions, or as they are stated."""
    modes = section.modes
    assert modes is not None
    constant = {case.case: case.constant for case in section.load_cases if case.constant is not None}
    frequency: Any = modes.natural_frequency
    if frequency is None:
        if not (section.stresses or "").lower().endswith(".frd"):
            raise InputError("modes, natural_frequency", "none", "one for each mode, in their order")
        frequency = read_modes(folder / (section.stresses or "")).natural_frequency
    if modes.participation_file is None:
        stated: Any = modes.participation
        return ModeLoads(natural_frequency=frequency, participation=stated, constant=constant, **modes.damping)
    factors = read_participation(folder / modes.participation_file, frequency)
    along = {name: participation_along(factors, way) for name, way in (modes.inputs or {}).items()}
    return ModeLoads(natural_frequency=frequency, participation=along, constant=constant, **modes.damping)


def _path(section: PathSection) -> ToePath | ThroughPath:
    if section.surface is not None and section.other is not None:
        return ThroughPath(name=section.name, surface=_place(section.surface), other=_place(section.other))
    return ToePath(
        name=section.name,
        rule=section.rule or "",
        thickness=section.thickness,
        toe=None if section.toe is None else _place(section.toe),
        along=None if section.along is None else _place(section.along),
        nodes=section.nodes,
    )


def _place(numbers: list[float]) -> tuple[float, float, float]:
    x, y, z = numbers
    return x, y, z
