"""A tearing law at a temperature, from laws of the same rubber at others: between two of them, never beyond."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from itertools import pairwise
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.rubber.power_tearing import PowerTearing
from vivid_anvil.materials.rubber.tearing_law import TearingLaw
from vivid_anvil.units import Coherent, number, opened
from vivid_anvil.units.temperature import celsius

ON_A_LOG_SCALE = ("growth rate", "energy release rate")


@opened()
def law_at(laws: Sequence[TearingLaw], temperature: float | str) -> TearingLaw:
    """The law at a temperature between those of `laws`: rates and energies straight on a log scale, slopes straight.

    Of powers the logarithm of the rate at any tearing energy is then straight over the temperature.

    Parameters
    ----------
    laws : sequence of TearingLaw
        Of one form and one effect of R, each with its temperature.
    temperature : float or text with a scale
        At which the law is wanted, °C.

    Returns
    -------
    TearingLaw
        The law there.

    Raises
    ------
    InputError
        For laws of different forms, without a temperature or with the same, and for a temperature beyond theirs.

    Examples
    --------
    >>> from vivid_anvil.materials.rubber import PowerTearing
    >>> cold = PowerTearing(name="nr", rate=0.001, at=10.0, slope=2.0, temperature="20 °C")
    >>> warm = PowerTearing(name="nr", rate=0.004, at=10.0, slope=3.0, temperature="80 °C")
    >>> law_at([cold, warm], "50 °C")
    <TearingLaw nr: power, range, at 50 °C>
    >>> law_at([cold, warm], "50 °C").growth([10.0, 1.0]).round(8).tolist()
    [0.002, 6.32e-06]
    """
    ordered = _ordered(laws)
    where, degrees = f"tearing law {ordered[0].name}", celsius(temperature, "temperature")
    known = [_degrees(law) for law in ordered]
    if not known[0] <= degrees <= known[-1]:
        raise InputError(
            inside(where, "temperature"),
            f"{number(degrees)} °C",
            f"{number(known[0])} to {number(known[-1])} °C, where it was tested",
            "Test the rubber at that temperature; rubber changes fast when cold or hot.",
        )
    at = int(np.clip(np.searchsorted(known, degrees), 1, len(known) - 1)) if len(known) > 1 else 0
    if known[at] == degrees or len(known) == 1:
        return ordered[at]
    share = (degrees - known[at - 1]) / (known[at] - known[at - 1])
    return between(ordered[at - 1], ordered[at], share, degrees)


def between(first: TearingLaw, second: TearingLaw, share: float, temperature: float) -> TearingLaw:
    """The law that far from the first to the second."""
    if isinstance(first, PowerTearing) and isinstance(second, PowerTearing):
        rate = float(second.relaxing(np.array([first.at]))[0])
        if second.cut_off is None or second.cut_off < first.at:  # the same line, told at the same tearing energy
            second = dataclasses.replace(second, at=first.at, rate=rate)
    new: dict[str, Any] = {}
    for key, kind in _numbers(first):
        one, two = getattr(first, key), getattr(second, key)
        if one is None and two is None:
            continue
        if one is None or two is None:
            raise InputError(
                inside(f"tearing law {first.name}", key), "none at one of two temperatures", "a value at both, or none"
            )
        new[key] = one * (two / one) ** share if kind in ON_A_LOG_SCALE else one + share * (two - one)
    if first.slope_terms is not None and second.slope_terms is not None:
        new["slope_terms"] = tuple(
            a + share * (b - a) for a, b in zip(first.slope_terms, second.slope_terms, strict=True)
        )
    return dataclasses.replace(
        first, temperature=temperature, source=f"between {first.source} and {second.source}", **new
    )


def _numbers(law: TearingLaw) -> list[tuple[str, str]]:
    """Its numbers, by name, and their dimensions."""
    found = []
    for field in dataclasses.fields(law):
        kept = next((vars(one)[field.name] for one in type(law).__mro__ if field.name in vars(one)), None)
        if isinstance(kept, Coherent):
            found.append((field.name, kept.dimension))
    return found


def _ordered(laws: Sequence[TearingLaw]) -> list[TearingLaw]:
    if isinstance(laws, TearingLaw) or not all(isinstance(law, TearingLaw) for law in laws) or not len(laws):
        raise InputError("tearing laws", repr(laws), "tearing laws in a list")
    first = laws[0]
    where = f"tearing law {first.name}"
    for law in laws:
        if law.temperature is None:
            raise InputError(inside(where, "temperature"), "none", "the temperature of each of several laws")
        alike = (type(law), law.r_effect, law.slope_terms is None)
        if alike != (type(first), first.r_effect, first.slope_terms is None):
            raise InputError(
                where,
                f"{law.kind}, {law.r_effect}, at {number(law.temperature)} °C beside {first.kind}, {first.r_effect}",
                "one form and one effect of R at all temperatures",
                "Between two forms nothing can be said.",
            )
    ordered = sorted(laws, key=_degrees)
    for one, other in pairwise(ordered):
        if _degrees(one) == _degrees(other):
            raise InputError(inside(where, "temperature"), f"two laws at {number(_degrees(one))} °C", "one at each")
    return ordered


def _degrees(law: TearingLaw) -> float:
    assert law.temperature is not None
    return float(law.temperature)
