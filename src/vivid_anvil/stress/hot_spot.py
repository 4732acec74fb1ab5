"""A hot spot: a place, the way a load becomes stress there, and the curve that holds there.

stress = notch_factor * (stress_per_load * load + offset). The relation is linear, so cycles are counted on the load,
once, and scaled. Several loads that act together are summed as stress first. The offset is a stress that is there without
load (preload, assembly, residual): no load factor moves it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from vivid_anvil.events import ChannelSum
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.materials import Material, SNCurve, SNFamily
from vivid_anvil.units import Coherent, coherent_ratio


@dataclass(frozen=True, kw_only=True, repr=False, eq=False)
class HotSpot:
    """A place where life is assessed.

    Parameters
    ----------
    name, channel : str
        The place, and the channel whose load acts on it.
    stress_per_load : float or text, or mapping
        Nominal stress for a load of 1, such as "38 MPa/kN" (a float is MPa per coherent load unit); not 0. For several loads that
        act together a mapping of their channels, such as {"weight": "40 MPa", "wind": "30 MPa"}, without `channel`.
    offset : float or text, MPa
        Nominal stress without load.
    notch_factor : float
        Kf, on the nominal stress and on the offset; at least 1.
    material : Material
    curve : SNCurve or SNFamily, optional
        A family has the effect of the mean in it. Needed for a life, not for crack growth.
    mean_stress : str
        Name of the mean-stress rule.
    compressive_mean : str
        What a compressive mean does: "ignored" counts it as 0, "credited" lets it help.
    below_knee : str
        What cycles below the last point of the curve do; "as the curve says", or a way to continue it.
    critical_sum : float
        Damage sum at which the spot counts as failed.
    order_rule : str
        A rule that knows the order of the loads, for a second life beside the linear one; "none" by default.
    order_exponents : mapping
        For the power rule: its exponent in each event, by name.
    """

    name: str
    channel: str | ChannelSum = ""
    stress_per_load: float | str | Mapping[str, float | str]
    material: Material
    curve: SNCurve | SNFamily | None = None
    offset: Coherent = Coherent("stress", default=0.0)
    notch_factor: float = 1.0
    mean_stress: str = "none"
    compressive_mean: str = "ignored"
    below_knee: str = "as the curve says"
    critical_sum: float = 1.0
    order_rule: str = "none"
    order_exponents: Mapping[str, float] = field(default_factory=dict)

    def __post_init__(self) -> None:
        where = f"hot spot {self.name}"
        checks.text("HotSpot.name", self.name)
        if isinstance(self.stress_per_load, Mapping):
            both = ChannelSum.of(self.stress_per_load)
            if self.channel not in ("", both):
                raise InputError(
                    f"{where}, channel",
                    f"{str(self.channel)!r} beside a stress per load of each of {listed(both.channels)}",
                    "one of both",
                    "Leave out the channel.",
                )
            object.__setattr__(self, "channel", both)
        else:
            checks.text(f"{where}, channel", self.channel)
        factor = checks.positive_number(f"{where}, notch_factor", self.notch_factor, "a notch factor Kf of at least 1")
        if not 1.0 <= factor < float("inf"):
            raise InputError(f"{where}, notch_factor", f"{factor:g}", "a notch factor Kf of at least 1")
        checks.positive_number(f"{where}, critical_sum", self.critical_sum, "a damage sum above 0")

    def nominal_factor(self, dimension: str) -> float:
        """Nominal stress, MPa, for a coherent unit of a load of `dimension`; not 0."""
        where = f"hot spot {self.name}, stress_per_load"
        if isinstance(self.stress_per_load, Mapping):
            return 1.0  # the sum is a stress already
        value = coherent_ratio(self.stress_per_load, "stress", dimension, where)
        if value == 0.0:
            raise InputError(where, "0", "a stress for the load", "Leave out a spot that feels no load.")
        return value

    @property
    def load_words(self) -> str:
        """What acts on the place, in words: stress per load and channel."""
        return (
            str(self.channel) if isinstance(self.channel, ChannelSum) else f"{self.stress_per_load} on {self.channel}"
        )

    def __repr__(self) -> str:
        curve = "no curve" if self.curve is None else self.curve.name
        return f"<HotSpot {self.name}: {self.load_words}, Kf = {self.notch_factor:g}, {curve}>"
