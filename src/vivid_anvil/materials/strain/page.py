"""What is told of a strain-life curve: constants, amplitudes with their parts at lives, lives at amplitudes."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.units import UnitSystem, in_unit, number
from vivid_anvil.writing.result import Page
from vivid_anvil.writing.table import Column, Table

LIVES = (1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7)


def strain_life_page(curve: StrainLife, amplitudes: ArrayLike | None, units: UnitSystem) -> Page:
    """A curve in full; at these strain amplitudes, else at whole powers of ten of the life."""
    own, made = curve.cyclic, curve.compatible

    def stress(value: float) -> str:
        return in_unit(value, "stress", units)

    survival = "not stated" if curve.survival_probability is None else f"{curve.survival_probability:g}"
    scatter = "not stated" if curve.log_life_std is None else number(curve.log_life_std, 3)
    of_both = f"K' = {stress(own.cyclic_strength_coefficient)}, n' = {number(own.cyclic_hardening_exponent)}"
    compatible = f"{stress(made.cyclic_strength_coefficient)} and {number(made.cyclic_hardening_exponent)}"
    words = (
        (
            "Elastic part",
            f"σ_f' = {stress(curve.fatigue_strength_coefficient)}, b = {number(curve.fatigue_strength_exponent)}",
        ),
        (
            "Plastic part",
            f"ε_f' = {number(curve.fatigue_ductility_coefficient)}, c = {number(curve.fatigue_ductility_exponent)}",
        ),
        ("Young's modulus", stress(curve.youngs_modulus)),
        ("Cyclic curve", f"{of_both}, 0.2 % at {stress(own.proof_stress)}; of the four constants {compatible}"),
        ("Transition", f"{number(curve.transition_life)} cycles, where both parts are equal"),
        ("Survival probability", f"{survival}; standard deviation of log10 life {scatter}"),
        ("Basis", f"{curve.basis}; {curve.source}"),
    )
    return Page(f"Strain-life curve {curve.name}", words, (parts_table([curve], amplitudes),), curve.findings or None)


def parts_table(curves: Sequence[StrainLife], amplitudes: ArrayLike | None = None) -> Table:
    """A row a curve and life: strain amplitude with its parts, and the stress amplitude of the stable loop."""
    rows = []
    for curve in curves:
        if amplitudes is None:
            lives = np.array(LIVES)
        else:
            lives = curve.life(np.asarray(amplitudes, dtype=np.float64))
        rows += [(curve, float(life)) for life in lives.tolist()]
    whole = [float(curve.amplitude(life)) for curve, life in rows]
    columns = (
        Column("curve", [curve.name for curve, _ in rows], only="" if len(curves) > 1 else "file"),
        Column("life [cycles]", [life for _, life in rows], style="number"),
        Column("strain amplitude", whole, of="strain"),
        Column("elastic part", [float(curve.elastic(life)) for curve, life in rows], of="strain"),
        Column("plastic part", [float(curve.plastic(life)) for curve, life in rows], of="strain"),
        Column(
            "stress amplitude",
            [float(curve.cyclic.stress(one)) for (curve, _), one in zip(rows, whole, strict=True)],
            of="stress",
        ),
    )
    return Table("", columns, "strain lives")
