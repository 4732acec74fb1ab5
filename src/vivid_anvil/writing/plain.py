"""Results as plain numbers and text, so that JSON and CSV files say the same as the tables."""

from __future__ import annotations

import datetime
import math
from collections.abc import Iterable
from typing import Any

import numpy as np

from vivid_anvil.units import shown
from vivid_anvil.writing.finding import Finding


def plain(value: Any) -> Any:
    """`value` with arrays as lists, NumPy numbers as Python's, dates and inf as text, nan as None: JSON has none of them.

    >>> plain({"life": np.inf, "sizes_mm": np.array([1.0, 2.0])})
    {'life': 'inf', 'sizes_mm': [1.0, 2.0]}
    """
    if isinstance(value, dict):
        return {key: plain(item) for key, item in value.items()}
    if isinstance(value, list | tuple):
        return [plain(item) for item in value]
    if isinstance(value, np.ndarray | np.generic):
        return plain(value.tolist())
    if isinstance(value, datetime.date):
        return value.isoformat()
    if isinstance(value, float) and not math.isfinite(value):
        return None if math.isnan(value) else "inf" if value > 0 else "-inf"
    return value


def in_root_metres(stress_intensity: float) -> float:
    """A stress intensity of MPa√mm in MPa√m, as tables and figures tell it.

    >>> round(in_root_metres(1000.0), 6)
    31.622777
    """
    return float(shown(stress_intensity, "stress intensity", "metric"))


def finding_records(findings: Iterable[Finding]) -> list[dict[str, str]]:
    """Findings as records of severity, code, sentence and advice."""
    return [
        {"severity": finding.severity, "code": finding.code, "sentence": finding.sentence, "advice": finding.advice}
        for finding in findings
    ]
