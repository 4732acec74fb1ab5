"""Forms of growth laws: what each needs, its formula, for which R it holds, whose it is.

Values go into one row of numbers for the loops: constant, slope, threshold, a spare, exponent of the threshold, the form's.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials.laws import _kernels as kernels
from vivid_anvil.units import coherent

# Kinds of values.
NUMBER, INTENSITY, LENGTH, CONSTANT, POINTS = "a number", "stress intensity", "length", "a constant", "points"


@dataclass(frozen=True)
class GrowthForm:
    """A form of law: code of the loops, values beside rate, slope and threshold, formula, validity, source."""

    code: int
    values: Mapping[str, str]
    formula: str
    validity: str
    source: str
    defaults: Mapping[str, float] = field(default_factory=dict)
    constant_power: float = 0.0  # of K in the unit of the constant, beyond the slope
    tested_r: tuple[float, float] = (-math.inf, 1.0)  # beyond, nobody tested the form

    @property
    def by_points(self) -> bool:
        """Whether points take the place of rate and slope."""
        return "points" in self.values


_TOUGHNESS = {"toughness": INTENSITY}
GROWTH_FORMS = {
    "paris": GrowthForm(
        kernels.PARIS, {}, "da/dN = C × ΔK^m", "the R of the tests", "Paris and Erdogan 1963, J. Basic Eng. 85"
    ),
    "two-stage": GrowthForm(
        kernels.TWO_STAGE,
        {"rate_2": CONSTANT, "slope_2": NUMBER, "transition": INTENSITY},
        "da/dN = C × ΔK^m below the transition, C_2 × ΔK^m_2 above",
        "the R of the tests",
        "BS 7910, two-stage law",
        {"transition": math.nan},
    ),
    "walker": GrowthForm(
        kernels.WALKER,
        {"gamma": NUMBER, "gamma_negative": NUMBER},
        "da/dN = C × (ΔK / (1 - R)^(1 - γ))^m",
        "any R; below 0 with a gamma of its own, 0 for the maximum alone",
        "Walker 1970, ASTM STP 462",
        {"gamma_negative": math.nan},
    ),
    "forman": GrowthForm(
        kernels.FORMAN,
        _TOUGHNESS,
        "da/dN = C × ΔK^m / ((1 - R) × K_c - ΔK)",
        "R of 0 and above",
        "Forman, Kearney and Engle 1967, J. Basic Eng. 89",
        constant_power=-1.0,
        tested_r=(0.0, 1.0),
    ),
    "forman-mettu": GrowthForm(
        kernels.FORMAN_METTU,
        {
            **_TOUGHNESS,
            "p": NUMBER,
            "q": NUMBER,
            "closure_alpha": NUMBER,
            "closure_peak": NUMBER,
            "intrinsic_length": LENGTH,
            "threshold_plus": NUMBER,
            "threshold_minus": NUMBER,
        },
        "da/dN = C × ((1 - f) / (1 - R) × ΔK)^m × (1 - ΔK_th / ΔK)^p / (1 - K_max / K_c)^q",
        "any R; closure f by Newman; closure_alpha = 0 takes it off",
        "Forman and Mettu 1992, ASTM STP 1131; Newman 1984, Int. J. Fract. 24",
        {"threshold_plus": 0.0, "threshold_minus": 0.0, "intrinsic_length": 0.0, "closure_peak": 0.3},
    ),
    "hartman-schijve": GrowthForm(
        kernels.HARTMAN_SCHIJVE,
        _TOUGHNESS,
        "da/dN = C × (ΔK - ΔK_th)^m / ((1 - R) × K_c - ΔK)",
        "R of 0 and above",
        "Hartman and Schijve 1970, Eng. Fract. Mech. 1",
        constant_power=-1.0,
        tested_r=(0.0, 1.0),
    ),
    "hartman-schijve, later form": GrowthForm(
        kernels.TOUGHNESS_SHAPED,
        _TOUGHNESS,
        "da/dN = C × ((ΔK - ΔK_th) / √(1 - K_max / K_c))^m",
        "any R",
        "Jones 2014, Fatigue Fract. Eng. Mater. Struct. 37",
    ),
    "effective range": GrowthForm(
        kernels.CLOSURE,
        {"open_0": NUMBER, "open_1": NUMBER, "open_2": NUMBER},
        "da/dN = C × (U × ΔK)^m, U = u_0 + u_1 × R + u_2 × R^2",
        "R of the tests of U: -0.1 to 0.7 (Elber), -1 to 0.54 (Schijve)",
        "Elber 1971, ASTM STP 486; Schijve 1981",
        {"open_0": 0.5, "open_1": 0.4, "open_2": 0.0},
        tested_r=(-0.1, 0.7),
    ),
    "table": GrowthForm(
        kernels.TABLE,
        {"points": POINTS},
        "da/dN by straight lines in log da/dN over log ΔK",
        "the R of the tests; an error above the last point",
        "measured",
    ),
}
THRESHOLD_MODELS = {
    "one value": kernels.FIXED,
    "power of 1 - R": kernels.POWER_OF_R,
    "steel, line over R": kernels.STEEL_LINE,
    "steel, steps": kernels.STEEL_STEPS,
}
THRESHOLD_SOURCES = {
    "one value": "as stated",
    "power of 1 - R": "ΔK_th = ΔK_th0 (1 - R)^g (Klesnil and Lukáš 1972)",
    "steel, line over R": "7.0 (1 - 0.85 R) MPa√m for R >= 0.1, else 6.0 (Barsom and Rolfe); steps at 0.1",
    "steel, steps": "63 MPa√mm for R >= 0.5, 170 - 214 R from 0 on, 170 below (BS 7910, not welded)",
}


def growth_form(name: str, where: str = "growth law, form") -> GrowthForm:
    """The form of that name; InputError with the nearest otherwise."""
    if name not in GROWTH_FORMS:
        raise InputError(where, repr(name), f"one of {listed(GROWTH_FORMS)}", did_you_mean(name, GROWTH_FORMS))
    return GROWTH_FORMS[name]


def packed_values(where: str, form: GrowthForm, given: Mapping[str, Any], first: tuple[float, ...]) -> FloatArray:
    """The row of numbers of a law: `first` (constant, slope, threshold, spare, exponent), then the form's, checked."""
    for key in given:
        if key not in form.values:
            expected = f"one of {listed(form.values)}" if form.values else "no further values"
            raise InputError(
                f"{where}, values: {key}",
                "a value that the form does not have",
                expected,
                did_you_mean(key, form.values),
            )
    found: list[float] = []
    for key, kind in form.values.items():
        if key not in given and key not in form.defaults:
            raise InputError(
                f"{where}, values: {key}", "nothing", f"{kind}, which the form needs", f"It is: {form.formula}."
            )
        found += _numbers(f"{where}, values: {key}", kind, given.get(key, form.defaults.get(key)), given)
    row = [*first, *found]
    if form.code == kernels.WALKER and math.isnan(row[6]):
        row[6] = row[5]
    if form.code == kernels.TWO_STAGE and math.isnan(row[7]):
        row[7] = (row[0] / row[5]) ** (1.0 / (row[6] - row[1]))
    return np.array(row)


def _numbers(where: str, kind: str, value: Any, given: Mapping[str, Any]) -> list[float]:
    """One value as numbers in coherent units."""
    from vivid_anvil.units import growth_constant

    if kind == POINTS:
        return _points(where, value)
    if kind == CONSTANT:
        return [growth_constant(value, checks.positive_number(f"{where} (slope_2)", given.get("slope_2", 0.0)), where)]
    if kind == NUMBER or isinstance(value, float):
        return [checks.real_number(where, value) if value == value else math.nan]
    return [checks.positive_number(where, coherent(value, kind, where), f"a {kind} above 0")]


def _points(where: str, value: Any) -> list[float]:
    """Rows (range of K, rate), rising, as their number and both logarithms."""
    rows = [(coherent(k, "stress intensity", where), coherent(rate, "growth rate", where)) for k, rate in value]
    ranges, rates = np.array(rows, dtype=np.float64).reshape(-1, 2).T
    if ranges.size < 2 or not (
        (np.diff(ranges) > 0.0).all() and (np.diff(rates) >= 0.0).all() and (rates > 0.0).all() and ranges[0] > 0.0
    ):
        raise InputError(
            where, f"{ranges.size} points", "two or more, ranges of K rising, rates above 0 that do not fall"
        )
    return [float(ranges.size), *np.log(ranges).tolist(), *np.log(rates).tolist()]
