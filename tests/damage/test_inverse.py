"""Questions asked the other way round."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.damage.spots import SMOOTH, mixed, one_block, spot
from vivid_anvil.damage import accelerated_test, assess_life, class_needed, cycles_of_test
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import detail_curve, knee_curve, shipped_standards


def test_the_class_needed_is_the_lowest_that_meets_the_target(demo_result):
    weld = demo_result.lives[0]
    needed = class_needed(weld, "EN 1993-1-9")
    names = sorted(shipped_standards()["EN 1993-1-9"].curves[0].classes, key=float)
    below = names[names.index(needed) - 1]
    for name, meets in ((needed, True), (below, False)):
        other = assess_life(
            spot(detail_curve("EN 1993-1-9", name), channel="vertical force", stress_per_load="24.5 MPa/kN"),
            weld.duty_cycle,
            target=weld.target_repeats,
        )
        assert (other.reserve_on_life >= 1.0) == meets
    assert float(class_needed(weld, "EN 1993-1-9", partial_factor=1.35)) > float(needed)
    assert class_needed(assess_life(spot(), one_block(600.0, 0.0), target=1e4), "IIW aluminium") is None


@given(st.floats(30.0, 300.0), st.floats(1.0, 1e3))
def test_a_test_does_the_damage_of_the_service(level, repeats):
    life = assess_life(spot(), mixed(200.0, 50.0, 120.0, 1e4), target=12.0)
    cycles = cycles_of_test(life, level, repeats)
    assert cycles / float(life.curve.life(level)) == pytest.approx(repeats * life.damage_per_repeat)
    assert life.damage_equivalent_stress(cycles, repeats) == pytest.approx(level, rel=1e-9)


def test_leaving_small_cycles_out_takes_more_repeats_of_fewer_cycles():
    life = assess_life(spot(), mixed(200.0, 50.0, 120.0, 1e4), target=12.0)
    high, low = life.events[0].damage, life.events[1].damage
    found = accelerated_test(life, [0.0, 300.0])
    assert found.damage_kept == pytest.approx([1.0, high / (high + low)])
    assert found.cycles_kept.tolist() == [10050.0, 50.0]
    assert found.repeats * found.damage_kept == pytest.approx([12.0, 12.0])
    assert [row["repeats"] for row in found.rows()] == found.repeats.tolist()
    assert (np.diff(found.repeats) > 0.0).all()


LIMITED = spot(knee_curve(**SMOOTH | {"slope_below": np.inf}))
BAD = {
    "no target": (lambda: class_needed(assess_life(spot(), one_block(200.0, 0.0)), "IIW steel"), "no target"),
    "no standard": (lambda: class_needed(assess_life(spot(), one_block(200.0, 0.0), target=1.0), "EN"), "EN 1993-1-9"),
    "component": (
        lambda: class_needed(assess_life(spot(), one_block(200.0, 0.0), target=1.0), "IIW steel", component="bending"),
        "'normal', 'shear'",
    ),
    "nothing to test": (lambda: cycles_of_test(assess_life(LIMITED, one_block(90.0, 0.0), target=1.0), 50.0), "no damage"),
    "how long": (lambda: cycles_of_test(assess_life(spot(), one_block(90.0, 0.0)), 50.0), "how much service"),
    "no level": (lambda: cycles_of_test(assess_life(spot(), one_block(90.0, 0.0), target=1.0), 0.0), "above 0 MPa"),
    "all left out": (
        lambda: accelerated_test(assess_life(spot(), one_block(90.0, 0.0), target=1.0), 200.0), "limits up to 180 MPa"
    ),
}  # fmt: skip


@pytest.mark.parametrize(("ask", "message"), BAD.values(), ids=BAD)
def test_questions_without_an_answer_are_refused(ask, message):
    with pytest.raises(InputError) as caught:
        ask()
    assert message in str(caught.value)
