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
# # Vibration to test
#
# A bracket shakes with the head of a tower. What stress does that make, how long does it last, and which test on a shaker
# shows it in eight hours?

# %%
import vivid_anvil as va
from vivid_anvil.damage import look_at_response, look_at_vibration
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent
study = va.read_study(folder / "sensor_bracket.toml")
study.duty

# %% [markdown]
# ## The response
#
# A mass on a spring, its static stress from the drawing.

# %%
bend = va.OneDegreeOfFreedom(natural_frequency="115 Hz", stress_per_acceleration="1.2 MPa/g", damping_ratio=0.015)
response = look_at_response("tower head", bend)
response

# %%
va.plot(response)

# %% [markdown]
# ## The stress
#
# All formulas for expected cycles side by side, with a counted synthesis; which band does the damage.

# %%
rope = va.psd_of_rows(
    [("5 Hz", "6 dB/octave"), ("30 Hz", "0.004 g^2/Hz"), ("180 Hz", "0.004 g^2/Hz"), ("500 Hz", "-9 dB/octave")]
)
stress = va.InputResponses({"z": bend}).seen(va.RandomVibration({"z": rope}, "9 h"), "running").process
view = look_at_vibration(stress, name="bend", exposure="9 h", synthesis="60 s")
view

# %%
va.plot(view)

# %% [markdown]
# ## The life

# %%
life = va.run_study(study).lives[0]
life

# %% [markdown]
# ## The test
#
# The damage of thirty years to oscillators of any natural frequency, and the test that does as much in eight hours.

# %%
some = va.Oscillators.spaced("10 Hz", "400 Hz", slope=5.0, per_octave=6, quality_factor=33.0)
service = va.damage_spectrum(study.duty, some).times(study.duty.repeats_in("30 years")).called("30 years on the tower")
test = va.tailored_test(service, "8 h", corners=["10 Hz", "40 Hz", "104 Hz", "200 Hz", "400 Hz"])
test

# %%
va.plot(test)

# %% [markdown]
# Is the general test that somebody offers enough?

# %%
general = va.damage_spectrum(va.read_psd(folder / "general_test.csv"), some, exposure="24 h").called("general test")
verdict = va.coverage(service, general)
verdict

# %%
va.plot(verdict)
