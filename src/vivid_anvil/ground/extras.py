"""Packages that not every installation has: what each is for, and the line that installs it.

The base installation counts, assesses, grows and reads text; what draws, and what reads other kinds of files, comes by extras.
"""

from __future__ import annotations

from importlib import import_module
from typing import Any

from vivid_anvil.ground.errors import InputError

EXTRAS = {
    "figures": ("matplotlib",),
    "files": ("pyarrow", "openpyxl", "h5py"),
    "models": ("meshio",),
    "reports": ("matplotlib", "jinja2", "docx", "reportlab"),
    "pages": ("plotly", "jinja2", "matplotlib"),
    "mdf": ("asammdf",),
    "cluster": ("distributed",),
}


def needed(package: str, what: str, extra: str = "") -> Any:
    """A package that an extra brings; InputError at `what`, with the line that installs it, where it is not there.

    `extra` is the one that is told, by default the first that brings the package.

    >>> needed("matplotlib", "a figure").__name__
    'matplotlib'
    """
    try:
        return import_module(package)
    except ModuleNotFoundError as error:
        if error.name != package:
            raise
    extra = extra or next(name for name, packages in EXTRAS.items() if package in packages)
    line = f"pip install 'vivid-anvil[{extra}]', or 'vivid-anvil[all]' for everything."
    raise InputError(what, f"no package {package!r}", f"the extra {extra!r}", f"Install it: {line}")


def there(package: str) -> bool:
    """Whether a package can be imported."""
    try:
        import_module(package)
    except ModuleNotFoundError:
        return False
    return True
