"""The part that indications are found in, and the shape that a flaw of each kind has there."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.shapes import (
    AxialPipeCrack,
    CentreCrack,
    CornerCrack,
    CylinderSurfaceCrack,
    EdgeCrack,
    EmbeddedCrack,
    HoleCornerCrack,
    HoleCrack,
    PipeCrack,
    PipeSurfaceCrack,
    Shape,
    SphereCrack,
    SphereSurfaceCrack,
    SurfaceCrack,
)
from vivid_anvil.units import Coherent, OptionalCoherent, sound

FORMS = {
    "plate": "flat, with a width across the flaw",
    "cylinder, around": "flaws around a cylinder, pulled by the stress along it",
    "cylinder, along": "flaws along a cylinder, pulled by the stress around it",
    "sphere": "flaws in the wall of a sphere",
}
KINDS = ("surface", "embedded", "through", "edge", "corner", "hole", "hole corner")


@sound
@dataclass(frozen=True, kw_only=True)
class Part:
    """A wall with flaws.

    Parameters
    ----------
    form : str
        One of `FORMS`.
    wall : float or text with a unit
        Thickness, mm.
    width : float or text with a unit, optional
        Of a plate, across the stress, mm.
    radius : float or text with a unit, optional
        Mean radius of a cylinder or sphere, mm.
    hole_radius : float or text with a unit, optional
        Of a hole in the middle of a plate, mm, at whose edge flaws of the kinds "hole" and "hole corner" lie.
    attachment_length : float or text with a unit, optional
        Of a plate: length of the weld or attachment along the stress at whose toe surface flaws lie, mm; raises K near the toe.

    Raises
    ------
    InputError
        For another form, and a plate without width or a shell without radius.

    Examples
    --------
    >>> Part(form="plate", wall="25 mm", width="300 mm").shape_of("surface").kind
    'surface'
    """

    form: str
    wall: Coherent = Coherent("length", above=0.0)
    width: OptionalCoherent = OptionalCoherent("length", above=0.0)
    radius: OptionalCoherent = OptionalCoherent("length", above=0.0)
    hole_radius: OptionalCoherent = OptionalCoherent("length", above=0.0)
    attachment_length: OptionalCoherent = OptionalCoherent("length", above=0.0)

    def __post_init__(self) -> None:
        if self.form not in FORMS:
            raise InputError(inside("part", "form"), repr(self.form), f"one of {listed(FORMS)}")
        flat = self.form == "plate"
        for key, needed in (("width", flat), ("radius", not flat)):
            if needed != (getattr(self, key) is not None):
                found = "none" if needed else f"{getattr(self, key):g} mm"
                raise InputError(inside("part", key), found, f"{'a' if needed else 'no'} {key} for a {self.form}")
        for key in ("attachment_length", "hole_radius"):
            if getattr(self, key) is not None and not flat:
                raise InputError(inside("part", key), "one", f"none for a {self.form}", "Only plates know it.")

    @property
    def around(self) -> float:
        """The width that a flaw has room in, mm: that of a plate, or the circumference."""
        if self.width is not None:
            return self.width
        return 2.0 * math.pi * (self.radius or 0.0)

    def shape_of(self, kind: str, *, centre_depth: float | None = None) -> Shape:
        """The shape of a flaw of that kind, one of `KINDS`; `centre_depth`, mm, of an embedded one.

        Raises
        ------
        InputError
            For a kind that the part has no solution for.
        """
        made = SHAPES_OF.get((self.form, kind))
        if made is not None and kind.startswith("hole") and self.hole_radius is None:
            raise InputError(
                inside("part", "hole_radius"), "none", f"the radius of the hole, for a flaw of kind {kind!r}"
            )
        if kind == "embedded":
            return EmbeddedCrack(thickness=self.wall, plate_width=self.around, centre_depth=centre_depth)
        if made is None:
            known = [one for form, one in SHAPES_OF if form == self.form] + ["embedded"]
            raise InputError("part, kind of flaw", f"{kind!r} in a {self.form}", f"one of {listed(known)}")
        return made(self)


SHAPES_OF: dict[tuple[str, str], Callable[[Part], Shape]] = {
    ("plate", "surface"): lambda part: SurfaceCrack(
        thickness=part.wall, plate_width=part.around, attachment_length=part.attachment_length
    ),
    ("plate", "through"): lambda part: CentreCrack(part.around),
    ("plate", "edge"): lambda part: EdgeCrack(part.around),
    ("plate", "hole"): lambda part: HoleCrack(radius=part.hole_radius, cracks=1, plate_width=part.around),
    ("plate", "hole corner"): lambda part: HoleCornerCrack(
        thickness=part.wall, plate_width=part.around, radius=part.hole_radius, cracks=1
    ),
    ("plate", "corner"): lambda part: CornerCrack(thickness=part.wall, plate_width=part.around),
    ("cylinder, around", "surface"): lambda part: PipeSurfaceCrack(radius=part.radius, wall=part.wall),
    ("cylinder, around", "through"): lambda part: PipeCrack(part.radius, part.wall),
    ("cylinder, along", "surface"): lambda part: CylinderSurfaceCrack(radius=part.radius, wall=part.wall),
    ("cylinder, along", "through"): lambda part: AxialPipeCrack(part.radius, part.wall),
    ("sphere", "surface"): lambda part: SphereSurfaceCrack(radius=part.radius, wall=part.wall),
    ("sphere", "through"): lambda part: SphereCrack(radius=part.radius, wall=part.wall),
}
