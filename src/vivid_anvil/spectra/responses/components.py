"""What a structure makes of inputs at a place with six stress components: complex, over frequency, with their phases."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.spectra.responses.coordinates import SLOW, Coordinates
from vivid_anvil.spectra.responses.of_motion import fitting
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance
from vivid_anvil.spectra.responses.response_table import ResponseTable

COMPONENTS = ("xx", "yy", "zz", "xy", "yz", "zx")


class ComponentResponses(ABC):
    """Six complex stresses for a coherent unit of each input."""

    @property
    @abstractmethod
    def channels(self) -> tuple[str, ...]:
        """The inputs."""

    @abstractmethod
    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """At frequencies (m,), Hz, of `inputs` by name with their dimensions: shape (m, 6, inputs)."""

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Where it peaks sharply."""
        return ()

    @property
    def corners(self) -> FloatArray:
        """Frequencies, Hz, at which it has a corner."""
        return np.empty(0)

    @property
    def assumed_damping(self) -> bool:
        """Whether its damping was not stated."""
        return False

    @property
    @abstractmethod
    def words(self) -> str:
        """How it is called in a line."""

    def static(self, inputs: Mapping[str, str]) -> FloatArray:
        """What slow inputs give, shape (6, inputs)."""
        return np.asarray(self.at(np.array([SLOW]), inputs)[0].real)


@dataclass(frozen=True, eq=False)
class SuperposedComponents(ComponentResponses):
    """Six components of a place by coordinates: `unit`, shape (coordinates, 6), are stresses for a coordinate of 1."""

    source: Coordinates
    unit: FloatArray

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return self.source.channels

    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Unit stresses times coordinates."""
        return np.asarray(np.einsum("rc,mrj->mcj", self.unit, self.source.coordinates(frequency, inputs)))

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of the coordinates."""
        return self.source.resonances

    @property
    def corners(self) -> FloatArray:
        """Of the coordinates."""
        return self.source.corners

    @property
    def assumed_damping(self) -> bool:
        """As the coordinates say."""
        return self.source.assumed_damping

    @property
    def words(self) -> str:
        """As the coordinates say."""
        return self.source.words


@dataclass(frozen=True, eq=False)
class ComponentTables(ComponentResponses):
    """Six stress components known at lines, as a steady-state analysis gives them.

    Parameters
    ----------
    tables : mapping of str to sequence of ResponseTable
        Of each input the six components, in the order xx, yy, zz, xy, yz, zx.

    Raises
    ------
    InputError
        For another number of components.

    Examples
    --------
    >>> one = ResponseTable(frequency=[10.0, 20.0], values=[1.0, 2.0 - 1.0j], per="MPa/g")
    >>> ComponentTables({"base": [one] * 6}).channels
    ('base',)
    """

    tables: Mapping[str, Sequence[ResponseTable]]

    def __post_init__(self) -> None:
        if not isinstance(self.tables, Mapping) or not self.tables:
            where = "responses of components"
            raise InputError(where, shortened(self.tables), "six tables of each input, by its name")
        for name, six in self.tables.items():
            whole = isinstance(six, Sequence) and len(six) == 6
            if not whole or not all(isinstance(one, ResponseTable) for one in six):
                raise InputError(
                    f"responses of components, {name}", shortened(six), f"six response tables: {', '.join(COMPONENTS)}"
                )

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return tuple(self.tables)

    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """By each table."""
        columns = [
            np.stack([fitting(one, kind, f"responses, {name}").at(frequency) for one in self.tables[name]], axis=-1)
            for name, kind in inputs.items()
        ]
        return np.stack(columns, axis=-1)

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Those of all components."""
        return tuple(dict.fromkeys(own for six in self.tables.values() for one in six for own in one.resonances))

    @property
    def corners(self) -> FloatArray:
        """The lines, between which they run straight."""
        return np.unique(np.concatenate([one.corners for six in self.tables.values() for one in six]))

    def static(self, inputs: Mapping[str, str]) -> FloatArray:
        """What the lowest line gives, which is the slowest that is known."""
        low = max(float(one.frequency[0]) for six in self.tables.values() for one in six)
        return np.asarray(self.at(np.array([low]), inputs)[0].real)

    @property
    def words(self) -> str:
        """How many lines."""
        first = next(iter(self.tables.values()))[0]
        return f"six components at {first.frequency.size} lines, {checks.reach(first.frequency)} Hz"
