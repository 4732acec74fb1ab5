"""A crack at a hot spot: shape, starting size, growth law, and what inspection can find."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil import checks
from vivid_anvil.cracks.drive import COUNTED_PARTS
from vivid_anvil.cracks.shapes import CrackShape
from vivid_anvil.errors import InputError
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import Coherent, OptionalCoherent, number


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Crack:
    """Where a crack is, how large it is, how it grows.

    Parameters
    ----------
    hot_spot : HotSpot
        Gives the nominal stress (without notch factor) and the material.
    shape : EdgeCrack or CentreCrack
    initial_size : float or text, mm
        Above 0 and within the shape's validity.
    law : GrowthLaw
    counted_part : str
        "tensile" or "full", see `COUNTED_PARTS`.
    detectable_size : float or text, mm, optional
        What an inspection finds for sure; gives the inspection interval.
    inspection_factor : float
        How many inspections fall between detectable and critical size; at least 1.
    """

    hot_spot: HotSpot
    shape: CrackShape
    initial_size: Coherent = Coherent("length", above=0.0)
    law: GrowthLaw
    counted_part: str = "tensile"
    detectable_size: OptionalCoherent = OptionalCoherent("length", above=0.0)
    inspection_factor: float = 3.0

    def __post_init__(self) -> None:
        where = f"crack at {self.hot_spot.name}"
        checks.one_of(f"{where}, counted_part", self.counted_part, tuple(COUNTED_PARTS))
        factor = checks.real_number(f"{where}, inspection_factor", self.inspection_factor)
        if not 1.0 <= factor < float("inf"):
            raise InputError(
                f"{where}, inspection_factor",
                f"{factor:g}",
                "at least 1: one inspection between detectable and critical",
            )
        largest = self.shape.largest_size
        for field in ("initial_size", "detectable_size"):
            size = getattr(self, field)
            if size is not None and size >= largest:
                raise InputError(
                    f"{where}, {field}",
                    f"{number(size)} mm",
                    f"a size below {number(largest)} mm, the limit of the {self.shape.kind} crack in this plate",
                    f"It means the {self.shape.size_means}. Is the unit right?",
                )

    def __repr__(self) -> str:
        return f"<Crack at {self.hot_spot.name}: {self.shape.kind}, from {self.initial_size:g} mm, {self.law.name}>"
