"""Write the demo study and its histories, as shipped with the package, into a folder."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import replacing

STUDY_FILE = "larkfell.toml"


def write_demo(folder: str | Path) -> Path:
    """Write the demo into `folder`, which is made if needed; returns the path of the study file.

    Raises InputError where the folder cannot be written, and where it holds a changed study, which is never overwritten.
    """
    folder = Path(folder)
    shipped = sorted((item for item in (files("vivid_anvil.demo") / "data").iterdir()), key=lambda item: item.name)
    study = folder / STUDY_FILE
    try:
        folder.mkdir(parents=True, exist_ok=True)
        for item in shipped:
            path, content = folder / item.name, item.read_bytes()
            if path.exists() and path.read_bytes() != content:
                raise InputError(
                    str(path),
                    "a file that differs from the demo's",
                    "a folder without it",
                    "It may hold your changes, so it is left as it is: name another folder.",
                )
        for item in shipped:
            with replacing(folder / item.name) as temporary:
                temporary.write_bytes(item.read_bytes())
    except OSError as error:
        raise InputError(str(folder), error.strerror or "no access", "a folder that can be written") from None
    return study
