"""Which input moves the verdict most: each changed by itself, towards the unsafe side."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Self

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.partial_factors import PartialFactors
from vivid_anvil.acceptance.point import Point, Terms, point_of
from vivid_anvil.units import one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True)
class Moved:
    """An input changed: what is left under the curve before and after, and the reserve on load after it.

    Parameters
    ----------
    what : str
        Which input.
    room : float
        f(L_r) less K_r with it changed, -.
    load_ratio, fracture_ratio : float
        The point then.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> Moved("toughness", 0.3, 0.5, 0.6).room
    0.3
    """

    what: str
    room: float
    load_ratio: float
    fracture_ratio: float


@dataclass(frozen=True, eq=False, repr=False)
class Sensitivity(Result):
    """What each input does to the room under the curve when it changes; `sensitivity` makes one.

    Parameters
    ----------
    name : str
        The flaw.
    change : float
        By which share each input is changed.
    room : float
        f(L_r) less K_r as it is.
    moved : tuple of Moved
        The one that moves it most first.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> Sensitivity("A1", 0.1, 0.5, (Moved("toughness", 0.4, 0.5, 0.6),))
    <Sensitivity of A1: toughness moves it most>
    """

    name: str
    change: float
    room: float
    moved: tuple[Moved, ...]

    @property
    def findings(self) -> tuple[Finding, ...]:
        """None: it says nothing new of the flaw."""
        return ()

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"What moves flaw {self.name} most"

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        return Table(
            "Sensitivity",
            (
                Column("flaw", [one.name for one in results]),
                Column("moved most by", [one.moved[0].what for one in results]),
                Column("room under the curve", [one.room for one in results]),
            ),
        )

    def tables(self, units: object = "metric") -> tuple[Table, ...]:
        """A row an input."""
        rows = self.moved
        return (
            Table(
                f"Each input {self.change:.0%} to the unsafe side",
                (
                    Column("input", [row.what for row in rows]),
                    Column("L_r", [row.load_ratio for row in rows], digits=3),
                    Column("K_r", [row.fracture_ratio for row in rows], digits=3),
                    Column("room under the curve", [row.room for row in rows], digits=3),
                    Column("loses", [self.room - row.room for row in rows], digits=3),
                ),
                key="sensitivity",
            ),
        )

    def __repr__(self) -> str:
        return f"<Sensitivity of {self.name}: {self.moved[0].what} moves it most>"


@opened(change=one(above=0.0, below=1.0))
def sensitivity(found: FlawAssessment, *, change: float = 0.1) -> Sensitivity:
    """Each input changed by a share towards the unsafe side, by itself: stresses, toughness, strengths, sizes.

    Parameters
    ----------
    found : FlawAssessment
        The assessment.
    change : float, default 0.1
        Share by which each input is changed, -.

    Returns
    -------
    Sensitivity
        The one that moves the verdict most first.

    Raises
    ------
    InputError
        For a share that is not between 0 and 1.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="150 MPa")])
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=1200.0)
    >>> sensitivity(assess_flaw(flaw, loads, Metal(material=steel)))
    <Sensitivity of A1: primary stress moves it most>
    """
    more = 1.0 + change
    ways: dict[str, Callable[[], Point]] = {
        "primary stress": lambda: _factored(found, load=found.partial_factors.load * more),
        "toughness": lambda: _factored(found, toughness=found.partial_factors.toughness * more),
        "yield and ultimate strength": lambda: _factored(found, strength=found.partial_factors.strength * more),
    }
    if found.loads.secondary:
        ways["secondary stress"] = lambda: _secondary(found, more)
    for i, name in enumerate(found.flaw.shape.sizes):
        ways[f"{name} of the flaw"] = lambda i=i: _larger(found, i, more)  # type: ignore[misc]
    rows = []
    for name, way in ways.items():
        own = way()
        rows.append(Moved(name, own.room, own.load_ratio, own.governing.fracture_ratio))
    return Sensitivity(found.flaw.name, change, found.point.room, tuple(sorted(rows, key=lambda row: row.room)))


def _factored(found: FlawAssessment, **factors: float) -> Point:
    partial = PartialFactors(**{**dataclasses.asdict(found.partial_factors), **factors})
    return dataclasses.replace(found, partial_factors=partial).point


def _secondary(found: FlawAssessment, factor: float) -> Point:
    own = found.terms
    terms = Terms(own.primary, tuple(factor * one for one in own.secondary), own.reference)
    return point_of(terms, found.curve, found.toughness, found.loads.way, found.flaw.shape.end_names)


def _larger(found: FlawAssessment, i: int, factor: float) -> Point:
    sizes = tuple(one * (factor if j == i else 1.0) for j, one in enumerate(found.sizes))
    inside = [margin(*sizes) > 0.0 for margin in found.flaw.shape.rooms(weighed=False).values()]
    terms = found.terms_at(sizes if all(inside) else found.sizes)
    return point_of(terms, found.curve, found.toughness, found.loads.way, found.flaw.shape.end_names)
