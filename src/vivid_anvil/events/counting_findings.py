"""What an expert says of a duty cycle that is not counted by rainflow."""

from __future__ import annotations

from collections.abc import Iterator

from vivid_anvil.counting.methods import COUNTING_METHODS
from vivid_anvil.events.duty_cycle import DutyCycle
from vivid_anvil.writing.finding import Finding


def counting_findings(duty_cycle: DutyCycle) -> Iterator[Finding]:
    """One where histories are counted in another way."""
    misses = COUNTING_METHODS[duty_cycle.counting].misses
    if misses:
        yield Finding(
            "warning",
            "not-rainflow",
            f"Histories are counted by {duty_cycle.counting}, not by rainflow: {misses}.",
            'For a life take counting = "rainflow"; other counts serve comparison with older spectra.',
        )
