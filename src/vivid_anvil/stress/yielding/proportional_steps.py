"""The rule for components in step by hand, where the path is largest: first loading, from the elastic to the local tensor."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.yielding.local_tensors import Yielding, in_surface, line_of, principals
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

HOFFMANN = "Hoffmann and Seeger 1989"
TITLE = "Where the path is largest, at first loading"


def largest_steps(how: Yielding, elastic: FloatArray, surface_normal: FloatArray, units: UnitSystem) -> list[Step]:
    """From the elastic stresses in the surface, where they are largest, to local principal stresses and strains there."""
    _, plane, _ = in_surface(elastic, surface_normal)
    line, drive = line_of(plane)
    largest = float(np.abs(drive).max())
    if largest == 0.0:
        return []
    unit = display_unit("stress", units)

    def told(value: float) -> str:
        return put_in(float(shown(value, "stress", units)))

    def stress(title: str, formula: str, numbers: str, value: float, source: str = "") -> Step:
        return Step(f"{TITLE}: {title}", formula, numbers, float(shown(value, "stress", units)), unit, source)

    def plain(title: str, formula: str, numbers: str, value: float, source: str = "") -> Step:
        return Step(f"{TITLE}: {title}", formula, numbers, value, "", source)

    x, y, t = (largest * float(line[i]) for i in (0, 1, 3))
    first, second, _ = principals(line)
    one, two = first * largest, second * largest
    sign = "+" if one >= two else "-"
    middle, half = f"({told(x)} {unit} + {told(y)} {unit}) / 2", f"({told(x)} {unit} - {told(y)} {unit}) / 2"
    radius = f"√(({half})^2 + ({told(t)} {unit})^2)"
    other = "-" if sign == "+" else "+"
    own, strain = (float(each[0]) for each in NOTCH_RULES[how.notch_rule].local(how.cyclic, np.array([largest]), None))
    sides = NOTCH_RULES[how.notch_rule].sides(
        how.cyclic, largest, own, None, lambda value: float(shown(value, "stress", units))
    )
    kind = unit if sides.of == "stress" else ""
    modulus, nu, curve = how.cyclic.youngs_modulus, how.poissons_ratio, how.cyclic
    local_nu = 0.5 - (0.5 - nu) * own / (modulus * strain)
    e, k = told(modulus), told(curve.cyclic_strength_coefficient)
    q, p, n = put_in(strain), put_in(local_nu), put_in(curve.cyclic_hardening_exponent)
    steps = [
        stress("first principal stress in the surface", f"s_1 = m {sign} r", f"{middle} {sign} {radius}", one),
        stress("second principal stress in the surface", f"s_2 = m {other} r", f"{middle} {other} {radius}", two),
        stress(
            "elastic equivalent stress",
            "S_q = √(s_1^2 - s_1 × s_2 + s_2^2)",
            f"√(({told(one)} {unit})^2 - ({told(one)} {unit}) × ({told(two)} {unit}) + ({told(two)} {unit})^2)",
            largest,
            "von Mises 1913",
        ),
        Step(f"{TITLE}: left side of the notch rule at S_q", *sides.given, kind),
        Step(f"{TITLE}: the same right of it, with σ_q = {told(own)} {unit} that solves it", *sides.found, kind),
        plain(
            "local equivalent strain",
            "ε_q = σ_q / E + (σ_q / K')^(1 / n')",
            f"{told(own)} {unit} / {e} {unit} + ({told(own)} {unit} / {k} {unit})^(1 / {n})",
            strain,
            "Ramberg and Osgood 1943",
        ),
        plain(
            "Poisson's ratio of both parts of the strain",
            "ν' = 0.5 - (0.5 - ν) × σ_q / (E × ε_q)",
            f"0.5 - (0.5 - {put_in(nu)}) × {told(own)} {unit} / ({e} {unit} × {q})",
            local_nu,
            HOFFMANN,
        ),
    ]
    if how.transverse == "strain ratio":
        ratio = (two - nu * one) / (one - nu * two)
        phi = (ratio + local_nu) / (1.0 + local_nu * ratio)
        a, b = f"({told(one)} {unit})", f"({told(two)} {unit})"
        numbers = f"({b} - {put_in(nu)} × {a}) / ({a} - {put_in(nu)} × {b})"
        steps += [
            plain("ratio of elastic principal strains", "a = (s_2 - ν × s_1) / (s_1 - ν × s_2)", numbers, ratio),
            plain(
                "ratio of local principal stresses",
                "φ = (a + ν') / (1 + ν' × a)",
                f"({put_in(ratio)} + {p}) / (1 + {p} × {put_in(ratio)})",
                phi,
                HOFFMANN,
            ),
        ]
    else:
        phi = two / one
        steps.append(
            plain(
                "ratio of principal stresses, held", "φ = s_2 / s_1", f"{told(two)} {unit} / ({told(one)} {unit})", phi
            )
        )
    root, f = math.sqrt(1.0 - phi + phi**2), put_in(phi)
    below = f"√(1 - ({f}) + ({f})^2)"
    steps += [
        stress(
            "local first principal stress", "σ_1 = σ_q / √(1 - φ + φ^2)", f"{told(own)} {unit} / {below}", own / root
        ),
        plain(
            "local first principal strain",
            "ε_1 = ε_q × (1 - ν' × φ) / √(1 - φ + φ^2)",
            f"{q} × (1 - {p} × ({f})) / {below}",
            strain * (1.0 - local_nu * phi) / root,
            HOFFMANN,
        ),
        plain(
            "local second principal strain",
            "ε_2 = ε_q × (φ - ν') / √(1 - φ + φ^2)",
            f"{q} × (({f}) - {p}) / {below}",
            strain * (phi - local_nu) / root,
            HOFFMANN,
        ),
    ]
    return steps
