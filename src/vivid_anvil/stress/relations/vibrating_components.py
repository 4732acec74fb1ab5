"""Six stress components that vibrate: what inputs make of each, with its phase, and the one stress that is counted for them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.events.response_findings import response_findings
from vivid_anvil.events.seen import ByName, seen_as
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed, shortened
from vivid_anvil.histories.load import Load, TensorView
from vivid_anvil.spectra.responses.component_gain import ComponentGain
from vivid_anvil.spectra.responses.components import ComponentResponses
from vivid_anvil.spectra.responses.in_time import in_time
from vivid_anvil.stress.measures import COMPONENTS, Measure, stress_measure
from vivid_anvil.stress.relations.relation import AskedMoment, Nominal, Relation
from vivid_anvil.units import Coherent, UnitSystem, coherent_values, display_unit, shown
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import put_in


@dataclass(frozen=True, eq=False, kw_only=True)
class VibratingComponents(Relation):
    """Stress tensor = Σ response × input over frequency, and the `measure` of it that is counted.

    Of random components a measure that is straight in them has its own PSD; for a von Mises stress stands the process with the
    PSD trace(A G). Of sines the amplitude goes with the phases of the components. A history goes through by its transform.

    Parameters
    ----------
    response : ComponentResponses
        Six complex stresses for each input: `ModalComponents`, or `ComponentTables`.
    constant : shape (6,), MPa
        Stresses that are there all the time; no load moves them.
    measure : Measure or str
        What is counted.
    offset : float or text with a unit, default 0.0
        Counted stress, MPa, that is there without load; no load factor moves it.
    called : str, default ""
        A name for what is counted.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.spectra import ModalComponents
    >>> foot = ModalComponents(
    ...     natural_frequency=[45.0], participation={"base": [0.5]}, modal_stress=[[15, 0, 0, 4, 0, 0]], damping_ratio=0.02
    ... )
    >>> str(VibratingComponents(response=foot, measure="component xx"))
    'component xx of base'
    """

    response: ComponentResponses
    constant: FloatArray = (0.0,) * 6  # type: ignore[assignment]
    measure: Measure = "signed von Mises, hydrostatic"  # type: ignore[assignment]
    offset: Coherent = Coherent("stress", default=0.0)
    called: str = ""
    any_of_channels: ClassVar[bool] = True  # type: ignore[misc]

    def __post_init__(self) -> None:
        where = "vibrating components"
        if not isinstance(self.response, ComponentResponses):
            raise InputError(inside(where, "response"), shortened(self.response), "ModalComponents, or ComponentTables")
        given = np.asarray(coherent_values(self.constant, "stress", inside(where, "constant")), dtype=np.float64)
        if given.shape != (6,) or not np.isfinite(given).all():
            raise InputError(
                inside(where, "constant"), f"shape {given.shape}", f"six stresses: {', '.join(COMPONENTS)}"
            )
        object.__setattr__(self, "constant", read_only(given))
        object.__setattr__(self, "measure", stress_measure(self.measure))

    @property
    def channels(self) -> tuple[str, ...]:  # type: ignore[override]
        """The inputs."""
        return self.response.channels

    @property
    def scaled_along(self) -> bool:
        """Where some of the tensor is there all the time."""
        return bool(self.constant.any())

    def view(self, load: Load, event: str) -> TensorView:
        """How the load of an event is seen; InputError where it has none of the inputs."""
        kinds = load.dimensions
        there = tuple(name for name in self.channels if name in kinds)
        if not there:
            hint = next((said for one in kinds if (said := did_you_mean(one, self.channels))), "")
            raise InputError(f"event {event}", f"channels {listed(kinds)}", f"one of {listed(self.channels)}", hint)
        own = self.measure
        return TensorView(
            self.response,
            there,
            own.label,
            own.random_forms,
            own.amplitude,
            own.of,
            np.asarray(self.constant),
            own.linear is not None,
        )

    def seen(self, load: Load, event: str) -> Load:
        """The load of an event as the one stress that is counted."""
        load = load.in_time()
        view = self.view(load, event)
        if load.gives & {"lines", "cross-spectra"}:
            return load.through_tensor(str(self), view)
        if "samples" not in load.gives or load.samples().steps != "even":
            raise InputError(
                f"vibrating components, {listed(view.channels)}",
                f"a {type(load).__name__}, which says nothing of frequencies",
                "a history sampled evenly, a random event, or a sine",
                "Equal cycles at a frequency are a sine event.",
            )
        rate, kinds = load.samples().sample_rate, load.dimensions
        inputs = {name: kinds[name] for name in view.channels}
        return seen_as(load, str(self), view.channels, lambda named: self._course(named, inputs, rate))

    def _course(self, named: ByName, inputs: dict[str, str], rate: float) -> FloatArray:
        """The inputs by their Fourier transforms through the responses, back in time, as the stress that is counted."""
        values = np.stack([named(name).values for name in inputs])
        through = in_time(values, rate, lambda frequency: self.response.at(frequency, inputs))
        tensors = np.ascontiguousarray(through.T)
        return self.measure.history(np.eye(6), np.asarray(self.constant), tensors)

    def remarks(self) -> Iterator[Finding]:
        """Of the responses, and of a measure that has no sign in random vibration."""
        kinds = dict.fromkeys(self.channels[:1], "acceleration")
        yield from response_findings(
            ", ".join(self.channels), ComponentGain(self.response, kinds, self.measure.amplitude)
        )

    @property
    def words(self) -> str:
        """What is counted of which inputs."""
        return self.called or f"{self.measure.label} of {', '.join(self.channels)}"

    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The stress at that moment."""
        unit = display_unit("stress", units)
        return Nominal([], "S_n", f"{put_in(float(shown(stress, 'stress', units)))} {unit}")

    def __str__(self) -> str:
        return self.words
