"""Write docs/verification.md from the reference cases that the tests run: python -m tests.write_verification"""

from __future__ import annotations

import math
from pathlib import Path
from typing import Any

from tests.all_methods import METHODS
from tests.reference_values import cases, compared, deviation

PAGE = Path(__file__).parents[1] / "docs" / "verification.md"
ROUND_OFF = 1e-9

INTRODUCTION = """# Verification

Every method against a reference that was calculated by other code, straight from the published rule. Written by
`python -m tests.write_verification` from the cases in `tests/reference/`, which the tests run with their stated
tolerances; a test fails when this page is out of date.

A row is a case. *Values* says how many numbers were compared; the reference and our value shown are those that differ
most. Below 1e-9 a deviation is that of the digits printed in the reference.

| method | case | values | reference | ours | deviation | tolerance | source |
| --- | --- | --- | --- | --- | --- | --- | --- |
"""


def page() -> str:
    """The text of the page."""
    rows = [_row(method.name, case, compared(method, case)) for method in METHODS for case in cases(method.cases)]
    return INTRODUCTION + "\n".join(rows) + "\n"


def _row(method: str, case: dict[str, Any], values: list[tuple[str, Any, Any]]) -> str:
    name, wanted, got = max(values, key=lambda row: (deviation(row[1], row[2]), _is_number(row[1])))
    worst = deviation(wanted, got)
    if worst < ROUND_OFF:  # which value differs most is then chance: show the first
        name, wanted, got = next((row for row in values if _is_number(row[1])), values[0])
    shown = f"< {ROUND_OFF:.0e}" if worst < ROUND_OFF else f"{worst:.0e}"
    tolerance = f"{case['rtol']:g}" if case["rtol"] else "-"
    cells = (method, case["id"], len(values), f"{name} {_text(wanted)}", _text(got), shown, tolerance, case["source"])
    return "| " + " | ".join(str(cell).replace("|", "/") for cell in cells) + " |"


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value)


def _text(value: Any) -> str:
    return f"{value:.7g}" if isinstance(value, float) else str(value)


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
    print(f"Written: {PAGE}")
