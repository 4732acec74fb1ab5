"""Strains of a rosette as stresses: a multiaxial place that was measured.

Plane stress, linear elastic, on a free surface; x along gauge a. Source: transformation of plane strain (Timoshenko, S. and
Goodier, J. N. 1951, Theory of elasticity, 2nd ed., art. 12).
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of, real_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.measures import Measure
from vivid_anvil.stress.relations.case_loads import CaseLoad, CaseLoads
from vivid_anvil.stress.relations.unit_stresses import UnitStresses
from vivid_anvil.units import POISSON, STRENGTH, opened

ROSETTES = {"0/45/90": (0.0, 45.0, 90.0), "0/60/120": (0.0, 60.0, 120.0)}


@opened(youngs_modulus=STRENGTH, poissons_ratio=POISSON)
def stresses_of_rosette(
    channels: Sequence[str],
    rosette: str | Sequence[float] = "0/45/90",
    *,
    youngs_modulus: float,
    poissons_ratio: float = 0.3,
    measure: Measure | str = "signed von Mises, hydrostatic",
    offset: float | str = 0.0,
) -> UnitStresses:
    """The stress at a rosette whose gauges a, b, c are three channels of strain; x is along gauge a, z out of the surface.

    `rosette` is one of `ROSETTES`, or the directions of the gauges from gauge a, degrees. `youngs_modulus` in MPa or text.

    Parameters
    ----------
    channels : sequence of str
        The channels.
    rosette : str or sequence of float, default "0/45/90"
        Directions of the gauges, degrees, or "0/45/90" and the like.
    youngs_modulus : float or text with a unit
        Modulus of elasticity, MPa.
    poissons_ratio : float, default 0.3
        Poisson's ratio, -.
    measure : Measure or str, default "signed von Mises, hydrostatic"
        The stress that is counted: one of `MEASURES`, or its name.
    offset : float or str, default 0.0
        Stress that is there without load, MPa; no load factor moves it.

    Returns
    -------
    UnitStresses
        The relation, for a hot spot.

    Raises
    ------
    InputError
        For other than three channels, and for directions of which two are the same.

    Examples
    --------
    >>> place = stresses_of_rosette(["a", "b", "c"], youngs_modulus="210 GPa", measure="component xx")
    >>> place.tensors(np.array([[1e-3, 0.35e-3, -0.3e-3]])).round(6)[0, :4]
    array([210.,   0.,   0.,   0.])
    """
    if isinstance(channels, str) or len(channels) != 3 or len(set(channels)) != 3:
        raise InputError("rosette, channels", f"{channels!r}", "three channels, those of the gauges a, b, c")
    unit = _per_strain(_directions(rosette)) @ _elastic(youngs_modulus, poissons_ratio)
    loads = CaseLoads([CaseLoad(case=f"gauge {name}", channel=name, unit_load=1.0) for name in channels])
    measured: UnitStresses = UnitStresses(loads=loads, unit=unit, measure=measure, offset=offset)  # type: ignore[arg-type]
    return measured


def _directions(rosette: str | Sequence[float]) -> FloatArray:
    """Directions of the gauges, rad."""
    if isinstance(rosette, str):
        one_of("rosette", rosette, tuple(ROSETTES))
        return np.radians(ROSETTES[rosette])
    degrees = [real_number("rosette, directions", angle) for angle in rosette]
    lines = [angle % 180.0 for angle in degrees]
    if len(degrees) != 3 or len({round(line, 6) % 180.0 for line in lines}) != 3:
        raise InputError("rosette, directions", f"{rosette!r}", "three different directions, degrees from gauge a")
    return np.radians(np.array(degrees) - degrees[0])


def _per_strain(angles: FloatArray) -> FloatArray:
    """Strains xx, yy and shear angle xy for a strain of 1 in each gauge alone, a gauge a row: shape (3, 3)."""
    c, s = np.cos(angles), np.sin(angles)
    return np.asarray(np.linalg.inv(np.column_stack([c * c, s * s, s * c])).T)


def _elastic(modulus: float, nu: float) -> FloatArray:
    """Stresses, six components, for strains xx, yy and shear angle xy of 1, a row each: shape (3, 6), MPa."""
    plane, shear = modulus / (1.0 - nu**2), modulus / (2.0 * (1.0 + nu))
    return np.array([[plane, nu * plane, 0, 0, 0, 0], [nu * plane, plane, 0, 0, 0, 0], [0, 0, 0, shear, 0, 0]])
