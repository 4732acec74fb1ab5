"""Reading CSV files: what comes in, and the place that each error names."""

import numpy as np
import pytest

from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import read_csv

GOOD = "time [s],vertical force [kN]\n0.00,1.5\n0.01,2.5\n0.02,-1\n"


def written(folder, text, name="lap.csv"):
    path = folder / name
    path.write_bytes(text if isinstance(text, bytes) else text.encode())
    return path


def test_time_column_gives_the_rate_and_units_are_converted(tmp_path):
    history = read_csv(written(tmp_path, GOOD))
    assert (history.name, history.sample_rate, history.duration) == ("lap", 100.0, 0.02)
    assert history["vertical force"].values.tolist() == [1500.0, 2500.0, -1000.0]


@pytest.mark.parametrize(
    ("header", "rate"), [("time [ms]", 100_000.0), ("time [min]", 100.0 / 60.0), ("time [h]", 100.0 / 3600.0)]
)
def test_time_may_be_in_any_unit_of_time(tmp_path, header, rate):
    assert read_csv(written(tmp_path, GOOD.replace("time [s]", header))).sample_rate == pytest.approx(rate)


def test_a_stated_rate_serves_where_there_is_no_time(tmp_path):
    path = written(tmp_path, "moment [N*m],stress [ksi]\n1,2\n3,4\n")
    history = read_csv(path, sample_rate="0.2 kHz", name="bench")
    assert (history.name, history.sample_rate) == ("bench", 200.0)
    assert history["moment"].values.tolist() == [1000.0, 3000.0]
    assert history["stress"].values == pytest.approx([13.789514586, 27.579029173])


FORMS = {
    "semicolon and decimal comma": "time [s];vertical force [kN]\n0,00;1,5\n0,01;2,5\n0,02;-1\n",
    "tab and decimal comma": "time [s]\tvertical force [kN]\n0,00\t1,5\n0,01\t2,5\n0,02\t-1\n",
    "comments and blanks": "# recorded on the slope\n\n// by hand\n" + GOOD.replace(",", " , "),
    "date-times": GOOD.replace("time [s]", "time").replace("0.0", "2026-03-01 08:00:00.0"),
    "utf-16": ("\ufeff" + GOOD).encode("utf-16-le"),
    "latin letters": GOOD.replace("time [s]", "# Lärkfäll\ntime [s]").encode("cp1252"),
    "a quoted header": GOOD.replace("vertical force [kN]", '"vertical force [kN]"'),
}


@pytest.mark.parametrize("text", FORMS.values(), ids=FORMS)
def test_the_form_of_the_file_is_detected(tmp_path, text):
    history = read_csv(written(tmp_path, text))
    assert history.sample_rate == 100.0
    assert history["vertical force"].values.tolist() == [1500.0, 2500.0, -1000.0]


def test_the_form_and_the_units_can_be_given(tmp_path):
    text = "machine 7\ntime;vertical force\n0;1,5\n10;2,5\n20;-1\n"
    settings = {"delimiter": "semicolon", "decimal": ",", "encoding": "ascii", "header_line": 2}
    history = read_csv(written(tmp_path, text), units={"time": "ms", "vertical force": "kN"}, **settings)
    assert history["vertical force"].values.tolist() == [1500.0, 2500.0, -1000.0]
    with pytest.raises(InputError, match="'comma', 'semicolon', 'tab'"):
        read_csv(tmp_path / "lap.csv", delimiter=";")
    with pytest.raises(InputError, match="a header in line 9"):
        read_csv(tmp_path / "lap.csv", header_line=9)
    with pytest.raises(InputError, match="not ascii"):
        read_csv(written(tmp_path, "time [s],f [µm]\n0,1\n"), encoding="ascii")


def test_a_byte_order_mark_and_quotes_and_windows_lines_are_read(tmp_path):
    text = '\ufeff"time [s]","force [kN]"\r\n0,1\r\n0.5,2\r\n'
    assert read_csv(written(tmp_path, text)).sample_rate == 2.0


BAD = {
    "no unit": (GOOD.replace(" [kN]", ""), "line 1, column 2", "without a unit"),
    "no header": ("0.00,1.5\n0.01,2.5\n", "line 1, column 1", "the number '0.00'"),
    "unknown unit": (GOOD.replace("kN", "kM"), "line 1, column 2", "unknown unit 'kM'"),
    "unit of nothing": (GOOD.replace("kN", "Hz/s"), "line 1, column 2", "Hz/s"),
    "text": (GOOD.replace("2.5", "n/a"), "line 3, column 'vertical force [kN]'", "'n/a'"),
    "gap": (GOOD.replace("2.5", ""), "line 3, column 'vertical force [kN]'", "an empty cell"),
    "no date-time": (GOOD.replace("time [s]", "time"), "line 2, column 'time'", "a date and time"),
    "nan": (GOOD.replace("2.5", "nan"), "line 3, column 'vertical force [kN]'", "nan"),
    "infinite": (GOOD.replace("2.5", "inf"), "line 3, column 'vertical force [kN]'", "inf"),
    "decimal comma": (GOOD.replace("2.5", "2,5"), "line 3", "3 columns"),
    "short row": (GOOD.replace("0.01,2.5", "0.01"), "line 3", "1 columns"),
    "empty line": (GOOD.replace("0.01,2.5", ""), "line 3", "an empty line"),
    "same time": (GOOD.replace("0.01", "0.00"), "column time, line 3", "the same time twice"),
    "falling time": (GOOD.replace("0.02", "0.005"), "column time, line 4", "a time before"),
    "unequal steps": (GOOD.replace("0.02", "0.03"), "column time, line 3", "equal steps"),
    "one sample": ("time [s],force [kN]\n0,1\n", "lap.csv", "1 row"),
    "no rows": ("time [s],force [kN]\n", "lap.csv", "no rows"),
    "empty file": ("", "lap.csv", "an empty file"),
    "only time": ("time [s]\n0\n1\n", "lap.csv", "only a time column"),
    "twice the same name": (GOOD.replace("time [s]", "vertical force [N]"), "line 1", "a second column named"),
    "no time and no rate": (GOOD.replace("time [s]", "sway [deg]"), "lap.csv", "no sample rate"),
    "not text": (b"\x00\x01\x02", "lap.csv", "no text"),
}


@pytest.mark.parametrize(("text", "place", "found"), BAD.values(), ids=BAD)
def test_a_bad_file_is_refused_with_its_place(tmp_path, text, place, found):
    with pytest.raises(InputError) as caught:
        read_csv(written(tmp_path, text))
    assert place in caught.value.where
    assert found in str(caught.value)
    assert caught.value.expected


def test_missing_files_and_folders_are_named(tmp_path):
    for path, found in ((tmp_path / "none.csv", "no such file"), (tmp_path, "a folder")):
        with pytest.raises(InputError, match=found):
            read_csv(path)


def test_a_stated_rate_must_agree_with_the_time_column(tmp_path):
    path = written(tmp_path, GOOD)
    assert read_csv(path, sample_rate=100.5).sample_rate == 100.5
    with pytest.raises(InputError, match="the stated sample rate of 200 Hz"):
        read_csv(path, sample_rate=200.0)


def test_missing_samples_are_named(tmp_path):
    rows = "\n".join(f"{i / 100:.2f},{i}" for i in range(500) if i not in (250, 251))
    with pytest.raises(InputError, match=r"column time, line 252: .*2 samples seem to be missing"):
        read_csv(written(tmp_path, f"time [s],force [N]\n{rows}\n"))


def test_times_with_few_digits_are_still_even(tmp_path):
    rows = "\n".join(f"{i / 128:.5f},{np.sin(i):.3f}" for i in range(1000))
    assert read_csv(written(tmp_path, f"time [s],force [N]\n{rows}\n")).sample_rate == pytest.approx(128.0, rel=1e-5)


def test_an_unknown_channel_suggests_the_nearest(tmp_path):
    history = read_csv(written(tmp_path, GOOD))
    with pytest.raises(InputError, match="Did you mean 'vertical force'"):
        history["Vertical Force"]
