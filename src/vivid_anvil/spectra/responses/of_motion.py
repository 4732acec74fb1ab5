"""A response to one kind of motion under another: an acceleration is iω times a velocity, (iω)² times a displacement."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.spectra.psd import MOTIONS
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance, Response


def per_motion(frequency: FloatArray, wanted: str, given: str) -> ComplexArray:
    """What a motion of one kind is of another, at frequencies in Hz: (iω) to the number of derivatives between them.

    >>> per_motion(np.array([1.0]), "acceleration", "length").round(3)
    array([-39.478+0.j])
    """
    times = MOTIONS.index(given) - MOTIONS.index(wanted)
    return np.asarray((2.0j * np.pi * np.asarray(frequency, dtype=np.float64)) ** times)


def fitting(response: Response, dimension: str, where: str) -> Response:
    """The response for an input of that dimension: as it is, or turned into another motion; InputError for any other."""
    wanted = response.takes
    if wanted is None or wanted == dimension:
        return response
    if wanted in MOTIONS and dimension in MOTIONS:
        return OfMotion(response, dimension)
    raise InputError(where, f"an input of {dimension}", f"one of {wanted}, which the response is to")


@dataclass(frozen=True, eq=False)
class OfMotion(Response):
    """`response`, to a motion, under one of the dimension `given`."""

    response: Response
    given: str

    @property
    def takes(self) -> str | None:
        """The motion that is given."""
        return self.given

    def at(self, frequency: FloatArray) -> ComplexArray:
        """The response times the derivatives."""
        assert self.response.takes is not None
        return np.asarray(self.response.at(frequency) * per_motion(frequency, self.response.takes, self.given))

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of the response."""
        return self.response.resonances

    @property
    def corners(self) -> FloatArray:
        """Of the response."""
        return self.response.corners

    @property
    def assumed_damping(self) -> bool:
        """As the response says."""
        return self.response.assumed_damping

    @property
    def words(self) -> str:
        """With the motion."""
        return f"{self.response.words}, under a {self.given}"
