"""The command line: thin. Each command reads, calls and shows; heavy imports wait until a command runs."""

from vivid_anvil.cli.app import app
from vivid_anvil.cli.guard import main

__all__ = ["app", "main"]
