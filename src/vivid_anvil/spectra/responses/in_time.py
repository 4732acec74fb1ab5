"""Histories through responses: by their Fourier transform, back in time, as a history that repeats."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.responses.response import ComplexArray


def in_time(values: FloatArray, sample_rate: float, response: Callable[[FloatArray], ComplexArray]) -> FloatArray:
    """Inputs of shape (inputs, samples) as outputs of shape (outputs, samples); a slow response stands for the mean.

    `response` gives, at frequencies (m,), Hz, what each output is for 1 of each input: shape (m, outputs, inputs).

    >>> in_time(np.array([[1.0, 2.0, 4.0]]), 10.0, lambda f: np.full((f.size, 1, 1), 3.0 + 0.0j)).round(9)
    array([[ 3.,  6., 12.]])
    """
    size = values.shape[1]
    frequency: FloatArray = np.asarray(np.fft.rfftfreq(size, 1.0 / sample_rate), dtype=np.float64)
    frequency[0] = 1e-6 * (frequency[1] if frequency.size > 1 else 1.0)
    through = np.einsum("maj,jm->am", response(frequency), np.fft.rfft(values))
    return np.asarray(np.fft.irfft(through, n=size), dtype=np.float64)
