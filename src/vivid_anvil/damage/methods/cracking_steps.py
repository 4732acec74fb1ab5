"""A cycle of energy in rubber by hand: stretches and energy at both ends, tearing energy, growth of the flaw, its life."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.cracking_search import stored_energy
from vivid_anvil.materials.rubber import PowerTearing, Rubber
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.rubber._kernels import WEIGHTS
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy

MARS, RIVLIN = "Mars 2002", "Rivlin and Thomas 1953"
ALIKE = 1e-9


class _In:
    """Numbers in the units that are shown."""

    def __init__(self, units: UnitSystem) -> None:
        self.units = units

    def of(self, value: float, dimension: str) -> float:
        """A coherent number in its unit."""
        return float(shown(value, dimension, self.units))

    def unit(self, dimension: str) -> str:
        """Its unit."""
        return display_unit(dimension, self.units)

    def put(self, value: float, dimension: str) -> str:
        """Both."""
        return f"{put_in(self.of(value, dimension))} {self.unit(dimension)}"


def growth_steps(rubber: Rubber, high: float, low: float, units: UnitSystem) -> list[Step]:
    """From largest and least energy of a cycle, MPa, to its life; the last step is the life, cycles."""
    law, show = rubber.tearing, _In(units)
    ratio = low / high if high > 0.0 else 0.0
    tops = show.put(high, "energy density")
    steps = [Step("R of the energy", "R = W_min / W_max", f"{show.put(low, 'energy density')} / {tops}", ratio, "")]
    by_range = law.r_effect == "range"
    slope = law.anchor[1] if by_range else float(law.slope_at(ratio))
    if not by_range:
        steps.append(_slope_step(rubber, ratio, slope))
    tear = {}
    for label, size in (("0", rubber.initial_flaw), ("e", rubber.end_flaw)):
        tear[label] = rubber.per_size * high * size
        steps.append(
            Step(
                f"Largest tearing energy at the flaw's {'first' if label == '0' else 'last'} size",
                f"T_{label} = 2 k W_max c_{label}",
                f"2 × {put_in(rubber.shape_factor)} × {tops} × {show.put(size, 'length')}",
                show.of(tear[label], "energy release rate"),
                show.unit("energy release rate"),
                RIVLIN,
            )
        )
    equal = {label: float(law.equivalent(value, ratio)) for label, value in tear.items()}
    steps += [_equivalent_step(rubber, label, tear[label], ratio, slope, equal[label], show) for label in tear]
    for label in tear:
        steps.append(
            Step(
                f"Growth at the flaw's {'first' if label == '0' else 'last'} size: {law.formula}",
                f"r_{label} = dc/dN(T_eq)",
                f"at {show.put(equal[label], 'energy release rate')}",
                show.of(float(law.relaxing(np.array([equal[label]]))[0]), "growth rate"),
                show.unit("growth rate"),
                law.origin,
            )
        )
    return [*steps, *_life_steps(rubber, high, ratio, slope, show)]


def _slope_step(rubber: Rubber, ratio: float, slope: float) -> Step:
    law = rubber.tearing
    first = put_in(law.anchor[1])
    if law.slope_terms is None:
        formula, numbers = "F = F_0 × e^(F_4 × R)", f"{first} × e^({put_in(law.slope_rise or 0.0)} × {put_in(ratio)})"
    else:
        one, two, three = (put_in(each) for each in law.slope_terms)
        r = put_in(ratio)
        formula = "F = F_0 + F_1 R + F_2 R² + F_3 R³"
        numbers = f"{first} + {one} × {r} + {two} × {r}² + {three} × {r}³"
    return Step("Slope of rubber that crystallises", formula, numbers, slope, "", "Mars and Fatemi 2003")


def _equivalent_step(
    rubber: Rubber, label: str, tear: float, ratio: float, slope: float, value: float, show: _In
) -> Step:
    law = rubber.tearing
    title = f"The relaxing cycle that grows as much, at the {'first' if label == '0' else 'last'} size"
    own = show.put(tear, "energy release rate")
    unit = show.unit("energy release rate")
    out = show.of(value, "energy release rate")
    if law.r_effect == "range":
        return Step(title, f"T_eq,{label} = T_{label} (1 - R)", f"{own} × (1 - {put_in(ratio)})", out, unit)
    middle = show.put(law.anchor[0], "energy release rate")
    formula = f"T_eq,{label} = T_m (T_{label} / T_m)^(F / F_0)"
    numbers = f"{middle} × ({own} / {middle})^({put_in(slope)} / {put_in(law.anchor[1])})"
    return Step(title, formula, numbers, out, unit)


def _life_steps(rubber: Rubber, high: float, ratio: float, slope: float, show: _In) -> list[Step]:
    law = rubber.tearing
    start, end, k = rubber.initial_flaw, rubber.end_flaw, rubber.shape_factor
    life = float(law.lives(high, ratio, start, end, k)[0])
    if isinstance(law, PowerTearing) and math.isfinite(life):
        return [_closed(rubber, law, high, ratio, slope, life, show)]
    if not math.isfinite(life):
        return [
            Step("Life of the cycle: the flaw does not grow", "N = ∞", "no growth at its first size", life, "cycles")
        ]
    per = rubber.per_size * high
    knees = [float(law._size_at(knee, np.array([per]), np.array([ratio]))[0]) for knee in law.knees]
    marks = sorted({start, end, *(knee for knee in knees if start < knee < end)})
    steps, parts = [], []
    for i, (a, b) in enumerate(pairwise(marks), 1):
        part = float(law.lives(high, ratio, a, b, k)[0])
        parts.append(part)
        rates = [show.put(float(law.growth(per * size, ratio)), "growth rate") for size in (a, b)]
        steps.append(
            Step(
                f"Cycles from {show.put(a, 'length')} to {show.put(b, 'length')}, by 24 points of Gauss over ln c",
                f"N_{i} = ∫ dc / (dc/dN)",
                f"growth {rates[0]} rising to {rates[1]}",
                part,
                "cycles",
            )
        )
    numbers = " + ".join(put_in(part) for part in parts)
    return [*steps, Step("Life of the cycle alone", "N = Σ N_i", numbers, life, "cycles")]


def _closed(rubber: Rubber, law: PowerTearing, high: float, ratio: float, slope: float, life: float, show: _In) -> Step:
    """∫ dc / rate of a power of the size."""
    first, last = show.put(rubber.initial_flaw, "length"), show.put(rubber.end_flaw, "length")
    w = show.put(high, "energy density")
    drive = f"2 × {put_in(rubber.shape_factor)} × {w}"
    symbol = "W_max"
    if law.r_effect == "range":
        drive, symbol = f"{drive} × (1 - {put_in(ratio)})", "W_max (1 - R)"
    rate, at = show.put(law.rate, "growth rate"), show.put(law.at, "energy release rate")
    base = f"{rate} × ({drive} / {at})^{put_in(slope)}"
    if abs(slope - 1.0) < ALIKE:
        formula = f"N = ln(c_e / c_0) / (r_c (2 k {symbol} / T_c)^F)"
        return Step("Life of the cycle alone", formula, f"ln({last} / {first}) / ({base})", life, "cycles", law.origin)
    power = put_in(1.0 - slope)
    formula = f"N = [c_e^(1 - F) - c_0^(1 - F)] / ((1 - F) r_c (2 k {symbol} / T_c)^F)"
    numbers = f"[({last})^{power} - ({first})^{power}] / ({power} × {base})"
    return Step("Life of the cycle alone", formula, numbers, life, "cycles", law.origin)


def at_ends(method: CrackingEnergy, life: Any, row: int, units: UnitSystem) -> list[Step]:
    """Principal stretches at both ends of a cycle, what is stored there, and what is there to open the flaw."""
    place, cycles, show = method.place(life.hot_spot, life.duty_cycle), life.spectrum.cycles, _In(units)
    one = place.events[int(cycles.event[row])]
    high = float(cycles.mean[row] + 0.5 * cycles.range[row])
    low = float(cycles.mean[row] - 0.5 * cycles.range[row])
    steps: list[Step] = []
    for label, value in (("max", high), ("min", low)):
        way, at = _where(place, one.ways, value)
        green = place.flaw.cauchy_greens[way][place.flaw.ways[way].first + at]
        stretch = np.sqrt(np.linalg.eigvalsh(green[FULL]))[::-1]
        title = f"At the cycle's {label}imum"
        steps += [
            Step(
                f"{title}: principal stretch {i}, of the computed states",
                f"λ_{i} = √(principal value of C)",
                f"√({put_in(float(each) ** 2)})",
                float(each),
                "",
            )
            for i, each in enumerate(stretch, 1)
        ]
        law = method.rubber.law
        stored = float(stored_energy(law, green[None])[0])
        kept = stretch / np.cbrt(stretch.prod())
        steps.append(
            Step(
                f"{title}: energy stored there by {law.name}, of the stretches over the cube root of their product",
                law.formula,
                law.energy_by_hand(kept),
                stored,
                "MJ/m^3",
                law.origin,
            )
        )
        if label == "max" and method.on_a_plane:
            steps += _one_step(place, way, at, show)
        steps.append(_opening(method, place, way, at, label, value, show))
    return steps


def _one_step(place: Any, way: int, at: int, show: _In) -> list[Step]:
    """The step on the way to the maximum that adds most, of those on which the plane is pulled all along."""
    path, first = place.flaw.paths[way], place.flaw.ways[way].first
    x, y, z = place.worst.normal.tolist()
    squares = np.array([x * x, y * y, z * z, x * y, y * z, z * x])
    work, line, traction = (form[: first + at] @ squares for form in path.forms)
    added = np.where(traction.min(axis=1) > 0.0, (work / line) @ WEIGHTS, -np.inf)
    if not added.size or not np.isfinite(added.max()):
        return []
    step = int(added.argmax())
    unit, one = show.unit("energy density"), show.of(1.0, "energy density")
    shares = ("1/12", "5/12", "5/12", "1/12")
    parts = [
        f"{share} × {put_in(one * float(g))} / {put_in(float(h))}"
        for share, g, h in zip(shares, work[step], line[step], strict=True)
    ]
    return [
        Step(
            f"Of the way there the step that adds most, from row {step} to {step + 1}, by four points of Gauss and Lobatto",
            "ΔW = Σ w (R·C S ΔE R) / (R·C R)",
            " + ".join(parts),
            one * float(added[step]),
            unit,
            MARS,
        )
    ]


def _opening(method: CrackingEnergy, place: Any, way: int, at: int, label: str, value: float, show: _In) -> Step:
    unit, out = show.unit("energy density"), show.of(value, "energy density")
    title = f"Energy that counts at the cycle's {label}imum"
    if not method.on_a_plane:
        return Step(title, f"W_{label} = {method.energy}", f"{put_in(out)} {unit}", out, unit)
    whole = place.flaw.paths[way].energies(place.worst.normal[None])[0]
    first = place.flaw.ways[way].first
    left = (float(whole[-1]) - float(whole[first])) * at / (whole.size - 1 - first)
    followed = show.put(float(whole[first + at]), "energy density")
    return Step(
        f"{title}: followed along the path on the plane, over {first + at} steps, less its part of what a pass leaves",
        f"W_{label} = Σ (R·C S ΔE R) / (R·C R) - drift",
        f"{followed} - {show.put(left, 'energy density')}",
        out,
        unit,
        MARS,
    )


def _where(place: Any, ways: range, value: float) -> tuple[int, int]:
    """The way and the row of its repeated part at which the energy comes nearest to a value."""
    found = []
    for way in ways:
        off = np.abs(place.courses[way] - value)
        found.append((float(off.min()), way, int(off.argmin())))
    _, way, at = min(found)
    return way, at
