"""What if: one value of a study varied over a list, all else the same; and the value that just meets the target, solved.

A key is a path through the study file with slashes: `hot_spots/bore of the suspension pin/notch_factor`, `target_life`,
`sn_curves/pin_bore/surface`. Entries of lists go by their name. `load scale` is a factor on all loads of every hot spot.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar

from scipy.optimize import brentq

from vivid_anvil.damage import LifeResult
from vivid_anvil.damage.methods.cracking_findings import beyond_computed
from vivid_anvil.ground.errors import InputError, did_you_mean, listed, shortened
from vivid_anvil.stress.rubber import StrainFields, StrainStates
from vivid_anvil.study.kept_life import KeptLife, WorstNode, kept_columns, kept_growth, kept_of
from vivid_anvil.study.key_paths import LOAD_SCALE, changed_study, number_and_unit, value_at
from vivid_anvil.study.model_run import worst_node
from vivid_anvil.study.read_study import read_study
from vivid_anvil.study.run import lives_of_places, place_names
from vivid_anvil.study.run_flaws import flaws_of
from vivid_anvil.study.study import WORST_NODE, Study, Watch
from vivid_anvil.study.what_if_flaws import (
    FlawsWhatIf,
    FlawVariant,
    margin_of_flaw,
    names_a_flaw,
    refuse_name,
    vary_flaws,
)
from vivid_anvil.units import UnitSystem, number, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

MOST_SPOTS = 6  # told on a page
OF_CRACKS = ("cracks", "growth_laws")  # keys that no life by damage depends on


@dataclass(frozen=True, eq=False)
class Variant:
    """One value of the key, and the lives that follow, by hot spot; `error` says why there are none."""

    value: Any
    is_base: bool
    lives: dict[str, KeptLife]
    error: str = ""


@dataclass(frozen=True, eq=False, repr=False)
class WhatIf(Result):
    """The variants of one key of a study, the base among them; `findings` are those of the study as it is.

    Parameters
    ----------
    study : str
        The study, or its file.
    key : str
        Path of a key through the study file, such as "hot_spots/toe/notch_factor".
    variants : tuple of Variant
        One for each value, the base among them.
    target_repeats : float
        Repeats that it shall last; None without a target.
    findings : tuple of Finding, optional
        What an expert would say about it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> key = "hot_spots/weld toe at the grip head/notch_factor"  # study of the demo: read_study("larkfell.toml")
    >>> what_if(study, key, [1.0, 1.1], spot="weld toe at the grip head").variants[-1].value
    1.1
    """

    study: str
    key: str
    variants: tuple[Variant, ...]
    target_repeats: float | None
    findings: tuple[Finding, ...] = ()

    @property
    def title(self) -> str:
        """The title of the study."""
        return f"{self.study}: what if"

    @property
    def spots(self) -> list[str]:
        """Names of the hot spots."""
        return list(dict.fromkeys(name for one in self.variants for name in one.lives))

    @property
    def unit_of_life(self) -> str:
        """The unit in which the lives read well: years or days, or repeats without a calendar."""
        lives = [life for one in self.variants for life in one.lives.values()]
        return lives[0].calendar.unit_for(*(life.life_repeats for life in lives))

    @classmethod
    def overview(cls, results: Sequence[WhatIf]) -> Table:
        """A row a question: what was varied, over how many values, at how many places."""
        columns = (
            Column("title", [result.study for result in results]),
            Column("key", [result.key for result in results]),
            Column("values", [len(result.variants) for result in results]),
            Column("places", [len(result.spots) for result in results]),
            Column("target [repeats]", [result.target_repeats for result in results]),
        )
        return Table("", columns, "questions")

    def words(self, units: UnitSystem) -> Words:
        """Which node is the worst one, how many places are left out, which values the study refuses."""
        told = [*_nodes_of(self)]
        others = len(self.spots) - len(_spots_shown(self))
        if others:
            told.append(f"{others} more hot spots live longer: one of them by --spot, all by --csv.")
        told += [f"{variant.value}: {variant.error}" for variant in self.variants if variant.error]
        return tuple(("", one) for one in told)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a value and place, the study as it is marked; a page leaves out places that live longest."""
        rows = [(one, spot) for one in self.variants for spot in self.spots if spot in one.lives]
        near = _spots_shown(self)
        kept = [i for i, (_, spot) in enumerate(rows) if spot in near]
        new = {i for i, at in enumerate(kept) if i == 0 or rows[kept[i - 1]][0] is not rows[at][0]}
        first = {kept[i] for i in new}
        columns = [
            Column(self.key, [one.value for one, _ in rows], only="file"),
            Column(
                self.key.rpartition("/")[2],
                [_given(one.value) if i in first else "" for i, (one, _) in enumerate(rows)],
                only="page",
                head=self.key.rpartition("/")[2],
                left=True,
            ),
            Column("base", [one.is_base for one, _ in rows], only="file"),
            Column("hot spot", [spot for _, spot in rows]),
            Column("place", [one.lives[spot].place for one, spot in rows], only="file"),
            *kept_columns([one.lives[spot] for one, spot in rows]),
            Column("as it is", ["as it is" if one.is_base else "" for one, _ in rows], head="", only="page"),
        ]
        return (Table("", tuple(columns), "variants", kept=kept),)

    def others(self) -> Mapping[str, Any]:
        """Why values were refused."""
        return {"errors": {str(variant.value): variant.error for variant in self.variants if variant.error}}

    def __repr__(self) -> str:
        return f"<WhatIf {self.key}: {len(self.variants)} values, {len(self.spots)} hot spots>"


@opened()
def what_if(
    study: Study | str | Path, key: str, values: Sequence[Any], *, spot: str | None = None, watch: Watch | None = None
) -> WhatIf:
    """Lives of the hot spots of `study` (or of one `spot`) for each of `values` of `key`, beside those of the study as it is.

    Keys under `cracks` and `growth_laws` give the lives of the cracks instead, to their limiting size; of flaws `what_if_flaws`
    tells.

    A value that the study refuses stands in the result with its error.

    Parameters
    ----------
    study : Study or str or path
        The study, or its file.
    key : str
        Path of a key through the study file, such as "hot_spots/toe/notch_factor".
    values : sequence
        Values of the key, as they would stand in the file.
    spot : str, optional
        Name of one place; by default all.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    WhatIf
        The lives by value, as a result.

    Raises
    ------
    InputError
        For an unknown key, and where no value can be assessed.

    Examples
    --------
    >>> key = "hot_spots/weld toe at the grip head/notch_factor"  # study of the demo: read_study("larkfell.toml")
    >>> what_if(study, key, [1.0, 1.1], spot="weld toe at the grip head")
    <WhatIf hot_spots/weld toe at the grip head/notch_factor: 2 values, 1 hot spots>
    """
    base = read_study(study, watch=watch) if isinstance(study, str | Path) else study
    if of_flaws(base, key, spot):
        raise InputError(f"what if, {key}", "a question of flaws", "a key of hot spots", "what_if_flaws answers it.")
    of_cracks = key.partition("/")[0] in OF_CRACKS
    names = [crack.hot_spot.name for crack in base.cracks] if of_cracks else place_names(base)
    if spot is not None and spot not in names:
        raise InputError("hot spot", repr(spot), f"one of {listed(names)}", did_you_mean(spot, names))
    if not names:
        raise InputError(
            f"what if, {key}", "no crack" if of_cracks else "no hot spot and no model", "at least one in the study"
        )
    _check_values(values, key)
    now = 1.0 if key == LOAD_SCALE else value_at(base.data, key)
    with_node = base.model is not None and not of_cracks and spot in (None, WORST_NODE)
    node = worst_node(base, watch=watch) if with_node else None
    lives = {} if of_cracks else _lives(base, spot, watch)
    kept: dict[str, KeptLife] = {**(_growths(base, spot) if of_cracks else _numbers(lives, node))}
    variants = [Variant(now, True, kept)]
    for i, value in enumerate(values):
        if watch is not None:
            watch(f"{key} = {value}", i, len(values))
        if value != now:
            variants.append(_variant(base, key, value, spot, lives, node))
    if not any(variant.lives for variant in variants[1:]) and len(variants) > 1:
        raise InputError(f"what if, {key}", variants[1].error, "values that the study can use")
    target = None
    if base.target_life is not None:
        target = base.duty.repeats_in(base.target_life)
    of_lives = [finding for life in lives.values() for finding in life.findings]
    scaled = _beyond(base, values) if key == LOAD_SCALE else []
    findings = gravest_first([*scaled, *of_lives, *([] if node is None else node.findings)])
    return WhatIf(base.title, key, tuple(_sorted(variants)), None if key == "target_life" else target, findings)


def _beyond(base: Study, values: Sequence[Any]) -> list[Finding]:
    """Where the largest load scale leaves the states of strain that were computed."""
    places: list[Any] = [spot.fed for spot in base.assessed if isinstance(spot.fed, StrainStates)]
    loads = [place.loads for place in places]
    if base.model is not None and isinstance(base.model.loads, StrainFields):
        loads.append(base.model.loads.states)
    top = max((float(value) for value in values), default=1.0)
    found = {one.sentence: one for each in loads if top > 1.0 for one in beyond_computed(each, base.duty, top)}
    return list(found.values())


@opened()
def of_flaws(base: Study, key: str, spot: str | None) -> bool:
    """Whether a question is one of flaws."""
    if base.flaws is None or not base.flaws.indications:
        return False
    alone = not base.hot_spots and base.model is None
    return key.partition("/")[0] == "flaws" or alone or (spot is not None and names_a_flaw(base, spot))


@opened()
def what_if_flaws(
    study: Study | str | Path, key: str, values: Sequence[Any], *, spot: str | None = None, watch: Watch | None = None
) -> FlawsWhatIf:
    """Reserves, remaining lives and verdicts of the flaws of `study` (or of one) for each of `values` of any `key`.

    A value that the study refuses stands in the result with its error.

    Parameters
    ----------
    study : Study or str or path
        The study, or its file.
    key : str
        Path of a key through the study file, such as "flaws/places/hanger/wall"; entries without name go by their number.
    values : sequence
        Values of the key, as they would stand in the file.
    spot : str, optional
        Name of one flaw, or of an indication; by default all.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    FlawsWhatIf
        The flaws by value, as a result.

    Raises
    ------
    InputError
        For a study without flaws, an unknown key or flaw, and where no value can be assessed.

    Examples
    --------
    >>> key = "flaws/stresses/hundred-year storm/primary/1/membrane"
    >>> what_if_flaws("tower_base.toml", key, ["90 MPa"])  # in the folder of `vivid-anvil demo`
    <FlawsWhatIf flaws/stresses/hundred-year storm/primary/1/membrane: 2 values, 8 flaws>
    """
    base = read_study(study, watch=watch) if isinstance(study, str | Path) else study
    flaws_of(base)
    _check_values(values, key)
    if key == LOAD_SCALE:
        found = "a factor on the loads of hot spots"
        raise InputError(
            f"what if, {key}", found, "a key of the flaws", "Such as flaws/stresses/NAME/primary/1/membrane."
        )
    if spot is not None and not names_a_flaw(base, spot):
        raise refuse_name(base, spot)
    now = value_at(base.data, key)
    result = vary_flaws(base, key, now, values, spot, lambda value: changed_study(base, key, value), watch)
    return dataclasses.replace(result, variants=tuple(_sorted(list(result.variants))))


def _lives(study: Study, spot: str | None, watch: Watch | None = None) -> dict[str, LifeResult]:
    """The lives of the hot spots, or of that one; none for the worst node."""
    if spot == WORST_NODE:
        return {}
    return lives_of_places(dataclasses.replace(study, model=None), spot, watch=watch)


def _numbers(lives: dict[str, LifeResult], node: WorstNode | None, scale: float = 1.0) -> dict[str, KeptLife]:
    numbers: dict[str, KeptLife] = {name: kept_of(life, scale) for name, life in lives.items()}
    return numbers if node is None else {**numbers, WORST_NODE: node.kept}


def _variant(
    base: Study, key: str, value: Any, spot: str | None, lives: dict[str, LifeResult], node: WorstNode | None
) -> Variant:
    try:
        if key == LOAD_SCALE:
            if isinstance(value, str) or not 0.0 < float(value) < math.inf:
                raise InputError(LOAD_SCALE, repr(value), "a factor above 0")
            again = None if node is None else worst_node(base, float(value))
            return Variant(value, False, _numbers(lives, again, float(value)))
        changed = changed_study(base, key, value)
        if key.partition("/")[0] in OF_CRACKS:
            return Variant(value, False, _growths(changed, spot))
        felt = key.partition("/")[0] != "hot_spots"  # a hot spot is nothing that the model feels
        return Variant(value, False, _numbers(_lives(changed, spot), worst_node(changed) if node and felt else node))
    except InputError as error:
        return Variant(value, False, {}, error=str(error))


def _growths(study: Study, spot: str | None) -> dict[str, KeptLife]:
    """The growth of the cracks of a study, by the name of their hot spot."""
    duty = study.duty
    target = None if study.target_life is None else duty.repeats_in(study.target_life)
    cracks = [crack for crack in study.cracks if spot in (None, crack.hot_spot.name)]
    return {crack.hot_spot.name: kept_growth(crack, duty, target) for crack in cracks}


def _given(value: Any) -> str:
    """A value of the study; None where it leaves the key out."""
    return "not given" if value is None else str(value)


def _nodes_of(result: WhatIf) -> list[str]:
    """Which node is the worst one, where there is a model."""
    lives = {
        _given(variant.value): variant.lives[WORST_NODE] for variant in result.variants if WORST_NODE in variant.lives
    }
    named = {value: life.place for value, life in lives.items()}
    if not named:
        return []
    if len(set(named.values())) == 1:
        return [f"The worst node is {next(iter(named.values()))} at all of these values."]
    return ["The worst node: " + ", ".join(f"{node} at {value}" for value, node in named.items()) + "."]


def _spots_shown(result: WhatIf) -> list[str]:
    """The hot spots that live shortest in the study as it is; all where they are few."""
    base = next(variant for variant in result.variants if variant.is_base)
    first = sorted(result.spots, key=lambda spot: base.lives[spot].life_repeats if spot in base.lives else math.inf)
    kept = first[:MOST_SPOTS] if len(first) > MOST_SPOTS + 1 else first
    return [spot for spot in result.spots if spot in kept]


V = TypeVar("V", Variant, FlawVariant)


def _sorted(variants: list[V]) -> list[V]:
    """By value where all are numbers, or quantities of one unit; else as given, the base first."""
    sizes = [number_and_unit(variant.value) for variant in variants]
    if any(size is None for size in sizes) or len({unit for _, unit in sizes if unit is not None}) > 1:  # type: ignore[misc]
        return variants
    return [one for _, one in sorted(zip(sizes, variants, strict=True), key=lambda pair: pair[0][0])]  # type: ignore[index]


@opened(low=one(), high=one())
def value_that_meets_target(
    study: Study | str | Path, key: str, low: float, high: float, unit: str = "", *, spot: str
) -> float:
    """The value of a numeric `key` between `low` and `high` (in `unit`) at which the life of `spot` just meets the target.

    Solved (Brent 1973) in the logarithm of life over target; of a flaw without target life in that of its reserve on load.

    Parameters
    ----------
    study : Study or str or path
        The study, or its file.
    key : str
        Path of a key through the study file, such as "hot_spots/toe/notch_factor".
    low : float
        The lower end.
    high : float
        The upper end.
    unit : str, default ""
        Unit of `low` and `high`, as the key is written.
    spot : str
        Name of the place.

    Returns
    -------
    float
        The value, in `unit`.

    Raises
    ------
    InputError
        Without a target, and where both ends meet the target or both miss it.

    Examples
    --------
    >>> toe = "weld toe at the grip head"  # of the demo: read_study("larkfell.toml")
    >>> key = f"hot_spots/{toe}/stress_per_load"
    >>> round(value_that_meets_target(study, key, 10.0, 60.0, "MPa/kN", spot=toe), 3)
    24.037
    """
    base = read_study(study) if isinstance(study, str | Path) else study

    def excess(value: float) -> float:
        written: Any = f"{value!r} {unit}" if unit else value
        changed = changed_study(base, key, written)
        if of_flaws(base, key, spot):
            return margin_of_flaw(changed, spot)
        life = worst_node(changed).kept if spot == WORST_NODE else kept_of(lives_of_places(changed, spot)[spot])
        if life.reserve_on_life is None:
            raise InputError(f"solve for {key}", "no target", "a study with target_life", "Add it, such as '30 years'.")
        if life.reserve_on_life in (0.0, math.inf):  # a node that fails at once; no damage
            return -700.0 if life.reserve_on_life == 0.0 else 700.0
        return math.log(life.reserve_on_life)

    ends = excess(low), excess(high)
    if (ends[0] > 0.0) == (ends[1] > 0.0):
        words = "meet" if ends[0] > 0.0 else "miss"
        raise InputError(
            f"solve for {key}",
            f"{number(low)} and {number(high)} {unit}, which both {words} the target",
            "a range in which the target is just met",
            "Widen the range.",
        )
    return float(brentq(excess, low, high, xtol=1e-9 * max(abs(low), abs(high)), rtol=1e-12))


def _check_values(values: Sequence[Any], key: str) -> None:
    """InputError for no values, and for a text or a table in their place."""
    if not len(values):
        raise InputError(f"what if, {key}", "no values", "at least one")
    if isinstance(values, str) or getattr(values, "ndim", 1) != 1:
        raise InputError(f"what if, {key}", shortened(values), "a list of values", f"Such as [{shortened(values)}].")
