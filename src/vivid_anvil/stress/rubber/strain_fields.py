"""Strains of a model in computed states, as the loads of a whole model are: what each place goes through."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.stress.rubber.strain_loads import StrainEvent, StrainLoads
from vivid_anvil.stress.rubber.strain_states import StrainStates


@dataclass(frozen=True, eq=False)
class StrainFields:
    """How the events of a duty cycle go through the states of a model whose field holds strains.

    Parameters
    ----------
    states : StrainLoads
        The states in turn; their names are the cases of the field.
    normals : mapping of int to three numbers, optional
        Normals of the free surface in the undeformed part, by the number of the node; elsewhere the bulk modulus of the rubber
        gives the pressure.

    Raises
    ------
    InputError
        For an argument of another kind; the message says which.

    Examples
    --------
    >>> from vivid_anvil.stress.rubber import StatesInTurn
    >>> StrainFields(StrainLoads([StatesInTurn(channel="step", cases=["step 1", "step 2"])])).moving
    ['step 1', 'step 2']
    """

    states: StrainLoads
    normals: Mapping[int, Sequence[float]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        given: Any = self.states
        if not isinstance(given, StrainLoads):
            raise InputError("strain fields", repr(given), "StrainLoads")

    @property
    def constant(self) -> Mapping[str, float]:
        """States that are there all the time: none, as large strains do not add up."""
        return {}

    @property
    def moving(self) -> list[str]:
        """The states, in the order of the columns of loads."""
        return list(self.states.cases)

    @property
    def channels(self) -> tuple[str, ...]:
        """The channels that go through states."""
        return self.states.channels

    def check(self, strains: Any) -> None:
        """InputError unless the field holds strains, of exactly these states."""
        if strains.dimension != "strain":
            raise InputError(
                "strain fields",
                f"a field of {strains.dimension}",
                "a field of strains",
                "Read it by read_strain_field.",
            )
        for name in self.moving:
            if name not in strains.cases:
                raise InputError(
                    f"state {name}",
                    "not in the field",
                    f"one of {listed(strains.cases)}",
                    did_you_mean(name, strains.cases),
                )
        left = [name for name in strains.cases if name not in self.moving]
        if left:
            raise InputError(
                f"state {left[0]}",
                "in no sequence",
                "every state of the field in one",
                "Or leave it out: without_cases.",
            )

    def units(self, strains: Any) -> FloatArray:
        """Strains of the states, E, shape (rows, states, 6); rows are nodes, or elements at nodes."""
        return np.ascontiguousarray(np.moveaxis(np.array([strains.assessed(name) for name in self.moving]), 0, 1))

    def constants(self, strains: Any) -> FloatArray:
        """The normal of the free surface at each row, then zeros, shape (rows, 6); zeros alone where there is none."""
        found = np.zeros((strains.owners.size, 6))
        for row, node in enumerate(strains.node_ids[strains.owners].tolist()):
            if node in self.normals:
                found[row, :3] = self.normals[node]
        return found

    def events(self, duty_cycle: DutyCycle) -> list[StrainEvent]:
        """Every event as ways through states."""
        return self.states.events(duty_cycle)

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> StrainStates:
        """What a place goes through, of its strains and its row of `constants`."""
        x, y, z = constant[:3].tolist()
        normal = (x, y, z) if constant[:3].any() else None
        return StrainStates(loads=self.states, strains=unit, surface_normal=normal)
