"""What an expert would say about fatigue of rubber: strains, tests, stability, compression, threshold, drift."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import listed
from vivid_anvil.materials.rubber import HyperelasticLaw, Rubber
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.rubber.strain_loads import StrainLoads
from vivid_anvil.stress.rubber.strain_states import StrainStates
from vivid_anvil.units import in_unit, number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy
    from vivid_anvil.damage.methods.cracking_search import PlaceInRubber

SWELLS = 0.02  # of the volume, from which on strains are not those of rubber
BETTER = 0.25  # of the change of volume by the stated measure, from which on another one is meant
BEYOND = 0.02  # of a stretch, that it may leave the tests by
R_BEYOND = 0.02
LEFT = 0.05  # of the largest energy, that a pass leaves
APART = 1.05  # life of one flaw over that by the sum
COARSE = 0.25  # of the largest stretch less 1, that it goes from one state to the next
LITTLE = 1e-9
PRINCIPALS: dict[str, Callable[[FloatArray], FloatArray]] = {
    "green-lagrange": lambda p: np.sqrt(np.maximum(1.0 + 2.0 * p, LITTLE)),
    "nominal": lambda p: np.maximum(1.0 + p, LITTLE),
    "logarithmic": lambda p: np.exp(p),
}  # principal stretches of principal strains


def before_counting(method: CrackingEnergy, spot: HotSpot, duty_cycle: DutyCycle) -> Iterator[Finding]:
    """On the strains, and on the law over them."""
    relation = spot.fed
    if not isinstance(relation, StrainStates):
        return
    events = relation.loads.events(duty_cycle)
    rows = np.concatenate([way.weights for event in events for way in event.ways])
    yield from strain_findings(method.rubber.law, relation.cauchy_greens(rows), relation.told)
    yield from beyond_computed(relation.loads, duty_cycle)


def beyond_computed(loads: StrainLoads, duty_cycle: DutyCycle, scale: float = 1.0) -> Iterator[Finding]:
    """Where events, with all loads times a scale, leave the states that were computed."""
    at = "" if scale == 1.0 else f"With all loads times {number(scale)} "
    for event in loads.events(duty_cycle, scale):
        if event.beyond > LITTLE:
            yield Finding(
                "warning",
                "beyond-computed",
                f"{at}{event.name} goes {event.beyond:.0%} beyond the states that were computed; strains go on as before.",
                "Compute a state at the largest load, or leave less of it.",
            )


def strain_findings(law: HyperelasticLaw, cauchy_greens: FloatArray, told: str) -> Iterator[Finding]:
    """On strains of any number of rows, given in a measure, and on the law over them."""
    stretch = np.sqrt(np.maximum(np.linalg.eigvalsh(cauchy_greens[:, FULL]), LITTLE))
    swells = float(np.abs(stretch.prod(axis=1) - 1.0).max())
    if swells > SWELLS:
        meant = measure_meant(stretch, told)
        if meant:
            yield Finding(
                "severe",
                "strain-measure",
                f"As {told} strains the volume changes by {swells:.0%}, as {meant} strains it would stay: rubber keeps it.",
                f'Do the strains come as {meant}? Then say measure = "{meant}".',
            )
        else:
            yield Finding(
                "warning",
                "volume-changes",
                f"The volume changes by up to {swells:.1%}; rubber of these laws keeps it nearly.",
                "Check measure and unit of the strains, and whether shears are engineering ones; strains that run out to the "
                "nodes of a coarse mesh do that too.",
            )
    low, high = float(stretch.min()), float(stretch.max())
    if law.stretches_tested is not None:
        least, largest = law.stretches_tested
        if high > largest * (1.0 + BEYOND) or low < least * (1.0 - BEYOND):
            yield Finding(
                "warning",
                "strain-beyond-tests",
                f"Stretches go from {number(low, 3)} to {number(high, 3)}; {law.name} was tested from {number(least, 3)} to "
                f"{number(largest, 3)}.",
                "Beyond its tests a law is a guess: test the rubber as far as the part goes.",
            )
    wrong = ~law.stable_at(stretch / np.cbrt(stretch.prod(axis=1))[:, None])
    if wrong.any():
        top = float(stretch[wrong].max(axis=1).min())
        yield Finding(
            "severe",
            "unstable-law",
            f"{law.name} is unstable where the part goes: from a stretch of {number(top, 3)} on more strain takes less stress.",
            "Fit the law to tests of all modes, or take a form that stays stable.",
        )


def measure_meant(stretch: FloatArray, told: str) -> str:
    """The measure by which the same numbers would keep the volume, where that by the stated one does not; empty for none."""
    back = {"green-lagrange": 0.5 * (stretch**2 - 1.0), "nominal": stretch - 1.0, "logarithmic": np.log(stretch)}
    if told not in back:
        return ""
    changes = {
        name: float(np.abs(of(back[told]).prod(axis=1) - 1.0).max()) for name, of in PRINCIPALS.items() if name != told
    }
    best = min(changes, key=lambda name: changes[name])
    own = float(np.abs(stretch.prod(axis=1) - 1.0).max())
    return best if changes[best] < min(BETTER * own, SWELLS) else ""


def cracking_findings(method: CrackingEnergy, life: Life) -> Iterator[Finding]:
    """All of them."""
    spot, duty = life.hot_spot, life.duty_cycle
    yield from before_counting(method, spot, duty)
    place = method.place(spot, duty)
    top = max(float(course.max()) for course in place.courses)
    if top <= LITTLE:
        yield Finding(
            "note",
            "compression-only",
            "No plane is pulled at any time: the place is under compression only, and no flaw opens there.",
            "Look at places beside it that bulge, and at abrasion and heat, which this does not see.",
        )
        return
    yield from growth_findings(method.rubber, life.spectrum.cycles, top, life.damage_per_repeat)
    if place.worst is not None:
        yield from _planes_tie(place)
        yield from _drift(place)
    yield from _coarse(place)
    yield from _sum_and_one(method, life)


def growth_findings(rubber: Rubber, cycles: Any, top: float, damage: float) -> Iterator[Finding]:
    """On growth by a largest energy, MPa, whose cycles do that damage."""
    law, per = rubber.tearing, rubber.per_size
    if damage == 0.0 and law.threshold is not None:
        first = per * rubber.initial_flaw * top
        yield Finding(
            "note",
            "below-threshold",
            f"The tearing energy of the first flaw reaches {in_unit(first, 'energy release rate')}, below the threshold of "
            f"{in_unit(law.threshold, 'energy release rate')}: no load grows it.",
            "Ozone cracks rubber under any lasting tension; that, ageing and larger flaws are another matter.",
        )
    last = per * rubber.end_flaw * top
    if last > law.anchor[0] and law.kind != "three regimes":
        yield Finding(
            "warning",
            "tears-before-end",
            f"At {number(rubber.end_flaw)} mm the tearing energy reaches {in_unit(last, 'energy release rate')}, above the "
            f"{in_unit(law.anchor[0], 'energy release rate')} up to which the law goes.",
            "The part tears at once before that size; a smaller end_flaw changes the life little.",
        )
    high = cycles.mean + 0.5 * cycles.range
    ratio = np.where(
        high > 0.0, np.maximum(cycles.mean - 0.5 * cycles.range, 0.0) / np.where(high > 0.0, high, 1.0), 0.0
    )
    if law.r_ratios_tested is not None and ratio.size:
        least, largest = law.r_ratios_tested
        if least > R_BEYOND and float(ratio.min()) < least - R_BEYOND:
            yield Finding(
                "warning",
                "relaxes-untested",
                f"Cycles go down to R = {number(float(ratio.min()), 2)}, the rubber was tested from {number(least, 2)} on, never "
                "relaxing.",
                "Rubber that crystallises lasts far shorter when it relaxes fully: test it at R = 0.",
            )
        if float(ratio.max()) > largest + R_BEYOND and law.r_effect == "crystallising":
            yield Finding(
                "note",
                "r-beyond-tests",
                f"Cycles go up to R = {number(float(ratio.max()), 2)}, the rubber was tested up to {number(largest, 2)}.",
                "The gain by not relaxing is extrapolated.",
            )


def _planes_tie(place: PlaceInRubber) -> Iterator[Finding]:
    found = place.worst
    assert found is not None
    if len(place.ties):
        planes = [found.normal, *place.ties][:4]
        names = listed([f"({', '.join(f'{one + 0.0:.2f}' for one in normal)})" for normal in planes])
        yield Finding(
            "note",
            "planes-tie",
            f"{len(place.ties) + 1} planes do the same damage, such as those with the normals {names}: where a crack starts is "
            "open.",
            "Look for cracks on all of them.",
        )


def _drift(place: PlaceInRubber) -> Iterator[Finding]:
    assert place.worst is not None
    normal = place.worst.normal[None]
    for one in place.events:
        for number_of_way in one.ways:
            top = float(place.courses[number_of_way].max())
            left = float(place.flaw.drift(number_of_way, normal)[0])
            if top > 0.0 and abs(left) > LEFT * top:
                yield Finding(
                    "note",
                    "energy-drifts",
                    f"A pass of {one.event.name} leaves {in_unit(left, 'energy density')} on the plane, {abs(left) / top:.0%} of "
                    "the largest: its path turns. That is taken out evenly, step by step, before cycles are counted.",
                    "Whether the part that is left opens the flaw is not known: hold the life against the energy density.",
                )
                return


def _coarse(place: PlaceInRubber) -> Iterator[Finding]:
    for one in place.events:
        for number_of_way in one.ways:
            path = place.flaw.cauchy_greens[number_of_way]
            size = float(np.abs(path - np.array([1.0, 1.0, 1.0, 0.0, 0.0, 0.0])).max())
            rows = path[place.flaw.ways[number_of_way].first :]
            step = float(np.abs(np.diff(rows, axis=0)).max()) if len(rows) > 1 else 0.0
            if len(rows) > 4 and size > 0.0 and step > COARSE * size:
                yield Finding(
                    "note",
                    "states-coarse",
                    f"From one state of {one.event.name} to the next the strain goes {step / size:.0%} of its largest: between "
                    "them it is taken as straight.",
                    "Compute more states where loads turn.",
                )
                return


def _sum_and_one(method: CrackingEnergy, life: Life) -> Iterator[Finding]:
    """Where the damage sum and one flaw under all cycles differ: sizes at which events do their part are not the same."""
    if life.damage_per_repeat == 0.0:
        return
    one = method.passes(life) * life.critical_sum
    ratio = one / life.life_repeats
    if not 1.0 / APART <= ratio <= APART:
        yield Finding(
            "note",
            "sum-and-growth",
            f"One flaw under all cycles grows to its end in {number(one)} repeats, {number(ratio, 3)} times the life by the sum.",
            "Cycles of different R or regime share a flaw, not a sum: take the smaller of both.",
        )
