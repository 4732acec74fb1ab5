"""Names that the examples of the guide may use; compiled loops kept apart for each state of their files."""

import functools
import hashlib
import os
import re
import tempfile
from pathlib import Path

import pytest


def _loops() -> str:
    """A folder for compiled loops that is another one when any file of loops is edited."""
    source = Path(__file__).parent / "src" / "vivid_anvil"
    files = sorted([*source.rglob("_*kernels.py"), source / "ground" / "compiled.py", source / "ground" / "handed.py"])
    state = hashlib.sha256(b"".join(file.read_bytes() for file in files)).hexdigest()[:16]
    return str(Path(tempfile.gettempdir()) / f"vivid-anvil-loops-{state}")


os.environ.setdefault("NUMBA_CACHE_DIR", _loops())


def pytest_collection_modifyitems(items):
    """Documents and examples that run the demo are among the slow ones."""
    for item in items:
        if item.path.suffix == ".md" or (isinstance(item, pytest.DoctestItem) and _asked(item)):
            item.add_marker(pytest.mark.slow)


OF_THE_DEMO = ("study", "result", "history", "field", "model")  # what examples of docstrings may take for granted


def _asked(item):
    """Which of the names of the demo an example uses before it makes them itself."""
    source = "".join(example.source for example in item.dtest.examples)
    return [name for name in OF_THE_DEMO if re.search(rf"\b{name}\b(?!\s*=)", source)]


@pytest.fixture(autouse=True)
def _names_of_the_guide(request, doctest_namespace):
    """`demo`: the folder with the demo study, for documents; docstrings know the front door, and run in a folder of the demo."""
    if request.node.path.suffix == ".md":
        doctest_namespace["demo"] = request.getfixturevalue("guide_folder")
    elif isinstance(request.node, pytest.DoctestItem):
        request.getfixturevalue("monkeypatch").chdir(request.getfixturevalue("demo_folder"))
        import vivid_anvil as va

        known = request.node.dtest.globs
        words = {word for example in request.node.dtest.examples for word in re.findall(r"\w+", example.source)}
        known |= {name: getattr(va, name) for name in words & set(va.__all__) - known.keys()}
        of_the_demo = request.getfixturevalue("of_the_demo")
        for name in _asked(request.node):
            known.setdefault(name, of_the_demo(name))


@pytest.fixture(scope="session")
def demo_folder(tmp_path_factory):
    """A folder with the demo, to which examples may write."""
    from vivid_anvil.demo import write_demo

    return write_demo(tmp_path_factory.mktemp("demo")).parent


@pytest.fixture(scope="session")
def of_the_demo(demo_folder):
    """What the demo gives, each made when it is first asked for."""
    import vivid_anvil as va

    made = {
        "study": lambda: va.read_study(demo_folder / "larkfell.toml"),
        "result": lambda: va.run_study(one("study")),
        "history": lambda: va.read_history(demo_folder / "loaded_lap.csv"),
        "field": lambda: va.read_field(demo_folder / "hanger_head.frd", stress_unit="MPa", length_unit="mm"),
        "model": lambda: va.run_model(va.read_study(demo_folder / "hanger_head.toml")),
    }
    one = functools.cache(lambda name: made[name]())
    return one


@pytest.fixture(scope="session")
def guide_folder(tmp_path_factory):
    """A folder with the demo study."""
    from vivid_anvil.demo import write_demo

    return write_demo(tmp_path_factory.mktemp("guide")).parent
