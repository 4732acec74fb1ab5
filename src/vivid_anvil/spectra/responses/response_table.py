"""A frequency response known at lines: measured, or computed by a finite-element model."""

from __future__ import annotations

import functools
import warnings
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.spectra.responses.polar import of_phases
from vivid_anvil.spectra.responses.response import RESPONSES, ComplexArray, Resonance, Response
from vivid_anvil.units import DIMENSIONS, coherent_ratio, coherent_values, sound

BETWEEN_LINES: Choices[Any] = Choices("course of a frequency response between lines")
CLOSE_FITS = (1e-12, 1e-10, 1e-8, 1e-6, 1e-4)  # of the largest value: what a rational fit may leave at the lines


@BETWEEN_LINES.add("real and imaginary")
def real_and_imaginary(table: ResponseTable, asked: FloatArray) -> ComplexArray:
    """Both parts straight over the frequency."""
    f, h = table.frequency, table.values
    return np.asarray(np.interp(asked, f, h.real) + 1j * np.interp(asked, f, h.imag))


@BETWEEN_LINES.add("magnitude and phase")
def magnitude_and_phase(table: ResponseTable, asked: FloatArray) -> ComplexArray:
    """The logarithm of the magnitude and the unwrapped phase straight over the frequency."""
    f, h = table.frequency, table.values
    size = np.exp(np.interp(asked, f, np.log(np.abs(h))))
    return np.asarray(size * np.exp(1j * np.interp(asked, f, np.unwrap(np.angle(h)))))


@BETWEEN_LINES.add("rational")
def rational(table: ResponseTable, asked: FloatArray) -> ComplexArray:
    """A quotient of polynomials through the lines (the AAA algorithm), as that of modes is: right between lines too."""
    return np.asarray(table.fitted(asked.ravel()).reshape(asked.shape))


@sound
@RESPONSES.add("table")
@dataclass(frozen=True, kw_only=True, eq=False)
class ResponseTable(Response):
    """Complex stress per input at lines; outside of them there is nothing, and asking there is an error.

    Parameters
    ----------
    frequency : ndarray, shape (n,)
        Lines, Hz; ascending.
    values : ndarray of complex, shape (n,)
        Stress for an input of 1 `per`, at each line.
    per : str, default "MPa/g"
        Unit of the values: stress per unit of the input.
    between : str, default "real and imaginary"
        How it runs between lines; one of `BETWEEN_LINES`.
    input : str, default "acceleration"
        What the input is; a name of `DIMENSIONS`.

    Raises
    ------
    InputError
        For lines that do not ascend, values that are no numbers, and for phases that seem to be in the wrong unit.

    Examples
    --------
    >>> table = ResponseTable(frequency=[10.0, 20.0, 30.0], values=[1.0, 2.0 - 1.0j, -1.0j], per="MPa/g")
    >>> complex((table.at(np.array([15.0])) * 9806.65)[0])
    (1.5-0.5j)
    """

    frequency: FloatArray
    values: ComplexArray
    per: str = "MPa/g"
    between: str = "real and imaginary"
    input: str = "acceleration"

    def __post_init__(self) -> None:
        checks.one_of(inside("response table", "input"), self.input, tuple(DIMENSIONS))
        where = "response table"
        given = np.atleast_1d(coherent_values(self.frequency, "frequency", inside(where, "frequency")))
        frequency = checks.finite_samples(given, where=inside(where, "frequency"), unit="Hz")
        values = np.asarray(self.values)
        if values.dtype.kind not in "iufc" or not np.isfinite(values).all():
            raise InputError(inside(where, "values"), f"values of type {values.dtype}", "finite complex numbers")
        if values.shape != frequency.shape or frequency.size < 2:
            raise InputError(
                where, f"{values.size} values for {frequency.size} lines", "two lines or more, one value each"
            )
        falls = np.flatnonzero(np.diff(frequency) <= 0.0)
        if falls.size or frequency[0] < 0.0:
            at = int(falls[0]) + 1 if falls.size else 0
            raise InputError(
                inside(where, "frequency"), f"{frequency[at]:g} Hz, line {at + 1}", "ascending frequencies of 0 or more"
            )
        checks.one_of(inside(where, "between"), self.between, tuple(BETWEEN_LINES))
        if self.between == "magnitude and phase" and not np.abs(values).all():
            raise InputError(
                inside(where, "values"), "a magnitude of 0", "magnitudes above 0", "Say 'real and imaginary'."
            )
        object.__setattr__(self, "frequency", read_only(np.array(frequency)))
        object.__setattr__(self, "values", read_only(np.array(values, dtype=np.complex128)))
        assert self.per_input != 0.0

    @classmethod
    def of_phases(
        cls, frequency: ArrayLike, magnitude: ArrayLike, phase_degrees: ArrayLike, **others: Any
    ) -> ResponseTable:
        """From magnitudes and phases in degrees; InputError for phases that never leave ±π, which look like radians.

        >>> ResponseTable.of_phases([10.0, 20.0], [1.0, 2.0], [0.0, -90.0]).values.round(12)
        array([1.+0.j, 0.-2.j])
        """
        where = "response table"
        size = checks.finite_samples(magnitude, where=inside(where, "magnitude"), unit="")
        phase = checks.finite_samples(phase_degrees, where=inside(where, "phase"), unit="degrees")
        lines: Any = frequency
        return cls(frequency=lines, values=of_phases(size, phase, where), **others)

    @property
    def takes(self) -> str | None:
        """What the values are for."""
        return self.input

    @property
    def per_input(self) -> float:
        """What a value of 1 is, in MPa for a coherent unit of the input."""
        return coherent_ratio(f"1 {self.per}", "stress", self.input, "response table, per")

    def at(self, frequency: FloatArray) -> ComplexArray:
        """At frequencies within the lines; InputError beyond them."""
        asked = np.asarray(frequency, dtype=np.float64)
        low, high = float(self.frequency[0]), float(self.frequency[-1])
        slack = 1e-9 * high
        if asked.size and not (asked.min() >= low - slack and asked.max() <= high + slack):
            raise InputError(
                "response table",
                f"an input from {asked.min():.4g} to {asked.max():.4g} Hz",
                f"frequencies from {low:g} to {high:g} Hz, which the table has",
                "Compute or measure the response as far as the input goes, or cut the input there.",
            )
        return np.asarray(self.per_input * BETWEEN_LINES[self.between](self, np.clip(asked, low, high)))

    @property
    def fitted(self) -> Any:
        """The rational function through the lines; InputError where it leaves more than rounding there."""
        return _fit(self.frequency.tobytes(), self.values.tobytes())

    @property
    def corners(self) -> FloatArray:
        """The lines, between which it runs straight; none of a rational fit."""
        return np.empty(0) if self.between == "rational" else self.frequency

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of a rational fit: its poles near the axis; else those that the lines show."""
        return self._of_poles() if self.between == "rational" else self.peaks

    @property
    def peaks(self) -> tuple[Resonance, ...]:
        """Sharp maxima between lines, with the damping that the width at half power tells, by a rational fit around each."""
        size = np.abs(self.values)
        inner = np.flatnonzero((size[1:-1] > size[:-2]) & (size[1:-1] >= size[2:])) + 1
        found = (_around(self.frequency, self.values, int(at)) for at in inner)
        return tuple(one for one in found if one is not None)

    def _of_poles(self) -> tuple[Resonance, ...]:
        low, high = float(self.frequency[0]), float(self.frequency[-1])
        poles = np.asarray(self.fitted.poles())
        near = poles[(poles.real > low) & (poles.real < high) & (np.abs(poles.imag) < 0.5 * poles.real)]
        return tuple(Resonance(float(one.real), float(abs(one.imag) / one.real)) for one in near if one.imag != 0.0)

    @property
    def words(self) -> str:
        """How many lines, and how it runs between them."""
        return (
            f"a table of {self.frequency.size} lines, {self.frequency[0]:g} to {self.frequency[-1]:g} Hz, "
            f"{self.between} between them"
        )


@functools.lru_cache(maxsize=16)
def _fit(frequency: bytes, values: bytes) -> Any:
    """As close as the digits of the table let it: what is closer would follow their rounding by poles that are not there."""
    from scipy.interpolate import AAA

    f, h = np.frombuffer(frequency), np.frombuffer(values, dtype=np.complex128)
    for close in CLOSE_FITS:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", RuntimeWarning)  # not close enough: the next one is asked for less
            fit = AAA(f, h, rtol=close, max_terms=min(100, f.size // 2 + 1))
        if float(np.max(np.abs(fit(f) - h)) / np.abs(h).max()) <= close:
            return fit
    raise InputError(
        "response table, between",
        "a response through which no rational function goes",
        f"a smooth response, fitted to {CLOSE_FITS[-1]:g} of its largest value",
        "Measured responses have noise: say 'real and imaginary', with four lines or more in each half-power width.",
    )


def _around(frequency: FloatArray, values: ComplexArray, at: int) -> Resonance | None:
    """The resonance at a maximum of a table: of 1/H, which near a single mode is a parabola, by the three lines there."""
    f, h = frequency[at - 1 : at + 2], values[at - 1 : at + 2]
    if not np.abs(h).all():
        return None
    squared = (f / f[1]) ** 2
    slope, start = np.polyfit(squared, 1.0 / h, 1)  # 1/H = A (1 - (f/fn)²) + i B
    ratio = -start / slope  # (fn/f1)² (1 + iη)
    if ratio.real <= 0.0 or abs(ratio.imag) >= ratio.real:
        return None
    return Resonance(float(f[1] * np.sqrt(ratio.real)), float(0.5 * abs(ratio.imag) / ratio.real))
