"""Formulas for the ranges of a Gaussian process, by name: from spectral moments to how often each range is expected."""

from __future__ import annotations

from abc import ABC, abstractmethod
from typing import ClassVar, NamedTuple

from vivid_anvil.ground import checks
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity
from vivid_anvil.units import opened

EXPECTED_CYCLES: Choices[type[ExpectedCycles]] = Choices("expected cycles")


class Constant(NamedTuple):
    """One number on the way of a formula: its symbol, how it comes about, and its value."""

    symbol: str
    formula: str
    value: float


class ExpectedCycles(ABC):
    """A formula. It has no values of its own, so the class itself is used; `misses` says what it does not see.

    `one_slope` is for formulas of the damage under an S-N curve of one slope, which has to be stated: they have no ranges of
    their own, and stand as narrow-band ranges at the rate that gives that damage.
    """

    kind: ClassVar[str]
    source: ClassVar[str]
    misses: ClassVar[str] = ""
    one_slope: ClassVar[bool] = False

    @staticmethod
    @abstractmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """Expected ranges a second; `slope` is nan for a formula that does not ask for it."""

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """The numbers on the way, for a hand calculation."""
        return ()


@opened()
def expected_ranges(process: Moments, method: str = "dirlik", *, slope: float | None = None) -> RangeDensity:
    """Ranges a second that a Gaussian process is expected to have, by a formula of `EXPECTED_CYCLES`.

    Parameters
    ----------
    process : Moments
        A PSD, or stated moments.
    method : str, default "dirlik"
        The formula.
    slope : float, optional
        Slope m of the S-N curve, for formulas of one slope only; above 0.

    Returns
    -------
    RangeDensity
        How often a second each range is expected, in the coherent unit of the process.

    Raises
    ------
    InputError
        For an unknown formula, and where it asks for a slope that is missing, or the other way round.

    Examples
    --------
    >>> process = StatedMoments({0: 324.0, 1: 9000.0, 2: 3.0e5, 4: 5.2e8})
    >>> ranges = expected_ranges(process, "dirlik")
    >>> f"{(ranges.moment(3) / ranges.rate) ** (1 / 3):.2f} MPa"
    '48.76 MPa'
    """
    if not isinstance(process, Moments):
        raise InputError("expected ranges, process", shortened(process), "a PSD, or StatedMoments")
    formula = EXPECTED_CYCLES.get(method, "expected ranges, method")
    if formula.one_slope and slope is None:
        raise InputError(
            "expected ranges, slope",
            "no slope",
            f"the slope m of the S-N curve, which {method!r} is a formula for",
            "State it, or take a formula that gives ranges, such as 'dirlik'.",
        )
    if slope is not None and not formula.one_slope:
        raise InputError(
            "expected ranges, slope", f"{slope} with {method!r}", "no slope", "That formula gives ranges for any curve."
        )
    m = float("nan") if slope is None else checks.positive_number("expected ranges, slope", slope)
    return formula.ranges(process, m)
