"""Write docs/verification.md from the reference cases that the tests run: python -m tests.write_verification"""

from __future__ import annotations

import math
from pathlib import Path
from typing import Any

from tests.all_methods import METHODS
from tests.left_out import LEFT_OUT, ROWS_LEFT_OUT
from tests.own_field_references import FIELD_REFERENCES
from tests.own_references import REFERENCES, Reference
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


OWN = """
## Where no case is printed

Held against an exact solution, a limit, or the model written out, by `tests/own_references.py` and
`tests/own_field_references.py`.

| method | against | reference | ours | deviation | tolerance |
| --- | --- | --- | --- | --- | --- |
"""


LEFT = """
## What is left out

Numbers of these cases that are not compared, on purpose (`tests/left_out.py`); any other that is missing fails a test.

| method | number | why |
| --- | --- | --- |
"""


def page() -> str:
    """The text of the page."""
    rows = [_row(method.name, case, compared(method, case)) for method in METHODS for case in cases(method.cases)]
    own = [_own_row(one) for one in (*REFERENCES, *FIELD_REFERENCES)]
    return INTRODUCTION + "\n".join(rows) + "\n" + OWN + "\n".join(own) + "\n" + LEFT + "\n".join(_left_out()) + "\n"


def _left_out() -> list[str]:
    keys = [f"| {method} | `{key}` | {why} |" for method, keys in LEFT_OUT.items() for key, why in keys.items()]
    return keys + [f"| {method} | some rows of `{key}` | {why} |" for (method, key), why in ROWS_LEFT_OUT.items()]


def _own_row(one: Reference) -> str:
    wanted, got = one.values()
    off = abs(got / wanted - 1.0)
    shown = f"{off:.0e}" if off > 1e-6 else "< 1e-06"
    return f"| {one.method} | {one.against} | {wanted:.6g} | {got:.6g} | {shown} | {one.within:g} |"


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
