"""Several loads that act together at a place: stress = Σ stress per load × load."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.events.seen import ByName, seen_as
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.stress.relations.one_load import load_in
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.units import Coherent, UnitSystem, coherent_ratio, display_unit, number, shown
from vivid_anvil.writing.working import Step, put_in


@dataclass(frozen=True, eq=False)
class SeveralLoads(Relation):
    """Channels with the nominal stress that a load of 1 makes on each ("3 MPa/kN", for a load factor "40 MPa").

    Parameters
    ----------
    stress_per_load : mapping of str to float or str
        Nominal stress for the load, such as "38 MPa/kN", or MPa for one coherent unit of it; not 0.
    offset : float or text with a unit, default 0.0
        Stress that is there without load, MPa; no load factor moves it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.events import LoadStates
    >>> both = SeveralLoads({"weight": "40 MPa", "wind": "30 MPa"})
    >>> str(both)
    '40 MPa × weight + 30 MPa × wind'
    >>> both.seen(LoadStates.of({"weight": 1, "wind": [-0.5, 1]}), "gust").extremes(str(both))
    (25.0, 70.0)
    """

    stress_per_load: Mapping[str, float | str]
    offset: Coherent = Coherent("stress", default=0.0)

    def __post_init__(self) -> None:
        if not isinstance(self.stress_per_load, Mapping) or not self.stress_per_load:
            raise InputError("stress per load", "no channel", "at least one, with the stress that a load of 1 makes")
        for name in self.stress_per_load:
            checks.text("channel of a sum", name)
        written = {name: _written(name, per_load) for name, per_load in self.stress_per_load.items()}
        object.__setattr__(self, "stress_per_load", written)

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """Those of the loads."""
        return tuple(self.stress_per_load)

    def factors(self, dimensions: Mapping[str, str], where: str) -> FloatArray:
        """MPa per coherent unit of each channel; InputError for a channel that is not there."""
        for name in self.channels:
            if name not in dimensions:
                raise InputError(
                    where,
                    f"no channel {name!r}",
                    f"one of {listed(dimensions)}",
                    did_you_mean(name, dimensions)
                    or "Every event must say what each of the loads is: several together in a history, or in states.",
                )
        per_load = self.stress_per_load.items()
        each = [coherent_ratio(per, "stress", dimensions[one], f"stress per load of {one}") for one, per in per_load]
        if not any(each):
            raise InputError(where, f"no stress: {self}", "a stress for a load", "Leave out a spot that feels no load.")
        return np.array(each)

    def seen(self, load: Load, event: str) -> Load:
        """The same load with the one channel, named as this sum, MPa; InputError where loads do not go together."""
        factors = self.factors(load.dimensions, f"loads that act together, {self}").tolist()
        if load.gives & {"lines", "cross-spectra"}:
            gains = {name: Gain(one) for name, one in zip(self.channels, factors, strict=True)}
            return load.through(str(self), gains)

        def stress_of(named: ByName) -> FloatArray:
            parts = zip(self.channels, factors, strict=True)
            return np.asarray(sum(factor * named(name).values for name, factor in parts))

        return seen_as(load, str(self), self.channels, stress_of)

    @property
    def words(self) -> str:
        """The sum."""
        return str(self)

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The loads at that moment, and the stress that they make."""
        unit = display_unit("stress", units)
        value = float(shown(stress, "stress", units))
        numbers = f"{put_in(value)} {unit}"
        at = moment()
        parts, load, course = [], at.load, at.load.samples()
        for name, per_load in zip(self.channels, self.factors(load.dimensions, "working"), strict=True):
            load_unit = display_unit(load.dimensions[name], units)
            in_load = load_in(load_unit, load.dimensions[name])
            each = put_in(float(shown(per_load * in_load, "stress", units)))
            size = put_in(float(course.channel(name).values[at.sample]) / in_load)
            plain = load_unit in ("1", "")
            parts.append(f"{each} {unit} × {size}" if plain else f"{each} {unit}/{load_unit} × {size} {load_unit}")
        title = f"Stress of the loads there: {', '.join(self.channels)}"
        return Nominal([Step(title, "S_n = Σ s_i × F_i", " + ".join(parts), value, unit)], "S_n", numbers)

    def __str__(self) -> str:
        parts = self.stress_per_load.items()
        return " + ".join(f"{per if isinstance(per, str) else f'{number(per)} MPa'} × {name}" for name, per in parts)


def _written(name: str, per_load: Any) -> float | str:
    """A stress per load as text or number, a quantity as text with its unit; InputError for anything else."""
    if isinstance(per_load, str):
        return per_load
    if hasattr(per_load, "magnitude") and hasattr(per_load, "units"):
        return f"{float(per_load.magnitude)!r} {per_load.units:~C}"
    return checks.real_number(f"stress per load of {name}", per_load, "a stress per load, such as '38 MPa/kN'")
