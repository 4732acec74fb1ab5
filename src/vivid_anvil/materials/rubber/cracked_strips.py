"""Tearing energy of cracks in test pieces of rubber: what a crack gives free as it grows, N/mm (= kJ/m²)."""

from __future__ import annotations

import math

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import one, opened

EDGE_FORMS = ("pi over root", "lindley")
ENERGY = one("stress", at_least=0.0)


@opened(energy=ENERGY, crack=one("length", at_least=0.0), stretch=one(at_least=1.0))
def edge_crack_energy(energy: float, crack: float, stretch: float, *, form: str = "pi over root") -> float:
    """T = 2 k W c of a short edge crack in a strip that is pulled, k = π/√λ (Greensmith 1963), or Lindley's (1972).

    Parameters
    ----------
    energy : float or text with a unit
        Energy density W far from the crack, MPa.
    crack : float or text with a unit
        Length c in the undeformed strip, mm.
    stretch : float
        λ, from 1 on.
    form : str, default "pi over root"
        Of k: "pi over root", or "lindley", (2.95 - 0.08 (λ - 1)) / √λ.

    Returns
    -------
    float
        Tearing energy, N/mm.

    Raises
    ------
    InputError
        For an unknown form, a stretch below 1, and values of another kind, unit or range.

    Examples
    --------
    >>> round(edge_crack_energy("0.6 MPa", "0.5 mm", 1.8), 4)
    1.405
    """
    one_of(inside("edge crack", "form"), form, EDGE_FORMS)
    k = math.pi if form == "pi over root" else 2.95 - 0.08 * (stretch - 1.0)
    return 2.0 * k / math.sqrt(stretch) * energy * crack


@opened(energy=ENERGY, height=one("length", above=0.0))
def planar_strip_energy(energy: float, height: float) -> float:
    """T = W h of a long crack in a wide strip, h its undeformed height (Rivlin and Thomas 1953).

    Parameters
    ----------
    energy : float or text with a unit
        Energy density W in planar tension, ahead of the crack, MPa.
    height : float or text with a unit
        h between the grips, undeformed, mm.

    Returns
    -------
    float
        Tearing energy, N/mm.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> planar_strip_energy("0.6 MPa", "12 mm")
    7.2
    """
    return energy * height


@opened(
    force=one("force", above=0.0),
    thickness=one("length", above=0.0),
    leg_stretch=one(at_least=1.0),
    width=one("length", above=0.0, optional=True),
    leg_energy=one("stress", at_least=0.0, optional=True),
)
def trousers_energy(
    force: float,
    thickness: float,
    *,
    leg_stretch: float = 1.0,
    width: float | None = None,
    leg_energy: float | None = None,
) -> float:
    """T = 2 F λ / t - w W of trousers, λ and W those of the legs; 2 F / t where these hardly stretch (Rivlin and Thomas 1953).

    Parameters
    ----------
    force : float or text with a unit
        F on each leg, N.
    thickness : float or text with a unit
        t, undeformed, mm.
    leg_stretch : float, default 1
        λ of the legs.
    width : float or text with a unit, optional
        w of the whole piece, both legs, mm.
    leg_energy : float or text with a unit, optional
        Energy density W in the legs, MPa.

    Returns
    -------
    float
        Tearing energy, N/mm.

    Raises
    ------
    InputError
        For legs that stretch without their energy and the width, and values of another kind, unit or range.

    Examples
    --------
    >>> trousers_energy("2.4 N", "1.2 mm")
    4.0
    """
    if leg_stretch > 1.0 and (width is None or leg_energy is None):
        raise InputError(
            "trousers", f"legs stretched to {leg_stretch:g}", "their energy density and the width beside it"
        )
    stored = 0.0 if width is None or leg_energy is None else width * leg_energy
    return 2.0 * force * leg_stretch / thickness - stored
