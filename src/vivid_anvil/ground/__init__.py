"""What everything stands on: the one error, checks, files, tables of choices, compiled loops and what is handed to them."""
