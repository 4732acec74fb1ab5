"""The door: conversions against the definitions of the units, and what it refuses."""

import math

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import (
    DIMENSIONS,
    coherent,
    coherent_ratio,
    dimension_of,
    growth_constant,
    in_unit,
    number,
    shown,
)

# Exact by definition: inch 25.4 mm (1959), pound-force 4.4482216152605 N (0.45359237 kg at 9.80665 m/s²).
POUND, INCH = 4.4482216152605, 25.4
DEFINED = [
    ("1 MPa", "stress", 1.0),
    ("1 GPa", "stress", 1000.0),
    ("18.5 kN/cm^2", "stress", 185.0),
    ("185 N/mm²", "stress", 185.0),
    ("185 N/mm2", "stress", 185.0),
    ("1.85e8 Pa", "stress", 185.0),
    ("1 psi", "stress", POUND / INCH**2),
    ("1 ksi", "stress", 1000 * POUND / INCH**2),
    ("1 bar", "stress", 0.1),
    ("3.2 kN", "force", 3200.0),
    ("1 kip", "force", 1000 * POUND),
    ("1.5 kN*m", "moment", 1.5e6),
    ("1.5 kN·m", "moment", 1.5e6),
    ("1 in", "length", INCH),
    ("8 min", "time", 480.0),
    ("2 kHz", "frequency", 2000.0),
    ("1 MPa√m", "stress intensity", math.sqrt(1000)),
    ("1 MPa*m^0.5", "stress intensity", math.sqrt(1000)),
    ("1 MPa sqrt(m)", "stress intensity", math.sqrt(1000)),
    ("1 MPa√mm", "stress intensity", 1.0),
    ("1 N/mm^1.5", "stress intensity", 1.0),
    ("1 ksi√in", "stress intensity", 1000 * POUND / INCH**1.5),
    ("1 m/cycle", "growth rate", 1000.0),
    ("90 deg", "angle", math.pi / 2),
    ("450 µm/m", "strain", 450e-6),
    ("1.5", "number", 1.5),
]


@pytest.mark.parametrize(("text", "dimension", "value"), DEFINED)
def test_a_unit_is_worth_what_it_is_defined_as(text, dimension, value):
    assert coherent(text, dimension, "test") == pytest.approx(value, rel=1e-14)


REFUSED = [
    ("185", "stress", "'185' without a unit", "185 MPa"),
    ("5 mPa", "stress", "unknown unit 'mPa'", "millipascal"),
    ("5 Mpa", "stress", "unknown unit 'Mpa'", "'MPa'"),
    ("5 KN", "force", "unknown unit 'KN'", "'kN'"),
    ("5 kg", "force", "unknown unit 'kg'", "mass"),
    ("5 MPa", "length", "not one of length", "12 mm"),
    ("80 MPa", "stress intensity", "not one of stress intensity", "80 MPa√m"),
    ("1,5 MPa", "stress", "1,5 MPa", "decimal point"),
    ("strong", "stress", "'strong'", "185 MPa"),
    ("5 MPa/", "stress", "cannot be read", "185 MPa"),
    ("4 deg", "strain", "not one of strain", "µm/m"),
    ("1.5 MPa", "number", "not one of number", "1.5"),
    (True, "stress", "True", "185 MPa"),
    (None, "stress", "None", "185 MPa"),
    (float("nan"), "stress", "nan", "stress"),
]


@pytest.mark.parametrize(("value", "dimension", "found", "advice"), REFUSED)
def test_what_is_refused_names_place_value_and_an_example(value, dimension, found, advice):
    with pytest.raises(InputError) as caught:
        coherent(value, dimension, "curve.toml, knee_stress")
    message = str(caught.value)
    assert message.startswith("curve.toml, knee_stress: found ")
    assert found in caught.value.found
    assert advice in message


def test_a_quantity_of_any_registry_is_converted():
    units = pint.UnitRegistry()
    assert coherent(units.Quantity(30, "ksi"), "stress", "test") == pytest.approx(30 * 1000 * POUND / INCH**2)
    assert coherent(units.Quantity(2, "MPa*m**0.5"), "stress intensity", "test") == pytest.approx(2 * math.sqrt(1000))
    with pytest.raises(InputError, match="not one of stress"):
        coherent(units.Quantity(30, "mm"), "stress", "test")


def test_stress_per_load_keeps_the_dimension_of_the_load():
    assert coherent_ratio("38 MPa/kN", "stress", "force", "test") == pytest.approx(0.038)
    assert coherent_ratio("2 MPa/(kN*m)", "stress", "moment", "test") == pytest.approx(2e-6)
    assert coherent_ratio("1.2", "stress", "stress", "test") == 1.2
    with pytest.raises(InputError, match="stress per moment"):
        coherent_ratio("38 MPa/kN", "stress", "moment", "test")


def test_growth_constants_of_a_standard_agree_in_both_its_units():
    # BS 7910: A = 5.21e-13 for mm/cycle and N/mm^1.5, which is 1.65e-11 m/cycle at 1 MPa√m (as printed, 3 digits).
    in_mm = growth_constant("da/dN = 5.21e-13 mm/cycle at ΔK = 1 N/mm^1.5", 3.0)
    in_m = growth_constant("1.65e-11 m/cycle at 1 MPa√m", 3.0)
    assert in_mm == pytest.approx(5.21e-13, rel=1e-12)
    assert in_m == pytest.approx(in_mm, rel=2e-3)


@pytest.mark.parametrize(
    "text", ["1.65e-11 m/cycle", "1.65e-11 at 1 MPa√m", "1.65e-11 m/cycle at 1 MPa", "-1 m/cycle at 1 MPa√m"]
)
def test_growth_constants_without_both_units_are_refused(text):
    with pytest.raises(InputError):
        growth_constant(text, 3.0, "law")


@given(st.floats(1e-6, 1e9), st.sampled_from(sorted(DIMENSIONS)), st.sampled_from(["metric", "us"]))
def test_what_is_shown_comes_back_through_the_door(value, dimension, system):
    unit = DIMENSIONS[dimension].metric if system == "metric" else DIMENSIONS[dimension].us
    text = f"{float(shown(value, dimension, system))!r}" + ("" if unit == "1" else f" {unit}")
    assert coherent(text, dimension, "test") == pytest.approx(value, rel=1e-14)
    assert in_unit(value, dimension, system).endswith("" if unit == "1" else unit)


@given(st.floats(-1e12, 1e12).filter(lambda value: value == 0 or abs(value) > 1e-12), st.integers(2, 8))
def test_numbers_are_printed_to_the_digits_asked_for(value, digits):
    assert float(number(value, digits)) == pytest.approx(value, rel=0.51 * 10 ** (1 - digits))


@pytest.mark.parametrize(
    ("unit", "name"), [("kN", "force"), ("N*m", "moment"), ("MPa", "stress"), ("-", "number"), ("g0", "acceleration")]
)
def test_a_channel_unit_tells_its_dimension(unit, name):
    assert dimension_of(unit, "test").name == name


def test_a_unit_that_no_channel_has_is_refused():
    with pytest.raises(InputError, match="unknown unit 'furlong'"):
        dimension_of("furlong", "lap.csv, line 1")
