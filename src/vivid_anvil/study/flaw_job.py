"""The flaws of a study: what there is to assess, without running it."""

from __future__ import annotations

import dataclasses
import datetime
from collections.abc import Mapping
from dataclasses import dataclass

from vivid_anvil.acceptance import CrackFront, FractureLoads, Indication, PlaceOfFlaws


@dataclass(frozen=True, eq=False)
class FrontJob:
    """A crack front of a finite-element model, the place that it is in, and the reference stress of its section, MPa."""

    front: CrackFront
    place: str
    reference_stress: float


@dataclass(frozen=True)
class AskedOfPlace:
    """What is asked of flaws of a place: limiting sizes at other temperatures, °C, and under other stresses, leaks, mm²."""

    limits_at: tuple[float, ...] = ()
    limits_under: tuple[str, ...] = ()
    leak_area: float | None = None


@dataclass(frozen=True, eq=False)
class FlawJob:
    """Indications, and places and stresses by the names that they have there; crack fronts; what is asked of places; when found.

    `inspection_factor` is how many looks fall into a remaining life, `target_life` how many years flaws shall stay acceptable.
    """

    indications: tuple[Indication, ...]
    places: Mapping[str, PlaceOfFlaws]
    stresses: Mapping[str, FractureLoads]
    fronts: Mapping[str, FrontJob] = dataclasses.field(default_factory=dict)
    asked: Mapping[str, AskedOfPlace] = dataclasses.field(default_factory=dict)
    inspection_factor: float = 2.0
    inspected: datetime.date | None = None
    target_life: float | None = None
