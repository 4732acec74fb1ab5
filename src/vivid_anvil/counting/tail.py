"""From a measured spectrum to the service life: many repeats with the residue composed right, and a tail that was not measured.

In: cycles of one measured history. Out: cycles of n repeats; a fitted tail with its limits.
Method: excesses over a threshold follow a Weibull or a generalised Pareto distribution (Pickands, J. 1975, Ann. Statist. 3,
119-131), fitted by maximum likelihood; limits by parametric bootstrap (Efron, B. 1979, Ann. Statist. 7, 1-26).
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting.cycles import Cycles, joined
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import coherent, opened
from vivid_anvil.writing.finding import Finding

TAILS = {
    "weibull": "survival exp(-(x/s)^k) of the excess x",
    "generalised pareto": "survival (1 + k x/s)^(-1/k) of the excess x; exponential for k = 0",
}
FEWEST = 20
CLASSES = 200
_RESAMPLES = 100


@dataclass(frozen=True, eq=False)
class TailFit:
    """A fitted tail of ranges above `threshold`: `shape` k, `scale` s; `above` cycles of one occurrence were used.

    `resampled`, shape (m, 2), holds shape and scale of fits to resamples: how sure the fit is.
    """

    model: str
    threshold: float
    shape: float
    scale: float
    above: float
    largest_measured: float
    cycles: Cycles
    resampled: FloatArray = field(repr=False)

    def passed(self, ranges: ArrayLike, occurrences: float = 1.0) -> FloatArray:
        """How many cycles reach or pass each range, at or above the threshold, in so many occurrences."""
        return (
            occurrences
            * self.above
            * _survival(self.model, np.asarray(ranges) - self.threshold, self.shape, self.scale)
        )

    def limits(
        self, ranges: ArrayLike, occurrences: float = 1.0, confidence: float = 0.9
    ) -> tuple[FloatArray, FloatArray]:
        """Lower and upper limit of `passed` at a two-sided confidence."""
        excess = np.asarray(ranges, dtype=np.float64) - self.threshold
        curves = np.array([_survival(self.model, excess, shape, scale) for shape, scale in self.resampled])
        low, high = np.quantile(curves, [0.5 - 0.5 * confidence, 0.5 + 0.5 * confidence], axis=0)
        return occurrences * self.above * low, occurrences * self.above * high

    def largest(self, occurrences: float) -> float:
        """The range that is expected to be reached once in so many occurrences."""
        return self.threshold + float(_quantile(self.model, 1.0 / (occurrences * self.above), self.shape, self.scale))

    def extended(self, occurrences: float, largest: float | None = None) -> Cycles:
        """Cycles of so many occurrences: those below the threshold as counted, the tail in classes, each at its upper edge.

        The tail ends at the range expected once, or at `largest`, beyond which the load cannot go. Tail cycles have the mean
        of the measured ones above the threshold.
        """
        body = self.cycles.chosen(self.cycles.range < self.threshold)
        top = min(self.largest(occurrences), np.inf if largest is None else largest)
        if not top > self.threshold:
            raise InputError("tail, largest", f"{top:g}", f"a range above the threshold, {self.threshold:g}")
        edges = np.linspace(self.threshold, top, CLASSES + 1)
        reached = self.passed(edges, occurrences)
        reached[-1] = 0.0
        above = self.cycles.chosen(self.cycles.range >= self.threshold)
        mean = float(np.average(above.mean, weights=above.count))
        tail = Cycles(range=edges[1:], mean=np.full(CLASSES, mean), count=-np.diff(reached), dimension=body.dimension)
        whole = Cycles(range=body.range, mean=body.mean, count=occurrences * body.count, dimension=body.dimension)
        return joined([whole, tail])

    def findings(self, occurrences: float, slope: float, largest: float | None = None) -> tuple[Finding, ...]:
        """What share of the damage, on a curve of one `slope`, was never measured; and a tail from few cycles."""
        cycles = self.extended(occurrences, largest)
        damage = cycles.count * cycles.range**slope
        unseen = float(damage[cycles.range > self.largest_measured].sum() / damage.sum())
        low, high = (float(limit) for limit in self.limits(self.largest_measured, occurrences))
        findings = [
            Finding(
                "warning" if unseen > 0.1 else "note",
                "never-measured",
                f"{unseen:.0%} of the damage (slope {slope:g}) comes from ranges above the largest measured; how often that "
                f"one is passed is known to {low:.3g} to {high:.3g} times only.",
                "Measure longer, or say from the design how large the load can get.",
            )
        ]
        if self.above < 2 * FEWEST:
            findings.append(
                Finding(
                    "warning",
                    "short-tail",
                    f"The tail is fitted to {self.above:g} cycles.",
                    "Lower the threshold or measure longer.",
                )
            )
        return tuple(findings)


@opened()
def fit_tail(cycles: Cycles, threshold: float, *, model: str = "weibull", seed: int = 0) -> TailFit:
    """Fit the ranges of `cycles` above `threshold`, in the unit of the load; `model` is one of `TAILS`.

    Parameters
    ----------
    cycles : Cycles
        Counted cycles.
    threshold : float
        Ranges above this are fitted, in the unit of the load.
    model : str, default "weibull"
        Which distribution is fitted: one of `TAILS`.
    seed : int, default 0
        Seed of the random numbers: the same gives the same.

    Returns
    -------
    TailFit
        The distribution of the tail, with the range expected in longer times.

    Raises
    ------
    InputError
        For fewer than 20 cycles above the threshold.

    Examples
    --------
    >>> lap = history.cycles_of("vertical force")  # of the demo: read_history("loaded_lap.csv")
    >>> tail = fit_tail(lap, 1000.0)
    >>> round(tail.shape, 3)
    1.13
    """
    checks.one_of("tail, model", model, tuple(TAILS))
    limit = checks.positive_number(
        "tail, threshold", coherent(threshold, cycles.dimension, "tail, threshold"), "a range above 0"
    )
    above = cycles.range >= limit
    excess, weight = cycles.range[above] - limit, cycles.count[above]
    if weight.sum() < FEWEST or excess.max(initial=0.0) <= 0.0:
        raise InputError(
            "tail, threshold",
            f"{weight.sum():g} cycles above {limit:g}",
            f"at least {FEWEST}",
            "Lower the threshold or measure longer.",
        )
    shape, scale = _fitted(model, excess, weight)
    rng = np.random.default_rng(seed)
    size = round(float(weight.sum()))
    draws = (_quantile(model, rng.random(size), shape, scale) for _ in range(_RESAMPLES))
    resampled = np.array([_fitted(model, draw, np.ones(size)) for draw in draws])
    return TailFit(
        model, limit, shape, scale, float(weight.sum()), float(cycles.range.max()), cycles, checks.read_only(resampled)
    )


def _survival(model: str, excess: ArrayLike, shape: float, scale: float) -> FloatArray:
    x = np.maximum(np.asarray(excess, dtype=np.float64), 0.0) / scale
    if model == "weibull":
        return np.asarray(np.exp(-(x**shape)))
    if abs(shape) < 1e-9:
        return np.asarray(np.exp(-x))
    return np.asarray(np.maximum(1.0 + shape * x, 0.0) ** (-1.0 / shape))


def _quantile(model: str, survival: ArrayLike, shape: float, scale: float) -> FloatArray:
    share = np.asarray(survival, dtype=np.float64)
    if model == "weibull":
        found = scale * (-np.log(share)) ** (1.0 / shape)
    elif abs(shape) < 1e-9:
        found = -scale * np.log(share)
    else:
        found = scale * (share**-shape - 1.0) / shape
    return np.asarray(found)


def _fitted(model: str, excess: FloatArray, weight: FloatArray) -> tuple[float, float]:
    """Shape and scale of greatest likelihood: one search over the shape, or over the ratio of both."""
    from scipy.optimize import minimize_scalar

    x = np.maximum(excess, 1e-12 * excess.max())
    total = weight.sum()
    if model == "weibull":

        def scale_at(shape: float) -> float:
            return float(((weight * x**shape).sum() / total) ** (1.0 / shape))

        def loss(log_shape: float) -> float:
            shape = float(np.exp(log_shape))
            return -float(
                (weight * np.log(x)).sum() * (shape - 1.0) + total * (np.log(shape) - shape * np.log(scale_at(shape)))
            )

        shape = float(np.exp(minimize_scalar(loss, bounds=(-2.5, 2.5), method="bounded", options={"xatol": 1e-9}).x))
        return shape, scale_at(shape)
    # Grimshaw, S. D. 1993, Technometrics 35, 185-191: with t = k/s the best k is the mean of log(1 + t x).
    low = -1.0 / x.max() * (1.0 - 1e-6)

    def k_at(t: float) -> float:
        return float((weight * np.log1p(t * x)).sum() / total)

    def pareto_loss(t: float) -> float:
        k = k_at(t)
        scale = k / t if abs(t) > 1e-12 else float((weight * x).sum() / total)
        return float(np.log(scale) + k + 1.0) if scale > 0.0 and k > -0.5 else 1e6 + abs(t)

    mean = float((weight * x).sum() / total)
    starts = np.concatenate([np.linspace(low, -1e-6 / mean, 80), np.geomspace(1e-6, 20.0, 60) / mean])
    best = int(np.argmin([pareto_loss(t) for t in starts]))
    bounds = (starts[max(best - 1, 0)], starts[min(best + 1, starts.size - 1)])
    t = float(minimize_scalar(pareto_loss, bounds=bounds, method="bounded", options={"xatol": 1e-12 / mean}).x)
    k = k_at(t)
    return k, k / t
