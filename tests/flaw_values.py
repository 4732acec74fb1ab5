"""Reference cases of flaw acceptance: curves, toughness, points, reserves, limiting sizes."""

from __future__ import annotations

import dataclasses
from typing import Any

import numpy as np
from scipy.optimize import brentq

from tests.reference_values import Method, Values
from vivid_anvil.acceptance import (
    AsWelded,
    Flaw,
    FlawAssessment,
    FractureLoads,
    PrimaryStresses,
    RangesPerYear,
    SecondaryStresses,
    Stage,
    Terms,
    allowable_flaws,
    assess_flaw,
    grow_flaw,
    limiting_sizes,
)
from vivid_anvil.acceptance.point import point_of
from vivid_anvil.acceptance.reserves import on_load
from vivid_anvil.acceptance.stresses.interaction import INTERACTIONS
from vivid_anvil.materials import Material, ParisLaw
from vivid_anvil.materials.fracture import CTODToughness, MasterCurve, Metal, ToughnessTests
from vivid_anvil.materials.fracture.master_curve import master_k
from vivid_anvil.materials.fracture.toughness import ROOT_1000, at_front
from vivid_anvil.shapes import EmbeddedCrack, SurfaceCrack
from vivid_anvil.shapes.solutions import embedded_reference_stress


def metal_of(inputs: Values, **more: Any) -> Metal:
    strengths = {"yield_strength": inputs["sy_MPa"], "ultimate_strength": inputs["su_MPa"]}
    toughness = inputs.get("Kmat_MPa_sqrt_mm", 1000.0)
    material = Material(name="steel", toughness=toughness, **strengths)
    return Metal(material=material, youngs_modulus=inputs["E_MPa"], **more)


def _curve(kind: str, **more: Any) -> Any:
    def values(inputs: Values) -> Values:
        rows = {"stress_strain": inputs["stress_strain"]} if "stress_strain" in inputs else {}
        curve: Any = metal_of(inputs, curve=kind, **more, **rows).assessment_curve
        found: Values = {"f": curve.at(inputs["Lr"]).tolist()}
        if kind in ("general", "older"):
            found["Lr_max"] = curve.largest_load_ratio
        if rows:
            found["eps_ref"] = [curve.strain(one * inputs["sy_MPa"]) for one in inputs["Lr"]]
        if kind == "yield plateau":
            found["plateau_strain"] = curve.plateau
        return found

    return values


def _ctod(inputs: Values) -> Values:
    metal = metal_of(inputs, poissons_ratio=inputs["nu"])
    found = [CTODToughness(ctod=one) for one in inputs["ctod_mm"]]
    given = [CTODToughness(ctod=one, m=inputs["m_given"]) for one in inputs["ctod_mm"]]
    # several results of which the least counts are the least of them
    least = ToughnessTests(results=[f"{one} mm" for one in inputs["ctod_mm"]], rule="lower bound").found(metal, 25.0).k
    assert np.isclose(least, min(one.found(metal, 25.0).k for one in found), rtol=1e-12)
    return {
        "m": found[0].factor(metal),
        "K_MPa_sqrt_mm": [one.found(metal, 25.0).k for one in found],
        "K_with_m_given_MPa_sqrt_mm": [one.found(metal, 25.0).k for one in given],
    }


def _point(inputs: Values) -> Values:
    curve = metal_of(inputs).assessment_curve
    way = INTERACTIONS["rho" if inputs["use_rho"] else "none"]
    terms = Terms((inputs["Kp_MPa_sqrt_mm"],), (inputs["Ks_MPa_sqrt_mm"],), inputs["sref_MPa"])
    found = point_of(terms, curve, inputs["Kmat_MPa_sqrt_mm"], way, ("tip",))

    def scaled(factor: float) -> Terms:
        return Terms((factor * terms.primary[0],), terms.secondary, factor * terms.reference)

    return {
        "Lr": found.load_ratio,
        "Kr": found.governing.fracture_ratio,
        "f_Lr": found.allowed,
        "acceptable": found.acceptable,
        "load_factor": on_load(terms, scaled, curve, inputs["Kmat_MPa_sqrt_mm"], way).factor,
    }


def assessed(inputs: Values, secondary: Any = None, **metal: Any) -> FlawAssessment:
    shape = SurfaceCrack(thickness=inputs["t_mm"], plate_width=inputs["W_mm"])
    flaw = Flaw(name="flaw", shape=shape, size=inputs["a_mm"], half_length=inputs["c_mm"])
    held = secondary or SecondaryStresses(membrane=inputs["Qm_MPa"], bending=inputs["Qb_MPa"], of="residual")
    loads = FractureLoads([PrimaryStresses(membrane=inputs["Pm_MPa"], bending=inputs["Pb_MPa"])], [held])
    return assess_flaw(flaw, loads, metal_of(inputs, **metal))


def _two_tips(inputs: Values) -> Values:
    found = assessed(inputs)
    ends = found.point.ends
    return {
        "sref_MPa": found.terms.reference,
        "Lr": found.point.load_ratio,
        "f_Lr": found.point.allowed,
        "Kp_deepest_surface": [end.k_primary for end in ends],
        "Ks_deepest_surface": [end.k_secondary for end in ends],
        "chi_deepest_surface": [end.chi for end in ends],
        "rho_deepest_surface": [end.added for end in ends],
        "Kr_deepest_surface": [end.fracture_ratio for end in ends],
        "governing": found.point.governing.name.split()[0],
        "acceptable": found.acceptable,
    }


def _relaxed(inputs: Values) -> Values:
    by, follows, no = (assessed(inputs, AsWelded(relaxed=word)) for word in ("by the load", "with the load", "no"))
    metal = metal_of(inputs)

    def relaxes(reference: float) -> float:
        return AsWelded(relaxed="by the load").stress(metal, reference, None).membrane - inputs["sy_MPa"] + 1e-9

    return {
        "sref_MPa": by.terms.reference,
        "Lr": by.point.load_ratio,
        "f_Lr": by.point.allowed,
        "Qm_MPa": by.loads.secondary[0].stress(metal, by.terms.reference, None).membrane,
        "Ks_deepest_surface": list(by.terms.secondary),
        "rho_deepest_surface": [end.added for end in by.point.ends],
        "Kr_deepest_surface": [end.fracture_ratio for end in by.point.ends],
        "acceptable": by.acceptable,
        "load_factor_following": follows.reserve_on_load.factor,
        "load_factor_Qm_held": by.reserve_on_load.factor,
        "load_factor_not_relaxed": no.reserve_on_load.factor,
        "sref_from_which_it_relaxes_MPa": brentq(relaxes, 1.0, 400.0),
    }


def _reserves(inputs: Values) -> Values:
    found = assessed(inputs)
    factors = {f"factor_{one.on}": one.factor for one in found.reserves}
    return {
        "Lr": found.point.load_ratio,
        "f_Lr": found.point.allowed,
        "Kr_governing": found.point.governing.fracture_ratio,
        "Kmat_needed_MPa_sqrt_mm": found.needed_toughness,
        **factors,
    }


def _outside(inputs: Values) -> Values:
    found = _reserves(inputs)
    limit = found["factor_size"] * inputs["a_mm"]
    inside = limit > inputs["a_mm"]
    return {**found, "acceptable": inside, "a_limit_mm": limit, "N_cycles": np.nan if inside else 0}


def _never(inputs: Values) -> Values:
    found = assessed(inputs)
    law = ParisLaw(name="law", rate=inputs["C"], slope=inputs["m"], threshold=inputs["dK_th_MPa_sqrt_mm"])
    ranges = [inputs["dSt_MPa"] / inputs["Pm_MPa"] * one for one in found.terms.primary]
    still = max(float(law.growth(one)) for one in ranges) == 0.0
    deep = 0.95 * inputs["t_mm"] / inputs["a_mm"]
    at_end = point_of(
        found.terms_at(tuple(deep * one for one in found.sizes)),
        found.curve,
        found.toughness,
        found.loads.way,
        ("a", "c"),
    )
    return {
        "Lr": found.point.load_ratio,
        "Kr_governing": found.point.governing.fracture_ratio,
        "f_Lr": found.point.allowed,
        "acceptable": found.acceptable,
        "dK_deepest_surface_MPa_sqrt_mm": ranges,
        "N_cycles": np.inf if still else 0.0,
        "c_at_0.95_t_mm": deep * inputs["c_mm"],
        "margin_f_minus_Kr_at_0.95_t": at_end.room,
        "limit_in_range": np.isfinite(found.reserve_on_size.factor),
    }


def _embedded(inputs: Values) -> Values:
    rows = inputs["Pm_Pb_a_c_t_p_W"]
    stresses = [embedded_reference_stress(*row) for row in rows]
    m, b, a, c, t, p, w = rows[0]
    shape = EmbeddedCrack(thickness=t, plate_width=w, centre_depth=a + p)
    assert np.isclose(shape.reference_stress_of(m, b, a, c), stresses[0], rtol=1e-12)
    return {"sref_MPa": stresses, "Lr": [one / inputs["sy_MPa"] for one in stresses]}


def _master(inputs: Values) -> Values:
    t0, front = inputs["T0_C"], inputs["B_mm"]
    base = {"sy_MPa": 400.0, "su_MPa": 550.0, "E_MPa": 207000.0}

    def k(temperature: float, probability: float) -> float:
        curve = MasterCurve(reference_temperature=t0, probability=probability)
        found = metal_of(base, toughness=curve, temperature=temperature).tough(front).k
        assert np.isclose(found, master_k(temperature, t0, front, probability), rtol=1e-14)
        return found

    rows = [[k(t, p) for p in inputs["P"]] for t in inputs["T_C"]]
    needed = inputs["needed_MPa_sqrt_m"] * ROOT_1000
    carried, _ = at_front(inputs["test_K_MPa_sqrt_m"] * ROOT_1000, inputs["test_B_mm"], front)
    return {
        "Kmat_MPa_sqrt_m": [[one / ROOT_1000 for one in row] for row in rows],
        "Kmat_MPa_sqrt_mm": rows,
        "T_needed_C": brentq(lambda t: k(t, 0.05) - needed, -100.0, 50.0, xtol=1e-12),
        "test_K_at_B_MPa_sqrt_m": carried / ROOT_1000,
    }


def _allowable(aspect: str) -> Any:
    def values(inputs: Values) -> Values:
        shape = SurfaceCrack(thickness=inputs["t_mm"], plate_width=inputs["W_mm"])
        loads = FractureLoads([PrimaryStresses(membrane=inputs["Pm_MPa"], bending=inputs["Pb_MPa"])])
        found = assess_flaw(Flaw(name="flaw", shape=shape, size=2.0, half_length=4.0), loads, metal_of(inputs))
        law = ParisLaw(name="law", rate=inputs["C"], slope=inputs["m"])
        ranges = RangesPerYear([(inputs["dSt_MPa"], inputs["dSb_MPa"], inputs["N_target_cycles"])])
        stages = [Stage("all", law, ranges)]
        ratios = inputs["a_over_c_initial"]
        own = allowable_flaws(found, stages, 1.0, aspects=ratios, aspect=aspect)
        assert np.allclose(own.lives, 1.0, rtol=2e-5)
        if aspect == "kept":
            limits = limiting_sizes(found, aspects=ratios).curves[0].depths
            return {"a_initial_mm": own.depths.tolist(), "a_limit_mm": limits.tolist()}
        starts = [
            dataclasses.replace(found.flaw, size=a, half_length=a / x) for a, x in zip(own.depths, ratios, strict=True)
        ]
        ends = [grow_flaw(dataclasses.replace(found, flaw=flaw), stages).legs[-1][1].last for flaw in starts]
        return {
            "a_initial_mm": own.depths.tolist(),
            "a_final_mm": [end[0] for end in ends],
            "c_final_mm": [end[1] for end in ends],
        }

    return values


FLAWS = (
    Method("Allowable initial flaw, aspect free", r"D-allowable-initial-two-dof-1", _allowable("free")),
    Method("Allowable initial flaw, aspect kept", r"D-allowable-initial-fixed-aspect-1", _allowable("kept")),
    Method("Failure assessment curve, older form", r"D-fad-older-\d", _curve("older")),
    Method("Failure assessment curve, general form of a metal", r"D-fad-general-\d", _curve("general")),
    Method("Failure assessment curve with a yield plateau", r"D-fad-plateau-\d", _curve("yield plateau")),
    Method("Failure assessment curve of a stress-strain curve", r"D-fad-material-\d", _curve("stress-strain")),
    Method("Toughness from CTOD", r"D-k-from-ctod-1", _ctod),
    Method("Point in the assessment diagram and reserve on load", r"D-assessment-point-\d", _point),
    Method("Flaw with two ends, each with its own interaction", r"EX-point-two-tips-\d", _two_tips),
    Method("Residual stress relaxed by the load", r"EX-residual-relaxed-1", _relaxed),
    Method("Reserves on load, toughness, size, yield", r"EX-reserve-factors-1", _reserves),
    Method("Flaw outside the curve from the start", r"EX-outside-already-1", _outside),
    Method("Flaw without limit in the range of its solution", r"EX-never-reached-1", _never),
    Method("Reference stress, embedded crack", r"EX-sref-embedded-1", _embedded),
    Method("Toughness by the master curve", r"EX-master-curve-1", _master),
)
