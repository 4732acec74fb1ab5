"""Run the model of a study: every node, and its paths."""

from __future__ import annotations

import dataclasses
import os
from concurrent.futures import Executor, ThreadPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.damage import LifeResult
from vivid_anvil.fields import ModelAnswer, ModelResult, assess_model, assess_planes, model_answer, node_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.laminates import SectionFields
from vivid_anvil.stress.rubber import StrainFields
from vivid_anvil.study.kept_life import WorstNode, kept_worst
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.study import Study, Watch
from vivid_anvil.units import one, opened
from vivid_anvil.writing.finding import Finding


@opened()
def run_model(
    study: Study, *, executor: Executor | None = None, keep_in: str | Path | None = None, watch: Watch | None = None
) -> ModelResult:
    """The life at every node of the model of `study`.

    With `keep_in`, a folder, an interrupted run goes on from its last finished chunk.

    Parameters
    ----------
    study : Study
        The study, or its file.
    executor : Executor, optional
        Any of `concurrent.futures`, or of a cluster; None: threads of this process.
    keep_in : str or path, optional
        A folder; an interrupted run goes on from its last finished chunk there.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    ModelResult
        Damage, life and findings at every node.

    Raises
    ------
    InputError
        For a study without a model.

    Examples
    --------
    >>> run_model(read_study("hanger_head.toml"))  # in the folder of `vivid-anvil demo`
    <ModelResult 7522 nodes: 17.78 years at node 2613>
    """
    job = _job(study)
    settings: dict[str, Any] = {
        "regions": job.regions,
        "leave_out": job.leave_out,
        "target": study.target_life,
        "executor": executor,
        "keep_in": keep_in,
        "watch": watch,
    }
    if job.planes is not None and not isinstance(job.loads, StrainFields | SectionFields):
        return assess_planes(job.planes, job.field, job.loads, study.duty, job.spot, **settings)
    return assess_model(job.field, job.loads, study.duty, job.spot, measure=job.measure, **settings)


@opened()
def answer_model(
    study: Study,
    *,
    executor: Executor | None = None,
    keep_in: str | Path | None = None,
    watch: Watch | None = None,
    **settings: Any,
) -> ModelAnswer:
    """The worst places of the model of `study`, and its paths; `settings` go to `model_answer`."""
    job = _job(study)
    result = run_model(study, executor=executor, keep_in=keep_in, watch=watch)
    if watch is not None:
        watch("worst places", 0, 1)
    takes = job.spot.assessed_by
    measure = job.planes or (takes.variant if takes.takes != "stresses" else result.measure.label)
    return model_answer(result, study.title, measure=measure, apart=job.apart, paths=run_paths(study), **settings)


@opened(load_scale=one(above=0.0))
def worst_node_life(study: Study, load_scale: float = 1.0, *, watch: Watch | None = None) -> LifeResult:
    """The life at the node of the model of `study` with the largest damage, all loads times `load_scale`.

    What is there all the time is no load. The result is that of a hot spot at the node, and says its number.
    Raises InputError for a study without model, and where the node fails at once, as a hot spot does.
    """
    result = _counted(study, load_scale, watch)
    return node_life(result, int(result.field.node_ids[result.worst]))


@opened(load_scale=one(above=0.0))
def worst_node(study: Study, load_scale: float = 1.0, *, watch: Watch | None = None) -> WorstNode:
    """The same where only numbers are asked for; other than a hot spot, a node may fail at once."""
    result = _counted(study, load_scale, watch)
    kept, number = kept_worst(result), int(result.field.node_ids[result.worst])
    if kept.life_repeats > 0.0:
        return WorstNode(kept, node_life(result, number).findings)
    failed = Finding(
        "severe",
        "node-fails",
        f"Node {number} of the model fails at once: its mean stress reaches the strength of the mean-stress rule.",
        "Is it a support, or a place where a load is put on? Then leave it out (leave_out).",
    )
    return WorstNode(kept, (failed,))


def _counted(study: Study, load_scale: float, watch: Watch | None) -> ModelResult:
    job = _job(study)
    if load_scale != 1.0:
        study = dataclasses.replace(study, model=_scaled(job, load_scale))
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        return run_model(study, executor=pool, watch=watch)


def _scaled(job: ModelJob, scale: float) -> ModelJob:
    """The model with the stresses of the cases that change times a factor, or its states of strain under loads times it."""
    if isinstance(job.loads, StrainFields):
        states = dataclasses.replace(job.loads.states, load_factor=scale * job.loads.states.load_factor)
        return dataclasses.replace(job, loads=dataclasses.replace(job.loads, states=states))
    factors = np.array([1.0 if name in job.loads.constant else scale for name in job.field.cases])[:, None, None]
    rows = job.field.rows
    if rows is not None:
        rows = dataclasses.replace(rows, stresses=rows.stresses * factors)
    return dataclasses.replace(
        job, field=dataclasses.replace(job.field, stresses=job.field.stresses * factors, rows=rows)
    )


@opened()
def run_paths(study: Study) -> ModelResult | None:
    """The life at the paths of the model, from their structural stress; None where it has none."""
    job = _job(study)
    if job.structural is None:
        return None
    return assess_model(
        job.structural,
        job.loads,
        study.duty,
        job.spot,
        measure=job.measure,
        regions=job.path_spots,
        target=study.target_life,
    )


def _job(study: Study) -> ModelJob:
    if study.model is None:
        raise InputError(study.title, "no model", "a table [model] in the study", "Name its stresses there.")
    return study.model
