"""Reference cases of cracks: stress intensity, growth laws, growth, fracture. Rows like those of `reference_values`."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial
from typing import Any

import numpy as np

from tests.reference_values import Method, Values, repeat_of
from tests.spots import hot_spot
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import (
    Crack,
    Retardation,
    Wheeler,
    Willenborg,
    critical_sizes,
    grow_by_cycle,
    grow_crack,
    growth_drive,
    growth_per_repeat,
    integrate_growth,
    integrate_two,
    largest_lasting_size,
    size_after,
    threshold_sizes,
    two_size_rates,
)
from vivid_anvil.growth.limits import all_margins, critical_depth, margins_of
from vivid_anvil.materials import LAWS, THRESHOLDS, EffectiveRangeLaw, GrowthLaw, Material, ParisLaw, TableLaw, opening
from vivid_anvil.shapes import CentreCrack, EdgeCrack, HoleCrack, OneSizeShape, SurfaceCrack, TableCrack
from vivid_anvil.shapes.solutions import (
    StressProfile,
    assessment_curve,
    axial_through_crack,
    centre_crack_by_weight,
    circumferential_through_crack,
    compact_tension,
    corner_crack,
    edge_crack_by_weight,
    embedded_crack,
    embedded_in_infinite,
    geometry_factor,
    hole_crack,
    hole_crack_biaxial,
    inner_axial_crack,
    k_from_j,
    k_of_contours,
    middle_tension,
    pipe_through_crack,
    plasticity_interaction,
    reference_stress,
    surface_crack,
    surface_crack_by_weight,
    surface_share,
    three_point_bend,
    through_reference_stress,
    toe_magnification,
)

_UNBREAKABLE = Material(name="case", yield_strength="90 GPa", toughness="9000 MPa√m")

# ---- stress intensity --------------------------------------------------------------------------------------------


def _k(y: Any, stress: float, size: Any) -> np.ndarray:
    return np.asarray(y) * stress * np.sqrt(np.pi * np.asarray(size, dtype=float))


def _factor(name: str, twice: bool) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        sizes = np.array(inputs["a_mm"], dtype=float)
        y = geometry_factor(name, (2.0 if twice else 1.0) * sizes / inputs.get("W_mm", math.inf))
        k = _k(y, inputs["S_MPa"], sizes)
        return {"Y": y, "K_MPa_sqrt_mm": k} if "W_mm" in inputs else {"K_MPa_sqrt_mm": k}

    return values


def _exact_factor(name: str, key: str) -> Callable[[Values], Values]:
    return lambda inputs: {"Y": geometry_factor(name, inputs[key])}


def _hole(inputs: Values) -> Values:
    y = hole_crack(inputs["a_mm"], inputs["r_mm"], inputs["cracks"], inputs.get("W_mm"))
    return {"Y": y, "K_MPa_sqrt_mm": _k(y, inputs["S_MPa"], inputs["a_mm"])}


def _hole_biaxial(inputs: Values) -> Values:
    return {"Y": hole_crack_biaxial(inputs["a_mm"], inputs["r_mm"], inputs["cracks"], inputs["lam"])}


def _exact_hole(inputs: Values) -> Values:
    return {"Y": hole_crack(inputs["a_over_r"], 1.0, inputs["cracks"])}


def _table(inputs: Values) -> Values:
    y = TableCrack(inputs["table_a_mm_Y"]).geometry_factor(inputs["a_mm"])
    return {"Y": y, "K_MPa_sqrt_mm": _k(y, inputs["S_MPa"], inputs["a_mm"])}


def _surface(inputs: Values) -> Values:
    a = inputs["a_mm"]
    half = 0.5 * inputs["plate_full_width_2b_mm"]
    found = surface_crack(a, inputs["c_mm"], inputs["t_mm"], half, inputs["phi_deg"])
    k = (found.tension * inputs["St_MPa"] + found.bending * inputs["Sb_MPa"]) * math.sqrt(math.pi * a)
    return {"Q": found.shape, "F": found.boundary, "H": found.multiplier, "K_MPa_sqrt_mm": k}


def _corner(inputs: Values) -> Values:
    found = corner_crack(inputs["a_mm"], inputs["c_mm"], inputs["t_mm"], inputs["phi_deg"])
    stress = found.tension * inputs["St_MPa"] + found.bending * inputs["Sb_MPa"]
    return {"K_MPa_sqrt_mm": stress * math.sqrt(math.pi * inputs["a_mm"])}


def _embedded(inputs: Values) -> Values:
    half = 0.5 * inputs["plate_full_width_2b_mm"]
    found = embedded_crack(inputs["a_mm"], inputs["c_mm"], inputs["T_mm"], half, inputs["phi_deg"])
    return {"K_MPa_sqrt_mm": _k(found.tension, inputs["S_MPa"], inputs["a_mm"])}


def _infinite(inputs: Values) -> Values:
    a, c = inputs["a_mm"], inputs.get("c_mm")
    if c is None:
        return {"K_MPa_sqrt_mm": [_k(embedded_in_infinite(one, one), inputs["S_MPa"], one) for one in a]}
    return {"K_MPa_sqrt_mm": [_k(embedded_in_infinite(a, c, phi), inputs["S_MPa"], a) for phi in inputs["phi_deg"]]}


def _specimen(function: Callable[..., Any]) -> Callable[[Values], Values]:
    return lambda inputs: {
        "K_MPa_sqrt_mm": function(inputs["P_N"], inputs["B_mm"], inputs["W_mm"], np.array(inputs["a_mm"]))
    }


def _inner_axial(inputs: Values) -> Values:
    hoop = inputs["p_MPa"] * inputs["Ri_mm"] / inputs["t_mm"]
    found = inner_axial_crack(inputs["a_mm"], inputs["c_mm"], inputs["t_mm"], inputs["Ri_mm"], inputs["phi_deg"])
    return {"K_MPa_sqrt_mm": _k(found.tension, hoop, inputs["a_mm"])}


def _shell(function: Callable[..., Any]) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        y = function(inputs["a_mm"], inputs["R_mm"], inputs["t_mm"])
        return {"Y": y, "K_MPa_sqrt_mm": _k(y, inputs["S_MPa"], inputs["a_mm"])}

    return values


def _pipe(inputs: Values) -> Values:
    y = pipe_through_crack(inputs["theta_deg"], inputs["R_mm"], inputs["t_mm"], inputs["load"])
    return {"Y": y, "K_MPa_sqrt_mm": _k(y, inputs["S_MPa"], inputs["R_mm"] * np.radians(inputs["theta_deg"]))}


def _polynomial(inputs: Values, unit: float) -> Callable[[np.ndarray], np.ndarray]:
    return lambda x: np.polynomial.polynomial.polyval(x / unit, inputs["coef_MPa"])


def _weight_centre(inputs: Values) -> Values:
    return {"K_MPa_sqrt_mm": centre_crack_by_weight(_polynomial(inputs, inputs["a_mm"]), inputs["a_mm"])}


def _weight_edge(inputs: Values) -> Values:
    a, width = inputs["a_mm"], inputs.get("W_mm")
    if "k" in inputs:
        return {
            "K_MPa_sqrt_mm": edge_crack_by_weight(
                lambda x: inputs["S0_MPa"] * np.exp(-inputs["k"] * x / width), a, width
            )
        }
    return {"K_MPa_sqrt_mm": edge_crack_by_weight(_polynomial(inputs, width or a), a, width or 1e6 * a)}


def _weight_surface(inputs: Values) -> Values:
    t = inputs["t_mm"]
    found = surface_crack_by_weight(
        _polynomial(inputs, t), inputs["a_mm"], inputs["c_mm"], t, 0.5 * inputs["plate_full_width_2b_mm"]
    )
    return {"K_MPa_sqrt_mm": found.k, "M1": found.m1, "M3": found.m3}


def _toe(inputs: Values) -> Values:
    return {"Mk": [float(toe_magnification(z, at, t, inputs["mode"])) for z, at, t in inputs["z_L_T_mm"]]}


# ---- growth laws -------------------------------------------------------------------------------------------------


def _law(inputs: Values) -> GrowthLaw:
    """The law that the keys of a case belong to."""
    first = {"name": "case", "rate": inputs.get("C", inputs.get("A1", inputs.get("D"))), "source": "case"}
    slope = inputs.get("m", inputs.get("m1", inputs.get("n", inputs.get("p"))))
    threshold = inputs.get("dKth_MPa_sqrt_mm", inputs.get("dK0_MPa_sqrt_mm", inputs.get("dKthr_MPa_sqrt_mm", 0.0)))
    form, values = "paris", {}
    if "m1" in inputs:
        form, values = "two-stage", {"rate_2": inputs["A2"], "slope_2": inputs["m2"]}
        if "transition_MPa_sqrt_mm" in inputs:
            values["transition"] = inputs["transition_MPa_sqrt_mm"]
    elif "alpha" in inputs:
        form = "forman-mettu"
        values = {
            "toughness": inputs["Kc_MPa_sqrt_mm"],
            "p": inputs["p"],
            "q": inputs["q"],
            "closure_alpha": inputs["alpha"],
            "closure_peak": inputs["Smax_over_S0"],
            "intrinsic_length": inputs["a0_intrinsic_mm"],
            "threshold_plus": inputs["Cth_plus"],
            "threshold_minus": inputs["Cth_minus"],
        }
    elif "gamma" in inputs:
        form, values = "walker", {"gamma": inputs["gamma"]}
        if inputs.get("gamma_R_negative") is not None:
            values["gamma_negative"] = float(inputs["gamma_R_negative"])
    elif "D" in inputs:
        form, values = "hartman-schijve, later form", {"toughness": inputs["A_MPa_sqrt_mm"]}
    elif "Kc_MPa_sqrt_mm" in inputs:
        form = "hartman-schijve" if threshold else "forman"
        values = {"toughness": inputs["Kc_MPa_sqrt_mm"]}
    return LAWS[form](**first, slope=slope, threshold=threshold, **values)


def _rates(inputs: Values) -> Values:
    law = _law(inputs)
    if "R_dK_a" in inputs:
        r, dk, a = np.array(inputs["R_dK_a"], dtype=float).T
        thresholds = [float(law.threshold_at(one, size)) for one, size in zip(r, a, strict=True)]
        return {"dKth_MPa_sqrt_mm": thresholds, "dadN_mm_per_cycle": law.growth(dk, r, a)}
    if "R_dK" in inputs:
        r, dk = np.array(inputs["R_dK"], dtype=float).T
        rates = law.growth(dk, r)
        return {"fracture": [bool(np.isinf(rates[0]))]} if np.isinf(rates).any() else {"dadN_mm_per_cycle": rates}
    found = {"dadN_mm_per_cycle": law.growth(inputs["dK_MPa_sqrt_mm"])}
    if "m1" in inputs and "transition_MPa_sqrt_mm" not in inputs:
        found["transition_dK_MPa_sqrt_mm"] = law.change
    return found


def _closure(inputs: Values) -> Values:
    opens = opening(inputs["alpha"], inputs["Smax_over_S0"])
    return {"f": [opens.at(r) for r in inputs["R"]]}


def _effective(first: float, second: float, third: float) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        shares = {"open_0": first, "open_1": second, "open_2": third}
        law = EffectiveRangeLaw(name="case", rate=inputs["C"], slope=inputs["m"], **shares)
        return {"dadN_mm_per_cycle": law.growth(inputs["dK_MPa_sqrt_mm"], inputs["R"])}

    return values


def _law_table(inputs: Values) -> Values:
    points = [(float(k), float(rate)) for k, rate in inputs["dK_dadN"]]
    law = TableLaw(name="case", points=points)
    assert law.growth(0.9 * points[0][0]) == 0.0
    try:
        law.growth(1.1 * points[-1][0])
    except InputError:
        return {"dadN_mm_per_cycle": law.growth(inputs["dK_MPa_sqrt_mm"])}
    raise AssertionError("a table has an end")


def _thresholds(model: str) -> Callable[[Values], Values]:
    def values(inputs: Values) -> Values:
        given = {"range": inputs.get("dKth0_MPa_sqrt_mm"), "exponent": inputs.get("g")}
        threshold = THRESHOLDS[model](**{key: value for key, value in given.items() if value is not None})
        law = ParisLaw(name="case", rate=1e-13, slope=3.0, threshold=threshold)
        return {"dKth_MPa_sqrt_mm": law.threshold_at(inputs["R"])}

    return values


def _simplified(inputs: Values) -> Values:
    law = ParisLaw(name="case", rate=inputs["A"], slope=inputs["m"])
    return {"dadN_mm_per_cycle": law.growth(inputs["dK_MPa_sqrt_mm"])}


# ---- growth ----------------------------------------------------------------------------------------------------


class _Constant(OneSizeShape):
    """Y = 1 for any size."""

    kind = size_means = factor_formula = source = "constant"
    width = largest_size = 1e4

    def geometry_factor(self, size: Any) -> np.ndarray:
        return np.ones_like(np.asarray(size, dtype=float))

    def net_section_stress(self, size: Any, stress: float) -> np.ndarray:
        return np.zeros_like(np.asarray(size, dtype=float)) * stress

    def factor_numbers(self, size: float) -> str:
        return "1"


def _life(shape: Any, law: GrowthLaw, row: tuple[float, float], start: float, end: float) -> float:
    drive = growth_drive(repeat_of([[1.0, *row]]), "full")
    kinks = threshold_sizes(drive, shape, law, start, end)
    return float(integrate_growth(growth_per_repeat(drive, shape, law), start, end, kinks).repeats[-1])


def _walker_life(inputs: Values) -> Values:
    law, shape = _law(inputs), CentreCrack(inputs["W_mm"])
    row = (inputs["Smax_MPa"], inputs["Smin_MPa"])
    if "af_mm" in inputs:
        return {"N_cycles": _life(shape, law, row, inputs["a0_mm"], inputs["af_mm"])}
    growth = growth_per_repeat(growth_drive(repeat_of([[1.0, *row]]), "full"), shape, law)
    table = integrate_growth(growth, inputs["a0_mm"], 35.0)
    return {"a_mm": size_after(table, growth, inputs["N_cycles"])}


def _two_stage_life(inputs: Values) -> Values:
    law, shape = _law(inputs), EdgeCrack(inputs["W_mm"])
    return {"N_cycles": _life(shape, law, (inputs["dS_MPa"], 0.0), inputs["a0_mm"], inputs["af_mm"])}


def _forman_life(inputs: Values) -> Values:
    law, shape, high = _law(inputs), CentreCrack(inputs["W_mm"]), inputs["Smax_MPa"]
    row = (high, inputs["R"] * high)
    if "af_mm" in inputs:
        return {"N_cycles": _life(shape, law, row, inputs["a0_mm"], inputs["af_mm"])}
    steel = Material(name="case", toughness=inputs["Kc_MPa_sqrt_mm"], yield_strength=1e4)
    end = critical_sizes(shape, steel, high).toughness
    return {"a_crit_mm": end, "N_cycles": _life(shape, law, row, inputs["a0_mm"], end * (1.0 - 1e-12))}


def _hole_life(inputs: Values) -> Values:
    shape = HoleCrack(inputs["r_mm"], 2, inputs["W_mm"])
    return {"N_cycles": _life(shape, _law(inputs), (inputs["dS_MPa"], 0.0), inputs["a0_mm"], inputs["af_mm"])}


def _table_life(inputs: Values) -> Values:
    points = inputs["table_a_mm_Y"]
    shape, law = TableCrack(points), _law(inputs)
    return {"N_cycles": _life(shape, law, (inputs["dS_MPa"], 0.0), points[0][0], points[-1][0])}


def _one_by_one(inputs: Values) -> Values:
    law, shape = _law(inputs), CentreCrack(inputs["W_mm"])
    rows, start = inputs["cycles_Smax_Smin"], inputs["a0_mm"]
    if "a_stop_mm" in inputs:
        return {"cycles": grow_by_cycle(rows, shape, law, start, passes=10_000, stop=inputs["a_stop_mm"]).cycles}
    found = grow_by_cycle(rows, shape, law, start, passes=inputs["repeats"])
    return {"a_mm": found.size, "cycles": found.cycles}


def _overload(inputs: Values, memory: Retardation) -> Values:
    law, usual = _law(inputs), [inputs["Smax_MPa"], inputs["Smin_MPa"]]
    rows = [usual] * inputs["cycles"]
    with_one = list(rows)
    with_one[inputs["overload_cycle"] - 1] = [inputs["overload_Smax_MPa"], inputs["Smin_MPa"]]
    start, end = inputs["a0_mm"], inputs["a_f_mm"]
    more = [*with_one, *([usual] * 20_000)]
    reached = [
        grow_by_cycle(one, _Constant(), law, start, stop=end, retardation=memory).cycles
        for one in (more, more[:499] + more[500:])
    ]
    without = grow_by_cycle([usual] * 20_000, _Constant(), law, start, stop=end).cycles
    return {
        "a_with_overload_mm": grow_by_cycle(with_one, _Constant(), law, start, retardation=memory).size,
        "a_without_overload_mm": grow_by_cycle(rows, _Constant(), law, start, retardation=memory).size,
        "cycles_to_a_f_with": reached[0],
        "cycles_to_a_f_without": without,
        "delay_cycles": reached[0] - without,
    }


def _zone(inputs: Values) -> dict[str, Any]:
    constraint = "plane stress" if inputs["beta"] > 0.2 else "plane strain"
    return {"yield_strength": inputs["sy_MPa"], "constraint": constraint}


def _wheeler(inputs: Values) -> Values:
    return _overload(inputs, Wheeler(exponent=inputs["w"], **_zone(inputs)))


def _willenborg(inputs: Values) -> Values:
    shut = {"shut_off": inputs["S_shutoff"], "threshold_maximum": inputs["Kmax_th_MPa_sqrt_mm"]}
    return _overload(inputs, Willenborg(**shut, **_zone(inputs)))


def _surface_shape(inputs: Values) -> SurfaceCrack:
    tension = inputs.get("dSt_MPa", inputs.get("dS_MPa", 0.0))
    total = tension + inputs.get("dSb_MPa", 0.0)
    return SurfaceCrack(
        thickness=inputs["t_mm"],
        plate_width=inputs["plate_full_width_2b_mm"],
        bending_share=inputs.get("dSb_MPa", 0.0) / total,
        surface_factor=inputs.get("surface_factor", 1.0),
    )


def _surface_path(inputs: Values) -> Values:
    shape, law = _surface_shape(inputs), _law(inputs)
    total = inputs["dSt_MPa"] + inputs["dSb_MPa"]
    rates = two_size_rates(growth_drive(repeat_of([[1.0, total, 0.0]])), shape, law)
    start = (inputs["a0_mm"], inputs["c0_mm"])
    found = [integrate_two(rates, start, {"depth": lambda a, _, d=d: d - a}) for d in inputs["depths_mm"]]
    ended = integrate_two(rates, start, {}, inputs["N_check_cycles"])
    return {
        "c_mm": [one.half_lengths[-1] for one in found],
        "N_cycles": [one.repeats[-1] for one in found],
        "a_over_c": [one.depths[-1] / one.half_lengths[-1] for one in found],
        "a_at_N_check_mm": ended.depths[-1],
        "c_at_N_check_mm": ended.half_lengths[-1],
    }


def _break_through(inputs: Values) -> Values:
    shape, law = _surface_shape(inputs), _law(inputs)
    drive = growth_drive(repeat_of([[1.0, inputs["dS_MPa"], 0.0]]))
    rates = two_size_rates(drive, shape, law)
    first = integrate_two(rates, (inputs["a0_mm"], inputs["c0_mm"]), {"depth": lambda a, _: shape.thickness - a})
    c = float(first.half_lengths[-1])
    second = _life(shape.after(shape.thickness, c)[0], law, (inputs["dS_MPa"], 0.0), c, inputs["c_f_mm"])
    return {
        "c_at_transition_mm": c,
        "N_to_transition": first.repeats[-1],
        "N_through_stage": second,
        "N_total": first.repeats[-1] + second,
    }


def _later_law(inputs: Values) -> Values:
    spot = hot_spot(name="case", channel="stress", stress_per_load="1", material=_UNBREAKABLE)
    laws = [ParisLaw(name="case", rate=inputs[f"C{i}"], slope=inputs[f"m{i}"]) for i in (1, 2)]
    load = ConstantAmplitude("stress", inputs["dS_MPa"], 0.0, inputs["cycles_per_year"], "stress")
    flaw = Crack(
        hot_spot=spot,
        shape=CentreCrack(inputs["W_mm"]),
        initial_size=inputs["a0_mm"],
        stop_size=inputs["af_mm"],
        law=laws[0],
        later_law=laws[1],
        later_law_from=inputs["t1_years"],
    )
    duty = DutyCycle("year", [Event("run", load)], 1.0)
    found = [grow_crack(flaw, duty, target=inputs[year]) for year in ("t1_years", "years")]
    return {
        "a_at_t1_mm": found[0].final_size,
        "a_at_years_mm": found[1].final_size,
        "life_to_af_years": found[1].life_years,
    }


def _critical_surface(inputs: Values) -> Values:
    total = inputs["St_MPa"] + inputs["Sb_MPa"]
    shape = SurfaceCrack(
        thickness=inputs["t_mm"], plate_width=inputs["plate_full_width_2b_mm"], bending_share=inputs["Sb_MPa"] / total
    )
    steel = Material(name="case", yield_strength="90 GPa", toughness=inputs["K_IC_MPa_sqrt_mm"])
    margins = _with_ends(shape, margins_of(shape, steel, total, "toughness and yield", 207000.0))
    return {"a_crit_mm": critical_depth(margins, shape.deepest, inputs["a_over_c"])[0]}


def _with_ends(shape: Any, found: Any) -> Any:
    return all_margins(shape, found, None, weighed=False)


# ---- fracture ----------------------------------------------------------------------------------------------------


def _assessment(inputs: Values) -> Values:
    sy, su = inputs["sy_MPa"], inputs["su_MPa"]
    return {"f": assessment_curve(inputs["Lr"], sy, su, inputs["E_MPa"])}


def _through_reference(inputs: Values) -> Values:
    return {"sref_MPa": [float(through_reference_stress(*row)) for row in inputs["Pm_Pb_a_W"]]}


def _surface_reference(inputs: Values) -> Values:
    rows = inputs["Pm_Pb_a_c_B_W"]
    shares = [float(surface_share(*row[2:])) for row in rows]
    found = [float(reference_stress(row[0], row[1], share)) for row, share in zip(rows, shares, strict=True)]
    return {"alpha": shares, "sref_MPa": found}


def _steel(inputs: Values) -> Material:
    return Material(
        name="case",
        yield_strength=inputs["sy_MPa"],
        ultimate_strength=inputs["su_MPa"],
        toughness=inputs["Kmat_MPa_sqrt_mm"],
    )


def _limit_through(inputs: Values) -> Values:
    shape, stress = CentreCrack(inputs["W_mm"]), inputs["Pm_MPa"]
    found = critical_sizes(
        shape, _steel(inputs), stress, limits="assessment curve", youngs_modulus=inputs["E_MPa"]
    ).limiting
    return {"a_limit_mm": found, "Lr": float(shape.net_section_stress(found, stress)) / inputs["sy_MPa"]}


def _loaded(inputs: Values, membrane: str, bending: str) -> tuple[SurfaceCrack, float]:
    """A surface crack with its share of bending, and the outer stress, MPa."""
    total = inputs[membrane] + inputs[bending]
    return SurfaceCrack(
        thickness=inputs["t_mm"], plate_width=inputs["W_mm"], bending_share=inputs[bending] / total
    ), total


def _margins(inputs: Values) -> Any:
    shape, total = _loaded(inputs, "Pm_MPa", "Pb_MPa")
    return _with_ends(shape, margins_of(shape, _steel(inputs), total, "assessment curve", inputs["E_MPa"]))


def _interaction(inputs: Values) -> Values:
    primary, secondary, ratio = np.array(inputs["Kp_Ks_Lr"], dtype=float).T
    chi = secondary * ratio / primary
    return {"chi": chi, "rho": plasticity_interaction(chi, ratio)}


def _limit_with_residual(inputs: Values) -> Values:
    shape, total = _loaded(inputs, "Pm_MPa", "Pb_MPa")
    even = StressProfile([(0.0, inputs["Qm_MPa"]), (inputs["t_mm"], inputs["Qm_MPa"])])
    rest = ("assessment curve", inputs["E_MPa"])
    found = margins_of(shape, _steel(inputs), total, *rest, always=partial(shape.ends_of_stress, even))
    margins = all_margins(shape, found, None, weighed=True)
    return {"a_limit_mm": [critical_depth(margins, inputs["t_mm"], aspect)[0] for aspect in inputs["a_over_c"]]}


def _limit_surface(inputs: Values) -> Values:
    margins = _margins(inputs)
    return {"a_limit_mm": [critical_depth(margins, inputs["t_mm"], aspect)[0] for aspect in inputs["a_over_c"]]}


def _allowable(inputs: Values) -> Values:
    shape, total = _loaded(inputs, "dSt_MPa", "dSb_MPa")
    margins, law = _margins(inputs), _law(inputs)
    rates = two_size_rates(growth_drive(repeat_of([[1.0, total, 0.0]])), shape, law)

    def grown(size: float, aspect: float) -> Any:
        if min(margin(size, size / aspect) for margin in margins.values()) <= 0.0:
            return None
        return integrate_two(rates, (size, size / aspect), margins)

    def life(size: float, aspect: float) -> float:
        found = grown(size, aspect)
        return 0.0 if found is None else float(found.repeats[-1])

    starts = [
        largest_lasting_size(lambda size, x=aspect: life(size, x), inputs["N_target_cycles"], 20.0)
        for aspect in inputs["a_over_c_initial"]
    ]
    ends = [grown(start, aspect) for start, aspect in zip(starts, inputs["a_over_c_initial"], strict=True)]
    return {
        "a_initial_mm": starts,
        "a_final_mm": [one.depths[-1] for one in ends],
        "c_final_mm": [one.half_lengths[-1] for one in ends],
    }


def _contours(inputs: Values) -> Values:
    if "J_N_per_mm" in inputs:
        found = k_of_contours(k_from_j(inputs["J_N_per_mm"], inputs["E_MPa"], inputs["nu"]))
        deviation = "max_dev_K"
    else:
        found = k_of_contours(inputs["K_MPa_sqrt_mm"])
        deviation = "max_dev"
    flags = [not one for one in found.path_independent.tolist()]
    return {"K_mean_MPa_sqrt_mm": found.k, deviation: found.deviation, "flag": flags}


def _j(inputs: Values) -> Values:
    rest = (inputs["J_N_per_mm"], inputs["E_MPa"], inputs["nu"])
    return {
        "K_plane_strain_MPa_sqrt_mm": k_from_j(*rest),
        "K_plane_stress_MPa_sqrt_mm": k_from_j(*rest, constraint="plane stress"),
    }


CRACK_METHODS = (
    Method("Stress intensity, crack in an infinite plate", r"A-centre-infinite-1", _factor("infinite", True)),
    Method("Stress intensity, centre crack, secant", r"A-centre-feddersen-1", _factor("centre, secant", True)),
    Method("Stress intensity, centre crack, closer formula", r"A-centre-tada-1", _factor("centre", True)),
    Method(
        "Stress intensity, edge crack, polynomial",
        r"A-edge-tension-poly-1",
        _factor("edge, tension, polynomial", False),
    ),
    Method("Stress intensity, edge crack in bending", r"A-edge-bend-tada-1", _factor("edge, bending", False)),
    Method(
        "Stress intensity, edge in bending, polynomial",
        r"A-edge-bend-poly-1",
        _factor("edge, bending, polynomial", False),
    ),
    Method(
        "Stress intensity, edge in bending, against exact values",
        r"A-exact-edge-bend-1",
        _exact_factor("edge, bending", "a_over_W"),
    ),
    Method("Stress intensity, two edge cracks", r"A-double-edge-poly-1", _factor("double edge", True)),
    Method("Stress intensity, two edge cracks, cosine", r"A-double-edge-tada-1", _factor("double edge, cosine", True)),
    Method(
        "Stress intensity, two edge cracks, against exact values",
        r"A-exact-double-edge-1",
        _exact_factor("double edge", "two_a_over_W"),
    ),
    Method("Stress intensity, edge of a half plane", r"A-edge-half-plane-1", _factor("edge of a half plane", False)),
    Method("Stress intensity, cracks at a hole", r"A-hole-newman(-finite)?-\d", _hole),
    Method("Stress intensity, cracks at a hole, two stresses", r"A-hole-bowie-fit-\d", _hole_biaxial),
    Method("Stress intensity, cracks at a hole, against exact values", r"A-exact-hole-(one|two)-1", _exact_hole),
    Method("Stress intensity, own table of Y", r"A-table-1", _table),
    Method("Stress intensity, surface crack", r"A-surface-\d+", _surface),
    Method("Stress intensity, corner crack", r"A-corner-\d", _corner),
    Method("Stress intensity, embedded ellipse", r"A-embedded-plate-\d", _embedded),
    Method("Stress intensity, ellipse in an infinite body", r"A-(embedded-infinite|penny)-1", _infinite),
    Method("Stress intensity, compact-tension piece", r"A-compact-tension-1", _specimen(compact_tension)),
    Method("Stress intensity, three-point bend", r"A-three-point-bend-1", _specimen(three_point_bend)),
    Method("Stress intensity, middle-tension piece", r"A-middle-tension-1", _specimen(middle_tension)),
    Method("Stress intensity, inner axial surface crack of a vessel", r"A-cylinder-axial-internal-\d", _inner_axial),
    Method("Stress intensity, axial crack through a shell", r"A-shell-axial-through-1", _shell(axial_through_crack)),
    Method(
        "Stress intensity, circumferential crack through a shell",
        r"A-shell-circ-through-1",
        _shell(circumferential_through_crack),
    ),
    Method("Stress intensity, crack around a pipe", r"A-pipe-circ-through-\d", _pipe),
    Method("Weight function, infinite plate", r"A-wf-centre-exact-1", _weight_centre),
    Method("Weight function, edge crack", r"A-wf-(half-plane|strip|bueckner)-\d", _weight_edge),
    Method("Weight function, surface crack", r"A-wf-surface-deepest-1", _weight_surface),
    Method("Weld-toe magnification", r"A-mk-2d-\d", _toe),
    Method("Growth law, two stages", r"B-(bilinear|bs7910-two-stage)-\d", _rates),
    Method("Growth law, Walker", r"B-walker-\d", _rates),
    Method("Growth law, Forman", r"B-forman-\d", _rates),
    Method("Growth law, Forman-Mettu", r"B-forman-mettu-1", _rates),
    Method("Crack closure, Newman", r"B-newman-closure-1", _closure),
    Method("Growth law, Hartman-Schijve", r"B-hartman-schijve-(1970|variant)-1", _rates),
    Method("Growth law, effective range by Elber", r"B-elber-1", _effective(0.5, 0.4, 0.0)),
    Method("Growth law, effective range by Schijve", r"B-schijve-closure-1", _effective(0.55, 0.33, 0.12)),
    Method("Growth law, table", r"B-table-1", _law_table),
    Method("Threshold, power of 1 - R", r"B-threshold-klesnil-lukas-1", _thresholds("power of 1 - R")),
    Method("Threshold, line over R", r"B-threshold-barsom-1", _thresholds("steel, line over R")),
    Method("Threshold, steps over R", r"B-threshold-bs7910-1", _thresholds("steel, steps")),
    Method("Growth law, simplified for steel", r"B-bs7910-simplified-\d", _simplified),
    Method("Growth of a centre crack, Walker", r"C-centre-walker-1|C-size-after-N-1", _walker_life),
    Method("Growth of an edge crack, two stages", r"C-two-stage-1", _two_stage_life),
    Method("Growth of a centre crack, Forman and Forman-Mettu", r"C-forman(-mettu)?-1", _forman_life),
    Method("Growth from a hole", r"C-hole-1", _hole_life),
    Method("Growth of a crack of a table", r"C-table-1", _table_life),
    Method("Growth cycle by cycle", r"C-cycle-by-cycle-\d", _one_by_one),
    Method("Retardation, Wheeler", r"C-wheeler-\d", _wheeler),
    Method("Retardation, Willenborg", r"C-willenborg-\d", _willenborg),
    Method("Growth of a surface crack, both sizes", r"C-surface-two-dof-\d", _surface_path),
    Method("Growth of a surface crack to a crack through the plate", r"C-surface-to-through-1", _break_through),
    Method("Growth with a later law", r"C-staged-law-1", _later_law),
    Method("Critical depth of a surface crack", r"C-critical-surface-1", _critical_surface),
    Method("Failure assessment curve", r"D-fad-general-\d", _assessment),
    Method("Reference stress, crack through a plate", r"D-sref-through-1", _through_reference),
    Method("Reference stress, surface crack", r"D-sref-surface-1", _surface_reference),
    Method("Limiting size by the assessment curve, through crack", r"D-limit-through-1", _limit_through),
    Method("Limiting size by the assessment curve, surface crack", r"D-limit-surface-1", _limit_surface),
    Method("Interaction of primary and secondary stress", r"D-rho-1", _interaction),
    Method("Limiting size with residual stress and ρ, surface crack", r"D-limit-surface-2", _limit_with_residual),
    Method("Initial size that just lasts", r"D-allowable-initial-two-dof-1", _allowable),
    Method("K from contours of a finite-element model", r"D-contours-[kj]-1", _contours),
    Method("K from J", r"D-k-from-j-1", _j),
)
