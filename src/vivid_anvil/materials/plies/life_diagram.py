"""Constant-life diagrams of a ply: how many cycles of an amplitude and a mean of one stress it lives.

In: amplitude and mean, MPa, of the stress along the fibres, across them, or of the shear. Out: cycles, and at a number of cycles
the part of what it bears that a cycle uses: 1 over the factor on amplitude and mean by which it would last just that long.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.ground.handed import address
from vivid_anvil.materials.plies import _kernels
from vivid_anvil.units import UnitSystem, display_unit, opened, shown
from vivid_anvil.writing.working import Step, put_in

LIFE_DIAGRAMS: Choices[type[LifeDiagram]] = Choices("life diagram")


@dataclass(frozen=True, kw_only=True, repr=False)
class LifeDiagram(ABC):
    """A diagram. Forms: see `LIFE_DIAGRAMS`.

    Parameters
    ----------
    r_ratios_tested : sequence of float, optional
        R of the tests behind it.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> from vivid_anvil.materials.plies import LargestStress
    >>> fibre = LargestStress(tension=1500.0, tension_slope=22, compression=1200.0, compression_slope=18)
    >>> fibre.lives(350.0, 350.0).round()
    array([19135985.])
    """

    r_ratios_tested: tuple[float, ...] | None = None
    source: str = "not stated"

    kind: ClassVar[str]
    formula: ClassVar[str]
    origin: ClassVar[str]

    def __post_init__(self) -> None:
        where = f"life diagram, {self.kind}"
        checks.text(inside(where, "source"), self.source)
        if self.r_ratios_tested is not None:
            try:
                given = tuple(checks.real_number(inside(where, "r_ratios_tested"), one) for one in self.r_ratios_tested)
            except TypeError:
                raise InputError(
                    inside(where, "r_ratios_tested"), repr(self.r_ratios_tested), "numbers, such as [0.1, -1, 10]"
                ) from None
            object.__setattr__(self, "r_ratios_tested", given)
        self.check(where)

    def check(self, where: str) -> None:  # noqa: B027
        """InputError for values of the form that do not go together."""

    @property
    @abstractmethod
    def numbers(self) -> FloatArray:
        """Those of the form, as `use` and `log_life` take them."""

    @staticmethod
    @abstractmethod
    def use(numbers: FloatArray, log_life: float, amplitude: float, mean: float) -> float:
        """What a cycle uses of what the ply bears for 10^`log_life` cycles: what is handed to loops."""

    @staticmethod
    @abstractmethod
    def log_life(numbers: FloatArray, amplitude: float, mean: float) -> float:
        """log10 of the life of a cycle; 300 and more: no damage. What is handed to loops."""

    @property
    @abstractmethod
    def static(self) -> tuple[float, float]:
        """Strengths in tension and compression, MPa, that the diagram ends at."""

    def lives(self, amplitude: ArrayLike, mean: ArrayLike) -> FloatArray:
        """Cycles of each amplitude and mean, MPa; inf where nothing is damaged. Shape (n,)."""
        size, middle = (np.ascontiguousarray(one) for one in np.broadcast_arrays(*_pair(amplitude, mean)))
        found = np.empty(size.size)
        _kernels.log_lives(self.life_at, self.numbers, size, middle, found)
        return cycles_of(found)

    def used(self, cycles: ArrayLike, amplitude: ArrayLike, mean: ArrayLike) -> FloatArray:
        """What each cycle uses of what the ply bears for so many cycles, -. Shape (n,)."""
        often = np.atleast_1d(np.asarray(cycles, dtype=np.float64))
        if not ((often > 0.0).all() and np.isfinite(often).all()):
            raise InputError("cycles", shortened(cycles), "finite numbers above 0")
        rows = np.broadcast_arrays(np.log10(often), *_pair(amplitude, mean))
        found = np.empty(rows[0].size)
        _kernels.uses(self.use_at, self.numbers, *(np.ascontiguousarray(one) for one in rows), found)
        return found

    @property
    def life_at(self) -> int:
        """Where `log_life` is, for loops."""
        return address(type(self).log_life, _kernels.LIFE)

    @property
    def use_at(self) -> int:
        """Where `use` is, for loops."""
        return address(type(self).use, _kernels.USE)

    def amplitude_at(self, cycles: ArrayLike, r_ratio: float) -> FloatArray:
        """Amplitude, MPa, at a constant R that lasts so many cycles. Shape (n,)."""
        r = checks.real_number("r_ratio", r_ratio)
        if r == 1.0:
            raise InputError("r_ratio", "1", "an R at which something moves")
        own = np.atleast_1d(np.asarray(cycles, dtype=np.float64))
        return np.asarray(1.0 / self.used(own, np.ones(own.size), np.full(own.size, (1.0 + r) / (1.0 - r))))

    @abstractmethod
    def steps(self, symbol: str, amplitude: float, mean: float, units: UnitSystem) -> list[Step]:
        """From amplitude and mean, MPa, to the life by hand; the last step is the life, cycles."""

    def use_step(
        self, symbol: str, cycles: float, amplitude: float, mean: float, used: float, units: UnitSystem
    ) -> Step:
        """What a cycle uses of what is borne for so many cycles, to be redone: over it the cycle lives just that long."""
        unit = display_unit("stress", units)
        size, middle = (put_in(float(shown(one, "stress", units))) for one in (amplitude, mean))
        part = put_in(used)
        return Step(
            f"What {symbol} uses of what is borne for {put_in(cycles)} cycles: over it, the cycle lives that long",
            "u: N(S_a / u, S_m / u) = N",
            f"u of N({size} {unit} / {part}, {middle} {unit} / {part}) = {put_in(cycles)}",
            used,
            "",
        )

    @property
    @abstractmethod
    def words(self) -> str:
        """Its numbers in a line."""

    def __repr__(self) -> str:
        return f"<life diagram, {self.kind}: {self.words}>"


def cycles_of(logs: FloatArray) -> FloatArray:
    """Numbers of cycles of their logarithms; inf where nothing is damaged."""
    with np.errstate(over="ignore"):
        return np.where(logs >= _kernels.LONGEST, np.inf, 10.0 ** np.minimum(logs, _kernels.LONGEST))


def _pair(amplitude: ArrayLike, mean: ArrayLike) -> tuple[FloatArray, FloatArray]:
    size, middle = (np.atleast_1d(np.asarray(one, dtype=np.float64)) for one in (amplitude, mean))
    if not ((size >= 0.0).all() and np.isfinite(size).all() and np.isfinite(middle).all()):
        raise InputError("amplitude and mean", shortened(amplitude), "finite amplitudes of at least 0, finite means")
    return size, middle


@opened()
def joint_lives(
    across: LifeDiagram,
    shear: LifeDiagram,
    across_cycles: tuple[ArrayLike, ArrayLike],
    shear_cycles: tuple[ArrayLike, ArrayLike],
) -> FloatArray:
    """Cycles at which (s2 / Y(N))² + (t12 / S(N))² = 1, each of the R of its cycle, shape (n,): Hashin and Rotem 1973.

    Parameters
    ----------
    across : LifeDiagram
        Of the stress across the fibres.
    shear : LifeDiagram
        Of the shear.
    across_cycles : (amplitude, mean)
        Of s2, MPa, shape (n,) each.
    shear_cycles : (amplitude, mean)
        Of t12 in the same cycles, MPa.

    Returns
    -------
    ndarray
        Cycles; inf where nothing is damaged.

    Raises
    ------
    InputError
        For amplitudes below 0 and numbers that are not finite.

    Examples
    --------
    >>> from vivid_anvil.materials.plies import LargestStress
    >>> across = LargestStress(tension=45.0, tension_slope=9, compression=180.0, compression_slope=12)
    >>> shear = LargestStress(tension=75.0, tension_slope=11, compression=75.0, compression_slope=11)
    >>> joint_lives(across, shear, (6.0, 6.0), (12.5, 12.5)).round(2)
    array([5132.88])
    """
    rows = [np.ascontiguousarray(one) for one in np.broadcast_arrays(*_pair(*across_cycles), *_pair(*shear_cycles))]
    found = np.empty(rows[0].size)
    _kernels.joint_log_lives(
        across.life_at,
        across.use_at,
        across.numbers,
        *rows[:2],
        shear.life_at,
        shear.use_at,
        shear.numbers,
        *rows[2:],
        found,
    )
    return cycles_of(found)
