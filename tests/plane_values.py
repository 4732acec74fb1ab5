"""Reference cases on planes: tensors on planes, shear paths, criteria on stress and on strain, how far a path turns."""

from __future__ import annotations

from typing import Any

import numpy as np

from tests.reference_values import Method, Values
from tests.strain_values import strain_life
from vivid_anvil.counting import rainflow
from vivid_anvil.fields.proportionality import biaxiality_ratios, trust_of
from vivid_anvil.stress import stress_measure
from vivid_anvil.stress.planes import (
    CRITERIA,
    SHEAR_AMPLITUDES,
    Paths,
    dang_van,
    dang_van_constants,
    findley_constant,
    normal_at,
    normal_stress,
    shear_stress,
    smallest_circle,
    worst_plane,
)
from vivid_anvil.stress.planes.criteria import elastic_strains, largest_normal, normal_range, shear_amplitude
from vivid_anvil.stress.planes.lives import ShearCurve, brown_miller_life, fatemi_socie_life, smith_watson_topper_life

SAMPLES = 360  # of a cycle: what is lost between them is 4e-5


def turning(inputs: Values, samples: int = SAMPLES) -> np.ndarray:
    """Axial and shear stress, the shear late by a phase."""
    x = 2.0 * np.pi * np.arange(samples) / samples
    found = np.zeros((samples, 6))
    found[:, 0] = inputs["axial_mean_MPa"] + inputs["axial_amplitude_MPa"] * np.sin(x)
    late = np.radians(inputs["phase_deg"])
    found[:, 3] = inputs["shear_mean_MPa"] + inputs["shear_amplitude_MPa"] * np.sin(x - late)
    return found


def criterion(name: str, **constants: Any) -> Any:
    """One of the table, with its constants."""
    return CRITERIA[name](**constants)


def _components(inputs: Values) -> Values:
    rows = []
    for theta, phi in inputs["theta_phi_deg"]:
        normal = normal_at(theta, phi)
        first, second = shear_stress([inputs["stress_MPa"]], [_at(normal, theta, phi)])[0, 0]
        rows.append(
            {
                "n": normal,
                "normal_MPa": float(normal_stress([inputs["stress_MPa"]], [normal])[0, 0]),
                "shear_along_theta_MPa": first,
                "shear_along_phi_MPa": second,
                "shear_MPa": float(np.hypot(first, second)),
            }
        )
    return {"rows": rows}


def _at(normal: np.ndarray, theta: float, phi: float) -> np.ndarray:
    """The normal itself: at the pole axes are those of φ = 0, as in the cases."""
    assert theta or not phi
    return normal


def _on_shear_plane(paths: Paths, second: Any) -> np.ndarray:
    found = worst_plane(lambda n: shear_amplitude(paths.stress, n, "circle"), second=lambda n: second(paths.stress, n))
    return found.normal[None]


def _stress_criteria(inputs: Values) -> Values:
    stress = turning(inputs)
    paths = Paths.of(stress)
    findley = criterion("findley", k=inputs["findley_k"])
    found = {
        "max_normal_stress_MPa": worst_plane(lambda n: largest_normal(stress, n)).value,
        "max_normal_amplitude_MPa": criterion("normal stress").worst(stress)[1],
        "findley_MPa": findley.worst(stress)[1],
        "max_shear_amplitude_MPa": worst_plane(lambda n: shear_amplitude(stress, n, "circle")).value,
    }
    normal = _on_shear_plane(paths, largest_normal)
    diarmid = criterion(
        "mcdiarmid", torsion_limit=inputs["mcdiarmid_t_MPa"], ultimate_strength=inputs["tensile_strength_MPa"]
    )
    found["max_normal_on_max_shear_plane_MPa"] = float(largest_normal(stress, normal)[0])
    found["mcdiarmid"] = diarmid.worst(stress)[1]
    return found


def _proportional(inputs: Values) -> Values:
    found, stress = _stress_criteria(inputs), turning(inputs)
    strains = elastic_strains(stress, inputs["E_MPa"], inputs["nu"])
    socie = criterion("fatemi-socie", k=inputs["fatemi_socie_k"], yield_strength=inputs["yield_MPa"])
    miller = criterion("brown-miller", s=inputs["brown_miller_S"])
    found |= {
        "max_shear_strain_amplitude": 2.0 * worst_plane(lambda n: shear_amplitude(strains, n, "circle")).value,
        "fatemi_socie_on_max_shear_plane": socie.worst(stress, strains)[1],
        "brown_miller_on_max_shear_plane": miller.worst(stress, strains)[1],
        "swt_greatest_over_planes_MPa": criterion("smith-watson-topper").worst(stress, strains)[1],
    }
    return found


def _uniaxial(inputs: Values) -> Values:
    normal = criterion("findley", k=inputs["findley_k"]).worst(turning(inputs))[0].normal
    angle = float(np.degrees(np.arccos(abs(normal[0]))))
    return {**_proportional(inputs), "findley_angle_normal_to_axis_deg": angle}


def _out_of_phase(inputs: Values) -> Values:
    return _stress_criteria(inputs)


def _ring(inputs: Values) -> Values:
    found = _stress_criteria(inputs)
    return {key: one for key, one in found.items() if key not in ("max_normal_on_max_shear_plane_MPa", "mcdiarmid")}


def _strain_planes(inputs: Values) -> Values:
    x = 2.0 * np.pi * np.arange(SAMPLES) / SAMPLES
    late = np.sin(x - np.radians(inputs["phase_deg"]))
    stress, strain = np.zeros((SAMPLES, 6)), np.zeros((SAMPLES, 6))
    stress[:, 0] = inputs["axial_stress_mean_MPa"] + inputs["axial_stress_amplitude_MPa"] * np.sin(x)
    stress[:, 3] = inputs["shear_stress_amplitude_MPa"] * late
    strain[:, 0] = inputs["axial_strain_amplitude"] * np.sin(x)
    strain[:, 1] = strain[:, 2] = -inputs["nu_effective"] * strain[:, 0]
    strain[:, 3] = 0.5 * inputs["gamma_amplitude"] * late
    metal = inputs["material"]
    curve = strain_life({**metal, "K_MPa": None, "n": None})
    shear = ShearCurve(metal["tau_f_MPa"], metal["b"], metal["gamma_f"], metal["c"], metal["G_MPa"])
    how = {"k": inputs["fatemi_socie_k"], "yield_strength": inputs["yield_MPa"]}
    socie = criterion("fatemi-socie", **how).worst(stress, strain)[1]
    plane, miller = criterion("brown-miller", s=metal["S"]).worst(stress, strain)
    swt = criterion("smith-watson-topper").worst(stress, strain)[1]
    normal = normal_stress(stress, plane.normal[None])[0]
    mean = 0.5 * (normal.max() + normal.min())
    poisson = metal["nu_e"], metal["nu_p"]
    return {
        "max_shear_strain_amplitude": 2.0 * worst_plane(lambda n: shear_amplitude(strain, n, "circle")).value,
        "fatemi_socie_on_max_shear_plane": socie,
        "fatemi_socie_life_cycles": float(fatemi_socie_life(np.asarray(socie), shear)),
        "fatemi_socie_greatest_over_planes": criterion("fatemi-socie", **how, plane="largest parameter").worst(
            stress, strain
        )[1],
        "brown_miller_on_max_shear_plane": miller,
        "brown_miller_normal_mean_stress_MPa": mean,
        "brown_miller_life_cycles": float(brown_miller_life(np.asarray(miller), mean, curve, metal["S"], poisson)),
        "swt_greatest_over_planes_MPa": swt,
        "swt_life_cycles": float(smith_watson_topper_life(np.asarray(swt), curve)),
    }


def _constants(inputs: Values) -> Values:
    rows = []
    for limits in inputs["axial_limit_MPa_torsion_limit_MPa"]:
        (k, findley), (a, b) = findley_constant(*limits), dang_van_constants(*limits)
        rows.append({"findley_k": k, "findley_limit_MPa": findley, "dang_van_a": a, "dang_van_b_MPa": b})
    return {"rows": rows}


def _dang_van_closed(inputs: Values) -> Values:
    rows = []
    constants = {"a": inputs["a"], "b": inputs["b_MPa"]}
    for amplitude, mean in inputs["uniaxial_amp_mean_MPa"]:
        swing = np.zeros((SAMPLES, 6))
        swing[:, 0] = mean + amplitude * np.sin(2.0 * np.pi * np.arange(SAMPLES) / SAMPLES)
        found = dang_van(swing, **constants)
        rows.append({"kind": "uniaxial", "axial_amplitude_MPa": amplitude, "axial_mean_MPa": mean, **_of(found)})
    return {"rows": [*rows, {"kind": "out-of-phase-1", **_of(dang_van(turning(inputs["out_of_phase"]), **constants))}]}


def _of(found: Any) -> Values:
    return {"greatest_MPa": found.largest, "utilisation": found.utilisation, "safety_factor": found.safety_factor}


def _dang_van(inputs: Values) -> Values:
    found = dang_van(inputs["stress_MPa"], a=inputs["a"], b=inputs["b_MPa"])
    return {
        "greatest_tau_plus_a_hydrostatic_MPa": found.largest,
        "utilisation": found.utilisation,
        "safety_factor": found.safety_factor,
        "tau_MPa": found.shear,
        "hydrostatic_MPa": found.hydrostatic,
    }


def _shear_paths(inputs: Values) -> Values:
    rows = []
    for path in inputs["paths_MPa"]:
        centre, radius = smallest_circle(path)
        chord = float(SHEAR_AMPLITUDES["chord"](np.array([path], dtype=float))[0])
        rows.append({"circle_radius_MPa": radius, "circle_centre_MPa": centre, "half_longest_chord_MPa": chord})
    return {"rows": rows}


def _ellipse(inputs: Values) -> Values:
    stress, rows = turning(inputs), []
    for theta, phi in inputs["theta_phi_deg"]:
        normal = normal_at(theta, phi)[None]
        rows.append(
            {
                "shear_amplitude_circle_MPa": float(shear_amplitude(stress, normal, "circle")[0]),
                "shear_amplitude_projected_MPa": float(shear_amplitude(stress, normal, "chord")[0]),
                "normal_amplitude_MPa": 0.5 * float(normal_range(stress, normal)[0]),
                "normal_max_MPa": float(largest_normal(stress, normal)[0]),
            }
        )
    return {"rows": rows}


def _on_planes(inputs: Values) -> Values:
    stress, rows = np.array(inputs["stress_MPa"], dtype=float), []
    for theta, phi in inputs["theta_phi_deg"]:
        normal = normal_at(theta, phi)[None]
        rows.append(
            {
                "normal_max_MPa": float(largest_normal(stress, normal)[0]),
                "normal_min_MPa": float(normal_stress(stress, normal).min()),
                "shear_amplitude_circle_MPa": float(shear_amplitude(stress, normal, "circle")[0]),
                "shear_amplitude_half_chord_MPa": float(shear_amplitude(stress, normal, "chord")[0]),
            }
        )
    return {"rows": rows}


def block_damage(stress: np.ndarray, normals: np.ndarray, capacity: float, slope: float) -> np.ndarray:
    """Σ range^m / C of the normal stress on each plane, over the cycles of the repeated block."""
    courses = normal_stress(stress, normals)
    return np.array([(rainflow(one, residue="repeated").range ** slope).sum() / capacity for one in courses])


def _critical(inputs: Values) -> Values:
    stress = np.array(inputs["stress_MPa"], dtype=float)
    damage = worst_plane(lambda n: block_damage(stress, n, inputs["C"], inputs["m"]))
    how = {"k": inputs["findley_k"]}
    return {
        "findley_circle_MPa": criterion("findley", **how).worst(stress)[1],
        "findley_half_chord_MPa": criterion("findley", **how, amplitude="chord").worst(stress)[1],
        "max_normal_stress_MPa": worst_plane(lambda n: largest_normal(stress, n)).value,
        "normal_stress_damage_per_block": damage.value,
    }


def _critical_with_shear(inputs: Values) -> Values:
    stress = np.array(inputs["stress_MPa"], dtype=float)
    normal = _on_shear_plane(Paths.of(stress), largest_normal)
    diarmid = criterion(
        "mcdiarmid", torsion_limit=inputs["mcdiarmid_t_MPa"], ultimate_strength=inputs["tensile_strength_MPa"]
    )
    return {
        **_critical(inputs),
        "max_shear_amplitude_circle_MPa": worst_plane(lambda n: shear_amplitude(stress, n, "circle")).value,
        "max_normal_on_max_shear_plane_MPa": float(largest_normal(stress, normal)[0]),
        "mcdiarmid": diarmid.worst(stress)[1],
    }


def _map(inputs: Values) -> Values:
    stress, swing = np.array(inputs["stress_MPa"], dtype=float), turning(inputs["out_of_phase"])
    findley, rows = criterion("findley", k=inputs["findley_k"]), []
    for theta, phi in _net():
        normal = normal_at(theta, phi)[None]
        own = float(findley.values(Paths.of(swing), normal)[0])
        damages = [float(block_damage(one, normal, inputs["C"], inputs["m"])[0]) for one in (swing, stress)]
        rows.append([theta, phi, own, *damages])
    return {"rows": rows}


def _net() -> list[tuple[float, float]]:
    """The planes of the maps, in their order."""
    found = [(0, 0)]
    for theta in (30, 60):
        found += [(theta, phi) for phi in range(0, 360, 30)]
    return [*found, *((90, phi) for phi in range(0, 180, 30))]


def _map_uniaxial(inputs: Values) -> Values:
    swing = np.zeros((2, 6))
    swing[:, 0] = inputs["axial_amplitude_MPa"], -inputs["axial_amplitude_MPa"]
    rows = []
    for theta, phi in _net():
        damage = block_damage(swing, normal_at(theta, phi)[None], inputs["C"], inputs["m"])
        rows.append([theta, phi, float(damage[0])])
    return {"rows": rows}


def _biaxiality(inputs: Values) -> Values:
    ratios = biaxiality_ratios(inputs["stress_MPa"], gate=inputs["gate"])
    return {
        "ratio": ratios.ratio,
        "larger_principal_MPa": ratios.larger,
        "kept": int(ratios.kept.sum()),
        "mean": ratios.mean,
        "std": ratios.std,
    }


def _proportionality(inputs: Values) -> Values:
    turned = inputs["out_of_phase"]
    return {
        "in_phase": trust_of(turning({**turned, "phase_deg": 0.0}, inputs["samples_per_cycle"])).off_line,
        "out_of_phase": trust_of(turning(turned, inputs["samples_per_cycle"])).off_line,
        "history": trust_of(inputs["stress_MPa"]).off_line,
        "history3d": trust_of(inputs["stress_3d_MPa"]).off_line,
    }


def _invariants(inputs: Values) -> Values:
    rows = []
    for one in inputs["stress_MPa"]:
        tensor = np.array([one], dtype=float)
        principal = np.linalg.eigvalsh(tensor[0][[[0, 3, 5], [3, 1, 4], [5, 4, 2]]])[::-1]
        by = {
            key: float(stress_measure(name).of(tensor[0])[0])
            for key, name in (
                ("abs_max_principal_MPa", "absolute maximum principal"),
                ("signed_von_mises_by_hydrostatic_MPa", "signed von Mises, hydrostatic"),
                ("signed_von_mises_by_abs_max_principal_MPa", "signed von Mises, principal"),
                ("tresca", "signed Tresca"),
            )
        }
        tresca = abs(by.pop("tresca"))
        rows.append(
            {
                "principal_MPa": principal,
                "von_mises_MPa": abs(by["signed_von_mises_by_hydrostatic_MPa"]),
                "tresca_MPa": tresca,
                "max_shear_MPa": 0.5 * tresca,
                "abs_max_principal_MPa": by["abs_max_principal_MPa"],
                "hydrostatic_MPa": float(tensor[0, :3].mean()),
                **{key: one for key, one in by.items() if key.startswith("signed")},
            }
        )
    return {"rows": rows}


PLANES = (
    Method("Invariants of tensors", r"invariants", _invariants),
    Method("Tensors on planes", r"plane-components", _components),
    Method("Planes in proportional loading, uniaxial", r"proportional-uniaxial-\d", _uniaxial),
    Method("Planes in proportional loading", r"proportional-(torsion|inphase)-\d", _proportional),
    Method("Planes out of phase", r"out-of-phase-[13]", _out_of_phase),
    Method("Planes out of phase, a ring of ties", r"out-of-phase-2", _ring),
    Method("Strain criteria on planes", r"strain-planes-\d", _strain_planes),
    Method("Constants of criteria from two limits", r"constants-from-limits", _constants),
    Method("Dang Van, closed", r"dang-van-closed", _dang_van_closed),
    Method("Dang Van, histories", r"dang-van-history(3d)?", _dang_van),
    Method("Amplitudes of shear paths", r"shear-paths", _shear_paths),
    Method("Ellipses on planes", r"ellipse-on-planes", _ellipse),
    Method("Histories on planes", r"history(3d)?-on-planes", _on_planes),
    Method("Critical plane of a history", r"history-critical-plane", _critical_with_shear),
    Method("Critical plane of a history in space", r"history3d-critical-plane", _critical),
    Method("Map of the hemisphere", r"hemisphere-map", _map),
    Method("Map of the hemisphere, uniaxial", r"hemisphere-map-uniaxial", _map_uniaxial),
    Method("Biaxiality", r"biaxiality", _biaxiality),
    Method("How far a path leaves a line", r"non-proportionality", _proportionality),
)
