"""A crack alone: a centre crack under a block of service stress, and how often to look for it."""

import vivid_anvil as va

service = [
    va.Event("crossing", va.ConstantAmplitude.from_range("stress", "60 MPa", r_ratio=0.2, cycles=1), 40_000),
    va.Event("overload", va.ConstantAmplitude.from_range("stress", "120 MPa", r_ratio=0.0, cycles=1), 500),
]
year = va.DutyCycle("year", service, repeats_per_year=1)
steel = va.Material(name="plate", yield_strength="355 MPa", toughness="70 MPa√m")
plate = va.HotSpot(name="plate", relation=va.OneLoad("stress", "1"), material=steel)
law = va.ParisLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 N/mm^1.5", slope=3, threshold="63 N/mm^1.5")

for width in ("120 mm", "200 mm"):
    flaw = va.Crack(hot_spot=plate, shape=va.CentreCrack(width), initial_size="2 mm", law=law, detectable_size="6 mm")
    growth = va.grow_crack(flaw, year)
    print(growth)
    print(f"  look every {growth.interval_years:.2f} years")
    va.save_figure(va.plot(growth), f"plate_{width.replace(' ', '_')}.png")
