"""Findings: what an expert looking over your shoulder would say about a result."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import field_of

Severity = Literal["note", "warning", "severe"]
SEVERITIES: tuple[Severity, ...] = ("note", "warning", "severe")


@dataclass(frozen=True, slots=True)
class Finding:
    """One remark: how grave, a code for programs, the sentence with its number, what to do.

    "note" explains, "warning" may change a decision, "severe" says that the number should not be used as it is.

    Parameters
    ----------
    severity : Severity
        How bad it is: "severe", "warning" or "note".
    code : str
        A short word for it, for programs.
    sentence : str
        What was seen.
    advice : str
        What to do.

    Examples
    --------
    >>> print(Finding("warning", "few-samples", "About 6 samples per cycle.", "Measure at a higher rate."))
    warning [few-samples] About 6 samples per cycle. Measure at a higher rate.
    """

    severity: Severity
    code: str
    sentence: str
    advice: str

    def __post_init__(self) -> None:
        checks.one_of(field_of("Finding", "severity"), self.severity, SEVERITIES)

    def __str__(self) -> str:
        return f"{self.severity} [{self.code}] {self.sentence} {self.advice}"


def gravest_first(findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """The findings without repetition, the gravest first, otherwise in their order."""
    return tuple(sorted(dict.fromkeys(findings), key=lambda finding: -SEVERITIES.index(finding.severity)))
