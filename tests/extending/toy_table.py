"""A result of one's own, with a table: how far a life is from the shortest of several."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True)
class Spread(Result):
    """Lives over the shortest of them."""

    lives: tuple

    title = "Spread of lives"
    findings = ()

    @classmethod
    def overview(cls, results):
        """A row a spread."""
        return Table("", (Column("lives", [len(one.lives) for one in results]),), "spreads")

    def tables(self, units="metric"):
        """A row a life."""
        least = min(one.life_repeats for one in self.lives)
        columns = (
            Column("hot spot", [one.hot_spot.name for one in self.lives]),
            Column("peak", [one.peak_stress for one in self.lives], of="stress"),
            Column("over the shortest", [one.life_repeats / least for one in self.lives], endless="no limit"),
        )
        return (Table("Lives over the shortest", columns, "spread"),)

    def words(self, units):
        """How many."""
        return (("Lives", str(len(self.lives))),)

    def working(self, units="metric"):
        """That of the shortest."""
        return min(self.lives, key=lambda one: one.life_repeats).working(units)

    def others(self):
        """Nothing."""
        return {}
