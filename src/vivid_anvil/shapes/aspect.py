"""The aspect of cracks with two sizes, and how tension and bending add to one factor."""

from __future__ import annotations

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.solutions.ellipses import EllipseFactors

MOST_ASPECT = 2.0


def mixed(factors: EllipseFactors, bending_share: float) -> float:
    """Y where a share of the stress is bending."""
    return (1.0 - bending_share) * factors.tension + bending_share * factors.bending


def checked_aspect(kind: str, a: float, c: float) -> None:
    """InputError for an aspect that solutions for ellipses do not know."""
    if not 0.0 < a / c <= MOST_ASPECT * (1.0 + 1e-9):
        raise InputError(
            inside(f"{kind} crack", "aspect"),
            f"a/c = {a / c:.4g}",
            "a/c above 0 and up to 2",
            "Start from a longer crack.",
        )
