"""Damage of flaws in rubber at many places of a model at once."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.cracking_search import energy_of
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress import OfMany
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.rubber.flaw_growth import damage_of_courses
from vivid_anvil.stress.rubber.flaws_of_places import FlawsOfPlaces
from vivid_anvil.stress.rubber.strain_states import UNDEFORMED

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy


def many_in_rubber(method: CrackingEnergy, strains: FloatArray, normals: FloatArray, events: Sequence[Any]) -> OfMany:
    """Damage by event at places of strains, (places, states, 6); `normals`, (places, 6), have that of a free surface first."""
    ways = tuple(way for event in events for way in event.ways)
    of = np.repeat(np.arange(len(events)), [len(event.ways) for event in events])
    size = len(strains)
    by_event, reached, counted = np.zeros((size, len(events))), np.zeros((size, 2)), np.ones(size, dtype=bool)
    places = FlawsOfPlaces(method.rubber, ways, method.closure == "traction")
    stated = None if method.surface_normal is None else np.asarray(method.surface_normal)
    _check(strains, ways)
    for i in range(size):
        normal = stated if stated is not None else normals[i, :3] if normals[i, :3].any() else None
        if not method.on_a_plane:
            courses = [energy_of(method, UNDEFORMED + 2.0 * (way.weights[way.first :] @ strains[i])) for way in ways]
            by_way = damage_of_courses(method.rubber, courses, [way.often for way in ways])
            reached[i] = min(one.min() for one in courses), max(one.max() for one in courses)
        else:
            if normal is None and method.rubber.law.bulk_modulus is None:
                raise InputError(
                    f"rubber {method.rubber.name}",
                    "neither a free surface nor a bulk modulus",
                    "one of both: strains that keep the volume leave the pressure open",
                    "State the free surface of the model, or bulk_modulus in the law.",
                )
            worst = places.at(strains[i], normal)
            by_way, reached[i], counted[i] = worst.by_way, worst.reach, worst.counted > 0
        np.add.at(by_event[i], of, by_way)
    return OfMany(by_event, counted, reached)


def _check(strains: FloatArray, ways: Sequence[Any]) -> None:
    """InputError where the strains of a place leave no stretch in a state that is gone through."""
    used = np.unique(np.concatenate([np.flatnonzero(way.weights.any(axis=0)) for way in ways]))
    least = 1.0 + 2.0 * np.linalg.eigvalsh(strains[:, used][:, :, FULL])[:, :, 0]
    if not (least > 0.0).all():
        place, state = np.argwhere(~(least > 0.0))[0]
        raise InputError(
            f"strains of a place, state {used[state] + 1}",
            f"λ² of {least[place, state]:.3g}",
            "stretches above 0 at every place that is assessed",
            "Leave out such nodes (leave_out), or is it another measure?",
        )
