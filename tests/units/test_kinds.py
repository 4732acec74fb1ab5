"""What the annotation of an argument says of it is asked for at the door of a public function, entry by entry."""

from __future__ import annotations

import datetime
import io
import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from pathlib import Path
from typing import Any, Literal

import numpy as np
import pandas as pd
import pytest
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import LoadHistory
from vivid_anvil.shapes import CentreCrack
from vivid_anvil.shapes.shape import Shape
from vivid_anvil.units import Takes, opened

Step = Callable[[float], float]
Side = Literal["left", "right"]


@opened(size=Takes(dimension="length", above=0.0))
def asked(
    text: str = "a",
    path: str | Path = "lap.csv",
    whole: int = 1,
    share: float = 0.5,
    flag: bool = True,
    step: Step = abs,
    again: Callable[[float], float] | None = None,
    table: Mapping[str, int] = {},
    deep: Mapping[str, Mapping[str, Sequence[str]]] = {},
    names: Sequence[str] = (),
    rows: Sequence[Sequence[Any]] = (),
    several: Iterable[float] = (),
    pair: tuple[float, float] = (0.0, 1.0),
    open_end: tuple[float, ...] = (),
    values: ArrayLike = 0.0,
    array: FloatArray = np.zeros(1),  # noqa: B008
    places: IntArray | None = None,
    day: datetime.date | None = None,
    into: Path | io.BytesIO = Path("a"),
    shape: Shape | None = None,
    curve: LoadHistory | Mapping[str, LoadHistory] | None = None,
    label: str | int | None = None,
    side: Side = "left",
    anything: Any = None,
    size: float = 1.0,
) -> dict[str, Any]:
    return dict(locals())


GOOD = {
    "text": ["weld", np.str_("weld")],
    "path": ["a.csv", Path("a.csv")],
    "whole": [3, np.int64(3), -2],
    "share": [0.5, 2, np.float32(0.5), math.inf],
    "flag": [True, np.bool_(False)],
    "step": [abs, lambda x: x],
    "again": [None, abs],
    "table": [{"a": 1}, {}],
    "deep": [{"a": {"b": ["c"]}}, {"a": {}}],
    "names": [["a", "b"], ("a",), np.array(["a"]), {"a"}, pd.Index(["a"])],
    "rows": [[["1 mm", 2.0]], [(1, 2)], np.zeros((2, 2))],
    "several": [[1.0], iter([1.0]), np.zeros(2), pd.Series([1.0])],
    "pair": [(1.0, 2.0), [1.0, 2.0], np.zeros(2)],
    "open_end": [(), (1.0, 2.0, 3.0)],
    "values": [1.0, 3, [1.0], "3 mm", np.zeros(2), pd.Series([1.0])],
    "array": [np.zeros(2), np.arange(3), [1.0, 2.0], [[1, 2], [3, 4]]],
    "places": [None, np.arange(3), [1, 2]],
    "day": [None, datetime.date(2031, 5, 4)],
    "into": [Path("b"), io.BytesIO()],
    "shape": [None, CentreCrack(50.0)],
    "curve": [None, {}],
    "label": [None, "weld", 3],
    "side": ["left", "up"],  # a list of words is looked at by the function itself
    "anything": [None, 3, "text", object()],
}
BAD = {
    "text": [None, 3, b"weld", ["weld"], np.array(["weld"])],
    "path": [None, 3, ["a.csv"], io.BytesIO()],
    "whole": [None, 1.0, True, "3", 10**30, [3]],
    "share": [None, "half", True, math.nan, [0.5], np.zeros(1), 1j],
    "flag": [None, 1, "yes"],
    "step": [None, 3.0, "abs"],
    "again": [3.0, "abs"],
    "table": [None, [1], "a", {"a": "one"}, {"a": 1.5}],
    "deep": [{"a": 1.0}, {"a": {"b": 1.0}}, {"a": {"b": [1.0]}}],
    "names": [None, "weld", 3, ["a", 3], [None], np.zeros((2, 2))],
    "rows": [None, 3, [3.0], (1.0, 2.0)],
    "several": [None, 3.0],
    "pair": [None, 3.0, (1.0,), (1.0, 2.0, 3.0), np.zeros(3)],
    "open_end": [None, 3.0],
    "values": [None, True, object(), abs, {"a": 1}],
    "array": [None, 3.0, "1 2 3", ["a"], [[1.0], [2.0, 3.0]], np.array(["a"]), np.array([object()])],
    "places": [3, "all", ["a"]],
    "day": ["2031-05-04", 3],
    "into": [None, 3],
    "shape": [3.0, "centre crack", object(), CentreCrack],
    "curve": [3.0, "history", [1], {"a": 3.0}],
    "label": [3.5, ["weld"], True],
}
NAMES = sorted(GOOD)


@pytest.mark.parametrize(("name", "value"), [(name, value) for name in NAMES for value in GOOD[name]])
def test_what_the_annotation_asks_for_goes_in_as_it_is(name, value):
    found = asked(**{name: value})[name]
    if isinstance(found, np.ndarray) and not isinstance(value, np.ndarray):
        assert found.tolist() == value
    else:
        assert found is value


@pytest.mark.parametrize(("name", "value"), [(name, value) for name in NAMES for value in BAD.get(name, ())])
def test_anything_else_is_refused_with_the_name_of_the_argument(name, value):
    with pytest.raises(InputError) as caught:
        asked(**{name: value})
    assert str(caught.value).startswith(f"asked, {name}")
    assert "expected" in str(caught.value)


def test_an_argument_by_its_place_is_looked_at_too():
    assert asked("weld", "a.csv", 3)["whole"] == 3
    with pytest.raises(InputError, match="asked, whole"):
        asked("weld", "a.csv", 3.5)


@pytest.mark.parametrize(
    ("name", "value", "words"),
    [
        ("names", ["a", 3], "asked, names, entry 2: found 3, expected a text"),
        ("names", "weld", r"expected several, such as a list. Put it into a list: \['weld'\]"),
        ("deep", {"side": {"top": [1.0]}}, "asked, deep, side, top, entry 1: found 1.0, expected a text"),
        ("curve", {"lap": 3.0}, "asked, curve, lap: found a float, expected a LoadHistory. read_history gives one"),
        ("curve", 3.0, "expected a LoadHistory or a mapping"),
        ("shape", 3.0, "found a float, expected a Shape. SurfaceCrack and others are shapes"),
        ("pair", (1.0,), "expected a pair"),
        ("path", 3, "expected the path of a file"),
        ("label", 3.5, "expected a text or a whole number"),
        ("size", "3 kg", "asked, size"),
    ],
)
def test_it_is_said_where_and_what_instead(name, value, words):
    with pytest.raises(InputError, match=words):
        asked(**{name: value})


class OwnCrack(CentreCrack):
    """A shape of a user's own."""


def test_a_noun_of_a_users_own_is_one():
    own = OwnCrack(50.0)
    assert asked(shape=own)["shape"] is own


def test_values_too_large_to_compute_with_are_told():
    @opened(size=Takes(above=0.0))
    def powered(size: float) -> float:
        return size**4

    assert powered(2.0) == 16.0
    with pytest.raises(InputError, match="too large to compute with"):
        powered(1e200)
