"""Questions asked the other way round: what would just meet the target, and which test does the damage of the service.

In: a study with a target, and a place with a life. Out: `Answers`, a row a question.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from vivid_anvil.damage import LifeResult, WeldOfTwo, accelerated_test, class_needed, cycles_of_test
from vivid_anvil.events.calendar import plural
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.study.flaw_answers import FlawAnswers, Row, answered_flaw
from vivid_anvil.study.run import lives_of_places, place_names
from vivid_anvil.study.run_flaws import flaws_of
from vivid_anvil.study.study import Study, Watch
from vivid_anvil.study.what_if import value_that_meets_target
from vivid_anvil.study.what_if_flaws import names_a_flaw
from vivid_anvil.units import UnitSystem, coherent, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table

# What a needed class has in common with the present one.
_AS_NOW = (
    "loading",
    "component",
    "thickness",
    "attachment_length",
    "thickness_exponent",
    "environment",
    "partial_factor",
)
REFERENCE_CYCLES = 2e6  # of the constant stress that does the same damage
Words = tuple[str | float, ...]  # a sentence with its stresses, MPa, as numbers


@dataclass(frozen=True)
class Questions:
    """What is asked beside load factor, repeats and class: a key to solve for, and tests.

    `between` are the ends of the search with the unit of the key, `test_stress` and `leave_out` stresses with unit.
    """

    key: str | None = None
    between: str | None = None
    standard: str | None = None
    test_cycles: float | None = None
    test_stress: str | None = None
    leave_out: tuple[str, ...] = ()


@dataclass(frozen=True)
class Answer:
    """One question with its answer in the coherent `unit`, or in words, and a remark; `instead` is what a reader sees."""

    question: Words
    answer: float | str | None
    unit: str = ""
    remark: Words = ()
    instead: Words = ()

    def shown(self, units: UnitSystem) -> str:
        """The answer in words, with its unit and the remark."""
        if self.instead:
            told = _in_words(self.instead, units)
        elif self.answer is None or isinstance(self.answer, str):
            told = self.answer or "-"
        else:
            told = in_unit(self.answer, "stress", units) if self.unit == "MPa" else number(self.answer)
        return told + _in_words(self.remark, units)


@dataclass(frozen=True, eq=False, repr=False)
class Answers(Result):
    """Answers for one place of a study, whose life is `life`."""

    study: Study
    place: str
    life: LifeResult
    answers: tuple[Answer, ...]
    findings: tuple[Finding, ...] = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "findings", self.life.findings)

    def __repr__(self) -> str:
        return f"<Answers {self.title}, {len(self.answers)} questions>"

    @property
    def title(self) -> str:
        """The place and the target."""
        return f"{self.life.hot_spot.name}: to meet {self.study.target_life}"

    @classmethod
    def overview(cls, results: Sequence[Answers]) -> Table:
        """A row a place."""
        columns = (
            Column("title", [result.study.title for result in results]),
            Column("hot spot", [result.place for result in results]),
            Column("place", [result.life.hot_spot.name for result in results]),
            Column("target life", [str(result.study.target_life) for result in results]),
        )
        return Table("", columns, "places")

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a question."""
        of = self.answers
        columns = (
            Column("question", [_in_words(one.question, units) for one in of], head="What"),
            Column("answer", [one.answer for one in of], only="file"),
            Column("unit", [one.unit for one in of], only="file"),
            Column("in words", [one.shown(units) for one in of], head="Answer", left=False),
        )
        return (Table("", columns, "answers"),)


def _in_words(words: Words, units: UnitSystem) -> str:
    return "".join(word if isinstance(word, str) else in_unit(word, "stress", units) for word in words)


@opened()
def answers(
    study: Study, spot: str | None = None, asked: Questions | None = None, *, watch: Watch | None = None
) -> Answers:
    """What would just meet the target of `study` at one place, by default where life is shortest, and what else is `asked`.

    Parameters
    ----------
    study : Study
        The study, or its file.
    spot : str, optional
        Name of the place; by default that with the shortest life.
    asked : Questions, optional
        What else is wanted, such as a notch factor that would do.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    Answers
        The factors and sizes that just meet the target, as a result; of a flaw `answers_of_flaw` tells.

    Raises
    ------
    InputError
        Without a place that has a life, for an unknown one, and without a target.

    Examples
    --------
    >>> answers(study)  # of the demo: read_study("larkfell.toml")
    <Answers weld toe at the grip head: to meet 30 years, 4 questions>
    """
    names, where = place_names(study), study.title if study.path is None else study.path.name
    more = Questions() if asked is None else asked
    if asks_for_a_flaw(study, spot):
        raise InputError(where, "a question of a flaw", "a place with a life", "answers_of_flaw answers it.")
    if not names:
        raise InputError(where, "no hot spot with an S-N curve, and no model", "at least one")
    if spot is not None and spot not in names:
        raise InputError("--spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
    lives = lives_of_places(study, spot, watch=watch)
    place = min(lives, key=lambda name: lives[name].life_repeats)
    life = lives[place]
    if study.target_life is None:
        raise InputError(where, "no target_life", "a target, such as target_life = '30 years'", "Add it.")
    if watch is not None:
        watch("solving", 0, 1)
    answers = (*_of_the_target(study, place, life, more), *_tests(life, more))
    if watch is not None:
        watch("solving", 1, 1)
    return Answers(study, place, life, answers)


def _of_the_target(study: Study, place: str, life: LifeResult, asked: Questions) -> list[Answer]:
    repeat, reserve = life.duty_cycle.repeat, life.reserve_on_stress
    beyond = () if reserve is None else _beyond(life, reserve * max(life.peak_stress, -life.lowest_stress))
    rows = [
        Answer(("all loads times",), reserve, remark=beyond),
        Answer((f"{plural(repeat).capitalize()} until the critical sum",), life.life_repeats, repeat),
    ]
    curve = life.method.reference
    if curve is not None:
        # of a weld of two stresses: by the one across it
        same = life.damage_equivalent_stress(REFERENCE_CYCLES)
        rows.append(_level("constant stress {} that does the same in 2e6 cycles", life, same))
    rows += _classes(study, life, asked.standard)
    if asked.key is not None:
        rows.append(_solved(study, place, asked))
    return rows


def _classes(study: Study, life: LifeResult, asked: str | None) -> list[Answer]:
    """The class that is needed; of a weld of two stresses each of both beside the other."""
    rows, method = [], life.method
    two = (
        {"across": method.sn_curve, "along": method.shear_curve}
        if isinstance(method, WeldOfTwo)
        else {"": method.reference}
    )
    for which, curve in two.items():
        like = {} if curve is None else _section_of(study, curve.name)
        standard = asked or like.get("standard")
        if standard is not None:
            how = {"component": curve.component} if which and curve is not None else {}
            found = class_needed(life, standard, **how | {key: like[key] for key in _AS_NOW if key in like})
            words = f" {which} the weld, the other as it is" if which else ""
            rows.append(
                Answer((f"class of {standard} needed{words}",), "none is enough" if found is None else float(found))
            )
    return rows


def _section_of(study: Study, curve: str) -> dict[str, Any]:
    """The section of the study that the curve is made of, where it is a class of a shipped standard; else empty."""
    section = dict(study.data.get("sn_curves", {}).get(curve, {}))
    return section if "standard" in section and "standard_file" not in section else {}


@opened()
def asks_for_a_flaw(study: Study, spot: str | None) -> bool:
    """Whether a name is that of a flaw; without a name whether the study has nothing else."""
    names = place_names(study)
    return study.flaws is not None and (not names if spot is None else spot not in names and names_a_flaw(study, spot))


@opened()
def answers_of_flaw(
    study: Study, flaw: str | None = None, asked: Questions | None = None, *, watch: Watch | None = None
) -> FlawAnswers:
    """What would be just enough for one flaw of `study`, by default the most urgent, and what else is `asked`.

    Parameters
    ----------
    study : Study
        The study, or its file.
    flaw : str, optional
        Name of the flaw, or of one of its indications.
    asked : Questions, optional
        A key to solve for; questions of S-N curves are none of a flaw's.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    FlawAnswers
        Factors on load, toughness, sizes and yield, the largest size that lasts the target, as a result.

    Raises
    ------
    InputError
        For a study without flaws, an unknown one, and questions of S-N curves.

    Examples
    --------
    >>> answers_of_flaw(read_study("tower_base.toml"), "H2")  # in the folder of `vivid-anvil demo`
    <FlawAnswers Flaw H2: what is just enough, 5 questions>
    """
    flaws_of(study)
    asked = Questions() if asked is None else asked
    for option, value in (
        ("--standard", asked.standard),
        ("--test-cycles", asked.test_cycles),
        ("--test-stress", asked.test_stress),
        ("--leave-out", asked.leave_out or None),
    ):
        if value is not None:
            raise InputError(option, repr(value), "no such question of a flaw", "It has no S-N curve.")

    def solved(name: str) -> Row:
        value, unit = _value(study, name, asked)
        return str(asked.key), value, unit, ""

    return answered_flaw(study, flaw, None if asked.key is None else solved, watch)


def _solved(study: Study, spot: str, asked: Questions) -> Answer:
    value, unit = _value(study, spot, asked)
    return Answer((str(asked.key),), value, unit, instead=(f"{number(value, 5)} {unit}".rstrip(),))


def _value(study: Study, spot: str, asked: Questions) -> tuple[float, str]:
    """The value that is solved for, and its unit as the key is written."""
    low, dots, high = (asked.between or "").partition("..")
    if not dots:
        raise InputError("--between", repr(asked.between), "two values, such as 1.2..2.6 or '300..900 MPa'")
    high, _, unit = high.strip().partition(" ")
    try:
        ends = float(low), float(high)
    except ValueError:
        raise InputError("--between", repr(asked.between), "two numbers and at most one unit") from None
    return value_that_meets_target(study, str(asked.key), *ends, unit, spot=spot), unit


def _tests(life: LifeResult, asked: Questions) -> list[Answer]:
    rows = []
    if asked.test_cycles is not None:
        level = life.damage_equivalent_stress(asked.test_cycles)
        rows.append(_level(f"test of {number(asked.test_cycles)} cycles: stress {{}}", life, level))
    if asked.test_stress is not None:
        level = coherent(asked.test_stress, "stress", "--test-stress")
        found = cycles_of_test(life, level)
        instead = () if math.isfinite(found) else ("none is enough: no damage there",)
        question = (f"test at a {life.stress_in_words} of ", level, ": cycles")
        rows.append(Answer(question, found, "cycle", _beyond(life, _peak_of(life, level)), instead))
    if asked.leave_out:
        limits = [coherent(one, "stress", "--leave-out") for one in asked.leave_out]
        test = accelerated_test(life, limits)
        for limit, kept, cycles, repeats in zip(limits, test.damage_kept, test.cycles_kept, test.repeats, strict=True):
            told = f": repeats ({kept:.1%} of the damage, {number(float(cycles))} cycles each kept)"
            rows.append(Answer(("test without ranges below ", limit, told), float(repeats), "repeat"))
    return rows


def _level(question: str, life: LifeResult, level: float) -> Answer:
    """A stress of constant cycles in the curve's terms: range or amplitude, at which R, and whether a part can bear its peak."""
    limit = life.curve.limit
    none: Words = ()
    if level == 0.0:
        none = ("any below ", limit) if limit > 0.0 else ("none: no damage",)
    asked = (question.format(f"{life.curve.stress} at {life.curve.at_r}"),)
    return Answer(asked, level, "MPa", _beyond(life, _peak_of(life, level)), none)


def _peak_of(life: LifeResult, level: float) -> float:
    """Largest stress, MPa, of cycles of that range or amplitude at the R of the curve; half the range where R is open."""
    swing = level if life.curve.stress == "range" else 2.0 * level
    r_ratio = life.curve.r_ratio
    if isinstance(r_ratio, str) or not r_ratio < 1.0:
        return 0.5 * swing
    return float(swing / (1.0 - r_ratio))


def _beyond(life: LifeResult, peak: float) -> Words:
    """What an expert says where a peak stress, MPa, is above a strength; else nothing."""
    material = life.hot_spot.material
    for name, strength in (("ultimate", material.ultimate_strength), ("yield", material.yield_strength)):
        if strength is not None and peak > strength:
            return ("; its peak of ", peak, f" is above the {name} strength, ", strength)
    return ()
