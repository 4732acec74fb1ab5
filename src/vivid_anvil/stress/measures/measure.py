"""What a measure of a tensor is: the one stress that stands for it when cycles are counted.

A measure is a file of its own: the straight forms of the six components that it needs, and a plain function that makes stresses
of them; its bound, by which nodes are skipped, and its hand calculation stand beside.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.handed import address
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.stress import _kernels as kernels
from vivid_anvil.units import UnitSystem, coherent_values, opened, shown
from vivid_anvil.writing.working import Step, put_in

MEASURES: Choices[Callable[[], Measure]] = Choices("stress measure")
NO_NUMBERS = read_only(np.zeros(1))


class Measure(ABC):
    """One stress for a tensor with the components `COMPONENTS`.

    Without `block` it is its one form; of several the root of the sum of squares of all but the last, whose sign it has (so what
    a quadratic criterion gives needs no function, and roots are taken where the stress turns only).
    """

    kind: ClassVar[str]
    numbers: FloatArray = NO_NUMBERS
    block: ClassVar[Callable[..., None] | None] = None
    knows_direction: ClassVar[bool] = False  # of a stress of one direction, where a plane is opened

    @property
    @abstractmethod
    def forms(self) -> FloatArray:
        """Weights of the six components in each straight form that is needed, shape (k, 6)."""

    @property
    def linear(self) -> FloatArray | None:
        """Weights of the components, shape (6,), where the measure is straight in them; else None."""
        return self.forms[0] if self.block is None and len(self.forms) == 1 else None

    @property
    def label(self) -> str:
        """How it is called."""
        return self.kind

    @property
    def random_forms(self) -> FloatArray | None:
        """Forms whose squares sum up to that of the stress, for random components; None (as here): no process stands for it."""
        return self.forms if self.linear is not None else None

    def amplitude(self, tensors: ComplexArray) -> FloatArray:
        """Amplitude of the stress of tensors that turn, Re(T e^(iωt)), shape (n, 6) to (n,), MPa; half of its range.

        Half a period later every component has the other sign, and so has the stress: its largest size over the phase, which is
        looked for in ever finer steps.
        """
        weights = self.linear
        if weights is not None:
            return np.asarray(np.abs(tensors @ weights))
        return _largest_over_phase(self, tensors)

    def norm(self, tensors: FloatArray) -> FloatArray | None:
        """A norm that bounds the stress of tensors, shape (n, 6) to (n,), MPa; None (as here) where none is known.

        |stress of a sum| is at most the sum of the norms: what is shown never to do damage is not counted.
        """
        return None

    @abstractmethod
    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """From a tensor, six components, MPa, to the stress, by hand; the last step is the stress."""

    @property
    def handed(self) -> tuple[Any, ...]:
        """What the loops take beside the forms: where the function is (0: none), and its numbers."""
        block = type(self).block
        return (0 if block is None else address(block, kernels.TO_STRESS), self.numbers)

    def of(self, stress: ArrayLike) -> FloatArray:
        """The measure of tensors, shape (n, 6) or (6,), MPa; shape (n,). InputError for another shape."""
        tensors = np.atleast_2d(np.asarray(coherent_values(stress, "stress", "stress measure"), dtype=np.float64))
        if tensors.ndim != 2 or tensors.shape[1] != 6 or not np.isfinite(tensors).all():
            raise InputError(
                "stress measure", f"shape {np.shape(stress)}", f"finite tensors, (n, 6), as {', '.join(COMPONENTS)}"
            )
        return self.history(np.eye(6), np.zeros(6), tensors)

    def history(self, unit: FloatArray, constant: FloatArray, loads: FloatArray) -> FloatArray:
        """The stress at every sample, MPa: `loads`, (samples, cases), times `unit`, (cases, 6), plus `constant`, (6,)."""
        out = np.empty(len(loads))
        kernels.stress_history(*self.handed, self.forms, unit, constant, np.ascontiguousarray(loads.T), out)
        return out


def _largest_over_phase(measure: Measure, tensors: ComplexArray) -> FloatArray:
    """Steps of three degrees, then ever finer ones around the largest."""
    many = len(tensors)

    def sizes(phases: FloatArray) -> FloatArray:
        turned = (tensors[:, None, :] * np.exp(1j * phases)[:, :, None]).real
        return np.abs(measure.of(turned.reshape(-1, 6))).reshape(phases.shape)

    step = math.pi / 60.0
    phases = np.tile(np.arange(60) * step, (many, 1))
    found = sizes(phases)
    rows = np.arange(many)
    middle = phases[rows, found.argmax(axis=1)]
    for _ in range(7):
        phases = middle[:, None] + step * np.linspace(-1.0, 1.0, 11)
        found = sizes(phases)
        middle = phases[rows, found.argmax(axis=1)]
        step *= 0.2
    return np.asarray(found.max(axis=1))


@opened()
def stress_measure(measure: Measure | str) -> Measure:
    """A measure by its name, one of `MEASURES`, or as it is.

    Parameters
    ----------
    measure : Measure or str
        The stress that is counted: one of `MEASURES`, or its name.

    Returns
    -------
    Measure
        The measure.

    Raises
    ------
    InputError
        For anything that is neither a measure nor the name of one.

    Examples
    --------
    >>> stress_measure("signed von Mises, hydrostatic").of([[100.0, 0, 0, 0, 0, 0], [-80.0, 0, 0, 0, 0, 0]])
    array([100., -80.])
    """
    return measure if isinstance(measure, Measure) else MEASURES.get(measure, "stress measure")()


def length(tensors: FloatArray) -> FloatArray:
    """The Frobenius norm of tensors, shape (n, 6): no normal stress and no component is larger."""
    return np.asarray(np.sqrt((tensors[:, :3] ** 2).sum(axis=1) + 2.0 * (tensors[:, 3:] ** 2).sum(axis=1)))


def shown_stress(value: float, units: UnitSystem) -> float:
    """A stress, MPa, in the unit that is shown."""
    return float(shown(value, "stress", units))


def stress_in(value: float, units: UnitSystem) -> str:
    """The same as it is put into a formula."""
    return put_in(shown_stress(float(value), units))
