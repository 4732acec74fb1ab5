"""Stress intensity from a finite-element contour table: first contour left out, mean of the rest, how far they scatter.

In: K, MPa√mm, or J, N/mm, by position along the front (rows) and contour (columns, inner to outer). Out: one K a position.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import DIMENSIONS, POISSON, STRENGTH, dimension_of, factor, many, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers

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
    """K of each position from its contours, the first left out; `table`, MPa√mm, shape (positions, contours).

    Raises InputError for fewer than two further contours, and where the first column numbers the rows, as labels are not
    contours: `k_of_contour_frame` tells them by their headings.

    >>> found = k_of_contours([[1010.0, 1052, 1049, 1051, 1050]])
    >>> float(found.k[0]), bool(found.path_independent[0])
    (1050.5, True)
    """
    values = np.atleast_2d(np.asarray(table, dtype=np.float64))
    values = _without_labels(values) if values.ndim == 2 and values.size else values
    if values.ndim != 2 or values.shape[1] < 3 or not np.isfinite(values).all():
        raise InputError(
            "contour table", f"shape {values.shape}", "finite values, three contours or more at each position"
        )
    rest = values[:, 1:]
    mean = rest.mean(axis=1)
    return ContourMeans(mean, np.abs(rest - mean[:, None]).max(axis=1) / np.abs(mean))


def _without_labels(values: FloatArray) -> FloatArray:
    """A plain table; InputError where its first column numbers the rows."""
    rows = np.arange(values.shape[0], dtype=np.float64)
    first = values[:, 0]
    if values.shape[0] > 1 and (np.array_equal(first, rows) or np.array_equal(first, rows + 1.0)):
        raise InputError(
            "contour table, first column",
            f"the numbers {first[0]:g} to {first[-1]:g} of the rows",
            "K of the first contour",
            "Leave out columns of labels.",
        )
    return values


@opened()
def k_of_contour_frame(frame: Any) -> ContourMeans:
    """The same of a data frame: columns headed with a unit of K are contours, others (node, angle, position) are labels.

    Raises InputError for a frame without such columns, and as `k_of_contours`.

    >>> import pandas as pd
    >>> heads = {f"contour {i} [MPa√mm]": [k] for i, k in enumerate((1010.0, 1052.0, 1049.0, 1051.0, 1050.0))}
    >>> float(k_of_contour_frame(pd.DataFrame({"node": [17], **heads})).k[0])
    1050.5
    """
    if not hasattr(frame, "columns"):
        raise InputError(
            "contour table", f"a {type(frame).__name__}", "a data frame with headings", "Or k_of_contours."
        )
    columns = []
    for cell in frame.columns:
        unit = name_and_unit(str(cell))[1]
        if unit and dimension_of(unit, f"contour table, column {cell!r}").name == "stress intensity":
            one = factor(unit, DIMENSIONS["stress intensity"], "contour table")
            columns.append(one * column_numbers(frame[cell], f"contour table, column {cell!r}"))
    if not columns:
        found = ", ".join(map(str, frame.columns))
        raise InputError(
            "contour table", f"the columns {found}", "columns of K with its unit", "Such as 'contour 1 [MPa√m]'."
        )
    return k_of_contours(np.column_stack(columns))


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
