"""A grease hole that yields when the rope is caught: local strain beside stress-life, in the order of the events.

Run it with: python examples/where_a_notch_yields.py
"""

import tempfile
from pathlib import Path

import vivid_anvil as va
from vivid_anvil.demo import write_demo

demo = write_demo(Path(tempfile.mkdtemp()) / "demo").parent

# The steel of the pin: strain-controlled tests, their curve, and what an estimate would have said.
tests = va.read_strain_tests(demo / "pin_strain_tests.csv")
fit = va.fit_strain_life(tests, youngs_modulus="206 GPa")
curve = fit.curve(name="pin", survival_probability=0.9)
estimate = va.uniform_material_law("780 MPa")
print(f"{tests}: transition at {curve.transition_life:.0f} cycles, by the estimate {estimate.transition_life:.0f}")

# One overload and what it leaves: first loading, and back.
way = va.follow_block(curve.cyclic, [1460.0, 200.0, 650.0, 200.0], repeated=False)
print(f"Elastic 1460 MPa are {way.stress[0]:.0f} MPa; back at 200 MPa the notch is at {way.stress[1]:.0f} MPa.")

# A year with one catch on the rope brake, each event by itself and in the order given.
lap = va.read_history(demo / "loaded_lap.csv")
catch = va.ConstantAmplitude.from_range("vertical force", "9.9 kN", mean="6.55 kN", cycles=1)
steel = va.Material(name="pin steel", yield_strength="600 MPa", ultimate_strength="780 MPa")
hole = va.HotSpot(
    name="grease hole",
    relation=va.OneLoad("vertical force", "41 MPa/kN"),
    notch_factor=3.1,
    material=steel,
    method=va.LocalStrain(strain_life=curve, mean_stress="smith-watson-topper"),
)
for between in ("each by itself", "in the order given"):
    year = va.DutyCycle(
        "year", [va.Event("catch", catch), va.Event("lap", lap, 20_000)], repeats_per_year=1, between=between
    )
    life = va.assess_life(hole, year, target="30 years")
    print(f"{between}: {life}")
    print("  " + "; ".join(finding.code for finding in life.findings))
print(va.life_working(life).steps[-2])
va.save_figure(va.plot(life), "grease_hole.png")
