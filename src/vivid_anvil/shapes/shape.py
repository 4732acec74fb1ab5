"""What a shape of crack and part is: stress intensity and collapse for a stress that is given. Sizes in mm, stresses in MPa.

One size, or two (depth and half length along the surface). A shape of one's own derives from one of both and is put into
`SHAPES`: its fields are then keys of a crack in a study.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import Any, ClassVar

from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.writing.working import Step, put_in

SHAPES: Choices[Callable[..., Shape]] = Choices("shape")
Onwards = tuple[Any, tuple[float, ...]]


class Shape(ABC):
    """What both kinds have."""

    kind: ClassVar[str]
    size_means: ClassVar[str]
    source: ClassVar[Any]  # whose solution it is
    two_way: ClassVar[bool]
    weighs: ClassVar[bool] = False  # whether `k_of_stress` is there, for any stress over the depth

    @property
    def smallest_size(self) -> float:
        """Size from which on the solution holds, mm."""
        return 0.0

    def k_of_stress(self, stress: Any, *sizes: Any) -> Any:
        """K, MPa√mm, of a stress over the depth that is there without load, at the end, or at both; where it `weighs`."""
        raise NotImplementedError


class CrackShape(Shape):
    """A crack with one size a: Y of K = Y S √(π a), the stress that is compared with yield, the end of the solution."""

    two_way: ClassVar[bool] = False

    @property
    @abstractmethod
    def factor_formula(self) -> Any:
        """Y in symbols, with x for the relative size."""

    @property
    @abstractmethod
    def width(self) -> float:
        """The length that sizes are related to: x = size / width."""

    @property
    @abstractmethod
    def largest_size(self) -> float:
        """Size up to which the stress intensity solution is valid."""

    @property
    def weight_reach(self) -> float:
        """Size up to which `k_of_stress` is valid."""
        return self.largest_size

    @property
    def kinks(self) -> tuple[float, ...]:
        """Sizes at which Y has a kink: growth is integrated between them."""
        return ()

    @abstractmethod
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y of K = Y S sqrt(π a)."""

    @abstractmethod
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """Stress in the remaining section that is compared with the yield strength."""

    @abstractmethod
    def factor_numbers(self, size: float) -> str:
        """The formula of Y with x = a / W put in."""

    def steps(self, size: float, unit: str, one: float) -> list[Step]:
        """Steps to Y, the last; lengths in `unit`, of which `one` has so many mm."""
        y, width = float(self.geometry_factor(size)), self.width / one
        ratio = f"{put_in(size / one)} {unit} / {put_in(width)} {unit}"
        return [
            Step("Relative size", "x = a / W", ratio, size / self.width, ""),
            Step("Geometry factor", self.factor_formula, self.factor_numbers(size), y, "", self.source),
        ]


class TwoWayShape(Shape):
    """A crack with two sizes, depth a and half length c: Y at both ends, the stress of the section that is left."""

    two_way: ClassVar[bool] = True
    aspects_known: ClassVar[Any] = (0.0, 2.0)  # smallest and largest a/c of the solution

    @property
    @abstractmethod
    def deepest(self) -> float:
        """Depth at which the crack has broken through, or the solution ends."""

    @property
    @abstractmethod
    def longest(self) -> float:
        """Half length at which the solution ends."""

    @abstractmethod
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the end of a and at the end of c."""

    @abstractmethod
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress of the section that is left."""

    def after(self, a: float, c: float) -> Onwards | None:
        """The crack that it becomes when it has broken through, with its sizes; None where no solution goes on."""
        return None

    def steps(self, a: float, c: float, unit: str, one: float) -> list[Step]:
        """Steps to Y at the end of the depth, the last; lengths in `unit`, of which `one` has so many mm."""
        y = self.factors(a, c)[0]
        return [
            aspect_step(a, c, unit, one),
            Step("Geometry factor at the end of the depth", "Y = Y(a, c)", put_in(y), y, "", self.source),
        ]


def aspect_step(a: float, c: float, unit: str, one: float) -> Step:
    """The aspect of a crack with two sizes."""
    return Step("Aspect", "x = a / c", f"{put_in(a / one)} {unit} / {put_in(c / one)} {unit}", a / c, "")
