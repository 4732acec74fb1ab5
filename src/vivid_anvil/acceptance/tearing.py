"""Ductile tearing: how much load a flaw carries while it tears, by a resistance curve."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Self

import numpy as np

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.reserves import on_load
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.fracture import ResistanceCurve
from vivid_anvil.units import UnitSystem, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

LOOKS = 41


@dataclass(frozen=True, eq=False, repr=False)
class Tearing(Result):
    """Reserve on load at each amount of stable tearing; `tearing` makes one.

    Parameters
    ----------
    name : str
        The flaw.
    torn : ndarray, shape (n,)
        Tearing Δa at every end, mm.
    toughness : ndarray, shape (n,)
        K of the resistance curve there, MPa√mm.
    factor : ndarray, shape (n,)
        Reserve on load of the flaw with its sizes larger by Δa, -.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> Tearing("A1", np.array([0.2, 1.0]), np.array([3000.0, 5000.0]), np.array([1.4, 1.6]))
    <Tearing of A1: reserve on load 1.4 at the initiation, 1.6 at most>
    """

    name: str
    torn: FloatArray
    toughness: FloatArray
    factor: FloatArray

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"Tearing of flaw {self.name}"

    @property
    def largest(self) -> float:
        """The largest reserve on load, where tearing gets unstable."""
        return float(self.factor.max())

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Where the curve ends before instability."""
        if int(self.factor.argmax()) < self.factor.size - 1:
            return ()
        return (
            Finding(
                "note",
                "resistance-curve-ends",
                f"The reserve on load still rises where the resistance curve ends, at {number(float(self.torn[-1]))} mm.",
                "Instability comes later: the largest factor is on the safe side.",
            ),
        )

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        return Table(
            "Tearing",
            (
                Column("flaw", [one.name for one in results]),
                Column("reserve on load at initiation", [float(one.factor[0]) for one in results]),
                Column("reserve on load at instability", [one.largest for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """Initiation and instability."""
        at = int(self.factor.argmax())
        return (
            ("Initiation", f"reserve on load {number(float(self.factor[0]))} at {number(float(self.torn[0]))} mm"),
            ("Instability", f"reserve on load {number(self.largest)} at {number(float(self.torn[at]))} mm"),
        )

    def tables(self, units: object = "metric") -> tuple[Table, ...]:
        """A row an amount of tearing."""
        columns = (
            Column("tearing", self.torn, of="length"),
            Column("toughness", self.toughness, of="stress intensity"),
            Column("reserve on load", self.factor, style="number"),
        )
        return (Table("Reserve on load while it tears", columns, key="tearing"),)

    def __repr__(self) -> str:
        return (
            f"<Tearing of {self.name}: reserve on load {number(float(self.factor[0]))} at the initiation, "
            f"{number(self.largest)} at most>"
        )


@opened()
def tearing(found: FlawAssessment) -> Tearing:
    """The reserve on load of a flaw that is larger by Δa against the toughness that the resistance curve has there.

    Where it is largest tearing gets unstable (BS 7910:2013, clause 7, tearing analysis).

    Parameters
    ----------
    found : FlawAssessment
        An assessment whose metal has a `ResistanceCurve`.

    Returns
    -------
    Tearing
        From the initiation to the end of the curve.

    Raises
    ------
    InputError
        For a toughness that is no resistance curve, and a flaw that leaves its solution at once.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="8 mm", half_length="20 mm")
    >>> curve = ResistanceCurve(j_at_1_mm="150 kJ/m^2", exponent=0.6, largest_tearing="2 mm")
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0), toughness=curve)
    >>> loads = FractureLoads([PrimaryStresses(membrane="200 MPa")])
    >>> tearing(assess_flaw(flaw, loads, metal))
    <Tearing of A1: reserve on load 1.578 at the initiation, 1.677 at most>
    """
    curve = found.metal.toughness
    if not isinstance(curve, ResistanceCurve):
        raise InputError(f"tearing, flaw {found.flaw.name}", "no resistance curve", "a metal with a ResistanceCurve")
    margins = found.flaw.shape.rooms(weighed=False).values()
    torn, toughness, factors = [], [], []
    for more in np.linspace(curve.initiation, curve.reach[1], LOOKS):
        sizes = tuple(one + float(more) for one in found.sizes)
        if not all(margin(*sizes) > 0.0 for margin in margins):
            break
        k = math.sqrt(curve.j(float(more)) * found.metal.stiffness) / found.partial_factors.toughness
        torn_flaw = found.of_sizes(sizes)
        reserve = on_load(torn_flaw.terms, torn_flaw.under_load, found.curve, k, found.loads.way)
        torn.append(float(more))
        toughness.append(k)
        factors.append(reserve.factor)
    if not torn:
        raise InputError(f"tearing, flaw {found.flaw.name}", "a solution that ends at once", "a smaller flaw")
    return Tearing(found.flaw.name, *(read_only(np.array(row)) for row in (torn, toughness, factors)))
