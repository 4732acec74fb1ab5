"""The shipped data are what the seeded generator makes, and are as the demo says."""

import numpy as np
import pytest

from vivid_anvil.demo import write_demo
from vivid_anvil.demo.larkfell import HISTORIES, write_bar_shell, write_histories, write_leaning, write_two_forces
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import read_csv
from vivid_anvil.models import read_field_hdf5

pytestmark = pytest.mark.slow


def test_the_generator_makes_the_shipped_files(demo_file, tmp_path):
    for made in write_histories(tmp_path):
        ours, shipped = (read_csv(path)["vertical force"].values for path in (made, demo_file.parent / made.name))
        assert ours == pytest.approx(shipped, abs=0.11)  # N: the last digit printed, should a sine differ by a bit


def test_both_forces_of_a_lap_are_made_the_same_way(demo_file, tmp_path):
    ours, shipped = (read_csv(path) for path in (write_two_forces(tmp_path), demo_file.parent / "two_forces_lap.csv"))
    for channel in ("vertical force", "lateral force"):
        assert ours[channel].values == pytest.approx(shipped[channel].values, abs=1.1)
    one = read_csv(demo_file.parent / "loaded_lap.csv")["vertical force"].values[::4]
    assert shipped["vertical force"].values == pytest.approx(one, abs=0.6)
    assert 500.0 < np.abs(shipped["lateral force"].values).max() < 1500.0


def test_leaning_and_the_shell_of_the_bar_are_made_the_same_way(demo_file, tmp_path):
    ours, shipped = (
        read_csv(path)["bar force"] for path in (write_leaning(tmp_path), demo_file.parent / "leaning_lap.csv")
    )
    assert ours.values == pytest.approx(shipped.values, abs=0.11)
    assert -650.0 < shipped.values.min() < -450.0
    assert shipped.values.max() < 60.0
    made, kept = (
        read_field_hdf5(path) for path in (write_bar_shell(tmp_path), demo_file.parent / "safety_bar_shell.h5")
    )
    assert made.dimension == kept.dimension == "section loads"
    assert made.stresses == pytest.approx(kept.stresses, abs=1.1e-4)
    bending = kept.stresses[0, :, 3]
    assert kept.node_sets["clamp"].tolist() == np.flatnonzero(bending == bending.max()).tolist() == [0, 1, 2]


def test_a_lap_is_as_described(demo_file):
    lap = read_csv(demo_file.parent / "loaded_lap.csv")
    force = lap["vertical force"].values / 1000.0
    assert (lap.sample_rate, round(lap.duration)) == (100.0, 480)
    riding = force[4000:44000]
    assert 2.9 < riding.min() < riding.max() < 5.5
    assert len(HISTORIES) == 3
    spectrum = np.abs(np.fft.rfft(riding - riding.mean()))
    peak = np.fft.rfftfreq(riding.size, 0.01)[1 + np.argmax(spectrum[1:])]
    assert peak == pytest.approx(0.25, abs=0.02)


def test_a_folder_that_cannot_be_made_is_named(tmp_path):
    (tmp_path / "file").write_text("")
    with pytest.raises(InputError, match="a folder that can be written"):
        write_demo(tmp_path / "file" / "demo")
