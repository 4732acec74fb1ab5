"""The head of the hanger as a finite-element model: mesh, input deck, run, result file of the demo.

python demo_model/make_hanger_head.py

Needs the mesh generator gmsh (from PyPI) and CalculiX (the Debian package calculix-ccx). The lug is cut from 8 mm plate: an
eye of 32 mm radius with a bore of 14 mm, a shank 36 mm wide, fillets of 20 mm between them, held at the lower end. Two load
cases: the suspension pin pulls upwards with 10 kN, and sideways with 2 kN, each as a cosine pressure on half of the bore.
"""

import math
import subprocess
from pathlib import Path

import gmsh
import numpy as np

HERE = Path(__file__).parent
RESULT = HERE.parent / "src" / "vivid_anvil" / "demo" / "data" / "hanger_head.frd"
EYE, BORE, SHANK, LENGTH, THICKNESS, FILLET = 32.0, 14.0, 18.0, 110.0, 8.0, 20.0
YOUNG, POISSON = 210000.0, 0.3
LOADS = {"vertical": (10e3, (0.0, 1.0)), "lateral": (2e3, (1.0, 0.0))}  # N, direction of the pin's pull


def outline() -> list[int]:
    """Closed outline of the lug: eye, fillets, shank; the fillet touches circle and side."""
    geo = gmsh.model.occ
    y = -math.sqrt((EYE + FILLET) ** 2 - (SHANK + FILLET) ** 2)  # centre of the fillet
    share = EYE / (EYE + FILLET)
    point = {
        "centre": (0.0, 0.0),
        "right": (share * (SHANK + FILLET), share * y),
        "left": (-share * (SHANK + FILLET), share * y),
        "top": (0.0, EYE),
        "right fillet": (SHANK + FILLET, y),
        "left fillet": (-SHANK - FILLET, y),
        "right side": (SHANK, y),
        "left side": (-SHANK, y),
        "right end": (SHANK, -LENGTH),
        "left end": (-SHANK, -LENGTH),
    }
    at = {name: geo.addPoint(x, z, -0.5 * THICKNESS) for name, (x, z) in point.items()}
    return [
        geo.addCircleArc(at["right"], at["centre"], at["top"]),
        geo.addCircleArc(at["top"], at["centre"], at["left"]),
        geo.addCircleArc(at["left"], at["left fillet"], at["left side"]),
        geo.addLine(at["left side"], at["left end"]),
        geo.addLine(at["left end"], at["right end"]),
        geo.addLine(at["right end"], at["right side"]),
        geo.addCircleArc(at["right side"], at["right fillet"], at["right"]),
    ]


def mesh() -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Node numbers, coordinates, tetrahedra of second order, and triangles of second order on the bore."""
    gmsh.initialize()
    gmsh.option.setNumber("General.Terminal", 0)
    gmsh.model.add("hanger head")
    geo = gmsh.model.occ
    outer = geo.addCurveLoop(outline())
    bore = geo.addCurveLoop([geo.addCircle(0.0, 0.0, -0.5 * THICKNESS, BORE)])
    surface = geo.addPlaneSurface([outer, bore])
    geo.extrude([(2, surface)], 0.0, 0.0, THICKNESS)
    geo.synchronize()
    gmsh.model.mesh.field.add("MathEval", 1)
    gmsh.model.mesh.field.setString(1, "F", f"2.0 + 0.12*Abs(Sqrt(x*x+y*y)-{BORE}) + 0.02*Abs(y)")
    gmsh.model.mesh.field.setAsBackgroundMesh(1)
    gmsh.model.mesh.generate(3)
    gmsh.model.mesh.setOrder(2)
    numbers, flat, _ = gmsh.model.mesh.getNodes()
    places = flat.reshape(-1, 3)
    _, volume = gmsh.model.mesh.getElementsByType(11)
    where = dict(zip(numbers.tolist(), places, strict=True))
    round_bore = []
    for _, tag in gmsh.model.getEntities(2):
        _, _, found = gmsh.model.mesh.getElements(2, tag)
        if found:
            rows = found[0].reshape(-1, 6)
            radius = np.array([[math.hypot(*where[n][:2]) for n in row] for row in rows[:, :3].tolist()])
            if np.allclose(radius, BORE, atol=1e-6):
                round_bore.append(rows)
    gmsh.finalize()
    tets = volume.reshape(-1, 10)[:, [0, 1, 2, 3, 4, 5, 6, 7, 9, 8]]  # last two edges the other way round
    return numbers.astype(int), places, tets.astype(int), np.concatenate(round_bore).astype(int)


def pressed(
    numbers: np.ndarray, places: np.ndarray, faces: np.ndarray, force: float, pull: tuple[float, float]
) -> dict:
    """Nodal forces of a cosine pressure on the half of the bore that faces `pull`, scaled to carry `force` exactly."""
    at = {int(n): places[i] for i, n in enumerate(numbers)}
    weights = [((1 / 6, 1 / 6), 1 / 6), ((2 / 3, 1 / 6), 1 / 6), ((1 / 6, 2 / 3), 1 / 6)]
    total: dict[int, np.ndarray] = {}
    for face in faces:
        x = np.array([at[int(n)] for n in face])
        for (r, s), weight in weights:
            t = 1.0 - r - s
            shape = np.array([t * (2 * t - 1), r * (2 * r - 1), s * (2 * s - 1), 4 * t * r, 4 * r * s, 4 * s * t])
            d_r = np.array([-(4 * t - 1), 4 * r - 1, 0.0, 4 * (t - r), 4 * s, -4 * s])
            d_s = np.array([-(4 * t - 1), 0.0, 4 * s - 1, -4 * r, 4 * r, 4 * (t - s)])
            area = np.linalg.norm(np.cross(d_r @ x, d_s @ x)) * weight
            here = shape @ x
            outward = np.array([here[0], here[1], 0.0]) / math.hypot(here[0], here[1])
            pressure = max(outward[0] * pull[0] + outward[1] * pull[1], 0.0)
            for n, share in zip(face, shape, strict=True):
                total[int(n)] = total.get(int(n), np.zeros(3)) + share * pressure * area * outward
    carried = sum(total.values())[:2] @ np.array(pull)
    return {n: f * force / carried for n, f in total.items() if np.abs(f).max() > 1e-9}


def deck(numbers: np.ndarray, places: np.ndarray, tets: np.ndarray, faces: np.ndarray) -> str:
    """The input deck."""
    lines = ["*HEADING", "Head of the hanger of the Larkfell chairlift (made up); mm, N, MPa", "*NODE, NSET=ALL"]
    lines += [f"{n}, {x:.6f}, {y:.6f}, {z:.6f}" for n, (x, y, z) in zip(numbers, places, strict=True)]
    lines.append("*ELEMENT, TYPE=C3D10, ELSET=HEAD")
    lines += [f"{i}, " + ", ".join(map(str, row)) for i, row in enumerate(tets, 1)]
    held = numbers[np.isclose(places[:, 1], -LENGTH)]
    lines += ["*NSET, NSET=HELD", *(f"{n}," for n in held)]
    lines += ["*MATERIAL, NAME=STEEL", "*ELASTIC", f"{YOUNG}, {POISSON}", "*SOLID SECTION, ELSET=HEAD, MATERIAL=STEEL"]
    lines += ["*BOUNDARY", "HELD, 1, 3"]
    for name, (force, pull) in LOADS.items():
        lines += [f"** {name}: {force:g} N", "*STEP", "*STATIC", "*CLOAD, OP=NEW"]
        for n, (fx, fy, _) in pressed(numbers, places, faces, force, pull).items():
            lines += [f"{n}, 1, {fx:.9g}", f"{n}, 2, {fy:.9g}"]
        lines += ["*EL FILE", "S", "*END STEP"]
    return "\n".join(lines) + "\n"


def stresses_only(lines: list[str]) -> list[str]:
    """The result file without date, time, and the solver's estimate of its error."""
    kept, block, skipping = [], "", False
    for line in lines:
        if line.startswith(" -4"):
            skipping = "ERROR" in line
            kept += [] if skipping else [block]
        if line.startswith("  100CL"):
            block = line
        elif not skipping and "1UDATE" not in line and "1UTIME" not in line:
            kept.append(line)
        skipping = skipping and not line.startswith(" -3")
    return kept


def main() -> None:
    """Mesh, deck, run, result."""
    (HERE / "hanger_head.inp").write_text(deck(*mesh()))
    subprocess.run(["ccx", "hanger_head"], cwd=HERE, check=True, stdout=subprocess.DEVNULL)
    RESULT.write_text("".join(stresses_only((HERE / "hanger_head.frd").read_text().splitlines(keepends=True))))
    for beside in [*HERE.glob("hanger_head.*"), HERE / "spooles.out"]:
        if beside.suffix != ".inp":
            beside.unlink(missing_ok=True)
    print(f"Written: {RESULT} ({RESULT.stat().st_size / 1e6:.2f} MB)")


if __name__ == "__main__":
    main()
