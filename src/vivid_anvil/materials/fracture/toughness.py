"""Fracture toughness, one source a file: what is stated or estimated, as a K for the crack front of a flaw.

A source of one's own derives from `Toughness` and is put into `TOUGHNESSES`.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import TYPE_CHECKING, ClassVar

from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import Coherent, OptionalCoherent
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.materials.fracture.metal import Metal

TOUGHNESSES: Choices[type[Toughness]] = Choices("toughness")
ROOT_1000 = 1000.0**0.5  # MPa√mm in 1 MPa√m
SHELF = 20.0 * ROOT_1000  # MPa√mm: the part of a toughness in the transition that does not go with the thickness


@dataclass(frozen=True)
class FoundToughness:
    """K, MPa√mm, that a flaw is held against; how it came about; what an expert says of it."""

    k: float
    steps: tuple[Step, ...] = ()
    findings: tuple[Finding, ...] = ()
    estimated: bool = False


class Toughness(ABC):
    """A source of toughness."""

    kind: ClassVar[str]
    estimated: ClassVar[bool] = False

    @abstractmethod
    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """K for this metal and a crack front of that length, mm."""


def at_front(k: float, tested: float | None, crack_front: float) -> tuple[float, tuple[Step, ...]]:
    """A K, MPa√mm, of a specimen of that thickness, mm, carried to a crack front: 20 MPa√m + (K - 20 MPa√m)(B_0/B)^1/4.

    >>> round(at_front(110.0 * ROOT_1000, 12.5, 40.0)[0] / ROOT_1000, 4)
    87.2907
    """
    if tested is None or k <= SHELF:
        return k, ()
    own = SHELF + (k - SHELF) * (tested / crack_front) ** 0.25
    step = Step(
        "Toughness for the crack front",
        "K = 20 + (K_0 - 20) × (B_0 / B)^(1/4), MPa√m",
        f"20 + ({put_in(k / ROOT_1000)} - 20) × ({put_in(tested)} / {put_in(crack_front)})^(1/4)",
        own / ROOT_1000,
        "MPa√m",
        "Wallin 1985; BS 7910, annex J",
    )
    return own, (step,)


def thinner(tested: float | None, crack_front: float) -> tuple[Finding, ...]:
    """Of specimens thinner than the part."""
    if tested is None or tested >= crack_front:
        return ()
    return (
        Finding(
            "note",
            "toughness-thinner",
            f"The toughness was tested on {tested:g} mm, the crack front here is {crack_front:.4g} mm long: it was carried over "
            "by the fourth root of the lengths.",
            "That holds in the transition; on the upper shelf thickness counts little.",
        ),
    )


@TOUGHNESSES.add("K")
@dataclass(frozen=True, kw_only=True)
class KToughness(Toughness):
    """A fracture toughness as stated.

    Parameters
    ----------
    k : float or text with a unit
        Fracture toughness, MPa√mm, or text such as "80 MPa√m".
    specimen_thickness : float or text with a unit, optional
        Of the tests, mm: the toughness is then carried to the crack front of the flaw.

    Raises
    ------
    InputError
        For a toughness that is not above 0.

    Examples
    --------
    >>> KToughness(k="80 MPa√m").kind
    'K'
    """

    k: Coherent = Coherent("stress intensity", above=0.0)
    specimen_thickness: OptionalCoherent = OptionalCoherent("length", above=0.0)

    def found(self, metal: Metal, crack_front: float) -> FoundToughness:
        """The K, for the crack front where the tests' thickness is known."""
        k, steps = at_front(self.k, self.specimen_thickness, crack_front)
        return FoundToughness(k, steps, thinner(self.specimen_thickness, crack_front))


def k_of_j(j: float, metal: Metal) -> tuple[float, Step]:
    """K, MPa√mm, of a J, N/mm, in plane strain."""
    k = (j * metal.stiffness) ** 0.5
    return k, Step(
        "Toughness from J",
        "K_mat = √(J × E / (1 - ν^2))",
        f"√({put_in(j)} N/mm × {put_in(metal.youngs_modulus)} MPa / (1 - {put_in(metal.poissons_ratio)}^2))",
        k,
        "MPa√mm",
        "Rice 1968",
    )


def refuse_large(where: str, key: str, value: float, limit: float, unit: str, remedy: str) -> None:
    """InputError for a size that no steel has."""
    if value > limit:
        raise InputError(inside(where, key), f"{value:g} {unit}", f"at most {limit:g} {unit}", remedy)
