"""What is told of a life in rubber: the plane in the axes of model and part, stretches, energies, growth of one flaw."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.cracking_search import stored_energy
from vivid_anvil.events.calendar import amount, plural
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.planes import PlaneFound
from vivid_anvil.stress.rubber.strain_states import largest_stretch
from vivid_anvil.units import UnitSystem, in_unit, number
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy

SIZES = 12  # of the flaw, told over its life


def told(method: CrackingEnergy, life: Any, units: UnitSystem) -> Words:
    """The plane, the strains, the energies, the growth of one flaw."""
    place = method.place(life.hot_spot, life.duty_cycle)
    found = [] if place.worst is None else [("Plane", plane_in_words(place.worst, method.axes, len(place.ties)))]
    greens = np.concatenate(list(place.flaw.cauchy_greens))
    stored = float(stored_energy(method.rubber.law, greens).max())
    largest = max(float(course.max()) for course in place.courses)
    stretch = number(float(largest_stretch(greens).max()))
    opens = "" if not method.on_a_plane else f"; {in_unit(largest, 'energy density', units)} open the flaw on its plane"
    found.append(("Strain", f"stretch up to {stretch}; {in_unit(stored, 'energy density', units)} stored{opens}"))
    one = method.rubber
    first, last = (one.per_size * size * largest for size in (one.initial_flaw, one.end_flaw))
    reach = f"{in_unit(first, 'energy release rate', units)} rising to {in_unit(last, 'energy release rate', units)}"
    sizes = f"from {in_unit(one.initial_flaw, 'length', units)} to {in_unit(one.end_flaw, 'length', units)}"
    passes = method.passes(life) * life.critical_sum
    alone = (
        "does not grow" if math.isinf(passes) else f"takes {amount(passes, life.duty_cycle.repeat)} under all cycles"
    )
    found.append(("Flaw", f"{sizes}, largest tearing energy {reach}; one flaw {alone}"))
    return tuple(found)


def plane_in_words(found: PlaneFound, axes: FloatArray | None, ties: int = 0) -> str:
    """The plane by its angles and its normal, in the axes of the model and of the part, undeformed."""
    theta, phi = found.angles
    also = "" if not ties else f"; {ties} other{'s tie' if ties > 1 else ' ties'} with it"
    there = "" if axes is None else f"; in the axes of the part ({_named(axes @ found.normal)})"
    return f"θ {number(theta, 3)}° from z, φ {number(phi, 3)}° from x; normal ({_named(found.normal)}), undeformed{there}{also}"


def _named(normal: FloatArray) -> str:
    return ", ".join(f"{one + 0.0:.3f}" for one in normal.tolist())


def blocks_of(method: CrackingEnergy, life: Any) -> tuple[Table, ...]:
    """The size of one flaw under all cycles over repeats."""
    course = flaw_course(method, life)
    if course is None:
        return ()
    sizes, repeats = course
    columns = (
        Column("repeats", repeats.tolist(), style="number", head=plural(life.duty_cycle.repeat).capitalize()),
        Column("flaw", sizes.tolist(), of="length"),
        Column("share of the life", (repeats / repeats[-1]).tolist(), style="share"),
    )
    return (Table("One flaw under all cycles", columns, "flaw over repeats", only="in full"),)


def flaw_course(method: CrackingEnergy, life: Any, many: int = SIZES) -> tuple[FloatArray, FloatArray] | None:
    """Sizes, mm, of one flaw under all cycles, and the repeats to each; None where it does not grow."""
    cycles, one = life.spectrum.cycles, method.rubber
    if not len(cycles) or math.isinf(method.passes(life)):
        return None
    high = cycles.mean + 0.5 * cycles.range
    ratio = np.clip((cycles.mean - 0.5 * cycles.range) / high, 0.0, np.nextafter(1.0, 0.0))
    sizes = np.geomspace(one.initial_flaw, one.end_flaw, many)
    law, per_repeat = one.tearing, life.spectrum.per_repeat
    steps = [
        law.passes(high, ratio, per_repeat, a, b, one.shape_factor)
        for a, b in zip(sizes[:-1].tolist(), sizes[1:].tolist(), strict=True)
    ]
    return sizes, np.concatenate([[0.0], np.cumsum(steps)])
