"""Run what a study holds: lives, cracks, the worst node of its model, flaws."""

from __future__ import annotations

import os
from concurrent.futures import ThreadPoolExecutor

from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.growth import GrowthResult, grow_crack, with_tests
from vivid_anvil.study.model_run import answer_model, worst_node_life
from vivid_anvil.study.run_flaws import assess_flaws, assess_fronts
from vivid_anvil.study.study import WORST_NODE, Study, Watch
from vivid_anvil.study.study_result import StudyResult
from vivid_anvil.units import opened


@opened()
def run_study(study: Study, *, watch: Watch | None = None) -> StudyResult:
    """Assess every hot spot, grow every crack, assess the model and the flaws of `study`.

    `watch(label, done, of)` is told how far it is.

    Parameters
    ----------
    study : Study
        The study, or its file.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    StudyResult
        Lives, growths, the model and flaws, with all findings.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> run_study(study)  # of the demo: read_study("larkfell.toml")
    <StudyResult Larkfell chairlift, hanger arm
      <LifeResult weld toe at the grip head: life 334.4 months = 27.86 years, fails the target, 3 findings>
      <LifeResult bore of the suspension pin: life 1507 months = 125.6 years, meets the target, 3 findings>
      <LifeResult bend of the tube: no damage, no damage, 1 finding>
      <GrowthResult weld toe at the grip head: 1 to 9.088 mm in 99 months = 8.25 years, net-section yield>>
    """
    lives, growths = assess_lives(study, watch=watch), grow_cracks(study, watch=watch)
    flaws = None if study.flaws is None else assess_flaws(study, watch=watch)
    fronts = assess_fronts(study)
    if study.model is None:
        return StudyResult(study, lives, growths, flaws=flaws, fronts=fronts)
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        return StudyResult(study, lives, growths, answer_model(study, executor=pool, watch=watch), flaws, fronts)


@opened()
def assess_lives(study: Study, *, watch: Watch | None = None) -> tuple[LifeResult, ...]:
    """The life of each hot spot of `study` that has an S-N curve."""
    lives = []
    for i, spot in enumerate(study.assessed):
        _tell(watch, f"life of {spot.name}", i, len(study.assessed))
        lives.append(assess_life(spot, study.duty, target=study.target_life))
    _tell(watch, "lives", len(lives), len(lives))
    return tuple(lives)


@opened()
def grow_cracks(study: Study, *, watch: Watch | None = None) -> tuple[GrowthResult, ...]:
    """The growth of each crack of `study`."""
    growths = []
    for i, crack in enumerate(study.cracks):
        _tell(watch, f"crack at {crack.hot_spot.name}", i, len(study.cracks))
        grown = grow_crack(crack, study.duty, target=study.target_life)
        growths.append(with_tests(grown, study.growth_tests.get(crack.law.name)))
    _tell(watch, "cracks", len(growths), len(growths))
    return tuple(growths)


def _tell(watch: Watch | None, label: str, done: int, of: int) -> None:
    if watch is not None:
        watch(label, done, of)


@opened()
def place_names(study: Study) -> list[str]:
    """Where `study` has a life by damage: its hot spots with an S-N curve, and the worst node of its model."""
    return [spot.name for spot in study.assessed] + ([] if study.model is None else [WORST_NODE])


@opened()
def lives_of_places(study: Study, name: str | None = None, *, watch: Watch | None = None) -> dict[str, LifeResult]:
    """The life of every place of `study`, or of that one, by name; InputError for a name that no place has."""
    known = place_names(study)
    if name is not None and name not in known:
        raise InputError("hot spot", repr(name), f"one of {listed(known)}", did_you_mean(name, known))
    places = {}
    for i, one in enumerate(spot for spot in study.assessed if name in (None, spot.name)):
        _tell(watch, f"life of {one.name}", i, len(study.assessed))
        places[one.name] = assess_life(one, study.duty, target=study.target_life)
    if study.model is not None and name in (None, WORST_NODE):
        places[WORST_NODE] = worst_node_life(study, watch=watch)
    return places
