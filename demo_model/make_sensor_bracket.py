"""The bracket of the position sensor on a tower head as a finite-element model: deck, run, results of the demo.

python demo_model/make_sensor_bracket.py

Needs CalculiX (the Debian package calculix-ccx). The bracket is an angle of 6 mm plate, 40 mm wide: a flange of 60 mm that is
bolted to the tower head along its lower 20 mm, an arm of 120 mm, and the sensor as a block on the last 30 mm of it. Units are mm,
N, s, t, so that modes are normalised to a modal mass of 1 t. The step asks for natural frequencies, modal stresses and
participation factors.
"""

import subprocess
from collections.abc import Callable
from pathlib import Path

HERE = Path(__file__).parent
DATA = HERE.parent / "src" / "vivid_anvil" / "demo" / "data"
FLANGE, ARM, WIDTH, PLATE, SENSOR = 60.0, 120.0, 40.0, 6.0, 24.0
SIDE = 7.5  # mm, of an element
HELD = 20.0
STEEL = (210000.0, 0.3, 7.85e-9)
BLOCK = (70000.0, 0.33, 9.6e-9)  # housing and electronics, as heavy as they are
MODES = 4

Corner = tuple[float, float, float]


class Mesh:
    """Bricks of second order on a grid of half sides; nodes are made where a brick needs them."""

    def __init__(self) -> None:
        self.nodes: dict[Corner, int] = {}
        self.bricks: dict[str, list[list[int]]] = {"STEEL": [], "SENSOR": []}

    def node(self, place: Corner) -> int:
        """The number of the node there."""
        key = (round(place[0], 6), round(place[1], 6), round(place[2], 6))
        return self.nodes.setdefault(key, len(self.nodes) + 1)

    def brick(self, low: Corner, high: Corner, part: str) -> None:
        """One brick between two corners: eight corners, then the middles of its edges."""
        middle = tuple(0.5 * (a + b) for a, b in zip(low, high, strict=True))
        at = (low, middle, high)
        corners = [(0, 0, 0), (2, 0, 0), (2, 2, 0), (0, 2, 0), (0, 0, 2), (2, 0, 2), (2, 2, 2), (0, 2, 2)]
        edges = [
            (1, 0, 0), (2, 1, 0), (1, 2, 0), (0, 1, 0), (1, 0, 2), (2, 1, 2), (1, 2, 2), (0, 1, 2),
            (0, 0, 1), (2, 0, 1), (2, 2, 1), (0, 2, 1),
        ]  # fmt: skip
        places = [(at[i][0], at[j][1], at[k][2]) for i, j, k in (*corners, *edges)]
        self.bricks[part].append([self.node(one) for one in places])

    def block(self, low: Corner, high: Corner, many: tuple[int, int, int], part: str) -> None:
        """A block in so many bricks along x, y, z."""
        step = [(b - a) / n for a, b, n in zip(low, high, many, strict=True)]
        for i in range(many[0]):
            for j in range(many[1]):
                for k in range(many[2]):
                    near = (low[0] + i * step[0], low[1] + j * step[1], low[2] + k * step[2])
                    far = (near[0] + step[0], near[1] + step[1], near[2] + step[2])
                    self.brick(near, far, part)


def bracket() -> Mesh:
    """The angle: arm along x, width along y, height along z; the outer corner is the origin."""
    made, wide = Mesh(), 6
    made.block((0.0, 0.0, -FLANGE), (PLATE, WIDTH, -PLATE), (1, wide, 8), "STEEL")
    made.block((0.0, 0.0, -PLATE), (PLATE, WIDTH, 0.0), (1, wide, 1), "STEEL")
    start = ARM - 30.0
    made.block((PLATE, 0.0, -PLATE), (start, WIDTH, 0.0), (12, wide, 1), "STEEL")
    made.block((start, 0.0, -PLATE), (ARM, WIDTH, 0.0), (4, wide, 1), "STEEL")
    made.block((start, 0.0, 0.0), (ARM, WIDTH, SENSOR), (4, wide, 2), "SENSOR")
    return made


def lines_of(numbers: list[int], width: int = 12) -> str:
    """Numbers in lines that a deck takes."""
    rows = [", ".join(str(one) for one in numbers[i : i + width]) for i in range(0, len(numbers), width)]
    return ",\n".join(rows)


def deck(mesh: Mesh) -> str:
    """The input deck."""
    near: Callable[[Corner], bool] = lambda place: place[2] <= HELD - FLANGE + 1e-6 and place[0] <= 1e-6  # noqa: E731
    held = [number for place, number in mesh.nodes.items() if near(place)]
    text = ["*HEADING", "Bracket of a position sensor on a tower head of the Larkfell chairlift (made up); mm, N, s, t"]
    text += ["*NODE, NSET=ALL", *(f"{n}, {x:.6f}, {y:.6f}, {z:.6f}" for (x, y, z), n in mesh.nodes.items())]
    number = 0
    for part, bricks in mesh.bricks.items():
        text.append(f"*ELEMENT, TYPE=C3D20R, ELSET={part}")
        for nodes in bricks:
            number += 1
            text.append(f"{number}, {lines_of(nodes[:10])},\n{lines_of(nodes[10:])}")
    text += ["*NSET, NSET=HELD", lines_of(held)]
    for name, (young, poisson, density) in (("STEEL", STEEL), ("SENSOR", BLOCK)):
        text += [f"*MATERIAL, NAME={name}", "*ELASTIC", f"{young}, {poisson}", "*DENSITY", f"{density}"]
        text += [f"*SOLID SECTION, ELSET={name}, MATERIAL={name}"]
    text += ["*BOUNDARY", "HELD, 1, 3", "*STEP", "*FREQUENCY", f"{MODES}", "*EL FILE", "S", "*END STEP"]
    return "\n".join(text) + "\n"


def main() -> None:
    """Write the deck, run it, keep its results."""
    path = HERE / "sensor_bracket.inp"
    path.write_text(deck(bracket()), encoding="utf-8")
    subprocess.run(["ccx", "-i", path.stem], cwd=HERE, check=True, capture_output=True)
    for ending in (".frd", ".dat"):
        (HERE / f"sensor_bracket{ending}").replace(DATA / f"sensor_bracket{ending}")
    for ending in (".sta", ".cvg", ".12d", ".eig"):
        (HERE / f"sensor_bracket{ending}").unlink(missing_ok=True)
    (HERE / "spooles.out").unlink(missing_ok=True)
    print("Written:", DATA / "sensor_bracket.frd")


if __name__ == "__main__":
    main()
