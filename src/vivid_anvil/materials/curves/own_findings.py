"""What an S-N curve gives away by itself: stresses that look like another unit, values that are only typical."""

from __future__ import annotations

from collections.abc import Iterator

from vivid_anvil.materials.curves.given import CurveGiven
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

# Stress amplitudes, MPa, between which the points of curves of metals, polymers and rubber lie.
LOWEST, HIGHEST = 0.5, 4000.0
# How the number would read if the file had meant this unit: MPa in one unit.
_UNITS = {"Pa": 1e-6, "kPa": 1e-3, "psi": 6.894757e-3, "ksi": 6.894757, "GPa": 1e3}
_PLAUSIBLE = 8.0, 1500.0


def looks(curve: CurveGiven) -> Iterator[Finding]:
    """All findings on the curve by itself."""
    yield from _another_unit(curve)
    if curve.basis == "typical":
        yield Finding(
            "note",
            "typical-curve",
            f"The S-N curve {curve.name} holds typical values of its group, not tests of this material.",
            "Good for a first look; replace it by tests or by a standard's curve.",
        )


def _another_unit(curve: CurveGiven) -> Iterator[Finding]:
    """A finding where the points lie outside what any material bears, with the units that would make sense of them."""
    half = 0.5 if curve.stress == "range" else 1.0
    amplitudes = [half * stress for stress, _ in curve.points]
    if amplitudes[-1] >= LOWEST and amplitudes[0] <= HIGHEST:
        return
    low, high = _PLAUSIBLE
    units = [unit for unit, one in _UNITS.items() if low <= amplitudes[-1] * one and amplitudes[0] * one <= high]
    meant = f" If the numbers are in {' or '.join(units)}, say so." if units else ""
    odd = curve.points[0][0] if amplitudes[0] > HIGHEST else curve.points[-1][0]
    yield Finding(
        "severe",
        "curve-unit",
        f"The S-N curve {curve.name} has a point at a stress {curve.stress} of {number(odd)} MPa, "
        f"outside what materials bear ({number(LOWEST / half)} to {number(HIGHEST / half)} MPa).",
        f"Check the unit of its stresses.{meant}",
    )
