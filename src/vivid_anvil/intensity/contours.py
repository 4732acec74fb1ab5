"""Stress intensity from a finite-element contour table: first contour left out, mean of the rest, how far they scatter.

In: K, MPa√mm, or J, N/mm, by position along the front (rows) and contour (columns, inner to outer). Out: one K a position.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.units import POISSON, STRENGTH, many, opened

ALLOWED_SCATTER = 0.02


@dataclass(frozen=True, eq=False)
class ContourMeans:
    """K, MPa√mm, at each position, the largest deviation of a contour from it (share), and whether paths agree."""

    k: FloatArray
    deviation: FloatArray

    @property
    def path_independent(self) -> NDArray[np.bool_]:
        """Whether all contours but the first lie within 2 % of their mean, by position."""
        return self.deviation <= ALLOWED_SCATTER


@opened(table=many("stress intensity"))
def k_of_contours(table: ArrayLike) -> ContourMeans:
    """K of each position from its contours, the first left out. InputError for fewer than two further contours.

    >>> found = k_of_contours([[1010.0, 1052, 1049, 1051, 1050]])
    >>> float(found.k[0]), bool(found.path_independent[0])
    (1050.5, True)
    """
    values = np.atleast_2d(np.asarray(table, dtype=np.float64))
    if values.shape[1] < 3 or not np.isfinite(values).all():
        raise InputError(
            "contour table", f"shape {values.shape}", "finite values, three contours or more at each position"
        )
    rest = values[:, 1:]
    mean = rest.mean(axis=1)
    return ContourMeans(mean, np.abs(rest - mean[:, None]).max(axis=1) / np.abs(mean))


@opened(j=many("energy release rate", at_least=0.0), youngs_modulus=STRENGTH, poissons_ratio=POISSON)
def k_from_j(
    j: ArrayLike, youngs_modulus: float, poissons_ratio: float = 0.3, *, constraint: str = "plane strain"
) -> FloatArray:
    """K = √(J E / (1 - ν²)) in plane strain, √(J E) in plane stress; J in N/mm, E in MPa.

    >>> k_from_j([20.0], 207000.0).round(2)
    array([2132.94])
    """
    if constraint not in ("plane strain", "plane stress"):
        raise InputError("K from J, constraint", repr(constraint), "'plane strain' or 'plane stress'")
    values = np.asarray(j, dtype=np.float64)
    if (values < 0.0).any():
        raise InputError("K from J", f"J = {float(values.min()):g} N/mm", "J of 0 or more")
    stiffness = youngs_modulus / (1.0 - poissons_ratio**2 if constraint == "plane strain" else 1.0)
    return np.sqrt(values * stiffness)
