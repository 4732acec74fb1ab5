"""A model of retardation of one's own: after a larger cycle the rate is a share of itself for some growth."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.growth import RETARDATIONS, Retardation
from vivid_anvil.units import Coherent


@RETARDATIONS.add("share")
@dataclass(frozen=True, kw_only=True)
class ShareOfRate(Retardation):
    """Within `reach` of growth after the largest cycle so far, the rate times `share`."""

    reach: Coherent = Coherent("length", above=0.0)
    share: Coherent = Coherent("number", above=0.0)
    method: ClassVar[str] = "made up"

    @property
    def row(self) -> tuple[float, ...]:
        return (self.reach, self.share)

    @staticmethod
    def slowed(q: Any, kept: Any, k_max: float, k_min: float, a: float, out: Any) -> int:
        if k_max >= kept[0]:
            kept[0], kept[1] = k_max, a
            return 0
        if a - kept[1] < q[0]:
            out[0] = q[1]
            return 1
        return 0
