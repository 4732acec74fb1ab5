"""The field of a growth law that takes a threshold, or a number for one that is the same at every R."""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.checks import place
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.thresholds.fixed import FixedThreshold
from vivid_anvil.materials.thresholds.threshold import Threshold


class ThresholdField:
    """The field of a law that takes a threshold, or a number or text for one that is the same at every R."""

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    def __get__(self, noun: object | None, owner: type) -> Threshold:
        if noun is None:
            return 0.0  # type: ignore[return-value]  # the default, made a threshold when it is set
        return noun.__dict__[self.name]  # type: ignore[no-any-return]

    def __set__(self, noun: object, value: Threshold | float | str) -> None:
        noun.__dict__[self.name] = threshold_of(value, place(noun, self.name))


def threshold_of(value: Any, where: str) -> Threshold:
    """A threshold as it is; of a number, text or quantity that at every R."""
    if isinstance(value, Threshold):
        return value
    if isinstance(value, dict | list | tuple | type(None)):
        raise InputError(where, repr(value), "a range of stress intensity, such as '2 MPa√m', or a threshold")
    try:
        return FixedThreshold(range=value)
    except InputError as error:
        raise InputError(where, error.found, error.expected, error.remedy) from None
