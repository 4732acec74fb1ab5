"""Kt of standard shapes: the largest elastic stress over the nominal stress of the section that is left, the net section.

Lengths in mm. Sources: Inglis, C. E. (1913), Trans. Inst. Naval Arch. 55, 219; Pilkey, W. D. and Pilkey, D. F. (2008),
Peterson's stress concentration factors, charts 3.4, 3.10, 3.12, 4.1; DIN 743-2 (2012), 4.2.
"""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.checks import one_of, positive_number
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import LENGTH, opened

LOADS = ("tension", "bending", "torsion")
HOLE_FORMS = ("Peterson", "Howland", "Heywood")
SHOULDER_FORMS = ("Tipton", "Peterson")
# Shoulder by Tipton, Sorem and Rolovic: a + b (D/d)^c + (r/d)^e √((polynomial in (D/d)²) / (another)), and where it was fitted.
_TIPTON = {
    "tension": ((0.493, 0.480, -2.43, -0.48), (3.43, -3.41, 0.0232), (1.0, -8.85, -0.078)),
    "bending": ((0.632, 0.377, -4.4, -0.5), (-0.14, -0.363, 0.503), (1.0, -2.39, 3.368)),
}
TIPTON_RADIUS, TIPTON_DIAMETER = (0.002, 0.3), (1.01, 6.0)

# Shoulder: limits of h / r, then C1 to C4 as factors of 1, √(h/r) and h/r.
_SHOULDER: dict[str, list[tuple[float, float, tuple[tuple[float, float, float], ...]]]] = {
    "tension": [
        (0.1, 2.0, ((0.926, 1.157, -0.099), (0.012, -3.036, 0.961), (-0.302, 3.977, -1.744), (0.365, -2.098, 0.878))),
        (
            2.0,
            20.0,
            ((1.200, 0.860, -0.022), (-1.805, -0.346, -0.038), (2.198, -0.486, 0.165), (-0.593, -0.028, -0.106)),
        ),
    ],
    "bending": [
        (0.1, 2.0, ((0.947, 1.206, -0.131), (0.022, -3.405, 0.915), (0.869, 1.777, -0.555), (-0.810, 0.422, -0.260))),
        (2.0, 20.0, ((1.232, 0.832, -0.008), (-3.813, 0.968, -0.260), (7.423, -4.868, 0.869), (-3.839, 3.070, -0.600))),
    ],
    "torsion": [
        (0.25, 4.0, ((0.905, 0.783, -0.075), (-0.437, -1.969, 0.553), (1.557, 1.073, -0.578), (-1.061, 0.171, 0.086)))
    ],
}
# Round groove: A and B of 1 + 1 / √(A r/t + 2 B r/d (1 + 2 r/d)²).
_GROOVE = {"tension": (0.22, 1.37), "bending": (0.20, 2.75), "torsion": (0.70, 10.30)}


@opened(across=LENGTH, along=LENGTH)
def elliptic_hole(across: float, along: float) -> float:
    """Kt of an elliptic hole in a wide plate, semi-axes `across` and `along` the tension: 1 + 2 a / b (Inglis 1913).

    Parameters
    ----------
    across : float or text with a unit
        Half axis across the stress, mm.
    along : float or text with a unit
        Half axis along the stress, mm.

    Returns
    -------
    float
        Kt on the stress far away, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> elliptic_hole(10.0, 10.0), elliptic_hole(10.0, 2.5)
    (3.0, 9.0)
    """
    a = positive_number("elliptic hole, across", across, "a semi-axis above 0 mm")
    return 1.0 + 2.0 * a / positive_number("elliptic hole, along", along, "a semi-axis above 0 mm")


@opened(diameter=LENGTH, width=LENGTH)
def hole_in_strip(diameter: float, width: float, form: str = "Peterson") -> float:
    """Kt, on the net section, of a round hole in the middle of a strip under tension.

    Peterson's chart 4.1 as Pilkey fits it; Howland, R. C. J. (1930), as a cubic in d / W; Heywood, R. B. (1952), 2 + (1 - d/W)³.
    The first two lie within 1 %.

    Parameters
    ----------
    diameter : float or text with a unit
        Diameter, mm.
    width : float or text with a unit
        Width of the strip, mm.
    form : str, default "Peterson"
        "Peterson", "Howland" or "Heywood".

    Returns
    -------
    float
        Kt on the net section, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(hole_in_strip(10.0, 40.0), 4)
    2.4324
    """
    d = positive_number("hole in a strip, diameter", diameter, "a diameter above 0 mm")
    if not d < positive_number("hole in a strip, width", width, "a width above 0 mm"):
        raise InputError("hole in a strip, width", f"{width:g} mm", f"more than the diameter, {d:g} mm")
    one_of("hole in a strip, form", form, HOLE_FORMS)
    share = d / width
    left = 1.0 - share
    if form == "Howland":
        return 3.00 - 3.13 * share + 3.66 * share**2 - 1.53 * share**3
    if form == "Heywood":
        return 2.0 + left**3
    return 2.0 + 0.284 * left - 0.600 * left**2 + 1.32 * left**3


@opened(larger=LENGTH, smaller=LENGTH, radius=LENGTH)
def shoulder(load: str, larger: float, smaller: float, radius: float, form: str = "Tipton") -> float:
    """Kt, on the smaller section, of a fillet between two diameters of a shaft.

    Tipton, S. M., Sorem, J. R. and Rolovic, R. D. (1996), J. Mech. Des. 118, 321-327, fitted to finite elements; torsion, which
    they do not give, by Peterson's chart 3.12 as Pilkey fits it. The older charts 3.4 and 3.10 (form "Peterson") lie up to 12 %
    lower in tension.

    Parameters
    ----------
    load : str
        "tension", "bending" or "torsion".
    larger : float or text with a unit
        The larger diameter or width, mm.
    smaller : float or text with a unit
        The smaller diameter or width, mm.
    radius : float or text with a unit
        Radius, mm.
    form : str, default "Tipton"
        "Tipton" or "Peterson".

    Returns
    -------
    float
        Kt on the smaller section, -.

    Raises
    ------
    InputError
        Beyond what was fitted: r / d from 0.002 to 0.3 and D / d from 1.01 to 6; by the charts h / r from 0.1 to 20, in torsion
        from 0.25 to 4, with h the height of the shoulder.

    Examples
    --------
    >>> round(shoulder("bending", 60.0, 50.0, 2.5), 3), round(shoulder("bending", 60.0, 50.0, 2.5, form="Peterson"), 3)
    (2.095, 1.956)
    """
    big, small, r = _round("shoulder", load, larger, smaller, radius)
    one_of("shoulder, form", form, SHOULDER_FORMS)
    if form == "Tipton" and load in _TIPTON:
        return _refitted(load, big / small, r / small)
    depth = 0.5 * (big - small)
    ratio = depth / r
    for low, high, table in _SHOULDER[load]:
        if low <= ratio <= high:
            share = 2.0 * depth / big
            factors = np.array(table) @ np.array([1.0, math.sqrt(ratio), ratio])
            return float(factors @ share ** np.arange(4))
    ends = [end for low, high, _ in _SHOULDER[load] for end in (low, high)]
    raise InputError(
        f"shoulder in {load}, height over radius",
        f"{ratio:.4g}",
        f"{min(ends):g} to {max(ends):g}, where the chart ends",
        "Take Kt from a finite-element model.",
    )


def _refitted(load: str, step: float, radius: float) -> float:
    """Of D / d and r / d."""
    for name, value, (low, high) in (("r / d", radius, TIPTON_RADIUS), ("D / d", step, TIPTON_DIAMETER)):
        if not low <= value <= high:
            raise InputError(
                f"shoulder in {load}, {name}",
                f"{value:.4g}",
                f"{low:g} to {high:g}, where it was fitted",
                "Take Kt from a finite-element model.",
            )
    (a, b, c, e), above, below = _TIPTON[load]
    square = step**2
    top, bottom = (x + y * square + z * square**2 for x, y, z in (above, below))
    return float(a + b * step**c + radius**e * math.sqrt(top / bottom))


@opened(larger=LENGTH, smaller=LENGTH, radius=LENGTH)
def round_groove(load: str, larger: float, smaller: float, radius: float) -> float:
    """Kt, on the smaller section, of a round groove in a shaft (DIN 743-2:2012, 4.2.2).

    `load` is one of `LOADS`.

    Parameters
    ----------
    load : str
        "tension", "bending" or "torsion".
    larger : float or text with a unit
        The larger diameter or width, mm.
    smaller : float or text with a unit
        The smaller diameter or width, mm.
    radius : float or text with a unit
        Radius, mm.

    Returns
    -------
    float
        Kt on the smaller section, -.

    Raises
    ------
    InputError
        For a groove whose radius is more than its depth allows: t / r below 0.5.

    Examples
    --------
    >>> round(round_groove("tension", 60.0, 50.0, 2.5), 3)
    2.904
    """
    big, small, r = _round("round groove", load, larger, smaller, radius)
    depth = 0.5 * (big - small)
    if depth < 0.5 * r:
        raise InputError("round groove, depth over radius", f"{depth / r:.4g}", "0.5 or more", "Is the radius right?")
    a, b = _GROOVE[load]
    narrow = r / small
    return 1.0 + 1.0 / math.sqrt(a * r / depth + 2.0 * b * narrow * (1.0 + 2.0 * narrow) ** 2)


@opened(larger=LENGTH, smaller=LENGTH, radius=LENGTH)
def shape_gradient(shape: str, load: str, larger: float, smaller: float, radius: float) -> float:
    """Relative stress gradient, 1/mm, at the root of a "shoulder" or a "round groove" (DIN 743-2:2012, table 2).

    >>> round(shape_gradient("shoulder", "bending", 60.0, 50.0, 2.5), 4)
    1.0402
    """
    one_of("notch, shape", shape, ("shoulder", "round groove"))
    big, small, r = _round(shape, load, larger, smaller, radius)
    if load == "torsion":
        return (1.15 if shape == "shoulder" else 1.0) / r
    shallow = 1.0 / (4.0 * math.sqrt(0.5 * (big - small) / r) + 2.0) if small / big > 0.67 else 0.0
    return (2.3 if shape == "shoulder" else 2.0) * (1.0 + shallow) / r


def _round(what: str, load: str, larger: float, smaller: float, radius: float) -> tuple[float, float, float]:
    one_of(inside(f"{what}", "load"), load, LOADS)
    small = positive_number(inside(f"{what}", "smaller"), smaller, "a diameter above 0 mm")
    r = positive_number(inside(f"{what}", "radius"), radius, "a radius above 0 mm")
    if not positive_number(inside(f"{what}", "larger"), larger) > small:
        raise InputError(inside(f"{what}", "larger"), f"{larger:g} mm", f"more than the smaller diameter, {small:g} mm")
    return float(larger), small, r
