"""The finite-element model of a study: what there is to assess, without running it."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass

from vivid_anvil.fields import CaseLoads
from vivid_anvil.models import StressField
from vivid_anvil.stress import HotSpot, LineLoads, ModeLoads
from vivid_anvil.stress.laminates import SectionFields
from vivid_anvil.stress.measures import Measure
from vivid_anvil.stress.rubber import StrainFields


@dataclass(frozen=True, eq=False)
class ModelJob:
    """A model's stresses, their loads, curve and rule, how far apart worst places are, mm (None: by the mesh), which way is up.

    `regions` are hot spots of sets of their own, `planes` a measure of `PLANES` instead of `measure`. `structural` is the field
    of structural stress at the study's paths, `path_spots` their curves. `leave_out` are sets and nodes that are not assessed.
    """

    field: StressField
    loads: CaseLoads | ModeLoads | LineLoads | StrainFields | SectionFields
    spot: HotSpot
    measure: Measure
    apart: float | None = None
    regions: Mapping[str, HotSpot] = dataclasses.field(default_factory=dict)
    planes: str | None = None
    structural: StressField | None = None
    path_spots: Mapping[str, HotSpot] = dataclasses.field(default_factory=dict)
    leave_out: tuple[str | int, ...] = ()
    up: str = "y"
