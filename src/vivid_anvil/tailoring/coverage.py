"""Does a test cover a service? Band by band: damage against damage, extremes against extremes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Self

import numpy as np

from vivid_anvil.ground.errors import InputError
from vivid_anvil.tailoring.damage_spectrum import DamageSpectrum
from vivid_anvil.tailoring.oscillators import USUAL_Q
from vivid_anvil.units import Takes, UnitSystem, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

ENOUGH = 1.0 - 1e-9  # damage of the test over that of the service
HARD = 10.0  # from so much more damage on a band is tested too hard


@dataclass(frozen=True)
class Band:
    """Natural frequencies from `low` to `high`, Hz: the smallest and largest damage of the test over that of the service there.

    `extreme_ratio` is the largest ratio of extremes, test over service.
    """

    low: float
    high: float
    smallest: float
    largest: float
    extreme_ratio: float
    slope: float

    @property
    def verdict(self) -> str:
        """In a word or two."""
        if self.smallest < ENOUGH:
            return "not covered"
        return "too hard" if self.smallest > HARD else "covered"

    @property
    def level_factor(self) -> float:
        """The factor on the level of the test, rms, at which the damage of the band would just be met."""
        return float(self.smallest ** (-1.0 / self.slope))


@dataclass(frozen=True, eq=False, repr=False)
class Coverage(Result):
    """A test against a service, both as spectra of the same oscillators; `coverage` makes one.

    Parameters
    ----------
    service : DamageSpectrum
        What has to be covered.
    test : DamageSpectrum
        What the test does.
    bands : tuple of Band
        Bands of natural frequency, each with its ratios.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> some = Oscillators([50.0, 90.0], slope=8.0)
    >>> service = damage_spectrum(PSD([20.0, 500.0], [2.9e6] * 2), some, exposure="200 h")
    >>> coverage(service, service.times(2.0)).covers
    True
    """

    service: DamageSpectrum
    test: DamageSpectrum
    bands: tuple[Band, ...]

    @property
    def covers(self) -> bool:
        """Whether the test does as much damage as the service to every oscillator."""
        return all(band.smallest >= ENOUGH for band in self.bands)

    @property
    def title(self) -> str:
        """Both names."""
        return f"{self.test.name} against {self.service.name}"

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What is not covered, what is too hard, and what never happens in service."""
        return tuple(_findings(self))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a comparison."""
        ratios = [one.test.damage / one.service.damage for one in results]
        return Table(
            "Coverage",
            (
                Column("test", [one.test.name for one in results]),
                Column("service", [one.service.name for one in results]),
                Column("covers", [one.covers for one in results]),
                Column("smallest damage ratio", [float(one.min()) for one in ratios]),
                Column("largest damage ratio", [float(one.max()) for one in ratios]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """The verdict, and how it was reached."""
        ratio, own = self.test.damage / self.service.damage, self.service.oscillators
        verdict = "covers the service" if self.covers else "does not cover the service"
        worst = float(own.natural_frequency[int(np.argmin(ratio))])
        return (
            (
                "Verdict",
                f"the test {verdict}: damage at least {number(float(ratio.min()))} times that of it, at {worst:.4g} Hz",
            ),
            ("Oscillators", f"Q = {own.quality_factor:g}, slope {own.slope:g}, narrow-band amplitudes"),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a band."""
        bands = self.bands
        columns = (
            Column("from", [band.low for band in bands], of="frequency", style="number"),
            Column("to", [band.high for band in bands], of="frequency", style="number"),
            Column("verdict", [band.verdict for band in bands], left=True, alarm=[b.smallest < ENOUGH for b in bands]),
            Column("smallest damage ratio", [band.smallest for band in bands], head="Damage from", style="number"),
            Column("largest damage ratio", [band.largest for band in bands], head="to", style="number"),
            Column("level factor", [band.level_factor for band in bands], head="Level times"),
            Column("extreme ratio", [band.extreme_ratio for band in bands], head="Extreme"),
        )
        note = "Damage and extremes: those of the test over those of the service. Level times: what would just cover the band."
        return (Table("Bands of natural frequency", columns, key="bands", note=note),)

    def __repr__(self) -> str:
        return f"<Coverage {self.title}: {'covered' if self.covers else 'not covered'}, {len(self.bands)} bands>"


def _findings(found: Coverage) -> Iterator[Finding]:
    own = found.service.oscillators
    for band in found.bands:
        if band.smallest < ENOUGH:
            yield Finding(
                "warning",
                "not-covered",
                f"From {band.low:.4g} to {band.high:.4g} Hz the test does {number(band.smallest)} times the damage of the "
                "service.",
                f"Raise its level there by a factor of {number(band.level_factor)} (rms), or test longer.",
            )
    above = [band for band in found.bands if band.extreme_ratio > 1.0]
    if above:
        worst = max(above, key=lambda band: band.extreme_ratio)
        yield Finding(
            "warning",
            "test-extreme",
            f"The test reaches {number(worst.extreme_ratio)} times the largest response of the service ({worst.low:.4g} to "
            f"{worst.high:.4g} Hz): parts may yield, or knock, as they never do in service.",
            "Test longer at a lower level, or show that the part stays elastic.",
        )
    hard = [band for band in found.bands if band.smallest > HARD]
    if hard:
        yield Finding(
            "note",
            "test-too-hard",
            f"In {len(hard)} of {len(found.bands)} bands the test does more than {HARD:g} times the damage of the service.",
            "A failure there says little about the service.",
        )
    if own.quality_factor == USUAL_Q:
        yield Finding(
            "note",
            "quality-factor-usual",
            f"Q = {USUAL_Q:g} is the usual value, not one of this part; extremes go with it, ratios of damage hardly do.",
            "State quality_factor where the damping is known.",
        )


@opened(bands_per_octave=Takes(above=0.0, at_most=1000.0))
def coverage(service: DamageSpectrum, test: DamageSpectrum, *, bands_per_octave: float = 1.0) -> Coverage:
    """Compare a test with a service, in bands of natural frequency.

    Parameters
    ----------
    service : DamageSpectrum
        What has to be covered, as often as it happens.
    test : DamageSpectrum
        What the test does, of the same oscillators.
    bands_per_octave : float, default 1.0
        How narrow the bands are.

    Returns
    -------
    Coverage
        A verdict for each band.

    Raises
    ------
    InputError
        For spectra of different oscillators, and for a service without damage.

    Examples
    --------
    >>> some = Oscillators.spaced("20 Hz", "500 Hz", slope=8.0, per_octave=6)
    >>> service, test = (PSD([20.0, 500.0], [level * 9806.65**2] * 2) for level in (0.03, 0.06))
    >>> both = [damage_spectrum(one, some, exposure=time) for one, time in ((service, "200 h"), (test, "8 h"))]
    >>> coverage(*both)
    <Coverage PSD against PSD: not covered, 5 bands>
    """
    one, other = service.oscillators, test.oscillators
    same = np.array_equal(one.natural_frequency, other.natural_frequency)
    if not same or (one.slope, one.quality_factor) != (other.slope, other.quality_factor):
        raise InputError(
            "coverage", "spectra of different oscillators", "both of the same natural frequencies, slope and Q"
        )
    if not (service.damage > 0.0).all():
        raise InputError("coverage, service", "oscillators without damage", "a service that shakes all of them")
    f = one.natural_frequency
    many = max(1, round(np.log2(f[-1] / f[0]) * bands_per_octave))
    edges = f[0] * (f[-1] / f[0]) ** (np.arange(many + 1) / many)
    number_of = np.clip(np.searchsorted(edges, f * (1.0 + 1e-12), side="right") - 1, 0, many - 1)
    damage, extreme = test.damage / service.damage, test.extreme / service.extreme
    bands = []
    for i in range(many):
        own = number_of == i
        if own.any():
            row = damage[own]
            bands.append(
                Band(edges[i], edges[i + 1], float(row.min()), float(row.max()), float(extreme[own].max()), one.slope)
            )
    return Coverage(service, test, tuple(bands))
