"""The random test that does the damage of a service in a stated time."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Self

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.spectra import PSD
from vivid_anvil.tailoring.damage_spectrum import DamageSpectrum, damage_spectrum
from vivid_anvil.tailoring.oscillators import Oscillators
from vivid_anvil.units import UnitSystem, coherent, coherent_values, in_unit, lasting, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

PASSES = 30  # corrections of levels at most
CLOSE = 1e-3  # of the damage
FAR = 1.5  # times the extremes of the service


@dataclass(frozen=True, eq=False, repr=False)
class TailoredTest(Result):
    """A random test that does the damage of a service in a stated time; `tailored_test` makes one.

    Parameters
    ----------
    psd : PSD
        Base acceleration of the test.
    time : float
        How long it lasts, s.
    service : DamageSpectrum
        What it is made for.
    spectrum : DamageSpectrum
        What it does.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> some = Oscillators([50.0, 90.0], slope=8.0)
    >>> service = damage_spectrum(PSD([20.0, 500.0], [2.9e6] * 2), some, exposure="200 h")
    >>> tailored_test(service, "8 h").damage_ratio.round(2)
    array([1., 1.])
    """

    psd: PSD
    time: float
    service: DamageSpectrum
    spectrum: DamageSpectrum

    @property
    def title(self) -> str:
        """What it is the test for."""
        return f"Test of {self.service.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say: how far it was shortened."""
        return tuple(_shortened(self))

    @property
    def extreme_ratio(self) -> float:
        """The largest extreme of the test over that of the service at the same oscillator."""
        return float((self.spectrum.extreme / self.service.extreme).max())

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a test."""
        return Table(
            "Tests",
            (
                Column("service", [one.service.name for one in results]),
                Column("time of the service", [one.service.time for one in results], of="time"),
                Column("time of the test", [one.time for one in results], of="time"),
                Column("root mean square", [one.psd.rms for one in results], of="acceleration"),
                Column("smallest damage ratio", [float(one.damage_ratio.min()) for one in results]),
                Column("largest damage ratio", [float(one.damage_ratio.max()) for one in results]),
                Column("largest ratio of extremes", [one.extreme_ratio for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """Level, time, what it does against the service."""
        low, high = self.psd.band
        before = "" if self.service.time is None else f" for {lasting(self.service.time)} of service"
        ratio = self.damage_ratio
        return (
            ("Level", f"{in_unit(self.psd.rms, 'acceleration', 'us')} rms, {number(low)} to {number(high)} Hz"),
            ("Time", f"{lasting(self.time)}{before}"),
            ("Damage", f"{number(float(ratio.min()))} to {number(float(ratio.max()))} times that of the service"),
            ("Extremes", f"up to {number(self.extreme_ratio)} times those of the service"),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The breakpoints, for the controller of the shaker."""
        levels = self.psd.values / coherent("1 g", "acceleration", "tailored test") ** 2
        columns = (
            Column("frequency", self.psd.frequency, of="frequency"),
            Column("level", levels, unit="g^2/Hz", style="number"),
        )
        return (Table("Breakpoints, straight in log-log", columns, key="breakpoints"),)

    def __repr__(self) -> str:
        size = in_unit(self.psd.rms, "acceleration", "us", digits=3)
        return f"<TailoredTest of {self.service.name}: {size} rms for {lasting(self.time)}>"

    @property
    def damage_ratio(self) -> FloatArray:
        """Damage of the test over that of the service, of each oscillator."""
        return np.asarray(self.spectrum.damage / self.service.damage)


def _shortened(test: TailoredTest) -> Iterator[Finding]:
    """A test so short that its stress is far above that of the service."""
    ratio = test.extreme_ratio
    if ratio <= FAR:
        return
    shorter = "" if test.service.time is None else f", {number(test.service.time / test.time, 3)} times shorter,"
    yield Finding(
        "warning",
        "test-shortened",
        f"The test{shorter} reaches {number(ratio, 3)} times the extremes of the service: its damage is equal only where the S-N "
        f"curve has the slope {number(test.service.oscillators.slope)} up to there.",
        "Check the stress of the test against the range in which the curve was tested, and against yield; else make it longer.",
    )


@opened()
def tailored_test(
    service: DamageSpectrum, time: float | str, *, corners: object = None, margin: float = 1.0
) -> TailoredTest:
    """The PSD of a random test of `time` with the damage spectrum of a service.

    Levels start from those at which each oscillator by itself would have the damage on a flat base, and are then corrected until
    the whole PSD gives it. With `corners` the test has breakpoints there alone, and as much damage as the service or more.

    Parameters
    ----------
    service : DamageSpectrum
        What has to be covered, as often as it happens: `damage_spectrum(...).times(...)`.
    time : float or str
        How long the test lasts, s or text.
    corners : sequence of float or str, optional
        Frequencies of the breakpoints, Hz or text; by default those of the oscillators.
    margin : float, default 1.0
        Factor on the damage that is asked for.

    Returns
    -------
    TailoredTest
        The PSD and what it does.

    Raises
    ------
    InputError
        For a service without damage, and for corners outside its oscillators.

    Examples
    --------
    >>> some = Oscillators.spaced("20 Hz", "500 Hz", slope=8.0, per_octave=6)
    >>> flat = PSD([20.0, 500.0], [0.03 * 9806.65**2] * 2)
    >>> test = tailored_test(damage_spectrum(flat, some, exposure="200 h"), "8 h")
    >>> f"{test.psd.rms / flat.rms:.3f}"
    '1.496'
    """
    seconds = checks.positive_number("tailored test, time", coherent(time, "time", "tailored test, time"))
    checks.positive_number("tailored test, margin", margin)
    own = service.oscillators
    wanted = margin * service.damage
    if not (wanted > 0.0).all():
        raise InputError("tailored test, service", "oscillators without damage", "a service that shakes all of them")
    frequency = own.natural_frequency
    places = frequency if corners is None else _corners(corners, frequency)
    first = own.level_for(wanted, seconds)
    levels = np.exp(np.interp(np.log(places), np.log(frequency), np.log(first)))
    test, done = _made(places, levels, own, seconds)
    for _ in range(PASSES):
        ratio = done.damage / wanted
        if corners is None and np.abs(ratio - 1.0).max() < CLOSE:
            break
        levels = levels * _correction(places, frequency, ratio ** (-2.0 / own.slope))
        test, done = _made(places, levels, own, seconds)
    least = float((done.damage / wanted).min())
    if corners is not None or least < 1.0:  # what is made for a service covers it
        test, done = _made(places, levels * least ** (-2.0 / own.slope), own, seconds)
    return TailoredTest(test, seconds, service, done.called("tailored test"))


def _made(places: FloatArray, levels: FloatArray, own: Oscillators, seconds: float) -> tuple[PSD, DamageSpectrum]:
    """A test with these breakpoints, and what it does."""
    test = PSD(places, levels)
    return test, damage_spectrum(test, own, exposure=seconds)


def _corners(corners: object, frequency: FloatArray) -> FloatArray:
    """Breakpoints in Hz; InputError outside the oscillators."""
    where = inside("tailored test", "corners")
    found = np.atleast_1d(coherent_values(corners, "frequency", where))
    if found.ndim != 1 or found.size < 2 or not (np.diff(found) > 0.0).all():
        raise InputError(where, shortened(found.tolist()), "two or more ascending frequencies")
    if found[0] < frequency[0] * (1.0 - 1e-9) or found[-1] > frequency[-1] * (1.0 + 1e-9):
        raise InputError(
            where,
            f"{found[0]:g} to {found[-1]:g} Hz",
            f"frequencies from {frequency[0]:g} to {frequency[-1]:g} Hz, which the oscillators have",
        )
    return found


def _correction(places: FloatArray, frequency: FloatArray, asked: FloatArray) -> FloatArray:
    """Factor on the level at each breakpoint: the mean, in logarithms, of what the oscillators between its neighbours ask for."""
    if places.size == frequency.size:
        return np.asarray(asked)
    x, weights = np.log(frequency), np.empty((places.size, frequency.size))
    for i, unit in enumerate(np.eye(places.size)):
        weights[i] = np.interp(x, np.log(places), unit)
    return np.asarray(np.exp(weights @ np.log(asked) / np.maximum(weights.sum(axis=1), 1e-300)))
