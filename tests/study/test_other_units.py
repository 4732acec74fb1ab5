"""A study and its tables written in other units give the same answers: every value of the demo passes the door again."""

import json
import math
import re
from pathlib import Path

import pandas as pd
import pytest

import vivid_anvil as va

pytestmark = pytest.mark.slow

PSI = 6894.757293168361  # Pa
LBF = 4.4482216152605  # N
INCH = 25.4  # mm
G = 9.80665  # m/s²
# What is written for a unit: another one, and how many of it that is.
OTHER = {
    "MPa": ("ksi", 1e3 / PSI),
    "GPa": ("ksi", 1e6 / PSI),
    "mm": ("in", 1.0 / INCH),
    "kN": ("lbf", 1e3 / LBF),
    "N": ("kip", 1e-3 / LBF),
    "MPa/kN": ("psi/lbf", 1e6 / PSI * LBF / 1e3),
    "MPa/g": ("ksi/(m/s^2)", 1e3 / PSI / G),
    "MPa√m": ("ksi√in", 1e3 / PSI * math.sqrt(1e3 / INCH)),
    "N/mm": ("lbf/in", INCH / LBF),
    "N*mm/mm": ("in*lbf/in", 1.0 / LBF),
    "g": ("m/s^2", G),
    "g^2/Hz": ("(m/s^2)^2/Hz", G**2),
    "Hz": ("1/min", 60.0),
    "h": ("min", 60.0),
    "min": ("s", 60.0),
    "s": ("ms", 1000.0),
}
LEFT = {"years", "months", "mm/cycle at 1 MPa√mm", "m/cycle at 1 MPa√m", "dB/octave", "K", "to 14"}
STUDIES = sorted(one.name for one in (Path(va.__file__).parent / "demo" / "data").glob("*.toml"))
VALUE = re.compile(r'"([-+]?\d[\d.]*(?:[eE][-+]?\d+)?) ([^"]+)"')


def in_other_units(text):
    """The study with every value in another unit; those that are left as they are are named above."""

    def written(found):
        number, unit = found.groups()
        if unit in LEFT:
            return found.group()
        if unit == "°C":
            return f'"{float(number) * 1.8 + 32.0!r} °F"'
        name, factor = OTHER[unit]
        return f'"{float(number) * factor!r} {name}"'

    return VALUE.sub(written, text)


def table_in_other_units(path):
    """The table with every column of a known unit in another one."""
    table = pd.read_csv(path)
    for column in table.columns:
        name, _, unit = column.rstrip("]").partition(" [")
        if unit in OTHER and pd.api.types.is_numeric_dtype(table[column]):
            other, factor = OTHER[unit]
            table[column] = table[column] * factor
            table = table.rename(columns={column: f"{name} [{other}]"})
    table.to_csv(path, index=False)


def numbers(thing, path=""):
    """Every number of a written result, by where it stands."""
    if isinstance(thing, dict):
        for key, value in thing.items():
            yield from numbers(value, f"{path}/{key}")
    elif isinstance(thing, list | tuple):
        for i, value in enumerate(thing):
            yield from numbers(value, f"{path}/{i}")
    elif isinstance(thing, int | float) and not isinstance(thing, bool):
        yield path, float(thing)


def answers(path):
    study = va.read_study(path)
    result = va.run_study(study)
    found = dict(numbers(result.to_dict()))
    if study.model is not None:
        nodes = va.run_model(study).to_frame().select_dtypes("number")
        found |= dict(numbers(nodes.to_dict("list"), "nodes"))
    return found


@pytest.fixture(scope="module")
def both(tmp_path_factory):
    """The demo as it is, and with everything in other units."""
    folders = []
    for name in ("as_it_is", "other"):
        folder = va.demo.write_demo(tmp_path_factory.mktemp(name)).parent
        folders.append(folder)
    for study in folders[1].glob("*.toml"):
        study.write_text(in_other_units(study.read_text(encoding="utf-8")), encoding="utf-8")
    for table in folders[1].glob("*.csv"):
        table_in_other_units(table)
    return folders


def moved(one, other):
    """What differs by more than what writing numbers down costs."""
    assert len(one) > 2
    assert other.keys() == one.keys()
    return {
        place: (value, other[place])
        for place, value in one.items()
        if not math.isclose(other[place], value, rel_tol=1e-6, abs_tol=1e-9)
        and not (math.isnan(value) and math.isnan(other[place]))
    }


@pytest.mark.parametrize("name", STUDIES)
def test_a_study_in_other_units_gives_the_same_answers(both, name):
    assert (both[0] / name).read_text(encoding="utf-8") != (both[1] / name).read_text(encoding="utf-8")
    assert not moved(*(answers(folder / name) for folder in both))


COMMANDS = (
    ("flaws", "tower_base.toml"),
    ("vibration", "sensor_bracket.toml"),
    ("tailor", "sensor_bracket.toml", "--time", "8 h", "--slope", "5"),
    ("inspections", "larkfell.toml", "--every", "1 year"),
    ("solve", "grip_shaft.toml"),
    ("count", "loaded_lap.csv"),
)


@pytest.mark.parametrize("command", COMMANDS, ids=" ".join)
def test_a_command_writes_the_same_numbers(both, command, run, monkeypatch):
    found = []
    for folder in both:
        monkeypatch.chdir(folder)
        code, _, err = run(*command, "--json", "found.json")
        assert (code, err) == (0, "")
        record = json.loads(Path("found.json").read_text(encoding="utf-8"))
        found.append(dict(numbers({key: value for key, value in record.items() if key != "inputs"})))
    assert not moved(*found)
