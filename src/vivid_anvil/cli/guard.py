"""Exit codes and messages: 0 done, 2 bad input (its message, no traceback), 1 anything else."""

from __future__ import annotations

import sys


def main() -> None:
    """Run the command; the entry point of `vivid-anvil`."""
    from vivid_anvil.cli.app import app
    from vivid_anvil.errors import InputError

    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="replace")  # a pipe that knows no √ gets a '?', not a traceback
    try:
        app()
    except InputError as error:
        print(f"vivid-anvil: {error}", file=sys.stderr)
        for note in getattr(error, "__notes__", ()):
            print(f"  also: {note}", file=sys.stderr)
        sys.exit(2)
    except BrokenPipeError:  # the reader of the pipe, such as head, has enough
        sys.stderr.close()
        sys.exit(0)
