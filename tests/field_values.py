"""Reference cases of hot spots of a model. Rows like those of `reference_values`."""

from __future__ import annotations

from typing import Any

import numpy as np

from tests.reference_values import Method, Values
from tests.spots import hot_spot
from vivid_anvil.damage import assess_life
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.fields import CaseLoad, CaseLoads, ModelResult, assess_model, hottest_places, node_life, node_tensors
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import Material, detail_curve, straight_curve
from vivid_anvil.models import StressField, averaged_at_nodes, shell_faces, von_mises
from vivid_anvil.stress import HotSpot, RectangleSection, RoundSection, plate_with_hole, through_thickness, toe_stress
from vivid_anvil.stress.measures import stress_measure

PRINCIPAL, MISES = "absolute maximum principal", "signed von Mises, hydrostatic"


def spot_of(sn: Values, **settings: Any) -> HotSpot:
    """Curve and material of a case, with Goodman."""
    curve = straight_curve(
        name="case",
        stress="amplitude",
        r_ratio=-1,
        point_stress=sn["S_ref_amplitude_MPa"],
        point_life=sn["N_ref"],
        slope=sn["m"],
    )
    steel = Material(name="case", ultimate_strength=sn["tensile_strength_MPa"])
    given = {"name": "model", "channel": "stress", "stress_per_load": "1", "mean_stress": "goodman"}
    return hot_spot(**{**given, "material": steel, "curve": curve, **settings})


def duty_of(loads: dict[str, Any], **settings: Any) -> DutyCycle:
    """Histories by channel, N, as one event of a block."""
    channels = tuple(Channel(name, np.array(values, dtype=float), "force") for name, values in loads.items())
    return DutyCycle("block", (Event("block", LoadHistory("block", channels, 1.0)),), 1.0, **settings)


def model_of(inputs: Values, measure: str) -> ModelResult:
    nodes, names = np.array(inputs["nodes_id_x_y_mm"]), list(inputs["unit_stress_MPa"])
    field = StressField(
        cases=names,
        node_ids=nodes[:, 0].astype(int),
        coordinates=np.column_stack([nodes[:, 1:], np.zeros(len(nodes))]),
        stresses=[inputs["unit_stress_MPa"][name] for name in names],
    )
    units = zip(names, inputs["reference_load_N"], strict=True)
    loads = CaseLoads([CaseLoad(case=name, channel=name, unit_load=load) for name, load in units])
    return assess_model(field, loads, duty_of(inputs["loads_N"]), spot_of(inputs["sn"]), measure=measure)


def _superposition(inputs: Values) -> Values:
    units = np.array(inputs["unit_stress_MPa"], dtype=float)
    loads = np.array(inputs["loads"]) / np.array(inputs["reference_load"])[:, None]
    constant = np.array(inputs["constant_stress_MPa"], dtype=float)
    names = ["a", "b", "c"]
    field = StressField(
        cases=[*names, "always"], node_ids=[1, 2, 3], coordinates=np.zeros((3, 3)), stresses=[*units, constant]
    )
    steel = {"S_ref_amplitude_MPa": 100.0, "N_ref": 1e6, "m": 3.0, "tensile_strength_MPa": 1e6}
    found = {}
    for factor in (0.0, 1.0):
        cases = [CaseLoad(case=name, channel=name, unit_load=1.0) for name in names]
        given = CaseLoads(cases, {"always": factor})
        model = assess_model(field, given, duty_of(dict(zip(names, loads, strict=True))), spot_of(steel))
        found[factor] = np.array([node_tensors(model, node)["block"] for node in (1, 2, 3)])
    return {
        "stress_MPa": found[0.0].tolist(),
        "with_constant_MPa": found[1.0].tolist(),
        "signed_von_mises_by_hydrostatic_MPa": [stress_measure(MISES).of(one).tolist() for one in found[0.0]],
        "abs_max_principal_MPa": [stress_measure(PRINCIPAL).of(one).tolist() for one in found[0.0]],
    }


def _kirsch(inputs: Values) -> Values:
    rows = []
    for r, angle in inputs["r_mm_theta_deg"]:
        ways = {"Sx": (inputs["Sx_MPa"], 0.0), "Sy": (0.0, inputs["Sy_MPa"])}
        rows.append({key: plate_with_hole(inputs["a_mm"], r, angle, *load).tolist() for key, load in ways.items()})
    return {"rows": [value for row in rows for value in row.values()]}


def _field(inputs: Values) -> Values:
    found = {}
    for key, measure in (("abs_max_principal", PRINCIPAL), ("signed_von_mises_by_hydrostatic", MISES)):
        model = model_of(inputs, measure)
        top = hottest_places(model, 10, apart=0.0)
        worst = top[0].node
        life = node_life(model, worst)
        cycles = life.spectrum.cycles
        pairs = sorted(zip(cycles.maximum.tolist(), cycles.minimum.tolist(), strict=True), reverse=True)
        found[key] = {
            "top10_nodes": [one.node for one in top],
            "top10_damage_per_block": [one.damage_per_repeat for one in top],
            "worst_node_xy_mm": list(top[0].at_mm[:2]),
            "worst_node_tensor_history_MPa": node_tensors(model, worst)["block"].tolist(),
            "worst_node_history_MPa": stress_measure(measure).of(node_tensors(model, worst)["block"]).tolist(),
            "worst_node_cycles_max_min_MPa": [list(pair) for pair in pairs],
            "worst_node_life_blocks": life.life_repeats,
            "damage_all_nodes": model.damage_per_repeat.tolist(),
        }
    return found


def _shell(inputs: Values) -> Values:
    rows = []
    for nxx, nyy, nxy, mxx, myy, mxy, t in inputs["Nxx_Nyy_Nxy_Mxx_Myy_Mxy_t"]:
        faces = shell_faces([nxx, nyy, nxy], [mxx, myy, mxy], t)
        rows.append([faces.top.tolist(), faces.bottom.tolist(), faces.membrane.tolist()])
        rows[-1] += [float(von_mises(faces.top)), float(von_mises(faces.bottom))]
    return {"rows": rows}


def _averaging(inputs: Values) -> Values:
    found = {}
    for node, elements in inputs["stress_MPa"].items():
        rows = np.array(list(elements.values()), dtype=float)
        mean = averaged_at_nodes([int(node)] * len(rows), rows[None]).stresses[0, 0]
        each = von_mises(rows)
        found[node] = {
            "averaged_tensor_MPa": mean.tolist(),
            "von_mises_of_average_MPa": float(von_mises(mean)),
            "average_of_von_mises_MPa": float(each.mean()),
            "unaveraged_max_von_mises_MPa": float(each.max()),
            "unaveraged_max_element": list(elements)[int(each.argmax())],
        }
    return found


def _averaging_damage(inputs: Values) -> Values:
    names = list(inputs["unit_stress_MPa"])
    units = np.array([inputs["unit_stress_MPa"][name] for name in names], dtype=float)
    tensors = np.moveaxis(units, 0, 1)  # case, element, component
    mean = averaged_at_nodes([1] * len(names), tensors).stresses
    field = StressField(
        cases=["a", "b"],
        node_ids=[*(int(name) for name in names), 21],
        coordinates=np.zeros((len(names) + 1, 3)),
        stresses=np.concatenate([tensors, mean], axis=1),
    )
    pair = zip("ab", inputs["reference_load"], strict=True)
    loads = CaseLoads([CaseLoad(case=name, channel=name, unit_load=load) for name, load in pair])
    duty = duty_of(dict(zip("ab", inputs["loads"], strict=True)))
    damage = assess_model(field, loads, duty, spot_of(inputs["sn"]), measure=PRINCIPAL).damage_per_repeat
    return {
        "damage_by_element": dict(zip(names, damage.tolist(), strict=False)),
        "unaveraged_damage": float(damage[:-1].max()),
        "unaveraged_element": names[int(damage[:-1].argmax())],
        "averaged_damage": float(damage[-1]),
    }


def _weld_life(stress_range: float, fat: float) -> float:
    curve = straight_curve(name="-", stress="range", r_ratio="any", point_stress=fat, point_life=2e6, slope=3)
    pull = LoadHistory("one", (Channel("s", np.array([0.0, stress_range]), "stress"),), 1.0)
    spot = hot_spot(name="toe", channel="s", stress_per_load="1", material=Material(name="-"), curve=curve)
    return assess_life(spot, DutyCycle("cycle", (Event("one", pull),), 1.0)).life_repeats


def _structural(inputs: Values) -> Values:
    t = inputs["t_mm"]
    at = {
        "a_fine": ([0.4 * t, t], "0.4t and 1.0t"),
        "a_coarse": ([0.5 * t, 1.5 * t], "0.5t and 1.5t"),
        "quad": ([0.4 * t, 0.9 * t, 1.4 * t], "0.4t, 0.9t and 1.4t"),
        "b_fine": ([4.0, 8.0, 12.0], "4, 8 and 12 mm"),
        "b_coarse": ([5.0, 15.0], "5 and 15 mm"),
    }
    spots = {key: float(toe_stress(x, inputs[key], rule, t)) for key, (x, rule) in at.items()}
    path = (inputs["path_x_mm"], inputs["path_stress_range_MPa"])
    rules = ("0.4t and 1.0t", "0.5t and 1.5t", "0.4t, 0.9t and 1.4t")
    keys = ("linear_0.4t_1.0t", "linear_0.5t_1.5t", "quadratic_0.4t_0.9t_1.4t")
    return {
        "hot_spot_range_MPa": spots,
        "path_hot_spot_range_MPa": {k: float(toe_stress(*path, rule, t)) for k, rule in zip(keys, rules, strict=True)},
        "life_cycles": {f"fat{fat:g}": _weld_life(spots["a_fine"], fat) for fat in inputs["fat_MPa"]},
    }


def _thickness(inputs: Values) -> Values:
    t = inputs["t_mm"]
    a, b, q = inputs["exponential_A_B_MPa_q_mm"]
    x = np.linspace(0.0, t, 20001)
    ways = {
        "polynomial": np.polynomial.polynomial.polyval(x / t, inputs["polynomial_MPa"]),
        "exponential": a + b * np.exp(-x / q),
    }
    found = {}
    for key, s in ways.items():
        parts = through_thickness(x, s)
        found[key] = {
            "membrane_MPa": parts.membrane,
            "bending_MPa": parts.bending,
            "structural_MPa": parts.structural,
            "peak_MPa": parts.peak,
        }
    return found


def _notch(inputs: Values) -> Values:
    shipped = detail_curve("IIW effective notch", 225, loading="constant")
    return {
        "life_cycles": [_weld_life(one, 225.0) for one in inputs["range_MPa"]],
        "range_at_2e6_MPa": float(shipped.stress_at(2e6)),
    }


def _sections(inputs: Values) -> Values:
    bars = []
    for one in inputs["bars_mm_N_Nmm"]:
        found = RoundSection(one["d"], one["d_in"]).stress(one["F"], one["M"], one["T"])
        bars.append([found.axial, found.bending, found.torsion, *found.principals, found.von_mises])
    flat = [RectangleSection(r["b"], r["h"]).stress(r["F"], r["M"]) for r in inputs["rectangles_mm_Nmm"]]
    return {"bars": bars, "rectangles": [[one.bending, one.axial] for one in flat]}


FIELD_METHODS = (
    Method("Superposition of load cases", "superposition", _superposition),
    Method("Plate with a hole", "kirsch-points", _kirsch),
    Method("Hot spots of a field", "field-hot-spots", _field),
    Method("Faces of a shell", "shell-faces", _shell),
    Method("Averaging at nodes", "nodal-averaging", _averaging),
    Method("Damage averaged and not", "nodal-averaging-damage", _averaging_damage),
    Method("Structural stress at a weld toe", "structural-hot-spot", _structural),
    Method("Through-thickness linearisation", "through-thickness", _thickness),
    Method("Effective notch stress", "effective-notch", _notch),
    Method("Nominal stress of sections", "nominal-sections", _sections),
)
