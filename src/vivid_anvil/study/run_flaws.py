"""The flaws of a study held against their limits: its list of indications, the cracks of its finite-element models."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Executor

from vivid_anvil.acceptance import FlawList, FrontAssessment, assess_front, assess_indications
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study.flaw_job import FlawJob
from vivid_anvil.study.study import Study
from vivid_anvil.units import opened

Watch = Callable[[str, int, int], None]


@opened()
def flaws_of(study: Study) -> FlawJob:
    """The flaws of a study; InputError where it has none."""
    if study.flaws is None:
        where = study.title if study.path is None else study.path.name
        raise InputError(where, "no flaws", "indications to assess", "Add a table [flaws].")
    return study.flaws


@opened()
def assess_flaws(study: Study, *, watch: Watch | None = None, executor: Executor | None = None) -> FlawList:
    """Every indication of `study` as a flaw against its curve, and over the years where its place has stages.

    Parameters
    ----------
    study : Study
        The study, with a table of flaws.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.
    executor : Executor, optional
        Of `concurrent.futures`, with processes that work on parts of a long list.

    Returns
    -------
    FlawList
        The most urgent first.

    Raises
    ------
    InputError
        For a study without flaws, and flaws that a shape does not know.

    Examples
    --------
    >>> assess_flaws(read_study("tower_base.toml"))  # in the folder of `vivid-anvil demo`
    <FlawList Larkfell chairlift, tower 7: 8 flaws, 2 not acceptable>
    """
    job = flaws_of(study)
    if not job.indications:
        return FlawList(study.title, (), job.inspected, job.target_life)
    return assess_indications(
        job.indications,
        job.places,
        job.stresses,
        name=study.title,
        inspection_factor=job.inspection_factor,
        inspected=job.inspected,
        target_life=job.target_life,
        watch=watch,
        executor=executor,
    )


@opened()
def assess_fronts(study: Study) -> tuple[FrontAssessment, ...]:
    """The cracks of finite-element models of `study` against the curves of their places; none where it has none.

    Parameters
    ----------
    study : Study
        The study.

    Returns
    -------
    tuple of FrontAssessment
        In the order of the study.

    Raises
    ------
    InputError
        For a toughness that says nothing at its place.

    Examples
    --------
    >>> assess_fronts(study)  # of the demo, without fronts: read_study("larkfell.toml")
    ()
    """
    if study.flaws is None:
        return ()
    return tuple(
        assess_front(
            job.front,
            study.flaws.places[job.place].metal,
            job.reference_stress,
            wall=study.flaws.places[job.place].part.wall,
        )
        for job in study.flaws.fronts.values()
    )
