"""Limiting sizes: how deep a flaw of each aspect may be, under one load or several, at one temperature or several."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Self

import numpy as np

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.flaw import Flaw
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem, many, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

ASPECTS = (0.05, 0.075, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8, 1.0)


@dataclass(frozen=True, eq=False)
class LimitingCurve:
    """Limiting sizes of one case: aspects a/c, depths and half lengths, mm; nan where the solution ends before.

    Parameters
    ----------
    case : str
        Which load or temperature.
    aspects : ndarray, shape (n,)
        a/c, -.
    depths : ndarray, shape (n,)
        mm.
    half_lengths : ndarray, shape (n,)
        mm.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> LimitingCurve("proof load", np.array([0.5]), np.array([6.0]), np.array([12.0])).limited.tolist()
    [True]
    """

    case: str
    aspects: FloatArray
    depths: FloatArray
    half_lengths: FloatArray

    @property
    def limited(self) -> Any:
        """Where a limit was met within the solution."""
        return np.isfinite(self.depths)


@dataclass(frozen=True, eq=False, repr=False)
class LimitingSizes(Result):
    """How large a flaw may be; `limiting_sizes` makes one.

    Parameters
    ----------
    flaw : Flaw
        The flaw that is there.
    curves : tuple of LimitingCurve
        One a case.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> own = LimitingCurve("load", np.array([0.5]), np.array([6.0]), np.array([12.0]))
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> LimitingSizes(Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm"), (own,))
    <LimitingSizes of surface flaws: 1 aspect, 1 case>
    """

    flaw: Flaw
    curves: tuple[LimitingCurve, ...]

    @property
    def title(self) -> str:
        """Of which shape."""
        return f"Limiting sizes, {self.flaw.shape.kind}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Where no limit was met."""
        found = []
        for curve in self.curves:
            beyond = curve.aspects[~curve.limited]
            if beyond.size:
                found.append(
                    Finding(
                        "note",
                        "no-limit-in-range",
                        f"{curve.case}: flaws of a/c = {', '.join(f'{one:g}' for one in beyond)} meet no limit before the "
                        "solution of the shape ends.",
                        "There the part has to be seen as broken through, or by another shape.",
                    )
                )
        return tuple(found)

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a case."""
        rows = [(one, curve) for one in results for curve in one.curves]
        return Table(
            "Limiting sizes",
            (
                Column("flaw", [one.flaw.name for one, _ in rows]),
                Column("case", [curve.case for _, curve in rows]),
                Column("smallest limiting depth", [_least(curve) for _, curve in rows], of="length"),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """The flaw itself."""
        return (("Flaw", f"{self.flaw.name}: {self.flaw.said_in(units)}"),)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row an aspect and case."""
        return tuple(
            Table(
                f"Of each aspect, {curve.case}" if len(self.curves) > 1 else "Of each aspect",
                (
                    Column("a/c", curve.aspects, head="a/c", style="number"),
                    Column("depth", _met(curve.depths), of="length", none="no limit"),
                    Column("half length", _met(curve.half_lengths), of="length"),
                ),
                key=f"limiting sizes, {curve.case}",
            )
            for curve in self.curves
        )

    def __repr__(self) -> str:
        n, m = self.curves[0].aspects.size, len(self.curves)
        return f"<LimitingSizes of {self.flaw.shape.kind} flaws: {_many(n, 'aspect')}, {_many(m, 'case')}>"


def _met(sizes: FloatArray) -> list[float | None]:
    """Sizes, None where no limit was met."""
    return [float(size) if math.isfinite(size) else None for size in sizes]


def _many(count: int, what: str) -> str:
    return f"{number(count)} {what}{'' if count == 1 else 's'}"


def _least(curve: LimitingCurve) -> float:
    return float(np.nanmin(curve.depths)) if curve.limited.any() else math.nan


@opened(aspects=many(above=0.0))
def limiting_sizes(
    assessment: FlawAssessment | Mapping[str, FlawAssessment], *, aspects: Sequence[float] = ASPECTS
) -> LimitingSizes:
    """The first depth at which flaws of each aspect a/c meet the curve, as the assessment of one has loads and metal.

    Parameters
    ----------
    assessment : FlawAssessment, or mapping of str to FlawAssessment
        Of the flaw that is there; several, by their names, such as at other loads or temperatures.
    aspects : sequence of float
        a/c, -; of a shape with one size nothing else than its limiting size is found.

    Returns
    -------
    LimitingSizes
        A curve for each; nan where the solution of the shape ends before a limit.

    Raises
    ------
    InputError
        For aspects that are not above 0.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="180 MPa", bending="30 MPa")])
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=1900.0)
    >>> limiting_sizes(assess_flaw(flaw, loads, Metal(material=steel)), aspects=[0.2, 0.5, 1.0]).curves[0].depths.round(4)
    array([10.5167, 15.381 , 19.0881])
    """
    rows = np.atleast_1d(np.asarray(aspects, dtype=np.float64))
    if not rows.size:
        raise InputError("limiting sizes, aspects", "none", "one a/c or more")
    cases = {"load": assessment} if isinstance(assessment, FlawAssessment) else dict(assessment)
    if not cases:
        raise InputError("limiting sizes, assessment", "none", "one or more")
    curves = [_curve(name, one, rows) for name, one in cases.items()]
    return LimitingSizes(next(iter(cases.values())).flaw, tuple(curves))


def _curve(name: str, found: FlawAssessment, aspects: FloatArray) -> LimitingCurve:
    if len(found.sizes) == 1:
        depth = np.array([limit_of(found, found.sizes)])
        return LimitingCurve(name, read_only(np.full(1, np.nan)), read_only(depth), read_only(np.full(1, np.nan)))
    low, high = getattr(found.flaw.shape, "aspects_known", (0.0, 2.0))
    kept = aspects[(aspects >= low) & (aspects <= high)]
    depths = np.array([limit_of(found, (1e-3 * found.sizes[0], 1e-3 * found.sizes[0] / one)) for one in kept])
    return LimitingCurve(name, read_only(kept), read_only(depths), read_only(depths / kept))


def limit_of(found: FlawAssessment, sizes: tuple[float, ...]) -> float:
    """The first size, mm, at which a flaw with the aspect of `sizes` meets the curve; nan where the solution ends before."""
    small = found.of_sizes(sizes)
    factor = small.reserve_on_size.factor
    return math.nan if math.isinf(factor) else factor * sizes[0] / found.partial_factors.size
