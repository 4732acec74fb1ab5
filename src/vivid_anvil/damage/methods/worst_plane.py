"""The plane that is damaged most at a place, with its cycles, and how it is told."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.planes import PlaneFound
from vivid_anvil.stress.planes.deviator import FULL, deviator, off_line
from vivid_anvil.stress.planes.plane_cycles import TensorEvent
from vivid_anvil.stress.planes.surface_planes import LOADED, free_normal, in_surface
from vivid_anvil.units import number


class WorstPlane(NamedTuple):
    """The plane that counts, with the direction of shear in it, unit vectors, and the cycles of each event there."""

    found: PlaneFound
    along: FloatArray
    cycles: tuple[Any, ...]
    events: tuple[TensorEvent, ...]

    @property
    def words(self) -> str:
        """The plane by its angles and its normal."""
        theta, phi = self.found.angles
        normal = ", ".join(f"{one:.3f}" for one in self.found.normal.tolist())
        ties = len(self.found.ties)
        also = "" if not ties else f"; {ties} other{'s tie' if ties > 1 else ' ties'} with it"
        return f"θ {number(theta, 3)}° from z, φ {number(phi, 3)}° from x; normal ({normal}){also}"

    @property
    def words_at_surface(self) -> str:
        """The same beside the free surface and the largest principal stress; empty where there is no free surface."""
        tensors = np.concatenate([event.stress for event in self.events])
        if free_normal(tensors).traction > LOADED:
            return ""
        there = in_surface(self.found.normal, tensors)
        surface = ", ".join(f"{one + 0.0:.2f}" for one in there.surface.tolist())
        trace = (
            "" if np.isnan(there.trace) else f"; its trace at {number(there.trace, 3)}° to the largest principal stress"
        )
        return f"at {number(there.tilt, 3)}° to the surface, normal ({surface}){trace}"

    @property
    def words_of_path(self) -> str:
        """How far the stresses of an event leave a line at most, and how two-dimensional the largest is."""
        off, largest = 0.0, np.zeros(3)
        for event in self.events:
            path = deviator(event.stress)
            sizes = np.asarray(np.linalg.svd(path - path.mean(axis=0), compute_uv=False))
            off = max(off, float(off_line(sizes[None])[0]))
            principals = np.linalg.eigvalsh(event.stress[:, FULL])
            at = int(np.abs(principals).max(axis=1).argmax())
            if np.abs(principals[at]).max() > np.abs(largest).max():
                largest = principals[at]
        by_size = largest[np.argsort(-np.abs(largest))]
        ratio = float(by_size[1] / by_size[0]) if by_size[0] != 0.0 else 0.0
        return f"{number(off, 3)} off a straight line (0 in step, up to 1); biaxiality {number(ratio, 3)} at the largest stress"

    @property
    def told(self) -> tuple[tuple[str, str], ...]:
        """Label and words of both."""
        found = [("Plane", self.words)]
        if self.words_at_surface:
            found.append(("Surface", f"the plane stands {self.words_at_surface}"))
        found.append(("Path", self.words_of_path))
        return tuple(found)
