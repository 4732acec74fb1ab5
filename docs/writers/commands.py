"""The reference of commands, from the command itself."""

from __future__ import annotations

import inspect
from pathlib import Path
from typing import Any

import typer

from vivid_anvil.cli.app import app
from writers.marks import code, table, text

PICTURES = Path(__file__).parents[1] / "screenshots"
OPENING = """# Commands

`vivid-anvil COMMAND --help` says the same in the terminal. Commands that compute take `--json` and `--csv`, those that draw
`--figures` and `--page`; what these write stands in [reports and pages](../guide/12-reports.md). `vivid-anvil --quiet
COMMAND` says nothing but errors. The exit code is 0 when all is done, 2 for input that cannot be used, 1 for anything else.

"""


def write_commands(file: Path) -> None:
    """A section for each group, one below it for each command."""
    group: Any = typer.main.get_command(app)
    panels: dict[str, list[Any]] = {}
    for command in group.commands.values():
        panels.setdefault(command.rich_help_panel, []).append(command)
    parts = [OPENING]
    for panel, commands in panels.items():
        parts.append(f"## {panel}\n\n")
        parts += [_command(command) for command in commands]
    file.write_text("".join(parts), encoding="utf-8")


def _command(command: Any) -> str:
    """What it does, how it is called, its picture, its arguments and options."""
    arguments = [one for one in command.params if one.param_type_name == "argument"]
    options = [one for one in command.params if one.param_type_name == "option" and one.name != "help"]
    call = " ".join(["vivid-anvil", command.name, *(_names(one) for one in arguments), "[OPTIONS]"])
    says = "\n\n".join(text(one) for one in inspect.cleandoc(command.help or "").split("\n\n"))
    picture = PICTURES / f"command-{command.name}.png"
    shown = f"![vivid-anvil {command.name}](../screenshots/{picture.name})\n\n" if picture.exists() else ""
    rows = [(code(_names(one)), _said(one), _default(one)) for one in (*arguments, *options)]
    given = table(["argument or option", "what it says", "without it"], rows)
    return f"({_target(command.name)})=\n### {command.name}\n\n{says}\n\n```text\n{call}\n```\n\n{given}{shown}"


def _target(name: str) -> str:
    return f"command-{name}"


def _names(one: Any) -> str:
    if one.param_type_name == "argument":
        name = str(one.metavar or one.name).upper()
        return f"{name} ..." if one.nargs == -1 else name
    return ", ".join([*one.opts, *one.secondary_opts])


def _said(one: Any) -> str:
    return text((getattr(one, "help", "") or "").replace("\\[", "["))


def _default(one: Any) -> str:
    value = getattr(one.default, "value", one.default)
    if value in (None, False, True, ()) or callable(value):
        return "must be given" if one.required else ""
    return code(value)
