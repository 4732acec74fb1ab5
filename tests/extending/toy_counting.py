"""A counting method of one's own: half a cycle from the lowest to the highest sample, and nothing else."""

import numpy as np

from vivid_anvil.counting import COUNTING_METHODS, CountingMethod, Cycles


@COUNTING_METHODS.add("one swing")
class OneSwing(CountingMethod):
    """The largest swing alone."""

    misses = "all but the largest swing"

    @staticmethod
    def cycles(values, *, dimension, sample_rate, residue):
        """One row."""
        ends = sorted((int(values.argmin()), int(values.argmax())))
        low, high = values.min(), values.max()
        places = {key: np.array([end]) for key, end in zip(("start", "end"), ends, strict=True)}
        of = {"range": high - low, "mean": 0.5 * (high + low), "count": 1.0}
        rows = {key: np.array([one]) for key, one in of.items()}
        return Cycles(**rows, **places, dimension=dimension, sample_rate=sample_rate)
