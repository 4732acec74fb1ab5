"""Rubber that is never let go: why the same stroke on top of a preload lives longer, and how much the first flaw decides.

Run it with: python examples/rubber_that_never_relaxes.py

A place on the upper face of a bush, with its strains at five values of the stroke from a model of large deformation. Rubber that
crystallises when it is stretched closes the tip of a flaw as long as it is not let go: its growth goes with R too.
"""

import tempfile
from dataclasses import replace
from pathlib import Path

import vivid_anvil as va
from vivid_anvil.demo import write_demo

demo = write_demo(Path(tempfile.mkdtemp()) / "demo").parent
states = va.read_strain_states(demo / "suspension_bush_stop_upper.csv", measure="green-lagrange")
print(f"{states.words}")

# A rubber of one's own: sheets gave the law of stress and strain, strips the growth of a flaw when let go in each cycle.
rubber = va.Rubber(
    name="bush",
    law=va.MooneyRivlin(name="bush", c10="0.45 MPa", c01="0.08 MPa", stretches_tested=[0.6, 2.2]),
    growth=va.PowerTearing(
        name="bush", rate="3e-3 mm/cycle", at="10 kJ/m^2", slope=2.0, r_effect="crystallising", slope_rise=1.5
    ),
    initial_flaw="0.04 mm",
    end_flaw="1 mm",
)


def life_of(lowest, rubber):
    """Of a stroke to 2 mm that comes back to `lowest`, 20 000 times a year."""
    place = va.HotSpot(
        name="upper face",
        relation=states,
        material=va.Material(name="rubber"),
        method=va.CrackingEnergy(rubber=rubber, surface_normal=(0.0, 0.0, 1.0)),
    )
    stroke = va.ConstantAmplitude.from_maximum("sink", "2 mm", minimum=lowest, cycles=20_000)
    return va.assess_life(
        place, va.DutyCycle("year", [va.Event("stroke", stroke)], repeats_per_year=1), target="8 years"
    )


for lowest in ("0 mm", "0.5 mm", "1 mm"):
    life = life_of(lowest, rubber)
    other = life_of(lowest, replace(rubber, growth=replace(rubber.growth, r_effect="range", slope_rise=None)))
    print(f"{lowest} to 2 mm: {life.life_years:.3g} years; if it did not crystallise {other.life_years:.3g} years")
    print("  " + "; ".join(finding.code for finding in life.findings))
for flaw in ("0.02 mm", "0.06 mm"):
    print(f"a first flaw of {flaw}: {life_of('0.5 mm', replace(rubber, initial_flaw=flaw)).life_years:.3g} years")

life = life_of("0.5 mm", rubber)
print(dict(life.words("metric"))["Plane"])
print(va.life_working(life).steps[-1])
va.save_figure(va.plot(life), "upper_face.png")
