"""A PSD as people write it: rows of a frequency and a level, or the slope of a skirt, each text with its unit."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError, inside, listed, shortened
from vivid_anvil.spectra.psd import PSD, psd_of_slopes
from vivid_anvil.units import coherent, opened, split
from vivid_anvil.units.door import factor
from vivid_anvil.units.psd import psd_dimension, psd_of

SLOPE = "dB/octave"


@opened()
def psd_of_rows(rows: Sequence[Any], *, between: str = "log-log") -> PSD:
    """The PSD of rows such as ("20 Hz", "0.04 g^2/Hz"), or ("2000 Hz", "-3 dB/octave") where a skirt leads there.

    Parameters
    ----------
    rows : sequence of pairs of str
        Frequency, and level or slope.
    between : str, default "log-log"
        How it runs between its points; one of `BETWEEN_POINTS`.

    Returns
    -------
    PSD
        Of the dimension that the units of the levels say.

    Raises
    ------
    InputError
        For a level without unit, units of different dimensions, and rows of slopes only.

    Examples
    --------
    >>> psd_of_rows([("20 Hz", "3 dB/octave"), ("80 Hz", "0.04 g^2/Hz"), ("350 Hz", "0.04 g^2/Hz")])
    <PSD of acceleration: 3 points, 20 to 350 Hz, rms 34.4 m/s^2>
    """
    if isinstance(rows, str) or not len(rows):
        raise InputError("PSD", shortened(rows), "rows of a frequency and a level")
    frequency: list[float] = []
    levels: list[float | tuple[str, float]] = []
    kinds: list[str] = []
    for i, row in enumerate(rows, 1):
        where = inside("PSD", f"row {i}")
        if isinstance(row, str) or np.shape(row) != (2,) or not all(isinstance(cell, str) for cell in row):
            raise InputError(where, shortened(row), "a frequency and a level, each text with its unit")
        frequency.append(coherent(row[0], "frequency", where))
        value, unit = split(row[1], where, "0.05 g^2/Hz", "PSD")
        if unit in (SLOPE, "dB/oct"):
            levels.append((SLOPE, value))
            continue
        kinds.append(psd_of(unit, where))
        levels.append(value * factor(unit, psd_dimension(kinds[-1]), where))
    if len(set(kinds)) > 1:
        raise InputError("PSD", f"levels of {listed(dict.fromkeys(kinds))}", "levels of one dimension")
    values = psd_of_slopes(frequency, levels)
    return PSD(np.array(frequency), values, kinds[0], between)
