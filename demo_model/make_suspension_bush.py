"""The rubber bush of a suspension joint as a finite-element model: deck, run, results of the demo.

python demo_model/make_suspension_bush.py

Needs CalculiX (the Debian package calculix-ccx). The bush is a ring of rubber, 8 to 18 mm in radius and 24 mm long at both bonds,
its free faces hollow, bonded to the pin inside and to the housing outside; the half above its middle plane is modelled. The pin
is pushed down (y) and sideways (x): first where assembly and dead weight put it, then round once as in a lap of the chair; in
another run up to an emergency stop. Deformations are large: strains are Green and Lagrange's. Units are mm, N, MPa. The rubber is
that of the card bushing-rubber-60.
"""

import math
import subprocess
from pathlib import Path

from vivid_anvil.models import read_strain_field

HERE = Path(__file__).parent
DATA = HERE.parent / "src" / "vivid_anvil" / "demo" / "data"
INNER, OUTER, HALF = 8.0, 18.0, 12.0
HOLLOW = 4.0  # mm, of the free face in its middle: a bond that ends square tears there
AROUND, ACROSS, ALONG = 20, 4, 3
UPPER = 649  # the node of the free face above the pin whose strains stand in tables of their own
C10, C01, BULK = 0.45, 0.08, 2000.0
Place = tuple[float, float]  # of the pin, mm: x sideways, y down is negative
LAP = [
    (0.0, -0.4),
    (0.0, -0.8),
    *((1.0 * math.sin(t), -1.5 + 0.7 * math.cos(t)) for t in (2.0 * math.pi * k / 12 for k in range(1, 13))),
]
STOP = [(0.3, -0.9), (0.6, -1.3), (0.9, -1.7), (1.1, -2.1), (1.3, -2.5)]
# node of a brick of second order: half steps along radius, turn, length
CORNERS = [(0, 0, 0), (2, 0, 0), (2, 2, 0), (0, 2, 0), (0, 0, 2), (2, 0, 2), (2, 2, 2), (0, 2, 2)]
MIDDLES = [
    (1, 0, 0), (2, 1, 0), (1, 2, 0), (0, 1, 0), (1, 0, 2), (2, 1, 2), (1, 2, 2), (0, 1, 2),
    (0, 0, 1), (2, 0, 1), (2, 2, 1), (0, 2, 1),
]  # fmt: skip


def deck(pin: list[Place], name: str) -> str:
    """The input deck of one run: the pin goes from place to place, a result at each; and the nodes of the free face."""
    numbers: dict[tuple[int, int, int], int] = {}

    def node(i: int, j: int, k: int) -> int:
        return numbers.setdefault((i, j % (2 * AROUND), k), len(numbers) + 1)

    bricks = [
        [node(2 * i + a, 2 * j + b, 2 * k + c) for a, b, c in (*CORNERS, *MIDDLES)]
        for i in range(ACROSS)
        for j in range(AROUND)
        for k in range(ALONG)
    ]
    rows = []
    for (i, j, k), number in numbers.items():
        radius, turn = INNER + (OUTER - INNER) * i / (2 * ACROSS), math.pi * j / AROUND
        height = HALF - HOLLOW * 4.0 * i * (2 * ACROSS - i) / (2 * ACROSS) ** 2
        x, y, z = radius * math.cos(turn), radius * math.sin(turn), height * k / (2 * ALONG)
        rows.append(f"{number}, {x:.6f}, {y:.6f}, {z:.6f}")
    face = [n for (i, _, k), n in numbers.items() if k == 2 * ALONG and 0 < i < 2 * ACROSS]
    sets = {
        "PIN": [n for (i, _, _), n in numbers.items() if i == 0],
        "HOUSING": [n for (i, _, _), n in numbers.items() if i == 2 * ACROSS],
        "MIDDLE": [n for (_, _, k), n in numbers.items() if k == 0],
    }
    (DATA / "suspension_bush_sets.csv").write_text(
        "node,set\n" + "".join(f"{n},free face\n" for n in sorted(face)), encoding="utf-8"
    )
    text = ["*HEADING", f"{name} of a rubber bush of the Larkfell chairlift (made up); mm, N, MPa"]
    text += ["*NODE, NSET=ALL", *rows, "*ELEMENT, TYPE=C3D20R, ELSET=RUBBER"]
    for number, nodes in enumerate(bricks, 1):
        text.append(f"{number}, {', '.join(map(str, nodes[:10]))},\n{', '.join(map(str, nodes[10:]))}")
    for of, nodes in sets.items():
        lines = [", ".join(map(str, nodes[i : i + 12])) for i in range(0, len(nodes), 12)]
        text += [f"*NSET, NSET={of}", ",\n".join(lines)]
    text += ["*MATERIAL, NAME=RUBBER", "*HYPERELASTIC, MOONEY-RIVLIN", f"{C10}, {C01}, {2.0 / BULK}"]
    text += ["*SOLID SECTION, ELSET=RUBBER, MATERIAL=RUBBER"]
    for axis, label in enumerate("XY"):
        course = [(0.0, 0.0), *((float(step), place[axis]) for step, place in enumerate(pin, 1))]
        text += [f"*AMPLITUDE, NAME={label}", ",\n".join(f"{time:.1f}, {value:.6f}" for time, value in course)]
    text += ["*TIME POINTS, NAME=STATES, GENERATE", f"1.0, {len(pin)}.0, 1.0"]
    text += ["*STEP, NLGEOM, INC=2000", "*STATIC", f"0.25, {len(pin)}.0, 1e-4, 0.5"]
    text += ["*BOUNDARY", "HOUSING, 1, 3, 0.0", "PIN, 3, 3, 0.0", "MIDDLE, 3, 3, 0.0"]
    text += ["*BOUNDARY, AMPLITUDE=X", "PIN, 1, 1, 1.0", "*BOUNDARY, AMPLITUDE=Y", "PIN, 2, 2, 1.0"]
    text += ["*EL FILE, TIME POINTS=STATES", "E", "*END STEP"]
    return "\n".join(text) + "\n"


def table(name: str, heading: str, states: list[str], node: int) -> None:
    """The strains of one node in every state as a table."""
    field = read_strain_field(DATA / f"{name}.frd", measure="green-lagrange", strain_unit="mm/mm", length_unit="mm")
    place = field.place_of(node)
    rows = [f"{heading},{','.join(f'{one} [-]' for one in ('xx', 'yy', 'zz', 'xy', 'yz', 'zx'))}"]
    for state, strain in zip(states, field.stresses[:, place], strict=True):
        rows.append(f"{state},{','.join(f'{one:.6g}' for one in strain)}")
    (DATA / f"{name}_upper.csv").write_text("\n".join(rows) + "\n", encoding="utf-8")


def main() -> None:
    """Write the decks, run them, keep their results."""
    for name, pin in (("suspension_bush_lap", LAP), ("suspension_bush_stop", STOP)):
        (HERE / f"{name}.inp").write_text(deck(pin, name), encoding="utf-8")
        subprocess.run(["ccx", "-i", name], cwd=HERE, check=True, capture_output=True)
        (HERE / f"{name}.frd").replace(DATA / f"{name}.frd")
        for ending in (".sta", ".cvg", ".12d", ".dat"):
            (HERE / f"{name}{ending}").unlink(missing_ok=True)
        (HERE / "spooles.out").unlink(missing_ok=True)
        print("Written:", DATA / f"{name}.frd")
    table("suspension_bush_lap", "state", [str(i) for i in range(1, len(LAP) + 1)], UPPER)
    table("suspension_bush_stop", "sink [mm]", [f"{-place[1]:g}" for place in STOP], UPPER)


if __name__ == "__main__":
    main()
