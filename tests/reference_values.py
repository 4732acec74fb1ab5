"""The reference cases, and what this package gives for each: one table for the tests and for docs/verification.md.

A method is a row: which cases, what it is called in the docs, and a function from a case's inputs to the values that
the case expects, under the same names.
"""

from __future__ import annotations

import json
import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.cracks import (
    CentreCrack,
    EdgeCrack,
    critical_sizes,
    growth_drive,
    growth_per_repeat,
    integrate_growth,
    size_after,
    stress_intensity,
    threshold_sizes,
)
from vivid_anvil.damage import assess_life, equivalent_amplitude
from vivid_anvil.errors import InputError
from vivid_anvil.histories import (
    ConstantAmplitude,
    Cycles,
    DutyCycle,
    Event,
    cycle_matrix,
    level_crossings,
    peaks,
    peaks_between_crossings,
    rainflow,
    range_pair,
    simple_range,
    turning_points,
    worst_case_pairs,
)
from vivid_anvil.materials import GrowthLaw, Material, SNCurve
from vivid_anvil.stress import HotSpot, RepeatCycles

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
    if isinstance(value, list | tuple | np.ndarray):
        return [leaf for item in value for leaf in flat(item)]
    return [value.item() if isinstance(value, np.generic) else value]


def compared(method: Method, case: Values) -> list[tuple[str, Any, Any]]:
    """Name, reference value and our value of every number and word that the method gives for the case."""
    rows = []
    for name, ours in method.values(case["inputs"]).items():
        expected = as_numbers(case["expected"][name])
        if isinstance(expected, dict):
            expected = {key: expected[key] for key in ours}
        rows += [(name, wanted, got) for wanted, got in zip(flat(expected), flat(ours), strict=False)]
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
        "largest_range_MPa": repeated.range.max(),
    }


def _simple_range(inputs: Values) -> Values:
    return {"by_range_and_mean": summed(simple_range(inputs["signal_MPa"]))}


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
    line = SNCurve.straight(
        name="case",
        stress=stress,
        r_ratio="any",
        point_stress=inputs[f"stress_{stress}_ref_MPa"],
        point_life=inputs["life_ref"],
        slope=inputs["slope_m"],
    )
    return {"life": line.life(inputs[f"stress_{stress}_MPa"])}


def _knee(inputs: Values) -> Values:
    stress = "range" if "knee_range_MPa" in inputs else "amplitude"
    curve = SNCurve(
        name="case",
        stress=stress,
        r_ratio="any",
        knee_stress=inputs[f"knee_{stress}_MPa"],
        knee_life=inputs["knee_life"],
        slope=inputs["slope_above"],
        slope_below=float(inputs["slope_below"]),
    )
    return {"life": curve.life(inputs[f"stress_{stress}_MPa"])}


def _goodman(inputs: Values) -> Values:
    settings = {"rule": "goodman", "ultimate_strength": inputs["strength_MPa"], "compressive": "credited"}
    amplitude, mean = inputs["stress_amplitude_MPa"], inputs["mean_stress_MPa"]
    try:
        rows = [equivalent_amplitude(amplitude, mean, r_ratio=r, **settings) for r in inputs.get("target_R", [-1.0])]
    except InputError:
        return {"error": "mean at or above the strength"}
    if "target_R" in inputs:
        return {"amplitude_MPa_rows_input_columns_R": np.transpose(rows)}
    return {"fully_reversed_amplitude_MPa": rows[0]}


def block_spot(curve: SNCurve, **settings: Any) -> HotSpot:
    """A hot spot whose channel is the stress itself."""
    steel = Material(name="steel", ultimate_strength=settings.pop("ultimate_strength", 1000.0))
    return HotSpot(name="case", channel="stress", stress_per_load=1.0, curve=curve, material=steel, **settings)


def block_event(name: str, amplitude: float, mean: float, cycles: float, occurrences: float = 1.0) -> Event:
    """An event of constant amplitude on the channel "stress"."""
    load = ConstantAmplitude("stress", mean + amplitude, mean - amplitude, cycles, "stress")
    return Event(name, load, occurrences)


def _miner(inputs: Values) -> Values:
    curve = SNCurve(
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
    curve = SNCurve.straight(
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


def _pairs(inputs: Values) -> Values:
    rows = worst_case_pairs([tuple(row) for row in inputs["events_max_MPa_min_MPa_occurrences"]])
    found = [[high, low, high - low, *rest] for high, low, *rest in rows]
    return {"cycles_max_min_range_count_event-of-max_event-of-min": found}


def _reserve(inputs: Values) -> Values:
    """A fatigue limit turns 'the amplitude reaches the allowable' into 'the first damage'."""
    curve = SNCurve(
        name="case",
        stress="amplitude",
        r_ratio=-1.0,
        knee_stress=inputs["allowable_fully_reversed_amplitude_MPa"],
        knee_life=1e6,
        slope=5.0,
        slope_below=math.inf,
    )
    event = block_event("block", inputs["stress_amplitude_MPa"], inputs["mean_stress_MPa"], 1e4)
    spot = block_spot(curve, mean_stress="goodman", ultimate_strength=inputs["strength_MPa"])
    life = assess_life(spot, DutyCycle("block", [event], 1.0), target=1e6)
    return {"proportional": life.reserve_on_stress}


# ---- cracks ------------------------------------------------------------------------------------------------------


def repeat_of(rows: list[list[float]]) -> RepeatCycles:
    """One repeat made of rows (cycles, largest, smallest stress)."""
    count, high, low = np.array(rows, dtype=float).T
    cycles = Cycles(range=high - low, mean=0.5 * (high + low), count=count)
    return RepeatCycles(cycles, np.zeros(count.size, int), count, low.min(), high.max())


def law_of(inputs: Values) -> GrowthLaw:
    """The Paris law of a case."""
    return GrowthLaw(name="case", rate=inputs["C"], slope=inputs["m"], threshold=inputs.get("dKth_MPa_sqrt_mm", 0.0))


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


def _constant_factor(inputs: Values) -> Values:
    shape = _ConstantFactor(1e9)
    object.__setattr__(shape, "factor", inputs["Y"])
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


def _table(inputs: Values, repeat: RepeatCycles, start: float, end: float, part: str = "full") -> tuple[Any, Any]:
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
    Method("Mean stress, Goodman", r"SL-C-goodman-01(-any-R)?|SL-C-undefined-0[12]", _goodman),
    Method("Linear damage of a block programme", r"SL-D-miner-.*", _miner),
    Method("Linear damage of a duty cycle", r"SL-D-duty-\d+", _duty),
    Method("Events in unknown order, worst case", r"SL-D-events-\d+", _pairs),
    Method("Reserve factor on stress, solved", r"SL-C-reserve-01", _reserve),
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
