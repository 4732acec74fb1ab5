"""Exit codes and messages: 0 done, 2 bad input (its message, no traceback), 1 anything else."""

from __future__ import annotations

import errno
import os
import sys
import textwrap


def folded(message: str) -> str:
    """A message in lines of 80, set in from the second on; names and values stay whole."""
    return textwrap.fill(message, 80, subsequent_indent="  ", break_long_words=False, break_on_hyphens=False)


def main() -> None:
    """Run the command; the entry point of `vivid-anvil`."""
    from vivid_anvil.cli.app import app
    from vivid_anvil.ground.errors import InputError
    from vivid_anvil.ground.files import noting_inputs

    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="replace")  # a pipe that knows no √ gets a '?', not a traceback
    try:
        with noting_inputs():
            app(prog_name="vivid-anvil")
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


def _silence() -> None:
    """Nothing more goes to a closed or full output, not even at the end of the process."""
    nothing = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nothing, sys.stdout.fileno())
