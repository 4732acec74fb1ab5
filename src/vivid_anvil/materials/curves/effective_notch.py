"""Which class holds for an effective notch stress: by metal, radius of the fictitious notch, and stress.

Source: Fricke, W. (2012), IIW guideline for the assessment of weld root fatigue / IIW-2006-09; Sonsino, C. M. (2009).
"""

from __future__ import annotations

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.curves.detail_class import detail_curve
from vivid_anvil.units import coherent, opened

NOTCH_STANDARD = "IIW effective notch"
STRESSES = ("principal", "von Mises")
# Class by metal, radius, mm, and stress.
NOTCH_CLASSES = {
    ("steel", 1.0): (225, 200),
    ("steel", 0.05): (630, 560),
    ("aluminium", 1.0): (71, 63),
    ("aluminium", 0.05): (180, 160),
    ("magnesium", 1.0): (28, 25),
    ("magnesium", 0.05): (71, 63),
}


@opened()
def effective_notch_curve(
    metal: str, radius: float | str, *, stress: str = "principal", loading: str = "variable"
) -> SNCurve:
    """The S-N curve of a weld toe or root rounded with `radius`, "1 mm", or "0.05 mm" for walls below 5 mm.

    `metal` is "steel", "aluminium" or "magnesium", `stress` "principal" or "von Mises", `loading` "variable" or "constant".

    Parameters
    ----------
    metal : str
        "steel", "aluminium" or "magnesium".
    radius : float or str
        Radius of the reference notch, mm: 1 or 0.05.
    stress : str, default "principal"
        Which stress is taken at the notch: "principal" or "von Mises".
    loading : str, default "variable"
        "variable" or "constant" amplitude.

    Returns
    -------
    SNCurve
        The curve, in the range of the notch stress.

    Raises
    ------
    InputError
        For another metal, radius or stress.

    Examples
    --------
    >>> round(float(effective_notch_curve("steel", "1 mm").stress_at(2e6)), 6)
    225.0
    """
    where = "effective notch"
    one_of(inside(where, "metal"), metal, tuple(dict.fromkeys(name for name, _ in NOTCH_CLASSES)))
    one_of(inside(where, "stress"), stress, STRESSES)
    size = coherent(radius, "length", inside(where, "radius"))
    if (metal, size) not in NOTCH_CLASSES:
        raise InputError(
            inside(where, "radius"),
            f"{size:g} mm",
            "1 mm, or 0.05 mm for walls below 5 mm",
            "Model the toe or root with that radius; the class belongs to it.",
        )
    number = NOTCH_CLASSES[metal, size][STRESSES.index(stress)]
    return detail_curve(NOTCH_STANDARD, str(number), loading=loading)
