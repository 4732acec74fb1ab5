"""How much it matters what is assumed to happen between events."""

from __future__ import annotations

from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.damage.spectrum import spectrum
from vivid_anvil.events import BETWEEN_EVENTS
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import opened


@opened()
def between_effect(result: Life) -> dict[str, float | None]:
    """Damage of one repeat under each choice of `BETWEEN_EVENTS`; None where a choice is not possible for these events.

    >>> from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
    >>> from vivid_anvil.damage.assess import assess_life
    >>> from vivid_anvil.materials import Material, straight_curve
    >>> from vivid_anvil.damage.methods import StressLife
    >>> from vivid_anvil.stress import HotSpot, OneLoad
    >>> low = ConstantAmplitude("stress", 50.0, 0.0, 1, "stress")
    >>> high = ConstantAmplitude("stress", 150.0, 100.0, 1, "stress")
    >>> day = DutyCycle("day", [Event("low", low), Event("high", high)], repeats_per_year=300)
    >>> curve = straight_curve(name="-", stress="range", r_ratio="any", point_stress=50.0, point_life=1e6, slope=3)
    >>> spot = HotSpot(
    ...     name="toe",
    ...     relation=OneLoad("stress", 1.0),
    ...     material=Material(name="steel"),
    ...     method=StressLife(sn_curve=curve),
    ... )
    >>> effect = between_effect(assess_life(spot, day))
    >>> [round(damage * 1e6, 6) for damage in effect.values()]
    [2.0, 28.0, 28.0]
    """
    found: dict[str, float | None] = {}
    for choice in BETWEEN_EVENTS:
        try:
            duty_cycle = result.duty_cycle.counted(between=choice)
            found[choice] = float(spectrum(result.hot_spot, duty_cycle).damage().sum())
        except InputError:
            found[choice] = None
    return found
