"""Large strains at a place, as computed states that its loads go through."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.seen import seen_as
from vivid_anvil.ground.checks import FloatArray, as_numbers, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import Load
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.planes.surface_planes import surface_stated
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.stress.rubber.states_in_turn import StatesInTurn  # noqa: F401  # of the examples
from vivid_anvil.stress.rubber.strain_loads import StrainLoads
from vivid_anvil.stress.rubber.strain_measures import cauchy_green
from vivid_anvil.units import UnitSystem, opened, sound
from vivid_anvil.writing.working import put_in

UNDEFORMED = np.array([1.0, 1.0, 1.0, 0.0, 0.0, 0.0])


@sound
@dataclass(frozen=True, eq=False, kw_only=True)
class StrainStates(Relation):
    """Green and Lagrange's strains of a place in every computed state, and what goes through these.

    What is counted where one value stands for the strains is the largest principal nominal strain.

    Parameters
    ----------
    loads : StrainLoads
        The states in turn.
    strains : array_like
        E of each state, tensor components xx, yy, zz, xy, yz, zx, shape (states, 6), -.
    told : str, default "green-lagrange"
        The measure in which they were given, in words.
    surface_normal : three numbers, optional
        Normal of the free surface there in the undeformed part, where a model gives each place its own.

    Raises
    ------
    InputError
        For another shape, and stretches at or below 0.

    Examples
    --------
    >>> turn = StrainLoads([StatesInTurn(channel="sink", cases=["half", "full"], at=["3 mm", "6 mm"])])
    >>> edge = StrainStates.of([[1.2, 0.9, 0.926, 0, 0, 0], [1.5, 0.8, 0.833, 0, 0, 0]], "right stretch", turn)
    >>> edge.words
    '2 states by sink, 0 to 6 mm'
    """

    loads: StrainLoads
    strains: FloatArray
    told: str = "green-lagrange"
    surface_normal: tuple[float, float, float] | None = None
    gives: ClassVar[str] = "strains"

    def __post_init__(self) -> None:
        for key, value in (("offset", 0.0), ("dimension", "strain"), ("any_of_channels", True)):
            object.__setattr__(self, key, value)
        own = np.array(as_numbers("strain states, strains", self.strains))
        size = len(self.loads.cases)
        if own.shape != (size, 6):
            raise InputError(
                "strain states", f"shape {own.shape}", f"({size}, 6): xx, yy, zz, xy, yz, zx of every state"
            )
        cauchy_green(own, "green-lagrange")  # says where a stretch is at or below 0
        object.__setattr__(self, "strains", read_only(own))
        object.__setattr__(self, "surface_normal", surface_stated("strain states", self.surface_normal))

    @classmethod
    def of(cls, values: ArrayLike, measure: str, loads: StrainLoads, *, shear: str = "tensor") -> StrainStates:
        """From strains in one of `STRAIN_MEASURES`, shape (states, 6 or 9), shears as one of `SHEARS`.

        Raises InputError for what `cauchy_green` refuses.
        """
        return cls(loads=loads, strains=green_lagrange(values, measure, shear=shear), told=measure)

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """Those that go through states."""
        return self.loads.channels

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError for events that the states name and that are not there."""
        self.loads.check_events([event.name for event, _ in duty_cycle.flat()])

    def cauchy_greens(self, weights: FloatArray) -> FloatArray:
        """C of rows of what each state counts, shape (rows, 6)."""
        return np.asarray(UNDEFORMED + 2.0 * (weights @ self.strains))

    @cached_property
    def computed(self) -> FloatArray:
        """C of every computed state, shape (states, 6)."""
        return self.cauchy_greens(np.eye(len(self.strains)))

    def history(self, weights: FloatArray) -> FloatArray:
        """Largest principal nominal strain of rows, -."""
        return largest_stretch(self.cauchy_greens(weights)) - 1.0

    def seen(self, load: Load, event: str) -> Load:
        """The load of an event as the one strain that is counted."""
        sequence, _ = self.loads.of(event)
        return seen_as(
            load,
            str(self),
            (sequence.channel,),
            lambda named: self.history(
                self.loads.at_samples(event, sequence.values_of(named(sequence.channel), event))
            ),
            self.dimension,
        )

    @cached_property
    def words(self) -> str:
        """The states."""
        return self.loads.words

    def __str__(self) -> str:
        return f"largest principal strain of {', '.join(self.channels)}"

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The strain as it is."""
        return Nominal([], "ε_1", put_in(stress))


@opened()
def green_lagrange(values: ArrayLike, measure: str, *, shear: str = "tensor") -> FloatArray:
    """Green and Lagrange's strains, tensor components, of strains in one of `STRAIN_MEASURES`, shape (states, 6).

    Parameters
    ----------
    values : array_like
        Six components xx, yy, zz, xy, yz, zx, or nine of a deformation gradient, shape (states, 6 or 9).
    measure : str
        Which measure it is: one of `STRAIN_MEASURES`.
    shear : str, default "tensor"
        What the shear components are: one of `SHEARS`.

    Returns
    -------
    ndarray
        E, -.

    Raises
    ------
    InputError
        For what `cauchy_green` refuses.

    Examples
    --------
    >>> green_lagrange([[0.5, -0.184, -0.184, 0, 0, 0]], "nominal").round(3).tolist()
    [[0.625, -0.167, -0.167, 0.0, 0.0, 0.0]]
    """
    return np.asarray(0.5 * (cauchy_green(values, measure, shear=shear) - UNDEFORMED))


def largest_stretch(cauchy_greens: FloatArray) -> FloatArray:
    """The largest principal stretch of each C, shape (rows, 6), -."""
    return np.asarray(np.sqrt(np.maximum(np.linalg.eigvalsh(cauchy_greens[:, FULL])[:, 2], 0.0)))


@opened()
def joined_states(states: Sequence[StrainStates]) -> StrainStates:
    """Several sequences of states of one place as one relation, each with its events.

    Parameters
    ----------
    states : sequence of StrainStates
        The states, such as those of several files.

    Returns
    -------
    StrainStates
        All of them.

    Raises
    ------
    InputError
        For none, and for events or names of states twice.

    Examples
    --------
    >>> def of(event, strain):
    ...     turn = StatesInTurn(channel="sink", cases=[f"{event} 1"], at=["6 mm"], events=[event])
    ...     return StrainStates(loads=StrainLoads([turn]), strains=[[strain, -0.1, -0.1, 0, 0, 0]])
    >>> joined_states([of("lap", 0.3), of("stop", 0.6)]).words
    "1 state by sink, 0 to 6 mm in 'lap'; 1 state by sink, 0 to 6 mm in 'stop'"
    """
    if isinstance(states, StrainStates) or not states or not all(isinstance(one, StrainStates) for one in states):
        raise InputError("strain states", repr(states), "one or more StrainStates in a list")
    sequences = [sequence for one in states for sequence in one.loads.sequences]
    told = ", ".join(dict.fromkeys(one.told for one in states))
    return StrainStates(
        loads=StrainLoads(sequences), strains=np.concatenate([one.strains for one in states]), told=told
    )
