"""All places beside each other: each lever is what the study with that value says, survival goes by its formula."""

import math

import numpy as np
import pytest
from scipy.special import ndtri

import vivid_anvil as va
from tests.cli.events import CHANNEL, EVENT, HEAD, REST
from tests.study.flaw_texts import TEXT
from vivid_anvil.study.levers import CHANGE, CURVE, LOAD, NOTCH, SIZE, SURVIVALS, TARGET

TOE = "weld toe at the grip head"


@pytest.fixture(scope="module")
def found(demo_result):
    """All places of the demo."""
    return va.all_places(demo_result)


@pytest.fixture(scope="module")
def head(demo_file):
    """Those of its model."""
    return va.all_places(va.run_study(va.read_study(demo_file.parent / "hanger_head.toml")))


def lever(found, name, kind, which):
    """One lever of a place."""
    return next(one for one in found.levers_of(name, kind) if one.lever == which)


def lives_with(demo_file, old, new):
    """Lives and growth of the demo with another text."""
    text = demo_file.read_text(encoding="utf-8")
    assert old in text
    changed = demo_file.parent / "changed.toml"
    changed.write_text(text.replace(old, new), encoding="utf-8")
    try:
        return va.run_study(va.read_study(changed))
    finally:
        changed.unlink()


def test_load_is_that_of_the_study_under_other_loads(found, demo_file):
    for factor, side in ((1.0 - CHANGE, "life_low"), (1.0 + CHANGE, "life_high")):
        other = lives_with(demo_file, '"24.5 MPa/kN"', f'"{24.5 * factor} MPa/kN"')
        life = next(one for one in other.lives if one.hot_spot.name == TOE)
        assert getattr(lever(found, TOE, "life", LOAD), side) == pytest.approx(life.life_repeats, rel=1e-9)
        (growth,) = other.growths
        assert getattr(lever(found, TOE, "crack", LOAD), side) == pytest.approx(growth.life_repeats, rel=0.02)


def test_notch_factor_is_that_of_the_study(found, demo_result):
    bore = next(life for life in demo_result.lives if "bore" in life.hot_spot.name)
    again = va.what_if(
        demo_result.study, f"hot_spots/{bore.hot_spot.name}/notch_factor", [bore.hot_spot.notch_factor * 1.1]
    )
    (variant,) = [one for one in again.variants if not one.is_base]
    moved = lever(found, bore.hot_spot.name, "life", NOTCH)
    assert moved.life_high == pytest.approx(variant.lives[bore.hot_spot.name].life_repeats, rel=1e-9)
    assert lever(found, TOE, "life", NOTCH).life_low is None  # Kf is 1 there, and is never below


def test_a_curve_of_one_slope_moves_by_its_power(head):
    one = lever(head, "node 2613", "life", CURVE)
    assert one.life_high == pytest.approx(one.life * 1.1**3, rel=1e-9)
    assert one.life_low == pytest.approx(one.life * 0.9**3, rel=1e-9)
    assert lever(head, "node 2613", "life", LOAD).life_high == pytest.approx(one.life / 1.1**3, rel=1e-9)


def test_the_target_moves_what_is_used_and_no_life(found, demo_result):
    one = lever(found, TOE, "life", TARGET)
    assert (one.life_low, one.life_high) == (one.life, one.life)
    assert [one.used_low, one.used_high] == pytest.approx([0.9 * one.used, 1.1 * one.used])
    assert one.used == pytest.approx(demo_result.lives[0].used_at_target)
    assert found.levers_of(TOE, "life")[-1] is one


def test_initial_size_is_that_of_the_lives_over_size(found, demo_result):
    growth = demo_result.growths[0]
    sizes = va.lives_over_size(growth, [0.9, 1.0, 1.1])
    one = lever(found, TOE, "crack", SIZE)
    ratio = sizes.repeats / sizes.repeats[1]
    assert [one.life_low, one.life_high] == pytest.approx((growth.life_repeats * ratio[[0, 2]]).tolist(), rel=1e-9)


def test_survival_moves_lives_along_the_normal_distribution(head):
    one = head.survivals[0]
    assert one.stated == 0.95
    assert one.shares.tolist() == sorted({*SURVIVALS, 0.95})
    base = one.repeats[one.shares == 0.95]
    assert one.repeats == pytest.approx(base * 10.0 ** ((ndtri(0.95) - ndtri(one.shares)) * 0.2), rel=1e-9)
    assert (np.diff(one.repeats) < 0.0).all()


def test_places_stand_by_what_they_use_and_say_what_governs(found, demo_result):
    used = [place.used for place in found.places if place.used is not None]
    assert used == sorted(used, reverse=True)
    worst = found.places[0]
    growth = demo_result.growths[0]
    assert (worst.kind, worst.used) == ("crack", pytest.approx(growth.target_repeats / growth.life_repeats))
    assert worst.governed_by == growth.governed_by
    toe = next(place for place in found.places if (place.name, place.kind) == (TOE, "life"))
    assert toe.governed_by == "loaded lap, 99% of the damage"
    assert toe.bad
    assert "2 of 4 places use more than they may." in [text for _, text in found.words("metric")]


def test_flaws_use_the_load_that_they_could_carry(tmp_path):
    path = tmp_path / "flaws.toml"
    path.write_text(TEXT)
    result = va.run_study(va.read_study(path))
    found = va.all_places(result)
    assert len(found.places) == len(result.flaws.flaws) + len(result.fronts)
    for flaw in result.flaws.flaws:
        place = next(one for one in found.places if one.name == f"flaw {flaw.name}")
        reserve = flaw.assessment.reserve_on_load.factor
        assert place.used == pytest.approx(1.0 / reserve if reserve else math.inf)
        assert place.bad == (not flaw.assessment.acceptable)


def test_without_a_target_lives_are_moved_and_nothing_is_used(written):
    text = HEAD[: HEAD.index("target_life")] + HEAD[HEAD.index("\n", HEAD.index("target_life")) + 1 :]
    pull = EVENT.format("pull", 7) + CHANNEL + 'range = "9 kN"\nr_ratio = 0.0\ncycles = 100\n'
    found = va.all_places(va.run_study(va.read_study(written(pull, head=text))))
    assert all(place.used is None for place in found.places)
    assert {one.lever for one in found.levers} >= {LOAD, CURVE}
    assert TARGET not in {one.lever for one in found.levers}
    assert REST  # the study has a hot spot, a crack and a model
    assert va.plot(found).axes


def test_as_many_are_moved_as_asked(demo_result):
    assert va.all_places(demo_result, most=0).moved == ()
    assert len(va.all_places(demo_result, most=2).moved) == 2
    with pytest.raises(va.InputError, match="most"):
        va.all_places(demo_result, most=-1)
