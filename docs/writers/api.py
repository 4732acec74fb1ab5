"""The reference of the Python interface: a page for each package and sub-package, with every name of the front door."""

from __future__ import annotations

import inspect
from importlib import import_module
from pathlib import Path

import vivid_anvil as va


def write_api(folder: Path) -> None:
    """A page that lists the packages, and one for each with what its docstrings say."""
    folder.mkdir(parents=True)
    homes: dict[str, list[str]] = {}
    for name in sorted(va._HOME_OF, key=str.lower):
        homes.setdefault(_package(getattr(va, name), va._HOME_OF[name]), []).append(name)
    known = [*va._PACKAGES, *(one.split(".")[0] for one in homes)]
    order = sorted(homes, key=lambda one: (known.index(one.split(".")[0]), one))
    for package in order:
        (folder / f"{package}.rst").write_text(_page(package, homes[package]), encoding="utf-8")
    listed = "\n".join(f"   {package}" for package in order)
    (folder / "index.rst").write_text(
        "From Python\n===========\n\n"
        "Every name of the front door, ``import vivid_anvil as va``, by the package it lives in, in the order of the work. "
        "Examples run in the folder of the demo and are tried by the tests.\n\n"
        f".. toctree::\n   :maxdepth: 1\n\n{listed}\n",
        encoding="utf-8",
    )


def _package(thing: object, home: str) -> str:
    """The package or sub-package in which a name is defined, without the first word."""
    module = getattr(thing, "__module__", home) or home
    parts = module.removeprefix("vivid_anvil.").split(".")
    is_package = hasattr(import_module(module), "__path__")
    return ".".join(parts if is_package else parts[:-1]) or parts[0]


def _page(package: str, names: list[str]) -> str:
    """What the package is, then each name."""
    says = (import_module(f"vivid_anvil.{package}").__doc__ or "").strip().partition("\n\n")[0]
    title = f"va.{package}"
    return f"{title}\n{'=' * len(title)}\n\n{says}\n\n.. currentmodule:: vivid_anvil\n\n{''.join(map(_entry, names))}"


def _entry(name: str) -> str:
    thing = getattr(va, name)
    if inspect.isclass(thing):
        return f".. autoclass:: {name}\n   :members:\n\n"
    return f".. {'autofunction' if callable(thing) else 'autodata'}:: {name}\n\n"
