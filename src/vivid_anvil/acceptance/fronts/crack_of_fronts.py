"""Crack fronts of several sizes as a shape: their K handed on to growth and to the assessment."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from vivid_anvil.acceptance.fronts.crack_front import CrackFront
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes import TableCrack
from vivid_anvil.units import LENGTHS, STRENGTH, number, opened

WHERE = "crack of fronts"


@opened(sizes=LENGTHS, stress=STRENGTH)
def crack_of_fronts(sizes: Sequence[float | str], fronts: Sequence[CrackFront], stress: float | str) -> TableCrack:
    """A crack whose Y = K / (S √(π a)) is that of the worst position of a front at each size, straight between them.

    Parameters
    ----------
    sizes : sequence of float or str
        Of the crack in each model, mm or text, ascending.
    fronts : sequence of CrackFront
        One for each size.
    stress : float or str
        The nominal stress of those models, MPa or text.

    Returns
    -------
    TableCrack
        The shape, for cracks that grow.

    Raises
    ------
    InputError
        For a front without trusted positions or with a closed crack, and sizes that do not ascend.

    Examples
    --------
    >>> two = crack_front([0.0, 4.0], {"K_I": [[350.0, 352, 351, 352], [380, 384, 383, 385]]})
    >>> four = crack_front([0.0, 8.0], {"K_I": [[560.0, 562, 561, 562], [640, 644, 643, 645]]})
    >>> [(size, round(y, 4)) for size, y in crack_of_fronts(["2 mm", "4 mm"], [two, four], "100 MPa").points]
    [(2.0, 1.532), (4.0, 1.8166)]
    """
    rows: list[Any] = []
    given: Any = sizes
    if np.ndim(given) != 1 or len(given) != len(fronts):
        raise InputError(WHERE, f"{np.size(given)} sizes for {len(fronts)} fronts", "a size for each front")
    for size, front in zip(given, fronts, strict=True):
        k = float(front.k_effective[front.worst])
        if not front.trusted.any() and front.positions.size > 2:
            found = f"no position of {front.name} whose contours agree"
            raise InputError(
                inside(WHERE, front.name), found, "one that can be trusted", "Refine the mesh at the front."
            )
        if k <= 0.0:
            found = f"K = {number(k)} MPa√mm"
            raise InputError(inside(WHERE, front.name), found, "an open crack, K above 0")
        rows.append((float(size), k / (float(stress) * math.sqrt(math.pi * float(size)))))
    return TableCrack(rows, source="K along crack fronts of finite-element models")
