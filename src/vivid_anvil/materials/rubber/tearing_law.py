"""Growth of cracks in rubber: rate over the tearing energy of a cycle, and the life of a flaw that was there from the start.

In: largest tearing energy of a cycle, N/mm (= kJ/m²), and R, its least over its largest. Out: growth, mm/cycle. At R = 0, fully
relaxing, a law is a function of the tearing energy; another R makes of a cycle one that relaxes, with an equivalent energy.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import OptionalCoherent, Temperature, number

TEARING_LAWS: Choices[type[TearingLaw]] = Choices("tearing law")
R_EFFECTS = {
    "range": "rubber that does not crystallise: what counts is the range of the tearing energy (Lake and Lindley 1964)",
    "crystallising": "rubber that crystallises when stretched: the slope rises with R (Mars and Fatemi 2003)",
}
POINTS = 24  # of Gauss and Legendre on each piece of an integral over ln c
MOST_MARKS, PANELS, FEW_POINTS = 200, 400, 4  # pieces between knees; else even ones, with fewer points each


@dataclass(frozen=True, kw_only=True, repr=False)
class TearingLaw(ABC):
    """A law. Forms: see `TEARING_LAWS`.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    r_effect : str, default "range"
        One of `R_EFFECTS`: what R above 0 does.
    slope_rise : float, optional
        F4 of F(R) = F0 exp(F4 R), for "crystallising".
    slope_terms : (float, float, float), optional
        F1, F2, F3 of F(R) = F0 + F1 R + F2 R² + F3 R³, instead.
    temperature : float or text with a scale, optional
        Of the tests, °C.
    r_ratios_tested : (float, float), optional
        Least and largest R of the tests: 0 where they relaxed fully.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For terms that do not go with the effect of R, and values of another kind, unit or range.

    Examples
    --------
    >>> from vivid_anvil.materials.rubber import PowerTearing
    >>> law = PowerTearing(
    ...     name="bushing", rate="0.0025 mm/cycle", at="11 N/mm", slope=2.0, r_effect="crystallising", slope_rise=1.3
    ... )
    >>> law.growth([0.5, 2.0], 0.2)
    array([8.23916653e-07, 3.00291275e-05])
    """

    name: str
    r_effect: str = "range"
    slope_rise: OptionalCoherent = OptionalCoherent("number", at_least=0.0)
    slope_terms: tuple[float, float, float] | None = None
    temperature: Temperature = Temperature()
    r_ratios_tested: tuple[float, float] | None = None
    source: str = "not stated"

    kind: ClassVar[str]
    formula: ClassVar[str]
    origin: ClassVar[str]

    def __post_init__(self) -> None:
        checks.text(inside("tearing law", "name"), self.name)
        where = f"tearing law {self.name}"
        checks.text(inside(where, "source"), self.source)
        checks.one_of(inside(where, "r_effect"), self.r_effect, tuple(R_EFFECTS))
        if self.r_ratios_tested is not None:
            object.__setattr__(
                self, "r_ratios_tested", _r_ratios(inside(where, "r_ratios_tested"), self.r_ratios_tested)
            )
        given = [key for key in ("slope_rise", "slope_terms") if getattr(self, key) is not None]
        if self.r_effect == "range" and given:
            raise InputError(
                inside(where, given[0]), "a slope that hangs on R, with r_effect 'range'", "r_effect = 'crystallising'"
            )
        if self.r_effect == "crystallising" and len(given) != 1:
            raise InputError(
                where,
                " and ".join(given) or "no effect of R",
                "slope_rise, or slope_terms, for rubber that crystallises",
            )
        if self.slope_terms is not None:
            if not isinstance(self.slope_terms, Sequence) or len(self.slope_terms) != 3:
                raise InputError(inside(where, "slope_terms"), repr(self.slope_terms), "three numbers, F1, F2, F3")
            terms = tuple(checks.real_number(inside(where, "slope_terms"), one) for one in self.slope_terms)
            object.__setattr__(self, "slope_terms", terms)
        self.check(where)

    def check(self, where: str) -> None:  # noqa: B027
        """InputError for values of the form that do not go together."""

    @property
    @abstractmethod
    def anchor(self) -> tuple[float, float]:
        """T, N/mm, where R does nothing, and the slope at R = 0: what F(R) turns about."""

    @abstractmethod
    def relaxing(self, tearing_energy: FloatArray) -> FloatArray:
        """Growth, mm/cycle, of fully relaxing cycles."""

    @property
    @abstractmethod
    def knees(self) -> tuple[float, ...]:
        """Tearing energies, N/mm, at which the form changes."""

    @property
    @abstractmethod
    def numbers(self) -> FloatArray:
        """Those of the form, as `rate_of` takes them."""

    @staticmethod
    @abstractmethod
    def rate_of(numbers: FloatArray, tearing_energy: float) -> float:
        """`relaxing` of one tearing energy, N/mm, from the numbers of the form: what is handed to loops."""

    def slope_at(self, r_ratio: ArrayLike) -> FloatArray:
        """F(R), -."""
        _, slope = self.anchor
        r = np.asarray(r_ratio, dtype=np.float64)
        if self.slope_terms is not None:
            one, two, three = self.slope_terms
            return np.asarray(slope + one * r + two * r**2 + three * r**3)
        return np.asarray(slope * np.exp((self.slope_rise or 0.0) * r))

    def equivalent(self, tearing_energy: ArrayLike, r_ratio: ArrayLike = 0.0) -> FloatArray:
        """The tearing energy, N/mm, of the fully relaxing cycle that grows a crack as much.

        Parameters
        ----------
        tearing_energy : array_like
            Largest of a cycle, N/mm.
        r_ratio : array_like, default 0
            Least over largest, from 0 to below 1.

        Returns
        -------
        ndarray
            Tearing energy, N/mm.

        Raises
        ------
        InputError
            For R outside of 0 to below 1, and a tearing energy below 0.

        Examples
        --------
        >>> from vivid_anvil.materials.rubber import PowerTearing
        >>> PowerTearing(name="sbr", rate=0.0025, at=11.0, slope=2.0).equivalent([2.0], 0.2).round(6)
        array([1.6])
        """
        largest, r = np.broadcast_arrays(np.asarray(tearing_energy, float), np.asarray(r_ratio, float))
        self._check(largest, r)
        if self.r_effect == "range":
            return np.asarray(largest * (1.0 - r))
        middle, slope = self.anchor
        return np.asarray(middle * (largest / middle) ** (self.slope_at(r) / slope))

    def _check(self, largest: FloatArray, r: FloatArray) -> None:
        where = f"tearing law {self.name}"
        bad = ~((r >= 0.0) & (r < 1.0))
        if bad.any():
            raise InputError(
                where,
                f"R = {r[bad].ravel()[0]:g}",
                "0 up to below 1, least over largest tearing energy",
                "At R = 1 nothing moves: no cycle, and no growth by cycles.",
            )
        low = ~(largest >= 0.0)
        if low.any():
            raise InputError(where, f"a tearing energy of {largest[low].ravel()[0]:g} N/mm", "0 or more")

    def growth(self, tearing_energy: ArrayLike, r_ratio: ArrayLike = 0.0) -> FloatArray:
        """Growth, mm/cycle, of cycles with a largest tearing energy, N/mm, and R."""
        return self.relaxing(self.equivalent(tearing_energy, r_ratio))

    def lives(
        self, energy: ArrayLike, r_ratio: ArrayLike, start: float, end: float, shape_factor: float = math.pi
    ) -> FloatArray:
        """Cycles, each alone, that grow a flaw from `start` to `end`, mm, in T = 2 k W c; inf where it does not grow.

        Parameters
        ----------
        energy : array_like
            Largest energy density W of each cycle that is there to open the flaw, MPa.
        r_ratio : array_like
            Least over largest of it, -.
        start, end : float
            Sizes, mm.
        shape_factor : float, default π
            k, -.

        Returns
        -------
        ndarray
            Cycles.

        Raises
        ------
        InputError
            For an end that is not above the start, and R outside of 0 to below 1.

        Examples
        --------
        >>> from vivid_anvil.materials.rubber import PowerTearing
        >>> PowerTearing(name="sbr", rate=0.0025, at=11.0, slope=2.0).lives([0.5], [0.0], 0.04, 1.2).round(3)
        array([118512.011])
        """
        w, r = (
            np.atleast_1d(one) for one in np.broadcast_arrays(np.asarray(energy, float), np.asarray(r_ratio, float))
        )
        self._check_sizes(start, end)
        return self._integrated(2.0 * shape_factor * w, r, start, end)

    def _check_sizes(self, start: float, end: float) -> None:
        where = f"tearing law {self.name}"
        checks.positive_number(f"{where}, start", start, "a flaw above 0 mm")
        if not end > start:
            raise InputError(f"{where}, end", f"{end:g} mm", f"more than the flaw at the start, {start:g} mm")

    def _integrated(self, per_size: FloatArray, r: FloatArray, start: float, end: float) -> FloatArray:
        """∫ dc / rate for each cycle, with T = `per_size` c, split where the form changes."""
        self._check(per_size, r)
        marks = np.full((per_size.size, len(self.knees) + 2), start)
        marks[:, -1] = end
        for i, knee in enumerate(self.knees, 1):
            marks[:, i] = np.clip(self._size_at(knee, per_size, r), start, end)
        marks = np.sort(marks, axis=1)
        at, weights = np.polynomial.legendre.leggauss(POINTS)
        total = np.zeros(per_size.size)
        for low, high in zip(np.log(marks.T[:-1]), np.log(marks.T[1:]), strict=True):
            half = 0.5 * (high - low)
            sizes = np.exp(0.5 * (high + low)[:, None] + half[:, None] * at)
            rate = self.growth(per_size[:, None] * sizes, r[:, None])
            with np.errstate(divide="ignore", invalid="ignore"):
                part = half * ((sizes / rate) @ weights)
            total += np.where(half > 0.0, part, 0.0)
        grows = self.growth(per_size * start, r) > 0.0
        return np.where(grows, total, np.inf)

    def _size_at(self, equivalent: float, per_size: FloatArray, r: FloatArray) -> FloatArray:
        """The flaw, mm, at which a cycle has an equivalent tearing energy; inf where none has."""
        largest: FloatArray | float
        if self.r_effect == "range":
            largest = equivalent / (1.0 - r)
        else:
            middle, slope = self.anchor
            largest = middle * (equivalent / middle) ** (slope / self.slope_at(r))
        with np.errstate(divide="ignore"):
            return np.asarray(largest / per_size)

    def least_size(self, energy: float, r_ratio: float = 0.0, shape_factor: float = math.pi) -> float:
        """The flaw, mm, up to which cycles of that energy density, MPa, grow nothing; 0 without a threshold."""
        if self.threshold is None:
            return 0.0
        return float(self._size_at(self.threshold, np.array([2.0 * shape_factor * energy]), np.array([r_ratio]))[0])

    @property
    def threshold(self) -> float | None:
        """Equivalent tearing energy, N/mm, at or below which nothing grows; None without one."""
        return None

    def passes(
        self,
        energy: ArrayLike,
        r_ratio: ArrayLike,
        counts: ArrayLike,
        start: float,
        end: float,
        shape_factor: float = math.pi,
    ) -> float:
        """Repeats of a whole service, cycles with their counts in it, that grow one flaw from `start` to `end`, mm.

        Parameters
        ----------
        energy : array_like
            Largest energy density of each cycle, MPa.
        r_ratio : array_like
            Least over largest of it, -.
        counts : array_like
            How often each is in a repeat.
        start, end : float
            Sizes, mm.
        shape_factor : float, default π
            k, -.

        Returns
        -------
        float
            Repeats; inf where the flaw does not grow.

        Raises
        ------
        InputError
            For an end that is not above the start, and R outside of 0 to below 1.

        Examples
        --------
        >>> from vivid_anvil.materials.rubber import PowerTearing
        >>> law = PowerTearing(name="sbr", rate=0.0025, at=11.0, slope=2.0)
        >>> round(law.passes([0.5, 0.25], [0.0, 0.0], [1.0, 4.0], 0.04, 1.2), 3)
        59256.006
        """
        w, r, n = (
            np.atleast_1d(one)
            for one in np.broadcast_arrays(*(np.asarray(each, float) for each in (energy, r_ratio, counts)))
        )
        self._check_sizes(start, end)
        per_size = 2.0 * shape_factor * w
        self._check(per_size, r)
        if not float((n * self.growth(per_size * start, r)).sum()) > 0.0:
            return math.inf
        knees = [self._size_at(knee, per_size, r) for knee in self.knees]
        marks = np.unique(np.concatenate([[start, end], *(one[(one > start) & (one < end)] for one in knees)]))
        many = marks.size > MOST_MARKS  # knees of so many cycles that none stands out
        marks = np.geomspace(start, end, PANELS + 1) if many else marks
        at, weights = np.polynomial.legendre.leggauss(FEW_POINTS if many else POINTS)
        total = 0.0
        for low, high in zip(np.log(marks[:-1]), np.log(marks[1:]), strict=True):
            half = 0.5 * (high - low)
            sizes = np.exp(0.5 * (high + low) + half * at)
            rate = n @ self.growth(per_size[:, None] * sizes, r[:, None])
            total += half * float((sizes / rate) @ weights)
        return float(total)

    def __repr__(self) -> str:
        at = "" if self.temperature is None else f", at {number(self.temperature)} °C"
        return f"<TearingLaw {self.name}: {self.kind}, {self.r_effect}{at}>"


def _r_ratios(where: str, given: Any) -> tuple[float, float]:
    """Least and largest R; InputError unless 0 <= least <= largest < 1."""
    if isinstance(given, str) or not isinstance(given, Sequence) or len(given) != 2:
        raise InputError(where, repr(given), "least and largest R, such as [0.0, 0.1]")
    low, high = (checks.real_number(where, one) for one in given)
    if not 0.0 <= low <= high < 1.0:
        raise InputError(where, f"{low:g} to {high:g}", "least and largest R, from 0 to below 1")
    return low, high


def check_below(where: str, key: str, value: float | None, top: float) -> None:
    """InputError for a tearing energy, N/mm, that is not below the one from which the law goes on."""
    if value is not None and value >= top:
        raise InputError(
            inside(where, key), f"{number(value)} N/mm", f"below {number(top)} N/mm, where the law goes on"
        )


__all__ = ["R_EFFECTS", "TEARING_LAWS", "TearingLaw", "check_below"]
