"""A life on the critical plane: the damage of all planes on the half sphere, and the shear path on the worst one."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.patches import Circle
from matplotlib.ticker import MaxNLocator
from matplotlib.tri import Triangulation

from vivid_anvil.damage import CriticalPlane, LifeResult, StrainPlane
from vivid_anvil.damage.methods.worst_plane import WorstPlane
from vivid_anvil.figures.life_figure import headline
from vivid_anvil.figures.style import BLUE, INK, LINES, RED, new_figure, note
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes import PlaneFound, plane_axes, plane_map, smallest_circle
from vivid_anvil.stress.planes.resolve import shear_weights
from vivid_anvil.units import UnitSystem, display_unit, number, shown

STEP = 7.5  # degrees between planes of the map
DECADES = 6.0  # below the worst, that are told apart
RIM = np.sqrt(2.0)
MOST_POINTS = 4_000  # of a path that are drawn


def plane_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life on the critical plane."""
    method = result.method
    assert isinstance(method, CriticalPlane | StrainPlane)
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {headline(result)}")
    left, right = figure.subplots(1, 2, width_ratios=(1.1, 1.0))
    worst = method.worst(result.hot_spot, result.duty_cycle)
    values = plane_map(method.on_planes(result.hot_spot, result.duty_cycle), step_degrees=STEP)
    draw_planes(figure, left, values, worst.found, worst.found.ties, result.damage_per_repeat)
    if isinstance(method, StrainPlane):
        _loops(right, method, worst, units)
    else:
        _path(right, worst, units)
    return figure


def _on_disc(normals: FloatArray) -> FloatArray:
    """Equal-area projection of normals that look upwards (Lambert): z in the middle, the equator as the rim."""
    up = np.where((normals[:, 2] < 0.0)[:, None], -normals, normals)
    scale = np.sqrt(2.0 / (1.0 + up[:, 2]))
    return np.asarray(up[:, :2] * scale[:, None])


def draw_planes(
    figure: Figure, axes: Axes, values: tuple[FloatArray, FloatArray], worst: PlaneFound, ties: FloatArray, most: float
) -> None:
    """Damage over all planes, of normals and values on them, as colours on a disc, the worst and those that tie marked."""
    normals, damage = values
    rim = np.abs(normals[:, 2]) < 1e-9  # a plane at the rim stands on both sides
    normals, damage = np.concatenate([normals, -normals[rim]]), np.concatenate([damage, damage[rim]])
    points = _on_disc(normals)
    points[len(points) - int(rim.sum()) :] = -points[: len(rim)][rim]
    top = max(float(damage.max()), most)
    axes.set_aspect("equal")
    axes.axis("off")
    axes.set_title("Damage of all planes, by their normals")
    if top > 0.0:
        level = np.log10(np.maximum(damage / top, 10.0**-DECADES))
        mesh = axes.tricontourf(Triangulation(*points.T), level, levels=np.linspace(-DECADES, 0.0, 13), cmap="YlGnBu")
        bar = figure.colorbar(mesh, ax=axes, orientation="horizontal", shrink=0.75, pad=0.02)
        bar.set_label("Share of the damage of the worst plane [-], log10")
    axes.add_patch(Circle((0.0, 0.0), RIM, fill=False, edgecolor=INK, lw=1.0))
    for normal, style in [(worst.normal, "filled"), *((one, "open") for one in ties)]:
        x, y = _on_disc(normal[None])[0]
        face = RED if style == "filled" else "none"
        axes.plot([x], [y], marker="o", ms=11, mfc=face, mec=RED, mew=2.0, ls="none", zorder=6)
    for name, (x, y), where in (("x", (RIM, 0.0), (9, -4)), ("y", (0.0, RIM), (-4, 8)), ("z", (0.0, 0.0), (6, 6))):
        axes.annotate(name, (x, y), xytext=where, textcoords="offset points", fontsize=13)
        axes.plot([x], [y], marker=".", color=INK, ms=5)
    theta, phi = worst.angles
    note(axes, f"Worst plane: θ {number(theta, 3)}°, φ {number(phi, 3)}°", x=0.0, y=0.02)
    axes.set_xlim(-1.12 * RIM, 1.12 * RIM)
    axes.set_ylim(-1.3 * RIM, 1.12 * RIM)


def _loops(axes: Axes, method: StrainPlane, worst: WorstPlane, units: UnitSystem) -> None:
    """Stress over strain on the worst plane: along the direction of shear that is counted, or across the plane."""
    unit, one = display_unit("stress", units), float(shown(1.0, "stress", units))
    normal, along = worst.found.normal, worst.along
    by_shear = method.form.by_shear
    weights = shear_weights(normal[None], along[None])[0] if by_shear else normal_weights(normal)
    for colour, event in zip(LINES, worst.events, strict=False):
        assert event.strain is not None
        strain = 100.0 * (2.0 if by_shear else 1.0) * (event.strain @ weights)
        stress = one * (event.stress @ weights)
        if event.counts is None:
            strain, stress = np.append(strain, strain[0]), np.append(stress, stress[0])
        pick = np.unique(np.linspace(0, len(strain) - 1, MOST_POINTS).astype(np.int64))
        axes.plot(strain[pick], stress[pick], color=colour, lw=1.0, label=event.name)
    axes.set_title("Shear on the worst plane" if by_shear else "Across the worst plane")
    axes.set_xlabel("Engineering shear strain [%]" if by_shear else "Normal strain [%]")
    axes.xaxis.set_major_locator(MaxNLocator(5))
    axes.set_ylabel(f"Shear stress [{unit}]" if by_shear else f"Normal stress [{unit}]")
    axes.margins(0.06, 0.14)
    axes.legend(loc="upper left", fontsize=11)


def _path(axes: Axes, worst: WorstPlane, units: UnitSystem) -> None:
    """The shear vector of each event on the worst plane, with the smallest circle round it."""
    unit, one = display_unit("stress", units), float(shown(1.0, "stress", units))
    first, second = plane_axes(worst.found.normal)
    reach = 0.0
    for colour, event in zip(LINES, worst.events, strict=False):
        weights = [shear_weights(worst.found.normal[None], axis)[0] for axis in (first, second)]
        path = one * np.column_stack([event.stress @ each for each in weights])
        centre, radius = smallest_circle(path)
        pick = np.unique(np.linspace(0, len(path) - 1, MOST_POINTS).astype(np.int64))
        axes.plot(*path[pick].T, color=colour, lw=1.0, label=event.name)
        axes.add_patch(Circle(tuple(centre), radius, fill=False, edgecolor=colour, lw=1.4, ls=(0, (5, 3))))
        reach = max(reach, float(np.abs(centre).max()) + radius)
    reach = reach or 1.0
    across = one * np.array([float(worst.along @ first[0]), float(worst.along @ second[0])])
    across *= reach / (np.linalg.norm(across) or 1.0)
    axes.plot(
        [-across[0], across[0]], [-across[1], across[1]], color=BLUE, lw=1.0, ls=(0, (1, 2)), label="counted along"
    )
    axes.set_aspect("equal")
    axes.set_xlim(-1.15 * reach, 1.15 * reach)
    axes.set_ylim(-1.15 * reach, 1.5 * reach)
    axes.set_title("Shear on the worst plane")
    axes.set_xlabel(f"Shear along growing θ [{unit}]")
    axes.set_ylabel(f"Shear along growing φ [{unit}]")
    axes.legend(loc="upper left", fontsize=11)
