"""What an S-N curve is given as, before it is checked: the fields that its checks and first looks read."""

from __future__ import annotations

from typing import Any, Protocol


class CurveGiven(Protocol):
    """Points of stress, MPa, and life, cycles, with what they mean; see `SNCurve`."""

    @property
    def name(self) -> str:
        """Its name."""

    @property
    def stress(self) -> Any:
        """Range or amplitude."""

    @property
    def points(self) -> Any:
        """Rows of stress, MPa, and life, cycles."""

    @property
    def r_ratio(self) -> Any:
        """R of the tests, "any" or "fixed mean"."""

    @property
    def mean_stress(self) -> float | None:
        """Mean of the tests, MPa, where it was fixed."""

    @property
    def component(self) -> str:
        """Normal or shear."""

    @property
    def basis(self) -> str:
        """Where it comes from."""

    @property
    def interpolation(self) -> str:
        """Between the points."""

    @property
    def above(self) -> Any:
        """Above the first point."""

    @property
    def below(self) -> Any:
        """Below the last point."""

    @property
    def tested_from(self) -> float:
        """Shortest life tested, cycles."""

    @property
    def tested_to(self) -> float:
        """Longest life tested, cycles."""

    @property
    def survival_probability(self) -> float | None:
        """Of the curve."""

    @property
    def log_life_std(self) -> float | None:
        """Standard deviation of log10 life."""

    @property
    def steps(self) -> Any:
        """How it was made."""

    @property
    def remarks(self) -> Any:
        """What to know about it."""
