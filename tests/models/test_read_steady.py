"""Complex stresses over frequency from every file that may hold them: the same field, and the same life of a study."""

import h5py
import numpy as np
import pandas as pd
import pytest

from vivid_anvil import InputError
from vivid_anvil.models import read_steady
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.study import read_study, run_model

LINES = np.array([20.0, 60.0, 90.0, 140.0])
NODES = np.array([3, 8])
PLACES = np.array([[0.0, 0.0, 0.0], [4.0, 0.0, 2.0]])
WAYS = ("cartesian.csv", "polar.csv", "polar.xlsx", "cartesian.parquet", "complex.h5", "polar.h5")


def stresses():
    random = np.random.default_rng(11)
    return random.normal(0.0, 30.0, (4, 2, 6)) + 1j * random.normal(0.0, 30.0, (4, 2, 6))


def written(path, values, way):
    """The stresses in a file of this kind; in ksi and inches where polar, so that units count."""
    polar = way.startswith("polar")
    first, second = (np.abs(values) / 6.894757293168361, np.angle(values, deg=True)) if polar else (values.real, None)
    if path.suffix == ".h5":
        with h5py.File(path, "w") as file:
            file["node"], file["coordinates"], file["frequency"] = NODES, PLACES / 1000.0, LINES / 1000.0
            file["stresses"] = first if polar else values
            if polar:
                file["phases"] = np.radians(second)
            units = {"coordinates": "m", "frequency": "kHz", "stresses": "ksi" if polar else "MPa", "phases": "rad"}
            for name, unit in units.items():
                if name in file:
                    file[name].attrs["unit"] = unit
        return path
    frames = []
    for i in np.random.default_rng(2).permutation(LINES.size):
        own = {
            "node": NODES,
            **{f"{one} [mm]": PLACES[:, j] for j, one in enumerate("xyz")},
            "frequency [Hz]": LINES[i],
        }
        for j, one in enumerate(COMPONENTS):
            if polar:
                own |= {f"{one} amplitude [ksi]": first[i, :, j], f"{one} phase [deg]": second[i, :, j]}
            else:
                own |= {f"{one} real [MPa]": values[i, :, j].real, f"{one} imaginary [MPa]": values[i, :, j].imag}
        frames.append(pd.DataFrame(own))
    whole = pd.concat(frames)
    if path.suffix == ".xlsx":
        whole.to_excel(path, index=False)
    elif path.suffix == ".parquet":
        whole.to_parquet(path)
    else:
        whole.to_csv(path, index=False)
    return path


@pytest.mark.parametrize("way", WAYS)
def test_every_file_gives_the_same_lines(way, tmp_path):
    values = stresses()
    found = read_steady(written(tmp_path / way, values, way))
    assert found.frequency == pytest.approx(LINES, rel=1e-12)
    assert found.field.coordinates == pytest.approx(PLACES)
    assert found.field.cases[:3] == ("20 Hz, real", "20 Hz, imaginary", "60 Hz, real")
    assert found.field.stresses[0::2] == pytest.approx(values.real, rel=1e-12, abs=1e-12)
    assert found.field.stresses[1::2] == pytest.approx(values.imag, rel=1e-12, abs=1e-12)


STUDY = """
format = 2
title = "Bracket"
target_life = "30 years"
[duty_cycle]
repeat = "day"
repeats_per_year = 320
[[duty_cycle.events]]
name = "test"
channel = "tower head"
dwells = [["60 Hz", "2 g", "20 s"]]
[materials.plate_steel]
card = "structural-steel-355"
[sn_curves.bend]
standard = "EN 1993-1-9"
class = 125
[model]
stresses = "{file}"
steady_state = {{ channel = "tower head", per = "1 g" }}
material = "plate_steel"
sn_curve = "bend"
measure = "component xx"
"""


@pytest.mark.parametrize("way", ["polar.csv", "complex.h5"])
def test_a_study_takes_them_and_a_dwell_has_the_amplitude_of_its_line(way, tmp_path, run):
    values = stresses()
    written(tmp_path / way, values, way)
    path = tmp_path / "study.toml"
    path.write_text(STUDY.format(file=way))
    result = run_model(read_study(path))
    assert result.values.highest == pytest.approx(2.0 * np.abs(values[1, :, 0]))
    assert (result.values.damage > 0.0).all()
    code, out, _ = run("model", path, "--node", 8)
    assert code == 0
    assert "60" in out
    path.write_text(STUDY.format(file=way).replace("material =", 'component_order = "xx yy zz"\nmaterial =', 1))
    with pytest.raises(InputError, match="component_order"):
        run_model(read_study(path))


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda frame: frame.drop(columns="zx phase [deg]"), "zx phase"),
        (lambda frame: frame.drop(columns="frequency [Hz]"), "frequency"),
        (lambda frame: frame.rename(columns={"xx phase [deg]": "xx phase"}), "no unit"),
        (lambda frame: frame.rename(columns={"xx phase [deg]": "xx phase [MPa]"}), "MPa"),
        (lambda frame: frame.assign(**{"load case": "a"}), "beside frequencies"),
        (lambda frame: frame.iloc[1:], "same"),
        (
            lambda frame: frame.assign(**{name: np.radians(frame[name]) for name in frame if "phase" in name}),
            "look like radians",
        ),
        (lambda frame: frame.assign(**{"xx amplitude [ksi]": -1.0}), "not in dB"),
    ],
)
def test_a_table_that_is_not_whole_is_told(change, words, tmp_path):
    path = written(tmp_path / "polar.csv", stresses(), "polar.csv")
    change(pd.read_csv(path)).to_csv(path, index=False)
    with pytest.raises(InputError, match=words):
        read_steady(path)


def test_a_file_with_units_takes_none_and_one_without_needs_both(tmp_path):
    path = written(tmp_path / "polar.csv", stresses(), "polar.csv")
    with pytest.raises(InputError, match="none: the file says it itself"):
        read_steady(path, stress_unit="MPa")
    with pytest.raises(InputError, match="as the file carries none"):
        read_steady("tests/models/data/steady_state.frd", stress_unit="MPa")
    with h5py.File(written(tmp_path / "polar.h5", stresses(), "polar.h5"), "a") as file:
        del file["phases"]
    with pytest.raises(InputError, match="real numbers alone"):
        read_steady(tmp_path / "polar.h5")
