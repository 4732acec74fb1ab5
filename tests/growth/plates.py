"""A plate with a crack, its steel and its loads."""

from tests.spots import hot_spot
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
from vivid_anvil.growth import Crack
from vivid_anvil.materials import Material, ParisLaw
from vivid_anvil.shapes import EdgeCrack

STEEL = Material(name="steel", yield_strength="355 MPa", toughness="75 MPa√m")
LAW = ParisLaw(name="in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0, threshold="63 MPa√mm")


def crack(material=STEEL, notch_factor=1.0, **settings):
    place = hot_spot(name="toe", channel="stress", stress_per_load="1", material=material, notch_factor=notch_factor)
    return Crack(**{"hot_spot": place, "shape": EdgeCrack(60.0), "initial_size": "1 mm", "law": LAW} | settings)


def loads(high=120.0, low=20.0, cycles=2000.0):
    return DutyCycle("week", [Event("run", ConstantAmplitude("stress", high, low, cycles, "stress"))], 52.0)


def codes(result):
    return [finding.code for finding in result.findings]


def programme(*blocks, repeats_per_year=52.0):
    """Blocks (largest, smallest stress, cycles) one after another, each an event."""
    events = [
        Event(f"block {i}", ConstantAmplitude("stress", high, low, cycles, "stress"))
        for i, (high, low, cycles) in enumerate(blocks)
    ]
    return DutyCycle("week", events, repeats_per_year)
