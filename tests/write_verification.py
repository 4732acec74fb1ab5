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

"""

SUMMARY = """## Summary

{methods} methods, {cases} cases, {values} numbers compared with printed references, and {own} more held against exact
solutions and limits. Below 1e-9 a deviation is that of the digits printed in the reference. Where it is larger the reference
is a chart, a formula that approximates, a simulation with a scatter of its own, or printed with few digits: the tolerance of
the case says what was asked. [What is not covered](limits.md) is told too.

| method | cases | numbers | largest deviation | tolerance there |
| --- | --- | --- | --- | --- |
"""

CASES = """
## Case by case

A row is a case. *Values* says how many numbers were compared; the reference and our value shown are those that differ
most.

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
    compared_by = {method.name: [(case, compared(method, case)) for case in cases(method.cases)] for method in METHODS}
    own = [_own_row(one) for one in (*REFERENCES, *FIELD_REFERENCES)]
    counts = {
        "methods": len(compared_by),
        "cases": sum(map(len, compared_by.values())),
        "values": sum(len(values) for rows in compared_by.values() for _, values in rows),
        "own": len(own),
    }
    short = [_in_short(name, rows) for name, rows in compared_by.items()]
    long = [_row(name, case, values) for name, rows in compared_by.items() for case, values in rows]
    tables = (SUMMARY.format(**counts), short, CASES, long, OWN, own, LEFT, _left_out())
    return INTRODUCTION + "".join(one if isinstance(one, str) else "\n".join(one) + "\n" for one in tables)


def _in_short(method: str, rows: list[tuple[dict[str, Any], list[tuple[str, Any, Any]]]]) -> str:
    """A method in a line: how many cases and numbers, the largest deviation, and the tolerance of its case."""
    case, off = max(
        ((case, max(deviation(wanted, got) for _, wanted, got in values)) for case, values in rows),
        key=lambda row: row[1],
    )
    shown = f"< {ROUND_OFF:.0e}" if off < ROUND_OFF else f"{off:.0e}"
    widest = max(value or 0.0 for key, value in case.items() if key.startswith("rtol"))
    tolerance = f"{widest:g}" if widest else "-"
    return f"| {method} | {len(rows)} | {sum(len(values) for _, values in rows)} | {shown} | {tolerance} |"


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
