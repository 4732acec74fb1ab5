"""Names that the examples of the guide may use."""

import pytest


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
