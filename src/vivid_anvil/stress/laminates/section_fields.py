"""Forces and moments per width all over a model of shells, as the loads of a whole model are."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.laminates.section_loads import SectionLoads
from vivid_anvil.stress.relations.case_loads import CaseLoads


@dataclass(frozen=True, eq=False)
class SectionFields:
    """How the events of a duty cycle scale the cases of a field of section loads.

    Each place keeps its own loads: what a softer place hands on to its neighbours is not known here.

    Parameters
    ----------
    cases : CaseLoads
        The channel and the unit load of each case.

    Raises
    ------
    InputError
        For an argument of another kind; the message says which.

    Examples
    --------
    >>> from vivid_anvil.stress import CaseLoad
    >>> SectionFields(CaseLoads([CaseLoad(case="lean", channel="force", unit_load="100 N")])).moving
    ['lean']
    """

    cases: CaseLoads

    def __post_init__(self) -> None:
        given: Any = self.cases
        if not isinstance(given, CaseLoads):
            raise InputError("section fields", repr(given), "CaseLoads")

    @property
    def constant(self) -> Mapping[str, float]:
        """Cases that are there all the time."""
        return self.cases.constant

    @property
    def moving(self) -> list[str]:
        """Cases that change with time."""
        return self.cases.moving

    @property
    def channels(self) -> tuple[str, ...]:
        """The channels that scale the cases."""
        return self.cases.channels

    def check(self, field: Any) -> None:
        """InputError unless the field holds section loads, of exactly these cases."""
        if field.dimension != "section loads":
            raise InputError(
                "section fields",
                f"a field of {field.dimension}",
                "a field of section loads",
                "Read it by read_section_loads.",
            )
        self.cases.check(field)

    def units(self, field: Any) -> FloatArray:
        """Resultants nx .. mxy of the cases with a history, shape (rows, cases, 6)."""
        return self.cases.units(field)

    def constants(self, field: Any) -> FloatArray:
        """What is there all the time, shape (rows, 6)."""
        return self.cases.constants(field)

    def events(self, duty_cycle: DutyCycle) -> list[Any]:
        """Every event as loads over unit loads in time; InputError for one over frequency."""
        found = self.cases.events(duty_cycle)
        for event in found:
            if event.vibrates:
                raise InputError(
                    f"event {event.name}", "a load over frequency", "a history, states or cycles, for a laminate"
                )
        return found

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> SectionLoads:
        """What a place goes through."""
        return SectionLoads(loads=self.cases, unit=unit, constant=constant, idle=not unit.any())
