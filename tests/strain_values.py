"""Reference cases of strain life: curves, notch rules, histories followed with material memory, estimates."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from tests.reference_values import Method, Values
from vivid_anvil.materials.strain import (
    STRAIN_MEANS,
    StrainLife,
    StrainTests,
    fit_strain_life,
    hardness_estimate,
    medians_estimate,
    uniform_material_law,
    universal_slopes,
)
from vivid_anvil.stress.critical_distance import (
    DISTANCES,
    critical_length,
    hole_profile,
    notch_effect_by_distance,
    short_crack_limit,
)
from vivid_anvil.stress.notch_effect import (
    GRADIENT_SURFACES,
    notch_effect_by_gradient,
    notch_effect_by_radius,
    notch_effect_by_slip,
    relative_gradient,
)
from vivid_anvil.stress.notches import elliptic_hole, hole_in_strip, shoulder
from vivid_anvil.stress.yielding import NOTCH_RULES, Followed, follow_block

FORMS = {
    "N_none": "none",
    "N_morrow": "morrow",
    "N_manson_halford": "manson-halford",
    "N_swt": "smith-watson-topper",
    "N_walker": "walker",
}
RULES = {"neuber": "neuber", "glinka": "energy density"}


def strain_life(material: Values) -> StrainLife:
    """The curve of a case, with its own cyclic curve."""
    return StrainLife(
        name="steel",
        youngs_modulus=material["E_MPa"],
        fatigue_strength_coefficient=material["sigma_f_MPa"],
        fatigue_strength_exponent=material["b"],
        fatigue_ductility_coefficient=material["eps_f"],
        fatigue_ductility_exponent=material["c"],
        cyclic_strength_coefficient=material["K_MPa"],
        cyclic_hardening_exponent=material["n"],
    )


def _amplitudes(inputs: Values) -> Values:
    curve, lives = strain_life(inputs["material"]), inputs["N_cycles"]
    return {"elastic": curve.elastic(lives), "plastic": curve.plastic(lives), "total": curve.amplitude(lives)}


def _lives(inputs: Values) -> Values:
    return {"N_cycles": strain_life(inputs["material"]).life(inputs["strain_amplitude"])}


def _transition(inputs: Values) -> Values:
    curve = strain_life(inputs["material"])
    life = curve.transition_life
    return {"N_cycles": life, "reversals": 2.0 * life, "strain_amplitude": curve.amplitude(life)}


def _compatible(inputs: Values) -> Values:
    curve = strain_life(inputs["material"]).compatible
    return {"n": curve.cyclic_hardening_exponent, "K_MPa": curve.cyclic_strength_coefficient}


def _cyclic(inputs: Values) -> Values:
    curve = strain_life(inputs["material"]).cyclic
    return {
        "strain_at_stress": curve.strain(inputs["stress_MPa"]),
        "stress_at_strain_MPa": curve.stress(inputs["strain"]),
        "strain_range_at_stress_range": curve.strain_range(inputs["stress_range_MPa"]),
    }


def _notch(rule: str) -> Any:
    def values(inputs: Values) -> Values:
        curve, chosen = strain_life(inputs["material"]).cyclic, NOTCH_RULES[rule]
        stress, strain = chosen.local(curve, inputs["Kt"] * np.array(inputs["S_MPa"]))
        half_stress, half_strain = chosen.local(curve, 0.5 * inputs["Kt"] * np.array(inputs["S_range_MPa"]))
        return {
            "stress_MPa": stress,
            "strain": strain,
            "stress_range_MPa": 2.0 * half_stress,
            "strain_range": 2.0 * half_strain,
        }

    return values


def _yielding_section(inputs: Values) -> Values:
    curve, nominal = strain_life(inputs["material"]).cyclic, inputs["S_MPa"]
    stress, strain = NOTCH_RULES["neuber"].local(curve, inputs["Kt"] * nominal, inputs["Kt"])
    return {"stress_MPa": stress, "strain": strain, "nominal_strain": curve.strain(nominal)}


def _states(way: Followed) -> list[Values]:
    rows = zip(way.drive, way.stress, way.strain, strict=True)
    return [{"drive": drive, "stress_MPa": stress, "strain": strain} for drive, stress, strain in rows]


def _loops(way: Followed) -> list[Values]:
    found = []
    for i in range(way.amplitude.size):
        ends = way.drive[way.ends[i]]
        found.append(
            {
                "drive_max": ends.max(),
                "drive_min": ends.min(),
                "stress_max_MPa": way.highest_stress[i],
                "stress_min_MPa": way.lowest_stress[i],
                "strain_max": way.strain[way.ends[i]].max(),
                "strain_min": way.strain[way.ends[i]].min(),
            }
        )
    return found


def _history(inputs: Values) -> Values:
    material = strain_life(inputs["material"])
    if "block_strain" in inputs:
        rule, drive = "none", np.array(inputs["block_strain"])
    else:
        rule, drive = RULES[inputs["rule"]], inputs["Kt"] * np.array(inputs["block_S_MPa"], dtype=float)
    way = follow_block(material.cyclic, drive, rule=rule)
    lives = {
        key: STRAIN_MEANS[form].life(
            material, way.amplitude, way.highest_stress, way.lowest_stress, inputs["walker_gamma"]
        )
        for key, form in FORMS.items()
    }
    loops = [
        {
            **loop,
            "strain_amplitude": way.amplitude[i],
            "stress_mean_MPa": way.mean_stress[i],
            **{key: own[i] for key, own in lives.items()},
        }
        for i, loop in enumerate(_loops(way))
    ]
    damage = {key: float((1.0 / own).sum()) for key, own in lives.items()}
    found = {"turned_block": _states(way), "loops": loops}
    found |= {f"damage_{key[2:]}": own for key, own in damage.items()}
    found |= {f"repeats_{key[2:]}": 1.0 / own for key, own in damage.items()}
    if "late" in inputs.get("id", "") or drive.size == 10:  # these follow the block once from nothing too
        first = follow_block(material.cyclic, drive, rule=rule, repeated=False)
        found |= {"first_pass_states": _states(first), "first_pass_loops": _loops(first)}
    return found


def _forms(inputs: Values) -> Values:
    material = strain_life(inputs["material"])
    amplitude, high, low = np.array(inputs["cases_eps_smax_smin"]).T
    lives = {
        key: STRAIN_MEANS[form].life(material, amplitude, high, low, inputs["walker_gamma"])
        for key, form in FORMS.items()
    }
    rows = [
        {
            "strain_amplitude": amplitude[i],
            "stress_max_MPa": high[i],
            "stress_min_MPa": low[i],
            **{key: own[i] for key, own in lives.items()},
        }
        for i in range(amplitude.size)
    ]
    return {"rows": rows}


def _constants(curve: StrainLife, *, cyclic: bool = False) -> Values:
    found = {
        "sigma_f_MPa": curve.fatigue_strength_coefficient,
        "b": curve.fatigue_strength_exponent,
        "eps_f": curve.fatigue_ductility_coefficient,
        "c": curve.fatigue_ductility_exponent,
    }
    if cyclic:
        found |= {"K_MPa": curve.cyclic_strength_coefficient, "n": curve.cyclic_hardening_exponent}
    return found


def _universal(inputs: Values) -> Values:
    given = {"true_fracture_strain": inputs["true_fracture_strain"], "youngs_modulus": inputs["E_MPa"]}
    forms = {"universal": "original", "modified": "modified"}
    return {key: _constants(universal_slopes(inputs["Rm_MPa"], form=form, **given)) for key, form in forms.items()}


def _medians(inputs: Values) -> Values:
    return {
        "steel": [_constants(medians_estimate(one)) for one in inputs["Rm_steel_MPa"]],
        "aluminium": _constants(medians_estimate(inputs["Rm_aluminium_MPa"], group="aluminium")),
    }


def uniform(case: Values) -> list[tuple[Values, Values]]:
    """Expected and own constants of the uniform material law; its fatigue limit is no part of a strain-life curve."""
    given, wanted = case["inputs"], case["expected"]
    rows = [
        (row, uniform_material_law(one, youngs_modulus=given["E_steel_MPa"]))
        for row, one in zip(wanted["steel"], given["Rm_steel_MPa"], strict=True)
    ]
    light = wanted["aluminium_or_titanium"]
    rows += [
        (
            light,
            uniform_material_law(
                given["Rm_aluminium_or_titanium_MPa"], group=group, youngs_modulus=given["E_aluminium_MPa"]
            ),
        )
        for group in ("aluminium", "titanium")
    ]
    return [(row, _constants(curve, cyclic=True)) for row, curve in rows]


def hardness(case: Values) -> list[tuple[Values, Values]]:
    """The same of the hardness method; the tensile strength that it was found with is no part of it."""
    rows = zip(case["expected"]["rows"], case["inputs"]["HB"], strict=True)
    return [(row, _constants(hardness_estimate(one, youngs_modulus=case["inputs"]["E_MPa"]))) for row, one in rows]


def _fitted(inputs: Values) -> Values:
    rows = np.array(inputs["rows_strain_amp_stress_amp_MPa_reversals"])
    tests = StrainTests(name="bar", strain_amplitude=rows[:, 0], stress_amplitude=rows[:, 1], lives=0.5 * rows[:, 2])
    fit = fit_strain_life(tests, youngs_modulus=inputs["E_MPa"])
    curve = fit.curve()
    return {
        "sigma_f_MPa": curve.fatigue_strength_coefficient,
        "b": curve.fatigue_strength_exponent,
        "eps_f": curve.fatigue_ductility_coefficient,
        "c": curve.fatigue_ductility_exponent,
        "std_log10_life_elastic": fit.elastic.std,
        "std_log10_life_plastic": fit.plastic.std,
        "n_compatible": curve.compatible.cyclic_hardening_exponent,
        "K_compatible_MPa": curve.compatible.cyclic_strength_coefficient,
        "n_fitted": curve.cyclic_hardening_exponent,
        "K_fitted_MPa": curve.cyclic_strength_coefficient,
    }


def _hole_in_strip(inputs: Values) -> Values:
    forms = {"howland_polynomial": "Howland", "peterson_chart": "Peterson", "heywood": "Heywood"}
    return {key: [hole_in_strip(share, 1.0, form) for share in inputs["d_over_W"]] for key, form in forms.items()}


def _hole(inputs: Values) -> Values:
    rows = []
    for x, y in inputs["Sx_Sy_MPa"]:
        top, side = (float(hole_profile(2.0, 0.0, one, other)) for one, other in ((x, y), (y, x)))
        rows.append({"Sx": x, "Sy": y, "hoop_at_y_axis": top, "hoop_at_x_axis": side})
    return {"rows": rows, "Kt_uniaxial": float(hole_profile(2.0, 0.0))}


def _ellipse(inputs: Values) -> Values:
    sizes = inputs["a_b_mm"]
    return {"Kt": [elliptic_hole(a, b) for a, b in sizes], "root_radius_mm": [b * b / a for a, b in sizes]}


def _shoulder(inputs: Values) -> Values:
    return {"Kt": [shoulder(*row, form="Peterson") for row in inputs["load_D_d_r_mm"]]}


def _peterson(inputs: Values) -> Values:
    found = []
    for strength, radius, kt in inputs["Rm_MPa_r_mm_Kt"]:
        effect = notch_effect_by_radius(kt, radius, strength)
        found.append({"a_mm": (1.0 / effect.sensitivity - 1.0) * radius, "q": effect.sensitivity, "Kf": effect.kf})
    return {"rows": found}


def _neuber(inputs: Values) -> Values:
    rows = []
    for strength, radius, kt in inputs["Rm_MPa_r_mm_Kt"]:
        row = {}
        for key, load in (("bending_or_axial", "axial or bending"), ("torsion", "torsion")):
            effect = notch_effect_by_radius(kt, radius, strength, "Neuber", load)
            root = (1.0 / effect.sensitivity - 1.0) * math.sqrt(radius)
            row[key] = {"sqrt_a_sqrt_mm": root, "q": effect.sensitivity, "Kf": effect.kf}
        rows.append(row)
    return {"rows": rows}


def _support(inputs: Values) -> Values:
    kt, gradient = inputs["Kt"], inputs["gradient_1_per_mm"]
    slip = notch_effect_by_slip(kt, gradient, inputs["s_g_mm"]).kf
    own, hard = (notch_effect_by_gradient(kt, gradient, inputs["yield_MPa"], one).kf for one in GRADIENT_SURFACES)
    return {
        "n_general": kt / slip,
        "Kf_general": slip,
        "n_din743": kt / own,
        "Kf_din743": own,
        "n_din743_case_hardened": kt / hard,
    }


def _distances(inputs: Values) -> Values:
    rows, gradients = [], []
    for radius, threshold, limit in inputs["a_mm_dKth_MPa_sqrt_mm_dsigma0_MPa"]:
        length = critical_length(threshold, limit)
        depth = np.linspace(0.0, 2.0 * length, 40_001)
        stress = hole_profile(radius, depth)
        point, line = (notch_effect_by_distance(depth, stress, length, 1.0, one).kf for one in DISTANCES)
        rows.append(
            {
                "L_mm": length,
                "Kf_point": point,
                "Kf_line": line,
                "nominal_limit_range_point_MPa": limit / point,
                "nominal_limit_range_line_MPa": limit / line,
            }
        )
        gradients.append(relative_gradient(depth[:3], stress[:3]))
    return {"rows": rows, "gradient_1_per_mm": gradients}


def _short_cracks(inputs: Values) -> Values:
    known = inputs["dKth_MPa_sqrt_mm"], inputs["dsigma0_MPa"]
    limits = short_crack_limit(*known, inputs["a_mm"], inputs["Y"])
    return {"a0_mm": critical_length(*known, inputs["Y"]), "threshold_stress_range_MPa": limits}


STRAIN = (
    Method("Kt of a hole in a strip", r"kt-hole-strip", _hole_in_strip),
    Method("Kt of a hole in a wide plate", r"kt-hole-infinite", _hole),
    Method("Kt of an elliptic hole", r"kt-ellipse", _ellipse),
    Method("Kt of a shoulder, older charts", r"kt-shoulder-fillet", _shoulder),
    Method("Notch sensitivity by Peterson", r"peterson-q", _peterson),
    Method("Notch sensitivity by Neuber", r"neuber-q", _neuber),
    Method("Support factor by the gradient", r"siebel-stieler", _support),
    Method("Critical distances at a hole", r"critical-distance-hole", _distances),
    Method("Limit of short cracks", r"el-haddad", _short_cracks),
    Method("Strain-life curve from tests", r"fit-strain-life", _fitted),
    Method("Strain-life curve, amplitude", r"cmb-amplitude-\d", _amplitudes),
    Method("Strain-life curve, life", r"cmb-life-\d", _lives),
    Method("Transition life", r"cmb-transition-\d", _transition),
    Method("Compatible cyclic curve", r"compatible-\d", _compatible),
    Method("Cyclic stress-strain curve and branches", r"ramberg-osgood-\d", _cyclic),
    Method("Notch that yields, Neuber", r"neuber-\d", _notch("neuber")),
    Method("Notch that yields, energy density", r"glinka-\d", _notch("energy density")),
    Method("Notch in a section that yields", r"neuber-nominal-yield", _yielding_section),
    Method("History with material memory", r"history-(strain|notch.*)", _history),
    Method("Mean stress on strain", r"mean-stress-forms", _forms),
    Method("Strain-life curve by universal slopes", r"universal-slopes", _universal),
    Method("Strain-life curve by medians", r"medians", _medians),
)
