"""Without the extras: what the base installation does, and the line that is told where one is needed."""

import contextlib
import io
import json
import re
import subprocess
import sys
import tomllib
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import EXTRAS, needed
from vivid_anvil.histories.block_of_text import NotClean, by_arrow, by_numpy

ROOT = Path(__file__).parents[2]
PROJECT = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
IMPORTED = {"python-docx": "docx"}  # where a package is imported by another name
RUNS = {
    "check": ("larkfell.toml",),
    "life": ("larkfell.toml", "--json", "life.json", "--csv", "life.csv"),
    "grow": ("larkfell.toml",),
    "places": ("larkfell.toml",),
    "explain": ("larkfell.toml",),
    "what-if": ("larkfell.toml", "load scale", "0.9"),
    "flaws": ("tower_base.toml",),
    "model": ("hanger_head.toml", "--nodes", "nodes.csv"),
    "vibration": ("sensor_bracket.toml",),
    "count": ("loaded_lap.csv", "--csv", "cycles.csv"),
    "curve": ("class:EN 1993-1-9/71",),
    "fit": ("tube_tests.csv", "--r-ratio", "-1"),
    "cards": (),
}
REFUSED = {  # what is asked, and the extra that is told
    ("life", "larkfell.toml", "--figures", "drawn"): "figures",
    ("life", "larkfell.toml", "--page", "look.html"): "pages",
    ("count", "loaded_lap.csv", "--parquet", "cycles.parquet"): "files",
    ("report", "larkfell.toml", "report.pdf"): "reports",
    ("report", "larkfell.toml", "report.html"): "reports",
    ("report", "larkfell.toml", "report.docx"): "reports",
    ("model", "hanger_head.toml", "--nodes", "nodes.vtu"): "models",
    ("model", "hanger_head.toml", "--nodes", "nodes.parquet"): "files",
    ("model", "hanger_head.toml", "--cluster", "tcp://127.0.0.1:1"): "cluster",
    ("model", "safety_bar.toml"): "files",
    ("count", "lap.xlsx"): "files",
    ("count", "lap.parquet"): "files",
    ("count", "lap.mf4"): "mdf",
}


def without_extras():
    """Run the commands in this process, which finds no package of an extra; results as JSON."""
    from vivid_anvil.cli import main

    hidden = {package for packages in EXTRAS.values() for package in packages}

    class Hidden:
        def find_spec(self, name, *_):
            if name.partition(".")[0] in hidden:
                raise ModuleNotFoundError(f"No module named {name!r}", name=name)

    sys.meta_path.insert(0, Hidden())
    Path("lap.xlsx").write_bytes(b"PK")
    Path("lap.parquet").write_bytes(b"PAR1")
    Path("lap.mf4").write_bytes(b"MDF     4.10")
    told = []
    for arguments in [*((name, *more) for name, more in RUNS.items()), *REFUSED]:
        sys.argv = ["vivid-anvil", *arguments]
        out, err = io.StringIO(), io.StringIO()
        code = 0
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            try:
                main()
            except SystemExit as end:
                code = end.code or 0
        told.append((arguments, code, out.getvalue(), err.getvalue()))
    print(json.dumps(told))


@pytest.mark.slow
def test_the_base_installation_does_the_work_and_tells_the_line_of_what_it_lacks(tmp_path, run, monkeypatch):
    from vivid_anvil.demo import write_demo

    write_demo(tmp_path)
    start = f"import sys; sys.path.insert(0, {str(ROOT)!r})"
    code = f"{start}; from tests.ground.test_lean_install import without_extras; without_extras()"
    done = subprocess.run([sys.executable, "-c", code], cwd=tmp_path, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    told = {tuple(arguments): rest for arguments, *rest in json.loads(done.stdout)}
    monkeypatch.chdir(tmp_path)
    for name, more in RUNS.items():
        code, out, err = told[(name, *more)]
        assert (code, err) == (0, ""), name
        if name in ("life", "grow", "flaws"):
            assert re.findall(r"[\d.]+ years", out) == re.findall(r"[\d.]+ years", run(name, *more)[1])
    for asked, extra in REFUSED.items():
        code, out, err = told[asked]
        assert (code, out) == (2, ""), asked
        assert f"pip install 'vivid-anvil[{extra}]'" in " ".join(err.split()), asked
    made = {path.suffix for path in tmp_path.iterdir()}
    assert not made & {".html", ".pdf", ".docx", ".vtu"}


def test_extras_hold_what_is_told_of_them():
    extras = {
        name: {IMPORTED.get(one, one) for one in (re.split(r"[>=\[]", line)[0] for line in lines)}
        for name, lines in PROJECT["optional-dependencies"].items()
    }
    for name, packages in EXTRAS.items():
        assert set(packages) <= extras[name]
    assert extras["all"] >= set().union(*EXTRAS.values())
    assert not {re.split(r"[>=]", line)[0] for line in PROJECT["dependencies"]} & set().union(*EXTRAS.values())
    with pytest.raises(InputError, match=r"vivid-anvil\[mdf\]"):
        needed_without("asammdf")


def needed_without(package):
    """What is told where a package is missing."""
    kept = sys.modules.get(package)
    sys.modules[package] = None
    try:
        needed(package, "a file")
    finally:
        sys.modules.pop(package)
        if kept is not None:
            sys.modules[package] = kept


CELLS = st.one_of(
    st.floats(allow_nan=False, allow_infinity=False).map(repr),
    st.integers(-(10**9), 10**9).map(str),
    st.sampled_from(["", " 1", "x", "1_0", "+1", "1e400", "0x1p3", '"2"', "1 2", "#3", "-.5", "7."]),
)


@given(
    st.lists(st.lists(CELLS, min_size=2, max_size=2), min_size=1, max_size=6),
    st.sampled_from([".", ","]),
    st.booleans(),
)
def test_both_readers_of_blocks_find_the_same_numbers(rows, decimal, ends):
    lines = ["\t".join(cell.replace(".", decimal) for cell in row) for row in rows]
    block = ("\n".join(lines) + "\n" * ends).encode()
    found = {}
    for reader in (by_arrow, by_numpy):
        try:
            found[reader] = reader(block, "\t", decimal, 2, [1])[0]
        except NotClean:
            found[reader] = None
    if found[by_arrow] is not None and found[by_numpy] is not None:
        assert np.array_equal(found[by_arrow], found[by_numpy])
