"""What a shape of crack and part is: stress intensity and collapse for a stress that is given. Sizes in mm, stresses in MPa.

One size, or two (depth and half length along the surface). A shape of one's own derives from one of both and is put into
`SHAPES`: its fields are then keys of a crack in a study.
"""

from __future__ import annotations

import dataclasses
import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence
from functools import cached_property
from typing import Any, ClassVar, cast

from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import inner
from vivid_anvil.writing.working import Step, put_in

SHAPES: Choices[Callable[..., Shape]] = Choices("shape")
Onwards = tuple[Any, tuple[float, ...]]
_HAIR = 1e-9


Margin = Callable[..., float]  # of the sizes: what is left before a limit


class Shape(ABC):
    """A crack of one or two degrees of freedom: `sizes` names them, and one end moves with each.

    What growth, limits and findings ask stands here, with the sizes one after the other; the stress is an argument.
    """

    kind: ClassVar[str]
    sizes: ClassVar[tuple[str, ...]]
    size_means: ClassVar[str]
    source: ClassVar[Any]  # whose solution it is
    weighs: ClassVar[bool] = False  # whether `k_of_stress` is there, for any stress over the depth
    end_names: ClassVar[tuple[str, ...]] = ("tip",)

    @property
    def smallest_size(self) -> float:
        """Size from which on the solution holds, mm."""
        return 0.0

    @property
    @abstractmethod
    def deepest(self) -> float:
        """The first size, mm, at which the crack has broken through, or the solution ends."""

    @abstractmethod
    def ends(self, *sizes: float) -> tuple[float, ...]:
        """Y of K = Y S √(π a) at each end, a the first size; sizes beyond the solution are moved to its edge."""

    @abstractmethod
    def ends_of_stress(self, stress: Any, *sizes: float) -> tuple[float, ...]:
        """K, MPa√mm, at each end of a stress over the depth that is there without load, as of a weld."""

    @abstractmethod
    def reference_stress(self, stress: float, *sizes: float) -> float:
        """Stress, MPa, in the section that is left, which is compared with the yield strength."""

    @abstractmethod
    def rooms(self, *, weighed: bool) -> dict[str, Margin]:
        """What is left to each end of the solution, by its name; of the weight function too where it is `weighed`."""

    def becomes(self, *sizes: float) -> Onwards | None:
        """The crack that it becomes when it has broken through, with its sizes; None where no solution goes on."""
        return None

    def widening(self, *sizes: float) -> float:
        """How much longer than it is the crack is taken when it has broken through, mm of its half length."""
        return 0.0

    def k_of_stress(self, stress: Any, *sizes: Any) -> Any:
        """K, MPa√mm, of a stress over the depth that is there without load, at the end, or at both; where it `weighs`."""
        raise NotImplementedError

    @property
    def bends(self) -> bool:
        """Whether its solution knows membrane and bending stress apart."""
        return "bending_share" in {field.name for field in dataclasses.fields(cast(Any, self))}

    def under(self, bending_share: float) -> Shape:
        """The same crack where this share of the outer stress is bending, as for two stresses that do not move in step."""
        if not self.bends:
            raise InputError(
                f"{self.kind} crack, bending stress",
                "a shape without bending_share",
                "a shape whose solution knows membrane and bending apart",
                "Take an edge, surface or corner crack in a plate, or put all of it into one stress.",
            )
        return cast(Shape, dataclasses.replace(cast(Any, self), bending_share=bending_share))

    def ends_of_parts(self, *sizes: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """Y of membrane stress and of bending at each end; InputError for a shape that does not know bending."""
        if self.bends:
            pure, bent = self._parts
            return pure.ends(*sizes), bent.ends(*sizes)
        root = math.sqrt(math.pi * sizes[0])
        return self.ends(*sizes), tuple(one / root for one in self.scales_of_bending(*sizes))

    @cached_property
    def _parts(self) -> tuple[Shape, Shape]:
        return self.under(0.0), self.under(1.0)

    def scales_of_bending(self, *sizes: float) -> tuple[float, ...]:
        """K per MPa of bending at the face with the crack, √mm, at each end; InputError for a shape that does not know it."""
        return self.under(1.0).scales(*sizes)

    def reference_stress_of(self, membrane: float, bending: float, *sizes: float) -> float:
        """Stress, MPa, of the section that is left under membrane and bending; bending counts in either sense alike."""
        total = abs(membrane) + abs(bending)
        if bending == 0.0 or total == 0.0:
            plain = self.under(0.0) if self.bends else self
            return plain.reference_stress(abs(membrane), *sizes)
        return self.under(abs(bending) / total).reference_stress(total, *sizes)

    def reference_steps(self, membrane: float, bending: float, sizes: Sequence[float]) -> list[Step]:
        """Steps of a hand calculation to the reference stress, the last; stresses in MPa, sizes in mm."""
        value = self.reference_stress_of(membrane, bending, *sizes)
        numbers = f"P_m = {put_in(membrane)} MPa, P_b = {put_in(bending)} MPa"
        return [Step("Reference stress of the section", f"σ_ref of the {self.kind} crack", numbers, value, "MPa")]

    @property
    def wall_thickness(self) -> float | None:
        """Thickness of the wall, mm, where the shape has one."""
        found: Any = getattr(self, "thickness", None) or getattr(self, "wall", None)
        return None if found is None else float(found)

    @abstractmethod
    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Steps of a hand calculation to Y at an end, the last; lengths in `unit`, of which `one` has so many mm."""

    def scales(self, *sizes: float) -> tuple[float, ...]:
        """K per MPa, √mm, at each end."""
        root = math.sqrt(math.pi * sizes[0])
        return tuple(y * root for y in self.ends(*sizes))


class OneSizeShape(Shape):
    """A crack with one size a: Y of K = Y S √(π a), the stress that is compared with yield, the end of the solution."""

    sizes: ClassVar[tuple[str, ...]] = ("size",)

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
    def deepest(self) -> float:
        """The largest size, mm."""
        return self.largest_size

    def ends(self, *sizes: float) -> tuple[float, ...]:
        """Y at the one end."""
        return (float(self.geometry_factor(*sizes)),)

    def ends_of_stress(self, stress: Any, *sizes: float) -> tuple[float, ...]:
        """K at the one end."""
        return (float(self.k_of_stress(stress, *sizes)),)

    def reference_stress(self, stress: float, *sizes: float) -> float:
        """That of the net section, MPa."""
        (size,) = sizes
        return float(self.net_section_stress(size, stress))

    def rooms(self, *, weighed: bool) -> dict[str, Margin]:
        """To the largest size."""
        end = min(self.largest_size, self.weight_reach) if weighed else self.largest_size
        return {"limit of the solution": lambda a: end - a}

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

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Steps to Y, the last; there is one end."""
        (size,) = sizes
        y, width = float(self.geometry_factor(size)), self.width / one
        ratio = f"{put_in(size / one)} {unit} / {put_in(width)} {unit}"
        return [
            Step("Relative size", "x = a / W", ratio, size / self.width, ""),
            Step("Geometry factor", self.factor_formula, self.factor_numbers(size), y, "", self.source),
        ]


class TwoSizeShape(Shape):
    """A crack with two sizes, depth a and half length c: Y at both ends, the stress of the section that is left."""

    sizes: ClassVar[tuple[str, ...]] = ("depth", "half length")
    end_names: ClassVar[tuple[str, ...]] = ("deepest point", "surface point")
    aspects_known: ClassVar[Any] = (0.0, 2.0)  # smallest and largest a/c of the solution

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

    def becomes(self, *sizes: float) -> Onwards | None:
        """The crack `after` the wall."""
        a, c = sizes
        return self.after(a, c)

    def ends(self, *sizes: float) -> tuple[float, ...]:
        """Y at the end of a and at the end of c."""
        y_of_both: tuple[float, float] = inner(type(self).factors)(self, *self.within(*sizes))
        return y_of_both

    def ends_of_stress(self, stress: Any, *sizes: float) -> tuple[float, ...]:
        """K at both ends; a weight function knows cracks no deeper than half as long."""
        deep, half = self.within(*sizes)
        k_of_both: tuple[float, float] = self.k_of_stress(stress, deep, max(half, deep))
        return k_of_both

    def reference_stress(self, stress: float, *sizes: float) -> float:
        """That of the section that is left, MPa."""
        a, c = sizes
        left: float = inner(type(self).collapse_stress)(self, min(a, 0.999999 * self.deepest), c, stress)
        return left

    def rooms(self, *, weighed: bool) -> dict[str, Margin]:
        """To the wall, the length and the aspect."""
        low, high = self.aspect_limits
        high = min(high, 1.0 + _HAIR) if weighed else high
        return {
            "wall": lambda a, _: self.deepest - a,
            "length of the solution": lambda _, c: self.longest - c,
            "aspect of the solution": lambda a, c: min(high * c - a, a - low * c),
        }

    @property
    def aspect_limits(self) -> tuple[float, float]:
        """Smallest and largest a/c of the solution, a hair wider."""
        low, high = self.aspects_known
        return low * (1.0 - _HAIR), high * (1.0 + _HAIR)

    def within(self, a: float, c: float) -> tuple[float, float]:
        """Sizes moved to the edge of the solution: a step may try what lies beyond a limit, though none of it is kept."""
        low, high = self.aspect_limits
        deep = min(a, self.deepest)
        half = max(c, deep / high)
        return deep, half if low == 0.0 else min(half, deep / low)

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Steps to Y at an end, the last."""
        a, c = sizes
        y = self.factors(a, c)[end]
        name = "depth" if end == 0 else "length"
        return [
            aspect_step(a, c, unit, one),
            Step(f"Geometry factor at the end of the {name}", "Y = Y(a, c)", put_in(y), y, "", self.source),
        ]


def aspect_step(a: float, c: float, unit: str, one: float) -> Step:
    """The aspect of a crack with two sizes."""
    return Step("Aspect", "x = a / c", f"{put_in(a / one)} {unit} / {put_in(c / one)} {unit}", a / c, "")
