"""From what was measured to the service life: check, repair, gate, count, bin, rebuild, and look beyond the measured tail."""

import numpy as np

import vivid_anvil as va
from vivid_anvil import counting as ct
from vivid_anvil import events as ev
from vivid_anvil import histories as hs
from vivid_anvil.demo import write_demo

CHANNEL = "vertical force"
folder = write_demo("larkfell-demo").parent
lap = va.read_csv(folder / "loaded_lap.csv")

# Look before counting, and repair only what must be: each step leaves its sentence in the history.
check = hs.check_history(lap)[0]
print(
    f"{check.turning_points_per_second:.0f} turning points a second, crest factor {check.crest_factor:.2f}, {check.findings}"
)
riding = hs.cut(lap, start="38 s", end="440 s")
smooth = hs.low_pass(riding, channel=CHANNEL, frequency="12 Hz")
print(smooth.repairs)

# Small cycles: how many there are, and what they would do on a curve of slope 5.
gated = ct.gate(lap[CHANNEL].values, 100.0, dimension="force")
print(f"gate of 0.1 kN: {gated.removed.total:.0f} cycles out, {gated.share_removed(5.0):.3%} of the damage")

# Other counts of the same standard.
print(
    f"range pairs {ct.range_pair(lap[CHANNEL].values).total:.0f}, simple ranges {ct.simple_range(lap[CHANNEL].values).total:.0f}"
)
print(f"highest peak {ct.peaks(lap[CHANNEL].values, check.mean).peaks[0] / 1000:.3f} kN")

# A matrix, what binning does to the damage, and a history for the test rig that has this matrix.
cycles = lap.cycles_of(CHANNEL, residue="repeated")
matrix = ct.cycle_matrix(cycles, "maximum-minimum", classes=64)
print(f"{matrix!r}: damage {ct.binning_effect(cycles, matrix, 5.0):+.2%}")
rig = ct.reconstruct(matrix, seed=1)
print(f"rig history: {rig.size} turning points, {rig.min() / 1000:.2f} to {rig.max() / 1000:.2f} kN")

# Ten years of laps from one: the residue composed right, and a tail that one lap was too short to show.
many = ev.repeated_times(lap, CHANNEL, 200_000)
print(f"{many.total:.4g} cycles in 200 000 laps")
tail = ct.fit_tail(cycles, 300.0, model="weibull")
once = tail.largest(200_000) / 1000
print(f"largest range measured {cycles.range.max() / 1000:.2f} kN, reached once in 200 000 laps {once:.2f} kN")
for finding in tail.findings(200_000, slope=5.0, largest=6000.0):
    print(finding)

# What happens between events, and a programme written on the drawing board.
programme = ev.block_programme(CHANNEL, {"maximum": [6.0, 5.0], "minimum": [1.6, 3.0], "cycles": [1, 12]}, "kN")
day = va.DutyCycle(
    "day", [va.Event("lap", lap, 40), va.Event("special ride", programme, 2)], 300, between="in the order given"
)
for source in day.sources(CHANNEL):
    print(f"{source.name}: {source.cycles.total * source.occurrences:.0f} cycles a day")

# Gauges at 0, 45 and 90 degrees under a pull in the direction of the first.
strains = hs.principal_strains([500e-6], [175e-6], [-150e-6], "0/45/90")
print(f"principal stresses {np.concatenate(hs.principal_stresses(strains, '210 GPa', 0.3)).round(1)} MPa")

va.save_figure(va.plot(tail), "tail.png")
va.save_figure(va.plot(matrix), "matrix.png")
