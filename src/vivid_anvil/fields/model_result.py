"""What is known of every node of a model once it is assessed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vivid_anvil.events import BETWEEN, DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.laminates import SectionFields
from vivid_anvil.stress.measures import Measure, NormalStress
from vivid_anvil.stress.relations import CaseLoads, LineLoads, ModeLoads
from vivid_anvil.stress.rubber import StrainFields
from vivid_anvil.units import DIMENSIONS
from vivid_anvil.writing.html import html_frame

NO_EVENT = -1


@dataclass(frozen=True, eq=False)
class NodeValues:
    """Of each node of a chunk: damage per repeat, the event that does most, lowest and highest stress, MPa; shape (n,).

    `by_event`, shape (n, events), is the damage of each event per repeat, and of what happens between them.
    """

    damage: FloatArray
    worst_event: IntArray
    lowest: FloatArray
    highest: FloatArray
    counted: np.ndarray
    by_event: FloatArray

    @classmethod
    def empty(cls, size: int, events: int) -> NodeValues:
        """Room for that many nodes and events."""
        places = np.full(size, NO_EVENT, dtype=np.int64)
        shares = np.zeros((size, events))
        return cls(np.zeros(size), places, np.zeros(size), np.zeros(size), np.zeros(size, dtype=bool), shares)

    def put(self, places: IntArray, part: NodeValues) -> None:
        """Write the values of some nodes into their places."""
        for name in self.__dataclass_fields__:
            getattr(self, name)[places] = getattr(part, name)

    def of(self, places: IntArray) -> NodeValues:
        """The values at some places."""
        return NodeValues(*(getattr(self, name)[places] for name in self.__dataclass_fields__))

    def where(self, chosen: NDArray[np.bool_], other: NodeValues) -> NodeValues:
        """These values at the nodes that are chosen, shape (n,), those of `other` elsewhere."""
        pairs = ((getattr(self, name), getattr(other, name)) for name in self.__dataclass_fields__)
        return NodeValues(*(np.where(chosen if one.ndim == 1 else chosen[:, None], one, two) for one, two in pairs))

    def frozen(self) -> NodeValues:
        """The same, read-only."""
        return NodeValues(*(read_only(getattr(self, name)) for name in self.__dataclass_fields__))


def sources_of(duty_cycle: DutyCycle) -> list[str]:
    """What does damage in a repeat: the events, and what happens between them where it counts."""
    names = [event.name for event, _ in duty_cycle.flat()]
    return [*names, *([] if duty_cycle.between == "each by itself" else [BETWEEN])]


@dataclass(frozen=True, eq=False, repr=False)
class ModelResult:
    """Damage per repeat and what belongs to it at every node; `spot` holds curve, material and mean-stress rule.

    `counted` says where cycles were counted, and not shown to be harmless before. `directions`, shape (n, 3), are those of the
    normal stress at each node, where every node has its own. `regions` are sets of nodes with a hot spot of their own, and
    `region_of` says for each node which of them holds, -1 for none. Where a node had several stresses, those of `field` are the
    one with the largest damage; `chosen` says which it was, such as "element 7, top face". `left_out` says which nodes were not
    assessed; they stand without damage and without stress.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    loads : CaseLoads
        How the loads of the duty cycle act on the load cases.
    duty_cycle : DutyCycle
        The events of one repeat.
    spot : HotSpot
        The place: material, method and notch factor.
    measure : Measure
        The stress that is counted: one of `MEASURES`, or its name.
    values : NodeValues
        Damage, lowest and highest counted stress at each node.
    target_repeats : float, optional
        Repeats that it shall last; None without a target.
    directions : ndarray, optional
        Unit vectors, shape (n, 3).
    regions : tuple of tuple[str, HotSpot], optional
        Hot spots for the nodes of some sets, by the name of the set; the first named holds.
    region_of : ndarray of int, optional
        Which region holds at each node; -1 for none.
    chosen : tuple of str, optional
        Which of several stresses at a node it was.
    left_out : ndarray of bool, optional
        Why nodes were not assessed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> model  # of the demo: run_model(read_study("hanger_head.toml"))
    <ModelResult 7522 nodes: 17.78 years at node 2613>
    """

    field: StressField
    loads: CaseLoads | ModeLoads | LineLoads | StrainFields | SectionFields
    duty_cycle: DutyCycle
    spot: HotSpot
    measure: Measure
    values: NodeValues
    target_repeats: float | None = None
    directions: FloatArray | None = None
    regions: tuple[tuple[str, HotSpot], ...] = ()
    region_of: IntArray | None = None
    chosen: tuple[str, ...] | None = None
    left_out: NDArray[np.bool_] | None = None

    @property
    def assessed(self) -> IntArray:
        """Places of the nodes that were not left out."""
        return np.arange(self.field.size) if self.left_out is None else np.flatnonzero(~self.left_out)

    def spot_at(self, place: int) -> HotSpot:
        """The hot spot whose curve and rules hold at the node that stands there."""
        number = -1 if self.region_of is None else int(self.region_of[place])
        return self.spot if number < 0 else self.regions[number][1]

    def region_at(self, place: int) -> str:
        """The name of the region of the node that stands there; empty for none."""
        number = -1 if self.region_of is None else int(self.region_of[place])
        return "" if number < 0 else self.regions[number][0]

    @property
    def critical_sums(self) -> FloatArray:
        """The damage sum at which each node counts as failed, shape (n,)."""
        sums = np.array([one.assessed_by.critical_sum for one in (self.spot, *(spot for _, spot in self.regions))])
        return np.full(self.field.size, sums[0]) if self.region_of is None else np.asarray(sums[self.region_of + 1])

    def measure_at(self, place: int) -> Measure:
        """What was counted at the node that stands there."""
        if self.directions is None:
            return self.measure
        return NormalStress(self.directions[place])

    @property
    def damage_per_repeat(self) -> FloatArray:
        """Damage of one repeat at each node, shape (n,)."""
        return self.values.damage

    @property
    def life_repeats(self) -> FloatArray:
        """Repeats to the critical sum, inf without damage, shape (n,)."""
        with np.errstate(divide="ignore"):
            return np.asarray(self.critical_sums / self.values.damage)

    @property
    def used_at_target(self) -> FloatArray | None:
        """Share of the life at each node that is used when the target is reached, shape (n,); None without target."""
        if self.target_repeats is None:
            return None
        return np.asarray(self.values.damage * self.target_repeats / self.critical_sums)

    @property
    def life_years(self) -> FloatArray | None:
        """The same in years; None without repeats per year."""
        years: FloatArray | None = self.duty_cycle.calendar.years(self.life_repeats)
        return years

    @property
    def worst(self) -> int:
        """The place of the node with the largest damage; of those without, the one with the largest stress."""
        if self.values.damage.max(initial=0.0) > 0.0:
            return int(self.values.damage.argmax())
        return int(np.maximum(self.values.highest, -self.values.lowest).argmax())

    @property
    def failed(self) -> IntArray:
        """Places of the nodes whose mean stress reaches a strength: they fail at once, and their life is 0."""
        return np.flatnonzero(np.isinf(self.values.damage))

    @property
    def event_names(self) -> list[str]:
        """Names by the numbers of `values.worst_event`: the events, and what happens between them; "none" is the last, -1."""
        return [*sources_of(self.duty_cycle), "none"]

    def to_frame(self) -> Any:
        """A row a node: number, place, damage, life, worst event, stresses; units in the headings."""
        import pandas as pd

        names, kind = np.array(self.event_names), self.spot.assessed_by.counts
        unit = DIMENSIONS[kind].coherent
        x, y, z = self.field.coordinates.T
        frame = pd.DataFrame(
            {
                "node": self.field.node_ids,
                "x [mm]": x,
                "y [mm]": y,
                "z [mm]": z,
                "damage per repeat": self.values.damage,
                f"life [{self.duty_cycle.calendar.repeats}]": self.life_repeats,
                **({} if self.life_years is None else {"life [years]": self.life_years}),
                **({} if self.used_at_target is None else {"used at target": self.used_at_target}),
                "worst event": names[self.values.worst_event],
                **{f"damage of {name}": self.values.by_event[:, i] for i, name in enumerate(names[:-1])},
                f"lowest {kind} [{unit}]": self.values.lowest,
                f"highest {kind} [{unit}]": self.values.highest,
            }
        )
        if self.regions:
            frame["region"] = [self.region_at(place) for place in range(self.field.size)]
        if self.chosen is not None:
            frame["worst of"] = list(self.chosen)
        if self.left_out is not None:
            frame["left out"] = self.left_out
        return frame

    def _repr_html_(self) -> str:
        frame = self.to_frame().sort_values("damage per repeat", ascending=False, kind="stable")
        return html_frame(repr(self).strip("<>"), frame)

    def __repr__(self) -> str:
        at, repeats = self.worst, float(self.life_repeats[self.worst])
        life = "no damage" if np.isinf(repeats) else self.duty_cycle.calendar.text(repeats)
        return f"<ModelResult {self.field.size} nodes: {life} at node {self.field.node_ids[at]}>"
