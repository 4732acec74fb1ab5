"""Tables in HTML, for notebooks."""

from __future__ import annotations

import base64
from typing import Any

from vivid_anvil.writing.table import Column, Table

ROWS_SHOWN = 12


def html_frame(caption: str, frame: Any) -> str:
    """A data frame as such a table: its first rows, and how many more there are."""
    first = frame.head(ROWS_SHOWN)
    columns = tuple(Column(str(name), first[name].tolist(), head=str(name), digits=6, style="number") for name in first)
    left = len(frame) - len(first)
    note = f"and {left} more rows: to_frame() has all" if left > 0 else ""
    return Table(caption, columns, note=note).on_page().to_html()


def data_url(picture: bytes) -> str:
    """A picture as text that stands in a page."""
    kind = "png" if picture.startswith(b"\x89PNG") else "jpeg"
    return f"data:image/{kind};base64,{base64.b64encode(picture).decode()}"
