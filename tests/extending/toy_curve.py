"""A curved S-N line of one's own: the logarithm of life falls with the square of the stress."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.materials import CURVED_FORMS, CurvedForm
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import put_in


@CURVED_FORMS.add("bell")
@dataclass(frozen=True, kw_only=True)
class Bell(CurvedForm):
    """N = N_0 exp(-(S / S_1)^2)."""

    longest: Coherent = Coherent("number", above=1.0)
    scale: Coherent = Coherent("stress", above=0.0)
    formula: ClassVar[str] = "N = N_0 × exp(-(S / S_1)^2)"
    source: ClassVar[str] = "made up"

    def life(self, stress):
        """By the formula."""
        return self.longest * np.exp(-((np.asarray(stress) / self.scale) ** 2))

    def stress_at(self, life):
        """The other way round."""
        return self.scale * np.sqrt(np.maximum(math.log(self.longest) - np.log(life), 0.0))

    def numbers(self, stress, one):
        """With numbers."""
        return f"{put_in(self.longest)} × exp(-({put_in(one * stress)} / {put_in(one * self.scale)})^2)"
