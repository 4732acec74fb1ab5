"""Hand calculation of one step of growth at the start."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.events.calendar import plural
from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.growth.law_working import law_steps
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, factor, in_unit, number, opened, rate_at_range
from vivid_anvil.writing.working import Step, Working, put_in

STEP_SHARE = 0.01


@dataclass(frozen=True, slots=True)
class _Units:
    """Units in which K = Y S √(π a) needs no factor: MPa, mm and MPa√mm, or ksi, in and ksi√in."""

    system: UnitSystem

    @property
    def stress(self) -> str:
        return display_unit("stress", self.system)

    @property
    def length(self) -> str:
        return display_unit("length", self.system)

    @property
    def k(self) -> str:
        return "MPa√mm" if self.system == "metric" else "ksi√in"

    def one(self, name: str) -> float:
        """What one unit of "stress", "length" or "stress intensity" is inside the house."""
        units = {"stress": self.stress, "length": self.length, "stress intensity": self.k}
        return factor(units[name], DIMENSIONS[name])


@opened()
def growth_working(result: Growth, system: UnitSystem = "metric") -> Working:
    """Numbered steps: Y, ΔK and growth of the range that drives the crack, all cycles of a repeat, one step of 1 %.

    Parameters
    ----------
    result : Growth
        The result that is asked.
    system : UnitSystem, default "metric"
        Units of the numbers shown.

    Returns
    -------
    Working
        The steps; `print` shows them.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> print(growth_working(result.growths[0]).steps[-1])  # of the demo: run_study(read_study('larkfell.toml'))
    Months for the first 1 % of growth, G taken halfway between its values at
    both ends
        n = Δa / ((G_1 + G_2) / 2)
          = 0.01 mm / ((0.01647505 + 0.01659977) / 2)
          = 0.60469 months
    """
    crack = result.crack
    title = f"Growth of the crack at {crack.hot_spot.name}, one step worked by hand"
    size = crack.initial_size
    rates = result.cycle_growth(size)
    growing = rates > 0.0
    if result.life_repeats == 0.0 or not growing.any():
        how = "does not grow" if math.isinf(result.life_repeats) else "is critical from the start"
        return Working(title, f"The crack of {in_unit(size, 'length', system)} {how}: {result.stopped_by}.", ())
    if not crack.law.one_power or crack.always is not None:
        units = _Units("metric")  # constants of these laws are in its units
        worst = int(np.argmax(rates))
        steps = (*crack.shape.steps(crack.sizes, units.length, 1.0), *law_steps(result, worst))
        return Working(title, _opening(result, units), steps, _closing(result, "metric"))
    units = _Units(system)
    steps = (*_intensity_steps(result, growing, units), *_growth_steps(result, growing, units))
    return Working(title, _opening(result, units), steps, _closing(result, system))


def _opening(result: Growth, units: _Units) -> str:
    crack = result.crack
    hint = " (1 MPa√m = 31.6228 MPa√mm)" if units.system == "metric" else ""
    return (
        f"{crack.shape.kind.capitalize()} crack of {in_unit(crack.initial_size, 'length', units.system)} "
        f"({crack.shape.size_means}), law {crack.law.name}; counted part of each cycle: "
        f"{crack.counted_part}. Nominal stress in {units.stress}, lengths in {units.length}, K in {units.k}{hint}."
    )


def _equivalent_range(result: Growth, growing: np.ndarray) -> tuple[float, float]:
    """Growing cycles per repeat, and the range, MPa, that grows the crack as much as they do on average."""
    drive, slope = result.drive, result.crack.law.slope
    cycles = float(drive.per_repeat[growing].sum())
    power = float((drive.per_repeat[growing] * drive.ranges[growing] ** slope).sum())
    return cycles, (power / cycles) ** (1.0 / slope)


def _intensity_steps(result: Growth, growing: np.ndarray, units: _Units) -> list[Step]:
    """From the size to the range of K of the equivalent range."""
    crack, law = result.crack, result.crack.law
    size = crack.initial_size / units.one("length")
    first = crack.shape.steps(crack.sizes, units.length, units.one("length"))
    y = first[-1].value
    cycles, equivalent = _equivalent_range(result, growing)
    stress_range = equivalent / units.one("stress")
    power = cycles * stress_range**law.slope
    threshold = float(law.threshold_at(0.0)) / (y * float(np.sqrt(np.pi * crack.initial_size))) / units.one("stress")
    delta_k = y * stress_range * float(np.sqrt(np.pi * size))
    root = f"√(π × {put_in(size)} {units.length})"
    return [
        *first,
        Step(
            f"Range that reaches the threshold; {number(cycles, 6)} cycles per {result.duty_cycle.repeat} are above it",
            "ΔS_th = ΔK_th / (Y × √(π × a))",
            f"{put_in(float(law.threshold_at(0.0)) / units.one('stress intensity'))} {units.k} / ({put_in(y)} × {root})",
            threshold,
            units.stress,
        ),
        Step(
            "Range that grows the crack as much per cycle as these do on average",
            "ΔS_eq = (Σ n × ΔS^m / Σ n)^(1 / m)",
            f"({put_in(power)} / {put_in(cycles)})^(1 / {put_in(law.slope)})",
            stress_range,
            units.stress,
        ),
        Step(
            "Its range of stress intensity",
            "ΔK = Y × ΔS_eq × √(π × a)",
            f"{put_in(y)} × {put_in(stress_range)} {units.stress} × {root}",
            delta_k,
            units.k,
            "Irwin 1957",
        ),
    ]


def _growth_steps(result: Growth, growing: np.ndarray, units: _Units) -> list[Step]:
    """From the range of K to growth per cycle, per repeat, and the first 1 % of growth."""
    crack, law, repeat = result.crack, result.crack.law, result.duty_cycle.repeat
    length = units.one("length")
    cycles, equivalent = _equivalent_range(result, growing)
    y = crack.shape.steps(crack.sizes, units.length, units.one("length"))[-1].value
    delta_k = y * float(np.sqrt(np.pi * crack.initial_size)) * equivalent / units.one("stress intensity")
    constant = law.constant * units.one("stress intensity") ** law.slope / length
    rate = constant * delta_k**law.slope
    at_start = result.growth_at(crack.initial_size) / length
    at_end = result.growth_at(crack.initial_size * (1.0 + STEP_SHARE)) / length
    step = STEP_SHARE * crack.initial_size / length
    return [
        *_constant_step(result, constant, units),
        Step(
            "Growth per cycle",
            "da/dN = C × ΔK^m",
            f"{put_in(constant)} × {put_in(delta_k)}^{put_in(law.slope)}",
            rate,
            f"{units.length}/cycle",
            "Paris and Erdogan 1963",
        ),
        Step(
            f"Growth in one {repeat}",
            "G = Σ n × da/dN",
            f"{put_in(cycles)} × {put_in(rate)} {units.length}/cycle",
            at_start,
            f"{units.length} per {repeat}",
        ),
        Step(
            f"{plural(repeat).capitalize()} for the first 1 % of growth, G taken halfway between its values at both ends",
            "n = Δa / ((G_1 + G_2) / 2)",
            f"{put_in(step)} {units.length} / (({put_in(at_start)} + {put_in(at_end)}) / 2)",
            step / (0.5 * (at_start + at_end)),
            plural(repeat),
        ),
    ]


def _constant_step(result: Growth, constant: float, units: _Units) -> list[Step]:
    """The constant of the law from the rate at a range that it is stated by; none where C itself is given."""
    law = result.crack.law
    stated = law.stated_rate
    if not isinstance(stated, str):
        return []
    rate, delta_k = rate_at_range(stated)
    return [
        Step(
            f"Constant of the growth law, stated as {stated}",
            "C = da/dN / ΔK^m",
            f"{put_in(rate / units.one('length'))} {units.length}/cycle / "
            f"({put_in(delta_k / units.one('stress intensity'))} {units.k})^{put_in(law.slope)}",
            constant,
            "",
        )
    ]


def _closing(result: Growth, system: UnitSystem) -> str:
    way = (
        f"Halving every step changes this by {result.halving_change:.1e}."
        if result.cycles is None
        else f"Each of {number(float(result.cycles))} cycles that can grow it was followed in its order; reading K off a grid "
        f"moves growth rates by {result.halving_change:.1e} of themselves."
    )
    return (
        f"Step by step to {in_unit(result.critical.limiting, 'length', system)} ({result.governed_by}): "
        f"{result.duty_cycle.calendar.in_all_units(result.life_repeats)}. {way}"
    )
