"""Stresses of six components at one place, from unit stresses of load cases, and the one stress that is counted for them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.events.seen import seen_as
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.components import SuperposedComponents
from vivid_anvil.stress.measures import COMPONENTS, Measure, stress_measure
from vivid_anvil.stress.measures.measure import shown_stress, stress_in
from vivid_anvil.stress.relations.case_loads import CaseLoads
from vivid_anvil.stress.relations.one_load import load_in
from vivid_anvil.stress.relations.relation import AskedMoment, Moment, Nominal, Relation
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY
from vivid_anvil.units import Coherent, UnitSystem, coherent, coherent_values, display_unit, sound
from vivid_anvil.writing.working import Step, put_in


@sound
@dataclass(frozen=True, eq=False, kw_only=True)
class UnitStresses(Relation):
    """A tensor at a place, superposed from load cases, and the `measure` of it that is counted.

    Parameters
    ----------
    loads : CaseLoads
        The channel and the unit load of each case.
    unit : shape (cases, 6), MPa
        Stresses of each case at its unit load: xx, yy, zz, xy, yz, zx.
    constant : shape (6,), MPa
        Stresses that are there all the time; no load moves them.
    measure : Measure or str
        What is counted.
    offset : float or text with a unit, default 0.0
        Counted stress, MPa, that is there without load; no load factor moves it.

    Raises
    ------
    InputError
        For other shapes, numbers that are not finite, a place without stress.

    Examples
    --------
    >>> from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
    >>> from vivid_anvil.stress.relations import CaseLoad
    >>> pull = CaseLoads([CaseLoad(case="pull", channel="force", unit_load="10 kN")])
    >>> lug = UnitStresses(loads=pull, unit=[[80.0, 0.0, 0.0, 30.0, 0.0, 0.0]], measure="signed Tresca")
    >>> lap = DutyCycle("lap", [Event("pull", ConstantAmplitude.from_maximum("force", "5 kN", minimum="0 kN"))])
    >>> lug.cycles(lap).range
    array([50.])
    """

    loads: CaseLoads
    unit: FloatArray
    constant: FloatArray = (0.0,) * 6  # type: ignore[assignment]
    measure: Measure = "signed von Mises, hydrostatic"  # type: ignore[assignment]
    offset: Coherent = Coherent("stress", default=0.0)

    def __post_init__(self) -> None:
        object.__setattr__(self, "unit", _tensors(self.unit, (len(self.loads.moving), 6), "unit"))
        object.__setattr__(self, "constant", _tensors(self.constant, (6,), "constant"))
        object.__setattr__(self, "measure", stress_measure(self.measure))

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """Those of the loads."""
        return self.loads.channels

    def tensors(self, loads: FloatArray) -> FloatArray:
        """Stresses of samples, shape (samples, 6), MPa, from loads over unit loads, (samples, cases)."""
        return np.asarray(loads @ self.unit + self.constant)

    def history(self, loads: ArrayLike) -> FloatArray:
        """The same as the one stress that is counted, shape (samples,), MPa."""
        counted: FloatArray = self.measure.history(self.unit, self.constant, np.asarray(loads, dtype=np.float64))
        return counted

    def seen(self, load: Load, event: str) -> Load:
        """The load of an event as the one stress that is counted."""
        if load.gives & OVER_FREQUENCY:
            return self.over_frequency(load, event).seen(load, event)
        return seen_as(
            load, str(self), self.channels, lambda named: self.history(self.loads.over_unit_loads(event, named))
        )

    def over_frequency(self, load: Load, event: str) -> VibratingComponents:
        """The same place under a load over frequency that its stresses follow at once; named as this one."""
        response = SuperposedComponents(self.loads.coordinates(load, event), np.asarray(self.unit))
        return VibratingComponents(response=response, constant=self.constant, measure=self.measure, called=str(self))

    @property
    def scaled_along(self) -> bool:
        """Where some of the tensor is there all the time."""
        return bool(self.constant.any())

    @cached_property
    def words(self) -> str:
        """What is counted of which loads."""
        return f"{self.measure.label} of {', '.join(self.channels)}"

    def __str__(self) -> str:
        return self.words

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """Loads over unit loads, the components that they sum up to, and the stress that is counted."""
        unit, value = display_unit("stress", units), shown_stress(stress, units)
        numbers = f"{put_in(value)} {unit}"
        at = moment()
        if at.load.gives & OVER_FREQUENCY:  # no moment of it is worked: its event says how its cycles come about
            return Nominal([], "S_n", numbers)
        return Nominal(self.steps_at(at, self.loads_at(at), units), "S_n", numbers)

    def loads_at(self, moment: Moment) -> FloatArray:
        """Loads over unit loads at a moment, shape (cases,)."""
        load = moment.load
        named = load.samples().channel if "samples" in load.gives else lambda name: load.ends(name).channel
        found: FloatArray = self.loads.over_unit_loads(moment.event, named)[moment.sample]
        return found

    def steps_at(self, moment: Moment, loads: FloatArray, units: UnitSystem) -> list[Step]:
        """From loads over unit loads at a moment to the stress that is counted, by hand."""
        steps = self.component_steps_at(moment, loads, units)
        return steps + self.measure.steps(loads @ self.unit + self.constant, units)

    def component_steps_at(self, moment: Moment, loads: FloatArray, units: UnitSystem) -> list[Step]:
        """From loads over unit loads at a moment to the six components, by hand."""
        return [*self._load_steps(moment, loads, units), *self._component_steps(loads, units)]

    def _load_steps(self, moment: Moment, loads: FloatArray, units: UnitSystem) -> list[Step]:
        """Loads over unit loads of the cases that a channel scales."""
        steps = []
        for case, share in zip(self.loads.cases, loads, strict=False):
            dimension = moment.load.dimensions[case.channel]
            name = display_unit(dimension, units)
            unit = coherent(case.unit_load, dimension, case.case) / load_in(name, dimension)
            own = case.event_factors.get(moment.event, 1.0)
            load = float(share) * unit / own if own != 0.0 else 0.0
            times = "" if own == 1.0 else f" × {put_in(own)}"
            title = f"Load over unit load of the case {case.case}"
            formula = "f = F / F_unit" + (" × factor of the event" if times else "")
            numbers = f"{put_in(load)} {name} / {put_in(unit)} {name}{times}"
            steps.append(Step(title, formula, numbers, float(share), ""))
        return steps

    def _component_steps(self, loads: FloatArray, units: UnitSystem) -> list[Step]:
        """Each component as the sum of its cases."""
        name = display_unit("stress", units)
        there = bool(self.constant.any())
        steps = []
        for i, component in enumerate(COMPONENTS):
            parts = [(put_in(float(f)), stress_in(self.unit[k, i], units)) for k, f in enumerate(loads) if f != 0.0]
            terms = [f"{f} × {one} {name}" for f, one in parts]
            if there:
                terms.append(f"{stress_in(self.constant[i], units)} {name}")
            value = shown_stress(float(loads @ self.unit[:, i] + self.constant[i]), units)
            formula = f"σ_{component} = Σ f × σ_unit" + (" + σ_constant" if there else "")
            steps.append(Step(f"Component {component}", formula, " + ".join(terms) or "0", value, name))
        return steps


def _tensors(given: ArrayLike, shape: tuple[int, ...], what: str) -> FloatArray:
    found = np.asarray(coherent_values(given, "stress", f"unit stresses, {what}"), dtype=np.float64)
    if found.shape != shape or not np.isfinite(found).all():
        raise InputError(
            f"unit stresses, {what}", f"shape {found.shape}", f"finite stresses, {shape}: {', '.join(COMPONENTS)}"
        )
    return read_only(found)
