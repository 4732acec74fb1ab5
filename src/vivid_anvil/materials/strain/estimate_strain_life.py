"""Strain-life curves estimated from strength or hardness, each by the formulas of its source and marked as an estimate."""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.units import STRENGTH, number, one, opened

MODULI = {"steel": 206_000.0, "aluminium": 70_000.0, "titanium": 110_000.0}  # MPa, where none is given
MODULUS = one("stress", above=0.0, optional=True)
FORMS = ("original", "modified")
DUCTILE = 0.003  # strength over E up to which steels keep their full ductility in the uniform material law
# Tensile strengths, MPa, of the alloys that such estimates rest on or were compared with: steels of Roessle and Fatemi 2000,
# the range of wrought alloys else.
STRENGTHS = {"steel": (345.0, 2585.0), "aluminium": (90.0, 700.0), "titanium": (240.0, 1400.0)}
HARDNESSES = (150.0, 700.0)  # HB for which the hardness method was fitted


@opened(tensile_strength=STRENGTH, youngs_modulus=MODULUS)
def uniform_material_law(
    tensile_strength: float, *, group: str = "steel", youngs_modulus: float | None = None, name: str = ""
) -> StrainLife:
    """The uniform material law (Bäumel, A. and Seeger, T. 1990, Materials data for cyclic loading, suppl. 1).

    Parameters
    ----------
    tensile_strength : float or text with a unit
        Ultimate tensile strength Rm, MPa.
    group : str, default "steel"
        "steel" (unalloyed and low-alloy), "aluminium" or "titanium".
    youngs_modulus : float or text with a unit, optional
        E, MPa; by default that of the group.
    name : str, optional
        Of the curve; by default what it is.

    Returns
    -------
    StrainLife
        The estimated curve.

    Raises
    ------
    InputError
        For another group, a strength so high that no ductility is left, and values of another kind, unit or range.

    Examples
    --------
    >>> curve = uniform_material_law("520 MPa")
    >>> curve.fatigue_strength_coefficient, curve.fatigue_ductility_coefficient, round(curve.transition_life)
    (780.0, 0.59, 14011)
    """
    modulus = _modulus(group, youngs_modulus, tuple(MODULI), "uniform material law")
    if group == "steel":
        ductility = tensile_strength / modulus
        psi = 1.0 if ductility <= DUCTILE else 1.375 - 125.0 * ductility
        if psi <= 0.0:
            raise InputError(
                "uniform material law, tensile_strength",
                f"{tensile_strength:g} MPa",
                f"a steel below {0.011 * modulus:.0f} MPa",
                "Is a unit wrong?",
            )
        constants = (1.5 * tensile_strength, -0.087, 0.59 * psi, -0.58, 1.65 * tensile_strength, 0.15)
    else:
        constants = (1.67 * tensile_strength, -0.095, 0.35, -0.69, 1.61 * tensile_strength, 0.11)
    said = f"uniform material law, {group} of {number(tensile_strength)} MPa"
    return _estimated(constants, modulus, name, said, "Bäumel and Seeger 1990", _outside(tensile_strength, group))


@opened(tensile_strength=STRENGTH, youngs_modulus=MODULUS)
def medians_estimate(
    tensile_strength: float, *, group: str = "steel", youngs_modulus: float | None = None, name: str = ""
) -> StrainLife:
    """The medians method (Meggiolaro, M. A. and Castro, J. T. P. 2004, Int. J. Fatigue 26, 463-476).

    Parameters
    ----------
    tensile_strength : float or text with a unit
        Ultimate tensile strength, MPa.
    group : str, default "steel"
        "steel" or "aluminium".
    youngs_modulus : float or text with a unit, optional
        E, MPa; by default that of the group.
    name : str, optional
        Of the curve; by default what it is.

    Returns
    -------
    StrainLife
        The estimated curve.

    Raises
    ------
    InputError
        For another group, and values of another kind, unit or range.

    Examples
    --------
    >>> medians_estimate("470 MPa", group="aluminium").fatigue_strength_coefficient.__round__()
    893
    """
    modulus = _modulus(group, youngs_modulus, ("steel", "aluminium"), "medians method")
    rows = {"steel": (1.5, -0.09, 0.45, -0.59), "aluminium": (1.9, -0.11, 0.28, -0.66)}
    times, b, ductility, c = rows[group]
    constants = (times * tensile_strength, b, ductility, c)
    said = f"medians, {group} of {number(tensile_strength)} MPa"
    return _estimated(constants, modulus, name, said, "Meggiolaro and Castro 2004", _outside(tensile_strength, group))


@opened(brinell_hardness=one(above=0.0), youngs_modulus=MODULUS)
def hardness_estimate(brinell_hardness: float, *, youngs_modulus: float | None = None, name: str = "") -> StrainLife:
    """The hardness method for steels (Roessle, M. L. and Fatemi, A. 2000, Int. J. Fatigue 22, 495-511).

    Parameters
    ----------
    brinell_hardness : float
        HB, from 150 to 700.
    youngs_modulus : float or text with a unit, optional
        E, MPa; by default that of steel.
    name : str, optional
        Of the curve; by default what it is.

    Returns
    -------
    StrainLife
        The estimated curve.

    Raises
    ------
    InputError
        For a hardness outside the range that it was fitted to, and values of another kind, unit or range.

    Examples
    --------
    >>> curve = hardness_estimate(180)
    >>> curve.fatigue_strength_coefficient, round(curve.fatigue_ductility_coefficient, 4)
    (990.0, 0.552)
    """
    low, high = HARDNESSES
    if not low <= brinell_hardness <= high:
        raise InputError(
            "hardness method, brinell_hardness",
            f"{brinell_hardness:g} HB",
            f"{low:g} to {high:g} HB, that it was fitted to",
        )
    modulus = _modulus("steel", youngs_modulus, ("steel",), "hardness method")
    ductility = (0.32 * brinell_hardness**2 - 487.0 * brinell_hardness + 191_000.0) / modulus
    constants = (4.25 * brinell_hardness + 225.0, -0.09, ductility, -0.56)
    return _estimated(
        constants, modulus, name, f"hardness method, {number(brinell_hardness)} HB", "Roessle and Fatemi 2000"
    )


@opened(
    tensile_strength=STRENGTH,
    true_fracture_strain=one("strain", above=0.0),
    youngs_modulus=one("stress", above=0.0, optional=True),
)
def universal_slopes(
    tensile_strength: float,
    *,
    true_fracture_strain: float,
    form: str = "original",
    youngs_modulus: float | None = None,
    name: str = "",
) -> StrainLife:
    """Universal slopes (Manson, S. S. 1965, Exp. Mech. 5; modified: Muralidharan and Manson 1988, J. Eng. Mater. 110).

    Parameters
    ----------
    tensile_strength : float or text with a unit
        Ultimate tensile strength, MPa.
    true_fracture_strain : float or text with a unit
        ln(1 / (1 - Z)) of the reduction of area Z, -.
    form : str, default "original"
        "original" or "modified".
    youngs_modulus : float or text with a unit, optional
        E, MPa; by default that of steel.
    name : str, optional
        Of the curve; by default what it is.

    Returns
    -------
    StrainLife
        The estimated curve.

    Raises
    ------
    InputError
        For another form, and values of another kind, unit or range.

    Examples
    --------
    >>> round(universal_slopes("980 MPa", true_fracture_strain=0.85).fatigue_strength_coefficient, 1)
    1863.8
    """
    one_of(inside("universal slopes", "form"), form, FORMS)
    modulus = _modulus("steel", youngs_modulus, ("steel",), "universal slopes")
    ratio = tensile_strength / modulus
    # Both are stated for the strain range over N; here amplitude over 2N: half of it, times 2 to the exponent.
    if form == "original":
        b, c = -0.12, -0.6
        elastic, plastic = 3.5 * ratio, true_fracture_strain**0.6
    else:
        b, c = -0.09, -0.56
        elastic, plastic = 1.17 * ratio**0.832, 0.0266 * true_fracture_strain**0.155 * ratio**-0.53
    constants = (0.5 * elastic * 2.0**-b * modulus, b, 0.5 * plastic * 2.0**-c, c)
    said = f"universal slopes, {form}, {number(tensile_strength)} MPa"
    source = "Manson 1965" if form == "original" else "Muralidharan and Manson 1988"
    return _estimated(constants, modulus, name, said, source, _outside(tensile_strength, "steel"))


def _modulus(group: str, given: float | None, groups: tuple[str, ...], where: str) -> float:
    one_of(inside(where, "group"), group, groups)
    return MODULI[group] if given is None else given


def _outside(tensile_strength: float, group: str) -> str:
    """What to say of a strength that the alloys of a group do not have; empty where they have it."""
    low, high = STRENGTHS[group]
    if low <= tensile_strength <= high:
        return ""
    return f"a tensile strength of {number(tensile_strength)} MPa; {group}s behind such estimates have {low:g} to {high:g} MPa"


def _estimated(
    constants: tuple[float, ...], modulus: float, name: str, said: str, source: str, outside: str = ""
) -> StrainLife:
    strength, b, ductility, c, *cyclic = constants
    own: dict[str, Any] = {}
    if cyclic:
        own = {"cyclic_strength_coefficient": cyclic[0], "cyclic_hardening_exponent": cyclic[1]}
    return StrainLife(
        name=name or said,
        youngs_modulus=modulus,
        fatigue_strength_coefficient=strength,
        fatigue_strength_exponent=b,
        fatigue_ductility_coefficient=ductility,
        fatigue_ductility_exponent=c,
        basis="estimate",
        source=source,
        outside_data=outside,
        **own,
    )
