"""Files: read only if they are files, noted as inputs; written under a private name and renamed, so that none is half there."""

from __future__ import annotations

import contextlib
import inspect
import os
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import wraps
from pathlib import Path
from typing import Any, TypeVar, cast

from vivid_anvil.ground.errors import InputError, in_file, shortened

MOST_QUOTED = 120  # characters of what another reader says
_NOTED: ContextVar[dict[Path, None] | None] = ContextVar("noted", default=None)
_OUTPUTS: ContextVar[frozenset[Path]] = ContextVar("outputs", default=frozenset())
Function = TypeVar("Function", bound=Callable[..., Any])


@contextmanager
def noting_inputs() -> Iterator[dict[Path, None]]:
    """The files that are read inside, by their real paths, in the order of their first reading."""
    inputs: dict[Path, None] = {}
    noted, outputs = _NOTED.set(inputs), _OUTPUTS.set(frozenset())
    try:
        yield inputs
    finally:
        _NOTED.reset(noted)
        _OUTPUTS.reset(outputs)


def inputs_so_far() -> tuple[Path, ...]:
    """The inputs noted so far, by their real paths."""
    return tuple(_NOTED.get() or ())


def fingerprint(path: Path) -> dict[str, Any]:
    """Name, size and hash of a file, so that another can tell whether it is the same."""
    import hashlib

    with path.open("rb") as file:
        digest = hashlib.file_digest(file, "sha256")
        size = file.tell()
    return {"name": path.name, "bytes": size, "sha256": digest.hexdigest()}


def to_be_written(paths: Iterable[Path]) -> None:
    """From now on none of these may be read as an input: it would be lost. Holds until the end of `noting_inputs`."""
    _OUTPUTS.set(_OUTPUTS.get() | {path.resolve() for path in paths})
    for path in inputs_so_far():
        _refuse_output(path)


def _refuse_output(path: Path) -> None:
    if path.resolve() in _OUTPUTS.get():
        raise InputError(
            str(path), "an input that is an output too", "another name for the output", "It would be lost."
        )


def existing(
    path: str | Path, what: str = "a history file", remedy: str = "Check the folder and the spelling."
) -> Path:
    """The path, noted as an input; InputError where there is no such file, and for a folder, a pipe or a device."""
    refuse_no_path(path, what)
    try:
        found = Path(path)
        is_file, is_there = found.is_file(), found.exists()
    except (ValueError, OSError) as error:
        raise InputError(_quoted(path), f"no name of a file ({error})", what) from None
    if not is_file:
        instead = "a folder" if found.is_dir() else "a pipe or a device" if is_there else "no such file"
        raise InputError(str(found), instead, what, remedy)
    _refuse_output(found)
    noted = _NOTED.get()
    if noted is not None:
        noted[found.resolve()] = None
    return found


def refuse_no_path(path: object, what: str) -> None:
    """InputError where something else is given than a text or a path."""
    if not isinstance(path, str | os.PathLike):
        raise InputError("path", shortened(path), what, "Give the path of a file.")


def _quoted(path: object) -> str:
    text = repr(str(path))
    return text if len(text) < MOST_QUOTED else f"{text[:MOST_QUOTED]}..."


def read_by_others(what: str) -> Callable[[Function], Function]:
    """For readers that rest on another package: what that one raises on a damaged file is an InputError with its first line."""

    def wrapped(function: Function) -> Function:
        form = inspect.signature(function)

        @wraps(function)
        def read(path: str | Path, *given: Any, **named: Any) -> Any:
            refuse_no_path(path, what)
            form.bind(path, *given, **named)  # a missing argument is no fault of the file
            try:
                with in_file(Path(path).name if isinstance(path, str | Path) else ""):
                    return function(path, *given, **named)
            except (InputError, KeyboardInterrupt):
                raise
            except MemoryError:
                raise InputError(
                    Path(path).name, "more data than the memory holds", what, "Read it in parts."
                ) from None
            except Exception as error:  # readers of formats raise errors of every kind
                raise InputError(Path(path).name, f"a file that cannot be read ({first_line(error)})", what) from error

        return cast(Function, read)

    return wrapped


def first_line(error: BaseException) -> str:
    """What another package said, in one short line."""
    text = " ".join(str(error).split()) or type(error).__name__
    return text if len(text) <= MOST_QUOTED else f"{text[:MOST_QUOTED]}..."


def fits_memory(size: float, where: str) -> None:
    """InputError where a file declares more data, in bytes, than there is memory for."""
    free = os.sysconf("SC_AVPHYS_PAGES") * os.sysconf("SC_PAGE_SIZE") if hasattr(os, "sysconf") else float("inf")
    if not size <= 0.9 * free:
        raise InputError(
            where,
            f"{size / 1e9:.3g} GB of data declared",
            f"less than the free memory, {free / 1e9:.3g} GB",
            "Is the file damaged? Else count it in chunks.",
        )


@contextmanager
def replacing(path: str | Path) -> Iterator[Path]:
    """A temporary path of the same ending to write to; it becomes `path` when all went well, and is gone otherwise.

    Raises InputError for a place that cannot be written.
    """
    with all_or_none() as stage:
        yield stage(path)


@contextmanager
def all_or_none() -> Iterator[Callable[[str | Path], Path]]:
    """Several files as `replacing` writes one: the function gives a temporary path for each; all get their names at the end.

    Temporary names are random and private to this process; links are replaced, not followed.
    """
    import tempfile

    staged: list[tuple[Path, Path]] = []
    at: str | Path = ""

    def stage(path: str | Path) -> Path:
        nonlocal at
        at = path
        final = Path(path)
        handle, name = tempfile.mkstemp(suffix=final.suffix, prefix=f".{final.stem[:40]}-", dir=final.parent)
        os.close(handle)
        staged.append((Path(name), final))
        return Path(name)

    try:
        yield stage
        for temporary, final in staged:
            at = final
            if final.is_dir():
                raise InputError(str(final), "a folder", "the name of a file to write")
            temporary.chmod(0o666 & ~_umask())
            temporary.replace(final)
    except (OSError, ValueError) as error:
        if isinstance(error, InputError):
            raise
        if isinstance(error, OSError) and error.errno is not None:
            raise InputError(_quoted(at), error.strerror or "no access", "a file that can be written") from None
        raise
    finally:
        for temporary, _ in staged:
            with contextlib.suppress(OSError):
                temporary.unlink(missing_ok=True)


def _umask() -> int:
    found = os.umask(0o022)
    os.umask(found)
    return found


def read_toml(path: str | Path, what: str = "a TOML file", remedy: str = "") -> dict[str, Any]:
    """The tables of the TOML file `path`; InputError, which says `what` was expected, where it cannot be read."""
    import tomllib

    file = existing(path, what, remedy)
    try:
        return tomllib.loads(file.read_text(encoding="utf-8"))
    except UnicodeDecodeError:
        raise InputError(file.name, "bytes that are not UTF-8 text", "a TOML file in UTF-8") from None
    except OSError as error:
        raise InputError(str(file), error.strerror or "no access", f"{what} that can be read") from None
    except tomllib.TOMLDecodeError as error:
        raise InputError(
            file.name,
            f"text that is not TOML: {first_line(error)}",
            "TOML",
            'Text stands in quotes: "185 MPa"; a number has a point: 1.5.',
        ) from None
    except RecursionError:
        raise InputError(file.name, "tables within tables too deep to read", "TOML") from None
    except ValueError as error:  # a number of thousands of digits
        raise InputError(file.name, f"a value that cannot be read ({first_line(error)})", "TOML") from None
