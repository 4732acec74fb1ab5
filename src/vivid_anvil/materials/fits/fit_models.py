"""Models of scattered life for tests with run-outs: log-likelihood and quantiles, plain functions of the parameters.

All work in u = log10 S - u0 (u0: mean of the tests) and y = log10 N. A run-out counts with the probability of outliving it.
The parameters are free real numbers: standard deviations and differences of slopes enter as logarithms.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.special import log_ndtr, ndtr, ndtri

from vivid_anvil.ground.checks import FloatArray

_LOG_ROOT_2PI = 0.5 * math.log(2.0 * math.pi)
_LN_10, _REACH = math.log(10.0), 8.0


def _panels(panels: int = 24, order: int = 10) -> tuple[FloatArray, FloatArray]:
    """Places and weights of a Gauss rule on 0 to 1 in panels that shrink towards 0, where lives run away."""
    nodes, weights = np.polynomial.legendre.leggauss(order)
    edges = np.linspace(0.0, 1.0, panels + 1) ** 2
    half = 0.5 * np.diff(edges)[:, None]
    return (0.5 * (edges[:-1] + edges[1:])[:, None] + half * nodes).ravel(), (half * weights).ravel()


_PLACES, _SHARES = _panels()


@dataclass(frozen=True, eq=False)
class Data:
    """Tests as the models want them: centred log stress, log life, failed or not."""

    u: FloatArray
    y: FloatArray
    failed: Any
    u0: float


def _normal_terms(y: FloatArray, mean: FloatArray, std: float, failed: FloatArray) -> float:
    """Log-likelihood of log lives: density where failed, probability of a longer life where not."""
    z = (y - mean) / std
    density = -0.5 * z * z - _LOG_ROOT_2PI - math.log(std)
    return float(np.where(failed, density, log_ndtr(-z)).sum())


def line_median(theta: FloatArray, u: FloatArray) -> FloatArray:
    """c - m u."""
    return np.asarray(theta[0] - theta[1] * u)


def line_likelihood(theta: FloatArray, data: Data) -> float:
    """Straight line with the same scatter everywhere; theta = c, m, ln s."""
    return _normal_terms(data.y, line_median(theta, data.u), math.exp(theta[2]), data.failed)


def line_quantile(theta: FloatArray, u: FloatArray, survival: float) -> FloatArray:
    """log10 life that a share `survival` reaches."""
    return line_median(theta, u) - float(ndtri(survival)) * math.exp(theta[2])


def knee_median(theta: FloatArray, u: FloatArray) -> FloatArray:
    """Slope m above the knee (at u_k with log life c), m + exp(q) below; theta = c, m, q, u_k, ln s."""
    c, m, q, knee = theta[:4]
    away = knee - u
    return np.asarray(c + np.where(away > 0.0, m + math.exp(q), m) * away)


def knee_likelihood(theta: FloatArray, data: Data) -> float:
    """Two lines that meet at a knee."""
    return _normal_terms(data.y, knee_median(theta, data.u), math.exp(theta[4]), data.failed)


def knee_quantile(theta: FloatArray, u: FloatArray, survival: float) -> FloatArray:
    """log10 life that a share `survival` reaches."""
    return knee_median(theta, u) - float(ndtri(survival)) * math.exp(theta[4])


def random_limit_nodes(theta: FloatArray, u: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Mean log life and weight at the places of the Gauss rule over the fatigue limits below u, shape (n, places).

    theta = c, m, ln s, v, ln s_v. Each specimen has its own fatigue limit: log10 of it is normal with mean v (centred like u)
    and deviation s_v; above it log10 N is normal with mean c - m log10(10^u - 10^limit) and deviation s (Pascual, F. G. and
    Meeker, W. Q. 1999, Technometrics 41, 277-290).
    """
    c, m, v, std_v = theta[0], theta[1], theta[3], math.exp(theta[4])
    top = np.clip((u - v) / std_v, -_REACH, _REACH)[:, None]
    z, width = top - (top + _REACH) * _PLACES, (top + _REACH) * _SHARES
    excess = -np.expm1((v + std_v * z - u[:, None]) * _LN_10)
    with np.errstate(divide="ignore"):
        mean = c - m * (u[:, None] + np.log10(np.maximum(excess, 0.0)))
    return mean, width * np.exp(-0.5 * z * z - _LOG_ROOT_2PI)


def random_limit_likelihood(theta: FloatArray, data: Data) -> float:
    """Tests whose specimens each have a fatigue limit of their own."""
    if not (abs(theta[2]) < 12.0 and -9.0 < theta[4] < 1.0 and theta[1] > 0.0):
        return -math.inf
    levels, level = np.unique(data.u, return_inverse=True)
    mean, weight = random_limit_nodes(theta, levels)
    std = math.exp(theta[2])
    failed, ran_out = level[data.failed], level[~data.failed]
    t = (data.y[data.failed, None] - mean[failed]) / std
    density = (weight[failed] * np.exp(-0.5 * t * t - _LOG_ROOT_2PI)).sum(axis=1) / std
    passed = (weight[ran_out] * ndtr((data.y[~data.failed, None] - mean[ran_out]) / std)).sum(axis=1)
    value = np.concatenate([density, 1.0 - passed])
    return float(np.log(value).sum()) if (value > 0.0).all() else -math.inf


def random_limit_failed(theta: FloatArray, u: float, y: float) -> float:
    """Share of specimens that has failed at log life y and stress u."""
    mean, weight = random_limit_nodes(theta, np.array([u]))
    return float((weight * ndtr((y - mean) / math.exp(theta[2]))).sum())


def random_limit_scores(thetas: FloatArray, u: float) -> Callable[[float], FloatArray]:
    """The function of log life y: normal quantiles of the share that has failed at stress u, one for each row of `thetas`."""
    at = np.array([u])
    found = [random_limit_nodes(theta, at) for theta in thetas]
    mean, weight = (np.concatenate(parts) for parts in zip(*found, strict=True))
    std = np.exp(thetas[:, 2:3])

    def scores(y: float) -> FloatArray:
        return np.asarray(ndtri((weight * ndtr((y - mean) / std)).sum(axis=1)))

    return scores


def random_limit_quantile(theta: FloatArray, u: FloatArray, survival: float) -> FloatArray:
    """log10 life that a share `survival` reaches; inf where more than that share never fails."""
    return np.array([_random_limit_quantile(theta, float(one), survival) for one in np.ravel(u)]).reshape(np.shape(u))


def _random_limit_quantile(theta: FloatArray, u: float, survival: float) -> float:
    fails = 1.0 - survival
    if not float(ndtr((u - theta[3]) / math.exp(theta[4]))) > fails:
        return math.inf

    def missing(y: float) -> float:
        return random_limit_failed(theta, u, y) - fails

    high = 4.0
    while missing(high) < 0.0:
        high += 4.0
        if high > 60.0:
            return math.inf
    low = high - 4.0
    while missing(low) > 0.0:
        low -= 4.0
    from scipy.optimize import brentq  # takes long to import

    return float(brentq(missing, low, high, xtol=1e-12))


@dataclass(frozen=True)
class Model:
    """A model: names of its parameters, likelihood, quantile, and what it is for."""

    name: str
    parameters: tuple[str, ...]
    likelihood: Callable[[FloatArray, Data], float]
    quantile: Callable[[FloatArray, FloatArray, float], FloatArray]
    what: str


FIT_MODELS = {
    model.name: model
    for model in (
        Model(
            "line",
            ("life at the middle", "slope", "ln std"),
            line_likelihood,
            line_quantile,
            "one slope; run-outs counted with the chance of outliving them",
        ),
        Model(
            "sharp limit",
            ("life at the middle", "slope", "ln std"),
            line_likelihood,
            line_quantile,
            "one slope above a fatigue limit that is the same for all specimens",
        ),
        Model(
            "two slopes",
            ("life at the knee", "slope", "ln of slope more", "knee", "ln std"),
            knee_likelihood,
            knee_quantile,
            "two slopes that meet at a knee; needs failures on both sides of it",
        ),
        Model(
            "random limit",
            ("life at the middle", "slope", "ln std", "median limit", "ln std of limit"),
            random_limit_likelihood,
            random_limit_quantile,
            "each specimen has a fatigue limit of its own; needs failures and run-outs at the same levels",
        ),
    )
}
