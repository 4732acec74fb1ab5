"""Words put into pages: marks that the page's language would read are text."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence


def text(words: str) -> str:
    """Words as they are, in one line; code between backticks stays code."""
    parts = " ".join(words.split()).split("`")
    return "`".join(part if i % 2 else re.sub(r"([\\*_\[\]<>|$#])", r"\\\1", part) for i, part in enumerate(parts))


def code(words: object) -> str:
    """Words as code in a cell of a table; nothing for nothing."""
    said = " ".join(str(words).split()).replace("|", "\\|")
    return f"`` {said} ``" if "`" in said else f"`{said}`" if said else ""


def table(heads: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    """A table of cells that are marked already; columns without a word are left out."""
    rows = [list(row) for row in rows]
    kept = [i for i in range(len(heads)) if any(row[i] for row in rows)]
    lines = [[heads[i] for i in kept], ["---"] * len(kept), *([row[i] for i in kept] for row in rows)]
    return "\n".join("| " + " | ".join(line) + " |" for line in lines) + "\n\n"


def anchor(name: str) -> str:
    """A name as the target of a link."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")


def first_paragraph(docstring: str | None) -> str:
    """What a docstring says before its first empty line."""
    return " ".join((docstring or "").strip().partition("\n\n")[0].split())
