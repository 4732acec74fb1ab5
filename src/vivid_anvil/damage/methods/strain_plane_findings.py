"""What an expert would say about a life by strains on planes: the rule for yielding, the surface, planes that tie, the path."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.damage.methods.critical_plane_findings import COARSE, planes_tie
from vivid_anvil.stress.planes.deviator import deviator
from vivid_anvil.stress.planes.surface_planes import LOADED
from vivid_anvil.units import in_unit, number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life
    from vivid_anvil.damage.methods.strain_plane import StrainPlane

OFF = 0.1  # of a line through zero, from which on the proportional rule does not hold
YIELDS = 2e-4  # plastic strain, from which on a place yields
HARDENS = 0.3  # off the line, from which on paths harden metals more


def strain_plane_findings(method: StrainPlane, life: Life) -> Iterator[Finding]:
    """All of them."""
    yield from method.strain_life.findings
    known = method.known(life.hot_spot, life.duty_cycle)
    yield from planes_tie(known.worst)
    paths = known.yielded.paths
    highest = max(path.equivalent for path in paths)
    plastic = float(method.strain_life.cyclic.plastic(np.array([highest]))[0])
    yields = plastic > YIELDS
    off, traction = max(path.off_line for path in paths), max(path.traction for path in paths)
    if yields and method.plasticity == "proportional" and off > OFF:
        yield Finding(
            "warning",
            "proportional-rule",
            f"The rule for yielding takes components in step, but the path leaves a line through zero by {number(off, 2)}.",
            'Take plasticity = "incremental", which follows any path.',
        )
    if yields and method.plasticity == "elastic":
        yield Finding(
            "warning",
            "yields-unseen",
            f"The elastic equivalent stress reaches {in_unit(highest, 'stress')}, where the cyclic curve has a plastic strain of "
            f"{in_unit(plastic, 'strain')}, but strains are taken by Hooke's law.",
            'Take plasticity = "proportional" or "incremental".',
        )
    if yields and method.plasticity == "incremental" and off > HARDENS and not method.nonproportional_hardening:
        yield Finding(
            "note",
            "hardening-by-turning",
            f"The path leaves a line by {number(off, 2)}: some metals (austenitic steels most) harden more under it.",
            "State nonproportional_hardening where tests give it.",
        )
    if yields and traction > LOADED:
        yield Finding(
            "warning",
            "no-free-surface",
            f"Along the normal that was taken there is still {traction:.0%} of the largest stress, which yielding leaves out.",
            "State the surface_normal, or assess a place on the surface.",
        )
    if plastic > 0.0 and method.plasticity != "elastic":
        for event in known.worst.events:
            elastic = deviator(event.stress)
            if event.counts is None and len(elastic) > 2 and method.plasticity == "incremental":
                size, step = (
                    float(np.ptp(elastic, axis=0).max()),
                    float(np.linalg.norm(np.diff(elastic, axis=0), axis=1).max()),
                )
                if size > 0.0 and step > 2.0 * COARSE * size:
                    yield Finding(
                        "warning",
                        "path-coarse",
                        f"From one sample of {event.name} to the next the stress goes {step / size:.0%} of its whole way: "
                        "between samples the path is not known.",
                        "Measure at a higher rate: a path is cut off at its bends.",
                    )
                    return
