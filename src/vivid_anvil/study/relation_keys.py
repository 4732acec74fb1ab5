"""How the loads of a hot spot become stress, from its keys."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.stress import (
    CaseLoad,
    CaseLoads,
    InputResponses,
    Measure,
    NormalStress,
    OneLoad,
    Relation,
    SeveralLoads,
    UnitStresses,
    VibratingComponents,
    read_unit_stresses,
    stress_measure,
    stresses_of_rosette,
)
from vivid_anvil.stress.laminates import SectionLoads
from vivid_anvil.stress.rubber import joined_states, read_strain_states
from vivid_anvil.study.hot_spot_keys import HotSpotSection, UnitStressSection
from vivid_anvil.study.response_keys import response_of


def relation_of(section: HotSpotSection, folder: Path) -> Relation:
    """The relation of a checked hot spot; files are looked for in `folder`."""
    if isinstance(section.stress_per_load, str):
        return OneLoad(section.channel or "", section.stress_per_load, section.offset)
    if section.responses is not None:
        responses = {name: response_of(one, folder) for name, one in section.responses.items()}
        return InputResponses(responses, section.offset)
    if section.stress_per_load is not None:
        return SeveralLoads(section.stress_per_load, section.offset)
    if section.strain_states is not None:
        states = [
            read_strain_states(folder / one.file, **{key: value for key, value in one.given.items() if key != "file"})
            for one in section.strain_states
        ]
        return states[0] if len(states) == 1 else joined_states(states)
    if section.section_loads is not None:
        return _section_loads(section)
    constant = np.zeros(6) if section.constant_stress is None else np.array(section.constant_stress.tensor)
    how: dict[str, Any] = {"measure": _measure(section), "offset": section.offset}
    if section.modes is not None:
        return VibratingComponents(response=section.modes.noun(), constant=constant, **how)
    if (rosette := section.rosette) is not None:
        how |= {"youngs_modulus": rosette.youngs_modulus, "poissons_ratio": rosette.poissons_ratio}
        return stresses_of_rosette(rosette.channels, rosette.directions, **how)
    if isinstance(section.unit_stresses, str):
        return read_unit_stresses(folder / section.unit_stresses, **how)
    rows: list[UnitStressSection] = section.unit_stresses or []
    cases = [
        CaseLoad(
            case=f"{i}, {one.channel}", channel=one.channel, unit_load=one.unit_load, event_factors=one.event_factors
        )
        for i, one in enumerate(rows, start=1)
    ]
    unit = np.array([row.tensor for row in rows])
    return UnitStresses(loads=CaseLoads(cases), unit=unit, constant=constant, **how)


def _section_loads(section: HotSpotSection) -> SectionLoads:
    """Forces and moments per width at unit loads of channels."""
    rows = section.section_loads or []
    cases = [
        CaseLoad(
            case=f"{i}, {one.channel}", channel=one.channel, unit_load=one.unit_load, event_factors=one.event_factors
        )
        for i, one in enumerate(rows, start=1)
    ]
    constant = np.zeros(8) if section.constant_section_loads is None else np.array(section.constant_section_loads.row)
    return SectionLoads(loads=CaseLoads(cases), unit=np.array([one.row for one in rows]), constant=constant)


def _measure(section: HotSpotSection) -> Measure:
    if section.direction is not None:
        return NormalStress(section.direction)
    return stress_measure(section.measure or "signed von Mises, hydrostatic")
