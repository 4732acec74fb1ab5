"""What an expert would say about a life on the critical plane: planes that tie, paths along a line, too few samples."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes.deviator import deviator, off_line
from vivid_anvil.stress.planes.plane_cycles import counted, cycles_on
from vivid_anvil.stress.planes.surface_planes import LOADED, free_normal
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane
    from vivid_anvil.damage.methods.worst_plane import WorstPlane

IN_STEP = 0.1  # off the line, below which one stress says as much
MORE = 1.2  # times the damage of a whole path
COARSE = 0.12  # of the largest size of the path, that it goes from one sample to the next


def critical_plane_findings(method: CriticalPlane, life: Life) -> Iterator[Finding]:
    """All of them."""
    yield from method.sn_curve.findings
    worst = method.worst(life.hot_spot, life.duty_cycle)
    yield from planes_tie(worst)
    yield from _whole_paths(method, life, worst)
    yield from _ratio_of_limits(method)
    if method.planes != "all" and method.surface_normal is None:
        share = free_normal(np.concatenate([event.stress for event in worst.events])).traction
        if share > LOADED:
            yield Finding(
                "warning",
                "no-free-surface",
                f"Along the direction with least stress there is still {share:.0%} of the largest: the place is no free surface.",
                'Look at all planes (planes = "all"), or state the surface_normal.',
            )
    timed = [event for event in worst.events if event.counts is None and len(event.stress) > 1]
    if not timed:
        return
    paths = [deviator(event.stress) for event in timed]
    off = max(_off_line(path) for path in paths)
    if off < IN_STEP:
        yield Finding(
            "note",
            "path-in-step",
            f"All components move in step (off the line by {number(off, 2)}): one stress says as much as planes do.",
            "Stress-life by a signed von Mises or a principal stress is simpler to check.",
        )
        return
    for event, path in zip(timed, paths, strict=True):
        size = float(np.ptp(path, axis=0).max())
        step = float(np.linalg.norm(np.diff(path, axis=0), axis=1).max())
        if size > 0.0 and step > COARSE * size and event.history is not None and event.history.steps == "even":
            yield Finding(
                "warning",
                "path-coarse",
                f"From one sample of {event.name} to the next the stress goes {step / size:.0%} of its whole way: between "
                "samples the path of the shear is not known.",
                "Measure at a higher rate: a path is cut off at its bends.",
            )
            return


def planes_tie(worst: WorstPlane) -> Iterator[Finding]:
    """Where several planes do the same damage."""
    if len(worst.found.ties):
        planes = [worst.found.normal, *worst.found.ties]
        names = "; ".join(f"({', '.join(f'{one:.2f}' for one in normal)})" for normal in planes[:4])
        yield Finding(
            "note",
            "planes-tie",
            f"{len(planes)} planes do the same damage, such as those with the normals {names}: where a crack starts is open.",
            "Look for cracks on all of them.",
        )


def _ratio_of_limits(method: CriticalPlane) -> Iterator[Finding]:
    """Where a criterion for endless life says nothing, as the limits stand in a ratio that it does not take."""
    refused, limits = method.limits.refused, method.limits
    if refused:
        ratio = (limits.torsion or 0.0) / (limits.axial or limits.repeated or 1.0)
        yield Finding(
            "note",
            "limits-out-of-ratio",
            f"The limit in torsion is {number(ratio)} times that in {'' if limits.axial else 'repeated '}tension, a ratio that "
            f"{' and '.join(refused)} {'does' if len(refused) == 1 else 'do'} not take: nothing is said by it.",
            "Is one of the limits a range, or of another material? Brittle metals need other criteria.",
        )


def _whole_paths(method: CriticalPlane, life: Life, worst: WorstPlane) -> Iterator[Finding]:
    """Where one passage of an event holds more cycles than the one that its whole path counts as."""
    if method.shear_amplitude is None:
        return
    own = dataclasses.replace(method, shear_amplitude=None)
    for event, one in zip(worst.events, worst.cycles, strict=True):
        if event.counts is not None or not one.ranges.size:
            continue
        normal, along = worst.found.normal, worst.along
        inner = cycles_on(event, normal, along)
        if not method.form.by_shear:
            sigma = event.stress @ normal_weights(normal)
            inner = counted(event, sigma, sigma)
        alone, every = method.damage_of(life.hot_spot, one), own.damage_of(life.hot_spot, inner)
        if every > MORE * alone:
            many = "more than 1e3" if alone == 0.0 or every > 1e3 * alone else f"{number(every / alone, 2)}"
            yield Finding(
                "warning",
                "path-counts-once",
                f"The whole path of {event.name} counts as one cycle; rainflow finds {inner.ranges.size} in it, which "
                f"do {many} times the damage.",
                "Leave out shear_amplitude, so that all cycles count.",
            )
            return


def _off_line(path: np.ndarray) -> float:
    return float(off_line(np.linalg.svd(path - path.mean(axis=0), compute_uv=False)[None])[0])
