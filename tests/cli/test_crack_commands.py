"""The commands on cracks: grow, inspections, growth-tests, and what-if of a crack's keys."""

import csv
import json
import math
import tomllib

import pytest

from vivid_anvil.study import read_study

pytestmark = pytest.mark.slow

TOE = "weld toe at the grip head"
PIECE = (
    "--r-ratio", 0.1, "--piece", "compact tension", "--force-range", "4.5 kN", "--thickness", "12.5 mm", "--width", "50 mm"
)  # fmt: skip


def one_line(text):
    """The words of a text, however it was wrapped."""
    return " ".join(text.split())


@pytest.fixture(scope="module")
def grown(demo_result):
    return demo_result.growth_at(TOE)


def test_grow_shows_what_the_library_gives(run, demo_file, grown, tmp_path):
    files = (tmp_path / "grow.json", tmp_path / "grow.csv", tmp_path / "figures")
    code, out, _ = run("grow", demo_file, "--json", files[0], "--csv", files[1], "--figures", files[2])
    assert code == 0
    assert max(map(len, out.splitlines())) <= 80 or "Written" in out
    for words in (
        "surface crack",
        "1 mm deep, 2.5 mm half length",
        "net-section yield",
        "month 99, emergency stop no",
        "Cycles followed",
    ):
        assert words in one_line(out)
    record = json.loads(files[0].read_text())["cracks"][0]
    assert record["life [repeats]"] == pytest.approx(grown.life_repeats, rel=1e-12)
    assert record["stopped in"] == grown.stopped_in
    assert record["course"][-1]["half length [mm]"] == pytest.approx(grown.half_lengths[-1])
    rows = list(csv.DictReader(files[1].read_text().splitlines()))
    assert float(rows[-1]["time [years]"]) == pytest.approx(grown.life_years)
    assert sum(one["share of the growth at the start"] for one in record["events"]) == pytest.approx(1.0)
    assert len(list(files[2].iterdir())) == 3


def test_grow_after_damage_adds_both_lives_and_warns_of_the_weld(run, demo_file, demo_result, grown, tmp_path):
    code, out, _ = run("grow", demo_file, "--after-damage", "--json", tmp_path / "all.json")
    assert code == 0
    assert "growth-counted-twice" in out
    total = json.loads((tmp_path / "all.json").read_text())["whole lives"][0]
    assert total["whole life [repeats]"] == pytest.approx(demo_result.life_of(TOE).life_repeats + grown.life_repeats)


def test_inspections_once_a_year_and_as_often_as_needed(run, demo_file, grown, tmp_path):
    written = ("--json", tmp_path / "i.json", "--csv", tmp_path / "i.csv", "--figures", tmp_path / "f")
    code, out, _ = run("inspections", demo_file, "--every", "1 year", *written)
    assert code == 0
    assert "4 inspections" in out
    record = json.loads((tmp_path / "i.json").read_text())
    rows = list(csv.DictReader((tmp_path / "i.csv").read_text().splitlines()))
    assert [float(row["time [years]"]) for row in rows] == list(range(1, 9))
    assert record["chances"] == sum(row["can be found"] == "True" for row in rows) == 4
    assert record["interval allowed [years]"] == pytest.approx(grown.interval_years)
    lives = [row["life to the limiting size [years]"] for row in record["lives by initial size"]]
    assert lives == sorted(lives, reverse=True)
    assert 0.05 < record["largest initial size that lasts [mm]"] < 0.1
    assert "does not last" in one_line(out)
    assert sorted(path.name for path in (tmp_path / "f").iterdir()) == [
        "initial-size-weld-toe-at-the-grip-head.png",
        "inspections-weld-toe-at-the-grip-head.png",
    ]
    limits = {row["load times"]: row["limiting size [mm]"] for row in record["limits over load"]}
    assert limits[1.0] == pytest.approx(grown.critical.limiting, rel=1e-3)


def test_a_law_from_the_readings_of_the_demo_can_be_put_into_its_study(run, demo_file, tmp_path):
    code, out, _ = run(
        "growth-tests", demo_file.parent / "growth_readings.csv", *PIECE, "--json", tmp_path / "fit.json"
    )
    assert code == 0
    fit = json.loads((tmp_path / "fit.json").read_text())
    assert fit["slope, lower 95 %"] < 2.95 < fit["slope, upper 95 %"]  # what the made-up readings were made with
    assert 2.9e-13 < fit["constant [mm/cycle, MPa√mm]"] < 3.2e-13
    lines = out[out.index("[growth_laws.fitted]") : out.index("no findings")].splitlines()
    section = tomllib.loads("\n".join(line.strip() for line in lines))
    text = demo_file.read_text().replace('law = "steel_in_air"', 'law = "fitted"')
    for key in ("history", "tests", "file"):
        text = text.replace(f'{key} = "', f'{key} = "{demo_file.parent}/')
    fitted = section["growth_laws"]["fitted"]
    text += (
        f'\n[growth_laws.fitted]\nrate = "{fitted["rate"]}"\nslope = {fitted["slope"]}\nr_ratio = {fitted["r_ratio"]}\n'
    )
    (tmp_path / "fitted.toml").write_text(text)
    law = read_study(tmp_path / "fitted.toml").cracks[0].law
    assert law.constant == pytest.approx(fit["upper constant [mm/cycle, MPa√mm]"], rel=1e-5)
    assert law.r_ratio == 0.1


def test_measured_rates_are_fitted_in_any_units(run, tmp_path):
    ranges, rates = (8.0, 12.0, 20.0, 30.0), (1e-5, 4e-5, 2e-4, 7e-4)
    slopes = []
    for k_unit, rate_unit, k_one, rate_one in (
        ("MPa√m", "mm/cycle", 1.0, 1.0),
        ("ksi√in", "in/cycle", 0.910047, 1 / 25.4),
    ):
        path = tmp_path / "rates.csv"
        rows = [f"{k * k_one},{rate * rate_one}" for k, rate in zip(ranges, rates, strict=True)]
        path.write_text("\n".join([f"stress intensity range [{k_unit}],growth rate [{rate_unit}]", *rows]))
        code, out, _ = run("growth-tests", path, "--r-ratio", 0.1, "--json", tmp_path / "fit.json")
        assert code == 0
        assert "few-rates" in out
        fit = json.loads((tmp_path / "fit.json").read_text())
        slopes.append((fit["slope"], math.log10(fit["constant [mm/cycle, MPa√mm]"])))
    assert slopes[0] == pytest.approx(slopes[1], rel=1e-5)
    code, _, _ = run("growth-tests", path, "--r-ratio", 0.1, "--slope", 3, "--json", tmp_path / "fit.json")
    assert (code, json.loads((tmp_path / "fit.json").read_text())["slope"]) == (0, 3.0)


def test_what_if_of_a_crack_gives_lives_of_cracks(run, demo_file, tmp_path):
    key = f"cracks/{TOE}/initial_size"
    code, out, _ = run("what-if", demo_file, key, "0.5 mm", "2 mm", "20 mm", "--json", tmp_path / "w.json")
    assert code == 0
    rows = json.loads((tmp_path / "w.json").read_text())["variants"]
    years = [row["life [years]"] for row in rows]
    assert [row[key] for row in rows if row["base"]] == ["1 mm"]
    assert years == sorted(years, reverse=True)
    assert len(years) == 3
    assert "below 12 mm" in one_line(out)
    code, _, err = run("what-if", demo_file, key, "2 mm", "--spot", "bend of the tube")
    assert code == 2
    assert TOE in one_line(err)


WRONG = {
    "no such crack": (("grow", "DEMO", "--spot", "bore"), TOE),
    "every of nothing": (("inspections", "DEMO", "--every", "0 years"), "a life above 0"),
    "every in newtons": (("inspections", "DEMO", "--every", "3 N"), "a life in one of"),
    "no R": (("growth-tests", "READINGS", *PIECE[2:]), "State r_ratio"),
    "no piece": (("growth-tests", "READINGS", "--r-ratio", 0.1), "the piece and its load"),
    "no unit": (("growth-tests", "READINGS", *PIECE[:-1], "50"), "without a unit"),
    "no method": (("growth-tests", "READINGS", *PIECE, "--method", "spline"), "'secant', 'polynomial'"),
    "no such column": (("growth-tests", "TUBE", "--r-ratio", 0.1), "one of"),
    "no such file": (("growth-tests", "nowhere.csv", "--r-ratio", 0.1), "no such file"),
}


@pytest.mark.parametrize(("arguments", "message"), WRONG.values(), ids=WRONG)
def test_wrong_wishes_are_told_in_a_line_and_nothing_is_written(run, demo_file, tmp_path, arguments, message):
    places = {
        "DEMO": demo_file,
        "READINGS": demo_file.parent / "growth_readings.csv",
        "TUBE": demo_file.parent / "tube_tests.csv",
    }
    code, out, err = run(*(places.get(one, one) for one in arguments), "--json", tmp_path / "x.json")
    assert (code, out) == (2, "")
    assert message in one_line(err)
    assert list(tmp_path.iterdir()) == []


BAD_CELLS = {
    "a word": ("cycles,crack size [mm]\n0,12.5\n1000,many\n", "row 2: found 'many'"),
    "no unit": ("stress intensity range,growth rate [mm/cycle]\n8,1e-5\n9,2e-5\n12,3e-5\n", "a unit in brackets"),
    "stress for K": ("stress intensity range [MPa],growth rate [mm/cycle]\n8,1e-5\n9,2e-5\n", "stress intensity"),
    "one column": ("cycles\n0\n1000\n", "'cycles' and 'crack size [..]'"),
}


@pytest.mark.parametrize(("text", "message"), BAD_CELLS.values(), ids=BAD_CELLS)
def test_bad_cells_of_growth_tests_are_named(run, tmp_path, text, message):
    (tmp_path / "bad.csv").write_text(text)
    code, _, err = run("growth-tests", tmp_path / "bad.csv", *PIECE)
    assert code == 2
    assert message in one_line(err)


def test_files_tell_k_in_the_unit_of_the_screen(run, grown, demo_file, tmp_path):
    code, out, err = run("grow", demo_file, "--json", tmp_path / "a.json")
    assert code == 0, err
    assert "MPa√m" in out
    (crack, *_) = json.loads((tmp_path / "a.json").read_text())["cracks"]
    for row in crack["course"]:
        assert row["largest range of K [MPa√m]"] == pytest.approx(grown.largest_range_k(row["size [mm]"]) / 1000.0**0.5)
    assert not [key for key in crack["course"][0] if key.endswith("sqrt_mm")]
