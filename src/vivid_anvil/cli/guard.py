"""Exit codes and messages: 0 done, 2 bad input (its message, no traceback), 1 anything else."""

from __future__ import annotations

import copy
import errno
import os
import sys
import textwrap
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from typer import Typer


def folded(message: str) -> str:
    """A message in lines of 80, set in from the second on; names and values stay whole."""
    return textwrap.fill(message, 80, subsequent_indent="  ", break_long_words=False, break_on_hyphens=False)


def main() -> None:
    """Run the command; the entry point of `vivid-anvil`."""
    from vivid_anvil.cli.app import app
    from vivid_anvil.cli.words import CODES
    from vivid_anvil.ground.errors import InputError
    from vivid_anvil.ground.files import noting_inputs

    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="replace")  # a pipe that knows no √ gets a '?', not a traceback
    CODES.set([])
    try:
        with noting_inputs():
            _run(asked_in_full(app, sys.argv[1:]))
    except InputError as error:
        for line in (f"vivid-anvil: {error}", *(f"also: {note}" for note in getattr(error, "__notes__", ()))):
            print(folded(line), file=sys.stderr)
        sys.exit(2)
    except SystemExit as ended:
        if ended.code != 1 or not isinstance(ended.__context__, BrokenPipeError):
            raise
        _silence()
        sys.exit(0)
    except BrokenPipeError:  # the reader of the pipe, such as head, has enough
        _silence()
        sys.exit(0)
    except OSError as error:
        if error.errno not in (errno.ENOSPC, errno.EIO):
            raise
        print(f"vivid-anvil: the output cannot be written: {error.strerror}.", file=sys.stderr)
        _silence()
        sys.exit(2)


def asked_in_full(app: Typer, arguments: Sequence[str]) -> Typer:
    """The commands, of which those that are not among the arguments have their first words only: help answers at once."""
    if any(name.endswith("_COMPLETE") for name in os.environ):
        return app
    made = copy.copy(app)
    made.registered_commands = [
        info if _name_of(info) in arguments else _in_brief(info) for info in app.registered_commands
    ]
    return made


def _name_of(info: Any) -> str:
    return str(info.name or info.callback.__name__).replace("_", "-")


def _in_brief(info: Any) -> Any:
    """A command without its options."""

    def brief() -> None:
        raise AssertionError("never called: a command that is called is among the arguments")

    brief.__doc__ = info.callback.__doc__
    made = copy.copy(info)
    made.callback, made.name = brief, _name_of(info)
    return made


def _run(app: Typer) -> None:
    """Run it, and where findings were shown say how their codes are explained."""
    from vivid_anvil.cli.words import CODES

    try:
        app(prog_name="vivid-anvil")
    except SystemExit as ended:
        if not ended.code and CODES.get():
            from vivid_anvil.cli import show

            show.say_meanings(CODES.get())
        raise


def _silence() -> None:
    """Nothing more goes to a closed or full output, not even at the end of the process."""
    nothing = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nothing, sys.stdout.fileno())
