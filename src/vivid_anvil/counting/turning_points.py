"""Turning points of a load history: the local maxima and minima from which every counting method starts.

In: samples of a channel. Out: the samples that are turning points, in time order. A plateau gives one point, at its
first sample; the first sample and the end of the history are kept.
Method: the term "reversal" of ASTM E1049-85, section 3. The loop is `_kernels.turning_points`.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import _kernels
from vivid_anvil.ground.checks import IntArray, finite_samples, read_only
from vivid_anvil.units import opened, with_dimension


@opened()
def turning_points(samples: ArrayLike) -> IntArray:
    """Sample numbers of the turning points of `samples`, shape (n,): int64, shape (k,), k <= n.

    Parameters
    ----------
    samples : array_like
        The samples, in their order.

    Returns
    -------
    ndarray of int
        Sample numbers, rising.

    Raises
    ------
    InputError
        For anything but one row of finite numbers.

    Examples
    --------
    >>> history = np.array([0.0, 120.0, 120.0, -40.0, 60.0])
    >>> turning_points(history)
    array([0, 1, 3, 4])
    >>> history[turning_points(history)]
    array([  0., 120., -40.,  60.])
    """
    numbers, _ = with_dimension(samples, None, "samples")
    values = finite_samples(numbers, where="samples", unit="")
    index = np.empty(values.size, dtype=np.int64)
    return read_only(index[: _kernels.turning_points(values, index)].copy())
