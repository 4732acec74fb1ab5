"""Reference cases of fibre composites: plies, laminates, lives by mode, decay, laminates that are followed."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

from tests.reference_values import Method, Values
from vivid_anvil.damage import PlyFatigue, assess_life
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, LoadStates
from vivid_anvil.materials import Material
from vivid_anvil.materials.plies import (
    Bell,
    EnergyLife,
    Hashin,
    LargestStress,
    NormalisedStiffness,
    NormalisedStrength,
    Ply,
    PowerStiffness,
    PowerStrength,
    Rays,
    ShiftedLinear,
    StiffnessRate,
    energy_range,
    joint_lives,
    normalised_energy,
)
from vivid_anvil.materials.plies.ply import turned
from vivid_anvil.progress import CycleEnds, LaminateProgress, ProgressSettings, laminate_progress
from vivid_anvil.stress import CaseLoad, CaseLoads, HotSpot
from vivid_anvil.stress.laminates import Laminate, SectionLoads

FINE = 1e-6  # error of a jump, so that laminates are followed to the digits of the cases
STRONG = {
    "tension_along": 1500.0,
    "compression_along": 1200.0,
    "tension_across": 45.0,
    "compression_across": 180.0,
    "shear_strength": 75.0,
}


def line(tension: Any, compression: Any) -> LargestStress:
    """Life by the largest stress, of static strength and slope on both sides."""
    return LargestStress(
        tension=tension[0], tension_slope=tension[1], compression=compression[0], compression_slope=compression[1]
    )


def modes_of(inputs: Values) -> dict[str, LargestStress]:
    """The three lives of a case."""
    return {
        "fibre_life": line(inputs["XT_static_k"], inputs["XC_static_k"]),
        "across_life": line(inputs["YT_static_k"], inputs["YC_static_k"]),
        "shear_life": line(inputs["S_static_k"], inputs["S_static_k"]),
    }


def ply_of(inputs: Values, **more: Any) -> Ply:
    """The ply of a case."""
    moduli = {
        "modulus_along": inputs.get("E1_MPa", 138000.0),
        "modulus_across": inputs.get("E2_MPa", 9000.0),
        "shear_modulus": inputs.get("G12_MPa", 5200.0),
        "poissons_ratio": inputs.get("nu12", 0.0),
        "expansion_along": inputs.get("alpha1_per_K", 0.0),
        "expansion_across": inputs.get("alpha2_per_K", 0.0),
    }
    return Ply(name="case", **moduli, **{**STRONG, **more})


def laminate_of(inputs: Values, **more: Any) -> Laminate:
    """The laminate of a case."""
    return Laminate(
        name="case",
        layup=inputs["angles_deg"],
        ply=ply_of(inputs, **more),
        ply_thickness=inputs["ply_thickness_mm"],
        temperature_change=inputs.get("dT_K", 0.0),
    )


def loads_of(inputs: Values) -> list[float]:
    """Forces and moments."""
    forces = inputs.get("N_N_per_mm", inputs.get("N_max_N_per_mm", [0.0] * 3))
    return [*forces, *inputs.get("M_N", [0.0] * 3)]


def _clean(values: Any) -> Any:
    """Without what rounding leaves of zeros."""
    own = np.asarray(values, dtype=np.float64)
    return np.where(np.abs(own) < 1e-9 * np.abs(own).max(initial=0.0), 0.0, own)


def _stiffness(inputs: Values) -> Values:
    own = turned(ply_of(inputs).stiffness, inputs["theta_deg"])
    moduli = [1.0 / np.linalg.inv(one)[0, 0] for one in own]
    return {"Q_MPa": ply_of(inputs).stiffness, "Qbar_MPa": [_clean(one) for one in own], "Ex_MPa": moduli}


def _laminate(*keys: str) -> Any:
    """Of a laminate what a kind of case holds."""

    def values(inputs: Values) -> Values:
        laminate = laminate_of(inputs)
        state, loads = laminate.full, loads_of(inputs)
        strains = state.strains(loads) + state.thermal_strain
        stresses, one = _clean(state.stresses(loads)), laminate.constants
        found = {
            "A_N_per_mm": _clean(state.abd[:3, :3]),
            "B_N": _clean(state.abd[:3, 3:]),
            "D_N_mm": _clean(state.abd[3:, 3:]),
            **dict(zip(("Ex_MPa", "Ey_MPa", "Gxy_MPa", "nu_xy"), one, strict=True)),
            "strain_xx_yy_xy": _clean(strains[:3]),
            "curvature_per_mm": _clean(strains[3:]),
            "s1_s2_t12_MPa": stresses.mean(axis=1),
            "bottom_s1_s2_t12_MPa": stresses[:, 0],
            "top_s1_s2_t12_MPa": stresses[:, 1],
            "s1_s2_t12_lower_upper_MPa": stresses,
            "N_T_N_per_mm": _clean(state.thermal_load[:3]),
            "M_T_N": _clean(state.thermal_load[3:]),
            "not_this_strain_without_B": np.linalg.inv(state.abd[:3, :3]) @ np.asarray(loads[:3]),
        }
        return {key: found[key] for key in keys}

    return values


ABD = ("A_N_per_mm", "B_N", "D_N_mm")
BENT = ("strain_xx_yy_xy", "curvature_per_mm", "s1_s2_t12_lower_upper_MPa")


def _hashin(inputs: Values) -> Values:
    strengths = dict(zip(STRONG, (inputs[f"{key}_MPa"] for key in ("XT", "XC", "YT", "YC", "SL")), strict=True))
    ply = ply_of({}, shear_across=inputs["ST_MPa"], **strengths)
    found = Hashin().indices(ply, inputs["s1_s2_t12_MPa"])
    return {mode.replace(" ", "_"): float(value[0]) for mode, value in found.items() if value[0] > 0.0}


def _log(lives: Any) -> list[float]:
    return [math.log10(one) if math.isfinite(one) else math.inf for one in lives]


def _of_peaks(inputs: Values, stresses: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Lives of both modes of peaks, each from 0."""
    half = _clean(stresses) / 2.0
    lives = modes_of(inputs)
    pairs = [(np.abs(half[:, c]), half[:, c]) for c in range(3)]
    between = joint_lives(lives["across_life"], lives["shear_life"], pairs[1], pairs[2])
    return lives["fibre_life"].lives(*pairs[0]), between


def _off_axis(inputs: Values) -> Values:
    turn = np.radians(inputs["theta_deg"])
    c, s, load = np.cos(turn), np.sin(turn), np.asarray(inputs["sx_max_MPa"])
    own = np.stack([load * c * c, load * s * s, -load * s * c], axis=1)
    own[np.abs(own) < 1e-9 * np.abs(own).max()] = 0.0
    fibre, between = _of_peaks(inputs, own)
    return {
        "s1_s2_t12_MPa": own,
        "log10_N_fibre": _log(fibre),
        "log10_N_matrix": _log(between),
        "log10_N": _log(np.minimum(fibre, between)),
    }


def _mode_lives(inputs: Values) -> Values:
    laminate = laminate_of(inputs)
    own = laminate.full.stresses(loads_of(inputs)).mean(axis=1)
    fibre, between = _of_peaks(inputs, own)
    first = int(np.argmin(np.minimum(fibre, between)))
    return {
        "s1_s2_t12_MPa": own,
        "log10_N_fibre": _log(fibre),
        "log10_N_matrix": _log(between),
        "first_life": min(fibre[first], between[first]),
        "first_angle_deg": float(laminate.angles[first]),
        "first_mode": "matrix" if between[first] < fibre[first] else "fibre",
    }


def _miner(inputs: Values) -> Values:
    """Through the whole product: states of three loads, a hot spot, a life."""
    channels = ("nx", "ny", "nxy")
    events = [
        Event(
            f"block {i}",
            LoadStates.of({name: [0.0, float(one)] for name, one in zip(channels, row, strict=False)}),
            occurrences=row[3],
        )
        for i, row in enumerate(inputs["blocks_N_max_N_per_mm_cycles"])
    ]
    cases = CaseLoads([CaseLoad(case=name, channel=name, unit_load=1.0) for name in channels])
    laminate = laminate_of(inputs, **modes_of(inputs))
    spot = HotSpot(
        name="laminate",
        relation=SectionLoads(loads=cases, unit=np.eye(3, 6)),
        material=Material(name="plies"),
        method=PlyFatigue(laminate=laminate),
    )
    life = assess_life(spot, DutyCycle("pass", events))
    place = spot.method.place(spot, life.duty_cycle)  # type: ignore[union-attr]
    damage = {mode: own.max(axis=(1, 2)) for mode, own in place.damage.items()}
    return {
        "damage_fibre": damage["fibre"],
        "damage_matrix": damage["matrix"],
        "leading_angle_deg": float(laminate.angles[place.lead.ply]),
        "leading_mode": place.lead.mode,
        "passes": life.life_repeats,
    }


def _residual_index(inputs: Values) -> Values:
    y, s = inputs["YT_static_k"], inputs["S_static_k"]
    stress = inputs["s2_max_MPa"], inputs["t12_max_MPa"]
    decays = [NormalisedStrength(alpha=a, beta=b) for a, b in (inputs["alpha_beta_Y"], inputs["alpha_beta_S"])]

    def strengths(cycles: float) -> list[float]:
        return [
            decay.strength(x, cycles=cycles, life=(x / own) ** k, start=x, stress=own)
            for decay, (x, k), own in zip(decays, (y, s), stress, strict=True)
        ]

    rows = np.array([strengths(n) for n in inputs["n_cycles"]])
    ply = ply_of(
        {},
        tension_across=y[0],
        compression_across=180.0,
        shear_strength=s[0],
        across_life=line(y, (180.0, 12.0)),
        shear_life=line(s, s),
        across_strength_decay=decays[0],
        shear_strength_decay=decays[1],
    )
    laminate = Laminate(name="case", layup=[90], ply=ply, ply_thickness=1.0)
    ends = np.zeros((1, 2, 6))
    ends[0, 0, :3] = stress[0], 0.0, stress[1]
    how = ProgressSettings(modes=("matrix",), fails_by="residual strength", jump_error=1e-5)
    followed = laminate_progress(laminate, CycleEnds.of_one_row(ends, np.ones(1), 1), how)
    return {
        "Y_MPa": rows[:, 0],
        "S_MPa": rows[:, 1],
        "index": (stress[0] / rows[:, 0]) ** 2 + (stress[1] / rows[:, 1]) ** 2,
        "N_cycles": followed.first("matrix"),
    }


def _energy(inputs: Values) -> Values:
    ply = ply_of(inputs, **dict(zip(STRONG, inputs["XT_XC_YT_YC_S_MPa"], strict=True)))
    turn, load = np.radians(inputs["theta_deg"]), np.asarray(inputs["sx_max_MPa"])
    c, s = np.cos(turn), np.sin(turn)
    high = np.stack([load * c * c, load * s * s, -load * s * c], axis=1)
    low = inputs["R"] * high
    return {
        "dW_MPa": energy_range(ply, high, low),
        "dW_normalised": normalised_energy(ply, high, low),
        "N_cycles": EnergyLife(constant=inputs["K"], exponent=inputs["a"]).lives(ply, high, low),
    }


def _blocks_of_strength(inputs: Values) -> Values:
    decay = NormalisedStrength(alpha=inputs["alpha"], beta=inputs["beta"])
    start, k = inputs["X0_MPa"], inputs["k"]
    found = {}
    for order, first, second, cycles in (
        ("high_then_low", inputs["high_MPa"], inputs["low_MPa"], inputs["n_high_first"]),
        ("low_then_high", inputs["low_MPa"], inputs["high_MPa"], inputs["n_low_first"]),
    ):
        lives = [(start / one) ** k for one in (first, second)]
        left = decay.strength(start, cycles=cycles, life=lives[0], start=start, stress=first)
        equal = decay.equivalent_cycles(left, life=lives[1], start=start, stress=second)
        found[order] = {
            "N_first": lives[0],
            "X_after_first_MPa": left,
            "equivalent_cycles_at_second": equal,
            "cycles_left_at_second": lives[1] - equal,
            "miner_sum_at_failure": cycles / lives[0] + (lives[1] - equal) / lives[1],
        }
    return found


def _blocks_of_stiffness(inputs: Values) -> Values:
    decay = NormalisedStiffness(power=inputs["lambda"], root=inputs["gamma"], failure_strain=inputs["epsf"])
    start, x, k = inputs["E0_MPa"], inputs["X0_MPa"], inputs["k"]
    left = 1.0
    found = []
    for key in ("first", "second"):
        stress = inputs[f"s_{key}_MPa"]
        how = {"life": (x / stress) ** k, "modulus": start, "stress": stress, "strength": x}
        left = decay.left(left, cycles=inputs[f"n_{key}"], **how)
        found.append(start * left)
    stress, after_first = inputs["s_second_MPa"], found[0] / start
    how = {"life": (x / stress) ** k, "modulus": start, "stress": stress, "strength": x}
    equal = brentq(lambda n: decay.left(1.0, cycles=math.exp(n), **how) - after_first, 0.0, math.log(how["life"]))
    return {
        "E_after_first_MPa": found[0],
        "equivalent_cycles_at_second": math.exp(equal),
        "E_after_second_MPa": found[1],
    }


def _sequence(inputs: Values) -> Values:
    decay, start = PowerStrength(exponent=inputs["nu"]), inputs["X0_MPa"]
    strength, found, total = start, [], 0.0
    for stress, cycles in inputs["blocks_s_MPa_n"]:
        life = (start / stress) ** inputs["k"]
        strength = decay.strength(strength, cycles=cycles, life=life, start=start, stress=stress)
        total += cycles / life
        found.append(strength)
    return {"X_after_each_MPa": found, "miner_sum": total}


def _stages(inputs: Values) -> Values:
    start = inputs["X0_MPa"]
    straight = power = start
    for (stress, cycles, life), nu in zip(inputs["stages_s_n_N"], inputs["nu"], strict=True):
        straight -= start - PowerStrength(exponent=1.0).strength(
            start, cycles=cycles, life=life, start=start, stress=stress
        )
        power = PowerStrength(exponent=nu).strength(power, cycles=cycles, life=life, start=start, stress=stress)
    return {"X_linear_MPa": straight, "X_power_MPa": power}


def _strength(inputs: Values) -> Values:
    def course(exponent: float) -> list[float]:
        decay = PowerStrength(exponent=exponent)
        how = {"life": inputs["N_cycles"], "start": inputs["X0_MPa"], "stress": inputs["s_MPa"]}
        return [decay.strength(inputs["X0_MPa"], cycles=n, **how) for n in inputs["n_cycles"]]

    return {"X_linear_MPa": course(1.0), "X_power_MPa": course(inputs["nu"])}


def _left(inputs: Values) -> Values:
    decay = PowerStiffness(end=inputs["Ef_MPa"] / inputs["E0_MPa"], exponent=inputs["b"])
    how = {"life": inputs["N_cycles"], "modulus": inputs["E0_MPa"], "stress": 1.0, "strength": 2.0}
    return {"E_MPa": [inputs["E0_MPa"] * decay.left(1.0, cycles=n, **how) for n in inputs["n_cycles"]]}


def _normalised(inputs: Values) -> Values:
    strength = NormalisedStrength(alpha=inputs["alpha"], beta=inputs["beta"])
    stiffness = NormalisedStiffness(power=inputs["lambda"], root=inputs["gamma"], failure_strain=inputs["epsf"])
    life, stress, x, e = (inputs[key] for key in ("N_cycles", "s_MPa", "X0_MPa", "E0_MPa"))
    return {
        "X_MPa": [strength.strength(x, cycles=n, life=life, start=x, stress=stress) for n in inputs["n_cycles"]],
        "E_MPa": [
            e * stiffness.left(1.0, cycles=n, life=life, modulus=e, stress=stress, strength=x)
            for n in inputs["n_cycles"]
        ],
    }


def softening(inputs: Values, longest: float = 1e18, force: float | None = None) -> LaminateProgress:
    """A cross-ply whose 90 plies soften by the stress across them, as far as so many repeats, or to broken fibres."""
    lives = {"fibre_life": line((1500.0, 22.0), (1200.0, 18.0))}
    rate = StiffnessRate(rate=inputs["A_per_cycle"], exponent=inputs["p"], most=0.999999)
    strong = {"tension_across": inputs["YT_MPa"]}
    along = ply_of(inputs, **lives, **strong)
    across = ply_of(inputs, **lives, **strong, across_stiffness_decay=rate)
    thick = inputs.get("ply_thickness_mm", 0.125)
    angles = inputs.get("angles_deg", [0, 90, 90, 0])
    laminate = Laminate(name="case", plies=[(across if one == 90 else along, one, thick) for one in angles])
    ends = np.zeros((1, 2, 6))
    ends[0, 0, 0] = inputs["laminate_stress_max_MPa"] * 4 * thick if force is None else force
    how = ProgressSettings(modes=("fibre",), jump_error=FINE, fibre_left=1e-3)
    return laminate_progress(laminate, CycleEnds.of_one_row(ends, np.ones(1), 4), how, longest=longest)


def _at_losses(followed: LaminateProgress, losses: list[float], value: Any) -> list[Any]:
    """What a value of every jump is where the 90 plies have lost so much."""
    lost = 1.0 - followed.course.left[:, 1, 1]
    return [PchipInterpolator(lost, np.asarray(value), axis=0)(one) for one in losses]


def _jump(inputs: Values) -> Values:
    followed = softening(inputs, 5e6)
    course = followed.course
    moduli = [followed.laminate.with_left(one).constants.modulus_x for one in course.left[::20]]
    lost = 1.0 - course.left[::20, 1, 1]
    return {
        "n_cycles": _at_losses(followed, inputs["D"], course.repeats),
        "s0_MPa": _at_losses(followed, inputs["D"], course.highest[:, 0, 0, 0]),
        "s90_MPa": _at_losses(followed, inputs["D"], course.highest[:, 1, 0, 1]),
        "laminate_modulus_MPa": PchipInterpolator(lost, moduli)(inputs["D"]),
    }


def _jump_life(inputs: Values) -> Values:
    followed = softening(inputs)
    failed = next(one for one in followed.failures if one.mode == "fibre")
    state = followed.course.left[failed.jump]
    strong = 1500.0, 22.0
    bare = inputs["laminate_stress_max_MPa"] / (1.0 - inputs["share_of_90_plies"])
    sound = inputs["laminate_stress_max_MPa"] * inputs["E1_MPa"]
    sound /= 0.5 * (inputs["E1_MPa"] + inputs["E2_MPa"])
    return {
        "N_cycles": failed.repeats,
        "D_at_end": 1.0 - float(state[1, 1]),
        "N_without_softening": (strong[0] / sound) ** strong[1],
        "N_with_90_plies_gone": (strong[0] / bare) ** strong[1],
    }


def _jump_laminate(inputs: Values) -> Values:
    followed = softening(inputs, 5e6, inputs["Nx_N_per_mm"])
    course = followed.course
    moduli = [followed.laminate.with_left(one).constants.modulus_x for one in course.left[::20]]
    lost = 1.0 - course.left[::20, 1, 1]
    across = np.stack([course.lowest[:, 1, 0, 0], course.highest[:, 1, 0, 1]], axis=1)
    return {
        "n_cycles": _at_losses(followed, inputs["D"], course.repeats),
        "s1_s2_of_0_MPa": _at_losses(followed, inputs["D"], course.highest[:, 0, 0, :2]),
        "s1_s2_of_90_MPa": _at_losses(followed, inputs["D"], across),
        "Ex_MPa": PchipInterpolator(lost, moduli)(inputs["D"]),
    }


def _bell(inputs: Values) -> Values:
    bell = Bell(
        tension=inputs["UTS_MPa"],
        compression=inputs["UCS_MPa"],
        height=inputs["f"],
        power=inputs["A"],
        power_per_decade=inputs["B"],
    )
    means = [m * inputs["UTS_MPa"] for m in inputs["m"]]
    return {
        "sa_MPa": [[_amplitude_there(bell, n, mean) for n in inputs["N_cycles"]] for mean in means],
        "life_cycles": bell.lives(*np.array(inputs["sa_sm_MPa"]).T),
    }


def _amplitude_there(diagram: Any, cycles: float, mean: float) -> float:
    """The amplitude at a mean that lives so many cycles, by halving."""
    low, high = 0.0, 1e4
    for _ in range(80):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if diagram.lives(middle, mean)[0] > cycles else (low, middle)
    return 0.5 * (low + high)


def _rays(inputs: Values) -> Values:
    rays = Rays(tension=inputs["UTS_MPa"], compression=inputs["UCS_MPa"], rows=inputs["R_A_b"])
    lives = rays.lives(*np.array(inputs["sa_sm_MPa"]).T)
    if "counts" not in inputs:
        return {"N_cycles": lives}
    damage = float((np.array(inputs["counts"]) / lives).sum())
    return {"N_cycles": lives, "damage": damage, "passes": 1.0 / damage}


def _shifted(inputs: Values) -> Values:
    line_ = ShiftedLinear(
        tension=inputs["Xt_MPa"],
        compression=inputs["Xc_MPa"],
        slope=inputs["m"],
        mean_factor=inputs["ga"],
        amplitude_factor=inputs["gb"],
    )
    lives = line_.lives(*np.array(inputs["sa_sm_MPa"]).T)
    return {
        "N_cycles": lives,
        "damage": float((np.array(inputs["counts"]) / lives).sum()),
        "sa_at_zero_mean_N_ref_MPa": float(line_.amplitude_at(inputs["N_ref"], -1.0)[0]),
    }


def _thermal_mean(inputs: Values) -> Values:
    laminate = laminate_of(inputs)
    state, there = laminate.full, laminate.full.thermal_stresses.mean(axis=1)
    top = np.einsum("pfck,k->pfc", state.per_load, np.array(loads_of(inputs))).mean(axis=1)
    size, mean = np.abs(top) * 0.5 * (1.0 - inputs["R"]), there + top * 0.5 * (1.0 + inputs["R"])
    size, mean = _clean(size), _clean(mean)

    def lives(means: np.ndarray) -> np.ndarray:
        found = []
        for c, key in enumerate(("fibre", "transverse", "shear")):
            xt, xc, m = inputs[f"{key}_Xt_Xc_m"]
            found.append(ShiftedLinear(tension=xt, compression=xc, slope=m).lives(size[:, c], means[:, c]))
        return np.array(found).T

    own = lives(mean)
    first = np.unravel_index(int(own.argmin()), own.shape)
    return {
        "residual_s1_s2_t12_MPa": _clean(there),
        "amplitude_s1_s2_t12_MPa": size,
        "mean_s1_s2_t12_MPa": mean,
        "log10_N_s1_s2_t12": [_log(row) for row in own],
        "first_life": float(own.min()),
        "first_angle_deg": float(laminate.angles[first[0]]),
        "first_mode": ("fibre", "transverse", "shear")[first[1]],
        "not_this_first_life_without_residual_stress": float(lives(_clean(mean - there)).min()),
    }


def _blocks_of_r(inputs: Values) -> Values:
    """Through the whole product: blocks of equal cycles, a hot spot whose fibres alone are assessed."""
    rays = Rays(tension=inputs["UTS_MPa"], compression=inputs["UCS_MPa"], rows=inputs["R_A_b"])
    laminate = laminate_of(inputs, fibre_life=rays)
    spot = HotSpot(
        name="laminate",
        relation=SectionLoads(
            loads=CaseLoads([CaseLoad(case="pull", channel="pull", unit_load=1.0)]), unit=[[1.0, 0, 0, 0, 0, 0]]
        ),
        material=Material(name="plies"),
        method=PlyFatigue(laminate=laminate, modes=("fibre",)),
    )
    events = [
        Event(f"block {i}", ConstantAmplitude("pull", float(top), float(r * top), 1.0, "number"), occurrences=count)
        for i, (r, top, count) in enumerate(inputs["R_Nx_max_cycles"])
    ]
    life = assess_life(spot, DutyCycle("pass", events))
    cycles = life.spectrum.cycles
    size = 0.5 * cycles.range
    still = float((np.array([row[2] for row in inputs["R_Nx_max_cycles"]]) / rays.lives(size, 0.0)).sum())
    return {
        "s1_per_Nx": float(laminate.full.per_load[0, 0, 0, 0]),
        "sa_sm_MPa": np.stack([size, _clean(cycles.mean)], axis=1),
        "N_cycles": life.spectrum.per_repeat / life.damage,
        "damage": life.damage,
        "passes": life.life_repeats,
        "not_this_passes_mean_left_out": 1.0 / still,
    }


def _goodman(inputs: Values) -> Values:
    """The straight line from R = -1 to the strength in tension: rays with that one R."""
    rays = Rays(tension=inputs["UTS_MPa"], compression=1e9, rows=[(-1, inputs["A"], inputs["b"])])
    return {"N_cycles": rays.lives(*np.array(inputs["sa_sm_MPa"]).T)}


def _hashin_rotem(inputs: Values) -> Values:
    x, y, s = (line(inputs[f"{key}_static_k"], inputs[f"{key}_static_k"]) for key in ("X", "Y", "S"))
    half = [inputs[f"{key}_max_MPa"] / 2.0 for key in ("s1", "s2", "t12")]
    fibre = float(x.lives(half[0], half[0])[0])
    between = float(joint_lives(y, s, (half[1], half[1]), (half[2], half[2]))[0])
    return {"N_fibre": fibre, "N_matrix": between, "N": min(fibre, between)}


def _slope(inputs: Values) -> Values:
    """The equivalent range by a life diagram of one slope: the damage of so many cycles of it is that of the spectrum."""
    m = inputs["m"]
    diagram = LargestStress(tension=1000.0, tension_slope=m, compression=1000.0, compression_slope=m)
    ranges, counts = np.array(inputs["ranges_MPa_counts"]).T
    damage = counts / diagram.lives(ranges / 2.0, ranges / 2.0)
    life = inputs["N_eq"] / float(damage.sum())
    lives = diagram.lives([5.0, 10.0], [5.0, 10.0])
    return {
        "equivalent_range_MPa": float(2.0 * diagram.amplitude_at(life, 0.0)[0]),
        "share_of_each": damage / damage.sum(),
        "factor_for_twice_the_range": float(lives[0] / lives[1]),
    }


PLIES = (
    Method("Stiffness of a turned ply", r"CO-ply-stiffness-\d+", _stiffness),
    Method(
        "Laminate, stiffness and constants",
        r"CO-laminate-abd-\d+",
        _laminate(*ABD, "Ex_MPa", "Ey_MPa", "Gxy_MPa", "nu_xy"),
    ),
    Method("Laminate under forces", r"CO-laminate-membrane-\d+", _laminate("strain_xx_yy_xy", "s1_s2_t12_MPa")),
    Method(
        "Laminate under forces and moments",
        r"CO-laminate-bending-\d+",
        _laminate("curvature_per_mm", "bottom_s1_s2_t12_MPa", "top_s1_s2_t12_MPa"),
    ),
    Method("Laminate after cooling down", r"CO-laminate-thermal-\d+", _laminate("strain_xx_yy_xy", "s1_s2_t12_MPa")),
    Method(
        "Laminate that is not symmetric",
        r"EX-laminate-unsymmetric-\d+",
        _laminate(*ABD, *BENT, "not_this_strain_without_B"),
    ),
    Method(
        "Laminate that is not symmetric, after cooling down",
        r"EX-laminate-unsymmetric-thermal-\d+",
        _laminate("N_T_N_per_mm", "M_T_N", *BENT),
    ),
    Method("Plies after cooling down, shifted linear diagrams", r"EX-thermal-mean-life-\d+", _thermal_mean),
    Method("Blocks of several R on a laminate, rays", r"EX-blocks-r-five-rays-\d+", _blocks_of_r),
    Method("Static criterion of a ply, Hashin", r"F-hashin-\d+", _hashin),
    Method("Life of a ply by its modes", r"F-hashin-rotem-life-\d+", _hashin_rotem),
    Method("Life of a ply off its axis", r"CO-off-axis-\d+", _off_axis),
    Method("Lives of all plies by mode", r"CO-laminate-mode-lives-\d+", _mode_lives),
    Method("Damage of a laminate in blocks", r"CO-laminate-miner-\d+", _miner),
    Method("Life diagram, rays", r"F-constant-life-\d+|CO-constant-life-five-rays-\d+", _rays),
    Method("Life diagram, Goodman's line", r"F-goodman-life-\d+", _goodman),
    Method("Life diagram, shifted linear", r"CO-goodman-shifted-\d+", _shifted),
    Method("Life diagram, bell", r"CO-constant-life-bell-\d+", _bell),
    Method("Life diagram, one slope", r"CO-slope-equivalent-\d+", _slope),
    Method("Life of a ply by its energy", r"CO-energy-life-\d+", _energy),
    Method("Residual strength", r"F-residual-strength-\d+", _strength),
    Method("Residual strength, stages", r"F-residual-strength-stages-\d+", _stages),
    Method("Residual strength, blocks", r"CO-residual-strength-sequence-\d+", _sequence),
    Method("Residual strength, two levels", r"CO-two-blocks-strength-\d+", _blocks_of_strength),
    Method("Residual stiffness", r"F-residual-stiffness-\d+", _left),
    Method("Residual stiffness, two levels", r"CO-two-blocks-stiffness-\d+", _blocks_of_stiffness),
    Method("Residual strength and stiffness, normalised", r"F-normalised-degradation-\d+", _normalised),
    Method("Residual strengths between fibres, followed", r"CO-residual-index-\d+", _residual_index),
    Method("Cross-ply that softens, followed", r"CO-cycle-jump-\d+", _jump),
    Method("Cross-ply that softens, to broken fibres", r"CO-cycle-jump-life-\d+", _jump_life),
    Method("Laminate that softens, followed", r"CO-cycle-jump-laminate-\d+", _jump_laminate),
)
