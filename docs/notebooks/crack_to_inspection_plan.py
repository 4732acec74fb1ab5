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
# # Crack to inspection plan
#
# A surface crack of 1 mm is assumed at the weld toe of the hanger. How fast does it grow, when does the part break, and when must
# somebody look?

# %%
import dataclasses

import vivid_anvil as va
from vivid_anvil import growth
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent
study = va.read_study(folder / "larkfell.toml")
crack = study.cracks[0]

# %% [markdown]
# ## Growth

# %%
grown = va.grow_crack(crack, study.duty, target=study.target_life)
grown

# %%
va.plot(grown)

# %% [markdown]
# ## The plan
#
# Inspections every year: what would be seen, and is there a chance before the end?

# %%
plan = growth.inspection_plan(grown, every="1 year")
plan

# %%
va.plot(plan)

# %% [markdown]
# ## How large may it start, and at other loads?

# %%
lives = growth.lives_over_size(grown, sizes=[0.3, 0.5, 1.0, 2.0, 4.0])
lives

# %%
for limit in growth.limits_over_load(grown, [0.8, 1.0, 1.25]):
    print(f"loads times {limit.scale:g}: limiting depth {limit.size:.2f} mm, {limit.governed_by}")

# %% [markdown]
# ## A finer method of inspection
#
# What 1.5 mm in place of 2.5 mm would be worth.

# %%
finer = va.grow_crack(dataclasses.replace(crack, detectable_size="1.5 mm"), study.duty)
print(f"look every {finer.interval_years:.2f} years, in place of {grown.interval_years:.2f}")

# %% [markdown]
# ## One step by hand

# %%
print(va.explain(grown))
