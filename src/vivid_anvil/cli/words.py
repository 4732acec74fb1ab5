"""How the command takes and gives words: help in which brackets are text, negative numbers as values, silence where asked."""

from __future__ import annotations

import re
from contextvars import ContextVar
from typing import Any

from typer.core import TyperCommand

_QUIET = ContextVar("quiet", default=False)
CODES: ContextVar[list[str]] = ContextVar("codes of the findings that were shown")

_MINUS = "\u2212"  # the minus sign of print: no option begins with it
_NEGATIVE = re.compile(r"-(?=[\d.])")


def words(text: str) -> str:
    """Help text whose square brackets are units, not markup."""
    return text.replace("[", r"\[")


def quiet() -> bool:
    """Whether this call was asked to say nothing but errors."""
    return _QUIET.get()


def be_quiet(asked: bool) -> None:
    """Whether this call says nothing but errors."""
    _QUIET.set(asked)


class TakesNegatives(TyperCommand):
    """A command among whose values "-5 MPa" is a value, not an option."""

    def parse_args(self, ctx: Any, args: list[str]) -> list[str]:
        """Hide the minus of numbers from the parser; the values get it back."""
        parsed = super().parse_args(ctx, [_NEGATIVE.sub(_MINUS, one) if _NEGATIVE.match(one) else one for one in args])
        ctx.params = {name: _with_minus(value) for name, value in ctx.params.items()}
        return parsed


def _with_minus(value: Any) -> Any:
    if type(value) is str:
        return value.replace(_MINUS, "-")
    return type(value)(_with_minus(one) for one in value) if isinstance(value, list | tuple) else value
