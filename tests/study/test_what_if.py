"""What if: one value of a study varied, all else the same; and solved for."""

import csv
import json
import math

import pytest

from vivid_anvil.damage import assess_life
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study import read_study, value_that_meets_target, what_if
from vivid_anvil.study.key_paths import changed_study, value_at

pytestmark = pytest.mark.slow

PIN, WELD, TUBE = "bore of the suspension pin", "weld toe at the grip head", "bend of the tube"
NOTCH = f"hot_spots/{PIN}/notch_factor"


@pytest.fixture(scope="module")
def study(demo_file):
    return read_study(demo_file)


def test_each_variant_is_the_study_with_that_value(study, demo_file, tmp_path):
    found = what_if(study, NOTCH, [2.0, 2.4], spot=PIN)
    assert [one.value for one in found.variants] == [2.0, 2.2, 2.4]
    for one in found.variants:
        text = demo_file.read_text().replace("notch_factor = 2.2", f"notch_factor = {one.value}")
        for key in ("history", "tests", "file"):
            text = text.replace(f'{key} = "', f'{key} = "{demo_file.parent}/')
        (tmp_path / "other.toml").write_text(text)
        other = read_study(tmp_path / "other.toml")
        direct = assess_life(other.hot_spots[1], other.duty_cycle, target=other.target_life)
        assert one.lives[PIN].life_repeats == pytest.approx(direct.life_repeats, rel=1e-12)
        assert one.is_base == (one.value == 2.2)


@pytest.mark.parametrize(
    ("key", "values"),
    [
        ("sn_curves/fillet_weld/class", [63, 90]),
        ("sn_curves/pin_bore/surface", ["polished"]),
        ("duty_cycle/events/loaded lap/occurrences", [1000]),
        ("materials/pin_steel/ultimate_strength", ["900 MPa"]),
        (f"hot_spots/{PIN}/mean_stress", ["soderberg"]),
        (f"hot_spots/{WELD}/critical_sum", [0.5]),
        ("duty_cycle/between", ["worst case"]),
    ],
)
def test_any_key_may_be_varied_and_only_what_it_concerns_changes(study, demo_result, key, values):
    found = what_if(study, key, values)
    base = next(one for one in found.variants if one.is_base)
    for life in demo_result.lives:
        assert base.lives[life.hot_spot.name].life_years == life.life_years
    other = next(one for one in found.variants if not one.is_base)
    changed = [spot for spot in found.spots if other.lives[spot].life_years != base.lives[spot].life_years]
    concerned = {
        "fillet_weld": [WELD],
        "pin_bore": [PIN],
        "pin_steel": [PIN],
        PIN: [PIN],
        WELD: [WELD],
        "between": [WELD, PIN, TUBE],
    }
    wanted = next((spots for name, spots in concerned.items() if name in key), [WELD, PIN])
    assert changed == wanted


def test_nothing_is_read_or_fitted_again(study):
    other = changed_study(study, NOTCH, 2.5)
    assert other.duty_cycle is study.duty_cycle
    assert other.curves["tube"] is study.curves["tube"]
    assert changed_study(study, "sn_curves/tube/survival_probability", 0.9).curves["tube"] is not study.curves["tube"]
    assert value_at(study.data, NOTCH) == 2.2


def test_the_load_scale_that_meets_the_target_is_the_reserve_on_stress(study, demo_result):
    reserve = demo_result.lives[0].reserve_on_stress
    found = what_if(study, "load scale", [reserve], spot=WELD)
    scaled = next(one for one in found.variants if not one.is_base)
    assert scaled.lives[WELD].reserve_on_life == pytest.approx(1.0, rel=1e-6)
    key = f"hot_spots/{WELD}/stress_per_load"
    solved = value_that_meets_target(study, key, 20.0, 28.0, "MPa/kN", spot=WELD)
    assert solved == pytest.approx(24.5 * reserve, rel=1e-6)
    assert math.isinf(what_if(study, "load scale", [0.5], spot=TUBE).variants[0].lives[TUBE].life_years)


def test_a_value_that_is_refused_keeps_its_place_and_reason(study):
    found = what_if(study, NOTCH, [0.5, 2.0], spot=PIN)
    refused = next(one for one in found.variants if one.value == 0.5)
    assert "a notch factor Kf of at least 1" in refused.error
    assert found.to_dict()["errors"] == {"0.5": refused.error}
    assert {row[NOTCH] for row in found.rows()} == {2.0, 2.2}


def test_the_command_writes_table_and_figure(run, demo_file, tmp_path):
    code, out, _ = run(
        "what-if", demo_file, NOTCH, "1.8..2.6/5", "--csv", tmp_path / "w.csv", "--json", tmp_path / "w.json",
        "--figures", tmp_path,
    )  # fmt: skip
    assert code == 0
    assert "as it is" in out
    rows = list(csv.DictReader((tmp_path / "w.csv").read_text().splitlines()))
    assert sorted({float(row[NOTCH]) for row in rows}) == pytest.approx([1.8, 2.0, 2.2, 2.4, 2.6])
    assert len(rows) == 15
    assert json.loads((tmp_path / "w.json").read_text())["key"] == NOTCH
    assert (tmp_path / "what-if.png").exists()
    code, out, _ = run("what-if", demo_file, "target_life", "20 years", "40 years", "--spot", WELD)
    assert code == 0
    assert "1.393" in out


BAD = {
    "unknown table": ("hotspots/x/notch_factor", ["1"], "Did you mean 'hot_spots'"),
    "unknown spot": ("hot_spots/bore/notch_factor", ["1"], "Did you mean 'bore of the suspension pin'"),
    "unknown key": (f"hot_spots/{PIN}/notch", ["1"], "an unknown key"),
    "too deep": ("target_life/years", ["1"], "no 'years'"),
    "wrong kind": (NOTCH, ["high"], "a number"),
    "no unit": ("materials/pin_steel/ultimate_strength", ["900"], "without a unit"),
    "range": (NOTCH, ["2.6..1.8/5"], "a range that rises"),
    "range of words": (NOTCH, ["low..high/5"], "a range such as"),
    "scale": ("load scale", ["0"], "a factor above 0"),
}


@pytest.mark.parametrize(("key", "values", "message"), BAD.values(), ids=BAD)
def test_what_cannot_be_varied_is_refused(run, demo_file, tmp_path, key, values, message):
    code, out, err = run("what-if", demo_file, key, *values, "--csv", tmp_path / "w.csv")
    assert code == 2
    assert message in " ".join(err.split())
    assert out == ""
    assert list(tmp_path.iterdir()) == []


def test_a_value_to_solve_for_must_lie_in_the_range(study):
    with pytest.raises(InputError, match="which both meet the target"):
        value_that_meets_target(study, NOTCH, 1.5, 2.0, spot=PIN)
    with pytest.raises(InputError, match="one of 'weld toe"):
        what_if(study, NOTCH, [2.0], spot="pin")
    with pytest.raises(InputError, match="no values"):
        what_if(study, NOTCH, [])
    with pytest.raises(InputError, match=r"found '1\.1', expected a list of values"):
        what_if(study, NOTCH, "1.1")


def test_a_variant_that_fails_at_once_is_told_and_uses_all(run, demo_file):
    """The bore's mean reaches the ultimate strength: its life is 0, and no share can be reckoned from it."""
    code, out, err = run("what-if", demo_file, "load scale", "3", "--spot", "bore of the suspension pin")
    assert code == 0, err
    assert "all at once" in " ".join(out.split())
    assert what_if(read_study(demo_file), "load scale", [3.0]).rows()[-2]["used at target"] == "inf"
