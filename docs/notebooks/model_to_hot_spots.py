# ---
# jupyter:
#   jupytext:
#     text_representation:
#       extension: .py
#       format_name: percent
#   kernelspec:
#     display_name: Python 3
#     language: python
#     name: python3
# ---

# %% [markdown]
# # FE model to hot spots
#
# The head of the hanger as a finite-element model: stresses of two unit loads, a lap with both forces. Where does it fail first,
# and can that be trusted?

# %%
import vivid_anvil as va
from vivid_anvil import fields, models
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent

# %% [markdown]
# ## The model

# %%
head = models.read_frd(folder / "hanger_head.frd", stress_unit="MPa", length_unit="mm", cases=["vertical", "lateral"])
head = models.with_boxes(head, {"held end": {"y": [-120.0, -88.0]}})
head

# %% [markdown]
# ## Its loads
#
# Each case was computed at its unit load; the measured forces scale it.

# %%
lap = va.read_csv(folder / "two_forces_lap.csv")
va.plot(lap)

# %%
loads = fields.CaseLoads(
    [
        fields.CaseLoad(case="vertical", channel="vertical force", unit_load="10 kN"),
        fields.CaseLoad(case="lateral", channel="lateral force", unit_load="2 kN"),
    ]
)
year = va.DutyCycle("year", [va.Event("lap", lap, occurrences=20_000)], repeats_per_year=1)
cut_edge = va.straight_curve(
    name="cut edge", stress="range", r_ratio="any", point_stress="125 MPa", point_life=2e6, slope=3
)
steel = va.Material(name="plate steel", yield_strength="355 MPa", ultimate_strength="510 MPa")
spot = va.HotSpot(name="hanger head", material=steel, method=va.StressLife(sn_curve=cut_edge))

# %% [markdown]
# ## Life at every node

# %%
by_measure = {
    measure: fields.assess_model(head, loads, year, spot, measure=measure, leave_out=["held end"], target="30 years")
    for measure in ("absolute maximum principal", "signed von Mises, principal")
}
model = by_measure["signed von Mises, principal"]
places = fields.hottest_places(model, 4, apart="12 mm")
model

# %%
va.plot(fields.ModelView(model, "corner", places))

# %% [markdown]
# ## Can it be trusted?
#
# The findings of the first measure say that shear governs at its worst node, and that directions turn there.

# %%
first = by_measure["absolute maximum principal"]
for finding in fields.model_findings(first, fields.hottest_places(first, 4, apart="12 mm")):
    print(finding)

# %% [markdown]
# At the nodes found the plane that is damaged most is looked for. Where the components move in step both agree; where directions
# turn, a signed stress adds up swings that no single plane sees, and its life is far too short.

# %%
few = head.part([head.place_of(place.node) for place in places])
planes = fields.critical_planes(few, loads, year, spot, step_degrees=10.0)
for place, years in zip(places, planes.life_years, strict=True):
    print(f"node {place.node}: {place.life_years:.3g} years by signed von Mises, {years:.3g} years on its worst plane")

# %% [markdown]
# ## One node in full

# %%
worst = fields.node_life(model, places[0].node)
worst

# %%
va.plot(worst)
