"""S-N curve: life for a stress, through points, with what holds beyond its ends.

In: stress (MPa) that the curve SAYS to be a range or an amplitude, and the R it was tested at. Out: life, cycles.
Method: straight lines in log S, log N: N = N_k (S_k / S)^m (Basquin, O. H. 1910, Proc. ASTM 10, 625-630); or in S, log N;
or in S, N. The ways to write a curve down are in `sn_forms`.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, Literal

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves import _kernels
from vivid_anvil.materials.curves.checks import check_curve
from vivid_anvil.materials.curves.curved import CurvedForm
from vivid_anvil.materials.curves.own_findings import looks
from vivid_anvil.materials.curves.segments import Segments, damage_of_powers, lives_of_powers, stresses_of_powers
from vivid_anvil.units import OptionalCoherent, UnitSystem, coherent_values, many, number, one, opened, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.html import html_frame
from vivid_anvil.writing.working import Step

ANY_R: Literal["any"] = "any"
FIXED_MEAN: Literal["fixed mean"] = "fixed mean"
MOST_KNEES = 3  # up to so many a curve is described by its slopes
NO_DAMAGE: Literal["no damage"] = "no damage"

StressKind = Literal["range", "amplitude"]
RRatio = float | Literal["any", "fixed mean"]
Interpolation = Literal["log-log", "semi-log", "linear"]
Above = float | Literal["extend", "hold"]
Below = float | Literal["extend", "hold", "no damage"]
_RANGES, _COUNTS = many("stress", at_least=0.0), many(at_least=0.0)
_KINDS = {"log-log": _kernels.POWER, "semi-log": _kernels.EXPONENTIAL, "linear": _kernels.LINEAR}


class Curve(ABC):
    """Cycles of an amplitude and a mean -> stresses on one curve, the `reference`, and with it lives."""

    name: Any
    mean_counts: ClassVar[bool] = False  # whether the mean of a cycle changes its life on the curve by itself

    @property
    @abstractmethod
    def reference(self) -> SNCurve:
        """The curve that cycles are held against."""

    @property
    @abstractmethod
    def has_means(self) -> str:
        """Why no mean-stress rule may stand beside it, in words, such as "which holds for any R"; empty where one may."""

    @abstractmethod
    def equivalent(self, amplitude: FloatArray, mean: FloatArray) -> FloatArray:
        """Cycles in the terms of the reference (range or amplitude, at its R), MPa; no rule is applied."""

    def equivalent_steps(self, amplitude: float, mean: float, units: UnitSystem) -> tuple[Step, ...]:
        """From amplitude and mean of a cycle, MPa, to its amplitude on the reference, by hand; none where it is the same."""
        return ()

    @property
    @abstractmethod
    def told(self) -> tuple[str, str]:
        """Where it comes from, and in what it counts."""

    @abstractmethod
    def lines_in(self, unit: str, one: float) -> str:
        """Its lines in words, with its stresses times `one` in `unit`."""


class Conversion(ABC):
    """A curve's stress -> stress as tested, and back, MPa; where no curve of straight lines is exact (another R).

    Each is a frozen dataclass of plain values, so that a converted curve can be sent to another process.
    """

    @property
    @abstractmethod
    def words(self) -> str:
        """What was done, in a few words."""

    @abstractmethod
    def to_tested(self, stress: FloatArray) -> FloatArray:
        """Stresses of the converted curve as those of the tested one."""

    @abstractmethod
    def from_tested(self, stress: FloatArray) -> FloatArray:
        """The other way round."""

    def working(self, stress: float, system: UnitSystem) -> tuple[Step, ...]:
        """The steps of the hand calculation; none by default."""
        return ()


FEW_POINTS = 4


@sound
@dataclass(frozen=True, kw_only=True, repr=False)
class SNCurve(Curve):
    """Life for a stress: straight lines through `points`, and what holds above the first and below the last.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    stress : "range" or "amplitude"
        What the curve's stress is.
    r_ratio : float, "any" or "fixed mean"
        Minimum / maximum of the tests, below 1; "any" where the curve holds for every R (welds as welded);
        "fixed mean" where the tests kept `mean_stress`, MPa, instead.
    points : pairs (stress, life)
        Stress in MPa or as text, falling; life in cycles, rising, 1 or more.
    above : float, "extend" or "hold"
        Above the first point: a slope m (log-log only), the line through the first two points, or the first life.
    below : float, "extend", "hold" or "no damage"
        Below the last point; inf is the same as "no damage". The last point itself has its life.
    interpolation : "log-log", "semi-log" (log N over S) or "linear"
        Between the points: one of `INTERPOLATIONS`.
    mean_stress : float or text with a unit, optional
        Mean stress of the tests, MPa, where it was the same in all.
    tested_from, tested_to : float, cycles
        The lives between which tests support the curve; beyond them figures are dashed and a finding says so.
    survival_probability : float, optional
        Share of parts that outlive the curve, between 0 and 1.
    log_life_std : float, optional
        Scatter of life: standard deviation of log10 N; needed for another survival probability.
    component : "normal" or "shear"
        Which stress it is for.
    basis : str
        Where the numbers come from, in a word: "tests", "typical", "standard", "estimate" or "not stated".
    source : str
        Where the numbers come from, in words.
    steps : tuple of Step
        How the curve was made, to redo by hand; `explain` prints them.
    remarks : tuple of Finding
        What is to be said wherever the curve is used.
    conversion : Conversion, optional
        How stresses come to those that were tested, where they differ.
    curved : CurvedForm, optional
        A formula in place of lines (see `curved_curve`); the points are then where its tested part begins and ends.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> weld = SNCurve(name="toe", stress="range", r_ratio="any", points=[("52 MPa", 1e7)], above=3, below=5)
    >>> weld.life([200.0, 52.0, 45.0]).round()
    array([  175760., 10000000., 20604124.])
    >>> round(float(weld.stress_at(2e6)), 1)
    88.9
    """

    name: str
    stress: StressKind
    r_ratio: RRatio
    points: tuple[tuple[float, float], ...]
    above: Above
    below: Below
    interpolation: Interpolation = "log-log"
    mean_stress: OptionalCoherent = OptionalCoherent("stress")
    tested_from: float = 1.0e3
    tested_to: float = math.inf
    survival_probability: float | None = None
    log_life_std: float | None = None
    component: Literal["normal", "shear"] = "normal"
    basis: str = "not stated"
    source: str = "not stated"
    steps: tuple[Step, ...] = ()
    remarks: tuple[Finding, ...] = ()
    conversion: Conversion | None = None
    curved: CurvedForm | None = None

    def __post_init__(self) -> None:
        for field, value in check_curve(self).items():
            object.__setattr__(self, field, value)

    @cached_property
    def segments(self) -> Segments:
        """The curve as the loops want it."""
        stress, life = (np.array(column) for column in zip(*self.points, strict=True))
        kind = _KINDS[self.interpolation]
        rates = [self._rate_between(i, i + 1) for i in range(stress.size - 1)]
        kinds = [kind] * (stress.size - 1)
        first, last = self._end(self.above, rates[:1]), self._end(self.below, rates[-1:])
        all_kinds, all_rates = [first[0], *kinds, last[0]], [first[1], *rates, last[1]]
        anchors = np.append(np.arange(stress.size), stress.size - 1)
        arrays = (stress, np.array(all_kinds, dtype=np.int64), stress[anchors], life[anchors], np.array(all_rates))
        return Segments(*(read_only(array) for array in arrays))

    def _rate_between(self, i: int, j: int) -> float:
        (high, short), (low, long) = self.points[i], self.points[j]
        if self.interpolation == "log-log":
            return math.log(long / short) / math.log(high / low)
        if self.interpolation == "semi-log":
            return math.log(long / short) / (high - low)
        return (long - short) / (high - low)

    def _end(self, choice: Above | Below, rate_there: list[float]) -> tuple[int, float]:
        """Kind and rate of the segment beyond an end."""
        if choice == "extend":
            return _KINDS[self.interpolation], rate_there[0]
        if choice == "hold":
            return _kernels.CONSTANT, 0.0
        if choice == NO_DAMAGE:
            return _kernels.NEVER, 0.0
        return _kernels.POWER, float(choice)

    def life(self, stress: ArrayLike) -> FloatArray:
        """Life, cycles, at `stress`, MPa, in the curve's own terms (range or amplitude, at its R); inf at 0.

        Raises InputError for a stress below 0 or nan.
        """
        asked = np.asarray(coherent_values(stress, "stress", f"S-N curve {self.name}, stress"), dtype=np.float64)
        row = np.ascontiguousarray(self._as_tested(asked)).reshape(-1)
        out = np.empty(row.size)
        if self.curved is not None:
            bad = _first_bad(row >= 0.0)
            out = np.where(row > 0.0, self.curved.life(np.where(row > 0.0, row, 1.0)), np.inf)
        elif self.powers:
            bad = lives_of_powers(row, self.segments, out)
        else:
            bad = _kernels.lives(row, *self.segments.by_stress, out)
        if bad >= 0:
            raise InputError(
                f"S-N curve {self.name}, stress {bad}",
                f"{row[bad]:g} MPa",
                f"a stress {self.stress} of 0 or more",
                "A range or an amplitude has no sign.",
            )
        return out.reshape(asked.shape)

    def damage_of(self, ranges: ArrayLike, count: ArrayLike | None = None) -> float:
        """Σ n / N of stress ranges, MPa, at the curve's R; each counts once where no `count` is given.

        Raises InputError for ranges and counts that are not finite numbers of 0 or more, and for counts of another size.
        """
        where = f"S-N curve {self.name}"
        ranges = np.atleast_1d(_RANGES.checked(ranges, inside(where, "ranges")))
        if count is not None:
            count = np.atleast_1d(_COUNTS.checked(count, inside(where, "count")))
            if count.shape != ranges.shape:
                raise InputError(inside(where, "count"), f"shape {count.shape}", f"{ranges.shape}, one for each range")
        scale = 1.0 if self.stress == "range" else 0.5
        if self.conversion is not None:
            ranges, scale = self._as_tested(scale * ranges), 1.0
        if self.curved is not None:
            with np.errstate(divide="ignore"):
                return float(((1.0 if count is None else count) / self.life(scale * ranges)).sum())
        if self.powers:
            return damage_of_powers(ranges, scale, count, self.segments)
        weights = np.empty(0) if count is None else count
        return float(_kernels.damage_sum(ranges, scale, weights, *self.segments.by_stress))

    def stress_at(self, life: ArrayLike) -> FloatArray:
        """Stress, MPa, in the curve's own terms, at which the curve has `life`, cycles: the inverse of `life`.

        inf for lives shorter than a held first life, 0 for lives longer than any stress gives. Raises InputError for a
        life that is not above 0.
        """
        asked = np.asarray(coherent_values(life, "number", f"S-N curve {self.name}, life"), dtype=np.float64)
        row, out = np.ascontiguousarray(asked).reshape(-1), np.empty(asked.size)
        if self.curved is not None:
            bad = _first_bad(row > 0.0)
            out = self.curved.stress_at(np.where(row > 0.0, row, 1.0))
        elif self.powers:
            bad = stresses_of_powers(row, self.point_lives, self.segments, out)
        else:
            bad = _kernels.stresses(row, self.point_lives, *self.segments.by_stress[1:], out)
        if bad >= 0:
            raise InputError(f"S-N curve {self.name}, life {bad}", f"{row[bad]:g} cycles", "a life above 0 cycles")
        found = out.reshape(asked.shape)
        return found if self.conversion is None else self.conversion.from_tested(found)

    def _as_tested(self, stress: FloatArray) -> FloatArray:
        return stress if self.conversion is None else self.conversion.to_tested(stress)

    @cached_property
    def point_lives(self) -> FloatArray:
        """Lives of the points, cycles, rising."""
        return read_only(np.array([life for _, life in self.points]))

    @cached_property
    def point_stresses(self) -> FloatArray:
        """Stresses of the points, MPa, in the curve's own terms, falling."""
        return read_only(np.asarray(self.stress_at(self.point_lives), dtype=np.float64))

    @opened(stress=one("stress", at_least=0.0))
    def slope_at(self, stress: float) -> float:
        """Local slope m = -d log N / d log S at `stress`, MPa; 0 where a life is held, inf where nothing does damage."""
        tested = float(self._as_tested(np.asarray(stress, dtype=np.float64)))
        if self.curved is not None:
            return self.curved.slope_at(tested)
        parts = self.segments
        j = int(_kernels.segment_of_stress(tested, parts.edge))
        kind, rate = int(parts.kind[j]), float(parts.rate[j])
        life = float(_kernels.life_in(tested, kind, parts.stress[j], parts.life[j], rate))
        local = {_kernels.POWER: rate, _kernels.EXPONENTIAL: rate * tested, _kernels.LINEAR: rate * tested / life}
        local |= {_kernels.CONSTANT: 0.0, _kernels.NEVER: math.inf}
        return local[kind]

    @property
    def reference(self) -> SNCurve:
        """Itself."""
        return self

    @property
    def has_means(self) -> str:
        """A curve for any R, or at one mean stress, has the mean in it."""
        why: dict[Any, str] = {ANY_R: "which holds for any R", FIXED_MEAN: "which holds for one mean stress"}
        return why.get(self.r_ratio, "")

    def equivalent(self, amplitude: FloatArray, mean: FloatArray) -> FloatArray:
        """The amplitude, doubled where the curve is in ranges."""
        return np.asarray((2.0 if self.stress == "range" else 1.0) * amplitude)

    @property
    def told(self) -> tuple[str, str]:
        """Basis; range or amplitude with R."""
        return self.basis, f"{self.stress}, {self.at_r}"

    def lines_in(self, unit: str, one: float) -> str:
        """Slopes and knees, or points."""
        return describe(self, unit, one)

    @property
    def has_limit(self) -> bool:
        """Whether stresses below the last point do no damage."""
        return self.below == NO_DAMAGE

    @property
    def powers(self) -> bool:
        """Whether all of it is power laws, held lives and stresses without damage: what quick loops know."""
        return self.curved is None and self.segments.powers

    @property
    def limit(self) -> float:
        """Stress of the last point, MPa, in the curve's own terms, or where a formula ends: the fatigue limit if it has one."""
        if self.curved is not None and self.curved.limit > 0.0:
            lowest = np.array([self.curved.limit])
            return float((lowest if self.conversion is None else self.conversion.from_tested(lowest))[0])
        return float(self.point_stresses[-1])

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What is to be said about the curve wherever it is used."""
        return (*self.remarks, *looks(self))

    @opened(amplitude=many("stress", only_units=True))
    def from_amplitude(self, amplitude: ArrayLike) -> FloatArray:
        """An amplitude in the curve's own terms: doubled where the curve is in ranges."""
        return np.asarray(amplitude, dtype=np.float64) * (2.0 if self.stress == "range" else 1.0)

    @property
    def at_r(self) -> str:
        """The R of the curve in words: 'R = -1', 'any R' or 'mean 100 MPa'."""
        if self.r_ratio == FIXED_MEAN:
            return f"mean {number(self.mean_stress or 0.0)} MPa"
        return "any R" if self.r_ratio == ANY_R else f"R = {self.r_ratio:g}"

    @property
    def shape(self) -> str:
        """The lines of the curve in words: slopes and knees, or points, and what holds beyond the ends."""
        return describe(self)

    @property
    def heading(self) -> str:
        """What a column of its stresses is called: name, range or amplitude, R."""
        return f"{self.name}: stress {self.stress}, {self.at_r}"

    def to_frame(self) -> Any:
        """Stresses at the decades of life and at the points of the curve, units in the headings."""
        import pandas as pd

        lives = chosen_lives(self)
        return pd.DataFrame({"life [cycles]": lives, f"{self.heading} [MPa]": self.stress_at(lives)})

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        shear = "shear " if self.component == "shear" else ""
        return f"<SNCurve {self.name}: {shear}stress {self.stress}, {self.at_r}, {self.shape}>"


def _first_bad(good: Any) -> int:
    """The place of the first that is not, or -1."""
    bad = np.flatnonzero(~good)
    return int(bad[0]) if bad.size else -1


@opened()
def describe(curve: SNCurve, unit: str = "MPa", one: float = 1.0) -> str:
    """The lines of a curve in words, with its stresses times `one` in `unit`."""
    places = [
        f"{number(stress * one)} {unit} at {number(life)} cycles"
        for stress, life in zip(curve.point_stresses, curve.point_lives, strict=True)
    ]
    if curve.curved is not None:
        return f"{curve.curved.words}, {places[0]} to {places[-1]}"
    if curve.conversion is not None:
        return f"{curve.conversion.words}, {places[0]}" + (f" to {places[-1]}" if len(places) > 1 else "")
    if curve.interpolation == "log-log" and curve.above != "hold":
        slopes = [float(rate) for rate in curve.segments.rate]
        knees = [i for i in range(len(places)) if not math.isclose(slopes[i], slopes[i + 1], rel_tol=1e-9)]
        if not knees:
            return f"m = {number(slopes[0])} through {places[-1]}"
        if len(knees) <= MOST_KNEES:
            parts = [f"m = {number(slopes[i])} to {places[i]}" for i in knees]
            below = {"no damage": "no damage below", "hold": "life held below"}.get(str(curve.below))
            return ", ".join([*parts, below or f"m = {number(slopes[-1])} below"])
    ends = [
        {"hold": f"life held {side}", "extend": f"extended {side}", "no damage": "no damage below"}.get(str(choice))
        or f"m = {number(float(choice))} {side}"
        for choice, side in ((curve.above, "above"), (curve.below, "below"))
    ]
    return f"{len(places)} points from {places[0]} to {places[-1]}, {curve.interpolation}, {', '.join(ends)}"


@opened()
def chosen_lives(curve: SNCurve) -> list[float]:
    """The decades from 1e3 to 1e8 cycles and the lives of the points, where they are few: what a table of the curve shows."""
    decades = 10.0 ** np.arange(3, 9)
    points = curve.point_lives if curve.point_lives.size <= FEW_POINTS else curve.point_lives[[0, -1]]
    return sorted({float(number(life, 6)) for life in (*decades, *points)})
