"""Questions asked the other way round for a flaw: loads, toughness, sizes that are just enough; any value that would be."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from vivid_anvil.acceptance import ListedFlaw
from vivid_anvil.acceptance.allowable_flaws import largest_flaw
from vivid_anvil.acceptance.grow_flaw import said_years
from vivid_anvil.study.run_flaws import assess_flaws, flaws_of
from vivid_anvil.study.study import Study, Watch
from vivid_anvil.units import UnitSystem, in_unit, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

Row = tuple[str, float | None, str, str]  # question, answer in the coherent unit, its dimension or unit, a remark


@dataclass(frozen=True, eq=False, repr=False)
class FlawAnswers(Result):
    """Answers for one flaw of a study; `answers_of_flaw` makes one.

    Parameters
    ----------
    study : Study
        The study.
    flaw : ListedFlaw
        The flaw.
    answers : tuple of (str, float or None, str, str)
        Question, answer in the coherent unit, its dimension or unit, a remark.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> answers_of_flaw(read_study("tower_base.toml"), "H2")  # in the folder of `vivid-anvil demo`
    <FlawAnswers Flaw H2: what is just enough, 5 questions>
    """

    study: Study
    flaw: ListedFlaw
    answers: tuple[Row, ...]

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"Flaw {self.flaw.name}: what is just enough"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Those of the flaw today."""
        return self.flaw.assessment.findings

    @classmethod
    def overview(cls, results: Sequence[FlawAnswers]) -> Table:
        """A row a flaw."""
        columns = (
            Column("title", [result.study.title for result in results]),
            Column("flaw", [result.flaw.name for result in results]),
            Column("place", [result.flaw.place for result in results]),
            Column("questions", [len(result.answers) for result in results]),
        )
        return Table("", columns, "flaws")

    def words(self, units: UnitSystem) -> Words:
        """The flaw and its verdict."""
        found = self.flaw.assessment
        return (("Flaw", f"{found.flaw.shape.kind}, {found.flaw.said_in(units)}"), ("Verdict", found.verdict))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a question."""
        columns = (
            Column("question", [row[0] for row in self.answers], head="What"),
            Column("answer", [row[1] for row in self.answers], only="file"),
            Column("of", [row[2] for row in self.answers], only="file"),
            Column("in words", [_told(row, units) for row in self.answers], head="Answer"),
        )
        return (Table("", columns, "answers"),)

    def __repr__(self) -> str:
        return f"<FlawAnswers {self.title}, {len(self.answers)} questions>"


def _told(row: Row, units: UnitSystem) -> str:
    _, value, of, remark = row
    if value is None:
        return remark
    if math.isinf(value):
        return "not limited" + (f"; {remark}" if remark else "")
    told = in_unit(value, of, units) if of in ("length", "stress intensity") else f"{number(value)} {of}".rstrip()
    return told + (f"; {remark}" if remark else "")


def answered_flaw(
    study: Study, name: str | None, solved: Callable[[str], Row] | None, watch: Watch | None = None
) -> FlawAnswers:
    """The answers for a flaw by its name, the most urgent without; `solved` works out what a key is solved for."""
    job, found = flaws_of(study), assess_flaws(study, watch=watch)
    flaw = found.flaws[0] if name is None else found.flaw(name)
    own, size = flaw.assessment, flaw.assessment.reserve_on_size
    rows: list[Row] = [
        ("all primary stresses times", own.reserve_on_load.factor, "", "secondary ones as they are"),
        ("toughness that is just needed", own.needed_toughness, "stress intensity", ""),
        ("all of its sizes times", size.factor, "", "" if math.isfinite(size.factor) else "the solution ends before"),
        ("yield and ultimate strength over", own.reserve_on_yield.factor, "", ""),
    ]
    stages = tuple(job.places[flaw.place].stages)
    if stages and job.target_life is not None:
        sizes = own.flaw.sizes
        ratio = sizes[0] / sizes[1] if len(sizes) == 2 else None
        largest, _ = largest_flaw(own, stages, job.target_life, ratio)
        what = f"{own.flaw.shape.size_means} of its aspect that lasts {said_years(job.target_life)}"
        rows.append((what, largest or None, "length", "" if largest else "none lasts as long"))
    if solved is not None:
        rows.append(solved(flaw.name))
    return FlawAnswers(study, flaw, tuple(rows))
