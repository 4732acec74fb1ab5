"""What an expert says of stress over frequency: a band that was cut, a dwell beside its resonance, steps that miss one."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.spectra.responses.response import Response
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.events.random_stress import RandomStress
    from vivid_anvil.events.sine_stress import SineStress

LAST_PART = 2.0 ** (-1.0 / 3.0)  # from here to the end of a band: its last third of an octave
GROWS = {2.0: 0.15, 4.0: 0.5}  # share of the moment that this part may hold
BESIDE = 0.15  # of the frequency, within which a dwell is meant for the peak
HIGHER = 1.05  # from which a peak beside a dwell is told
TURNS = 0.1  # lesser over greater axis of the path of a turning tensor
MISSED = 0.9  # of the peak, which the highest step has to reach


def cut_band(event: str, stress: RandomStress) -> Iterator[Finding]:
    """A PSD that ends where the moments still grow."""
    process: Any = stress.process
    if not hasattr(process, "band") or process.irregularity > 0.95:
        return
    low, high = process.band
    for order, most in GROWS.items():
        share = process.part(max(low, LAST_PART * high), high, order) / process.moment(order)
        if share > most:
            what = "upcrossings" if order == 2.0 else "peaks"
            yield Finding(
                "warning" if order == 2.0 else "note",
                "band-cut",
                f"The stress PSD of {event} ends at {number(high)} Hz while its moments still grow: the last third of an octave "
                f"holds {share:.0%} of m{order:g}, on which the rate of {what} rests.",
                "The rate depends on where the band was cut: carry it on to where nothing is left, or say why it ends there.",
            )
            return


def no_sign(event: str, stress: RandomStress) -> Iterator[Finding]:
    """A von Mises stress of random components."""
    forms = getattr(stress.process, "forms", None)
    if forms is not None and len(forms) > 1:
        yield Finding(
            "note",
            "von-mises-process",
            f"For the von Mises stress of {event} stands a Gaussian process of the same mean square, "
            f"{number(stress.process.rms)} MPa rms: random components have no common sign.",
            "Largest values of the stress itself are lower: compare with a component, or with the normal stress on planes.",
        )


def beside_the_peak(event: str, stress: SineStress) -> Iterator[Finding]:
    """Dwells near a peak that they do not meet, and steps that leave a resonance out."""
    response = stress.response
    if response is None or not response.resonances:
        return
    dwells = np.asarray(stress.rows.frequency)
    if dwells.size > 2:
        yield from _steps(event, dwells, response)
        return
    peaks = np.array([one.peak_frequency for one in response.resonances])
    sizes = _sizes(response, peaks)
    for own in dwells.tolist():
        here = float(_sizes(response, np.array([own]))[0])
        near = np.abs(peaks / own - 1.0) <= BESIDE
        if not near.any() or not sizes[near].max() > HIGHER * here:
            continue
        top = int(np.flatnonzero(near)[sizes[near].argmax()])
        yield Finding(
            "warning",
            "peak-beside-dwell",
            f"{event} dwells at {number(own)} Hz, but the response is {number(float(sizes[top]) / here, 3)} times as high at "
            f"{number(float(peaks[top]))} Hz.",
            "A dwell at resonance is held at the peak; natural frequencies move as a part ages: say which is meant.",
        )


def turning_components(event: str, stress: SineStress) -> Iterator[Finding]:
    """Components that do not move in step."""
    if stress.turning > TURNS:
        yield Finding(
            "warning",
            "phase-turns",
            f"Under {event} the stress components are out of phase: the lesser axis of the tensor's path is "
            f"{stress.turning:.0%} of the greater one, and directions turn within a cycle.",
            "A sign says nothing there, and one stress does not tell the damage: take normal stresses on planes.",
        )


def _steps(event: str, dwells: np.ndarray, response: Response) -> Iterator[Finding]:
    """A resonance between the steps of a sweep that is made of dwells."""
    low, high = float(dwells.min()), float(dwells.max())
    for own in response.resonances:
        if not low < own.frequency < high:
            continue
        peak = float(_sizes(response, np.array([own.peak_frequency]))[0])
        reached = float(_sizes(response, dwells).max())
        near = np.sort(dwells)
        at = int(near.searchsorted(own.peak_frequency))
        steps = [float(one) for one in near[max(at - 1, 0) : at + 1]]
        met = float(_sizes(response, np.array(steps)).max())
        if met < MISSED * peak and reached < peak:
            yield Finding(
                "warning",
                "resonance-missed",
                f"The steps of {event} at {number(steps[0])} and {number(steps[-1])} Hz miss the resonance at "
                f"{number(own.peak_frequency)} Hz: the higher of them has {met / peak:.0%} of its stress.",
                f"Step by {number(0.25 * own.half_power_width, 2)} Hz or less there, or make it a sweep.",
            )


def _sizes(response: Response, frequency: np.ndarray) -> np.ndarray:
    corners = response.corners
    if corners.size:
        frequency = np.clip(frequency, corners[0], corners[-1])
    return np.abs(response.at(frequency))
