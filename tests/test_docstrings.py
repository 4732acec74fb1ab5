"""Docstrings of the front door: every argument with what it is, what is returned, what is raised, an example that runs.

By the validator of numpydoc; the examples themselves are run as doctests.
"""

from __future__ import annotations

import inspect

import pytest
from numpydoc.docscrape import ClassDoc, FunctionDoc
from numpydoc.validate import validate

import vivid_anvil as va

CALLABLES = [name for name in va.__all__ if callable(getattr(va, name)) and not inspect.ismodule(getattr(va, name))]
# No extended summary, no list of relatives; names, verbs and formulas may begin a sentence as they are written.
NOT_ASKED = {"ES01", "SA01", "SS02", "SS05", "PR08"}
TELLS_NOTHING_TO_RAISE = {"Finding", "InputError", "Step", "Working"}


@pytest.mark.parametrize("name", CALLABLES)
def test_a_docstring_has_all_its_sections(name):
    faults = [f"{code} {words}" for code, words in validate(f"vivid_anvil.{name}")["errors"] if code not in NOT_ASKED]
    assert faults == []
    thing = getattr(va, name)
    told = ClassDoc(thing) if inspect.isclass(thing) else FunctionDoc(thing)
    assert told["Examples"], f"{name}: no example"
    if inspect.signature(thing).parameters and name not in TELLS_NOTHING_TO_RAISE:
        assert [one.type for one in told["Raises"]] == ["InputError"]
    lines = inspect.getdoc(thing).splitlines()
    assert max(map(len, lines)) <= 126


def test_the_sections_are_looked_at():
    """The validator is there and finds what is missing."""
    assert len(CALLABLES) > 200
    assert "PR01" in {code for code, _ in validate("json.dumps")["errors"]}
