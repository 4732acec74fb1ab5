"""Directions that stand for planes: all over the half sphere, and around one."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.checks import FloatArray, real_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import one, opened


@opened(step_degrees=one("angle", degrees=True))
def half_sphere(step_degrees: float = 15.0) -> FloatArray:
    """Directions about `step_degrees` apart that stand for all planes, shape (k, 3).

    >>> half_sphere(30.0).shape
    (23, 3)
    """
    step, found = step_of(step_degrees), [(0.0, 0.0, 1.0)]
    rings = max(1, round(90.0 / step))
    for ring in range(1, rings + 1):
        polar = 0.5 * math.pi * ring / rings
        whole = math.pi if ring == rings else 2.0 * math.pi  # at the equator opposite directions are the same plane
        places = max(1, round(math.degrees(whole) * math.sin(polar) / step))
        for k in range(places):
            turn = whole * k / places
            found.append((math.sin(polar) * math.cos(turn), math.sin(polar) * math.sin(turn), math.cos(polar)))
    return np.array(found)


def beside(directions: FloatArray, degrees: float, turn: float) -> FloatArray:
    """Directions that far from each of some, all to the side that `turn`, radians, says."""
    least = np.eye(3)[np.abs(directions).argmin(axis=1)]
    first = np.cross(directions, least)
    first /= np.linalg.norm(first, axis=1)[:, None]
    second = np.cross(directions, first)
    across = math.cos(turn) * first + math.sin(turn) * second
    angle = math.radians(degrees)
    return np.asarray(math.cos(angle) * directions + math.sin(angle) * across)


def step_of(degrees: float) -> float:
    """A step that was asked for; InputError for one that no planes have."""
    step = real_number("planes, step_degrees", degrees)
    if not 0.0 < step <= 45.0:
        raise InputError("planes, step_degrees", f"{step:g}", "an angle above 0 and up to 45 degrees")
    return step
