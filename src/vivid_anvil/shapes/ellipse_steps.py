"""Hand calculation of Y of semi-elliptical and embedded cracks at either end (Newman and Raju 1981, 1984)."""

from __future__ import annotations

import math
import re
from typing import Any

from vivid_anvil.shapes.solutions import embedded_crack, surface_crack, toe_branches, toe_magnification
from vivid_anvil.writing.working import Step, put_in

ANGLES = (90.0, 0.0)  # of the deepest point and of the surface point, degrees
SURFACE = (
    "1.13 - 0.09 × x + (0.89 / (0.2 + x) - 0.54) × y^2 + (0.5 - 1 / (0.65 + x) + 14 × (1 - x)^24) × y^4",
    "√(q) × (1 + 0.04 × q) + 0.2 × q^4 × y^2 - 0.11 × q^4 × y^4",
)
EMBEDDED = (
    "1 + 0.05 / (0.11 + x^1.5) × y^2 + 0.29 / (0.23 + x^1.5) × y^4",
    "√(q) + 0.05 / (0.11 + x^1.5) × y^2 + 0.29 / (0.23 + x^1.5) × y^4",
)
MULTIPLIERS = (
    (
        "1 + (-1.22 - 0.12 × x) × y + (0.55 - 1.05 × x^0.75 + 0.47 × x^1.5) × y^2",
        "1 + (-2.11 + 0.77 × q) × y + (0.55 - 0.72 × q^0.75 + 0.14 × q^1.5) × y^2",
    ),
    ("1 - 0.34 × y - 0.11 × x × y", "1 - (0.04 + 0.41 × q) × y + (0.55 - 1.93 × q^0.75 + 1.38 × q^1.5) × y^2"),
)  # by end, then for a <= c and above


def _numbers(formula: str, x: float, y: float) -> str:
    """A formula of x, q = 1 / x and y with their numbers in it."""
    values = {"x": put_in(x), "q": put_in(1.0 / x), "y": put_in(y)}
    return re.sub(r"\b[xqy]\b", lambda symbol: values[symbol[0]], formula)


def _common(x: float, y: float, height: float, unit: str, one: float, shape_factor: float, source: str) -> list[Step]:
    power = "x" if x <= 1.0 else "q"
    ratio = x if x <= 1.0 else 1.0 / x
    rows = [] if x <= 1.0 else [Step("The other aspect", "q = c / a", f"1 / {put_in(x)}", 1.0 / x, "")]
    depth = Step(
        "Relative depth", "y = a / t", f"{put_in(y * height / one)} {unit} / {put_in(height / one)} {unit}", y, ""
    )
    formula = f"Q = 1 + 1.464 × {power}^1.65"
    return [*rows, depth, Step("Shape factor", formula, f"1 + 1.464 × {put_in(ratio)}^1.65", shape_factor, "", source)]


def _width(c: float, width: float, y: float, unit: str, one: float) -> Step:
    secant = math.sqrt(1.0 / math.cos(math.pi * c / width * math.sqrt(y)))
    numbers = f"√(1 / cos(π × {put_in(c / one)} {unit} / {put_in(width / one)} {unit} × √({put_in(y)})))"
    return Step("Width", "f_w = √(1 / cos(π × c / W × √(y)))", numbers, secant, "")


def surface_steps(shape: Any, sizes: tuple[float, float], unit: str, one: float, end: int) -> list[Step]:
    """Steps to Y at an end of a surface crack, the last; lengths in `unit`."""
    a, c = sizes
    x, y, thickness, width = a / c, a / shape.thickness, shape.thickness, shape.plate_width
    above, share = int(x > 1.0), shape.bending_share
    factors = surface_crack(a, c, thickness, 0.5 * width, ANGLES[end])
    secant = _width(c, width, y, unit, one)
    angle = _angle(end, above, x, y)
    polynomial = factors.boundary / secant.value / math.prod(step.value for step in angle)
    steps = [
        *_common(x, y, thickness, unit, one, factors.shape, shape.source),
        Step("Depth polynomial", f"M = {SURFACE[above]}", _numbers(SURFACE[above], x, y), polynomial, ""),
        *angle,
        secant,
    ]
    at = a if end == 0 else shape.toe_depth_at_surface
    axial, bending = _toes(shape, at)
    if shape.attachment_length is not None:
        steps += [_toe_step("tension", axial, at, shape, "axial")]
        steps += [_toe_step("bending", bending, at, shape, "bending")] if share else []
    if share:
        h = MULTIPLIERS[end][above]
        title = "Part of the bending that counts there"
        steps.append(Step(title, f"H = {h}", _numbers(h, x, y), factors.multiplier, ""))
    factor = shape.surface_factor if end == 1 else 1.0
    root = factors.boundary / math.sqrt(factors.shape)
    value = factor * ((1.0 - share) * axial + share * factors.multiplier * bending) * root
    return [*steps, _last(shape, end, value, polynomial, angle, secant, factors, (axial, bending), factor)]


def _last(
    shape: Any,
    end: int,
    value: float,
    polynomial: float,
    angle: list[Step],
    secant: Step,
    factors: Any,
    toes: tuple[float, float],
    factor: float,
) -> Step:
    """Y of all of them; what is not there is left out."""
    share, (axial, bending) = shape.bending_share, toes
    parts, numbers = [], []
    if shape.attachment_length is not None or share:
        if share == 0.0:
            parts, numbers = ["M_k"], [put_in(axial)]
        else:
            parts = ["((1 - β) × M_k + β × H × M_kb)"]
            of_bending = f"{put_in(share)} × {put_in(factors.multiplier)} × {put_in(bending)}"
            numbers = [f"({put_in(1.0 - share)} × {put_in(axial)} + {of_bending})"]
    if factor != 1.0:
        parts, numbers = ["k_s", *parts], [put_in(factor), *numbers]
    parts += ["M", *(step.formula.partition(" ")[0] for step in angle), "f_w / √(Q)"]
    numbers += [put_in(polynomial), *(put_in(step.value) for step in angle)]
    numbers += [f"{put_in(secant.value)} / √({put_in(factors.shape)})"]
    name = shape.end_names[end]
    return Step(
        f"Geometry factor at the {name}", f"Y = {' × '.join(parts)}", " × ".join(numbers), value, "", shape.source
    )


def _angle(end: int, above: int, x: float, y: float) -> list[Step]:
    """Factors of the place along the front: none at the deepest point of a long crack."""
    if end == 0:
        return [Step("Along the front", "f_φ = √(q)", f"√({put_in(1.0 / x)})", math.sqrt(1.0 / x), "")] if above else []
    power = put_in(y)
    g_formula = "g = 1.1 + 0.35 × q × y^2" if above else "g = 1.1 + 0.35 × y^2"
    g_numbers = f"1.1 + 0.35 × {put_in(1.0 / x)} × {power}^2" if above else f"1.1 + 0.35 × {power}^2"
    g = Step("At the surface", g_formula, g_numbers, 1.1 + 0.35 * (1.0 / x if above else 1.0) * y * y, "")
    return [g] if above else [Step("Along the front", "f_φ = √(x)", f"√({put_in(x)})", math.sqrt(x), ""), g]


def _toes(shape: Any, depth: float) -> tuple[float, float]:
    if shape.attachment_length is None:
        return 1.0, 1.0
    rest = (depth, shape.attachment_length, shape.thickness)
    return float(toe_magnification(*rest, "axial")), float(toe_magnification(*rest, "bending"))


def _toe_step(name: str, value: float, depth: float, shape: Any, loading: str) -> Step:
    ratio, place = (shape.attachment_length or 0.0) / shape.thickness, depth / shape.thickness
    limit, near, far = toe_branches(ratio, loading)
    v, w = near if place <= limit else far
    side = "up to" if place <= limit else "above"
    title = f"Weld toe in {name}, at least 1; v and w for L / T = {put_in(ratio)} and z / T {side} {put_in(limit)}"
    numbers = f"max(1, {put_in(v)} × {put_in(place)}^{put_in(w)})"
    formula = "M_k = max(1, v × (z / T)^w)" if loading == "axial" else "M_kb = max(1, v × (z / T)^w)"
    return Step(title, formula, numbers, value, "", "Maddox and Hobbacher 1992, BS 7910")


def embedded_steps(shape: Any, sizes: tuple[float, float], unit: str, one: float, end: int) -> list[Step]:
    """Steps to Y at an end of an embedded crack under tension, the last; the wall is twice the depth of its centre."""
    a, c = sizes
    around = 2.0 * shape.centre
    x, y = a / c, 2.0 * a / around
    above = int(x > 1.0)
    factors = embedded_crack(a, c, around, 0.5 * shape.plate_width, ANGLES[end])
    secant = _width(c, shape.plate_width, y, unit, one)
    angle = []
    if (end == 0) == bool(above):
        formula, ratio = ("f_φ = √(q)", 1.0 / x) if above else ("f_φ = √(x)", x)
        angle.append(Step("Along the front", formula, f"√({put_in(ratio)})", math.sqrt(ratio), ""))
    if end == 1:
        g = 1.0 - y**4 * math.sqrt(max(2.6 - 2.0 * y, 0.0)) / (1.0 + 4.0 * x)
        numbers = f"1 - {put_in(y)}^4 × √(2.6 - 2 × {put_in(y)}) / (1 + 4 × {put_in(x)})"
        angle.append(Step("Near the surfaces", "g = 1 - y^4 × √(2.6 - 2 × y) / (1 + 4 × x)", numbers, g, ""))
    polynomial = factors.boundary / secant.value / math.prod(step.value for step in angle)
    common = _common(x, y, shape.centre, unit, one, factors.shape, shape.source)
    m = Step("Depth polynomial", f"M = {EMBEDDED[above]}", _numbers(EMBEDDED[above], x, y), polynomial, "")
    parts = ["M", *(step.formula.partition(" ")[0] for step in angle), "f_w / √(Q)"]
    numbers = " × ".join(
        [
            put_in(polynomial),
            *(put_in(step.value) for step in angle),
            f"{put_in(secant.value)} / √({put_in(factors.shape)})",
        ]
    )
    title = f"Geometry factor at the {shape.end_names[end]}; t is the depth of its middle"
    last = Step(title, f"Y = {' × '.join(parts)}", numbers, factors.tension, "", shape.source)
    return [*common, m, *angle, secant, last]
