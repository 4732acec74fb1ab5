"""What a key of the study file says, and an example of its value."""

from __future__ import annotations

from typing import Any, NamedTuple


class KeyWords(NamedTuple):
    """What a key says, and an example of its value."""

    says: str
    example: Any
