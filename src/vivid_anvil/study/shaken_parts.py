"""What a test on a shaker does to the hot spots of a study, beside what the service does to them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Self

from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.events import DutyCycle, Event, RandomVibration
from vivid_anvil.study.run import lives_of_places, place_names
from vivid_anvil.study.study import Study
from vivid_anvil.tailoring import TailoredTest
from vivid_anvil.units import one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table

TOLD = ("above-ultimate", "above-yield", "three-sigma-above-yield", "curve-starts-later")


@dataclass(frozen=True, eq=False, repr=False)
class ShakenParts(Result):
    """Damage of the service and of a test at hot spots; `shaken_parts` makes one.

    Parameters
    ----------
    names : tuple of str
        Hot spots that feel the test.
    service : tuple of float
        Damage of the service at each, over its critical sum.
    test : tuple of LifeResult
        The life of each under the test, one repeat being the test.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> ShakenParts((), (), ())
    <ShakenParts of 0 hot spots>
    """

    names: tuple[str, ...]
    service: tuple[float, ...]
    test: tuple[LifeResult, ...]

    @property
    def title(self) -> str:
        """What it is of."""
        return "The test on the part"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Where stress in the test leaves what the curve was tested for, or yields."""
        found = [
            Finding(
                found_there.severity,
                found_there.code,
                f"In the test, {name}: {found_there.sentence}",
                found_there.advice,
            )
            for name, life in zip(self.names, self.test, strict=True)
            for found_there in life.findings
            if found_there.code in TOLD
        ]
        return tuple(found)

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a result: how many hot spots."""
        return Table("Tests on parts", (Column("hot spots", [len(result.names) for result in results]),))

    def tables(self, units: object = "metric") -> tuple[Table, ...]:
        """A row a hot spot."""
        done = [life.damage_per_repeat / life.critical_sum for life in self.test]
        ratio = [test / own if own else float("inf") for test, own in zip(done, self.service, strict=True)]
        columns = (
            Column("hot spot", list(self.names)),
            Column("used by the service", list(self.service), style="share"),
            Column("used by the test", done, style="share"),
            Column("test over service", ratio, style="number"),
            Column("largest stress", [max(life.peak_stress, -life.lowest_stress) for life in self.test], of="stress"),
        )
        return (Table("Life used at hot spots", columns, key="hot spots"),)

    def __repr__(self) -> str:
        return f"<ShakenParts of {len(self.names)} hot spots>"


@opened(repeats=one(above=0.0))
def shaken_parts(study: Study, test: TailoredTest, channel: str, repeats: float) -> ShakenParts:
    """What a test does to the hot spots of a study that feel the channel, beside `repeats` of its duty cycle.

    Parameters
    ----------
    study : Study
        The study.
    test : TailoredTest
        The test.
    channel : str
        The base acceleration.
    repeats : float
        How many repeats of the duty cycle the service has.

    Returns
    -------
    ShakenParts
        Damage of both at each hot spot.

    Raises
    ------
    InputError
        For repeats that are not above 0.

    Examples
    --------
    >>> study = read_study("sensor_bracket.toml")  # in the folder of `vivid-anvil demo`
    >>> some = Oscillators.spaced("20 Hz", "200 Hz", slope=5.0, per_octave=2)
    >>> service = damage_spectrum(study.duty, some).times(9600.0)
    >>> shaken_parts(study, tailored_test(service, "8 h"), "tower head", 9600.0)
    <ShakenParts of 1 hot spots>
    """
    names: list[str] = []
    service: list[float] = []
    lives: list[LifeResult] = []
    event = Event("test", RandomVibration({channel: test.psd}, test.time))
    duty = DutyCycle("test", (event,), expected_cycles=study.duty.expected_cycles)
    spots = {spot.name for spot in study.assessed}
    for name in place_names(study):
        if name not in spots:
            continue
        own = lives_of_places(study, name)[name]
        if channel not in own.hot_spot.fed.channels:
            continue
        names.append(name)
        service.append(repeats * own.damage_per_repeat / own.critical_sum)
        lives.append(assess_life(own.hot_spot, duty))
    return ShakenParts(tuple(names), tuple(service), tuple(lives))
