"""Shapes of one's own: a strip whose Y rises in a straight line, and a crack with two sizes in a block."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.shapes import SHAPES, OneSizeShape, TwoSizeShape
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import put_in


@SHAPES.add("strip")
@dataclass(frozen=True)
class Strip(OneSizeShape):
    """Y = 1 + rise × a / width."""

    strip_width: Coherent = Coherent("length", above=0.0)
    rise: Coherent = Coherent("number", at_least=0.0, default=1.0)
    size_means: ClassVar[str] = "length"
    source: ClassVar[str] = "made up"
    factor_formula: ClassVar[str] = "Y = 1 + k × x"

    @property
    def width(self):
        """The strip."""
        return self.strip_width

    @property
    def largest_size(self):
        """Half of it."""
        return 0.5 * self.strip_width

    def geometry_factor(self, size):
        """By the line."""
        return 1.0 + self.rise * np.asarray(size, dtype=np.float64) / self.strip_width

    def net_section_stress(self, size, stress):
        """Of what is left."""
        return stress / (1.0 - np.asarray(size, dtype=np.float64) / self.strip_width)

    def factor_numbers(self, size):
        """With numbers."""
        return f"1 + {put_in(self.rise)} × {put_in(size / self.strip_width)}"


@SHAPES.add("block")
@dataclass(frozen=True, kw_only=True)
class Block(TwoSizeShape):
    """Y = 0.7 at the depth and 0.8 along, whatever the sizes."""

    block_depth: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "made up"

    @property
    def deepest(self):
        """The block."""
        return self.block_depth

    @property
    def longest(self):
        """Ten times as long."""
        return 10.0 * self.block_depth

    def factors(self, a, c):
        """Constant."""
        return 0.7, 0.8

    def collapse_stress(self, a, c, stress):
        """Of what is left in depth."""
        return stress / (1.0 - 0.5 * a / self.block_depth)

    def after(self, a, c):
        """A strip."""
        return Strip(40.0 * self.block_depth), (c,)
