"""A static analysis of the bracket on a tower head: stresses of load cases, a table of events and factors, a life."""

import vivid_anvil as va

STRESS_AT_THE_TOE = {"weight": "22 MPa", "sheave load": "61 MPa", "wind": "34 MPa"}  # of each case at factor 1
EVENTS = {  # factors on the cases, one event a row; a list goes through its values; how often a year
    "carrier passes": ({"weight": 1, "sheave load": [0.4, 1.0]}, 240_000),
    "carrier passes in wind": ({"weight": 1, "sheave load": [0.4, 1.0], "wind": [0.3, 0.6]}, 60_000),
    "gusts": ({"weight": 1, "sheave load": 0.4, "wind": [-0.8, 1.0, -0.2, 0.7]}, 4_000),
}

year = va.DutyCycle(
    "year",
    [va.Event(name, va.LoadStates.of(states, cycles=often)) for name, (states, often) in EVENTS.items()],
    repeats_per_year=1,
)
toe = va.HotSpot(
    name="toe of the bracket",
    relation=va.SeveralLoads(STRESS_AT_THE_TOE),
    material=va.Material(name="plate", ultimate_strength="510 MPa", yield_strength="355 MPa"),
    method=va.StressLife(sn_curve=va.detail_curve("EN 1993-1-9", 71)),
)
life = va.assess_life(toe, year, target="30 years")
print(life)
for event in life.events:
    print(f"  {event.name}: {event.share:.1%} of the damage")
print(va.explain(life))
va.save_figure(va.plot(life), "toe_of_the_bracket.png")
