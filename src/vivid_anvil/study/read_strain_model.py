"""The model of a study whose files hold large strains of rubber: its states, its free surface, what goes through."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.fields import free_surface_normals, left_out, regions_of
from vivid_anvil.ground.errors import InputError, inside, within
from vivid_anvil.models import StressField, joined_cases, read_strain_field
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.measures import SignedVonMisesHydrostatic
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.rubber import StatesInTurn, StrainFields, StrainLoads
from vivid_anvil.study.model_job import ModelJob

if TYPE_CHECKING:
    from vivid_anvil.study.models import FieldOfStrainsSection, ModelSection

OF_FILE = ("measure", "shear", "strain_unit", "length_unit", "cases", "component_order", "element_values")


def strains_of(sections: Sequence[FieldOfStrainsSection], folder: Path) -> StressField:
    """The strains of all states of all files, each state by the name of its file and its own."""
    fields = []
    stems: dict[str, str] = {}
    for i, one in enumerate(sections):
        entry = f"strain_states, entry {i + 1}"
        stem = Path(one.file).stem
        if stem in stems:
            raise InputError(
                f"{entry}, file",
                f"{one.file} beside {stems[stem]}",
                "files whose names differ, for states go by them",
                "Rename one; a file that several events go through is given once, with all of them in events.",
            )
        stems[stem] = one.file
        how: dict[str, Any] = {key: value for key, value in one.given.items() if key in OF_FILE}
        field = read_strain_field(folder / one.file, **how)
        if one.at is not None and len(one.at) != len(field.cases):
            raise InputError(
                f"{entry}, at", f"{len(one.at)} values", f"{len(field.cases)}, one for each state of {one.file}"
            )
        names = [f"{stem}, {case}" for case in field.cases]
        fields.append(dataclasses.replace(field, cases=names))
    return fields[0] if len(fields) == 1 else joined_cases(fields)


def strain_job(
    section: ModelSection, strains: StressField, duty_cycle: DutyCycle, spot: HotSpot, regions: Mapping[str, HotSpot]
) -> ModelJob:
    """The model of rubber of a study; nodes that are not on the free surface are left out where one is named."""
    turns = []
    for i, one in enumerate(section.strain_states or ()):
        own = [name for name in strains.cases if name.startswith(f"{Path(one.file).stem}, ")]
        with within(inside("strain_states", str(i))):
            turns.append(StatesInTurn(channel=one.channel, cases=own, at=one.at, events=tuple(one.events)))
    normals: dict[int, tuple[float, float, float]] = {}
    leave_out: list[str | int] = list(section.leave_out)
    if section.free_surface is not None:
        normals = free_surface_normals(strains, section.free_surface)
        out = left_out(strains, section.leave_out)
        kept = np.isin(strains.node_ids, list(normals)) & (True if out is None else ~out)
        if not kept.any():
            raise InputError("leave_out", "every node of the free surface", "some that are assessed")
        leave_out = [int(node) for node in strains.node_ids[~kept]]
    _check_stretches(strains, leave_out)
    loads = StrainFields(StrainLoads(turns), normals)
    loads.check(strains)
    loads.events(duty_cycle)
    regions_of(strains, list(regions))
    left_out(strains, leave_out)
    return ModelJob(
        strains,
        loads,
        spot,
        SignedVonMisesHydrostatic(),
        section.apart,
        dict(regions),
        leave_out=tuple(leave_out),
        up=section.up,
    )


def _check_stretches(strains: StressField, leave_out: Sequence[str | int]) -> None:
    """InputError for a node that is assessed and whose strains leave no stretch in some state."""
    out = left_out(strains, leave_out)
    for name in strains.cases:
        own = strains.assessed(name)
        least = 1.0 + 2.0 * np.linalg.eigvalsh(own[:, FULL])[:, 0]
        bad = np.flatnonzero((least <= 0.0) & (True if out is None else ~out[strains.owners]))
        if bad.size:
            node = int(strains.node_ids[strains.owners[bad[0]]])
            raise InputError(
                f"node {node}, {name}",
                f"no stretch above 0 (λ² of {least[bad[0]]:.3g}), at {np.unique(strains.owners[bad]).size} nodes in all",
                "stretches above 0 at every node that is assessed",
                "Strains from integration points run off at the nodes of a sharp corner: refine there, or leave_out such nodes. "
                "Or is it another measure, or in percent?",
            )
