"""Tables in text files and workbooks, tables of keys in TOML, temperatures: what all readers share."""

import pandas as pd
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import read_toml
from vivid_anvil.units import DIMENSIONS, celsius
from vivid_anvil.units.sections import KINDS, checked
from vivid_anvil.writing.read_table import headers, read_frame

ROWS = [("a", 1.5), ("b", 2.25)]
FORMS = {
    "comma": "name,force [kN]\na,1.5\nb,2.25\n",
    "semicolon": "name;force [kN]\na;1,5\nb;2,25\n",
    "tab": "name\tforce [kN]\na\t1.5\nb\t2.25\n",
    "comments": "# made up\nname, force [kN]\na, 1.5\n# a pause\nb, 2.25\n",
    "mark at the start": "\ufeffname,force [kN]\na,1.5\nb,2.25\n",
}


@pytest.mark.parametrize("text", FORMS.values(), ids=FORMS)
def test_every_form_of_a_table_reads_alike(tmp_path, text):
    (tmp_path / "t.csv").write_text(text, encoding="utf-8")
    frame, where = read_frame(tmp_path / "t.csv")
    assert where == "t.csv"
    assert [cell.strip() for cell in frame.columns] == ["name", "force [kN]"]
    assert [tuple(row) for row in frame.itertuples(index=False)] == ROWS


def test_a_sheet_is_chosen_by_name(tmp_path):
    with pd.ExcelWriter(tmp_path / "t.xlsx") as book:
        pd.DataFrame({"x": [1]}).to_excel(book, sheet_name="first", index=False)
        pd.DataFrame(ROWS, columns=["name", "force [kN]"]).to_excel(book, sheet_name="second", index=False)
    frame, where = read_frame(tmp_path / "t.xlsx", "second")
    assert where == "t.xlsx, sheet second"
    assert frame["force [kN]"].tolist() == [1.5, 2.25]
    with pytest.raises(InputError, match="one of 'first', 'second'"):
        read_frame(tmp_path / "t.xlsx", "third")


BAD_TABLES = {
    "empty": (b"", "0 rows"),
    "header only": (b"a,b\n", "1 rows"),
    "latin": ("a,ä\n1,2\n".encode("latin-1"), "UTF-8"),
    "ragged": (b"a,b\n1,2\n1,2,3,4\n", "as many cells"),
    "twice": (b"a,a\n1,2\n", "each column once"),
}


@pytest.mark.parametrize(("content", "message"), BAD_TABLES.values(), ids=BAD_TABLES)
def test_a_table_that_cannot_be_read_is_refused(tmp_path, content, message):
    (tmp_path / "t.csv").write_bytes(content)
    with pytest.raises(InputError, match=message):
        read_frame(tmp_path / "t.csv")
    with pytest.raises(InputError, match="expected a sheet of rows"):
        read_frame(tmp_path / "none.csv", what="a sheet of rows")


@given(st.sampled_from(sorted(set(DIMENSIONS) - {"number"})), st.floats(0.001, 1e6))
def test_a_quantity_needs_its_unit_and_keeps_its_value(dimension, value):
    unit = DIMENSIONS[dimension].coherent
    assert checked({"key": f"{value!r} {unit}"}, {"key": dimension}, "t")["key"] == pytest.approx(value, rel=1e-12)
    with pytest.raises(InputError, match=r"t, key: found .* without a unit"):
        checked({"key": value}, {"key": dimension}, "t")


WRONG = {
    "text": 5,
    "a number": "5",
    "numbers": 5.0,
    "number or text": [5],
    "table": "x",
    "points": [["400 MPa"]],
    "temperature": 20.0,
}


@pytest.mark.parametrize(("kind", "value"), WRONG.items(), ids=WRONG)
def test_a_value_of_the_wrong_kind_names_its_key(kind, value):
    with pytest.raises(InputError, match="table, key"):
        checked({"key": value}, {"key": kind}, "table")
    assert set(WRONG) == set(KINDS) - {"anything"}


def test_unknown_and_missing_keys_are_named():
    with pytest.raises(InputError, match=r"t, slop: found an unknown key, .* Did you mean 'slope'"):
        checked({"slop": 3}, {"slope": "a number"}, "t")
    with pytest.raises(InputError, match="the key 'slope'"):
        checked({}, {"slope": "a number"}, "t", ("slope",))


def test_headers_and_toml_say_what_is_wrong(tmp_path):
    with pytest.raises(InputError, match="column 1: found the number '300'"):
        headers(["300"], lambda i: f"column {i + 1}")
    (tmp_path / "t.toml").write_text("a = MPa\n")
    with pytest.raises(InputError, match=r"t.toml: found text that is not TOML"):
        read_toml(tmp_path / "t.toml")


@given(st.floats(-200.0, 2000.0))
def test_the_scales_of_temperature_agree(degrees):
    assert celsius(f"{degrees * 1.8 + 32.0:.9f} °F") == pytest.approx(degrees, abs=1e-8)
    assert celsius(f"{degrees + 273.15:.9f} K") == pytest.approx(degrees, abs=1e-8)
    assert celsius(degrees) == degrees
