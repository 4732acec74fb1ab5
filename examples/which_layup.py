"""The same fourteen plies in three orders: when the first ply cracks, where, and what static load each bears.

Run it with: python examples/which_layup.py

Moments per width at the root of a bar of glass fibre, from a beam by hand; laps from the demo's history of the force.
"""

import tempfile
from pathlib import Path

import vivid_anvil as va
from vivid_anvil.demo import write_demo

demo = write_demo(Path(tempfile.mkdtemp()) / "demo").parent
lap = va.read_history(demo / "leaning_lap.csv")
season = va.DutyCycle("season", [va.Event("leaning lap", lap, occurrences=60_000)], repeats_per_year=1)
glass = va.read_card_named("glass-epoxy-ply").ply_there

# 100 N on the bar make 92 N·mm/mm of bending at its root, and a tenth of that in torsion.
root = va.SectionLoads(
    loads=va.CaseLoads([va.CaseLoad(case="bar force", channel="bar force", unit_load="100 N")]),
    unit=[[0.0, 0.0, 0.0, 92.0, 0.0, 9.0]],  # nx, ny, nxy, N/mm; mx, my, mxy, N·mm/mm
)


def life_of(layup, rule="together"):
    """At the root, to the first failure of a ply, and followed on to the end."""
    bar = va.Laminate(name=layup, layup=layup, ply=glass, ply_thickness="0.6 mm", temperature_change="-90 K")
    place = va.HotSpot(
        name=f"root, {layup}",
        relation=root,
        material=va.Material(name="glass"),
        method=va.PlyFatigue(laminate=bar, rule=rule, static="Puck"),
    )
    return va.assess_life(place, season, target="15 years")


lives = {layup: life_of(layup) for layup in ("[±45/0_3/90/0]s", "[0_3/±45/90/0]s", "[0_3/90/0/±45]s")}
for layup, life in lives.items():
    told = dict(life.words("metric"))
    print(f"{layup}: {life.life_years:,.0f} years")
    print(f"  {told['First failure']}")
    print(f"  {told['Static']}")

best = max(lives.values(), key=lambda life: life.life_years)
print(
    f"{best.hot_spot.name}: by the rule 'apart' {life_of(best.hot_spot.method.laminate.name, 'apart').life_years:,.0f} years"
)
print("; ".join(finding.code for finding in best.findings))
va.save_figure(va.plot(next(iter(lives.values()))), "root.png")  # as the demo has it
