"""What the loops of a laminate's life hand to each other, by name: arrays that belong together.

Plies p, faces f (lower, upper), components c (s1, s2, t12), modes (fibres, between fibres), strengths X_t, X_c, Y_t, Y_c, S.
A slot is one class of cycles counted by one component at one face: those of p, f, c stand from `slots[p, f, c]` on, and are the
rows `spans[p, f, c]` of `ends`.
"""

from __future__ import annotations

from typing import NamedTuple

from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray


class Plies(NamedTuple):
    """What stays as it is: moduli, MPa, (p, 4); strains of the laminate to those of plies, (p, 3, 3); edges, mm, (p + 1); free
    thermal strains, (p, 2); static strengths, MPa, (p, 5); lives and decays by address, 0 for none, (p, 3), and their numbers."""

    moduli: FloatArray
    turn: FloatArray
    edges: FloatArray
    free: FloatArray
    static: FloatArray
    life_at: IntArray
    use_at: IntArray
    life_numbers: FloatArray
    strength_at: IntArray
    strength_numbers: FloatArray
    stiffness_at: IntArray
    stiffness_numbers: FloatArray
    by_sum: BoolArray


class Classes(NamedTuple):
    """Resultants at both ends of each class, (rows, 2, 6), how often it comes, (rows), its rows and slots, (p, 2, 3[, 2])."""

    ends: FloatArray
    often: FloatArray
    spans: IntArray
    slots: IntArray


class Ways(NamedTuple):
    """How it is followed: `ProgressSettings` as numbers, and the repeats after which it is left."""

    assessed: BoolArray
    together: bool
    residual: bool
    critical: float
    fibre_left: float
    matrix_left: float
    over_below: float
    tolerance: float
    longest: float


class State(NamedTuple):
    """Parts of moduli that are lost, (p, 3), damage, (p, 2, 2), strength that is lost, MPa, (p, 2, 5), failed modes, (p, 2)."""

    lost: FloatArray
    damage: FloatArray
    weaker: FloatArray
    failed: BoolArray


class Stresses(NamedTuple):
    """Per unit of each resultant, (p, 2, 3, 6), of the temperature, (p, 2, 3), MPa, the compliance, (6, 6); at both ends of each
    slot, MPa, with the other stress between fibres beside it, (slots, 2, 2); highest and lowest of a component, (p, 2, 3, 2)."""

    per_load: FloatArray
    there: FloatArray
    compliance: FloatArray
    at_ends: FloatArray
    extremes: FloatArray


class Lives(NamedTuple):
    """Of slots: log10 of the life of a component alone, of both between fibres together, the life alone, what a class uses of
    both a repeat, its largest stress, MPa. Of components: extremes at which they were looked at, at which all their classes were,
    (p, 2, 3, 2), sums of uses alone, together, of the larger of both, (p, 2, 3). Damage of modes a repeat, (p, 2, 2)."""

    alone: FloatArray
    joint: FloatArray
    life: FloatArray
    alone_use: FloatArray
    joint_use: FloatArray
    peak: FloatArray
    kept: FloatArray
    whole: FloatArray
    alone_sum: FloatArray
    joint_sum: FloatArray
    share: FloatArray
    rates: FloatArray


class Events(NamedTuple):
    """Failures in turn: ply, face, mode, jump, (2 p, 4), repeats, stiffness left, (2 p)."""

    rows: IntArray
    repeats: FloatArray
    stiffness: FloatArray


class Course(NamedTuple):
    """What each jump begins with: repeats, stiffness left, parts of moduli (jumps, p, 3), damage (jumps, p, 2, 2), strengths,
    MPa, (jumps, p, 2, 5), highest and lowest stresses of the cycles, MPa, (jumps, p, 2, 3). No jumps: nothing is asked for."""

    repeats: FloatArray
    stiffness: FloatArray
    left: FloatArray
    damage: FloatArray
    strengths: FloatArray
    highest: FloatArray
    lowest: FloatArray
