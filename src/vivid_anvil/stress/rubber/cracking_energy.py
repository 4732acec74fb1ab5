"""Energy that is there to open a crack on each plane of a strained rubber: cracking energy density along a path.

Mars, W. V. 2002, Rubber Chem. Technol. 75, 1-17: dW_c = r·(σ dε) r on the plane whose normal r moves with the material. In the
undeformed body that is (R·C S dE R) / (R·C R). It hangs on the path, and on a closed one it need not come back to where it was.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, as_numbers
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.rubber import HyperelasticLaw
from vivid_anvil.stress.planes.resolve import directions
from vivid_anvil.stress.rubber import _kernels as kernels
from vivid_anvil.units import opened, sound


@sound
@dataclass(frozen=True, kw_only=True, eq=False)
class StrainPath:
    """Right Cauchy-Green tensors along a path, shape (samples, 6), straight from one to the next, and the law of the rubber.

    Parameters
    ----------
    cauchy_greens : array_like
        C at each sample, as `cauchy_green` gives it, shape (samples, 6).
    law : HyperelasticLaw
        From it comes the stress.
    surface_normal : array_like, optional
        Normal of the free surface in the undeformed body: nothing acts along it. Without it the bulk modulus gives the pressure.
    closes : bool, default True
        Whether work counts only while the plane is pulled, r·σ·r > 0.

    Raises
    ------
    InputError
        For another shape, and where there is neither a surface nor a bulk modulus.

    Examples
    --------
    >>> import numpy as np
    >>> from vivid_anvil.materials.rubber import MooneyRivlin, stretches
    >>> law = MooneyRivlin(name="bushing", c10=0.3, c01=0.08)
    >>> pulled = np.zeros((50, 6))
    >>> pulled[:, :3] = stretches("simple", np.linspace(1.0, 2.0, 50)) ** 2
    >>> path = StrainPath(cauchy_greens=pulled, law=law, surface_normal=[0, 0, 1])
    >>> path.energies([[1.0, 0, 0], [0, 1.0, 0]])[:, -1].round(4).tolist()
    [0.7, 0.0]
    """

    cauchy_greens: FloatArray
    law: HyperelasticLaw
    surface_normal: FloatArray | None = None
    closes: bool = True

    def __post_init__(self) -> None:
        own = as_numbers("strain path, cauchy_greens", self.cauchy_greens)
        if own.ndim != 2 or own.shape[1] != 6 or len(own) < 2 or not np.isfinite(own).all():
            raise InputError(
                "strain path", f"shape {own.shape}", "two or more right Cauchy-Green tensors, shape (samples, 6)"
            )
        object.__setattr__(self, "cauchy_greens", np.ascontiguousarray(own))
        if self.surface_normal is None:
            if self.law.bulk_modulus is None:
                raise InputError(
                    "strain path",
                    "neither a free surface nor a bulk modulus",
                    "one of both: the pressure does not follow of strains that keep the volume",
                    "State the surface_normal, or the bulk_modulus of the law.",
                )
            return
        (normal,) = directions(as_numbers("strain path, surface_normal", self.surface_normal)[None])
        object.__setattr__(self, "surface_normal", normal)

    @cached_property
    def forms(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """What loops over planes need of each node of each step: forms of the work, of the line, of the traction."""
        shape = (len(self.cauchy_greens) - 1, kernels.NODES, 6)
        work, line, traction = np.empty(shape), np.empty(shape), np.empty(shape)
        how = kernels.VOLUME if self.surface_normal is None else kernels.SURFACE
        normal = np.zeros(3) if self.surface_normal is None else self.surface_normal
        kernels.prepared(
            self.cauchy_greens, self.law.row, how, float(self.law.bulk_modulus or 0.0), normal, work, line, traction
        )
        return work, line, traction

    def energies(self, normals: ArrayLike) -> FloatArray:
        """W_c on planes at every sample, MPa, shape (planes, samples), 0 at the first; normals of the undeformed body."""
        planes = np.ascontiguousarray(directions(np.atleast_2d(np.asarray(normals, dtype=np.float64))))
        squares, found = np.empty((6, len(planes))), np.empty((len(self.cauchy_greens), len(planes)))
        kernels.squares_of(planes, squares)
        kernels.energies(*self.forms, squares, self.closes, found)
        return np.ascontiguousarray(found.T)


@opened()
def without_drift(energies: FloatArray) -> FloatArray:
    """Energies of a closed path, (planes, samples), less what a pass leaves, in proportion to the step; none below 0.

    What a closed path that turns puts into a plane it keeps, the same every pass: it is neither damage nor error.

    >>> without_drift(np.array([[0.0, 1.0, 0.5]])).tolist()
    [[0.0, 0.75, 0.0]]
    """
    if energies.ndim != 2 or energies.shape[1] < 2:
        raise InputError(
            "without drift, energies", f"shape {energies.shape}", "shape (planes, samples), two samples or more"
        )
    share = np.arange(energies.shape[1]) / (energies.shape[1] - 1)
    return np.asarray(np.maximum(energies - (energies[:, -1:] - energies[:, :1]) * share, 0.0))
