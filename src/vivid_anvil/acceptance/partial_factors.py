"""Partial safety factors: what the assessment is done with in place of the values stated."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.units import Coherent


@dataclass(frozen=True, kw_only=True)
class PartialFactors:
    """Factors of 1 or more on primary stress and size, and dividing toughness and strengths.

    Parameters
    ----------
    load : float, default 1.0
        On primary stresses, -.
    size : float, default 1.0
        On the sizes of the flaw, -.
    toughness : float, default 1.0
        Dividing the toughness, as K, -.
    strength : float, default 1.0
        Dividing yield and ultimate strength, -.

    Raises
    ------
    InputError
        For a factor below 1.

    Examples
    --------
    >>> PartialFactors(load=1.2).any
    True
    """

    load: Coherent = Coherent("number", at_least=1.0, below=10.0, default=1.0)
    size: Coherent = Coherent("number", at_least=1.0, below=10.0, default=1.0)
    toughness: Coherent = Coherent("number", at_least=1.0, below=10.0, default=1.0)
    strength: Coherent = Coherent("number", at_least=1.0, below=10.0, default=1.0)

    @property
    def any(self) -> bool:
        """Whether one of them is not 1."""
        return max(self.load, self.size, self.toughness, self.strength) > 1.0
