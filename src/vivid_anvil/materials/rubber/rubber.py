"""A rubber as fatigue needs it: stress from strains, growth of cracks, and the flaws that are there from the start."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.rubber.at_temperature import law_at
from vivid_anvil.materials.rubber.hyperelastic import HyperelasticLaw
from vivid_anvil.materials.rubber.tearing_law import TearingLaw
from vivid_anvil.units import Coherent, Temperature, number


@dataclass(frozen=True, kw_only=True, repr=False)
class Rubber:
    """A rubber: its hyperelastic law, its tearing law, or one for each of several temperatures, and its flaws.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    law : HyperelasticLaw
        Stress and energy of strains.
    growth : TearingLaw or sequence of TearingLaw
        Growth of cracks; several are of different temperatures.
    initial_flaw : float or text with a unit
        Size c of the flaws that are there from the start, mm.
    end_flaw : float or text with a unit, default 1 mm
        Size at which the part has failed, mm.
    shape_factor : float, default π
        k of T = 2 k W c, -.
    temperature : float or text with a scale, optional
        Of the part, °C; needed beside growth at several temperatures.
    source : str, default "not stated"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an end that is not above the flaw at the start, several laws without a temperature, and values of another kind,
        unit or range.

    Examples
    --------
    >>> from vivid_anvil.materials.rubber import MooneyRivlin, PowerTearing
    >>> law = MooneyRivlin(name="bushing", c10="0.3 MPa", c01="0.08 MPa")
    >>> growth = PowerTearing(name="bushing", rate="0.0025 mm/cycle", at="11 kJ/m^2", slope=2.0)
    >>> Rubber(name="bushing", law=law, growth=growth, initial_flaw="0.04 mm")
    <Rubber bushing: mooney-rivlin, power, flaws of 0.04 mm to 1 mm>
    """

    name: str
    law: HyperelasticLaw
    growth: TearingLaw | Sequence[TearingLaw]
    initial_flaw: Coherent = Coherent("length", above=0.0)
    end_flaw: Coherent = Coherent("length", above=0.0, default=1.0)
    shape_factor: Coherent = Coherent("number", above=0.0, default=math.pi)
    temperature: Temperature = Temperature()
    source: str = "not stated"

    def __post_init__(self) -> None:
        checks.text(inside("rubber", "name"), self.name)
        where = f"rubber {self.name}"
        checks.text(inside(where, "source"), self.source)
        if not isinstance(self.law, HyperelasticLaw):
            raise InputError(inside(where, "law"), repr(self.law), "a hyperelastic law, such as MooneyRivlin(...)")
        if not isinstance(self.growth, TearingLaw):
            given = tuple(self.growth) if isinstance(self.growth, Sequence) else ()
            if not given or not all(isinstance(one, TearingLaw) for one in given):
                raise InputError(inside(where, "growth"), repr(self.growth), "a tearing law, or several")
            object.__setattr__(self, "growth", given)
        if not self.end_flaw > self.initial_flaw:
            raise InputError(
                inside(where, "end_flaw"),
                f"{number(self.end_flaw)} mm",
                f"more than the flaw at the start, {number(self.initial_flaw)} mm",
                "Are both in the same unit?",
            )
        assert self.tearing is not None  # says what is wrong with it

    @property
    def laws(self) -> tuple[TearingLaw, ...]:
        """Growth at every temperature of a test."""
        return (self.growth,) if isinstance(self.growth, TearingLaw) else tuple(self.growth)

    @cached_property
    def tearing(self) -> TearingLaw:
        """Growth at the temperature of the part."""
        if self.temperature is None:
            if len(self.laws) > 1:
                raise InputError(
                    inside(f"rubber {self.name}", "temperature"),
                    "none, with growth at several temperatures",
                    "the temperature of the part",
                )
            return self.laws[0]
        if len(self.laws) == 1 and self.laws[0].temperature is None:
            raise InputError(
                inside(f"rubber {self.name}", "temperature"),
                f"{number(self.temperature)} °C, with growth that names no temperature",
                "the temperature of the tests in the tearing law",
            )
        return law_at(self.laws, self.temperature)

    @property
    def per_size(self) -> float:
        """T over W c: 2 k, -."""
        return 2.0 * self.shape_factor

    def __repr__(self) -> str:
        sizes = f"flaws of {number(self.initial_flaw)} mm to {number(self.end_flaw)} mm"
        return f"<Rubber {self.name}: {self.law.kind}, {self.tearing.kind}, {sizes}>"
