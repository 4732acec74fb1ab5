"""A flaw as it is assessed: its shape in the part, its sizes, and what of a weld it lies in."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.shapes.shape import Shape
from vivid_anvil.units import Coherent, OptionalCoherent, UnitSystem, in_unit, number

WELDS = {
    "none": "away from welds",
    "as welded": "in a weld as welded, with residual stress up to yield",
    "heat treated": "in a weld that was heat treated",
}


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Flaw:
    """A flaw of a shape that has stress intensity and collapse.

    Parameters
    ----------
    name : str
        What it is called.
    shape : Shape
        Shape of flaw and part: one of `SHAPES`.
    size : float or text with a unit
        Its first size, mm: the depth, of an embedded flaw half of its height, of a through crack half of its length.
    half_length : float or text with a unit, optional
        Half of its length, mm; for shapes with two sizes.
    wall : float or text with a unit, optional
        Thickness at the flaw, mm, where its shape knows none: what a toughness that goes with it is for.
    weld : str, default "none"
        What of a weld it lies in: one of `WELDS`.

    Raises
    ------
    InputError
        For sizes outside the solution of the shape.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    <Flaw A1: surface, depth 5 mm, half length 12 mm>
    """

    name: str
    shape: Shape
    size: Coherent = Coherent("length", above=0.0)
    half_length: OptionalCoherent = OptionalCoherent("length", above=0.0)
    wall: OptionalCoherent = OptionalCoherent("length", above=0.0)
    weld: str = "none"

    def __post_init__(self) -> None:
        checks.text("flaw, name", self.name)
        where = f"flaw {self.name}"
        if not isinstance(self.shape, Shape):
            raise InputError(inside(where, "shape"), shortened(self.shape), "a shape such as SurfaceCrack")
        checks.one_of(inside(where, "weld"), self.weld, tuple(WELDS))
        two = len(self.shape.sizes) == 2
        if two != (self.half_length is not None):
            found = "nothing" if two else f"{number(self.half_length or 0.0)} mm"
            wanted = "half of its length, for a shape with two sizes" if two else f"no such key for {self.shape.kind!r}"
            raise InputError(inside(where, "half_length"), found, wanted)
        known = self.shape.wall_thickness
        if known is not None and self.wall is not None:
            raise InputError(
                inside(where, "wall"), f"{number(self.wall)} mm", f"none: the shape has {number(known)} mm"
            )
        for name, margin in self.shape.rooms(weighed=False).items():
            if not margin(*self.sizes) >= 0.0:
                raise InputError(inside(where, "size"), self.said, self._expected(name), "Is a unit wrong?")
        if self.size < self.shape.smallest_size:
            found = f"{number(self.size)} mm"
            raise InputError(inside(where, "size"), found, f"{number(self.shape.smallest_size)} mm or more")

    def _expected(self, limit: str) -> str:
        if limit == "wall":
            return f"less than {number(self.shape.deepest)} mm, where it breaks through"
        if limit.startswith("aspect"):
            low, high = getattr(self.shape, "aspects_known", (0.0, 2.0))
            return f"a depth of {low:g} to {high:g} half lengths, which the solution knows"
        return f"sizes within the {limit}"

    @property
    def sizes(self) -> tuple[float, ...]:
        """Its sizes, mm."""
        return tuple(one for one in (self.size, self.half_length) if one is not None)

    @property
    def said(self) -> str:
        """Its sizes in words."""
        return self.said_in("metric")

    def said_in(self, units: UnitSystem) -> str:
        """The same in a unit system."""
        names = (self.shape.size_means, "half length")
        return ", ".join(
            f"{name} {in_unit(one, 'length', units)}" for name, one in zip(names, self.sizes, strict=False)
        )

    def through(self, shape: Shape, sizes: tuple[float, ...]) -> Flaw:
        """What it is when it has broken through to a surface: a crack of another shape, in the same wall."""
        wall = (self.shape.wall_thickness or self.wall) if shape.wall_thickness is None else None
        half = sizes[1] if len(sizes) == 2 else None
        return Flaw(name=self.name, shape=shape, size=sizes[0], half_length=half, wall=wall, weld=self.weld)

    def __repr__(self) -> str:
        return f"<Flaw {self.name}: {self.shape.kind}, {self.said}>"
