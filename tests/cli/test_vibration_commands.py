"""The commands vibration and tailor: on a study, a PSD, a response, a history; what they refuse."""

import json
from pathlib import Path

import numpy as np
import pandas as pd
import pytest

STUDY = """format = 2
title = "Bracket"
target_life = "2 years"

[duty_cycle]
repeat = "day"
repeats_per_year = 300

[[duty_cycle.events]]
name = "running"
channel = "base"
psd = [["5 Hz", "0.001 g^2/Hz"], ["40 Hz", "0.004 g^2/Hz"], ["300 Hz", "0.004 g^2/Hz"]]
exposure = "8 h"

[[duty_cycle.events]]
name = "run-up"
channel = "base"
sweep = ["10 Hz", "120 Hz"]
profile = "0.4 g"
rate = "2 octave/min"

[[duty_cycle.events]]
name = "dwell"
channel = "base"
dwells = [["70 Hz", "0.2 g", "5 min"]]

[materials.steel]
ultimate_strength = "510 MPa"
yield_strength = "355 MPa"

[sn_curves.weld]
stress = "range"
r_ratio = "any"
knee_stress = "52 MPa"
knee_life = 5e6
slope = 3
slope_below = 5

[[hot_spots]]
name = "foot"
material = "steel"
sn_curve = "weld"

[hot_spots.responses.base]
kind = "one degree of freedom"
natural_frequency = "70 Hz"
stress_per_acceleration = "3 MPa/g"
damping_ratio = 0.02
"""
pytestmark = pytest.mark.usefixtures("folder")


@pytest.fixture
def folder(tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    Path("study.toml").write_text(STUDY)
    pd.DataFrame({"frequency [Hz]": [10.0, 40.0, 400.0], "base [g^2/Hz]": [0.01, 0.04, 0.04]}).to_csv(
        "spec.csv", index=False
    )
    f = np.linspace(5.0, 300.0, 600)
    h = 3.0 / (1.0 - (f / 70.0) ** 2 + 0.04j * f / 70.0)
    pd.DataFrame({"frequency [Hz]": f, "real [MPa/g]": h.real, "imaginary [MPa/g]": h.imag}).to_csv(
        "arm.csv", index=False
    )
    values = np.random.default_rng(1).standard_normal(20_000) + np.sin(2.0 * np.pi * 30.0 * np.arange(20_000) / 500.0)
    pd.DataFrame({"time [s]": np.arange(20_000) / 500.0, "base [g]": values}).to_csv("run.csv", index=False)


def test_a_study_is_looked_at_before_any_life(run):
    code, out, err = run("vibration", "study.toml", "--synthesis", "60 s", "--json", "a.json", "--csv", "a.csv")
    assert code == 0, err
    for word in ("Resonances", "dirlik", "counted synthesis", "Bands", "Dwells and sweeps", "Magnif."):
        assert word in out
    record = json.loads(Path("a.json").read_text())
    response, view = record["vibration"]
    assert response["resonances"][0]["natural frequency [Hz]"] == 70.0
    formulas = {row["formula"]: row for row in view["formulas"]}
    assert formulas["narrow band"]["damage a second"] >= formulas["tovo-benasciutti"]["damage a second"]
    life = json.loads(Path("life.json").read_text()) if run("life", "study.toml", "--json", "life.json")[0] == 0 else {}
    events = {row["event"]: row for row in life["lives"][0]["events"]}
    assert formulas["dirlik"]["damage a second"] * 8 * 3600 == pytest.approx(events["running"]["damage per repeat"])
    dwell = next(row for row in record["Dwells and sweeps, foot"] if row["what"] == "dwell")
    assert dwell["cycles"] == 21000.0
    assert dwell["stress range [MPa]"] == pytest.approx(2.0 * dwell["stress amplitude [MPa]"])
    assert dwell["magnification"] == pytest.approx(np.sqrt(1.0 + 0.04**2) / 0.04, rel=1e-9)


def test_leaving_out_the_band_of_the_resonance_takes_most_of_the_damage(run):
    assert run("vibration", "study.toml", "--json", "a.json")[0] == 0
    bands = json.loads(Path("a.json").read_text())["vibration"][1]["bands"]
    worst = max(bands, key=lambda row: row["damage less without"])
    assert worst["from [Hz]"] < 70.0 < worst["to [Hz]"]
    assert sum(row["mean square"] for row in bands) == pytest.approx(1.0, abs=1e-9)


@pytest.mark.parametrize("options", [["spec.csv", "--exposure", "8 h"], ["arm.csv"], ["run.csv", "--segment", "2 s"]])
def test_a_file_says_itself_what_it_holds(run, options):
    code, out, err = run("vibration", *options, "--figures", "figures", "--json", "a.json")
    assert code == 0, err
    assert list(Path("figures").glob("*.png"))
    assert {"spec.csv": "Expected cycles", "arm.csv": "Resonances", "run.csv": "tone-in-psd"}[options[0]] in out


def test_a_tailored_test_covers_and_a_weak_one_does_not(run):
    asked = ["tailor", "study.toml", "--time", "24 h", "--slope", "5", "--from", "15 Hz", "--to", "250 Hz"]
    code, out, err = run(
        *asked, "--against", "spec.csv", "--against-time", "1 min", "--json", "a.json", "--figures", "f"
    )
    assert code == 0, err
    test, own, parts, given = json.loads(Path("a.json").read_text())["results"]
    (row,) = parts["hot spots"]
    assert row["test over service"] == pytest.approx(row["used by the test"] / row["used by the service"])
    assert "The test on the part" in out
    assert test["smallest damage ratio"] >= 1.0 - 1e-9
    assert {row["verdict"] for row in own["bands"]} <= {"covered", "too hard"}
    assert "not covered" in {row["verdict"] for row in given["bands"]}
    assert "Raise its level" in out
    assert len(list(Path("f").glob("*.png"))) == 3


def test_a_history_and_a_psd_are_services_too(run):
    asked = ["--time", "1 h", "--slope", "6", "--from", "15 Hz", "--to", "200 Hz"]
    assert run("tailor", "run.csv", "--exposure", "40 h", *asked)[0] == 0
    assert run("tailor", "spec.csv", "--exposure", "40 h", *asked)[0] == 0
    code, _, err = run("tailor", "spec.csv", *asked)
    assert code == 2
    assert "how long the PSD acts" in " ".join(err.split())


@pytest.mark.parametrize(
    ("options", "message"),
    [
        (["study.toml", "--spot", "food"], "Did you mean 'foot'"),
        (["study.toml", "--event", "runing"], "Did you mean 'running'"),
        (["run.csv"], "Add for instance --segment"),
        (["run.csv", "--segment", "90 s"], "For 20 averages take"),
        (["spec.csv", "--slope", "-3"], "above 0"),
        (["spec.csv", "--channel", "bas"], "Did you mean 'base'"),
    ],
)
def test_what_cannot_be_looked_at_is_told(run, options, message):
    code, out, err = run("vibration", *options)
    assert (code, out) == (2, "")
    assert message in " ".join(err.split())


def test_a_psd_of_a_history_is_an_event(run):
    """Half of the noise and the tone go through the resonance: the life is that of the PSD that estimates it."""
    rows = 'psd = [["5 Hz", "0.001 g^2/Hz"], ["40 Hz", "0.004 g^2/Hz"], ["300 Hz", "0.004 g^2/Hz"]]'
    Path("study.toml").write_text(
        STUDY.replace(rows, 'psd = { history = "run.csv", segment = "2 s", window = "hann" }')
    )
    code, out, err = run("life", "study.toml", "--json", "a.json")
    assert code == 0, err
    assert "running" in out
    code, out, err = run("explain", "study.toml", "--event", "running")
    assert code == 0, err
    assert "Spectral moment m0" in out
    assert "Damage a second while running acts" in out
