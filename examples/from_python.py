"""The demo's weld toe from Python, without a study file: history, duty cycle, curve, life, hand calculation, figure."""

import vivid_anvil as va
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent
lap = va.read_csv(folder / "loaded_lap.csv")
year = va.DutyCycle("year", [va.Event("loaded lap", lap, occurrences=20_000)], repeats_per_year=1)
weld = va.knee_curve(
    name="fillet weld", stress="range", r_ratio="any", knee_stress="52.3 MPa", knee_life=5e6, slope=3, slope_below=5
)
steel = va.Material(name="plate", ultimate_strength="510 MPa", yield_strength="355 MPa", toughness="75 MPa√m")
toe = va.HotSpot(
    name="toe",
    relation=va.OneLoad("vertical force", "24.5 MPa/kN"),
    material=steel,
    method=va.StressLife(sn_curve=weld),
)

life = va.assess_life(toe, year, target="30 years")
print(life)
print(va.explain(life))
va.save_figure(va.plot(life), folder / "toe.png")
