"""Stress intensity along a crack front of a finite-element model, from a table of contours: what of it can be trusted.

Rows are positions, columns contours from the inside out. The first contour is left out; K is the mean of the others.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Self

import numpy as np

from vivid_anvil.acceptance.fronts.front_findings import front_findings
from vivid_anvil.acceptance.fronts.mixed_mode import MIXED_MODES
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.shapes.solutions import k_from_j
from vivid_anvil.units import POISSON, STRENGTH, UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

ALLOWED = 0.02  # deviation of a contour from the mean
DRIFT = 0.005  # of the mean a contour, in one direction
QUANTITIES = {
    "K_I": "stress intensity",
    "K_II": "stress intensity",
    "K_III": "stress intensity",
    "J": "energy release rate",
    "T": "stress",
}


@dataclass(frozen=True, eq=False, repr=False)
class CrackFront(Result):
    """K along a crack front; `crack_front` and `read_crack_front` make one.

    Parameters
    ----------
    name : str
        What it is of: file and case.
    positions : ndarray, shape (n,)
        Length along the front, mm, or angle, rad.
    angular : bool
        Whether positions are angles.
    contours : mapping of str to ndarray, shape (n, contours)
        By quantity: K_I, K_II, K_III, MPa√mm; J, N/mm; T, MPa. From the inside out.
    youngs_modulus : float
        MPa.
    poissons_ratio : float
        -.
    rule : str
        For mixed mode: one of `MIXED_MODES`.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> rows = {"K_I": [[1010.0, 1052, 1049, 1051, 1050], [1105, 1150, 1152, 1149, 1151]]}
    >>> crack_front([0.0, 4.0], rows).worst
    1
    """

    name: str
    positions: FloatArray
    angular: bool
    contours: Mapping[str, FloatArray]
    youngs_modulus: float = 207000.0
    poissons_ratio: float = 0.3
    rule: str = "energy release rate"

    def mean(self, quantity: str) -> FloatArray:
        """Mean of all contours but the first, shape (n,); zeros where the table has none."""
        rows = self.contours.get(quantity)
        return np.zeros(self.positions.size) if rows is None else np.asarray(rows[:, 1:].mean(axis=1))

    @property
    def k_of_j(self) -> FloatArray | None:
        """K of J in plane strain, MPa√mm; None without J. Contour by contour, and then the mean."""
        return None if "J" not in self.contours else np.asarray(self._k_of_j[:, 1:].mean(axis=1))

    @property
    def _k_of_j(self) -> FloatArray:
        return k_from_j(self.contours["J"], self.youngs_modulus, self.poissons_ratio)

    @property
    def contour_k(self) -> FloatArray:
        """K of every contour, also the first, MPa√mm: K_I, or in its place K of J."""
        rows = self.contours.get("K_I")
        return self._k_of_j if rows is None else rows

    @property
    def _leading(self) -> FloatArray:
        """The contours that scatter is looked for in."""
        return self.contour_k[:, 1:]

    @property
    def k_effective(self) -> FloatArray:
        """Effective K by the rule, MPa√mm; of J where the table has no K."""
        if "K_I" not in self.contours:
            found = self.k_of_j
            assert found is not None
            return found
        one, two, three = (self.mean(key) for key in ("K_I", "K_II", "K_III"))
        return np.asarray(MIXED_MODES[self.rule](one, two, three, self.poissons_ratio))

    @property
    def deviation(self) -> FloatArray:
        """Largest deviation of a contour from the mean, as a share of it, shape (n,)."""
        rows = self._leading
        mean = rows.mean(axis=1)
        return np.asarray(np.abs(rows - mean[:, None]).max(axis=1) / np.maximum(np.abs(mean), 1e-300))

    @property
    def scatters(self) -> Any:
        """Where contours do not agree, shape (n,)."""
        return self.deviation > ALLOWED

    @property
    def drifts(self) -> Any:
        """Where contours rise or fall from each to the next, shape (n,)."""
        steps = np.diff(self._leading, axis=1) / np.maximum(np.abs(self._leading.mean(axis=1)), 1e-300)[:, None]
        if steps.shape[1] < 2:
            return np.zeros(self.positions.size, dtype=bool)
        return np.asarray((steps > DRIFT).all(axis=1) | (steps < -DRIFT).all(axis=1))

    @property
    def ends(self) -> Any:
        """The ends of the front, where contours are doubtful; none of a front of two positions."""
        marked = np.zeros(self.positions.size, dtype=bool)
        if self.positions.size > 2:
            marked[[0, -1]] = True
        return marked

    @property
    def trusted(self) -> Any:
        """Positions that are no ends and whose contours agree, shape (n,)."""
        return ~self.ends & ~self.scatters

    @property
    def worst(self) -> int:
        """The row with the largest effective K, among those that are trusted where there are any."""
        rows = np.flatnonzero(self.trusted)
        among = rows if rows.size else np.arange(self.positions.size)
        return int(among[self.k_effective[among].argmax()])

    def said(self, row: int, units: UnitSystem = "metric") -> str:
        """A position in words."""
        place = float(self.positions[row])
        return f"{number(float(np.degrees(place)))}°" if self.angular else in_unit(place, "length", units)

    @property
    def title(self) -> str:
        """Of which front."""
        return f"Crack front, {self.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Contours that do not agree, drift, lie at ends; closed faces; constraint; mixed mode."""
        return tuple(front_findings(self))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a front."""
        return Table(
            "Crack fronts",
            (
                Column("front", [front.name for front in results]),
                Column("worst at", [front.said(front.worst) for front in results]),
                Column(
                    "largest K", [float(front.k_effective[front.worst]) for front in results], of="stress intensity"
                ),
                Column("positions trusted", [int(front.trusted.sum()) for front in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """How many positions and contours, the worst."""
        many = next(iter(self.contours.values())).shape[1]
        k = in_unit(float(self.k_effective[self.worst]), "stress intensity", units)
        return (
            (
                "Table",
                f"{self.positions.size} positions, {many} contours of {listed(self.contours)}; the first is left out",
            ),
            ("Worst", f"K = {k} at {self.said(self.worst, units)} ({self.rule})"),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a position."""
        of = "angle" if self.angular else "length"
        with_j = self.k_of_j
        columns = (
            Column("position", self.positions, of=of),
            *(
                Column(key, self.mean(key), of="stress intensity")
                for key in ("K_I", "K_II", "K_III")
                if key in self.contours
            ),
            *(() if with_j is None else (Column("K of J", with_j, of="stress intensity"),)),
            *((Column("T", self.mean("T"), of="stress"),) if "T" in self.contours else ()),
            Column("effective K", self.k_effective, of="stress intensity"),
            Column("largest deviation", self.deviation, style="share"),
            Column("remark", [self._remark(i) for i in range(self.positions.size)]),
        )
        return (Table("K along the front", columns, key="front"),)

    def _remark(self, row: int) -> str:
        words = [
            *(["end of the front"] if self.ends[row] else []),
            *(["contours drift"] if self.drifts[row] else ["contours disagree"] if self.scatters[row] else []),
            *(["closed"] if "K_I" in self.contours and self.mean("K_I")[row] < 0.0 else []),
        ]
        return ", ".join(words)

    def __repr__(self) -> str:
        k = in_unit(float(self.k_effective[self.worst]), "stress intensity", "metric")
        return f"<CrackFront {self.name}: {self.positions.size} positions, K = {k} at {self.said(self.worst)}>"


@opened(youngs_modulus=STRENGTH, poissons_ratio=POISSON)
def crack_front(
    positions: Sequence[float] | FloatArray,
    contours: Mapping[str, Any],
    *,
    angular: bool = False,
    name: str = "front",
    youngs_modulus: float = 207000.0,
    poissons_ratio: float = 0.3,
    rule: str = "energy release rate",
) -> CrackFront:
    """A crack front of arrays: contours by quantity, each of shape (positions, contours), from the inside out.

    Parameters
    ----------
    positions : sequence of float
        Length along the front, mm, or angle, rad.
    contours : mapping of str to array
        Of K_I, K_II, K_III, MPa√mm; J, N/mm; T, MPa.
    angular : bool, default False
        Whether positions are angles.
    name : str, default "front"
        What it is of.
    youngs_modulus : float, default 207000.0
        MPa, for K of J.
    poissons_ratio : float, default 0.3
        -.
    rule : str, default "energy release rate"
        For mixed mode: one of `MIXED_MODES`.

    Returns
    -------
    CrackFront
        K along it, what of it can be trusted, the worst position.

    Raises
    ------
    InputError
        For other quantities, fewer than three contours, and shapes that do not fit.

    Examples
    --------
    >>> rows = {"K_I": [[1010.0, 1052, 1049, 1051, 1050], [1105, 1150, 1152, 1149, 1151], [1190, 1248, 1300, 1245, 1249]]}
    >>> crack_front([0.0, 4.0, 8.0], rows).deviation.round(4)
    array([0.0014, 0.0013, 0.0313])
    """
    MIXED_MODES.get(rule, "crack front, rule")
    places = checks.as_numbers("crack front, positions", positions)
    if places.ndim != 1 or not places.size or not np.isfinite(places).all():
        raise InputError("crack front, positions", f"shape {places.shape}", "finite positions, one or more")
    made: dict[str, FloatArray] = {}
    for key, rows in contours.items():
        if key not in QUANTITIES:
            raise InputError("crack front, contours", repr(key), f"some of {listed(QUANTITIES)}")
        values = np.atleast_2d(np.asarray(rows, dtype=np.float64))
        if values.shape[0] != places.size or values.shape[1] < 3 or not np.isfinite(values).all():
            found = f"shape {values.shape} for {places.size} positions"
            raise InputError(f"crack front, {key}", found, "finite values, three contours or more at each position")
        if key == "J" and (values < 0.0).any():
            raise InputError("crack front, J", f"{values.min():g} N/mm", "0 or more")
        made[key] = read_only(np.array(values))
    if "K_I" not in made and "J" not in made:
        raise InputError("crack front, contours", listed(made) or "none", "K_I or J at least")
    return CrackFront(name, read_only(places), angular, made, youngs_modulus, poissons_ratio, rule)
