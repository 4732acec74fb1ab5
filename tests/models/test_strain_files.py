"""Strains of states from the solver's result file, and what is told of files that hold something else."""

import contextlib

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.models import read_frd, read_strain_field

LAP = "suspension_bush_lap.frd"
HOW = {"measure": "green-lagrange", "strain_unit": "mm/mm", "length_unit": "mm"}


def test_the_bush_of_the_demo_is_read_node_by_node(demo_folder):
    field = read_strain_field(demo_folder / LAP, **HOW)
    assert (field.size, len(field.cases), field.dimension) == (1420, 14, "strain")
    assert sum(one.ids.size for one in field.elements) == 240
    lines = (demo_folder / LAP).read_text().splitlines()
    start = next(i for i, line in enumerate(lines) if line.startswith(" -4  TOSTRAIN"))
    row = next(line for line in lines[start:] if line.startswith(f" -1{649:10d}"))
    expected = [float(row[13 + 12 * k : 25 + 12 * k]) for k in range(6)]
    assert np.asarray(field.stresses)[0, field.place_of(649)].tolist() == expected
    table = (demo_folder / "suspension_bush_lap_upper.csv").read_text().splitlines()[1].split(",")
    assert [float(one) for one in table[1:]] == pytest.approx(expected, rel=1e-5)
    doubled = read_strain_field(demo_folder / LAP, **HOW, shear="engineering")
    halves = np.asarray(doubled.stresses) / np.where(np.asarray(field.stresses) == 0.0, 1.0, np.asarray(field.stresses))
    assert halves[0, 5].round(9).tolist() == [1.0, 1.0, 1.0, 0.5, 0.5, 0.5]


@pytest.mark.parametrize(
    ("name", "changes", "said"),
    [
        ("hanger_head.frd", {}, "Ask for E in"),
        (LAP, {"strain_unit": None}, "no units|strain_unit|nothing"),
        (LAP, {"strain_unit": "MPa"}, "not one of strain"),
        (LAP, {"measure": "deformation gradient"}, "green-lagrange"),
        (LAP, {"measure": "true"}, "logarithmic"),
        (LAP, {"shear": "double"}, "engineering"),
        (LAP, {"cases": ["one"]}, "14 steps with TOSTRAIN"),
        (LAP, {"component_order": "xx, yy, zz, xy, yz, zx"}, "names of its steps alone"),
        (LAP, {"element_values": "largest"}, "averaged"),
    ],
)
def test_what_does_not_fit_is_told(demo_folder, name, changes, said):
    with pytest.raises(InputError, match=said):
        read_strain_field(demo_folder / name, **(HOW | changes))


def test_strains_are_no_stresses(demo_folder):
    with pytest.raises(InputError, match="no nodal stresses"):
        read_frd(demo_folder / LAP, stress_unit="MPa", length_unit="mm")


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(data=st.data())
def test_a_damaged_file_is_an_input_error_or_reads(demo_folder, tmp_path, data):
    lines = (demo_folder / LAP).read_bytes().splitlines()[:4000]
    first = data.draw(st.integers(0, len(lines) - 1))
    last = data.draw(st.integers(first, len(lines)))
    noise = data.draw(st.binary(max_size=90))
    whole = [*lines[:first], noise, *lines[last:], b" 9999"]
    path = tmp_path / "damaged.frd"
    path.write_bytes(b"\n".join(whole))
    with contextlib.suppress(InputError):  # any other error fails
        read_strain_field(path, **HOW)
