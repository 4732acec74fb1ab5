"""All that there is to know of one flaw of a study: assessment, what moves it, limiting sizes, growth, what may be left."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable

from vivid_anvil.acceptance import (
    FlawAssessment,
    FlawGrowth,
    ListedFlaw,
    allowable_flaws,
    grow_flaw,
    leak_before_break,
    limiting_sizes,
    sensitivity,
    tearing,
)
from vivid_anvil.materials.fracture import ResistanceCurve
from vivid_anvil.study.flaw_job import AskedOfPlace, FlawJob
from vivid_anvil.study.run_flaws import flaws_of
from vivid_anvil.study.study import Study
from vivid_anvil.units import opened
from vivid_anvil.writing.result import Result

Watch = Callable[[str, int, int], None]


@opened()
def growth_of_flaw(study: Study, flaw: ListedFlaw) -> FlawGrowth | None:
    """The growth of a flaw of a study at the fine pace; None where its place has no stages.

    Parameters
    ----------
    study : Study
        The study, with a table of flaws.
    flaw : ListedFlaw
        One of its list.

    Returns
    -------
    FlawGrowth or None
        Over the years.

    Raises
    ------
    InputError
        For a study without flaws.

    Examples
    --------
    >>> tower = read_study("tower_base.toml")  # in the folder of `vivid-anvil demo`
    >>> growth_of_flaw(tower, assess_flaws(tower).flaw("H2"))
    <FlawGrowth H2: 1.002 years, assessment curve>
    """
    job = flaws_of(study)
    stages = job.places[flaw.place].stages
    return grow_flaw(flaw.assessment, stages, inspection_factor=job.inspection_factor) if stages else None


@opened()
def flaw_in_full(study: Study, flaw: ListedFlaw, *, watch: Watch | None = None) -> tuple[Result, ...]:
    """Assessment, sensitivity, limiting sizes, leaks where asked, growth, and for a target life the flaws that may be left.

    Parameters
    ----------
    study : Study
        The study, with a table of flaws.
    flaw : ListedFlaw
        One of its list.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    tuple of Result
        In the order in which they are read; growth and what may be left only where there are stages.

    Raises
    ------
    InputError
        For a study without flaws.

    Examples
    --------
    >>> tower = read_study("tower_base.toml")  # in the folder of `vivid-anvil demo`
    >>> [one.title for one in flaw_in_full(tower, assess_flaws(tower).flaw("H2"))][:3]
    ['Flaw H2', 'What moves flaw H2 most', 'Limiting sizes, surface']
    """
    job, found = flaws_of(study), flaw.assessment
    asked, stages = job.asked.get(flaw.place, AskedOfPlace()), job.places[flaw.place].stages
    results: list[Result] = [found, sensitivity(found), limiting_sizes(_cases(job, flaw, asked))]
    if isinstance(found.metal.toughness, ResistanceCurve):
        results.append(tearing(found))
    if asked.leak_area is not None and _goes_through(found):
        results.append(leak_before_break(found, asked.leak_area, stages))
    grown = growth_of_flaw(study, flaw)
    if grown is None:
        return tuple(results)
    results.append(grown)
    if job.target_life is not None and len(found.flaw.sizes) == 2:
        results.append(allowable_flaws(found, stages, job.target_life, watch=watch))
    return tuple(results)


def _goes_through(found: FlawAssessment) -> bool:
    """Whether a solution goes on when it has broken through."""
    return found.flaw.shape.becomes(*found.flaw.sizes) is not None


def _cases(job: FlawJob, flaw: ListedFlaw, asked: AskedOfPlace) -> dict[str, FlawAssessment]:
    """The flaw as it is, at other temperatures and under other stresses, by their names."""
    own = flaw.assessment
    cases = {flaw.stress or "load": own}
    for name in asked.limits_under:
        cases[name] = dataclasses.replace(own, loads=job.stresses[name])
    for degrees in asked.limits_at:
        cases[f"{degrees:g} °C"] = dataclasses.replace(own, metal=own.metal.at_temperature(degrees))
    return cases
