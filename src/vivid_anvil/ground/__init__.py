"""What everything stands on: the one error, checks, files, loops compiled."""
