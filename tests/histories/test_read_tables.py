"""Binary and workbook files: what is written reads back equal, and what cannot be read names its place."""

import h5py
import numpy as np
import openpyxl
import pyarrow as pa
import pytest
from asammdf import MDF, Signal
from hypothesis import given
from hypothesis import strategies as st
from pyarrow import parquet

from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory, read_history, write_history

FORCE = [1500.0, 2500.0, -1000.0, 0.0]


@pytest.mark.slow
@given(
    st.lists(st.floats(-1e9, 1e9), min_size=2, max_size=30),
    st.sampled_from([".csv", ".parquet", ".h5"]),
    st.sampled_from([0.5, 100.0, 1000.0 / 3.0, 51200.0]),
)
def test_what_is_written_reads_back_equal(tmp_path_factory, values, ending, rate):
    path = tmp_path_factory.mktemp("written") / f"lap{ending}"
    sway = Channel("sway", np.array(values[::-1]), "angle")
    history = LoadHistory("lap", (Channel("vertical force", np.array(values), "force"), sway), rate)
    again = read_history(write_history(history, path))
    assert again.sample_rate == pytest.approx(rate, rel=1e-8)
    for one in history.channels:
        assert again[one.name].values.tolist() == one.values.tolist()
        assert again[one.name].dimension == one.dimension
    assert [item.name for item in path.parent.iterdir()] == [path.name]


def workbook(path, rows, sheet="measured"):
    book = openpyxl.Workbook()
    book.active.title = "notes"
    page = book.create_sheet(sheet)
    for row in rows:
        page.append(row)
    book.save(path)
    return path


ROWS = [["time [s]", "force [kN]"], [0.0, 1.5], [0.01, 2.5], [0.02, -1.0], [0.03, 0.0]]


def test_a_sheet_of_a_workbook_is_read(tmp_path):
    path = workbook(tmp_path / "lap.xlsx", [["a title"], *ROWS])
    history = read_history(path, sheet="measured", header_row=2)
    assert history.sample_rate == 100.0
    assert history["force"].values.tolist() == FORCE


@pytest.mark.parametrize(
    ("rows", "how", "found"),
    [
        (ROWS, {"sheet": "measure"}, "Did you mean 'measured'"),
        (ROWS, {"sheet": 7}, "no sheet 7"),
        (ROWS, {}, "sheet notes: found no rows"),
        ([ROWS[0], [0, "n/a"], [1, 2]], {"sheet": 1}, "sheet measured, row 2, column 'force': found 'n/a'"),
        ([ROWS[0], [0, 1], [1, None], [2, 2]], {"sheet": 1}, "row 3, column 'force': found an empty cell"),
        (
            [["time [s]", "force"], [0, 1], [1, 2]],
            {"sheet": 1},
            "sheet measured, row 1, column 2: found the header 'force'",
        ),
        (ROWS, {"dataset": "x"}, "a setting that Excel files do not have"),
    ],
)
def test_a_fault_in_a_workbook_is_placed(tmp_path, rows, how, found):
    with pytest.raises(InputError) as caught:
        read_history(workbook(tmp_path / "lap.xlsx", rows), **how)
    assert found in str(caught.value)
    assert "lap.xlsx" in caught.value.where


def test_numpy_files_need_unit_and_rate(tmp_path):
    path = tmp_path / "lap.npy"
    np.save(path, np.array(FORCE) / 1000.0)
    assert read_history(path, unit="kN", sample_rate="100 Hz")["load"].values.tolist() == FORCE
    for how, found in (({"sample_rate": 100.0}, "no unit"), ({"unit": "kN"}, "no sample rate")):
        with pytest.raises(InputError, match=found):
            read_history(path, **how)
    for bad, found in (
        (np.ones((2, 2)), "shape"),
        (np.array([1 + 1j, 2]), "complex"),
        (np.array([{}, {}]), "no array of numbers"),
    ):
        np.save(path, bad)
        with pytest.raises(InputError, match=found):
            read_history(path, unit="kN", sample_rate=100.0)


def test_hdf5_groups_and_datasets_are_read(tmp_path):
    path = tmp_path / "runs.h5"
    with h5py.File(path, "w") as file:
        group = file.create_group("run 1")
        group.attrs["sample_rate"] = "100 Hz"
        group.create_dataset("force [kN]", data=np.array(FORCE) / 1000.0)
        group.create_dataset("sway", data=np.zeros(4)).attrs["unit"] = "deg"
        file.create_dataset("bare", data=np.zeros(4))
        file.create_dataset("short [N]", data=np.zeros(3))
    history = read_history(path, dataset="run 1")
    assert history["force"].values.tolist() == FORCE
    assert read_history(path, dataset="run 1/sway", sample_rate=5.0)["sway"].dimension == "angle"
    for how, found in (
        ({"dataset": "run 2"}, "Did you mean 'run 1'"),
        ({"dataset": "bare", "sample_rate": 1.0}, "without a unit"),
        ({"units": {"bare": "kN"}, "sample_rate": 1.0}, "datasets of"),
        ({"dataset": "run 1/force [kN]"}, "no sample rate"),
    ):
        with pytest.raises(InputError, match=found):
            read_history(path, **how)


def test_parquet_columns_are_chosen_and_checked(tmp_path):
    path = tmp_path / "lap.parquet"
    columns = {
        "time [s]": [0.0, 0.01, 0.02, 0.03],
        "force [kN]": [1.5, 2.5, -1.0, 0.0],
        "gap [N]": [1.0, None, 2.0, 3.0],
        "note [N]": list("abcd"),
    }
    parquet.write_table(pa.table(columns), path)
    assert read_history(path, columns=["time", "force"])["force"].values.tolist() == FORCE
    for names, found in (
        (["time", "gap"], "1 missing values"),
        (["time", "note"], "values of type string"),
        (["farce"], "Did you mean 'force'"),
    ):
        with pytest.raises(InputError, match=found):
            read_history(path, columns=names)


def test_mdf_signals_of_one_rate_are_read(tmp_path):
    path = tmp_path / "lap.mf4"
    time = np.arange(4) / 100.0
    with MDF() as file:
        file.append([Signal(np.array(FORCE), time, unit="N", name="force")])
        file.append([Signal(np.zeros(2), time[:2], unit="deg", name="sway")])
        file.save(path)
    assert read_history(path, channels=["force"])["force"].values.tolist() == FORCE
    with pytest.raises(InputError, match="signals of one rate"):
        read_history(path)


@pytest.mark.parametrize("ending", [".parquet", ".h5", ".npy", ".xlsx", ".mf4"])
def test_a_file_cut_short_or_of_another_kind_is_refused(tmp_path, ending):
    path = tmp_path / f"cut{ending}"
    history = LoadHistory("lap", [Channel("force", np.array(FORCE * 50), "force")], 100.0)
    if ending in (".parquet", ".h5"):
        write_history(history, path)
        path.write_bytes(path.read_bytes()[:-300])
    else:
        path.write_bytes(b"not at all what it says")
    with pytest.raises(InputError, match=f"cut{ending}"):
        read_history(path, **({"unit": "N", "sample_rate": 1.0} if ending == ".npy" else {}))


def test_an_encrypted_workbook_is_named(tmp_path):
    path = tmp_path / "secret.xlsx"
    path.write_bytes(b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + bytes(600))
    with pytest.raises(InputError, match="encrypted"):
        read_history(path)


def test_writing_refuses_unknown_endings_and_places(tmp_path):
    history = LoadHistory("lap", [Channel("force", np.array(FORCE), "force")], 100.0)
    with pytest.raises(InputError, match=r"one of '\.csv', '\.parquet'"):
        write_history(history, tmp_path / "lap.xyz")
    with pytest.raises(InputError, match="can be written"):
        write_history(history, tmp_path / "none" / "lap.csv")
    assert list(tmp_path.iterdir()) == []
