"""Results as small HTML tables, for notebooks."""

from __future__ import annotations

import html
from collections.abc import Mapping, Sequence
from typing import Any

ROWS_SHOWN = 12


def html_frame(caption: str, frame: Any, notes: Sequence[str] = ()) -> str:
    """A data frame as such a table: its first rows, and how many more there are."""
    rows = [{str(key): _cell(value) for key, value in row.items()} for row in frame.head(ROWS_SHOWN).to_dict("records")]
    left = len(frame) - len(rows)
    more = [f"and {left} more rows: to_frame() has all"] if left > 0 else []
    return html_table(caption, rows, [*more, *notes])


def _cell(value: Any) -> Any:
    return f"{value:.6g}" if isinstance(value, float) else value


def html_table(caption: str, rows: Sequence[Mapping[str, object]], notes: Sequence[str] = ()) -> str:
    """A table with a caption, a line for each of `rows`, and notes below.

    >>> html_table("Lives", [{"Hot spot": "toe", "Life": "27.9 years"}])[:47]
    '<table><caption><b>Lives</b></caption><tr><th>H'
    """
    heads = list(rows[0]) if rows else []
    lines = ["<tr>" + "".join(f"<th>{html.escape(head)}</th>" for head in heads) + "</tr>"]
    lines += ["<tr>" + "".join(f"<td>{html.escape(str(row[head]))}</td>" for head in heads) + "</tr>" for row in rows]
    below = "".join(f"<p>{html.escape(note)}</p>" for note in notes)
    return f"<table><caption><b>{html.escape(caption)}</b></caption>{''.join(lines)}</table>{below}"
