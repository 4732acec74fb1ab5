"""A solver in the loop: a bar of glass fibre that is held at both ends hands its moments on as its root softens.

python examples/laminate_with_a_solver.py

Clamped at its root and laid on the frame of the carrier at its end, the bar is statically indeterminate: as plies crack at the
root, moments move to the span. At stations of its life the stiffness that is left of every element goes to CalculiX (`ccx`),
which returns new moments; where it is not installed, the same beam is solved here by its flexibility.
"""

import shutil
import subprocess
import tempfile
from pathlib import Path

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.models import read_frd
from vivid_anvil.progress import ProgressSettings, laminates_progress
from vivid_anvil.stress.laminates import Laminate
from vivid_anvil.study import read_card_named

LENGTH, WIDTH, FORCE = 520.0, 60.0, 600.0  # mm, N over the whole length
ELEMENTS, LEANINGS = 13, 840_000  # in a season
glass = read_card_named("glass-epoxy-ply").ply_there
bar = Laminate(name="bar", layup="[±45/0_3/90/0]s", ply=glass, ply_thickness="0.6 mm", temperature_change="-90 K")
places = (np.arange(ELEMENTS) + 0.5) * LENGTH / ELEMENTS  # middles of the elements, from the root


def flexural_modulus(stiffness):
    """Young's modulus of a solid bar that bends as each laminate does, MPa."""
    return 12.0 / (bar.thickness**3 * np.linalg.inv(stiffness)[:, 3, 3])


def by_flexibility(moduli):
    """Moments per width in the middle of each element, N·mm/mm: cantilever, and the force of the support at its end."""
    x = np.linspace(0.0, LENGTH, 40 * ELEMENTS + 1)
    middle, step = 0.5 * (x[1:] + x[:-1]), np.diff(x)
    soft = step / moduli[np.minimum((middle / (LENGTH / ELEMENTS)).astype(int), ELEMENTS - 1)]
    arm = LENGTH - middle
    load = FORCE / LENGTH
    support = (0.5 * load * arm**2 * arm * soft).sum() / (arm**2 * soft).sum()
    rest = LENGTH - places
    return (0.5 * load * rest**2 - support * rest) / WIDTH


def by_calculix(moduli):
    """The same by a row of 20-node bricks: the stress of the top, which is that of the moment."""
    half, size, numbers, deck = 0.5 * bar.thickness, LENGTH / ELEMENTS, {}, ["*NODE"]

    def node(x, y, z):
        key = (round(x, 6), round(y, 6), round(z, 6))
        if key not in numbers:
            numbers[key] = len(numbers) + 1
            deck.append(f"{numbers[key]}, {key[0]}, {key[1]}, {key[2]}")
        return numbers[key]

    corners = [(0, 0, -1), (1, 0, -1), (1, 1, -1), (0, 1, -1), (0, 0, 1), (1, 0, 1), (1, 1, 1), (0, 1, 1)]
    edges = [(0, 1), (1, 2), (2, 3), (3, 0), (4, 5), (5, 6), (6, 7), (7, 4), (0, 4), (1, 5), (2, 6), (3, 7)]
    bricks, tops = [], []
    for i in range(ELEMENTS):
        at = np.array([((i + a) * size, b * WIDTH, c * half) for a, b, c in corners])
        own = [node(*place) for place in at] + [node(*(0.5 * (at[a] + at[b]))) for a, b in edges]
        bricks.append(own)
        tops.append(own[12])  # in the middle of the upper edge: it belongs to this element alone
    for i, (own, modulus) in enumerate(zip(bricks, moduli, strict=True), 1):
        deck += [
            f"*ELEMENT, TYPE=C3D20R, ELSET=E{i}",
            f"{i}, {', '.join(map(str, own[:15]))},",
            ", ".join(map(str, own[15:])),
        ]
        deck += [
            f"*MATERIAL, NAME=M{i}",
            "*ELASTIC",
            f"{modulus:.6f}, 0.0",
            f"*SOLID SECTION, ELSET=E{i}, MATERIAL=M{i}",
        ]
    root = [n for (x, _, _), n in numbers.items() if x == 0.0]
    end = [n for (x, _, z), n in numbers.items() if x == LENGTH and z == 0.0]
    deck += [
        "*BOUNDARY",
        *(f"{n}, 1, 3, 0.0" for n in root),
        *(f"{n}, 3, 3, 0.0" for n in end),
        "*STEP",
        "*STATIC",
        "*DLOAD",
    ]
    deck += [f"{i}, P2, {FORCE / (LENGTH * WIDTH):.9f}" for i in range(1, ELEMENTS + 1)]
    deck += ["*EL FILE", "S", "*END STEP"]
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "bar.inp").write_text("\n".join(deck) + "\n")
        subprocess.run(["ccx", "bar"], cwd=folder, check=True, capture_output=True)
        field = read_frd(Path(folder) / "bar.frd", stress_unit="MPa", length_unit="mm")
    stress = np.array([field.stresses[0][field.place_of(top), 0] for top in tops])
    return stress * bar.thickness**2 / 6.0


solve = by_calculix if shutil.which("ccx") else by_flexibility
print(f"Moments by {'CalculiX' if solve is by_calculix else 'the flexibility of the beam'}.")
seen = []


def loads_of(stiffness):
    """Loads at both ends of the one class of cycles, for the stiffness that is left of every element."""
    moments = solve(flexural_modulus(stiffness))
    seen.append(moments)
    ends = np.zeros((ELEMENTS, 1, 2, 6))
    ends[:, 0, 0, 3] = moments
    return ends


sound = np.repeat(bar.full.abd[None], ELEMENTS, axis=0)
first = loads_of(sound)
off = np.abs(seen[0] - by_flexibility(flexural_modulus(sound))).max() / np.abs(seen[0]).max()
print(
    f"Sound: {seen[0][0]:.1f} N·mm/mm beside the root, {seen[0].min():.1f} in the span; {off:.1%} from the flexibility."
)

how = ProgressSettings(jump_error=1e-3)
stations = np.geomspace(0.1, 1e4, 16)
kept = laminates_progress(bar, first, [LEANINGS], how, stations=[stations[-1]])
moved = laminates_progress(bar, first, [LEANINGS], how, stations=stations, moved=loads_of)
print(f"Beside the root the first failure comes after {kept.matrix[0]:.3g} seasons with its moment kept,")
print(f"after {moved.matrix[0]:.3g} where moments move: {seen[-1][0]:.1f} N·mm/mm beside the root at the last station.")
cracked = [int(np.isfinite(one.matrix).sum()) for one in (kept, moved)]
left = [float(one.stiffness[0]) for one in (kept, moved)]
print(
    f"After {stations[-1]:g} seasons {cracked[0]} elements have cracked with moments kept, {cracked[1]} with moments that move;"
)
print(f"left of the stiffness beside the root: {left[0]:.1%} and {left[1]:.1%}.")

picture = Figure(figsize=(12.8, 8.0), layout="constrained")
axes = picture.add_subplot(xlabel="element, from the root", ylabel="bending moment [N·mm/mm]")
for moments, label in ((seen[0], "sound"), (seen[-1], f"after {stations[-1]:g} seasons")):
    axes.plot(moments, marker="o", label=label)
axes.legend()
picture.savefig("moments.png")
