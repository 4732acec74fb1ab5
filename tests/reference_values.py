"""The reference cases, and what this package gives for each: one table for the tests and for docs/verification.md.

A method is a row: which cases, what it is called in the docs, and a function from a case's inputs to the values that
the case expects, under the same names.
"""

from __future__ import annotations

import dataclasses
import json
import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from tests.left_out import LEFT_OUT, ROWS_LEFT_OUT
from tests.spots import hot_spot
from vivid_anvil.counting import (
    Cycles,
    cycle_matrix,
    level_crossings,
    peaks,
    peaks_between_crossings,
    rainflow,
    range_pair,
    simple_range,
    turning_points,
)
from vivid_anvil.damage import (
    assess_life,
    damage_curve,
    double_linear_blocks,
    double_linear_phases,
    double_linear_remaining,
    power_rule,
)
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, worst_case_pairs
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import (
    critical_sizes,
    growth_drive,
    growth_per_repeat,
    integrate_growth,
    size_after,
    threshold_sizes,
)
from vivid_anvil.materials import (
    MEAN_STRESS_RULES,
    SENSITIVITIES,
    GrowthLaw,
    Material,
    ParisLaw,
    SNCurve,
    SpecimenSeries,
    at_survival,
    basquin_curve,
    detail_curve,
    equivalent_amplitude,
    estimate_curve,
    estimated_sensitivity,
    fit_likelihood,
    fit_line,
    in_terms_of,
    knee_curve,
    staircase,
    straight_curve,
    table_curve,
    thickness_factor,
    tolerance_of_lives,
    with_stress_factor,
)
from vivid_anvil.shapes import CentreCrack, EdgeCrack, stress_intensity
from vivid_anvil.stress import HotSpot
from vivid_anvil.writing.working import Step

FOLDER = Path(__file__).parent / "reference"
Values = dict[str, Any]


@dataclass(frozen=True)
class Method:
    """What is verified: its name, the pattern of the case ids, our values for the inputs of such a case."""

    name: str
    cases: str
    values: Callable[[Values], Values]


def cases(pattern: str) -> list[Values]:
    """The cases of all files whose id matches `pattern` as a whole."""
    everything = [case for file in sorted(FOLDER.glob("*.json")) for case in json.loads(file.read_text())["cases"]]
    return [case for case in everything if re.fullmatch(pattern, case["id"])]


def as_numbers(value: Any) -> Any:
    """Expected values with "inf" as a number and null kept."""
    if isinstance(value, list):
        return [as_numbers(item) for item in value]
    return math.inf if value == "inf" else value


def flat(value: Any) -> list[Any]:
    """All numbers and texts in a value, in their order."""
    if isinstance(value, dict):
        return [leaf for item in value.values() for leaf in flat(item)]
    if isinstance(value, np.ndarray) and value.ndim == 0:
        return [value.item()]
    if isinstance(value, list | tuple | np.ndarray):
        return [leaf for item in value for leaf in flat(item)]
    return [value.item() if isinstance(value, np.generic) else value]


def compared(method: Method, case: Values) -> list[tuple[str, Any, Any]]:
    """Name, reference value and our value of every number and word of the case, but those left out on purpose."""
    ours = method.values(case["inputs"])
    rows = []
    for name, value in case["expected"].items():
        if name not in ours:
            assert name in LEFT_OUT.get(method.name, {}), f"{method.name}: {name} is not compared"
            continue
        expected, got = as_numbers(value), ours[name]
        if isinstance(got, np.ndarray) and got.dtype.kind == "c":  # [real, imaginary] is one number
            expected = np.asarray(expected) @ [1.0, 1j]
        if isinstance(expected, dict):
            for key in set(expected) - set(got):
                assert f"{name}/{key}" in LEFT_OUT.get(method.name, {}), f"{method.name}: {name}/{key} is not compared"
            expected = {key: expected[key] for key in got}
        whole = (method.name, name) not in ROWS_LEFT_OUT
        rows += [(name, one, other) for one, other in zip(flat(expected), flat(got), strict=whole)]
    assert not set(ours) - set(case["expected"])
    return rows


def deviation(wanted: Any, got: Any) -> float:
    """Relative deviation of a number; 0 or inf where words, True, False or None agree or not."""
    if isinstance(wanted, bool | str | None) or got is None or wanted == got:
        return 0.0 if wanted == got else math.inf
    return abs(got / wanted - 1.0) if wanted else abs(got)


# ---- counting ----------------------------------------------------------------------------------------------------


def _turning_points(inputs: Values) -> Values:
    signal = np.array(inputs["signal_MPa"])
    index = turning_points(signal)
    return {"turning_points_MPa": signal[index], "indices": index}


def summed(cycles: Cycles) -> list[list[float]]:
    """Counts by range and mean, the largest range first, as the cases list them."""
    counts: dict[tuple[float, float], float] = {}
    for key in zip(cycles.range.round(9).tolist(), cycles.mean.round(9).tolist(), cycles.count.tolist(), strict=True):
        counts[key[:2]] = counts.get(key[:2], 0.0) + key[2]
    return [[*key, counts[key]] for key in sorted(counts, key=lambda key: (-key[0], key[1]))]


def _rainflow(inputs: Values) -> Values:
    signal = inputs["signal_MPa"]
    return {
        "half_cycles_by_range_and_mean": summed(rainflow(signal)),
        "repeated_by_range_and_mean": summed(rainflow(signal, residue="repeated")),
    }


def _digest(cycles: Cycles) -> Values:
    return {  # which of equal ranges close as full cycles is open: only the sums are compared
        "sum_count": cycles.total,
        "max_range_MPa": cycles.range.max(),
        "sum_count_range^3": (cycles.count * cycles.range**3).sum(),
        "sum_count_range^5": (cycles.count * cycles.range**5).sum(),
        "sum_count_range_mean": (cycles.count * cycles.range * cycles.mean).sum(),
    }


RANDOM_SIGNALS = {
    101: lambda: np.random.default_rng(101).standard_normal(2000) * 60.0,
    102: lambda: np.cumsum(np.random.default_rng(102).standard_normal(3000)) * 4.0,
    103: lambda: np.random.default_rng(103).integers(-25, 26, 2500).astype(float),
}


def _random(inputs: Values) -> Values:
    seed = int(re.search(r"default_rng\((\d+)\)", inputs["how"])[1])
    signal = RANDOM_SIGNALS[seed]()
    return {
        "turning_points": turning_points(signal).size,
        "half_cycles": _digest(rainflow(signal)),
        "repeated": _digest(rainflow(signal, residue="repeated")),
    }


def _invariants(inputs: Values) -> Values:
    open_count = rainflow(inputs["signal_MPa"])
    repeated = rainflow(inputs["signal_MPa"], residue="repeated")
    return {
        "sum_2_range_count_half_cycles_MPa": (2.0 * open_count.range * open_count.count).sum(),
        "sum_2_range_count_repeated_MPa": (2.0 * repeated.range * repeated.count).sum(),
        "total_variation_open_MPa": np.abs(np.diff(turning_values(inputs))).sum(),
        "total_variation_closed_MPa": np.abs(np.diff(turning_values(inputs), append=inputs["signal_MPa"][0])).sum(),
        "largest_range_MPa": repeated.range.max(),
    }


def turning_values(inputs: Values) -> np.ndarray:
    """The signal at its turning points."""
    signal = np.array(inputs["signal_MPa"])
    return signal[turning_points(signal)]


def _simple_range(inputs: Values) -> Values:
    found = simple_range(inputs["signal_MPa"])
    ranges = sorted(set(found.range.tolist()), reverse=True)
    counts = [[size, float(found.count[found.range == size].sum())] for size in ranges]
    return {"by_range_and_mean": summed(found), "count_by_range": counts}


def _range_pair(inputs: Values) -> Values:
    return {"cycles_range_mean_count": summed(range_pair(inputs["signal_MPa"]))}


def _peaks(method: Callable[..., Any]) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        found = method(inputs["signal_MPa"], inputs["reference_MPa"])
        return {"peaks_MPa": found.peaks, "valleys_MPa": found.valleys}

    return values


def _levels(inputs: Values) -> Values:
    return {"counts": level_crossings(inputs["signal_MPa"], inputs["levels_MPa"], inputs["reference_MPa"])}


def _matrix(inputs: Values) -> Values:
    def counts(residue: str) -> Any:
        cycles = rainflow(inputs["signal_MPa"], residue=residue)
        edges = {"row_edges": inputs["range_edges_MPa"], "column_edges": inputs["mean_edges_MPa"]}
        return cycle_matrix(cycles, "range-mean", **edges).counts

    return {"counts_rows_range_columns_mean": counts("half cycles"), "counts_with_repeated_history": counts("repeated")}


# ---- S-N curves, mean stress, damage -----------------------------------------------------------------------------


def _straight(inputs: Values) -> Values:
    stress = "range" if "stress_range_ref_MPa" in inputs else "amplitude"
    line = straight_curve(
        name="case",
        stress=stress,
        r_ratio="any",
        point_stress=inputs[f"stress_{stress}_ref_MPa"],
        point_life=inputs["life_ref"],
        slope=inputs["slope_m"],
    )
    constant = float(line.life(1.0))  # A of N S^m = A, with S in MPa
    values: Values = {"life": line.life(inputs[f"stress_{stress}_MPa"])}
    if stress == "range":
        return values | {"A": constant}
    return values | {
        "A_amplitude": constant,
        "A_range_over_A_amplitude": float(in_terms_of(line, "range").life(1.0)) / constant,
    }


def _knee(inputs: Values) -> Values:
    stress = "range" if "knee_range_MPa" in inputs else "amplitude"
    curve = knee_curve(
        name="case",
        stress=stress,
        r_ratio="any",
        knee_stress=inputs[f"knee_{stress}_MPa"],
        knee_life=inputs["knee_life"],
        slope=inputs["slope_above"],
        slope_below=float(inputs["slope_below"]),
    )
    return {"life": curve.life(inputs[f"stress_{stress}_MPa"])}


def _basquin(inputs: Values) -> Values:
    curve = basquin_curve(
        name="case",
        stress="amplitude",
        r_ratio=-1.0,
        coefficient=inputs["fatigue_strength_coefficient_MPa"],
        exponent=inputs["exponent_b"],
        counted_in="reversals",
    )
    slope = float(curve.segments.rate[0])
    intercept = curve.points[0][1] * curve.points[0][0] ** slope
    return {"life": curve.life(inputs["stress_amplitude_MPa"]), "slope_m": slope, "A_amplitude": intercept}


def _table_of_points(inputs: Values) -> Values:
    curve = table_curve(
        name="case",
        stress="range",
        r_ratio="any",
        points=inputs["points_stress_range_MPa_life"],
        above=inputs["above"],
        below={"infinite": "no damage"}.get(inputs["below"], inputs["below"]),
        interpolation=inputs["interpolation"],
    )
    return {"life": curve.life(inputs["stress_range_MPa"])}


def _thickness(inputs: Values) -> Values:
    factors = [
        thickness_factor(size, inputs["reference_thickness_mm"], inputs["exponent_k"])
        for size in inputs["thickness_mm"]
    ]
    return {
        "stress_range_corrected_MPa": [inputs["stress_range_MPa"] / one for one in factors],
        "life_factor": [one ** inputs["slope_m"] for one in factors],
    }


def _en_1993(component: str) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        settings = {"component": component, "partial_factor": inputs["gamma_Mf"]}
        try:
            curve = detail_curve("EN 1993-1-9", inputs["detail_category_MPa"], **settings)
        except InputError:  # the standard has no shear category 71: its formula is that of 100, scaled
            hundred = detail_curve("EN 1993-1-9", 100, component=component, partial_factor=inputs["gamma_Mf"])
            step = Step("scaled", "f = C / 100", "", inputs["detail_category_MPa"] / 100.0, "")
            curve = with_stress_factor(hundred, inputs["detail_category_MPa"] / 100.0, step)
        limits = [stress * inputs["gamma_Mf"] for stress, _ in curve.points]  # before the partial factor
        found = {"life": curve.life(inputs["stress_range_MPa"]), "cutoff_limit_MPa": limits[-1]}
        if component == "normal":
            found["constant_amplitude_limit_MPa"] = limits[0]
            found["limit_over_category"] = limits[0] / inputs["detail_category_MPa"]
            found["cutoff_over_limit"] = limits[1] / limits[0]
        return found

    return values


def _iiw(inputs: Values) -> Values:
    curve = detail_curve("IIW steel", inputs["fat_MPa"], loading=inputs["loading"])
    return {"knee_range_MPa": curve.points[0][0], "life": curve.life(inputs["stress_range_MPa"])}


def _survival(inputs: Values) -> Values:
    median = straight_curve(
        name="case",
        stress="range",
        r_ratio="any",
        point_stress=100.0,
        point_life=inputs["life_at_50_percent"],
        slope=4.0,
        survival_probability=0.5,
        log_life_std=inputs["log10_life_std"],
    )
    return {"life": [at_survival(median, share).life(100.0) for share in inputs["survival"]]}


def _tolerance(inputs: Values) -> Values:
    found = tolerance_of_lives(inputs["life"], inputs["survival"], inputs["confidence"])
    return {
        "mean_log10_life": found.mean_log_life,
        "std_log10_life": found.std_log_life,
        "tolerance_factor": found.tolerance_factor,
        "life_limit": found.life_limit,
    }


def series_of(inputs: Values) -> SpecimenSeries:
    """The tests of a case."""
    kind = "amplitude" if "stress_amplitude_MPa" in inputs else "range"
    stresses = next(inputs[key] for key in (f"stress_{kind}_MPa", "strain_amplitude") if key in inputs)
    size = len(stresses)
    return SpecimenSeries(
        name="case",
        stress=kind,
        r_ratio=-1.0,
        stresses=stresses,
        lives=inputs.get("life", [1e7] * size),
        failed=inputs.get("failed", [True] * size),
    )


def _tolerance_line(inputs: Values) -> Values:
    fit, stress = fit_line(series_of(inputs)), inputs["at_stress_range_MPa"]
    limits = inputs["survival"], inputs["confidence"]
    return {
        "leverage": fit.leverage(stress),
        "tolerance_factor": fit.tolerance_factor(stress, *limits),
        "life_limit": fit.life(stress, *limits),
    }


def _estimate(inputs: Values) -> Values:
    share = inputs["fraction_at_1e3"]
    found = estimate_curve(
        "steel",
        ultimate_strength=inputs["ultimate_strength_MPa"],
        surface=inputs["surface"],
        loading=inputs["loading"],
        size=inputs["diameter_mm"],
        temperature=inputs["temperature_C"],
        temperature_rule=inputs["temperature_rule"],
        survival_probability=inputs["survival"],
        fraction_at_1e3=None if share == "fit" else share,
    )
    return {
        **dict(zip(("ka", "kb", "kc", "kd", "ke"), found.factors.values(), strict=True)),
        "endurance_limit_uncorrected_MPa": found.uncorrected_limit,
        "endurance_limit_MPa": found.limit,
        "f": found.fraction_at_1e3,
        "strength_at_1e3_MPa": found.strength_at_1e3,
        "slope_m": found.slope,
        "life": found.curve.life(inputs["stress_amplitude_MPa"]),
    }


def _regression(inputs: Values) -> Values:
    fit = fit_line(series_of(inputs))
    place = 0.00179 if "strain_amplitude" in inputs else 210.0
    lower, upper = fit.band(place)
    low, high = fit.slope_interval()
    found = {
        "A": fit.intercept,
        "B": -fit.slope,
        "slope_m": fit.slope,
        "variance_log10_life": fit.variance,
        "A_confidence_95": fit.intercept_interval(),
        "B_confidence_95": [-high, -low],
        "band_95_half_width_log10_life_at": [place, 0.5 * math.log10(upper / lower)],
    }
    linear = fit.linearity()
    if "stress_range_MPa" in inputs:
        found |= {"linearity_F": linear.value, "linearity_F_critical_95": linear.critical}
    return found


def _runouts(inputs: Values) -> Values:
    fit = fit_likelihood(series_of(inputs))
    return {
        "intercept": fit.intercept,
        "slope_m": fit.slope,
        "log10_std": fit.std,
        "log_likelihood": fit.log_likelihood,
    }


def _staircase(inputs: Values) -> Values:
    found = staircase(series_of(inputs)).dixon_mood
    return {
        "event": found.event,
        "F": found.F,
        "A": found.A,
        "B": found.B,
        "spread": found.spread,
        "mean_MPa": found.mean,
        "std_MPa": found.std,
    }


# The rules of the cases by our names, and what the case calls the value that each needs.
RULES = {
    "goodman": ("goodman", "ultimate_strength", "strength_MPa"),
    "gerber": ("gerber", "ultimate_strength", "strength_MPa"),
    "soderberg": ("soderberg", "yield_strength", "strength_MPa"),
    "elliptic": ("elliptic", "yield_strength", "strength_MPa"),
    "morrow": ("morrow", "true_fracture_strength", "strength_MPa"),
    "swt": ("smith-watson-topper", "", ""),
    "walker": ("walker", "walker_exponent", "gamma"),
    "fkm": ("sensitivity", "mean_stress_sensitivity", "M"),
}


def rule_settings(name: str, inputs: Values) -> Values:
    """Rule and value of a case; compression as the formula has it, where it has a meaning there."""
    rule, needs, key = RULES[name]
    compressive = "credited" if MEAN_STRESS_RULES[rule].in_compression else "ignored"
    return {"rule": rule, "compressive": compressive, **({needs: inputs[key]} if needs else {})}


def _mean_stress(name: str) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        settings = rule_settings(name, inputs)
        amplitude, mean = inputs["stress_amplitude_MPa"], inputs["mean_stress_MPa"]
        rows = [equivalent_amplitude(amplitude, mean, r_ratio=r, **settings) for r in inputs.get("target_R", [-1.0])]
        if "target_R" in inputs:
            return {"amplitude_MPa_rows_input_columns_R": np.transpose(rows)}
        return {"fully_reversed_amplitude_MPa": rows[0]}

    return values


def _undefined(inputs: Values) -> Values:
    try:
        equivalent_amplitude(
            inputs["stress_amplitude_MPa"], inputs["mean_stress_MPa"], **rule_settings(inputs["rule"], inputs)
        )
    except InputError:
        return {"error": "mean at or above the strength"}
    return {"error": "a value"}


def _sensitivity(inputs: Values) -> Values:
    group = next(name for name, row in SENSITIVITIES.items() if row == (inputs["a_M"], inputs["b_M"]))
    return {"M": estimated_sensitivity(group, inputs["ultimate_strength_MPa"])}


def block_spot(curve: SNCurve, **settings: Any) -> HotSpot:
    """A hot spot whose channel is the stress itself."""
    steel = Material(name="steel", ultimate_strength=settings.pop("ultimate_strength", 1000.0))
    return hot_spot(name="case", channel="stress", stress_per_load=1.0, curve=curve, material=steel, **settings)


def block_event(name: str, amplitude: float, mean: float, cycles: float, occurrences: float = 1.0) -> Event:
    """An event of constant amplitude on the channel "stress"."""
    load = ConstantAmplitude("stress", mean + amplitude, mean - amplitude, cycles, "stress")
    return Event(name, load, occurrences)


def _miner(inputs: Values) -> Values:
    curve = knee_curve(
        name="case",
        stress="amplitude",
        r_ratio=-1.0,
        knee_stress=inputs["knee_amplitude_MPa"],
        knee_life=inputs["knee_life"],
        slope=inputs["slope_k"],
        slope_below=float(inputs["slope_below_knee"]),
    )
    blocks = zip(inputs["block_amplitude_MPa"], inputs["block_cycles"], strict=True)
    events = [block_event(f"block {i}", amplitude, 0.0, cycles) for i, (amplitude, cycles) in enumerate(blocks)]
    life = assess_life(block_spot(curve, critical_sum=inputs["critical_sum"]), DutyCycle("block", events, 1.0))
    return {
        "damage_per_block": [event.damage for event in life.events],
        "damage": life.damage_per_repeat,
        "share": [event.share for event in life.events],
        "life_repeats": life.life_repeats,
    }


def _duty(inputs: Values) -> Values:
    curve = straight_curve(
        name="case",
        stress="range",
        r_ratio="any",
        point_stress=1.0,
        point_life=inputs["A_range"],
        slope=inputs["slope_m"],
    )
    parts = [
        (event["name"], block_event(f"{event['name']} {i}", 0.5 * size, 0.0, count, event["occurrences"]))
        for event in inputs["events"]
        for i, (size, count) in enumerate(event["cycles_range_MPa_count"])
    ]
    life = assess_life(
        block_spot(curve, critical_sum=inputs["critical_sum"]), DutyCycle("lap", [part for _, part in parts], 1.0)
    )
    names = [name for name, _ in parts]
    damage = [
        sum(one.damage for one, of in zip(life.events, names, strict=True) if of == name)
        for name in dict.fromkeys(names)
    ]
    return {
        "damage_per_event": damage,
        "share": [one / life.damage_per_repeat for one in damage],
        "damage_per_repeat": life.damage_per_repeat,
        "life_repeats": life.life_repeats,
    }


def _equivalent(inputs: Values) -> Values:
    """The curve of the slope, and as many cycles as the reference asks about."""
    line = straight_curve(
        name="case", stress="range", r_ratio="any", point_stress=100.0, point_life=1e6, slope=inputs["slope_m"]
    )
    blocks = zip(inputs["stress_range_MPa"], inputs["cycles"], strict=True)
    events = [block_event(f"block {i}", 0.5 * size, 0.0, cycles) for i, (size, cycles) in enumerate(blocks)]
    life = assess_life(block_spot(line), DutyCycle("block", events, 1.0))
    return {"equivalent_range_MPa": life.damage_equivalent_stress(inputs["reference_cycles"], repeats=1.0)}


def _power_rule(inputs: Values) -> Values:
    damage = power_rule(inputs["life_fractions"], inputs["exponents"])
    left = 1.0 - float(damage[-1]) ** (1.0 / inputs["exponents"][-1])
    return {"damage_after_each_level": damage, "remaining_fraction_at_last_level": left}


def _two_levels(inputs: Values) -> Values:
    lives = [inputs["life_first_level"], inputs["life_second_level"]]
    fractions = inputs["fraction_at_first_level"]
    phases = double_linear_phases(lives)
    return {
        "damage_curve_remaining_fraction": [1.0 - damage_curve([one, 0.0], lives)[1] for one in fractions],
        "double_linear_phase_I_lives": phases.first,
        "double_linear_phase_II_lives": phases.second,
        "double_linear_remaining_fraction": [double_linear_remaining(one, *lives) for one in fractions],
    }


def _double_linear_blocks(inputs: Values) -> Values:
    phases = double_linear_phases(inputs["life"])
    return {
        "phase_I_lives": phases.first,
        "phase_II_lives": phases.second,
        "blocks_to_failure": double_linear_blocks(inputs["cycles_per_block"], inputs["life"]),
    }


def _damage_curve(inputs: Values) -> Values:
    return {"fraction_after_each_level": damage_curve(inputs["fraction_at_level"], inputs["life"])}


def _pairs(inputs: Values) -> Values:
    rows = worst_case_pairs([tuple(row) for row in inputs["events_max_MPa_min_MPa_occurrences"]])
    found = [[high, low, high - low, *rest] for high, low, *rest in rows]
    return {"cycles_max_min_range_count_event-of-max_event-of-min": found}


def _reserve(inputs: Values) -> Values:
    """A fatigue limit turns 'the amplitude reaches the allowable' into 'the first damage'; a fixed mean is an offset."""
    curve = knee_curve(
        name="case",
        stress="amplitude",
        r_ratio=-1.0,
        knee_stress=inputs["allowable_fully_reversed_amplitude_MPa"],
        knee_life=1e6,
        slope=5.0,
        slope_below=math.inf,
    )
    rule, needs, key = RULES[inputs["rule"]]
    steel = Material(name="steel", **({needs: inputs[key]} if needs else {}))
    found = {}
    for name, mean, offset in (
        ("proportional", inputs["mean_stress_MPa"], 0.0),
        ("mean_held_constant", 0.0, inputs["mean_stress_MPa"]),
    ):
        event = block_event("block", inputs["stress_amplitude_MPa"], mean, 1e4)
        spot = hot_spot(
            name="case",
            channel="stress",
            stress_per_load=1.0,
            curve=curve,
            material=steel,
            mean_stress=rule,
            offset=offset,
        )
        found[name] = assess_life(spot, DutyCycle("block", [event], 1.0), target=1e6).reserve_on_stress
    return found


# ---- cracks ------------------------------------------------------------------------------------------------------


def repeat_of(rows: list[list[float]]) -> Cycles:
    """One repeat made of rows (cycles, largest, smallest stress)."""
    count, high, low = np.array(rows, dtype=float).T
    cycles = Cycles(range=high - low, mean=0.5 * (high + low), count=count)
    return dataclasses.replace(cycles, per_repeat=count, lowest=float(low.min()), highest=float(high.max()))


def law_of(inputs: Values) -> GrowthLaw:
    """The Paris law of a case."""
    return ParisLaw(name="case", rate=inputs["C"], slope=inputs["m"], threshold=inputs.get("dKth_MPa_sqrt_mm", 0.0))


def shape_of(inputs: Values, kind: type) -> Any:
    """The crack shape of a case."""
    return kind(inputs["W_mm"])


def _intensity(kind: type) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        shape, sizes = shape_of(inputs, kind), np.array(inputs["a_mm"], dtype=float)
        inside = sizes <= shape.largest_size
        k = stress_intensity(shape, sizes[inside], inputs["S_MPa"])
        return {"Y": shape.geometry_factor(sizes[inside]), "K_MPa_sqrt_mm": k}

    return values


def _exact_edge(inputs: Values) -> Values:
    return {"Y": EdgeCrack(1.0).geometry_factor(inputs["a_over_W"])}


def _net_edge(inputs: Values) -> Values:
    """The free end, tension only; the cases with bending and with restraint are not this shape."""
    found = [
        float(EdgeCrack(width).net_section_stress(size, tension))
        for tension, bending, size, width in inputs["Pm_Pb_a_W"]
        if bending == 0
    ]
    return {"sref_free_MPa": found}


def _paris(inputs: Values) -> Values:
    return {"dadN_mm_per_cycle": law_of(inputs).growth(inputs["dK_MPa_sqrt_mm"])}


class _ConstantFactor(CentreCrack):
    """Y = constant, as closed forms have it: a shape of the user's own."""

    factor = 1.0
    largest_size = 1e9

    def geometry_factor(self, size: Any) -> np.ndarray:
        return np.full_like(np.asarray(size, dtype=float), self.factor)


def constant_factor(factor: float, width: float = 1e9) -> CentreCrack:
    """A crack of that factor at every size."""
    shape = _ConstantFactor(width)
    object.__setattr__(shape, "factor", factor)
    object.__setattr__(shape, "largest_size", width)
    return shape


def _constant_factor(inputs: Values) -> Values:
    shape = constant_factor(inputs["Y"])
    growth = growth_per_repeat(growth_drive(repeat_of([[1, inputs["dS_MPa"], 0.0]])), shape, law_of(inputs))
    return {"N_cycles": integrate_growth(growth, inputs["a0_mm"], inputs["af_mm"]).repeats[-1]}


def _edge_life(inputs: Values) -> Values:
    shape, law = shape_of(inputs, EdgeCrack), law_of(inputs)
    drive = growth_drive(repeat_of([[1, inputs["dS_MPa"], 0.0]]))
    k = float(stress_intensity(shape, inputs["a0_mm"], inputs["dS_MPa"]))
    growth = growth_per_repeat(drive, shape, law)
    if float(growth(inputs["a0_mm"])) == 0.0:
        return {"dK_start_MPa_sqrt_mm": k, "grows": False, "N_cycles": None}
    return {
        "dK_start_MPa_sqrt_mm": k,
        "N_cycles": integrate_growth(growth, inputs["a0_mm"], inputs["af_mm"]).repeats[-1],
    }


def _table(inputs: Values, repeat: Cycles, start: float, end: float, part: str = "full") -> tuple[Any, Any]:
    shape, law, drive = shape_of(inputs, CentreCrack), law_of(inputs), growth_drive(repeat, part)
    growth = growth_per_repeat(drive, shape, law)
    return integrate_growth(growth, start, end, threshold_sizes(drive, shape, law, start, end)), growth


def _part(inputs: Values) -> str:
    return "tensile" if inputs["tensile_part_only"] else "full"


def _blocks(inputs: Values) -> Values:
    repeat = repeat_of(inputs["block_n_Smax_Smin"])
    table, _ = _table(inputs, repeat, inputs["a0_mm"], inputs["af_mm"], _part(inputs))
    return {"blocks": table.repeats[-1], "cycles": table.repeats[-1] * repeat.per_repeat.sum()}


def _converged_step(inputs: Values) -> Values:
    repeat = repeat_of(inputs["block_n_Smax_Smin"])
    table, growth = _table(inputs, repeat, inputs["a0_mm"], 30.0, _part(inputs))
    return {"a_converged_mm": size_after(table, growth, inputs["blocks"])}


def _years(inputs: Values) -> Values:
    repeat = repeat_of([[n, size, 0.0] for size, n in inputs["range_MPa_n_per_year"]])
    table, growth = _table(inputs, repeat, inputs["a0_mm"], inputs["af_mm"])
    return {
        "growth_first_year_rate_mm_per_year": float(growth(inputs["a0_mm"])),
        "a_after_years_mm": size_after(table, growth, inputs["years"]),
        "life_to_af_years": table.repeats[-1],
    }


def _interval(inputs: Values) -> Values:
    repeat = repeat_of([[n, size, 0.0] for size, n in inputs["range_MPa_n_per_year"]])
    steel = Material(name="case", toughness=inputs["K_IC_MPa_sqrt_mm"], yield_strength=1e4)
    critical = critical_sizes(shape_of(inputs, CentreCrack), steel, inputs["Smax_MPa"]).limiting
    table, _ = _table(inputs, repeat, inputs["a_detect_mm"], critical)
    life = table.repeats[-1]
    return {"a_crit_mm": critical, "life_years": life, "interval_years": life / inputs["factor"]}


def _critical(inputs: Values) -> Values:
    flow = inputs.get("s_flow_MPa", 1e4)
    steel = Material(name="case", toughness=inputs["K_IC_MPa_sqrt_mm"], yield_strength=flow)
    kind = CentreCrack if "s_flow_MPa" in inputs else EdgeCrack
    found = critical_sizes(shape_of(inputs, kind), steel, inputs["Smax_MPa"])
    values = {"a_crit_mm": found.limiting}
    if "s_flow_MPa" in inputs:
        values |= {
            "governed_by": found.governed_by.replace("-section yield", " section"),
            "a_net_section_mm": found.net_section,
        }
        if found.toughness is not None:  # beyond the validity of the secant factor no size is given
            values["a_toughness_mm"] = found.toughness
    return values


METHODS = (
    Method("Turning points", r"SL-A-turning-\d+", _turning_points),
    Method("Rainflow, half cycles and repeated history", r"SL-A-rainflow-\d+", _rainflow),
    Method("Rainflow of random signals", r"SL-A-random-\d+", _random),
    Method("Rainflow, invariants", r"SL-A-invariants-\d+", _invariants),
    Method("Simple-range counting", r"SL-A-simple-range-\d+", _simple_range),
    Method("Range-pair counting", r"SL-A-range-pair-\d+", _range_pair),
    Method("Peak counting", r"SL-A-peaks-\d+", _peaks(peaks)),
    Method("Peak counting between crossings", r"SL-A-peaks-crossing-\d+", _peaks(peaks_between_crossings)),
    Method("Level-crossing counting", r"SL-A-levels-\d+", _levels),
    Method("Range-mean matrix", r"SL-A-matrix-01", _matrix),
    Method("S-N curve, one slope", r"SL-B-single(-amplitude)?-\d+", _straight),
    Method("S-N curve with a knee", r"SL-B-knee-\d+", _knee),
    Method("S-N curve, Basquin's coefficient and exponent", r"SL-B-basquin-\d+", _basquin),
    Method("S-N curve, table of points", r"SL-B-table-.*", _table_of_points),
    Method("Thickness", r"SL-B-thickness-\d+", _thickness),
    Method("Detail categories, direct stress", r"SL-B-en1993-\d+", _en_1993("normal")),
    Method("Detail categories, shear", r"SL-B-en1993-shear-\d+", _en_1993("shear")),
    Method("IIW classes, constant and variable amplitude", r"SL-B-iiw-.*", _iiw),
    Method("Survival probability of a curve", r"SL-B-survival-\d+", _survival),
    Method("Tolerance limit at one stress", r"SL-B-tolerance-\d+", _tolerance),
    Method("Tolerance limit of a fitted line", r"SL-B-tolerance-line-\d+", _tolerance_line),
    Method("Estimate from tensile strength, steel", r"SL-B-steel-\d+", _estimate),
    Method("Regression of tests", r"SL-B-fit-e739-\d+", _regression),
    Method("Maximum likelihood with run-outs", r"SL-B-fit-runouts-\d+", _runouts),
    Method("Staircase, Dixon and Mood", r"SL-B-staircase-\d+", _staircase),
    *(
        Method(f"Mean stress, {rule[0]}", rf"SL-C-{name}-\d+(-any-R)?", _mean_stress(name))
        for name, rule in RULES.items()
    ),
    Method("Mean stress, no value at the strength", r"SL-C-undefined-\d+", _undefined),
    Method("Mean-stress sensitivity from strength", r"SL-C-fkm-M-\d+", _sensitivity),
    Method("Linear damage of a block programme", r"SL-D-miner-.*", _miner),
    Method("Linear damage of a duty cycle", r"SL-D-duty-\d+", _duty),
    Method("Damage-equivalent range", r"SL-D-equivalent-\d+", _equivalent),
    Method("Power rule", r"SL-D-marco-starkey-\d+", _power_rule),
    Method("Damage curve and double linear rule, two levels", r"SL-D-manson-halford-\d+", _two_levels),
    Method("Double linear rule, repeated block", r"SL-D-double-linear-blocks-\d+", _double_linear_blocks),
    Method("Damage curve, sequence", r"SL-D-damage-curve-sequence-\d+", _damage_curve),
    Method("Events in unknown order, worst case", r"SL-D-events-\d+", _pairs),
    Method("Reserve factor on stress, solved", r"SL-C-reserve-\d+", _reserve),
    Method("Stress intensity, centre crack", r"A-centre-feddersen-1", _intensity(CentreCrack)),
    Method("Stress intensity, edge crack", r"A-edge-tension-tada-1", _intensity(EdgeCrack)),
    Method("Stress intensity, edge crack, against exact values", r"A-exact-edge-tension-1", _exact_edge),
    Method("Net section of an edge crack", r"D-sref-edge-1", _net_edge),
    Method("Growth law, Paris with threshold", r"B-paris(-threshold)?-1", _paris),
    Method("Growth integral against the closed form", r"C-constant-Y-\d+", _constant_factor),
    Method("Growth of an edge crack", r"C-edge-threshold-1|C-no-growth-1", _edge_life),
    Method("Growth through a block programme", r"C-block-programme-\d+", _blocks),
    Method("Size after a number of repeats", r"C-block-step-error-1", _converged_step),
    Method("Growth under a spectrum per year", r"C-histogram-years-1", _years),
    Method("Inspection interval", r"C-inspection-interval-1", _interval),
    Method("Critical size", r"C-critical-(centre-\d+|edge-1)", _critical),
)
