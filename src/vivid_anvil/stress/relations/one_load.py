"""The plain relation: a stress per load on one channel."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.events.seen import seen_as
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.gain import Gain
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.units import DIMENSIONS, Coherent, UnitSystem, coherent_ratio, display_unit, factor, shown
from vivid_anvil.writing.working import put_in


@dataclass(frozen=True)
class OneLoad(Relation):
    """Nominal stress for a load of 1 on a channel, such as "38 MPa/kN" (a float is MPa per coherent load unit); not 0.

    Parameters
    ----------
    channel : str
        The channel, by its name.
    stress_per_load : float or str
        Nominal stress for the load, such as "38 MPa/kN", or MPa for one coherent unit of it; not 0.
    offset : float or text with a unit, default 0.0
        Stress that is there without load, MPa; no load factor moves it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> OneLoad("force", "30 MPa/kN", offset="12 MPa")
    OneLoad(channel='force', stress_per_load='30 MPa/kN', offset=12.0)
    """

    channel: str
    stress_per_load: float | str
    offset: Coherent = Coherent("stress", default=0.0)

    def __post_init__(self) -> None:
        checks.text("relation, channel", self.channel)

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """The one."""
        return (self.channel,)

    @property
    def counted(self) -> str:
        """The channel: its cycles are counted once and scaled."""
        return self.channel

    def per_load(self, dimension: str) -> float:
        """MPa for a coherent unit of the load; InputError for another dimension, and for 0."""
        value = coherent_ratio(self.stress_per_load, "stress", dimension, "stress_per_load")
        if value == 0.0:
            raise InputError("stress_per_load", "0", "a stress for the load", "Leave out a spot that feels no load.")
        return value

    def seen(self, load: Load, event: str) -> Load:
        """The load as nominal stress without offset."""
        per_load = self.per_load(load.dimensions[self.channel])
        if load.gives & {"lines", "cross-spectra"}:
            return load.through(str(self), {self.channel: Gain(per_load)})
        return seen_as(load, str(self), self.channels, lambda named: per_load * named(self.channel).values)

    @property
    def words(self) -> str:
        """Stress per load and channel."""
        return f"{self.stress_per_load} on {self.channel}"

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """Stress per load times load."""
        per_load, load_unit = self.per_load(dimension), display_unit(dimension, units)
        unit, in_load = display_unit("stress", units), load_in(load_unit, dimension)
        ratio = f"{put_in(float(shown(per_load * in_load, 'stress', units)))} {unit}/{load_unit}"
        return Nominal([], "s × F", f"{ratio} × {put_in(stress / per_load / in_load)} {load_unit}")


def load_in(load_unit: str, dimension: str) -> float:
    """How many coherent units of the load are one of the unit that is shown."""
    return factor(load_unit, DIMENSIONS[dimension]) if load_unit not in ("1", "") else 1.0
