"""What a noun's docstring says of its fields: the words of keys stand where the fields do."""

from __future__ import annotations

import functools
import inspect
import re

_CHOICES = re.compile(r"(: one of|, see) `[A-Z_]+`")  # which the schema lists
_ENTRY = re.compile(r"^(\w[\w, ]*) : .*$")


@functools.cache
def said_of_fields(noun: type) -> dict[str, str]:
    """The description of each field, without its full stop, from the section Parameters of the docstring; classes above too.

    >>> from vivid_anvil.materials import Material
    >>> said_of_fields(Material)["ultimate_strength"]
    'Tensile strength, MPa'
    """
    fields: dict[str, str] = {}
    for above in reversed(noun.__mro__[:-1]):
        lines = inspect.cleandoc(above.__doc__ or "").splitlines()
        if "Parameters" not in lines:
            continue
        names: list[str] = []
        for line in lines[lines.index("Parameters") + 2 :]:
            if entry := _ENTRY.match(line):
                names = entry[1].split(", ")
                fields |= dict.fromkeys(names, "")
            elif line.startswith("    ") and names:
                fields |= {name: f"{fields[name]} {line.strip()}".strip() for name in names}
            elif line.startswith("---"):
                break
    return {name: _CHOICES.sub("", words).removesuffix(".") for name, words in fields.items() if words}
