"""The bore of the hanger's head in a wide plate: a model of which the exact answer is known, for the verification page.

python demo_model/make_bore_check.py

Needs what `make_hanger_head.py` needs. A quarter of a plate of 320 mm by 320 mm, half of its 8 mm, with the bore of 14 mm and
elements as large there as in the head, under a tension of 50 MPa along y.
"""

import subprocess
from pathlib import Path

import gmsh
import numpy as np
from make_hanger_head import BORE, POISSON, THICKNESS, YOUNG, stresses_only

HERE = Path(__file__).parent
RESULT = HERE.parent / "tests" / "fields" / "data" / "bore_in_wide_plate.frd"
NAME, SIDE, TENSION = "bore_check", 160.0, 50.0


def mesh() -> tuple[np.ndarray, np.ndarray, np.ndarray, dict[int, float]]:
    """Node numbers, coordinates, tetrahedra of second order, and the area that pulls at each node of the end."""
    gmsh.initialize()
    gmsh.option.setNumber("General.Terminal", 0)
    gmsh.model.add("bore in a wide plate")
    geo = gmsh.model.occ
    plate = geo.addBox(0.0, 0.0, 0.0, SIDE, SIDE, 0.5 * THICKNESS)
    geo.cut([(3, plate)], [(3, geo.addCylinder(0.0, 0.0, 0.0, 0.0, 0.0, 0.5 * THICKNESS, BORE))])
    geo.synchronize()
    gmsh.model.mesh.field.add("MathEval", 1)
    gmsh.model.mesh.field.setString(1, "F", f"2.0 + 0.25*Abs(Sqrt(x*x+y*y)-{BORE})")
    gmsh.model.mesh.field.setAsBackgroundMesh(1)
    gmsh.model.mesh.generate(3)
    gmsh.model.mesh.setOrder(2)
    numbers, flat, _ = gmsh.model.mesh.getNodes()
    where = dict(zip(numbers.tolist(), flat.reshape(-1, 3), strict=True))
    _, volume = gmsh.model.mesh.getElementsByType(11)
    pulling: dict[int, float] = {}
    for _, tag in gmsh.model.getEntities(2):
        _, _, found = gmsh.model.mesh.getElements(2, tag)
        for row in found[0].reshape(-1, 6).tolist() if found else []:
            a, b, c = (where[n] for n in row[:3])
            if np.isclose([a[1], b[1], c[1]], SIDE).all():
                area = 0.5 * float(np.linalg.norm(np.cross(b - a, c - a)))
                for middle in row[3:]:  # an even pull goes to the middles of the edges alone
                    pulling[middle] = pulling.get(middle, 0.0) + area / 3.0
    gmsh.finalize()
    tets = volume.reshape(-1, 10)[:, [0, 1, 2, 3, 4, 5, 6, 7, 9, 8]]  # last two edges the other way round
    used = np.unique(tets)
    return used.astype(int), np.array([where[n] for n in used.tolist()]), tets.astype(int), pulling


def deck(numbers: np.ndarray, places: np.ndarray, tets: np.ndarray, pulling: dict[int, float]) -> str:
    """The input deck."""
    lines = ["*HEADING", "Bore in a wide plate; mm, N, MPa", "*NODE, NSET=ALL"]
    lines += [f"{n}, {x:.6f}, {y:.6f}, {z:.6f}" for n, (x, y, z) in zip(numbers, places, strict=True)]
    lines.append("*ELEMENT, TYPE=C3D10, ELSET=PLATE")
    lines += [f"{i}, " + ", ".join(map(str, row)) for i, row in enumerate(tets, 1)]
    for axis in range(3):
        lines += [f"*NSET, NSET=MIDDLE{axis + 1}", *(f"{n}," for n in numbers[np.isclose(places[:, axis], 0.0)])]
    lines += ["*MATERIAL, NAME=STEEL", "*ELASTIC", f"{YOUNG}, {POISSON}", "*SOLID SECTION, ELSET=PLATE, MATERIAL=STEEL"]
    lines += ["*BOUNDARY", *(f"MIDDLE{axis}, {axis}, {axis}" for axis in (1, 2, 3))]
    lines += ["*STEP", "*STATIC", "*CLOAD"]
    lines += [f"{n}, 2, {TENSION * area:.9g}" for n, area in pulling.items()]
    return "\n".join([*lines, "*EL FILE", "S", "*END STEP"]) + "\n"


def main() -> None:
    """Mesh, deck, run, result."""
    (HERE / f"{NAME}.inp").write_text(deck(*mesh()))
    subprocess.run(["ccx", NAME], cwd=HERE, check=True, stdout=subprocess.DEVNULL)
    RESULT.write_text("".join(stresses_only((HERE / f"{NAME}.frd").read_text().splitlines(keepends=True))))
    for beside in [*HERE.glob(f"{NAME}.*"), HERE / "spooles.out"]:
        if beside.suffix != ".inp":
            beside.unlink(missing_ok=True)
    print(f"Written: {RESULT} ({RESULT.stat().st_size / 1e6:.2f} MB)")


if __name__ == "__main__":
    main()
