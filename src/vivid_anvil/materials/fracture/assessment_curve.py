"""Failure assessment curves: the largest fracture ratio K_r at a load ratio L_r = σ_ref / σ_y, one form a file.

A curve of one's own derives from `AssessmentCurve` and is put into `ASSESSMENT_CURVES`.
"""

from __future__ import annotations

import dataclasses
import math
from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, Self

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, finite_samples
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, OptionalCoherent
from vivid_anvil.writing.working import Step, put_in

ASSESSMENT_CURVES: Choices[type[AssessmentCurve]] = Choices("assessment curve")
WHERE = "assessment curve"


@dataclass(frozen=True, kw_only=True)
class AssessmentCurve(ABC):
    """The largest K_r at each L_r up to a cut-off; beyond it 0."""

    yield_strength: Coherent = Coherent("stress", above=0.0)
    ultimate_strength: Coherent = Coherent("stress", above=0.0)
    youngs_modulus: Coherent = Coherent("stress", above=0.0, default=207000.0)
    cut_off: OptionalCoherent = OptionalCoherent("number", above=0.0)
    kind: ClassVar[str]
    formula: ClassVar[str]
    source: ClassVar[str]

    def __post_init__(self) -> None:
        low, high = self.yield_strength, self.ultimate_strength
        if not low <= high < self.youngs_modulus:
            raise InputError(
                inside(WHERE, "strengths"),
                f"yield {low:g}, ultimate {high:g}, E {self.youngs_modulus:g} MPa",
                "yield up to the ultimate strength, which is below E",
                "Are two of them exchanged, or is a unit wrong?",
            )

    @property
    def largest_load_ratio(self) -> float:
        """Where the curve is cut off: the flow stress over yield, (σ_y + σ_u) / (2 σ_y), unless stated."""
        flow = (self.yield_strength + self.ultimate_strength) / (2.0 * self.yield_strength)
        return flow if self.cut_off is None else self.cut_off

    @property
    def hardening(self) -> float:
        """N = 0.3 (1 - σ_y / σ_u), the estimated exponent of strain hardening, -."""
        return 0.3 * (1.0 - self.yield_strength / self.ultimate_strength)

    @abstractmethod
    def height(self, load_ratio: float) -> float:
        """K_r at an L_r from 0 to the cut-off."""

    def allowed(self, load_ratio: float) -> float:
        """K_r at any L_r of 0 or more: 0 beyond the cut-off."""
        return self.height(load_ratio) if load_ratio <= self.largest_load_ratio else 0.0

    def at(self, load_ratio: ArrayLike) -> FloatArray:
        """Largest K_r at each L_r; InputError below 0.

        Parameters
        ----------
        load_ratio : array_like
            L_r, -.

        Returns
        -------
        ndarray
            K_r, -; 0 beyond the cut-off.

        Raises
        ------
        InputError
            For an L_r below 0 or that is no number.
        """
        given = np.asarray(load_ratio, dtype=np.float64)
        ratios = finite_samples(given.ravel(), where=inside(WHERE, "load_ratio"), unit="")
        if (ratios < 0.0).any():
            raise InputError(inside(WHERE, "load_ratio"), f"{ratios.min():g}", "0 or more")
        return np.array([self.allowed(float(one)) for one in ratios]).reshape(given.shape)

    def weaker(self, factor: float) -> Self:
        """The curve of strengths divided by `factor`, the stiffness kept: for a reserve on yield."""
        return dataclasses.replace(
            self, yield_strength=self.yield_strength / factor, ultimate_strength=self.ultimate_strength / factor
        )

    @property
    def kinks(self) -> tuple[float, ...]:
        """Load ratios at which it jumps or bends, below the cut-off."""
        return (1.0,) if self.largest_load_ratio > 1.0 else ()

    @property
    def words(self) -> str:
        """What it is called in a line."""
        return f"{self.kind} curve, to L_r = {self.largest_load_ratio:.4g}"

    @abstractmethod
    def numbers(self, load_ratio: float) -> str:
        """The formula with its numbers at an L_r."""

    def steps(self, load_ratio: float) -> tuple[Step, ...]:
        """Cut-off and K_r at an L_r, to redo by hand."""
        if self.cut_off is None:
            halves = f"({put_in(self.yield_strength)} + {put_in(self.ultimate_strength)}) / (2 × {put_in(self.yield_strength)})"
            formula = "L_r,max = (σ_y + σ_u) / (2 × σ_y)"
        else:
            halves, formula = put_in(self.cut_off), "L_r,max as stated"
        end = Step("Cut-off by the flow stress", formula, halves, self.largest_load_ratio, "")
        if load_ratio > self.largest_load_ratio:
            beyond = Step("Largest K_r", "f = 0 beyond L_r,max", put_in(load_ratio), 0.0, "", self.source)
            return (end, beyond)
        own = Step("Largest K_r", self.formula, self.numbers(load_ratio), self.height(load_ratio), "", self.source)
        return (end, own)


def strain_points(points: Any, youngs_modulus: float, where: str) -> FloatArray:
    """Rows of true stress, MPa, and true strain, -, both ascending; the first on the elastic line or right of it."""
    if isinstance(points, str) or not isinstance(points, Sequence | np.ndarray) or len(points) < 2:
        raise InputError(where, f"{points!r}"[:60], "two rows or more of true stress and true strain")
    rows = np.array(points, dtype=np.float64)
    if rows.ndim != 2 or rows.shape[1] != 2 or not np.isfinite(rows).all() or (rows[:, 0] <= 0.0).any():
        raise InputError(where, f"shape {rows.shape}", "rows of true stress, MPa, above 0, and true strain, -")
    if (np.diff(rows[:, 0]) <= 0.0).any() or (np.diff(rows[:, 1]) <= 0.0).any():
        raise InputError(where, "rows that do not ascend", "ascending stresses and strains")
    short = rows[:, 1] < rows[:, 0] / youngs_modulus * (1.0 - 1e-6)
    if short.any():
        i = int(np.flatnonzero(short)[0])
        raise InputError(
            inside(where, f"row {i + 1}"),
            f"a strain of {rows[i, 1]:.4g} at {rows[i, 0]:g} MPa",
            f"at least the elastic strain, {rows[i, 0] / youngs_modulus:.4g}",
            "Is the strain in per cent, or without its elastic part?",
        )
    return rows


def power_beyond_yield(at_one: float, load_ratio: float, hardening: float) -> float:
    """f(1) L_r^((N - 1) / (2 N)) for L_r above 1; without hardening 0."""
    if hardening <= 0.0:
        return at_one if load_ratio <= 1.0 else 0.0
    return at_one * math.exp((hardening - 1.0) / (2.0 * hardening) * math.log(load_ratio))
