"""A measure of one's own: the size of the normal stresses, whatever the shear."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.stress.measures import MEASURES, Measure
from vivid_anvil.writing.working import Step, put_in


@MEASURES.add("size of the normal stresses")
@dataclass(frozen=True)
class NormalSize(Measure):
    """√(σ_xx² + σ_yy² + σ_zz²) with the sign of the largest of the three."""

    @property
    def forms(self):
        """The normal stresses."""
        return np.eye(6)[:3]

    @staticmethod
    def block(s: Any, n: int, numbers: Any, out: Any) -> None:
        """Root and sign."""
        for i in range(n):
            x, y, z = s[i], s[n + i], s[2 * n + i]
            size = math.sqrt(x * x + y * y + z * z)
            out[i] = size if max(x, y, z) >= -min(x, y, z) else -size

    def norm(self, tensors):
        """It is a norm but for its sign."""
        return np.linalg.norm(tensors[:, :3], axis=1)

    def steps(self, tensor, units):
        """One step."""
        x, y, z = (put_in(float(one)) for one in tensor[:3])
        value = float(self.of(tensor)[0])
        return [
            Step(
                "Size of the normal stresses",
                "S = ±√(σ_xx² + σ_yy² + σ_zz²)",
                f"√({x}^2 + {y}^2 + {z}^2)",
                abs(value),
                "MPa",
            ),
            Step("Counted stress", "S = ±S", put_in(value), value, "MPa"),
        ]
