"""A weld under a stress across it and a shear along it: each has its class, and their damages act together.

In: stresses of six components in the axes of the weld. EN 1993-1-9, 8 and A.5, sums both damages; what the IIW compares, with a
limit that falls where both do not move in step, stands beside it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.damage.methods.critical_plane_steps import component_steps
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials import SNCurve, curve_record, life_steps
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress import METHODS, HotSpot, Method
from vivid_anvil.stress.planes.deviator import deviator, off_line
from vivid_anvil.stress.planes.plane_cycles import TensorEvent, counted, only_alone, placed, tensor_events
from vivid_anvil.units import UnitSystem, display_unit, number, shown
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column
from vivid_anvil.writing.working import Step, put_in

SHEAR = "shear"  # column: 1 of a cycle of the shear, 0 of one of the normal stress
NORMAL_POWER, SHEAR_POWER = (
    2.0 / 3.0,
    2.0 / 5.0,
)  # squares of stresses over strengths are damages to these, by the slopes
IN_STEP, NOT_IN_STEP = 1.0, 0.5  # what the comparison may come to
OFF = 0.1  # off the line, from which on both do not move in step
SOURCE = "EN 1993-1-9, 8 and A.5"


class Both(NamedTuple):
    """Damage a repeat of the normal stress and of the shear, the limit of the comparison, and the repeats at which it is met."""

    normal: float
    shear: float
    limit: float
    repeats: float


@METHODS.add("weld of two stresses")
@dataclass(frozen=True, kw_only=True, eq=False)
class WeldOfTwo(Method):
    """A class for the stress across the weld, one for the shear along it, and the sum of both damages.

    Parameters
    ----------
    sn_curve : SNCurve
        Of the stress across the weld, of any R.
    shear_curve : SNCurve
        Of the shear along it, whose `component` is "shear".
    normal : str, default "xx"
        The component that acts across the weld.
    shear : str, default "xy"
        The one that acts along it.
    critical_sum : float, default 1.0
        Damage sum at which a place counts as failed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> toe, root = detail_curve("EN 1993-1-9", 80), detail_curve("EN 1993-1-9", 80, component="shear")
    >>> WeldOfTwo(sn_curve=toe, shear_curve=root).words
    'S-N curves EN 1993-1-9, 80 on xx and EN 1993-1-9, 80 shear on xy, damages summed'
    """

    sn_curve: SNCurve
    shear_curve: SNCurve
    normal: str = "xx"
    shear: str = "xy"
    critical_sum: float = 1.0
    tensors = True
    hangs = True

    def __post_init__(self) -> None:
        where = "weld of two stresses"
        for key, component in (("sn_curve", "normal"), ("shear_curve", "shear")):
            curve = getattr(self, key)
            if not isinstance(curve, SNCurve):
                raise InputError(inside(where, key), repr(curve), "one S-N curve; a family has no place here")
            if curve.component != component:
                raise InputError(
                    inside(where, key),
                    f"the curve {curve.name!r} for {curve.component} stress",
                    f"a curve for {component} stress",
                    "Are the two exchanged?",
                )
            if curve.r_ratio != "any":
                raise InputError(
                    inside(where, key), f"the curve {curve.name!r} at {curve.at_r}", "one for any R, as of welds"
                )
        for key, choices in (("normal", COMPONENTS[:3]), ("shear", COMPONENTS[3:])):
            checks.one_of(inside(where, key), getattr(self, key), choices)
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")

    @property
    def curve(self) -> SNCurve:  # type: ignore[override]
        """That of the normal stress."""
        return self.sn_curve

    @property
    def reference(self) -> SNCurve:  # type: ignore[override]
        """The same."""
        return self.sn_curve

    def check(self, spot: HotSpot) -> None:
        """InputError for a place without six components."""
        if spot.relation is not None:
            placed(spot.relation)

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        only_alone(duty_cycle)

    def _course(self, event: TensorEvent, name: str) -> FloatArray:
        return np.ascontiguousarray(event.stress[:, COMPONENTS.index(name)])

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """Cycles of both components; the column `SHEAR` says of which each is."""
        self.goes_with(duty_cycle)
        sources = []
        for event in tensor_events(spot.fed, duty_cycle, spot.notch_factor):
            both = [
                counted(event, course, course)
                for course in (self._course(event, one) for one in (self.normal, self.shear))
            ]
            ranges = np.concatenate([one.ranges for one in both])
            often = np.concatenate([one.per_repeat for one in both])
            table = Cycles(
                range=ranges,
                mean=np.concatenate([one.normals for one in both]) - 0.5 * ranges,
                count=often / event.often if event.often else often,
                start=np.concatenate([one.start for one in both]),
                end=np.concatenate([one.end for one in both]),
                sample_rate=event.sample_rate,
                columns={SHEAR: np.repeat([0.0, 1.0], [one.ranges.size for one in both])},
            )
            sources.append(Source(event.name, event.often, table, event.history))
        return of_a_repeat(sources, spot.extremes(duty_cycle))

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Each cycle as stress of the curve for normal stress; of shear the one of the same life, MPa."""
        found = np.asarray(self.sn_curve.from_amplitude(0.5 * cycles.range), dtype=np.float64).copy()
        sheared = cycles.columns[SHEAR] > 0.5
        if sheared.any():
            lives = np.asarray(self.shear_curve.life(self.shear_curve.from_amplitude(0.5 * cycles.range[sheared])))
            finite = np.isfinite(lives)
            own = np.zeros(lives.size)
            own[finite] = self.sn_curve.stress_at(lives[finite]) if finite.any() else 0.0
            found[sheared] = own
        return found

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each."""
        with np.errstate(divide="ignore"):
            return np.asarray(per_repeat / self.sn_curve.life(terms))

    def both(self, life: Any) -> Both:
        """The two damages apart, and the comparison of the IIW: (Δσ/Δσ_R)² + (Δτ/Δτ_R)² of equivalent constant ranges."""
        sheared = life.spectrum.cycles.columns[SHEAR] > 0.5
        normal, shear = (float(life.damage[rows].sum()) for rows in (~sheared, sheared))
        limit = IN_STEP if self._off(life) <= OFF else NOT_IN_STEP
        return Both(normal, shear, limit, _repeats(normal / self.critical_sum, shear / self.critical_sum, limit))

    def _off(self, life: Any) -> float:
        """How far both leave a line."""
        found = 0.0
        for event in tensor_events(life.hot_spot.fed, life.duty_cycle, life.hot_spot.notch_factor):
            two = np.zeros_like(event.stress)
            for name in (self.normal, self.shear):
                two[:, COMPONENTS.index(name)] = self._course(event, name)
            path = deviator(two)
            found = max(
                found, float(off_line(np.asarray(np.linalg.svd(path - path.mean(axis=0), compute_uv=False))[None])[0])
            )
        return found

    def terms_in_words(self, spot: HotSpot) -> str:
        """What its terms are."""
        return f"normal stress {self.sn_curve.stress} of equal life"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """How the curves came to be."""
        return [*self.sn_curve.steps, *self.shear_curve.steps]

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """Of a cycle of the normal stress."""
        return [*life_steps(self.sn_curve, float(self.sn_curve.from_amplitude(size)), units)]

    def steps_of(self, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
        """From the range to the life on the curve of its component."""
        curve = self.shear_curve if cycles.columns[SHEAR][row] > 0.5 else self.sn_curve
        stress = float(curve.from_amplitude(0.5 * float(cycles.range[row])))
        return list(life_steps(curve, stress, units))

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step]:
        """Components at both ends, and the range of the one that is counted."""
        cycles = life.spectrum.cycles
        number = int(cycles.event[row])
        event = tensor_events(life.hot_spot.fed, life.duty_cycle, life.hot_spot.notch_factor)[number]
        own, _ = life.duty_cycle.flat()[number]
        name = self.shear if cycles.columns[SHEAR][row] > 0.5 else self.normal
        course = self._course(event, name)
        if cycles.start[row] >= 0:
            ends = [int(cycles.start[row]), int(cycles.end[row])]
        else:
            at = row - int(np.flatnonzero(cycles.event == number)[0])
            at -= course.size // 2 if name == self.shear else 0
            ends = [2 * at, 2 * at + 1]
        ends.sort(key=lambda i: -float(course[i]))
        unit, steps, values = display_unit("stress", units), [], []
        for label, sample in (("max", ends[0]), ("min", ends[1])):
            steps += component_steps(life.hot_spot, own, sample, units, f"At the cycle's {label}imum")
            values.append(float(shown(float(course[sample]), "stress", units)))
        symbol = "τ" if name == self.shear else "σ"
        numbers = f"{put_in(values[0])} {unit} - {put_in(values[1])} {unit}"
        title = f"Range of the {'shear along' if name == self.shear else 'stress across'} the weld, component {name}"
        steps.append(Step(title, f"Δ{symbol} = {symbol}_max - {symbol}_min", numbers, values[0] - values[1], unit))
        return steps

    def findings(self, life: Any) -> Iterator[Finding]:
        """Where the comparison of the IIW is the shorter one, and components that no class looks at."""
        yield from self.sn_curve.findings
        yield from self.shear_curve.findings
        both = self.both(life)
        if both.limit == NOT_IN_STEP and both.normal > 0.0 and both.shear > 0.0:
            ratio = life.life_repeats / both.repeats
            if ratio > 1.0:
                yield Finding(
                    "warning",
                    "weld-not-in-step",
                    f"Normal stress and shear do not move in step; the IIW then allows half ({NOT_IN_STEP:g}), which gives "
                    f"{number(1.0 / ratio, 3)} of this life.",
                    "Take the shorter one, where that recommendation holds.",
                )
        events = tensor_events(life.hot_spot.fed, life.duty_cycle, life.hot_spot.notch_factor)
        spans = np.max([np.ptp(event.stress, axis=0) for event in events], axis=0)
        used = [COMPONENTS.index(self.normal), COMPONENTS.index(self.shear)]
        others = [i for i in range(6) if i not in used and spans[i] > 0.3 * spans[used].max()]
        if others:
            names = ", ".join(COMPONENTS[i] for i in others)
            yield Finding(
                "note",
                "component-left-out",
                f"Of the components {names} no class looks at: they vary by more than 30 % of what is counted.",
                "Along the weld another class may hold; give that place a hot spot of its own.",
            )

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """Both damages, and the life by the comparison."""
        both = self.both(life)
        words = [
            (
                "Weld",
                f"damage of {self.normal} {number(both.normal, 4)}, of {self.shear} {number(both.shear, 4)} a repeat, summed",
            )
        ]
        if math.isfinite(both.repeats):
            told = life.duty_cycle.calendar.in_all_units(both.repeats, life.duty_cycle.hours)
            words.append(("IIW", f"by the sum of squares to {both.limit:g}: {told}"))
        return tuple(words)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curves, and the life by the comparison."""
        methods = [life.method if isinstance(life.method, WeldOfTwo) else None for life in lives]
        other = [None if one is None else one.both(life).repeats for one, life in zip(methods, lives, strict=True)]
        return (
            Column("curve", [None if one is None else one.sn_curve.name for one in methods], only="file"),
            Column("shear curve", [None if one is None else one.shear_curve.name for one in methods], only="file"),
            Column("life by the sum of squares [repeats]", other, only="file"),
        )

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """Both curves."""
        return {"S-N curve": curve_record(self.sn_curve), "shear curve": curve_record(self.shear_curve)}

    @property
    def words(self) -> str:
        """Both curves."""
        return f"S-N curves {self.sn_curve.name} on {self.normal} and {self.shear_curve.name} on {self.shear}, damages summed"


def _repeats(normal: float, shear: float, limit: float) -> float:
    """Repeats at which D_σ^(2/3) + D_τ^(2/5) comes to the limit; inf without damage, 0 where one fails at once."""
    if normal <= 0.0 and shear <= 0.0:
        return math.inf
    if math.isinf(normal) or math.isinf(shear):
        return 0.0

    def excess(log_repeats: float) -> float:
        repeats = math.exp(log_repeats)
        return math.log(((repeats * normal) ** NORMAL_POWER + (repeats * shear) ** SHEAR_POWER) / limit)

    middle = -math.log(max(normal, shear))
    return math.exp(float(brentq(excess, middle - 20.0, middle + 20.0, xtol=1e-13)))
