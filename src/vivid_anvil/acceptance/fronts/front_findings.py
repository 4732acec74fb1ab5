"""What an expert says of contours along a crack front."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.acceptance.fronts.mixed_mode import MIXED_MODES
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.acceptance.fronts.crack_front import CrackFront

CONSTRAINED = (0.93, 1.02)  # K of J in plane strain over K_I: plane stress is 0.954, plane strain 1


def front_findings(front: CrackFront) -> Iterator[Finding]:
    """All of them."""
    inner = ~front.ends
    off = np.flatnonzero(front.scatters & ~front.drifts & inner)
    drifting = np.flatnonzero(front.drifts & inner)
    causes = {
        "contours-drift": (
            drifting,
            "rise or fall from each to the next",
            "Plasticity does that, and loaded crack faces.",
        ),
        "contours-disagree": (
            off,
            "do not agree",
            "One may leave its ring of elements, or the mesh is too coarse there.",
        ),
    }
    for code, (rows, what, advice) in causes.items():
        if rows.size:
            places = ", ".join(front.said(int(i)) for i in rows[:5])
            most = float(front.deviation[rows].max())
            yield Finding("warning", code, f"At {places} contours {what}, by up to {most:.1%} of their mean.", advice)
    if front.ends.any() and front.scatters[front.ends].any():
        yield Finding(
            "note",
            "front-ends",
            "At the ends of the front contours are doubtful: they are shown, and do not count for the worst position.",
            "Where the front meets a surface the singularity is another one.",
        )
    k1 = front.mean("K_I")
    if "K_I" in front.contours and (k1 < 0.0).any():
        closed = int((k1 < 0.0).sum())
        yield Finding(
            "warning",
            "front-closed",
            f"At {closed} positions K_I is below 0: the crack is closed there, and K_I counts as 0.",
            "Its faces carry load: model their contact where that matters.",
        )
    yield from _constraint(front)


def _constraint(front: CrackFront) -> Iterator[Finding]:
    """K of J beside that of K, and shear."""
    of_j = front.k_of_j
    if of_j is not None and "K_I" in front.contours:
        alone = by_three(front)
        use = front.trusted & (alone > 0.0)
        if use.any():
            ratio = of_j[use] / alone[use]
            if ratio.min() < CONSTRAINED[0] or ratio.max() > CONSTRAINED[1]:
                yield Finding(
                    "warning",
                    "j-against-k",
                    f"K of J in plane strain is {ratio.min():.2f} to {ratio.max():.2f} times that of K_I, K_II, K_III.",
                    "0.95 is plane stress, 1 plane strain; others mean plasticity, another modulus, or half a model.",
                )
    size = np.maximum(np.abs(front.mean("K_I")), 1e-300)
    shear = np.hypot(front.mean("K_II"), front.mean("K_III"))
    mixed = float((shear / size)[front.worst])
    if "K_I" in front.contours and mixed > 0.2:
        yield Finding(
            "note",
            "mixed-mode",
            f"At the worst position shear is {mixed:.0%} of K_I: the effective K is by the {front.rule}.",
            "The crack will turn: growth straight ahead is an estimate.",
        )


def by_three(front: CrackFront) -> FloatArray:
    """K of all three modes by the energy release rate, MPa√mm."""
    one, two, three = (front.mean(key) for key in ("K_I", "K_II", "K_III"))
    return np.asarray(MIXED_MODES["energy release rate"](one, two, three, front.poissons_ratio))
