"""The job written down: the study file, read, checked and run."""

from vivid_anvil.study.explain import explain
from vivid_anvil.study.read_study import read_study
from vivid_anvil.study.study import Study, StudyResult, assess_lives, grow_cracks, run_study

__all__ = ["Study", "StudyResult", "assess_lives", "explain", "grow_cracks", "read_study", "run_study"]
