"""Plain functions handed to compiled loops by their address.

A form (a growth law, a measure of a tensor, ...) has a plain function of numbers, without numba in sight. It is compiled when a
loop first needs it, and the loop is given its address: one compiled loop serves all forms, stays in the cache for the next
process, and an edited form is compiled anew. (A compiled function as argument would be inlined, but then the loop is never
found in the cache; an overload by type is found there even after the form was edited.)

What is handed in raises nothing (numbers behave as NumPy's; inf and nan carry the news), and a row it is given has no length.
"""

from __future__ import annotations

import functools
from collections.abc import Callable
from typing import Any

from llvmlite import ir
from numba import cfunc, types
from numba.core import cgutils
from numba.extending import intrinsic

REAL, WHOLE, ROW = types.float64, types.int64, types.CPointer(types.float64)


@functools.cache  # also keeps the code alive
def _made(function: Callable[..., Any], signature: Any) -> Any:
    try:
        return cfunc(signature, cache=True, error_model="numpy")(function)
    except RuntimeError:  # no folder for the cache
        return cfunc(signature, error_model="numpy")(function)


def address(function: Callable[..., Any], signature: Any) -> int:
    """Where the compiled `function` of that numba signature is, for a loop that calls it with `caller(signature)`."""
    return int(_made(function, signature).address)


def caller(signature: Any) -> Any:
    """A function for compiled loops: call(address, *arguments) calls what stands there; arrays are passed as rows.

    >>> from vivid_anvil.ground.compiled import compiled
    >>> PAIR = REAL(REAL, REAL)
    >>> call = caller(PAIR)
    >>> @compiled
    ... def twice(at, x):
    ...     return call(at, x, x)
    >>> twice(address(lambda a, b: a + b, PAIR), 3.0)
    6.0
    """

    @intrinsic
    def call(typingctx: Any, at: Any, *given: Any) -> Any:  # noqa: ARG001 (what numba hands over)
        def code(context: Any, builder: Any, sig: Any, args: Any) -> Any:
            unpacked = cgutils.unpack_tuple(builder, args[1])
            values = [
                context.make_array(have)(context, builder, value).data
                if isinstance(have, types.Array)
                else context.cast(builder, value, have, want)
                for want, have, value in zip(signature.args, sig.args[1], unpacked, strict=True)
            ]
            kind = ir.FunctionType(
                context.get_value_type(signature.return_type), [context.get_value_type(one) for one in signature.args]
            )
            found = builder.call(builder.inttoptr(args[0], kind.as_pointer()), values)
            return context.get_dummy_value() if signature.return_type is types.void else found

        return signature.return_type(types.int64, types.StarArgTuple(given)), code

    return call
