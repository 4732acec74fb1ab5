"""Files: written under a temporary name and renamed, so that no half-written one is ever left; TOML read."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

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


def read_toml(path: str | Path, what: str = "a TOML file", remedy: str = "") -> dict[str, Any]:
    """The tables of the TOML file `path`; InputError, which says `what` was expected, where it cannot be read."""
    found = Path(path)
    try:
        return tomllib.loads(found.read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise InputError(str(found), "no such file", what, remedy) from None
    except UnicodeDecodeError:
        raise InputError(found.name, "bytes that are not UTF-8 text", "a TOML file in UTF-8") from None
    except OSError as error:
        raise InputError(str(found), error.strerror or "no access", f"{what} that can be read") from None
    except tomllib.TOMLDecodeError as error:
        raise InputError(
            found.name,
            f"text that is not TOML: {error}",
            "TOML",
            'Text stands in quotes: "185 MPa"; a number has a point: 1.5.',
        ) from None
