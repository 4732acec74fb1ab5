"""Hand calculation of a life: the cycle class that does most damage, then the sum."""

from __future__ import annotations

import numpy as np

from vivid_anvil.damage.life import LifeResult, class_edges
from vivid_anvil.damage.mean_stress import compressive_mean, mean_stress_rule
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, factor, in_unit, number, shown
from vivid_anvil.working import Step, Working, put_in


def life_working(result: LifeResult, system: UnitSystem = "metric") -> Working:
    """Numbered steps for the most damaging cycle of the most damaging class, and from the sum to the life."""
    spot, duty = result.hot_spot, result.duty_cycle
    title = f"Life of {spot.name}, worked by hand"
    if result.damage_per_repeat == 0.0:
        return Working(title, f"No cycle of {duty.repeat} does damage on the curve {result.curve.name}.", ())
    edges = class_edges(float(result.spectrum.cycles.range.max()))
    classes = result.range_classes(edges)
    worst_class = int(np.argmax([one.damage for one in classes]))
    members = np.flatnonzero(result.class_of(edges) == worst_class)
    cycle = int(members[int(np.argmax(result.damage[members]))])
    steps = [
        *_stress_steps(result, cycle, system),
        *_curve_steps(result, cycle, system),
        *_sum_steps(result, cycle, classes[worst_class].damage),
    ]
    return Working(title, _opening(result, cycle, worst_class, system), tuple(steps), _closing(result))


def _opening(result: LifeResult, cycle: int, worst_class: int, system: UnitSystem) -> str:
    chosen = result.range_classes()[worst_class]
    cycles = result.spectrum.cycles
    source = result.spectrum.sources[int(result.spectrum.event[cycle])]
    place = ""
    rate = source.cycles.sample_rate
    if cycles.start[cycle] >= 0 and rate:
        times = " and ".join(f"{number(sample / rate, 6)} s" for sample in (cycles.start[cycle], cycles.end[cycle]))
        place = f", with its turning points at {times} (samples {cycles.start[cycle]} and {cycles.end[cycle]})"
    return (
        f"Most damage, {chosen.share:.1%}, is done by the {number(chosen.cycles)} cycles per {result.duty_cycle.repeat} "
        f"with a local stress range of {in_unit(chosen.lower, 'stress', system)} to {in_unit(chosen.upper, 'stress', system)}. "
        f"The one that does most is in the event {source.name}{place}."
    )


def _stress_steps(result: LifeResult, cycle: int, system: UnitSystem) -> list[Step]:
    """From the two loads of the cycle to the local stress amplitude and mean."""
    spot, cycles, duty = result.hot_spot, result.spectrum.cycles, result.duty_cycle
    dimension = duty.dimension_of_channel(spot.channel)
    per_load = spot.nominal_factor(dimension)
    load_unit, unit = display_unit(dimension, system), display_unit("stress", system)
    in_load = factor(load_unit, DIMENSIONS[dimension]) if load_unit != "1" else 1.0
    ratio = f"{put_in(float(shown(per_load * in_load, 'stress', system)))} {unit}/{load_unit}"
    offset = put_in(float(shown(spot.offset, "stress", system)))
    kf = put_in(spot.notch_factor)
    steps, stresses = [], []
    fixed = spot.notch_factor * spot.offset
    for label, stress in (("max", cycles.maximum[cycle]), ("min", cycles.minimum[cycle])):
        load = (stress - fixed) / (spot.notch_factor * per_load) / in_load
        value = float(shown(stress, "stress", system))
        stresses.append(value)
        steps.append(
            Step(
                f"Local stress at the cycle's {label}imum",
                f"S_{label} = K_f × (s × F + S_0)",
                f"{kf} × ({ratio} × {put_in(load)} {load_unit} + {offset} {unit})",
                value,
                unit,
            )
        )
    high, low = (put_in(value) for value in stresses)
    amplitude, mean = 0.5 * (stresses[0] - stresses[1]), 0.5 * (stresses[0] + stresses[1])
    steps.append(Step("Amplitude", "S_a = (S_max - S_min) / 2", f"({high} {unit} - {low} {unit}) / 2", amplitude, unit))
    steps.append(Step("Mean", "S_m = (S_max + S_min) / 2", f"({high} {unit} + {low} {unit}) / 2", mean, unit))
    return steps


def _curve_steps(result: LifeResult, cycle: int, system: UnitSystem) -> list[Step]:
    """From amplitude and mean to the stress in the curve's terms, and to the life there."""
    spot, curve = result.hot_spot, result.curve
    unit = display_unit("stress", system)
    amplitude = float(shown(0.5 * result.spectrum.cycles.range[cycle], "stress", system))
    steps = []
    rule = mean_stress_rule(spot.mean_stress)
    if rule.needs is not None:
        strength = spot.material.needed(rule.needs, "the working")
        ultimate = float(shown(strength, "stress", system))
        mean = float(
            shown(compressive_mean(result.spectrum.cycles.mean[cycle], spot.compressive_mean), "stress", system)
        )
        counted = " (a compressive mean counts as 0)" if mean == 0.0 else ""
        reversed_amplitude = amplitude / (1.0 - mean / ultimate)
        steps.append(
            Step(
                f"Equally damaging fully reversed amplitude, rule {rule.name}{counted}",
                "S_ar = S_a / (1 - S_m / R_m)",
                f"{put_in(amplitude)} {unit} / (1 - {put_in(mean)} {unit} / {put_in(ultimate)} {unit})",
                reversed_amplitude,
                unit,
                rule.source,
            )
        )
        r = float(curve.r_ratio)
        amplitude = float(shown(result.equivalent_stress[cycle], "stress", system)) / (
            2.0 if curve.stress == "range" else 1.0
        )
        if r != -1.0:
            steps.append(
                Step(
                    f"The same at the R of the curve, {r:g}",
                    "S_aR = S_ar / (1 + S_ar × (1 + R) / ((1 - R) × R_m))",
                    f"{put_in(reversed_amplitude)} {unit} / (1 + {put_in(reversed_amplitude)} {unit} × (1 + {put_in(r)}) "
                    f"/ ((1 - {put_in(r)}) × {put_in(ultimate)} {unit}))",
                    amplitude,
                    unit,
                )
            )
    stress = float(shown(result.equivalent_stress[cycle], "stress", system))
    if curve.stress == "range":
        steps.append(Step("The curve is in ranges", "ΔS = 2 × S_a", f"2 × {put_in(amplitude)} {unit}", stress, unit))
    knee = float(shown(curve.knee_stress, "stress", system))
    above = stress >= knee
    slope = curve.slope if above else curve.slope_below
    symbol = "ΔS" if curve.stress == "range" else "S_a"
    steps.append(
        Step(
            f"Life on the S-N curve {curve.name}, {'above' if above else 'below'} its knee",
            f"N = N_k × ({symbol}_k / {symbol})^m",
            f"{put_in(curve.knee_life)} cycles × ({put_in(knee)} {unit} / {put_in(stress)} {unit})^{put_in(slope)}",
            float(curve.life(result.equivalent_stress[cycle])),
            "cycles",
            "Basquin 1910",
        )
    )
    return steps


def _sum_steps(result: LifeResult, cycle: int, class_damage: float) -> list[Step]:
    """Damage of the cycle, share of its class, sum, life."""
    spot, duty = result.hot_spot, result.duty_cycle
    life = float(result.curve.life(result.equivalent_stress[cycle]))
    total, often = result.damage_per_repeat, float(result.spectrum.per_repeat[cycle])
    return [
        Step(
            "Damage of one such cycle", "d = 1 / N", f"1 / {put_in(life)}", 1.0 / life, "", "Palmgren 1924, Miner 1945"
        ),
        Step(
            f"Damage of this cycle in one {duty.repeat}, in which it happens {number(often, 6)} times",
            "D_cycle = n × d",
            f"{put_in(often)} × {put_in(1.0 / life)}",
            often / life,
            "",
        ),
        Step(
            f"The cycles of the class together, summed in the same way, as a share of the damage of one {duty.repeat}",
            "p = D_class / D",
            f"{put_in(class_damage)} / {put_in(total)}",
            class_damage / total,
            "",
        ),
        Step(
            f"Life: the damage of all classes of one {duty.repeat} fills the critical sum",
            "L = D_c / D",
            f"{put_in(spot.critical_sum)} / {put_in(total)}",
            result.life_repeats,
            f"{duty.repeat}s",
        ),
        Step(
            "In years",
            "L_years = L / repeats per year",
            f"{put_in(result.life_repeats)} / {put_in(duty.repeats_per_year)}",
            result.life_years,
            "years",
        ),
    ]


def _closing(result: LifeResult) -> str:
    if result.target_repeats is None or result.reserve_on_stress is None:
        return ""
    repeat = result.duty_cycle.repeat
    return (
        f"Target: {number(result.target_repeats)} {repeat}s. Reserve factor on life "
        f"{number(result.reserve_on_life or 0.0)}; all loads times {number(result.reserve_on_stress)} would just meet it "
        "(solved with the whole spectrum)."
    )
