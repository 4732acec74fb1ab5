"""The factors of an estimate from the tensile strength: tables, and each factor with its step."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from scipy.special import ndtri

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.units import coherent, number
from vivid_anvil.writing.working import Step, put_in

_BOOK = "Budynas & Nisbett, Shigley, ch. 6"
_OTHER_BOOK = "Norton, Machine design, ch. 6"


@dataclass(frozen=True)
class Group:
    """What a material group starts from: share of the strength, its ceiling, the knee, the strength from hardness."""

    share: float
    up_to: float  # MPa of tensile strength beyond which the limit stays
    knee_life: float
    has_limit: bool
    hardness: Callable[[float], float] | None
    hardness_text: str
    source: str


GROUPS = {
    "steel": Group(0.5, 1400.0, 1e6, True, lambda hb: 3.4 * hb, "R_m = 3.4 × HB", _BOOK),
    "cast iron": Group(0.4, 400.0, 1e6, True, lambda hb: 1.58 * hb - 86.0, "R_m = 1.58 × HB - 86", _OTHER_BOOK),
    "aluminium": Group(0.4, 325.0, 5e8, False, None, "", _OTHER_BOOK),
}
# a and b of k_a = a R_m^b, R_m in MPa.
SURFACES: dict[str, tuple[float, float]] = {
    "polished": (1.0, 0.0),
    "ground": (1.58, -0.085),
    "machined or cold-drawn": (4.51, -0.265),
    "hot-rolled": (57.7, -0.718),
    "as-forged": (272.0, -0.995),
}
LOADINGS = {"bending": 1.0, "axial": 0.85, "torsion": 0.59}
# Diameter that counts, as a share of the size given: 95 % of the highest stress reaches as much of the section.
SECTIONS = {
    "rotating round": "the diameter itself",
    "round": "0.370 d, bent without rotation",
    "rectangle": "0.808 √(b h), bent without rotation",
}
TEMPERATURE_TABLE = (
    (20.0, 1.0),
    (50.0, 1.010),
    (100.0, 1.020),
    (150.0, 1.025),
    (200.0, 1.020),
    (250.0, 1.0),
    (300.0, 0.975),
    (350.0, 0.943),
    (400.0, 0.900),
    (450.0, 0.843),
    (500.0, 0.768),
    (550.0, 0.672),
    (600.0, 0.549),
)
TEMPERATURE_RULES = ("table", "polynomial")
FACTORS = ("surface", "size", "load", "temperature", "reliability")
SMALLEST, LARGEST = 2.79, 254.0  # mm


def strength_of(group: Group, strength: Any, hardness: Any, steps: list[Step], name: str) -> float:
    """Tensile strength, MPa: as given, or from the Brinell hardness."""
    if (strength is None) == (hardness is None):
        raise InputError(
            "estimate",
            "both ultimate_strength and brinell_hardness" if strength is not None else "neither strength nor hardness",
            "one of ultimate_strength and brinell_hardness",
        )
    if strength is not None:
        value = coherent(strength, "stress", "estimate, ultimate_strength")
        if not 50.0 <= value <= 3000.0:
            raise InputError(
                "estimate, ultimate_strength",
                f"{number(value)} MPa",
                "50 to 3000 MPa",
                "Check the unit of the strength.",
            )
        return value
    value = checks.real_number("estimate, brinell_hardness", hardness)
    if group.hardness is None:
        raise InputError(
            f"estimate, {name}",
            "a hardness",
            "the tensile strength",
            "For this group hardness tells too little of the strength.",
        )
    if not 80.0 <= value <= 450.0:
        raise InputError(
            "estimate, brinell_hardness", f"{value:g} HB", "80 to 450 HB", "Is it a Vickers or Rockwell value?"
        )
    found = group.hardness(value)
    steps.append(
        Step(
            "Tensile strength from the Brinell hardness",
            group.hardness_text,
            group.hardness_text.partition("= ")[2].replace("HB", put_in(value)),
            found,
            "MPa",
            f"{_BOOK}, ch. 2",
        )
    )
    return found


def uncorrected_limit(group: Group, strength: float, steps: list[Step]) -> float:
    """Limit of the polished rotating specimen."""
    counted = min(strength, group.up_to)
    held = f"; it stays above R_m = {number(group.up_to)} MPa" if strength > group.up_to else ""
    value = group.share * counted
    steps.append(
        Step(
            f"Polished specimen in rotating bending at {number(group.knee_life)} cycles{held}",
            f"S_e' = {group.share:g} × R_m",
            f"{group.share:g} × {put_in(counted)} MPa",
            value,
            "MPa",
            group.source,
        )
    )
    return value


def surface_factor(group: str, surface: str | None, strength: float, steps: list[Step]) -> float:
    """k_a by the finish of the surface."""
    if group == "cast iron":
        steps.append(Step("Surface: the flaws of cast iron outweigh it", "k_a = 1", "1", 1.0, "", _OTHER_BOOK))
        return 1.0
    if surface is None:
        raise InputError("estimate, surface", "none", f"one of {listed(SURFACES)}")
    checks.one_of("estimate, surface", surface, tuple(SURFACES))
    a, b = SURFACES[surface]
    value = float(min(1.0, a * strength**b))
    capped = " (at most 1)" if a * strength**b > 1.0 else ""
    steps.append(
        Step(
            f"Surface: {surface}{capped}",
            "k_a = min(1, a × R_m^b)",
            f"min(1, {put_in(a)} × {put_in(strength)}^{put_in(b)})",
            value,
            "",
            f"{_BOOK}, table 6-2" + ("" if group == "steel" else "; derived for steel, taken here as well"),
        )
    )
    return value


def size_factor(loading: str, size: Any, section: str, steps: list[Step]) -> float:
    """k_b by the size of the section."""
    checks.one_of("estimate, loading", loading, tuple(LOADINGS))
    if loading == "axial":
        steps.append(Step("Size: none under axial load", "k_b = 1", "1", 1.0, "", _BOOK))
        return 1.0
    checks.one_of("estimate, section", section, tuple(SECTIONS))
    if size is None:
        raise InputError("estimate, size", "none", "the diameter, such as '32 mm', for bending and torsion")
    diameter = _diameter(size, section, steps)
    if not SMALLEST <= diameter <= LARGEST:
        raise InputError(
            "estimate, size",
            f"a diameter that counts of {number(diameter)} mm",
            f"{SMALLEST:g} to {LARGEST:g} mm",
            "State the factor yourself: own_factors = { size = ... }.",
        )
    a, b = (1.24, -0.107) if diameter <= 51.0 else (1.51, -0.157)
    value = float(a * diameter**b)
    steps.append(
        Step("Size", f"k_b = {a} × d^({b})", f"{a} × {put_in(diameter)}^({b})", value, "", f"{_BOOK}, eq. 6-20")
    )
    return value


def _diameter(size: Any, section: str, steps: list[Step]) -> float:
    """Diameter of the rotating round bar that has as much highly stressed volume, mm."""
    if section == "rectangle":
        if not isinstance(size, tuple | list) or len(size) != 2:
            raise InputError("estimate, size", repr(size), "width and height of the rectangle")
        width, height = (coherent(one, "length", "estimate, size") for one in size)
        value = 0.808 * math.sqrt(width * height)
        text = f"0.808 × ({put_in(width)} mm × {put_in(height)} mm)^0.5"
        steps.append(
            Step("Diameter that counts", "d_e = 0.808 × (b × h)^0.5", text, value, "mm", f"{_BOOK}, table 6-3")
        )
        return value
    if isinstance(size, tuple | list):
        raise InputError(
            "estimate, size", repr(size), "one diameter", 'Width and height go with section = "rectangle".'
        )
    given = coherent(size, "length", "estimate, size")
    if section == "rotating round":
        return given
    value = 0.370 * given
    steps.append(
        Step(
            "Diameter that counts", "d_e = 0.370 × d", f"0.370 × {put_in(given)} mm", value, "mm", f"{_BOOK}, eq. 6-24"
        )
    )
    return value


def load_factor(group: str, loading: str, steps: list[Step]) -> float:
    """k_c by the kind of load."""
    if group == "cast iron" and loading == "torsion":
        raise InputError(
            "estimate, loading", "torsion of cast iron", "bending or axial load", "State own_factors = { load = ... }."
        )
    value = LOADINGS[loading]
    steps.append(Step(f"Loading: {loading}", f"k_c = {value:g}", f"{value:g}", value, "", f"{_BOOK}, eq. 6-26"))
    return value


def temperature_factor(group: str, degrees: float, rule: str, steps: list[Step]) -> float:
    """k_d by the temperature, °C."""
    checks.one_of("estimate, temperature_rule", rule, TEMPERATURE_RULES)
    if group != "steel":
        if not 10.0 <= degrees <= 40.0:
            raise InputError(
                "estimate, temperature",
                f"{degrees:g} °C for {group}",
                "room temperature",
                "The textbook factor is for steel: state own_factors = { temperature = ... }.",
            )
        steps.append(Step("Temperature: room", "k_d = 1", "1", 1.0, ""))
        return 1.0
    low, high = TEMPERATURE_TABLE[0][0], TEMPERATURE_TABLE[-1][0]
    if not low <= degrees <= high:
        raise InputError(
            "estimate, temperature",
            f"{degrees:g} °C",
            f"{low:g} to {high:g} °C",
            "Below, mind brittle fracture; above, creep. Or state own_factors = { temperature = ... }.",
        )
    if rule == "polynomial":
        f = 1.8 * degrees + 32.0
        value = 0.975 + 0.432e-3 * f - 0.115e-5 * f**2 + 0.104e-8 * f**3 - 0.595e-12 * f**4
        t = put_in(f)
        text = f"0.975 + 0.432e-3 × {t} - 0.115e-5 × {t}^2 + 0.104e-8 × {t}^3 - 0.595e-12 × {t}^4"
        formula = "k_d = 0.975 + 0.432e-3 T - 0.115e-5 T² + 0.104e-8 T³ - 0.595e-12 T⁴, T in °F"
        steps.append(Step(f"Temperature: {degrees:g} °C", formula, text, value, "", f"{_BOOK}, eq. 6-27"))
        return value
    (t_0, k_0), (t_1, k_1) = next(pair for pair in itertools.pairwise(TEMPERATURE_TABLE) if degrees <= pair[1][0])
    value = k_0 + (k_1 - k_0) * (degrees - t_0) / (t_1 - t_0)
    text = f"{k_0:g} + ({k_1:g} - {k_0:g}) × ({put_in(degrees)} - {t_0:g}) / ({t_1:g} - {t_0:g})"
    formula = "k_d = k_0 + (k_1 - k_0) × (T - T_0) / (T_1 - T_0)"
    steps.append(Step(f"Temperature: {degrees:g} °C", formula, text, value, "", f"{_BOOK}, table 6-4"))
    return value


def reliability_factor(survival: float, steps: list[Step]) -> float:
    """k_e by the survival probability."""
    share = check_share("estimate, survival_probability", survival)
    z = float(ndtri(share))
    value = 1.0 - 0.08 * z
    steps.append(
        Step(
            f"Reliability: survival probability {share:g}, scatter of the limit 8 %",
            "k_e = 1 - 0.08 × z",
            f"1 - 0.08 × {put_in(z)}",
            value,
            "",
            f"{_BOOK}, eq. 6-29",
        )
    )
    return value


def own_factor(key: str, value: float, steps: list[Step]) -> float:
    """A factor of the user's own."""
    found = checks.positive_number(f"estimate, own_factors, {key}", value, "a factor above 0")
    if not found <= 2.0:
        raise InputError(f"estimate, own_factors, {key}", f"{found:g}", "a factor of 2 at most")
    steps.append(Step(f"Own factor for {key}", "k = own value", put_in(found), found, ""))
    return found


def usual_fraction(group: str, loading: str, strength: float, steps: list[Step]) -> float:
    """Share of the tensile strength at 1000 cycles."""
    if group == "steel" and strength >= 490.0:
        value = float(1.06 - 4.1e-4 * strength + 1.5e-7 * strength**2)
        s = put_in(strength)
        text = f"1.06 - 4.1e-4 × {s} + 1.5e-7 × {s}^2"
        formula = "f = 1.06 - 4.1e-4 × R_m + 1.5e-7 × R_m²"
        steps.append(Step("Share of the strength at 1000 cycles", formula, text, value, "", f"{_BOOK}, fig. 6-18"))
        return value
    value = 0.75 if group != "steel" and loading == "axial" else 0.9
    source = _BOOK if group == "steel" else _OTHER_BOOK
    steps.append(Step("Share of the strength at 1000 cycles", f"f = {value:g}", f"{value:g}", value, "", source))
    return value
