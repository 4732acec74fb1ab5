"""The von Mises stress with the sign of the trace: a quadratic form, so no function of its own."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.stress.measures.measure import MEASURES, Measure, shown_stress, stress_in
from vivid_anvil.units import UnitSystem, display_unit
from vivid_anvil.writing.working import Step, put_in

ROOT = math.sqrt(3.0)
# five of the deviator, whose squares sum up to that of von Mises, and the trace
DEVIATOR_AND_TRACE = np.array(
    [
        [1.0, -0.5, -0.5, 0.0, 0.0, 0.0],
        [0.0, 0.5 * ROOT, -0.5 * ROOT, 0.0, 0.0, 0.0],
        [0.0, 0.0, 0.0, ROOT, 0.0, 0.0],
        [0.0, 0.0, 0.0, 0.0, ROOT, 0.0],
        [0.0, 0.0, 0.0, 0.0, 0.0, ROOT],
        [1.0, 1.0, 1.0, 0.0, 0.0, 0.0],
    ]
)


@MEASURES.add("signed von Mises, hydrostatic")
@dataclass(frozen=True)
class SignedVonMisesHydrostatic(Measure):
    """The von Mises stress (von Mises 1913) with the sign of the hydrostatic stress.

    Examples
    --------
    >>> SignedVonMisesHydrostatic().of([[0.0, -100.0, 0.0, 0.0, 0.0, 0.0], [0.0, 0.0, 0.0, 50.0, 0.0, 0.0]]).round(4)
    array([-100.    ,   86.6025])
    """

    @property
    def forms(self) -> FloatArray:
        """The deviator in five numbers, and the trace."""
        return DEVIATOR_AND_TRACE

    @property
    def random_forms(self) -> FloatArray:
        """The deviator: the equivalent process of Preumont and Piéfort."""
        return DEVIATOR_AND_TRACE[:5]

    def amplitude(self, tensors: ComplexArray) -> FloatArray:
        """`√((sᴴs + |sᵀs|)/2)`, s the five numbers of the deviator."""
        return turning_von_mises(tensors)

    def norm(self, tensors: FloatArray) -> FloatArray:
        """The von Mises stress is a norm of the deviator."""
        return von_mises(tensors)

    def steps(self, tensor: FloatArray, units: UnitSystem) -> list[Step]:
        """The von Mises stress, the trace, the stress."""
        name = display_unit("stress", units)
        xx, yy, zz = (stress_in(one, units) for one in tensor[:3])
        trace = shown_stress(float(tensor[:3].sum()), units)
        sign = Step("Its sign is that of the trace", "tr = σ_xx + σ_yy + σ_zz", f"{xx} + {yy} + {zz}", trace, name)
        return [von_mises_step(tensor, units), sign, signed_step(float(self.of(tensor)[0]), units)]


def von_mises(tensors: FloatArray) -> FloatArray:
    """The von Mises stress of tensors, shape (n, 6) to (n,), MPa (von Mises 1913)."""
    return np.asarray(np.sqrt(((tensors @ DEVIATOR_AND_TRACE[:5].T) ** 2).sum(axis=1)))


def turning_von_mises(tensors: ComplexArray) -> FloatArray:
    """The largest von Mises stress over the phase of Re(T e^(iωt)), shape (n, 6) to (n,), MPa.

    >>> turning_von_mises(np.array([[100.0, 0.0, 0.0, 100.0j, 0.0, 0.0]])).round(3)
    array([173.205])
    """
    s = tensors @ DEVIATOR_AND_TRACE[:5].T
    return np.asarray(np.sqrt(0.5 * ((np.abs(s) ** 2).sum(axis=1) + np.abs((s**2).sum(axis=1)))))


def von_mises_step(tensor: FloatArray, units: UnitSystem) -> Step:
    """The von Mises stress by hand."""
    xx, yy, zz, xy, yz, zx = (stress_in(one, units) for one in tensor)
    return Step(
        "Von Mises stress",
        "σ_v = √(½ ((σ_xx - σ_yy)² + (σ_yy - σ_zz)² + (σ_zz - σ_xx)²) + 3 (σ_xy² + σ_yz² + σ_zx²))",
        f"√(0.5 × (({xx} - {yy})^2 + ({yy} - {zz})^2 + ({zz} - {xx})^2) + 3 × ({xy}^2 + {yz}^2 + {zx}^2))",
        shown_stress(float(von_mises(tensor[None])[0]), units),
        display_unit("stress", units),
        "von Mises 1913",
    )


def signed_step(value: float, units: UnitSystem) -> Step:
    """The von Mises stress with its sign."""
    counted = shown_stress(value, units)
    return Step("Counted stress", "S = ±σ_v", put_in(counted), counted, display_unit("stress", units))
