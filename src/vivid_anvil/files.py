"""Files are written under a temporary name and renamed, so that no half-written one is ever left."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from vivid_anvil.errors import InputError


@contextmanager
def replacing(path: str | Path) -> Iterator[Path]:
    """A temporary path of the same ending to write to; it becomes `path` when all went well, and is gone otherwise.

    Raises InputError for a place that cannot be written.
    """
    final = Path(path)
    temporary = final.with_name(f".{final.stem}.partial{final.suffix}")
    try:
        yield temporary
        temporary.replace(final)
    except OSError as error:
        raise InputError(str(final), error.strerror or "no access", "a file that can be written") from None
    finally:
        if temporary.parent.is_dir():
            temporary.unlink(missing_ok=True)
