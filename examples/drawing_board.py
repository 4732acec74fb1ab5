"""A stress from the drawing board: constant amplitude, no history; how the mean stress and the notch shorten the life."""

import vivid_anvil as va

SHAFT = va.knee_curve(
    name="shaft", stress="amplitude", r_ratio=-1, knee_stress="240 MPa", knee_life=1e6, slope=8, slope_below=15
)
STEEL = va.Material(name="quenched and tempered", ultimate_strength="900 MPa", yield_strength="700 MPa")

lives = []
for name, r_ratio in (("fully reversed", -1.0), ("pulsating from zero", 0.0)):
    load = va.ConstantAmplitude.from_amplitude("force", "4 kN", r_ratio=r_ratio, cycles=1000, frequency="5 Hz")
    shift = va.DutyCycle("shift", [va.Event(name, load)], repeats_per_year=500)
    for notch_factor in (1.0, 1.4):
        spot = va.HotSpot(
            name=f"{name}, Kf = {notch_factor}",
            relation=va.OneLoad("force", "40 MPa/kN"),
            notch_factor=notch_factor,
            material=STEEL,
            method=va.StressLife(sn_curve=SHAFT, mean_stress="goodman"),
        )
        lives.append(va.assess_life(spot, shift, target="20 years"))
        print(lives[-1])

va.save_figure(va.plot(lives[-1]), "pulsating_notched.png")
