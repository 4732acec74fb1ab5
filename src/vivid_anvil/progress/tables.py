"""What loops need of a laminate: its plies as arrays, forms of lives and decays by their addresses."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.ground.handed import address
from vivid_anvil.materials.plies import Ply
from vivid_anvil.materials.plies._kernels import LIFE, USE
from vivid_anvil.materials.plies.ply import LIVES, STIFFNESS_DECAYS_OF, STRENGTH_DECAYS_OF, to_ply
from vivid_anvil.progress._jump_kernels import STIFFNESS, STRENGTH
from vivid_anvil.progress.bundles import Plies, Ways
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.units import Coherent, sound

FAILS_BY = {
    "damage sum": "a mode fails when the damage of its cycles sums up to the critical sum (Palmgren 1924, Miner 1945)",
    "residual strength": "a mode fails when its largest stress meets the strength that is left, by equivalent cycles",
}
MODES = ("fibre", "matrix")


@sound
@dataclass(frozen=True, kw_only=True)
class ProgressSettings:
    """How a laminate is followed to its end.

    Parameters
    ----------
    modes : sequence of str, default both
        Which of "fibre" and "matrix" may fail.
    together : bool, default True
        Whether s2 and t12 act together between fibres, by their squares; else the worse of both.
    fails_by : str, default "damage sum"
        One of `FAILS_BY`.
    critical_sum : float, default 1
        Damage sum at which a mode fails, -.
    fibre_left : float, default 0.01
        Part of E1, E2 and G12 that a ply with broken fibres keeps, -.
    matrix_left : float, default 0.1
        Part of E2 and G12 that a ply with cracks between its fibres keeps, -.
    over_below : float, default 0.1
        Part of the stiffness against its loads below which the laminate has failed, -.
    jump_error : float, default 3e-4
        What two ways to take a jump, of third and of second order, may differ by, in damage or stiffness, -.

    Raises
    ------
    InputError
        For no mode, an unknown one, and values of another kind or range.

    Examples
    --------
    >>> ProgressSettings(fails_by="residual strength").fails_by
    'residual strength'
    """

    modes: tuple[str, ...] = MODES
    together: bool = True
    fails_by: str = "damage sum"
    critical_sum: Coherent = Coherent("number", above=0.0, default=1.0)
    fibre_left: Coherent = Coherent("number", above=0.0, below=1.0, default=0.01)
    matrix_left: Coherent = Coherent("number", above=0.0, below=1.0, default=0.1)
    over_below: Coherent = Coherent("number", above=0.0, below=1.0, default=0.1)
    jump_error: Coherent = Coherent("number", above=0.0, below=1.0, default=3e-4)

    def __post_init__(self) -> None:
        given: Any = self.modes
        if isinstance(given, str) or not given or len(set(given)) < len(given) or not set(given) <= set(MODES):
            raise InputError("progress, modes", shortened(given), "one or both of 'fibre' and 'matrix'")
        object.__setattr__(self, "modes", tuple(one for one in MODES if one in given))
        checks.one_of("progress, fails_by", self.fails_by, tuple(FAILS_BY))
        if not isinstance(self.together, bool):
            raise InputError("progress, together", repr(self.together), "true or false")

    @property
    def assessed(self) -> BoolArray:
        """Fibre, matrix."""
        return np.array([one in self.modes for one in MODES])

    def ways(self, longest: float) -> Ways:
        """The same as numbers, for a march that is left after so many repeats."""
        return Ways(
            self.assessed,
            self.together,
            self.fails_by == "residual strength",
            self.critical_sum,
            self.fibre_left,
            self.matrix_left,
            self.over_below,
            self.jump_error,
            float(longest),
        )


@sound
@dataclass(frozen=True, eq=False)
class PlyTables:
    """The arrays; addresses hold in this process alone, so it is made where it is used."""

    laminate: Laminate
    settings: ProgressSettings

    def __post_init__(self) -> None:
        for ply in self.plies:
            check_ply(ply, self.settings)

    @property
    def plies(self) -> tuple[Ply, ...]:
        """Each kind once."""
        return tuple(dict.fromkeys(one.ply for one in self.laminate.laid))

    @cached_property
    def bundle(self) -> Plies:
        """All of it."""
        residual = self.settings.fails_by == "residual strength"
        nowhere = np.zeros((len(self.laminate.laid), 3), dtype=np.int64)
        expansion = np.array([one.ply.expansion[:2] for one in self.laminate.laid])
        return Plies(
            moduli=np.ascontiguousarray(self.laminate.moduli),
            turn=np.ascontiguousarray(to_ply(self.laminate.angles, engineering=True)),
            edges=np.ascontiguousarray(self.laminate.edges),
            free=np.ascontiguousarray(expansion * self.laminate.temperature_change),
            static=np.array([one.ply.strengths("the failure of plies") for one in self.laminate.laid]),
            life_at=self._addresses(LIVES, "log_life", LIFE),
            use_at=self._addresses(LIVES, "use", USE),
            life_numbers=self._numbers(LIVES),
            strength_at=self._addresses(STRENGTH_DECAYS_OF, "after", STRENGTH) if residual else nowhere,
            strength_numbers=self._numbers(STRENGTH_DECAYS_OF),
            stiffness_at=self._addresses(STIFFNESS_DECAYS_OF, "after", STIFFNESS),
            stiffness_numbers=self._numbers(STIFFNESS_DECAYS_OF),
            by_sum=self._by_sum(),
        )

    def ways(self, longest: float) -> Ways:
        """How it is followed, up to so many repeats."""
        return self.settings.ways(longest)

    def _addresses(self, keys: tuple[str, ...], function: str, signature: Any) -> IntArray:
        known = {
            ply: [
                0 if getattr(ply, key) is None else address(getattr(type(getattr(ply, key)), function), signature)
                for key in keys
            ]
            for ply in self.plies
        }
        return np.array([known[one.ply] for one in self.laminate.laid], dtype=np.int64)

    def _numbers(self, keys: tuple[str, ...]) -> FloatArray:
        rows = [
            [np.zeros(1) if getattr(one.ply, key) is None else getattr(one.ply, key).numbers for key in keys]
            for one in self.laminate.laid
        ]
        width = max(numbers.size for row in rows for numbers in row)
        return np.array([[np.pad(numbers, (0, width - numbers.size)) for numbers in row] for row in rows])

    def _by_sum(self) -> BoolArray:
        """Which decays of stiffness go by the sum of n / N alone."""
        rows = [
            [decay is not None and decay.by_sum for decay in (getattr(one.ply, key) for key in STIFFNESS_DECAYS_OF)]
            for one in self.laminate.laid
        ]
        return np.array(rows)


def check_ply(ply: Ply, settings: ProgressSettings) -> None:
    """InputError for a mode without its life, strengths that are missing, and strength that shall go down by no law."""
    where = f"ply {ply.name}"
    needed = {"fibre": LIVES[:1], "matrix": LIVES[1:]}
    decays = {"fibre": STRENGTH_DECAYS_OF[:1], "matrix": STRENGTH_DECAYS_OF[1:]}
    for mode in settings.modes:
        for key in needed[mode]:
            if getattr(ply, key) is None:
                raise InputError(
                    inside(where, key),
                    f"none, with the mode {mode!r} to be assessed",
                    "a life diagram",
                    f"Without tests of it leave {mode!r} out of modes; it is then not assessed.",
                )
        if settings.fails_by == "residual strength":
            for key in decays[mode]:
                if getattr(ply, key) is None:
                    raise InputError(
                        inside(where, key), "none, with fails_by = 'residual strength'", "how that strength goes down"
                    )
    ply.strengths("the failure of plies")
    for key, life in zip(STIFFNESS_DECAYS_OF, LIVES, strict=True):
        decay = getattr(ply, key)
        if decay is not None and getattr(ply, life) is None and decay.kind != "rate":
            raise InputError(
                inside(where, life),
                f"none beside {key}, which goes by the life",
                "a life diagram, or a decay by its rate",
            )
