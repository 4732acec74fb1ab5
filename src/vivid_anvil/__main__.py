"""`python -m vivid_anvil` is the command."""

from vivid_anvil.cli import main

main()
