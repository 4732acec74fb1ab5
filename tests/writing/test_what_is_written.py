"""Numbers, tables and records on their way out: nothing is lost or added between the result, the page and the file."""

import csv
import html.parser
import io
import json
import math
import re

import numpy as np
import pandas as pd
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vivid_anvil.units import DIMENSIONS, UNIT_SYSTEMS, display_unit, fixed, number, shown
from vivid_anvil.writing.latex import latex
from vivid_anvil.writing.plain import plain
from vivid_anvil.writing.table import Column, Table, as_table, stacked
from vivid_anvil.writing.working import Step, Working, put_in

SIZES = st.floats(1e-300, 1e300) | st.floats(-1e6, -1e-6) | st.floats(1e-3, 1e4)
WORDS = st.text("abc ä<>&\"'√,;\n", max_size=12)


@given(value=SIZES, digits=st.integers(2, 9))
def test_a_number_is_right_to_its_last_digit(value, digits):
    for text in (number(value, digits), fixed(value, digits)):
        assert float(text) == pytest.approx(value, rel=0.5001 * 10.0 ** (1 - digits))
    assert float(number(value, digits)) == float(fixed(value, digits))
    mantissa = number(value, digits).partition("e")[0]
    assert not ("." in mantissa and mantissa.endswith("0"))


@given(value=st.floats(1e-3, 1e5))
def test_more_digits_only_add_digits(value):
    errors = [abs(float(number(value, digits)) - value) for digits in (3, 6, 9, 12)]
    assert errors[0] <= 0.5001e-2 * value
    assert errors[-1] <= 1e-11 * value
    assert put_in(-value) == f"(-{put_in(value)})"


@pytest.mark.parametrize(("value", "text"), [(math.inf, "no limit"), (-math.inf, "-inf"), (0.0, "0"), (-0.0, "0")])
def test_what_is_no_size_is_said_in_words(value, text):
    assert number(value) == fixed(value) == text


@settings(max_examples=60)
@given(
    st.recursive(
        st.none() | st.booleans() | st.integers(-(2**40), 2**40) | st.floats() | WORDS,
        lambda inner: st.lists(inner, max_size=3) | st.dictionaries(WORDS, inner, max_size=3),
        max_leaves=12,
    )
)
def test_a_record_goes_through_json_and_comes_back(value):
    record = plain(value)
    assert json.loads(json.dumps(record, allow_nan=False)) == record
    assert plain(record) == record


def test_arrays_are_lists_and_what_json_lacks_is_said():
    found = plain(
        {"a": np.array([1.0, np.inf, np.nan, -np.inf]), "b": np.float64(2.0), "c": (np.int64(1), np.bool_(True))}
    )
    assert found == {"a": [1.0, "inf", None, "-inf"], "b": 2.0, "c": [1, True]}
    assert all(type(one) in (int, bool) for one in found["c"])


def table_of(names, stresses, counts, kept=None):
    return Table(
        "Stresses <b>",
        (
            Column("place", names, head="Place"),
            Column(
                "peak stress", np.array(stresses), of="stress", head="Peak", alarm=[one > 100.0 for one in stresses]
            ),
            Column("cycles", counts, rest="sum"),
            Column("largest", stresses, of="stress", rest="largest"),
            Column("share", [one / (1.0 + max(stresses)) for one in stresses], style="bar", only="page"),
            Column("note", ["x"] * len(names), only="file"),
        ),
        key="stresses",
        note="at the root & the toe",
        kept=kept,
        others="{} others",
    )


ROWS = st.lists(st.tuples(WORDS, st.floats(0.1, 500.0), st.integers(0, 1000)), min_size=1, max_size=8)


@given(rows=ROWS)
def test_a_file_holds_every_row_and_a_page_the_same_in_the_units_of_its_reader(rows):
    names, stresses, counts = map(list, zip(*rows, strict=True))
    table = table_of(names, stresses, counts)
    assert len(table) == len(rows)
    assert list(table.rows()[0]) == ["place", "peak stress [MPa]", "cycles", "largest [MPa]", "note"]
    assert [row["peak stress [MPa]"] for row in table.rows()] == stresses
    assert table.to_frame().to_dict("records") == table.rows()
    for units in UNIT_SYSTEMS:
        page = table.on_page(units)
        assert page.heads[1] == f"Peak [{display_unit('stress', units)}]"
        assert len(page.rows) == len(rows)
        written = [float(row[1]) for row in page.rows]
        assert written == pytest.approx(shown(np.array(stresses), "stress", units).tolist(), rel=6e-4)
        assert page.bad == {(i, 1) for i, one in enumerate(stresses) if one > 100.0}


@given(rows=ROWS, data=st.data())
def test_rows_that_a_page_leaves_out_are_in_its_last_row(rows, data):
    names, stresses, counts = map(list, zip(*rows, strict=True))
    kept = data.draw(st.lists(st.sampled_from(range(len(rows))), unique=True))
    page = table_of(names, stresses, counts, kept).on_page()
    left = [i for i in range(len(rows)) if i not in kept]
    assert len(page.rows) == len(kept) + bool(left)
    assert [row[0] for row in page.rows[: len(kept)]] == [names[i] for i in kept]
    if left:
        assert page.rows[-1][0] == f"{len(left)} others"
        assert sum(int(row[2]) for row in page.rows) == sum(counts)
        assert float(page.rows[-1][3]) == pytest.approx(max(stresses[i] for i in left), rel=6e-4)


class Cells(html.parser.HTMLParser):
    """The texts of the cells of a page."""

    def __init__(self):
        super().__init__()
        self.found, self.tags = [], []

    def handle_starttag(self, tag, attrs):
        self.tags.append(tag)
        if tag in ("td", "th"):
            self.found.append("")

    def handle_data(self, data):
        if self.found and self.tags[-1] in ("td", "th"):
            self.found[-1] += data


@given(rows=ROWS)
def test_html_says_what_the_page_says_whatever_signs_are_in_it(rows):
    names, stresses, counts = map(list, zip(*rows, strict=True))
    page = table_of(names, stresses, counts).on_page()
    cells = Cells()
    cells.feed(page.to_html())
    assert cells.found == [*page.heads, *(cell for row in page.rows for cell in row)]
    assert {*cells.tags} == {"table", "caption", "b", "tr", "th", "td", "p"}


@given(rows=ROWS)
def test_a_file_of_values_reads_back_to_the_last_digit(rows):
    names, stresses, counts = map(list, zip(*rows, strict=True))
    records = table_of(names, stresses, counts).rows()
    written = io.StringIO()
    writer = csv.DictWriter(written, records[0])
    writer.writeheader()
    writer.writerows(records)
    back = list(csv.DictReader(io.StringIO(written.getvalue(), newline="")))
    assert [float(row["peak stress [MPa]"]) for row in back] == stresses
    assert [int(row["cycles"]) for row in back] == counts


@given(first=ROWS, second=ROWS)
def test_tables_below_each_other_keep_all_their_rows(first, second):
    one = table_of(*map(list, zip(*first, strict=True)))
    other = Table("", (Column("place", [row[0] for row in second]), Column("life", [1.0] * len(second), unit="years")))
    rows = stacked([one, other]).rows()
    assert len(rows) == len(first) + len(second)
    assert {row["life [years]"] for row in rows[: len(first)]} == {None}
    assert [row["place"] for row in rows] == [row[0] for row in (*first, *second)]


@pytest.mark.parametrize("dimension", sorted(DIMENSIONS))
def test_a_column_of_every_dimension_has_its_unit_in_both_systems(dimension):
    column = Column("value", np.array([1.0, 2.0]), of=dimension)
    for units in UNIT_SYSTEMS:
        ratio = shown(2.0, dimension, units) / shown(1.0, dimension, units)
        assert float(ratio) == pytest.approx(2.0)
        unit = display_unit(dimension, units)
        assert column.head_in(units, " ") in (f"Value [{unit}]", "Value")
    assert column.in_metric == pytest.approx(shown(np.array([1.0, 2.0]), dimension, "metric"))


def test_cells_say_none_endless_and_zero_as_they_are_asked_to():
    column = Column("life", [], unit="years", none="no damage", endless="no limit", zero="at once")
    said = [column.cell(one, "metric") for one in (None, math.inf, 0.0, 27.912, True, np.bool_(False), 3)]
    assert said == ["no damage", "no limit", "at once", "27.91", "yes", "no", "3"]
    assert Column("share", [], style="percent").cell(0.1234, "metric") == "12.34"
    assert Column("share", [], style="share").cell(0.1234, "metric") == "12.3%"
    assert Column("share", [], style="bar").cell(0.5, "metric") == "########        "


def test_a_frame_is_a_table():
    frame = pd.DataFrame({"a": [1, 2], "b [mm]": [0.5, None]})
    assert as_table(frame).rows() == [{"a": 1, "b [mm]": 0.5}, {"a": 2, "b [mm]": None}]


FORMULAS = (
    "S_ar = S_a / (1 - S_m / R_m)",
    "K = Y × S × √(π × a)",
    "N = 2e6 × (71 MPa / 82.5 MPa)^3",
    "Δσ <= 90 % × γ_M",
    "ρ_1 = 0.1 χ^0.714 - 0.007 χ² + 0.00003 χ⁵",
    "f = max(0.2, sin(30°)) kN·mm",
    "√(S_x² + 3 × T_xy²)",
)


@pytest.mark.parametrize("formula", FORMULAS)
def test_a_formula_in_latex_is_closed_and_keeps_its_numbers(formula):
    found = latex(formula)
    assert found.count("{") == found.count("}")
    assert re.findall(r"\d+\.\d+", found) == re.findall(r"\d+\.\d+", formula)
    assert ("√" in formula) == (r"\sqrt" in found)
    assert not set(found) & set("√×²³⁴Δσγπ°")


def test_a_working_is_a_table_a_page_and_a_text_of_the_same_steps():
    steps = (
        Step("Stress amplitude", "S_a = ΔS / 2", "90 MPa / 2", 45.0, "MPa"),
        Step("Life", "N = N_D (S_D / S_a)^m", "1e6 × (50 / 45)^5", 1.6935e6, "cycles", "DIN 50100"),
    )
    working = Working("Life of <toe>", "By hand.", steps, "Done.")
    table = working.table().rows()
    assert [(row["step"], row["what"], row["value"]) for row in table] == [
        (1, steps[0].title, 45.0),
        (2, "Life", 1.6935e6),
    ]
    text = str(working)
    assert text.index("1. Stress amplitude") < text.index("2. Life") < text.index("(DIN 50100)") < text.index("Done.")
    assert "= 1.6935e6 cycles" in text
    assert "&lt;toe&gt;" in working._repr_html_()


@pytest.mark.parametrize(
    ("text", "written"),
    [
        ("ε_x = Σ a_1k N_k", r"\varepsilon_{x} = \Sigma  a_{1k} N_{k}"),
        ("σ_n_max ± τ", r"\sigma_{n,max} \pm \tau "),
        ("18 MPa × 8.351176e6^-0.08", r"18\ \mathrm{MPa} \times  (8.351176\cdot 10^{6})^{-0.08}"),
        ("0.4 MJ/m^3 / 10 N/mm", r"0.4 \ \mathrm{MJ/m^{3}} / 10 \ \mathrm{N/mm}"),
        ("χ⁵", r"\chi ^{5}"),
    ],
)
def test_greek_powers_and_units_are_those_of_latex(text, written):
    assert re.sub(" +", " ", latex(text)) == re.sub(" +", " ", written)
