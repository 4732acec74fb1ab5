"""Tables of choices; functions handed to loops: an edited form is used, and the next process finds the loop in the cache."""

import os
import subprocess
import sys
from pathlib import Path
from types import SimpleNamespace

import pytest

from vivid_anvil.ground import choices
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import _kernels as growth_loops
from vivid_anvil.materials.laws import _kernels as law_loops
from vivid_anvil.materials.thresholds import _kernels as threshold_loops

pytestmark = pytest.mark.slow

SOURCE = Path(__file__).parents[2] / "src" / "vivid_anvil"


def test_a_choice_stands_once_and_knows_its_name():
    sizes = Choices("size of shoe")

    @sizes.add("small")
    class Small:
        pass

    assert Small.kind == "small"
    assert (sizes["small"], list(sizes), len(sizes), sizes.name_of(Small)) == (Small, ["small"], 1, "small")
    assert "small" in sizes
    assert "tiny" not in sizes
    with pytest.raises(InputError, match="a name that none has yet"):
        sizes.add("small")(type("Other", (), {}))
    for bad in ("smal", 3, None, "x" * 500, ["small"]):
        with pytest.raises(InputError, match="one of 'small'"):
            sizes.get(bad, "shoe, size")


def test_what_an_installed_package_adds_is_found_when_it_is_asked_for(tmp_path, monkeypatch):
    (tmp_path / "added_sizes.py").write_text("import sys\nsys.sizes_of_shoes.add('large')(len)\n")
    monkeypatch.syspath_prepend(tmp_path)
    sizes = Choices("size of shoe")
    monkeypatch.setattr(sys, "sizes_of_shoes", sizes, raising=False)
    asked = []

    def entry_points(group):
        asked.append(group)
        return [SimpleNamespace(module="added_sizes")]

    monkeypatch.setattr(choices, "entry_points", entry_points)
    choices._load_installed.cache_clear()
    try:
        assert sizes["large"] is len
        assert list(sizes) == ["large"]
    finally:
        choices._load_installed.cache_clear()
    assert asked == ["vivid_anvil.choices"]


LOOP = """
from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller
FORM = REAL(ROW, REAL)
call = caller(FORM)

@compiled
def total(at, p, x):
    found = 0.0
    for i in range(x.size):
        found += call(at, p, x[i])
    return found
"""
RUN = """
import numpy as np
import form, loop
from vivid_anvil.ground.handed import address
print(loop.total(address(form.value, loop.FORM), np.array([2.0]), np.arange(4.0)))
print(sum(loop.total.stats.cache_hits.values()), sum(loop.total.stats.cache_misses.values()))
"""


def test_an_edited_form_is_used_and_the_loop_stays_in_the_cache(tmp_path):
    (tmp_path / "loop.py").write_text(LOOP)
    (tmp_path / "run.py").write_text(RUN)
    formulas = ("p[0] * x", "p[0] * x", "p[0] * x * x + 0.5")
    found = [_run(tmp_path, "form.py", f"def value(p, x):\n    return {formula}\n") for formula in formulas]
    assert found == [["12.0", "0", "1"], ["12.0", "1", "0"], ["30.0", "1", "0"]]


CALLING = """
from part import twice
from vivid_anvil.ground.compiled import compiled

@compiled
def between(x):
    return twice(x) + 1.0

@compiled
def total(x):
    return between(x)
"""
PART = """
from vivid_anvil.ground.compiled import compiled

@compiled
def twice(x):
    return {formula}
"""
CALL = """
import loop
print(loop.total(3.0), sum(loop.total.stats.cache_hits.values()))
"""


def test_a_loop_is_compiled_again_when_what_it_calls_is_edited_in_another_file(tmp_path):
    (tmp_path / "loop.py").write_text(CALLING)
    (tmp_path / "run.py").write_text(CALL)
    found = [_run(tmp_path, "part.py", PART.format(formula=formula)) for formula in ("2.0 * x", "2.0 * x", "20.0 * x")]
    assert found == [["7.0", "0"], ["7.0", "1"], ["61.0", "0"]]


def _run(folder, name, text):
    """What run.py prints once a file is written."""
    (folder / name).write_text(text)
    place = {**os.environ, "NUMBA_CACHE_DIR": str(folder / "cache"), "PYTHONPATH": str(SOURCE.parent)}
    printed = subprocess.run(
        [sys.executable, "run.py"], cwd=folder, env=place, capture_output=True, text=True, check=True
    )
    return printed.stdout.split()


def test_there_is_one_way_to_compile():
    texts = {file.name: file.read_text(encoding="utf-8") for file in SOURCE.rglob("*.py")}
    assert [name for name, text in texts.items() if "njit" in text] == ["compiled.py"]
    assert [name for name, text in texts.items() if "cfunc" in text] == ["handed.py"]


def test_loops_agree_on_what_they_call():
    assert growth_loops.RATE == law_loops.RATE
    assert growth_loops.THRESHOLD == law_loops.THRESHOLD == threshold_loops.THRESHOLD
