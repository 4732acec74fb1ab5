"""Layups in the usual notation: [0/±45/90]s as angles from the bottom ply to the top one, and back.

`_2` after an angle or `2` after brackets repeats, `s` after the last bracket mirrors, `±45` is +45 then -45 and `∓45` the other
way round (`+-45` and `-+45` are the same), `~` after the last angle is a middle ply that is not mirrored.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import NoReturn

import numpy as np

from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.units import number, opened

MOST = 2000  # plies of a laminate
_ANGLE = re.compile(r"(±|∓|\+-|-\+)?\s*([+-]?(?:\d+\.?\d*|\.\d+))\s*°?")
_TIMES = re.compile(r"_\s*(\d+)|([₀-₉]+)")
_COUNT = re.compile(r"\s*_?\s*(\d+|[₀-₉]+)")
_LOWERED = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")


def angles_of(layup: str) -> tuple[float, ...]:
    """The angles of a layup, degrees, from the bottom ply to the top one.

    Parameters
    ----------
    layup : str
        Such as "[0/±45/90]s".

    Returns
    -------
    tuple of float
        Angles above -360 and below 360, positive from x towards y.

    Raises
    ------
    InputError
        For a text that cannot be read; the message points at the character.

    Examples
    --------
    >>> angles_of("[0/±45/90]s")
    (0.0, 45.0, -45.0, 90.0, 90.0, -45.0, 45.0, 0.0)
    >>> angles_of("[(0/90)2/45~]s")
    (0.0, 90.0, 0.0, 90.0, 45.0, 90.0, 0.0, 90.0, 0.0)
    """
    if not isinstance(layup, str):
        raise InputError("layup", shortened(layup), 'text such as "[0/±45/90]s"')
    return _Reader(layup).whole()


class _Reader:
    """One pass over the text; `at` is the next character."""

    def __init__(self, text: str) -> None:
        self.text, self.at = text, 0

    def whole(self) -> tuple[float, ...]:
        self.skip()
        self.take("[", "a bracket [ that opens the layup")
        angles, middle = self.inner("]")
        times = self.count()
        self.skip()
        mirrored = self.peek() in ("s", "S")
        total = self.peek() in ("t", "T")
        if mirrored or total:
            self.at += 1
        self.skip()
        if self.at < len(self.text):
            self.refuse("nothing more: at most a number and s after the last bracket")
        if middle and not mirrored:
            self.refuse(
                "an s after the last bracket, for ~ marks the middle ply of a mirrored layup", self.text.index("~")
            )
        if middle and times > 1:
            self.refuse("no number after the last bracket beside ~", self.text.index("~"))
        whole = angles * times
        if mirrored:
            whole = whole + (whole[-2::-1] if middle else whole[::-1])
        self.enough(len(whole))
        return tuple(whole)

    def inner(self, end: str) -> tuple[list[float], bool]:
        found: list[float] = []
        middle = False
        while True:
            self.skip()
            if self.peek() == "(":
                self.at += 1
                part, within = self.inner(")")
                if within:
                    self.refuse("no ~ inside of round brackets", self.text.index("~"))
                times = self.count()
                self.enough(len(found) + len(part) * times)
                found += part * times
            else:
                found += self.angle()
            self.skip()
            if self.peek() == "~":
                middle = True
                self.at += 1
                self.skip()
            if self.peek() == end:
                self.at += 1
                return found, middle
            if middle:
                self.refuse(f"{end!r}: ~ stands after the last angle")
            if self.peek() not in ("/", ","):
                self.refuse(f"/ before the next angle, or {end} at the end")
            self.at += 1

    def angle(self) -> list[float]:
        match = _ANGLE.match(self.text, self.at)
        if match is None:
            self.refuse("an angle in degrees, such as 45, -45 or ±45")
        size = float(match[2])
        if not abs(size) < 360.0:
            self.refuse("an angle below 360 degrees")
        if match[1] is not None and match[2][0] in "+-":
            self.refuse("no second sign after ±", match.start(2))
        self.at = match.end()
        pair = {None: [size], "±": [size, -size], "+-": [size, -size]}.get(match[1], [-size, size])
        times = _TIMES.match(self.text, self.at)
        if times is None:
            return pair
        self.at = times.end()
        return pair * self.often(times[1] or times[2])

    def count(self) -> int:
        match = _COUNT.match(self.text, self.at)
        if match is None:
            return 1
        self.at = match.end()
        return self.often(match[1])

    def often(self, digits: str) -> int:
        times = int(digits.translate(_LOWERED)[:6])
        if times < 1:
            self.refuse("a number of at least 1", self.at - 1)
        self.enough(times)
        return times

    def enough(self, plies: int) -> None:
        if plies > MOST:
            raise InputError("layup", f"{plies} plies", f"at most {MOST}")

    def skip(self) -> None:
        while self.peek().isspace():
            self.at += 1

    def peek(self) -> str:
        return self.text[self.at : self.at + 1]

    def take(self, wanted: str, words: str) -> None:
        if self.peek() != wanted:
            self.refuse(words)
        self.at += 1

    def refuse(self, expected: str, at: int | None = None) -> NoReturn:
        place = self.at if at is None else at
        here = repr(self.text[place]) if place < len(self.text) else "the end"
        shown = self.text if len(self.text) <= 60 else f"{self.text[max(place - 25, 0) : place + 25]}"
        found = f"{shown!r}, which cannot be read at character {place + 1}, {here}"
        raise InputError("layup", found, expected, 'Write for instance "[0/±45/90]s".')


@opened()
def layup_text(angles: Sequence[float]) -> str:
    """Angles in the usual notation, as short as it gets: what `angles_of` reads back.

    Parameters
    ----------
    angles : sequence of float
        Degrees, from the bottom ply to the top one.

    Returns
    -------
    str
        The layup.

    Raises
    ------
    InputError
        For no ply, and for what are no angles below 360 degrees.

    Examples
    --------
    >>> layup_text([0, 45, -45, 90, 90, -45, 45, 0]), layup_text([0, 90, 0]), layup_text([30, 30, -30])
    ('[0/±45/90]s', '[0/90~]s', '[30_2/-30]')
    """
    try:
        given = np.asarray(angles, dtype=np.float64)
    except (TypeError, ValueError):
        given = np.zeros(0)
    if given.ndim != 1 or not 0 < given.size <= MOST or not (np.abs(given) < 360.0).all():
        raise InputError("angles", shortened(angles), f"1 to {MOST} angles below 360 degrees")
    own = (given + 0.0).tolist()
    if own == own[::-1] and len(own) > 2 and len(own) % 2:
        return f"[{_listed(own[: len(own) // 2 + 1])}~]s"
    mirrored = own == own[::-1] and len(own) % 2 == 0
    base = own[: len(own) // 2] if mirrored else own
    period = next(n for n in range(1, len(base) + 1) if len(base) % n == 0 and base[:n] * (len(base) // n) == base)
    times = len(base) // period
    if period == 1 and times > 1:
        return f"[{_angle(base[0])}_{times}]{'s' if mirrored else ''}"
    return f"[{_listed(base[:period])}]{times if times > 1 else ''}{'s' if mirrored else ''}"


def _listed(angles: list[float]) -> str:
    parts, i = [], 0
    while i < len(angles):
        run = 1
        while i + run < len(angles) and angles[i + run] == angles[i]:
            run += 1
        if run == 1 and i + 1 < len(angles) and angles[i + 1] == -angles[i] != 0.0:
            parts.append(("±" if angles[i] > 0.0 else "∓") + _angle(abs(angles[i])))
            i += 2
            continue
        parts.append(_angle(angles[i]) + (f"_{run}" if run > 1 else ""))
        i += run
    return "/".join(parts)


def _angle(angle: float) -> str:
    short = number(angle, 10)
    return short if float(short) == angle and "e" not in short else f"{angle:.17f}".rstrip("0").rstrip(".")
