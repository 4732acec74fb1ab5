"""What there is to see of a random process before any life: rms, moments, rates, all formulas side by side, bands that matter.

The damage of each formula is Σ n S^m for a stated slope, or that of a hot spot under its curve.
"""

from __future__ import annotations

import dataclasses
import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any, Self

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.spectra import EXPECTED_CYCLES, SpectralDensity, StatedMoments, expected_ranges
from vivid_anvil.spectra.largest import Largest
from vivid_anvil.spectra.range_density import RangeDensity
from vivid_anvil.spectra.synthesis import counted_synthesis, standard_error, synthesized
from vivid_anvil.units import UnitSystem, coherent, display_unit, in_unit, lasting, number, opened, shown
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

USUAL = "dirlik"
ORDERS = (0.0, 0.75, 1.0, 1.5, 2.0, 4.0)
MOST_BANDS, PER_OCTAVE = 24, 3
SHOWN = 0.002  # share from which a band stands on a page
SPREAD = 1.5  # largest over smallest damage of the formulas that give ranges
DamageOf = Callable[[Cycles], float]


@dataclass(frozen=True)
class FormulaDamage:
    """What a formula says: ranges a second, and their damage a second; a relative error where cycles were counted."""

    formula: str
    rate: float
    damage: float
    error: float | None = None


@dataclass(frozen=True, eq=False, repr=False)
class VibrationView(Result):
    """A random process, looked at; `look_at_vibration` makes one.

    Parameters
    ----------
    name : str
        What vibrates.
    process : SpectralDensity
        Its PSD.
    slope : float
        Slope m that damage is compared with.
    formulas : tuple of FormulaDamage
        All formulas.
    edges : ndarray, shape (n + 1,)
        Of bands, Hz.
    mean_square : ndarray, shape (n,)
        Share of each band in the mean square.
    left_out : ndarray, shape (n,)
        By how much the damage falls, relative, where the band is left out.
    exposure : float, optional
        How long, s.
    life : bool, default False
        Whether damage is that of a hot spot under its curve, and not Σ n S^m.
    counted : Cycles, optional
        Of a synthesis, about a mean of 0, for `counted_time`, s.
    findings : tuple of Finding
        What an expert would say.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> from vivid_anvil.spectra import PSD
    >>> look_at_vibration(PSD([10.0, 40.0, 200.0], [4.0, 40.0, 0.5], dimension="stress"), name="rope")
    <VibrationView rope: rms 38.17 MPa, 62.77 upcrossings a second>
    """

    name: str
    process: SpectralDensity
    slope: float
    formulas: tuple[FormulaDamage, ...]
    edges: FloatArray
    mean_square: FloatArray
    left_out: FloatArray
    exposure: float | None = None
    life: bool = False
    counted: Cycles | None = None
    counted_time: float = math.nan
    findings: tuple[Finding, ...] = field(default=())

    @property
    def title(self) -> str:
        """What vibrates."""
        return self.name

    @property
    def spread(self) -> float:
        """Largest over smallest damage of all formulas."""
        found = [one.damage for one in self.formulas if one.error is None and one.damage > 0.0]
        return max(found) / min(found) if found else 1.0

    def ranges(self, formula: str) -> RangeDensity:
        """Expected ranges a second by a formula."""
        slope = self.slope if EXPECTED_CYCLES[formula].one_slope else None
        return expected_ranges(self.process, formula, slope=slope)

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a process."""
        kind = results[0].process.dimension
        rows = [one.process for one in results]
        return Table(
            "Vibration",
            (
                Column("vibration", [one.name for one in results]),
                Column("root mean square", [one.rms for one in rows], of=kind),
                Column("upcrossings a second", [one.upcrossing_rate for one in rows], of="frequency"),
                Column("peaks a second", [one.peak_rate for one in rows], of="frequency"),
                Column("irregularity", [one.irregularity for one in rows]),
                Column("lowest frequency", [one.band[0] for one in rows], of="frequency"),
                Column("highest frequency", [one.band[1] for one in rows], of="frequency"),
                Column("spread of formulas", [one.spread for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """Band, rms, rates, bandwidth, the largest value expected."""
        own, kind = self.process, self.process.dimension
        low, high = own.band
        square, unit = float(shown(1.0, kind, units)) ** 2, display_unit(kind, units)
        moments = ", ".join(f"m{n:g} = {number(square * own.moment(n), 6)}" for n in (0.0, 1.0, 2.0, 4.0))
        found = [
            ("Band", f"{number(low)} to {number(high)} Hz"),
            ("Root mean square", in_unit(own.rms, kind, units)),
            ("Rates", f"{number(own.upcrossing_rate)} upcrossings and {number(own.peak_rate)} peaks a second"),
            ("Irregularity", f"{own.irregularity:.4f} (1: narrow band), bandwidth ε {own.bandwidth:.4f}"),
            ("Moments", f"{moments} (({unit})² Hz^n)"),
        ]
        if self.exposure is not None:
            largest = Largest(max(own.upcrossing_rate * self.exposure, math.e))
            level = in_unit(largest.expected * own.rms, kind, units)
            found.append((f"Largest in {lasting(self.exposure)}", f"{level}, {largest.expected:.2f} rms (expected)"))
        return tuple(found)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Formulas side by side, and the bands."""
        base = next((one.damage for one in self.formulas if one.formula == USUAL), 0.0)
        damage = "damage a second" if self.life else f"Σ S^{self.slope:g} a second"
        lives = [Column("life", [1.0 / one.damage if one.damage else math.inf for one in self.formulas], of="time")]
        lives = lives if self.life else []
        head = damage[:1].upper() + damage[1:].replace(" a", "\na")
        errors = [one.error for one in self.formulas]
        shown = [Column("standard error", errors, style="share", head="Error")] if any(errors) else []
        formulas = (
            Column("formula", [one.formula for one in self.formulas], left=True),
            Column("ranges a second", [one.rate for one in self.formulas], head="Ranges\na second"),
            Column(damage, [one.damage for one in self.formulas], style="number", head=head),
            Column(
                f"over {USUAL}",
                [one.damage / base if base else math.nan for one in self.formulas],
                head=f"Over\n{USUAL}",
            ),
            *lives,
            *shown,
        )
        matters = [i for i in range(self.mean_square.size) if max(self.mean_square[i], self.left_out[i]) >= SHOWN]
        bands = (
            Column("from", self.edges[:-1], of="frequency"),
            Column("to", self.edges[1:], of="frequency"),
            Column("mean square", self.mean_square, style="share"),
            Column("damage less without", self.left_out, style="share"),
        )
        note = "How much less damage there is where the band is left out; the shares need not sum up to 1."
        return (
            Table("Expected cycles", formulas, key="formulas"),
            Table("Bands", bands, key="bands", note=note, kept=matters),
        )

    def __repr__(self) -> str:
        size = in_unit(self.process.rms, self.process.dimension)
        return f"<VibrationView {self.name}: rms {size}, {number(self.process.upcrossing_rate)} upcrossings a second>"


@opened()
def look_at_vibration(
    process: SpectralDensity,
    *,
    name: str = "vibration",
    slope: float = 5.0,
    exposure: float | str | None = None,
    synthesis: float | str | None = None,
    seed: int = 1,
    damage_of: DamageOf | None = None,
    findings: Sequence[Finding] = (),
) -> VibrationView:
    """Look at a random process: moments, rates, every formula for its cycles, and the bands that do the damage.

    Parameters
    ----------
    process : SpectralDensity
        A PSD.
    name : str, default "vibration"
        What it is called.
    slope : float, default 5.0
        Slope m of Σ n S^m.
    exposure : float or str, optional
        How long, s or text: for the largest value.
    synthesis : float or str, optional
        Also count a seeded history of so long, s or text.
    seed : int, default 1
        Of that history.
    damage_of : callable, optional
        Damage of cycles in the place of Σ n S^m: that of a hot spot.
    findings : sequence of Finding
        What was said before.

    Returns
    -------
    VibrationView
        What there is to see.

    Raises
    ------
    InputError
        For what is no PSD, and a slope that is not above 0.

    Examples
    --------
    >>> from vivid_anvil.spectra import PSD
    >>> rope = PSD([10.0, 40.0, 200.0], [4.0, 40.0, 0.5], dimension="stress")
    >>> view = look_at_vibration(rope, name="rope", exposure="8 h")
    >>> [one.formula for one in view.formulas][:2], round(view.spread, 2)
    (['dirlik', 'narrow band'], 1.39)
    """
    where = "vibration"
    if not isinstance(process, SpectralDensity):
        raise InputError(where, shortened(process), "a PSD")
    m = checks.positive_number("vibration, slope", slope)
    time = (
        None if exposure is None else checks.positive_number("vibration, exposure", coherent(exposure, "time", where))
    )
    if damage_of is not None:
        checks.real_number(
            "vibration, damage_of",
            damage_of(expected_ranges(process, "narrow band").cycles(1.0, dimension=process.dimension)),
            "a damage",
        )
    damage = damage_of or (lambda cycles: float(np.sum(cycles.count * cycles.range**m)))
    formulas = [_by_formula(process, formula, m, damage, closed=damage_of is None) for formula in EXPECTED_CYCLES]
    formulas.sort(key=lambda one: one.formula != USUAL)
    counted, long = None, math.nan
    if synthesis is not None:
        long = checks.positive_number("vibration, synthesis", coherent(synthesis, "time", "vibration, synthesis"))
        counted = counted_synthesis(synthesized(process, long, seed=seed), dimension=process.dimension)
        formulas.append(_counted(counted, long, m, damage))
    edges = _bands(process)
    shares = np.array([process.part(low, high) for low, high in itertools.pairwise(edges.tolist())])
    kind = USUAL if np.isfinite(formulas[0].damage) else "narrow band"
    without = np.array(
        [_without(process, low, high, kind, m, damage) for low, high in itertools.pairwise(edges.tolist())]
    )
    whole = damage(expected_ranges(process, kind).cycles(1.0, dimension=process.dimension))
    view = VibrationView(
        name,
        process,
        m,
        tuple(formulas),
        read_only(edges),
        read_only(shares / process.moment(0.0)),
        read_only(1.0 - without / whole if whole else np.zeros(without.size)),
        time,
        damage_of is not None,
        counted,
        long,
    )
    return dataclasses.replace(view, findings=(*findings, *_spread(view)))


def _by_formula(
    process: SpectralDensity, formula: str, slope: float, damage: DamageOf, *, closed: bool
) -> FormulaDamage:
    """One that does not hold for the spectrum has a damage of nan."""
    try:
        ranges = expected_ranges(process, formula, slope=slope if EXPECTED_CYCLES[formula].one_slope else None)
        done = ranges.moment(slope) if closed else damage(ranges.cycles(1.0, dimension=process.dimension))
    except InputError:
        return FormulaDamage(formula, math.nan, math.nan)
    return FormulaDamage(formula, ranges.rate, done)


def _counted(cycles: Cycles, time: float, slope: float, damage: DamageOf) -> FormulaDamage:
    done = damage(cycles) / time
    error = standard_error(cycles, cycles.count * cycles.range**slope)
    return FormulaDamage("counted synthesis", cycles.total / time, done, error)


def _bands(process: SpectralDensity) -> FloatArray:
    low, high = process.band
    start = max(low, 1e-3 * high)
    many = min(MOST_BANDS, max(3, round(PER_OCTAVE * math.log2(high / start))))
    edges = start * (high / start) ** (np.arange(many + 1) / many)
    edges[0], edges[-1] = low, high * (1.0 + 1e-12)
    return np.asarray(edges)


def _without(process: SpectralDensity, low: float, high: float, kind: str, slope: float, damage: DamageOf) -> float:
    """Damage a second without a band."""
    moments: dict[float, float] = {}
    for order in (*ORDERS, 2.0 / slope):
        moments[order] = process.moment(order) - process.part(low, high, order)
    if min(moments.values()) <= 1e-12 * process.moment(0.0):
        return 0.0
    try:
        rest: Any = StatedMoments(moments)
        return damage(expected_ranges(rest, kind).cycles(1.0, dimension=process.dimension))
    except InputError:
        return damage(expected_ranges(StatedMoments(moments), "narrow band").cycles(1.0, dimension=process.dimension))


def _spread(view: VibrationView) -> list[Finding]:
    if view.spread <= SPREAD:
        return []
    sizes = {one.formula: one.damage for one in view.formulas if one.error is None and one.damage > 0.0}
    low, high = (pick(sizes, key=lambda name: sizes[name]) for pick in (min, max))
    return [
        Finding(
            "note",
            "formulas-differ",
            f"The formulas for {view.name} lie {number(view.spread, 3)} times apart: {low!r} least, {high!r} most damage.",
            "Count a synthesis beside them (--synthesis '10 min'), and take the one that is nearest.",
        )
    ]
