"""The reference of the study file, from its schema."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from vivid_anvil.study.schema import study_schema
from writers.marks import anchor, code, first_paragraph, table, text

OPENING = """# Keys of the study file

Every table and key, from the schema by which the file is checked (`vivid-anvil schema` writes it for editors that complete and
check TOML). [The guide](../guide/7-study-file.md) has them in the order of the work, with what belongs together;
`vivid-anvil template` writes a file to start from. Values with a unit are text, such as `"45 MPa"`.

"""


def write_study_file(file: Path) -> None:
    """The keys on top, then a section for each with the tables below it."""
    schema = study_schema()
    sections: dict[str, str] = schema["$defs"]
    told: set[str] = set()
    parts = [OPENING, "## On top\n\n", _keys(schema)]
    for key, one in schema["properties"].items():
        below = [name for name in _reached(one, sections) if name not in told]
        told |= set(below)
        if below:
            parts.append(f"## {key}\n\n{text(one.get('description', ''))}.\n\n")
            parts += [_section(name, sections) for name in below]
    file.write_text("".join(parts), encoding="utf-8")


def _section(name: str, sections: dict[str, Any]) -> str:
    section = sections[name]
    says = first_paragraph(section.get("description"))
    opening = f"{text(says)}\n\n" if says else ""
    return f"({_target(name)})=\n### {_title(name, section)}\n\n{opening}{_keys(section)}"


def _title(name: str, section: dict[str, Any]) -> str:
    """The kind that a table says of itself, or its leading key, or what it is called in the schema."""
    kind = section.get("properties", {}).get("kind", {}).get("const")
    words = name.removesuffix("Section")
    if "_" in words:
        noun, _, key = words.partition("_")
        return f"{_spaced(noun)} by `{key}`"
    return f'{_spaced(words)}: `kind = "{kind}"`' if kind else _spaced(words)


def _spaced(name: str) -> str:
    """A name in capitals and small letters as words."""
    words = "".join(f" {a}" if a.isupper() and b.islower() else a for a, b in zip(name, f"{name[1:]}z", strict=True))
    return words.strip()


def _keys(section: dict[str, Any]) -> str:
    required = section.get("required", ())
    rows = [
        (code(key), text(one.get("description", "")), _allowed(one), _example(one), _without(key, one, required))
        for key, one in section.get("properties", {}).items()
    ]
    return table(["key", "what it is", "may be", "example", "without it"], rows)


def _allowed(one: dict[str, Any]) -> str:
    """The tables that may stand there, and the words."""
    names = _direct(one)
    links = [f"[{_spaced(name.removesuffix('Section').replace('_', ' '))}](#{_target(name)})" for name in names]
    if len(links) > 6:
        links = [links[0], f"and {len(links) - 1} more below it"]
    return ", ".join([*links, *(code(word) for word in _words(one))])


def _words(one: dict[str, Any]) -> list[str]:
    found = [word for word in one.get("enum", ()) if isinstance(word, str)]
    return found or [word for part in one.get("anyOf", ()) for word in part.get("enum", ()) if isinstance(word, str)]


def _example(one: dict[str, Any]) -> str:
    examples = one.get("examples", ())
    return code(_toml(examples[0])) if examples and examples[0] not in ([], {}) else ""


def _toml(value: Any) -> str:
    """A value as it stands in the file."""
    if isinstance(value, bool):
        return str(value).lower()
    if isinstance(value, str):
        return f'"{value}"'
    if isinstance(value, dict):
        return "{ " + ", ".join(f"{_bare(key)} = {_toml(inner)}" for key, inner in value.items()) + " }"
    if isinstance(value, list | tuple):
        return f"[{', '.join(map(_toml, value))}]"
    return str(value)


def _bare(key: str) -> str:
    return key if key.replace("_", "").replace("-", "").isalnum() and key.isascii() else f'"{key}"'


def _without(key: str, one: dict[str, Any], required: Any) -> str:
    if key in required:
        return "must be given"
    default = one.get("default")
    return code(_toml(default)) if default not in (None, [], {}, ()) else ""


def _direct(node: Any) -> list[str]:
    """The tables that a key names, without those below them."""
    if isinstance(node, dict):
        own = [node["$ref"].rsplit("/", 1)[1]] if "$ref" in node else []
        return own + [
            name for key, inner in node.items() if key not in ("examples", "description") for name in _direct(inner)
        ]
    return [name for inner in node for name in _direct(inner)] if isinstance(node, list) else []


def _reached(node: Any, sections: dict[str, Any]) -> list[str]:
    """The tables that a key leads to, in the order in which they are met."""
    found: dict[str, None] = {}
    waiting = _direct(node)
    while waiting:
        name = waiting.pop(0)
        if name not in found:
            found[name] = None
            waiting += _direct(sections[name].get("properties", {}))
    return list(found)


def _target(name: str) -> str:
    return f"table-{anchor(name)}"
