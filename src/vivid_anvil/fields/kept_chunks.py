"""Finished chunks of a long run, kept in a folder, so that an interrupted run goes on from there."""

from __future__ import annotations

import dataclasses
import hashlib
import zipfile
from collections.abc import Mapping
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import replacing


class KeptChunks:
    """Chunks in a folder, one file each, under a key of everything that the result depends on; others are left alone."""

    def __init__(self, folder: Path, depends_on: Any) -> None:
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise InputError(str(folder), error.strerror or "no access", "a folder for finished work") from None
        self.folder = folder
        digest = hashlib.sha256()
        _add(digest, depends_on)
        self.key = digest.hexdigest()[:16]

    def read(self, number: int) -> dict[str, Any] | None:
        """The arrays of the chunk of that number; None where it is not there or was cut off."""
        path = self._path(number)
        if not path.is_file():
            return None
        try:
            with path.open("rb") as whole, np.load(whole) as file:
                return {name: file[name] for name in file.files}
        except (ValueError, OSError, EOFError, KeyError, zipfile.BadZipFile):
            return None

    def write(self, number: int, arrays: dict[str, Any]) -> None:
        """Keep a finished chunk: written beside and moved into place, so that no half file is ever read."""
        with replacing(self._path(number)) as beside, beside.open("wb") as file:
            np.savez(file, **arrays)

    def _path(self, number: int) -> Path:
        return self.folder / f"{self.key}-{number:09d}.npz"


def _add(found: Any, thing: Any) -> None:
    """What a thing was made of goes into the key, and nothing that it has computed and kept since."""
    found.update(type(thing).__name__.encode() + b":")
    if isinstance(thing, np.ndarray):
        found.update(f"{thing.shape}{thing.dtype}".encode())
        found.update(np.ascontiguousarray(thing).tobytes())
    elif dataclasses.is_dataclass(thing) and not isinstance(thing, type):
        for one in dataclasses.fields(thing):
            if one.init:
                found.update(one.name.encode())
                _add(found, getattr(thing, one.name))
    elif isinstance(thing, Mapping):
        for key, value in thing.items():
            _add(found, key)
            _add(found, value)
    elif isinstance(thing, list | tuple):
        found.update(str(len(thing)).encode())
        for one in thing:
            _add(found, one)
    else:
        found.update(repr(thing).encode() + b";")
