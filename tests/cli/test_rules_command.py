"""The comparison of mean-stress rules, as a command and from Python."""

import csv
import json

import numpy as np
import pytest

import vivid_anvil as va
from vivid_anvil.damage import assess_life, compare_rules, compare_rules_for_cycles
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import MEAN_STRESS_RULES

pytestmark = pytest.mark.slow


def test_the_rules_are_compared_for_every_spot_that_has_one(run, demo_file, demo_result, tmp_path):
    code, out, _ = run(
        "rules", demo_file, "--csv", tmp_path / "r.csv", "--json", tmp_path / "r.json", "--figures", tmp_path / "f"
    )
    assert code == 0
    rows = list(csv.DictReader((tmp_path / "r.csv").read_text().splitlines()))
    used = next(row for row in rows if row["hot spot"] == "bore of the suspension pin" and row["used"] == "True")
    assert float(used["life [years]"]) == demo_result.lives[1].life_years
    record = json.loads((tmp_path / "r.json").read_text())
    assert len(record["comparisons"]) == 2
    assert "weld toe" in record["without"][0]
    assert "has the mean stress in it already" in " ".join(out.split())
    assert "true_fracture_strength" in out
    assert len(list((tmp_path / "f").iterdir())) == 2


@pytest.mark.parametrize(
    ("spot", "message"),
    [("weld toe at the grip head", "nothing to compare"), ("bend", "Did you mean 'bend of the tube'")],
)
def test_a_spot_without_a_comparison_is_an_error(run, demo_file, tmp_path, spot, message):
    code, out, err = run("rules", demo_file, "--spot", spot, "--csv", tmp_path / "r.csv")
    assert code == 2
    assert message in " ".join(err.split())
    assert out == ""
    assert list(tmp_path.iterdir()) == []


def test_a_comparison_is_the_same_as_one_life_after_the_other(demo_result):
    base = demo_result.lives[1]
    found = compare_rules(base)
    assert set(found.lives) | set(found.refused) == set(MEAN_STRESS_RULES)
    for name, life in found.lives.items():
        assert life.method.mean_stress == name
        alone = assess_life(life.hot_spot, base.duty_cycle, target=base.target_repeats)
        assert alone.life_repeats == life.life_repeats
    assert found.lives["goodman"].life_repeats == base.life_repeats
    with pytest.raises(InputError, match="nothing to compare"):
        compare_rules(demo_result.lives[0])


def test_cycles_side_by_side_have_a_column_for_each_rule():
    steel = va.Material(name="s", ultimate_strength=700.0, yield_strength=420.0, group="steel")
    found = compare_rules_for_cycles([120.0, 60.0], [100.0, 430.0], steel, r_ratio=0.1)
    assert "soderberg" in found.refused  # 430 MPa is beyond yield
    assert found.equivalent["none"].tolist() == [120.0, 60.0]
    rows = found.rows()
    assert rows[0]["goodman [MPa]"] == pytest.approx(112.5)  # reference case SL-C-goodman-01-any-R
    assert np.isfinite(list(rows[1].values())).all()
