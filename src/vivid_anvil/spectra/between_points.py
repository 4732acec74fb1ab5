"""How a PSD runs between its points: one class each, with the exact integral of f^n G over each piece."""

from __future__ import annotations

import itertools
from abc import ABC, abstractmethod
from typing import ClassVar

import numpy as np
from scipy.special import exprel

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.choices import Choices
from vivid_anvil.spectra.density import Lines

BETWEEN_POINTS: Choices[type[BetweenPoints]] = Choices("course of a PSD between points")
NODES, WEIGHTS = np.polynomial.legendre.leggauss(
    12
)  # on a piece of at most a factor 1.5 in frequency: exact to rounding
WIDEST = 1.5


class BetweenPoints(ABC):
    """A course between points. It has no values of its own, so the class itself is used."""

    kind: ClassVar[str]
    takes_logarithms: ClassVar[bool] = False

    @staticmethod
    @abstractmethod
    def at(frequency: FloatArray, values: FloatArray, asked: FloatArray) -> FloatArray:
        """G at frequencies within the points."""

    @staticmethod
    @abstractmethod
    def pieces(frequency: FloatArray, values: FloatArray, order: float) -> FloatArray:
        """∫ f^order G df over each piece between points, shape (n - 1,)."""

    @staticmethod
    def lines(frequency: FloatArray) -> Lines:
        """Places and weights that integrate what runs as this does."""
        edges = _fine(frequency)
        half = 0.5 * np.diff(edges)[:, None]
        middle = 0.5 * (edges[:-1] + edges[1:])[:, None]
        return Lines(read_only((middle + half * NODES).ravel()), read_only((half * WEIGHTS).ravel()))


def _fine(frequency: FloatArray) -> FloatArray:
    """The points, with more between them where they are further apart than a factor of 1.5."""
    edges = [frequency[:1]]
    for low, high in itertools.pairwise(frequency.tolist()):
        if low <= 0.0:
            edges.append(np.linspace(low, high, 9)[1:])
            continue
        count = max(1, int(np.ceil(np.log(high / low) / np.log(WIDEST))))
        edges.append(low * (high / low) ** (np.arange(1, count + 1) / count))
        edges[-1][-1] = high
    return np.concatenate(edges)


@BETWEEN_POINTS.add("log-log")
class LogLog(BetweenPoints):
    """Straight in log-log, as breakpoints of a specification are: G = G1 (f/f1)^s."""

    takes_logarithms: ClassVar[bool] = True

    @staticmethod
    def at(frequency: FloatArray, values: FloatArray, asked: FloatArray) -> FloatArray:
        """By the logarithms."""
        return np.exp(np.interp(np.log(asked), np.log(frequency), np.log(values)))

    @staticmethod
    def pieces(frequency: FloatArray, values: FloatArray, order: float) -> FloatArray:
        """G1 f1^(n+1) L (e^z - 1)/z with L = ln(f2/f1), z = (n + 1) L + ln(G2/G1): right at and near a slope of -(n + 1)."""
        low = frequency[:-1]
        octaves = np.log1p(np.diff(frequency) / low)
        z = (order + 1.0) * octaves + np.log(values[1:] / values[:-1])
        return np.asarray(values[:-1] * low ** (order + 1.0) * octaves * exprel(z))


@BETWEEN_POINTS.add("linear")
class Linear(BetweenPoints):
    """Straight in linear scales."""

    @staticmethod
    def at(frequency: FloatArray, values: FloatArray, asked: FloatArray) -> FloatArray:
        """Straight between points."""
        return np.interp(asked, frequency, values)

    @staticmethod
    def pieces(frequency: FloatArray, values: FloatArray, order: float) -> FloatArray:
        """Closed form; by twelve places where a piece is so narrow that the closed form would lose digits."""
        low, high = frequency[:-1], frequency[1:]
        slope = np.diff(values) / (high - low)
        first, second = ((high**n - low**n) / n for n in (order + 1.0, order + 2.0))
        closed = (values[:-1] - slope * low) * first + slope * second
        half = 0.5 * (high - low)[:, None]
        places = 0.5 * (low + high)[:, None] + half * NODES
        course = values[:-1, None] + slope[:, None] * (places - low[:, None])
        by_places = np.sum(half * WEIGHTS * course * places**order, axis=1)
        return np.where(high < WIDEST * low, by_places, closed)


@BETWEEN_POINTS.add("lines")
class AtLines(BetweenPoints):
    """Known at lines only, as an estimate or a computed response is: the trapezoid rule on f^n G."""

    @staticmethod
    def at(frequency: FloatArray, values: FloatArray, asked: FloatArray) -> FloatArray:
        """Straight between lines."""
        return np.interp(asked, frequency, values)

    @staticmethod
    def pieces(frequency: FloatArray, values: FloatArray, order: float) -> FloatArray:
        """The mean of both ends times the width."""
        product = values * frequency**order
        return np.asarray(0.5 * np.diff(frequency) * (product[:-1] + product[1:]))

    @staticmethod
    def lines(frequency: FloatArray) -> Lines:
        """The lines themselves, each for half the way to its neighbours."""
        width = np.diff(frequency)
        weight = 0.5 * (np.append(width, 0.0) + np.append(0.0, width))
        return Lines(frequency, read_only(weight))
