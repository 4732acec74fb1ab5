"""The door for power spectral densities: "0.05 g^2/Hz", "4.8 (m/s^2)^2/Hz", "12 MPa^2/Hz" become coherent unit^2/Hz.

A PSD is said by the dimension of what it is the density of: that of an acceleration in (mm/s^2)^2/Hz, of a stress in MPa^2/Hz.
"""

from __future__ import annotations

import functools

from vivid_anvil.ground.errors import InputError
from vivid_anvil.units.dimensions import DIMENSIONS, Dimension
from vivid_anvil.units.door import factor, is_unit

_EXAMPLES = {"acceleration": "0.05 g^2/Hz", "number": "0.2 1/Hz", "strain": "1e-12 strain^2/Hz"}


@functools.lru_cache(maxsize=64)
def psd_dimension(dimension: str) -> Dimension:
    """The PSD of a quantity of that dimension, with its units.

    >>> psd_dimension("stress").coherent, psd_dimension("acceleration").us
    ('(MPa)^2/Hz', 'g^2/Hz')
    """
    of = DIMENSIONS[dimension]
    coherent, metric, us = (_squared(unit) for unit in (f"({of.coherent})", of.metric, of.us))
    return Dimension(f"PSD of {dimension}", coherent, _EXAMPLES.get(dimension, f"12 {metric}"), metric, us)


def _squared(unit: str) -> str:
    """The unit of the PSD: "MPa" -> "MPa^2/Hz", "m/s^2" -> "(m/s^2)^2/Hz"."""
    if unit in ("1", "(1)"):
        return "1/Hz"
    plain = unit.isalpha() or unit.startswith("(")
    return f"{unit}^2/Hz" if plain else f"({unit})^2/Hz"


def psd_of(unit: str, where: str) -> str:
    """The dimension whose PSD has this unit: "g^2/Hz" is of acceleration; InputError, with the likely slip, for another unit.

    >>> psd_of("(um/s)^2/Hz", "rope")
    'velocity'
    """
    text = unit.strip()
    if "dB" in text:
        raise InputError(
            where, f"the unit {text!r}", "a PSD in unit^2/Hz", "A level in dB is 10 log10 of it: turn it back before."
        )
    if text == "1/Hz":
        return "number"
    for name in DIMENSIONS:
        if name != "angle" and _fits(text, psd_dimension(name)):
            return name
    raise InputError(where, f"the unit {text!r}", "the unit of a PSD, such as g^2/Hz or MPa^2/Hz", _slip(text, where))


def _fits(unit: str, dimension: Dimension) -> bool:
    try:
        factor(unit, dimension)
    except InputError:
        return False
    return True


def _slip(unit: str, where: str) -> str:
    """What was probably meant by a unit that is none of a PSD."""
    if "rad" in unit:
        return "A density over rad/s is 1/2π of that over Hz: multiply by 2π = 6.2832, and write unit^2/Hz."
    if any(_fits(unit, _root_of(name)) for name in DIMENSIONS):
        return "That is the root of a PSD (unit/√Hz): square the values, and write unit^2/Hz."
    if is_unit(unit):
        return f"A mean square per Hz is meant: ({unit})^2/Hz."
    factor(unit, psd_dimension("acceleration"), where)  # says which name in it is unknown
    return "Write for instance 'g^2/Hz'."


@functools.lru_cache(maxsize=64)
def _root_of(name: str) -> Dimension:
    of = DIMENSIONS[name]
    unit = f"({of.coherent})/Hz^0.5" if of.coherent != "1" else "1/Hz^0.5"
    return Dimension(f"root PSD of {name}", unit, "", unit, unit)
