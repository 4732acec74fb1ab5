"""Nonsense into every argument of every public function, beside the good values of its own example: refused, or of no harm.

The examples of the docstrings are what the calls come from, so that a new function is tried as soon as it has one.
"""

import doctest
import inspect
import math
import re
import sys
import traceback
import warnings

import numpy as np
import pytest

import vivid_anvil as va
from conftest import OF_THE_DEMO
from tests.test_public_functions import FUNCTIONS
from vivid_anvil.ground.errors import InputError

pytestmark = pytest.mark.slow
ALL = FUNCTIONS | {name: getattr(va, name) for name in va.__all__ if inspect.isfunction(getattr(va, name))}
NONSENSE = {
    "nothing": None,
    "an object": object(),
    "true": True,
    "a word": "nonsense",
    "nan": math.nan,
    "below 0": -1.0,
    "a whole number": 3,
    "a huge number": 1e300,
    "an empty list": [],
    "three numbers": (1.0, 2.0, 3.0),
    "zeros": np.zeros((2, 3)),
    "nan inside": np.array([[1.0, math.nan]]),
    "words": ["a"],
    "a mapping": {"a": 1.0},
    "a function of words": lambda *_: "x",
}


class Recorder:
    """Stands for a function, and keeps what it was called with first."""

    def __init__(self, function):
        self.function, self.call = function, None

    def __call__(self, *given, **named):
        self.call = self.call or (given, named)
        return self.function(*given, **named)


@pytest.fixture
def example_of(demo_folder, of_the_demo, monkeypatch):
    """What the example of a docstring gives the function, run in a folder of the demo; None where it does not call it."""

    def made(name):
        function, recorder = ALL[name], Recorder(ALL[name])
        monkeypatch.chdir(demo_folder)
        known = vars(sys.modules[function.__module__]) | {one: getattr(va, one) for one in va.__all__}
        for test in doctest.DocTestFinder(recurse=False).find(function, name, globs=known):
            source = "".join(example.source for example in test.examples)
            test.globs |= {one: of_the_demo(one) for one in OF_THE_DEMO if re.search(rf"\b{one}\b(?!\s*=)", source)}
            with monkeypatch.context() as patched:
                for module in [one for one in list(sys.modules.values()) if vars(one).get(name) is function]:
                    patched.setattr(module, name, recorder)
                patched.setitem(vars(va), name, recorder)
                test.globs[name] = recorder
                doctest.DocTestRunner(verbose=False).run(test, out=lambda _: None, clear_globs=False)
        return recorder.call

    return made


def called(function, call, argument, value):
    """The function with one argument of its example's call replaced."""
    bound = inspect.signature(function).bind(*call[0], **call[1])
    bound.arguments[argument] = value
    order = list(inspect.signature(function).parameters)
    bound.arguments = dict(sorted(bound.arguments.items(), key=lambda one: order.index(one[0])))
    return function(*bound.args, **bound.kwargs)


@pytest.mark.parametrize("name", sorted(ALL))
def test_nonsense_is_refused_by_name_or_does_no_harm(name, example_of):
    call = example_of(name)
    if call is None:
        assert name not in va.__all__, "what stands at the front door has an example that calls it"
        pytest.skip("its example does not call it")
    wrong = []
    for argument in inspect.signature(ALL[name]).parameters.values():
        if argument.kind in (argument.VAR_POSITIONAL, argument.VAR_KEYWORD):
            continue
        for what, value in NONSENSE.items():
            if value is not None or "None" not in str(argument.annotation):
                wrong += raised(name, call, argument.name, what)
    assert not wrong, "\n".join(wrong)


def raised(name, call, argument, what):
    """Another error than InputError, in words, with where it is raised."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        try:
            called(ALL[name], call, argument, NONSENSE[what])
        except InputError:
            return
        except Exception as error:
            last = traceback.extract_tb(error.__traceback__)[-1]
            yield f"{name}, {argument}: {what} raises {error!r} at {last.filename}:{last.lineno}"
