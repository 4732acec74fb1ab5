"""Hand calculation of Y of a semi-elliptical surface crack at its deepest point (Newman and Raju 1981)."""

from __future__ import annotations

import math
from typing import Any

from vivid_anvil.shapes.solutions import surface_crack, toe_branches, toe_magnification
from vivid_anvil.writing.working import Step, put_in


def surface_steps(shape: Any, a: float, c: float, unit: str, one: float) -> list[Step]:
    """Steps to Y at the deepest point, the last, of a surface crack with a <= c; lengths in `unit`."""
    x, y, thickness, width = a / c, a / shape.thickness, shape.thickness, shape.plate_width
    factors = surface_crack(a, c, thickness, 0.5 * width)
    px, py = put_in(x), put_in(y)
    secant = math.sqrt(1.0 / math.cos(math.pi * c / width * math.sqrt(y)))
    polynomial = factors.boundary / secant
    share = shape.bending_share
    axial, bending = (
        (1.0, 1.0)
        if shape.attachment_length is None
        else tuple(
            float(toe_magnification(a, shape.attachment_length, thickness, load)) for load in ("axial", "bending")
        )
    )
    root = factors.boundary / math.sqrt(factors.shape)
    value = ((1.0 - share) * axial + share * factors.multiplier * bending) * root
    steps = [
        Step("Relative depth", "y = a / t", f"{put_in(a / one)} {unit} / {put_in(thickness / one)} {unit}", y, ""),
        Step("Shape factor", "Q = 1 + 1.464 × x^1.65", f"1 + 1.464 × {px}^1.65", factors.shape, "", shape.source),
        Step(
            "Depth polynomial at the deepest point",
            "M = 1.13 - 0.09 × x + (0.89 / (0.2 + x) - 0.54) × y^2 + (0.5 - 1 / (0.65 + x) + 14 × (1 - x)^24) × y^4",
            f"1.13 - 0.09 × {px} + (0.89 / (0.2 + {px}) - 0.54) × {py}^2 "
            f"+ (0.5 - 1 / (0.65 + {px}) + 14 × (1 - {px})^24) × {py}^4",
            polynomial,
            "",
        ),
        Step(
            "Width",
            "f_w = √(1 / cos(π × c / W × √(y)))",
            f"√(1 / cos(π × {put_in(c / one)} {unit} / {put_in(width / one)} {unit} × √({py})))",
            secant,
            "",
        ),
    ]
    if shape.attachment_length is not None:
        steps += [
            _toe_step("tension", axial, a, shape, "axial"),
            *([_toe_step("bending", bending, a, shape, "bending")] if share else []),
        ]
    if share:
        h = f"1 + (-1.22 - 0.12 × {px}) × {py} + (0.55 - 1.05 × {px}^0.75 + 0.47 × {px}^1.5) × {py}^2"
        symbols = "H = 1 + (-1.22 - 0.12 × x) × y + (0.55 - 1.05 × x^0.75 + 0.47 × x^1.5) × y^2"
        steps.append(Step("Part of the bending that counts there", symbols, h, factors.multiplier, ""))
    loads = f"({put_in(1.0 - share)} × {put_in(axial)} + {put_in(share)} × {put_in(factors.multiplier)} × {put_in(bending)})"
    numbers = f"{loads} × {put_in(polynomial)} × {put_in(secant)} / √({put_in(factors.shape)})"
    formula = "Y = ((1 - β) × M_k + β × H × M_kb) × M × f_w / √(Q)"
    return [*steps, Step("Geometry factor at the deepest point", formula, numbers, value, "", shape.source)]


def _toe_step(name: str, value: float, a: float, shape: Any, loading: str) -> Step:
    ratio, place = (shape.attachment_length or 0.0) / shape.thickness, a / shape.thickness
    limit, near, far = toe_branches(ratio, loading)
    v, w = near if place <= limit else far
    side = "up to" if place <= limit else "above"
    title = f"Weld toe in {name}, at least 1; v and w for L / T = {put_in(ratio)} and y {side} {put_in(limit)}"
    numbers = f"max(1, {put_in(v)} × {put_in(place)}^{put_in(w)})"
    return Step(title, "M_k = max(1, v × y^w)", numbers, value, "", "Maddox and Hobbacher 1992, BS 7910")
