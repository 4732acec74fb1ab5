"""What if, for flaws: one value of a study varied over a list; reserves, remaining lives and verdicts of its flaws."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

from vivid_anvil.acceptance import FlawList
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.study.run_flaws import assess_flaws, flaws_of
from vivid_anvil.study.study import Study, Watch
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

MOST_FLAWS = 4  # told on a page


class KeptFlaw(NamedTuple):
    """The numbers of a flaw: reserves on load and toughness, remaining life in years (None without stages), acceptable."""

    reserve_on_load: float
    reserve_on_toughness: float
    life: float | None
    acceptable: bool


@dataclass(frozen=True, eq=False)
class FlawVariant:
    """One value of the key, and the flaws that follow, by name; `error` says why there are none."""

    value: Any
    is_base: bool
    flaws: Mapping[str, KeptFlaw]
    error: str = ""


@dataclass(frozen=True, eq=False, repr=False)
class FlawsWhatIf(Result):
    """The variants of one key of a study, the base among them, as its flaws feel them; `what_if_flaws` makes one.

    Parameters
    ----------
    study : str
        Title of the study.
    key : str
        Path of a key through the study file, such as "flaws/places/tower base/wall".
    variants : tuple of FlawVariant
        One for each value.
    findings : tuple of Finding
        Those of the study as it is.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> key = "flaws/places/hanger/wall"
    >>> what_if_flaws("tower_base.toml", key, ["10 mm", "14 mm"])  # in the folder of `vivid-anvil demo`
    <FlawsWhatIf flaws/places/hanger/wall: 3 values, 8 flaws>
    """

    study: str
    key: str
    variants: tuple[FlawVariant, ...]
    findings: tuple[Finding, ...] = ()

    @property
    def title(self) -> str:
        """The title of the study."""
        return f"{self.study}: what if"

    @property
    def varied(self) -> str:
        """The end of the key that tells what is varied: its last word, with the places in its rows."""
        parts = self.key.split("/")
        last = next((i for i in range(len(parts) - 1, -1, -1) if not parts[i].isdigit()), 0)
        return "/".join(parts[last:])

    @property
    def names(self) -> list[str]:
        """Names of the flaws, those of the study as it is by their urgency."""
        ordered = sorted(self.variants, key=lambda one: not one.is_base)
        return list(dict.fromkeys(name for one in ordered for name in one.flaws))

    @property
    def felt(self) -> list[str]:
        """Names of the flaws that the key moves."""
        return [
            name
            for name in self.names
            if len({one.flaws[name] for one in self.variants if name in one.flaws}) > 1
            or sum(name in one.flaws for one in self.variants) < sum(bool(one.flaws) for one in self.variants)
        ]

    @property
    def shown(self) -> list[str]:
        """Names of the flaws that a page tells: of those that are moved the most urgent ones."""
        return (self.felt or self.names)[:MOST_FLAWS]

    @classmethod
    def overview(cls, results: Sequence[FlawsWhatIf]) -> Table:
        """A row a question: what was varied, over how many values, for how many flaws."""
        columns = (
            Column("title", [result.study for result in results]),
            Column("key", [result.key for result in results]),
            Column("values", [len(result.variants) for result in results]),
            Column("flaws", [len(result.names) for result in results]),
            Column("flaws that are moved", [len(result.felt) for result in results]),
        )
        return Table("", columns, "questions")

    def words(self, units: UnitSystem) -> Words:
        """Which flaws are left out, which values the study refuses."""
        told = []
        still = len(self.names) - len(self.felt)
        if not self.felt:
            told.append("No flaw is moved by it.")
        elif still:
            told.append(f"{still} flaws are not moved by it.")
        others = len(self.felt) - len(self.shown)
        if self.felt and others > 0:
            told.append(f"{others} more flaws are less urgent: one of them by --spot, all by --csv.")
        told += [f"{one.value}: {one.error}" for one in self.variants if one.error]
        return tuple(("", one) for one in told)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a value and flaw, the study as it is marked."""
        rows = [(one, name) for one in self.variants for name in self.names if name in one.flaws]
        kept = [i for i, (_, name) in enumerate(rows) if name in self.shown]
        first = {at for i, at in enumerate(kept) if i == 0 or rows[kept[i - 1]][0] is not rows[at][0]}
        flaws = [one.flaws[name] for one, name in rows]
        head = self.varied
        told = ["not given" if one.value is None else str(one.value) for one, _ in rows]
        growing = any(flaw.life is not None for flaw in flaws)
        life = Column("remaining life", [flaw.life for flaw in flaws], unit="years", head="Life", endless="no end")
        columns = (
            Column(self.key, [one.value for one, _ in rows], only="file"),
            Column(
                head, [value if i in first else "" for i, value in enumerate(told)], only="page", head=head, left=True
            ),
            Column("base", [one.is_base for one, _ in rows], only="file"),
            Column("flaw", [name for _, name in rows], left=True),
            Column("reserve on load", [flaw.reserve_on_load for flaw in flaws], digits=3),
            Column(
                "reserve on toughness", [flaw.reserve_on_toughness for flaw in flaws], head="on toughness", digits=3
            ),
            *((life,) if growing else ()),
            Column("acceptable", [flaw.acceptable for flaw in flaws], alarm=[not flaw.acceptable for flaw in flaws]),
            Column("as it is", ["as it is" if one.is_base else "" for one, _ in rows], head="", only="page"),
        )
        return (Table("", columns, "variants", kept=kept),)

    def others(self) -> Mapping[str, Any]:
        """Why values were refused."""
        return {"errors": {str(one.value): one.error for one in self.variants if one.error}}

    def __repr__(self) -> str:
        return f"<FlawsWhatIf {self.key}: {len(self.variants)} values, {len(self.names)} flaws>"


def vary_flaws(
    base: Study,
    key: str,
    now: Any,
    values: Sequence[Any],
    spot: str | None,
    changed: Callable[[Any], Study],
    watch: Watch | None = None,
) -> FlawsWhatIf:
    """The flaws of a study, or one, for each of the values; `changed` makes the study with another."""
    found = assess_flaws(base, watch=watch)
    kept = kept_flaws(found, spot)
    variants = [FlawVariant(now, True, kept)]
    for i, value in enumerate(values):
        if watch is not None:
            watch(f"{key} = {value}", i, len(values))
        if value == now:
            continue
        try:
            variants.append(FlawVariant(value, False, kept_flaws(assess_flaws(changed(value)), spot)))
        except InputError as error:
            variants.append(FlawVariant(value, False, {}, str(error)))
    if not any(one.flaws for one in variants[1:]) and len(variants) > 1:
        raise InputError(f"what if, {key}", variants[1].error, "values that the study can use")
    return FlawsWhatIf(base.title, key, tuple(variants), found.findings)


def kept_flaws(found: FlawList, spot: str | None) -> dict[str, KeptFlaw]:
    """The numbers of all flaws of a list, or of one; its name, or that of an indication."""
    rows = found.flaws if spot is None else (found.flaw(spot),)
    return {
        one.name: KeptFlaw(
            one.assessment.reserve_on_load.factor,
            one.assessment.reserve_on_toughness.factor,
            one.life,
            one.assessment.acceptable,
        )
        for one in rows
    }


def flaw_names(study: Study) -> list[str]:
    """What flaws of a study may be called: the names of its indications, alone or joined as ' + ' tells."""
    return [] if study.flaws is None else [one.name for one in study.flaws.indications]


def names_a_flaw(study: Study, spot: str) -> bool:
    """Whether a name is that of an indication, or of several that were joined."""
    return bool(spot) and all(part in flaw_names(study) for part in spot.split(" + "))


def margin_of_flaw(study: Study, spot: str) -> float:
    """Logarithm of the life over the target of the flaws where there are both; else of the reserve on load."""
    flaw = assess_flaws(study).flaw(spot)
    target = flaws_of(study).target_life
    share = flaw.assessment.reserve_on_load.factor
    if target is not None and flaw.life is not None:
        share = flaw.life / target
    if share in (0.0, math.inf):
        return -700.0 if share == 0.0 else 700.0
    return math.log(share)


def refuse_name(study: Study, spot: str) -> InputError:
    """No flaw of that name."""
    known = flaw_names(study)
    return InputError("--spot", repr(spot), f"one of {listed(known)}", did_you_mean(spot, known))
