"""What an expert would say about a life by local strain: plastic strain, the elastic line, the section, what is not modelled."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from vivid_anvil.damage.between_effect import between_effect
from vivid_anvil.ground.errors import listed
from vivid_anvil.stress.yielding.tips_of_loops import Loops
from vivid_anvil.units import in_unit, number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life
    from vivid_anvil.damage.methods.local_strain import LocalStrain

AGREES = 1.25  # factor between two lives that are called alike
COLLAPSE = 0.9  # of the cyclic yield strength, at which the section around a notch no longer stays elastic
KEPT_MEAN = 0.25  # of the largest cyclic stress of a loop, from which its mean is worth a word
PLASTIC = 0.05  # of a strain amplitude that is plastic, from which a mean stress relaxes
CREDITED = 1.5  # times the damage, from which what an order saves is worth a word
REPORTED = 0.5  # share of the damage
NO_DAMAGE_IN_COMPRESSION = 0.2


class _Seen(NamedTuple):
    """What is looked at."""

    method: LocalStrain
    life: Life
    loops: Loops


def local_strain_findings(method: LocalStrain, life: Life) -> Iterator[Finding]:
    """All of them."""
    yield from method.strain_life.findings
    loops = method.loops(life.spectrum.cycles)
    if not len(loops.amplitude):
        return
    for look in LOOKS:
        yield from look(_Seen(method, life, loops))


def _plastic_part(method: LocalStrain, loops: Loops) -> np.ndarray:
    """Share of the strain amplitude that is plastic, by loop."""
    own = method.cyclic.plastic(0.5 * (loops.highest - loops.lowest))
    return np.asarray(np.divide(own, loops.amplitude, out=np.zeros_like(own), where=loops.amplitude > 0.0))


def _elastic_line(seen: _Seen) -> Iterator[Finding]:
    """Stress-life beside it: alike, or which of both to trust."""
    method, life, loops = seen
    if life.damage_per_repeat == 0.0:
        return
    ratio = 1.0 / method.beside(life).ratio if method.beside(life).ratio > 0.0 else math.inf
    share = float((life.damage * (_plastic_part(method, loops) > 0.5)).sum()) / life.damage_per_repeat
    if 1.0 / AGREES <= ratio <= AGREES:
        yield Finding(
            "note",
            "stress-life-agrees",
            f"Stress-life by the elastic line gives {number(ratio, 2)} times this life: the notch hardly yields.",
            "Either may be used; a tested S-N curve of the part is worth more than both.",
        )
        return
    how = f"{number(ratio, 2)} times this life" if math.isfinite(ratio) else "no damage at all"
    plastic = f"; loops that are mostly plastic do {share:.0%} of the damage" if share > 0.005 else ""
    yield Finding(
        "warning" if share > REPORTED else "note",
        "plastic-strain",
        f"Stress-life by the elastic line alone would give {how}{plastic}.",
        "Trust local strain here: the elastic line knows neither plastic strain nor the stress that yielding takes away."
        if ratio > 1.0
        else "The elastic stresses that stress-life goes by are not reached, as the notch yields: it is too hard here.",
    )


def _section(seen: _Seen) -> Iterator[Finding]:
    """A nominal stress so high that the section around the notch yields too."""
    method, life = seen.method, seen.life
    spot, proof = life.hot_spot, method.cyclic.proof_stress
    nominal = max(life.peak_stress, -life.lowest_stress) / spot.notch_factor
    if method.notch_rule != "none" and method.plastic_limit_ratio is None and nominal > COLLAPSE * proof:
        yield Finding(
            "severe" if nominal > proof else "warning",
            "section-yields",
            f"The nominal stress, {in_unit(nominal, 'stress')}, is {number(nominal / proof, 2)} times the cyclic yield strength: "
            "the section around the notch yields too, and the rule gives strains that are too small.",
            "State plastic_limit_ratio, the load at which the section collapses over that at which the notch first yields."
            if spot.notch_factor > 1.0
            else "Is the stress that of the notch already? Then state plastic_limit_ratio; else state the notch_factor.",
        )


def _kept_means(seen: _Seen) -> Iterator[Finding]:
    """Mean stresses that are kept for ever though the loops are plastic enough to relax them."""
    method, life, loops = seen
    total = life.damage_per_repeat
    if total == 0.0 or method.mean_stress == "none":
        return
    mean, half = 0.5 * (loops.highest + loops.lowest), 0.5 * (loops.highest - loops.lowest)
    kept = (np.abs(mean) > KEPT_MEAN * half) & (_plastic_part(method, loops) > PLASTIC)
    share = float(life.damage[kept].sum()) / total
    if share > REPORTED:
        worst = int(np.argmax(np.where(kept, life.damage, 0.0)))
        yield Finding(
            "note",
            "mean-stress-kept",
            f"Loops with plastic strain and a mean stress, such as {in_unit(float(mean[worst]), 'stress')}, do {share:.0%} of "
            "the damage. A mean stress relaxes under cyclic plastic strain; here it is kept for ever.",
            "The life is on the safe side where the mean is tensile, on the unsafe side where it is compressive: compare with "
            'mean_stress = "none".',
        )


def _residual(seen: _Seen) -> Iterator[Finding]:
    """An overload whose residual stress other events do not feel, as each is followed by itself."""
    method, life = seen.method, seen.life
    if life.duty_cycle.between != "each by itself":
        yield from _credited(seen)
        return
    spectrum, proof = life.spectrum, method.cyclic.proof_stress
    largest = [
        float(np.maximum(spectrum.cycles.maximum, -spectrum.cycles.minimum)[spectrum.event == i].max(initial=0.0))
        for i in range(len(spectrum.sources))
    ]
    over, names = int(np.argmax(largest)), [source.name for source in spectrum.sources]
    others = [i for i in range(len(largest)) if largest[i] < largest[over] * 0.95 and largest[i] > 0.0]
    doing = float(life.damage[np.isin(spectrum.event, others)].sum())
    if largest[over] > proof and others and doing > 0.05 * life.damage_per_repeat:
        yield Finding(
            "warning",
            "residual-stress-forgotten",
            f"The event {names[over]} reaches an elastic {in_unit(largest[over], 'stress')}, above the cyclic yield strength, "
            f"and leaves a residual stress; {listed([names[i] for i in others])} do not feel it, as each event is followed by "
            "itself.",
            'Set between = "in the order given" to follow the whole repeat.',
        )


def _credited(seen: _Seen) -> Iterator[Finding]:
    """A residual stress that keeps events from doing the damage that they would do by themselves."""
    life = seen.life
    alone = between_effect(life)["each by itself"]
    if (
        life.duty_cycle.between == "in the order given"
        and alone is not None
        and alone > CREDITED * life.damage_per_repeat
    ):
        yield Finding(
            "warning",
            "residual-stress-credited",
            f"The residual stress that the largest event leaves in compression keeps others from doing damage: without it a "
            f"{life.duty_cycle.repeat} does {number(alone / life.damage_per_repeat, 2)} times as much.",
            "It counts from the first repeat on, and never relaxes: is that event sure to come first? Else set "
            'between = "each by itself".',
        )


def _compression(seen: _Seen) -> Iterator[Finding]:
    """Loops in compression that a form lets do no damage."""
    method, loops = seen.method, seen.loops
    idle = loops.highest <= 0.0
    if method.mean_stress not in ("smith-watson-topper", "walker") or not idle.any():
        return
    widest, own = float(loops.amplitude.max()), float(loops.amplitude[idle].max())
    if own > NO_DAMAGE_IN_COMPRESSION * widest:
        yield Finding(
            "note",
            "compression-idle",
            f"Loops in compression, up to a strain amplitude of {in_unit(own, 'strain')}, do no damage by the form "
            f"{method.mean_stress}.",
            'They may start shear cracks all the same, and residual tension may lift them: compare with mean_stress = "morrow".',
        )


LOOKS: tuple[Callable[[_Seen], Iterator[Finding]], ...] = (
    _elastic_line,
    _section,
    _kept_means,
    _residual,
    _compression,
)
