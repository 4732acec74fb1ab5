"""A family of S-N curves, tested at several R or at several mean stresses, and interpolation between them.

In: amplitude and mean of a cycle, MPa. Out: life, cycles. Method: constant-life lines, straight between the tested ones in
the plane of amplitude over mean (the diagram of Haigh, B. P. 1917, J. Inst. Metals 18, 55-86). On the ray of a load whose
mean is u times its amplitude, the line between two tested rays gives 1 / S_a linear in u.
"""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar, Literal

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, field_of, inside, listed
from vivid_anvil.materials.curves.convert import in_terms_of
from vivid_anvil.materials.curves.curve import ANY_R, FIXED_MEAN, Conversion, Curve, SNCurve
from vivid_anvil.materials.curves.working import stress_step
from vivid_anvil.units import STRESS, UnitSystem, display_unit, many, number, one, opened, shown, sound
from vivid_anvil.writing.working import Step, put_in

BEYOND = {
    "refuse": "a cycle beyond the tested range is an error",
    "hold": "the amplitude of the outermost curve holds (unsafe at the side of higher means)",
}
_HALVINGS = 200


@sound
@dataclass(frozen=True, kw_only=True, repr=False)
class SNFamily(Curve):
    """S-N curves of one material or detail at two or more R (or fixed means), and what holds beyond them.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    curves : tuple of SNCurve
        Curves at rising R or means.
    beyond_lowest : {'refuse', 'hold'}, default "refuse"
        What holds beyond the lowest R or mean: one of `BEYOND`.
    beyond_highest : {'refuse', 'hold'}, default "refuse"
        What holds beyond the highest R or mean: one of `BEYOND`.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> curves = [
    ...     straight_curve(name=f"R {r}", stress="amplitude", r_ratio=r, point_stress=s, point_life=1e6, slope=8)
    ...     for r, s in ((-1, 200.0), (0, 150.0))
    ... ]
    >>> family = SNFamily(name="coupons", curves=curves)
    >>> family.life([200.0, 171.428571], [0.0, 85.714286]).round(-2)  # R = -1, and halfway in mean / amplitude
    array([1000000., 1000000.])
    """

    name: str
    curves: tuple[SNCurve, ...]
    beyond_lowest: Literal["refuse", "hold"] = "refuse"
    beyond_highest: Literal["refuse", "hold"] = "refuse"
    source: str = "not stated"

    def __post_init__(self) -> None:
        where = f"S-N family {self.name}"
        checks.text(field_of("SNFamily", "name"), self.name)
        for end in ("beyond_lowest", "beyond_highest"):
            checks.one_of(inside(where, f"{end}"), getattr(self, end), tuple(BEYOND))
        curves = tuple(in_terms_of(curve, "amplitude") for curve in self.curves)
        if len(curves) < 2:
            raise InputError(inside(where, "curves"), f"{len(curves)} curve", "at least two, at different R or means")
        by_mean = [curve.r_ratio == FIXED_MEAN for curve in curves]
        if any(curve.r_ratio == ANY_R for curve in curves) or (any(by_mean) and not all(by_mean)):
            found = listed(dict.fromkeys(curve.at_r for curve in curves))
            raise InputError(inside(where, "curves"), f"curves for {found}", "all at an R, or all at a mean stress")
        self._same(curves, where)
        ordered = sorted(curves, key=self._place)
        for first, second in itertools.pairwise(ordered):
            if self._place(first) == self._place(second):
                raise InputError(inside(where, "curves"), f"two curves at {first.at_r}", "one for each R or mean")
        object.__setattr__(self, "curves", tuple(ordered))

    @staticmethod
    def _same(curves: tuple[SNCurve, ...], where: str) -> None:
        for field in ("survival_probability", "component"):
            values = dict.fromkeys(getattr(curve, field) for curve in curves)
            if len(values) > 1:
                raise InputError(
                    inside(where, "curves"),
                    f"{field} of {', '.join(map(str, values))}",
                    "the same for all",
                    "Convert them first.",
                )

    @cached_property
    def places(self) -> FloatArray:
        """Mean over amplitude of each curve's ray, or its mean stress, MPa; rising."""
        return np.array([self._place(curve) for curve in self.curves])

    @property
    def by_mean(self) -> bool:
        """Whether the curves were tested at fixed means, not at fixed R."""
        return self.curves[0].r_ratio == FIXED_MEAN

    @staticmethod
    def _place(curve: SNCurve) -> float:
        """Mean over amplitude of the curve's ray, or its mean stress, MPa."""
        if curve.r_ratio == FIXED_MEAN:
            return float(curve.mean_stress or 0.0)
        return mean_over_amplitude(float(curve.r_ratio))

    @opened(amplitude=many("stress", at_least=0.0, only_units=True), mean=many("stress", only_units=True))
    def life(self, amplitude: ArrayLike, mean: ArrayLike) -> FloatArray:
        """Life, cycles, of cycles with `amplitude` and `mean`, MPa, broadcast; inf where no curve has damage.

        Raises InputError for a cycle beyond the tested range, unless that end holds.
        """
        sizes, means = np.broadcast_arrays(np.asarray(amplitude, dtype=np.float64), np.asarray(mean, dtype=np.float64))
        shape, sizes, means = sizes.shape, sizes.reshape(-1), means.reshape(-1)
        found = np.full(sizes.size, np.inf)
        for i, share, rows in self._between(sizes, means):
            found[rows] = self._life_between(i, share, sizes[rows])
        return found.reshape(shape)

    @property
    def reference(self) -> SNCurve:
        """The curve to which cycles are brought for figures and sums: that at R = -1, or the first."""
        return next((curve for curve in self.curves if curve.r_ratio == -1.0), self.curves[0])

    @opened(amplitude=many("stress", at_least=0.0, only_units=True), mean=many("stress", only_units=True))
    def at_reference(self, amplitude: ArrayLike, mean: ArrayLike) -> FloatArray:
        """Amplitudes, MPa, on the reference curve that last as long as cycles of `amplitude` and `mean`, MPa, shape (n,).

        Cycles without damage stay in proportion to the limit of their constant-life line.
        """
        sizes, means = np.broadcast_arrays(np.asarray(amplitude, dtype=np.float64), np.asarray(mean, dtype=np.float64))
        lives = self.life(sizes, means)
        endless = np.isinf(lives)
        longest = max(curve.point_lives[-1] for curve in self.curves)
        found = np.array(self.reference.stress_at(np.where(endless, longest, lives)))
        for i, share, rows in self._between(sizes, means):
            harmless = rows[endless[rows]]
            limits = self._amplitude(i, share[endless[rows]], np.full(harmless.size, longest))
            found[harmless] = self.reference.limit * np.minimum(sizes[harmless] / limits, np.nextafter(1.0, 0.0))
        return np.where(sizes == 0.0, 0.0, found)

    mean_counts: ClassVar[bool] = True

    @property
    def has_means(self) -> str:
        """Its curves say what a mean does."""
        return "a family of curves"

    def equivalent(self, amplitude: FloatArray, mean: FloatArray) -> FloatArray:
        """Amplitudes on the reference curve."""
        return self.at_reference(amplitude, mean)

    def equivalent_steps(self, amplitude: float, mean: float, units: UnitSystem) -> tuple[Step, ...]:
        """By the constant-life line of the life found."""
        return family_steps(self, amplitude, mean, units)

    @property
    def told(self) -> tuple[str, str]:
        """A family, in amplitudes."""
        return "family", "amplitude"

    def lines_in(self, unit: str, one: float) -> str:
        """How many curves, at which R or means."""
        return f"{len(self.curves)} curves: {', '.join(member.at_r for member in self.curves)}"

    def _between(self, sizes: FloatArray, means: FloatArray) -> list[tuple[int, FloatArray, IntArray]]:
        """For each pair of neighbouring curves: which cycles lie there, and how far from the first to the second."""
        live = np.asarray(np.flatnonzero(sizes != 0.0))
        places = self.places
        at = means[live] if self.by_mean else means[live] / sizes[live]
        self._refuse_beyond(at, live, sizes, means, places)
        at = np.clip(at, places[0], places[-1])
        pair = np.clip(np.searchsorted(places, at, side="right") - 1, 0, places.size - 2)
        share = (at - places[pair]) / (places[pair + 1] - places[pair])
        return [(i, share[pair == i], live[pair == i]) for i in range(places.size - 1) if (pair == i).any()]

    def _refuse_beyond(
        self, at: FloatArray, live: IntArray, sizes: FloatArray, means: FloatArray, places: FloatArray
    ) -> None:
        slack = 1e-9 * max(1.0, float(np.abs(places).max()))
        below = (at < places[0] - slack) & (self.beyond_lowest == "refuse")
        above = (at > places[-1] + slack) & (self.beyond_highest == "refuse")
        bad = np.flatnonzero(below | above)
        if not bad.size:
            return
        cycle = live[bad[0]]
        size, mean = float(sizes[cycle]), float(means[cycle])
        r = (mean - size) / (mean + size) if mean + size else -math.inf
        raise InputError(
            f"S-N family {self.name}, cycle {cycle}",
            f"an amplitude of {number(size)} MPa at a mean of {number(mean)} MPa (R = {number(r, 3)})",
            f"a cycle between the curves at {self.curves[0].at_r} and {self.curves[-1].at_r}",
            f"{bad.size} of {sizes.size} cycles lie outside: add a curve there, or state beyond_lowest or beyond_highest "
            '= "hold".',
        )

    def _life_between(self, i: int, share: FloatArray, sizes: FloatArray) -> FloatArray:
        """Life of amplitudes that lie `share` of the way from curve i to the next, by halving in log N."""
        first, second = self.curves[i], self.curves[i + 1]
        lives = np.stack([first.life(sizes), second.life(sizes)])
        low, high = lives.min(axis=0), lives.max(axis=0)
        endless = np.isinf(high)
        level = max(first.point_lives[-1], second.point_lives[-1])
        high = np.where(endless, np.maximum(level, low), high)
        found = np.full(sizes.size, np.inf)
        safe = np.isinf(low) | (endless & ~(self._amplitude(i, share, high) < sizes))
        rows = np.flatnonzero(~safe)
        low, high = np.log(low[rows]), np.log(high[rows])
        for _ in range(_HALVINGS):
            middle = 0.5 * (low + high)
            too_long = self._amplitude(i, share[rows], np.exp(middle)) < sizes[rows]
            done = (middle == low) | (middle == high)
            low, high = np.where(too_long, low, middle), np.where(too_long, middle, high)
            if done.all():
                break
        found[rows] = np.exp(0.5 * (low + high))
        return found

    def _amplitude(self, i: int, share: FloatArray | float, life: FloatArray) -> FloatArray:
        """Amplitude at `life` on the constant-life line between curve i and the next, `share` of the way."""
        first, second = self.curves[i].stress_at(life), self.curves[i + 1].stress_at(life)
        if self.by_mean:
            return (1.0 - share) * first + share * second
        with np.errstate(divide="ignore", invalid="ignore"):
            return 1.0 / ((1.0 - share) / first + share / second)

    @opened(life=many(above=0.0, may_be_infinite=True), at=one("stress"))
    def amplitude_at(self, life: ArrayLike, at: float) -> FloatArray:
        """Amplitude, MPa, that lasts `life`, cycles, at an R (or, in a family by mean, at a mean stress, MPa).

        >>> from vivid_anvil.materials.curves.forms import straight_curve
        >>> curves = [
        ...     straight_curve(name=f"R {r}", stress="amplitude", r_ratio=r, point_stress=s, point_life=1e6, slope=8)
        ...     for r, s in ((-1, 200.0), (0, 150.0))
        ... ]
        >>> family = SNFamily(name="coupons", curves=curves)
        >>> float(family.amplitude_at(1e6, -1 / 3)).__round__(3)  # mean = half of the amplitude
        171.429
        """
        place = at if self.by_mean else mean_over_amplitude(at)
        cycle = (1.0, place)  # amplitude 1 on that ray; by mean the amplitude does not matter
        ((i, share, _),) = self._between(np.array([cycle[0]]), np.array([cycle[1]]))
        return self._amplitude(i, float(share[0]), np.asarray(life, dtype=np.float64))

    @opened(r_ratio=one(below=1.0))
    def curve_at(self, r_ratio: float) -> SNCurve:
        """The S-N curve of the family at another R, in amplitudes; exact, not fitted."""
        mean_over_amplitude(r_ratio)  # refuses what is no R
        reference = self.curves[0]
        if self.by_mean:
            raise InputError(f"S-N family {self.name}", "a family by mean stress", "a family by R", "Use its life.")
        return SNCurve(
            name=f"{self.name} at R = {r_ratio:g}",
            stress="amplitude",
            r_ratio=r_ratio,
            points=reference.points,
            above=reference.above,
            below=reference.below,
            interpolation=reference.interpolation,
            tested_from=reference.tested_from,
            tested_to=reference.tested_to,
            survival_probability=reference.survival_probability,
            component=reference.component,
            basis=reference.basis,
            source=f"interpolated in the family {self.name}",
            conversion=Interpolated(self, float(r_ratio)),
        )

    @opened(life=one(above=0.0))
    def constant_life(self, life: float) -> tuple[FloatArray, FloatArray]:
        """Means and amplitudes, MPa, of the corners of the constant-life line of `life`, cycles."""
        amplitudes = np.array([float(curve.stress_at(life)) for curve in self.curves])
        return (self.places if self.by_mean else self.places * amplitudes), amplitudes

    def __repr__(self) -> str:
        curves = ", ".join(curve.at_r for curve in self.curves)
        return f"<SNFamily {self.name}: {len(self.curves)} curves at {curves}>"


@dataclass(frozen=True)
class Interpolated(Conversion):
    """Amplitudes at `r_ratio` as those of the first curve of a family that last as long."""

    family: SNFamily
    r_ratio: float

    @property
    def words(self) -> str:
        """What was done."""
        return "interpolated between constant-life lines"

    def to_tested(self, stress: FloatArray) -> FloatArray:
        """By the life on the ray of this R."""
        reference = self.family.curves[0]
        lives = self.family.life(stress, mean_over_amplitude(self.r_ratio) * np.asarray(stress))
        same = reference.stress_at(np.where(np.isinf(lives), reference.point_lives[-1], lives))
        return np.where(np.isinf(lives), np.nextafter(same, 0.0), same)

    def from_tested(self, stress: FloatArray) -> FloatArray:
        """The other way round."""
        return self.family.amplitude_at(self.family.curves[0].life(stress), self.r_ratio)


@opened()
def mean_over_amplitude(r_ratio: float) -> float:
    """Mean / amplitude of cycles of `r_ratio` below 1: (1 + R) / (1 - R)."""
    ratio = checks.real_number("r_ratio", r_ratio)
    if not -math.inf < ratio < 1.0:
        raise InputError("r_ratio", f"{ratio:g}", "minimum / maximum below 1")
    return (1.0 + ratio) / (1.0 - ratio)


@opened(amplitude=one("stress", at_least=0.0), mean=STRESS)
def family_steps(family: SNFamily, amplitude: float, mean: float, system: UnitSystem = "metric") -> tuple[Step, ...]:
    """That the constant-life line of the life found passes through the cycle, as steps to redo by hand."""
    life = float(family.life(amplitude, mean))
    unit = display_unit("stress", system)
    size, middle = (float(shown(value, "stress", system)) for value in (amplitude, mean))
    place = mean if family.by_mean else mean / amplitude
    at = float(np.clip(place, family.places[0], family.places[-1]))
    i = int(np.clip(np.searchsorted(family.places, at, side="right") - 1, 0, family.places.size - 2))
    low, high = (float(value) for value in family.places[i : i + 2])
    first: tuple[Step, ...] = ()
    if family.by_mean:
        at, low, high = (float(shown(value, "stress", system)) for value in (at, low, high))
    else:
        held = "; the outermost curve is held" if at != place else ""
        numbers = f"{put_in(middle)} {unit} / {put_in(size)} {unit}" if not held else put_in(at)
        first = (Step(f"Place between the curves: mean over amplitude{held}", "u = S_m / S_a", numbers, at, ""),)
    share = (at - low) / (high - low)
    symbol = "S_m" if family.by_mean else "u"
    where = Step(
        f"Share of the way from the curve at {family.curves[i].at_r} to that at {family.curves[i + 1].at_r}",
        f"w = ({symbol} - {symbol}_1) / ({symbol}_2 - {symbol}_1)",
        f"({put_in(at)} - {put_in(low)}) / ({put_in(high)} - {put_in(low)})",
        share,
        "",
    )
    ends = tuple(stress_step(family.curves[i + j], life, f"S_{j + 1}", system) for j in (0, 1))
    first_stress, second_stress = (put_in(end.value) for end in ends)
    w = put_in(share)
    formula, numbers = (
        ("S_a = (1 - w) × S_1 + w × S_2", f"(1 - {w}) × {first_stress} {unit} + {w} × {second_stress} {unit}")
        if family.by_mean
        else (
            "S_a = 1 / ((1 - w) / S_1 + w / S_2)",
            f"1 / ((1 - {w}) / {first_stress} {unit} + {w} / {second_stress} {unit})",
        )
    )
    title = f"The constant-life line of {number(life, 7)} cycles, found by halving, passes through the cycle"
    return (*first, where, *ends, Step(title, formula, numbers, size, unit, "Haigh 1917, straight between the curves"))
