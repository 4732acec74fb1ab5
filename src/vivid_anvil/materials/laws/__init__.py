"""Crack growth laws and their thresholds."""
