"""The few checks that nouns and faces share. Each raises `InputError`; limits are written so that nan fails them."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vivid_anvil.ground.errors import InputError, did_you_mean, field_of, inside, listed, shortened

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
BoolArray = NDArray[np.bool_]


def place(noun: object, field: str) -> str:
    """Where a field stands, for an error: `SNCurve.slope`."""
    return field_of(type(noun).__name__, field)


def one_of(where: str, value: object, choices: Sequence[Any]) -> None:
    """InputError, with the nearest choice, unless `value` is one of `choices`."""
    if value is True or value is False or not isinstance(value, Hashable) or value not in choices:
        words = [choice for choice in choices if isinstance(choice, str)]
        raise InputError(where, shortened(value), f"one of {listed(choices)}", did_you_mean(str(value), words))


def positive_number(where: str, value: Any, what: str = "a number above 0") -> float:
    """`value` as a float above 0 (inf allowed); otherwise InputError."""
    number = real_number(where, value, what)
    if not number > 0.0:
        raise InputError(where, f"{number:g}", what)
    return number


def real_number(where: str, value: Any, what: str = "a number") -> float:
    """`value` as a float that is not nan; text, true/false and the like are refused with InputError."""
    if isinstance(value, bool | np.bool_) or not isinstance(value, int | float | np.integer | np.floating):
        raise InputError(where, shortened(value), what)
    if isinstance(value, int) and abs(value) > 10**300:
        raise InputError(where, shortened(value), what)
    number = float(value)
    if np.isnan(number):
        raise InputError(where, "nan", what)
    return number


def text(where: str, value: object) -> None:
    """InputError unless `value` is text with something in it."""
    if not isinstance(value, str) or not value.strip():
        raise InputError(where, shortened(value), "a name")


def finite_samples(values: ArrayLike, *, where: str, unit: str) -> FloatArray:
    """`values` as a read-only contiguous float64 view, shape (n,), n >= 1, every one finite; otherwise InputError."""
    samples = one_row(values, where=where)
    if not np.isfinite(samples).all():
        bad = np.flatnonzero(~np.isfinite(samples))
        raise InputError(
            inside(where, f"sample {bad[0]}"),
            f"{samples[bad[0]]} {unit}".rstrip(),
            "a finite value",
            f"{bad.size} of {samples.size} samples are not finite: cut them out or fill them before counting.",
        )
    return samples


def one_row(values: ArrayLike, *, where: str) -> FloatArray:
    """`values` as a read-only contiguous float64 view, shape (n,), n >= 1; otherwise InputError."""
    if type(values) is not np.ndarray:
        _refuse_units(values, where)
    try:
        raw = np.asarray(values)
    except ValueError:
        raise InputError(where, "rows of different lengths", "one row of samples, shape (n,)") from None
    if raw.dtype.kind not in "iuf":
        raise InputError(where, f"values of type {raw.dtype}", "real numbers", "Convert the values to float64 before.")
    samples = np.ascontiguousarray(raw, dtype=np.float64)
    if samples.ndim != 1 or samples.size == 0:
        raise InputError(
            where, f"an array of shape {samples.shape}", "one row of samples, shape (n,)", "Choose one channel."
        )
    return read_only(samples.reshape(-1))


def plain_numbers(value: Any, where: str, what: str = "real numbers") -> FloatArray:
    """`value` as float64 of its shape; InputError for text, true or false, and complex numbers."""
    try:
        raw = np.asarray(value)
    except ValueError:
        raise InputError(where, "rows of different lengths", "numbers in an array") from None
    if raw.dtype.kind == "O" and all(_plain_number(one) for one in raw.ravel().tolist()):
        raw = raw.astype(np.float64)
    if raw.dtype.kind not in "iuf":
        raise InputError(where, f"values of type {raw.dtype}", what, "Convert the values to float64 before.")
    return np.asarray(raw, dtype=np.float64)


def _plain_number(one: Any) -> bool:
    return isinstance(one, int | float) and not isinstance(one, bool)


def as_numbers(where: str, values: ArrayLike, what: str = "numbers") -> FloatArray:
    """The same, and InputError for values that carry a unit: they are never taken without it.

    >>> as_numbers("lives", [1, 2.5]).tolist()
    [1.0, 2.5]
    """
    if type(values) is not np.ndarray:
        _refuse_units(values, where)
    return plain_numbers(values, where, what)


def together(where: str, **arrays: ArrayLike) -> tuple[int, ...]:
    """The shape that the arrays broadcast to; InputError, with the shape of each, where they do not."""
    shapes = {name: np.shape(array) for name, array in arrays.items()}
    try:
        return np.broadcast_shapes(*shapes.values())
    except ValueError:
        found = " and ".join(f"{name} of shape {shape}" for name, shape in shapes.items())
        raise InputError(where, found, "the same shape, or one value for all") from None


def places_of(where: str, places: ArrayLike | None, size: int) -> IntArray:
    """Places in something of `size`, all of them by default; InputError for what is no whole number from 0 to below it."""
    if places is None:
        return np.arange(size)
    wanted = np.asarray(places)
    if wanted.ndim != 1 or (wanted.size and wanted.dtype.kind not in "iu"):
        raise InputError(where, shortened(places), "a row of whole numbers")
    if wanted.size and not 0 <= int(wanted.min()) <= int(wanted.max()) < size:
        raise InputError(where, f"{wanted.min()} to {wanted.max()}", f"places from 0 to {size - 1}")
    return wanted.astype(np.int64)


def given_back(where: str, found: Any, shape: tuple[int, ...]) -> FloatArray:
    """What a function of the caller's gave, as finite numbers of `shape` (one number for all will do); otherwise InputError.

    >>> given_back("stress", 80.0, (2,)).tolist()
    [80.0, 80.0]
    """
    try:
        numbers = np.broadcast_to(as_numbers(where, found), shape)
    except ValueError:  # an InputError is one
        raise InputError(
            where, f"a function that gives {shortened(found)}", f"one that gives numbers, shape {shape}"
        ) from None
    if not np.isfinite(numbers).all():
        raise InputError(where, "a function that gives values that are not finite", "one that gives finite numbers")
    return numbers


def _refuse_units(values: Any, where: str) -> None:
    """InputError for values that carry a unit: a number is never taken from them as it is."""
    name = getattr(values, "name", None)
    unit = getattr(values, "units", getattr(values, "unit", None))
    if unit is not None or (isinstance(name, str) and name.rstrip().endswith("]")):
        raise InputError(
            where,
            f"values in {unit if unit is not None else name}",
            "plain numbers",
            "Convert them to the coherent unit.",
        )


def read_only(array: NDArray[Any]) -> NDArray[Any]:
    """A view of `array` that cannot be written to."""
    view = array.view()
    view.setflags(write=False)
    return view


def kept(array: NDArray[Any]) -> NDArray[Any]:
    """A read-only array to keep: a copy, unless `array` is read-only already."""
    return read_only(array.copy() if array.flags.writeable else array)


def refuse_unless(good: Any, where: str, found: str, expected: str, remedy: str = "") -> None:
    """InputError unless `good`, a truth or an array of them, holds throughout; nan holds nowhere."""
    if not np.all(good):
        raise InputError(where, found, expected, remedy)


def reach(values: ArrayLike) -> str:
    """The extent of some values in words: "3" or "0.5 to 12".

    >>> reach([0.5, 12.0])
    '0.5 to 12'
    """
    row = np.ravel(np.asarray(values, dtype=np.float64))
    low, high = float(row.min(initial=np.inf)), float(row.max(initial=-np.inf))
    return f"{low:g}" if low == high else f"{low:g} to {high:g}"


def share_of_one(where: str, value: object) -> float:
    """`value` from 0 to 1; otherwise InputError."""
    share = real_number(where, value)
    if not 0.0 <= share <= 1.0:
        raise InputError(where, f"{share:g}", "a share from 0 to 1")
    return share
