"""The front door: what `import vivid_anvil` offers, said three times (readers, type checkers, run time) and each time alike."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

import vivid_anvil as va

ROOT = Path(__file__).parents[1]
TREE = ast.parse((ROOT / "src" / "vivid_anvil" / "__init__.py").read_text(encoding="utf-8"))


def test_all_is_written_out_and_the_same_as_what_is_loaded_and_what_checkers_see():
    (literal,) = [
        ast.literal_eval(one.value)
        for one in TREE.body
        if isinstance(one, ast.Assign) and one.targets[0].id == "__all__"
    ]
    (typed,) = [one for one in TREE.body if isinstance(one, ast.If)]
    imported = {name.name: one.module for one in typed.body for name in one.names}
    assert literal == va.__all__
    assert set(literal) == {*va._HOME_OF, "__version__"} == {*imported, "__version__"}
    assert set(dir(va)) == {*literal, *va._PACKAGES}
    for name, module in imported.items():
        assert getattr(va, name) is getattr(sys.modules[module], name), name
        assert name in getattr(sys.modules[va._HOME_OF[name]], "__all__", [name]), name


@pytest.mark.parametrize("package", va._PACKAGES)
def test_packages_are_reachable(package):
    assert getattr(va, package).__name__ == f"vivid_anvil.{package}"


def test_what_the_guide_uses_is_there():
    for path in [ROOT / "README.md", *(ROOT / "docs" / "guide").glob("*.md"), *(ROOT / "examples").glob("*.py")]:
        for name in re.findall(r"\bva\.(\w+)", path.read_text(encoding="utf-8")):
            assert name in va.__all__ or name in va._PACKAGES, (path.name, name)


def test_importing_it_loads_nothing_heavy():
    code = "import sys, vivid_anvil; print([one for one in ('numba', 'pandas', 'matplotlib', 'numpy') if one in sys.modules])"
    found = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, timeout=60)
    assert found.stdout.strip() == "[]"


def test_a_name_that_is_not_there_is_an_attribute_error():
    with pytest.raises(AttributeError, match="no attribute 'rainfall'"):
        va.rainfall  # noqa: B018
