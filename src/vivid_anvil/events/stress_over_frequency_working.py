"""Hand calculation of a cycle of a random process or of a sine: from moments, or from input and response, to its range."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.spectra.methods import EXPECTED_CYCLES
from vivid_anvil.units import UnitSystem, display_unit, number, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.events.random_stress import RandomStress
    from vivid_anvil.events.sine_stress import SineStress

RICE = "Rice 1944"


def random_steps(stress: RandomStress, scale: float, method: str, slope: float | None, units: UnitSystem) -> list[Step]:
    """Moments, rates and the constants of the formula, of the stress times `scale`; tones are counted, so they have none."""
    if stress.tones:
        return []
    process, unit = stress.process, display_unit(stress.dimension, units)
    size = scale * float(shown(1.0, stress.dimension, units))
    m = {n: size**2 * process.moment(n) for n in (0.0, 1.0, 2.0, 4.0)}
    steps = [
        Step(
            f"Spectral moment m{n:g}",
            f"m{n:g} = ∫ f^{n:g} G df",
            put_in(one),
            one,
            f"{unit}² Hz^{n:g}" if n else f"{unit}²",
            RICE,
        )
        for n, one in m.items()
    ]
    m0, _, m2, m4 = (put_in(one) for one in m.values())
    rms, rate, peaks, alpha = size * process.rms, process.upcrossing_rate, process.peak_rate, process.irregularity
    steps += [
        Step("Root mean square", "s = √m0", f"√({m0})", rms, unit),
        Step("Upcrossings of the mean a second", "ν0 = √(m2 / m0)", f"√({m2} / {m0})", rate, "1/s", RICE),
        Step("Peaks a second", "νp = √(m4 / m2)", f"√({m4} / {m2})", peaks, "1/s", RICE),
        Step("Irregularity", "α2 = m2 / √(m0 m4)", f"{m2} / √({m0} × {m4})", alpha, ""),
    ]
    formula = EXPECTED_CYCLES[method]
    for one in formula.constants(process, float("nan") if slope is None else slope):
        steps.append(Step(f"Constant {one.symbol}", f"{one.symbol} = {one.formula}", put_in(one.value), one.value, ""))
    ranges = stress.ranges(method, slope)
    expected = ranges.rate * stress.exposure
    title = f"Ranges by {method!r} in an exposure of {number(stress.exposure)} s"
    numbers = f"{put_in(ranges.rate)} × {put_in(stress.exposure)}"
    return [*steps, Step(title, "n_all = ν × T", numbers, expected, "", formula.source)]


def density_steps(
    stress: RandomStress, scale: float, stress_range: float, method: str, slope: float | None, units: UnitSystem
) -> list[Step]:
    """How many ranges are expected above the worked one in the exposure."""
    if stress.tones or stress.shaping.form is not None:
        return []
    size = scale * float(shown(1.0, stress.dimension, units))
    ranges = stress.ranges(method, slope)
    if not ranges.parts or stress_range / scale >= ranges.held_at:
        return []
    local = size * stress_range / scale
    parts = " + ".join(
        f"{put_in(part.rate)} × exp(-({put_in(local)} / {put_in(size * part.scale)})^{part.shape:g})"
        for part in ranges.parts
    )
    beyond = float(sum(part.beyond(np.array(stress_range / scale)) for part in ranges.parts)) * stress.exposure
    title = (
        "Expected in the exposure above the range that is worked: each term a rate, a scale and a shape of the density"
    )
    return [Step(title, "n(>S) = T Σ ν_i exp(-(S / s_i)^k_i)", f"{put_in(stress.exposure)} × ({parts})", beyond, "")]


def exposure_steps(event: str, damage: float, exposure: float, critical: float) -> list[Step]:
    """Damage of an event in its exposure, its damage a second, and the life in seconds that it alone would leave."""
    rate = damage / exposure
    return [
        Step(
            f"Damage a second while {event} acts, whatever its exposure",
            "D_s = D / T",
            f"{put_in(damage)} / {put_in(exposure)}",
            rate,
            "1/s",
        ),
        Step(
            f"Life under {event} alone, without a pause",
            "t = D_c / D_s",
            f"{put_in(critical)} / {put_in(rate)}",
            critical / rate,
            "s",
        ),
    ]


def sine_steps(stress: SineStress, frequency: float, scale: float, units: UnitSystem) -> list[Step]:
    """Magnification, stress amplitude, range, and cycles n = f t of a dwell."""
    rows, unit = stress.rows, display_unit(stress.dimension, units)
    at = int(np.argmin(np.abs(rows.frequency - frequency)))
    size = scale * float(shown(1.0, stress.dimension, units))
    amplitude = size * float(rows.amplitude[at])
    steps = []
    if stress.response is not None:
        here = float(np.abs(stress.response.at(np.array([frequency])))[0])
        static = abs(stress.response.static)
        if static > 1e-9 * here:
            quiet = amplitude * static / here
            title = f"Magnification at {number(frequency)} Hz over the static stress, which is {number(quiet)} {unit}"
            magnified = amplitude / quiet
            steps.append(Step(title, "Q = |H(f)| / |H(0)|", f"{put_in(here)} / {put_in(static)}", magnified, ""))
            numbers = f"{put_in(magnified)} × {put_in(quiet)} {unit}"
            steps.append(Step("Stress amplitude", "S_a = Q × S_static", numbers, amplitude, unit))
    if rows.panel[at] < 0.0:
        time = float(rows.cycles[at] / frequency)
        numbers = f"{put_in(frequency)} × {put_in(time)}"
        title = f"Cycles of the dwell, {number(frequency)} Hz for {number(time)} s"
        steps.append(Step(title, "n = f × t", numbers, float(rows.cycles[at]), ""))
    return steps
