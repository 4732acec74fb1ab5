"""The reference cases of vibration, and what this package gives for each; rows as in `reference_values`."""

from __future__ import annotations

import dataclasses
import math
from typing import Any

import numpy as np
import pytest
from scipy.linalg import eigh
from scipy.optimize import brentq

from tests.reference_values import Method, Values, constant_factor
from tests.spots import hot_spot
from vivid_anvil.counting import Cycles
from vivid_anvil.damage import assess_life, failure_moment
from vivid_anvil.events import DutyCycle, Dwells, Event, LoadStates, Profile, RandomVibration, Sine, Sweep
from vivid_anvil.growth import (
    Crack,
    grow_crack,
    growth_drive,
    growth_per_repeat,
    integrate_growth,
    size_after,
    threshold_sizes,
)
from vivid_anvil.histories import Channel, LoadHistory, estimate_psd
from vivid_anvil.materials import GrowthLaw, KlesnilLukasLaw, Material, ParisLaw, SNCurve, knee_curve, straight_curve
from vivid_anvil.spectra import (
    PSD,
    ComponentTables,
    ModalComponents,
    ModalResponse,
    Moments,
    OneDegreeOfFreedom,
    PSDs,
    RangeDensity,
    ResponseDensity,
    ResponseTable,
    SpectralMatrix,
    StatedMoments,
    TensorSpectra,
    Together,
    counted_synthesis,
    expected_largest,
    expected_ranges,
    hermite_form,
    psd_of_rows,
    psd_of_slopes,
    synthesized,
)
from vivid_anvil.spectra.methods import EXPECTED_CYCLES
from vivid_anvil.spectra.methods.dirlik import dirlik_constants
from vivid_anvil.spectra.methods.tovo_benasciutti import tovo_benasciutti_share
from vivid_anvil.spectra.methods.zhao_baker import zhao_baker_constants
from vivid_anvil.spectra.responses import Resonance
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.spectra.synthesis import Tone
from vivid_anvil.spectra.tensor_spectra import TensorProcess
from vivid_anvil.spectra.tone_on_random import ToneDensity
from vivid_anvil.stress import (
    CaseLoad,
    CaseLoads,
    InputResponses,
    NormalStress,
    OneLoad,
    UnitStresses,
    VibratingComponents,
    stress_measure,
)
from vivid_anvil.stress.random_planes import (
    greatest_shear_rms,
    normal_rms,
    plane_axes,
    plane_normal,
    shear_covariance,
    shear_weights,
    worst_plane,
)
from vivid_anvil.study import total_life
from vivid_anvil.tailoring import DamageSpectrum, Oscillators, damage_spectrum

G = 9806.65  # mm/s² in 1 g
FORMULAS = {
    "narrow_band": "narrow band",
    "wirsching_light": "wirsching-light",
    "three_band": "three-band",
    "dirlik": "dirlik",
    "tovo_benasciutti": "tovo-benasciutti",
    "zhao_baker": "zhao-baker",
    "single_moment": "single moment",
    "alpha_0.75": "three-quarter moment",
}
ORDERS = {"m0": 0.0, "m1": 1.0, "m2": 2.0, "m4": 4.0, "m0.75": 0.75, "m1.5": 1.5, "m0_MPa2": 0.0}


def psd_of(inputs: Values, values: str = "psd_MPa2_per_Hz", scale: float = 1.0, dimension: str = "stress") -> PSD:
    """Breakpoints, or given lines."""
    between = "log-log" if "breakpoints_Hz" in inputs else "lines"
    frequency = inputs.get("breakpoints_Hz", inputs.get("frequency_Hz"))
    return PSD(frequency, np.array(inputs[values]) * scale, dimension, between)


def base_of(inputs: Values, key: str = "psd_g2_per_Hz") -> PSD:
    """A base acceleration in g²/Hz over breakpoints or a flat band."""
    frequency = inputs.get("breakpoints_Hz", inputs.get("band_Hz"))
    return PSD(frequency, np.broadcast_to(inputs[key], len(frequency)) * G**2)


def statistics(process: Moments, *, wanted: tuple[str, ...] | None = None) -> Values:
    """Moments, rates and bandwidths under the names of the cases."""
    known = {
        **{name: process.moment(order) for name, order in ORDERS.items() if wanted is None or name in wanted},
        "rms_MPa": process.rms,
        "zero_upcrossing_rate_Hz": process.upcrossing_rate,
        "peak_rate_Hz": process.peak_rate,
        "irregularity": process.irregularity,
        "alpha1": process.bandwidth_factor(1.0),
        "irregularity_alpha2": process.irregularity,
        "alpha0.75": process.bandwidth_factor(0.75),
        "bandwidth_epsilon": process.bandwidth,
        "bandwidth_vanmarcke": process.vanmarcke_bandwidth,
    }
    return known if wanted is None else {name: known[name] for name in wanted}


RESPONSE_STATISTICS = (
    "m0_MPa2",
    "m1",
    "m2",
    "m4",
    "rms_MPa",
    "zero_upcrossing_rate_Hz",
    "peak_rate_Hz",
    "irregularity",
)


def _moments(between: str) -> Any:
    def values(inputs: Values) -> Values:
        frequency = inputs.get("breakpoints_Hz", inputs.get("frequency_Hz"))
        found = statistics(PSD(frequency, inputs["psd_MPa2_per_Hz"], "stress", between))
        return {name: one for name, one in found.items() if name not in ("m0_MPa2", "irregularity")}

    return values


def _rate(process: Moments, method: str, slope: float, a_range: float) -> float:
    asked = slope if EXPECTED_CYCLES[method].one_slope else None
    return expected_ranges(process, method, slope=asked).moment(slope) / a_range


def _lines_damage(inputs: Values) -> Values:
    process = psd_of(inputs)
    return {key: _rate(process, one, inputs["slope_m"], inputs["A_range"]) for key, one in FORMULAS.items()}


def _damage(inputs: Values) -> Values:
    process, m = psd_of(inputs), inputs["slope_m"]
    found = {key: _rate(process, one, m, inputs["A_range"]) for key, one in FORMULAS.items()}
    lives = {key: 1.0 / one for key, one in found.items()}
    return {"damage_per_s": found, "life_s": lives, "moment_2_over_m": process.moment(2.0 / m)}


def _constants(inputs: Values) -> Values:
    process = psd_of(inputs)
    c = dirlik_constants(
        process.irregularity,
        process.moment(1.0) / process.moment(0.0) * np.sqrt(process.moment(2.0) / process.moment(4.0)),
    )
    return {
        "dirlik": {"x_m": c.x, "D1": c.d1, "D2": c.d2, "D3": c.d3, "Q": c.q, "R": c.r},
        "tovo_benasciutti_b": tovo_benasciutti_share(process),
        "zhao_baker": zhao_baker_constants(process)._asdict(),
    }


def curve_of(inputs: Values, stress: str = "amplitude", *, two_slopes: bool | None = None) -> SNCurve:
    """One slope by A, or two by a knee."""
    common: Values = {"name": "c", "stress": stress, "r_ratio": -1.0 if stress == "amplitude" else "any"}
    two = f"knee_{stress}_MPa" in inputs if two_slopes is None else two_slopes
    if not two:
        m = inputs["slope_m"]
        return straight_curve(
            **common, point_stress=(inputs[f"A_{stress}"] / 1e6) ** (1.0 / m), point_life=1e6, slope=m
        )
    below = inputs["slope_below"]
    return knee_curve(
        **common,
        knee_stress=inputs[f"knee_{stress}_MPa"],
        knee_life=inputs["knee_life"],
        slope=inputs["slope_above"],
        slope_below=math.inf if below == "inf" else below,
    )


def life(load: Any, curve: SNCurve, formula: str = "narrow band", *, relation: Any = None, **choices: Any) -> Any:
    """The life of a hot spot under one event."""
    material = Material(name="m", **choices.pop("material", {}))
    spot = hot_spot(name="spot", curve=curve, relation=relation or OneLoad("stress", "1"), material=material, **choices)
    return assess_life(spot, DutyCycle("time", (Event("event", load),), expected_cycles=formula))


def random_stress(process: Moments, exposure: float = 1.0, **others: Any) -> RandomVibration:
    """A random event of stress."""
    return RandomVibration({"stress": process}, exposure, **others)


def _knee(inputs: Values) -> Values:
    curve, event = curve_of(inputs, "range"), random_stress(psd_of(inputs))
    keys = ("narrow_band", "three_band", "dirlik", "zhao_baker", "tovo_benasciutti")
    return {"damage_per_s": {key: life(event, curve, FORMULAS[key]).damage_per_repeat for key in keys}}


def _made(inputs: Values, tones: tuple[Tone, ...] = ()) -> tuple[Any, float, Any]:
    """Cycles counted in a synthesis of 1.2 million peaks, its time, and the rate of its upcrossings."""
    process = psd_of(inputs)
    time = 1.2e6 / process.peak_rate
    made = synthesized(process, time, seed=20261129, tones=tones)
    crossings = np.count_nonzero((made.samples[:-1] < 0.0) & (made.samples[1:] >= 0.0))
    return counted_synthesis(made), time, crossings / time


def _time_domain(inputs: Values) -> Values:
    cycles, time, upcrossing_rate = _made(inputs)
    if "slope_m" not in inputs:
        event = curve_of(inputs, "range")
        with np.errstate(divide="ignore"):
            return {"damage_per_s": float((cycles.count / event.life(cycles.range)).sum()) / time}
    sums = [float((cycles.count * cycles.range**m).sum()) / time for m in inputs["slope_m"]]
    return {"sum_range^m_per_s": sums, "zero_upcrossing_rate_Hz": upcrossing_rate, "cycles_per_s": cycles.total / time}


def _one_degree(motion: str) -> Any:
    return lambda inputs: _of_one_degree(inputs, motion)


def _of_one_degree(inputs: Values, motion: str) -> Values:
    mass = OneDegreeOfFreedom(
        natural_frequency=inputs["natural_frequency_Hz"],
        stress_per_acceleration=f"{inputs['stress_per_g_MPa']} MPa/g",
        motion=motion,
        damping_ratio=inputs["damping_ratio"],
    )
    density = ResponseDensity(PSDs({"base": base_of(inputs, "base_psd_g2_per_Hz")}), {"base": mass})
    names = ("m0", "m1", "m2", "m4", "rms_MPa", "zero_upcrossing_rate_Hz", "peak_rate_Hz")
    keys = ("narrow_band", "three_band", "dirlik", "tovo_benasciutti")
    damage = {key: _rate(density, FORMULAS[key], inputs["slope_m"], inputs["A_range"]) for key in keys}
    rms_g = density.rms / inputs["stress_per_g_MPa"]
    miles = mass.miles_rms(inputs["base_psd_g2_per_Hz"][0] * G**2) / inputs["stress_per_g_MPa"]
    found = {**statistics(density, wanted=names), "rms_g": rms_g, "damage_per_s": damage}
    return {**found, "miles_rms_g": miles} if len(set(inputs["base_psd_g2_per_Hz"])) == 1 else found


def _dwell(inputs: Values) -> Values:
    amplitude = inputs.get("stress_amplitude_MPa", inputs.get("amplitude_MPa"))
    time = inputs.get("duration_s", 3600.0 * inputs.get("exposure_h", 0.0))
    load = Sine.dwells("stress", [(f"{inputs['frequency_Hz']!r} Hz", f"{amplitude!r} MPa", f"{time!r} s")])
    found = life(load, curve_of(inputs))
    own = {"cycles": found.spectrum.cycles.total, "damage": found.damage_per_repeat, "life_h": found.life_hours}
    if "exposure_h" in inputs:
        own["N_cycles"] = found.spectrum.cycles.total / found.damage_per_repeat
    return {**own, "life_s": 3600.0 * found.life_hours}


def _sweep_of_stress(inputs: Values) -> Values:
    rows = [(f"{f!r} Hz", f"{a!r} MPa") for f, a in inputs["points_Hz_amplitude_MPa"]]
    rate = f"{inputs['rate']} {inputs['rate_unit']}"
    load = Sine.sweep("stress", start=inputs["start_Hz"], end=inputs["end_Hz"], amplitude=rows, rate=rate)
    one, two = (life(load, curve_of(inputs, two_slopes=two)).damage_per_repeat for two in (False, True))
    return {
        "duration_s": load.duration,
        "cycles": load.cycles_of("stress").total,
        "damage_per_sweep": one,
        "damage_all_sweeps": inputs["sweeps"] * one,
        "life_sweeps": 1.0 / one,
        "damage_per_sweep_knee_curve": two,
    }


def _sweep_through_resonance(inputs: Values) -> Values:
    load = Sine.sweep(
        "base",
        start=inputs["start_Hz"],
        end=inputs["end_Hz"],
        amplitude=f"{inputs['base_amplitude_g']} g",
        rate=f"{inputs['rate']} {inputs['rate_unit']}",
    )
    mass = OneDegreeOfFreedom(
        natural_frequency=inputs["natural_frequency_Hz"],
        stress_per_acceleration=f"{inputs['stress_per_g_MPa']} MPa/g",
        damping_ratio=inputs["damping_ratio"],
    )
    found = life(load, curve_of(inputs), relation=InputResponses({"base": mass}))
    at = abs(mass.at(np.array([inputs["natural_frequency_Hz"]]))[0]) * inputs["base_amplitude_g"] * G
    return {
        "duration_s": load.duration,
        "cycles": load.cycles_of("base").total,
        "peak_stress_amplitude_at_natural_frequency_MPa": at,
        "damage_per_sweep": found.damage_per_repeat,
    }


def _sine_on_narrow(inputs: Values) -> Values:
    own = ToneDensity(inputs["sine_frequency_Hz"], inputs["random_rms_MPa"], inputs["sine_amplitude_MPa"])
    return {"sum_amplitude^m_per_s": [own.moment(m) / 2.0**m for m in inputs["slope_m"]]}


def _sine_on_random(inputs: Values) -> Values:
    tone = Tone(inputs["sine_frequency_Hz"], inputs["sine_amplitude_MPa"])
    if "centre_Hz" in inputs:
        half = 0.5 * inputs["band_width_Hz"]
        band = [inputs["centre_Hz"] - half, inputs["centre_Hz"] + half]
        cycles, time, _ = _made({"breakpoints_Hz": band, "psd_MPa2_per_Hz": [inputs["psd_MPa2_per_Hz"]] * 2}, (tone,))
        return {
            "sum_amplitude^m_per_s": [
                float((cycles.count * (0.5 * cycles.range) ** m).sum()) / time for m in inputs["slope_m"]
            ]
        }
    cycles, time, _ = _made(inputs, (tone,))
    return {"sum_range^m_per_s": [float((cycles.count * cycles.range**m).sum()) / time for m in inputs["slope_m"]]}


# ---- structures --------------------------------------------------------------------------------------------------


def pairs(values: Any) -> np.ndarray:
    """Complex numbers, compared as one."""
    return np.asarray(values, dtype=np.complex128)


MODES = ("natural_frequency_Hz", "participation_sqrt_t", "modal_stress_MPa_per_mm_sqrt_t")


def _modal_base(inputs: Values) -> Values:
    modes = ModalResponse(
        natural_frequency=inputs["natural_frequency_Hz"],
        participation=inputs["participation_sqrt_t"],
        modal_stress=inputs["modal_stress_MPa_per_mm_sqrt_t"],
        damping_ratio=tuple(inputs["damping_ratio"]),
    )
    density = ResponseDensity(PSDs({"base": base_of(inputs)}), {"base": modes})
    f = np.array(inputs["frequency_Hz"])
    columns = zip(*(inputs[key] for key in MODES), inputs["damping_ratio"], strict=True)
    alone = [
        ModalResponse(natural_frequency=[f0], participation=[p], modal_stress=[s], damping_ratio=z)
        for f0, p, s, z in columns
    ]
    each = [ResponseDensity(PSDs({"base": base_of(inputs)}), {"base": one}).moment(0.0) for one in alone]
    return {
        "not_this_rms_without_cross_terms_MPa": math.sqrt(sum(each)),
        "H_MPa_per_g_re_im": pairs(modes.at(f) * G),
        "stress_psd_MPa2_per_Hz": density.at(f),
        **statistics(density, wanted=RESPONSE_STATISTICS),
    }


def _modes_of_matrix(inputs: Values, **damping: Any) -> tuple[ModalResponse, np.ndarray]:
    """The modes of masses and springs, normalised to 1 t."""
    mass, stiffness = np.array(inputs["mass_t"]), np.array(inputs["stiffness_N_per_mm"])
    squares, shapes = eigh(stiffness, mass)
    load = np.array(inputs["load_vector"]) if "load_vector" in inputs else mass @ np.ones(len(mass))
    frequency = np.sqrt(squares) / (2.0 * np.pi)
    modes = ModalResponse(
        natural_frequency=frequency,
        participation=shapes.T @ load,
        modal_stress=np.array(inputs["stress_row_MPa_per_mm"]) @ shapes,
        input="force" if "load_vector" in inputs else "base acceleration",
        **damping,
    )
    return modes, frequency


def _matrix(inputs: Values) -> Values:
    damping: Values = {}
    if "damping_ratio" in inputs:
        damping["damping_ratio"] = tuple(inputs["damping_ratio"])
    elif "loss_factor" in inputs:
        damping["loss_factor"] = inputs["loss_factor"]
    else:
        _, frequency = _modes_of_matrix(inputs, damping_ratio=0.01)
        omega = 2.0 * np.pi * frequency
        damping["damping_ratio"] = tuple(inputs["alpha_per_s"] / (2.0 * omega) + 0.5 * inputs["beta_s"] * omega)
    modes, frequency = _modes_of_matrix(inputs, **damping)
    f = np.array(inputs["frequency_Hz"])
    if "load_vector" in inputs:
        base, h = (
            PSD(inputs["breakpoints_Hz"], inputs["psd_N2_per_Hz"], "force"),
            {"H_MPa_per_N_re_im": pairs(modes.at(f))},
        )
    else:
        base, h = base_of(inputs), {"H_MPa_per_g_re_im": pairs(modes.at(f) * G)}
    density = ResponseDensity(PSDs({"input": base}), {"input": modes})
    if "alpha_per_s" in inputs:
        return {"damping_ratio": damping["damping_ratio"], **h, "rms_MPa": density.rms}
    if "loss_factor" in inputs:
        return {**h, "rms_MPa": density.rms}
    found = {**h, **statistics(density, wanted=RESPONSE_STATISTICS)}
    if "load_vector" not in inputs:
        found |= {"natural_frequency_Hz": frequency, "participation_times_modal_stress": -modes.gains}
    return found


def _truncated(inputs: Values) -> Values:
    whole, frequency = _modes_of_matrix(inputs, damping_ratio=tuple(inputs["damping_ratio"]))
    mass, stiffness = np.array(inputs["mass_t"]), np.array(inputs["stiffness_N_per_mm"])
    row = np.array(inputs["stress_row_MPa_per_mm"])
    static = float(row @ np.linalg.solve(stiffness, mass @ np.ones(len(mass))))
    residual = static + float(whole.gains[0]) / (2.0 * np.pi * frequency[0]) ** 2
    first = {
        "natural_frequency": whole.natural_frequency[:1],
        "participation": whole.participation[:1],
        "modal_stress": whole.modal_stress[:1],
        "damping_ratio": inputs["damping_ratio"][0],
    }
    f = np.array(inputs["frequency_Hz"])
    one, both = ModalResponse(**first), ModalResponse(**first, static_residual=residual)
    return {
        "static_stress_MPa_per_g": -static * G,
        "static_residual_MPa_per_g": -residual * G,
        "H_first_mode_MPa_per_g_re_im": pairs(one.at(f) * G),
        "H_with_residual_MPa_per_g_re_im": pairs(both.at(f) * G),
        "H_all_modes_MPa_per_g_re_im": pairs(whole.at(f) * G),
    }


def _response_table(inputs: Values) -> Values:
    values = np.array(inputs["H_MPa_per_g_re_im"]) @ [1.0, 1j]
    f = np.array(inputs["between_Hz"])
    found: Values = {"highest_line_MPa_per_g": float(np.abs(values).max())}
    names = {"real and imaginary": ("re_im", "re_im"), "magnitude and phase": ("magnitude_phase", "magnitude_phase")}
    for between, (key, rms_key) in names.items():
        table = ResponseTable(frequency=inputs["frequency_Hz"], values=values, between=between)
        ends = table.frequency[[0, -1]]
        base = PSD(ends, np.full(2, inputs["psd_g2_per_Hz"]) * G**2)
        found[f"H_{key}_straight"] = pairs(table.at(f) * G)
        found[f"rms_{rms_key}_MPa"] = ResponseDensity(PSDs({"base": base}), {"base": table}).rms
    at_lines = PSD(inputs["frequency_Hz"], np.abs(values) ** 2 * inputs["psd_g2_per_Hz"], "stress", "lines")
    return {**found, "rms_trapezoid_at_lines_MPa": at_lines.rms}


def _cross(inputs: Values) -> Values:
    matrix = np.array(inputs["G_g2_per_Hz_re_im"]) @ [1.0, 1j]
    rows = np.array(inputs["H_MPa_per_g_re_im_by_line_and_input"]) @ [1.0, 1j]
    f, names = np.array(inputs["frequency_Hz"]), ("1", "2", "3")
    responses = {name: ResponseTable(frequency=f, values=rows[:, i]) for i, name in enumerate(names)}
    own = SpectralMatrix(names, ("acceleration",) * 3, f, matrix * G**2, conjugated="second")
    other = SpectralMatrix(names, ("acceleration",) * 3, f, matrix * G**2, conjugated="first")
    g = own.matrix(f, names)
    alone = [np.abs(rows[:, i]) ** 2 * np.array([matrix[k, i, i].real for k in range(f.size)]) for i in range(3)]
    return {
        "not_this_without_cross_terms": sum(alone),
        "stress_psd_MPa2_per_Hz": ResponseDensity(own, responses).at(f),
        "coherence_12": np.abs(g[:, 0, 1]) ** 2 / (g[:, 0, 0] * g[:, 1, 1]).real,
        "not_this_transposed": ResponseDensity(other, responses).at(f),
    }


def _two_inputs(inputs: Values) -> Values:
    h = np.array(inputs["H_MPa_per_g_re_im"]) @ [1.0, 1j]
    f = np.array([10.0, 20.0])
    psds = {
        name: PSD(f, np.full(2, inputs[key]) * G**2) for name, key in (("1", "G11_g2_per_Hz"), ("2", "G22_g2_per_Hz"))
    }
    tables = {name: ResponseTable(frequency=f, values=np.full(2, one)) for name, one in zip("12", h, strict=True)}
    phase = math.radians(inputs["phase_12_deg"])
    ways = {
        "uncorrelated": {},
        "in_phase": {("1", "2"): Together()},
        "in_antiphase": {("1", "2"): Together(phase=math.pi)},
        "partly": {("1", "2"): Together(coherence=inputs["coherence"], phase=phase)},
    }
    return {key: float(ResponseDensity(PSDs(psds, way), tables).at(15.0)) for key, way in ways.items()}


def _delay(inputs: Values) -> Values:
    base, delay = base_of(inputs), inputs["wheelbase_mm"] / inputs["speed_mm_per_s"]
    gains = {name: Gain(one / G) for name, one in zip(("front", "rear"), inputs["gain_MPa_per_g"], strict=True)}
    both = dict.fromkeys(gains, base)
    density = ResponseDensity(PSDs(both, {("front", "rear"): Together(delay=delay)}), gains)
    alone = ResponseDensity(PSDs(both), gains)
    return {
        "delay_s": delay,
        "stress_psd_MPa2_per_Hz": density.at(inputs["frequency_Hz"]),
        **statistics(density, wanted=RESPONSE_STATISTICS),
        "not_this_rms_uncorrelated_MPa": alone.rms,
    }


def _three_axes(inputs: Values) -> Values:
    names = ("x", "y", "z")
    rows = np.array(inputs["participation_sqrt_t"])
    modes = {
        name: ModalResponse(
            natural_frequency=inputs["natural_frequency_Hz"],
            participation=rows[:, i],
            modal_stress=inputs["modal_stress_MPa_per_mm_sqrt_t"],
            damping_ratio=tuple(inputs["damping_ratio"]),
        )
        for i, name in enumerate(names)
    }
    psds = {
        name: PSD(inputs["band_Hz"], np.full(2, one) * G**2)
        for name, one in zip(names, inputs["psd_g2_per_Hz"], strict=True)
    }
    density = ResponseDensity(PSDs(psds, {("x", "y"): Together(coherence=inputs["coherence_xy"])}), modes)
    return {
        **statistics(density, wanted=RESPONSE_STATISTICS),
        "rms_if_all_independent_MPa": ResponseDensity(PSDs(psds), modes).rms,
    }


# ---- input tables ------------------------------------------------------------------------------------------------


def _skirts(inputs: Values) -> Values:
    below, above = inputs["slope_below_dB_per_octave"], inputs["slope_above_dB_per_octave"]
    level = inputs["plateau_g2_per_Hz"]
    values = psd_of_slopes(inputs["frequency_Hz"], [("dB/octave", below), level, level, ("dB/octave", above)])
    profile = PSD(inputs["frequency_Hz"], values)
    log_slope = np.diff(np.log(values)) / np.diff(np.log(inputs["frequency_Hz"]))
    return {
        "exponents": [log_slope[0], log_slope[-1]],
        "level_at_start_g2_per_Hz": values[0],
        "level_at_end_g2_per_Hz": values[-1],
        "rms_g": profile.rms,
        "rms_m_per_s2": profile.rms * 9.80665,
    }


def _by_segment(inputs: Values) -> Values:
    whole = PSD(inputs["frequency_Hz"], inputs["psd_g2_per_Hz"])
    rows = zip(inputs["frequency_Hz"], inputs["psd_g2_per_Hz"], strict=True)
    points = list(rows)
    parts = [PSD(*zip(*points[i : i + 2], strict=True)).rms for i in range(len(points) - 1)]  # type: ignore[arg-type]
    return {"rms_by_segment_g": parts, "rms_g": whole.rms}


def _near_minus_three(inputs: Values) -> Values:
    slope = ("dB/octave", inputs["slope_dB_per_octave"])
    values = psd_of_slopes(inputs["frequency_Hz"], [inputs["start_g2_per_Hz"], slope])
    exponent = math.log(values[1] / values[0]) / math.log(inputs["frequency_Hz"][1] / inputs["frequency_Hz"][0])
    return {"exponent": exponent, "rms_g": PSD(inputs["frequency_Hz"], values).rms, "end_g2_per_Hz": values[-1]}


# ---- random events -----------------------------------------------------------------------------------------------


def _event(inputs: Values) -> Values:
    process = StatedMoments({float(name[1:]): inputs[name] for name in ("m0", "m1", "m2", "m4")})
    times = np.array(inputs["exposure_s"])
    found: Values = {
        "zero_upcrossing_rate_Hz": process.upcrossing_rate,
        "peak_rate_Hz": process.peak_rate,
        "expected_zero_upcrossings": process.upcrossing_rate * times,
        "expected_peaks": process.peak_rate * times,
    }
    for key in ("narrow_band", "dirlik"):
        lives = [life(random_stress(process, time), curve_of(inputs), FORMULAS[key]) for time in times.tolist()]
        damage = [one.damage_per_repeat for one in lives]
        found[key] = {"damage_per_s": damage[0] / times[0], "life_s": lives[0].life_hours * 3600.0, "damage": damage}
        if key == "narrow_band":
            found[key]["exposures_to_failure"] = [one.life_repeats for one in lives]
    return found


def _event_two_slopes(inputs: Values) -> Values:
    process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    found = life(random_stress(process, inputs["exposure_s"]), curve_of(inputs))
    ranges = expected_ranges(process, "narrow band")
    share = float(ranges.beyond(2.0 * inputs["knee_amplitude_MPa"])) / ranges.rate
    damage = found.damage_per_repeat
    return {
        "damage_per_s": damage / inputs["exposure_s"],
        "damage": damage,
        "life_s": inputs["exposure_s"] / damage,
        "share_of_cycles_above_knee": share,
    }


def _maximum(inputs: Values) -> Values:
    rms = inputs["rms_MPa"]
    process = StatedMoments.of_rate(rms, inputs["zero_upcrossing_rate_Hz"])
    found = [expected_largest(process, time) for time in inputs["exposure_s"]]
    return {
        "most_probable_MPa": [rms * one.most_probable for one in found],
        "expected_MPa": [rms * one.expected for one in found],
        "standard_deviation_MPa": [rms * one.deviation for one in found],
        "expected_largest_magnitude_MPa": [rms * one.of_magnitude.expected for one in found],
        "level_by_probability_longest_exposure_MPa": [rms * found[-1].level(p) for p in inputs["probability"]],
    }


def _kurtosis(inputs: Values) -> Values:
    process = StatedMoments.of_rate(10.0, 50.0)
    plain = random_stress(process).cycles_of("stress", method="narrow band")

    def factors(coefficients: str) -> list[float]:
        event = random_stress(process, kurtosis=inputs["kurtosis"], coefficients=coefficients)
        found = event.cycles_of("stress", method="narrow band")
        sums = ((one.count * one.range**m).sum() for m in inputs["slope_m"] for one in (found, plain))
        each = [float(one) for one in sums]
        return [one / other for one, other in zip(each[0::2], each[1::2], strict=True)]

    usual, exact = (hermite_form(inputs["kurtosis"], coefficients=one) for one in ("usual", "exact"))
    return {
        "h4": usual.h4,
        "kappa": usual.scale,
        "damage_factor": factors("usual"),
        "kurtosis_of_transform": usual.skewness_and_kurtosis[1],
        "h4_exact": exact.h4,
        "damage_factor_with_h4_exact": factors("exact"),
    }


def _kurtosis_maximum(inputs: Values) -> Values:
    form = hermite_form(inputs["kurtosis"], inputs["skewness"], coefficients="usual")
    process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    largest = expected_largest(process, inputs["exposure_s"])
    levels = [largest.level(p) for p in inputs["probability"]]
    return {
        "h3": form.h3,
        "h4": form.h4,
        "kappa": form.scale,
        "gaussian_level": levels,
        "level_MPa": [inputs["rms_MPa"] * float(form.at(one)) for one in levels],
    }


def _static_mean(inputs: Values) -> Values:
    process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    event = random_stress(process, means={"stress": inputs["static_mean_MPa"]})
    rules = ["goodman", "smith-watson-topper", "walker"]
    if inputs["static_mean_MPa"] > 0.0:
        rules += ["none", "gerber"]
    material = {"ultimate_strength": inputs["ultimate_strength_MPa"], "walker_exponent": inputs["walker_gamma"]}
    found = {}
    for rule in rules:
        more = {} if rule in ("none", "gerber") else {"compressive_mean": "credited"}
        answer = life(event, curve_of(inputs), mean_stress=rule, material=material, **more)
        found[rule.replace("-", "_")] = answer.damage_per_repeat
    return {"damage_per_s": found}


def _static_mean_two_slopes(inputs: Values) -> Values:
    process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    event = random_stress(process, means={"stress": inputs["static_mean_MPa"]})
    material = {"ultimate_strength": inputs["ultimate_strength_MPa"]}
    answer = life(event, curve_of(inputs), mean_stress="goodman", material=material)
    return {"equivalent_rms_MPa": equivalent_rms(answer, process), "damage_per_s": answer.damage_per_repeat}


def equivalent_rms(found: Any, process: Moments) -> float:
    """The rms that equivalent amplitudes belong to: the same for all under a rule that is straight in the amplitude."""
    each = process.rms * found.equivalent_stress / (0.5 * found.spectrum.cycles.range)
    assert each.max() == pytest.approx(each.min(), rel=1e-9)
    return float(each[0])


def _harmonics(inputs: Values) -> Values:
    rows = [(f"{f!r} Hz", f"{a!r} MPa", f"{t!r} s") for f, a, t in inputs["frequency_Hz_amplitude_MPa_exposure_s"]]
    if "static_mean_MPa" in inputs:
        load = Sine.dwells("stress", rows, mean=f"{inputs['static_mean_MPa']} MPa")
        material = {"ultimate_strength": inputs["ultimate_strength_MPa"]}
        found = life(load, curve_of(inputs), mean_stress="goodman", material=material)
        times = np.array([row[2] for row in inputs["frequency_Hz_amplitude_MPa_exposure_s"]])
        return {
            "equivalent_amplitude_MPa": found.equivalent_stress,
            "damage": found.damage,
            "total_damage": found.damage_per_repeat,
            "life_each_alone_s": times / found.damage,
        }
    found = life(Sine.dwells("stress", rows), curve_of(inputs))
    return {
        "cycles": found.spectrum.cycles.count,
        "damage": found.damage,
        "total_damage": found.damage_per_repeat,
        "passes_to_failure": found.life_repeats,
        "hours_to_failure": found.life_hours,
    }


def _sweep_table(inputs: Values) -> Values:
    values = np.array(inputs["H_MPa_per_g_re_im"]) @ [1.0, 1j]
    load = Sine.sweep(
        "base",
        start=inputs["start_Hz"],
        end=inputs["end_Hz"],
        amplitude=f"{inputs['base_amplitude_g']} g",
        rate=f"{inputs['rate_octave_per_min']} octave/min",
    )
    found: Values = {
        "cycles": load.cycles_of("base").total,
        "duration_s": load.duration,
        "highest_line_amplitude_MPa": float(np.abs(values).max()) * inputs["base_amplitude_g"],
    }
    for between, key in (("real and imaginary", "damage_re_im"), ("magnitude and phase", "damage_log_magnitude")):
        table = ResponseTable(frequency=inputs["frequency_Hz"], values=values, between=between)
        found[key] = life(load, curve_of(inputs), relation=InputResponses({"base": table})).damage_per_repeat
    return found


# ---- service -----------------------------------------------------------------------------------------------------


def service(inputs: Values) -> DutyCycle:
    """A block, a dwell and a narrow band in one repeat."""
    time = inputs["seconds_per_block_pass"]
    block = LoadStates.of(
        {"stress": [f"{one!r} MPa" for one in inputs["block_turning_points_MPa"]]}, frequency=1.0 / time
    )
    f, seconds, amplitude, mean = inputs["sine_Hz_seconds_amplitude_MPa_mean_MPa"]
    sine = Sine.dwells("stress", [(f"{f} Hz", f"{amplitude} MPa", f"{seconds} s")], mean=f"{mean} MPa")
    rms, rate, exposure, mean = inputs["random_rms_MPa_v0_Hz_seconds_mean_MPa"]
    random = random_stress(StatedMoments.of_rate(rms, rate), exposure, means={"stress": mean})
    events = (Event("block", block, inputs["block_passes_per_repeat"]), Event("sine", sine), Event("random", random))
    return DutyCycle("repeat", events, expected_cycles="narrow band")


def service_life(inputs: Values, **more: Any) -> Any:
    """The life of the spot."""
    spot = hot_spot(
        name="spot",
        curve=curve_of(inputs),
        relation=OneLoad("stress", "1"),
        material=Material(name="m", ultimate_strength=inputs["ultimate_strength_MPa"]),
        mean_stress="goodman",
    )
    return assess_life(spot, service(inputs), **more)


def _by_event(found: Any, values: np.ndarray) -> np.ndarray:
    return np.bincount(found.spectrum.event, weights=values, minlength=3)


def _service_damage(inputs: Values) -> Values:
    found = service_life(inputs)
    damage = _by_event(found, found.damage)
    common = {
        "damage_per_repeat": damage,
        "shares": damage / damage.sum(),
        "repeats": found.life_repeats,
        "hours": found.life_hours,
    }
    if "A_amplitude" not in inputs:
        return common
    cycles = _by_event(found, found.spectrum.per_repeat)
    block = found.duty_cycle.sources("stress")[0].cycles
    listed = sorted(zip(0.5 * block.range, block.mean, strict=True), reverse=True)
    common["block_cycles_amplitude_mean_MPa"] = [list(one) for one in listed]
    return {**common, "cycles_per_repeat": cycles, "seconds_per_repeat": found.duty_cycle.duration}


def _service_allowable(inputs: Values) -> Values:
    rms, *others = inputs["random_rms_MPa_v0_Hz_seconds_mean_MPa"]

    def too_much(factor: float) -> float:
        changed = {**inputs, "random_rms_MPa_v0_Hz_seconds_mean_MPa": [factor * rms, *others]}
        return service_life(changed).damage_per_repeat * inputs["target_repeats"] - 1.0

    alone = brentq(too_much, 0.5, 3.0, xtol=1e-12)
    return {
        "factor_all": service_life(inputs, target=inputs["target_repeats"]).reserve_on_stress,
        "factor_random_rms": alone,
    }


def _random_growth(inputs: Values) -> tuple[Moments, RangeDensity]:
    """The process of a case, and its expected ranges."""
    if "m0" in inputs:
        process = StatedMoments({float(name[1:]): inputs[name] for name in ("m0", "m1", "m2", "m4")})
    else:
        process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    ranges = expected_ranges(process, "dirlik" if "m0" in inputs else "narrow band")
    return process, ranges


def growth_of(repeat: Cycles, inputs: Values, law: GrowthLaw, part: str = "full") -> tuple[Any, Any]:
    """The table of a crack of constant factor from a0 to af, and its growth in a repeat over the size."""
    shape = constant_factor(inputs["Y"])
    drive = growth_drive(repeat, part)
    growth = growth_per_repeat(drive, shape, law)
    ends = inputs["a0_mm"], inputs["af_mm"]
    return integrate_growth(growth, *ends, threshold_sizes(drive, shape, law, *ends)), growth


def _growth(part: str = "full", kind: type[GrowthLaw] = ParisLaw) -> Any:
    def values(inputs: Values) -> Values:
        process, ranges = _random_growth(inputs)
        m, a0 = inputs["m"], inputs["a0_mm"]
        law = kind(name="case", rate=inputs["C"], slope=m, threshold=inputs.get("dK_th_MPa_sqrt_mm", 0.0))
        table, growth = growth_of(ranges.cycles(1.0), inputs, law, part)
        time, half = float(table.repeats[-1]), 0.5 if part == "tensile" else 1.0
        equivalent = half * (ranges.moment(m) / ranges.rate) ** (1.0 / m)
        found: Values = {"N_cycles": time * ranges.rate, "time_s": time}
        if kind is not ParisLaw:
            return {**found, "rate_at_a0_mm_per_cycle": float(growth(a0)) / ranges.rate}
        if "a_mm" in inputs:
            sizes = np.array(inputs["a_mm"])
            needed = inputs["dK_th_MPa_sqrt_mm"] / (inputs["Y"] * np.sqrt(np.pi * sizes))
            shares = ranges.beyond(needed) / ranges.rate
            rates = growth(sizes) / ranges.rate
            return {**found, "rate_mm_per_cycle": rates, "share_of_cycles_above_threshold": shares}
        if "m0" in inputs:
            return {**found, "peak_rate_Hz": process.peak_rate, "equivalent_range_MPa": equivalent}
        found["equivalent_range_MPa"] = equivalent
        return {**found, "equivalent_range_over_rms": equivalent / process.rms} if part == "full" else found

    return values


def _service_growth(inputs: Values) -> Values:
    repeat = OneLoad("stress", "1").cycles(service(inputs))
    m, threshold = inputs["m"], inputs.get("dK_th_MPa_sqrt_mm", 0.0)
    law = ParisLaw(name="case", rate=inputs["C"], slope=m, threshold=threshold)
    table, growth = growth_of(repeat, inputs, law)
    repeats, (a0, af) = float(table.repeats[-1]), (inputs["a0_mm"], inputs["af_mm"])
    if threshold:
        by_event = {
            size: [float(growth_of(part, inputs, law)[1](size)) for part in _parts(repeat)] for size in (a0, af)
        }
        single = growth_drive(repeat.chosen(repeat.event < 2), "full")
        wakes = threshold_sizes(single, constant_factor(inputs["Y"]), law, a0, af)
        return {
            "growth_per_repeat_at_a0_mm": by_event[a0],
            "shares_at_a0": np.array(by_event[a0]) / sum(by_event[a0]),
            "growth_per_repeat_at_af_mm": by_event[af],
            "shares_at_af": np.array(by_event[af]) / sum(by_event[af]),
            "sizes_where_a_cycle_wakes_mm": wakes,
            "repeats": repeats,
        }
    sums = np.bincount(repeat.event, weights=repeat.per_repeat * repeat.range**m)
    return {
        "sum_n_S_to_m_per_repeat": sums,
        "shares": sums / sums.sum(),
        "equivalent_range_MPa": (sums.sum() / repeat.per_repeat.sum()) ** (1.0 / m),
        "repeats": repeats,
        "hours": repeats * service(inputs).hours,
        "a_after_one_and_two_thirds_mm": [size_after(table, growth, share * repeats) for share in (1 / 3, 2 / 3)],
    }


def _parts(repeat: Cycles) -> list[Cycles]:
    return [repeat.chosen(repeat.event == number) for number in range(3)]


# ---- damage spectra ----------------------------------------------------------------------------------------------


def oscillators_of(inputs: Values) -> Oscillators:
    """Those of a case."""
    frequency = np.atleast_1d(inputs["natural_frequency_Hz"])
    if "K_MPa_per_mm" not in inputs:
        return Oscillators(frequency, 8.0, inputs["Q"])
    return Oscillators(frequency, inputs["slope_b"], inputs["Q"], inputs["K_MPa_per_mm"], inputs["C_amplitude"])


def _spectrum(found: DamageSpectrum) -> Values:
    return {"damage": found.damage, "extreme_response_g": found.extreme / G}


def sweep_of(inputs: Values) -> Sine:
    """The sweep of base acceleration of a case."""
    rate = f"{inputs['rate']} {inputs['rate_unit']}"
    ends = {"start": inputs["start_Hz"], "end": inputs["end_Hz"]}
    if "displacement_amplitude_mm" not in inputs:
        return Sine.sweep("base", **ends, amplitude=f"{inputs['base_amplitude_g']} g", rate=rate)
    sizes = (f"{inputs['displacement_amplitude_mm']} mm", f"{inputs['acceleration_amplitude_g']} g")
    return Sine("base", Sweep(**ends, profile=Profile.crossover(*sizes, **ends), rate=rate))


def _of_psd(inputs: Values) -> Values:
    own = oscillators_of(inputs)
    found = damage_spectrum(base_of(inputs), own, exposure=inputs["exposure_s"])
    masses = [
        OneDegreeOfFreedom(natural_frequency=f, stress_per_acceleration=1.0, motion="relative", quality_factor=10.0)
        for f in own.natural_frequency
    ]
    each = [ResponseDensity(PSDs({"base": base_of(inputs)}), {"base": mass}) for mass in masses]
    return {
        **_spectrum(found),
        "z_rms_mm": [one.rms / w**2 for one, w in zip(each, own.omega, strict=True)],
        "zero_upcrossing_rate_Hz": [one.upcrossing_rate for one in each],
    }


def _white(inputs: Values) -> Values:
    own = oscillators_of(inputs)
    mass = OneDegreeOfFreedom(
        natural_frequency=inputs["natural_frequency_Hz"], stress_per_acceleration=1.0, quality_factor=10.0
    )
    rms = mass.miles_rms(inputs["psd_g2_per_Hz"] * G**2)
    z = np.array([rms / own.omega[0] ** 2])
    cycles = own.natural_frequency * inputs["exposure_s"]
    damage = own.damage_of_sums(own.sums_of_narrow_band(z, cycles))
    back = own.level_for(damage, inputs["exposure_s"])[0] / G**2
    assert back == pytest.approx(inputs["psd_g2_per_Hz"], rel=1e-12)
    return {"z_rms_mm": z[0], "pseudo_acceleration_rms_g": rms / G, "damage": damage[0]}


def _sine_spectrum(inputs: Values) -> Values:
    rows = [(f"{inputs['frequency_Hz']} Hz", f"{inputs['base_amplitude_g']} g", f"{inputs['duration_s']} s")]
    own = oscillators_of(inputs)
    found = damage_spectrum(Sine.dwells("base", rows), own)
    return {**_spectrum(found), "z_mm": found.extreme / own.omega**2}


def _sweep_spectrum(inputs: Values) -> Values:
    load = sweep_of(inputs)
    found = _spectrum(damage_spectrum(load, oscillators_of(inputs)))
    if "displacement_amplitude_mm" not in inputs:
        return found
    profile = load.course.profile
    return {**found, "crossover_Hz": profile.frequency[1], "base_amplitude_at_start_g": profile.amplitude[0] / G}


def _history_spectrum(inputs: Values) -> Values:
    rate = inputs["sampling_rate_Hz"]
    clock = np.arange(round(inputs["duration_s"] * rate) + 1) / rate
    parts = (a * G * np.sin(2.0 * np.pi * f * clock + phase) for f, a, phase in inputs["components_Hz_g_rad"])
    history = LoadHistory("shake", (Channel("base", sum(parts), "acceleration"),), rate)
    found = damage_spectrum(history, oscillators_of(inputs))
    return {  # there positive is +ω²z
        "damage": found.damage,
        "extreme_positive_g": -found.lowest / G,
        "extreme_negative_g": -found.highest / G,
    }


def _half_sine(inputs: Values) -> Values:
    time, step = inputs["duration_s"], inputs["duration_s"] / 1000
    clock = np.arange(0.0, time + 0.1, step)
    pulse = np.where(clock <= time, inputs["amplitude_g"] * G * np.sin(np.pi * clock / time), 0.0)
    history = LoadHistory("pulse", (Channel("base", pulse, "acceleration"),), 1.0 / step)
    found = damage_spectrum(history, oscillators_of(inputs))
    return {"positive_g": found.highest / G, "negative_g": found.lowest / G}


def _equivalent(inputs: Values) -> Values:
    own, damage = oscillators_of(inputs), np.array(inputs["damage"])
    test, service_time = inputs["test_time_s"], inputs["service_time_s"]
    level = own.level_for(damage, test) / G**2
    same = own.level_for(damage, service_time) / G**2
    return {
        "equivalent_psd_g2_per_Hz": level,
        "equivalent_psd_service_time_g2_per_Hz": same,
        "psd_factor": level[0] / same[0],
        "rms_factor": math.sqrt(level[0] / same[0]),
    }


def _life_profile(inputs: Values) -> Values:
    random = RandomVibration({"base": base_of(inputs)}, inputs["exposure_s"])
    events = (Event("random", random), Event("sweep", sweep_of(inputs), inputs["sweeps"]))
    return _spectrum(damage_spectrum(DutyCycle("life", events), oscillators_of(inputs)))


# ---- extras ------------------------------------------------------------------------------------------------------


def _broad_mean(inputs: Values) -> Values:
    process = StatedMoments(dict(zip((0, 1, 2, 4), inputs["m0_m1_m2_m4"], strict=True)))
    event = random_stress(process, means={"stress": inputs["static_mean_MPa"]})
    material = {"ultimate_strength": inputs["ultimate_strength_MPa"]}
    how = {"mean_stress": "goodman", "material": material}
    found = life(event, curve_of(inputs), "dirlik", **how)
    damage = found.damage_per_repeat
    limit = life(event, curve_of({**inputs, "slope_below": "inf"}), "dirlik", **how).damage_per_repeat
    return {
        "equivalent_rms_MPa": equivalent_rms(found, process),
        "damage_per_s": damage,
        "damage_per_s_fatigue_limit": limit,
        "life_s": 1.0 / damage,
    }


def _clipped(inputs: Values) -> Values:
    process = StatedMoments.of_rate(inputs["rms_MPa"], inputs["zero_upcrossing_rate_Hz"])
    held, free = random_stress(process, crest_factor=inputs["k_clip"]), random_stress(process)
    curves = {
        "one": curve_of(inputs, two_slopes=False),
        "two": curve_of(inputs, two_slopes=True),
        "limit": curve_of({**inputs, "slope_below": "inf"}, two_slopes=True),
    }
    damage = {key: life(held, curve).damage_per_repeat for key, curve in curves.items()}
    free_damage = {key: life(free, curve).damage_per_repeat for key, curve in curves.items()}
    ranges = expected_ranges(process, "narrow band")
    return {
        "damage_per_s": damage["one"],
        "over_not_clipped": damage["one"] / free_damage["one"],
        "share_of_cycles_clipped": float(ranges.beyond(2.0 * inputs["k_clip"] * inputs["rms_MPa"])) / ranges.rate,
        "damage_per_s_two_slopes": damage["two"],
        "two_slopes_over_not_clipped": damage["two"] / free_damage["two"],
        "damage_per_s_fatigue_limit": damage["limit"],
    }


def _half_power(inputs: Values) -> Values:
    rows = zip(inputs["natural_frequency_Hz"], inputs["damping_ratio"], inputs["line_spacing_Hz"], strict=True)
    known = [(Resonance(own, ratio), spacing) for own, ratio, spacing in rows]
    return {
        "peak_frequency_Hz": [one.peak_frequency for one, _ in known],
        "peak_magnitude": [one.magnification for one, _ in known],
        "lower_Hz": [one.half_power[0] for one, _ in known],
        "upper_Hz": [one.half_power[1] for one, _ in known],
        "width_Hz": [one.half_power[1] - one.half_power[0] for one, _ in known],
        "width_estimate_2_zeta_fn_Hz": [one.half_power_width for one, _ in known],
        "spacings_in_width": [one.half_power_width / spacing for one, spacing in known],
        "highest_line_over_peak_estimate": [one.highest_line(spacing) for one, spacing in known],
    }


def _history_of(inputs: Values) -> LoadHistory:
    return LoadHistory("block", [Channel("stress", inputs["stress_MPa"], "stress")], inputs["sampling_rate_Hz"])


def _one_segment(inputs: Values) -> Values:
    whole = len(inputs["stress_MPa"]) / inputs["sampling_rate_Hz"]
    found = estimate_psd(_history_of(inputs), "stress", segment=whole, overlap=0.0, window="none", mean="kept")
    return {"frequency_Hz": found.frequency, "psd_MPa2_per_Hz": found.values, "sum_G_df_MPa2": found.mean_square}


def _averaged(inputs: Values) -> Values:
    segment = inputs["segment"] / inputs["sampling_rate_Hz"]
    found = estimate_psd(_history_of(inputs), "stress", segment=segment)
    return {"frequency_Hz": found.frequency, "psd_MPa2_per_Hz": found.values, "segments": found.segments}


def _motion(inputs: Values) -> Values:
    base = PSD(inputs["frequency_Hz"], np.array(inputs["psd_g2_per_Hz"]) * G**2)
    moved = base.in_motion("length")
    low, second = inputs["frequency_Hz"][:2]
    return {
        "rms_velocity_mm_per_s": base.in_motion("velocity").rms,
        "rms_displacement_mm": moved.rms,
        "displacement_share_below_second_breakpoint": moved.part(low, second) / moved.moment(0.0),
    }


def _units_of_psd(inputs: Values) -> Values:
    first = f"{inputs['psd_g2_per_Hz']} g^2/Hz"
    metric = {unit: psd_value(first, unit) for unit in ("(m/s^2)^2/Hz", "(mm/s^2)^2/Hz")}
    return {
        "psd_m2_per_s4_per_Hz": metric["(m/s^2)^2/Hz"],
        "psd_mm2_per_s4_per_Hz": metric["(mm/s^2)^2/Hz"],
        "psd_2_g2_per_Hz": psd_value(f"{inputs['psd_2_m2_per_s4_per_Hz']} (m/s^2)^2/Hz", "g^2/Hz"),
    }


def psd_value(text: str, unit: str) -> float:
    """A level in another unit."""
    value = psd_of_rows([("1 Hz", text), ("2 Hz", text)]).values[0]
    return float(value / psd_of_rows([("1 Hz", f"1 {unit}"), ("2 Hz", f"1 {unit}")]).values[0])


def _components(inputs: Values, names: tuple[str, ...] = ("base",)) -> ModalComponents:
    rows = np.array(inputs["participation_sqrt_t"]).reshape(len(inputs["natural_frequency_Hz"]), -1)
    return ModalComponents(
        natural_frequency=inputs["natural_frequency_Hz"],
        participation={name: rows[:, i] for i, name in enumerate(names)},
        modal_stress=inputs["modal_stress_MPa_per_mm_sqrt_t"],
        damping_ratio=tuple(inputs["damping_ratio"]),
    )


def _tensor_spectra(inputs: Values) -> TensorSpectra:
    level = inputs["psd_g2_per_Hz"] * G**2
    return TensorSpectra(PSDs({"base": PSD(inputs["band_Hz"], [level] * 2)}), _components(inputs), ("base",))


def _von_mises_process(spectra: TensorSpectra) -> TensorProcess:
    return spectra.process(stress_measure("signed von Mises, hydrostatic").random_forms)


def _covariance_of_von_mises(inputs: Values) -> Values:
    forms = stress_measure("signed von Mises, principal").random_forms
    covariance = np.array(inputs["covariance_MPa2"])
    return {"vm_rms_MPa": math.sqrt(float(np.trace(forms @ covariance @ forms.T)))}


def _tensor_statistics(process: Moments) -> Values:
    return statistics(process, wanted=RESPONSE_STATISTICS)


def _von_mises_of_modes(inputs: Values) -> Values:
    spectra = _tensor_spectra(inputs)
    process = _von_mises_process(spectra)
    first = spectra.matrix(inputs["frequency_Hz"][:1])[0]
    return {
        "G_first_MPa2_per_Hz_re_im": first,
        "vm_psd_MPa2_per_Hz": process.at(inputs["frequency_Hz"]),
        **_tensor_statistics(process),
    }


def _normals(inputs: Values) -> Any:
    return np.array([plane_normal(*row) for row in inputs["planes_theta_phi_deg"]])


def _random_on_planes(inputs: Values) -> Values:
    covariance, normals = _tensor_spectra(inputs).covariance(), _normals(inputs)
    shear = shear_covariance(covariance, normals)
    return {
        "normal_rms_MPa": normal_rms(covariance, normals),
        "shear_theta_rms_MPa": np.sqrt(shear[:, 0, 0]),
        "shear_phi_rms_MPa": np.sqrt(shear[:, 1, 1]),
        "shear_covariance_MPa2": shear[:, 0, 1],
        "greatest_shear_rms_MPa": greatest_shear_rms(covariance, normals),
    }


def _worst_random_planes(inputs: Values) -> Values:
    covariance = _tensor_spectra(inputs).covariance()
    return {
        "greatest_normal_rms_MPa": worst_plane(lambda n: normal_rms(covariance, n))[1],
        "greatest_shear_rms_MPa": worst_plane(lambda n: greatest_shear_rms(covariance, n))[1],
    }


def _damage_on_plane(inputs: Values, spectra: TensorSpectra, normal: Any) -> float:
    process = spectra.process(NormalStress(normal).forms)
    m = inputs["slope_m"]
    return expected_ranges(process, "narrow band").moment(m) / 2.0**m / inputs["A_amplitude"]


def _random_damage_on_planes(inputs: Values) -> Values:
    spectra = _tensor_spectra(inputs)

    def on(normals: Any) -> Any:
        return np.array([_damage_on_plane(inputs, spectra, one) for one in normals])

    greatest = worst_plane(on)[1]
    return {"damage_per_s": on(_normals(inputs)), "greatest_damage_per_s": greatest, "life_s": 1.0 / greatest}


def _psd_on_plane(inputs: Values) -> Values:
    spectra, normal = _tensor_spectra(inputs), plane_normal(*inputs["plane_theta_phi_deg"])
    stress = spectra.process(NormalStress(normal).forms)
    shear = spectra.process(shear_weights(normal, plane_axes(normal)[0, 0]))
    return {
        "normal_psd_MPa2_per_Hz": stress.at(inputs["frequency_Hz"]),
        "normal": _tensor_statistics(stress),
        "shear_theta": _tensor_statistics(shear),
    }


def _von_mises_damage(inputs: Values) -> Values:
    process = _von_mises_process(_tensor_spectra(inputs))
    found = {}
    for two, label in ((False, ""), (True, "_two_slopes")):
        curve = curve_of(inputs, two_slopes=two)
        for formula in ("narrow_band", "dirlik"):
            found[formula + label] = _of_components(inputs, curve, FORMULAS[formula])
    return {**_tensor_statistics(process), "damage_per_s": found}


def _of_components(inputs: Values, curve: SNCurve, formula: str) -> float:
    """Damage a second at a hot spot with these modes, by the von Mises process."""
    level = inputs["psd_g2_per_Hz"] * G**2
    event = RandomVibration({"base": PSD(inputs["band_Hz"], [level] * 2)}, 1.0)
    relation = VibratingComponents(response=_components(inputs), measure="signed von Mises, hydrostatic")
    return float(life(event, curve, formula, relation=relation).damage_per_repeat)


def _turning_tensor(inputs: Values) -> Values:
    stress = np.array(inputs["S_MPa_re_im"]) @ np.array([1.0, 1.0j])
    f, level = inputs["frequency_Hz"], 1.0

    def table(value: complex) -> ResponseTable:
        return ResponseTable(frequency=[0.5 * f, 2.0 * f], values=[value] * 2, per="MPa/(mm/s^2)")

    components = ComponentTables({"base": [table(one) for one in stress]})
    event = Sine("base", Dwells([f], [level], [inputs["duration_s"]]))

    def seen(measure: Any) -> Any:
        return VibratingComponents(response=components, measure=measure).seen(event, "dwell").cycles_of("s")

    def on(normals: Any) -> Any:
        return np.array([NormalStress(one).amplitude(stress[None])[0] for one in normals])

    normal, worst = worst_plane(on)
    relation = VibratingComponents(response=components, measure=NormalStress(normal))
    return {
        "normal_amplitude_MPa": [0.5 * float(seen(NormalStress(one)).range[0]) for one in _normals(inputs)],
        "worst_normal_amplitude_MPa": worst,
        "cycles": seen(NormalStress(normal)).total,
        "damage_worst_plane": life(event, curve_of(inputs), relation=relation).damage_per_repeat,
        "signed_von_mises_range_MPa": float(seen("signed von Mises, hydrostatic").range[0]),
    }


def _axes_of_tensors(inputs: Values) -> Values:
    names = ("x", "y", "z")
    psds = {
        name: PSD(inputs["breakpoints_Hz"], np.array(row) * G**2)
        for name, row in zip(names, inputs["psd_x_y_z_g2_per_Hz"], strict=True)
    }
    pairs = (("x", "y"), ("x", "z"), ("y", "z"))
    rows = zip(pairs, inputs["coherence_xy_xz_yz"], inputs["phase_deg_xy_xz_yz"], strict=True)
    together = {pair: Together(coherence, math.radians(phase)) for pair, coherence, phase in rows}
    spectra = TensorSpectra(PSDs(psds, together), _components(inputs, names), names)
    process = _von_mises_process(spectra)
    return {
        "G_first_MPa2_per_Hz_re_im": spectra.matrix(inputs["frequency_Hz"][:1])[0],
        "covariance_MPa2": spectra.covariance(),
        "vm_psd_MPa2_per_Hz": process.at(inputs["frequency_Hz"]),
        "plane_normal_rms_MPa": normal_rms(spectra.covariance(), _normals(inputs)),
        "plane_narrow_band_damage_per_s": [_damage_on_plane(inputs, spectra, one) for one in _normals(inputs)],
        "vm_narrow_band_damage_per_s": _narrow_band(process, inputs),
        **_tensor_statistics(process),
    }


def _narrow_band(process: Moments, inputs: Values) -> float:
    m = inputs["slope_m"]
    return expected_ranges(process, "narrow band").moment(m) / 2.0**m / inputs["A_amplitude"]


def _modes_in_time(inputs: Values) -> Values:
    """Modal coordinates as load factors of unit stresses."""
    rows = np.array(inputs["modal_coordinate_mm_sqrt_t"])
    names = [f"q{i}" for i in range(1, len(rows) + 1)]
    channels = [Channel(name, row, "number") for name, row in zip(names, rows, strict=True)]
    history = LoadHistory("block", channels, 1.0 / inputs["dt_s"])
    cases = CaseLoads([CaseLoad(case=name, channel=name, unit_load="1") for name in names])
    how = {"loads": cases, "unit": inputs["modal_stress_MPa_per_mm_sqrt_t"], "constant": inputs["static_MPa"]}
    normal = plane_normal(*inputs["plane_theta_phi_deg"])
    relation = UnitStresses(**how, measure=NormalStress(normal))
    seen = relation.seen(history, "block").samples().channels[0].values
    duty = DutyCycle("pass", [Event("block", history)])
    table = relation.cycles(duty).sorted_by_range()
    whole = table.range > 1e-9
    goodman = {"mean_stress": "goodman", "compressive_mean": "credited"}
    of_mean = {"relation": relation, "material": {"ultimate_strength": inputs["ultimate_strength_MPa"]}, **goodman}
    with_mean = life(history, curve_of(inputs), **of_mean)
    return {
        "stress_first_samples_MPa": relation.tensors(rows.T)[:3],
        "stress_plane_MPa": seen,
        "cycles_amplitude_mean_MPa": np.column_stack([0.5 * table.range, table.mean])[whole],
        "damage_no_mean": life(history, curve_of(inputs), relation=relation).damage_per_repeat,
        "damage_goodman": with_mean.damage_per_repeat,
        "passes_goodman": with_mean.life_repeats,
    }


def _when(inputs: Values) -> Values:
    result = service_life(inputs)
    moment = failure_moment(result)
    return {
        "damage_at_event_ends_first_repeat": moment.at_ends,
        "damage_after_10_repeats": 10.0 * result.damage_per_repeat,
        "whole_repeats_before": moment.whole_repeats,
        "event": {"sine": "sine", "random": "random"}.get(moment.event, moment.event),
        "hours": moment.hours,
    }


def _inspections(inputs: Values) -> Values:
    life_until = service_life(inputs)
    strengths = {
        "toughness": inputs["Kc_MPa_sqrt_mm"],
        "ultimate_strength": 2e6,
        "yield_strength": 1e6,
    }  # it limits the size
    spot = dataclasses.replace(life_until.hot_spot, material=Material(name="m", **strengths))
    law = ParisLaw(name="case", rate=inputs["C"], slope=inputs["m"])
    crack = Crack(
        hot_spot=spot,
        shape=constant_factor(inputs["Y"], width=1e3),
        initial_size=inputs["a0_mm"],
        law=law,
        detectable_size=inputs["a_detectable_mm"],
        inspection_factor=inputs["factor_interval"],
        counted_part="full",
    )
    growth = grow_crack(crack, life_until.duty_cycle)
    whole = total_life(life_until, growth)
    first, interval = whole.repeats / inputs["factor_first"], growth.interval_repeats
    times = np.arange(first, inputs["goal_repeats"], interval)
    ends = {**inputs, "af_mm": growth.critical.limiting}
    table, rate = growth_of(OneLoad("stress", "1").cycles(life_until.duty_cycle), ends, law)
    at = [share * growth.life_repeats for share in (0.25, 0.5, 0.75)]
    return {
        "S_max_MPa": growth.drive.peak_stress,
        "a_critical_mm": growth.critical.limiting,
        "repeats_to_crack": whole.until_crack_repeats,
        "repeats_of_growth": whole.growth_repeats,
        "share_of_growth": whole.growth_share,
        "window_detectable_to_critical": inputs["factor_interval"] * interval,
        "first_inspection": first,
        "interval": interval,
        "inspections": times.size,
        "repeats_of_inspections": times[:6],
        "a_during_growth_mm": [size_after(table, rate, one) for one in at],
    }


VIBRATION = (
    Method("When the damage is reached", r"SV-duty-when-1", _when),
    Method("From damage to a crack to inspections", r"SV-duty-inspections-1", _inspections),
    Method("Von Mises stress of a covariance", r"VB-vm-covariance-1", _covariance_of_von_mises),
    Method("Von Mises process of two modes", r"VB-vm-modal-1", _von_mises_of_modes),
    Method("Random stress on planes", r"VB-plane-rms-1", _random_on_planes),
    Method("Worst planes of random stress", r"VB-plane-search-1", _worst_random_planes),
    Method("Damage of random stress on planes", r"VB-plane-damage-1", _random_damage_on_planes),
    Method("Normal and shear PSD on a plane", r"VB-plane-psd-1", _psd_on_plane),
    Method("Damage of the von Mises process", r"EX-vm-damage-1", _von_mises_damage),
    Method("Dwell of a turning tensor", r"EX-dwell-tensor-1", _turning_tensor),
    Method("Base shaken along three axes, six components", r"EX-axes-tensor-cross-1", _axes_of_tensors),
    Method("Modes in time, six components", r"EX-modal-transient-1", _modes_in_time),
    Method("PSD of a history, one segment", r"VB-psd-of-history-1", _one_segment),
    Method("PSD of a history, averaged segments", r"VB-psd-of-history-welch-1", _averaged),
    Method("Velocity and displacement of a PSD", r"VB-psd-velocity-displacement-1", _motion),
    Method("Units of a PSD", r"VB-psd-units-1", _units_of_psd),
    Method("Spectral moments, trapezoid at lines", r"SP-E-moments-trapezoid-\d+", _moments("lines")),
    Method("Spectral moments, straight between lines", r"SP-E-moments-linear-\d+", _moments("linear")),
    Method("Spectral moments, straight in log-log", r"SP-E-moments-loglog-.+", _moments("log-log")),
    Method("Constants of Dirlik, Zhao-Baker, Tovo-Benasciutti", r"SP-E-constants-.+", _constants),
    Method("Expected cycles, all formulas, lines", r"SP-E-lines-damage-\d+", _lines_damage),
    Method("Expected cycles, all formulas", r"SP-E-damage-.+", _damage),
    Method("Expected cycles under a curve with a knee", r"SP-E-knee-\d+", _knee),
    Method("Counted synthesis", r"SP-E-time-domain-.+", _time_domain),
    Method("One degree of freedom, absolute", r"SP-E-sdof-\d+-absolute", _one_degree("absolute")),
    Method("One degree of freedom, relative", r"SP-E-sdof-\d+-relative", _one_degree("relative")),
    Method("Sine dwell", r"SP-E-dwell-\d+|VB-dwell-closed-1", _dwell),
    Method("Sine sweep, amplitude table", r"SP-E-sweep-l.+", _sweep_of_stress),
    Method("Sine sweep through a resonance", r"SP-E-sweep-resonance-.+", _sweep_through_resonance),
    Method("Tone on a narrow band", r"SP-E-sine-on-narrow-\d+", _sine_on_narrow),
    Method("Tone on random, counted synthesis", r"SP-E-sine-on-.+-time-domain", _sine_on_random),
    Method("Modes on a moving base", r"VB-modal-base-\d+", _modal_base),
    Method("Modes of masses and springs", r"VB-matrix-(base|rayleigh|loss-factor|force)-1", _matrix),
    Method("Modes left out as a static residual", r"VB-matrix-truncated-1", _truncated),
    Method("Half-power width", r"VB-half-power-1", _half_power),
    Method("Frequency response at lines", r"VB-frf-table-\d+", _response_table),
    Method("Several inputs, cross-spectra", r"VB-inputs-cross-1", _cross),
    Method("Two inputs, four ways together", r"VB-inputs-two-1", _two_inputs),
    Method("Two inputs, one later", r"VB-inputs-delay-1", _delay),
    Method("Base shaken along three axes", r"VB-inputs-three-axes-1", _three_axes),
    Method("PSD by skirts in dB/octave", r"VB-psd-trapezoid-1", _skirts),
    Method("PSD by breakpoints", r"VB-psd-breakpoints-1", _by_segment),
    Method("PSD near -3 dB/octave", r"VB-psd-near-minus-three-\d+", _near_minus_three),
    Method("Random event for an exposure", r"VB-event-1", _event),
    Method("Random event, two slopes", r"VB-event-two-slopes-\d+", _event_two_slopes),
    Method("Largest value of an exposure", r"VB-expected-maximum-1", _maximum),
    Method("Kurtosis", r"VB-kurtosis-\d+", _kurtosis),
    Method("Kurtosis, largest value", r"VB-kurtosis-maximum-1", _kurtosis_maximum),
    Method("Random about a static mean", r"VB-static-mean-\d+", _static_mean),
    Method("Random about a static mean, two slopes", r"VB-static-mean-two-slopes-1", _static_mean_two_slopes),
    Method("List of dwells", r"VB-harmonic-.+", _harmonics),
    Method("Sweep through a response at lines", r"VB-sweep-frf-table-\d+", _sweep_table),
    Method("Block, dwell and random in one repeat", r"SV-duty-(damage|two-slopes)-1", _service_damage),
    Method("Block, dwell and random, factor on stress", r"SV-duty-allowable-1", _service_allowable),
    Method("Growth under a narrow band", r"VB-growth-(narrow|threshold)-\d+", _growth()),
    Method("Growth under a narrow band, opening part", r"VB-growth-opening-part-1", _growth("tensile")),
    Method("Growth law less its threshold", r"VB-growth-shifted-threshold-1", _growth(kind=KlesnilLukasLaw)),
    Method("Growth under a broad band", r"VB-growth-broad-1", _growth()),
    Method("Growth by block, dwell and random", r"SV-duty-growth(-threshold)?-1", _service_growth),
    Method("Damage spectrum of a PSD", r"VB-fds-psd-1", _of_psd),
    Method("Damage of an oscillator on an endless flat base", r"VB-fds-white-1", _white),
    Method("Damage spectrum of a dwell", r"VB-fds-sine-1", _sine_spectrum),
    Method("Damage spectrum of a sweep", r"VB-fds-sweep-.+", _sweep_spectrum),
    Method("Damage spectrum of a history", r"VB-fds-history-1", _history_spectrum),
    Method("Extreme response to a half-sine pulse", r"VB-mrs-half-sine-1", _half_sine),
    Method("PSD of the same damage", r"VB-fds-equivalent-1", _equivalent),
    Method("Damage spectrum of a duty cycle", r"VB-fds-sum-1", _life_profile),
    Method("Broad band about a mean, knee", r"EX-broad-knee-mean-1", _broad_mean),
    Method("Values held at a crest factor", r"EX-clipped-narrow-\d+", _clipped),
)
