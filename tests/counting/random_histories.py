"""Histories drawn at random."""

import numpy as np
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays


def variation(values):
    return float(np.abs(np.diff(values)).sum())


# Whole numbers give plateaus and ties; floats give neither.
histories = st.one_of(
    arrays(np.float64, st.integers(1, 80), elements=st.integers(-6, 6).map(float)),
    arrays(np.float64, st.integers(1, 80), elements=st.floats(-1e3, 1e3).map(lambda value: round(value, 6))),
)
