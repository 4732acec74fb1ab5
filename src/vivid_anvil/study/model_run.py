"""Run the model of a study: every node, and its paths."""

from __future__ import annotations

from concurrent.futures import Executor
from pathlib import Path
from typing import Any

from vivid_anvil.errors import InputError
from vivid_anvil.fields import ModelResult, assess_model, assess_planes
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.study import Study, Watch
from vivid_anvil.units import opened


@opened()
def run_model(
    study: Study, *, executor: Executor | None = None, keep_in: str | Path | None = None, watch: Watch | None = None
) -> ModelResult:
    """The life at every node of the model of `study`; InputError where it has none.

    With `keep_in`, a folder, an interrupted run goes on from its last finished chunk.
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
    if job.planes is not None:
        return assess_planes(job.planes, job.field, job.loads, study.duty_cycle, job.spot, **settings)
    return assess_model(job.field, job.loads, study.duty_cycle, job.spot, measure=job.measure, **settings)


@opened()
def run_paths(study: Study) -> ModelResult | None:
    """The life at the paths of the model, from their structural stress; None where it has none."""
    job = _job(study)
    if job.structural is None:
        return None
    return assess_model(
        job.structural,
        job.loads,
        study.duty_cycle,
        job.spot,
        measure=job.measure,
        regions=job.path_spots,
        target=study.target_life,
    )


def _job(study: Study) -> ModelJob:
    if study.model is None:
        raise InputError(study.title, "no model", "a table [model] in the study", "Name its stresses there.")
    return study.model
