"""A ply of long fibres: stiffness in its plane, strengths, expansion, and what repeated stress does to it.

Axis 1 runs along the fibres, axis 2 across them. Stresses s1, s2, t12; shear strain is engineering shear strain. Strengths are
positive numbers, those of compression too.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.plies.energy_life import EnergyLife
from vivid_anvil.materials.plies.life_diagram import LifeDiagram
from vivid_anvil.materials.plies.stiffness_decay import StiffnessDecay
from vivid_anvil.materials.plies.strength_decay import StrengthDecay
from vivid_anvil.units import Coherent, OptionalCoherent, number, sound

STRENGTHS = (
    "tension_along",
    "compression_along",
    "tension_across",
    "compression_across",
    "shear_strength",
)  # X_t, X_c, Y_t, Y_c, S
COMPONENTS = ("s1", "s2", "t12")
BESIDE = {"shear_across": "S_T, of Hashin's criterion", "interlaminar_strength": "between plies, of an indicator only"}
LIVES = ("fibre_life", "across_life", "shear_life")
STRENGTH_DECAYS_OF = ("fibre_strength_decay", "across_strength_decay", "shear_strength_decay")
STIFFNESS_DECAYS_OF = ("fibre_stiffness_decay", "across_stiffness_decay", "shear_stiffness_decay")


@sound
@dataclass(frozen=True, kw_only=True, repr=False)
class Ply:
    """A ply, plane stress, linear elastic.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    modulus_along : float or text with a unit
        Young's modulus along the fibres, E1, MPa.
    modulus_across : float or text with a unit
        Young's modulus across them, E2, MPa.
    shear_modulus : float or text with a unit
        G12, MPa.
    poissons_ratio : float
        ν12: how much it narrows across when pulled along, -.
    tension_along : float or text with a unit, optional
        Strength X_t along the fibres, MPa.
    compression_along : float or text with a unit, optional
        Strength X_c, a positive number, MPa.
    tension_across : float or text with a unit, optional
        Strength Y_t, MPa.
    compression_across : float or text with a unit, optional
        Strength Y_c, a positive number, MPa.
    shear_strength : float or text with a unit, optional
        Strength S in the plane, MPa.
    shear_across : float or text with a unit, optional
        Shear strength S_T across the fibres, MPa, of Hashin's criterion; without it half of Y_c.
    interlaminar_strength : float or text with a unit, optional
        Shear strength between plies, MPa.
    expansion_along : float or text with a unit, default 0
        Thermal expansion along the fibres, 1/K.
    expansion_across : float or text with a unit, default 0
        Thermal expansion across them, 1/K.
    fibre_life : LifeDiagram, optional
        Life under s1.
    across_life : LifeDiagram, optional
        Life under s2.
    shear_life : LifeDiagram, optional
        Life under t12.
    energy_life : EnergyLife, optional
        Life by the strain energy of all three.
    fibre_strength_decay : StrengthDecay, optional
        How the strength along goes down over cycles.
    across_strength_decay : StrengthDecay, optional
        The same across the fibres.
    shear_strength_decay : StrengthDecay, optional
        The same in shear.
    fibre_stiffness_decay : StiffnessDecay, optional
        How the modulus along goes down over cycles.
    across_stiffness_decay : StiffnessDecay, optional
        The same across the fibres.
    shear_stiffness_decay : StiffnessDecay, optional
        The same in shear.
    compression_supported : bool, optional
        Whether compression was tested with the ply held against buckling; None: not known.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For constants that no elastic ply has, a strength that is not above 0, and values of another kind, unit or range.

    Examples
    --------
    >>> carbon = Ply(
    ...     name="carbon", modulus_along="138 GPa", modulus_across="9 GPa", shear_modulus="5.2 GPa", poissons_ratio=0.3
    ... )
    >>> carbon.stiffness.round(1).tolist()
    [[138814.8, 2715.9, 0.0], [2715.9, 9053.1, 0.0], [0.0, 0.0, 5200.0]]
    """

    name: str
    modulus_along: Coherent = Coherent("stress", above=0.0)
    modulus_across: Coherent = Coherent("stress", above=0.0)
    shear_modulus: Coherent = Coherent("stress", above=0.0)
    poissons_ratio: Coherent = Coherent("number")
    tension_along: OptionalCoherent = OptionalCoherent("stress")
    compression_along: OptionalCoherent = OptionalCoherent("stress")
    tension_across: OptionalCoherent = OptionalCoherent("stress")
    compression_across: OptionalCoherent = OptionalCoherent("stress")
    shear_strength: OptionalCoherent = OptionalCoherent("stress")
    shear_across: OptionalCoherent = OptionalCoherent("stress")
    interlaminar_strength: OptionalCoherent = OptionalCoherent("stress")
    expansion_along: Coherent = Coherent("thermal expansion", default=0.0)
    expansion_across: Coherent = Coherent("thermal expansion", default=0.0)
    fibre_life: LifeDiagram | None = None
    across_life: LifeDiagram | None = None
    shear_life: LifeDiagram | None = None
    energy_life: EnergyLife | None = None
    fibre_strength_decay: StrengthDecay | None = None
    across_strength_decay: StrengthDecay | None = None
    shear_strength_decay: StrengthDecay | None = None
    fibre_stiffness_decay: StiffnessDecay | None = None
    across_stiffness_decay: StiffnessDecay | None = None
    shear_stiffness_decay: StiffnessDecay | None = None
    compression_supported: bool | None = None
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(inside("ply", "name"), self.name)
        where = f"ply {self.name}"
        checks.text(inside(where, "source"), self.source)
        largest = math.sqrt(self.modulus_along / self.modulus_across)
        if not abs(self.poissons_ratio) < largest:
            raise InputError(
                inside(where, "poissons_ratio"),
                f"{number(self.poissons_ratio)}, with which the stiffness is not positive definite",
                f"|ν12| below √(E1 / E2) = {number(largest)}",
                "ν12 is the larger of both ratios: pulled along the fibres. Are the moduli exchanged?",
            )
        for key in (*STRENGTHS, *BESIDE):
            value = getattr(self, key)
            if value is not None and not value > 0.0:
                raise InputError(
                    inside(where, key),
                    f"{number(value)} MPa",
                    "a strength above 0 MPa",
                    "All strengths are positive numbers here, those of compression too.",
                )
        kinds = (
            *((key, LifeDiagram, "a life diagram") for key in LIVES),
            ("energy_life", EnergyLife, "an energy life"),
            *((key, StrengthDecay, "a strength decay") for key in STRENGTH_DECAYS_OF),
            *((key, StiffnessDecay, "a stiffness decay") for key in STIFFNESS_DECAYS_OF),
        )
        for key, kind, words in kinds:
            given: Any = getattr(self, key)
            if given is not None and not isinstance(given, kind):
                raise InputError(inside(where, key), repr(given), words)
        if self.compression_supported not in (None, True, False):
            raise InputError(inside(where, "compression_supported"), repr(self.compression_supported), "true or false")

    @cached_property
    def stiffness(self) -> FloatArray:
        """Q in the axes of the ply, MPa, shape (3, 3), of engineering shear strain."""
        return ply_stiffness(self.modulus_along, self.modulus_across, self.shear_modulus, self.poissons_ratio)

    @property
    def expansion(self) -> FloatArray:
        """Thermal strain of 1 K in its axes, shape (3,)."""
        return np.array([self.expansion_along, self.expansion_across, 0.0])

    def needed(self, *keys: str, why: str) -> tuple[float, ...]:
        """Strengths by their keys, MPa; InputError for one that is not stated."""
        for key in keys:
            if getattr(self, key) is None:
                raise InputError(inside(f"ply {self.name}", key), "none", f"a strength: {why} needs it")
        return tuple(getattr(self, key) for key in keys)

    def strengths(self, why: str) -> FloatArray:
        """X_t, X_c, Y_t, Y_c, S, MPa; InputError for one that is not stated."""
        return np.array(self.needed(*STRENGTHS, why=why))

    def __repr__(self) -> str:
        parts = (self.modulus_along, self.modulus_across, self.shear_modulus)
        moduli = ", ".join(number(one / 1000.0) for one in parts)
        return f"<Ply {self.name}: E1, E2, G12 = {moduli} GPa, ν12 = {number(self.poissons_ratio)}>"


def ply_stiffness(along: float, across: float, shear: float, ratio: float) -> FloatArray:
    """Q of moduli, MPa, and ν12: Q11 = E1 / d, Q22 = E2 / d, Q12 = ν12 E2 / d, Q66 = G12, d = 1 - ν12² E2 / E1."""
    d = 1.0 - ratio * ratio * across / along
    return np.array([[along / d, ratio * across / d, 0.0], [ratio * across / d, across / d, 0.0], [0.0, 0.0, shear]])


def turned(stiffness: FloatArray, degrees: ArrayLike) -> FloatArray:
    """A stiffness in the axes x, y of the laminate, of plies whose fibres run at angles, degrees; shape (..., 3, 3)."""
    strains = to_ply(degrees, engineering=True)
    return np.asarray(np.swapaxes(strains, -1, -2) @ stiffness @ strains)


def to_ply(degrees: ArrayLike, *, engineering: bool) -> FloatArray:
    """What makes of xx, yy, xy the components 11, 22, 12 of plies at angles, degrees, shape (..., 3, 3).

    Of strains with engineering shear, or of stresses.
    """
    angle = np.radians(np.asarray(degrees, dtype=np.float64))
    c, s = np.cos(angle), np.sin(angle)
    one, two = (1.0, 2.0) if engineering else (2.0, 1.0)
    rows = [[c * c, s * s, one * s * c], [s * s, c * c, -one * s * c], [-two * s * c, two * s * c, c * c - s * s]]
    return np.moveaxis(np.array(rows), (0, 1), (-2, -1))
