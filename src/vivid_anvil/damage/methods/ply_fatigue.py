"""Fatigue of a laminate by the modes of its plies: fibres, cracks between fibres, the first one that fails and what follows.

In: forces and moments per width that channels scale. By classical lamination theory they are stresses of each ply; cycles of each
component are counted, lives come from constant-life diagrams, damage sums up linearly. That is the life that is told: to the
first failure of a mode, in the sound laminate. Beside it the laminate is followed to its end, as plies soften and fail.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.methods.kept import Kept
from vivid_anvil.damage.methods.ply_findings import before_counting, ply_findings
from vivid_anvil.damage.methods.ply_jump_steps import jump_working
from vivid_anvil.damage.methods.ply_place import (
    BESIDE_HIGH,
    BESIDE_LOW,
    COUNTED,
    MODE,
    PLY,
    PlaceInLaminate,
    place_in_laminate,
    place_of_rows,
)
from vivid_anvil.damage.methods.ply_steps import energy_steps, joint_steps, load_steps
from vivid_anvil.damage.methods.ply_words import ply_tables, ply_words
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.plies import LifeDiagram, criterion_of, joint_lives
from vivid_anvil.materials.plies.ply import LIVES
from vivid_anvil.progress import (
    FAILS_BY,
    LaminateProgress,
    PlyTables,
    ProgressSettings,
    converged_to,
    laminate_progress,
)
from vivid_anvil.stress import METHODS, HotSpot, Method, OfMany
from vivid_anvil.stress.laminates import Laminate, SectionLoads
from vivid_anvil.stress.planes.plane_cycles import only_alone
from vivid_anvil.units import Coherent, UnitSystem, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step, Working

PLY_RULES = {
    "together": "fibres by s1; between fibres by the squares of s2 and t12 (Hashin and Rotem 1973)",
    "apart": "s1, s2 and t12 each by itself: nothing acts together",
    "energy": "the strain energy of all three; cycles on one side of 0 (Ellyin and El-Kadi 1990)",
}
SYMBOLS = ("s1", "s2", "t12")
_FOUND: Kept[PlaceInLaminate] = Kept()
_FOLLOWED: Kept[LaminateProgress] = Kept()


@sound
@METHODS.add("ply fatigue")
@dataclass(frozen=True, kw_only=True, eq=False)
class PlyFatigue(Method):
    """Damage of fibres and between fibres in every ply of a laminate.

    Parameters
    ----------
    laminate : Laminate
        The laminate, of plies with life diagrams.
    rule : str, default "together"
        One of `PLY_RULES`.
    modes : sequence of str, default both
        Which of "fibre" and "matrix" are assessed.
    static : str, default "Puck"
        One of `PLY_CRITERIA`, by which static reserves are told.
    fails_by : str, default "damage sum"
        How modes fail where the laminate is followed: one of `FAILS_BY`.
    fibre_left : float, default 0.01
        Part of E1, E2 and G12 that a ply with broken fibres keeps, -.
    matrix_left : float, default 0.1
        Part of E2 and G12 that a ply with cracks between its fibres keeps, -.
    over_below : float, default 0.1
        Part of the stiffness against its loads below which the laminate has failed, -.
    jump_error : float, default 3e-4
        What two ways to take a jump, of third and of second order, may differ by, in damage or stiffness, -.
    critical_sum : float, default 1.0
        Damage sum at which a mode counts as failed.

    Raises
    ------
    InputError
        For a mode without its life diagram, a ply without strengths, and values of another kind, unit or range.

    Examples
    --------
    >>> from vivid_anvil.materials.plies import LargestStress, Ply
    >>> line = LargestStress(tension=600.0, tension_slope=10, compression=400.0, compression_slope=12)
    >>> strong = dict(tension_along=600.0, compression_along=400.0, tension_across=40.0, compression_across=140.0)
    >>> moduli = dict(modulus_along="39 GPa", modulus_across="8.6 GPa", shear_modulus="3.8 GPa", poissons_ratio=0.28)
    >>> glass = Ply(name="glass", shear_strength=60.0, fibre_life=line, **moduli, **strong)
    >>> bar = Laminate(name="bar", layup="[0/90]s", ply=glass, ply_thickness=0.5)
    >>> PlyFatigue(laminate=bar, modes=("fibre",)).words
    'laminate bar [0/90]s, together, fibre'
    """

    laminate: Laminate
    rule: str = "together"
    modes: tuple[str, ...] = ("fibre", "matrix")
    static: str = "Puck"
    fails_by: str = "damage sum"
    fibre_left: Coherent = Coherent("number", above=0.0, below=1.0, default=0.01)
    matrix_left: Coherent = Coherent("number", above=0.0, below=1.0, default=0.1)
    over_below: Coherent = Coherent("number", above=0.0, below=1.0, default=0.1)
    jump_error: Coherent = Coherent("number", above=0.0, below=1.0, default=3e-4)
    critical_sum: float = 1.0
    tensors = True
    hangs = True
    elastic = False
    takes: ClassVar[str] = "section loads"

    def __post_init__(self) -> None:
        where = self.kind
        if not isinstance(self.laminate, Laminate):
            raise InputError(inside(where, "laminate"), shortened(self.laminate), "a laminate")
        checks.one_of(inside(where, "rule"), self.rule, tuple(PLY_RULES))
        checks.one_of(inside(where, "fails_by"), self.fails_by, tuple(FAILS_BY))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        criterion_of(self.static, inside(where, "static"))
        object.__setattr__(self, "modes", self.settings.modes)
        if self.rule == "energy":
            for ply in self.plies:
                if ply.energy_life is None:
                    raise InputError(
                        inside(f"ply {ply.name}", "energy_life"),
                        "none, with the rule 'energy'",
                        "K and a of the energy",
                    )
        else:
            assert self.arrays is not None

    @cached_property
    def settings(self) -> ProgressSettings:
        """How the laminate is followed."""
        return ProgressSettings(
            modes=self.modes,
            together=self.rule != "apart",
            fails_by=self.fails_by,
            critical_sum=self.critical_sum,
            fibre_left=self.fibre_left,
            matrix_left=self.matrix_left,
            over_below=self.over_below,
            jump_error=self.jump_error,
        )

    @property
    def plies(self) -> tuple[Any, ...]:
        """The plies, each kind once."""
        return tuple(dict.fromkeys(one.ply for one in self.laminate.laid))

    @cached_property
    def arrays(self) -> PlyTables:
        """What loops need of the laminate."""
        return PlyTables(self.laminate, self.settings)

    def __getstate__(self) -> dict[str, Any]:
        """Without what holds in this process alone."""
        return {key: value for key, value in self.__dict__.items() if key not in ("arrays", "settings")}

    def __setstate__(self, state: dict[str, Any]) -> None:
        self.__dict__.update(state)

    @property
    def components(self) -> Mapping[str, tuple[int, ...]]:
        """Modes, and the components whose cycles each counts."""
        if self.rule == "energy":
            return {"energy": (0, 1, 2)}
        between = {"matrix": (1, 2)} if self.rule == "together" else {"across": (1,), "shear": (2,)}
        found: dict[str, tuple[int, ...]] = {"fibre": (0,)} if "fibre" in self.modes else {}
        return {**found, **between} if "matrix" in self.modes else found

    varies: ClassVar[str] = "rule"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every rule that the plies have numbers for."""
        known = all(ply.energy_life is not None for ply in self.plies)
        return {rule: partial(replace, self, rule=rule) for rule in PLY_RULES if rule != "energy" or known}

    @property
    def variant(self) -> str:
        """Its rule."""
        return self.rule

    def valid(self, variant: str) -> str:
        """What a rule is for."""
        return PLY_RULES[variant]

    def check(self, spot: HotSpot) -> None:
        """InputError for a notch factor: forces of a section know none."""
        if spot.notch_factor != 1.0:
            raise InputError(
                inside(f"hot spot {spot.name}", "notch_factor"),
                f"{spot.notch_factor:g}",
                "none beside section loads",
                "Take the forces and moments at the place itself.",
            )

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        only_alone(duty_cycle)

    def place(self, spot: HotSpot, duty_cycle: DutyCycle) -> PlaceInLaminate:
        """The place under the duty cycle; looked for once."""

        def look() -> PlaceInLaminate:
            self.goes_with(duty_cycle)
            return place_in_laminate(self, spot, duty_cycle)

        return _FOUND.of(spot, duty_cycle, look)

    def progress(self, spot: HotSpot, duty_cycle: DutyCycle) -> LaminateProgress | None:
        """The laminate followed to its end; None where that goes by no mode, as with the energy."""
        if self.rule == "energy":
            return None

        def look() -> LaminateProgress:
            place = self.place(spot, duty_cycle)
            found = laminate_progress(self.laminate, place.cycle_ends, self.settings)
            return replace(found, error=converged_to(found, place.cycle_ends))

        return _FOLLOWED.of(spot, duty_cycle, look)

    def energy_lives(self, ply: int, high: FloatArray, low: FloatArray) -> FloatArray:
        """Lives by the energy of a ply, of stresses at both ends, (k, 3), MPa."""
        laid = self.laminate.laid[ply].ply
        return np.asarray(laid.energy_life.lives(laid, high, low))  # type: ignore[union-attr]  # checked when made

    @property
    def reference_diagram(self) -> LifeDiagram | None:
        """The first life diagram of the plies, in whose amplitudes at R = -1 all lives are told."""
        found = (getattr(ply, key) for ply in self.plies for key in LIVES)
        return next((one for one in found if one is not None), None)

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """Cycles of the ply and mode that is damaged most, MPa."""
        place = self.place(spot, duty_cycle)
        return place.cycles_of(place.lead)

    def again(self, spot: HotSpot, duty_cycle: DutyCycle, factor: float) -> Cycles:
        """The same with all loads times a factor, of the ply and mode that is damaged most at the loads as they are."""
        lead = self.place(spot, duty_cycle).lead
        return place_in_laminate(self, spot, duty_cycle, factor).cycles_of(lead)

    def lives(self, cycles: Cycles) -> FloatArray:
        """Cycles that each lives."""
        if not len(cycles):
            return np.zeros(0)
        mode = list(self.components)[int(cycles.columns[MODE][0])]
        ply = int(cycles.columns[PLY][0])
        if mode == "energy":
            high, low = (
                np.stack([cycles.columns[f"s{c} at {side}"] for c in range(3)], axis=1)
                for side in ("maximum", "minimum")
            )
            return self.energy_lives(ply, high, low)
        laid = self.laminate.laid[ply].ply
        size, mean = 0.5 * cycles.range, cycles.mean
        if mode != "matrix":
            diagram = getattr(laid, LIVES[{"fibre": 0, "across": 1, "shear": 2}[mode]])
            return np.asarray(diagram.lives(size, mean))
        return joint_lives(*self._both(laid, cycles))

    def _both(self, laid: Any, cycles: Cycles) -> tuple[Any, Any, Any, Any]:
        """Diagrams, and amplitudes and means, of the counted component and of the one beside."""
        high, low = cycles.columns[BESIDE_HIGH], cycles.columns[BESIDE_LOW]
        own, beside = (0.5 * cycles.range, cycles.mean), (0.5 * np.abs(high - low), 0.5 * (high + low))
        return laid.across_life, laid.shear_life, *((own, beside) if self.counts_across(cycles) else (beside, own))

    def counts_across(self, cycles: Cycles) -> bool:
        """Whether the cycles of a matrix are counted by s2, else by t12."""
        return bool(cycles.columns[COUNTED][0] == 1.0)

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Amplitude at R = -1, MPa, on the reference diagram of the life of each; inf where it lives no cycle."""
        lives = self.lives(cycles)
        found = np.where(lives < 1.0, np.inf, 0.0)
        finite = np.isfinite(lives) & (lives >= 1.0)
        if finite.any():
            found[finite] = self._amplitude(lives[finite])
        return found

    def _amplitude(self, lives: FloatArray) -> FloatArray:
        diagram = self.reference_diagram
        if diagram is None:  # of the energy alone: by its own power
            first = self.plies[0]
            return np.asarray(
                np.sqrt(first.energy_life.constant * lives**-first.energy_life.exponent) * first.tension_along
            )
        return diagram.amplitude_at(lives, -1.0)

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each."""
        found = np.where(np.isinf(terms), np.inf, 0.0)
        moved = np.isfinite(terms) & (terms > 0.0)
        diagram = self.reference_diagram
        if not moved.any():
            return found
        if diagram is None:
            first = self.plies[0]
            work = (terms[moved] / first.tension_along) ** 2
            lives = (first.energy_life.constant / work) ** (1.0 / first.energy_life.exponent)
        else:
            lives = diagram.lives(terms[moved], 0.0)
        found[moved] = per_repeat[moved] / lives
        return found

    def of_many(
        self,
        spot: HotSpot,
        units: FloatArray,
        constants: FloatArray,
        events: Sequence[Any],
        duty_cycle: DutyCycle | None,
    ) -> OfMany:
        """Many places at once, of resultants (places, cases, 6) and those that are always there (places, 6)."""
        if duty_cycle is not None:
            self.goes_with(duty_cycle)
        size = len(units)
        by_event, reached = np.zeros((size, len(events))), np.zeros((size, 2))
        for i in range(size):
            if not units[i].any():
                continue
            place = place_of_rows(self, units[i], constants[i], events)
            lead = place.lead
            table = place.table_of(lead.ply, lead.face, lead.component)
            lives = place.lives(lead.mode, lead.ply, lead.face, lead.component)
            with np.errstate(divide="ignore"):
                np.add.at(by_event[i], table.event, np.where(lives < 1.0, np.inf, table.often / lives))
            reached[i] = [float(one[lead.ply, lead.face, lead.component]) for one in place.extremes]
        return OfMany(by_event, np.ones(size, dtype=bool), reached)

    def terms_in_words(self, spot: HotSpot) -> str:
        """What its terms are."""
        return "fully reversed amplitude of equal life"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """Nothing: its numbers are those of the plies."""
        return ()

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """Of a cycle of the reference diagram."""
        diagram = self.reference_diagram
        return [] if diagram is None else diagram.steps("s", size, mean, units)

    def steps_of(self, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
        """From amplitude and mean of a row to its life by its mode."""
        mode, ply = list(self.components)[int(cycles.columns[MODE][row])], int(cycles.columns[PLY][row])
        laid = self.laminate.laid[ply].ply
        if mode == "energy":
            high, low = (
                np.array([cycles.columns[f"s{c} at {side}"][row] for c in range(3)]) for side in ("maximum", "minimum")
            )
            return energy_steps(laid, high, low, units)
        size, mean = 0.5 * float(cycles.range[row]), float(cycles.mean[row])
        if mode != "matrix":
            c = {"fibre": 0, "across": 1, "shear": 2}[mode]
            return list(getattr(laid, LIVES[c]).steps(SYMBOLS[c], size, mean, units))
        across, shear, one, two = self._both(laid, cycles.chosen([row]))
        own, beside = ((float(each[0][0]), float(each[1][0])) for each in (one, two))
        return joint_steps(across, shear, own, beside, units)

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step]:
        """Loads, strains and stresses of the ply at both ends of the cycle."""
        return load_steps(self, life, row, units)

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """Of a ply that lives no cycle."""
        return (
            f"a cycle of mean {mean:.4g} MPa that breaks a ply at once",
            "stresses that every ply survives once",
            "Check the units of the forces and moments per width, and the strengths of the ply.",
        )

    def before(self, spot: HotSpot, duty_cycle: DutyCycle) -> Iterator[Finding]:
        """On layup and loads."""
        relation = spot.fed
        if isinstance(relation, SectionLoads):
            yield from before_counting(self, relation)

    def findings(self, life: Any) -> Iterator[Finding]:
        """On loads, plies, tests, failures."""
        return ply_findings(self, life)

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """The laminate, the first failure, static reserve, what follows."""
        return ply_words(self, life, units)

    def jump_working(self, life: Any, ply: int | None, jump: int | None, units: UnitSystem) -> Working:
        """A ply in one jump, both by their numbers from 1; by default the one that fails first, in the jump before."""
        return jump_working(self, life, ply, jump, units)

    def at_a_place(self, life: Any, units: UnitSystem) -> list[str]:
        """The ply that fails first, and what follows, with this place alone."""
        told = dict(ply_words(self, life, units))
        wanted = ("First failure", "Followed on")
        found = [f"{label}: {told[label]}." for label in wanted if label in told]
        return [*found, "Each place keeps its own forces and moments: what a softer one hands on is not followed."]

    def tables(self, life: Any, units: UnitSystem) -> tuple[Table, ...]:
        """Plies, failures, stiffness."""
        return ply_tables(self, life)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Laminate and settings."""
        methods = [life.method if isinstance(life.method, PlyFatigue) else None for life in lives]
        return (
            Column("laminate", [one and one.laminate.name for one in methods], only="file"),
            Column("layup", [one and str(one.laminate.layup) for one in methods], only="file"),
            Column("ply rule", [one and one.rule for one in methods], only="file"),
            Column("fails by", [one and one.fails_by for one in methods], only="file"),
        )

    @property
    def words(self) -> str:
        """Laminate, rule, modes."""
        one = self.laminate
        modes = "" if self.rule == "energy" else f", {' and '.join(self.modes)}"
        return f"laminate {one.name} {one.layup}, {self.rule}{modes}"
