"""Reference cases of rubber: energy that opens cracks, growth of cracks, test pieces."""

from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
from scipy.optimize import brentq

from tests.reference_values import Method, Values
from vivid_anvil.counting import rainflow
from vivid_anvil.damage import CrackingEnergy, LifeResult, assess_life
from vivid_anvil.events import DutyCycle, Event, LoadStates
from vivid_anvil.materials import Material
from vivid_anvil.materials.rubber import (
    HyperelasticLaw,
    MooneyRivlin,
    NeoHookean,
    PowerTearing,
    Rubber,
    ShiftedTearing,
    TearingLaw,
    ThreeRegimes,
    edge_crack_energy,
    planar_strip_energy,
    stretches,
    trousers_energy,
)
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.planes import worst_plane
from vivid_anvil.stress.rubber import StatesInTurn, StrainLoads, StrainPath, StrainStates, cauchy_green, without_drift

STEPS = 400  # from one corner of a path to the next
SHEET = [0.0, 0.0, 1.0]


def law_of(inputs: Values) -> HyperelasticLaw:
    """Neo-Hooke's by its shear modulus, or that of Mooney and Rivlin."""
    if "G_MPa" in inputs:
        return NeoHookean(name="rubber", c10=0.5 * inputs["G_MPa"])
    return MooneyRivlin(name="rubber", c10=inputs["C10_MPa"], c01=inputs["C01_MPa"])


def sheet(degrees: Any) -> np.ndarray:
    """Directions in the sheet."""
    turn = np.radians(np.atleast_1d(degrees))
    return np.column_stack([np.cos(turn), np.sin(turn), np.zeros(turn.size)])


def stretched(first: Any, second: Any, turn: Any = 0.0) -> np.ndarray:
    """C of a sheet by its two stretches, the first at an angle, degrees, from axis 1."""
    one, two, angle = np.broadcast_arrays(np.asarray(first, float), np.asarray(second, float), np.radians(turn))
    c, s = np.cos(angle), np.sin(angle)
    a, b = one**2, two**2
    zero = np.zeros(one.size)
    return np.column_stack([c * c * a + s * s * b, s * s * a + c * c * b, 1.0 / (a * b), c * s * (a - b), zero, zero])


def mode_path(mode: str, to: float, turn: float = 0.0, start: float = 1.0, steps: int = STEPS) -> np.ndarray:
    """C along a mode, from one stretch to another."""
    own = stretches(mode, np.linspace(start, to, steps + 1))
    return stretched(own[:, 0], own[:, 1], turn)


def energies(inputs: Values, path: np.ndarray, planes: np.ndarray, closes: bool = False) -> np.ndarray:
    """W_c at each sample."""
    return StrainPath(cauchy_greens=path, law=law_of(inputs), surface_normal=SHEET, closes=closes).energies(planes)


def tearing(inputs: Values, **more: Any) -> TearingLaw:
    """The power law of a case."""
    effect: dict[str, Any] = {}
    slope = inputs.get("F")
    if "F0_F4" in inputs and "F" not in inputs:
        slope = inputs["F0_F4"][0]
        effect = {"r_effect": "crystallising", "slope_rise": inputs["F0_F4"][1]}
    if "F0_F1_F2_F3" in inputs:
        slope, *terms = inputs["F0_F1_F2_F3"]
        effect = {"r_effect": "crystallising", "slope_terms": terms}
    cut = {} if "T0_N_per_mm" not in inputs else {"cut_off": inputs["T0_N_per_mm"]}
    return PowerTearing(
        name="rubber", rate=inputs["rc_mm"], at=inputs["Tc_N_per_mm"], slope=slope, **{**cut, **effect, **more}
    )


# ---- growth ------------------------------------------------------------------------------------------------------


def _rates(inputs: Values) -> Values:
    law, largest = tearing(inputs), inputs["Tmax_N_per_mm"]
    return {
        "F_of_R": law.slope_at(inputs["R"]),
        "rate_mm_per_cycle": [law.growth(largest, r) for r in inputs["R"]],
        "equivalent_relaxing_T_N_per_mm": [law.equivalent(largest, r) for r in inputs["R"]],
    }


def _rates_of_range(inputs: Values) -> Values:
    law, largest = tearing(inputs), inputs["Tmax_N_per_mm"]
    slope, rise = inputs["F0_F4"]
    other = tearing({key: value for key, value in inputs.items() if key != "F"})
    assert slope == law.anchor[1]
    assert rise > 0.0
    rates = np.array([law.growth(largest, r) for r in inputs["R"]])
    return {
        "rate_mm_per_cycle": rates,
        "over_crystallising": rates / np.array([other.growth(largest, r) for r in inputs["R"]]),
    }


def _sizes(inputs: Values) -> tuple[float, float]:
    return inputs["c0_mm"], inputs["cf_mm"]


def _lives(inputs: Values) -> Values:
    law = tearing(inputs)
    r = np.array(inputs["Wmin_MPa"]) / inputs["Wmax_MPa"]
    found: Values = {"N_cycles": law.lives(inputs["Wmax_MPa"], r, *_sizes(inputs), inputs["k"])}
    return found if "F" in inputs else {"F_of_R": law.slope_at(r), **found}


def _threshold(inputs: Values) -> Values:
    law, w, r, k = tearing(inputs), inputs["Wmax_MPa"], inputs["R"], inputs["k"]
    found: Values = {
        "c_threshold_mm": law.least_size(w, r, k),
        "N_cycles": float(law.lives(w, r, *_sizes(inputs), k)[0]),
    }
    if "small_c_mm" in inputs:
        found["small_grows"] = bool(np.isfinite(law.lives(w, r, inputs["small_c_mm"], inputs["cf_mm"], k)[0]))
    else:
        found["c_threshold_relaxing_mm"] = law.least_size(w, 0.0, k)
    return found


def _regimes(inputs: Values) -> ThreeRegimes:
    rise = inputs["A"] * (inputs["T_t_N_per_mm"] - inputs["T0_N_per_mm"])
    return ThreeRegimes(
        name="rubber",
        bend_rate=inputs["rz_mm"] + rise,
        least_rate=inputs["rz_mm"],
        least=inputs["T0_N_per_mm"],
        bend=inputs["T_t_N_per_mm"],
        slope=inputs["beta"],
    )


def _regimes_at_r(inputs: Values) -> Values:
    law, per = _regimes(inputs), 2.0 * inputs["k"] * inputs["Wmax_MPa"] * (1.0 - inputs["R"])
    life = law.lives(inputs["Wmax_MPa"], inputs["R"], *_sizes(inputs), inputs["k"])
    return {"c_at_T0_mm": law.least / per, "c_at_T_t_mm": law.bend / per, "N_cycles": float(life[0])}


def edge(inputs: Values) -> float:
    """k of an edge crack at a stretch."""
    return math.pi / math.sqrt(inputs["stretch"])


def _relaxing_life(inputs: Values) -> Values:
    life = float(tearing(inputs).lives(inputs["W_MPa"], 0.0, *_sizes(inputs), edge(inputs))[0])
    if "T0_N_per_mm" not in inputs:
        return {"N_cycles": life}
    start = edge_crack_energy(inputs["W_MPa"], inputs["c0_mm"], inputs["stretch"])
    if math.isinf(life):
        return {"T_start_N_per_mm": start, "grows": False, "N_cycles": None}
    least = tearing(inputs).least_size(inputs["W_MPa"], 0.0, edge(inputs))
    return {"T_start_N_per_mm": start, "N_cycles": life, "c_threshold_mm": least}


def _shifted(inputs: Values) -> Values:
    law = ShiftedTearing(
        name="rubber", rate=inputs["rc_mm"], at=inputs["Tc_N_per_mm"], slope=inputs["F"], least=inputs["T0_N_per_mm"]
    )
    return {"N_cycles": float(law.lives(inputs["W_MPa"], 0.0, *_sizes(inputs), edge(inputs))[0])}


def _three_regimes(inputs: Values) -> Values:
    return {"N_cycles": float(_regimes(inputs).lives(inputs["W_MPa"], 0.0, *_sizes(inputs), edge(inputs))[0])}


def _slope_one(inputs: Values) -> Values:
    laws = [tearing({**inputs, "F": slope}) for slope in inputs["F"]]
    return {"N_cycles": [float(law.lives(inputs["W_MPa"], 0.0, *_sizes(inputs), inputs["k"])[0]) for law in laws]}


def _energy_rainflow(inputs: Values) -> Values:
    law, k = tearing(inputs), inputs["k"]
    pairs = cycles_of(np.array(inputs["Wc_MPa"]))
    top, r = pairs[:, 0], pairs[:, 1] / pairs[:, 0]
    alone = law.lives(top, r, *_sizes(inputs), k)
    return {
        "cycles_max_min_MPa": pairs,
        "N_each_alone": alone,
        "passes_by_damage_sum": 1.0 / float((1.0 / alone).sum()),
        "passes_by_growth": law.passes(top, r, 1.0, *_sizes(inputs), k),
    }


def cycles_of(energy: np.ndarray) -> np.ndarray:
    """Cycles of a repeating block as (max, min), the largest maximum first."""
    turned = np.roll(energy, -int(energy.argmax()))
    found = rainflow(np.append(turned, turned[0]), residue="repeated")
    pairs = np.column_stack([found.mean + 0.5 * found.range, np.abs(found.mean - 0.5 * found.range)])
    return pairs[np.argsort(-pairs[:, 0], kind="stable")].round(14)


# ---- cracking energy density -------------------------------------------------------------------------------------


def _small(inputs: Values) -> Values:
    shear = inputs["E_MPa"] / 3.0
    law = NeoHookean(name="rubber", c10=0.5 * shear)
    tiny = 1e-5  # of the strain: large-strain answers go over into the small-strain one
    path = mode_path("simple", 1.0 + tiny * inputs["strain"], steps=4)
    found = StrainPath(cauchy_greens=path, law=law, surface_normal=SHEET, closes=False).energies(
        sheet(inputs["theta_deg"])
    )
    own = found[:, -1] / tiny**2
    return {"W_MPa": own[0], "Wc_MPa": own.round(12)}


def _closed(inputs: Values) -> Values:
    law, mode = law_of(inputs), inputs["mode"]
    plane = sheet(0.0)
    found: Values = {
        "W_MPa": [float(law.energy_of(mode, one)) for one in inputs["stretch"]],
        "Wc_MPa": [
            float(energies(inputs, mode_path(mode, one, steps=4000), plane)[0, -1]) for one in inputs["stretch"]
        ],
    }
    if "C01_MPa" in inputs:
        found["stress_1_MPa"] = [float(law.stress(mode, one)) for one in inputs["stretch"]]
    return found


def _angle(inputs: Values) -> Values:
    path = mode_path(inputs["mode"], inputs["stretch"])
    return {"Wc_MPa": energies(inputs, path, sheet(inputs["theta_deg"]))[:, -1].round(12)}


def _shear(inputs: Values) -> Values:
    gamma = np.linspace(0.0, inputs["gamma"], STEPS + 1)
    zero, one = np.zeros(gamma.size), np.ones(gamma.size)
    gradients = np.column_stack([one, gamma, zero, zero, one, zero, zero, zero, one])
    path = cauchy_green(gradients, "deformation gradient")
    values = energies(inputs, path, sheet(inputs["Theta_deg"]))[:, -1]
    worst = worst_plane(lambda n: energies(inputs, path, n)[:, -1])
    angle = np.degrees(np.arctan2(worst.normal[1], worst.normal[0])) % 180.0
    return {
        "W_MPa": float(law_of(inputs).energy(np.sqrt(np.linalg.eigvalsh(_full(path[-1]))))),
        "Wc_MPa": values,
        "Wc_max_MPa": worst.value,
        "Theta_max_deg": float(angle),
    }


def _full(six: np.ndarray) -> np.ndarray:
    return six[np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])]


def _biaxial(inputs: Values) -> Values:
    share = np.linspace(0.0, 1.0, STEPS + 1)
    one, two = (1.0 + (end - 1.0) * share for end in inputs["stretches_end"])
    path = stretched(one, two)
    worst = worst_plane(lambda n: energies(inputs, path, n)[:, -1])
    return {
        "W_MPa": float(law_of(inputs).energy([one[-1], two[-1], 1.0 / (one[-1] * two[-1])])),
        "Wc_MPa": energies(inputs, path, sheet(inputs["theta_deg"]))[:, -1],
        "Wc_greatest_MPa": worst.value,
        "direction_greatest": np.abs(worst.normal).round(2) + 0.0,
    }


def _plane_stress(inputs: Values) -> Values:
    modulus, nu, tiny = inputs["E_MPa"], inputs["nu"], 1e-7
    shear, bulk = 0.5 * modulus / (1.0 + nu), modulus / (3.0 * (1.0 - 2.0 * nu))
    law = NeoHookean(name="rubber", c10=0.5 * shear, bulk_modulus=bulk)
    x, y, t = inputs["sx_MPa"], inputs["sy_MPa"], inputs["txy_MPa"]
    strain = np.array([x - nu * y, y - nu * x, -nu * (x + y), (1.0 + nu) * t, 0.0, 0.0]) / modulus
    path = np.array([1.0, 1, 1, 0, 0, 0]) + 2.0 * tiny * np.linspace(0.0, 1.0, 4)[:, None] * strain
    # a step along a straight strain: the energy is a square of its size
    found = StrainPath(cauchy_greens=path, law=law, closes=False)
    worst = worst_plane(lambda n: found.energies(n)[:, -1] / tiny**2)
    angle = np.degrees(np.arctan2(worst.normal[1], worst.normal[0])) % 180.0
    return {
        "Wc_MPa": found.energies(sheet(inputs["theta_deg"]))[:, -1] / tiny**2,
        "Wc_max_MPa": worst.value,
        "theta_max_deg": float(angle),
    }


def _rotation(inputs: Values) -> Values:
    share = np.linspace(0.0, 1.0, STEPS + 1)
    own = stretches("simple", 1.0 + (inputs["stretch"] - 1.0) * share)
    turn = np.radians(inputs["turn_deg"]) * share
    c, s, zero = np.cos(turn), np.sin(turn), np.zeros(share.size)
    a, b, d = own.T
    gradients = np.column_stack([c * a, -s * b, zero, s * a, c * b, zero, zero, zero, d])
    turned = cauchy_green(gradients, "deformation gradient")
    plane = sheet(inputs["theta_deg"])
    return {
        "Wc_MPa": float(energies(inputs, turned, plane)[0, -1]),
        "Wc_without_turning_MPa": float(energies(inputs, mode_path("simple", inputs["stretch"]), plane)[0, -1]),
    }


def _turning_path(inputs: Values) -> np.ndarray:
    own = stretches("simple", np.linspace(1.0, inputs["stretch"], STEPS + 1))
    first = stretched(own[:, 0], own[:, 1], inputs["phi0_deg"])
    around = np.linspace(inputs["phi0_deg"], inputs["phi1_deg"], 4 * STEPS + 1)[1:]
    return np.concatenate(
        [first, stretched(np.full(around.size, own[-1, 0]), np.full(around.size, own[-1, 1]), around)]
    )


def _turning_axes(inputs: Values) -> Values:
    found = energies(inputs, _turning_path(inputs), sheet(inputs["theta_deg"]))
    return {"Wc_after_stretching_MPa": found[:, STEPS], "Wc_after_turning_MPa": found[:, -1]}


def _turning_search(inputs: Values) -> Values:
    path = _turning_path(inputs)
    return {
        "Wc_greatest_MPa": worst_plane(lambda n: energies(inputs, path, n)[:, -1]).value,
        "Wc_greatest_after_stretching_MPa": worst_plane(lambda n: energies(inputs, path, n)[:, STEPS]).value,
    }


def corners(points: list[tuple[float, float]], steps: int = STEPS) -> np.ndarray:
    """C of a sheet whose stretches go straight from corner to corner."""
    ends = np.array(points, dtype=float)
    share = np.linspace(0.0, 1.0, steps + 1)[1:, None]
    legs = [ends[:1], *(a + share * (b - a) for a, b in itertools.pairwise(ends))]
    one, two = np.concatenate(legs).T
    return stretched(one, two)


def _loop(inputs: Values) -> Values:
    a, b = inputs["lambda1"], inputs["lambda2"]
    path = corners([(1, 1), (a, 1), (a, b), (1, b), (1, 1)])
    return {
        "Wc_MPa_by_direction_and_corner": energies(inputs, path, sheet(inputs["theta_deg"]))[:, STEPS::STEPS].round(12)
    }


# ---- blocks ------------------------------------------------------------------------------------------------------


def life_of(inputs: Values, paths: list[np.ndarray], low: list[int], often: Any, names: list[str]) -> LifeResult:
    """The life of a place whose events go from a row of their path to its end and back, so often in a repeat."""
    sequences, events, strains = [], [], []
    for path, first, times, name in zip(paths, low, often, names, strict=True):
        cases = [f"{name} {i}" for i in range(len(path))]
        sequences.append(StatesInTurn(channel="state", cases=cases, events=[name]))
        strains.append(0.5 * (path - np.array([1.0, 1.0, 1.0, 0.0, 0.0, 0.0])))
        up = list(range(first + 1, len(path) + 1))
        events.append(Event(name, LoadStates.of({"state": [*up, *up[-2:0:-1]]}), occurrences=float(times)))
    start, end = _sizes(inputs)
    rubber = Rubber(
        name="r", law=law_of(inputs), growth=tearing(inputs), initial_flaw=start, end_flaw=end, shape_factor=inputs["k"]
    )
    relation = StrainStates(loads=StrainLoads(sequences), strains=np.concatenate(strains))
    method = CrackingEnergy(rubber=rubber, surface_normal=(0.0, 0.0, 1.0))
    spot = HotSpot(name="sheet", relation=relation, material=Material(name="r"), method=method)
    return assess_life(spot, DutyCycle("pass", events))


def _blocks(inputs: Values) -> Values:
    events = inputs["events_mode_stretch_direction_deg_repeats"]
    paths = [mode_path(mode, stretch, turn) for mode, stretch, turn, _ in events]
    often = np.array([repeats for *_, repeats in events])

    def largest(normals: np.ndarray) -> np.ndarray:
        return np.stack([np.maximum(energies(inputs, path, normals)[:, -1], 0.0) for path in paths], axis=1)

    planes = sheet(inputs["theta_deg"])
    life = life_of(inputs, paths, [0] * len(paths), often, inputs["event_names"])
    parts = np.array([one.damage for one in life.events])
    return {
        "Wc_MPa_by_direction_and_event": largest(planes).round(12),
        "passes_by_direction": 1.0 / life.method.on_planes(life.hot_spot, life.duty_cycle)(planes),
        "passes_least": life.life_repeats,
        "shares_on_critical_plane": parts / parts.sum(),
        "hurts_most": inputs["event_names"][int(parts.argmax())],
    }


def _not_relaxing(inputs: Values) -> Values:
    law = tearing(inputs)
    events = inputs["events_mode_stretch_max_min_direction_deg_repeats"]
    often = np.array([repeats for *_, repeats in events])
    ends = [
        (mode_path(mode, high, turn), mode_path(mode, max(low, 1.0 + 1e-9), turn))
        for mode, high, low, turn, _ in events
    ]

    def both(normals: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        top, low = (
            np.stack([np.maximum(energies(inputs, pair[i], normals)[:, -1], 0.0) for pair in ends], axis=1)
            for i in (0, 1)
        )
        return top, np.where(top > 0.0, low / np.where(top > 0.0, top, 1.0), 0.0).round(14)

    def each(normals: np.ndarray) -> np.ndarray:
        return np.stack([law.lives(w, r, *_sizes(inputs), inputs["k"]) for w, r in zip(*both(normals), strict=True)])

    worst = worst_plane(lambda n: (often / each(n)).sum(axis=1) ** 0.5).normal[None]
    (top,), (r,) = both(worst)
    alone = each(worst)[0]
    paths, rows = [], []
    for mode, high, low, turn, _ in events:
        first = mode_path(mode, max(low, 1.0 + 1e-9), turn)
        paths.append(np.concatenate([first, mode_path(mode, high, turn, start=low)[1:]]))
        rows.append(len(first) - 1 if low > 1.0 else 0)
    life = life_of(inputs, paths, rows, often, inputs["event_names"])
    damage = np.array([one.damage for one in life.events])
    return {
        "Wc_max_MPa": top,
        "R": r,
        "N_each_alone": alone,
        "damage_per_pass": float(damage.sum()),
        "passes_by_damage_sum": life.life_repeats,
        "shares": damage / damage.sum(),
        "hurts_most": inputs["event_names"][int(damage.argmax())],
        "passes_by_growth": life.method.passes(life),
    }


# ---- compression, closed paths -----------------------------------------------------------------------------------


def _compression(inputs: Values) -> Values:
    path, planes = mode_path("simple", inputs["stretch"]), sheet(inputs["theta_deg"])
    return {
        "Wc_no_closure_MPa": energies(inputs, path, planes)[:, -1].round(12),
        "Wc_closed_MPa": energies(inputs, path, planes, closes=True)[:, -1],
    }


def _squeezed(inputs: Values) -> Values:
    path, planes = corners([(1, 1), (inputs["lambda1"], inputs["lambda2"])], 8000), sheet(inputs["theta_deg"])

    def traction(share: float, theta: float) -> float:
        one, two = (1.0 + (inputs[key] - 1.0) * share for key in ("lambda1", "lambda2"))
        three = 1.0 / (one * two)
        sigma = law_of(inputs).principal([one, two, three])
        line = np.array([one * math.cos(theta), two * math.sin(theta)]) ** 2
        return float(line @ (sigma[:2] - sigma[2]))

    turns = []
    for theta in np.radians(inputs["theta_deg"]):
        first, last = traction(1e-6, theta), traction(1.0, theta)
        turns.append([brentq(traction, 1e-6, 1.0, args=(theta,), xtol=1e-14)] if first * last < 0.0 else [])
    return {
        "Wc_no_closure_MPa": energies(inputs, path, planes)[:, -1],
        "Wc_closed_MPa": energies(inputs, path, planes, closes=True)[:, -1],
        "traction_changes_sign_at": turns,
        "greatest_Wc_closed_MPa": worst_plane(lambda n: energies(inputs, path, n, closes=True)[:, -1]).value,
    }


def _to_and_fro(inputs: Values) -> Values:
    law, points = tearing(inputs), inputs["stretch_corners"]
    legs = [mode_path("simple", b, start=a) for a, b in itertools.pairwise(points)]
    path = np.concatenate([legs[0], *(leg[1:] for leg in legs[1:])])
    found: Values = {}
    for closes, name in ((False, "no_closure"), (True, "closed")):
        energy = energies(inputs, path, sheet(0.0), closes=closes)[0]
        pairs = cycles_of(np.maximum(energy, 0.0).round(12)[:-1])
        lives = law.lives(pairs[:, 0], pairs[:, 1] / pairs[:, 0], *_sizes(inputs), inputs["k"])
        found[f"Wc_{name}_MPa"] = energy[::STEPS].round(12)
        found[f"passes_{name}"] = 1.0 / float((1.0 / lives).sum())
    return found


def _two_channels(inputs: Values) -> Values:
    law, rows = tearing(inputs), np.array(inputs["F11_F12_F21_F22"])
    fine = 24
    share = np.arange(1, fine + 1)[:, None] / fine
    way = np.concatenate([rows[:1], *(a + share * (b - a) for a, b in itertools.pairwise(rows))])
    zero = np.zeros(len(way))
    across = 1.0 / (way[:, 0] * way[:, 3] - way[:, 1] * way[:, 2])
    gradients = np.column_stack([way[:, 0], way[:, 1], zero, way[:, 2], way[:, 3], zero, zero, zero, across])
    path = cauchy_green(gradients, "deformation gradient")

    def blocks(normals: np.ndarray) -> np.ndarray:
        return without_drift(energies(inputs, path, normals)[:, ::fine])

    def damage(normals: np.ndarray) -> np.ndarray:
        found = []
        for block in blocks(normals):
            pairs = cycles_of(block[:-1])
            r = pairs[:, 1] / np.where(pairs[:, 0] > 0.0, pairs[:, 0], 1.0)
            found.append(float((1.0 / law.lives(pairs[:, 0], r, *_sizes(inputs), inputs["k"])).sum()))
        return np.array(found)

    planes = sheet(inputs["theta_deg"])
    every = energies(inputs, path, planes)[:, ::fine]
    around = worst_plane(damage, normals=sheet(np.arange(0.0, 180.0, 0.5)))
    return {
        "Wc_at_steps_15_30_45_MPa": every[:, [15, 30, 45]],
        "drift_MPa_per_pass": every[:, -1],
        "cycles_max_min_MPa": [cycles_of(block[:-1]) for block in blocks(planes)],
        "passes": 1.0 / damage(planes),
        "passes_least": 1.0 / around.value,
    }


# ---- test pieces -------------------------------------------------------------------------------------------------


def _tearing_energy(inputs: Values) -> Values:
    w, c, stretch = inputs["W_MPa"], inputs["c_mm"], inputs["stretch"]
    return {
        "T_N_per_mm": [edge_crack_energy(w, one, stretch) for one in c],
        "T_lindley_N_per_mm": [edge_crack_energy(w, one, stretch, form="lindley") for one in c],
        "T_planar_N_per_mm": planar_strip_energy(w, inputs["h_mm"]),
    }


def _specimens(inputs: Values) -> Values:
    law, stretch = law_of(inputs), inputs["stretch"]
    w = float(law.energy_of("simple", stretch))
    legs = float(law.energy_of("simple", inputs["leg_stretch"]))
    force, thickness = inputs["force_N"], inputs["t_mm"]
    return {
        "T_planar_N_per_mm": planar_strip_energy(float(law.energy_of("planar", stretch)), inputs["h_mm"]),
        "T_edge_N_per_mm": [edge_crack_energy(w, one, stretch) for one in inputs["c_mm"]],
        "T_trousers_N_per_mm": trousers_energy(
            force, thickness, leg_stretch=inputs["leg_stretch"], width=inputs["w_mm"], leg_energy=legs
        ),
        "T_trousers_stiff_legs_N_per_mm": trousers_energy(force, thickness),
    }


RUBBER = (
    Method("Growth in rubber that crystallises", r"EL-rate-crystallising-\d", _rates),
    Method("Growth in rubber that does not", r"EL-rate-amorphous-1", _rates_of_range),
    Method("Life of rubber at R above 0", r"EL-life-(crystallising|amorphous)-1", _lives),
    Method("Thresholds of rubber at R above 0", r"EL-threshold-(amorphous|crystallising)-1", _threshold),
    Method("Three regimes of growth at R above 0", r"EL-three-regimes-at-r-1", _regimes_at_r),
    Method("Life of rubber, fully relaxing", r"E-rubber-(life|threshold)-\d", _relaxing_life),
    Method("Growth shifted by a threshold", r"E-rubber-shifted-threshold-1", _shifted),
    Method("Three regimes of growth", r"E-rubber-three-regimes-1", _three_regimes),
    Method("Slope of growth about 1", r"EX-life-f-one-1", _slope_one),
    Method("Energy by rainflow", r"EL-energy-rainflow-1", _energy_rainflow),
    Method("Cracking energy, small strain", r"E-ced-small-uniaxial-1", _small),
    Method("Cracking energy across the stretch", r"E-ced-neo-hookean-\d|EL-wc-mooney-\d", _closed),
    Method("Cracking energy at an angle", r"E-ced-angle-\d|EL-wc-mooney-angle-\d", _angle),
    Method("Cracking energy in plane stress, small strain", r"E-ced-plane-stress-scan-1", _plane_stress),
    Method("Cracking energy in simple shear", r"E-ced-shear-scan-1", _shear),
    Method("Cracking energy of two stretches", r"EL-wc-biaxial-1", _biaxial),
    Method("Cracking energy of a body that turns", r"EL-wc-rigid-rotation-1", _rotation),
    Method("Cracking energy as the tension turns", r"EL-wc-turning-axes-1", _turning_axes),
    Method("Cracking energy as the tension turns, search", r"EL-wc-turning-search-1", _turning_search),
    Method("Cracking energy round a loop", r"EL-wc-loop-1", _loop),
    Method("Blocks of relaxing events in rubber", r"EL-blocks-critical-plane-1", _blocks),
    Method("Blocks of events that do not relax", r"EL-blocks-nonrelaxing-1", _not_relaxing),
    Method("Cracking energy in compression", r"EX-compression-simple-1", _compression),
    Method("Cracking energy, pulled and squeezed", r"EX-compression-biaxial-1", _squeezed),
    Method("Cracking energy to and fro", r"EX-compression-tension-cycle-1", _to_and_fro),
    Method("Cracking energy of two channels", r"EX-two-channel-path-1", _two_channels),
    Method("Tearing energy of an edge crack", r"E-tearing-energy-1", _tearing_energy),
    Method("Tearing energy of test pieces", r"EL-specimens-1", _specimens),
)
