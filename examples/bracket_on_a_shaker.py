"""The sensor's bracket on a tower head: from a measured acceleration to a PSD, to a life, to a test on a shaker.

python examples/bracket_on_a_shaker.py [folder for figures]
"""

import sys
from pathlib import Path

import numpy as np

import vivid_anvil as va
from vivid_anvil.damage import look_at_response, look_at_vibration
from vivid_anvil.demo import write_demo

folder = Path(sys.argv[1] if len(sys.argv) > 1 else "bracket-on-a-shaker")
write_demo(folder)

# A measured minute of the tower head (made here, of a PSD), and its PSD by averages of two seconds.
rope = va.psd_of_rows([("5 Hz", "6 dB/octave"), ("30 Hz", "0.004 g^2/Hz"), ("180 Hz", "0.004 g^2/Hz")])
made = va.synthesized(rope, "60 s", seed=3, sample_rate="2 kHz")
measured = va.LoadHistory("tower head", [va.Channel("z", made.samples, "acceleration")], made.sample_rate)
estimate = va.estimate_psd(measured, "z", segment="2 s")
low, high = estimate.confidence()
print(f"{estimate.averages:.0f} independent averages: a line lies within {low:.2f} and {high:.2f} of what is shown")

# The bend of the bracket, by hand: a mass on a spring.
bend = va.OneDegreeOfFreedom(natural_frequency="115 Hz", stress_per_acceleration="1.2 MPa/g", damping_ratio=0.015)
print(look_at_response("tower head", bend))
stress = va.InputResponses({"z": bend}).seen(va.RandomVibration({"z": estimate.psd}, "9 h"), "running").process
view = look_at_vibration(stress, name="bend", exposure="9 h", synthesis="60 s")
for one in view.formulas:
    print(f"{one.formula:>22}: {one.damage:.3g} MPa^5 a second")
print(f"rms {stress.rms:.2f} MPa, {100 * float(np.max(view.left_out)):.0f} % of the damage goes with one band")

# The study of the demo, and the test that does thirty years of it in eight hours.
study = va.read_study(folder / "sensor_bracket.toml")
repeats = study.duty.repeats_in("30 years")
some = va.Oscillators.spaced("10 Hz", "400 Hz", slope=5.0, per_octave=6, quality_factor=33.0)
service = va.damage_spectrum(study.duty, some).times(repeats).called("30 years on the tower")
test = va.tailored_test(service, "8 h", corners=["10 Hz", "40 Hz", "104 Hz", "200 Hz", "400 Hz"])
print(test)
general = va.damage_spectrum(va.read_psd(folder / "general_test.csv"), some, exposure="24 h").called("general test")
verdict = va.coverage(service, general)
print(f"The general test {'covers' if verdict.covers else 'does not cover'} the service:")
for band in verdict.bands:
    print(f"  {band.low:6.1f} to {band.high:6.1f} Hz: {band.verdict}, damage from {band.smallest:.2g} times")

for thing, name in ((estimate, "psd"), (view, "bend"), (test, "test"), (verdict, "general test")):
    va.save_figure(va.plot(thing), folder / f"{name}.png")
