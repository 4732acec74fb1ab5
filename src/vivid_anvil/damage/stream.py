"""Damage of a stress history of any length in one pass: counted and summed piece by piece, nothing kept.

Method: rainflow counting (see `histories.counter`) and linear damage, without mean-stress correction.
"""

from __future__ import annotations

from collections.abc import Iterable

from numpy.typing import ArrayLike

from vivid_anvil.counting import RANGES_ONLY, RainflowCounter
from vivid_anvil.ground.checks import one_row
from vivid_anvil.materials import SNCurve
from vivid_anvil.units import in_dimension, opened


@opened()
def damage_of_samples(samples: ArrayLike, curve: SNCurve, *, residue: str = "half cycles") -> float:
    """Damage of stress `samples`, MPa, shape (n,), on `curve`; the residue counts half cycles unless "repeated".

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    curve : SNCurve
        The S-N curve.
    residue : str, default "half cycles"
        What becomes of half cycles that are left: one of `RESIDUES`.

    Returns
    -------
    float
        Palmgren-Miner sum of the history, -.

    Raises
    ------
    InputError
        For anything but one row of finite numbers.

    Examples
    --------
    >>> from vivid_anvil.materials import straight_curve
    >>> curve = straight_curve(name="-", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> damage_of_samples([0.0, 90.0, 0.0], curve) * 2e6
    1.0
    """
    return damage_of_chunks(
        [one_row(in_dimension(samples, "stress", "samples"), where="samples")], curve, residue=residue
    )


@opened()
def damage_of_chunks(chunks: Iterable[ArrayLike], curve: SNCurve, *, residue: str = "half cycles") -> float:
    """Damage of a stress history, MPa, in `chunks`, on `curve`; the residue counts half cycles unless it is "repeated".

    Parameters
    ----------
    chunks : Iterable[array_like]
        Pieces of the history, in their order.
    curve : SNCurve
        The S-N curve.
    residue : str, default "half cycles"
        What becomes of half cycles that are left: one of `RESIDUES`.

    Returns
    -------
    float
        Palmgren-Miner sum of the history, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> curve = straight_curve(name="weld", stress="range", r_ratio="any", slope=3, point_stress=80.0, point_life=2e6)
    >>> damage_of_chunks([[0.0, 80.0], [0.0, 160.0, 0.0]], curve)
    4.5e-06
    """
    counter, total = RainflowCounter(), 0.0
    for (ranges, *_), used in counter.in_pieces((in_dimension(one, "stress", "chunk") for one in chunks), RANGES_ONLY):
        total += curve.damage_of(ranges[:used])
    ending = counter.finish(residue)
    return total + curve.damage_of(ending.range, ending.count)
