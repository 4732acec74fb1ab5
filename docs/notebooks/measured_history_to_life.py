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
# # Measured history to life
#
# A force was measured on the hanger of a chairlift. How long does the weld toe at its grip last, and what
# if the loads were higher?

# %%
import vivid_anvil as va
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent

# %% [markdown]
# ## What was measured
#
# A history shows itself as a table, `va.plot` draws it. Before it is used it is checked: clipped peaks, spikes, drift, a
# rate that cuts peaks off.

# %%
lap = va.read_csv(folder / "loaded_lap.csv")
lap

# %%
va.check_history(lap)[0]

# %%
va.plot(lap)

# %% [markdown]
# ## Its cycles

# %%
cycles = lap.cycles_of("vertical force", residue="repeated")
cycles.to_frame().nlargest(8, "range [N]")

# %%
va.plot(va.cycle_matrix(cycles, "maximum-minimum", classes=40))

# %% [markdown]
# ## The duty cycle, the place, the life
#
# 20 000 laps a year, a fillet weld by its class, and the stress for the force from the drawing.

# %%
year = va.DutyCycle("year", [va.Event("loaded lap", lap, occurrences=20_000)], repeats_per_year=1)
toe = va.HotSpot(
    name="weld toe",
    relation=va.OneLoad("vertical force", "24.5 MPa/kN"),
    material=va.Material(name="plate", ultimate_strength="510 MPa", yield_strength="355 MPa"),
    method=va.StressLife(sn_curve=va.detail_curve("EN 1993-1-9", 71)),
)
life = va.assess_life(toe, year, target="30 years")
life

# %%
va.plot(life)

# %% [markdown]
# ## By hand
#
# Each line can be redone with a pocket calculator.

# %%
print(va.explain(life))

# %% [markdown]
# ## What if
#
# The same study as a file, in which any value can be varied.

# %%
study = va.read_study(folder / "larkfell.toml")
variants = va.what_if(study, "load scale", [0.8, 0.9, 1.0, 1.1, 1.2], spot="weld toe at the grip head")
variants

# %%
va.plot(variants)
