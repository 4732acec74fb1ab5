"""Reserve factor on stress at nodes: the factor on the counted stress at which the target life is just met, for many at once."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.damage.reserve import LARGEST, SMALLEST
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.errors import InputError
from vivid_anvil.fields.chunk_values import node_spectrum
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.whole_model import Watch
from vivid_anvil.histories import Cycles
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import opened

TOGETHER = 100  # nodes whose factors are sought at once
_NEVER, _AT_ONCE = -700.0, 700.0  # logarithms that stand for no damage, and for failure at once
_CLOSE = 1e-12


@opened()
def reserves_on_stress(
    result: ModelResult, places: Sequence[int] | IntArray | None = None, *, watch: Watch | None = None
) -> FloatArray:
    """Factors on the counted stress, shape of `places` (by default all nodes), at which each node just meets the target.

    inf where nothing does damage however large, nan at nodes left out; solved as `damage.reserve_on_stress` does, all nodes of a
    group side by side.
    Raises InputError for a result without target.
    """
    if result.target_repeats is None:
        raise InputError(
            "reserves on stress", "no target life", "a target, such as '30 years'", "Give assess_model one."
        )
    every = np.full(result.field.size, np.nan)
    if places is None and result.left_out is not None:
        every[result.assessed] = reserves_on_stress(result, result.assessed, watch=watch)
        return every
    wanted = np.arange(result.field.size) if places is None else np.asarray(places, dtype=np.int64)
    region = np.full(wanted.size, -1) if result.region_of is None else result.region_of[wanted]
    stress = _Stress(result)
    found = np.empty(wanted.size)
    done = 0
    for number in np.unique(region):
        alike = np.flatnonzero(region == number)
        # cycles that act on each other are those of one node
        many = 1 if result.spot_at(int(wanted[alike[0]])).below_knee == "consistent" else TOGETHER
        for i in range(0, alike.size, many):
            group = alike[i : i + many]
            found[group] = _of_group(stress, wanted[group], result.target_repeats)
            done += group.size
            if watch is not None:
                watch("reserves", done, wanted.size)
    return found


class _Stress:
    """What all nodes share: events and unit stresses, made once."""

    def __init__(self, result: ModelResult) -> None:
        self.result, self.events = result, result.loads.events(result.duty_cycle)
        self.units, self.constants = result.loads.units(result.field), result.loads.constants(result.field)

    def spectrum(self, spot: HotSpot, place: int) -> Spectrum:
        """All cycles of one repeat at a node."""
        how = self.result.measure_at(place)
        unit, constant = self.units[place], self.constants[place]
        return node_spectrum(spot, self.result.duty_cycle, self.events, how.code, how.along, unit, constant)


def _of_group(stress: _Stress, places: IntArray, target: float) -> FloatArray:
    spot = stress.result.spot_at(int(places[0]))
    spectrum, node = _side_by_side(stress, spot, places)
    allowed = spot.critical_sum / target

    def excess(log_factors: FloatArray) -> FloatArray:
        """Logarithm of damage over what is allowed, for each node."""
        factors = np.exp(log_factors)[node]
        damage = spectrum.damage_of(spectrum.equivalent_stress(factors))  # type: ignore[arg-type]
        total = np.bincount(node, weights=np.minimum(damage, 1e300), minlength=places.size)
        with np.errstate(divide="ignore"):
            return np.clip(np.log(total / allowed), _NEVER, _AT_ONCE)

    return _solved(excess, places.size)


def _solved(excess: Callable[[FloatArray], FloatArray], size: int) -> FloatArray:
    """Roots of rising functions, on the side where the target is met: brackets, then false position and halving by turns."""
    low, high = np.zeros(size), np.zeros(size)
    below = above = excess(low)
    for _ in range(round(math.log(LARGEST / SMALLEST))):
        up, down = above <= 0.0, below > 0.0
        up &= high < math.log(LARGEST)
        down &= low > math.log(SMALLEST)
        if not (up | down).any():
            break
        low, high = (
            np.where(up, high, np.where(down, low - 1.0, low)),
            np.where(up, high + 1.0, np.where(down, low, high)),
        )
        below, above = excess(low), excess(high)
    endless, hopeless = above <= 0.0, below > 0.0
    for turn in range(200):
        if (((high - low) < _CLOSE) | endless | hopeless).all():
            break
        middle = 0.5 * (low + high)
        smooth = (below > _NEVER) & (above < _AT_ONCE) & (above > below)
        share = np.where(smooth, -below / np.where(smooth, above - below, 1.0), 0.5)
        trial = low + np.clip(share, 0.02, 0.98) * (high - low) if turn % 3 < 2 else middle
        found = excess(trial)
        met = found <= 0.0
        low, below = np.where(met, trial, low), np.where(met, found, below)
        high, above = np.where(met, high, trial), np.where(met, above, found)
    return np.where(endless, np.inf, np.where(hopeless, 0.0, np.exp(low)))


def _side_by_side(stress: _Stress, spot: HotSpot, places: IntArray) -> tuple[Spectrum, IntArray]:
    """Cycles of all events at the nodes in one spectrum, and the number of the node that each belongs to."""
    found = [stress.spectrum(spot, place) for place in places.tolist()]
    cycles = Cycles(
        range=np.concatenate([one.cycles.range for one in found]),
        mean=np.concatenate([one.cycles.mean for one in found]),
        count=np.concatenate([one.cycles.count for one in found]),
    )
    often = np.concatenate([one.per_repeat for one in found])
    return Spectrum.of_cycles(spot, cycles, often), np.repeat(
        np.arange(places.size), [len(one.cycles) for one in found]
    )
