"""Laminates followed through their life: against sums by hand, both orders of blocks, jumps that are shorter, many places."""

import dataclasses
from concurrent.futures import ThreadPoolExecutor

import numpy as np
import pytest

from tests.materials.test_plies import GLASS
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies import LargestStress, NormalisedStrength, PowerStiffness, PowerStrength
from vivid_anvil.progress import CycleEnds, ProgressSettings, converged_to, laminate_progress, laminates_progress
from vivid_anvil.stress.laminates import Laminate

FIBRE = LargestStress(tension=1050.0, tension_slope=11.0, compression=650.0, compression_slope=14.0)
ACROSS = LargestStress(tension=42.0, tension_slope=10.0, compression=145.0, compression_slope=12.0)
SHEAR = LargestStress(tension=70.0, tension_slope=12.0, compression=70.0, compression_slope=12.0)
LIVES = {"fibre_life": FIBRE, "across_life": ACROSS, "shear_life": SHEAR}
DECAYS = {
    "fibre_strength_decay": PowerStrength(exponent=3.0),
    "across_strength_decay": PowerStrength(exponent=1.0),
    "shear_strength_decay": PowerStrength(exponent=1.0),
}


def plate(layup="[0/90]s", **more):
    return Laminate(name="plate", layup=layup, ply=dataclasses.replace(GLASS, **LIVES, **more), ply_thickness=0.5)


def pulls(*forces, counts=None):
    """Cycles of nx from 0."""
    ends = np.zeros((len(forces), 2, 6))
    ends[:, 0, 0] = forces
    return ends, np.ones(len(forces)) if counts is None else np.asarray(counts, dtype=float)


def followed(own, ends, often, **how):
    cycles = CycleEnds.of_one_row(ends, often, len(own.laid))
    return laminate_progress(own, cycles, ProgressSettings(**how))


def test_without_decay_each_failure_comes_at_the_linear_sum_of_the_stresses_before_it():
    own = plate()
    ends, often = pulls(90.0, 60.0, counts=[3.0, 500.0])
    found = followed(own, ends, often)
    stress = own.full.per_load[:, 0, :, 0]  # membrane: both faces alike
    first = sum(
        n / float(ACROSS.lives(s / 2, s / 2)[0]) for n, s in zip(often, stress[1, 1] * ends[:, 0, 0], strict=True)
    )
    assert found.failures[0].repeats == pytest.approx(1.0 / first, rel=1e-9)
    left = np.ones((4, 3))
    left[1:3, 1:] = 0.1
    later = own.with_left(left).per_load[:, 0, :, 0]

    def rate(per_load):
        return sum(
            n / float(FIBRE.lives(s / 2, s / 2)[0]) for n, s in zip(often, per_load * ends[:, 0, 0], strict=True)
        )

    before = found.failures[0].repeats * rate(stress[0, 0])
    failures = [one for one in found.failures if one.mode == "fibre" and one.ply in (0, 3)]
    between = [one for one in found.failures if one.mode == "matrix" and one.ply in (0, 3)]
    if not between or between[0].repeats > failures[0].repeats:
        assert failures[0].repeats == pytest.approx(
            found.failures[0].repeats + (1.0 - before) / rate(later[0, 0]), rel=1e-6
        )
    assert found.over >= failures[0].repeats
    assert found.first("fibre") == failures[0].repeats
    assert found.to_stiffness(0.99) == found.failures[0].repeats
    jumps = sorted({one.jump for one in found.failures})
    drawn = found.drawn
    assert drawn.repeats.size == found.course.repeats.size + len(jumps)
    assert (np.diff(drawn.repeats) >= 0.0).all()
    for moved, jump in enumerate(jumps):  # just before a failure, and after it
        assert drawn.repeats[jump + moved] == found.course.repeats[jump]
        assert drawn.stiffness[jump + moved] > drawn.stiffness[jump + moved + 1]


@pytest.mark.parametrize("decay", [PowerStrength(exponent=3.0), NormalisedStrength(alpha=10.0, beta=0.5)])
def test_two_levels_in_a_repeat_are_what_going_through_them_one_by_one_gives(decay):
    own = plate("[0]", fibre_strength_decay=decay)
    ends, often = pulls(0.5 * 620.0, 0.5 * 480.0, counts=[0.04, 0.6])
    how = {"modes": ("fibre",), "fails_by": "residual strength"}
    found = followed(own, ends, often, **how)
    lost, repeats = 0.0, 0
    while True:
        for stress, n in ((620.0, 0.04), (480.0, 0.6)):
            life = float(FIBRE.lives(stress / 2, stress / 2)[0])
            lost = decay.after(decay.numbers, lost, n, life, 1050.0, stress)
        repeats += 1
        if lost >= 1050.0 - 620.0:
            break
    assert found.over == pytest.approx(repeats, rel=2e-3)


def test_halving_the_jumps_moves_the_end_by_less_than_a_thousandth():
    own = plate("[±45/0/90]s", across_stiffness_decay=PowerStiffness(end=0.7, exponent=0.5))
    ends, often = pulls(110.0, 80.0, counts=[1.0, 50.0])
    cycles = CycleEnds.of_one_row(ends, often, 8)
    one = laminate_progress(own, cycles, ProgressSettings())
    half = laminate_progress(own, cycles, ProgressSettings(jump_error=ProgressSettings().jump_error / 4.0))
    assert half.over == pytest.approx(one.over, rel=1e-3)
    assert half.failures[0].repeats == pytest.approx(one.failures[0].repeats, rel=1e-3)
    assert converged_to(one, cycles) < 1e-3
    assert (np.diff(one.course.repeats) >= 0.0).all()
    assert (np.diff(one.course.left, axis=0) <= 1e-12).all()


def test_a_load_that_breaks_a_ply_at_once_does_so_at_the_start():
    own = plate()
    found = followed(own, *pulls(500.0))
    assert found.failures[0].repeats == 0.0
    assert found.first("matrix") == 0.0


def test_where_nothing_moves_nothing_ends():
    own = plate()
    found = followed(own, np.zeros((1, 2, 6)), np.ones(1))
    assert found.over == np.inf
    assert found.failures == ()
    assert found.to_stiffness(0.9) == np.inf
    cycles = CycleEnds.of_one_row(np.zeros((1, 2, 6)), np.ones(1), 4)
    assert converged_to(found, cycles) == 0.0


def test_turning_laminate_and_load_together_changes_no_failure():
    ends, often = pulls(90.0)
    one = followed(plate("[0/90]s"), ends, often)
    turn = np.radians(30.0)
    c, s = np.cos(turn), np.sin(turn)
    turned = np.zeros((1, 2, 6))
    turned[0, 0, :3] = 90.0 * np.array([c * c, s * s, s * c])
    other = followed(plate([30.0, 120.0, 120.0, 30.0]), turned, often)
    assert [(f.ply, f.mode) for f in one.failures] == [(f.ply, f.mode) for f in other.failures]
    assert [f.repeats for f in one.failures] == pytest.approx([f.repeats for f in other.failures], rel=1e-6)


def test_many_places_are_each_the_same_as_alone_in_any_stations_and_threads():
    own = plate("[0/90]s", across_stiffness_decay=PowerStiffness(end=0.7, exponent=0.5))
    how = ProgressSettings(jump_error=1e-4)
    forces = np.array([80.0, 95.0, 110.0])
    ends = np.zeros((3, 1, 2, 6))
    ends[:, 0, 0, 0] = forces
    with ThreadPoolExecutor(2) as pool:
        found = laminates_progress(own, ends, [1.0], how, stations=[1e16], executor=pool)
    for i in range(3):
        alone = followed(own, ends[i], np.ones(1), jump_error=1e-4)
        assert found.matrix[i] == pytest.approx(alone.first("matrix"), rel=1e-9)
        assert found.over[i] == pytest.approx(alone.over, rel=1e-9)
    stations = [1e2, 1e4, 1e6, 1e16]
    stopped = laminates_progress(own, ends, [1.0], how, stations=stations)
    assert stopped.matrix == pytest.approx(found.matrix, rel=2e-3)
    assert stopped.over == pytest.approx(found.over, rel=2e-3)


def test_loads_move_to_places_that_stay_stiff_where_a_model_says_so():
    own = plate("[0/90]s", across_stiffness_decay=PowerStiffness(end=0.5, exponent=0.5))
    ends = np.zeros((2, 1, 2, 6))
    ends[:, 0, 0, 0] = 105.0, 95.0
    seen = []

    def side_by_side(stiffness):
        """Two strips that are stretched alike share their load by their stiffness."""
        along = 1.0 / np.linalg.inv(stiffness)[:, 0, 0]
        seen.append(along)
        moved = np.zeros_like(ends)
        moved[:, 0, 0, 0] = 200.0 * along / along.sum()
        return moved

    how, stations = ProgressSettings(jump_error=1e-3), np.geomspace(1e2, 1e5, 12)
    shared = laminates_progress(own, ends, [1.0], how, stations=stations, moved=side_by_side)
    kept = laminates_progress(own, ends, [1.0], how, stations=stations)
    assert len(seen) == len(stations) - 1
    assert seen[0][0] < seen[0][1]  # the harder loaded strip softened first, and handed load on
    assert shared.matrix[0] > kept.matrix[0]
    with pytest.raises(InputError, match="finite loads as before"):
        laminates_progress(own, ends, [1.0], how, stations=[1.0, 2.0], moved=lambda _: np.zeros(3))


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"modes": ()}, "one or both"),
        ({"modes": ("fibres",)}, "one or both"),
        ({"fails_by": "miner"}, "fails_by"),
        ({"together": "yes"}, "true or false"),
        ({"jump_error": 0.0}, "above 0"),
    ],
)
def test_settings_that_mean_nothing_are_refused(change, message):
    with pytest.raises(InputError, match=message):
        ProgressSettings(**change)


def test_stations_and_shapes_that_mean_nothing_are_refused():
    own, ends = plate(), np.zeros((1, 1, 2, 6))
    for stations, message in (([], "one at least"), ([2.0, 1.0], "rising"), ([-1.0], "above 0")):
        with pytest.raises(InputError, match=message):
            laminates_progress(own, ends, [1.0], ProgressSettings(), stations=stations)
    with pytest.raises(InputError, match="places, rows, 2, 6"):
        laminates_progress(own, ends, [1.0, 2.0], ProgressSettings(), stations=[1.0])
    with pytest.raises(InputError, match="cycle ends"):
        CycleEnds(np.zeros((1, 2, 5)), np.ones(1), np.zeros((1, 2, 3, 2), dtype=int))
    bare = Laminate(name="bare", layup=[0], ply=GLASS, ply_thickness=0.5)
    with pytest.raises(InputError, match="leave 'matrix' out"):
        laminates_progress(bare, ends, [1.0], ProgressSettings(modes=("matrix",)), stations=[1.0])
