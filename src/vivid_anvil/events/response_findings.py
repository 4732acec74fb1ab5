"""What an expert says of a response before any input: damping that nobody stated, lines too far apart for a resonance."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from vivid_anvil.spectra.responses.coarse_lines import ENOUGH, share_of_peak, share_of_rms
from vivid_anvil.spectra.responses.damping import ASSUMED
from vivid_anvil.spectra.responses.response import Resonance, Response
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding


def response_findings(name: str, response: Response) -> Iterator[Finding]:
    """Of the response to the input of that name."""
    if response.assumed_damping:
        yield Finding(
            "warning",
            "damping-assumed",
            f"The damping of the response to {name} is not stated: {ASSUMED:g} of critical is taken.",
            "Random stress goes with 1/√ζ, a sine at resonance with 1/ζ: state damping_ratio, quality_factor or loss_factor.",
        )
    corners = response.corners
    if corners.size < 3:
        return
    for own in response.resonances:
        at = min(max(int(np.searchsorted(corners, own.frequency)), 1), corners.size - 1)
        spacing = float(corners[at] - corners[at - 1])
        between = float((own.frequency - corners[at - 1]) / spacing)
        if own.half_power_width < ENOUGH * spacing:
            yield _too_few(name, own, spacing, between)


def _too_few(name: str, own: Resonance, spacing: float, between: float) -> Finding:
    many = own.half_power_width / spacing
    rms, peak = share_of_rms(many, between), share_of_peak(many, between)
    side = f"{1.0 - rms:.0%} low" if rms <= 1.0 else f"{rms - 1.0:.0%} high"
    return Finding(
        "severe" if many < 1.0 else "warning",
        "few-lines",
        f"The response to {name} has {number(many, 2)} line spacings within the half-power band of its resonance at "
        f"{number(own.frequency)} Hz, {number(own.half_power_width, 3)} Hz wide: with straight parts between lines its random "
        f"rms is about {side}, and its highest line is {1.0 - peak:.0%} below its peak.",
        f"Compute or measure {ENOUGH:g} lines or more in that band, or say between = 'rational', right between lines too.",
    )
