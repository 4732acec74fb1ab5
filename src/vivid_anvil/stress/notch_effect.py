"""Kf, what a notch does in fatigue: from Kt by the notch sensitivity at a radius, or by the gradient of the stress at the root.

Sources: Peterson, R. E. (1959) in Sines and Waisman, Metal fatigue, 293; Neuber, H. (1946), Theory of notch stresses; both as in
Dowling, N. E. (2013), Mechanical behavior of materials, 4th ed., eq. 10.9 to 10.14, Neuber's constant by the cubic in strength of
Budynas, R. G. and Nisbett, J. K. (2011), Shigley's mechanical engineering design, 9th ed., eq. 6-35. Siebel, E. and Stieler, M.
(1955), VDI-Z. 97, 121, as in DIN 743-2:2012, eq. 6.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import one_of, positive_number, real_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import LENGTH, STRENGTH, STRESSES, many, one, opened

SENSITIVITIES = ("Peterson", "Neuber")
PETERSON = 0.0254  # mm, 0.001 in, at 2070 MPa
# Root of Neuber's constant, √mm, as a polynomial of the ultimate strength in MPa; and to which strength it was fitted.
NEUBER = {
    "axial or bending": ((1.24, -2.25e-3, 1.60e-6, -4.11e-10), 1700.0),
    "torsion": ((0.958, -1.83e-3, 1.43e-6, -4.11e-10), 1500.0),
}
LEAST_NEUBER = 340.0
GRADIENT_SURFACES = ("as it is", "case-hardened")


@dataclass(frozen=True)
class NotchEffect:
    """Kt, Kf, and the notch sensitivity q = (Kf - 1) / (Kt - 1)."""

    kt: float
    kf: float

    @property
    def sensitivity(self) -> float:
        """q, from 0 (no notch is felt) to 1 (Kf is Kt); 1 for Kt = 1."""
        return (self.kf - 1.0) / (self.kt - 1.0) if self.kt > 1.0 else 1.0


@opened(kt=one(), radius=LENGTH, ultimate_strength=STRENGTH)
def notch_effect_by_radius(
    kt: float, radius: float, ultimate_strength: float, rule: str = "Peterson", load: str = "axial or bending"
) -> NotchEffect:
    """Kf = 1 + q (Kt - 1) of a steel; `radius` in mm, `ultimate_strength` in MPa, `rule` one of `SENSITIVITIES`.

    Peterson: q = 1 / (1 + α / r), α = 0.0254 mm (2070 MPa / Su)^1.8, times 0.6 in torsion; Su of 550 MPa or more. Neuber: q = 1 /
    (1 + √a / √r), √a a cubic in Su of its own for torsion; Su from 340 to 1700 MPa, in torsion to 1500 MPa.

    Parameters
    ----------
    kt : float
        Stress concentration factor, -.
    radius : float or text with a unit
        Radius, mm.
    ultimate_strength : float or text with a unit
        Tensile strength, MPa.
    rule : str, default "Peterson"
        Which formula: one of `SENSITIVITIES`.
    load : str, default "axial or bending"
        How the part is loaded.

    Returns
    -------
    NotchEffect
        Kf with its steps.

    Raises
    ------
    InputError
        Beyond these strengths.

    Examples
    --------
    >>> effect = notch_effect_by_radius(2.5, 2.0, 690.0)
    >>> round(effect.sensitivity, 4), round(effect.kf, 4)
    (0.916, 2.374)
    """
    one_of("notch effect, rule", rule, SENSITIVITIES)
    one_of("notch effect, load", load, ("axial or bending", "torsion"))
    k, r = _kt(kt), positive_number("notch effect, radius", radius, "a radius above 0 mm")
    strength = positive_number("notch effect, ultimate_strength", ultimate_strength, "a strength above 0 MPa")
    if rule == "Peterson":
        if strength < 550.0:
            raise InputError(
                "notch effect, ultimate_strength", f"{strength:g} MPa", "550 MPa or more for Peterson's rule"
            )
        size = PETERSON * (2070.0 / strength) ** 1.8 * (0.6 if load == "torsion" else 1.0)
        q = 1.0 / (1.0 + size / r)
    else:
        powers, most = NEUBER[load]
        if not LEAST_NEUBER <= strength <= most:
            expected = f"{LEAST_NEUBER:g} to {most:g} MPa for Neuber's rule in {load}"
            raise InputError("notch effect, ultimate_strength", f"{strength:g} MPa", expected)
        q = 1.0 / (1.0 + float(np.polynomial.polynomial.polyval(strength, powers)) / math.sqrt(r))
    return NotchEffect(k, 1.0 + q * (k - 1.0))


@opened(kt=one(), gradient=one("gradient", at_least=0.0), yield_strength=STRENGTH)
def notch_effect_by_gradient(
    kt: float, gradient: float, yield_strength: float, surface: str = "as it is"
) -> NotchEffect:
    """Kf = Kt / n of a steel, n = 1 + √(G mm) 10^-(0.33 + Re / 712 MPa); `gradient` G in 1/mm, `yield_strength` in MPa.

    With a case-hardened surface n = 1 + √(G mm) 10^-0.7.

    Kf is never below 1. G is that of `shape_gradient`, or `relative_gradient` of a finite-element result.

    Parameters
    ----------
    kt : float
        Stress concentration factor, -.
    gradient : float or text with a unit
        Related stress gradient, 1/mm.
    yield_strength : float or text with a unit
        Yield strength or 0.2 % proof strength, MPa.
    surface : str, default "as it is"
        One of `GRADIENT_SURFACES`.

    Returns
    -------
    NotchEffect
        Kf with its steps.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(notch_effect_by_gradient(2.5, 1.0, 355.0).kf, 4)
    2.177
    """
    k = _kt(kt)
    steep = real_number("notch effect, gradient", gradient)
    if not 0.0 <= steep < math.inf:
        raise InputError("notch effect, gradient", f"{steep:g} 1/mm", "a gradient of 0 or more")
    strength = positive_number("notch effect, yield_strength", yield_strength, "a strength above 0 MPa")
    one_of("notch effect, surface", surface, GRADIENT_SURFACES)
    power = 0.7 if surface == "case-hardened" else 0.33 + strength / 712.0
    support = 1.0 + math.sqrt(steep) * 10.0**-power
    return NotchEffect(k, max(k / support, 1.0))


@opened(kt=one(), gradient=one("gradient", at_least=0.0), slip_length=LENGTH)
def notch_effect_by_slip(kt: float, gradient: float, slip_length: float) -> NotchEffect:
    """Kf = Kt / (1 + √(s_g G)) with the length s_g over which a grain slips, mm; Kf is never below 1 (Siebel and Stieler 1955).

    Parameters
    ----------
    kt : float
        Stress concentration factor, -.
    gradient : float or text with a unit
        Related stress gradient G, 1/mm.
    slip_length : float or text with a unit
        s_g, mm.

    Returns
    -------
    NotchEffect
        Kf with its steps.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(notch_effect_by_slip(2.3, 1.4, 0.08).kf, 4)
    1.7233
    """
    k = _kt(kt)
    return NotchEffect(k, max(k / (1.0 + math.sqrt(slip_length * gradient)), 1.0))


@opened(depths=many("length"), stresses=STRESSES)
def relative_gradient(depths: ArrayLike, stresses: ArrayLike) -> float:
    """-(dσ/dx) / σ at the surface, 1/mm, by the parabola through the first three points; `depths` in mm, the first 0.

    Raises InputError for fewer points, depths that do not start at 0 and rise, and a stress of 0 at the surface.

    >>> round(relative_gradient([0.0, 0.5, 1.0], [300.0, 240.0, 200.0]), 6)
    0.466667
    """
    x, s = np.asarray(depths, dtype=np.float64), np.asarray(stresses, dtype=np.float64)
    if x.ndim != 1 or x.size < 3 or x.shape != s.shape or x[0] != 0.0 or not (np.diff(x) > 0.0).all():
        raise InputError("relative gradient, depths", f"{x.tolist()}", "three or more that start at 0 and rise")
    if s[0] == 0.0:
        raise InputError("relative gradient, stresses", "0 MPa at the surface", "the notch stress")
    slope = float(np.polynomial.Polynomial.fit(x[:3], s[:3], 2).deriv()(0.0))
    return -slope / float(s[0])


def _kt(kt: float) -> float:
    value = positive_number("notch effect, kt", kt, "a factor Kt of at least 1")
    if not 1.0 <= value < math.inf:
        raise InputError("notch effect, kt", f"{value:g}", "a factor Kt of at least 1", "Is it on the net section?")
    return value
