"""What moves a life most: load, notch factor, S-N curve and target a tenth up and down; and the life by survival probability."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.damage import CrackingEnergy, LifeResult, StressLife
from vivid_anvil.damage.spectrum import spectrum
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import Crack, GrowthResult, growth_drive
from vivid_anvil.growth.grow import life_repeats_of
from vivid_anvil.growth.initial_sizes import of_size
from vivid_anvil.materials import SNCurve, at_survival
from vivid_anvil.materials.curves.convert import with_stress_factor
from vivid_anvil.writing.working import Step

CHANGE = 0.1  # of each value, up and down
SURVIVALS = (0.5, 0.84, 0.9, 0.95, 0.975, 0.99, 0.999)
LOAD, NOTCH, CURVE, TARGET, SIZE = "load", "notch factor", "S-N curve", "target", "initial size"
FLAW = "initial flaw"


@dataclass(frozen=True, slots=True)
class Lever:
    """A value of a place a tenth lower and higher: its life then, repeats, and the share of it that is used at the target.

    `life` and `used` are as stated. None for a life that cannot be had (a notch factor below 1), and for shares without a target.
    """

    place: str
    kind: str
    lever: str
    life: float
    used: float | None
    life_low: float | None
    life_high: float | None
    used_low: float | None
    used_high: float | None

    @property
    def swing(self) -> float:
        """Longest life over shortest, of those as stated, with less and with more of it; 1 where no life moves."""
        ends = [one for one in (self.life, self.life_low, self.life_high) if one is not None]
        low, high = min(ends), max(ends)
        return 1.0 if low == high else math.inf if low == 0.0 else high / low


@dataclass(frozen=True, eq=False)
class SurvivalLives:
    """The life of a place by the share of parts that survive it, repeats; both shape (k,), the shares rising.

    `stated` is the survival probability that its curve has in the study.
    """

    place: str
    stated: float
    shares: FloatArray
    repeats: FloatArray


def levers_of_life(life: LifeResult) -> Iterator[Lever]:
    """Load, notch factor, curve and target of a hot spot or a node; of rubber the initial flaw."""
    name = life.hot_spot.name
    target = life.target_repeats

    def lever(what: str, ends: tuple[float | None, float | None]) -> Lever:
        used = [None if end is None or target is None else _share(target, end) for end in ends]
        return Lever(name, "life", what, life.life_repeats, life.used_at_target, *ends, *used)

    down, up = 1.0 - CHANGE, 1.0 + CHANGE
    yield lever(LOAD, (_under_load(life, down), _under_load(life, up)))
    if life.method.takes == "stresses":
        yield lever(NOTCH, (_with_notch(life, down), _with_notch(life, up)))
    if isinstance(life.method, CrackingEnergy):
        yield lever(FLAW, (_with_flaw(life, life.method, down), _with_flaw(life, life.method, up)))
    if (raised := _with_curve(life, up)) is not None:
        yield lever(CURVE, (_with_curve(life, down), raised))
    yield from _of_target(name, "life", life.life_repeats, target)


def levers_of_growth(growth: GrowthResult) -> Iterator[Lever]:
    """Load, initial size and target of a crack.

    Without retardation all cycles of a repeat count at once, and the life goes with the ratio of two lives so found.
    """
    crack, name, target, life = growth.crack, growth.crack.hot_spot.name, growth.target_repeats, growth.life_repeats
    plain = crack if crack.retardation.acts else dataclasses.replace(crack, order="per repeat")
    now = _quick(growth, plain)

    def lever(what: str, ends: Sequence[float | None]) -> Lever:
        lives = [None if end is None else life * end / now if now and math.isfinite(now) else end for end in ends]
        used = [None if end is None or target is None else _share(target, end) for end in lives]
        return Lever(name, "crack", what, life, None if target is None else _share(target, life), *lives, *used)

    changes = 1.0 - CHANGE, 1.0 + CHANGE
    if not crack.retardation.acts and growth.drive.bending is None:
        yield lever(LOAD, [_quick(growth, plain, factor) for factor in changes])
    yield lever(SIZE, [_quick(growth, of_size(plain, factor * plain.initial_size)) for factor in changes])
    yield from _of_target(name, "crack", life, target)


def _quick(growth: GrowthResult, crack: Crack, load: float = 1.0) -> float | None:
    """Repeats to the limiting size under all loads times `load`; None for a size that the solution does not hold for."""
    drive = growth.drive
    if load != 1.0:
        drive = growth_drive(crack.hot_spot.nominal_cycles(growth.duty_cycle).at(load), crack.counted_part)
    try:
        return life_repeats_of(crack, growth.duty_cycle, drive)
    except InputError:
        return None


def survival_of(life: LifeResult) -> SurvivalLives | None:
    """The life at other survival probabilities; None where the curve does not tell its own, or its scatter."""
    method = life.method
    if not isinstance(method, StressLife) or not isinstance(method.sn_curve, SNCurve):
        return None
    curve = method.sn_curve
    if curve.survival_probability is None or curve.log_life_std is None or life.damage_per_repeat == 0.0:
        return None
    stated = curve.survival_probability
    shares = sorted({*SURVIVALS, stated})
    repeats = [
        life.life_repeats if share == stated else _again(life, lambda share=share: at_survival(curve, share))  # type: ignore[misc]
        for share in shares
    ]
    kept = [(share, one) for share, one in zip(shares, repeats, strict=True) if one is not None]
    return SurvivalLives(
        life.hot_spot.name,
        stated,
        read_only(np.array([one for one, _ in kept])),
        read_only(np.array([one for _, one in kept])),
    )


def _of_target(name: str, kind: str, life: float, target: float | None) -> Iterator[Lever]:
    if target is not None:
        used = [_share(factor * target, life) for factor in (1.0 - CHANGE, 1.0, 1.0 + CHANGE)]
        yield Lever(name, kind, TARGET, life, used[1], life, life, used[0], used[2])


def _share(target: float, life: float) -> float:
    return math.inf if life == 0.0 else target / life


def _life(life: LifeResult, damage: float) -> float:
    return life.critical_sum / damage if damage > 0.0 else math.inf


def _under_load(life: LifeResult, factor: float) -> float:
    """The life with all loads times `factor`; 0 where it fails at once."""
    return _life(life, float(life.spectrum.damage(factor).sum()))


def _with_notch(life: LifeResult, factor: float) -> float | None:
    spot = life.hot_spot
    notch = factor * spot.notch_factor
    if notch < 1.0:
        return None
    found = spectrum(dataclasses.replace(spot, notch_factor=notch), life.duty_cycle)
    return _life(life, float(found.damage().sum()))


def _with_flaw(life: LifeResult, method: CrackingEnergy, factor: float) -> float | None:
    """The life of the same cycles with flaws that are larger at the start; None where they are at their end already."""
    rubber = method.rubber
    if factor * rubber.initial_flaw >= rubber.end_flaw:
        return None
    other = dataclasses.replace(method, rubber=dataclasses.replace(rubber, initial_flaw=factor * rubber.initial_flaw))
    spot = dataclasses.replace(life.hot_spot, method=other)
    return _life(life, float(dataclasses.replace(life.spectrum, hot_spot=spot, again=None).damage().sum()))


def _with_curve(life: LifeResult, factor: float) -> float | None:
    """The life by the curve with all its stresses times `factor`; None for a method without one, and for a family."""
    method = life.method
    if not isinstance(method, StressLife) or not isinstance(method.sn_curve, SNCurve):
        return None
    curve = method.sn_curve
    step = Step("Another level of the curve", "S × f", f"{factor:g}", factor, "-")
    return _again(life, lambda: with_stress_factor(curve, factor, step))


def _again(life: LifeResult, curve: Callable[[], SNCurve]) -> float | None:
    """The life of the same cycles by another curve; None where the curve cannot be had."""
    try:
        method = dataclasses.replace(life.method, sn_curve=curve())  # type: ignore[type-var]
    except InputError:
        return None
    spot = dataclasses.replace(life.hot_spot, method=method)
    return _life(life, float(dataclasses.replace(life.spectrum, hot_spot=spot).damage().sum()))
