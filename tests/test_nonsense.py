"""Nonsense into every argument of every public function and noun, beside the good values of its own example.

The examples of the docstrings are what the calls come from, so that a new function is tried as soon as it has one.
"""

import doctest
import importlib
import inspect
import math
import re
import sys
import traceback
import warnings

import numpy as np
import pint
import pytest

import vivid_anvil as va
from conftest import OF_THE_DEMO
from tests.test_public_functions import FUNCTIONS, PACKAGES
from vivid_anvil.ground.errors import InputError

pytestmark = pytest.mark.slow
ALL = FUNCTIONS | {name: getattr(va, name) for name in va.__all__ if inspect.isfunction(getattr(va, name))}
PUBLIC = [va, *(importlib.import_module(f"vivid_anvil.{package}") for package in PACKAGES)]
CLASSES = {
    name: getattr(home, name) for home in PUBLIC for name in home.__all__ if inspect.isclass(getattr(home, name))
}
NOUNS = {name: one for name, one in CLASSES.items() if not issubclass(one, tuple | InputError)}
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


def by_the_example():
    """Whether the example itself calls what asks this: what is called deeper down depends on what others left in caches."""
    return sys._getframe(2).f_code.co_filename.startswith("<doctest")


class Recorder:
    """Stands for a function, and keeps what it was called with first."""

    def __init__(self, function):
        self.function, self.call = function, None

    def __call__(self, *given, **named):
        self.call = self.call or (by_the_example() and (given, named)) or None
        return self.function(*given, **named)


@pytest.fixture
def ran(demo_folder, of_the_demo, monkeypatch):
    """Runs the examples of a thing in a folder of the demo, with some names of its own."""

    def run(thing, name, own):
        monkeypatch.chdir(demo_folder)
        known = vars(sys.modules[thing.__module__]) | {one: getattr(va, one) for one in va.__all__}
        for test in doctest.DocTestFinder(recurse=False).find(thing, name, globs=known):
            source = "".join(example.source for example in test.examples)
            test.globs |= {one: of_the_demo(one) for one in OF_THE_DEMO if re.search(rf"\b{one}\b(?!\s*=)", source)}
            test.globs |= own
            doctest.DocTestRunner(verbose=False).run(test, out=lambda _: None, clear_globs=False)

    return run


def example_of(name, ran, monkeypatch):
    """What the example of a docstring gives the function; None where it does not call it."""
    function, recorder = ALL[name], Recorder(ALL[name])
    with monkeypatch.context() as patched:
        for module in [one for one in list(sys.modules.values()) if vars(one).get(name) is function]:
            patched.setattr(module, name, recorder)
        patched.setitem(vars(va), name, recorder)
        ran(function, name, {name: recorder})
    return recorder.call


def example_of_noun(name, ran, monkeypatch):
    """The same of a class."""
    calls, noun = [], NOUNS[name]
    made = noun.__init__

    def kept(self, *given, **named):
        if type(self) is noun and by_the_example():
            calls.append((given, named))
        made(self, *given, **named)

    with monkeypatch.context() as patched:
        patched.setattr(noun, "__init__", kept)
        ran(noun, name, {})
    return calls[0] if calls else None


def called(thing, call, argument, value):
    """The function, or the class, with one argument of its example's call replaced."""
    bound = inspect.signature(thing).bind(*call[0], **call[1])
    bound.arguments[argument] = value
    order = list(inspect.signature(thing).parameters)
    bound.arguments = dict(sorted(bound.arguments.items(), key=lambda one: order.index(one[0])))
    return thing(*bound.args, **bound.kwargs)


def wrong_answers(thing, call):
    """Each argument with each nonsense that raises another error than InputError, in words."""
    for argument in inspect.signature(thing).parameters.values():
        if argument.kind in (argument.VAR_POSITIONAL, argument.VAR_KEYWORD):
            continue
        for what, value in NONSENSE.items():
            if value is not None or "None" not in str(argument.annotation):
                yield from raised(thing, call, argument.name, what)


def raised(thing, call, argument, what):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        try:
            called(thing, call, argument, NONSENSE[what])
        except InputError:
            return
        except Exception as error:
            last = traceback.extract_tb(error.__traceback__)[-1]
            yield f"{thing.__name__}, {argument}: {what} raises {error!r} at {last.filename}:{last.lineno}"


@pytest.mark.parametrize("name", sorted(ALL))
def test_a_function_refuses_nonsense_by_name_or_takes_no_harm(name, ran, monkeypatch):
    call = example_of(name, ran, monkeypatch)
    if call is None:
        assert name not in va.__all__ or name == "read_mdf", (
            "what stands at the front door has an example that calls it"
        )
        pytest.skip("its example does not call it")
    wrong = list(wrong_answers(ALL[name], call))
    assert not wrong, "\n".join(wrong)


@pytest.mark.parametrize("name", sorted(NOUNS))
def test_a_noun_that_exists_is_sound(name, ran, monkeypatch):
    call = example_of_noun(name, ran, monkeypatch)
    if call is None:
        pytest.skip("no example makes it: others give one")
    wrong = list(wrong_answers(NOUNS[name], call))
    assert not wrong, "\n".join(wrong)


def test_what_a_function_gives_back_keeps_its_unit_or_is_refused():
    quantity = pint.UnitRegistry().Quantity
    assert va.through_thickness([0.0, 10.0], lambda x: 80.0).membrane == pytest.approx(80.0)
    with pytest.raises(InputError, match="a function that gives"):
        va.through_thickness([0.0, 10.0], lambda x: quantity(np.full(x.shape, 12.0), "ksi"))


@pytest.mark.parametrize("column", ["stresses", "lives"])
def test_columns_of_tests_are_numbers_and_never_lose_a_unit(column):
    given = {"name": "bars", "stress": "amplitude", "r_ratio": -1.0, "failed": [True] * 3}
    good = {"stresses": [300.0, 250.0, 200.0], "lives": [1e4, 1e5, 1e6]}
    assert va.SpecimenSeries(**given, **good).stresses.tolist() == good["stresses"]
    for value in (["300", "250", "200"], [True, True, False], pint.UnitRegistry().Quantity(good[column], "ksi")):
        with pytest.raises(InputError, match="tests bars"):
            va.SpecimenSeries(**given, **good | {column: value})
