"""Names that the examples of the guide may use; compiled loops kept apart for each state of their files."""

import hashlib
import os
import tempfile
from pathlib import Path

import pytest


def _loops() -> str:
    """A folder for compiled loops that is another one when any file of loops is edited."""
    source = Path(__file__).parent / "src" / "vivid_anvil"
    files = sorted([*source.rglob("_kernels.py"), source / "ground" / "compiled.py", source / "ground" / "handed.py"])
    state = hashlib.sha256(b"".join(file.read_bytes() for file in files)).hexdigest()[:16]
    return str(Path(tempfile.gettempdir()) / f"vivid-anvil-loops-{state}")


os.environ.setdefault("NUMBA_CACHE_DIR", _loops())


def pytest_collection_modifyitems(items):
    """The documents run the demo: they are among the slow ones."""
    for item in items:
        if item.path.suffix == ".md":
            item.add_marker(pytest.mark.slow)


@pytest.fixture(autouse=True)
def _names_of_the_guide(request, doctest_namespace):
    """`demo`: the folder with the demo study, for the documents only."""
    if request.node.path.suffix == ".md":
        doctest_namespace["demo"] = request.getfixturevalue("guide_folder")


@pytest.fixture(scope="session")
def guide_folder(tmp_path_factory):
    """A folder with the demo study."""
    from vivid_anvil.demo import write_demo

    return write_demo(tmp_path_factory.mktemp("guide")).parent
