"""What there is to see of a frequency response: resonances, half-power points, magnification."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Self

import numpy as np

from vivid_anvil.events.response_findings import response_findings
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.spectra.responses.of_motion import fitting
from vivid_anvil.spectra.responses.response import Resonance, Response
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, number, shown
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

SLOWEST, FASTEST = 0.1, 4.0  # of the lowest and the highest resonance: how far a response without lines is shown
MANY = 2000


@dataclass(frozen=True, eq=False, repr=False)
class ResponseView(Result):
    """A response to one input, looked at; `look_at_response` makes one.

    Parameters
    ----------
    name : str
        What it is the response to.
    response : Response
        The response.
    frequency : ndarray, shape (n,)
        Where it is shown, Hz.
    size : ndarray, shape (n,)
        Magnitude there, MPa for a coherent unit of the input.
    per : float
        The unit of input that values are shown for, in its coherent unit.
    unit : str
        What the values are then, such as "MPa/g".
    findings : tuple of Finding
        What an expert would say.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> from vivid_anvil.spectra import OneDegreeOfFreedom
    >>> mass = OneDegreeOfFreedom(natural_frequency="95 Hz", stress_per_acceleration="4 MPa/g", damping_ratio=0.025)
    >>> look_at_response("base", mass, "acceleration")
    <ResponseView base: 1 resonance, at most 80.1 MPa/g>
    """

    name: str
    response: Response
    frequency: FloatArray
    size: FloatArray
    per: float
    unit: str
    findings: tuple[Finding, ...]

    @property
    def title(self) -> str:
        """The input."""
        return f"Response to {self.name}"

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Those within what is shown, by their frequency."""
        low, high = float(self.frequency[0]), float(self.frequency[-1])
        return tuple(sorted(one for one in self.response.resonances if low <= one.frequency <= high))

    def sizes_at(self, frequency: Sequence[float]) -> FloatArray:
        """Magnitudes as shown, at frequencies, Hz."""
        clipped = np.clip(np.array(frequency, dtype=np.float64), self.frequency[0], self.frequency[-1])
        return np.asarray(np.abs(self.response.at(clipped)) * self.per)

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a response."""
        return Table(
            "Responses",
            (
                Column("input", [one.name for one in results]),
                Column("resonances", [len(one.resonances) for one in results]),
                Column("largest", [float(one.size.max() * one.per) for one in results], unit=results[0].unit),
                Column("what", [one.response.words for one in results]),
            ),
        )

    def _in(self, units: UnitSystem) -> tuple[float, str]:
        """What a value is multiplied by in the reader's units, and their unit."""
        return float(shown(1.0, "stress", units)), self.unit.replace("MPa", display_unit("stress", units), 1)

    def words(self, units: UnitSystem) -> Words:
        """What it is, and what it gives slowly."""
        low = float(self.frequency[0])
        size, unit = self._in(units)
        slow = f"{number(float(size * self.size[0] * self.per))} {unit} at {number(low)} Hz"
        return (("What", self.response.words), ("Slow", slow))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a resonance."""
        own = self.resonances
        points = [one.half_power for one in own]
        size, unit = self._in(units)
        return (
            Table(
                "Resonances",
                (
                    Column("natural frequency", [one.frequency for one in own], of="frequency", head="Natural"),
                    Column("damping ratio", [one.damping_ratio for one in own], head="ζ"),
                    Column("highest at", [one.peak_frequency for one in own], of="frequency"),
                    Column("there", size * self.sizes_at([one.peak_frequency for one in own]), unit=unit),
                    Column("magnification", [one.magnification for one in own], head="Magnif."),
                    Column("half power from", [low for low, _ in points], of="frequency", head="Half power\nfrom"),
                    Column("half power to", [high for _, high in points], of="frequency", head="to"),
                ),
                key="resonances",
            ),
        )

    def __repr__(self) -> str:
        many, top = len(self.resonances), number(float(self.size.max() * self.per))
        return f"<ResponseView {self.name}: {many} resonance{'' if many == 1 else 's'}, at most {top} {self.unit}>"


PER = {
    "acceleration": (9806.65, "MPa/g"),
    "force": (1000.0, "MPa/kN"),
    "length": (1.0, "MPa/mm"),
    "stress": (1.0, "MPa/MPa"),
}


def look_at_response(name: str, response: Response, dimension: str = "acceleration") -> ResponseView:
    """Look at a response to an input of that dimension.

    Parameters
    ----------
    name : str
        What it is the response to.
    response : Response
        The response.
    dimension : str, default "acceleration"
        What the input is.

    Returns
    -------
    ResponseView
        Resonances and half-power points.

    Raises
    ------
    InputError
        For frequencies that a table does not have.

    Examples
    --------
    >>> from vivid_anvil.spectra import OneDegreeOfFreedom
    >>> mass = OneDegreeOfFreedom(natural_frequency="95 Hz", stress_per_acceleration="4 MPa/g", damping_ratio=0.025)
    >>> [round(one, 2) for one in look_at_response("base", mass).resonances[0].half_power]
    [92.53, 97.29]
    """
    if not isinstance(response, Response):
        raise InputError("response, looked at", shortened(response), "a response, such as OneDegreeOfFreedom")
    checks.one_of("response, dimension", dimension, tuple(DIMENSIONS))
    per, unit = PER.get(dimension, (1.0, f"MPa/({DIMENSIONS[dimension].coherent})"))
    response = fitting(response, dimension, f"response to {name}")
    frequency = _shown(response)
    size = np.abs(response.at(frequency))
    return ResponseView(
        name, response, read_only(frequency), read_only(size), per, unit, tuple(response_findings(name, response))
    )


def _shown(response: Response) -> FloatArray:
    """Frequencies: those of a table, or around resonances; dense where it peaks."""
    own, corners = response.resonances, response.corners
    if corners.size:
        low, high = float(corners[0]), float(corners[-1])
    elif hasattr(response, "frequency"):
        low, high = float(response.frequency[0]), float(response.frequency[-1])
    elif own:
        low, high = SLOWEST * min(one.frequency for one in own), FASTEST * max(one.frequency for one in own)
    else:
        low, high = 1.0, 1000.0
    low = max(low, 1e-4 * high)
    near = [one.frequency * (1.0 + one.damping_ratio * np.linspace(-8.0, 8.0, 161)) for one in own]
    found = np.unique(np.concatenate([np.geomspace(low, high, MANY), corners, *near]))
    return np.asarray(found[(found >= low) & (found <= high)])
