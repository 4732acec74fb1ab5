"""An elliptical crack inside a plate."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

from vivid_anvil.ground.checks import positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.aspect import MOST_ASPECT, checked_aspect
from vivid_anvil.shapes.ellipse_steps import embedded_steps
from vivid_anvil.shapes.one_size import CentreCrack
from vivid_anvil.shapes.shape import SHAPES, Onwards, TwoSizeShape, aspect_step
from vivid_anvil.shapes.solutions.collapse import embedded_reference_stress
from vivid_anvil.shapes.solutions.ellipses import embedded_crack
from vivid_anvil.shapes.surface import SurfaceCrack
from vivid_anvil.units import LENGTH, STRESS, Coherent, OptionalCoherent, inner, number, opened
from vivid_anvil.writing.working import Step, put_in

# The shape checks its sizes itself, and asks thousands of times.
_embedded_crack, _embedded_reference_stress = inner(embedded_crack), inner(embedded_reference_stress)


@SHAPES.add("embedded")
@dataclass(frozen=True, kw_only=True, repr=False)
class EmbeddedCrack(TwoSizeShape):
    """An ellipse 2a by 2c inside a plate in tension (Newman and Raju 1984), in the middle or `centre_depth` below a surface.

    Nearer to one surface it is taken as in a plate of twice the centre's depth. When the ligament counts as broken, at a =
    `broken_at` times the centre's depth, a crack in the middle goes through the plate; another becomes a surface crack that takes
    in the ligament p, depth 2a + p and half length c + p, or half the depth where that is longer, as solutions end where a
    crack is as deep as it is long. (0.714 is the rule p = 0.4 a of ASME XI, IWA-3300.)

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    centre_depth : float or text with a unit, optional
        How deep the middle of the crack lies, mm.
    broken_at : float, default 0.9
        Share of the ligament at which it breaks, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = EmbeddedCrack(thickness="20 mm", plate_width="120 mm")
    >>> [round(y, 5) for y in crack.factors(3.0, 8.0)]
    [0.89951, 0.5483]
    >>> EmbeddedCrack(thickness="20 mm", plate_width="120 mm", centre_depth="5 mm").after(4.5, 8.0)[1]
    (9.5, 8.5)
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    centre_depth: OptionalCoherent = OptionalCoherent("length", above=0.0)
    broken_at: float = 0.9
    size_means: ClassVar[str] = "half of the depth"
    end_names: ClassVar[tuple[str, ...]] = ("end of the depth", "end of the length")
    source: ClassVar[str] = "Newman and Raju 1984"

    def __post_init__(self) -> None:
        if self.centre_depth is not None and self.centre_depth > 0.5 * self.thickness:
            raise InputError(
                "embedded crack, centre_depth",
                f"{number(self.centre_depth)} mm",
                f"at most half of the thickness, {number(0.5 * self.thickness)} mm",
                "Measure it from the nearer surface.",
            )
        share = positive_number("embedded crack, broken_at", self.broken_at, "a share above 0")
        if share > 0.95:
            raise InputError("embedded crack, broken_at", f"{share:g}", "at most 0.95, where the solution ends")

    @property
    def _cover(self) -> float:
        """Depth of the centre below the nearer surface, mm."""
        return 0.5 * self.thickness if self.centre_depth is None else self.centre_depth

    @property
    def centre(self) -> float:
        """Depth of the centre below the nearer surface, mm."""
        return self._cover

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """The formula of Newman and Raju at an end."""
        a, c = sizes
        return [aspect_step(a, c, unit, one), *embedded_steps(self, (a, c), unit, one, end)]

    @property
    def deepest(self) -> float:
        """Half depth, mm, at which the ligament counts as broken."""
        return self.broken_at * self._cover

    @property
    def longest(self) -> float:
        """A quarter of the width, mm."""
        return 0.25 * self.plate_width

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the end of a and at the end of c."""
        checked_aspect(self.kind, a, c)
        around = 2.0 * self._cover
        deep, along = (_embedded_crack(a, c, around, 0.5 * self.plate_width, angle).tension for angle in (90.0, 0.0))
        return deep, along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Of the section beside and below it, free to bend (BS 7910, annex P), MPa."""
        return self.reference_stress_of(stress, 0.0, a, c)

    def reference_stress_of(self, membrane: float, bending: float, *sizes: float) -> float:
        """The same under membrane and bending, which pulls at the nearer face."""
        a, c = sizes
        ligament = max(self._cover - min(a, 0.999999 * self.deepest), 0.0)
        rest = (min(a, 0.999999 * self.deepest), min(c, 0.5 * self.plate_width), self.thickness, ligament)
        return _embedded_reference_stress(abs(membrane), bending, *rest, self.plate_width)

    def reference_steps(self, membrane: float, bending: float, sizes: Sequence[float]) -> list[Step]:
        """α, q, n and σ_ref."""
        a, c = sizes
        t, w, p = self.thickness, self.plate_width, self._cover - a
        wide = w >= 2.0 * (c + t)
        lost = 2.0 * a / t / (1.0 + t / c) if wide else 2.0 * a / t * 2.0 * c / w
        q, n = bending + 3.0 * membrane * lost, (1.0 - lost) ** 2 + 4.0 * p * lost / t
        share = f"(2 × {put_in(a)} / {put_in(t)})"
        numbers = f"{share} / (1 + {put_in(t)} / {put_in(c)})" if wide else f"{share} × (2 × {put_in(c)} / {put_in(w)})"
        formula = "α = (2 × a / t) / (1 + t / c)" if wide else "α = (2 × a / t) × (2 × c / W)"
        of_n = f"(1 - {put_in(lost)})^2 + 4 × {put_in(p)} × {put_in(lost)} / {put_in(t)}"
        rest = f"({put_in(q)} + √({put_in(q)}^2 + 9 × {put_in(membrane)}^2 × {put_in(n)})) / (3 × {put_in(n)})"
        value = self.reference_stress_of(membrane, bending, a, c)
        return [
            Step("Share of the section that the flaw takes", formula, numbers, lost, "", "BS 7910, annex P"),
            Step("What is left, with the ligament p", "n = (1 - α)^2 + 4 × p × α / t", of_n, n, ""),
            Step(
                "Bending with the shift",
                "q = P_b + 3 × P_m × α",
                f"{put_in(bending)} + 3 × {put_in(membrane)} × {put_in(lost)}",
                q,
                "MPa",
            ),
            Step(
                "Reference stress of the section", "σ_ref = (q + √(q^2 + 9 × P_m^2 × n)) / (3 × n)", rest, value, "MPa"
            ),
        ]

    def scales_of_bending(self, *sizes: float) -> tuple[float, ...]:
        """As if the largest bending stress over the crack pulled on all of it: on the safe side."""
        a, _ = sizes
        largest = 1.0 - 2.0 * (self._cover - a) / self.thickness
        return tuple(one * largest for one in self.scales(*sizes))

    def widening(self, *sizes: float) -> float:
        """What is added to the half length at the surface, mm, where the crack would be deeper there than solutions know."""
        a, c = sizes
        ligament = self._cover - a
        return max((2.0 * a + ligament) / MOST_ASPECT - (c + ligament), 0.0)

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the plate, in its middle; or on its surface, where the near ligament alone is broken."""
        ligament = self._cover - a
        depth, along = 2.0 * a + ligament, c + ligament + self.widening(a, c)
        if self._cover >= 0.5 * self.thickness * (1.0 - 1e-9) or depth >= self.thickness:
            return CentreCrack(self.plate_width), (c,)
        return SurfaceCrack(thickness=self.thickness, plate_width=self.plate_width), (depth, along)
