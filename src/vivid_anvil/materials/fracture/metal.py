"""The metal at a flaw: strengths, stiffness, curve of assessment, toughness; of a weld and its plates where they differ."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.fracture.assessment_curve import ASSESSMENT_CURVES, AssessmentCurve
from vivid_anvil.materials.fracture.toughness import FoundToughness, KToughness, Toughness
from vivid_anvil.materials.material import Material
from vivid_anvil.units import Coherent, OptionalCoherent, Temperature, sound
from vivid_anvil.writing.working import Step, put_in

OF_CURVES = ("cut_off", "stress_strain", "measured_as", "plateau_strain")


@dataclass(frozen=True, kw_only=True)
class Weld:
    """Weld metal beside the plates: its strengths, and how the section yields with both.

    Parameters
    ----------
    yield_strength : float or text with a unit
        Of the weld metal, MPa.
    ultimate_strength : float or text with a unit
        Of the weld metal, MPa.
    yield_load_ratio : float, optional
        Load at which the section of both yields over that of plates alone, from 1 to the ratio of the yield strengths;
        without it the lower strengths of both count.

    Raises
    ------
    InputError
        For a yield strength above the ultimate one, or a ratio that is not above 0.

    Examples
    --------
    >>> Weld(yield_strength="460 MPa", ultimate_strength="560 MPa", yield_load_ratio=1.1).yield_strength
    460.0
    """

    yield_strength: Coherent = Coherent("stress", above=0.0)
    ultimate_strength: Coherent = Coherent("stress", above=0.0)
    yield_load_ratio: OptionalCoherent = OptionalCoherent("number", above=0.0)

    def __post_init__(self) -> None:
        if self.yield_strength > self.ultimate_strength:
            found = f"{self.yield_strength:g} MPa above the ultimate strength, {self.ultimate_strength:g} MPa"
            raise InputError("weld, yield_strength", found, "at most the ultimate strength", "Are the two exchanged?")


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Metal:
    """What a flaw lies in.

    Parameters
    ----------
    material : Material
        Yield and ultimate strength, MPa; its toughness where none is given here.
    toughness : Toughness, optional
        How tough it is: a K, J, CTOD, a Charpy energy, a master curve, several tests, a resistance curve.
    youngs_modulus : float or text with a unit, default 207000.0
        Modulus of elasticity, MPa.
    poissons_ratio : float, default 0.3
        Poisson's ratio, -.
    curve : str, default "general"
        Assessment curve: one of `ASSESSMENT_CURVES`.
    cut_off : float, optional
        Load ratio beyond which nothing is allowed, -; by default that of the flow stress.
    stress_strain : sequence of rows, optional
        True stress, MPa, and true strain, for the curve "stress-strain".
    measured_as : str, optional
        Whether these rows are "true" or "engineering" ones.
    plateau_strain : float or text with a unit, optional
        Length of the yield plateau, for the curve "yield plateau".
    temperature : float or text with a scale, optional
        °C; for a toughness that goes with it.
    weld : Weld, optional
        Weld metal beside the plates, where the strengths differ.

    Raises
    ------
    InputError
        For a material without strengths, or keys that the curve does not use.

    Examples
    --------
    >>> steel = Material(name="S355", yield_strength="355 MPa", ultimate_strength="510 MPa", toughness="80 MPa√m")
    >>> metal = Metal(material=steel)
    >>> metal, round(metal.tough(25.0).k, 1)
    (<Metal S355: yield 355 MPa, general curve, to L_r = 1.218>, 2529.8)
    """

    material: Material
    toughness: Toughness | None = None
    youngs_modulus: Coherent = Coherent("stress", above=0.0, default=207000.0)
    poissons_ratio: Coherent = Coherent("number", at_least=0.0, below=0.5, default=0.3)
    curve: str = "general"
    cut_off: OptionalCoherent = OptionalCoherent("number", above=0.0)
    stress_strain: Sequence[Any] | None = None
    measured_as: str | None = None
    plateau_strain: OptionalCoherent = OptionalCoherent("strain", above=0.0)
    temperature: Temperature = Temperature()
    weld: Weld | None = None

    def __post_init__(self) -> None:
        where = inside(f"metal {self.material.name}", "curve")
        form = ASSESSMENT_CURVES.get(self.curve, where)
        keys = {field.name for field in dataclasses.fields(form)}
        for key in OF_CURVES:
            if getattr(self, key) is not None and key not in keys:
                raise InputError(
                    inside(f"metal {self.material.name}", key), f"{key} with the curve {self.curve!r}", "none here"
                )
        for field in dataclasses.fields(form):
            bare = field.default is dataclasses.MISSING and field.default_factory is dataclasses.MISSING
            if bare and field.name in OF_CURVES and getattr(self, field.name) is None:
                raise InputError(
                    inside(f"metal {self.material.name}", field.name),
                    "none",
                    f"{field.name} for the curve {self.curve!r}",
                )
        given: Any = self.toughness
        if given is not None and not isinstance(given, Toughness):
            found = shortened(given)
            raise InputError(
                inside(f"metal {self.material.name}", "toughness"), found, "a toughness such as KToughness"
            )
        assert self.assessment_curve.largest_load_ratio > 0.0

    @cached_property
    def strengths(self) -> tuple[float, float]:
        """Yield and ultimate strength that count, MPa."""
        purpose = "the failure assessment curve"
        plate = self.material.needed("yield_strength", purpose), self.material.needed("ultimate_strength", purpose)
        if self.weld is None:
            return plate
        weld = self.weld.yield_strength, self.weld.ultimate_strength
        ratio, several = self.weld.yield_load_ratio, self.weld.yield_strength / plate[0]
        if ratio is None or several == 1.0:
            return min(plate[0], weld[0]), min(plate[1], weld[1])
        low, high = sorted((1.0, several))
        if not low <= ratio <= high:
            raise InputError(
                "weld, yield_load_ratio", f"{ratio:g}", f"from {low:.4g} to {high:.4g}, the yield of weld over plates"
            )
        hardening = [0.3 * (1.0 - y / u) for y, u in (weld, plate)]
        if min(hardening) <= 0.0:
            return ratio * plate[0], ratio * plate[0]
        both = (several - 1.0) / ((ratio - 1.0) / hardening[0] + (several - ratio) / hardening[1])
        return ratio * plate[0], ratio * plate[0] / (1.0 - both / 0.3)

    @cached_property
    def assessment_curve(self) -> AssessmentCurve:
        """The curve with these strengths."""
        low, high = self.strengths
        own = {key: value for key in OF_CURVES if (value := getattr(self, key)) is not None}
        form: Any = ASSESSMENT_CURVES[self.curve]
        made: AssessmentCurve = form(
            yield_strength=low, ultimate_strength=high, youngs_modulus=self.youngs_modulus, **own
        )
        return made

    def tough(self, crack_front: float) -> FoundToughness:
        """The toughness for a crack front of this length, mm."""
        source = self.toughness
        if source is None:
            value = self.material.needed("toughness", "the assessment of a flaw")
            source = KToughness(k=value)
        found = source.found(self, crack_front)
        if not math.isfinite(found.k):
            raise InputError(
                f"metal {self.material.name}, toughness",
                f"a toughness ({source.kind}) that goes with the thickness, of a part without one",
                "the wall of the part",
                "State the wall of the flaw, or a toughness as K without specimen_thickness.",
            )
        return found

    def at_temperature(self, temperature: float | str) -> Metal:
        """The metal at another temperature, °C or text: what its toughness says there."""
        return dataclasses.replace(self, temperature=temperature)

    @property
    def stiffness(self) -> float:
        """E / (1 - ν²), MPa."""
        return self.youngs_modulus / (1.0 - self.poissons_ratio**2)

    def steps(self) -> tuple[Step, ...]:
        """The strengths that count, where weld and plates differ."""
        if self.weld is None:
            return ()
        low, high = self.strengths
        plate = self.material.yield_strength or 0.0
        if self.weld.yield_load_ratio is None:
            numbers = f"min({put_in(plate)} MPa, {put_in(self.weld.yield_strength)} MPa)"
            return (Step("Yield strength of weld and plates", "σ_y = min(σ_y,plate, σ_y,weld)", numbers, low, "MPa"),)
        numbers = f"{put_in(self.weld.yield_load_ratio)} × {put_in(plate)} MPa"
        return (
            Step(
                "Yield strength of weld and plates", "σ_y = F_yM / F_yB × σ_y,plate", numbers, low, "MPa", "SINTAP 1999"
            ),
            Step("Ultimate strength of the same hardening", "σ_u = σ_y / (1 - N_M / 0.3)", put_in(high), high, "MPa"),
        )

    def __repr__(self) -> str:
        return f"<Metal {self.material.name}: yield {self.strengths[0]:g} MPa, {self.assessment_curve.words}>"
